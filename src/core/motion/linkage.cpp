// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motion/linkage.h"

#include <cmath>
#include <limits>
#include <numbers>

namespace kranich::motion {

double RodTurn::at(double branch) const {
  return std::remainder(middle + branch * half, 2 * std::numbers::pi);
}

RodTurn rod_turn(const Axis& axis, const Vec3& ball, const Vec3& point, double rod) {
  const Vec3 u = axis.direction;
  const Vec3 arm = ball - axis.point;
  const Vec3 along = arm.dot(u) * u;
  const Vec3 first = arm - along;  // the ball at χ: along + cos χ·first + sin χ·second
  const Vec3 second = u.cross(first);
  const Vec3 to = point - axis.point - along;
  const double p = first.dot(to);
  const double q = second.dot(to);
  const double c = (first.squaredNorm() + to.squaredNorm() - rod * rod) / 2;
  const double size = std::hypot(p, q);
  double cosine = c / size;
  if (std::abs(cosine) > 1 && std::abs(cosine) < 1 + 1e-12) cosine = std::copysign(1, cosine);
  return {std::atan2(q, p),
          std::abs(cosine) <= 1 ? std::acos(cosine) : std::numeric_limits<double>::quiet_NaN()};
}

double branch_of(const RodTurn& solutions, double turn) {
  const auto off = [&](double branch) {
    return std::abs(std::remainder(solutions.at(branch) - turn, 2 * std::numbers::pi));
  };
  return off(1) <= off(-1) ? 1 : -1;
}

double rod_turn_rate(const Axis& axis, const Vec3& ball, const Vec3& point, const Vec3& ball_velocity,
                     const Vec3& point_velocity) {
  const Vec3 rod = ball - point;
  return -rod.dot(ball_velocity - point_velocity) / rod.dot(axis.direction.cross(ball - axis.point));
}

}  // namespace kranich::motion
