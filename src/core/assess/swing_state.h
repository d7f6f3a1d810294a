// SPDX-License-Identifier: GPL-3.0-or-later
//! How a leg swings into its well: part of an Assessment.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/assess/assess.h"
#include "core/swing/axis_finder.h"
#include "core/swing/cutout.h"
#include "core/swing/pair.h"
#include "core/swing/swing.h"

namespace kranich {

//! Where something is missing, `missing` says what; then the rest is empty.
struct LegSwing {
  std::string leg;  //!< its id
  std::optional<swing::SwingInput> input;
  std::optional<swing::SwingFigures> figures;
  std::optional<swing::Clearance> least;
  std::optional<swing::Clearance> least_set;        //!< with the leg bent by the landings it made
  std::optional<swing::Clearance> least_other_way;  //!< a bent leg turned half round about its shank
  std::optional<Eigen::Vector2d> slot;              //!< length and width of the hole in the floor it passes
  Text missing;
};

//! The stowed wheel as the builder wants it; nothing where he said nothing, or not all.
std::optional<swing::WheelPose> wanted_pose(const Leg& leg);

//! Two wheels that swing, past each other.
struct SwingPair {
  Text first, second;
  std::string key;          //!< of both
  double wanted;            //!< clearance, the larger of the two legs'; NaN where neither says
  swing::PairGap together;  //!< both started at once, each at its own time
  swing::PairGap any;       //!< one stuck anywhere
};
//! Every pair of wheels of a design's retracting legs that come nearer than `near` in any position: left and
//! right of one leg, neighbours, in front and behind. Legs of which something is unknown are left out.
std::vector<SwingPair> swing_pairs(const Design& design, double near);

}  // namespace kranich
