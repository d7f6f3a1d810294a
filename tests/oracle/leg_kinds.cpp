// SPDX-License-Identifier: GPL-3.0-or-later
//! Legs that bend, drops, strength and geometry of legs.
#include <cmath>

#include "case.h"
#include "core/assess/landing_state.h"
#include "core/base/numerics.h"
#include "core/base/quantity.h"
#include "core/force/leaf.h"
#include "core/force/suspension.h"
#include "core/leg/geometry.h"
#include "core/leg/strength.h"
#include "core/spring/drop.h"
#include "core/spring/landing.h"

namespace kranich::oracle {
namespace {

using force::BendingLeg;

//! Typical ratio where a case gives no shear modulus: it does not enter the answers of a planar leg.
force::Elastic material(const Given& g) {
  const double e = g.has("youngs_modulus_Pa") ? g["youngs_modulus_Pa"] : g["modulus_along_fibres_Pa"];
  return {e, g.has("shear_modulus_Pa") ? g["shear_modulus_Pa"] : e / 2.6};
}

Answers bent(const force::Bent& b) {
  return {{"vertical_stiffness_free_to_spread_N_per_m", b.vertical_stiffness},
          {"vertical_stiffness_wheel_held_sideways_N_per_m", b.held_stiffness},
          {"vertical_deflection_m", b.moved.z()},
          {"spread_of_one_wheel_outboard_m", b.moved.y()},
          {"camber_change_deg", to_deg(b.camber_change)},
          {"toe_in_change_deg", to_deg(b.toe_change)},
          {"root_bending_moment_N_m", b.root_moment},
          {"bending_moment_at_clamp_N_m", b.root_moment},
          {"largest_root_stress_magnitude_Pa", b.root_stress},
          {"root_stress_magnitude_Pa", b.root_stress},
          {"largest_stress_at_clamp_Pa", b.root_normal_stress},
          {"von_mises_at_clamp_Pa", b.root_stress},
          {"largest_stress_magnitude_Pa", b.largest_stress},
          {"distance_of_largest_stress_from_root_m", b.largest_at},
          {"strain_energy_J", b.strain_energy}};
}

Answers straight_leaf(const Given& g) {
  const auto leg = force::straight_leaf(g["leg_length_m"], g.deg("cant_deg"), g["width_m"], g["width_m"],
                                        g["thickness_m"], g["thickness_m"], material(g));
  return bent(*force::bend(leg, {0, 0, g["vertical_load_N"]}));
}

Answers tapered_leaf(const Given& g) {
  const auto leg =
      force::straight_leaf(g["leg_length_m"], g.deg("cant_deg"), g["width_at_root_m"], g["width_at_tip_m"],
                           g["thickness_at_root_m"], g["thickness_at_tip_m"], material(g), 400);
  return bent(*force::bend(leg, {0, 0, g["vertical_load_N"]}));
}

Answers curved_leaf(const Given& g) {
  const auto leg =
      force::curved_leaf(g["arc_radius_m"], g.deg("arc_leaves_root_at_deg_from_horizontal"),
                         g.deg("arc_ends_at_deg_below_horizontal"), g["straight_length_after_arc_m"],
                         g["width_m"], g["thickness_m"], material(g));
  const auto b = force::bend(leg, {0, 0, g["vertical_load_N"]});
  auto a = bent(*b);
  a["axle_outboard_of_root_m"] = leg.points.back().y();
  a["axle_below_root_m"] = -leg.points.back().z();
  const double w = g["width_m"];
  const double t = g["thickness_m"];
  a["root_bending_stress_Pa"] = b->root_moment * 6 / (w * t * t);
  return a;
}

Answers wire_leg(const Given& g) {
  BendingLeg leg;
  leg.material = material(g);
  leg.wire_diameter = g["wire_diameter_m"];
  // Leaning outboard, aft, or both: each the angle of the leg's picture from the side it is seen from.
  const double out = std::tan(radians(g.any({"cant_deg"}).value_or(0)));
  const double aft = std::tan(radians(g.any({"rake_deg", "rake_aft_deg"}).value_or(0)));
  const double length = g["leg_length_clamp_to_axle_m"];
  const Vec3 along = Vec3(aft, out, -1).normalized();
  leg.points = {Vec3::Zero(), length * along};
  // A loop is wound about the axis square to the leg's own plane.
  const Vec3 side = out == 0 && aft != 0 ? Vec3::UnitY() : Vec3::UnitX();
  const Vec3 axis = (side - side.dot(along) * along).normalized();
  for (int i = 1; g.has("loop_" + std::to_string(i) + "_turns"); ++i) {
    const std::string loop = "loop_" + std::to_string(i) + "_";
    leg.loops.push_back({g[loop + "centre_distance_from_clamp_along_leg_m"], g[loop + "mean_diameter_m"],
                         g[loop + "turns"], axis});
  }
  // Side by side they share the load.
  const double wires = g.any({"number_of_wires", "number_of_wires_side_by_side", "wires_side_by_side",
                              "number_of_equal_wires_side_by_side", "wires_in_parallel"})
                           .value_or(1);
  const auto b = force::bend(leg, {0, 0, g["vertical_load_N"] / wires});
  auto a = bent(*b);
  a["vertical_stiffness_free_to_spread_N_per_m"] = wires * b->vertical_stiffness;
  a["vertical_stiffness_wheel_held_sideways_N_per_m"] = wires * b->held_stiffness;
  a["strain_energy_J"] = wires * b->strain_energy;
  a["vertical_load_per_wire_N"] = g["vertical_load_N"] / wires;
  a["bending_moment_at_clamp_each_wire_N_m"] = b->root_moment;
  a["bending_moment_at_clamp_of_each_wire_N_m"] = b->root_moment;
  a["axle_moves_aft_m"] = b->moved.x();
  a["movement_of_one_wheel_aft_m"] = b->moved.x();
  for (size_t i = 0; i < b->loops.size(); ++i) {
    const std::string loop = "loop_" + std::to_string(i + 1) + "_";
    a[loop + "rate_N_m_per_rad"] = b->loops[i].rate;
    a[loop + "wind_up_deg"] = to_deg(b->loops[i].wind_up);
    a[loop + "inner_bending_stress_Pa"] = b->loops[i].stress;
  }
  return a;
}

Answers bent_wire(const Given& g) {
  BendingLeg leg;
  leg.material = material(g);
  leg.wire_diameter = g["wire_diameter_m"];
  for (const auto& p : g.at("centre_line_points_x_aft_y_starboard_z_up_m"))
    leg.points.emplace_back(p[0].get<double>(), p[1].get<double>(), p[2].get<double>());
  const Vec3 load(g["load_at_axle_x_aft_N"], g["load_at_axle_y_starboard_N"], g["load_at_axle_z_up_N"]);
  const auto b = force::bend(leg, load);
  auto a = bent(*b);
  const Mat3 k = b->flexibility.inverse();
  const char* axes = "xyz";
  for (int i = 0; i < 3; ++i) {
    for (int j = i; j < 3; ++j) a[std::string("stiffness_") + axes[i] + axes[j] + "_N_per_m"] = k(i, j);
  }
  a["axle_deflection_x_aft_m"] = b->moved.x();
  a["axle_deflection_y_outboard_m"] = b->moved.y();
  a["axle_deflection_z_up_m"] = b->moved.z();
  return a;
}

//! Uniform, or tapered straight in width, thickness or both.
force::SoftLeaf soft_leaf(const Given& g) {
  const auto end = [&](const std::string& of, const std::string& where) {
    return g.one(
        {of + "_at_" + where + "_m", of + "_at_" + (where == "root" ? "clamp" : "axle") + "_m", of + "_m"});
  };
  return {{{0, end("width", "root"), end("thickness", "root")},
           {g["leg_length_m"], end("width", "tip"), end("thickness", "tip")}},
          g["youngs_modulus_Pa"],
          g["yield_stress_Pa"]};
}

//! A set across the leg as height lost and half track gained, where the case says how the leg stands.
void lost(const Given& g, Answers& a, const std::string& when, double set) {
  const auto cant = g.any({"cant_deg", "leg_cant_deg"});
  if (!cant) return;
  const double height = set * std::sin(radians(*cant));
  const double aside = set * std::cos(radians(*cant));
  for (const std::string& of : {"height_lost_" + when, "height_lost_at_axle_" + when,
                                "aircraft_sinks_by_" + when, "axle_rises_for_good_by_" + when})
    a[of + "_m"] = height;
  for (const std::string& of : {"half_track_gained_" + when, "half_track_lost_" + when,
                                "half_track_grows_by_" + when, "spread_of_one_wheel_kept_" + when})
    a[of + "_m"] = aside;
}

double across(const Given& g) {
  if (const auto load = g.any({"peak_tip_load_across_leg_N", "peak_load_across_leg_N"})) return *load;
  return g.one({"peak_vertical_load_N", "vertical_load_N"}) *
         std::sin(radians(g.one({"cant_deg", "leg_cant_deg"})));
}

Answers soft_given_load(const Given& g) {
  const auto leaf = soft_leaf(g);
  const double peak = across(g);
  Answers a{{"leaf_rate_N_per_m", leaf.rate()},
            {"load_at_first_yield_N", leaf.yield_load()},
            {"distance_of_first_yield_from_root_m", leaf.yields_at()},
            {"collapse_load_N", leaf.collapse_load()},
            {"peak_deflection_m", leaf.deflection(peak)},
            {"permanent_set_after_first_m", leaf.set_after(peak)},
            // Reloading to the former peak is elastic: the same load again adds nothing.
            {"permanent_set_after_all_repeats_m", leaf.set_after(peak)}};
  lost(g, a, "after_first", leaf.set_after(peak));
  lost(g, a, "after_all_repeats", leaf.set_after(peak));
  lost(g, a, "after_all", leaf.set_after(peak));
  return a;
}

Answers soft_given_energy(const Given& g) {
  const auto leaf = soft_leaf(g);
  const double wire = g.any({"wire_rate_at_axle_across_leg_N_per_m"}).value_or(0);
  const auto landings = static_cast<int>(g["number_of_landings"]);
  const auto row = force::row_of_landings(leaf, g["energy_per_landing_J"], landings, wire);
  Answers a{{"leaf_rate_N_per_m", leaf.rate()},
            {"load_at_first_yield_N", leaf.yield_load()},
            {"distance_of_first_yield_from_root_m", leaf.yields_at()},
            {"collapse_load_N", leaf.collapse_load()},
            {"energy_at_first_yield_J", leaf.work(leaf.yield_load())},
            {"peak_load_first_landing_across_leg_N", row.peak_load.front()},
            {"permanent_set_after_first_across_leg_m", row.set.front()},
            {"peak_load_last_landing_across_leg_N", row.peak_load.back()},
            {"permanent_set_after_all_across_leg_m", row.set.back()},
            {"energy_per_landing_above_which_it_never_settles_J", leaf.endless_energy()}};
  lost(g, a, "after_first", row.set.front());
  lost(g, a, "after_all", row.set.back());
  for (size_t i = 0; i < row.set.size(); ++i) {
    a["permanent_set_after_" + std::to_string(i + 1) + "_across_leg_m"] = row.set[i];
    lost(g, a, "after_" + std::to_string(i + 1), row.set[i]);
  }
  return a;
}

Answers soft_with_wire(const Given& g) {
  const auto leaf = soft_leaf(g);
  const auto w = force::with_wire(leaf, g["wire_rate_at_axle_across_leg_N_per_m"], across(g));
  return {{"leaf_rate_N_per_m", leaf.rate()},
          {"leaf_share_of_peak_load_N", w.leaf_load},
          {"peak_deflection_m", w.deflection},
          {"permanent_set_with_wire_fitted_m", w.set_fitted},
          {"set_if_wire_is_taken_off_m", w.set_without}};
}

Answers bow_rule(const Given& g) {
  const auto s = force::bow_seed(g["aircraft_mass_kg"], g["root_width_m"]);
  return {{"plies_lower_not_rounded", s.plies_low}, {"plies_upper_not_rounded", s.plies_high}};
}

Answers bow_beam(const Given& g) {
  const double ply = force::ply_thickness(g["fibre_areal_weight_kg_per_m2"], g["fibre_volume_fraction"],
                                          g["fibre_density_kg_per_m3"]);
  const double root = g["number_of_plies"] * ply;
  const double w0 = g["width_at_clamp_m"];
  const double w1 = g["width_at_axle_m"];
  const bool folded = g.text("taper").find("fold") != std::string::npos;
  auto leg = force::straight_leaf(g["leg_length_clamp_to_axle_m"], g.deg("cant_deg"), w0, w1, root, root,
                                  material(g), 400);
  // Folded cloth keeps its fibres: width times thickness stays.
  if (folded)
    for (size_t i = 0; i < leg.points.size(); ++i) leg.thickness[i] = root * w0 / leg.width[i];
  const auto b = force::bend(leg, {0, 0, g["vertical_load_per_leg_N"]});
  auto a = bent(*b);
  a["ply_thickness_m"] = ply;
  a["thickness_at_clamp_m"] = leg.thickness.front();
  a["thickness_at_axle_m"] = leg.thickness.back();
  const double strain = b->largest_stress / leg.material.youngs_modulus;
  a["largest_strain_magnitude"] = strain;
  a["strain_margin_fraction_of_limit"] = 1 - strain / g["compressive_strain_allowable"];
  return a;
}

Answers trailing_link(const Given& g) {
  force::LegLaw law;
  if (!g.before("gas_volume_extended_m3").empty()) {
    law = gas_law(g, g.any({"full_stroke_m", "spring_stroke_m"}).value_or(1));
  } else {
    law.kind = force::LegLaw::Kind::linear;
    law.rate = g["spring_rate_N_per_m"];
    law.preload = g.any({"spring_preload_extended_N"}).value_or(0);
  }
  force::Suspension s;
  s.path = force::Suspension::Path::hinged;
  s.acts = force::Suspension::Acts::pushed;
  s.law = law;
  // The wheel rises with q, on an arm that trails or one that leads.
  s.hinge_axis = {0, g["extended_axle_x_aft_of_pivot_m"] < 0 ? 1.0 : -1.0, 0};
  s.axle = {g["extended_axle_x_aft_of_pivot_m"], 0, g["extended_axle_z_above_pivot_m"]};
  s.anchor_leg = {g["extended_spring_eye_on_arm_x_aft_of_pivot_m"], 0,
                  g["extended_spring_eye_on_arm_z_above_pivot_m"]};
  s.anchor_airframe = {g["spring_eye_on_airframe_x_aft_of_pivot_m"], 0,
                       g["spring_eye_on_airframe_z_above_pivot_m"]};
  Answers a{{"spring_length_extended_m", (s.anchor_leg - s.anchor_airframe).norm()}};
  for (int i = 1; g.has(("wheel_travel_" + std::to_string(i) + "_m").c_str()); ++i) {
    const std::string n = std::to_string(i);
    const double travel = g[("wheel_travel_" + n + "_m").c_str()];
    const double q =
        travel == 0 ? 0
                    : *find_root([&](double x) { return s.at(x).axle.z() - s.axle.z() - travel; }, 0, 1.2);
    const auto at = s.at(q);
    a["spring_travel_at_" + n + "_m"] = s.closure(q).s;
    a["motion_ratio_at_" + n] = s.closure(q).s_1 / at.axle_1.z();
    a["vertical_wheel_force_at_" + n + "_N"] = at.force / at.axle_1.z();
    a["wheel_rate_at_" + n + "_N_per_m"] = s.wheel_rate(q);
    a["spring_force_at_" + n + "_N"] = law.force(s.closure(q).s);
    a["gas_pressure_at_" + n + "_absolute_Pa"] =
        law.piston_area > 0 ? law.force(s.closure(q).s) / law.piston_area + law.ambient : 0;
  }
  return a;
}

Answers tube_stress(const Given& g) {
  const double d = g["outer_diameter_m"];
  const double wall = g["wall_thickness_m"];
  const auto section = force::tube_section(d, wall);
  const auto s = leg::round_stress(d, wall,
                                   {g["axial_force_tension_positive_N"], g["bending_moment_1_N_m"],
                                    g["bending_moment_2_N_m"], g["torque_N_m"]});
  return {{"area_m2", section.area},
          {"second_moment_of_area_m4", section.first},
          {"polar_second_moment_m4", section.torsion},
          {"largest_normal_stress_Pa", s.normal},
          {"torsional_shear_stress_Pa", s.shear},
          {"largest_von_mises_Pa", s.von_mises},
          {"margin_fraction_of_limit", s.margin(g["yield_stress_Pa"])}};
}

Answers tube_leg(const Given& g) {
  const auto f = leg::load_at_top(g.vec("clamped_top_x_y_z_m"), g.vec("bottom_x_y_z_m"),
                                  g.vec("load_applied_at_x_y_z_m"),
                                  {g["load_x_aft_N"], g["load_y_starboard_N"], g["load_z_up_N"]});
  const auto s =
      leg::round_stress(g["outer_diameter_m"], g["wall_thickness_m"], {f.axial, f.bending, 0, f.torque});
  return {{"tube_length_m", f.length},
          {"axial_force_magnitude_N", std::abs(f.axial)},
          {"bending_moment_at_top_N_m", f.bending},
          {"torque_magnitude_N_m", std::abs(f.torque)},
          {"largest_von_mises_at_top_Pa", s.von_mises},
          {"margin_fraction_of_limit", s.margin(g["yield_stress_Pa"])}};
}

Answers pin(const Given& g) {
  const auto s = leg::pin_stress(g["load_N"], g["pin_diameter_m"], static_cast<int>(g["shear_planes"]),
                                 g["inner_lug_thickness_m"], g["each_outer_lug_thickness_m"]);
  return {{"pin_shear_stress_Pa", s.shear},
          {"inner_lug_bearing_stress_Pa", s.inner_bearing},
          {"outer_lug_bearing_stress_Pa", s.outer_bearing},
          {"shear_margin_fraction_of_limit", 1 - s.shear / g["shear_allowable_Pa"]},
          {"worst_bearing_margin_fraction_of_limit",
           1 - std::max(s.inner_bearing, s.outer_bearing) / g["bearing_allowable_Pa"]}};
}

Answers bolts(const Given& g) {
  std::vector<leg::Bolt> group;
  const auto d = g.list("bolt_diameters_m");
  for (size_t i = 0; i < d.size(); ++i) {
    const auto& p = g.at("bolt_positions_x_y_m")[i];
    group.push_back({p[0].get<double>(), p[1].get<double>(), d[i]});
  }
  const auto loads = leg::bolt_group(group, g["load_x_N"], g["load_y_N"], g["load_applied_at_x_m"],
                                     g["load_applied_at_y_m"]);
  Answers a;
  double largest = 0;
  double stress = 0;
  for (size_t i = 0; i < loads.size(); ++i) {
    a["bolt_" + std::to_string(i + 1) + "_load_N"] = loads[i];
    largest = std::max(largest, loads[i]);
    stress = std::max(stress, leg::pin_stress(loads[i], d[i], 1, 1, 1).shear);
  }
  a["largest_bolt_load_N"] = largest;
  a["largest_bolt_shear_stress_Pa"] = stress;
  return a;
}

Answers block(const Given& g) {
  std::vector<leg::BlockScrews> screws;
  for (int i = 1; g.has(("screw_row_" + std::to_string(i) + "_number_of_screws").c_str()); ++i) {
    const std::string row = "screw_row_" + std::to_string(i) + "_";
    screws.push_back({g[(row + "distance_from_compressed_edge_m").c_str()],
                      static_cast<int>(g[(row + "number_of_screws").c_str()])});
  }
  const auto b =
      leg::block_pull(g["block_length_along_drag_m"], g["block_width_m"], g["drag_load_N"],
                      g["drag_acts_below_glued_face_m"], g["pull_away_from_face_at_middle_N"], screws);
  const double glue = 1 - b.glue_peak / g["glue_tension_allowable_Pa"];
  const double screw = 1 - b.largest_screw_pull / g["screw_withdrawal_allowable_each_N"];
  return {{"moment_at_face_N_m", b.moment},
          {"glue_peak_tension_Pa", b.glue_peak},
          {"glue_shear_Pa", b.glue_shear},
          {"glue_margin_fraction_of_limit", glue},
          {"largest_screw_pull_N", b.largest_screw_pull},
          {"screw_margin_fraction_of_limit", screw},
          {"block_pulls_off_1_yes_0_no", glue < 0 && (screws.empty() || screw < 0) ? 1 : 0}};
}

Answers tube_geometry(const Given& g) {
  const Vec3 axle = g.vec("axle_joint_x_y_z_m");
  Answers a;
  const auto names = g.before("_tube_top_x_y_z_m");
  for (const std::string& tube : names) {
    const Vec3 top = g.vec(tube + "_tube_top_x_y_z_m");
    const auto t = leg::tube_geometry(top, axle);
    a[tube + "_tube_true_length_m"] = t.length;
    a[tube + "_tube_rake_deg"] = to_deg(t.rake);
    a[tube + "_tube_cant_deg"] = to_deg(t.cant);
    if (g.has(tube + "_tube_top_pin_axis_x_y_z"))
      a[tube + "_tube_drill_angle_to_pin_deg"] =
          to_deg(leg::drill_angle(axle - top, g.vec(tube + "_tube_top_pin_axis_x_y_z")));
    for (const std::string& other : names)
      if (other != tube)
        a["angle_between_" + tube + "_and_" + other + "_tubes_deg"] =
            to_deg(leg::angle_between(axle - top, axle - g.vec(other + "_tube_top_x_y_z_m")));
  }
  return a;
}

Answers jig(const Given& g) {
  const double behind = g["point_on_centre_line_behind_bar_m"];
  const auto j = leg::jig(g["axle_waterline_m"], g["reference_point_waterline_m"],
                          g["reference_point_height_above_floor_m"], g["overall_width_over_axle_tips_m"],
                          g["axle_sticks_out_of_tube_each_side_m"], behind);
  const double toe = leg::toe_from_diagonals(g["measured_diagonal_starboard_m"],
                                             g["measured_diagonal_port_m"], j.bar_length, behind);
  return {
      {"jig_bar_length_m", j.bar_length},
      {"axle_height_above_floor_m", j.axle_height},
      {"diagonal_when_square_m", j.square_diagonal},
      {"toe_in_starboard_deg", to_deg(toe)},
      {"toe_in_port_deg", to_deg(-toe)},
      {"toe_from_tolerance_deg", to_deg(leg::toe_of_difference(g["tolerance_in_difference_of_diagonals_m"],
                                                               j.square_diagonal, j.bar_length, behind))}};
}

Answers cope(const Given& g) {
  const leg::Cope c{g["cut_tube_outer_diameter_m"] / 2, g["main_tube_outer_diameter_m"] / 2,
                    g.deg("angle_between_axes_deg"), g["offset_between_axes_m"]};
  Answers a{{"template_width_round_the_tube_m", c.around()}};
  for (const double phi : g.list("phi_list_deg")) {
    char name[40];
    std::snprintf(name, sizeof name, "cut_at_phi_%03.0f_deg_m", phi);
    if (const auto t = c.at(radians(phi))) a[name] = *t;
  }
  if (const auto d = c.depth()) a["deepest_minus_shallowest_cut_m"] = *d;
  return a;
}

spring::DropModel drop_model(const Given& g) {
  spring::DropModel m;
  const auto value = [&](const char* key) { return g.has(key) ? g[key] : 0; };
  if (!g.has("sprung_mass_kg")) {
    m.sprung_mass = g["mass_on_leg_kg"];
    m.lift_ratio = value("lift_ratio");
    m.tyre.rate = g["tyre_rate_N_per_m"];
    return m;
  }
  m.sprung_mass = g["sprung_mass_kg"];
  m.unsprung_mass = g["unsprung_mass_kg"];
  m.lift_ratio = value("lift_ratio");
  m.travel = g["strut_stroke_available_m"];
  m.bottom_stop = g["bottom_stop_rate_N_per_m"];
  m.extension_stop = g["extension_stop_rate_N_per_m"];
  m.tyre.rate = g["tyre_rate_N_per_m"];
  m.spring.travel = m.travel;
  if (!g.before("piston_area_m2").empty()) {
    m.spring = gas_law(g, m.travel);
    m.damper.oil_area =
        g.any({"oil_piston_area_m2", "gas_and_oil_piston_area_m2"}).value_or(m.spring.piston_area);
    m.damper.oil_density = g.any({"oil_density_kg_per_m3"}).value_or(m.damper.oil_density);
    m.damper.discharge = g.any({"discharge_coefficient"}).value_or(m.damper.discharge);
    m.damper.orifice_extending = value("orifice_area_extending_m2");
    // One orifice, or a table of it over the stroke.
    if (g.has("orifice_stroke_m")) {
      const auto stroke = g.list("orifice_stroke_m");
      const auto area = g.list("orifice_area_closing_m2");
      for (size_t i = 0; i < stroke.size(); ++i) m.damper.metered.emplace_back(stroke[i], area[i]);
    } else {
      m.damper.orifice_closing = value("orifice_area_closing_m2");
    }
    m.damper.closing = value("damping_closing_N_s_per_m");
    m.damper.extending = value("damping_extending_N_s_per_m");
  } else {
    m.spring.kind = force::LegLaw::Kind::linear;
    m.spring.rate = g["strut_spring_rate_N_per_m"];
    m.spring.preload = value("strut_preload_N");
    m.damper.closing = value("damping_closing_N_s_per_m");
    m.damper.extending = value("damping_extending_N_s_per_m");
  }
  m.damper.friction =
      g.any({"friction_N", "strut_friction_N", "friction_force_N", "strut_friction_force_N"}).value_or(0);
  return m;
}

Answers drop_case(const Given& g) {
  const auto m = drop_model(g);
  const double speed =
      g.has("sink_speed_m_per_s") ? g["sink_speed_m_per_s"] : spring::sink_speed_of_drop(g["drop_height_m"]);
  spring::DropRun run;
  run.duration = 2.5;
  const auto r = spring::drop(m, speed, run);
  return {{"peak_ground_load_N", r.peak_ground},
          {"peak_ground_load_factor", r.load_factor},
          {"peak_strut_load_N", r.peak_strut},
          {"stroke_used_m", r.stroke_used},
          {"peak_inertia_load_factor_of_sprung_mass", r.inertia_factor},
          {"peak_inertia_load_factor", r.inertia_factor},
          {"hop_height_m", r.hop_height},
          {"energy_to_be_absorbed_J", r.energy},
          {"energy_absorbed_J", r.energy},
          {"strut_efficiency", r.strut_efficiency},
          {"efficiency", r.tyre_efficiency},
          {"largest_tyre_deflection_m", r.tyre_deflection},
          {"time_to_peak_s", r.time_to_peak},
          {"bottoms_1_yes_0_no", r.bottoms ? 1 : 0},
          {"energy_share_strut_spring", r.shares.spring},
          {"energy_share_strut_damper", r.shares.damper},
          {"energy_share_stops", r.shares.stops},
          {"energy_share_friction", r.shares.friction},
          {"energy_share_strut_friction", r.shares.friction},
          {"energy_share_tyre", r.shares.tyre},
          {"energy_share_unsprung_motion", r.shares.unsprung_motion}};
}

Answers ladder(const Given& g) {
  const auto l = spring::drop_ladder(drop_model(g), g["ladder_first_height_m"], g["ladder_step_m"], 3.0);
  Answers a;
  if (l.first_that_bottoms) a["first_height_that_bottoms_m"] = *l.first_that_bottoms;
  if (l.just_bottoms) a["height_that_just_bottoms_m"] = *l.just_bottoms;
  if (l.result.size() > 1) {
    const auto& below = l.result[l.result.size() - 2];
    a["stroke_used_one_step_below_m"] = below.stroke_used;
    a["peak_ground_load_one_step_below_N"] = below.peak_ground;
  }
  return a;
}

}  // namespace

void add_leg_kinds(std::map<std::string, Driver>& d) {
  d["straight_leaf"] = straight_leaf;
  d["tapered_leaf"] = tapered_leaf;
  d["curved_leaf"] = curved_leaf;
  d["wire_leg"] = wire_leg;
  d["bent_wire_3d"] = bent_wire;
  d["elastic_plastic_leaf_given_load"] = soft_given_load;
  d["elastic_plastic_leaf_given_energy"] = soft_given_energy;
  d["soft_leaf_with_spring_wire"] = soft_with_wire;
  d["carbon_bow_rule_of_thumb"] = bow_rule;
  d["carbon_bow_beam_theory"] = bow_beam;
  d["trailing_link"] = trailing_link;
  d["tube_bending_axial_torsion"] = tube_stress;
  d["tube_leg_loads_and_strength"] = tube_leg;
  d["pin_shear_and_bearing"] = pin;
  d["bolt_group_eccentric"] = bolts;
  d["plywood_block_pull_off"] = block;
  d["tube_leg_geometry"] = tube_geometry;
  d["jig_bar_and_diagonals"] = jig;
  d["cope_template"] = cope;
  d["drop"] = drop_case;
  d["drop_ladder"] = ladder;
}

}  // namespace kranich::oracle
