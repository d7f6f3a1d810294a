// SPDX-License-Identifier: GPL-3.0-or-later
//! What of the axis finder's answers can be entered and built for a leg: pivot, direction, turn in plan, tip,
//! unit angle, and what each leaves at the wheel. SI, rad, aircraft axes. Source: handbook, Swing.
#pragma once

#include <optional>
#include <vector>

#include "core/base/say.h"
#include "core/motion/retract.h"
#include "core/swing/axis_finder.h"

namespace kranich::swing {

enum class AxisSort {
  exact,     //!< carries the wheel into its place
  plain,     //!< straight across or along: misses
  in_mount,  //!< in the plane of the mount that is there: misses
};

struct AxisChoice {
  AxisSort sort;
  motion::AxisEntry entry;
  double unit_angle;
  Vec3 pivot;              //!< the point of the axis nearest where the pivot is
  bool reversed;           //!< the wheel lies the other side up
  double place_miss = 0;   //!< m
  double axle_miss = 0;    //!< rad
  double sensitivity = 0;  //!< rad of the axis for each mm that the place is off; of exact ones
};
struct AxisChoices {
  std::vector<AxisChoice> list;  //!< exact ones first, then by what they miss
  Text family;                   //!< what is special about the two poses; empty of one axis
};
//! All of them for a leg and the pose wanted. `unit_angle` picks from families that leave it open. Axes
//! turned or tipped beyond `most` cannot be entered and are left out.
AxisChoices axis_choices(const Leg& leg, const WheelPose& wanted, double most = 1.047);
//! Enters one.
void take_axis(Leg& leg, const AxisChoice& choice);

}  // namespace kranich::swing
