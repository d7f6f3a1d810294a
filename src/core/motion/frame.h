// SPDX-License-Identifier: GPL-3.0-or-later
//! Axes, turns about them, and the other side of the aircraft: the one place where a side is changed. SI,
//! aircraft axes; turns right-handed, rad.
#pragma once

#include <cmath>

#include "core/base/geometry.h"

namespace kranich::motion {

//! A turn as its cosine and sine.
struct Turn {
  double cosine, sine;
};
inline double angle(const Turn& t) { return std::atan2(t.sine, t.cosine); }

struct Axis {
  Vec3 point, direction;  //!< unit direction
  Eigen::Isometry3d turn(double angle) const { return turn({std::cos(angle), std::sin(angle)}); }
  Eigen::Isometry3d turn(const Turn& t) const {
    const Vec3 part = (1 - t.cosine) * direction;
    const Vec3 s = t.sine * direction;
    Eigen::Isometry3d made;
    made.linear() = part * direction.transpose();
    made.linear().diagonal().array() += t.cosine;
    made.linear()(0, 1) -= s.z();
    made.linear()(1, 0) += s.z();
    made.linear()(0, 2) += s.y();
    made.linear()(2, 0) -= s.y();
    made.linear()(1, 2) -= s.x();
    made.linear()(2, 1) += s.x();
    made.translation() = point - made.linear() * point;
    made.makeAffine();
    return made;
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
