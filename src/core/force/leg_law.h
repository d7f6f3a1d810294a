// SPDX-License-Identifier: GPL-3.0-or-later
//! Force laws of springs and tyres, shared by Stance and Spring. SI. Source: handbook, Springs.
#pragma once

#include <cmath>
#include <limits>
#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "core/base/say.h"
#include "core/model/design.h"

namespace kranich::force {

//! Force of a spring against its closure; rises from the preload. Where the closure is an angle (a leaf taken
//! as a torsion hinge) rates are N·m/rad and forces moments.
struct LegLaw {
  enum class Kind { rigid, linear, gas, curve } kind = Kind::rigid;
  double rate = 0, preload = 0;                                                 //!< linear: N/m, N
  double piston_area = 0, volume = 0, pressure = 0, ambient = 0, exponent = 1;  //!< gas, extended
  //! Rising points (closure, force), straight between them and beyond the last: cords, measured springs.
  std::vector<std::pair<double, double>> curve;
  double travel = 0;  //!< of the axle (m): the stop

  //! Force at a closure within the travel (below the stop).
  double force(double closure) const;
  //! Its slope.
  double slope(double closure) const;
  struct ForceAndSlope {
    double force, slope;
  };
  ForceAndSlope both(double closure) const;
  //! Closure under a force: 0 up to the preload, the travel beyond what the spring carries there.
  double closure(double force) const;
  //! Work done on the spring up to a closure.
  double energy(double closure) const;
  bool operator==(const LegLaw&) const = default;
};

//! A tyre's force against its squash, square to the ground: linear to the knee, then stiffening towards its
//! limit (rim or core), F = k·knee + k·x/(1 − x/room) with x beyond the knee and room = limit − knee; from
//! nine tenths of the room on the rim or core itself carries, a stop as stiff as the law is there (100·k).
//! Foam and solid tyres: knee at 60 % of the section height. Pneumatic (textbook, p·2.3·√(w·D)·squash):
//! linear to 95 %.
struct TyreLaw {
  double rate = 0;  //!< N/m
  double knee = std::numeric_limits<double>::infinity();
  double limit = std::numeric_limits<double>::infinity();  //!< squash at which the tyre would be flat
  double force(double squash) const;
  double slope(double squash) const;
  double squash(double force) const;
  //! Work done on it up to a squash, J.
  double energy(double squash) const;
  //! Squash from which rim or core carries; infinite where neither is known.
  double rim() const {
    return std::isfinite(limit) ? knee + 0.9 * (limit - knee) : std::numeric_limits<double>::infinity();
  }
  bool operator==(const TyreLaw&) const = default;
};

//! The law of a design's leg over its spring's closure, or what is missing for it. `closes`: how far the
//! spring closes until the leg is at its stop, where anchors say so; a spring between anchors is taken as it
//! is, its motion ratio then being the geometry's. Without anchors the spring closes with the axle, by the
//! leg's travel.
//! What travel and spring of a leg lack, all of it; empty where nothing is missing.
Text lacking_of_spring(const Leg& leg);
std::variant<LegLaw, Text> leg_law(const Leg& leg, std::optional<double> closes = {});
//! Stiffness of the stop at the end of a leg's travel (N/m at the axle) where the builder has none: what ten
//! times the mass (kg) on the leg weighs presses a metal stop in by 2 % of the travel, one of rubber (cords,
//! pucks) by 10 %. A choice of ours between the hard ones of oleos and the soft ones of rubber gear; it
//! decides how hard a landing is that bottoms, not whether it does.
double usual_stop_rate(const Leg& leg, double mass);
//! Textbook: the area that a tyre presses on the ground grows by 2.3·√(w·D) with its squash (m2 a metre).
inline double patch_per_squash(double width, double diameter) { return 2.3 * std::sqrt(width * diameter); }
//! The law of a wheel's tyre, or what is missing for it. A rate that is not given follows from the pressure.
std::variant<TyreLaw, Text> tyre_law(const Wheel& wheel);

}  // namespace kranich::force
