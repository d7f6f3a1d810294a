// SPDX-License-Identifier: GPL-3.0-or-later
//! Stance: how the aircraft sits at rest on its springs and tyres. SI, rad, aircraft axes.
//!
//! The equations. Heave h (height of the axes' origin above the ground), pitch θ and roll φ place the
//! aircraft; û(θ,φ) is the upward vertical in aircraft axes. A wheel in the aircraft's fore-and-aft plane
//! reaches R·n below its axle, n = √(û_x² + û_z²). With the leg extended it would sink P = R·n − h − û·axle
//! into the ground; the leg closing by δ along z and the tyre by t square to the ground take that up: P =
//! δ·û_z + t. The ground pushes F = k_t·t ≥ 0, and the leg carries F_leg(δ) = F·û_z (virtual work). Rest is
//! where the gradient of the potential energy vanishes: ΣF = W, and the moments about both axes balance. A
//! rest that is no minimum is a balancing act and is refused. Assumptions: thin upright wheels, vertical
//! ground forces (wheels rolled in), rigid stops, no friction. Source: handbook, Stance; derivation above.
#pragma once

#include <array>
#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "core/base/geometry.h"
#include "core/force/leg_law.h"
#include "core/model/design.h"

namespace kranich::stance {

using force::LegLaw;

struct WheelOnLeg {
  Vec3 axle;  //!< extended
  double radius;
  double tyre_rate;  //!< N/m
  LegLaw leg;
};

struct WheelState {
  double load = 0;          //!< N, vertical
  double leg_closure = 0;   //!< m, along z
  double tyre_closure = 0;  //!< m, square to the ground
  bool touches = false;
  bool bottomed = false;
};

struct Rest {
  double heave, pitch, roll;
  std::vector<WheelState> wheels;
  double residual_force, residual_moment;  //!< what the balance misses by: N, N·m
  int iterations;
};

//! Why there is no rest on these wheels.
struct NoRest {
  enum class Towards { tail, nose, port, starboard, unclear } towards;
  std::string reason;
};

//! Solves for the rest of a mass (kg) at a CG on wheels: Newton on the energy's gradient with a line search,
//! from the attitude of the rigid gear. Checks the residual and that the rest is stable.
std::variant<Rest, NoRest> solve(double mass, const Vec3& cg, const std::vector<WheelOnLeg>& wheels);

//! Axle of a wheel at rest, in aircraft axes.
Vec3 axle_at_rest(const WheelOnLeg& wheel, const WheelState& state);

//! A single change that brings the pitch to a target, on the full equilibrium. Applied to the wheels whose
//! indices are given: their legs made longer (a shim), or their linear rates replaced. Nothing where no
//! change in the range does it.
std::optional<double> longer_legs_for_pitch(double mass, const Vec3& cg, std::vector<WheelOnLeg> wheels,
                                            const std::vector<int>& which, double target_pitch);
std::optional<double> rate_for_pitch(double mass, const Vec3& cg, std::vector<WheelOnLeg> wheels,
                                     const std::vector<int>& which, double target_pitch);

//! The wheels of a design: third, port main, starboard main; or what is missing.
std::variant<std::vector<WheelOnLeg>, std::string> wheels_of(const Design& design);

}  // namespace kranich::stance
