// SPDX-License-Identifier: GPL-3.0-or-later
//! The steps of the work: the table, conditions, gates, readings, what opens a step again, the ladder, the
//! Book.
#include <fmt/format.h>
#include <unistd.h>

#include <catch2/catch.hpp>
#include <filesystem>
#include <fstream>
#include <random>
#include <set>

#include "core/assess/loading_state.h"
#include "core/io/book_file.h"
#include "core/model/locate.h"
#include "core/model/moves.h"
#include "core/tasks/figures.h"
#include "core/tasks/record.h"
#include "core/tasks/register.h"
#include "core/tasks/rows.h"
#include "core/tasks/trials.h"
#include "core/tasks/words.h"
#include "demo.h"

using namespace kranich;
using tasks::Compared;
using tasks::Entry;
using tasks::Mark;
using tasks::State;
using tasks::Truth;

namespace {

using Lines = std::vector<std::pair<std::string, tasks::TaskLine>>;

tasks::TaskLine line(std::initializer_list<std::pair<std::string, std::string>> cells) {
  tasks::TaskLine l{{"stage", "make"}, {"when", "any"}, {"text", "Do it."}};
  for (const auto& [column, text] : cells) l[column] = text;
  return l;
}
Lines lines(std::initializer_list<tasks::TaskLine> list) {
  Lines all;
  for (const auto& l : list) all.emplace_back("line " + std::to_string(all.size() + 2), l);
  return all;
}

//! A design with its Book, worked at day by day.
struct Shop {
  Design design;
  Assessment assessment = assess(design);
  tasks::TaskTable table;
  tasks::Book book;
  std::string today = "2026-05-01";
  int second = 0;

  Shop(Design d, const Lines& own_lines) : design(std::move(d)), table(tasks::table_of(own_lines, {})) {
    for (const auto& p : table.problems) FAIL_CHECK(p);
  }
  explicit Shop(Design d) : design(std::move(d)), table(task_table(design)) {}

  tasks::Look look() const {
    return {design, assessment, assessment.loadings.empty() ? "" : assessment.loadings[0].name};
  }
  tasks::Progress progress() const {
    history_.emplace(book);
    look_.emplace(look());
    return tasks::progress_of(table, *look_, *history_, today);
  }
  State state(const std::string& task, const std::string& piece = "") const {
    const auto p = progress();
    const auto* box = p.find(task, piece);
    INFO(task << "|" << piece);
    REQUIRE(box);
    return box->state;
  }
  const std::vector<Text> changed(const std::string& task, const std::string& piece = "") const {
    const auto p = progress();
    return p.find(task, piece)->changed;
  }
  void change(const std::function<void(Design&)>& by) {
    by(design);
    assessment = assess(design);
  }
  Entry begun(Mark mark) {
    Entry e;
    e.id = "e" + std::to_string(book.entries.size());
    ++second;
    e.at = today + fmt::format("T12:{:02}:{:02}", second / 60, second % 60);
    e.mark = mark;
    return e;
  }
  //! Ticks as the window does: compared, filled into the design, noted.
  const Entry& tick(const std::string& id, const std::string& piece = "",
                    std::vector<std::pair<std::string, double>> numbers = {}, Mark mark = Mark::done,
                    std::vector<std::pair<std::string, std::string>> texts = {}) {
    const tasks::Task* task = table.find(id);
    REQUIRE(task);
    const tasks::Piece on = piece_of(*task, piece);
    Entry e = begun(mark);
    e.task = id;
    e.piece = piece;
    for (const auto& [name, value] : numbers) {
      tasks::Read r;
      r.name = name;
      r.value = value;
      e.readings.push_back(r);
    }
    for (const auto& [name, text] : texts) {
      tasks::Read r;
      r.name = name;
      r.text = text;
      e.readings.push_back(r);
    }
    const tasks::History history(book);
    tasks::compare_readings(look(), history, *task, on, e);
    told = tasks::fill_design(design, *task, on, e);
    assessment = assess(design);
    tasks::finish_entry(look(), *task, on, e);
    book.entries.push_back(e);
    return book.entries.back();
  }
  void happens(const std::string& event, const std::string& piece = "", const std::string& what = "",
               int count = 0, std::string_view in = tasks::ordinary_landing) {
    Entry e = begun(Mark::event);
    e.event = event;
    e.piece = piece;
    e.what = what;
    e.count = count;
    if (event == "failure") e.from = in;
    book.entries.push_back(e);
  }
  tasks::Piece piece_of(const tasks::Task& task, const std::string& key) const {
    for (const auto& p : tasks::pieces_of(design, task.per))
      if (p.key == key) return p;
    FAIL("no piece " << key);
    return {};
  }
  std::vector<Text> told;

 private:
  mutable std::optional<tasks::History> history_;
  mutable std::optional<tasks::Look> look_;
};

std::string words(const std::vector<Text>& texts) {
  std::string all;
  for (const auto& t : texts) all += in_words(t) + "; ";
  return all;
}

}  // namespace

TEST_CASE("The shipped table is read whole and every path in it leads somewhere", "[work]") {
  const auto table = task_table(Design{});
  CHECK(table.problems.empty());
  CHECK(table.tasks.size() == shipped_task_lines().size());
  CHECK(table.tasks.size() >= 184);
  // In one of the demonstrations every path of a prediction, a text or a reading's home is a member.
  std::vector<Design> demos;
  for (const std::string& name : demo_names()) demos.push_back(demo(name));
  const auto known = [&](const tasks::Task& task, const std::string& path) {
    for (Design& d : demos)
      for (const auto& piece : tasks::pieces_of(d, task.per)) {
        const auto at = tasks::path_for(d, piece, path);
        if (at && (given_at(d, *at) || text_at(d, *at) || flag_at(d, *at) || choice_at(d, *at) ||
                   list_size_at(d, *at)))
          return true;
      }
    return path == "/plies/*/laid" || path.starts_with("/stance/readings/");  // lists of their own kind
  };
  int paths = 0;
  for (const auto& task : table.tasks) {
    for (const auto& r : task.readings) {
      std::vector<std::string> asked;
      if (!r.sets.empty()) asked.push_back(r.sets);
      for (const auto& term : r.predicted.sum)
        if (term.sort == tasks::Term::Sort::path) asked.push_back(term.name);
      for (const auto& path : asked) {
        INFO(task.id << " " << path);
        CHECK(known(task, path));
        ++paths;
      }
    }
    // Its steps are shown where there is a page for them.
    const std::string_view home = tasks::station_of_stage(task.stage);
    INFO(task.stage << " at " << home);
    bool is = false;
    for (int i = 0; i < station_count; ++i) is = is || station_id(static_cast<Station>(i)) == home;
    CHECK(is);
  }
  CHECK(paths > 60);
  // Nobody needs to look for a step's home.
  for (const auto& task : table.tasks)
    for (size_t at = 0; (at = task.text.find("{/", at)) != std::string::npos; ++at) {
      const auto path = task.text.substr(at + 1, task.text.find('}', at) - at - 1);
      INFO(task.id << " " << path);
      CHECK(known(task, path));
    }
}

