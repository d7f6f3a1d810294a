// SPDX-License-Identifier: GPL-3.0-or-later
//! The plan of a sequence handed on: laid out with the least waits, as a table, played and answered.
#include "core/sequence/plan.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>
#include <random>

#include "core/assess/doors_state.h"
#include "core/io/csv.h"
#include "core/io/sequence_table.h"
#include "core/model/locate.h"
#include "core/sequence/boxes.h"
#include "core/shop/sheets.h"
#include "demo.h"
#include "timed.h"

using namespace kranich;
using sequence::plan_of;

namespace {

sequence::Plan planned(const Design& d) {
  std::vector<Text> problems;
  auto plan = plan_of(d, timed(d), problems);
  CHECK(problems.empty());
  return plan;
}

//! Plays a way with each actor slower by a factor, and tells every twentieth of a second.
std::vector<sequence::Answer> played(const sequence::Plan& plan, bool up,
                                     const std::map<int, double>& slow = {}) {
  sequence::Player p;
  const auto actors = sequence::numbered_actors(plan);
  for (const BenchLine& l : sequencer_lines(plan))
    if (l.word == "STEP")
      p.add({*l.field("way") > 0.5, static_cast<int>(*l.field("actor")), *l.field("start"), *l.field("time"),
             *l.field("to")});
  for (const auto& [actor, factor] : slow) p.slow(actor, factor);
  p.play(up);
  std::vector<sequence::Answer> answers{{0, p.positions()}};
  while (p.playing() && p.time() < 600) {
    p.advance(0.02);
    answers.push_back({p.time(), p.positions()});
  }
  CHECK_FALSE(p.playing());
  answers.push_back(answers.back());  // nothing moves any more
  return answers;
}

}  // namespace

TEST_CASE("laid out anew, every leg waits for its doors and every door for the slowest leg, and no longer") {
  for (const char* name : {"redshank", "dunnock"}) {
    Design d = demo(name);
    d.sequence.margin = Given(0.3);
    const auto zones = zones_of(assess(d));
    std::vector<Text> problems;
    d.sequence = sequence::laid_out(d, timed(d), zones, problems);
    INFO(name);
    CHECK(problems.empty());
    for (const bool up : {true, false}) {
      const auto checks = sequence::check_doors(d, timed(d), up, problems, zones);
      for (const auto& c : checks) {
        INFO(c.door << (up ? " up" : " down"));
        CHECK_FALSE(c.touches);
        CHECK_FALSE(c.shut);
        // One that stands open already asks for no wait.
        const auto& steps = up ? d.sequence.up : d.sequence.down;
        const bool opens = std::any_of(steps.begin(), steps.end(), [&](const Step& x) {
          return x.actor == c.door && x.action == Action::open;
        });
        CHECK(c.wait_in_hand >= (opens ? 0.33 - 1e-9 : 0));
        if (std::isfinite(c.close_start)) {
          CHECK(c.close_in_hand >= 0.33 - 1e-9);
          CHECK(c.close_in_hand < 0.38 + 1e-9);
        }
      }
      // Of the doors that a leg waits for one is the reason: none is waited for longer than a twentieth more.
      for (const Leg& leg : d.gear.legs) {
        double least = std::numeric_limits<double>::infinity();
        for (const auto& c : checks) {
          const auto door =
              std::find_if(d.doors.begin(), d.doors.end(), [&](const Door& x) { return x.id == c.door; });
          if (door->leg == leg.id && c.leg_start > 0) least = std::min(least, c.wait_in_hand);
        }
        if (std::isfinite(least)) CHECK(least < 0.38 + 1e-9);
      }
    }
    // Nothing that no step closes below the leg has to open first.
    for (const Door& door : d.doors) {
      const auto has = [&](const std::vector<Step>& steps, Action action) {
        return std::any_of(steps.begin(), steps.end(),
                           [&](const Step& s) { return s.actor == door.id && s.action == action; });
      };
      CHECK(has(d.sequence.up, Action::open) == has(d.sequence.down, Action::close));
    }
  }
}

TEST_CASE("a door that shuts again below its leg opens first, both ways") {
  Design d = demo("redshank");
  REQUIRE_FALSE(d.doors.empty());
  Step s;
  s.actor = d.doors[0].id;
  s.action = Action::close;
  s.start = Given(20.0);
  d.sequence.down.push_back(s);
  std::vector<Text> problems;
  const auto made = sequence::laid_out(d, timed(d), zones_of(assess(d)), problems);
  const auto find = [&](const std::vector<Step>& steps, const std::string& actor, Action action) {
    const auto at = std::find_if(steps.begin(), steps.end(),
                                 [&](const Step& x) { return x.actor == actor && x.action == action; });
    return at == steps.end() ? std::nan("") : at->start.si;
  };
  CHECK(find(made.up, s.actor, Action::open) == 0);
  CHECK(find(made.up, d.doors[0].leg, Action::raise) > 0);
  CHECK(find(made.up, s.actor, Action::close) > find(made.up, d.doors[0].leg, Action::raise));
  CHECK(find(made.down, s.actor, Action::close) > find(made.down, d.doors[0].leg, Action::lower));
}

