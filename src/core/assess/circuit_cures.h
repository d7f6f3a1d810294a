// SPDX-License-Identifier: GPL-3.0-or-later
//! What a builder sets, fits or lays otherwise in the circuit, worked out for him.
#pragma once

#include <vector>

#include "core/assess/assess.h"
#include "core/assess/knobs.h"

namespace kranich {

std::vector<KnobRef> circuit_swaps(const Design& design, const Assessment& before, const Finding& finding);
//! The same of bottle and air, for what Drive and Circuit judge of it; empty where no leg is moved by air.
std::vector<KnobRef> air_swaps(const Design& design, const Finding& finding);

}  // namespace kranich
