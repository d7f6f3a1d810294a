// SPDX-License-Identifier: GPL-3.0-or-later
//! The disc's way over bumps and steps, and legs rolling over them.
#include "core/spring/bump.h"

#include <catch2/catch.hpp>
#include <numbers>

#include "core/assess/assess.h"
#include "core/assess/landing_state.h"
#include "core/base/quantity.h"
#include "core/spring/road.h"
#include "demo.h"
#include "said.h"

using namespace kranich;
using spring::BumpModel;
using spring::DilatedRoad;
using spring::Obstacle;

namespace {

BumpModel telescopic() {
  BumpModel m;
  m.leg = force::straight_leg(Vec3(2, 1, -0.7), {});
  m.leg.law.kind = force::LegLaw::Kind::linear;
  m.leg.law.rate = 22000;
  m.leg.law.preload = 400;
  m.leg.law.travel = m.leg.most = 0.2;
  m.drop.spring = m.leg.law;
  m.drop.travel = 0.2;
  m.drop.sprung_mass = 160;
  m.drop.unsprung_mass = 8;
  m.drop.damper.closing = 900;
  m.drop.damper.extending = 1600;
  m.drop.tyre.rate = 130000;
  m.drop.bottom_stop = 4e5;
  m.drop.extension_stop = 4e5;
  m.radius = 0.2;
  m.obstacle = {0.04, 0.4};
  m.speed = 6;
  m.bush_friction = 0;
  return m;
}

double road(const Obstacle& o, double x) {
  return std::abs(x) < o.length / 2 ? o.height * std::cos(std::numbers::pi * x / o.length) : 0;
}

}  // namespace

TEST_CASE("the road is half a wave, or a step up") {
  for (const double x : {-0.3, -0.1, 0.0, 0.15, 0.3})
    CHECK(spring::road_height({0.05, 0.4}, x) == Approx(road({0.05, 0.4}, x)));
  CHECK(spring::road_height({0.03, 0}, -0.001) == 0);
  CHECK(spring::road_height({0.03, 0}, 0.001) == 0.03);
}

TEST_CASE("a rigid disc never sinks into the road, and always touches it") {
  for (const Obstacle o : {Obstacle{0.05, 0.4}, Obstacle{0.02, 0.05}, Obstacle{0.1, 2.0}}) {
    const double radius = 0.2;
    const DilatedRoad way(o, radius);
    for (double x = -way.reach(); x <= way.reach(); x += 0.013) {
      const auto at = way.at(x);
      double least = 1e9;
      for (double c = x - radius; c <= x + radius; c += radius / 400)
        least = std::min(least, std::hypot(c - x, at.height - road(o, c)));
      INFO(o.height << " " << o.length << " at " << x);
      CHECK(least == Approx(radius).epsilon(4e-3));
      CHECK(std::abs(at.contact) < radius);
    }
    CHECK(way.at(-way.reach() - 1).height == radius);
    CHECK(way.at(way.reach() + 1).height == radius);
  }
}

TEST_CASE("the bump is the same from both sides; a step is climbed over its edge") {
  const DilatedRoad way({0.05, 0.3}, 0.2);
  for (const double x : {0.03, 0.1, 0.2, 0.3}) {
    CHECK(way.at(x).height == Approx(way.at(-x).height).epsilon(1e-6));
    CHECK(way.at(x).contact == Approx(-way.at(-x).contact).margin(2e-3));
  }
  CHECK(way.at(0).height == Approx(0.25).epsilon(1e-3));
  const DilatedRoad step({0.03, 0}, 0.2);
  for (const double x : {-0.09, -0.05, -0.01}) {
    CHECK(step.at(x).height == Approx(0.03 + std::sqrt(0.04 - x * x)).epsilon(1e-3));
    CHECK(step.at(x).contact == Approx(-x).epsilon(0.02));
  }
  CHECK(step.at(0.1).height == Approx(0.23));
  CHECK(step.at(-0.19).height == Approx(0.2));  // the edge is not reached yet
}

TEST_CASE("over next to nothing the leg keeps its static load and its place") {
  auto m = telescopic();
  m.obstacle.height = 1e-6;
  const auto r = spring::roll_over(m);
  CHECK(r.load_factor == Approx(1).epsilon(1e-3));
  CHECK(r.stroke_used == Approx(r.stroke_at_rest).epsilon(1e-3));
  CHECK(r.stroke_at_rest == Approx((160 * standard_gravity - 400) / 22000).epsilon(1e-6));
  CHECK(r.peak_aft < 1);
  CHECK_FALSE(r.bottoms);
}

