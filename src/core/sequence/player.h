// SPDX-License-Identifier: GPL-3.0-or-later
//! A sequencer as it plays a table of steps: what the stand-in on the bench does, and what a real one's
//! answer is held against. s; shares of travel.
#pragma once

#include <map>
#include <vector>

namespace kranich::sequence {

//! A step by number: actors are counted as they were sent.
struct PlayedStep {
  bool up;
  int actor;
  double start, time;  //!< time: of the whole travel, 0 to 1
  double to;           //!< where it goes
};

class Player {
 public:
  void clear();
  void add(const PlayedStep& step) { steps_.push_back(step); }
  //! This actor takes so many times what its steps say.
  void slow(int actor, double factor) { factors_[actor] = factor; }
  size_t steps() const { return steps_.size(); }

  //! Begins a way; what is under way stops where it is and goes from there.
  void play(bool up);
  //! Everything stops where it is.
  void stop() { playing_ = false; }
  //! Lets time go on.
  void advance(double seconds);

  bool playing() const { return playing_; }
  bool up() const { return up_; }
  double time() const { return time_; }  //!< since the way began
  const std::map<int, double>& positions() const { return positions_; }

 private:
  //! An actor's steps of the way that is played, in their order.
  std::vector<PlayedStep> own(int actor) const;
  std::vector<PlayedStep> steps_;
  std::map<int, double> factors_, positions_;
  bool playing_ = false, up_ = true;
  double time_ = 0;
};

//! Where everything was at a moment, as a sequencer told it.
struct Answer {
  double t;
  std::map<int, double> at;
};
//! A movement in what was told: from standing still to standing still; what the last answer found elsewhere
//! than the one before counts as still moving.
struct AnsweredMove {
  int actor;
  double starts, ends;  //!< to the interval of the answers; ends NaN: it was still moving
  double to;            //!< where it was then
};
std::vector<AnsweredMove> moves_in(const std::vector<Answer>& answers);

}  // namespace kranich::sequence
