// SPDX-License-Identifier: GPL-3.0-or-later
//! Weigh, Place and Stance by hand: the map, the shelf, the table sheet, scales, variants, tolerances; and
//! the README's walk-throughs.
#include <sys/stat.h>

#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QListWidget>
#include <QMenu>
#include <QTableWidget>
#include <QTemporaryDir>
#include <QToolButton>

#include "app/drawing/map_pane.h"
#include "app/widgets/dialogs.h"
#include "bench.h"
#include "core/assess/loading_state.h"
#include "core/io/bench_line.h"
#include "said.h"

using namespace kranich;
using namespace kranich::app;

namespace {

int failing(const Document& d) {
  int n = 0;
  for (const Finding* f : worst_of_each(d.assessment())) n += f->verdict == Verdict::fails;
  return n;
}

void choose_and_try(Bench& b, Station station, const std::string& key, const QString& knob) {
  auto& page = b.go(station);
  page.findings()->choose(key);
  REQUIRE(eventually([&] { return page.findChild<QPushButton*>("try:" + knob) != nullptr; }));
  page.findChild<QPushButton*>("try:" + knob)->click();
  b.settle();
}

}  // namespace

TEST_CASE("the design is dragged in the map, its old place stays beside it", "[window]") {
  Bench b;
  auto& place = b.go(Station::place);
  const Design before = b.document.design();
  b.drag(place, "map", {-20, 0});
  const double moved = b.value("/gear/legs/main/axle/x_m") - 2.45;
  CHECK(moved < -0.01);
  CHECK(b.value("/gear/legs/main/axle/z_m") == Approx(-0.752));
  CHECK(b.value("/gear/legs/main/retraction/pivot/x_m") - 2.45 == Approx(moved));
  b.drag(place, "map", {0, -15});  // up: all legs longer
  CHECK(b.value("/gear/legs/main/axle/z_m") < -0.752);
  CHECK(b.value("/gear/legs/third/axle/z_m") < -0.772);
  QTest::keyClick(b.window.get(), Qt::Key_Z, Qt::ControlModifier);
  QTest::keyClick(b.window.get(), Qt::Key_Z, Qt::ControlModifier);
  b.settle();
  CHECK(b.document.design() == before);
  // The arrow keys move it by a millimetre there too.
  place.board()->setFocus();
  for (int i = 0; i < 30 && place.board()->focused_handle() != "map"; ++i)
    QTest::keyClick(place.board(), Qt::Key_Tab);
  REQUIRE(place.board()->focused_handle() == "map");
  QTest::keyClick(place.board(), Qt::Key_Left);
  CHECK(b.value("/gear/legs/main/axle/x_m") == Approx(2.449).margin(1e-9));
}

TEST_CASE("the mains go as far forward as the spar lets them") {
  Bench b;
  b.go(Station::place);
  b.find<QPushButton>("as-far-forward")->click();
  b.settle();
  CHECK(b.value("/gear/legs/main/axle/x_m") == Approx(2.285).margin(1e-9));
  CHECK_FALSE(b.find<QPushButton>("as-far-forward")->isEnabled());
  CHECK(b.worst("place.keep_out")->value == Approx(0).margin(1e-9));
}

TEST_CASE("the width over the axle tips is the track said the other way") {
  Bench b;
  b.go(Station::place);
  auto* width = b.find<QLineEdit>("overall-width");
  CHECK(width->text() == "2910");
  width->setFocus();
  width->selectAll();
  QTest::keyClicks(width, "3 m");
  QTest::keyClick(width, Qt::Key_Return);
  b.settle();
  CHECK(b.value("/gear/legs/main/axle/y_m") == Approx(1.415));
  width->selectAll();
  QTest::keyClicks(width, "50 mm");
  QTest::keyClick(width, Qt::Key_Return);
  b.settle();
  CHECK(b.value("/gear/legs/main/axle/y_m") == Approx(1.415));  // refused, the last good value stays
  CHECK(width->text() == "3000");
}

