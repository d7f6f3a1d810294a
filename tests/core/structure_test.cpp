// SPDX-License-Identifier: GPL-3.0-or-later
//! Load cases against the rule by hand, legs against statics, and what the demos' parts are left with.
#include "core/leg/structure.h"

#include <catch2/catch.hpp>
#include <numbers>

#include "core/assess/assess.h"
#include "core/assess/cures.h"
#include "core/assess/landing_state.h"
#include "core/assess/strength_state.h"
#include "core/force/materials.h"
#include "core/leg/alignment.h"
#include "core/motion/retract.h"
#include "demo.h"
#include "findings.h"
#include "said.h"

using namespace kranich;
using leg::LoadCase;

namespace {

leg::CaseInput tourer() {
  leg::CaseInput in{};
  in.main = in.tricycle = in.brakes = true;
  in.weight = 6000;
  in.share = 3000;
  in.ground_factor = 2.2;
  in.inertia_factor = 2.87;
  in.tail_down_pitch = radians(12);
  return in;
}

const LoadCase& named(const leg::LoadCases& all, const std::string& name) {
  for (const auto& c : all.cases)
    if (c.name == name) return c;
  FAIL("no case " << name);
  return all.cases.front();
}

//! A steel strut straight down from (2, 1, 0) to a wheel 0.8 below, no offset.
Design with_strut() {
  Design d = with_legs();
  Leg& l = d.gear.main();
  l.top = {{}, Given(2.0), Given(1.0), Given(0.0)};
  l.axle = {{}, Given(2.0), Given(1.0), Given(-0.8)};
  l.wheel_offset = Given(0.0);
  l.wheel.diameter = Given(0.4);
  l.tube_diameter = Given(0.06);
  l.tube_wall = Given(0.004);
  l.material = "chrome-molybdenum steel";
  return d;
}

double tube_modulus(double outer, double wall) {
  const double inner = outer - 2 * wall;
  return std::numbers::pi * (std::pow(outer, 4) - std::pow(inner, 4)) / (32 * outer);
}

}  // namespace

TEST_CASE("a full-size main leg's cases are the rule's") {
  const auto all = leg::load_cases(tourer());
  CHECK(all.missing.empty());
  const auto& up = named(all, "level landing, spin-up");
  CHECK(up.force.z() == Approx(2.2 * 3000));
  CHECK(up.force.x() == Approx(0.25 * 2.87 * 3000));
  CHECK(up.force.y() == 0);
  CHECK_FALSE(up.at_ground);
  CHECK(named(all, "level landing, spring-back").force.x() == Approx(-0.25 * 2.87 * 3000));
  CHECK(named(all, "one wheel").force == up.force);
  const auto& tail_down = named(all, "tail-down landing").force;
  CHECK(tail_down.norm() == Approx(2.2 * 3000));
  CHECK(std::atan2(-tail_down.x(), tail_down.z()) == Approx(radians(12)));
  const auto& in = named(all, "side load inboard");
  CHECK(in.force.y() == Approx(-0.5 * 6000));
  CHECK(in.force.z() == Approx(1.33 * 3000));
  CHECK(in.at_ground);
  CHECK(named(all, "side load outboard").force.y() == Approx(0.33 * 6000));
  const auto& braked = named(all, "braked roll");
  CHECK(braked.force.x() == Approx(0.8 * 1.33 * 3000));
  CHECK(braked.at_ground);
}

TEST_CASE("without brakes nothing is braked; without a load factor landings are named as missing") {
  auto in = tourer();
  in.brakes = false;
  for (const auto& c : leg::load_cases(in).cases) CHECK(c.name != "braked roll");
  in.ground_factor = std::nan("");
  const auto all = leg::load_cases(in);
  REQUIRE(all.missing.size() == 1);
  CHECK(says(all.missing[0], "load factor"));
  CHECK(all.cases.size() == 2);
  in = tourer();
  in.tail_down_pitch = std::nan("");
  CHECK(leg::load_cases(in).missing.size() == 1);
}

