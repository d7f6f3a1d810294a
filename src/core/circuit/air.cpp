// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/circuit/air.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/base/ode.h"

namespace kranich::circuit {
namespace {

constexpr double gamma_air = 1.4;
//! √γ·(2/(γ+1))^((γ+1)/(2(γ−1))): the choked share.
const double choked = std::sqrt(gamma_air) *
                      std::pow(2 / (gamma_air + 1), (gamma_air + 1) / (2 * (gamma_air - 1)));
const double critical = std::pow(2 / (gamma_air + 1), gamma_air / (gamma_air - 1));

//! Of the nozzle's flow, by the pressure behind over that before. Near one the root's steep end is taken straight:
//! what is nearly level would otherwise be stepped through in ever smaller steps.
double passing(double ratio) {
  if (ratio <= critical) return choked;
  constexpr double level = 0.9995;
  const auto nozzle = [](double r) {
    return std::sqrt(2 * gamma_air / (gamma_air - 1) *
                     (std::pow(r, 2 / gamma_air) - std::pow(r, (gamma_air + 1) / gamma_air)));
  };
  if (ratio < level) return nozzle(ratio);
  static const double there = nozzle(level);
  return there * (1 - ratio) / (1 - level);
}

//! Turn, speed; p·V where air goes in, and where it goes out.
using State = std::array<double, 4>;
enum { turn, speed, in, out };

}  // namespace

double bottle_after(const Bottle& b, double pressure, double volume) {
  const double regulated = pressure - (b.regulated - b.ambient) * volume / b.volume;
  if (regulated >= b.regulated) return regulated;
  return (pressure * b.volume + b.ambient * volume) / (b.volume + volume);
}

double behind_regulator(const Bottle& b, double pressure) { return std::min(b.regulated, pressure); }

double air_flow(double area, double from, double to) {
  if (to > from) return -air_flow(area, to, from);
  if (!(from > 0)) return 0;
  return area * from * std::sqrt(air_constant * room_temperature) * passing(to / from);
}

AirRun air_run(const AirWay& w, double longest) {
  const double all = w.stroke(1);
  const auto share = [&](const State& y) { return std::clamp(y[turn] / w.travel, 0.0, 1.0); };
  const auto pressure_in = [&](const State& y) { return y[in] / (w.dead_in + w.area_in * w.stroke(share(y))); };
  const auto pressure_out = [&](const State& y) {
    return y[out] / (w.dead_out + w.area_out * (all - w.stroke(share(y))));
  };
  //! What is left to move it.
  const auto torque = [&](const State& y) {
    const double q = share(y);
    double force = 0;
    if (w.area_in > 0) force += (pressure_in(y) - w.ambient) * w.area_in;
    if (w.area_out > 0) force -= (pressure_out(y) - w.ambient) * w.area_out;
    return force * w.arm(q) - w.resists(q);
  };
  const auto flows = [&](const State& y, State& dy) {
    dy[in] = w.area_in > 0 ? air_flow(w.hole_in, w.supply, pressure_in(y)) : 0;
    dy[out] = w.area_out > 0 ? -air_flow(w.hole_out, pressure_out(y), w.ambient) : 0;
  };
  const auto stands = [&](const State& y, State& dy, double) {
    flows(y, dy);
    dy[turn] = dy[speed] = 0;
  };
  const auto moves = [&](const State& y, State& dy, double) {
    flows(y, dy);
    dy[turn] = y[speed];
    dy[speed] = torque(y) / w.inertia;
  };

  AirRun r{std::numeric_limits<double>::infinity(), 0, 0, std::numeric_limits<double>::infinity(),
           std::numeric_limits<double>::quiet_NaN()};
  State at{0, 0, w.ambient * std::max(w.dead_in, 1e-12), w.left_in * (w.dead_out + w.area_out * all)};
  double time = 0;
  bool arrived = false;
  constexpr int most_halts = 60;
  for (int halts = 0; halts < most_halts && time < longest && !arrived; ++halts) {
    if (!(torque(at) > 0)) {
      // It stands until the pressures have come far enough, or for ever.
      Following waits(at, stands, [&](const State& y) { return std::array{torque(y)}; }, 1e-5, 1e-9, 1e-7);
      int begins = -1;
      while (begins < 0 && time + waits.time() < longest) begins = waits.step(longest - time).crossed;
      time += waits.time();
      at = waits.state();
      if (begins < 0) break;
    }
    if (std::isnan(r.starts)) r.starts = time;
    at[speed] = 0;
    Following goes(at, moves, [&](const State& y) { return std::array{y[turn] - w.travel, y[speed]}; }, 1e-5,
                   1e-9, 1e-7);
    int crossed = -1;
    while (crossed < 0 && time + goes.time() < longest && goes.finite()) {
      crossed = goes.step(longest - time).crossed;
      if (w.area_in > 0 && goes.state()[turn] > 0.02 * w.travel)
        r.least_pressure = std::min(r.least_pressure, pressure_in(goes.state()));
    }
    time += goes.time();
    at = goes.state();
    arrived = crossed == 0;
    if (!goes.finite()) break;
  }
  r.stops_at = arrived ? 1 : share(at);
  if (arrived) {
    r.time = time;
    r.arrival_speed = at[speed];
  }
  return r;
}

}  // namespace kranich::circuit
