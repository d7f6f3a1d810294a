// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/numerics.h"

#include <algorithm>
#include <boost/math/tools/minima.hpp>
#include <boost/math/tools/toms748_solve.hpp>
#include <cmath>
#include <cstdint>

namespace kranich {

std::optional<double> find_root(const Function& f, double from, double to, double within) {
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
      [&, eps = boost::math::tools::eps_tolerance<double>(46)](double x, double y) mutable {
        return std::abs(x - y) <= within || eps(x, y);
      },
      evaluations);
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

std::optional<double> find_root_downhill(const Function& f, double start, double step, double low,
                                         double high, double within) {
  const double f0 = f(start);
  if (!std::isfinite(f0)) return std::nullopt;
  if (f0 == 0) return start;
  const double up = f(std::min(start + step, high));
  const double down = f(std::max(start - step, low));
  const bool up_is_nearer = std::isfinite(up) && (!std::isfinite(down) || std::abs(up) <= std::abs(down));
  // A sign change on either side is the answer; else go on where it gets less.
  if (std::isfinite(up) && (up < 0) != (f0 < 0))
    return find_root(f, start, std::min(start + step, high), within);
  if (std::isfinite(down) && (down < 0) != (f0 < 0))
    return find_root(f, std::max(start - step, low), start, within);
  const double sign = up_is_nearer ? 1 : -1;
  double at = start + sign * step;
  double value = up_is_nearer ? up : down;
  const double gained = std::abs(f0) - std::abs(value);
  if (!std::isfinite(value) || gained <= 0) return std::nullopt;
  // Hopeless: at this slope, and at four times this slope, the bounds come first.
  if (std::abs(f0) / gained * step > 4 * (high - low)) return std::nullopt;
  // A little beyond where the straight line meets zero; twice as far each time it does not suffice.
  double ahead = 1.25 * std::abs(value) / gained * step;
  while (at > low && at < high) {
    double next = std::clamp(at + sign * std::max(step, ahead), low, high);
    double next_value = f(next);
    // Too far: into where there is no answer, or across a narrow band to where it is as bad again.
    const auto too_far = [&] {
      return !std::isfinite(next_value) ||
             ((next_value < 0) == (f0 < 0) && std::abs(next_value) >= std::abs(value));
    };
    for (int i = 0; i < 5 && too_far(); ++i) {
      next = (at + next) / 2;
      next_value = f(next);
    }
    if (too_far()) return std::nullopt;
    if ((next_value < 0) != (f0 < 0))
      return sign > 0 ? find_root(f, at, next, within) : find_root(f, next, at, within);
    at = next;
    value = next_value;
    ahead *= 2;
    step *= 2;
  }
  return std::nullopt;
}

Minimum find_minimum(const Function& f, double from, double to) {
  std::uintmax_t evaluations = 60;
  const auto [at, value] = boost::math::tools::brent_find_minima(f, from, to, 28, evaluations);
  return {at, value};
}

}  // namespace kranich
