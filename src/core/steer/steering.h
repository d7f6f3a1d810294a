// SPDX-License-Identifier: GPL-3.0-or-later
//! A steered leg: its rod while the leg folds, what it takes to turn its wheel at rest, what brakes give. SI,
//! rad. Source: handbook, Steering and brakes.
#pragma once

#include <optional>
#include <variant>

#include "core/base/say.h"
#include "core/model/design.h"
#include "core/motion/frame.h"
#include "core/motion/retraction.h"
#include "core/steer/turn.h"

namespace kranich::steer {

//! What a leg's wheel is turned about: its own line, upward; nothing where that is unknown.
std::optional<motion::Axis> steering_axis(const Leg& leg);

//! Where a wheel touches level ground, and where the line it is turned about meets it, with the aircraft
//! pitched (nose up positive); aircraft axes. The length by which the contact lies behind; an axis that never
//! meets the ground gives ±∞.
struct Trail {
  Vec3 contact, axis_on_ground;
  double length;
};
Trail trail(const motion::Axis& axis, const Vec3& axle, double radius, double pitch);

//! The turn that a steered leg makes at its stop, about mains and wing of its aircraft; nothing where angle,
//! axles or the leg's line are unknown, or where it turns on the spot (from 89°).
std::optional<Turning> turning_of(const Design& design, const Leg& leg);

//! A rod from the airframe to an arm on a leg that folds.
struct FoldingRod {
  motion::Retracting moves;
  motion::Carried carried;
  motion::Axis axis;  //!< the wheel's, leg down
  Vec3 airframe, arm;

  double length(double turn) const;  //!< between its ends, the wheel straight
  //! Turn of the wheel about its axis that a rod of its length down makes; NaN where it locks.
  double wheel_turn(double turn) const;
};
//! Or what of it is missing.
std::variant<FoldingRod, Text> folding_rod(const Leg& leg);
struct FoldFigures {
  double closes = 0;    //!< most by which the ends come together
  double opens = 0;     //!< most by which they come apart
  double turns = 0;     //!< most by which a fixed rod turns the wheel; NaN: it locks
  double locks_at = 0;  //!< the leg's turn there
};
//! Looked at every 1/180 of the travel for a lock; the extremes refined.
FoldFigures fold_figures(const FoldingRod& rod);

//! Most by which a rod of fixed length turns the wheel as the leg springs over its travel, the servo still:
//! the leg slides along the line it is steered about, or turns about its hinge. NaN: the rod locks. Nothing
//! where rod, line or travel are unknown, or a slid rod leaves the wheel alone.
std::optional<double> turn_by_springing(const Leg& leg);

//! How far a rod stands from square to its arm (0: square); the wheel straight.
double off_square(const motion::Axis& axis, const Vec3& arm_end, const Vec3& rod_end);

//! Moment that turns a wheel at rest under a load on a patch of an area: ⅔·µ·N·√(A/π).
double scrub_moment(double load, double patch, double friction);

//! Braking on level ground: mains and a third wheel a wheelbase ahead of them (nose) or behind (tail), the CG
//! so far from the mains towards it and so high.
struct Braking {
  double wheelbase, cg, height;
  bool tail;
  double friction;
};
//! Deceleration over g with braked mains; a tail-wheel aircraft's no more than noses it over.
double deceleration(const Braking& b);
//! With a skid at the tail and nothing else.
double skid_deceleration(const Braking& b);

}  // namespace kranich::steer
