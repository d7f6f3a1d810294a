// SPDX-License-Identifier: GPL-3.0-or-later
//! What legs, mounts and springs are made of, entered in the window: judged, drawn, ticked, cured.
#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QImage>
#include <QLabel>
#include <QTabWidget>
#include <QTableWidget>
#include <QTemporaryDir>

#include "app/drawing/picture.h"
#include "app/widgets/dialogs.h"
#include "app/widgets/list_table.h"
#include "bench.h"
#include "core/assess/loading_state.h"
#include "said.h"

using namespace kranich;
using namespace kranich::app;

namespace {

//! The column of a list table by its heading.
int column(const QTableWidget& table, const QString& heading) {
  for (int c = 0; c < table.columnCount(); ++c)
    if (table.horizontalHeaderItem(c)->text().startsWith(heading)) return c;
  FAIL("no column " + heading.toStdString());
  return 0;
}
ListTable* list_of(QWidget& in, const QString& name) {
  for (auto* t : in.findChildren<ListTable*>())
    if (t->table()->objectName() == name) return t;
  FAIL("no list " + name.toStdString());
  return nullptr;
}
void fill(Bench& b, ListTable& list, int row, const QString& heading, const QString& text) {
  list.table()->item(row, column(*list.table(), heading))->setText(text);
  b.settle();
}

}  // namespace

TEST_CASE("a strut that is made is entered on the Spring page and judged tube by tube") {
  Bench b("Redshank");
  b.go(Station::spring);
  const QString t = "/gear/legs/main/spring/telescope/";
  b.type(t + "outer_diameter_m", "16");
  b.type(t + "outer_wall_m", "1");
  b.type(t + "inner_diameter_m", "13.9");
  CHECK(b.worst("spring.slide_play")->value == Approx(0.0001));
  CHECK(b.worst("spring.overlap")->verdict == Verdict::unknown);
  b.type(t + "outer_length_m", "120");
  b.type(t + "inner_length_m", "120");
  const Finding* overlap = b.worst("spring.overlap");
  REQUIRE(overlap);
  const double extended =
      (b.document.design().gear.main().axle.vec() - b.document.design().gear.main().held_at()).norm();
  CHECK(overlap->value == Approx((0.240 - extended) / 0.0139));
  b.type(t + "inner_wall_m", "1");
  CHECK(b.worst("spring.in_bore")->verdict == Verdict::fails);  // the coil is wider than that bore
  b.document.undo();
  CHECK(b.worst("spring.in_bore")->verdict == Verdict::unknown);
}

TEST_CASE("joints take cheeks, a box, a post's other end and a pull test in their list") {
  Bench b("Redshank");
  auto* dialog = make_leg_dialog(b.document, "main", b.window.get());
  dialog->show();
  b.settle();
  auto* joints = list_of(*dialog, "list:/gear/legs/main/joints");
  int plate = -1;
  for (int r = 0; r < joints->table()->rowCount(); ++r)
    if (b.document.design().gear.main().joints[static_cast<size_t>(r)].kind == JointKind::plate) plate = r;
  REQUIRE(plate >= 0);
  fill(b, *joints, plate, "Plate", "1.5");
  const Finding* twist = b.worst("leg.mount_twist");
  REQUIRE(twist);
  const double bare = twist->value;
  CHECK(twist->verdict == Verdict::fails);
  fill(b, *joints, plate, "Box deep", "20");
  CHECK(b.worst("leg.mount_twist")->verdict == Verdict::unknown);
  fill(b, *joints, plate, "Box wall", "1.5");
  CHECK(b.worst("leg.mount_twist")->value < 0.2 * bare);
  fill(b, *joints, plate, "Pulled", "40");
  CHECK_FALSE(b.worst("leg.pull_test"));  // not bought, not asked
  b.document.edit("bought",
                  [&](Design& d) { d.gear.main().joints[static_cast<size_t>(plate)].bought = true; });
  b.settle();
  CHECK(b.worst("leg.pull_test"));
  dialog->close();
}

TEST_CASE("parts are weighed against each other, and one is taken into the ledger") {
  Bench b("Redshank");
  b.go(Station::weigh);
  b.press("parts");
  auto* dialog = b.window->findChild<QDialog*>("parts-dialog");
  REQUIRE(dialog);
  const std::string place = b.document.design().ledger[2].name;
  b.document.edit("offers", [&](Design& d) {
    for (const auto& [name, count, mass] : {std::tuple{"large", 1.0, 1.4}, std::tuple{"small", 2.0, 0.5}}) {
      PartOffer p;
      p.for_what = place;
      p.name = name;
      p.count = Given(count);
      p.mass = Given(mass);
      d.parts.push_back(p);
    }
  });
  b.settle();
  auto* totals = dialog->findChild<QTableWidget*>("part-totals");
  REQUIRE(totals->rowCount() == 2);
  CHECK(totals->item(0, 1)->text() == "small");  // the lighter first
  totals->setCurrentCell(0, 0);
  QTest::mouseClick(dialog->findChild<QPushButton*>("part-take"), Qt::LeftButton);
  b.settle();
  CHECK(b.document.design().ledger[2].mass.si == Approx(1.0));
  CHECK(totals->item(0, 6)->text() == "taken");
  // A part of the list edited in its table is worked out at once.
  auto* list = list_of(*dialog, "list:/parts");
  fill(b, *list, 1, "Mass of one", "0.6");
  CHECK(totals->item(0, 2)->text().startsWith("1.2"));
  dialog->close();
}

