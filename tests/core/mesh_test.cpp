// SPDX-License-Identifier: GPL-3.0-or-later
//! Solids near each other, and meshes drawn elsewhere: read, found, kept clear of.
#include <catch2/catch.hpp>
#include <filesystem>
#include <fstream>
#include <numbers>
#include <random>

#include "core/assess/assess.h"
#include "core/io/mesh_file.h"
#include "core/io/stl.h"
#include "core/io/variants.h"
#include "core/motion/linkage.h"
#include "core/motion/triangles.h"
#include "core/place/keepout.h"
#include "core/shop/sheets.h"
#include "core/swing/swing.h"
#include "demo.h"

using namespace kranich;
using motion::Box;
using motion::Capsule;
using motion::Obstacle;
using motion::RoundedWheel;
using motion::SkinAt;
using motion::Triangles;

namespace {

struct Any {
  std::mt19937 random;
  double operator()(double from, double to) { return std::uniform_real_distribution<>(from, to)(random); }
  Vec3 place(double size) { return {(*this)(-size, size), (*this)(-size, size), (*this)(-size, size)}; }
};

//! How far a solid reaches along a direction: the other way to say what it is.
double reach(const RoundedWheel& w, const Vec3& n) {
  const double along = std::abs(n.dot(w.axle));
  const double r = w.shoulder;
  return n.dot(w.centre) + (w.diameter / 2 - r) * std::sqrt(std::max(0.0, 1 - along * along)) +
         (w.width / 2 - r) * along + r;
}
double reach(const Box& b, const Vec3& n) { return n.cwiseMax(0).dot(b.high) + n.cwiseMin(0).dot(b.low); }

//! The widest gap between two planes that hold a solid each: for convex solids apart it is their distance.
template <class A, class B>
double widest_gap(const A& a, const B& b, Vec3 n) {
  const auto gap = [&](const Vec3& d) { return -reach(a, Vec3(-d)) - reach(b, d); };
  double best = gap(n);
  for (double step = 0.02; step > 1e-10; step /= 2)
    for (bool better = true; better;) {
      better = false;
      const Vec3 side = n.unitOrthogonal();
      for (const Vec3& d : {side, Vec3(-side), Vec3(n.cross(side)), Vec3(-n.cross(side))}) {
        const Vec3 tried = (n + step * d).normalized();
        if (const double g = gap(tried); g > best) {
          best = g;
          n = tried;
          better = true;
        }
      }
    }
  return best;
}

std::shared_ptr<const Triangles> skin_of(const motion::Mesh& mesh) {
  return std::make_shared<const Triangles>(mesh);
}

struct Folder {
  std::filesystem::path at =
      std::filesystem::temp_directory_path() / ("kranich-mesh-" + std::to_string(std::random_device()()));
  Folder() { std::filesystem::create_directories(at); }
  ~Folder() { std::filesystem::remove_all(at); }
  void write(const std::string& name, const std::string& bytes) const {
    std::ofstream(at / name, std::ios::binary) << bytes;
  }
};

std::string fault_of(const std::string& bytes) {
  const auto made = read_mesh(bytes);
  const auto* fault = std::get_if<std::string>(&made);
  return fault ? *fault : "";
}

}  // namespace

TEST_CASE(
    "a distance is what two planes between the solids prove, however nearly they lie along each other") {
  Any any{std::mt19937(11)};
  int apart = 0;
  for (int i = 0; i < 3000; ++i) {
    RoundedWheel wheel{any.place(0.8), any.place(1).normalized(), any(0.1, 0.5), any(0.02, 0.18), 0};
    if (i % 3 == 0) wheel.axle = (Vec3::UnitZ() + any(0, 1e-3) * any.place(1)).normalized();
    if (i % 7 == 0) wheel.axle = (Vec3::UnitY() + any(0, 1e-2) * any.place(1)).normalized();
    if (i % 2) wheel.shoulder = any(0, std::min(wheel.width, wheel.diameter) / 2);
    const Box box{{-0.6, -0.2, -0.01}, {0.5, 0.2, 0.0}};
    const auto n = motion::nearest(wheel, Obstacle(box));
    if (n.distance < 1e-6) continue;
    ++apart;
    const Vec3 way = n.on_part - n.on_obstacle;
    CHECK(way.norm() == Approx(n.distance).margin(1e-8));
    CHECK(widest_gap(wheel, box, way.normalized()) == Approx(n.distance).margin(6e-7));
  }
  CHECK(apart > 2000);
}

