// SPDX-License-Identifier: GPL-3.0-or-later
//! Drive: loads over the travel, actuators, motors, servos, free fall.
#include <numbers>

#include "case.h"
#include "core/drive/fall.h"
#include "core/drive/load.h"
#include "core/drive/machines.h"
#include "core/drive/servo.h"

namespace kranich::oracle {
namespace {

std::optional<drive::DownSpring> down_spring(const Given& g) {
  if (!g.has("spring_end_on_airframe_m")) return std::nullopt;
  return drive::DownSpring{{g.vec("spring_end_on_airframe_m"), g.vec("spring_end_on_leg_down_m")},
                           g.any({"spring_extended_force_N"}).value_or(1),
                           g["spring_progression"],
                           g["spring_full_stroke_m"],
                           g["spring_extended_length_m"]};
}

drive::LegLoad leg_load(const Given& g) {
  drive::LegLoad l;
  l.moves.axis = {g.vec("pivot_point_m"), g.vec("axis_direction").normalized()};
  l.moves.full_turn = g.deg("turn_deg");
  const Vec3 way = g.has("leg_direction_down") ? g.vec("leg_direction_down") : Vec3(0, 0, -1);
  l.moves.line = {l.moves.axis.point, way.normalized()};
  if (g.has("leg_mass_kg")) l.masses = {{g["leg_mass_kg"], g.vec("leg_cg_down_m")}};
  l.load_factor = g.any({"load_factor"}).value_or(1);
  l.pitch = g.has("pitch_deg") ? g.deg("pitch_deg") : 0;
  l.roll = g.has("roll_deg") ? g.deg("roll_deg") : 0;
  l.stream.speed = g.any({"airspeed_m_per_s"}).value_or(0);
  l.stream.density = g.any({"air_density_kg_per_m3"}).value_or(1.225);
  if (g.has("stream_direction")) l.stream.direction = g.vec("stream_direction");
  l.air.leg_direction = way;
  l.air.centre = g.has("air_load_centre_down_m") ? g.vec("air_load_centre_down_m") : l.moves.axis.point;
  l.air.turning_area = g.any({"drag_area_turning_part_m2"}).value_or(0);
  l.air.constant_area = g.any({"drag_area_constant_part_m2"}).value_or(0);
  l.friction = {g.any({"friction_fraction"}).value_or(0), g.any({"friction_constant_Nm"}).value_or(0)};
  l.spring = down_spring(g);
  return l;
}

Answers torque_curve(const Given& g) {
  const auto l = leg_load(g);
  const double full = l.moves.full_turn;
  Answers a;
  for (int percent = 0; percent <= 100; percent += 5) {
    const double t = full * percent / 100;
    const std::string at = "_at_" + std::to_string(percent) + "_percent_Nm";
    a["weight_torque" + at] = l.weight_torque(t);
    a["air_torque" + at] = l.air_torque(t);
    a["spring_torque" + at] = l.spring_torque(t);
    a["net_load_torque" + at] = l.sum(t);
    a["friction_torque" + at] = l.friction_torque(t);
    a["drive_torque_to_retract" + at] = l.to_retract(t);
    a["drive_torque_to_extend" + at] = l.to_extend(t);
  }
  // Inertia as of a smooth travel in a given time.
  double inertia = 0;
  if (g.has("travel_time_s") && g.has("inertia_about_pivot_kg_m2")) {
    const double time = g["travel_time_s"];
    inertia = g["inertia_about_pivot_kg_m2"] * std::numbers::pi * std::numbers::pi * full / (2 * time * time);
    a["largest_acceleration_torque_Nm"] = inertia;
    a["largest_turn_rate_deg_per_s"] = to_deg(std::numbers::pi * full / (2 * time));
  }
  const auto up = drive::largest_over(full, [&](double t) { return l.to_retract(t); });
  const auto down = drive::largest_over(full, [&](double t) { return l.to_extend(t); });
  const auto least_up = drive::least_over(full, [&](double t) { return l.to_retract(t); });
  const auto least_down = drive::least_over(full, [&](double t) { return l.to_extend(t); });
  a["largest_drive_torque_to_retract_Nm"] = up.value;
  a["largest_drive_torque_to_retract_at_turn_deg"] = to_deg(up.turn);
  a["largest_drive_torque_to_extend_Nm"] = down.value;
  a["largest_drive_torque_to_extend_at_turn_deg"] = to_deg(down.turn);
  a["least_drive_torque_to_retract_Nm"] = least_up.value;
  a["least_drive_torque_to_retract_at_turn_deg"] = to_deg(least_up.turn);
  a["least_drive_torque_to_extend_Nm"] = least_down.value;
  a["least_drive_torque_to_extend_at_turn_deg"] = to_deg(least_down.turn);
  a["net_load_work_over_retraction_J"] = drive::work_over(full, [&](double t) { return l.sum(t); });
  return a;
}

Answers linear_actuator(const Given& g) {
  const auto l = leg_load(g);
  const drive::Strut s{g.vec("actuator_end_on_airframe_m"), g.vec("actuator_end_on_leg_down_m")};
  const auto f = drive::actuator_figures(l, s);
  Answers a{{"length_down_m", f.length_down},
            {"length_stowed_m", f.length_stowed},
            {"length_range_over_travel_m", f.longest - f.shortest},
            {"shortest_length_m", f.shortest},
            {"longest_length_m", f.longest},
            {"dead_centre_inside_travel", !f.dead_centres.empty()},
            {"least_arm_m", f.least_arm.value},
            {"least_arm_at_turn_deg", to_deg(f.least_arm.turn)},
            {"highest_force_push_positive_N", f.highest_push.value},
            {"highest_force_at_turn_deg", to_deg(f.highest_push.turn)},
            {"lowest_force_push_positive_N", f.lowest_push.value},
            {"lowest_force_at_turn_deg", to_deg(f.lowest_push.turn)},
            {"work_of_actuator_to_raise_J", f.work}};
  if (!f.dead_centres.empty()) {
    a["dead_centre_at_turn_deg"] = to_deg(f.dead_centres.front());
    Json all = Json::array();
    for (const double t : f.dead_centres) all.push_back(to_deg(t));
    a["dead_centres_at_turn_deg"] = all;
  }
  for (int percent = 0; percent <= 100; percent += 5) {
    const double t = l.moves.full_turn * percent / 100;
    a["arm_at_" + std::to_string(percent) + "_percent_m"] = drive::arm_of(l.moves, s, t);
    a["length_at_" + std::to_string(percent) + "_percent_m"] = drive::length_of(l.moves, s, t);
    a["force_at_" + std::to_string(percent) + "_percent_N"] = drive::actuator_force(l, s, t);
  }
  return a;
}

Answers cylinder_forces(const Given& g) {
  drive::HydraulicCylinder c{g["bore_m"], g["rod_diameter_m"], g["supply_pressure_Pa"],
                             g.any({"return_pressure_Pa"}).value_or(0)};
  c.pinned_length = g.any({"pinned_length_m"}).value_or(0);
  c.rod_modulus = g.any({"rod_modulus_Pa"}).value_or(205e9);
  Answers a{{"push_N", c.push()},
            {"pull_N", c.pull()},
            {"swept_volume_ratio_pull_to_push", c.volume_ratio()},
            {"rod_column_load_N", c.column_load()},
            {"column_reserve_factor_at_push", c.column_load() / c.push()}};
  if (g.has("wanted_push_N")) a["least_bore_for_wanted_push_m"] = drive::least_bore(c, g["wanted_push_N"]);
  if (g.has("wanted_pull_N"))
    a["least_bore_for_wanted_pull_m"] = drive::least_bore_to_pull(c, g["wanted_pull_N"]);
  if (const auto stroke = g.any({"stroke_m"})) {
    a["volume_to_push_m3"] = c.area() * *stroke;
    a["volume_to_pull_m3"] = (c.area() - c.rod_area()) * *stroke;
    if (const auto flow = g.any({"flow_m3_per_s", "pump_flow_m3_per_s"})) {
      a["time_to_push_s"] = c.area() * *stroke / *flow;
      a["time_to_pull_s"] = (c.area() - c.rod_area()) * *stroke / *flow;
    }
  }
  return a;
}

Answers pinion_sector(const Given& g) {
  drive::GearedMotor m{
      {g["motor_stall_torque_Nm"], g["motor_no_load_speed_rad_per_s"],
       g.any({"motor_no_load_current_A"}).value_or(0), g.any({"motor_stall_current_A"}).value_or(0)},
      g["sector_pitch_radius_m"],
      g["pinion_pitch_radius_m"],
      g.any({"gearbox_ratio"}).value_or(1),
      g.any({"overall_efficiency"}).value_or(1)};
  m.rotor_inertia = g.any({"motor_rotor_inertia_kg_m2"}).value_or(0);
  const double constant = g.any({"load_torque_constant_Nm"}).value_or(0);
  const double sine = g.any({"load_torque_sine_part_Nm"}).value_or(0);
  const double cosine = g.any({"load_torque_cosine_part_Nm"}).value_or(0);
  const auto r = drive::run_over(
      m, g.deg("turn_deg"), [&](double t) { return constant + sine * std::sin(t) + cosine * std::cos(t); },
      g.any({"leg_inertia_about_pivot_kg_m2"}).value_or(0));
  return {{"total_ratio", m.ratio()},
          {"largest_motor_torque_Nm", r.largest_torque},
          {"largest_motor_torque_at_turn_deg", to_deg(r.at_turn)},
          {"stall_margin_factor", r.stall_margin},
          {"stalls", r.stall_margin <= 1},
          {"largest_current_A", r.largest_current},
          {"time_quasi_steady_s", r.time_steady},
          {"time_from_rest_with_inertia_s", r.time_from_rest},
          {"charge_from_rest_A_s", r.charge},
          {"largest_tooth_load_N", r.tooth_load}};
}

Answers servo_linkage(const Given& g) {
  drive::ServoLinkage l;
  const auto point = [&](const std::string& key) {
    const auto v = g.list(key);
    return Eigen::Vector2d(v.at(0), v.at(1));
  };
  l.servo = point("servo_axis_xy_m");
  l.pivot = point("unit_pivot_xy_m");
  l.unit_arm = g["unit_arm_length_m"];
  l.down = g.deg("unit_arm_angle_down_deg");
  l.stowed = g.deg("unit_arm_angle_stowed_deg");
  l.over_centre = g.has("over_centre_at_each_end_deg") ? g.deg("over_centre_at_each_end_deg") : 0;
  for (const char* key : {"servo_goes_longer_way", "longer_way_round", "servo_goes_the_longer_way_round"})
    if (g.has(key)) l.longer_way = g.at(key).get<bool>();
  for (const char* key : {"servo_way_round", "servo_goes_way_round"})
    if (g.has(key)) l.longer_way = g.text(key).starts_with("longer");
  const auto f = drive::fit_servo(l);
  Answers a{{"servo_arm_length_m", f.servo_arm},
            {"rod_length_m", f.rod},
            {"servo_turn_between_dead_centres_deg", to_deg(std::abs(f.turn))},
            {"servo_turns_counter_clockwise_to_stow", f.turn > 0},
            {"total_servo_throw_with_over_centre_deg", to_deg(f.throw_all)},
            {"neutral_servo_arm_angle_deg", to_deg(f.neutral)},
            {"angle_servo_arm_to_rod_at_neutral_deg", to_deg(drive::between_arm_and_rod(l, f, f.neutral))}};
  if (g.has("positive_command_turns_servo"))
    a["servo_must_be_reversed"] =
        (g.text("positive_command_turns_servo") == "counter-clockwise") != (f.turn > 0);
  if (g.has("servo_degrees_from_centre_at_100_percent"))
    a["end_point_percent"] = 100 * to_deg(f.throw_all) / 2 / g["servo_degrees_from_centre_at_100_percent"];
  for (int percent = 0; percent <= 100; percent += 5)
    a["unit_arm_angle_at_" + std::to_string(percent) + "_percent_of_throw_deg"] =
        to_deg(drive::unit_at(l, f, f.arm_at(percent / 100.0)));
  if (g.has("stop_test_servo_angle_from_neutral_deg")) {
    const double stop = f.neutral + (f.turn > 0 ? 1 : -1) * g.deg("stop_test_servo_angle_from_neutral_deg");
    const auto b =
        drive::binding(l, f, stop, g.deg("stop_met_before_end_deg"), g["rod_and_mount_stiffness_N_per_m"],
                       g["servo_stall_torque_Nm"], g.any({"servo_stall_current_A"}).value_or(0),
                       g.any({"servo_idle_current_A"}).value_or(0));
    a["binding_servo_torque_Nm"] = b.servo_torque;
    a["binding_rod_force_N"] = b.rod_force;
    a["binding_current_A"] = b.current;
  }
  return a;
}

Answers free_fall(const Given& g) {
  drive::FreeFall f{leg_load(g), g["inertia_about_pivot_kg_m2"],
                    g.any({"dump_valve_torque_per_speed_squared_Nm_s2"}).value_or(0)};
  Answers a;
  for (const bool flying : {false, true}) {
    auto one = f;
    if (!flying) one.load.stream.speed = 0;
    const auto r = drive::fall(one);
    const std::string name = flying ? "at_airspeed_" : "at_rest_";
    a[name + "reaches_lock"] = r.reaches_lock;
    a[name + "time_s"] = r.time;
    a[name + "arrival_speed_deg_per_s"] = to_deg(r.arrival_speed);
    a[name + "stops_first_at_turn_deg"] = to_deg(r.stops_at);
    a[name + "least_static_torque_to_spare_Nm"] = r.least_to_spare.value;
    a[name + "least_static_torque_at_turn_deg"] = to_deg(r.least_to_spare.turn);
  }
  if (g.has("search_airspeed_range_m_per_s")) {
    const auto range = g.list("search_airspeed_range_m_per_s");
    a["limit_airspeed_of_free_fall_to_lock_m_per_s"] = drive::limit_speed(f, range.at(0), range.at(1));
  }
  return a;
}

Answers gas_spring_sizing(const Given& g) {
  const auto l = leg_load(g);
  const auto s = drive::size_spring(l, *down_spring(g), g.any({"reserve_factor"}).value_or(1.3));
  Json ends = Json::array();
  for (const double t : s.gap_ends) ends.push_back(to_deg(t));
  return {{"gravity_and_air_alone_reach_lock_quasi_statically", s.without_reaches_lock},
          {"largest_shortfall_Nm", s.shortfall.value},
          {"largest_shortfall_at_turn_deg", to_deg(s.shortfall.turn)},
          {"shortfall_ends_at_turn_deg", ends},
          {"least_extended_force_N", s.least_force},
          {"governing_turn_deg", to_deg(s.governing_turn)},
          {"compressed_force_at_stowed_N", s.force_stowed},
          {"spring_stroke_used_m", s.stroke_used},
          {"largest_retract_torque_without_spring_Nm", s.retract_without},
          {"largest_retract_torque_with_spring_Nm", s.retract_with}};
}

}  // namespace

void add_drive_kinds(std::map<std::string, Driver>& drivers) {
  drivers["torque_curve"] = torque_curve;
  drivers["linear_actuator"] = linear_actuator;
  drivers["cylinder_forces"] = cylinder_forces;
  drivers["pinion_sector"] = pinion_sector;
  drivers["servo_linkage"] = servo_linkage;
  drivers["free_fall"] = free_fall;
  drivers["gas_spring_sizing"] = gas_spring_sizing;
}

}  // namespace kranich::oracle
