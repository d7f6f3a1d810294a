// SPDX-License-Identifier: GPL-3.0-or-later
//! Which wheel touches first, what mass it stops, and how the others come down then. SI, rad. Source:
//! handbook, Many legs: classical impact without rebound and friction of a rigid aircraft.
//!
//! With n the upward vertical and r the first contact from the CG, both in aircraft axes, and I the inertia
//! about the CG:
//!   1/mₑ = 1/m + (r×n)ᵀ·I⁻¹·(r×n); a point r₂ comes down at V·[1 − mₑ·(1/m + (r₂×n)ᵀ·I⁻¹·(r×n))] just after.
#pragma once

#include <vector>

#include "core/base/geometry.h"

namespace kranich::spring {

struct TouchingLeg {
  Vec3 axle;           //!< extended
  double radius;       //!< free
  double spacing = 0;  //!< of two wheels on the axle; 0: one
};
struct FirstContact {
  size_t leg;                  //!< index of the one that touches first
  double effective_mass;       //!< kg
  std::vector<double> height;  //!< of each leg's lowest point above the ground then
  std::vector<double>
      strikes;  //!< speed at which each leg's lowest point comes down just after; 0 for the first
};
//! Principal inertias about the CG along the aircraft's axes: roll and pitch, yaw taken as their sum.
FirstContact first_contact(const std::vector<TouchingLeg>& legs, double mass, const Vec3& cg,
                           double roll_inertia, double pitch_inertia, double pitch, double roll,
                           double sink_speed);

}  // namespace kranich::spring
