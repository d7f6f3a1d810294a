// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/swing/turn_rod.h"

#include <algorithm>
#include <cmath>

#include "core/base/quantity.h"
#include "core/motion/retract.h"

namespace kranich::swing {
namespace {

//! The axis of the circle through three points: its middle and direction. Nothing where they lie in a line.
struct CircleAxis {
  Vec3 middle, direction;
};
std::optional<CircleAxis> axis_through(const Vec3& a, const Vec3& b, const Vec3& c) {
  const Vec3 u = b - a;
  const Vec3 v = c - a;
  const Vec3 n = u.cross(v);
  if (n.norm() < 1e-6 * u.norm() * v.norm() || !(u.norm() > 0) || !(v.norm() > 0)) return std::nullopt;
  const Vec3 to_middle =
      (u.squaredNorm() * v.cross(n) + v.squaredNorm() * n.cross(u)) / (2 * n.squaredNorm());
  return CircleAxis{a + to_middle, n.normalized()};
}

//! What a rod does on the way, or nothing where it locks, turns back, or ends on another branch.
std::optional<TurnRod> tried(const Leg& leg, const TurnWanted& wanted, const Vec3& ball, const Vec3& fixed) {
  Leg with = leg;
  with.retraction.rod_leg.set(ball);
  with.retraction.rod_airframe.set(fixed);
  const auto moves = motion::retracting(with);  // none where it locks
  if (!moves || !moves->lift) return std::nullopt;
  const auto& lift = *moves->lift;
  TurnRod rod{ball, fixed, lift.rod_length(), lift.steering_arm.norm(), 0, lift.carrier_turn(lift.full_turn)};
  // All three places on the branch that the carrier keeps to.
  if (std::abs(rod.turn - wanted.turn) > 1e-6 || std::abs(lift.carrier_turn(wanted.not_before)) > 1e-6)
    return std::nullopt;
  constexpr int steps = 60;
  double furthest = 0;
  const double sense = wanted.turn < 0 ? -1 : 1;
  for (int i = 1; i <= steps; ++i) {
    const double at = lift.full_turn * i / steps;
    const double turned = sense * lift.carrier_turn(at);
    if (at <= wanted.not_before) {
      rod.too_early = std::max(rod.too_early, std::abs(turned));
      continue;
    }
    if (turned < furthest - radians(1)) return std::nullopt;
    furthest = std::max(furthest, turned);
  }
  return rod;
}

}  // namespace

std::vector<TurnRod> rods_for_turn(const Leg& leg, const TurnWanted& wanted, size_t most) {
  std::vector<TurnRod> list;
  const Retraction& r = leg.retraction;
  const auto axis = motion::stowing_axis(leg);
  if (r.motion != LegMotion::lifts_and_turns || !axis || !r.king_pin.known() || !r.rod_leg.known() ||
      !r.unit_angle.known() || !(wanted.not_before > 0) || !(wanted.not_before < r.unit_angle))
    return list;
  const Vec3 arm = r.king_pin.vec() - axis->point;
  const auto king_pin = [&](double turn) -> Vec3 {
    return axis->point + Eigen::AngleAxisd(turn, axis->direction) * arm;
  };
  const auto about = [](double angle) { return Eigen::AngleAxisd(angle, Vec3::UnitZ()); };
  const Vec3 entered = r.rod_leg.vec() - r.king_pin.vec();
  for (const double size : {1.0, 1.5, 0.75})
    for (int clock = 0; clock < 24; ++clock) {
      const Vec3 steering = size * (about(radians(15.0 * clock)) * entered);
      const auto circle = axis_through(king_pin(0) + steering, king_pin(wanted.not_before) + steering,
                                       king_pin(r.unit_angle) + about(wanted.turn) * steering);
      if (!circle) continue;
      // Along the axis: within three arms of its middle.
      std::optional<TurnRod> best;
      constexpr int places = 25;
      for (int i = 0; i < places; ++i) {
        const double along = 3 * arm.norm() * (2.0 * i / (places - 1) - 1);
        const auto rod =
            tried(leg, wanted, king_pin(0) + steering, circle->middle + along * circle->direction);
        if (rod && (!best || rod->too_early < best->too_early)) best = rod;
      }
      if (best) list.push_back(*best);
    }
  std::stable_sort(list.begin(), list.end(),
                   [](const TurnRod& a, const TurnRod& b) { return a.too_early < b.too_early; });
  if (list.size() > most) list.resize(most);
  return list;
}

void take_rod(Leg& leg, const TurnRod& rod) {
  leg.retraction.rod_leg.set(rod.on_carrier);
  leg.retraction.rod_airframe.set(rod.on_airframe);
}

}  // namespace kranich::swing
