// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/leg/alignment.h"

#include <cmath>

namespace kranich::leg {

double end_of_bar_by(double toe, double bar_length) { return bar_length / 2 * std::sin(toe); }

Correction correction(const BarSetting& read, double toe, double camber, double diameter) {
  return {read.toe - toe, read.camber - camber, std::tan(read.toe - toe) * diameter};
}

}  // namespace kranich::leg
