// SPDX-License-Identifier: GPL-3.0-or-later
//! Doors, logic, circuits, steering: closed forms, conservation, and brute force beside the core's answers.
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>
#include <random>
#include <set>

#include "core/base/quantity.h"
#include "core/circuit/electrics.h"
#include "core/circuit/hydraulics.h"
#include "core/doors/hold.h"
#include "core/doors/interlock.h"
#include "core/doors/linkage.h"
#include "core/logic/machine.h"
#include "core/steer/turn.h"

using namespace kranich;

TEST_CASE("a door's linkage keeps its rod, its rate is its slope, and its transmission tells of locking") {
  std::mt19937 random(5);
  std::uniform_real_distribution<double> some(-1, 1);
  int moved = 0;
  for (int i = 0; i < 40; ++i) {
    const auto direction = [&] { return Vec3(some(random), some(random), some(random)).normalized(); };
    const doors::DoorLinkage l{{{0, 0, 0}, direction()},
                               {{0.3, 0.1 * some(random), 0.1 * some(random)}, direction()},
                               0.06 * direction(),
                               Vec3(0.3, 0, 0) + 0.08 * direction()};
    CHECK(doors::door_turn(l, 0) == Approx(0).margin(1e-9));
    const auto end = doors::end_of(l, 1);
    for (const double crank : {0.1, 0.4, 0.9}) {
      const double turn = doors::door_turn(l, crank);
      if (!std::isfinite(turn)) {
        CHECK(end.what != doors::Ends::nothing);
        CHECK(end.crank < crank + 1e-6);
        continue;
      }
      ++moved;
      const Vec3 ball = l.crank.turn(crank) * l.crank_ball;
      const Vec3 door = l.hinge.turn(turn) * l.door_ball;
      CHECK((ball - door).norm() == Approx(l.rod()).epsilon(1e-9));
      const double h = 1e-6;
      const double slope =
          std::remainder(doors::door_turn(l, crank + h) - doors::door_turn(l, crank - h), 6.28) / (2 * h);
      if (doors::transmission_angle(l, crank) > 0.05)
        CHECK(slope == Approx(doors::door_rate(l, crank)).epsilon(1e-4).margin(1e-6));
    }
    if (end.what == doors::Ends::locks) CHECK(doors::transmission_angle(l, end.crank - 1e-7) < 0.02);
    if (end.what == doors::Ends::turns_back) CHECK(std::abs(doors::door_rate(l, end.crank)) < 1e-5);
  }
  CHECK(moved > 60);
}

TEST_CASE("a four-bar made for three pairs passes them; one known beforehand is found again") {
  std::mt19937 random(8);
  std::uniform_real_distribution<double> some(0, 1);
  for (int i = 0; i < 30; ++i) {
    const double d = 0.2;
    const double a = 0.05 + 0.05 * some(random);
    const double b = 0.08 + 0.08 * some(random);
    const double theta = 0.5 + some(random);
    const double phi = 0.8 + some(random);
    const Vec3 pivot(d, 0, 0);
    const doors::DoorLinkage l{{Vec3::Zero(), Vec3::UnitZ()},
                               {pivot, Vec3::UnitZ()},
                               Vec3(a * std::cos(theta), a * std::sin(theta), 0),
                               pivot + Vec3(b * std::cos(phi), b * std::sin(phi), 0)};
    std::vector<double> crank;
    std::vector<double> door;
    for (const double turn : {0.0, 0.35, 0.8}) {
      crank.push_back(theta + turn);
      door.push_back(phi + doors::door_turn(l, turn));
    }
    if (!std::isfinite(door[1] + door[2])) continue;
    const auto bar = doors::through_three(d, crank, door);
    REQUIRE(bar);
    CHECK(bar->crank_arm == Approx(a).epsilon(1e-6));
    CHECK(bar->door_arm == Approx(b).epsilon(1e-6));
    CHECK(bar->rod == Approx(l.rod()).epsilon(1e-6));
    CHECK(doors::misfit(*bar, d, crank, door) < 1e-9);
    CHECK(doors::keeps_branch(*bar, d, crank, door));
    const auto two = doors::through_two(d, {crank[0], crank[2]}, {door[0], door[2]}, a);
    REQUIRE(two);
    CHECK(two->door_arm == Approx(b).epsilon(1e-6));
  }
  // Three times the same pair fixes nothing.
  CHECK_FALSE(doors::through_three(0.2, {1, 1, 1}, {1, 1, 1}));
}

