// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logic/trial.h"

#include <algorithm>

namespace kranich::logic {

Trial::Trial(std::shared_ptr<const Wiring> wiring) : wiring_(std::move(wiring)) { rest(); }

std::string Trial::value(const std::string& variable) const {
  const auto it = state_.find(variable);
  return it == state_.end() ? std::string() : it->second;
}

void Trial::rest() {
  script_.clear();
  happened_.clear();
  turn_ = 0;
  state_ = wiring_ ? wiring_->machine.initial : State();
}

void Trial::happen(const Event& event) {
  for (const auto& [variable, value] : event.set) state_[variable] = value;
  happened_.push_back(event.name);
}

bool Trial::throws(const std::string& variable) {
  if (!wiring_) return false;
  script_.clear();
  for (const auto& e : wiring_->machine.events) {
    if (!e.by_operator || !e.set.count(variable) || !can_happen(e, state_)) continue;
    happen(e);
    return true;
  }
  return false;
}

void Trial::breaks(const std::string& part) {
  if (!wiring_) return;
  script_.clear();
  for (const auto& v : wiring_->machine.variables) {
    if (v.name != part) continue;
    const auto at = std::find(v.values.begin(), v.values.end(), state_[part]);
    const auto next = at == v.values.end() || at + 1 == v.values.end() ? v.values.begin() : at + 1;
    state_[part] = *next;
    happened_.push_back(next == v.values.begin() ? part + " mended" : part + ": " + *next);
  }
}

bool Trial::step() {
  if (!wiring_) return false;
  const auto& events = wiring_->machine.events;
  if (!script_.empty()) {
    const auto e =
        std::find_if(events.begin(), events.end(), [&](const Event& x) { return x.name == script_.front(); });
    script_.pop_front();
    if (e != events.end()) happen(*e);
    return true;
  }
  for (size_t i = 0; i < events.size(); ++i) {
    const Event& e = events[(turn_ + i) % events.size()];
    if (e.by_operator || !can_happen(e, state_)) continue;
    happen(e);
    turn_ = (turn_ + i + 1) % events.size();
    return true;
  }
  return false;
}

void Trial::replay(const std::vector<std::string>& run) {
  rest();
  script_.assign(run.begin(), run.end());
}

}  // namespace kranich::logic
