// SPDX-License-Identifier: GPL-3.0-or-later
//! What a design says before a reading is taken: predictions, texts with its numbers in them, what a task
//! rests on.
#pragma once

#include <map>
#include <string>
#include <string_view>
#include <tuple>
#include <utility>
#include <vector>

#include "core/assess/assess.h"
#include "core/tasks/book.h"
#include "core/tasks/piece.h"
#include "core/tasks/task.h"

namespace kranich::tasks {

struct FigureInfo;

//! One look at a design: its findings by measure, for as long as both live.
class Look {
 public:
  //! `loading`: the one set on the screen; empty: the worst of each.
  Look(const Design& design, const Assessment& assessment, std::string loading);

  const Design& design() const { return design_; }
  const Assessment& assessment() const { return assessment_; }
  const std::string& loading() const { return loading_; }
  const std::vector<const Finding*>& findings(std::string_view measure) const;
  //! The finding of a measure for a piece: of its leg, its door; the worst where there are several, or where
  //! none is its own. Null where there is none.
  const Finding* finding(std::string_view measure, const Piece& piece) const;
  //! A figure, worked out once for each leg and each reading that it follows from: some take a search.
  double figure(const FigureInfo& figure, const std::string& leg, bool port, double load, double height,
                double mass) const;

 private:
  const Design& design_;
  const Assessment& assessment_;
  std::string loading_;
  std::map<std::string_view, std::vector<const Finding*>> by_measure_;
  using FigureKey = std::tuple<std::string_view, std::string, bool, std::string, std::string, std::string>;
  mutable std::map<FigureKey, double> figures_;
};

//! What is entered so far for one box, by reading: figures may follow from it (closure from the load).
using Entered = std::vector<Read>;

//! What a reading should say: the value foretold (NaN: none), and the range in which it counts as right (NaN:
//! open on that side). `twin`, `first`, `last` and other readings come from the Book.
struct Foretold {
  double value, lower, upper;
  bool judged() const;
};
Foretold foretold(const Look& look, const History& book, const Task& task, const Piece& piece, size_t reading,
                  const Entered& entered);
Compared compare(const Foretold& foretold, double value);
//! The same of one that is no number: "yes" where yes is wanted.
Compared compare(const Predicted& predicted, const std::string& text);

//! Of a reading that a measure judges: what its finding says, the design holding the reading already.
Compared judged_by(const Look& look, const Piece& piece, const Predicted& predicted);

//! A task's text in the reader's words with the design's numbers in it, in the units that are set: brackets [
//! ] are left out where a number in them is unknown.
std::string filled(const Look& look, const History& book, const Task& task, const Piece& piece,
                   std::string_view text, const Tongue& tongue);

//! What of the design a task rests on by its column `reopens`: paths and values, to be compared later.
std::vector<std::pair<std::string, std::string>> rests_on(const Look& look, const Task& task,
                                                          const Piece& piece);
//! What differs, in words: "Main legs, Axle, station: 1835 mm, was 1820 mm".
struct Touched {
  std::string path;
  Text words;
};
std::vector<Touched> touched(const Look& look, const std::vector<std::pair<std::string, std::string>>& before,
                             const std::vector<std::pair<std::string, std::string>>& now);

}  // namespace kranich::tasks
