// SPDX-License-Identifier: GPL-3.0-or-later
//! Doors and legs in time, against a small simulation that knows nothing of the formulas.
#include "core/sequence/sequence.h"

#include <catch2/catch.hpp>
#include <random>

#include "core/assess/assess.h"
#include "core/assess/cures.h"
#include "core/assess/doors_state.h"
#include "core/io/project_file.h"
#include "core/io/sequence_table.h"
#include "core/io/stock.h"
#include "core/model/consistency.h"
#include "core/sequence/aids.h"
#include "core/sequence/plan.h"
#include "demo.h"
#include "said.h"
#include "timed.h"

using namespace kranich;
using sequence::DoorCheck;

namespace {

//! One leg and one door, with a zone that is not the same from both ends.
Design one_door() {
  Design d;
  Leg leg;
  leg.id = "main";
  leg.retraction.fitted = true;
  leg.retraction.time_up = Given(4);
  leg.retraction.time_down = Given(3);
  leg.retraction.slowest = Given(1.25);
  leg.retraction.fastest = Given(0.8);
  d.gear.legs.push_back(leg);
  Door door;
  door.id = "door";
  door.leg = "main";
  door.time_open = Given(2);
  door.time_close = Given(2.5);
  door.slowest = Given(1.2);
  door.fastest = Given(0.9);
  door.frees_leg_at = Given(0.6);
  door.zone_enter = Given(0.2);
  door.zone_leave = Given(0.7);
  d.doors.push_back(door);
  d.sequence.margin = Given(0.2);
  return d;
}
Step step(const char* actor, Action action, double at) {
  Step s;
  s.actor = actor;
  s.action = action;
  s.start = Given(at);
  return s;
}
DoorCheck only(const Design& d, bool up) {
  std::vector<Text> problems;
  const auto checks = sequence::check_doors(d, timed(d), up, problems, {});
  CHECK(problems.empty());
  REQUIRE(checks.size() == 1);
  return checks[0];
}

//! Whether the leg is in its zone while the door is less open than it must be, at any mix of the spreads, by
//! following both in small steps.
bool meet(const Design& d, bool up) {
  const Door& door = d.doors[0];
  const Retraction& r = d.gear.legs[0].retraction;
  const auto& steps = up ? d.sequence.up : d.sequence.down;
  for (const double open_by : {door.fastest.si, door.slowest.si})
    for (const double close_by : {door.fastest.si, door.slowest.si})
      for (const double leg_by : {r.fastest.si, r.slowest.si}) {
        double door_at = 0;
        double leg_at = up ? 0 : 1;
        constexpr double dt = 1e-3;
        for (double t = 0; t < 20; t += dt) {
          const Action* door_does = nullptr;
          bool leg_moves = false;
          for (const auto& s : steps) {
            if (s.start > t) continue;
            if (s.actor == "door") door_does = &s.action;
            if (s.actor == "main") leg_moves = true;
          }
          if (door_does)
            door_at += *door_does == Action::open ? dt / (door.time_open * open_by)
                                                  : -dt / (door.time_close * close_by);
          door_at = std::clamp(door_at, 0.0, 1.0);
          if (leg_moves) leg_at += (up ? dt / r.time_up : -dt / r.time_down) / leg_by;
          leg_at = std::clamp(leg_at, 0.0, 1.0);
          const double slack = 2e-3;  // of the steps
          if (leg_at > door.zone_enter + slack && leg_at < door.zone_leave - slack &&
              door_at < door.frees_leg_at - slack)
            return true;
        }
      }
  return false;
}

}  // namespace

