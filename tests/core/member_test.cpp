// SPDX-License-Identifier: GPL-3.0-or-later
//! A leg's members against statics by hand: a trailing link on its strut, sections that change along a leg,
//! how a printed one lies, a mount that both legs of a pair share, a verdict that some of its cases lack.
#include <catch2/catch.hpp>
#include <numbers>

#include "core/assess/assess.h"
#include "core/assess/landing_state.h"
#include "core/force/bent_leg.h"
#include "core/force/materials.h"
#include "core/leg/structure.h"
#include "core/motion/suspend.h"
#include "core/shop/sheets.h"
#include "demo.h"
#include "findings.h"
#include "said.h"

using namespace kranich;
using leg::LoadCase;

namespace {

Point at(double x, double y, double z) { return {{}, Given(x), Given(y), Given(z)}; }

//! A strut from (2, y, 0) to a wheel at (2, 1, −0.8), no offset; a tube until its section says else.
Design with_strut(double y) {
  Design d = with_legs();
  Leg& l = d.gear.main();
  l.top = at(2, y, 0);
  l.axle = at(2, 1, -0.8);
  l.wheel_offset = Given(0.0);
  l.wheel.diameter = Given(0.4);
  l.tube_diameter = Given(0.06);
  l.tube_wall = Given(0.004);
  return d;
}

//! A strut 0.5 m down from (2, 1, 0) to a hinge, an arm 0.3 m level aft to the wheel, a spring from the arm's
//! middle straight up to a bracket beside the strut.
Design with_link() {
  Design d = with_legs();
  Leg& l = d.gear.main();
  l.top = at(2, 1, 0);
  l.path = LegPath::hinged_athwartships;
  l.hinge = at(2, 1, -0.5);
  l.axle = at(2.3, 1, -0.5);
  l.travel = Given(0.05);
  l.wheel_offset = Given(0.0);
  l.wheel.diameter = Given(0.4);
  l.tube_diameter = Given(0.06);
  l.tube_wall = Given(0.004);
  l.material = "chrome-molybdenum steel";
  l.spring.kind = SpringKind::coil;
  l.spring.anchor_leg = at(2.15, 1, -0.5);
  l.spring.anchor_airframe = at(2.15, 1, -0.1);
  return d;
}

constexpr double tube_area = std::numbers::pi * (0.06 * 0.06 - 0.052 * 0.052) / 4;
const double tube_modulus = std::numbers::pi * (std::pow(0.06, 4) - std::pow(0.052, 4)) / 64 / 0.03;

}  // namespace

TEST_CASE("a trailing link: its arm is held by the spring, and the strut above the hinge carries too") {
  Design d = with_link();
  const std::vector<LoadCase> up{{"up", Vec3(0, 0, 1000), false, ""}};
  const auto s = leg::check_structure(d, d.gear.main(), up);
  REQUIRE(s.mechanism.empty());
  // The arm turns freely: behind the spring 0.15 m bend it, not 0.3 m as if it were clamped.
  CHECK(part(s, "arm").stress == Approx(1000 * 0.15 / tube_modulus).epsilon(0.01));
  // Arm, spring and bracket are all the strut's: at its top stands the wheel's own moment.
  const auto& strut = part(s, "strut above the hinge");
  CHECK(strut.stress == Approx(1000 * 0.3 / tube_modulus + 1000 / tube_area).epsilon(0.02));

  // Hung on the airframe the spring pushes twice the wheel's load there, and the strut only pulls its half
  // back.
  d.gear.main().spring.anchor_airframe = at(2.15, 1, 0.6);
  const auto apart = leg::check_structure(d, d.gear.main(), up);
  CHECK(part(apart, "arm").stress == Approx(part(s, "arm").stress).epsilon(1e-3));
  CHECK(part(apart, "strut above the hinge").stress == Approx(1000 / tube_area).epsilon(0.02));
}

