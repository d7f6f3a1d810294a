// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/motion/panel.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace kranich::motion {
namespace {

//! The panel in its own axes (along the hinge, out, inward), the solids brought there.
Eigen::Isometry3d to_own(const DoorPanel& p, double opening) {
  const Vec3 along = (p.rear - p.hinge.point).normalized();
  const Vec3 across = p.across(0);
  const Vec3 inward = p.hinge.direction.cross(across) * -1;  // against the way it opens
  Eigen::Isometry3d own = Eigen::Isometry3d::Identity();
  // Rows may form a left-handed frame: distances do not mind, the solids are symmetric.
  own.linear().row(0) = along;
  own.linear().row(1) = across;
  own.linear().row(2) = inward;
  own.translation() = -own.linear() * p.hinge.point;
  return own * p.hinge.turn(-opening);
}

RoundedWheel brought(const Eigen::Isometry3d& own, const RoundedWheel& wheel) {
  return {own * wheel.centre, own.linear() * wheel.axle, wheel.diameter, wheel.width, wheel.shoulder};
}
Capsule brought(const Eigen::Isometry3d& own, const Capsule& c) {
  return {own * c.from, own * c.to, c.radius};
}

//! The panel, and the steps of its ramp: how many there are.
struct Slabs {
  static constexpr int steps = 8;
  std::array<Box, steps + 1> boxes;
  size_t count = 1;
};
Slabs slabs_of(const DoorPanel& p) {
  Slabs s;
  const double length = (p.rear - p.hinge.point).norm();
  const double thick = std::max(p.thickness, 1e-6);
  s.boxes[0] = {{0, 0, 0}, {length, p.width, thick}};
  if (!(p.ramp_height > 0) || !(p.ramp_to > p.ramp_from)) return s;
  for (int i = 0; i < Slabs::steps; ++i) {
    const double from = p.ramp_from + (p.ramp_to - p.ramp_from) * i / Slabs::steps;
    s.boxes[s.count++] = {{0, from, 0}, {length, p.ramp_to, thick + p.ramp_height * (i + 1) / Slabs::steps}};
  }
  return s;
}
template <class Solid>
double nearest_of(const DoorPanel& p, const Solid& solid) {
  const Slabs slabs = slabs_of(p);
  double least = std::numeric_limits<double>::infinity();
  for (size_t i = 0; i < slabs.count; ++i)
    least = std::min(least, nearest(solid, Obstacle(slabs.boxes[i])).distance);
  return least;
}

}  // namespace

Vec3 DoorPanel::across(double opening) const {
  return std::cos(opening - tilt) * out + std::sin(opening - tilt) * down;
}

std::array<Vec3, 4> DoorPanel::corners(double opening) const {
  const Vec3 way = width * across(opening);
  return {hinge.point, rear, rear + way, hinge.point + way};
}

Eigen::Vector2d DoorPanel::in_plane(const Vec3& p) const {
  const Vec3 r = p - hinge.point;
  return {r.dot(out), -r.dot(down)};
}

BoundSolid::BoundSolid(const RoundedWheel& wheel)
    : solid(wheel), centre(wheel.centre), radius(std::hypot(wheel.diameter, wheel.width) / 2) {}
BoundSolid::BoundSolid(const Capsule& capsule)
    : solid(capsule),
      centre((capsule.from + capsule.to) / 2),
      radius((capsule.to - capsule.from).norm() / 2 + capsule.radius) {}

double DoorPanel::clearance(const RoundedWheel& wheel, double opening) const {
  return nearest_of(*this, brought(to_own(*this, opening), wheel));
}

double DoorPanel::clearance(const Capsule& capsule, double opening) const {
  return nearest_of(*this, brought(to_own(*this, opening), capsule));
}

namespace {
template <class Distance>
double least_of(const DoorPanel& panel, const std::vector<BoundSolid>& solids, double opening,
                Distance&& distance) {
  const Eigen::Isometry3d own = to_own(panel, opening);
  const Slabs slabs = slabs_of(panel);
  double least = std::numeric_limits<double>::infinity();
  for (size_t i = 0; i < slabs.count; ++i) {
    const Box& box = slabs.boxes[i];
    const Obstacle obstacle = box;
    for (const BoundSolid& b : solids) {
      const Vec3 centre = own * b.centre;
      const double off = (centre - centre.cwiseMax(box.low).cwiseMin(box.high)).norm() - b.radius;
      if (off >= std::max(0.0, least)) continue;
      least = std::min(
          least,
          std::visit([&](const auto& solid) { return distance(brought(own, solid), obstacle); }, b.solid));
    }
  }
  return least;
}
}  // namespace

double DoorPanel::clearance(const std::vector<BoundSolid>& solids, double opening) const {
  return least_of(*this, solids, opening,
                  [](const auto& solid, const Obstacle& o) { return nearest(solid, o).distance; });
}

double DoorPanel::apart_from(const std::vector<BoundSolid>& solids, double opening, double enough) const {
  return least_of(*this, solids, opening,
                  [enough](const auto& solid, const Obstacle& o) { return apart(solid, o, enough); });
}

std::optional<DoorPanel> panel_of(const Door& d) {
  if (!d.hinge_from.known() || !d.hinge_to.known() || !d.width.known() || !d.open_angle.known() ||
      !d.closed_towards.known())
    return std::nullopt;
  const Vec3 front = d.hinge_from.vec();
  const Vec3 rear = d.hinge_to.vec();
  const Vec3 h = (rear - front).normalized();
  const Vec3 level = Vec3::UnitZ().cross(h);
  if (!h.allFinite() || level.norm() < 1e-6) return std::nullopt;
  DoorPanel p;
  p.out = (d.closed_towards < 0 ? -1 : 1) * level.normalized();
  p.down = h.cross(p.out);
  if (p.down.z() > 0) p.down = -p.down;
  p.hinge = {front, p.out.cross(p.down)};
  p.rear = rear;
  p.tilt = d.closed_tilt.known() ? d.closed_tilt.si : 0;
  p.width = d.width;
  p.thickness = d.thickness.known() ? d.thickness.si : 0;
  p.open = d.open_angle;
  const DoorDrive& r = d.drive;
  if (r.way == DoorWay::wheel && r.ramp_from.known() && r.ramp_to.known() && r.ramp_height.known()) {
    p.ramp_from = r.ramp_from;
    p.ramp_to = r.ramp_to;
    p.ramp_height = r.ramp_height;
  }
  return p;
}

DoorPanel mirrored(const DoorPanel& p) {
  DoorPanel m = p;
  m.hinge = mirrored(p.hinge);
  m.rear = kranich::mirrored(p.rear);
  m.out = kranich::mirrored(p.out);
  m.down = kranich::mirrored(p.down);
  return m;
}

double opening_down(const Design& d, const Door& door) {
  const Step* last = nullptr;
  for (const auto& s : d.sequence.down)
    if (s.actor == door.id && (!last || s.start >= last->start)) last = &s;
  if (!last || last->action == Action::open) return door.open_angle;
  return door.ajar.known() ? door.ajar.si : 0;
}

}  // namespace kranich::motion
