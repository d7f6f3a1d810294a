// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/swing/cutout.h"

#include <algorithm>
#include <array>
#include <boost/geometry.hpp>
#include <boost/geometry/geometries/multi_polygon.hpp>
#include <boost/geometry/geometries/point_xy.hpp>
#include <boost/geometry/geometries/polygon.hpp>
#include <cmath>
#include <numbers>

namespace kranich::swing {
namespace {

namespace bg = boost::geometry;
using Flat = bg::model::d2::point_xy<double>;
using Polygon = bg::model::polygon<Flat>;
using Many = bg::model::multi_polygon<Polygon>;
using Vec2d = Eigen::Vector2d;

constexpr int round_points = 40;

Outline hull_of(const Outline& points) {
  if (points.size() < 3) return {};
  bg::model::multi_point<Flat> all;
  for (const auto& p : points) all.emplace_back(p.x(), p.y());
  Polygon hull;
  bg::convex_hull(all, hull);
  Outline out;
  for (const auto& p : hull.outer()) out.emplace_back(p.x(), p.y());
  if (!out.empty()) out.pop_back();  // the first again
  return out.size() < 3 ? Outline{} : out;
}

void add_circle(Outline& onto, const Vec2d& centre, double radius) {
  for (int i = 0; i < round_points; ++i) {
    const double a = 2 * std::numbers::pi * i / round_points;
    onto.push_back(centre + radius * Vec2d(std::cos(a), std::sin(a)));
  }
}

//! Where a solid reaches furthest along a direction (any length), and how far that is.
struct Furthest {
  double reach, z;  //!< n·p, and p's height: any of them where several are
};

//! The section of a convex solid with the plane z. Along a level direction d it reaches to the least over λ
//! of h(d + λ·ẑ) − λ·z, h the solid's support function: there the furthest point passes the plane, which is
//! found by halving, since it only rises with λ. The polygon that those lines enclose holds the section; a
//! line lies along each side that is straight because it is square to `aligned`.
template <class Support>
Outline section_of(const Vec3& aligned, double z, Support&& support) {
  if (z >= support(Vec3(0, 0, 1)).reach || -z >= support(Vec3(0, 0, -1)).reach) return {};
  constexpr int sides = 48;
  const double start = std::atan2(aligned.y(), aligned.x());
  std::array<double, sides> reach;
  std::array<Vec2d, sides> way;
  for (size_t i = 0; i < sides; ++i) {
    const double a = start + 2 * std::numbers::pi * static_cast<double>(i) / sides;
    way[i] = {std::cos(a), std::sin(a)};
    const auto at = [&](double tilt) {
      return support(Vec3(std::cos(tilt) * way[i].x(), std::cos(tilt) * way[i].y(), std::sin(tilt)));
    };
    double low = -std::numbers::pi / 2;
    double high = -low;
    for (int k = 0; k < 44; ++k) {
      const double middle = (low + high) / 2;
      (at(middle).z < z ? low : high) = middle;
    }
    const double tilt = (low + high) / 2;
    reach[i] = (at(tilt).reach - std::sin(tilt) * z) / std::max(std::cos(tilt), 1e-7);
  }
  Outline out;
  for (size_t i = 0; i < sides; ++i) {
    const size_t next = (i + 1) % sides;
    const double det = way[i].x() * way[next].y() - way[i].y() * way[next].x();
    out.emplace_back((reach[i] * way[next].y() - reach[next] * way[i].y()) / det,
                     (way[i].x() * reach[next] - way[next].x() * reach[i]) / det);
  }
  return hull_of(out);
}

//! Stations along the axle with the radius there: rounded at the shoulders.
template <class F>
void along_axle(const RoundedWheel& w, F&& each) {
  const double half = w.width / 2;
  const double r = std::min({w.shoulder, half, w.diameter / 2});
  constexpr int steps = 10;
  for (int i = 0; i <= steps; ++i) {
    const double a = std::numbers::pi / 2 * i / steps;
    const double along = half - r + r * std::sin(a);
    const double radius = w.diameter / 2 - r + r * std::cos(a);
    each(along, radius);
    each(-along, radius);
  }
}

//! Points of a solid's skin: what of it lies above a plane has its hull there and in the section.
Outline skin_above(const RoundedWheel& w, double z) {
  Outline out;
  const Vec3 across = w.axle.unitOrthogonal();
  const Vec3 other = w.axle.cross(across);
  along_axle(w, [&](double along, double radius) {
    for (int i = 0; i < round_points; ++i) {
      const double a = 2 * std::numbers::pi * i / round_points;
      const Vec3 p = w.centre + along * w.axle + radius * (std::cos(a) * across + std::sin(a) * other);
      if (p.z() >= z) out.push_back(p.head<2>());
    }
  });
  return out;
}

Outline skin_above(const Capsule& c, double z) {
  Outline out;
  for (const Vec3& end : {c.from, c.to})
    if (end.z() >= z) {
      add_circle(out, end.head<2>(), c.radius);
    } else if (end.z() + c.radius > z) {
      const double up = z - end.z();
      add_circle(out, end.head<2>(), std::sqrt(c.radius * c.radius - up * up));
    }
  return out;
}

template <class Solid>
Outline shadow_above(const Solid& solid, double z) {
  Outline points = skin_above(solid, z);
  const Outline section = section_at(solid, z);
  points.insert(points.end(), section.begin(), section.end());
  return hull_of(points);
}

Polygon polygon_of(const Outline& outline) {
  Polygon p;
  for (const auto& v : outline) p.outer().emplace_back(v.x(), v.y());
  p.outer().push_back(p.outer().front());
  bg::correct(p);
  return p;
}

//! Unites halves, and halves of these: each outline takes part in few unions.
Many united(std::vector<Many> parts) {
  if (parts.empty()) return {};
  while (parts.size() > 1) {
    std::vector<Many> next;
    for (size_t i = 0; i + 1 < parts.size(); i += 2) {
      Many both;
      bg::union_(parts[i], parts[i + 1], both);
      next.push_back(std::move(both));
    }
    if (parts.size() % 2) next.push_back(std::move(parts.back()));
    parts = std::move(next);
  }
  return parts.front();
}

template <class F>
CutOut swept(const MovingLeg& leg, double margin, F&& outline_of) {
  std::vector<Many> steps;
  constexpr int count = 120;
  for (const MovingPart& part : leg.parts) {
    Outline before;
    for (int i = 0; i <= count; ++i) {
      const double turn = leg.moves.full_turn * i / count;
      const Outline now = std::holds_alternative<RoundedWheel>(part.solid)
                              ? outline_of(wheel_at(leg.moves, part, turn))
                              : outline_of(capsule_at(leg.moves, part, turn));
      // Between two turns it passes from one outline to the next: their hull, which leaves no teeth.
      Outline both = now;
      both.insert(both.end(), before.begin(), before.end());
      if (const Outline hull = hull_of(both); !hull.empty() && !now.empty())
        steps.push_back({polygon_of(hull)});
      before = now;
    }
  }
  Many all = united(std::move(steps));
  if (margin > 0 && !all.empty()) {
    Many grown;
    bg::buffer(all, grown, bg::strategy::buffer::distance_symmetric<double>(margin),
               bg::strategy::buffer::side_straight(), bg::strategy::buffer::join_round(24),
               bg::strategy::buffer::end_round(24), bg::strategy::buffer::point_circle(24));
    all = std::move(grown);
  }
  CutOut out;
  std::sort(all.begin(), all.end(),
            [](const Polygon& a, const Polygon& b) { return bg::area(a) > bg::area(b); });
  bg::model::box<Flat> round;
  for (const Polygon& p : all) {
    Polygon slim;
    bg::simplify(p, slim, 2e-5);
    Outline line;
    for (const auto& v : slim.outer()) line.emplace_back(v.x(), v.y());
    if (line.size() > 1) line.pop_back();
    out.outlines.push_back(std::move(line));
    out.area += bg::area(p);
  }
  if (!all.empty()) {
    bg::envelope(all, round);
    out.length = round.max_corner().x() - round.min_corner().x();
    out.width = round.max_corner().y() - round.min_corner().y();
  }
  return out;
}

}  // namespace

Outline section_at(const RoundedWheel& w, double z) {
  const double r = std::min({w.shoulder, w.width / 2, w.diameter / 2});
  return section_of(w.axle, z, [&](const Vec3& n) {
    const double along = n.dot(w.axle);
    const Vec3 across = n - along * w.axle;
    const double square = across.norm();
    const double radius = w.diameter / 2 - r;
    const double half = w.width / 2 - r;
    const double height = w.centre.z() + (square > 0 ? radius * across.z() / square : 0) +
                          std::copysign(half, along) * w.axle.z() + r * n.z() / n.norm();
    return Furthest{n.dot(w.centre) + radius * square + half * std::abs(along) + r * n.norm(), height};
  });
}

Outline section_at(const Capsule& c, double z) {
  return section_of(c.to - c.from, z, [&](const Vec3& n) {
    const Vec3& end = n.dot(c.to) > n.dot(c.from) ? c.to : c.from;
    return Furthest{n.dot(end) + c.radius * n.norm(), end.z() + c.radius * n.z() / n.norm()};
  });
}

CutOut cut_out(const MovingLeg& leg, double z, double margin) {
  return swept(leg, margin, [z](const auto& solid) { return section_at(solid, z); });
}

CutOut bay_outline(const MovingLeg& leg, double z, double margin) {
  return swept(leg, margin, [z](const auto& solid) { return shadow_above(solid, z); });
}

double bay_depth(const MovingLeg& leg, double z) {
  double highest = z;
  constexpr int count = 200;
  for (const MovingPart& part : leg.parts)
    for (int i = 0; i <= count; ++i) {
      const double turn = leg.moves.full_turn * i / count;
      if (std::holds_alternative<RoundedWheel>(part.solid)) {
        const RoundedWheel w = wheel_at(leg.moves, part, turn);
        highest = std::max(highest, highest_point(w.centre, w.axle, w.diameter, w.width));
      } else {
        const Capsule c = capsule_at(leg.moves, part, turn);
        highest = std::max(highest, std::max(c.from.z(), c.to.z()) + c.radius);
      }
    }
  return highest - z;
}

std::optional<LegOutlines> outlines_of(const Leg& leg) {
  const auto made = moving_leg(leg);
  const auto* moving = std::get_if<MovingLeg>(&made);
  const Retraction& r = leg.retraction;
  if (!moving || !r.well.low.z.known()) return std::nullopt;
  const double margin = r.well.clearance.known() ? r.well.clearance.si : 0;
  LegOutlines out{cut_out(*moving, r.well.low.z, margin), bay_outline(*moving, r.well.low.z, margin), {}, 0};
  if (r.floor.known()) out.slot = cut_out(*moving, r.floor, margin);
  out.depth = bay_depth(*moving, r.well.low.z) + margin;
  return out;
}

}  // namespace kranich::swing
