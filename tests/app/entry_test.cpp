// SPDX-License-Identifier: GPL-3.0-or-later
//! Entries: the grammar, what was understood, refusal in place; the ledger's table; the shelf.
#include <QCheckBox>
#include <QLabel>
#include <QTableWidget>
#include <set>

#include "app/lead_to.h"
#include "app/widgets/list_table.h"
#include "bench.h"
#include "core/assess/loading_state.h"
#include "core/model/locate.h"

using namespace kranich;
using namespace kranich::app;

TEST_CASE("an entry takes what a builder types and shows what it understood", "[window]") {
  Bench b;
  b.go(Station::place);
  auto* row = b.find<QuantityRow>("row:/gear/legs/main/axle/x_m");
  b.type("/gear/legs/main/axle/x_m", "96 1/2\"", false);
  CHECK(row->hint() == "= 2451.1\u00a0mm");
  QTest::keyClick(row->field(), Qt::Key_Return);
  CHECK(b.value("/gear/legs/main/axle/x_m") == Approx(96.5 * 0.0254));
  CHECK(row->field()->text() == "2451.1");
  CHECK(b.document.undo_text().contains("Axle station"));
}

TEST_CASE("nonsense is refused in place with the reason, and the last good value stays") {
  Bench b;
  b.go(Station::place);
  auto* row = b.find<QuantityRow>("row:/gear/legs/main/wheel/diameter_m");
  b.type("/gear/legs/main/wheel/diameter_m", "wide");
  CHECK(row->hint().contains("number was expected"));
  CHECK(row->field()->text() == "wide");
  CHECK(b.value("/gear/legs/main/wheel/diameter_m") == Approx(0.38));
  b.type("/gear/legs/main/wheel/diameter_m", "-5");
  CHECK(row->hint().contains("must be above 0"));
  b.type("/gear/legs/main/wheel/diameter_m", "9 m");
  CHECK(row->hint().contains("at most"));
  b.find<QLineEdit>("field:/gear/legs/main/axle/x_m")->setFocus();
  b.settle();
  CHECK(row->field()->text() == "380");
  CHECK(row->hint().contains("kept 380"));
  CHECK(b.document.undo_text().isEmpty());
}

TEST_CASE("an emptied entry is unknown, and the checks say so") {
  Bench b;
  b.go(Station::stance);
  b.type("/gear/legs/main/wheel/tyre_rate_N_per_m", "");
  auto* field = b.find<QLineEdit>("field:/gear/legs/main/wheel/tyre_rate_N_per_m");
  field->setFocus();
  field->selectAll();
  QTest::keyClick(field, Qt::Key_Delete);
  QTest::keyClick(field, Qt::Key_Return);
  CHECK(std::isnan(b.value("/gear/legs/main/wheel/tyre_rate_N_per_m")));
  CHECK(b.worst("stance.third_load")->verdict == Verdict::unknown);
}

TEST_CASE("the ledger's table edits, refuses and follows undo") {
  Bench b;
  b.go(Station::weigh);
  auto* table = b.find<QTableWidget>("ledger");
  CHECK(table->rowCount() == 17);
  table->item(3, 2)->setText("185 lb");
  CHECK(b.document.design().ledger[3].mass == Approx(83.9146));
  table->item(3, 2)->setText("heavy");
  CHECK(b.document.design().ledger[3].mass == Approx(83.9146));
  CHECK(b.find<QLabel>("ledger-note")->text().contains("last good value stays"));
  table->item(3, 2)->setText("-4");
  CHECK(b.find<QLabel>("ledger-note")->text().contains("must be above 0"));
  table->item(1, 0)->setText("engine");
  CHECK(b.find<QLabel>("ledger-note")->text().contains("used already"));
  table->item(13, 0)->setText("captain");
  CHECK(b.document.design().loadings[0].aboard[0].item == "captain");
  b.document.undo();
  b.document.undo();
  CHECK(b.document.design().ledger[3].mass == Approx(80));
  b.find<QPushButton>("ledger-add")->click();
  CHECK(table->rowCount() == 18);
  b.find<QPushButton>("ledger-remove")->click();
  CHECK(table->rowCount() == 17);
}

TEST_CASE("who is aboard is a tick") {
  Bench b;
  b.go(Station::weigh);
  const double mass = b.document.loading()->mass.down.mass;
  b.find<QCheckBox>("aboard:passenger")->setChecked(false);
  b.settle();
  CHECK(b.document.loading()->mass.down.mass == Approx(mass - 72));
}

TEST_CASE("a spring from the shelf is fitted by Enter, and the sag follows") {
  Bench b("Redshank");
  b.go(Station::spring);
  auto* shelf = b.find<QTableWidget>("shelf");
  REQUIRE(shelf->rowCount() > 10);
  CHECK(shelf->item(0, 6)->text() == "none");
  const auto name = shelf->item(0, 0)->text().toStdString();
  emit shelf->cellActivated(0, 0);
  b.settle();
  CHECK(b.document.design().gear.main().spring.coil.shelf_name == name);
  const auto* sag = b.worst("spring.sag");
  REQUIRE(sag);
  CHECK(b.document.undo_text().contains(QString::fromStdString(name)));
}

