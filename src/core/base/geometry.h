// SPDX-License-Identifier: GPL-3.0-or-later
//! Vectors and turns in aircraft axes: x aft, y to starboard, z up; right-handed.
#pragma once

#include <Eigen/Core>
#include <Eigen/Geometry>

namespace kranich {

using Vec3 = Eigen::Vector3d;
using Mat3 = Eigen::Matrix3d;

//! Right-handed turn by an angle (rad) about a unit direction (Rodrigues).
inline Mat3 turn_about(const Vec3& unit_direction, double angle) {
  return Eigen::AngleAxisd(angle, unit_direction).toRotationMatrix();
}

//! Upward vertical in aircraft axes at pitch (nose-up positive) and roll (starboard-down positive), in that
//! order: (−sin θ, −cos θ·sin φ, cos θ·cos φ).
inline Vec3 up_direction(double pitch, double roll) {
  return {-std::sin(pitch), -std::cos(pitch) * std::sin(roll), std::cos(pitch) * std::cos(roll)};
}

//! Mirror image across the plane of symmetry.
inline Vec3 mirrored(const Vec3& v) { return {v.x(), -v.y(), v.z()}; }

}  // namespace kranich
