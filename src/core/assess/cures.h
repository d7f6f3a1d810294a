// SPDX-License-Identifier: GPL-3.0-or-later
//! What would cure a failing or tight finding: for each single change a builder can make, the least amount
//! that makes it hold, solved on the whole design, and what that costs on every other margin.
#pragma once

#include <string>
#include <vector>

#include "core/assess/assess.h"
#include "core/assess/knobs.h"
#include "core/base/progress.h"

namespace kranich {

//! How another check changes when a cure is taken.
struct Price {
  std::string measure_id;
  Subject subject;
  Verdict before, after;
  double value_before, value_after;
};

struct Cure {
  struct Part {
    KnobRef knob;
    double change;  //!< SI, rounded outward to the knob's step
  };
  std::vector<Part> parts;    //!< one; two where nothing single does it
  Text text;                  //!< "main wheels forward by 24 mm"
  Verdict reached;            //!< of the finding cured
  std::vector<Price> worse;   //!< checks whose verdict gets worse
  std::vector<Price> better;  //!< other checks whose verdict gets better
  std::vector<Price> costs;   //!< checks whose verdict stays but whose margin shrinks most, worst first
  std::string id() const;     //!< "main.station", "main.station+third.shim"
  Design applied(const Design& design) const;
};

//! Cures of one finding, the cheapest (least gets worse, then least change against its range) first. Where no
//! single change cures a failing finding, pairs: from each knob's effect the way on which the two together do
//! it with the least of their ranges, then solved on the whole design.
//! `most`: how many are priced, those of the least effort; in a drag there is no time for more.
//! None where it was called off.
std::vector<Cure> cures_for(const Design& design, const Assessment& before, const Finding& finding,
                            size_t most = 100, const Progress& progress = {});

}  // namespace kranich
