// SPDX-License-Identifier: GPL-3.0-or-later
//! What a leg's drive works against over its travel: weight, air, down-spring, friction. SI, rad, aircraft
//! axes; torques about the pivot axis, positive towards stowed. Source: handbook, Drive.
#pragma once

#include <functional>
#include <optional>
#include <vector>

#include "core/motion/retraction.h"

namespace kranich::drive {

//! A straight thing between a point of the airframe and one of the leg (down): actuator, spring. It pushes
//! its ends apart with a positive force.
struct Strut {
  Vec3 on_airframe, on_leg;
  bool operator==(const Strut&) const = default;
};
//! dℓ/dψ: positive where it lengthens towards stowed. The torque of a push F is F·r.
double arm_of(const motion::Retracting& leg, const Strut& strut, double turn);
double length_of(const motion::Retracting& leg, const Strut& strut, double turn);

//! A bought gas spring: F = F₁/(1 − (1 − 1/x)·s/s_max), slow, at one temperature; s its closure from
//! extended.
struct DownSpring {
  Strut strut;
  double extended_force, progression, full_stroke, extended_length;
  double force_at(double length) const;
  bool operator==(const DownSpring&) const = default;
};

struct Stream {
  double speed = 0, density = 1.225;
  Vec3 direction = Vec3::UnitX();
  bool operator==(const Stream&) const = default;
};
//! The leg in the air: its area turns away with the leg, ½ρV²·(A·sin² + A₀), along the stream.
struct AirLoad {
  Vec3 leg_direction, centre;  //!< down
  double turning_area = 0, constant_area = 0;
  motion::Carried carried = motion::Carried::leg;
  bool operator==(const AirLoad&) const = default;
};
struct Friction {
  double share = 0;     //!< of the sum of the other loads
  double constant = 0;  //!< N·m
  bool operator==(const Friction&) const = default;
};

//! Weight hangs where a share of the mass is; several parts may be carried differently.
struct Mass {
  double mass;
  Vec3 at;  //!< down
  motion::Carried carried = motion::Carried::leg;
  bool operator==(const Mass&) const = default;
};

struct LegLoad {
  motion::Retracting moves;
  std::vector<Mass> masses;
  double load_factor = 1;
  double pitch = 0, roll = 0;  //!< of the aircraft, nose-up, starboard down
  Stream stream;
  AirLoad air;
  std::optional<DownSpring> spring;
  Friction friction;

  double weight_torque(double turn) const;
  double air_torque(double turn) const;
  double spring_torque(double turn) const;
  //! Weight, air and spring together.
  double sum(double turn) const;
  double friction_under(double loads) const {
    return friction.share * (loads < 0 ? -loads : loads) + friction.constant;
  }
  double friction_torque(double turn) const;  //!< its size
  //! What the drive must give in the direction of motion; negative: it must hold back. `inertia` times the
  //! acceleration is added.
  double to_retract(double turn, double acceleration_torque = 0) const;
  double to_extend(double turn, double acceleration_torque = 0) const;
  bool operator==(const LegLoad&) const = default;
};

//! Gravity in aircraft axes, N/kg at one g: g·(sin θ, cos θ·sin φ, −cos θ·cos φ).
Vec3 gravity(double pitch, double roll);

//! Largest of a function over the travel, and where: in fine steps, then refined.
struct Extreme {
  double value, turn;
};
Extreme largest_over(double full_turn, const std::function<double(double)>& f);
Extreme least_over(double full_turn, const std::function<double(double)>& f);
//! Work of a torque over the travel, J.
double work_over(double full_turn, const std::function<double(double)>& torque);

//! An actuator over the travel.
struct ActuatorFigures {
  double length_down, length_stowed, shortest, longest;
  std::vector<double> dead_centres;   //!< turns inside the travel at which its arm is nothing
  Extreme least_arm;                  //!< its size
  Extreme highest_push, lowest_push;  //!< holding the loads, no friction; only where there is no dead centre
  double work;                        //!< to raise, J
};
ActuatorFigures actuator_figures(const LegLoad& load, const Strut& actuator);
//! Force that moves the leg at a turn, friction in, positive pushing: up or down.
double moving_force(const LegLoad& load, const Strut& actuator, double turn, bool up);
//! Force that holds the loads at a turn, positive pushing.
double actuator_force(const LegLoad& load, const Strut& actuator, double turn);

}  // namespace kranich::drive
