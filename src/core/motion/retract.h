// SPDX-License-Identifier: GPL-3.0-or-later
//! How a leg and its doors move when the gear is raised: the one description that masses, clearances,
//! drawings and sheets take their poses from. Legs as they are stored (starboard, or on the centre line), SI,
//! rad, aircraft axes; the travel is a share, 0 down or closed, 1 stowed or open. Source: handbook, Swing.
#pragma once

#include <array>
#include <optional>

#include "core/model/design.h"
#include "core/motion/frame.h"

namespace kranich::motion {

//! Axis about which a starboard leg turns right-handed from down to stowed in a plain swing: along y (aft,
//! forward) or x (inward, outward).
Vec3 stowing_direction(SwingDirection direction);
//! The pivot's axis; nothing where the leg does not retract or its pivot is unknown.
std::optional<Axis> stowing_axis(const Leg& leg);
//! Where everything that swings with a leg is carried, from down. Nothing where stowing_axis has none, or the
//! unit's angle is unknown.
std::optional<Eigen::Isometry3d> stowing(const Leg& leg, double share, bool port = false);

//! Direction of the extended wheel's axle, outboard: (−sin toe·cos camber, cos toe·cos camber, −sin camber).
//! Camber tips its outer end down, toe-in swings it ahead; what of them is unknown counts as none.
Vec3 axle_direction(const Leg& leg);
//! Lower end of the leg's line, where the axle leaves it: the wheel stands outboard of it along the axle.
Vec3 foot(const Leg& leg);

//! Corners of a door's panel: its hinge's ends, then its free edge from the second to the first. A panel lies
//! level when closed and opens downward. Nothing where a measure of it is unknown.
std::optional<std::array<Vec3, 4>> panel(const Door& door, double share);

}  // namespace kranich::motion
