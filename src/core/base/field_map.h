// SPDX-License-Identifier: GPL-3.0-or-later
//! Maps of where something may stand: fields over a plane, not below zero where a limit holds, kept at the
//! nodes of a grid and taken bilinear between them; their boundaries as lines, what they leave as polygons.
#pragma once

#include <Eigen/Core>
#include <functional>
#include <optional>
#include <vector>

namespace kranich {

struct MapArea {
  double x_low, x_high, y_low, y_high;
  int columns = 41, rows = 25;
  size_t nodes() const { return static_cast<size_t>(columns * rows); }
  Eigen::Vector2d node(int column, int row) const {
    return {x_low + (x_high - x_low) * column / (columns - 1), y_low + (y_high - y_low) * row / (rows - 1)};
  }
};
using MapField = std::vector<float>;  //!< row by row from below
using MapPolygon = std::vector<Eigen::Vector2d>;
using MapCurve = std::vector<Eigen::Vector2d>;

double field_at(const MapArea& area, const MapField& field, const Eigen::Vector2d& at);

//! Zero lines of a field by marching squares, joined end to end; each runs so that what is below zero lies to
//! its left, x to the right and y up. Nodes that are not finite bound nothing.
std::vector<MapCurve> zero_lines(const MapArea& area, const MapField& field);

//! The part of a convex polygon where a function is not below zero, cut straight along each edge; empty where
//! none is.
template <class F>
MapPolygon cut(const MapPolygon& p, F&& value) {
  MapPolygon kept;
  for (size_t i = 0; i < p.size(); ++i) {
    const Eigen::Vector2d &a = p[i], &b = p[(i + 1) % p.size()];
    const double va = value(a), vb = value(b);
    if (va >= 0) kept.push_back(a);
    if ((va < 0) != (vb < 0)) kept.push_back(a + va / (va - vb) * (b - a));
  }
  return kept.size() < 3 ? MapPolygon() : kept;
}

//! What else stands in the way between two x: whether nothing does, and what of a convex piece is left.
struct MapReach {
  std::function<bool(double, double)> free;
  std::function<std::vector<MapPolygon>(const MapPolygon&)> of;
};
//! Where no field is below zero, in convex pieces, anticlockwise: cells, those that lie wholly inside joined
//! along their row.
std::vector<MapPolygon> pieces_within(const MapArea& area, const std::vector<const MapField*>& fields,
                                      const MapReach& reach = {});

bool any_holds(const std::vector<MapPolygon>& pieces, const Eigen::Vector2d& at);
//! The point of them that is nearest, in shares of the area's width and height; nothing where there are none.
std::optional<Eigen::Vector2d> nearest_in(const MapArea& area, const std::vector<MapPolygon>& pieces,
                                          const Eigen::Vector2d& at);

}  // namespace kranich
