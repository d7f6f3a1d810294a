// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/trim.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/assess/loading_state.h"
#include "core/base/numerics.h"

namespace kranich {

std::vector<TrimWay> ways_to_trim(const Design& d, const Assessment& before, const std::string& loading,
                                  double wanted, const Progress& progress) {
  const LoadingState* l = before.find(loading);
  if (!l || !l->rest) return {};
  const double now = l->rest->pitch;
  const auto pitch_at = [&](const Knob& knob, double change) {
    Design c = d;
    knob.apply(c, change);
    if (!buildable(d, c)) return std::numeric_limits<double>::quiet_NaN();
    Stations needed = Stations::only(Station::stance);
    needed.measure = "stance.pitch";
    const Assessment a = assess(c, needed, &before);
    const LoadingState* there = a.find(loading);
    return there && there->rest ? there->rest->pitch : std::numeric_limits<double>::quiet_NaN();
  };
  std::vector<TrimWay> ways;
  const auto knobs = knobs_for(d, "stance.wing_angle");
  for (size_t i = 0; i < knobs.size(); ++i) {
    if (progress && !progress(static_cast<double>(i) / static_cast<double>(knobs.size()))) return {};
    const Knob& k = *knobs[i];
    const double h = std::max(k.step, 0.005 * k.range());
    const double up = std::min(h, k.most);
    const double down = std::max(-h, k.least);
    const double slope = (pitch_at(k, up) - pitch_at(k, down)) / (up - down);
    if (!std::isfinite(slope) || std::abs(slope * k.range()) < radians(0.02)) continue;
    TrimWay way{knobs[i], slope, {}};
    const double side = now < wanted ? 1 : -1;
    const auto change =
        std::abs(now - wanted) < radians(0.005)
            ? std::nullopt
            : find_root_downhill([&](double v) { return side * (pitch_at(k, v) - wanted); }, 0,
                                 std::max(2 * k.step, 0.02 * k.range()), k.least, k.most, k.step / 8);
    if (change && *change != 0) {
      Cure cure;
      const double step = k.kind == Kind::factor ? k.step : k.step / 10;  // as near as can be measured out
      cure.parts = {{knobs[i], std::round(*change / step) * step}};
      if (cure.parts[0].change != 0 && reaches(cure.parts[0])) {
        weigh_up(cure, before, assess(cure.applied(d), {}, &before), nullptr);
        way.cure = std::move(cure);
      }
    }
    ways.push_back(std::move(way));
  }
  if (progress && !progress(1)) return {};
  std::stable_sort(ways.begin(), ways.end(), [](const TrimWay& x, const TrimWay& y) {
    if (x.cure.has_value() != y.cure.has_value()) return x.cure.has_value();
    if (!x.cure) return std::abs(x.slope) * x.knob->range() > std::abs(y.slope) * y.knob->range();
    const int a = cost_of(*x.cure);
    const int b = cost_of(*y.cure);
    return a != b ? a < b : effort_of(*x.cure) < effort_of(*y.cure);
  });
  return ways;
}

}  // namespace kranich
