// SPDX-License-Identifier: GPL-3.0-or-later
//! Axes, turns about them, and the other side of the aircraft: the one place where a side is changed. SI,
//! aircraft axes; turns right-handed, rad.
#pragma once

#include "core/base/geometry.h"

namespace kranich::motion {

struct Axis {
  Vec3 point, direction;  //!< unit direction
  Eigen::Isometry3d turn(double angle) const {
    return Eigen::Translation3d(point) * Eigen::AngleAxisd(angle, direction) * Eigen::Translation3d(-point);
  }
  bool operator==(const Axis&) const = default;
};

//! What a turn's direction (or a moment) is across the plane of symmetry: (−x, y, −z).
inline Vec3 mirrored_turn(const Vec3& v) { return {-v.x(), v.y(), -v.z()}; }
//! The axis about which the other side's twin turns, by the same angle.
inline Axis mirrored(const Axis& a) { return {kranich::mirrored(a.point), mirrored_turn(a.direction)}; }
//! A motion as the other side's twin makes it.
inline Eigen::Isometry3d mirrored(const Eigen::Isometry3d& m) {
  const Eigen::DiagonalMatrix<double, 3> flip(1, -1, 1);
  Eigen::Isometry3d other = Eigen::Isometry3d::Identity();
  other.linear() = flip * m.linear() * flip;
  other.translation() = flip * m.translation();
  return other;
}

}  // namespace kranich::motion
