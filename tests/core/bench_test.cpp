// SPDX-License-Identifier: GPL-3.0-or-later
//! The bench: readings and recorded drops fitted and taken over, many landings scattered, recordings as
//! tables.
#include <catch2/catch.hpp>
#include <random>

#include "core/assess/assess.h"
#include "core/assess/landing_state.h"
#include "core/assess/loading_state.h"
#include "core/io/bench_line.h"
#include "core/io/rig_csv.h"
#include "core/spring/identify.h"
#include "core/spring/landing.h"
#include "core/spring/scatter.h"
#include "demo.h"
#include "said.h"
#include "sample_leg.h"

using namespace kranich;
using spring::RigSample;

namespace {

LoadReading reading(double load, double closure, bool out = false, std::string leg = "main") {
  LoadReading r;
  r.leg = leg;
  r.load = Given(load);
  r.closure = Given(closure);
  r.unloading = out;
  return r;
}

spring::DropModel linear_leg() {
  spring::DropModel m;
  m.sprung_mass = 4.5;
  m.unsprung_mass = 0.2;
  m.spring.kind = force::LegLaw::Kind::linear;
  m.spring.rate = 2100;
  m.spring.preload = 8;
  m.spring.travel = m.travel = 0.055;
  m.damper.closing = 190;
  m.damper.extending = 250;
  m.tyre.rate = 15000;
  m.bottom_stop = 4e4;
  m.extension_stop = 8e4;
  return m;
}

const spring::LoadFit& fit_of(const std::variant<spring::LoadFit, Text>& v) {
  if (const auto* why = std::get_if<Text>(&v)) FAIL(in_words(*why));
  return std::get<spring::LoadFit>(v);
}

}  // namespace

TEST_CASE("readings on a line give its rate, preload and friction exactly") {
  std::vector<LoadReading> list;
  for (const double s : {0.0, 0.01, 0.02, 0.04}) {
    list.push_back(reading(12 + 2000 * s + 3, s));
    list.push_back(reading(12 + 2000 * s - 3, s, true));
  }
  list.push_back(reading(999, 0.5, false, "third"));  // another leg's
  const auto fit = fit_of(spring::fit_readings(list, "main"));
  CHECK(fit.rate == Approx(2000));
  CHECK(fit.preload == Approx(12));
  CHECK(fit.friction == Approx(3));
  CHECK(fit.readings == 8);
  CHECK(fit.off < 1e-9);
}

TEST_CASE("without the way out nothing is known of friction; too few readings are refused") {
  const auto fit = fit_of(spring::fit_readings(std::vector{reading(10, 0), reading(30, 0.01)}, "main"));
  CHECK(fit.rate == Approx(2000));
  CHECK(std::isnan(fit.friction));
  CHECK(std::isnan(fit.rate_error));
  for (const auto& list :
       {std::vector<LoadReading>{}, {reading(10, 0)}, {reading(10, 0.01), reading(12, 0.01)}})
    CHECK(std::holds_alternative<Text>(spring::fit_readings(list, "main")));
  CHECK(
      says(std::get<Text>(spring::fit_readings(std::vector{reading(10, 0), reading(9, 0.02, true)}, "main")),
           "three"));
  auto unknown = reading(10, 0.03);
  unknown.load = Given();
  CHECK(std::holds_alternative<Text>(spring::fit_readings(std::vector{reading(10, 0), unknown}, "main")));
}

TEST_CASE("the standard error of a rate is honest") {
  std::mt19937 random(7);
  std::normal_distribution<double> noise(0, 0.8);
  int within = 0;
  for (int round = 0; round < 200; ++round) {
    std::vector<LoadReading> list;
    for (int i = 0; i < 12; ++i) list.push_back(reading(10 + 1500 * 0.004 * i + noise(random), 0.004 * i));
    const auto fit = fit_of(spring::fit_readings(list, "main"));
    within += std::abs(fit.rate - 1500) < 2 * fit.rate_error;
  }
  CHECK(within > 170);  // about 95 % of 200
  CHECK(within < 200);
}

TEST_CASE("Redshank's own readings agree with its spring and its friction") {
  const auto d = demo("redshank");
  const auto fit = fit_of(spring::fit_readings(d.spring_bench.readings, "main"));
  const auto a = assess(d);
  const double rate = (*a.wheels)[1].leg.wheel_rate(0);
  CHECK(fit.rate == Approx(rate).epsilon(0.1));
  CHECK(fit.friction > 1);
  CHECK(fit.friction < 10);
}

