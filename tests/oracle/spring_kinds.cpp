// SPDX-License-Identifier: GPL-3.0-or-later
#include <fmt/format.h>

#include "case.h"
#include "core/force/coil.h"
#include "core/force/leg_law.h"
#include "core/model/describe.h"
#include "core/spring/landing.h"

namespace kranich::oracle {
namespace {

Answers sink_speed(const Given& g) {
  const auto r = spring::landing_by_rule(g["aircraft_mass_kg"], g["wing_area_m2"]);
  return {{"wing_loading_N_per_m2", r.wing_loading},
          {"sink_speed_m_per_s", r.sink_speed},
          {"drop_height_m", r.drop_height}};
}

Answers effective_mass(const Given& g) {
  const double mass = g["mass_on_leg_kg"];
  const double height = g["drop_height_m"];
  Answers a{{"sink_speed_m_per_s", spring::sink_speed_of_drop(height)},
            {"effective_mass_kg",
             spring::effective_mass(mass, height, g["total_vertical_travel_m"], g["lift_ratio"])}};
  if (g.has("reserve_total_vertical_travel_m")) {
    const auto r = spring::reserve(mass, height, g["reserve_total_vertical_travel_m"]);
    a["reserve_drop_height_m"] = r.drop_height;
    a["reserve_sink_speed_m_per_s"] = r.sink_speed;
    a["reserve_effective_mass_kg"] = r.effective_mass;
  }
  return a;
}

Answers froude(const Given& g) {
  const auto value = [&](const char* key) { return g.has(key) ? g[key] : 0; };
  const auto s = spring::froude(g["scale_denominator"], value("full_size_sink_speed_m_per_s"),
                                value("full_size_drop_height_m"), value("full_size_time_s"),
                                value("full_size_mass_kg"), value("full_size_spring_rate_N_per_m"));
  return {{"model_sink_speed_m_per_s", s.sink_speed},
          {"model_drop_height_m", s.drop_height},
          {"model_time_s", s.time},
          {"model_mass_kg", s.mass},
          {"model_spring_rate_N_per_m", s.rate}};
}

Answers first_estimate(const Given& g) {
  spring::StrokeInput in{g["leg_mass_kg"],
                         g["sink_speed_m_per_s"],
                         g["ground_load_factor"],
                         g["lift_ratio"],
                         g["strut_efficiency"],
                         g["tyre_efficiency"],
                         0};
  in.tyre_deflection = g.has("tyre_deflection_m")
                           ? g["tyre_deflection_m"]
                           : in.load_factor * in.mass * standard_gravity / g["tyre_rate_N_per_m"];
  const auto s = spring::first_estimate(in);
  if (!s) return {};
  return {{"strut_vertical_travel_m", s->strut_travel},
          {"tyre_deflection_at_peak_m", in.tyre_deflection},
          {"peak_ground_load_N", s->peak_load},
          {"inertia_load_factor", s->inertia_factor}};
}

Answers coil(const Given& g) {
  CoilEnds ends = CoilEnds::plain;
  const auto named = g.text("end_type");
  for (size_t i = 0; i < coil_end_names.size(); ++i)
    if (coil_end_names[i] == named) ends = static_cast<CoilEnds>(i);
  const force::Wire wire{"of the case", g["shear_modulus_Pa"], g["wire_strength_constant_MPa_mm"],
                         g["wire_strength_exponent"], g["torsional_limit_fraction_of_tensile"]};
  const auto f = force::coil_figures({g["wire_diameter_m"], g["mean_coil_diameter_m"], g["active_turns"],
                                      g["total_turns"], g["free_length_m"], ends},
                                     wire);
  const double load = g["load_N"];
  Answers a{{"spring_index", f.index},
            {"spring_rate_N_per_m", f.rate},
            {"solid_length_m", f.solid_length},
            {"travel_to_solid_m", f.travel_to_solid},
            {"force_at_solid_N", f.force_at_solid},
            {"deflection_at_load_m", load / f.rate},
            {"peak_shear_stress_at_load_Pa", f.shear_stress(load)},
            {"peak_shear_stress_at_solid_Pa", f.shear_stress(f.force_at_solid)},
            {"wire_tensile_strength_Pa", f.tensile_strength},
            {"shear_limit_Pa", f.shear_limit},
            {"margin_at_load_fraction_of_limit", f.margin(load)},
            {"margin_at_solid_fraction_of_limit", f.margin(f.force_at_solid)}};
  if (g.has("buckling_end_constant"))
    a["free_length_above_which_it_may_buckle_m"] =
        force::buckling_free_length(g["mean_coil_diameter_m"], g["buckling_end_constant"]);
  return a;
}

Answers coil_preload(const Given& g) {
  const auto p = force::preloaded(g["spring_rate_N_per_m"], g["free_length_m"],
                                  g["installed_length_extended_m"], g["travel_m"]);
  return {{"preload_N", p.preload},
          {"force_at_end_of_travel_N", p.force_at_end},
          {"energy_over_travel_J", p.energy},
          {"efficiency", p.efficiency}};
}

Answers in_series(const Given& g) {
  const auto s =
      force::in_series(g["spring_1_rate_N_per_m"], g["spring_1_travel_to_solid_m"],
                       g["spring_2_rate_N_per_m"], g["spring_2_travel_to_solid_m"], g["total_deflection_m"]);
  return {{"combined_rate_N_per_m", s.combined_rate},
          {"force_when_first_goes_solid_N", s.force_first_solid},
          {"deflection_when_first_goes_solid_m", s.deflection_first_solid},
          {"rate_after_first_is_solid_N_per_m", s.rate_after},
          {"force_at_total_deflection_N", s.force},
          {"energy_at_total_deflection_J", s.energy}};
}

Answers nested(const Given& g) {
  const auto n = force::nested(g["outer_spring_rate_N_per_m"], g["inner_spring_rate_N_per_m"],
                               g["inner_spring_starts_after_m"], g["deflection_m"]);
  return {{"rate_with_both_N_per_m", n.rate_both},
          {"force_N", n.force},
          {"energy_J", n.energy},
          {"efficiency", n.efficiency}};
}

Answers gas_strut(const Given& g) {
  const force::LegLaw law = gas_law(g, g["full_stroke_m"]);
  const double full = law.force(law.travel);
  Answers a{{"preload_extended_N", law.force(0)},
            {"force_at_full_stroke_N", full},
            {"energy_to_full_stroke_J", law.energy(law.travel)},
            {"efficiency_over_full_stroke", law.energy(law.travel) / (full * law.travel)},
            {"stroke_at_which_gas_volume_is_used_up_m", law.volume / law.piston_area}};
  for (int i = 1; i <= 20; ++i) {
    const auto key = fmt::format("stroke_{}_m", i);
    if (!g.has(key.c_str())) break;
    const double force = law.force(g[key.c_str()]);
    a[fmt::format("force_at_stroke_{}_N", i)] = force;
    a[fmt::format("gas_pressure_at_stroke_{}_absolute_Pa", i)] = force / law.piston_area + law.ambient;
  }
  return a;
}

Answers bought_gas_spring(const Given& g) {
  const force::BoughtGasSpring s{
      g["extended_force_N"], g["progression_force_at_full_stroke_over_extended_force"], g["full_stroke_m"]};
  const double full = s.force(s.full_stroke);
  Answers a{{"force_at_full_stroke_N", full},
            {"energy_to_full_stroke_J", s.energy(s.full_stroke)},
            {"efficiency_over_full_stroke", s.energy(s.full_stroke) / (full * s.full_stroke)}};
  for (int i = 1; i <= 20; ++i) {
    const auto key = fmt::format("stroke_{}_m", i);
    if (!g.has(key.c_str())) break;
    a[fmt::format("force_at_stroke_{}_N", i)] = s.force(g[key.c_str()]);
  }
  return a;
}

}  // namespace

force::LegLaw gas_law(const Given& g, double travel) {
  force::LegLaw law;
  law.kind = force::LegLaw::Kind::gas;
  law.travel = travel;
  law.piston_area = g.one({"gas_piston_area_m2", "piston_area_m2", "gas_and_oil_piston_area_m2"});
  law.volume = g.one({"gas_volume_extended_m3", "gas_volume_m3"});
  law.ambient = g.any({"gas_ambient_pressure_Pa", "ambient_pressure_Pa"}).value_or(101325);
  law.exponent = g.any({"gas_exponent", "polytropic_exponent", "gas_polytropic_exponent"}).value_or(1);
  const auto absolute = g.any({"gas_pressure_extended_absolute_Pa", "charge_pressure_absolute_Pa",
                               "charge_pressure_extended_absolute_Pa", "gas_charge_pressure_absolute_Pa"});
  law.pressure = absolute ? *absolute
                          : g.one({"charge_pressure_gauge_Pa", "gas_pressure_extended_gauge_Pa",
                                   "charge_pressure_extended_gauge_Pa", "gas_charge_pressure_gauge_Pa"}) +
                                law.ambient;
  return law;
}

void add_spring_kinds(std::map<std::string, Driver>& d) {
  d["sink_speed_by_rule"] = sink_speed;
  d["drop_height_and_effective_mass"] = effective_mass;
  d["froude_scaling"] = froude;
  d["first_estimate_of_stroke"] = first_estimate;
  d["coil_spring"] = coil;
  d["coil_preload"] = coil_preload;
  d["springs_in_series"] = in_series;
  d["springs_nested"] = nested;
  d["gas_strut"] = gas_strut;
  d["gas_spring_bought"] = bought_gas_spring;
}

}  // namespace kranich::oracle
