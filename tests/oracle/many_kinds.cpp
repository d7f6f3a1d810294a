// SPDX-License-Identifier: GPL-3.0-or-later
//! Gear of any number of legs.
#include <algorithm>
#include <cmath>

#include "case.h"
#include "core/base/numerics.h"
#include "core/base/quantity.h"
#include "core/place/place.h"
#include "core/place/tandem.h"
#include "core/place/tipping.h"
#include "core/spring/first_contact.h"
#include "core/stance/shares.h"
#include "core/stance/stance.h"

namespace kranich::oracle {
namespace {

using stance::WheelOnLeg;

//! A number of an object of the case, or what stands for it where it is left out.
double value(const Json& j, const char* key, double otherwise) {
  return j.contains(key) ? j[key].get<double>() : otherwise;
}

force::LegLaw law_of(const Json& j) {
  force::LegLaw law;
  law.travel = value(j, "leg_travel_to_stop_m", 0);
  const std::string kind = j.value("leg_kind", "rigid");
  if (kind == "rigid" || law.travel == 0) return law;
  if (kind == "linear" || kind == "coil") {
    law.kind = force::LegLaw::Kind::linear;
    law.rate = j.at("leg_rate_N_per_m").get<double>();
    law.preload = value(j, "leg_preload_N", 0);
  } else if (kind == "gas") {
    law.kind = force::LegLaw::Kind::gas;
    law.piston_area = j.at("gas_piston_area_m2").get<double>();
    law.volume = j.at("gas_volume_extended_m3").get<double>();
    law.pressure = j.at("gas_pressure_extended_absolute_Pa").get<double>();
    law.ambient = value(j, "gas_ambient_pressure_Pa", 101325);
    law.exponent = value(j, "gas_exponent", 1);
  } else {
    throw std::runtime_error("a leg of the kind " + kind);
  }
  return law;
}

//! A leg of a case at a side offset of its own or another.
WheelOnLeg wheel_of(const Json& j, double y) {
  WheelOnLeg w;
  w.leg = force::straight_leg(
      Vec3(j.at("axle_station_m").get<double>(), y, j.at("axle_waterline_extended_m").get<double>()),
      law_of(j));
  w.radius = j.at("free_radius_m").get<double>();
  w.tyre.rate = j.at("tyre_rate_each_N_per_m").get<double>();
  if (value(j, "wheels_on_axle", 1) > 1) w.spacing = j.at("wheel_spacing_m").get<double>();
  return w;
}
WheelOnLeg wheel_of(const Json& j) { return wheel_of(j, value(j, "axle_offset_y_m", 0)); }

struct Aircraft {
  double mass;
  Vec3 cg;
  std::vector<WheelOnLeg> wheels;
  std::vector<std::string> names;
};
Aircraft aircraft(const Given& g) {
  Aircraft a{g["mass_kg"],
             Vec3(g["cg_station_m"], g.has("cg_offset_y_m") ? g["cg_offset_y_m"] : 0, g["cg_waterline_m"]),
             {},
             {}};
  for (const auto& leg : g.at("legs")) {
    a.wheels.push_back(wheel_of(leg));
    a.names.push_back(leg.value("name", "leg_" + std::to_string(a.names.size() + 1)));
  }
  return a;
}

//! Everything that may be asked of a rest.
Answers rest_answers(const Aircraft& a, const stance::Rest& r, double weight) {
  const Vec3 up = up_direction(r.pitch, r.roll);
  Answers out{{"pitch_deg", to_deg(r.pitch)},
              {"roll_deg", to_deg(r.roll)},
              {"axes_origin_height_above_ground_m", r.heave},
              {"cg_height_above_ground_m", r.heave + up.dot(a.cg)}};
  Json touching = Json::array();
  for (size_t i = 0; i < a.wheels.size(); ++i) {
    const auto& w = r.wheels[i];
    const std::string& name = a.names[i];
    if (w.load > 1e-6 * weight) touching.push_back(i + 1);
    out["load_" + name + "_N"] = w.load;
    out["share_" + name] = w.load / weight;
    out["leg_closure_" + name + "_m"] = w.leg_closure;
    out["tyre_closure_" + name + "_m"] = w.tyre_closure;
    out["gap_under_" + name + "_m"] = w.gap;
    out["bottomed_" + name] = w.bottomed;
    if (a.wheels[i].spacing > 0)
      for (const size_t side : {0u, 1u}) {
        const std::string which = side == 0 ? "_port_wheel" : "_starboard_wheel";
        out["load_" + name + which + "_N"] = w.tyre[side].load;
        out["tyre_closure_" + name + which + "_m"] = w.tyre[side].closure;
      }
  }
  out["legs_in_contact_counted_from_1"] = touching;
  out["number_of_legs_in_contact"] = touching.size();
  return out;
}

Answers stance_many_legs(const Given& g) {
  const Aircraft a = aircraft(g);
  const auto rest = stance::solve(a.mass, a.cg, a.wheels);
  const auto* r = std::get_if<stance::Rest>(&rest);
  if (!r) return {{"stands", false}};
  auto out = rest_answers(a, *r, a.mass * standard_gravity);
  out["stands"] = true;
  out["number_of_stable_rests"] = stance::stable_rests(a.mass, a.cg, a.wheels).size();
  return out;
}

Answers stance_mirror_rests(const Given& g) {
  const Aircraft a = aircraft(g);
  const auto rests = stance::stable_rests(a.mass, a.cg, a.wheels);
  if (rests.empty()) return {{"number_of_stable_rests", 0}, {"stands_upright", false}};
  auto out = rest_answers(a, rests[0], a.mass * standard_gravity);
  out["number_of_stable_rests"] = rests.size();
  out["stands_upright"] =
      std::any_of(rests.begin(), rests.end(), [](const auto& r) { return std::abs(r.roll) < 1e-6; });
  out["roll_magnitude_deg"] = to_deg(std::abs(rests[0].roll));
  // Of the legs beside the centre line: the one that bears most, and what stays clear.
  size_t bears = 0, hangs = 0;
  double most = -1, gap = -1;
  for (size_t i = 0; i < a.wheels.size(); ++i) {
    if (std::abs(a.wheels[i].leg.axle.y()) < 1e-9) continue;
    if (rests[0].wheels[i].load > most) most = rests[0].wheels[bears = i].load;
    if (rests[0].wheels[i].gap > gap) gap = rests[0].wheels[hangs = i].gap;
  }
  out["load_on_the_outrigger_that_touches_N"] = most;
  out["leg_closure_of_the_outrigger_that_touches_m"] = rests[0].wheels[bears].leg_closure;
  out["gap_under_the_other_outrigger_m"] = gap;
  return out;
}

Answers leg_shares(const Given& g) {
  const auto x = g.list("station_m");
  const auto y = g.list("offset_y_m");
  const auto k = g.list("rate_N_per_m");
  const auto u = g.list("foot_height_unloaded_m");
  const auto names = g.at("leg_name");
  const double weight = g["mass_kg"] * standard_gravity;
  std::vector<stance::FootSpring> feet;
  for (size_t i = 0; i < x.size(); ++i) feet.push_back({x[i], y[i], k[i], u[i]});
  const auto travel = [&](const char* key) { return g.has(key) ? g[key] : 0; };
  Answers out;
  const auto solve = [&](const std::string& suffix) {
    const auto s = stance::shares(g["mass_kg"], g["cg_station_m"], g["cg_offset_y_m"], feet,
                                  travel("pitch_travel_height_m"), travel("roll_travel_height_m"));
    if (!s) throw std::runtime_error("no stable rest on pushing contacts");
    out["pitch" + suffix + "_deg"] = to_deg(s->pitch);
    out["roll" + suffix + "_deg"] = to_deg(s->roll);
    Json touching = Json::array();
    for (size_t i = 0; i < feet.size(); ++i) {
      out["load_" + names[i].get<std::string>() + suffix + "_N"] = s->load[i];
      out["share_" + names[i].get<std::string>() + suffix] = s->load[i] / weight;
      if (s->load[i] > 1e-6 * weight) touching.push_back(i + 1);
    }
    out["legs_in_contact" + suffix + "_counted_from_1"] = touching;
  };
  solve("");
  if (g.has("bump_under_leg_counted_from_1")) {
    // A board under a wheel is ground that stands higher: the foot is met sooner.
    feet[static_cast<size_t>(g["bump_under_leg_counted_from_1"]) - 1].height -= g["bump_height_m"];
    solve("_on_bump");
  }
  return out;
}

Answers tandem_shares(const Given& g) {
  const double front = g["front_contact_station_m"];
  const double rear = g["rear_contact_station_m"];
  const double h = g["cg_height_above_ground_m"];
  const double weight = g["mass_kg"] * standard_gravity;
  const double a = g["braking_deceleration_in_g"];
  Answers out;
  bool in_band = true;
  for (const std::string limit : {"forward", "aft"}) {
    const double cg = g[("cg_station_" + limit + "_m").c_str()];
    const double share = place::third_wheel_share(front, rear, cg);
    const double braking = place::nose_share_braking(front, rear, cg, h, a);
    out["front_share_" + limit + "_cg"] = share;
    out["rear_share_" + limit + "_cg"] = 1 - share;
    out["front_load_" + limit + "_cg_N"] = share * weight;
    out["front_share_braking_" + limit + "_cg"] = braking;
    out["rear_share_braking_" + limit + "_cg"] = 1 - braking;
    out["front_load_braking_" + limit + "_cg_N"] = braking * weight;
    in_band = in_band && share >= 0.40 && share <= 0.60;
  }
  out["in_band"] = in_band;
  out["cg_station_for_front_share_0p6_m"] = rear - 0.6 * (rear - front);
  out["cg_station_for_front_share_0p4_m"] = rear - 0.4 * (rear - front);
  out["most_deceleration_rear_brakes_alone_in_g"] =
      place::rear_brakes_alone(front, rear, g["cg_station_forward_m"], h, g["tyre_friction_coefficient"]);
  return out;
}

Answers outrigger_touch(const Given& g) {
  const auto disc = [&](const std::string& line) {
    const auto at = [&](const std::string& key) { return g[(line + key).c_str()]; };
    return place::Disc{Vec3(at("_axle_station_m"), 0, at("_axle_waterline_m")), at("_loaded_radius_m")};
  };
  const auto front = disc("front");
  const auto rear = disc("rear");
  const Vec3 cg(g["cg_station_m"], g["cg_offset_y_m"], g["cg_waterline_m"]);
  const auto names = g.at("outrigger_name");
  Answers out;
  for (size_t i = 0; i < names.size(); ++i) {
    const place::Disc o{Vec3(g.list("outrigger_axle_station_m")[i], g.list("outrigger_axle_offset_y_m")[i],
                             g.list("outrigger_axle_waterline_m")[i]),
                        g.list("outrigger_wheel_radius_m")[i]};
    const double side = o.axle.y() < 0 ? -1 : 1;
    const Vec3 tip(g["wing_tip_station_m"], side * std::abs(g["wing_tip_offset_y_m"]),
                   g["wing_tip_waterline_m"]);
    const auto t = place::outrigger_touch(front, rear, o, cg, tip);
    if (!t) throw std::runtime_error("it does not touch");
    const std::string name = names[i].get<std::string>();
    out["pitch_held_upright_deg"] = to_deg(t->pitch);
    out["gap_under_" + name + "_m"] = t->gap;
    out["carries_upright_" + name] = t->gap <= 0;
    out[name + "_carries_upright"] = t->gap <= 0;
    out["roll_until_" + name + "_touches_deg"] = to_deg(t->roll);
    out["wing_tip_clearance_when_" + name + "_touches_m"] = t->point_height;
    out["cg_beside_tandem_line_when_" + name + "_touches_towards_it_m"] = t->cg_beside;
  }
  return out;
}

Answers outrigger_load(const Given& g) {
  const Aircraft a = aircraft(g);
  const auto or_none = [&](const char* key) { return g.has(key) ? g[key] : 0; };
  stance::SideLoad load;
  load.acceleration = or_none("side_acceleration_towards_starboard_in_g");
  load.wind = or_none("side_wind_force_towards_starboard_N");
  load.slope = radians(or_none("slope_down_to_starboard_deg"));
  load.wind_at = a.cg;
  for (const auto& [key, axis] : {std::pair{"station", 0}, {"offset_y", 1}, {"waterline", 2}})
    if (const std::string name = std::string("side_force_") + key + "_m"; g.has(name.c_str()))
      load.wind_at[axis] = g[name.c_str()];
  const auto rest = stance::solve_leaning(a.mass, a.cg, a.wheels, load);
  const auto* r = std::get_if<stance::Rest>(&rest);
  if (!r) return {{"stands", false}};
  return rest_answers(a, *r, a.mass * standard_gravity);
}

Answers outrigger_topple(const Given& g) {
  const auto t = place::topple(g["mass_kg"], g["cg_height_above_ground_m"], g["roll_inertia_kg_m2"],
                               g["outrigger_gap_m"], g["outrigger_offset_y_m"], g["outrigger_rate_N_per_m"]);
  if (!t) return {{"outrigger_stops_it", false}};
  return {{"outrigger_stops_it", true},
          {"roll_until_touch_deg", to_deg(t->roll_at_touch)},
          {"roll_rate_at_touch_rad_per_s", t->rate_at_touch},
          {"resting_roll_deg", to_deg(t->resting_roll)},
          {"resting_load_N", t->resting_load},
          {"greatest_roll_deg", to_deg(t->greatest_roll)},
          {"greatest_load_N", t->greatest_load},
          {"greatest_over_resting_load", t->greatest_load / t->resting_load}};
}

Answers sideways_stability(const Given& g) {
  const Aircraft a = aircraft(g);
  const auto upright = stance::held_upright(a.mass, a.cg, a.wheels);
  if (!upright) throw std::runtime_error("the wheels do not carry it");
  Answers out{{"cg_height_above_ground_m", upright->cg_height},
              {"pitch_upright_deg", to_deg(upright->pitch)},
              {"net_roll_stiffness_N_m_per_rad", upright->roll_stiffness},
              {"stands_upright_on_these_wheels", upright->roll_stiffness > 0}};
  const auto stiffness = [&](double higher) {
    const auto h = stance::held_upright(a.mass, a.cg + Vec3(0, 0, higher), a.wheels);
    return h ? h->roll_stiffness : std::nan("");
  };
  if (const auto higher = find_nearest_root(stiffness, 0, 0.05 * upright->cg_height, -upright->cg_height,
                                            50 * upright->cg_height))
    out["cg_height_above_ground_at_which_it_turns_unstable_m"] =
        stance::held_upright(a.mass, a.cg + Vec3(0, 0, *higher), a.wheels)->cg_height;
  if (g.has("cg_offset_y_tested_m")) {
    Vec3 cg = a.cg;
    cg.y() += g["cg_offset_y_tested_m"];
    const auto rest = stance::solve(a.mass, cg, a.wheels);
    if (const auto* r = std::get_if<stance::Rest>(&rest))
      out["roll_with_that_cg_offset_deg"] = to_deg(r->roll);
  }
  if (g.has("side_acceleration_tested_in_g")) {
    stance::SideLoad load;
    load.acceleration = g["side_acceleration_tested_in_g"];
    const auto rest = stance::solve_leaning(a.mass, a.cg, a.wheels, load);
    if (const auto* r = std::get_if<stance::Rest>(&rest))
      out["roll_under_that_side_acceleration_deg"] = to_deg(r->roll);
  }
  return out;
}

//! "front port" as a part of a name.
std::string as_key(std::string name) {
  std::replace(name.begin(), name.end(), ' ', '_');
  return name;
}

Answers support_polygon_tipping(const Given& g) {
  const auto x = g.list("contact_x_m");
  const auto y = g.list("contact_y_m");
  const std::vector<double> foot =
      g.has("foot_height_m") ? g.list("foot_height_m") : std::vector<double>(x.size(), 0);
  const auto names = g.at("contact_name");
  const place::Vec2 cg(g["cg_x_m"], g["cg_y_m"]);
  const double h = g["cg_height_above_ground_m"];
  std::vector<place::Vec2> standing;
  std::vector<size_t> line;
  for (size_t i = 0; i < x.size(); ++i)
    if (foot[i] <= 1e-9) {
      standing.emplace_back(x[i], y[i]);
      line.push_back(i);
    }
  const auto polygon = place::support_polygon(standing);
  Answers out;
  if (polygon.size() >= 3) {
    for (const auto& [word, way] : {std::pair{"aft", place::Vec2(1, 0)},
                                    {"to_starboard", place::Vec2(0, 1)},
                                    {"forward", place::Vec2(-1, 0)},
                                    {"to_port", place::Vec2(0, -1)}})
      out["tipping_acceleration_thrown_" + std::string(word) + "_in_g"] =
          place::tipping_in_g(polygon, cg, h, way);
    const auto edge = place::nearest_edge(polygon, cg);
    double direction = to_deg(std::atan2(edge.outward.y(), edge.outward.x()));
    if (direction < 0) direction += 360;
    out["least_tipping_acceleration_in_g"] = edge.distance / h;
    out["direction_of_least_deg"] = direction;
    out["turnover_angle_worst_edge_deg"] = to_deg(std::atan2(h, edge.distance));
    out["tip_back_angle_deg"] = to_deg(std::atan(place::tipping_in_g(polygon, cg, h, {1, 0})));
    out["number_of_corners"] = polygon.size();
    double area = 0;
    for (size_t i = 0; i < polygon.size(); ++i) {
      const auto& a = polygon[i];
      const auto& b = polygon[(i + 1) % polygon.size()];
      area += (a.x() * b.y() - b.x() * a.y()) / 2;
    }
    out["polygon_area_m2"] = std::abs(area);
    return out;
  }
  if (line.size() < 2) throw std::runtime_error("it stands on fewer than two points");
  // On a line of feet, front first; outriggers catch it on either side.
  std::sort(line.begin(), line.end(), [&](size_t a, size_t b) { return x[a] < x[b]; });
  const auto foot_of = [&](size_t i) { return place::Foot{x[i], y[i], foot[i]}; };
  const auto front = foot_of(line.front());
  const auto rear = foot_of(line.back());
  out["tip_back_angle_standing_deg"] = to_deg(std::atan2(rear.x - cg.x(), h));
  for (const bool starboard : {true, false}) {
    const std::string side = starboard ? "starboard" : "port";
    std::optional<place::LeanedTipping> first;
    size_t which = 0;
    for (size_t i = 0; i < x.size(); ++i) {
      if (foot[i] <= 1e-9 || (y[i] > (front.y + rear.y) / 2) != starboard) continue;
      const auto t = place::leaned_tipping(front, rear, foot_of(i), cg.x(), cg.y(), h);
      if (t && (!first || t->roll < first->roll)) {
        first = t;
        which = i;
      }
    }
    if (!first) continue;
    for (const std::string& name : {as_key(names[which].get<std::string>()), side + "_outrigger"}) {
      out["roll_until_" + name + "_touches_deg"] = to_deg(first->roll);
      out[name + "_that_touches_counted_from_1"] = which + 1;
      out["tipping_acceleration_over_" + name + "_purely_sideways_in_g"] = first->sideways_in_g;
      out["least_tipping_acceleration_over_" + name + "_in_g"] = first->least_in_g;
      out["share_" + name + "_leaned_on_it"] = first->share;
    }
    out["turnover_angle_" + side + "_deg"] = to_deg(first->turnover);
  }
  return out;
}

Answers off_centre_nose(const Given& g) {
  const double weight = g["mass_kg"] * standard_gravity;
  const double h = g["cg_height_above_ground_m"];
  const double nose_x = g["nose_contact_station_m"];
  const double main_x = g["main_contact_station_m"];
  const place::Vec2 nose(nose_x, g["nose_contact_offset_y_m"]);
  const place::Vec2 cg(g["cg_station_m"], g["cg_offset_y_m"]);
  const place::Vec2 port(main_x, g["port_main_contact_offset_y_m"]);
  const place::Vec2 starboard(main_x, g["starboard_main_contact_offset_y_m"]);
  Answers out;
  const auto shares = [&](double deceleration, const std::string& suffix) {
    const double nu = place::nose_share_braking(nose_x, main_x, cg.x(), h, deceleration);
    const double s = (cg.y() - port.y() - nu * (nose.y() - port.y())) / (starboard.y() - port.y());
    for (const auto& [name, share] :
         {std::pair{"nose", nu}, {"starboard_main", s}, {"port_main", 1 - nu - s}}) {
      out["share_" + std::string(name) + suffix] = share;
      out["load_" + std::string(name) + suffix + "_N"] = share * weight;
    }
  };
  shares(0, "");
  shares(g["braking_deceleration_in_g"], "_braking");
  const auto polygon = place::support_polygon({nose, port, starboard});
  for (const auto& [side, main] : {std::pair{"port", port}, {"starboard", starboard}}) {
    const place::Vec2 along = (main - nose).normalized();
    const place::Vec2 to = cg - nose;
    const double distance = std::abs(along.x() * to.y() - along.y() * to.x());
    out["turnover_angle_" + std::string(side) + "_deg"] = to_deg(std::atan2(h, distance));
    const place::Vec2 way(0, side == std::string("port") ? -1 : 1);
    out["tipping_acceleration_thrown_to_" + std::string(side) + "_in_g"] =
        place::tipping_in_g(polygon, cg, h, way);
  }
  return out;
}

Answers four_mains_rotation(const Given& g) {
  const double mass = g["mass_kg"];
  const Vec3 cg(g["cg_station_m"], 0, g["cg_waterline_m"]);
  const double lift = g.has("lift_at_cg_N") ? g["lift_at_cg_N"] : 0;
  std::vector<WheelOnLeg> wheels{wheel_of(g.at("nose"), 0)};
  for (const char* line : {"front_main", "rear_main"})
    for (const double side : {-1.0, 1.0})
      wheels.push_back(wheel_of(g.at(line), side * std::abs(g.at(line).at("axle_offset_y_m").get<double>())));
  const auto at = [&](double pitch) {
    const auto h = stance::held_at_pitch(mass, cg, wheels, pitch, lift);
    if (!h) throw std::runtime_error("the wheels do not carry it");
    return *h;
  };
  const auto load = [](const stance::Held& h, size_t first, size_t last) {
    double sum = 0;
    for (size_t i = first; i <= last; ++i) sum += h.wheels[i].load;
    return sum;
  };
  const auto standing = find_nearest_root([&](double p) { return at(p).pitch_moment; }, 0, 0.005, -0.4, 0.4);
  if (!standing) throw std::runtime_error("it does not stand");
  Answers out;
  const auto tell = [&](const std::string& when, const stance::Held& h) {
    out["load_nose_" + when + "_N"] = load(h, 0, 0);
    out["load_front_mains_" + when + "_N"] = load(h, 1, 2);
    out["load_rear_mains_" + when + "_N"] = load(h, 3, 4);
    out["pitch_" + when + "_deg"] = to_deg(h.pitch);
    out["nose_up_moment_" + when + "_N_m"] = h.pitch_moment;
  };
  tell("standing", at(*standing));
  // A wheel leaves where it neither presses nor hangs clear.
  const auto leaves = [&](size_t wheel) {
    return find_nearest_root(
        [&](double p) {
          const auto h = at(p);
          const auto& w = h.wheels[wheel];
          return w.gap > 0 ? w.gap : -w.load / (wheels[wheel].tyre.rate);
        },
        *standing + 1e-9, 0.002, *standing, 0.6);
  };
  if (const auto p = leaves(0)) tell("when_nose_leaves", at(*p));
  if (const auto p = leaves(1)) tell("when_front_mains_leave", at(*p));
  return out;
}

Answers liftoff(const Given& g) {
  const auto disc = [&](const std::string& line) {
    const auto at = [&](const std::string& key) { return g[(line + key).c_str()]; };
    return place::Disc{Vec3(at("_axle_station_m"), 0, at("_axle_waterline_extended_m")),
                       at("_free_radius_m")};
  };
  const auto pitch = place::pitch_on_discs(disc("front"), disc("rear"), 0);
  if (!pitch) throw std::runtime_error("no plane under both wheels");
  const place::LiftoffInput in{g["mass_kg"],
                               g["wing_area_m2"],
                               g["lift_curve_slope_per_rad"],
                               g.deg("zero_lift_angle_deg"),
                               g.deg("wing_incidence_to_level_reference_deg"),
                               g["lift_coefficient_max"],
                               g["drag_coefficient_ground_run"],
                               g["thrust_N"],
                               g["rolling_friction_coefficient"],
                               g["air_density_kg_per_m3"]};
  const auto l = place::liftoff_in_stance(in, *pitch);
  Answers out{{"pitch_extended_deg", to_deg(l.pitch)},
              {"lift_coefficient_in_stance", l.lift_coefficient},
              {"stall_speed_m_per_s", l.stall_speed},
              {"lifts_off_in_stance", l.lifts_off}};
  if (std::isfinite(l.speed)) {
    out["liftoff_speed_in_stance_m_per_s"] = l.speed;
    out["liftoff_to_stall_speed_ratio"] = l.ratio;
  }
  if (l.lifts_off) {
    out["run_to_liftoff_m"] = l.run;
    out["time_to_liftoff_s"] = l.time;
  }
  if (g.has("tail_area_m2")) {
    place::GroundRun run{};
    run.mass = in.mass;
    run.cg_x = g["cg_station_m"];
    run.cg_height = g["cg_height_above_ground_m"];
    run.main_x = g["rear_contact_station_m"];
    run.wing_area = in.wing_area;
    run.mean_chord = g["mean_aerodynamic_chord_m"];
    run.centre_x = g["lift_acts_at_station_m"];
    run.ground_lift = l.lift_coefficient;
    run.drag = in.drag;
    run.drag_height = run.cg_height;
    run.moment = g["pitching_moment_coefficient_nose_up_positive"];
    run.tail_area = g["tail_area_m2"];
    run.tail_down_lift = g["tail_down_lift_coefficient"];
    run.tail_x = g["tail_station_m"];
    run.slipstream = g.has("slipstream_factor_at_tail") ? g["slipstream_factor_at_tail"] : 1;
    run.thrust = in.thrust;
    run.thrust_height = g["thrust_height_above_ground_m"];
    run.friction = in.friction;
    run.greatest_lift = in.greatest_lift;
    run.density = in.density;
    const auto rot = place::rotation(run);
    if (std::isfinite(rot.speed)) out["speed_at_which_full_elevator_unloads_front_m_per_s"] = rot.speed;
    const double empty = place::wheels_empty_speed(in.mass, in.density, in.wing_area, l.lift_coefficient,
                                                   run.tail_area, run.tail_down_lift * run.slipstream);
    out["rotates_first"] = std::isfinite(rot.speed) && rot.speed < empty && rot.acceleration > 0;
  }
  return out;
}

Answers twin_wheels(const Given& g) {
  const double load = g["load_on_axle_N"];
  const double lean = g.deg("lean_starboard_down_deg");
  const auto t =
      place::twin_wheels(load, g["wheel_spacing_m"], {g["tyre_diameter_m"], g["tyre_width_m"]},
                         g["gauge_pressure_Pa"], g["flat_radius_m"], lean, g["friction_coefficient"]);
  return {{"load_each_tyre_level_N", t.load_each},
          {"loaded_radius_level_m", t.loaded_radius},
          {"ground_pressure_Pa", g["gauge_pressure_Pa"]},
          {"contact_area_each_m2", t.contact_area_each},
          {"load_port_tyre_leaning_N", t.load_port},
          {"load_starboard_tyre_leaning_N", t.load_starboard},
          {"lean_at_which_one_tyre_lifts_deg", to_deg(t.lifts_at)},
          {"one_tyre_lifts_leaning", std::abs(lean) >= t.lifts_at},
          {"roll_stiffness_N_m_per_rad", t.roll_stiffness},
          {"one_flat_loaded_radius_of_the_other_m", std::max(t.one_flat_radius, g["flat_radius_m"] - 0.0)},
          {"one_flat_axle_sinks_by_m", t.one_flat_sinks},
          {"one_flat_moment_on_the_leg_N_m", t.one_flat_moment},
          {"one_flat_rim_clear_of_the_ground_m", t.one_flat_rim_clear},
          {"one_flat_rim_touches", t.one_flat_rim_clear <= 0},
          {"scrub_moment_locked_pair_full_slide_N_m", t.scrub_moment},
          {"slip_of_each_tyre_locked_pair_in_turn",
           g["wheel_spacing_m"] / (2 * g["turn_radius_at_axle_middle_m"])}};
}

Answers turn_radius_tandem(const Given& g) {
  const double front = g["front_contact_station_m"];
  const double rear = g["rear_contact_station_m"];
  const double steer_front = g.deg("front_steer_to_starboard_deg");
  const double steer_rear = g.has("rear_steer_to_port_deg") ? g.deg("rear_steer_to_port_deg") : 0;
  const auto c = place::turn_of_tandem(front, rear, steer_front, steer_rear);
  const auto radius = [&](double x, double y) { return std::hypot(x - c.x, y - c.y); };
  const double cg_y = g.has("cg_offset_y_m") ? g["cg_offset_y_m"] : 0;
  const double at_cg = radius(g["cg_station_m"], cg_y);
  Answers out{{"turn_centre_station_m", c.x},
              {"turn_centre_offset_y_m", c.y},
              {"turn_radius_cg_m", at_cg},
              {"turn_radius_front_wheel_m", radius(front, 0)},
              {"turn_radius_rear_wheel_m", radius(rear, 0)}};
  if (g.has("wing_tip_offset_y_m"))
    out["turn_radius_outer_wing_tip_m"] =
        radius(g["wing_tip_station_m"],
               c.y > 0 ? -std::abs(g["wing_tip_offset_y_m"]) : std::abs(g["wing_tip_offset_y_m"]));
  if (g.has("outrigger_name")) {
    const auto names = g.at("outrigger_name");
    for (size_t i = 0; i < names.size(); ++i) {
      const std::string name = names[i].get<std::string>();
      const double x = g.list("outrigger_station_m")[i];
      const double y = g.list("outrigger_offset_y_m")[i];
      out["caster_angle_" + name + "_to_starboard_deg"] = to_deg(place::path_angle(c, x, y));
      out["turn_radius_" + name + "_m"] = radius(x, y);
    }
  }
  if (g.has("speed_of_cg_m_per_s"))
    out["side_acceleration_at_cg_in_g"] = std::pow(g["speed_of_cg_m_per_s"], 2) / at_cg / standard_gravity;
  return out;
}

Answers turn_radius_four_mains(const Given& g) {
  const auto t = place::turn_of_four_mains(
      g["nose_contact_station_m"], g["front_mains_contact_station_m"], g["rear_mains_contact_station_m"],
      g.deg("nose_steer_deg"), g["nose_line_cornering_stiffness_N_per_rad"],
      g["front_mains_line_cornering_stiffness_N_per_rad"], g["rear_mains_line_cornering_stiffness_N_per_rad"],
      g["friction_coefficient"], g["front_mains_line_load_N"], g["rear_mains_line_load_N"]);
  if (!t) throw std::runtime_error("no steady turn");
  return {{"turn_radius_at_mains_middle_m", std::abs(t->radius)},
          {"turn_radius_without_scrub_m", std::abs(t->radius_without_scrub)},
          {"slip_angle_front_mains_deg", to_deg(t->slip_front)},
          {"slip_angle_rear_mains_deg", to_deg(t->slip_rear)},
          {"scrub_moment_if_both_lines_slide_N_m", t->scrub_moment}};
}

Answers first_contact(const Given& g) {
  const auto x = g.list("axle_station_m");
  const auto y = g.list("axle_offset_y_m");
  const auto z = g.list("axle_waterline_extended_m");
  const auto r = g.list("free_radius_m");
  const auto names = g.at("leg_name");
  const double speed = g["sink_speed_m_per_s"];
  std::vector<spring::TouchingLeg> legs;
  for (size_t i = 0; i < x.size(); ++i) {
    const bool two = g.has("wheels_on_axle") && g.list("wheels_on_axle")[i] > 1;
    legs.push_back({Vec3(x[i], y[i], z[i]), r[i], two ? g.list("wheel_spacing_m")[i] : 0});
  }
  const auto f = spring::first_contact(
      legs, g["mass_kg"], Vec3(g["cg_station_m"], g["cg_offset_y_m"], g["cg_waterline_m"]),
      g["roll_inertia_kg_m2"], g["pitch_inertia_kg_m2"], g.deg("pitch_at_touchdown_deg"),
      g.deg("roll_at_touchdown_deg"), speed);
  Answers out{{"first_leg_counted_from_1", f.leg + 1},
              {"effective_mass_on_that_leg_kg", f.effective_mass},
              {"energy_that_leg_takes_if_it_stops_there_J", 0.5 * f.effective_mass * speed * speed}};
  for (size_t i = 0; i < legs.size(); ++i) {
    const std::string name = names[i].get<std::string>();
    out["height_of_" + name + "_at_that_moment_m"] = f.height[i];
    out["sink_speed_of_" + name + "_after_that_m_per_s"] = f.strikes[i];
  }
  return out;
}

}  // namespace

void add_many_kinds(std::map<std::string, Driver>& d) {
  d["stance_many_legs"] = stance_many_legs;
  d["stance_mirror_rests"] = stance_mirror_rests;
  d["leg_shares"] = leg_shares;
  d["tandem_shares"] = tandem_shares;
  d["outrigger_touch"] = outrigger_touch;
  d["outrigger_load"] = outrigger_load;
  d["outrigger_topple"] = outrigger_topple;
  d["sideways_stability"] = sideways_stability;
  d["support_polygon_tipping"] = support_polygon_tipping;
  d["off_centre_nose"] = off_centre_nose;
  d["four_mains_rotation"] = four_mains_rotation;
  d["liftoff_in_stance"] = liftoff;
  d["twin_wheels"] = twin_wheels;
  d["turn_radius_tandem"] = turn_radius_tandem;
  d["turn_radius_four_mains"] = turn_radius_four_mains;
  d["first_contact"] = first_contact;
}

}  // namespace kranich::oracle
