// SPDX-License-Identifier: GPL-3.0-or-later
//! Bench and the short lists at the stations, as a builder uses them: read, tick, set aside, write down,
//! print.
#include <QCheckBox>
#include <QDialog>
#include <QFileInfo>
#include <QListWidget>
#include <QRadioButton>
#include <QSettings>
#include <QTableWidget>
#include <QTemporaryDir>

#include "app/document/journal.h"
#include "app/drawing/work_panes.h"
#include "app/print/templates.h"
#include "app/widgets/dialogs.h"
#include "app/widgets/station_steps.h"
#include "app/widgets/steps.h"
#include "bench.h"
#include "core/io/book_file.h"
#include "core/model/locate.h"

using namespace kranich;
using namespace kranich::app;

namespace {

//! A demonstration without what was done on it.
struct Untouched : Bench {
  explicit Untouched(const QString& demo) : Bench(demo) {
    document.journal().begin({}, "");
    settle();
  }
};

//! The card of the chosen step, on the page that is shown.
struct Card {
  Bench& b;
  StepCard* card;
  Card(Bench& bench, const char* task, const char* piece = "") : b(bench), card(nullptr) {
    b.document.journal().choose(task, piece);
    b.settle();
    card = b.window->page(Station::bench)->findChild<StepCard*>("step-card");
    REQUIRE(card);
    INFO(task);
    REQUIRE(card->task() == task);
    REQUIRE(card->piece() == piece);
  }
  QLineEdit* reading(int i) {
    auto* field = card->findChild<QLineEdit*>(QStringLiteral("reading:%1").arg(i));
    REQUIRE(field);
    return field;
  }
  void type(int i, const QString& text) {
    reading(i)->setFocus();
    reading(i)->selectAll();
    QTest::keyClicks(reading(i), text);
    b.settle();
  }
  void write(const char* id, const QString& text) {
    auto* field = card->findChild<QLineEdit*>(QString::fromLatin1(id));
    REQUIRE(field);
    field->setText(text);
  }
  void press(const char* id) {
    auto* button = card->findChild<QPushButton*>(QString::fromLatin1(id));
    REQUIRE(button);
    REQUIRE(button->isVisibleTo(card));
    QTest::mouseClick(button, Qt::LeftButton);
    b.settle();
  }
  QString foretold(int i) { return card->findChild<QLabel*>(QStringLiteral("foretold:%1").arg(i))->text(); }
  QString text(const char* id) { return card->findChild<QLabel*>(QString::fromLatin1(id))->text(); }
};

tasks::State state(Bench& b, const char* task, const char* piece = "") {
  const auto* box = b.document.journal().progress().find(task, piece);
  REQUIRE(box);
  return box->state;
}

}  // namespace

