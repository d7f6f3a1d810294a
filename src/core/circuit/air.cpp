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
const double choked =
    std::sqrt(gamma_air) * std::pow(2 / (gamma_air + 1), (gamma_air + 1) / (2 * (gamma_air - 1)));
const double critical = std::pow(2 / (gamma_air + 1), gamma_air / (gamma_air - 1));

//! Of the nozzle's flow, by the pressure behind over that before. Near one the root's steep end is taken
//! straight: what is nearly level would otherwise be stepped through in ever smaller steps.
double passing(double ratio) {
  if (ratio <= critical) return choked;
  constexpr double level = 0.98;
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

AirSample AirRun::at(double t) const {
  if (samples.empty()) return {t, 0, 0, 0};
  const auto after = std::lower_bound(samples.begin(), samples.end(), t,
                                      [](const AirSample& s, double x) { return s.time < x; });
  if (after == samples.begin()) return *after;
  if (after == samples.end()) return samples.back();
  const AirSample& a = *(after - 1);
  const AirSample& b = *after;
  const double x = (t - a.time) / (b.time - a.time);
  return {t, a.share + x * (b.share - a.share), a.in + x * (b.in - a.in), a.out + x * (b.out - a.out)};
}

AirRun air_run(const AirWay& w, double longest) {
  const double all = w.stroke(1);
  //! What follows from a state, worked out once.
  struct Here {
    double share, in, out;  //!< pressures
  };
  const auto here = [&](const State& y) {
    const double share = std::clamp(y[turn] / w.travel, 0.0, 1.0);
    const double gone = w.stroke(share);
    return Here{share, y[in] / (w.dead_in + w.area_in * gone),
                y[out] / (w.dead_out + w.area_out * (all - gone))};
  };
  //! What is left to move it.
  const auto torque = [&](const Here& h) {
    double force = 0;
    if (w.area_in > 0) force += (h.in - w.ambient) * w.area_in;
    if (w.area_out > 0) force -= (h.out - w.ambient) * w.area_out;
    return force * w.arm(h.share) - w.resists(h.share);
  };
  const auto flows = [&](const Here& h, State& dy, double hole_in) {
    dy[in] = w.area_in > 0 ? air_flow(hole_in, w.supply, h.in) : 0;
    dy[out] = w.area_out > 0 ? -air_flow(w.hole_out, h.out, w.ambient) : 0;
  };
  // On its way as much comes in as goes out. A way in eight times as wide as that out costs less than a
  // hundredth of the pressure; a wider one only levels what little is left so quickly that steps of a
  // millisecond are too long. While it stands the same holds once it is filled but for a fiftieth.
  const double on_its_way = w.area_out > 0 ? std::min(w.hole_in, 8 * w.hole_out) : w.hole_in;
  const auto stands = [&](const State& y, State& dy, double) {
    const Here h = here(y);
    flows(h, dy, w.area_in > 0 && h.in > 0.98 * w.supply ? on_its_way : w.hole_in);
    dy[turn] = dy[speed] = 0;
  };
  const auto moves = [&](const State& y, State& dy, double) {
    const Here h = here(y);
    flows(h, dy, on_its_way);
    dy[turn] = y[speed];
    dy[speed] = torque(h) / w.inertia;
  };

  constexpr double nan = std::numeric_limits<double>::quiet_NaN();
  AirRun r{std::numeric_limits<double>::infinity(), 0, 0, std::numeric_limits<double>::infinity(), nan, {}};
  const auto sample = [&](double t, const State& y) {
    const Here h = here(y);
    if (r.samples.empty() || t > r.samples.back().time)
      r.samples.push_back({t, h.share, w.area_in > 0 ? h.in : nan, w.area_out > 0 ? h.out : nan});
  };
  State at{0, 0, w.ambient * std::max(w.dead_in, 1e-12), w.left_in * (w.dead_out + w.area_out * all)};
  double time = 0;
  bool arrived = false;
  sample(0, at);
  constexpr int most_halts = 60;
  constexpr double tolerance = 1e-6;  // of rad, rad/s and J
  for (int halts = 0; halts < most_halts && time < longest && !arrived; ++halts) {
    if (const Here now = here(at); !(torque(now) > 0)) {
      // It stands until the pressures have come far enough, or for ever: in the end one side has what the
      // supply gives, the other what is outside.
      if (!((w.supply - w.ambient) * w.area_in * w.arm(now.share) > w.resists(now.share))) break;
      Following waits(
          at, stands, [&](const State& y) { return std::array{torque(here(y))}; }, 1e-5, tolerance,
          tolerance);
      int begins = -1;
      sample(time, at);
      while (begins < 0 && time + waits.time() < longest) {
        begins = waits.step(longest - time).crossed;
        sample(time + waits.time(), waits.state());
      }
      time += waits.time();
      at = waits.state();
      if (begins < 0) break;
    }
    if (std::isnan(r.starts)) r.starts = time;
    at[speed] = 0;
    sample(time, at);
    Following goes(
        at, moves,
        [&](const State& y) {
          return std::array{y[turn] - w.travel, y[speed]};
        },
        1e-5, tolerance, tolerance);
    int crossed = -1;
    while (crossed < 0 && time + goes.time() < longest && goes.finite()) {
      crossed = goes.step(longest - time).crossed;
      sample(time + goes.time(), goes.state());
      if (w.area_in > 0 && goes.state()[turn] > 0.02 * w.travel)
        r.least_pressure = std::min(r.least_pressure, here(goes.state()).in);
    }
    time += goes.time();
    at = goes.state();
    arrived = crossed == 0;
    if (!goes.finite()) break;
  }
  r.stops_at = arrived ? 1 : here(at).share;
  if (arrived) {
    r.time = time;
    r.arrival_speed = at[speed];
  }
  return r;
}

}  // namespace kranich::circuit
