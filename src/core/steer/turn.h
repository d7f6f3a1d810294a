// SPDX-License-Identifier: GPL-3.0-or-later
//! A turn on the ground without slip. SI, rad. Source: handbook, Steering and brakes.
#pragma once

namespace kranich::steer {

struct Turning {
  double wheelbase, track, span;
  double tip_ahead = 0;  //!< of the main axle; behind: negative
  double angle;          //!< of the steered wheel, about its axis
  double rake = 0;       //!< the axis' lean in the side view
};
struct TurnFigures {
  double ground_angle;                        //!< tan δ = cos ε·tan(angle)
  double middle, inner, outer, steered, tip;  //!< radii; the tip's is the outer one
};
TurnFigures turn_figures(const Turning& turning);
//! Steering angle about the axis that gives a radius of the middle between the mains.
double angle_for(const Turning& turning, double radius);
//! Sideways acceleration over g at a speed, and the speed that brings one.
double sideways(double radius, double speed);
double speed_for(double radius, double sideways_g);

}  // namespace kranich::steer
