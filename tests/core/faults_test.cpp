// SPDX-License-Identifier: GPL-3.0-or-later
//! Landings, springs and joints where they used to say the wrong thing: at the rim, at the stop, loose, on a
//! hinge, at the pose a load occurs in, under a moment of either sign; tables with decimal commas.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/assess/assess.h"
#include "core/assess/landing_state.h"
#include "core/assess/strength_state.h"
#include "core/force/coil.h"
#include "core/force/suspension.h"
#include "core/io/csv.h"
#include "core/io/rig_csv.h"
#include "core/leg/joints.h"
#include "core/motion/suspend.h"
#include "core/spring/identify.h"
#include "core/spring/landing.h"
#include "core/spring/scatter.h"
#include "demo.h"
#include "findings.h"
#include "said.h"
#include "sample_leg.h"

using namespace kranich;

TEST_CASE("a tyre that reaches its rim strikes a stiff, finite stop, and the energy is all there") {
  spring::DropModel m;  // a rigid leg: the tyre is all there is
  m.sprung_mass = 50;
  m.tyre.rate = 60000;
  m.tyre.limit = 0.06;
  m.tyre.knee = 0.057;
  for (const double height : {0.02, 0.2, 0.6}) {
    const auto r = spring::drop(m, spring::sink_speed_of_drop(height));
    INFO(height);
    REQUIRE(r.ended);
    CHECK(std::isfinite(r.load_factor));
    CHECK(std::abs(r.energy_error) < 1e-5);
    // All the fall's energy stands in the tyre when it stops.
    CHECK(m.tyre.energy(r.tyre_deflection) ==
          Approx(50 * standard_gravity * (height + r.tyre_deflection)).epsilon(1e-4));
    CHECK(r.peak_ground == Approx(m.tyre.force(r.tyre_deflection)));
    CHECK(r.rim == (r.tyre_deflection >= m.tyre.rim()));
  }
  CHECK(spring::drop(m, spring::sink_speed_of_drop(0.6)).rim);
  CHECK_FALSE(spring::drop(m, spring::sink_speed_of_drop(0.02)).rim);
  // It is told, and fails.
  auto d = demo("dunnock");
  for (auto& leg : d.gear.legs) leg.wheel.flat_radius = Given(leg.wheel.diameter / 2 - 0.02);
  const auto a = assess(d);
  const Finding* rim = find(a, "spring.rim", "main leg");
  REQUIRE(rim);
  CHECK(rim->verdict == Verdict::fails);
  CHECK(says(rim->remark, "strikes"));
}

TEST_CASE("a landing that ends without a number gives none") {
  auto m = oleo();
  m.tyre.rate = std::nan("");
  const auto r = spring::drop(m, 2);
  CHECK_FALSE(r.ended);
  CHECK(std::isnan(r.load_factor));
  CHECK(std::isnan(r.stroke_used));
  CHECK_FALSE(r.bottoms);
  Scatter s;
  s.drops = Given(20.0);
  const auto many = spring::scattered_drops(m, 2, s, 3);
  REQUIRE(many);
  CHECK(many->over_factor == 1);
}

TEST_CASE("the stroke told is the greatest, though the sprung mass stops before it") {
  auto m = oleo();
  m.unsprung_mass = 60;  // a heavy wheel goes on after the leg has stopped sinking
  spring::DropRun whole;
  spring::DropRun stopped;
  stopped.until_stopped = true;
  for (const double speed : {1.0, 2.0, 3.0}) {
    const auto a = spring::drop(m, speed, whole);
    const auto b = spring::drop(m, speed, stopped);
    CHECK(b.stroke_used == Approx(a.stroke_used).epsilon(1e-6));
    CHECK(b.peak_ground == Approx(a.peak_ground).epsilon(1e-6));
  }
}

