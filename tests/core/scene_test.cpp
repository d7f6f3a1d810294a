// SPDX-License-Identifier: GPL-3.0-or-later
//! Solids as meshes: closed, right side out, as large as they are; the gear in space; STL read back.
#include "core/assess/scene.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cstring>

#include "core/assess/swing_state.h"
#include "core/io/stl.h"
#include "core/swing/swing.h"
#include "demo.h"

using namespace kranich;
using namespace kranich::motion;

namespace {

Box bounds_of(const Mesh& m) {
  Box b{m.points.front(), m.points.front()};
  for (const Vec3& p : m.points) {
    b.low = b.low.cwiseMin(p);
    b.high = b.high.cwiseMax(p);
  }
  return b;
}

}  // namespace

TEST_CASE("meshes are closed, right side out and hold what their solids hold") {
  const Box box{Vec3(-1, 2, 0.5), Vec3(1, 2.5, 1)};
  CHECK(is_closed(mesh_of(box)));
  CHECK(volume(mesh_of(box)) == Approx(2 * 0.5 * 0.5));
  const Vec3 axis = Vec3(1, 2, -0.5).normalized();
  const Cylinder cylinder{Vec3(0.3, -0.2, 1), axis, 0.2, 0.5};
  CHECK(is_closed(mesh_of(cylinder)));
  CHECK(volume(mesh_of(cylinder, 200)) == Approx(M_PI * 0.04 * 1).epsilon(1e-3));
  const Capsule capsule{Vec3(0, 0, 0), Vec3(0.6, 0.1, -0.4), 0.1};
  const double length = (capsule.to - capsule.from).norm();
  CHECK(is_closed(mesh_of(capsule)));
  CHECK(volume(mesh_of(capsule, 200)) == Approx(M_PI * 0.01 * length + 4.0 / 3 * M_PI * 0.001).epsilon(0.02));
  for (const double shoulder : {0.0, 0.03, 0.05}) {
    const RoundedWheel wheel{Vec3(1, 0.5, -0.6), axis, 0.4, 0.1, shoulder};
    const auto m = mesh_of(wheel, 200);
    INFO(shoulder);
    CHECK(is_closed(m));
    // Flat sides, a tread between the shoulders, and the shoulders as a turned quarter each (Pappus).
    const double r = shoulder, rim = 0.2 - r, flat = 0.1 - 2 * r;
    const double quarter = M_PI * r * r / 4;
    const double holds =
        M_PI * 0.04 * flat + 2 * (M_PI * rim * rim * r + quarter * 2 * M_PI * (rim + 4 * r / (3 * M_PI)));
    CHECK(volume(m) == Approx(holds).epsilon(0.01));
    for (const Vec3& p : m.points) {
      const double along = (p - wheel.centre).dot(wheel.axle);
      CHECK(std::abs(along) <= 0.05 + 1e-9);
      CHECK((p - wheel.centre - along * wheel.axle).norm() <= 0.2 + 1e-9);
    }
  }
  const Mesh twin = mirrored(mesh_of(capsule));
  CHECK(is_closed(twin));
  CHECK(volume(twin) == Approx(volume(mesh_of(capsule))));
}

TEST_CASE("a door's mesh lies where its corners are, its thickness on the inside") {
  const Design d = demo("dunnock");
  for (const Door& door : d.doors) {
    const auto panel = panel_of(door);
    REQUIRE(panel);
    for (const double opening : {0.0, 0.5, panel->open}) {
      const Mesh m = mesh_of(*panel, opening);
      CHECK(is_closed(m));
      CHECK(volume(m) == Approx(panel->width * (panel->rear - panel->hinge.point).norm() *
                                std::max(panel->thickness, 1e-3)));
      // No point lies further on the side it opens to than the outer face.
      const Vec3 opens = panel->hinge.direction.cross(panel->across(opening));
      for (const Vec3& p : m.points) CHECK((p - panel->hinge.point).dot(opens) <= 1e-9);
    }
  }
}

