// SPDX-License-Identifier: GPL-3.0-or-later
//! The project dialog's newer pages, the ledger's slides, the map's two axes, both kinds of legs on Spring.
#include <QComboBox>
#include <QDialog>
#include <QFile>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTabWidget>
#include <QTableWidget>
#include <QTemporaryDir>

#include "app/drawing/map_pane.h"
#include "app/widgets/dialogs.h"
#include "app/widgets/list_table.h"
#include "bench.h"
#include "core/io/project_file.h"
#include "core/io/stl.h"
#include "core/motion/mesh.h"
#include "core/place/keepout.h"
#include "said.h"

using namespace kranich;
using namespace kranich::app;

TEST_CASE("keep-outs are entered in a table and stand in the way at once") {
  Bench b;
  auto* dialog = make_project_dialog(b.document, b.window.get());
  dialog->show();
  b.settle();
  ListTable* keep_outs = nullptr;
  for (auto* t : dialog->findChildren<ListTable*>())
    if (t->table()->columnCount() == 10) keep_outs = t;
  REQUIRE(keep_outs);
  REQUIRE(keep_outs->table()->rowCount() == 2);
  // The rear spar's front face moved ahead into the unit.
  keep_outs->table()->item(1, 2)->setText("2500");
  b.settle();
  CHECK(b.document.design().airframe.keep_outs[1].low.x.si == 2.5);
  CHECK(b.worst("place.keep_out")->verdict == Verdict::fails);
  keep_outs->table()->item(1, 2)->setText("soon");
  b.settle();
  CHECK(keep_outs->note().contains("stays"));
  CHECK(b.document.design().airframe.keep_outs[1].low.x.si == 2.5);
  b.document.undo();
  CHECK(b.worst("place.keep_out")->verdict == Verdict::holds);

  // The spar as a web with an outline: asked for corner by corner, then it stands where the box stood.
  const KeepOut box = b.document.design().airframe.keep_outs[1];
  auto* tabs = dialog->findChild<QTabWidget*>();
  for (int i = 0; i < tabs->count(); ++i)
    if (tabs->widget(i)->isAncestorOf(keep_outs)) tabs->setCurrentIndex(i);
  keep_outs->table()->item(1, 1)->setText("prism");
  b.settle();
  CHECK(b.worst("place.keep_out")->verdict == Verdict::unknown);
  auto* outline = dialog->findChild<QTableWidget*>("list:/airframe/keep_outs/1/outline");
  REQUIRE(outline);
  auto* add = dialog->findChild<QPushButton*>("add:/airframe/keep_outs/1/outline");
  REQUIRE(add);
  const auto mm = [](double v) { return QString::number(1000 * v, 'f', 2); };
  const double corners[][2]{{box.low.x.si, box.low.z.si},
                            {box.high.x.si, box.low.z.si},
                            {box.high.x.si, box.high.z.si},
                            {box.low.x.si, box.high.z.si}};
  for (int i = 0; i < 4; ++i) {
    add->click();
    b.settle();
    outline->item(i, 0)->setText(mm(corners[i][0]));
    outline->item(i, 2)->setText(mm(corners[i][1]));
    b.settle();
  }
  CHECK(b.worst("place.keep_out")->verdict == Verdict::holds);
  CHECK(place::box_of(b.document.design().airframe.keep_outs[1])->low.x() == Approx(box.low.x.si));
  // Shifted into the unit it stops it.
  for (int i = 0; i < 4; ++i) {
    outline->item(i, 0)->setText(mm(corners[i][0] - 0.2));
    b.settle();
  }
  CHECK(b.worst("place.keep_out")->verdict == Verdict::fails);
  const auto again = read_project(write_project(b.document.design()));
  REQUIRE(again.design);
  CHECK(again.design->airframe.keep_outs == b.document.design().airframe.keep_outs);
  dialog->close();
}

