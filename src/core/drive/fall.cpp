// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/drive/fall.h"

#include <array>
#include <cmath>
#include <limits>

#include "core/base/numerics.h"
#include "core/base/ode.h"

namespace kranich::drive {

Fall fall(const FreeFall& f) {
  const double full = f.load.moves.full_turn;
  Fall r{};
  r.least_to_spare = least_over(full, [&](double t) {
    const double loads = f.load.sum(t);
    return -loads - f.load.friction_under(loads);
  });
  using State = std::array<double, 2>;
  const auto step = [&](const State& x, State& dx, double) {
    // It goes down: what opposes the motion acts towards stowed. Standing still it only starts if something
    // is left.
    const double loads = f.load.sum(x[0]);
    const double against = f.load.friction_under(loads) + f.fluid * x[1] * x[1];
    double torque = loads + against;
    if (x[1] >= 0 && torque > 0) torque = 0;
    dx = {x[1], torque / f.inertia};
  };
  if (-f.load.sum(full) - f.load.friction_torque(full) <= 0) {
    r.stops_at = full;
    return r;
  }
  // Down and locked, or turned back on the way.
  const auto ends = [](const State& x) { return x; };
  Following motion(State{full, 0}, step, ends, 1e-4, 1e-10, 1e-10);
  constexpr double longest = 600;
  while (motion.time() < longest && motion.step(longest).crossed < 0) {
  }
  const State& at = motion.state();
  r.time = motion.time();
  r.reaches_lock = at[0] <= 1e-7;
  r.arrival_speed = r.reaches_lock ? -at[1] : 0;
  r.stops_at = r.reaches_lock ? 0 : at[0];
  return r;
}

namespace {

//! What pulls a leg down over its travel, asked at many airspeeds: the air's torque goes with the square.
class Falling {
 public:
  explicit Falling(FreeFall f) : friction_(f.load.friction), step_(f.load.moves.full_turn / pieces) {
    const double decay = 2 * f.fluid / f.inertia * step_;
    keeps_ = std::exp(-decay);
    // Of a torque that is straight over a piece, what its two ends leave of energy at the piece's end.
    const double first = decay > 1e-6 ? -std::expm1(-decay) / decay : 1 - decay / 2;
    after_ = decay > 1e-3 ? (1 - first) / decay : 0.5 - decay / 6;
    before_ = first - after_;
    for (int i = 0; i <= pieces; ++i) {
      const double turn = f.load.moves.full_turn - i * step_;
      still_[static_cast<size_t>(i)] = f.load.weight_torque(turn) + f.load.spring_torque(turn);
      f.load.stream.speed = 1;
      air_[static_cast<size_t>(i)] = f.load.air_torque(turn);
    }
  }
  //! With E = ½·J·ψ̇² and s the turn gone, dE/ds = torque down − 2·c/J·E: it arrives where E stays above 0.
  bool reaches_lock(double speed) const {
    const auto down = [&](size_t i) {
      const double loads = still_[i] + speed * speed * air_[i];
      return -loads - friction_.share * std::abs(loads) - friction_.constant;
    };
    double torque = down(0);
    if (!(torque > 0)) return false;
    double energy = 0;
    for (size_t i = 1; i < still_.size(); ++i) {
      const double next = down(i);
      energy = keeps_ * energy + step_ * (before_ * torque + after_ * next);
      if (!(energy > 0)) return false;
      torque = next;
    }
    return true;
  }

 private:
  static constexpr int pieces = 360;  // straight over each: the speed to a few millionths
  Friction friction_;
  double step_;
  double keeps_ = 1, before_ = 0.5, after_ = 0.5;
  std::array<double, pieces + 1> still_{}, air_{};
};

}  // namespace

double limit_speed(const FreeFall& leg, double from, double to) {
  const Falling falls(leg);
  const bool at_first = falls.reaches_lock(from);
  if (at_first == falls.reaches_lock(to)) return std::numeric_limits<double>::quiet_NaN();
  return begins_to_hold([&](double speed) { return falls.reaches_lock(speed) != at_first; }, from, to);
}

SpringSizing size_spring(const LegLoad& given, DownSpring spring, double reserve) {
  LegLoad load = given;
  load.spring.reset();
  const double full = load.moves.full_turn;
  // What weight and air lack towards down; below 0 there is something left.
  const auto lacks = [&](double t) { return load.sum(t) + load.friction.constant; };
  SpringSizing s{};
  s.shortfall = largest_over(full, lacks);
  s.without_reaches_lock = s.shortfall.value <= 0;
  constexpr int steps = 180;
  for (int i = 0; i < steps; ++i) {
    const double a = full * i / steps;
    const double b = full * (i + 1) / steps;
    if ((lacks(a) > 0) == (lacks(b) > 0)) continue;
    if (const auto end = find_root(lacks, a, b)) s.gap_ends.push_back(*end);
  }
  spring.extended_force = 1;
  const auto per_newton = [&](double t) {
    return -spring.force_at(length_of(load.moves, spring.strut, t)) * arm_of(load.moves, spring.strut, t);
  };
  const auto wanted = [&](double t) {
    const double need = reserve * std::max(0.0, lacks(t));
    if (need == 0) return 0.0;
    const double gives = per_newton(t);
    return gives > 0 ? need / gives : std::numeric_limits<double>::infinity();
  };
  const Extreme most = largest_over(full, wanted);
  s.least_force = most.value;
  s.governing_turn = most.turn;
  const auto length = [&](double t) { return length_of(load.moves, spring.strut, t); };
  s.stroke_used = largest_over(full, length).value - least_over(full, length).value;
  spring.extended_force = s.least_force;
  s.force_stowed = spring.force_at(length_of(load.moves, spring.strut, full));
  s.retract_without = largest_over(full, [&](double t) { return load.to_retract(t); }).value;
  load.spring = spring;
  s.retract_with = largest_over(full, [&](double t) { return load.to_retract(t); }).value;
  return s;
}

}  // namespace kranich::drive
