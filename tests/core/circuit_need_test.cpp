// SPDX-License-Identifier: GPL-3.0-or-later
//! Circuit of a design: cylinders against their true loads, plumbing, leads; what fails and what cures it.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/assess/circuit_state.h"
#include "core/assess/drive_state.h"
#include "cured.h"
#include "demo.h"
#include "said.h"

using namespace kranich;

namespace {

Verdict verdict(const Design& d, std::string_view id, std::string_view key) {
  const Assessment a = assess(d, Stations::only(Station::circuit));
  const Finding* f = about(a, id, key);
  INFO(id << " " << key);
  REQUIRE(f);
  return f->verdict;
}
}  // namespace

TEST_CASE("the oil of a stroke is the cylinder's volume, its work the load's and the throttle's") {
  const Design d = demo("dunnock");
  for (const Leg& leg : d.gear.legs)
    for (const bool up : {true, false}) {
      const auto made = cylinder_way(d, leg, up, false);
      REQUIRE(std::holds_alternative<CylinderWay>(made));
      const auto& s = std::get<CylinderWay>(made).stroke;
      // Work of the load over the stroke is that of the torque over the turn, friction in it.
      const auto load = on_jacks(std::get<DriveLoad>(drive_load(d, leg)).load);
      double torque = 0;
      double force = 0;
      constexpr int n = 2000;
      for (int i = 0; i < n; ++i) {
        const double turn = load.moves.full_turn * (i + 0.5) / n;
        torque += (up ? load.to_retract(turn) : load.to_extend(turn)) * load.moves.full_turn / n;
        force += s.load((i + 0.5) / n) * s.length / n;
      }
      CHECK(force == Approx(torque).epsilon(0.01).margin(0.5));
      // Balance at every place: the pump's oil is what the piston takes, forces add up to nothing.
      for (const double share : {0.1, 0.5, 0.9}) {
        const auto p = circuit::at_share(s, share);
        if (p.runs_ahead || p.speed == 0) continue;
        CHECK(s.pump.at(p.pressure) == Approx(s.area_in * p.speed).epsilon(1e-9));
        CHECK(p.pressure * s.area_in == Approx(s.load(share) + p.return_pressure * s.area_out).epsilon(1e-9));
        CHECK(p.return_pressure == Approx(s.restrictor.drop(s.area_out * p.speed)).epsilon(1e-9));
      }
    }
}

TEST_CASE("throttled on the supply it runs ahead, on the return it is held; the setting is solved") {
  Design d = demo("dunnock");
  d.circuit.hydraulics.down.at = ThrottleAt::supply_side;
  CHECK(verdict(d, "circuit.ahead", "third/down") == Verdict::fails);
  CHECK(says(cured_by(d, "circuit.ahead", "third/down"), "on the return, going down"));
  d.circuit.hydraulics.down.at = ThrottleAt::none;
  const auto cures = cured_by(d, "circuit.ahead", "third/down");
  CHECK(says(cures, "on the return, going down"));
  // The wanted time by that setting, and by the pump slower one way only.
  d.circuit.hydraulics.wanted_down = Given(6.0);
  const auto slower = cured_by(d, "circuit.time", "main/down");
  CHECK(says(slower, "on the return, going down"));
}

TEST_CASE("back-pressure trips the cut-out on the way: wider, the pump slower, or the switch set higher") {
  Design d = demo("dunnock");
  d.circuit.hydraulics.up.bore = Given(0.0007);
  d.circuit.hydraulics.cut_out = Given(5.0e6);
  d.circuit.hydraulics.cut_in = Given(4.0e6);
  CHECK(verdict(d, "circuit.trip", "main/up") == Verdict::fails);
  const auto cures = cured_by(d, "circuit.trip", "main/up");
  CHECK(says(cures, "on the return, going up"));
  CHECK(says(cures, "pressure switch set to"));
  d.circuit.hydraulics.rated = Given(4.0e6);
  CHECK(verdict(d, "circuit.rated", "main/up") == Verdict::fails);
  CHECK_FALSE(
      says(cured_by(d, "circuit.trip", "main/up"), "pressure switch set to"));  // nothing would hold it
}

