// SPDX-License-Identifier: GPL-3.0-or-later
//! What springs, mounts and legs are made of: each check against a closed form, and each cure carried out.
#include "core/assess/parts.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

#include "core/assess/settle.h"
#include "core/assess/strength_state.h"
#include "core/force/bent_leg.h"
#include "core/force/materials.h"
#include "core/leg/joints.h"
#include "core/leg/layup.h"
#include "core/spring/identify.h"
#include "core/weigh/parts.h"
#include "cured.h"
#include "demo.h"
#include "findings.h"
#include "said.h"

using namespace kranich;

namespace {

Point place_of(const Vec3& at) {
  Point p;
  put(p, at.x(), at.y(), at.z());
  return p;
}

//! A leaf out to the side, straight, clamped at y₀.
Leg leaf_leg(double clamp_y) {
  Leg leg;
  leg.id = "main";
  leg.spring.kind = SpringKind::bending;
  BentLeg& b = leg.spring.bent;
  b.form = BentForm::leaf;
  b.material = "spring steel strip";
  for (const Vec3& at : {Vec3(1, clamp_y, 0), Vec3(1, clamp_y + 0.3, -0.4)}) {
    BentPoint p;
    p.at = place_of(at);
    p.width = Given(0.05);
    p.thickness = Given(0.008);
    b.line.push_back(p);
  }
  leg.axle = place_of(Vec3(1, clamp_y + 0.3, -0.4));
  return leg;
}
void on_four_rings(Leg& leg) {
  BentMount& m = leg.spring.bent.mount;
  m.rings = Given(4.0);
  m.ring_outer = Given(0.020);
  m.ring_hole = Given(0.006);
  m.ring_thickness = Given(0.008);
  m.ring_pitch = Given(0.04);
  m.ring_modulus = Given(0.9e6);
  m.slot = Given(0.007);
}
force::BendingLeg chain(const Leg& leg) {
  return std::get<force::BendingLeg>(force::bending_leg_of(leg, {}));
}

}  // namespace

TEST_CASE("a middle that bends adds its own turn, and stress stays what the load makes it") {
  Leg leg = leaf_leg(0.12);
  const auto stiff = chain(leg);
  leg.spring.bent.mount.through = true;
  const auto soft = chain(leg);
  const double inertia = 0.05 * std::pow(0.008, 3) / 12;
  const double turn = 0.12 / (stiff.material.youngs_modulus * inertia);  // per N·m
  CHECK(soft.root.about.x() == Approx(turn));
  // By hand: a load up at the wheel turns the clamp by M·a/EI, and lifts the wheel by that times its reach.
  const double more = 1 / force::stiffness_at_wheel(soft)->vertical_rate -
                      1 / force::stiffness_at_wheel(stiff)->vertical_rate;
  CHECK(more == Approx(0.3 * 0.3 * turn).epsilon(1e-9));
  const auto load = force::AxleLoad{Vec3(0, 0, 500)};
  CHECK(force::bend_each(soft, {load}).front().largest_stress ==
        Approx(force::bend_each(stiff, {load}).front().largest_stress).epsilon(1e-12));
  // Energy: what the load does goes into the leg and its middle.
  const auto bent = force::bend_each(soft, {load}).front();
  CHECK(bent.strain_energy == Approx(0.5 * 500 * bent.moved.z()).epsilon(1e-9));
  leg.spring.bent.line.front().at.y = Given(0.0);
  CHECK(std::holds_alternative<Text>(force::bending_leg_of(leg, {})));
}