TEST_CASE("what holds a door open is the slope of its energy, mirrored it holds alike") {
  doors::HeldDoor d;
  d.closed = std::numbers::pi;
  d.open = radians(100);
  d.mass = 0.9;
  d.cg_along = 0.13;
  d.hinge_stiffness = 0.05;
  d.spring = doors::HoldSpring{0.05, -0.02, {-0.16, 0.012}, 15, 520, 0.06};
  const auto length = [&](double a) {
    const double turn = d.closed + a;
    const Eigen::Vector2d e(std::cos(turn), std::sin(turn));
    return (0.05 * e - 0.02 * Eigen::Vector2d(-e.y(), e.x()) - d.spring->anchor).norm();
  };
  const auto energy = [&](double a) {
    const double stretch = length(a) - 0.06;
    return 15 * stretch + 260 * stretch * stretch;
  };
  for (const double a : {0.2, 0.7, 1.3, 1.7}) {
    CHECK(d.spring_torque(a) == Approx(-(energy(a + 1e-6) - energy(a - 1e-6)) / 2e-6).epsilon(1e-5));
    const auto height = [&](double x) { return 0.9 * standard_gravity * 0.13 * std::sin(d.closed + x); };
    const double hinge = 0.05 * a;
    CHECK(d.closing(a) == Approx((height(a + 1e-6) - height(a - 1e-6)) / 2e-6 + hinge).epsilon(1e-5));
    doors::HeldDoor twin = d;
    twin.closed = 0;
    twin.counter_clockwise = false;
    twin.spring->anchor.x() *= -1;
    CHECK(twin.spring_torque(a) == Approx(d.spring_torque(a)));
    CHECK(twin.closing(a) == Approx(d.closing(a)));
  }
  const auto f = doors::hold_figures(d);
  for (const double a : f.crossings)
    CHECK(d.holding(a) == Approx(doors::reserve * std::max(0.0, d.closing(a))).margin(1e-6));
  // Put where it pulls enough, it is held; a magnet at the stop holds at the stop alone.
  doors::HeldDoor faded = d;
  faded.chord = 0.26;
  faded.mass = 3;
  faded.spring->anchor = {0.1, 0.01};
  faded.spring->along = 0.005;
  REQUIRE_FALSE(doors::hold_figures(faded).held_open);
  const auto place = doors::spring_place(faded);
  REQUIRE(place);
  faded.spring->along = *place;
  CHECK(*place > 0.005);
  CHECK(doors::hold_figures(faded).held_open);
  d.spring->along = 0.005;
  d.magnet_force = 1000;
  d.magnet_along = 0.2;
  CHECK(doors::hold_figures(d).held_open);
  CHECK(d.holding(d.open / 2) == Approx(d.spring_torque(d.open / 2)));
}

TEST_CASE("where leg and door are in each other's way: bounds are places of the clearance wanted") {
  const doors::LegAndDoor p{{0, 0},        0.6,  0.15,  0.03,         true, radians(92),
                            {0.84, -0.19}, 0.46, 0.004, radians(180), true, radians(100)};
  for (const double door : {0.0, 0.3, 0.7}) {
    const auto at = [&](double leg) { return p.clearance(leg, door); };
    for (const auto& [from, to] : doors::below(at, p.leg_turn, 0.012)) {
      CHECK(from < to);
      if (from > 0) CHECK(at(from) == Approx(0.012).margin(1e-9));
      if (to < p.leg_turn) CHECK(at(to) == Approx(0.012).margin(1e-9));
      CHECK(at((from + to) / 2) < 0.012);
    }
  }
  // Seen from the other side: forward, with the door ahead.
  doors::LegAndDoor twin = p;
  twin.aft = false;
  twin.hinge.x() *= -1;
  twin.closed = 0;
  twin.counter_clockwise = false;
  for (const double leg : {0.2, 0.9, 1.5})
    for (const double door : {0.0, 0.8, 1.6})
      CHECK(twin.clearance(leg, door) == Approx(p.clearance(leg, door)));
  const auto f =
      doors::forbidden([&](double l, double d) { return p.clearance(l, d); }, p.leg_turn, p.door_turn, 0.012);
  int inside = 0;
  std::mt19937 random(2);
  std::uniform_real_distribution<double> share(0, 1);
  for (int i = 0; i < 40000; ++i)
    inside += p.clearance(share(random) * p.leg_turn, share(random) * p.door_turn) < 0.012 ? 1 : 0;
  CHECK(f.share == Approx(inside / 40000.0).margin(0.01));
}

