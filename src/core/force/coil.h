// SPDX-License-Identifier: GPL-3.0-or-later
//! Helical compression springs of round wire: rate, stress, solid length. SI. Source: handbook, Springs.
#pragma once

#include <algorithm>
#include <optional>
#include <span>
#include <string_view>

#include "core/model/design.h"

namespace kranich::force {

//! Spring wire. Typical values: confirm with your supplier. S_ut = A/d^m with d in mm, A in MPa.
struct Wire {
  std::string_view name;
  double shear_modulus;       //!< Pa
  double strength_constant;   //!< A, MPa
  double strength_exponent;   //!< m
  double torsional_fraction;  //!< of the tensile strength, set not removed
};
std::span<const Wire> wires();
const Wire* find_wire(std::string_view name);

struct CoilGeometry {
  double wire_diameter, mean_diameter, active_turns, total_turns, free_length;
  CoilEnds ends;
};

struct CoilFigures {
  double index;         //!< C = D/d
  double rate;          //!< G·d⁴/(8·D³·n_a)
  double solid_length;  //!< d·n_t ground, d·(n_t + 1) unground
  double travel_to_solid;
  double force_at_solid;
  double tensile_strength;  //!< S_ut of the wire
  double shear_limit;
  double wahl_factor;  //!< (4C−1)/(4C−4) + 0.615/C
  //! Greatest shear stress under a force: K_w·8·F·D/(π·d³).
  double shear_stress(double force) const;
  //! How much of the limit is left under a force: 1 − τ/limit.
  double margin(double force) const { return 1 - shear_stress(force) / shear_limit; }
  double wire_diameter, mean_diameter;
};
CoilFigures coil_figures(const CoilGeometry& geometry, const Wire& wire);

//! Free length above which a steel spring may buckle: 2.63·D/α (α 0.5 both ends flat, 0.707 one hinged, 1
//! both).
double buckling_free_length(double mean_diameter, double end_constant);

//! A spring installed with preload, over a travel.
struct Preloaded {
  double preload, force_at_end, energy, efficiency;
};
Preloaded preloaded(double rate, double free_length, double installed_length, double travel);

//! What a leg's coils do at the axle: `count` springs, closure per axle rise `motion_ratio` (taken as
//! constant).
struct CoilAtWheel {
  CoilFigures figures;
  double rate,
      preload;  //!< at the axle along z, N/m and N; below 0 where the spring is loose until it is met
  double spring_preload;  //!< per spring, N; likewise
  double count, motion_ratio;
  double travel_left;  //!< of one spring from installed to solid, m
  //! Force in one spring at an axle rise.
  double spring_force(double axle_rise) const {
    return std::max(0.0, spring_preload + figures.rate * axle_rise * motion_ratio);
  }
};
std::optional<CoilAtWheel> coil_at_wheel(const Coil& coil);

//! Two springs in series, the first of them going solid under the common force.
struct InSeries {
  double combined_rate, force_first_solid, deflection_first_solid, rate_after;
  double force, energy;  //!< at the deflection asked for
};
InSeries in_series(double rate_1, double travel_1, double rate_2, double travel_2, double deflection);

//! One spring inside another that starts later.
struct Nested {
  double rate_both, force, energy, efficiency;
};
Nested nested(double outer_rate, double inner_rate, double inner_starts_after, double deflection);

//! Bought gas spring: extended force F₁, progression x over full stroke S: F = F₁/[1 − (1 − 1/x)·s/S].
struct BoughtGasSpring {
  double extended_force, progression, full_stroke;
  double force(double stroke) const;
  double energy(double stroke) const;
};

}  // namespace kranich::force
