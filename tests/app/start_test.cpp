// SPDX-License-Identifier: GPL-3.0-or-later
//! From an empty project to a judged aircraft by the questions, and from guesses to measurements by the list.
#include <QFileInfo>
#include <QLineEdit>
#include <QTableWidget>
#include <QTemporaryDir>

#include "app/document/journal.h"
#include "app/start/next_page.h"
#include "app/start/start_page.h"
#include "bench.h"
#include "core/model/locate.h"

using namespace kranich;
using namespace kranich::app;

namespace {

struct Fresh : Bench {
  Fresh() {
    for (QAction* a : window->actions())
      if (a->text() == "New project") a->trigger();
    settle();
    REQUIRE(page().isVisible());
  }
  StartPage& page() { return *window->start_page(); }
  void click(const char* name) {
    auto* b = page().findChild<QPushButton*>(QString::fromLatin1(name));
    REQUIRE(b);
    REQUIRE(b->isEnabled());
    QTest::mouseClick(b, Qt::LeftButton);
    settle();
  }
  void type(const char* name, const char* text) {
    auto* e = page().findChild<QLineEdit*>(QString::fromLatin1(name));
    REQUIRE(e);
    e->setFocus();
    e->clear();
    QTest::keyClicks(e, text);
    settle();
  }
  QString hint(const char* name) {
    return page().findChild<QLabel*>(QStringLiteral("hint-%1").arg(QString::fromLatin1(name)))->text();
  }
  bool can_make() { return page().findChild<QPushButton*>("start-make")->isEnabled(); }
  void listed() {
    REQUIRE(eventually([&] { return document.tolerances() != nullptr; }));
    settle();
  }
  int count(Verdict v) {
    int n = 0;
    for (const Finding* f : worst_of_each(document.assessment())) n += f->verdict == v;
    return n;
  }
};

}  // namespace

TEST_CASE("nine answers and one click: a whole aircraft, judged, on guesses", "[window]") {
  struct Row {
    const char *build, *craft, *gear, *mass, *engine, *field;
  };
  for (const Row& row :
       {Row{"answer-seats-2", "answer-nose-wheel", "answer-retractable", "640", "answer-front",
            "answer-field-1"},
        {"answer-seats-1", "answer-tail-wheel", "answer-fixed", "320", "answer-pusher", "answer-field-2"},
        {"answer-seats-2", "answer-helicopter", "answer-fixed", "600", nullptr, "answer-field-0"},
        {"answer-model", "answer-nose-wheel", "answer-retractable", "12", "answer-ducted", "answer-field-0"},
        {"answer-model", "answer-tail-wheel", "answer-fixed", "2.4", "answer-front", "answer-field-4"},
        {"answer-model", "answer-helicopter", "answer-retractable", "4", nullptr, "answer-field-1"}}) {
    INFO(row.build << " " << row.craft << " " << row.gear);
    Fresh b;
    b.click(row.build);
    b.click(row.craft);
    b.click(row.gear);
    b.type("answer-mass", row.mass);
    if (row.engine) b.click(row.engine);
    b.click(row.field);
    CHECK(b.page().said().contains("checks hold"));
    b.click("start-make");
    CHECK(b.window->next_page()->isVisible());
    CHECK(b.document.modified());
    CHECK(b.document.undo_text().contains("answers"));
    CHECK(b.count(Verdict::unknown) == 0);
    CHECK(b.count(Verdict::fails) == 0);
    CHECK(b.count(Verdict::holds) > 25);
    CHECK(b.document.design().begun.started);
    double sum = 0;
    for (const auto& i : b.document.design().ledger) sum += i.mass;
    CHECK(sum == Approx(QString::fromLatin1(row.mass).toDouble()));
    // It opens again as it was saved.
    QTemporaryDir folder;
    const QString file = folder.filePath("started.kranich");
    REQUIRE(b.window->save_to(file));
    const auto before = write_project(b.document.design());
    REQUIRE(b.window->open_file(file));
    CHECK(write_project(b.document.design()) == before);
  }
}

