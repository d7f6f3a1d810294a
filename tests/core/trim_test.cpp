// SPDX-License-Identifier: GPL-3.0-or-later
//! Ways to trim: each reaches the pitch that was asked for, at the slope and the price that are told.
#include "core/assess/trim.h"

#include <catch2/catch.hpp>
#include <cmath>

#include "core/assess/loading_state.h"
#include "demo.h"
#include "findings.h"

using namespace kranich;

TEST_CASE("every way to trim reaches the pitch, at its slope, at its price") {
  for (const char* name : {"dunnock", "wheatear"}) {
    const auto d = demo(name);
    const auto before = assess(d);
    const auto& l = before.loadings[1];
    REQUIRE(l.rest);
    const double wanted = l.rest->pitch + radians(0.6);
    const auto ways = ways_to_trim(d, before, l.name, wanted);
    int reach = 0;
    for (const auto& w : ways) {
      INFO(name << " " << w.knob->id);
      // A little of it does what the slope says.
      const double little = 0.5 * w.knob->step;
      Design c = d;
      w.knob->apply(c, little);
      const double gained = assess(c).find(l.name)->rest->pitch - l.rest->pitch;
      CHECK(gained == Approx(w.slope * little).epsilon(0.2).margin(1e-6));
      if (!w.cure) continue;
      ++reach;
      const auto after = assess(w.cure->applied(d));
      CHECK(after.find(l.name)->rest->pitch == Approx(wanted).margin(radians(0.05)));
      for (const auto& p : w.cure->worse) CHECK(the_worst(after, p.measure_id, p.subject).verdict == p.after);
    }
    CHECK(reach >= 4);
    // The cheapest first, and those that get nowhere behind.
    for (size_t i = 1; i < ways.size(); ++i) {
      CHECK((ways[i - 1].cure || !ways[i].cure));
      if (ways[i - 1].cure && ways[i].cure) CHECK(cost_of(*ways[i - 1].cure) <= cost_of(*ways[i].cure));
    }
  }
}

TEST_CASE("a shim's slope is one over the wheelbase on rigid gear, more where the springs give") {
  auto d = demo("dunnock");
  const auto slope = [&] {
    const auto before = assess(d);
    const auto& l = before.loadings[1];
    const std::string id = d.gear.third().id + ".shim";
    for (const auto& w : ways_to_trim(d, before, l.name, l.rest->pitch + radians(0.5)))
      if (w.knob->id == id) return w.slope;
    return 0.0;
  };
  const double base = d.gear.main().axle.x - d.gear.third().axle.x;
  CHECK(slope() > 1 / base);
  CHECK(slope() < 1.5 / base);
  for (auto& leg : d.gear.legs) {
    leg.travel = Given(0.0);
    leg.wheel.tyre_rate = Given(1e8);
  }
  CHECK(slope() == Approx(1 / base).epsilon(0.01));
}

TEST_CASE("ways to trim are called off, and there are none for what does not stand") {
  const auto d = demo("redshank");
  const auto before = assess(d);
  const std::string loading = before.loadings[0].name;
  CHECK(ways_to_trim(d, before, loading, 0.2, [](double) { return false; }).empty());
  CHECK(ways_to_trim(d, before, "no such loading", 0.2).empty());
}
