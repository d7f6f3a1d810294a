// SPDX-License-Identifier: GPL-3.0-or-later
//! Drops: energy kept, closed forms, statics; frames and leaves against closed forms.
#include "core/spring/landing.h"

#include <catch2/catch.hpp>
#include <random>

#include "core/assess/assess.h"
#include "core/assess/landing_state.h"
#include "core/force/leaf.h"
#include "core/spring/drop.h"
#include "demo.h"
#include "sample_leg.h"

using namespace kranich;
using force::Frame;
using spring::DropModel;
using spring::DropRun;

namespace {

DropModel random_leg(std::mt19937& random) {
  std::uniform_real_distribution<double> u(0, 1);
  DropModel m = oleo();
  m.sprung_mass *= 0.6 + 0.8 * u(random);
  m.lift_ratio = u(random);
  if (u(random) < 0.5) {
    m.spring.kind = force::LegLaw::Kind::linear;
    m.spring.rate = 15000 + 20000 * u(random);
    m.spring.preload = 800 * u(random);
    m.damper = {};
    m.damper.closing = 1500 * u(random);
    m.damper.extending = 3000 * u(random);
  }
  m.damper.friction = 100 * u(random);
  return m;
}

}  // namespace

TEST_CASE("a drop keeps its energy, what the damper took accounted for") {
  std::mt19937 random(4);
  for (int i = 0; i < 40; ++i) {
    const auto m = random_leg(random);
    const auto r = spring::drop(m, 1 + 0.06 * i);
    INFO(i);
    CHECK(std::abs(r.energy_error) < 1e-6);
    const auto& s = r.shares;
    CHECK(s.spring + s.damper + s.friction + s.stops + s.tyre + s.unsprung_motion == Approx(1).margin(1e-6));
    CHECK(r.strut_efficiency > 0);
    CHECK(r.strut_efficiency <= 1 + 1e-6);
  }
}

TEST_CASE("a mass on a tyre alone meets the closed form of the spring and mass") {
  DropModel m;
  m.sprung_mass = 100;
  m.tyre.rate = 50000;
  const double v = 1.7;
  const auto r = spring::drop(m, v);
  const double g = standard_gravity;
  const double omega = std::sqrt(m.tyre.rate / m.sprung_mass);
  const double sag = g / (omega * omega);
  const double deepest = sag + std::sqrt(sag * sag + v * v / (omega * omega));
  CHECK(r.tyre_deflection == Approx(deepest).epsilon(1e-6));
  CHECK(r.hop_height == Approx(v * v / (2 * g)).epsilon(1e-5));  // undamped: as high as it came from
  CHECK(r.tyre_efficiency == Approx(0.5).epsilon(1e-6));
}

TEST_CASE("let down slowly it comes to rest where Stance has it") {
  auto m = oleo();
  m.lift_ratio = 0;
  m.damper = {};  // oil through an orifice creeps: its last millimetres take for ever
  m.damper.closing = m.damper.extending = 2500;
  DropRun run;
  run.duration = 6;
  run.trace = 600;
  const auto r = spring::drop(m, 0.05, run);
  const auto& end = r.trace.back();
  CHECK(end.ground == Approx(m.mass() * standard_gravity).epsilon(1e-4));
  CHECK(end.stroke == Approx(m.spring.closure(m.sprung_mass * standard_gravity)).epsilon(1e-4));
  CHECK(std::isfinite(r.settling_time));
}

TEST_CASE("finer steps and another tolerance give the same landing; harder ones use more") {
  const auto m = oleo();
  DropRun fine;
  fine.tolerance = 1e-10;
  DropRun coarse;
  coarse.tolerance = 1e-6;
  const auto a = spring::drop(m, 2.4, fine);
  const auto b = spring::drop(m, 2.4, coarse);
  CHECK(b.stroke_used == Approx(a.stroke_used).epsilon(1e-4));
  CHECK(b.peak_ground == Approx(a.peak_ground).epsilon(1e-3));
  double last = 0;
  for (const double v : {1.0, 1.5, 2.0, 2.5}) {
    const auto r = spring::drop(m, v);
    CHECK(r.stroke_used > last);
    last = r.stroke_used;
  }
}

TEST_CASE("the ladder's first height that bottoms brackets the one that just does") {
  auto m = oleo();
  m.lift_ratio = 0;
  const auto l = spring::drop_ladder(m, 0.1, 0.1, 2.0, 4.0);
  REQUIRE(l.first_that_bottoms);
  REQUIRE(l.just_bottoms);
  CHECK(*l.just_bottoms <= *l.first_that_bottoms);
  CHECK(*l.just_bottoms > *l.first_that_bottoms - 0.1);
  CHECK(spring::drop(m, spring::sink_speed_of_drop(1.01 * *l.just_bottoms)).bottoms);
  CHECK_FALSE(spring::drop(m, spring::sink_speed_of_drop(0.99 * *l.just_bottoms)).bottoms);
}

