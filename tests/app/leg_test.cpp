// SPDX-License-Identifier: GPL-3.0-or-later
//! Leg by hand: load cases, tubes dragged, materials chosen, joints typed, jig and bar read out.
#include <QComboBox>
#include <QLabel>
#include <QTabWidget>
#include <QTableWidget>

#include "bench.h"
#include "core/assess/strength_state.h"
#include "said.h"

using namespace kranich;
using namespace kranich::app;

namespace {

void choose(Bench& b, const QString& box, const QString& text) {
  auto* c = b.find<QComboBox>(box);
  const int i = c->findText(text);
  INFO(text.toStdString());
  REQUIRE(i >= 0);
  c->setCurrentIndex(i);
  emit c->activated(i);
  b.settle();
}
QTableWidget* list(Bench& b, const char* path) {
  return b.find<QTableWidget>(QStringLiteral("list:%1").arg(path));
}
int column(QTableWidget* t, const QString& title) {
  for (int c = 0; c < t->columnCount(); ++c)
    if (t->horizontalHeaderItem(c)->text().startsWith(title)) return c;
  FAIL("no column " << title.toStdString());
  return 0;
}

}  // namespace

TEST_CASE("the leg page tells true lengths, and the caution by the strengths") {
  Bench b("Wheatear");
  b.go(Station::leg);
  auto* table = b.find<QTableWidget>("true-lengths");
  REQUIRE(table->rowCount() == 2);
  CHECK(table->item(0, 0)->text() == "front leg");
  CHECK(table->item(0, 3)->text() == "679.2");
  CHECK(table->item(1, 3)->text() == "747.3");
  CHECK(table->item(0, 8)->text() == "2");
  bool between = false;
  for (const auto* l : b.window->page(Station::leg)->findChildren<QLabel*>())
    between = between || l->text().contains("front leg to rear leg: ");
  CHECK(between);
  CHECK(b.find<QLabel>("leg-caution")->text().contains("licensed"));
  b.press("leg-third");
  CHECK(table->rowCount() == 1);
}

TEST_CASE("a load case is chosen and told with its numbers") {
  Bench b("Dunnock");
  auto& page = b.go(Station::leg);
  auto* cases = b.find<QComboBox>("load-case");
  CHECK(cases->count() == 8);  // seven and the one that decides
  const QImage worst = page.board()->grab().toImage();
  choose(b, "load-case", "side load outboard");
  CHECK(b.find<QLabel>("case-note")->text().contains("side load outboard"));
  CHECK(b.find<QLabel>("case-note")->text().contains("where the tyre meets the ground"));
  CHECK(page.board()->grab().toImage() != worst);
  b.press("leg-third");
  CHECK(cases->count() == 5);
  CHECK(cases->currentIndex() == 0);
}

TEST_CASE("a tube's upper end is dragged and its strength follows") {
  Bench b("Wheatear");
  auto& page = b.go(Station::leg);
  const double before = b.value("/gear/legs/main/tubes/1/top/x_m");
  const double left = b.part("main leg, rear leg")->value;
  const QString length = b.find<QTableWidget>("true-lengths")->item(1, 3)->text();
  b.drag(page, "tube-top:1", QPoint(30, 0));
  CHECK(b.value("/gear/legs/main/tubes/1/top/x_m") > before);
  CHECK(b.part("main leg, rear leg")->value != left);
  CHECK(b.find<QTableWidget>("true-lengths")->item(1, 3)->text() != length);
  b.document.undo();
  b.settle();
  CHECK(b.part("main leg, rear leg")->value == Approx(left));
}

TEST_CASE("the brace is dragged from ahead and from the side") {
  Bench b("Dunnock");
  auto& page = b.go(Station::leg);
  const double y = b.value("/gear/legs/main/brace_airframe/y_m");
  b.drag(page, "brace-airframe-ahead", QPoint(-15, 0));
  CHECK(b.value("/gear/legs/main/brace_airframe/y_m") < y);
  const double z = b.value("/gear/legs/main/brace_leg/z_m");
  b.drag(page, "brace-leg", QPoint(0, 20));
  CHECK(b.value("/gear/legs/main/brace_leg/z_m") < z);
}

