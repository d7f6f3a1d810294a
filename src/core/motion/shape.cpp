// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motion/shape.h"

#include <Eigen/LU>
#include <algorithm>
#include <array>
#include <cmath>

#include "core/motion/triangles.h"

namespace kranich::motion {
namespace {

// --- nearest point of a solid to a point, and its farthest extent along a direction ---

Vec3 project(const Cylinder& c, const Vec3& p) {
  const Vec3 d = p - c.centre;
  const double along = d.dot(c.axis);
  const Vec3 across = d - along * c.axis;
  const double r = across.norm();
  const double scale = r > c.radius ? c.radius / r : 1.0;
  return c.centre + std::clamp(along, -c.half_length, c.half_length) * c.axis + scale * across;
}
Vec3 project(const Segment& s, const Vec3& p) {
  const Vec3 d = s.to - s.from;
  const double l2 = d.squaredNorm();
  const double t = l2 > 0 ? std::clamp((p - s.from).dot(d) / l2, 0.0, 1.0) : 0.0;
  return s.from + t * d;
}
Vec3 project(const Box& b, const Vec3& p) { return p.cwiseMax(b.low).cwiseMin(b.high); }

//! Nearest point of a triangle, as shares of its corners, by the region of its plane that the point lies over
//! (edges, corners, inside).
Vec3 shares_on_triangle(const Vec3& a, const Vec3& b, const Vec3& c, const Vec3& p) {
  const Vec3 ab = b - a;
  const Vec3 ac = c - a;
  const Vec3 ap = p - a;
  const double d1 = ab.dot(ap);
  const double d2 = ac.dot(ap);
  if (d1 <= 0 && d2 <= 0) return {1, 0, 0};
  const Vec3 bp = p - b;
  const double d3 = ab.dot(bp);
  const double d4 = ac.dot(bp);
  if (d3 >= 0 && d4 <= d3) return {0, 1, 0};
  const double vc = d1 * d4 - d3 * d2;
  const double on_ab = d1 / (d1 - d3);
  if (vc <= 0 && d1 >= 0 && d3 <= 0) return {1 - on_ab, on_ab, 0};
  const Vec3 cp = p - c;
  const double d5 = ab.dot(cp);
  const double d6 = ac.dot(cp);
  if (d6 >= 0 && d5 <= d6) return {0, 0, 1};
  const double vb = d5 * d2 - d1 * d6;
  const double on_ac = d2 / (d2 - d6);
  if (vb <= 0 && d2 >= 0 && d6 <= 0) return {1 - on_ac, 0, on_ac};
  const double va = d3 * d6 - d5 * d4;
  const double on_bc = (d4 - d3) / ((d4 - d3) + (d5 - d6));
  if (va <= 0 && d4 - d3 >= 0 && d5 - d6 >= 0) return {0, 1 - on_bc, on_bc};
  const double sum = va + vb + vc;
  return {va / sum, vb / sum, vc / sum};
}
Vec3 on_triangle(const Vec3& a, const Vec3& b, const Vec3& c, const Vec3& p) {
  const Vec3 share = shares_on_triangle(a, b, c, p);
  return share[0] * a + share[1] * b + share[2] * c;
}
Vec3 project(const Wedge& w, const Vec3& p) {
  const double length2 = w.along.squaredNorm();
  const double share = length2 > 0 ? (p - w.a).dot(w.along) / length2 : 0.0;
  const Vec3 flat = p - share * w.along;
  return on_triangle(w.a, w.b, w.c, flat) + std::clamp(share, 0.0, 1.0) * w.along;
}

Vec3 extreme(const Cylinder& c, const Vec3& n) {
  const double along = n.dot(c.axis);
  const Vec3 across = n - along * c.axis;
  const double r = across.norm();
  Vec3 p = c.centre + (along < 0 ? -c.half_length : c.half_length) * c.axis;
  if (r > 1e-12) {
    // Of a direction nearly along the axis what is left across is half rounding: square to the axis once
    // more.
    const Vec3 out = across / r;
    p += c.radius * (out - out.dot(c.axis) * c.axis);
  }
  return p;
}
Vec3 extreme(const Segment& s, const Vec3& n) { return n.dot(s.to - s.from) > 0 ? s.to : s.from; }
Vec3 extreme(const Wedge& w, const Vec3& n) {
  const double a = n.dot(w.a);
  const double b = n.dot(w.b);
  const double c = n.dot(w.c);
  const Vec3& far = a >= b && a >= c ? w.a : b >= c ? w.b : w.c;
  return n.dot(w.along) > 0 ? Vec3(far + w.along) : far;
}
Vec3 extreme(const Box& b, const Vec3& n) {
  return {n.x() > 0 ? b.high.x() : b.low.x(), n.y() > 0 ? b.high.y() : b.low.y(),
          n.z() > 0 ? b.high.z() : b.low.z()};
}

Vec3 middle(const Cylinder& c) { return c.centre; }
Vec3 middle(const Segment& s) { return (s.from + s.to) / 2; }

//! Width of the gap between A and B along n (n from B towards A); negative where they overlap along it.
template <class A, class B>
double gap(const A& a, const B& b, const Vec3& n) {
  return n.dot(extreme(a, Vec3(-n))) - n.dot(extreme(b, n));
}

//! Overlapping: the greatest (least negative) gap over all directions, the shortest way out. It has several
//! peaks – a face, a side, an end –, so that it is climbed from many directions: roughly from all, to the top
//! from the best.
template <class A, class B>
double depth(const A& a, const B& b) {
  struct Way {
    Vec3 n;
    double gap;
  };
  std::array<Way, 40> ways;
  size_t count = 0;
  const auto start = [&](const Vec3& n) {
    if (const double l = n.norm(); l > 1e-12) ways[count++] = {n / l, gap(a, b, Vec3(n / l))};
  };
  const auto climb = [&](Way& way, double from, double to) {
    for (double step = from; step > to; step /= 2)
      for (int tries = 0; tries < 8; ++tries) {
        const Vec3 side = way.n.unitOrthogonal();
        const Vec3 other = way.n.cross(side);
        Way better = way;
        for (const Vec3& d : {side, Vec3(-side), other, Vec3(-other)}) {
          const Vec3 n = (way.n + step * d).normalized();
          if (const double v = gap(a, b, n); v > better.gap + 1e-12) better = {n, v};
        }
        if (better.n == way.n) break;
        way = better;
      }
  };
  for (int x = -1; x <= 1; ++x)
    for (int y = -1; y <= 1; ++y)
      for (int z = -1; z <= 1; ++z) start(Vec3(x, y, z));
  const auto flats_and_side = [&](const Cylinder& c, const Vec3& other) {
    start(c.axis);
    start(-c.axis);
    const Vec3 out = other - c.centre - c.axis.dot(other - c.centre) * c.axis;
    start(out);
    start(-out);
  };
  if constexpr (std::is_same_v<B, Cylinder>) flats_and_side(b, middle(a));
  if constexpr (std::is_same_v<B, Wedge>) {
    const Vec3 square = (b.b - b.a).cross(b.c - b.a);
    for (const Vec3& face : {square, Vec3((b.b - b.a).cross(square)), Vec3((b.c - b.b).cross(square)),
                             Vec3((b.a - b.c).cross(square))}) {
      start(face);
      start(-face);
    }
  }
  if constexpr (std::is_same_v<A, Cylinder>) flats_and_side(a, a.centre);
  for (size_t i = 0; i < count; ++i) climb(ways[i], 0.3, 0.03);
  const size_t best = std::min<size_t>(4, count);
  std::partial_sort(ways.begin(), ways.begin() + static_cast<std::ptrdiff_t>(best),
                    ways.begin() + static_cast<std::ptrdiff_t>(count),
                    [](const Way& x, const Way& y) { return x.gap > y.gap; });
  for (size_t i = 0; i < best; ++i) climb(ways[i], 0.02, 1e-7);
  return std::max_element(ways.begin(), ways.begin() + static_cast<std::ptrdiff_t>(best),
                          [](const Way& x, const Way& y) { return x.gap < y.gap; })
      ->gap;
}

enum class Overlap { deep, told };
//! What an overlap comes to that is only told: below nothing, where no rounding makes it so.
constexpr double overlap_told = -1e-9;

//! What two solids are apart, A − B, as the hull of at most four of its points: the nearest point to nothing
//! is sought with ever better ones (Gilbert, Johnson and Keerthi).
class Difference {
 public:
  Difference(const Vec3& on_a, const Vec3& on_b) { add(on_a, on_b); }