TEST_CASE(
    "a trailing link on a leg that retracts hangs from the pivot; without a strut the hinge is the "
    "airframe's") {
  Design d = with_link();
  Leg& l = d.gear.main();
  CHECK((motion::strut_above_hinge(l) - Vec3(2, 1, 0)).norm() == 0);
  l.retraction.fitted = true;
  l.retraction.pivot = at(2, 1, 0.1);
  CHECK((motion::strut_above_hinge(l) - Vec3(2, 1, 0.1)).norm() == 0);
  const std::vector<LoadCase> side{{"side", Vec3(0, 500, 0), false, ""}};
  const auto s = leg::check_structure(d, l, side);
  // 0.6 m below the pivot it bends the strut sideways, and 0.3 m behind it twists it.
  const double bending = 500 * 0.6 / tube_modulus;
  const double twist = 500 * 0.3 / (2 * tube_modulus);
  CHECK(part(s, "strut above the hinge").stress ==
        Approx(std::hypot(bending, std::sqrt(3.0) * twist)).epsilon(0.01));
  l.retraction.fitted = false;
  l.top = l.hinge;
  CHECK_FALSE(motion::strut_above_hinge(l).allFinite());
  CHECK(part(leg::check_structure(d, l, side), "leg").stress > 0);
  // The strut stays where it is when the arm closes; what has no strut turns whole.
  l.top = at(2, 1, 0);
  const Leg closed = motion::suspended(l, 0.05);
  CHECK(closed.top == l.top);
  CHECK(closed.axle.z - l.axle.z == Approx(0.05));
  CHECK((closed.axle.vec() - l.hinge.vec()).norm() == Approx(0.3));
}

TEST_CASE("a trailing link's cut list has strut and arm, each with its length") {
  Design d = with_link();
  double strut = 0, arm = 0;
  for (const auto& m : shop::members_of(d)) {
    if (m.leg != in_words(d.leg_word(d.gear.main()))) continue;
    if (m.name == "strut above the hinge") strut = m.geometry.length;
    if (m.name == "arm") arm = m.geometry.length;
    CHECK(m.name != "leg");
  }
  CHECK(strut == Approx(0.5));
  CHECK(arm == Approx(0.3));
}

TEST_CASE("a leg is as thick as it is at each place: a step, a taper, the mouth of a bore") {
  Design d = with_strut(1);
  Leg& l = d.gear.main();
  l.section = LegSection::rectangle;
  l.section_width = Given(0.03);
  l.section_thickness = Given(0.02);
  l.material = "printed, tough polyester";
  const std::vector<LoadCase> aft{{"aft", Vec3(50, 0, 0), false, ""}};
  const auto uniform = part(leg::check_structure(d, l, aft), "leg");
  CHECK(uniform.stress == Approx(50 * 0.8 * 6 / (0.02 * 0.03 * 0.03)).epsilon(1e-9));

  // Thicker above, hollowed below 0.5 m: it breaks at the mouth, not at the top.
  const auto station = [](double along, double width, double bore) {
    LegStation s;
    s.along = Given(along);
    s.width = Given(width);
    s.bore = Given(bore);
    return s;
  };
  l.stations = {station(0, 0.06, 0), station(0.5, 0.06, 0), station(0.5, 0.03, 0.016)};
  const auto hollow = part(leg::check_structure(d, l, aft), "leg");
  const double inertia = 0.02 * std::pow(0.03, 3) / 12 - std::numbers::pi * std::pow(0.016, 4) / 64;
  CHECK(hollow.stress == Approx(50 * 0.3 * 0.015 / inertia).epsilon(1e-9));
  CHECK(hollow.at.z() == Approx(-0.5));
  CHECK(says(hollow.decides, "upper end"));
  // At the same place the thick side above the step carries it easily.
  l.stations.pop_back();
  CHECK(part(leg::check_structure(d, l, aft), "leg").stress ==
        Approx(50 * 0.8 * 6 / (0.02 * 0.06 * 0.06)).epsilon(1e-9));

  // A taper to a third: the stress is greatest where the width is twice that at the load's end of the taper.
  l.stations = {station(0, 0.06, 0), station(0.8, 0.02, 0)};
  CHECK(part(leg::check_structure(d, l, aft), "leg").stress ==
        Approx(50 * 0.4 * 6 / (0.02 * 0.04 * 0.04)).epsilon(1e-9));

  l.stations = {station(0.5, 0.06, 0), station(0.2, 0.03, 0)};
  CHECK(says(part(leg::check_structure(d, l, aft), "leg").missing, "order"));
  l.stations = {station(0, 0.06, 0.03)};
  CHECK(says(part(leg::check_structure(d, l, aft), "leg").missing, "hole"));
}