TEST_CASE("a metered orifice acts as the plain one where its table is flat, and harder where it narrows") {
  auto m = oleo();
  const auto plain = spring::drop(m, 2.4);
  m.damper.metered = {{0, 3.4e-5}, {0.1, 3.4e-5}, {0.19, 3.4e-5}};
  CHECK(spring::drop(m, 2.4).stroke_used == Approx(plain.stroke_used).epsilon(1e-6));
  m.damper.metered.back().second = 1.5e-5;
  CHECK(spring::drop(m, 2.4).stroke_used < plain.stroke_used);
}

TEST_CASE("the demos' landings are found the same from near and from nothing") {
  for (const std::string name : {"dunnock", "redshank", "wheatear"}) {
    const auto d = demo(name);
    const auto a = assess(d);
    const auto b = assess(d, {}, &a);
    REQUIRE(a.landings.size() == b.landings.size());
    bool dropped = false;
    for (size_t i = 0; i < a.landings.size(); ++i) {
      if (!a.landings[i].drop) continue;
      dropped = true;
      CHECK(a.landings[i].drop->load_factor == b.landings[i].drop->load_factor);
      CHECK_FALSE(a.landings[i].drop->bottoms);
    }
    CHECK(dropped);
  }
}

TEST_CASE("a cantilever's stiffness is the textbook's, however finely it is cut") {
  const force::Elastic steel{205e9, 79e9};
  const double length = 0.7;
  const double load = 400;
  for (const int pieces : {1, 4, 40}) {
    Frame f;
    for (int i = 0; i <= pieces; ++i) f.nodes.emplace_back(0.0, length * i / pieces, 0.0);
    for (int i = 0; i < pieces; ++i)
      f.beams.push_back({i, i + 1, force::tube_section(0.03, 0.002), steel, Vec3::UnitX(), {}});
    f.clamped = {0};
    const auto r = f.solve({{pieces, Vec3(0, 0, load), Vec3::Zero()}});
    REQUIRE(r);
    const double i2 = force::tube_section(0.03, 0.002).first;
    CHECK(r->moved.back().z() ==
          Approx(load * std::pow(length, 3) / (3 * steel.youngs_modulus * i2)).epsilon(1e-6));
    CHECK(r->turned.back().x() ==
          Approx(load * length * length / (2 * steel.youngs_modulus * i2)).epsilon(1e-6));
    CHECK(r->strain_energy == Approx(0.5 * load * r->moved.back().z()));
    // Torsion and tension.
    const auto t = f.solve({{pieces, Vec3(0, 900, 0), Vec3(0, 50, 0)}});
    const auto section = force::tube_section(0.03, 0.002);
    CHECK(t->turned.back().y() ==
          Approx(50 * length / (steel.shear_modulus * section.torsion)).epsilon(1e-6));
    CHECK(t->moved.back().y() == Approx(900 * length / (steel.youngs_modulus * section.area)).epsilon(1e-6));
    CHECK(t->beams.front().tension == Approx(900).epsilon(1e-6));
  }
}

TEST_CASE(
    "a frame turned in space bends as before; a pinned V carries along its legs; a mechanism is refused") {
  const force::Elastic steel{205e9, 79e9};
  const Mat3 turn = turn_about(Vec3(1, 2, 3).normalized(), 0.8);
  Frame a;
  a.nodes = {Vec3(0, 0, 0), Vec3(0, 0.3, -0.2), Vec3(0.1, 0.5, -0.5)};
  for (int i = 0; i < 2; ++i)
    a.beams.push_back({i, i + 1, force::leaf_section(0.06, 0.012), steel, Vec3::UnitX(), {}});
  a.clamped = {0};
  Frame b = a;
  for (auto& n : b.nodes) n = turn * n;
  for (auto& beam : b.beams) beam.first_axis = turn * beam.first_axis;
  const Vec3 load(50, -20, 300);
  CHECK(
      (turn * a.solve({{2, load}})->moved.back()).isApprox(b.solve({{2, turn * load}})->moved.back(), 1e-6));
  Frame v;
  v.nodes = {Vec3(0, -0.3, 0), Vec3(0, 0.3, 0), Vec3(0, 0, -0.4), Vec3(0.3, 0, 0)};
  for (int i : {0, 1, 3})
    v.beams.push_back({i, 2, force::tube_section(0.02, 0.001), steel, Vec3::UnitX(), {}});
  v.pinned = {0, 1, 3};
  const auto r = v.solve({{2, Vec3(0, 0, 1000)}});
  REQUIRE(r);
  // Thin legs carry nearly as a truss: compression F/(2·cos) in the two, little in the third.
  CHECK(r->beams[0].tension == Approx(-1000 / 2.0 / 0.8).epsilon(0.02));
  CHECK(std::abs(r->beams[2].tension) < 30);
  Frame loose = v;
  loose.pinned = {};
  loose.clamped = {};
  CHECK_FALSE(loose.solve({{2, Vec3(0, 0, 1000)}}));
}

