// SPDX-License-Identifier: GPL-3.0-or-later
//! What the core says as a value: worded at the edge, in any units and language.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/assess/assess.h"
#include "core/assess/knobs.h"
#include "core/assess/subjects.h"
#include "core/model/locate.h"
#include "demo.h"
#include "said.h"

using namespace kranich;

namespace {
const Text sentence_with_all = say("the CG lies {} behind {}, N {}", Amount{0.0254, Kind::length},
                                   std::string("the {} wheel"), Figure{2.345, 2});
}

TEST_CASE("a text is worded in the reader's units, a user's own words as they are") {
  CHECK(plain(sentence_with_all) == "the CG lies 25.4 mm behind the {} wheel, N 2.35");
  CHECK(plain(sentence_with_all, {UnitSystem::inch}) == "the CG lies 1 in behind the {} wheel, N 2.35");
  CHECK(in_words(Text("a {} that stands for nothing")) == "a {} that stands for nothing");
  CHECK(in_words(Text()).empty());
  CHECK(Text().empty());
  CHECK_FALSE(Text(Amount{0, Kind::mass}).empty());
  CHECK(in_words(Text(Amount{std::nan(""), Kind::mass})) == "unknown");
}

TEST_CASE("another language puts its words and its order in, and leaves names alone") {
  const Catalogue german{{"the CG lies {} behind {}, N {}", "N {3}: {2} steht {1} vor dem Schwerpunkt"},
                         {"the {} wheel", "must not be looked up"},
                         {"front {}", "vorderes {}"},
                         {"main leg", "Hauptbein"}};
  CHECK(plain(sentence_with_all, {UnitSystem::metric, &german}) ==
        "N 2.35: the {} wheel steht 25.4 mm vor dem Schwerpunkt");
  CHECK(in_words(say("front {}", "main leg"), {UnitSystem::metric, &german}) == "vorderes Hauptbein");
  CHECK(in_words(say("rear {}", "main leg"), {UnitSystem::metric, &german}) == "rear Hauptbein");
  CHECK(in_words(std::string_view("main leg"), {UnitSystem::metric, &german}) == "Hauptbein");
}

TEST_CASE("texts follow one another and are counted up") {
  Text said;
  CHECK(in_words(said.also(Text())).empty());
  said.also("one").also("two");
  CHECK(in_words(said) == "one; two");
  CHECK(in_words(enumerated({})).empty());
  CHECK(in_words(enumerated({"one"})) == "one");
  CHECK(in_words(enumerated({"one", "two", "three"})) == "one, two and three");
}

TEST_CASE("what is missing leads to its entries") {
  const Text text = say("needs {}", enumerated({entry("/airframe/wing/span_m", "the span"), "patience",
                                                entry("/airframe/wing/root_chord_m", "the chord")}));
  CHECK(in_words(text) == "needs the span, patience and the chord");
  CHECK(paths_in(text) == std::vector<std::string>{"/airframe/wing/span_m", "/airframe/wing/root_chord_m"});
  const auto pieces = in_pieces(text);
  REQUIRE(pieces.size() == 4);
  CHECK(pieces[1].path == "/airframe/wing/span_m");
  CHECK(pieces[2].words == ", patience and ");
  CHECK(pieces[2].path.empty());
}

TEST_CASE("texts compare by what they say") {
  CHECK(say("at {}", Amount{1, Kind::length}) == say("at {}", Amount{1, Kind::length}));
  CHECK_FALSE(say("at {}", Amount{1, Kind::length}) == say("at {}", Amount{2, Kind::length}));
  CHECK_FALSE(say("at {}", Amount{1, Kind::length}) == say("at {}", Amount{1, Kind::mass}));
  CHECK_FALSE(Text("main leg") == Text(std::string("main leg")));
  CHECK(Text(Amount{std::nan(""), Kind::mass}) == Text(Amount{std::nan(""), Kind::mass}));
  CHECK_FALSE(entry("/a", "x") == Text("x"));
}

