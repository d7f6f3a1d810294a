// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/air_state.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

#include "core/assess/drive_state.h"
#include "core/drive/load.h"
#include "core/model/lacking.h"

namespace kranich {
namespace {

constexpr double endless = std::numeric_limits<double>::infinity();
constexpr int most_cycles = 40;
constexpr const char* root = "/circuit/air/";

double round_area(double bore) { return std::numbers::pi / 4 * bore * bore; }

//! What the tubes of a leg's side hold.
double tubes_of(const AirSupply& a, const std::string& leg, bool up) {
  double v = 0;
  for (const AirTube& p : a.tubes)
    if (p.leg == leg && (p.side == PipeSide::up) == up && p.length.known() && p.bore.known())
      v += round_area(p.bore) * p.length;
  return v;
}

//! What the ways of a leg on air follow from.
struct LegOnAir {
  std::string id;
  Text word;
  bool pair = false;
  AirActs acts = AirActs::both_ways;
  double bore = 0, rod = 0;
  drive::Strut strut{};
  drive::LegLoad load;
  double inertia = 0;
  Text without_air;
  bool operator==(const LegOnAir& o) const {
    return id == o.id && pair == o.pair && acts == o.acts && bore == o.bore && rod == o.rod &&
           strut == o.strut && load == o.load && inertia == o.inertia && without_air == o.without_air;
  }
};

std::variant<AirLegWay, Text> way_of(const LegOnAir& leg, const AirSupply& air, bool up) {
  const drive::Strut& strut = leg.strut;
  const auto& moves = leg.load.moves;
  const double full = moves.full_turn;
  const double starts = drive::length_of(moves, strut, up ? 0 : full);
  const double ends = drive::length_of(moves, strut, up ? full : 0);
  const bool extends = ends > starts;
  const double piston = round_area(leg.bore);
  const double annulus = piston - round_area(leg.rod);
  AirLegWay w{};
  w.leg = leg.id;
  w.up = up;
  w.count = leg.pair ? 2 : 1;
  w.area_in = extends ? piston : annulus;
  w.area_out = extends ? annulus : piston;
  if (leg.acts == (up ? AirActs::down_only : AirActs::up_only)) w.area_in = 0;
  if (leg.acts == (up ? AirActs::up_only : AirActs::down_only)) w.area_out = 0;
  w.length = std::abs(ends - starts);
  w.dead_in = tubes_of(air, leg.id, up) + air_in_ends * w.area_in * w.length;
  w.dead_out = tubes_of(air, leg.id, !up) + air_in_ends * w.area_out * w.length;
  w.travel = full;
  w.inertia = leg.inertia;
  w.without_air = leg.without_air;
  const drive::LegLoad still = on_jacks(leg.load);
  for (size_t i = 0; i <= air_shares; ++i) {
    const double share = static_cast<double>(i) / air_shares;
    const double turn = full * (up ? share : 1 - share);
    const double arm = drive::arm_of(moves, strut, turn);
    if ((arm > 0) != (drive::arm_of(moves, strut, full / 2) > 0))
      return say("a cylinder of the {} without a dead centre on its way", leg.word);
    w.strokes.push_back(std::abs(drive::length_of(moves, strut, turn) - starts));
    w.arms.push_back(std::max(std::abs(arm), 1e-6));
    for (const bool in_air : {false, true}) {
      const drive::LegLoad& l = in_air ? leg.load : still;
      w.torques[in_air].push_back(up ? l.to_retract(turn) : l.to_extend(turn));
    }
  }
  return w;
}

//! One way followed in time.
struct AirFollowed {
  struct From {
    AirLegWay way;
    bool in_air = false;
    double hole_in = 0, hole_out = 0, supply = 0, left = 0, outside = 0;
    bool operator==(const From&) const = default;
  };
  using Made = circuit::AirRun;
  static Made make(const From& f) {
    const AirLegWay& w = f.way;
    circuit::AirWay way{};
    way.area_in = w.area_in;
    way.area_out = w.area_out;
    way.dead_in = w.dead_in;
    way.dead_out = w.dead_out;
    way.hole_in = f.hole_in;
    way.hole_out = f.hole_out;
    way.supply = f.supply;
    way.ambient = f.outside;
    way.left_in = f.left;
    way.travel = w.travel;
    way.inertia = w.inertia;
    way.stroke = [&](double q) { return kept_at(w.strokes, q); };
    way.arm = [&](double q) { return kept_at(w.arms, q); };
    way.resists = [&](double q) { return kept_at(w.torques[f.in_air], q); };
    return circuit::air_run(way, 15);
  }
};

}  // namespace

double kept_at(const std::vector<double>& list, double share) {
  const double x = std::clamp(share, 0.0, 1.0) * static_cast<double>(list.size() - 1);
  const auto i = std::min(static_cast<size_t>(x), list.size() - 2);
  return list[i] + (x - static_cast<double>(i)) * (list[i + 1] - list[i]);
}

double AirLegWay::needs(size_t share, bool in_air) const {
  const double torque = torques[in_air][share];
  if (area_in > 0) return torque / arms[share] / area_in;
  return torque > 0 ? endless : -endless;
}

bool AirLegWay::hardest_in_air() const {
  double most[2]{-endless, -endless};
  for (size_t i = 0; i <= air_shares; ++i)
    for (const bool in_air : {false, true}) most[in_air] = std::max(most[in_air], torques[in_air][i]);
  return most[1] > most[0];
}

double AirPlan::at_share(bool up, size_t share, double before) const {
  double volume = 0;
  for (const AirLegWay& w : ways)
    if (w.up == up && w.area_in > 0) volume += w.count * (w.dead_in + w.area_in * w.strokes[share]);
  return circuit::behind_regulator(bottle, circuit::bottle_after(bottle, before + bottle.ambient, volume)) -
         bottle.ambient;
}

double AirPlan::after(bool up, double before) const {
  double volume = 0;
  for (const AirLegWay& w : ways)
    if (w.up == up && w.area_in > 0) volume += w.count * (w.dead_in + w.area_in * w.length);
  return circuit::bottle_after(bottle, before + bottle.ambient, volume) - bottle.ambient;
}

double AirPlan::before_last(bool up) const {
  double p = starts;
  for (int i = 0; i < 2 * wanted - (up ? 2 : 1); ++i) p = after(i % 2 == 0, p);
  return p;
}

namespace {

//! A stroke that begins with so much in the bottle.
AirStroke stroke_from(const AirPlan& plan, bool up, double before) {
  AirStroke s{up, before, plan.after(up, before), endless, 0, {}};
  for (size_t i = 0; i <= air_shares; ++i) {
    const double there = plan.at_share(up, i, before);
    for (const AirLegWay& w : plan.ways) {
      if (w.up != up) continue;
      const double needs = w.needs(i, true);
      const double spare = needs > 0 ? (std::isfinite(needs) ? there / needs - 1 : -1) : endless;
      if (spare < s.spare) {
        s.spare = spare;
        s.needs = needs;
        s.leg = w.leg;
      }
    }
  }
  return s;
}

}  // namespace

Text AirPlan::without_air() const {
  Text all;
  for (const AirLegWay& w : ways)
    if (w.up) all.also(w.without_air);
  return all;
}

bool AirPlan::goes(double from, int so_many) const {
  double p = from;
  for (int i = 0; i < 2 * so_many; ++i) {
    const AirStroke s = stroke_from(*this, i % 2 == 0, p);
    if (s.spare < 0) return false;
    p = s.after;
  }
  return true;
}

AirInHand air_in_hand(const AirPlan& plan, const std::string& leg) {
  AirInHand least;
  least.spare = endless;
  for (const AirLegWay& w : plan.ways) {
    if (w.leg != leg) continue;
    const double before = plan.before_last(w.up);
    for (size_t i = 0; i <= air_shares; ++i) {
      const double there = plan.at_share(w.up, i, before);
      for (const bool in_air : {true, false}) {
        const double needed = w.needs(i, in_air);
        if (!(needed > 0)) continue;
        const double spare = std::isfinite(needed) ? there / needed - 1 : -1;
        if (least.way && spare >= least.spare) continue;
        const double share = static_cast<double>(i) / air_shares;
        least = {spare, needed, there, w.travel * (w.up ? share : 1 - share), w.arms[i], &w, in_air};
      }
    }
  }
  return least;
}

bool moved_by_air(const Design& d) {
  return std::any_of(d.gear.legs.begin(), d.gear.legs.end(), [](const Leg& l) {
    return l.retraction.fitted && l.retraction.drive.kind == DriveKind::air;
  });
}

namespace {

//! All of it, from what the legs ask for and what the bottle gives.
struct AirPlanned {
  struct From {
    std::vector<LegOnAir> legs;
    AirSupply air;
    bool operator==(const From&) const = default;
  };
  using Made = std::variant<AirPlan, Text>;
  static Made make(const From& from) {
    const AirSupply& a = from.air;
    AirPlan plan;
    plan.bottle = {a.bottle, a.outside, a.regulated.known() ? a.regulated + a.outside : endless};
    plan.filled = plan.starts = a.filled;
    if (a.test_fall.known() && a.test_time.known() && a.test_fall < a.filled)
      plan.leaks = std::log(a.filled / (a.filled - a.test_fall)) / a.test_time;
    if (a.wait.known()) plan.starts *= std::exp(-plan.leaks * a.wait);
    plan.wanted_given = a.wanted_cycles.known();
    plan.wanted = plan.wanted_given ? static_cast<int>(std::lround(a.wanted_cycles.si)) : 2;
    for (const LegOnAir& leg : from.legs)
      for (const bool up : {true, false}) {
        auto made = way_of(leg, a, up);
        if (auto* missing = std::get_if<Text>(&made)) return std::move(*missing);
        plan.ways.push_back(std::get<AirLegWay>(std::move(made)));
      }
    double p = plan.starts;
    for (int i = 0; i < 2 * most_cycles; ++i) {
      plan.strokes.push_back(stroke_from(plan, i % 2 == 0, p));
      if (plan.strokes.back().spare < 0) break;
      p = plan.strokes.back().after;
      plan.cycles = (i + 1) / 2;
    }
    return plan;
  }
};

}  // namespace

std::variant<AirPlan, Text> air_plan(const Design& d, Steps* steps) {
  const AirSupply& a = d.circuit.air;
  Lacking lacks(root);
  lacks.number(a.bottle, "bottle_m3", "the bottle's volume")
      .number(a.filled, "filled_Pa", "the pressure it is filled to")
      .number(a.outside, "outside_Pa", "the pressure of the air outside");
  if (!lacks.nothing()) return lacks.text();
  AirPlanned::From from;
  from.air = a;
  for (const Leg& leg : d.gear.legs) {
    const Drive& r = leg.retraction.drive;
    if (!leg.retraction.fitted || r.kind != DriveKind::air) continue;
    auto made = drive_load(d, leg);
    if (auto* missing = std::get_if<Text>(&made)) return std::move(*missing);
    auto& found = std::get<DriveLoad>(made);
    if (const Text missing = cylinder_lacks(leg); !missing.empty())
      return say("of the {}: {}", d.leg_word(leg), missing);
    from.legs.push_back({leg.id, d.leg_word(leg), leg.stands == LegStands::both_sides, r.air_acts, r.bore,
                         r.rod, *actuator_of(leg), std::move(found.load), found.inertia, found.without_air});
  }
  return steps ? steps->get<AirPlanned>(std::move(from)) : AirPlanned::make(from);
}

std::variant<circuit::AirRun, Text> air_way_run(const Design& d, const AirPlan& plan, const AirLegWay& w,
                                                bool full, bool in_air, Steps& steps) {
  const AirSupply& a = d.circuit.air;
  Lacking lacks(root);
  lacks.number(a.valve_bore, "valve_bore_m", "the valve's narrowest bore")
      .number(a.coefficient, "coefficient", "the flow coefficient");
  if (!lacks.nothing()) return lacks.text();
  const Given& restrictor = w.up ? a.up_bore : a.down_bore;
  // A tube is as much of a hole as a valve where it is the narrower.
  const auto hole = [&](bool up_side, double bore) {
    for (const AirTube& p : a.tubes)
      if (p.leg == w.leg && (p.side == PipeSide::up) == up_side && p.bore.known())
        bore = std::min(bore, p.bore.si);
    return a.coefficient * round_area(bore);
  };
  AirFollowed::From from;
  from.way = w;
  from.in_air = in_air;
  from.hole_in = hole(w.up, a.valve_bore);
  from.hole_out =
      hole(!w.up, restrictor.known() ? std::min(restrictor.si, a.valve_bore.si) : a.valve_bore.si);
  const double before = full ? plan.starts : plan.before_last(w.up);
  // What the bottle gives at the end of the stroke, the whole way: it falls on it, the last of it counts.
  const double gives = full ? before : plan.after(w.up, before);
  from.supply = circuit::behind_regulator(plan.bottle, gives + plan.bottle.ambient);
  from.left = circuit::behind_regulator(plan.bottle, before + plan.bottle.ambient);
  from.outside = plan.bottle.ambient;
  return steps.get<AirFollowed>(std::move(from));
}

}  // namespace kranich
