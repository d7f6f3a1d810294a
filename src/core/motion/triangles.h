// SPDX-License-Identifier: GPL-3.0-or-later
//! A surface of triangles, found quickly by where they lie: the skin of a body that was drawn elsewhere and
//! must not be touched. SI, in axes of its own.
#pragma once

#include <array>
#include <utility>
#include <vector>

#include "core/motion/mesh.h"
#include "core/motion/shape.h"

namespace kranich::motion {

class Triangles {
 public:
  //! Of a mesh of one triangle or more; those without area are left out, and one of them at least has some.
  explicit Triangles(Mesh mesh);

  const Mesh& mesh() const { return mesh_; }
  const Box& bounds() const { return nodes_.front().round; }
  //! Every edge belongs to two of them, so that there is an inside.
  bool closed() const { return closed_; }
  //! Whether a point lies inside; never of one that is open.
  bool holds(const Vec3& point) const;

  //! Looks at triangles that may lie nearer to a box than `least`, the nearer ones first. `look` takes the
  //! corners of one and returns the new least; below nothing ends it.
  template <class Look>
  void near(const Box& part, double least, Look&& look) const {
    std::array<Node const*, 64> left;
    size_t count = 0;
    left[count++] = &nodes_.front();
    while (count > 0) {
      const Node& n = *left[--count];
      if (gap(n.round, part) > least) continue;
      if (n.count > 0) {
        for (size_t i = n.first; i < n.first + n.count && least >= 0; ++i) {
          const auto& [a, b, c] = mesh_.faces[i];
          least = look(corner(a), corner(b), corner(c));
        }
        if (least < 0) return;
        continue;
      }
      const Node* nearer = &nodes_[n.first];
      const Node* other = &nodes_[n.first + 1];
      if (gap(nearer->round, part) > gap(other->round, part)) std::swap(nearer, other);
      left[count++] = other;
      left[count++] = nearer;
    }
  }

  //! Where a plane square to x cuts it: lines through (y, z), closed ones with their first point once more.
  std::vector<std::vector<Eigen::Vector2d>> cut_across(double x) const;
  //! The edges at which it turns away as seen along an axis (0 x, 1 y, 2 z), and those where it ends.
  const std::vector<std::pair<Vec3, Vec3>>& outline(int axis) const {
    return outlines_[static_cast<size_t>(axis)];
  }

 private:
  //! A leaf holds faces first … first + count; another node its two halves at first and first + 1.
  struct Node {
    Box round;
    size_t first, count;
  };
  const Vec3& corner(int i) const { return mesh_.points[static_cast<size_t>(i)]; }
  void split(size_t node, size_t first, size_t count);
  void look_at_edges();

  Mesh mesh_;
  std::vector<Node> nodes_;
  bool closed_ = true;
  std::array<std::vector<std::pair<Vec3, Vec3>>, 3> outlines_;
};

}  // namespace kranich::motion