TEST_CASE("Conditions are three-valued", "[work]") {
  const auto truth = [](const Design& d, const char* text) {
    const Assessment a = assess(d);
    const auto read = tasks::Condition::read(text);
    INFO(text);
    REQUIRE(std::holds_alternative<tasks::Condition>(read));
    return std::get<tasks::Condition>(read).of(tasks::Facts(d, a));
  };
  using enum Truth;
  CHECK(tasks::both(yes, unknown) == unknown);
  CHECK(tasks::both(no, unknown) == no);
  CHECK(tasks::either(yes, unknown) == yes);
  CHECK(tasks::either(no, unknown) == unknown);
  CHECK(tasks::opposite(unknown) == unknown);
  Design blank;
  CHECK(truth(blank, "retracts") == unknown);
  CHECK(truth(blank, "retracts and model") == no);
  CHECK(truth(blank, "full-size or retracts") == yes);
  CHECK(truth(blank, "not (retracts or model)") == unknown);
  const Design dunnock = demo("dunnock");
  for (const char* is : {"full-size", "wing", "tricycle", "brakes", "sprung", "retracts", "third-retracts",
                         "doors", "hydraulic"}) {
    INFO(is);
    CHECK(truth(dunnock, is) == yes);
  }
  for (const char* is_not :
       {"model", "fixed", "tailwheel", "skid", "servo", "air", "bent-wire", "carbon-bow", "takes-set"}) {
    INFO(is_not);
    CHECK(truth(dunnock, is_not) == no);
  }
  // An answer "there is none" settles what a list that is empty leaves open.
  Design d = dunnock;
  d.doors.clear();
  CHECK(truth(d, "doors") == unknown);
  d.without.emplace_back();
  d.without.back().question = "doors";
  CHECK(truth(d, "doors") == no);
  // The drive of one leg of two is known: it decides only what it can.
  d.gear.legs[0].retraction.drive.kind = DriveKind::none;
  CHECK(truth(d, "hydraulic") == yes);
  CHECK(truth(d, "servo") == unknown);
  // What each word asks is a question that exists.
  for (const auto& word : tasks::all_words())
    if (!word.question.empty()) CHECK_NOTHROW(tasks::question(word.question));
  for (const char* wrong :
       {"", "tricyle", "retracts and", "(retracts", "retracts)", "not", "retracts model"}) {
    INFO(wrong);
    CHECK(std::holds_alternative<std::string>(tasks::Condition::read(wrong)));
  }
  CHECK(std::get<std::string>(tasks::Condition::read("tricyle")).find("tricyle") != std::string::npos);
  CHECK(std::holds_alternative<std::string>(tasks::Condition::read(std::string(200, '(') + "any")));
}

TEST_CASE("One question stands in the place of the steps that hang on it", "[work]") {
  Shop shop(demo("dunnock"), lines({line({{"id", "make.a"}, {"when", "servo"}}),
                                    line({{"id", "make.b"}, {"when", "hydraulic"}}),
                                    line({{"id", "make.c"}, {"when", "fixed"}})}));
  CHECK(shop.progress().questions.empty());
  CHECK(shop.progress().boxes.size() == 1);
  CHECK(shop.progress().not_applying.size() == 2);
  shop.change([](Design& d) {
    for (Leg& leg : d.gear.legs) leg.retraction.drive.kind = DriveKind::none;
  });
  const auto p = shop.progress();
  REQUIRE(p.questions.size() == 1);
  CHECK(p.questions[0].question->key == "drive");
  CHECK(p.questions[0].tasks == 2);
  CHECK(p.boxes.empty());
}

TEST_CASE("A bad line is named and left out, the rest works", "[work]") {
  const auto of = [](std::initializer_list<tasks::TaskLine> list, const Lines& own = {}) {
    return tasks::table_of(lines(list), own);
  };
  const struct {
    const char *column, *cell, *says;
  } bad[]{{"id", "nodot", "id"},
          {"stage", "sleep", "stage"},
          {"when", "moonlit", "moonlit"},
          {"per", "moon", "per"},
          {"text", "", "text"},
          {"text", "needs {no.such}", "no.such"},
          {"text", "[open", "brackets"},
          {"hazard", "dragons", "dragons"},
          {"gate", "make.nothing", "make.nothing"},
          {"gate", "stage:sleep", "sleep"},
          {"gate", "holds:no.measure", "no.measure"},
          {"rung", "9", "rung"},
          {"reopens", "weather", "weather"},
          {"repeat", "each moon", "each moon"},
          {"choice", "no sides", "choice"}};
  for (const auto& b : bad) {
    const auto table = of({line({{"id", "make.good"}}), line({{"id", "make.bad"}, {b.column, b.cell}})});
    INFO(b.column << "=" << b.cell);
    CHECK(table.tasks.size() == 1);
    REQUIRE(table.problems.size() == 1);
    CHECK(table.problems[0].find("line 3") == 0);
    CHECK(table.problems[0].find(b.says) != std::string::npos);
  }
  for (const auto& [unit, predicted, tolerance] : {std::tuple{"ell", "-", "-"},
                                                   {"m", "no.figure", "-"},
                                                   {"m", "-", "5 mm"},
                                                   {"m", "-", "± 5 kg"},
                                                   {"m", "make.bad#3", "-"}}) {
    const auto table = of({line({{"id", "make.bad"},
                                 {"reading", "x"},
                                 {"unit", unit},
                                 {"predicted", predicted},
                                 {"tolerance", tolerance}})});
    INFO(unit << predicted << tolerance);
    CHECK(table.tasks.empty());
    CHECK(table.problems.size() == 1);
  }
  // A gate that stands behind it; what hangs on a line left out goes too, each named.
  const auto behind = of({line({{"id", "make.a"}, {"gate", "make.b"}}), line({{"id", "make.b"}}),
                          line({{"id", "make.c"}, {"gate", "make.a"}})});
  CHECK(behind.tasks.size() == 1);
  CHECK(behind.problems.size() == 2);
  CHECK(behind.problems[0].find("stands behind it") != std::string::npos);
  // A ring: all shown, the ring named.
  const auto ring =
      of({line({{"id", "make.a"}, {"gate", "make.b"}}), line({{"id", "make.b"}, {"gate", "make.a"}})});
  CHECK(ring.tasks.size() == 2);
  REQUIRE(ring.problems.size() == 1);
  CHECK(ring.problems[0].find("make.a, make.b") != std::string::npos);
  // A builder's own: behind the step named first in its gate, at its stage's end, in place of a shipped one.
  const auto own =
      of({line({{"id", "make.a"}}), line({{"id", "make.b"}}), line({{"id", "mount.x"}, {"stage", "mount"}})},
         lines({line({{"id", "my.one"}, {"gate", "make.a"}}), line({{"id", "my.two"}}),
                line({{"id", "make.b"}, {"text", "Mine."}}), line({{"id", "other.id"}})}));
  std::vector<std::string> order;
  for (const auto& t : own.tasks) order.push_back(t.id);
  CHECK(order == std::vector<std::string>{"make.a", "my.one", "make.b", "my.two", "mount.x"});
  CHECK(own.find("make.b")->text == "Mine.");
  CHECK(own.problems.size() == 1);
}

