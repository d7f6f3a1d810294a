// SPDX-License-Identifier: GPL-3.0-or-later
//! A design's leg that bends, as the frame takes it, and what it does at the wheel. SI; starboard, aircraft
//! axes. Source: handbook, Springs.
#pragma once

#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "core/base/say.h"
#include "core/force/leaf.h"
#include "core/model/workshop.h"

namespace kranich::force {

//! The chain from clamp to wheel centre in beams, or what is missing. Between the points given, width and
//! thickness run straight; a bow whose thickness is not given has its cloth folded (width times thickness
//! constant from the clamp's plies). Where the leg's line ends beside the wheel's centre, a stiff stub axle
//! (of a wire leg: the wire itself) carries on to it.
std::variant<BendingLeg, Text> bending_leg_of(const Leg& leg, const std::vector<Material>& own);

//! Thickness at each point of a leaf's or bow's line: as given, or of a bow its cloth folded from the clamp's
//! plies. NaN where neither is known.
std::vector<double> thickness_at_points(const BentLeg& leg);
//! Along the width of a leaf or bow: fore and aft of one that runs out to its side, athwartships of one that
//! runs fore and aft (a tail spring).
Vec3 width_direction(const BentLeg& leg);

//! Under a vertical load at the wheel, free to spread: per metre of rise how far the wheel goes and turns.
struct BentStiffness {
  double vertical_rate;  //!< N/m
  Vec3 moved_per_rise, turned_per_rise;
};
//! `cross_rate`: of a spring-wire strut that holds the two legs together, N/m at one axle (0: none).
std::optional<BentStiffness> stiffness_at_wheel(const BendingLeg& leg, double cross_rate);

//! Rise of the wheel (m) at which the leg's greatest stress, in its loops too, reaches an allowed one (Pa).
//! NaN where it does not bend.
double rise_to_stress(const BendingLeg& leg, double allowed, double cross_rate);

//! A leg that bends has no stop: its travel is what it can rise before it takes a set, or until the belly is
//! on the ground (`belly`, m of rise; infinite where nothing is known of it). Written into the leg as a
//! default; unknown where its line, section or strength is. Other legs stay as they are.
void settle_travel(Leg& leg, const std::vector<Material>& own, double belly);

}  // namespace kranich::force
