// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/doors/hold.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/base/numerics.h"
#include "core/base/quantity.h"

namespace kranich::doors {
namespace {

using Vec2d = Eigen::Vector2d;

double sense(const HeldDoor& d) { return d.counter_clockwise ? 1 : -1; }
Vec2d direction(const HeldDoor& d, double angle) {
  const double a = d.closed + sense(d) * angle;
  return {std::cos(a), std::sin(a)};
}
//! Square to the panel, the way it opens.
Vec2d towards_open(const HeldDoor& d, double angle) {
  const Vec2d e = direction(d, angle);
  return sense(d) * Vec2d(-e.y(), e.x());
}
Vec2d point(const HeldDoor& d, double angle) {
  return d.spring->along * direction(d, angle) + d.spring->offset * towards_open(d, angle);
}
//! How the spring's length goes with the angle.
double stretch_rate(const HeldDoor& d, double angle) {
  const Vec2d p = point(d, angle);
  const Vec2d way = sense(d) * Vec2d(-p.y(), p.x());
  return (p - d.spring->anchor).normalized().dot(way);
}

std::vector<double> zeros(double from, double to, const Function& f) {
  std::vector<double> list;
  constexpr int steps = 720;
  double before = f(from);
  for (int i = 1; i <= steps; ++i) {
    const double a = from + (to - from) * (i - 1) / steps;
    const double b = from + (to - from) * i / steps;
    const double now = f(b);
    if (before == 0)
      list.push_back(a);
    else if (before * now < 0)
      list.push_back(*find_root(f, a, b));
    before = now;
  }
  return list;
}

}  // namespace

double HeldDoor::closing(double angle) const {
  // Gravity pulls along −second: closing is how the potential energy rises as it opens.
  const double weight = mass * standard_gravity * cg_along * towards_open(*this, angle).y();
  const double air = density * speed * speed / 2 * area * chord / 2 * normal_coefficient * std::sin(angle);
  return weight + air + hinge_stiffness * angle;
}

double HeldDoor::spring_torque(double angle) const {
  if (!spring) return 0;
  const double length = (point(*this, angle) - spring->anchor).norm();
  const double force = std::max(0.0, spring->initial_force + spring->rate * (length - spring->free_length));
  return -force * stretch_rate(*this, angle);
}

double HeldDoor::holding(double angle) const {
  const bool at_stop = angle >= open - 1e-9;
  return spring_torque(angle) +
         (servo_torque > 0 ? servo_torque * (servo_ratio ? servo_ratio(angle) : 1) : 0) +
         (at_stop ? magnet_force * magnet_along : 0);
}

HoldFigures hold_figures(const HeldDoor& d, double from) {
  HoldFigures f{};
  const auto spare = [&](double a) { return d.holding(a) - reserve * std::max(0.0, d.closing(a)); };
  // A magnet holds at the stop alone: it makes no crossing on the way.
  const double last = d.open - (d.magnet_force > 0 ? 1e-8 : 0);
  f.crossings = zeros(from, last, spare);
  if (d.spring) f.arm_lost = zeros(from, d.open, [&](double a) { return stretch_rate(d, a); });
  f.held_open = spare(d.open) >= 0;
  f.largest_spring_torque = -std::numeric_limits<double>::infinity();
  f.worst = std::numeric_limits<double>::infinity();
  constexpr int steps = 400;
  for (int i = 0; i <= steps; ++i) {
    const double a = from + (d.open - from) * i / steps;
    if (const double t = d.spring_torque(a); t > f.largest_spring_torque) {
      f.largest_spring_torque = t;
      f.at = a;
    }
    if (const double s = spare(a); s < f.worst) {
      f.worst = s;
      f.worst_at = a;
    }
  }
  const double step = (d.open - from) / steps;
  const auto peak = find_minimum([&](double a) { return -d.spring_torque(a); }, std::max(from, f.at - step),
                                 std::min(d.open, f.at + step));
  if (-peak.value > f.largest_spring_torque) {
    f.largest_spring_torque = -peak.value;
    f.at = peak.at;
  }
  return f;
}

std::optional<double> spring_place(const HeldDoor& door) {
  if (!door.spring) return std::nullopt;
  HeldDoor d = door;
  const double reach = std::max(door.chord, std::abs(door.spring->along));
  const auto spare = [&](double along) {
    d.spring->along = along;
    return d.holding(d.open) - reserve * std::max(0.0, d.closing(d.open));
  };
  if (spare(door.spring->along) >= 0) return door.spring->along;
  constexpr int steps = 200;
  for (int i = 1; i <= steps; ++i)
    for (const double side : {1.0, -1.0}) {
      const double far = door.spring->along + side * reach * i / steps;
      if (far < 0 || far > reach || spare(far) < 0) continue;
      return begins_to_hold([&](double along) { return spare(along) >= 0; },
                            door.spring->along + side * reach * (i - 1) / steps, far);
    }
  return std::nullopt;
}

}  // namespace kranich::doors
