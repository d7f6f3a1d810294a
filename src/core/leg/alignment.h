// SPDX-License-Identifier: GPL-3.0-or-later
//! What to do about toe and camber that were measured. SI, rad. Source: handbook, Leg.
#pragma once

#include "core/leg/geometry.h"

namespace kranich::leg {

//! How far an end of a bar out of square by a toe must go fore and aft, turned about its middle: B/2·sin ψ,
//! m.
double end_of_bar_by(double toe, double bar_length);

//! A wheel's setting less what is wanted, and what the toe comes to at the rim over the wheel's diameter, m.
struct Correction {
  double toe, camber, rim;
};
Correction correction(const BarSetting& read, double toe_wanted, double camber_wanted, double wheel_diameter);

}  // namespace kranich::leg
