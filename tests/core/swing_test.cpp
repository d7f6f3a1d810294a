// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/swing/swing.h"

#include <catch2/catch.hpp>
#include <random>

#include "core/base/quantity.h"

using namespace kranich;
using namespace kranich::swing;
using motion::Box;
using motion::HalfSpace;

TEST_CASE("distance from a capsule to a box agrees with sampling") {
  std::mt19937 random(11);
  std::uniform_real_distribution<double> u(-1, 1);
  const Box box{{-0.3, -0.2, -0.1}, {0.3, 0.2, 0.1}};
  for (int i = 0; i < 60; ++i) {
    const Capsule c{Vec3(u(random), u(random), u(random)), Vec3(u(random), u(random), u(random)), 0.02};
    double least = 1e9;
    for (int k = 0; k <= 2000; ++k) {
      const Vec3 p = c.from + (c.to - c.from) * k / 2000.0;
      least = std::min(least, (p - p.cwiseMax(box.low).cwiseMin(box.high)).norm());
    }
    const auto n = nearest(c, box);
    if (least > 0.01)
      CHECK(n.distance == Approx(least - 0.02).margin(2e-4));
    else
      CHECK(n.distance < 0);
    if (n.distance > 0) CHECK((n.on_part - n.on_obstacle).norm() == Approx(n.distance).margin(1e-6));
  }
}

TEST_CASE("a wheel pushed into a plane or a box is as deep as it was pushed") {
  const RoundedWheel w{{0, 0, 0.15}, Vec3::UnitY(), 0.38, 0.13, 0.04};
  CHECK(nearest(w, HalfSpace{{0, 0, 0}, Vec3::UnitZ()}).distance == Approx(-0.04).epsilon(1e-12));
  const Box floor{{-1, -1, -1}, {1, 1, 0}};
  CHECK(nearest(w, floor).distance == Approx(-0.04).margin(1e-6));
  RoundedWheel up = w;
  up.centre.z() = 0.25;
  CHECK(nearest(up, floor).distance == Approx(0.06).margin(1e-7));
}

TEST_CASE("depth and distance meet where they touch") {
  const Box box{{0, 0, 0}, {0.1, 0.1, 0.1}};
  RoundedWheel w{{0, 0, 0}, Vec3(0.3, 0.8, 0.5).normalized(), 0.3, 0.1, 0.03};
  const Vec3 way = Vec3(1, 1.2, 0.9).normalized();
  double previous = 1;
  for (double s = 0.6; s > 0.2; s -= 0.001) {
    w.centre = s * way;
    const double d = nearest(w, box).distance;
    CHECK(d <= previous + 1e-6);
    CHECK(previous - d < 0.0011 + (previous > 0.5 ? 1 : 0));  // nothing moves further than its step
    previous = d;
  }
}

namespace {
SwingInput sample() {
  SwingInput in;
  in.wanted_clearance = 0.006;
  MovingLeg& m = in.moving;
  m.moves.axis = {{2.4, 1.3, -0.1}, Vec3(-1, 0.06, 0.1).normalized()};
  m.moves.full_turn = radians(88);
  m.foot = {2.44, 1.3, -0.8};
  m.along = (m.foot - m.moves.axis.point).normalized();
  m.moves.line = {m.moves.axis.point, m.along};
  using motion::Carried;
  m.parts = {
      {Part::wheel, RoundedWheel{{2.44, 1.36, -0.8}, Vec3::UnitY(), 0.38, 0.13, 0.04}, Carried::wheel,
       Carried::wheel},
      {Part::leg, Capsule{m.moves.axis.point, m.foot, 0.03}, Carried::leg, Carried::wheel, false, true},
      {Part::stub, Capsule{m.foot, {2.44, 1.36, -0.8}, 0.02}, Carried::wheel, Carried::wheel}};
  m.find_reach();
  in.obstacles = {{"box", Box{{2.0, 0.68, -0.34}, {2.19, 0.82, -0.16}}}};
  return in;
}
}  // namespace

TEST_CASE("the least clearance is not missed between steps") {
  const auto in = sample();
  const auto least = least_clearance(in);
  double dense = 1e9;
  for (int i = 0; i <= 4000; ++i)
    dense = std::min(dense, clearance_at(in, in.moving.moves.full_turn * i / 4000).distance);
  CHECK(least.distance <= dense + 1e-6);
  CHECK(least.distance == Approx(dense).margin(2e-5));
}

TEST_CASE("a mirrored swing has the same clearance") {
  auto in = sample();
  const double there = least_clearance(in).distance;
  auto& m = in.moving;
  m = mirrored(m);
  in.obstacles = {{"box", Box{{2.0, -0.82, -0.34}, {2.19, -0.68, -0.16}}}};
  CHECK(least_clearance(in).distance == Approx(there).margin(1e-6));
}

TEST_CASE("a leg cut to its length budget just keeps the clearance wanted") {
  auto in = sample();
  in.obstacles.push_back({"wall", HalfSpace{{2.4, 0.55, 0}, Vec3::UnitY()}});
  in.wanted_clearance = 0.02;
  const auto b = length_budget(in);
  REQUIRE(std::isfinite(b.fits));
  in.moving = in.moving.longer_by(b.fits - b.length);
  CHECK(least_clearance(in).distance == Approx(0.02).margin(1e-5));
}

