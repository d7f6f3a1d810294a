// SPDX-License-Identifier: GPL-3.0-or-later
//! How an axle moves in the aircraft as its leg closes, and what resists it. One coordinate q ≥ 0 closes the
//! leg: metres along z on a straight leg, radians about the hinge on a hinged one. The spring's own closure s
//! is a function of q, so that the force along q is F(s)·s′ and its slope F′·s′² + F·s″ (virtual work): the
//! motion ratio and the wheel rate of a splayed leg, a V leg on cords or a trailing link follow from the
//! places of hinge and anchors. Assumptions: stiff members, no friction. Source: handbook, Stance.
#pragma once

#include <string>
#include <variant>

#include "core/base/geometry.h"
#include "core/base/say.h"
#include "core/force/leg_law.h"
#include "core/model/workshop.h"

namespace kranich::force {

struct Suspension {
  enum class Path { straight, hinged, bending };
  //! What the spring feels: the axle's rise along z, the turn at the hinge, or the way between two anchors –
  //! pushed shorter (coil, gas) or pulled longer (cord).
  enum class Acts { at_axle, at_hinge, pushed, pulled };

  Path path = Path::straight;
  Acts acts = Acts::at_axle;
  Vec3 axle{0, 0, 0};               //!< wheel centre, extended
  Vec3 wheel_axis = Vec3::UnitY();  //!< along the axle, extended
  Vec3 hinge{0, 0, 0};              //!< a point of the hinge line
  Vec3 hinge_axis = Vec3::UnitX();  //!< a right-handed turn about it closes the leg
  Vec3 anchor_airframe{0, 0, 0}, anchor_leg{0, 0, 0};
  //! Of a bending leg, per metre that the axle rises: how far it moves, and turns (rad).
  Vec3 moved_per_rise = Vec3::UnitZ(), turned_per_rise{0, 0, 0};
  LegLaw law;
  double most = 0;  //!< q at the stop

  struct At {
    Vec3 axle, axle_1, axle_2;     //!< and its derivatives over q
    Vec3 wheel, wheel_1, wheel_2;  //!< direction of the axle
    double force, slope;           //!< along q
  };
  At at(double q) const;
  //! Work done on the spring from extended to q.
  double energy(double q) const;
  //! Spring closure with its derivatives over q.
  struct Closure {
    double s, s_1, s_2;
  };
  Closure closure(double q) const;
  //! Wheel rate along z at q: dF_z/dz of a vertical force at the axle, with the geometry's own share.
  double wheel_rate(double q) const;
  bool operator==(const Suspension&) const = default;
};

//! A straight leg at an axle with a law: the stop is the law's travel.
Suspension straight_leg(const Vec3& axle, const LegLaw& law);

//! The suspension of a design's leg (starboard, or on the centre line), or what is missing for it.
std::variant<Suspension, Text> suspension_of(const Leg& leg, const std::vector<Material>& own);
//! The same leg on the port side.
Suspension mirrored(Suspension s);

}  // namespace kranich::force