TEST_CASE("a finding is known by what it is about, not by what that is called") {
  auto d = demo("dunnock");
  const Assessment before = assess(d);
  const auto legs = [](const Assessment& a) {
    std::vector<std::string> keys;
    for (const auto& f : a.findings)
      if (!f.subject.leg.empty()) keys.push_back(f.key());
    return keys;
  };
  const auto was = legs(before);
  REQUIRE(was.size() > 20);
  for (auto& leg : d.gear.legs) leg.name = "Fred";
  const Assessment after = assess(d);
  CHECK(legs(after) == was);
  for (const auto& f : after.findings)
    if (f.measure_id == "spring.sag") CHECK(in_words(f.subject.words) == "Fred");
  // Two of one name stay two.
  std::vector<std::string> sags;
  for (const Finding* f : worst_of_each(after))
    if (f->measure_id == "spring.sag") sags.push_back(f->subject.key);
  CHECK(sags.size() == 2);
  REQUIRE(d.airframe.low_points.size() > 1);
  const auto points = [&] {
    const Assessment now = assess(d);
    int count = 0;
    for (const Finding* f : worst_of_each(now)) count += f->measure_id == "place.one_down";
    return count;
  };
  const int before_doubled = points();
  for (auto& p : d.airframe.low_points) p.name = "rivet";
  CHECK(points() == before_doubled);
}

TEST_CASE("nothing that an inch project is told stays metric") {
  for (const std::string& name : demo_names()) {
    auto d = demo(name);
    d.loadings[0].flown = true;
    const Assessment a = assess(d);
    for (const auto& f : a.findings)
      for (const Text* t : {&f.remark, &f.assumption, &f.limit.source, &f.subject.words}) {
        const std::string inch = plain(*t, {UnitSystem::inch});
        const std::string metric = plain(*t);
        INFO(name << " " << f.measure_id << ": " << inch);
        // What is the same in both speaks of no quantity but rules that are written so.
        if (inch != metric || t != &f.limit.source)
          for (const char* unit : {" mm", " kg", " N/", " kPa"}) CHECK(inch.find(unit) == std::string::npos);
      }
  }
}

TEST_CASE("a knob stays within what the part and the file allow, in steps of its size") {
  for (const std::string& name : demo_names()) {
    const auto d = demo(name);
    for (const auto& k : knobs(d)) {
      INFO(name << " " << k->id);
      CHECK(k->least <= 0);
      CHECK(k->most >= 0);
      CHECK(k->step > 0);
      CHECK(k->step < k->range());
      CHECK_FALSE(in_words(k->worded(k->step)).empty());
      CHECK(in_words(k->worded(k->step)).find("{}") == std::string::npos);
      CHECK(in_words(k->worded(-k->step)).find("{}") == std::string::npos);
      // Turned to its ends every number it changes is one that the file may hold.
      for (const double end : {k->least, k->most}) {
        Design turned = d;
        k->apply(turned, end);
        for (const auto& g : all_given(turned))
          if (g.given.known() && g.path.starts_with("/gear/legs"))
            if (const auto now = given_at(d, g.path); !now || now->si != g.given.si) {
              INFO(g.path << " " << g.given.si);
              CHECK(g.spec.allows(g.given.si));
            }
      }
      if (std::isfinite(k->there)) {
        CHECK(k->least >= -0.7 * k->there - 1e-12);
        CHECK(in_words(k->worded(-0.69 * k->there)).find("more than half") != std::string::npos);
        CHECK(in_words(k->worded(0.3 * k->there)).find("more than half") == std::string::npos);
      }
    }
  }
}

TEST_CASE("what cannot be built is told from what can") {
  const auto d = demo("dunnock");
  CHECK(buildable(d, d));
  auto stub = d;  // a leg shorter than its wheel
  Leg& leg = stub.gear.main();
  leg.axle.z.si = leg.held_at().z() - 0.3 * leg.wheel.diameter;
  leg.axle.x.si = leg.held_at().x();
  CHECK_FALSE(buildable(d, stub));
  auto behind = d;  // held behind the tail
  Leg& nose = behind.gear.third();
  nose.retraction.pivot.x.si += 50;
  nose.top.x.si += 50;
  CHECK_FALSE(buildable(d, behind));
  auto thin = d;
  thin.gear.main().tube_diameter.si = -0.001;
  CHECK_FALSE(buildable(d, thin));
}
