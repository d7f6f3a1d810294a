// SPDX-License-Identifier: GPL-3.0-or-later
//! Drive: typed, dragged, judged and drawn.
#include <QComboBox>
#include <QTabWidget>

#include "app/document/journal.h"
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

TEST_CASE(
    "end points are sent to a servo tester; an end that binds is pulled back till it rests, and noted") {
  Bench b("Redshank");
  b.go(Station::drive);
  auto* how = b.find<QComboBox>("servo-how:main");
  Fold::open_around(how);
  auto* stowed = b.find<QPushButton>("servo-stowed:main");
  auto* state = b.find<QLabel>("servo-state:main");
  CHECK_FALSE(stowed->isEnabled());
  CHECK(state->text() == "no servo tester connected");
  const auto unit = std::get<drive::TestedUnit>(tested_unit(b.document.design().gear.main()));
  const double end = drive::end_point(unit, true);
  CHECK(stowed->text() == QStringLiteral("Stowed, %1 %").arg(end, 0, 'f', 1));

  // A rod that gives lets the servo rest over its centre: the unit tells of the stop that comes early.
  how->setCurrentIndex(2);
  b.press("servo-simulate:main");
  REQUIRE(eventually([&] { return stowed->isEnabled(); }));
  b.press("servo-stowed:main");
  REQUIRE(
      eventually([&] { return b.find<QLabel>("servo-found:main")->text().contains("its stop holds it"); }));
  // A stiff one binds.
  b.document.edit("Stiff rod", [](Design& d) { d.gear.main().retraction.drive.rod_stiffness = Given(4e6); });
  b.settle();
  b.press("servo-simulate:main");
  auto* found = b.find<QLabel>("servo-found:main");
  REQUIRE(eventually([&] { return state->text().startsWith("at 0.0 %"); }));
  b.press("servo-down:main");
  REQUIRE(eventually([&] { return found->text().contains("✓ down"); }));
  CHECK(found->text().startsWith(QStringLiteral("✓ down: rests at −%1 %, unit 0 %").arg(end, 0, 'f', 1)));
  b.press("servo-stowed:main");
  REQUIRE(eventually([&] { return found->text().contains("binds"); }));
  CHECK(state->text().contains("binds, and draws that as long as it is on"));
  auto* back = b.find<QPushButton>("servo-back:main");
  REQUIRE(back->isEnabled());
  b.press("servo-back:main");
  REQUIRE(eventually([&] { return found->text().contains("rests from"); }));
  // By one per cent at a time: the first at which it gives next to nothing.
  auto early = std::get<drive::TestedUnit>(tested_unit(b.document.design().gear.main()));
  early.stowed_early = radians(3);
  const auto words = found->text().section("rests from ", 1).section(' ', 0, 0).toDouble();
  CHECK(words > drive::binds_from(early, true) - 1.01);
  CHECK(words < end);
  drive::ServoTester tester(early);
  tester.go(words);
  tester.advance(20);
  CHECK_FALSE(tester.now().binds);
  tester.go(words + 1);
  tester.advance(20);
  CHECK(tester.now().binds);

  const size_t before = b.document.journal().book().entries.size();
  b.press("servo-write:main");
  REQUIRE(b.document.journal().book().entries.size() == before + 1);
  const std::string note = b.document.journal().book().entries.back().note;
  CHECK(note.find("Servo tester, main leg") != std::string::npos);
  CHECK(note.find("rests from") != std::string::npos);

  // A number typed is sent as it is; nonsense is not.
  auto* to = b.find<QLineEdit>("servo-percent:main");
  to->setText("−20");
  QTest::keyClick(to, Qt::Key_Return);
  REQUIRE(eventually([&] { return state->text().startsWith("at −20.0 %"); }));
  to->setText("far");
  QTest::keyClick(to, Qt::Key_Return);
  CHECK(state->text().contains("a number from −150 to 150"));
  // What the servo lacks is asked for, and nothing can be sent till it is there.
  b.document.edit("No stiffness", [](Design& d) { d.gear.main().retraction.drive.rod_stiffness = {}; });
  b.settle();
  CHECK_FALSE(stowed->isEnabled());
}
