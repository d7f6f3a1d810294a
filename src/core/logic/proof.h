// SPDX-License-Identifier: GPL-3.0-or-later
//! Every single fault of a wiring, tried over all states that it can reach; pairs of them on demand.
#pragma once

#include <memory>
#include <vector>

#include "core/base/progress.h"
#include "core/logic/wiring.h"

namespace kranich::logic {

//! Every fault by itself, the machine without one first.
struct Proof {
  std::shared_ptr<const Wiring> wiring;
  std::vector<Exploration> runs;
  size_t states = 0, depth = 0;  //!< together; greatest
  bool complete = true;
  //! How many of the faults, or of the machine without one, come to violate a rule, and the first that does.
  int violated(Rule rule) const;
  const Exploration* first(Rule rule, const Outcome** outcome) const;
};
//! Proves it, or takes it from those proved before (of this process, by any thread), on as many threads as
//! there are. Not complete where one fault has more than a million and a half states, or where it was called
//! off; then it is not kept either.
std::shared_ptr<const Proof> prove(const Fitted& fitted, const Progress& progress = {});
//! Whether any single fault violates a rule: as prove, but it stops at the first that does, and then is
//! neither complete nor kept.
std::shared_ptr<const Proof> prove_rule(const Fitted& fitted, Rule rule);
//! What has been proved already; null: nothing.
std::shared_ptr<const Proof> proved(const Fitted& fitted);

//! Every pair of faults, of different parts, on as many threads as there are.
Proof prove_pairs(const Fitted& fitted, const Progress& progress = {});

}  // namespace kranich::logic
