// SPDX-License-Identifier: GPL-3.0-or-later
//! The drive of a design judged: what is missing, what fails, what cures it.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/assess/circuit_state.h"
#include "core/assess/drive_state.h"
#include "core/assess/leg_times.h"
#include "core/drive/fall.h"
#include "core/model/moves.h"
#include "cured.h"
#include "demo.h"
#include "findings.h"
#include "said.h"
#include "timed.h"

using namespace kranich;

namespace {

//! Dunnock without what its demo says of drives.
Design bare() {
  Design d = demo("dunnock");
  for (auto& leg : d.gear.legs) {
    leg.retraction.drive = {};
    leg.retraction.uplock = {};
    leg.retraction.brace = {};
  }
  return d;
}
//! The nose leg swings aft; an actuator behind it pulls.
Leg& with_actuator(Design& d) {
  Leg& leg = d.gear.third();
  Drive& r = leg.retraction.drive;
  r.kind = DriveKind::actuator;
  put(r.on_airframe, 1.25, 0, 0.02);
  put(r.on_leg, 0.84, 0, -0.22);
  r.airspeed = Given(0.0);
  r.force = Given(2500.0);
  r.stroke = Given(0.30);
  r.speed = Given(0.05);
  return leg;
}

//! A geared motor on a leg that works without air.
void with_motor(Drive& r, double stall_torque, double no_load_speed) {
  r.kind = DriveKind::motor;
  r.airspeed = Given(0.0);
  r.stall_torque = Given(stall_torque);
  r.no_load_speed = Given(no_load_speed);
  r.no_load_current = Given(1.0);
  r.stall_current = Given(50.0);
  r.sector_radius = Given(0.1);
  r.pinion_radius = Given(0.015);
  r.gearbox = Given(40.0);
  r.efficiency = Given(0.5);
}

}  // namespace

TEST_CASE("nothing is said of a drive that nobody spoke of, and everything missing once one is chosen") {
  Design d = bare();
  for (const auto& f : assess(d).findings) CHECK_FALSE(f.measure_id.starts_with("drive."));
  d.gear.third().retraction.drive.kind = DriveKind::actuator;
  auto a = assess(d);
  REQUIRE(of(a, "drive.torque"));
  CHECK(std::isfinite(of(a, "drive.torque")->value));  // its mass is the ledger's
  CHECK(says(of(a, "drive.torque")->assumption, "ledger"));
  CHECK(of(a, "drive.force")->verdict == Verdict::unknown);
  d.gear.third().retraction.drive.kind = DriveKind::motor;
  CHECK(of(assess(d), "drive.stall")->verdict == Verdict::unknown);
  d.gear.third().retraction.drive.kind = DriveKind::servo;
  CHECK(of(assess(d), "drive.end_point")->verdict == Verdict::unknown);
}

TEST_CASE("an actuator is judged by arm, force, stroke and time, and cured by moving its end") {
  Design d = bare();
  Leg& leg = with_actuator(d);
  auto a = assess(d);
  const Finding* force = of(a, "drive.force");
  REQUIRE(force);
  CHECK(force->verdict == Verdict::holds);
  // At the worst turn: torque over arm, by hand.
  const auto load = std::get<DriveLoad>(drive_load(d, leg));
  const double turn = said(*force, "worst at a turn of");
  const double arm = std::abs(drive::arm_of(load.load.moves, *actuator_of(leg), turn));
  CHECK(said(*force, "arm there") == Approx(arm));
  const double needed =
      std::max(std::abs(load.load.to_retract(turn)), std::abs(load.load.to_extend(turn))) / arm;
  CHECK(force->value == Approx(2500 / needed - 1).epsilon(0.01));
  const Finding* stroke = of(a, "drive.stroke");
  REQUIRE(stroke);
  CHECK(of(a, "drive.time")->value == Approx(said(*stroke, "needed") / 0.05));
  leg.retraction.drive.wanted_time = Given(3.0);
  cured(d, *of(assess(d), "drive.time"));
  leg.retraction.drive.wanted_time = Given();
  leg.retraction.drive.force = Given(300.0);
  a = assess(d);
  REQUIRE(of(a, "drive.force")->verdict == Verdict::fails);
  cured(d, *of(a, "drive.force"));
  leg.retraction.drive.force = Given(2500.0);
  leg.retraction.drive.stroke = Given(0.15);
  a = assess(d);
  REQUIRE(of(a, "drive.stroke")->verdict == Verdict::fails);
  cured(d, *of(a, "drive.stroke"));
  // Its end put on the leg's own line through the pivot: a dead centre on the way.
  put(leg.retraction.drive.on_airframe, 0.80, 0, 0.15);
  a = assess(d);
  CHECK(of(a, "drive.arm")->verdict != Verdict::holds);
}