TEST_CASE("nose and tail wheels have cases of their own") {
  auto in = tourer();
  in.main = false;
  in.share = 800;
  const auto nose = leg::load_cases(in);
  REQUIRE(nose.cases.size() == 3);
  for (const auto& c : nose.cases) CHECK(c.force.z() == Approx(2.25 * 800));
  CHECK(named(nose, "nose wheel, aft").force.x() == Approx(0.8 * 2.25 * 800));
  CHECK(named(nose, "nose wheel, forward").force.x() == Approx(-0.4 * 2.25 * 800));
  CHECK(named(nose, "nose wheel, sideways").force.y() == Approx(0.7 * 2.25 * 800));
  in.tricycle = false;
  const auto tail = leg::load_cases(in);
  const auto& hit = named(tail, "tail wheel, obstruction").force;
  CHECK(hit.norm() == Approx(2.2 * 800));
  CHECK(hit.x() == Approx(hit.z()));
  CHECK(named(tail, "tail wheel, side").force.y() == Approx(800));
}

TEST_CASE("a model's cases are shares of its drop, more drag on grass") {
  auto in = tourer();
  in.model = true;
  in.share = 45;
  in.ground_factor = 6;
  const auto smooth = leg::load_cases(in);
  CHECK(named(smooth, "landing, drag aft").force.x() == Approx(0.5 * 270));
  CHECK(named(smooth, "landing, side inboard").force.y() == Approx(-0.3 * 270));
  in.rough_field = true;
  CHECK(named(leg::load_cases(in), "landing, drag aft").force.x() == Approx(0.8 * 270));
  in.factors.model_drag_rough = Given(0.6);
  CHECK(named(leg::load_cases(in), "landing, drag aft").force.x() == Approx(0.6 * 270));
  in.ground_factor = std::nan("");
  CHECK(leg::load_cases(in).cases.empty());
}

TEST_CASE("a leg of wire is as strong as wire of its thickness") {
  Design d = with_strut();
  Leg& l = d.gear.main();
  l.section = LegSection::bar;
  l.material = "music wire";
  for (const double diameter : {0.003, 0.006}) {
    l.tube_diameter = Given(diameter);
    const auto s = leg::check_structure(d, l, {{"hand", Vec3(0, 0, 100), false, ""}});
    const double stress = 100 / (std::numbers::pi / 4 * diameter * diameter);
    const double ultimate = 2211e6 / std::pow(1000 * diameter, 0.145);
    CHECK(part(s, "leg").margin == Approx(ultimate / (1.5 * stress) - 1).epsilon(0.01));
  }
}

TEST_CASE("a strut is a cantilever: bending, axial and twist as by hand") {
  const Design d = with_strut();
  const Vec3 f(1000, 500, 4000);
  const auto s = leg::check_structure(d, d.gear.main(), {{"hand", f, false, ""}});
  const auto& p = part(s, "leg");
  const double area = std::numbers::pi * (0.06 * 0.06 - 0.052 * 0.052) / 4;
  const double stress = 4000 / area + std::hypot(1000, 500) * 0.8 / tube_modulus(0.06, 0.004);
  CHECK(p.stress == Approx(stress).epsilon(1e-9));
  CHECK(p.margin == Approx(std::min(435e6 / stress, 670e6 / (1.5 * stress)) - 1).epsilon(1e-9));
  CHECK(p.in_case == "hand");
  CHECK(says(p.decides, "upper end"));
  // At the ground the arm is longer by the wheel's radius.
  const auto low = leg::check_structure(d, d.gear.main(), {{"hand", Vec3(1000, 0, 0), true, ""}});
  CHECK(part(low, "leg").stress == Approx(1000 * 1.0 / tube_modulus(0.06, 0.004)).epsilon(1e-9));
}

