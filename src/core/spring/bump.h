// SPDX-License-Identifier: GPL-3.0-or-later
//! Rolling over a bump or a step at taxi speed, in the side view. SI. Source: handbook, Springs.
//!
//! The wheel is a disc of radius R; where it is rigid its axle runs on the road dilated by R. The tyre pushes
//! along the line from axle to contact point, which gives the vertical and the fore-and-aft load. Sprung mass
//! up and down, leg coordinate q (suspension.h): with x(q), z(q) the axle's path in the aircraft,
//!   (m_s + m_u)·z̈ + m_u·(z′·q̈ + z″·q̇²) = −(m_s + m_u)·g + F_z,
//!   m_u·z′·z̈ + m_u·(x′² + z′²)·q̈ + m_u·(x′x″ + z′z″)·q̇² = −m_u·g·z′ − G(q) − D + F_x·x′ + F_z·z′.
//! On a telescopic leg the fore-and-aft load makes friction in its bushes; on a trailing link it works along
//! the travel. Assumptions: steady speed, no pitching, no lift.
#pragma once

#include <vector>

#include "core/force/suspension.h"
#include "core/spring/drop.h"

namespace kranich::spring {

//! Half a cosine wave of a height over a length, or a step up (length not above 0).
struct Obstacle {
  double height, length;
  bool operator==(const Obstacle&) const = default;
};

//! The rigid disc's way over an obstacle whose middle (a step's edge) lies at 0.
class DilatedRoad {
 public:
  DilatedRoad(const Obstacle& obstacle, double radius);
  struct At {
    double height;   //!< of the axle where the disc just touches, above the level road
    double contact;  //!< contact point ahead of the axle, m
  };
  At at(double x) const;
  double reach() const { return reach_; }  //!< beyond it on either side the road is level

 private:
  At exact(double x) const;
  double road(double x) const;
  Obstacle obstacle_;
  double radius_, reach_, step_;
  std::vector<At> table_;
};

struct BumpModel {
  force::Suspension leg;
  DropModel drop;  //!< masses, damper, tyre, stops; its lift ratio is not used
  double radius = 0;
  Obstacle obstacle{};
  double speed = 0;
  double bush_friction = 0;  //!< of a straight leg: friction along it over the fore-and-aft load
  bool operator==(const BumpModel&) const = default;
};

struct BumpPoint {
  double t, along;          //!< s; axle past the obstacle's middle, m
  double stroke, axle_aft;  //!< vertical closure; axle aft of where it stands at rest, m
  double vertical, aft;     //!< on the wheel, N
  double sprung;            //!< sprung mass above where it stood, m
};
struct BumpResult {
  double peak_vertical, peak_aft;  //!< N
  double load_factor;              //!< peak vertical over the static load
  double stroke_used, stroke_at_rest;
  double least_load;   //!< 0: the wheel leaves the ground
  double sprung_peak;  //!< greatest acceleration of the sprung mass, multiples of g
  bool bottoms;
  std::vector<BumpPoint> trace;
};
//! `points`: of the trace; 0 for none.
BumpResult roll_over(const BumpModel& model, int points = 0);

//! The same leg of the other kind, with the same vertical force over its travel: a telescopic one as a
//! trailing link whose arm is two and a half times the travel, any other as a telescopic one.
BumpModel counterpart(const BumpModel& model);

}  // namespace kranich::spring
