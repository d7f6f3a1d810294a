// SPDX-License-Identifier: GPL-3.0-or-later
//! What holds a leg down and up: the folding brace just past straight, the up-lock's hook. SI, rad. Source:
//! handbook, Swing.
#pragma once

#include <optional>

#include "core/base/geometry.h"
#include "core/model/design.h"
#include "core/motion/frame.h"

namespace kranich::swing {

using Vec2 = Eigen::Vector2d;

//! Two links between an anchor on the airframe and a pin on the leg, in the plane of the leg's swing (first
//! and second coordinate, any axes), resting on a stop between them just past straight. The leg turns about
//! its pivot only.
struct FoldingBrace {
  Vec2 pivot, pin, anchor;   //!< pin: on the leg, down and locked
  double at_anchor, at_leg;  //!< lengths of the two links
  double spring_moment = 0;  //!< at the knee, towards the stop
};
struct BraceFigures {
  double past_straight;  //!< κ, from b² = L₁² + L₂² + 2·L₁·L₂·cos κ; NaN where the links cannot span b
  double offset;  //!< of the knee from the line of the end pins, L₁·L₂·sin κ/b
  double arm;     //!< of that line about the pivot
};
BraceFigures brace_figures(const FoldingBrace& brace);

//! Where the knee is, off the line of the end pins to the left of the way from anchor to pin.
Vec2 knee_of(const FoldingBrace& brace);

//! Under a load at a point of the leg.
struct BraceUnderLoad {
  double force;        //!< along the line of the end pins, compression positive: moment of the load / arm
  double knee_moment;  //!< that the stop carries of it, towards the stop positive: F·e
  double held;         //!< with the lock spring: not below 0, or the knee lifts
};
BraceUnderLoad brace_under(const FoldingBrace& brace, const Vec2& at, const Vec2& load);
//! Least force at the knee, square to the link at the anchor, that lifts it off its stop against a load and
//! the spring; by virtual work. Below 0: it is off already.
double force_to_unlock(const FoldingBrace& brace, const Vec2& at, const Vec2& load);
//! How far a point of the leg goes when the brace passes straight, from locked: the play that its stop must
//! leave. NaN where the pin's circle does not reach so far.
double way_past_straight(const FoldingBrace& brace, const Vec2& at);

//! The hook that a stowed leg hangs on, its drive idle: n·m·g·(arm of the CG)/(arm of the hook), and what the
//! door puts on it. No friction. `up`: gravity's direction is its opposite.
struct Uplock {
  motion::Axis axis;
  double mass, load_factor;
  Vec3 cg, hook, hook_direction;  //!< stowed; direction of the hook's force on the leg, any length
  double door_force = 0;          //!< along the hook's force
};
double hook_force(const Uplock& lock, const Vec3& up = Vec3::UnitZ());

//! A pin on the leg that a hook on the airframe takes: how far down the leg's line from where it is held, and
//! how far off the leg itself, which ends there and at its foot.
struct LatchPin {
  double along, off;
};
//! The pins for one hook that holds a leg at both ends. Leg down.
struct LatchPins {
  LatchPin stowed, down;
  double apart;  //!< as seen from the axis it turns about
};
//! Nothing where hook, leg or its motion are unknown.
std::optional<LatchPins> latch_pins(const Leg& leg);

}  // namespace kranich::swing
