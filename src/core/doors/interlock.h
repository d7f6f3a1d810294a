// SPDX-License-Identifier: GPL-3.0-or-later
//! Where a leg and a door are in each other's way: the forbidden region in the plane of their travels. Side
//! view, x aft, z up; SI, rad. Source: handbook, Sequence.
#pragma once

#include <Eigen/Core>
#include <functional>
#include <utility>
#include <vector>

namespace kranich::doors {

//! A leg with its wheel, straight down at 0, and a straight panel, in one plane.
struct LegAndDoor {
  Eigen::Vector2d pivot;
  double leg_length, wheel_radius, leg_radius;
  bool aft = true;  //!< the way the leg swings
  double leg_turn;  //!< in all
  Eigen::Vector2d hinge;
  double door_length, half_thickness;
  double closed;                  //!< the panel's direction when closed, from x towards z
  bool counter_clockwise = true;  //!< the way it opens
  double door_turn;               //!< in all
  //! Least clearance of wheel and leg to the panel; overlapping: less than nothing.
  double clearance(double leg, double door) const;
};

//! Turns of one travel between which the clearance is below what is wanted, as pairs; an end of the travel
//! bounds a region that it lies in.
using Intervals = std::vector<std::pair<double, double>>;
//! `clearance` over one turn from 0 to `full`, looked at every 1/2000 of it: no region wider than that is
//! missed, and its bounds are exact.
Intervals below(const std::function<double(double)>& clearance, double full, double wanted);

//! What the plane of both travels comes to.
struct Forbidden {
  double share;       //!< of the plane
  double frees_from;  //!< the least door turn from which on the whole swing is free; NaN: none does
  double least_open;  //!< least clearance over the swing, door fully open
};
Forbidden forbidden(const std::function<double(double, double)>& clearance, double leg_full, double door_full,
                    double wanted);

}  // namespace kranich::doors
