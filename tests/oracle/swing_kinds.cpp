// SPDX-License-Identifier: GPL-3.0-or-later
//! Swing: axes found, twisting legs, lift-and-turn, pairs, locks.
#include <algorithm>
#include <numbers>

#include "case.h"
#include "core/motion/retraction.h"
#include "core/swing/axis_finder.h"
#include "core/swing/locks.h"
#include "core/swing/pair.h"

namespace kranich::oracle {
namespace {

constexpr double deg = std::numbers::pi / 180;

swing::WheelPose pose(const Given& g, const std::string& state) {
  return {g.vec("wheel_centre_" + state + "_m"), g.vec("axle_direction_" + state)};
}

Json angles_to_axes(const Vec3& u) {
  Json list = Json::array();
  for (int i = 0; i < 3; ++i) list.push_back(to_deg(std::acos(std::min(1.0, std::abs(u[i])))));
  return list;
}

const char* word_of(swing::AxisFamily family) {
  switch (family) {
    case swing::AxisFamily::one:
      return "one";
    case swing::AxisFamily::by_angle:
      return "by unit angle";
    case swing::AxisFamily::none:
      return "none";
    case swing::AxisFamily::fan:
      return "fan";
    case swing::AxisFamily::in_place:
      return "in place";
  }
  return "";
}

Answers axis_finder(const Given& g) {
  Answers a;
  std::optional<double> unit;
  if (g.has("unit_angle_deg")) unit = g.deg("unit_angle_deg");
  for (const bool reversed : {false, true}) {
    const std::string sense = reversed ? "axle_reversed_" : "axle_same_";
    const auto found = swing::find_axes(pose(g, "down"), pose(g, "stowed"), reversed, unit);
    const bool family = found.family == swing::AxisFamily::by_angle || found.family == swing::AxisFamily::fan;
    a[sense + "number_of_axes"] = family && !unit ? Json("infinite") : Json(found.axes.size());
    a[sense + "family"] = word_of(found.family);
    a[sense + "axis_exists"] = found.family != swing::AxisFamily::none;
    a[sense + "displacement_along_axle_m"] = found.along_axle;
    a["displacement_along_axle_m"] = found.along_axle;
    a[sense + "least_position_miss_m"] =
        found.family == swing::AxisFamily::none ? std::abs(found.along_axle) : 0.0;
    if (found.axes.empty()) continue;
    const auto& one = found.axes.front();
    a[sense + "turn_deg"] = to_deg(one.turn);
    a[sense + "axis_direction_right_handed"] = to_json(one.axis.direction);
    a[sense + "axis_direction_up_to_sign"] = to_json(one.axis.direction);
    a[sense + "axis_point_nearest_midpoint_m"] = to_json(one.axis.point);
    a[sense + "axis_angle_to_x_y_z_deg"] = angles_to_axes(one.axis.direction);
  }
  return a;
}

Answers axis_parallel(const Given& g) {
  Answers a;
  const double diameter = g.any({"wheel_diameter_m"}).value_or(0.4);
  swing::NearestAxis of[2];
  for (const bool reversed : {false, true}) {
    const std::string sense = reversed ? "axle_reversed_" : "axle_same_";
    const auto n =
        swing::nearest_along(g.vec("axis_direction"), pose(g, "down"), pose(g, "stowed"), reversed);
    of[reversed] = n;
    a[sense + "turn_about_given_direction_deg"] = to_deg(n.turn);
    a[sense + "turn_deg"] = to_deg(n.turn);
    a[sense + "axis_point_nearest_midpoint_m"] = to_json(n.axis.point);
    a[sense + "position_miss_m"] = n.place_miss;
    a[sense + "axle_direction_miss_deg"] = to_deg(n.axle_miss);
    a[sense + "combined_miss_m"] = n.combined(diameter);
  }
  const bool same = of[0].combined(diameter) <= of[1].combined(diameter);
  a["better_axle_sense"] = same ? "same" : "reversed";
  return a;
}

Answers axis_in_plane(const Given& g) {
  const double diameter = g["wheel_diameter_m"];
  const auto n =
      swing::nearest_in_plane(g.vec("mount_plane_normal"), pose(g, "down"), pose(g, "stowed"), diameter);
  return {{"axle_sense", n.reversed ? "reversed" : "same"},
          {"axis_direction_right_handed", to_json(n.axis.direction)},
          {"axis_direction_up_to_sign", to_json(n.axis.direction)},
          {"turn_deg", to_deg(n.turn)},
          {"axis_point_nearest_midpoint_m", to_json(n.axis.point)},
          {"position_miss_m", n.place_miss},
          {"axle_direction_miss_deg", to_deg(n.axle_miss)},
          {"combined_miss_m", n.combined(diameter)}};
}

//! Parallel axles: the family that the unit angle picks from, and the half turn.
Answers axis_parallel_axles(const Given& g) {
  Answers a = axis_finder(g);
  const auto found =
      swing::find_axes(pose(g, "down"), pose(g, "stowed"), false,
                       g.has("unit_angle_deg") ? std::optional(g.deg("unit_angle_deg")) : std::nullopt);
  a["displacement_along_axle_m"] = found.along_axle;
  a["axis_exists_with_axle_same"] = found.family != swing::AxisFamily::none;
  a["least_position_miss_with_axle_same_m"] =
      found.family == swing::AxisFamily::none ? std::abs(found.along_axle) : 0.0;
  if (found.axes.size() == 2) {
    auto pair = found.axes;
    if (pair[0].axis.point.z() < pair[1].axis.point.z()) std::swap(pair[0], pair[1]);
    const Vec3 axle = g.vec("axle_direction_down").normalized();
    for (const bool upper : {true, false}) {
      const auto& one = pair[upper ? 0 : 1];
      const std::string name = upper ? "axis_point_upper" : "axis_point_lower";
      a[name + "_m"] = to_json(one.axis.point);
      a[name + "_turn_about_axle_direction_deg"] =
          to_deg(one.turn) * (one.axis.direction.dot(axle) > 0 ? 1 : -1);
    }
  }
  return a;
}

motion::Retracting retracting(const Given& g) {
  motion::Retracting r;
  r.axis = {g.vec("pivot_point_m"), g.vec("axis_direction").normalized()};
  r.full_turn = g.deg("turn_deg");
  const Vec3 line = g.has("leg_line_point_m") ? g.vec("leg_line_point_m") : r.axis.point;
  const Vec3 way = g.has("leg_direction_down") ? g.vec("leg_direction_down") : Vec3(0, 0, -1);
  r.line = {line, way.normalized()};
  if (g.has("twist_at_full_turn_deg")) r.twist = g.deg("twist_at_full_turn_deg") / r.full_turn;
  if (g.has("twist_ratio")) r.twist = g["twist_ratio"];
  const std::string collar = g.stem({"rod_end_on_collar", "collar_ball", "rod_ball_on_collar"});
  const std::string fixed = g.stem({"rod_end_on_airframe", "airframe_ball", "rod_ball_on_airframe"});
  if (!collar.empty() && !fixed.empty()) {
    const auto point = [&](const std::string& stem) {
      return g.has(stem + "_m") ? g.vec(stem + "_m") : g.vec(stem + "_down_m");
    };
    r.twist = motion::TwistRod{point(fixed), point(collar)};
  }
  if (const auto pulled =
          g.any({"shortening_at_full_turn_m", "stroke_at_full_turn_m", "pulled_in_at_full_turn_m"}))
    r.stroke = {{0, 0}, {r.full_turn, *pulled}};
  return r;
}

Answers twisting_leg(const Given& g) {
  const auto r = retracting(g);
  const Vec3 centre = g.vec("wheel_centre_down_m");
  const Vec3 axle = g.vec("axle_direction_down").normalized();
  Answers a;
  for (const auto& [name, share] : {std::pair{"quarter", 0.25}, std::pair{"half", 0.5},
                                    std::pair{"three_quarter", 0.75}, std::pair{"full", 1.0}}) {
    const auto at = r.pose(motion::Carried::wheel, share * r.full_turn);
    a[std::string("wheel_centre_at_") + name + "_turn_m"] = to_json(at * centre);
    a[std::string("axle_direction_at_") + name + "_turn"] = to_json(at.linear() * axle);
    a[std::string("twist_at_") + name + "_turn_deg"] = to_deg(r.twist_at(share * r.full_turn));
  }
  const Vec3 stowed = r.pose(motion::Carried::wheel, r.full_turn).linear() * axle;
  a["stowed_axle_angle_from_vertical_deg"] = to_deg(std::acos(std::min(1.0, std::abs(stowed.z()))));
  return a;
}

Answers lift_and_turn(const Given& g) {
  motion::LiftAndTurn l;
  const double down = g.deg("arm_angle_down_deg");
  const double up = g.deg("arm_angle_up_deg");
  const double length = g["arm_length_m"];
  l.arms = {Vec3::Zero(), Vec3::UnitX()};
  l.arm = length * Vec3(0, std::cos(down), std::sin(down));
  l.king_pin = Vec3::UnitZ();
  const double plan = g.deg("steering_arm_plan_angle_at_zero_turn_deg");
  l.steering_arm = g["steering_arm_length_m"] * Vec3(std::cos(plan), std::sin(plan), 0) +
                   Vec3(0, 0, g.any({"steering_arm_ball_height_above_arm_end_m"}).value_or(0));
  l.rod_fixed = g.vec("rod_fixed_end_from_arm_pivot_m");
  l.full_turn = up - down;
  Answers a{{"rod_length_m", l.rod_length()}};
  for (int percent = 10; percent <= 100; percent += 5)
    a["turn_at_" + std::to_string(percent) + "_percent_of_arm_angle_deg"] =
        to_deg(l.carrier_turn(l.full_turn * percent / 100));
  double most = 0;
  double in_all = 0;
  for (int i = 0; i <= 4000; ++i) {
    const double t = l.full_turn * i / 4000;
    const double size = std::abs(l.carrier_turn(t));
    if (2 * i <= 4000) most = std::max(most, size);
    in_all = std::max(in_all, size);
  }
  a["largest_turn_magnitude_in_first_half_deg"] = to_deg(most);
  a["largest_turn_magnitude_deg"] = to_deg(in_all);
  if (g.has("arm_angle_static_deg")) {
    const double at = g.deg("arm_angle_static_deg") - down;
    a["turn_at_static_deg"] = to_deg(l.carrier_turn(at));
    a["turn_per_lift_at_static_deg_per_m"] =
        to_deg(l.carrier_rate(at)) / (length * std::cos(g.deg("arm_angle_static_deg")));
  }
  return a;
}

Answers pair_clearance(const Given& g) {
  const auto r = retracting(g);
  const motion::RoundedWheel wheel{g.vec("wheel_centre_down_m"), g.vec("axle_direction_down").normalized(),
                                   g["wheel_diameter_m"], g["wheel_width_m"],
                                   g.any({"shoulder_radius_m"}).value_or(0)};
  const auto other = mirrored(r);
  const auto there = swing::mirrored(wheel);
  const auto together = swing::least_together(r, wheel, other, there);
  const auto any = swing::least_of_any(r, wheel, other, there);
  Answers a{{"together_least_clearance_m", together.distance},
            {"together_least_clearance_at_turn_deg", to_deg(together.turn)},
            {"any_combination_least_clearance_m", any.distance},
            {"any_combination_least_clearance_at_starboard_turn_deg", to_deg(any.turn)},
            {"any_combination_least_clearance_at_port_turn_deg", to_deg(any.other_turn)}};
  if (g.has("port_leg_lag_deg")) {
    const auto lag = swing::least_together(r, wheel, other, there, g.deg("port_leg_lag_deg"));
    a["port_lagging_least_clearance_m"] = lag.distance;
    a["port_lagging_least_clearance_at_starboard_turn_deg"] = to_deg(lag.turn);
  }
  const std::string stuck = g.stem({"port_leg_stuck_at"});
  if (!stuck.empty() && g.has("port_leg_stuck_at_deg")) {
    auto still = other;
    const double at = g.deg("port_leg_stuck_at_deg");
    double least = 1e9;
    for (int i = 0; i <= 2000; ++i)
      least = std::min(least, swing::between(swing::wheel_at(r, wheel, r.full_turn * i / 2000),
                                             swing::wheel_at(still, there, at)));
    a["port_stuck_least_clearance_m"] = least;
  }
  return a;
}

swing::Vec2 plane(const Given& g, const std::string& stem) {
  for (const char* end : {"_xz_m", "_yz_m", "_xz_N", "_yz_N", "_xy_m"})
    if (g.has(stem + end)) {
      const auto v = g.list(stem + end);
      return {v.at(0), v.at(1)};
    }
  throw std::runtime_error("the case gives no " + stem);
}

Answers folding_brace(const Given& g) {
  swing::FoldingBrace b;
  b.pivot = plane(g, "leg_pivot");
  b.pin = plane(g, "brace_pin_on_leg");
  b.anchor = plane(g, "brace_anchor");
  b.at_anchor = g["link_at_anchor_m"];
  b.at_leg = g["link_at_leg_m"];
  b.spring_moment = g.any({"lock_spring_moment_at_knee_Nm"}).value_or(0);
  const swing::Vec2 wheel = plane(g, "wheel_centre");
  const auto figures = swing::brace_figures(b);
  Answers a{{"knee_offset_past_straight_m", figures.offset},
            {"knee_angle_past_straight_deg", to_deg(figures.past_straight)},
            {"brace_arm_about_pivot_m", figures.arm},
            {"wheel_movement_when_brace_passes_straight_m", swing::way_past_straight(b, wheel)}};
  for (const auto& [name, sign] : {std::pair{"aft", 1.0}, std::pair{"forward", -1.0}}) {
    const std::string key = std::string(name) + "_load_at_axle_N";
    if (!g.has(key)) continue;
    const auto u = swing::brace_under(b, wheel, {sign * g[key], 0});
    const std::string under = std::string("under_") + name + "_load";
    a["brace_force_" + under + "_compression_positive_N"] = u.force;
    a["knee_moment_" + under + "_toward_stop_positive_Nm"] = u.knee_moment;
    a["holding_moment_with_spring_" + under + "_Nm"] = u.held;
    a["knee_stays_on_stop_" + under] = u.held >= 0;
  }
  if (!g.stem({"axle_load_at_unlocking"}).empty())
    a["force_to_unlock_at_knee_square_to_anchor_link_N"] =
        swing::force_to_unlock(b, wheel, plane(g, "axle_load_at_unlocking"));
  return a;
}

Answers uplock(const Given& g) {
  swing::Uplock l;
  l.axis = {g.vec("pivot_point_m"), g.vec("axis_direction").normalized()};
  l.mass = g["leg_mass_kg"];
  l.load_factor = g.any({"load_factor"}).value_or(1);
  l.cg = g.vec("leg_cg_stowed_m");
  l.hook = g.vec("hook_point_stowed_m");
  l.hook_direction = g.vec("hook_force_direction_on_leg");
  l.door_force = g.any({"door_force_at_hook_N"}).value_or(0);
  const double pitch = g.any({"pitch_deg"}).value_or(0) * deg;
  return {{"hook_force_N", swing::hook_force(l, {-std::sin(pitch), 0, std::cos(pitch)})}};
}

}  // namespace

void add_swing_kinds(std::map<std::string, Driver>& drivers) {
  drivers["axis_finder"] = axis_finder;
  drivers["axis_parallel"] = axis_parallel;
  drivers["axis_in_plane"] = axis_in_plane;
  drivers["axis_parallel_axles"] = axis_parallel_axles;
  drivers["twisting_leg"] = twisting_leg;
  drivers["lift_and_turn"] = lift_and_turn;
  drivers["pair_clearance"] = pair_clearance;
  drivers["folding_brace"] = folding_brace;
  drivers["uplock"] = uplock;
}

}  // namespace kranich::oracle