TEST_CASE("rings of rubber give by their own law, and are asked for whole") {
  Leg leg = leaf_leg(0.12);
  BentMount& m = leg.spring.bent.mount;
  m.rings = Given(4.0);
  CHECK(std::holds_alternative<Text>(force::bending_leg_of(leg, {})));
  on_four_rings(leg);
  const auto r = force::ring_rates(m);
  CHECK(r.crush == Approx(0.125));
  // The slope of the puck's force, by difference.
  const double area = std::numbers::pi * (0.020 * 0.020 - 0.006 * 0.006) / 4;
  const double shape = 0.014 / 0.032;
  const double modulus = 3 * 0.9e6 * (1 + 1.5 * shape * shape);
  const auto push = [&](double height) {
    const double left = height / 0.008;
    return area * modulus / 3 * (1 / (left * left) - left);
  };
  CHECK(r.vertical == Approx(4 * (push(0.007 - 1e-7) - push(0.007 + 1e-7)) / 2e-7).epsilon(1e-5));
  CHECK(r.sideways == Approx(4 * 0.9e6 * area / 0.007));
  const double rigid = 1 / force::stiffness_at_wheel(chain(leaf_leg(0.12)))->vertical_rate;
  CHECK(1 / force::stiffness_at_wheel(chain(leg))->vertical_rate == Approx(rigid + 1 / r.vertical));
  // A load fore and aft tilts them: the leg turns about the line across.
  const auto aft = force::bend_each(chain(leg), {{Vec3(100, 0, 0)}}).front();
  const auto firm = force::bend_each(chain(leaf_leg(0.12)), {{Vec3(100, 0, 0)}}).front();
  CHECK(aft.moved.x() - firm.moved.x() ==
        Approx(100 * (1 / r.sideways + 0.4 * 0.4 / r.tilting)).epsilon(1e-9));
}

TEST_CASE("a measured rate sets the leg's modulus, rings and all") {
  for (const bool rings : {false, true}) {
    Leg leg = leaf_leg(0.12);
    leg.spring.bent.mount.through = true;
    if (rings) on_four_rings(leg);
    const double foretold = force::stiffness_at_wheel(chain(leg))->vertical_rate;
    leg.spring.bent.measured_rate = Given(0.8 * foretold);
    CHECK(force::stiffness_at_wheel(chain(leg))->vertical_rate == Approx(0.8 * foretold).epsilon(1e-9));
  }
  // The bench puts it there.
  Leg leg = leaf_leg(0.12);
  CHECK(spring::take_over(leg, spring::LoadFit{4321, 0, std::nan(""), 50, 1, 5}, 5000).empty());
  CHECK(force::stiffness_at_wheel(chain(leg))->vertical_rate == Approx(4321));
  leg.spring.bent.cross_wire_rate = Given(1000.0);
  CHECK_FALSE(spring::take_over(leg, spring::LoadFit{4000, 0, std::nan(""), 50, 1, 5}, 5000).empty());
}

TEST_CASE("an arched wire across: its ends' rate by energy, its share at the wheel, its stress") {
  const double d = 0.004;
  const double h = 0.03;
  const double span = 0.5;
  const auto w = force::arched_wire(d, h, span, 207e9);
  // ∫ y² ds/EI of the parabola, summed.
  const double inertia = std::numbers::pi * std::pow(d, 4) / 64;
  double give = 0;
  const int n = 20000;
  for (int i = 0; i < n; ++i) {
    const double x = (i + 0.5) / n;
    give += std::pow(4 * h * x * (1 - x), 2) * span / n / (207e9 * inertia);
  }
  CHECK(1 / w.rate == Approx(give).epsilon(1e-6));
  CHECK(w.stress_per_apart == Approx(w.rate * h * 32 / (std::numbers::pi * d * d * d)));
  Leg leg = leaf_leg(0.12);
  const auto bare = force::stiffness_at_wheel(chain(leg));
  leg.spring.bent.cross_wire.diameter = Given(d);
  CHECK(std::holds_alternative<Text>(force::bending_leg_of(leg, {})));
  leg.spring.bent.cross_wire.rise = Given(h);
  leg.spring.bent.cross_wire.along = Given(0.5);  // at the very end: all of the spread
  const auto with = chain(leg);
  const auto post = std::get<0>(force::wire_across(leg.spring.bent, with, {}));
  REQUIRE(post);
  CHECK(post->span == Approx(2 * 0.42));
  CHECK(post->post_per_axle == Approx(1).epsilon(1e-9));
  CHECK(with.across_rate == Approx(2 * force::arched_wire(d, h, 0.84, 207e9).rate));
  CHECK(force::stiffness_at_wheel(with)->vertical_rate > bare->vertical_rate);
  // Energy: of both ends together, ½·k·(2δ)² for two legs.
  const double spread = 0.003;
  CHECK(2 * 0.5 * with.across_rate * spread * spread ==
        Approx(0.5 * force::arched_wire(d, h, 0.84, 207e9).rate * std::pow(2 * spread, 2)));
  // Halfway up the leg it holds less.
  leg.spring.bent.cross_wire.along = Given(0.25);
  CHECK(chain(leg).across_rate < 0.5 * 2 * force::arched_wire(d, h, 0.54, 207e9).rate);
}

