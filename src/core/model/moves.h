// SPDX-License-Identifier: GPL-3.0-or-later
//! The moves a builder makes with a leg, as changes of a design: what a drag and what a cure apply.
#pragma once

#include "core/model/design.h"

namespace kranich {

//! Shifts a whole leg with its mount and pivot (m).
inline void shift_leg(Leg& leg, double dx, double dy, double dz) {
  for (Point* p : {&leg.axle, &leg.top, &leg.retraction.pivot}) {
    p->x.si += dx;
    p->y.si += dy;
    p->z.si += dz;
  }
}

//! Moves the axle along the leg's line by a length (m, longer positive); the upper end stays.
inline void lengthen_leg(Leg& leg, double by) {
  const Vec3 top = leg.retraction.fitted ? leg.retraction.pivot.vec() : leg.top.vec();
  Vec3 end = leg.axle.vec();
  if (leg.wheel_offset.known()) end.y() -= leg.wheel_offset;
  Vec3 line = (end - top).normalized();
  if (!line.allFinite()) line = Vec3(0, 0, -1);
  leg.axle.x.si += by * line.x();
  leg.axle.y.si += by * line.y();
  leg.axle.z.si += by * line.z();
}

}  // namespace kranich
