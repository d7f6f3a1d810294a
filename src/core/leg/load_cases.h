// SPDX-License-Identifier: GPL-3.0-or-later
//! Load cases of a leg from the design's own loads. SI; aircraft axes, starboard leg; limit loads. Source:
//! handbook, Leg: the historical small-aeroplane rule for full size, drop result and shares of it for models.
//! For guidance: the local rule and a licensed engineer or inspector decide.
#pragma once

#include <limits>
#include <string>
#include <vector>

#include "core/base/geometry.h"
#include "core/base/say.h"
#include "core/model/design.h"

namespace kranich::leg {

struct CaseInput {
  bool model, main, tricycle, rough_field, brakes;
  double weight;           //!< of the heaviest loading, N
  double share;            //!< static load of this leg, N (of a main leg half the weight)
  double ground_factor;    //!< N of the landing: peak ground load over the share; NaN where not known
  double inertia_factor;   //!< n
  double tail_down_pitch;  //!< nose-up, of the tail-down landing; NaN where not known
  bool outrigger = false;
  double outrigger_load = std::numeric_limits<double>::quiet_NaN();  //!< the greatest that may come on it, N
  double share_braking = std::numeric_limits<double>::quiet_NaN();  //!< on a nose leg when the mains brake, N
  LoadFactors factors;
};

struct LoadCase {
  std::string name;
  Vec3 force{0, 0, 0};     //!< on the wheel, limit, N
  bool at_ground = false;  //!< acts where the tyre meets the ground, else through the axle
  Text working;            //!< where its numbers come from
  bool landing = false;    //!< at the peak of the landing; else at rest on what it carries
  double rise = 0;         //!< of the axle from extended when it occurs, m
  //! Name of the case that the other leg of a pair meets at the same moment; empty: it is clear.
  std::string twin = {};
};

//! The cases of a leg; those that need a number that is not known are left out and named.
struct LoadCases {
  std::vector<LoadCase> cases;
  std::vector<Text> missing;
};
LoadCases load_cases(const CaseInput& in);

}  // namespace kranich::leg
