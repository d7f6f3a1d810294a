// SPDX-License-Identifier: GPL-3.0-or-later
//! Rotation: at which speed the elevator lifts the nose wheel. SI, rad; heights above the ground and stations
//! along it, level attitude, static state. Source: handbook, Place.
//!
//! The equations. Moments about the main contact when the nose wheel just unloads, q the dynamic pressure:
//!   q·[S_t·C_Lt·(x_t − x_m) + S·C_Lg·(x_m − x_ac) + S·C_D·z_D + S·c̄·C_m0] + m·a·h = W·(x_m − x_cg) + T·z_T,
//!   m·a = T − q·S·C_D − μ·(W − q·S·C_Lg + q·S_t·C_Lt),
//! linear in q with the thrust taken at that speed: q·B = A. The slipstream multiplies q at the tail.
#pragma once

#include <optional>

namespace kranich::place {

struct GroundRun {
  double mass, cg_x, cg_height, main_x;
  double wing_area, mean_chord, centre_x;                //!< aerodynamic centre's station
  double ground_lift, drag, drag_height, moment;         //!< C_Lg, C_D, C_m0 (nose-up positive)
  double tail_area, tail_down_lift, tail_x, slipstream;  //!< C_Lt; factor on q
  double thrust, thrust_height, friction;
  double greatest_lift, density;
};

struct Rotation {
  double stall_speed;
  enum class Verdict {
    rotates,
    at_standstill,   //!< full thrust lifts the nose at once
    never,           //!< the tail can never lift it: its moment does not grow beyond the rest
    not_moving_on,   //!< the speed is out of reach: nothing left to accelerate it
    flies_off_first  //!< nothing is left on the mains: it flies off level before
  } verdict;
  double speed,
      ratio;  //!< m/s, over the stall speed, reached or not; 0 at standstill, NaN where it never would
  double main_load, acceleration;
  double
      missing_moment;  //!< N·m about the main contact, nose-up, at 1.05 times the stall speed; < 0: to spare
};
Rotation rotation(const GroundRun& run);

//! The furthest-aft main contact that still rotates at a ratio of the stall speed; the aircraft else as it
//! is. Nothing where the tail does not help however far forward they stand.
std::optional<double> furthest_aft_main(GroundRun run, double ratio);

}  // namespace kranich::place
