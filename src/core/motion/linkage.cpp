// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motion/linkage.h"

#include <cmath>
#include <limits>

namespace kranich::motion {
namespace {
//! Of the rod's longest reach: so little past the dead centre is rounding.
constexpr double rounding = 1e-12;
}  // namespace

HeldRod::HeldRod(const Axis& axis, const Vec3& ball, const Vec3& point) {
  const Vec3 u = axis.direction;
  const Vec3 along = u.dot(ball - axis.point) * u;
  from_ = axis.point + along;
  first_ = ball - from_;
  second_ = u.cross(first_);
  arm2_ = first_.squaredNorm();
  rod2_ = (ball - point).squaredNorm();
  // At rest p·cos χ + q·sin χ = c holds at χ = 0: the solution before the middle where that lies ahead.
  branch_ = second_.dot(point - from_) > 0 ? -1 : 1;
}

HeldRod::Solved HeldRod::solved(const Vec3& point) const {
  const Vec3 to = point - from_;
  const double p = first_.dot(to);
  const double q = second_.dot(to);
  return {p, q, (arm2_ + to.squaredNorm() - rod2_) / 2, p * p + q * q};
}

bool HeldRod::reaches(const Vec3& point) const {
  const Solved s = solved(point);
  return s.c * s.c < s.size2 * (1 + 2 * rounding);
}

Turn HeldRod::place(const Vec3& point) const {
  const Solved s = solved(point);
  const double square = s.size2 - s.c * s.c;
  if (!(square > -2 * rounding * s.size2)) {
    constexpr double nan = std::numeric_limits<double>::quiet_NaN();
    return {nan, nan};
  }
  const double half = branch_ * std::sqrt(std::max(0.0, square));
  return {(s.p * s.c - s.q * half) / s.size2, (s.q * s.c + s.p * half) / s.size2};
}

double rod_turn_rate(const Axis& axis, const Vec3& ball, const Vec3& point, const Vec3& ball_velocity,
                     const Vec3& point_velocity) {
  const Vec3 rod = ball - point;
  return -rod.dot(ball_velocity - point_velocity) / rod.dot(axis.direction.cross(ball - axis.point));
}

}  // namespace kranich::motion
