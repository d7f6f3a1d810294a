// SPDX-License-Identifier: GPL-3.0-or-later
//! Leg: sections, feet, pins, bolts and blocks against statics; copes, tubes and jigs against the solids and
//! the plane they stand for.
#include <catch2/catch.hpp>
#include <numbers>
#include <random>

#include "core/leg/geometry.h"
#include "core/leg/strength.h"
#include "demo.h"

using namespace kranich;

namespace {

Vec3 somewhere(std::mt19937& draw, double reach) {
  std::uniform_real_distribution<double> u(-reach, reach);
  return {u(draw), u(draw), u(draw)};
}

}  // namespace

TEST_CASE("a round bar's stresses are the textbook's, each load alone") {
  const double d = 0.01;
  const double pi = std::numbers::pi;
  const auto pulled = leg::round_stress(d, d / 2, {1000, 0, 0, 0});
  CHECK(pulled.normal == Approx(1000 * 4 / (pi * d * d)));
  CHECK(pulled.shear == 0);
  CHECK(pulled.von_mises == Approx(pulled.normal));
  const auto bent = leg::round_stress(d, d / 2, {0, 12, 0, 0});
  CHECK(bent.normal == Approx(32 * 12 / (pi * d * d * d)));
  const auto twisted = leg::round_stress(d, d / 2, {0, 0, 0, 12});
  CHECK(twisted.normal == 0);
  CHECK(twisted.shear == Approx(16 * 12 / (pi * d * d * d)));
  CHECK(twisted.von_mises == Approx(std::sqrt(3.0) * twisted.shear));
  CHECK(twisted.margin(twisted.von_mises) == Approx(0).margin(1e-12));
  CHECK(twisted.margin(2 * twisted.von_mises) == Approx(0.5));
}

TEST_CASE("a round section does not know which way it is bent, nor pull from push in its worst fibre") {
  const auto along = leg::round_stress(0.025, 0.002, {-400, 30, 0, 5});
  for (const double turn : {0.3, 1.1, 2.7, 4.0}) {
    const auto s = leg::round_stress(0.025, 0.002, {400, 30 * std::cos(turn), 30 * std::sin(turn), -5});
    CHECK(s.normal == Approx(along.normal));
    CHECK(s.shear == Approx(along.shear));
    CHECK(s.von_mises == Approx(along.von_mises));
  }
  // A thin wall: the pull over the circumference times the wall, within the wall's share of the radius.
  const auto thin = leg::round_stress(0.1, 0.0005, {1000, 0, 0, 0});
  CHECK(thin.normal == Approx(1000 / (std::numbers::pi * 0.0995 * 0.0005)));
}

TEST_CASE("a foot's load at the top keeps the whole moment, wherever the leg points") {
  std::mt19937 draw(7);
  for (int i = 0; i < 200; ++i) {
    const Vec3 top = somewhere(draw, 1);
    const Vec3 foot = top + somewhere(draw, 0.6);
    const Vec3 at = foot + somewhere(draw, 0.2);
    const Vec3 force = somewhere(draw, 5000);
    const auto load = leg::load_at_top(top, foot, at, force);
    CHECK(load.length == Approx((foot - top).norm()));
    CHECK(std::hypot(load.bending, load.torque) == Approx((at - top).cross(force).norm()));
    CHECK(std::abs(load.axial) <= force.norm() * (1 + 1e-12));
    // Seen from anywhere else it is the same leg.
    const Eigen::AngleAxisd turn(1.3, somewhere(draw, 1).normalized());
    const auto turned = leg::load_at_top(turn * top, turn * foot, turn * at, turn * force);
    CHECK(turned.axial == Approx(load.axial).margin(1e-6));
    CHECK(turned.bending == Approx(load.bending).margin(1e-6));
    CHECK(turned.torque == Approx(load.torque).margin(1e-6));
  }
}

TEST_CASE("a force in the leg's own line only pushes; a brake beside the leg also twists") {
  const Vec3 top{1.0, 0.5, 0.6};
  const Vec3 foot{1.0, 0.5, 0.1};
  const auto push = leg::load_at_top(top, foot, foot, {0, 0, 2000});
  CHECK(push.axial == Approx(-2000));
  CHECK(push.bending == Approx(0).margin(1e-9));
  CHECK(push.torque == Approx(0).margin(1e-9));
  // Drag of 300 N at an axle 80 mm outboard of the foot: bends by its height, twists by its offset.
  const auto brake = leg::load_at_top(top, foot, foot + Vec3{0, 0.08, 0}, {300, 0, 0});
  CHECK(brake.axial == Approx(0).margin(1e-9));
  CHECK(brake.bending == Approx(300 * 0.5));
  CHECK(std::abs(brake.torque) == Approx(300 * 0.08));
}