TEST_CASE("stops have a stiffness of their own, never the spring's end slope") {
  auto d = demo("dunnock");
  const auto a = assess(d);
  const auto* usual = &a.landings[0];
  REQUIRE(usual->model);
  const double weight = usual->model->mass() * standard_gravity;
  CHECK(usual->model->bottom_stop == Approx(10 * weight / (0.02 * d.gear.main().travel)));
  d.gear.main().stop_rate = Given(2e5);
  CHECK(assess(d).landings[0].model->bottom_stop == 2e5);
  // A weaker spring goes further into the stop, and where there is next to none it strikes hardest.
  double last = 0;
  double first_factor = 0;
  for (const double charge : {1.0, 0.7, 0.4, 0.1}) {
    auto weaker = demo("dunnock");
    weaker.gear.main().spring.gas.pressure = Given(charge * weaker.gear.main().spring.gas.pressure);
    const auto b = assess(weaker);
    REQUIRE(b.landings[0].reserve);
    CHECK(b.landings[0].reserve->stroke_used > last);
    last = b.landings[0].reserve->stroke_used;
    if (charge == 1.0) first_factor = b.landings[0].reserve->load_factor;
    if (charge == 0.1) CHECK(b.landings[0].reserve->load_factor > first_factor);
  }
}

TEST_CASE("a coil shorter than its room is loose until it is met") {
  auto leg = demo("redshank").gear.main();
  const auto tight = std::get<force::LegLaw>(force::leg_law(leg));
  leg.spring.coil.installed_length = Given(leg.spring.coil.free_length + 0.01);
  const auto loose = std::get<force::LegLaw>(force::leg_law(leg));
  CHECK(loose.force(0) == 0);
  CHECK(loose.force(0.009) == Approx(0).margin(1e-9));
  CHECK(loose.force(0.02) == Approx(tight.rate * 0.01));
  CHECK(loose.energy(0.03) == Approx(0.5 * tight.rate * 0.02 * 0.02));
  CHECK(loose.closure(tight.rate * 0.01) == Approx(0.02));
  auto d = demo("redshank");
  d.gear.main() = leg;
  const auto a = assess(d);
  const Finding* solid = find(a, "spring.coil_solid", "main leg");
  REQUIRE(solid);
  CHECK(says(solid->remark, "loose"));
}

TEST_CASE("both coils of a pair are judged") {
  auto d = demo("redshank");
  auto& s = d.gear.main().spring;
  s.partner = CoilPartner::inside;
  s.second = s.coil;
  s.second.wire_diameter = Given(0.0012);
  s.second.mean_diameter = Given(0.007);
  s.second.free_length = Given(0.08);
  s.second_starts_after = Given(0.02);
  const auto a = assess(d);
  const Finding* inner = find(a, "spring.coil_margin", "main leg, inner coil");
  REQUIRE(inner);
  Coil alone = s.second;
  alone.motion_ratio = Given(1.0);
  alone.installed_length = alone.free_length;
  const auto coil = force::coil_at_wheel(alone);
  const double pressed = d.gear.main().travel - 0.02;
  CHECK(inner->value == Approx(coil->figures.margin(coil->figures.rate * pressed)));
  REQUIRE(find(a, "spring.coil_solid", "main leg, inner coil"));
}

TEST_CASE("on a hinge the spring closes by what its anchors say, not by the axle's rise") {
  auto d = demo("wheatear");
  auto& leg = d.gear.main();
  REQUIRE(leg.path != LegPath::straight);
  leg.spring.kind = SpringKind::coil;
  // Anchors half way out: the spring closes by about half.
  const Vec3 hinge = leg.hinge.vec();
  const Vec3 half = hinge + 0.5 * (leg.axle.vec() - hinge);
  leg.spring.anchor_leg = {{}, Given(half.x()), Given(half.y()), Given(half.z())};
  leg.spring.anchor_airframe = {{}, Given(half.x()), Given(half.y()), Given(half.z() + 0.4)};
  leg.spring.coil.wire_diameter = Given(0.008);
  leg.spring.coil.mean_diameter = Given(0.06);
  leg.spring.coil.active_turns = Given(9.0);
  leg.spring.coil.total_turns = Given(11.0);
  leg.spring.coil.free_length = Given(0.42);
  leg.spring.coil.installed_length = Given(0.40);
  leg.spring.coil.motion_ratio = Given(0.5);  // what the anchors say is not said twice
  const auto path = force::suspension_of(leg, d.materials);
  REQUIRE(std::holds_alternative<force::Suspension>(path));
  const auto& s = std::get<force::Suspension>(path);
  const double closes = s.closure(s.most).s;
  CHECK(closes < 0.7 * leg.travel);
  Coil alone = leg.spring.coil;
  alone.motion_ratio = Given(1.0);
  const auto coil = *force::coil_at_wheel(alone);
  CHECK(s.law.rate == Approx(coil.figures.rate));
  const auto a = assess(d);
  const Finding* margin = find(a, "spring.coil_margin", "main leg");
  REQUIRE(margin);
  CHECK(margin->value == Approx(coil.figures.margin(coil.spring_preload + coil.figures.rate * closes)));
  // Gas likewise.
  leg.spring.kind = SpringKind::gas;
  leg.spring.gas.piston_area = Given(0.002);
  leg.spring.gas.volume = Given(1.2 * 0.002 * closes);
  leg.spring.gas.pressure = Given(1e6);
  const auto b = assess(d);
  const Finding* used = find(b, "spring.gas_used", "main leg");
  REQUIRE(used);
  CHECK(used->value == Approx(1 / 1.2));
}

