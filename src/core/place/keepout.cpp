// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/place/keepout.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/motion/triangles.h"

namespace kranich::place {
namespace {

constexpr double touch = 1e-9;  // faces that only touch do not overlap
constexpr double infinite = std::numeric_limits<double>::infinity();

//! Nearest stop one way; −1 where there is none.
struct Stop {
  int index = -1;
  double shift = infinite;
};
Stop nearest_stop(const Box& unit, const std::vector<std::optional<Box>>& boxes, int axis, int sign) {
  Stop stop;
  for (size_t i = 0; i < boxes.size(); ++i) {
    if (!boxes[i]) continue;
    const auto range = blocked(unit, *boxes[i], axis);
    if (!range) continue;
    // Inside already: it may not move that way at all.
    const double at = sign > 0 ? range->from : -range->to;
    if ((sign > 0 ? range->to : -range->from) <= touch) continue;  // it lies on the other side
    if (at < stop.shift) stop = {static_cast<int>(i), at};
  }
  return stop;
}

//! Of a point to a box: outside its distance, inside minus the way to the nearest face.
double to_box(const Box& box, const Vec3& p) {
  const Vec3 out = (box.low - p).cwiseMax(p - box.high);
  const double outside = out.cwiseMax(0).norm();
  return outside > 0 ? outside : out.maxCoeff();
}

std::vector<motion::Wedge> wedges_of(const KeepOut& k) {
  const int axis = k.runs == RunsAlong::fore_and_aft ? 0 : k.runs == RunsAlong::athwartships ? 1 : 2;
  const auto from = axis == 0 ? k.low.x : axis == 1 ? k.low.y : k.low.z;
  const auto to = axis == 0 ? k.high.x : axis == 1 ? k.high.y : k.high.z;
  std::vector<Vec3> corners;
  for (const OutlineCorner& c : k.outline) {
    Vec3 p(axis == 0 ? 0 : c.at.x.si, axis == 1 ? 0 : c.at.y.si, axis == 2 ? 0 : c.at.z.si);
    if (!p.allFinite()) return {};
    corners.push_back(p);
  }
  if (!from.known() || !to.known() || from.si == to.si) return {};
  const double low = std::min(from.si, to.si);
  return motion::prism(corners, low * Vec3::Unit(axis), (std::max(from.si, to.si) - low) * Vec3::Unit(axis));
}

}  // namespace

std::optional<Box> box_of(const KeepOut& k) {
  if (k.shape == Shape::plane) return std::nullopt;
  if (k.shape == Shape::prism) {
    std::optional<Box> all;
    for (const auto& w : wedges_of(k)) {
      const Box one = *motion::bounds(motion::Obstacle(w));
      all = all ? Box{all->low.cwiseMin(one.low), all->high.cwiseMax(one.high)} : one;
    }
    return all;
  }
  if (k.shape == Shape::mesh) {
    const auto skin = solids_of(k);
    return skin.empty() ? std::nullopt : motion::bounds(skin.front());
  }
  if (!k.low.known() || !k.high.known()) return std::nullopt;
  const Vec3 a = k.low.vec();
  const Vec3 b = k.high.vec();
  Box box{a.cwiseMin(b), a.cwiseMax(b)};
  if (k.shape == Shape::cylinder) {
    if (!k.radius.known()) return std::nullopt;
    const Vec3 along = (b - a).normalized();
    for (int i = 0; i < 3; ++i) {  // a disc square to `along` reaches r·√(1 − a_i²) in direction i
      const double reach = k.radius * std::sqrt(std::max(0.0, 1 - along[i] * along[i]));
      box.low[i] -= reach;
      box.high[i] += reach;
    }
  }
  return box;
}

std::vector<motion::Obstacle> solids_of(const KeepOut& k) {
  if (k.shape == Shape::prism) {
    const auto wedges = wedges_of(k);
    return {wedges.begin(), wedges.end()};
  }
  if (k.shape == Shape::mesh) {
    if (!k.skin.triangles || !k.low.known()) return {};
    return {motion::SkinAt{k.skin.triangles, k.low.vec()}};
  }
  if (!k.low.known() || !k.high.known()) return {};
  const Vec3 a = k.low.vec();
  const Vec3 b = k.high.vec();
  const double length = (b - a).norm();
  if (k.shape == Shape::box) return {*box_of(k)};
  if (!(length > 0)) return {};
  if (k.shape == Shape::plane) return {motion::HalfSpace{a, (b - a) / length}};
  if (!k.radius.known()) return {};
  return {motion::Cylinder{(a + b) / 2, (b - a) / length, k.radius, length / 2}};
}

std::optional<Box> unit_of(const Leg& leg) {
  const Retraction& r = leg.retraction;
  if (!r.unit_low.known() || !r.unit_high.known()) return std::nullopt;
  const Vec3 at = leg.held_at();
  if (!at.allFinite()) return std::nullopt;
  return Box{at + r.unit_low.vec().cwiseMin(r.unit_high.vec()),
             at + r.unit_low.vec().cwiseMax(r.unit_high.vec())};
}

namespace {

//! Of a box to a wedge: the edges of each to the other, and where a corner of the wedge lies inside.
double apart(const Box& unit, const motion::Wedge& w) {
  double least = infinite;
  const auto corner = [&](int i) {
    return Vec3(i & 1 ? unit.high.x() : unit.low.x(), i & 2 ? unit.high.y() : unit.low.y(),
                i & 4 ? unit.high.z() : unit.low.z());
  };
  for (int i = 0; i < 8; ++i)
    for (const int bit : {1, 2, 4})
      if (!(i & bit))
        least = std::min(
            least,
            motion::nearest(motion::Capsule{corner(i), corner(i | bit), 0}, motion::Obstacle(w)).distance);
  const auto edge = [&](const Vec3& p, const Vec3& q) {
    least = std::min(least, motion::nearest(motion::Capsule{p, q, 0}, motion::Obstacle(unit)).distance);
  };
  for (const Vec3& end : {Vec3(Vec3::Zero()), w.along}) {
    edge(w.a + end, w.b + end);
    edge(w.b + end, w.c + end);
    edge(w.c + end, w.a + end);
  }
  for (const Vec3& p : {w.a, w.b, w.c})
    for (const Vec3& q : {p, Vec3(p + w.along)}) {
      edge(p, q);
      least = std::min(least, to_box(unit, q));
    }
  return least;
}

//! Of a box to a skin; where it runs through it, how far back it must go along the axis on which that is
//! least, the most of all triangles.
double apart(const Box& unit, const motion::SkinAt& s) {
  const Box there{unit.low - s.shift, unit.high - s.shift};
  double least = infinite;
  s.skin->near(there, infinite, [&](const Vec3& p, const Vec3& q, const Vec3& r) {
    least = std::min(least, apart(there, motion::Wedge{p, q, r, Vec3::Zero()}));
    return std::max(0.0, least);
  });
  if (least > 0 && s.skin->holds((there.low + there.high) / 2)) least = -least;
  return least;
}

}  // namespace

std::optional<double> clearance(const Box& unit, const KeepOut& k) {
  if (k.shape == Shape::mesh) {
    const auto skin = solids_of(k);
    if (skin.empty()) return std::nullopt;
    return apart(unit, std::get<motion::SkinAt>(skin.front()));
  }
  if (k.shape == Shape::plane || k.shape == Shape::prism) {
    std::optional<double> least;
    for (const auto& solid : solids_of(k)) {
      const auto* plane = std::get_if<motion::HalfSpace>(&solid);
      const double distance =
          plane ? (plane->normal.cwiseMax(0).dot(unit.low) + plane->normal.cwiseMin(0).dot(unit.high)) -
                      plane->normal.dot(plane->point)
                : apart(unit, std::get<motion::Wedge>(solid));
      least = std::min(least.value_or(infinite), distance);
    }
    return least;
  }
  const auto box = box_of(k);
  if (!box) return std::nullopt;
  const auto to_unit = [&](const Vec3& p) { return to_box(unit, p); };
  if (k.shape == Shape::cylinder) {
    const Vec3 a = k.low.vec();
    const Vec3 b = k.high.vec();
    // Along a straight line the signed distance to a convex body falls and then rises.
    double from = 0;
    double to = 1;
    for (int i = 0; i < 80; ++i) {
      const double left = from + (to - from) / 3;
      const double right = to - (to - from) / 3;
      (to_unit(a + left * (b - a)) < to_unit(a + right * (b - a)) ? to : from) =
          to_unit(a + left * (b - a)) < to_unit(a + right * (b - a)) ? right : left;
    }
    return to_unit(a + (from + to) / 2 * (b - a)) - k.radius;
  }
  const Vec3 apart = (unit.low - box->high).cwiseMax(box->low - unit.high);
  const double outside = apart.cwiseMax(0).norm();
  return outside > 0 ? outside : apart.maxCoeff();
}

std::optional<NearestKeepOut> nearest_keep_out(const Box& unit, const std::vector<KeepOut>& keep_outs) {
  // What stands to starboard has its twin to port: seen from there the unit stands on the other side.
  const Box twin{Vec3(unit.low.x(), -unit.high.y(), unit.low.z()),
                 Vec3(unit.high.x(), -unit.low.y(), unit.high.z())};
  std::optional<NearestKeepOut> nearest;
  for (const auto& k : keep_outs)
    for (const Box& side : {unit, twin})
      if (const auto gap = clearance(side, k); gap && (!nearest || *gap < nearest->distance))
        nearest = NearestKeepOut{*gap, k.name};
  return nearest;
}

std::optional<Interval> blocked(const Box& unit, const Box& k, int axis) {
  for (int i = 0; i < 3; ++i)
    if (i != axis && !(unit.low[i] + touch < k.high[i] && k.low[i] + touch < unit.high[i]))
      return std::nullopt;
  return Interval{k.low[axis] - unit.high[axis], k.high[axis] - unit.low[axis]};
}

Furthest furthest(const Box& unit, const std::vector<KeepOut>& keep_outs, int axis, int sign) {
  std::vector<std::optional<Box>> boxes;
  for (const auto& k : keep_outs) boxes.push_back(box_of(k));
  const Stop stop = nearest_stop(unit, boxes, axis, sign);
  if (stop.index < 0) return {sign * infinite, "", 0, 0};
  const auto at = static_cast<size_t>(stop.index);
  const Box& k = *boxes[at];
  Furthest f{sign * std::max(0.0, stop.shift), keep_outs[at].name, 0, 0};
  const double from_top = unit.high.z() - k.low.z();     // off its top: it passes under
  const double from_bottom = k.high.z() - unit.low.z();  // off its bottom: it passes over
  Box slim = unit;
  if (from_top <= from_bottom) {
    f.shallower = from_top;
    slim.high.z() = k.low.z();
  } else {
    f.shallower = from_bottom;
    slim.low.z() = k.high.z();
  }
  const Stop next = nearest_stop(slim, boxes, axis, sign);
  f.gain = next.index < 0 ? infinite : next.shift - std::max(0.0, stop.shift);
  return f;
}

std::optional<Box> plate_of(const Joint& j) {
  const bool flat = j.kind == JointKind::plate || j.kind == JointKind::block;
  if (!flat || !j.at.known() || !j.length.known() || !j.width.known()) return std::nullopt;
  double high = j.thickness.known() ? j.thickness.si : 0;
  for (const Given* over : {&j.cheeks, &j.box_depth})
    if (over->known()) high = std::max(high, over->si);
  Vec3 low(-j.length / 2, -j.width / 2, 0);
  Vec3 top(j.length / 2, j.width / 2, high);
  if (j.face == JointFace::facing_aft) {
    low = Vec3(-high, -j.length / 2, -j.width / 2);
    top = Vec3(0, j.length / 2, j.width / 2);
  } else if (j.face == JointFace::facing_side) {
    low = Vec3(-j.length / 2, -high, -j.width / 2);
    top = Vec3(j.length / 2, 0, j.width / 2);
  }
  return Box{j.at.vec() + low, j.at.vec() + top};
}

std::optional<WayOut> way_out(const Box& body, const Vec3& way, const std::vector<KeepOut>& keep_outs) {
  std::optional<WayOut> least;
  const auto look = [&](double share) {
    const auto near = nearest_keep_out({body.low + share * way, body.high + share * way}, keep_outs);
    if (near && (!least || near->distance < least->distance))
      least = WayOut{near->distance, share, near->name};
  };
  // As fine as the distance can change by a tenth of a millimetre between two looks, a thousand at most.
  const int looks = static_cast<int>(std::clamp(way.norm() / 2e-4, 1.0, 1000.0));
  for (int i = 0; i <= looks; ++i) look(static_cast<double>(i) / looks);
  return least;
}

}  // namespace kranich::place