TEST_CASE("the least wait and the least start of closing, up and down, by hand") {
  Design d = one_door();
  d.sequence.up = {step("door", Action::open, 0), step("main", Action::raise, 1),
                   step("door", Action::close, 5)};
  const auto up = only(d, true);
  // Slowest door free at 2·1.2·0.6 = 1.44 s; fastest leg enters 4·0.8·0.2 = 0.64 s after it starts.
  CHECK(up.least_leg_start == Approx(1.44 - 0.64));
  CHECK(up.wait_in_hand == Approx(0.2));
  // Slowest leg leaves at 1 + 4·1.25·0.7 = 4.5 s; fastest door closes 40 % in 2.5·0.9·0.4 = 0.9 s.
  CHECK(up.least_close_start == Approx(3.6));
  CHECK(up.least_close_start_at_rest == Approx(6));
  CHECK(up.close_in_hand == Approx(-1));
  CHECK(up.slowest_leg_share == Approx(0.8));
  CHECK_FALSE(up.touches);
  d.sequence.down = {step("door", Action::open, 0), step("main", Action::lower, 1),
                     step("door", Action::close, 6)};
  const auto down = only(d, false);
  // Going down the leg meets its zone from the other end: after 0.3 of its travel, out of it after 0.8.
  CHECK(down.least_leg_start == Approx(1.44 - 3 * 0.8 * 0.3));
  CHECK(down.least_close_start == Approx(1 + 3 * 1.25 * 0.8 - 0.9));
  CHECK(down.least_close_start_at_rest == Approx(1 + 3.75));
}

TEST_CASE("steps that just clear and just touch: as a simulation of both says") {
  std::mt19937 random(5);
  std::uniform_real_distribution<double> u(0, 1);
  int touched = 0;
  for (int i = 0; i < 40; ++i) {
    Design d = one_door();
    d.doors[0].zone_enter = Given(0.05 + 0.4 * u(random));
    d.doors[0].zone_leave = Given(d.doors[0].zone_enter + 0.2 + 0.3 * u(random));
    d.doors[0].frees_leg_at = Given(0.3 + 0.6 * u(random));
    for (const bool up : {true, false}) {
      auto& steps = up ? d.sequence.up : d.sequence.down;
      const Action moves = up ? Action::raise : Action::lower;
      steps = {step("door", Action::open, 0), step("main", moves, 10), step("door", Action::close, 19)};
      steps[1].start = Given(only(d, up).least_leg_start + 0.03);
      steps[2].start = Given(only(d, up).least_close_start + 0.03);
      if (steps[2].start < 2.5) continue;  // it would close before it is open: another story
      CHECK_FALSE(only(d, up).touches);
      CHECK_FALSE(meet(d, up));
      auto early = d;
      (up ? early.sequence.up : early.sequence.down)[2].start.si -= 0.06;
      CHECK(only(early, up).touches);
      CHECK(meet(early, up));
      early = d;
      auto& leg_starts = (up ? early.sequence.up : early.sequence.down)[1].start.si;
      if (leg_starts > 0.06) {
        leg_starts -= 0.06;
        CHECK(only(early, up).touches);
        CHECK(meet(early, up));
        ++touched;
      }
    }
  }
  CHECK(touched > 20);
}

TEST_CASE("a door that nobody opens is shut, one that was left open is not") {
  Design d = one_door();
  d.sequence.up = {step("main", Action::raise, 1)};
  auto c = only(d, true);
  CHECK(c.shut);
  CHECK(c.touches);
  Finding f;
  for (const auto& x : assess(d).findings)
    if (x.measure_id == "sequence.leg_wait") f = x;
  CHECK(f.verdict == Verdict::fails);
  CHECK(says(f.remark, "nothing opens this door"));

  // Opened on the way down and never closed: it is open when the leg goes up again.
  d.sequence.down = {step("door", Action::open, 0), step("main", Action::lower, 2)};
  c = only(d, true);
  CHECK_FALSE(c.shut);
  CHECK(c.least_leg_start == 0);
  CHECK_FALSE(c.touches);
  CHECK_FALSE(only(d, false).shut);
  // Closed again behind the leg: now it must open first.
  d.sequence.down.push_back(step("door", Action::close, 8));
  CHECK(only(d, true).shut);
  // Opened going up and left so, and never touched going down.
  d.sequence.up = {step("door", Action::open, 0), step("main", Action::raise, 2)};
  d.sequence.down = {step("main", Action::lower, 0)};
  CHECK_FALSE(only(d, false).shut);
  CHECK_FALSE(only(d, true).shut);
  // The order of the lines is not the order in time.
  d.sequence.up = {step("door", Action::close, 9), step("door", Action::open, 0),
                   step("main", Action::raise, 2)};
  CHECK(only(d, false).shut);
}