TEST_CASE("another mass and place aboard in one loading only") {
  Bench b("Redshank");
  b.go(Station::weigh);
  const Design& d = b.document.design();
  size_t at = 0;
  while (d.loadings[at].name != b.document.loading_name().toStdString()) ++at;
  auto* table = list_of(*b.window, QStringLiteral("list:/loadings/%1/aboard").arg(at));
  REQUIRE(table->table()->rowCount() == 1);
  const double before = b.document.loading()->mass.down.at.x();
  fill(b, *table, 0, "station here", "195");
  CHECK(b.document.loading()->mass.down.at.x() > before);
  CHECK(d.loadings[at].aboard[0].x.si == Approx(0.195));
  fill(b, *table, 0, "mass here", "1.6");
  CHECK(d.loadings[at].aboard[0].mass.si == Approx(1.6));
}

TEST_CASE("a wheel is placed from the CG, whatever goes along with it") {
  Bench b("Redshank");
  b.go(Station::place);
  auto* field = b.find<QLineEdit>("from-cg-main");
  field->setFocus();
  field->selectAll();
  QTest::keyClicks(field, "-100");
  QTest::keyClick(field, Qt::Key_Return);
  b.settle();
  const double behind = b.document.design().gear.main().axle.x - b.document.loading()->mass.down.at.x();
  CHECK(behind == Approx(-0.100).margin(2e-5));
  field->selectAll();
  QTest::keyClicks(field, "ahead");
  QTest::keyClick(field, Qt::Key_Return);
  b.settle();
  CHECK(b.document.design().gear.main().axle.x - b.document.loading()->mass.down.at.x() ==
        Approx(-0.100).margin(2e-5));
}

TEST_CASE("a picture lies behind the side view, and one that is gone is said") {
  Bench b("Redshank");
  QTemporaryDir dir;
  QImage image(64, 32, QImage::Format_RGB32);
  image.fill(QColor(200, 30, 200));
  REQUIRE(image.save(dir.filePath("side.png")));
  auto& page = b.go(Station::stance);
  const auto pink = [&] {
    const QImage shot = page.board()->grab().toImage();
    int count = 0;
    for (int y = 0; y < shot.height(); y += 4)
      for (int x = 0; x < shot.width(); x += 4) {
        const QColor c = shot.pixelColor(x, y);
        count += c.red() > c.green() + 40 && c.blue() > c.green() + 40;
      }
    return count;
  };
  REQUIRE(pink() == 0);
  b.document.edit("picture", [&](Design& d) {
    d.picture.file = dir.filePath("side.png").toStdString();
    d.picture.left_x = Given(0.2);
    d.picture.bottom_z = Given(0.0);
    d.picture.width = Given(1.0);
  });
  b.settle();
  const int wide = pink();
  CHECK(wide > 50);
  b.type("/picture/width_m", "500");
  CHECK(pink() < wide);
  b.document.edit("hide", [](Design& d) { d.picture.shown = false; });
  b.settle();
  CHECK(pink() == 0);
  // Beside the project it is found by its name alone, and a missing one does no harm.
  b.document.edit("gone", [](Design& d) {
    d.picture.shown = true;
    d.picture.file = "nowhere.png";
  });
  b.settle();
  CHECK(pink() == 0);
}

TEST_CASE("what goes to the bench and what was found is entered with the legs") {
  Bench b;
  auto* dialog = make_project_dialog(b.document, b.window.get());
  dialog->show();
  b.settle();
  auto* kept = list_of(*dialog, "list:/gear/legs kept");
  const size_t row = row_of(b.document.design().gear, b.document.design().gear.main().id);
  const int r = static_cast<int>(row);
  fill(b, *kept, r, "Built to", "700");
  REQUIRE(b.worst("leg.governed"));
  CHECK(b.worst("leg.governed")->verdict == Verdict::fails);
  fill(b, *kept, r, "Landings", "80");
  fill(b, *kept, r, "Broke or bent", "2");
  CHECK(b.worst("leg.failures")->verdict == Verdict::fails);
  fill(b, *kept, r, "Lean", "3");
  CHECK(b.worst("stance.leg_lean"));
  fill(b, *kept, r, "Why this wheel", "fits the bay");
  CHECK(b.document.design().gear.legs[row].wheel.why == "fits the bay");
  dialog->close();
}
