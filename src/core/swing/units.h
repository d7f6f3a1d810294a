// SPDX-License-Identifier: GPL-3.0-or-later
//! Retract units as they are sold: how they go into an aircraft, which of them fit, carry and are quick
//! enough. SI, rad. Source: handbook, Swing and Drive.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/base/say.h"
#include "core/model/design.h"

namespace kranich::swing {

//! A unit of a shelf. Its body in its own directions: `fore` towards where the leg is stowed, `back` the
//! other way, `half_width` along the axis to each side, `above` and `below` the pivot.
struct ShelfUnit {
  std::string name;
  Given angle, fore, back, half_width, above, below;
  Given pin;           //!< bore that takes the leg
  Given rated_mass;    //!< aircraft it is sold for
  Given rated_moment;  //!< at the pin
  Given time;          //!< of one travel
  Given mass, price;   //!< price as the table has it, without a currency
  std::string drive;   //!< "electric", "servo", "air", "by hand"
  bool other_way = false;
  std::string remark;
};

//! What is wrong between a bore and the pin that goes into it, with bush or drill; nothing where it runs.
inline constexpr double tightest_pin = 2e-5;         //!< m; a drive fit
inline constexpr double greatest_pin_play = 1.5e-4;  //!< m; what a grub screw still takes up
std::optional<Text> pin_misfit(double bore, double pin);

//! Puts a unit into a leg: angle, body, ratings, times, sense. What was fitted about the old one (holes, its
//! label, the turn measured on it) goes with it; pivot and leg stay.
void fit_unit(Leg& leg, const ShelfUnit& unit);

//! A unit held against an aircraft.
struct UnitCandidate {
  const ShelfUnit* unit;
  std::vector<Text> against;  //!< why not; empty: it fits
  std::vector<Text> unknown;  //!< what could not be judged
  double lean;                //!< by how much the leg would lean otherwise than wanted, rad
  double structure;           //!< least distance of its body to what it must not touch, m; +∞: nothing near
  double clearance;           //!< least of the swing less what is wanted, m; NaN: unknown
  double mass_in_hand;        //!< rated over the aircraft's, less 1; NaN: unknown
  double moment_in_hand;
};
struct UnitNeed {
  double aircraft_mass;  //!< the heaviest; NaN: unknown
  double moment;         //!< greatest at the pin over the leg's load cases; NaN: unknown
};
//! Those without objection first; then by price where known, by mass, by name.
std::vector<UnitCandidate> rank_units(const std::vector<ShelfUnit>& shelf, const Design& design,
                                      const Leg& leg, const UnitNeed& need);

//! How deep each corner of the unit's plate is let into a level surface so that it slopes as mount tilt and
//! axis want it: the highest corner flush. Corners fore and aft, inboard and outboard.
struct PlateCorner {
  double x, y;   //!< from the pivot
  double depth;  //!< below the surface
};
//! On a surface that is not level athwartships (a body that is twisted there) it rises outboard by
//! `surface_slope`, rad; the plate stays to the aircraft's true axes.
//! Nothing where the unit's body or the tilt is unknown.
std::vector<PlateCorner> plate_corners(const Leg& leg, double surface_slope = 0);

}  // namespace kranich::swing
