// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/force/leaf.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

#include "core/base/numerics.h"

namespace kranich::force {

BendingLeg straight_leaf(double length, double cant, double root_width, double tip_width,
                         double root_thickness, double tip_thickness, const Elastic& material, int pieces) {
  BendingLeg leg;
  leg.material = material;
  const Vec3 along(0, std::sin(cant), -std::cos(cant));
  for (int i = 0; i <= pieces; ++i) {
    const double t = static_cast<double>(i) / pieces;
    leg.points.push_back(t * length * along);
    leg.width.push_back(root_width + t * (tip_width - root_width));
    leg.thickness.push_back(root_thickness + t * (tip_thickness - root_thickness));
  }
  return leg;
}

BendingLeg curved_leaf(double radius, double from, double to, double straight, double width, double thickness,
                       const Elastic& material, int pieces) {
  BendingLeg leg;
  leg.material = material;
  Vec3 p(0, 0, 0);
  const auto put = [&] {
    leg.points.push_back(p);
    leg.width.push_back(width);
    leg.thickness.push_back(thickness);
  };
  put();
  for (int i = 1; i <= pieces; ++i) {  // on the arc: y' = cos a, z' = −sin a over its length
    const double a = from + (to - from) * i / pieces;
    p = Vec3(0, radius * (std::sin(a) - std::sin(from)), -radius * (std::cos(from) - std::cos(a)));
    put();
  }
  const Vec3 elbow = p;
  for (int i = 1; i <= 20; ++i) {
    p = elbow + straight * i / 20 * Vec3(0, std::cos(to), -std::sin(to));
    put();
  }
  return leg;
}

namespace {

struct Chain {
  Frame frame;
  std::vector<double> along;
  std::vector<int> loop_beam;  //!< beam that starts at each loop
};

//! The leg's points, loops put in as joints where they sit.
Chain chain_of(const BendingLeg& leg) {
  Chain c;
  std::vector<Vec3> points = leg.points;
  std::vector<double> along{0};
  for (size_t i = 1; i < points.size(); ++i)
    along.push_back(along.back() + (points[i] - points[i - 1]).norm());
  const bool wire = leg.wire_diameter > 0;
  std::vector<double> width = leg.width;
  std::vector<double> thickness = leg.thickness;
  for (const auto& loop : leg.loops) {  // a node of its own for each loop
    const auto at = std::lower_bound(along.begin(), along.end(), loop.along - 1e-12);
    const auto i = static_cast<size_t>(at - along.begin());
    if (at == along.end() || std::abs(*at - loop.along) < 1e-9) continue;
    const double t = (loop.along - along[i - 1]) / (along[i] - along[i - 1]);
    points.insert(points.begin() + static_cast<long>(i), points[i - 1] + t * (points[i] - points[i - 1]));
    along.insert(along.begin() + static_cast<long>(i), loop.along);
  }
  c.frame.nodes = points;
  c.frame.clamped = {0};
  for (size_t i = 0; i + 1 < points.size(); ++i) {
    Beam b{static_cast<int>(i), static_cast<int>(i + 1), {}, leg.material, leg.across, {}};
    if (wire) {
      b.section = round_section(leg.wire_diameter);
    } else {
      const double w = (width[i] + width[i + 1]) / 2;
      const double t = (thickness[i] + thickness[i + 1]) / 2;
      b.section = leg.streamlined ? streamlined_section(w, t) : leaf_section(w, t);
    }
    if (leg.stub && i + 2 == points.size()) {
      constexpr double stiffer = 1e3;  // than the leaf's own end
      for (double* of : {&b.section.area, &b.section.first, &b.section.second, &b.section.torsion})
        *of *= stiffer;
    }
    c.frame.beams.push_back(b);
  }
  for (const auto& loop : leg.loops) {
    const auto at = std::min_element(along.begin(), along.end() - 1, [&](double x, double y) {
      return std::abs(x - loop.along) < std::abs(y - loop.along);
    });
    const int beam = static_cast<int>(at - along.begin());
    const double d = leg.wire_diameter;
    const double rate = leg.material.youngs_modulus * std::pow(d, 4) / (64 * loop.mean_diameter * loop.turns);
    c.frame.beams[static_cast<size_t>(beam)].joint = Beam::Joint{loop.axis, rate};
    c.loop_beam.push_back(beam);
  }
  c.along = along;
  return c;
}

}  // namespace

namespace {
Bent bent_of(const BendingLeg& leg, const Chain& c, const FrameResult& solved, const Mat3& flexibility,
             const AxleLoad& axle_load) {
  const Vec3& load = axle_load.force;
  const Vec3& at_axle = axle_load.moment;
  Bent b{};
  b.flexibility = flexibility;
  b.vertical_stiffness = 1 / b.flexibility(2, 2);
  b.held_stiffness = b.flexibility.inverse()(2, 2);
  b.moved = solved.moved.back();
  b.turned = solved.turned.back();
  b.camber_change = -b.turned.x();
  b.toe_change = b.turned.z();
  b.strain_energy = solved.strain_energy;
  b.along = c.along;
  const bool wire = leg.wire_diameter > 0;
  const Vec3 tip = c.frame.nodes.back();
  for (size_t i = 0; i < c.frame.nodes.size(); ++i) {
    // Inner forces from the load itself: the chain carries it alone.
    const Vec3 moment = (tip - c.frame.nodes[i]).cross(load) + at_axle;
    const size_t piece = std::min(i, c.frame.beams.size() - 1);
    const Vec3 tangent = (c.frame.nodes[piece + 1] - c.frame.nodes[piece]).normalized();
    const double torque = moment.dot(tangent);
    const double axial = std::abs(load.dot(tangent));
    double stress = 0;
    double normal = 0;
    if (wire) {
      const BeamSection s = round_section(leg.wire_diameter);
      const double r = leg.wire_diameter / 2;
      normal = axial / s.area + (moment - torque * tangent).norm() * r / s.first;
      stress = std::hypot(normal, std::sqrt(3.0) * torque * r / s.torsion);
    } else {
      const double w = leg.width[i];
      const double t = leg.thickness[i];
      const Vec3 first = (leg.across - tangent.dot(leg.across) * tangent).normalized();
      const Vec3 second = tangent.cross(first);
      const double thin = leg.streamlined ? streamlined_modulus : 1;
      const double deep = leg.streamlined ? streamlined_edge_modulus : 1;
      normal = axial / ((leg.streamlined ? streamlined_area : 1) * w * t) +
               std::abs(moment.dot(first)) * 6 / (thin * w * t * t) +
               std::abs(moment.dot(second)) * 6 / (deep * t * w * w);
      stress = normal;
    }
    if (i == 0) {
      b.root_moment = (moment - torque * tangent).norm();
      b.root_stress = stress;
      b.root_normal_stress = normal;
    }
    if (stress > b.largest_stress && !(leg.stub && i + 1 == c.frame.nodes.size())) {
      b.largest_stress = stress;
      b.largest_at = c.along[i];
    }
    b.stress.push_back(stress);
    b.line.push_back(c.frame.nodes[i] + solved.moved[i]);
  }
  for (size_t i = 0; i < leg.loops.size(); ++i) {
    const auto& loop = leg.loops[i];
    const auto& beam = c.frame.beams[static_cast<size_t>(c.loop_beam[i])];
    const Vec3 moment = (tip - c.frame.nodes[static_cast<size_t>(beam.from)]).cross(load) + at_axle;
    const double about = std::abs(moment.dot(loop.axis.normalized()));
    const double index = loop.mean_diameter / leg.wire_diameter;
    const double inner = (4 * index * index - index - 1) / (4 * index * (index - 1));
    b.loops.push_back({beam.joint->rate, about / beam.joint->rate,
                       inner * 32 * about / (std::numbers::pi * std::pow(leg.wire_diameter, 3))});
  }
  return b;
}
}  // namespace

namespace {
//! What the clamp's giving way adds at a node: the whole leg goes along and turns about its root.
void give_way(const BendingLeg& leg, const Chain& c, const AxleLoad& load, FrameResult& solved) {
  const Vec3 root = c.frame.nodes.front();
  const Vec3 moment = (c.frame.nodes.back() - root).cross(load.force) + load.moment;
  const Vec3 moved = leg.root.along.cwiseProduct(load.force);
  const Vec3 turned = leg.root.about.cwiseProduct(moment);
  for (size_t i = 0; i < c.frame.nodes.size(); ++i) {
    solved.moved[i] += moved + turned.cross(c.frame.nodes[i] - root);
    solved.turned[i] += turned;
  }
  solved.strain_energy += (moved.dot(load.force) + turned.dot(moment)) / 2;
}
}  // namespace

std::vector<Bent> bend_each(const BendingLeg& leg, const std::vector<AxleLoad>& given) {
  if (leg.points.size() < 2) return {};
  const Chain c = chain_of(leg);
  const int axle = static_cast<int>(c.frame.nodes.size()) - 1;
  std::vector<AxleLoad> loads{
      {Vec3::UnitX()}, {Vec3::UnitY()}, {Vec3::UnitZ()}};  // units, for the flexibility
  loads.insert(loads.end(), given.begin(), given.end());
  const auto solve = [&] {
    std::vector<Frame::Loads> cases;
    for (const auto& l : loads) cases.push_back({{axle, l.force, l.moment}});
    auto each = c.frame.solve_each(cases);
    if (each && !leg.root.rigid())
      for (size_t i = 0; i < loads.size(); ++i) give_way(leg, c, loads[i], (*each)[i]);
    return each;
  };
  auto each = solve();
  if (!each) return {};
  const double wire = leg.across_rate;
  if (wire > 0) {
    // The wire's force follows from where it lets the axle go: u = u₀ − f·k_w·u.
    const double give = (*each)[1].moved.back().y();
    for (size_t i = 3; i < loads.size(); ++i)
      loads[i].force.y() -= wire * (*each)[i].moved.back().y() / (1 + wire * give);
    each = solve();
    if (!each) return {};
  }
  Mat3 flexibility;
  for (int i = 0; i < 3; ++i) flexibility.col(i) = (*each)[static_cast<size_t>(i)].moved.back();
  flexibility = ((flexibility + flexibility.transpose()) / 2).eval();
  std::vector<Bent> bent;
  for (size_t i = 3; i < loads.size(); ++i)
    bent.push_back(bent_of(leg, c, (*each)[i], flexibility, loads[i]));
  return bent;
}

std::optional<Bent> bend(const BendingLeg& leg, const Vec3& load, const Vec3& moment) {
  BendingLeg alone = leg;
  alone.across_rate = 0;
  auto bent = bend_each(alone, {{load, moment}});
  if (bent.empty()) return std::nullopt;
  return std::move(bent.front());
}

SoftLeaf::SoftLeaf(const std::vector<Section>& sections, double youngs_modulus, double yield_stress) {
  const double tip = sections.back().from_clamp;
  const auto at = [&](double x) {
    size_t i = 1;
    while (i + 1 < sections.size() && sections[i].from_clamp < x) ++i;
    const Section& from = sections[i - 1];
    const Section& to = sections[i];
    const double piece = to.from_clamp - from.from_clamp;
    const double t = piece > 0 ? (x - from.from_clamp) / piece : 1;
    const double width = from.width + t * (to.width - from.width);
    const double thickness = from.thickness + t * (to.thickness - from.thickness);
    return Slice{tip - x, 0, youngs_modulus * width * std::pow(thickness, 3) / 12,
                 yield_stress * width * thickness * thickness / 6};
  };
  // Where it yields first: the least M_y over the arm.
  yield_load_ = std::numeric_limits<double>::infinity();
  yields_at_ = 0;
  const auto look = [&](double from, double to) {
    constexpr int steps = 400;
    for (int i = 0; i <= steps; ++i) {
      const double x = from + (to - from) * i / steps;
      const Slice s = at(x);
      if (!(s.arm > 1e-9 * tip) || !(s.yield / s.arm < yield_load_ * (1 - 1e-12))) continue;
      yield_load_ = s.yield / s.arm;
      yields_at_ = x;
    }
  };
  look(0, tip);
  for (double step = tip / 400; yields_at_ > 0 && step > 1e-9 * tip; step /= 100)
    look(std::max(0.0, yields_at_ - step), std::min(tip, yields_at_ + step));
  collapse_load_ = 1.5 * yield_load_;
  // Gauss points, thick about that place: x = x* ± s² takes the root out of the curvature near collapse.
  constexpr int pieces = 48;
  constexpr double node[3] = {-0.7745966692414834, 0, 0.7745966692414834};
  constexpr double weight[3] = {5.0 / 9, 8.0 / 9, 5.0 / 9};
  double flexibility = 0;
  for (const double end : {0.0, tip}) {
    const double reach = end - yields_at_;
    if (reach == 0) continue;
    for (int i = 0; i < pieces; ++i)
      for (int j = 0; j < 3; ++j) {
        const double s = (i + 0.5 + node[j] / 2) / pieces;
        Slice slice = at(yields_at_ + reach * s * s);
        slice.length = std::abs(reach) * 2 * s * weight[j] / 2 / pieces;
        flexibility += slice.arm * slice.arm / slice.stiffness * slice.length;
        slices_.push_back(slice);
      }
  }
  rate_ = 1 / flexibility;
}

namespace {
//! κ/κ_y beyond yield; `over` is M/M_y. Kept finite where a slice lies a hair nearer to collapse than the
//! place that was found to be the weakest.
double beyond_yield(double over) { return 1 / std::sqrt(std::max(3 - 2 * over, 1e-13)); }
}  // namespace

double SoftLeaf::deflection(double load) const {
  if (load <= yield_load_) return load / rate_;
  if (load >= collapse_load_) return std::numeric_limits<double>::infinity();
  double deflection = 0;
  for (const Slice& s : slices_) {
    const double over = load * s.arm / s.yield;
    const double bend = s.yield / s.stiffness * (over <= 1 ? over : beyond_yield(over));
    deflection += bend * s.arm * s.length;
  }
  return deflection;
}

double SoftLeaf::work(double peak, double former) const {
  // Elastic up to the larger of its yield and what it has seen, then on along the virgin curve.
  const double elastic_to = std::max(yield_load_, former);
  if (peak <= elastic_to) return peak * peak / (2 * rate_);
  if (peak >= collapse_load_) return std::numeric_limits<double>::infinity();
  const auto virgin = [&](double load) {
    double work = 0;
    for (const Slice& s : slices_) {
      const double over = load * s.arm / s.yield;
      const double unit = s.yield * s.yield / s.stiffness * s.length;  // M_y·κ_y
      if (over <= 1) {
        work += unit * over * over / 2;
      } else {  // ∫M dκ: 0.5 up to yield, then 1.5·(k − 1) + 0.5·(1/k − 1) with k = κ/κ_y
        const double k = beyond_yield(over);
        work += unit * (0.5 + 1.5 * (k - 1) + 0.5 * (1 / k - 1));
      }
    }
    return work;
  };
  return elastic_to * elastic_to / (2 * rate_) + virgin(peak) - virgin(elastic_to);
}

LandingRow row_of_landings(const SoftLeaf& leaf, double energy, int landings, double wire) {
  LandingRow row;
  const double k = leaf.rate();
  const double collapse =
      leaf.collapse_load() * (1 - 1e-12);  // a hair below: there the curve still has a value
  const double at_collapse = leaf.deflection(collapse);
  double load = 0;        // of the leaf at the largest deflection so far,
  double deflection = 0;  // and that deflection
  const auto rests_at = [&] { return std::max(0.0, (k * deflection - load) / (k + wire)); };
  for (int i = 0; i < landings; ++i) {
    const double way = deflection - rests_at();
    const double elastic = (k + wire) * way * way / 2;
    const double more = energy - elastic;
    if (more > 0) {
      // Beyond the largest so far along the leaf's own curve, the wire beside it.
      const auto beyond = [&](double p) {
        const double d = leaf.deflection(p);
        return leaf.work(p) - leaf.work(std::min(load, collapse)) +
               wire * (d * d - deflection * deflection) / 2;
      };
      if (deflection < at_collapse && beyond(collapse) >= more) {
        const auto found = find_root([&](double p) { return beyond(p) - more; }, load, collapse);
        load = found ? *found : collapse;
        deflection = leaf.deflection(load);
      } else {
        if (row.folds == 0) row.folds = i + 1;
        // Its root is a hinge now: P_c·(δ − δ₀) + ½·k_w·(δ² − δ₀²) is what is left.
        const double from = std::max(deflection, at_collapse);
        const double left = more - (deflection < at_collapse ? beyond(collapse) : 0);
        load = leaf.collapse_load();
        deflection = wire > 0 ? (std::sqrt(std::pow(load + wire * from, 2) + 2 * wire * left) - load) / wire
                              : std::numeric_limits<double>::infinity();
      }
    }
    row.peak_load.push_back(load);
    row.set.push_back(std::isfinite(deflection) ? rests_at() : deflection);
    if (!std::isfinite(deflection)) break;
  }
  row.set.resize(static_cast<size_t>(landings), row.set.back());
  row.peak_load.resize(static_cast<size_t>(landings), row.peak_load.back());
  row.endless = !(wire > 0) && energy > leaf.endless_energy();
  return row;
}

WithWire with_wire(const SoftLeaf& leaf, double wire_rate, double peak) {
  const auto miss = [&](double p) { return p + wire_rate * leaf.deflection(p) - peak; };
  const auto found = find_root(miss, 0, leaf.collapse_load() * (1 - 1e-12));
  const double p = found ? *found : leaf.collapse_load();
  const double set = leaf.set_after(p);
  return {p, leaf.deflection(p), set * leaf.rate() / (leaf.rate() + wire_rate), set};
}

BowSeed bow_seed(double mass, double root_width) {
  return {55 * mass / (root_width * 1000), 85 * mass / (root_width * 1000)};
}

double ply_thickness(double areal_weight, double fibre_fraction, double fibre_density) {
  return areal_weight / (fibre_density * fibre_fraction);
}

}  // namespace kranich::force
