// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/drive/fall.h"

#include <array>
#include <boost/numeric/odeint.hpp>
#include <cmath>
#include <limits>

#include "core/base/numerics.h"

namespace kranich::drive {

namespace {

//! Lets it fall; how far it is followed: relative and absolute error of each step.
Fall followed(const FreeFall& f, double error) {
  const double full = f.load.moves.full_turn;
  Fall r{};
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
  namespace ode = boost::numeric::odeint;
  auto stepper = ode::make_dense_output(error, error, ode::runge_kutta_dopri5<State>());
  stepper.initialize(State{full, 0}, 0.0, 1e-4);
  constexpr double longest = 600;
  const auto over = [&](const State& x) { return x[0] <= 0 || (x[1] >= 0 && x[0] < full * (1 - 1e-9)); };
  while (!over(stepper.current_state()) && stepper.current_time() < longest) stepper.do_step(step);
  State at{};
  r.time = end_within(stepper, at, over);
  r.reaches_lock = at[0] <= 1e-7;
  r.arrival_speed = r.reaches_lock ? -at[1] : 0;
  r.stops_at = r.reaches_lock ? 0 : at[0];
  return r;
}

}  // namespace

Fall fall(const FreeFall& f) {
  Fall r = followed(f, 1e-10);
  r.least_to_spare = least_over(f.load.moves.full_turn, [&](double t) {
    const double loads = f.load.sum(t);
    return -loads - f.load.friction_under(loads);
  });
  return r;
}

double limit_speed(FreeFall f, double from, double to) {
  const auto reaches = [&](double speed) {
    f.load.stream.speed = speed;
    return followed(f, 1e-7).reaches_lock;  // ten times closer than the speed is told
  };
  const bool at_first = reaches(from);
  if (at_first == reaches(to)) return std::numeric_limits<double>::quiet_NaN();
  while (to - from > 1e-4 * to && to > 1e-3) {  // an airspeed is not read closer
    const double middle = (from + to) / 2;
    (reaches(middle) == at_first ? from : to) = middle;
  }
  return (from + to) / 2;
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
  constexpr int steps = 720;
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
