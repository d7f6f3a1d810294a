// SPDX-License-Identifier: GPL-3.0-or-later
//! Many landings instead of one: sink speed, mass, temperature, spring, friction and damping scattered about
//! the design landing. SI. The same seed gives the same drops, whatever the number of threads.
#pragma once

#include <cstdint>
#include <optional>
#include <vector>

#include "core/base/progress.h"
#include "core/model/workshop.h"
#include "core/spring/drop.h"

namespace kranich::spring {

struct ScatterResult {
  std::vector<double> load_factor, stroke;  //!< sorted
  double bottoms = 0, over_factor = 0;      //!< shares of the drops
  //! The value that a share of the drops stays below.
  static double below(const std::vector<double>& sorted, double share);
};

//! Scatters: standard deviations as shares, normal, cut at three of them; temperature even between its ends
//! (gas pressure with the absolute temperature, 288 K when charged). Nothing where it was called off.
std::optional<ScatterResult> scattered_drops(const DropModel& model, double sink_speed,
                                             const Scatter& scatter, double factor_allowed,
                                             std::uint64_t seed = 1, const Progress& progress = {});

}  // namespace kranich::spring
