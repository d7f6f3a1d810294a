// SPDX-License-Identifier: GPL-3.0-or-later
//! Wheels placed from the CG. SI.
#pragma once

#include <vector>

#include "core/model/design.h"

namespace kranich::weigh {

//! How far legs have to go aft (m) so that their axles lie so much further aft of the CG of an aircraft of a
//! mass (kg): what hangs on them takes the CG along. NaN where nearly all of the mass hangs on them.
double shift_from_cg(const Design& design, const std::vector<size_t>& rows, double mass, double further_aft);

}  // namespace kranich::weigh