TEST_CASE("the air unknown: what would hold without it is unknown, what fails without it fails") {
  Design d = bare();
  Leg& leg = with_actuator(d);
  leg.retraction.drive.airspeed = Given();
  CHECK(of(assess(d), "drive.force")->verdict == Verdict::unknown);
  leg.retraction.drive.force = Given(100.0);
  CHECK(of(assess(d), "drive.force")->verdict == Verdict::fails);
  leg.retraction.drive.force = Given(2500.0);
  leg.retraction.drive.airspeed = Given(45.0);
  CHECK(of(assess(d), "drive.force")->verdict == Verdict::unknown);  // no area
  leg.retraction.drive.turning_area = Given(0.05);
  const auto a = assess(d);
  CHECK(of(a, "drive.force")->verdict != Verdict::unknown);
}

TEST_CASE("a leg that stops short of its lock falls free with a gas spring as strong as was said") {
  Design d = bare();
  Leg& leg = d.gear.third();
  Drive& r = leg.retraction.drive;
  r.falls_free = true;
  r.airspeed = Given(45.0);
  r.turning_area = Given(0.08);
  r.constant_area = Given(0.01);
  r.friction_constant = Given(3.0);
  const auto a = assess(d);
  const Finding* f = of(a, "drive.free_fall");
  REQUIRE(f);
  // It comes down forward, against the stream.
  REQUIRE(f->verdict == Verdict::fails);
  CHECK(says(f->remark, "stops at a turn of"));
  cured(d, *f);
  r.airspeed = Given(0.0);
  CHECK(of(assess(d), "drive.free_fall")->verdict != Verdict::fails);
}

TEST_CASE("a hook and a brace are held to the leg's loads, and cured") {
  Design d = bare();
  Leg& leg = d.gear.third();
  put(leg.retraction.uplock.hook, 1.4, 0, 0.05);
  CHECK(of(assess(d), "drive.uplock")->verdict == Verdict::unknown);
  leg.retraction.uplock.holds = Given(300.0);
  auto a = assess(d);
  const Finding* hook = of(a, "drive.uplock");
  REQUIRE(hook->verdict == Verdict::fails);
  CHECK(hook->value == Approx(300 / (1.5 * said(*hook, "on the hook")) - 1));
  cured(d, *hook);
  leg.retraction.uplock.holds = Given(5000.0);

  BraceLinks& b = leg.retraction.brace;
  b.at_airframe = Given(0.17);
  CHECK(of(assess(d), "drive.brace")->verdict == Verdict::unknown);
  const double span = (leg.brace_leg.vec() - leg.brace_airframe.vec()).norm();
  b.at_leg = Given(span - 0.17 - 0.01);
  CHECK(of(assess(d), "drive.over_centre")->verdict == Verdict::fails);  // too short
  b.at_leg = Given(span - 0.17 + 0.0001);
  a = assess(d);
  CHECK(of(a, "drive.over_centre")->value > 0);
  const Finding* knee = of(a, "drive.brace");
  REQUIRE(knee);
  CHECK(knee->verdict == Verdict::fails);  // nothing holds it under the load that pulls
  b.lock_spring = Given(1.0);
  a = assess(d);
  REQUIRE(of(a, "drive.brace")->verdict == Verdict::fails);
  {
    b.lock_spring =
        Given(-said(*of(a, "drive.brace"), "lock spring at the knee") + 2 - of(a, "drive.brace")->value);
    CHECK(of(assess(d), "drive.brace")->verdict != Verdict::fails);
  }
}

