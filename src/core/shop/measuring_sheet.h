// SPDX-License-Identifier: GPL-3.0-or-later
//! What to measure next, to take to the hangar: a line for each act with its tool, what is guessed now and a
//! blank, in the order of the list on the screen, so that it is typed in as it was read.
#pragma once

#include "core/shop/drawing.h"
#include "core/start/measure_next.h"

namespace kranich::shop {

Drawing measuring_sheet(const Design& design, const start::NextList& list);

}  // namespace kranich::shop
