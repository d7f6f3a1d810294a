// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/drive_state.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <tuple>
#include <utility>

#include "core/assess/air_state.h"
#include "core/assess/circuit_state.h"
#include "core/assess/collector.h"
#include "core/assess/loading_state.h"
#include "core/assess/strength_state.h"
#include "core/model/lacking.h"
#include "core/motion/retract.h"

namespace kranich {

std::variant<DriveLoad, Text> drive_load(const Design& d, const Leg& leg) {
  const Drive& r = leg.retraction.drive;
  const std::string root = leg_root(leg.id);
  const auto moves = motion::retracting(leg);
  Lacking lacks(root);
  motion::note_motion(lacks, leg);
  if (lacks.nothing()) lacks.place(leg.axle, "axle", "the axle's place");
  DriveLoad out{};
  if (r.mass.known() && r.cg.known()) {
    out.load.masses = {{r.mass, r.cg.vec()}};
  } else {
    double mass = 0;
    for (const auto& item : d.ledger) {
      if (item.moves != leg.id) continue;
      if (leg.stands == LegStands::both_sides && item.at.y < 0) continue;  // the other side's
      // Half of what hangs there would be half a load: all of it must be known.
      lacks.that(!item.mass.known() || !item.at.known(), say("mass and place of “{}”", item.name));
      // One in the middle is both legs'.
      const double share = leg.stands == LegStands::both_sides && std::abs(item.at.y) < 1e-6 ? 0.5 : 1;
      Vec3 at = item.at.vec();
      if (share < 1) at.y() = leg.axle.y;
      if (leg.stands == LegStands::port) at.y() = -at.y();  // stored as if to starboard
      out.load.masses.push_back({share * item.mass, at});
      mass += share * item.mass;
    }
    if (out.load.masses.empty())
      lacks.number(r.mass, "retraction/drive/mass_kg", "the mass of all that swings")
          .place(r.cg, "retraction/drive/cg", "its CG");
    out.taken = say("{} that the ledger hangs on the leg", Amount{mass, Kind::mass});
  }
  if (!lacks.nothing() || !moves) return lacks.nothing() ? Text("a leg that retracts") : lacks.text();
  drive::LegLoad& l = out.load;
  l.moves = *moves;
  // What only turns is worked out faster: the wheel's way differs where it twists, is pulled in or carried.
  const bool plain = moves->only_turns();
  if (!plain)
    for (auto& m : l.masses) m.carried = motion::carried_at(leg, m.at);
  const Vec3 way = leg.axle.vec() - leg.held_at();
  l.load_factor = r.load_factor;
  l.air.leg_direction = way;
  l.air.centre = r.air_centre.known() ? r.air_centre.vec() : leg.axle.vec();
  if (!plain) l.air.carried = motion::carried_at(leg, l.air.centre);
  if (r.airspeed > 0 && !r.air_centre.known()) out.taken.also("the air acts at the axle");
  l.air.turning_area = r.turning_area.known() ? r.turning_area.si : 0;
  l.air.constant_area = r.constant_area.known() ? r.constant_area.si : 0;
  l.stream.density = d.airframe.aerodynamics.density;
  l.stream.speed = r.airspeed.known() ? r.airspeed.si : 0;
  if (!r.airspeed.known() || (r.airspeed > 0 && !r.turning_area.known() && !r.constant_area.known())) {
    Lacking air(root + "retraction/drive/");
    air.number(r.airspeed, "airspeed_m_per_s",
               "the airspeed up to which it is moved (0: only on the ground)");
    if (r.airspeed > 0) air.number(r.turning_area, "turning_area_m2", "the leg's drag area");
    out.without_air = air.text();
  }
  l.friction = {r.friction_share, r.friction_constant};
  if (r.down_spring.extended_force.known()) l.spring = down_spring_of(leg);
  out.inertia = 0;
  for (const auto& m : l.masses) out.inertia += m.mass * l.moves.velocity(m.carried, m.at, 0).squaredNorm();
  if (r.inertia.known())
    out.inertia = r.inertia;
  else
    out.taken.also("inertia as of points");
  return out;
}

drive::LegLoad on_jacks(drive::LegLoad load) {
  load.stream.speed = 0;
  load.load_factor = 1;
  return load;
}

Limit arm_limit(double largest_arm) {
  return at_least_or_tight(1e-6, 0.15 * largest_arm,
                           "no dead centre inside the travel; short arms make forces large");
}
Limit force_limit() { return at_least_or_tight(0, 0.3, "practice: three tenths in hand"); }
Limit stroke_limit(double range) {
  return at_least_or_tight(0, 0.03 * range, "motor or valve stops before the hard limit");
}
Limit column_limit() { return at_least(0, "Euler's, half as much again as the greatest push"); }

std::optional<drive::Strut> actuator_of(const Leg& leg) {
  const Drive& r = leg.retraction.drive;
  if (!r.on_airframe.known() || !r.on_leg.known()) return std::nullopt;
  return drive::Strut{r.on_airframe.vec(), r.on_leg.vec()};
}

std::optional<drive::ServoLinkage> servo_of(const Leg& leg) {
  const Drive& r = leg.retraction.drive;
  if (!r.servo_x.known() || !r.servo_y.known() || !r.unit_arm.known() || !r.unit_down.known() ||
      !r.unit_stowed.known())
    return std::nullopt;
  drive::ServoLinkage l;
  l.servo = {r.servo_x, r.servo_y};
  l.pivot = {0, 0};
  l.unit_arm = r.unit_arm;
  l.down = r.unit_down;
  l.stowed = r.unit_stowed;
  l.over_centre = r.over_centre;
  return l;
}

std::variant<drive::TestedUnit, Text> tested_unit(const Leg& leg) {
  const Drive& r = leg.retraction.drive;
  const auto linkage = servo_of(leg);
  Lacking lacks(leg_root(leg.id) + "retraction/drive/");
  lacks.that(!leg.retraction.fitted || r.kind != DriveKind::servo, "a drive that is a servo");
  lacks.number(r.servo_x, "servo_x_m", "the servo's axis, ahead")
      .number(r.servo_y, "servo_y_m", "the servo's axis, above")
      .number(r.unit_arm, "unit_arm_m", "the unit's arm")
      .number(r.unit_down, "unit_down_deg", "its angle when down")
      .number(r.unit_stowed, "unit_stowed_deg", "its angle when stowed")
      .number(r.full_throw, "full_throw_deg", "the servo's turn to one side at 100 %")
      .number(r.stall_torque, "stall_torque_N_m", "the servo's stall torque")
      .number(r.stall_current, "stall_current_A", "its stall current")
      .number(r.rod_stiffness, "rod_stiffness_N_per_m", "the stiffness of rod and mount");
  if (!lacks.nothing()) return lacks.text();
  drive::TestedUnit unit{*linkage, drive::fit_servo(*linkage), r.full_throw};
  unit.stiffness = r.rod_stiffness;
  unit.stall_torque = r.stall_torque;
  unit.stall_current = r.stall_current;
  unit.idle_current = r.no_load_current.known() ? r.no_load_current.si : 0;
  return unit;
}

std::optional<drive::GearedMotor> motor_of(const Leg& leg) {
  const Drive& r = leg.retraction.drive;
  if (!r.stall_torque.known() || !r.no_load_speed.known() || !r.sector_radius.known() ||
      !r.pinion_radius.known() || !r.gearbox.known() || !r.efficiency.known())
    return std::nullopt;
  return drive::GearedMotor{
      {r.stall_torque, r.no_load_speed, r.no_load_current.known() ? r.no_load_current.si : 0,
       r.stall_current.known() ? r.stall_current.si : std::nan("")},
      r.sector_radius,
      r.pinion_radius,
      r.gearbox,
      r.efficiency,
      r.rotor_inertia.known() ? r.rotor_inertia.si : 0};
}

std::optional<drive::HydraulicCylinder> cylinder_of(const Leg& leg) {
  const Drive& r = leg.retraction.drive;
  if (!r.bore.known() || !r.rod.known() || !r.supply.known() || !r.back.known()) return std::nullopt;
  if (!(r.bore > r.rod)) return std::nullopt;  // nothing is left for the oil to press on
  return drive::HydraulicCylinder{r.bore, r.rod, r.supply, r.back};
}

namespace {

//! Fills in what is left of the full voltage where a leg's drive hangs, the battery at its lowest.
double voltage_left(const Design& d, const Leg& leg, DrivenTimes& told) {
  const Electrics& e = d.circuit.electrics;
  Lacking lacks("/circuit/electrics/");
  lacks.number(e.voltage, "voltage_V", "the battery's voltage")
      .number(e.lowest_voltage, "lowest_voltage_V", "its lowest");
  if (!lacks.nothing()) {
    told.lacking = lacks.text();
    return 1;
  }
  const auto feed =
      std::find_if(e.feeds.begin(), e.feeds.end(), [&](const Feed& f) { return f.actor == leg.id; });
  if (feed == e.feeds.end() || !feed->running.known() || std::isnan(lead_resistance_of(*feed))) {
    told.taken = "nothing lost along its lead";
    return e.lowest_voltage / e.voltage;
  }
  return std::max(0.0, voltage_at(e, *feed, feed->running) / e.voltage);
}

//! A motor's way against what resists it at even shares of the travel, taken straight between: it is asked
//! for that many thousand times.
struct MotorWay {
  struct From {
    drive::GearedMotor motor{};
    double full = 0, inertia = 0;
    std::vector<double> resists;
    bool operator==(const From&) const = default;
  };
  using Made = drive::MotorRun;
  static Made make(const From& from) {
    const auto last = static_cast<double>(from.resists.size() - 1);
    const auto at = [&](double turn) {
      const double place = std::clamp(turn / from.full, 0.0, 1.0) * last;
      const auto i = std::min(static_cast<size_t>(place), from.resists.size() - 2);
      const double share = place - static_cast<double>(i);
      return (1 - share) * from.resists[i] + share * from.resists[i + 1];
    };
    return drive::run_over(from.motor, from.full, at, from.inertia);
  }
};

//! The slower and the quicker of in the air and on jacks.
std::pair<double, double> times_of_motor(const drive::GearedMotor& motor, double voltage,
                                         const DriveLoad& load, bool up, Steps& steps) {
  constexpr double never = std::numeric_limits<double>::infinity();
  if (!(voltage > 0)) return {never, never};
  double slower = 0;
  double quicker = never;
  for (const drive::LegLoad& l : {load.load, on_jacks(load.load)}) {
    const double time = motor_way(motor, voltage, l, load.inertia, up, steps).time_from_rest;
    slower = std::max(slower, time);
    quicker = std::min(quicker, time);
  }
  return {slower, quicker};
}

}  // namespace

drive::MotorRun motor_way(drive::GearedMotor motor, double voltage, const drive::LegLoad& l, double inertia,
                          bool up, Steps& steps) {
  constexpr int shares = 96;
  motor.motor.stall_torque *= voltage;
  motor.motor.no_load_speed *= voltage;
  const double full = l.moves.full_turn;
  MotorWay::From from{motor, full, inertia, {}};
  for (int i = 0; i <= shares; ++i) {
    const double turn = full * i / shares;
    from.resists.push_back(std::max(0.0, up ? l.to_retract(turn) : l.to_extend(full - turn)));
  }
  return steps.get<MotorWay>(std::move(from));
}

std::optional<DrivenTimes> driven_times(const Design& d, const Leg& leg, const DriveLoad& load,
                                        Steps& steps) {
  const Drive& r = leg.retraction.drive;
  DrivenTimes t{};
  if (r.kind == DriveKind::motor) {
    const auto motor = motor_of(leg);
    if (!motor) return std::nullopt;
    const double left = voltage_left(d, leg, t);
    std::tie(t.up, t.up_quickest) = times_of_motor(*motor, 1, load, true, steps);
    std::tie(t.down, t.down_quickest) = times_of_motor(*motor, 1, load, false, steps);
    t.up_lowest = left < 1 ? times_of_motor(*motor, left, load, true, steps).first : t.up;
    t.down_lowest = left < 1 ? times_of_motor(*motor, left, load, false, steps).first : t.down;
    return t;
  }
  const auto strut = actuator_of(leg);
  if (r.kind != DriveKind::actuator || !strut || !(r.speed > 0)) return std::nullopt;
  const auto ends = drive::actuator_figures(load.load, *strut);
  const double left = voltage_left(d, leg, t);
  t.up = t.down = t.up_quickest = t.down_quickest = (ends.longest - ends.shortest) / r.speed;
  t.up_lowest = t.down_lowest = t.up / left;
  return t;
}

StrutCan strut_can(const Design& d, const Leg& leg) {
  const Drive& r = leg.retraction.drive;
  constexpr double nan = std::numeric_limits<double>::quiet_NaN();
  if (r.kind == DriveKind::actuator) return {r.force.si, r.force.si};
  if (r.kind == DriveKind::cylinder) {
    const auto c = cylinder_of(leg);
    return c ? StrutCan{c->push(), c->pull()} : StrutCan{nan, nan};
  }
  StrutCan can{nan, nan};
  if (r.kind != DriveKind::air) return can;
  const auto made = air_plan(d);
  const auto strut = actuator_of(leg);
  const auto moves = motion::retracting(leg);
  const auto* plan = std::get_if<AirPlan>(&made);
  if (!plan || !strut || !moves) return can;
  const bool pushes_up =
      drive::length_of(*moves, *strut, moves->full_turn) > drive::length_of(*moves, *strut, 0);
  for (const AirLegWay& w : plan->ways)
    if (w.leg == leg.id)
      (w.up == pushes_up ? can.push : can.pull) =
          w.area_in * plan->at_share(w.up, air_shares, plan->before_last(w.up));
  return can;
}

Text cylinder_lacks(const Leg& leg) {
  const Drive& r = leg.retraction.drive;
  Lacking lacks(leg_root(leg.id) + "retraction/drive/");
  lacks.place(r.on_airframe, "on_airframe", "its end on the airframe")
      .place(r.on_leg, "on_leg", "its end on the leg")
      .number(r.bore, "bore_m", "the cylinder's bore")
      .number(r.rod, "rod_m", "its rod")
      .that(r.bore.known() && r.rod.known() && !(r.bore > r.rod), "a bore larger than the rod");
  if (r.kind == DriveKind::cylinder)
    lacks.number(r.supply, "supply_Pa", "the supply pressure")
        .number(r.back, "back_Pa", "the return pressure");
  return lacks.text();
}

std::optional<drive::DownSpring> down_spring_of(const Leg& leg) {
  const DownSpring& s = leg.retraction.drive.down_spring;
  if (!s.on_airframe.known() || !s.on_leg.known() || !s.progression.known() || !s.full_stroke.known() ||
      !s.extended_length.known())
    return std::nullopt;
  return drive::DownSpring{{s.on_airframe.vec(), s.on_leg.vec()},
                           s.extended_force.known() ? s.extended_force.si : 1,
                           s.progression,
                           s.full_stroke,
                           s.extended_length};
}

swing::UnitNeed unit_need(const Assessment& a, const Leg& leg) {
  swing::UnitNeed need{std::nan(""), std::nan("")};
  bool every = true;  // one that cannot be added up could be the heaviest
  for (const auto& l : a.loadings) {
    if (!l.flown) continue;
    every = every && l.mass.known();
    if (l.mass.known() && !(l.mass.down.mass <= need.aircraft_mass)) need.aircraft_mass = l.mass.down.mass;
  }
  if (!every || !(need.aircraft_mass > 0)) need.aircraft_mass = std::nan("");
  for (const auto& s : a.strengths) {
    if (s.leg != leg.id || !s.cases.missing.empty() || !leg.retraction.pivot.known()) continue;
    for (const auto& c : s.cases.cases) {
      Vec3 at = leg.axle.vec();
      if (c.at_ground) at.z() -= leg.wheel.diameter / 2;
      at.z() += c.rise;
      const double moment = (at - leg.retraction.pivot.vec()).cross(c.force).norm();
      if (!(moment <= need.moment)) need.moment = moment;
    }
  }
  return need;
}

swing::Vec2 in_plane_of_swing(const Leg& leg, const Vec3& point) {
  const SwingDirection way = leg.retraction.direction;
  const bool sideways = way == SwingDirection::inward || way == SwingDirection::outward;
  return {sideways ? point.y() : point.x(), point.z()};
}

std::optional<swing::FoldingBrace> brace_of(const Leg& leg) {
  const BraceLinks& b = leg.retraction.brace;
  if (!b.at_airframe.known() || !b.at_leg.known() || !leg.brace_leg.known() || !leg.brace_airframe.known() ||
      !leg.held_at().allFinite())
    return std::nullopt;
  const auto flat = [&](const Vec3& v) { return in_plane_of_swing(leg, v); };
  return swing::FoldingBrace{flat(leg.held_at()),
                             flat(leg.brace_leg.vec()),
                             flat(leg.brace_airframe.vec()),
                             b.at_airframe,
                             b.at_leg,
                             b.lock_spring.known() ? b.lock_spring.si : 0};
}

}  // namespace kranich
