// SPDX-License-Identifier: GPL-3.0-or-later
//! Laws of springs, tyres, dampers and coils: each against its own inverse, its own integral and its closed
//! form.
#include <catch2/catch.hpp>
#include <numbers>

#include "core/force/coil.h"
#include "core/force/leg_law.h"
#include "core/force/suspension.h"
#include "core/spring/drop.h"
#include "core/spring/landing.h"
#include "demo.h"
#include "sample_leg.h"

using namespace kranich;
using namespace kranich::force;

namespace {

LegLaw linear() {
  LegLaw l;
  l.kind = LegLaw::Kind::linear;
  l.rate = 18000;
  l.preload = 300;
  l.travel = 0.15;
  return l;
}
LegLaw gas(double exponent) {
  LegLaw l;
  l.kind = LegLaw::Kind::gas;
  l.piston_area = 0.001;
  l.volume = 0.00022;
  l.pressure = 7e5;
  l.ambient = 101325;
  l.exponent = exponent;
  l.travel = 0.18;
  return l;
}
LegLaw curve() {
  LegLaw l;
  l.kind = LegLaw::Kind::curve;
  l.curve = {{0, 100}, {0.02, 700}, {0.05, 1000}, {0.12, 2600}};
  l.travel = 0.12;
  return l;
}
std::vector<LegLaw> laws() { return {linear(), gas(1), gas(1.1), gas(1.3), curve()}; }

}  // namespace

TEST_CASE("a law's slope is the derivative of its force, and its energy the integral") {
  for (const auto& law : laws()) {
    const double h = 1e-7;
    for (double s = 0.003; s < law.travel; s += law.travel / 23) {
      INFO(static_cast<int>(law.kind) << " at " << s);
      CHECK(law.slope(s) == Approx((law.force(s + h) - law.force(s - h)) / (2 * h)).epsilon(1e-5));
      CHECK((law.energy(s + h) - law.energy(s - h)) / (2 * h) == Approx(law.force(s)).epsilon(1e-6));
      const auto both = law.both(s);
      CHECK(both.force == Approx(law.force(s)));
      CHECK(both.slope == Approx(law.slope(s)));
    }
    CHECK(law.energy(0) == Approx(0).margin(1e-12));
  }
}

TEST_CASE("closure undoes force, holds at the preload, and ends at the travel") {
  for (const auto& law : laws()) {
    INFO(static_cast<int>(law.kind));
    for (double s = 0.001; s < law.travel; s += law.travel / 17)
      CHECK(law.closure(law.force(s)) == Approx(s).epsilon(1e-9));
    CHECK(law.closure(0.9 * law.force(0)) == 0);
    CHECK(law.closure(10 * law.force(law.travel)) == law.travel);
  }
  LegLaw rigid;
  CHECK(rigid.force(0.1) == 0);
  CHECK(rigid.closure(1000) == 0);
  CHECK(rigid.energy(0.1) == 0);
  CHECK(rigid.slope(0.1) == 0);
}

TEST_CASE("gas: the slower it is pressed the softer, and without a charge it only gives way to the air") {
  CHECK(gas(1).force(0.15) < gas(1.1).force(0.15));
  CHECK(gas(1.1).force(0.15) < gas(1.3).force(0.15));
  CHECK(gas(1).force(0) == Approx(gas(1.3).force(0)));
  auto flat = gas(1);
  flat.pressure = flat.ambient;
  CHECK(flat.force(0) == Approx(0).margin(1e-9));
  CHECK(flat.force(0.05) > 0);
  // Boyle's law by hand.
  CHECK(gas(1).force(0.1) == Approx(0.001 * (7e5 * 0.00022 / (0.00022 - 0.0001) - 101325)));
}

TEST_CASE("a curve goes straight on beyond its ends") {
  const auto c = curve();
  CHECK(c.force(0.01) == Approx(400));
  CHECK(c.force(-0.01) == Approx(-200));
  CHECK(c.force(0.19) == Approx(2600 + 0.07 * 1600 / 0.07));
  CHECK(c.energy(0.05) == Approx((100 + 700) / 2.0 * 0.02 + (700 + 1000) / 2.0 * 0.03));
}

