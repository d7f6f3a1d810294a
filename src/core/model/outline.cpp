// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/outline.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace kranich {

using Eigen::Vector2d;

const Given& edge_of(const Section& s, BodyEdge edge) {
  switch (edge) {
    case BodyEdge::top:
      return s.top;
    case BodyEdge::bottom:
      return s.bottom;
    case BodyEdge::half_width:
      return s.half_width;
  }
  return s.top;
}
Given& edge_of(Section& s, BodyEdge edge) { return const_cast<Given&>(edge_of(std::as_const(s), edge)); }

size_t trace_section(Body& body, double x, BodyEdge edge, double value, double snap) {
  auto& list = body.sections;
  size_t nearest = list.size();
  for (size_t i = 0; i < list.size(); ++i)
    if (list[i].x.known() && std::abs(list[i].x - x) <= snap &&
        (nearest == list.size() || std::abs(list[i].x - x) < std::abs(list[nearest].x - x)))
      nearest = i;
  if (nearest < list.size()) {
    edge_of(list[nearest], edge) = Given(value);
    return nearest;
  }
  const auto behind =
      std::find_if(list.begin(), list.end(), [&](const Section& s) { return s.x.known() && s.x > x; });
  Section made;
  made.x = Given(x);
  // Its other edges from its neighbours, which the builder then mends.
  if (behind != list.begin() && behind != list.end()) {
    const Section& before = *(behind - 1);
    for (const BodyEdge other : {BodyEdge::top, BodyEdge::bottom, BodyEdge::half_width}) {
      const Given& a = edge_of(before, other);
      const Given& b = edge_of(*behind, other);
      if (!a.known() || !b.known() || !before.x.known()) continue;
      const double t = (x - before.x) / (behind->x - before.x);
      edge_of(made, other) = Given(a + t * (b - a), Origin::estimated);
    }
  }
  edge_of(made, edge) = Given(value);
  return static_cast<size_t>(list.insert(behind, made) - list.begin());
}

size_t trace_point(std::vector<OutlinePoint>& outline, double x, double z) {
  OutlinePoint made;
  made.x = Given(x);
  made.z = Given(z);
  if (outline.size() < 3) {
    outline.push_back(made);
    return outline.size() - 1;
  }
  const Vector2d p(x, z);
  size_t into = outline.size();
  double least = std::numeric_limits<double>::infinity();
  for (size_t i = 0; i < outline.size(); ++i) {
    const auto& from = outline[i];
    const auto& to = outline[(i + 1) % outline.size()];
    if (!from.x.known() || !from.z.known() || !to.x.known() || !to.z.known()) continue;
    const Vector2d a(from.x, from.z);
    const Vector2d way = Vector2d(to.x, to.z) - a;
    const double t = way.squaredNorm() > 0 ? std::clamp((p - a).dot(way) / way.squaredNorm(), 0.0, 1.0) : 0;
    const double distance = (p - a - t * way).norm();
    if (distance >= least) continue;
    least = distance;
    into = i + 1;
  }
  outline.insert(outline.begin() + static_cast<std::ptrdiff_t>(into), made);
  return into;
}

bool scale_picture(Picture& p, const Vector2d& a, const Vector2d& b, double length) {
  const double now = (b - a).norm();
  if (!(now > 0) || !(length > 0) || !p.left_x.known() || !p.bottom_z.known() || !p.width.known())
    return false;
  const double by = length / now;
  const Vector2d corner = a + by * (Vector2d(p.left_x, p.bottom_z) - a);
  p.left_x = Given(corner.x());
  p.bottom_z = Given(corner.y());
  p.width = Given(by * p.width);
  return true;
}

bool level_picture(Picture& p, const Vector2d& a, const Vector2d& b) {
  const Vector2d way = b - a;
  if (!(way.norm() > 0) || !p.left_x.known() || !p.bottom_z.known()) return false;
  // Which of the two was clicked first does not matter.
  double off = std::atan2(way.y(), way.x());
  if (off > std::numbers::pi / 2) off -= std::numbers::pi;
  if (off <= -std::numbers::pi / 2) off += std::numbers::pi;
  const Vector2d corner = a + Eigen::Rotation2Dd(-off) * (Vector2d(p.left_x, p.bottom_z) - a);
  p.left_x = Given(corner.x());
  p.bottom_z = Given(corner.y());
  p.turned = Given(std::remainder((p.turned.known() ? p.turned.si : 0) - off, 2 * std::numbers::pi));
  return true;
}

}  // namespace kranich