TEST_CASE("a leg printed lying down is not pulled across its layers") {
  Design d = with_strut(1);
  Leg& l = d.gear.main();
  l.material = "printed, tough polyester";
  const std::vector<LoadCase> aft{{"aft", Vec3(50, 0, 0), false, ""}};
  const double upright = part(leg::check_structure(d, l, aft), "leg").margin;
  l.printed = PrintedHow::lying;
  const double lying = part(leg::check_structure(d, l, aft), "leg").margin;
  CHECK((lying + 1) * force::find_material({}, l.material)->across == Approx(upright + 1).epsilon(1e-9));
}

TEST_CASE("a mount on the centre line holds both legs: level landings cancel across, one wheel does not") {
  Design d = with_strut(0.2);
  Leg& l = d.gear.main();
  l.material = "chrome-molybdenum steel";
  Joint plate;
  plate.name = "middle";
  plate.kind = JointKind::fasteners;
  plate.at = at(2, 0, 0);
  plate.material = "aircraft bolt";
  plate.into = "birch plywood";
  plate.inner_thickness = Given(0.006);
  for (const double v : {-0.1, 0.1})
    for (const double u : {-0.02, 0.02}) {
      Fastener f;
      f.u = Given(u);
      f.v = Given(v);
      f.diameter = Given(0.006);
      plate.fasteners.push_back(f);
    }
  l.joints = {plate};
  LoadCase level{"level", Vec3(0, 0, -1000), false, ""};  // a pull, so that the bolts feel it
  level.twin = "level";
  const auto together = leg::check_structure(d, l, {level});
  double greatest = 0;
  for (const auto& f : together.fasteners) greatest = std::max(greatest, f.tension);
  CHECK(greatest == Approx(2000.0 / 4));  // no moment is left: an even share
  level.twin.clear();
  const auto alone = leg::check_structure(d, l, {level});
  double one_sided = 0;
  for (const auto& f : alone.fasteners) one_sided = std::max(one_sided, f.tension);
  CHECK(one_sided > 3 * greatest);
  // Beside the centre line it is one leg's own.
  level.twin = "level";
  l.joints[0].at = at(2, 0.2, 0);
  const auto own = leg::check_structure(d, l, {level});
  level.twin.clear();
  const auto own_alone = leg::check_structure(d, l, {level});
  CHECK(part(own, "middle").margin == part(own_alone, "middle").margin);

  // Pushed sideways one wheel is loaded inboard while the other is outboard.
  leg::CaseInput in{};
  in.model = true;
  in.share = 40;
  in.ground_factor = in.inertia_factor = 5;
  for (const auto& c : leg::load_cases(in).cases) {
    CAPTURE(c.name);
    if (c.name == "landing, side inboard")
      CHECK(c.twin == "landing, side outboard");
    else if (c.name == "landing, side outboard")
      CHECK(c.twin == "landing, side inboard");
    else
      CHECK(c.twin == c.name);
  }
  in.model = false;
  in.main = in.brakes = true;
  in.weight = 6000;
  int clear = 0;
  for (const auto& c : leg::load_cases(in).cases) clear += c.twin.empty() ? 1 : 0;
  CHECK(clear == 1);
}