TEST_CASE("two flat wheels side by side, one leaning a little, are apart at its rim") {
  for (const double lean : {1e-5, 1e-4, 1e-3, 1e-2, 0.1}) {
    const RoundedWheel one{Vec3::Zero(), Vec3::UnitY(), 0.3, 0.1, 0};
    const Vec3 axle(0, std::cos(lean), std::sin(lean));
    const motion::Cylinder other{Vec3(0, 0.2, 0), axle, 0.15, 0.05};
    // Its lowest or highest rim leans towards the other's flat side, as wide as it is itself.
    const double rim = 0.2 - 0.05 * std::cos(lean) - 0.15 * std::sin(lean) - 0.05;
    CHECK(motion::nearest(one, Obstacle(other)).distance == Approx(rim).margin(1e-8));
  }
}

TEST_CASE("a rod keeps its length, is at rest where it stands, and says where it comes off") {
  Any any{std::mt19937(5)};
  int came_off = 0;
  for (int i = 0; i < 300; ++i) {
    const motion::Axis axis{any.place(0.2), any.place(1).normalized()};
    const Vec3 ball = axis.point + any.place(0.1);
    const Vec3 point = axis.point + any.place(0.4);
    const motion::HeldRod rod(axis, ball, point);
    CHECK(rod.turn(point) == Approx(0).margin(2e-7));
    const Vec3 way = any.place(0.5);
    double before = 0;
    for (int k = 0; k <= 200; ++k) {
      const Vec3 moved = point + way * k / 200;
      const double turn = rod.turn(moved);
      CHECK(std::isfinite(turn) == rod.reaches(moved));
      if (!std::isfinite(turn)) {
        ++came_off;
        break;
      }
      CHECK((axis.turn(turn) * ball - moved).norm() == Approx(rod.length()).epsilon(1e-9));
      // No leap to the other branch.
      CHECK(std::abs(std::remainder(turn - before, 2 * std::numbers::pi)) < 0.8);
      before = turn;
    }
  }
  CHECK(came_off > 20);
}

TEST_CASE("a bar that runs right through a box is in it, though no edge of the box meets it") {
  KeepOut k;
  k.shape = Shape::prism;
  k.runs = RunsAlong::fore_and_aft;
  k.low.x = Given(-2);
  k.high.x = Given(2);
  for (const auto& [y, z] : {std::pair{0.49, 0.49}, {0.51, 0.49}, {0.5, 0.52}}) {
    k.outline.emplace_back();
    put(k.outline.back().at, 0, y, z);
  }
  const auto room = place::clearance(Box{{0, 0, 0}, {1, 1, 1}}, k);
  REQUIRE(room);
  CHECK(*room < 0);
  CHECK(*place::clearance(Box{{0, 0, 0.6}, {1, 1, 1}}, k) == Approx(0.08));
}