TEST_CASE("a tyre is linear to its knee and never squashed beyond its limit") {
  TyreLaw t;
  t.rate = 120000;
  t.knee = 0.03;
  t.limit = 0.05;
  CHECK(t.force(-1) == 0);
  CHECK(t.force(0.02) == Approx(2400));
  CHECK(t.slope(0.02) == 120000);
  CHECK(t.slope(0.0301) == Approx(120000).epsilon(0.02));  // no kink
  CHECK(std::isfinite(t.force(0.051)));                    // rim or core: a stop, stiff and finite
  CHECK(t.slope(0.051) == Approx(100 * t.rate));
  double last = 0;
  for (double x = 0.001; x < 0.0499; x += 0.001) {
    CHECK(t.force(x) > last);
    last = t.force(x);
    CHECK(t.squash(t.force(x)) == Approx(x).epsilon(1e-9));
  }
  CHECK(t.squash(t.force(0.0495)) == Approx(0.0495));
  CHECK(t.squash(t.force(0.06)) == Approx(0.06));
  // Work is force over way, on either side of knee and rim.
  double work = 0;
  for (double x = 0; x < 0.0599999; x += 1e-6) work += 1e-6 * t.force(x + 0.5e-6);
  CHECK(t.energy(0.06) == Approx(work).epsilon(1e-5));
  CHECK(t.squash(0) == 0);
}

TEST_CASE("a tyre's rate follows from its pressure where it is not given") {
  Wheel w;
  w.diameter = Given(0.40);
  w.width = Given(0.15);
  const auto missing = tyre_law(w);
  REQUIRE(std::holds_alternative<Text>(missing));
  w.pressure = Given(2e5);
  const auto law = std::get<TyreLaw>(tyre_law(w));
  CHECK(law.rate == Approx(2e5 * 2.3 * std::sqrt(0.06)));
  CHECK(std::isinf(law.limit));
  w.flat_radius = Given(0.13);
  CHECK(std::get<TyreLaw>(tyre_law(w)).limit == Approx(0.07));
  CHECK(std::get<TyreLaw>(tyre_law(w)).knee == Approx(0.95 * 0.07));
  w.tyre = Tyre::foam;
  CHECK(std::holds_alternative<Text>(tyre_law(w)));  // a foam tyre has no pressure
  w.tyre_rate = Given(30000.0);
  CHECK(std::get<TyreLaw>(tyre_law(w)).knee == Approx(0.6 * 0.07));
}

TEST_CASE("coils: rate by the fourth power of the wire, the third of the coil, the turns") {
  const Wire& wire = *find_wire("music wire");
  const CoilGeometry g{0.002, 0.016, 10, 12, 0.06, CoilEnds::squared_ground};
  const auto base = coil_figures(g, wire);
  CHECK(base.rate == Approx(81e9 * std::pow(0.002, 4) / (8 * std::pow(0.016, 3) * 10)));
  auto thick = g;
  thick.wire_diameter *= 2;
  CHECK(coil_figures(thick, wire).rate == Approx(16 * base.rate));
  auto wide = g;
  wide.mean_diameter *= 2;
  CHECK(coil_figures(wide, wire).rate == Approx(base.rate / 8));
  auto many = g;
  many.active_turns *= 2;
  CHECK(coil_figures(many, wire).rate == Approx(base.rate / 2));
  // One wire with the summed area of two, same coil and turns, is twice as stiff as the two together.
  auto summed = g;
  summed.wire_diameter *= std::sqrt(2);
  CHECK(coil_figures(summed, wire).rate == Approx(2 * 2 * base.rate));
  CHECK(base.index == Approx(8));
  CHECK(base.wahl_factor == Approx(31.0 / 28 + 0.615 / 8));
  CHECK(base.solid_length == Approx(0.024));
  auto rough = g;
  rough.ends = CoilEnds::squared;
  CHECK(coil_figures(rough, wire).solid_length == Approx(0.026));
  CHECK(base.margin(0) == 1);
  CHECK(base.shear_stress(100) == Approx(base.wahl_factor * 8 * 100 * 0.016 / (std::numbers::pi * 8e-9)));
  CHECK(find_wire("string") == nullptr);
  CHECK(buckling_free_length(0.016, 0.5) == Approx(2.63 * 0.032));
}

