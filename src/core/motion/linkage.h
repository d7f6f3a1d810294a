// SPDX-License-Identifier: GPL-3.0-or-later
//! A rod of fixed length between a ball on the airframe and one that turns about an axis: what turns wheels
//! flat, legs about themselves, doors with the leg. SI, rad. Source: handbook, Swing.
#pragma once

#include "core/motion/frame.h"

namespace kranich::motion {

//! Both places at which a ball that turns about an axis lies so far from a point: p·cos χ + q·sin χ = c.
struct RodTurn {
  double middle;  //!< χ at which the ball is nearest the point or furthest from it
  double half;    //!< the two solutions are middle ± half; NaN where the rod does not reach
  //! A solution, within −π … π.
  double at(double branch) const;
};
RodTurn rod_turn(const Axis& axis, const Vec3& ball, const Vec3& point, double rod);
//! The branch (+1 or −1) on which a turn lies.
double branch_of(const RodTurn& solutions, double turn);

//! The turn's rate where the point moves with a velocity (per unit of whatever drives it): −F_t/F_χ of the
//! rod's length. Infinite at the dead centre, where rod, ball arm and axis lie in one plane.
double rod_turn_rate(const Axis& axis, const Vec3& ball_turned, const Vec3& point, const Vec3& ball_velocity,
                     const Vec3& point_velocity);

}  // namespace kranich::motion