TEST_CASE("a pin in two outer lugs is sheared twice and bears on half of each") {
  const auto two = leg::pin_stress(3000, 0.008, 2, 0.01, 0.004);
  CHECK(two.shear * 2 * std::numbers::pi * 0.008 * 0.008 / 4 == Approx(3000));
  CHECK(two.inner_bearing * 0.008 * 0.01 == Approx(3000));
  CHECK(two.outer_bearing * 0.008 * 0.004 * 2 == Approx(3000));
  const auto one = leg::pin_stress(3000, 0.008, 1, 0.01, 0.004);
  CHECK(one.outer_bearing * 0.008 * 0.004 == Approx(3000));
}

TEST_CASE("a pure moment loads a square of equal bolts alike, twice the moment twice as much") {
  const std::vector<leg::Bolt> square{{0, 0, 0.006}, {0.05, 0, 0.006}, {0.05, 0.05, 0.006}, {0, 0.05, 0.006}};
  // A small force very far off the centre is as good as a moment alone.
  const double arm = 1e6;
  const auto loads = leg::bolt_group(square, 0, 1e-4, 0.025 + arm, 0.025);
  const double from_centre = 0.025 * std::sqrt(2.0);
  for (const double l : loads) CHECK(l == Approx(100 / (4 * from_centre)).epsilon(1e-5));
  const auto twice = leg::bolt_group(square, 0, 2e-4, 0.025 + arm, 0.025);
  for (size_t i = 0; i < 4; ++i) CHECK(twice[i] == Approx(2 * loads[i]));
  // A single bolt has nothing to turn about: it takes the force and no more.
  CHECK(leg::bolt_group({{0.1, 0.2, 0.006}}, 30, 40, 5, 5)[0] == Approx(50));
}

TEST_CASE("a block's glue holds its moment by the block's own section; its screws about the pressed edge") {
  const auto b = leg::block_pull(0.06, 0.045, 80, 0.13, 20, {{0.012, 2}, {0.048, 2}});
  CHECK(b.moment == Approx(80 * 0.13));
  CHECK(b.glue_shear * 0.06 * 0.045 == Approx(80));
  // The glue's stress grows in a straight line over the length: its sum and moment are those of the load.
  const double mean = 20 / (0.06 * 0.045);
  const double slope = (b.glue_peak - mean) / 0.03;
  CHECK(slope * 0.045 * 0.06 * 0.06 * 0.06 / 12 == Approx(b.moment));
  // Each screw pulls in proportion to its distance; together they hold the moment about the edge.
  const double near_pull = b.largest_screw_pull * 0.012 / 0.048;
  CHECK(2 * near_pull * 0.012 + 2 * b.largest_screw_pull * 0.048 == Approx(b.moment + 20 * 0.03));
  CHECK(leg::block_pull(0.06, 0.045, 80, 0.13, 20, {}).largest_screw_pull == 0);
}

TEST_CASE("every point of a cope lies on both tubes") {
  for (const double angle : {0.6, 1.0, std::numbers::pi / 2, 2.0})
    for (const double offset : {-0.002, 0.0, 0.0025}) {
      const leg::Cope cope{0.0095, 0.0127, angle, offset};
      // Main tube along x through the origin; the cut tube leaves it at the angle, in the plane y = offset.
      const Vec3 axis{std::cos(angle), 0, std::sin(angle)};
      const Vec3 across{-std::sin(angle), 0, std::cos(angle)};
      for (int i = 0; i < 36; ++i) {
        const double phi = radians(10.0 * i);
        const auto t = cope.at(phi);
        REQUIRE(t);
        // φ = 0 on the acute side, which is towards the main axis: against `across`.
        const Vec3 p = Vec3{0, offset, 0} + *t * axis -
                       cope.cut_radius * (std::cos(phi) * across - std::sin(phi) * Vec3{0, 1, 0});
        CHECK(std::hypot(p.y(), p.z()) == Approx(cope.main_radius));
        CHECK(p.z() > 0);
      }
      REQUIRE(cope.depth());
      CHECK(*cope.depth() > 0);
    }
  CHECK(leg::Cope{0.0095, 0.0127, 1, 0}.around() == Approx(0.019 * std::numbers::pi));
}

