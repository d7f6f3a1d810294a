// SPDX-License-Identifier: GPL-3.0-or-later
//! Keep-outs: how far a retract unit (or a fixed leg's mount) may shift before it runs into spar, duct or
//! rib. Boxes in aircraft axes, starboard side; for shifts along an axis a cylinder counts as the box around
//! it. SI. Source: handbook, Place.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/model/design.h"
#include "core/motion/shape.h"

namespace kranich::place {

using motion::Box;

//! The box round a keep-out, or nothing where a measure of it is missing, or it is a plane and has no end.
std::optional<Box> box_of(const KeepOut& keep_out);
//! The solids it is made of, none likewise: one, the wedges of a prism, or the skin of a mesh.
std::vector<motion::Obstacle> solids_of(const KeepOut& keep_out);
//! The body of a leg's unit where it stands, or nothing where the leg has none.
std::optional<Box> unit_of(const Leg& leg);

//! Distance of a unit from a keep-out; where it runs into it, minus the least way out, in any direction along
//! an axis (of a cylinder: off its centre line; of a plane: straight before it; of a prism: out of one of its
//! wedges; of a mesh: out of the triangle it is deepest in). A cylinder's ends count as round. Nothing where
//! a measure is missing.
std::optional<double> clearance(const Box& unit, const KeepOut& keep_out);

//! Which of them, to starboard or its twin to port, a box comes nearest, and how near. Nothing where no
//! measure of any is known.
struct NearestKeepOut {
  double distance;
  std::string name;
};
std::optional<NearestKeepOut> nearest_keep_out(const Box& unit, const std::vector<KeepOut>& keep_outs);

//! The body of a joint that is a plate or block, with its cheeks or the box over it: upright over a face that
//! looks down, ahead of one that looks aft, inboard of one that looks to the side. Nothing where its place or
//! a measure is missing.
std::optional<Box> plate_of(const Joint& joint);

//! Where a box that goes straight out by a way comes nearest to what must not be touched, on either side of
//! the aircraft. Nothing where no measure of any is known.
struct WayOut {
  double distance;   //!< negative: it does not pass
  double share;      //!< of the way done there
  std::string name;  //!< of what it passes
};
std::optional<WayOut> way_out(const Box& body, const Vec3& way, const std::vector<KeepOut>& keep_outs);

//! Shifts along one axis (0 x, 1 y) at which the unit overlaps the keep-out.
struct Interval {
  double from, to;
};
std::optional<Interval> blocked(const Box& unit, const Box& keep_out, int axis);

//! How far the unit goes one way along an axis before something stops it.
struct Furthest {
  double shift;            //!< m, signed; infinite where nothing is in the way
  std::string stopped_by;  //!< empty where nothing is in the way
  //! A unit shallower by this much (from its top or bottom, whichever is less) would pass under or over it …
  double shallower;
  double gain;  //!< … and go so much further, to the next stop; infinite where there is none
};
Furthest furthest(const Box& unit, const std::vector<KeepOut>& keep_outs, int axis, int sign);

}  // namespace kranich::place
