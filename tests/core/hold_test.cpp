// SPDX-License-Identifier: GPL-3.0-or-later
//! Exchanges off the shelves, ballast, fasteners, and Make it hold.
#include <array>
#include <catch2/catch.hpp>
#include <random>
#include <set>

#include "core/assess/cures.h"
#include "core/assess/loading_state.h"
#include "core/assess/make_hold.h"
#include "core/io/project_file.h"
#include "core/io/stock.h"
#include "core/model/locate.h"
#include "demo.h"
#include "findings.h"

using namespace kranich;

namespace {

int failing(const Assessment& a) {
  int n = 0;
  for (const auto& f : a.findings) n += f.verdict == Verdict::fails;
  return n;
}

const Cure* named(const std::vector<Cure>& cures, std::string_view id) {
  for (const auto& c : cures)
    if (c.id() == id) return &c;
  return nullptr;
}

}  // namespace

TEST_CASE("a wheel of the shelf is offered by name, and put in with its mass") {
  const auto d = demo("dunnock");
  const auto a = assess(d);
  const Finding& f = the_worst(a, "place.ground_pressure", "nose wheel");
  REQUIRE(f.verdict == Verdict::tight);
  const auto cures = cures_for(d, a, f, {100, &shipped_stock()});
  const Cure* wheel = named(cures, d.gear.third().id + ".wheel_from_shelf");
  REQUIRE(wheel);
  const Design put = wheel->applied(d);
  const std::string& name = put.gear.third().wheel.shelf_name;
  CHECK(in_words(wheel->text).find("“" + name + "”") != std::string::npos);
  CHECK(put.gear.main().wheel == d.gear.main().wheel);
  CHECK(the_worst(assess(put), f.measure_id, f.subject).verdict == wheel->reached);
  CHECK(wheel->reached == Verdict::holds);
  for (const auto& w : shipped_stock().wheels)
    if (w.name == name) CHECK(put.gear.third().wheel.diameter.si == w.wheel.diameter.si);
  CHECK(read_project(write_project(put)).design);
  // Without a stock nothing is exchanged.
  CHECK_FALSE(named(cures_for(d, a, f), d.gear.third().id + ".wheel_from_shelf"));
}

TEST_CASE("a spring of the shelf is offered for the leg that it is about") {
  auto d = demo("redshank");
  locate_given(d, "/gear/legs/main/spring/coil/wire_diameter_m")->given->si *= 0.8;
  const auto a = assess(d);
  const Finding* sag = worst(a, "spring.sag", "main leg");
  REQUIRE(sag);
  REQUIRE(sag->verdict == Verdict::fails);
  const auto cures = cures_for(d, a, *sag, {100, &shipped_stock()});
  const Cure* spring = named(cures, "main.spring_from_shelf");
  REQUIRE(spring);
  const Design put = spring->applied(d);
  CHECK_FALSE(put.gear.main().spring.coil.shelf_name.empty());
  CHECK(put.gear.third().spring == d.gear.third().spring);
  CHECK(the_worst(assess(put), "spring.sag", "main leg").verdict == spring->reached);
}

TEST_CASE("stronger materials by name: of the same stuff, the next strongest that does it") {
  auto d = demo("dunnock");
  for (auto& leg : d.gear.legs) leg.material = "aluminium 6061-T6";
  d.gear.main().tube_wall.si = 0.0016;
  const auto a = assess(d);
  const Finding& f = the_worst(a, "leg.margin", "main leg, leg");
  REQUIRE(f.verdict == Verdict::fails);
  const auto cures = cures_for(d, a, f, {100, &shipped_stock()});
  const Cure* swap = named(cures, "main.material");
  REQUIRE(swap);
  const Design put = swap->applied(d);
  CHECK(put.gear.main().material != d.gear.main().material);
  CHECK(the_worst(assess(put), "leg.margin", f.subject).verdict == swap->reached);
  // No bolt or screw is what a leg is made of, and nothing weaker is offered.
  for (const auto& k : swaps_for(d, a, shipped_stock(), f))
    if (k->what() == "material")
      for (const auto& c : k->choices) {
        INFO(c);
        CHECK(in_words(c).find("bolt") == std::string::npos);
        CHECK(in_words(c).find("mild steel") == std::string::npos);
      }
}