TEST_CASE("a rig falls freely, then feels the strut") {
  const auto m = linear_leg();
  const auto record = spring::rig_record(m, 0.2, 1000, 0.8);
  const double touch = spring::sink_speed_of_drop(0.2) / standard_gravity;
  double most = 0;
  for (const auto& s : record) {
    if (s.t < touch) {
      CHECK(s.acceleration == Approx(-standard_gravity));
      CHECK(s.stroke == 0);
    }
    most = std::max(most, s.stroke);
  }
  CHECK(most == Approx(spring::drop(m, spring::sink_speed_of_drop(0.2)).stroke_used).epsilon(1e-3));
  CHECK(record.back().acceleration == Approx(0).margin(0.2));
}

TEST_CASE("a recorded drop gives back the factors it was made with") {
  for (const auto& m : {linear_leg(), [] {
                          auto o = oleo();
                          o.lift_ratio = 0;
                          return o;
                        }()}) {
    for (const auto& [k, c] : {std::pair{1.0, 1.0}, {1.15, 0.8}, {0.85, 1.25}}) {
      const double height = m.mass() > 50 ? 0.05 : 0.15;
      const auto record = spring::rig_record(spring::scaled(m, k, c), height, 800, 0.6);
      const auto fit = spring::fit_drop(m, height, record);
      REQUIRE(std::holds_alternative<spring::DropFit>(fit));
      const auto& f = std::get<spring::DropFit>(fit);
      INFO(m.mass() << " " << k << " " << c);
      CHECK(f.spring == Approx(k).epsilon(5e-3));
      CHECK(f.damping == Approx(c).epsilon(5e-3));
      CHECK(f.off_after <= f.off_before + 1e-9);
    }
  }
}

TEST_CASE("noise widens the errors, and the truth lies within them") {
  const auto m = linear_leg();
  std::mt19937 random(3);
  std::normal_distribution<double> normal(0, 1);
  auto record = spring::rig_record(spring::scaled(m, 1.1, 0.9), 0.15, 500, 0.7);
  for (auto& s : record) {
    s.acceleration += 2 * normal(random);
    s.stroke += 0.0003 * normal(random);
  }
  const auto f = std::get<spring::DropFit>(spring::fit_drop(m, 0.15, record));
  CHECK(std::abs(f.spring - 1.1) < 3 * f.spring_error);
  CHECK(std::abs(f.damping - 0.9) < 3 * f.damping_error);
  CHECK(f.spring_error > 0.001);
  CHECK(f.off_after == Approx(2).epsilon(0.2));
  CHECK(f.stroke_off_after == Approx(0.0003).epsilon(0.2));
}

TEST_CASE("an undamped leg has no damping to fit; a rigid one nothing") {
  auto m = linear_leg();
  m.damper = {};
  const auto record = spring::rig_record(spring::scaled(m, 1.2, 1), 0.05, 1000, 0.22);
  const auto f = std::get<spring::DropFit>(spring::fit_drop(m, 0.05, record));
  CHECK(f.spring == Approx(1.2).epsilon(0.01));
  CHECK(f.damping == 1);
  CHECK(std::isnan(f.damping_error));
  spring::DropModel rigid;
  rigid.sprung_mass = 5;
  rigid.tyre.rate = 10000;
  CHECK(std::holds_alternative<Text>(spring::fit_drop(rigid, 0.1, record)));
  CHECK(std::holds_alternative<Text>(spring::fit_drop(m, 0.1, std::vector<RigSample>(5))));
  CHECK(std::holds_alternative<Text>(spring::fit_drop(m, 2.0, record)));  // ends before the touch-down
}

