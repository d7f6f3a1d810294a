// SPDX-License-Identifier: GPL-3.0-or-later
//! A servo that works a mechanical unit by a push rod: in line with its rod at both ends of the unit arm's
//! travel, so that it rests there. Plane, angles counter-clockwise from x, rad; SI. Source: handbook, Drive.
#pragma once

#include <Eigen/Core>
#include <functional>

#include "core/model/gear.h"

namespace kranich::drive {

struct ServoLinkage {
  Eigen::Vector2d servo, pivot;  //!< the servo's axis, the unit arm's
  double unit_arm;
  double down, stowed;      //!< the unit arm's angle at both ends
  double over_centre = 0;   //!< by which the servo goes on at both ends
  bool longer_way = false;  //!< the servo goes the longer way round
};
//! a = half the difference, ℓ = half the sum of the distances from servo to the unit's pin at its ends.
struct ServoFit {
  double servo_arm, rod;
  double angle_down, angle_stowed;  //!< of the servo arm at the dead centres
  double turn;                      //!< between them, positive counter-clockwise towards stowed
  double throw_all;                 //!< with what it goes over at both ends
  double neutral;                   //!< servo arm in the middle of the throw
  //! Servo arm's angle at a share of the throw, 0 down with its over-centre.
  double arm_at(double share) const;
};
ServoFit fit_servo(const ServoLinkage& linkage);
//! Whether a servo's output looks to starboard, from where x ahead and y up are seen to run right and up:
//! where it throws both ways, or the way that stows seen onto its output.
bool faces_starboard(const ServoFit& fit, ServoThrow throws);
//! Unit arm's angle where the servo arm stands so, on the way between the ends; NaN beyond.
double unit_at(const ServoLinkage& linkage, const ServoFit& fit, double servo_angle);
//! Servo arm's angle at which the unit's arm stands so, between the dead centres; by halving, the way is one
//! way.
double servo_at(const ServoLinkage& linkage, const ServoFit& fit, double unit_angle);
//! Where the servo arm's ball and the unit's pin are.
Eigen::Vector2d servo_ball(const ServoLinkage& linkage, const ServoFit& fit, double servo_angle);
Eigen::Vector2d unit_pin(const ServoLinkage& linkage, double unit_angle);
//! Distance of the rod's line from the unit's pivot where the unit's arm stands so: torque there over the
//! rod's force.
double rod_arm(const ServoLinkage& linkage, const ServoFit& fit, double unit_angle);
//! Angle between the lines of servo arm and rod, 0 (in line) … π/2 (square).
double between_arm_and_rod(const ServoLinkage& linkage, const ServoFit& fit, double servo_angle);

//! The most that a torque about the leg's pivot, at its turn (0 … full_turn), asks of the servo on the way
//! between the dead centres: M·dφ/dθ. Unit's arm and leg go together, each over its own travel.
struct AtServo {
  double torque, turn;  //!< N·m at the servo; the leg's turn then
};
AtServo hardest_at_servo(const ServoLinkage& linkage, const ServoFit& fit, double full_turn,
                         const std::function<double(double)>& at_leg);

//! A stop met before the command's end: the rod is sprung by what the command still asks.
struct Binding {
  double rod_force, servo_torque, current;
  double goes_on;  //!< of what it was told: no further than its stall torque springs the rod
};
//! `stiffness` of rod and mount, N/m; the servo arm follows rigidly until its stall torque.
Binding binding(const ServoLinkage& linkage, const ServoFit& fit, double stop_at, double goes_on,
                double stiffness, double stall_torque, double stall_current, double idle_current);

}  // namespace kranich::drive