TEST_CASE("Gates: waits, tried with a reason, done by itself when they are", "[work]") {
  Shop shop(
      demo("dunnock"),
      lines(
          {line({{"id", "make.first"}}), line({{"id", "make.second"}, {"gate", "make.first"}}),
           line({{"id", "make.third"}, {"gate", "make.second"}}),
           line({{"id", "mount.held"}, {"stage", "mount"}, {"gate", "stage:make; holds:swing.clearance"}})}));
  CHECK(shop.state("make.first") == State::open);
  CHECK(shop.state("make.second") == State::waits);
  shop.tick("make.second", "", {}, Mark::tried);
  CHECK(shop.state("make.second") == State::tried);
  CHECK(shop.state("make.third") == State::waits);  // tried is no proof for what stands on it
  shop.tick("make.first");
  CHECK(shop.state("make.second") == State::done);
  CHECK(shop.state("make.third") == State::open);
  Entry aside = shop.begun(Mark::aside);
  aside.task = "make.third";
  aside.reason = "mounts are my own";
  shop.book.entries.push_back(aside);
  CHECK(shop.state("make.third") == State::aside);
  // A stage is done; the measure fails on this aircraft's nose leg, and is named with its figure.
  const auto p = shop.progress();
  const auto& gates = p.find("mount.held", "")->gates;
  REQUIRE(gates.size() == 1);
  CHECK(gates[0].measure == "swing.clearance");
  CHECK(in_words(gates[0].words).find("fails, −10") != std::string::npos);
  // Struck out, an entry counts no more.
  Entry out = shop.begun(Mark::struck);
  out.strikes = shop.book.entries[1].id;
  shop.book.entries.push_back(out);
  CHECK(shop.state("make.first") == State::open);
  CHECK(shop.state("make.second") == State::tried);
  // A step whose gate is unknown to apply waits for the answer.
  Shop other(demo("dunnock"), lines({line({{"id", "make.doors"}, {"when", "doors"}}),
                                     line({{"id", "make.next"}, {"gate", "make.doors"}})}));
  CHECK(other.state("make.next") == State::waits);
  other.change([](Design& d) { d.doors.clear(); });
  CHECK(other.state("make.next") == State::waits);
  other.change([](Design& d) {
    d.without.emplace_back();
    d.without.back().question = "doors";
  });
  CHECK(other.state("make.next") == State::open);  // what does not apply counts as passed
}

TEST_CASE("Readings are compared with what the design foretold, and fill it", "[work]") {
  Shop shop(demo("dunnock"));
  shop.change([](Design& d) {
    for (Leg& leg : d.gear.legs) leg.wheel.pressure = Given(2e5);
  });
  // A plain path, both ways.
  const double pressure = value_at(shop.design, "/gear/legs/main/wheel/pressure_Pa");
  CHECK(shop.tick("wheels.tube", "main/starboard:wheel", {{"pressure cold", pressure * 1.02}})
            .readings[0]
            .compared == Compared::within);
  CHECK(value_at(shop.design, "/gear/legs/main/wheel/pressure_Pa") == Approx(pressure * 1.02));
  CHECK(given_at(shop.design, "/gear/legs/main/wheel/pressure_Pa")->origin == Origin::measured);
  CHECK(shop.state("wheels.tube", "main/starboard:wheel") == State::done);
  // The other side reads otherwise: what both share is not overwritten.
  CHECK(
      shop.tick("wheels.tube", "main/port:wheel", {{"pressure cold", pressure * 1.5}}).readings[0].compared ==
      Compared::outside);
  CHECK(shop.state("wheels.tube", "main/port:wheel") == State::off);
  CHECK(value_at(shop.design, "/gear/legs/main/wheel/pressure_Pa") == Approx(pressure * 1.02));
  CHECK(words(shop.told).find("Take them apart") != std::string::npos);
  // Out of what a field may hold: refused by name, the entry stays in the Book.
  shop.tick("wheels.tube", "third:wheel", {{"pressure cold", -5}});
  CHECK(words(shop.told).find("must be") != std::string::npos);
  // Load and closure go to the spring's bench, foretold from the load that was read.
  const auto before = shop.design.spring_bench.readings.size();
  const double closes =
      tasks::find_figure("leg.closure")->value({shop.design, shop.assessment, "main", false, 1500, NAN, NAN});
  REQUIRE(closes > 0);
  const Entry& table = shop.tick("springs.table", "main:type", {{"load", 1500}, {"closure", closes * 1.05}});
  CHECK(table.readings[1].foretold == Approx(closes));
  CHECK(table.readings[1].compared == Compared::within);
  REQUIRE(shop.design.spring_bench.readings.size() == before + 1);
  CHECK(shop.design.spring_bench.readings.back().load.si == Approx(1500));
  CHECK(shop.design.spring_bench.readings.back().leg == "main");
  // Scales under each wheel; the measure's own limits judge.
  shop.design.weighing.scales.clear();
  shop.assessment = assess(shop.design);
  for (const auto& p : tasks::pieces_of(shop.design, tasks::Per::wheel)) {
    const auto placed = placed_legs(shop.design.gear);
    double load = 0;
    for (size_t i = 0; i < placed.size(); ++i)
      if (shop.design.gear.legs[placed[i].row].id == p.leg && placed[i].port == p.port)
        load = shop.assessment.loadings[0].rest->wheels[i].load / standard_gravity;
    shop.tick("stand.scales-full", p.key, {{"scales read", load}});
  }
  CHECK(shop.design.weighing.scales.size() == 3);
  // Yes and no.
  CHECK(shop.tick("wheels.retainer", "third:wheel", {{"end play", 0.0002}}, Mark::done, {{"tag off", "no"}})
            .readings[1]
            .compared == Compared::outside);
  CHECK(shop.tick("wheels.retainer", "third:wheel", {{"end play", 0.0005}}, Mark::done, {{"tag off", "yes"}})
            .readings[0]
            .compared == Compared::outside);
  CHECK(shop.tick("wheels.retainer", "third:wheel", {{"end play", 0.0003}}, Mark::done, {{"tag off", "yes"}})
            .readings[0]
            .compared == Compared::within);
  // The twin: nothing is foretold of the first side, of the second the first.
  CHECK(shop.tick("swing.free", "main/port", {{"force up", 40}, {"force down", 30}}).readings[0].compared ==
        Compared::unjudged);
  CHECK(shop.tick("swing.free", "main/starboard", {{"force up", 47}, {"force down", 30}})
            .readings[0]
            .compared == Compared::within);
  CHECK(shop.tick("swing.free", "main/starboard", {{"force up", 49}, {"force down", 30}})
            .readings[0]
            .compared == Compared::outside);
  // Without what would prove it a tick is none.
  CHECK(tasks::still_wanted(*shop.table.find("wheels.retainer"), Entry{}) ==
        std::vector<std::string>{"end play", "tag off"});
  // A reading with no prediction but a bound.
  CHECK(shop.tick("wheels.bush", "", {{"play at the wheel", 0.0009}, {"force to turn it", 10}})
            .readings[0]
            .compared == Compared::within);
  CHECK(shop.tick("wheels.bush", "", {{"play at the wheel", 0.0011}, {"force to turn it", 10}})
            .readings[0]
            .compared == Compared::outside);
}

