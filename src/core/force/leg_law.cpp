// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/force/leg_law.h"

#include <algorithm>
#include <cmath>

#include "core/force/coil.h"

namespace kranich::force {

double LegLaw::force(double s) const {
  switch (kind) {
    case Kind::rigid:
      return 0;
    case Kind::linear:
      return preload + rate * s;
    case Kind::gas:
      return piston_area * (pressure * std::pow(volume / (volume - piston_area * s), exponent) - ambient);
  }
  return 0;
}

double LegLaw::slope(double s) const {
  if (kind == Kind::linear) return rate;
  if (kind == Kind::rigid) return 0;
  const double left = volume - piston_area * s;
  return piston_area * piston_area * exponent * pressure * std::pow(volume / left, exponent) / left;
}

double LegLaw::closure(double f) const {
  if (kind == Kind::rigid || !(f > force(0))) return 0;
  double s = 0;
  if (kind == Kind::linear)
    s = (f - preload) / rate;
  else
    s = volume / piston_area * (1 - std::pow(pressure / (f / piston_area + ambient), 1 / exponent));
  return std::min(s, travel);
}

double LegLaw::energy(double s) const {
  if (kind == Kind::rigid) return 0;
  if (kind == Kind::linear) return preload * s + rate * s * s / 2;
  const double left = volume - piston_area * s;
  const double gas = exponent == 1
                         ? pressure * volume * std::log(volume / left)
                         : pressure * volume / (exponent - 1) * (std::pow(volume / left, exponent - 1) - 1);
  return gas - ambient * piston_area * s;
}

std::variant<LegLaw, std::string> leg_law(const Leg& leg) {
  LegLaw law;
  if (!leg.travel.known()) return "the leg's travel";
  law.travel = leg.travel;
  const Spring& s = leg.spring;
  switch (s.kind) {
    case SpringKind::linear:
      if (law.travel == 0) return law;  // a rigid leg needs no spring
      if (!s.rate.known()) return "the spring rate";
      if (!s.preload.known()) return "the preload (0 if there is none)";
      law.kind = LegLaw::Kind::linear;
      law.rate = s.rate;
      law.preload = s.preload;
      return law;
    case SpringKind::coil: {
      const auto coil = coil_at_wheel(s.coil);
      if (!coil) return "a measure of the coil spring (wire, diameter, turns, lengths)";
      law.kind = LegLaw::Kind::linear;
      law.rate = coil->rate;
      law.preload = coil->preload;
      return law;
    }
    case SpringKind::gas:
      if (!s.gas.piston_area.known() || !s.gas.volume.known() || !s.gas.pressure.known())
        return "piston area, gas volume or charge";
      law.kind = LegLaw::Kind::gas;
      law.piston_area = s.gas.piston_area;
      law.volume = s.gas.volume;
      law.pressure = s.gas.pressure;
      law.ambient = s.gas.ambient;
      law.exponent = s.gas.exponent;
      if (law.piston_area * law.travel >= 0.98 * law.volume)
        return "a gas volume that lasts to the end of the travel";
      return law;
  }
  return "the kind of spring";
}

}  // namespace kranich::force