TEST_CASE("a wheel is fitted from the shelf, and full size turned to scale") {
  Bench b("Redshank");
  b.go(Station::place);
  b.find<QPushButton>("wheels-main")->click();
  b.settle();
  auto* table = b.find<QTableWidget>("wheel-shelf");
  REQUIRE(table->rowCount() > 4);
  const double before = b.value("/gear/legs/main/wheel/diameter_m");
  int row = 0;
  while (table->item(row, 0)->text().contains("fitted")) ++row;
  const QString name = table->item(row, 0)->text();
  table->setCurrentCell(row, 0);
  emit table->cellActivated(row, 0);
  b.settle();
  CHECK(QString::fromStdString(b.document.design().gear.main().wheel.shelf_name) == name);
  CHECK(b.value("/gear/legs/main/wheel/fork_gap_m") == Approx(0.004));
  CHECK(b.find<QLabel>("wheel-mass")->text().contains("edger"));  // what its mass did is said
  b.document.undo();
  CHECK(b.value("/gear/legs/main/wheel/diameter_m") == before);
  auto* from = b.find<QLineEdit>("scale-from");
  QTest::keyClicks(from, "680 mm");
  INFO(b.find<QLabel>("scale-to")->text().toStdString());
  CHECK(b.find<QLabel>("scale-to")->text().contains("136"));
}

TEST_CASE("what was read on the table stands beside what was computed", "[window]") {
  Bench b("Wheatear");
  b.go(Station::stance);
  auto* sheet = b.find<QTableWidget>("table-sheet");
  int row = -1;
  for (int r = 0; r < sheet->rowCount(); ++r)
    if (sheet->item(r, 0)->text() == "main axles") row = r;
  REQUIRE(row >= 0);
  const double computed = sheet->item(row, 1)->text().toDouble();
  sheet->item(row, 3)->setText(QString::number(computed + 9));
  b.settle();
  sheet->item(row, 4)->setText(QString::number(computed + 4));
  b.settle();
  REQUIRE(b.document.design().stance.readings.size() == 1);
  CHECK(b.document.design().stance.readings[0].build_state == "engine in");
  CHECK(sheet->item(row, 5)->text().contains("9"));
  CHECK(sheet->item(row, 6)->text().contains("5"));
  CHECK(b.worst("stance.table")->verdict == Verdict::fails);
  sheet->item(row, 3)->setText("high");
  b.settle();
  CHECK(sheet->item(row, 3)->text().toDouble() == Approx(computed + 9).margin(0.11));
}

TEST_CASE("the simulated scales are read into the weighing") {
  Bench b;
  b.go(Station::weigh);
  b.find<QPushButton>("read-scales")->click();
  b.settle();
  b.find<QPushButton>("scales-simulate")->click();
  auto* take = b.find<QPushButton>("scales-take-level");
  REQUIRE(eventually([&] { return take->isEnabled(); }));
  CHECK(b.find<QLabel>("scale:main-port")->text().contains("kg"));
  take->click();
  b.settle();
  const auto& w = b.document.design().weighing;
  REQUIRE(w.scales.size() == 3);
  for (const auto& s : w.scales) {
    CHECK(s.reading.origin == Origin::measured);
    CHECK(s.reading.tolerance > 0);
    CHECK(s.x.known());
  }
  CHECK(w.build_state == "ready to fly");
  // The set carries what the ledger says: scales and ledger agree to the noise.
  CHECK(std::abs(b.worst("weigh.scales_mass")->value) < 1.5);
}

