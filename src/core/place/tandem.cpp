// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/place/tandem.h"

#include <Eigen/Dense>
#include <algorithm>
#include <boost/math/quadrature/gauss_kronrod.hpp>
#include <cmath>
#include <limits>
#include <numbers>

#include "core/base/numerics.h"
#include "core/base/quantity.h"
#include "core/force/leg_law.h"
#include "core/place/tipping.h"

namespace kranich::place {
namespace {
constexpr double g = standard_gravity;
constexpr double nan = std::numeric_limits<double>::quiet_NaN();
constexpr double infinite = std::numeric_limits<double>::infinity();
}  // namespace

double lowest_height(const Disc& d, const Vec3& up) {
  return up.dot(d.axle) - d.radius * std::sqrt(std::max(0.0, 1 - up.y() * up.y()));
}

Vec3 contact_of(const Disc& d, const Vec3& up) {
  // Down the disc's own plane, which holds x and z.
  const Vec3 in_plane(up.x(), 0, up.z());
  return d.axle - d.radius * in_plane.normalized();
}

std::optional<double> pitch_on_discs(const Disc& front, const Disc& rear, double roll) {
  const auto miss = [&](double pitch) {
    const Vec3 up = up_direction(pitch, roll);
    return lowest_height(front, up) - lowest_height(rear, up);
  };
  return find_nearest_root(miss, 0, 0.02, -std::numbers::pi / 4, std::numbers::pi / 4);
}

double rear_brakes_alone(double front_x, double rear_x, double cg_x, double cg_height, double friction) {
  return friction * (cg_x - front_x) / (rear_x - front_x + friction * cg_height);
}

std::optional<OutriggerTouch> outrigger_touch(const Disc& front, const Disc& rear, const Disc& outrigger,
                                              const Vec3& cg, const Vec3& point) {
  const double side = outrigger.axle.y() < 0 ? -1 : 1;
  const auto upward = [&](double roll) -> std::optional<Vec3> {
    const auto pitch = pitch_on_discs(front, rear, side * roll);
    return pitch ? std::optional(up_direction(*pitch, side * roll)) : std::nullopt;
  };
  const auto clear = [&](double roll) {
    const auto up = upward(roll);
    return up ? lowest_height(outrigger, *up) - lowest_height(front, *up) : nan;
  };
  const auto pitch = pitch_on_discs(front, rear, 0);
  if (!pitch) return std::nullopt;
  const auto roll = find_nearest_root(clear, 0, 0.01, -std::numbers::pi / 3, std::numbers::pi / 3);
  if (!roll) return std::nullopt;
  OutriggerTouch t{clear(0), *roll, *pitch, nan, nan};
  const Vec3 up = *upward(*roll);
  // Ground axes: y across, level; x along the ground, aft.
  const Vec3 across(0, std::cos(side * *roll), std::sin(side * *roll));
  const Vec3 along = across.cross(up);
  const auto on_ground = [&](const Vec3& p) { return Eigen::Vector2d(along.dot(p), across.dot(p)); };
  const Eigen::Vector2d a = on_ground(contact_of(front, up));
  const Eigen::Vector2d line = (on_ground(contact_of(rear, up)) - a).normalized();
  const Eigen::Vector2d to = on_ground(cg) - a;
  t.cg_beside = side * (line.x() * to.y() - line.y() * to.x());
  t.point_height = up.dot(point) - lowest_height(front, up);
  return t;
}

std::optional<Topple> topple(double mass, double h, double inertia, double gap, double offset, double rate) {
  const double weight = mass * g;
  Topple t{};
  t.roll_at_touch = std::atan2(gap, offset);
  const double about_line = inertia + mass * h * h;
  t.rate_at_touch = std::sqrt(2 * weight * h * (1 - std::cos(t.roll_at_touch)) / about_line);
  const auto closure = [&](double roll) { return offset * std::sin(roll) - gap * std::cos(roll); };
  // Moment of weight against that of the spring; and the energy of the fall against the spring's.
  const auto moment = [&](double roll) {
    return rate * closure(roll) * (offset * std::cos(roll) + gap * std::sin(roll)) -
           weight * h * std::sin(roll);
  };
  const auto energy = [&](double roll) {
    return 0.5 * rate * closure(roll) * closure(roll) - weight * h * (1 - std::cos(roll));
  };
  const auto rests = find_nearest_root(moment, t.roll_at_touch, 1e-3, t.roll_at_touch, 1.4);
  if (!rests) return std::nullopt;
  const auto stops = find_nearest_root(energy, *rests, 1e-3, *rests, 1.5);
  if (!stops) return std::nullopt;
  t.resting_roll = *rests;
  t.resting_load = rate * closure(*rests);
  t.greatest_roll = *stops;
  t.greatest_load = rate * closure(*stops);
  return t;
}

Liftoff liftoff_in_stance(const LiftoffInput& in, double pitch) {
  Liftoff l{};
  const double weight = in.mass * g;
  l.pitch = pitch;
  l.lift_coefficient = in.lift_slope * (pitch + in.incidence - in.zero_lift_angle);
  l.stall_speed = std::sqrt(2 * weight / (in.density * in.wing_area * in.greatest_lift));
  l.run = l.time = nan;
  if (!(l.lift_coefficient > 0)) {
    l.speed = l.ratio = infinite;
    return l;
  }
  l.speed = std::sqrt(2 * weight / (in.density * in.wing_area * l.lift_coefficient));
  l.ratio = l.speed / l.stall_speed;
  const auto acceleration = [&](double v) {
    const double q = 0.5 * in.density * v * v * in.wing_area;
    return (in.thrust - q * in.drag - in.friction * (weight - q * l.lift_coefficient)) / in.mass;
  };
  // Linear in v²: least at one of its ends.
  l.lifts_off = acceleration(0) > 0 && acceleration(l.speed) > 0;
  if (!l.lifts_off) return l;
  using Quadrature = boost::math::quadrature::gauss_kronrod<double, 31>;
  l.run = Quadrature::integrate([&](double v) { return v / acceleration(v); }, 0.0, l.speed, 8, 1e-10);
  l.time = Quadrature::integrate([&](double v) { return 1 / acceleration(v); }, 0.0, l.speed, 8, 1e-10);
  return l;
}

double wheels_empty_speed(double mass, double density, double wing_area, double lift, double tail_area,
                          double tail_down) {
  const double area = wing_area * lift - tail_area * tail_down;
  return area > 0 ? std::sqrt(2 * mass * g / (density * area)) : infinite;
}

TwinWheels twin_wheels(double load, double spacing, const WheelSize& tyre, double pressure,
                       double flat_radius, double lean, double friction) {
  TwinWheels t{};
  const double rate = pressure * force::patch_per_squash(tyre.width, tyre.diameter);
  t.load_each = load / 2;
  t.loaded_radius = tyre.diameter / 2 - t.load_each / rate;
  t.contact_area_each = t.load_each / pressure;
  // The closures differ by s·sin φ: half of it each, until one of them lifts.
  const double shift = rate * spacing * std::sin(lean) / 2;
  const double port = t.load_each - shift;
  t.load_port = std::clamp(port, 0.0, load);
  t.load_starboard = load - t.load_port;
  t.lifts_at = load / (rate * spacing) < 1 ? std::asin(load / (rate * spacing)) : std::numbers::pi / 2;
  t.roll_stiffness = rate * spacing * spacing / 2;
  t.one_flat_radius = tyre.diameter / 2 - load / rate;
  t.one_flat_rim_clear = t.one_flat_radius - flat_radius;
  t.one_flat_sinks = t.loaded_radius - t.one_flat_radius;
  t.one_flat_moment = load * spacing / 2;
  t.scrub_moment = friction * load * spacing / 2;
  return t;
}

TurnCentre turn_of_tandem(double front_x, double rear_x, double front_steer, double rear_steer) {
  const double sum = std::tan(front_steer) + std::tan(rear_steer);
  if (sum == 0) return {nan, infinite};  // it runs straight, or crabs
  const double r = (rear_x - front_x) / sum;
  return {front_x + r * std::tan(front_steer), r};
}

double path_angle(const TurnCentre& c, double x, double y) { return std::atan((c.x - x) / (c.y - y)); }

std::optional<ScrubTurn> turn_of_four_mains(double nose_x, double front_x, double rear_x, double steer,
                                            double c_nose, double c_front, double c_rear, double friction,
                                            double front_load, double rear_load) {
  const double middle = (front_x + rear_x) / 2;
  const double arm = middle - nose_x;
  const double half = (rear_x - front_x) / 2;
  ScrubTurn t{};
  t.radius_without_scrub = arm / std::tan(steer);
  t.scrub_moment = 2 * friction * front_load * rear_load * 2 * half / (front_load + rear_load);
  // Unknown: sideways speed v and yaw rate r of the middle at a forward speed of one.
  const auto balance = [&](const Eigen::Vector2d& x) {
    const double nose = c_nose * (steer - std::atan(x[0] + arm * x[1])) * std::cos(steer);
    const double front = c_front * std::atan(x[0] + half * x[1]);
    const double rear = c_rear * std::atan(x[0] - half * x[1]);
    return Eigen::Vector2d(nose - front - rear, arm * nose - half * front + half * rear);
  };
  Eigen::Vector2d x(0, 1 / t.radius_without_scrub);
  for (int i = 0; i < 60; ++i) {
    const Eigen::Vector2d f = balance(x);
    Eigen::Matrix2d slope;
    for (int k = 0; k < 2; ++k) {
      const double step = 1e-7 * std::max(1e-3, std::abs(x[k]));
      Eigen::Vector2d there = x;
      there[k] += step;
      slope.col(k) = (balance(there) - f) / step;
    }
    const Eigen::Vector2d change = slope.fullPivLu().solve(f);
    x -= change;
    if (!x.allFinite()) return std::nullopt;
    if (change.norm() < 1e-13) break;
  }
  t.radius = 1 / x[1];
  t.slip_front = std::abs(std::atan(x[0] + half * x[1]));
  t.slip_rear = std::abs(std::atan(x[0] - half * x[1]));
  return t;
}

std::optional<LeanedTipping> leaned_tipping(const Foot& front, const Foot& rear, const Foot& outrigger,
                                            double cg_x, double cg_y, double cg_height) {
  const Vec2 a(front.x, front.y);
  const double base = (Vec2(rear.x, rear.y) - a).norm();
  const Vec2 line = (Vec2(rear.x, rear.y) - a) / base;
  // Along the line, and square to it towards the outrigger.
  const auto square = [&](double x, double y) { return line.x() * (y - a.y()) - line.y() * (x - a.x()); };
  const auto along = [&](double x, double y) { return line.dot(Vec2(x, y) - a); };
  const double out = square(outrigger.x, outrigger.y);
  if (std::abs(out) < 1e-9) return std::nullopt;
  const double side = out < 0 ? -1 : 1;
  LeanedTipping t{};
  t.roll = std::atan2(outrigger.height, std::abs(out));
  // Turned about the line, the CG comes over and down.
  const double beside = side * square(cg_x, cg_y);
  const Vec2 cg(along(cg_x, cg_y), beside * std::cos(t.roll) + cg_height * std::sin(t.roll));
  const double height = cg_height * std::cos(t.roll) - beside * std::sin(t.roll);
  const Vec2 foot(along(outrigger.x, outrigger.y), std::hypot(out, outrigger.height));
  t.share = cg.y() / foot.y();
  double least = infinite;
  double sideways = infinite;
  for (const Vec2& end : {Vec2(0, 0), Vec2(base, 0)}) {
    const Vec2 edge = (foot - end).normalized();
    Vec2 outward(edge.y(), -edge.x());
    // Away from the other end of the line.
    const Vec2 other = end.x() == 0 ? Vec2(base, 0) : Vec2(0, 0);
    if (outward.dot(other - end) > 0) outward = -outward;
    const double distance = outward.dot(end - cg);
    least = std::min(least, distance);
    if (outward.y() > 1e-12) sideways = std::min(sideways, distance / outward.y());
  }
  t.least_in_g = least / height;
  t.sideways_in_g = sideways / height;
  t.turnover = std::atan2(height, least);
  return t;
}

}  // namespace kranich::place