TEST_CASE("a solid bar, a rectangle, and what each lacks") {
  Design d = with_strut();
  Leg& l = d.gear.main();
  const std::vector<LoadCase> aft{{"aft", Vec3(300, 0, 0), false, ""}};
  l.section = LegSection::bar;
  const double bar = std::numbers::pi * std::pow(0.06, 3) / 32;
  CHECK(part(leg::check_structure(d, l, aft), "leg").stress == Approx(240 / bar).epsilon(1e-9));
  l.section = LegSection::rectangle;
  CHECK(says(part(leg::check_structure(d, l, aft), "leg").missing, "width"));
  l.section_width = Given(0.05);
  l.section_thickness = Given(0.01);
  CHECK(part(leg::check_structure(d, l, aft), "leg").stress ==
        Approx(240 * 6 / (0.01 * 0.05 * 0.05)).epsilon(1e-9));
  l.section = LegSection::tube;
  l.tube_wall = Given();
  CHECK(part(leg::check_structure(d, l, aft), "leg").missing == "the leg's wall");
  l.tube_wall = Given(0.04);
  CHECK(says(part(leg::check_structure(d, l, aft), "leg").missing, "half"));
  l.tube_wall = Given(0.004);
  l.material = "unobtainium";
  CHECK(says(part(leg::check_structure(d, l, aft), "leg").missing, "unobtainium"));
}

TEST_CASE("a printed strut is derated across its layers") {
  Design d = with_strut();
  const std::vector<LoadCase> aft{{"aft", Vec3(50, 0, 0), false, ""}};
  d.gear.main().material = "printed, tough polyester";
  const auto& m = *force::find_material({}, d.gear.main().material);
  const auto p = part(leg::check_structure(d, d.gear.main(), aft), "leg");
  CHECK(p.margin == Approx(m.ultimate * m.across / (1.5 * p.stress) - 1).epsilon(1e-9));
}

TEST_CASE("a brace takes the bending off the pivot") {
  Design d = with_strut();
  Leg& l = d.gear.main();
  l.retraction.fitted = true;
  l.retraction.pivot = l.top;
  l.retraction.direction = SwingDirection::inward;
  const std::vector<LoadCase> side{{"side", Vec3(0, -1000, 0), false, ""}};
  const double free = part(leg::check_structure(d, l, side), "leg").stress;
  CHECK(free == Approx(800 / tube_modulus(0.06, 0.004)).epsilon(1e-9));
  l.brace_leg = {{}, Given(2.0), Given(1.0), Given(-0.3)};
  l.brace_airframe = {{}, Given(2.0), Given(0.5), Given(-0.3)};
  const auto braced = part(leg::check_structure(d, l, side), "leg");
  // Below the brace half a metre bends; the pivot turns freely about x.
  const double below = 1000 * 0.5 / tube_modulus(0.06, 0.004);
  CHECK(braced.stress == Approx(below).epsilon(0.01));
  // Fore and aft the pivot holds as before.
  const std::vector<LoadCase> aft{{"aft", Vec3(1000, 0, 0), false, ""}};
  CHECK(part(leg::check_structure(d, l, aft), "leg").stress == Approx(free).epsilon(0.01));
}