TEST_CASE("the shim for a wanted pitch gives that pitch") {
  Bench b;
  auto& page = b.go(Station::stance);
  auto* wanted = b.find<QLineEdit>("shim-target");
  wanted->setFocus();
  wanted->selectAll();
  QTest::keyClicks(wanted, "0.5 deg");
  CHECK(b.find<QLabel>("shim-answer")->text().contains("shim under the nose leg"));
  for (auto* button : page.findChildren<QPushButton*>())
    if (button->text() == "Put the shim in") button->click();
  CHECK(degrees(b.document.loading()->rest->pitch) == Approx(0.5).margin(1e-6));
}

TEST_CASE("an aircraft is entered from nothing: new project, outline, wheels, and the checks come alive") {
  Bench b;
  start_blank(b.document);
  b.settle();
  for (const Finding* f : worst_of_each(b.document.assessment())) CHECK(f->verdict == Verdict::unknown);
  for (int i = 0; i < station_count; ++i) b.go(static_cast<Station>(i)).grab();
  auto* dialog = make_project_dialog(b.document, b.window.get());
  dialog->show();
  b.settle();
  auto* sections = dialog->findChild<ListTable*>();
  REQUIRE(sections);
  for (auto* list : dialog->findChildren<ListTable*>()) {
    b.reveal(list);
    for (auto* button : list->findChildren<QPushButton*>())
      if (button->text() == "Add") {
        QTest::mouseClick(button, Qt::LeftButton);
        b.settle();
      }
  }
  CHECK(b.document.design().airframe.bodies.size() == 1);
  CHECK(b.document.design().doors.size() == 1);
  CHECK(b.document.design().loadings.size() == 2);
  auto* table = dialog->findChild<QTableWidget*>("list:/airframe/bodies/0/sections");
  REQUIRE(table);
  b.reveal(table);
  table->item(0, 0)->setText("6' 2\"");
  CHECK(b.value("/airframe/bodies/0/sections/0/x_m") == Approx(74 * 0.0254));
  table->item(0, 3)->setText("-3");
  CHECK(qobject_cast<ListTable*>(table->parentWidget())->note().contains("must be at least 0"));
  delete dialog;
  const Design typed = b.document.design();
  const auto read = read_project(write_project(typed));
  REQUIRE(read.design);
  CHECK(*read.design == typed);
}

TEST_CASE("the name of what is missing leads to its entry, wherever that stands", "[window]") {
  Bench b;
  // In a window of its own: Aircraft and project.
  b.document.edit("", [](Design& d) { d.airframe.tailplane.tip_chord = Given(); });
  auto& place = b.go(Station::place);
  place.findings()->choose("place.rotation|");
  b.settle();
  auto* why = place.findChild<QLabel*>("why-text");
  CHECK(why->text().contains("<a href='entry:/airframe/tailplane/tip_chord_m'>"));
  emit why->linkActivated("entry:/airframe/tailplane/tip_chord_m");
  b.settle();
  auto* dialog = b.find<QWidget>("project-dialog");
  auto* field = dialog->findChild<QLineEdit*>("field:/airframe/tailplane/tip_chord_m");
  REQUIRE(field);
  CHECK(field->isVisible());
  CHECK(dialog->focusWidget() == field);
  dialog->close();
  b.settle();
  // On a page.
  CHECK(lead_to(*b.window, "/gear/legs/main/axle/x_m"));
  b.settle();
  CHECK(b.window->page(Station::place)->isVisible());
  CHECK(b.window->focusWidget() == b.find<QLineEdit>("field:/gear/legs/main/axle/x_m"));
  // In a list.
  CHECK(lead_to(*b.window, "/airframe/low_points/0/at/x_m"));
  b.settle();
  CHECK_FALSE(lead_to(*b.window, "/gear/legs/main/no_such_thing"));
}

TEST_CASE("every number that any check can ask for has its entry") {
  for (const char* demo : {"Dunnock", "Redshank", "Wheatear", "Nightjar", "Pintail"}) {
    Bench b(demo);
    const Design d = b.document.design();
    std::set<std::string> asked;
    for (const auto& g : all_given(d)) {
      if (!g.given.known() || g.path.starts_with("/own_limits")) continue;
      Design without = d;
      *locate_given(without, g.path)->given = Given();
      for (const auto& f : assess(without).findings)
        for (const auto& path : paths_in(f.remark)) asked.insert(path);
    }
    CHECK(asked.size() > 15);
    for (const auto& path : asked) {
      INFO(demo << " " << path);
      CHECK(lead_to(*b.window, QString::fromStdString(path)));
      for (const char* name : {"project-dialog", "leg-dialog"})
        if (auto* dialog = b.window->findChild<QWidget*>(name)) delete dialog;
    }
  }
}