TEST_CASE("a straight leaf meets its closed forms to 1e-6, and agrees with itself when refined") {
  const force::Elastic alloy{71e9, 27e9};
  const double c = radians(38);
  const double length = 0.62;
  const double w = 0.075;
  const double t = 0.016;
  const double f = 1800;
  const double i = w * t * t * t / 12;
  const double bend = std::pow(length, 3) / (3 * 71e9 * i);
  const double axial = length / (71e9 * w * t);
  for (const int pieces : {1, 10, 100}) {
    const auto b = force::bend(force::straight_leaf(length, c, w, w, t, t, alloy, pieces), {0, 0, f});
    REQUIRE(b);
    CHECK(b->moved.z() ==
          Approx(f * (std::pow(std::sin(c), 2) * bend + std::pow(std::cos(c), 2) * axial)).epsilon(1e-6));
    CHECK(b->moved.y() == Approx(f * std::sin(c) * std::cos(c) * (bend - axial)).epsilon(1e-6));
    CHECK(b->camber_change == Approx(-f * std::sin(c) * length * length / (2 * 71e9 * i)).epsilon(1e-6));
    CHECK(b->root_stress ==
          Approx(f * std::sin(c) * length * 6 / (w * t * t) + f * std::cos(c) / (w * t)).epsilon(1e-9));
  }
}

TEST_CASE("a leaf that folds, one that never stops adding, and a wire that holds both") {
  const force::SoftLeaf leaf(0.15, 0.04, 0.003, 69e9, 150e6);
  const double k = leaf.rate();
  const double most = leaf.work(leaf.collapse_load() * (1 - 1e-12));
  // More than it can take at all: folded by the first.
  const auto folded = force::row_of_landings(leaf, 1.1 * most, 5);
  CHECK(folded.folds == 1);
  CHECK(std::isinf(folded.set.front()));
  CHECK(folded.set.size() == 5);
  // Between the two: each adds, and in the end it folds.
  REQUIRE(leaf.endless_energy() < most);
  const double between = 0.5 * (leaf.endless_energy() + most);
  const auto adds = force::row_of_landings(leaf, between, 400);
  CHECK(adds.endless);
  CHECK(std::isfinite(adds.set.front()));
  CHECK(adds.folds > 1);
  CHECK_FALSE(force::row_of_landings(leaf, 0.95 * leaf.endless_energy(), 50).endless);
  // With a wire the energy of the first landing is the leaf's work and the wire's, and what it leaves is held
  // back.
  const double wire = 0.7 * k;
  for (const double energy : {0.6 * leaf.endless_energy(), between, 3 * most}) {
    const auto row = force::row_of_landings(leaf, energy, 30, wire);
    CHECK_FALSE(row.endless);
    const double p = row.peak_load.front();
    const bool hinge = p >= leaf.collapse_load();
    const double free_set = row.set.front() * (k + wire) / k;  // with the wire taken off
    const double reached = free_set + p / k;
    const double work =
        hinge ? most + leaf.collapse_load() * (reached - leaf.deflection(p * (1 - 1e-12))) : leaf.work(p);
    CHECK(work + wire * reached * reached / 2 == Approx(energy).epsilon(1e-6));
    CHECK(row.set.front() < force::row_of_landings(leaf, energy, 1).set.front());
    for (size_t i = 1; i < row.set.size(); ++i) CHECK(row.set[i] >= row.set[i - 1] - 1e-12);
    CHECK(row.set.back() - row.set[row.set.size() - 2] < 0.02 * row.set.back() + 1e-9);
  }
}

