// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawing/raster.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace kranich::app {

Eigen::Matrix3d Camera::axes() const {
  // From port: x aft to the right, z up, the eye at −y. Turned to the left about z, then looking down.
  const Eigen::Vector3d right(std::cos(turn), std::sin(turn), 0);
  const Eigen::Vector3d level(std::sin(turn), -std::cos(turn), 0);  // towards the eye
  const Eigen::Vector3d eye = std::cos(down) * level + std::sin(down) * Eigen::Vector3d::UnitZ();
  const Eigen::Vector3d up = eye.cross(right);
  Eigen::Matrix3d m;
  m << right.transpose(), up.transpose(), eye.transpose();
  return m;
}

Eigen::Vector3d Camera::seen(const Eigen::Vector3d& p, const QSize& size) const {
  const Eigen::Vector3d v = scale * (axes() * (p - middle));
  return {size.width() / 2.0 + v.x(), size.height() / 2.0 - v.y(), v.z()};
}

Raster::Raster(QSize size, const QColor& ground)
    : picture_(size, QImage::Format_RGB32),
      depth_(static_cast<size_t>(size.width() * size.height()), -std::numeric_limits<float>::infinity()),
      number_(depth_.size(), -1) {
  picture_.fill(ground);
}

int Raster::at(const QPoint& p) const {
  if (!picture_.rect().contains(p)) return -1;
  return number_[static_cast<size_t>(p.y() * picture_.width() + p.x())];
}

void Raster::solid(const motion::Mesh& mesh, const Camera& camera, const QColor& colour, int number,
                   bool through, const std::optional<SectionPlane>& plane) {
  const QSize size = picture_.size();
  const Eigen::Matrix3d axes = camera.axes();
  std::vector<Eigen::Vector3d> seen;
  seen.reserve(mesh.points.size());
  for (const auto& p : mesh.points) {
    const Eigen::Vector3d v = camera.scale * (axes * (p - camera.middle));
    seen.emplace_back(size.width() / 2.0 + v.x(), size.height() / 2.0 - v.y(), v.z());
  }
  // Light from over the viewer's left shoulder.
  const Eigen::Vector3d light = Eigen::Vector3d(-0.35, 0.55, 0.76).normalized();
  const auto shade = [&](double share) {
    const auto part = [&](int c) { return std::clamp(static_cast<int>(c * share), 0, 255); };
    return qRgb(part(colour.red()), part(colour.green()), part(colour.blue()));
  };
  for (const auto& f : mesh.faces) {
    const auto &pa = mesh.points[static_cast<size_t>(f[0])], &pb = mesh.points[static_cast<size_t>(f[1])],
               &pc = mesh.points[static_cast<size_t>(f[2])];
    const auto &a = seen[static_cast<size_t>(f[0])], &b = seen[static_cast<size_t>(f[1])],
               &c = seen[static_cast<size_t>(f[2])];
    const double area = (b.x() - a.x()) * (c.y() - a.y()) - (b.y() - a.y()) * (c.x() - a.x());
    if (!(std::abs(area) > 1e-9) || !std::isfinite(area)) continue;  // seen from its edge
    const Eigen::Vector3d normal = axes * (pb - pa).cross(pc - pa).normalized();
    const bool inside = normal.z() < 0;
    if (inside && !plane) continue;  // hidden behind the front of a closed solid
    const QRgb tone = inside ? shade(0.75) : shade(0.45 + 0.6 * std::max(0.0, normal.dot(light)));
    const int left = std::max(0, static_cast<int>(std::floor(std::min({a.x(), b.x(), c.x()}))));
    const int right =
        std::min(size.width() - 1, static_cast<int>(std::ceil(std::max({a.x(), b.x(), c.x()}))));
    const int top = std::max(0, static_cast<int>(std::floor(std::min({a.y(), b.y(), c.y()}))));
    const int bottom =
        std::min(size.height() - 1, static_cast<int>(std::ceil(std::max({a.y(), b.y(), c.y()}))));
    for (int y = top; y <= bottom; ++y) {
      auto* row = reinterpret_cast<QRgb*>(picture_.scanLine(y));
      for (int x = left; x <= right; ++x) {
        if (through && ((x + y) & 1)) continue;
        const double px = x + 0.5, py = y + 0.5;
        const double wa = ((b.x() - px) * (c.y() - py) - (b.y() - py) * (c.x() - px)) / area;
        const double wb = ((c.x() - px) * (a.y() - py) - (c.y() - py) * (a.x() - px)) / area;
        const double wc = 1 - wa - wb;
        if (wa < 0 || wb < 0 || wc < 0) continue;
        const auto depth = static_cast<float>(wa * a.z() + wb * b.z() + wc * c.z());
        const auto pixel = static_cast<size_t>(y * size.width() + x);
        if (depth <= depth_[pixel]) continue;
        if (plane) {
          const double at = wa * pa[plane->axis] + wb * pb[plane->axis] + wc * pc[plane->axis];
          if (plane->upper ? at > plane->at : at < plane->at) continue;
        }
        depth_[pixel] = depth;
        number_[pixel] = number;
        row[x] = tone;
      }
    }
  }
}

void Raster::line(const Eigen::Vector3d& from, const Eigen::Vector3d& to, const Camera& camera,
                  const QColor& colour, const std::optional<SectionPlane>& plane) {
  const QSize size = picture_.size();
  const Eigen::Vector3d a = camera.seen(from, size), b = camera.seen(to, size);
  const int steps = static_cast<int>(std::ceil(std::max(std::abs(b.x() - a.x()), std::abs(b.y() - a.y()))));
  if (steps > 20000) return;  // far outside of what can be seen
  for (int i = 0; i <= steps; ++i) {
    const double t = steps == 0 ? 0 : static_cast<double>(i) / steps;
    const Eigen::Vector3d p = a + t * (b - a);
    const int x = static_cast<int>(std::floor(p.x())), y = static_cast<int>(std::floor(p.y()));
    if (!picture_.rect().contains(x, y)) continue;
    if (plane) {
      const double at = (from + t * (to - from))[plane->axis];
      if (plane->upper ? at > plane->at : at < plane->at) continue;
    }
    const auto pixel = static_cast<size_t>(y * size.width() + x);
    if (static_cast<float>(p.z()) <= depth_[pixel]) continue;
    reinterpret_cast<QRgb*>(picture_.scanLine(y))[x] = colour.rgb();
  }
}

}  // namespace kranich::app
