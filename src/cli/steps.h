// SPDX-License-Identifier: GPL-3.0-or-later
//! The steps of the work on the command line.
#pragma once

#include <string>

#include "core/assess/assess.h"
#include "core/shop/sheets.h"

namespace kranich::cli {

//! The steps of the work with their state, from the project and the Book beside it: those that are open, or
//! every one; as text or as JSON.
void print_steps(const Design& design, const std::string& path, const std::string& today, bool every,
                 bool json);
//! What is printed of the work, with the Book beside the project.
std::vector<shop::Sheet> work_sheets(const Design& design, const Assessment& assessment,
                                     const std::string& path, const std::string& today);
//! docs/steps.md: words of conditions, figures, the table itself.
void print_steps_table();

}  // namespace kranich::cli