TEST_CASE("a stroke balances forces and flow at every place, throttled on either side") {
  for (const auto side : {circuit::Braked::return_side, circuit::Braked::supply_side})
    for (const double end_load : {2600.0, 300.0, -400.0}) {
      circuit::Stroke s{6.2e-4,
                        4.6e-4,
                        0.22,
                        [&](double x) { return 900 + x * (end_load - 900); },
                        {2.1e-5, 1.1e-12},
                        {0.62, 4.2e-7, 860},
                        side,
                        0};
      for (const double x : {0.0, 0.3, 0.8, 1.0}) {
        const auto p = circuit::at_share(s, x);
        if (p.runs_ahead) {
          CHECK(s.load(x) < 0);
          if (side == circuit::Braked::return_side)
            CHECK(-s.load(x) == Approx(p.return_pressure * s.area_out).epsilon(1e-9));
          continue;
        }
        const double inside =
            p.pressure - (side == circuit::Braked::supply_side ? s.restrictor.drop(s.area_in * p.speed) : 0);
        CHECK(inside * s.area_in == Approx(s.load(x) + p.return_pressure * s.area_out).epsilon(1e-9));
        CHECK(s.pump.at(p.pressure) == Approx(s.area_in * p.speed).epsilon(1e-9));
      }
      const auto f = circuit::stroke_figures(s);
      if (std::isfinite(f.time)) {
        double time = 0;
        for (int i = 0; i < 4000; ++i) time += s.length / 4000 / circuit::at_share(s, (i + 0.5) / 4000).speed;
        CHECK(f.time == Approx(time).epsilon(1e-4));
      }
    }
  // Supply-side throttling lets a pulling load run away; return-side throttling holds it.
  circuit::Stroke helped{6.2e-4,
                         4.6e-4,
                         0.22,
                         [](double) { return -800.0; },
                         {2.1e-5, 1.1e-12},
                         {0.62, 2e-7, 860},
                         circuit::Braked::supply_side,
                         0};
  CHECK(circuit::stroke_figures(helped).runs_ahead);
  helped.braked = circuit::Braked::return_side;
  CHECK_FALSE(circuit::stroke_figures(helped).runs_ahead);
  // A load beyond the pump: it stands.
  helped.load = [](double x) { return 20000 * x; };
  const auto stands = circuit::stroke_figures(helped);
  CHECK(std::isinf(stands.time));
  CHECK(stands.stops_at > 0.4);
}

TEST_CASE("a load kept straight between columns gives what looking closely gives") {
  std::mt19937 random(11);
  std::uniform_real_distribution<double> force(-300, 1800);
  int stopped = 0, ahead = 0;
  for (int i = 0; i < 60; ++i) {
    std::vector<double> at;
    for (int k = 0; k <= 24; ++k) at.push_back(force(random));
    if (i % 7 == 0) at[15] = 30000;  // nothing pushes that
    circuit::Stroke s{6.2e-4,
                      4.6e-4,
                      0.22,
                      [at](double share) {
                        const double x = std::clamp(share, 0.0, 1.0) * 24;
                        const auto k = std::min(static_cast<size_t>(x), size_t{23});
                        return at[k] + (x - static_cast<double>(k)) * (at[k + 1] - at[k]);
                      },
                      {2.1e-5, 1.1e-12},
                      {0.62, 4.2e-7, 860},
                      i % 2 ? circuit::Braked::return_side : circuit::Braked::supply_side,
                      0};
    s.pieces = 24;
    const auto close = circuit::stroke_figures(s);
    s.straight = true;
    const auto f = circuit::stroke_figures(s);
    CHECK(f.runs_ahead == close.runs_ahead);
    ahead += f.runs_ahead;
    CHECK(f.stops_at == Approx(close.stops_at).epsilon(1e-6));
    if (f.stops_at < 1) {
      ++stopped;
      CHECK(std::isinf(f.time));
      // It stands where the pump's pressure against nothing meets the load.
      CHECK(s.load(f.stops_at) == Approx(s.area_in * s.pump.flow / s.pump.loss).epsilon(1e-6));
      continue;
    }
    CHECK(f.time == Approx(close.time).epsilon(1e-8));
    CHECK(f.peak_pressure == Approx(close.peak_pressure));
    CHECK(f.peak_return == Approx(close.peak_return));
  }
  CHECK(stopped > 4);
  CHECK(ahead > 4);
}

