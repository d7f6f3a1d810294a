// SPDX-License-Identifier: GPL-3.0-or-later
#include "case.h"
#include "core/sequence/sequence.h"
#include "core/swing/swing.h"

namespace kranich::oracle {
namespace {

SwingDirection direction(const std::string& word) {
  if (word == "inward") return SwingDirection::inward;
  if (word == "outward") return SwingDirection::outward;
  return word == "aft" ? SwingDirection::aft : SwingDirection::forward;
}

Answers planar_swing(const Given& g) {
  const auto p = swing::planar_poses({direction(g.text("swing_direction")), g.vec("pivot_point_m"),
                                      g.deg("unit_angle_deg"), g.deg("base_slope_deg"), g["leg_length_m"],
                                      g["wheel_offset_along_axle_m"], g.vec("axle_direction_down")});
  return {{"pivot_axis_direction", to_json(p.axis)},
          {"down_leg_lean_away_from_stowed_side_deg", to_deg(p.down_lean)},
          {"wheel_centre_down_m", to_json(p.wheel_down)},
          {"wheel_centre_stowed_m", to_json(p.wheel_stowed)},
          {"axle_direction_stowed", to_json(p.axle_stowed)},
          {"highest_stowed_wheel_point_z_m",
           swing::highest_point(p.wheel_stowed, p.axle_stowed, g["wheel_diameter_m"], g["wheel_width_m"])}};
}

Answers required_unit_angle(const Given& g) {
  const Vec3 down = swing::leg_direction(g.deg("rake_down_deg"), g.deg("cant_down_deg"));
  const Vec3 stowed = g.vec("stowed_leg_direction");
  const auto u = swing::required_unit_angle(down, stowed);
  Answers a{{"leg_direction_down", to_json(down)},
            {"unit_angle_deg", to_deg(u.angle)},
            {"axis_direction_square_to_both_legs", to_json(u.axis)},
            {"stowed_leg_slope_deg", to_deg(u.stowed_slope)}};
  if (g.has("given_axis_direction")) {
    const auto t = swing::best_turn_about(g.vec("given_axis_direction"), down, stowed);
    a["turn_about_given_axis_deg"] = to_deg(t.turn);
    a["leg_direction_miss_about_given_axis_deg"] = to_deg(t.miss);
  }
  return a;
}

Answers skewed_swing(const Given& g) {
  const swing::Axis axis{g.vec("pivot_point_m"), g.vec("axis_direction").normalized()};
  const double full = g.deg("turn_deg");
  const Vec3 centre = g.vec("wheel_centre_down_m");
  const Vec3 axle = g.vec("axle_direction_down").normalized();
  const double low = swing::turn_of_lowest(axis, centre, full);
  const Vec3 stowed = axis.turn(full).linear() * axle;
  return {{"wheel_centre_at_half_turn_m", to_json(axis.turn(full / 2) * centre)},
          {"axle_direction_at_half_turn", to_json(axis.turn(full / 2).linear() * axle)},
          {"wheel_centre_at_full_turn_m", to_json(axis.turn(full) * centre)},
          {"axle_direction_at_full_turn", to_json(stowed)},
          {"lowest_wheel_centre_z_m", (axis.turn(low) * centre).z()},
          {"lowest_wheel_centre_at_turn_deg", to_deg(low)},
          {"stowed_axle_angle_from_vertical_deg", to_deg(std::acos(std::min(1.0, std::abs(stowed.z()))))}};
}

Answers clearance(const Given& g) {
  swing::SwingInput in;
  in.wanted_clearance = 0;
  auto& m = in.moving;
  m.moves.axis = {g.vec("pivot_point_m"), g.vec("axis_direction").normalized()};
  m.moves.full_turn = g.deg("turn_deg");
  const Vec3 centre = g.vec("wheel_centre_down_m");
  if (g.has("box_min_corner_m"))
    in.obstacles.push_back({"box", motion::Box{g.vec("box_min_corner_m"), g.vec("box_max_corner_m")}});
  if (g.has("plane_point_m"))
    in.obstacles.push_back(
        {"plane", motion::HalfSpace{g.vec("plane_point_m"), g.vec("plane_normal_to_free_side")}});
  if (g.has("cylinder_radius_m")) {
    const Vec3 a = g.vec("cylinder_end_1_m");
    const Vec3 b = g.vec("cylinder_end_2_m");
    in.obstacles.push_back({"cylinder", motion::Cylinder{(a + b) / 2, (b - a).normalized(),
                                                         g["cylinder_radius_m"], (b - a).norm() / 2}});
  }
  Answers a;
  for (const std::string name : {"flat_sided", "rounded"}) {
    m.parts = {{swing::Part::wheel,
                motion::RoundedWheel{centre, g.vec("axle_direction_down").normalized(), g["wheel_diameter_m"],
                                     g["wheel_width_m"], name == "rounded" ? g["shoulder_radius_m"] : 0.0}}};
    m.find_reach();
    const auto least = swing::least_clearance(in);
    a[name + "_least_clearance_m"] = least.distance;
    a[name + "_least_clearance_at_turn_deg"] = to_deg(least.turn);
    a[name + "_clearance_down_m"] = swing::clearance_at(in, 0).distance;
    a[name + "_clearance_stowed_m"] = swing::clearance_at(in, m.moves.full_turn).distance;
  }
  return a;
}

Answers timed_sequence(const Given& g) {
  const auto travel = [&](const char* time, const char* range) {
    const auto r = g.list(range);
    return sequence::Travel{g[time], r.at(0), r.at(1)};
  };
  const sequence::Guarded s{travel("door_opening_time_s", "door_opening_time_factor_range"),
                            travel("leg_time_s", "leg_time_factor_range"),
                            travel("door_closing_time_s", "door_closing_time_factor_range"),
                            g["door_fraction_open_that_frees_leg"],
                            g["leg_fraction_entering_door_zone"],
                            g["leg_fraction_leaving_door_zone"]};
  const double margin = g["margin_time_s"];
  const double wait = sequence::least_leg_wait(s);
  const double leg = wait + margin;
  const double fixed = g["fixed_door_close_start_s"];
  const double at_rest = sequence::least_close_start_at_rest(s, leg);
  return {
      {"least_wait_door_to_leg_s", wait},
      {"leg_start_with_margin_s", leg},
      {"least_door_close_start_geometry_s", sequence::least_close_start(s, leg)},
      {"least_door_close_start_leg_at_rest_s", at_rest},
      {"latest_end_of_sequence_leg_at_rest_s", at_rest + margin + s.close.most()},
      {"fixed_wait_conflicts_within_spread", sequence::conflicts(s, leg, fixed)},
      {"lowest_voltage_safe_with_fixed_wait_V",
       sequence::lowest_safe_voltage(s, leg, fixed, g["nominal_voltage_V"])},
      {"fixed_wait_door_close_starts_with_slowest_leg_at_fraction", sequence::slowest_leg_at(s, leg, fixed)}};
}

}  // namespace

void add_retract_kinds(std::map<std::string, Driver>& d) {
  d["planar_swing"] = planar_swing;
  d["required_unit_angle"] = required_unit_angle;
  d["skewed_swing"] = skewed_swing;
  d["clearance"] = clearance;
  d["timed_sequence"] = timed_sequence;
}

}  // namespace kranich::oracle
