// SPDX-License-Identifier: GPL-3.0-or-later
//! Parts and materials that may be taken instead of those fitted, each by its name: wheels and springs of the
//! shelves, materials of the tables. As knobs whose change is the number of a choice, from 1.
#pragma once

#include <vector>

#include "core/assess/assess.h"
#include "core/assess/knobs.h"

namespace kranich {

struct Stock;

//! What could be exchanged to move a finding, the nearest to what is fitted first; a wheel carries its load,
//! a spring goes in and lasts, a material is of the same stuff and stronger.
//! Of what stands only on the bench (a loading that is not flown) nothing is exchanged: what holds it there
//! is ballast hung on for the time.
std::vector<KnobRef> swaps_for(const Design& design, const Assessment& before, const Stock& stock,
                               const Finding& finding);

//! Whether a finding is about how it stands on the bench or the scales, not how it flies.
bool on_the_bench(const Design& design, const Finding& finding);

}  // namespace kranich
