// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/design.h"

namespace kranich {

//! Axis about which the starboard leg turns right-handed from down to stowed in a plain swing: along y (aft,
//! forward) or x (inward, outward). The port leg's is (−u_x, u_y, −u_z).
inline Vec3 swing_axis(SwingDirection direction) {
  switch (direction) {
    case SwingDirection::inward:
      return {-1, 0, 0};
    case SwingDirection::outward:
      return {1, 0, 0};
    case SwingDirection::aft:
      return {0, -1, 0};
    case SwingDirection::forward:
      return {0, 1, 0};
  }
  return {-1, 0, 0};
}

}  // namespace kranich
