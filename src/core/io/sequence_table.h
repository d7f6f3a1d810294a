// SPDX-License-Identifier: GPL-3.0-or-later
//! The plan of a sequence as files: a table and a JSON document for a programmable sequencer, and the wiring
//! list. docs/sequence-format.md describes them.
#pragma once

#include <string>
#include <vector>

#include "core/io/bench_line.h"
#include "core/model/design.h"
#include "core/sequence/plan.h"

namespace kranich {

//! selector, channel, actor, moves, start_s, duration_s, latest_end_s, ends_at, direction.
std::string sequence_csv(const Design& design, const sequence::Plan& plan);
std::string sequence_json(const Design& design, const sequence::Plan& plan);
//! What hangs on which output, over which reverser, and what starts each box: box, output, goes_to, lead,
//! remark.
std::string wiring_csv(const Design& design);

//! What is sent to it (docs/bench-protocol.md): forget, and every step.
std::vector<BenchLine> sequencer_lines(const sequence::Plan& plan);

}  // namespace kranich