TEST_CASE("a streamlined section is what its outline says, and a leg of it is checked by it") {
  // The outline, summed in slices.
  const double c = 0.08;
  const double t = 0.02;
  double area = 0, first = 0, moment = 0, second = 0;
  const int n = 400000;
  for (int i = 0; i < n; ++i) {
    const double x = c * (i + 0.5) / n;
    const double u = x < 0.4 * c ? (0.4 * c - x) / (0.4 * c) : (x - 0.4 * c) / (0.6 * c);
    const double thick = t * (x < 0.4 * c ? std::sqrt(1 - u * u) : 1 - u * u);
    area += thick * c / n;
    first += std::pow(thick, 3) / 12 * c / n;
    moment += thick * x * c / n;
    second += thick * x * x * c / n;
  }
  const double middle = moment / area;
  second -= area * middle * middle;
  const auto s = force::streamlined_section(c, t);
  CHECK(s.area == Approx(area).epsilon(1e-3));
  CHECK(s.first == Approx(first).epsilon(1e-3));
  CHECK(s.second == Approx(second).epsilon(1e-3));
  CHECK(force::streamlined_edge_modulus * t * c * c / 6 == Approx(second / (c - middle)).epsilon(1e-3));
  Leg leg = leaf_leg(0.12);
  const auto flat = chain(leg);
  leg.spring.bent.section = BentSection::streamlined;
  const auto faired = chain(leg);
  CHECK(force::stiffness_at_wheel(faired)->vertical_rate ==
        Approx(force::streamlined_modulus * force::stiffness_at_wheel(flat)->vertical_rate).epsilon(0.01));
  CHECK(drag_area(leg, {}) == Approx(0.10 * 0.008 * 0.5));
  leg.spring.bent.section = BentSection::flat;
  CHECK(drag_area(leg, {}) == Approx(1.0 * 0.008 * 0.5));
}

TEST_CASE("tubes of a strut: overlap, bore, room and thread, each with a cure") {
  Design d = demo("redshank");
  Leg& leg = d.gear.main();
  REQUIRE(leg.spring.kind == SpringKind::coil);
  REQUIRE(leg.path == LegPath::straight);
  const double extended = (leg.axle.vec() - leg.held_at()).norm();
  Telescope& t = leg.spring.telescope;
  t.outer_diameter = Given(0.014);
  t.outer_wall = Given(0.001);
  t.inner_diameter = Given(0.0119);
  t.inner_wall = Given(0.0005);
  t.outer_length = Given(0.6 * extended);
  t.inner_length = Given(0.6 * extended);
  t.plugged = Given(0.006);
  t.thread = Given(0.004);
  t.thread_depth = Given(0.005);
  const auto a = assess(d);
  const Finding* overlap = of(a, "spring.overlap");
  REQUIRE(overlap);
  CHECK(overlap->value == Approx(0.2 * extended / 0.0119));
  const Finding* bore = of(a, "spring.in_bore");
  REQUIRE(bore);
  CHECK(bore->value == Approx(0.0109 - leg.spring.coil.mean_diameter - leg.spring.coil.wire_diameter));
  const Finding* thread = of(a, "spring.thread");
  REQUIRE(thread);
  CHECK(thread->verdict == Verdict::fails);
  cured(d, a, *thread);
  CHECK(of(a, "spring.cut_left")->value == Approx(0.001));
  t.thread_depth = Given(0.008);
  const auto broken = assess(d);
  const Finding* into = of(broken, "spring.cut_left");
  REQUIRE(into);
  CHECK(into->verdict == Verdict::fails);
  cured(d, broken, *into);
  t.inner_length = Given(0.42 * extended);
  const auto apart = assess(d);
  const Finding* short_of = of(apart, "spring.overlap");
  REQUIRE(short_of->verdict == Verdict::fails);
  cured(d, apart, *short_of);
  t.inner_length = Given();
  CHECK(of(assess(d), "spring.overlap")->verdict == Verdict::unknown);
}

