// SPDX-License-Identifier: GPL-3.0-or-later
//! Two wheels that move past each other: port and starboard, neighbours. SI, rad. Source: handbook, Swing.
#pragma once

#include <functional>
#include <optional>

#include "core/motion/retraction.h"
#include "core/motion/shape.h"

namespace kranich::swing {

//! Least distance of two wheels; overlapping: less than nothing.
double between(const motion::RoundedWheel& a, const motion::RoundedWheel& b);

//! A wheel as it lies at a turn.
motion::RoundedWheel wheel_at(const motion::Retracting& moves, const motion::RoundedWheel& down, double turn);
motion::RoundedWheel mirrored(const motion::RoundedWheel& wheel);

struct PairGap {
  double distance;
  double turn, other_turn;  //!< of the first and of the second
};
//! The least over the first's travel, the second lagging by an angle (not below down).
PairGap least_together(const motion::Retracting& first, const motion::RoundedWheel& wheel,
                       const motion::Retracting& second, const motion::RoundedWheel& other, double lag = 0);
//! The least over every combination of both turns: one stuck anywhere.
PairGap least_of_any(const motion::Retracting& first, const motion::RoundedWheel& wheel,
                     const motion::Retracting& second, const motion::RoundedWheel& other);

//! The same fast enough for every trial of a design: the nearest places of a grid of 1/32 of the travels,
//! refined. Not certain as least_of_any is, which tests hold it against. Nothing where the wheels stay
//! further apart than `within` whatever they do: that is certain.
std::optional<PairGap> nearest_of_any(const motion::Retracting& first, const motion::RoundedWheel& wheel,
                                      const motion::Retracting& second, const motion::RoundedWheel& other,
                                      double within);

}  // namespace kranich::swing