TEST_CASE("a pump that cannot, a time that Sequence does not know, a relief that opens first") {
  Design d = demo("dunnock");
  d.circuit.hydraulics.loaded_pressure = Given(5e5);
  d.circuit.hydraulics.loaded_flow = Given(0.0);
  const Assessment a = assess(d, Stations::only(Station::circuit));
  const Finding* f = about(a, "circuit.time", "main/up");
  REQUIRE(f);
  CHECK(f->verdict == Verdict::fails);
  CHECK(in_words(f->remark).find("stops at") != std::string::npos);

  d = demo("dunnock");
  for (auto& leg : d.gear.legs) {
    leg.retraction.slowest = Given(1.0);
    leg.retraction.times_from = TimesFrom::entered;
  }
  CHECK(verdict(d, "circuit.counted", "main/down") == Verdict::fails);
  const auto cures = cured_by(d, "circuit.counted", "main/down");
  CHECK(says(cures, "Sequence counts with"));
  d.circuit.hydraulics.relief = Given(6.0e6);
  CHECK(says(cured_by(d, "circuit.relief", "pump"), "relief valve set to"));
  d.circuit.hydraulics.cut_in = Given(6.6e6);
  CHECK(says(cured_by(d, "circuit.band", "pump"), "closes again at"));
}

TEST_CASE("on a plain tee the lightest leg goes first, the others wait; a divider takes them together") {
  Design d = demo("dunnock");
  d.circuit.hydraulics.split = FlowSplit::tee;
  // A nose cylinder so large that a breath of pressure moves it.
  for (auto& leg : d.gear.legs)
    if (leg.id == "third") leg.retraction.drive.bore = Given(0.06);
  const auto of_leg = [](const Assessment& x, std::string_view leg) {
    const auto& t = *x.circuit->together[0];
    for (size_t i = 0; i < t.words.size(); ++i)
      if (in_words(t.words[i]) == leg) return t.run.branches[i];
    FAIL("no leg " << leg);
    return circuit::BranchRun{};
  };
  const Assessment tee = assess(d, Stations::only(Station::circuit));
  CHECK(of_leg(tee, "nose leg").starts == Approx(0));
  CHECK(of_leg(tee, "port main leg").starts > 0.3 * of_leg(tee, "nose leg").arrives);
  CHECK(of_leg(tee, "port main leg").arrives == Approx(of_leg(tee, "starboard main leg").arrives));
  CHECK(in_words(about(tee, "circuit.pauses", "together/up")->remark).find("nose leg after") !=
        std::string::npos);
  d.circuit.hydraulics.split = FlowSplit::geared;
  const Assessment geared = assess(d, Stations::only(Station::circuit));
  CHECK(of_leg(geared, "port main leg").starts == Approx(0).margin(1e-6));

  // A nose leg whose down-spring takes it over half way: it goes first, stands, goes on when the others have.
  d = demo("dunnock");
  d.circuit.hydraulics.split = FlowSplit::tee;
  for (auto& leg : d.gear.legs)
    if (leg.id == "third") leg.retraction.drive.bore = Given(0.023);
  const Finding* f = nullptr;
  Assessment a;
  for (const double mass : {4.0, 8.0, 12.0, 16.0, 20.0, 25.0, 30.0, 40.0}) {
    for (auto& leg : d.gear.legs)
      if (leg.id == "third") leg.retraction.drive.mass = Given(mass);
    a = assess(d, Stations::only(Station::circuit));
    for (const char* way : {"together/up", "together/down"})
      if (const Finding* p = about(a, "circuit.pauses", way); p && p->verdict == Verdict::fails) f = p;
    if (f) break;
  }
  REQUIRE(f);
  CHECK(says(cured_by(d, "circuit.pauses", f->subject.key), "divider"));
}