TEST_CASE("a V of tubes carries by pull and push: forces at the foot balance") {
  Design d = with_strut();
  Leg& l = d.gear.main();
  l.path = LegPath::hinged_fore_and_aft;
  l.hinge = {{}, Given(2.0), Given(0.5), Given(0.0)};
  const auto tube = [](const char* name, double x) {
    Tube t;
    t.name = name;
    t.top = {{}, Given(x), Given(0.5), Given(0.0)};
    t.diameter = Given(0.03);
    t.wall = Given(0.002);
    t.material = "mild steel";
    return t;
  };
  l.tubes = {tube("front", 1.7), tube("rear", 2.3)};
  l.axle.y = Given(1.0);
  for (const char* name : {"front", "rear"}) {
    Joint j;
    j.name = std::string(name) + " fitting";
    j.carries = name;
    j.at = l.tubes[0].top;
    j.material = "aircraft bolt";
    j.into = "mild steel";
    j.diameter = Given(0.008);
    j.planes = Given(2.0);
    j.inner_thickness = j.outer_thickness = Given(0.004);
    l.joints.push_back(j);
  }
  l.spring.anchor_leg = {{}, Given(2.0), Given(1.0 - 1e-4), Given(-0.8 + 1e-4)};
  l.spring.anchor_airframe = {{}, Given(2.0), Given(0.0), Given(-0.8)};
  const auto s = leg::check_structure(d, l, {{"up", Vec3(0, 0, 1000), false, ""}});
  CHECK(s.mechanism.empty());
  // Moments about the hinge line: 1000 N at half a metre against the strut's pull at 0.8 m.
  const double pull = 1000 * 0.5 / 0.8;
  // What is left on the foot goes into two equal tubes.
  const Vec3 left = Vec3(0, 0, 1000) - Vec3(0, pull, 0);
  const Vec3 front = (Vec3(2, 1, -0.8) - Vec3(1.7, 0.5, 0)).normalized();
  const Vec3 rear = (Vec3(2, 1, -0.8) - Vec3(2.3, 0.5, 0)).normalized();
  const double each = left.dot((front + rear).normalized()) / (2 * front.dot((front + rear).normalized()));
  // Their upper ends carry it into their fittings.
  for (const char* fitting : {"front fitting", "rear fitting"})
    CHECK(part(s, fitting).load == Approx(-each).epsilon(0.06));
  CHECK(part(s, "front fitting").load == Approx(part(s, "rear fitting").load).epsilon(1e-6));
}

TEST_CASE("tubes that cannot hold a load say so") {
  Design d = with_strut();
  Tube t;
  t.name = "only";
  t.top = d.gear.main().top;
  t.diameter = Given(0.03);
  t.wall = Given(0.002);
  t.material = "mild steel";
  d.gear.main().tubes = {t};
  const auto s = leg::check_structure(d, d.gear.main(), {{"aft", Vec3(100, 0, 0), false, ""}});
  CHECK_FALSE(s.mechanism.empty());
  d.gear.main().tubes[0].material = "";
  CHECK(says(part(leg::check_structure(d, d.gear.main(), {}), "leg").missing, "only"));
}

TEST_CASE("a slender tube gives way as a column before it is crushed") {
  Design d = with_strut();
  Leg& l = d.gear.main();
  const auto tube = [](const char* name, double x, double y) {
    Tube t;
    t.name = name;
    t.top = {{}, Given(x), Given(y), Given(0.0)};
    t.diameter = Given(0.012);
    t.wall = Given(0.001);
    t.material = "mild steel";
    return t;
  };
  l.tubes = {tube("a", 1.4, 0.7), tube("b", 2.6, 0.7), tube("c", 2.0, 1.9)};
  const auto s = leg::check_structure(d, l, {{"up", Vec3(0, 0, 1500), false, ""}});
  REQUIRE(s.mechanism.empty());
  const auto& p = s.parts.front();
  CHECK(p.decides == "giving way as a column");
  // Euler by hand for the tube that decides.
  for (const auto& t : l.tubes) {
    if (t.name != p.part) continue;
    const double way = (motion::foot(l) - t.top.vec()).norm();
    const double inertia = std::numbers::pi * (std::pow(0.012, 4) - std::pow(0.010, 4)) / 64;
    const double euler = std::numbers::pi * std::numbers::pi * 205e9 * inertia / (way * way);
    CHECK(p.margin == Approx(euler / (1.5 * -p.load) - 1).epsilon(1e-6));
  }
}