TEST_CASE("What opens a ticked step again", "[work]") {
  Shop shop(demo("dunnock"));
  shop.tick("survey.load-path", "main/port", {}, Mark::done,
            {{"links in order", "tyre, axle, leg"}, {"the weakest", "pin"}});
  shop.tick("survey.load-path", "third", {}, Mark::done,
            {{"links in order", "tyre, axle, leg"}, {"the weakest", "pin"}});
  CHECK(shop.state("survey.load-path", "main/port") == State::done);
  // A word it rests on was touched: on its own leg.
  shop.change([](Design& d) { d.gear.main().axle_diameter = Given(0.031); });
  CHECK(shop.state("survey.load-path", "main/port") == State::again);
  CHECK(shop.state("survey.load-path", "third") == State::done);
  CHECK(words(shop.changed("survey.load-path", "main/port")).find("31\u00a0mm, was") != std::string::npos);
  // "It does not matter, because …" keeps the tick; a further change opens it again.
  shop.tick("survey.load-path", "main/port", {}, Mark::kept);
  CHECK(shop.state("survey.load-path", "main/port") == State::done);
  shop.change([](Design& d) { d.gear.main().axle_diameter = Given(0.032); });
  CHECK(shop.state("survey.load-path", "main/port") == State::again);
  // Put back as it was, nothing has changed.
  shop.change([](Design& d) { d.gear.main().axle_diameter = Given(0.031); });
  CHECK(shop.state("survey.load-path", "main/port") == State::done);
  // A number it was foretold by moves: further than the reading may be off, or not.
  const auto length =
      tasks::find_figure("leg.length")->value({shop.design, shop.assessment, "third", false, NAN, NAN, NAN});
  shop.tick("mount.governing", "third", {{"governing length", length}});
  CHECK(shop.state("mount.governing", "third") == State::done);
  // Mass by less than a per cent is no change; by more it is.
  const auto line_of_mass =
      lines({line({{"id", "make.mass"}, {"reopens", "mass"}}),
             line({{"id", "make.moved"}, {"reopens", "moved; part"}, {"repeat", "yearly; each session"}}),
             line({{"id", "make.foretold"},
                   {"per", "leg type"},
                   {"reading", "length"},
                   {"unit", "m"},
                   {"predicted", "leg.length"},
                   {"tolerance", "± 2 mm"}})});
  Shop other(demo("dunnock"), line_of_mass);
  other.tick("make.mass");
  const double mass = other.design.ledger[0].mass;
  other.change([&](Design& d) { d.ledger[0].mass = mass + 1; });
  CHECK(other.state("make.mass") == State::done);
  other.change([&](Design& d) { d.ledger[0].mass = mass + 20; });
  CHECK(other.state("make.mass") == State::again);
  other.tick("make.foretold", "third:type", {{"length", length}});
  other.change([](Design& d) { d.gear.third().axle.z = Given(d.gear.third().axle.z - 0.001); });
  CHECK(other.state("make.foretold", "third:type") == State::done);
  other.change([](Design& d) { d.gear.third().axle.z = Given(d.gear.third().axle.z - 0.004); });
  CHECK(other.state("make.foretold", "third:type") == State::again);
  CHECK(words(other.changed("make.foretold", "third:type")).find("is foretold now, it was") !=
        std::string::npos);
  // Time and events.
  other.tick("make.moved");
  CHECK(other.state("make.moved") == State::done);
  other.today = "2026-05-02";
  CHECK(other.state("make.moved") == State::again);
  other.tick("make.moved");
  other.happens("moved");
  CHECK(other.state("make.moved") == State::again);
  other.tick("make.moved");
  CHECK(other.state("make.moved") == State::done);
  other.today = "2027-05-03";
  CHECK(words(other.changed("make.moved")).find("each year") != std::string::npos);
}

TEST_CASE("Service asks after what happened, not before", "[work]") {
  Shop shop(demo("dunnock"));
  CHECK(shop.state("service.hard-full") == State::standing);
  shop.happens("hard landing");
  CHECK(shop.state("service.hard-full") == State::open);
  CHECK(shop.state("always.trial") == State::standing);
  // Landings of a day open what is looked at after each day of flying; a leg's event opens that leg's alone.
  CHECK(shop.state("service.landings") == State::standing);
  shop.happens("landing", "", "", 4);
  CHECK(shop.state("service.landings") == State::open);
  Shop legs(demo("dunnock"),
            lines({line({{"id", "make.look"}, {"per", "leg"}, {"repeat", "each bolt-up"}})}));
  for (const char* piece : {"main/port", "main/starboard", "third"}) legs.tick("make.look", piece);
  legs.happens("bolt-up", "main/port");
  CHECK(legs.state("make.look", "main/port") == State::again);
  CHECK(legs.state("make.look", "third") == State::done);
  // At each stage's end.
  Shop stages(demo("dunnock"),
              lines({line({{"id", "weigh.now"}, {"stage", "weigh"}, {"repeat", "each stage"}}),
                     line({{"id", "make.one"}})}));
  stages.tick("weigh.now");
  CHECK(stages.state("weigh.now") == State::done);
  stages.tick("make.one");
  CHECK(stages.state("weigh.now") == State::again);
}

TEST_CASE("The ladder: each rung asks the one below, and proves a leg", "[work]") {
  Lines rungs;
  for (int r = 1; r <= 8; ++r)
    rungs.emplace_back("line " + std::to_string(r + 1), line({{"id", "cycle.rung" + std::to_string(r)},
                                                              {"stage", "cycle"},
                                                              {"per", "retracting leg"},
                                                              {"rung", std::to_string(r)},
                                                              {"reopens", "wheel"}}));
  Shop shop(demo("dunnock"), rungs);
  const auto id = [](int r) { return "cycle.rung" + std::to_string(r); };
  CHECK(shop.state(id(2), "third") == State::waits);
  for (int r = 1; r <= 5; ++r) shop.tick(id(r), "third");
  CHECK(shop.state(id(6), "third") == State::open);
  CHECK(shop.state(id(2), "main/port") == State::waits);
  const auto proved = [&](const char* leg) {
    for (const auto& p : shop.progress().proofs)
      if (p.leg == leg) return std::pair(p.bench, p.flight);
    return std::pair(false, false);
  };
  CHECK(proved("third") == std::pair(true, false));
  CHECK(proved("main") == std::pair(false, false));
  for (int r = 6; r <= 8; ++r) shop.tick(id(r), "third");
  CHECK(proved("third") == std::pair(true, true));
  // Of the rungs only the fifth can be set aside.
  for (const int r : {1, 2, 3}) shop.tick(id(r), "main/port");
  shop.tick(id(4), "main/port", {}, Mark::aside);
  CHECK(shop.state(id(5), "main/port") == State::waits);
  shop.tick(id(4), "main/port");
  shop.tick(id(5), "main/port", {}, Mark::aside);
  CHECK(shop.state(id(6), "main/port") == State::open);
  // A change opens a rung and those above it; the mark goes, the entries stay.
  const auto entries = shop.book.entries.size();
  shop.change([](Design& d) { d.gear.third().wheel.width = Given(d.gear.third().wheel.width + 0.002); });
  CHECK(shop.state(id(1), "third") == State::again);
  CHECK(shop.state(id(8), "third") == State::again);
  CHECK(proved("third") == std::pair(false, false));
  CHECK(shop.book.entries.size() == entries);
  // Fixed gear has no rungs of retraction: it is passed over.
  Shop fixed(demo("wheatear"));
  const auto p = fixed.progress();
  for (const int passed : {1, 2, 3, 8}) CHECK(p.ladder[static_cast<size_t>(passed - 1)].boxes.empty());
  CHECK_FALSE(p.ladder[5].boxes.empty());
}

