// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/swing/locks.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

#include "core/base/quantity.h"
#include "core/motion/retract.h"

namespace kranich::swing {
namespace {

double cross(const Vec2& a, const Vec2& b) { return a.x() * b.y() - a.y() * b.x(); }
Vec2 square(const Vec2& v) { return {-v.y(), v.x()}; }

LatchPin pin_at(const Vec3& point, const Vec3& held, const Vec3& leg) {
  const double down = (point - held).dot(leg.normalized());
  return {down, (point - held - std::clamp(down, 0.0, leg.norm()) * leg.normalized()).norm()};
}

}  // namespace

BraceFigures brace_figures(const FoldingBrace& b) {
  const double span = (b.pin - b.anchor).norm();
  const double cosine =
      (span * span - b.at_anchor * b.at_anchor - b.at_leg * b.at_leg) / (2 * b.at_anchor * b.at_leg);
  const double past = std::abs(cosine) <= 1 ? std::acos(cosine) : std::numeric_limits<double>::quiet_NaN();
  return {past, b.at_anchor * b.at_leg * std::sin(past) / span,
          std::abs(cross(b.pin - b.pivot, (b.anchor - b.pin) / span))};
}

Vec2 knee_of(const FoldingBrace& b) {
  const double span = (b.pin - b.anchor).norm();
  const Vec2 along = (b.pin - b.anchor) / span;
  const double foot = (b.at_anchor * b.at_anchor - b.at_leg * b.at_leg + span * span) / (2 * span);
  return b.anchor + foot * along + brace_figures(b).offset * square(along);
}

BraceUnderLoad brace_under(const FoldingBrace& b, const Vec2& at, const Vec2& load) {
  const Vec2 way = (b.anchor - b.pin).normalized();
  // A brace pressed together pushes the pin away from its anchor.
  const double force = cross(at - b.pivot, load) / cross(b.pin - b.pivot, way);
  const double knee = force * brace_figures(b).offset;
  return {force, knee, knee + b.spring_moment};
}

double force_to_unlock(const FoldingBrace& b, const Vec2& at, const Vec2& load) {
  // The knee, on one side of the line: what follows is the same on the other but for the sign of the turn.
  const Vec2 knee = knee_of(b);
  // The link at the anchor turns by δ towards straight: knee, leg and the other link follow.
  const double towards = -1;  // about +: the knee lies to the left of the line
  const Vec2 knee_goes = towards * square(knee - b.anchor);
  const Vec2 link = (b.pin - knee) / b.at_leg;
  const Vec2 pin_per_turn = square(b.pin - b.pivot);
  const double leg_turns = knee_goes.dot(link) / pin_per_turn.dot(link);
  const double link_turns = (leg_turns * pin_per_turn - knee_goes).dot(square(link)) / b.at_leg;
  const double straightens = std::abs(towards - link_turns);  // of κ, by which the spring is wound
  const double load_helps = load.dot(leg_turns * square(at - b.pivot));
  return (b.spring_moment * straightens - load_helps) / b.at_anchor;
}

double way_past_straight(const FoldingBrace& b, const Vec2& at) {
  const double reach = (b.pin - b.pivot).norm();
  const double apart = (b.anchor - b.pivot).norm();
  const double straight = b.at_anchor + b.at_leg;
  const double cosine = (reach * reach + apart * apart - straight * straight) / (2 * reach * apart);
  if (!(std::abs(cosine) <= 1)) return std::numeric_limits<double>::quiet_NaN();
  const double now = std::atan2(std::abs(cross(b.pin - b.pivot, b.anchor - b.pivot)),
                                (b.pin - b.pivot).dot(b.anchor - b.pivot));
  return 2 * (at - b.pivot).norm() * std::sin(std::abs(std::acos(cosine) - now) / 2);
}

double hook_force(const Uplock& l, const Vec3& up) {
  const Vec3 u = l.axis.direction.normalized();
  const double falls =
      u.dot((l.cg - l.axis.point).cross(-l.mass * l.load_factor * standard_gravity * up.normalized()));
  const double holds = u.dot((l.hook - l.axis.point).cross(l.hook_direction.normalized()));
  return -falls / holds + l.door_force;
}

std::optional<LatchPins> latch_pins(const Leg& leg) {
  const auto moves = motion::retracting(leg);
  const Vec3 held = leg.held_at();
  const Vec3 line = motion::foot(leg) - held;
  if (!moves || !leg.retraction.uplock.hook.known() || !line.allFinite() || !(line.norm() > 0))
    return std::nullopt;
  // The hook stays; seen from the leg as it stands down, it is where the pins are wanted.
  const Vec3 hook = leg.retraction.uplock.hook.vec();
  const Vec3 stowed = moves->pose(motion::Carried::leg, moves->full_turn).inverse() * hook;
  const auto from_axis = [&](const Vec3& p) {
    const Vec3 out = p - moves->axis.point;
    return Vec3((out - out.dot(moves->axis.direction) * moves->axis.direction).normalized());
  };
  const double apart = std::acos(std::clamp(from_axis(stowed).dot(from_axis(hook)), -1.0, 1.0));
  return LatchPins{pin_at(stowed, held, line), pin_at(hook, held, line), apart};
}

}  // namespace kranich::swing
