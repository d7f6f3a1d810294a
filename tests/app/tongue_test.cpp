// SPDX-License-Identifier: GPL-3.0-or-later
//! The window in another language: words, figures, what is typed, and files that stay as they are.
#include "app/tongue.h"

#include <QAction>
#include <QComboBox>
#include <QLabel>
#include <QTableWidget>

#include "app/print/templates.h"
#include "app/widgets/dialogs.h"
#include "app/widgets/findings.h"
#include "app/widgets/list_table.h"
#include "app/widgets/steps.h"
#include "bench.h"
#include "core/io/project_file.h"
#include "core/tasks/foretell.h"

using namespace kranich;
using namespace kranich::app;

namespace {

//! As long as it stands German is spoken.
struct German {
  German() { speak("de"); }
  ~German() { speak("en"); }
};

}  // namespace

TEST_CASE("stations, checks, verdicts and figures speak German, and the file stays as it is") {
  Bench english;
  const std::string file = write_project(english.document.design());
  const QString before = title_of(*english.worst("place.tip_back"), english.document.units());
  CHECK(before == "Tip-back angle");
  const German german;
  Bench b;
  CHECK(b.find<QAbstractButton>("rail:place")->text() == "Stellen");
  CHECK(b.find<QAbstractButton>("rail:bench")->text() == "Werkbank");
  const Finding& f = *b.worst("place.tip_back");
  CHECK(title_of(f, b.document.units()) == "Kippwinkel nach hinten");
  CHECK(value_text(f, b.document.units()) ==
        value_text(*english.worst("place.tip_back"), english.document.units()));
  CHECK(value_text(f, b.document.units()).contains(','));
  CHECK(text_of(verdict_word(Verdict::fails)) == "versagt");
  CHECK(text_of(b.document.design().leg_word(b.document.design().gear.main()), b.document.units()) ==
        "Hauptbein");
  CHECK(text_of(b.document.design().wheel_word(b.document.design().gear.third()), b.document.units()) ==
        "Bugrad");
  CHECK(write_project(b.document.design()) == file);
}

TEST_CASE("a decimal comma is read as it is shown, in entries and in tables") {
  const German german;
  Bench b;
  b.go(Station::place);
  auto* field = b.find<QLineEdit>("field:/gear/legs/main/axle/x_m");
  field->setText("2450,125");
  emit field->textEdited("2450,125");
  QTest::keyClick(field, Qt::Key_Return);
  b.settle();
  CHECK(b.document.design().gear.main().axle.x.si == Approx(2.450125));
  b.document.undo();
  b.settle();
  auto* dialog = make_project_dialog(b.document, b.window.get());
  dialog->show();
  b.settle();
  auto* table = dialog->findChild<QTableWidget*>("list:/airframe/keep_outs");
  REQUIRE(table);
  CHECK(table->item(0, 1)->text() == "Quader");
  table->item(1, 1)->setText("Zylinder");
  table->item(1, 2)->setText("2700,5");
  b.settle();
  CHECK(b.document.design().airframe.keep_outs[1].shape == Shape::cylinder);
  CHECK(b.document.design().airframe.keep_outs[1].low.x.si == Approx(2.7005));
  // The English word is none here.
  table->item(1, 1)->setText("box");
  b.settle();
  CHECK(b.document.design().airframe.keep_outs[1].shape == Shape::cylinder);
  dialog->close();
}

TEST_CASE("steps are read and answered in German, and the Book stays as it is") {
  const German german;
  Bench b;
  auto& journal = b.document.journal();
  const auto* task = journal.table().find("swing.sweep");
  REQUIRE(task);
  const QString text = step_text(journal, *task, tasks::whole(), task->text, b.document.units());
  CHECK(text.startsWith("Ganzer Schwenk von Hand"));
  CHECK_FALSE(text.contains('{'));
  // A line of the builder's own is his.
  CHECK(step_text(journal, *task, tasks::whole(), "my own words, {=2.5 mm}", UnitSystem::metric)
            .toStdString() == "my own words, 2,5\u00a0mm");
  CHECK(step_text(journal, *task, tasks::whole(), "{spring.set}", UnitSystem::metric) == "unbekannt");
  // Figures with a comma, yes and no as they are said; text as it was typed.
  tasks::Reading number{"gap", *tasks::reading_unit("m"), {}, {}, {}};
  CHECK(reading_typed(number, "1,5 mm") == "1.5 mm");
  tasks::Reading question{"tag off", *tasks::reading_unit("yes/no"), {}, {}, {}};
  CHECK(reading_typed(question, "Ja") == "yes");
  CHECK(reading_typed(question, "nein") == "no");
  tasks::Reading words{"rule", *tasks::reading_unit("text"), {}, {}, {}};
  CHECK(reading_typed(words, "1,5 mm, Ja") == "1,5 mm, Ja");
}

TEST_CASE("the language is changed in the menu, and a window built then speaks it") {
  Bench b;
  int asked = 0;
  QObject::connect(b.window.get(), &MainWindow::language_changed, b.window.get(), [&] { ++asked; });
  auto* german = b.window->findChild<QAction*>("language:de");
  REQUIRE(german);
  german->trigger();
  CHECK(asked == 1);
  CHECK(spoken().id == "de");
  MainWindow again(b.document);
  CHECK(again.findChild<QAbstractButton*>("rail:swing")->text() == "Schwenk");
  CHECK(again.findChild<QAction*>("language:de")->isChecked());
  again.findChild<QAction*>("language:en")->trigger();
  CHECK(spoken().id == "en");
  CHECK(in_tongue("Mass") == "Mass");
  speak("xx");  // one that nobody knows
  CHECK(spoken().id == "en");
}

TEST_CASE(
    "what is printed of the work speaks the window's language: check lists, ladder, register, trial form") {
  const auto said = [](Document& document, const std::string& id) {
    std::string all;
    for (const shop::Sheet& s : sheets_of(document))
      if (s.id == id) {
        all = s.title + "\n";
        for (const auto& t : std::get<shop::Drawing>(s.drawing).texts) all += t.text + "\n";
      }
    return all;
  };
  Bench b;
  const std::string english = said(b.document, "check-list-today");
  CHECK(english.find("should be") != std::string::npos);
  CHECK(said(b.document, "check-list-fly").find("before: ") != std::string::npos);
  const std::string ladder = said(b.document, "ladder");
  const std::string form = said(b.document, "trial-form");
  const German german;
  const std::string today = said(b.document, "check-list-today");
  CHECK(today.find("Prüfliste, was jetzt offen ist") == 0);
  CHECK(today.find("Das Programm plant und hält fest") != std::string::npos);
  for (const char* words : {"should be", "before: ", "Stop at", " the ", "Check list"}) {
    INFO(words);
    CHECK(today.find(words) == std::string::npos);
  }
  CHECK(today.find("soll") != std::string::npos);
  CHECK(said(b.document, "check-list-fly").find("davor: ") != std::string::npos);
  CHECK(said(b.document, "ladder").find("Sprosse 1: ") != std::string::npos);
  CHECK(ladder.find("Rung 1: ") != std::string::npos);
  CHECK(said(b.document, "trial-form").find("Geändert") != std::string::npos);
  CHECK(form.find("Changed") != std::string::npos);
}