TEST_CASE("the gear in space stands where the swing has it, both sides, and knows what is near") {
  const Design d = demo("dunnock");
  const Assessment a = assess(d);
  for (const double share : {0.0, 0.4, 1.0}) {
    const Scene scene = scene_of(d, a, share);
    std::vector<const ScenePart*> wheels;
    for (const auto& p : scene.parts) {
      CHECK(is_closed(p.mesh));
      CHECK(volume(p.mesh) > 0);
      if (p.kind == SceneKind::wheel) wheels.push_back(&p);
    }
    REQUIRE(wheels.size() == 3);
    // One of the mains is the other's mirror image, and both are where the swing says.
    for (const LegSwing& s : a.swings) {
      const auto& m = s.input->moving;
      const auto at = swing::wheel_at(m.moves, m.parts.front(), share * m.moves.full_turn);
      const bool there = std::any_of(wheels.begin(), wheels.end(), [&](const ScenePart* w) {
        const Box b = bounds_of(w->mesh);
        return ((b.low + b.high) / 2 - at.centre).norm() < 0.01;
      });
      CHECK(there);
      const auto clear = swing::clearance_at(*s.input, share * m.moves.full_turn);
      const bool told = std::any_of(scene.parts.begin(), scene.parts.end(), [&](const ScenePart& p) {
        return p.near && p.near->distance == clear.distance && in_words(p.near->to) == clear.obstacle &&
               p.near->too_near() == (clear.distance < s.input->wanted_clearance);
      });
      CHECK(told);
    }
    const Box one = bounds_of(wheels[0]->mesh), other = bounds_of(wheels[1]->mesh);
    CHECK(one.low.x() == Approx(other.low.x()));
    CHECK(one.low.y() == Approx(-other.high.y()));
  }
  // Twelve edges a well, both sides; rings and stringers beside them.
  const auto lines = scene_of(d, a, 0).lines;
  CHECK(std::count_if(lines.begin(), lines.end(), [](const SceneLine& l) { return l.well; }) == 3 * 12);
  CHECK(std::any_of(lines.begin(), lines.end(), [](const SceneLine& l) { return !l.well; }));
  // A fixed leg stands as it is; what is not known is left out.
  Design fixed = demo("wheatear");
  const auto count = [](const Design& x) {
    const auto s = scene_of(x, assess(x), 0.3);
    return std::count_if(s.parts.begin(), s.parts.end(),
                         [](const auto& p) { return p.kind == SceneKind::wheel; });
  };
  CHECK(count(fixed) >= 2);
  const auto before = count(fixed);
  fixed.gear.main().wheel.diameter = Given();
  CHECK(count(fixed) < before);
  CHECK(scene_of(Design(), assess(Design()), 0).parts.empty());
}

TEST_CASE("what a leg sweeps is written as STL and read back") {
  const Design d = demo("dunnock");
  const Leg& leg = d.gear.main();
  const auto solids = swept(leg, 0.1);
  const auto steps = static_cast<size_t>(std::ceil(leg.retraction.unit_angle / 0.1 - 1e-9)) + 1;
  const auto moving = std::get<swing::MovingLeg>(swing::moving_leg(leg));
  CHECK(solids.size() == steps * moving.parts.size());
  const std::string text = stl_of(solids);
  size_t faces = 0;
  for (const auto& m : solids) faces += m.faces.size();
  REQUIRE(text.size() == 84 + 50 * faces);
  std::uint32_t told = 0;
  std::memcpy(&told, text.data() + 80, 4);
  CHECK(told == faces);
  // Sum of the signed tetrahedra of what was written, mm³.
  double six = 0;
  for (size_t i = 0; i < faces; ++i) {
    float v[12];
    std::memcpy(v, text.data() + 84 + 50 * i, sizeof v);
    const Eigen::Vector3d p(v[3], v[4], v[5]), q(v[6], v[7], v[8]), r(v[9], v[10], v[11]),
        n(v[0], v[1], v[2]);
    six += p.dot(q.cross(r));
    if (n.norm() > 0.5) CHECK(n.dot((q - p).cross(r - p)) >= -1e-3);
  }
  double holds = 0;
  for (const auto& m : solids) holds += volume(m);
  CHECK(six / 6 * 1e-9 == Approx(holds).epsilon(1e-3));
  Leg still = leg;
  still.retraction.pivot = Point();
  CHECK(swept(still, 0.1).empty());
}

TEST_CASE("near is told by the wheel's size, too near by what is wanted") {
  const NearMiss miss{0.02, 0.006, 0.05, Text("wall")};
  CHECK_FALSE(miss.too_near());
  CHECK(miss.share() == Approx((0.05 - 0.02) / (0.05 - 0.006)));
  CHECK(NearMiss{0.005, 0.006, 0.05, Text("wall")}.too_near());
  CHECK(NearMiss{-0.001, 0, 0.05, Text("wall")}.too_near());
  CHECK(NearMiss{0.2, 0.006, 0.05, Text("wall")}.share() == 0);
  CHECK(NearMiss{0.001, 0.006, 0.05, Text("wall")}.share() == 1);
  // Two wheels on a fixed axle are two, as wide apart as they are.
  Design d = demo("wheatear");
  const auto wheels = [&] {
    const auto s = scene_of(d, assess(d), 0);
    return std::count_if(s.parts.begin(), s.parts.end(),
                         [](const auto& p) { return p.kind == SceneKind::wheel; });
  };
  const auto before = wheels();
  d.gear.third().wheel_spacing = Given(0.2);
  CHECK(wheels() == before + 1);
}