TEST_CASE("another material, another margin; one not in the table is not taken as something") {
  Bench b("Dunnock");
  b.go(Station::leg);
  const double steel = b.part("main leg, leg")->value;
  choose(b, "material:/gear/legs/main/material", "mild steel");
  CHECK(b.part("main leg, leg")->value < steel);
  CHECK(b.find<QComboBox>("material:/gear/legs/main/material")
            ->toolTip()
            .contains("confirm with your supplier"));
  b.document.edit("odd", [](Design& d) { d.gear.main().material = "cheese"; });
  b.settle();
  CHECK(b.part("main leg, leg")->verdict == Verdict::unknown);
  CHECK(b.find<QComboBox>("material:/gear/legs/main/material")->currentText().contains("not in the table"));
}

TEST_CASE("a wall too thin fails, and a cure put in mends it") {
  Bench b("Dunnock");
  auto& page = b.go(Station::leg);
  b.type("/gear/legs/main/tube_wall_m", "1.5");
  const auto* f = b.part("main leg, leg");
  REQUIRE(f->verdict == Verdict::fails);
  page.findings()->choose(f->key());
  REQUIRE(eventually([&] { return page.findings()->cure_count() > 0; }));
  CHECK(page.findings()->why().contains("upper end"));
  b.type("/gear/legs/main/tube_wall_m", "4");
  CHECK(b.part("main leg, leg")->verdict == Verdict::holds);
}

TEST_CASE("load factors and the local rule are the builder's") {
  Bench b("Dunnock");
  b.go(Station::leg);
  const double left = b.part("main leg, leg")->value;
  b.type("/load_factors/ultimate", "2.5");
  CHECK(b.part("main leg, leg")->value < left);
  CHECK(says(b.part("main leg, leg")->assumption, "club inspector"));
  b.type("/load_factors/ultimate", "0.5");
  CHECK(b.value("/load_factors/ultimate") == Approx(2.5));  // below 1 is refused
}

TEST_CASE("joints are typed in a list, and every cell is checked") {
  Bench b("Redshank");
  b.go(Station::leg);
  b.press("open-leg-lists");
  auto* joints = list(b, "/gear/legs/main/joints");
  REQUIRE(joints->rowCount() == 2);
  CHECK(joints->item(0, 0)->text() == "unit bolts");
  auto* bolts = list(b, "/gear/legs/main/joints/0/fasteners");
  REQUIRE(bolts->rowCount() == 4);
  const double left = b.part("main leg, unit bolts")->value;
  for (int r = 0; r < 4; ++r) bolts->item(r, column(bolts, "diameter"))->setText("2");
  b.settle();
  CHECK(b.part("main leg, unit bolts")->value < left);
  bolts->item(0, 0)->setText("wide");
  b.settle();
  CHECK(b.value("/gear/legs/main/joints/0/fasteners/0/u_m") == Approx(-0.027));
  joints->item(0, column(joints, "Of"))->setText("blind rivet, ordinary");
  b.settle();
  CHECK(says(b.part("main leg, unit bolts")->remark, "structural"));
  joints->item(0, column(joints, "Held by"))->setText("string");
  b.settle();
  CHECK(b.document.design().gear.main().joints[0].kind == JointKind::fasteners);
}

TEST_CASE("a printed leg: how it lies is chosen, and its bore's mouth is typed") {
  Bench b("Redshank");
  b.go(Station::leg);
  b.document.edit("material", [](Design& d) { d.gear.main().material = "printed, tough polyester"; });
  b.settle();
  REQUIRE(b.part("main leg, leg"));
  const double across = b.part("main leg, leg")->value;
  choose(b, "choice:/gear/legs/main/printed", "along the leg");
  const double along = b.part("main leg, leg")->value;
  CHECK(along > across);
  b.press("open-leg-lists");
  auto* sections = list(b, "/gear/legs/main/sections");
  CHECK(sections->rowCount() == 0);
  auto* add = qobject_cast<QWidget*>(sections->parentWidget())->findChild<QPushButton*>();
  for (int i = 0; i < 2; ++i) add->click();
  b.settle();
  REQUIRE(sections->rowCount() == 2);
  sections->item(0, column(sections, "From the upper end"))->setText("0");
  sections->item(1, column(sections, "From the upper end"))->setText("100 mm");
  sections->item(1, column(sections, "Width"))->setText("8");
  b.settle();
  CHECK(b.value("/gear/legs/main/sections/1/width_m") == Approx(0.008));
  CHECK(b.part("main leg, leg")->value < along);  // thinner towards its lower end
  sections->item(1, column(sections, "Hole along it"))->setText("9");
  b.settle();
  CHECK(b.part("main leg, leg")->verdict == Verdict::unknown);
  CHECK(says(b.part("main leg, leg")->remark, "hole"));
}