TEST_CASE("Three failures of the same part are the leg's, not the pilot's", "[work]") {
  Shop shop(demo("redshank"), lines({line({{"id", "make.strong"}, {"per", "leg"}, {"reopens", "landing"}})}));
  shop.tick("make.strong", "main/port");
  for (int i = 0; i < 2; ++i) shop.happens("failure", "main/port", "trunnion");
  CHECK(shop.state("make.strong", "main/port") == State::done);
  CHECK(shop.progress().remarks.empty());
  // Another part's, and one of a hard landing, tell nothing of it; how it is written does not matter.
  shop.happens("failure", "main/port", "pin");
  for (const std::string_view in : tasks::failed_in)
    if (in != tasks::ordinary_landing) shop.happens("failure", "main/port", "trunnion", 0, in);
  CHECK(shop.progress().remarks.empty());
  shop.happens("failure", "main/port", "Trunnion");
  CHECK(shop.state("make.strong", "main/port") == State::again);
  CHECK(words(shop.progress().remarks).find("too weak, not the pilot") != std::string::npos);
}

TEST_CASE("Texts carry the design's numbers, in its units", "[work]") {
  const Shop shop(demo("dunnock"));
  const tasks::History history(shop.book);
  const tasks::Look look = shop.look();
  const auto task = std::get<tasks::Task>(tasks::read_task(line({{"id", "make.x"}})));
  // Number and unit are held together by a blank that does not break.
  const auto filled = [&](const char* text, UnitSystem units = UnitSystem::metric) {
    std::string s = tasks::filled(look, history, task, tasks::whole(), text, {units});
    for (size_t at = 0; (at = s.find("\u00a0")) != std::string::npos;) s.replace(at, 2, " ");
    return s;
  };
  CHECK(filled("over {=20 mm}.") == "over 20 mm.");
  CHECK(filled("{=25.4 mm}", UnitSystem::inch) == "1 in");
  CHECK(filled("a[ ({/airframe/level_reference})]") == "a (cabin longeron)");
  CHECK(filled("a[ ({spring.set})] b") == "a b");  // left out where it is unknown
  CHECK(filled("{spring.set}") == "unknown");
  CHECK(filled("{/sequence/margin_s}").find(" s") != std::string::npos);
  CHECK(filled("{swing.clearance}") == "−10 mm");  // of several the worst
}

TEST_CASE("Figures agree with what they stand for", "[work]") {
  const Design d = demo("redshank");
  const Assessment a = assess(d);
  const auto value = [&](const char* id, const char* leg, double load = NAN, double height = NAN,
                         double mass = NAN) {
    const auto* f = tasks::find_figure(id);
    INFO(id);
    REQUIRE(f);
    return f->value({d, a, leg, false, load, height, mass});
  };
  const Leg& main = d.gear.main();
  CHECK(value("leg.length", "main") == Approx((main.axle.vec() - main.held_at()).norm()));
  double load = 0;
  for (const auto& l : a.loadings)
    if (l.flown && l.rest) load = std::max(load, l.rest->wheels[1].load);
  CHECK(value("leg.load", "main") == Approx(load));
  // A straight leg closes by its law; more load never closes it less, and its stop ends it.
  double last = -1;
  for (double f = 0; f < 200; f += 10) {
    const double s = value("leg.closure", "main", f);
    CHECK(s >= last - 1e-12);
    CHECK(s <= main.travel + 1e-9);
    last = s;
  }
  // A drop from higher goes further and hits harder.
  CHECK(value("drop.stroke", "main", NAN, 0.2, 1) > value("drop.stroke", "main", NAN, 0.05, 1));
  CHECK(value("drop.acceleration", "main", NAN, 0.2, 1) > value("drop.acceleration", "main", NAN, 0.05, 1));
  CHECK(value("sequence.slowest", "main") >=
        std::max(main.retraction.time_up.si, main.retraction.time_down.si));
  CHECK(value("stand.width", "main") >= 2 * main.axle.y);
  std::set<std::string_view> ids;
  for (const auto& f : tasks::all_figures()) {
    CHECK(ids.insert(f.id).second);
    CHECK_FALSE(find_measure(f.id));
    CHECK_FALSE(f.meaning.empty());
    CHECK_FALSE(f.source.empty());
  }
}

TEST_CASE("Drift and jump of a row of readings", "[work]") {
  Shop shop(demo("wheatear"), lines({line({{"id", "make.row"},
                                           {"reading", "spread"},
                                           {"unit", "m"},
                                           {"predicted", "first"},
                                           {"tolerance", "± 5 mm"}}),
                                     line({{"id", "make.sides"},
                                           {"per", "leg"},
                                           {"reading", "force"},
                                           {"unit", "N"},
                                           {"predicted", "leg.load"},
                                           {"tolerance", "± 10 %"}})}));
  const auto row = [&] {
    return tasks::row_of(tasks::History(shop.book), *shop.table.find("make.row"), "", 0);
  };
  // 0.4 mm a landing: y = 1.0000, 1.0016, 1.0032, 1.0048 after 0, 4, 8, 12 landings; ± 5 mm of the first.
  for (int i = 0; i < 4; ++i) {
    shop.tick("make.row", "", {{"spread", 1 + 0.0016 * i}});
    if (i == 2) CHECK_FALSE(row().drift);  // three readings tell nothing
    shop.happens("landing", "", "", 4);
  }
  REQUIRE(row().drift);
  CHECK(row().by_landings);
  CHECK(row().drift->slope == Approx(0.0004));
  CHECK(row().drift->out_in == Approx((0.005 - 0.0048) / 0.0004));
  CHECK_FALSE(row().jump);
  shop.tick("make.row", "", {{"spread", 1.011}});
  REQUIRE(row().jump);
  CHECK(*row().jump == Approx(0.011 - 0.0048));
  // Chance is no drift: the same way up and down, scattered.
  Shop noise(demo("wheatear"), lines({line({{"id", "make.row"},
                                            {"reading", "spread"},
                                            {"unit", "m"},
                                            {"predicted", "first"},
                                            {"tolerance", "± 5 mm"}})}));
  for (const double v : {1.0, 1.003, 0.998, 1.002, 0.999, 1.001}) {
    noise.tick("make.row", "", {{"spread", v}});
    noise.happens("landing", "", "", 1);
  }
  CHECK_FALSE(tasks::row_of(tasks::History(noise.book), *noise.table.find("make.row"), "", 0).drift);
  // Three off to the same side point at the design; left and right make a row of their own.
  const double load =
      tasks::find_figure("leg.load")->value({shop.design, shop.assessment, "main", false, NAN, NAN, NAN});
  for (int i = 0; i < 3; ++i) {
    shop.tick("make.sides", "main/port", {{"force", 1.2 * load}});
    shop.tick("make.sides", "main/starboard", {{"force", load}});
  }
  CHECK(tasks::row_of(tasks::History(shop.book), *shop.table.find("make.sides"), "main/port", 0)
            .three_to_a_side);
  CHECK_FALSE(tasks::row_of(tasks::History(shop.book), *shop.table.find("make.sides"), "main/starboard", 0)
                  .three_to_a_side);
  const auto sides =
      tasks::difference_row(tasks::History(shop.book), *shop.table.find("make.sides"),
                            shop.piece_of(*shop.table.find("make.sides"), "main/starboard"), 0);
  REQUIRE(sides.points.size() == 3);
  CHECK(sides.points[1].value == Approx(0.2 * load));
}

