// SPDX-License-Identifier: GPL-3.0-or-later
//! The ways to bring the stance to a wanted pitch, one by one, as a builder tries them with parts in his
//! hands: how much of each, what a millimetre of it does, and what else gets worse. SI, rad.
#pragma once

#include <string>
#include <vector>

#include "core/assess/cures.h"

namespace kranich {

struct TrimWay {
  KnobRef knob;
  double slope;  //!< pitch gained by its change, rad per SI unit of the knob, about where it is now
  std::optional<Cure> cure;  //!< the change that gives the pitch, with its price; nothing where none does
};
//! On the whole equilibrium of a loading. Those that reach the pitch first, the cheapest of them first; a
//! knob that does not move the pitch is left out. None where the aircraft does not stand, or where it was
//! called off.
std::vector<TrimWay> ways_to_trim(const Design& design, const Assessment& before, const std::string& loading,
                                  double pitch, const Progress& progress = {});

}  // namespace kranich
