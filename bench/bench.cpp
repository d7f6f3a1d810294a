// SPDX-License-Identifier: GPL-3.0-or-later
//! What an edit costs: one full assessment of each demo and its parts. Run with a Release build on a quiet
//! machine; figures in docs/performance.md.
#include <benchmark/benchmark.h>

#include <cstdlib>

#include "core/assess/assess.h"
#include "core/assess/cures.h"
#include "core/assess/placement_map.h"
#include "core/assess/tolerance.h"
#include "core/io/project_file.h"
#include "core/spring/scatter.h"
#include "sample_leg.h"

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
  for (auto _ : state) benchmark::DoNotOptimize(assess(d, {true, true, true, true, true, false, false}));
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
//! What one movement of a drag in Place costs: the whole assessment, the cures of the chosen finding, the
//! map.
void drag_in_place(benchmark::State& state, const std::string& name) {
  Design d = demo(name);
  Assessment a = assess(d);
  double way = 1;
  for (auto _ : state) {
    d.gear.main().axle.x.si += 0.0005 * way;
    way = -way;
    a = assess(d, {}, &a);
    const Finding* chosen = nullptr;
    for (const Finding* f : worst_of_each(a))
      if (!chosen && f->info().station == Station::place) chosen = f;
    benchmark::DoNotOptimize(cures_for(d, a, *chosen, 3));
    const MapModel model(d, a, a.loadings[0].name, MapUp::cg_height);
    benchmark::DoNotOptimize(model.map(model.usual_area()));
  }
}
void map_alone(benchmark::State& state, const std::string& name) {
  const Design d = demo(name);
  const auto a = assess(d);
  for (auto _ : state) {
    const MapModel model(d, a, a.loadings[0].name, MapUp::cg_height);
    benchmark::DoNotOptimize(model.map(model.usual_area()));
  }
}
void tolerances(benchmark::State& state, const std::string& name) {
  const Design d = demo(name);
  const auto a = assess(d);
  for (auto _ : state) benchmark::DoNotOptimize(over_tolerances(d, a));
}
//! One second of an oleo leg with stops, from 2.4 m/s, at the tolerance of the tests.
void one_drop(benchmark::State& state) {
  const spring::DropModel m = oleo();
  spring::DropRun run;
  run.duration = 1;
  for (auto _ : state) benchmark::DoNotOptimize(spring::drop(m, 2.4, run));
}
//! Ten thousand scattered landings on every core.
void many_drops(benchmark::State& state) {
  const auto a = assess(demo("dunnock"));
  Scatter scatter;
  scatter.drops = Given(10000);
  for (auto _ : state)
    benchmark::DoNotOptimize(
        spring::scattered_drops(*a.landings.front().model, a.landings.front().sink_speed, scatter, 3.3));
}
BENCHMARK(many_drops)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(one_drop)->Unit(benchmark::kMicrosecond);
void read_file(benchmark::State& state, const std::string& name) {
  const auto text = write_project(demo(name));
  for (auto _ : state) benchmark::DoNotOptimize(read_project(text));
}

}  // namespace

#define FOR_ALL(what)                                                           \
  BENCHMARK_CAPTURE(what, dunnock, "dunnock")->Unit(benchmark::kMicrosecond);   \
  BENCHMARK_CAPTURE(what, redshank, "redshank")->Unit(benchmark::kMicrosecond); \
  BENCHMARK_CAPTURE(what, wheatear, "wheatear")->Unit(benchmark::kMicrosecond)
FOR_ALL(full_assessment);
FOR_ALL(without_motion);
FOR_ALL(equilibrium);
BENCHMARK_CAPTURE(least_clearance, dunnock, "dunnock")->Unit(benchmark::kMicrosecond);
BENCHMARK_CAPTURE(least_clearance, redshank, "redshank")->Unit(benchmark::kMicrosecond);
FOR_ALL(all_cures);
FOR_ALL(drag_in_place);
FOR_ALL(map_alone);
FOR_ALL(tolerances);
FOR_ALL(read_file);
BENCHMARK_MAIN();
