// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motion/retraction.h"

#include <algorithm>
#include <cmath>

#include "core/base/numerics.h"
#include "core/motion/linkage.h"

namespace kranich::motion {
namespace {

//! The airframe's ball as the leg sees it: turned back.
Vec3 seen_from_leg(const Axis& axis, const Vec3& fixed, double turn) { return axis.turn(-turn) * fixed; }

}  // namespace

double Retracting::twist_at(double turn) const {
  if (const double* ratio = std::get_if<double>(&twist)) return *ratio * turn;
  const TwistRod& rod = std::get<TwistRod>(twist);
  const double length = (rod.collar - rod.airframe).norm();
  const double branch = branch_of(rod_turn(line, rod.collar, rod.airframe, length), 0);
  return rod_turn(line, rod.collar, seen_from_leg(axis, rod.airframe, turn), length).at(branch);
}

double Retracting::twist_rate(double turn) const {
  if (const double* ratio = std::get_if<double>(&twist)) return *ratio;
  const TwistRod& rod = std::get<TwistRod>(twist);
  const Vec3 seen = seen_from_leg(axis, rod.airframe, turn);
  const Vec3 turned = line.turn(twist_at(turn)) * rod.collar;
  return rod_turn_rate(line, turned, seen, Vec3::Zero(), -axis.direction.cross(seen - axis.point));
}

double Retracting::stroke_at(double turn) const {
  if (stroke.empty()) return 0;
  if (turn <= stroke.front().first) return stroke.front().second;
  for (size_t i = 1; i < stroke.size(); ++i)
    if (turn <= stroke[i].first) {
      const double t = (turn - stroke[i - 1].first) / (stroke[i].first - stroke[i - 1].first);
      return stroke[i - 1].second + t * (stroke[i].second - stroke[i - 1].second);
    }
  return stroke.back().second;
}

double Retracting::stroke_rate(double turn) const {
  for (size_t i = 1; i < stroke.size(); ++i)
    if (turn >= stroke[i - 1].first && turn <= stroke[i].first)
      return (stroke[i].second - stroke[i - 1].second) / (stroke[i].first - stroke[i - 1].first);
  return 0;
}

Eigen::Isometry3d Retracting::pose(Carried what, double turn) const {
  const Eigen::Isometry3d with_leg = axis.turn(turn);
  if (what == Carried::leg) return with_leg;
  if (lift) return lift->pose(turn);
  return with_leg * line.turn(twist_at(turn)) * Eigen::Translation3d(-stroke_at(turn) * line.direction);
}

Vec3 Retracting::velocity(Carried what, const Vec3& point, double turn) const {
  const Vec3 at = pose(what, turn) * point;
  if (what == Carried::wheel && lift) {
    const Vec3 pin = lift->king_pin_at(turn);
    return axis.direction.cross(pin - axis.point) + lift->carrier_rate(turn) * lift->king_pin.cross(at - pin);
  }
  Vec3 v = axis.direction.cross(at - axis.point);
  if (what == Carried::leg) return v;
  const Eigen::Isometry3d with_leg = axis.turn(turn);
  const Vec3 along = with_leg.linear() * line.direction;
  v += twist_rate(turn) * along.cross(at - with_leg * line.point);
  return v - stroke_rate(turn) * along;
}

double Retracting::torque(Carried what, const Vec3& point, const Vec3& force, double turn) const {
  return force.dot(velocity(what, point, turn));
}

double Retracting::reach(Carried what, const Vec3& centre, double radius) const {
  const auto from = [&](const Vec3& p) {
    const Vec3 d = p - axis.point;
    return (d - axis.direction.dot(d) * axis.direction).norm();
  };
  if (what == Carried::leg || only_turns()) return from(centre) + radius;
  double fastest = 0;
  constexpr int looks = 64;
  for (int i = 0; i <= looks; ++i) {
    const double turn = full_turn * i / looks;
    // A solid turns about its centre by what twists it beside the pivot's own turn; a carrier by its turn
    // alone.
    const double spin = lift ? std::abs(lift->carrier_rate(turn)) : 1 + std::abs(twist_rate(turn));
    fastest = std::max(fastest, velocity(what, centre, turn).norm() + spin * radius);
  }
  return 1.05 * fastest;
}

bool Retracting::only_turns() const {
  const double* ratio = std::get_if<double>(&twist);
  return !lift && ratio && *ratio == 0 && stroke.empty();
}

std::optional<double> Retracting::locks_at() const {
  if (!lift && std::holds_alternative<double>(twist)) return std::nullopt;  // no rod
  const auto locked = [&](double turn) { return !pose(Carried::wheel, turn).matrix().allFinite(); };
  constexpr int looks = 64;
  for (int i = 0; i <= looks; ++i) {
    const double turn = full_turn * i / looks;
    if (locked(turn)) return i == 0 ? 0 : begins_to_hold(locked, full_turn * (i - 1) / looks, turn);
  }
  return std::nullopt;
}

Retracting mirrored(const Retracting& r) {
  Retracting other = r;
  other.axis = mirrored(r.axis);
  // The line is a way, not a turn: its twist goes the other way round, as the mirror image does.
  other.line = {kranich::mirrored(r.line.point), kranich::mirrored(r.line.direction)};
  if (const double* ratio = std::get_if<double>(&r.twist)) {
    other.twist = -*ratio;
  } else {
    const TwistRod& rod = std::get<TwistRod>(r.twist);
    other.twist = TwistRod{kranich::mirrored(rod.airframe), kranich::mirrored(rod.collar)};
  }
  if (r.lift) {
    // The king-pin is a way: its carrier's turn follows from the rod, and goes round the other way by itself.
    other.lift->arms = other.axis;
    for (Vec3* v :
         {&other.lift->arm, &other.lift->king_pin, &other.lift->steering_arm, &other.lift->rod_fixed})
      *v = kranich::mirrored(*v);
  }
  return other;
}

namespace {
Axis king_pin_axis(const LiftAndTurn& l, double turn) { return {l.king_pin_at(turn), l.king_pin}; }
}  // namespace

double LiftAndTurn::carrier_turn(double turn) const {
  // Down, p·cos χ + q·sin χ = c holds at χ = 0: p = c, and the branch through it is the one on q's other
  // side.
  const Vec3 along = steering_arm.dot(king_pin) * king_pin;
  const Vec3 first = steering_arm - along;
  const double q = king_pin.cross(first).dot(rod_fixed - arms.point - arm - along);
  const double branch = q > 0 ? -1 : 1;
  const Axis pin = king_pin_axis(*this, turn);
  return rod_turn(pin, pin.point + steering_arm, rod_fixed, rod_length()).at(branch);
}

double LiftAndTurn::carrier_rate(double turn) const {
  const Axis pin = king_pin_axis(*this, turn);
  const Vec3 ball = pin.turn(carrier_turn(turn)) * (pin.point + steering_arm);
  return rod_turn_rate(pin, ball, rod_fixed, arms.direction.cross(pin.point - arms.point), Vec3::Zero());
}

Eigen::Isometry3d LiftAndTurn::pose(double turn) const {
  const Axis pin = king_pin_axis(*this, turn);
  return pin.turn(carrier_turn(turn)) * Eigen::Translation3d(pin.point - king_pin_at(0));
}

}  // namespace kranich::motion