TEST_CASE(
    "the first estimate squashes a tyre as the tyre goes, and a rigid leg's factor is no end of a search") {
  spring::StrokeInput in{300, 2, 3, 0, 0.5, 0.46, 0};
  force::TyreLaw tyre;
  tyre.rate = 100000;
  tyre.limit = 0.06;
  tyre.knee = 0.057;
  const auto squash = [&](double load) { return tyre.squash(load); };
  const auto rigid = spring::load_factor_for_travel(in, squash, 0);
  REQUIRE(rigid);
  CHECK(*rigid < 59);
  in.load_factor = *rigid;
  in.tyre_deflection = tyre.squash(*rigid * in.mass * standard_gravity);
  CHECK(spring::first_estimate(in)->balance == Approx(0).margin(1e-9));
  CHECK(in.tyre_deflection < 0.07);
}

TEST_CASE("a leg is checked in the pose its load occurs in") {
  const auto d = demo("wheatear");
  const auto& leg = d.gear.main();
  const auto closed = motion::suspended(leg, 0.08);
  CHECK(closed.axle.z - leg.axle.z == Approx(0.08));
  CHECK((closed.axle.vec() - leg.hinge.vec()).norm() == Approx((leg.axle.vec() - leg.hinge.vec()).norm()));
  const auto path = std::get<force::Suspension>(force::suspension_of(leg, d.materials));
  // The same circle as the suspension's own.
  for (const double share : {0.2, 0.6, 1.0}) {
    const auto at = path.at(share * path.most);
    const auto posed = motion::suspended(leg, at.axle.z() - leg.axle.z);
    CHECK((posed.axle.vec() - at.axle).norm() < 1e-9);
  }
  const auto a = assess(d);
  bool posed = false;
  for (const auto& s : a.strengths)
    if (s.leg == "main")
      for (const auto& c : s.cases.cases) posed = posed || c.rise > 0.01;
  CHECK(posed);
  // A telescopic leg is shorter then, and so is its arm.
  const auto straight = demo("redshank").gear.main();
  CHECK(motion::suspended(straight, 0.02).axle.z - straight.axle.z == Approx(0.02));
}

TEST_CASE("which edge a moment lifts goes by its sign") {
  Joint j;
  j.name = "bolts";
  j.kind = JointKind::fasteners;
  j.face = JointFace::under;
  j.at = {{}, Given(0.0), Given(0.0), Given(0.0)};
  j.material = "bolt, property class 8.8";
  j.into = "birch plywood";
  j.inner_thickness = Given(0.006);
  j.length = Given(0.12);
  j.width = Given(0.06);
  // Two bolts, both ahead of the middle.
  for (const double v : {-0.02, 0.02}) j.fasteners.push_back({{}, Given(-0.04), Given(v), Given(0.005)});
  const auto pull = [&](const Vec3& moment) {
    std::vector<leg::FastenerLoad> loads;
    leg::check_joint(j, {}, {leg::JointLoad{"case", Vec3::Zero(), moment}}, 1.5, loads);
    return loads;
  };
  // About +y the aft edge goes down and lifts off; bolts ahead of the middle lie near the pressed edge.
  const double near_edge = pull(Vec3(0, 40, 0))[0].tension;
  const double far_edge = pull(Vec3(0, -40, 0))[0].tension;
  CHECK(near_edge == Approx(40 * 0.02 / (2 * 0.02 * 0.02)));
  CHECK(far_edge == Approx(40 * 0.10 / (2 * 0.10 * 0.10)));
  // About +x the port edge (−v) goes down.
  const auto aside = pull(Vec3(40, 0, 0));
  CHECK(aside[0].tension > aside[1].tension);
  const auto other = pull(Vec3(-40, 0, 0));
  CHECK(other[0].tension == Approx(aside[1].tension));
  CHECK(other[1].tension == Approx(aside[0].tension));
}

