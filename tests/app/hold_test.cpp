// SPDX-License-Identifier: GPL-3.0-or-later
//! Make it hold, by hand: what may move is unticked, a way is put in or kept, a contradiction is read.
#include <QCheckBox>
#include <QDialog>
#include <QLabel>
#include <QTreeWidget>

#include "bench.h"
#include "core/assess/loading_state.h"
#include "core/io/variants.h"
#include "said.h"

using namespace kranich;
using namespace kranich::app;

namespace {

int failing(const Assessment& a) {
  int n = 0;
  for (const Finding* f : worst_of_each(a)) n += f->verdict == Verdict::fails;
  return n;
}

struct Hold : Bench {
  explicit Hold(const QString& demo) : Bench(demo) {
    QTest::keyClick(window.get(), Qt::Key_H, Qt::ControlModifier);
    wait();
  }
  ~Hold() {
    if (auto* d = window->findChild<QDialog*>("hold-dialog")) d->close();
    settle();
  }
  void wait() {
    REQUIRE(eventually([&] { return find<QPushButton>("hold-search")->isVisible(); }));
  }
  QString state() { return find<QLabel>("hold-state")->text(); }
  //! Unticks everything but the knobs of some ids.
  void only(const QStringList& ids) {
    auto* tree = find<QTreeWidget>("hold-knobs");
    for (int g = 0; g < tree->topLevelItemCount(); ++g)
      for (int i = 0; i < tree->topLevelItem(g)->childCount(); ++i) {
        auto* item = tree->topLevelItem(g)->child(i);
        item->setCheckState(
            0, ids.contains(item->data(0, Qt::UserRole).toString()) ? Qt::Checked : Qt::Unchecked);
      }
    find<QCheckBox>("hold-shelf")->setChecked(false);
    find<QPushButton>("hold-search")->click();
    wait();
  }
};

}  // namespace

TEST_CASE("a way is put in, nothing fails any more, and undo takes it back", "[window]") {
  Hold b("Dunnock");
  const Design before = b.document.design();
  REQUIRE(failing(b.document.assessment()) > 0);
  CHECK(b.state().contains("nothing fails"));
  REQUIRE(b.find<QFrame>("hold-way-1"));
  b.find<QPushButton>("hold-put-1")->click();
  b.proved();
  CHECK(failing(b.document.assessment()) == 0);
  CHECK(b.state().contains("Put in"));
  CHECK_FALSE(b.window->findChild<QFrame*>("hold-way-1"));
  b.document.undo();
  CHECK(b.document.design() == before);
  b.wait();  // it looks again by itself
  CHECK(b.find<QFrame>("hold-way-1"));
}

TEST_CASE("a way is kept as a variant, the design in hand stays, and it can be saved and taken up") {
  Hold b("Wheatear");
  const auto now = b.document.design().gear;
  b.find<QPushButton>("hold-keep-1")->click();
  b.settle();
  CHECK(b.document.design().gear == now);
  REQUIRE(b.document.design().variants.size() == 1);
  const auto kept = variant(b.document.design(), b.document.design().variants[0].name);
  REQUIRE(kept);
  CHECK(failing(assess(*kept)) == 0);
  CHECK_FALSE(b.document.design().variants[0].note.empty());
  CHECK(read_project(write_project(b.document.design())).design);
}

TEST_CASE("only what is ticked moves; where that does not do, it is said what fails") {
  Hold b("Dunnock");
  b.only({"main.station"});
  CHECK_FALSE(b.window->findChild<QFrame*>("hold-way-1"));
  CHECK(b.find<QLabel>("hold-against")->text().contains("least clearance", Qt::CaseInsensitive));
  b.only({"main.station", "third.length"});
  REQUIRE(b.find<QFrame>("hold-way-1"));
  b.find<QPushButton>("hold-put-1")->click();
  b.proved();
  CHECK(failing(b.document.assessment()) == 0);
  const auto& d = b.document.design();
  CHECK(d.gear.main().axle.x.si < 2.45);
  CHECK(d.gear.third().axle.z.si > -0.772);
  CHECK(d.gear.third().wheel.diameter.si == Approx(0.33));
  b.find<QPushButton>("hold-search")->click();
  b.settle();
  CHECK(b.state().contains("Nothing fails"));
}

TEST_CASE("the card of what fails leads there, and stopping leaves the design alone") {
  Bench b("Nightjar");
  auto& page = b.go(Station::place);
  for (const Finding* f : worst_of_each(b.document.assessment()))
    if (f->verdict == Verdict::fails && f->info().station == Station::place) {
      page.findings()->choose(f->check());
      break;
    }
  REQUIRE(eventually([&] { return page.findChild<QPushButton*>("make-it-hold") != nullptr; }));
  const Design before = b.document.design();
  page.findChild<QPushButton*>("make-it-hold")->click();
  b.settle();
  b.find<QPushButton>("hold-stop")->click();
  CHECK(b.find<QLabel>("hold-state")->text().contains("Stopped"));
  CHECK(b.document.design() == before);
  b.find<QDialog>("hold-dialog")->close();
}

TEST_CASE("two rests are read on the table, and their friction is taken over") {
  Bench b("Redshank");
  b.go(Station::stance);
  b.type("/gear/legs/main/rest_lifted_m", "250");
  b.type("/gear/legs/main/rest_pressed_m", "249");
  const auto read = [&] {
    for (const auto& f : b.document.assessment().findings)
      if (f.measure_id == "stance.rest_friction") return f;
    return Finding();
  };
  REQUIRE(std::isfinite(read().value));
  CHECK(read().verdict != Verdict::unknown);
  b.find<QPushButton>("take-rest-friction")->click();
  b.settle();
  const auto& friction = b.document.design().gear.main().spring.friction;
  CHECK(friction.si > 0);
  CHECK(friction.origin == Origin::measured);
}

TEST_CASE("ways to trim are shown in degrees for each, and tried") {
  Bench b("Dunnock");
  auto& page = b.go(Station::stance);
  auto* target = b.find<QLineEdit>("shim-target");
  target->selectAll();
  QTest::keyClicks(target, "0.5");
  REQUIRE(eventually([&] { return page.findChild<QPushButton*>("trim:third.shim") != nullptr; }));
  bool told = false;
  for (const auto* l : page.findChildren<QLabel*>()) told = told || l->text().contains("for each mm");
  CHECK(told);
  auto* attempt = page.findChild<QPushButton*>("trim:third.shim");
  REQUIRE(attempt);
  attempt->click();
  b.settle();
  CHECK(degrees(b.document.loading()->rest->pitch) == Approx(0.5).margin(0.06));
  CHECK(b.document.undo_text().contains("Shim under"));
}
