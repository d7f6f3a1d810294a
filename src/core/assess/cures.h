// SPDX-License-Identifier: GPL-3.0-or-later
//! What would cure a failing or tight finding: for each single change a builder can make, the least amount
//! that makes it hold, solved on the whole design, and what that costs on every other margin.
#pragma once

#include <functional>
#include <memory>
#include <string>
#include <vector>

#include "core/assess/assess.h"
#include "core/base/progress.h"

namespace kranich {

//! A change a builder can make by one number, applied to a design: to a leg and what stands in line with it,
//! or to the whole aircraft.
struct Knob {
  std::string id;  //!< "main.station": leg's id, and what it moves
  std::string more,
      less;  //!< how an increase and a decrease read: "Main wheels aft by", "Main wheels forward by"
  Kind kind;
  double step;   //!< what the answer is rounded outward to, SI
  double range;  //!< largest change tried, SI
  std::function<void(Design&, double)> apply;
  std::string_view what() const { return std::string_view(id).substr(id.find('.') + 1); }
};
using KnobRef = std::shared_ptr<const Knob>;
//! Every knob that a design has, in the order in which they are tried.
std::vector<KnobRef> knobs(const Design& design);
//! Those that can move a measure at all.
std::vector<KnobRef> knobs_for(const Design& design, std::string_view measure_id);

//! How another check changes when a cure is taken.
struct Price {
  std::string measure_id, subject;
  Verdict before, after;
  double value_before, value_after;
};

struct Cure {
  struct Part {
    KnobRef knob;
    double change;  //!< SI, rounded outward to the knob's step
  };
  std::vector<Part> parts;    //!< one; two where nothing single does it
  std::string text;           //!< "Main wheels forward by 24 mm"
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