TEST_CASE("a soft leaf of changing section: closed forms, and the weakest place where it lies") {
  // Uniform: elastic to 1/p of the length from the tip, then κ = κ_y/√(3 − 2pξ), integrated by hand.
  const force::SoftLeaf uniform(0.15, 0.04, 0.003, 69e9, 150e6);
  CHECK(uniform.rate() ==
        Approx(3 * 69e9 * 0.04 * std::pow(0.003, 3) / 12 / std::pow(0.15, 3)).epsilon(1e-7));
  CHECK(uniform.yield_load() == Approx(150e6 * 0.04 * 0.003 * 0.003 / 6 / 0.15));
  CHECK(uniform.yields_at() == 0);
  for (const double p : {1.1, 1.3, 1.4999}) {
    const double u = 3 - 2 * p;
    const double plastic = (16.0 / 3 - 6 * std::sqrt(u) + 2.0 / 3 * u * std::sqrt(u)) / (4 * p * p);
    CHECK(uniform.deflection(p * uniform.yield_load()) ==
          Approx(3 * uniform.yield_load() / uniform.rate() * (1 / (3 * p * p) + plastic)).epsilon(1e-4));
  }
  // A triangle in plan bends alike all along: κ = κ_y/√(3 − 2p) everywhere, δ = κ·L²/2.
  const double length = 0.2;
  const double t = 0.004;
  const force::SoftLeaf triangle({{0, 0.06, t}, {length, 0.06e-9, t}}, 69e9, 150e6);
  const double yield_curvature = 150e6 / (69e9 * t / 2);
  CHECK(triangle.deflection(triangle.yield_load()) ==
        Approx(yield_curvature * length * length / 2).epsilon(1e-5));
  CHECK(triangle.deflection(1.4 * triangle.yield_load()) ==
        Approx(yield_curvature / std::sqrt(0.2) * length * length / 2).epsilon(1e-4));
  // Thinned fast, it yields first where M_y over the arm is least: between clamp and tip.
  const force::SoftLeaf thinned({{0, 0.05, 0.006}, {0.3, 0.05, 0.002}}, 71e9, 200e6);
  const double there = 0.15;  // t²/(L − x) is least where t = 2·(L − x)·dt/dx: at t = 4 mm
  CHECK(thinned.yields_at() == Approx(there).margin(1e-3));
  CHECK(thinned.yield_load() == Approx(200e6 * 0.05 * 0.004 * 0.004 / 6 / (0.3 - there)).epsilon(1e-6));
  // The work is the area under the curve here too, past yield.
  const double peak = 1.3 * thinned.yield_load();
  double work = 0;
  const int n = 4000;
  for (int i = 0; i < n; ++i)
    work += (peak * i / n + peak * (i + 1) / n) / 2 *
            (thinned.deflection(peak * (i + 1) / n) - thinned.deflection(peak * i / n));
  CHECK(thinned.work(peak) == Approx(work).epsilon(1e-4));
  CHECK(thinned.set_after(peak) > 0);
}

TEST_CASE("a wire across holds a bent leg back: in its spread, and in its stress") {
  force::BendingLeg leg;
  leg.points = {{0, 0.2, 0}, {0, 0.5, -0.6}};
  leg.width = {0.08, 0.08};
  leg.thickness = {0.012, 0.012};
  leg.material.youngs_modulus = 71e9;
  leg.material.shear_modulus = 27e9;
  const std::vector<force::AxleLoad> load{{Vec3(0, 0, 900)}};
  const auto bare = force::bend_each(leg, load).front();
  const double wire = 60e3;
  leg.across_rate = wire;
  const auto held = force::bend_each(leg, load).front();
  // What it pulls is its rate times where the axle is: the same as that force put there by hand.
  const auto by_hand = force::bend(leg, Vec3(0, -wire * held.moved.y(), 900));
  REQUIRE(by_hand);
  CHECK(held.moved.y() == Approx(by_hand->moved.y()).epsilon(1e-9));
  CHECK(held.moved.y() < 0.8 * bare.moved.y());
  CHECK(held.largest_stress < 0.9 * bare.largest_stress);
}

TEST_CASE("a soft leaf: the same load again adds nothing, the same energy less each time") {
  const force::SoftLeaf leaf(0.15, 0.04, 0.003, 69e9, 150e6);
  CHECK(leaf.deflection(0.9 * leaf.yield_load()) == Approx(0.9 * leaf.yield_load() / leaf.rate()));
  CHECK(leaf.set_after(0.9 * leaf.yield_load()) == Approx(0).margin(1e-15));
  // The work is the area under the curve, added up in small steps.
  const double peak = 1.35 * leaf.yield_load();
  double work = 0;
  const int n = 20000;
  for (int i = 0; i < n; ++i) {
    const double a = peak * i / n;
    const double b = peak * (i + 1) / n;
    work += (a + b) / 2 * (leaf.deflection(b) - leaf.deflection(a));
  }
  CHECK(leaf.work(peak) == Approx(work).epsilon(1e-5));
  CHECK(leaf.work(peak, peak) == Approx(peak * peak / (2 * leaf.rate())));
  const auto row = force::row_of_landings(leaf, 0.6, 12);
  double last_gain = 1e9;
  for (size_t i = 1; i < row.set.size(); ++i) {
    const double gain = row.set[i] - row.set[i - 1];
    CHECK(gain >= -1e-12);
    CHECK(gain <= last_gain + 1e-12);
    last_gain = gain;
  }
  CHECK(row.peak_load.back() < leaf.collapse_load());
}
