// SPDX-License-Identifier: GPL-3.0-or-later
//! What a leg's design landing and bump come to: part of an Assessment.
#pragma once

#include <optional>
#include <string>
#include <variant>

#include "core/assess/assess.h"
#include "core/spring/bump.h"
#include "core/spring/drop.h"
#include "core/spring/landing.h"

namespace kranich {

//! A leg's design landing.
struct LegLanding {
  std::string leg;  //!< its id
  double sink_speed, mass;
  std::optional<spring::Stroke> stroke;
  std::optional<spring::DropModel>
      model;  //!< what the drop was computed of, at sink_speed: while it stays, so does it
  std::optional<spring::DropResult> drop, reserve;
  std::optional<spring::BumpModel> bump_model;
  std::optional<spring::BumpResult> bump;
  double sag = 0;  //!< share of the travel at rest, heaviest on this leg
};

//! A leg as the drop takes it, with a mass (kg) on it, or what is missing. A hinged leg by the vertical force
//! at its axle over its rise.
std::variant<spring::DropModel, Text> drop_model(const Leg& leg, const stance::WheelOnLeg& wheel, double mass,
                                                 double lift_ratio);
//! A leg as it rolls over the design's bump under a static load (N), or what is missing.
std::variant<spring::BumpModel, Text> bump_model(const Design& design, const Leg& leg,
                                                 const LegLanding& landing, const stance::WheelOnLeg& wheel,
                                                 double static_load);

}  // namespace kranich
