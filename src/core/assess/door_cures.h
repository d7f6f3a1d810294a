// SPDX-License-Identifier: GPL-3.0-or-later
//! What a builder changes on a door: numbers to turn, and places worked out for him.
#pragma once

#include <vector>

#include "core/assess/assess.h"
#include "core/assess/knobs.h"

namespace kranich {

//! The knobs of every door.
std::vector<KnobRef> door_knobs(const Design& design);
//! Solved for a finding about one door: where its spring must pull, where its rod must hang on the crank, the
//! shares that the drawing gives. Empty where nothing of it helps.
std::vector<KnobRef> door_swaps(const Design& design, const Assessment& before, const Finding& finding);

}  // namespace kranich