TEST_CASE("times of a bar: nominal, and its spread") {
  Design d = one_door();
  d.sequence.down = {step("door", Action::open, 0.5), step("main", Action::lower, 3)};
  std::vector<Text> problems;
  const auto t = sequence::timeline(d, timed(d), d.sequence.down, problems);
  REQUIRE(t.bars.size() == 2);
  CHECK(t.bars[0].nominal_end == Approx(2.5));
  CHECK(t.bars[0].earliest_end == Approx(0.5 + 1.8));
  CHECK(t.bars[0].latest_end == Approx(0.5 + 2.4));
  CHECK(t.bars[1].nominal_end == Approx(6));
  CHECK(t.latest_end == Approx(3 + 3.75));
  CHECK(t.nominal_end == Approx(6));
  CHECK(sequence::position_at(t, "main", 4.5, 1) == Approx(0.5));
  CHECK(sequence::position_at(t, "door", 1.5, 0) == Approx(0.5));
  CHECK(sequence::position_at(t, "main", 2, 1) == 1);
  CHECK(sequence::position_at(t, "main", 9, 1) == 0);
}

TEST_CASE("what a sequence lacks is named") {
  Design d = one_door();
  d.sequence.up = {step("door", Action::open, 0), step("main", Action::raise, 1)};
  const auto named = [&](const std::string& word) {
    std::vector<Text> problems;
    sequence::timeline(d, timed(d), d.sequence.up, problems);
    sequence::check_doors(d, timed(d), true, problems, {});
    return std::any_of(problems.begin(), problems.end(), [&](const Text& p) { return says(p, word); });
  };
  for (Given Door::*number : {&Door::time_open, &Door::time_close, &Door::slowest, &Door::fastest}) {
    const Given was = d.doors[0].*number;
    d.doors[0].*number = Given();
    CHECK(named("times of the door"));
    d.doors[0].*number = was;
  }
  CHECK_FALSE(named("door"));
  d.doors[0].zone_enter = Given();
  CHECK(named("where the leg needs the door"));
  d = one_door();
  d.sequence.up = {step("door", Action::open, 0), step("main", Action::raise, 1)};
  d.doors[0].fastest = Given();
  CHECK(named("times of the door"));
  d.doors[0].fastest = Given(0.9);
  d.gear.legs[0].retraction.time_up = Given();
  CHECK(named("times of the"));
  d.gear.legs[0].retraction.fitted = false;
  CHECK(named("does not retract"));
}

TEST_CASE(
    "of what is entered and what a drive computes the wider counts, a guess gives way, a measured time is "
    "planned with") {
  constexpr double nan = std::numeric_limits<double>::quiet_NaN();
  Leg leg = one_door().gear.legs[0];  // up 4 s, 0.8 to 1.25 times
  Retraction& r = leg.retraction;
  const sequence::Travel computed{3, 0.9, 1.8};
  auto way = sequence::way_counted(leg, true, computed);
  CHECK(way.entered == sequence::Travel{4, 0.8, 1.25});
  CHECK(way.computed == computed);
  CHECK(way.counted.nominal == 3);
  CHECK(way.counted.least() == Approx(2.7));
  CHECK(way.counted.most() == Approx(5.4));
  // Going down it is 3 s entered: the same computed, and the wider on both sides of it.
  way = sequence::way_counted(leg, false, {3, 0.95, 1.1});
  CHECK(way.counted.least() == Approx(2.4));
  CHECK(way.counted.most() == Approx(3.75));
  r.time_up.origin = Origin::measured;
  way = sequence::way_counted(leg, true, computed);
  CHECK(way.counted.nominal == 4);
  CHECK(way.counted.least() == Approx(2.7));
  CHECK(way.counted.most() == Approx(5.4));
  for (const Origin thought : {Origin::guessed, Origin::by_default, Origin::undecided}) {
    r.time_up.origin = thought;
    CHECK(sequence::way_counted(leg, true, {3, 0.9, 1.2}).counted.most() == Approx(3.6));
  }
  // Nothing entered, nothing computed, half of it.
  r.time_up = Given();
  CHECK(sequence::way_counted(leg, true, computed).counted.most() == Approx(5.4));
  CHECK_FALSE(sequence::way_counted(leg, true, {nan, nan, nan}).counted.known());
  CHECK(sequence::way_counted(leg, true, {3, nan, nan}).counted.most() == Approx(3 * 1.25));
  r.slowest = Given();
  CHECK_FALSE(sequence::way_counted(leg, true, {3, 0.9, nan}).counted.known());
  r.slowest = Given(1.25);
  r.time_up = Given(4);
  CHECK(sequence::way_counted(leg, true, {nan, nan, nan}).counted == way.entered);
  r.times_from = TimesFrom::entered;
  CHECK(sequence::way_counted(leg, true, computed).counted == way.entered);
}