TEST_CASE("a step is read, ticked and kept beside the project, outside undo", "[window]") {
  QTemporaryDir folder;
  Untouched b("Dunnock");
  b.document.journal().clock = [] { return QDateTime(QDate(2026, 5, 1), QTime(12, 0)); };
  REQUIRE(b.window->save_to(folder.filePath("mine.kranich")));
  b.document.edit("pressure", [](Design& d) { d.gear.third().wheel.pressure = Given(2.2e5); });
  b.go(Station::bench);
  Card card(b, "wheels.tube", "third:wheel");
  CHECK(card.foretold(0).contains("± "));
  const double now = b.value("/gear/legs/third/wheel/pressure_Pa");
  card.type(0, "nonsense");
  card.press("step-done");
  CHECK(b.document.journal().book().entries.empty());
  CHECK(card.card->said().contains("cannot be read"));
  card.reading(0)->clear();
  card.press("step-done");
  CHECK(card.card->said().contains("wanted"));
  // Hours that are no number are refused, not taken for none.
  card.type(0, QString::number(now / 1e5) + " bar");
  card.write("step-hours", "an hour");
  card.press("step-done");
  CHECK(card.card->said().contains("Hours must be a number"));
  CHECK(b.document.journal().book().entries.empty());
  card.write("step-hours", "1.5");
  // What is typed is said back, with the verdict, before it is written down.
  card.type(0, QString::number(now * 1.03 / 1e5) + " bar");
  CHECK(card.foretold(0).contains("within"));
  card.write("step-note", "warm afternoon");
  card.write("step-who", "Ilse");
  card.press("step-done");
  REQUIRE(b.document.journal().book().entries.size() == 1);
  const auto& entry = b.document.journal().book().entries[0];
  CHECK(entry.who == "Ilse");
  CHECK(entry.note == "warm afternoon");
  CHECK(entry.hours == 1.5);
  CHECK(entry.readings[0].compared == tasks::Compared::within);
  CHECK_FALSE(entry.seen.empty());
  CHECK(state(b, "wheels.tube", "third:wheel") == tasks::State::done);
  CHECK(b.value("/gear/legs/third/wheel/pressure_Pa") == Approx(now * 1.03).epsilon(1e-4));
  CHECK(card.text("step-history").contains("warm afternoon"));
  // It lies on the disk at once; undo takes the number back, never the entry.
  CHECK(QFileInfo::exists(folder.filePath("mine.book.jsonl")));
  b.document.undo();
  CHECK(b.document.journal().book().entries.size() == 1);
  CHECK(b.value("/gear/legs/third/wheel/pressure_Pa") == Approx(now));
  // Opened again, it is all there; saved elsewhere, it goes along.
  REQUIRE(b.window->save_to(folder.filePath("mine.kranich")));
  REQUIRE(b.document.open(folder.filePath("mine.kranich")).empty());
  b.settle();
  CHECK(b.document.journal().book().entries.size() == 1);
  REQUIRE(b.window->save_to(folder.filePath("other.kranich")));
  CHECK(read_book(*read_text_file(folder.filePath("other.book.jsonl").toStdString())).book.entries.size() ==
        1);
}

TEST_CASE("what was written before a project has a file is saved with it, and survives a crash", "[window]") {
  QTemporaryDir folder;
  Bench b("Wheatear");
  const auto shipped = b.document.journal().book().entries.size();
  b.go(Station::bench);
  Card card(b, "ask.field");
  card.press("step-done");
  CHECK(b.document.modified());
  b.document.leave_for_next_start();
  const auto left = work_left_behind();
  REQUIRE_FALSE(left.empty());
  Document taken;
  REQUIRE(taken.recover(left.front()).empty());
  CHECK(taken.journal().book().entries.size() == shipped + 1);
  REQUIRE_FALSE(taken.save(folder.filePath("new.kranich")));
  CHECK(read_book(*read_text_file(folder.filePath("new.book.jsonl").toStdString())).book.entries.size() ==
        shipped + 1);
}

TEST_CASE("gates, reasons, schools: said beside the box, never a lock", "[window]") {
  Untouched b("Dunnock");
  b.go(Station::bench);
  Card swing(b, "swing.sweep", "third");
  CHECK(swing.text("step-gates").contains("Before this"));
  swing.type(0, "8 mm");
  CHECK(swing.foretold(0).contains("outside"));
  swing.press("step-done");
  CHECK(swing.card->said().contains("reason"));
  swing.write("step-reason", "the light was going");
  swing.press("step-done");
  CHECK(state(b, "swing.sweep", "third") == tasks::State::tried);
  Card card(b, "ask.rule");
  card.press("step-aside");
  CHECK(card.card->said().contains("reason"));
  card.write("step-reason", "the inspector keeps it");
  card.press("step-aside");
  CHECK(state(b, "ask.rule") == tasks::State::aside);
  // Two schools: nothing is chosen beforehand, and a pick is asked for.
  Card school(b, "choose.emergency");
  const auto* side = school.card->findChild<QRadioButton*>("step-side-1");
  REQUIRE(side);
  CHECK_FALSE(side->isChecked());
  school.press("step-done");
  CHECK(school.card->said().contains("Which of the two"));
  school.card->findChild<QRadioButton*>("step-side-1")->click();
  school.press("step-done");
  CHECK(state(b, "choose.emergency") == tasks::State::done);
  CHECK(b.document.journal().book().entries.back().choice == "dump valve");
  // A change opens it again, with from and to; "it does not matter" keeps it.
  Card path(b, "survey.load-path", "third");
  path.press("step-done");
  b.document.edit("thicker axle", [](Design& d) { d.gear.third().axle_diameter = Given(0.029); });
  b.settle();
  CHECK(state(b, "survey.load-path", "third") == tasks::State::again);
  CHECK(path.text("step-gates").contains("29\u00a0mm"));
  path.write("step-reason", "looked at again");
  path.press("step-kept");
  CHECK(state(b, "survey.load-path", "third") == tasks::State::done);
}

