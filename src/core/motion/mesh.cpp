// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motion/mesh.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>

namespace kranich::motion {
namespace {

//! A profile (place along the axis, radius) turned about it; its first and last points may lie on the axis or
//! are closed by a flat end.
Mesh turned(const Vec3& centre, const Vec3& axis, const std::vector<std::array<double, 2>>& profile,
            int sides) {
  const Vec3 u = axis.unitOrthogonal();
  const Vec3 v = axis.cross(u);
  Mesh m;
  const auto ring = [&](const std::array<double, 2>& p) {
    const int first = static_cast<int>(m.points.size());
    for (int i = 0; i < sides; ++i) {
      const double a = 2 * std::numbers::pi * i / sides;
      m.points.push_back(centre + p[0] * axis + p[1] * (std::cos(a) * u + std::sin(a) * v));
    }
    return first;
  };
  const auto tip = [&](double along) {
    m.points.push_back(centre + along * axis);
    return static_cast<int>(m.points.size()) - 1;
  };
  int before = -1;
  for (size_t k = 0; k < profile.size(); ++k) {
    if (!(profile[k][1] > 0)) continue;
    const int now = ring(profile[k]);
    for (int i = 0; before >= 0 && i < sides; ++i) {
      const int j = (i + 1) % sides;
      m.faces.push_back({before + i, before + j, now + j});
      m.faces.push_back({before + i, now + j, now + i});
    }
    if (before < 0) {
      const int end = tip(profile.front()[0]);
      for (int i = 0; i < sides; ++i) m.faces.push_back({end, now + (i + 1) % sides, now + i});
    }
    before = now;
  }
  const int end = tip(profile.back()[0]);
  for (int i = 0; before >= 0 && i < sides; ++i)
    m.faces.push_back({end, before + i, before + (i + 1) % sides});
  return m;
}

//! A body of eight corners: four round one end, four round the other, both anticlockwise seen from the second
//! end's side.
Mesh block(const std::array<Vec3, 8>& c) {
  Mesh m;
  m.points.assign(c.begin(), c.end());
  m.faces = {{0, 2, 1}, {0, 3, 2}, {4, 5, 6}, {4, 6, 7}};
  for (int i = 0; i < 4; ++i) {
    const int j = (i + 1) % 4;
    m.faces.push_back({i, j, j + 4});
    m.faces.push_back({i, j + 4, i + 4});
  }
  if (volume(m) < 0)
    for (auto& f : m.faces) std::swap(f[1], f[2]);
  return m;
}

}  // namespace

void Mesh::add(const Mesh& other) {
  const int by = static_cast<int>(points.size());
  points.insert(points.end(), other.points.begin(), other.points.end());
  for (const auto& f : other.faces) faces.push_back({f[0] + by, f[1] + by, f[2] + by});
}

Mesh Mesh::moved(const Eigen::Isometry3d& by) const {
  Mesh m = *this;
  for (Vec3& p : m.points) p = by * p;
  return m;
}

Mesh mirrored(const Mesh& mesh) {
  Mesh m = mesh;
  for (Vec3& p : m.points) p = kranich::mirrored(p);
  for (auto& f : m.faces) std::swap(f[1], f[2]);
  return m;
}

Mesh mesh_of(const Box& b) {
  const auto &l = b.low, &h = b.high;
  return block({Vec3(l.x(), l.y(), l.z()), Vec3(h.x(), l.y(), l.z()), Vec3(h.x(), h.y(), l.z()),
                Vec3(l.x(), h.y(), l.z()), Vec3(l.x(), l.y(), h.z()), Vec3(h.x(), l.y(), h.z()),
                Vec3(h.x(), h.y(), h.z()), Vec3(l.x(), h.y(), h.z())});
}

Mesh mesh_of(const Wedge& w) {
  Mesh m;
  m.points = {w.a, w.b, w.c, w.a + w.along, w.b + w.along, w.c + w.along};
  m.faces = {{0, 2, 1}, {3, 4, 5}};
  for (int i = 0; i < 3; ++i) {
    const int j = (i + 1) % 3;
    m.faces.push_back({i, j, j + 3});
    m.faces.push_back({i, j + 3, i + 3});
  }
  return m;
}

Mesh mesh_of(const Cylinder& c, int sides) {
  return turned(c.centre, c.axis, {{-c.half_length, c.radius}, {c.half_length, c.radius}}, sides);
}

Mesh mesh_of(const Capsule& c, int sides) {
  const double half = (c.to - c.from).norm() / 2;
  const Vec3 axis = half > 0 ? Vec3((c.to - c.from) / (2 * half)) : Vec3(Vec3::UnitZ());
  std::vector<std::array<double, 2>> profile;
  constexpr int rings = 5;
  for (int k = 0; k <= 2 * rings; ++k) {
    const double a = -std::numbers::pi / 2 + std::numbers::pi * k / (2 * rings);
    const double radius = k == 0 || k == 2 * rings ? 0 : c.radius * std::cos(a);
    const double along = c.radius * std::sin(a);
    if (k <= rings) profile.push_back({along - half, radius});
    if (k >= rings) profile.push_back({along + half, radius});
  }
  return turned((c.from + c.to) / 2, axis, profile, sides);
}

Mesh mesh_of(const RoundedWheel& w, int sides) {
  const double r = std::clamp(w.shoulder, 0.0, std::min(w.width, w.diameter) / 2);
  const double flat = w.width / 2 - r, rim = w.diameter / 2 - r;
  std::vector<std::array<double, 2>> profile;
  constexpr int steps = 6;
  for (int side : {-1, 1})
    for (int k = 0; k <= (r > 0 ? steps : 0); ++k) {
      const double a = std::numbers::pi / 2 * (side < 0 ? steps - k : k) / steps;
      // From the flat of the side outward over the shoulder to the tread, then back on the other side.
      profile.push_back({side * (flat + r * (r > 0 ? std::sin(a) : 0)), rim + r * (r > 0 ? std::cos(a) : 0)});
    }
  return turned(w.centre, w.axle, profile, sides);
}

Mesh mesh_of(const DoorPanel& p, double opening) {
  const auto outer = p.corners(opening);
  const Vec3 inward = (outer[3] - outer[0]).cross(outer[1] - outer[0]).normalized();
  // Its thickness lies on the inside, where the leg is: away from the way it opens.
  const Vec3 opens = p.hinge.direction.cross(p.across(opening));
  const Vec3 by = std::max(p.thickness, 1e-3) * (inward.dot(opens) > 0 ? Vec3(-inward) : inward);
  return block(
      {outer[0], outer[1], outer[2], outer[3], outer[0] + by, outer[1] + by, outer[2] + by, outer[3] + by});
}

double volume(const Mesh& m) {
  double six = 0;
  for (const auto& f : m.faces) {
    const auto at = [&](int i) -> const Vec3& {
      return m.points[static_cast<size_t>(f[static_cast<size_t>(i)])];
    };
    six += at(0).dot(at(1).cross(at(2)));
  }
  return six / 6;
}

bool is_closed(const Mesh& m) {
  std::map<std::pair<int, int>, int> edges;
  for (const auto& f : m.faces)
    for (size_t i = 0; i < 3; ++i) ++edges[{f[i], f[(i + 1) % 3]}];
  return !m.faces.empty() && std::all_of(edges.begin(), edges.end(), [&](const auto& e) {
    const auto back = edges.find({e.first.second, e.first.first});
    return e.second == 1 && back != edges.end() && back->second == 1;
  });
}

}  // namespace kranich::motion
