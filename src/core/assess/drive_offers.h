// SPDX-License-Identifier: GPL-3.0-or-later
//! Drives that could move a leg, side by side: each put into the leg as it stands and judged by Drive's own
//! checks. SI, rad. Source: handbook, Drive.
#pragma once

#include <limits>
#include <string>
#include <vector>

#include "core/assess/assess.h"
#include "core/base/say.h"
#include "core/model/design.h"

namespace kranich {

//! One of them, judged. NaN is what is not known or does not apply to its kind.
struct ComparedDrive {
  static constexpr double unknown_number = std::numeric_limits<double>::quiet_NaN();
  DriveSold sold;
  DriveKind kind = DriveKind::none;
  int offer = -1;                   //!< among the leg's drive_offers; -1: what is fitted
  std::string rejected;             //!< the builder's reason; empty: open
  double in_hand = unknown_number;  //!< least share left of its force or torque over the travel
  double arm = unknown_number;      //!< where it is least, m
  double stroke = unknown_number;   //!< left over
  double column = unknown_number;   //!< share left of its rod or body against bowing
  double time = unknown_number;     //!< of one travel
  double energy = unknown_number;   //!< drawn from the battery for one travel, J: voltage, current and time
  double room = unknown_number;     //!< least distance of its body to what it must not touch, at either end
  Text fits{};                      //!< how its pins go into the eyes of what is fitted; empty: as they are
  std::vector<Text> against{};      //!< checks that fail, and what else speaks against it
  std::vector<Text> unknown{};      //!< checks that lack a number
};

//! What is fitted first, then the offers in their order. `assessment` is that of the design.
std::vector<ComparedDrive> compare_drives(const Design& design, const Leg& leg, const Assessment& assessment);

//! A machine put in where another was: what it works against (mass, air, friction, springs, whether it must
//! fall free, the wanted time) stays.
Drive with_machine(const Drive& load, const Drive& machine);

//! Takes an offer: it is fitted, and what was fitted becomes an offer in its place; taken again, all is as it
//! was.
void take_drive(Leg& leg, size_t offer);
//! What is fitted, as an offer under a name.
DriveOffer offer_of(const Leg& leg, std::string name);

}  // namespace kranich