TEST_CASE("a station shows its open steps and asks what decides further ones", "[window]") {
  Untouched b("Dunnock");
  StationPage& page = b.go(Station::doors);
  auto* steps = page.findChild<StationSteps*>("station-steps");
  REQUIRE(steps);
  StationPage& swing = b.go(Station::place);
  steps = swing.findChild<StationSteps*>("station-steps");
  REQUIRE(steps);
  REQUIRE(steps->isVisibleTo(&swing));
  auto* row = steps->findChild<QAbstractButton*>("step:ask.field|");
  REQUIRE(row);
  row->click();
  b.settle();
  auto* card = steps->findChild<StepCard*>("step-card");
  REQUIRE(card->isVisibleTo(steps));
  CHECK(card->task() == "ask.field");
  card->findChild<QLineEdit*>("reading:0")->setText("60 mm");
  card->findChild<QLineEdit*>("reading:1")->setText("turf");
  QTest::mouseClick(card->findChild<QPushButton*>("step-done"), Qt::LeftButton);
  b.settle();
  CHECK(state(b, "ask.field") == tasks::State::done);
  CHECK(b.value("/purpose/obstacle_m") == Approx(0.06));
  CHECK_FALSE(steps->findChild<QAbstractButton*>("step:ask.field|"));
  // At most seven are shown; the rest leads to Bench.
  StationPage& leg = b.go(Station::leg);
  auto* more = leg.findChild<StationSteps*>("station-steps");
  int rows = 0;
  for (auto* button : more->findChildren<QAbstractButton*>())
    if (button->objectName().startsWith("step:")) ++rows;
  CHECK(rows == static_cast<int>(StationSteps::most));
  more->findChild<QPushButton*>("steps-rest")->click();
  b.settle();
  CHECK(b.window->page(Station::bench)->isVisible());
  // A question with "there is none": what hangs on it goes, and it may be asked again.
  const auto asked = [&](const char* key) {
    for (const auto& q : b.document.journal().progress().questions)
      if (q.question->key == key) return true;
    return false;
  };
  REQUIRE(asked("assist"));
  StationPage& drive = b.go(Station::drive);
  auto* none = drive.findChild<QPushButton*>("without:assist");
  REQUIRE(none);
  none->click();
  b.settle();
  CHECK_FALSE(asked("assist"));
  b.document.undo();
  b.settle();
  CHECK(asked("assist"));
}