TEST_CASE("a glued block peels sideways too") {
  Joint j;
  j.name = "block";
  j.kind = JointKind::block;
  j.face = JointFace::under;
  j.at = {{}, Given(0.0), Given(0.0), Given(0.0)};
  j.material = "epoxy, slow";
  j.length = Given(0.1);
  j.width = Given(0.03);
  std::vector<leg::FastenerLoad> ignored;
  const auto stress = [&](const Vec3& moment) {
    return leg::check_joint(j, {}, {leg::JointLoad{"case", Vec3::Zero(), moment}}, 1.5, ignored).stress;
  };
  CHECK(stress(Vec3(12, 0, 0)) == Approx(6 * 12 / (0.1 * 0.03 * 0.03)));
  CHECK(stress(Vec3(0, 12, 0)) == Approx(6 * 12 / (0.03 * 0.1 * 0.1)));
  CHECK(stress(Vec3(-12, 12, 0)) == Approx(6 * 12 / (0.1 * 0.03 * 0.03) + 6 * 12 / (0.03 * 0.1 * 0.1)));
}

TEST_CASE("a nose leg bears what the braking mains put on it") {
  const auto a = assess(demo("dunnock"));
  for (const auto& s : a.strengths) {
    bool braked = false;
    for (const auto& c : s.cases.cases) braked = braked || c.name == "nose wheel, mains braked";
    CHECK(braked == (s.leg == "third"));
  }
}

TEST_CASE(
    "tables with decimal commas are read where their cells are parted otherwise, and refused where not") {
  const std::string heading = "name;group;mass_kg;x_m;y_m;z_m\n";
  const auto good = ledger_from_csv(heading + "battery;load;1,25;0,6;0;-0,03\nframe;airframe;2.5;1;0;0\n");
  for (const auto& f : good.faults) UNSCOPED_INFO(f.where << " " << f.what);
  REQUIRE(good.faults.empty());
  REQUIRE(good.items.size() == 2);
  CHECK(good.items[0].mass == Approx(1.25));
  CHECK(good.items[0].at.z == Approx(-0.03));
  const auto tabs = ledger_from_csv("name\tgroup\tmass_kg\tx_m\ty_m\tz_m\nbattery\tload\t1,25\t0,6\t0\t0\n");
  REQUIRE(tabs.faults.empty());
  CHECK(tabs.items[0].at.x == Approx(0.6));
  // With commas between the cells a decimal comma makes a cell too many.
  const auto shifted = ledger_from_csv("name,group,mass_kg,x_m,y_m,z_m\nbattery,load,102,5,1,0,0\n");
  REQUIRE_FALSE(shifted.faults.empty());
  CHECK(shifted.faults[0].where == "line 2");
  CHECK(shifted.faults[0].what.find("semicolons") != std::string::npos);
  const auto doubled = ledger_from_csv("name,group,mass_kg,x_m,x_m,y_m,z_m\n");
  REQUIRE_FALSE(doubled.faults.empty());
  CHECK(doubled.faults[0].what.find("twice") != std::string::npos);
  const auto latin = ledger_from_csv("name,group,mass_kg,x_m,y_m,z_m\nh\xF6he,load,1,1,0,0\n");
  REQUIRE_FALSE(latin.faults.empty());
  CHECK(latin.faults[0].what.find("UTF-8") != std::string::npos);
  CHECK(latin.faults[0].where == "line 2");
  std::string many = "name,group,mass_kg,x_m,y_m,z_m\n";
  for (int i = 0; i < 40000; ++i) many += "part " + std::to_string(i) + ",airframe,1,1,0,0\n";
  const auto refused = ledger_from_csv(many);
  REQUIRE(refused.faults.size() == 1);
  CHECK(refused.faults[0].what.find("2000") != std::string::npos);
}

TEST_CASE("a recording whose clock is not in seconds is named, not simulated for minutes") {
  std::vector<spring::RigSample> samples;
  for (int i = 0; i < 100; ++i) samples.push_back({10.0 * i, 0, 0});
  const auto fit = spring::fit_drop(oleo(), 0.3, samples);
  REQUIRE(std::holds_alternative<Text>(fit));
  CHECK(says(std::get<Text>(fit), "seconds"));
  const auto table = read_rig_csv("t_s,acceleration_m_per_s2,stroke_m\n0,0,0\n900,0,0\n");
  CHECK_FALSE(table.faults.empty());
}
