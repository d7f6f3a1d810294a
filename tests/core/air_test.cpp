// SPDX-License-Identifier: GPL-3.0-or-later
//! Cylinders on a bottle: amounts of air are kept, holes pass what a nozzle passes, ways last what closed
//! forms say; a design's cycles, hand and cures.
#include "core/circuit/air.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "core/assess/air_state.h"
#include "core/assess/circuit_state.h"
#include "core/assess/cures.h"
#include "core/assess/drive_offers.h"
#include "core/assess/stock.h"
#include "core/assess/swaps.h"
#include "demo.h"
#include "findings.h"

namespace kranich {
namespace {

constexpr double outside = 101325;
const double sound = std::sqrt(circuit::air_constant * circuit::room_temperature);
constexpr double choked_share = 0.684731;  // √1.4·(2/2.4)³

circuit::AirWay even_way() {
  circuit::AirWay w{};
  w.area_in = w.area_out = 3e-4;
  w.dead_in = w.dead_out = 2e-6;
  w.hole_in = 4e-6;
  w.hole_out = 1e-7;
  w.supply = w.left_in = 9e5 + outside;
  w.ambient = outside;
  w.travel = 1.5;
  w.inertia = 1e-4;
  w.stroke = [](double q) { return 0.06 * q; };
  w.arm = [](double) { return 0.04; };
  w.resists = [](double) { return 0.5; };
  return w;
}

TEST_CASE("what leaves the bottle is in the cylinders: amounts of air are kept, regulator or none") {
  const circuit::Bottle plain{1e-3, outside};
  const double after = circuit::bottle_after(plain, 8e5, 3e-4);
  CHECK(after * (1e-3 + 3e-4) == Approx(8e5 * 1e-3 + outside * 3e-4));
  CHECK(circuit::behind_regulator(plain, after) == after);
  const circuit::Bottle regulated{1e-3, outside, 5e5};
  const double less = circuit::bottle_after(regulated, 8e5, 3e-4);
  CHECK(less * 1e-3 + 5e5 * 3e-4 == Approx(8e5 * 1e-3 + outside * 3e-4));
  CHECK(less > after);
  CHECK(circuit::behind_regulator(regulated, less) == 5e5);
  // Below what it is set to a regulator lets everything through.
  CHECK(circuit::bottle_after(regulated, 5.2e5, 3e-4) == circuit::bottle_after(plain, 5.2e5, 3e-4));
}

TEST_CASE(
    "a hole passes choked flow at great differences, none where both sides are level, the same both ways") {
  CHECK(circuit::air_flow(1e-6, 8e5, 1e5) == Approx(1e-6 * 8e5 * sound * choked_share).epsilon(1e-5));
  CHECK(circuit::air_flow(1e-6, 8e5, 3e5) == Approx(circuit::air_flow(1e-6, 8e5, 1e5)));
  CHECK(circuit::air_flow(1e-6, 8e5, 5e5) < circuit::air_flow(1e-6, 8e5, 3e5));
  CHECK(circuit::air_flow(1e-6, 5e5, 5e5) == 0);
  CHECK(circuit::air_flow(1e-6, 5e5, 8e5) == -circuit::air_flow(1e-6, 8e5, 5e5));
  // Subsonic: ṁ·√(RT)/(A·p) = √(2γ/(γ−1)·(r^(2/γ) − r^((γ+1)/γ))) at r = 0.8, by hand.
  CHECK(circuit::air_flow(1, 1, 0.8) == Approx(sound * 0.56069).epsilon(1e-3));
  // Falls without a jump to nothing.
  double before = circuit::air_flow(1, 1, 0.5);
  for (double r = 0.51; r < 1; r += 0.0005) {
    const double now = circuit::air_flow(1, 1, r);
    CHECK(now <= before);
    CHECK(before - now < 0.04 * sound);
    before = now;
  }
}

TEST_CASE("a choked outlet lets a leg go at one speed, whatever the pressure") {
  // p·A·v = C·A_o·p·√(RT)·0.685: the speed does not know p.
  const circuit::AirWay w = even_way();
  const double v = w.hole_out * sound * choked_share / w.area_out;
  const auto run = circuit::air_run(w);
  CHECK(run.stops_at == 1);
  CHECK(run.arrival_speed * 0.04 == Approx(v).epsilon(0.02));
  CHECK(run.time == Approx(0.06 / v).epsilon(0.1));
  circuit::AirWay wider = w;
  wider.hole_out *= 2;
  CHECK(circuit::air_run(wider).time == Approx(run.time / 2).epsilon(0.1));
  // Samples: time goes on, the travel never back, and between them it is straight.
  for (size_t i = 1; i < run.samples.size(); ++i) {
    CHECK(run.samples[i].time > run.samples[i - 1].time);
    CHECK(run.samples[i].share >= run.samples[i - 1].share - 1e-9);
  }
  CHECK(run.at(1e9).share == Approx(1));
  CHECK(run.at(run.time / 2).share == Approx(0.5).margin(0.06));
}

TEST_CASE("it begins once what comes in has come up to what is asked, as a choked hole fills a space") {
  circuit::AirWay w = even_way();
  w.area_out = 0;  // air one way only
  w.dead_in = 1e-5;
  w.hole_in = 1e-7;
  w.supply = 20e5;
  w.resists = [](double) { return 6.0; };
  const double needed = 6.0 / 0.04 / w.area_in;  // over the outside
  const auto run = circuit::air_run(w);
  CHECK(run.starts ==
        Approx(needed * w.dead_in / (w.hole_in * w.supply * sound * choked_share)).epsilon(1e-4));
  CHECK(run.stops_at == 1);
}

TEST_CASE("it stops where the leg asks for more than there is, and is drawn where the leg runs ahead") {
  circuit::AirWay w = even_way();
  const double most = (w.supply - outside) * w.area_in * 0.04;
  w.hole_out = 4e-6;
  w.resists = [=](double q) { return most * (0.5 + q); };
  const auto stuck = circuit::air_run(w, 20);
  CHECK(std::isinf(stuck.time));
  CHECK(stuck.stops_at == Approx(0.5).margin(0.05));
  w.resists = [=](double) { return -0.8 * most; };
  w.hole_in = 1e-8;
  const auto ahead = circuit::air_run(w);
  CHECK(ahead.stops_at == 1);
  CHECK(ahead.least_pressure < outside);
}

//! A check about what has a key: "bottle", "main/up"; or about a leg.
const Finding& finding(const Assessment& a, std::string_view id, std::string_view key = {}) {
  const auto f = std::find_if(a.findings.begin(), a.findings.end(), [&](const Finding& x) {
    return x.measure_id == id && (key.empty() || x.subject.key == key || x.subject.leg == key);
  });
  REQUIRE(f != a.findings.end());
  return *f;
}

//! Dunnock's legs on air: a litre and a half at twenty bar, cylinders wider than its own.
Design on_air() {
  Design d = demo("dunnock");
  for (Leg& l : d.gear.legs) {
    Drive& r = l.retraction.drive;
    r.kind = DriveKind::air;
    r.bore = Given(l.role == LegRole::main ? 0.063 : 0.05);
  }
  AirSupply& a = d.circuit.air;
  a.bottle = Given(0.010);
  a.filled = Given(3.5e6);
  a.rated = Given(6e6);
  a.valve_bore = Given(0.004);
  a.up_bore = a.down_bore = Given(0.002);
  a.wanted_cycles = Given(3.0);
  a.test_fall = Given(1e5);
  a.test_time = Given(3600.0);
  a.wait = Given(7200.0);
  return d;
}

TEST_CASE(
    "a filling gives so many cycles: more from a larger bottle, fewer from pipes, none of a piston too "
    "small") {
  const Design d = on_air();
  const auto made = air_plan(d);
  REQUIRE(std::holds_alternative<AirPlan>(made));
  const AirPlan& p = std::get<AirPlan>(made);
  // An hour's loss of 1 in 35, two hours of it.
  CHECK(p.starts == Approx(3.5e6 * std::pow(34.0 / 35, 2)));
  // What the legs take: of each way the piston's side times the stroke, a twentieth of it in the ends.
  double swept = 0;
  for (const AirLegWay& w : p.ways)
    if (w.up) swept += w.count * w.area_in * w.length * 1.05;
  const double after =
      (p.starts + outside) * 0.010 / (0.010 + swept) + outside * swept / (0.010 + swept) - outside;
  CHECK(p.strokes.front().after == Approx(after));
  // Without a regulator the cylinders have at the end of a way what is left in the bottle; before it, more.
  CHECK(p.at_share(true, air_shares, p.starts) == Approx(p.after(true, p.starts)));
  CHECK(p.at_share(true, 0, p.starts) > p.at_share(true, air_shares / 2, p.starts));
  CHECK(p.at_share(true, 0, p.starts) < p.starts);
  AirPlan once = p;
  once.wanted = 1;
  CHECK(once.before_last(true) == p.starts);
  CHECK(once.before_last(false) == p.after(true, p.starts));
  CHECK(p.before_last(true) == Approx(p.strokes[4].before));  // three cycles are wanted
  CHECK(p.before_last(false) == Approx(p.strokes[5].before));
  CHECK(p.ways.size() == 4);
  CHECK(p.cycles >= 1);
  const auto cycles = [](Design x) { return std::get<AirPlan>(air_plan(x)).cycles; };
  Design x = d;
  x.circuit.air.bottle = Given(0.020);
  CHECK(cycles(x) > p.cycles);
  x = d;
  x.circuit.air.tubes.resize(1);
  x.circuit.air.tubes[0].leg = "main";
  x.circuit.air.tubes[0].length = Given(8.0);
  x.circuit.air.tubes[0].bore = Given(0.012);
  CHECK(cycles(x) < p.cycles);
  x = d;
  for (Leg& l : x.gear.legs) l.retraction.drive.bore = Given(0.018);
  CHECK(cycles(x) == 0);
  // A regulator at what is needed saves what is not.
  x = d;
  x.circuit.air.regulated = Given(1.2e6);
  const int saved = cycles(x);
  INFO(saved << " against " << p.cycles);
  CHECK(saved > p.cycles);
}

TEST_CASE("air is judged: hand at the last cycle wanted, cycles, rating, wait, times; what lacks is named") {
  Design d = on_air();
  const Assessment a = assess(d);
  CHECK(finding(a, "circuit.cycles").value == std::get<AirPlan>(air_plan(d)).cycles);
  CHECK(finding(a, "circuit.rated").value == Approx(2.5e6));
  CHECK(finding(a, "drive.force", "main").verdict != Verdict::unknown);
  CHECK(finding(a, "circuit.air_lasts").verdict != Verdict::unknown);
  CHECK(finding(a, "circuit.time", "main/up").value > 0.1);
  REQUIRE(a.circuit->air);
  CHECK(a.circuit->air->followed.size() == 4);
  // A tube narrower than the restrictor is what holds the air back, on the side where it leaves.
  const double up = finding(a, "circuit.time", "main/up").value;
  const double down = finding(a, "circuit.time", "main/down").value;
  Design narrow = d;
  AirTube& tube = narrow.circuit.air.tubes.emplace_back();
  tube.leg = "main";
  tube.side = PipeSide::down;
  tube.length = Given(1e-3);
  tube.bore = Given(0.0012);
  const Assessment held = assess(narrow);
  CHECK(finding(held, "circuit.time", "main/up").value > 1.5 * up);
  CHECK(finding(held, "circuit.time", "main/down").value < 1.5 * down);

  // In hand is worse the more cycles are wanted, and better from more air.
  const double hand = finding(a, "drive.force", "main").value;
  Design more = d;
  more.circuit.air.wanted_cycles = Given(5.0);
  CHECK(finding(assess(more), "drive.force", "main").value < hand);
  more = d;
  more.circuit.air.filled = Given(4.5e6);
  CHECK(finding(assess(more), "drive.force", "main").value > hand);
  // What fills again and again to the least filling just gives the cycles wanted.
  const double least = a.circuit->air->least_filling;
  const AirPlan& p = a.circuit->air->plan;
  CHECK(p.goes(1.001 * least, p.wanted));
  CHECK_FALSE(p.goes(0.999 * least, p.wanted));

  Design lacks = d;
  lacks.circuit.air.bottle = Given();
  const Assessment b = assess(lacks);
  CHECK(finding(b, "circuit.cycles").verdict == Verdict::unknown);
  CHECK(finding(b, "drive.force", "main").verdict == Verdict::unknown);
  lacks = d;
  lacks.circuit.air.valve_bore = Given();
  CHECK(finding(assess(lacks), "circuit.time", "main/up").verdict == Verdict::unknown);
}

TEST_CASE("air one way only: the other is left to weight and springs, and fails where these do not do it") {
  Design d = on_air();
  for (Leg& l : d.gear.legs) l.retraction.drive.air_acts = AirActs::down_only;
  const auto p = std::get<AirPlan>(air_plan(d));
  for (const AirLegWay& w : p.ways) CHECK((w.area_in == 0) == w.up);
  CHECK(p.cycles == 0);
  CHECK(finding(assess(d), "drive.force", "main").value == -1);
}

TEST_CASE("each cure of air keeps what it promises") {
  for (const char* id : {"circuit.cycles", "circuit.air_lasts", "drive.force"}) {
    Design d = on_air();
    d.circuit.air.wanted_cycles = Given(7.0);
    if (std::string(id) == "drive.force") {
      d.circuit.air.wanted_cycles = Given(3.0);
      d.gear.legs[0].retraction.drive.bore = Given(0.026);
    }
    const Assessment a = assess(d);
    const Finding& f = finding(a, id, std::string(id) == "drive.force" ? "main" : "bottle");
    INFO(id << " " << f.value);
    REQUIRE(f.verdict == Verdict::fails);
    const Stock none;
    const auto offered = cures_for(d, a, f, {100, &none});
    CHECK(offered.size() >= 2);
    CHECK(std::any_of(offered.begin(), offered.end(),
                      [](const Cure& c) { return c.parts[0].knob->id == "air.bottle"; }));
    for (const auto& cure : offered) {
      const Design x = cure.applied(d);
      INFO(plain(cure.text));
      CHECK(finding(assess(x), id, f.subject.key).verdict != Verdict::fails);
      CHECK(x.circuit.air.filled <= 0.9 * d.circuit.air.rated);
    }
  }
}

TEST_CASE("a restrictor is found that gives the time wanted, and it does") {
  Design d = on_air();
  d.circuit.air.wanted_up = d.circuit.air.wanted_down = Given(6.0);
  const Assessment a = assess(d);
  const Finding& f = finding(a, "circuit.time", "main/down");
  REQUIRE(f.verdict == Verdict::fails);
  const Stock none;
  const auto offered = swaps_for(d, a, none, f);
  REQUIRE(!offered.empty());
  offered.front()->apply(d, 1);
  CHECK(finding(assess(d), "circuit.time", "main/down").value == Approx(6).epsilon(0.05));
}

TEST_CASE("from air to electric: pins that do not meet are told with what cures them, hours are kept") {
  Design d = on_air();
  Leg& leg = d.gear.legs[0];
  leg.retraction.drive_sold.pin = Given(0.006);
  DriveOffer electric = offer_of(leg, "worm");
  electric.drive.kind = DriveKind::actuator;
  electric.drive.force = Given(9000.0);
  electric.sold.pin = Given(0.008);
  electric.sold.hours = Given(12.0);
  leg.retraction.drive_offers = {electric, electric};
  leg.retraction.drive_offers[1].sold.pin = Given(0.005);
  const auto list = compare_drives(d, leg, assess(d));
  REQUIRE(list.size() == 3);
  CHECK(plain(list[1].fits) == "eyes drilled out from 6 mm to 8 mm");
  CHECK(plain(list[2].fits) == "bushes of 6 mm outside, 5 mm inside, in the eyes");
  CHECK(list[0].fits.empty());
}

}  // namespace
}  // namespace kranich
