// SPDX-License-Identifier: GPL-3.0-or-later
//! Make it hold: the least change of a whole design after which nothing fails, over any of the numbers that
//! may move – and where there is none, the limits that contradict each other.
//!
//! How it is found. Every number that may move is counted in its own range, u ∈ [−1, 1]; every check with a
//! limit asks margin(u)/limit ≥ 0. The checks are made linear about the design in hand (one assessment a
//! number), and the least sum of the ways moved that meets all of them is found on the linear model (NLopt's
//! SLSQP; reweighted, so that few numbers move instead of all a little); the answer is assessed, the model
//! made anew about it, until nothing fails. What then is not needed is taken back, each part to the least
//! that does it, in steps that can be built. Beside it stand the single cures and pairs of every failing
//! check, and those taken one after the other, parts of the shelves among them. Whatever is answered has been
//! assessed whole: nothing in it fails, and nothing that was known has become unknown.
#pragma once

#include <optional>
#include <vector>

#include "core/assess/cures.h"

namespace kranich {

struct HoldSearch {
  //! What may move beside what is on the shelves; without a list what is offered (knobs_offered).
  std::optional<std::vector<KnobRef>> may_move{};
  size_t most = 3;  //!< how many different ways
  const Stock* stock = nullptr;
  //! Told when a first way is known, on the thread that searches.
  std::function<void(const Cure&)> first{};
  Progress progress{};
};

struct Holding {
  //! Different ways, the best first: fewest checks made tight, then least change. `worse`, `better` and
  //! `costs` against the design before. Empty where none was found, or where it was called off.
  std::vector<Cure> ways;
  //! Where there is none: the checks that cannot be met together, each left out the others could – or those
  //! that still fail where the search came nearest.
  std::vector<Finding> against;
  bool contradict = false;      //!< `against` is such a set, not merely what was left
  std::optional<Cure> nearest;  //!< where there is none: the change that leaves the least failing
  int assessments = 0;          //!< how many whole assessments it took
};
Holding make_hold(const Design& design, const Assessment& before, const HoldSearch& search = {});

//! Every number that can move anything that fails.
std::vector<KnobRef> knobs_offered(const Design& design, const Assessment& before);

}  // namespace kranich
