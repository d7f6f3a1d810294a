// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <cmath>

#include "core/assess/parts.h"
#include "core/base/numerics.h"
#include "core/force/bent_leg.h"
#include "core/force/materials.h"
#include "core/model/lacking.h"

namespace kranich {
namespace {

bool made_of_tubes(const Telescope& t) {
  return t.outer_diameter.known() || t.outer_length.known() || t.inner_diameter.known() ||
         t.inner_length.known();
}

//! The two tubes of a strut: how far they overlap when it is extended, whether the spring goes in, what may
//! be cut off.
void telescope(const Design& d, const Leg& leg, Collector& collect) {
  const Telescope& t = leg.spring.telescope;
  if (!made_of_tubes(t)) return;
  collect.about(about_leg(d, leg), "", GearState::extended);
  const double extended = (leg.axle.vec() - leg.held_at()).norm();
  if (!t.outer_length.known() || !t.inner_length.known() || !t.inner_diameter.known() ||
      !std::isfinite(extended)) {
    const std::string root = leg_root(leg.id);
    Lacking lacks(root + "spring/telescope/");
    lacks.number(t.outer_length, "outer_length_m", "the outer tube's length")
        .number(t.inner_length, "inner_length_m", "the inner tube's length")
        .number(t.inner_diameter, "inner_diameter_m", "the inner tube's diameter")
        .that(!std::isfinite(extended), "where the leg is held, and its axle");
    collect.unknown("spring.overlap", lacks.text());
  } else {
    const double overlap = t.outer_length + t.inner_length - extended;
    auto& f = collect.add(
        "spring.overlap", overlap / t.inner_diameter,
        at_least_or_tight(1.5, 2, "practice: two diameters and more in the guide, fully extended"));
    f.working = {{"overlap, extended", overlap, Kind::length},
                 {"from where it is held to the axle", extended, Kind::length}};
    if (overlap < 0) f.remark = "the tubes come apart before it is extended";
  }
  if (t.outer_diameter.known() && t.outer_wall.known() && t.inner_diameter.known()) {
    auto& f = collect.add(
        "spring.slide_play", t.outer_diameter - 2 * t.outer_wall - t.inner_diameter,
        bands(0, 0.00002, std::max(0.0005, 0.02 * t.inner_diameter), std::max(0.001, 0.04 * t.inner_diameter),
              "practice: it slides and does not rattle"));
    f.working = {{"outer tube's bore", t.outer_diameter - 2 * t.outer_wall, Kind::length},
                 {"inner tube", t.inner_diameter, Kind::length}};
  }
  const Coil& c = leg.spring.coil;
  if (leg.spring.kind == SpringKind::coil && c.mean_diameter.known() && c.wire_diameter.known()) {
    const double over = c.mean_diameter + c.wire_diameter;
    if (t.inner_diameter.known() && t.inner_wall.known()) {
      const double bore = t.inner_diameter - 2 * t.inner_wall;
      auto& f = collect.add(
          "spring.in_bore", bore - over,
          at_least_or_tight(0, 0.02 * over, "practice: a coil grows as it closes; 2 % of it free"));
      f.working = {{"bore of the inner tube", bore, Kind::length},
                   {"outside of the coil", over, Kind::length}};
    } else {
      collect.unknown("spring.in_bore",
                      Lacking(leg_root(leg.id) + "spring/telescope/")
                          .number(t.inner_diameter, "inner_diameter_m", "the inner tube's diameter")
                          .number(t.inner_wall, "inner_wall_m", "the inner tube's wall")
                          .text());
    }
    if (t.plugged.known() && std::isfinite(extended) && c.installed_length.known()) {
      auto& f = collect.add("spring.space", extended - t.plugged - c.installed_length,
                            at_least(0, "the spring stands between the plug and the upper end"));
      f.working = {{"between plug and upper end", extended - t.plugged, Kind::length},
                   {"spring as installed", c.installed_length, Kind::length}};
      if (f.value > 0) f.remark = say("a spacer of {} over the spring", Amount{f.value, Kind::length});
    }
  }
  if (t.plugged.known()) {
    const double thread = t.thread_depth.known() ? t.thread_depth.si : 0;
    auto& f = collect.add("spring.cut_left", t.plugged - thread,
                          at_least(0, "a thread that breaks into the bore holds nothing"));
    f.working = {{"solid at the lower end", t.plugged, Kind::length}, {"thread in it", thread, Kind::length}};
    f.remark = "to stand lower than that: the axle moved up the leg, not the leg cut";
  }
  if (t.thread.known() && t.thread_depth.known()) {
    auto& f = collect.add("spring.thread", t.thread_depth / t.thread,
                          at_least(1.5, "practice: one and a half diameters of thread in light metal"));
    f.working = {{"thread", t.thread, Kind::length}, {"depth", t.thread_depth, Kind::length}};
  }
}

//! The rings of rubber and the middle between them.
void bow_mount(const Design& d, const Leg& leg, double peak_load, Collector& collect) {
  const BentMount& m = leg.spring.bent.mount;
  if (!m.rings.known() && !m.through) return;
  const auto chain = force::bending_leg_of(leg, d.materials);
  const auto* bending = std::get_if<force::BendingLeg>(&chain);
  if (!bending) return;  // Stance says what is missing
  collect.about(about_leg(d, leg), "");
  double up = 0;  // of the middle, by what the rings give
  if (m.rings.known()) {
    const force::RingRates r = force::ring_rates(m);
    up = peak_load / r.vertical;
    auto& f =
        collect.add("spring.ring_crush", r.crush,
                    bands(0.05, 0.08, 0.20, 0.30, "rubber holds from a twelfth, lasts below a quarter"));
    f.working = {{"free", m.ring_thickness, Kind::length},
                 {"pressed into", m.slot, Kind::length},
                 {"rate up and down, one clamp", r.vertical, Kind::stiffness},
                 {"rate fore and aft, one clamp", r.sideways, Kind::stiffness},
                 {"gives in the design landing", up, Kind::length}};
  }
  if (!m.gap_above.known() && !m.gap_below.known()) {
    collect.unknown("spring.centre_gap",
                    Lacking(leg_root(leg.id) + "spring/bent/mount/")
                        .number(m.gap_above, "gap_above_m", "the gap free above the middle")
                        .number(m.gap_below, "gap_below_m", "the gap free below the middle")
                        .text());
    return;
  }
  if (!std::isfinite(peak_load)) return;
  double down = 0;
  double moment = 0;
  if (m.through) {
    // Both legs' moment bends the middle to an arc: a sagitta of θ·a/2 over the half span a.
    const double half = std::abs(bending->points.front().y());
    const auto bent = force::bend_each(*bending, {{Vec3(0, 0, peak_load)}});
    if (bent.empty()) return;
    moment = bent.front().root_moment;
    down = bending->root.about.x() * moment * half / 2;
  }
  const double below = m.gap_below.known() ? m.gap_below - std::max(0.0, down - up) : 1e9;
  const double above = m.gap_above.known() ? m.gap_above - up : 1e9;
  auto& f = collect.add("spring.centre_gap", std::min(below, above),
                        at_least(0, "what strikes its plate is no longer the spring it was reckoned as"));
  f.working = {{"load on a leg", peak_load, Kind::force},
               {"moment in the middle", moment, Kind::moment},
               {"the middle bows down by", down, Kind::length},
               {"the rings let it up by", up, Kind::length}};
  f.remark = below < above ? "below" : "above";
}

void wire_across(const Design& d, const Leg& leg, const LegLanding& landing, const stance::WheelOnLeg& wheel,
                 Collector& collect) {
  const BentLeg& b = leg.spring.bent;
  if (!b.cross_wire.diameter.known() || b.cross_wire_rate.known()) return;
  const auto chain = force::bending_leg_of(leg, d.materials);
  const auto* bending = std::get_if<force::BendingLeg>(&chain);
  if (!bending) return;
  const auto across = force::wire_across(b, *bending, d.materials);
  const auto* fitted = std::get_if<std::optional<force::WireAcross>>(&across);
  if (!fitted || !*fitted) return;
  const force::WireAcross& w = **fitted;
  const double rise = landing.drop && landing.drop->ended ? landing.drop->stroke_used : std::nan("");
  const double apart = 2 * w.post_per_axle * rise * wheel.leg.moved_per_rise.y();
  collect.about(about_leg(d, leg), "");
  const Material* steel = force::find_material(d.materials, force::cross_wire_material);
  const double allowed = force::allowable_of(*steel, b.cross_wire.diameter, false).yield;
  if (!std::isfinite(apart)) {
    collect.unknown("spring.cross_wire", "the design landing, followed to its end");
    return;
  }
  const double stress = std::abs(apart) * w.wire.stress_per_apart;
  if (!(stress > 0) || !std::isfinite(stress)) {
    collect.unknown("spring.cross_wire", "a landing that spreads the legs");
    return;
  }
  auto& f = collect.add("spring.cross_wire", allowed / stress - 1,
                        at_least(0, "a wire that takes a set pulls no leg back"));
  f.working = {
      {"posts apart", w.span, Kind::length},
      {"spread there in the landing", apart, Kind::length},
      {"pulled by", std::abs(apart) * w.wire.rate, Kind::force},
      {"stress in the middle of its arch", stress, Kind::stress},
      {"allowed", allowed, Kind::stress},
      {"rate at one axle", w.rate_at_axle(), Kind::stiffness},
      {"cut as long as, with its ends",
       w.span + 8 * b.cross_wire.rise * b.cross_wire.rise / (3 * w.span) + 10 * b.cross_wire.diameter,
       Kind::length}};
  f.assumption = "an arch between pinned ends; music wire: confirm with your supplier";
}

//! The hole that takes a wire's end: opened with every size of wire.
void wire_hole(const Design& d, const Leg& leg, Collector& collect) {
  const BentLeg& b = leg.spring.bent;
  if (b.form != BentForm::wire || !b.mount_bore.known() || !b.wire_diameter.known()) return;
  collect.about(about_member(d, leg, "hole that takes the wire"), "", GearState::extended);
  judge_fit(b.wire_diameter, b.mount_bore, "wire", "hole", collect);
}

//! The rate that the spring between a hinged leg's anchors needs for its sag, without preload.
void rate_wanted(const Design& d, const Leg& leg, const stance::WheelOnLeg& wheel, double load,
                 Collector& collect) {
  if (wheel.leg.path != force::Suspension::Path::hinged || !leg.spring.anchor_leg.known() ||
      !(leg.travel > 0) || !(load > 0))
    return;
  const auto rate_for = [&](double sag) {
    const auto rise = [&](double q) {
      return wheel.leg.at(q).axle.z() - wheel.leg.axle.z() - sag * leg.travel;
    };
    const auto q = find_root(rise, 0, wheel.leg.most);
    if (!q) return std::nan("");
    const auto closure = wheel.leg.closure(*q);
    return load * wheel.leg.at(*q).axle_1.z() / closure.s_1 / closure.s;
  };
  collect.about(about_leg(d, leg), "");
  auto& f = collect.add("spring.rate_wanted", std::abs(rate_for(0.33)));
  f.working = {{"for a sag of 25 %", std::abs(rate_for(0.25)), Kind::stiffness},
               {"for a sag of 40 %", std::abs(rate_for(0.40)), Kind::stiffness},
               {"wheel load", load, Kind::force}};
  f.assumption = "no preload: with one, less rate by as much";
}

//! What was hung on it in steps, against what the design landing will.
void proof_load(const Design& d, const Leg& leg, double at_rest, Collector& collect) {
  if (!(at_rest > 0)) return;
  double held = 0;
  double broke = std::numeric_limits<double>::infinity();
  std::string where;
  int steps = 0;
  for (const auto& r : d.spring_bench.readings) {
    if (r.leg != leg.id || !r.load.known()) continue;
    ++steps;
    if (r.broke.empty()) {
      held = std::max(held, r.load.si);
    } else if (r.load < broke) {
      broke = r.load;
      where = r.broke;
    }
  }
  held = std::min(held, broke);
  if (steps == 0 || !(held > at_rest || std::isfinite(broke))) return;  // readings of its rate, no proof
  const Given& wanted = d.landing.load_factor;
  collect.about(about_leg(d, leg), "");
  Limit limit;
  if (std::isfinite(broke) && wanted.known()) limit = at_least(wanted, "what the design landing puts on it");
  auto& f = collect.add("spring.proof", held / at_rest, limit);
  f.working = {{"held", held, Kind::force}, {"at rest", at_rest, Kind::force}};
  if (wanted.known())
    f.working.push_back({"what the design landing puts on it, times", wanted, Kind::factor});
  if (std::isfinite(broke)) {
    f.working.push_back({"gave way at", broke, Kind::force});
    f.remark = say("{}: a stronger leg, and its steps again", where);
  } else if (wanted.known() && held / at_rest < wanted) {
    f.remark = "not yet hung on as much as the design landing puts on it";
  }
}

}  // namespace

void spring_parts(const Design& d, const Leg& leg, const stance::WheelOnLeg& wheel,
                  const stance::WheelState& state, const LegLanding& landing, Collector& collect) {
  telescope(d, leg, collect);
  rate_wanted(d, leg, wheel, state.load, collect);
  proof_load(d, leg, state.load, collect);
  if (leg.spring.kind != SpringKind::bending) return;
  const double peak =
      landing.drop && landing.drop->ended ? wheel.leg.law.rate * landing.drop->stroke_used : std::nan("");
  bow_mount(d, leg, peak, collect);
  wire_across(d, leg, landing, wheel, collect);
  wire_hole(d, leg, collect);
}

void bow_by_experience(const Design& d, const Leg& leg, double mass, Collector& collect) {
  const BentLeg& b = leg.spring.bent;
  if (b.form != BentForm::bow || b.line.empty() || !b.line.front().width.known()) return;
  const double width = b.line.front().width;
  // Ply-metres of root width a kilogram, of those that held and those that did not.
  double held = std::numeric_limits<double>::infinity();
  double gave = 0;
  size_t known = 0;
  for (const auto& p : d.spring_bench.proven) {
    if (!p.mass.known() || !p.plies.known() || !p.root_width.known()) continue;
    const double factor = p.plies * p.root_width / p.mass;
    ++known;
    if (p.held)
      held = std::min(held, factor);
    else
      gave = std::max(gave, factor);
  }
  const auto seed = force::bow_seed(mass, width);
  const bool calibrated = std::isfinite(held) || gave > 0;
  double least = seed.plies_low;
  if (calibrated) least = (std::isfinite(held) && held > gave ? held : gave) * mass / width;
  auto& f = collect.add("spring.bow_seed", least);
  f.working = {{"by the rule of thumb, from", seed.plies_low, Kind::factor},
               {"up to", seed.plies_high, Kind::factor}};
  if (b.plies.known()) {
    f.working.push_back({"laid up", b.plies, Kind::factor});
    f.working.push_back(
        {"root width that these plies want, at least", least * width / b.plies, Kind::length});
  }
  // Practice on heavier aircraft: rather a wider leg than more plies than pounds.
  constexpr double pound = 0.45359237;
  f.working.push_back({"root width for a ply a pound", least * width / (mass / pound), Kind::length});
  if (calibrated) {
    f.working.push_back({"bows of your own it is calibrated by", static_cast<double>(known), Kind::factor});
    f.remark = std::isfinite(held)
                   ? gave >= held ? Text(
                                        "your own bows contradict each other: one held with less than one "
                                        "that gave way; the stronger is taken")
                                  : Text("by your own bows")
                   : Text("by your own bows that gave way: more than this");
  } else {
    f.remark = "a seed only: beam theory decides";
  }
  if (!calibrated || !b.plies.known()) return;
  auto& off =
      collect.add("spring.bow_proven", b.plies / least,
                  std::isfinite(held) && held > gave
                      ? at_least_or_tight(gave / held, 1, "between your own that gave way and that held")
                      : at_least(1, "your own that gave way"));
  off.working = {{"laid up", b.plies, Kind::factor}, {"your own need", least, Kind::factor}};
}

}  // namespace kranich
