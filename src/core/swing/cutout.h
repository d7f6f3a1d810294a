// SPDX-License-Identifier: GPL-3.0-or-later
//! What a leg cuts out of the plane that it passes, and the ground that its way covers above it: the hole in
//! the skin, the slot in a floor, the outline of the bay. SI, aircraft axes, seen from above: x aft, y to
//! starboard. Source: handbook, Swing: the union over the turn of the sections of wheel and leg with the
//! skin, grown by the clearance.
#pragma once

#include <Eigen/Core>
#include <optional>
#include <variant>
#include <vector>

#include "core/swing/swing.h"

namespace kranich::swing {

using Outline = std::vector<Eigen::Vector2d>;  //!< closed, without the first point repeated

//! The section of a solid with the plane z: convex; empty where it does not reach the plane.
Outline section_at(const RoundedWheel& wheel, double z);
Outline section_at(const Capsule& capsule, double z);

struct CutOut {
  std::vector<Outline> outlines;  //!< what must be cut away, grown; the largest first
  double area = 0;                //!< m2, of all of them
  double length = 0, width = 0;   //!< over all, along x and y
};
//! The hole in the plane z that the leg passes through on its way, grown by a margin all round. Looked at
//! every 1/120 of the travel, the hull of what stands in the plane at two neighbouring turns between them: of
//! a way that is an arc of radius r nothing is missed by more than r·Δψ²/8, some hundredths of a millimetre
//! to a metre. Nothing passes: empty.
CutOut cut_out(const MovingLeg& leg, double z, double margin);
//! What the leg covers above the plane on its way: the bay's outline in plan.
CutOut bay_outline(const MovingLeg& leg, double z, double margin);
//! The highest point that any of it reaches above the plane: the bay's depth. Nothing above: 0.
double bay_depth(const MovingLeg& leg, double z);

//! Length and width of the hole in a plane, grown, without its outline: quick enough for every assessment.
//! Nothing where nothing passes, or the leg's motion is unknown.
std::optional<Eigen::Vector2d> hole_in(const Leg& leg, double z);

//! All of them for a leg: its hole in the skin at the well's mouth and its bay, where the mouth is known; its
//! slot through the floor where one is given. Grown by the clearance wanted, or by none.
struct LegOutlines {
  CutOut skin, bay, slot;
  double depth = 0;   //!< of the bay, the margin in
  double margin = 0;  //!< by which all are grown
};
//! Or what of the leg's motion is missing.
std::variant<LegOutlines, Text> outlines_of(const Leg& leg);

}  // namespace kranich::swing