TEST_CASE("unit angle, tilt and lean hang together") {
  const PlanarSwing s{SwingDirection::aft, {0.42, 0.26, -0.05}, radians(100), radians(7), 0.14, 0.018,
                      Vec3::UnitY()};
  const auto p = planar_poses(s);
  CHECK(degrees(p.down_lean) == Approx(3));
  // The stowed leg is parallel to the base: it rises by 7° towards its wheel.
  const Vec3 leg = p.wheel_stowed - s.pivot - s.wheel_offset * Vec3::UnitY();
  CHECK(degrees(std::asin(leg.z() / leg.norm())) == Approx(7).margin(1e-9));
  CHECK(leg.x() > 0);
}

namespace {
//! Directions spread evenly over a sphere.
std::vector<Vec3> sphere(int count) {
  std::vector<Vec3> all;
  for (int i = 0; i < count; ++i) {
    const double z = 1 - (2 * i + 1.0) / count;
    const double turn = 2.399963229728653 * i;
    const double r = std::sqrt(1 - z * z);
    all.emplace_back(r * std::cos(turn), r * std::sin(turn), z);
  }
  return all;
}
}  // namespace

TEST_CASE("the depth of an overlap is the shortest way out of all directions") {
  std::mt19937 random(5);
  std::uniform_real_distribution<double> u(-1, 1);
  const auto ways = sphere(40000);
  const Box box{{-0.3, -0.2, -0.1}, {0.3, 0.2, 0.1}};
  const motion::Cylinder drum{{0, 0, 0}, Vec3(0.3, -0.5, 0.8).normalized(), 0.2, 0.25};
  int deep = 0;
  for (int i = 0; i < 40; ++i) {
    const Capsule c{0.25 * Vec3(u(random), u(random), u(random)),
                    0.25 * Vec3(u(random), u(random), u(random)), 0.05};
    double out_of_box = -1e9;
    double out_of_drum = -1e9;
    for (const Vec3& n : ways) {
      const double part = std::min(c.from.dot(n), c.to.dot(n)) - c.radius;
      out_of_box = std::max(out_of_box, part - n.cwiseAbs().dot(box.high));
      const double along = std::abs(n.dot(drum.axis));
      out_of_drum =
          std::max(out_of_drum, part - drum.half_length * along - drum.radius * std::sqrt(1 - along * along));
    }
    for (const auto& [d, brute] :
         {std::pair{nearest(c, box).distance, out_of_box}, {nearest(c, drum).distance, out_of_drum}}) {
      if (d > 0) continue;
      ++deep;
      CHECK(d == Approx(brute).margin(8e-3));  // as finely as the directions lie
      CHECK(d > brute - 1e-4);
    }
  }
  CHECK(deep > 40);
}

TEST_CASE("the lowest point of an arc is where it is lowest, at an end or between") {
  std::mt19937 random(3);
  std::uniform_real_distribution<double> u(-1, 1);
  int at_start = 0;
  int at_end = 0;
  int between = 0;
  for (int i = 0; i < 300; ++i) {
    const motion::Axis axis{Vec3(u(random), u(random), u(random)),
                            Vec3(u(random), u(random), 0.3 * u(random)).normalized()};
    const Vec3 point(u(random), u(random), u(random));
    const double full = 1.6 + 1.4 * u(random);
    double low = 1e9;
    for (int k = 0; k <= 4000; ++k) low = std::min(low, (axis.turn(full * k / 4000) * point).z());
    const double turn = turn_of_lowest(axis, point, full);
    CHECK(turn >= 0);
    CHECK(turn <= full);
    CHECK((axis.turn(turn) * point).z() == Approx(low).margin(1e-6));
    (turn == 0 ? at_start : turn == full ? at_end : between) += 1;
  }
  CHECK(at_start > 20);
  CHECK(at_end > 20);
  CHECK(between > 20);
}

TEST_CASE("a tilted wheel reaches as high as its rim does") {
  const Vec3 centre(0.4, 0.2, 0.1);
  for (const Vec3& tilt : {Vec3(0, 1, 0), Vec3(0.2, 0.8, 0.5), Vec3(0.1, 0.3, -0.9), Vec3(0, 0, 1)}) {
    const Vec3 axle = tilt.normalized();
    const Vec3 one = axle.unitOrthogonal();
    const Vec3 two = axle.cross(one);
    double high = -1e9;
    for (int k = 0; k < 3600; ++k)
      for (const double side : {-0.5, 0.5}) {
        const double a = k * 0.0017453292519943;
        high = std::max(high,
                        (centre + 0.15 * (std::cos(a) * one + std::sin(a) * two) + side * 0.12 * axle).z());
      }
    CHECK(highest_point(centre, axle, 0.3, 0.12) == Approx(high).margin(1e-6));
    CHECK(lowest_point(centre, axle, 0.3, 0.12) == Approx(0.2 - high).margin(1e-6));
  }
}
