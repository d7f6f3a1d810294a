// SPDX-License-Identifier: GPL-3.0-or-later
//! Readings of one step and piece in a row, over landings where they are counted, else over days: whether the
//! last one jumped, whether they drift. Source: handbook, Steps and Book.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/tasks/book.h"
#include "core/tasks/piece.h"
#include "core/tasks/task.h"

namespace kranich::tasks {

struct RowPoint {
  double at;  //!< landings made, or days since the first reading
  std::string day;
  double value, foretold, lower, upper;  //!< SI; NaN where nothing was foretold
};

//! A straight line through the row whose slope is more than chance, and that has used up half the tolerance.
struct Drift {
  double slope, error;  //!< of the value, for each landing or day; its standard error
  double out_in;  //!< landings or days until it leaves the tolerance; NaN where it has left or never does
};

struct ReadingRow {
  bool by_landings = false;
  std::vector<RowPoint> points;
  std::optional<double> jump;  //!< last less the one before, where that is more than the tolerance
  std::optional<Drift> drift;
  bool three_to_a_side =
      false;  //!< the last three are all outside, to the same side: it is the design that is off
};

//! Of a reading of a task, for a piece.
ReadingRow row_of(const History& book, const Task& task, const std::string& piece, size_t reading);
//! Left less right, each with the reading of the other side that came last before it.
ReadingRow difference_row(const History& book, const Task& task, const Piece& piece, size_t reading);

}  // namespace kranich::tasks
