// SPDX-License-Identifier: GPL-3.0-or-later
//! What a builder sets, fits or lays otherwise in the circuit, worked out for him.
#pragma once

#include <vector>

#include "core/assess/assess.h"
#include "core/assess/knobs.h"

namespace kranich {

std::vector<KnobRef> circuit_swaps(const Design& design, const Assessment& before, const Finding& finding);

}  // namespace kranich
