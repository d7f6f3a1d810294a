// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/drive/load.h"

#include <algorithm>
#include <boost/math/quadrature/gauss_kronrod.hpp>
#include <cmath>
#include <limits>
#include <optional>

#include "core/base/numerics.h"
#include "core/base/quantity.h"

namespace kranich::drive {

using motion::Carried;

double length_of(const motion::Retracting& leg, const Strut& s, double turn) {
  return (leg.pose(Carried::leg, turn) * s.on_leg - s.on_airframe).norm();
}

double arm_of(const motion::Retracting& leg, const Strut& s, double turn) {
  const motion::Carriage now = leg.carriage(Carried::leg, turn);
  return (now.pose * s.on_leg - s.on_airframe).normalized().dot(now.velocity(s.on_leg));
}

double DownSpring::force_at(double length) const {
  const double closed = std::max(0.0, extended_length - length);
  return extended_force / (1 - (1 - 1 / progression) * closed / full_stroke);
}

Vec3 gravity(double pitch, double roll) {
  return standard_gravity *
         Vec3(std::sin(pitch), std::cos(pitch) * std::sin(roll), -std::cos(pitch) * std::cos(roll));
}

namespace {

//! Much is asked for at one turn: what carries it is worked out once, the lower part where it is needed.
struct Posed {
  const motion::Retracting& moves;
  double turn;
  motion::Carriage leg;
  std::optional<motion::Carriage> wheel = std::nullopt;
  Posed(const motion::Retracting& m, double at) : moves(m), turn(at), leg(m.carriage(Carried::leg, at)) {}
  double torque(Carried what, const Vec3& point, const Vec3& force) {
    if (what == Carried::wheel && !wheel) wheel = moves.carriage(what, turn);
    return force.dot((what == Carried::leg ? leg : *wheel).velocity(point));
  }
};

double weight_on(const LegLoad& l, Posed& p) {
  const Vec3 pull = l.load_factor * gravity(l.pitch, l.roll);
  double sum = 0;
  for (const Mass& m : l.masses) sum += p.torque(m.carried, m.at, m.mass * pull);
  return sum;
}

double air_on(const LegLoad& l, Posed& p) {
  if (l.stream.speed == 0) return 0;
  const Vec3 along = l.stream.direction.normalized();
  const Vec3 leg = p.leg.pose.linear() * l.air.leg_direction.normalized();
  const double square = leg.cross(along).squaredNorm();
  const double pressure = l.stream.density * l.stream.speed * l.stream.speed / 2;
  const Vec3 force = pressure * (l.air.turning_area * square + l.air.constant_area) * along;
  return p.torque(l.air.carried, l.air.centre, force);
}

double spring_on(const LegLoad& l, Posed& p) {
  if (!l.spring) return 0;
  const Vec3 way = p.leg.pose * l.spring->strut.on_leg - l.spring->strut.on_airframe;
  const double length = way.norm();
  return p.torque(Carried::leg, l.spring->strut.on_leg, l.spring->force_at(length) / length * way);
}

}  // namespace

double LegLoad::weight_torque(double turn) const {
  Posed p(moves, turn);
  return weight_on(*this, p);
}
double LegLoad::air_torque(double turn) const {
  Posed p(moves, turn);
  return air_on(*this, p);
}
double LegLoad::spring_torque(double turn) const {
  Posed p(moves, turn);
  return spring_on(*this, p);
}
double LegLoad::sum(double turn) const {
  Posed p(moves, turn);
  return weight_on(*this, p) + air_on(*this, p) + spring_on(*this, p);
}

double LegLoad::friction_torque(double turn) const { return friction_under(sum(turn)); }

double LegLoad::to_retract(double turn, double acceleration) const {
  const double loads = sum(turn);
  return -loads + friction_under(loads) + acceleration;
}
double LegLoad::to_extend(double turn, double acceleration) const {
  const double loads = sum(turn);
  return loads + friction_under(loads) + acceleration;
}

Extreme largest_over(double full, const std::function<double(double)>& f) {
  constexpr int steps = 48;  // smooth between two of them: the nearest is refined
  const double step = full / steps;
  std::vector<double> at;
  for (int i = 0; i <= steps; ++i) at.push_back(f(i * step));
  Extreme best{-std::numeric_limits<double>::infinity(), 0};
  for (size_t i = 0; i < at.size(); ++i) {
    if (at[i] > best.value) best = {at[i], static_cast<double>(i) * step};
    // A peak is refined to both sides, one at an end to its own.
    if ((i > 0 && at[i] < at[i - 1]) || (i + 1 < at.size() && at[i] < at[i + 1])) continue;
    const double middle = static_cast<double>(i) * step;
    const auto low = find_minimum([&](double x) { return -f(x); }, std::max(0.0, middle - step),
                                  std::min(full, middle + step));
    if (-low.value > best.value) best = {-low.value, low.at};
  }
  return best;
}

Extreme least_over(double full, const std::function<double(double)>& f) {
  const Extreme e = largest_over(full, [&](double x) { return -f(x); });
  return {-e.value, e.turn};
}

double work_over(double full, const std::function<double(double)>& torque) {
  return boost::math::quadrature::gauss_kronrod<double, 31>::integrate(torque, 0.0, full, 6, 1e-10);
}

double moving_force(const LegLoad& load, const Strut& s, double turn, bool up) {
  return (up ? load.to_retract(turn) : -load.to_extend(turn)) / arm_of(load.moves, s, turn);
}

double actuator_force(const LegLoad& load, const Strut& s, double turn) {
  return -load.sum(turn) / arm_of(load.moves, s, turn);
}

ActuatorFigures actuator_figures(const LegLoad& load, const Strut& s) {
  constexpr double nan = std::numeric_limits<double>::quiet_NaN();
  const double full = load.moves.full_turn;
  const auto length = [&](double t) { return length_of(load.moves, s, t); };
  const auto arm = [&](double t) { return arm_of(load.moves, s, t); };
  ActuatorFigures f{};
  f.length_down = length(0);
  f.length_stowed = length(full);
  f.shortest = least_over(full, length).value;
  f.longest = largest_over(full, length).value;
  constexpr int steps = 96;
  double before = arm(0);
  for (int i = 0; i < steps; ++i) {
    const double a = full * i / steps;
    const double b = full * (i + 1) / steps;
    const double after = arm(b);
    const bool crosses = (before < 0) != (after < 0);
    before = after;
    if (!crosses) continue;
    if (const auto dead = find_root(arm, a, b)) f.dead_centres.push_back(*dead);
  }
  f.least_arm = least_over(full, [&](double t) { return std::abs(arm(t)); });
  f.highest_push = f.lowest_push = {nan, nan};
  if (f.dead_centres.empty()) {
    const auto force = [&](double t) { return actuator_force(load, s, t); };
    f.highest_push = largest_over(full, force);
    f.lowest_push = least_over(full, force);
  }
  f.work = work_over(full, [&](double t) { return -load.sum(t); });
  return f;
}

}  // namespace kranich::drive