TEST_CASE("what fits is taken over by every kind of spring that can") {
  auto d = demo("dunnock");
  const spring::DropFit fit{1.2, 0.8, 0.01, 0.02, 1, 1, 1, 1};
  const auto force_of = [](const Leg& leg, double q) {
    const auto path = force::suspension_of(leg, {});
    return std::get<force::Suspension>(path).at(q).force;
  };
  Leg gas = d.gear.main();
  REQUIRE(spring::take_over(gas, fit).empty());
  CHECK(force_of(gas, 0) == Approx(1.2 * force_of(d.gear.main(), 0)));
  CHECK(gas.spring.gas.pressure.origin == Origin::measured);
  CHECK(gas.spring.gas.pressure.tolerance > 0);
  CHECK(gas.spring.orifice_closing == Approx(d.gear.main().spring.orifice_closing / std::sqrt(0.8)));
  // Damping goes with the square of its bore: half the damping's doubt.
  CHECK(gas.spring.orifice_closing.tolerance == Approx(d.gear.main().spring.orifice_closing * 0.02 / 2));
  const auto redshank = demo("redshank");
  Leg coil = redshank.gear.main();
  REQUIRE(spring::take_over(coil, fit).empty());
  CHECK(
      force_of(coil, 0.02) - force_of(coil, 0) ==
      Approx(1.2 * (force_of(redshank.gear.main(), 0.02) - force_of(redshank.gear.main(), 0))).epsilon(2e-3));
  CHECK(coil.spring.damping_closing == Approx(0.8 * redshank.gear.main().spring.damping_closing));
  Leg cord = demo("wheatear").gear.main();
  const double before = force_of(cord, 0.1);
  REQUIRE(spring::take_over(cord, fit).empty());
  CHECK(force_of(cord, 0.1) == Approx(1.2 * before));
  Leg tail = redshank.gear.third();
  CHECK(spring::take_over(tail, fit).find("follows from its stock") !=
        std::string::npos);  // its stiffness follows from its stock
  CHECK(tail.spring.bent == redshank.gear.third().spring.bent);
}

TEST_CASE("a coil that is softer than foretold never bears on more turns than it has") {
  Leg leg = demo("redshank").gear.main();
  Coil& c = leg.spring.coil;
  c.ends = CoilEnds::squared_ground;
  c.active_turns = Given(8.0);
  c.total_turns = Given(9.5);
  const double wire = c.wire_diameter;
  const auto rate = [](const Coil& x) { return std::pow(x.wire_diameter, 4) / x.active_turns; };
  const double before = rate(c);
  // 0.8 of the rate asks for ten turns: 8.5 can bear at most, the wire explains the rest.
  REQUIRE(spring::take_over(leg, spring::DropFit{0.8, 1, 0.01, 0.02, 1, 1, 1, 1}).empty());
  CHECK(c.active_turns == Approx(8.5));
  CHECK(rate(c) == Approx(0.8 * before));
  CHECK(c.wire_diameter < wire);
  CHECK(c.wire_diameter.origin == Origin::measured);
  // Much stiffer: one turn less at most.
  c.active_turns = Given(8.0);
  c.wire_diameter = Given(wire);
  REQUIRE(spring::take_over(leg, spring::DropFit{1.6, 1, 0.01, 0.02, 1, 1, 1, 1}).empty());
  CHECK(c.active_turns == Approx(7));
  CHECK(rate(c) == Approx(1.6 * before));
  // A little: by the turns alone.
  c.active_turns = Given(8.0);
  c.wire_diameter = Given(wire);
  REQUIRE(spring::take_over(leg, spring::DropFit{1.05, 1, 0.01, 0.02, 1, 1, 1, 1}).empty());
  CHECK(c.active_turns == Approx(8 / 1.05));
  CHECK(c.wire_diameter.si == wire);
}

TEST_CASE("what cannot be taken over says why, and stays") {
  Leg leg = demo("redshank").gear.main();
  const Leg before = leg;
  const spring::LoadFit fit{2300, 9, std::nan(""), std::nan(""), 0, 2};
  CHECK(spring::take_over(leg, fit, std::nan("")).find("does not stand") != std::string::npos);
  CHECK(leg == before);
  CHECK(spring::take_over(leg, {-200, 9, 5, 1, 0, 4}, 2100).find("fall") != std::string::npos);
  CHECK(leg == before);
  leg.spring.coil.wire_diameter = Given();
  CHECK(spring::take_over(leg, fit, 2100).find("not entered") != std::string::npos);
}

