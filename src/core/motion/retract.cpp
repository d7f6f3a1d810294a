// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motion/retract.h"

#include <algorithm>
#include <cmath>
#include <string>

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

Vec3 stowing_direction(const Retraction& r) {
  const Vec3 plain = stowing_direction(r.direction);
  // The end that looks forward or outboard goes up with the tip; the axis may point either way along it.
  const Vec3 end = plain.x() != 0 ? Vec3(-1, 0, 0) : Vec3(0, 1, 0);
  const double sign = plain.dot(end);
  const double tip = r.axis_tip.known() ? r.axis_tip.si : 0;
  const double yaw = r.axis_yaw.known() ? r.axis_yaw.si : 0;
  const Vec3 tipped = std::cos(tip) * end + std::sin(tip) * Vec3::UnitZ();
  return sign * (turn_about(Vec3::UnitZ(), yaw) * tipped);
}

AxisEntry entry_of_axis(const Vec3& u) {
  AxisEntry e{};
  const bool along = std::abs(u.x()) >= std::abs(u.y());
  const double sign = along ? (u.x() < 0 ? 1 : -1) : (u.y() > 0 ? 1 : -1);
  const Vec3 end = sign * u;  // towards forward or outboard
  e.direction = along ? (sign > 0 ? SwingDirection::inward : SwingDirection::outward)
                      : (sign > 0 ? SwingDirection::forward : SwingDirection::aft);
  e.tip = std::asin(std::clamp(end.z(), -1.0, 1.0));
  e.yaw = along ? std::atan2(-end.y(), -end.x()) : std::atan2(-end.x(), end.y());
  return e;
}

std::optional<Axis> stowing_axis(const Leg& leg) {
  const Retraction& r = leg.retraction;
  if (!r.fitted || !r.pivot.known()) return std::nullopt;
  return Axis{r.pivot.vec(), stowing_direction(r)};
}

namespace {

void note_numbers(Lacking& lacks, const Leg& leg) {
  const Retraction& r = leg.retraction;
  lacks.place(r.pivot, "retraction/pivot", "the place of the pivot")
      .number(r.unit_angle, "retraction/unit_angle_deg", "the unit angle");
  if (r.motion == LegMotion::twists) lacks.number(r.twist, "retraction/twist_deg", "how far the leg twists");
  if (r.motion == LegMotion::rod_twists || r.motion == LegMotion::lifts_and_turns)
    lacks.place(r.rod_airframe, "retraction/rod_airframe", "the rod's ball on the airframe")
        .place(r.rod_leg, "retraction/rod_leg", "the rod's ball on the leg");
  if (r.motion == LegMotion::lifts_and_turns)
    lacks.place(r.king_pin, "retraction/king_pin", "the carrier's king-pin");
  else if (r.motion != LegMotion::turns || !r.pulled_in.empty())
    lacks.place(leg.axle, "axle", "the place of the axle");
  for (size_t i = 0; i < r.pulled_in.size(); ++i) {
    const std::string path = "retraction/pulled_in/" + std::to_string(i) + "/";
    lacks.number(r.pulled_in[i].turn, path + "turn_deg", "the turn at which the strut is pulled in")
        .number(r.pulled_in[i].stroke, path + "stroke_m", "by how much it is pulled in");
  }
}

//! Of known numbers, whether its rod goes all the way or not.
std::optional<Retracting> as_entered(const Leg& leg) {
  const auto axis = stowing_axis(leg);
  Lacking lacks;
  note_numbers(lacks, leg);
  if (!axis || !lacks.nothing()) return std::nullopt;
  const Retraction& r = leg.retraction;
  Retracting m{};
  m.axis = *axis;
  m.full_turn = r.unit_angle;
  // The leg's own line: its shank where it bends.
  const Vec3 end = !r.bends.empty() && r.bends.front().at.known() ? r.bends.front().at.vec() : foot(leg);
  const Vec3 way = end - axis->point;
  m.line = {axis->point, way.norm() > 0 && way.allFinite() ? Vec3(way.normalized()) : Vec3(0, 0, -1)};
  if (r.motion == LegMotion::twists) m.twist = r.twist.si / r.unit_angle.si;
  if (r.motion == LegMotion::rod_twists) m.twist = TwistRod{r.rod_airframe.vec(), r.rod_leg.vec()};
  if (r.motion == LegMotion::lifts_and_turns) {
    const Vec3 arm = r.king_pin.vec() - axis->point;
    const Vec3 steering_arm = r.rod_leg.vec() - r.king_pin.vec();
    m.lift.emplace(LiftAndTurn{*axis, arm, Vec3::UnitZ(), steering_arm, r.rod_airframe.vec(), m.full_turn});
    return m;
  }
  for (const PulledIn& p : r.pulled_in) m.stroke.emplace_back(p.turn, p.stroke);
  std::sort(m.stroke.begin(), m.stroke.end());
  if (!m.stroke.empty() && m.stroke.front().first > 0) m.stroke.insert(m.stroke.begin(), {0.0, 0.0});
  return m;
}

}  // namespace

std::optional<double> locks_at(const Leg& leg) {
  const auto moves = as_entered(leg);
  return moves ? moves->locks_at() : std::nullopt;
}

void note_motion(Lacking& lacks, const Leg& leg) {
  note_numbers(lacks, leg);
  if (const auto turn = locks_at(leg))
    lacks.that(true, say("a rod that goes all the way: it locks or comes off its balls at {}",
                         Amount{*turn, Kind::angle}));
}

std::optional<Retracting> retracting(const Leg& leg) {
  const auto moves = as_entered(leg);
  return moves && !moves->locks_at() ? moves : std::nullopt;
}

Carried carried_at(const Leg& leg, const Vec3& point) {
  const Retraction& r = leg.retraction;
  if (!r.pivot.known() || !leg.axle.known()) return Carried::leg;
  const Vec3 top = r.pivot.vec();
  const Vec3 joint = r.motion == LegMotion::lifts_and_turns && r.king_pin.known() ? r.king_pin.vec()
                     : !r.bends.empty() && r.bends.front().at.known()             ? r.bends.front().at.vec()
                                                                      : Vec3((top + leg.axle.vec()) / 2);
  return (point - joint).dot(leg.axle.vec() - top) >= -1e-9 ? Carried::wheel : Carried::leg;
}

std::optional<Vec3> swung(const Leg& leg, double share, const Vec3& point, bool port) {
  const auto moves = retracting(leg);
  if (!moves) return std::nullopt;
  const Vec3 here = port ? kranich::mirrored(point) : point;
  const Vec3 there = moves->pose(carried_at(leg, here), share * moves->full_turn) * here;
  return port ? kranich::mirrored(there) : there;
}

Vec3 axle_direction(const Leg& leg) {
  const double camber = leg.camber.known() ? leg.camber.si : 0;
  const double toe = leg.toe.known() ? leg.toe.si : 0;
  return {-std::sin(toe) * std::cos(camber), std::cos(toe) * std::cos(camber), -std::sin(camber)};
}

Vec3 foot(const Leg& leg) { return foot_under(leg, leg.axle.vec(), axle_direction(leg)); }

Vec3 foot_under(const Leg& leg, const Vec3& centre, const Vec3& axle) {
  const Vec3 rolls = (Vec3::UnitX() - axle.x() * axle).normalized();
  return centre - (leg.wheel_offset.known() ? leg.wheel_offset.si : 0) * axle -
         (leg.axle_aft.known() ? leg.axle_aft.si : 0) * rolls;
}

}  // namespace kranich::motion