TEST_CASE("a bow is judged by the builder's own that held and that did not") {
  Leg bow = leaf_leg(0.12);
  bow.spring.bent.form = BentForm::bow;
  bow.spring.bent.plies = Given(10.0);
  Design d = demo("redshank");
  Assessment a;
  const auto judge = [&] {
    a.findings.clear();
    Collector collect(d, a.findings);
    bow_by_experience(d, bow, 8, collect);
    return of(a, "spring.bow_proven");
  };
  CHECK_FALSE(judge());
  CHECK(of(a, "spring.bow_seed")->value == Approx(0.055 * 8 / 0.05));
  const auto proven = [&](double mass, double plies, bool held) {
    ProvenBow p;
    p.mass = Given(mass);
    p.plies = Given(plies);
    p.root_width = Given(0.05);
    p.held = held;
    d.spring_bench.proven.push_back(p);
  };
  proven(6, 9, true);  // 0.075 m a kg
  const Finding* f = judge();
  REQUIRE(f);
  CHECK(of(a, "spring.bow_seed")->value == Approx(0.075 * 8 / 0.05));
  CHECK(f->value == Approx(10 / 12.0));
  CHECK(f->verdict == Verdict::tight);
  proven(6, 8, false);
  CHECK(judge()->verdict == Verdict::fails);  // fewer than gave way
  bow.spring.bent.plies = Given(13.0);
  CHECK(judge()->verdict == Verdict::holds);
}

TEST_CASE("a plate between cheeks holds what its cheeks hold; a box over it stops its twist") {
  Joint j;
  j.name = "plate";
  j.kind = JointKind::plate;
  j.at = place_of(Vec3(0, 0.3, 0));
  j.length = Given(0.10);
  j.width = Given(0.06);
  j.thickness = Given(0.006);
  j.material = "epoxy, slow";
  j.into = "foam, white";
  for (const auto& name : force::material_names({}))
    if (name.find("foam") != std::string::npos) j.into = name;
  const leg::JointLoad pull{"drag", Vec3(0, 0, -50), Vec3(0, 4, 0)};
  std::vector<leg::FastenerLoad> none;
  const auto bare = leg::check_joint(j, {}, {pull}, 1.5, none);
  j.cheeks = Given(0.08);
  const auto boxed = leg::check_joint(j, {}, {pull}, 1.5, none);
  REQUIRE(std::isfinite(bare.margin));
  CHECK(boxed.margin > bare.margin);
  CHECK(in_words(boxed.decides) == "glue of the side cheeks sheared");
  // By hand: the moment turns two rectangles of glue, the pull shears them.
  const double area = 0.10 * 0.08;
  const double diagonal = std::hypot(0.10, 0.08);
  const double stress = 4.0 / 2 * (diagonal / 2) / (area * diagonal * diagonal / 12) + 50.0 / 2 / area;
  const Material* glue = force::find_material({}, j.material);
  const Material* foam = force::find_material({}, j.into);
  const double shear =
      std::min(force::allowable_of(*glue, 0, false).shear, force::allowable_of(*foam, 0, false).shear);
  CHECK(boxed.margin == Approx(shear / (1.5 * stress) - 1).epsilon(1e-6));

  const double torque = 3;
  const double modulus = 0.6e9;
  CHECK(leg::mount_twist(j, torque, modulus) ==
        Approx(torque * 0.10 / (4 * modulus * 0.06 * std::pow(0.006, 3) / 3)));
  j.box_depth = Given(0.03);
  j.box_wall = Given(0.0015);
  CHECK(leg::mount_twist(j, torque, modulus) ==
        Approx(torque * 0.10 / (4 * modulus * 2 * std::pow(0.06 * 0.03, 2) * 0.0015 / 0.09)));
}