TEST_CASE("a stub axle does not stiffen the leaf that carries it") {
  Design d = with_legs();
  Leg& l = d.gear.main();
  l.spring.kind = SpringKind::bending;
  BentLeg& b = l.spring.bent;
  b.form = BentForm::leaf;
  b.material = "aluminium 7075-T6";
  const auto point = [](double y, double z) {
    BentPoint p;
    p.at = at(2, y, z);
    p.width = Given(0.1);
    p.thickness = Given(0.02);
    return p;
  };
  b.line = {point(0.2, 0), point(1, -0.6)};
  l.axle = at(2, 1, -0.6);
  const auto bare = std::get<force::BendingLeg>(force::bending_leg_of(l, {}));
  l.axle = at(2, 1.1, -0.6);
  const auto stubbed = std::get<force::BendingLeg>(force::bending_leg_of(l, {}));
  CHECK(stubbed.stub);
  CHECK_FALSE(bare.stub);
  // By virtual work along the leaf alone, ∫ m·M/EI ds with the load 0.1 m beyond its end.
  const double length = std::hypot(0.8, 0.6);
  const double cos = 0.8 / length;
  const auto arm_squared = [&](double beyond) {  // ∫ (beyond + s·cos)² ds from the end
    return (std::pow(beyond + length * cos, 3) - std::pow(beyond, 3)) / (3 * cos);
  };
  const double ratio =
      force::stiffness_at_wheel(bare)->vertical_rate / force::stiffness_at_wheel(stubbed)->vertical_rate;
  CHECK(ratio == Approx(arm_squared(0.1) / arm_squared(0)).epsilon(0.01));
}

TEST_CASE("what holds in some of its load cases is unknown while others cannot be worked out") {
  Design d = demo("wheatear");
  d.airframe.wing.span = Given();  // no wing loading: no sink speed by the rule, no landing
  const auto a = assess(d);
  bool named = false;
  for (const auto& f : a.findings)
    if (f.measure_id == "leg.margin") {
      CAPTURE(f.subject, f.remark);
      CHECK(f.verdict != Verdict::holds);
      CHECK(f.verdict != Verdict::tight);
      named = named || says(f.remark, "load factor of the design landing");
    }
  CHECK(named);
}

TEST_CASE("a solid strut with a hole along it is the tube that is left") {
  const std::vector<LoadCase> aft{{"hand", {1000, 0, 0}, false, "", false}};
  Design tube = with_strut(1);
  tube.gear.main().material = "chrome-molybdenum steel";
  Design bored = tube;
  Leg& l = bored.gear.main();
  l.section = LegSection::bar;
  l.stations.resize(2);
  for (size_t i = 0; i < 2; ++i) {
    l.stations[i].along = Given(0.8 * static_cast<double>(i));
    l.stations[i].width = Given(0.06);
    l.stations[i].bore = Given(0.052);
  }
  const auto hollow = part(leg::check_structure(tube, tube.gear.main(), aft), "leg");
  const auto with_hole = part(leg::check_structure(bored, l, aft), "leg");
  REQUIRE(std::isfinite(hollow.margin));
  CHECK(with_hole.margin == Approx(hollow.margin).epsilon(1e-9));
  for (auto& s : l.stations) s.bore = Given();
  CHECK(part(leg::check_structure(bored, l, aft), "leg").margin > hollow.margin + 0.1);
}

TEST_CASE("what breaks before it yields is allowed its strength over the ultimate factor") {
  Design d = with_strut(1);
  Material brittle;
  brittle.name = "cast";
  brittle.stuff = Stuff::metal;
  brittle.youngs_modulus = Given(70e9);
  brittle.yield = Given(200e6);
  brittle.ultimate = Given(210e6);
  d.materials.push_back(brittle);
  d.gear.main().material = "cast";
  d.load_factors.ultimate = Given(1.5);
  const std::vector<LoadCase> aft{{"hand", {1000, 0, 0}, false, "", false}};
  const auto p = part(leg::check_structure(d, d.gear.main(), aft), "leg");
  CHECK(p.allowed == Approx(140e6));
  CHECK(p.margin == Approx(140e6 / p.stress - 1));
}
