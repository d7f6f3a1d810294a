// SPDX-License-Identifier: GPL-3.0-or-later
//! Spring: the design landing of each leg, its spring at the stop and at rest, the bump.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/assess/assess.h"
#include "core/assess/collector.h"
#include "core/assess/landing_state.h"
#include "core/assess/loading_state.h"
#include "core/assess/parts.h"
#include "core/assess/place_rules.h"
#include "core/assess/settle.h"
#include "core/assess/standing.h"
#include "core/force/bent_leg.h"
#include "core/force/coil.h"
#include "core/force/materials.h"
#include "core/model/lacking.h"

namespace kranich {

std::variant<double, Text> sink_speed_by(School school, const Design& d, double mass) {
  const Landing& landing = d.landing;
  switch (school) {
    case School::rule: {
      const auto panels = weigh::wing_panels(d.airframe.wing);
      if (panels.empty()) {
        Lacking lacks("/airframe/wing/");
        lacks.number(d.airframe.wing.root_leading_edge_x, "root_leading_edge_x_m",
                     "the station of the wing's leading edge");
        note_panels(lacks, d.airframe.wing, "", "wing");
        return lacks.text();
      }
      const double area = weigh::mean_aerodynamic_chord(0, panels).area;
      return spring::landing_by_rule(mass, area).sink_speed;
    }
    case School::ladder:
      if (!landing.ladder_height.known())
        return entry("/landing/ladder_height_m",
                     say("the drop height chosen (models: {} to {} light, {} and more heavy)",
                         Amount{0.1, Kind::length}, Amount{0.15, Kind::length}, Amount{0.25, Kind::length}));
      return spring::sink_speed_of_drop(landing.ladder_height);
    case School::similarity:
      if (!landing.prototype_sink_speed.known() || !d.purpose.scale_denominator.known())
        return Lacking("/")
            .number(landing.prototype_sink_speed, "landing/prototype_sink_speed_m_per_s",
                    "the prototype's sink speed")
            .number(d.purpose.scale_denominator, "purpose/scale_denominator", "the scale")
            .text();
      return spring::froude(d.purpose.scale_denominator, landing.prototype_sink_speed, 0, 0, 0, 0).sink_speed;
  }
  return "the school";
}

namespace {

//! A coil as it stands between its own seats, not at the wheel; free where no installed length is given.
std::optional<force::CoilAtWheel> by_itself(Coil coil) {
  coil.motion_ratio = Given(1.0);
  if (!coil.installed_length.known()) coil.installed_length = coil.free_length;
  return force::coil_at_wheel(coil);
}

//! One coil, closed by so much from where it is installed, under a force (N) at the stop.
void coil_findings(const Coil& c, double closes, double at_stop, const Subject& subject, Collector& collect,
                   const std::string& loading) {
  collect.about(subject, loading);
  const auto coil = by_itself(c);
  if (!coil) {
    collect.unknown("spring.coil_margin", "a measure of the coil spring");
    return;
  }
  auto& margin = collect.add("spring.coil_margin", coil->figures.margin(at_stop),
                             at_least(0, "torsional limit of the wire"));
  margin.working = {{"force at the stop", at_stop, Kind::force},
                    {"shear stress", coil->figures.shear_stress(at_stop), Kind::stress},
                    {"shear limit", coil->figures.shear_limit, Kind::stress},
                    {"coil rate", coil->figures.rate, Kind::stiffness}};
  margin.assumption = "typical wire: confirm with your supplier";
  auto& solid = collect.add("spring.coil_solid", coil->travel_left - closes,
                            at_least(0, "a solid spring before full travel breaks something else"));
  solid.working = {{"solid length", coil->figures.solid_length, Kind::length},
                   {"left from installed", coil->travel_left, Kind::length},
                   {"closes until the stop", closes, Kind::length}};
  if (coil->preload < 0) {
    solid.remark = "loose when the leg is extended";
    solid.working.push_back({"loose by", -coil->preload / coil->rate, Kind::length});
  }
  collect.add("spring.coil_index", coil->figures.index, within(4, 16, "spring makers' practice"));
  auto& buckles = collect.add("spring.coil_buckles",
                              force::buckling_free_length(c.mean_diameter, 0.5) - c.free_length, Limit{});
  if (buckles.value < 0) buckles.remark = "guide it in a tube or on a rod";
}

Subject coil_of(const Subject& leg, Words<1> words, const char* key) {
  return {say(words, leg.words), leg.key + key, leg.leg};
}

//! The coils of a leg: one, one inside another, or two in series.
void coils_findings(const Leg& leg, const stance::WheelOnLeg& wheel, const Subject& subject,
                    Collector& collect, const std::string& loading) {
  const Spring& s = leg.spring;
  const bool anchored = wheel.leg.acts == force::Suspension::Acts::pushed;
  const double ratio = anchored ? 1 : s.coil.motion_ratio.si;
  const double closes = wheel.leg.closure(wheel.leg.most).s * ratio;
  const double count = s.coil.count;
  const auto force_in = [&](const Coil& c, double pressed) {
    const auto coil = by_itself(c);
    return coil ? std::max(0.0, coil->spring_preload + coil->figures.rate * pressed) : std::nan("");
  };
  if (s.partner != CoilPartner::in_series) {
    coil_findings(s.coil, closes, force_in(s.coil, closes), subject, collect, loading);
    if (s.partner == CoilPartner::inside && s.second_starts_after.known()) {
      Coil inner = s.second;
      inner.installed_length = inner.free_length;  // it stands free until it is met
      const double pressed = std::max(0.0, closes - s.second_starts_after);
      coil_findings(inner, pressed, force_in(inner, pressed),
                    coil_of(subject, "{}, inner coil", "/inner coil"), collect, loading);
    }
    collect.about(subject, loading);
    return;
  }
  // In series both carry the same: the law's force at the stop, in one of the pairs.
  const double each = wheel.leg.law.force(wheel.leg.closure(wheel.leg.most).s) / (count * ratio);
  for (const bool second : {false, true}) {
    Coil free = second ? s.second : s.coil;
    free.installed_length = free.free_length;
    const auto figures = by_itself(free);
    const double pressed =
        figures ? std::min(each / figures->figures.rate, figures->figures.travel_to_solid) : std::nan("");
    coil_findings(free, pressed, each, second ? coil_of(subject, "{}, second coil", "/second coil") : subject,
                  collect, loading);
  }
  collect.about(subject, loading);
}

void gas_strut_findings(const Leg& leg, const stance::WheelOnLeg& wheel, Collector& collect) {
  const double closes = wheel.leg.closure(wheel.leg.most).s;
  auto& f = collect.add("spring.strut_left", leg.spring.gas_strut.full_stroke - closes,
                        at_least(0, "a strut at its end stop breaks its ends"));
  f.working = {{"full stroke", leg.spring.gas_strut.full_stroke, Kind::length},
               {"closes by", closes, Kind::length},
               {"pushes at the stop", wheel.leg.law.force(closes), Kind::force}};
  f.remark = "holds energy with the aircraft dead: restrain before removing a pin, never open it";
}

void puck_findings(const Leg& leg, const stance::WheelOnLeg& wheel, Collector& collect) {
  const Pucks& p = leg.spring.pucks;
  const double stack = p.count * p.thickness;
  const double closes = wheel.leg.closure(wheel.leg.most).s;
  const double before = stack - p.assembled_length;
  auto& f = collect.add("spring.puck_squeeze", (before + closes) / stack,
                        bands(0, 0, 0.25, 0.30, "rubber lasts below 25 %, at most 30 %"));
  f.working = {{"free stack", stack, Kind::length},
               {"assembled", p.assembled_length, Kind::length},
               {"force needed to assemble", wheel.leg.law.force(0), Kind::force}};
}

void cord_findings(const Leg& leg, const stance::WheelOnLeg& wheel, Collector& collect) {
  const Cord& c = leg.spring.cord;
  if (c.curve.empty()) return;
  const double installed = (wheel.leg.anchor_leg - wheel.leg.anchor_airframe).norm();
  const double stretch = (installed + wheel.leg.closure(wheel.leg.most).s) / c.free_length - 1;
  auto& f = collect.add("spring.cord_reach", c.curve.back().stretch - stretch,
                        at_least(0, "the curve must have been measured that far"));
  f.working = {{"stretched when extended", installed / c.free_length - 1, Kind::share},
               {"stretched at the stop", stretch, Kind::share},
               {"force needed to wrap it", wheel.leg.law.force(0), Kind::force}};
}

//! The leg that is itself the spring: stress at its stop and at rest, what a soft leaf keeps, the bow's seed.
void bending_findings(const Design& d, const Leg& leg, const stance::WheelOnLeg& wheel,
                      const stance::WheelState& state, const LegLanding& landing, Collector& collect) {
  const auto chain = force::bending_leg_of(leg, d.materials);
  const auto* bending = std::get_if<force::BendingLeg>(&chain);
  const Material* material = force::find_material(d.materials, leg.spring.bent.material);
  if (!bending || !material) return;  // Stance has said what is missing
  const BentLeg& b = leg.spring.bent;
  const auto allowed = force::allowable_of(*material, bending->wire_diameter, false);
  const double rate = wheel.leg.law.rate;
  // What the leg itself bends under at its stop: the ground's load less what a strut across holds. All else
  // is in proportion.
  const double stop = wheel.leg.most;
  const double across = -bending->across_rate * wheel.leg.moved_per_rise.y() * stop;
  const auto bent = force::bend(*bending, Vec3(0, across, rate * stop));
  if (!bent) return;
  double stress_at_stop = bent->largest_stress;
  for (const auto& loop : bent->loops) stress_at_stop = std::max(stress_at_stop, loop.stress);
  const auto file = [&](const char* id, double rise, const char* source) {
    const double share = rise / stop;
    const double stress = share * stress_at_stop;
    auto& f = collect.add(id, allowed.yield / stress - 1, at_least(0, source));
    if (!std::isfinite(f.value))
      f.remark = std::isfinite(allowed.yield) ? Text("needs a load that bends the leg")
                                              : say("needs the strength of “{}”", b.material);
    f.working = {{"load at the wheel", rate * rise, Kind::force},
                 {"greatest stress", stress, Kind::stress},
                 {"at, from the clamp", bent->largest_at, Kind::length},
                 {"allowed", allowed.yield, Kind::stress},
                 {"spread of the wheel", share * bent->moved.y(), Kind::length},
                 {"camber change", share * bent->camber_change, Kind::angle}};
    f.assumption = "vertical load, wheel free to spread; typical strength: confirm with your supplier";
    if (material->stuff == Stuff::laminate)
      f.working.push_back({"strain", stress / material->youngs_modulus, Kind::share});
  };
  if (landing.drop && landing.drop->ended && landing.drop->stroke_used > 0)
    file("spring.bend_margin", landing.drop->stroke_used, "it must come back from a design landing");
  if (state.touches && state.coordinate > 0)
    file("spring.bend_rest", state.coordinate, "it must not sag on its own");
  if (b.form == BentForm::leaf && landing.drop && std::isfinite(allowed.yield)) {
    // Its own rectangle all along, loaded across the line from clamp to axle; a stub axle does not bend.
    const Vec3 along = bending->points.back() - bending->points.front();
    const double cant = std::atan2(along.y(), -along.z());
    const double length = along.norm();
    std::vector<force::SoftLeaf::Section> sections;
    const size_t bends = bending->points.size() - (bending->stub ? 1 : 0);
    for (size_t i = 0; i < bends; ++i)
      sections.push_back({(bending->points[i] - bending->points.front()).dot(along) / length,
                          (bending->streamlined ? force::streamlined_modulus : 1) * bending->width[i],
                          bending->thickness[i]});
    sections.push_back({length, sections.back().width, sections.back().thickness});
    const force::SoftLeaf leaf(sections, bending->material.youngs_modulus, allowed.yield);
    const double energy = landing.drop->shares.spring * landing.drop->energy;
    // A wire across pulls level; the leaf feels what of that is square to it.
    const double out = std::cos(cant);  // across the leaf to out at the wheel
    const double wire = bending->across_rate * out * out;
    const auto row = force::row_of_landings(leaf, energy, 10, wire);
    const Limit unnoticed =
        bands(0, 0, 0.002, 0.02 * length, "practice: what is bent back without being noticed");
    auto& one = row.folds == 1 && !std::isfinite(row.set.front())
                    ? collect.fails("spring.set", unnoticed, "the design landing folds the leaf")
                    : collect.add("spring.set", row.set.front() * out, unnoticed);
    one.working = {{"energy into the spring", energy, Kind::energy},
                   {"peak load across the leaf", row.peak_load.front(), Kind::force},
                   {"yields from", leaf.yield_load(), Kind::force},
                   {"folds at", leaf.collapse_load(), Kind::force}};
    if (leaf.yields_at() > 0)
      one.working.push_back({"yields first at, from the clamp", leaf.yields_at(), Kind::length});
    if (std::isfinite(row.set.front()))
      one.working.push_back({"height lost", row.set.front() * std::sin(cant), Kind::length});
    one.assumption = "load across the line from clamp to axle";
    const Limit ends = {{}, {}, {}, {}, "a row of landings must come to an end"};
    auto& ten =
        row.folds > 0 && !std::isfinite(row.set.back())
            ? collect.fails("spring.set_row", ends,
                            row.folds == 1 ? Text("the first folds it")
                                           : say("landing {} of the row folds it", Figure{double(row.folds)}))
        : row.endless ? collect.fails("spring.set_row", ends,
                                      "every further landing adds to it: thicker, longer or stronger leaves, "
                                      "or a spring wire across")
                      : collect.add("spring.set_row", row.set.back() * out);
    ten.working = {{"never stops adding above", leaf.endless_energy(), Kind::energy}};
    for (const auto& [when, at] :
         {std::pair{"after two", size_t{1}}, {"after three", size_t{2}}, {"after five", size_t{4}}})
      if (std::isfinite(row.set[at])) ten.working.push_back({when, row.set[at] * out, Kind::length});
    if (std::isfinite(row.set.back()))
      ten.working.push_back({"height lost after ten", row.set.back() * std::sin(cant), Kind::length});
    if (wire > 0) ten.working.push_back({"spring wire across the leaf", wire, Kind::stiffness});
  }
  bow_by_experience(d, leg, 2 * landing.mass, collect);
}

//! The lever of a hinged leg, over its travel.
void lever(const Design& d, const Leg& leg, const stance::WheelOnLeg& wheel, const stance::WheelState& state,
           Collector& collect) {
  if (wheel.leg.path != force::Suspension::Path::hinged || !leg.spring.anchor_leg.known()) return;
  const auto ratio = [&](double q) { return wheel.leg.closure(q).s_1 / wheel.leg.at(q).axle_1.z(); };
  collect.about(about_leg(d, leg), "");
  auto& f = collect.add("spring.lever_ratio", ratio(state.coordinate));
  f.working = {{"extended", ratio(0), Kind::factor},
               {"a quarter of the way", ratio(0.25 * wheel.leg.most), Kind::factor},
               {"half way", ratio(0.5 * wheel.leg.most), Kind::factor},
               {"three quarters", ratio(0.75 * wheel.leg.most), Kind::factor},
               {"at the stop", ratio(wheel.leg.most), Kind::factor},
               {"spring closes by, at the stop", wheel.leg.closure(wheel.leg.most).s, Kind::length}};
}

//! How far the loops of a wire lead the axle aside, and the bend that takes it back.
void loops_aside(const Design& d, const Leg& leg, Collector& collect) {
  const BentLeg& b = leg.spring.bent;
  if (leg.spring.kind != SpringKind::bending || b.form != BentForm::wire || b.loops.empty() ||
      !b.wire_diameter.known())
    return;
  double aside = 0;
  double last = 0;
  for (const auto& loop : b.loops) {
    if (!loop.turns.known() || !loop.along.known()) return;
    aside += loop.turns * b.wire_diameter;
    last = std::max(last, loop.along.si);
  }
  double length = 0;
  for (size_t i = 1; i < b.line.size(); ++i) length += (b.line[i].at.vec() - b.line[i - 1].at.vec()).norm();
  const bool across = b.loops.front().axis == LoopAxis::athwartships;
  collect.about(about_leg(d, leg), "", GearState::extended);
  auto& f = collect.add("spring.loop_offset", aside);
  f.working = {{"from the last loop to the axle", length - last, Kind::length},
               {"correcting bend below it", std::atan2(aside, length - last), Kind::angle}};
  f.remark = across ? "along the loops' axis: outboard or inboard by the way they are wound"
                    : "along the loops' axis: fore or aft by the way they are wound";
}

//! A leg over the bump.
struct RolledOver {
  using From = spring::BumpModel;
  using Made = spring::BumpResult;
  static Made make(const From& model) { return spring::roll_over(model); }
};

void bump_findings(const Design& d, const Leg& leg, LegLanding& landing, const stance::WheelOnLeg& wheel,
                   double static_load, Collector& collect, Steps& steps) {
  if (!d.bump.height.known()) return;
  auto model = bump_model(d, leg, landing, wheel, static_load);
  if (const auto* missing = std::get_if<Text>(&model)) {
    collect.unknown("spring.bump_factor", *missing);
    return;
  }
  landing.bump_model = std::get<spring::BumpModel>(std::move(model));
  landing.bump = steps.get<RolledOver>(*landing.bump_model);
  const auto& r = *landing.bump;
  // A tail wheel is small and hard by trade: shown, not judged.
  const bool judged = leg.carries();
  Limit factor;
  if (judged && d.landing.load_factor.known())
    factor = at_most(d.landing.load_factor, "what was aimed at for landings");
  auto& f = collect.add("spring.bump_factor", r.load_factor, factor);
  f.working = {{"height", d.bump.height, Kind::length},
               {"taxi speed", d.bump.speed, Kind::speed},
               {"greatest fore-and-aft load", r.peak_aft, Kind::force},
               {"greatest acceleration above", r.sprung_peak, Kind::in_g},
               {"least ground load", r.least_load, Kind::force}};
  f.remark = d.bump.length.known() ? "" : "a step";
  if (r.least_load <= 0) f.remark.also("the wheel leaves the ground");
  if (!(leg.travel > 0)) return;
  if (std::isfinite(r.stroke_used))
    collect.add("spring.bump_stroke", r.stroke_used,
                judged ? at_most(leg.travel, "the leg's travel") : Limit{});
  else
    collect.unknown("spring.bump_stroke", "a bump that can be followed to its end");
}

}  // namespace

std::variant<spring::DropModel, Text> drop_model(const Leg& leg, const stance::WheelOnLeg& wheel, double mass,
                                                 double lift_ratio) {
  const Spring& s = leg.spring;
  spring::DropModel m;
  m.tyre = wheel.tyre;
  m.tyre.rate *= wheel.tyres();  // two on the axle, squashed alike
  m.lift_ratio = lift_ratio;
  if (wheel.leg.most <= 0) {
    m.sprung_mass = mass;
    return m;  // a rigid leg: the tyre is all there is
  }
  if (!leg.unsprung_mass.known())
    return entry(leg_root(leg.id) + "unsprung_mass_kg", "the unsprung mass: wheel, axle and lower leg");
  if (leg.unsprung_mass >= mass) return "an unsprung mass below the mass on the leg";
  m.unsprung_mass = leg.unsprung_mass;
  m.sprung_mass = mass - leg.unsprung_mass;
  m.travel = leg.travel;
  if (wheel.leg.path != force::Suspension::Path::hinged) {
    m.spring = wheel.leg.law;
  } else {
    m.spring.kind = force::LegLaw::Kind::curve;
    m.spring.travel = leg.travel;
    for (int i = 0; i <= 40; ++i) {
      const auto at = wheel.leg.at(wheel.leg.most * i / 40);
      m.spring.curve.emplace_back(at.axle.z() - wheel.leg.axle.z(), at.force / at.axle_1.z());
    }
  }
  if (s.oil_area.known()) {
    if (!s.orifice_closing.known() || !s.orifice_extending.known()) return "both orifices of the damper";
    m.damper.oil_area = s.oil_area;
    m.damper.orifice_closing = s.orifice_closing;
    m.damper.orifice_extending = s.orifice_extending;
    for (const auto& p : s.metered)
      if (p.stroke.known() && p.orifice.known()) m.damper.metered.emplace_back(p.stroke.si, p.orifice.si);
  } else if (s.damping_closing.known() && s.damping_extending.known()) {
    m.damper.closing = s.damping_closing;
    m.damper.extending = s.damping_extending;
  } else {
    return "the damping, closing and extending (0 if there is none)";
  }
  m.damper.friction = s.friction.known() ? s.friction.si : 0;
  if (s.kind ==
      SpringKind::bending) {  // it goes on bending, beyond what it comes back from, and the other way
    m.bottom_stop = 0;
    m.extension_stop = m.spring.rate;
  } else {
    m.bottom_stop = m.extension_stop =
        leg.stop_rate.known() ? leg.stop_rate.si : force::usual_stop_rate(leg, mass);
  }
  return m;
}

std::variant<spring::BumpModel, Text> bump_model(const Design& d, const Leg& leg, const LegLanding& landing,
                                                 const stance::WheelOnLeg& wheel, double static_load) {
  spring::BumpModel m;
  // To six figures: the equilibrium's last digits must not shift the integration.
  const double unit = std::pow(10, std::floor(std::log10(static_load)) - 5);
  const double mass = std::round(static_load / unit) * unit / standard_gravity;
  if (landing.model) {
    m.drop = *landing.model;
  } else {
    auto model = drop_model(leg, wheel, mass, 0);
    if (const auto* missing = std::get_if<Text>(&model)) return *missing;
    m.drop = std::get<spring::DropModel>(std::move(model));
  }
  m.drop.sprung_mass = mass - m.drop.unsprung_mass;
  m.drop.lift_ratio = 0;
  if (!(m.drop.sprung_mass > 0)) return "an unsprung mass below the mass on the leg";
  m.leg = wheel.leg;
  m.radius = wheel.radius;
  m.obstacle = {d.bump.height, d.bump.length.known() ? d.bump.length.si : 0};
  if (m.obstacle.height >= 0.9 * m.radius) return "a bump lower than nine tenths of the wheel's radius";
  m.speed = d.bump.speed;
  m.bush_friction = d.bump.bush_friction;
  return m;
}

namespace {

//! A leg's design landing, and the one of reserve energy under full lift.
struct Landed {
  struct From {
    spring::DropModel model;
    double sink_speed;
    bool operator==(const From&) const = default;
  };
  struct Made {
    spring::DropResult drop, reserve;
  };
  static Made make(const From& from) {
    spring::DropRun run;
    run.tolerance = 1e-4;  // N to a few parts in 100,000
    run.until_stopped = true;
    spring::DropModel full_lift = from.model;
    full_lift.lift_ratio = 1;
    return {spring::drop(from.model, from.sink_speed, run),
            spring::drop(full_lift, 1.2 * from.sink_speed, run)};
  }
};

void drop_findings(const Design& d, const Leg& leg, const stance::WheelOnLeg& wheel, LegLanding& landing,
                   Collector& collect, Steps& steps) {
  if (!leg.carries()) return;
  const auto model = drop_model(leg, wheel, landing.mass, d.landing.lift_ratio);
  if (const auto* missing = std::get_if<Text>(&model)) {
    collect.unknown("spring.drop_factor", *missing);
    return;
  }
  landing.model = std::get<spring::DropModel>(model);
  const auto& landed = steps.get<Landed>({*landing.model, landing.sink_speed});
  landing.drop = landed.drop;
  landing.reserve = landed.reserve;
  const auto& drop = *landing.drop;
  if (!drop.ended) {
    collect.unknown("spring.drop_factor",
                    "a landing that can be followed to its end: this one cannot be computed");
    return;
  }
  auto& factor = collect.add("spring.drop_factor", drop.load_factor,
                             at_most(d.landing.load_factor, "what was aimed at"));
  factor.working = {{"peak ground load", drop.peak_ground, Kind::force},
                    {"inertia load factor n", drop.inertia_factor, Kind::factor},
                    {"sink speed", landing.sink_speed, Kind::speed},
                    {"energy", drop.energy, Kind::energy},
                    {"into the spring", drop.shares.spring, Kind::share},
                    {"into the damper", drop.shares.damper, Kind::share},
                    {"into the tyre", drop.shares.tyre, Kind::share}};
  factor.assumption = leg.stop_rate.known() || !(leg.travel > 0) || leg.spring.kind == SpringKind::bending
                          ? "vertical motion"
                          : "stop as stiff as is usual; vertical motion";
  if (std::isfinite(landing.model->tyre.limit)) {
    auto& rim = collect.add("spring.rim", 1 - drop.tyre_deflection / landing.model->tyre.rim(),
                            at_least(0, "a rim or core that strikes breaks wheel, leg or both"));
    rim.working = {{"greatest squash", drop.tyre_deflection, Kind::length},
                   {"rim or core carries from", landing.model->tyre.rim(), Kind::length},
                   {"load then", drop.peak_ground, Kind::force}};
    if (drop.rim) rim.remark = "the rim strikes";
  }
  if (landing.model->spring.kind != force::LegLaw::Kind::rigid && !leg.spring.friction.known())
    factor.assumption.also("no friction of the strut, since none is given");
  auto& stroke = collect.add("spring.drop_stroke", drop.stroke_used, at_most(leg.travel, "the leg's travel"));
  stroke.working = {{"strut efficiency", drop.strut_efficiency, Kind::share},
                    {"peak strut load", drop.peak_strut, Kind::force}};
  const bool bends = leg.spring.kind == SpringKind::bending;
  if (bends)
    stroke.assumption = belly_ends_travel(d, leg)
                            ? "elastic; its travel ends where the belly is on the ground"
                            : "elastic; its travel ends where the leg takes a set";
  if (drop.bottoms) stroke.remark = bends ? "it goes beyond what it comes back from" : "it bottoms";
  if (!landing.reserve->ended) {
    collect.unknown("spring.drop_reserve", "a reserve landing that can be followed to its end");
    return;
  }
  Limit all = at_most(leg.travel, "the rule's reserve: all of the travel, no more");
  all.hold_upper = leg.travel;
  collect.add("spring.drop_reserve", landing.reserve->stroke_used, all).working = {
      {"sink speed", 1.2 * landing.sink_speed, Kind::speed},
      {"load factor then", landing.reserve->load_factor, Kind::factor}};
}

//! What a main leg, or its pair at once, stops when it meets the ground before the others (kg on each):
//! mₑ = m/(1 + x²/k²) of a rigid aircraft in level attitude, k 0.18 of the fuselage's length. NaN where that
//! is not drawn.
double touching_first(const Design& d, const LoadingState& l, const Leg& leg) {
  double front = std::numeric_limits<double>::infinity();
  double back = -front;
  for (const auto& body : d.airframe.bodies)
    for (const auto& s : body.sections)
      if (s.x.known()) {
        front = std::min(front, s.x.si);
        back = std::max(back, s.x.si);
      }
  if (!(back > front) || !leg.axle.known()) return std::nan("");
  const double gyration = 0.18 * (back - front);
  const double x = leg.axle.x - l.mass.down.at.x();
  const double stopped = l.mass.down.mass / (1 + x * x / (gyration * gyration));
  return leg.stands == LegStands::centre ? stopped : stopped / 2;
}

void leg_findings(const Design& d, const Leg& leg, Assessment& a, Collector& collect, std::string_view only) {
  const bool main = leg.role == LegRole::main;
  const Subject subject = about_leg(d, leg);
  // The loading that puts most on this leg; on the mains the heaviest.
  const LoadingState* heaviest = nullptr;
  size_t at_wheel = wheel_of(d, leg.id);
  if (main) {
    for (const auto& l : a.loadings)
      if (l.rest && (!heaviest || l.mass.down.mass > heaviest->mass.down.mass)) heaviest = &l;
    const size_t twin = at_wheel - 1;
    if (heaviest && leg.stands == LegStands::both_sides &&
        heaviest->rest->wheels[twin].load > heaviest->rest->wheels[at_wheel].load * (1 + 1e-9))
      at_wheel = twin;
  } else if (const Heaviest h = heaviest_on(d, a, leg); h.loading) {
    heaviest = h.loading;
    at_wheel = h.wheel;
  }
  if (!heaviest)  // it may hang clear in all of them
    for (const auto& l : a.loadings)
      if (l.rest && !heaviest) heaviest = &l;
  collect.about(subject, heaviest ? heaviest->name : "");
  if (!heaviest) {
    collect.unknown("spring.stroke", "the aircraft at rest on its wheels");
    return;
  }
  const auto& state = heaviest->rest->wheels[at_wheel];
  LegLanding landing{};
  landing.leg = leg.id;
  landing.sink_speed = landing.mass = std::nan("");
  landing.sag = leg.travel > 0 ? state.leg_closure / leg.travel : 0;

  const auto sink = sink_speed_by(d.landing.school, d, heaviest->mass.down.mass);
  const Landing& in = d.landing;
  if (const auto* missing = std::get_if<Text>(&sink)) {
    collect.unknown("spring.stroke", *missing);
  } else if (!in.lift_ratio.known() || !in.load_factor.known() || !in.tyre_efficiency.known() ||
             !leg.spring.efficiency.known()) {
    collect.unknown("spring.stroke",
                    Lacking("/landing/")
                        .number(in.lift_ratio, "lift_ratio", "the lift ratio of the design landing")
                        .number(in.load_factor, "ground_load_factor", "its load factor")
                        .number(in.tyre_efficiency, "tyre_efficiency", "the tyre's efficiency")
                        .that(!leg.spring.efficiency.known(),
                              entry(leg_root(leg.id) + "spring/efficiency", "the strut's efficiency"))
                        .text());
  } else {
    landing.sink_speed = std::get<double>(sink);
    collect.add("spring.sink_speed", landing.sink_speed);
    const double share = (main ? mains_share(d, *heaviest, at_wheel) : state.load) / standard_gravity;
    // Of mains in two lines one comes first and stops more than it carries at rest.
    const double first =
        main && lines_of(d.gear, LegRole::main).size() > 1 ? touching_first(d, *heaviest, leg) : std::nan("");
    landing.mass = first > share ? first : share;
    spring::StrokeInput input{landing.mass,
                              landing.sink_speed,
                              in.load_factor,
                              in.lift_ratio,
                              leg.spring.efficiency,
                              in.tyre_efficiency,
                              0};
    const auto& tyre = (*a.wheels)[at_wheel].tyre;
    const double wheels = (*a.wheels)[at_wheel].tyres();
    const auto squash = [&](double load) { return tyre.squash(load / wheels); };
    input.tyre_deflection = squash(input.load_factor * input.mass * standard_gravity);
    landing.stroke = spring::first_estimate(input);
    if (!landing.stroke) {
      auto& f = collect.unknown("spring.stroke", "a load factor above (1 − K)/η");
      f.remark = "no stroke is enough: the strut takes up less than the weight that is left";
    } else {
      auto& f = collect.add("spring.stroke", landing.stroke->strut_travel,
                            leg.carries() ? at_most(leg.travel, "the leg's travel") : Limit{});
      if (!leg.carries()) f.remark = "let down, not dropped: shown, not judged";
      f.working = {{"mass on the leg", landing.mass, Kind::mass},
                   {"sink speed", landing.sink_speed, Kind::speed},
                   {"load factor N", input.load_factor, Kind::factor},
                   {"lift ratio K", input.lift_ratio, Kind::factor},
                   {"strut efficiency", input.strut_efficiency, Kind::factor},
                   {"tyre deflection", input.tyre_deflection, Kind::length},
                   {"peak ground load", landing.stroke->peak_load, Kind::force}};
      f.assumption = "first estimate by energy; the drop decides";
      if (first > share) {
        f.working.push_back({"its share at rest", share, Kind::mass});
        f.assumption.also(
            "it meets the ground before the other line: mₑ = m/(1 + x²/k²), k 0.18 of the length");
      }
      if (const auto factor = spring::load_factor_for_travel(input, squash, leg.travel)) {
        auto& n = collect.add("spring.load_factor", *factor);
        n.working = {{"inertia load factor n = N + K", *factor + input.lift_ratio, Kind::factor}};
      }
    }
  }
  // Drop and bump take the starboard leg of a pair, with what the heavier side carries.
  const auto& wheel = (*a.wheels)[wheel_of(d, leg.id)];
  if (std::isfinite(landing.mass)) drop_findings(d, leg, wheel, landing, collect, a.steps);
  if (only.empty() || only.substr(0, 11) == "spring.bump")
    bump_findings(d, leg, landing, wheel, state.load, collect, a.steps);
  collect.about(subject, heaviest->name);
  if (leg.travel > 0) {
    switch (leg.spring.kind) {
      case SpringKind::coil:
        coils_findings(leg, wheel, subject, collect, heaviest->name);
        break;
      case SpringKind::gas:
        // The gas goes with the spring's closure, which on a hinged leg is not the axle's rise.
        collect.add("spring.gas_used",
                    leg.spring.gas.piston_area * wheel.leg.closure(wheel.leg.most).s / leg.spring.gas.volume,
                    at_most(0.95, "the gas must not be used up before the stop"));
        break;
      case SpringKind::gas_strut:
        gas_strut_findings(leg, wheel, collect);
        break;
      case SpringKind::pucks:
        puck_findings(leg, wheel, collect);
        break;
      case SpringKind::cord:
        cord_findings(leg, wheel, collect);
        break;
      case SpringKind::bending:
        bending_findings(d, leg, wheel, state, landing, collect);
        break;
      case SpringKind::linear:
      case SpringKind::leaf:
        break;
    }
  }
  a.landings.push_back(landing);

  if (leg.travel > 0) {
    const bool gas = leg.spring.kind == SpringKind::gas;
    auto& sag =
        collect.add("spring.sag", landing.sag,
                    leg.role == LegRole::outrigger           ? Limit{}  // it should hardly carry
                    : leg.spring.kind == SpringKind::bending ? Limit{}  // its stress is judged instead
                    : gas ? bands(0.40, 0.55, 0.75, 0.85, "gas oleos sit at about two thirds")
                          : bands(0.10, 0.25, 0.40, 0.50, "practice: 25–40 % of the travel"));
    sag.working = {{"closure at rest", state.leg_closure, Kind::length},
                   {"travel", leg.travel, Kind::length},
                   {"wheel load", state.load, Kind::force}};
    lever(d, leg, wheel, state, collect);
  }
  loops_aside(d, leg, collect);
  spring_parts(d, leg, wheel, state, landing, collect);
}

}  // namespace

void assess_spring(const Design& d, Assessment& a, Collector& collect, const Asked& asked) {
  const std::string_view only = asked.measure;
  for (const Leg& leg : d.gear.legs) leg_findings(d, leg, a, collect, only);
}

}  // namespace kranich
