// SPDX-License-Identifier: GPL-3.0-or-later
//! What every station must do, tried on the new ones: keys, units, pinning, limits of one's own, variants,
//! small and dark windows, exports.
#include <QComboBox>
#include <QFile>
#include <QLabel>
#include <QTableWidget>
#include <QTemporaryDir>

#include "app/drawing/pose.h"
#include "app/print/report.h"
#include "bench.h"
#include "core/assess/loading_state.h"
#include "core/io/variants.h"
#include "said.h"

using namespace kranich;
using namespace kranich::app;

namespace {

//! Share of a picture that is not its most frequent colour.
double drawn_on(const QImage& image) {
  QHash<QRgb, int> count;
  for (int y = 0; y < image.height(); y += 3)
    for (int x = 0; x < image.width(); x += 3) ++count[image.pixel(x, y)];
  int most = 0;
  int all = 0;
  for (const int n : count) {
    most = std::max(most, n);
    all += n;
  }
  return 1 - static_cast<double>(most) / all;
}

}  // namespace

TEST_CASE("the leg's handles are reached by Tab and moved by the arrow keys", "[window]") {
  Bench b("Wheatear");
  auto& page = b.go(Station::leg);
  page.board()->setFocus();
  for (int i = 0; i < 30 && page.board()->focused_handle() != "tube-top:0"; ++i)
    QTest::keyClick(page.board(), Qt::Key_Tab);
  REQUIRE(page.board()->focused_handle() == "tube-top:0");
  const double x = b.value("/gear/legs/main/tubes/0/top/x_m");
  QTest::keyClick(page.board(), Qt::Key_Right);
  CHECK(b.value("/gear/legs/main/tubes/0/top/x_m") == Approx(x + 0.001));
  QTest::keyClick(page.board(), Qt::Key_Up, Qt::ShiftModifier);
  CHECK(b.value("/gear/legs/main/tubes/0/top/z_m") == Approx(-0.3 + 0.010));
  QTest::keyClick(page.board(), Qt::Key_Left, Qt::AltModifier);
  CHECK(b.value("/gear/legs/main/tubes/0/top/x_m") == Approx(x + 0.0009));
  CHECK(page.board()->accessibleDescription().contains("front leg"));
}

TEST_CASE(
    "Ctrl+5 opens the leg, Ctrl+6 the swing, Ctrl+7 the drive, Ctrl+8 steering, Ctrl+9 doors, Ctrl+0 "
    "sequence",
    "[window]") {
  Bench b("Dunnock");
  const auto on = [&](int key, Station station) {
    QTest::keyClick(b.window.get(), static_cast<Qt::Key>(key), Qt::ControlModifier);
    return eventually([&] { return b.window->page(station)->isVisible(); });
  };
  CHECK(on(Qt::Key_5, Station::leg));
  CHECK(on(Qt::Key_6, Station::swing));
  CHECK(on(Qt::Key_7, Station::drive));
  CHECK(on(Qt::Key_8, Station::steer));
  CHECK(on(Qt::Key_9, Station::doors));
  CHECK(on(Qt::Key_0, Station::sequence));
  CHECK(on(Qt::Key_4, Station::spring));
}

TEST_CASE("in inches the leg, its sheets and its readings say inches and mean the same") {
  Bench b("Wheatear");
  b.go(Station::leg);
  auto* table = b.find<QTableWidget>("true-lengths");
  const double margin = b.part("main leg, rear leg")->value;
  QTest::mouseClick(b.find<QPushButton>("units"), Qt::LeftButton);
  b.settle();
  CHECK(table->horizontalHeaderItem(3)->text().contains("in"));
  CHECK(table->item(0, 3)->text().toDouble() == Approx(679.2 / 25.4).epsilon(1e-3));
  CHECK(b.part("main leg, rear leg")->value == Approx(margin));
  b.type("/gear/legs/main/axle_diameter_m", "1 1/4");
  CHECK(b.value("/gear/legs/main/axle_diameter_m") == Approx(0.03175));
  b.go(Station::spring);
  b.press("view-bump");
  CHECK(b.find<QLabel>("bump-says")->text().contains("lbf"));
}

