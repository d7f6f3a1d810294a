// SPDX-License-Identifier: GPL-3.0-or-later
//! Place where only one design in a hundred goes: twin wheels that lean, plates and what runs into them, an
//! aircraft that cannot stand on what it is given.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

#include "core/assess/assess.h"
#include "core/assess/loading_state.h"
#include "core/assess/standing.h"
#include "core/force/leg_law.h"
#include "core/motion/mesh.h"
#include "core/place/keepout.h"
#include "core/place/tandem.h"
#include "core/place/tipping.h"
#include "core/stance/stance.h"
#include "demo.h"

namespace kranich {
namespace {

TEST_CASE("of twin wheels one lifts where the other has the whole load, and never beyond a right angle") {
  const place::WheelSize tyre{0.3, 0.1};
  const double load = 2000;
  const double spacing = 0.25;
  const double pressure = 2.5e5;
  const auto level = place::twin_wheels(load, spacing, tyre, pressure, 0.1, 0, 0.8);
  CHECK(level.load_port == Approx(load / 2));
  CHECK(level.lifts_at > 0);
  CHECK(level.lifts_at < radians(45));
  const auto at = place::twin_wheels(load, spacing, tyre, pressure, 0.1, level.lifts_at, 0.8);
  CHECK(at.load_port == Approx(0).margin(1e-6));
  CHECK(at.load_starboard == Approx(load));
  const auto before = place::twin_wheels(load, spacing, tyre, pressure, 0.1, 0.99 * level.lifts_at, 0.8);
  CHECK(before.load_port > 0);
  // So close together that neither ever lifts.
  CHECK(place::twin_wheels(load, 0.005, tyre, pressure, 0.1, 0, 0.8).lifts_at ==
        Approx(std::numbers::pi / 2));
}

TEST_CASE("a unit's distance to a slanting duct is its nearest point's, inside it the way out") {
  const place::Box unit{Vec3(-0.1, 0.2, -0.05), Vec3(0.1, 0.3, 0.05)};
  KeepOut duct;
  duct.shape = Shape::cylinder;
  duct.radius = Given(0.02);
  const auto distance = [&](const Vec3& from, const Vec3& to) {
    duct.low.set(from);
    duct.high.set(to);
    return place::clearance(unit, duct).value();
  };
  // Its nearer end decides, whichever it is and on whichever side it lies.
  CHECK(distance({0.3, 0.25, 0}, {0.2, 0.25, 0}) == Approx(0.1 - 0.02));
  CHECK(distance({0.2, 0.25, 0}, {0.3, 0.25, 0}) == Approx(0.1 - 0.02));
  CHECK(distance({-0.2, 0.25, 0}, {-0.3, 0.25, 0}) == Approx(0.1 - 0.02));
  CHECK(distance({0, 0.1, 0}, {0, 0.05, 0}) == Approx(0.1 - 0.02));
  CHECK(distance({0, 0.35, 0.2}, {0, 0.35, -0.2}) == Approx(0.05 - 0.02));
  // Past a corner.
  CHECK(distance({0.13, 0.34, -1}, {0.13, 0.34, 1}) == Approx(0.05 - 0.02));
  // Through it: five centimetres to the nearest face, and the duct's own thickness.
  CHECK(distance({-1, 0.25, 0}, {1, 0.25, 0}) == Approx(-0.05 - 0.02));
  CHECK(distance({-1, 0.29, 0}, {1, 0.29, 0}) == Approx(-0.01 - 0.02));
}

TEST_CASE("a mount's plate stands where its face has it, as high as its cheeks or its box") {
  Joint j;
  j.kind = JointKind::plate;
  put(j.at, 1, 0.5, -0.1);
  j.length = Given(0.2);
  j.width = Given(0.1);
  j.thickness = Given(0.004);
  CHECK(place::plate_of(j)->high.isApprox(Vec3(1.1, 0.55, -0.096)));
  CHECK(place::plate_of(j)->low.isApprox(Vec3(0.9, 0.45, -0.1)));
  j.cheeks = Given(0.03);
  CHECK(place::plate_of(j)->high.z() == Approx(-0.07));
  j.box_depth = Given(0.02);
  CHECK(place::plate_of(j)->high.z() == Approx(-0.07));
  j.box_depth = Given(0.05);
  CHECK(place::plate_of(j)->high.z() == Approx(-0.05));
  j.face = JointFace::facing_aft;
  CHECK(place::plate_of(j)->low.isApprox(Vec3(0.95, 0.4, -0.15)));
  CHECK(place::plate_of(j)->high.isApprox(Vec3(1, 0.6, -0.05)));
  j.face = JointFace::facing_side;
  CHECK(place::plate_of(j)->low.isApprox(Vec3(0.9, 0.45, -0.15)));
  j.kind = JointKind::block;
  CHECK(place::plate_of(j));
  for (const JointKind other : {JointKind::pin, JointKind::fasteners, JointKind::post}) {
    j.kind = other;
    CHECK_FALSE(place::plate_of(j));
  }
}

TEST_CASE("an aircraft whose wheels stand inside one another neither stands nor sits") {
  const place::RoundWheel nose{0, -0.8, 0.15};
  const place::RoundWheel main{1.5, -0.8, 0.2};
  const place::RoundWheel tail{4, 0, 0};
  const Vec3 ballast(0.2, 0, 0);
  const Vec3 cg(1.2, 0, 0);
  REQUIRE(place::on_its_tail(500, cg, nose, main, tail, ballast));
  CHECK_FALSE(place::on_its_tail(500, cg, {1.52, -0.8, 0.05}, main, tail, ballast));
  CHECK_FALSE(place::on_its_tail(500, cg, nose, main, {1.52, -0.8, 0.05}, ballast));
  CHECK_FALSE(place::on_its_tail(500, cg, nose, main, tail, Vec3(2.5, 0, 0)));
}

//! An outline of (x, z) corners, run athwartships from y to y.
KeepOut prism(const std::vector<std::pair<double, double>>& outline, double from, double to) {
  KeepOut k;
  k.name = "web";
  k.shape = Shape::prism;
  k.low.y = Given(from);
  k.high.y = Given(to);
  for (const auto& [x, z] : outline) {
    k.outline.emplace_back();
    k.outline.back().at.x = Given(x);
    k.outline.back().at.z = Given(z);
  }
  return k;
}

TEST_CASE("a prism fills its outline: as much as the outline's area times its run, hollows left free") {
  // An L, either way round, with a corner too many on a straight edge.
  const std::vector<std::pair<double, double>> l{{0, 0}, {1, 0}, {2, 0}, {2, 1}, {1, 1}, {1, 3}, {0, 3}};
  auto other = l;
  std::reverse(other.begin(), other.end());
  for (const auto& outline : {l, other}) {
    const KeepOut k = prism(outline, 0.2, 0.7);
    const auto solids = place::solids_of(k);
    double volume = 0;
    for (const auto& solid : solids) {
      const auto mesh = motion::mesh_of(std::get<motion::Wedge>(solid));
      CHECK(motion::is_closed(mesh));
      CHECK(motion::volume(mesh) > 0);
      volume += motion::volume(mesh);
    }
    CHECK(volume == Approx(4 * 0.5));
    const auto distance = [&](const Vec3& p) {
      return motion::nearest(motion::Capsule{p, p, 0}, solids[0]).distance;
    };
    CHECK(std::isfinite(distance({5, 0, 0})));
    double hollow = 1e9, inside = 1e9, beside = 1e9, over = 1e9;
    for (const auto& solid : solids) {
      const auto at = [&](const Vec3& p) {
        return motion::nearest(motion::Capsule{p, p, 0}, solid).distance;
      };
      hollow = std::min(hollow, at({1.5, 0.4, 2}));
      inside = std::min(inside, at({0.5, 0.4, 2.5}));
      beside = std::min(beside, at({0.5, 1.0, 2.5}));
      over = std::min(over, at({2.3, 0.4, 1.4}));
    }
    CHECK(hollow == Approx(0.5));
    CHECK(inside < 0);
    CHECK(beside == Approx(0.3));
    CHECK(over == Approx(0.5));
    CHECK(place::box_of(k)->low.isApprox(Vec3(0, 0.2, 0)));
    CHECK(place::box_of(k)->high.isApprox(Vec3(2, 0.7, 3)));
  }
  // One that crosses itself, one of two corners, one without a run: none of them is anything.
  CHECK(place::solids_of(prism({{0, 0}, {1, 1}, {1, 0}, {0, 1}}, 0, 1)).empty());
  CHECK(place::solids_of(prism({{0, 0}, {1, 1}}, 0, 1)).empty());
  CHECK(place::solids_of(prism(l, 0.5, 0.5)).empty());
}

TEST_CASE("a wheel's distance to a prism is that to boxes that fill the same, and mirrors") {
  const KeepOut k = prism({{0, 0}, {2, 0}, {2, 1}, {0, 1}}, -0.4, 0.6);
  const motion::Obstacle box = motion::Box{{0, -0.4, 0}, {2, 0.6, 1}};
  for (int i = 0; i < 40; ++i) {
    const double t = 0.7 * i;
    const motion::RoundedWheel w{Vec3(1 + 2.5 * std::cos(t), 0.3 * std::sin(3 * t), 0.5 + 2 * std::sin(t)),
                                 Vec3(std::sin(t), std::cos(t), 0.3).normalized(), 0.6, 0.2, 0.05};
    double least = 1e9, twin = 1e9;
    for (const auto& solid : place::solids_of(k)) {
      least = std::min(least, motion::nearest(w, solid).distance);
      const motion::RoundedWheel other{mirrored(w.centre), mirrored(w.axle), w.diameter, w.width, w.shoulder};
      twin = std::min(twin, motion::nearest(other, motion::mirrored(solid)).distance);
    }
    INFO(t);
    CHECK(least == Approx(motion::nearest(w, box).distance).margin(2e-6));
    CHECK(twin == Approx(least).margin(1e-9));
  }
}

TEST_CASE("a unit's distance to plane and prism: straight before the one, past an edge of the other") {
  const place::Box unit{Vec3(-0.1, 0.2, -0.05), Vec3(0.1, 0.3, 0.05)};
  KeepOut plane;
  plane.shape = Shape::plane;
  put(plane.low, 0, 0, 0.2);
  put(plane.high, 0, 0, 0.1);  // free below it
  CHECK(place::clearance(unit, plane).value() == Approx(0.15));
  put(plane.high, 0, 0, 0.9);  // free above it
  CHECK(place::clearance(unit, plane).value() == Approx(-0.25));
  put(plane.high, 0.3, 0, 0.6);
  const Vec3 n = Vec3(0.3, 0, 0.4).normalized();
  CHECK(place::clearance(unit, plane).value() == Approx(n.dot(Vec3(-0.1, 0, -0.05) - Vec3(0, 0, 0.2))));
  CHECK_FALSE(place::box_of(plane));

  const KeepOut web = prism({{0.2, -1}, {0.4, -1}, {0.4, 1}, {0.2, 1}}, 0, 1);
  CHECK(place::clearance(unit, web).value() == Approx(0.1));
  const KeepOut edge = prism({{0.13, 0.09}, {0.4, 0.09}, {0.4, 0.4}, {0.13, 0.4}}, -1, 1);
  CHECK(place::clearance(unit, edge).value() == Approx(0.05));
  CHECK(place::clearance(unit, prism({{0, -1}, {0.05, -1}, {0.05, 1}, {0, 1}}, 0, 1)).value() < -0.02);
  // What is not told is no room.
  plane.high = {};
  CHECK_FALSE(place::clearance(unit, plane));
}

TEST_CASE("a sloping floor as a plane bounds the swing, and one not told is asked for") {
  Design d = demo("dunnock");
  const Assessment before = assess(d);
  const auto clearance = [](const Assessment& a, std::string_view key) {
    for (const auto& f : a.findings)
      if (f.measure_id == "swing.clearance" && f.subject.leg == key) return f.value;
    return std::nan("");
  };
  KeepOut& floor = d.airframe.keep_outs.emplace_back();
  floor.name = "floor";
  floor.shape = Shape::plane;
  const auto asked = [](const Assessment& a) {
    return std::any_of(a.findings.begin(), a.findings.end(), [](const Finding& f) {
      return f.measure_id == "place.keep_out" && f.subject.key == "floor" && f.verdict == Verdict::unknown;
    });
  };
  CHECK(asked(assess(d)));
  const Well& well = d.gear.main().retraction.well;
  const double middle = (well.low.z + well.high.z) / 2;
  put(floor.low, 2.4, 0, middle);
  put(floor.high, 2.4, 0, middle - 1);
  const Assessment after = assess(d);
  CHECK_FALSE(asked(after));
  CHECK(clearance(after, "main") < clearance(before, "main"));
}

TEST_CASE("the original marked on a picture: wheel, axle, leg and height against how this one stands") {
  Design d = demo("wheatear");
  REQUIRE_FALSE(d.airframe.propellers.empty());
  const auto told = [](const Assessment& a, const char* id, const std::string& leg) {
    for (const auto& f : a.findings)
      if (f.measure_id == id && f.subject.leg == leg) return f.value;
    return std::nan("");
  };
  CHECK(std::isnan(told(assess(d), "stance.original_height", "")));
  const Assessment now = assess(d);
  const LoadingState* l = now.loading(d.stance.target_loading);
  REQUIRE(l);
  REQUIRE(l->rest);
  // Aircraft axes into the ground's, by a rotation of its own; heights over the ground by the heave.
  const Mat3 to_ground =
      (Eigen::AngleAxisd(l->rest->pitch, Vec3::UnitY()) * Eigen::AngleAxisd(-l->rest->roll, Vec3::UnitX()))
          .toRotationMatrix();
  const auto on_ground = [&](const Vec3& p) -> Vec3 { return to_ground * p + Vec3(0, 0, l->rest->heave); };
  const auto axle = [&](const Leg& leg) {
    const size_t i = wheel_of(d, leg.id);
    return on_ground(stance::axle_at_rest((*now.wheels)[i], l->rest->wheels[i]));
  };
  const Leg &main = d.gear.main(), &third = d.gear.third();
  const double hub = on_ground(d.airframe.propellers[0].hub.vec()).z();
  Original& o = d.original;
  // As this one stands itself: nothing differs.
  o.main_x = main.axle.x;
  o.main_z = Given(axle(main).z());
  o.main_diameter = main.wheel.diameter;
  o.third_x = Given(main.axle.x + axle(third).x() - axle(main).x());
  o.third_z = Given(axle(third).z());
  o.third_diameter = third.wheel.diameter;
  o.propeller_z = Given(hub);
  Assessment a = assess(d);
  for (const char* id : {"stance.original_wheel", "stance.original_axle", "stance.original_strut"})
    for (const std::string& leg : {main.id, third.id}) {
      INFO(id << " " << leg);
      CHECK(told(a, id, leg) == Approx(0).margin(2e-4));
    }
  CHECK(told(a, "stance.original_height", "") == Approx(0).margin(1e-9));
  // An original with larger wheels further aft on longer legs, standing higher.
  o.main_x.si += 0.05;
  o.main_diameter.si += 0.02;
  o.main_z.si += 0.01;
  o.propeller_z.si += 0.04;
  a = assess(d);
  CHECK(told(a, "stance.original_wheel", main.id) == Approx(-0.02).margin(1e-9));
  CHECK(told(a, "stance.original_axle", main.id) == Approx(-0.05).margin(2e-4));
  CHECK(told(a, "stance.original_strut", main.id) == Approx(-0.03).margin(2e-4));
  CHECK(told(a, "stance.original_strut", third.id) == Approx(-0.04).margin(2e-4));
  CHECK(told(a, "stance.original_height", "") == Approx(-0.04).margin(1e-9));
  CHECK(told(a, "stance.original_axle", third.id) == Approx(0).margin(2e-4));
  // A propeller that nobody has entered is asked for.
  d.airframe.propellers.clear();
  CHECK(std::isnan(told(assess(d), "stance.original_strut", main.id)));
}

}  // namespace
}  // namespace kranich
