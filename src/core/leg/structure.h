// SPDX-License-Identifier: GPL-3.0-or-later
//! What a leg's parts are left with under its load cases: the leg itself as a space frame of its tubes, its
//! one strut or its bending chain; the axle; pins, fasteners, blocks, plates and posts. SI; starboard leg,
//! aircraft axes. Figures are for planning: structure that carries people is a licensed engineer's or
//! inspector's to decide. Source: handbook, Leg.
//!
//! Margin of a part = the least of yield/σ at the limit load and strength/σ at the ultimate one (limit times
//! the ultimate factor), less 1. Assumptions: arms as the leg is closed when the case occurs; small
//! deflections; tubes held in place but free to turn at the airframe; one strut clamped at its top, or hinged
//! there and held by its brace.
#pragma once

#include <array>
#include <optional>
#include <string>
#include <vector>

#include "core/base/finding.h"
#include "core/leg/load_cases.h"
#include "core/model/design.h"

namespace kranich::leg {

struct PartMargin {
  std::string part;     //!< "front leg", "axle", a joint's name
  Text decides;         //!< what of it: "bending at the top", "bearing in the inner lug", "column"
  std::string in_case;  //!< the load case that decides
  double margin = std::numeric_limits<double>::quiet_NaN();
  double load = std::numeric_limits<double>::quiet_NaN();     //!< what it carries, limit, N (or N·m)
  double stress = std::numeric_limits<double>::quiet_NaN();   //!< at the limit load, Pa
  double allowed = std::numeric_limits<double>::quiet_NaN();  //!< of what decides, Pa
  double pull = 0;   //!< of a joint: the most that takes it off its face, limit, N
  double twist = 0;  //!< of a joint: the most that twists its plate about its longer side, limit, N·m
  std::vector<Working> working;
  Text missing;  //!< what it lacks, where the margin is not known
  Text remark;
  Vec3 at{0, 0, 0};  //!< where to point in a drawing
};

//! A bar of the drawing, with the part it belongs to.
struct Bar {
  Vec3 from, to;
  double diameter;
  std::string part;
};

struct FastenerLoad {
  std::string joint;
  Vec3 at;
  double shear, tension;  //!< limit, N, in the joint's deciding case
};

struct Structure {
  std::vector<Bar> bars;
  std::vector<PartMargin> parts;  //!< worst first, those that lack something behind
  std::vector<FastenerLoad> fasteners;
  //! Bars under the case of an index, deflected: ends as moved.
  std::vector<std::vector<std::pair<Vec3, Vec3>>> moved;
  //! Of each bar in each case, at its two ends, limit, Pa.
  std::vector<std::vector<std::array<double, 2>>> stress;
  std::vector<Vec3> wheel_moved;  //!< wheel centre's displacement in each case
  Text mechanism;                 //!< why the frame cannot carry anything, empty where it can
};

//! Every case in the pose that it occurs in; bars and deflections for the drawing are of the leg extended.
Structure check_structure(const Design& design, const Leg& leg, const std::vector<LoadCase>& cases);

}  // namespace kranich::leg
