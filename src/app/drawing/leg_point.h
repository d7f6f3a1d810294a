// SPDX-License-Identifier: GPL-3.0-or-later
//! A point of a leg as it is stored, dragged in the view it is drawn in.
#pragma once

#include <functional>

#include "app/drawing/board.h"

namespace kranich::app {

//! Which way a leg is looked at: from behind (y, z), or from the side (x, z).
enum class SeenFrom { behind, the_side };

//! A handle at a point of a leg; `of` finds that in the leg, null where it has gone.
inline Handle leg_point(const std::string& leg, const QString& id, const QString& name, const QPointF& at,
                        SeenFrom seen, std::function<Point*(Leg&)> of, bool quiet = false) {
  Handle h;
  h.id = id;
  h.name = name;
  h.at = at;
  h.radius = 9;
  h.quiet = quiet;
  h.move = [leg, seen, of = std::move(of)](Design& d, double dx, double dy) {
    Leg* its = d.gear.find(leg);
    Point* point = its ? of(*its) : nullptr;
    if (!point) return;
    (seen == SeenFrom::behind ? point->y : point->x).si += dx;
    point->z.si += dy;
  };
  return h;
}

}  // namespace kranich::app