TEST_CASE("scales on a pipe: what they say on the way to rest is not averaged in, and the end is told") {
  Bench b;
  b.go(Station::weigh);
  b.find<QPushButton>("read-scales")->click();
  b.settle();
  QTemporaryDir dir;
  const QByteArray pipe = dir.filePath("scales").toLocal8Bit();
  REQUIRE(::mkfifo(pipe.constData(), 0600) == 0);
  auto* device = b.find<QLineEdit>("scales-device");
  device->setText(QString::fromLocal8Bit(pipe));
  QTest::keyClick(device, Qt::Key_Return);
  QFile writer(QString::fromLocal8Bit(pipe));
  REQUIRE(writer.open(QIODevice::WriteOnly | QIODevice::Unbuffered));
  const auto send = [&](double third, bool steady) {
    const BenchLine line{
        "SCALES", {{"third", third}, {"port", 170}, {"starboard", 171}, {"steady", steady ? 1.0 : 0.0}}};
    writer.write(QByteArray::fromStdString(format_bench_line(line)) + "\n");
  };
  auto* take = b.find<QPushButton>("scales-take-level");
  for (int i = 0; i < 8; ++i) send(40 + i, false);
  for (int i = 0; i < 4; ++i) send(100 + 0.1 * i, true);
  REQUIRE(eventually([&] {
    auto* third = b.window->findChild<QLabel*>("scale:third");
    return third && third->text().startsWith("100.");
  }));
  // Each is taken for the wheel its name means.
  CHECK(b.find<QComboBox>("scale-under:port")->currentText() == "port main wheel");
  CHECK(!take->isEnabled());
  send(100.4, true);
  REQUIRE(eventually([&] { return take->isEnabled(); }));
  take->click();
  b.settle();
  const auto& scales = b.document.design().weighing.scales;
  const auto third =
      std::find_if(scales.begin(), scales.end(), [](const auto& s) { return s.leg == "third"; });
  REQUIRE(third != scales.end());
  CHECK(third->reading.si == Approx(100.2));
  CHECK(third->reading.tolerance == Approx(0.2));
  writer.close();
  REQUIRE(eventually([&] { return !take->isEnabled(); }));
  CHECK(b.find<QLabel>("scales-state")->text().contains("closed"));
}

TEST_CASE("a difference of scales and ledger is taken over by choice only") {
  Bench b;
  b.go(Station::weigh);
  b.find<QTableWidget>("list:/weighing/scales")->item(0, 1)->setText("108");
  b.settle();
  REQUIRE(b.worst("weigh.scales_mass")->verdict == Verdict::fails);
  const size_t items = b.document.design().ledger.size();
  b.find<QPushButton>("reconcile")->click();
  b.settle();
  REQUIRE(b.document.design().ledger.size() == items + 1);
  CHECK(b.document.design().ledger.back().name == "found on the scales");
  CHECK(std::abs(b.worst("weigh.scales_mass")->value) < 1e-6);
  CHECK(std::abs(b.worst("weigh.scales_cg")->value) < 1e-6);
  auto* target = b.find<QLineEdit>("ballast-target");
  QTest::keyClicks(target, "2100");
  QTest::keyClicks(b.find<QLineEdit>("ballast-place"), "700");
  CHECK(b.find<QLabel>("ballast-answer")->text().contains("kg"));
  CHECK(b.find<QLabel>("ballast-answer")->text().contains("battery"));
}

TEST_CASE("variants are kept, compared and taken up again") {
  Bench b("Wheatear");
  QTest::keyClick(b.window.get(), Qt::Key_K, Qt::ControlModifier);
  b.settle();
  auto* name = b.find<QLineEdit>("variant-name");
  QTest::keyClicks(name, "as drawn");
  b.find<QPushButton>("variant-keep")->click();
  b.type("/gear/legs/main/axle/x_m", "1200");
  auto* table = b.find<QTableWidget>("compare-table");
  CHECK(table->columnCount() == 3);
  CHECK(table->rowCount() > 20);
  INFO(b.find<QLabel>("compare-changed")->text().toStdString());
  CHECK(b.find<QLabel>("compare-changed")->text().contains("1240"));
  auto* list = b.find<QListWidget>("variant-list");
  REQUIRE(list->count() == 1);
  list->item(0)->setCheckState(Qt::Checked);
  b.settle();
  REQUIRE(b.document.laid_over().size() == 1);
  CHECK(b.document.laid_over()[0].design.gear.main().axle.x.si == 1.24);
  list->setCurrentRow(0);
  b.find<QPushButton>("variant-take")->click();
  b.settle();
  CHECK(b.value("/gear/legs/main/axle/x_m") == 1.24);
  CHECK(b.document.design().variants.size() == 1);
  b.find<QDialog>("compare-dialog")->close();
  QTest::qWait(10);
  b.settle();
  CHECK(b.document.laid_over().empty());
}

