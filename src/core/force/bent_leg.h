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

//! What the rings of a mount come to, at one clamp. NaN where one of their numbers is not known.
//! F = A·E_c/3·(1/λ² − λ) of a ring, E_c = 3G·(1 + 2φS²), S = (D_o − D_i)/(4t), φ 0.75, λ = slot/t; in shear
//! G·A/slot.
struct RingRates {
  double crush;     //!< 1 − λ
  double vertical;  //!< N/m, about the crushed height
  double sideways;  //!< N/m, in shear
  double tilting;   //!< N·m/rad about an axis across the aircraft
};
RingRates ring_rates(const BentMount& mount);

//! The spring wire across, an arch y = 4h·x(L − x)/L² between pinned ends, shallow: pulled apart by H its
//! middle bends by H·h and its ends part by 8·H·h²·L/(15·E·I).
struct ArchedWire {
  double rate;              //!< its ends pulled apart, N/m
  double stress_per_apart;  //!< in its middle, Pa a metre
};
ArchedWire arched_wire(double diameter, double rise, double span, double youngs_modulus);
//! The wire across a leg, with how far its post goes outboard for a metre that the axle goes (the leg bent by
//! a load up at the wheel). Nothing where it is not entered; what is missing where a number of it is.
struct WireAcross {
  ArchedWire wire;
  double span, post_per_axle;
  //! At one axle: both posts part by twice what one goes, 2·k·p².
  double rate_at_axle() const { return 2 * wire.rate * post_per_axle * post_per_axle; }
};
std::variant<std::optional<WireAcross>, Text> wire_across(const BentLeg& leg, const BendingLeg& bending,
                                                          const std::vector<Material>& own);
//! What the builder has of spring wire for it.
inline constexpr std::string_view cross_wire_material = "music wire";

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
std::optional<BentStiffness> stiffness_at_wheel(const BendingLeg& leg);

//! Rise of the wheel (m) at which the leg's greatest stress, in its loops too, reaches an allowed one (Pa).
//! NaN where it does not bend.
double rise_to_stress(const BendingLeg& leg, double allowed);

//! A leg that bends has no stop: its travel is what it can rise before it takes a set, or until the belly is
//! on the ground (`belly`, m of rise; infinite where nothing is known of it). Written into the leg as a
//! default; unknown where its line, section or strength is. Other legs stay as they are.
void settle_travel(Leg& leg, const std::vector<Material>& own, double belly);

}  // namespace kranich::force
