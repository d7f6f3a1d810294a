// SPDX-License-Identifier: GPL-3.0-or-later
//! A door of the design as it is moved: by a crank and a rod, by the leg (a rod, a wire, an arm that meets a
//! stop in the bay, the wheel itself), or on its hinge; and where leg and door are in each other's way. SI,
//! rad. Doors as they are stored, with the leg as it is stored. All that is entered of a door's drive is with
//! the gear up and the door closed. Source: handbook, Doors.
#pragma once

#include <array>
#include <optional>
#include <variant>
#include <vector>

#include "core/doors/hold.h"
#include "core/doors/interlock.h"
#include "core/doors/linkage.h"
#include "core/drive/load.h"
#include "core/model/design.h"
#include "core/motion/panel.h"
#include "core/motion/retraction.h"
#include "core/swing/swing.h"

namespace kranich::doors {

//! What of a door's panel is missing, each with the name that leads to its entry; empty: nothing.
Text panel_lacks(const Design& design, const Door& door);
//! That its drive's torque is missing, with the name that leads to its entry.
Text torque_lacks(const Design& design, const Door& door);
//! Whether the leg moves a door, so that it needs no drive and no step of its own.
bool moved_by_leg(const Door& door);

//! Crank, rod and hinge of a door that a crank moves, its own or another door's; or what of it is missing.
struct CrankDrive {
  DoorLinkage linkage;
  double throw_open;  //!< of the crank, right-handed about its axis
};
std::variant<CrankDrive, Text> crank_of(const Design& design, const Door& door);

//! A door that follows its leg.
struct LegDoor {
  DoorWay way;
  motion::DoorPanel panel;
  swing::MovingLeg leg;
  motion::Carried carried = motion::Carried::leg;
  Vec3 leg_ball = Vec3::Zero(), door_ball = Vec3::Zero();  //!< leg down; door closed
  double tie = 0;                                          //!< length of the wire
  DoorLinkage arm{};                                       //!< of the stop arm, as it lies stowed
  Vec3 stop = Vec3::Zero();
  double arm_length = 0;
  double arm_open = 0;  //!< the arm's turn from stowed at which the door stands open against its own stop

  //! How far it is open when the leg has turned so far (0 down); NaN where it cannot: a rod that locks, a
  //! wire too short, a wheel that needs it open further than it goes.
  double opening(double turn) const;
  //! Where a rod's or wire's end on the leg is then.
  Vec3 ball_at(double turn) const { return leg.moves.pose(carried, turn) * leg_ball; }
  //! Wire that is left where the door hangs as near as it can to its end on the leg; below nothing: too
  //! short.
  double wire_to_spare(double turn) const;
  //! The arm's turn from stowed that its stop makes, and how far along the arm the stop then lies.
  struct Arm {
    double turn, along;
  };
  Arm arm_at(double turn) const;
  //! The leg's turn from which on the stop pushes, if the arm reaches it; 0: from the start. NaN where no
  //! turn of the arm opens the door.
  double stop_meets() const;
};
std::variant<LegDoor, Text> leg_door(const Design& design, const Door& door);

//! How far a door stands open when its leg has gone a share of its travel (0 down): one that the leg moves
//! follows it (NaN where that is not known); any other as the sequence leaves it, open on the way.
double opening_at(const Design& design, const Door& door, double leg_share);

//! Corners of a panel when its leg has gone a share of its travel and it stands open so far: hinge's ends,
//! then the free edge. One with an arm rides on the leg. Nothing where something of it is unknown.
std::optional<std::array<Vec3, 4>> panel_at(const Design& design, const Door& door, double leg_share,
                                            double opening);

//! Least distance of all that a leg carries to a panel.
double clearance(const swing::MovingLeg& leg, const motion::DoorPanel& panel, double turn, double opening);

//! Least of that over all openings from closed to open, the leg still, and the opening at which it is.
drive::Extreme least_over_openings(const swing::MovingLeg& leg, const motion::DoorPanel& panel, double turn);

//! The forbidden region in the plane of both travels.
struct Region {
  double wanted = 0;  //!< the clearance by which it is grown
  //! For each of evenly spread turns of the leg, from down to stowed, the openings that are in its way.
  std::vector<Intervals> columns;
  double enter = 0, leave = 0;  //!< shares of the leg's travel between which it is; NaN: it is empty
  double frees_at = 0;    //!< share of its opening from which on the door is never in the way; NaN: none
  double least_open = 0;  //!< least clearance over the swing, door fully open
  double at_turn = 0;     //!< there
};
//! A panel's points move no faster than its width for each rad: along one column the search goes by that, and
//! misses nothing wider than 1/64 of the opening; there are 37 columns.
Region region_of(const swing::MovingLeg& leg, const motion::DoorPanel& panel, double wanted);

//! What holds a door, in the plane square to its hinge; or what of it is missing.
std::variant<HeldDoor, Text> held_of(const Design& design, const Door& door);

//! A crank's ball for a door whose rod shall open it by `open` at a crank's turn: near the radius it has, and
//! clocked as it pushes best (least transmission angle greatest). Nothing where no ball within three radii
//! does, or none pushes squarely enough (30°).
std::optional<Vec3> crank_ball_for(const DoorLinkage& linkage, double throw_open, double open);

}  // namespace kranich::doors