TEST_CASE("The Book is read back as it was written, whatever happened to its file", "[work]") {
  Entry e;
  e.id = "20260501-1";
  e.at = "2026-05-01T12:00:00";
  e.who = "Ilse";
  e.mark = Mark::tried;
  e.task = "mount.bar";
  e.piece = "main/port";
  e.piece_words = "port main leg";
  e.reason = "the light was going; \"tomorrow\", 5 ' more";
  e.choice = "glued";
  e.pictures = {"a b.jpg", "c.jpg"};
  e.hours = 1.5;
  e.cost = 12.25;
  e.note = "äöü, line";
  e.readings = {{"toe", "deg", radians(0.3), "", radians(0.25), radians(0), radians(0.5), Compared::within},
                {"seen by", "text", NAN, "Ilse", NAN, NAN, NAN, Compared::unjudged}};
  e.seen = {{"/gear/legs/main/axle/x_m", "1.835"}, {"mass", "437.6"}};
  const auto close = [](const Entry& a, const Entry& b) {
    REQUIRE(a.readings.size() == b.readings.size());
    for (size_t i = 0; i < a.readings.size(); ++i) {
      CHECK(a.readings[i].name == b.readings[i].name);
      CHECK(a.readings[i].text == b.readings[i].text);
      CHECK(a.readings[i].compared == b.readings[i].compared);
      if (std::isfinite(a.readings[i].value))
        CHECK(a.readings[i].value == Approx(b.readings[i].value).epsilon(1e-11));
      if (std::isfinite(a.readings[i].upper))
        CHECK(a.readings[i].upper == Approx(b.readings[i].upper).epsilon(1e-11));
      CHECK(std::isnan(a.readings[i].foretold) == std::isnan(b.readings[i].foretold));
    }
    Entry x = a, y = b;
    x.readings.clear();
    y.readings.clear();
    CHECK(x == y);
  };
  const std::string text = book_line(e);
  CHECK(text.find("\"value\":0.3") != std::string::npos);  // in the reading's own unit
  CHECK(std::count(text.begin(), text.end(), '\n') == 1);
  auto back = read_book(text);
  REQUIRE(back.book.entries.size() == 1);
  CHECK(back.faults.empty());
  close(back.book.entries[0], e);
  // As a table and back, but for what the table leaves out.
  const auto table = book_from_csv(book_to_csv(back.book));
  CHECK(table.faults.empty());
  REQUIRE(table.entries.size() == 1);
  Entry plain = e;
  plain.seen.clear();
  close(table.entries[0], plain);
  // A crash in mid-write: the line cut short is named, the next entry begins a line of its own.
  const auto file =
      std::filesystem::temp_directory_path() / ("kranich-book-" + std::to_string(getpid()) + ".book.jsonl");
  std::ofstream(file) << text << text.substr(0, text.size() / 2);
  Entry next = e;
  next.id = "20260501-2";
  CHECK_FALSE(append_to_book(file, next));
  back = read_book(*read_text_file(file));
  CHECK(back.book.entries.size() == 2);
  REQUIRE(back.faults.size() == 1);
  CHECK(back.faults[0].where == "line 2");
  std::filesystem::remove(file);
  CHECK(append_to_book("/nowhere/at/all.book.jsonl", e));
  // Two files laid together, in any order: each entry once.
  back = read_book(book_line(next) + text + book_line(next));
  CHECK(back.book.entries.size() == 2);
  // What is wrong is named, the rest stays.
  back = read_book(
      "{}\n[1]\nnonsense\n{\"id\":\"x\",\"at\":\"soon\",\"mark\":\"done\"}\n{\"id\":\"x\",\"at\":\"2026-05-"
      "01\",\"mark\":\"maybe\"}\n" +
      text);
  CHECK(back.book.entries.size() == 1);
  CHECK(back.faults.size() == 5);
  CHECK(book_from_csv("at,mark,id\n2026-05-01,done,\n2026-05-01,dont,b\nsoon,done,c\n").faults.size() == 3);
  // Nothing that a builder types breaks the file.
  std::mt19937 random(7);
  for (int round = 0; round < 200; ++round) {
    Entry wild = e;
    for (std::string* s : {&wild.note, &wild.reason, &wild.readings[1].text}) {
      s->clear();
      for (int i = 0; i < 30; ++i) *s += static_cast<char>(random() % 256);
    }
    const auto again = read_book(book_line(wild) + text);
    CHECK(again.book.entries.size() == 1);  // both lines bear one id
    CHECK(again.faults.empty());
  }
}

TEST_CASE("A reading of another step is found by its name", "[work]") {
  Shop shop(demo("dunnock"), lines({line({{"id", "make.first"}, {"reading", "wide; deep"}, {"unit", "m; m"}}),
                                    line({{"id", "make.second"},
                                          {"reading", "deep again"},
                                          {"unit", "m"},
                                          {"predicted", "make.first#2"},
                                          {"tolerance", "± 1 mm"}})}));
  REQUIRE(shop.table.problems.empty());
  const auto foretold = [&] {
    return tasks::foretold(shop.look(), tasks::History(shop.book), *shop.table.find("make.second"),
                           tasks::whole(), 0, {});
  };
  CHECK(std::isnan(foretold().value));
  // Only the second of the two was read: it is no first.
  shop.tick("make.first", "", {{"deep", 0.31}});
  CHECK(foretold().value == Approx(0.31));
  CHECK(foretold().upper == Approx(0.311));
  shop.tick("make.first", "", {{"wide", 0.5}});
  CHECK(foretold().value == Approx(0.31));
  CHECK_FALSE(
      tasks::table_of(
          {{"line 1",
            line({{"id", "make.third"}, {"reading", "deep"}, {"unit", "m"}, {"predicted", "make.first#3"}})}},
          {})
          .problems.empty());
}