TEST_CASE("motor and servo: stall and end points, each with its cure") {
  Design d = bare();
  Leg& leg = d.gear.third();
  Drive& r = leg.retraction.drive;
  with_motor(r, 0.5, 400.0);
  auto a = assess(d);
  const Finding* stall = of(a, "drive.stall");
  REQUIRE(stall);
  CHECK(stall->value == Approx(0.5 / said(*stall, "at the motor")));
  CHECK(stall->verdict != Verdict::fails);
  CHECK(of(a, "drive.time"));
  r.stall_torque = Given(0.5 / (1.3 * stall->value));
  a = assess(d);
  stall = of(a, "drive.stall");
  REQUIRE(stall->verdict == Verdict::fails);
  cured(d, *stall);
  r = {};
  r.kind = DriveKind::servo;
  r.airspeed = Given(0.0);
  r.servo_x = Given(0.085);
  r.servo_y = Given(-0.006);
  r.unit_arm = Given(0.018);
  r.unit_down = Given(radians(48));
  r.unit_stowed = Given(radians(138));
  r.full_throw = Given(radians(45));
  r.stall_torque = Given(30.0);
  a = assess(d);
  const Finding* end = of(a, "drive.end_point");
  REQUIRE(end);
  CHECK(end->verdict == Verdict::fails);  // 90 degrees to each side wanted
  CHECK(end->value == Approx(said(*end, "throw in all") / 2 / radians(45)));
  r.full_throw = Given(radians(80));
  CHECK(of(assess(d), "drive.end_point")->verdict != Verdict::fails);
}

TEST_CASE("a port leg by itself works against what its starboard twin does") {
  Design d = bare();
  Leg& leg = d.gear.main();
  leg.retraction.drive.kind = DriveKind::actuator;
  leg.retraction.drive.airspeed = Given(40.0);
  leg.retraction.drive.turning_area = Given(0.05);
  const double both = of(assess(d), "drive.torque")->value;
  unlink_leg(d, row_of(d.gear, d.gear.main().id));
  // The ledger has an item on each side: each goes with its own leg.
  for (auto& item : d.ledger)
    if (item.moves == d.gear.main().id && item.at.y < 0) item.moves = d.port_leg().id;
  int legs = 0;
  for (const auto& f : assess(d).findings)
    if (f.measure_id == "drive.torque") {
      ++legs;
      CHECK(f.value == Approx(both).epsilon(1e-9));
    }
  CHECK(legs == 2);
}

namespace {

void battery(Design& d, double full, double lowest) {
  d.circuit.electrics = {};
  d.circuit.electrics.voltage = Given(full);
  d.circuit.electrics.lowest_voltage = Given(lowest);
}

}  // namespace

TEST_CASE("what Sequence counts with is held against an actuator with the battery at its lowest") {
  Design d = bare();
  Leg& leg = with_actuator(d);
  battery(d, 14, 11);
  const double range = said(*of(assess(d), "drive.stroke"), "needed");
  leg.retraction.time_up = leg.retraction.time_down = Given(range / 0.05);
  leg.retraction.slowest = Given(1.3);
  leg.retraction.times_from = TimesFrom::entered;
  auto a = assess(d);
  for (const char* way : {"third/up", "third/down"}) {
    const Finding* f = about(a, "drive.counted", way);
    REQUIRE(f);
    CHECK(said(*f, "computed, battery lowest") == Approx(range / 0.05 * 14 / 11));
    CHECK(f->value == Approx(range / 0.05 * (1.3 - 14.0 / 11)));
    CHECK(f->verdict == Verdict::holds);
  }
  // A thin lead takes the rest.
  Feed lead;
  lead.name = "lead";
  lead.actor = leg.id;
  lead.length = Given(4.0);
  lead.section = Given(0.25e-6);
  lead.running = Given(3.0);
  d.circuit.electrics.feeds = {lead};
  a = assess(d);
  const Finding* f = about(a, "drive.counted", "third/up");
  REQUIRE(f);
  CHECK(f->verdict == Verdict::fails);
  CHECK(said(*f, "computed, battery lowest") > range / 0.05 * 14 / 11);
  CHECK(says(cured_by(d, "drive.counted", "third/up"), "Sequence counts with"));
  // Of the battery nothing is known: what would do with it full is not said to hold.
  d.circuit.electrics = {};
  CHECK(about(assess(d), "drive.counted", "third/up")->verdict == Verdict::unknown);
  leg.retraction.time_up = Given(0.5 * range / 0.05);
  CHECK(about(assess(d), "drive.counted", "third/up")->verdict == Verdict::fails);
}

