// SPDX-License-Identifier: GPL-3.0-or-later
//! The landing gear. Part of the one description of a Design: describe.h says how.
#pragma once

#include "core/model/describe_words.h"
#include "core/model/gear.h"

namespace kranich {

template <class V, Of<Wheel> T>
void describe(V& v, T& w) {
  v.text("shelf_name", w.shelf_name, "Wheel");
  v.choice("tyre", w.tyre, Names(tyre_names), "Tyre");
  v.given("diameter_m", w.diameter, spec::size("Wheel diameter", 3));
  v.given("width_m", w.width, spec::size("Wheel width", 1));
  v.given("shoulder_radius_m", w.shoulder_radius,
          spec::not_negative("Tyre shoulder radius", Kind::length, 0.5));
  v.given("tyre_rate_N_per_m", w.tyre_rate, spec::positive("Tyre rate", Kind::stiffness, 1e9));
  v.given("pressure_Pa", w.pressure, spec::positive("Tyre pressure, gauge", Kind::pressure, 3e6));
  v.given("greatest_pressure_Pa", w.greatest_pressure,
          spec::positive("Greatest pressure of the wheel", Kind::pressure, 3e6));
  v.given("flat_radius_m", w.flat_radius, spec::size("Axle height on a flat tyre", 1.5));
  v.given("fork_gap_m", w.fork_gap, spec::not_negative("Tyre to fork and leg", Kind::length, 1));
  v.given("fork_inside_m", w.fork_inside, spec::size("Fork inside, wide", 1));
  v.given("grows_wide_m", w.grows_wide, spec::not_negative("Tyre grows to each side by", Kind::length, 0.05));
  v.given("bulge_m", w.bulge,
          spec::not_negative("Tyre bulges under load to each side by", Kind::length, 0.1));
  v.given("rim_play_m", w.rim_play,
          spec::not_negative("Play of its bearings at the rim", Kind::length, 0.05));
  v.text("why", w.why, "Why this size");
}

template <class V, Of<Coil> T>
void describe(V& v, T& c) {
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

template <class V, Of<Gas> T>
void describe(V& v, T& g) {
  v.given("piston_area_m2", g.piston_area, spec::positive("Piston area", Kind::section_area, 0.2));
  v.given("volume_m3", g.volume, spec::positive("Gas volume, extended", Kind::volume, 0.1));
  v.given("pressure_absolute_Pa", g.pressure, spec::positive("Charge, absolute", Kind::pressure, 1e8));
  v.given("exponent", g.exponent, spec::between("Polytropic exponent", Kind::factor, 1, 1.7));
  v.given("ambient_Pa", g.ambient, spec::between("Air pressure", Kind::pressure, 3e4, 1.2e5));
}

template <class V, Of<Leaf> T>
void describe(V& v, T& l) {
  v.given("torsion_rate_N_m_per_rad", l.torsion_rate,
          spec::positive("Torsion rate at the hinge", Kind::torsion_rate, 1e8));
}

template <class V, Of<CordPoint> T>
void describe(V& v, T& p) {
  v.given("stretch", p.stretch, spec::between("Stretch", Kind::share, 0, 3));
  v.given("load_N", p.load, spec::not_negative("Load of a strand", Kind::force, 1e5));
}

template <class V, Of<Cord> T>
void describe(V& v, T& c) {
  v.text("shelf_name", c.shelf_name, "Cord");
  v.given("strands", c.strands, spec::between("Strands", Kind::factor, 1, 200));
  v.given("free_length_m", c.free_length, spec::size("Free length of a strand", 5));
  v.list("curve", c.curve, "Load over stretch of one strand", 40);
}

template <class V, Of<GasStrut> T>
void describe(V& v, T& g) {
  v.text("shelf_name", g.shelf_name, "Gas strut");
  v.given("extended_force_N", g.extended_force, spec::positive("Force extended", Kind::force, 1e5));
  v.given("progression", g.progression, spec::between("Force at full stroke over that", Kind::factor, 1, 20));
  v.given("full_stroke_m", g.full_stroke, spec::size("Full stroke", 2));
  v.given("count", g.count, spec::between("Struts side by side", Kind::factor, 1, 8));
}

template <class V, Of<Pucks> T>
void describe(V& v, T& p) {
  v.text("shelf_name", p.shelf_name, "Pucks");
  v.given("count", p.count, spec::between("Discs in the stack", Kind::factor, 1, 60));
  v.given("outer_diameter_m", p.outer_diameter, spec::size("Outer diameter", 0.5));
  v.given("hole_diameter_m", p.hole_diameter, spec::not_negative("Hole", Kind::length, 0.4));
  v.given("thickness_m", p.thickness, spec::size("Thickness of a disc", 0.2));
  v.given("shear_modulus_Pa", p.shear_modulus,
          spec::positive("Shear modulus of the rubber", Kind::stress, 5e7));
  v.given("hardness_factor", p.hardness_factor,
          spec::between("Factor of hardness (0.9 soft, 0.6 hard)", Kind::factor, 0.4, 1));
  v.given("assembled_length_m", p.assembled_length, spec::size("All the rubber together, assembled", 3));
}

template <class V, Of<BentPoint> T>
void describe(V& v, T& p) {
  v.object("at", p.at, "Place");
  v.given("width_m", p.width, spec::size("Width, fore and aft", 1));
  v.given("thickness_m", p.thickness, spec::size("Thickness", 0.3));
}

template <class V, Of<WireLoop> T>
void describe(V& v, T& l) {
  v.given("along_m", l.along, spec::not_negative("From the clamp along the leg", Kind::length, 5));
  v.given("mean_diameter_m", l.mean_diameter, spec::size("Mean diameter of the loop", 0.5));
  v.given("turns", l.turns, spec::between("Turns", Kind::factor, 0.25, 20));
  v.choice("axis", l.axis, Names(loop_axis_names), "Axis of the loop");
}

template <class V, Of<BentMount> T>
void describe(V& v, T& m) {
  v.flag("through", m.through, "One piece, its middle free to bend");
  v.given("rings", m.rings, spec::between("Rubber rings at each clamp", Kind::factor, 1, 40));
  v.given("ring_outer_m", m.ring_outer, spec::size("Ring, outer diameter", 0.5));
  v.given("ring_hole_m", m.ring_hole, spec::not_negative("Ring, hole", Kind::length, 0.4));
  v.given("ring_thickness_m", m.ring_thickness, spec::size("Ring, thickness free", 0.2));
  v.given("ring_pitch_m", m.ring_pitch, spec::size("Rings fore and aft, outermost apart by", 1));
  v.given("ring_modulus_Pa", m.ring_modulus, spec::positive("Shear modulus of the rings", Kind::stress, 5e7));
  v.given("slot_m", m.slot, spec::size("Height a ring is pressed into", 0.2));
  v.given("gap_above_m", m.gap_above, spec::not_negative("Free above the middle", Kind::length, 0.5));
  v.given("gap_below_m", m.gap_below, spec::not_negative("Free below the middle", Kind::length, 0.5));
}

template <class V, Of<CrossWire> T>
void describe(V& v, T& c) {
  v.given("diameter_m", c.diameter, spec::size("Wire across, diameter", 0.05));
  v.given("rise_m", c.rise, spec::size("Wire across, rise of its arch", 2));
  v.given("along_m", c.along, spec::size("Its post, from the clamp along the leg", 5));
}

template <class V, Of<BentLeg> T>
void describe(V& v, T& b) {
  v.text("shelf_name", b.shelf_name, "Stock it is made of");
  v.choice("form", b.form, Names(bent_names), "Made as");
  v.list("line", b.line, "Centre line, from the clamp to the axle", 60);
  v.given("wire_diameter_m", b.wire_diameter, spec::size("Wire diameter", 0.05));
  v.list("loops", b.loops, "Coil loops in the wire", 8);
  v.text("material", b.material, "Material");
  v.given("plies", b.plies, spec::between("Plies", Kind::factor, 1, 400));
  v.given("ply_areal_weight_kg_per_m2", b.ply_areal_weight,
          spec::positive("Fibre of one ply", Kind::areal_weight, 5));
  v.given("fibre_fraction", b.fibre_fraction, spec::between("Fibre by volume", Kind::share, 0.2, 0.75));
  v.given("cross_wire_rate_N_per_m", b.cross_wire_rate,
          spec::positive("Rate of a spring-wire strut across", Kind::stiffness, 1e7));
  v.object("cross_wire", b.cross_wire, "Spring wire across");
  v.choice("section", b.section, Names(bent_section_names), "Section of leaf or bow");
  v.object("mount", b.mount, "How its middle is held");
  v.given("measured_rate_N_per_m", b.measured_rate,
          spec::positive("Vertical rate as measured", Kind::stiffness, 1e8));
  v.given("mount_bore_m", b.mount_bore, spec::size("Hole that takes the wire", 0.06));
}

template <class V, Of<MeteredPoint> T>
void describe(V& v, T& p) {
  v.given("stroke_m", p.stroke, spec::not_negative("At a stroke of", Kind::length, 2));
  v.given("orifice_m2", p.orifice, spec::positive("Orifice", Kind::section_area, 0.1));
}

template <class V, Of<Telescope> T>
void describe(V& v, T& t) {
  v.given("outer_diameter_m", t.outer_diameter, spec::size("Outer tube, outside", 0.5));
  v.given("outer_wall_m", t.outer_wall, spec::size("Outer tube, wall", 0.1));
  v.given("outer_length_m", t.outer_length, spec::size("Outer tube, length", 5));
  v.given("inner_diameter_m", t.inner_diameter, spec::size("Inner tube, outside", 0.5));
  v.given("inner_wall_m", t.inner_wall, spec::size("Inner tube, wall", 0.1));
  v.given("inner_length_m", t.inner_length, spec::size("Inner tube, length", 5));
  v.given("plugged_m", t.plugged, spec::not_negative("Inner tube, solid at its lower end", Kind::length, 2));
  v.given("thread_m", t.thread, spec::size("Thread at the lower end", 0.1));
  v.given("thread_depth_m", t.thread_depth, spec::size("Depth of that thread", 0.5));
}

template <class V, Of<Spring> T>
void describe(V& v, T& s) {
  v.choice("kind", s.kind, Names(spring_names), "Kind of spring");
  v.given("rate_N_per_m", s.rate, spec::positive("Wheel rate", Kind::stiffness, 1e9));
  v.given("preload_N", s.preload, spec::not_negative("Preload at the wheel", Kind::force, 1e6));
  v.object("coil", s.coil, "Coil");
  v.choice("partner", s.partner, Names(partner_names), "A second coil");
  v.object("second", s.second, "Second coil");
  v.given("second_starts_after_m", s.second_starts_after,
          spec::not_negative("The one inside touches after", Kind::length, 1));
  v.object("gas", s.gas, "Gas");
  v.object("leaf", s.leaf, "Leaf");
  v.object("cord", s.cord, "Cord");
  v.object("gas_strut", s.gas_strut, "Gas strut");
  v.object("pucks", s.pucks, "Rubber pucks");
  v.object("bent", s.bent, "Leg that bends");
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
  v.list("metered", s.metered, "Orifice over the stroke, closing", 30);
  v.given("friction_N", s.friction, spec::not_negative("Friction", Kind::force, 1e5));
  v.given("efficiency", s.efficiency, spec::between("Strut efficiency", Kind::factor, 0.2, 1));
  v.object("telescope", s.telescope, "Tubes of a strut that is made");
}

template <class V, Of<Well> T>
void describe(V& v, T& w) {
  v.text("name", w.name, "Name");
  v.object("low", w.low, "Lower corner, least x, y, z");
  v.object("high", w.high, "Upper corner, greatest x, y, z");
  v.given("clearance_m", w.clearance, spec::not_negative("Clearance wanted", Kind::length, 0.5));
}

template <class V, Of<DownSpring> T>
void describe(V& v, T& s) {
  v.object("on_airframe", s.on_airframe, "Down-spring's end on the airframe");
  v.object("on_leg", s.on_leg, "Down-spring's end on the leg, down");
  v.given("extended_force_N", s.extended_force, spec::positive("Force extended", Kind::force, 1e5));
  v.given("progression", s.progression, spec::between("Force at full stroke over that", Kind::factor, 1, 20));
  v.given("full_stroke_m", s.full_stroke, spec::size("Full stroke", 2));
  v.given("extended_length_m", s.extended_length, spec::size("Length extended", 3));
}

template <class V, Of<Drive> T>
void describe(V& v, T& d) {
  v.choice("kind", d.kind, Names(drive_names), "Moved by");
  v.given("mass_kg", d.mass, spec::mass("Mass of all that swings"));
  v.given("inertia_kg_m2", d.inertia, spec::positive("Its inertia about the pivot", Kind::inertia, 1e5));
  v.object("cg", d.cg, "Its CG, down");
  v.given("load_factor", d.load_factor, spec::between("Load factor while it moves", Kind::factor, 0.5, 6));
  v.given("airspeed_m_per_s", d.airspeed, spec::not_negative("Moved up to an airspeed of", Kind::speed, 150));
  v.given("turning_area_m2", d.turning_area, spec::not_negative("Drag area that turns away", Kind::area, 20));
  v.given("constant_area_m2", d.constant_area, spec::not_negative("Drag area that stays", Kind::area, 20));
  v.object("air_centre", d.air_centre, "Where the air acts, down");
  v.given("friction_share", d.friction_share, spec::between("Friction, of the loads", Kind::share, 0, 1));
  v.given("friction_constant_N_m", d.friction_constant,
          spec::not_negative("Friction, constant", Kind::moment, 1e5));
  v.object("down_spring", d.down_spring, "Down-spring");
  v.object("on_airframe", d.on_airframe, "Actuator's end on the airframe");
  v.object("on_leg", d.on_leg, "Actuator's end on the leg, down");
  v.given("force_N", d.force, spec::positive("Actuator's rated force", Kind::force, 1e6));
  v.given("stroke_m", d.stroke, spec::size("Actuator's stroke", 3));
  v.given("speed_m_per_s", d.speed, spec::positive("Actuator's speed under load", Kind::speed, 5));
  v.given("bore_m", d.bore, spec::size("Cylinder's bore", 0.3));
  v.given("rod_m", d.rod, spec::size("Cylinder's rod", 0.2));
  v.given("supply_Pa", d.supply, spec::positive("Supply pressure", Kind::pressure, 5e7));
  v.given("back_Pa", d.back, spec::not_negative("Return pressure", Kind::pressure, 5e7));
  v.given("flow_m3_per_s", d.flow, spec::positive("Pump's flow", Kind::flow, 0.01));
  v.choice("air_acts", d.air_acts, Names(air_acts_names), "Air moves it");
  v.given("stall_torque_N_m", d.stall_torque, spec::positive("Stall torque", Kind::moment, 1e5));
  v.given("no_load_speed_rad_per_s", d.no_load_speed, spec::positive("No-load speed", Kind::turn_rate, 1e5));
  v.given("no_load_current_A", d.no_load_current, spec::not_negative("No-load current", Kind::current, 1e3));
  v.given("stall_current_A", d.stall_current, spec::positive("Stall current", Kind::current, 1e4));
  v.given("sector_radius_m", d.sector_radius, spec::size("Sector's pitch radius", 2));
  v.given("pinion_radius_m", d.pinion_radius, spec::size("Pinion's pitch radius", 1));
  v.given("gearbox", d.gearbox, spec::positive("Gearbox, to one", Kind::factor, 1e5));
  v.given("efficiency", d.efficiency, spec::between("Efficiency of it all", Kind::share, 0.01, 1));
  v.given("rotor_inertia_kg_m2", d.rotor_inertia, spec::positive("Rotor's inertia", Kind::inertia, 10));
  v.given("servo_x_m", d.servo_x,
          spec::between("Servo's axis ahead of the unit's pivot", Kind::length, -2, 2));
  v.given("servo_y_m", d.servo_y, spec::between("Servo's axis above it", Kind::length, -2, 2));
  v.given("unit_arm_m", d.unit_arm, spec::size("Unit's arm", 0.5));
  v.given("unit_down_deg", d.unit_down, spec::angle("Unit's arm when down, to ahead", -360, 360));
  v.given("unit_stowed_deg", d.unit_stowed, spec::angle("Unit's arm when stowed", -360, 360));
  v.choice("throws", d.throws, Names(throw_names), "Servo throws");
  v.given("over_centre_deg", d.over_centre, spec::angle("Over centre at each end", 0, 30));
  v.given("full_throw_deg", d.full_throw, spec::angle("Servo's turn to one side at 100 %", 10, 180));
  v.given("rod_stiffness_N_per_m", d.rod_stiffness,
          spec::positive("Stiffness of rod and mount", Kind::stiffness, 1e9));
  v.given("rod_diameter_m", d.rod_diameter, spec::size("Push rod's diameter", 0.05));
  v.given("rod_offset_m", d.rod_offset,
          spec::not_negative("Planes of servo and unit apart by", Kind::length, 0.3));
  v.given("ball_tilt_deg", d.ball_tilt, spec::angle("Tilt that its ball ends allow", 1, 90));
  v.given("wanted_time_s", d.wanted_time, spec::positive("Time wanted", Kind::time, 600));
  v.flag("falls_free", d.falls_free, "Must come down without power");
  v.given("fluid_N_m_s2", d.fluid,
          spec::not_negative("Fluid pushed out, at a rad a second", Kind::moment, 1e6));
}

template <class V, Of<DriveSold> T>
void describe(V& v, T& s) {
  v.text("name", s.name, "Drive");
  v.given("mass_kg", s.mass, spec::mass("Mass with its fittings"));
  v.given("price", s.price, spec::not_negative("Price", Kind::factor, 1e6));
  v.given("length_m", s.length, spec::size("Body, long", 3));
  v.given("width_m", s.width, spec::size("Body, wide", 2));
  v.given("height_m", s.height, spec::size("Body, high", 2));
  v.given("pin_m", s.pin, spec::size("Pins at its ends", 0.1));
  v.given("hours", s.hours, spec::not_negative("Hours to fit it", Kind::factor, 1e4));
  v.given("current_A", s.current, spec::positive("Current while it works", Kind::current, 1e3));
  v.choice("locks", s.locks, Names(locks_names), "Locks the leg by itself");
  v.choice("powerless", s.powerless, Names(powerless_names), "Without power the leg");
}

template <class V, Of<DriveOffer> T>
void describe(V& v, T& o) {
  v.object("sold", o.sold, "Drive that could be taken");
  v.object("drive", o.drive, "Its figures");
  v.text("rejected", o.rejected, "Not taken because");
}

template <class V, Of<Uplock> T>
void describe(V& v, T& u) {
  v.object("hook", u.hook, "Hook on the leg, stowed");
  v.given("holds_N", u.holds, spec::positive("Hook and bracket hold", Kind::force, 1e6));
  v.given("load_factor", u.load_factor, spec::between("Load factor, gear up", Kind::factor, 1, 12));
  v.given("door_force_N", u.door_force, spec::not_negative("Door hung on it", Kind::force, 1e5));
  v.flag("both_ends", u.both_ends, "The same hook holds the leg down");
  v.given("reach_m", u.reach, spec::size("Longest bracket for a pin on the leg", 0.5));
}

template <class V, Of<BraceLinks> T>
void describe(V& v, T& b) {
  v.given("at_airframe_m", b.at_airframe, spec::size("Brace's link at the airframe", 3));
  v.given("at_leg_m", b.at_leg, spec::size("Brace's link at the leg", 3));
  v.given("lock_spring_N_m", b.lock_spring, spec::not_negative("Lock spring at the knee", Kind::moment, 1e4));
}

template <class V, Of<LegBend> T>
void describe(V& v, T& b) {
  v.object("at", b.at, "Bend of the leg's line, down");
}

template <class V, Of<PulledIn> T>
void describe(V& v, T& p) {
  v.given("turn_deg", p.turn, spec::angle("At a turn of", 0.1, 180));
  v.given("stroke_m", p.stroke, spec::not_negative("Pulled in by", Kind::length, 2));
}

template <class V, Of<WantedStowed> T>
void describe(V& v, T& w) {
  v.object("centre", w.centre, "Stowed wheel's centre, as wanted");
  v.given("axle_up_deg", w.axle_up, spec::angle("Stowed axle's outer end up (flat: 90)", -90, 90));
  v.given("axle_ahead_deg", w.axle_ahead, spec::angle("Stowed axle's outer end ahead", -180, 180));
}

template <class V, Of<UnitHole> T>
void describe(V& v, T& h) {
  v.given("x_m", h.x, spec::between("Hole aft of the pivot", Kind::length, -1, 1));
  v.given("y_m", h.y, spec::between("Hole outboard of the pivot", Kind::length, -1, 1));
  v.given("z_m", h.z, spec::between("Hole above the pivot", Kind::length, -1, 1));
}

template <class V, Of<RetractUnit> T>
void describe(V& v, T& u) {
  v.text("shelf_name", u.shelf_name, "Retract unit");
  v.text("label", u.label, "Written on it");
  v.given("rated_mass_kg", u.rated_mass, spec::mass("Sold for aircraft of up to"));
  v.given("rated_moment_N_m", u.rated_moment, spec::positive("Moment its pin may carry", Kind::moment, 1e5));
  v.given("bore_m", u.bore, spec::size("Bore for the leg's pin", 0.2));
  v.given("leg_pin_m", u.leg_pin, spec::size("Leg's pin", 0.2));
  v.given("measured_turn_deg", u.measured_turn, spec::angle("Turn measured on it", 10, 180));
  v.flag("other_way", u.other_way, "Runs the other way on the same signal");
  v.given("flex_N_m_per_rad", u.flex,
          spec::positive("Gives under a moment, unit alone", Kind::torsion_rate, 1e7));
  v.list("holes", u.holes, "Mounting holes", 16);
}

template <class V, Of<Retraction> T>
void describe(V& v, T& r) {
  v.flag("fitted", r.fitted, "Retracts");
  v.choice("direction", r.direction, Names(direction_names), "Swings");
  v.object("pivot", r.pivot, "Pivot");
  v.given("axis_yaw_deg", r.axis_yaw, spec::angle("Axis turned in plan", -60, 60));
  v.given("axis_tip_deg", r.axis_tip, spec::angle("Axis tipped, its forward or outboard end up", -60, 60));
  v.choice("motion", r.motion, Names(leg_motion_names), "The wheel");
  v.given("twist_deg", r.twist, spec::angle("Leg twists by", -200, 200));
  v.object("rod_airframe", r.rod_airframe, "Twist rod's ball on the airframe");
  v.object("rod_leg", r.rod_leg, "Twist rod's ball on leg or carrier, down");
  v.object("king_pin", r.king_pin, "King-pin of the carrier, down");
  v.list("pulled_in", r.pulled_in, "Strut pulled in", 20);
  v.list("bends", r.bends, "Bends of the leg from the pivot on", 4);
  v.given("far_skin_m", r.far_skin,
          spec::between("Inside of the skin over the unit, waterline", Kind::length, -20, 20));
  v.given("floor_m", r.floor, spec::between("Floor that the leg passes, waterline", Kind::length, -20, 20));
  v.given("service_set_m", r.service_set, spec::between("Axle set aft in service", Kind::length, -0.5, 0.5));
  v.given("seat_starboard_m", r.seat_starboard,
          spec::between("Wheel in its well, starboard, measured", Kind::length, -1, 1));
  v.given("seat_port_m", r.seat_port,
          spec::between("Wheel in its well, port, measured", Kind::length, -1, 1));
  v.object("wanted", r.wanted, "Stowed wheel as wanted");
  v.object("unit", r.unit, "Retract unit");
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
  v.choice("times_from", r.times_from, Names(times_from_names), "Sequence takes its times from");
  v.object("well", r.well, "Well");
  v.object("drive", r.drive, "Drive");
  v.object("drive_sold", r.drive_sold, "Drive fitted, as it is sold");
  v.list("drive_offers", r.drive_offers, "Drives that could be taken", 6);
  v.object("uplock", r.uplock, "Up-lock");
  v.object("brace", r.brace, "Folding brace");
}

template <class V, Of<Tube> T>
void describe(V& v, T& t) {
  v.text("name", t.name, "Tube");
  v.object("top", t.top, "Attach point on the airframe");
  v.object("foot", t.foot, "End at the axle");
  v.given("diameter_m", t.diameter, spec::size("Outer diameter", 1));
  v.given("wall_m", t.wall, spec::size("Wall", 0.1));
  v.text("material", t.material, "Material");
}

template <class V, Of<LegStation> T>
void describe(V& v, T& s) {
  v.given("along_m", s.along, spec::not_negative("From the upper end", Kind::length, 5));
  v.given("width_m", s.width, spec::size("Width or diameter", 1));
  v.given("thickness_m", s.thickness, spec::size("Thickness", 0.5));
  v.given("bore_m", s.bore, spec::not_negative("Hole along it", Kind::length, 0.5));
}

template <class V, Of<Fastener> T>
void describe(V& v, T& f) {
  v.given("u_m", f.u, spec::between("Along the face", Kind::length, -2, 2));
  v.given("v_m", f.v, spec::between("Across the face", Kind::length, -2, 2));
  v.given("diameter_m", f.diameter, spec::size("Diameter", 0.05));
}

template <class V, Of<Fit> T>
void describe(V& v, T& f) {
  v.text("name", f.name, "Fit");
  v.given("pin_m", f.pin, spec::size("Pin, axle or wire", 0.3));
  v.given("bore_m", f.bore, spec::size("Bore, hub or socket", 0.3));
}

template <class V, Of<Joint> T>
void describe(V& v, T& j) {
  v.text("name", j.name, "Joint");
  v.choice("kind", j.kind, Names(joint_names), "Held by");
  v.choice("face", j.face, Names(face_names), "Fixed");
  v.text("carries", j.carries, "Carries the tube (empty: the whole leg)");
  v.object("at", j.at, "Place");
  v.text("material", j.material, "Of (a block or plate: the adhesive)");
  v.text("into", j.into, "Bears on");
  v.given("diameter_m", j.diameter, spec::size("Diameter of pin or post", 0.2));
  v.given("planes", j.planes, spec::between("Shear planes", Kind::factor, 1, 2));
  v.given("inner_thickness_m", j.inner_thickness, spec::size("Inner lug, or the sheet", 0.2));
  v.given("outer_thickness_m", j.outer_thickness, spec::size("Each outer lug", 0.2));
  v.given("brace_arm_m", j.brace_arm, spec::size("Brace or drive holds the moment at", 2));
  v.list("fasteners", j.fasteners, "Fasteners", 60);
  v.given("holds_N", j.holds, spec::positive("One screw holds, pulled", Kind::force, 1e5));
  v.given("length_m", j.length, spec::size("Length (fore and aft on a plate)", 3));
  v.given("width_m", j.width, spec::size("Width", 2));
  v.flag("straps", j.straps, "Metal straps over its edge");
  v.object("to", j.to, "Other end of a post, on the spar");
  v.given("thickness_m", j.thickness, spec::size("Plate thickness", 0.1));
  v.given("cheeks_m", j.cheeks, spec::size("Side cheeks, height", 1));
  v.given("box_depth_m", j.box_depth, spec::size("Closed box over it, depth", 1));
  v.given("box_wall_m", j.box_wall, spec::size("Closed box, wall", 0.05));
  v.given("bay_rate_N_per_m", j.bay_rate,
          spec::positive("Bay without the post, stiffness", Kind::stiffness, 1e10));
  v.flag("bought", j.bought, "A bought mount");
  v.given("pulled_N", j.pulled, spec::positive("Pulled at with, and held", Kind::force, 1e6));
}

template <class V, Of<Cradle> T>
void describe(V& v, T& c) {
  v.given("below_m", c.below, spec::size("Notch below the pivot", 3));
  v.given("width_m", c.width, spec::size("Edge that bears, along the leg", 0.5));
  v.given("thickness_m", c.thickness, spec::size("Edge that bears, thickness", 0.2));
  v.given("play_m", c.play, spec::not_negative("Play to each side", Kind::length, 0.05));
  v.text("material", c.material, "Edge of");
}

template <class V, Of<BarReading> T>
void describe(V& v, T& b) {
  v.given("aft_m", b.aft, spec::between("Bar aft of the other axle", Kind::length, -1, 1));
  v.given("up_m", b.up, spec::between("Bar above the other axle", Kind::length, -1, 1));
}

template <class V, Of<Steering> T>
void describe(V& v, T& s) {
  v.choice("kind", s.kind, Names(steering_names), "Steered");
  v.given("angle_deg", s.angle, spec::angle("Turns either way by", 1, 180));
  v.given("wanted_radius_m", s.wanted_radius, spec::positive("Turn wanted, radius", Kind::distance, 500));
  v.object("rod_airframe", s.rod_airframe, "Rod's end at servo or pedal");
  v.object("rod_leg", s.rod_leg, "Rod's end in the arm on the leg, leg down");
  v.given("slide_m", s.slide, spec::not_negative("May slip through its arm by", Kind::length, 1));
  v.given("servo_torque_N_m", s.servo_torque,
          spec::positive("Torque of the servo, stalled", Kind::moment, 1e3));
  v.given("servo_arm_m", s.servo_arm, spec::size("Arm of the servo or pedal", 1));
  v.flag("lets_go", s.lets_go, "Centred and switched off before the leg goes up");
  v.given("bush_play_m", s.bush_play,
          spec::not_negative("Play of the bush, on the diameter", Kind::length, 0.02));
  v.given("bush_length_m", s.bush_length, spec::size("Bearings apart by", 2));
  v.object("servo_low", s.servo_low, "Servo's body, least corner");
  v.object("servo_high", s.servo_high, "Servo's body, greatest corner");
}

template <class V, Of<Leg> T>
void describe(V& v, T& l) {
  v.text("id", l.id, "Id");
  v.text("name", l.name, "Name");
  v.choice("role", l.role, Names(leg_role_names), "It is a leg of the kind");
  v.choice("stands", l.stands, Names(leg_stands_names), "Stands on");
  v.flag("skid", l.skid, "A skid, no wheel");
  v.given("wheel_spacing_m", l.wheel_spacing, spec::size("Two wheels on the axle, apart by", 5));
  v.object("top", l.top, "Upper end");
  v.object("axle", l.axle, "Axle, extended");
  v.choice("path", l.path, Names(path_names), "The axle moves");
  v.object("hinge", l.hinge, "Hinge");
  v.given("camber_deg", l.camber, spec::angle("Camber, extended", -30, 30));
  v.given("toe_in_deg", l.toe, spec::angle("Toe-in, extended", -15, 15));
  v.given("wheel_offset_m", l.wheel_offset, spec::between("Wheel outboard of the leg", Kind::length, -2, 2));
  v.given("axle_aft_m", l.axle_aft, spec::between("Axle behind the leg's line", Kind::length, -1, 1));
  v.given("axle_beyond_wheel_m", l.axle_beyond_wheel,
          spec::not_negative("Axle tip outboard of the wheel's middle", Kind::length, 2));
  v.given("hub_width_m", l.hub_width, spec::size("Width of the hub", 1));
  v.given("spacer_m", l.spacer, spec::not_negative("Spacers on the axle", Kind::length, 1));
  v.given("brake_width_m", l.brake_width, spec::not_negative("Brake on the axle", Kind::length, 1));
  v.given("tube_diameter_m", l.tube_diameter, spec::size("Leg diameter", 1));
  v.choice("section", l.section, Names(section_names), "Section of the leg");
  v.given("tube_wall_m", l.tube_wall, spec::size("Wall of the leg", 0.2));
  v.given("section_width_m", l.section_width, spec::size("Section, fore and aft", 1));
  v.given("section_thickness_m", l.section_thickness, spec::size("Section, thickness", 0.5));
  v.list("sections", l.stations, "Sections where they change, from the upper end", 20);
  v.text("material", l.material, "Material of the leg");
  v.choice("printed", l.printed, Names(printed_names), "A printed leg's layers lie");
  v.object("brace_leg", l.brace_leg, "Brace's end on the leg");
  v.object("brace_airframe", l.brace_airframe, "Brace's end on the airframe");
  v.given("axle_diameter_m", l.axle_diameter, spec::size("Axle diameter", 0.2));
  v.given("axle_wall_m", l.axle_wall, spec::size("Wall of a hollow axle", 0.1));
  v.text("axle_material", l.axle_material, "Material of the axle");
  v.list("tubes", l.tubes, "Tubes", 12);
  v.list("joints", l.joints, "Pins, fasteners, blocks, plates, posts", 40);
  v.given("travel_m", l.travel, spec::not_negative("Travel to the stop", Kind::length, 2));
  v.given("stop_rate_N_per_m", l.stop_rate, spec::positive("Stiffness of the stop", Kind::stiffness, 1e9));
  v.given("unsprung_mass_kg", l.unsprung_mass, spec::mass("Unsprung mass: wheel, axle, lower leg"));
  v.given("rest_pressed_m", l.rest_pressed,
          spec::not_negative("Rests at, after pressing down", Kind::length, 20));
  v.given("rest_lifted_m", l.rest_lifted, spec::not_negative("Rests at, after lifting", Kind::length, 20));
  v.list("fits", l.fits, "Fits: what goes into what", 20);
  v.choice("governing", l.governing, Names(governing_names), "Length that governs");
  v.given("shoulder_m", l.shoulder, spec::size("Shoulder above the axle", 3));
  v.given("governed_m", l.governed, spec::size("Built to that length", 10));
  v.given("lean_deg", l.lean, spec::angle("Lean wanted when down, foot aft", -60, 60));
  v.object("cradle", l.cradle, "Notch in the bay's edge");
  v.given("landings", l.landings, spec::not_negative("Ordinary landings made", Kind::factor, 1e6));
  v.given("failures", l.failures, spec::not_negative("Broken or bent after", Kind::factor, 1e4));
  v.object("spring", l.spring, "Spring");
  v.object("wheel", l.wheel, "Wheel");
  v.object("retraction", l.retraction, "Retraction");
  v.object("steering", l.steering, "Steering");
}

template <class V, Of<Gear> T>
void describe(V& v, T& g) {
  v.flag("wheel_brakes", g.brakes, "Wheel brakes");
  v.list("legs", g.legs, "Legs", 24);
}

}  // namespace kranich
