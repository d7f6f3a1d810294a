// SPDX-License-Identifier: GPL-3.0-or-later
//! Which limits apply when: by field, size, brakes and arrangement; what each knob moves; states of the legs.
#include <catch2/catch.hpp>
#include <filesystem>

#include "core/assess/assess.h"
#include "core/assess/cures.h"
#include "core/assess/loading_state.h"
#include "core/base/quantity.h"
#include "core/io/csv.h"
#include "core/io/project_file.h"
#include "core/model/locate.h"
#include "core/model/moves.h"
#include "demo.h"
#include "said.h"

using namespace kranich;

namespace {

Finding first(const Design& d, std::string_view id, GearState state = GearState::static_load,
              bool any_state = true) {
  const auto a = assess(d);
  for (const auto& f : a.findings)
    if (f.measure_id == id && (any_state || f.state == state)) return f;
  FAIL("no finding " << id);
  throw 0;
}
double upper(const Design& d, std::string_view id) { return first(d, id).limit.upper.value_or(-1); }
double lower(const Design& d, std::string_view id) { return first(d, id).limit.lower.value_or(-1); }

}  // namespace

TEST_CASE("turnover: 63° on smooth ground, 57° on rough") {
  auto d = demo("dunnock");
  for (const auto& [field, degrees_allowed] : {std::pair{Field::tarmac, 63.0},
                                               {Field::indoor, 63.0},
                                               {Field::turf, 57.0},
                                               {Field::rough, 57.0},
                                               {Field::sand, 57.0}}) {
    d.purpose.field = field;
    CHECK(degrees(upper(d, "place.turnover")) == Approx(degrees_allowed));
  }
}

TEST_CASE("tip-back: not below 15°, nor below the tail strike; models on smooth fields from 10°") {
  auto d = demo("dunnock");
  const double with_tail = lower(d, "place.tip_back");
  CHECK(with_tail > radians(15));
  for (auto& p : d.airframe.low_points) p.at.z.si -= 0.1;  // a low tail strikes first: then the 15° count
  CHECK(lower(d, "place.tip_back") == Approx(radians(15)));
  d.purpose.build = Build::model;
  d.purpose.field = Field::tarmac;
  CHECK(lower(d, "place.tip_back") < radians(15));
}

TEST_CASE("propeller: 180 mm with a nosewheel, 230 with a tailwheel, a share of the diameter for models") {
  auto d = demo("dunnock");
  CHECK(lower(d, "place.propeller_static") == Approx(0.18));
  auto r = demo("redshank");
  CHECK(lower(r, "place.propeller_static") == Approx(0.15 * 0.46));
  r.purpose.field = Field::tarmac;
  CHECK(lower(r, "place.propeller_static") == Approx(0.10 * 0.46));
  r.purpose.build = Build::full_size;
  CHECK(lower(r, "place.propeller_static") == Approx(0.23));
}

TEST_CASE("axle-ahead: the gentle band needs weak brakes and a smooth strip, both") {
  auto r = demo("redshank");
  CHECK(lower(r, "place.axle_ahead") == Approx(radians(16)));
  r.purpose.field = Field::tarmac;
  CHECK(lower(r, "place.axle_ahead") == Approx(radians(12)));
  CHECK(upper(r, "place.axle_ahead") == Approx(radians(17)));
  r.gear.brakes = true;
  CHECK(lower(r, "place.axle_ahead") == Approx(radians(16)));
  CHECK(lower(r, "place.nose_over_three_point") == Approx(0.5));
}

TEST_CASE("clearance falls from static over bottomed to flat, by what the legs and tyres give") {
  const auto d = demo("redshank");  // level attitude in every state: the heights differ by the legs alone
  const auto a = assess(d);
  for (const auto& l : a.loadings) {
    double value[3] = {};
    for (const auto& f : a.findings) {
      if (f.loading != l.name) continue;
      if (f.measure_id == "place.propeller_static") value[0] = f.value;
      if (f.measure_id == "place.propeller_bottomed") value[1] = f.value;
      if (f.measure_id == "place.propeller_flat") value[2] = f.value;
    }
    const auto& main = l.rest->wheels[1];
    CHECK(value[0] - value[1] == Approx(d.gear.main().travel - main.leg_closure));
    CHECK(value[1] - value[2] ==
          Approx(d.gear.main().wheel.diameter / 2 - main.tyre_closure - d.gear.main().wheel.flat_radius));
  }
}

TEST_CASE("standing on the bench is not judged by the flying limits") {
  auto d = demo("dunnock");
  for (auto& l : d.loadings) l.flown = false;
  for (const auto& f : assess(d).findings) {
    CHECK(f.measure_id.rfind("place.tip_back", 0) != 0);
    if (f.measure_id == "weigh.cg_station") CHECK(f.verdict == Verdict::noted);
  }
}