TEST_CASE("the ladder, the list, the Book and the register", "[window]") {
  QTemporaryDir folder;
  Untouched b("Dunnock");
  b.document.journal().clock = [] { return QDateTime(QDate(2026, 5, 1), QTime(12, 0)); };
  StationPage& page = b.go(Station::bench);
  auto* list = b.find<QListWidget>("bench-list");
  const int open = list->count();
  CHECK(open > 20);
  b.press("bench-all");
  CHECK(list->count() > open);
  b.find<QLineEdit>("bench-find")->setText("adhesive");
  b.settle();
  CHECK(list->count() < open);
  b.find<QLineEdit>("bench-find")->clear();
  b.press("bench-ladder");
  auto* ladder = page.board()->find<LadderPane>();
  REQUIRE(ladder);
  page.board()->grab();
  const auto rung = ladder->spot("rung:swing.by-hand|third");
  REQUIRE(rung);
  QTest::mouseClick(page.board(), Qt::LeftButton, {}, rung->toPoint());
  b.settle();
  CHECK(page.findChild<StepCard*>("step-card")->task() == "swing.by-hand");
  // Something happened: written down with what it asks for, opening what it opens.
  b.press("bench-book");
  auto* sort = b.find<QComboBox>("event-sort");
  const auto happen = [&](const char* what) {
    sort->setCurrentIndex(sort->findData(QString::fromLatin1(what)));
    b.settle();
  };
  happen("landing");
  b.press("event-write");
  CHECK(b.find<QLabel>("event-said")->text().contains("1 to 1000"));
  b.find<QLineEdit>("event-count")->setText("3");
  b.press("event-write");
  happen("hard landing");
  b.find<QLineEdit>("event-note")->setText("dropped from two metres");
  b.press("event-write");
  CHECK(state(b, "service.hard-full") == tasks::State::open);
  // Of a failure: which part, and in what; nothing is taken for granted.
  happen("failure");
  b.press("event-write");
  CHECK(b.find<QLabel>("event-said")->text().contains("Which part"));
  b.find<QLineEdit>("event-what")->setText("pin");
  b.press("event-write");
  CHECK(b.find<QLabel>("event-said")->text().contains("In what"));
  auto* in = b.find<QComboBox>("event-failed-in");
  in->setCurrentIndex(in->findData("on the bench"));
  b.press("event-write");
  CHECK(b.document.journal().book().entries.back().from == "on the bench");
  happen("purchase");
  b.find<QLineEdit>("event-what")->setText("tyre");
  b.find<QLineEdit>("event-cost")->setText("120.5");
  b.press("event-write");
  auto* table = b.find<QTableWidget>("bench-book-table");
  CHECK(table->rowCount() == static_cast<int>(b.document.journal().book().entries.size()));
  CHECK(b.find<QLabel>("bench-sums")->text().contains("120.5"));
  // Struck out, with a reason: it stays to be read and counts no more.
  table->selectRow(0);
  b.find<QLineEdit>("bench-strike-reason")->setText("counted twice");
  b.press("bench-strike");
  CHECK_FALSE(b.find<QLabel>("bench-sums")->text().contains("120.5"));
  CHECK(table->rowCount() == static_cast<int>(b.document.journal().book().entries.size()));
  b.press("bench-register");
  auto* parts = b.find<QTableWidget>("bench-register-table");
  CHECK(parts->rowCount() > 6);
  // What was changed by hand is a try.
  b.press("bench-book");
  happen("change");
  b.find<QLineEdit>("event-what")->setText("servo arm");
  b.find<QLineEdit>("event-from")->setText("12 mm");
  b.find<QLineEdit>("event-to")->setText("10 mm");
  b.press("event-write");
  b.press("bench-trials");
  auto* trials = b.find<QTableWidget>("bench-trials-table");
  REQUIRE(trials->rowCount() > 0);
  CHECK(trials->item(0, 2)->text() == "servo arm: 12 mm → 10 mm");
  const int all = trials->rowCount();
  b.find<QLineEdit>("bench-find")->setText("servo arm");
  CHECK(trials->rowCount() == 1);
  b.find<QLineEdit>("bench-find")->clear();
  CHECK(trials->rowCount() == all);
  // A step of one's own, and one that is wrong: named, the rest goes on.
  b.document.edit("own", [](Design& d) {
    OwnTask t;
    t.id = "my.wash";
    t.text = "Wash it.";
    d.own_tasks.push_back(t);
    t.id = "my.wrong";
    t.when = "moonlit";
    d.own_tasks.push_back(t);
  });
  b.settle();
  CHECK(state(b, "my.wash") == tasks::State::open);
  CHECK(b.find<QLabel>("bench-problems")->text().contains("moonlit"));
}

TEST_CASE("large letters on the bench: keys only", "[window]") {
  Untouched b("Wheatear");
  b.go(Station::bench);
  const auto before = b.document.journal().book().entries.size();
  b.press("bench-big");
  auto* big = b.window->findChild<QDialog*>("bench-view");
  REQUIRE(big);
  auto* entry = big->findChild<QLineEdit*>("bench-view-entry");
  auto* text = big->findChild<QLabel*>("bench-view-text");
  const QString first = text->text();
  QTest::keyClick(entry, Qt::Key_PageDown);
  CHECK(text->text() != first);
  QTest::keyClick(entry, Qt::Key_PageUp);
  CHECK(text->text() == first);
  // ask.field: two readings, then what was seen.
  QTest::keyClicks(entry, "60 mm");
  QTest::keyClick(entry, Qt::Key_Return);
  QTest::keyClicks(entry, "turf");
  QTest::keyClick(entry, Qt::Key_Return);
  QTest::keyClicks(entry, "soft at the far end");
  QTest::keyClick(entry, Qt::Key_Return);
  b.settle();
  REQUIRE(b.document.journal().book().entries.size() == before + 1);
  CHECK(b.document.journal().book().entries.back().note == "soft at the far end");
  CHECK(b.value("/purpose/obstacle_m") == Approx(0.06));
  // What cannot be understood is said, and asked again.
  const QString again = entry->placeholderText();
  for (int i = 0; i < 60 && entry->placeholderText() == again; ++i) {
    QTest::keyClick(entry, Qt::Key_PageDown);
    if (entry->placeholderText().contains("should be")) break;
  }
  REQUIRE(entry->placeholderText().contains("should be"));
  const QString asked = entry->placeholderText();
  QTest::keyClicks(entry, "a lot of it");
  QTest::keyClick(entry, Qt::Key_Return);
  CHECK_FALSE(big->findChild<QLabel*>("bench-view-said")->text().isEmpty());
  CHECK(entry->placeholderText() == asked);
  CHECK(entry->text() == "a lot of it");
  big->close();
}

