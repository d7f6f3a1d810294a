// SPDX-License-Identifier: GPL-3.0-or-later
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/assess/assess.h"
#include "core/assess/collector.h"
#include "core/assess/loading_state.h"
#include "core/weigh/parts.h"

namespace kranich {
namespace {

Limit between_given(const Given& lower, const Given& upper, const char* source) {
  Limit l;
  if (lower.known()) l.lower = lower;
  if (upper.known()) l.upper = upper;
  l.source = source;
  return l;
}

void compare_with_scales(const Design& d, const Assessment& a, Collector& collect) {
  const Weighing& w = d.weighing;
  if (std::none_of(w.scales.begin(), w.scales.end(), [](const auto& s) { return s.reading.known(); }))
    return;  // not weighed yet: nothing to compare
  collect.about("", w.loading);
  const LoadingState* ledger = a.find(w.loading);
  const auto scales = weigh::on_scales(d);
  const Text missing = !scales.mass            ? scales.missing
                       : !ledger               ? Text("the loading that the weighing compares with")
                       : !ledger->mass.known() ? ledger->mass.problem
                                               : Text();
  if (!missing.empty()) {
    collect.unknown("weigh.scales_mass", missing);
    return;
  }
  const auto& mass = ledger->mass.down;
  auto& by_mass = collect.add("weigh.scales_mass", scales.mass->mass - mass.mass,
                              within(-0.01 * mass.mass, 0.01 * mass.mass, "1 % of the mass"));
  by_mass.working = {{"scales", scales.mass->mass, Kind::mass}, {"ledger", mass.mass, Kind::mass}};
  auto& by_cg =
      collect.add("weigh.scales_cg", scales.mass->at.x() - mass.at.x(),
                  within(-0.005 * scales.base, 0.005 * scales.base, "half a per cent of the wheelbase"));
  by_cg.working = {{"CG from the scales", scales.mass->at.x(), Kind::length},
                   {"CG of the ledger", mass.at.x(), Kind::length}};
  by_cg.assumption = "weighed level, contacts below the axles";
}

void by_tilting(const Design& d, const Assessment& a, Collector& collect) {
  const Weighing& w = d.weighing;
  if (!w.tilted_third.known() && !w.tilt_pitch.known()) return;
  collect.about("", w.loading);
  const auto level = weigh::on_scales(d);
  const Text missing = !level.mass                   ? level.missing
                       : !w.tilted_third.known()     ? Text("what the raised end's scales say, tilted")
                       : !w.tilt_pitch.known()       ? "the pitch it was tilted to"
                       : !w.third_above_main.known() ? "the raised axle's height above the other, level"
                       : !w.main_axle_height.known() ? "the main axle's height above the ground, level"
                       : !level.two_lines ? "scales in two lines: the raised end, and one that it turns about"
                                          : Text();
  if (!missing.empty()) {
    collect.unknown("weigh.tilt_height", missing);
    return;
  }
  if (std::abs(w.tilt_pitch) < radians(0.2)) {
    collect.unknown("weigh.tilt_height", "a tilt: level and tilted readings are the same thing here");
    return;
  }
  const auto t = weigh::cg_height_by_tilt(
      {level.raised.load, level.others.load / 2, level.others.load / 2, w.tilted_third - level.raised.tare,
       w.tilt_pitch, level.others.x - level.raised.x, w.third_above_main, w.main_axle_height, w.reading_error,
       w.pitch_error, level.raised.scales, level.others.scales});
  Limit limit;
  const LoadingState* ledger = a.find(w.loading);
  if (ledger && ledger->mass.known() && w.main_axle_z.known()) {
    const double says = ledger->mass.down.at.z() - w.main_axle_z + w.main_axle_height;
    limit = within(says - 2 * t.standard_error, says + 2 * t.standard_error,
                   "the ledger's height, give or take two standard errors");
  }
  auto& f = collect.add("weigh.tilt_height", t.cg_above_ground, limit);
  f.working = {{"standard error", t.standard_error, Kind::length},
               {"above the main axle", t.cg_above_main_axle, Kind::length},
               {"pitch", w.tilt_pitch, Kind::angle}};
  if (std::abs(w.tilt_pitch) < radians(5))
    f.remark = "the tilt is below 5°: this height is a small difference of large numbers, do not trust it";
  f.assumption = "legs blocked, wheels free to roll, reactions below the axles";
}

void over_everything(const Design& d, Collector& collect) {
  const auto e = weigh::cg_extremes(d);
  if (!e) return;
  const Limit range =
      between_given(d.airframe.cg_forward_limit, d.airframe.cg_aft_limit, "designer's CG range");
  collect.about("", "", GearState::extended);
  auto& fore = collect.add("weigh.cg_foremost", e->foremost.x, range);
  fore.remark = e->foremost.with;
  fore.working = {{"mass then", e->foremost.mass, Kind::mass}};
  auto& aft = collect.add("weigh.cg_aftmost", e->aftmost.x, range);
  aft.remark = e->aftmost.with;
  aft.working = {{"mass then", e->aftmost.mass, Kind::mass}};
}

//! Whether both ends of every slide are flown in some loading.
void tray_ends(const Design& d, Collector& collect) {
  for (const auto& item : d.ledger) {
    if (!item.slides || !item.slides_from.known() || !item.slides_to.known()) continue;
    const double near = 0.05 * std::abs(item.slides_to - item.slides_from) + 1e-9;
    bool ends[2] = {false, false};
    for (const auto& l : d.loadings)
      for (const auto& a : l.aboard) {
        if (!l.flown || a.item != item.name) continue;
        const double x = a.x.known() ? a.x.si : item.at.x.si;
        ends[0] = ends[0] || std::abs(x - item.slides_from) < near;
        ends[1] = ends[1] || std::abs(x - item.slides_to) < near;
      }
    collect.about(Subject{item.name, "item:" + item.name, {}}, "", GearState::extended);
    auto& f = collect.add("weigh.tray_ends", ends[0] + ends[1],
                          bands(0, 2, 2, 2, "practice: both extremes, not the middle"));
    f.working = {{"foremost", item.slides_from, Kind::length}, {"aftmost", item.slides_to, Kind::length}};
    if (item.group != Group::load)
      f.remark = "only an item of the group load can lie elsewhere in one loading than in another";
    else if (f.value < 2)
      f.remark = "loadings with it at its ends are judged like all others";
  }
}

//! Of parts for one place, what the one taken weighs more than the lightest.
void parts_taken(const Design& d, const Assessment& a, Collector& collect) {
  const LoadingState* l = a.loadings.empty() ? nullptr : &a.loadings.front();
  const bool known = l && l->mass.known();
  for (const auto& g : weigh::part_groups(d, known ? l->mass.down.mass : std::nan(""),
                                          known ? l->mass.down.at.x() : std::nan(""))) {
    if (g.taken == weigh::PartGroup::none || g.offers.size() < 2) continue;
    const auto& taken = g.offers[g.taken];
    collect.about(Subject{g.for_what, "part:" + g.for_what, {}}, "", GearState::extended);
    if (!std::isfinite(taken.mass) || !std::isfinite(g.offers[0].mass)) {
      collect.unknown("weigh.parts", "the mass of the part taken");
      continue;
    }
    auto& f = collect.add("weigh.parts", taken.mass - g.offers[0].mass);
    for (const auto& o : g.offers) f.working.push_back({Text(d.parts[o.row].name), o.mass, Kind::mass});
    f.remark = d.parts[taken.row].name;
  }
}

void against_target(const Design& d, Collector& collect) {
  if (!d.airframe.target_empty_mass.known()) return;
  double weighed = 0;
  double estimated = 0;
  double squares = 0;
  double worst = 0;
  for (const auto& i : d.ledger) {
    if (i.group == Group::load) continue;
    collect.about("", "", GearState::extended);
    if (!i.mass.known()) {
      collect.unknown("weigh.empty_mass", say("the mass of “{}”", i.name));
      return;
    }
    (i.weighed ? weighed : estimated) += i.mass;
    squares += i.mass.tolerance * i.mass.tolerance;
    worst += i.mass.tolerance;
  }
  Limit target = at_most(d.airframe.target_empty_mass, "what it was designed to");
  target.hold_upper = d.airframe.target_empty_mass - std::sqrt(squares);
  auto& f = collect.add("weigh.empty_mass", weighed + estimated, target, std::sqrt(squares));
  f.working = {{"weighed", weighed, Kind::mass},
               {"estimated", estimated, Kind::mass},
               {"spread, root sum square", std::sqrt(squares), Kind::mass},
               {"spread, worst case", worst, Kind::mass}};
}

}  // namespace

void assess_weigh(const Design& d, Assessment& a, Collector& collect, const Asked&) {
  if (a.loadings.empty()) {
    collect.about("");
    collect.unknown("weigh.mass", "a loading");
  }
  const auto panels = weigh::wing_panels(d.airframe.wing);
  for (const auto& l : a.loadings) {
    collect.about("", l.name, GearState::extended);
    if (!l.mass.known()) {
      collect.unknown("weigh.mass", l.mass.problem);
      collect.unknown("weigh.cg_station", l.mass.problem);
      continue;
    }
    const auto& m = l.mass;
    auto& mass =
        collect.add("weigh.mass", m.down.mass, between_given({}, d.airframe.mass_limit, "designer's limit"),
                    m.spread.spread_root_sum_square);
    mass.working = {{"weighed", m.spread.weighed_mass, Kind::mass},
                    {"estimated", m.spread.estimated_mass, Kind::mass},
                    {"spread, root sum square", m.spread.spread_root_sum_square, Kind::mass},
                    {"spread, worst case", m.spread.spread_worst, Kind::mass}};
    Limit range;
    if (l.flown)
      range = between_given(d.airframe.cg_forward_limit, d.airframe.cg_aft_limit, "designer's CG range");
    const double spread =
        std::max(m.spread.cg_x_aftmost - m.down.at.x(), m.down.at.x() - m.spread.cg_x_foremost);
    auto& cg = collect.add("weigh.cg_station", m.down.at.x(), range, spread);
    cg.working = {{"Σ mᵢ·xᵢ / m", m.down.at.x(), Kind::length},
                  {"foremost by estimates", m.spread.cg_x_foremost, Kind::length},
                  {"aftmost by estimates", m.spread.cg_x_aftmost, Kind::length}};
    if (std::any_of(d.gear.legs.begin(), d.gear.legs.end(),
                    [](const Leg& leg) { return leg.retraction.fitted; })) {
      auto& up = collect.add("weigh.cg_station_up", m.up.at.x(), range, spread);
      up.working = {{"gear down", m.down.at.x(), Kind::length},
                    {"shift", m.up.at.x() - m.down.at.x(), Kind::length}};
    }
    collect.add("weigh.cg_waterline", m.down.at.z());
    if (std::abs(m.down.at.y()) > 1e-6) collect.add("weigh.cg_side", m.down.at.y());
    if (!panels.empty()) {
      const auto chord = weigh::mean_aerodynamic_chord(d.airframe.wing.root_leading_edge_x, panels);
      auto& mac = collect.add("weigh.cg_mac", chord.percent(m.down.at.x()) / 100);
      mac.working = {{"mean chord", chord.mean_chord, Kind::length},
                     {"its leading edge", chord.leading_edge_x, Kind::length}};
    }
    collect.add("weigh.estimated_share", m.spread.estimated_mass / m.down.mass);
  }
  over_everything(d, collect);
  tray_ends(d, collect);
  parts_taken(d, a, collect);
  against_target(d, collect);
  compare_with_scales(d, a, collect);
  by_tilting(d, a, collect);
}

}  // namespace kranich
