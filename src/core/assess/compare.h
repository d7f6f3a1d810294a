// SPDX-License-Identifier: GPL-3.0-or-later
//! Several states of one design side by side: every check's figure in each.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/assess/assess.h"

namespace kranich {

struct CompareRow {
  std::string measure_id;
  Subject subject;
  std::vector<std::optional<Finding>> findings;  //!< worst of the check in each design
  //! How much the designs differ, as a share of the limit's scale (or of the figure); sorts the table.
  double difference = 0;
};
//! Rows by difference, greatest first; those that are alike in all designs come last.
std::vector<CompareRow> compare(const std::vector<const Assessment*>& assessments);

//! What two designs differ in: quantities by path, both values.
struct Changed {
  std::string path, title;
  double before, after;
  Kind kind;
};
std::vector<Changed> changed_inputs(const Design& before, const Design& after);

}  // namespace kranich