TEST_CASE("a post between two points: its length, its lean, what the bay leaves it") {
  Joint post;
  post.kind = JointKind::post;
  post.at = place_of(Vec3(1, 0.2, 0));
  post.to = place_of(Vec3(1.03, 0.2, 0.04));
  post.diameter = Given(0.01);
  post.material = "ash";
  post.into = "spruce";
  const auto line = leg::post_line(post);
  CHECK(line.length == Approx(0.05));
  CHECK(line.lean == Approx(std::atan2(3, 4)));
  CHECK(line.rake == Approx(line.lean));
  CHECK(line.cant == Approx(0).margin(1e-12));
  CHECK(leg::share_of_post(post, {}) == 1);
  const double rate = 12e9 * std::numbers::pi * 1e-4 / 4 / 0.05;
  post.bay_rate = Given(0.64 * rate);
  CHECK(leg::share_of_post(post, {}) == Approx(0.5));
  // It carries along itself: 4/5 of that is up.
  std::vector<leg::FastenerLoad> none;
  const auto part = leg::check_joint(post, {}, {{"level", Vec3(0, 0, 800), Vec3::Zero()}}, 1.5, none);
  CHECK(part.load == Approx(1000));
}

TEST_CASE(
    "what hangs on a leg by itself: length for the bench, lean, landings, notch, pull test, wire's hole") {
  Design d = demo("dunnock");
  Leg& leg = d.gear.main();
  auto a = assess(d);
  const Finding* length = of(a, "leg.governing", leg.id);
  REQUIRE(length);
  CHECK(length->value == Approx((leg.axle.vec() - leg.held_at()).norm()));
  leg.governing = Governing::to_shoulder;
  CHECK(of(assess(d), "leg.governing", leg.id)->verdict == Verdict::unknown);
  leg.shoulder = Given(0.1);
  leg.governed = Given(length->value - 0.1 + 0.004);
  leg.failures = Given(2.0);
  leg.landings = Given(60.0);
  a = assess(d);
  CHECK(of(a, "leg.governed", leg.id)->value == Approx(0.004).margin(1e-9));
  CHECK(of(a, "leg.governed", leg.id)->verdict == Verdict::fails);
  cured(d, a, *of(a, "leg.governed", leg.id));
  CHECK(of(a, "leg.failures")->verdict == Verdict::fails);
  // Its lean as it stands: its own less the attitude it stands in.
  const Finding* lean = of(a, "stance.leg_lean", leg.id);
  REQUIRE(lean);
  CHECK(lean->verdict == Verdict::noted);
  CHECK(lean->value ==
        Approx(said(*lean, "of the leg to the level reference") - said(*lean, "pitch at rest, nose up")));
  leg.lean = Given(lean->value + radians(3));
  CHECK(of(assess(d), "stance.leg_lean", leg.id)->verdict == Verdict::fails);
}

TEST_CASE("a leg that leans wrong is cured by a wedge, one in a notch by its edge") {
  Design d = demo("redshank");
  Leg& leg = d.gear.main();
  auto a = assess(d);
  leg.lean = Given(of(a, "stance.leg_lean", leg.id)->value + radians(4));
  leg.cradle.below = Given(0.03);
  CHECK(of(assess(d), "leg.cradle")->verdict == Verdict::unknown);
  leg.cradle.width = Given(0.004);
  leg.cradle.thickness = Given(0.002);
  leg.cradle.material = "birch plywood";
  a = assess(d);
  const Finding* lean = of(a, "stance.leg_lean", leg.id);
  CHECK(lean->verdict == Verdict::fails);
  cured(d, a, *lean);
  const Finding* notch = of(a, "leg.cradle");
  REQUIRE(notch);
  CHECK(said(*notch, "the notch takes") == Approx(said(*notch, "moment at the pivot without it") / 0.03));
  CHECK(said(*notch, "bearing on the edge") == Approx(said(*notch, "the notch takes") / (0.004 * 0.002)));
  REQUIRE(notch->verdict == Verdict::fails);
  cured(d, a, *notch);
}

TEST_CASE("a bought mount is unknown until it was pulled at") {
  Design d = demo("redshank");
  Leg* with = nullptr;
  for (auto& l : d.gear.legs)
    for (const auto& j : l.joints)
      if (j.kind != JointKind::pin && j.kind != JointKind::post) with = &l;
  REQUIRE(with);
  Joint* joint = nullptr;
  for (auto& j : with->joints)
    if (j.kind != JointKind::pin && j.kind != JointKind::post) joint = &j;
  joint->bought = true;
  CHECK(of(assess(d), "leg.pull_test")->verdict == Verdict::unknown);
  joint->pulled = Given(1.0);
  const auto weak = assess(d);
  CHECK(of(weak, "leg.pull_test")->value ==
        Approx(1 / said(*of(weak, "leg.pull_test"), "needed, ultimate") - 1));
  CHECK(of(weak, "leg.pull_test")->verdict == Verdict::fails);
  joint->pulled = Given(1e5);
  CHECK(of(assess(d), "leg.pull_test")->verdict == Verdict::holds);
  joint->bought = false;
  CHECK_FALSE(of(assess(d), "leg.pull_test"));
}

