// SPDX-License-Identifier: GPL-3.0-or-later
//! Steering, up-locks and brakes in a sequence: whether each has let go, or holds, when the leg it is about
//! needs that. s. Source: handbook, Doors and sequence (actors).
#pragma once

#include <string>
#include <vector>

#include "core/sequence/sequence.h"

namespace kranich::sequence {

//! What one of them comes to in one direction.
//!
//! Up: steering has let go before its leg starts; an up-lock stands open when its leg arrives, and if it is
//! driven closes once the slowest leg is at rest; brakes have stopped the wheels before the quickest leg is
//! in. Down: an up-lock has let go before its leg starts; steering is given back once the slowest leg is
//! down; brakes have let go before the quickest leg is down.
struct AidCheck {
  std::string aid;   //!< its id
  double in_hand;    //!< by the worst of the spreads; NaN where nobody does it
  double done, due;  //!< when it is done at the latest, or begins at the earliest; when it must be
  Text nobody;       //!< what nobody does; empty: all is done
};
//! One entry for each that something is asked of in this direction; those whose times are unknown are left
//! out.
std::vector<AidCheck> check_aids(const Design& design, const Times& times, bool up);

//! A design's sequence with the steps of one aid set in time, with the time wanted in hand and a tenth of it
//! on top; where legs have to wait for it, all else of that way goes later by as much. Unchanged where a
//! time is unknown.
Sequence aid_in_time(const Design& design, const Times& times, const std::string& aid);

}  // namespace kranich::sequence