TEST_CASE("a material of one's own is added and used") {
  Bench b("Dunnock");
  b.go(Station::leg);
  b.press("open-leg-lists");
  auto* tabs = b.find<QTabWidget>("leg-tabs");
  CHECK(tabs->count() == 4);
  tabs->setCurrentIndex(1);
  CHECK(b.find<QTableWidget>("typical-materials")->rowCount() > 20);
  b.document.edit("material", [](Design& d) {
    d.materials.push_back({});
    d.materials.back().name = "club steel";
  });
  b.settle();
  auto* own = list(b, "/materials");
  REQUIRE(own->rowCount() == 1);
  own->item(0, column(own, "E"))->setText("205 GPa");
  own->item(0, column(own, "Yields"))->setText("900 MPa");
  own->item(0, column(own, "Breaks"))->setText("1100");
  b.settle();
  const double left = b.part("main leg, leg")->value;
  choose(b, "material:/gear/legs/main/material", "club steel");
  CHECK(b.part("main leg, leg")->value > left);
}

TEST_CASE("jig and bar are read out in words to act on") {
  Bench b("Wheatear");
  b.go(Station::leg);
  b.press("open-leg-lists");
  b.find<QTabWidget>("leg-tabs")->setCurrentIndex(2);
  b.settle();
  auto* jig = b.find<QLabel>("jig-says");
  auto* bar = b.find<QLabel>("bar-says");
  CHECK(jig->text().contains(QString::fromUtf8("1740\u00a0mm")));
  CHECK(jig->text().contains(QString::fromUtf8("450\u00a0mm")));
  CHECK(jig->text().contains("bring the port end forward"));
  CHECK(bar->text().contains("Port</b>: toe-in 0.35°"));
  CHECK(bar->text().contains("to starboard"));
  b.type("/jig/bar_port/aft_m", "20");
  CHECK(b.worst("leg.bar_toe")->verdict == Verdict::fails);
  b.type("/jig/axle_out_m", "");
  CHECK(jig->text().contains("needs how far the axle sticks out"));
}

TEST_CASE("plies are ticked off") {
  Bench b("Dunnock");
  b.go(Station::leg);
  b.press("open-leg-lists");
  b.find<QTabWidget>("leg-tabs")->setCurrentIndex(3);
  auto* plies = list(b, "/plies");
  REQUIRE(plies->rowCount() == 3);
  CHECK(plies->item(0, 0)->text() == "no");
  plies->item(0, 0)->setText("yes");
  b.settle();
  CHECK(b.document.design().plies[0].laid);
}

TEST_CASE("a leg that bends shows its own fields and its line as handles") {
  Bench b("Redshank");
  auto& page = b.go(Station::leg);
  b.press("leg-third");
  CHECK(page.findChild<QLineEdit*>("field:/gear/legs/third/spring/bent/wire_diameter_m")->isVisible());
  const double left = b.part("tail leg, leg")->value;
  b.drag(page, "bent:1", QPoint(0, -14));
  CHECK(b.part("tail leg, leg")->value != Approx(left));
  b.document.undo();
  b.settle();
  CHECK(b.part("tail leg, leg")->value == Approx(left));
}

TEST_CASE("a blank project asks for what the leg page needs") {
  Bench b("Dunnock");
  start_blank(b.document);
  b.settle();
  auto& page = b.go(Station::leg);
  page.board()->grab();
  int unknown = 0;
  for (const auto& f : b.document.assessment().findings)
    unknown += f.measure_id == "leg.margin" && f.verdict == Verdict::unknown;
  CHECK(unknown == 2);
  CHECK(b.find<QTableWidget>("true-lengths")->rowCount() == 0);
}

TEST_CASE("a cord's curve and a metered orifice are typed in lists") {
  Bench b("Wheatear");
  b.go(Station::leg);
  b.press("open-leg-lists");
  auto* curve = list(b, "/gear/legs/main/spring/cord/curve");
  REQUIRE(curve->rowCount() == 7);
  const double sag = b.worst("spring.sag")->value;
  for (int r = 1; r < 7; ++r) {
    const double load = b.value("/gear/legs/main/spring/cord/curve/" + std::to_string(r) + "/load_N");
    curve->item(r, column(curve, "Load"))->setText(QString::number(0.8 * load));
  }
  b.settle();
  CHECK(b.worst("spring.sag")->value > sag);
  curve->item(2, column(curve, "Load"))->setText("1");  // a curve must rise
  b.settle();
  CHECK(says(b.worst("stance.third_load")->remark, "rises"));
  CHECK(list(b, "/gear/legs/main/spring/metered")->rowCount() == 0);
}
