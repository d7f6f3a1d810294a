// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/spring/scatter.h"

#include <algorithm>
#include <atomic>
#include <cmath>
#include <limits>
#include <random>
#include <thread>
#include <utility>

#include "core/spring/identify.h"

namespace kranich::spring {
namespace {

constexpr double charged_at = 288.15;  // K

//! A drop's own random numbers: seeded by its index, so that threads do not matter.
class Dice {
 public:
  Dice(std::uint64_t seed, std::uint64_t index) : engine_(seed * 0x9E3779B97F4A7C15u + index) {
    engine_.discard(4);
  }
  double about_one(double deviation) {
    double z = normal_(engine_);
    while (std::abs(z) > 3) z = normal_(engine_);
    return std::max(0.0, 1 + deviation * z);
  }
  double even(double low, double high) { return std::uniform_real_distribution<double>(low, high)(engine_); }

 private:
  std::minstd_rand engine_;
  std::normal_distribution<double> normal_;
};

DropModel varied(DropModel m, const Scatter& s, Dice& dice) {
  const double mass = dice.about_one(s.mass);
  m.sprung_mass = std::max(0.05 * m.sprung_mass, m.mass() * mass - m.unsprung_mass);
  const double spring = dice.about_one(s.spring);
  const double warmth = 1 + dice.even(-s.colder, s.hotter) / charged_at;
  m.damper.friction *= dice.about_one(s.friction);
  m = scaled(std::move(m), spring, std::max(0.01, dice.about_one(s.damping)));
  m.spring.pressure *= warmth;
  return m;
}

}  // namespace

double ScatterResult::below(const std::vector<double>& sorted, double share) {
  if (sorted.empty()) return std::nan("");
  const double at = share * static_cast<double>(sorted.size() - 1);
  const auto i = static_cast<size_t>(at);
  const double t = at - static_cast<double>(i);
  return i + 1 < sorted.size() ? (1 - t) * sorted[i] + t * sorted[i + 1] : sorted.back();
}

std::optional<ScatterResult> scattered_drops(const DropModel& model, double sink_speed, const Scatter& s,
                                             double factor_allowed, std::uint64_t seed,
                                             const Progress& progress) {
  const auto count = static_cast<size_t>(std::max(1.0, s.drops.si));
  ScatterResult r;
  r.load_factor.resize(count);
  r.stroke.resize(count);
  std::atomic<size_t> next{0}, bottoms{0}, over{0};
  std::atomic<bool> called_off{false};
  const auto work = [&](bool tells) {
    DropRun run;
    run.tolerance = 1e-4;
    run.until_stopped = true;
    for (size_t i = next++; i < count && !called_off; i = next++) {
      Dice dice(seed, i);
      const double speed = sink_speed * std::max(0.05, dice.about_one(s.sink_speed));
      const auto drop = spring::drop(varied(model, s, dice), speed, run);
      // One that could not be followed to its end counts as over: nothing says it holds.
      r.load_factor[i] = drop.ended ? drop.load_factor : std::numeric_limits<double>::infinity();
      r.stroke[i] = drop.ended ? drop.stroke_used : std::numeric_limits<double>::infinity();
      bottoms += drop.bottoms;
      over += !drop.ended || drop.load_factor > factor_allowed;
      if (tells && progress && !progress(static_cast<double>(i) / static_cast<double>(count)))
        called_off = true;
    }
  };
  std::vector<std::thread> others;
  for (unsigned t = 1; t < std::max(1u, std::thread::hardware_concurrency()); ++t)
    others.emplace_back(work, false);
  work(true);
  for (auto& t : others) t.join();
  if (called_off) return std::nullopt;
  r.bottoms = static_cast<double>(bottoms) / static_cast<double>(count);
  r.over_factor = static_cast<double>(over) / static_cast<double>(count);
  std::sort(r.load_factor.begin(), r.load_factor.end());
  std::sort(r.stroke.begin(), r.stroke.end());
  return r;
}

}  // namespace kranich::spring
