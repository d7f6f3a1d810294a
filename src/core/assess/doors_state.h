// SPDX-License-Identifier: GPL-3.0-or-later
//! How a door moves, what it passes and what holds it: part of an Assessment.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/assess/assess.h"
#include "core/doors/door.h"
#include "core/sequence/sequence.h"

namespace kranich {

//! What of it is unknown is empty.
struct DoorState {
  std::string door;  //!< its id
  std::optional<motion::DoorPanel> panel;
  std::optional<doors::Region> region;  //!< of a door that the leg does not move
  std::optional<drive::Extreme> over;   //!< least distance to the stowed leg over the openings
  std::optional<double> clears_down;    //!< opening from which on it clears the leg that is down; NaN: none
  std::optional<doors::CrankDrive> crank;
  std::optional<doors::LegDoor> follows;  //!< of one that the leg moves
  //! Its opening over evenly spread shares of the leg's travel, from down to stowed.
  std::vector<double> openings;
  std::optional<doors::HeldDoor> held;
  std::optional<doors::HoldFigures> figures;
};

//! Where each door is in its leg's way, for the sequence.
std::vector<sequence::DoorZone> zones_of(const Assessment& assessment);

}  // namespace kranich
