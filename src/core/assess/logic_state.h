// SPDX-License-Identifier: GPL-3.0-or-later
//! What a design's switches, lamps and motors come to: part of an Assessment.
#pragma once

#include <memory>
#include <string>
#include <vector>

#include "core/assess/assess.h"
#include "core/logic/proof.h"

namespace kranich {

struct LogicState {
  logic::Fitted fitted;
  Text taken;  //!< what of it was not entered, and what was taken instead
  //! Null while it has not been proved: an assessment that must not take its time leaves that to others.
  std::shared_ptr<const logic::Proof> proof;
};

//! What a design's logic is made of: its legs that retract, each side by itself, their doors and where these
//! are in the way, whether they fall by themselves. `before`: with Doors and Drive assessed.
LogicState logic_of(const Design& design, const Assessment& before);

//! The measure that a rule is judged by, and the rule of a measure.
std::string_view measure_of(logic::Rule rule);

//! Longest that a motor runs in one go (s), everything at its slowest; NaN where a time is not known.
double longest_run(const Design& design, const std::vector<sequence::LegTimes>& times);

}  // namespace kranich