TEST_CASE("a mesh of a box is kept clear of like the box, inside and out, on either side") {
  Any any{std::mt19937(3)};
  const Box box{{0.1, 0.2, -0.1}, {0.7, 0.5, 0.4}};
  const Vec3 shift(0.05, -0.02, 0.1);
  const Box shifted{box.low + shift, box.high + shift};
  int through = 0;
  int within = 0;
  for (const bool port : {false, true}) {
    const Obstacle mesh = port ? motion::mirrored(Obstacle(SkinAt{skin_of(motion::mesh_of(box)), shift}))
                               : Obstacle(SkinAt{skin_of(motion::mesh_of(box)), shift});
    const Obstacle solid = port ? motion::mirrored(Obstacle(shifted)) : Obstacle(shifted);
    const auto round = *motion::bounds(mesh);
    CHECK((round.low - motion::bounds(solid)->low).norm() +
              (round.high - motion::bounds(solid)->high).norm() <
          1e-12);
    for (int i = 0; i < 400; ++i) {
      const RoundedWheel wheel{any.place(0.9), any.place(1).normalized(), any(0.05, 0.3), 0.04, any(0, 0.02)};
      const Capsule rod{any.place(0.9), any.place(0.9), any(0, 0.03)};
      const auto alike = [&](const motion::Nearest& a, const motion::Nearest& b, double told) {
        CHECK((a.distance < 0) == (b.distance < 0));
        CHECK((told < 0) == (b.distance < 0));
        if (b.distance < 0) return false;
        CHECK(a.distance == Approx(b.distance).margin(1e-7));
        CHECK((a.on_part - a.on_obstacle).norm() == Approx(a.distance).margin(1e-6));
        CHECK(told == Approx(b.distance).margin(1e-7));
        return true;
      };
      const auto wheel_there = motion::nearest(wheel, mesh);
      if (!alike(wheel_there, motion::nearest(wheel, solid), motion::apart(wheel, mesh))) {
        const bool all_in = ((wheel.centre - std::get<Box>(solid).low).array() > wheel.diameter).all() &&
                            ((std::get<Box>(solid).high - wheel.centre).array() > wheel.diameter).all();
        ++(all_in ? within : through);
      }
      alike(motion::nearest(rod, mesh), motion::nearest(rod, solid), motion::apart(rod, mesh));
      // Told roughly, it is never told too far, nor further off than a third.
      const double d = motion::nearest(wheel, solid).distance;
      const double rough = motion::apart(wheel, mesh, 0.05);
      if (d > 0) CHECK(rough <= d + 1e-7);
      if (d > 0.08) CHECK(rough > 0.05 - 1e-9);
    }
  }
  CHECK(through > 20);
  // Wholly inside it touches nothing and is not clear.
  const Obstacle hall = SkinAt{skin_of(motion::mesh_of(Box{{-1, -1, -1}, {1, 1, 1}})), Vec3::Zero()};
  CHECK(motion::nearest(Capsule{{0, 0, 0}, {0.1, 0, 0}, 0.05}, hall).distance == Approx(-0.95));
  // A skin that is open has no inside.
  auto tray = motion::mesh_of(Box{{-1, -1, -1}, {1, 1, 1}});
  tray.faces.pop_back();
  CHECK(
      motion::nearest(Capsule{{0, 0, 0}, {0.1, 0, 0}, 0.05}, SkinAt{skin_of(tray), Vec3::Zero()}).distance ==
      Approx(0.85));
}

TEST_CASE("how far a wheel stands through a skin is how far it must go back") {
  const auto hall = skin_of(motion::mesh_of(Box{{-1, -1, -1}, {1, 1, 0}}));
  for (const double into : {0.005, 0.02, 0.08}) {
    const RoundedWheel wheel{Vec3(0.2, 0.1, 0.15 - into), Vec3::UnitY(), 0.3, 0.06, 0.01};
    CHECK(motion::nearest(wheel, Obstacle(SkinAt{hall, Vec3::Zero()})).distance ==
          Approx(-into).margin(1e-6));
  }
}

