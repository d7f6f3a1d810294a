// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/leg_times.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/assess/circuit_state.h"
#include "core/assess/drive_state.h"
#include "core/motion/retract.h"

namespace kranich {
namespace {

constexpr double nan = std::numeric_limits<double>::quiet_NaN();
constexpr sequence::Travel unknown{nan, nan, nan};

struct BothWays {
  sequence::Travel up = unknown, down = unknown;
};

//! A time with its quickest and slowest; what is not known or not finite of these is left out, and without
//! the time itself there is nothing.
sequence::Travel travel(double time, double quickest, double slowest) {
  if (!std::isfinite(time) || !(time > 0)) return unknown;
  const auto factor = [&](double t) { return std::isfinite(t) && t > 0 ? t / time : nan; };
  return {time, factor(quickest), factor(slowest)};
}

BothWays of_motor(const Design& d, const Leg& leg, Steps& steps) {
  const auto made = drive_load(d, leg);
  const auto* load = std::get_if<DriveLoad>(&made);
  const auto takes = load ? driven_times(d, leg, *load, steps) : std::nullopt;
  if (!takes) return {};
  const bool spread = takes->lacking.empty();
  return {travel(takes->up, takes->up_quickest, spread ? takes->up_lowest : nan),
          travel(takes->down, takes->down_quickest, spread ? takes->down_lowest : nan)};
}

BothWays of_cylinder(const Design& d, const Leg& leg, Assessment& a) {
  BothWays both;
  const Electrics& e = d.circuit.electrics;
  const CylinderWays& on_pump = cylinder_ways(d, a);
  for (const bool up : {true, false}) {
    double time = 0;
    double quickest = std::numeric_limits<double>::infinity();
    double slowest = 0;
    int found = 0;
    for (const CylinderWay& w : on_pump.ways) {
      if (w.leg != leg.id || w.up != up) continue;
      ++found;
      const auto takes = [](const circuit::StrokeFigures& f) {
        return f.stops_at < 1 ? std::numeric_limits<double>::infinity() : f.time;
      };
      time = std::max(time, takes(w.full));
      quickest = std::min(quickest, takes(w.full));
      slowest = std::max(slowest, takes(w.lowest));
    }
    if (found < 2) continue;  // in the air or on jacks something is missing
    const bool battery = e.voltage.known() && e.lowest_voltage.known();
    (up ? both.up : both.down) = travel(time, quickest, battery ? slowest : nan);
  }
  return both;
}

//! Filled by a flow of its own, whatever it works against.
BothWays of_flow(const Leg& leg) {
  const Drive& r = leg.retraction.drive;
  const auto moves = motion::retracting(leg);
  const auto strut = actuator_of(leg);
  if (!moves || !strut || !r.flow.known() || !r.bore.known() || !r.rod.known()) return {};
  const double down = drive::length_of(*moves, *strut, 0);
  const double stowed = drive::length_of(*moves, *strut, moves->full_turn);
  const drive::HydraulicCylinder c{r.bore, r.rod, nan, nan};
  const double pushing = std::abs(stowed - down) * c.area() / r.flow;
  const double pulling = std::abs(stowed - down) * (c.area() - c.rod_area()) / r.flow;
  return {travel(stowed > down ? pushing : pulling, nan, nan),
          travel(stowed > down ? pulling : pushing, nan, nan)};
}

BothWays of_air(const Design& d, const Leg& leg, Assessment& a) {
  BothWays both;
  const auto made = air_plan(d, &a.steps);
  const auto* plan = std::get_if<AirPlan>(&made);
  if (!plan) return both;
  for (const AirLegWay& w : plan->ways) {
    if (w.leg != leg.id || !w.without_air.empty()) continue;
    const bool hard = w.hardest_in_air();
    const auto last = air_way_run(d, *plan, w, false, hard, a.steps);
    const auto first = air_way_run(d, *plan, w, true, !hard, a.steps);
    const auto *slow = std::get_if<circuit::AirRun>(&last), *fast = std::get_if<circuit::AirRun>(&first);
    if (!slow || !fast || slow->stops_at < 1 || fast->stops_at < 1) continue;
    (w.up ? both.up : both.down) = travel(fast->time, fast->time, slow->time);
  }
  return both;
}

}  // namespace

const sequence::Times& leg_times(const Design& d, Assessment& a) {
  if (a.timed) return a.times;
  a.timed = true;
  for (const Leg& leg : d.gear.legs) {
    const Retraction& r = leg.retraction;
    if (!r.fitted) continue;
    BothWays both;
    switch (r.drive.kind) {
      case DriveKind::none:
      case DriveKind::servo:
        break;
      case DriveKind::motor:
      case DriveKind::actuator:
        both = of_motor(d, leg, a.steps);
        break;
      case DriveKind::cylinder:
        both = d.circuit.hydraulics == Hydraulics() ? of_flow(leg) : of_cylinder(d, leg, a);
        break;
      case DriveKind::air:
        both = of_air(d, leg, a);
        break;
    }
    sequence::LegTimes t{leg.id, sequence::way_counted(leg, true, both.up),
                         sequence::way_counted(leg, false, both.down)};
    t.by_drive = r.times_from == TimesFrom::drive &&
                 (std::isfinite(both.up.nominal) || std::isfinite(both.down.nominal));
    a.times.push_back(std::move(t));
  }
  return a.times;
}

}  // namespace kranich
