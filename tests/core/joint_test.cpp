// SPDX-License-Identifier: GPL-3.0-or-later
//! Pins, fasteners, blocks, plates and posts against the formulas worked by hand.
#include <catch2/catch.hpp>
#include <numbers>

#include "core/force/materials.h"
#include "core/leg/joints.h"
#include "core/leg/strength.h"
#include "core/leg/structure.h"
#include "core/leg/thread.h"
#include "said.h"

using namespace kranich;
using leg::check_joint;
using leg::JointLoad;

namespace {

const Material& of(const std::string& name) { return *force::find_material({}, name); }

leg::PartMargin check(const Joint& j, const Vec3& force, const Vec3& moment,
                      std::vector<leg::FastenerLoad>* loads = nullptr) {
  std::vector<leg::FastenerLoad> mine;
  return check_joint(j, {}, {JointLoad{"case", force, moment}}, 1.5, loads ? *loads : mine);
}

Joint joint(JointKind kind) {
  Joint j;
  j.name = "joint";
  j.kind = kind;
  j.at = {{}, Given(0.0), Given(0.0), Given(0.0)};
  return j;
}

Joint pin() {
  Joint j = joint(JointKind::pin);
  j.material = "aircraft bolt";
  j.into = "aluminium 2024-T3";
  j.diameter = Given(0.01);
  j.planes = Given(2.0);
  j.inner_thickness = Given(0.012);
  j.outer_thickness = Given(0.005);
  j.brace_arm = Given(0.25);
  return j;
}

Joint four_bolts() {
  Joint j = joint(JointKind::fasteners);
  j.material = "bolt, property class 8.8";
  j.into = "birch plywood";
  j.inner_thickness = Given(0.006);
  for (const double u : {-0.04, 0.04})
    for (const double v : {-0.02, 0.02}) j.fasteners.push_back({{}, Given(u), Given(v), Given(0.005)});
  return j;
}

}  // namespace

TEST_CASE("a pin carries the force and the couple over its brace's arm") {
  const auto p = check(pin(), Vec3(0, 0, 6000), Vec3(500, 0, 0));
  const double load = 6000 + 500 / 0.25;
  CHECK(p.load == Approx(load));
  // Bearing on the outer lugs: half the load each.
  const double bearing = load / (2 * 0.01 * 0.005);
  CHECK(p.decides == "bearing in the outer lugs");
  CHECK(p.margin == Approx(of("aluminium 2024-T3").bearing / (1.5 * bearing) - 1));
  Joint thick = pin();
  thick.outer_thickness = Given(0.05);
  thick.inner_thickness = Given(0.05);
  const auto sheared = check(thick, Vec3(0, 0, 6000), Vec3(500, 0, 0));
  CHECK(sheared.decides == "pin in shear");
  const double area = std::numbers::pi * 1e-4 / 4;
  CHECK(sheared.margin == Approx(of("aircraft bolt").shear / (1.5 * load / (2 * area)) - 1));
  thick.planes = Given(1.0);
  CHECK(check(thick, Vec3(0, 0, 6000), Vec3(500, 0, 0)).margin + 1 == Approx((sheared.margin + 1) / 2));
}

TEST_CASE("a joint names what it lacks") {
  Joint j = pin();
  j.brace_arm = Given();
  CHECK(says(check(j, Vec3::UnitZ(), Vec3::Zero()).missing, "brace"));
  j.carries = "front";  // a tube's end carries no moment
  CHECK(check(j, Vec3::UnitZ(), Vec3::Zero()).missing.empty());
  j.diameter = Given();
  CHECK(says(check(j, Vec3::UnitZ(), Vec3::Zero()).missing, "diameter"));
  j = pin();
  j.material = "cheese";
  CHECK(check(j, Vec3::UnitZ(), Vec3::Zero()).missing == "the pin's material");
  j = pin();
  j.into = "";
  CHECK(check(j, Vec3::UnitZ(), Vec3::Zero()).missing == "the lugs' material");
  j = pin();
  j.at.x = Given();
  CHECK(check(j, Vec3::UnitZ(), Vec3::Zero()).missing == "the joint's place");
  for (const JointKind kind : {JointKind::fasteners, JointKind::block, JointKind::plate, JointKind::post}) {
    const auto p = check(joint(kind), Vec3::UnitZ(), Vec3::Zero());
    CHECK_FALSE(p.missing.empty());
    CHECK(std::isnan(p.margin));
  }
  std::vector<leg::FastenerLoad> none;
  CHECK(check_joint(pin(), {}, {}, 1.5, none).missing == "a load case");
  Joint tube = pin();
  tube.carries = "front";
  CHECK(says(check_joint(tube, {}, {}, 1.5, none).missing, "front"));
}