TEST_CASE("scales against ledger: the difference is shown, and needs everything it needs") {
  auto d = demo("dunnock");
  CHECK(first(d, "weigh.scales_mass").value == Approx(102.3 + 169.4 - 2.1 + 170.5 - 2.1 - 437.6));
  d.weighing.scales[1].tare = {};
  CHECK(says(first(d, "weigh.scales_mass").remark, "tare of"));
  d = demo("dunnock");
  d.weighing.loading = "nobody";
  CHECK(first(d, "weigh.scales_mass").verdict == Verdict::unknown);
  d = demo("dunnock");
  d.weighing.scales[0].reading = Given(140.0);
  CHECK(first(d, "weigh.scales_mass").verdict == Verdict::fails);
  d = demo("dunnock");
  d.gear.main().axle.x.si -= 0.2;  // the gear moved since: what was weighed did not
  CHECK(first(d, "weigh.scales_cg").value == Approx(first(demo("dunnock"), "weigh.scales_cg").value));
}

TEST_CASE("every knob changes something, both ways round, and takes it back") {
  for (const std::string name : {"dunnock", "redshank", "wheatear"}) {
    const auto d = demo(name);
    for (const auto& knob : knobs(d)) {
      const Knob& k = *knob;
      INFO(name << " " << k.id);
      Design there = d;
      k.apply(there, k.step);
      const std::string_view id = k.id;
      const bool no_such_step = id.rfind("sequence.doors_close_later_down", 0) == 0 && name == "redshank";
      if (!no_such_step) CHECK_FALSE(there == d);
      k.apply(there, -k.step);
      CHECK(there.gear.main().axle.x.si == Approx(d.gear.main().axle.x.si));
      CHECK(there.gear.third().axle.z.si == Approx(d.gear.third().axle.z.si));
      if (k.least < 0) CHECK_FALSE(k.more == k.less);
    }
  }
  for (const auto& m : all_measures())
    for (const auto& k : knobs_for(demo("dunnock"), m.id)) CHECK(k->step > 0);
}

TEST_CASE("a leg made longer keeps its line; a shifted leg keeps its shape") {
  Leg leg = demo("dunnock").gear.third();
  const Vec3 line = (leg.axle.vec() - leg.retraction.pivot.vec());
  lengthen_leg(leg, 0.05);
  const Vec3 longer = (leg.axle.vec() - leg.retraction.pivot.vec());
  CHECK(longer.norm() == Approx(line.norm() + 0.05));
  CHECK(longer.normalized().dot(line.normalized()) == Approx(1));
  shift_leg(leg, 0.1, 0, -0.2);
  CHECK((leg.axle.vec() - leg.retraction.pivot.vec() - longer).norm() < 1e-12);
}

TEST_CASE("the figures as a table hold every finding, number for number") {
  const auto a = assess(demo("redshank"));
  const auto table = std::get<std::vector<CsvRow>>(parse_csv(findings_to_csv(a)));
  REQUIRE(table.size() == a.findings.size() + 1);
  for (size_t i = 0; i < a.findings.size(); ++i) {
    CHECK(table[i + 1][0] == a.findings[i].measure_id);
    CHECK(table[i + 1][12] == verdict_word(a.findings[i].verdict));
    if (std::isfinite(a.findings[i].value))
      CHECK(std::stod(table[i + 1][5]) == a.findings[i].value);
    else
      CHECK(table[i + 1][5].empty());
  }
}

TEST_CASE("worst first: fails before tight before unknown before holds before noted") {
  for (const std::string name : {"dunnock", "redshank", "wheatear"}) {
    const auto a = assess(demo(name));
    const auto list = worst_of_each(a);
    for (size_t i = 1; i < list.size(); ++i) CHECK_FALSE(worse(*list[i], *list[i - 1]));
    for (const Finding* w : list)
      for (const auto& f : a.findings)
        if (f.measure_id == w->measure_id && f.subject == w->subject) CHECK_FALSE(worse(f, *w));
  }
}

TEST_CASE("a softer nose spring is found for a wanted pitch, a harder one too") {
  const auto d = demo("redshank");
  const auto a = assess(d);
  const auto& m = a.loadings[1].mass.down;
  const double now = a.loadings[1].rest->pitch;
  for (const double by : {radians(0.05), radians(-0.05)}) {
    const auto rate =
        stance::spring_for_pitch(m.mass, m.at, *a.wheels, {2}, stance::SpringChange::rate, now + by);
    REQUIRE(rate);
    auto wheels = *a.wheels;
    wheels[2].leg.law.rate = *rate;
    const auto rest = stance::solve(m.mass, m.at, wheels);
    CHECK(std::get<stance::Rest>(rest).pitch == Approx(now + by).margin(1e-9));
    CHECK((by > 0 ? *rate < (*a.wheels)[2].leg.law.rate
                  : *rate > (*a.wheels)[2].leg.law.rate));  // tail down is nose up
  }
  CHECK_FALSE(stance::spring_for_pitch(m.mass, m.at, *a.wheels, {2}, stance::SpringChange::rate, now + 0.5));
}

TEST_CASE("own limits, doors and steps survive the file, with origins and tolerances") {
  auto d = demo("redshank");
  OwnLimit own;
  own.measure = "place.turnover";
  own.reason = "a narrow gate";
  own.upper = Given(0.9, Origin::estimated, 0.05);
  d.own_limits.push_back(own);
  d.gear.main().axle.x = Given(0.333, Origin::measured, 0.0005);
  const auto back = read_project(write_project(d));
  REQUIRE(back.design);
  CHECK(*back.design == d);
  CHECK(back.design->own_limits[0].upper.tolerance == 0.05);
  CHECK(back.design->gear.main().axle.x.origin == Origin::measured);
}