namespace {

Aid aid(const char* id, AidKind kind, double takes) {
  Aid a;
  a.id = id;
  a.kind = kind;
  a.leg = "main";
  a.takes = Given(takes);
  a.slowest = Given(1.5);
  a.fastest = Given(0.5);
  return a;
}
const sequence::AidCheck* of_aid(const std::vector<sequence::AidCheck>& list, const std::string& id) {
  for (const auto& c : list)
    if (c.aid == id) return &c;
  return nullptr;
}

}  // namespace

TEST_CASE("steering, up-locks and brakes are done before their leg asks for it, or after it is at rest") {
  Design d = one_door();  // the leg: up 4 s, 3.2 to 5; down 3 s, 2.4 to 3.75
  d.sequence.aids = {aid("steer", AidKind::steering, 0.4), aid("hook", AidKind::up_lock, 0.6),
                     aid("brake", AidKind::brakes, 1.0)};
  d.sequence.up = {step("main", Action::raise, 1)};
  d.sequence.down = {step("main", Action::lower, 2)};
  const auto times = timed(d);
  auto up = sequence::check_aids(d, times, true);
  auto down = sequence::check_aids(d, times, false);
  CHECK(says(of_aid(up, "steer")->nobody, "takes its command away"));
  CHECK(of_aid(up, "hook") == nullptr);  // it closes by itself, and stands open
  CHECK(says(of_aid(up, "brake")->nobody, "stops the wheels"));
  CHECK(says(of_aid(down, "steer")->nobody, "gives it back"));
  CHECK(says(of_aid(down, "hook")->nobody, "opens it"));
  CHECK(of_aid(down, "brake") == nullptr);  // they were never held

  d.sequence.up.insert(d.sequence.up.end(),
                       {step("steer", Action::let_go, 0.1), step("hook", Action::hold, 6.5),
                        step("brake", Action::hold, 2.0)});
  d.sequence.down.insert(d.sequence.down.end(),
                         {step("steer", Action::hold, 5.5), step("hook", Action::let_go, 1.5)});
  up = sequence::check_aids(d, times, true);
  down = sequence::check_aids(d, times, false);
  CHECK(of_aid(up, "steer")->in_hand == Approx(1 - (0.1 + 0.6)));
  CHECK(of_aid(up, "hook")->in_hand == Approx(6.5 - (1 + 5)));
  CHECK(of_aid(up, "brake")->in_hand == Approx(1 + 3.2 - (2 + 1.5)));
  CHECK(of_aid(down, "steer")->in_hand == Approx(5.5 - (2 + 3.75)));
  CHECK(of_aid(down, "hook")->in_hand == Approx(2 - (1.5 + 0.9)));
  CHECK(says(of_aid(down, "brake")->nobody, "braked"));
  d.sequence.down.push_back(step("brake", Action::let_go, 0));
  CHECK(of_aid(sequence::check_aids(d, times, false), "brake")->in_hand == Approx(2 + 2.4 - 1.5));
  // Opened and shut again while the leg hangs: shut when it comes back.
  d.sequence.down.push_back(step("hook", Action::hold, 4.0));
  CHECK(says(of_aid(sequence::check_aids(d, times, true), "hook")->nobody, "shut when the leg arrives"));
}