TEST_CASE("a tolerance is typed, worked out in the background and told in the why") {
  Bench b;
  auto& place = b.go(Station::place);
  b.type("/gear/legs/main/axle/x_m", "2450 ± 12");
  CHECK(b.document.design().gear.main().axle.x.tolerance == Approx(0.012));
  REQUIRE(eventually([&] { return b.document.tolerances() != nullptr; }));
  place.findings()->choose("place.nose_share|");
  b.settle();
  CHECK(place.findings()->why().contains("Over the build tolerances"));
  CHECK(place.findings()->why().contains("Station"));
  place.findings()->choose("place.ground_pressure|wheel:main");
  b.settle();
  CHECK(place.findings()->why().contains("undecided"));
  // A figure without a limit opens its formula too.
  place.findings()->choose("place.furthest_aft|");
  b.settle();
  CHECK(place.findings()->why().contains("solved for x_m"));
  b.find<QToolButton>("origin:/gear/legs/main/wheel/width_m")->menu()->actions()[3]->trigger();
  CHECK(b.document.design().gear.main().wheel.width.origin == Origin::undecided);
}

TEST_CASE("legs are bent out at constant length by a drag") {
  Bench b("Wheatear");
  auto& place = b.go(Station::place);
  const Leg before = b.document.design().gear.main();
  b.drag(place, "bend", {-6, 0});
  const Leg& after = b.document.design().gear.main();
  CHECK(after.axle.y > before.axle.y);
  CHECK(after.axle.z > before.axle.z);
  CHECK((after.axle.vec() - after.top.vec()).norm() == Approx((before.axle.vec() - before.top.vec()).norm()));
  CHECK(after.camber < before.camber);
}

TEST_CASE("the walk-through of Dunnock: one switch, two moves and nothing fails", "[window]") {
  Bench b;
  REQUIRE(failing(b.document) == 6);
  choose_and_try(b, Station::logic, "logic.lamp|gear", "logic.down_both");
  b.proved();
  choose_and_try(b, Station::swing, "swing.clearance|legs:third", "third.length");
  choose_and_try(b, Station::place, "place.nose_share|", "main.station");
  CHECK(failing(b.document) == 0);
}

TEST_CASE("the walk-through of Redshank: the axle forward, the door later") {
  Bench b("Redshank");
  REQUIRE(failing(b.document) == 2);
  choose_and_try(b, Station::place, "place.axle_ahead|", "main.station");
  choose_and_try(b, Station::sequence, "sequence.door_wait|outer doors, going up",
                 "sequence.doors_close_later");
  CHECK(failing(b.document) == 0);
}

TEST_CASE("the walk-through of Wheatear: the axle forward, dragged") {
  Bench b("Wheatear");
  REQUIRE(failing(b.document) == 2);
  auto& place = b.go(Station::place);
  for (int i = 0; i < 8 && failing(b.document) > 0; ++i) b.drag(place, "main", {-3, 0});
  CHECK(failing(b.document) == 0);
  CHECK(b.value("/gear/legs/main/axle/x_m") > 1.15);
  CHECK(b.worst("place.axle_ahead")->verdict != Verdict::fails);
}

TEST_CASE("the landing is played, its ladder told, and stiffer damping changes it", "[window]") {
  Bench b;
  auto& spring = b.go(Station::spring);
  auto* ladder = b.find<QLabel>("ladder");
  CHECK(ladder->text().contains("first bottoms at"));
  const auto stroke = [&] {
    for (const auto& f : b.document.assessment().findings)
      if (f.measure_id == "spring.drop_stroke" && in_words(f.subject.words) == "main leg") return f.value;
    return 0.0;
  };
  const double before = stroke();
  const QImage still = spring.board()->grab().toImage();
  b.find<QPushButton>("play-landing")->click();
  CHECK(eventually([&] { return spring.board()->grab().toImage() != still; }));
  b.type("/gear/legs/main/spring/orifice_closing_m2", "20");
  CHECK(stroke() < before);
  b.document.edit("forget it", [](Design& d) { d.gear.main().unsprung_mass = {}; });
  bool said = false;
  for (const auto& f : b.document.assessment().findings)
    if (f.measure_id == "spring.drop_factor" && f.verdict == Verdict::unknown)
      said = says(f.remark, "unsprung mass");
  CHECK(said);
}
