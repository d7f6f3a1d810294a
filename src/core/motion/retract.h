// SPDX-License-Identifier: GPL-3.0-or-later
//! How a leg moves when the gear is raised: the one description that masses, clearances,
//! drawings and sheets take their poses from. Legs as they are stored (starboard, or on the centre line), SI,
//! rad, aircraft axes; the travel is a share, 0 down, 1 stowed. Source: handbook, Swing.
#pragma once

#include <optional>

#include "core/model/design.h"
#include "core/model/lacking.h"
#include "core/motion/retraction.h"

namespace kranich::motion {

//! Axis about which a starboard leg turns right-handed from down to stowed in a plain swing: along y (aft,
//! forward) or x (inward, outward).
Vec3 stowing_direction(SwingDirection direction);
//! That axis tipped, its forward or outboard end up, and then turned in plan, its forward end inboard.
Vec3 stowing_direction(const Retraction& retraction);
//! Which plain swing, turned and tipped how far, has a given axis (its turn positive): the nearest.
struct AxisEntry {
  SwingDirection direction;
  double yaw, tip;
};
AxisEntry entry_of_axis(const Vec3& direction);

//! The pivot's axis; nothing where the leg does not retract or its pivot is unknown.
std::optional<Axis> stowing_axis(const Leg& leg);
//! The turn at which a leg's rod locks on the way up; nothing where it does not, or is not known.
std::optional<double> locks_at(const Leg& leg);
//! Notes what of a retracting leg's motion is not known, and a rod that does not go all the way.
void note_motion(Lacking& lacks, const Leg& leg);
//! How a leg moves: everything that poses a part of it takes it from here. Nothing where it does not retract
//! or something of its motion is unknown, and where its rod locks.
std::optional<Retracting> retracting(const Leg& leg);
//! Whether what stands at a point hangs on the part that twists, is pulled in or is carried, or on what only
//! turns: below the first bend, the king-pin, or half way to the axle.
Carried carried_at(const Leg& leg, const Vec3& point);
//! Where what hangs on a leg and stands at a point, down, is when the leg has gone a share of its turn: of
//! the leg as it is stored, or of its port twin.
std::optional<Vec3> swung(const Leg& leg, double share, const Vec3& point, bool port = false);

//! Direction of the extended wheel's axle, outboard: (−sin toe·cos camber, cos toe·cos camber, −sin camber).
//! Camber tips its outer end down, toe-in swings it ahead; what of them is unknown counts as none.
Vec3 axle_direction(const Leg& leg);
//! Lower end of the leg's line, where the axle leaves it: the wheel stands outboard of it along the axle, and
//! behind it where the axle is set back.
Vec3 foot(const Leg& leg);
//! The same of a wheel that stands elsewhere: its centre, and its axle's direction there.
Vec3 foot_under(const Leg& leg, const Vec3& centre, const Vec3& axle);

}  // namespace kranich::motion
