// SPDX-License-Identifier: GPL-3.0-or-later
//! Start: a whole aircraft from nine answers, what of it follows what, and what to measure next.
#include "core/start/start.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <cstdlib>
#include <map>
#include <random>

#include "core/assess/assess.h"
#include "core/io/project_file.h"
#include "core/model/consistency.h"
#include "core/model/guess.h"
#include "core/model/locate.h"
#include "core/start/measure_next.h"
#include "findings.h"

using namespace kranich;
using namespace kranich::start;

namespace {

Answers two_seater() {
  Answers a;
  a.build = Build::full_size;
  a.seats = 2;
  a.kind = Craft::nose_wheel;
  a.retractable = false;
  a.mass = 600;
  a.span = 8.6;
  a.length = 6.1;
  a.wing = WingPlace::low;
  a.engine = Engine::front;
  a.field = Field::turf;
  return a;
}
Answers retracting() {
  Answers a = two_seater();
  a.retractable = true;
  a.mass = 640;
  a.span = 8.9;
  a.length = 6.0;
  return a;
}
Answers tail_wheel_model() {
  Answers a;
  a.build = Build::model;
  a.kind = Craft::tail_wheel;
  a.retractable = true;
  a.mass = 5;
  a.wing = WingPlace::low;
  a.engine = Engine::front;
  a.field = Field::turf;
  return a;
}

struct Verdicts {
  int hold = 0, tight = 0, fail = 0, unknown = 0;
  std::string said;
};
Verdicts verdicts_of(const Design& d) {
  Verdicts v;
  const Assessment a = assess(d);
  for (const Finding* f : worst_of_each(a)) {
    v.hold += f->verdict == Verdict::holds;
    v.tight += f->verdict == Verdict::tight;
    v.fail += f->verdict == Verdict::fails;
    v.unknown += f->verdict == Verdict::unknown;
    if (f->verdict == Verdict::fails || f->verdict == Verdict::unknown)
      v.said += f->measure_id + " " + f->subject.key + " " + in_words(f->remark) + "\n";
  }
  return v;
}

double sum_of(const Design& d) {
  double sum = 0;
  for (const auto& i : d.ledger) sum += i.mass;
  return sum;
}

Answers drawn(std::mt19937& random) {
  const auto pick = [&](int n) { return static_cast<int>(random() % static_cast<unsigned>(n)); };
  std::uniform_real_distribution<double> share(0, 1);
  Answers a;
  a.build = pick(2) ? Build::model : Build::full_size;
  if (a.build == Build::full_size) a.seats = pick(5);
  a.kind = std::array{Craft::nose_wheel, Craft::nose_wheel, Craft::tail_wheel, Craft::tail_wheel,
                      Craft::helicopter}[static_cast<size_t>(pick(5))];
  a.retractable = pick(2) == 1;
  a.wing = static_cast<WingPlace>(pick(3));
  a.engine = static_cast<Engine>(pick(3));
  a.field = static_cast<Field>(pick(a.build == Build::model ? 5 : 4));
  const Allowed mass = allowed_mass(a);
  a.mass = mass.least * std::pow(mass.most / mass.least, share(random));
  if (pick(4)) {
    const Allowed span = allowed_span(a);
    a.span = span.usual * (0.85 + 0.35 * share(random));
  }
  if (pick(4)) {
    const Allowed length = allowed_length(a);
    a.length = std::clamp(length.usual * (0.9 + 0.3 * share(random)), length.least, length.most);
  }
  return a;
}

std::string told(const Answers& a) {
  const auto s = settled(a);
  return "model " + std::to_string(s.model) + " seats " + std::to_string(s.seats) + " kind " +
         std::to_string(static_cast<int>(s.kind)) + " up " + std::to_string(s.retractable) + " mass " +
         std::to_string(s.mass) + " span " + std::to_string(s.span) + " length " + std::to_string(s.length) +
         " wing " + std::to_string(static_cast<int>(s.wing)) + " engine " +
         std::to_string(static_cast<int>(s.engine)) + " field " + std::to_string(static_cast<int>(s.field));
}

}  // namespace

