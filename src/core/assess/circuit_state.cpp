// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/circuit_state.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/assess/drive_state.h"
#include "core/drive/load.h"

namespace kranich {
namespace {

constexpr double nan = std::numeric_limits<double>::quiet_NaN();
constexpr int columns = 48;  //!< in which a load is kept over its stroke

Text hydraulic(const char* key, const char* word) {
  return entry(std::string("/circuit/hydraulics/") + key, word);
}

//! A load over a stroke, kept at even shares and taken straight between.
std::function<double(double)> kept(std::vector<double> at) {
  return [at = std::move(at)](double share) {
    const double x = std::clamp(share, 0.0, 1.0) * static_cast<double>(at.size() - 1);
    const auto i = std::min(static_cast<size_t>(x), at.size() - 2);
    return at[i] + (x - static_cast<double>(i)) * (at[i + 1] - at[i]);
  };
}

}  // namespace

double pump_voltage(const Circuit& c, bool lowest) {
  const Given& v = lowest ? c.electrics.lowest_voltage : c.electrics.voltage;
  return v.known() ? v.si : lowest ? nan : c.hydraulics.pump_voltage.si;
}

std::variant<circuit::Pump, Text> pump_of(const Hydraulics& h, double voltage, bool down) {
  std::vector<Text> lacks;
  if (!h.pump_flow.known())
    lacks.push_back(hydraulic("pump_flow_m3_per_s", "the pump's flow against nothing"));
  if (!h.loaded_flow.known()) lacks.push_back(hydraulic("loaded_flow_m3_per_s", "its flow under load"));
  if (!h.loaded_pressure.known()) lacks.push_back(hydraulic("loaded_pressure_Pa", "the pressure of that"));
  if (!h.pump_voltage.known()) lacks.push_back(hydraulic("pump_voltage_V", "the voltage it was measured at"));
  if (!lacks.empty()) return enumerated(std::move(lacks));
  const double speed = (std::isfinite(voltage) ? voltage / h.pump_voltage : 1) * (down ? h.down_speed.si : 1);
  return circuit::Pump{h.pump_flow * speed, std::max(0.0, h.pump_flow - h.loaded_flow) / h.loaded_pressure};
}

size_t cylinders_on_pump(const Design& d) {
  size_t n = 0;
  for (const PlacedLeg& p : placed_legs(d.gear)) {
    const Retraction& r = d.gear.legs[p.row].retraction;
    n += r.fitted && r.drive.kind == DriveKind::cylinder;
  }
  return n;
}

circuit::Restrictor restrictor_of(const Hydraulics& h, const Throttle& t) {
  // Nowhere, or no bore known: as wide as the widest pipe, it takes nothing.
  const double bore = t.at != ThrottleAt::none && t.bore.known() ? t.bore.si : 0.02;
  return {t.coefficient.known() ? t.coefficient.si : 0.62, M_PI / 4 * bore * bore, h.density};
}

std::variant<circuit::Stroke, Text> stroke_of(const Design& d, const Leg& leg, bool up, bool in_air) {
  const Hydraulics& h = d.circuit.hydraulics;
  auto made = drive_load(d, leg);
  if (auto* missing = std::get_if<Text>(&made)) return std::move(*missing);
  const auto& found = std::get<DriveLoad>(made);
  const auto cylinder = cylinder_of(leg);
  const auto strut = actuator_of(leg);
  if (!cylinder || !strut) return say("bore, rod and ends of the {}'s cylinder, on Drive", d.leg_word(leg));
  const drive::LegLoad load = in_air ? found.load : on_jacks(found.load);
  const auto& moves = load.moves;
  const double full = moves.full_turn;
  const double down_length = drive::length_of(moves, *strut, 0);
  const double up_length = drive::length_of(moves, *strut, full);
  const double length = std::abs(up_length - down_length);
  if (!(length > 0)) return say("a cylinder that grows or shrinks as the {} swings", d.leg_word(leg));
  const bool extends = (up_length > down_length) == up;
  // The turn at a share of the stroke: the length goes one way, or the cylinder could not follow it.
  std::vector<double> forces;
  double turn = up ? 0 : full;
  for (int i = 0; i <= columns; ++i) {
    const double share = static_cast<double>(i) / columns;
    const double wanted =
        (up ? down_length : up_length) + share * (up ? up_length - down_length : down_length - up_length);
    // From the turn before by its slope: the length is smooth, a few steps are enough.
    for (int k = 0; k < 6; ++k) {
      const double slope = drive::arm_of(moves, *strut, turn);
      const double miss = drive::length_of(moves, *strut, turn) - wanted;
      if (std::abs(miss) < 1e-9 || std::abs(slope) < 1e-9) break;
      turn = std::clamp(turn - miss / slope, 0.0, full);
    }
    const double arm = std::abs(drive::arm_of(moves, *strut, turn));
    const double torque = up ? load.to_retract(turn) : load.to_extend(turn);
    forces.push_back(arm > 1e-6 ? torque / arm : std::copysign(1e9, torque));
  }
  circuit::Stroke s;
  const double annulus = cylinder->area() - cylinder->rod_area();
  s.area_in = extends ? cylinder->area() : annulus;
  s.area_out = extends ? annulus : cylinder->area();
  s.length = length;
  s.load = kept(std::move(forces));
  const Throttle& throttle = up ? h.up : h.down;
  s.restrictor = restrictor_of(h, throttle);
  s.braked =
      throttle.at == ThrottleAt::supply_side ? circuit::Braked::supply_side : circuit::Braked::return_side;
  auto pump = pump_of(h, pump_voltage(d.circuit, false), !up);
  if (auto* missing = std::get_if<Text>(&pump)) return std::move(*missing);
  s.pump = std::get<circuit::Pump>(pump);
  const auto n = static_cast<double>(std::max<size_t>(cylinders_on_pump(d), 1));
  s.pump.flow /= n;
  s.pump.loss /= n;
  return s;
}

double lead_resistance_of(const Feed& f) {
  if (!f.length.known() || !f.section.known()) return nan;
  const double connectors =
      f.connectors.known() && f.connector_resistance.known() ? f.connectors * f.connector_resistance : 0;
  return circuit::lead_resistance(f.length, f.section) + connectors;
}

double voltage_at(const Electrics& e, const Feed& f, double current) {
  const double supply = e.lowest_voltage.known() ? e.lowest_voltage.si : e.voltage.si;
  return supply - current * (lead_resistance_of(f) + (e.resistance.known() ? e.resistance.si : 0));
}

}  // namespace kranich
