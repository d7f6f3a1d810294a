// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/steer/steering.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

#include "core/base/quantity.h"
#include "core/drive/load.h"
#include "core/model/lacking.h"
#include "core/motion/linkage.h"
#include "core/motion/retract.h"
#include "core/motion/suspend.h"

namespace kranich::steer {

std::optional<motion::Axis> steering_axis(const Leg& leg) {
  const Vec3 foot = motion::foot(leg);
  const Vec3 up = (leg.held_at() - foot).normalized();
  if (!foot.allFinite() || !up.allFinite()) return std::nullopt;
  return motion::Axis{foot, up};
}

Trail trail(const motion::Axis& axis, const Vec3& axle, double radius, double pitch) {
  const Vec3 up(-std::sin(pitch), 0, std::cos(pitch));
  const Vec3 aft(std::cos(pitch), 0, std::sin(pitch));
  const Vec3 contact = axle - radius * up;
  const Vec3 ground = axis.point + (contact - axis.point).dot(up) / axis.direction.dot(up) * axis.direction;
  return {contact, ground, (contact - ground).dot(aft)};
}

std::optional<Turning> turning_of(const Design& d, const Leg& leg) {
  const Leg& main = d.gear.main();
  const auto axis = steering_axis(leg);
  if (!axis || !(leg.steering.angle < radians(89)) || !leg.axle.known() || !main.axle.known())
    return std::nullopt;
  return Turning{std::abs(main.axle.x - leg.axle.x),
                 2 * std::abs(main.axle.y),
                 d.airframe.wing.span.known() ? d.airframe.wing.span.si : 0,
                 0,
                 leg.steering.angle,
                 std::atan2(std::abs(axis->direction.x()), axis->direction.z())};
}

std::optional<double> turn_by_springing(const Leg& leg) {
  const Steering& s = leg.steering;
  const auto axis = steering_axis(leg);
  if (s.kind != SteeringKind::rod || !axis || !s.rod_airframe.known() || !s.rod_leg.known() ||
      !(leg.travel > 0))
    return std::nullopt;
  const Vec3 fixed = s.rod_airframe.vec();
  const Vec3 arm = s.rod_leg.vec();
  const motion::HeldRod rod(*axis, arm, fixed);
  const auto hinge = motion::hinge_axis(leg);
  constexpr int steps = 64;
  double most = 0;
  // Seen from the leg, the rod's fixed end moves.
  const auto see = [&](const Vec3& seen) {
    const double turn = rod.turn(seen);
    most = std::isnan(turn) || std::isnan(most) ? std::numeric_limits<double>::quiet_NaN()
                                                : std::max(most, std::abs(turn));
  };
  if (!hinge) {
    for (int i = 1; i <= steps; ++i) see(fixed - leg.travel * i / steps * axis->direction);
    return most;
  }
  // Up by the travel at the axle, whichever way that turns it.
  const Vec3 axle = leg.axle.vec();
  const double sign = (hinge->turn(1e-3) * axle).z() > axle.z() ? 1 : -1;
  for (int i = 1; i <= 16 * steps; ++i) {
    const double turn = sign * i / (16.0 * steps);
    if ((hinge->turn(turn) * axle).z() - axle.z() > leg.travel) break;
    see(hinge->turn(turn).inverse() * fixed);
  }
  return most;
}

double FoldingRod::length(double turn) const { return (moves.pose(carried, turn) * arm - airframe).norm(); }

double FoldingRod::wheel_turn(double turn) const {
  // Seen from the leg, the airframe's end moves.
  const Vec3 seen = moves.pose(carried, turn).inverse() * airframe;
  return motion::HeldRod(axis, arm, airframe).turn(seen);
}

std::variant<FoldingRod, Text> folding_rod(const Leg& leg) {
  Lacking lacks(leg_root(leg.id));
  lacks.place(leg.steering.rod_airframe, "steering/rod_airframe", "the rod's end at the servo")
      .place(leg.steering.rod_leg, "steering/rod_leg", "the rod's end on the leg");
  const auto axis = steering_axis(leg);
  const auto moves = motion::retracting(leg);
  if (!moves) motion::note_motion(lacks, leg);
  if (lacks.nothing()) lacks.that(!axis, "the leg's line");
  if (!lacks.nothing() || !moves) return lacks.nothing() ? Text("a leg that retracts") : lacks.text();
  const Vec3 arm = leg.steering.rod_leg.vec();
  return FoldingRod{*moves, motion::carried_at(leg, arm), *axis, leg.steering.rod_airframe.vec(), arm};
}

FoldFigures fold_figures(const FoldingRod& rod) {
  const double full = rod.moves.full_turn;
  const double down = rod.length(0);
  FoldFigures f;
  f.closes = down - drive::least_over(full, [&](double t) { return rod.length(t); }).value;
  f.opens = drive::largest_over(full, [&](double t) { return rod.length(t); }).value - down;
  constexpr int steps = 180;
  for (int i = 0; i <= steps; ++i) {
    f.locks_at = full * i / steps;
    if (std::isfinite(rod.wheel_turn(f.locks_at))) continue;
    f.turns = std::numeric_limits<double>::quiet_NaN();
    return f;
  }
  f.turns = drive::largest_over(full, [&](double t) { return std::abs(rod.wheel_turn(t)); }).value;
  return f;
}

double off_square(const motion::Axis& axis, const Vec3& arm_end, const Vec3& rod_end) {
  const Vec3 out = arm_end - axis.point;
  const Vec3 arm = out - out.dot(axis.direction) * axis.direction;
  const Vec3 rod = (rod_end - arm_end).normalized();
  return std::asin(std::min(1.0, std::abs(rod.dot(arm.normalized()))));
}

double scrub_moment(double load, double patch, double friction) {
  return 2.0 / 3 * friction * load * std::sqrt(patch / std::numbers::pi);
}

double deceleration(const Braking& b) {
  // Moments about the third wheel: the weight's, and what slowing it at its height shifts to the mains (tail
  // wheel) or from them (nose wheel).
  const double share = 1 - b.cg / b.wheelbase;
  const double shift = b.friction * b.height / b.wheelbase;
  if (!b.tail) return b.friction * share / (1 + shift);
  const double braked =
      shift < 1 ? b.friction * share / (1 - shift) : std::numeric_limits<double>::infinity();
  // With the tail light: all of it on the mains, and no more than the CG is behind them for its height.
  return std::min({braked, b.friction, b.cg / b.height});
}

double skid_deceleration(const Braking& b) {
  const double share = b.cg / b.wheelbase;
  return b.friction * share / (1 + b.friction * b.height / b.wheelbase);
}

}  // namespace kranich::steer
