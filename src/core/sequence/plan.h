// SPDX-License-Identifier: GPL-3.0-or-later
//! The plan of a sequence as it is handed on: to a programmable sequencer, to who wires it, to the bench.
//! And a plan laid out anew with the least waits. s; shares of travel (0 closed or down, 1 open or stowed).
//! Source: handbook, Doors and sequence.
#pragma once

#include <string>
#include <vector>

#include "core/base/say.h"
#include "core/model/design.h"
#include "core/sequence/player.h"
#include "core/sequence/sequence.h"

namespace kranich::sequence {

//! One movement.
struct Move {
  std::string channel;  //!< "A1": box and output; empty where the actor hangs on none
  bool reversed;        //!< a reverser in its own lead
  std::string actor;    //!< id
  Action action;
  double start, duration;   //!< nominal
  double earliest, latest;  //!< that it may end
  double ends_at;           //!< share of its travel
};
struct Plan {
  std::vector<Move> up, down;  //!< in the order in which they start
};
//! Movements of which a time is unknown are named in `problems` and left out.
Plan plan_of(const Design& design, const Times& times, std::vector<Text>& problems);

//! Words of the exported table: "opens", "closes", "raises", "lowers", "holds", "lets go".
std::string_view word_of(Action action);

//! Steps with the least waits: each leg starts once its slowest door frees it, each door that shall be shut
//! closes once the slowest leg has come to rest, each with the time wanted in hand and a tenth of it on top,
//! to the next twentieth of a second; steering, up-locks and brakes in time for them. A door that no step
//! closes going down stays open below its leg. Legs and doors whose times or places are unknown are named in
//! `problems`; their steps stay as they were, none where there were none.
Sequence laid_out(const Design& design, const Times& times, const std::vector<DoorZone>& zones,
                  std::vector<Text>& problems);

//! A start (s), not before zero, at the next twentieth of a second.
double next_told(double start);
//! What is kept in hand where a plan is laid out: a tenth more than wanted, a tenth of a second at least.
double wait_with_margin(const Design& design);

//! The actors of a plan by the numbers that a sequencer on a line knows them by: in the order of their first
//! appearance, going up first.
std::vector<std::string> numbered_actors(const Plan& plan);
//! What a sequencer answered to one way of a plan, actor by actor, against it: later than the slowest it was
//! planned with, earlier than the fastest, not arrived, not moved. Empty: all as planned, to a twentieth of a
//! second.
std::vector<Text> against_plan(const Design& design, const Plan& plan, bool up,
                               const std::vector<Answer>& answers);

}  // namespace kranich::sequence