TEST_CASE("a keep-out drawn elsewhere is read from its file, sized as it says, and missed where it is gone") {
  Bench b;
  QTemporaryDir folder;
  REQUIRE(b.document.save(folder.filePath("club.kranich")) == std::nullopt);
  const KeepOut spar = b.document.design().airframe.keep_outs[1];
  const Vec3 size = spar.high.vec() - spar.low.vec();
  const auto write = [&](const char* name, double metres) {
    QFile file(folder.filePath(name));
    REQUIRE(file.open(QIODevice::WriteOnly));
    // Written in millimetres: in metres it is a thousandth.
    const auto stl = stl_of({motion::mesh_of(motion::Box{Vec3::Zero(), metres * size})});
    file.write(stl.data(), static_cast<qint64>(stl.size()));
  };
  write("spar.stl", 1);
  write("spar in inches.stl", 1 / 25.4);
  auto* dialog = make_project_dialog(b.document, b.window.get());
  dialog->show();
  auto* table = dialog->findChild<QTableWidget*>("list:/airframe/keep_outs");
  REQUIRE(table);
  auto* tabs = dialog->findChild<QTabWidget*>();
  for (int i = 0; i < tabs->count(); ++i)
    if (tabs->widget(i)->isAncestorOf(table)) tabs->setCurrentIndex(i);
  b.settle();
  const double before = b.worst("place.keep_out")->value;
  table->item(1, 1)->setText("mesh");
  b.settle();
  CHECK(b.worst("place.keep_out")->verdict == Verdict::unknown);
  auto* said = dialog->findChild<QLabel*>("mesh-said:1");
  REQUIRE(said);
  CHECK(said->text().contains("No file chosen"));
  const auto type = [&](const char* name) {
    auto* row = dialog->findChild<QWidget*>("text:/airframe/keep_outs/1/file");
    REQUIRE(row);
    auto* line = qobject_cast<QLineEdit*>(row);
    if (!line) line = row->findChild<QLineEdit*>();
    REQUIRE(line);
    line->setText(name);
    emit line->editingFinished();
    b.settle();
  };
  type("spat.stl");
  CHECK(said->text() == "“spat.stl” is not there");
  type("spar.stl");
  CHECK(said->text().startsWith("12 triangles, closed; fore and aft"));
  CHECK(b.worst("place.keep_out")->value == Approx(before).margin(1e-6));
  type("spar in inches.stl");
  CHECK(b.worst("place.keep_out")->value != Approx(before).margin(1e-6));
  auto* unit = dialog->findChild<QComboBox*>("choice:/airframe/keep_outs/1/unit");
  REQUIRE(unit);
  unit->setCurrentIndex(static_cast<int>(MeshUnit::inches));
  emit unit->activated(static_cast<int>(MeshUnit::inches));
  b.settle();
  CHECK(b.document.design().airframe.keep_outs[1].unit == MeshUnit::inches);
  CHECK(b.worst("place.keep_out")->value == Approx(before).margin(1e-6));
  // Turned about, it points the other way from its origin.
  b.document.edit("Turn", [](Design& d) { d.airframe.keep_outs[1].axes = MeshAxes::x_forward_z_up; });
  b.settle();
  CHECK(place::box_of(b.document.design().airframe.keep_outs[1])->high.x() == Approx(spar.low.x.si));
  b.document.undo();
  b.settle();
  // Saved and opened, with its file beside it; then without.
  REQUIRE(b.document.save(folder.filePath("club.kranich")) == std::nullopt);
  REQUIRE(b.document.open(folder.filePath("club.kranich")).empty());
  b.settle();
  CHECK(b.worst("place.keep_out")->value == Approx(before).margin(1e-6));
  REQUIRE(QFile::remove(folder.filePath("spar in inches.stl")));
  REQUIRE(b.document.open(folder.filePath("club.kranich")).empty());
  b.settle();
  CHECK(b.worst("place.keep_out")->verdict == Verdict::unknown);
  dialog->close();
}

TEST_CASE("what is not decided is listed with what hangs on it and what it waits for") {
  Bench b;
  auto* dialog = make_project_dialog(b.document, b.window.get());
  dialog->show();
  auto* waiting = dialog->findChild<QLabel*>("waiting");
  REQUIRE(waiting);
  REQUIRE(eventually([&] { return b.document.tolerances() != nullptr; }));
  b.settle();
  CHECK(waiting->text().contains("main tyres"));
  CHECK(waiting->text().contains("field committee"));
  CHECK(waiting->text().contains("Ground pressure"));
  CHECK(waiting->text().contains("spare"));
  b.document.edit("decide", [](Design& d) {
    d.gear.main().wheel.tyre_rate = Given(165000, Origin::measured);
    d.gear.main().axle_beyond_wheel = Given(0.085, Origin::measured);
  });
  b.settle();
  CHECK(waiting->text().contains("Everything is decided"));
  dialog->close();
}

TEST_CASE("a table cell keeps its tolerance and takes a new one") {
  Bench b;
  auto* dialog = make_project_dialog(b.document, b.window.get());
  dialog->show();
  ListTable* points = nullptr;
  for (auto* t : dialog->findChildren<ListTable*>())
    if (t->table()->rowCount() > 0 && t->table()->item(0, 0)->text() == "tail tie-down") points = t;
  REQUIRE(points);
  points->table()->item(0, 4)->setText("118 ± 4");
  b.settle();
  const Given& z = b.document.design().airframe.low_points[0].at.z;
  CHECK(z.si == Approx(0.118));
  CHECK(z.tolerance == Approx(0.004));
  CHECK(points->table()->item(0, 4)->text().contains("±"));
  dialog->close();
}