TEST_CASE("three aircraft from nine answers, as worked by hand", "[start]") {
  struct Row {
    Answers answers;
    double chord, propeller, drop, cg, height, main_x, third_x, track, main_load, third_load, wheel, travel,
        rate;
    int tight;
  };
  const Row rows[] = {{two_seater(), 1.636, 1.534, 0.303, 1.985, 0.854, 2.217, 0.457, 2.057, 2556, 772, 0.357,
                       0.192, 40340, 0},
                      {retracting(), 1.663, 1.559, 0.305, 1.994, 0.867, 2.227, 0.463, 2.057, 2726, 825, 0.383,
                       0.193, 42710, 0},
                      {tail_wheel_model(), 0.3827, 0.4275, 0.1955, 0.4820, 0.2640, 0.4002, 1.5203, 0.2965,
                       22.1, 5.29, 0.100, 0.0606, 1107, 2}};
  for (const Row& row : rows) {
    const Settled s = settled(row.answers);
    const Sizes z = sizes(s);
    const double to = 0.0012 * s.length;  // printed to a millimetre, settled to a two-thousandth
    CHECK(z.lift.root_chord == Approx(row.chord).margin(6e-4));
    CHECK(z.propeller == Approx(row.propeller).margin(6e-4));
    CHECK(z.drop == Approx(row.drop).margin(6e-4));
    CHECK(z.x_cg == Approx(row.cg).margin(to / 4));
    CHECK(z.height == Approx(row.height).margin(to / 4));
    CHECK(z.x_main == Approx(row.main_x).margin(to / 4));
    CHECK(z.x_third == Approx(row.third_x).margin(to / 4));
    CHECK(z.track == Approx(row.track).margin(to / 4));
    CHECK(z.main_load == Approx(row.main_load).epsilon(0.003));
    CHECK(z.third_load == Approx(row.third_load).epsilon(0.006));
    CHECK(z.main_diameter == Approx(row.wheel).margin(6e-4));
    CHECK(z.main_travel == Approx(row.travel).margin(6e-4));
    CHECK(z.main_rate == Approx(row.rate).epsilon(0.002));
    CHECK(z.settled_down);
    const Design d = started(row.answers).design;
    CHECK(sum_of(d) == Approx(*row.answers.mass).margin(1e-9));
    const Verdicts v = verdicts_of(d);
    INFO(v.said);
    CHECK(v.fail == 0);
    CHECK(v.unknown == 0);
    CHECK(v.tight == row.tight);
    CHECK(v.hold >= 40);
  }
}

TEST_CASE("whatever is answered, the aircraft stands, is judged throughout and nearly all of it holds",
          "[start]") {
  const char* wanted = std::getenv("KRANICH_RANDOM_STARTS");
  const int runs = wanted ? std::atoi(wanted) : 150;
  const char* first = std::getenv("KRANICH_RANDOM_FIRST");
  int failing = 0;
  for (int run = 0; run < runs; ++run) {
    std::mt19937 random(static_cast<unsigned>(run + (first ? std::atoi(first) : 0)));
    const Answers a = drawn(random);
    INFO("run " << run << ": " << told(a));
    REQUIRE(refusals(a).empty());
    const Started made = started(a);
    CHECK(made.settled);
    const Design& d = made.design;
    for (const Fault& f : inconsistencies(d)) FAIL_CHECK(f.where << " " << f.what);
    const auto again = read_project(write_project(d));
    REQUIRE(again.design);
    CHECK(write_project(*again.design) == write_project(d));
    CHECK(sum_of(d) == Approx(*a.mass).margin(d.is_model() ? 6e-5 : 0.051));
    const Verdicts v = verdicts_of(d);
    INFO(v.said);
    CHECK(v.unknown == 0);
    CHECK(v.hold >= 0.88 * (v.hold + v.tight + v.fail));
    failing += v.fail > 0;
  }
  // At the corners of the ranges a share is above its limit, and that is true of them.
  CHECK(failing <= 0.03 * runs);
}

TEST_CASE("what was answered stands as planned, what was not as guessed", "[start]") {
  Answers a = two_seater();
  a.length.reset();
  const Started made = started(a);
  const Design& d = made.design;
  CHECK(d.airframe.wing.span.origin == Origin::plan);
  CHECK(d.airframe.wing.span == Given(8.6));
  CHECK_FALSE(made.notes.empty());
  CHECK(in_words(made.notes[0]).find("length taken as usual") == 0);
  int guesses = 0;
  for (const NamedGiven& g : all_given(d)) {
    guesses += g.given.origin == Origin::guessed && g.given.tolerance > 0;
    if (g.given.tolerance > 0) CHECK(g.given.origin == Origin::guessed);
  }
  CHECK(guesses > 80);
  CHECK(d.airframe.wing.root_chord.tolerance == Approx(0.12 * d.airframe.wing.root_chord).epsilon(0.05));
  // Never guessed.
  CHECK(d.doors.empty());
  CHECK(d.own_limits.empty());
  CHECK_FALSE(d.airframe.mass_limit.known());
  CHECK(d.gear.main().joints.empty());
}

