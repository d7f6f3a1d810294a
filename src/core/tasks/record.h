// SPDX-License-Identifier: GPL-3.0-or-later
//! Making an entry of the Book: what was read is compared with what the design foretold, fills the design's
//! own numbers where it is theirs, and what the task rests on is noted.
#pragma once

#include "core/tasks/foretell.h"

namespace kranich::tasks {

//! First: the design as it was when the reading was taken. Puts prediction, range and verdict beside each
//! reading of an entry whose task and piece these are.
void compare_readings(const Look& look, const History& book, const Task& task, const Piece& piece,
                      Entry& entry);

//! Then: fills what the readings fill (column `sets`), as measured. What could not be filled, and why; the
//! rest is.
std::vector<Text> fill_design(Design& design, const Task& task, const Piece& piece, const Entry& entry);
//! Whether any reading of the task fills something of the design.
bool fills(const Task& task);

//! Last: with the design that holds the readings. Lets measures judge what they judge, and notes what the
//! task rests on.
void finish_entry(const Look& look, const Task& task, const Piece& piece, Entry& entry);

//! Readings without which a tick proves nothing: what is foretold, wanted or allowed of them would be judged.
//! Those that compare with the other side may come one by one; a picture is never asked for.
std::vector<std::string> still_wanted(const Task& task, const Entry& entry);

//! What is odd about an entry, to be asked once: a day in the future, another project's name, a reading ten
//! times off what was foretold. It is kept all the same.
std::vector<Text> odd(const Entry& entry, std::string_view today);

}  // namespace kranich::tasks
