// SPDX-License-Identifier: GPL-3.0-or-later
//! The one description of a Design: for each member its key in the file, its title on the screen, its kind of
//! quantity and what is allowed. Reader, writer, schema, docs/file-format.md, entries and cures are all
//! visitors of it, so that they cannot drift apart.
//!
//! A visitor has these members:
//!   given(key, Given&, Spec)              a quantity; the key ends in its unit
//!   text(key, std::string&, title)        a line of text
//!   flag(key, bool&, title)
//!   choice(key, E&, names, title)         one of a few words; names[i] stands for E(i)
//!   object(key, T&, title)                a nested structure, itself described below
//!   list(key, std::vector<T>&, title, most)
//!   project(key, std::string&, title)     the text of another project of this same description
#pragma once

#include <array>
#include <limits>
#include <span>
#include <string_view>

#include "core/model/design.h"

namespace kranich {

struct Spec {
  std::string_view title;
  Kind kind = Kind::length;
  double least = -std::numeric_limits<double>::infinity();  //!< SI (angles in rad)
  double most = std::numeric_limits<double>::infinity();
  bool above_least = false;  //!< least itself is not allowed
};

using Names = std::span<const std::string_view>;

inline constexpr std::array<std::string_view, 2> build_names{"full-size", "model"};
inline constexpr std::array<std::string_view, 3> lift_names{"wing", "rotor", "vertical take-off"};
inline constexpr std::array<std::string_view, 5> use_names{"touring", "training", "aerobatics", "racing",
                                                           "display"};
inline constexpr std::array<std::string_view, 4> build_state_names{"bare shell", "engine out", "engine in",
                                                                   "ready to fly"};
inline constexpr std::array<std::string_view, 3> path_names{"straight", "hinged fore and aft",
                                                            "hinged athwartships"};
inline constexpr std::array<std::string_view, 3> tyre_names{"pneumatic", "foam", "solid"};
inline constexpr std::array<std::string_view, 2> shape_names{"box", "cylinder"};
inline constexpr std::array<std::string_view, 5> field_names{"tarmac", "turf", "rough strip", "sand",
                                                             "indoor"};
inline constexpr std::array<std::string_view, 2> arrangement_names{"tricycle", "tailwheel"};
inline constexpr std::array<std::string_view, 5> group_names{"airframe", "gear", "power", "equipment",
                                                             "load"};
inline constexpr std::array<std::string_view, 3> moves_names{"no", "with mains", "with third leg"};
inline constexpr std::array<std::string_view, 5> spring_names{"linear", "coil", "gas", "leaf", "cord"};
inline constexpr std::array<std::string_view, 4> coil_end_names{"plain", "plain and ground",
                                                                "squared, not ground", "squared and ground"};
inline constexpr std::array<std::string_view, 3> school_names{"rule", "drop ladder", "similarity"};
inline constexpr std::array<std::string_view, 4> direction_names{"inward", "outward", "aft", "forward"};
inline constexpr std::array<std::string_view, 4> role_names{"tail", "belly", "wing tip", "other"};
inline constexpr std::array<std::string_view, 2> leg_names{"main", "third"};
inline constexpr std::array<std::string_view, 4> action_names{"open", "close", "raise", "lower"};
inline constexpr std::array<std::string_view, 2> unit_names{"metric", "inch"};
inline constexpr std::array<std::string_view, 6> origin_names{"missing",   "default",  "plan",
                                                              "estimated", "measured", "undecided"};

namespace spec {
inline Spec length(std::string_view title, double least, double most, bool above = false) {
  return {title, Kind::length, least, most, above};
}
inline Spec place(std::string_view title) { return {title, Kind::length, -60, 60}; }
inline Spec size(std::string_view title, double most = 60) { return {title, Kind::length, 0, most, true}; }
inline Spec mass(std::string_view title) { return {title, Kind::mass, 0, 20000, true}; }
inline Spec angle(std::string_view title, double least_deg, double most_deg) {
  return {title, Kind::angle, radians(least_deg), radians(most_deg)};
}
inline Spec positive(std::string_view title, Kind kind, double most) { return {title, kind, 0, most, true}; }
inline Spec not_negative(std::string_view title, Kind kind, double most) { return {title, kind, 0, most}; }
inline Spec between(std::string_view title, Kind kind, double least, double most) {
  return {title, kind, least, most};
}
}  // namespace spec

template <class V>
void describe(V& v, About& a) {
  v.text("name", a.name, "Name");
  v.text("summary", a.summary, "What it is");
  v.text("owner", a.owner, "Owner");
  v.text("revision", a.revision, "Revision");
  v.text("notes", a.notes, "Notes");
}

template <class V>
void describe(V& v, Purpose& p) {
  v.choice("build", p.build, Names(build_names), "Full size or model");
  v.given("scale_denominator", p.scale_denominator, spec::between("Scale, one to", Kind::factor, 1, 100));
  v.given("prototype_wheel_diameter_m", p.prototype_wheel_diameter,
          spec::size("Full-size main wheel diameter", 5));
  v.given("prototype_main_x_m", p.prototype_main_x, spec::place("Full-size main axle station"));
  v.given("prototype_track_m", p.prototype_track, spec::size("Full-size track", 30));
  v.given("obstacle_m", p.obstacle, spec::not_negative("Tallest bump or grass", Kind::length, 2));
  v.choice("lift", p.lift, Names(lift_names), "Flies on");
  v.choice("field", p.field, Names(field_names), "Flown from");
  v.choice("use", p.use, Names(use_names), "Flown for");
  v.choice("build_state", p.build_state, Names(build_state_names), "Build state now");
}

template <class V>
void describe(V& v, Point& p) {
  v.given("x_m", p.x, spec::place("Station"));
  v.given("y_m", p.y, spec::place("Side offset"));
  v.given("z_m", p.z, spec::place("Waterline"));
}

template <class V>
void describe(V& v, Section& s) {
  v.given("x_m", s.x, spec::place("Station"));
  v.given("top_m", s.top, spec::place("Top waterline"));
  v.given("bottom_m", s.bottom, spec::place("Bottom waterline"));
  v.given("half_width_m", s.half_width, spec::not_negative("Half width", Kind::length, 20));
}

template <class V>
void describe(V& v, Body& b) {
  v.text("name", b.name, "Name");
  v.given("y_m", b.y, spec::place("Side offset"));
  v.list("sections", b.sections, "Cross-sections, front to back", 60);
}

template <class V>
void describe(V& v, Surface& s) {
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

template <class V>
void describe(V& v, Propeller& p) {
  v.text("name", p.name, "Name");
  v.object("hub", p.hub, "Hub");
  v.given("diameter_m", p.diameter, spec::size("Diameter", 10));
  v.given("axis_tilt_nose_down_deg", p.tilt, spec::angle("Axis tilt, nose down", -30, 30));
}

template <class V>
void describe(V& v, LowPoint& p) {
  v.text("name", p.name, "Name");
  v.choice("role", p.role, Names(role_names), "Where it is");
  v.object("at", p.at, "Place");
}

template <class V>
void describe(V& v, OutlinePoint& p) {
  v.given("x_m", p.x, spec::place("Station"));
  v.given("z_m", p.z, spec::place("Waterline"));
}

template <class V>
void describe(V& v, Aerodynamics& a) {
  const auto coefficient = [](std::string_view title, double least, double most) {
    return spec::between(title, Kind::factor, least, most);
  };
  v.given("greatest_lift_coefficient", a.greatest_lift, coefficient("Greatest lift coefficient", 0.3, 5));
  v.given("ground_lift_coefficient", a.ground_lift, coefficient("Lift coefficient on the ground", -1, 4));
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

template <class V>
void describe(V& v, KeepOut& k) {
  v.text("name", k.name, "Name");
  v.choice("shape", k.shape, Names(shape_names), "Shape");
  v.object("low", k.low, "Lower corner, or one end of the centre line");
  v.object("high", k.high, "Upper corner, or the other end");
  v.given("radius_m", k.radius, spec::size("Radius of a cylinder", 10));
}

template <class V>
void describe(V& v, Airframe& a) {
  v.text("level_reference", a.level_reference, "Level reference");
  v.list("bodies", a.bodies, "Fuselage and nacelles", 12);
  v.object("wing", a.wing, "Wing");
  v.object("tailplane", a.tailplane, "Tailplane");
  v.list("fin_outline", a.fin, "Fin and rudder outline", 40);
  v.list("canopy_outline", a.canopy, "Canopy outline", 40);
  v.list("propellers", a.propellers, "Propellers", 8);
  v.list("low_points", a.low_points, "Points that may touch the ground", 40);
  v.given("cg_forward_limit_m", a.cg_forward_limit, spec::place("Foremost CG allowed"));
  v.given("cg_aft_limit_m", a.cg_aft_limit, spec::place("Aftmost CG allowed"));
  v.given("mass_limit_kg", a.mass_limit, spec::mass("Greatest mass allowed"));
  v.given("target_empty_mass_kg", a.target_empty_mass, spec::mass("Empty mass it was designed to"));
  v.list("keep_outs", a.keep_outs, "What the gear must not run into", 60);
  v.object("aerodynamics", a.aerodynamics, "Ground run and side wind");
  v.given("lift_off_wing_angle_deg", a.lift_off_wing_angle, spec::angle("Wing angle at lift-off", 0, 30));
  v.given("stall_wing_angle_deg", a.stall_wing_angle, spec::angle("Wing angle at the stall", 5, 30));
}

template <class V>
void describe(V& v, Item& i) {
  v.text("name", i.name, "Item");
  v.choice("group", i.group, Names(group_names), "Group");
  v.given("mass_kg", i.mass, spec::mass("Mass"));
  v.object("at", i.at, "Place");
  v.flag("weighed", i.weighed, "Weighed");
  v.choice("moves", i.moves, Names(moves_names), "Moves with the gear");
  v.flag("slides", i.slides, "Slides fore and aft to trim");
  v.given("slides_from_m", i.slides_from, spec::place("Foremost station of its slide"));
  v.given("slides_to_m", i.slides_to, spec::place("Aftmost station of its slide"));
}

template <class V>
void describe(V& v, Aboard& a) {
  v.text("item", a.item, "Item");
  v.given("mass_kg", a.mass, spec::mass("Mass aboard"));
  v.given("x_m", a.x, spec::place("Station aboard"));
}

template <class V>
void describe(V& v, Loading& l) {
  v.text("name", l.name, "Loading");
  v.flag("flown", l.flown, "Flown like this");
  v.list("aboard", l.aboard, "Aboard", 200);
}

template <class V>
void describe(V& v, Weighing& w) {
  const auto reading = [](std::string_view title) { return spec::not_negative(title, Kind::mass, 20000); };
  v.text("build_state", w.build_state, "Build state when weighed");
  v.text("loading", w.loading, "Loading it compares with");
  v.given("third_kg", w.third, reading("Nose or tail wheel"));
  v.given("third_tare_kg", w.third_tare, reading("Tare, nose or tail"));
  v.given("port_kg", w.port, reading("Port main wheel"));
  v.given("port_tare_kg", w.port_tare, reading("Tare, port"));
  v.given("starboard_kg", w.starboard, reading("Starboard main wheel"));
  v.given("starboard_tare_kg", w.starboard_tare, reading("Tare, starboard"));
  v.given("third_x_m", w.third_x, spec::place("Nose or tail contact stood at station"));
  v.given("main_x_m", w.main_x, spec::place("Main contacts stood at station"));
  v.given("half_track_m", w.half_track, spec::size("Half the track when weighed", 20));
  v.given("tilted_third_kg", w.tilted_third, reading("Nose or tail wheel, tilted"));
  v.given("tilt_pitch_deg", w.tilt_pitch, spec::angle("Pitch when tilted", -45, 45));
  v.given("third_above_main_m", w.third_above_main,
          spec::place("Nose or tail axle above the main axle, level"));
  v.given("main_axle_z_m", w.main_axle_z, spec::place("Main axle's waterline when weighed"));
  v.given("main_axle_height_m", w.main_axle_height, spec::size("Main axle above the ground, level", 5));
  v.given("reading_error_kg", w.reading_error,
          spec::not_negative("Standard error of a reading", Kind::mass, 500));
  v.given("pitch_error_deg", w.pitch_error, spec::angle("Standard error of the tilt", 0, 10));
}

template <class V>
void describe(V& v, Wheel& w) {
  v.text("shelf_name", w.shelf_name, "Wheel");
  v.choice("tyre", w.tyre, Names(tyre_names), "Tyre");
  v.given("diameter_m", w.diameter, spec::size("Wheel diameter", 3));
  v.given("width_m", w.width, spec::size("Wheel width", 1));
  v.given("shoulder_radius_m", w.shoulder_radius,
          spec::not_negative("Tyre shoulder radius", Kind::length, 0.5));
  v.given("tyre_rate_N_per_m", w.tyre_rate, spec::positive("Tyre rate", Kind::stiffness, 1e9));
  v.given("pressure_Pa", w.pressure, spec::positive("Tyre pressure, gauge", Kind::pressure, 3e6));
  v.given("flat_radius_m", w.flat_radius, spec::size("Axle height on a flat tyre", 1.5));
  v.given("fork_gap_m", w.fork_gap, spec::not_negative("Tyre to fork and leg", Kind::length, 1));
}

template <class V>
void describe(V& v, Coil& c) {
  v.text("shelf_name", c.shelf_name, "Spring");
  v.given("wire_diameter_m", c.wire_diameter, spec::size("Wire diameter", 0.1));
  v.given("mean_diameter_m", c.mean_diameter, spec::size("Mean coil diameter", 1));
  v.given("active_turns", c.active_turns, spec::between("Active turns", Kind::factor, 0.5, 100));
  v.given("total_turns", c.total_turns, spec::between("Total turns", Kind::factor, 0.5, 110));
  v.given("free_length_m", c.free_length, spec::size("Free length", 3));
  v.given("installed_length_m", c.installed_length, spec::size("Installed length, leg extended", 3));
  v.choice("ends", c.ends, Names(coil_end_names), "Ends");
  v.text("wire", c.wire, "Wire");
  v.given("count", c.count, spec::between("Springs side by side", Kind::factor, 1, 12));
  v.given("motion_ratio", c.motion_ratio, spec::positive("Spring closure over axle rise", Kind::factor, 5));
}

template <class V>
void describe(V& v, Gas& g) {
  v.given("piston_area_m2", g.piston_area, spec::positive("Piston area", Kind::section_area, 0.2));
  v.given("volume_m3", g.volume, spec::positive("Gas volume, extended", Kind::volume, 0.1));
  v.given("pressure_absolute_Pa", g.pressure, spec::positive("Charge, absolute", Kind::pressure, 1e8));
  v.given("exponent", g.exponent, spec::between("Polytropic exponent", Kind::factor, 1, 1.7));
  v.given("ambient_Pa", g.ambient, spec::between("Air pressure", Kind::pressure, 3e4, 1.2e5));
}

template <class V>
void describe(V& v, Leaf& l) {
  v.given("torsion_rate_N_m_per_rad", l.torsion_rate,
          spec::positive("Torsion rate at the hinge", Kind::torsion_rate, 1e8));
}

template <class V>
void describe(V& v, CordPoint& p) {
  v.given("stretch", p.stretch, spec::between("Stretch", Kind::share, 0, 3));
  v.given("load_N", p.load, spec::not_negative("Load of a strand", Kind::force, 1e5));
}

template <class V>
void describe(V& v, Cord& c) {
  v.text("shelf_name", c.shelf_name, "Cord");
  v.given("strands", c.strands, spec::between("Strands", Kind::factor, 1, 200));
  v.given("free_length_m", c.free_length, spec::size("Free length of a strand", 5));
  v.list("curve", c.curve, "Load over stretch of one strand", 40);
}

template <class V>
void describe(V& v, Spring& s) {
  v.choice("kind", s.kind, Names(spring_names), "Kind of spring");
  v.given("rate_N_per_m", s.rate, spec::positive("Wheel rate", Kind::stiffness, 1e9));
  v.given("preload_N", s.preload, spec::not_negative("Preload at the wheel", Kind::force, 1e6));
  v.object("coil", s.coil, "Coil");
  v.object("gas", s.gas, "Gas");
  v.object("leaf", s.leaf, "Leaf");
  v.object("cord", s.cord, "Cord");
  v.object("anchor_airframe", s.anchor_airframe, "Spring's anchor on the airframe");
  v.object("anchor_leg", s.anchor_leg, "Spring's anchor on the leg, extended");
  v.given("damping_closing_N_s_per_m", s.damping_closing,
          spec::not_negative("Damping, closing", Kind::damping, 1e6));
  v.given("damping_extending_N_s_per_m", s.damping_extending,
          spec::not_negative("Damping, extending", Kind::damping, 1e6));
  v.given("oil_area_m2", s.oil_area, spec::positive("Oil piston area", Kind::section_area, 0.2));
  v.given("orifice_closing_m2", s.orifice_closing,
          spec::positive("Orifice, closing", Kind::section_area, 0.1));
  v.given("orifice_extending_m2", s.orifice_extending,
          spec::positive("Orifice, extending", Kind::section_area, 0.1));
  v.given("friction_N", s.friction, spec::not_negative("Friction", Kind::force, 1e5));
  v.given("efficiency", s.efficiency, spec::between("Strut efficiency", Kind::factor, 0.2, 1));
}

template <class V>
void describe(V& v, Well& w) {
  v.text("name", w.name, "Name");
  v.object("low", w.low, "Lower corner, least x, y, z");
  v.object("high", w.high, "Upper corner, greatest x, y, z");
  v.given("clearance_m", w.clearance, spec::not_negative("Clearance wanted", Kind::length, 0.5));
}

template <class V>
void describe(V& v, Retraction& r) {
  v.flag("fitted", r.fitted, "Retracts");
  v.choice("direction", r.direction, Names(direction_names), "Swings");
  v.object("pivot", r.pivot, "Pivot");
  v.object("unit_low", r.unit_low, "Unit's body, least corner from the pivot");
  v.object("unit_high", r.unit_high, "Unit's body, greatest corner from the pivot");
  v.given("unit_angle_deg", r.unit_angle, spec::angle("Unit angle", 10, 180));
  v.given("mount_tilt_deg", r.mount_tilt, spec::angle("Mount tilt", -60, 60));
  v.given("tyre_growth_m", r.growth, spec::not_negative("Tyre growth", Kind::length, 0.1));
  v.given("side_play_m", r.side_play, spec::not_negative("Side play", Kind::length, 0.1));
  v.given("time_up_s", r.time_up, spec::positive("Time up", Kind::time, 600));
  v.given("time_down_s", r.time_down, spec::positive("Time down", Kind::time, 600));
  v.given("slowest_factor", r.slowest, spec::between("Slowest, times the time", Kind::factor, 1, 10));
  v.given("fastest_factor", r.fastest, spec::between("Fastest, times the time", Kind::factor, 0.1, 1));
  v.object("well", r.well, "Well");
}

template <class V>
void describe(V& v, Tube& t) {
  v.text("name", t.name, "Tube");
  v.object("top", t.top, "Attach point on the airframe");
  v.object("foot", t.foot, "End at the axle");
  v.given("diameter_m", t.diameter, spec::size("Outer diameter", 1));
  v.given("wall_m", t.wall, spec::size("Wall", 0.1));
  v.text("material", t.material, "Material");
}

template <class V>
void describe(V& v, Leg& l) {
  v.object("top", l.top, "Upper end");
  v.object("axle", l.axle, "Axle, extended");
  v.choice("path", l.path, Names(path_names), "The axle moves");
  v.object("hinge", l.hinge, "Hinge");
  v.given("camber_deg", l.camber, spec::angle("Camber, extended", -30, 30));
  v.given("toe_in_deg", l.toe, spec::angle("Toe-in, extended", -15, 15));
  v.given("wheel_offset_m", l.wheel_offset, spec::between("Wheel outboard of the leg", Kind::length, -2, 2));
  v.given("axle_beyond_wheel_m", l.axle_beyond_wheel,
          spec::not_negative("Axle tip outboard of the wheel's middle", Kind::length, 2));
  v.given("tube_diameter_m", l.tube_diameter, spec::size("Leg diameter", 1));
  v.list("tubes", l.tubes, "Tubes", 12);
  v.given("travel_m", l.travel, spec::not_negative("Travel to the stop", Kind::length, 2));
  v.given("unsprung_mass_kg", l.unsprung_mass, spec::mass("Unsprung mass: wheel, axle, lower leg"));
  v.object("spring", l.spring, "Spring");
  v.object("wheel", l.wheel, "Wheel");
  v.object("retraction", l.retraction, "Retraction");
}

template <class V>
void describe(V& v, Gear& g) {
  v.choice("arrangement", g.arrangement, Names(arrangement_names), "Arrangement");
  v.flag("wheel_brakes", g.brakes, "Wheel brakes");
  v.flag("tail_skid", g.skid, "Tail skid, no wheel");
  v.flag("unlinked", g.unlinked, "Port leg measured on its own");
  v.object("main", g.main, "Main leg, starboard");
  v.object("third", g.third, "Nose or tail leg");
  v.object("port", g.port, "Port leg when unlinked, written as if to starboard");
}

template <class V>
void describe(V& v, TableReading& r) {
  v.text("what", r.what, "What was read");
  v.text("loading", r.loading, "Loading");
  v.text("build_state", r.build_state, "Build state");
  v.given("starboard_m", r.starboard, spec::place("Read, starboard or centre"));
  v.given("port_m", r.port, spec::place("Read, port"));
  v.given("angle_deg", r.angle, spec::angle("Angle read", -90, 90));
}

template <class V>
void describe(V& v, Stance& s) {
  v.given("wing_angle_low_deg", s.target_low, spec::angle("Wing angle at rest, from", -30, 30));
  v.given("wing_angle_high_deg", s.target_high, spec::angle("Wing angle at rest, to", -30, 30));
  v.text("loading", s.target_loading, "At the loading");
  v.given("ballast_x_m", s.ballast_x, spec::place("Ballast hung at station"));
  v.list("readings", s.readings, "Read on the table", 400);
}

template <class V>
void describe(V& v, Landing& l) {
  v.choice("school", l.school, Names(school_names), "Design landing by");
  v.text("reason", l.reason, "Why this one");
  v.given("lift_ratio", l.lift_ratio, spec::between("Lift over weight at touchdown", Kind::factor, 0, 1));
  v.given("ground_load_factor", l.load_factor,
          spec::between("Ground load factor aimed at", Kind::factor, 1, 20));
  v.given("tyre_efficiency", l.tyre_efficiency, spec::between("Tyre efficiency", Kind::factor, 0.2, 1));
  v.given("ladder_height_m", l.ladder_height, spec::positive("Drop height chosen", Kind::length, 5));
  v.given("prototype_sink_speed_m_per_s", l.prototype_sink_speed,
          spec::positive("Prototype's sink speed", Kind::speed, 20));
}

template <class V>
void describe(V& v, Door& d) {
  v.text("name", d.name, "Door");
  v.choice("leg", d.leg, Names(leg_names), "Covers the leg");
  v.object("hinge_from", d.hinge_from, "Hinge, front end");
  v.object("hinge_to", d.hinge_to, "Hinge, rear end");
  v.given("width_m", d.width, spec::size("Width of the panel", 5));
  v.given("closed_towards", d.closed_towards,
          spec::between("Closed panel lies to starboard (1) or port (-1)", Kind::factor, -1, 1));
  v.given("open_angle_deg", d.open_angle, spec::angle("Opens by", 5, 180));
  v.given("time_open_s", d.time_open, spec::positive("Time to open", Kind::time, 600));
  v.given("time_close_s", d.time_close, spec::positive("Time to close", Kind::time, 600));
  v.given("slowest_factor", d.slowest, spec::between("Slowest, times the time", Kind::factor, 1, 10));
  v.given("fastest_factor", d.fastest, spec::between("Fastest, times the time", Kind::factor, 0.1, 1));
  v.given("frees_leg_at", d.frees_leg_at, spec::between("Leg may pass when open by", Kind::share, 0, 1));
  v.given("zone_enter", d.zone_enter, spec::between("Leg enters the door's zone at", Kind::share, 0, 1));
  v.given("zone_leave", d.zone_leave, spec::between("Leg leaves it at", Kind::share, 0, 1));
}

template <class V>
void describe(V& v, Step& s) {
  v.text("actor", s.actor, "Actor");
  v.choice("action", s.action, Names(action_names), "Does");
  v.given("start_s", s.start, spec::not_negative("Starts at", Kind::time, 3600));
}

template <class V>
void describe(V& v, Sequence& s) {
  v.list("up", s.up, "Going up", 60);
  v.list("down", s.down, "Going down", 60);
  v.given("margin_s", s.margin, spec::not_negative("Time wanted in hand", Kind::time, 60));
}

template <class V>
void describe(V& v, OwnLimit& l) {
  v.text("measure", l.measure, "Measure");
  v.text("reason", l.reason, "Reason");
  v.given("lower_si", l.lower, Spec{"Not below (SI)", Kind::factor, -1e12, 1e12});
  v.given("upper_si", l.upper, Spec{"Not above (SI)", Kind::factor, -1e12, 1e12});
}

template <class V>
void describe(V& v, Decision& d) {
  v.text("name", d.name, "Not decided yet");
  v.text("waits_for", d.waits_for, "Waits for");
  v.text("path", d.path, "The number it decides");
  v.given("spare_m", d.spare, spec::not_negative("To leave spare until then", Kind::length, 5));
}

template <class V>
void describe(V& v, Variant& x) {
  v.text("name", x.name, "Variant");
  v.text("note", x.note, "What is different");
  v.project("design", x.design, "The whole design of the variant");
}

template <class V>
void describe(V& v, Design& d) {
  v.object("about", d.about, "About");
  v.object("purpose", d.purpose, "Purpose");
  v.choice("units", d.units, Names(unit_names), "Units on screen");
  v.object("airframe", d.airframe, "Airframe");
  v.list("ledger", d.ledger, "Mass ledger", 2000);
  v.list("loadings", d.loadings, "Loadings", 60);
  v.object("weighing", d.weighing, "Weighing");
  v.object("gear", d.gear, "Gear");
  v.object("stance", d.stance, "Stance wanted");
  v.object("landing", d.landing, "Design landing");
  v.list("doors", d.doors, "Doors", 24);
  v.object("sequence", d.sequence, "Sequence");
  v.list("own_limits", d.own_limits, "Limits of your own", 200);
  v.list("decisions", d.decisions, "Not decided yet", 100);
  v.list("variants", d.variants, "Variants", 20);
}

}  // namespace kranich