TEST_CASE("a pinned design shows what a thinner tube costs") {
  Bench b("Wheatear");
  b.go(Station::leg);
  b.document.pin();
  const auto before = b.part("main leg, rear leg")->value;
  b.type("/gear/legs/main/tubes/1/diameter_m", "34");
  REQUIRE(b.document.pinned_assessment());
  const Finding* pinned = same_check(b.document.pinned_assessment(), *b.part("main leg, rear leg"));
  REQUIRE(pinned);
  CHECK(pinned->value == Approx(before));
  CHECK(b.part("main leg, rear leg")->value < before);
}

TEST_CASE("a limit of one's own decides for the leg too") {
  Bench b("Dunnock");
  b.go(Station::leg);
  REQUIRE(b.part("main leg, leg")->verdict == Verdict::holds);
  b.document.edit("own limit", [](Design& d) {
    OwnLimit l;
    l.measure = "leg.margin";
    l.reason = "the inspector wants double";
    l.lower = Given(1.0);
    d.own_limits.push_back(l);
  });
  b.settle();
  CHECK(b.part("main leg, leg")->verdict == Verdict::fails);
  CHECK(says(b.part("main leg, leg")->limit.source, "inspector"));
  CHECK(b.part("nose leg, leg")->verdict != Verdict::fails);
}

TEST_CASE("every view of Spring and Leg draws something, small and dark, with every leg") {
  for (const QString demo : {"Dunnock", "Redshank", "Wheatear"}) {
    Bench b(demo);
    b.window->resize(1100, 700);
    for (const bool dark : {false, true}) {
      b.window->set_dark(dark);
      b.settle();
      for (const char* leg : {"leg-main", "leg-third"}) {
        auto& page = b.go(Station::leg);
        b.press(leg);
        INFO(demo.toStdString() << " " << leg << (dark ? " dark" : ""));
        CHECK(drawn_on(page.board()->grab().toImage()) > 0.02);
      }
      for (const char* leg : {"spring-main", "spring-third"})
        for (const char* view : {"view-landing", "view-bump", "view-bench"}) {
          auto& page = b.go(Station::spring);
          b.press(leg);
          b.press(view);
          INFO(demo.toStdString() << " " << leg << " " << view << (dark ? " dark" : ""));
          CHECK(drawn_on(page.board()->grab().toImage()) > 0.02);
          CHECK(page.board()->width() >= 480);
        }
    }
    b.window->set_dark(false);
  }
}

TEST_CASE("no text of the panel runs out of it") {
  Bench b("Dunnock");
  for (const Station s : {Station::spring, Station::leg}) {
    auto& page = b.go(s);
    for (const auto* scroll : page.findChildren<QScrollArea*>()) {
      if (scroll->width() != 330) continue;
      CHECK(scroll->widget()->minimumSizeHint().width() <= scroll->viewport()->width());
    }
  }
}

TEST_CASE("the report and the table of figures hold the leg's findings") {
  Bench b("Wheatear");
  QTemporaryDir folder;
  REQUIRE_FALSE(write_report(b.document, folder.filePath("report.pdf")));
  CHECK(QFile(folder.filePath("report.pdf")).size() > 20000);
  REQUIRE_FALSE(write_figures(b.document, folder.filePath("figures.csv")));
  QFile figures(folder.filePath("figures.csv"));
  REQUIRE(figures.open(QIODevice::ReadOnly));
  const QByteArray text = figures.readAll();
  CHECK(text.contains("leg.margin"));
  CHECK(text.contains("\"main leg, rear leg\""));
  CHECK(text.contains("spring.bump_factor"));
  CHECK(text.contains("leg.square"));
}

