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
HeldRod rod_on(const Axis& line, const TwistRod& rod) { return {line, rod.collar, rod.airframe}; }

//! What turns about an axis, and the axis with it by a motion of its own.
Carriage about(const Eigen::Isometry3d& pose, const Vec3& spin, const Vec3& point, const Vec3& moves) {
  return {pose, spin, moves - spin.cross(point)};
}

}  // namespace

double Retracting::twist_at(double turn) const {
  if (const double* ratio = std::get_if<double>(&twist)) return *ratio * turn;
  const TwistRod& rod = std::get<TwistRod>(twist);
  return rod_on(line, rod).turn(seen_from_leg(axis, rod.airframe, turn));
}

double Retracting::twist_rate(double turn) const {
  if (const double* ratio = std::get_if<double>(&twist)) return *ratio;
  const TwistRod& rod = std::get<TwistRod>(twist);
  const Vec3 seen = seen_from_leg(axis, rod.airframe, turn);
  const Vec3 turned = line.turn(rod_on(line, rod).place(seen)) * rod.collar;
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

Carriage Retracting::carriage(Carried what, double turn) const {
  if (what == Carried::wheel && lift) return lift->carriage(turn);
  const Eigen::Isometry3d with_leg = axis.turn(turn);
  Carriage leg = about(with_leg, axis.direction, axis.point, Vec3::Zero());
  if (what == Carried::leg || only_turns()) return leg;
  const Vec3 along = with_leg.linear() * line.direction;
  const Vec3 twists = twist_rate(turn) * along;
  leg.pose = pose(what, turn);
  leg.spin += twists;
  leg.drift -= twists.cross(with_leg * line.point) + stroke_rate(turn) * along;
  return leg;
}

Eigen::Isometry3d Retracting::pose(Carried what, double turn) const {
  if (what == Carried::wheel && lift) return lift->carriage(turn).pose;
  const Eigen::Isometry3d with_leg = axis.turn(turn);
  if (what == Carried::leg || only_turns()) return with_leg;
  return with_leg * line.turn(twist_at(turn)) * Eigen::Translation3d(-stroke_at(turn) * line.direction);
}

Vec3 Retracting::velocity(Carried what, const Vec3& point, double turn) const {
  return carriage(what, turn).velocity(point);
}

double Retracting::torque(Carried what, const Vec3& point, const Vec3& force, double turn) const {
  return force.dot(velocity(what, point, turn));
}

double Retracting::reach(const std::vector<Bound>& bounds) const {
  const auto from_axis = [&](const Vec3& p) {
    const Vec3 d = p - axis.point;
    return (d - axis.direction.dot(d) * axis.direction).norm();
  };
  double furthest = 0;
  bool otherwise = false;
  for (const Bound& b : bounds) {
    if (b.what == Carried::leg || only_turns())
      furthest = std::max(furthest, from_axis(b.centre) + b.radius);
    else
      otherwise = true;
  }
  if (!otherwise) return furthest;
  double fastest = 0;
  constexpr int looks = 64;
  for (int i = 0; i <= looks; ++i) {
    const Carriage now = carriage(Carried::wheel, full_turn * i / looks);
    // A solid turns about its centre by all that turns it.
    const double spin = now.spin.norm();
    for (const Bound& b : bounds)
      if (b.what == Carried::wheel)
        fastest = std::max(fastest, now.velocity(b.centre).norm() + spin * b.radius);
  }
  return std::max(furthest, 1.05 * fastest);
}

bool Retracting::only_turns() const {
  const double* ratio = std::get_if<double>(&twist);
  return !lift && ratio && *ratio == 0 && stroke.empty();
}

std::optional<double> Retracting::locks_at() const {
  if (!lift && std::holds_alternative<double>(twist)) return std::nullopt;  // no rod
  const TwistRod* rod = std::get_if<TwistRod>(&twist);
  const auto locked = [&](double turn) {
    return lift ? !lift->reaches(turn)
                : !rod_on(line, *rod).reaches(seen_from_leg(axis, rod->airframe, turn));
  };
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
//! The rod's ball turns about the king-pin as it stands down; seen from there the airframe's ball goes down
//! as the king-pin goes up.
HeldRod rod_on(const LiftAndTurn& l) {
  const Vec3 pin = l.arms.point + l.arm;
  return {{pin, l.king_pin}, pin + l.steering_arm, l.rod_fixed};
}
}  // namespace

Vec3 LiftAndTurn::king_pin_at(double turn) const { return arms.point + arms.turn(turn).linear() * arm; }

bool LiftAndTurn::reaches(double turn) const {
  return rod_on(*this).reaches(rod_fixed - (king_pin_at(turn) - king_pin_at(0)));
}

double LiftAndTurn::carrier_turn(double turn) const {
  return rod_on(*this).turn(rod_fixed - (king_pin_at(turn) - king_pin_at(0)));
}

double LiftAndTurn::carrier_rate(double turn) const { return carriage(turn).spin.dot(king_pin); }

Carriage LiftAndTurn::carriage(double turn) const {
  const Vec3 down = arms.point + arm;
  const Vec3 at = king_pin_at(turn);
  const Axis pin{at, king_pin};
  const Eigen::Isometry3d turned = pin.turn(rod_on(*this).place(rod_fixed - (at - down)));
  const Vec3 rises = arms.direction.cross(at - arms.point);
  const double rate = rod_turn_rate(pin, turned * (at + steering_arm), rod_fixed, rises, Vec3::Zero());
  return about(turned * Eigen::Translation3d(at - down), rate * king_pin, at, rises);
}

}  // namespace kranich::motion
