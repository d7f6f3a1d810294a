// SPDX-License-Identifier: GPL-3.0-or-later
//! What a design's bottle and air cylinders come to: stroke by stroke what is left in the bottle, whether it
//! still moves every leg, how long a way lasts. Pressures here are over the air outside. Source:
//! circuit/air.h.
#pragma once

#include <string>
#include <variant>
#include <vector>

#include "core/assess/steps.h"
#include "core/base/say.h"
#include "core/circuit/air.h"
#include "core/model/design.h"

namespace kranich {

//! A leg's cylinder one way, at even shares of the leg's travel from where it starts.
struct AirLegWay {
  std::string leg;
  bool up = true;
  double count = 1;          //!< of cylinders: two for a pair
  double area_in, area_out;  //!< nothing where no air acts
  double dead_in, dead_out;  //!< of its tubes, and of the cylinder's ends
  double length;             //!< of the stroke
  double travel, inertia;    //!< of the leg
  Text without_air;          //!< what the torques in the air lack; empty: nothing
  std::vector<double> strokes, arms;
  std::vector<double> torques[2];  //!< against the motion: on jacks, in the air
  //! Pressure over the outside that moves it at a share, in the air or on jacks. Where no air acts: +∞ if it
  //! needs any, −∞ if it goes by itself.
  double needs(size_t share, bool in_air) const;
  //! Whether it needs the most in the air, else on jacks; and where it needs the least.
  bool hardest_in_air() const;
  bool operator==(const AirLegWay&) const = default;
};

//! One movement of all legs.
struct AirStroke {
  bool up = true;
  double before, after;  //!< in the bottle
  double spare;          //!< least of pressure there over pressure needed in the air, less one
  double needs;          //!< pressure needed at that place; 0: none anywhere
  std::string leg;       //!< that has it
};

struct AirPlan {
  circuit::Bottle bottle;
  double filled = 0, starts = 0;  //!< after filling; after the wait since
  double leaks = 0;               //!< share of the pressure a second
  std::vector<AirLegWay> ways;
  std::vector<AirStroke> strokes;  //!< up to the first that does not go, or of forty cycles
  int cycles = 0;                  //!< whole ones, up and down, that go
  int wanted = 0;
  bool wanted_given = false;
  //! In the cylinders at a share of a stroke that begins with so much in the bottle.
  double at_share(bool up, size_t share, double bottle_before) const;
  //! In the bottle when a stroke of the wanted cycles begins, whether or not it goes: the last that is
  //! judged.
  double before_last(bool up) const;
  double after(bool up, double bottle_before) const;
  Text without_air() const;                  //!< of all legs
  bool goes(double from, int cycles) const;  //!< whether so many go from a filling
};
inline constexpr size_t air_shares = 48;
//! Share of a cylinder's stroke that its ends hold beside it, as cylinders are sold.
inline constexpr double air_in_ends = 0.05;

//! A list kept at even shares from 0 to 1, straight between.
double kept_at(const std::vector<double>& list, double share);

//! Whether any leg is moved by air.
bool moved_by_air(const Design& design);
//! The plan, or what is missing of it.
std::variant<AirPlan, Text> air_plan(const Design& design, Steps* steps = nullptr);

//! The least of what a leg's cylinder has in hand in the last cycle that is wanted of a filling: both ways,
//! in the air and on jacks, at every share.
struct AirInHand {
  double spare = 0;  //!< pressure there over that needed, less one; +∞: nothing is needed anywhere
  double needed = 0, there = 0;  //!< over the outside
  double turn = 0, arm = 0;
  const AirLegWay* way = nullptr;  //!< within the plan; null where nothing is needed
  bool in_air = false;
};
AirInHand air_in_hand(const AirPlan& plan, const std::string& leg);

//! A leg's way followed in time. `full`: from the filling, else as the last of the wanted cycles. Or what is
//! missing: bores.
std::variant<circuit::AirRun, Text> air_way_run(const Design& design, const AirPlan& plan,
                                                const AirLegWay& way, bool full, bool in_air, Steps& steps);

}  // namespace kranich
