// SPDX-License-Identifier: GPL-3.0-or-later
//! The road under an obstacle. SI.
#pragma once

#include "core/spring/bump.h"

namespace kranich::spring {

//! Height of the road at a place from the obstacle's middle (a step's edge): half a cosine wave, or a step
//! up.
double road_height(const Obstacle& obstacle, double x);

}  // namespace kranich::spring
