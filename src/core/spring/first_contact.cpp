// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/spring/first_contact.h"

#include <algorithm>

#include "core/place/tandem.h"

namespace kranich::spring {

FirstContact first_contact(const std::vector<TouchingLeg>& legs, double mass, const Vec3& cg,
                           double roll_inertia, double pitch_inertia, double pitch, double roll,
                           double sink_speed) {
  const Vec3 up = up_direction(pitch, roll);
  std::vector<place::Disc> lowest;  // of each leg the wheel that hangs lowest
  for (const auto& l : legs) {
    const Vec3 half(0, l.spacing / 2, 0);
    const place::Disc port{l.axle - half, l.radius};
    const place::Disc starboard{l.axle + half, l.radius};
    lowest.push_back(place::lowest_height(port, up) < place::lowest_height(starboard, up) ? port : starboard);
  }
  FirstContact f{};
  std::vector<double> height;
  for (const auto& d : lowest) height.push_back(place::lowest_height(d, up));
  f.leg = static_cast<size_t>(std::min_element(height.begin(), height.end()) - height.begin());
  for (const double h : height) f.height.push_back(h - height[f.leg]);
  const Vec3 inverse(1 / roll_inertia, 1 / pitch_inertia, 1 / (roll_inertia + pitch_inertia));
  const auto arm = [&](size_t i) { return Vec3((place::contact_of(lowest[i], up) - cg).cross(up)); };
  const Vec3 first = inverse.cwiseProduct(arm(f.leg));
  f.effective_mass = 1 / (1 / mass + arm(f.leg).dot(first));
  for (size_t i = 0; i < legs.size(); ++i)
    f.strikes.push_back(sink_speed * (1 - f.effective_mass * (1 / mass + arm(i).dot(first))));
  return f;
}

}  // namespace kranich::spring