TEST_CASE("an answer that cannot be is refused with what is allowed, or kept with twice the doubt",
          "[start]") {
  Answers a = two_seater();
  a.mass = 100;
  REQUIRE(refusals(a).size() == 1);
  CHECK(refusals(a)[0].question == "mass");
  CHECK(in_words(refusals(a)[0].why).find("350") != std::string::npos);
  CHECK_THROWS_AS(started(a), std::invalid_argument);
  a.mass = 640;
  a.span = 16;
  REQUIRE(refusals(a).size() == 1);
  CHECK(refusals(a)[0].may_be_kept);
  // "at 640 kg 5.6–15.6 m"
  CHECK(allowed_span(a).least == Approx(5.6).margin(0.05));
  CHECK(allowed_span(a).most == Approx(15.6).margin(0.05));
  a.keep_span = true;
  CHECK(refusals(a).empty());
  const Started wide = started(a);
  Answers usual = a;
  usual.span = 8.9;
  usual.keep_span = false;
  CHECK(wide.design.airframe.wing.dihedral.tolerance ==
        Approx(2 * started(usual).design.airframe.wing.dihedral.tolerance));
  a.span = 400;
  CHECK_FALSE(refusals(a).empty());
  a = two_seater();
  a.field = Field::indoor;
  CHECK(refusals(a).at(0).question == "field");
  a = tail_wheel_model();
  a.scale = 500;
  CHECK(refusals(a).at(0).question == "scale");
}

TEST_CASE("a guessed leg goes with its axle, in the run over the tolerances too", "[start]") {
  const Design d = started(retracting()).design;
  const auto moved = std::get<Design>(changed(d, [](Design& c) {
    c.gear.main().axle.x = Given(c.gear.main().axle.x + 0.05, Origin::measured, 0.002);
    c.gear.main().axle.y.si += 0.02;
  }));
  const Leg &was = d.gear.main(), &now = moved.gear.main();
  CHECK(now.retraction.pivot.x == Approx(was.retraction.pivot.x + 0.05));
  CHECK(now.retraction.pivot.y == Approx(was.retraction.pivot.y + 0.02));
  CHECK(now.retraction.pivot.z == Approx(was.retraction.pivot.z.si));
  CHECK(now.retraction.well.low.x == Approx(was.retraction.well.low.x + 0.05));
  CHECK(now.top.x == Approx(was.top.x + 0.05));
  CHECK(moved.gear.third() == d.gear.third());
  // What was measured stays where it is, and a leg that was no guess takes nothing along.
  const auto again = std::get<Design>(changed(moved, [](Design& c) { c.gear.main().axle.x.si += 0.03; }));
  CHECK(again.gear.main().retraction.pivot.x == now.retraction.pivot.x);
  const auto pinned = std::get<Design>(
      changed(d, [](Design& c) { c.gear.main().retraction.pivot.x.origin = Origin::measured; }));
  const auto then = std::get<Design>(changed(pinned, [](Design& c) { c.gear.main().axle.x.si += 0.05; }));
  CHECK(then.gear.main().retraction.pivot.x.si == was.retraction.pivot.x.si);
  CHECK(then.gear.main().retraction.well.low.x == Approx(was.retraction.well.low.x + 0.05));
  // Measured with upper end and pivot pinned: the well still goes along, and once.
  const auto held = std::get<Design>(changed(d, [](Design& c) {
    for (Point* p : {&c.gear.main().top, &c.gear.main().retraction.pivot}) p->x.origin = Origin::measured;
  }));
  const auto measured = std::get<Design>(changed(held, [&](Design& c) {
    take_measured(c, "/gear/legs/main/axle/x_m", Tool::plumb_line, was.axle.x + 0.05);
  }));
  CHECK(measured.gear.main().retraction.well.low.x == Approx(was.retraction.well.low.x + 0.05));
  CHECK(measured.gear.main().retraction.pivot.x.si == was.retraction.pivot.x.si);
  // A leg that is lengthened keeps its upper end.
  const auto longer = std::get<Design>(changed(d, [](Design& c) {
    c.gear.main().axle.x.si += 0.01;
    c.gear.main().axle.z.si -= 0.05;
  }));
  CHECK(longer.gear.main().top.x.si == was.top.x.si);
  // In the run: the leg does not fail for a pivot that was left behind.
  const Assessment a = assess(d);
  const ToleranceResult spread = over_tolerances(d, a);
  const auto at = std::find(spread.paths.begin(), spread.paths.end(), "/gear/legs/main/axle/x_m");
  REQUIRE(at != spread.paths.end());
  const auto input = static_cast<size_t>(at - spread.paths.begin());
  bool tip = false;
  for (const Spread& s : spread.spreads)
    for (const Effect& e : s.effects) {
      if (e.input != input) continue;
      if (s.measure_id == "swing.unit_misfit") FAIL_CHECK("the unit was left behind");
      tip = tip || s.measure_id == "place.tip_back";
    }
  CHECK(tip);
}

