// SPDX-License-Identifier: GPL-3.0-or-later
//! What an edit costs: one full assessment of each demo and its parts. Run with a Release build on a quiet
//! machine; figures in docs/performance.md.
#include <benchmark/benchmark.h>

#include <cstdlib>
#include <numbers>

#include "core/assess/anchor_map.h"
#include "core/assess/assess.h"
#include "core/assess/cures.h"
#include "core/assess/doors_state.h"
#include "core/assess/landing_state.h"
#include "core/assess/loading_state.h"
#include "core/assess/logic_state.h"
#include "core/assess/make_hold.h"
#include "core/assess/placement_map.h"
#include "core/assess/swing_state.h"
#include "core/assess/tolerance.h"
#include "core/io/project_file.h"
#include "core/io/stock.h"
#include "core/logic/machine.h"
#include "core/model/moves.h"
#include "core/motion/triangles.h"
#include "core/spring/drop.h"
#include "core/spring/scatter.h"
#include "core/stance/stance.h"
#include "core/swing/axis_choices.h"
#include "core/swing/cutout.h"
#include "core/swing/pair.h"
#include "core/swing/swing.h"
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
  for (auto _ : state)
    benchmark::DoNotOptimize(
        assess(d, {~(station_bit(Station::swing) | station_bit(Station::sequence)), {}}));
}
void equilibrium(benchmark::State& state, const std::string& name) {
  const Design d = demo(name);
  const auto a = assess(d);
  const auto& m = a.loadings.front().mass.down;
  for (auto _ : state) benchmark::DoNotOptimize(stance::solve(m.mass, m.at, *a.wheels));
}
void doors_alone(benchmark::State& state, const std::string& name) {
  const Design d = demo(name);
  for (auto _ : state) benchmark::DoNotOptimize(assess(d, Stations::only(Station::doors)));
}
void door_region(benchmark::State& state, const std::string& name) {
  const Design d = demo(name);
  const auto a = assess(d);
  const DoorState& s = a.doors.front();
  const auto moving = std::get<swing::MovingLeg>(swing::moving_leg(*d.gear.find(d.doors.front().leg)));
  for (auto _ : state) benchmark::DoNotOptimize(doors::region_of(moving, *s.panel, 0.006));
}
void least_clearance(benchmark::State& state, const std::string& name) {
  const auto a = assess(demo(name));
  for (auto _ : state) benchmark::DoNotOptimize(swing::least_clearance(*a.swings.front().input));
}
//! Past a duct of so many triangles, drawn elsewhere.
void past_a_mesh(benchmark::State& state) {
  Design d = demo("dunnock");
  const int sides = 100;
  const int rings = static_cast<int>(state.range(0)) / (2 * sides);
  motion::Mesh duct;
  for (int i = 0; i <= rings; ++i)
    for (int k = 0; k < sides; ++k) {
      const double a = 2 * std::numbers::pi * k / sides;
      duct.points.emplace_back(0.9 * i / rings - 0.25, 0.07 * std::cos(a), 0.07 * std::sin(a));
    }
  for (int i = 0; i < rings; ++i)
    for (int k = 0; k < sides; ++k) {
      const int a = i * sides + k;
      const int b = i * sides + (k + 1) % sides;
      duct.faces.push_back({a, a + sides, b});
      duct.faces.push_back({b, a + sides, b + sides});
    }
  KeepOut k;
  k.name = "duct";
  k.shape = Shape::mesh;
  k.low = {{}, Given(2.45), Given(1.0), Given(0.02)};
  k.skin.triangles = std::make_shared<const motion::Triangles>(duct);
  d.airframe.keep_outs = {k};
  const auto in = std::get<swing::SwingInput>(swing::swing_input(d.gear.main(), d.airframe.keep_outs));
  for (auto _ : state) benchmark::DoNotOptimize(swing::least_clearance(in));
}
//! Reading it, found quickly after.
void found_quickly(benchmark::State& state) {
  const auto ball = motion::mesh_of(motion::Cylinder{Vec3::Zero(), Vec3::UnitX(), 0.1, 0.5},
                                    static_cast<int>(state.range(0)) / 4);
  for (auto _ : state) benchmark::DoNotOptimize(motion::Triangles(ball));
}
void all_cures(benchmark::State& state, const std::string& name) {
  const Design d = demo(name);
  const auto a = assess(d);
  const Finding& f = *worst_of_each(a)[1];
  for (auto _ : state) benchmark::DoNotOptimize(cures_for(d, a, f, {100, &shipped_stock()}));
}
void all_to_hold(benchmark::State& state, const std::string& name) {
  const Design d = demo(name);
  const auto a = assess(d);
  HoldSearch search;
  search.stock = &shipped_stock();
  for (auto _ : state) benchmark::DoNotOptimize(make_hold(d, a, search));
}
//! What one movement of a drag in Place costs on the interface's thread: the whole assessment and the map.
//! Its three cures are solved beside it.
void drag_in_place(benchmark::State& state, const std::string& name) {
  Design d = demo(name);
  Assessment a = assess(d);
  double way = 1;
  for (auto _ : state) {
    d.gear.main().axle.x.si += 0.0005 * way;
    way = -way;
    a = assess(d, {}, &a);
    const MapModel model(d, a, a.loadings[0].name, MapUp::cg_height);
    benchmark::DoNotOptimize(model.map(model.usual_area()));
  }
}
void cures_in_a_drag(benchmark::State& state, const std::string& name) {
  const Design d = demo(name);
  const Assessment a = assess(d);
  const Finding* chosen = nullptr;
  for (const Finding* f : worst_of_each(a))
    if (!chosen && f->info().station == Station::place) chosen = f;
  for (auto _ : state) benchmark::DoNotOptimize(cures_for(d, a, *chosen, {3}));
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
// --- how the cost grows: no worse than in proportion ---

//! Wheatear on so many mains, in pairs one behind the other.
void with_legs(benchmark::State& state) {
  Design d = demo("wheatear");
  const Leg pattern = d.gear.main();
  while (static_cast<std::int64_t>(placed_legs(d.gear).size()) + 1 < state.range(0)) {
    Leg more = pattern;
    more.id = "main-" + std::to_string(d.gear.legs.size());
    d.gear.legs.push_back(more);
    shift_leg(d.gear.legs.back(), 0.5 * static_cast<double>(d.gear.legs.size()), 0, 0);
  }
  for (auto _ : state) benchmark::DoNotOptimize(assess(d));
  state.SetComplexityN(static_cast<std::int64_t>(placed_legs(d.gear).size()));
}
//! Dunnock with so many items in its ledger.
void with_items(benchmark::State& state) {
  Design d = demo("dunnock");
  while (static_cast<std::int64_t>(d.ledger.size()) < state.range(0)) {
    Item item;
    item.name = "part " + std::to_string(d.ledger.size());
    item.mass = Given(0.01);
    item.at = {{}, Given(2.2), Given(0.0), Given(0.0)};
    d.ledger.push_back(item);
  }
  for (auto _ : state) benchmark::DoNotOptimize(assess(d));
  state.SetComplexityN(state.range(0));
}
//! Dunnock with so many keep-outs in its wing.
void with_keep_outs(benchmark::State& state) {
  Design d = demo("dunnock");
  d.airframe.keep_outs.clear();
  for (std::int64_t i = 0; i < state.range(0); ++i) {
    KeepOut k;
    k.name = "rib " + std::to_string(i);
    const double y = 0.6 + 0.05 * static_cast<double>(i);
    k.low = {{}, Given(2.0), Given(y), Given(0.08)};
    k.high = {{}, Given(2.8), Given(y + 0.005), Given(0.12)};
    d.airframe.keep_outs.push_back(k);
  }
  for (auto _ : state) benchmark::DoNotOptimize(assess(d));
  state.SetComplexityN(state.range(0));
}
//! What a leg cuts out, and its bay: beside the interface.
void outlines(benchmark::State& state) {
  const Design d = demo("dunnock");
  for (auto _ : state) benchmark::DoNotOptimize(swing::outlines_of(d.gear.main()));
}
void axes_found(benchmark::State& state) {
  const Design d = demo("dunnock");
  const Leg& leg = d.gear.main();
  const swing::WheelPose wanted{leg.retraction.pivot.vec() + Vec3(0.02, -0.6, 0.05), {0.1, 0.4, 0.9}};
  for (auto _ : state) benchmark::DoNotOptimize(swing::axis_choices(leg, wanted));
}
void wheels_past_each_other(benchmark::State& state) {
  const Design d = demo("dunnock");
  const auto one = std::get<swing::MovingLeg>(swing::moving_leg(d.gear.main()));
  const auto two = swing::mirrored(one);
  for (auto _ : state)
    benchmark::DoNotOptimize(swing::nearest_of_any(one.moves, one.wheel(), two.moves, two.wheel(), 10));
}
//! A ring of parts that each follow the one before: states by the thousand.
void every_state(benchmark::State& state) {
  logic::Machine m;
  const auto name = [](int i) { return "part " + std::to_string(i); };
  const auto is = [](const std::string& part, const char* value) {
    return logic::Condition::is(part, {value});
  };
  constexpr int parts = 10;
  for (int i = 0; i < parts; ++i) {
    m.variables.push_back({name(i), {"down", "moving", "up"}});
    m.initial[name(i)] = "down";
  }
  for (int i = 0; i < parts; ++i) {
    m.events.push_back({"leaves " + name(i), i == 0, is(name(i), "down"), {{name(i), "moving"}}});
    m.events.push_back({"arrives " + name(i), false, is(name(i), "moving"), {{name(i), "up"}}});
    m.events.push_back({"returns " + name(i), true, is(name(i), "up"), {{name(i), "down"}}});
  }
  m.properties = {{"settles", logic::Demand::settles, {}}};
  size_t states = 0;
  for (auto _ : state) states = logic::explore(m, {}).states;
  state.counters["states"] =
      benchmark::Counter(static_cast<double>(states), benchmark::Counter::kIsIterationInvariantRate);
}

//! Every single fault of a demo's logic, on one thread.
void every_fault(benchmark::State& state) {
  const Design d = demo("dunnock");
  const auto wired = logic::wire(logic_of(d, assess(d)).fitted);
  size_t states = 0;
  for (auto _ : state) {
    const logic::Reached sound(wired.machine, {"", {{"throttle", "back"}}, {}});
    states = sound.sound().states;
    for (const auto& fault : wired.machine.faults) states += sound.after({&fault}).states;
  }
  state.counters["states"] =
      benchmark::Counter(static_cast<double>(states), benchmark::Counter::kIsIterationInvariantRate);
}
void circuit_alone(benchmark::State& state) {
  const Design d = demo("dunnock");
  for (auto _ : state) benchmark::DoNotOptimize(assess(d, {station_bit(Station::circuit), {}, true}));
}

void anchor_map(benchmark::State& state) {
  const Design d = demo("dunnock");
  for (auto _ : state) {
    const auto model = AnchorModel::of(d, d.gear.main(), AnchorEnd::airframe, Vec3(Vec3::UnitY()));
    benchmark::DoNotOptimize(std::get<AnchorModel>(model).map());
  }
}

BENCHMARK(anchor_map)->Unit(benchmark::kMillisecond);
BENCHMARK(every_fault)->Unit(benchmark::kMillisecond);
BENCHMARK(circuit_alone)->Unit(benchmark::kMillisecond);
BENCHMARK(outlines)->Unit(benchmark::kMillisecond);
BENCHMARK(axes_found)->Unit(benchmark::kMicrosecond);
BENCHMARK(wheels_past_each_other)->Unit(benchmark::kMicrosecond);
BENCHMARK(every_state)->Unit(benchmark::kMillisecond);
BENCHMARK(with_legs)->RangeMultiplier(2)->Range(4, 16)->Unit(benchmark::kMicrosecond)->Complexity();
BENCHMARK(with_items)->RangeMultiplier(4)->Range(16, 1024)->Unit(benchmark::kMicrosecond)->Complexity();
BENCHMARK(past_a_mesh)->Arg(2000)->Arg(20000)->Unit(benchmark::kMicrosecond);
BENCHMARK(found_quickly)->Arg(20000)->Unit(benchmark::kMicrosecond);
BENCHMARK(with_keep_outs)->RangeMultiplier(2)->Range(1, 16)->Unit(benchmark::kMicrosecond)->Complexity();

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
  BENCHMARK_CAPTURE(what, pintail, "pintail")->Unit(benchmark::kMicrosecond);   \
  BENCHMARK_CAPTURE(what, wheatear, "wheatear")->Unit(benchmark::kMicrosecond)
FOR_ALL(full_assessment);
FOR_ALL(without_motion);
FOR_ALL(equilibrium);
BENCHMARK_CAPTURE(doors_alone, dunnock, "dunnock")->Unit(benchmark::kMicrosecond);
BENCHMARK_CAPTURE(doors_alone, redshank, "redshank")->Unit(benchmark::kMicrosecond);
BENCHMARK_CAPTURE(door_region, dunnock, "dunnock")->Unit(benchmark::kMicrosecond);
BENCHMARK_CAPTURE(least_clearance, dunnock, "dunnock")->Unit(benchmark::kMicrosecond);
BENCHMARK_CAPTURE(least_clearance, redshank, "redshank")->Unit(benchmark::kMicrosecond);
FOR_ALL(all_cures);
FOR_ALL(all_to_hold);
FOR_ALL(drag_in_place);
FOR_ALL(cures_in_a_drag);
FOR_ALL(map_alone);
FOR_ALL(tolerances);
FOR_ALL(read_file);
BENCHMARK_MAIN();
