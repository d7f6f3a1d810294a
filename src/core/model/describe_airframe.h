// SPDX-License-Identifier: GPL-3.0-or-later
//! The airframe, its masses and its weighing. Part of the one description of a Design: describe.h says how.
#pragma once

#include "core/model/airframe.h"
#include "core/model/describe_words.h"

namespace kranich {

template <class V, Of<Point> T>
void describe(V& v, T& p) {
  v.given("x_m", p.x, spec::place("Station"));
  v.given("y_m", p.y, spec::place("Side offset"));
  v.given("z_m", p.z, spec::place("Waterline"));
}

template <class V, Of<Section> T>
void describe(V& v, T& s) {
  v.given("x_m", s.x, spec::place("Station"));
  v.given("top_m", s.top, spec::place("Top waterline"));
  v.given("bottom_m", s.bottom, spec::place("Bottom waterline"));
  v.given("half_width_m", s.half_width, spec::not_negative("Half width", Kind::length, 20));
  v.flag("corner", s.corner, "Corner");
}

template <class V, Of<Body> T>
void describe(V& v, T& b) {
  v.text("name", b.name, "Name");
  v.given("y_m", b.y, spec::place("Side offset"));
  v.list("sections", b.sections, "Cross-sections, front to back", 60);
}

template <class V, Of<Surface> T>
void describe(V& v, T& s) {
  v.given("root_leading_edge_x_m", s.root_leading_edge_x, spec::place("Root leading edge station"));
  v.given("root_z_m", s.root_z, spec::place("Root waterline"));
  v.given("span_m", s.span, spec::size("Span", 80));
  v.given("root_chord_m", s.root_chord, spec::size("Root chord", 20));
  v.given("tip_chord_m", s.tip_chord, spec::size("Tip chord", 20));
  v.given("leading_edge_sweep_deg", s.sweep, spec::angle("Leading edge sweep", -60, 75));
  v.given("dihedral_deg", s.dihedral, spec::angle("Dihedral", -45, 45));
  v.given("incidence_deg", s.incidence, spec::angle("Incidence to the level reference", -20, 20));
  v.given("break_span_m", s.break_span, spec::size("Span of the inner panels", 80));
  v.given("break_chord_m", s.break_chord, spec::size("Chord where the outer panel starts", 20));
  v.given("outer_sweep_deg", s.outer_sweep, spec::angle("Leading edge sweep, outer panel", -60, 75));
}

template <class V, Of<Propeller> T>
void describe(V& v, T& p) {
  v.text("name", p.name, "Name");
  v.object("hub", p.hub, "Hub");
  v.given("diameter_m", p.diameter, spec::size("Diameter", 10));
  v.given("axis_tilt_nose_down_deg", p.tilt, spec::angle("Axis tilt, nose down", -30, 30));
}

template <class V, Of<LowPoint> T>
void describe(V& v, T& p) {
  v.text("name", p.name, "Name");
  v.choice("role", p.role, Names(role_names), "Where it is");
  v.object("at", p.at, "Place");
}

template <class V, Of<OutlinePoint> T>
void describe(V& v, T& p) {
  v.given("x_m", p.x, spec::place("Station"));
  v.given("z_m", p.z, spec::place("Waterline"));
  v.flag("corner", p.corner, "Corner");
}

template <class V, Of<Aerodynamics> T>
void describe(V& v, T& a) {
  const auto coefficient = [](std::string_view title, double least, double most) {
    return spec::between(title, Kind::factor, least, most);
  };
  v.given("greatest_lift_coefficient", a.greatest_lift, coefficient("Greatest lift coefficient", 0.3, 5));
  v.given("ground_lift_coefficient", a.ground_lift, coefficient("Lift coefficient on the ground", -1, 4));
  v.given("lift_slope_per_rad", a.lift_slope,
          spec::between("Lift slope C_Lα, whole aircraft", Kind::factor, 1, 7));
  v.given("zero_lift_angle_deg", a.zero_lift_angle, spec::angle("Wing angle without lift", -15, 5));
  v.given("drag_coefficient", a.drag, coefficient("Drag coefficient on the ground", 0, 2));
  v.given("drag_z_m", a.drag_z, spec::place("Waterline of the drag"));
  v.given("moment_coefficient", a.moment, coefficient("Wing moment, nose-up positive", -1, 1));
  v.given("aerodynamic_centre_x_m", a.centre_x, spec::place("Aerodynamic centre, station"));
  v.given("tail_down_lift_coefficient", a.tail_down_lift, coefficient("Tail's down-lift coefficient", 0, 3));
  v.given("slipstream_factor", a.slipstream, coefficient("Slipstream over the tail, factor", 0.2, 5));
  v.given("thrust_N", a.thrust, spec::not_negative("Thrust at rotation", Kind::force, 1e5));
  v.given("thrust_z_m", a.thrust_z, spec::place("Waterline of the thrust"));
  v.given("rolling_friction", a.friction, coefficient("Rolling friction", 0, 0.6));
  v.given("air_density_kg_per_m3", a.density, spec::between("Air density", Kind::density, 0.4, 1.6));
  v.given("side_area_m2", a.side_area, spec::positive("Side area", Kind::area, 500));
  v.given("side_z_m", a.side_z, spec::place("Waterline of the side area's centre"));
  v.given("side_force_coefficient", a.side_coefficient, coefficient("Side force coefficient", 0.1, 3));
  v.given("crosswind_wanted_m_per_s", a.crosswind_wanted, spec::positive("Worst side wind", Kind::speed, 60));
}

template <class V, Of<OutlineCorner> T>
void describe(V& v, T& c) {
  v.object("at", c.at, "Corner");
}

template <class V, Of<KeepOut> T>
void describe(V& v, T& k) {
  v.text("name", k.name, "Name");
  v.choice("shape", k.shape, Names(shape_names), "Shape");
  v.object("low", k.low, "Lower corner, one end, a point of the plane, or a mesh's origin");
  v.object("high", k.high, "Upper corner, the other end, or a point straight before the plane");
  v.given("radius_m", k.radius, spec::size("Radius of a cylinder", 10));
  v.choice("runs", k.runs, Names(runs_names), "A prism runs");
  v.list("outline", k.outline, "Corners of a prism's outline", 60);
  v.text("file", k.file, "Mesh file (STL or OBJ)");
  v.choice("unit", k.unit, Names(mesh_unit_names), "Its numbers are");
  v.choice("axes", k.axes, Names(mesh_axes_names), "Its axes point");
}

template <class V, Of<Reference> T>
void describe(V& v, T& r) {
  v.text("name", r.name, "Name");
  v.given("x_m", r.x, spec::place("Station"));
  v.flag("former", r.former, "A former that can hold a leg");
}

template <class V, Of<Access> T>
void describe(V& v, T& a) {
  v.text("name", a.name, "What goes in and out");
  v.object("low", a.low, "Its least corner");
  v.object("high", a.high, "Its greatest corner");
  v.given("way_x_m", a.way_x, spec::place("Goes aft by"));
  v.given("way_y_m", a.way_y, spec::place("Goes to starboard by"));
  v.given("way_z_m", a.way_z, spec::place("Goes up by"));
  v.given("clearance_m", a.clearance, spec::not_negative("Room wanted round it", Kind::length, 0.5));
}

template <class V, Of<Airframe> T>
void describe(V& v, T& a) {
  v.text("level_reference", a.level_reference, "Level reference");
  v.list("bodies", a.bodies, "Fuselage and nacelles", 12);
  v.object("wing", a.wing, "Wing");
  v.object("tailplane", a.tailplane, "Tailplane");
  v.list("fin_outline", a.fin, "Fin and rudder outline", 40);
  v.list("canopy_outline", a.canopy, "Canopy outline", 40);
  v.list("propellers", a.propellers, "Propellers", 8);
  v.list("low_points", a.low_points, "Points that may touch the ground", 40);
  v.list("references", a.references, "Edges and formers that places are told by", 60);
  v.given("cg_forward_limit_m", a.cg_forward_limit, spec::place("Foremost CG allowed"));
  v.given("cg_aft_limit_m", a.cg_aft_limit, spec::place("Aftmost CG allowed"));
  v.given("mass_limit_kg", a.mass_limit, spec::mass("Greatest mass allowed"));
  v.given("target_empty_mass_kg", a.target_empty_mass, spec::mass("Empty mass it was designed to"));
  v.list("keep_outs", a.keep_outs, "What the gear must not run into", 60);
  v.list("accesses", a.accesses, "What must go in and out", 20);
  v.given("body_twist_deg", a.body_twist,
          spec::angle("Body twisted at the gear, starboard side up", -10, 10));
  v.object("aerodynamics", a.aerodynamics, "Ground run and side wind");
  v.given("lift_off_wing_angle_deg", a.lift_off_wing_angle, spec::angle("Wing angle at lift-off", 0, 30));
  v.given("stall_wing_angle_deg", a.stall_wing_angle, spec::angle("Wing angle at the stall", 5, 30));
}

template <class V, Of<Item> T>
void describe(V& v, T& i) {
  v.text("name", i.name, "Item");
  v.choice("group", i.group, Names(group_names), "Group");
  v.given("mass_kg", i.mass, spec::mass("Mass"));
  v.object("at", i.at, "Place");
  v.flag("weighed", i.weighed, "Weighed");
  v.text("moves", i.moves, "Moves with the gear");
  v.flag("slides", i.slides, "Slides fore and aft to trim");
  v.given("slides_from_m", i.slides_from, spec::place("Foremost station of its slide"));
  v.given("slides_to_m", i.slides_to, spec::place("Aftmost station of its slide"));
}

template <class V, Of<Aboard> T>
void describe(V& v, T& a) {
  v.text("item", a.item, "Item");
  v.given("mass_kg", a.mass, spec::mass("Mass aboard"));
  v.given("x_m", a.x, spec::place("Station aboard"));
}

template <class V, Of<Loading> T>
void describe(V& v, T& l) {
  v.text("name", l.name, "Loading");
  v.flag("flown", l.flown, "Flown like this");
  v.list("aboard", l.aboard, "Aboard", 200);
}

namespace spec {
inline Spec reading(std::string_view title) { return not_negative(title, Kind::mass, 20000); }
}  // namespace spec

template <class V, Of<ScaleReading> T>
void describe(V& v, T& s) {
  v.text("name", s.name, "Scale");
  v.text("leg", s.leg, "Stands on it");
  v.given("reading_kg", s.reading, spec::reading("Reads"));
  v.given("tare_kg", s.tare, spec::reading("Tare"));
  v.given("x_m", s.x, spec::place("Contact stood at station"));
  v.given("y_m", s.y, spec::place("Contact stood to starboard by"));
}

template <class V, Of<Weighing> T>
void describe(V& v, T& w) {
  v.text("build_state", w.build_state, "Build state when weighed");
  v.text("loading", w.loading, "Loading it compares with");
  v.list("scales", w.scales, "Scales", 24);
  v.given("tilted_third_kg", w.tilted_third, spec::reading("Nose, tail or front scales, tilted"));
  v.given("tilt_pitch_deg", w.tilt_pitch, spec::angle("Pitch when tilted", -45, 45));
  v.given("third_above_main_m", w.third_above_main,
          spec::place("Nose or tail axle above the main axle, level"));
  v.given("main_axle_z_m", w.main_axle_z, spec::place("Main axle's waterline when weighed"));
  v.given("main_axle_height_m", w.main_axle_height, spec::size("Main axle above the ground, level", 5));
  v.given("reading_error_kg", w.reading_error,
          spec::not_negative("Standard error of a reading", Kind::mass, 500));
  v.given("pitch_error_deg", w.pitch_error, spec::angle("Standard error of the tilt", 0, 10));
}

}  // namespace kranich
