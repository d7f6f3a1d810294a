// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/circuit/hydraulics.h"

#include <algorithm>
#include <boost/math/quadrature/gauss.hpp>
#include <boost/math/quadrature/gauss_kronrod.hpp>
#include <cmath>

#include "core/base/numerics.h"
#include "core/base/ode.h"

namespace kranich::circuit {
namespace {

constexpr double never = std::numeric_limits<double>::quiet_NaN();
constexpr double endless = std::numeric_limits<double>::infinity();

//! Root of what falls between two places; the upper one where it does not fall so far.
double falling_root(const Function& f, double low, double high) {
  return find_root(f, low, high).value_or(high);
}

}  // namespace

double Restrictor::drop(double flow) const {
  const double speed = flow / (coefficient * area);
  return density / 2 * speed * std::abs(speed);
}
double Restrictor::flow(double drop) const {
  return std::copysign(coefficient * area * std::sqrt(2 * std::abs(drop) / density), drop);
}

StrokePoint at_share(const Stroke& s, double share) {
  const double load = s.load(share);
  const bool returns = s.braked == Braked::return_side;
  // What the restrictor takes goes with the square of the speed.
  const double per_square = s.restrictor.drop(returns ? s.area_out : s.area_in);
  const auto return_pressure = [&](double v) { return s.tank + (returns ? per_square * v * v : 0); };
  const auto inside = [&](double v) { return (load + return_pressure(v) * s.area_out) / s.area_in; };
  const double at_rest = (load + s.tank * s.area_out) / s.area_in;
  const double left = s.pump.at(at_rest);
  if (!(left > 0)) return {0, at_rest, s.tank, false};
  // A·v = Q₀ − k·(p at rest + c·v²): the quadratic's one root above nothing.
  const double square = s.pump.loss * per_square * (returns ? s.area_out / s.area_in : 1);
  const double v = 2 * left / (s.area_in + std::sqrt(s.area_in * s.area_in + 4 * square * left));
  if (inside(v) >= 0) return {v, inside(v) + (returns ? 0 : per_square * v * v), return_pressure(v), false};
  // The load outruns the pump: nothing pushes, and the return alone holds back.
  const double pull = -load - s.tank * s.area_out;
  const double alone = returns ? s.restrictor.flow(pull / s.area_out) / s.area_out : endless;
  return {alone, 0, return_pressure(returns ? alone : 0), true};
}

StrokeFigures stroke_figures(const Stroke& s) {
  StrokeFigures f{0, -endless, -endless, false, 1};
  // Pressures and speed go one way with the load: where that is straight, its ends have the extremes.
  const int looks = s.straight ? s.pieces : 50 * s.pieces;
  for (int i = 0; i <= looks; ++i) {
    const double share = static_cast<double>(i) / looks;
    const StrokePoint p = at_share(s, share);
    f.peak_pressure = std::max(f.peak_pressure, p.pressure);
    f.peak_return = std::max(f.peak_return, p.return_pressure);
    f.runs_ahead = f.runs_ahead || p.runs_ahead;
    if (p.speed > 0) continue;
    const auto stands = [&](double x) { return !(at_share(s, x).speed > 0); };
    f.stops_at = i == 0 ? 0 : begins_to_hold(stands, static_cast<double>(i - 1) / looks, share);
    f.time = endless;
    return f;
  }
  const auto slowness = [&](double share) { return s.length / at_share(s, share).speed; };
  for (int i = 0; i < s.pieces; ++i) {
    const double from = static_cast<double>(i) / s.pieces;
    const double to = static_cast<double>(i + 1) / s.pieces;
    // Where it begins or ceases to outrun the pump the speed has a corner: seven points do not do there.
    const bool corner = at_share(s, from).runs_ahead != at_share(s, to).runs_ahead;
    f.time += s.straight && !corner ? boost::math::quadrature::gauss<double, 7>::integrate(slowness, from, to)
                                    : boost::math::quadrature::gauss_kronrod<double, 15>::integrate(
                                          slowness, from, to, 8, 1e-10);
  }
  return f;
}

Slowed slowed(const Stroke& stroke, double widest_area, double wanted_time, double cut_out) {
  const auto with_area = [&](double area) {
    Stroke s = stroke;
    s.restrictor.area = area;
    return s;
  };
  Slowed r{};
  const auto widest = stroke_figures(with_area(widest_area));
  r.widest_time = widest.time;
  r.widest_peak = widest.peak_pressure;
  const double tightest = widest_area * 1e-3;
  if (wanted_time >= widest.time && stroke_figures(with_area(tightest)).time >= wanted_time) {
    r.area = falling_root([&](double area) { return stroke_figures(with_area(area)).time - wanted_time; },
                          tightest, widest_area);
    const Stroke s = with_area(*r.area);
    r.peak = stroke_figures(s).peak_pressure;
    r.trips = r.peak > cut_out;
    if (r.trips) {
      const auto over = [&](double share) { return at_share(s, share).pressure > cut_out; };
      constexpr int looks = 2000;
      int i = 0;
      while (i < looks && !over(static_cast<double>(i) / looks)) ++i;
      r.trips_at =
          i == 0 ? 0
                 : begins_to_hold(over, static_cast<double>(i - 1) / looks, static_cast<double>(i) / looks);
    }
  }
  if (widest.peak_pressure <= cut_out) {
    const auto peak = [&](double area) { return stroke_figures(with_area(area)).peak_pressure - cut_out; };
    r.narrowest = peak(tightest) <= 0 ? tightest : falling_root(peak, tightest, widest_area);
    r.longest_time = stroke_figures(with_area(*r.narrowest)).time;
  }
  const auto with_factor = [&](double factor) {
    Stroke s = with_area(widest_area);
    s.pump.flow *= factor;
    return s;
  };
  if (std::isfinite(widest.time) && wanted_time >= widest.time) {
    r.pump_factor = begins_to_hold(
        [&](double factor) { return stroke_figures(with_factor(factor)).time <= wanted_time; }, 0, 1);
    r.factor_peak = stroke_figures(with_factor(*r.pump_factor)).peak_pressure;
  }
  return r;
}

Sample TeeRun::at(double time) const {
  if (samples.empty()) return {time, 0, {}};
  const auto after = std::lower_bound(samples.begin(), samples.end(), time,
                                      [](const Sample& s, double t) { return s.time < t; });
  if (after == samples.begin()) return *after;
  if (after == samples.end()) return samples.back();
  const Sample& b = *after;
  const Sample& a = *(after - 1);
  const double share = (time - a.time) / (b.time - a.time);
  Sample s{time, a.pressure + share * (b.pressure - a.pressure), a.places};
  for (size_t i = 0; i < s.places.size(); ++i) s.places[i] += share * (b.places[i] - a.places[i]);
  return s;
}

namespace {

//! What moves at an instant: the pump's pressure and the branches' flows.
struct Instant {
  double pressure;
  std::vector<double> flows;
};

//! Steps cylinders to the last arrival; `at` gives the instant for their places and which have arrived.
template <class At>
TeeRun run(const std::vector<Branch>& branches, int steps, At&& at) {
  const size_t n = branches.size();
  TeeRun out;
  out.branches.assign(n, {never, never, 0});
  out.peak_pressure = -endless;
  std::vector<double> place(n, 0.0);
  std::vector<bool> arrived(n, false);
  std::vector<bool> moving(n, false);
  std::vector<double> v(n);
  double time = 0;
  const auto within = [](std::vector<double> places) {
    for (double& p : places) p = std::clamp(p, 0.0, 1.0);
    return places;
  };
  const auto speeds = [&](const std::vector<double>& places, std::vector<double>& speed, double) {
    const Instant now = at(within(places), arrived);
    for (size_t i = 0; i < n; ++i) speed[i] = now.flows[i] / branches[i].area / branches[i].length;
    return now.pressure;
  };
  size_t left = n;
  for (int round = 0; round < 200000 && left > 0; ++round) {
    const double pressure = speeds(place, v, time);
    out.peak_pressure = std::max(out.peak_pressure, pressure);
    out.samples.push_back({time, pressure, place});
    double fastest = 0;
    for (size_t i = 0; i < n; ++i) {
      const bool goes = !arrived[i] && v[i] > 1e-9;
      if (goes && !moving[i]) {
        if (std::isnan(out.branches[i].starts))
          out.branches[i].starts = time;
        else
          ++out.branches[i].pauses;
      }
      moving[i] = goes;
      fastest = std::max(fastest, std::abs(v[i]));
    }
    if (!(fastest > 1e-9)) break;  // the pump cannot
    const double whole = 1.0 / steps / fastest;
    // A branch that starts or halts makes a corner that a fine step keeps small.
    auto next = stepped(speeds, place, time, whole);
    // No further than the next arrival.
    double h = whole;
    for (size_t i = 0; i < n; ++i)
      if (!arrived[i] && next[i] > place[i]) h = std::min(h, whole * (1 - place[i]) / (next[i] - place[i]));
    if (h < whole) next = stepped(speeds, place, time, h);
    place = within(std::move(next));
    time += h;
    for (size_t i = 0; i < n; ++i)
      if (!arrived[i] && place[i] >= 1 - 1e-12) {
        arrived[i] = true;
        place[i] = 1;
        out.branches[i].arrives = time;
        --left;
      }
  }
  // The last one's arrival ends the way: all of them are there.
  if (left == 0 && !out.samples.empty() && time > out.samples.back().time)
    out.samples.push_back({time, out.samples.back().pressure, place});
  return out;
}

}  // namespace

TeeRun on_a_tee(const std::vector<Branch>& branches, const Pump& pump, int steps) {
  return run(branches, steps, [&](const std::vector<double>& places, const std::vector<bool>& arrived) {
    Instant now{0, std::vector<double>(branches.size(), 0.0)};
    const auto flow = [&](size_t i, double p) {
      if (arrived[i]) return 0.0;
      const double needs = branches[i].load(places[i]) / branches[i].area;
      if (p <= needs && (branches[i].check || places[i] <= 0)) return 0.0;
      return branches[i].line.flow(p - needs);
    };
    const auto over = [&](double p) {
      double sum = pump.at(p);
      for (size_t i = 0; i < branches.size(); ++i) sum -= flow(i, p);
      return sum;
    };
    now.pressure = falling_root(over, -1e9, pump.loss > 0 ? pump.flow / pump.loss : 1e9);
    for (size_t i = 0; i < branches.size(); ++i) now.flows[i] = flow(i, now.pressure);
    return now;
  });
}

TeeRun on_a_divider(const std::vector<Branch>& branches, const Pump& pump, Divider kind, int steps) {
  return run(branches, steps, [&](const std::vector<double>& places, const std::vector<bool>& arrived) {
    Instant now{0, std::vector<double>(branches.size(), 0.0)};
    // With a flow q in each of n: Q₀ − k·(p + c·q²) = n·q, p and c of the heaviest branch or their means.
    double open = 0;
    double needs = 0;
    double per_square = 0;
    for (size_t i = 0; i < branches.size(); ++i) {
      if (arrived[i]) continue;
      ++open;
      needs += branches[i].load(places[i]) / branches[i].area;
      per_square += branches[i].line.drop(1);
    }
    if (open == 0) return now;
    const auto of_each = [&](double pressure, double square) {
      const double left = pump.at(pressure);
      return left > 0 ? 2 * left / (open + std::sqrt(open * open + 4 * pump.loss * square * left)) : 0;
    };
    double each = of_each(needs / open, per_square / open);
    now.pressure = (needs + per_square * each * each) / open;
    if (kind != Divider::geared) {
      // Whichever branch lets the least through is the one that sets the inlet's pressure.
      each = endless;
      for (size_t i = 0; i < branches.size(); ++i)
        if (!arrived[i])
          each = std::min(each,
                          of_each(branches[i].load(places[i]) / branches[i].area, branches[i].line.drop(1)));
      now.pressure = -endless;
      for (size_t i = 0; i < branches.size(); ++i)
        if (!arrived[i])
          now.pressure = std::max(
              now.pressure, branches[i].load(places[i]) / branches[i].area + branches[i].line.drop(each));
    }
    for (size_t i = 0; i < branches.size(); ++i) now.flows[i] = arrived[i] ? 0 : each;
    return now;
  });
}

double Trapped::pressure_after(double time) const {
  const double c = compliance();
  if (!(leak_per_pressure > 0)) return std::max(0.0, cut_out - leak_constant * time / c);
  const double rest = leak_constant / leak_per_pressure;
  return std::max(0.0, (cut_out + rest) * std::exp(-leak_per_pressure * time / c) - rest);
}

double Trapped::time_to_cut_in() const {
  const double c = compliance();
  const auto leak = [&](double p) { return leak_constant + leak_per_pressure * p; };
  if (!(leak(cut_in) > 0)) return endless;
  if (!(leak_per_pressure > 0)) return c * (cut_out - cut_in) / leak_constant;
  return c / leak_per_pressure * std::log(leak(cut_out) / leak(cut_in));
}

double Trapped::pump_time() const {
  const double falls = pump.loss + leak_per_pressure;
  const auto net = [&](double p) { return pump.flow - leak_constant - falls * p; };
  if (!(net(cut_out) > 0)) return endless;
  if (!(falls > 0)) return compliance() * (cut_out - cut_in) / net(cut_in);
  return compliance() / falls * std::log(net(cut_in) / net(cut_out));
}

}  // namespace kranich::circuit
