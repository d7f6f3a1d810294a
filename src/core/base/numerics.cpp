// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/numerics.h"

#include <algorithm>
#include <boost/math/tools/minima.hpp>
#include <boost/math/tools/toms748_solve.hpp>
#include <cmath>
#include <cstdint>

namespace kranich {

std::optional<double> find_root(const Function& f, double from, double to) {
  const double a = f(from);
  const double b = f(to);
  if (!std::isfinite(a) || !std::isfinite(b)) return std::nullopt;
  if (a == 0) return from;
  if (b == 0) return to;
  if ((a < 0) == (b < 0)) return std::nullopt;
  std::uintmax_t evaluations = 100;
  const bool ordered = from < to;
  const auto [low, high] = boost::math::tools::toms748_solve(
      f, ordered ? from : to, ordered ? to : from, ordered ? a : b, ordered ? b : a,
      boost::math::tools::eps_tolerance<double>(46), evaluations);
  return std::abs(f(low)) < std::abs(f(high)) ? low : high;
}

std::optional<double> find_nearest_root(const Function& f, double start, double step, double low,
                                        double high) {
  const double f0 = f(start);
  if (!std::isfinite(f0)) return std::nullopt;
  if (f0 == 0) return start;
  double left = start;
  double right = start;
  for (int i = 0; i < 60 && (left > low || right < high); ++i, step *= 1.6) {
    const double next_right = std::min(right + step, high);
    if (next_right > right) {
      const double v = f(next_right);
      if (std::isfinite(v) && (v < 0) != (f0 < 0)) return find_root(f, right, next_right);
      right = next_right;
    }
    const double next_left = std::max(left - step, low);
    if (next_left < left) {
      const double v = f(next_left);
      if (std::isfinite(v) && (v < 0) != (f0 < 0)) return find_root(f, next_left, left);
      left = next_left;
    }
  }
  return std::nullopt;
}

Minimum find_minimum(const Function& f, double from, double to) {
  std::uintmax_t evaluations = 60;
  const auto [at, value] = boost::math::tools::brent_find_minima(f, from, to, 28, evaluations);
  return {at, value};
}

}  // namespace kranich