  void add(const Vec3& on_a, const Vec3& on_b) { corners_[count_++] = {on_a - on_b, on_a, on_b, 0}; }
  //! Only what the nearest point lies on is kept. False where nothing itself lies within: they overlap.
  bool keep_nearest() {
    const auto& [a, b, c, d] = corners_;
    switch (count_) {
      case 1:
        keep({0}, Vec3::UnitX());
        return true;
      case 2: {
        const Vec3 way = b.apart - a.apart;
        const double length2 = way.squaredNorm();
        const double t = length2 > 0 ? std::clamp(-a.apart.dot(way) / length2, 0.0, 1.0) : 0.0;
        keep({0, 1}, Vec3(1 - t, t, 0));
        return true;
      }
      case 3:
        keep({0, 1, 2}, shares(0, 1, 2));
        return true;
      default:
        break;
    }
    // Of a tetrahedron the faces that nothing lies outside of, seen from the fourth corner; a flat one has
    // no inside.
    constexpr std::array<std::array<size_t, 4>, 4> faces{
        {{0, 1, 2, 3}, {0, 1, 3, 2}, {0, 2, 3, 1}, {1, 2, 3, 0}}};
    double least = std::numeric_limits<double>::infinity();
    std::array<size_t, 3> on{};
    Vec3 share = Vec3::Zero();
    for (const auto& [i, j, k, other] : faces) {
      const Vec3& p = corners_[i].apart;
      const Vec3 square = (corners_[j].apart - p).cross(corners_[k].apart - p);
      const Vec3 up = corners_[other].apart - p;
      const double inside = square.dot(up);
      const bool flat = std::abs(inside) < 1e-9 * square.norm() * up.norm();
      if (!flat && inside * square.dot(p) < 0) continue;  // nothing and the fourth corner on one side
      const Vec3 x = shares(i, j, k);
      const double off = (x[0] * p + x[1] * corners_[j].apart + x[2] * corners_[k].apart).squaredNorm();
      if (off < least) {
        least = off;
        on = {i, j, k};
        share = x;
      }
    }
    if (!std::isfinite(least)) {
      Mat3 edges;
      edges << b.apart - a.apart, c.apart - a.apart, d.apart - a.apart;
      const Vec3 x = edges.inverse() * -a.apart;
      corners_[0].share = 1 - x.sum();
      for (size_t i = 0; i < 3; ++i) corners_[i + 1].share = x[static_cast<Eigen::Index>(i)];
      return false;
    }
    keep(on, share);
    return true;
  }
  Vec3 on_a() const { return sum(&Corner::on_a); }
  Vec3 on_b() const { return sum(&Corner::on_b); }
  bool full() const { return count_ == 4; }

