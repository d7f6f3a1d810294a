// SPDX-License-Identifier: GPL-3.0-or-later
//! A wired machine tried by hand, as on a breadboard: thrown, broken, let go on, or led along a run.
#pragma once

#include <deque>
#include <memory>
#include <string>
#include <vector>

#include "core/logic/wiring.h"

namespace kranich::logic {

class Trial {
 public:
  Trial() = default;
  explicit Trial(std::shared_ptr<const Wiring> wiring);

  const Wiring* wiring() const { return wiring_.get(); }
  const State& state() const { return state_; }
  //! What a variable is; empty where there is none of the name.
  std::string value(const std::string& variable) const;
  bool holds(const Condition& condition) const { return wiring_ && condition.holds(state_); }
  const std::vector<std::string>& happened() const { return happened_; }

  //! Down, on the ground, nothing broken.
  void rest();
  //! The pilot throws what sets a variable; false: it cannot be thrown now.
  bool throws(const std::string& variable);
  //! Breaks a part in its next way; after its last it works again.
  void breaks(const std::string& part);
  //! The next event of a run that is replayed, else of the machine's own, each in its turn; false: it rests.
  bool step();
  //! From rest along a run.
  void replay(const std::vector<std::string>& run);
  //! What of it is to come.
  const std::deque<std::string>& to_come() const { return script_; }

 private:
  void happen(const Event& event);
  std::shared_ptr<const Wiring> wiring_;
  State state_;
  std::vector<std::string> happened_;
  std::deque<std::string> script_;
  size_t turn_ = 0;
};

}  // namespace kranich::logic
