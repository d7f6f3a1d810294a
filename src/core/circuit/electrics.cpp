// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/circuit/electrics.h"

#include <algorithm>
#include <cmath>

namespace kranich::circuit {

double Consumer::at(double t, double time_out) const {
  const double since = t - start;
  if (since < 0) return 0;
  if (std::isfinite(jams_after) && since >= jams_after) return since < time_out ? stall : 0;
  const double runs = std::isfinite(jams_after) ? std::max(time, jams_after) : time;
  if (since >= runs) return 0;
  return since < inrush_time ? inrush : running;
}

Budget budget(const std::vector<Consumer>& consumers, double standing, double supply_limit, double time_out,
              double length) {
  std::vector<double> times{0, length};
  for (const Consumer& c : consumers)
    for (const double t :
         {c.start, c.start + c.inrush_time, c.start + c.time, c.start + c.jams_after, c.start + time_out})
      if (std::isfinite(t) && t > 0 && t < length) times.push_back(t);
  std::sort(times.begin(), times.end());
  // Times that differ by rounding alone are one.
  times.erase(std::unique(times.begin(), times.end(), [](double a, double b) { return b - a < 1e-9; }),
              times.end());
  Budget b{-1, 0, 0, 0, {}};
  for (size_t i = 0; i + 1 < times.size(); ++i) {
    const double middle = (times[i] + times[i + 1]) / 2;
    const double lasts = times[i + 1] - times[i];
    double current = standing;
    for (const Consumer& c : consumers) current += c.at(middle, time_out);
    b.steps.emplace_back(times[i], current);
    if (current > b.peak + 1e-12) {
      b.peak = current;
      b.peak_at = times[i];
    }
    if (current > supply_limit) b.time_above += lasts;
    b.charge += current * lasts;
  }
  return b;
}

double lead_resistance(double one_way, double area, double resistivity) {
  return 2 * one_way * resistivity / area;
}
double least_conductor(double one_way, double current, double drop, double resistivity) {
  return 2 * one_way * resistivity * current / drop;
}

}  // namespace kranich::circuit
