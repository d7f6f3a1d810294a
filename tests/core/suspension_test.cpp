// SPDX-License-Identifier: GPL-3.0-or-later
//! Legs that turn about a hinge, springs between anchors, cords, tyres to the rim; and how they rest.
#include "core/force/suspension.h"

#include <catch2/catch.hpp>
#include <random>

#include "core/assess/assess.h"
#include "core/assess/loading_state.h"
#include "core/model/moves.h"
#include "core/stance/stance.h"
#include "demo.h"
#include "said.h"

using namespace kranich;
using force::LegLaw;
using force::Suspension;

namespace {

Suspension v_leg_on_cord() {
  const auto s = force::suspension_of(demo("wheatear").gear.main(), {});
  REQUIRE(std::holds_alternative<Suspension>(s));
  return std::get<Suspension>(s);
}

Suspension trailing_link(Suspension::Acts acts) {
  LegLaw law;
  law.kind = LegLaw::Kind::linear;
  law.rate = acts == Suspension::Acts::at_hinge ? 900 : 40000;
  law.preload = acts == Suspension::Acts::at_hinge ? 20 : 500;
  law.travel = 0.15;
  Suspension s = force::straight_leg({2.6, 1.0, -0.7}, law);
  s.path = Suspension::Path::hinged;
  s.acts = acts;
  s.hinge = {2.3, 1.0, -0.6};
  s.hinge_axis = {0, -1, 0};
  s.anchor_airframe = {2.5, 1.0, -0.2};
  s.anchor_leg = {2.5, 1.0, -0.66};
  s.most = 0.45;
  return s;
}

}  // namespace

TEST_CASE("derivatives of a leg's motion and force agree with differences") {
  for (const auto& s : {v_leg_on_cord(), trailing_link(Suspension::Acts::pushed),
                        trailing_link(Suspension::Acts::at_axle), trailing_link(Suspension::Acts::at_hinge)})
    for (const double q : {0.05, 0.2, 0.35}) {
      const double h = 1e-6;
      const auto at = s.at(q);
      const auto plus = s.at(q + h);
      const auto minus = s.at(q - h);
      CHECK((plus.axle - minus.axle).isApprox(2 * h * at.axle_1, 1e-6));
      CHECK((plus.axle_1 - minus.axle_1).isApprox(2 * h * at.axle_2, 1e-6));
      CHECK((plus.wheel - minus.wheel).norm() == Approx(2 * h * at.wheel_1.norm()).margin(1e-9));
      CHECK((plus.force - minus.force) / (2 * h) == Approx(at.slope).epsilon(1e-5));
      // The force is the slope of the energy.
      CHECK((s.energy(q + h) - s.energy(q - h)) / (2 * h) == Approx(at.force).epsilon(1e-6));
    }
}

TEST_CASE("the wheel rate is the slope of the vertical force over the axle's rise") {
  const auto s = trailing_link(Suspension::Acts::pushed);
  const auto vertical = [&](double q) { return s.at(q).force / s.at(q).axle_1.z(); };
  for (const double q : {0.02, 0.2, 0.4}) {
    const double h = 1e-6;
    const double rise = s.at(q + h).axle.z() - s.at(q - h).axle.z();
    CHECK(s.wheel_rate(q) == Approx((vertical(q + h) - vertical(q - h)) / rise).epsilon(1e-5));
  }
  // A straight leg's wheel rate is its spring's.
  LegLaw law;
  law.kind = LegLaw::Kind::linear;
  law.rate = 46000;
  law.travel = 0.2;
  CHECK(force::straight_leg({0, 0, 0}, law).wheel_rate(0.1) == Approx(46000));
}

TEST_CASE("a hinged leg keeps its length, rises to its travel and spreads the track") {
  const Leg leg = demo("wheatear").gear.main();
  const auto s = v_leg_on_cord();
  const double length = (s.axle - s.hinge).norm();
  CHECK((s.at(s.most).axle - s.hinge).norm() == Approx(length).epsilon(1e-12));
  CHECK(s.at(s.most).axle.z() - s.axle.z() == Approx(leg.travel.si).epsilon(1e-9));
  CHECK(s.at(0.1).axle.y() > s.axle.y());
}

TEST_CASE("camber and toe come out of the axle's direction as they went in, on both sides") {
  auto d = demo("wheatear");
  d.gear.main().camber = radians(4);
  d.gear.main().toe = radians(1.5);
  const auto wheels = std::get<std::vector<stance::WheelOnLeg>>(stance::wheels_of(d));
  for (const int side : {0, 1}) {
    const auto s = stance::wheel_setting(wheels[static_cast<size_t>(side)], 0, 0.2, side == 0 ? -1 : 1);
    CHECK(degrees(s.camber) == Approx(4));
    CHECK(degrees(s.toe) == Approx(1.5));
    CHECK(std::abs(s.contact_y) == Approx(d.gear.main().axle.y - 0.2 * std::tan(radians(4))));
  }
  // Turned outward by the hinge, the top comes in by as much.
  const auto turned = stance::wheel_setting(wheels[1], radians(3), 0.2, 1);
  CHECK(degrees(turned.camber) == Approx(1).margin(0.01));
}

