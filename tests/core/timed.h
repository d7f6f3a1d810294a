// SPDX-License-Identifier: GPL-3.0-or-later
//! What a design's legs take, for those who ask Sequence without an assessment.
#pragma once

#include "core/assess/leg_times.h"

namespace kranich {

inline sequence::Times timed(const Design& design) {
  Assessment fresh;
  return leg_times(design, fresh);
}

}  // namespace kranich
