// SPDX-License-Identifier: GPL-3.0-or-later
//! The registry of measures: every number that Kranich judges or reports, declared once. Screens, command
//! line, report and docs/measures.md all read it.
#pragma once

#include <span>
#include <string_view>

#include "core/base/quantity.h"
#include "core/base/stations.h"

namespace kranich {

struct Measure {
  std::string_view id;  //!< stable, "place.tip_back"
  Station station;
  std::string_view title;
  Kind kind;
  std::string_view meaning;  //!< one sentence for a builder
  std::string_view formula;  //!< as in the handbook
  std::string_view source;   //!< who says so
  double zero_scale = 0;     //!< for a limit of zero: the size (SI) a tenth of which counts as tight
};

//! All measures, by station in the order of work.
std::span<const Measure> all_measures();

//! The measure of that id; throws std::logic_error for an id that is not registered (a broken promise of
//! ours).
const Measure& measure(std::string_view id);
//! As measure(), but null where a file or a user may have named something that does not exist.
const Measure* find_measure(std::string_view id);

}  // namespace kranich
