// SPDX-License-Identifier: GPL-3.0-or-later
//! How a design weighs and stands in one of its loadings: part of an Assessment.
#pragma once

#include <optional>
#include <string>

#include "core/assess/assess.h"
#include "core/stance/stance.h"
#include "core/weigh/weigh.h"

namespace kranich {

//! One loading: what it weighs and how it stands.
struct LoadingState {
  std::string name;
  weigh::LoadingMass mass;
  std::optional<stance::Rest> rest;
  Text no_rest;  //!< why it does not stand, or what is missing
  bool flown = true;
};

//! What a main leg takes of a landing (N): of one pair of mains half the weight each; of more legs the weight
//! shared as they share it at rest. `wheel` is its place in Rest::wheels. NaN where the aircraft does not
//! stand.
double mains_share(const Design& design, const LoadingState& loading, size_t wheel);

}  // namespace kranich