TEST_CASE("one more fastener in each row spreads them evenly between its ends") {
  auto d = demo("dunnock");
  const auto list = knobs(d);
  const auto knob =
      std::find_if(list.begin(), list.end(), [](const auto& k) { return k->what() == "fastener_count"; });
  REQUIRE(knob != list.end());
  const std::string leg = (*knob)->id.substr(0, (*knob)->id.find('.'));
  const auto& before = d.gear.leg(leg).joints;
  Design more = d;
  (*knob)->apply(more, 1);
  const auto& after = more.gear.leg(leg).joints;
  REQUIRE(before.size() == after.size());
  bool changed = false;
  for (size_t i = 0; i < before.size(); ++i) {
    const auto range = [](const Joint& j, auto what) {
      double low = 1e9, high = -1e9;
      for (const auto& f : j.fasteners) {
        low = std::min(low, what(f));
        high = std::max(high, what(f));
      }
      return std::pair{low, high};
    };
    if (before[i].kind != JointKind::fasteners) {
      CHECK(after[i] == before[i]);
      continue;
    }
    changed = changed || after[i].fasteners.size() > before[i].fasteners.size();
    const auto u = [](const Fastener& f) { return f.u.si; };
    const auto v = [](const Fastener& f) { return f.v.si; };
    CHECK(range(after[i], u) == range(before[i], u));
    CHECK(range(after[i], v) == range(before[i], v));
    // Never closer than three diameters.
    for (size_t p = 0; p < after[i].fasteners.size(); ++p)
      for (size_t q = 0; q < p; ++q) {
        const auto& x = after[i].fasteners[p];
        const auto& y = after[i].fasteners[q];
        CHECK(std::hypot(x.u - y.u, x.v - y.v) >= 3 * x.diameter - 1e-9);
      }
  }
  CHECK(changed);
  CHECK(read_project(write_project(more)).design);
}

TEST_CASE("ballast goes aboard whenever it flies, and what stood on the scales had none") {
  const auto d = demo("dunnock");
  const auto a = assess(d);
  const auto list = knobs(d);
  const auto knob =
      std::find_if(list.begin(), list.end(), [](const auto& k) { return k->id == "weigh.ballast_tail"; });
  REQUIRE(knob != list.end());
  Design heavier = d;
  (*knob)->apply(heavier, 2.5);
  (*knob)->apply(heavier, 0.5);  // on top of it
  REQUIRE(heavier.ledger.size() == d.ledger.size() + 1);
  CHECK(heavier.ledger.back().mass.si == Approx(3));
  const auto b = assess(heavier);
  for (const auto& l : d.loadings) {
    INFO(l.name);
    const double by = b.find(l.name)->mass.down.mass - a.find(l.name)->mass.down.mass;
    CHECK(by == Approx(l.flown ? 3 : 0).margin(1e-9));
  }
  CHECK(the_worst(b, "weigh.scales_mass").value == Approx(the_worst(a, "weigh.scales_mass").value));
  CHECK(read_project(write_project(heavier)).design);
}

TEST_CASE("a bare shell that sits on its tail is held down on the bench, not built differently") {
  auto d = demo("dunnock");
  Item shell;
  shell.name = "tail weights";
  shell.group = Group::load;
  shell.mass = Given(120.0);
  shell.at.x = Given(4.6);
  shell.at.y = Given(0.0);
  shell.at.z = Given(0.2);
  Loading bench;
  bench.name = "shell on the bench";
  bench.flown = false;
  Aboard aboard;
  aboard.item = shell.name;
  bench.aboard = {aboard};
  d.ledger.push_back(shell);
  d.loadings.push_back(bench);
  const auto a = assess(d);
  const Finding* f = nullptr;
  for (const auto& x : a.findings)
    if (x.measure_id == "stance.third_load" && x.loading == bench.name) f = &x;
  REQUIRE(f);
  REQUIRE(f->verdict == Verdict::fails);
  const auto cures = cures_for(d, a, *f, {100, &shipped_stock()});
  REQUIRE(cures.size() == 1);
  CHECK(plain(cures[0].text).find("hung on at") != std::string::npos);
  const Design put = cures[0].applied(d);
  CHECK(read_project(write_project(put)).design);
  CHECK(put.gear == d.gear);
  const auto after = assess(put);
  for (const auto& x : after.findings)
    if (x.measure_id == "stance.third_load" && x.loading == bench.name) CHECK(x.verdict != Verdict::fails);
  for (const auto& l : d.loadings)
    if (l.flown) CHECK(after.find(l.name)->mass.down.mass == Approx(a.find(l.name)->mass.down.mass));
}

TEST_CASE("make it hold: every way of every demo, put in, leaves nothing failing and costs what was told") {
  size_t in_all = 0;
  for (const std::string& name : demo_names()) {
    const auto d = demo(name);
    const auto before = assess(d);
    REQUIRE(failing(before) > 0);
    HoldSearch search;
    search.stock = &shipped_stock();
    int told = 0;
    search.first = [&](const Cure&) { ++told; };
    const auto held = make_hold(d, before, search);
    REQUIRE_FALSE(held.ways.empty());
    CHECK(told == 1);
    CHECK(held.against.empty());
    std::set<std::string> ids;
    for (const auto& w : held.ways) {
      INFO(name << ": " << w.text);
      CHECK(ids.insert(w.id()).second);  // several, and different
      const Design put = w.applied(d);
      const auto after = assess(put);
      CHECK(failing(after) == 0);
      for (const auto& p : w.worse) CHECK(the_worst(after, p.measure_id, p.subject).verdict == p.after);
      CHECK(read_project(write_project(put)).design);
      for (const auto& p : w.parts) {
        CHECK(p.change <= p.knob->most + 1e-12);
        CHECK(p.change >= p.knob->least - 1e-12);
        // Each part is needed, and a step less of it does not do.
        if (!p.knob->choices.empty() || w.parts.size() == 1) continue;
        Cure without = w;
        std::erase_if(without.parts, [&](const auto& q) { return q.knob == p.knob; });
        CHECK(failing(assess(without.applied(d))) > 0);
      }
    }
    in_all += ids.size();
    // No single cure that leaves nothing failing goes less far than the best way.
    double least = 1e9;
    for (const auto& w : held.ways)
      least = std::min(least, 0.1 * static_cast<double>(w.worse.size()) + effort_of(w));
    for (const Finding* f : worst_of_each(before))
      for (const auto& c : cures_for(d, before, *f, {100, &shipped_stock()}))
        if (failing(assess(c.applied(d))) == 0)
          CHECK(0.1 * static_cast<double>(c.worse.size()) + effort_of(c) >= least - 1e-9);
  }
  CHECK(in_all >= 8);
}

