// SPDX-License-Identifier: GPL-3.0-or-later
//! Circuit by hand: a pump and its legs entered from nothing, played, dumped, cured, saved.
#include <QTableWidget>

#include "app/drawing/circuit_panes.h"
#include "app/stations/page.h"
#include "app/widgets/list_table.h"
#include "bench.h"
#include "core/io/project_file.h"

using namespace kranich;
using namespace kranich::app;

namespace {

const Finding* on(const Bench& b, std::string_view id, std::string_view key) {
  for (const auto& f : b.document.assessment().findings)
    if (f.measure_id == id && f.subject.key == key) return &f;
  return nullptr;
}
void fill(Bench& b, const QString& list, int row, int column, const QString& text) {
  auto* table = b.find<QTableWidget>("list:" + list);
  Fold::open_around(table);
  table->item(row, column)->setText(text);
  b.settle();
}

}  // namespace

TEST_CASE("a circuit is entered from nothing: what is missing is asked for, then it is judged", "[window]") {
  Bench b;
  b.document.edit("no circuit yet", [](Design& d) { d.circuit = {}; });
  auto& page = b.go(Station::circuit);
  CHECK_FALSE(on(b, "circuit.time", "main/up"));
  b.type("/circuit/hydraulics/pump_flow_m3_per_s", "5");
  REQUIRE(on(b, "circuit.time", "main/up"));
  CHECK(on(b, "circuit.time", "main/up")->verdict == Verdict::unknown);
  b.type("/circuit/hydraulics/loaded_flow_m3_per_s", "4");
  b.type("/circuit/hydraulics/loaded_pressure_Pa", "6500");
  b.type("/circuit/hydraulics/pump_voltage_V", "13");
  REQUIRE(std::isfinite(on(b, "circuit.time", "main/up")->value));
  CHECK(on(b, "circuit.ahead", "third/down")->verdict == Verdict::fails);
  const auto empty = page.grab().toImage();
  b.choose("/circuit/hydraulics/down/at", 1);
  b.type("/circuit/hydraulics/down/bore_m", "0.7");
  CHECK(on(b, "circuit.ahead", "third/down")->verdict == Verdict::holds);
  b.press("circuit-down");
  CHECK(page.grab().toImage() != empty);
  b.type("/circuit/hydraulics/cut_out_Pa", "1500");
  CHECK(on(b, "circuit.trip", "main/down")->verdict == Verdict::fails);
  page.findings()->choose("circuit.trip|main/down");
  REQUIRE(eventually([&] { return page.findChild<QPushButton*>("try:circuit.cut_out") != nullptr; }));
  b.press("try:circuit.cut_out");
  CHECK(on(b, "circuit.trip", "main/down")->verdict == Verdict::holds);
  const auto again = read_project(write_project(b.document.design()));
  REQUIRE(again.design);
  CHECK(again.design->circuit == b.document.design().circuit);
}

TEST_CASE("it is played, legs rise at their own pace, the dump valve takes the pressure") {
  Bench b;
  auto& page = b.go(Station::circuit);
  const auto at_first = page.grab().toImage();
  b.press("circuit-play");
  REQUIRE(eventually([&] { return b.find<QPushButton>("circuit-play")->text() == "Play"; }));
  const auto at_last = page.grab().toImage();
  CHECK(at_last != at_first);
  b.press("circuit-dump");
  CHECK(page.grab().toImage() != at_last);
  b.press("circuit-third");
  CHECK(page.board()->find<CylinderPane>() != nullptr);
}

