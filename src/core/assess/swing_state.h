// SPDX-License-Identifier: GPL-3.0-or-later
//! How a leg swings into its well: part of an Assessment.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/assess/assess.h"
#include "core/swing/swing.h"

namespace kranich {

//! Where something is missing, `missing` says what; then the rest is empty.
struct LegSwing {
  std::string leg;  //!< its id
  Leg of;           //!< the leg it was computed for, and what it must pass: while they stay, so does the rest
  std::vector<KeepOut> passing;
  std::optional<swing::SwingInput> input;
  std::optional<swing::SwingFigures> figures;
  std::optional<swing::Clearance> least;
  Text missing;
};

}  // namespace kranich
