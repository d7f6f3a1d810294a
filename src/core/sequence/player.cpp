// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sequence/player.h"

#include <algorithm>
#include <limits>

namespace kranich::sequence {

void Player::clear() {
  steps_.clear();
  positions_.clear();
  playing_ = false;
}

void Player::play(bool up) {
  up_ = up;
  // What has never moved stands where the way begins: it has still to go where its first step sends it.
  for (const auto& s : steps_)
    if (s.up == up && !positions_.contains(s.actor))
      positions_[s.actor] = own(s.actor).front().to > 0.5 ? 0 : 1;
  time_ = 0;
  playing_ = true;
}

std::vector<PlayedStep> Player::own(int actor) const {
  std::vector<PlayedStep> list;
  for (const auto& s : steps_)
    if (s.actor == actor && s.up == up_) list.push_back(s);
  std::stable_sort(list.begin(), list.end(),
                   [](const PlayedStep& a, const PlayedStep& b) { return a.start < b.start; });
  return list;
}

void Player::advance(double seconds) {
  if (!playing_) return;
  const double from = time_;
  time_ += seconds;
  bool all_there = true;
  for (auto& [actor, position] : positions_) {
    const auto factor = factors_.find(actor);
    const double slower = factor == factors_.end() ? 1 : factor->second;
    const auto steps = own(actor);
    for (size_t i = 0; i < steps.size(); ++i) {
      // From its start until the next one's: what it has not done by then it leaves.
      const double begins = std::max(from, steps[i].start);
      const double ends = i + 1 < steps.size() ? std::min(time_, steps[i + 1].start) : time_;
      if (!(ends > begins)) continue;
      const double by = steps[i].time > 0 ? (ends - begins) / (steps[i].time * slower) : 1;
      const double to = steps[i].to;
      position = position < to ? std::min(to, position + by) : std::max(to, position - by);
    }
    if (!steps.empty() && (time_ < steps.back().start || position != steps.back().to)) all_there = false;
  }
  playing_ = !all_there;
}

std::vector<AnsweredMove> moves_in(const std::vector<Answer>& answers) {
  struct Under {
    double position, since, way;  //!< way 0: it stands
  };
  std::map<int, Under> under;
  std::vector<AnsweredMove> list;
  const auto ended = [&](int actor, const Under& u, double t) {
    list.push_back({actor, u.since, t, u.position});
  };
  double before = 0;
  for (const Answer& a : answers) {
    for (const auto& [actor, position] : a.at) {
      const auto [it, is_new] = under.try_emplace(actor, Under{position, a.t, 0});
      if (is_new) continue;
      Under& u = it->second;
      const double way = position > u.position ? 1 : position < u.position ? -1 : 0;
      if (way != u.way) {
        if (u.way != 0) ended(actor, u, before);
        u.since = before;
        u.way = way;
      }
      u.position = position;
    }
    before = a.t;
  }
  for (const auto& [actor, u] : under)
    if (u.way != 0) ended(actor, u, std::numeric_limits<double>::quiet_NaN());
  std::stable_sort(list.begin(), list.end(),
                   [](const AnsweredMove& a, const AnsweredMove& b) { return a.starts < b.starts; });
  return list;
}

}  // namespace kranich::sequence
