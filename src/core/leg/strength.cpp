// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/leg/strength.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace kranich::leg {

RoundStress round_stress(double outer, double wall, const SectionLoad& load) {
  const auto s = force::tube_section(outer, wall);
  const double r = outer / 2;
  const double normal =
      std::abs(load.axial) / s.area + std::hypot(load.bending_1, load.bending_2) * r / s.first;
  const double shear = std::abs(load.torque) * r / s.torsion;
  return {normal, shear, std::sqrt(normal * normal + 3 * shear * shear)};
}

FootLoad load_at_top(const Vec3& top, const Vec3& foot, const Vec3& at, const Vec3& force) {
  const Vec3 along = (foot - top).normalized();
  const Vec3 moment = (at - top).cross(force);
  const double torque = moment.dot(along);
  return {(foot - top).norm(), force.dot(along), (moment - torque * along).norm(), torque};
}

PinStress pin_stress(double load, double d, int planes, double inner, double outer) {
  const double area = std::numbers::pi * d * d / 4;
  // Two outer lugs take half each.
  return {load / (planes * area), load / (d * inner), load / (planes == 2 ? 2 * d * outer : d * outer)};
}

std::vector<double> bolt_group(const std::vector<Bolt>& bolts, double fx, double fy, double x, double y) {
  double area = 0;
  double cx = 0;
  double cy = 0;
  const auto a = [](const Bolt& b) { return b.diameter * b.diameter; };
  for (const auto& b : bolts) {
    area += a(b);
    cx += a(b) * b.x;
    cy += a(b) * b.y;
  }
  cx /= area;
  cy /= area;
  double polar = 0;
  for (const auto& b : bolts) polar += a(b) * ((b.x - cx) * (b.x - cx) + (b.y - cy) * (b.y - cy));
  const double moment = (x - cx) * fy - (y - cy) * fx;
  std::vector<double> loads;
  for (const auto& b : bolts) {
    const double share = a(b) / area;
    const double turn = polar > 0 ? moment * a(b) / polar : 0;
    loads.push_back(std::hypot(fx * share - turn * (b.y - cy), fy * share + turn * (b.x - cx)));
  }
  return loads;
}

BlockPull block_pull(double length, double width, double drag, double arm, double pull,
                     const std::vector<BlockScrews>& screws) {
  BlockPull b{};
  b.moment = drag * arm;
  b.glue_peak = pull / (length * width) + 6 * b.moment / (width * length * length);
  b.glue_shear = drag / (length * width);
  double squares = 0;
  double furthest = 0;
  for (const auto& s : screws) {
    squares += s.count * s.from_compressed_edge * s.from_compressed_edge;
    furthest = std::max(furthest, s.from_compressed_edge);
  }
  if (squares > 0) b.largest_screw_pull = (b.moment + pull * length / 2) * furthest / squares;
  return b;
}

}  // namespace kranich::leg