TEST_CASE("check lists, ladder, service card, register and trial form are printed", "[window]") {
  Bench b("Dunnock");
  for (const Paper paper : {Paper::a4, Paper::letter}) {
    b.document.edit("paper", [&](Design& d) { d.jig.paper = paper; });
    const auto sheets = sheets_of(b.document);
    int longest = 0;
    for (const char* id :
         {"check-list-today", "check-list-jig", "ladder", "service-card", "register", "trial-form"}) {
      const auto it =
          std::find_if(sheets.begin(), sheets.end(), [&](const shop::Sheet& s) { return s.id == id; });
      INFO(id);
      REQUIRE(it != sheets.end());
      const auto& drawing = std::get<shop::Drawing>(it->drawing);
      const Tiling tiles = tiling_of(drawing, paper);
      CHECK(tiles.columns == 1);
      longest = std::max(longest, tiles.rows);
      // No line of letters is cut: each lies whole on a page, and none stands where the page before shows it
      // again.
      const double pitch = tiles.height - Tiling::overlap;
      std::string all;
      for (const auto& t : drawing.texts) {
        all += t.text + "\n";
        const double top = -(t.at.y() + t.height), foot = -(t.at.y() - 0.3 * t.height);
        const int page = static_cast<int>(std::max(0.0, top) / pitch);
        INFO(t.text << " " << top << " " << foot);
        CHECK(foot <= (page + 1) * pitch + 0.5);
        if (page > 0) CHECK(top >= page * pitch + Tiling::overlap - 0.5);
      }
      CHECK(all.find("does not approve") != std::string::npos);
      CHECK(all.find('{') == std::string::npos);
    }
    CHECK(longest > 3);
  }
}

TEST_CASE("pictures of an entry are shown small beside it; one that is missing is said") {
  Untouched b("Wheatear");
  QTemporaryDir folder;
  REQUIRE_FALSE(b.document.save(folder.filePath("w.kranich")));
  QImage photo(400, 300, QImage::Format_RGB32);
  photo.fill(Qt::darkGreen);
  REQUIRE(photo.save(folder.filePath("photo.png")));
  auto& journal = b.document.journal();
  tasks::Entry e = journal.begun(tasks::Mark::note);
  e.note = "as it looked";
  QString why;
  const QString kept = journal.keep_picture(folder.filePath("photo.png"), e, &why);
  REQUIRE(why.isEmpty());
  e.pictures = {kept.toStdString()};
  REQUIRE_FALSE(journal.write(e));
  tasks::Entry gone = journal.begun(tasks::Mark::note);
  gone.note = "lost";
  gone.pictures = {"pictures/nowhere.jpg"};
  REQUIRE_FALSE(journal.write(gone));
  b.go(Station::bench);
  b.press("bench-book");
  auto* table = b.find<QTableWidget>("bench-book-table");
  CHECK(table->item(0, 4)->icon().isNull());
  CHECK(table->item(0, 4)->text().contains("missing"));
  const QIcon icon = table->item(1, 4)->icon();
  REQUIRE_FALSE(icon.isNull());
  const QImage small = icon.pixmap(216, 54).toImage();
  CHECK(small.pixelColor(20, small.height() / 2).green() > small.pixelColor(20, small.height() / 2).red());
  CHECK(table->rowHeight(1) >= 54);
}