TEST_CASE("slowly over a long hump it is a matter of geometry") {
  auto m = telescopic();
  m.obstacle = {0.05, 3.0};
  m.speed = 0.4;
  const auto r = spring::roll_over(m, 200);
  CHECK(r.load_factor == Approx(1).epsilon(0.02));
  // As many points as were asked for, evenly.
  CHECK(r.trace.size() >= 195);
  CHECK(r.trace.size() <= 202);
  double top = 0;
  for (const auto& p : r.trace) top = std::max(top, p.sprung);
  CHECK(top == Approx(0.05).epsilon(0.02));
  // The load leans with the road: aft over up is its slope.
  const double slope = 0.05 * std::numbers::pi / 3.0;
  CHECK(r.peak_aft / (168 * standard_gravity) == Approx(slope).epsilon(0.06));
}

TEST_CASE("faster and higher is harder, until the wheel leaves the ground") {
  auto m = telescopic();
  double last = 1;
  for (const double h : {0.01, 0.02, 0.04, 0.08}) {
    m.obstacle.height = h;
    const auto r = spring::roll_over(m);
    CHECK(r.load_factor > last);
    last = r.load_factor;
  }
  CHECK(spring::roll_over(m).least_load == 0);
  m.obstacle = {0.03, 0};  // a step is harder than a bump of its height
  const double step = spring::roll_over(m).load_factor;
  m.obstacle.length = 0.4;
  CHECK(step > spring::roll_over(m).load_factor);
  m.obstacle = {0.15, 0.5};
  m.drop.travel = m.leg.most = 0.09;
  CHECK(spring::roll_over(m).bottoms);
}

TEST_CASE("halving the step of the integration changes little") {
  // The trace is made of the same steps whatever is asked of it.
  const auto m = telescopic();
  const auto coarse = spring::roll_over(m);
  const auto traced = spring::roll_over(m, 400);
  CHECK(coarse.load_factor == traced.load_factor);
  CHECK(coarse.stroke_used == traced.stroke_used);
  auto faster = m;  // a stiffer extension stop shortens the steps and is met by nothing
  faster.drop.extension_stop *= 4;
  faster.drop.bottom_stop *= 4;
  faster.obstacle.height = 0.02;
  auto same = m;
  same.obstacle.height = 0.02;
  CHECK(spring::roll_over(faster).load_factor == Approx(spring::roll_over(same).load_factor).epsilon(5e-3));
}

TEST_CASE("drag sticks a telescopic leg and works in a trailing link") {
  auto m = telescopic();
  m.obstacle = {0.06, 0.25};
  const auto smooth = spring::roll_over(m);
  m.bush_friction = 1.5;
  const auto sticking = spring::roll_over(m);
  CHECK(sticking.sprung_peak > smooth.sprung_peak);
  const auto link = spring::counterpart(m);
  CHECK(link.leg.path == force::Suspension::Path::hinged);
  // The same vertical force over the same rise, and the same place at rest.
  for (const double rise : {0.0, 0.05, 0.15}) {
    const auto at = link.leg.at(rise > 0 ? link.leg.most * rise / 0.2 : 0);
    const double up = at.axle.z() - link.leg.axle.z();
    CHECK(at.force / at.axle_1.z() == Approx(m.leg.law.force(up)).epsilon(1e-9));
  }
  CHECK(link.leg.at(link.leg.most).axle.z() - link.leg.axle.z() == Approx(0.2).epsilon(1e-6));
  const auto over = spring::roll_over(link);
  CHECK(over.stroke_at_rest == Approx(sticking.stroke_at_rest).epsilon(1e-3));
  CHECK(over.peak_vertical < sticking.peak_vertical);
  CHECK(spring::counterpart(link).leg.path == force::Suspension::Path::straight);
}

TEST_CASE("a rigid axle has only its tyre") {
  auto m = telescopic();
  m.leg.law = {};
  m.leg.most = 0;
  m.drop.spring = {};
  m.drop.sprung_mass = 168;
  m.drop.unsprung_mass = 0;
  m.drop.travel = 0;
  const auto r = spring::roll_over(m, 100);
  CHECK(r.load_factor > spring::roll_over(telescopic()).load_factor);
  CHECK(r.stroke_used == 0);
  CHECK_FALSE(r.bottoms);
  for (const auto& p : r.trace) CHECK(std::isfinite(p.vertical));
}

TEST_CASE("every demo's legs roll over their field's bump, and unknown bumps are not taken as flat") {
  for (const std::string name : {"dunnock", "redshank", "wheatear"}) {
    auto d = demo(name);
    const auto a = assess(d);
    int rolled = 0;
    for (const auto& l : a.landings)
      if (l.bump) {
        ++rolled;
        CHECK(l.bump->load_factor > 1);
        CHECK(l.bump->stroke_used >= l.bump->stroke_at_rest - 1e-6);
      }
    CHECK(rolled == 2);
    d.bump.height = Given();
    for (const auto& f : assess(d).findings) CHECK(f.measure_id.rfind("spring.bump", 0) != 0);
    d.bump.height = Given(0.9 * d.gear.main().wheel.diameter);
    bool refused = false;
    for (const auto& f : assess(d).findings)
      refused = refused || (f.measure_id == "spring.bump_factor" && f.verdict == Verdict::unknown &&
                            says(f.remark, "nine tenths"));
    CHECK(refused);
  }
}
