// SPDX-License-Identifier: GPL-3.0-or-later
//! Design landing, scatter, bench, load cases, materials, jig. Part of the one description of a Design:
//! describe.h says how.
#pragma once

#include "core/model/describe_words.h"
#include "core/model/workshop.h"

namespace kranich {

template <class V, Of<Landing> T>
void describe(V& v, T& l) {
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

template <class V, Of<Scatter> T>
void describe(V& v, T& s) {
  const auto share = [](std::string_view title) { return spec::between(title, Kind::share, 0, 0.6); };
  v.given("sink_speed", s.sink_speed, share("Sink speed scatters by"));
  v.given("mass", s.mass, share("Mass scatters by"));
  v.given("spring", s.spring, share("Spring scatters by"));
  v.given("friction", s.friction, share("Friction scatters by"));
  v.given("damping", s.damping, share("Damping scatters by"));
  v.given("colder_K", s.colder,
          spec::not_negative("Colder than when the gas was charged by", Kind::warmth, 80));
  v.given("hotter_K", s.hotter, spec::not_negative("Hotter by", Kind::warmth, 80));
  v.given("drops", s.drops, spec::between("Drops to try", Kind::factor, 100, 1e5));
}

template <class V, Of<Bump> T>
void describe(V& v, T& b) {
  v.given("height_m", b.height, spec::size("Height of the bump or step", 1));
  v.given("length_m", b.length, spec::size("Length of the bump (none: a step)", 20));
  v.given("speed_m_per_s", b.speed, spec::positive("Taxi speed", Kind::speed, 60));
  v.given("bush_friction", b.bush_friction,
          spec::between("Bush friction over drag load, telescopic", Kind::factor, 0, 3));
}

template <class V, Of<LoadReading> T>
void describe(V& v, T& r) {
  v.text("leg", r.leg, "Leg");
  v.given("load_N", r.load, spec::not_negative("Load", Kind::force, 1e6));
  v.given("closure_m", r.closure, spec::not_negative("Closed by", Kind::length, 2));
  v.flag("unloading", r.unloading, "On the way out");
  v.text("state", r.state, "As it was built then");
  v.text("broke", r.broke, "Gave way at");
}

template <class V, Of<DropTest> T>
void describe(V& v, T& t) {
  v.text("leg", t.leg, "Leg");
  v.text("day", t.day, "Day");
  v.given("height_m", t.height, spec::positive("Dropped from", Kind::length, 5));
  v.given("mass_kg", t.mass, spec::mass("Mass on the leg"));
  v.given("stroke_m", t.stroke, spec::not_negative("Greatest stroke read", Kind::length, 2));
  v.given("acceleration_g", t.acceleration,
          spec::not_negative("Greatest acceleration read", Kind::in_g, 2000));
  v.given("foretold_stroke_m", t.foretold_stroke, spec::not_negative("Stroke foretold", Kind::length, 2));
  v.given("foretold_acceleration_g", t.foretold_acceleration,
          spec::not_negative("Acceleration foretold", Kind::in_g, 2000));
  v.text("outcome", t.outcome, "What it did");
  v.text("state", t.state, "As it was built then");
}

template <class V, Of<ProvenBow> T>
void describe(V& v, T& p) {
  v.text("name", p.name, "Bow");
  v.given("mass_kg", p.mass, spec::mass("Aircraft"));
  v.given("plies", p.plies, spec::between("Plies", Kind::factor, 1, 400));
  v.given("root_width_m", p.root_width, spec::size("Width at the root", 1));
  v.flag("held", p.held, "Held");
}

template <class V, Of<OwnCoil> T>
void describe(V& v, T& c) {
  v.text("name", c.name, "Spring");
  v.object("coil", c.coil, "Coil");
  v.given("mass_kg", c.mass, spec::mass("Mass"));
  v.given("price", c.price, spec::not_negative("Price", Kind::factor, 1e6));
}

template <class V, Of<SpringBench> T>
void describe(V& v, T& b) {
  v.list("readings", b.readings, "Load against closure", 200);
  v.list("drops", b.drops, "Drops", 200);
  v.list("proven", b.proven, "Bows that were flown", 40);
  v.list("coils", b.coils, "Coils at hand", 60);
}

template <class V, Of<LoadFactors> T>
void describe(V& v, T& f) {
  const auto factor = [](std::string_view title, double most = 5) {
    return spec::between(title, Kind::factor, 0, most);
  };
  v.text("rule", f.rule, "Local rule that decides");
  v.given("ultimate", f.ultimate, spec::between("Ultimate over limit", Kind::factor, 1, 4));
  v.given("spin_up", f.spin_up, factor("Spin-up drag, of n and the share"));
  v.given("side_up", f.side_up, factor("Side case, up, of the weight"));
  v.given("side_in", f.side_in, factor("Side case, inboard, of the weight"));
  v.given("side_out", f.side_out, factor("Side case, outboard, of the weight"));
  v.given("brake_up", f.brake_up, factor("Braked roll, up, of the weight"));
  v.given("brake_drag", f.brake_drag, factor("Braked roll, drag, of that"));
  v.given("nose_up", f.nose_up, factor("Nose wheel, up, of its static load"));
  v.given("nose_aft", f.nose_aft, factor("Nose wheel, aft, of that"));
  v.given("nose_forward", f.nose_forward, factor("Nose wheel, forward, of that"));
  v.given("nose_side", f.nose_side, factor("Nose wheel, sideways, of that"));
  v.given("model_drag", f.model_drag, factor("Model, drag, of the vertical"));
  v.given("model_drag_rough", f.model_drag_rough, factor("Model, drag on grass and ruts"));
  v.given("model_side", f.model_side, factor("Model, side, of the vertical"));
}

template <class V, Of<Material> T>
void describe(V& v, T& m) {
  const auto stress = [](std::string_view title) { return spec::positive(title, Kind::stress, 1e10); };
  v.text("name", m.name, "Material");
  v.choice("stuff", m.stuff, Names(stuff_names), "Kind");
  v.given("youngs_modulus_Pa", m.youngs_modulus, spec::positive("Young's modulus", Kind::stress, 1e12));
  v.given("density_kg_per_m3", m.density, spec::positive("Density", Kind::density, 25000));
  v.given("yield_Pa", m.yield, stress("Yields at"));
  v.given("ultimate_Pa", m.ultimate, stress("Breaks at"));
  v.given("shear_Pa", m.shear, stress("Shears at"));
  v.given("bearing_Pa", m.bearing, stress("Bearing"));
  v.given("strain", m.strain, spec::positive("Strain allowed, laminate", Kind::share, 0.1));
  v.given("across_layers", m.across,
          spec::between("Across printed layers, over along", Kind::factor, 0.05, 1));
  v.text("remark", m.remark, "Remark");
}

template <class V, Of<Jig> T>
void describe(V& v, T& j) {
  v.given("reference_z_m", j.reference_z, spec::place("Reference point's waterline"));
  v.given("reference_height_m", j.reference_height, spec::size("Reference point above the floor", 10));
  v.given("point_x_m", j.point_x, spec::place("Point that diagonals run to, station"));
  v.given("axle_out_m", j.axle_out,
          spec::not_negative("Axle sticks out of the bar, each side", Kind::length, 2));
  v.given("diagonal_starboard_m", j.diagonal_starboard, spec::size("Diagonal measured, starboard"));
  v.given("diagonal_port_m", j.diagonal_port, spec::size("Diagonal measured, port"));
  v.object("bar_starboard", j.bar_starboard, "Bar through the starboard axle");
  v.object("bar_port", j.bar_port, "Bar through the port axle");
  v.choice("paper", j.paper, Names(paper_names), "Paper");
}

template <class V, Of<PartOffer> T>
void describe(V& v, T& p) {
  v.text("for_what", p.for_what, "For");
  v.text("name", p.name, "Part");
  v.given("count", p.count, spec::between("How many", Kind::factor, 1, 100));
  v.given("mass_kg", p.mass, spec::mass("Mass of one"));
  v.given("price", p.price, spec::not_negative("Price of one", Kind::factor, 1e6));
  v.given("x_m", p.x, spec::place("They sit at station"));
  v.flag("taken", p.taken, "Taken");
  v.text("remark", p.remark, "Remark");
}

template <class V, Of<Mixing> T>
void describe(V& v, T& m) {
  v.given("working_time_s", m.working_time, spec::positive("Mix can be worked for", Kind::time, 86400));
  v.given("ply_time_s", m.ply_time, spec::positive("A ply takes", Kind::time, 86400));
}

template <class V, Of<Ply> T>
void describe(V& v, T& p) {
  v.text("zone", p.zone, "Zone");
  v.text("cloth", p.cloth, "Cloth");
  v.text("direction", p.direction, "Direction");
  v.given("count", p.count, spec::between("Plies", Kind::factor, 1, 200));
  v.given("overlap_m", p.overlap, spec::not_negative("Overlap", Kind::length, 1));
  v.given("area_m2", p.area, spec::positive("Area of one ply", Kind::area, 50));
  v.given("x_m", p.x, spec::between("Middle of the zone, along", Kind::length, -10, 10));
  v.given("y_m", p.y, spec::between("Middle of the zone, across", Kind::length, -10, 10));
  v.given("length_m", p.length, spec::size("Zone, along", 10));
  v.given("width_m", p.width, spec::size("Zone, across", 10));
  v.given("areal_weight_kg_per_m2", p.areal_weight, spec::positive("Dry cloth", Kind::areal_weight, 5));
  v.given("resin", p.resin, spec::between("Resin by mass", Kind::share, 0.1, 0.9));
  v.flag("hard_point", p.hard_point, "Over a hard point");
  v.flag("laid", p.laid, "Laid");
}

}  // namespace kranich
