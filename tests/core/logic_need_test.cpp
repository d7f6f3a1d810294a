// SPDX-License-Identifier: GPL-3.0-or-later
//! Logic: the machine that follows from the wiring, what single faults do to it, and what cures them.
#include <catch2/catch.hpp>
#include <random>

#include "core/assess/logic_state.h"
#include "core/logic/trial.h"
#include "cured.h"
#include "demo.h"
#include "said.h"

using namespace kranich;
using logic::Rule;

namespace {

//! Two mains and a nose leg with doors, none of it broken by design: what a careful builder would wire.
logic::Fitted careful(LegPower power = LegPower::pump, int legs = 2, bool doors = true) {
  logic::Fitted f;
  f.parts.power = power;
  f.parts.down_sign = f.parts.up_sign = SignPlace::both;
  f.parts.squat = SquatKind::two;
  f.parts.time_out = Given(1.0);
  f.parts.breaker_trips = f.parts.signals_apart = f.parts.door_pairs = true;
  f.parts.release = power == LegPower::pump ? ReleaseKind::dump : ReleaseKind::clutch;
  f.parts.horn = HornBy::throttle_or_speed;
  f.parts.door_order = DoorOrder::blocked;
  f.parts.lamps = LampSchool::greens_dark_up;
  for (int i = 0; i < legs; ++i) {
    logic::WiredLeg l;
    l.key = l.word = i == 0 ? "nose leg" : i == 1 ? "port main leg" : "starboard main leg";
    l.hook = l.falls = true;
    l.door = doors;
    l.door_word = i == 0 ? "nose doors" : i == 1 ? "port door" : "starboard door";
    l.clash[1][0] = l.clash[1][1] = true;
    l.closes_down = i > 0;
    f.legs.push_back(l);
  }
  return f;
}
std::vector<std::string> violating(const logic::Proof& proof, Rule rule) {
  std::vector<std::string> list;
  for (const auto& run : proof.runs)
    for (size_t i = 0; i < run.outcomes.size(); ++i)
      if (proof.wiring->rules[i] == rule && run.outcomes[i].violated) list.push_back(run.fault);
  return list;
}
bool has(const std::vector<std::string>& list, std::string_view part) {
  return std::any_of(list.begin(), list.end(),
                     [&](const std::string& s) { return s.find(part) != std::string::npos; });
}
Design wired(Design d, const std::function<void(Logic&)>& change = {}) {
  Logic& l = d.logic;
  l = {};
  l.power = LegPower::pump;
  l.down_sign = l.up_sign = SignPlace::on_lock;
  l.squat = SquatKind::one;
  l.time_out = Given(30.0);
  l.release = ReleaseKind::dump;
  l.horn = HornBy::throttle;
  l.lamps = LampSchool::greens_dark_up;
  l.door_order = DoorOrder::blocked;
  if (change) change(l);
  for (auto& leg : d.gear.legs) leg.retraction.drive.falls_free = leg.retraction.fitted;
  return d;
}

}  // namespace

TEST_CASE("a careful wiring stands every single fault, by pump and by motors") {
  for (const LegPower power : {LegPower::pump, LegPower::motors}) {
    const auto proof = logic::prove(careful(power));
    REQUIRE(proof->complete);
    CHECK(proof->runs.size() > 30);
    for (int i = 0; i < logic::rule_count; ++i) {
      const auto rule = static_cast<Rule>(i);
      // Fluid that is lost takes nothing down that hooks hold.
      INFO(i);
      CHECK(violating(*proof, rule) == std::vector<std::string>{});
    }
  }
}

