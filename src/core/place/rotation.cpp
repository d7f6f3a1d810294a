// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/place/rotation.h"

#include <cmath>
#include <limits>

#include "core/base/quantity.h"

namespace kranich::place {
namespace {

//! q·gain = resist at the unloading of the nose wheel.
struct Moments {
  double resist, gain;
};
Moments moments(const GroundRun& r) {
  const double weight = r.mass * standard_gravity;
  const double tail = r.tail_area * r.tail_down_lift * r.slipstream;
  const double lift = r.wing_area * r.ground_lift;
  return {weight * (r.main_x - r.cg_x) + r.thrust * (r.thrust_height - r.cg_height) +
              r.friction * weight * r.cg_height,
          tail * (r.tail_x - r.main_x) + lift * (r.main_x - r.centre_x) +
              r.wing_area * r.drag * (r.drag_height - r.cg_height) + r.wing_area * r.mean_chord * r.moment +
              r.friction * r.cg_height * (lift - tail)};
}

}  // namespace

Rotation rotation(const GroundRun& r) {
  constexpr double nan = std::numeric_limits<double>::quiet_NaN();
  const double weight = r.mass * standard_gravity;
  Rotation out{};
  out.stall_speed = std::sqrt(2 * weight / (r.density * r.wing_area * r.greatest_lift));
  const auto [resist, gain] = moments(r);
  const double wanted = 1.05 * out.stall_speed;
  out.missing_moment = resist - 0.5 * r.density * wanted * wanted * gain;
  out.speed = out.ratio = out.main_load = out.acceleration = nan;
  if (resist <= 0) {
    out.verdict = Rotation::Verdict::at_standstill;
    out.speed = out.ratio = 0;
    out.main_load = weight;
    out.acceleration = (r.thrust - r.friction * weight) / r.mass;
    return out;
  }
  if (gain <= 0) {
    out.verdict = Rotation::Verdict::never;
    return out;
  }
  const double q = resist / gain;
  const double tail = r.tail_area * r.tail_down_lift * r.slipstream;
  out.main_load = weight - q * r.wing_area * r.ground_lift + q * tail;
  out.acceleration = (r.thrust - q * r.wing_area * r.drag - r.friction * out.main_load) / r.mass;
  out.speed = std::sqrt(2 * q / r.density);
  out.ratio = out.speed / out.stall_speed;
  if (out.main_load <= 0) {
    out.verdict = Rotation::Verdict::flies_off_first;
    return out;
  }
  if (out.acceleration <= 0) {
    out.verdict = Rotation::Verdict::not_moving_on;
    return out;
  }
  out.verdict = Rotation::Verdict::rotates;
  return out;
}

std::optional<double> furthest_aft_main(GroundRun r, double ratio) {
  // Both moments are linear in x_m: resist(x) − q·gain(x) = 0 has one root.
  const double weight = r.mass * standard_gravity;
  const double stall = std::sqrt(2 * weight / (r.density * r.wing_area * r.greatest_lift));
  const double q = 0.5 * r.density * ratio * ratio * stall * stall;
  const auto miss = [&](double x) {
    r.main_x = x;
    const auto [resist, gain] = moments(r);
    return resist - q * gain;
  };
  const double at_cg = miss(r.cg_x);
  const double slope = miss(r.cg_x + 1) - at_cg;
  if (!(slope > 0)) return std::nullopt;
  return r.cg_x - at_cg / slope;
}

}  // namespace kranich::place