TEST_CASE("hinged legs rest in balance: moments to 1e-9, mirrored twins alike") {
  std::mt19937 random(11);
  std::uniform_real_distribution<double> u(-1, 1);
  const auto base = std::get<std::vector<stance::WheelOnLeg>>(stance::wheels_of(demo("wheatear")));
  for (int i = 0; i < 60; ++i) {
    const Vec3 cg(1.5 + 0.1 * u(random), 0.06 * u(random), 0.05);
    const double mass = 380 * (1 + 0.2 * u(random));
    const auto r = stance::solve(mass, cg, base);
    REQUIRE(std::holds_alternative<stance::Rest>(r));
    const auto& rest = std::get<stance::Rest>(r);
    const double weight = mass * standard_gravity;
    CHECK(rest.residual_force < 1e-9 * weight);
    CHECK(rest.residual_moment < 1e-9 * weight);
    double carried = 0;
    for (const auto& w : rest.wheels) carried += w.load;
    CHECK(carried == Approx(weight).epsilon(1e-9));
    const auto twin = std::get<stance::Rest>(stance::solve(mass, mirrored(cg), base));
    CHECK(twin.roll == Approx(-rest.roll).margin(1e-9));
    CHECK(twin.wheels[0].load == Approx(rest.wheels[1].load).epsilon(1e-8));
    // From a rest nearby the answer is the same.
    const auto warm = std::get<stance::Rest>(stance::solve(mass, cg, base, &twin));
    CHECK(warm.pitch == Approx(rest.pitch).margin(1e-9));
  }
}

TEST_CASE("legs that differ make it lean, and say so") {
  auto d = demo("wheatear");
  unlink_leg(d, 0);
  d.gear.legs[1].axle.z.si += 0.01;  // a shorter port leg: it leans to port
  const auto a = assess(d);
  const auto* l = a.loading("pilot, full fuel");
  REQUIRE(l->rest);
  CHECK(l->rest->roll < 0);
  bool told = false;
  for (const auto& f : a.findings)
    if (f.measure_id == "stance.sides") {
      told = true;
      CHECK(f.value == Approx(0.01));
      CHECK(f.verdict == Verdict::fails);
    }
  CHECK(told);
}

TEST_CASE("a tyre stiffens past its knee, its squash is the force's inverse") {
  Wheel w;
  w.diameter = 0.4;
  w.width = 0.14;
  w.flat_radius = 0.12;
  w.pressure = 200e3;
  const auto law = std::get<force::TyreLaw>(force::tyre_law(w));
  CHECK(law.rate == Approx(200e3 * 2.3 * std::sqrt(0.14 * 0.4)));
  for (const double t : {0.01, 0.05, 0.075, 0.0785, 0.0795})
    CHECK(law.squash(law.force(t)) == Approx(t).epsilon(1e-9));
  CHECK(law.slope(0.079) > 2 * law.rate);
  w.tyre = Tyre::foam;
  w.pressure = {};
  CHECK(std::holds_alternative<Text>(force::tyre_law(w)));  // foam needs its rate
  w.tyre_rate = 20000;
  CHECK(std::get<force::TyreLaw>(force::tyre_law(w)).knee == Approx(0.6 * 0.08));
}

TEST_CASE("a curve of points is followed, and what cannot be is refused by name") {
  LegLaw cord;
  cord.kind = LegLaw::Kind::curve;
  cord.curve = {{-0.1, 0}, {0, 100}, {0.1, 150}, {0.2, 300}};
  cord.travel = 0.3;
  CHECK(cord.force(0) == Approx(100));
  CHECK(cord.force(0.15) == Approx(225));
  CHECK(cord.force(0.25) == Approx(375));  // on along the last piece
  CHECK(cord.closure(225) == Approx(0.15));
  CHECK(cord.energy(0.2) == Approx(12.5 + 22.5));
  auto leg = demo("wheatear").gear.main();
  leg.path = LegPath::straight;
  CHECK(says(std::get<Text>(force::suspension_of(leg, {})), "hinge"));
  leg = demo("wheatear").gear.main();
  leg.spring.cord.free_length = 0.7;
  CHECK(says(std::get<Text>(force::suspension_of(leg, {})), "no longer than"));
  leg = demo("wheatear").gear.main();
  leg.spring.cord.curve[2].load = 10;
  CHECK(says(std::get<Text>(force::suspension_of(leg, {})), "rises"));
}