TEST_CASE("fasteners share a force and take up a moment about the compressed edge") {
  std::vector<leg::FastenerLoad> loads;
  const auto p = check(four_bolts(), Vec3(1000, 0, 0), Vec3(0, 60, 0), &loads);
  REQUIRE(loads.size() == 4);
  double pulled = 0;
  for (const auto& f : loads) {
    CHECK(f.shear == Approx(250));
    if (f.at.x() < 0) CHECK(f.tension == Approx(0).margin(1e-9));
    if (f.at.x() > 0) CHECK(f.tension == Approx(60 * 0.08 / (2 * 0.08 * 0.08)));
    pulled += f.tension * (f.at.x() + 0.04);
  }
  CHECK(pulled == Approx(60));  // the moment is all there
  // The plywood's bearing decides: 250 N on 5 × 6 mm.
  CHECK(p.margin == Approx(25e6 / (1.5 * 250 / (0.005 * 0.006)) - 1));
  // A plate with edges beyond its bolts rolls about the edge: every bolt pulls.
  Joint wide = four_bolts();
  wide.length = Given(0.12);
  loads.clear();
  check(wide, Vec3(1000, 0, 0), Vec3(0, 60, 0), &loads);
  double back = 0;
  for (const auto& f : loads) back += f.tension * (f.at.x() + 0.06);
  CHECK(back == Approx(60));
}

TEST_CASE("a twist in the face turns the group") {
  std::vector<leg::FastenerLoad> loads;
  check(four_bolts(), Vec3(400, 0, 0), Vec3(0, 0, 20), &loads);
  REQUIRE(loads.size() == 4);
  // By the elastic vector method by hand.
  const double squares = 4 * (0.04 * 0.04 + 0.02 * 0.02);
  for (const auto& f : loads) {
    const double fx = 100 - 20 * f.at.y() / squares;
    const double fy = 20 * f.at.x() / squares;
    CHECK(f.shear == Approx(std::hypot(fx, fy)));
  }
}

TEST_CASE("a leg that hangs below presses, a wall is pulled off") {
  std::vector<leg::FastenerLoad> loads;
  check(four_bolts(), Vec3(0, 0, 4000), Vec3::Zero(), &loads);
  for (const auto& f : loads) CHECK(f.tension == 0);
  loads.clear();
  check(four_bolts(), Vec3(0, 0, -4000), Vec3::Zero(), &loads);
  for (const auto& f : loads) CHECK(f.tension == Approx(1000));
  Joint wall = four_bolts();
  wall.face = JointFace::facing_aft;
  loads.clear();
  check(wall, Vec3(800, 0, 0), Vec3::Zero(), &loads);
  for (const auto& f : loads) {
    CHECK(f.tension == Approx(200));
    CHECK(f.shear == Approx(0).margin(1e-9));
    CHECK(f.at.x() == 0);  // they lie in the face
  }
  wall.face = JointFace::facing_side;
  loads.clear();
  check(wall, Vec3(0, 0, 900), Vec3::Zero(), &loads);
  for (const auto& f : loads) {
    CHECK(f.shear == Approx(225));
    CHECK(f.at.y() == 0);
  }
}

TEST_CASE("wood screws hold what their wood lets them, bolts their core") {
  Joint j = four_bolts();
  j.inner_thickness = Given(0.05);  // bearing does not decide
  const auto bolts = check(j, Vec3(10, 0, 0), Vec3(0, 80, 0));
  const double pull = 80 * 0.08 / (2 * 0.08 * 0.08);
  const double core = 0.75 * std::numbers::pi * 25e-6 / 4 * 800e6;
  CHECK(bolts.margin == Approx(core / (1.5 * pull) - 1).epsilon(1e-3));
  j.holds = Given(300.0);
  const auto screws = check(j, Vec3(10, 0, 0), Vec3(0, 80, 0));
  CHECK(screws.margin == Approx(300 / (1.5 * pull) - 1).epsilon(1e-3));
  CHECK(screws.margin < 0);  // tiny screws under aft bending: the nose block that was ripped out
  CHECK(says(screws.decides, "pulled"));
}

TEST_CASE("ordinary rivets and five-minute glue are spoken of") {
  Joint j = four_bolts();
  j.material = "blind rivet, ordinary";
  CHECK(says(check(j, Vec3(500, 0, 0), Vec3::Zero()).remark, "structural"));
  const auto weak = check(j, Vec3(500, 0, 0), Vec3::Zero());
  j.material = "blind rivet, structural stainless";
  j.inner_thickness = Given(0.05);
  CHECK(check(j, Vec3(500, 0, 0), Vec3::Zero()).margin > weak.margin);
  Joint block = joint(JointKind::block);
  block.length = Given(0.06);
  block.width = Given(0.03);
  block.material = "epoxy, five-minute";
  CHECK(says(check(block, Vec3(50, 0, 0), Vec3(0, 5, 0)).remark, "brittle"));
}