TEST_CASE("what lacks a time is named, and it and its leg stay as they were") {
  Design d = demo("redshank");
  d.doors[0].time_open = Given();
  std::vector<Text> problems;
  const auto made = sequence::laid_out(d, timed(d), {}, problems);
  REQUIRE_FALSE(problems.empty());
  CHECK(in_words(problems[0]).find(d.doors[0].name) != std::string::npos);
  // The same steps of that door and of the leg it guards, no more and no fewer, both ways.
  const auto theirs = [&](const std::vector<Step>& steps) {
    std::vector<Step> list;
    for (const Step& s : steps)
      if (s.actor == d.doors[0].id || s.actor == d.doors[0].leg) list.push_back(s);
    std::sort(list.begin(), list.end(), [](const Step& a, const Step& b) {
      return std::pair(a.actor, a.start.si) < std::pair(b.actor, b.start.si);
    });
    return list;
  };
  REQUIRE_FALSE(theirs(d.sequence.up).empty());
  CHECK(theirs(made.up) == theirs(d.sequence.up));
  CHECK(theirs(made.down) == theirs(d.sequence.down));
  // Where there were none there are none: nothing is made up.
  d.sequence.up.clear();
  d.sequence.down.clear();
  problems.clear();
  CHECK(theirs(sequence::laid_out(d, timed(d), {}, problems).up).empty());
}

TEST_CASE("the exported table says what the plan says") {
  Design d = demo("redshank");
  d.sequence.boxes.push_back({});
  d.sequence.boxes[0].id = "A";
  d.sequence.boxes[0].name = "box, \"eight\"";
  BoxOutput o;
  o.box = "A";
  o.number = Given(3.0);
  o.actor = d.sequence.up[0].actor;
  o.reversed = true;
  d.sequence.outputs.push_back(o);
  const auto plan = planned(d);
  CHECK(plan.up.size() == d.sequence.up.size());
  CHECK(plan.down.size() == d.sequence.down.size());
  const auto parsed = parse_csv(sequence_csv(d, plan));
  const auto& rows = std::get<std::vector<CsvRow>>(parsed);
  REQUIRE(rows.size() == 1 + plan.up.size() + plan.down.size());
  const auto json = nlohmann::json::parse(sequence_json(d, plan));
  CHECK(json["kranich_sequence"] == 1);
  double before = 0;
  for (size_t i = 0; i < plan.up.size(); ++i) {
    const auto& m = plan.up[i];
    const auto& row = rows[i + 1];
    CHECK(row[0] == "up");
    CHECK(row[2] == m.actor);
    CHECK(std::stod(row[5]) == Approx(m.start).margin(5e-4));
    CHECK(std::stod(row[6]) == Approx(m.duration).margin(5e-4));
    CHECK(json["up"][i]["start_s"] == std::stod(row[5]));
    CHECK(json["up"][i]["actor"] == m.actor);
    CHECK(m.start >= before);
    before = m.start;
    if (m.actor == o.actor) {
      CHECK(row[1] == "A3");
      CHECK(row[9] == "reversed");
      CHECK(json["up"][i]["reversed"] == true);
    } else {
      CHECK(row[1].empty());
      CHECK(row[9] == "normal");
    }
  }
  const auto wiring = parse_csv(wiring_csv(d));
  const auto& list = std::get<std::vector<CsvRow>>(wiring);
  // The box's own line, the one output, and everybody who hangs on none.
  REQUIRE(list.size() == 3 + sequence::on_no_box(d).size());
  CHECK(list[1][2] == "selector");
  CHECK(list[1][4].find("box, \"eight\"") == 0);
  CHECK(list[2][1] == "3");
  CHECK(list[2][3] == "with a reverser");
  CHECK(list[3][4] == "on no box");
}

TEST_CASE("a door meant to stay ajar ends there, going down only") {
  Design d = demo("redshank");
  Door& door = d.doors[0];
  door.ajar = Given(0.25 * door.open_angle);
  Step s;
  s.actor = door.id;
  s.action = Action::close;
  s.start = Given(20.0);
  d.sequence.down.push_back(s);
  const auto plan = planned(d);
  for (const bool up : {true, false})
    for (const auto& m : up ? plan.up : plan.down)
      if (m.actor == door.id && m.action == Action::close) CHECK(m.ends_at == Approx(up ? 0 : 0.25));
}

