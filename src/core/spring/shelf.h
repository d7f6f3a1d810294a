// SPDX-License-Identifier: GPL-3.0-or-later
//! Choosing a coil spring from a shelf for a leg: each tried in the leg, then ranked. SI.
#pragma once

#include <string>
#include <vector>

#include "core/force/coil.h"
#include "core/model/design.h"

namespace kranich::spring {

struct Need {
  double travel;       //!< of the axle, m
  double static_load;  //!< on the wheel, N
  double motion_ratio, count;
  double installed_length;  //!< room for the spring, leg extended
  double sag_low = 0.25, sag_high = 0.40;
};

struct Candidate {
  size_t index;           //!< on the shelf
  bool fits;              //!< goes in: free length not shorter than the room, not solid before the stop
  double preload, rate;   //!< at the wheel
  double sag;             //!< share of the travel
  double margin;          //!< of the shear limit at the stop
  double energy;          //!< at the wheel over the travel, J
  double peak;            //!< wheel force at the stop, N
  std::string objection;  //!< what speaks against it, empty where nothing does
  double score;           //!< less is better
};

//! Tries every spring; those without objection first, then by how far the sag lies from the middle of the
//! band.
std::vector<Candidate> rank_springs(const std::vector<Coil>& shelf, const Need& need);

}  // namespace kranich::spring