TEST_CASE("scales under every wheel settle the empty mass and its station", "[start]") {
  for (const double more : {20.0, -30.0}) {
    Design d = started(retracting()).design;
    const EmptyMass before = empty_of(d);
    std::vector<double> readings;
    for (const auto& s : empty_scales(d)) readings.push_back(s.expected * (before.mass + more) / before.mass);
    REQUIRE(readings.size() == 3);
    CHECK(readings[0] == Approx(readings[1]));
    CHECK(in_words(empty_scales(d)[0].under).find("port") == 0);
    take_scales(d, readings);
    CHECK(empty_of(d).mass == Approx(before.mass + more));
    CHECK(empty_of(d).x == Approx(before.x));
    CHECK(inconsistencies(d).empty());
    for (const auto& i : d.ledger)
      if (i.group != Group::load && i.mass.origin == Origin::guessed) CHECK(i.mass.tolerance == 0);
  }
}

TEST_CASE("a fairing goes with its well", "[start]") {
  const Design d = started(tail_wheel_model()).design;
  REQUIRE(d.airframe.bodies.size() == 2);
  const auto moved = std::get<Design>(changed(d, [](Design& c) { c.gear.main().axle.x.si += 0.01; }));
  CHECK(moved.airframe.bodies[1].sections[0].x == Approx(d.airframe.bodies[1].sections[0].x + 0.01));
  CHECK(moved.airframe.bodies[0] == d.airframe.bodies[0]);
}

TEST_CASE("what to measure next: what settles most comes first, and it shrinks", "[start]") {
  Design d = started(retracting()).design;
  for (const Act& act : acts_of(d)) {
    INFO(act.id);
    CHECK_FALSE(in_words(act.what).empty());
    for (const auto& path : act.paths) {
      INFO(path);
      const auto g = locate_given(d, path);
      REQUIRE(g);
      CHECK(g->given->origin == Origin::guessed);
    }
  }
  // Every number with a half-range belongs to one act.
  std::map<std::string, int> times;
  for (const Act& act : acts_of(d))
    for (const auto& path : act.paths) ++times[path];
  for (const NamedGiven& g : all_given(d))
    if (g.given.tolerance > 0) CHECK(times[g.path] == 1);

  const auto next = [](const Design& design) {
    const Assessment a = assess(design);
    return measure_next(design, a, over_tolerances(design, a));
  };
  NextList list = next(d);
  REQUIRE(list.acts.size() >= 5);
  CHECK(list.open > 20);
  double last = 1e9;
  for (const Worth& w : list.acts) {
    CHECK(w.score >= 0.01 * list.weight);
    CHECK(w.score <= last / 0.95 + 1e-9);
    last = w.score;
    CHECK(w.narrows.size() <= 3);
  }
  // Of a nose wheel aircraft the axle's station and the scales say most.
  CHECK(((list.acts[0].act.tool == Tool::plumb_line && list.acts[1].act.tool == Tool::scales) ||
         (list.acts[1].act.tool == Tool::plumb_line && list.acts[0].act.tool == Tool::scales)));
  CHECK(list.acts[0].act.paths[0].find("/ledger/") +
            list.acts[1].act.paths[0].find("/gear/legs/main/axle/x_m") !=
        std::string::npos);
  // Ten acts done as the list has them leave a good deal less open than ten drawn by lot.
  const auto done = [](Design& design, const Act& act) {
    for (const auto& path : act.paths) {
      Given& g = *locate_given(design, path)->given;
      g = Given(g.si, Origin::measured, 0);
    }
  };
  Design ranked = d, by_lot = d;
  for (int i = 0; i < 5; ++i) done(ranked, list.acts.at(static_cast<size_t>(i)).act);
  const auto all = acts_of(d);
  for (size_t i = 0; i < 5; ++i) done(by_lot, all[(i * 7 + 3) % all.size()]);
  const NextList after = next(ranked), lot = next(by_lot);
  CHECK(after.weight < 0.7 * list.weight);
  CHECK(after.weight < lot.weight);
  CHECK(after.open < list.open);
  for (const Worth& w : after.acts) CHECK(w.act.id != list.acts[0].act.id);
}