TEST_CASE("triangles know their inside, their outline and what a plane cuts of them") {
  const auto tube = motion::mesh_of(motion::Cylinder{Vec3(1, 0.5, 0.2), Vec3::UnitX(), 0.1, 0.4}, 64);
  const Triangles t(tube);
  CHECK(t.closed());
  Any any{std::mt19937(8)};
  const double flat = 0.1 * std::cos(std::numbers::pi / 64);
  for (int i = 0; i < 2000; ++i) {
    const Vec3 p = Vec3(1, 0.5, 0.2) + Vec3(any(-0.5, 0.5), any(-0.13, 0.13), any(-0.13, 0.13));
    const double r = std::hypot(p.y() - 0.5, p.z() - 0.2);
    if (r > flat && r < 0.1) continue;
    CHECK(t.holds(p) == (std::abs(p.x() - 1) < 0.4 && r < flat));
  }
  const auto lines = t.cut_across(1.1);
  REQUIRE(lines.size() == 1);
  double area = 0;
  for (size_t i = 1; i < lines[0].size(); ++i)
    area += lines[0][i - 1].x() * lines[0][i].y() - lines[0][i].x() * lines[0][i - 1].y();
  CHECK((lines[0].front() - lines[0].back()).norm() < 1e-12);
  CHECK(std::abs(area) / 2 == Approx(std::numbers::pi * 0.01).epsilon(2e-3));
  CHECK(t.cut_across(1.5).empty());
  // Seen along itself: two rims. From the side: two edges, and the rims once more.
  double length = 0;
  for (const auto& [a, b] : t.outline(2))
    if (std::abs(a.x() - b.x()) > 0.1) length += (a - b).norm();
  CHECK(length == Approx(1.6));
  // A sheet with one corner bent up: all its rim, and no inside.
  const Triangles sheet(motion::Mesh{{{0, 0, 0}, {1, 0, 0}, {1, 1, 0}, {0, 1, 0.2}}, {{0, 1, 2}, {0, 2, 3}}});
  CHECK_FALSE(sheet.closed());
  CHECK(sheet.outline(2).size() == 4);
  CHECK_FALSE(sheet.holds({0.5, 0.5, -0.01}));
}

TEST_CASE("STL and OBJ are read as they are written, whatever they are called") {
  const auto box = motion::mesh_of(Box{{0, 0, 0}, {0.3, 0.2, 0.1}});
  const auto binary = read_mesh(stl_of({box}));
  REQUIRE(std::holds_alternative<motion::Mesh>(binary));
  const auto& read = std::get<motion::Mesh>(binary);
  CHECK(read.faces.size() == box.faces.size());
  CHECK(read.points.size() == 8);  // joined again
  CHECK(motion::is_closed(read));
  CHECK(motion::volume(read) == Approx(300. * 200 * 100).epsilon(1e-6));

  const std::string text =
      "solid wedge\n facet normal 0 0 1\n  outer loop\n   vertex 0 0 0\n   vertex 1.5e1 0 0\n   vertex 0 +20 "
      "0\r\n"
      "  endloop\n endfacet\nendsolid wedge\n";
  const auto ascii = read_mesh(text);
  REQUIRE(std::holds_alternative<motion::Mesh>(ascii));
  CHECK(std::get<motion::Mesh>(ascii).points[1].x() == 15);
  CHECK(std::get<motion::Mesh>(ascii).points[2].y() == 20);

  const std::string obj =
      "# a square and a triangle\no part\nv 0 0 0\nv 1 0 0\nv 1 1 0\nv 0 1 0\nvt 0 0\nvn 0 0 1\n"
      "f 1/1/1 2/1/1 3//1 4\nv 0 0 1\nf -1 -5 -4\n";
  const auto square = read_mesh(obj);
  REQUIRE(std::holds_alternative<motion::Mesh>(square));
  REQUIRE(std::get<motion::Mesh>(square).faces.size() == 3);
  CHECK(std::get<motion::Mesh>(square).faces[2] == std::array{4, 0, 1});
}

