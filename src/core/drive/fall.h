// SPDX-License-Identifier: GPL-3.0-or-later
//! Falling free: a leg let go from stowed without power, and the down-spring that closes the gap. SI, rad.
//! Source: handbook, Drive.
#pragma once

#include "core/drive/load.h"

namespace kranich::drive {

//! J·ψ̈ = loads and what opposes the motion: constant friction, the share of the loads, and c·ψ̇² of fluid
//! pushed out.
struct FreeFall {
  LegLoad load;
  double inertia;    //!< about the pivot, kg·m²
  double fluid = 0;  //!< c, N·m·s²
  bool operator==(const FreeFall&) const = default;
};
struct Fall {
  bool reaches_lock;
  double time;           //!< to the lock, or to its first standstill
  double arrival_speed;  //!< rad/s at the lock; 0 where it stops short
  double stops_at;       //!< turn of the first standstill before the lock; 0 where it arrives
  //! What is to spare towards down at rest, quasi-static: −(loads) − constant friction, the least over the
  //! travel.
  Extreme least_to_spare;
};
Fall fall(const FreeFall& leg);
//! Highest airspeed up to which it falls to the lock, between two; NaN where it does so at neither or at
//! both.
double limit_speed(const FreeFall& leg, double from, double to);

//! The least down-spring, quasi-static: at every turn its torque towards down is `reserve` times what holds
//! back less what helps, constant friction counted as holding back.
struct SpringSizing {
  bool without_reaches_lock;
  Extreme shortfall;             //!< the largest that weight and air lack
  std::vector<double> gap_ends;  //!< turns at which the shortfall begins or ends, inside the travel
  double least_force;  //!< extended force F₁; infinite where the spring is past its dead centre somewhere
  double governing_turn;
  double force_stowed, stroke_used;
  double retract_without, retract_with;  //!< largest torque to retract, friction in
};
//! `spring`: all of it but its force.
SpringSizing size_spring(const LegLoad& load, DownSpring spring, double reserve);

}  // namespace kranich::drive