TEST_CASE("played as planned nothing is late; the actor that is slow is named, and only it") {
  const Design d = demo("redshank");
  const auto plan = planned(d);
  const auto actors = sequence::numbered_actors(plan);
  for (const bool up : {true, false}) {
    const auto answers = played(plan, up);
    CHECK(sequence::against_plan(d, plan, up, answers).empty());
    // Where the plan has each of them, the player has it.
    std::vector<Text> problems;
    const auto line = sequence::timeline(d, timed(d), up ? d.sequence.up : d.sequence.down, problems);
    for (const auto& a : answers)
      for (const auto& [actor, position] : a.at) {
        const auto& id = actors[static_cast<size_t>(actor)];
        CHECK(position == Approx(sequence::position_at(line, id, a.t, answers[0].at.at(actor))).margin(1e-9));
      }
    for (size_t i = 0; i < actors.size(); ++i) {
      const auto late = sequence::against_plan(d, plan, up, played(plan, up, {{static_cast<int>(i), 2.5}}));
      const auto& moves = up ? plan.up : plan.down;
      const bool moved =
          std::any_of(moves.begin(), moves.end(), [&](const auto& m) { return m.actor == actors[i]; });
      CHECK(late.empty() != moved);
      for (const Text& t : late) CHECK(in_words(t).find(in_words(d.actor_word(actors[i]))) == 0);
    }
  }
}

TEST_CASE("what does not move, or not to its end, is said") {
  const Design d = demo("redshank");
  const auto plan = planned(d);
  const auto answers = played(plan, true);
  const auto actors = sequence::numbered_actors(plan);
  const int number =
      static_cast<int>(std::find(actors.begin(), actors.end(), plan.up[0].actor) - actors.begin());
  auto still = answers;
  for (auto& a : still) a.at[number] = still[0].at[number];
  auto said = sequence::against_plan(d, plan, true, still);
  REQUIRE_FALSE(said.empty());
  CHECK(in_words(said[0]).find("did not move") != std::string::npos);
  auto jammed = answers;
  for (auto& a : jammed) {
    const double from = jammed[0].at[number];
    a.at[number] = std::clamp(a.at[number], from - 0.6, from + 0.6);
  }
  said = sequence::against_plan(d, plan, true, jammed);
  REQUIRE_FALSE(said.empty());
  CHECK(in_words(said[0]).find("did not get there") != std::string::npos);
}

TEST_CASE("movements are found in answers by their starts and ends") {
  using sequence::Answer;
  // Out from 1 to 3 s, back from 5 s on and still moving; another that stands.
  std::vector<Answer> answers;
  for (int i = 0; i <= 60; ++i) {
    const double t = i * 0.1;
    const double at = t <= 1 ? 0 : t <= 3 ? (t - 1) / 2 : t <= 5 ? 1 : 1 - (t - 5) / 4;
    answers.push_back({t, {{0, at}, {1, 0.5}}});
  }
  const auto found = sequence::moves_in(answers);
  REQUIRE(found.size() == 2);
  CHECK(found[0].starts == Approx(1).margin(0.11));
  CHECK(found[0].ends == Approx(3).margin(0.11));
  CHECK(found[0].to == Approx(1));
  CHECK(found[1].starts == Approx(5).margin(0.11));
  CHECK(std::isnan(found[1].ends));
  CHECK(sequence::moves_in({}).empty());
}

TEST_CASE("a sequencer stopped in mid-way goes on from where it stands, and forgets what it is told to") {
  sequence::Player p;
  p.add({true, 0, 1, 2, 1});
  p.add({false, 0, 0, 4, 0});
  p.slow(0, 2);
  p.play(true);
  p.advance(0.9);
  CHECK(p.positions().at(0) == 0);
  p.advance(2.1);  // two of the four seconds that it takes now
  CHECK(p.positions().at(0) == Approx(0.5));
  p.stop();
  p.advance(5);
  CHECK(p.positions().at(0) == Approx(0.5));
  p.play(false);
  p.advance(2);
  CHECK(p.positions().at(0) == Approx(0.25));
  p.advance(2);
  CHECK(p.positions().at(0) == Approx(0).margin(1e-12));
  CHECK_FALSE(p.playing());
  p.clear();
  CHECK(p.steps() == 0);
  p.play(true);
  CHECK(p.positions().empty());
}

TEST_CASE("the card has every movement of both ways, and is asked for where there are steps") {
  Design d = demo("redshank");
  const auto card_of = [](const Design& x) -> std::optional<shop::Sheet> {
    for (auto& s : shop::shop_sheets(x, assess(x), ""))
      if (s.id == "sequence") return s;
    return std::nullopt;
  };
  const auto card = card_of(d);
  REQUIRE(card);
  REQUIRE(card->ready());
  std::string all;
  for (const auto& t : std::get<shop::Drawing>(card->drawing).texts) all += t.text + "\n";
  for (const auto& m : planned(d).up) CHECK(all.find(in_words(d.actor_word(m.actor))) != std::string::npos);
  CHECK(all.find("Going up") != std::string::npos);
  CHECK(all.find("Going down") != std::string::npos);
  d.sequence.up.clear();
  d.sequence.down.clear();
  CHECK_FALSE(card_of(d));
}
