// SPDX-License-Identifier: GPL-3.0-or-later
//! The axis about which one turn carries a wheel from where it stands to where it is stowed: all of them, the
//! nearest that can be built, and how sure they are. SI, rad, aircraft axes; turns right-handed about the
//! direction told. Source: handbook, Swing.
//!
//! A wheel is the same from both sides, so that its axle may end as given or reversed (s = ±1). With d from
//! down to stowed and a₀, a₁ the axles: u ∥ d × (a₀ − s·a₁), ψ = atan2(s·u·(a₀×a₁), s·[a₀·a₁ −
//! (u·a₀)(u·a₁)]), through C = ½(A₀ + A₁) + (u×d)/(2·tan(ψ/2)).
#pragma once

#include <optional>
#include <vector>

#include "core/motion/frame.h"

namespace kranich::swing {

using motion::Axis;

struct WheelPose {
  Vec3 centre, axle;  //!< axle: any length
};

//! What the two poses leave open.
enum class AxisFamily {
  one,       //!< one axis
  by_angle,  //!< the axle keeps its direction: every axis along it in the middle plane, two for each unit
             //!< angle
  none,      //!< the axle keeps its direction and the wheel moves along it: none; misses by `along_axle`
  fan,       //!< every direction square to the way does, each with its own turn and place
  in_place,  //!< the wheel's centre stays: axes through it
};

struct FoundAxis {
  Axis axis;    //!< its point is the one nearest the middle between the two centres
  double turn;  //!< 0 < ψ ≤ π
  //! How far the axis direction goes (rad) for each metre that the stowed centre is off, and for each rad
  //! that its axle is.
  double sensitivity_place, sensitivity_axle;
};

struct AxisAnswer {
  AxisFamily family = AxisFamily::one;
  std::vector<FoundAxis> axes;  //!< of a family: those a unit angle or a direction picks, where one was given
  double along_axle = 0;        //!< d·a₀
};

//! `reversed`: the stowed axle points the other way. `unit_angle` picks from the families.
//! Errors: axles without a length give no axes.
AxisAnswer find_axes(const WheelPose& down, const WheelPose& stowed, bool reversed,
                     std::optional<double> unit_angle = {});

//! The axis of a given direction that misses least: the turn about it (−π … π), and what is left at the
//! wheel.
struct NearestAxis {
  Axis axis;
  double turn;
  double place_miss;  //!< m
  double axle_miss;   //!< rad
  bool reversed;
  //! √(miss² + (D/2·angle)²)
  double combined(double diameter) const;
};
NearestAxis nearest_along(const Vec3& direction, const WheelPose& down, const WheelPose& stowed,
                          bool reversed);
//! The better of both senses by the combined miss.
NearestAxis nearest_along(const Vec3& direction, const WheelPose& down, const WheelPose& stowed,
                          double diameter);
//! Of all directions in a plane the one that misses least, told so that its turn is 0 … π.
NearestAxis nearest_in_plane(const Vec3& normal, const WheelPose& down, const WheelPose& stowed,
                             double diameter);

}  // namespace kranich::swing
