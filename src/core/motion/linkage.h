// SPDX-License-Identifier: GPL-3.0-or-later
//! A rod of fixed length between a ball that turns about an axis and a point that moves: what turns wheels
//! flat, legs about themselves, doors with the leg. SI, rad. Source: handbook, Swing.
#pragma once

#include "core/motion/frame.h"

namespace kranich::motion {

//! Both places at which the ball lies the rod's length from the point: p·cos χ + q·sin χ = c. On the branch
//! that it is on at rest, where ball and point are given and χ is 0.
class HeldRod {
 public:
  HeldRod(const Axis& axis, const Vec3& ball, const Vec3& point);
  double length() const { return std::sqrt(rod2_); }
  //! The ball's turn with the point elsewhere, −π … π; NaN where the rod does not reach.
  double turn(const Vec3& point) const { return angle(place(point)); }
  //! The same as cosine and sine, which costs no more than a root.
  Turn place(const Vec3& point) const;
  bool reaches(const Vec3& point) const;

 private:
  struct Solved {
    double p, q, c, size2;
  };
  Solved solved(const Vec3& point) const;

  Vec3 from_;            //!< the axis' point, shifted along it to the ball
  Vec3 first_, second_;  //!< the ball at χ: from + cos χ·first + sin χ·second
  double arm2_, rod2_, branch_;
};

//! The turn's rate where the point moves with a velocity (per unit of whatever drives it): −F_t/F_χ of the
//! rod's length. Infinite at the dead centre, where rod, ball arm and axis lie in one plane.
double rod_turn_rate(const Axis& axis, const Vec3& ball_turned, const Vec3& point, const Vec3& ball_velocity,
                     const Vec3& point_velocity);

}  // namespace kranich::motion