TEST_CASE("a battery's tray is typed in the ledger and its ends reach the CG's extremes") {
  Bench b;
  b.go(Station::weigh);
  auto* ledger = b.find<QTableWidget>("ledger");
  int row = -1;
  for (int r = 0; r < ledger->rowCount(); ++r)
    if (ledger->item(r, 0)->text() == "battery") row = r;
  REQUIRE(row >= 0);
  const double before = b.worst("weigh.cg_aftmost")->value;
  ledger->item(row, 10)->setText("2600");
  b.settle();
  CHECK(b.document.design().ledger[static_cast<size_t>(row)].slides_to.si == 2.6);
  CHECK(b.worst("weigh.cg_aftmost")->value > before);
}

TEST_CASE("the map turns from the CG's height to the track by a click on its heading") {
  Bench b;
  auto& place = b.go(Station::place);
  const double axle = b.value("/gear/legs/main/axle/z_m");
  const auto at = place.board()->handle_position("map");
  REQUIRE(at);
  // The heading stands above the map's frame.
  const QPoint heading(static_cast<int>(at->x()), place.board()->height() / 2 + 12);
  QTest::mouseClick(place.board(), Qt::LeftButton, {}, heading);
  b.settle();
  b.drag(place, "map", {0, -10});
  CHECK(b.value("/gear/legs/main/axle/y_m") > 1.37);  // wider, no longer
  CHECK(b.value("/gear/legs/main/axle/z_m") == axle);
}

TEST_CASE("the pointer over the map is told what fails there") {
  Document document;
  REQUIRE(start_demo(document, "Dunnock"));
  MapPane pane(document);
  QImage image(500, 300, QImage::Format_ARGB32);
  QPainter painter(&image);
  const Frame frame(QRectF(60, 30, 400, 230), QRectF(0, 0, 400, 230));
  Sheet sheet(painter, frame);
  CHECK(pane.pointer(QPointF(395, 115)));
  pane.draw(sheet);
  CHECK(pane.under_pointer().contains("fails"));
  CHECK(pane.under_pointer().contains("Nose wheel's share"));
  CHECK(pane.under_pointer().contains("rear spar"));
  pane.pointer(std::nullopt);
  pane.draw(sheet);
  CHECK(pane.under_pointer().isEmpty());
}

TEST_CASE("Spring shows the entries of the kind that is chosen") {
  Bench b("Wheatear");
  b.go(Station::spring);
  CHECK(b.find<QLineEdit>("field:/gear/legs/main/spring/cord/strands")->isVisible());
  auto* kind = b.find<QComboBox>("choice:/gear/legs/main/spring/kind");
  kind->setCurrentText("leaf");
  emit kind->activated(kind->currentIndex());
  b.settle();
  CHECK_FALSE(b.find<QLineEdit>("field:/gear/legs/main/spring/cord/strands")->isVisible());
  CHECK(b.find<QLineEdit>("field:/gear/legs/main/spring/leaf/torsion_rate_N_m_per_rad")->isVisible());
  CHECK(says(b.worst("stance.third_load")->remark, "torsion rate"));
  b.type("/gear/legs/main/spring/leaf/torsion_rate_N_m_per_rad", "9000");
  CHECK(b.document.loading()->rest);
}

TEST_CASE("the tolerances are called off and asked for again from the strip") {
  Bench b;
  b.document.start_tolerances();
  b.document.cancel_tolerances();
  CHECK_FALSE(b.document.tolerance_running());
  CHECK(b.document.tolerances() == nullptr);
  b.document.start_tolerances();
  REQUIRE(eventually([&] { return b.document.tolerances() != nullptr; }));
  CHECK(b.document.tolerances()->inputs > 10);
}

TEST_CASE("the port leg is unlinked, measured on its own and drawn so") {
  Bench b("Wheatear");
  auto& stance = b.go(Station::stance);
  const QImage before = stance.board()->grab().toImage();
  auto* flag = b.window->findChild<QCheckBox*>("unlinked");
  REQUIRE(flag);
  flag->setChecked(true);
  b.settle();
  REQUIRE(b.document.design().unlinked());
  b.settle();
  b.type("/gear/legs/port-main/axle/z_m", "-780");
  CHECK(b.worst("stance.sides")->verdict == Verdict::fails);
  CHECK(b.document.loading()->rest->roll < 0);
  CHECK(b.go(Station::stance).board()->grab().toImage() != before);
}
