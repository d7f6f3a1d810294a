// SPDX-License-Identifier: GPL-3.0-or-later
//! The part register: what there is or is to be bought, from the design and the Book. A view, kept nowhere.
#pragma once

#include <vector>

#include "core/tasks/book.h"
#include "core/tasks/piece.h"

namespace kranich::tasks {

struct RegisterRow {
  Text what, side;
  double size;         //!< pin, diameter or wire; m, NaN where it has none
  double angle;        //!< of a unit; rad, NaN
  Text turns;          //!< which way on the same signal
  double mass, price;  //!< NaN where unknown
  Text state;          //!< "weighed", "bought", "to buy, …"
  Text waits_for;      //!< a decision that it hangs on
};

//! Units, wheels and springs of every leg, then the parts of the ledger.
std::vector<RegisterRow> part_register(const Design& design, const History& history);

}  // namespace kranich::tasks
