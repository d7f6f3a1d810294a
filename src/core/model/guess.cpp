// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/guess.h"

#include "core/model/moves.h"

namespace kranich {

void carry_guessed_leg(Design& d, size_t row, double dx, double dy) {
  Leg& leg = d.gear.legs.at(row);
  // The fairing about its well stands over the wheel's middle plane.
  for (Body& b : d.airframe.bodies) {
    const Well& well = leg.retraction.well;
    if (!leg.retraction.fitted || !follows_a_guess(b.y) || b.y <= 0 || b.sections.empty()) continue;
    if (!(b.y >= well.low.y && b.y <= well.high.y)) continue;
    b.y.si += dy;
    for (Section& s : b.sections)
      if (follows_a_guess(s.x)) s.x.si += dx;
  }
  for (Point* p : points_of(leg)) {
    if (p == &leg.axle) continue;
    if (follows_a_guess(p->x)) p->x.si += dx;
    if (follows_a_guess(p->y)) p->y.si += dy;
  }
}

void carry_guesses(const Design& before, Design& after) {
  for (size_t row = 0; row < after.gear.legs.size(); ++row) {
    const Leg* was = before.gear.find(after.gear.legs[row].id);
    if (!was) continue;
    Leg& now = after.gear.legs[row];
    const auto moved = [](const Given& from, const Given& to) {
      return from.origin == Origin::guessed && from.known() && to.known() ? to.si - from.si : 0.0;
    };
    const double dx = moved(was->axle.x, now.axle.x), dy = moved(was->axle.y, now.axle.y);
    if (dx == 0 && dy == 0) continue;
    // Whoever moves the leg as a whole has moved the rest of it already; one that is bent or lengthened
    // moves its axle's height too.
    if (now.axle.z.si != was->axle.z.si) continue;
    if (!(now.top == was->top) || !(now.retraction.pivot == was->retraction.pivot)) continue;
    carry_guessed_leg(after, row, dx, dy);
  }
}

void carry_from(Design& d, std::string_view path, double by) {
  constexpr std::string_view legs = "/gear/legs/";
  if (!path.starts_with(legs)) return;
  path.remove_prefix(legs.size());
  const size_t stroke = std::min(path.find('/'), path.size());
  const size_t row = row_of(d.gear, path.substr(0, stroke));
  if (row >= d.gear.legs.size()) return;
  path.remove_prefix(stroke);
  if (path == "/axle/x_m") carry_guessed_leg(d, row, by, 0);
  if (path == "/axle/y_m") carry_guessed_leg(d, row, 0, by);
}

}  // namespace kranich
