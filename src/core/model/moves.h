// SPDX-License-Identifier: GPL-3.0-or-later
//! The moves a builder makes with a leg, as changes of a design: what a drag and what a cure apply.
#pragma once

#include <algorithm>
#include <string>
#include <vector>

#include "core/base/say.h"
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

//! Every place of a leg: axle, mount, hinge, brace, spring, pivot and the well about it, its drive, hook,
//! tubes, joints, line of a bending leg.
inline std::vector<Point*> points_of(Leg& leg) {
  std::vector<Point*> points{&leg.axle,
                             &leg.top,
                             &leg.hinge,
                             &leg.brace_leg,
                             &leg.brace_airframe,
                             &leg.spring.anchor_airframe,
                             &leg.spring.anchor_leg,
                             &leg.retraction.pivot,
                             &leg.retraction.well.low,
                             &leg.retraction.well.high,
                             &leg.retraction.drive.cg,
                             &leg.retraction.drive.air_centre,
                             &leg.retraction.drive.on_airframe,
                             &leg.retraction.drive.on_leg,
                             &leg.retraction.drive.down_spring.on_airframe,
                             &leg.retraction.drive.down_spring.on_leg,
                             &leg.retraction.uplock.hook,
                             &leg.retraction.rod_airframe,
                             &leg.retraction.rod_leg,
                             &leg.retraction.king_pin,
                             &leg.retraction.wanted.centre,
                             &leg.steering.rod_airframe,
                             &leg.steering.rod_leg};
  for (auto& t : leg.tubes) points.insert(points.end(), {&t.top, &t.foot});
  for (auto& j : leg.joints) points.insert(points.end(), {&j.at, &j.to});
  for (auto& p : leg.spring.bent.line) points.push_back(&p.at);
  for (auto& b : leg.retraction.bends) points.push_back(&b.at);
  return points;
}

//! Every place of a door.
inline std::vector<Point*> points_of(Door& door) {
  return {&door.hinge_from,       &door.hinge_to,         &door.drive.crank,
          &door.drive.crank_ball, &door.drive.door_ball,  &door.drive.leg_ball,
          &door.drive.stop,       &door.hold.spring_door, &door.hold.spring_airframe};
}

//! Shifts a whole leg with all it consists of (m).
inline void shift_leg(Leg& leg, double dx, double dy, double dz) {
  for (Point* p : points_of(leg)) {
    p->x.si += dx;
    p->y.si += dy;
    p->z.si += dz;
  }
}

//! Does the same to every main leg.
template <class F>
void for_mains(Design& design, F&& change) {
  for (auto& leg : design.gear.legs)
    if (leg.role == LegRole::main) change(leg);
}

//! The rows that a builder changes together with one: the same role, in the same line across the aircraft
//! (left and right measured apart, the mains of one axle).
std::vector<size_t> line_of(const Design& design, size_t row);

//! Legs that a builder changes together, with what they are called.
struct LegLine {
  std::vector<size_t> rows;
  std::vector<std::string> ids;  //!< of the rows; the first one speaks for the line
  Text word;                     //!< "main", "nose", "front main"
  bool several;                  //!< more than one leg stands there
};
//! Every line of a design's legs, in the order of the rows.
std::vector<LegLine> leg_lines(const Design& design);

//! Shifts legs with all that hangs on them in the ledger (m, as of the starboard side).
void shift_legs(Design& design, const std::vector<size_t>& rows, double dx, double dy, double dz);
//! Shifts every main leg likewise.
void shift_mains(Design& design, double dx, double dy, double dz);

//! An id that no leg and no door bears yet.
std::string unused_id(const Design& design, const std::string& word);
//! Appends a leg of a role, a copy of the last one of that role (or of the main leg), a wheel's diameter
//! beside it, and returns its row. Only for a leg on the centre line does it stand alone.
size_t add_leg(Design& design, LegRole role, LegStands stands);
//! Makes one row of a leg that stands on both sides two, to be measured apart; the reverse keeps the
//! starboard one.
void unlink_leg(Design& design, size_t row);
void link_leg(Design& design, size_t row);
//! Gives the aircraft another layout: keeps the mains it has, turns nose into tail and back, adds the legs
//! that are missing and takes away those that do not belong to it.
void arrange(Design& design, Layout layout);

//! Moves the axle along the leg's line by a length (m, longer positive); the upper end stays.
inline void lengthen_leg(Leg& leg, double by) {
  const Vec3 top = leg.held_at();
  Vec3 end = leg.axle.vec();
  if (leg.wheel_offset.known()) end.y() -= leg.wheel_offset;
  if (leg.axle_aft.known()) end.x() -= leg.axle_aft;
  Vec3 line = (end - top).normalized();
  if (!line.allFinite()) line = Vec3(0, 0, -1);
  // The end of a leg that bends goes with its axle.
  std::vector<Point*> ends{&leg.axle};
  if (!leg.spring.bent.line.empty()) ends.push_back(&leg.spring.bent.line.back().at);
  for (Point* p : ends) {
    p->x.si += by * line.x();
    p->y.si += by * line.y();
    p->z.si += by * line.z();
  }
}

//! Bends a leg outward about its upper end at constant length (rad, out positive), seen from ahead: the wheel
//! goes out and the aircraft sinks. The axle is not bent back, so camber falls by as much.
inline void bend_leg_out(Leg& leg, double by) {
  const double y0 = leg.top.y;
  const double z0 = leg.top.z;
  std::vector<Point*> turned{&leg.axle};
  for (auto& p : leg.spring.bent.line) turned.push_back(&p.at);
  for (Point* p : turned) {
    const double y = p->y - y0;
    const double z = p->z - z0;
    p->y.si = y0 + y * std::cos(by) - z * std::sin(by);
    p->z.si = z0 + y * std::sin(by) + z * std::cos(by);
  }
  if (!leg.camber.known()) leg.camber.si = 0;
  leg.camber.si -= by;
}

}  // namespace kranich