TEST_CASE("coils in a leg: side by side, by their motion ratio, preloaded by their room") {
  Coil c = demo("redshank").gear.main().spring.coil;
  const auto one = coil_at_wheel(c);
  REQUIRE(one);
  c.count = Given(2.0);
  CHECK(coil_at_wheel(c)->rate == Approx(2 * one->rate));
  c.count = Given(1.0);
  c.motion_ratio = Given(0.5);
  CHECK(coil_at_wheel(c)->rate == Approx(one->rate / 4));
  CHECK(coil_at_wheel(c)->preload == Approx(one->preload / 2));
  c.motion_ratio = Given(1.0);
  c.installed_length = Given(c.free_length + 0.01);
  CHECK(coil_at_wheel(c)->preload < 0);  // loose
  CHECK(coil_at_wheel(c)->spring_force(0) == 0);
  for (Given Coil::*g : {&Coil::wire_diameter, &Coil::mean_diameter, &Coil::active_turns, &Coil::free_length,
                         &Coil::installed_length}) {
    Coil lacking = c;
    lacking.*g = Given();
    CHECK_FALSE(coil_at_wheel(lacking));
  }
  const auto p = preloaded(2000, 0.1, 0.09, 0.03);
  CHECK(p.preload == Approx(20));
  CHECK(p.force_at_end == Approx(80));
  CHECK(p.energy == Approx(1.5));
}

TEST_CASE("in series the softer goes solid, then the other's rate is left; inside, both count") {
  const auto before = in_series(1000, 0.02, 3000, 0.02, 0.01);
  CHECK(before.combined_rate == Approx(750));
  CHECK(before.force == Approx(7.5));
  CHECK(before.force_first_solid == Approx(20));
  CHECK(before.deflection_first_solid == Approx(20.0 / 750));
  const auto after = in_series(1000, 0.02, 3000, 0.02, 20.0 / 750 + 0.005);
  CHECK(after.force == Approx(20 + 15));
  CHECK(after.rate_after == 3000);
  CHECK(in_series(3000, 0.02, 1000, 0.02, 0.03).force ==
        Approx(in_series(1000, 0.02, 3000, 0.02, 0.03).force));
  CHECK(nested(1000, 500, 0.01, 0.005).force == Approx(5));
  CHECK(nested(1000, 500, 0.01, 0.03).force == Approx(30 + 10));
}

TEST_CASE("a damper resists both ways, a metered orifice by the stroke") {
  spring::Damper d;
  d.closing = 100;
  d.extending = 250;
  CHECK(d.force(0, 2) == Approx(200));
  CHECK(d.force(0, -2) == Approx(-500));
  d.friction = 20;
  CHECK(d.force(0, 1) == Approx(120));
  CHECK(d.force(0, 0) == 0);
  spring::Damper oil;
  oil.oil_area = 0.001;
  oil.orifice_closing = 2e-5;
  oil.orifice_extending = 1e-5;
  CHECK(oil.force(0, 1) == Approx(0.5 * 860 * 1e-9 / std::pow(0.65 * 2e-5, 2)));
  CHECK(oil.force(0, -1) == Approx(-4 * oil.force(0, 1)));
  CHECK(oil.force(0, 2) == Approx(4 * oil.force(0, 1)));
  oil.metered = {{0, 4e-5}, {0.1, 2e-5}, {0.2, 1e-5}};
  CHECK(oil.force(0, 1) < oil.force(0.1, 1));
  CHECK(oil.force(0.05, 1) == Approx(0.5 * 860 * 1e-9 / std::pow(0.65 * 3e-5, 2)));
  CHECK(oil.force(0.5, 1) == Approx(oil.force(0.2, 1)));
  CHECK(oil.force(0.05, -1) == Approx(-0.5 * 860 * 1e-9 / std::pow(0.65 * 1e-5, 2)));
}

TEST_CASE("every law lands with its energy kept") {
  for (const auto& law : laws()) {
    spring::DropModel m;
    m.sprung_mass = 90;
    m.unsprung_mass = 6;
    m.spring = law;
    m.travel = law.travel;
    m.bottom_stop = 3e5;
    m.extension_stop = 3e5;
    m.tyre.rate = 90000;
    for (const double damping : {0.0, 700.0}) {
      m.damper.closing = m.damper.extending = damping;
      m.damper.friction = damping / 10;
      spring::DropRun run;
      run.duration = 0.8;
      const auto r = spring::drop(m, 2.0, run);
      INFO(static_cast<int>(law.kind) << " damped " << damping);
      CHECK(std::abs(r.energy_error) < 1e-6);
      const auto& e = r.shares;
      CHECK(e.spring + e.damper + e.friction + e.stops + e.tyre + e.unsprung_motion ==
            Approx(1).epsilon(1e-4));
    }
  }
}

