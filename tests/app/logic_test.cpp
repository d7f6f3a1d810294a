// SPDX-License-Identifier: GPL-3.0-or-later
//! Logic by hand: wired from nothing, thrown, broken, watched, proved, replayed, cured, saved.
#include <QLabel>

#include "app/drawing/logic_panes.h"
#include "app/stations/page.h"
#include "bench.h"
#include "core/io/project_file.h"

using namespace kranich;
using namespace kranich::app;

namespace {

struct Wired : Bench {
  StationPage& page;
  explicit Wired(const char* layout = "pump-switches") : page(unwired()) {
    press(("logic-layout-" + std::string(layout)).c_str());
    proved();
    press("logic-run");  // step by step from now on
  }
  //! The page of a gear that nobody has wired yet.
  StationPage& unwired() {
    document.edit("not wired yet", [](Design& d) {
      d.logic = {};
      for (auto& leg : d.gear.legs) leg.retraction.drive.falls_free = leg.retraction.fitted;
      d.doors.resize(1);  // fewer states: the main doors alone
    });
    return go(Station::logic);
  }
  //! Clicks on what is called so in a pane.
  template <class P>
  void click(const QString& id) {
    page.grab();  // what can be clicked is where it was drawn last
    const auto at = page.board()->find<P>()->spot(id);
    INFO(id.toStdString());
    REQUIRE(at);
    QTest::mouseClick(page.board(), Qt::LeftButton, {}, at->toPoint());
    settle();
  }
  template <class P>
  bool there(const QString& id) {
    page.grab();
    return page.board()->find<P>()->spot(id).has_value();
  }
  QString happened() { return find<QLabel>("logic-happened")->text(); }
  void run_out() {
    QString before;
    do {
      before = happened();
      press("logic-step");
    } while (happened() != before);
  }
};

}  // namespace

TEST_CASE("a gear is wired by a layout, thrown by hand, and comes up and down", "[window]") {
  Wired b;
  CHECK(b.document.design().logic.power == LegPower::pump);
  CHECK(b.happened().contains("At rest"));
  CHECK(b.happened().contains("nose leg: locked down"));
  b.click<CockpitPane>("selector:up");
  CHECK(b.happened().contains("the pilot selects up"));
  b.run_out();
  CHECK(b.happened().contains("nose leg: locked down"));  // the squat switch holds it
  b.click<CockpitPane>("selector:down");
  b.click<CockpitPane>("aircraft:in the air");
  b.click<CockpitPane>("selector:up");
  b.run_out();
  for (const char* leg : {"nose leg", "port main leg", "starboard main leg"})
    CHECK(b.happened().contains(QStringLiteral("%1: up").arg(leg)));
  const auto picture = b.page.grab().toImage();
  b.click<CockpitPane>("selector:down");
  b.run_out();
  CHECK(b.happened().contains("starboard main leg: locked down"));
  CHECK(b.page.grab().toImage() != picture);
  b.click<CockpitPane>("handle:pulled");
  CHECK_FALSE(b.there<CockpitPane>("handle:pulled"));
  b.press("logic-rest");
  CHECK(b.happened().contains("At rest"));
  // Without the breaker the lamps go dark and the pump stands still; pushed in again it goes on.
  b.click<CockpitPane>("breaker:out");
  CHECK(b.happened().contains("the breaker comes out"));
  b.click<CockpitPane>("aircraft:in the air");
  b.click<CockpitPane>("selector:up");
  b.run_out();
  CHECK(b.happened().contains("nose leg: locked down"));
  b.click<CockpitPane>("breaker:in");
  b.run_out();
  CHECK(b.happened().contains("nose leg: up"));
  const auto again = read_project(write_project(b.document.design()));
  REQUIRE(again.design);
  CHECK(again.design->logic == b.document.design().logic);
}

TEST_CASE("a contact that is broken on the diagram holds the machine up, mended it goes on") {
  Wired b;
  b.click<CockpitPane>("aircraft:in the air");
  b.click<WiringPane>("contact:squat switch");  // sticks as in the air
  CHECK(b.happened().contains("squat switch: closed"));
  b.click<WiringPane>("contact:squat switch");  // as on the ground
  b.click<CockpitPane>("selector:up");
  b.run_out();
  CHECK(b.happened().contains("nose leg: locked down"));
  b.click<WiringPane>("contact:squat switch");
  CHECK(b.happened().contains("mended"));
  b.run_out();
  CHECK(b.happened().contains("nose leg: up"));
}

TEST_CASE("what a fault does is replayed event by event, from the table and from the finding") {
  Wired b;
  b.press("logic-faults");
  const auto& proof = *b.document.assessment().logic->proof;
  REQUIRE(proof.violated(logic::Rule::ground) == 1);
  const logic::Outcome* way = nullptr;
  const auto* run = proof.first(logic::Rule::ground, &way);
  size_t column = 0;
  for (size_t i = 0; i < run->outcomes.size(); ++i)
    if (&run->outcomes[i] == way) column = i;
  b.click<FaultsPane>(QStringLiteral("fault:%1:%2").arg(QString::fromStdString(run->fault)).arg(column));
  CHECK(b.happened().contains("then " + QString::fromStdString(way->run.front())));
  for (size_t i = 0; i < way->run.size(); ++i) b.press("logic-step");
  CHECK(b.happened().contains(QString::fromStdString(way->run.back())));
  CHECK_FALSE(b.happened().contains("nose leg: locked down, port"));
  // The same by the finding; then cured: two switches in series.
  b.page.findings()->choose("logic.ground|gear");
  b.settle();
  CHECK(b.happened().contains("At rest") == false);
  REQUIRE(eventually([&] { return b.page.findChild<QPushButton*>("try:logic.squat_two") != nullptr; }));
  b.press("try:logic.squat_two");
  b.proved();
  CHECK(b.document.design().logic.squat == SquatKind::two);
  CHECK(b.worst("logic.ground")->verdict == Verdict::holds);
  b.document.undo();
  b.settle();
  CHECK(b.document.design().logic.squat == SquatKind::one);
}

TEST_CASE("the proof follows every part, lamps have one legend, states are listed, pairs are called off") {
  Wired b("pump-pressure");
  CHECK(b.document.design().logic.pressure_switch);
  const auto states = b.document.assessment().logic->proof->states;
  b.choose("/logic/down_switch", 3);
  b.proved();
  CHECK(b.document.assessment().logic->proof->states != states);
  CHECK(b.worst("logic.lamp")->verdict == Verdict::holds);
  b.choose("/logic/lamps", 4);
  b.proved();
  CHECK(b.find<QLabel>("logic-legend")->text().contains("red until all"));
  CHECK(b.worst("logic.lamp")->verdict == Verdict::fails);  // dark may mean no power
  b.press("logic-states");
  const auto table = b.page.grab().toImage();
  b.press("logic-diagram");
  CHECK(b.page.grab().toImage() != table);
  b.type("/logic/time_out_s", "3");
  b.proved();
  CHECK(b.worst("logic.time_out")->verdict == Verdict::fails);
  b.press("logic-pairs");
  CHECK(b.find<QPushButton>("logic-pairs")->text().contains("off"));
  b.press("logic-pairs");
  CHECK(b.find<QLabel>("logic-pairs-say")->text() == "called off");
}
