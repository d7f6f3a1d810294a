// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/force/leg_law.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/base/quantity.h"
#include "core/force/coil.h"
#include "core/model/lacking.h"

namespace kranich::force {
namespace {

//! The piece of a curve that a closure lies on.
size_t piece(const std::vector<std::pair<double, double>>& curve, double s) {
  size_t i = 0;
  while (i + 2 < curve.size() && s > curve[i + 1].first) ++i;
  return i;
}

//! One coil inside another, or two in series: straight pieces between where one touches or goes solid.
std::variant<LegLaw, Text> with_second_coil(const Spring& s, double travel, double ratio) {
  Coil outer = s.coil;
  outer.motion_ratio = Given(ratio);
  const auto first = coil_at_wheel(outer);
  Coil coil = s.second;
  if (!coil.installed_length.known())
    coil.installed_length = coil.free_length;  // its share is computed below
  const auto second = coil_at_wheel(coil);
  if (!second) return "a measure of the second coil (wire, diameter, turns, free length)";
  LegLaw law;
  law.travel = travel;
  law.kind = LegLaw::Kind::curve;
  const double count = s.coil.count;
  const auto point = [&](double rise, double force) {
    if (law.curve.empty() || rise > law.curve.back().first + 1e-9) law.curve.emplace_back(rise, force);
  };
  if (s.partner == CoilPartner::inside) {
    const double touches = s.second_starts_after / ratio;
    const double inner = count * second->figures.rate * ratio * ratio;
    // A coil shorter than the room it stands in is loose: nothing until it is met.
    const double met = std::max(0.0, -first->preload / first->rate);
    const auto at = [&](double rise) {
      return std::max(0.0, first->preload + first->rate * rise) + inner * std::max(0.0, rise - touches);
    };
    point(0, at(0));
    for (const double kink : {std::min(met, touches), std::max(met, touches)})
      if (kink > 0 && kink < travel) point(kink, at(kink));
    point(travel, at(travel));
    return law;
  }
  // In series the installed length of the first entry is that of both together.
  const double before = s.coil.free_length + s.second.free_length - s.coil.installed_length;
  const double loose = std::max(0.0, -before) / ratio;
  const auto& a = first->figures;
  const auto& b = second->figures;
  const auto force_at = [&](double rise) {
    const double pressed = before + rise * ratio;
    return pressed <= 0 ? 0.0
                        : count * ratio *
                              in_series(a.rate, a.travel_to_solid, b.rate, b.travel_to_solid, pressed).force;
  };
  const double solid =
      (in_series(a.rate, a.travel_to_solid, b.rate, b.travel_to_solid, 0).deflection_first_solid - before) /
      ratio;
  point(0, force_at(0));
  if (loose > 0 && loose < travel) point(loose, 0);
  if (solid > 0 && solid < travel) point(solid, force_at(solid));
  point(travel, force_at(travel));
  return law;
}

//! Equal discs in series: S the loaded over the free side area, E_c = 3G·(1 + 2φS²), F = A·E_c/3·(1/λ² − λ).
std::variant<LegLaw, Text> law_of_pucks(const Pucks& p, double travel) {
  if (p.hole_diameter >= p.outer_diameter) return "a hole smaller than the puck";
  const double stack = p.count * p.thickness;
  const double before = stack - p.assembled_length;
  if (before < 0) return "an assembled length no longer than the free stack";
  if (before + travel > 0.9 * stack) return "a travel that the stack of pucks can make";
  LegLaw law;
  law.travel = travel;
  law.kind = LegLaw::Kind::curve;
  const double area =
      std::numbers::pi / 4 * (p.outer_diameter * p.outer_diameter - p.hole_diameter * p.hole_diameter);
  const double shape = (p.outer_diameter - p.hole_diameter) / (4 * p.thickness);
  const double modulus = 3 * p.shear_modulus * (1 + 2 * p.hardness_factor * shape * shape);
  constexpr int points = 80;
  for (int i = 0; i <= points; ++i) {
    const double rise = travel * i / points;
    const double stretch = 1 - (before + rise) / stack;
    law.curve.emplace_back(rise, area * modulus / 3 * (1 / (stretch * stretch) - stretch));
  }
  return law;
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

namespace {
// Where nine tenths of the room beyond the knee are used: x/(1 − x/r) = 9·r and the slope 1/(1 − x/r)² = 100.
constexpr double rim_share = 0.9;
constexpr double rim_force = 9;
constexpr double rim_slope = 100;
}  // namespace

double TyreLaw::force(double t) const {
  if (t <= 0) return 0;
  if (t <= knee) return rate * t;
  const double room = limit - knee;
  const double x = t - knee;
  if (x >= rim_share * room) return rate * (knee + rim_force * room + rim_slope * (x - rim_share * room));
  return rate * (knee + x / (1 - x / room));
}

double TyreLaw::slope(double t) const {
  if (t <= knee) return rate;
  const double room = limit - knee;
  const double x = t - knee;
  if (x >= rim_share * room) return rim_slope * rate;
  return rate / ((1 - x / room) * (1 - x / room));
}

double TyreLaw::squash(double f) const {
  if (!(f > rate * knee) || !std::isfinite(knee)) return std::max(0.0, f) / rate;
  const double room = limit - knee;
  const double beyond = f / rate - knee;  // x/(1 − x/room)
  if (beyond >= rim_force * room) return rim() + (beyond - rim_force * room) / rim_slope;
  return knee + beyond * room / (room + beyond);
}

double TyreLaw::energy(double t) const {
  if (t <= 0) return 0;
  if (t <= knee) return 0.5 * rate * t * t;
  const double room = limit - knee;
  const double x = std::min(t - knee, rim_share * room);
  // ∫x/(1 − x/r) dx = −r·x − r²·ln(1 − x/r).
  double work =
      0.5 * rate * knee * knee + rate * (knee * x - room * x - room * room * std::log(1 - x / room));
  if (const double over = t - rim(); over > 0) work += (force(rim()) + 0.5 * rim_slope * rate * over) * over;
  return work;
}

namespace {

//! What the numbers of a leg's own spring lack.
void note_spring(Lacking& lacks, const Leg& leg) {
  const Spring& s = leg.spring;
  const auto coil = [&](const Coil& c, const std::string& path, bool second) {
    const auto of = [&](const char* what) {
      return second ? say("{} of the second coil", what) : Text(what);
    };
    lacks.number(c.wire_diameter, path + "wire_diameter_m", of("the coil's wire diameter"))
        .number(c.mean_diameter, path + "mean_diameter_m", of("the coil's mean diameter"))
        .number(c.active_turns, path + "active_turns", of("the coil's active turns"))
        .number(c.total_turns, path + "total_turns", of("the coil's total turns"))
        .number(c.free_length, path + "free_length_m", of("the coil's free length"));
  };
  switch (s.kind) {
    case SpringKind::linear:
      lacks.number(s.rate, "spring/rate_N_per_m", "the spring rate")
          .number(s.preload, "spring/preload_N", "the preload (0 if there is none)");
      return;
    case SpringKind::coil:
      coil(s.coil, "spring/coil/", false);
      if (s.partner == CoilPartner::in_series)
        lacks.number(s.coil.installed_length, "spring/coil/installed_length_m",
                     "the installed length (of both coils together)");
      else
        lacks.number(s.coil.installed_length, "spring/coil/installed_length_m",
                     "the coil's installed length");
      if (s.partner != CoilPartner::none) coil(s.second, "spring/second/", true);
      if (s.partner == CoilPartner::inside)
        lacks.number(s.second_starts_after, "spring/second_starts_after_m",
                     "the closure after which the coil inside touches");
      return;
    case SpringKind::gas:
      lacks.number(s.gas.piston_area, "spring/gas/piston_area_m2", "the piston area")
          .number(s.gas.volume, "spring/gas/volume_m3", "the gas volume")
          .number(s.gas.pressure, "spring/gas/pressure_absolute_Pa", "the charge");
      return;
    case SpringKind::leaf:
      lacks.number(s.leaf.torsion_rate, "spring/leaf/torsion_rate_N_m_per_rad", "the leaf's torsion rate");
      return;
    case SpringKind::gas_strut:
      lacks
          .number(s.gas_strut.extended_force, "spring/gas_strut/extended_force_N",
                  "the gas strut's extended force")
          .number(s.gas_strut.progression, "spring/gas_strut/progression", "the gas strut's progression")
          .number(s.gas_strut.full_stroke, "spring/gas_strut/full_stroke_m", "the gas strut's full stroke")
          .number(s.gas_strut.count, "spring/gas_strut/count", "how many gas struts stand side by side");
      return;
    case SpringKind::pucks: {
      const Pucks& p = s.pucks;
      const std::string path = "spring/pucks/";
      lacks.number(p.count, path + "count", "how many pucks there are")
          .number(p.outer_diameter, path + "outer_diameter_m", "the pucks' outer diameter")
          .number(p.hole_diameter, path + "hole_diameter_m", "the pucks' hole")
          .number(p.thickness, path + "thickness_m", "the thickness of a puck")
          .number(p.shear_modulus, path + "shear_modulus_Pa", "the rubber's shear modulus")
          .number(p.hardness_factor, path + "hardness_factor", "the rubber's hardness factor")
          .number(p.assembled_length, path + "assembled_length_m", "the assembled length of the pucks");
      return;
    }
    case SpringKind::cord:
      lacks.number(s.cord.strands, "spring/cord/strands", "the cord's strands")
          .number(s.cord.free_length, "spring/cord/free_length_m", "the cord's free length")
          .that(s.cord.curve.size() < 2, "two points or more of the cord's load over stretch");
      return;
    case SpringKind::bending:
      return;
  }
}

}  // namespace

Text lacking_of_spring(const Leg& leg) {
  Lacking lacks(leg_root(leg.id));
  lacks.number(leg.travel, "travel_m", "the leg's travel");
  if (leg.travel.si != 0) note_spring(lacks, leg);
  return lacks.text();
}

std::variant<TyreLaw, Text> tyre_law(const Wheel& w) {
  TyreLaw law;
  law.rate = w.tyre_rate;
  if (!w.tyre_rate.known()) {
    if (w.tyre != Tyre::pneumatic || !w.pressure.known() || !w.width.known() || !w.diameter.known())
      return "the tyre's rate (or its pressure)";
    law.rate = w.pressure * patch_per_squash(w.width, w.diameter);
  }
  if (w.flat_radius.known() && w.diameter / 2 > w.flat_radius) {
    law.limit = w.diameter / 2 - w.flat_radius;
    law.knee = law.limit * (w.tyre == Tyre::pneumatic ? 0.95 : 0.6);
  }
  return law;
}

double usual_stop_rate(const Leg& leg, double mass) {
  const bool rubber = leg.spring.kind == SpringKind::cord || leg.spring.kind == SpringKind::pucks;
  return 10 * mass * standard_gravity / ((rubber ? 0.10 : 0.02) * leg.travel);
}

std::variant<LegLaw, Text> leg_law(const Leg& leg, std::optional<double> closes) {
  LegLaw law;
  if (Text missing = lacking_of_spring(leg); !missing.empty()) return missing;
  law.travel = leg.travel;
  const Spring& s = leg.spring;
  if (law.travel == 0) return law;  // a rigid leg needs no spring
  const double range = closes.value_or(leg.travel);
  switch (s.kind) {
    case SpringKind::linear:
      law.kind = LegLaw::Kind::linear;
      law.rate = s.rate;
      law.preload = s.preload;
      return law;
    case SpringKind::coil: {
      Coil own = s.coil;
      if (closes) own.motion_ratio = Given(1.0);
      const auto coil = coil_at_wheel(own);
      if (!coil) return "a measure of the coil spring (wire, diameter, turns, lengths)";
      if (s.partner != CoilPartner::none) {
        auto pair = with_second_coil(s, range, own.motion_ratio);
        if (auto* both = std::get_if<LegLaw>(&pair)) both->travel = law.travel;
        return pair;
      }
      law.rate = coil->rate;
      law.preload = coil->preload;
      law.kind = LegLaw::Kind::linear;
      if (coil->preload >= 0) return law;
      // Shorter than the room it stands in: loose, nothing until it is met.
      const double met = -coil->preload / coil->rate;
      law.kind = LegLaw::Kind::curve;
      law.curve = {{0, 0}, {met, 0}, {met + std::max(range, 1e-6), coil->rate * std::max(range, 1e-6)}};
      return law;
    }
    case SpringKind::gas:
      law.kind = LegLaw::Kind::gas;
      law.piston_area = s.gas.piston_area;
      law.volume = s.gas.volume;
      law.pressure = s.gas.pressure;
      law.ambient = s.gas.ambient;
      law.exponent = s.gas.exponent;
      if (law.piston_area * range >= 0.98 * law.volume)
        return "a gas volume that lasts to the end of the travel";
      return law;
    case SpringKind::leaf:
      law.kind = LegLaw::Kind::linear;
      law.rate = s.leaf.torsion_rate;
      return law;
    case SpringKind::gas_strut: {
      const GasStrut& g = s.gas_strut;
      // F₁/[1 − (1 − 1/x)·s/S] is an isothermal gas spring without ambient pressure.
      law.kind = LegLaw::Kind::gas;
      law.piston_area = 1;
      law.pressure = g.count * g.extended_force;
      law.ambient = 0;
      law.exponent = 1;
      law.volume = g.progression > 1 ? g.full_stroke / (1 - 1 / g.progression) : 1e6;
      return law;
    }
    case SpringKind::pucks: {
      auto pucks = law_of_pucks(s.pucks, range);
      if (auto* stack = std::get_if<LegLaw>(&pucks)) stack->travel = law.travel;
      return pucks;
    }
    case SpringKind::bending:
      return law;  // its rate comes with its geometry: suspension_of
    case SpringKind::cord: {
      const Cord& c = s.cord;
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