 private:
  struct Corner {
    Vec3 apart, on_a, on_b;
    double share;
  };
  Vec3 shares(size_t i, size_t j, size_t k) const {
    return shares_on_triangle(corners_[i].apart, corners_[j].apart, corners_[k].apart, Vec3::Zero());
  }
  void keep(const std::array<size_t, 3>& which, const Vec3& share) {
    const auto all = corners_;
    const size_t most = std::min<size_t>(count_, 3);
    count_ = 0;
    for (size_t i = 0; i < most; ++i) {
      if (!(share[static_cast<Eigen::Index>(i)] > 0)) continue;
      corners_[count_] = all[which[i]];
      corners_[count_++].share = share[static_cast<Eigen::Index>(i)];
    }
  }
  Vec3 sum(Vec3 Corner::*of) const {
    Vec3 s = Vec3::Zero();
    for (size_t i = 0; i < count_; ++i) s += corners_[i].share * (corners_[i].*of);
    return s;
  }
  std::array<Corner, 4> corners_;
  size_t count_ = 0;
};

//! Further apart than `enough` a plane between them that proves two thirds of it will do.
template <Overlap how = Overlap::deep, class A, class B>
Nearest between(const A& a, const B& b, double enough = std::numeric_limits<double>::infinity()) {
  Vec3 on_a = project(a, project(b, middle(a)));
  Vec3 on_b = project(b, on_a);
  const auto overlapping = [&] {  // a point that both hold
    return Nearest{how == Overlap::deep ? depth(a, b) : overlap_told, on_a, on_b};
  };
  // To and fro between them is exact at once where a corner or a round side is nearest; where two faces lie
  // nearly along each other it creeps, and the hull of few points takes over.
  constexpr int to_and_fro = 4;
  Difference apart(on_a, on_b);
  double before = std::numeric_limits<double>::infinity();
  double sure = -before;  // no plane between them proves more
  int stands = 0;
  for (int i = 0; i < 200; ++i) {
    const double now = (on_a - on_b).norm();
    if (now < 1e-9) return overlapping();
    const Vec3 n = (on_a - on_b) / now;
    const Vec3 far_a = extreme(a, Vec3(-n));
    const Vec3 far_b = extreme(b, n);
    sure = std::max(sure, n.dot(far_a - far_b));
    if (now - sure < 5e-9) break;
    if (sure > enough && sure > 2 * now / 3) return {sure, on_a, on_b};
    if (i < to_and_fro) {
      on_a = project(a, on_b);
      on_b = project(b, on_a);
      continue;
    }
    if (i == to_and_fro) {
      apart = Difference(on_a, on_b);
    } else if (!(now < before - 1e-14) && ++stands > 6) {
      break;  // as near as rounding lets it come
    }
    before = now;
    if (apart.full()) break;
    apart.add(far_a, far_b);
    const bool outside = apart.keep_nearest();
    on_a = apart.on_a();
    on_b = apart.on_b();
    if (!outside) return overlapping();
  }
  return {(on_a - on_b).norm(), on_a, on_b};
}

//! A straight line's nearest point to a box, in closed form: half the derivative of the distance's square
//! along it, Σ d·(p − clamped p), only rises, straight between where the line passes the planes of the faces.
template <Overlap how = Overlap::deep>
Nearest between(const Segment& a, const Box& b, double = 0) {
  const Vec3 d = a.to - a.from;
  const auto at = [&](double t) { return Vec3(a.from + t * d); };
  const auto rises = [&](double t) {
    const Vec3 p = at(t);
    return d.dot(p - project(b, p));
  };
  double t = 0;
  if (rises(0) < 0) {
    std::array<double, 8> places;
    size_t count = 0;
    places[count++] = 0;
    for (int i = 0; i < 3; ++i)
      for (const double face : {b.low[i], b.high[i]})
        if (const double x = (face - a.from[i]) / d[i]; x > 0 && x < 1) places[count++] = x;
    places[count++] = 1;
    std::sort(places.begin(), places.begin() + static_cast<std::ptrdiff_t>(count));
    t = 1;
    for (size_t i = 1; i < count; ++i) {
      const double after = rises(places[i]);
      if (after < 0) continue;
      const double before = rises(places[i - 1]);
      t = after > before ? places[i - 1] + (places[i] - places[i - 1]) * before / (before - after)
                         : places[i];
      break;
    }
  }
  const Vec3 on_a = at(t);
  const Vec3 on_b = project(b, on_a);
  const double distance = (on_a - on_b).norm();
  if (distance < 1e-9) return {how == Overlap::deep ? depth(a, b) : overlap_told, on_a, on_b};
  return {distance, on_a, on_b};
}

template <Overlap = Overlap::deep, class A>
Nearest between(const A& a, const HalfSpace& h, double = 0) {
  const Vec3 n = h.normal.normalized();
  const Vec3 p = extreme(a, Vec3(-n));
  const double d = n.dot(p - h.point);
  return {d, p, p - d * n};
}

Cylinder seen_from(const SkinAt& s, const Cylinder& c) {
  const Vec3 centre = s.port ? kranich::mirrored(c.centre) : c.centre;
  return {centre - s.shift, s.port ? kranich::mirrored(c.axis) : c.axis, c.radius, c.half_length};
}
Segment seen_from(const SkinAt& s, const Segment& c) {
  if (!s.port) return {c.from - s.shift, c.to - s.shift};
  return {kranich::mirrored(c.from) - s.shift, kranich::mirrored(c.to) - s.shift};
}
Box round(const Cylinder& c);
Box round(const Segment& s) { return {s.from.cwiseMin(s.to), s.from.cwiseMax(s.to)}; }

//! To the nearest triangle. Where it runs through one: how far back it must go, straight out on the side
//! where that is less, the most of all of them; where it lies wholly inside: how far from the skin.
template <Overlap how = Overlap::deep, class A>
Nearest between(const A& part, const SkinAt& s, double enough = std::numeric_limits<double>::infinity()) {
  const A a = seen_from(s, part);
  constexpr double far = std::numeric_limits<double>::infinity();
  Nearest best{far, middle(a), middle(a)};
  s.skin->near(round(a), std::min(far, enough), [&](const Vec3& p, const Vec3& q, const Vec3& r) {
    const Vec3 n = (q - p).cross(r - p).normalized();
    const double above = n.dot(extreme(a, n) - p);
    const double below = -n.dot(extreme(a, Vec3(-n)) - p);
    const bool apart = above < 0 || below < 0;
    // A plane that does not cut it is at least as far as the triangle in it.
    if (apart && -std::min(above, below) >= std::max(0.0, best.distance)) return std::max(0.0, best.distance);
    Nearest here = between<Overlap::told>(a, Wedge{p, q, r, Vec3::Zero()}, enough);
    if (here.distance < 0 && how == Overlap::deep) here.distance = -std::max(1e-9, std::min(above, below));
    if (here.distance < best.distance) best = here;
    return how == Overlap::told && best.distance < 0 ? -1
                                                     : std::clamp(best.distance, 0.0, std::max(0.0, enough));
  });
  if (best.distance > 0 && s.skin->holds(middle(a))) {
    if (!std::isfinite(best.distance)) best.distance = 0;
    best.distance = how == Overlap::deep ? std::min(-1e-9, -best.distance) : overlap_told;
  }
  if (best.distance > enough) best.distance = std::max(enough, gap(round(a), s.skin->bounds()));
  const auto back = [&](const Vec3& p) {
    return s.port ? kranich::mirrored(Vec3(p + s.shift)) : Vec3(p + s.shift);
  };
  return {best.distance, back(best.on_part), back(best.on_obstacle)};
}

//! Grows the part's core by its rounding.
Nearest grown(Nearest core, double radius) {
  const Vec3 d = core.on_obstacle - core.on_part;
  const double n = d.norm();
  if (n > 1e-12) core.on_part += radius / n * (core.distance < 0 ? Vec3(-d) : d);
  core.distance -= radius;
  return core;
}

}  // namespace

bool Box::overlaps(const Box& o) const {
  constexpr double touch = 1e-9;
  return ((low.array() + touch < o.high.array()) && (o.low.array() + touch < high.array())).all();
}

namespace {

//! Half of what a flat-ended cylinder takes up along each axis.
Vec3 reach_of(const Vec3& axis, double radius, double half_length) {
  return radius * (Vec3::Ones() - axis.cwiseAbs2()).cwiseMax(0).cwiseSqrt() + half_length * axis.cwiseAbs();
}

}  // namespace

namespace {
Box round(const Cylinder& c) {
  const Vec3 reach = reach_of(c.axis, c.radius, c.half_length);
  return {c.centre - reach, c.centre + reach};
}
}  // namespace

Box bounds(const RoundedWheel& w) {
  const Vec3 reach = reach_of(w.axle, w.diameter / 2, w.width / 2);
  return {w.centre - reach, w.centre + reach};
}

Box bounds(const Capsule& c) {
  const Vec3 radius = Vec3::Constant(c.radius);
  return {c.from.cwiseMin(c.to) - radius, c.from.cwiseMax(c.to) + radius};
}

std::optional<Box> bounds(const Obstacle& obstacle) {
  if (const Box* b = std::get_if<Box>(&obstacle)) return *b;
  if (const Wedge* w = std::get_if<Wedge>(&obstacle)) {
    const Vec3 low = w->a.cwiseMin(w->b).cwiseMin(w->c);
    const Vec3 high = w->a.cwiseMax(w->b).cwiseMax(w->c);
    return Box{low.cwiseMin(low + w->along), high.cwiseMax(high + w->along)};
  }
  if (const auto* s = std::get_if<SkinAt>(&obstacle)) {
    const Box there{s->skin->bounds().low + s->shift, s->skin->bounds().high + s->shift};
    return s->port ? std::get<Box>(mirrored(Obstacle(there))) : there;
  }
  const auto* c = std::get_if<Cylinder>(&obstacle);
  return c ? std::optional(round(*c)) : std::nullopt;
}

double gap(const Box& a, const Box& b) {
  return (a.low - b.high).cwiseMax(b.low - a.high).cwiseMax(0).norm();
}

std::vector<Wedge> prism(const std::vector<Vec3>& outline, const Vec3& from, const Vec3& along) {
  const double length = along.norm();
  if (outline.size() < 3 || !(length > 0)) return {};
  const Vec3 n = along / length;
  std::vector<Vec3> left;
  for (const Vec3& p : outline) left.push_back(p - n.dot(p - from) * n);
  const auto turns = [&](const Vec3& a, const Vec3& b, const Vec3& c) { return n.dot((b - a).cross(c - b)); };
  double area = 0;
  for (size_t i = 0; i < left.size(); ++i)
    area += n.dot((left[i] - left[0]).cross(left[(i + 1) % left.size()] - left[0]));
  if (area < 0) std::reverse(left.begin(), left.end());
  // Two edges that are not neighbours and cross: what is inside cannot be said.
  const size_t corners = left.size();
  for (size_t i = 0; i < corners; ++i)
    for (size_t k = i + 2; k < corners; ++k) {
      if (i == 0 && k + 1 == corners) continue;
      const Vec3 &a = left[i], &b = left[i + 1], &c = left[k], &d = left[(k + 1) % corners];
      if (turns(a, b, c) * turns(a, b, d) < 0 && turns(c, d, a) * turns(c, d, b) < 0) return {};
    }
  const auto inside = [&](const Vec3& p, const Vec3& a, const Vec3& b, const Vec3& c) {
    return turns(a, b, p) >= 0 && turns(b, c, p) >= 0 && turns(c, a, p) >= 0;
  };
  std::vector<Wedge> wedges;
  // A corner that turns left and holds no other corner in its triangle is cut off, till one triangle is left.
  while (left.size() > 3) {
    const size_t count = left.size();
    bool cut = false;
    for (size_t i = 0; i < count && !cut; ++i) {
      const Vec3& a = left[(i + count - 1) % count];
      const Vec3& b = left[i];
      const Vec3& c = left[(i + 1) % count];
      const double bend = turns(a, b, c);
      bool ear = bend > 0;
      for (size_t k = 0; ear && k < count; ++k)
        if (&left[k] != &a && &left[k] != &b && &left[k] != &c && left[k] != a && left[k] != b &&
            left[k] != c)
          ear = !inside(left[k], a, b, c);
      if (!ear && std::abs(bend) > 1e-15 * area) continue;
      if (ear) wedges.push_back({a, b, c, along});
      left.erase(left.begin() + static_cast<std::ptrdiff_t>(i));
      cut = true;
    }
    if (!cut) return {};
  }
  if (turns(left[0], left[1], left[2]) > 0) wedges.push_back({left[0], left[1], left[2], along});
  return wedges;
}

Obstacle mirrored(const Obstacle& obstacle) {
  using kranich::mirrored;
  if (const Box* b = std::get_if<Box>(&obstacle))
    return Box{{b->low.x(), -b->high.y(), b->low.z()}, {b->high.x(), -b->low.y(), b->high.z()}};
  if (const Cylinder* c = std::get_if<Cylinder>(&obstacle))
    return Cylinder{mirrored(c->centre), mirrored(c->axis), c->radius, c->half_length};
  if (const Wedge* w = std::get_if<Wedge>(&obstacle))
    return Wedge{mirrored(w->a), mirrored(w->b), mirrored(w->c), mirrored(w->along)};
  if (const SkinAt* s = std::get_if<SkinAt>(&obstacle)) return SkinAt{s->skin, s->shift, !s->port};
  const auto& h = std::get<HalfSpace>(obstacle);
  return HalfSpace{mirrored(h.point), mirrored(h.normal)};
}

namespace {
double rounding(const RoundedWheel& w) { return std::min({w.shoulder, w.diameter / 2, w.width / 2}); }
Cylinder core_of(const RoundedWheel& w) {
  const double r = rounding(w);
  return {w.centre, w.axle, w.diameter / 2 - r, w.width / 2 - r};
}
}  // namespace

Nearest nearest(const RoundedWheel& w, const Obstacle& obstacle) {
  const Cylinder core = core_of(w);
  return grown(std::visit([&](const auto& o) { return between(core, o); }, obstacle), rounding(w));
}

double apart(const RoundedWheel& w, const Obstacle& obstacle, double enough) {
  const Cylinder core = core_of(w);
  const double r = rounding(w);
  return std::visit([&](const auto& o) { return between<Overlap::told>(core, o, enough + r).distance; },
                    obstacle) -
         r;
}

double apart(const Capsule& c, const Obstacle& obstacle, double enough) {
  const Segment core{c.from, c.to};
  return std::visit(
             [&](const auto& o) { return between<Overlap::told>(core, o, enough + c.radius).distance; },
             obstacle) -
         c.radius;
}

Nearest nearest(const Capsule& c, const Obstacle& obstacle) {
  const Segment core{c.from, c.to};
  return grown(std::visit([&](const auto& o) { return between(core, o); }, obstacle), c.radius);
}

}  // namespace kranich::motion
