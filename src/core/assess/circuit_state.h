// SPDX-License-Identifier: GPL-3.0-or-later
//! What a design's pump, cylinders, battery and leads come to: part of an Assessment.
#pragma once

#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "core/assess/air_state.h"
#include "core/assess/assess.h"
#include "core/assess/collector.h"
#include "core/circuit/electrics.h"
#include "core/circuit/hydraulics.h"

namespace kranich {

//! A leg's cylinder one way, against its true load.
struct CylinderWay {
  std::string leg;  //!< id; of a pair both
  bool up = true;
  bool in_air = false;         //!< else on jacks
  std::vector<double> forces;  //!< of the load, at even shares of the stroke
  circuit::Stroke stroke;      //!< with its even share of the pump, the battery full
  double lowest_share = 1;     //!< of that voltage, the battery at its lowest
  circuit::StrokeFigures full{}, lowest{};
};

//! Every cylinder's ways on the pump, followed; and what is missing of others, each told once a way.
struct CylinderWays {
  struct Lacks {
    std::string leg;
    bool up;
    Text what;
  };
  std::vector<CylinderWay> ways;
  std::vector<Lacks> lacking;
};
//! Worked out once for an assessment; empty where nothing is told of the pump.
const CylinderWays& cylinder_ways(const Design& design, Assessment& assessment);

//! Cylinders on their bottle.
struct AirState {
  AirPlan plan;
  //! A leg's way in time: `slow` as the last of the wanted cycles, in the air or on jacks, whichever asks for
  //! more; `fast` from the filling, the other of the two.
  struct Followed {
    std::string leg;
    bool up = true;
    bool slow_in_air = false, fast_in_air = false;
    circuit::AirRun slow, fast;
  };
  std::vector<Followed> followed;
  double least_filling = 0;  //!< that still gives the wanted cycles; NaN: none does
  double lasts = 0;  //!< from filling until the wanted cycles no longer go; +∞: nothing leaks, NaN: not told
};

struct CircuitState {
  Hydraulics hydraulics;
  std::vector<CylinderWay> ways;
  //! All legs together on the one pump, in the air, returns free: going up, going down.
  struct Together {
    std::vector<std::string> legs;  //!< id of each branch's leg
    std::vector<Text> words;
    circuit::TeeRun run;
  };
  std::optional<Together> together[2];
  std::optional<AirState> air;
  std::optional<circuit::Budget> budget[2];  //!< of the currents, going up, going down
};

//! What pump and return stand under, and where each branch is, so long after the start of a way: the pump's
//! pressure as the legs together ask for it, or more where a throttled return pushes back on one of them.
struct CircuitNow {
  double pump = 0, back = 0;
  std::vector<double> places;  //!< shares of the strokes
  bool arrived = false;        //!< all of them: the pump is off
};
CircuitNow circuit_at(const CircuitState& state, bool up, double time);

//! The pump as it runs on a voltage (NaN: as it was measured); or what of it is missing.
std::variant<circuit::Pump, Text> pump_of(const Hydraulics& hydraulics, double voltage, bool down);
//! A cylinder one way with its throttle, the pump shared evenly by all cylinders on it; or what is missing.
std::variant<CylinderWay, Text> cylinder_way(const Design& design, const Leg& leg, bool up, bool in_air);
size_t cylinders_on_pump(const Design& design);

//! Both conductors of a lead and its connectors, Ω; NaN where length or conductor are not known.
double lead_resistance_of(const Feed& feed);
//! Voltage at the far end of a lead that draws a current, the battery at its lowest.
double voltage_at(const Electrics& electrics, const Feed& feed, double current);

//! The part of Circuit that is about bottle and air cylinders.
void assess_air(const Design& design, Assessment& assessment, CircuitState& state, Collector& collect);
//! A time that is wanted, give or take; nothing where none is.
Limit wanted_time_limit(const Given& wanted);
//! What Sequence counts with for the slowest of a leg's movements, s; NaN where no time is known.
double slowest_in_sequence(const Design& design, Assessment& assessment, const Leg& leg, bool up);
//! The same against that computed at its worst.
//! Nothing is said where one of them is not known or not finite.
void counted_by_sequence(const Design& design, Assessment& assessment, const Leg& leg, bool up,
                         double computed, const char* at_worst, Text taken, Collector& collect,
                         const char* measure = "circuit.counted");

//! The part of Circuit that is about battery and leads.
void assess_leads(const Design& design, const Assessment& before, CircuitState& state, Collector& collect);

//! How much further a lead's clips on airframe and leg come apart on the way than they are down (m), and at
//! which turn. Nothing where a clip is not told, or what it moves is no retracting leg.
struct SlackTaken {
  double taken, turn;
};
std::optional<SlackTaken> slack_taken(const Design& design, const Feed& feed);

}  // namespace kranich