TEST_CASE("a broken mesh is named by line or triangle") {
  const std::string facet =
      "facet normal 0 0 1\nouter loop\nvertex 0 0 0\nvertex 1 0 0\nvertex 0 1 0\nendloop\n";
  CHECK(fault_of("") == "neither STL nor OBJ");
  CHECK(fault_of("hello, world\n") == "neither STL nor OBJ");
  CHECK(fault_of("solid a\nendsolid a\n") == "no triangles in it");
  CHECK(fault_of("solid a\n" + facet) == "it ends within a facet: cut short?");
  CHECK(fault_of("solid a\n" + facet + facet) == "line 8: a facet begins before the last one has ended");
  CHECK(fault_of("solid a\nvertex 0 0 0\n") == "line 2: a corner outside a facet");
  CHECK(fault_of("solid a\nfacet\nvertex 0 0 0\nendfacet\n") ==
        "line 4: a facet of 1 corners; it must have three");
  CHECK(fault_of("solid a\nfacet\nvertex 0 zero 0\n") == "line 3: “zero” is not a number");
  CHECK(fault_of("solid a\nfacet\nvertex 0 nan 0\n") == "line 3: “nan” is not a number");
  CHECK(fault_of("solid a\nfacet\nvertex 0 1\n") == "line 3: a corner of fewer than three numbers");
  CHECK(fault_of("solid a\nfasset\n") == "line 2: “fasset” is no word of an STL file");
  CHECK(fault_of("v 0 0 0\nv 1 0 0\nf 1 2 3\n") == "line 3: corner 3, where 2 have been given");
  CHECK(fault_of("v 0 0 0\nv 1 0 0\nf 1 2 0\n") == "line 3: corner 0, where 2 have been given");
  CHECK(fault_of("v 0 0 0\nv 1 0 0\nf 1 2\n") == "line 3: a face of fewer than three corners");
  CHECK(fault_of("v 0 0 0\nf one\n") == "line 2: “one” is not the number of a corner");
  std::string cut = stl_of({motion::mesh_of(Box{{0, 0, 0}, {1, 1, 1}})});
  cut.resize(cut.size() - 20);
  CHECK(fault_of(cut) == "cut short: 12 triangles are announced, 11 are there");
  std::string wrong = stl_of({motion::mesh_of(Box{{0, 0, 0}, {1, 1, 1}})});
  for (size_t i = 0; i < 4; ++i) wrong[84 + 50 * 3 + 12 + i] = '\xff';
  CHECK(fault_of(wrong) == "triangle 4: a corner that is not a number");
  std::string many(84, ' ');
  many[80] = many[81] = many[82] = '\x7f';
  many[83] = 0;
  CHECK(fault_of(many).find("100000 at most") != std::string::npos);
}

TEST_CASE("a mesh is turned and sized as the keep-out says, and stands where its origin is put") {
  Folder folder;
  // Three legs of unlike length from the origin, along the file's x, y and z.
  folder.write("legs.obj", "v 0 0 0\nv 10 0 0\nv 0 20 0\nv 0 0 30\nf 1 2 3\nf 1 3 4\nf 1 4 2\n");
  const auto reach_of = [&](MeshUnit unit, MeshAxes axes) {
    Design d;
    KeepOut k;
    k.shape = Shape::mesh;
    k.file = "legs.obj";
    k.unit = unit;
    k.axes = axes;
    put(k.low, 1, 2, 3);
    d.airframe.keep_outs.push_back(k);
    load_meshes(d, folder.at);
    const auto& skin = d.airframe.keep_outs.front().skin;
    REQUIRE(skin.triangles);
    // Right-handed as the file: the solid angle at the origin is not turned inside out.
    const auto& p = skin.triangles->mesh().points;
    CHECK(p[1].cross(p[2]).dot(p[3]) > 0);
    const Box box = *place::box_of(d.airframe.keep_outs.front());
    return Vec3(box.low + box.high - 2 * Vec3(1, 2, 3));
  };
  const auto is = [](const Vec3& got, double x, double y, double z) {
    CHECK((got - Vec3(x, y, z)).norm() < 1e-12);
  };
  is(reach_of(MeshUnit::millimetres, MeshAxes::x_aft_z_up), 0.01, 0.02, 0.03);
  is(reach_of(MeshUnit::centimetres, MeshAxes::x_forward_z_up), -0.1, -0.2, 0.3);
  is(reach_of(MeshUnit::metres, MeshAxes::x_starboard_z_up), -20, 10, 30);
  is(reach_of(MeshUnit::inches, MeshAxes::x_port_z_up), 20 * 0.0254, -10 * 0.0254, 30 * 0.0254);
  is(reach_of(MeshUnit::millimetres, MeshAxes::x_aft_y_up), 0.01, -0.03, 0.02);
  is(reach_of(MeshUnit::millimetres, MeshAxes::x_forward_y_up), -0.01, 0.03, 0.02);
  is(reach_of(MeshUnit::millimetres, MeshAxes::x_starboard_y_up), 0.03, 0.01, 0.02);
  is(reach_of(MeshUnit::millimetres, MeshAxes::x_port_y_up), -0.03, -0.01, 0.02);
}