TEST_CASE("a line through readings is taken over, friction too") {
  Leg linear = demo("wheatear").gear.third();
  const spring::LoadFit fit{21000, 40, 25, 300, 1, 8};
  REQUIRE(spring::take_over(linear, fit, 19000).empty());
  CHECK(linear.spring.rate.si == 21000);
  CHECK(linear.spring.rate.tolerance == 300);
  CHECK(linear.spring.preload.si == 40);
  CHECK(linear.spring.friction.si == 25);
  Leg coil = demo("redshank").gear.main();
  const double turns = coil.spring.coil.active_turns;
  REQUIRE(spring::take_over(coil, {2300, 9, std::nan(""), std::nan(""), 0, 2}, 2100).empty());
  const double wire = demo("redshank").gear.main().spring.coil.wire_diameter;
  CHECK(std::pow(coil.spring.coil.wire_diameter / wire, 4) * turns / coil.spring.coil.active_turns ==
        Approx(2300.0 / 2100));
  CHECK(coil.spring.friction == demo("redshank").gear.main().spring.friction);
}

TEST_CASE("scattered by nothing, every drop is the design landing") {
  const auto m = oleo();
  Scatter none;
  for (Given* g : {&none.sink_speed, &none.mass, &none.spring, &none.friction, &none.damping, &none.colder,
                   &none.hotter})
    *g = Given(0.0);
  none.drops = Given(100.0);
  const auto r = spring::scattered_drops(m, 2.4, none, 3);
  REQUIRE(r);
  spring::DropRun run;
  run.tolerance = 1e-4;
  run.until_stopped = true;
  const auto one = spring::drop(m, 2.4, run);
  CHECK(r->load_factor.front() == Approx(one.load_factor));
  CHECK(r->load_factor.back() == Approx(one.load_factor));
  CHECK(r->stroke.back() == Approx(one.stroke_used));
}

TEST_CASE("the same seed gives the same drops; wider scatter gives worse ones") {
  const auto m = oleo();
  Scatter s;
  s.drops = Given(400.0);
  const auto one = spring::scattered_drops(m, 2.4, s, 2.5, 5);
  const auto two = spring::scattered_drops(m, 2.4, s, 2.5, 5);
  REQUIRE((one && two));
  CHECK(one->load_factor == two->load_factor);
  CHECK(one->over_factor == two->over_factor);
  const auto other = spring::scattered_drops(m, 2.4, s, 2.5, 6);
  CHECK(one->load_factor != other->load_factor);
  CHECK(std::is_sorted(one->stroke.begin(), one->stroke.end()));
  s.sink_speed = Given(0.3);
  const auto wide = spring::scattered_drops(m, 2.4, s, 2.5, 5);
  using Result = spring::ScatterResult;
  CHECK(Result::below(wide->load_factor, 0.95) > Result::below(one->load_factor, 0.95));
  // Shares are what they count.
  size_t over = 0;
  for (const double n : one->load_factor) over += n > 2.5;
  CHECK(one->over_factor == Approx(static_cast<double>(over) / 400));
}

TEST_CASE("a cold day makes a gas leg softer") {
  const auto m = oleo();
  Scatter s;
  for (Given* g : {&s.sink_speed, &s.mass, &s.spring, &s.friction, &s.damping, &s.hotter}) *g = Given(0.0);
  s.drops = Given(200.0);
  s.colder = Given(40.0);
  const auto cold = spring::scattered_drops(m, 2.0, s, 9);
  s.colder = Given(0.0);
  s.hotter = Given(40.0);
  const auto hot = spring::scattered_drops(m, 2.0, s, 9);
  REQUIRE((cold && hot));
  CHECK(cold->stroke.back() > hot->stroke.back());
  CHECK(cold->stroke.front() >= hot->stroke.back() - 1e-9);
}

TEST_CASE("called off, nothing comes back; progress rises") {
  Scatter s;
  s.drops = Given(2000.0);
  double last = -1;
  const auto r = spring::scattered_drops(oleo(), 2.4, s, 3, 1, [&](double share) {
    CHECK(share >= last);
    last = share;
    return share <= 0.1;
  });
  CHECK_FALSE(r);
  CHECK(last > 0.1);
  CHECK(last < 1);
}

TEST_CASE("what a share of drops stays below") {
  using Result = spring::ScatterResult;
  const std::vector<double> v{1, 2, 3, 4, 5};
  CHECK(Result::below(v, 0) == 1);
  CHECK(Result::below(v, 0.5) == 3);
  CHECK(Result::below(v, 0.625) == Approx(3.5));
  CHECK(Result::below(v, 1) == 5);
  CHECK(std::isnan(Result::below({}, 0.5)));
}