TEST_CASE(
    "through a divider every leg gets the same, the pump gives it, and the inlet stands under what it must") {
  const auto leg = [](double from, double to, double bore) {
    return circuit::Branch{
        4.9e-4, 0.2, [=](double x) { return from + x * (to - from); }, {0.62, bore, 860}, true};
  };
  const circuit::Pump pump{2.4e-5, 1.2e-12};
  const std::vector legs{leg(1000, 1700, 1.4e-6), leg(1900, 900, 2.2e-6), leg(700, 1200, 0.9e-6)};
  for (const auto kind : {circuit::Divider::ideal, circuit::Divider::throttling, circuit::Divider::geared}) {
    const auto run = circuit::on_a_divider(legs, pump, kind, 400);
    for (size_t k = 0; k + 2 < run.samples.size(); k += 25) {
      const auto &now = run.samples[k], &next = run.samples[k + 1];
      const double dt = next.time - now.time;
      double needs = 0, most = -1e9;
      const double flow = pump.at(now.pressure) / 3;
      for (size_t i = 0; i < legs.size(); ++i) {
        CHECK((next.places[i] - now.places[i]) * legs[i].area * legs[i].length / dt ==
              Approx(flow).epsilon(2e-3));
        const double p = legs[i].load(now.places[i]) / legs[i].area + legs[i].line.drop(flow);
        needs += p;
        most = std::max(most, p);
      }
      CHECK(now.pressure == Approx(kind == circuit::Divider::geared ? needs / 3 : most).epsilon(1e-9));
    }
  }
}

TEST_CASE("on a tee oil is neither made nor lost, and equal legs go together") {
  const auto leg = [](double from, double to) {
    return circuit::Branch{
        4.9e-4, 0.2, [=](double x) { return from + x * (to - from); }, {0.62, 1.4e-6, 860}, true};
  };
  const circuit::Pump pump{2.4e-5, 1.2e-12};
  for (const auto& legs : {std::vector{leg(1000, 1700), leg(1700, 1000)},
                           {leg(900, 900), leg(900, 900)},
                           {leg(500, 2000), leg(1500, 600), leg(800, 800)}}) {
    const auto run = circuit::on_a_tee(legs, pump);
    double pumped = 0;
    for (size_t i = 1; i < run.samples.size(); ++i)
      pumped += (run.samples[i].time - run.samples[i - 1].time) *
                (pump.at(run.samples[i].pressure) + pump.at(run.samples[i - 1].pressure)) / 2;
    double taken = 0;
    for (size_t i = 0; i < legs.size(); ++i)
      taken += run.samples.back().places[i] * legs[i].area * legs[i].length;
    CHECK(pumped == Approx(taken).epsilon(2e-3));
    for (const auto& b : run.branches) CHECK(std::isfinite(b.arrives));
  }
  const auto twins = circuit::on_a_tee({leg(900, 1400), leg(900, 1400)}, pump);
  CHECK(twins.branches[0].arrives == Approx(twins.branches[1].arrives));
  const auto divided =
      circuit::on_a_divider({leg(1000, 1000), leg(1700, 1700)}, pump, circuit::Divider::geared);
  CHECK(divided.branches[0].arrives == Approx(divided.branches[1].arrives));
  CHECK(divided.peak_pressure <
        circuit::on_a_divider({leg(1000, 1000), leg(1700, 1700)}, pump).peak_pressure);
}

