// SPDX-License-Identifier: GPL-3.0-or-later
//! Sequence: doors and legs as actors with travel times, timed steps, and whether a door is ever where the
//! leg passes. Positions are shares of travel (0 closed or down, 1 open or stowed). s. Source: handbook,
//! Doors and sequence.
#pragma once

#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "core/base/say.h"
#include "core/model/design.h"

namespace kranich::sequence {

//! A travel time with its spread: anywhere from nominal·fastest to nominal·slowest.
struct Travel {
  double nominal, fastest, slowest;  //!< s; factors
  double least() const { return nominal * fastest; }
  double most() const { return nominal * slowest; }
  bool known() const;
  bool operator==(const Travel&) const = default;
};

//! One way of a leg: what Sequence counts with, and what that was made of. What is not known of them is NaN.
struct LegWay {
  Travel counted, entered, computed;
};
//! What a leg takes.
struct LegTimes {
  std::string leg;  //!< its id
  LegWay up, down;
  //! Whether its drive's figures count, beside what is entered or alone.
  bool by_drive = false;
};
//! The legs that retract.
using Times = std::vector<LegTimes>;
const LegTimes* times_of(const Times& times, const std::string& leg);

//! What Sequence counts with for one way of a leg. The wider of what is entered and what its drive computes
//! counts, so that a plan holds whichever of them is right; a time that was only guessed gives way to the
//! computed one. A measured time is the one planned with, else the computed. A spread not known of the one is
//! that of the other. `computed`: NaN where nothing is.
LegWay way_counted(const Leg& leg, bool up, const Travel& computed);

//! Longest time that any leg takes, up or down, with its spread; 0 where none retracts, NaN where a time is
//! unknown. The spread of a leg is 1 where none is known.
double slowest_leg(const Times& times);

//! One door and one leg that passes it, going up: door opens at 0, leg starts at w1, door starts to close at
//! w2.
struct Guarded {
  Travel open, leg, close;
  double frees_leg_at;            //!< share open
  double zone_enter, zone_leave;  //!< shares of the leg's travel, in the order it passes them
  //! Shares of the leg's travel, in the order it passes them, and of the door's opening below which the door
  //! is in its way there: the drawn region, beside the plain one that those three shares make.
  std::vector<std::pair<double, double>> drawn{};
};
//! Least wait before the leg starts: the most of t_open,max·(door's share) − t_leg,min·(leg's share) over all
//! points of the region, not below 0; of the plain one max(0, t_open,max·free − t_leg,min·enter).
double least_leg_wait(const Guarded& g);
//! Least start of closing, for a leg that starts at w1, so that the slowest leg has left the door's zone.
double least_close_start(const Guarded& g, double leg_start);
//! ... and so that the slowest leg has come to rest (the plain rule).
double least_close_start_at_rest(const Guarded& g, double leg_start);
//! True if some mix of the spreads brings leg and door together.
bool conflicts(const Guarded& g, double leg_start, double close_start);
//! Share of its travel that the slowest leg has done when the door starts to close.
double slowest_leg_at(const Guarded& g, double leg_start, double close_start);
//! Lowest voltage at which a fixed close start is still safe, the leg's time going as nominal/voltage.
double lowest_safe_voltage(const Guarded& g, double leg_start, double close_start, double nominal_voltage);

enum class ActorKind { leg, door, aid };

//! One actor's movement on the timeline.
struct Bar {
  std::string actor;  //!< its id
  ActorKind kind;
  std::string leg;  //!< id of the leg it is, guards or is about
  Action action;
  double start, nominal_end, earliest_end, latest_end;
  double entered_end;  //!< by the time entered, where another is counted with; else NaN
};
struct Timeline {
  std::vector<Bar> bars;
  double nominal_end, latest_end;
};

//! What one door's steps come to in one direction.
struct DoorCheck {
  std::string door;               //!< its id
  double leg_start, close_start;  //!< NaN where the door does not close again
  double least_leg_start, least_close_start, least_close_start_at_rest;
  double slowest_leg_share;  //!< at the start of closing
  double wait_in_hand;       //!< leg start less the least, s
  double close_in_hand;      //!< close start less the least (at rest), s; NaN if it does not close
  bool touches;              //!< geometry: some mix of the spreads brings them together
  bool shut;                 //!< nothing opens it before the leg comes: the waits are then infinite
  bool stood_open;           //!< since the other direction: there is nothing to wait for
};

//! Where a door is in its leg's way, by the geometry of both.
struct DoorZone {
  std::string door;  //!< its id
  //! Shares of the leg's travel from down on, and of the door's opening below which it is in the way there.
  std::vector<std::pair<double, double>> points;
};

//! The bars of a list of steps; steps of unknown actors or times are named in `problems`.
Timeline timeline(const Design& design, const Times& times, const std::vector<Step>& steps,
                  std::vector<Text>& problems);
//! Checks every door against the leg it covers, going up or down; those that the leg itself moves are left
//! out. What is entered of where a door is in the way counts, and what the geometry gives.
std::vector<DoorCheck> check_doors(const Design& design, const Times& times, bool up,
                                   std::vector<Text>& problems, const std::vector<DoorZone>& zones);

//! The first of an actor's steps that does this; null without one.
const Step* step_of(const std::vector<Step>& steps, const std::string& actor, Action action);
//! What an actor does last in a list of steps, in time; null where it does nothing.
const Step* last_step(const std::vector<Step>& steps, const std::string& actor);

//! Whether an action leads to the end of its actor's travel (open, stowed, let go), not back.
bool is_forth(Action action);

//! Position (share of travel, 0 closed, down or holding) of an actor at a time, all at nominal speed.
//! `before` is where it stands before its first step.
double position_at(const Timeline& timeline, const std::string& actor, double time, double before);

}  // namespace kranich::sequence
