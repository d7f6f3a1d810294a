// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/spring/drop.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

#include "core/base/numerics.h"
#include "core/base/ode.h"
#include "core/base/quantity.h"
#include "core/spring/landing.h"

namespace kranich::spring {
namespace {

constexpr double g = standard_gravity;
constexpr double nan = std::numeric_limits<double>::quiet_NaN();

//! z_s, z_u, their speeds; work of damper and of friction.
using State = std::array<double, 6>;
enum { zs, zu, vs, vu, w_damper, w_friction };

double friction_of(const Damper& d, double speed) {
  return d.friction == 0 ? 0 : d.friction * std::tanh(speed / 0.02);
}

double damping_of(const Damper& d, double stroke, double v) {
  double f = (v > 0 ? d.closing : d.extending) * v;
  if (d.oil_area > 0) {
    double orifice = v > 0 ? d.orifice_closing : d.orifice_extending;
    if (v > 0 && !d.metered.empty()) {
      const auto& m = d.metered;
      size_t i = 0;
      while (i + 2 < m.size() && stroke > m[i + 1].first) ++i;
      orifice =
          m.size() == 1
              ? m[0].second
              : m[i].second + (m[i + 1].second - m[i].second) *
                                  std::clamp((stroke - m[i].first) / (m[i + 1].first - m[i].first), 0.0, 1.0);
    }
    if (orifice > 0)
      f += 0.5 * d.oil_density * d.oil_area * d.oil_area * d.oil_area * v * std::abs(v) /
           (d.discharge * orifice * d.discharge * orifice);
  }
  return f;
}

class Leg {
 public:
  explicit Leg(const DropModel& m) : m_(m), rigid_(m.spring.kind == force::LegLaw::Kind::rigid) {}

  double spring(double s) const { return m_.spring.force(std::max(0.0, s)); }
  double stops(double s) const {
    return s > m_.travel ? m_.bottom_stop * (s - m_.travel) : s < 0 ? m_.extension_stop * s : 0;
  }
  double strut(double s, double v) const {
    return spring(s) + stops(s) + damping_of(m_.damper, s, v) + friction_of(m_.damper, v);
  }
  double spring_energy(double s) const { return s > 0 ? m_.spring.energy(s) : m_.spring.force(0) * s; }
  double stop_energy(double s) const {
    const double over = s > m_.travel ? s - m_.travel : 0;
    const double under = s < 0 ? s : 0;
    return 0.5 * m_.bottom_stop * over * over + 0.5 * m_.extension_stop * under * under;
  }
  double tyre_energy(double z) const { return m_.tyre.energy(z); }
  State start(double speed) const {
    if (rigid_) return {0, 0, speed, speed, 0, 0};
    // On the extension stop with F = −K·m_u·g: s = −(F₀ + K·m_u·g)/k_e.
    const double s = -(m_.spring.force(0) + m_.lift_ratio * m_.unsprung_mass * g) / m_.extension_stop;
    return {s, 0, speed, speed, 0, 0};
  }
  void operator()(const State& x, State& dx, double) const {
    const double tyre = m_.tyre.force(x[zu]);
    const double lift = m_.lift_ratio * m_.mass() * g;
    if (rigid_) {
      const double a = g - (lift + tyre) / m_.mass();
      dx = {x[vs], x[vs], a, a, 0, 0};
      return;
    }
    const double s = x[zs] - x[zu];
    const double v = x[vs] - x[vu];
    const double damping = damping_of(m_.damper, s, v);
    const double friction = friction_of(m_.damper, v);
    const double f = spring(s) + stops(s) + damping + friction;
    dx = {x[vs],       x[vu],       g - (lift + f) / m_.sprung_mass, g + (f - tyre) / m_.unsprung_mass,
          damping * v, friction * v};
  }
  bool rigid() const { return rigid_; }
  const DropModel& model() const { return m_; }
  //! All the energy there is, against what there was and what weight less lift has done: constant.
  double balance(const State& x) const {
    const double kinetic =
        rigid_ ? 0.5 * m_.mass() * x[vs] * x[vs]
               : 0.5 * m_.sprung_mass * x[vs] * x[vs] + 0.5 * m_.unsprung_mass * x[vu] * x[vu];
    const double s = x[zs] - x[zu];
    const double stored = rigid_ ? 0 : spring_energy(s) + stop_energy(s) + x[w_damper] + x[w_friction];
    const double weight =
        rigid_ ? m_.mass() * g * (1 - m_.lift_ratio) * x[zs]
               : (m_.sprung_mass - m_.lift_ratio * m_.mass()) * g * x[zs] + m_.unsprung_mass * g * x[zu];
    return kinetic + stored + tyre_energy(x[zu]) - weight;
  }

