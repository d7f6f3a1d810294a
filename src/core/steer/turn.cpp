// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/steer/turn.h"

#include <cmath>

#include "core/base/quantity.h"

namespace kranich::steer {

TurnFigures turn_figures(const Turning& t) {
  TurnFigures f{};
  f.ground_angle = std::atan(std::cos(t.rake) * std::tan(t.angle));
  f.middle = t.wheelbase / std::tan(f.ground_angle);
  f.inner = f.middle - t.track / 2;
  f.outer = f.middle + t.track / 2;
  f.steered = t.wheelbase / std::sin(f.ground_angle);
  f.tip = std::hypot(f.middle + t.span / 2, t.tip_ahead);
  return f;
}

double angle_for(const Turning& t, double radius) {
  return std::atan(t.wheelbase / radius / std::cos(t.rake));
}

double sideways(double radius, double speed) { return speed * speed / radius / standard_gravity; }
double speed_for(double radius, double g) { return std::sqrt(g * standard_gravity * radius); }

}  // namespace kranich::steer
