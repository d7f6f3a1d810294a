// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/place/tipping.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

#include "core/base/quantity.h"

namespace kranich::place {
namespace {

double cross(const Vec2& a, const Vec2& b) { return a.x() * b.y() - a.y() * b.x(); }

}  // namespace

std::vector<Vec2> support_polygon(std::vector<Vec2> points) {
  std::sort(points.begin(), points.end(),
            [](const Vec2& a, const Vec2& b) { return a.x() != b.x() ? a.x() < b.x() : a.y() < b.y(); });
  if (points.size() < 3) return points;
  std::vector<Vec2> hull;
  for (int pass = 0; pass < 2; ++pass) {  // lower chain, then upper
    const size_t base = hull.size();
    for (const Vec2& p : points) {
      while (hull.size() >= base + 2 && cross(hull.back() - hull[hull.size() - 2], p - hull.back()) <= 0)
        hull.pop_back();
      hull.push_back(p);
    }
    hull.pop_back();
    std::reverse(points.begin(), points.end());
  }
  return hull;
}

double tipping_in_g(std::span<const Vec2> polygon, const Vec2& cg, double height, const Vec2& direction) {
  double least = std::numeric_limits<double>::infinity();
  for (size_t i = 0; i < polygon.size(); ++i) {
    const Vec2& a = polygon[i];
    const Vec2 edge = polygon[(i + 1) % polygon.size()] - a;
    const Vec2 outward = Vec2(edge.y(), -edge.x()).normalized();
    const double distance = outward.dot(a - cg);  // > 0: inside
    const double along = outward.dot(direction);
    if (distance < 0) return distance / height;
    if (along > 1e-12) least = std::min(least, distance / along / height);
  }
  return least;
}

std::vector<double> tipping_rose(std::span<const Vec2> polygon, const Vec2& cg, double height, int n) {
  std::vector<double> rose;
  rose.reserve(static_cast<size_t>(n));
  for (int i = 0; i < n; ++i) {
    const double a = 2 * std::numbers::pi * i / n;
    rose.push_back(tipping_in_g(polygon, cg, height, Vec2(std::cos(a), std::sin(a))));
  }
  return rose;
}

NearestEdge nearest_edge(std::span<const Vec2> polygon, const Vec2& cg) {
  NearestEdge nearest{Vec2(1, 0), std::numeric_limits<double>::infinity()};
  for (size_t i = 0; i < polygon.size(); ++i) {
    const Vec2& a = polygon[i];
    const Vec2 edge = polygon[(i + 1) % polygon.size()] - a;
    const Vec2 outward = Vec2(edge.y(), -edge.x()).normalized();
    const double distance = outward.dot(a - cg);
    if (distance < nearest.distance) nearest = {outward, distance};
  }
  if (nearest.distance >= 0) return nearest;
  // Outside: the way to the nearest point of the outline, which may be a corner.
  double least = std::numeric_limits<double>::infinity();
  for (size_t i = 0; i < polygon.size(); ++i) {
    const Vec2& a = polygon[i];
    const Vec2 edge = polygon[(i + 1) % polygon.size()] - a;
    const Vec2 away = cg - (a + std::clamp(edge.dot(cg - a) / edge.squaredNorm(), 0.0, 1.0) * edge);
    if (away.norm() < least) {
      least = away.norm();
      nearest = {away / least, -least};
    }
  }
  return nearest;
}

std::optional<OnItsTail> on_its_tail(double mass, const Vec3& cg, const RoundWheel& nose,
                                     const RoundWheel& main, const RoundWheel& tail, const Vec3& ballast) {
  const auto standing = pitch_on(nose, main);
  const auto sitting = pitch_on(main, tail);
  if (!standing || !sitting) return std::nullopt;
  OnItsTail r{};
  r.standing_pitch = *standing;
  // Moments about the mains' contact: the ballast ahead of it against the CG behind it.
  const auto balance = [&](double pitch) {
    return mass * behind_contact(cg, main, pitch) / -behind_contact(ballast, main, pitch);
  };
  if (behind_contact(ballast, main, *standing) >= 0) return std::nullopt;
  r.keeps_down = std::max(0.0, balance(*standing));
  r.brings_down = std::max(0.0, balance(*sitting));
  const double weight = mass * standard_gravity;
  r.stands = behind_contact(cg, main, *standing) <= 0;
  if (r.stands) {
    r.pitch = *standing;
    const double share = third_wheel_share(behind_contact({nose.x, 0, nose.z}, main, r.pitch), 0,
                                           behind_contact(cg, main, r.pitch));
    r.main_load = weight * (1 - share);
    return r;
  }
  r.pitch = *sitting;
  const double share = behind_contact(cg, main, r.pitch) / behind_contact({tail.x, 0, tail.z}, main, r.pitch);
  r.tail_load = weight * share;
  r.main_load = weight - r.tail_load;
  r.nose_gap = height_above_ground({nose.x, 0, nose.z}, main, r.pitch) - nose.radius;
  return r;
}

}  // namespace kranich::place
