// SPDX-License-Identifier: GPL-3.0-or-later
//! Swing: a leg turning about its pivot axis, and what it passes on the way. SI, rad, aircraft axes; turns
//! are right-handed about the axis, from down (0) to stowed. Source: handbook, Swing.
#pragma once

#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "core/base/geometry.h"
#include "core/base/say.h"
#include "core/model/design.h"
#include "core/motion/retraction.h"
#include "core/motion/shape.h"

namespace kranich::swing {

using motion::Axis;
using motion::Capsule;
using motion::Named;
using motion::Obstacle;
using motion::RoundedWheel;

//! Leg direction, top to axle, from rake and cant (starboard leg): (−tan rake, tan cant, −1) normalised.
Vec3 leg_direction(double rake, double cant);

//! A planar swing: the unit turns by ψ and stows the leg parallel to a base that slopes by σ.
struct PlanarSwing {
  SwingDirection direction;
  Vec3 pivot;
  double unit_angle, base_slope;
  double leg_length, wheel_offset;
  Vec3 axle_direction_down;
};
struct PlanarPoses {
  Vec3 axis;
  double down_lean;  //!< λ = ψ − 90° − σ, away from the stowed side
  Vec3 wheel_down, wheel_stowed, axle_stowed;
};
PlanarPoses planar_poses(const PlanarSwing& swing);
//! Highest z of a wheel: centre + D/2·√(1 − a_z²) + w/2·|a_z|.
double highest_point(const Vec3& centre, const Vec3& axle_direction, double diameter, double width);
double lowest_point(const Vec3& centre, const Vec3& axle_direction, double diameter, double width);

struct UnitAngle {
  double angle;         //!< between the leg directions
  Vec3 axis;            //!< square to both, right-handed down → stowed
  double stowed_slope;  //!< of the stowed leg above the horizontal
};
UnitAngle required_unit_angle(const Vec3& leg_down, const Vec3& leg_stowed);
struct TurnAbout {
  double turn, miss;  //!< best turn about a given axis; angle left between the legs
};
TurnAbout best_turn_about(const Vec3& axis, const Vec3& leg_down, const Vec3& leg_stowed);

//! Turn, within 0 … full, at which a point carried round the axis is lowest.
double turn_of_lowest(const Axis& axis, const Vec3& point, double full_turn);

enum class Part { wheel, leg, stub, tip };
const char* part_word(Part part);

//! A solid that goes with the leg, down; the ends of a capsule may be carried differently: a strut that is
//! pulled in grows shorter.
struct MovingPart {
  Part part;
  std::variant<RoundedWheel, Capsule> solid;  //!< a wheel with its growth and side play
  motion::Carried from = motion::Carried::leg, to = motion::Carried::leg;
  bool from_lengthens = true, to_lengthens = true;  //!< whether a longer leg takes that end further down
};
//! Everything of a retracting leg that moves.
struct MovingLeg {
  motion::Retracting moves;
  std::vector<MovingPart> parts;  //!< the first is the wheel, or the one that stands outboard
  Vec3 foot;                      //!< lower end of the leg's line
  Vec3 along;                     //!< which way a longer leg takes it: its last straight piece
  double reach;                   //!< nothing moves further than reach·Δψ

  const RoundedWheel& wheel() const { return std::get<RoundedWheel>(parts.front().solid); }
  double length() const { return (foot - moves.axis.point).norm(); }
  MovingLeg longer_by(double length) const;  //!< the axle further down the leg
  //! The axle displaced: a leg bent by the landings it made.
  MovingLeg set_by(const Vec3& way) const;
  //! All of it, as it stands down, displaced: put into the unit otherwise.
  MovingLeg displaced(const Eigen::Isometry3d& by) const;
  void find_reach();
};
//! The other side's twin.
MovingLeg mirrored(const MovingLeg& leg);
//! A part as it lies at a turn.
RoundedWheel wheel_at(const motion::Retracting& moves, const MovingPart& part, double turn);
Capsule capsule_at(const motion::Retracting& moves, const MovingPart& part, double turn);

struct SwingInput {
  MovingLeg moving;
  std::vector<Named<Obstacle>> obstacles;
  double wanted_clearance;
};
//! What of a leg moves, with its tyre grown; or says what is missing.
std::variant<MovingLeg, Text> moving_leg(const Leg& leg);
//! Prepares a leg as it is stored for its swing between the walls of its well and the airframe's keep-outs;
//! or says what is missing. Keep-outs that lack a measure are left out: Place names them.
std::variant<SwingInput, Text> swing_input(const Leg& leg, const std::vector<KeepOut>& keep_outs);

//! How far a rod that turns the wheel as the leg swings turns it already while the leg springs: greatest turn
//! either way over the suspension's travel, rad (NaN where the rod does not reach). A leg that is hinged on
//! its retract's pivot springs by the first part of its swing; a telescopic one slides its ball along the
//! leg. Nothing of a leg without such a rod, or without travel. Source: handbook, Swing.
std::optional<double> turn_by_springing(const Leg& leg);

struct Clearance {
  double distance;  //!< m, negative: overlap
  double turn;      //!< rad
  Part part;
  std::string obstacle;
  Vec3 on_part, on_obstacle;  //!< aircraft axes
};
//! Clearance at one position.
Clearance clearance_at(const SwingInput& in, double turn);
//! Least clearance over the whole swing. Nothing moves further than reach·Δψ, so an interval whose ends are
//! far enough from everything is left out with certainty; the lowest is then refined (to about a micrometre).
Clearance least_clearance(const SwingInput& in);

//! Leg length (pivot to axle along the leg) against what the well takes.
struct LengthBudget {
  double length;  //!< as the stance wants it
  double fits;    //!< longest (or nearest) that keeps the wanted clearance; NaN where none within ±30 %
};
LengthBudget length_budget(const SwingInput& in);

//! What a design's swing comes to, beside clearance.
struct SwingFigures {
  double length;          //!< pivot to the leg's lower end
  double down_lean;       //!< λ of the leg as Place has it, away from the stowed side
  double stowed_slope;    //!< σ after the unit's turn
  double shank_lean;      //!< of what goes into the unit: its first piece where the leg bends, else λ
  double unit_down_lean;  //!< λ that unit angle and mount tilt make
  double required_angle;  //!< 90° + σ_mount + lean of the shank
  Vec3 wheel_stowed, axle_stowed;
  double protrusion;  //!< how far the stowed wheel stands out below the well's mouth; negative: inside
};
std::optional<SwingFigures> swing_figures(const Leg& leg);

//! A leg made anew for a unit that does not stand as it does: out of the unit the way that goes, then bent so
//! that wheel and foot stay where they are. Leg down, aircraft axes.
struct RemadeLeg {
  Vec3 bend;
  double from_pivot;  //!< to the bend, along the shank
  double angle;       //!< that it is bent by there
  double longer;      //!< than the straight one, of tube
};
//! Bent where it bends first, else a fifth of the way down. Nothing where leg, mount or unit are not known,
//! or they agree within a tenth of a degree.
std::optional<RemadeLeg> remade_leg(const Leg& leg);

}  // namespace kranich::swing