TEST_CASE("What is typed for a reading is understood or refused by name", "[work]") {
  const auto line_read = tasks::read_task(
      line({{"id", "make.x"}, {"reading", "toe; lamp; seen"}, {"unit", "deg; yes/no; text"}}));
  const auto task = std::get<tasks::Task>(line_read);
  const auto understood = [&](size_t i, const char* typed, UnitSystem units = UnitSystem::metric) {
    return tasks::understood(task.readings[i], typed, units);
  };
  const auto read = [&](size_t i, const char* typed) { return std::get<tasks::Read>(understood(i, typed)); };
  const auto wrong = [&](size_t i, const char* typed) {
    return std::holds_alternative<std::string>(understood(i, typed));
  };
  CHECK(read(0, "0.3").value == Approx(radians(0.3)));
  CHECK(read(0, "0.3").unit == "deg");
  CHECK(wrong(0, "0.3 mm"));
  CHECK(wrong(0, "much"));
  for (const char* yes : {"y", "Yes", "YE"}) CHECK(read(1, yes).text == "yes");
  CHECK(read(1, "N").text == "no");
  for (const char* neither : {"", "perhaps", "yess"}) CHECK(wrong(1, neither));
  CHECK(read(2, "a crack").text == "a crack");
  // Plain numbers beside them.
  CHECK(std::get<double>(tasks::understood_number("Hours", "1.5", 0, 100)) == 1.5);
  CHECK(std::get<double>(tasks::understood_number("Landings", "3", 1, 1000, true)) == 3);
  for (const char* bad : {"", "long", "-1", "101", "nan"}) {
    INFO(bad);
    const auto got = tasks::understood_number("Hours", bad, 0, 100);
    REQUIRE(std::holds_alternative<std::string>(got));
    CHECK(std::get<std::string>(got).find("Hours must be a number from 0 to 100") == 0);
  }
  CHECK(std::holds_alternative<std::string>(tasks::understood_number("Landings", "2.5", 1, 1000, true)));
}

TEST_CASE("An entry in words", "[work]") {
  const auto told = [](const Entry& e) {
    std::string all;
    for (const Text& t : tasks::told(e)) all += in_words(t) + "; ";
    return all;
  };
  Entry e;
  e.mark = Mark::done;
  e.task = "stand.load";
  e.readings = {{"toe", "deg", radians(1), "", NAN, NAN, NAN, Compared::outside},
                {"took", "h", 2, "", NAN, NAN, NAN, Compared::unjudged}};
  e.hours = 2;
  e.cost = 12.5;
  e.note = "warm";
  CHECK(in_words(tasks::heading_of(e)) == "stand.load · done");
  CHECK(told(e) == "toe 1.0° (outside); took 2 h; warm; cost 12.5; ");
  Entry broke;
  broke.mark = Mark::event;
  broke.event = "failure";
  broke.what = "pin";
  broke.from = tasks::ordinary_landing;
  CHECK(in_words(tasks::heading_of(broke)).find(": pin") != std::string::npos);
  CHECK(told(broke) == "in: ordinary landing; ");
  broke.event = "change";
  broke.from = "6 mm";
  broke.to = "8 mm";
  CHECK(told(broke) == "6 mm → 8 mm; ");
  broke.event = "landing";
  broke.from = broke.to = "";
  broke.count = 1;
  CHECK(told(broke) == "1 landing; ");
}

TEST_CASE("Odd entries are asked about once", "[work]") {
  Entry e;
  e.at = "2026-05-03T10:00:00";
  e.readings = {{"gap", "m", 0.12, "", 0.01, NAN, NAN, Compared::unjudged}};
  CHECK(tasks::odd(e, "2026-05-01").size() == 2);
  CHECK(tasks::odd(e, "2026-05-03").size() == 1);
  e.readings[0].value = 0.05;
  CHECK(tasks::odd(e, "2026-05-03").empty());
}

TEST_CASE("The part register is a view of design and Book", "[work]") {
  Shop shop(demo("redshank"));
  const auto rows = [&] { return tasks::part_register(shop.design, tasks::History(shop.book)); };
  const auto find = [&](const std::string& what, const std::string& side) -> tasks::RegisterRow {
    for (const auto& r : rows())
      if (in_words(r.what) == what && in_words(r.side) == side) return r;
    FAIL(what);
    return rows()[0];
  };
  CHECK(find("main unit", "port").angle == Approx(shop.design.gear.main().retraction.unit_angle.si));
  CHECK(find("main wheel", "starboard").size == Approx(shop.design.gear.main().wheel.diameter.si));
  shop.change([](Design& d) { d.gear.main().retraction.unit.shelf_name = "Fenn 90"; });
  CHECK(in_words(find("main unit", "port").state) == "chosen: Fenn 90");
  Entry e = shop.begun(Mark::event);
  e.event = "purchase";
  e.what = "Fenn 90";
  e.cost = 48;
  shop.book.entries.push_back(e);
  CHECK(in_words(find("main unit", "port").state) == "bought");
  CHECK(find("main unit", "port").price == 48);
  shop.change([](Design& d) {
    Decision decision;
    decision.name = "wheel";
    decision.waits_for = "the tyre shop";
    decision.path = "/gear/legs/main/wheel/diameter_m";
    d.decisions.push_back(decision);
  });
  CHECK(in_words(find("main wheel", "port").waits_for) == "wheel: the tyre shop");
}

TEST_CASE("Given: what a step would fill stands in the design as measured", "[work]") {
  Shop shop(demo("redshank"), lines({line({{"id", "make.times"},
                                           {"per", "unit"},
                                           {"reading", "time up"},
                                           {"unit", "s"},
                                           {"sets", "/gear/legs/*/retraction/time_up_s"}})}));
  shop.change([](Design& d) { d.gear.main().retraction.time_up = Given(2.0, Origin::plan); });
  CHECK(shop.state("make.times", "main/port:unit") == State::open);
  shop.change([](Design& d) { d.gear.main().retraction.time_up = Given(2.0, Origin::measured); });
  CHECK(shop.state("make.times", "main/port:unit") == State::given);
}

TEST_CASE("Every demonstration and a blank project has its list of steps", "[work]") {
  for (const std::string& name : demo_names()) {
    Shop shop(demo(name));
    INFO(name);
    const auto p = shop.progress();
    CHECK(p.boxes.size() > 80);
    CHECK_FALSE(tasks::ready(p, "").empty());
    const tasks::History history(shop.book);
    const auto look = shop.look();
    for (const auto& b : p.boxes) {
      INFO(b.task->id);
      for (size_t i = 0; i < b.task->readings.size(); ++i) {
        const auto f = tasks::foretold(look, history, *b.task, b.piece, i, {});
        CHECK_FALSE(std::isinf(f.value));
        CHECK_FALSE(f.lower > f.upper);
      }
      CHECK(tasks::filled(look, history, *b.task, b.piece, b.task->text, {UnitSystem::inch}).find('{') ==
            std::string::npos);
    }
  }
  Design blank;
  arrange(blank, Layout::tricycle);
  Shop shop(blank);
  const auto p = shop.progress();
  CHECK_FALSE(p.boxes.empty());
  CHECK(p.questions.size() >= 3);
}

