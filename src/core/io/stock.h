// SPDX-License-Identifier: GPL-3.0-or-later
//! The shelves that ship: data/shelf, built in, so that interface and command line read the same.
#pragma once

#include "core/assess/stock.h"

namespace kranich {

const Stock& shipped_stock();
//! With what the builder has at hand of his own, before it: coils of the spring bench that are whole.
Stock stock_of(const Design& design);

}  // namespace kranich