TEST_CASE("nothing answered is an aircraft too, and an answer can be left open again", "[window]") {
  Fresh b;
  CHECK(b.can_make());
  CHECK(b.page().said().contains("taken as usual"));
  CHECK(b.hint("craft").contains("nose wheel is taken"));
  b.click("answer-tail-wheel");
  CHECK(b.page().answers().kind == Craft::tail_wheel);
  CHECK_FALSE(b.hint("craft").contains("taken"));
  b.click("open-craft");
  CHECK_FALSE(b.page().answers().kind.has_value());
  b.click("start-make");
  CHECK(b.document.design().is_tricycle());
  CHECK(b.count(Verdict::unknown) == 0);
  // One step back is the empty board.
  b.document.undo();
  CHECK(b.document.design().ledger.empty());
}

TEST_CASE("an answer out of reach says what is allowed, and a size may be kept", "[window]") {
  Fresh b;
  b.click("answer-seats-2");
  b.type("answer-mass", "100");
  CHECK(b.hint("mass").contains("350"));
  CHECK_FALSE(b.can_make());
  b.type("answer-mass", "much");
  CHECK_FALSE(b.can_make());
  // A new project forgets it.
  b.window->show_start();
  CHECK(b.can_make());
  b.click("answer-seats-2");
  b.type("answer-mass", "640");
  CHECK(b.can_make());
  b.type("answer-span", "16");
  CHECK(b.hint("span").contains("15.6"));
  CHECK_FALSE(b.can_make());
  b.click("keep-span");
  CHECK(b.can_make());
  b.type("answer-span", "30 ft");
  CHECK(b.page().answers().span == Approx(9.144));
  CHECK_FALSE(b.page().answers().keep_span);
  b.click("start-make");
  CHECK(b.document.design().airframe.wing.span.si == Approx(9.144));
  CHECK(b.document.design().airframe.wing.span.origin == Origin::plan);
}

TEST_CASE("from what hurts: the checks, and the few numbers that decide them", "[window]") {
  for (const auto& hurt : start::hurts()) {
    INFO(std::string(hurt.words));
    Fresh b;
    b.click("answer-retractable");
    b.click(("hurt-" + std::string(hurt.id)).c_str());
    auto* verdicts = b.page().findChild<QLabel*>("hurt-verdicts");
    REQUIRE(verdicts);
    CHECK_FALSE(verdicts->text().isEmpty());
    const auto paths = start::deciding(hurt, b.document.design());
    CHECK(paths.size() >= 3);
    CHECK(paths.size() <= 9);
    for (const auto& path : paths) {
      INFO(path);
      CHECK(b.page().findChild<QLineEdit*>(QStringLiteral("field:%1").arg(QString::fromStdString(path))));
    }
  }
  // What is typed is judged at once.
  Fresh b;
  b.click("hurt-tips");
  auto* verdicts = b.page().findChild<QLabel*>("hurt-verdicts");
  CHECK(verdicts->text().contains("holds"));
  const QString path = "field:/gear/legs/main/axle/y_m";
  auto* track = b.page().findChild<QLineEdit*>(path);
  track->setFocus();
  track->selectAll();
  QTest::keyClicks(track, "500");
  QTest::keyClick(track, Qt::Key_Return);
  b.settle();
  CHECK(verdicts->text().contains("fails"));
  CHECK(b.document.design().gear.main().axle.y.origin == Origin::plan);
  CHECK(b.document.design().gear.main().axle.y.tolerance == 0);
  // What was typed is not lost by looking at another complaint, or by making the aircraft.
  b.click("hurt-back");
  b.click("hurt-noses");
  CHECK(b.document.design().gear.main().axle.y.si == Approx(0.5));
  b.click("hurt-back");
  b.click("start-make");
  CHECK(b.document.design().gear.main().axle.y.si == Approx(0.5));
  // Another answer is another aircraft.
  b.window->show_start();
  b.click("answer-model");
  b.click("hurt-tips");
  CHECK(b.document.design().is_model());
  b.click("hurt-go");
  CHECK(b.window->page(Station::place)->isVisible());
}

