// SPDX-License-Identifier: GPL-3.0-or-later
//! Drive: typed, dragged, judged and drawn.
#include <QComboBox>
#include <QTabWidget>

#include "app/drawing/drive_pane.h"
#include "bench.h"
#include "core/assess/drive_state.h"
#include "said.h"

using namespace kranich;
using namespace kranich::app;

namespace {

void clear_drives(Bench& b) {
  b.document.edit("clear", [](Design& d) {
    for (auto& leg : d.gear.legs) {
      leg.retraction.drive = {};
      leg.retraction.uplock = {};
      leg.retraction.brace = {};
    }
  });
  b.settle();
}

}  // namespace

TEST_CASE("an actuator is entered from nothing on the Drive page, and every number asked for is there") {
  Bench b;
  clear_drives(b);
  b.go(Station::drive);
  b.press("drive-third");
  const QString base = "/gear/legs/third/retraction/drive/";
  auto* kind = b.find<QComboBox>("choice:" + base + "kind");
  kind->setCurrentIndex(static_cast<int>(DriveKind::actuator));
  emit kind->activated(static_cast<int>(DriveKind::actuator));
  b.settle();
  CHECK(b.document.design().gear.third().retraction.drive.kind == DriveKind::actuator);
  CHECK(b.worst("drive.force")->verdict == Verdict::unknown);
  for (const auto& [path, text] :
       {std::pair{"on_airframe/x_m", "1250"}, std::pair{"on_airframe/y_m", "0"},
        std::pair{"on_airframe/z_m", "20"}, std::pair{"on_leg/x_m", "840"}, std::pair{"on_leg/y_m", "0"},
        std::pair{"on_leg/z_m", "-220"}, std::pair{"stroke_m", "300"}, std::pair{"force_N", "2500"},
        std::pair{"speed_m_per_s", "0.05"}, std::pair{"airspeed_m_per_s", "0"}})
    b.type(base + QString::fromLatin1(path), QString::fromLatin1(text));
  CHECK(b.worst("drive.force")->verdict == Verdict::holds);
  CHECK(b.worst("drive.stroke")->verdict == Verdict::holds);
  CHECK(b.worst("drive.time"));
  b.type(base + "force_N", "200");
  CHECK(b.worst("drive.force")->verdict == Verdict::fails);
  b.type(base + "force_N", "plenty");
  CHECK(b.document.design().gear.third().retraction.drive.force.si == 200);
}

TEST_CASE("an actuator's end is dragged, and its force follows before the hand lets go") {
  Bench b;
  clear_drives(b);
  b.document.edit("actuator", [](Design& d) {
    Drive& r = d.gear.third().retraction.drive;
    r.kind = DriveKind::actuator;
    for (const auto& [p, x, z] :
         {std::tuple{&r.on_airframe, 1.25, 0.02}, std::tuple{&r.on_leg, 0.84, -0.22}}) {
      p->x = Given(x);
      p->y = Given(0.0);
      p->z = Given(z);
    }
    r.airspeed = Given(0.0);
    r.force = Given(2500.0);
    r.stroke = Given(0.3);
  });
  auto& page = b.go(Station::drive);
  b.press("drive-third");
  const double before = b.worst("drive.force")->value;
  const double x = b.value("/gear/legs/third/retraction/drive/on_airframe/x_m");
  b.drag(page, "drive-airframe", {0, -30});
  CHECK(b.worst("drive.force")->value != Approx(before));
  CHECK(b.value("/gear/legs/third/retraction/drive/on_airframe/x_m") == Approx(x).margin(1e-3));
  b.document.undo();
  b.settle();
  CHECK(b.worst("drive.force")->value == Approx(before));
  // Stowed, the ends are drawn where they are, and not dragged: they are given with the leg down.
  b.document.set_gear_position(1);
  b.settle();
  CHECK_FALSE(page.board()->handle_position("drive-leg"));
}

TEST_CASE("the Drive page says so of a leg that does not retract") {
  Bench b("Wheatear");
  auto& page = b.go(Station::drive);
  CHECK(page.isVisible());
  for (const auto& f : b.document.assessment().findings) CHECK_FALSE(f.measure_id.starts_with("drive."));
}

TEST_CASE("where an end may stand is drawn under the drive, follows the drag, and says what it lacks") {
  Bench b;
  auto& page = b.go(Station::drive);
  b.press("drive-main");
  auto* choice = b.find<QComboBox>("anchors-main");
  auto* said = b.find<QLabel>("anchors-said-main");
  auto* pane = page.board()->find<DrivePane>();
  REQUIRE(pane);
  CHECK_FALSE(pane->anchor_map());
  const QImage plain = page.board()->grab().toImage();
  const auto pick = [&](int index) {
    choice->setCurrentIndex(index);
    emit choice->activated(index);
    b.settle();
  };
  pick(1);
  REQUIRE(pane->anchor_map());
  CHECK_FALSE(pane->anchor_map()->clear.empty());
  CHECK(page.board()->grab().toImage() != plain);
  const double before = pane->anchor_map()->worth->gain;
  b.drag(page, "drive-airframe", {-14, 10});
  REQUIRE(pane->anchor_map());
  CHECK(pane->anchor_map()->worth->gain != before);
  b.document.undo();
  // The other end has its own.
  pick(2);
  REQUIRE(pane->anchor_map());
  CHECK(pane->anchor_map()->worth->gain != before);
  b.type("/gear/legs/main/retraction/drive/stroke_m", "");
  CHECK(said->text().contains("stroke"));
  b.document.undo();
  b.document.edit("", [](Design& d) { d.gear.main().retraction.drive.on_leg = Point(); });
  b.settle();
  CHECK_FALSE(pane->anchor_map());
  CHECK(said->text().contains("needs"));
  pick(0);
  CHECK(said->text().isEmpty());
}