TEST_CASE("cloth and resin of a lay-up, zone by zone") {
  Ply p;
  p.zone = "floor";
  p.length = Given(0.3);
  p.width = Given(0.2);
  p.overlap = Given(0.02);
  p.count = Given(3.0);
  p.areal_weight = Given(0.2);
  p.resin = Given(0.5);
  const auto t = leg::total_of(p);
  CHECK(t.cut == Approx(0.34 * 0.24));
  CHECK(t.cloth == Approx(3 * 0.34 * 0.24 * 0.2));
  CHECK(t.resin == Approx(t.cloth));
  Ply bare;
  bare.zone = "walls";
  bare.count = Given(2.0);
  bare.area = Given(0.1);
  const auto all = leg::total_of(std::vector<Ply>{p, bare});
  CHECK(all.area == Approx(t.area + 0.2));
  CHECK(all.left_out == std::vector<std::string>{"walls"});
  CHECK(all.batches == 1);
}

TEST_CASE("parts for one place: mass times number, where the CG goes, and taken into the ledger") {
  Design d = demo("redshank");
  const std::string place = d.ledger.front().name;
  const auto offer = [&](const char* name, double count, double each) {
    PartOffer p;
    p.for_what = place;
    p.name = name;
    p.count = Given(count);
    p.mass = Given(each);
    d.parts.push_back(p);
  };
  offer("one large", 1, 0.30);
  offer("two small", 2, 0.10);
  const auto groups = weigh::part_groups(d, 10, 0.2);
  REQUIRE(groups.size() == 1);
  CHECK(d.parts[groups[0].offers[0].row].name == "two small");
  CHECK(groups[0].offers[0].mass == Approx(0.2));
  const Item was = d.ledger.front();
  const double moment = 10 * 0.2 - was.mass * was.at.x + 0.2 * was.at.x;
  CHECK(groups[0].offers[0].cg_shift == Approx(moment / (10 - was.mass + 0.2) - 0.2));
  weigh::take_part(d, 0);
  CHECK(d.ledger.front().mass.si == Approx(0.30));
  const auto after = assess(d);
  const Finding* over = of(after, "weigh.parts");
  REQUIRE(over);
  CHECK(over->value == Approx(0.1));
}

TEST_CASE("a slide is judged at both its ends, and a cure adds the loadings") {
  Design d = demo("redshank");
  CHECK(of(assess(d), "weigh.tray_ends")->verdict == Verdict::holds);
  // Its battery as it lies in every loading: neither end is flown.
  Item* battery = nullptr;
  for (auto& i : d.ledger)
    if (i.slides) battery = &i;
  REQUIRE(battery);
  REQUIRE(battery->group == Group::load);
  battery->at.x = Given((battery->slides_from + battery->slides_to) / 2);
  for (auto& l : d.loadings)
    for (auto& aboard : l.aboard) aboard.x = Given();
  const auto a = assess(d);
  const Finding* f = of(a, "weigh.tray_ends");
  CHECK(f->value == 0);
  CHECK(f->verdict == Verdict::tight);
  cured(d, a, *f);
  // What is no load cannot lie elsewhere in one loading than in another, and is told so.
  const auto dunnock = assess(demo("dunnock"));
  CHECK(of(dunnock, "weigh.tray_ends")->verdict == Verdict::tight);
  CHECK(says(of(dunnock, "weigh.tray_ends")->remark, "group load"));
}

TEST_CASE("coils at hand stand on the shelf before those that ship") {
  Design d = demo("redshank");
  OwnCoil own;
  own.name = "out of the box";
  own.coil = shipped_stock().springs.coils.front().coil;
  d.spring_bench.coils.push_back(own);
  CHECK(stock_of(d).springs.coils.front().name == "out of the box");
  d.spring_bench.coils.front().coil.free_length = Given();
  CHECK(stock_of(d).springs.coils.size() == shipped_stock().springs.coils.size());
}
