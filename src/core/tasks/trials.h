// SPDX-License-Identifier: GPL-3.0-or-later
//! The trial log: what was tried, what was different from the try before, what came of it. A view of the
//! Book, kept nowhere.
#pragma once

#include <vector>

#include "core/tasks/foretell.h"

namespace kranich::tasks {

//! A try: a line of the step that asks for one each time, a change that was noted, or a task that was done or
//! tried more than once for the same piece.
struct Trial {
  const Entry* entry;         //!< in the Book
  Text what;                  //!< "Swing it, sweep (nose leg)"
  std::vector<Text> changed;  //!< against the try before; empty: the first, or nothing that is known
  std::vector<Text> result;   //!< readings, what was foretold beside those that are off
  Compared verdict = Compared::unjudged;
  bool first = false;  //!< of its row: there is none before
};

//! Newest first. `table`: what the tasks are called.
std::vector<Trial> trial_log(const Look& look, const TaskTable& table, const History& history);

}  // namespace kranich::tasks
