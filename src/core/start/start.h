// SPDX-License-Identifier: GPL-3.0-or-later
//! Start: a whole aircraft from nine answers. Every number that no answer gives is guessed: its origin says
//! so, and it has half its likely range as tolerance, or none where it follows from others. What cannot be
//! guessed (readings, limits of one's own, joints, doors, plies) stays unknown. Source: handbook, Start.
#pragma once

#include "core/model/design.h"
#include "core/start/answers.h"
#include "core/start/sizing.h"

namespace kranich::start {

struct Started {
  Design design;
  std::vector<Text> notes;  //!< what was taken for a question left open, what is wider than usual
  bool settled;             //!< the sizes stood still against one another
};

//! The aircraft that answers lead to. Only for answers without refusals(): throws std::invalid_argument
//! where there are any.
Started started(const Answers& answers, const Found& found = {});

}  // namespace kranich::start
