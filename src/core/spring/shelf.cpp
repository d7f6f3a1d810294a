// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/spring/shelf.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace kranich::spring {

std::vector<Candidate> rank_springs(const std::vector<Coil>& shelf, const Need& need) {
  std::vector<Candidate> list;
  for (size_t i = 0; i < shelf.size(); ++i) {
    Coil coil = shelf[i];
    coil.count = need.count;
    coil.motion_ratio = need.motion_ratio;
    coil.installed_length = need.installed_length;
    const auto at = force::coil_at_wheel(coil);
    if (!at) continue;
    Candidate c{i, true, at->preload, at->rate, 0, 0, 0, 0, "", 0};
    c.sag = std::clamp((need.static_load - c.preload) / (c.rate * need.travel), 0.0, 1.0);
    c.peak = c.preload + c.rate * need.travel;
    c.margin = at->figures.margin(at->spring_force(need.travel));
    c.energy = (c.preload + c.peak) / 2 * need.travel;
    if (coil.free_length < need.installed_length) {
      c.objection = "too short: it would hang loose";
      c.fits = false;
    } else if (at->travel_left < need.travel * need.motion_ratio) {
      c.objection = "solid before the stop";
      c.fits = false;
    } else if (c.margin < 0) {
      c.objection = "overstressed at the stop";
    } else if (c.sag > need.sag_high) {
      c.objection = fmt::format("too soft: sags {:.0f} %", 100 * c.sag);
    } else if (c.sag < need.sag_low) {
      c.objection = fmt::format("too stiff: sags {:.0f} %", 100 * c.sag);
    }
    const double middle = (need.sag_low + need.sag_high) / 2;
    c.score = std::abs(c.sag - middle) + (c.margin < 0 ? 1 - c.margin : 0) + (c.fits ? 0 : 10) +
              (c.objection.empty() ? 0 : 1);
    list.push_back(std::move(c));
  }
  std::stable_sort(list.begin(), list.end(),
                   [](const Candidate& a, const Candidate& b) { return a.score < b.score; });
  return list;
}

}  // namespace kranich::spring
