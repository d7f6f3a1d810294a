// SPDX-License-Identifier: GPL-3.0-or-later
//! Legs that bend, pucks, struts and pairs of coils as kinds of spring of a design: against closed forms and
//! against the laws they are made of.
#include <catch2/catch.hpp>
#include <numbers>

#include "core/assess/assess.h"
#include "core/assess/landing_state.h"
#include "core/assess/loading_state.h"
#include "core/assess/settle.h"
#include "core/assess/standing.h"
#include "core/force/bent_leg.h"
#include "core/force/coil.h"
#include "core/force/materials.h"
#include "core/force/suspension.h"
#include "core/model/moves.h"
#include "demo.h"
#include "said.h"

using namespace kranich;
using namespace kranich::force;

namespace {

BentPoint at(double x, double y, double z, double width = 0.06, double thickness = 0.008) {
  return {{}, {{}, Given(x), Given(y), Given(z)}, Given(width), Given(thickness)};
}

//! A uniform leaf from its clamp at (1, 0.1, 0) out and down to the wheel at (1, 0.7, −0.4).
Leg leaf() {
  Leg l;
  l.axle = {{}, Given(1.0), Given(0.7), Given(-0.4)};
  l.wheel.diameter = Given(0.35);
  l.travel = Given(0.10);
  l.spring.kind = SpringKind::bending;
  l.spring.bent.form = BentForm::leaf;
  l.spring.bent.material = "aluminium 7075-T6";
  l.spring.bent.line = {at(1, 0.1, 0), at(1, 0.7, -0.4)};
  return l;
}

double closed_vertical(const Leg& l) {
  const double length = std::hypot(0.6, 0.4);
  const double cant = std::atan2(0.6, 0.4);
  const double inertia = 0.06 * std::pow(0.008, 3) / 12;
  const double e = stiffness_of(*find_material({}, l.spring.bent.material)).youngs_modulus;
  const double s = std::sin(cant);
  const double c = std::cos(cant);
  return 1 / (s * s * std::pow(length, 3) / (3 * e * inertia) + c * c * length / (e * 0.06 * 0.008));
}

Suspension path_of(const Leg& l) {
  const auto path = suspension_of(l, {});
  if (const auto* missing = std::get_if<Text>(&path)) FAIL(in_words(*missing));
  return std::get<Suspension>(path);
}

Text missing_of(const Leg& l) {
  const auto path = suspension_of(l, {});
  const auto* missing = std::get_if<Text>(&path);
  return missing ? *missing : Text();
}

}  // namespace

TEST_CASE("a uniform splayed leaf as a leg: rate, spread and camber as in the closed form") {
  const Leg l = leaf();
  const auto s = path_of(l);
  CHECK(s.path == Suspension::Path::bending);
  CHECK(s.law.rate == Approx(closed_vertical(l)).epsilon(1e-6));
  const double length = std::hypot(0.6, 0.4);
  const double cant = std::atan2(0.6, 0.4);
  const double inertia = 0.06 * std::pow(0.008, 3) / 12;
  const double e = 72e9;
  const double out = std::sin(cant) * std::cos(cant) *
                     (std::pow(length, 3) / (3 * e * inertia) - length / (e * 0.06 * 0.008));
  CHECK(s.moved_per_rise.y() == Approx(out * s.law.rate).epsilon(1e-6));
  CHECK(s.moved_per_rise.z() == Approx(1));
  // Camber falls by sin c·L²/(2EI) a newton: the wheel's top leans in as it spreads.
  CHECK(s.turned_per_rise.x() ==
        Approx(std::sin(cant) * length * length / (2 * e * inertia) * s.law.rate).epsilon(1e-6));
}

