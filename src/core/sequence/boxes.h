// SPDX-License-Identifier: GPL-3.0-or-later
//! Boxes that time a sequence: each output starts its actors so long after the output before it. What a box
//! must be able to hold, what hangs on which output, what moves when it is switched on. s. Source: handbook,
//! Doors and sequence.
#pragma once

#include <string>
#include <vector>

#include "core/model/design.h"
#include "core/sequence/sequence.h"

namespace kranich::sequence {

//! A box against the plan, both ways.
struct BoxCheck {
  std::string box;  //!< its id
  int used = 0;     //!< outputs that something hangs on
  //! Longest time that it can hold between one output and the next, with that of the box it is chained to;
  //! NaN where a box's own is unknown.
  double holds = 0;
  //! Longest time between the starts of its actors that it must hold: as planned, and between a leg and the
  //! door that closes behind it as long as the slowest leg takes, with the time wanted in hand.
  double needs = 0;
  std::string from, to;  //!< ids of the actors on both sides of that time
  //! Actors that share an output and do not start together, or not the same way.
  std::vector<std::string> apart;
  //! Legs whose unit would run the other way than what else hangs on their output.
  std::vector<std::string> other_way;
  //! Actors that move by themselves when it is switched on.
  std::vector<std::string> moved;
  bool in_a_ring = false;  //!< chained to itself by way of others
};
std::vector<BoxCheck> check_boxes(const Design& design, const Timeline& up, const Timeline& down);

//! Actors of the sequence that no box moves; empty without boxes.
std::vector<std::string> on_no_box(const Design& design);
//! "A1": box and output of an actor; empty where it hangs on none.
std::string output_of(const Design& design, const std::string& actor);
//! The lowest output of a box that nothing hangs on; 0 where there is none.
int free_output(const Design& design, const SequencerBox& box);

}  // namespace kranich::sequence
