// SPDX-License-Identifier: GPL-3.0-or-later
//! Following a motion: crossings of closed forms, in their order, and what a kink does to a step.
#include "core/base/ode.h"

#include <catch2/catch.hpp>
#include <numbers>
#include <vector>

namespace kranich {
namespace {

using State = std::array<double, 2>;

TEST_CASE("crossings of a swinging mass are where the cosine has them, each once and in order") {
  const auto slope = [](const State& y, State& dy, double) { dy = {y[1], -y[0]}; };
  Following motion(
      State{1, 0}, slope, [](const State& y) { return y; }, 1e-4, 1e-10, 1e-10);
  std::vector<std::pair<double, int>> found;
  while (motion.time() < 20) {
    const auto step = motion.step(20);
    CHECK(step.to == motion.time());
    if (step.crossed >= 0) found.emplace_back(motion.time(), step.crossed);
  }
  // cos t is nothing at π/2 + nπ, −sin t at nπ; at the start it is nothing and not taken as crossing.
  REQUIRE(found.size() == 12);
  for (size_t i = 0; i < found.size(); ++i) {
    CHECK(found[i].first == Approx(static_cast<double>(i + 1) * std::numbers::pi / 2).epsilon(1e-8));
    CHECK(found[i].second == (i % 2 == 0 ? 0 : 1));
  }
  CHECK(motion.time() == 20);
  CHECK(motion.state()[0] == Approx(std::cos(20.0)).margin(1e-7));
}

TEST_CASE("a ball that falls on a spring keeps its energy over the kink, and where it lands is told") {
  constexpr double g = 9.81, rate = 4e5, height = 0.7;
  const auto slope = [](const State& y, State& dy, double) {
    dy = {y[1], -g - (y[0] < 0 ? rate * y[0] : 0)};
  };
  Following motion(
      State{height, 0}, slope, [](const State& y) { return std::array{y[0]}; }, 0.3, 1e-12, 1e-10);
  auto step = motion.step(10);
  while (step.crossed < 0) step = motion.step(10);
  CHECK(motion.time() == Approx(std::sqrt(2 * height / g)).epsilon(1e-10));
  CHECK(motion.state()[0] <= 0);  // just behind it
  // Within the last step any state can be asked, before the crossing and at it.
  CHECK(motion.at(step.from)[0] > motion.at(step.to)[0]);
  int bounces = 0;
  while (motion.time() < 10) bounces += motion.step(10).crossed == 0;
  CHECK(bounces >= 25);
  const State y = motion.state();
  const double energy = 0.5 * y[1] * y[1] + g * y[0] + (y[0] < 0 ? 0.5 * rate * y[0] * y[0] : 0);
  CHECK(energy == Approx(g * height).epsilon(1e-6));
}

TEST_CASE("what is never crossed ends at the time that was asked for, and an endless slope is told") {
  const auto rises = [](const State& y, State& dy, double) { dy = {1, y[0]}; };
  Following calm(
      State{1, 0}, rises, [](const State& y) { return std::array{y[0]}; }, 1e-3, 1e-10, 1e-10);
  while (calm.time() < 3) CHECK(calm.step(3).crossed == -1);
  CHECK(calm.state()[1] == Approx(3 + 4.5).epsilon(1e-9));
  CHECK(calm.finite());
  const auto endless = [](const State&, State& dy, double) { dy = {std::nan(""), 0}; };
  Following lost(
      State{1, 0}, endless, [](const State& y) { return std::array{y[0]}; }, 1e-3, 1e-10, 1e-10);
  lost.step(1);
  CHECK_FALSE(lost.finite());
}

TEST_CASE("steps of one length are of fourth order") {
  const auto slope = [](const std::vector<double>& y, std::vector<double>& dy, double t) {
    dy[0] = y[0] * t;
  };
  const auto error = [&](int steps) {
    std::vector<double> y{1};
    for (int i = 0; i < steps; ++i) y = stepped(slope, y, i * 1.0 / steps, 1.0 / steps);
    return std::abs(y[0] - std::exp(0.5));
  };
  CHECK(error(20) / error(40) == Approx(16).epsilon(0.1));
}

}  // namespace
}  // namespace kranich