TEST_CASE("a bending leg's motion has the derivatives it says, and its mirror image") {
  const auto s = path_of(leaf());
  const double h = 1e-6;
  for (const double q : {0.0, 0.03, 0.09}) {
    const auto a = s.at(q);
    const auto up = s.at(q + h);
    const auto down = s.at(q - h);
    CHECK((up.axle - down.axle).isApprox(2 * h * a.axle_1, 1e-7));
    CHECK(((up.wheel - down.wheel) / (2 * h) - a.wheel_1).norm() < 1e-6);
    CHECK(((up.wheel - 2 * a.wheel + down.wheel) / (h * h) - a.wheel_2).norm() < 1e-2);
    CHECK(a.wheel.norm() == Approx(1));
    CHECK(a.force == Approx(s.law.rate * q));
    const auto m = mirrored(s).at(q);
    CHECK(m.axle.isApprox(kranich::mirrored(a.axle)));
    CHECK(m.wheel.y() == Approx(a.wheel.y()));
    CHECK(m.wheel.z() == Approx(-a.wheel.z()));
  }
  CHECK(s.wheel_rate(0.05) == Approx(s.law.rate));
}

TEST_CASE("a strut across the legs stiffens them up to where the wheels cannot spread") {
  Leg l = leaf();
  const double free = path_of(l).law.rate;
  const auto chain = std::get<BendingLeg>(bending_leg_of(l, {}));
  const auto bent = bend(chain, Vec3::UnitZ());
  REQUIRE(bent);
  const Mat3& c = bent->flexibility;
  const double held = 1 / (c(2, 2) - c(1, 2) * c(1, 2) / c(1, 1));
  double last = free;
  for (const double rate : {1e3, 1e4, 1e5, 1e12}) {
    l.spring.bent.cross_wire_rate = Given(rate);
    const double stiff = path_of(l).law.rate;
    CHECK(stiff > last);
    CHECK(stiff < held * (1 + 1e-6));
    last = stiff;
  }
  CHECK(last == Approx(held).epsilon(1e-4));
  CHECK(path_of(l).moved_per_rise.y() == Approx(0).margin(1e-4));
}

TEST_CASE("a bow is as thick as its plies, and folded cloth keeps width times thickness") {
  Leg l = leaf();
  BentLeg& b = l.spring.bent;
  b.form = BentForm::bow;
  b.material = "carbon, unidirectional";
  b.plies = Given(20.0);
  b.ply_areal_weight = Given(0.3);
  b.fibre_fraction = Given(0.5);
  b.line[0].thickness = b.line[1].thickness = Given();
  b.line[1].width = Given(0.03);
  const auto chain = std::get<BendingLeg>(bending_leg_of(l, {}));
  const double ply = 0.3 / (1800 * 0.5);
  CHECK(chain.thickness.front() == Approx(20 * ply));
  CHECK(chain.thickness.back() == Approx(40 * ply));
  double last = 0;
  for (const double plies : {10.0, 20.0, 40.0}) {
    b.plies = Given(plies);
    const double rate = path_of(l).law.rate;
    if (last > 0) CHECK(rate == Approx(8 * last).epsilon(0.02));  // the cube of the thickness
    last = rate;
  }
  b.plies = Given();
  CHECK(says(missing_of(l), "plies"));
}

TEST_CASE("a wire leg is softer by its loops, and says what it lacks") {
  Leg l = leaf();
  BentLeg& b = l.spring.bent;
  b.form = BentForm::wire;
  b.material = "music wire";
  CHECK(says(missing_of(l), "the wire's diameter"));
  b.wire_diameter = Given(0.006);
  const double plain = path_of(l).law.rate;
  b.loops = {{{}, Given(0.1), Given(0.04), Given(2.0), LoopAxis::fore_and_aft}};
  const double looped = path_of(l).law.rate;
  CHECK(looped < plain);
  // The loop is a hinge in series: its share by hand.
  const double hinge = 207e9 * std::pow(0.006, 4) / (64 * 0.04 * 2);
  const Vec3 centre = Vec3(1, 0.1, 0) + 0.1 * Vec3(0, 0.6, -0.4).normalized();
  const double arm = 0.7 - centre.y();
  CHECK(1 / looped == Approx(1 / plain + arm * arm / hinge).epsilon(1e-6));
  b.loops[0].mean_diameter = Given(0.005);
  CHECK(missing_of(l) == "loops wider than the wire is thick");
  b.loops[0].mean_diameter = Given();
  CHECK(missing_of(l) == "place, diameter and turns of every loop");
}

