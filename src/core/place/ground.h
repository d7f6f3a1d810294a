// SPDX-License-Identifier: GPL-3.0-or-later
//! The ground under any number of wheels, each as far down as it is: one leg at its stop on a flat tyre tilts
//! the aircraft about the others. SI, aircraft axes; wheels as thin discs upright in the aircraft, legs as
//! they are told, the aircraft's own weight deciding on which of them it stands. Source: handbook, Many legs.
#pragma once

#include <optional>
#include <vector>

#include "core/place/place.h"
#include "core/place/tandem.h"

namespace kranich::place {

//! A plane: up from it, and how far the aircraft's origin lies above it.
struct Ground {
  Vec3 up;
  double origin;
  double height_of(const Vec3& point) const { return origin + up.dot(point); }
};

//! The plane that three of the wheels touch, no other lies below, and within whose triangle (its edge
//! included) the CG's plumb line falls. Nothing where there is none: fewer than three wheels, all in one
//! line, a CG outside.
std::optional<Ground> ground_under(const std::vector<Disc>& wheels, const Vec3& cg);

//! Least height of a propeller's disc above a plane; its axis lies in the plane of symmetry.
double tip_height(const PropellerDisc& disc, const Ground& ground);

}  // namespace kranich::place