TEST_CASE("what is reached after a fault is what plain exploring reaches, by the same shortest ways") {
  std::mt19937 random(3);
  const auto pick = [&](int n) { return static_cast<int>(random() % static_cast<unsigned>(n)); };
  int told = 0;
  for (int round = 0; round < 12; ++round) {
    logic::Fitted f = careful(pick(2) ? LegPower::pump : LegPower::motors, 1 + pick(2), pick(2) != 0);
    f.parts.down_sign = static_cast<SignPlace>(pick(4));
    f.parts.up_sign = static_cast<SignPlace>(pick(4));
    f.parts.squat = static_cast<SquatKind>(pick(3));
    f.parts.time_out = pick(2) ? Given(1.0) : Given();
    f.parts.release = static_cast<ReleaseKind>(pick(3));
    f.parts.horn = static_cast<HornBy>(pick(3));
    f.parts.door_order = static_cast<DoorOrder>(pick(3));
    f.parts.lamps = static_cast<LampSchool>(pick(5));
    f.parts.pressure_switch = pick(2) != 0;
    f.parts.breaker_trips = pick(2) != 0;
    f.parts.signals_apart = pick(2) != 0;
    for (auto& l : f.legs) l.hook = pick(2) != 0;
    const auto w = logic::wire(f);
    REQUIRE(logic::faults_in(w.machine) == std::vector<std::string>{});
    const logic::Reached reached(w.machine, {"", {}, {}});
    const auto sound = logic::explore(w.machine, {});
    CHECK(reached.sound().states == sound.states);
    for (const auto& fault : w.machine.faults) {
      const auto all = logic::explore(w.machine, {&fault});
      const auto after = reached.after({&fault});
      INFO(fault.name);
      // The breaker may be pushed in again: then it is as it was.
      if (fault.name != "the breaker comes out") CHECK(all.states == sound.states + after.states);
      for (size_t i = 0; i < all.outcomes.size(); ++i) {
        CHECK(all.outcomes[i].violated == (sound.outcomes[i].violated || after.outcomes[i].violated));
        if (!sound.outcomes[i].violated && after.outcomes[i].violated) {
          CHECK(all.outcomes[i].run.size() == after.outcomes[i].run.size());
          ++told;
        }
      }
    }
  }
  CHECK(told > 50);
}

TEST_CASE("walks at random, with one fault, never meet what was proved never to be; runs can be walked") {
  std::mt19937 random(11);
  for (const DoorOrder order : {DoorOrder::confirmed, DoorOrder::blocked}) {
    logic::Fitted f = careful(LegPower::pump, 2);
    f.parts.door_order = order;
    f.parts.down_sign = SignPlace::on_lock;
    const auto proof = logic::prove(f);
    const auto& m = proof->wiring->machine;
    for (size_t k = 0; k < proof->runs.size(); ++k) {
      const auto& run = proof->runs[k];
      for (int walk = 0; walk < 6; ++walk) {
        logic::State s = m.initial;
        for (int step = 0; step < 120; ++step) {
          std::vector<const logic::Event*> can;
          for (const auto& e : m.events)
            if ((e.fault.empty() || e.fault == run.fault) && logic::can_happen(e, s)) can.push_back(&e);
          if (can.empty()) break;
          for (const auto& [variable, value] : can[random() % can.size()]->set) s[variable] = value;
          for (size_t i = 0; i < m.properties.size(); ++i) {
            const bool safe = !run.outcomes[i].violated && !proof->runs[0].outcomes[i].violated;
            if (m.properties[i].demand == logic::Demand::never && safe)
              CHECK_FALSE(m.properties[i].where.holds(s));
          }
        }
      }
      for (size_t i = 0; i < run.outcomes.size(); ++i) {
        logic::State s = m.initial;
        for (const auto& name : run.outcomes[i].run) {
          const auto e = std::find_if(m.events.begin(), m.events.end(),
                                      [&](const logic::Event& x) { return x.name == name; });
          REQUIRE(e != m.events.end());
          CHECK(logic::can_happen(*e, s));
          for (const auto& [variable, value] : e->set) s[variable] = value;
        }
        if (run.outcomes[i].violated && m.properties[i].demand != logic::Demand::settles)
          CHECK(m.properties[i].where.holds(s));
      }
    }
  }
}

TEST_CASE("a relay pulls in where its rung lets current through, and only there") {
  std::mt19937 random(5);
  const logic::Fitted f = careful(LegPower::motors, 2);
  const auto w = logic::wire(f);
  logic::State s = w.machine.initial;
  int lit = 0;
  for (int step = 0; step < 3000; ++step) {
    std::vector<const logic::Event*> can;
    for (const auto& e : w.machine.events)
      if (e.fault.empty() && !e.set.count("handle") && logic::can_happen(e, s)) can.push_back(&e);
    REQUIRE_FALSE(can.empty());
    for (const auto& [variable, value] : can[random() % can.size()]->set) s[variable] = value;
    for (const auto& rung : w.rungs) {
      bool through = true;
      for (const auto& parallel : rung.series)
        through = through && std::any_of(parallel.begin(), parallel.end(),
                                         [&](const auto& c) { return c.closed.holds(s); });
      CHECK(rung.lit.holds(s) == through);
      if (rung.load.rfind("raising relay", 0) != 0) continue;
      const std::string motor = "motor of the " + rung.load.substr(rung.load.find(", ") + 2);
      const bool starts = std::any_of(w.machine.events.begin(), w.machine.events.end(), [&](const auto& e) {
        return e.name == "the " + motor + " starts to raise" && logic::can_happen(e, s);
      });
      CHECK(starts == (through && s.at(motor) != "raises"));
      lit += through;
    }
  }
  CHECK(lit > 50);
}

