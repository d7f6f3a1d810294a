// SPDX-License-Identifier: GPL-3.0-or-later
//! How everything of a leg moves when it is raised: its one kinematic description. Pose and velocity of what
//! it carries at any turn, and by virtual work the torque of any force on it. SI, rad, aircraft axes, the leg
//! as it stands down; turns right-handed about the axis, 0 down to full_turn stowed. Source: handbook, Swing.
//!
//! The leg turns about its pivot axis by ψ. What twists with the wheel first turns by χ about the leg's own
//! line (in its down place, right-handed about the way from top to axle) and slides up along it by the stroke
//! s, then goes with the leg: R_u(ψ)·R_l(χ)·T(−s·l). d/dψ is exact: u × r, and χ′, s′ about and along the
//! line as it lies then.
#pragma once

#include <optional>
#include <utility>
#include <variant>
#include <vector>

#include "core/motion/frame.h"

namespace kranich::motion {

//! The upper leg turns about the pivot only; the lower part, with the wheel, twists and is pulled in as well.
enum class Carried { leg, wheel };

//! A rod from the airframe to a collar on the lower leg twists it.
struct TwistRod {
  Vec3 airframe, collar;  //!< both balls, down
  bool operator==(const TwistRod&) const = default;
};

//! Where what stands down is carried at a turn, and how it goes on from there: a point at p moves by
//! spin × p + drift for each rad.
struct Carriage {
  Eigen::Isometry3d pose;
  Vec3 spin, drift;
  //! d/dψ of a point that stands down at `point`.
  Vec3 velocity(const Vec3& point) const { return drift + spin.cross(pose * point); }
};

//! A ball of points that stand down.
struct Bound {
  Carried what;
  Vec3 centre;
  double radius;
};

//! Parallel arms carry the wheel's carrier up and keep its attitude; a push rod from beside their pivots
//! turns it about its king-pin as it rises.
struct LiftAndTurn {
  Axis arms;          //!< pivot of one arm, and the direction it turns about
  Vec3 arm;           //!< from that pivot to the king-pin, down
  Vec3 king_pin;      //!< unit direction, right-handed for the turn
  Vec3 steering_arm;  //!< from the king-pin to the rod's ball, down
  Vec3 rod_fixed;     //!< the rod's ball on the airframe
  double full_turn;   //!< of the arms
  double rod_length() const { return (arms.point + arm + steering_arm - rod_fixed).norm(); }
  Vec3 king_pin_at(double turn) const;
  //! Turn of the carrier when the arms have gone by so much, on the branch from none; NaN beyond a dead
  //! centre.
  double carrier_turn(double turn) const;
  //! Its rate over the arms' turn.
  double carrier_rate(double turn) const;
  //! What stands on the carrier.
  Carriage carriage(double turn) const;
  bool reaches(double turn) const;
  bool operator==(const LiftAndTurn&) const = default;
};

struct Retracting {
  Axis axis;
  double full_turn;
  Axis line;  //!< the leg's own, down, from top to axle
  //! Twist over turn; or a rod. A ratio of 0: none.
  std::variant<double, TwistRod> twist = 0.0;
  //! Turn and stroke pulled in, rising turns, straight between; empty: none.
  std::vector<std::pair<double, double>> stroke;
  //! Where arms carry the wheel's carrier: `Carried::leg` are the arms, `Carried::wheel` the carrier; then
  //! nothing twists or is pulled in.
  std::optional<LiftAndTurn> lift;

  //! χ at a turn, on the branch that starts from none; NaN where the rod does not reach.
  double twist_at(double turn) const;
  double twist_rate(double turn) const;  //!< dχ/dψ
  double stroke_at(double turn) const;
  double stroke_rate(double turn) const;
  Carriage carriage(Carried what, double turn) const;
  //! Where what stands down is carried.
  Eigen::Isometry3d pose(Carried what, double turn) const;
  //! d/dψ of a point that stands down at `point`.
  Vec3 velocity(Carried what, const Vec3& point, double turn) const;
  //! Torque about the axis, positive towards stowed, of a force (aircraft axes) on it: the work it does per
  //! rad.
  double torque(Carried what, const Vec3& point, const Vec3& force, double turn) const;
  //! No point of any of them moves further than this for each rad. Exact for what turns about the pivot only;
  //! else from rates looked at every 1/64 of the travel, and a twentieth.
  double reach(const std::vector<Bound>& bounds) const;
  //! Nothing twists, is pulled in or carried: leg and wheel go alike.
  bool only_turns() const;
  //! The turn at which its rod locks or comes off its balls; nothing where it goes all the way. Looked at
  //! every 1/64 of the travel, then halved.
  std::optional<double> locks_at() const;
  bool operator==(const Retracting&) const = default;
};
//! The other side's twin: moves by the same turns.
Retracting mirrored(const Retracting& starboard);

}  // namespace kranich::motion
