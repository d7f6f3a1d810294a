// SPDX-License-Identifier: GPL-3.0-or-later
//! How an aircraft stands in a loading and a state: its wheels and CG as the checks and drawings need them.
#pragma once

#include <optional>

#include "core/assess/assess.h"

namespace kranich {

//! Which wheel of Assessment::wheels.
enum class WheelIndex { third, port, starboard };
//! The wheel that speaks for a leg: of the mains the starboard one.
constexpr size_t wheel_of(LegName leg) {
  return static_cast<size_t>(leg == LegName::main ? WheelIndex::starboard : WheelIndex::third);
}

//! The leg's coordinate in a state: 0 extended, as at rest, at the stop.
double coordinate_in_state(const stance::WheelOnLeg& wheel, GearState state,
                           const stance::WheelState* at_rest);
//! Radius of a wheel in a state; flat: on its rim or core (NaN where that is not known).
double radius_in_state(const Leg& leg, GearState state, const stance::WheelState* at_rest);
//! A wheel in a state, aircraft axes (starboard for a main wheel). `on_leg` null: a straight leg is taken.
Vec3 axle_in_state(const Leg& leg, const stance::WheelOnLeg* on_leg, GearState state,
                   const stance::WheelState* at_rest);

//! One loading's wheels in the side view, the mains' mean in both.
struct Standing {
  place::RoundWheel main, third;
  double half_track;  //!< of the contacts, m
  double pitch;       //!< rad
  Vec3 cg;
};
//! `wheels` of the assessment; null where something is missing (then legs are taken as straight).
Standing standing_in(const Design& design, const std::vector<stance::WheelOnLeg>* wheels,
                     const LoadingState& loading, GearState state);

}  // namespace kranich