TEST_CASE("a glued block peels at its edge; glue and screws are not added") {
  Joint j = joint(JointKind::block);
  j.length = Given(0.06);
  j.width = Given(0.03);
  j.material = "wood glue";
  const Vec3 drag(200, 0, 0);
  const Vec3 moment(0, 24, 0);
  const auto glued = check(j, drag, moment);
  const double peak = 6 * 24 / (0.03 * 0.06 * 0.06);
  CHECK(glued.margin == Approx(of("wood glue").ultimate / (1.5 * peak) - 1));
  CHECK(glued.decides == "glue peeled at its edge");
  // Screws alone, rolling about the compressed edge.
  j.fasteners = {{{}, Given(-0.02), Given(0.0), Given(0.003)}, {{}, Given(0.02), Given(0.0), Given(0.003)}};
  j.holds = Given(150.0);
  const double screw = 24 * 0.05 / (0.01 * 0.01 + 0.05 * 0.05);
  const auto both = check(j, drag, moment);
  CHECK(both.margin == Approx(std::max(glued.margin, 150 / (1.5 * screw) - 1)));
  j.holds = Given(5000.0);
  const auto strong = check(j, drag, moment);
  CHECK(strong.margin == Approx(5000 / (1.5 * screw) - 1));
  CHECK(strong.decides == "screws pulled out");
}

TEST_CASE("a plate spreads the load: larger is better, foam is soft") {
  Joint j = joint(JointKind::plate);
  j.material = "epoxy, slow";
  j.into = "foam, 30 g/l";
  j.length = Given(0.10);
  j.width = Given(0.08);
  const auto small = check(j, Vec3(20, 0, 300), Vec3(0, 4, 0));
  const double press = 300 / 0.008 + 6 * 4 / (0.08 * 0.01);
  CHECK(small.stress == Approx(press));
  CHECK(small.decides == "face crushed at the plate's edge");
  j.length = Given(0.20);
  CHECK(check(j, Vec3(20, 0, 300), Vec3(0, 4, 0)).margin > small.margin);
  j.into = "birch plywood";
  CHECK(check(j, Vec3(20, 0, 300), Vec3(0, 4, 0)).margin > 10);
}

TEST_CASE("a post bears on the spar, is crushed, or gives way as a column") {
  Joint j = joint(JointKind::post);
  j.material = "ash";
  j.into = "spruce";
  j.diameter = Given(0.012);
  j.length = Given(0.05);
  const double area = std::numbers::pi * 0.012 * 0.012 / 4;
  const auto stub = check(j, Vec3(0, 0, 1000), Vec3::Zero());
  CHECK(stub.decides == "bearing on the spar");
  CHECK(stub.margin == Approx(of("spruce").bearing * area / 1500 - 1));
  j.length = Given(0.6);
  const auto slender = check(j, Vec3(0, 0, 1000), Vec3::Zero());
  CHECK(slender.decides == "post giving way as a column");
  const double inertia = std::numbers::pi * std::pow(0.012, 4) / 64;
  CHECK(slender.margin == Approx(std::numbers::pi * std::numbers::pi * 12e9 * inertia / 0.36 / 1500 - 1));
  CHECK(std::isinf(check(j, Vec3(0, 0, -1000), Vec3::Zero()).margin));
}

TEST_CASE("the worst of several cases is kept with its name") {
  std::vector<leg::FastenerLoad> loads;
  const auto p = check_joint(four_bolts(), {},
                             {{"small", Vec3(100, 0, 0), Vec3::Zero()},
                              {"large", Vec3(900, 0, 0), Vec3::Zero()},
                              {"middle", Vec3(500, 0, 0), Vec3::Zero()}},
                             1.5, loads);
  CHECK(p.in_case == "large");
  REQUIRE(loads.size() == 4);
  CHECK(loads[0].shear == Approx(225));
}

TEST_CASE("a fastener is told to be sheared or pulled, by what uses it up") {
  // A couple across the face pulls; a force along it shears. Metal beneath, so that nothing bears first.
  Joint j = four_bolts();
  j.into = "chrome-molybdenum steel";
  j.inner_thickness = Given(0.05);
  CHECK(says(check(j, Vec3(8000, 0, 0), Vec3::Zero()).decides, "sheared"));
  CHECK(says(check(j, Vec3(0, 0, -8000), Vec3::Zero()).decides, "pulled"));
}

TEST_CASE("only what deserves a remark gets one") {
  Joint block = joint(JointKind::block);
  block.length = Given(0.05);
  block.width = Given(0.03);
  block.into = "birch plywood";
  block.material = "epoxy, five-minute";
  CHECK(says(check(block, Vec3(50, 0, 0), Vec3::Zero()).remark, "brittle"));
  block.material = "epoxy, slow";
  const auto slow = check(block, Vec3(50, 0, 0), Vec3::Zero());
  CHECK(std::isfinite(slow.margin));
  CHECK_FALSE(says(slow.remark, "brittle"));
}

TEST_CASE("a thread is the coarse one of its diameter, or none") {
  const auto thread = leg::coarse_thread(0.3125 * 0.0254);
  REQUIRE(thread);
  CHECK(thread->name == "5/16-18");
  CHECK(thread->pitch == Approx(0.0254 / 18));
  CHECK(thread->tap_drill() == Approx(0.3125 * 0.0254 - 0.0254 / 18));
  CHECK(leg::coarse_thread(0.006)->name == "M6");
  CHECK(leg::coarse_thread(0.00602)->name == "M6");
  CHECK_FALSE(leg::coarse_thread(0.0073));
}