TEST_CASE("a motor's line shrinks with the voltage: slower, and in the end it stalls") {
  Design d = bare();
  Leg& leg = d.gear.third();
  Drive& r = leg.retraction.drive;
  with_motor(r, 2.0, 100.0);
  leg.retraction.time_up = leg.retraction.time_down = Given(9.0);
  leg.retraction.slowest = Given(1.2);
  leg.retraction.times_from = TimesFrom::entered;
  battery(d, 12, 9);
  const auto load = std::get<DriveLoad>(drive_load(d, leg));
  const auto motor = motor_of(leg);
  // Steady, by hand: each small turn at the speed the scaled line leaves it.
  const auto by_hand = [&](double volts, bool up) {
    const double v = volts / 12;
    double slower = 0;
    for (const auto& l : {load.load, on_jacks(load.load)}) {
      constexpr int n = 20000;
      double t = 0;
      for (int i = 0; i < n; ++i) {
        const double turn = l.moves.full_turn * (i + 0.5) / n;
        const double torque = std::max(0.0, up ? l.to_retract(turn) : l.to_extend(turn));
        t += l.moves.full_turn / n * motor->ratio() / (100 * v * (1 - motor->motor_torque(torque) / (2 * v)));
      }
      slower = std::max(slower, t);
    }
    return slower;
  };
  Steps steps;
  const auto takes = driven_times(d, leg, load, steps);
  REQUIRE(takes);
  const size_t made = steps.size();
  CHECK(driven_times(d, leg, load, steps)->up == takes->up);
  CHECK(steps.size() == made);  // nothing is followed twice
  // From rest it takes as long, and a little to get going.
  for (const auto& [takes_it, steady] : {std::pair{takes->up, by_hand(12, true)},
                                         {takes->down, by_hand(12, false)},
                                         {takes->up_lowest, by_hand(9, true)},
                                         {takes->down_lowest, by_hand(9, false)}}) {
    CHECK(takes_it > steady);
    CHECK(takes_it == Approx(steady).epsilon(0.03));
  }
  CHECK(takes->up_lowest > takes->up * 12 / 9);
  auto a = assess(d);
  const Finding* f = about(a, "drive.counted", "third/up");
  REQUIRE(f);
  CHECK(f->value == Approx(9 * 1.2 - takes->up_lowest));
  leg.retraction.time_up = Given(0.8 * takes->up);
  a = assess(d);
  f = about(a, "drive.counted", "third/up");
  REQUIRE(f->verdict == Verdict::fails);
  cured(d, *f);
  // Twice what the hardest turn asks for at full voltage is less than that at a third of it.
  r.stall_torque = Given(2.0 * 2 / of(a, "drive.stall")->value);
  battery(d, 12, 4);
  a = assess(d);
  f = about(a, "drive.counted", "third/up");
  REQUIRE(f);
  CHECK(f->verdict == Verdict::fails);
  CHECK(says(f->remark, "stalls with the battery at its lowest"));
}

