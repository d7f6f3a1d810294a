// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/leg/geometry.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace kranich::leg {

TubeGeometry tube_geometry(const Vec3& top, const Vec3& foot) {
  const Vec3 d = foot - top;
  return {d.norm(), std::atan2(-d.x(), -d.z()), std::atan2(d.y(), -d.z())};
}

double angle_between(const Vec3& a, const Vec3& b) { return std::atan2(a.cross(b).norm(), a.dot(b)); }

double drill_angle(const Vec3& tube, const Vec3& pin) {
  const double a = angle_between(tube, pin);
  return std::min(a, std::numbers::pi - a);
}

std::optional<double> Cope::at(double phi) const {
  const double beside = offset + cut_radius * std::sin(phi);
  const double under = main_radius * main_radius - beside * beside;
  if (under < 0 || std::sin(angle) <= 0) return std::nullopt;
  return (std::sqrt(under) + cut_radius * std::cos(phi) * std::cos(angle)) / std::sin(angle);
}

double Cope::around() const { return 2 * std::numbers::pi * cut_radius; }

std::optional<double> Cope::depth() const {
  if (std::abs(offset) + cut_radius > main_radius * (1 + 1e-12)) return std::nullopt;
  double low = 1e9;
  double high = -1e9;
  for (int i = 0; i < 7200; ++i) {
    const auto t = at(2 * std::numbers::pi * i / 7200);
    if (!t) return std::nullopt;
    low = std::min(low, *t);
    high = std::max(high, *t);
  }
  return high - low;
}

Jig jig(double axle, double reference, double height, double overall, double out, double behind) {
  const double bar = overall - 2 * out;
  return {bar, axle - reference + height, std::hypot(behind, bar / 2)};
}

double toe_from_diagonals(double starboard, double port, double bar, double behind) {
  return std::asin((starboard * starboard - port * port) / (2 * bar * behind));
}

BarSetting setting_from_bar(double aft, double up, double apart) {
  // The axle's outer end ahead is toe-in, and its inner end, where the bar goes on, is aft by as much; an
  // outer end low is camber, the bar inboard then high.
  return {std::atan2(aft, apart), std::atan2(up, apart)};
}

double toe_of_difference(double difference, double diagonal, double bar, double behind) {
  return std::asin(2 * diagonal * difference / (2 * bar * behind));
}

}  // namespace kranich::leg
