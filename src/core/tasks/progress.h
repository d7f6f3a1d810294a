// SPDX-License-Identifier: GPL-3.0-or-later
//! Where the work stands: every task that a design needs, for each piece it is ticked for, from the table,
//! the design and the Book. A gate is never a lock; what is ticked before its gates are done counts as tried.
#pragma once

#include <string>
#include <vector>

#include "core/tasks/foretell.h"

namespace kranich::tasks {

enum class State {
  open,   //!< may be done now
  waits,  //!< a gate is not done
  done,
  off,       //!< done, a reading outside its tolerance
  again,     //!< was done, something changed
  tried,     //!< ticked with a gate open
  aside,     //!< set aside, with a reason
  given,     //!< its readings are in the design, as measured
  standing,  //!< to be recorded whenever it happens
};
//! "open", "open again", …
std::string_view state_word(State state);

//! A gate that is not done, with why.
struct OpenGate {
  Text words;        //!< "axle retainer: open", "least clearance on the way: fails, nose leg −10 mm"
  std::string task;  //!< that leads to it; empty: none does
  std::string measure;
};

//! One task for one piece.
struct Box {
  const Task* task;
  Piece piece;
  State state = State::open;
  std::vector<OpenGate> gates;  //!< that are not done
  const Entry* last = nullptr;  //!< that ticked it
  std::vector<Text> changed;    //!< since then: why it is open again
  bool rests_on_open = false;   //!< done, and a gate of it is not done any more
  //! Whether it counts as proof for what stands behind it.
  bool passed() const { return state == State::done || state == State::aside || state == State::given; }
};

//! A question that stands in the place of tasks.
struct Hanging {
  const Question* question;
  int tasks;  //!< that hang on it
};

//! A mark of proof that a leg bears.
struct Proof {
  std::string leg;
  Text words;
  bool bench = false, flight = false;
};

//! One rung of the ladder with what stands on it.
struct Rung {
  int number;
  std::vector<size_t> boxes;  //!< places among Progress::boxes; empty: it does not apply
};

struct Progress {
  std::vector<Box> boxes;  //!< in the order of work
  std::vector<Hanging> questions;
  std::vector<Rung> ladder;  //!< 1 to 8
  std::vector<Proof> proofs;
  std::vector<const Task*> not_applying;
  std::vector<Text> remarks;  //!< what the Book as a whole shows: the same part broken three times

  const Box* find(std::string_view task, std::string_view piece) const;
};

//! `today`: "2026-11-30", for what comes round each year or session. The table and the Book live as long as
//! what is returned.
Progress progress_of(const TaskTable& table, const Look& look, const History& book, std::string_view today);

//! The boxes to show in a short list: open and open again of these stages (all: none named), their gates
//! done.
std::vector<const Box*> ready(const Progress& progress, std::string_view station);
//! Boxes of a station whose gates are not done.
int waiting(const Progress& progress, std::string_view station);

}  // namespace kranich::tasks