TEST_CASE("a drill angle does not depend on which end of pin or tube is named first") {
  std::mt19937 draw(11);
  for (int i = 0; i < 50; ++i) {
    const Vec3 tube = somewhere(draw, 1);
    const Vec3 pin = somewhere(draw, 1);
    const double angle = leg::drill_angle(tube, pin);
    CHECK(angle == Approx(leg::drill_angle(-tube, pin)));
    CHECK(angle == Approx(leg::drill_angle(pin, 3 * tube)));
    CHECK(angle <= std::numbers::pi / 2 + 1e-12);
    CHECK(std::cos(angle) == Approx(std::abs(tube.normalized().dot(pin.normalized()))).margin(1e-12));
  }
  // Foot ahead of the top rakes forward; outboard cants outward; 45° both by equal legs.
  const auto t = leg::tube_geometry({1.5, 0.3, 0.6}, {1.0, 0.8, 0.1});
  CHECK(t.rake == Approx(radians(45)));
  CHECK(t.cant == Approx(radians(45)));
  CHECK(t.length == Approx(0.5 * std::sqrt(3.0)));
}

TEST_CASE("toe by a small difference of the diagonals is the toe by both") {
  const auto j = leg::jig(0.11, 0.64, 0.905, 1.6, 0.075, 2.4);
  CHECK(j.bar_length == Approx(1.45));
  CHECK(j.axle_height == Approx(0.11 - 0.64 + 0.905));
  CHECK(j.square_diagonal == Approx(std::hypot(2.4, 0.725)));
  const double difference = 0.002;
  CHECK(leg::toe_of_difference(difference, j.square_diagonal, j.bar_length, 2.4) ==
        Approx(leg::toe_from_diagonals(j.square_diagonal + difference / 2, j.square_diagonal - difference / 2,
                                       j.bar_length, 2.4)));
}

TEST_CASE("geometry of a leg: a square cope, a square jig, a tube's angles") {
  const leg::Cope square{0.0127, 0.0159, std::numbers::pi / 2, 0};
  CHECK(*square.at(0) == Approx(0.0159));
  CHECK(*square.at(std::numbers::pi / 2) == Approx(std::sqrt(0.0159 * 0.0159 - 0.0127 * 0.0127)));
  CHECK_FALSE(leg::Cope{0.0127, 0.0159, 1, 0.02}.depth());
  const auto j = leg::jig(0.11, 0.64, 0.905, 1.6, 0.075, 2.4);
  CHECK(leg::toe_from_diagonals(j.square_diagonal, j.square_diagonal, j.bar_length, 2.4) ==
        Approx(0).margin(1e-12));
  // A bar turned by ψ about its middle: both diagonals by plane geometry.
  const double psi = radians(0.4);
  const auto end = [&](double side) {
    return std::hypot(2.4 + side * j.bar_length / 2 * std::sin(psi), j.bar_length / 2 * std::cos(psi));
  };
  CHECK(leg::toe_from_diagonals(end(1), end(-1), j.bar_length, 2.4) == Approx(psi).epsilon(1e-9));
  const auto t = leg::tube_geometry({1, 0.3, 0.6}, {1, 0.3, 0.1});
  CHECK(t.rake == 0);
  CHECK(t.cant == 0);
  CHECK(leg::drill_angle({0, 0, -1}, {1, 0, 0}) == Approx(std::numbers::pi / 2));
}

TEST_CASE("a group's bolts balance the load and its moment") {
  const std::vector<leg::Bolt> bolts{{0, 0, 0.005}, {0.06, 0, 0.006}, {0.03, 0.05, 0.005}};
  // Through the areas' centre every bolt takes its share by area.
  double area = 0;
  double cx = 0;
  double cy = 0;
  for (const auto& b : bolts) {
    area += b.diameter * b.diameter;
    cx += b.diameter * b.diameter * b.x;
    cy += b.diameter * b.diameter * b.y;
  }
  const auto loads = leg::bolt_group(bolts, 0, 900, cx / area, cy / area);
  for (size_t i = 0; i < bolts.size(); ++i)
    CHECK(loads[i] == Approx(900 * bolts[i].diameter * bolts[i].diameter / area));
  const auto glued = leg::block_pull(0.06, 0.045, 0, 0.13, 20, {{0.012, 2}, {0.048, 2}});
  CHECK(glued.glue_peak == Approx(20 / (0.06 * 0.045)));
  CHECK(leg::pin_stress(1000, 0.006, 1, 0.01, 0.01).shear ==
        Approx(2 * leg::pin_stress(1000, 0.006, 2, 0.01, 0.005).shear));
}
