// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/leg/layup.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace kranich::leg {

PlyTotal total_of(const Ply& p) {
  constexpr double nan = std::numeric_limits<double>::quiet_NaN();
  PlyTotal t{nan, nan, nan, nan};
  const double over = p.overlap.known() ? 2 * p.overlap : 0;
  t.cut = p.length.known() && p.width.known() ? (p.length + over) * (p.width + over) : p.area.si;
  t.area = p.count * t.cut;
  t.cloth = t.area * p.areal_weight;
  t.resin = t.cloth * p.resin / (1 - p.resin);
  return t;
}

LayUpTotal total_of(const std::vector<Ply>& plies) {
  LayUpTotal all;
  for (const auto& p : plies) {
    const PlyTotal t = total_of(p);
    if (std::isfinite(t.area)) all.area += t.area;
    if (std::isfinite(t.cloth)) all.cloth += t.cloth;
    if (std::isfinite(t.resin))
      all.resin += t.resin;
    else if (std::find(all.left_out.begin(), all.left_out.end(), p.zone) == all.left_out.end())
      all.left_out.push_back(p.zone);
  }
  all.batches = static_cast<int>(std::ceil(all.resin / largest_batch - 1e-9));
  return all;
}

int plies_of_a_mix(const Mixing& m) {
  // A hair more, so that a ply that just goes in counts.
  return static_cast<int>(std::floor(2.0 / 3 * m.working_time / m.ply_time * (1 + 1e-12)));
}

int mixes_for(const Ply& zone, int plies) {
  return static_cast<int>(std::ceil(zone.count / static_cast<double>(plies) * (1 - 1e-12)));
}

}  // namespace kranich::leg