TEST_CASE("the rule's landing has its own floor and ceiling, and its reserve") {
  const auto light = spring::landing_by_rule(200, 20);
  CHECK(light.sink_speed == Approx(2.1336));
  CHECK(light.drop_height == Approx(0.23368));
  const auto heavy = spring::landing_by_rule(3000, 10);
  CHECK(heavy.sink_speed == Approx(3.048));
  CHECK(heavy.drop_height == Approx(0.47498));
  const auto middle = spring::landing_by_rule(640, 11.2);
  CHECK(middle.sink_speed == Approx(0.510 * std::pow(middle.wing_loading, 0.25)).epsilon(2e-3));
  CHECK(middle.drop_height == Approx(0.0132 * std::sqrt(middle.wing_loading)).epsilon(3e-3));
  CHECK(spring::drop_of_sink_speed(spring::sink_speed_of_drop(0.3)) == Approx(0.3));
  const auto reserve = spring::reserve(100, 0.3, 0.2);
  CHECK(reserve.drop_height == Approx(0.432));
  CHECK(reserve.sink_speed == Approx(1.2 * spring::sink_speed_of_drop(0.3)));
  CHECK(reserve.effective_mass == Approx(100 * 0.432 / 0.632));
  CHECK(spring::effective_mass(100, 0.3, 0.2, 0) == Approx(100));
}

TEST_CASE("Froude's law keeps the load factor") {
  const auto s = spring::froude(4, 2.4, 0.3, 0.2, 640, 40000);
  CHECK(s.sink_speed == Approx(1.2));
  CHECK(s.drop_height == Approx(0.075));
  CHECK(s.time == Approx(0.1));
  CHECK(s.mass == Approx(10));
  CHECK(s.rate == Approx(2500));
  // Force over weight: rate times length over mass.
  CHECK(s.rate * 0.1 / 4 / s.mass == Approx(40000 * 0.1 / 640));
}

TEST_CASE("the first estimate balances its energy, and has none where the strut takes too little") {
  const spring::StrokeInput in{300, 2.5, 2.2, 0.667, 0.8, 0.46, 0.04};
  const auto s = spring::first_estimate(in);
  REQUIRE(s);
  const double g = 9.80665;
  const double brought = 0.5 * 300 * 6.25 + 300 * g * (1 - 0.667) * (s->strut_travel + 0.04);
  const double taken = (0.8 * s->strut_travel + 0.46 * 0.04) * 2.2 * 300 * g;
  CHECK(brought == Approx(taken));
  CHECK(s->peak_load == Approx(2.2 * 300 * g));
  CHECK(s->inertia_factor == Approx(2.867));
  auto weak = in;
  weak.load_factor = 1;
  weak.lift_ratio = 0;
  CHECK_FALSE(spring::first_estimate(weak));
  const auto factor = spring::load_factor_for_travel(in, 300 * g * 2.2 / 0.04, s->strut_travel);
  REQUIRE(factor);
  CHECK(*factor == Approx(2.2).epsilon(1e-6));
}

TEST_CASE("the bench's ladder climbs without lift, a model by half the step") {
  const auto aircraft = spring::bench_ladder(oleo(), false, 3);
  const auto model = spring::bench_ladder(oleo(), true, 3);
  CHECK(aircraft.step == Approx(0.1));
  CHECK(model.step == Approx(0.05));
  REQUIRE(aircraft.ladder.first_that_bottoms);
  REQUIRE(model.ladder.first_that_bottoms);
  CHECK(*model.ladder.first_that_bottoms <= *aircraft.ladder.first_that_bottoms);
  CHECK(*aircraft.ladder.just_bottoms == Approx(*model.ladder.just_bottoms).epsilon(1e-3));
  auto free = oleo();
  free.lift_ratio = 0;
  const auto r = spring::drop(free, spring::sink_speed_of_drop(*aircraft.ladder.just_bottoms));
  CHECK(r.stroke_used == Approx(free.travel).epsilon(1e-3));
}

TEST_CASE("the ladder names the first height at which a leg that bends takes a set") {
  auto m = oleo();
  m.lift_ratio = 0;
  const auto ladder = spring::drop_ladder(m, 0.02, 0.02, 1, 0, 0.5 * m.travel);
  REQUIRE(ladder.first_that_yields);
  for (size_t i = 0; i < ladder.height.size(); ++i)
    CHECK((ladder.result[i].stroke_used > 0.5 * m.travel) == (ladder.height[i] >= *ladder.first_that_yields));
  CHECK_FALSE(spring::drop_ladder(m, 0.02, 0.02, 1).first_that_yields);
}
