// SPDX-License-Identifier: GPL-3.0-or-later
//! Doors: linkages, synthesis, what holds them open, what is in whose way; and the logic of a gear.
#include <cmath>
#include <numbers>

#include "case.h"
#include "core/doors/hold.h"
#include "core/doors/interlock.h"
#include "core/doors/linkage.h"
#include "core/logic/machine.h"

namespace kranich::oracle {
namespace {

constexpr double deg = std::numbers::pi / 180;

Json degrees_of(const std::vector<double>& angles) {
  Json list = Json::array();
  for (const double a : angles) list.push_back(to_deg(a));
  return list;
}

//! What a linkage does on its way, by shares of the crank's turn.
void follow(const doors::DoorLinkage& l, double open, const std::string& prefix, Answers& a) {
  a[prefix + "rod_length_m"] = l.rod();
  for (int percent = 0; percent <= 100; ++percent) {
    const double share = percent / 100.0;
    const std::string at = "_at_" + std::to_string(percent) + "_percent_deg";
    a[prefix + "door_angle" + at] = to_deg(doors::door_turn(l, share * open));
    a[prefix + "transmission_angle" + at] = to_deg(doors::transmission_angle(l, share * open));
    a[prefix + "velocity_ratio_at_" + std::to_string(percent) + "_percent"] =
        doors::door_rate(l, share * open);
  }
  a[prefix + "transmission_angle_closed_deg"] = to_deg(doors::transmission_angle(l, 0));
  a[prefix + "transmission_angle_open_deg"] = to_deg(doors::transmission_angle(l, open));
  a[prefix + "door_angle_open_deg"] = to_deg(doors::door_turn(l, open));
  const auto least = doors::least_transmission(l, open);
  a[prefix + "least_transmission_angle_deg"] = to_deg(least.angle);
  a[prefix + "least_transmission_angle_at_crank_turn_deg"] = to_deg(least.crank);
  const auto end = doors::end_of(l, open);
  const bool on_the_way = end.what != doors::Ends::nothing && std::abs(end.crank) < std::abs(open);
  const Json what = end.what == doors::Ends::locks        ? Json("linkage locks")
                    : end.what == doors::Ends::turns_back ? Json("door turns back")
                                                          : Json("nothing");
  a[prefix + "beyond_open"] = what;
  a[prefix + "before_open"] = on_the_way ? what : Json("nothing");
  a[prefix + "at_crank_turn_deg"] = to_deg(end.crank);
  a[prefix + "opens_fully"] = !on_the_way;
  a[prefix + "locks_before_open"] = on_the_way && end.what == doors::Ends::locks;
  a[prefix + "door_turns_back_before_open"] = on_the_way && end.what == doors::Ends::turns_back;
}

Answers door_linkage(const Given& g) {
  const doors::DoorLinkage l{{g.vec("crank_axis_point_m"), g.vec("crank_axis_direction").normalized()},
                             {g.vec("hinge_point_m"), g.vec("hinge_direction").normalized()},
                             g.vec("crank_ball_closed_m"),
                             g.vec("door_ball_closed_m")};
  Answers a;
  follow(l, g.deg("crank_turn_to_open_deg"), "", a);
  return a;
}

Answers bell_crank_doors(const Given& g) {
  Answers a;
  const auto flat = [](const std::vector<double>& yz) { return Vec3(0, yz.at(0), yz.at(1)); };
  const auto at = [](double length, double angle) {
    return Vec3(0, length * std::cos(angle), length * std::sin(angle));
  };
  const Vec3 crank = flat(g.list("crank_pivot_yz_m"));
  for (const auto& door : g.before("_hinge_yz_m")) {
    const std::string of = door + "_";
    const Vec3 hinge = flat(g.list(of + "hinge_yz_m"));
    const doors::DoorLinkage l{
        {crank, Vec3::UnitX()},
        {hinge, Vec3::UnitX()},
        crank + at(g[of + "crank_arm_length_m"], g.deg(of + "crank_arm_angle_closed_deg")),
        hinge + at(g[of + "door_arm_length_m"], g.deg(of + "door_arm_angle_closed_deg"))};
    follow(l, g.deg(g.has(of + "crank_turn_deg") ? of + "crank_turn_deg" : "crank_turn_deg"), of, a);
  }
  return a;
}

Answers four_bar_synthesis(const Given& g) {
  const auto angles = [&](const char* key) {
    auto list = g.list(key);
    for (double& v : list) v *= deg;
    return list;
  };
  const double d = g["pivot_distance_m"];
  const auto crank = angles("crank_angles_deg");
  const auto door = angles("door_arm_angles_deg");
  const auto bar = crank.size() == 2 ? doors::through_two(d, crank, door, g["crank_arm_length_m"])
                                     : doors::through_three(d, crank, door);
  Answers a;
  a["number_of_linkages"] = bar ? 1 : 0;
  if (!bar) return a;
  a["crank_arm_length_m"] = bar->crank_arm;
  a["door_arm_length_m"] = bar->door_arm;
  a["rod_length_m"] = bar->rod;
  a["largest_misfit_m"] = doors::misfit(*bar, d, crank, door);
  a["keeps_its_branch"] = doors::keeps_branch(*bar, d, crank, door);
  a["passes_in_order_on_one_branch"] = doors::keeps_branch(*bar, d, crank, door);
  return a;
}

Answers hold_margin(const Given& g) {
  doors::HeldDoor d;
  d.closed =
      g.has("door_direction_closed_from_y_axis_deg") ? g.deg("door_direction_closed_from_y_axis_deg") : 0;
  d.counter_clockwise = !g.has("opening_turn") || g.text("opening_turn") != "clockwise";
  d.open = g.deg("open_angle_deg");
  d.mass = g["door_mass_kg"];
  d.cg_along = g["door_cg_along_m"];
  if (const auto v = g.any({"door_area_m2"})) d.area = *v;
  if (const auto v = g.any({"door_chord_m"})) d.chord = *v;
  if (const auto v = g.any({"normal_force_coefficient"})) d.normal_coefficient = *v;
  if (const auto v = g.any({"air_density_kg_per_m3"})) d.density = *v;
  if (const auto v = g.any({"airspeed_m_per_s"})) d.speed = *v;
  if (const auto v = g.any({"hinge_stiffness_Nm_per_rad"})) d.hinge_stiffness = *v;
  if (const auto v = g.any({"servo_holding_torque_Nm", "servo_torque_Nm", "servo_holding_torque_at_door_Nm"}))
    d.servo_torque = *v;
  if (const auto v = g.any({"magnet_pull_off_force_N", "magnet_force_N", "magnet_holding_force_N"})) {
    d.magnet_force = *v;
    d.magnet_along = g.one({"magnet_along_m", "magnet_on_door_along_m", "magnet_distance_from_hinge_m"});
  }
  if (g.has("spring_anchor_yz_m")) {
    const auto on_door = g.list("spring_point_on_door_along_and_offset_m");
    const auto anchor = g.list("spring_anchor_yz_m");
    doors::HoldSpring s{on_door.at(0), on_door.at(1), {anchor.at(0), anchor.at(1)}, 0, 0, 0};
    if (const auto v = g.any({"spring_initial_force_N"})) s.initial_force = *v;
    if (const auto v = g.any({"spring_rate_N_per_m"})) s.rate = *v;
    if (const auto v = g.any({"spring_free_length_m"})) s.free_length = *v;
    d.spring = s;
  }
  Answers a;
  for (int percent = 0; percent <= 100; ++percent) {
    const double angle = d.open * percent / 100;
    const std::string at = "_at_" + std::to_string(percent) + "_percent_Nm";
    a["spring_opening_torque" + at] = d.spring_torque(angle);
    a["closing_torque" + at] = d.closing(angle);
    a["holding_torque" + at] = d.holding(angle);
  }
  const auto f = doors::hold_figures(d);
  a["angles_where_reserve_crosses_30_percent_deg"] = degrees_of(f.crossings);
  a["held_with_30_percent_at_full_open"] = f.held_open;
  a["spring_loses_its_arm_at_deg"] = degrees_of(f.arm_lost);
  a["largest_spring_torque_Nm"] = f.largest_spring_torque;
  a["largest_spring_torque_at_deg"] = to_deg(f.at);
  if (const auto place = doors::spring_place(d)) a["spring_point_along_for_30_percent_m"] = *place;
  return a;
}

Answers forbidden_region(const Given& g) {
  const auto flat = [&](const char* key) {
    const auto v = g.list(key);
    return Eigen::Vector2d(v.at(0), v.at(1));
  };
  doors::LegAndDoor p{};
  p.pivot = flat("leg_pivot_xz_m");
  p.leg_length = g["leg_length_m"];
  p.wheel_radius = g["wheel_radius_m"];
  p.leg_radius = g["leg_radius_m"];
  p.aft = !g.has("swing_direction") || g.text("swing_direction") != "forward";
  p.leg_turn = g.deg("turn_deg");
  p.hinge = flat("door_hinge_xz_m");
  p.door_length = g["door_length_m"];
  p.half_thickness = g["door_half_thickness_m"];
  p.closed = g.deg("door_direction_closed_from_x_axis_deg");
  p.counter_clockwise = !g.has("door_opening_turn") || g.text("door_opening_turn") != "clockwise";
  p.door_turn = g.deg("door_open_angle_deg");
  const double wanted = g["wanted_clearance_m"];
  Answers a;
  for (const double door : g.list("door_angles_to_report_deg")) {
    const auto list =
        doors::below([&](double leg) { return p.clearance(leg, door * deg); }, p.leg_turn, wanted);
    // Bounds as a case lists them: those inside the travel.
    Json bounds = Json::array();
    for (const auto& [from, to] : list) {
      if (from > 0) bounds.push_back(to_deg(from));
      if (to < p.leg_turn) bounds.push_back(to_deg(to));
    }
    a["leg_angles_bounding_conflict_with_door_at_" + in_a_name(door) + "_deg"] = bounds;
  }
  const auto f = doors::forbidden([&](double leg, double door) { return p.clearance(leg, door); }, p.leg_turn,
                                  p.door_turn, wanted);
  a["least_door_angle_that_frees_whole_swing_deg"] =
      std::isfinite(f.frees_from) ? Json(to_deg(f.frees_from)) : Json(nullptr);
  a["some_door_angle_frees_whole_swing"] = std::isfinite(f.frees_from);
  a["forbidden_fraction_of_plane"] = f.share;
  a["least_clearance_door_closed_leg_stowed_m"] = p.clearance(p.leg_turn, 0);
  a["least_clearance_door_closed_leg_down_m"] = p.clearance(0, 0);
  a["least_clearance_door_open_m"] = f.least_open;
  return a;
}

//! "up switch stuck open" as its answers are named.
std::string underscored(const std::string& words) {
  std::string out;
  for (const char c : words) {
    const bool plain = std::isalnum(static_cast<unsigned char>(c)) != 0;
    if (plain)
      out += static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    else if (!out.empty() && out.back() != '_')
      out += '_';
  }
  while (!out.empty() && out.back() == '_') out.pop_back();
  return out;
}

logic::Pattern pattern_of(const Json& j) {
  logic::Pattern p;
  for (const auto& [name, value] : j.items()) {
    const auto word = [](const Json& v) {
      return v.is_boolean() ? std::string(v.get<bool>() ? "true" : "false") : v.get<std::string>();
    };
    if (value.is_array())
      for (const auto& v : value) p[name].push_back(word(v));
    else
      p[name].push_back(word(value));
  }
  return p;
}
//! Any of a list of patterns, or one; of none `otherwise`.
logic::Condition condition_of(const Json& j, logic::Condition otherwise) {
  if (j.empty()) return otherwise;
  if (!j.is_array()) return logic::Condition::all_of(pattern_of(j));
  std::vector<logic::Pattern> list;
  for (const auto& one : j) list.push_back(pattern_of(one));
  return logic::Condition::any_of(list);
}

Answers logic_machine(const Given& g) {
  logic::Machine m;
  for (const auto& [name, values] : g.at("variables").items())
    m.variables.push_back({name, values.get<std::vector<std::string>>()});
  m.initial = g.at("initial").get<std::map<std::string, std::string>>();
  for (const auto& e : g.at("events"))
    m.events.push_back({e.at("name").get<std::string>(), e.value("by", "machine") != "machine",
                        condition_of(e.value("when", Json()), logic::Condition::always()),
                        e.at("set").get<std::map<std::string, std::string>>()});
  if (g.has("outputs"))
    for (const auto& [name, rows] : g.at("outputs").items())
      m.outputs.push_back({name, condition_of(rows, logic::Condition::never())});
  for (const auto& p : g.at("properties")) {
    const auto kind = p.at("kind").get<std::string>();
    m.properties.push_back({p.at("name").get<std::string>(),
                            kind == "never"  ? logic::Demand::never
                            : kind == "ends" ? logic::Demand::ends
                                             : logic::Demand::settles,
                            condition_of(p.value("pattern", Json()), logic::Condition::always())});
  }
  for (const auto& f : g.at("faults"))
    m.faults.push_back({f.at("name").get<std::string>(),
                        f.value("hold", std::map<std::string, std::string>{}),
                        f.value("remove_events", std::vector<std::string>{})});
  if (const auto wrong = logic::faults_in(m); !wrong.empty()) throw std::runtime_error(wrong.front());
  Answers a;
  for (const auto& f : m.faults) {
    const auto e = logic::explore(m, {&f});
    const std::string of = underscored(f.name) + "__";
    a[of + "reachable_states"] = e.states;
    for (const auto& o : e.outcomes) {
      const std::string property = of + underscored(o.property) + "__";
      a[property + "violated"] = o.violated;
      if (o.violated) a[property + "shortest_event_count"] = o.run.size();
    }
  }
  return a;
}

}  // namespace

void add_door_kinds(std::map<std::string, Driver>& drivers) {
  drivers["door_linkage"] = door_linkage;
  drivers["bell_crank_doors"] = bell_crank_doors;
  drivers["four_bar_synthesis"] = four_bar_synthesis;
  drivers["hold_margin"] = hold_margin;
  drivers["forbidden_region"] = forbidden_region;
  drivers["logic"] = logic_machine;
}

}  // namespace kranich::oracle
