// SPDX-License-Identifier: GPL-3.0-or-later
//! Build tolerance: does a verdict hold over the whole box of what the inputs may turn out to be, and which
//! input matters most? Method: every input with a tolerance (or not yet decided, with its range) is tried at
//! both ends, the others as they are; a check's spread is the sum of these effects (first-order interval).
//! Where that sum reaches a limit, the worst corner itself is assessed and its verdict counts.
#pragma once

#include <algorithm>
#include <string>
#include <vector>

#include "core/assess/assess.h"
#include "core/base/progress.h"

namespace kranich {

struct Influence {
  std::string path, title;
  double effect;  //!< greatest change of the measure, SI, ≥ 0
  bool undecided;
};

//! What one input does to a check at its two ends: e⁻ ≤ 0 ≤ e⁺, SI.
struct Effect {
  size_t input;  //!< place in ToleranceResult::paths
  double down, up;
  double most() const { return std::max(-down, up); }
};

//! One check (its worst loading) over the box.
struct Spread {
  std::string measure_id;
  Subject subject;
  std::string loading;
  double low, high;                   //!< SI
  Verdict over_box;                   //!< at the worst corner; as the finding's where nothing changes
  std::vector<Influence> influences;  //!< those that matter, greatest first, four at most
  std::vector<Effect> effects;        //!< all of them that change it
  std::vector<std::string> hangs_on;  //!< undecided inputs that alone can change the verdict, by title
  double effect() const { return (high - low) / 2; }
  std::string key() const { return measure_id + "|" + subject.key; }
};

struct ToleranceResult {
  std::vector<Spread> spreads;
  std::vector<std::string> paths;  //!< of the inputs
  int inputs = 0, corners = 0;
  bool cancelled = false;
  const Spread* of(const Finding& finding) const;
};

ToleranceResult over_tolerances(const Design& design, const Assessment& assessment,
                                const Progress& progress = {});

//! What waits for a decision: each undecided number, what decides it, and the findings that hang on it.
struct Waiting {
  std::string path, title, name, waits_for;
  double value, range, spare;         //!< SI; spare NaN where none is named
  std::vector<std::string> findings;  //!< titles
};
std::vector<Waiting> waiting_for_decisions(const Design& design, const ToleranceResult& result);

}  // namespace kranich
