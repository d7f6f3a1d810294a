// SPDX-License-Identifier: GPL-3.0-or-later
//! What would cure a failing or tight finding: for each single change a builder can make, the least amount
//! that makes it hold, solved on the whole design, and what that costs on every other margin.
#pragma once

#include <string>
#include <vector>

#include "core/assess/assess.h"
#include "core/assess/knobs.h"
#include "core/assess/swaps.h"
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

//! How cures are looked for.
struct CureSearch {
  size_t most = 100;  //!< how many are priced, those of the least effort; in a drag there is no time for more
  const Stock* stock =
      nullptr;  //!< what may be taken off the shelves and out of the tables; null: nothing is exchanged
  Progress progress{};
};
//! Cures of one finding, the cheapest (least gets worse, then least change against its range) first. Where no
//! single change cures a failing finding, or each makes something else fail, pairs too: from each knob's
//! effect the way on which the two together do it with the least of their ranges, then solved on the whole
//! design; those stay that are cheaper than every single. None where it was called off.
std::vector<Cure> cures_for(const Design& design, const Assessment& before, const Finding& finding,
                            const CureSearch& search = {});

//! Words a cure and notes what it does to every check but the one it cures (null: to every one).
void weigh_up(Cure& cure, const Assessment& before, const Assessment& after, const Finding* cured);
bool reaches(const Cure::Part& part);             //!< within its knob's least and most
double outward(const Knob& knob, double change);  //!< to the knob's step, away from nothing

//! What a cure costs against others: a check that it makes fail counts most, one that it cures less.
int cost_of(const Cure& cure);
//! How far it goes: the sum of its changes against their ranges, and a twentieth for each part.
double effort_of(const Cure& cure);

}  // namespace kranich