TEST_CASE("an axle bends where it leaves the leg") {
  Design d = with_strut();
  Leg& l = d.gear.main();
  l.axle.y = Given(1.1);
  l.wheel_offset = Given(0.1);
  const std::vector<LoadCase> up{{"up", Vec3(0, 0, 2000), false, ""}};
  l.wheel_offset = Given();
  CHECK(says(part(leg::check_structure(d, l, up), "axle").missing, "outboard"));
  l.wheel_offset = Given(0.1);
  CHECK(part(leg::check_structure(d, l, up), "axle").missing == "the axle's diameter");
  l.axle_diameter = Given(0.025);
  CHECK(part(leg::check_structure(d, l, up), "axle").missing == "the axle's material");
  l.axle_material = "mild steel";
  const double stress = 200 / (std::numbers::pi * std::pow(0.025, 3) / 32);
  CHECK(part(leg::check_structure(d, l, up), "axle").stress == Approx(stress).epsilon(1e-9));
  l.axle_wall = Given(0.003);
  CHECK(part(leg::check_structure(d, l, up), "axle").stress ==
        Approx(200 / tube_modulus(0.025, 0.003)).epsilon(1e-9));
}

TEST_CASE("margins go with the load, and the worst part stands first") {
  const Design d = with_strut();
  const auto at = [&](double k) {
    return part(leg::check_structure(d, d.gear.main(), {{"aft", Vec3(k, 0, 0), false, ""}}), "leg").margin +
           1;
  };
  CHECK(at(500) == Approx(2 * at(1000)).epsilon(1e-9));
  for (const std::string name : {"dunnock", "redshank", "wheatear"}) {
    const auto a = assess(demo(name));
    REQUIRE(a.strengths.size() == 2);
    for (const auto& s : a.strengths) {
      INFO(name);
      CHECK(s.structure.mechanism.empty());
      for (size_t i = 0; i < s.structure.parts.size(); ++i) {
        const auto& p = s.structure.parts[i];
        INFO(p.part << " " << p.missing);
        CHECK(std::isfinite(p.margin));
        CHECK_FALSE(p.in_case.empty());
        if (i > 0) CHECK(s.structure.parts[i - 1].margin <= p.margin);
      }
    }
  }
}

TEST_CASE("what fails in a leg has cures that are true") {
  auto d = demo("wheatear");
  d.gear.main().tubes[1].diameter = Given(0.028);
  const auto a = assess(d);
  const Finding* worst = nullptr;
  for (const Finding* f : worst_of_each(a))
    if (f->measure_id == "leg.margin" && f->verdict == Verdict::fails) worst = f;
  REQUIRE(worst);
  const auto cures = cures_for(d, a, *worst);
  REQUIRE_FALSE(cures.empty());
  for (const auto& c : cures) {
    INFO(c.text);
    const auto after = assess(c.applied(d));
    for (const auto& f : after.findings)
      if (f.key() == worst->key()) CHECK(f.verdict != Verdict::fails);
  }
}

TEST_CASE("a material of one's own stands before the typical one") {
  auto d = demo("dunnock");
  const auto margin = [&] {
    const auto a = assess(d);
    return part(a.strengths[0].structure, "leg").margin;
  };
  const double typical = margin();
  Material own = *force::find_material({}, "chrome-molybdenum steel");
  own.yield = Given(2 * own.yield);
  own.ultimate = Given(2 * own.ultimate);
  d.materials.push_back(own);
  CHECK(margin() + 1 == Approx(2 * (typical + 1)).epsilon(1e-9));
  CHECK(force::material_names(d.materials).size() == force::typical_materials().size());
}

TEST_CASE("typical materials have what their kind needs, marked as defaults") {
  for (const auto& m : force::typical_materials()) {
    INFO(m.name);
    if (m.stuff != Stuff::adhesive) CHECK(m.youngs_modulus.origin == Origin::by_default);
    if (m.stuff == Stuff::laminate) CHECK(m.strain.known());
    if (m.stuff == Stuff::printed) CHECK((m.across > 0.39 && m.across < 0.61));
    const auto a = force::allowable_of(m, 0.003, false);
    CHECK(a.ultimate > 0);
    if (m.stuff == Stuff::metal) CHECK(a.yield < a.ultimate);
    if (m.stuff == Stuff::wire) CHECK(a.ultimate > 1e9);
  }
  // Thin wire is stronger.
  const auto& wire = *force::find_material({}, "music wire");
  CHECK(force::allowable_of(wire, 0.001, false).ultimate > force::allowable_of(wire, 0.006, false).ultimate);
}

