// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/force/bent_leg.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/force/materials.h"
#include "core/model/lacking.h"

namespace kranich::force {
namespace {

//! A wire is the same all along: its pieces only show its bend. A taper is taken in steps.
constexpr int pieces_of_wire = 2, pieces_of_leaf = 8;

Vec3 direction_of(LoopAxis axis) {
  switch (axis) {
    case LoopAxis::fore_and_aft:
      return Vec3::UnitX();
    case LoopAxis::athwartships:
      return Vec3::UnitY();
    case LoopAxis::upright:
      return Vec3::UnitZ();
  }
  return Vec3::UnitY();
}

}  // namespace

std::variant<BendingLeg, Text> bending_leg_of(const Leg& leg, const std::vector<Material>& own) {
  const BentLeg& b = leg.spring.bent;
  const bool wire = b.form == BentForm::wire;
  if (b.line.size() < 2) return "two points or more of the leg's centre line, from the clamp to the axle";
  const Material* material = find_material(own, b.material);
  if (!material)
    return b.material.empty() ? Text("the leg's material") : say("a material of the name “{}”", b.material);
  BendingLeg out;
  out.across = width_direction(b);
  out.material = stiffness_of(*material);
  if (!std::isfinite(out.material.youngs_modulus)) return say("Young's modulus of “{}”", material->name);
  if (wire) {
    if (!b.wire_diameter.known())
      return entry(leg_root(leg.id) + "spring/bent/wire_diameter_m", "the wire's diameter");
    out.wire_diameter = b.wire_diameter;
    for (const auto& l : b.loops) {
      if (!l.along.known() || !l.mean_diameter.known() || !l.turns.known())
        return "place, diameter and turns of every loop";
      if (l.mean_diameter <= b.wire_diameter) return "loops wider than the wire is thick";
      out.loops.push_back({l.along, l.mean_diameter, l.turns, direction_of(l.axis)});
    }
  }
  const std::vector<double> thickness = thickness_at_points(b);
  std::vector<double> width;
  for (const auto& p : b.line) {
    if (!p.at.known()) return "the place of every point of the leg's centre line";
    if (wire) continue;
    width.push_back(p.width);
    if (!std::isfinite(width.back())) return "the leg's width at every point";
    if (!std::isfinite(thickness[width.size() - 1]))
      return b.form == BentForm::bow ? "the bow's plies and their weight, or its thickness at every point"
                                     : "the leg's thickness at every point";
  }
  const int pieces = wire ? pieces_of_wire : pieces_of_leaf;
  for (size_t i = 0; i + 1 < b.line.size(); ++i)
    for (int k = i == 0 ? 0 : 1; k <= pieces; ++k) {
      const double t = static_cast<double>(k) / pieces;
      out.points.push_back((1 - t) * b.line[i].at.vec() + t * b.line[i + 1].at.vec());
      if (wire) continue;
      out.width.push_back((1 - t) * width[i] + t * width[i + 1]);
      out.thickness.push_back((1 - t) * thickness[i] + t * thickness[i + 1]);
    }
  for (size_t i = 1; i < out.points.size(); ++i)
    if ((out.points[i] - out.points[i - 1]).norm() < 1e-7)
      return "points of the leg's centre line that lie apart";
  if ((out.points.back() - leg.axle.vec()).norm() > 1e-4) {
    out.points.push_back(leg.axle.vec());
    if (!wire) {
      out.width.push_back(out.width.back());
      out.thickness.push_back(out.thickness.back());
      out.stub = true;
    }
  }
  return out;
}

std::vector<double> thickness_at_points(const BentLeg& leg) {
  double clamp = std::numeric_limits<double>::quiet_NaN();
  if (leg.form == BentForm::bow && leg.plies.known() && leg.ply_areal_weight.known() &&
      leg.fibre_fraction.known())
    clamp = leg.plies * ply_thickness(leg.ply_areal_weight, leg.fibre_fraction);
  std::vector<double> thickness;
  for (const auto& p : leg.line)
    thickness.push_back(p.thickness.known() ? p.thickness.si : clamp * leg.line.front().width / p.width);
  return thickness;
}

Vec3 width_direction(const BentLeg& leg) {
  if (leg.line.size() < 2) return Vec3::UnitX();
  const Vec3 way = leg.line.back().at.vec() - leg.line.front().at.vec();
  return std::abs(way.x()) > std::abs(way.y()) ? Vec3::UnitY() : Vec3::UnitX();
}

std::optional<BentStiffness> stiffness_at_wheel(const BendingLeg& leg, double cross_rate) {
  const auto up = bend(leg, Vec3::UnitZ());
  if (!up) return std::nullopt;
  Mat3 c = up->flexibility;
  Vec3 turned = up->turned;
  if (cross_rate > 0) {
    const Vec3 across = c.col(1);
    c -= across * across.transpose() * cross_rate / (1 + cross_rate * c(1, 1));
    const auto held = bend(leg, Vec3(0, -cross_rate * c(1, 2), 1));
    if (!held) return std::nullopt;
    turned = held->turned;
  }
  if (!(c(2, 2) > 0)) return std::nullopt;
  return BentStiffness{1 / c(2, 2), c.col(2) / c(2, 2), turned / c(2, 2)};
}

double rise_to_stress(const BendingLeg& leg, double allowed, double cross_rate) {
  const auto stiffness = stiffness_at_wheel(leg, cross_rate);
  if (!stiffness) return std::numeric_limits<double>::quiet_NaN();
  const auto bent = bend_each(leg, {{Vec3(0, 0, stiffness->vertical_rate)}}, cross_rate);
  if (bent.empty()) return std::numeric_limits<double>::quiet_NaN();
  double stress = bent.front().largest_stress;  // risen by a metre
  for (const auto& loop : bent.front().loops) stress = std::max(stress, loop.stress);
  return allowed / stress;
}

void settle_travel(Leg& leg, const std::vector<Material>& own, double belly) {
  if (leg.spring.kind != SpringKind::bending) return;
  leg.travel = Given();
  const auto chain = bending_leg_of(leg, own);
  const auto* bending = std::get_if<BendingLeg>(&chain);
  const Material* material = find_material(own, leg.spring.bent.material);
  if (!bending || !material) return;
  const Given& cross = leg.spring.bent.cross_wire_rate;
  const double rise =
      std::min(belly, rise_to_stress(*bending, allowable_of(*material, bending->wire_diameter, false).yield,
                                     cross.known() ? cross.si : 0));
  constexpr double most = 2;  // as much as a file takes
  if (rise > 0) leg.travel = defaulted(std::min(rise, most));
}

}  // namespace kranich::force
