// SPDX-License-Identifier: GPL-3.0-or-later
//! What a builder fits or wires otherwise where a fault shows what must never be.
#pragma once

#include <vector>

#include "core/assess/assess.h"
#include "core/assess/knobs.h"

namespace kranich {

//! For a finding of Logic: each change by itself, and, where they belong together, one after the other added.
std::vector<KnobRef> logic_swaps(const Design& design, const Assessment& before, const Finding& finding);

}  // namespace kranich
