// SPDX-License-Identifier: GPL-3.0-or-later
//! What would close an open door, against what holds it: in the plane square to its hinge, the hinge at the
//! origin, angles counter-clockwise from the first axis (outboard) to the second (up). SI, rad. Source:
//! handbook, Doors, Hold margin.
#pragma once

#include <Eigen/Core>
#include <functional>
#include <optional>
#include <vector>

namespace kranich::doors {

//! A tension spring or a rubber cord; a cable led to it counts from where it leaves its guide. Never pushes.
struct HoldSpring {
  double along, offset;  //!< its point on the door: along the panel, and square to it towards where it opens
  Eigen::Vector2d anchor;  //!< on the airframe
  double initial_force = 0, rate = 0, free_length = 0;
};

struct HeldDoor {
  double closed = 0;              //!< the panel's direction when closed
  bool counter_clockwise = true;  //!< the way it opens
  double open = 0;                //!< by which it opens
  double mass = 0, cg_along = 0;
  double area = 0, chord = 0, normal_coefficient = 0;
  double density = 1.225, speed = 0;
  double hinge_stiffness = 0;  //!< tape and fabric hinges push back towards closed
  std::optional<HoldSpring> spring;
  double servo_torque = 0;  //!< that its drive holds, about its own axis
  //! How many times that torque reaches the hinge, over the angle; empty: once.
  std::function<double(double angle)> servo_ratio{};
  double magnet_force = 0, magnet_along = 0;  //!< pulls the door to its stop when open, and only there

  //! What would close it at an angle from closed: weight, ½ρV²·S·(c/2)·C_N·sin, hinge. Negative: it opens.
  double closing(double angle) const;
  //! Torque of the spring towards open: −F·dL/dα.
  double spring_torque(double angle) const;
  //! All that holds it there.
  double holding(double angle) const;
};

//! A reserve of 30 %: holding at least this times closing, wherever that is positive.
inline constexpr double reserve = 1.3;

struct HoldFigures {
  std::vector<double> crossings;  //!< angles at which the reserve is lost or won
  std::vector<double> arm_lost;   //!< angles at which the spring's line passes the hinge
  bool held_open;                 //!< with the reserve, fully open
  double largest_spring_torque, at;
  double worst;  //!< least of holding − 1.3·max(0, closing) over all angles from `from`
  double worst_at;
};
//! Over the angles between `from` and fully open.
HoldFigures hold_figures(const HeldDoor& door, double from = 0);

//! Where on the panel (along it, its offset as it is) the spring must pull so that fully open is held with
//! the reserve: the place nearest to where it is. Nothing where none on the panel does.
std::optional<double> spring_place(const HeldDoor& door);

}  // namespace kranich::doors
