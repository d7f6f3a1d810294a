// SPDX-License-Identifier: GPL-3.0-or-later
//! What commands and feeds the retraction: switches, lamps, horn; pump, pipes, restrictors; battery and
//! leads. Part of the Design (design.h). SI.
#pragma once

#include <string>
#include <vector>

#include "core/model/given.h"

namespace kranich {

//! What moves the legs on the pilot's command.
enum class LegPower { none, pump, motors };
//! Where a switch sits that tells of an end of the leg's way: on the leg's arrival, on the lock's own link,
//! or one on each, in series.
enum class SignPlace { none, on_leg, on_lock, both };
enum class SquatKind { none, one, two };
//! What lets the legs fall without power.
enum class ReleaseKind { none, dump, clutch };
enum class HornBy { none, throttle, throttle_or_speed };
//! Doors and legs follow one another by time; by the contact of the one before; or by contact, and a leg does
//! not start while its door has been told to close.
enum class DoorOrder { timed, confirmed, blocked };
//! What the lamps mean; one legend for a whole aircraft.
enum class LampSchool { none, greens_dark_up, greens_blue_up, one_green, red_until_locked };
enum class SwitchSort { microswitch, reed };

struct Logic : Kept {
  LegPower power = LegPower::none;
  SignPlace down_sign = SignPlace::none, up_sign = SignPlace::none;
  SwitchSort switches = SwitchSort::microswitch;
  bool plastic_mounts = false;  //!< what holds them (or their magnets) is printed or glued
  SquatKind squat = SquatKind::none;
  bool pressure_switch = false;  //!< stops the pump; only with a pump
  Given time_out;                //!< after which motor or pump is cut off; none where not given
  ReleaseKind release = ReleaseKind::none;
  bool signals_apart = false;  //!< lamps and horn have a breaker of their own
  bool breaker_trips = false;  //!< the motor's own trips where the motor stalls
  HornBy horn = HornBy::none;
  Given throttle_back;  //!< share of its travel below which the throttle counts as back
  DoorOrder door_order = DoorOrder::timed;
  bool door_pairs = false;  //!< two open switches on each door, in series
  LampSchool lamps = LampSchool::none;
  bool operator==(const Logic&) const = default;
};

//! Where the oil is throttled.
enum class ThrottleAt { none, return_side, supply_side };
struct Throttle : Kept {
  ThrottleAt at = ThrottleAt::none;
  Given bore;  //!< of the hole
  Given coefficient = defaulted(0.62);
  Given widest;  //!< bore that it can be opened to
  bool operator==(const Throttle&) const = default;
};
enum class FlowSplit { tee, ideal, throttling, geared };
enum class PipeSide { up, down };

struct Pipe : Kept {
  std::string name;
  std::string leg;  //!< id of the leg it serves; empty: none of them alone
  PipeSide side = PipeSide::down;
  Given length, bore;
  bool in_cabin = false;  //!< passes through the cockpit
  bool operator==(const Pipe&) const = default;
};

enum class FittingKind { tee, sensor, gauge, restrictor, dump_valve, filler };
enum class BranchWay { hangs_down, level, points_up };
//! What sits in a pipe, and how its branch lies: air rises.
struct PipeFitting : Kept {
  std::string name;
  FittingKind kind = FittingKind::tee;
  PipeSide side = PipeSide::down;
  BranchWay way = BranchWay::hangs_down;
  Given height;  //!< waterline it sits at, for the order of bleeding
  bool in_cabin = false;
  bool operator==(const PipeFitting&) const = default;
};

struct Hydraulics : Kept {
  //! Of the pump at its voltage: flow against no pressure, and a second point of its curve.
  Given pump_flow, loaded_flow, loaded_pressure, pump_voltage;
  Given down_speed = defaulted(1);  //!< share of the pump's speed going down
  Throttle up, down;
  FlowSplit split = FlowSplit::tee;
  bool checks = false;  //!< in each leg's branch
  Given density = defaulted(870), bulk_modulus = defaulted(1.4e9);
  Given cut_out, cut_in, relief, rated;  //!< pressures; rated: of the weakest part
  Given wanted_up, wanted_down;          //!< times
  Given trapped_volume;                  //!< behind the check, gear up
  Given test_fall, test_time;            //!< pressure lost on the bench, and in how long
  Given cycles_apart;                    //!< how long apart the pump came on in the cruise
  std::vector<Pipe> pipes;
  std::vector<PipeFitting> fittings;
  bool operator==(const Hydraulics&) const = default;
};

//! A tube between the valve and one side of a leg's cylinder.
struct AirTube : Kept {
  std::string name;
  std::string leg;  //!< id of the leg it serves
  PipeSide side = PipeSide::down;
  Given length, bore;
  bool operator==(const AirTube&) const = default;
};

//! What feeds cylinders that are worked by air. Pressures over that of the air outside.
struct AirSupply : Kept {
  Given bottle;                        //!< its volume
  Given filled;                        //!< pressure it is filled to, gear down
  Given regulated;                     //!< no more passes to the cylinders; none where not given
  Given outside = defaulted(101325);   //!< the one absolute pressure
  Given rated;                         //!< of the weakest part
  Given valve_bore;                    //!< narrowest between bottle and cylinder, and from there to the open
  Given up_bore, down_bore;            //!< of restrictors where air leaves, going up, going down
  Given coefficient = defaulted(0.8);  //!< of these holes
  Given wanted_cycles;                 //!< up and down, from one filling
  Given wanted_up, wanted_down;        //!< times
  Given test_fall, test_time;          //!< pressure lost on the bench, and in how long
  Given wait;                          //!< between filling and flying
  std::vector<AirTube> tubes;
  bool operator==(const AirSupply&) const = default;
};

enum class OnSignalLost { holds, goes_down, goes_up };

struct RoutePoint : Kept {
  Point at;
  bool operator==(const RoutePoint&) const = default;
};

//! A lead from the supply to what it feeds, with all that hangs on it.
struct Feed : Kept {
  std::string name;
  std::string actor;  //!< id of the leg or door it moves; empty: the pump, or something else
  Given running, stall, inrush, inrush_time;
  Given voltage_needed;   //!< at its far end
  Given length, section;  //!< one way; of one conductor
  Given extension;        //!< made-up leads within that length
  Given connectors, connector_resistance;
  Given fuse;
  bool heavy_by_relay = false;  //!< a relay beside it switches the heavy current, its switches carry signals
  bool reversed = false;        //!< its channel is set the other way round
  OnSignalLost lost = OnSignalLost::holds;
  Given diameter, channel;        //!< of the cable; width cut for it
  Given slack, slack_needed;      //!< where it crosses to the leg; needed: as seen, where no clips are given
  Point clip_airframe, clip_leg;  //!< the last that holds it on the airframe, the first on the leg, down
  std::vector<RoutePoint> route;
  bool operator==(const Feed&) const = default;
};

struct Electrics : Kept {
  Given voltage, lowest_voltage;  //!< of the battery, full and at its lowest
  Given resistance;               //!< of battery and its leads
  Given supply_current;           //!< what battery, regulator or main fuse may give
  Given standing;                 //!< drawn all the time
  std::vector<Feed> feeds;
  bool operator==(const Electrics&) const = default;
};

struct Circuit : Kept {
  Hydraulics hydraulics;
  AirSupply air;
  Electrics electrics;
  bool operator==(const Circuit&) const = default;
};

}  // namespace kranich
