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

const Finding* on(const Assessment& a, std::string_view id, std::string_view key) {
  for (const auto& f : a.findings)
    if (f.measure_id == id && f.subject.key == key) return &f;
  return nullptr;
}
Verdict verdict(const Design& d, std::string_view id, std::string_view key) {
  const Assessment a = assess(d, Stations::only(Station::circuit));
  const Finding* f = on(a, id, key);
  INFO(id << " " << key);
  REQUIRE(f);
  return f->verdict;
}
//! What cures a finding; each is put in and must do what it says.
std::vector<std::string> cured_by(const Design& d, std::string_view id, std::string_view key) {
  const Assessment a = assess(d);
  const Finding* f = on(a, id, key);
  INFO(id << " " << key);
  REQUIRE(f);
  CHECK((f->verdict == Verdict::fails || f->verdict == Verdict::tight));
  std::vector<std::string> words;
  for (const auto& cure : cures_for(d, a, *f)) {
    const Design after = cure.applied(d);
    const Assessment b = assess(after);
    REQUIRE(on(b, id, key));
    CHECK(on(b, id, key)->verdict == cure.reached);
    CHECK(severity(cure.reached) < severity(f->verdict));
    CHECK(read_project(write_project(after)).design);
    words.push_back(in_words(cure.text));
  }
  return words;
}
bool says(const std::vector<std::string>& words, std::string_view part) {
  for (const auto& w : words) UNSCOPED_INFO(w);
  return std::any_of(words.begin(), words.end(),
                     [&](const std::string& w) { return w.find(part) != std::string::npos; });
}

}  // namespace

TEST_CASE("the oil of a stroke is the cylinder's volume, its work the load's and the throttle's") {
  const Design d = demo("dunnock");
  for (const Leg& leg : d.gear.legs)
    for (const bool up : {true, false}) {
      const auto made = stroke_of(d, leg, up, false);
      REQUIRE(std::holds_alternative<circuit::Stroke>(made));
      const auto& s = std::get<circuit::Stroke>(made);
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
      CHECK(s.area_in * s.length > 0);
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
  const Finding* f = on(a, "circuit.time", "main/up");
  REQUIRE(f);
  CHECK(f->verdict == Verdict::fails);
  CHECK(in_words(f->remark).find("stops at") != std::string::npos);

  d = demo("dunnock");
  for (auto& leg : d.gear.legs) leg.retraction.slowest = Given(1.0);
  CHECK(verdict(d, "circuit.counted", "main/down") == Verdict::fails);
  const auto cures = cured_by(d, "circuit.counted", "main/down");
  CHECK(says(cures, "Sequence counts with"));
  d.circuit.hydraulics.relief = Given(6.0e6);
  CHECK(says(cured_by(d, "circuit.relief", "pump"), "relief valve set to"));
  d.circuit.hydraulics.cut_in = Given(6.6e6);
  CHECK(says(cured_by(d, "circuit.band", "pump"), "closes again at"));
}

TEST_CASE("on a plain tee the lightest leg goes first; a divider takes them together") {
  Design d = demo("dunnock");
  d.circuit.hydraulics.split = FlowSplit::tee;
  // A nose cylinder so large that a breath of pressure moves it.
  for (auto& leg : d.gear.legs)
    if (leg.id == "third") leg.retraction.drive.bore = Given(0.06);
  const Assessment tee = assess(d, Stations::only(Station::circuit));
  REQUIRE(tee.circuit->tee[0]);
  const auto of_leg = [&](const Assessment& x, std::string_view leg) {
    for (size_t i = 0; i < x.circuit->tee_legs.size(); ++i)
      if (x.circuit->tee_legs[i] == leg) return x.circuit->tee[0]->branches[i];
    FAIL("no leg " << leg);
    return circuit::BranchRun{};
  };
  CHECK(of_leg(tee, "nose leg").starts == Approx(0));
  CHECK(of_leg(tee, "port main leg").starts > 0.3 * of_leg(tee, "nose leg").arrives);
  CHECK(of_leg(tee, "port main leg").arrives == Approx(of_leg(tee, "starboard main leg").arrives));
  d.circuit.hydraulics.split = FlowSplit::geared;
  const Assessment geared = assess(d, Stations::only(Station::circuit));
  CHECK(of_leg(geared, "port main leg").starts == Approx(0).margin(1e-6));
  d.circuit.hydraulics.split = FlowSplit::tee;
  const Finding* f = on(tee, "circuit.pauses", "together/up");
  REQUIRE(f);
  CHECK(in_words(f->remark).find("they arrive") != std::string::npos);
  if (f->verdict == Verdict::fails) CHECK(says(cured_by(d, "circuit.pauses", "together/up"), "divider"));
}

TEST_CASE("what leaks comes on again, by the bench and by the cruise; both agree on one leak") {
  Design d = demo("dunnock");
  Hydraulics& h = d.circuit.hydraulics;
  h.test_fall = Given(2e6);
  h.test_time = Given(60.0);
  CHECK(verdict(d, "circuit.interval", "held") == Verdict::fails);
  const Assessment a = assess(d, Stations::only(Station::circuit));
  const double interval = on(a, "circuit.interval", "held")->value;
  const double leak = said(*on(a, "circuit.interval", "held"), "leak at the cut-out");
  // p falls as e^(−k/C·t): from 6.5 to 4.5 MPa in a minute.
  CHECK(interval == Approx(60 * std::log(6.5 / 5.2) / std::log(6.5 / 4.5)));
  h.test_fall = h.test_time = Given();
  h.cycles_apart = Given(interval);
  const Assessment b = assess(d, Stations::only(Station::circuit));
  CHECK(said(*on(b, "circuit.interval", "held"), "leak at the cut-out") == Approx(leak));
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

TEST_CASE("currents over the sequence against the supply, and with one jammed") {
  Design d = demo("dunnock");
  const Assessment a = assess(d);
  const Finding* f = on(a, "circuit.current", "supply/up");
  REQUIRE(f);
  // Standing, the pump starting, the bay's switch: all at the legs' first start.
  CHECK(said(*f, "peak") == Approx(6 + 45 + 0.2).margin(0.21));
  CHECK(on(a, "circuit.jammed", "supply/up")->verdict == Verdict::tight);
  d.circuit.electrics.supply_current = Given(45.0);
  CHECK(on(assess(d), "circuit.current", "supply/up")->verdict == Verdict::fails);
  d.circuit.electrics.supply_current = Given();
  CHECK(on(assess(d), "circuit.current", "supply/up")->verdict == Verdict::unknown);
}

TEST_CASE("unequal gas springs are named, what is missing of the pump too; the circuit is saved") {
  Design d = demo("dunnock");
  d.circuit.hydraulics.pump_voltage = Given();
  const Assessment a = assess(d, Stations::only(Station::circuit));
  const Finding* f = on(a, "circuit.time", "main/up");
  REQUIRE(f);
  CHECK(f->verdict == Verdict::unknown);
  CHECK(paths_in(f->remark) == std::vector<std::string>{"/circuit/hydraulics/pump_voltage_V"});
  d = demo("dunnock");
  const auto again = read_project(write_project(d));
  REQUIRE(again.design);
  CHECK(again.design->circuit == d.circuit);
  CHECK(again.design->logic == d.logic);
}