TEST_CASE("variants differ by their tubes") {
  Bench b("Wheatear");
  b.document.edit("keep", [](Design& d) { keep_variant(d, "thick", ""); });
  b.type("/gear/legs/main/tubes/0/wall_m", "1.5");
  const auto thick = variant(b.document.design(), "thick");
  REQUIRE(thick);
  CHECK(thick->gear.main().tubes[0].wall == Approx(0.0025));
  CHECK(b.value("/gear/legs/main/tubes/0/wall_m") == Approx(0.0015));
  const auto there = assess(*thick);
  for (const auto& f : there.findings)
    if (f.measure_id == "leg.margin" && in_words(f.subject.words) == "main leg, front leg")
      CHECK(f.value > b.part("main leg, front leg")->value);
}

TEST_CASE("the rail counts what fails in the leg") {
  Bench b("Dunnock");
  b.type("/gear/legs/main/tube_wall_m", "1.2");
  auto* rail = b.find<QAbstractButton>("rail:leg");
  CHECK(rail->accessibleName().contains("1 fail"));
  b.document.undo();
  b.settle();
  CHECK(rail->accessibleName().contains("0 fail"));
}

TEST_CASE("an aircraft that leans is drawn leaning, with the low side's wheel on the ground") {
  Bench b("Nightjar");
  const Pose pose = pose_of(b.document.design(), b.document.loading(), GearState::static_load, 0);
  CHECK(degrees(pose.roll) == Approx(degrees(b.document.loading()->rest->roll)));
  REQUIRE(pose.roll > radians(4));
  int outriggers = 0;
  for (size_t i = 0; i < pose.placed.size(); ++i) {
    const double bottom = pose.front(pose.wheels[i].axle).y() - pose.wheels[i].radius;
    if (b.document.design().gear.legs[pose.placed[i].row].role == LegRole::outrigger) {
      ++outriggers;
      if (pose.placed[i].port)
        CHECK(bottom > 0.1);
      else
        CHECK(bottom == Approx(0).margin(0.001));
    } else {
      CHECK(bottom == Approx(0).margin(0.002));
    }
  }
  CHECK(outriggers == 2);
  // What is moved sideways moves along the leaning wing.
  const Vec3 moved = pose.move_from_front(-0.01, 0);
  const QPointF seen = pose.front(pose.cg + moved) - pose.front(pose.cg);
  CHECK(seen.x() == Approx(-0.01).epsilon(1e-4));
  CHECK(seen.y() == Approx(0).margin(1e-5));
  CHECK(pose_of(b.document.design(), b.document.loading(), GearState::extended, 0).roll == 0);
}

TEST_CASE("the original's wheels are marked on Stance, dragged onto the picture, and what differs is told") {
  Bench b("Wheatear");
  auto& page = b.go(Station::stance);
  CHECK_FALSE(page.board()->handle_position("original-main"));
  b.press("mark-original");
  const auto told = [&](const char* id, const std::string& leg) {
    for (const auto& f : b.document.assessment().findings)
      if (f.measure_id == id && f.subject.leg == leg) return f.value;
    return std::nan("");
  };
  const Design marked = b.document.design();
  const std::string main = marked.gear.main().id;
  CHECK(std::abs(told("stance.original_axle", main)) < 1e-3);
  CHECK(std::abs(told("stance.original_strut", main)) < 1e-3);
  b.drag(page, "original-main", {20, -10});
  const Original& o = b.document.design().original;
  CHECK(o.main_x > marked.original.main_x);
  CHECK(o.main_z > marked.original.main_z);
  CHECK(told("stance.original_axle", main) == Approx(marked.original.main_x - o.main_x).margin(1e-3));
  CHECK(told("stance.original_strut", main) == Approx(o.main_z - marked.original.main_z).margin(1e-3));
  const double diameter = o.main_diameter;
  b.drag(page, "original-main-rim", {10, 0});
  CHECK(b.document.design().original.main_diameter > diameter);
  CHECK(told("stance.original_wheel", main) ==
        Approx(b.document.design().gear.main().wheel.diameter - b.document.design().original.main_diameter));
  b.drag(page, "original-propeller", {0, -10});
  CHECK(told("stance.original_height", "") < 0);
  // Marked again, what was dragged stays.
  const Original before = b.document.design().original;
  b.press("mark-original");
  CHECK(b.document.design().original == before);
}
