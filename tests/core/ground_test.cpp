// SPDX-License-Identifier: GPL-3.0-or-later
//! The ground under wheels that are not all alike, and what comes nearest to it with one leg down.
#include "core/place/ground.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "core/assess/assess.h"
#include "demo.h"
#include "findings.h"

using namespace kranich;
using place::Disc;

namespace {

std::vector<Disc> tricycle(double nose_radius, double port, double starboard) {
  return {{{0, 0, 0.2}, nose_radius}, {{1.5, -1, 0.2}, port}, {{1.5, 1, 0.2}, starboard}};
}

}  // namespace

TEST_CASE("on like wheels the ground is level, and everything stands as high as it is drawn") {
  const auto g = place::ground_under(tricycle(0.2, 0.2, 0.2), {1.2, 0, 1});
  REQUIRE(g);
  CHECK(g->up.z() == Approx(1));
  CHECK(g->height_of({0.3, 0.4, 0.7}) == Approx(0.7));
  // Thrust level: the disc stands upright, and reaches its radius down.
  CHECK(place::tip_height({{-0.5, 0, 0.9}, 1.6, 0}, *g) == Approx(0.1));
  // Tilted nose-down its lower edge comes up by the cosine.
  CHECK(place::tip_height({{-0.5, 0, 0.9}, 1.6, radians(5)}, *g) == Approx(0.9 - 0.8 * std::cos(radians(5))));
}

TEST_CASE("a wheel that is smaller lets its own corner down") {
  // The nose down by 50 mm: pitch about the mains by asin of that over the wheelbase, nearly.
  const auto nose = place::ground_under(tricycle(0.15, 0.2, 0.2), {1.2, 0, 1});
  REQUIRE(nose);
  CHECK(std::asin(-nose->up.x()) == Approx(-0.05 / 1.5).epsilon(0.01));
  CHECK(nose->up.y() == Approx(0).margin(1e-12));
  // One main down: roll, starboard down by the difference over the track.
  const auto main = place::ground_under(tricycle(0.2, 0.2, 0.15), {1.2, 0, 1});
  REQUIRE(main);
  CHECK(std::atan2(-main->up.y(), main->up.z()) == Approx(0.05 / 2).epsilon(0.02));
  CHECK(main->height_of({1.5, 3, 1}) < main->height_of({1.5, -3, 1}));
  // And its mirror image.
  const auto port = place::ground_under(tricycle(0.2, 0.15, 0.2), {1.2, 0, 1});
  CHECK((mirrored(port->up) - main->up).norm() < 1e-12);
  CHECK(port->origin == Approx(main->origin));
}

TEST_CASE("whatever the wheels, three touch, none is below, and the CG stands between them") {
  std::mt19937 random(8);
  std::uniform_real_distribution<double> u(-1, 1);
  int stood = 0;
  for (int i = 0; i < 300; ++i) {
    std::vector<Disc> wheels;
    const int count = 3 + i % 4;
    for (int k = 0; k < count; ++k)
      wheels.push_back({{2 * u(random), 1.5 * u(random), 0.2 + 0.05 * u(random)}, 0.18 + 0.03 * u(random)});
    const Vec3 cg(0.3 * u(random), 0.3 * u(random), 0.8);
    const auto g = place::ground_under(wheels, cg);
    if (!g) continue;
    ++stood;
    int touching = 0;
    for (const auto& w : wheels) {
      const double height = g->origin + place::lowest_height(w, g->up);
      CHECK(height > -1e-6);
      touching += height < 1e-6;
    }
    CHECK(touching >= 3);
  }
  CHECK(stood > 80);
  CHECK_FALSE(place::ground_under(tricycle(0.2, 0.2, 0.2), {2.5, 0, 1}));  // it sits on its tail
  CHECK_FALSE(place::ground_under({{{0, 0, 0.2}, 0.2}, {{1, 0, 0.2}, 0.2}}, {0.5, 0, 1}));
  CHECK_FALSE(place::ground_under({{{0, 0, 0.2}, 0.2}, {{1, 0, 0.2}, 0.2}, {{2, 0, 0.2}, 0.2}}, {0.5, 0, 1}));
}

TEST_CASE("with one leg down the propeller comes nearer than with all of them static") {
  for (const std::string& name : demo_names()) {
    auto d = demo(name);
    const auto a = assess(d);
    int judged = 0;
    for (const auto& f : a.findings) {
      if (f.measure_id != "place.one_down") continue;
      INFO(name << " " << f.key() << " " << in_words(f.remark));
      REQUIRE(std::isfinite(f.value));
      ++judged;
      for (const auto& still : a.findings)
        if (still.measure_id == "place.propeller_static" && still.subject == f.subject &&
            still.loading == f.loading)
          CHECK(f.value < still.value);
    }
    CHECK(judged > 0);
    for (auto& leg : d.gear.legs) leg.wheel.flat_radius = Given();
    const auto without = assess(d);
    for (const auto& f : without.findings)
      if (f.measure_id == "place.one_down") {
        CHECK(f.verdict == Verdict::unknown);
        CHECK(paths_in(f.remark).size() == d.gear.legs.size());
      }
  }
}
