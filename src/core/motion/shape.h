// SPDX-License-Identifier: GPL-3.0-or-later
//! Solids, and the signed distance between a moving part and what must not be touched. Both are convex, or
//! one is a skin of triangles that are: apart, the distance comes from alternating exact projections and,
//! where those creep, from the hull of a few points of their difference, stopped by a separating plane that
//! bounds the error; overlapping, the depth is the least shift that parts them, found over the directions of
//! separating planes. SI.
#pragma once

#include <limits>
#include <memory>
#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "core/base/geometry.h"

namespace kranich::motion {

//! Flat-ended solid cylinder.
struct Cylinder {
  Vec3 centre, axis;  //!< unit axis
  double radius, half_length;
};
struct Segment {
  Vec3 from, to;
};
//! Box along the aircraft axes.
struct Box {
  Vec3 low, high;
  bool overlaps(const Box& other) const;  //!< faces that only touch do not
};
//! All points behind a plane; the normal points to the free side.
struct HalfSpace {
  Vec3 point, normal;
};

//! A wheel: diameter and width over all, shoulders rounded by a radius (0 is flat-sided).
struct RoundedWheel {
  Vec3 centre, axle;  //!< unit axle direction
  double diameter, width, shoulder;
};
struct Capsule {
  Vec3 from, to;
  double radius;
};

//! A triangle carried along a vector square to it.
struct Wedge {
  Vec3 a, b, c;
  Vec3 along;
};

class Triangles;
//! A skin of triangles, shifted to where it stands, or its twin on the other side of the aircraft. One that
//! is closed must not be entered either.
struct SkinAt {
  std::shared_ptr<const Triangles> skin;  //!< not null
  Vec3 shift;
  bool port = false;
};

using Obstacle = std::variant<Box, Cylinder, HalfSpace, Wedge, SkinAt>;

template <class T>
struct Named {
  std::string name;
  T value;
};

//! Outlines without holes as wedges: corners in order, either way round, in one plane or not (they are taken
//! where they lie square to `along`). Empty for fewer than three corners or an outline that crosses itself.
std::vector<Wedge> prism(const std::vector<Vec3>& outline, const Vec3& from, const Vec3& along);

//! The same on the other side of the aircraft.
Obstacle mirrored(const Obstacle& obstacle);

//! The least box along the axes round a solid; nothing round a half-space.
Box bounds(const RoundedWheel& wheel);
Box bounds(const Capsule& capsule);
std::optional<Box> bounds(const Obstacle& obstacle);
//! Distance of two boxes; 0 where they overlap.
double gap(const Box& a, const Box& b);

struct Nearest {
  double distance;  //!< negative: depth of overlap
  Vec3 on_part,
      on_obstacle;  //!< points of the two solids nearest each other; where they overlap, in both cores
};

Nearest nearest(const RoundedWheel& wheel, const Obstacle& obstacle);
Nearest nearest(const Capsule& capsule, const Obstacle& obstacle);
//! As the distance of `nearest`, without working out how deep they overlap, which costs most: where the cores
//! that are rounded do, it is the rounding's radius, and a nanometre, below nothing.
//! Further apart than `enough` it may be told too near by up to a third, never too far.
double apart(const RoundedWheel& wheel, const Obstacle& obstacle,
             double enough = std::numeric_limits<double>::infinity());
double apart(const Capsule& capsule, const Obstacle& obstacle,
             double enough = std::numeric_limits<double>::infinity());

}  // namespace kranich::motion
