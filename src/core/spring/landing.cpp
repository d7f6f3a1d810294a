// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/spring/landing.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/base/numerics.h"
#include "core/base/quantity.h"

namespace kranich::spring {
namespace {
constexpr double g = standard_gravity;
constexpr double foot = 0.3048;
constexpr double inch = 0.0254;
constexpr double psf = 0.45359237 * standard_gravity / (foot * foot);  // lbf/ft2 in N/m2
}  // namespace

RuleLanding landing_by_rule(double mass, double wing_area) {
  const double loading = mass * g / wing_area;
  const double speed = std::clamp(4.4 * std::pow(loading / psf, 0.25), 7.0, 10.0) * foot;
  const double height = std::clamp(3.6 * std::sqrt(loading / psf), 9.2, 18.7) * inch;
  return {loading, speed, height};
}

double sink_speed_of_drop(double height) { return std::sqrt(2 * g * height); }
double drop_of_sink_speed(double speed) { return speed * speed / (2 * g); }

double effective_mass(double mass, double h, double d, double lift) {
  return mass * (h + (1 - lift) * d) / (h + d);
}

Reserve reserve(double mass, double drop_height, double travel) {
  const double h = 1.44 * drop_height;
  return {h, sink_speed_of_drop(h), effective_mass(mass, h, travel, 1)};
}

Scaled froude(double s, double speed, double height, double time, double mass, double rate) {
  return {speed / std::sqrt(s), height / s, time / std::sqrt(s), mass / (s * s * s), rate / (s * s)};
}

std::optional<Stroke> first_estimate(const StrokeInput& in) {
  const double per_travel = in.strut_efficiency * in.load_factor - 1 + in.lift_ratio;
  if (!(per_travel > 0)) return std::nullopt;
  const double left = in.sink_speed * in.sink_speed / (2 * g) -
                      (in.tyre_efficiency * in.load_factor - 1 + in.lift_ratio) * in.tyre_deflection;
  return Stroke{std::max(0.0, left / per_travel), left / per_travel, in.load_factor * in.mass * g,
                in.load_factor + in.lift_ratio};
}

std::optional<double> load_factor_for_travel(StrokeInput in, double tyre_rate, double travel) {
  return load_factor_for_travel(
      in, [tyre_rate](double load) { return load / tyre_rate; }, travel);
}

std::optional<double> load_factor_for_travel(StrokeInput in, const std::function<double(double)>& squash,
                                             double travel) {
  const auto miss = [&](double factor) {
    in.load_factor = factor;
    in.tyre_deflection = squash(factor * in.mass * g);
    const auto s = first_estimate(in);
    return s ? s->balance - travel : std::numeric_limits<double>::quiet_NaN();
  };
  const double least = (1 - in.lift_ratio) / in.strut_efficiency * (1 + 1e-6) + 1e-6;
  return find_root(miss, least, 60);
}

}  // namespace kranich::spring