TEST_CASE("make it hold: demos with some of their numbers put wrong come to hold again") {
  std::mt19937 random(5);
  int held = 0, asked = 0;
  for (int i = 0; i < 8; ++i) {
    const char* name = std::array{"dunnock", "redshank", "wheatear", "nightjar"}[static_cast<size_t>(i % 4)];
    Design d = demo(name);
    const auto list = knobs(d);
    for (int turned = 0; turned < 2;) {
      const Knob& k = *list[std::uniform_int_distribution<size_t>(0, list.size() - 1)(random)];
      Design wrong = d;
      k.apply(wrong, std::uniform_real_distribution<>(0.15 * k.least, 0.15 * k.most)(random));
      if (!buildable(d, wrong)) continue;
      d = wrong;
      ++turned;
    }
    const auto before = assess(d);
    if (failing(before) == 0) continue;
    ++asked;
    HoldSearch search;
    search.most = 1;
    search.stock = &shipped_stock();
    const auto answer = make_hold(d, before, search);
    held += !answer.ways.empty();
    CHECK(answer.ways.empty() != answer.against.empty());
    for (const auto& w : answer.ways) {
      INFO(name << ": " << w.text);
      const Design put = w.applied(d);
      CHECK(buildable(d, put));
      CHECK(failing(assess(put)) == 0);
    }
  }
  CHECK(held >= asked - 2);
  CHECK(asked >= 6);
}

TEST_CASE("make it hold moves only what may move, and says what contradicts where nothing does it") {
  const auto d = demo("dunnock");
  const auto before = assess(d);
  HoldSearch search;
  search.may_move.emplace();
  for (auto& k : knobs_offered(d, before))
    if (k->id == "main.station") search.may_move->push_back(k);
  REQUIRE(search.may_move->size() == 1);
  // The wheel's place does nothing for the leg that is too long for its well.
  const auto held = make_hold(d, before, search);
  CHECK(held.ways.empty());
  REQUIRE_FALSE(held.against.empty());
  CHECK(std::any_of(held.against.begin(), held.against.end(),
                    [](const Finding& f) { return f.measure_id == "swing.clearance"; }));

  // Two limits of the builder's own that leave no room between them.
  auto torn = demo("wheatear");
  OwnLimit low;
  low.measure = "place.axle_ahead";
  low.lower = Given(radians(24));
  OwnLimit high;
  high.measure = "place.tail_share";
  high.upper = Given(0.08);
  torn.own_limits = {low, high};
  const auto torn_before = assess(torn);
  HoldSearch by_place;
  by_place.may_move.emplace();
  for (auto& k : knobs(torn))
    if (k->id == "main.station" || k->id == "main.length") by_place.may_move->push_back(k);
  const auto none = make_hold(torn, torn_before, by_place);
  CHECK(none.ways.empty());
  CHECK(none.contradict);
  std::set<std::string> against;
  for (const auto& f : none.against) against.insert(f.measure_id);
  // A light tail wants the wheels aft, and all that keeps the nose up wants them forward.
  CHECK(against.count("place.tail_share"));
  CHECK(against.count("place.axle_ahead") + against.count("place.nose_over_three_point") +
            against.count("place.nose_over_level") >
        0);
  CHECK(against.size() >= 2);
  CHECK(against.size() <= 4);
  // With the one limit taken back there is a way.
  torn.own_limits = {};
  CHECK_FALSE(make_hold(torn, assess(torn), by_place).ways.empty());
}

TEST_CASE("make it hold is called off at once, and has nothing to do where nothing fails") {
  const auto d = demo("nightjar");
  const auto before = assess(d);
  HoldSearch search;
  int asked = 0;
  search.progress = [&](double) { return ++asked < 20; };
  CHECK(make_hold(d, before, search).ways.empty());
  CHECK(asked < 60);
  auto cured = make_hold(demo("wheatear"), assess(demo("wheatear")));
  REQUIRE_FALSE(cured.ways.empty());
  const Design good = cured.ways.front().applied(demo("wheatear"));
  CHECK(make_hold(good, assess(good)).ways.empty());
}