TEST_CASE("known traps: each is found, told by the shortest way, and gone when it is cured") {
  const auto proved = [](const std::function<void(logic::Fitted&)>& change) {
    logic::Fitted f = careful();
    change(f);
    return logic::prove(f);
  };
  SECTION("selector reversed while the door closes: its open switch is still closed") {
    const auto p = proved([](auto& f) { f.parts.door_order = DoorOrder::confirmed; });
    REQUIRE(violating(*p, Rule::door).front().empty());  // with nothing broken
    const logic::Outcome* o = nullptr;
    REQUIRE(p->first(Rule::door, &o));
    CHECK(has(o->run, "told to close"));
    CHECK(has(o->run, "the pilot selects"));
  }
  SECTION("the switch on the leg says down where the lock has not caught") {
    const auto on_leg = proved([](auto& f) { f.parts.down_sign = SignPlace::on_leg; });
    const auto on_lock = proved([](auto& f) { f.parts.down_sign = SignPlace::on_lock; });
    CHECK(has(violating(*on_leg, Rule::lamp), "does not catch"));
    CHECK_FALSE(has(violating(*on_lock, Rule::lamp), "does not catch"));
    CHECK(has(violating(*on_lock, Rule::lamp), "sticks closed"));
  }
  SECTION("an up switch whose wire breaks, and no time-out") {
    const auto none = proved([](auto& f) {
      f.parts.time_out = Given();
      f.parts.breaker_trips = false;
      f.parts.pressure_switch = false;
    });
    CHECK(has(violating(*none, Rule::motor), "up switch"));
    const auto timed = proved([](auto& f) { f.parts.breaker_trips = false; });
    CHECK_FALSE(has(violating(*timed, Rule::motor), "up switch"));
    CHECK(has(violating(*timed, Rule::motor), "welds"));  // a relay that welds wants the breaker
  }
  SECTION("one breaker for motor and horn") {
    CHECK(has(violating(*proved([](auto& f) { f.parts.signals_apart = false; }), Rule::horn),
              "breaker comes out"));
  }
  SECTION("one throttle switch") {
    CHECK(has(violating(*proved([](auto& f) { f.parts.horn = HornBy::throttle; }), Rule::horn),
              "throttle switch"));
  }
  SECTION("one squat switch, or none") {
    CHECK(violating(*proved([](auto& f) { f.parts.squat = SquatKind::one; }), Rule::ground) ==
          std::vector<std::string>{"squat switch: sticks as in the air"});
    CHECK(violating(*proved([](auto& f) { f.parts.squat = SquatKind::none; }), Rule::ground).front().empty());
  }
  SECTION("nothing lets it down, or it does not fall to its lock") {
    CHECK(has(violating(*proved([](auto& f) { f.parts.release = ReleaseKind::none; }), Rule::fall),
              "pump dies"));
    CHECK(violating(*proved([](auto& f) { f.legs[1].falls = false; }), Rule::fall).front().empty());
  }
  SECTION("a slow leak and no up-lock: pump on, leak, pump on") {
    const auto p = proved([](auto& f) { f.legs[1].hook = false; });
    CHECK(violating(*p, Rule::settles) == std::vector<std::string>{"a slow leak"});
    CHECK(has(violating(*p, Rule::door), "leak"));  // it sinks onto its closed door
  }
  SECTION("one switch on each door") {
    CHECK(has(violating(*proved([](auto& f) { f.parts.door_pairs = false; }), Rule::door),
              "open switch of the"));
  }
  SECTION("lamps that are dark for want of power look like locked") {
    const auto p = proved([](auto& f) {
      f.parts.lamps = LampSchool::red_until_locked;
      f.parts.signals_apart = false;
    });
    CHECK(has(violating(*p, Rule::lamp), "breaker comes out"));
  }
}

