// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motion/retract.h"

#include <cmath>

namespace kranich::motion {

Vec3 stowing_direction(SwingDirection direction) {
  switch (direction) {
    case SwingDirection::inward:
      return {-1, 0, 0};
    case SwingDirection::outward:
      return {1, 0, 0};
    case SwingDirection::aft:
      return {0, -1, 0};
    case SwingDirection::forward:
      return {0, 1, 0};
  }
  return {-1, 0, 0};
}

std::optional<Axis> stowing_axis(const Leg& leg) {
  const Retraction& r = leg.retraction;
  if (!r.fitted || !r.pivot.known()) return std::nullopt;
  return Axis{r.pivot.vec(), stowing_direction(r.direction)};
}

std::optional<Eigen::Isometry3d> stowing(const Leg& leg, double share, bool port) {
  const auto axis = stowing_axis(leg);
  if (!axis || !leg.retraction.unit_angle.known()) return std::nullopt;
  const auto moved = axis->turn(share * leg.retraction.unit_angle);
  return port ? mirrored(moved) : moved;
}

Vec3 axle_direction(const Leg& leg) {
  const double camber = leg.camber.known() ? leg.camber.si : 0;
  const double toe = leg.toe.known() ? leg.toe.si : 0;
  return {-std::sin(toe) * std::cos(camber), std::cos(toe) * std::cos(camber), -std::sin(camber)};
}

Vec3 foot(const Leg& leg) {
  return leg.axle.vec() - (leg.wheel_offset.known() ? leg.wheel_offset.si : 0) * axle_direction(leg);
}

std::optional<std::array<Vec3, 4>> panel(const Door& d, double share) {
  if (!d.hinge_from.known() || !d.hinge_to.known() || !d.width.known() || !d.open_angle.known())
    return std::nullopt;
  const double open = share * d.open_angle;
  const double towards = d.closed_towards < 0 ? -1 : 1;
  const Vec3 across(0, towards * d.width * std::cos(open), -d.width * std::sin(open));
  const Vec3 a = d.hinge_from.vec();
  const Vec3 b = d.hinge_to.vec();
  return std::array<Vec3, 4>{a, b, b + across, a + across};
}

}  // namespace kranich::motion
