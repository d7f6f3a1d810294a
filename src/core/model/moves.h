// SPDX-License-Identifier: GPL-3.0-or-later
//! The moves a builder makes with a leg, as changes of a design: what a drag and what a cure apply.
#pragma once

#include <algorithm>
#include <string>
#include <vector>

#include "core/model/design.h"

namespace kranich {

//! A name that no entry of a list bears yet: the word itself, or the word and the first free number from 2.
template <class T>
std::string unused_name(const std::vector<T>& list, const std::string& word) {
  for (int n = 1;; ++n) {
    const std::string name = n == 1 ? word : word + " " + std::to_string(n);
    if (std::none_of(list.begin(), list.end(), [&](const T& e) { return e.name == name; })) return name;
  }
}

//! A station for what slides: no further than its tray goes (anywhere, where the tray's ends are not given).
inline double in_tray(const Item& item, double x) {
  if (!item.slides_from.known() || !item.slides_to.known()) return x;
  return std::clamp(x, item.slides_from.si, item.slides_to.si);
}

//! Shifts a whole leg with its mount, hinge, spring and pivot (m).
inline void shift_leg(Leg& leg, double dx, double dy, double dz) {
  for (Point* p : {&leg.axle, &leg.top, &leg.hinge, &leg.spring.anchor_airframe, &leg.spring.anchor_leg,
                   &leg.retraction.pivot}) {
    p->x.si += dx;
    p->y.si += dy;
    p->z.si += dz;
  }
  for (auto& tube : leg.tubes)
    for (Point* p : {&tube.top, &tube.foot}) {
      p->x.si += dx;
      p->y.si += dy;
      p->z.si += dz;
    }
}

//! Does the same to both main legs: the port one has its own numbers only when it is unlinked.
template <class F>
void for_mains(Design& design, F&& change) {
  change(design.gear.main);
  if (design.gear.unlinked) change(design.gear.port);
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

//! Bends a leg outward about its upper end at constant length (rad, out positive), seen from ahead: the wheel
//! goes out and the aircraft sinks. The axle is not bent back, so camber falls by as much.
inline void bend_leg_out(Leg& leg, double by) {
  const double y0 = leg.top.y;
  const double z0 = leg.top.z;
  const double y = leg.axle.y - y0;
  const double z = leg.axle.z - z0;
  leg.axle.y.si = y0 + y * std::cos(by) - z * std::sin(by);
  leg.axle.z.si = z0 + y * std::sin(by) + z * std::cos(by);
  if (!leg.camber.known()) leg.camber.si = 0;
  leg.camber.si -= by;
}

}  // namespace kranich
