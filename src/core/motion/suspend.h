// SPDX-License-Identifier: GPL-3.0-or-later
//! How a leg closes about its hinge: which way, how far, and what goes with it. Legs as they are stored
//! (starboard, or on the centre line), SI, rad, aircraft axes. Source: handbook, Stance.
#pragma once

#include <optional>

#include "core/model/gear.h"
#include "core/motion/frame.h"

namespace kranich::motion {

//! The hinge about which a right-handed turn lifts the axle: about +x where it lies to starboard of a hinge
//! that runs fore and aft, about −y where it lies behind one that runs athwartships. Nothing of a straight
//! leg, where hinge or axle is unknown, and where the axle lies above or below its hinge (no turn lifts it).
std::optional<Axis> hinge_axis(const Leg& leg);

//! The turn about an axis square to z that lifts a point by so much: it runs on a circle, its height
//! ℓ·sin(γ + q). Nothing where the circle is not that high.
std::optional<double> turn_to_rise(const Axis& axis, const Vec3& point, double rise);

//! Upper end of a strut that stays where it is and carries the hinge below it, as a trailing link's does: the
//! pivot of a leg that retracts, else the leg's own upper end. Not finite where the hinge sits on the
//! airframe itself, of straight legs and of legs of tubes (they turn with the hinge).
Vec3 strut_above_hinge(const Leg& leg);

//! A leg whose axle has risen by so much (m): a straight one with its axle up, a hinged one turned about its
//! hinge with what hangs on it. A leg that bends, and one that cannot rise that far, stays as it is.
Leg suspended(const Leg& leg, double rise);

}  // namespace kranich::motion