TEST_CASE("fittings and leads are typed in their tables, judged, refused where they make no sense") {
  Bench b;
  b.go(Station::circuit);
  fill(b, "/circuit/hydraulics/fittings", 0, 3, "points up");
  CHECK(on(b, "circuit.branch", "tee under the seats")->verdict == Verdict::fails);
  fill(b, "/circuit/hydraulics/fittings", 0, 3, "sideways");
  CHECK(b.document.design().circuit.hydraulics.fittings[0].way == BranchWay::points_up);
  fill(b, "/circuit/hydraulics/pipes", 0, 5, "yes");
  CHECK(on(b, "circuit.cabin", "port main, up")->verdict == Verdict::fails);
  fill(b, "/circuit/electrics/feeds", 0, 7, "100");
  CHECK(on(b, "circuit.fuse", "pump")->verdict == Verdict::fails);
  fill(b, "/circuit/electrics/feeds", 0, 7, "-3");
  CHECK(b.document.design().circuit.electrics.feeds[0].fuse == Given(100.0));
  b.document.undo();
  b.settle();
  CHECK(on(b, "circuit.fuse", "pump")->verdict == Verdict::holds);
  fill(b, "/circuit/electrics/feeds/1/route", 0, 2, "-300");
  fill(b, "/circuit/electrics/feeds/1/route", 1, 2, "-300");
  CHECK(on(b, "circuit.route", "wheel bay switch")->value < 0.15);
}

TEST_CASE(
    "air is entered from nothing: legs, bottle, valve; the bottle is too small, and a try makes it larger") {
  Bench b;
  b.document.edit("nothing known of what moves it", [](Design& d) {
    d.circuit = {};
    for (Leg& l : d.gear.legs) {
      Drive& r = l.retraction.drive;
      r.kind = DriveKind::none;
      r.bore = r.rod = r.supply = r.back = r.flow = Given();
    }
  });
  b.go(Station::drive);
  for (const char* leg : {"main", "third"}) {
    const std::string root = std::string("/gear/legs/") + leg + "/retraction/drive/";
    b.press((std::string("drive-") + leg).c_str());
    b.choose(QString::fromStdString(root + "kind"), static_cast<int>(DriveKind::air));
    b.type(QString::fromStdString(root + "bore_m"), "63");
    b.type(QString::fromStdString(root + "rod_m"), "16");
  }
  auto& page = b.go(Station::circuit);
  REQUIRE(on(b, "circuit.cycles", "bottle"));
  CHECK(on(b, "circuit.cycles", "bottle")->verdict == Verdict::unknown);
  b.type("/circuit/air/bottle_m3", "4 l");
  b.type("/circuit/air/filled_Pa", "2000");
  b.type("/circuit/air/rated_Pa", "4000");
  b.type("/circuit/air/wanted_cycles", "4");
  CHECK(on(b, "circuit.cycles", "bottle")->verdict == Verdict::fails);
  CHECK(on(b, "circuit.time", "main/up")->verdict == Verdict::unknown);
  const auto before = page.grab().toImage();
  b.type("/circuit/air/valve_bore_m", "4");
  b.type("/circuit/air/down_bore_m", "1");
  CHECK(on(b, "circuit.time", "main/up")->verdict != Verdict::unknown);
  CHECK(page.grab().toImage() != before);  // legs over time, pressures over the travel
  CHECK_FALSE(b.find<QPushButton>("circuit-dump")->isVisible());
  CHECK(b.find<QTableWidget>("list:/circuit/air/tubes"));
  page.findings()->choose("circuit.cycles|bottle");
  REQUIRE(eventually([&] { return page.findChild<QPushButton*>("try:air.bottle") != nullptr; }));
  b.press("try:air.bottle");
  CHECK(on(b, "circuit.cycles", "bottle")->verdict != Verdict::fails);
  CHECK(b.document.design().circuit.air.bottle > 0.004);
  b.press("circuit-play");
  REQUIRE(eventually([&] { return b.find<QPushButton>("circuit-play")->text() == "Play"; }));
  const auto again = read_project(write_project(b.document.design()));
  REQUIRE(again.design);
  CHECK(again.design->circuit == b.document.design().circuit);
  CHECK(again.design->gear == b.document.design().gear);
}
