// SPDX-License-Identifier: GPL-3.0-or-later
//! Steer: a leg steered by rods entered from nothing, dragged, cured; what stops the aircraft.
#include <QCheckBox>
#include <QComboBox>

#include "app/drawing/steer_panes.h"
#include "app/stations/page.h"
#include "bench.h"
#include "core/io/project_file.h"
#include "core/model/locate.h"

using namespace kranich;
using namespace kranich::app;

namespace {
const QString base = "/gear/legs/third/steering/";

void choose(Bench& b, int index) { b.choose(base + "kind", index); }
}  // namespace

TEST_CASE("steering is entered for a leg that had none, and each number is judged as it comes") {
  Bench b("Redshank");
  auto& page = b.go(Station::steer);
  b.press("steer-third");
  CHECK_FALSE(b.worst("steer.turn"));
  choose(b, static_cast<int>(SteeringKind::rod));
  REQUIRE(b.worst("steer.turn"));
  CHECK(b.worst("steer.turn")->verdict == Verdict::unknown);
  b.type(base + "angle_deg", "25");
  CHECK(b.worst("steer.turn")->verdict == Verdict::noted);
  b.type(base + "wanted_radius_m", "0.3");
  CHECK(b.worst("steer.turn")->verdict == Verdict::fails);
  b.type(base + "wanted_radius_m", "40");
  CHECK(b.worst("steer.turn")->verdict == Verdict::holds);
  const auto again = read_project(write_project(b.document.design()));
  REQUIRE(again.design);
  CHECK(again.design->gear.third().steering == b.document.design().gear.third().steering);
  // The drawing shows the turn: taken away its angle it is another picture.
  const QImage with = page.board()->grab().toImage();
  b.type(base + "angle_deg", "");
  CHECK(page.board()->grab().toImage() != with);
}

TEST_CASE(
    "rods that slide: the end at the servo is dragged, the slip follows, and the command is taken away") {
  Bench b;
  auto& page = b.go(Station::steer);
  b.press("steer-third");
  REQUIRE(b.worst("steer.slide"));
  const double before = b.worst("steer.slide")->value;
  b.drag(page, "steer-airframe", {30, 0});
  CHECK(b.value("/gear/legs/third/steering/rod_airframe/x_m") > 1.17);
  CHECK(std::abs(b.worst("steer.slide")->value - before) > 1e-4);
  b.document.undo();
  b.settle();
  // A slip too short for the fold, cured from the list.
  b.type(base + "slide_m", "20");
  REQUIRE(b.worst("steer.slide")->verdict == Verdict::fails);
  page.findings()->choose(b.worst("steer.slide")->check());
  REQUIRE(eventually([&] { return page.findChild<QPushButton*>("try:third.steer_slide") != nullptr; }));
  page.findChild<QPushButton*>("try:third.steer_slide")->click();
  b.settle();
  CHECK(b.worst("steer.slide")->verdict != Verdict::fails);
  auto* off = b.find<QCheckBox>("flag:" + base + "lets_go");
  off->click();
  b.settle();
  CHECK(b.worst("steer.off")->verdict == Verdict::fails);
  off->click();
  b.settle();
  CHECK(b.worst("steer.off")->verdict == Verdict::holds);
  // As a rod that does not let go it turns the wheel, or locks.
  choose(b, static_cast<int>(SteeringKind::rod));
  REQUIRE(b.worst("steer.fold"));
  CHECK(b.worst("steer.fold")->verdict == Verdict::fails);
}

TEST_CASE("without wheel brakes a tail wheel in the skid's place asks for them") {
  Bench b("Wheatear");
  b.go(Station::steer);
  auto* brakes = b.find<QCheckBox>("flag:/gear/wheel_brakes");
  if (brakes->isChecked()) brakes->click();
  b.settle();
  const bool skid = b.document.design().gear.third().skid;
  REQUIRE(b.worst("steer.brakes"));
  CHECK((b.worst("steer.brakes")->verdict == Verdict::fails) == !skid);
  brakes->click();
  b.settle();
  CHECK(b.worst("steer.brakes")->verdict == Verdict::holds);
}
