// SPDX-License-Identifier: GPL-3.0-or-later
//! Cylinders and geared motors as they drive a leg. SI, rad. Source: handbook, Drive.
#pragma once

#include <functional>

namespace kranich::drive {

inline constexpr double steel_modulus = 205e9;  //!< Pa
//! Load at which a round rod between two pins bows out: π²·E·I/ℓ², N (Euler).
double rod_column(double diameter, double length, double modulus = steel_modulus);

//! Double-acting cylinder: full supply on one side, return pressure on the other.
struct HydraulicCylinder {
  double bore, rod;
  double supply, back;       //!< pressures, Pa
  double pinned_length = 0;  //!< between its pins, for the rod as a column
  double rod_modulus = steel_modulus;
  double area() const;
  double rod_area() const;
  double push() const;                                             //!< p·A − p_r·(A − a)
  double pull() const;                                             //!< p·(A − a) − p_r·A
  double volume_ratio() const { return 1 - rod_area() / area(); }  //!< pulling to pushing
  //! Euler's, the rod solid, uniform and pinned at both ends.
  double column_load() const;
};
//! Least bore with the same rod and pressures that pushes so much; NaN where none does.
double least_bore(HydraulicCylinder cylinder, double wanted_push);
//! That pulls so much.
double least_bore_to_pull(HydraulicCylinder cylinder, double wanted_pull);

//! A motor on its straight line T = T_s·(1 − ω/ω₀), I = I₀ + (I_s − I₀)·T/T_s.
struct MotorLine {
  double stall_torque, no_load_speed, no_load_current, stall_current;
  double speed_at(double torque) const { return no_load_speed * (1 - torque / stall_torque); }
  double torque_at(double speed) const { return stall_torque * (1 - speed / no_load_speed); }
  double current_at(double torque) const {
    return no_load_current + (stall_current - no_load_current) * torque / stall_torque;
  }
  bool operator==(const MotorLine&) const = default;
};
//! A geared motor whose pinion drives a sector on the leg.
struct GearedMotor {
  MotorLine motor;
  double sector_radius, pinion_radius, gearbox_ratio, efficiency;
  double rotor_inertia = 0;  //!< kg·m²
  double ratio() const { return sector_radius / pinion_radius * gearbox_ratio; }
  double motor_torque(double at_leg) const { return at_leg / (ratio() * efficiency); }
  bool operator==(const GearedMotor&) const = default;
};
//! Its way over the travel against a torque that resists at each turn.
struct MotorRun {
  double largest_torque, at_turn;  //!< of the motor
  double stall_margin;             //!< stall torque over that
  double largest_current;
  double time_steady;     //!< quasi-steady, no inertia; infinite where it stalls
  double time_from_rest;  //!< with the leg's and the rotor's inertia
  double charge;          //!< from rest, A·s
  double tooth_load;      //!< at the sector's pitch radius, N
};
MotorRun run_over(const GearedMotor& drive, double full_turn, const std::function<double(double)>& resisting,
                  double leg_inertia);

}  // namespace kranich::drive
