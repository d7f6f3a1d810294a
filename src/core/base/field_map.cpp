// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/field_map.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

namespace kranich {
namespace {

using Vec2 = Eigen::Vector2d;

//! Zero contour of a field on a grid by marching squares, its pieces joined end to end.
std::vector<MapCurve> contour(const MapArea& area, const MapField& field) {
  const auto node = [&](int c, int r) {
    return Vec2(area.x_low + (area.x_high - area.x_low) * c / (area.columns - 1),
                area.y_low + (area.y_high - area.y_low) * r / (area.rows - 1));
  };
  const auto value = [&](int c, int r) { return field[static_cast<size_t>(r * area.columns + c)]; };
  std::vector<std::pair<Vec2, Vec2>> pieces;
  for (int r = 0; r + 1 < area.rows; ++r)
    for (int c = 0; c + 1 < area.columns; ++c) {
      const std::array<Vec2, 4> corner{node(c, r), node(c + 1, r), node(c + 1, r + 1), node(c, r + 1)};
      const std::array<float, 4> v{value(c, r), value(c + 1, r), value(c + 1, r + 1), value(c, r + 1)};
      std::array<Vec2, 4> cut;
      int cuts = 0;
      for (size_t e = 0; e < 4; ++e) {
        const size_t f = (e + 1) % 4;
        if (!std::isfinite(v[e]) || !std::isfinite(v[f]) || (v[e] < 0) == (v[f] < 0)) continue;
        const double t = static_cast<double>(v[e]) / (static_cast<double>(v[e]) - static_cast<double>(v[f]));
        cut[static_cast<size_t>(cuts++)] = corner[e] + t * (corner[f] - corner[e]);
      }
      for (int i = 0; i + 1 < cuts; i += 2)
        pieces.emplace_back(cut[static_cast<size_t>(i)], cut[static_cast<size_t>(i + 1)]);
    }
  const double near = 1e-9 * (area.x_high - area.x_low + area.y_high - area.y_low);
  std::vector<std::vector<Vec2>> curves;
  std::vector<bool> used(pieces.size(), false);
  for (size_t i = 0; i < pieces.size(); ++i) {
    if (used[i]) continue;
    used[i] = true;
    std::vector<Vec2> line{pieces[i].first, pieces[i].second};
    for (bool grown = true; grown;) {
      grown = false;
      for (size_t j = i + 1; j < pieces.size(); ++j) {
        if (used[j]) continue;
        const auto& [a, b] = pieces[j];
        const auto meets = [&](const Vec2& p, const Vec2& q) { return (p - q).lpNorm<1>() < near; };
        if (meets(line.back(), a))
          line.push_back(b);
        else if (meets(line.back(), b))
          line.push_back(a);
        else if (meets(line.front(), a))
          line.insert(line.begin(), b);
        else if (meets(line.front(), b))
          line.insert(line.begin(), a);
        else
          continue;
        used[j] = grown = true;
      }
    }
    curves.push_back(std::move(line));
  }
  return curves;
}

void turn_to_fail_left(const MapArea& area, const MapField& field, MapCurve& curve) {
  if (curve.size() < 2) return;
  const size_t at = curve.size() / 2 - (curve.size() == 2 ? 1 : 0);
  const Vec2 a = curve[at], b = curve[at + 1 < curve.size() ? at + 1 : at - 1];
  const Vec2 along = at + 1 < curve.size() ? Vec2(b - a) : Vec2(a - b);
  // A twentieth of a cell to the left, in the map's own proportions.
  const double w = (area.x_high - area.x_low) / area.columns, h = (area.y_high - area.y_low) / area.rows;
  const Vec2 unit(along.x() / w, along.y() / h);
  const Vec2 left = Vec2(-unit.y() * w, unit.x() * h) / std::max(unit.norm(), 1e-12) * 0.3;
  if (field_at(area, field, (a + b) / 2 + left) > field_at(area, field, (a + b) / 2 - left))
    std::reverse(curve.begin(), curve.end());
}

bool inside(const MapPolygon& p, const Vec2& at) {
  for (size_t i = 0; i < p.size(); ++i) {
    const Vec2 &a = p[i], &b = p[(i + 1) % p.size()];
    if ((b - a).x() * (at - a).y() - (b - a).y() * (at - a).x() < -1e-12) return false;
  }
  return true;
}

}  // namespace

double field_at(const MapArea& area, const MapField& field, const Vec2& p) {
  const double u = (p.x() - area.x_low) / (area.x_high - area.x_low) * (area.columns - 1);
  const double v = (p.y() - area.y_low) / (area.y_high - area.y_low) * (area.rows - 1);
  const int c = std::clamp(static_cast<int>(u), 0, area.columns - 2);
  const int r = std::clamp(static_cast<int>(v), 0, area.rows - 2);
  const double s = u - c, t = v - r;
  const auto node = [&](int i, int j) {
    return static_cast<double>(field[static_cast<size_t>((r + j) * area.columns + c + i)]);
  };
  return (1 - s) * (1 - t) * node(0, 0) + s * (1 - t) * node(1, 0) + s * t * node(1, 1) +
         (1 - s) * t * node(0, 1);
}

std::vector<MapCurve> zero_lines(const MapArea& area, const MapField& field) {
  auto curves = contour(area, field);
  for (auto& curve : curves) turn_to_fail_left(area, field, curve);
  return curves;
}

std::vector<MapPolygon> pieces_within(const MapArea& area, const std::vector<const MapField*>& fields,
                                      const MapReach& reach) {
  std::vector<MapPolygon> pieces;
  const double w = (area.x_high - area.x_low) / (area.columns - 1);
  const double h = (area.y_high - area.y_low) / (area.rows - 1);
  for (int r = 0; r + 1 < area.rows; ++r) {
    int from = -1;  // of a run of whole cells
    const double low = area.y_low + r * h;
    const auto close = [&](int to) {
      if (from >= 0)
        pieces.push_back({{area.x_low + from * w, low},
                          {area.x_low + to * w, low},
                          {area.x_low + to * w, low + h},
                          {area.x_low + from * w, low + h}});
      from = -1;
    };
    for (int c = 0; c + 1 < area.columns; ++c) {
      const double left = area.x_low + c * w;
      bool whole = !reach.free || reach.free(left, left + w), outside = false;
      for (const auto* f : fields) {
        int below = 0;
        for (const int i : {0, 1})
          for (const int j : {0, 1})
            below += !((*f)[static_cast<size_t>((r + j) * area.columns + c + i)] >= 0);
        whole = whole && below == 0;
        outside = outside || below == 4;
      }
      if (whole) {
        if (from < 0) from = c;
        continue;
      }
      close(c);
      if (outside) continue;
      MapPolygon piece{{left, low}, {left + w, low}, {left + w, low + h}, {left, low + h}};
      for (const auto* f : fields)
        if (!piece.empty()) piece = cut(piece, [&](const Vec2& p) { return field_at(area, *f, p); });
      if (!reach.of) {
        if (!piece.empty()) pieces.push_back(std::move(piece));
        continue;
      }
      for (auto& part : reach.of(piece)) pieces.push_back(std::move(part));
    }
    close(area.columns - 1);
  }
  return pieces;
}

bool any_holds(const std::vector<MapPolygon>& pieces, const Vec2& at) {
  return std::any_of(pieces.begin(), pieces.end(), [&](const MapPolygon& p) { return inside(p, at); });
}

std::optional<Vec2> nearest_in(const MapArea& area, const std::vector<MapPolygon>& pieces, const Vec2& at) {
  const Vec2 size(area.x_high - area.x_low, area.y_high - area.y_low);
  std::optional<Vec2> best;
  double least = std::numeric_limits<double>::infinity();
  for (const auto& p : pieces)
    for (size_t i = 0; i < p.size(); ++i) {
      const Vec2 a = (p[i] - at).cwiseQuotient(size), b = (p[(i + 1) % p.size()] - at).cwiseQuotient(size);
      const Vec2 along = b - a;
      const double t =
          along.squaredNorm() > 0 ? std::clamp(-a.dot(along) / along.squaredNorm(), 0.0, 1.0) : 0;
      const Vec2 point = a + t * along;
      if (point.norm() >= least) continue;
      least = point.norm();
      best = at + point.cwiseProduct(size);
    }
  return best;
}

}  // namespace kranich