TEST_CASE("a drag keeps the figures of what stays, and only of that") {
  const Design d = demo("dunnock");
  const Stations only = Stations::only(Station::circuit);
  const Assessment before = assess(d, only);
  const auto same = [&](const Design& x) {
    const Assessment near = assess(x, only, &before);
    const Assessment fresh = assess(x, only);
    REQUIRE(near.findings.size() == fresh.findings.size());
    for (size_t i = 0; i < near.findings.size(); ++i) {
      INFO(fresh.findings[i].key());
      CHECK(near.findings[i].verdict == fresh.findings[i].verdict);
      CHECK((near.findings[i].value == fresh.findings[i].value || std::isnan(fresh.findings[i].value)));
    }
  };
  same(d);
  // What hangs on a leg stands in the ledger, not in the leg.
  Design heavier = d;
  for (auto& item : heavier.ledger) item.mass = Given(1.5 * item.mass);
  same(heavier);
  Design slower = d;
  slower.circuit.hydraulics.down.bore = Given(0.0009);
  same(slower);
  Design weaker = d;
  weaker.circuit.electrics.lowest_voltage = Given(10.0);
  same(weaker);
}

TEST_CASE("pressures at a time: of the legs on their way, of the switch when all are there") {
  const Assessment a = assess(demo("dunnock"), Stations::only(Station::circuit));
  const double length = a.circuit->together[0]->run.length();
  const CircuitNow first = circuit_at(*a.circuit, true, 0);
  const CircuitNow middle = circuit_at(*a.circuit, true, length / 2);
  const CircuitNow last = circuit_at(*a.circuit, true, length);
  REQUIRE(middle.places.size() == 3);
  CHECK(first.places[0] == Approx(0));
  CHECK((middle.places[0] > 0.1 && middle.places[0] < 0.9));
  CHECK(last.places[0] == Approx(1));
  CHECK(last.arrived);
  CHECK(last.pump == Approx(6.5e6));
  CHECK(last.back == 0);
  // A throttled return pushes back, so the pump stands under more than that.
  CHECK(middle.back > 1e6);
  CHECK(middle.pump > middle.back * 0.7);
  double most = 0;
  for (const auto& w : a.circuit->ways) most = std::max(most, w.full.peak_pressure);
  CHECK(middle.pump <= most * (1 + 1e-9));
}

TEST_CASE("what leaks comes on again, by the bench and by the cruise; both agree on one leak") {
  Design d = demo("dunnock");
  Hydraulics& h = d.circuit.hydraulics;
  h.test_fall = Given(2e6);
  h.test_time = Given(60.0);
  CHECK(verdict(d, "circuit.interval", "held") == Verdict::fails);
  const Assessment a = assess(d, Stations::only(Station::circuit));
  const double interval = about(a, "circuit.interval", "held")->value;
  const double leak = said(*about(a, "circuit.interval", "held"), "leak at the cut-out");
  // p falls as e^(−k/C·t): from 6.5 to 4.5 MPa in a minute.
  CHECK(interval == Approx(60 * std::log(6.5 / 5.2) / std::log(6.5 / 4.5)));
  h.test_fall = h.test_time = Given();
  h.cycles_apart = Given(interval);
  const Assessment b = assess(d, Stations::only(Station::circuit));
  CHECK(said(*about(b, "circuit.interval", "held"), "leak at the cut-out") == Approx(leak));
}

TEST_CASE("plumbing: branches, cockpit, twins, both sides watched, the dump valve that Logic counts on") {
  Design d = demo("dunnock");
  auto& h = d.circuit.hydraulics;
  h.fittings[0].way = BranchWay::points_up;
  h.fittings[1].kind = FittingKind::gauge;
  h.fittings[1].in_cabin = true;
  h.pipes[0].length = Given(3.5);
  h.pipes[2].in_cabin = true;
  CHECK(says(cured_by(d, "circuit.branch", "tee under the seats"), "hang down"));
  CHECK(says(cured_by(d, "circuit.cabin", "sensor, up side"), "electric gauge"));
  CHECK(says(cured_by(d, "circuit.cabin", "nose, up"), "outside the cockpit"));
  CHECK(says(cured_by(d, "circuit.twins", "port main, up"), "to both"));
  h.fittings.pop_back();  // the dump valve
  CHECK(says(cured_by(d, "circuit.dump", "plumbing"), "dump valve"));
  h.fittings.pop_back();  // a sensor
  CHECK(says(cured_by(d, "circuit.watched", "plumbing"), "sensor on the down side"));
}

