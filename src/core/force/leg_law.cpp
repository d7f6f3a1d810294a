// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/force/leg_law.h"

#include <algorithm>
#include <cmath>

#include "core/force/coil.h"

namespace kranich::force {
namespace {

//! The piece of a curve that a closure lies on.
size_t piece(const std::vector<std::pair<double, double>>& curve, double s) {
  size_t i = 0;
  while (i + 2 < curve.size() && s > curve[i + 1].first) ++i;
  return i;
}

}  // namespace

double LegLaw::force(double s) const {
  switch (kind) {
    case Kind::rigid:
      return 0;
    case Kind::linear:
      return preload + rate * s;
    case Kind::gas:
      return piston_area * (pressure * std::pow(volume / (volume - piston_area * s), exponent) - ambient);
    case Kind::curve: {
      const auto& [s0, f0] = curve[piece(curve, s)];
      return f0 + slope(s) * (s - s0);
    }
  }
  return 0;
}

double LegLaw::slope(double s) const {
  switch (kind) {
    case Kind::rigid:
      return 0;
    case Kind::linear:
      return rate;
    case Kind::gas: {
      const double left = volume - piston_area * s;
      return piston_area * piston_area * exponent * pressure * std::pow(volume / left, exponent) / left;
    }
    case Kind::curve: {
      const size_t i = piece(curve, s);
      return (curve[i + 1].second - curve[i].second) / (curve[i + 1].first - curve[i].first);
    }
  }
  return 0;
}

LegLaw::ForceAndSlope LegLaw::both(double s) const {
  if (kind == Kind::linear) return {preload + rate * s, rate};
  if (kind == Kind::curve) {
    const size_t i = piece(curve, s);
    const double k = (curve[i + 1].second - curve[i].second) / (curve[i + 1].first - curve[i].first);
    return {curve[i].second + k * (s - curve[i].first), k};
  }
  if (kind == Kind::rigid) return {0, 0};
  const double left = volume - piston_area * s;
  const double p = pressure * std::pow(volume / left, exponent);
  return {piston_area * (p - ambient), piston_area * piston_area * exponent * p / left};
}

double LegLaw::closure(double f) const {
  if (kind == Kind::rigid || !(f > force(0))) return 0;
  double s = 0;
  switch (kind) {
    case Kind::linear:
      s = (f - preload) / rate;
      break;
    case Kind::gas:
      s = volume / piston_area * (1 - std::pow(pressure / (f / piston_area + ambient), 1 / exponent));
      break;
    case Kind::curve: {
      size_t i = 0;
      while (i + 2 < curve.size() && f > curve[i + 1].second) ++i;
      s = curve[i].first + (f - curve[i].second) / slope((curve[i].first + curve[i + 1].first) / 2);
      break;
    }
    case Kind::rigid:
      break;
  }
  return std::min(s, travel);
}

double LegLaw::energy(double s) const {
  switch (kind) {
    case Kind::rigid:
      return 0;
    case Kind::linear:
      return preload * s + rate * s * s / 2;
    case Kind::gas: {
      const double left = volume - piston_area * s;
      const double gas =
          exponent == 1 ? pressure * volume * std::log(volume / left)
                        : pressure * volume / (exponent - 1) * (std::pow(volume / left, exponent - 1) - 1);
      return gas - ambient * piston_area * s;
    }
    case Kind::curve: {
      const auto up_to = [&](double x) {
        double work = 0;
        const size_t last = piece(curve, x);
        for (size_t i = 0; i < last; ++i)
          work += (curve[i].second + curve[i + 1].second) / 2 * (curve[i + 1].first - curve[i].first);
        return work + (curve[last].second + force(x)) / 2 * (x - curve[last].first);
      };
      return up_to(s) - up_to(0);
    }
  }
  return 0;
}

double TyreLaw::force(double t) const {
  if (t <= 0) return 0;
  if (t <= knee) return rate * t;
  const double left = 1 - (t - knee) / (limit - knee);
  return left <= 0 ? std::numeric_limits<double>::infinity() : rate * knee + rate * (t - knee) / left;
}

double TyreLaw::slope(double t) const {
  if (t <= knee) return rate;
  const double left = 1 - (t - knee) / (limit - knee);
  return left <= 0 ? std::numeric_limits<double>::infinity() : rate / (left * left);
}

double TyreLaw::squash(double f) const {
  if (f <= rate * knee || !std::isfinite(knee)) return std::max(0.0, f) / rate;
  const double beyond = (f - rate * knee) / rate;  // x/(1 − x/room) = beyond
  const double room = limit - knee;
  return knee + beyond * room / (room + beyond);
}

std::variant<TyreLaw, std::string> tyre_law(const Wheel& w) {
  TyreLaw law;
  law.rate = w.tyre_rate;
  if (!w.tyre_rate.known()) {
    if (w.tyre != Tyre::pneumatic || !w.pressure.known() || !w.width.known() || !w.diameter.known())
      return "the tyre's rate (or its pressure)";
    law.rate = w.pressure * 2.3 * std::sqrt(w.width * w.diameter);  // textbook: area 2.3·√(w·D)·squash
  }
  if (w.flat_radius.known() && w.diameter / 2 > w.flat_radius) {
    law.limit = w.diameter / 2 - w.flat_radius;
    law.knee = law.limit * (w.tyre == Tyre::pneumatic ? 0.95 : 0.6);
  }
  return law;
}

std::variant<LegLaw, std::string> leg_law(const Leg& leg) {
  LegLaw law;
  if (!leg.travel.known()) return "the leg's travel";
  law.travel = leg.travel;
  const Spring& s = leg.spring;
  if (law.travel == 0) return law;  // a rigid leg needs no spring
  switch (s.kind) {
    case SpringKind::linear:
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
    case SpringKind::leaf:
      if (!s.leaf.torsion_rate.known()) return "the leaf's torsion rate";
      law.kind = LegLaw::Kind::linear;
      law.rate = s.leaf.torsion_rate;
      return law;
    case SpringKind::cord: {
      const Cord& c = s.cord;
      if (!c.strands.known() || !c.free_length.known()) return "the cord's strands and free length";
      if (c.curve.size() < 2) return "two points or more of the cord's load over stretch";
      law.kind = LegLaw::Kind::curve;
      // Closure counts from the installed length; suspension_of shifts the curve by the installed stretch.
      double last_stretch = -1;
      double last_load = -1;
      for (const auto& p : c.curve) {
        if (!p.stretch.known() || !p.load.known())
          return "stretch and load of every point of the cord's curve";
        if (p.stretch <= last_stretch || p.load <= last_load)
          return "a cord curve that rises from point to point";
        last_stretch = p.stretch;
        last_load = p.load;
        law.curve.emplace_back(p.stretch * c.free_length, p.load * c.strands);
      }
      return law;
    }
  }
  return "the kind of spring";
}

}  // namespace kranich::force