TEST_CASE("a bending leg names a missing line, width, thickness, material") {
  Leg l = leaf();
  l.spring.bent.line.pop_back();
  CHECK(says(missing_of(l), "two points"));
  l = leaf();
  l.spring.bent.material = "";
  CHECK(missing_of(l) == "the leg's material");
  l.spring.bent.material = "plasticine";
  CHECK(says(missing_of(l), "plasticine"));
  l.spring.bent.material = "epoxy, slow";
  CHECK(says(missing_of(l), "Young"));
  l = leaf();
  l.spring.bent.line[1].thickness = Given();
  CHECK(says(missing_of(l), "thickness"));
  l.spring.bent.line[0].width = Given();
  CHECK(says(missing_of(l), "width"));
  l = leaf();
  l.spring.bent.line[1].at = l.spring.bent.line[0].at;
  CHECK(says(missing_of(l), "apart"));
}

TEST_CASE("where the line ends beside the wheel a stub axle carries on") {
  Leg l = leaf();
  const double plain = path_of(l).law.rate;
  l.axle.y = Given(0.78);
  const auto chain = std::get<BendingLeg>(bending_leg_of(l, {}));
  CHECK(chain.points.back().isApprox(l.axle.vec()));
  CHECK(path_of(l).law.rate < plain);  // a longer arm
}

TEST_CASE("a whole leg moved takes its line, its joints and its brace along") {
  Leg l = leaf();
  l.joints.push_back({});
  l.joints[0].at = l.axle;
  l.brace_leg = l.brace_airframe = l.axle;
  const double rate = path_of(l).law.rate;
  shift_leg(l, 0.3, -0.05, 0.02);
  CHECK(path_of(l).law.rate == Approx(rate).epsilon(1e-9));
  CHECK(l.joints[0].at.x == Approx(1.3));
  CHECK(l.brace_leg.z == Approx(-0.38));
  l = leaf();
  l.top = l.spring.bent.line[0].at;
  lengthen_leg(l, 0.05);
  CHECK(path_of(l).law.rate < rate);
  l = leaf();
  l.top = l.spring.bent.line[0].at;
  bend_leg_out(l, radians(5));
  CHECK(l.spring.bent.line[1].at.vec().isApprox(l.axle.vec()));
  CHECK((l.axle.vec() - l.top.vec()).norm() == Approx(std::hypot(0.6, 0.4)));
}

TEST_CASE("a tail spring's width lies athwartships: it bends in its own plane, thin") {
  Leg l;
  l.axle = {{}, Given(4.5), Given(0.0), Given(-0.2)};
  l.travel = Given(0.05);
  l.spring.kind = SpringKind::bending;
  BentLeg& b = l.spring.bent;
  b.form = BentForm::leaf;
  b.material = "spring steel strip";
  b.line = {at(4.1, 0, -0.2, 0.04, 0.006), at(4.5, 0, -0.2, 0.04, 0.006)};
  const auto chain = std::get<BendingLeg>(bending_leg_of(l, {}));
  CHECK(chain.across == Vec3::UnitY());
  // A level cantilever: 3EI/L³ with I = w·t³/12.
  const double stiffness = chain.material.youngs_modulus * 0.04 * std::pow(0.006, 3) / 12;
  CHECK(path_of(l).law.rate == Approx(3 * stiffness / std::pow(0.4, 3)).epsilon(1e-3));
  CHECK(std::get<BendingLeg>(bending_leg_of(leaf(), {})).across == Vec3::UnitX());
}

