// SPDX-License-Identifier: GPL-3.0-or-later
//! Tandem mains with outriggers, several lines of mains: shares, touching, toppling, lift-off in the stance,
//! turning, two wheels on an axle. SI, rad; aircraft axes unless a name says along the ground. Source:
//! handbook, Many legs.
#pragma once

#include <optional>
#include <span>
#include <vector>

#include "core/base/geometry.h"
#include "core/place/place.h"
#include "core/place/rotation.h"

namespace kranich::place {

//! A thin upright disc: axle place and radius.
struct Disc {
  Vec3 axle;
  double radius;
};
//! Height of a disc's lowest point above the plane through the axes' origin, square to `up` (aircraft axes).
double lowest_height(const Disc& disc, const Vec3& up);
//! Where a disc touches the ground, aircraft axes.
Vec3 contact_of(const Disc& disc, const Vec3& up);
//! Pitch at which two discs stand on one plane while the aircraft is rolled; nothing where none within ±45°.
std::optional<double> pitch_on_discs(const Disc& front, const Disc& rear, double roll);

//! Most deceleration (g) of brakes on the rear line alone: μ·(x_cg − x_f)/(L + μ·h), stations along the
//! ground.
double rear_brakes_alone(double front_x, double rear_x, double cg_x, double cg_height, double friction);

//! An aircraft on two lines of wheels, rolled towards an outrigger until that touches.
struct OutriggerTouch {
  double gap;        //!< under the outrigger, held at roll 0, square to the ground; ≤ 0: it carries upright
  double roll;       //!< magnitude
  double pitch;      //!< held upright
  double cg_beside;  //!< distance of the CG's ground point from the line of contacts, positive towards the
                     //!< outrigger
  double point_height;  //!< of a given point (wing tip) then
};
//! `point` is taken as it stands (its own side). Nothing where it does not touch within 60°.
std::optional<OutriggerTouch> outrigger_touch(const Disc& front, const Disc& rear, const Disc& outrigger,
                                              const Vec3& cg, const Vec3& point);

//! Let go from upright balance on single wheels: rolls about the line below them onto a spring. Finite
//! rotations, no damping.
struct Topple {
  double roll_at_touch, rate_at_touch;  //!< rad, rad/s
  double resting_roll, resting_load;
  double greatest_roll, greatest_load;
};
//! `gap` under the unloaded foot, `offset` beside the line, `inertia` about the fore-and-aft axis through the
//! CG. Nothing where the spring does not stop it.
std::optional<Topple> topple(double mass, double cg_height, double inertia, double gap, double offset,
                             double rate);

//! Flying off in the attitude of the extended legs, all wheels kept down till then.
struct Liftoff {
  double pitch;             //!< of the plane under the extended wheels
  double lift_coefficient;  //!< C_Lα·(pitch + incidence − α₀)
  double stall_speed, speed, ratio;
  bool lifts_off;    //!< the coefficient is positive and thrust is left over on the way
  double run, time;  //!< to that speed; NaN where it does not
};
struct LiftoffInput {
  double mass, wing_area, lift_slope, zero_lift_angle, incidence, greatest_lift, drag, thrust, friction,
      density;
};
Liftoff liftoff_in_stance(const LiftoffInput& in, double pitch_extended);
//! Speed at which, with full elevator, the wheels together carry nothing: √(2W/(ρ·(S·C_L − S_t·C_Lt)));
//! infinite where they always do.
double wheels_empty_speed(double mass, double density, double wing_area, double lift_coefficient,
                          double tail_area, double tail_down_lift);

//! Two equal pneumatic tyres on one rigid axle, load on its middle (textbook tyre: p·2.3·√(w·D)·squash).
struct TwinWheels {
  double load_each, loaded_radius, contact_area_each;
  double load_port, load_starboard;  //!< leaning
  double lifts_at;                   //!< lean at which one tyre lifts
  double roll_stiffness;             //!< N·m/rad of the two about the axle's middle
  double one_flat_radius, one_flat_sinks, one_flat_moment,
      one_flat_rim_clear;  //!< negative: the rim shares the load
  double scrub_moment;     //!< locked together, turning on the spot, full slide
};
TwinWheels twin_wheels(double load, double spacing, const WheelSize& tyre, double pressure,
                       double flat_radius, double lean, double friction);

//! A slow turn of two steered lines: centre abeam x_c = x_f + r·tan δ_f, r = L/(tan δ_f + tan δ_r).
struct TurnCentre {
  double x, y;  //!< y to starboard; infinite where it runs straight
};
TurnCentre turn_of_tandem(double front_x, double rear_x, double front_steer, double rear_steer);
//! Angle of a point's path against straight ahead, to starboard positive, rolling forward.
double path_angle(const TurnCentre& centre, double x, double y);

//! A steered nose line ahead of two fixed lines of mains: slip from the balance of side forces and yaw.
struct ScrubTurn {
  double radius, radius_without_scrub;  //!< at the middle between the mains
  double slip_front, slip_rear;         //!< magnitudes
  double scrub_moment;                  //!< turning on the spot, both lines sliding
};
std::optional<ScrubTurn> turn_of_four_mains(double nose_x, double front_x, double rear_x, double steer,
                                            double nose_stiffness, double front_stiffness,
                                            double rear_stiffness, double friction, double front_load,
                                            double rear_load);

//! A foot of a rigid aircraft standing on the ground: places in ground axes, its height above the ground.
struct Foot {
  double x, y, height;
};
//! Tipping over an outrigger that has to be leaned on first.
struct LeanedTipping {
  double roll;           //!< about the line of standing feet until the outrigger touches
  double sideways_in_g;  //!< purely sideways, square to that line
  double least_in_g;     //!< over the nearer edge through the outrigger
  double turnover;       //!< atan(h/d) then
  double share;          //!< outrigger's load over the weight, at rest leaning on it
};
//! `line` the two standing feet, front first. Nothing where the outrigger lies on their line.
std::optional<LeanedTipping> leaned_tipping(const Foot& front, const Foot& rear, const Foot& outrigger,
                                            double cg_x, double cg_y, double cg_height);

}  // namespace kranich::place