TEST_CASE("by time a reversed selector and a stuck door bring the leg against it; by contacts neither does") {
  logic::Fitted f = careful();
  f.parts.door_order = DoorOrder::timed;
  const auto timed = logic::prove(f);
  CHECK(violating(*timed, Rule::door).front().empty());
  CHECK(has(violating(*timed, Rule::door), "stuck where it is"));
}

TEST_CASE("the table of states tells what each switch does, and a broken one") {
  const logic::Fitted f = careful();
  const auto w = logic::wire(f);
  const auto rows = logic::state_table(w, f);
  const auto lit = [&](std::string_view situation, std::string_view selector, std::string_view load) {
    for (const auto& r : rows)
      if (r.situation == situation && r.selector == selector)
        for (size_t i = 0; i < w.rungs.size(); ++i)
          if (w.rungs[i].load == load) return static_cast<bool>(r.lit[i]);
    FAIL("no row " << situation);
    return false;
  };
  CHECK(lit("all locked down", "down", "green: nose"));
  CHECK_FALSE(lit("all locked down", "down", "lowering relay"));
  CHECK(lit("all locked down", "up", "raising relay"));
  CHECK(lit("all on the way", "down", "lowering relay"));
  CHECK(lit("all on the way", "down", "amber: on the way"));
  CHECK(lit("all on the way", "up", "horn"));
  CHECK_FALSE(lit("all up", "up", "raising relay"));
  CHECK(lit("all up", "up", "horn"));
  CHECK_FALSE(lit("the nose leg down, not locked", "down", "green: nose"));
  CHECK(lit("down switch of the nose leg, on the lock broken, all locked down", "down", "lowering relay"));
}

