// SPDX-License-Identifier: GPL-3.0-or-later
//! The rod that turns a wheel's carrier while arms lift it: where its ends must be for a wanted turn and the
//! point of the travel from which it begins. SI, rad, leg down. Source: handbook, Swing.
//!
//! A ball on the carrier is wanted in three places: down, where the turn may begin (lifted, not turned), and
//! stowed (lifted and turned). The rod's fixed end is as far from all three, so it lies on the axis of the
//! circle through them; where on that axis decides how little it turns before, and whether it locks on the
//! way.
#pragma once

#include <vector>

#include "core/model/design.h"

namespace kranich::swing {

struct TurnWanted {
  double turn;        //!< of the carrier, stowed, right-handed about its upright king-pin
  double not_before;  //!< the arms' turn until which the carrier should not have turned; above 0
};

struct TurnRod {
  Vec3 on_carrier, on_airframe;  //!< its balls, down
  double length;
  double arm;        //!< of the ball on the carrier from the king-pin
  double too_early;  //!< most by which it has turned before the arms reach `not_before`
  double turn;       //!< that it makes in the end
};

//! Rods that do it, the one that turns least too early first, of balls on circles about the king-pin as large
//! as the one entered, half as large again and three quarters; none that locks or turns back by more than a
//! degree. Empty where the leg is none that is lifted and turned, or a place of it is unknown.
std::vector<TurnRod> rods_for_turn(const Leg& leg, const TurnWanted& wanted, size_t most = 6);
//! Enters one.
void take_rod(Leg& leg, const TurnRod& rod);

}  // namespace kranich::swing
