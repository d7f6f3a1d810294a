// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motion/suspend.h"

#include <cmath>
#include <limits>

namespace kranich::motion {

std::optional<Axis> hinge_axis(const Leg& leg) {
  if (leg.path == LegPath::straight || !leg.hinge.known() || !leg.axle.known()) return std::nullopt;
  const Vec3 arm = leg.axle.vec() - leg.hinge.vec();
  const bool fore_and_aft = leg.path == LegPath::hinged_fore_and_aft;
  const double out = fore_and_aft ? arm.y() : arm.x();
  if (std::abs(out) < 1e-6) return std::nullopt;
  return Axis{leg.hinge.vec(), fore_and_aft ? Vec3(out > 0 ? 1 : -1, 0, 0) : Vec3(0, out > 0 ? -1 : 1, 0)};
}

std::optional<double> turn_to_rise(const Axis& axis, const Vec3& point, double rise) {
  const Vec3 arm = point - axis.point;
  const double reach = axis.direction.cross(arm).norm();
  const double end = arm.z() + rise;
  if (!(std::abs(end) < reach) || !(std::abs(arm.z()) <= reach)) return std::nullopt;
  return std::asin(end / reach) - std::asin(arm.z() / reach);
}

Vec3 strut_above_hinge(const Leg& leg) {
  const Vec3 none = Vec3::Constant(std::numeric_limits<double>::quiet_NaN());
  if (leg.path == LegPath::straight || !leg.hinge.known() || !leg.tubes.empty()) return none;
  const Point& upper = leg.retraction.fitted ? leg.retraction.pivot : leg.top;
  if (!upper.known()) return none;
  constexpr double at_the_hinge = 5e-3;  // a fitting, not a strut
  return (upper.vec() - leg.hinge.vec()).norm() > at_the_hinge ? upper.vec() : none;
}

Leg suspended(const Leg& leg, double rise) {
  Leg closed = leg;
  if (!(rise > 0) || leg.spring.kind == SpringKind::bending || !leg.axle.known()) return closed;
  if (leg.path == LegPath::straight) {
    closed.axle.z.si += rise;
    return closed;
  }
  const auto axis = hinge_axis(leg);
  if (!axis) return closed;
  const auto angle = turn_to_rise(*axis, leg.axle.vec(), rise);
  if (!angle) return closed;
  const Eigen::Isometry3d turn = axis->turn(*angle);
  const auto move = [&](Point& p) {
    if (!p.known()) return;
    const Vec3 to = turn * p.vec();
    p.x.si = to.x();
    p.y.si = to.y();
    p.z.si = to.z();
  };
  move(closed.axle);
  move(closed.spring.anchor_leg);
  if (!strut_above_hinge(leg).allFinite()) {
    move(closed.top);
    move(closed.brace_leg);
  }
  for (auto& t : closed.tubes) {
    move(t.top);
    move(t.foot);
  }
  return closed;
}

}  // namespace kranich::motion