TEST_CASE("Dunnock, wired as many are: every fault found has a cure, and the cure is proved") {
  const Design d = wired(demo("dunnock"));
  Design worse = d;
  worse.logic.door_order = DoorOrder::confirmed;
  for (const Design& design : {d, worse}) {
    const Assessment a = assess(design);
    REQUIRE(a.logic);
    CHECK(a.logic->fitted.legs.size() == 3);
    CHECK(of(a, "logic.states")->value > 100'000);
    int cured = 0;
    for (const char* id : {"logic.door", "logic.motor", "logic.lamp", "logic.horn", "logic.ground"}) {
      const Finding* f = of(a, id);
      REQUIRE(f);
      INFO(id);
      if (f->verdict != Verdict::fails) continue;
      CHECK_FALSE(f->remark.empty());
      const auto stock = stock_of(design);
      const auto cures = cures_for(design, a, *f, {100, &stock, {}});
      REQUIRE_FALSE(cures.empty());
      const Assessment after = assess(cures.front().applied(design));
      CHECK(of(after, id)->verdict == Verdict::holds);
      ++cured;
    }
    CHECK(cured >= 3);
  }
}

TEST_CASE("legs and doors called as parts of the wiring are, or all alike, are told apart") {
  Design d = wired(demo("dunnock"));
  for (auto& door : d.doors) door.name = "doors";
  for (auto& leg : d.gear.legs) leg.name = "pump";
  const Assessment a = assess(d);
  REQUIRE(a.logic->proof);
  CHECK(logic::faults_in(a.logic->proof->wiring->machine) == std::vector<std::string>{});
  const Assessment plain = assess(wired(demo("dunnock")));
  CHECK(a.logic->proof->states == plain.logic->proof->states);
  for (int i = 0; i < logic::rule_count; ++i)
    CHECK(a.logic->proof->violated(static_cast<Rule>(i)) ==
          plain.logic->proof->violated(static_cast<Rule>(i)));
  logic::Machine doubled;
  doubled.variables = {{"leg", {"up", "down"}}, {"leg", {"up", "down"}}};
  doubled.initial = {{"leg", "up"}};
  CHECK_FALSE(logic::faults_in(doubled).empty());
}

TEST_CASE("tried by hand it goes up and comes down; broken it stands, mended it goes on; a run is replayed") {
  const logic::Fitted f = careful(LegPower::pump, 2);
  logic::Trial trial(std::make_shared<const logic::Wiring>(logic::wire(f)));
  const auto run_out = [&] {
    int steps = 0;
    while (trial.step() && ++steps < 200) {
    }
    CHECK(steps < 200);
  };
  CHECK_FALSE(trial.step());
  CHECK(trial.throws("aircraft"));
  CHECK(trial.throws("selector"));
  run_out();
  CHECK(trial.value("nose leg") == "up");
  CHECK(trial.value("nose doors") == "closed");
  CHECK(trial.throws("breaker"));
  CHECK(trial.throws("selector"));
  run_out();
  CHECK(trial.value("nose leg") == "up");
  CHECK(trial.throws("handle"));
  run_out();
  CHECK(trial.value("nose leg") == "locked down");
  trial.rest();
  trial.breaks("squat switch");
  CHECK(trial.value("squat switch") == "closed");
  trial.breaks("squat switch");
  trial.breaks("squat switch");
  CHECK(trial.value("squat switch") == "works");
  trial.replay({"the pilot selects up", "the aircraft lifts off"});
  CHECK(trial.step());
  CHECK(trial.value("selector") == "up");
  CHECK(trial.to_come().size() == 1);
}

TEST_CASE("a gear of many legs and motors is tried as well, in wider states") {
  // Each leg's ways by themselves are as before: four of them without doors still stand every fault.
  logic::Fitted f = careful(LegPower::motors, 3, false);
  f.parts.time_out = Given();
  logic::WiredLeg fourth = f.legs[2];
  fourth.key = fourth.word = "tail leg";
  f.legs.push_back(fourth);
  const auto proof = logic::prove(f);
  CHECK(proof->complete);
  for (int i = 0; i < logic::rule_count; ++i) {
    if (static_cast<Rule>(i) == Rule::motor) continue;
    INFO(i);
    CHECK(violating(*proof, static_cast<Rule>(i)) == std::vector<std::string>{});
  }
  const logic::Reached reached(proof->wiring->machine, {"", {}, {}});
  const auto sound = logic::explore(proof->wiring->machine, {});
  CHECK(reached.sound().states == sound.states);
}

TEST_CASE("what the proof needs and does not have is said") {
  Design d = demo("dunnock");
  d.logic = {};
  CHECK(of(assess(d), "logic.states")->verdict == Verdict::unknown);  // what moves the legs
  d = wired(d);
  for (auto& leg : d.gear.legs) leg.retraction.drive.falls_free = false;
  const Assessment a = assess(d);
  CHECK(of(a, "logic.fall")->verdict == Verdict::fails);
  CHECK(in_words(of(a, "logic.fall")->assumption).find("falls free is not known") != std::string::npos);
  // A drag does not wait for the proof.
  Design other = d;
  other.logic.squat = SquatKind::two;
  other.logic.horn = HornBy::throttle_or_speed;
  Stations quick;
  quick.take_time = false;
  CHECK(of(assess(other, quick), "logic.ground")->verdict == Verdict::unknown);
  CHECK(of(assess(other), "logic.ground")->verdict == Verdict::holds);
  CHECK(of(assess(other, quick), "logic.ground")->verdict == Verdict::holds);
  // Where the throttle counts as back.
  CHECK(of(assess(other), "logic.threshold")->verdict == Verdict::unknown);
  other.logic.throttle_back = Given(0.25);
  CHECK(of(assess(other), "logic.threshold")->verdict == Verdict::holds);
  other.logic.throttle_back = Given(0.8);
  CHECK(of(assess(other), "logic.threshold")->verdict == Verdict::fails);
  // A time-out shorter than the slowest run.
  other.logic.time_out = Given(5.0);
  CHECK(of(assess(other), "logic.time_out")->verdict == Verdict::fails);
  other.logic.switches = SwitchSort::reed;
  other.logic.plastic_mounts = true;
  CHECK(of(assess(other), "logic.switches")->verdict == Verdict::fails);
  const Assessment with_reeds = assess(other);
  CHECK(has(violating(*with_reeds.logic->proof, Rule::lamp), "its reed stays closed"));
}

TEST_CASE("pairs of faults are tried on demand, told how many, and can be called off") {
  const logic::Fitted f = careful(LegPower::pump, 1, false);
  const auto pairs = logic::prove_pairs(f);
  CHECK(pairs.complete);
  const auto faults = logic::prove(f)->runs.size() - 1;
  CHECK(pairs.runs.size() > faults * (faults - 1) / 2 - faults);
  // Two switches in series, both stuck: the lamp lies.
  CHECK(pairs.violated(Rule::lamp) > 0);
  int asked = 0;
  const auto off = logic::prove_pairs(f, [&](double) { return ++asked < 5; });
  CHECK_FALSE(off.complete);
  CHECK(off.runs.size() < pairs.runs.size());
}
