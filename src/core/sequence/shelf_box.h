// SPDX-License-Identifier: GPL-3.0-or-later
//! A box that times a sequence, as it is sold.
#pragma once

#include <string>

#include "core/model/design.h"

namespace kranich::sequence {

//! Holds in s, mass in kg.
struct ShelfBox {
  std::string name, remark;
  Given outputs, longest_hold, mass, price;
  AtSwitchOn at_switch_on = AtSwitchOn::stays;
};

}  // namespace kranich::sequence
