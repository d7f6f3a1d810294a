// SPDX-License-Identifier: GPL-3.0-or-later
//! Spring by hand: its four views, the ladder and the shelf, the bump dragged, many landings tried, the rig
//! dropped, fitted and taken over.
#include <QComboBox>
#include <QLabel>
#include <QProgressBar>
#include <QTableWidget>

#include "app/stations/spring_shelf.h"
#include "bench.h"
#include "core/io/rig_csv.h"
#include "said.h"

using namespace kranich;
using namespace kranich::app;

namespace {

QString says(Bench& b, const char* name) { return b.find<QLabel>(QString::fromLatin1(name))->text(); }

}  // namespace

TEST_CASE("the four views of a leg show what they are about") {
  Bench b("Redshank");
  b.go(Station::spring);
  CHECK(b.find<QTableWidget>("shelf")->isVisible());
  CHECK_FALSE(b.find<QPushButton>("run-scatter")->isVisible());
  b.press("view-bump");
  CHECK_FALSE(b.find<QTableWidget>("shelf")->isVisible());
  CHECK(b.find<QPushButton>("play-bump")->isVisible());
  b.press("view-scatter");
  CHECK(b.find<QPushButton>("run-scatter")->isVisible());
  b.press("view-bench");
  CHECK(b.find<QPushButton>("rig-simulate")->isVisible());
  CHECK(b.find<QTableWidget>("list:/spring_bench/readings")->rowCount() == 9);
  b.press("view-landing");
  CHECK(b.find<QPushButton>("play-landing")->isVisible());
}

TEST_CASE("switching the leg changes its fields and its shelf") {
  Bench b("Redshank");
  auto& page = b.go(Station::spring);
  const auto visible = [&](const char* path) {
    return page.findChild<QLineEdit*>(QStringLiteral("field:%1").arg(path))->isVisible();
  };
  CHECK(visible("/gear/legs/main/spring/coil/wire_diameter_m"));
  CHECK_FALSE(visible("/gear/legs/third/spring/bent/wire_diameter_m"));
  b.press("spring-third");
  CHECK_FALSE(visible("/gear/legs/main/spring/coil/wire_diameter_m"));
  CHECK(visible("/gear/legs/third/spring/bent/wire_diameter_m"));
  // The tail leg is bent wire: wires stand on its shelf.
  CHECK(b.find<QTableWidget>("shelf")->item(0, 0)->text().contains("W"));
}

TEST_CASE("the kind of spring decides which fields there are") {
  Bench b("Redshank");
  b.go(Station::spring);
  auto* kind = b.find<QComboBox>("choice:/gear/legs/main/spring/kind");
  const auto visible = [&](const char* path) {
    return b.find<QLineEdit>(QStringLiteral("field:/gear/legs/main/spring/%1").arg(path))->isVisible();
  };
  const auto choose = [&](const char* name) {
    kind->setCurrentText(name);
    emit kind->activated(kind->currentIndex());
    b.settle();
  };
  choose("gas strut");
  CHECK(visible("gas_strut/extended_force_N"));
  CHECK_FALSE(visible("coil/free_length_m"));
  choose("rubber pucks");
  CHECK(visible("pucks/shear_modulus_Pa"));
  choose("cord");
  CHECK(visible("cord/strands"));
  choose("linear");
  CHECK(visible("rate_N_per_m"));
  CHECK_FALSE(b.find<QTableWidget>("shelf")->isVisible());
  b.document.undo();
  b.settle();
  CHECK(visible("cord/strands"));
  choose("coil");
  CHECK_FALSE(visible("second/wire_diameter_m"));
  auto* second = b.find<QComboBox>("choice:/gear/legs/main/spring/partner");
  second->setCurrentIndex(1);
  emit second->activated(1);
  b.settle();
  CHECK(visible("second/wire_diameter_m"));
}

