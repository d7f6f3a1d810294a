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
//! Of a design that is only looked at all of them are const.
#pragma once

#include "core/model/describe_airframe.h"
#include "core/model/describe_gear.h"
#include "core/model/describe_systems.h"
#include "core/model/describe_workshop.h"
#include "core/model/design.h"

namespace kranich {
template <class V, Of<About> T>
void describe(V& v, T& a) {
  v.text("name", a.name, "Name");
  v.text("summary", a.summary, "What it is");
  v.text("owner", a.owner, "Owner");
  v.text("revision", a.revision, "Revision");
  v.text("notes", a.notes, "Notes");
}

template <class V, Of<Purpose> T>
void describe(V& v, T& p) {
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

template <class V, Of<TableReading> T>
void describe(V& v, T& r) {
  v.text("what", r.what, "What was read");
  v.text("loading", r.loading, "Loading");
  v.text("build_state", r.build_state, "Build state");
  v.given("starboard_m", r.starboard, spec::place("Read, starboard or centre"));
  v.given("port_m", r.port, spec::place("Read, port"));
  v.given("angle_deg", r.angle, spec::angle("Angle read", -90, 90));
}

template <class V, Of<Stance> T>
void describe(V& v, T& s) {
  v.given("wing_angle_low_deg", s.target_low, spec::angle("Wing angle at rest, from", -30, 30));
  v.given("wing_angle_high_deg", s.target_high, spec::angle("Wing angle at rest, to", -30, 30));
  v.text("loading", s.target_loading, "At the loading");
  v.given("ballast_x_m", s.ballast_x, spec::place("Ballast hung at station"));
  v.given("table_slope_deg", s.table_slope, spec::angle("Slope of the table, nose end up", -10, 10));
  v.list("readings", s.readings, "Read on the table", 400);
}

template <class V, Of<DoorDrive> T>
void describe(V& v, T& d) {
  v.choice("way", d.way, Names(door_way_names), "Moved");
  v.text("with", d.with, "On the crank of the door");
  v.choice("axis", d.axis, Names(crank_axis_names), "Crank turns about an axis");
  v.object("crank", d.crank, "Crank's axis");
  v.given("throw_deg", d.throw_open,
          spec::angle("Crank's turn to open, anticlockwise from front, right or above", -200, 200));
  v.object("crank_ball", d.crank_ball, "Rod's end on the crank");
  v.object("door_ball", d.door_ball, "Rod's or wire's end on the door");
  v.object("leg_ball", d.leg_ball, "Rod's or wire's end on the leg, gear up");
  v.given("tie_length_m", d.tie_length, spec::size("Length of the wire", 3));
  v.object("stop", d.stop, "Stop in the bay that the arm meets");
  v.given("arm_length_m", d.arm_length, spec::size("Length of that arm", 2));
  v.given("ramp_from_m", d.ramp_from, spec::not_negative("Ramp from, out from the hinge", Kind::length, 3));
  v.given("ramp_to_m", d.ramp_to, spec::size("Ramp to, out from the hinge", 3));
  v.given("ramp_height_m", d.ramp_height, spec::size("Ramp's height there", 0.5));
  v.given("torque_N_m", d.torque, spec::positive("Torque of its drive, stalled", Kind::moment, 1e4));
}

template <class V, Of<DoorHold> T>
void describe(V& v, T& h) {
  v.given("airspeed_m_per_s", h.airspeed, spec::not_negative("Airspeed, door open", Kind::speed, 150));
  v.given("normal_coefficient", h.normal_coefficient,
          spec::between("Normal force coefficient, broadside", Kind::factor, 0, 3));
  v.given("hinge_stiffness_N_m_per_rad", h.hinge_stiffness,
          spec::not_negative("Stiffness of the hinge", Kind::torsion_rate, 1e4));
  v.given("hinge_friction_N_m", h.hinge_friction,
          spec::not_negative("Friction of the hinge", Kind::moment, 1e3));
  v.object("spring_door", h.spring_door, "Spring's or cable's end on the door");
  v.object("spring_airframe", h.spring_airframe, "Its anchor or guide on the airframe");
  v.given("spring_force_N", h.spring_force, spec::not_negative("Spring's initial force", Kind::force, 1e5));
  v.given("spring_rate_N_per_m", h.spring_rate, spec::not_negative("Spring's rate", Kind::stiffness, 1e7));
  v.given("spring_length_m", h.spring_length, spec::size("Length, end to anchor, at its initial force", 3));
  v.given("magnet_force_N", h.magnet_force, spec::not_negative("Magnet's pull-off force", Kind::force, 1e4));
  v.given("magnet_out_m", h.magnet_out, spec::size("Magnet out from the hinge", 5));
}

template <class V, Of<Door> T>
void describe(V& v, T& d) {
  v.text("id", d.id, "Id");
  v.text("name", d.name, "Door");
  v.text("leg", d.leg, "Covers the leg");
  v.object("hinge_from", d.hinge_from, "Hinge, front end");
  v.object("hinge_to", d.hinge_to, "Hinge, rear end");
  v.given("width_m", d.width, spec::size("Width of the panel", 5));
  v.given(
      "closed_towards", d.closed_towards,
      spec::between("Closed panel lies to starboard or forward (1), port or aft (-1)", Kind::factor, -1, 1));
  v.given("closed_tilt_deg", d.closed_tilt, spec::angle("Closed, its free edge higher by", -89, 89));
  v.given("thickness_m", d.thickness, spec::size("Thickness of the panel", 0.3));
  v.given("mass_kg", d.mass, spec::positive("Mass of the panel", Kind::mass, 500));
  v.given("cg_out_m", d.cg_out, spec::size("Its CG out from the hinge", 5));
  v.given("open_angle_deg", d.open_angle, spec::angle("Opens by", 5, 200));
  v.given("ajar_deg", d.ajar, spec::angle("Left open by, gear down", 0, 120));
  v.object("drive", d.drive, "What moves it");
  v.object("hold", d.hold, "What holds it open");
  v.given("time_open_s", d.time_open, spec::positive("Time to open", Kind::time, 600));
  v.given("time_close_s", d.time_close, spec::positive("Time to close", Kind::time, 600));
  v.given("slowest_factor", d.slowest, spec::between("Slowest, times the time", Kind::factor, 1, 10));
  v.given("fastest_factor", d.fastest, spec::between("Fastest, times the time", Kind::factor, 0.1, 1));
  v.given("frees_leg_at", d.frees_leg_at, spec::between("Leg may pass when open by", Kind::share, 0, 1));
  v.given("zone_enter", d.zone_enter, spec::between("Leg enters the door's zone at", Kind::share, 0, 1));
  v.given("zone_leave", d.zone_leave, spec::between("Leg leaves it at", Kind::share, 0, 1));
}

template <class V, Of<Step> T>
void describe(V& v, T& s) {
  v.text("actor", s.actor, "Actor");
  v.choice("action", s.action, Names(action_names), "Does");
  v.given("start_s", s.start, spec::not_negative("Starts at", Kind::time, 3600));
}

template <class V, Of<SequencerBox> T>
void describe(V& v, T& b) {
  v.text("id", b.id, "Id");
  v.text("name", b.name, "Box");
  v.given("outputs", b.outputs, spec::between("Outputs", Kind::factor, 1, 24));
  v.given("longest_hold_s", b.longest_hold, spec::positive("Holds at most", Kind::time, 3600));
  v.choice("at_switch_on", b.at_switch_on, Names(at_switch_on_names), "When switched on");
  v.text("chained_to", b.chained_to, "Started by the box");
}

template <class V, Of<BoxOutput> T>
void describe(V& v, T& o) {
  v.text("box", o.box, "Box");
  v.given("output", o.number, spec::between("Output", Kind::factor, 1, 24));
  v.text("actor", o.actor, "Moves");
  v.flag("reversed", o.reversed, "Reverser in its lead");
}

template <class V, Of<Aid> T>
void describe(V& v, T& a) {
  v.text("id", a.id, "Id");
  v.choice("kind", a.kind, Names(aid_names), "What");
  v.text("leg", a.leg, "Of the leg");
  v.given("takes_s", a.takes, spec::positive("Takes", Kind::time, 600));
  v.given("slowest_factor", a.slowest, spec::between("Slowest, times the time", Kind::factor, 1, 10));
  v.given("fastest_factor", a.fastest, spec::between("Fastest, times the time", Kind::factor, 0.1, 1));
}

template <class V, Of<Sequence> T>
void describe(V& v, T& s) {
  v.list("up", s.up, "Going up", 60);
  v.list("down", s.down, "Going down", 60);
  v.list("boxes", s.boxes, "Boxes that time it", 8);
  v.list("outputs", s.outputs, "What hangs on their outputs", 60);
  v.list("aids", s.aids, "Steering, up-locks and brakes", 24);
  v.given("margin_s", s.margin, spec::not_negative("Time wanted in hand", Kind::time, 60));
  v.text("order", s.order, "Order of the legs, and why");
}

template <class V, Of<OwnLimit> T>
void describe(V& v, T& l) {
  v.text("measure", l.measure, "Measure");
  v.text("reason", l.reason, "Reason");
  v.given("lower_si", l.lower, Spec{"Not below (SI)", Kind::factor, -1e12, 1e12});
  v.given("upper_si", l.upper, Spec{"Not above (SI)", Kind::factor, -1e12, 1e12});
}

template <class V, Of<Begun> T>
void describe(V& v, T& b) {
  v.flag("started", b.started, "Started from a few answers");
  v.choice("craft", b.craft, Names(craft_names), "Stands on");
  v.flag("retractable", b.retractable, "Gear goes up");
  v.choice("wing", b.wing, Names(wing_place_names), "Wing");
  v.choice("engine", b.engine, Names(engine_names), "Driven by");
  v.given("seats", b.seats, spec::between("Seats", Kind::factor, 0, 4));
  v.given("mass_kg", b.mass, spec::mass("All-up mass answered"));
  v.given("span_m", b.span, spec::size("Span or rotor answered", 80));
  v.given("length_m", b.length, spec::size("Fuselage length answered"));
}

template <class V, Of<Decision> T>
void describe(V& v, T& d) {
  v.text("name", d.name, "Not decided yet");
  v.text("waits_for", d.waits_for, "Waits for");
  v.text("path", d.path, "The number it decides");
  v.given("spare_m", d.spare, spec::not_negative("To leave spare until then", Kind::length, 5));
}

template <class V, Of<Variant> T>
void describe(V& v, T& x) {
  v.text("name", x.name, "Variant");
  v.text("note", x.note, "What is different");
  v.project("design", x.design, "The whole design of the variant");
}

template <class V, Of<Done> T>
void describe(V& v, T& s) {
  v.text("step", s.step, "Step");
}

template <class V, Of<OwnTask> T>
void describe(V& v, T& t) {
  v.text("id", t.id, "Id, beginning with my.");
  v.text("stage", t.stage, "Stage");
  v.text("when", t.when, "Applies when");
  v.text("per", t.per, "Ticked for each");
  v.text("text", t.text, "What to do");
  v.text("why", t.why, "Why");
  v.text("hazard", t.hazard, "Hazards");
  v.text("helpers", t.helpers, "People besides oneself");
  v.text("gate", t.gate, "Done before");
  v.text("reading", t.reading, "Readings");
  v.text("unit", t.unit, "Their units");
  v.text("predicted", t.predicted, "Foretold by");
  v.text("tolerance", t.tolerance, "May be off by");
  v.text("sets", t.sets, "Fills");
  v.text("stop", t.stop, "Stop at");
  v.text("rung", t.rung, "Rung of the ladder");
  v.text("reopens", t.reopens, "Opened again by");
  v.text("repeat", t.repeat, "Done once more");
  v.text("choice", t.choice, "Where two schools meet");
  v.text("needs", t.needs, "Serves");
}

template <class V, Of<Without> T>
void describe(V& v, T& w) {
  v.text("question", w.question, "What there is none of");
}

template <class V, Of<Original> T>
void describe(V& v, T& o) {
  v.given("main_x_m", o.main_x, spec::between("Original's main wheel, station", Kind::length, -100, 100));
  v.given("main_z_m", o.main_z, spec::not_negative("Original's main axle over the ground", Kind::length, 20));
  v.given("main_diameter_m", o.main_diameter,
          spec::positive("Original's main wheel, diameter", Kind::length, 5));
  v.given("third_x_m", o.third_x,
          spec::between("Original's nose or tail wheel, station", Kind::length, -100, 100));
  v.given("third_z_m", o.third_z,
          spec::not_negative("Original's nose or tail axle over the ground", Kind::length, 20));
  v.given("third_diameter_m", o.third_diameter,
          spec::positive("Original's nose or tail wheel, diameter", Kind::length, 5));
  v.given("propeller_z_m", o.propeller_z,
          spec::not_negative("Original's propeller axis over the ground", Kind::length, 20));
}

template <class V, Of<Picture> T>
void describe(V& v, T& p) {
  v.text("file", p.file, "Picture file");
  v.flag("shown", p.shown, "Shown");
  v.given("left_x_m", p.left_x, spec::place("Its left edge at station"));
  v.given("bottom_z_m", p.bottom_z, spec::place("Its lower edge over the ground"));
  v.given("width_m", p.width, spec::size("As wide as", 100));
  v.given("turned_deg", p.turned, spec::angle("Turned by", -180, 180));
  v.given("fade", p.fade, spec::between("Seen by", Kind::share, 0.05, 1));
  v.flag("mirrored", p.mirrored, "Mirrored");
}

template <class V, Of<Design> T>
void describe(V& v, T& d) {
  v.object("about", d.about, "About");
  v.object("purpose", d.purpose, "Purpose");
  v.choice("units", d.units, Names(unit_names), "Units on screen");
  v.object("airframe", d.airframe, "Airframe");
  v.list("ledger", d.ledger, "Mass ledger", longest_ledger);
  v.list("loadings", d.loadings, "Loadings", 60);
  v.object("weighing", d.weighing, "Weighing");
  v.object("gear", d.gear, "Gear");
  v.object("stance", d.stance, "Stance wanted");
  v.object("landing", d.landing, "Design landing");
  v.object("scatter", d.scatter, "How landings scatter");
  v.object("bump", d.bump, "Bump or step");
  v.object("spring_bench", d.spring_bench, "Springs on the bench");
  v.object("load_factors", d.load_factors, "Load cases");
  v.list("materials", d.materials, "Materials of your own", 100);
  v.object("jig", d.jig, "Jig and alignment");
  v.list("plies", d.plies, "Reinforcement, ply by ply", 200);
  v.object("mixing", d.mixing, "The resin as tried");
  v.list("parts", d.parts, "Parts weighed against each other", 200);
  v.list("done", d.done, "Steps done before there was a Book", 200);
  v.list("steps", d.own_tasks, "Steps of your own", 200);
  v.list("without", d.without, "What there is none of", 40);
  v.object("picture", d.picture, "Picture behind the side view");
  v.object("original", d.original, "Original on the picture");
  v.object("side_tracing", d.side_tracing, "Drawing to trace, from the side");
  v.object("front_tracing", d.front_tracing, "Drawing to trace, from ahead");
  v.object("plan_tracing", d.plan_tracing, "Drawing to trace, from above");
  v.list("doors", d.doors, "Doors", 24);
  v.object("sequence", d.sequence, "Sequence");
  v.object("logic", d.logic, "Logic");
  v.object("circuit", d.circuit, "Circuit");
  v.list("own_limits", d.own_limits, "Limits of your own", 200);
  v.object("begun", d.begun, "Started as");
  v.list("decisions", d.decisions, "Not decided yet", 100);
  v.list("variants", d.variants, "Variants", 20);
}

}  // namespace kranich