TEST_CASE("a duct drawn elsewhere is passed like one entered here, and one that is gone is not passed over") {
  Folder folder;
  Design d = demo("redshank");
  Design entered = d;
  entered.airframe.keep_outs.clear();
  KeepOut box;
  box.name = "duct";
  Leg& leg = entered.gear.main();
  put(leg.retraction.unit_low, -0.04, -0.02, -0.03);
  put(leg.retraction.unit_high, 0.04, 0.02, 0.03);
  const Vec3 near = leg.retraction.pivot.vec() + Vec3(0.05, 0.02, 0.03);
  put(box.low, near.x(), near.y(), near.z());
  put(box.high, near.x() + 0.08, near.y() + 0.05, near.z() + 0.06);
  entered.airframe.keep_outs.push_back(box);
  Design drawn = entered;
  KeepOut& mesh = drawn.airframe.keep_outs.front();
  mesh.shape = Shape::mesh;
  mesh.file = "duct.stl";
  mesh.high = {};
  put(mesh.low, near.x(), near.y(), near.z());
  folder.write("duct.stl", stl_of({motion::mesh_of(Box{Vec3::Zero(), Vec3(0.08, 0.05, 0.06)})}));
  REQUIRE_FALSE(save_project(drawn, folder.at / "drawn.kranich"));

  const auto opened = load_project(folder.at / "drawn.kranich");
  REQUIRE(opened.design);
  CHECK(opened.strange.empty());
  const auto value = [](const Design& design, std::string_view id) {
    std::vector<double> list;
    for (const auto& f : assess(design, {~0u, {}, false}).findings)
      if (f.measure_id == id) list.push_back(f.value);
    return list;
  };
  for (const char* id : {"swing.clearance", "place.keep_out"}) {
    const auto as_box = value(entered, id);
    const auto as_mesh = value(*opened.design, id);
    REQUIRE(as_box.size() == as_mesh.size());
    INFO(id);
    CHECK_FALSE(as_box.empty());
    for (size_t i = 0; i < as_box.size(); ++i) CHECK(std::abs(as_mesh[i] - as_box[i]) < 1e-5);
  }
  // A variant of it has the same mesh.
  Design with = *opened.design;
  keep_variant(with, "as it was", "");
  CHECK(variant(with, "as it was")->airframe.keep_outs.front().skin.triangles ==
        with.airframe.keep_outs.front().skin.triangles);
  // Another file: what was read is dropped, and the same one is not read twice.
  Design again = *opened.design;
  load_meshes(again, folder.at);
  CHECK(again.airframe.keep_outs.front().skin == opened.design->airframe.keep_outs.front().skin);
  folder.write("duct.stl", stl_of({motion::mesh_of(Box{Vec3::Zero(), Vec3(0.1, 0.05, 0.06)}),
                                   motion::mesh_of(Box{Vec3::Zero(), Vec3(0.01, 0.05, 0.06)})}));
  load_meshes(again, folder.at);
  CHECK(again.airframe.keep_outs.front().skin.triangles->bounds().high.x() == Approx(0.1));

  std::filesystem::remove(folder.at / "duct.stl");
  load_meshes(again, folder.at);
  CHECK(place::solids_of(again.airframe.keep_outs.front()).empty());
  const auto a = assess(again, {~0u, {}, false});
  const auto unknown = std::find_if(a.findings.begin(), a.findings.end(), [](const Finding& f) {
    return f.measure_id == "place.keep_out" && f.verdict == Verdict::unknown;
  });
  REQUIRE(unknown != a.findings.end());
  CHECK(in_words(unknown->remark).find("“duct.stl” is not there") != std::string::npos);
  folder.write("duct.stl", "not a mesh");
  load_meshes(again, folder.at);
  CHECK(again.airframe.keep_outs.front().skin.fault == "“duct.stl”: neither STL nor OBJ");
}