TEST_CASE("a leg's times follow from its drive where none are entered, and Sequence counts with them") {
  Design d = bare();
  Leg& leg = with_actuator(d);
  battery(d, 14, 11);
  Retraction& r = leg.retraction;
  r.time_up = r.time_down = r.slowest = r.fastest = Given();
  r.times_from = TimesFrom::drive;
  d.sequence = {};
  Step raise;
  raise.actor = leg.id;
  raise.action = Action::raise;
  raise.start = Given(0.5);
  d.sequence.up = {raise};
  const double range = said(*of(assess(d), "drive.stroke"), "needed");
  auto a = assess(d);
  const auto* takes = sequence::times_of(a.times, leg.id);
  REQUIRE(takes);
  CHECK(takes->by_drive);
  CHECK(takes->up.counted.nominal == Approx(range / 0.05));
  CHECK(takes->up.counted.most() == Approx(range / 0.05 * 14 / 11));
  REQUIRE(a.line(true).bars.size() == 1);
  CHECK(a.line(true).latest_end == Approx(0.5 + range / 0.05 * 14 / 11));
  CHECK(std::isnan(a.line(true).bars[0].entered_end));
  // A time entered that is too short: planned with the computed one, the entered beside it.
  r.time_up = r.time_down = Given(0.5 * range / 0.05);
  r.slowest = Given(1.1);
  r.fastest = Given(0.9);
  a = assess(d);
  CHECK(a.line(true).bars[0].nominal_end == Approx(0.5 + range / 0.05));
  CHECK(a.line(true).bars[0].entered_end == Approx(0.5 + 0.5 * range / 0.05));
  CHECK(a.line(true).bars[0].earliest_end == Approx(0.5 + 0.5 * range / 0.05 * 0.9));
  CHECK(about(a, "drive.counted", "third/up")->verdict != Verdict::fails);
  // Whoever counts with it alone is told, and gets the way back.
  r.times_from = TimesFrom::entered;
  a = assess(d);
  CHECK(a.line(true).latest_end == Approx(0.5 + 1.1 * 0.5 * range / 0.05));
  CHECK(about(a, "drive.counted", "third/up")->verdict == Verdict::fails);
  CHECK(says(cured_by(d, "drive.counted", "third/up"), "what the drive takes as well"));
  // The less the battery may fall, the less spread.
  r.times_from = TimesFrom::drive;
  double before = std::numeric_limits<double>::infinity();
  for (const double lowest : {8.0, 10.0, 12.0, 14.0}) {
    battery(d, 14, lowest);
    const double latest = assess(d).line(true).latest_end;
    CHECK(latest < before);
    before = latest;
  }
}

TEST_CASE("cylinders take what pump and load leave them, air what its filling does") {
  for (const char* name : {"dunnock", "pintail"}) {
    Design d = demo(name);
    INFO(name);
    // Entered only where the drive does not tell.
    const sequence::Times before = timed(d);
    for (Leg& leg : d.gear.legs) {
      const auto* takes = sequence::times_of(before, leg.id);
      if (takes && takes->up.computed.known()) leg.retraction.time_up = Given();
      if (takes && takes->down.computed.known()) leg.retraction.time_down = Given();
    }
    const Assessment a = assess(d);
    int legs = 0;
    for (const Leg& leg : d.gear.legs) {
      const auto* takes = sequence::times_of(a.times, leg.id);
      if (!takes || !takes->by_drive) continue;
      for (const bool up : {true, false}) {
        const sequence::Travel& t = (up ? takes->up : takes->down).computed;
        if (!t.known()) continue;
        ++legs;
        double slow = 0, fast = std::numeric_limits<double>::infinity();
        for (const CylinderWay& w : a.circuit->ways)
          if (w.leg == leg.id && w.up == up) {
            slow = std::max(slow, w.lowest.time);
            fast = std::min(fast, w.full.time);
          }
        if (a.circuit->air)
          for (const auto& f : a.circuit->air->followed)
            if (f.leg == leg.id && f.up == up) {
              slow = f.slow.time;
              fast = f.fast.time;
            }
        CHECK(t.most() == Approx(slow));
        CHECK(t.least() == Approx(fast));
      }
    }
    CHECK(legs > 2);
    const Finding* f = of(a, "sequence.duration");
    REQUIRE(f);
    CHECK(f->verdict == Verdict::noted);
  }
}