TEST_CASE("a leak is what its differential equation says") {
  circuit::Trapped t{4.5e-4, 8e8, 1.2e-12, 2e-9, 1.5e-15, 8e6, 5.5e6, {2.1e-5, 1.1e-12}};
  double p = t.cut_out;
  double time = 0;
  const double h = 0.01;
  while (p > t.cut_in) {
    p -= h * (t.leak_constant + t.leak_per_pressure * p) / t.compliance();
    time += h;
  }
  CHECK(t.time_to_cut_in() == Approx(time).epsilon(1e-3));
  CHECK(t.pressure_after(t.time_to_cut_in()) == Approx(t.cut_in));
  t.leak_constant = t.leak_per_pressure = 0;
  CHECK(std::isinf(t.time_to_cut_in()));
  t.leak_constant = 1e-4;
  CHECK(std::isinf(t.pump_time()));
}

TEST_CASE("a current budget is what sampling finds, a jam draws to the time-out") {
  const std::vector<circuit::Consumer> list{{"door", 0, 1.2, 0.45, 1.4, 0.08, 2.2},
                                            {"left", 1.8, 5.2, 0.9, 2.6, 0.15, 3.4},
                                            {"right", 1.8, 5.6, 0.9, 2.6, 0.15, 3.4, 3.1}};
  const auto b = circuit::budget(list, 0.35, 4, 8, 14);
  double peak = 0;
  double charge = 0;
  double above = 0;
  for (int i = 0; i < 140000; ++i) {
    const double t = (i + 0.5) * 1e-4;
    double now = 0.35;
    for (const auto& c : list) now += c.at(t, 8);
    peak = std::max(peak, now);
    charge += now * 1e-4;
    if (now > 4) above += 1e-4;
  }
  CHECK(b.peak == Approx(peak));
  CHECK(b.charge == Approx(charge).epsilon(1e-4));
  CHECK(b.time_above == Approx(above).margin(1e-3));
  CHECK(list[2].at(9.7, 8) == 3.4);
  CHECK(list[2].at(9.9, 8) == 0);
  const double area = circuit::least_conductor(1.3, 3.4, 0.4);
  CHECK(3.4 * circuit::lead_resistance(1.3, area) == Approx(0.4));
}

TEST_CASE("a turn is about one centre, and the angle for a radius gives that radius") {
  steer::Turning t{1.48, 2.05, 9.2, 0.25, radians(28), radians(12)};
  const auto f = steer::turn_figures(t);
  CHECK(std::hypot(f.middle, t.wheelbase) == Approx(f.steered));
  CHECK(f.outer - f.inner == Approx(t.track));
  t.angle = steer::angle_for(t, 4.0);
  CHECK(steer::turn_figures(t).middle == Approx(4.0));
  CHECK(steer::sideways(4.0, steer::speed_for(4.0, 0.45)) == Approx(0.45));
}

namespace {

//! Every state by plain recursion on names: the slow way beside the fast one.
using State = std::map<std::string, std::string>;
bool matches(const std::vector<logic::Pattern>& lamp, const logic::Pattern& p, const State& s) {
  for (const auto& [name, words] : p) {
    std::string now;
    if (s.count(name)) {
      now = s.at(name);
    } else {
      now = "false";
      for (const auto& row : lamp)
        if (matches(lamp, row, s)) now = "true";
    }
    if (std::find(words.begin(), words.end(), now) == words.end()) return false;
  }
  return true;
}

}  // namespace

