// SPDX-License-Identifier: GPL-3.0-or-later
//! What each kind of spring is held to at its stop, and that Leg asked for alone says the same as with
//! everything.
#include <catch2/catch.hpp>

#include "core/assess/assess.h"
#include "core/assess/cures.h"
#include "core/base/quantity.h"
#include "core/force/coil.h"
#include "core/shop/drawing.h"
#include "demo.h"
#include "findings.h"
#include "said.h"

using namespace kranich;

namespace {

//! Redshank with another spring in its main legs.
template <class Change>
Design redshank_with(SpringKind kind, Change&& change) {
  auto d = demo("redshank");
  d.gear.main().spring.kind = kind;
  change(d.gear.main().spring);
  return d;
}

}  // namespace

TEST_CASE("a gas strut must have stroke left at the leg's stop") {
  const auto with = [](double stroke) {
    return assess(redshank_with(SpringKind::gas_strut, [&](Spring& s) {
      s.gas_strut = {{}, "", Given(25.0), Given(1.5), Given(stroke), Given(1.0)};
    }));
  };
  const auto long_one = with(0.08);
  const auto* left = find(long_one, "spring.strut_left", "main leg");
  REQUIRE(left);
  CHECK(left->value == Approx(0.08 - 0.052));
  CHECK(left->verdict == Verdict::holds);
  CHECK(says(left->remark, "never open"));
  const auto short_one = with(0.05);
  CHECK(find(short_one, "spring.strut_left", "main leg")->verdict == Verdict::fails);
}

TEST_CASE("pucks are held to a quarter of their thickness, and the force to assemble them is told") {
  const auto with = [](double count) {
    return assess(redshank_with(SpringKind::pucks, [&](Spring& s) {
      Pucks& p = s.pucks;
      p.count = Given(count);
      p.outer_diameter = Given(0.02);
      p.hole_diameter = Given(0.006);
      p.thickness = Given(0.01);
      p.shear_modulus = Given(0.4e6);
      p.assembled_length = Given(count * 0.01 - 0.004);
    }));
  };
  const auto many = with(30);
  const auto* squeezed = find(many, "spring.puck_squeeze", "main leg");
  REQUIRE(squeezed);
  CHECK(squeezed->value == Approx(0.056 / 0.30));
  CHECK(squeezed->verdict == Verdict::holds);
  bool told = false;
  for (const auto& w : squeezed->working) told = told || (w.name == "force needed to assemble" && w.si > 0);
  CHECK(told);
  const auto few = with(15);
  CHECK(find(few, "spring.puck_squeeze", "main leg")->verdict == Verdict::fails);
}

TEST_CASE("a cord is not stretched beyond what was measured of it") {
  auto d = demo("wheatear");
  const auto holds = assess(d);
  REQUIRE(find(holds, "spring.cord_reach", "main leg"));
  CHECK(find(holds, "spring.cord_reach", "main leg")->verdict == Verdict::holds);
  d.gear.main().spring.cord.curve.resize(3);
  const auto short_curve = assess(d);
  CHECK(find(short_curve, "spring.cord_reach", "main leg")->verdict == Verdict::fails);
}

TEST_CASE("a long coil is told to be guided") {
  const auto d = demo("redshank");
  const auto a = assess(d);
  const auto* f = find(a, "spring.coil_buckles", "main leg");
  REQUIRE(f);
  const Coil& c = d.gear.main().spring.coil;
  CHECK(f->value == Approx(force::buckling_free_length(c.mean_diameter, 0.5) - c.free_length));
  CHECK(says(f->remark, "guide"));
  CHECK(f->verdict == Verdict::noted);
}

TEST_CASE("a bow's rule of thumb stands beside what beam theory says of it") {
  auto d = demo("redshank");
  Leg& tail = d.gear.third();
  BentLeg& b = tail.spring.bent;
  b.form = BentForm::bow;
  b.material = "carbon, unidirectional";
  b.loops.clear();
  b.plies = Given(6.0);
  b.ply_areal_weight = Given(0.15);
  for (auto& p : b.line) p.width = Given(0.015);
  const auto a = assess(d);
  const auto* seed = find(a, "spring.bow_seed", "tail leg");
  REQUIRE(seed);
  CHECK(seed->verdict == Verdict::noted);
  REQUIRE(seed->working.size() == 5);
  CHECK(seed->working[0].si == Approx(seed->value));
  CHECK(seed->working[1].si == Approx(seed->value * 85 / 55));
  CHECK(seed->working[2].si == 6);
  // As many plies in a leg as wide as these want are the seed again.
  CHECK(6 * seed->working[3].si == Approx(seed->value * 0.015));
  const auto* margin = find(a, "spring.bend_rest", "tail leg");
  REQUIRE(margin);
  bool strain = false;
  for (const auto& w : margin->working) strain = strain || w.name == "strain";
  CHECK(strain);
}

TEST_CASE("Leg asked for alone says what it says with everything") {
  for (const std::string name : {"dunnock", "redshank", "wheatear"}) {
    const auto d = demo(name);
    const auto all = assess(d);
    Stations only = Stations::only(Station::leg);
    only.measure = "leg.margin";
    const auto one = assess(d, only);
    int compared = 0;
    for (const auto& f : all.findings) {
      if (f.measure_id != "leg.margin") continue;
      const auto* same = find(one, f.measure_id, f.subject);
      INFO(name << " " << f.subject);
      REQUIRE(same);
      CHECK(same->value == f.value);
      CHECK(same->remark == f.remark);
      ++compared;
    }
    CHECK(compared > 4);
    // Bumps are not rolled over for it.
    for (const auto& f : one.findings) CHECK(f.measure_id.rfind("spring.bump", 0) != 0);
  }
}

TEST_CASE("the knobs that mend a leg move its margins and nothing of Place") {
  for (const std::string name : {"dunnock", "redshank", "wheatear"}) {
    const auto d = demo(name);
    for (const auto& k : knobs_for(d, "leg.margin")) {
      const auto before = assess(d);
      bool moved = false;
      // What does not decide now does when there is less of it.
      for (const double by : {k->step, k->least}) {
        Design other = d;
        k->apply(other, by);
        const auto after = assess(other);
        for (const auto& f : before.findings) {
          const auto* same = find(after, f.measure_id, f.subject);
          if (!same || !std::isfinite(f.value)) continue;
          INFO(name << " " << k->id << " " << f.key());
          if (f.measure_id == "leg.margin") moved = moved || std::abs(same->value - f.value) > 1e-9;
        }
      }
      INFO(name << " " << k->id);
      CHECK(moved);
    }
  }
}

TEST_CASE("a table's rows stand below each other, a dimension between its points") {
  shop::Drawing d;
  const double end = d.table({10, 100}, {30, 20}, {{"a", "b"}, {"c", "d"}, {"e", "f"}}, 3);
  CHECK(end == Approx(100 - 3 * 6.3));
  REQUIRE(d.texts.size() == 6);
  CHECK(d.texts[1].at.x() == Approx(41));
  CHECK(d.texts[2].at.y() == Approx(d.texts[0].at.y() - 6.3));
  shop::Drawing m;
  m.dimension({0, 0}, {50, 0}, 10, "50 mm");
  CHECK(m.texts.front().at.x() == Approx(25));
  CHECK(m.texts.front().at.y() > 10);
  m.dimension({0, 0}, {0, 50}, 10, "50 mm");
  CHECK(m.texts.back().at.x() < -10);
}
