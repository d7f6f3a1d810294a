// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/force/frame.h"

#include <Eigen/SparseCholesky>
#include <algorithm>
#include <cmath>
#include <numbers>

namespace kranich::force {
namespace {

using Mat12 = Eigen::Matrix<double, 12, 12>;
using Vec12 = Eigen::Matrix<double, 12, 1>;

//! The element's own axes as rows: along, first, second.
Mat3 own_axes(const Vec3& a, const Vec3& b, const Vec3& first_axis) {
  const Vec3 along = (b - a).normalized();
  Vec3 first = first_axis - first_axis.dot(along) * along;
  if (first.norm() < 1e-9) first = (std::abs(along.z()) < 0.9 ? Vec3::UnitZ() : Vec3::UnitY()).cross(along);
  first.normalize();
  Mat3 r;
  r.row(0) = along;
  r.row(1) = first;
  r.row(2) = along.cross(first);
  return r;
}

//! Stiffness in own axes; order: moves (along, first, second), turns (about along, first, second), at each
//! end.
Mat12 own_stiffness(const Beam& b, double length) {
  const double ea = b.material.youngs_modulus * b.section.area / length;
  const double gj = b.material.shear_modulus * b.section.torsion / length;
  Mat12 k = Mat12::Zero();
  const auto spring = [&](int i, double rate) {
    k(i, i) = k(i + 6, i + 6) = rate;
    k(i, i + 6) = k(i + 6, i) = -rate;
  };
  spring(0, ea);
  spring(3, gj);
  // Bending: moves in `move`, turns about `turn`; sign of the turn that a positive slope means.
  const auto bending = [&](int move, int turn, double inertia, double sign) {
    const double ei = b.material.youngs_modulus * inertia;
    const double a = 12 * ei / std::pow(length, 3);
    const double c = sign * 6 * ei / (length * length);
    const double d = 4 * ei / length;
    const int m[2] = {move, move + 6};
    const int t[2] = {turn, turn + 6};
    k(m[0], m[0]) += a;
    k(m[1], m[1]) += a;
    k(m[0], m[1]) = k(m[1], m[0]) = -a;
    for (int i = 0; i < 2; ++i) {
      k(m[0], t[i]) = k(t[i], m[0]) = c;
      k(m[1], t[i]) = k(t[i], m[1]) = -c;
      k(t[i], t[i]) += d;
    }
    k(t[0], t[1]) = k(t[1], t[0]) = d / 2;
  };
  bending(1, 5, b.section.second, 1);  // moves along first, turns about second
  bending(2, 4, b.section.first, -1);  // moves along second, turns about first
  return k;
}

//! Turns a 12-vector's blocks.
Mat12 blocks(const Mat3& r) {
  Mat12 t = Mat12::Zero();
  for (int i = 0; i < 4; ++i) t.block<3, 3>(3 * i, 3 * i) = r;
  return t;
}

Mat12 stiffness_of(const Beam& b, const std::vector<Vec3>& nodes, Mat3& axes) {
  const Vec3& p = nodes[static_cast<size_t>(b.from)];
  const Vec3& q = nodes[static_cast<size_t>(b.to)];
  axes = own_axes(p, q, b.first_axis);
  Mat12 k = own_stiffness(b, (q - p).norm());
  if (b.joint) {
    // The turn at the start gains a part of its own about the axis, held by the rate: condensed out.
    Vec12 e = Vec12::Zero();
    e.segment<3>(3) = axes * b.joint->axis.normalized();
    const Vec12 ke = k * e;
    k -= ke * ke.transpose() / (b.joint->rate + e.dot(ke));
  }
  return k;
}

}  // namespace

BeamSection round_section(double d) {
  const double i = std::numbers::pi * std::pow(d, 4) / 64;
  return {std::numbers::pi * d * d / 4, i, i, 2 * i};
}

BeamSection tube_section(double outer, double wall) {
  const double inner = outer - 2 * wall;
  const double i = std::numbers::pi * (std::pow(outer, 4) - std::pow(inner, 4)) / 64;
  return {std::numbers::pi * (outer * outer - inner * inner) / 4, i, i, 2 * i};
}

BeamSection leaf_section(double w, double t) {
  // Torsion of a rectangle, Roark's series to four per mille.
  const double a = std::max(w, t);
  const double b = std::min(w, t);
  const double j = a * std::pow(b, 3) * (1.0 / 3 - 0.21 * b / a * (1 - std::pow(b / a, 4) / 12));
  return {w * t, w * std::pow(t, 3) / 12, t * std::pow(w, 3) / 12, j};
}

BeamSection streamlined_section(double chord, double thickness) {
  const double area = streamlined_area * chord * thickness;
  const double first = streamlined_modulus * chord * std::pow(thickness, 3) / 12;
  const double second = 0.4738 * thickness * std::pow(chord, 3) / 12;
  return {area, first, second, std::pow(area, 4) / (40 * (first + second))};
}

std::optional<std::vector<FrameResult>> Frame::solve_each(const std::vector<Loads>& cases) const {
  const int n = static_cast<int>(nodes.size());
  std::vector<int> index(static_cast<size_t>(6 * n), 0);
  for (const int node : clamped)
    for (int i = 0; i < 6; ++i) index[static_cast<size_t>(6 * node + i)] = -1;
  for (const int node : pinned)
    for (int i = 0; i < 3; ++i) index[static_cast<size_t>(6 * node + i)] = -1;
  int free = 0;
  for (int& i : index)
    if (i == 0) i = free++;
  std::vector<Eigen::Triplet<double>> entries;
  std::vector<Mat12> own(beams.size());
  std::vector<Mat3> axes(beams.size());
  const auto dof = [&](const Beam& b, int i) { return 6 * (i < 6 ? b.from : b.to) + i % 6; };
  for (size_t e = 0; e < beams.size(); ++e) {
    own[e] = stiffness_of(beams[e], nodes, axes[e]);
    const Mat12 t = blocks(axes[e]);
    const Mat12 k = t.transpose() * own[e] * t;
    for (int i = 0; i < 12; ++i)
      for (int j = 0; j < 12; ++j) {
        const int r = index[static_cast<size_t>(dof(beams[e], i))];
        const int c = index[static_cast<size_t>(dof(beams[e], j))];
        if (r >= 0 && c >= 0) entries.emplace_back(r, c, k(i, j));
      }
  }
  Eigen::SparseMatrix<double> k(free, free);
  k.setFromTriplets(entries.begin(), entries.end());
  const Eigen::SimplicialLDLT<Eigen::SparseMatrix<double>> solver(k);
  if (solver.info() != Eigen::Success) return std::nullopt;
  // A pivot of nothing but rounding is a way to move without resistance.
  const Eigen::VectorXd pivots = solver.vectorD().cwiseAbs();
  if (pivots.minCoeff() < 1e-15 * pivots.maxCoeff()) return std::nullopt;
  const double stiffest = k.coeffs().cwiseAbs().maxCoeff();
  std::vector<FrameResult> results;
  for (const auto& loads : cases) {
    Eigen::VectorXd f = Eigen::VectorXd::Zero(free);
    for (const auto& l : loads)
      for (int i = 0; i < 6; ++i)
        if (const int r = index[static_cast<size_t>(6 * l.node + i)]; r >= 0)
          f[r] += i < 3 ? l.force[i] : l.moment[i - 3];
    const Eigen::VectorXd u = solver.solve(f);
    // The residual against what rounding leaves of K·u; a mechanism has no such solution.
    if (!u.allFinite() || (k * u - f).norm() > 1e-12 * stiffest * u.norm() + 1e-12 * f.norm())
      return std::nullopt;
    const auto at = [&](int node, int i) {
      const int r = index[static_cast<size_t>(6 * node + i)];
      return r < 0 ? 0.0 : u[r];
    };
    FrameResult& result = results.emplace_back();
    for (int node = 0; node < n; ++node) {
      result.moved.emplace_back(at(node, 0), at(node, 1), at(node, 2));
      result.turned.emplace_back(at(node, 3), at(node, 4), at(node, 5));
    }
    for (size_t e = 0; e < beams.size(); ++e) {
      Vec12 moves;
      for (int i = 0; i < 12; ++i) moves[i] = at(i < 6 ? beams[e].from : beams[e].to, i % 6);
      const Vec12 forces = own[e] * (blocks(axes[e]) * moves);
      result.beams.push_back(
          {forces[6], {-forces[3], forces[9]}, {-forces[4], forces[10]}, {-forces[5], forces[11]}});
    }
    result.strain_energy = 0.5 * f.dot(u);
  }
  return results;
}

std::optional<FrameResult> Frame::solve(const Loads& loads) const {
  auto results = solve_each({loads});
  if (!results) return std::nullopt;
  return std::move(results->front());
}

std::optional<Mat3> Frame::flexibility(int node) const {
  const auto results =
      solve_each({{{node, Vec3::UnitX()}}, {{node, Vec3::UnitY()}}, {{node, Vec3::UnitZ()}}});
  if (!results) return std::nullopt;
  Mat3 c;
  for (int i = 0; i < 3; ++i) c.col(i) = (*results)[static_cast<size_t>(i)].moved[static_cast<size_t>(node)];
  return Mat3((c + c.transpose()) / 2);
}

}  // namespace kranich::force
