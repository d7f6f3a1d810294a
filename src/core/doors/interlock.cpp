// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/doors/interlock.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/base/numerics.h"

namespace kranich::doors {
namespace {

using Vec2d = Eigen::Vector2d;

double to_segment(const Vec2d& p, const Vec2d& a, const Vec2d& b) {
  const Vec2d way = b - a;
  const double t = std::clamp((p - a).dot(way) / way.squaredNorm(), 0.0, 1.0);
  return (p - a - t * way).norm();
}

bool cross(const Vec2d& a, const Vec2d& b, const Vec2d& c, const Vec2d& d) {
  const auto side = [](const Vec2d& p, const Vec2d& q, const Vec2d& r) {
    return (q.x() - p.x()) * (r.y() - p.y()) - (q.y() - p.y()) * (r.x() - p.x());
  };
  return side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0;
}

double between_segments(const Vec2d& a, const Vec2d& b, const Vec2d& c, const Vec2d& d) {
  if (cross(a, b, c, d)) return 0;
  return std::min({to_segment(a, c, d), to_segment(b, c, d), to_segment(c, a, b), to_segment(d, a, b)});
}

}  // namespace

double LegAndDoor::clearance(double leg, double door) const {
  const double way = aft ? leg : -leg;
  const Vec2d wheel = pivot + leg_length * Vec2d(std::sin(way), -std::cos(way));
  const double angle = closed + (counter_clockwise ? door : -door);
  const Vec2d edge = hinge + door_length * Vec2d(std::cos(angle), std::sin(angle));
  const double tyre = to_segment(wheel, hinge, edge) - wheel_radius;
  const double strut = between_segments(pivot, wheel, hinge, edge) - leg_radius;
  return std::min(tyre, strut) - half_thickness;
}

Intervals below(const std::function<double(double)>& clearance, double full, double wanted) {
  constexpr int steps = 2000;
  Intervals list;
  const auto spare = [&](double turn) { return clearance(turn) - wanted; };
  bool inside = spare(0) < 0;
  double from = 0;
  for (int i = 1; i <= steps; ++i) {
    const double a = full * (i - 1) / steps;
    const double b = full * i / steps;
    const bool now = spare(b) < 0;
    if (now == inside) continue;
    const double at = begins_to_hold([&](double turn) { return (spare(turn) < 0) == now; }, a, b);
    if (now)
      from = at;
    else
      list.emplace_back(from, at);
    inside = now;
  }
  if (inside) list.emplace_back(from, full);
  return list;
}

Forbidden forbidden(const std::function<double(double, double)>& clearance, double leg_full, double door_full,
                    double wanted) {
  Forbidden f{};
  const auto least_at = [&](double door) {
    constexpr int steps = 300;
    double least = std::numeric_limits<double>::infinity();
    double at = 0;
    for (int i = 0; i <= steps; ++i) {
      const double leg = leg_full * i / steps;
      if (const double c = clearance(leg, door); c < least) {
        least = c;
        at = leg;
      }
    }
    const double step = leg_full / steps;
    const auto fine = find_minimum([&](double leg) { return clearance(leg, door); }, std::max(0.0, at - step),
                                   std::min(leg_full, at + step));
    return std::min(least, fine.value);
  };
  const auto taken = [&](double door) {
    constexpr int steps = 600;
    // Lengths of the turns in the way, each crossing straight between two looks.
    double sum = 0;
    double before = clearance(0, door) - wanted;
    for (int i = 1; i <= steps; ++i) {
      const double now = clearance(leg_full * i / steps, door) - wanted;
      if (before < 0 && now < 0)
        sum += 1;
      else if ((before < 0) != (now < 0))
        sum += std::abs(std::min(before, now)) / std::abs(before - now);
      before = now;
    }
    return sum / steps;
  };
  constexpr int rows = 400;
  double share = 0;
  for (int i = 0; i < rows; ++i) share += taken(door_full * (i + 0.5) / rows);
  f.share = share / rows;
  f.least_open = least_at(door_full);
  // From the open end backwards to the first door that stands in the way.
  f.frees_from = std::nan("");
  if (f.least_open >= wanted) {
    f.frees_from = 0;
    constexpr int steps = 400;
    for (int i = steps - 1; i >= 0; --i) {
      if (least_at(door_full * i / steps) >= wanted) continue;
      f.frees_from = begins_to_hold([&](double door) { return least_at(door) >= wanted; },
                                    door_full * i / steps, door_full * (i + 1) / steps);
      break;
    }
  }
  return f;
}

}  // namespace kranich::doors
