// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/spring/identify.h"

#include <fmt/format.h>

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

#include "core/base/quantity.h"
#include "core/spring/landing.h"

namespace kranich::spring {

std::variant<LoadFit, Text> fit_readings(std::span<const LoadReading> readings, const std::string& leg) {
  std::vector<const LoadReading*> used;
  bool out = false;
  double least = std::numeric_limits<double>::infinity();
  double most = -least;
  for (const auto& r : readings) {
    if (r.leg != leg || !r.load.known() || !r.closure.known()) continue;
    used.push_back(&r);
    out = out || r.unloading;
    least = std::min(least, r.closure.si);
    most = std::max(most, r.closure.si);
  }
  const int columns = out ? 3 : 2;
  if (static_cast<int>(used.size()) < columns || !(most > least))
    return out ? "three readings or more at different closures"
               : "two readings or more at different closures";
  Eigen::MatrixXd a(static_cast<Eigen::Index>(used.size()), columns);
  Eigen::VectorXd f(static_cast<Eigen::Index>(used.size()));
  for (size_t i = 0; i < used.size(); ++i) {
    const auto row = static_cast<Eigen::Index>(i);
    a(row, 0) = used[i]->closure;
    a(row, 1) = 1;
    if (out) a(row, 2) = used[i]->unloading ? -1 : 1;
    f[row] = used[i]->load;
  }
  const auto solver = a.colPivHouseholderQr();
  if (solver.rank() < columns) return "readings on the way in and on the way out at different closures";
  const Eigen::VectorXd x = solver.solve(f);
  const double squares = (a * x - f).squaredNorm();
  LoadFit fit{x[0],
              x[1],
              out ? x[2] : std::nan(""),
              std::nan(""),
              std::sqrt(squares / static_cast<double>(used.size())),
              static_cast<int>(used.size())};
  const auto free = static_cast<double>(used.size()) - columns;
  if (free > 0) {
    const Eigen::MatrixXd inverse = (a.transpose() * a).inverse();
    fit.rate_error = std::sqrt(inverse(0, 0) * squares / free);
  }
  return fit;
}

DropModel scaled(DropModel m, double spring, double damping) {
  m.spring.rate *= spring;
  m.spring.preload *= spring;
  m.spring.pressure *= spring;
  m.spring.ambient *= spring;
  for (auto& p : m.spring.curve) p.second *= spring;
  m.damper.closing *= damping;
  m.damper.extending *= damping;
  const double orifice = 1 / std::sqrt(damping);
  m.damper.orifice_closing *= orifice;
  m.damper.orifice_extending *= orifice;
  for (auto& p : m.damper.metered) p.second *= orifice;
  return m;
}

std::vector<RigSample> rig_record(const DropModel& m, double height, double rate, double duration) {
  const double speed = sink_speed_of_drop(height);
  const double touch = speed / standard_gravity;  // it falls till then
  DropRun run;
  run.duration = std::max(0.01, duration - touch);
  run.tolerance = 1e-7;
  run.trace = static_cast<int>(std::ceil(run.duration * rate));
  const auto r = drop(m, speed, run);
  std::vector<RigSample> samples;
  const auto count = static_cast<int>(std::floor(duration * rate));
  for (int i = 0; i <= count; ++i) {
    const double t = i / rate;
    if (t < touch || r.trace.size() < 2) {
      samples.push_back({t, -standard_gravity, 0});
      continue;
    }
    const double step = run.duration / run.trace;
    const double at = (t - touch) / step;
    const auto k = std::min(static_cast<size_t>(at), r.trace.size() - 2);
    const double part = std::clamp(at - static_cast<double>(k), 0.0, 1.0);
    const auto& p = r.trace[k];
    const auto& q = r.trace[k + 1];
    const double strut = (1 - part) * p.strut + part * q.strut;
    const double lift = m.lift_ratio * m.mass() * standard_gravity;
    const double carried = m.spring.kind == force::LegLaw::Kind::rigid ? m.mass() : m.sprung_mass;
    samples.push_back({t, (strut + lift) / carried - standard_gravity,
                       std::max(0.0, (1 - part) * p.stroke + part * q.stroke)});
  }
  return samples;
}

std::variant<DropFit, Text> fit_drop(const DropModel& model, double height,
                                     std::span<const RigSample> samples) {
  if (samples.size() < 20) return "twenty samples or more";
  if (model.spring.kind == force::LegLaw::Kind::rigid) return "a leg with a spring";
  const double end = samples.back().t;
  // A drop is over in a second or two; a clock in milliseconds would have it last for minutes.
  if (end > longest_recording)
    return say("times in seconds, {} at most: these run to {}", Figure{longest_recording}, Figure{end});
  if (!(end > sink_speed_of_drop(height) / standard_gravity))
    return "samples that go on beyond the touch-down";
  // One residual a sample: its acceleration in g and its stroke in travels, weighed alike.
  const auto residuals = [&](const DropModel& m) {
    const double rate = 2000;
    const auto record = rig_record(m, height, rate, end + 2 / rate);
    Eigen::VectorXd r(static_cast<Eigen::Index>(2 * samples.size()));
    for (size_t i = 0; i < samples.size(); ++i) {
      const double at = std::clamp(samples[i].t * rate, 0.0, static_cast<double>(record.size() - 2));
      const auto k = static_cast<size_t>(at);
      const double part = at - static_cast<double>(k);
      const double a = (1 - part) * record[k].acceleration + part * record[k + 1].acceleration;
      const double s = (1 - part) * record[k].stroke + part * record[k + 1].stroke;
      r[static_cast<Eigen::Index>(2 * i)] = (a - samples[i].acceleration) / standard_gravity;
      r[static_cast<Eigen::Index>(2 * i + 1)] = (s - samples[i].stroke) / model.travel;
    }
    return r;
  };
  const auto spread = [&](const Eigen::VectorXd& r, int which, double unit) {
    double squares = 0;
    for (Eigen::Index i = which; i < r.size(); i += 2) squares += r[i] * r[i];
    return unit * std::sqrt(squares / static_cast<double>(samples.size()));
  };
  DropFit fit;
  Eigen::Vector2d p(0, 0);  // logarithms of the two factors
  const bool damped = model.damper.closing > 0 || model.damper.orifice_closing > 0;
  auto r = residuals(model);
  fit.off_before = spread(r, 0, standard_gravity);
  fit.stroke_off_before = spread(r, 1, model.travel);
  // Start from the best of a few: a bouncing leg's record has many near misses.
  for (const double k : {0.65, 0.75, 0.87, 1.15, 1.33, 1.55})
    for (const double c : {0.7, 1.0, 1.4}) {
      if (!damped && c != 1) continue;
      const auto tried = residuals(scaled(model, k, c));
      if (tried.squaredNorm() >= r.squaredNorm()) continue;
      r = tried;
      p = {std::log(k), std::log(c)};
    }
  Eigen::Matrix2d normal = Eigen::Matrix2d::Identity();
  for (int round = 0; round < 12; ++round) {
    constexpr double h = 1e-3;
    Eigen::MatrixXd slope(r.size(), 2);
    for (int k = 0; k < 2; ++k) {
      Eigen::Vector2d up = p;
      up[k] += h;
      slope.col(k) = (residuals(scaled(model, std::exp(up[0]), std::exp(up[1]))) - r) / h;
    }
    normal = slope.transpose() * slope;
    if (!damped) {
      normal(0, 1) = normal(1, 0) = 0;
      normal(1, 1) = 1;
    }
    Eigen::Vector2d step = -normal.ldlt().solve(slope.transpose() * r);
    if (!damped) step[1] = 0;
    const double size = step.cwiseAbs().maxCoeff();
    if (size > 0.5) step *= 0.5 / size;
    double share = 1;
    Eigen::VectorXd tried;
    for (int half = 0; half < 6; ++half, share /= 2) {
      const Eigen::Vector2d to = p + share * step;
      tried = residuals(scaled(model, std::exp(to[0]), std::exp(to[1])));
      if (tried.squaredNorm() <= r.squaredNorm()) break;
    }
    if (tried.squaredNorm() > r.squaredNorm()) break;
    p += share * step;
    r = tried;
    if (size < 1e-5) break;
  }
  fit.spring = std::exp(p[0]);
  fit.damping = std::exp(p[1]);
  fit.off_after = spread(r, 0, standard_gravity);
  fit.stroke_off_after = spread(r, 1, model.travel);
  const double variance = r.squaredNorm() / static_cast<double>(r.size() - 2);
  const Eigen::Matrix2d covariance = variance * normal.inverse();
  fit.spring_error = fit.spring * std::sqrt(std::max(0.0, covariance(0, 0)));
  fit.damping_error = damped ? fit.damping * std::sqrt(std::max(0.0, covariance(1, 1))) : std::nan("");
  return fit;
}

namespace {

//! Multiplies a number by what was measured; false where there is none.
bool measured(Given& g, double factor, double error = 0) {
  if (!g.known()) return false;
  const double was = g.si;
  g = Given(was * factor, Origin::measured, std::isfinite(error) ? std::abs(was) * error : 0);
  return true;
}

//! Rate ~ d⁴/n: by the turns that bear as far as the ends leave it open, the rest by the wire's fourth root.
bool scale_coil(Coil& c, double factor, double error) {
  if (!c.active_turns.known() || !c.wire_diameter.known()) return false;
  const bool closed = c.ends == CoilEnds::squared || c.ends == CoilEnds::squared_ground;
  const double most = c.total_turns.known() ? c.total_turns - (closed ? 1 : 0) : c.active_turns.si;
  const double turns = std::clamp(c.active_turns / factor, std::max(0.5 * c.active_turns, c.active_turns - 1),
                                  std::max(c.active_turns.si, std::min(most, c.active_turns + 1)));
  const double rest = factor * turns / c.active_turns;
  measured(c.active_turns, turns / c.active_turns, error);
  if (std::abs(rest - 1) > 1e-9) measured(c.wire_diameter, std::pow(rest, 0.25), error / 4);
  return true;
}

const char* nothing_known = "what makes its force is not entered yet";

//! Empty, or why nothing could be scaled.
std::string scale_spring(Leg& leg, double factor, double error) {
  if (!(factor > 0) || !std::isfinite(factor))
    return "the leg's own rate is not known: the aircraft does not stand";
  Spring& s = leg.spring;
  bool done = false;
  switch (s.kind) {
    case SpringKind::linear:
      done = measured(s.rate, factor, error);
      measured(s.preload, factor, error);
      break;
    case SpringKind::coil:
      done = scale_coil(s.coil, factor, error);
      if (s.partner != CoilPartner::none) done = scale_coil(s.second, factor, error) && done;
      break;
    case SpringKind::gas: {
      // The force is that of the charge over the air outside.
      const double charge = s.gas.ambient + factor * (s.gas.pressure - s.gas.ambient);
      done = measured(s.gas.pressure, charge / s.gas.pressure, error);
      break;
    }
    case SpringKind::leaf:
      done = measured(s.leaf.torsion_rate, factor, error);
      break;
    case SpringKind::cord:
      for (auto& p : s.cord.curve) done = measured(p.load, factor, error) || done;
      break;
    case SpringKind::gas_strut:
      done = measured(s.gas_strut.extended_force, factor, error);
      break;
    case SpringKind::pucks:
      done = measured(s.pucks.shear_modulus, factor, error);
      break;
    case SpringKind::bending:
      return "the stiffness of a leg that bends follows from its stock: measure wire, width and thickness "
             "again";
  }
  return done ? "" : nothing_known;
}

}  // namespace

std::string take_over(Leg& leg, const DropFit& fit) {
  Spring& s = leg.spring;
  if (std::isfinite(fit.damping_error)) {
    for (Given* g : {&s.damping_closing, &s.damping_extending}) measured(*g, fit.damping, fit.damping_error);
    const double orifice = 1 / std::sqrt(fit.damping);
    for (Given* g : {&s.orifice_closing, &s.orifice_extending}) measured(*g, orifice, fit.damping_error / 2);
    for (auto& p : s.metered) measured(p.orifice, orifice, fit.damping_error / 2);
  }
  return scale_spring(leg, fit.spring, fit.spring_error);
}

std::string take_over(Leg& leg, const LoadFit& fit, double rate_now) {
  if (!(fit.rate > 0)) return "the readings fall as it closes: read them again";
  if (std::isfinite(fit.friction) && fit.friction > 0)
    leg.spring.friction = Given(fit.friction, Origin::measured);
  if (leg.spring.kind == SpringKind::linear) {
    leg.spring.rate = Given(fit.rate, Origin::measured, std::isfinite(fit.rate_error) ? fit.rate_error : 0);
    leg.spring.preload = Given(std::max(0.0, fit.preload), Origin::measured);
    return {};
  }
  if (leg.spring.kind == SpringKind::bending) {
    const BentLeg& b = leg.spring.bent;
    if (b.cross_wire_rate.known() || b.cross_wire.diameter.known())
      return "the reading is of leg and wire across together: read it with the wire off";
    leg.spring.bent.measured_rate =
        Given(fit.rate, Origin::measured, std::isfinite(fit.rate_error) ? fit.rate_error : 0);
    return {};
  }
  return scale_spring(leg, fit.rate / rate_now,
                      std::isfinite(fit.rate_error) ? fit.rate_error / fit.rate : 0);
}

}  // namespace kranich::spring
