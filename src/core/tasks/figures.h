// SPDX-License-Identifier: GPL-3.0-or-later
//! Figures that the shop work asks for and that no check judges: registered like measures, so that texts and
//! predictions name them by id and docs/steps.md lists them.
#pragma once

#include <optional>
#include <span>
#include <string>
#include <string_view>

#include "core/assess/assess.h"
#include "core/base/quantity.h"

namespace kranich::tasks {

//! What a figure is asked for: a leg on one side, and what has been read already where the figure follows
//! from it. NaN where it was not.
struct FigureAt {
  const Design& design;
  const Assessment& assessment;
  std::string leg;  //!< id; empty: of the aircraft, or of the leg that speaks for the mains
  bool port = false;
  double load, height, mass;  //!< N on one leg; m dropped; kg on the leg
  size_t tube = 0;            //!< of a leg of tubes: which
};

struct FigureInfo {
  std::string_view id;  //!< stable, "leg.length"
  std::string_view title;
  Kind kind;
  std::string_view meaning;  //!< one sentence for a builder
  std::string_view source;
  bool of_a_leg;                     //!< differs from leg to leg
  double (*value)(const FigureAt&);  //!< SI; NaN where something is missing
};

std::span<const FigureInfo> all_figures();
//! Null where there is none of that id.
const FigureInfo* find_figure(std::string_view id);

}  // namespace kranich::tasks
