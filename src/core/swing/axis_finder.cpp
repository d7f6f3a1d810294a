// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/swing/axis_finder.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

#include "core/base/numerics.h"

namespace kranich::swing {
namespace {

//! Below these a pose counts as degenerate: as near as a builder could ever set it.
constexpr double same_direction = 1e-9, same_place = 1e-9;

//! Turn about u that carries a into b as far as it can; 0 where both lie along u.
double turn_from(const Vec3& u, const Vec3& a, const Vec3& b) {
  return std::atan2(u.dot(a.cross(b)), a.dot(b) - u.dot(a) * u.dot(b));
}

//! The axis along u that carries the way d by a turn, its point nearest the middle.
Axis through(const Vec3& middle, const Vec3& d, const Vec3& u, double turn) {
  const Vec3 across = d - d.dot(u) * u;
  const double half = std::tan(turn / 2);
  return {std::abs(half) < 1e12 && half != 0 ? Vec3(middle + u.cross(across) / (2 * half)) : middle, u};
}

FoundAxis told_positive(const Vec3& middle, const Vec3& d, Vec3 u, double turn) {
  if (turn < 0) {
    u = -u;
    turn = -turn;
  }
  return {through(middle, d, u, turn), turn, 0, 0};
}

Vec3 square_to(const Vec3& v) {
  const Vec3 other = std::abs(v.normalized().x()) < 0.8 ? Vec3::UnitX() : Vec3::UnitY();
  return v.cross(other).normalized();
}

}  // namespace

AxisAnswer find_axes(const WheelPose& down, const WheelPose& stowed, bool reversed,
                     std::optional<double> unit_angle) {
  AxisAnswer answer;
  const Vec3 a = down.axle.normalized();
  const Vec3 b = (reversed ? -1 : 1) * stowed.axle.normalized();
  const Vec3 d = stowed.centre - down.centre;
  const Vec3 middle = (stowed.centre + down.centre) / 2;
  answer.along_axle = d.dot(a);
  if (!a.allFinite() || !b.allFinite()) {
    answer.family = AxisFamily::none;
    return answer;
  }
  if (d.norm() < same_place) {
    // Through the centre; without a turn of the axle there is nothing to do.
    answer.family = AxisFamily::in_place;
    const Vec3 square = a.cross(b);
    if (square.norm() > same_direction)
      answer.axes.push_back(
          {{down.centre, square.normalized()}, std::acos(std::clamp(a.dot(b), -1.0, 1.0)), 0, 0});
    return answer;
  }
  const Vec3 change = a - b;
  if (change.norm() < same_direction) {
    if (std::abs(answer.along_axle) > same_place * (1 + d.norm())) {
      answer.family = AxisFamily::none;
      return answer;
    }
    answer.family = AxisFamily::by_angle;
    if (unit_angle)
      for (const double turn : {*unit_angle, -*unit_angle})
        answer.axes.push_back(told_positive(middle, d, a, turn));
    return answer;
  }
  const Vec3 u = d.cross(change);
  if (u.norm() < same_direction * d.norm() * change.norm()) {
    // Every direction square to d: the axle turns in the plane of d and itself.
    answer.family = AxisFamily::fan;
    const Vec3 first = a.cross(b).norm() > same_direction ? Vec3(a.cross(b).normalized()) : square_to(d);
    const Vec3 second = d.normalized().cross(first);
    if (!unit_angle) {
      // The one square to both axles: it needs the least turn.
      answer.axes.push_back(told_positive(middle, d, first, turn_from(first, a, b)));
      return answer;
    }
    const auto off = [&](double t) {
      const Vec3 direction = std::cos(t) * first + std::sin(t) * second;
      return std::abs(turn_from(direction, a, b)) - *unit_angle;
    };
    constexpr int steps = 360;
    for (int i = 0; i < steps; ++i) {
      const double from = std::numbers::pi * i / steps;
      const double to = std::numbers::pi * (i + 1) / steps;
      if (off(from) * off(to) > 0) continue;
      const auto t = find_root(off, from, to);
      if (!t || std::abs(off(*t)) > 1e-6) continue;
      const Vec3 direction = std::cos(*t) * first + std::sin(*t) * second;
      answer.axes.push_back(told_positive(middle, d, direction, turn_from(direction, a, b)));
    }
    return answer;
  }
  const Vec3 direction = u.normalized();
  FoundAxis found = told_positive(middle, d, direction, turn_from(direction, a, b));
  // By how much the direction goes when what it is made of does.
  found.sensitivity_place = change.norm() / u.norm();
  found.sensitivity_axle = d.norm() / u.norm();
  answer.axes.push_back(found);
  return answer;
}

double NearestAxis::combined(double diameter) const {
  return std::hypot(place_miss, diameter / 2 * axle_miss);
}

NearestAxis nearest_along(const Vec3& direction, const WheelPose& down, const WheelPose& stowed,
                          bool reversed) {
  const Vec3 u = direction.normalized();
  const Vec3 a = down.axle.normalized();
  const Vec3 b = (reversed ? -1 : 1) * stowed.axle.normalized();
  const Vec3 d = stowed.centre - down.centre;
  const double turn = turn_from(u, a, b);
  const auto angle_to = [&](const Vec3& v) { return std::acos(std::clamp(u.dot(v), -1.0, 1.0)); };
  return {through((stowed.centre + down.centre) / 2, d, u, turn), turn, std::abs(d.dot(u)),
          std::abs(angle_to(a) - angle_to(b)), reversed};
}

NearestAxis nearest_along(const Vec3& direction, const WheelPose& down, const WheelPose& stowed,
                          double diameter) {
  const NearestAxis same = nearest_along(direction, down, stowed, false);
  const NearestAxis other = nearest_along(direction, down, stowed, true);
  return same.combined(diameter) <= other.combined(diameter) ? same : other;
}

NearestAxis nearest_in_plane(const Vec3& normal, const WheelPose& down, const WheelPose& stowed,
                             double diameter) {
  const Vec3 first = square_to(normal);
  const Vec3 second = normal.normalized().cross(first);
  const auto at = [&](double t, bool reversed) {
    return nearest_along(std::cos(t) * first + std::sin(t) * second, down, stowed, reversed);
  };
  std::optional<NearestAxis> best;
  constexpr int steps = 720;
  for (const bool reversed : {false, true})
    for (int i = 0; i < steps; ++i) {
      const double t = std::numbers::pi * i / steps;
      const double step = std::numbers::pi / steps;
      const auto miss = [&](double x) { return at(x, reversed).combined(diameter); };
      if (miss(t) > miss(t - step) || miss(t) > miss(t + step)) continue;
      const NearestAxis here = at(find_minimum(miss, t - step, t + step).at, reversed);
      if (!best || here.combined(diameter) < best->combined(diameter)) best = here;
    }
  if (best->turn < 0) {
    best->axis.direction = -best->axis.direction;
    best->turn = -best->turn;
  }
  return *best;
}

}  // namespace kranich::swing
