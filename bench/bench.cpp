// SPDX-License-Identifier: GPL-3.0-or-later
//! What an edit costs: one full assessment of each demo and its parts. Run with a Release build on a quiet
//! machine; figures in docs/performance.md.
#include <benchmark/benchmark.h>

#include <cstdlib>

#include "core/assess/assess.h"
#include "core/assess/cures.h"
#include "core/io/project_file.h"

using namespace kranich;

namespace {

Design demo(const std::string& name) {
  auto r = load_project(std::string(KRANICH_DATA_DIR) + "/demo/" + name + ".kranich");
  if (!r.design) std::abort();
  return *r.design;
}

void full_assessment(benchmark::State& state, const std::string& name) {
  const Design d = demo(name);
  for (auto _ : state) benchmark::DoNotOptimize(assess(d));
}
void without_motion(benchmark::State& state, const std::string& name) {
  const Design d = demo(name);
  for (auto _ : state) benchmark::DoNotOptimize(assess(d, {true, true, true, true, false, false}));
}
void equilibrium(benchmark::State& state, const std::string& name) {
  const Design d = demo(name);
  const auto a = assess(d);
  const auto& m = a.loadings.front().mass.down;
  for (auto _ : state) benchmark::DoNotOptimize(stance::solve(m.mass, m.at, *a.wheels));
}
void least_clearance(benchmark::State& state, const std::string& name) {
  const auto a = assess(demo(name));
  for (auto _ : state) benchmark::DoNotOptimize(swing::least_clearance(*a.swings.front().input));
}
void all_cures(benchmark::State& state, const std::string& name) {
  const Design d = demo(name);
  const auto a = assess(d);
  const Finding& f = *worst_of_each(a)[1];
  for (auto _ : state) benchmark::DoNotOptimize(cures_for(d, a, f));
}
void read_file(benchmark::State& state, const std::string& name) {
  const auto text = write_project(demo(name));
  for (auto _ : state) benchmark::DoNotOptimize(read_project(text));
}

}  // namespace

#define FOR_BOTH(what)                                                        \
  BENCHMARK_CAPTURE(what, dunnock, "dunnock")->Unit(benchmark::kMicrosecond); \
  BENCHMARK_CAPTURE(what, redshank, "redshank")->Unit(benchmark::kMicrosecond)
FOR_BOTH(full_assessment);
FOR_BOTH(without_motion);
FOR_BOTH(equilibrium);
FOR_BOTH(least_clearance);
FOR_BOTH(all_cures);
FOR_BOTH(read_file);
BENCHMARK_MAIN();
