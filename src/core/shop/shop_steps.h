// SPDX-License-Identifier: GPL-3.0-or-later
//! The steps of the shop work that a design asks for, in their order, to be ticked off: in the window and on
//! the sheet they are the same.
#pragma once

#include <string>
#include <vector>

#include "core/model/design.h"

namespace kranich::shop {

struct ShopStep {
  std::string key;  //!< stable: what Design::done holds
  std::string words;
  bool done;
};
//! What every job asks for, and what this one does: clamped leaves, rings, bought mounts, plates glued to
//! wood, reinforcements.
std::vector<ShopStep> shop_steps(const Design& design);
//! Ticks one, or takes the tick off.
void tick(Design& design, const std::string& key, bool done);

}  // namespace kranich::shop
