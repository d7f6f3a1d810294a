// SPDX-License-Identifier: GPL-3.0-or-later
//! Start from what hurts: a complaint, the checks that judge it and the few numbers that decide them.
#pragma once

#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/stations.h"
#include "core/model/design.h"

namespace kranich::start {

struct Hurt {
  std::string_view id;     //!< "tips"
  std::string_view words;  //!< "It tips over"
  Station station;         //!< where it is looked at
  std::vector<std::string_view> measures;
};
//! In the order in which they are offered.
std::span<const Hurt> hurts();

//! The numbers that decide a complaint in a design, by path, those that count most first. Only those that
//! the design has: a door's where there is a door.
std::vector<std::string> deciding(const Hurt& hurt, const Design& design);

}  // namespace kranich::start