TEST_CASE("the travel of a leg that bends follows from yield, or from the belly on the ground") {
  auto d = demo("wheatear");
  Leg& main = d.gear.main();
  main.path = LegPath::straight;
  main.spring = leaf().spring;
  main.spring.bent.line = {at(1.24, 0.2, -0.2, 0.10, 0.022), at(1.24, 0.73, -0.8, 0.08, 0.016)};
  main.travel = Given(0.5);  // typed: it does not stay
  CHECK(settle(d));
  CHECK_FALSE(settle(d));
  const double travel = main.travel;
  CHECK(main.travel.origin == Origin::by_default);
  // Risen that far, the leg is just at its material's yield.
  const auto chain = std::get<BendingLeg>(bending_leg_of(main, {}));
  const auto path = path_of(main);
  const auto bent = bend(chain, Vec3(0, 0, path.law.rate * travel));
  REQUIRE(bent);
  CHECK(bent->moved.z() == Approx(travel));
  const Material* m = find_material({}, main.spring.bent.material);
  CHECK(bent->largest_stress == Approx(m->yield.si).epsilon(1e-6));
  // A wire across takes some of it: the leg goes no further, but carries more.
  main.spring.bent.cross_wire_rate = Given(40e3);
  settle(d);
  CHECK(path_of(main).law.rate * main.travel > path.law.rate * travel);
  main.spring.bent.cross_wire_rate = Given();
  // A belly 60 mm above the flat tyre's ground ends it before.
  LowPoint belly;
  belly.name = "belly";
  belly.at = {{}, Given(1.5), Given(0.0), Given(main.axle.z - main.wheel.flat_radius + 0.06)};
  d.airframe.low_points.push_back(belly);
  settle(d);
  CHECK(main.travel == Approx(std::min(0.06, travel)));
  // Nothing known of its strength, nothing of its travel; and the checks say what they lack.
  main.spring.bent.material = "moonstone";
  settle(d);
  CHECK_FALSE(main.travel.known());
  CHECK(says(missing_of(main), "moonstone"));
  // Assessed without being settled first, it is the same.
  d.airframe.low_points.pop_back();
  main.spring.bent.material = leaf().spring.bent.material;
  Design typed = d;
  typed.gear.main().travel = Given(0.5);
  settle(d);
  CHECK(assess(typed).loading("")->rest->pitch == assess(d).loading("")->rest->pitch);
  CHECK(read_project(write_project(typed)).design->gear.main().travel == d.gear.main().travel);
}

TEST_CASE("a design on leaves stands by their rate, and its track spreads") {
  auto d = demo("wheatear");
  Leg l = leaf();
  Leg& main = d.gear.main();
  main.path = LegPath::straight;
  main.spring = l.spring;
  main.spring.bent.line = {at(1.24, 0.2, -0.2, 0.10, 0.022), at(1.24, 0.73, -0.8, 0.08, 0.016)};
  main.spring.damping_closing = main.spring.damping_extending = Given(0.0);
  main.spring.efficiency = Given(0.5);
  const auto a = assess(d);
  REQUIRE(a.wheels);
  const auto* rest = &*a.loading("")->rest;
  const auto& w = rest->wheels[1];
  const auto& s = (*a.wheels)[1].leg;
  REQUIRE(w.coordinate > 0);
  // Force along the leg's way against the spring's: virtual work.
  const Vec3 up = up_direction(rest->pitch, rest->roll);
  CHECK(w.load * up.dot(s.moved_per_rise) == Approx(s.law.rate * w.coordinate).epsilon(0.05));
  bool margin = false;
  bool set = false;
  for (const auto& f : a.findings) {
    margin = margin || (f.measure_id == "spring.bend_margin" && f.verdict != Verdict::unknown);
    set = set || (f.measure_id == "spring.set" && f.verdict != Verdict::unknown);
  }
  CHECK(margin);
  CHECK(set);
}

TEST_CASE("a gas strut pushes as its maker says") {
  Leg l;
  l.axle = {{}, Given(0.0), Given(0.5), Given(-0.5)};
  l.travel = Given(0.08);
  l.spring.kind = SpringKind::gas_strut;
  l.spring.gas_strut = {{}, "", Given(400.0), Given(1.4), Given(0.1), Given(2.0)};
  const auto s = path_of(l);
  const BoughtGasSpring bought{400, 1.4, 0.1};
  for (const double q : {0.0, 0.02, 0.05, 0.08}) {
    CHECK(s.at(q).force == Approx(2 * bought.force(q)));
    CHECK(s.energy(q) == Approx(2 * bought.energy(q)).margin(1e-9));
  }
  l.spring.gas_strut.progression = Given(1.0);
  CHECK(path_of(l).at(0.05).force == Approx(800).epsilon(1e-4));
  l.spring.gas_strut.full_stroke = Given();
  CHECK(says(missing_of(l), "full stroke"));
}

