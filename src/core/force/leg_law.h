// SPDX-License-Identifier: GPL-3.0-or-later
//! Force laws of legs, shared by Stance and Spring. SI. Source: handbook, Springs.
#pragma once

#include <string>
#include <variant>

#include "core/model/design.h"

namespace kranich::force {

//! Force of a leg against its closure along z; rises from the preload, ends at a rigid stop.
struct LegLaw {
  enum class Kind { rigid, linear, gas } kind = Kind::rigid;
  double rate = 0, preload = 0;                                                 //!< linear: N/m, N
  double piston_area = 0, volume = 0, pressure = 0, ambient = 0, exponent = 1;  //!< gas, extended
  double travel = 0;                                                            //!< m

  //! Force at a closure within the travel (below the stop).
  double force(double closure) const;
  //! Its slope.
  double slope(double closure) const;
  //! Closure under a force: 0 up to the preload, the travel beyond what the spring carries there.
  double closure(double force) const;
  //! Work done on the spring up to a closure.
  double energy(double closure) const;
};

//! The law of a design's leg, or what is missing for it.
std::variant<LegLaw, std::string> leg_law(const Leg& leg);

}  // namespace kranich::force