TEST_CASE("what to measure next: ten guesses replaced where they stand", "[window]") {
  Fresh b;
  b.click("answer-seats-2");
  b.click("answer-retractable");
  b.type("answer-mass", "640");
  b.click("start-make");
  NextPage& next = *b.window->next_page();
  b.listed();
  REQUIRE(next.list().acts.size() >= 5);
  const int open = next.list().open;
  const double weight = next.list().weight;
  CHECK(next.findChild<QLabel*>("next-note")->text().contains(QString::number(open)));
  QTemporaryDir folder;
  CHECK_FALSE(next.write_sheet_to(folder.filePath("sheet.pdf")).has_value());
  CHECK(QFileInfo(folder.filePath("sheet.pdf")).size() > 2000);
  // An entry that is no number stays, and says so.
  int typed = 0;
  size_t acts = 0;
  const size_t book = b.document.journal().book().entries.size();
  while (typed < 10 && acts < 12) {
    const start::Act act = next.list().acts.at(0).act;
    INFO(act.id);
    if (act.tool == start::Tool::scales) {
      const auto empty = start::empty_of(b.document.design());
      const auto placed = placed_legs(b.document.design().gear);
      const Leg &main = b.document.design().gear.main(), &third = b.document.design().gear.third();
      // Twenty kilograms more than guessed, at the same place.
      const double mass = empty.mass + 20;
      const double share = (empty.x - main.axle.x) / (third.axle.x - main.axle.x);
      for (size_t i = 0; i < placed.size(); ++i) {
        const bool is_main = b.document.design().gear.legs[placed[i].row].role == LegRole::main;
        auto* scale = next.findChild<QLineEdit*>(QStringLiteral("scale:%1").arg(i));
        REQUIRE(scale);
        scale->setText(QString::number(mass * (is_main ? (1 - share) / 2 : share), 'f', 6));
      }
      next.findChild<QPushButton*>("take-scales")->click();
      b.settle();
      CHECK(start::empty_of(b.document.design()).mass == Approx(mass).epsilon(1e-4));
      CHECK(start::empty_of(b.document.design()).x == Approx(empty.x).epsilon(1e-3));
      ++typed;
    } else {
      for (const auto& path : act.paths) {
        auto* entry =
            next.findChild<QLineEdit*>(QStringLiteral("measured:%1").arg(QString::fromStdString(path)));
        REQUIRE(entry);
        const Given was = *given_at(b.document.design(), path);
        // Just outside of the guess's half-range for the first, inside of it for the rest.
        const double to = was.si + (typed == 0 ? 1.2 : 0.1) * was.tolerance;
        entry->setText(QString::fromStdString(
            format_number(to, spec_at(b.document.design(), path)->kind, UnitSystem::metric)));
        QTest::keyClick(entry, Qt::Key_Return);
        b.settle();
        const Given now = *given_at(b.document.design(), path);
        CHECK(now.origin == Origin::measured);
        CHECK(now.si == Approx(to).epsilon(6e-3));
        CHECK(now.tolerance < was.tolerance);
        ++typed;
      }
    }
    ++acts;
    b.listed();
    for (const auto& w : next.list().acts) CHECK(w.act.id != act.id);
  }
  CHECK(typed >= 10);
  CHECK(next.list().weight < 0.8 * weight);
  CHECK(next.findChild<QLabel*>("next-done")->text().contains("% off"));
  CHECK(b.document.journal().book().entries.size() > book);
  // Guess the rest again: before and after, taken or left.
  const Design before = b.document.design();
  next.findChild<QPushButton*>("guess-again")->click();
  b.settle();
  auto* table = next.findChild<QTableWidget*>("guess-again-table");
  REQUIRE(table);
  CHECK(table->rowCount() > 5);
  CHECK(b.document.design() == before);
  next.findChild<QPushButton*>("guess-again-take")->click();
  b.settle();
  const Design& after = b.document.design();
  CHECK_FALSE(after == before);
  for (const NamedGiven& g : all_given(before))
    if (g.given.origin != Origin::guessed) {
      INFO(g.path);
      CHECK(*given_at(after, g.path) == g.given);
    }
}

TEST_CASE("what is no number is refused in the list, and what is typed waits", "[window]") {
  Fresh b;
  b.click("start-make");
  b.listed();
  NextPage& next = *b.window->next_page();
  const start::Act act = next.list().acts.at(0).act;
  const std::string path = act.paths[0];
  const QString name = QStringLiteral("measured:%1").arg(QString::fromStdString(path));
  auto* entry = next.findChild<QLineEdit*>(name);
  REQUIRE(entry);
  const Given was = *given_at(b.document.design(), path);
  entry->setText("long");
  QTest::keyClick(entry, Qt::Key_Return);
  CHECK(*given_at(b.document.design(), path) == was);
  CHECK(b.window->findChild<QLabel*>("message")->text().size() > 0);
  entry->setText("900 m");
  QTest::keyClick(entry, Qt::Key_Return);
  CHECK(*given_at(b.document.design(), path) == was);
}
