// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/circuit_state.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

#include "core/assess/drive_state.h"
#include "core/drive/load.h"
#include "core/model/lacking.h"

namespace kranich {
namespace {

constexpr double nan = std::numeric_limits<double>::quiet_NaN();
constexpr int columns = 48;  //!< in which a load is kept over its stroke

//! A load over a stroke, kept at even shares and taken straight between.
std::function<double(double)> kept(std::vector<double> at) {
  return [at = std::move(at)](double share) { return kept_at(at, share); };
}

}  // namespace

CircuitNow circuit_at(const CircuitState& state, bool up, double time) {
  CircuitNow now;
  const auto& together = state.together[up ? 0 : 1];
  if (!together) return now;
  auto sample = together->run.at(time);
  now.arrived = time >= together->run.length();
  now.places = std::move(sample.places);
  if (now.arrived) {
    // The switch has opened, and the check holds what was there.
    const Given& cut_out = state.hydraulics.cut_out;
    now.pump = cut_out.known() ? cut_out.si : together->run.peak_pressure;
    return now;
  }
  now.pump = sample.pressure;
  for (size_t i = 0; i < now.places.size(); ++i)
    for (const auto& w : state.ways) {
      if (w.leg != together->legs[i] || w.up != up || !w.in_air || now.places[i] >= 1) continue;
      const auto point = circuit::at_share(w.stroke, now.places[i]);
      now.pump = std::max(now.pump, point.pressure);
      now.back = std::max(now.back, point.return_pressure);
    }
  return now;
}

namespace {
constexpr const char* root = "/circuit/hydraulics/";

//! A cylinder's way against its load.
struct Stroked {
  struct From {
    std::vector<double> forces;  //!< what its load follows from
    circuit::Stroke stroke;
    bool operator==(const From& o) const {
      const auto& x = stroke;
      const auto& y = o.stroke;
      return forces == o.forces && x.area_in == y.area_in && x.area_out == y.area_out &&
             x.length == y.length && x.pump == y.pump && x.restrictor == y.restrictor &&
             x.braked == y.braked && x.tank == y.tank;
    }
  };
  using Made = circuit::StrokeFigures;
  static Made make(const From& from) { return circuit::stroke_figures(from.stroke); }
};

//! Followed with the battery full, and at its lowest.
void follow(CylinderWay& w, Steps& steps) {
  w.full = w.lowest = steps.get<Stroked>({w.forces, w.stroke});
  if (w.lowest_share == 1) return;
  circuit::Stroke weak = w.stroke;
  weak.pump.flow *= w.lowest_share;
  w.lowest = steps.get<Stroked>({w.forces, weak});
}
}  // namespace

const CylinderWays& cylinder_ways(const Design& d, Assessment& a) {
  if (a.ways) return *a.ways;
  auto made = std::make_shared<CylinderWays>();
  a.ways = made;
  if (d.circuit.hydraulics == Hydraulics()) return *made;
  for (const Leg& leg : d.gear.legs) {
    if (!leg.retraction.fitted || leg.retraction.drive.kind != DriveKind::cylinder) continue;
    for (const bool up : {true, false}) {
      bool said = false;
      for (const bool in_air : {false, true}) {
        auto way = cylinder_way(d, leg, up, in_air);
        if (auto* w = std::get_if<CylinderWay>(&way)) {
          follow(*w, a.steps);
          made->ways.push_back(std::move(*w));
          continue;
        }
        if (!said) made->lacking.push_back({leg.id, up, std::get<Text>(std::move(way))});
        said = true;
      }
    }
  }
  return *made;
}

std::variant<circuit::Pump, Text> pump_of(const Hydraulics& h, double voltage, bool down) {
  Lacking lacks(root);
  lacks.number(h.pump_flow, "pump_flow_m3_per_s", "the pump's flow against nothing")
      .number(h.loaded_flow, "loaded_flow_m3_per_s", "its flow under load")
      .number(h.loaded_pressure, "loaded_pressure_Pa", "the pressure of that")
      .number(h.pump_voltage, "pump_voltage_V", "the voltage it was measured at");
  if (down) lacks.number(h.down_speed, "down_speed", "its speed going down");
  if (!lacks.nothing()) return lacks.text();
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

std::variant<CylinderWay, Text> cylinder_way(const Design& d, const Leg& leg, bool up, bool in_air) {
  const Hydraulics& h = d.circuit.hydraulics;
  const Electrics& e = d.circuit.electrics;
  const Throttle& throttle = up ? h.up : h.down;
  auto made = drive_load(d, leg);
  if (auto* missing = std::get_if<Text>(&made)) return std::move(*missing);
  const auto& found = std::get<DriveLoad>(made);
  const auto cylinder = cylinder_of(leg);
  const auto strut = actuator_of(leg);
  if (!cylinder || !strut) return say("of the {}: {}", d.leg_word(leg), cylinder_lacks(leg));
  if (in_air && !found.without_air.empty()) return say("of the {}: {}", d.leg_word(leg), found.without_air);
  auto pump = pump_of(h, e.voltage, !up);
  if (auto* missing = std::get_if<Text>(&pump)) return std::move(*missing);
  Lacking lacks(root + std::string(up ? "up/" : "down/"));
  if (throttle.at != ThrottleAt::none)
    lacks.number(throttle.bore, "bore_m", "the bore of its restrictor")
        .number(throttle.coefficient, "coefficient", "the restrictor's coefficient")
        .that(!h.density.known(), entry(root + std::string("density_kg_per_m3"), "the fluid's density"));
  if (!lacks.nothing()) return lacks.text();
  const drive::LegLoad load = in_air ? found.load : on_jacks(found.load);
  const auto& moves = load.moves;
  const double full = moves.full_turn;
  const double starts = drive::length_of(moves, *strut, up ? 0 : full);
  const double ends = drive::length_of(moves, *strut, up ? full : 0);
  if (starts == ends) return say("a cylinder that grows or shrinks as the {} swings", d.leg_word(leg));

  CylinderWay w;
  w.leg = leg.id;
  w.up = up;
  w.in_air = in_air;
  double turn = up ? 0 : full;
  for (int i = 0; i <= columns; ++i) {
    const double wanted = starts + (ends - starts) * i / columns;
    // From the turn before by its slope: the length is smooth, a few steps are enough.
    for (int k = 0; k < 6; ++k) {
      const double slope = drive::arm_of(moves, *strut, turn);
      const double miss = drive::length_of(moves, *strut, turn) - wanted;
      if (std::abs(miss) < 1e-9 || std::abs(slope) < 1e-9) break;
      turn = std::clamp(turn - miss / slope, 0.0, full);
    }
    const double arm = std::abs(drive::arm_of(moves, *strut, turn));
    const double torque = up ? load.to_retract(turn) : load.to_extend(turn);
    w.forces.push_back(arm > 1e-6 ? torque / arm : std::copysign(1e9, torque));
  }
  circuit::Stroke& s = w.stroke;
  const double annulus = cylinder->area() - cylinder->rod_area();
  const bool extends = ends > starts;
  s.area_in = extends ? cylinder->area() : annulus;
  s.area_out = extends ? annulus : cylinder->area();
  s.length = std::abs(ends - starts);
  s.load = kept(w.forces);
  s.pieces = columns;
  s.straight = true;
  // Without a throttle a hole that takes nothing.
  const double bore = throttle.at == ThrottleAt::none ? 0.02 : throttle.bore.si;
  s.restrictor = {throttle.coefficient.known() ? throttle.coefficient.si : 1,
                  std::numbers::pi / 4 * bore * bore, h.density.known() ? h.density.si : 0};
  s.braked =
      throttle.at == ThrottleAt::supply_side ? circuit::Braked::supply_side : circuit::Braked::return_side;
  s.pump = std::get<circuit::Pump>(pump);
  const auto n = static_cast<double>(std::max<size_t>(cylinders_on_pump(d), 1));
  s.pump.flow /= n;
  s.pump.loss /= n;
  if (e.voltage.known() && e.lowest_voltage.known()) w.lowest_share = e.lowest_voltage / e.voltage;
  return w;
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
