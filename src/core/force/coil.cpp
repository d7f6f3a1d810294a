// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/force/coil.h"

#include <array>
#include <cmath>
#include <numbers>

namespace kranich::force {
namespace {

constexpr std::array wire_table{
    Wire{"music wire", 81e9, 2211, 0.145, 0.45},
    Wire{"hard-drawn wire", 79.3e9, 1783, 0.190, 0.45},
    Wire{"chrome-vanadium wire", 77.2e9, 2005, 0.168, 0.50},
    Wire{"stainless 302 wire", 69e9, 1867, 0.146, 0.35},
};

}  // namespace

std::span<const Wire> wires() { return wire_table; }

const Wire* find_wire(std::string_view name) {
  for (const auto& w : wire_table)
    if (w.name == name) return &w;
  return nullptr;
}

double CoilFigures::shear_stress(double force) const {
  return wahl_factor * 8 * force * mean_diameter / (std::numbers::pi * std::pow(wire_diameter, 3));
}

CoilFigures coil_figures(const CoilGeometry& g, const Wire& wire) {
  CoilFigures f{};
  const double d = g.wire_diameter;
  f.wire_diameter = d;
  f.mean_diameter = g.mean_diameter;
  f.index = g.mean_diameter / d;
  f.rate = wire.shear_modulus * std::pow(d, 4) / (8 * std::pow(g.mean_diameter, 3) * g.active_turns);
  const bool ground = g.ends == CoilEnds::plain_ground || g.ends == CoilEnds::squared_ground;
  f.solid_length = d * (ground ? g.total_turns : g.total_turns + 1);
  f.travel_to_solid = g.free_length - f.solid_length;
  f.force_at_solid = f.rate * f.travel_to_solid;
  f.tensile_strength = wire.strength_constant * 1e6 / std::pow(d * 1000, wire.strength_exponent);
  f.shear_limit = wire.torsional_fraction * f.tensile_strength;
  f.wahl_factor = (4 * f.index - 1) / (4 * f.index - 4) + 0.615 / f.index;
  return f;
}

double buckling_free_length(double mean_diameter, double end_constant) {
  return 2.63 * mean_diameter / end_constant;
}

Preloaded preloaded(double rate, double free_length, double installed_length, double travel) {
  const double preload = rate * (free_length - installed_length);
  const double end = preload + rate * travel;
  const double energy = (preload + end) / 2 * travel;
  return {preload, end, energy, energy / (end * travel)};
}

std::optional<CoilAtWheel> coil_at_wheel(const Coil& c) {
  const Wire* wire = find_wire(c.wire);
  if (!wire || !c.wire_diameter.known() || !c.mean_diameter.known() || !c.active_turns.known() ||
      !c.total_turns.known() || !c.free_length.known() || !c.installed_length.known() || !c.count.known() ||
      !c.motion_ratio.known())
    return std::nullopt;
  if (c.mean_diameter <= c.wire_diameter) return std::nullopt;
  CoilAtWheel w{};
  w.figures = coil_figures(
      {c.wire_diameter, c.mean_diameter, c.active_turns, c.total_turns, c.free_length, c.ends}, *wire);
  w.count = c.count;
  w.motion_ratio = c.motion_ratio;
  w.spring_preload = w.figures.rate * (c.free_length - c.installed_length);
  w.rate = w.count * w.figures.rate * w.motion_ratio * w.motion_ratio;
  w.preload = w.count * w.spring_preload * w.motion_ratio;
  w.travel_left = c.installed_length - w.figures.solid_length;
  return w;
}

InSeries in_series(double k1, double t1, double k2, double t2, double deflection) {
  // Whichever spring reaches its solid length under the smaller force goes first; the other's rate remains.
  const bool first = k1 * t1 <= k2 * t2;
  const double k_left = first ? k2 : k1;
  InSeries s{};
  s.combined_rate = 1 / (1 / k1 + 1 / k2);
  s.force_first_solid = std::min(k1 * t1, k2 * t2);
  s.deflection_first_solid = s.force_first_solid / s.combined_rate;
  s.rate_after = k_left;
  const double before = std::min(deflection, s.deflection_first_solid);
  const double after = std::max(0.0, deflection - s.deflection_first_solid);
  s.force = s.combined_rate * before + k_left * after;
  s.energy = s.combined_rate * before * before / 2 + s.force_first_solid * after + k_left * after * after / 2;
  return s;
}

Nested nested(double outer, double inner, double start, double deflection) {
  const double shared = std::max(0.0, deflection - start);
  const double force = outer * deflection + inner * shared;
  const double energy = outer * deflection * deflection / 2 + inner * shared * shared / 2;
  return {outer + inner, force, energy, energy / (force * deflection)};
}

double BoughtGasSpring::force(double s) const {
  return extended_force / (1 - (1 - 1 / progression) * s / full_stroke);
}

double BoughtGasSpring::energy(double s) const {
  const double a = (1 - 1 / progression) / full_stroke;
  return a == 0 ? extended_force * s : -extended_force / a * std::log(1 - a * s);
}

}  // namespace kranich::force