TEST_CASE("an aid set in time holds with what is wanted in hand, whatever its leg and the plan are") {
  std::mt19937 random(20);
  const auto between = [&](double low, double high) {
    return std::uniform_real_distribution<double>(low, high)(random);
  };
  for (int n = 0; n < 200; ++n) {
    Design d = one_door();
    Retraction& r = d.gear.legs[0].retraction;
    r.time_up = Given(between(0.5, 9));
    r.time_down = Given(between(0.5, 9));
    r.slowest = Given(between(1, 2));
    r.fastest = Given(between(0.5, 1));
    d.sequence.margin = Given(between(0, 1));
    d.sequence.up = {step("door", Action::open, 0), step("main", Action::raise, between(0, 3))};
    d.sequence.down = {step("main", Action::lower, between(0, 3))};
    const auto kind = static_cast<AidKind>(n % 3);
    d.sequence.aids = {aid("aid", kind, between(0.1, 4))};
    if (kind == AidKind::up_lock && n % 2) d.sequence.up.push_back(step("aid", Action::hold, 0));
    const Assessment before = assess(d);
    const bool door_held = std::none_of(before.findings.begin(), before.findings.end(), [](const Finding& f) {
      return f.measure_id == "sequence.leg_wait" && f.verdict == Verdict::fails;
    });
    d.sequence = sequence::aid_in_time(d, timed(d), "aid");
    INFO(n << " of kind " << static_cast<int>(kind));
    const Assessment after = assess(d);
    for (const Finding& f : after.findings) {
      if (f.measure_id == "sequence.aid") CHECK(f.verdict == Verdict::holds);
      // All else goes later together: what held between leg and door still does.
      if (f.measure_id == "sequence.leg_wait" && door_held) CHECK(f.verdict != Verdict::fails);
    }
    CHECK(sequence::aid_in_time(d, timed(d), "aid") == d.sequence);
    CHECK(inconsistencies(d).empty());
  }
}

TEST_CASE("steering that nobody takes away fails and is cured by its steps; what goes with a leg goes") {
  Design d = demo("dunnock");
  Aid a = aid("nose-steering", AidKind::steering, 0.5);
  a.leg = "third";
  d.sequence.aids.push_back(a);
  const auto of_it = [](const Assessment& x, std::string_view key) -> const Finding* {
    for (const auto& f : x.findings)
      if (f.measure_id == "sequence.aid" && f.subject.key == key) return &f;
    return nullptr;
  };
  const Assessment before = assess(d);
  const Finding* f = of_it(before, "aid:nose-steering/up");
  REQUIRE(f);
  CHECK(f->verdict == Verdict::fails);
  const auto cures = cures_for(d, before, *f, {6, &shipped_stock()});
  REQUIRE_FALSE(cures.empty());
  const Design cured = cures[0].applied(d);
  const Assessment after = assess(cured);
  CHECK(of_it(after, "aid:nose-steering/up")->verdict == Verdict::holds);
  CHECK(of_it(after, "aid:nose-steering/down")->verdict == Verdict::holds);
  CHECK(read_project(write_project(cured)).design == cured);
  // Laid out anew it is in the plan, in the table that is handed on as well.
  std::vector<Text> problems;
  Design laid = d;
  laid.sequence = sequence::laid_out(d, after.times, zones_of(after), problems);
  CHECK(of_it(assess(laid), "aid:nose-steering/down")->verdict == Verdict::holds);
  const auto plan = sequence::plan_of(laid, after.times, problems);
  CHECK(sequence_csv(laid, plan).find("lets go") != std::string::npos);
  // Unknown times are no hold, and are named with their entry.
  Design open = cured;
  open.sequence.aids[0].takes = Given();
  const Assessment unknown = assess(open);
  const Finding* lacks = of_it(unknown, "aid:nose-steering/up");
  REQUIRE(lacks);
  CHECK(lacks->verdict == Verdict::unknown);
  CHECK_FALSE(paths_in(lacks->remark).empty());
  Design without = cured;
  std::erase_if(without.gear.legs, [](const Leg& l) { return l.id == "third"; });
  follow(cured, without);
  CHECK(without.sequence.aids.empty());
  for (const auto& s : without.sequence.up) CHECK(s.actor != "nose-steering");
}
