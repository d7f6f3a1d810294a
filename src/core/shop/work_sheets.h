// SPDX-License-Identifier: GPL-3.0-or-later
//! What is printed of the work: check list of today and of each stage, ladder of tests, service card, part
//! register, trial form. In letters to be read at arm's length; pages are
//! broken for the paper that is set.
#pragma once

#include "core/shop/sheets.h"
#include "core/tasks/progress.h"

namespace kranich::shop {

//! `state`: loading and state of the gear on screen. `tongue`: the language; units are the design's.
std::vector<Sheet> work_sheets(const tasks::Progress& progress, const tasks::Look& look,
                               const tasks::History& book, const std::string& state,
                               const Tongue& tongue = {});

}  // namespace kranich::shop
