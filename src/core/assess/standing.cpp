// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/standing.h"

#include <cmath>

namespace kranich {

double coordinate_in_state(const stance::WheelOnLeg& wheel, GearState state,
                           const stance::WheelState* at_rest) {
  switch (state) {
    case GearState::extended:
      return 0;
    case GearState::static_load:
      return at_rest ? at_rest->coordinate : 0;
    case GearState::bottomed:
    case GearState::flat:
      return wheel.leg.most;
  }
  return 0;
}

double radius_in_state(const Leg& leg, GearState state, const stance::WheelState* at_rest) {
  if (state == GearState::flat) return leg.wheel.flat_radius;
  const double free = leg.wheel.diameter / 2;
  return state == GearState::extended || !at_rest ? free : free - at_rest->tyre_closure;
}

Vec3 axle_in_state(const Leg& leg, const stance::WheelOnLeg* on_leg, GearState state,
                   const stance::WheelState* at_rest) {
  if (on_leg && on_leg->leg.path != force::Suspension::Path::straight)
    return on_leg->leg.at(coordinate_in_state(*on_leg, state, at_rest)).axle;
  double closure = 0;
  if (state == GearState::static_load && at_rest) closure = at_rest->leg_closure;
  if (state == GearState::bottomed || state == GearState::flat) closure = leg.travel;
  return leg.axle.vec() + Vec3(0, 0, closure);
}

Standing standing_in(const Design& d, const std::vector<stance::WheelOnLeg>* wheels, const LoadingState& l,
                     GearState state) {
  struct Placed {
    Vec3 axle;
    double radius, contact_y;
  };
  const auto place_of = [&](const Leg& leg, WheelIndex which) -> Placed {
    const auto i = static_cast<size_t>(which);
    const stance::WheelOnLeg* on_leg = wheels ? &(*wheels)[i] : nullptr;
    const stance::WheelState* at_rest = l.rest ? &l.rest->wheels[i] : nullptr;
    Placed p{axle_in_state(leg, on_leg, state, at_rest), radius_in_state(leg, state, at_rest), 0};
    p.contact_y = std::abs(p.axle.y());
    if (on_leg && which != WheelIndex::third && std::isfinite(p.radius))
      p.contact_y = std::abs(stance::wheel_setting(*on_leg, coordinate_in_state(*on_leg, state, at_rest),
                                                   p.radius, which == WheelIndex::port ? -1 : 1)
                                 .contact_y);
    return p;
  };
  const Placed third = place_of(d.gear.third, WheelIndex::third);
  const Placed starboard = place_of(d.gear.main, WheelIndex::starboard);
  Placed main = starboard;
  if (d.gear.unlinked || l.mass.down.at.y() != 0) {
    const Placed port = place_of(d.port_leg(), WheelIndex::port);
    main.axle.x() = (port.axle.x() + starboard.axle.x()) / 2;
    main.axle.z() = (port.axle.z() + starboard.axle.z()) / 2;
    main.radius = (port.radius + starboard.radius) / 2;
    main.contact_y = (port.contact_y + starboard.contact_y) / 2;
  }
  Standing s{{main.axle.x(), main.axle.z(), main.radius},
             {third.axle.x(), third.axle.z(), third.radius},
             main.contact_y,
             std::numeric_limits<double>::quiet_NaN(),
             l.mass.down.at};
  if (state == GearState::static_load && l.rest)
    s.pitch = l.rest->pitch;
  else if (const auto pitch = place::pitch_on(s.third, s.main))
    s.pitch = *pitch;
  return s;
}

}  // namespace kranich