TEST_CASE("a recording goes to a table and back") {
  const auto record = spring::rig_record(linear_leg(), 0.15, 400, 0.4);
  const auto back = read_rig_csv(rig_to_csv(record));
  CHECK(back.faults.empty());
  REQUIRE(back.samples.size() == record.size());
  for (size_t i = 0; i < record.size(); ++i) {
    CHECK(back.samples[i].t == Approx(record[i].t).margin(1e-5));
    CHECK(back.samples[i].acceleration == Approx(record[i].acceleration).margin(1e-3));
    CHECK(back.samples[i].stroke == Approx(record[i].stroke).margin(1e-6));
  }
}

TEST_CASE("a faulty recording names line, column and what is allowed, and gives nothing") {
  const std::string head = "t_s,acceleration_m_per_s2,stroke_m\n";
  struct Case {
    std::string text, where, what;
  };
  for (const auto& c :
       {Case{"", "line 1", "empty"}, Case{"t_s,stroke_m\n0,0\n", "line 1", "acceleration_m_per_s2"},
        Case{head + "0,1,0\n0,1,0\n", "line 3, t_s", "rise"},
        Case{head + "0,fast,0\n", "line 2, acceleration_m_per_s2", "number"},
        Case{head + "0,1,\n", "line 2, stroke_m", "empty"}, Case{head + "0,1,7\n", "line 2, stroke_m", ""},
        Case{head + "0,99999,0\n", "line 2, acceleration_m_per_s2", ""}}) {
    const auto r = read_rig_csv(c.text);
    INFO(c.text);
    REQUIRE_FALSE(r.faults.empty());
    CHECK(r.faults[0].where == c.where);
    CHECK(r.faults[0].what.find(c.what) != std::string::npos);
    CHECK(r.samples.empty());
  }
}

TEST_CASE("a rig's line carries its sample and its end") {
  const BenchLine line{"RIG", {{"t", 0.125}, {"a", -9.81}, {"s", 0.0123}, {"end", 0}}};
  const auto back = parse_bench_line(format_bench_line(line));
  REQUIRE(std::holds_alternative<BenchLine>(back));
  CHECK(std::get<BenchLine>(back).fields == line.fields);
}

TEST_CASE("a softer coil than drawn has more turns that bear, as far as its ends leave it open") {
  // Eight turns, seven drawn as bearing, measured at eight tenths of the rate: 8.75 would have to bear.
  const auto taken = [](CoilEnds ends) {
    Leg leg = demo("redshank").gear.main();
    leg.spring.kind = SpringKind::coil;
    leg.spring.partner = CoilPartner::none;
    Coil& c = leg.spring.coil;
    c.ends = ends;
    c.wire_diameter = Given(0.003);
    c.mean_diameter = Given(0.02);
    c.total_turns = Given(8.0);
    c.active_turns = Given(7.0);
    REQUIRE(spring::take_over(leg, spring::DropFit{0.8, 1, 0.01, 0.02, 1, 1, 1, 1}).empty());
    return leg.spring.coil;
  };
  // Plain: all eight may bear. Squared: the closed half turns at both ends never do.
  const Coil plain = taken(CoilEnds::plain), squared = taken(CoilEnds::squared);
  CHECK(plain.active_turns == Approx(8));
  CHECK(squared.active_turns == Approx(7));
  CHECK(taken(CoilEnds::squared_ground).active_turns == Approx(7));
  // Turns and wire together make what was measured: d⁴/n.
  for (const Coil& c : {plain, squared})
    CHECK(std::pow(c.wire_diameter / 0.003, 4) * 7 / c.active_turns == Approx(0.8).epsilon(1e-6));
}

TEST_CASE("a hinge's own stiffness takes over what was measured") {
  Leg leg = demo("redshank").gear.main();
  leg.spring.kind = SpringKind::leaf;
  leg.spring.leaf.torsion_rate = Given(500.0);
  REQUIRE(spring::take_over(leg, spring::DropFit{1.2, 1, 0.01, 0.02, 1, 1, 1, 1}).empty());
  CHECK(leg.spring.leaf.torsion_rate == Approx(600));
  CHECK(leg.spring.leaf.torsion_rate.origin == Origin::measured);
}
