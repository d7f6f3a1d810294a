// SPDX-License-Identifier: GPL-3.0-or-later
//! Solids as closed meshes of triangles, for pictures in space and for files that other programs read. A
//! triangle's corners run anticlockwise as seen from outside. SI, aircraft axes.
#pragma once

#include <Eigen/Geometry>
#include <array>
#include <vector>

#include "core/base/geometry.h"
#include "core/motion/panel.h"
#include "core/motion/shape.h"

namespace kranich::motion {

struct Mesh {
  std::vector<Vec3> points;
  std::vector<std::array<int, 3>> faces;
  void add(const Mesh& other);
  Mesh moved(const Eigen::Isometry3d& by) const;
};
//! The other side's twin, outside still outside.
Mesh mirrored(const Mesh& mesh);

Mesh mesh_of(const Box& box);
//! Its triangle runs anticlockwise seen against `along`, as `prism` makes it.
Mesh mesh_of(const Wedge& wedge);
//! Round solids as prisms of so many sides, their corners on the surface: the mesh lies inside.
Mesh mesh_of(const Cylinder& cylinder, int sides = 32);
Mesh mesh_of(const Capsule& capsule, int sides = 20);
Mesh mesh_of(const RoundedWheel& wheel, int sides = 40);
//! A panel at an opening; one of no thickness is drawn a millimetre thick.
Mesh mesh_of(const DoorPanel& panel, double opening);

//! ∮ x·n dA / 3: what a closed mesh holds.
double volume(const Mesh& mesh);
//! Whether every edge belongs to two triangles that run along it either way.
bool is_closed(const Mesh& mesh);

}  // namespace kranich::motion