TEST_CASE("Every word of the conditions is true of some aircraft, and so every step is shown to somebody",
          "[work]") {
  // The demonstrations, and what a few changes make of them.
  std::vector<Design> samples;
  for (const std::string& name : demo_names()) samples.push_back(demo(name));
  const auto made_of = [&](const char* name, const std::function<void(Design&)>& change) {
    samples.push_back(demo(name));
    change(samples.back());
  };
  const auto all_legs = [](const std::function<void(Leg&)>& change) {
    return [change](Design& d) {
      for (Leg& leg : d.gear.legs) change(leg);
    };
  };
  for (const SpringKind kind :
       {SpringKind::coil, SpringKind::gas, SpringKind::cord, SpringKind::pucks, SpringKind::leaf})
    for (const char* name : {"wheatear", "redshank"})
      made_of(name, all_legs([kind](Leg& l) { l.spring.kind = kind; }));
  for (const BentForm form : {BentForm::leaf, BentForm::bow, BentForm::wire})
    for (const char* name : {"wheatear", "redshank"})
      made_of(name, all_legs([form](Leg& l) {
                l.spring.kind = SpringKind::bending;
                l.spring.bent.form = form;
                l.material = "printed PLA";
              }));
  for (const char* into : {"birch plywood", "foam", "carbon laminate"})
    for (const char* name : {"redshank", "wheatear", "dunnock"})
      made_of(name, [into](Design& d) {
        Material m;
        m.name = into;
        m.stuff = into[0] == 'b' ? Stuff::timber : into[0] == 'f' ? Stuff::foam : Stuff::laminate;
        d.materials.push_back(m);
        for (Leg& leg : d.gear.legs) {
          leg.joints.emplace_back();
          leg.joints.back().kind = JointKind::block;
          leg.joints.back().into = into;
          leg.joints.emplace_back();
          leg.joints.back().kind = JointKind::fasteners;
          leg.joints.back().holds = Given(200);
          leg.wheel.fork_gap = Given(0.004);
          leg.steering.kind = SteeringKind::sliding_rods;
          leg.retraction.drive.kind = DriveKind::servo;
          leg.retraction.drive.down_spring.extended_force = Given(100);
          leg.brace_leg.set({0, 0, 0});
          leg.brace_airframe.set({0, 0, 1});
        }
        d.plies.emplace_back();
        d.decisions.emplace_back();
        d.purpose.scale_denominator = Given(5);
        d.gear.brakes = false;
      });
  made_of("wheatear", [](Design& d) { d.gear.third().skid = true; });
  made_of("wheatear", [](Design& d) {
    Material m;
    m.name = "club resin";
    m.stuff = Stuff::printed;
    d.materials.push_back(m);
    d.purpose.build = Build::model;
    for (Leg& leg : d.gear.legs) leg.material = "club resin";
  });
  made_of("redshank", [](Design& d) {
    d.gear.third().retraction.fitted = true;
    d.gear.third().steering.kind = SteeringKind::rod;
  });
  made_of("redshank", [](Design& d) {
    d.without.emplace_back();
    d.without.back().question = "brace";
  });
  std::set<std::string_view> never;
  for (const auto& word : tasks::all_words()) never.insert(word.name);
  std::set<std::string> unseen;
  const auto table = task_table(Design{});
  for (const auto& task : table.tasks) unseen.insert(task.id);
  for (const Design& d : samples) {
    Assessment a = assess(d);
    // Whatever a leaf is made of, it may take a set.
    if (std::any_of(d.gear.legs.begin(), d.gear.legs.end(),
                    [](const Leg& l) { return l.spring.kind == SpringKind::bending; })) {
      a.findings.emplace_back();
      a.findings.back().measure_id = "spring.set";
      a.findings.back().value = 0.002;
    }
    const tasks::Facts facts(d, a);
    for (const auto& word : tasks::all_words())
      if (facts.of(word.name) == Truth::yes) never.erase(word.name);
    for (const auto& task : table.tasks)
      if (task.applies.of(facts) == Truth::yes && !tasks::pieces_of(d, task.per).empty())
        unseen.erase(task.id);
  }
  CHECK(never.empty());
  CHECK(unseen.empty());
}

TEST_CASE("The steps that docs/coverage.md names are in the table, for those needs", "[work]") {
  const auto text = read_text_file(KRANICH_DOCS_DIR "/coverage.md");
  REQUIRE(text);
  const auto table = task_table(Design{});
  int named = 0;
  for (size_t at = 0; at < text->size();) {
    const size_t end = std::min(text->find('\n', at), text->size());
    const std::string row = text->substr(at, end - at);
    at = end + 1;
    if (row.rfind("| N", 0) != 0) continue;
    const std::string need = row.substr(2, row.find(' ', 2) - 2);
    const auto steps = row.find("step");
    if (steps == std::string::npos) continue;
    for (const auto& task : table.tasks) {
      const auto found = row.find(task.id, steps);
      if (found == std::string::npos || row.find_first_of(", |;", found) != found + task.id.size()) continue;
      INFO(row << task.id);
      CHECK((" " + task.needs + " ").find(" " + need + " ") != std::string::npos);
      ++named;
    }
  }
  CHECK(named > 100);
}

TEST_CASE(
    "the trial log: tries in their order, what the design says otherwise since the one before, and what came "
    "of it") {
  Shop shop(demo("dunnock"));
  const auto log = [&] {
    const tasks::History history(shop.book);
    return tasks::trial_log(shop.look(), shop.table, history);
  };
  const auto texts = [](const std::vector<Text>& list) {
    std::string all;
    for (const Text& t : list) all += in_words(t) + "; ";
    return all;
  };
  const Entry first = shop.tick("swing.sweep", "third", {{"least gap", 0.004}});
  CHECK(log().empty());  // done once is no try
  shop.change([](Design& d) { d.gear.third().retraction.pivot.x.si += 0.007; });
  const Entry second = shop.tick("swing.sweep", "third", {{"least gap", 0.009}});
  auto tries = log();
  REQUIRE(tries.size() == 2);
  CHECK(tries[0].entry->id == second.id);
  CHECK_FALSE(tries[0].first);
  CHECK(tries[1].first);
  CHECK(tries[1].changed.empty());
  CHECK(texts(tries[0].changed).find("was") != std::string::npos);
  INFO(in_words(tries[0].what) << " | " << texts(tries[0].result));
  CHECK(in_words(tries[0].what).find("weep") != std::string::npos);
  CHECK(texts(tries[0].result).find("least gap 9") != std::string::npos);
  for (const auto& t : tries) {
    bool off = false;
    for (const auto& r : t.entry->readings) off = off || r.compared == Compared::outside;
    CHECK((t.verdict == Compared::outside) == off);
    if (off) CHECK(texts(t.result).find("foretold") != std::string::npos);
  }
  // A line somebody wrote between two tries is what was changed for the next, and a try of its own.
  Entry by_hand = shop.begun(Mark::event);
  by_hand.event = "change";
  by_hand.what = "spacer on the pivot";
  by_hand.from = "1 mm";
  by_hand.to = "2 mm";
  shop.book.entries.push_back(by_hand);
  shop.tick("always.trial", "", {}, Mark::done,
            {{"changed", "rod"}, {"from", "hole 2"}, {"to", "hole 3"}, {"verdict", "no better"}});
  shop.tick("swing.sweep", "third", {{"least gap", 0.010}});
  tries = log();
  REQUIRE(tries.size() == 5);
  CHECK(texts(tries[0].changed).find("spacer on the pivot: 1 mm → 2 mm") != std::string::npos);
  CHECK(texts(tries[0].changed).find("rod: hole 2 → hole 3") != std::string::npos);
  CHECK(texts(tries[1].result).find("no better") != std::string::npos);
  // One that does not count is no try any more.
  Entry strikes = shop.begun(Mark::struck);
  strikes.strikes = second.id;
  shop.book.entries.push_back(strikes);
  CHECK(log().size() == 4);
}
