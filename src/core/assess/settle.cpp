// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/settle.h"

#include <algorithm>
#include <limits>

#include "core/force/bent_leg.h"

namespace kranich {

double rise_to_belly(const Design& d, const Leg& leg) {
  constexpr double infinite = std::numeric_limits<double>::infinity();
  const double radius = leg.wheel.flat_radius.known() ? leg.wheel.flat_radius.si : leg.wheel.diameter / 2;
  double lowest = infinite;
  for (const auto& body : d.airframe.bodies)
    for (const auto& s : body.sections)
      if (s.bottom.known()) lowest = std::min(lowest, s.bottom.si);
  for (const auto& p : d.airframe.low_points)
    if (p.at.z.known()) lowest = std::min(lowest, p.at.z.si);
  const double rise = lowest - (leg.axle.z - radius);
  return rise > 0 ? rise : infinite;
}

namespace {

//! A tail wheel's leg hangs under a tail that is low by itself.
double belly_for(const Design& d, const Leg& leg) {
  return leg.carries() ? rise_to_belly(d, leg) : std::numeric_limits<double>::infinity();
}

}  // namespace

bool belly_ends_travel(const Design& d, const Leg& leg) {
  return leg.spring.kind == SpringKind::bending && leg.travel.known() &&
         belly_for(d, leg) <= leg.travel + 1e-9;
}

bool settle(Design& d) {
  bool changed = false;
  for (auto& leg : d.gear.legs) {
    if (leg.spring.kind != SpringKind::bending) continue;
    const Given before = leg.travel;
    force::settle_travel(leg, d.materials, belly_for(d, leg));
    changed = changed || !(leg.travel == before);
  }
  return changed;
}

}  // namespace kranich
