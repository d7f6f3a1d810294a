// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/place/place.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/base/numerics.h"
#include "core/base/quantity.h"
#include "core/force/leg_law.h"

namespace kranich::place {

std::optional<double> pitch_on(const RoundWheel& a, const RoundWheel& b) {
  // Both axles stand at their radii: û·(r_b − r_a) = R_b − R_a with û = (−sin θ, cos θ).
  const double dx = b.x - a.x;
  const double dz = b.z - a.z;
  const double distance = std::hypot(dx, dz);
  const double rise = b.radius - a.radius;
  if (!(distance > std::abs(rise))) return std::nullopt;
  // dz·cosθ − dx·sinθ = rise, i.e. distance·cos(θ + γ) = rise with γ = atan2(dx, dz).
  const double gamma = std::atan2(dx, dz);
  const double half = std::acos(rise / distance);
  for (double theta : {half - gamma, -half - gamma}) {
    theta = std::remainder(theta, 2 * std::numbers::pi);
    if (std::abs(theta) < std::numbers::pi / 4) return theta;
  }
  return std::nullopt;
}

double height_above_ground(const Vec3& p, const RoundWheel& w, double pitch) {
  return (p.z() - w.z) * std::cos(pitch) - (p.x() - w.x) * std::sin(pitch) + w.radius;
}

double behind_contact(const Vec3& p, const RoundWheel& w, double pitch) {
  return (p.x() - w.x) * std::cos(pitch) + (p.z() - w.z) * std::sin(pitch);
}

TipBack tip_back(double main_behind_cg, double cg_height, double loaded_radius) {
  return {std::atan2(main_behind_cg, cg_height), std::atan2(main_behind_cg, cg_height - loaded_radius)};
}

std::optional<TailStrike> tail_strike(std::span<const HighPoint> points, double radius) {
  std::optional<TailStrike> least;
  double at_contact = std::numeric_limits<double>::infinity();
  for (size_t i = 0; i < points.size(); ++i) {
    const auto& p = points[i];
    if (p.behind_main <= 0) continue;
    at_contact = std::min(at_contact, std::atan2(p.height, p.behind_main));
    // x·sinθ − (z − R)·cosθ = R: amplitude·sin(θ − φ) = R with tan φ = (z − R)/x.
    const double amplitude = std::hypot(p.behind_main, p.height - radius);
    if (amplitude < radius) continue;
    const double theta = std::asin(radius / amplitude) + std::atan2(p.height - radius, p.behind_main);
    if (!least || theta < least->round_wheels) least = TailStrike{0, theta, static_cast<int>(i)};
  }
  if (least) least->at_contact = at_contact;
  return least;
}

double third_wheel_share(double third_x, double main_x, double cg_x) {
  return (main_x - cg_x) / (main_x - third_x);
}

double nose_share_braking(double nose_x, double main_x, double cg_x, double h, double deceleration) {
  return ((main_x - cg_x) + deceleration * h) / (main_x - nose_x);
}

Turnover turnover(const Tripod& t) {
  const double delta = std::atan2(t.track / 2, std::abs(t.main_x - t.third_x));
  const double d = std::abs(t.cg_x - t.third_x) * std::sin(delta) - std::abs(t.cg_y) * std::cos(delta);
  return {std::atan2(t.cg_height, d), d, d / t.cg_height, d / (t.cg_height * std::cos(delta))};
}

double crosswind_tip_speed(const Tripod& t, double mass, double area, double coefficient, double height,
                           double density) {
  const double delta = std::atan2(t.track / 2, std::abs(t.main_x - t.third_x));
  const double moment = mass * standard_gravity * turnover(t).distance / std::cos(delta);
  return std::sqrt(2 * moment / (density * area * coefficient * height));
}

Vec3 lowest_of(const PropellerDisc& p, double pitch) {
  // The disc holds y and the direction square to its axis; that one points down in the side view.
  const Vec3 in_disc(std::sin(p.tilt), 0, -std::cos(p.tilt));
  const double sign = up_direction(pitch, 0).dot(in_disc) < 0 ? 1 : -1;
  return p.hub + sign * p.diameter / 2 * in_disc;
}

double propeller_clearance(const PropellerDisc& p, const RoundWheel& wheel, double pitch) {
  return height_above_ground(lowest_of(p, pitch), wheel, pitch);
}

std::optional<double> propeller_touch_pitch(const PropellerDisc& p, const RoundWheel& wheel,
                                            double from_pitch) {
  return find_root([&](double pitch) { return propeller_clearance(p, wheel, pitch); }, radians(-60),
                   from_pitch);
}

std::optional<TailwheelFigures> tailwheel_figures(const Tailwheel& g, const Vec3& cg) {
  const auto pitch = pitch_on(g.main, g.tail);
  if (!pitch) return std::nullopt;
  TailwheelFigures f{};
  const double level_behind = behind_contact(cg, g.main, 0);
  const double level_height = height_above_ground(cg, g.main, 0);
  f.axle_ahead_angle = std::atan2(level_behind, level_height);
  f.nose_over_level = level_behind / level_height;
  f.three_point_angle = *pitch;
  const double behind = behind_contact(cg, g.main, *pitch);
  f.cg_height_three_point = height_above_ground(cg, g.main, *pitch);
  f.nose_over_three_point = behind / f.cg_height_three_point;
  f.wheelbase = behind_contact(Vec3(g.tail.x, 0, g.tail.z), g.main, *pitch);
  f.tail_share = behind / f.wheelbase;
  const auto tip = turnover({f.wheelbase, 0, g.track, behind, cg.y(), f.cg_height_three_point});
  f.tip_square = tip.square_in_g;
  f.tip_sideways = tip.sideways_in_g;
  return f;
}

double pitch_of_sinking(double sinks_by, double behind) { return std::atan(sinks_by / behind); }

LegToContact contact_of(double length, double cant, double radius) {
  const double out = length * std::sin(cant);
  const double down = length * std::cos(cant) + radius;
  return {std::hypot(out, down), std::atan2(out, down)};
}

BendOut bend_out(double offset, double length, double before, double after) {
  const auto track = [&](double cant) { return 2 * (offset + length * std::sin(cant)); };
  return {track(before), track(after), length * (std::cos(before) - std::cos(after)), before - after};
}

std::optional<double> cant_for_track(double offset, double length, double track) {
  const double s = (track / 2 - offset) / length;
  if (std::abs(s) > 1) return std::nullopt;
  return std::asin(s);
}

WheelSize typical_main_wheel(double load) {
  const double lbf = load / find_unit(Kind::force, "lbf")->to_si;
  const double inch = find_unit(Kind::length, "in")->to_si;
  return {1.51 * std::pow(lbf, 0.349) * inch, 0.715 * std::pow(lbf, 0.312) * inch};
}

TyreState pneumatic_tyre(double diameter, double width, double load, double pressure) {
  const double rate = pressure * force::patch_per_squash(width, diameter);
  const double deflection = load / rate;
  return {diameter / 2 - deflection, deflection, load / pressure, rate};
}

}  // namespace kranich::place
