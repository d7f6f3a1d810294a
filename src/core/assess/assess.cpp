// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/assess.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

#include "core/assess/circuit_state.h"
#include "core/assess/collector.h"
#include "core/assess/doors_state.h"
#include "core/assess/landing_state.h"
#include "core/assess/loading_state.h"
#include "core/assess/logic_state.h"
#include "core/assess/settle.h"
#include "core/assess/standing.h"
#include "core/assess/strength_state.h"
#include "core/assess/swing_state.h"
#include "core/base/numerics.h"
#include "core/model/moves.h"
#include "core/sequence/sequence.h"

namespace kranich {

Limit with_own(const std::vector<OwnLimit>& limits, std::string_view measure_id, Limit limit) {
  for (const auto& own : limits) {
    if (own.measure != measure_id) continue;
    limit.hold_lower.reset();
    limit.hold_upper.reset();
    if (own.lower.known()) limit.lower = own.lower;
    if (own.upper.known()) limit.upper = own.upper;
    limit.source = own.reason.empty() ? Text("your own limit") : say("your own limit: {}", own.reason);
  }
  return limit;
}

Finding& Collector::add(std::string_view measure_id, double value, Limit limit, double tolerance_effect) {
  const Measure& m = measure(measure_id);
  limit = with_own(design_.own_limits, measure_id, std::move(limit));
  Finding f;
  f.measure_id = measure_id;
  f.subject = subject_;
  f.loading = loading_;
  f.state = state_;
  f.value = value;
  const auto j = judge(value, limit, m.zero_scale, tolerance_effect);
  f.limit = std::move(limit);
  f.verdict = j.verdict;
  f.margin = j.margin;
  f.margin_fraction = j.margin_fraction;
  return findings_.emplace_back(std::move(f));
}

Finding& Collector::fails(std::string_view measure_id, Limit limit, Text why) {
  Finding& f = add(measure_id, std::numeric_limits<double>::quiet_NaN(), std::move(limit));
  f.verdict = Verdict::fails;
  f.remark = std::move(why);
  return f;
}

Finding& Collector::unknown(std::string_view measure_id, Text what_is_missing) {
  Finding& f = add(measure_id, std::numeric_limits<double>::quiet_NaN());
  f.remark = say("needs {}", std::move(what_is_missing));
  return f;
}

Assessment::Assessment() : lines(2) {}
Assessment::Assessment(const Assessment&) = default;
Assessment::Assessment(Assessment&&) noexcept = default;
Assessment& Assessment::operator=(const Assessment&) = default;
Assessment& Assessment::operator=(Assessment&&) noexcept = default;
Assessment::~Assessment() = default;

const sequence::Timeline& Assessment::line(bool up) const { return lines.at(up ? 0 : 1); }

const LoadingState* Assessment::find(const std::string& name) const {
  for (const auto& l : loadings)
    if (l.name == name) return &l;
  return nullptr;
}

const LoadingState* Assessment::loading(const std::string& name) const {
  const LoadingState* l = find(name);
  return l || loadings.empty() ? l : &loadings.front();
}

double mains_share(const Design& d, const LoadingState& l, size_t wheel) {
  // The mains carry everything, nose or tail clear; among themselves as they do at rest.
  double mains = 0;
  const auto placed = placed_legs(d.gear);
  int count = 0;
  for (size_t i = 0; i < placed.size(); ++i) {
    if (d.gear.legs[placed[i].row].role != LegRole::main) continue;
    ++count;
    mains += l.rest ? l.rest->wheels[i].load : 0;
  }
  const bool one_pair = count == 2 && lines_of(d.gear, LegRole::main).size() == 1;
  const double weight = l.mass.down.mass * standard_gravity;
  if (one_pair) return weight / 2;
  return l.rest && mains > 0 ? weight * l.rest->wheels[wheel].load / mains : std::nan("");
}

std::optional<double> shim_for_pitch(const Design& d, const std::string& name,
                                     const std::vector<size_t>& rows, double pitch) {
  const auto loading =
      std::find_if(d.loadings.begin(), d.loadings.end(), [&](const Loading& l) { return l.name == name; });
  if (loading == d.loadings.end() || rows.empty()) return std::nullopt;
  const auto miss = [&](double shim) {
    Design shimmed = d;
    shift_legs(shimmed, rows, 0, 0, -shim);
    const auto wheels = stance::wheels_of(shimmed);
    const auto* all = std::get_if<std::vector<stance::WheelOnLeg>>(&wheels);
    const auto mass = weigh::sum_loading(shimmed, *loading);
    if (!all || !mass.known()) return std::nan("");
    const auto rest = stance::solve(mass.down.mass, mass.down.at, *all);
    const auto* r = std::get_if<stance::Rest>(&rest);
    return r ? r->pitch - pitch : std::nan("");
  };
  double size = 0.01;
  for (const auto& leg : d.gear.legs)
    for (const auto& other : d.gear.legs) size = std::max(size, std::abs(leg.axle.x - other.axle.x));
  if (!std::isfinite(size)) return std::nullopt;
  return find_nearest_root(miss, 0, 0.01 * size, -0.5 * size, 0.5 * size);
}

//! Bench judges nothing of a design by itself: what it shows follows from the Book, which is none of it
//! (tasks/progress.h).
void assess_bench(const Design&, Assessment&, Collector&, const Asked&) {}

Stations Stations::only(Station station) {
#define KRANICH_STATION(id, title, uses) station_bit(Station::id) | (uses),
  constexpr std::array<unsigned, station_count> with{KRANICH_STATIONS(KRANICH_STATION)};
#undef KRANICH_STATION
  return {with[static_cast<size_t>(station)], {}, true};
}

namespace {

//! Place asks for places and masses: where springs or tyres are not known it judges the aircraft as it is
//! drawn, and says so. What hangs on them says itself what it lacks. False where it cannot stand even so.
bool place_as_drawn(const Design& design, const Text& missing, Assessment& a, const Stations& which) {
  const auto wheels = wheels_as_drawn(design);
  if (!wheels) return false;
  Assessment drawn;
  drawn.wheels = *wheels;
  drawn.loadings = a.loadings;
  bool stands = false;
  for (auto& l : drawn.loadings) {
    if (!l.mass.known()) continue;
    auto rest = stance::solve(l.mass.down.mass, l.mass.down.at, *wheels);
    if (auto* r = std::get_if<stance::Rest>(&rest)) {
      l.rest = std::move(*r);
      l.no_rest = {};
      stands = true;
    } else {
      l.no_rest = std::get<stance::NoRest>(std::move(rest)).reason;
    }
  }
  if (!stands) return false;
  Collector collect(design, drawn.findings);
  assess_place(design, drawn, collect, {which.measure, which.take_time});
  for (auto& f : drawn.findings) {
    // What has room as drawn may have none when the legs give; what has none as drawn has none.
    const bool clearance = f.measure_id.starts_with("place.propeller") || f.measure_id == "place.low_point" ||
                           f.measure_id == "place.wing_tip" || f.measure_id == "place.one_down";
    if (clearance && f.verdict != Verdict::fails && paths_in(f.remark).empty()) {
      f.verdict = Verdict::unknown;
      f.remark = std::isfinite(f.value)
                     ? say("needs {}; as drawn it is {}", missing, Amount{f.value, Kind::length})
                     : say("needs {}", missing);
      f.value = f.margin = f.margin_fraction = std::numeric_limits<double>::quiet_NaN();
    }
    f.assumption.also(
        say("as drawn, legs extended and tyres not squashed, since nothing is known of {}", missing));
    a.findings.push_back(std::move(f));
  }
  return true;
}

}  // namespace

Assessment assess(const Design& design, Stations which, const Assessment* near) {
  // A cure's trial, a corner of the tolerances: what follows from what they changed follows here too.
  if (std::any_of(design.gear.legs.begin(), design.gear.legs.end(),
                  [](const Leg& l) { return l.spring.kind == SpringKind::bending; })) {
    Design settled = design;
    if (settle(settled)) return assess(settled, which, near);
  }
  Assessment a;
  if (near) a.steps = Steps(&near->steps);
  Collector collect(design, a.findings);

  auto wheels = stance::wheels_of(design);
  const auto* missing = std::get_if<Text>(&wheels);
  if (!missing) a.wheels = std::get<std::vector<stance::WheelOnLeg>>(std::move(wheels));
  for (const auto& loading : design.loadings) {
    LoadingState state{loading.name, weigh::sum_loading(design, loading), {}, {}, loading.flown};
    if (!state.mass.known())
      state.no_rest = state.mass.problem;
    else if (missing)
      state.no_rest = *missing;
    else {
      const size_t at = a.loadings.size();
      const stance::Rest* start =
          near && at < near->loadings.size() && near->loadings[at].rest ? &*near->loadings[at].rest : nullptr;
      auto rest = stance::solve(state.mass.down.mass, state.mass.down.at, *a.wheels, start);
      if (auto* r = std::get_if<stance::Rest>(&rest))
        state.rest = std::move(*r);
      else
        state.no_rest = std::get<stance::NoRest>(std::move(rest)).reason;
    }
    a.loadings.push_back(std::move(state));
  }
  const bool placed_as_drawn =
      missing && which.has(Station::place) && place_as_drawn(design, *missing, a, which);
#define KRANICH_STATION(id, title, uses)                                             \
  if (which.has(Station::id) && !(placed_as_drawn && Station::id == Station::place)) \
    assess_##id(design, a, collect, {which.measure, which.take_time});
  KRANICH_STATIONS(KRANICH_STATION)
#undef KRANICH_STATION
  a.steps.done();
  return a;
}

namespace {
int rank(Verdict v) {
  switch (v) {
    case Verdict::fails:
      return 0;
    case Verdict::tight:
      return 1;
    case Verdict::unknown:
      return 2;
    case Verdict::holds:
      return 3;
    case Verdict::noted:
      return 4;
  }
  return 4;
}
}  // namespace

bool worse(const Finding& a, const Finding& b) {
  if (rank(a.verdict) != rank(b.verdict)) return rank(a.verdict) < rank(b.verdict);
  // A failure beyond numbers (it never rotates) is the worst of its kind.
  if (a.verdict == Verdict::fails && std::isnan(a.margin_fraction) != std::isnan(b.margin_fraction))
    return std::isnan(a.margin_fraction);
  const bool known = std::isfinite(a.margin_fraction) && std::isfinite(b.margin_fraction);
  return known && a.margin_fraction < b.margin_fraction;
}

std::vector<const Finding*> worst_of_each(const Assessment& a) {
  std::vector<const Finding*> list;
  std::map<std::pair<std::string_view, std::string_view>, size_t> seen;
  for (const auto& f : a.findings) {
    const auto [at, is_new] = seen.try_emplace({f.measure_id, f.subject.key}, list.size());
    if (is_new)
      list.push_back(&f);
    else if (worse(f, *list[at->second]))
      list[at->second] = &f;
  }
  std::stable_sort(list.begin(), list.end(),
                   [](const Finding* x, const Finding* y) { return worse(*x, *y); });
  return list;
}

}  // namespace kranich
