// SPDX-License-Identifier: GPL-3.0-or-later
//! Cloth and resin of a reinforcement, zone by zone. SI. Source: handbook, Leg.
#pragma once

#include <string>
#include <vector>

#include "core/model/workshop.h"

namespace kranich::leg {

//! Of one row of the schedule, all its plies. NaN where a number is missing.
struct PlyTotal {
  double cut;    //!< area of one ply with its overlap all round, m²
  double area;   //!< of all of them, m²
  double cloth;  //!< dry, kg
  double resin;  //!< in it, kg: cloth·r/(1 − r)
  double mass() const { return cloth + resin; }
};
//! A ply's area is that of its zone with the overlap all round, where the zone's size is given, else as
//! entered.
PlyTotal total_of(const Ply& ply);

//! All the rows; what could not be counted is named.
struct LayUpTotal {
  double area = 0, cloth = 0, resin = 0;
  std::vector<std::string> left_out;  //!< zones without area, cloth's weight or share of resin
  int batches = 0;                    //!< of resin, none larger than `largest_batch`
};
//! What hardens in its cup before it is brushed out, kg.
inline constexpr double largest_batch = 0.15;
LayUpTotal total_of(const std::vector<Ply>& plies);

//! Plies that one mix reaches for, laid within two thirds of the time it can be worked; both times known.
int plies_of_a_mix(const Mixing& mixing);
//! Mixes that a zone takes, none for two zones: by then the first has set.
int mixes_for(const Ply& zone, int plies_of_a_mix);

}  // namespace kranich::leg