TEST_CASE("leads: voltage at the far end, fuse, relay, channel, slack, way, channel reversed") {
  Design d = demo("dunnock");
  auto& e = d.circuit.electrics;
  Feed& pump = e.feeds[0];
  // By hand: 11.5 V less 28 A through 2·1.2 m of 6 mm² copper, two connectors and the battery.
  CHECK(voltage_at(e, pump, 28) == Approx(11.5 - 28 * (2 * 1.2 * 1.75e-8 / 6e-6 + 2 * 0.002 + 0.02)));
  pump.section = Given(0.75e-6);
  pump.fuse = Given(100.0);
  pump.heavy_by_relay = false;
  pump.extension = Given(0.6);
  pump.lost = OnSignalLost::goes_up;
  CHECK(says(cured_by(d, "circuit.voltage", "pump"), "conductors of"));
  CHECK(says(cured_by(d, "circuit.fuse", "pump"), "a fuse of 40"));
  CHECK(says(cured_by(d, "circuit.relay", "pump"), "relay beside it"));
  CHECK(says(cured_by(d, "circuit.extension", "pump"), "made up in one"));
  CHECK(says(cured_by(d, "circuit.lost", "pump"), "goes down without signal"));
  Feed& bay = e.feeds[1];
  bay.channel = Given(0.003);
  bay.slack = Given(0.05);
  CHECK(says(cured_by(d, "circuit.channel", bay.name), "channel cut to"));
  CHECK(says(cured_by(d, "circuit.slack", bay.name), "slack of"));
  for (auto& p : bay.route) p.at.z = Given(-0.3);
  for (auto& p : bay.route) p.at.x = Given(2.45);
  CHECK(verdict(d, "circuit.route", bay.name) == Verdict::fails);
  for (auto& leg : d.gear.legs)
    if (leg.id == "main") leg.retraction.unit.other_way = true;
  CHECK(says(cured_by(d, "circuit.reversed", bay.name), "channel reversed"));
}

TEST_CASE("the slack that a lead needs follows from its two clips and the swing") {
  Design d = demo("dunnock");
  Feed& bay = d.circuit.electrics.feeds[1];
  const Leg& leg = d.gear.main();
  REQUIRE(leg.retraction.direction == SwingDirection::inward);
  const Vec3 pivot = leg.retraction.pivot.vec();
  bay.clip_airframe.set(pivot + Vec3(0.06, 0.04, 0.10));
  bay.clip_leg.set(pivot + Vec3(0.02, -0.01, -0.15));
  // By hand: an upright leg's inward swing turns about a line fore and aft.
  const Vec3 from = bay.clip_airframe.vec() - pivot, to = bay.clip_leg.vec() - pivot;
  double most = 0;
  for (int i = 0; i <= 8800; ++i) {
    const double turn = -radians(i / 100.0);
    const Vec3 at(to.x(), to.y() * std::cos(turn) - to.z() * std::sin(turn),
                  to.y() * std::sin(turn) + to.z() * std::cos(turn));
    most = std::max(most, (at - from).norm() - (to - from).norm());
  }
  const auto taken = slack_taken(d, bay);
  REQUIRE(taken);
  CHECK(taken->taken == Approx(most).margin(1e-6));
  bay.slack = Given(most + 0.01);
  bay.slack_needed = {};
  const Assessment a = assess(d);
  const Finding* f = about(a, "circuit.slack", bay.name);
  REQUIRE(f);
  CHECK(f->value == Approx(0.01).margin(1e-6));
  REQUIRE(most > 0.002);
  bay.slack = Given(0.5 * most);
  CHECK(verdict(d, "circuit.slack", bay.name) == Verdict::fails);
  CHECK(says(cured_by(d, "circuit.slack", bay.name), "slack of"));
  bay.slack = {};
  CHECK(verdict(d, "circuit.slack", bay.name) == Verdict::unknown);
  // A clip beside the pivot's own line takes nothing.
  bay.clip_airframe.set(pivot + Vec3(0.5, 0, 0));
  CHECK(slack_taken(d, bay)->taken == Approx(0).margin(1e-9));
  bay.actor.clear();
  CHECK_FALSE(slack_taken(d, bay));
}

