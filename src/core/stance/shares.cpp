// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stance/shares.h"

#include <Eigen/Dense>
#include <algorithm>

#include "core/base/quantity.h"

namespace kranich::stance {

std::optional<Shares> shares(double mass, double cg_x, double cg_y, const std::vector<FootSpring>& feet,
                             double h_pitch, double h_roll) {
  using Vector = Eigen::Vector3d;
  using Matrix = Eigen::Matrix3d;
  const double weight = mass * standard_gravity;
  // About the CG: the numbers stay near one another.
  const auto at = [&](const FootSpring& f) { return Vector(1, f.x - cg_x, f.y - cg_y); };
  const Matrix travel = Vector(0, weight * h_pitch, weight * h_roll).asDiagonal();
  const auto slope = [&](const Vector& x) {  // of the energy
    Vector g = -Vector(weight, 0, 0) - travel * x;
    for (const auto& f : feet) g += f.rate * std::max(0.0, at(f).dot(x) - f.height) * at(f);
    return g;
  };
  double highest = feet.empty() ? 0 : feet[0].height;
  for (const auto& f : feet) highest = std::max(highest, f.height);
  Vector x(highest + 1e-3, 0, 0);  // all feet bear
  for (int i = 0; i < 200; ++i) {
    Matrix k = -travel;
    for (const auto& f : feet)
      if (at(f).dot(x) > f.height) k += f.rate * at(f) * at(f).transpose();
    const Eigen::LDLT<Matrix> factor(k);
    if (factor.info() != Eigen::Success || !factor.isPositive() || factor.vectorD().minCoeff() <= 0)
      return std::nullopt;
    const Vector g = slope(x);
    const Vector step = -factor.solve(g);
    // Contacts are kinks: where the slope along the step turns over, it is cut there.
    double reach = 1;
    for (int n = 0; n < 40 && slope(x + reach * step).dot(step) > 1e-9 * std::abs(g.dot(step)); ++n)
      reach /= 2;
    x += reach * step;
    if (!x.allFinite()) return std::nullopt;
    if (slope(x).norm() <= 1e-11 * weight) {
      Shares s{x[0] - x[1] * cg_x - x[2] * cg_y, x[1], x[2], {}};
      for (const auto& f : feet) s.load.push_back(f.rate * std::max(0.0, at(f).dot(x) - f.height));
      return s;
    }
  }
  return std::nullopt;
}

}  // namespace kranich::stance
