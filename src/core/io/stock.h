// SPDX-License-Identifier: GPL-3.0-or-later
//! The shelves that ship: data/shelf, built in, so that interface and command line read the same.
#pragma once

#include "core/assess/swaps.h"

namespace kranich {

const Stock& shipped_stock();

}  // namespace kranich