TEST_CASE("currents over the sequence against the supply, and with one jammed") {
  Design d = demo("dunnock");
  const Assessment a = assess(d);
  const Finding* f = about(a, "circuit.current", "supply/up");
  REQUIRE(f);
  // Standing, the pump starting, the bay's switch: all at the legs' first start.
  CHECK(said(*f, "peak") == Approx(6 + 45 + 0.2).margin(0.21));
  CHECK(about(a, "circuit.jammed", "supply/up")->verdict == Verdict::tight);
  d.circuit.electrics.supply_current = Given(45.0);
  CHECK(about(assess(d), "circuit.current", "supply/up")->verdict == Verdict::fails);
  d.circuit.electrics.supply_current = Given();
  CHECK(about(assess(d), "circuit.current", "supply/up")->verdict == Verdict::unknown);
  // Neither what one of them runs with nor what it draws stalled is taken for nothing.
  d = demo("dunnock");
  d.circuit.electrics.feeds[1].running = Given();
  CHECK(about(assess(d), "circuit.current", "supply/up")->verdict == Verdict::unknown);
  d = demo("dunnock");
  for (auto& feed : d.circuit.electrics.feeds) feed.stall = Given();
  const Assessment b = assess(d);
  CHECK(about(b, "circuit.jammed", "supply/up")->verdict == Verdict::unknown);
  CHECK(about(b, "circuit.current", "supply/up")->verdict == Verdict::holds);
}

TEST_CASE("unequal gas springs are named and made alike") {
  Design d = demo("dunnock");
  REQUIRE(d.gear.legs[0].id == "main");
  Leg port = d.gear.legs[0];
  port.id = "port";
  port.stands = LegStands::port;
  d.gear.legs[0].stands = LegStands::starboard;
  d.gear.legs.push_back(port);
  for (auto& leg : d.gear.legs)
    if (leg.role == LegRole::main)
      leg.retraction.drive.down_spring.extended_force = Given(leg.id == "port" ? 300.0 : 240.0);
  CHECK(verdict(d, "circuit.gas_springs", "legs:main") == Verdict::fails);
  CHECK(says(cured_by(d, "circuit.gas_springs", "legs:main"), "on both"));
}

TEST_CASE("what is missing of pump and throttle is named; the circuit is saved") {
  Design d = demo("dunnock");
  d.circuit.hydraulics.down.bore = Given();
  {
    const Assessment a = assess(d, Stations::only(Station::circuit));
    const Finding* f = about(a, "circuit.time", "main/down");
    REQUIRE(f);
    CHECK(f->verdict == Verdict::unknown);
    CHECK(paths_in(f->remark) == std::vector<std::string>{"/circuit/hydraulics/down/bore_m"});
    // What goes up is known all the same.
    CHECK(std::isfinite(about(a, "circuit.time", "main/up")->value));
  }
  d = demo("dunnock");
  d.circuit.hydraulics.pump_voltage = Given();
  const Assessment a = assess(d, Stations::only(Station::circuit));
  const Finding* f = about(a, "circuit.time", "main/up");
  REQUIRE(f);
  CHECK(f->verdict == Verdict::unknown);
  CHECK(paths_in(f->remark) == std::vector<std::string>{"/circuit/hydraulics/pump_voltage_V"});
  d = demo("dunnock");
  const auto again = read_project(write_project(d));
  REQUIRE(again.design);
  CHECK(again.design->circuit == d.circuit);
  CHECK(again.design->logic == d.logic);
}
