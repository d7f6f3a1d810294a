// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/swing/axis_choices.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace kranich::swing {
namespace {

Text family_of(const AxisAnswer& answer) {
  switch (answer.family) {
    case AxisFamily::one:
      return {};
    case AxisFamily::by_angle:
      return "the axle keeps its direction: one axis on each side for every unit angle; shown for the one "
             "entered";
    case AxisFamily::none:
      return say(
          "the axle keeps its direction and the wheel would have to move {} along it: no axis does that",
          Amount{std::abs(answer.along_axle), Kind::length});
    case AxisFamily::fan:
      return "every axis square to the wheel's way does it, each with its own unit angle; shown for the one "
             "entered";
    case AxisFamily::in_place:
      return "the wheel's centre stays where it is: axes through it";
  }
  return {};
}

}  // namespace

AxisChoices axis_choices(const Leg& leg, const WheelPose& wanted, double most) {
  AxisChoices out;
  if (!leg.axle.known()) return out;
  const WheelPose down{leg.axle.vec(), motion::axle_direction(leg)};
  const Retraction& r = leg.retraction;
  const Vec3 pivot = leg.held_at().allFinite() ? leg.held_at() : down.centre;
  const auto add = [&](AxisSort sort, Axis axis, double turn, bool reversed, double place, double axle,
                       double sensitivity) {
    if (turn < 0) {
      axis.direction = -axis.direction;
      turn = -turn;
    }
    AxisChoice c{sort, motion::entry_of_axis(axis.direction), turn, {}, reversed, place, axle, sensitivity};
    if (turn < radians(10) || turn > std::numbers::pi) return;
    if (std::abs(c.entry.yaw) > most || std::abs(c.entry.tip) > most) return;
    c.pivot = axis.point + axis.direction.dot(pivot - axis.point) * axis.direction;
    for (const auto& have : out.list)
      if (have.entry.direction == c.entry.direction && std::abs(have.entry.yaw - c.entry.yaw) < 1e-6 &&
          std::abs(have.entry.tip - c.entry.tip) < 1e-6 && std::abs(have.unit_angle - c.unit_angle) < 1e-6 &&
          (have.pivot - c.pivot).norm() < 1e-6)
        return;
    out.list.push_back(std::move(c));
  };
  std::optional<double> unit_angle;
  if (r.unit_angle.known()) unit_angle = r.unit_angle.si;
  for (const bool reversed : {false, true}) {
    const AxisAnswer answer = find_axes(down, wanted, reversed, unit_angle);
    if (out.family.empty()) out.family = family_of(answer);
    for (const FoundAxis& f : answer.axes)
      add(AxisSort::exact, f.axis, f.turn, reversed, 0, 0, f.sensitivity_place * 1e-3);
  }
  const double diameter = leg.wheel.diameter.known() ? leg.wheel.diameter.si : 0;
  for (const Vec3& direction : {Vec3(1, 0, 0), Vec3(0, 1, 0)}) {
    const NearestAxis n = nearest_along(direction, down, wanted, diameter);
    add(AxisSort::plain, n.axis, n.turn, n.reversed, n.place_miss, n.axle_miss, 0);
  }
  if (r.mount_tilt.known() && r.pivot.known()) {
    // The plate slopes by the mount's tilt towards where the leg goes: its normal.
    const Vec3 axis = motion::stowing_direction(r);
    const Vec3 stowed = axis.cross(Vec3(0, 0, -1)).normalized();
    const Vec3 normal = axis.cross(std::cos(r.mount_tilt) * stowed + std::sin(r.mount_tilt) * Vec3::UnitZ());
    const NearestAxis n = nearest_in_plane(normal.normalized(), down, wanted, diameter);
    add(AxisSort::in_mount, n.axis, n.turn, n.reversed, n.place_miss, n.axle_miss, 0);
  }
  const auto miss = [&](const AxisChoice& c) { return std::hypot(c.place_miss, diameter / 2 * c.axle_miss); };
  std::stable_sort(out.list.begin(), out.list.end(),
                   [&](const AxisChoice& a, const AxisChoice& b) { return miss(a) < miss(b); });
  return out;
}

void take_axis(Leg& leg, const AxisChoice& c) {
  Retraction& r = leg.retraction;
  r.direction = c.entry.direction;
  r.axis_yaw = Given(c.entry.yaw);
  r.axis_tip = Given(c.entry.tip);
  r.unit_angle = Given(c.unit_angle);
  r.pivot.set(c.pivot);
}

}  // namespace kranich::swing
