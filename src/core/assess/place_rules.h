// SPDX-License-Identifier: GPL-3.0-or-later
//! Place's limits for one project, and the figures they are held against for one way of standing. The checks,
//! the placement map and the drawings all take both from here.
#pragma once

#include <limits>
#include <optional>
#include <string_view>
#include <vector>

#include "core/assess/standing.h"
#include "core/base/say.h"
#include "core/place/place.h"
#include "core/place/rotation.h"
#include "core/place/tandem.h"
#include "core/place/tipping.h"
#include "core/place/wheel_shelf.h"

namespace kranich {

//! What follows from the project alone: limits by field, use, size and arrangement, and the data behind them.
struct PlaceRules {
  bool tricycle = true, wings = true;
  Layout layout = Layout::tricycle;
  Limit tip_back, nose_share, mains_share, turnover, rotation, liftoff;
  Limit axle_ahead, three_point, nose_over_three_point, nose_over_level, tail_share, side_tip;
  Limit left, crosswind, tipping;
  //! Propeller clearance wanted, level and static: of a model a share of the diameter.
  double propeller_wanted(double diameter) const {
    return model ? (smooth ? 0.10 : 0.15) * diameter : tricycle ? 0.18 : 0.23;
  }
  Limit propeller_static(double diameter) const;
  //! Whether two lines of mains carry it, without nose or tail leg.
  bool two_lines = false;
  //! "place.nose_share", or of two lines of mains "place.front_share".
  std::string_view share_measure() const { return two_lines ? "place.front_share" : "place.nose_share"; }
  bool model = false, smooth = false;
  std::vector<Vec3> tail_points;
  std::vector<int> tail_point_index;  //!< of airframe.low_points
  std::vector<place::PropellerDisc> propellers;
  std::optional<double> attitude_needed;  //!< pitch at lift-off, with 1° in hand
  std::optional<place::GroundRun> run;    //!< without what the way of standing decides
  Text run_missing;
  bool run_estimated = false;
  bool turf_taken = false;  //!< the field is not said: its rolling friction is turf's
  std::optional<double> drag_z, thrust_z, side_z;
  std::optional<place::LiftoffInput> liftoff_input;  //!< without the mass
  double side_force = 0;                             //!< S·C_Y, m2
  double density = 1.225;
  double braking = 0.4;  //!< in g
};
PlaceRules place_rules(const Design& design);

//! The edges of the support polygon over which it can go sideways: how far the CG lies inside.
struct Sideways {
  double distance = 0;  //!< d, square to the nearest such edge
  double straight =
      0;  //!< least distance straight sideways: d over the cosine of the edge to the fore-and-aft line
};

struct PlaceFigures {
  double mass = 0;
  double main_behind = 0, cg_height_level = 0;              //!< level
  double wheelbase = 0, cg_behind_main = 0, cg_height = 0;  //!< along the ground, at rest
  place::TipBack tip{};
  std::optional<place::TailStrike> tail;
  double third_share = 0, third_share_braking = 0;
  place::Turnover turnover{};
  std::optional<place::TailwheelFigures> tailwheel;
  std::optional<place::Rotation> rotation;
  std::optional<double> furthest_aft;                             //!< station of the main contact
  std::optional<place::Liftoff> liftoff;                          //!< of two lines of mains
  bool rotates_first = false;                                     //!< before it would fly off as it stands
  double mains_share = std::numeric_limits<double>::quiet_NaN();  //!< of four mains, at rest
  std::optional<double> crosswind;                                //!< m/s
  double tipping_least = 0;                                       //!< g, over all directions
  //! The tightest propeller, static: its clearance and what is wanted; infinite without one.
  double propeller = 0, propeller_wanted = 0;
};
//! `for_map`: leaves out what has no limit (the tipping rose of winged aircraft, the furthest-aft wheel).
PlaceFigures place_figures(const PlaceRules& rules, const Standing& standing, double mass,
                           bool for_map = false);

//! One check as a number against its limit, for the map: which measure, and NaN for a side without limit.
struct PlaceLine {
  std::string_view measure;
  double value, lower, upper;
  //! Distance inside the nearer limit over the limit's scale; negative outside.
  double margin() const;
};
std::vector<PlaceLine> place_lines(const PlaceRules& rules, const PlaceFigures& figures);

//! The CG's ground point and the support polygon at rest, ground axes with the main contact line at x = 0.
struct Support {
  std::vector<place::Vec2> polygon;
  place::Vec2 cg;
  double height;
};
Support support_of(const Standing& standing);
//! Nothing where the contacts span no polygon.
std::optional<Sideways> sideways_of(const Support& support);

//! Tip-back limit for a tail-strike angle: never less than that.
struct Bounds {
  double lower, upper;
};
Bounds tip_back_bounds(const PlaceRules& rules, const std::optional<place::TailStrike>& tail);
Limit tip_back_limit(const PlaceRules& rules, const std::optional<place::TailStrike>& tail);

//! A wheel's usual diameter for a model of a mass (kg) on a smooth field, between the starting points of
//! practice as a power of the mass.
double usual_model_wheel(double mass);

//! The loading that puts most on a leg, on either side where it stands on both, and the load (N).
struct Heaviest {
  const LoadingState* loading = nullptr;
  double load = 0;
  size_t wheel = 0;  //!< which of the rest's wheels: of a pair the heavier one
};
Heaviest heaviest_on(const Design& design, const Assessment& assessment, const Leg& leg);

//! What a wheel of the shelf has to be for a leg. The usual diameter: of a main wheel by load, of a model by
//! mass, a quarter more off smooth ground; of a nosewheel 85 % (60–100 %), of a tailwheel 30 % (25–35 %) of
//! the main wheel's. Load 0 where the aircraft does not stand.
place::WheelNeed wheel_need(const Design& design, const Assessment& assessment, const Leg& leg);

}  // namespace kranich