TEST_CASE("the stress along a leg is there for every bar of every case, its greatest the part's own") {
  for (const std::string name : {"dunnock", "redshank", "wheatear"}) {
    const auto a = assess(demo(name));
    for (const auto& s : a.strengths) {
      INFO(name);
      REQUIRE(s.structure.stress.size() == s.cases.cases.size());
      double most = 0;
      for (const auto& bars : s.structure.stress) {
        REQUIRE(bars.size() == s.structure.bars.size());
        for (const auto& bar : bars)
          for (const double v : bar) {
            CHECK(v >= 0);
            most = std::max(most, v);
          }
      }
      double of_parts = 0;
      for (const auto& p : s.structure.parts)
        if (says(p.decides, "bending") && p.part != "axle") of_parts = std::max(of_parts, p.stress);
      if (of_parts > 0) CHECK(most >= of_parts * (1 - 1e-9));
    }
  }
}

TEST_CASE("a clamped strut's stress runs out towards its foot") {
  const Design d = with_strut();
  const auto s = leg::check_structure(d, d.gear.main(), {{"aft", Vec3(1000, 0, 0), false, ""}});
  REQUIRE(s.stress.size() == 1);
  REQUIRE(s.stress[0].size() == 1);
  CHECK(s.stress[0][0][0] == Approx(800 / tube_modulus(0.06, 0.004)).epsilon(1e-9));
  CHECK(s.stress[0][0][1] == Approx(0).margin(1));
}

TEST_CASE("what is out of square is put right by the bar's end and at the rim") {
  // A bar turned back by its ends is square again.
  const double toe = radians(0.4);
  CHECK(leg::end_of_bar_by(toe, 1.74) == Approx(0.87 * std::sin(toe)));
  CHECK(leg::end_of_bar_by(-toe, 1.74) == Approx(-leg::end_of_bar_by(toe, 1.74)));
  const auto off = leg::correction({radians(0.5), radians(3)}, radians(0.2), radians(4), 0.43);
  CHECK(off.toe == Approx(radians(0.3)));
  CHECK(off.camber == Approx(radians(-1)));
  CHECK(off.rim == Approx(0.43 * std::tan(radians(0.3))));
}

TEST_CASE("a post to the spar relieves what stands beside it, by where it stands") {
  const auto margin_of = [](const Design& d, const std::string& part) {
    const auto a = assess(d);
    for (const auto& s : a.strengths)
      for (const auto& p : s.structure.parts)
        if (p.part == part) return p.margin;
    return std::nan("");
  };
  auto d = demo("redshank");
  const double alone = margin_of(d, "bearer plate");
  REQUIRE(std::isfinite(alone));
  Joint post;
  post.name = "post";
  post.kind = JointKind::post;
  post.material = "birch plywood";
  post.into = "birch plywood";
  post.length = Given(0.05);
  post.diameter = Given(0.012);
  post.at = d.gear.main().joints[1].at;
  d.gear.main().joints.push_back(post);
  const double relieved = margin_of(d, "bearer plate");
  CHECK(relieved > alone);
  // It takes nothing where it carries something else.
  d.gear.main().joints.back().carries = "another tube";
  CHECK(margin_of(d, "bearer plate") == Approx(alone));
  // Far aside it presses up where it stands and so twists the mount about the plate.
  d.gear.main().joints.back().carries.clear();
  d.gear.main().joints.back().at.x.si += 0.2;
  CHECK(margin_of(d, "bearer plate") < relieved);
}