TEST_CASE("a lower design drop bottoms nothing, a higher one does") {
  Bench b("Redshank");
  b.go(Station::spring);
  CHECK(says(b, "ladder").contains("first bottoms at"));
  CHECK(says(b, "schools").contains(QString::fromUtf8("by drop ladder: 2.21\u00a0m/s")));
  b.type("/landing/ladder_height_m", "100");
  CHECK(b.worst("spring.drop_stroke")->verdict == Verdict::holds);
  b.type("/landing/ladder_height_m", "700");
  CHECK(b.worst("spring.drop_stroke")->verdict == Verdict::fails);
  CHECK(says(b, "ladder").contains("guard the sides"));
  CHECK(says(b, "ladder").contains("it comes back at"));
}

TEST_CASE("the landing plays and comes to its end") {
  Bench b("Dunnock");
  auto& page = b.go(Station::spring);
  const QImage still = page.board()->grab().toImage();
  b.press("play-landing");
  QTest::qWait(250);
  const QImage moving = page.board()->grab().toImage();
  CHECK(moving != still);
  b.press("spring-third");  // another leg stops it
  const QImage third = page.board()->grab().toImage();
  QTest::qWait(120);
  CHECK(page.board()->grab().toImage() == third);
}

TEST_CASE("offers chosen on the shelf are drawn beside the leg's own") {
  Bench b("Redshank");
  auto& page = b.go(Station::spring);
  auto* shelf = b.find<QTableWidget>("shelf");
  const QImage alone = page.board()->grab().toImage();
  shelf->selectRow(0);
  b.settle();
  CHECK(page.board()->grab().toImage() != alone);
  shelf->clearSelection();
  shelf->setSelectionMode(QAbstractItemView::MultiSelection);
  for (int r = 0; r < 5; ++r) shelf->selectRow(r);
  b.settle();
  CHECK(page.findChild<ShelfPanel*>()->compared().size() == 3);  // three at most
}

TEST_CASE("the bump is dragged in the drawing") {
  Bench b("Dunnock");
  auto& page = b.go(Station::spring);
  b.press("view-bump");
  CHECK(says(b, "bump-says").contains("As a trailing link"));
  const double before = b.value("/bump/height_m");
  const double factor = b.worst("spring.bump_factor")->value;
  b.drag(page, "bump-height", QPoint(0, -12));
  CHECK(b.value("/bump/height_m") > before);
  CHECK(b.worst("spring.bump_factor")->value > factor);
  const double length = b.value("/bump/length_m");
  b.drag(page, "bump-length", QPoint(20, 0));
  CHECK(b.value("/bump/length_m") > length);
  b.document.undo();
  b.document.undo();
  CHECK(b.value("/bump/height_m") == Approx(before));
  b.press("play-bump");
  const QImage one = page.board()->grab().toImage();
  QTest::qWait(200);
  CHECK(page.board()->grab().toImage() != one);
}

TEST_CASE("a bump without a length is a step; one as high as the wheel is refused by name") {
  Bench b("Dunnock");
  b.go(Station::spring);
  b.press("view-bump");
  b.type("/bump/length_m", "");
  CHECK(says(b.worst("spring.bump_factor")->remark, "step"));
  b.type("/bump/height_m", "300");
  CHECK(b.worst("spring.bump_factor")->verdict == Verdict::unknown);
  b.type("/bump/height_m", "-5");
  CHECK(b.value("/bump/height_m") == Approx(0.3));  // the last good value stays
}

TEST_CASE("many landings are tried in the background, and forgotten when the design changes") {
  Bench b("Redshank");
  auto& page = b.go(Station::spring);
  b.press("view-scatter");
  b.type("/scatter/drops", "4000");
  b.press("run-scatter");
  CHECK(b.find<QPushButton>("run-scatter")->text() == "Call it off");
  REQUIRE(eventually([&] { return says(b, "scatter-says").contains("of 4000 drops bottom"); }));
  CHECK(b.find<QPushButton>("run-scatter")->text() == "Try the drops");
  CHECK(b.find<QProgressBar>("scatter-progress")->value() == 1000);
  const QImage bars = page.board()->grab().toImage();
  b.type("/scatter/sink_speed", "25");
  CHECK(says(b, "scatter-says").contains("changed since"));
  CHECK(page.board()->grab().toImage() != bars);
}

