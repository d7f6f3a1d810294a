// SPDX-License-Identifier: GPL-3.0-or-later
#include "case.h"
#include "core/base/quantity.h"
#include "core/place/place.h"
#include "core/place/rotation.h"
#include "core/place/tipping.h"
#include "core/stance/stance.h"
#include "core/weigh/weigh.h"

namespace kranich::oracle {
namespace {

using place::RoundWheel;

//! N/m, of a foot without a tyre.
constexpr double hard_foot = 1e9;

Answers ledger_cg(const Given& g) {
  const auto mass = g.list("item_mass_kg");
  const auto x = g.list("item_station_m");
  const auto y = g.list("item_offset_y_m");
  const auto z = g.list("item_waterline_m");
  const auto weighed = g.list("item_is_weighed");
  const auto tolerance = g.list("item_mass_tolerance_fraction");
  std::vector<weigh::LedgerLine> lines;
  for (size_t i = 0; i < mass.size(); ++i)
    lines.push_back({{mass[i], Vec3(x[i], y[i], z[i])}, weighed[i] != 0, mass[i] * tolerance[i]});
  const auto s = weigh::sum_ledger(lines);
  return {{"mass_kg", s.total.mass},
          {"cg_station_m", s.total.at.x()},
          {"cg_offset_y_m", s.total.at.y()},
          {"cg_waterline_m", s.total.at.z()},
          {"mass_weighed_kg", s.weighed_mass},
          {"mass_estimated_kg", s.estimated_mass},
          {"mass_spread_all_estimates_off_same_way_kg", s.spread_worst},
          {"mass_spread_root_sum_square_kg", s.spread_root_sum_square},
          {"cg_station_foremost_any_mix_of_estimate_errors_m", s.cg_x_foremost},
          {"cg_station_aftmost_any_mix_of_estimate_errors_m", s.cg_x_aftmost}};
}

Answers scales_cg(const Given& g) {
  const auto reading = g.list("scale_reading_kg");
  const auto tare = g.list("scale_tare_kg");
  const auto x = g.list("contact_station_m");
  const auto y = g.list("contact_offset_y_m");
  std::vector<weigh::WheelReading> wheels;
  for (size_t i = 0; i < reading.size(); ++i) wheels.push_back({reading[i], tare[i], x[i], y[i]});
  const auto m = weigh::from_scales(wheels);
  return {{"mass_kg", m.mass}, {"cg_station_m", m.at.x()}, {"cg_offset_y_m", m.at.y()}};
}

//! The names under which a case may speak of the wheel, or skid, at the tail.
std::string tail_of(const Given& g) {
  return g.stem({"tailwheel", "tail_wheel", "tailskid", "tail_skid", "skid", "tail"});
}

//! A tail wheel, or a skid: a foot without a radius where none is given.
RoundWheel tail_wheel(const Given& g) {
  const auto t = tail_of(g);
  return {g.one({t + "_axle_station_m", t + "_station_m", t + "_foot_station_m", t + "_shoe_station_m",
                 t + "_contact_station_m"}),
          g.one({t + "_axle_waterline_m", t + "_axle_waterline_static_m", t + "_waterline_m",
                 t + "_waterline_static_m", t + "_foot_waterline_m", t + "_shoe_waterline_m",
                 t + "_contact_waterline_m"}),
          g.any({t + "_loaded_radius_m", t + "_radius_m", t + "_shoe_radius_m", t + "_foot_radius_m"})
              .value_or(0)};
}

Answers tilt(const Given& g) {
  // A nose wheel, or with its distance turned round a tail wheel or skid.
  std::string third = "nose";
  for (const char* name : {"tail", "tailwheel", "tail_wheel", "tailskid", "tail_skid", "skid"})
    if (g.has("level_reading_" + std::string(name) + "_kg")) third = name;
  const auto axle = [&](const std::string& w) -> std::optional<double> {
    const auto ahead = g.any({w + "_axle_ahead_of_main_axle_m", w + "_ahead_of_main_axle_m"});
    if (ahead) return ahead;
    const auto behind = g.any({w + "_axle_behind_main_axle_m", w + "_behind_main_axle_m",
                               w + "_axle_aft_of_main_axle_m", w + "_foot_behind_main_axle_m"});
    return behind ? std::optional(-*behind) : std::nullopt;
  };
  std::optional<double> ahead = axle(third);
  std::optional<double> above =
      g.any({third + "_axle_above_main_axle_level_m", third + "_foot_above_main_axle_level_m",
             third + "_above_main_axle_level_m"});
  for (const char* name : {"tailwheel", "tail_wheel", "tail", "tailskid", "skid"})
    if (third != "nose" && !ahead) ahead = axle(name);
  if (!ahead)
    throw std::runtime_error("the case does not say how far the " + third + " axle is from the mains");
  weigh::Tilt t{
      g["level_reading_" + third + "_kg"],
      g.any({"level_reading_port_main_kg"}).value_or(0),
      g.any({"level_reading_starboard_main_kg", "level_reading_mains_kg", "level_reading_both_mains_kg"})
          .value_or(0),
      g["tilted_reading_" + third + "_kg"],
      radians(g.one({"tilt_pitch_nose_up_deg", "tilt_pitch_deg", "tilt_deg"})),
      *ahead,
      above.value_or(0),
      g.any({"main_axle_height_above_ground_level_m"}).value_or(0),
      g.any({"standard_error_each_reading_kg"}).value_or(0),
      radians(g.any({"standard_error_tilt_deg"}).value_or(0))};
  const auto r = weigh::cg_height_by_tilt(t);
  Answers a{{"mass_kg", r.mass},
            {"cg_ahead_of_main_axle_m", r.cg_ahead_of_main},
            {"cg_behind_main_axle_m", -r.cg_ahead_of_main},
            {"cg_height_above_main_axle_m", r.cg_above_main_axle},
            {"cg_height_above_ground_level_attitude_m", r.cg_above_ground},
            {"standard_error_of_cg_height_m", r.standard_error}};
  // What a wrong reading, or a wrong tilt, does to the height.
  const auto changed = [&](weigh::Tilt wrong) {
    return weigh::cg_height_by_tilt(wrong).cg_above_main_axle - r.cg_above_main_axle;
  };
  auto wrong = t;
  wrong.tilted_nose +=
      g.any({"wrong_tilted_reading_by_kg", "tilted_reading_wrong_by_kg", "tilted_reading_error_kg",
             "error_of_tilted_reading_kg", "reading_error_kg", "tilted_" + third + "_reading_wrong_by_kg"})
          .value_or(1);
  for (const char* name :
       {"cg_height_change_if_tilted_reading_is_wrong_m", "cg_height_change_m", "cg_height_error_m",
        "cg_height_error_from_tilted_reading_m", "cg_height_error_per_kg_of_tilted_reading_m",
        "cg_height_change_per_kg_of_tilted_reading_m"})
    a[name] = changed(wrong);
  auto steeper = t;
  steeper.pitch += radians(g.any({"wrong_tilt_by_deg", "tilt_wrong_by_deg", "tilt_error_deg"}).value_or(1));
  a["cg_height_error_from_tilt_m"] = a["cg_height_error_per_degree_of_tilt_m"] = changed(steeper);
  return a;
}

Answers gear_retraction(const Given& g) {
  // The aircraft as one mass that does not move plus the legs, once down and once stowed.
  const auto mass = g.list("moving_mass_kg");
  const auto list = [&](const char* what, const char* state) {
    return g.list(("moving_cg_" + std::string(what) + "_" + state + "_m").c_str());
  };
  const Vec3 cg(g["cg_station_gear_down_m"], g["cg_offset_y_gear_down_m"], g["cg_waterline_gear_down_m"]);
  const auto legs = [&](const char* state) {
    std::vector<weigh::Mass> m;
    for (size_t i = 0; i < mass.size(); ++i)
      m.push_back({mass[i],
                   Vec3(list("station", state)[i], list("offset_y", state)[i], list("waterline", state)[i])});
    return m;
  };
  auto parts = legs("down");
  for (auto& p : parts) p.mass = -p.mass;
  parts.push_back({g["mass_kg"], cg});
  auto up = legs("stowed");
  up.push_back(weigh::sum(parts));
  const auto result = weigh::sum(up);
  const Vec3 shift = result.at - cg;
  return {{"cg_station_shift_m", shift.x()},        {"cg_offset_y_shift_m", shift.y()},
          {"cg_waterline_shift_m", shift.z()},      {"cg_station_gear_up_m", result.at.x()},
          {"cg_offset_y_gear_up_m", result.at.y()}, {"cg_waterline_gear_up_m", result.at.z()}};
}

Answers ballast(const Given& g) {
  const double b =
      weigh::ballast(g["mass_kg"], g["cg_station_m"], g["target_cg_station_m"], g["ballast_station_m"]);
  return {{"ballast_mass_kg", b},
          {"mass_with_ballast_kg", g["mass_kg"] + b},
          {"move_of_item_aft_positive_m",
           weigh::move_of_item(g["mass_kg"], g["cg_station_m"], g["target_cg_station_m"],
                               g["movable_item_mass_kg"])}};
}

Answers chord_answers(const Given& g, const std::vector<weigh::Panel>& panels) {
  const auto c = weigh::mean_aerodynamic_chord(g["wing_root_leading_edge_station_m"], panels);
  return {{"wing_area_m2", c.area},
          {"mean_aerodynamic_chord_m", c.mean_chord},
          {"mac_offset_y_m", c.y},
          {"mac_leading_edge_station_m", c.leading_edge_x},
          {"cg_percent_mac", c.percent(g["cg_station_m"])}};
}

Answers mac_trapezoid(const Given& g) {
  return chord_answers(
      g, {{g["wing_span_m"] / 2, g["root_chord_m"], g["tip_chord_m"], g.deg("leading_edge_sweep_deg")}});
}

Answers mac_panels(const Given& g) {
  const auto span = g.list("panel_half_span_from_centre_line_outwards_m");
  const auto inner = g.list("panel_inner_chord_m");
  const auto outer = g.list("panel_outer_chord_m");
  const auto sweep = g.list("panel_leading_edge_sweep_deg");
  std::vector<weigh::Panel> panels;
  for (size_t i = 0; i < span.size(); ++i) panels.push_back({span[i], inner[i], outer[i], radians(sweep[i])});
  return chord_answers(g, panels);
}

Answers tip_back(const Given& g) {
  const auto t = place::tip_back(g["main_contact_station_m"] - g["cg_aft_limit_station_m"],
                                 g["cg_height_above_ground_m"], g["main_loaded_radius_m"]);
  return {{"tip_back_angle_at_contact_deg", to_deg(t.at_contact)},
          {"balance_pitch_round_wheels_deg", to_deg(t.round_wheels)}};
}

Answers tail_strike(const Given& g) {
  Answers a;
  const auto x = g.list("tail_point_station_m");
  const auto z = g.list("tail_point_waterline_m");
  for (const std::string state : {"extended", "static"}) {
    const RoundWheel wheel{g[("main_axle_station_" + state + "_m").c_str()],
                           g[("main_axle_waterline_" + state + "_m").c_str()],
                           g[state == "static" ? "main_loaded_radius_m" : "main_free_radius_m"]};
    std::vector<place::HighPoint> points;
    for (size_t i = 0; i < x.size(); ++i)
      points.push_back({place::behind_contact({x[i], 0, z[i]}, wheel, 0),
                        place::height_above_ground({x[i], 0, z[i]}, wheel, 0)});
    const auto t = place::tail_strike(points, wheel.radius);
    if (!t) continue;
    a["tail_strike_angle_at_contact_" + state + "_deg"] = to_deg(t->at_contact);
    a["tail_strike_pitch_round_wheels_" + state + "_deg"] = to_deg(t->round_wheels);
    a["critical_point_number_" + state] = t->point + 1;
  }
  return a;
}

Answers nose_share(const Given& g) {
  const double n = g["nose_contact_station_m"];
  const double m = g["main_contact_station_m"];
  const double braking = place::nose_share_braking(
      n, m, g["cg_station_forward_m"], g["cg_height_above_ground_m"], g["braking_deceleration_in_g"]);
  return {{"nose_share_forward_cg", place::third_wheel_share(n, m, g["cg_station_forward_m"])},
          {"nose_share_aft_cg", place::third_wheel_share(n, m, g["cg_station_aft_m"])},
          {"nose_share_braking_forward_cg", braking},
          {"nose_load_braking_forward_cg_N", braking * g["mass_kg"] * standard_gravity}};
}

place::Tripod tripod(const Given& g) {
  const auto t = tail_of(g);
  return {g.one({"nose_contact_station_m", t + "_contact_station_m", "third_contact_station_m"}),
          g["main_contact_station_m"],
          g["track_m"],
          g["cg_station_m"],
          g.any({"cg_offset_y_m"}).value_or(0),
          g["cg_height_above_ground_m"]};
}

Answers turnover(const Given& g) {
  const auto t = place::turnover(tripod(g));
  return {{"turnover_angle_deg", to_deg(t.angle)},
          {"distance_cg_to_tip_line_m", t.distance},
          {"tipping_acceleration_square_to_tip_line_in_g", t.square_in_g},
          {"tipping_acceleration_purely_sideways_in_g", t.sideways_in_g}};
}

Answers crosswind(const Given& g) {
  return {{"crosswind_tip_speed_m_per_s",
           place::crosswind_tip_speed(tripod(g), g["mass_kg"], g["side_area_m2"], g["side_force_coefficient"],
                                      g["side_force_height_above_ground_m"], g["air_density_kg_per_m3"])}};
}

Answers tailwheel(const Given& g) {
  const place::Tailwheel gear{
      {g["main_axle_station_m"], g["main_axle_waterline_m"], g["main_loaded_radius_m"]},
      tail_wheel(g),
      g["track_m"]};
  const auto forward = place::tailwheel_figures(gear, {g["cg_station_forward_m"], 0, g["cg_waterline_m"]});
  const auto aft = place::tailwheel_figures(gear, {g["cg_station_aft_m"], 0, g["cg_waterline_m"]});
  if (!forward || !aft) return {};
  return {{"axle_ahead_angle_forward_cg_deg", to_deg(forward->axle_ahead_angle)},
          {"axle_ahead_angle_aft_cg_deg", to_deg(aft->axle_ahead_angle)},
          {"three_point_angle_deg", to_deg(aft->three_point_angle)},
          {"wheelbase_three_point_m", aft->wheelbase},
          {"cg_height_above_ground_three_point_aft_cg_m", aft->cg_height_three_point},
          {"nose_over_deceleration_level_forward_cg_in_g", forward->nose_over_level},
          {"nose_over_deceleration_three_point_forward_cg_in_g", forward->nose_over_three_point},
          {"tail_share_three_point_forward_cg", forward->tail_share},
          {"tail_share_three_point_aft_cg", aft->tail_share},
          {"skid_share_three_point_forward_cg", forward->tail_share},
          {"skid_share_three_point_aft_cg", aft->tail_share},
          {"tail_load_three_point_aft_cg_N", aft->tail_share * g["mass_kg"] * standard_gravity},
          {"tail_load_three_point_forward_cg_N", forward->tail_share * g["mass_kg"] * standard_gravity},
          {"tipping_acceleration_square_to_tip_line_aft_cg_in_g", aft->tip_square},
          {"tipping_acceleration_purely_sideways_aft_cg_in_g", aft->tip_sideways}};
}

Answers propeller(const Given& g) {
  const place::PropellerDisc disc{{g["propeller_hub_station_m"], 0, g["propeller_hub_waterline_m"]},
                                  g["propeller_diameter_m"],
                                  g.deg("propeller_axis_tilt_nose_down_deg")};
  const auto main = [&](const char* z, const char* r) {
    return RoundWheel{g["main_axle_station_m"], g[z], g[r]};
  };
  const RoundWheel still = main("main_axle_waterline_static_m", "main_loaded_radius_m");
  const RoundWheel down = main("main_axle_waterline_bottomed_m", "main_loaded_radius_m");
  const RoundWheel flat = main("main_axle_waterline_bottomed_m", "main_flat_radius_m");
  Answers a;
  if (g.has("nose_axle_station_m")) {
    const auto nose = [&](const char* z, const char* r) {
      return RoundWheel{g["nose_axle_station_m"], g[z], g[r]};
    };
    const RoundWheel nose_still = nose("nose_axle_waterline_static_m", "nose_loaded_radius_m");
    const RoundWheel nose_down = nose("nose_axle_waterline_bottomed_m", "nose_loaded_radius_m");
    const RoundWheel nose_flat = nose("nose_axle_waterline_bottomed_m", "nose_flat_radius_m");
    const auto stand = [&](const RoundWheel& n, const RoundWheel& m, const std::string& name) {
      const auto pitch = place::pitch_on(n, m);
      if (!pitch) return;
      a["pitch_" + name + "_deg"] = to_deg(*pitch);
      a["clearance_" + name + "_m"] = place::propeller_clearance(disc, m, *pitch);
    };
    stand(nose_still, still, "static");
    stand(nose_down, down, "all_legs_bottomed");
    stand(nose_flat, flat, "all_legs_bottomed_and_tyres_flat");
    stand(nose_flat, still, "nose_leg_bottomed_and_tyre_flat_mains_static");
    return a;
  }
  a["clearance_level_static_m"] = place::propeller_clearance(disc, still, 0);
  a["clearance_level_main_legs_bottomed_m"] = place::propeller_clearance(disc, down, 0);
  a["clearance_level_main_legs_bottomed_and_tyres_flat_m"] = place::propeller_clearance(disc, flat, 0);
  const RoundWheel tail = tail_wheel(g);
  if (const auto pitch = place::pitch_on(still, tail)) {
    a["three_point_angle_deg"] = to_deg(*pitch);
    a["clearance_three_point_static_m"] = place::propeller_clearance(disc, still, *pitch);
    if (const auto sunk = place::pitch_on(down, tail))
      a["clearance_three_point_main_legs_bottomed_m"] = place::propeller_clearance(disc, down, *sunk);
    if (const auto sunk = place::pitch_on(flat, tail))
      a["clearance_three_point_main_legs_bottomed_and_tyres_flat_m"] =
          place::propeller_clearance(disc, flat, *sunk);
    if (const auto touch = place::propeller_touch_pitch(disc, still, *pitch))
      a["pitch_at_which_propeller_touches_mains_static_deg"] = to_deg(*touch);
  }
  return a;
}

Answers wheel_statistics(const Given& g) {
  const double load = g["mass_kg"] * standard_gravity * g["share_of_weight_on_both_mains"] / 2;
  const auto size = place::typical_main_wheel(load);
  return {{"load_per_main_wheel_N", load},
          {"main_wheel_diameter_m", size.diameter},
          {"main_wheel_width_m", size.width}};
}

Answers tyre(const Given& g) {
  const auto t =
      place::pneumatic_tyre(g["tyre_diameter_m"], g["tyre_width_m"], g["load_N"], g["gauge_pressure_Pa"]);
  return {{"loaded_radius_m", t.loaded_radius},
          {"tyre_deflection_m", t.deflection},
          {"contact_area_m2", t.contact_area},
          {"vertical_rate_N_per_m", t.rate}};
}

Answers bend_out(const Given& g) {
  const double offset = g["bend_offset_from_centre_line_m"];
  const double length = g["leg_length_bend_to_axle_m"];
  const double before = g.deg("cant_before_deg");
  double after = before;
  if (g.has("cant_after_deg")) {
    after = g.deg("cant_after_deg");
  } else {
    const auto cant = place::cant_for_track(offset, length, g["track_wanted_m"]);
    if (!cant) return {};
    after = *cant;
  }
  const auto b = place::bend_out(offset, length, before, after);
  Answers a{{"track_before_m", b.track_before},
            {"track_after_m", b.track_after},
            {"cant_after_deg", to_deg(after)},
            {"aircraft_sinks_by_m", b.sinks_by},
            {"mains_sink_by_m", b.sinks_by},
            {"camber_change_if_axle_is_not_bent_back_deg", to_deg(b.camber_change)}};
  // The other wheel stays as it is: the aircraft turns about it. Nose-up where that is the nose wheel.
  const auto t = tail_of(g);
  std::optional<double> behind =  // of the mains, from the wheel that is not bent
      g.any({"main_axle_behind_nose_axle_m", "mains_behind_nose_wheel_m", "nose_axle_ahead_of_main_axle_m"});
  if (const auto aft = g.any({t + "_axle_behind_main_axle_m", t + "_behind_main_axle_m"})) behind = -*aft;
  const auto main = g.any({"main_contact_station_m", "main_axle_station_m"});
  const auto other = g.any({"nose_contact_station_m", "nose_axle_station_m", t + "_contact_station_m",
                            t + "_axle_station_m", t + "_station_m"});
  if (main && other) behind = *main - *other;
  if (!behind) behind = g.any({"wheelbase_m"});
  if (behind) {
    const double pitch = to_deg(place::pitch_of_sinking(b.sinks_by, *behind));
    for (const char* name : {"pitch_change_deg", "pitch_change_nose_up_deg",
                             "pitch_change_nose_up_positive_deg", "aircraft_pitches_nose_up_by_deg"})
      a[name] = pitch;
  }
  return a;
}

//! A leg's spring, however the case names its parts.
stance::WheelOnLeg wheel(const Json& w) {
  const Given g(w);
  const std::string kind = g.has("leg_kind") ? g.text("leg_kind") : "rigid";
  stance::LegLaw law;
  law.travel = g.any({"leg_travel_to_stop_m"}).value_or(0);
  if (kind == "gas") {
    law = gas_law(g, law.travel);
  } else if (kind != "rigid" && kind != "skid") {
    law.kind = stance::LegLaw::Kind::linear;
    law.rate = g.one({"leg_rate_N_per_m", "spring_rate_N_per_m"});
    law.preload = g.any({"leg_preload_N", "spring_preload_N"}).value_or(0);
  }
  const Vec3 axle(g.one({"axle_station_m", "foot_station_m", "station_m"}),
                  g.any({"axle_offset_y_m", "foot_offset_y_m", "offset_y_m"}).value_or(0),
                  g.one({"axle_waterline_extended_m", "foot_waterline_extended_m", "axle_waterline_m",
                         "foot_waterline_m", "waterline_m"}));
  // A skid has no tyre: a foot that gives a micrometre.
  return {force::straight_leg(axle, law),
          g.any({"free_radius_m"}).value_or(0),
          {g.any({"tyre_rate_N_per_m"}).value_or(hard_foot)}};
}

struct Standing {
  double mass;
  Vec3 cg;
  std::vector<stance::WheelOnLeg> wheels;
  std::vector<std::string> names;
};

Standing standing(const Given& g) {
  Standing s{g["mass_kg"], {g["cg_station_m"], g["cg_offset_y_m"], g["cg_waterline_m"]}, {}, {}};
  for (const auto& w : g.at("wheels")) {
    s.wheels.push_back(wheel(w));
    s.names.push_back(w.at("name").get<std::string>());
  }
  return s;
}

Answers stance_case(const Given& g) {
  const Standing s = standing(g);
  const auto solved = stance::solve(s.mass, s.cg, s.wheels);
  const auto* rest = std::get_if<stance::Rest>(&solved);
  if (!rest) return {{"stands", 0}};
  Answers a{{"stands", 1},
            {"pitch_deg", to_deg(rest->pitch)},
            {"roll_deg", to_deg(rest->roll)},
            {"axes_origin_height_above_ground_m", rest->heave},
            {"cg_height_above_ground_m", rest->heave + up_direction(rest->pitch, rest->roll).dot(s.cg)}};
  for (size_t i = 0; i < s.names.size(); ++i) {
    a["load_" + s.names[i] + "_N"] = rest->wheels[i].load;
    a["leg_closure_" + s.names[i] + "_m"] = rest->wheels[i].leg_closure;
    a["tyre_closure_" + s.names[i] + "_m"] = rest->wheels[i].tyre_closure;
    a["gap_under_" + s.names[i] + "_m"] = rest->wheels[i].gap;
    a["share_" + s.names[i]] = rest->wheels[i].load / (s.mass * standard_gravity);
    a["bottomed_" + s.names[i]] = rest->wheels[i].bottomed ? 1 : 0;
  }
  a["number_of_wheels_in_contact"] = rest->standing();
  return a;
}

Answers stance_target(const Given& g) {
  Standing s = standing(g);
  const double target = g.deg("target_pitch_deg");
  const auto change = g.text("change");
  std::vector<int> mains;
  std::vector<int> third;
  for (size_t i = 0; i < s.names.size(); ++i)
    (s.names[i].find("main") == std::string::npos ? third : mains).push_back(static_cast<int>(i));
  const bool on_mains = change.find("main") == 0;
  const auto& which = on_mains ? mains : third;
  Answers a;
  const auto before = stance::solve(s.mass, s.cg, s.wheels);
  if (const auto* rest = std::get_if<stance::Rest>(&before)) a["pitch_before_deg"] = to_deg(rest->pitch);
  const auto says = [&](const char* word) { return change.find(word) != std::string::npos; };
  const std::string leg = on_mains ? "main" : change.substr(0, change.find('_'));
  const auto put = [&](double value, std::initializer_list<std::string> endings) {
    for (const std::string& of : {leg + "_", leg + "_leg_", leg + "_spring_", leg + "_gas_",
                                  "both_" + leg + "_legs_", "each_" + leg + "_leg_"})
      for (const auto& ending : endings) a[of + ending] = value;
  };
  std::optional<stance::SpringChange> spring;
  if (says("rate")) spring = stance::SpringChange::rate;
  if (says("preload")) spring = stance::SpringChange::preload;
  if (says("pressure") || says("charge") || says("gas")) spring = stance::SpringChange::pressure;
  if (spring) {
    const auto to = stance::spring_for_pitch(s.mass, s.cg, s.wheels, which, *spring, target);
    if (!to) return a;
    for (int i : which) {
      auto& law = s.wheels[static_cast<size_t>(i)].leg.law;
      switch (*spring) {
        case stance::SpringChange::rate:
          law.rate = *to;
          put(*to, {"rate_N_per_m", "spring_rate_N_per_m"});
          break;
        case stance::SpringChange::preload:
          law.preload = *to;
          put(*to, {"preload_N", "spring_preload_N"});
          break;
        case stance::SpringChange::pressure:
          law.pressure = *to;
          put(*to, {"pressure_extended_absolute_Pa", "gas_pressure_extended_absolute_Pa",
                    "charge_pressure_absolute_Pa", "charge_pressure_extended_absolute_Pa",
                    "gas_charge_pressure_absolute_Pa", "pressure_absolute_Pa"});
          put(*to - law.ambient, {"charge_pressure_gauge_Pa", "gas_pressure_extended_gauge_Pa",
                                  "pressure_extended_gauge_Pa", "gas_charge_pressure_gauge_Pa"});
          break;
      }
    }
  } else {
    const auto longer = stance::longer_legs_for_pitch(s.mass, s.cg, s.wheels, which, target);
    if (!longer) return a;
    a["shim_between_" + leg + "_leg_and_mount_m"] = *longer;
    put(*longer, {"longer_by_m"});
    for (int i : which) s.wheels[static_cast<size_t>(i)].leg.axle.z() -= *longer;
  }
  const auto after = stance::solve(s.mass, s.cg, s.wheels);
  if (const auto* rest = std::get_if<stance::Rest>(&after)) {
    a["cg_height_above_ground_after_m"] = rest->heave + up_direction(rest->pitch, rest->roll).dot(s.cg);
    for (size_t i = 0; i < s.names.size(); ++i) a["load_" + s.names[i] + "_after_N"] = rest->wheels[i].load;
  }
  return a;
}

place::GroundRun ground_run(const Given& g, double main_x) {
  return {g["mass_kg"],
          g["cg_station_m"],
          g["cg_height_above_ground_m"],
          main_x,
          g["wing_area_m2"],
          g["mean_aerodynamic_chord_m"],
          g["wing_aerodynamic_centre_station_m"],
          g["wing_lift_coefficient_ground_attitude"],
          g["drag_coefficient_ground_attitude"],
          g["drag_height_above_ground_m"],
          g["wing_moment_coefficient_nose_up_positive"],
          g["tail_area_m2"],
          g["tail_down_lift_coefficient"],
          g["tail_station_m"],
          g.any({"slipstream_factor", "slipstream_factor_at_tail", "tail_slipstream_factor",
                 "dynamic_pressure_factor_at_tail"})
              .value_or(1),
          g["thrust_N"],
          g["thrust_height_above_ground_m"],
          g["rolling_friction_coefficient"],
          g["lift_coefficient_max"],
          g["air_density_kg_per_m3"]};
}

Answers rotation_speed(const Given& g) {
  const auto r = place::rotation(ground_run(g, g["main_contact_station_m"]));
  const bool rotates =
      r.verdict == place::Rotation::Verdict::rotates || r.verdict == place::Rotation::Verdict::at_standstill;
  return {{"stall_speed_m_per_s", r.stall_speed},
          {"rotation_speed_m_per_s", r.speed},
          {"speed_at_which_nose_would_lift_m_per_s", r.speed},
          {"speed_at_which_the_nose_would_lift_m_per_s", r.speed},
          {"nose_lift_speed_m_per_s", r.speed},
          {"flies_off_before_it_rotates", r.verdict == place::Rotation::Verdict::flies_off_first ? 1 : 0},
          {"rotation_to_stall_speed_ratio", r.ratio},
          {"main_load_at_rotation_N", r.main_load},
          {"acceleration_at_rotation_m_per_s2", r.acceleration},
          {"can_rotate", rotates ? 1 : 0},
          {"moment_missing_at_main_contact_at_1p05_stall_speed_N_m", r.missing_moment}};
}

Answers rotation_limit(const Given& g) {
  const auto run = ground_run(g, g["cg_station_m"]);
  const auto x = place::furthest_aft_main(run, g["rotation_to_stall_speed_ratio_wanted"]);
  Answers a{{"stall_speed_m_per_s", place::rotation(run).stall_speed}};
  if (x) {
    a["main_contact_station_furthest_aft_m"] = *x;
    a["main_contact_behind_cg_m"] = *x - g["cg_station_m"];
  }
  return a;
}

Answers tip_over(const Given& g) {
  const auto r = place::on_its_tail(
      g["mass_kg"], {g["cg_station_m"], g["cg_offset_y_m"], g["cg_waterline_m"]},
      {g["nose_axle_station_m"], g["nose_axle_waterline_m"], g["nose_wheel_radius_m"]},
      {g["main_axle_station_m"], g["main_axle_waterline_m"], g["main_wheel_radius_m"]},
      {g["tail_bumper_centre_station_m"], g["tail_bumper_centre_waterline_m"], g["tail_bumper_radius_m"]},
      {g["ballast_station_m"], 0, g["ballast_waterline_m"]});
  if (!r) return {};
  return {{"stands_on_nose_and_mains", r->stands ? 1 : 0},
          {"falls_onto_tail_bumper", r->stands ? 0 : 1},
          {"pitch_at_rest_deg", to_deg(r->pitch)},
          {"load_tail_bumper_N", r->tail_load},
          {"load_both_mains_N", r->main_load},
          {"gap_under_nose_wheel_m", r->nose_gap},
          {"pitch_on_nose_and_mains_deg", to_deg(r->standing_pitch)},
          {"ballast_that_just_keeps_nose_down_kg", r->keeps_down},
          {"ballast_that_brings_it_down_from_the_tail_kg", r->brings_down}};
}

Answers track_growth(const Given& g) {
  // To the contact, or to the wheel's centre with the contact a radius below it.
  double cant = g.deg("leg_cant_extended_deg");
  const auto to_contact = g.any({"leg_length_hinge_to_contact_m"});
  const auto to_centre = g.any({"leg_length_hinge_to_wheel_centre_m", "leg_length_hinge_to_axle_m"});
  double length = to_contact.value_or(0);
  if (!to_contact) {
    const double radius = g.one({"wheel_radius_m", "wheel_loaded_radius_m", "loaded_radius_m"});
    const auto foot = place::contact_of(to_centre ? *to_centre : g["leg_length_m"], cant, radius);
    length = foot.length;
    cant = foot.cant;
  }
  const auto torsion = g.any({"hinge_torsion_rate_N_m_per_rad", "hinge_stiffness_N_m_per_rad"});
  const double rate = torsion
                          ? *torsion
                          : stance::hinge_of_vertical_rate(
                                g.one({"vertical_rate_at_contact_N_per_m", "vertical_rate_at_wheel_N_per_m",
                                       "vertical_rate_N_per_m", "leg_vertical_rate_N_per_m",
                                       "leg_rate_N_per_m", "vertical_rate_of_leg_at_contact_N_per_m"}),
                                length, cant);
  const auto s =
      stance::splay(g["hinge_offset_from_centre_line_m"], length, cant, rate, g["load_per_wheel_N"]);
  if (!s) return {};
  return {{"hinge_torsion_rate_N_m_per_rad", rate},
          {"leg_turns_outward_deg", to_deg(s->turn)},
          {"track_extended_m", s->track_before},
          {"track_static_m", s->track_after},
          {"track_growth_m", s->track_after - s->track_before},
          {"contact_rises_to_fuselage_by_m", s->rise},
          {"aircraft_sinks_by_m", s->rise},
          {"camber_change_deg", to_deg(s->camber_change)}};
}

}  // namespace

void add_place_kinds(std::map<std::string, Driver>& d) {
  d["ledger_cg"] = ledger_cg;
  d["scales_cg"] = scales_cg;
  d["tilt_cg_height"] = tilt;
  d["gear_retraction"] = gear_retraction;
  d["ballast"] = ballast;
  d["mac_trapezoid"] = mac_trapezoid;
  d["mac_panels"] = mac_panels;
  d["tip_back"] = tip_back;
  d["tail_strike"] = tail_strike;
  d["nose_share"] = nose_share;
  d["turnover"] = turnover;
  d["crosswind_tip"] = crosswind;
  d["tailwheel_geometry"] = tailwheel;
  d["propeller_clearance"] = propeller;
  d["wheel_statistics"] = wheel_statistics;
  d["tyre_loaded_radius"] = tyre;
  d["bend_out"] = bend_out;
  d["stance"] = stance_case;
  d["stance_target"] = stance_target;
  d["rotation_speed"] = rotation_speed;
  d["rotation_limit_station"] = rotation_limit;
  d["tip_over"] = tip_over;
  d["track_growth"] = track_growth;
}

}  // namespace kranich::oracle
