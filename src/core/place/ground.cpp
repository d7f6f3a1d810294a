// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/place/ground.h"

#include <cmath>

namespace kranich::place {
namespace {

//! The plane under three wheels; where a wheel touches depends a little on how it is tilted.
std::optional<Ground> under(const Disc& a, const Disc& b, const Disc& c) {
  Vec3 up = Vec3::UnitZ();
  for (int i = 0; i < 20; ++i) {
    const Vec3 at = contact_of(a, up);
    Vec3 next = (contact_of(b, up) - at).cross(contact_of(c, up) - at);
    const double size = next.norm();
    if (!(size > 1e-9)) return std::nullopt;
    next *= (next.z() < 0 ? -1 : 1) / size;
    const double moved = (next - up).norm();
    up = next;
    if (moved < 1e-14) break;
  }
  if (!(up.z() > 0.2)) return std::nullopt;
  return Ground{up, -up.dot(contact_of(a, up))};
}

}  // namespace

double tip_height(const PropellerDisc& p, const Ground& g) {
  const Vec3 axis(std::cos(p.tilt), 0, std::sin(p.tilt));
  const Vec3 in_disc = g.up - g.up.dot(axis) * axis;
  return g.height_of(p.hub) - p.diameter / 2 * in_disc.norm();
}

std::optional<Ground> ground_under(const std::vector<Disc>& wheels, const Vec3& cg) {
  std::optional<Ground> best;
  double best_inside = -1e-6;  // m: on the edge counts, as the CG of two wheels in line and an outrigger lies
  for (size_t i = 0; i < wheels.size(); ++i)
    for (size_t j = i + 1; j < wheels.size(); ++j)
      for (size_t k = j + 1; k < wheels.size(); ++k) {
        const auto g = under(wheels[i], wheels[j], wheels[k]);
        if (!g) continue;
        bool lowest = true;
        for (const Disc& w : wheels) lowest = lowest && g->origin + lowest_height(w, g->up) > -1e-7;
        if (!lowest) continue;
        // How far within the triangle the plumb line falls.
        const Vec3 plumb = cg - g->height_of(cg) * g->up;
        const Vec3 at[3] = {contact_of(wheels[i], g->up), contact_of(wheels[j], g->up),
                            contact_of(wheels[k], g->up)};
        const double turn = (at[1] - at[0]).cross(at[2] - at[0]).dot(g->up) < 0 ? -1 : 1;
        double inside = 1e9;
        for (int e = 0; e < 3; ++e) {
          const Vec3 edge = at[(e + 1) % 3] - at[e];
          inside = std::min(inside, turn * edge.cross(plumb - at[e]).dot(g->up) / edge.norm());
        }
        if (inside > best_inside) {
          best_inside = inside;
          best = g;
        }
      }
  return best;
}

}  // namespace kranich::place
