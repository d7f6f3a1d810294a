// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/force/bent_leg.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

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

//! How far the clamp gives: a middle that bends with both legs' moment, and rings. Level landings, both legs
//! alike: it neither leans nor goes sideways. What is missing of them.
Text hold_root(const Leg& leg, BendingLeg& out) {
  const BentMount& m = leg.spring.bent.mount;
  if (m.through) {
    const double half = std::abs(out.points.front().y());
    if (!(half > 1e-6)) return "clamps that stand apart: the middle between them bends";
    const double inertia = out.width.empty() ? round_section(out.wire_diameter).first
                           : out.streamlined ? streamlined_section(out.width[0], out.thickness[0]).first
                                             : leaf_section(out.width[0], out.thickness[0]).first;
    out.root.about.x() += half / (out.material.youngs_modulus * inertia);
  }
  if (m.rings.known()) {
    Lacking lacks(leg_root(leg.id) + "spring/bent/mount/");
    lacks.number(m.ring_outer, "ring_outer_m", "the rings' outer diameter")
        .number(m.ring_hole, "ring_hole_m", "the rings' hole")
        .number(m.ring_thickness, "ring_thickness_m", "the rings' thickness")
        .number(m.ring_pitch, "ring_pitch_m", "how far apart the rings stand fore and aft")
        .number(m.ring_modulus, "ring_modulus_Pa", "the rubber's shear modulus")
        .number(m.slot, "slot_m", "the height the rings are pressed into");
    if (!lacks.nothing()) return lacks.text();
    if (m.ring_hole >= m.ring_outer) return "rings whose hole is smaller than they are";
    const RingRates r = ring_rates(m);
    out.root.along += Vec3(1 / r.sideways, 0, 1 / r.vertical);
    out.root.about.y() += 1 / r.tilting;
  }
  return {};
}

//! Sets the modulus so that the leg has the vertical rate that was measured: what bends goes with 1/E, rings
//! do not.
Text calibrate(const BentLeg& b, BendingLeg& out) {
  const auto bent = bend(out, Vec3::UnitZ());
  if (!bent) return "a leg that the load can bend";
  double rings = 0;
  if (b.mount.rings.known()) {
    const RingRates r = ring_rates(b.mount);
    const double reach = out.points.back().x() - out.points.front().x();
    rings = 1 / r.vertical + reach * reach / r.tilting;
  }
  const double all = bent->flexibility(2, 2);
  const double wanted = 1 / b.measured_rate - rings;
  if (!(wanted > 0)) return "a measured rate below what the rubber rings alone give";
  const double factor = (all - rings) / wanted;
  out.material.youngs_modulus *= factor;
  out.material.shear_modulus *= factor;
  if (b.mount.through) out.root.about.x() /= factor;
  return {};
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
  out.streamlined = !wire && b.section == BentSection::streamlined;
  if (const Text missing = hold_root(leg, out); !missing.empty()) return missing;
  if (b.measured_rate.known())
    if (const Text missing = calibrate(b, out); !missing.empty()) return missing;
  const auto across = wire_across(b, out, own);
  if (const auto* missing = std::get_if<Text>(&across)) return *missing;
  if (b.cross_wire_rate.known())
    out.across_rate = b.cross_wire_rate;
  else if (const auto& fitted = std::get<0>(across))
    out.across_rate = fitted->rate_at_axle();
  return out;
}

RingRates ring_rates(const BentMount& m) {
  constexpr double hardness = 0.75;
  const double area = std::numbers::pi * (m.ring_outer * m.ring_outer - m.ring_hole.si * m.ring_hole.si) / 4;
  const double shape = (m.ring_outer - m.ring_hole) / (4 * m.ring_thickness);
  const double modulus = 3 * m.ring_modulus * (1 + 2 * hardness * shape * shape);
  const double left = m.slot / m.ring_thickness;
  RingRates r{};
  r.crush = 1 - left;
  r.vertical = m.rings * area * modulus / 3 * (2 / std::pow(left, 3) + 1) / m.ring_thickness;
  r.sideways = m.rings * m.ring_modulus * area / m.slot;
  r.tilting = r.vertical * m.ring_pitch * m.ring_pitch / 4;
  return r;
}

ArchedWire arched_wire(double diameter, double rise, double span, double youngs_modulus) {
  const double inertia = std::numbers::pi * std::pow(diameter, 4) / 64;
  const double rate = 15 * youngs_modulus * inertia / (8 * rise * rise * span);
  return {rate, rate * rise * diameter / 2 / inertia};
}

std::variant<std::optional<WireAcross>, Text> wire_across(const BentLeg& b, const BendingLeg& bending,
                                                          const std::vector<Material>& own) {
  const CrossWire& c = b.cross_wire;
  if (!c.diameter.known()) return std::nullopt;
  if (!c.rise.known() || !c.along.known()) return "rise and post of the spring wire across";
  const double modulus = stiffness_of(*find_material(own, cross_wire_material)).youngs_modulus;
  if (!std::isfinite(modulus)) return say("Young's modulus of “{}”", std::string(cross_wire_material));
  const auto bent = bend(bending, Vec3::UnitZ());
  if (!bent) return "a leg that the load can bend";
  size_t i = 0;
  while (i + 2 < bent->along.size() && bent->along[i + 1] < c.along) ++i;
  if (c.along > bent->along.back()) return "a post of the spring wire that stands on the leg";
  const double t = (c.along - bent->along[i]) / (bent->along[i + 1] - bent->along[i]);
  // The bent leg's nodes less what they moved are the leg's own line.
  const auto own_line = [&](double along) {
    double before = 0;
    for (size_t k = 1; k < bending.points.size(); ++k) {
      const double piece = (bending.points[k] - bending.points[k - 1]).norm();
      if (along <= before + piece + 1e-9)
        return Vec3(bending.points[k - 1] +
                    (along - before) / piece * (bending.points[k] - bending.points[k - 1]));
      before += piece;
    }
    return bending.points.back();
  };
  const Vec3 post = own_line(c.along);
  const Vec3 loaded = (1 - t) * bent->line[i] + t * bent->line[i + 1];
  const double span = 2 * post.y();
  if (!(span > 0)) return "posts of the spring wire that stand apart";
  const double spread = bent->moved.y();
  if (!(std::abs(spread) > 1e-15))
    return "a leg that spreads under its load: a wire across has nothing to hold";
  return WireAcross{arched_wire(c.diameter, c.rise, span, modulus), span, (loaded.y() - post.y()) / spread};
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

std::optional<BentStiffness> stiffness_at_wheel(const BendingLeg& leg) {
  const double cross_rate = leg.across_rate;
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

double rise_to_stress(const BendingLeg& leg, double allowed) {
  const auto stiffness = stiffness_at_wheel(leg);
  if (!stiffness) return std::numeric_limits<double>::quiet_NaN();
  const auto bent = bend_each(leg, {{Vec3(0, 0, stiffness->vertical_rate)}});
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
  const double rise =
      std::min(belly, rise_to_stress(*bending, allowable_of(*material, bending->wire_diameter, false).yield));
  constexpr double most = 2;  // as much as a file takes
  if (rise > 0) leg.travel = defaulted(std::min(rise, most));
}

}  // namespace kranich::force
