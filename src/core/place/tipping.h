// SPDX-License-Identifier: GPL-3.0-or-later
//! Tipping: the support polygon of any number of wheels, the acceleration that tips it in each direction, and
//! where an aircraft comes to rest whose CG lies behind its main wheels. SI, rad; ground axes (x aft along
//! the ground, y to starboard). Source: handbook, Place.
#pragma once

#include <Eigen/Core>
#include <optional>
#include <span>
#include <vector>

#include "core/place/place.h"

namespace kranich::place {

using Vec2 = Eigen::Vector2d;

//! Convex hull of the contacts, anticlockwise seen from above with x aft and y to starboard.
std::vector<Vec2> support_polygon(std::vector<Vec2> contacts);

//! Least horizontal acceleration (in g) in a direction that takes the resultant out of the polygon: distance
//! of the CG's ground point to the edge that way, over its height. `direction` is where the CG is thrown, a
//! unit vector. Negative where the CG lies outside already.
double tipping_in_g(std::span<const Vec2> polygon, const Vec2& cg, double height, const Vec2& direction);

//! The whole rose, from aft (0°) by starboard (90°), `n` directions.
std::vector<double> tipping_rose(std::span<const Vec2> polygon, const Vec2& cg, double height, int n);

//! The direction (outward, unit) of the polygon's edge nearest to the CG, and the distance to it, negative
//! outside.
struct NearestEdge {
  Vec2 outward;
  double distance;
};
NearestEdge nearest_edge(std::span<const Vec2> polygon, const Vec2& cg);

//! A stiff aircraft in the side view: stands on nose and mains, or sits on a point at its tail.
struct OnItsTail {
  bool stands;       //!< on nose (or all) wheels: the CG lies ahead of the mains there
  double pitch;      //!< at rest
  double tail_load;  //!< N, on the tail point; 0 where it stands
  double main_load;  //!< N, both mains
  double nose_gap;   //!< m under the nose wheel; 0 where it stands
  double standing_pitch;
  double keeps_down;   //!< kg at the ballast's place that just keeps the nose down once it is down; 0 if none
  double brings_down;  //!< kg that brings it down from the tail
};
//! `tail` is a round bumper (radius 0: a point) and `ballast` a place in aircraft axes. Nothing where the
//! circles contain each other or the ballast stands behind the mains.
std::optional<OnItsTail> on_its_tail(double mass, const Vec3& cg, const RoundWheel& nose,
                                     const RoundWheel& main, const RoundWheel& tail, const Vec3& ballast);

}  // namespace kranich::place
