// SPDX-License-Identifier: GPL-3.0-or-later
//! How an aircraft stands in a loading and a state: its wheels and CG as the checks and drawings need them.
#pragma once

#include <limits>
#include <optional>
#include <vector>

#include "core/assess/loading_state.h"
#include "core/place/place.h"

namespace kranich {

//! Place in Assessment::wheels and Rest::wheels of the wheel that speaks for a leg: of two the starboard one.
size_t wheel_of(const Design& design, const std::string& leg_id);

//! The leg's coordinate in a state: 0 extended, as at rest, at the stop.
double coordinate_in_state(const stance::WheelOnLeg& wheel, GearState state,
                           const stance::WheelState* at_rest);
//! Radius of a wheel in a state; flat: on its rim or core (NaN where that is not known).
double radius_in_state(const Leg& leg, GearState state, const stance::WheelState* at_rest);
//! A wheel in a state, aircraft axes, as the leg is stored (to starboard). `on_leg` null: a straight leg is
//! taken.
Vec3 axle_in_state(const Leg& leg, const stance::WheelOnLeg* on_leg, GearState state,
                   const stance::WheelState* at_rest);

//! One wheel (or pair on an axle) where it stands, aircraft axes.
struct StandingWheel {
  double x, z, radius;  //!< axle, loaded radius
  double contact_y;     //!< signed, starboard positive
  LegRole role;
};

//! One loading's wheels. In the side view an aircraft stands on two lines of wheels: the mains (of several
//! lines of them the rearmost; ahead of a tail wheel the foremost) and what stands apart: nose or tail leg,
//! or where there is neither the other line of mains.
struct Standing {
  place::RoundWheel main, third;  //!< means of their lines
  double half_track;              //!< of the mains' contacts, m: half the distance between the outermost
  double pitch;                   //!< rad
  Vec3 cg;
  std::vector<StandingWheel> wheels;  //!< all of them, in the order of placed_legs
  //! Share of the weight on what stands apart, where springs decide it (more than two lines); NaN where a
  //! lever does.
  double third_share = std::numeric_limits<double>::quiet_NaN();
  //! Front line's part of what several lines of mains carry at rest; NaN for one line.
  double mains_share = std::numeric_limits<double>::quiet_NaN();
  double pitch_extended =
      std::numeric_limits<double>::quiet_NaN();  //!< of the plane under the extended wheels
  //! From the centre line to the mains' contacts on the side where they stand nearer to it.
  double narrower_half = std::numeric_limits<double>::quiet_NaN();
};
//! Every wheel on its leg where springs or tyres are not known: those rigid and as drawn, extended, the
//! others as they are. Nothing where a place or a wheel's size is missing.
std::optional<std::vector<stance::WheelOnLeg>> wheels_as_drawn(const Design& design);

//! `wheels` of the assessment; null where something is missing (then legs are taken as straight).
Standing standing_in(const Design& design, const std::vector<stance::WheelOnLeg>* wheels,
                     const LoadingState& loading, GearState state);

}  // namespace kranich