 private:
  const DropModel& m_;
  bool rigid_;
};

//! What is watched: each crosses zero where the right-hand side has a kink or the motion a turning point.
constexpr int sinking = 3;  // the sprung mass's speed, among them
std::array<double, 6> watched(const Leg& leg, const State& x) {
  const double s = x[zs] - x[zu];
  return {x[zu],
          leg.rigid() ? 1 : s,
          leg.rigid() ? 1 : s - leg.model().travel,
          x[vs],
          leg.rigid() ? 1 : x[vs] - x[vu],
          leg.rigid() ? 1 : x[vu]};
}

}  // namespace

double Damper::force(double stroke, double speed) const {
  return damping_of(*this, stroke, speed) + friction_of(*this, speed);
}

DropResult drop(const DropModel& m, double speed, const DropRun& run) {
  const Leg leg(m);
  const State x = leg.start(speed);
  const double stroke_at_start = x[zs] - x[zu];
  const double at_start = leg.balance(x);
  Following motion(
      x, leg, [&leg](const State& y) { return watched(leg, y); }, 1e-5, 1e-2 * run.tolerance, run.tolerance);
  DropResult r{};
  r.settling_time = nan;
  const double weight_factor = m.mass() * g;
  double strut_work = 0;       // ∫F ds while the stroke grows to its greatest
  double strut_peak_then = 0;  // greatest strut load so far, when the stroke is greatest
  double peak_strut = 0;
  double last_stroke = stroke_at_start;
  double last_strut = leg.rigid() ? 0 : leg.strut(stroke_at_start, 0);
  double work = 0;
  bool stopped = false;  // the sprung mass has stopped sinking once
  double contact_height = 0;
  double next_trace = 0;
  const double trace_step = run.trace > 0 ? run.duration / run.trace : 0;
  // Rest, for the settling: the stroke under the static load.
  const double rest_stroke =
      leg.rigid() ? 0 : m.spring.closure((m.sprung_mass - m.lift_ratio * m.mass()) * g);
  double settled_since = nan;

  const auto look = [&](double t, const State& y) {
    const double s = y[zs] - y[zu];
    const double v = y[vs] - y[vu];
    const double tyre = m.tyre.force(y[zu]);
    const double strut = leg.rigid() ? tyre : leg.strut(s, v);
    if (tyre > r.peak_ground * (1 + 1e-6)) {  // an undamped one comes as high again each time
      r.peak_ground = tyre;
      r.time_to_peak = t;
      r.stroke_at_peak = leg.rigid() ? 0 : s;
      r.tyre_deflection = y[zu];
    }
    peak_strut = std::max(peak_strut, strut);
    work += (strut + last_strut) / 2 * (s - last_stroke);
    last_stroke = s;
    last_strut = strut;
    if (s > r.stroke_used) {
      r.stroke_used = s;
      strut_work = work;
      strut_peak_then = peak_strut;
    }
    if (stopped) {
      r.rebound_speed = std::max(r.rebound_speed, -y[vs]);
      contact_height = std::max(contact_height, -y[zu]);
    }
    if (!leg.rigid()) {
      const bool near = std::abs(s - rest_stroke) <= 0.05 * r.stroke_used;
      if (!near || !stopped)
        settled_since = nan;
      else if (std::isnan(settled_since))
        settled_since = t;
    }
  };
  const auto point = [&](double t, const State& y) {
    const double s = y[zs] - y[zu];
    const double strut = leg.rigid() ? m.tyre.force(y[zu]) : leg.strut(s, y[vs] - y[vu]);
    r.trace.push_back({t, y[zs], y[zu], y[vs], y[vu], s, strut, m.tyre.force(y[zu]),
                       leg.rigid() ? 0 : leg.spring_energy(s) - leg.spring_energy(stroke_at_start),
                       y[w_damper] + y[w_friction], leg.rigid() ? 0 : leg.stop_energy(s),
                       leg.tyre_energy(y[zu]),
                       0.5 * m.sprung_mass * y[vs] * y[vs] + 0.5 * m.unsprung_mass * y[vu] * y[vu]});
  };
  const auto shares = [&](const State& y) {
    const double s = y[zs] - y[zu];
    const double weight = leg.rigid()
                              ? m.mass() * g * (1 - m.lift_ratio) * y[zs]
                              : (m.sprung_mass - m.lift_ratio * m.mass()) * g * (y[zs] - stroke_at_start) +
                                    m.unsprung_mass * g * y[zu];
    r.energy = 0.5 * m.mass() * speed * speed + weight;
    r.shares = {leg.rigid() ? 0 : (leg.spring_energy(s) - leg.spring_energy(stroke_at_start)) / r.energy,
                y[w_damper] / r.energy,
                y[w_friction] / r.energy,
                leg.rigid() ? 0 : (leg.stop_energy(s) - leg.stop_energy(stroke_at_start)) / r.energy,
                leg.tyre_energy(y[zu]) / r.energy,
                leg.rigid() ? 0 : 0.5 * m.unsprung_mass * y[vu] * y[vu] / r.energy};
  };

  look(0, x);
  constexpr int most_steps = 200000;
  const auto closes = [&] { return !leg.rigid() && motion.state()[vs] - motion.state()[vu] > 0; };
  while (motion.time() < run.duration && r.steps < most_steps && motion.finite() &&
         !(run.until_stopped && stopped && !closes())) {
    const auto step = motion.step(run.duration);
    ++r.steps;
    // Turning points are events, and so looked at; what peaks between them (damping, friction) is sampled.
    for (int k = 1; k <= 4; ++k) {
      const double when = step.from + (step.to - step.from) * k / 4;
      look(when, motion.at(when));
    }
    for (; run.trace > 0 && next_trace <= step.to; next_trace += trace_step)
      point(next_trace, motion.at(std::max(step.from, next_trace)));
    if (step.crossed == sinking && !stopped && motion.state()[vs] <= 0) {
      stopped = true;
      shares(motion.state());
    }
  }
  r.ended =
      motion.finite() && r.steps < most_steps && std::isfinite(r.peak_ground) && std::isfinite(peak_strut);
  if (!r.ended) {
    const int steps = r.steps;
    r = DropResult{};
    r.steps = steps;
    for (double* figure :
         {&r.peak_ground, &r.peak_strut, &r.load_factor, &r.inertia_factor, &r.stroke_used,
          &r.strut_efficiency, &r.stroke_at_peak, &r.energy, &r.time_to_peak, &r.tyre_deflection,
          &r.tyre_efficiency, &r.rebound_speed, &r.hop_height, &r.settling_time, &r.energy_error})
      *figure = nan;
    return r;
  }
  if (!stopped) shares(motion.state());
  r.peak_strut = leg.rigid() ? r.peak_ground : peak_strut;
  r.load_factor = r.peak_ground / weight_factor;
  r.inertia_factor = leg.rigid() ? r.load_factor + m.lift_ratio
                                 : (peak_strut + m.lift_ratio * weight_factor) / (m.sprung_mass * g);
  r.strut_efficiency = r.stroke_used > 0 ? strut_work / (strut_peak_then * r.stroke_used) : 0;
  r.bottoms = !leg.rigid() && r.stroke_used >= m.travel;
  r.rim = r.tyre_deflection >= m.tyre.rim();
  r.hop_height = contact_height;
  r.tyre_efficiency =
      r.peak_ground > 0 ? leg.tyre_energy(r.tyre_deflection) / (r.peak_ground * r.tyre_deflection) : 0;
  r.settling_time = settled_since;
  r.energy_error = (leg.balance(x) - at_start) / std::max(1e-12, r.energy);
  return r;
}

Ladder drop_ladder(const DropModel& m, double first, double step, double top, double factor_allowed,
                   double yields_at) {
  Ladder ladder;
  DropRun run;
  run.duration = 0.8;
  const auto at = [&](double height) { return drop(m, sink_speed_of_drop(height), run); };
  for (int i = 0; first + i * step <= top + 1e-9; ++i) {
    const double height = first + i * step;
    ladder.height.push_back(height);
    ladder.result.push_back(at(height));
    const auto& r = ladder.result.back();
    if (factor_allowed > 0 && r.load_factor > factor_allowed && !ladder.first_over_factor)
      ladder.first_over_factor = height;
    if (r.stroke_used > yields_at && !ladder.first_that_yields) ladder.first_that_yields = height;
    if (r.bottoms) {
      ladder.first_that_bottoms = height;
      break;
    }
  }
  if (ladder.first_that_bottoms) {
    const double low = std::max(1e-6, *ladder.first_that_bottoms - step);
    ladder.just_bottoms = find_root([&](double h) { return at(h).stroke_used - m.travel; }, low,
                                    *ladder.first_that_bottoms, 1e-6);
  }
  return ladder;
}

BenchLadder bench_ladder(DropModel m, bool of_a_model, double factor_allowed, double yields_at) {
  m.lift_ratio = 0;
  const double step = of_a_model ? 0.05 : 0.1;
  const double top = 1.5;
  return {step, top, drop_ladder(m, step, step, top, factor_allowed, yields_at)};
}

}  // namespace kranich::spring
