// SPDX-License-Identifier: GPL-3.0-or-later
//! Circuits: strokes, tees, pressure switches, leaks, currents; and the turning circle.
#include <algorithm>
#include <cmath>
#include <numbers>

#include "case.h"
#include "core/circuit/electrics.h"
#include "core/circuit/hydraulics.h"
#include "core/steer/turn.h"

namespace kranich::oracle {
namespace {

double disc(double diameter) { return std::numbers::pi / 4 * diameter * diameter; }

circuit::Pump pump_of(const Given& g) {
  return {g["pump_flow_at_zero_pressure_m3_per_s"],
          g.has("pump_flow_loss_m3_per_s_per_Pa") ? g["pump_flow_loss_m3_per_s_per_Pa"] : 0.0};
}

//! Straight between start and end of the stroke.
std::function<double(double)> load_of(const Given& g, const std::string& stem) {
  if (const auto constant = g.any({stem + "_load_N"})) return [c = *constant](double) { return c; };
  return [from = g[stem + "_load_start_N"], to = g[stem + "_load_end_N"]](double share) {
    return from + share * (to - from);
  };
}

circuit::Stroke stroke_of(const Given& g, bool extending) {
  const double piston = disc(g["bore_m"]);
  const double ring = piston - (g.has("rod_diameter_m") ? disc(g["rod_diameter_m"]) : 0.0);
  circuit::Stroke s{extending ? piston : ring,
                    extending ? ring : piston,
                    g["stroke_m"],
                    load_of(g, extending ? "extension" : "retraction"),
                    pump_of(g),
                    {g.one({"restrictor_discharge_coefficient", "discharge_coefficient"}),
                     g.has("restrictor_area_m2") ? g["restrictor_area_m2"] : g["widest_restrictor_area_m2"],
                     g["fluid_density_kg_per_m3"]},
                    circuit::Braked::return_side,
                    0};
  if (const auto own = g.any({extending ? "extension_restrictor_area_m2" : "retraction_restrictor_area_m2"}))
    s.restrictor.area = *own;
  if (const auto tank = g.any({"tank_pressure_Pa"})) s.tank = *tank;
  for (const char* key : {"restrictor_position", "restrictor_side", "throttling"})
    if (g.has(key)) {
      const std::string side = g.text(key);
      if (side.find("supply") != std::string::npos || side.find("meter-in") != std::string::npos ||
          side.find("inlet") != std::string::npos)
        s.braked = circuit::Braked::supply_side;
    }
  return s;
}

Json number_or_none(double v) { return std::isfinite(v) ? Json(v) : Json(nullptr); }

Answers hydraulic_stroke(const Given& g) {
  Answers a;
  for (const bool extending : {true, false}) {
    const std::string way = extending ? "extension_" : "retraction_";
    if (g.stem({way + "load"}).empty()) continue;
    const circuit::Stroke s = stroke_of(g, extending);
    const auto start = circuit::at_share(s, 0);
    const auto end = circuit::at_share(s, 1);
    const auto f = circuit::stroke_figures(s);
    a[way + "speed_start_m_per_s"] = start.speed;
    a[way + "speed_end_m_per_s"] = end.speed;
    a[way + "pump_side_pressure_start_Pa"] = start.pressure;
    a[way + "pump_side_pressure_end_Pa"] = end.pressure;
    a[way + "time_s"] = number_or_none(f.time);
    a[way + "completes"] = std::isfinite(f.time);
    a[way + "stalls"] = !std::isfinite(f.time);
    a[way + "stalls_at_stroke_m"] = f.stops_at < 1 ? Json(f.stops_at * s.length) : Json(nullptr);
    a[way + "peak_pump_side_pressure_Pa"] = f.peak_pressure;
    a[way + "peak_return_pressure_Pa"] = f.peak_return;
    a[way + "load_runs_ahead_of_pump_somewhere"] = f.runs_ahead;
    a[way + "pump_side_empty_somewhere"] = f.runs_ahead;
    for (const int times : {2, 3, 4, 5, 8, 10, 20, 50, 100}) {
      circuit::Stroke wide = s;
      wide.restrictor.area *= times;
      const auto w = circuit::stroke_figures(wide);
      const std::string with = "with_" + std::to_string(times) + "_times_wider_restrictor";
      a[way + "time_" + with + "_s"] = number_or_none(w.time);
      a[way + "pump_side_empty_" + with] = w.runs_ahead;
      // Where only the helped way is asked, it goes without its name.
      if (!a.count("pump_side_empty_" + with) || w.runs_ahead) a["pump_side_empty_" + with] = w.runs_ahead;
    }
  }
  return a;
}

Answers pressure_switch(const Given& g) {
  const bool extending = g.stem({"extension_load"}).empty() ? false : true;
  const circuit::Stroke s = stroke_of(g, extending);
  const double widest = g["widest_restrictor_area_m2"];
  const double cut_out = g["cut_out_pressure_Pa"];
  const auto r = circuit::slowed(s, widest, g["wanted_time_s"], cut_out);
  Answers a;
  const auto optional = [](const std::optional<double>& v) { return v ? Json(*v) : Json(nullptr); };
  a["time_with_widest_setting_s"] = number_or_none(r.widest_time);
  a["peak_pressure_with_widest_setting_Pa"] = r.widest_peak;
  a["trips_with_widest_setting"] = r.widest_peak > cut_out;
  a["setting_for_wanted_time_exists"] = r.area.has_value();
  a["restrictor_area_for_wanted_time_m2"] = optional(r.area);
  a["peak_pressure_at_that_setting_Pa"] = r.area ? Json(r.peak) : Json(nullptr);
  a["switch_trips_before_end_of_travel"] = r.trips;
  a["trips_at_start_of_stroke"] = r.trips && r.trips_at <= 0;
  a["trips_at_stroke_m"] = r.trips ? Json(r.trips_at * s.length) : Json(nullptr);
  a["narrowest_restrictor_area_without_trip_m2"] = optional(r.narrowest);
  a["longest_time_without_trip_s"] = r.narrowest ? Json(r.longest_time) : Json(nullptr);
  a["pump_speed_factor_for_wanted_time_with_widest_setting"] = optional(r.pump_factor);
  a["peak_pressure_at_that_pump_speed_Pa"] = r.pump_factor ? Json(r.factor_peak) : Json(nullptr);
  return a;
}

Answers tee_legs(const Given& g) {
  std::vector<circuit::Branch> branches;
  std::vector<std::string> names;
  for (const char* name : {"first", "second", "third", "fourth"}) {
    const std::string of = std::string(name) + "_leg_";
    if (g.stem({of + "load"}).empty()) continue;
    names.push_back(name);
    branches.push_back(
        {disc(g.has(of + "bore_m") ? g[of + "bore_m"] : g["bore_m"]),
         g.has(of + "stroke_m") ? g[of + "stroke_m"] : g["stroke_m"],
         load_of(g, std::string(name) + "_leg"),
         {g.one({"line_restriction_discharge_coefficient", "discharge_coefficient"}),
          g.one({of + "line_restriction_area_m2", "line_restriction_area_m2"}), g["fluid_density_kg_per_m3"]},
         true});
  }
  const circuit::Pump pump = pump_of(g);
  Answers a;
  const auto tell = [&](const circuit::TeeRun& run, const std::string& with) {
    double last = 0;
    size_t winner = 0;
    for (size_t i = 0; i < names.size(); ++i) {
      const auto& b = run.branches[i];
      a[with + names[i] + "_leg_starts_at_s"] = number_or_none(b.starts);
      a[with + names[i] + "_leg_arrives_at_s"] = number_or_none(b.arrives);
      a[with + names[i] + "_leg_pauses"] = b.pauses;
      if (!(run.branches[winner].arrives <= b.arrives)) winner = i;
      last = std::max(last, b.arrives);
    }
    bool together = true;
    for (const auto& b : run.branches) together = together && std::abs(b.arrives - last) < 1e-3 * last;
    a[with + "leg_arriving_first"] = together ? "together" : names[winner];
    a[with + "peak_pump_pressure_before_last_arrival_Pa"] = run.peak_pressure;
    a[with + "peak_inlet_pressure_Pa"] = run.peak_pressure;
    a[with + "both_legs_arrive_at_s"] = number_or_none(last);
    a[with + "all_legs_arrive_at_s"] = number_or_none(last);
  };
  tell(circuit::on_a_tee(branches, pump), "tee_");
  tell(circuit::on_a_divider(branches, pump, circuit::Divider::ideal), "divider_");
  tell(circuit::on_a_divider(branches, pump, circuit::Divider::throttling), "throttling_divider_");
  tell(circuit::on_a_divider(branches, pump, circuit::Divider::geared), "gear_divider_");
  return a;
}

Answers leak_down(const Given& g) {
  circuit::Trapped t{};
  t.volume = g["trapped_volume_m3"];
  t.bulk_modulus = g["effective_bulk_modulus_Pa"];
  t.hose = g.has("hose_compliance_m3_per_Pa") ? g["hose_compliance_m3_per_Pa"] : 0;
  if (const auto more = g.any({"accumulator_compliance_m3_per_Pa"})) t.hose += *more;
  t.leak_constant = g.has("leak_constant_m3_per_s") ? g["leak_constant_m3_per_s"] : 0;
  t.leak_per_pressure =
      g.has("leak_per_pressure_m3_per_s_per_Pa") ? g["leak_per_pressure_m3_per_s_per_Pa"] : 0;
  t.cut_out = g["cut_out_pressure_Pa"];
  t.cut_in = g["cut_in_pressure_Pa"];
  t.pump = pump_of(g);
  const double rest = t.time_to_cut_in();
  const double runs = t.pump_time();
  Answers a;
  a["compliance_m3_per_Pa"] = t.compliance();
  a["time_from_cut_out_to_cut_in_s"] = number_or_none(rest);
  a["pump_running_time_per_cycle_s"] = number_or_none(runs);
  a["cycles_per_hour"] = 3600 / (rest + runs);
  a["pump_duty_fraction"] = std::isfinite(rest) ? runs / (rest + runs) : 0.0;
  for (const double time : g.list("report_times_after_cut_out_s")) {
    a["pressure_after_" + in_a_name(time) + "_s_without_pump_Pa"] = t.pressure_after(time);
  }
  return a;
}

Answers current_budget(const Given& g) {
  std::vector<circuit::Consumer> list;
  for (const auto& j : g.at("actuators")) {
    const Given one(j);
    circuit::Consumer c{one.text("name"), one["start_s"], one["running_time_s"], one["running_current_A"]};
    if (const auto v = one.any({"inrush_current_A"})) c.inrush = *v;
    if (const auto v = one.any({"inrush_time_s"})) c.inrush_time = *v;
    if (const auto v = one.any({"stall_current_A"})) c.stall = *v;
    if (const auto v = one.any({"jams_after_s"})) c.jams_after = *v;
    list.push_back(std::move(c));
  }
  const auto b = circuit::budget(list, g.has("standing_current_A") ? g["standing_current_A"] : 0,
                                 g["supply_limit_A"], g["time_out_s"], g["sequence_length_s"]);
  Answers a;
  a["peak_current_A"] = b.peak;
  a["peak_first_reached_at_s"] = b.peak_at;
  a["time_above_supply_limit_s"] = b.time_above;
  a["supply_limit_exceeded"] = b.time_above > 0;
  a["charge_per_sequence_A_s"] = b.charge;
  if (g.has("lead_length_one_way_m")) {
    const double r = circuit::lead_resistance(
        g["lead_length_one_way_m"], g["conductor_area_m2"],
        g.has("conductor_resistivity_ohm_m") ? g["conductor_resistivity_ohm_m"] : circuit::copper);
    const auto& fed =
        list.at(static_cast<size_t>(g.has("lead_feeds_actuator_index") ? g["lead_feeds_actuator_index"] : 0));
    a["lead_resistance_ohm"] = r;
    a["voltage_at_far_end_running_V"] = g["supply_voltage_V"] - r * fed.running;
    a["voltage_at_far_end_stall_V"] = g["supply_voltage_V"] - r * fed.stall;
    a["voltage_at_far_end_inrush_V"] = g["supply_voltage_V"] - r * fed.inrush;
  }
  return a;
}

Answers turn_radius(const Given& g) {
  steer::Turning t{};
  t.wheelbase = g["wheelbase_m"];
  t.track = g["track_m"];
  t.span = g.has("span_m") ? g["span_m"] : 0;
  if (const auto v = g.any({"wing_tip_ahead_of_main_axle_m"})) t.tip_ahead = *v;
  if (const auto v = g.any({"wing_tip_behind_main_axle_m"})) t.tip_ahead = -*v;
  t.rake = g.has("steering_axis_rake_deg") ? g.deg("steering_axis_rake_deg") : 0;
  if (g.has("steering_angle_about_axis_deg"))
    t.angle = g.deg("steering_angle_about_axis_deg");
  else if (g.has("wanted_radius_of_main_axle_midpoint_m"))
    t.angle = steer::angle_for(t, g["wanted_radius_of_main_axle_midpoint_m"]);
  const auto f = steer::turn_figures(t);
  Answers a;
  a["steering_angle_about_axis_deg"] = to_deg(t.angle);
  a["steering_angle_in_ground_plane_deg"] = to_deg(f.ground_angle);
  a["radius_of_main_axle_midpoint_m"] = f.middle;
  a["radius_of_inner_main_wheel_m"] = std::abs(f.inner);
  a["radius_of_outer_main_wheel_m"] = f.outer;
  a["radius_of_steered_wheel_m"] = f.steered;
  a["radius_of_outer_wing_tip_m"] = f.tip;
  if (g.has("taxi_speed_m_per_s"))
    a["sideways_acceleration_at_cg_g"] = steer::sideways(f.middle, g["taxi_speed_m_per_s"]);
  if (g.has("tip_limit_g"))
    a["taxi_speed_at_tip_limit_m_per_s"] = steer::speed_for(f.middle, g["tip_limit_g"]);
  return a;
}

}  // namespace

void add_circuit_kinds(std::map<std::string, Driver>& drivers) {
  drivers["hydraulic_stroke"] = hydraulic_stroke;
  drivers["pressure_switch"] = pressure_switch;
  drivers["tee_legs"] = tee_legs;
  drivers["leak_down"] = leak_down;
  drivers["current_budget"] = current_budget;
  drivers["turn_radius"] = turn_radius;
}

}  // namespace kranich::oracle
