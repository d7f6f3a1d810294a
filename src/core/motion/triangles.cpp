// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motion/triangles.h"

#include <algorithm>
#include <cstdint>
#include <map>
#include <unordered_map>

namespace kranich::motion {
namespace {

constexpr size_t in_a_leaf = 4;

std::uint64_t edge_of(int a, int b) {
  const auto [low, high] = std::minmax(a, b);
  return (static_cast<std::uint64_t>(static_cast<std::uint32_t>(low)) << 32) |
         static_cast<std::uint32_t>(high);
}

}  // namespace

Triangles::Triangles(Mesh mesh) : mesh_(std::move(mesh)) {
  std::vector<std::array<int, 3>> faces;
  for (const auto& f : mesh_.faces) {
    const Vec3 &a = corner(f[0]), &b = corner(f[1]), &c = corner(f[2]);
    if ((b - a).cross(c - a).squaredNorm() > 0) faces.push_back(f);
  }
  mesh_.faces = std::move(faces);
  look_at_edges();
  nodes_.reserve(mesh_.faces.size());
  nodes_.emplace_back();
  split(0, 0, mesh_.faces.size());
}

void Triangles::split(size_t node, size_t first, size_t count) {
  constexpr double far = std::numeric_limits<double>::infinity();
  Box round{Vec3::Constant(far), Vec3::Constant(-far)};
  Box middles = round;
  const auto middle = [&](const std::array<int, 3>& f) {
    return Vec3((corner(f[0]) + corner(f[1]) + corner(f[2])) / 3);
  };
  for (size_t i = first; i < first + count; ++i) {
    for (const int p : mesh_.faces[i]) {
      round.low = round.low.cwiseMin(corner(p));
      round.high = round.high.cwiseMax(corner(p));
    }
    const Vec3 m = middle(mesh_.faces[i]);
    middles.low = middles.low.cwiseMin(m);
    middles.high = middles.high.cwiseMax(m);
  }
  if (count <= in_a_leaf) {
    nodes_[node] = {round, first, count};
    return;
  }
  // In two halves, each as many, across the way along which they lie furthest apart.
  int along = 0;
  (middles.high - middles.low).maxCoeff(&along);
  const auto from = mesh_.faces.begin() + static_cast<std::ptrdiff_t>(first);
  const size_t half = count / 2;
  std::nth_element(from, from + static_cast<std::ptrdiff_t>(half), from + static_cast<std::ptrdiff_t>(count),
                   [&](const auto& f, const auto& g) { return middle(f)[along] < middle(g)[along]; });
  const size_t children = nodes_.size();
  nodes_.resize(children + 2);
  nodes_[node] = {round, children, 0};
  split(children, first, half);
  split(children + 1, first + half, count - half);
}

void Triangles::look_at_edges() {
  struct Sides {
    int a, b;
    int count = 0;
    std::array<Vec3, 2> normals;
  };
  const Sides fresh{0, 0, 0, {Vec3::Zero(), Vec3::Zero()}};
  std::unordered_map<std::uint64_t, Sides> edges;
  edges.reserve(mesh_.faces.size() * 2);
  for (const auto& f : mesh_.faces) {
    const Vec3 n = (corner(f[1]) - corner(f[0])).cross(corner(f[2]) - corner(f[0])).normalized();
    for (size_t i = 0; i < 3; ++i) {
      const int a = f[i];
      const int b = f[(i + 1) % 3];
      const auto [at, is_new] = edges.try_emplace(edge_of(a, b), fresh);
      Sides& s = at->second;
      if (is_new) {
        s.a = a;
        s.b = b;
      }
      // A neighbour that runs along the edge the same way has its outside on the other side.
      if (s.count < 2) s.normals[static_cast<size_t>(s.count)] = s.count == 1 && s.a == a ? Vec3(-n) : n;
      ++s.count;
    }
  }
  for (const auto& [key, s] : edges) {
    closed_ = closed_ && s.count == 2;
    for (int axis = 0; axis < 3; ++axis) {
      constexpr double edge_on = 1e-6;
      const bool turns = s.count == 2 && s.normals[0][axis] * s.normals[1][axis] <= 0 &&
                         std::abs(s.normals[0][axis] - s.normals[1][axis]) > edge_on;
      if (s.count != 2 || turns) outlines_[static_cast<size_t>(axis)].emplace_back(corner(s.a), corner(s.b));
    }
  }
}

bool Triangles::holds(const Vec3& p) const {
  if (!closed_ || ((p - bounds().low).array() < 0).any() || ((bounds().high - p).array() < 0).any())
    return false;
  // How often a straight way out passes it; off the axes, where models have their edges. Two of three ways
  // decide, should one graze an edge.
  static const std::array<Vec3, 3> ways{Vec3(0.577, 0.211, 0.789).normalized(),
                                        Vec3(-0.314, 0.859, 0.403).normalized(),
                                        Vec3(0.159, -0.618, -0.771).normalized()};
  const double far = 2 * (bounds().high - bounds().low).norm();
  int says = 0;
  for (const Vec3& way : ways) {
    int passes = 0;
    std::vector<const Node*> left{&nodes_.front()};
    while (!left.empty()) {
      const Node& n = *left.back();
      left.pop_back();
      double enters = 0;
      double leaves = far;
      for (int i = 0; i < 3; ++i) {
        const double one = (n.round.low[i] - p[i]) / way[i];
        const double other = (n.round.high[i] - p[i]) / way[i];
        enters = std::max(enters, std::min(one, other));
        leaves = std::min(leaves, std::max(one, other));
      }
      if (enters > leaves) continue;
      if (n.count == 0) {
        left.push_back(&nodes_[n.first]);
        left.push_back(&nodes_[n.first + 1]);
        continue;
      }
      for (size_t i = n.first; i < n.first + n.count; ++i) {
        const auto& f = mesh_.faces[i];
        const Vec3 ab = corner(f[1]) - corner(f[0]);
        const Vec3 ac = corner(f[2]) - corner(f[0]);
        const Vec3 side = way.cross(ac);
        const double det = ab.dot(side);
        if (det == 0) continue;
        const Vec3 to = p - corner(f[0]);
        const double u = to.dot(side) / det;
        const double v = way.dot(to.cross(ab)) / det;
        if (u >= 0 && v >= 0 && u + v <= 1 && ac.dot(to.cross(ab)) / det > 0) ++passes;
      }
    }
    says += passes % 2;
  }
  return says >= 2;
}

std::vector<std::vector<Eigen::Vector2d>> Triangles::cut_across(double x) const {
  // Each triangle that is cut joins two cut edges; what they join is a line. A corner on the plane counts as
  // behind it.
  std::map<std::uint64_t, std::vector<std::uint64_t>> joins;
  std::map<std::uint64_t, Eigen::Vector2d> places;
  for (const auto& f : mesh_.faces) {
    std::vector<std::uint64_t> cut;
    for (size_t i = 0; i < 3; ++i) {
      const int ends[]{f[i], f[(i + 1) % 3]};
      const Vec3& p = corner(std::min(ends[0], ends[1]));
      const Vec3& q = corner(std::max(ends[0], ends[1]));
      if ((p.x() < x) == (q.x() < x)) continue;
      const Vec3 at = p + (x - p.x()) / (q.x() - p.x()) * (q - p);
      cut.push_back(edge_of(ends[0], ends[1]));
      places.try_emplace(cut.back(), at.y(), at.z());
    }
    if (cut.size() != 2) continue;
    joins[cut[0]].push_back(cut[1]);
    joins[cut[1]].push_back(cut[0]);
  }
  std::vector<std::vector<Eigen::Vector2d>> lines;
  const auto follow = [&](std::uint64_t from) {
    std::vector<Eigen::Vector2d> line;
    for (std::uint64_t at = from;;) {
      line.push_back(places.at(at));
      auto& next = joins[at];
      if (next.empty()) break;
      const std::uint64_t to = next.back();
      next.pop_back();
      auto& back = joins[to];
      if (const auto it = std::find(back.begin(), back.end(), at); it != back.end()) back.erase(it);
      at = to;
    }
    lines.push_back(std::move(line));
  };
  // Open ones from an end first, so that they are one piece; then what goes round.
  for (auto& [edge, others] : joins)
    if (others.size() == 1) follow(edge);
  for (auto& [edge, others] : joins)
    while (!others.empty()) follow(edge);
  return lines;
}

}  // namespace kranich::motion