TEST_CASE("many landings can be called off") {
  Bench b("Redshank");
  b.go(Station::spring);
  b.press("view-scatter");
  b.type("/scatter/drops", "100000");
  b.press("run-scatter");
  QTest::qWait(100);
  b.press("run-scatter");
  REQUIRE(eventually([&] { return says(b, "scatter-says") == "called off"; }));
  CHECK(b.find<QProgressBar>("scatter-progress")->value() == 0);
}

TEST_CASE("the simulated rig is dropped, fitted, kept and taken over") {
  Bench b("Redshank");
  b.go(Station::spring);
  b.press("view-bench");
  CHECK(says(b, "rig-says").contains("On the scales"));
  CHECK_FALSE(b.find<QPushButton>("rig-keep")->isEnabled());
  const double turns = b.value("/gear/legs/main/spring/coil/active_turns");
  const double wire = b.value("/gear/legs/main/spring/coil/wire_diameter_m");
  const double damping = b.value("/gear/legs/main/spring/damping_closing_N_s_per_m");
  b.press("rig-simulate");
  REQUIRE(eventually([&] { return says(b, "rig-says").contains("times what was foretold"); }));
  CHECK(b.find<QPushButton>("rig-keep")->isEnabled());
  b.press("rig-keep");
  REQUIRE(b.document.design().spring_bench.drops.size() == 3);
  const DropTest& drop = b.document.design().spring_bench.drops.back();
  CHECK(drop.height == Approx(0.25));
  CHECK(drop.stroke > 0.03);
  CHECK(drop.foretold_stroke > 0.03);
  CHECK(drop.acceleration > 3);
  b.press("rig-take");
  // The stand-in is 12 % stiffer and 15 % less damped than the design.
  const auto wire_now = b.value("/gear/legs/main/spring/coil/wire_diameter_m");
  const auto turns_now = b.value("/gear/legs/main/spring/coil/active_turns");
  CHECK(std::pow(wire_now / wire, 4) * turns / turns_now == Approx(1.12).epsilon(0.05));
  CHECK(b.value("/gear/legs/main/spring/damping_closing_N_s_per_m") == Approx(0.85 * damping).epsilon(0.05));
  b.document.undo();
  CHECK(b.value("/gear/legs/main/spring/coil/active_turns") == Approx(turns));
}

TEST_CASE("loads on the scales are typed, fitted and taken over") {
  Bench b("Wheatear");
  b.go(Station::spring);
  b.press("spring-third");
  b.press("view-bench");
  b.document.edit("readings", [](Design& d) {
    for (const double s : {0.0, 0.01, 0.02, 0.03}) {
      LoadReading r;
      r.leg = "third";
      r.load = Given(50 + 22000 * s);
      r.closure = Given(s);
      d.spring_bench.readings.push_back(r);
    }
  });
  b.settle();
  CHECK(says(b, "rig-says").contains("rate 22"));
  b.press("rig-take");
  CHECK(b.value("/gear/legs/third/spring/rate_N_per_m") == Approx(22000));
  CHECK(b.value("/gear/legs/third/spring/preload_N") == Approx(50));
}

TEST_CASE("a serial line that is not there is said so") {
  Bench b("Redshank");
  b.go(Station::spring);
  b.press("view-bench");
  auto* port = b.find<QLineEdit>("rig-device");
  port->setText("/dev/no-such-line");
  QTest::keyClick(port, Qt::Key_Return);
  b.settle();
  CHECK(says(b, "rig-says").contains("/dev/no-such-line cannot be opened"));
}

TEST_CASE("the reason for the school taken is written down") {
  Bench b("Redshank");
  b.go(Station::spring);
  auto* why = b.find<QLineEdit>("text:/landing/reason");
  CHECK(why->text().contains("heavy model"));
  why->setFocus();
  why->selectAll();
  QTest::keyClicks(why, "club rule");
  QTest::keyClick(why, Qt::Key_Return);
  b.settle();
  CHECK(b.document.design().landing.reason == "club rule");
}
