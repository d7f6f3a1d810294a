// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/swing/cutout.h"

#include <algorithm>
#include <boost/geometry.hpp>
#include <boost/geometry/geometries/multi_polygon.hpp>
#include <boost/geometry/geometries/point_xy.hpp>
#include <boost/geometry/geometries/polygon.hpp>
#include <cmath>
#include <limits>
#include <numbers>

#include "core/base/numerics.h"
#include "core/base/quantity.h"

namespace kranich::swing {
namespace {

namespace bg = boost::geometry;
using Flat = bg::model::d2::point_xy<double>;
using Polygon = bg::model::polygon<Flat>;
using Many = bg::model::multi_polygon<Polygon>;
using Vec2d = Eigen::Vector2d;

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

//! Where a solid reaches furthest along a direction (any length), and how far that is: n·p, and p's height,
//! any of them where several are.
struct Furthest {
  double reach, z;
};
Furthest furthest(const RoundedWheel& w, const Vec3& n) {
  const double r = std::min({w.shoulder, w.width / 2, w.diameter / 2});
  const double along = n.dot(w.axle);
  const Vec3 across = n - along * w.axle;
  const double square = across.norm();
  const double radius = w.diameter / 2 - r;
  const double half = w.width / 2 - r;
  const double height = w.centre.z() + (square > 0 ? radius * across.z() / square : 0) +
                        std::copysign(half, along) * w.axle.z() + r * n.z() / n.norm();
  return {n.dot(w.centre) + radius * square + half * std::abs(along) + r * n.norm(), height};
}
Furthest furthest(const Capsule& c, const Vec3& n) {
  const Vec3& end = n.dot(c.to) > n.dot(c.from) ? c.to : c.from;
  return {n.dot(end) + c.radius * n.norm(), end.z() + c.radius * n.z() / n.norm()};
}
//! Which way the straight sides of its sections lie, square to this.
Vec3 straight_along(const RoundedWheel& w) { return w.axle; }
Vec3 straight_along(const Capsule& c) { return c.to - c.from; }

//! What of a solid is meant: its section with the plane, or all of it above.
enum class Of { plane, above };

template <class Solid>
bool none_of(const Solid& s, double z, Of what) {
  return z >= furthest(s, Vec3(0, 0, 1)).reach ||
         (what == Of::plane && -z >= furthest(s, Vec3(0, 0, -1)).reach);
}

//! How far it goes along a level direction d. In the plane: to the least over λ of h(d + λ·ẑ) − λ·z, h the
//! solid's support function; there the furthest point passes the plane, which is found by halving, since it
//! only rises with λ. Above: as far as the whole solid where its furthest point lies above, else as in the
//! plane.
template <class Solid>
double level_reach(const Solid& s, const Vec2d& d, double z, Of what) {
  if (what == Of::above)
    if (const Furthest whole = furthest(s, {d.x(), d.y(), 0}); whole.z >= z) return whole.reach;
  const auto at = [&](double tilt) {
    return furthest(s, {std::cos(tilt) * d.x(), std::cos(tilt) * d.y(), std::sin(tilt)});
  };
  const double steep = std::numbers::pi / 2;
  const double tilt = begins_to_hold([&](double t) { return at(t).z >= z; }, -steep, steep);
  return (at(tilt).reach - std::sin(tilt) * z) / std::max(std::cos(tilt), 1e-7);
}

//! The polygon that the lines at which it ends enclose, along 48 directions and along x and y: it holds what
//! is meant, a line lies along each side that is straight, and it is as long and as wide as what it holds.
template <class Solid>
Outline outline_of(const Solid& s, double z, Of what) {
  if (none_of(s, z, what)) return {};
  constexpr int sides = 48;
  const Vec3 aligned = straight_along(s);
  const double start = std::atan2(aligned.y(), aligned.x());
  std::vector<double> angles;
  for (int i = 0; i < sides; ++i)
    angles.push_back(std::remainder(start + 2 * std::numbers::pi * i / sides, 2 * std::numbers::pi));
  for (int i = -1; i <= 2; ++i) angles.push_back(i * std::numbers::pi / 2);
  std::sort(angles.begin(), angles.end());
  // Two lines all but parallel meet anywhere.
  angles.erase(
      std::unique(angles.begin(), angles.end(), [](double a, double b) { return b - a < radians(0.1); }),
      angles.end());
  const size_t count = angles.size();
  std::vector<double> reach(count);
  std::vector<Vec2d> way(count);
  for (size_t i = 0; i < count; ++i) {
    way[i] = {std::cos(angles[i]), std::sin(angles[i])};
    reach[i] = level_reach(s, way[i], z, what);
  }
  Outline out;
  for (size_t i = 0; i < count; ++i) {
    const size_t next = (i + 1) % count;
    const double det = way[i].x() * way[next].y() - way[i].y() * way[next].x();
    out.emplace_back((reach[i] * way[next].y() - reach[next] * way[i].y()) / det,
                     (way[i].x() * reach[next] - way[next].x() * reach[i]) / det);
  }
  return hull_of(out);
}

//! Does something with every part as it lies at each of so many turns.
template <class F>
void on_the_way(const MovingLeg& leg, int count, F&& each) {
  for (const MovingPart& part : leg.parts)
    for (int i = 0; i <= count; ++i) {
      const double turn = leg.moves.full_turn * i / count;
      if (std::holds_alternative<RoundedWheel>(part.solid))
        each(i, wheel_at(leg.moves, part, turn));
      else
        each(i, capsule_at(leg.moves, part, turn));
    }
}
constexpr int looks = 120;

//! What is grown by: the clearance wanted, none where it is not said.
double margin_of(const Leg& leg) {
  const Given& wanted = leg.retraction.well.clearance;
  return wanted.known() ? wanted.si : 0;
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

CutOut swept(const MovingLeg& leg, double z, double margin, Of what) {
  std::vector<Many> steps;
  Outline before;
  on_the_way(leg, looks, [&](int i, const auto& solid) {
    if (i == 0) before.clear();  // the next part
    const Outline now = outline_of(solid, z, what);
    // Between two turns it passes from one outline to the next: their hull, which leaves no teeth.
    Outline both = now;
    both.insert(both.end(), before.begin(), before.end());
    if (const Outline hull = hull_of(both); !hull.empty() && !now.empty())
      steps.push_back({polygon_of(hull)});
    before = now;
  });
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

Outline section_at(const RoundedWheel& wheel, double z) { return outline_of(wheel, z, Of::plane); }
Outline section_at(const Capsule& capsule, double z) { return outline_of(capsule, z, Of::plane); }

CutOut cut_out(const MovingLeg& leg, double z, double margin) { return swept(leg, z, margin, Of::plane); }
CutOut bay_outline(const MovingLeg& leg, double z, double margin) { return swept(leg, z, margin, Of::above); }

double bay_depth(const MovingLeg& leg, double z) {
  double highest = z;
  on_the_way(leg, looks, [&](int, const auto& solid) {
    highest = std::max(highest, furthest(solid, Vec3(0, 0, 1)).reach);
  });
  return highest - z;
}

std::optional<Vec2d> hole_in(const Leg& leg, double z) {
  const auto made = moving_leg(leg);
  const auto* moving = std::get_if<MovingLeg>(&made);
  if (!moving) return std::nullopt;
  constexpr double nowhere = -std::numeric_limits<double>::infinity();
  double aft = nowhere;
  double forward = nowhere;
  double starboard = nowhere;
  double port = nowhere;
  on_the_way(*moving, looks, [&](int, const auto& solid) {
    if (none_of(solid, z, Of::plane)) return;
    const auto reach = [&](double x, double y) { return level_reach(solid, {x, y}, z, Of::plane); };
    aft = std::max(aft, reach(1, 0));
    forward = std::max(forward, reach(-1, 0));
    starboard = std::max(starboard, reach(0, 1));
    port = std::max(port, reach(0, -1));
  });
  if (aft == nowhere) return std::nullopt;
  const double margin = margin_of(leg);
  return Vec2d(aft + forward + 2 * margin, starboard + port + 2 * margin);
}

std::variant<LegOutlines, Text> outlines_of(const Leg& leg) {
  const auto made = moving_leg(leg);
  if (const Text* missing = std::get_if<Text>(&made)) return *missing;
  const MovingLeg& moving = std::get<MovingLeg>(made);
  const Retraction& r = leg.retraction;
  const double margin = margin_of(leg);
  LegOutlines out{{}, {}, {}, 0, margin};
  if (r.well.low.z.known()) {
    out.skin = cut_out(moving, r.well.low.z, margin);
    out.bay = bay_outline(moving, r.well.low.z, margin);
    out.depth = bay_depth(moving, r.well.low.z) + margin;
  }
  if (r.floor.known()) out.slot = cut_out(moving, r.floor, margin);
  return out;
}

}  // namespace kranich::swing
