// SPDX-License-Identifier: GPL-3.0-or-later
//! What a design's pump, cylinders, battery and leads come to: part of an Assessment.
#pragma once

#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "core/assess/assess.h"
#include "core/circuit/electrics.h"
#include "core/circuit/hydraulics.h"

namespace kranich {

//! A leg's cylinder one way, against its true load; `legs` of them share the pump.
struct CylinderWay {
  std::string leg;  //!< id; of a pair both
  bool up = true;
  bool in_air = false;                  //!< else on jacks
  circuit::Stroke stroke;               //!< with its share of the pump at the battery's voltage
  circuit::StrokeFigures full, lowest;  //!< battery full, at its lowest
};

struct CircuitState {
  Circuit of;
  std::vector<Leg> legs;  //!< what it was computed for
  std::vector<CylinderWay> ways;
  Text taken;
  std::optional<circuit::TeeRun> tee[2];     //!< going up, down: all legs together, in the worse air
  std::vector<std::string> tee_legs;         //!< words of its branches
  std::optional<circuit::Budget> budget[2];  //!< going up, down
  std::vector<circuit::Consumer> consumers[2];
};

//! The pump as it runs on a voltage; or what of it is missing.
std::variant<circuit::Pump, Text> pump_of(const Hydraulics& hydraulics, double voltage, bool down);
//! Voltage that a pump was measured at, and what the battery gives at its lowest; NaN where not known.
double pump_voltage(const Circuit& circuit, bool lowest);
//! A cylinder one way without its restrictor, with all of the pump divided by `legs`; or what is missing.
std::variant<circuit::Stroke, Text> stroke_of(const Design& design, const Leg& leg, bool up, bool in_air);
circuit::Restrictor restrictor_of(const Hydraulics& hydraulics, const Throttle& throttle);
//! How many cylinders the pump moves at once.
size_t cylinders_on_pump(const Design& design);

//! Voltage at the far end of a lead that draws a current, and what resists on the way; NaN where not known.
double lead_resistance_of(const Feed& feed);
double voltage_at(const Electrics& electrics, const Feed& feed, double current);

}  // namespace kranich
