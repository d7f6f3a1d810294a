// SPDX-License-Identifier: GPL-3.0-or-later
//! The plan of a sequence as files: a table and a JSON document for a programmable sequencer, and the wiring
//! list. docs/sequence-format.md describes them.
#pragma once

#include <string>
#include <vector>

#include "core/io/bench_line.h"
#include "core/model/design.h"
#include "core/sequence/plan.h"
#include "core/sequence/player.h"

namespace kranich {

//! selector, channel, actor, moves, start_s, duration_s, latest_end_s, ends_at, direction.
std::string sequence_csv(const Design& design, const sequence::Plan& plan);
std::string sequence_json(const Design& design, const sequence::Plan& plan);
//! What hangs on which output, over which reverser, and what starts each box: box, output, goes_to, lead,
//! remark.
std::string wiring_csv(const Design& design);

//! The actors of a plan by the numbers that a sequencer on a line knows them by: in the order of their first
//! appearance, going up first.
std::vector<std::string> numbered_actors(const sequence::Plan& plan);
//! What is sent to it (docs/bench-protocol.md): forget, and every step.
std::vector<BenchLine> sequencer_lines(const sequence::Plan& plan);

//! What a sequencer answered to one way of a plan, actor by actor, against it: later than the slowest it was
//! planned with, earlier than the fastest, not arrived, not moved. Empty: all as planned, to a twentieth of a
//! second.
std::vector<Text> against_plan(const Design& design, const sequence::Plan& plan, bool up,
                               const std::vector<sequence::Answer>& answers);

}  // namespace kranich
