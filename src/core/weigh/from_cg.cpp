// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/weigh/from_cg.h"

#include <limits>

namespace kranich::weigh {

double shift_from_cg(const Design& d, const std::vector<size_t>& rows, double mass, double further_aft) {
  double along = 0;
  for (const auto& item : d.ledger)
    for (const size_t row : rows)
      if (item.moves == d.gear.legs[row].id && item.mass.known()) along += item.mass;
  const double stays = 1 - along / mass;
  return stays > 0.05 ? further_aft / stays : std::numeric_limits<double>::quiet_NaN();
}

}  // namespace kranich::weigh