TEST_CASE("rubber pucks follow their shape factor") {
  Leg l;
  l.axle = {{}, Given(0.0), Given(0.5), Given(-0.5)};
  l.travel = Given(0.03);
  l.spring.kind = SpringKind::pucks;
  Pucks& p = l.spring.pucks;
  p.count = Given(8.0);
  p.outer_diameter = Given(0.05);
  p.hole_diameter = Given(0.014);
  p.thickness = Given(0.02);
  p.shear_modulus = Given(0.8e6);
  p.hardness_factor = Given(0.75);
  p.assembled_length = Given(0.155);
  const auto s = path_of(l);
  const double area = std::numbers::pi / 4 * (0.05 * 0.05 - 0.014 * 0.014);
  const double shape = (0.05 - 0.014) / (4 * 0.02);
  const double modulus = 3 * 0.8e6 * (1 + 2 * 0.75 * shape * shape);
  for (const double q : {0.0, 0.015, 0.03}) {
    const double stretch = 1 - (0.005 + q) / 0.16;
    CHECK(s.at(q).force == Approx(area * modulus / 3 * (1 / (stretch * stretch) - stretch)).epsilon(1e-4));
  }
  CHECK(s.at(0).force > 0);  // what it takes to assemble it
  p.assembled_length = Given(0.2);
  CHECK(says(missing_of(l), "assembled"));
  p.assembled_length = Given(0.155);
  p.hole_diameter = Given(0.05);
  CHECK(says(missing_of(l), "hole"));
  p.hole_diameter = Given(0.0);
  l.travel = Given(0.15);
  CHECK(says(missing_of(l), "travel"));
}

TEST_CASE("a second coil inside, or in series, bends the line where it touches or goes solid") {
  auto d = demo("redshank");
  Leg l = d.gear.main();
  Spring& s = l.spring;
  s.second = s.coil;
  s.second.wire_diameter = Given(0.0014);
  s.second_starts_after = Given(0.02);
  const auto one = coil_at_wheel(s.coil);
  Coil lone = s.second;
  lone.installed_length = lone.free_length;
  const auto two = coil_at_wheel(lone);
  REQUIRE((one && two));
  s.partner = CoilPartner::inside;
  const auto inside = path_of(l);
  CHECK(inside.at(0.01).force == Approx(one->preload + 0.01 * one->rate));
  CHECK(inside.at(0.045).force == Approx(one->preload + 0.045 * one->rate + 0.025 * two->rate));
  s.partner = CoilPartner::in_series;
  s.coil.installed_length = Given(s.coil.free_length + s.second.free_length - 0.004);
  const auto series = path_of(l);
  for (const double q : {0.0, 0.01, 0.03, 0.05}) {
    const auto hand = in_series(one->figures.rate, one->figures.travel_to_solid, two->figures.rate,
                                two->figures.travel_to_solid, 0.004 + q);
    CHECK(series.at(q).force == Approx(hand.force).epsilon(1e-9));
  }
  s.coil.installed_length = Given(1.0);
  CHECK(path_of(l).at(0.05).force == Approx(0).margin(1e-9));  // loose all the way
  s.second.wire_diameter = Given();
  CHECK(says(missing_of(l), "second coil"));
}

TEST_CASE("every kind of spring stands at rest where the drop's static limit says") {
  for (const std::string name : {"dunnock", "redshank", "wheatear"}) {
    const auto d = demo(name);
    const auto a = assess(d);
    for (const auto& landing : a.landings) {
      if (!landing.model || landing.model->spring.kind == LegLaw::Kind::rigid) continue;
      INFO(name);
      spring::DropModel m = *landing.model;
      m.lift_ratio = 0;
      m.damper = {};
      m.damper.closing = m.damper.extending = 4 * std::sqrt(m.spring.slope(0.5 * m.travel) * m.sprung_mass);
      spring::DropRun run;
      run.duration = 12;
      run.trace = 12;
      const auto settled = spring::drop(m, 0.05, run);
      CHECK(settled.trace.back().stroke ==
            Approx(m.spring.closure(m.sprung_mass * standard_gravity)).epsilon(2e-3));
      CHECK(settled.trace.back().ground == Approx(m.mass() * standard_gravity).epsilon(2e-3));
    }
  }
}