TEST_CASE(
    "the states of random machines are those that plain search finds, runs replay, lamps tell the truth") {
  std::mt19937 random(77);
  const auto pick = [&](size_t n) { return static_cast<size_t>(random() % n); };
  int violated = 0;
  for (int round = 0; round < 60; ++round) {
    logic::Machine m;
    for (size_t i = 0; i < 4; ++i) {
      logic::Variable v{"v" + std::to_string(i), {}};
      for (size_t k = 0; k < 2 + pick(2); ++k) v.values.push_back("s" + std::to_string(k));
      m.variables.push_back(v);
      m.initial[v.name] = v.values[0];
    }
    const auto some = [&] {
      logic::Pattern p;
      for (int n = 0; n < 2; ++n) {
        const auto& v = m.variables[pick(4)];
        p[v.name] = {v.values[pick(v.values.size())]};
      }
      return p;
    };
    using logic::Condition;
    std::map<std::string, logic::Pattern> when;
    for (int e = 0; e < 7; ++e) {
      const auto& v = m.variables[pick(4)];
      const std::string name = "e" + std::to_string(e);
      when[name] = some();
      m.events.push_back(
          {name, pick(3) == 0, Condition::all_of(when[name]), {{v.name, v.values[pick(v.values.size())]}}});
    }
    const std::vector<logic::Pattern> lamp{some(), some()};
    m.outputs.push_back({"lamp", Condition::any_of(lamp)});
    logic::Pattern lit = some();
    lit["lamp"] = {"true"};
    logic::Pattern dark = some();
    dark["lamp"] = {"false"};
    const logic::Pattern shown[]{lit, dark};
    m.properties = {{"lit", logic::Demand::never, Condition::all_of(lit)},
                    {"dark", logic::Demand::never, Condition::all_of(dark)},
                    {"ends", logic::Demand::ends, Condition::all_of(some())},
                    {"settles", logic::Demand::settles, {}}};
    logic::Fault fault{"stuck", {{"v1", m.variables[1].values[1]}}, {"e3"}};
    m.faults = {fault};
    REQUIRE(logic::faults_in(m).empty());
    for (const bool broken : {false, true}) {
      std::vector<const logic::Fault*> list;
      if (broken) list.push_back(&m.faults[0]);
      const auto found = logic::explore(m, list);
      State start = m.initial;
      if (broken) start["v1"] = m.variables[1].values[1];
      const auto after = [&](const State& s, const logic::Event& e) {
        State to = s;
        for (const auto& [name, value] : e.set)
          if (!broken || name != "v1") to[name] = value;
        return to;
      };
      const auto happens = [&](const State& s, const logic::Event& e) {
        return !(broken && e.name == "e3") && matches(lamp, when.at(e.name), s);
      };
      std::map<State, size_t> depth{{start, 0}};
      std::vector<State> queue{start};
      for (size_t i = 0; i < queue.size(); ++i)
        for (const auto& e : m.events)
          if (happens(queue[i], e))
            if (const State to = after(queue[i], e); depth.emplace(to, depth[queue[i]] + 1).second)
              queue.push_back(to);
      CHECK(found.states == queue.size());
      for (size_t k = 0; k < 2; ++k) {
        size_t least = SIZE_MAX;
        for (const auto& [s, n] : depth)
          if (matches(lamp, shown[k], s)) least = std::min(least, n);
        CHECK(found.outcomes[k].violated == (least != SIZE_MAX));
        if (!found.outcomes[k].violated) continue;
        ++violated;
        CHECK(found.outcomes[k].run.size() == least);
        State now = start;
        for (const auto& name : found.outcomes[k].run)
          for (const auto& e : m.events)
            if (e.name == name) {
              CHECK(happens(now, e));
              now = after(now, e);
            }
        CHECK(matches(lamp, shown[k], now));
      }
      // Cycles of the machine's own events: by reaching oneself again.
      bool cycle = false;
      for (const State& s : queue) {
        std::set<State> seen;
        std::vector<State> open{s};
        while (!open.empty() && !cycle) {
          const State at = open.back();
          open.pop_back();
          for (const auto& e : m.events)
            if (!e.by_operator && happens(at, e)) {
              const State to = after(at, e);
              if (to == at) continue;
              if (to == s) cycle = true;
              if (seen.insert(to).second) open.push_back(to);
            }
        }
      }
      CHECK(found.outcomes[3].violated == cycle);
    }
  }
  CHECK(violated > 20);
  logic::Machine wrong;
  wrong.variables = {{"leg", {"up", "down"}}};
  wrong.initial = {{"leg", "sideways"}};
  CHECK_FALSE(logic::faults_in(wrong).empty());
  CHECK_FALSE(logic::explore(wrong, {}).complete);
}
