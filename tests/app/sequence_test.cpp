// SPDX-License-Identifier: GPL-3.0-or-later
//! Sequence: steps added and laid out, the plan written, sent to a sequencer, its answer drawn and compared.
#include <QComboBox>
#include <QFile>
#include <QJsonDocument>
#include <QJsonObject>
#include <QProcess>
#include <QTableWidget>
#include <QTemporaryDir>

#include "app/tongue.h"
#include "app/widgets/findings.h"
#include "app/widgets/list_table.h"
#include "app/widgets/sequencer_link.h"
#include "bench.h"
#include "core/model/locate.h"

using namespace kranich;
using namespace kranich::app;

namespace {

QString bench_program() {
  return QCoreApplication::applicationDirPath() + "/../src/bench_device/kranich-bench";
}

//! A sequencer of its own, so much faster than the wall's clock; its line.
struct Sequencer {
  QProcess process;
  QString line;
  explicit Sequencer(QStringList arguments = {}) {
    process.start(bench_program(), QStringList{"sequencer", "--pace", "20", "--rate", "100"} + arguments);
    REQUIRE(eventually([&] { return process.canReadLine(); }));
    line = QString::fromUtf8(process.readLine()).trimmed();
  }
  ~Sequencer() {
    process.terminate();
    process.waitForFinished(5000);
  }
};

void connect_to(Bench& b, const Sequencer& sequencer) {
  auto* device = b.find<QLineEdit>("sequencer-device");
  Fold::open_around(device);
  device->setText(sequencer.line);
  QTest::keyClick(device, Qt::Key_Return);
  auto* play = b.find<QPushButton>("sequencer-play");
  REQUIRE(eventually([&] { return play->isEnabled(); }));
}
QString played(Bench& b) {
  b.press("sequencer-play");
  auto* answer = b.find<QLabel>("sequencer-answer");
  REQUIRE(eventually([&] { return answer->isVisible(); }));
  return answer->text();
}

}  // namespace

TEST_CASE("steps are added in their table, laid out with the least waits, and taken back") {
  Bench b("Redshank");
  auto& page = b.go(Station::sequence);
  auto* table = page.findChild<QTableWidget*>("list:/sequence/up");
  REQUIRE(table);
  Fold::open_around(table);
  const Sequence before = b.document.design().sequence;
  auto* add = page.findChild<QPushButton*>("add:/sequence/up");
  REQUIRE(add);
  add->click();
  b.settle();
  REQUIRE(b.document.design().sequence.up.size() == before.up.size() + 1);
  const int row = static_cast<int>(before.up.size());
  table->item(row, 1)->setText("lower");
  CHECK(b.document.design().sequence.up.back().action == Action::lower);
  table->item(row, 1)->setText("fly");
  CHECK(b.document.design().sequence.up.back().action == Action::lower);
  CHECK(qobject_cast<ListTable*>(table->parentWidget())->note().contains("raise"));
  b.press("lay-out");
  CHECK(b.document.design().sequence.up.size() < before.up.size() + 1);
  for (const char* id : {"sequence.door_wait", "sequence.leg_wait"}) {
    INFO(id);
    for (const Finding& f : b.document.assessment().findings)
      if (f.measure_id == id) {
        INFO(f.key() << " " << f.value << " " << in_words(f.limit.source) << " " << in_words(f.remark));
        CHECK((f.verdict == Verdict::holds || f.verdict == Verdict::noted));
      }
  }
  // Every start has its row again.
  QApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
  CHECK(page.findChildren<QLineEdit*>(QRegularExpression("^field:/sequence/up/[0-9]+/start_s$")).size() ==
        static_cast<int>(b.document.design().sequence.up.size()));
  b.document.undo();
  b.document.undo();
  b.document.undo();
  CHECK(b.document.design().sequence == before);
}

TEST_CASE("the plan is written as a table, as JSON and as a wiring list, or it is said why not") {
  Bench b("Redshank");
  b.go(Station::sequence);
  auto* link = b.window->findChild<SequencerLink*>();
  REQUIRE(link);
  Fold::open_around(link);
  auto* state = b.find<QLabel>("sequencer-state");
  QTemporaryDir dir;
  const auto text_of_file = [&](const QString& name) {
    QFile f(dir.filePath(name));
    REQUIRE(f.open(QIODevice::ReadOnly));
    return f.readAll();
  };
  link->write(SequencerLink::Out::table, dir.filePath("a.csv"));
  CHECK(state->text().contains("written to"));
  CHECK(text_of_file("a.csv").startsWith("selector,channel,actor"));
  CHECK(text_of_file("a.csv").count('\n') ==
        static_cast<qsizetype>(1 + b.document.design().sequence.up.size() +
                               b.document.design().sequence.down.size()));
  link->write(SequencerLink::Out::json, dir.filePath("a.json"));
  CHECK(QJsonDocument::fromJson(text_of_file("a.json")).object()["kranich_sequence"].toInt() == 1);
  link->write(SequencerLink::Out::wiring, dir.filePath("w.csv"));
  CHECK(text_of_file("w.csv").startsWith("box,output"));
  link->write(SequencerLink::Out::table, "/no/such/place/a.csv");
  CHECK(state->text().contains("/no/such/place/a.csv: "));
}

TEST_CASE("a sequencer plays what it is sent; its answer is drawn under the plan and held against it") {
  Bench b("Redshank");
  auto& page = b.go(Station::sequence);
  Sequencer all_well;
  connect_to(b, all_well);
  CHECK(played(b).toStdString() == "✓ all as planned, within the spread");
  auto* link = b.window->findChild<SequencerLink*>();
  const auto answered = link->answered();
  CHECK(answered.size() == b.document.design().sequence.up.size());
  page.grab();
  // The other way has not been played: nothing of it is drawn.
  b.press("sequence-down");
  CHECK(link->answered().empty());
  CHECK(played(b).toStdString() == "✓ all as planned, within the spread");
  CHECK(link->answered().size() == b.document.design().sequence.down.size());
}

TEST_CASE("what comes late on the bench is named") {
  Bench b("Redshank");
  b.go(Station::sequence);
  Sequencer slow({"--slow", "0=3"});
  connect_to(b, slow);
  const QString said = played(b);
  CHECK(said.startsWith("▲"));
  CHECK(said.contains("at the latest"));
  const Design& d = b.document.design();
  std::vector<Text> problems;
  const std::string first = sequence::plan_of(d, b.document.assessment().times, problems).up.front().actor;
  CHECK(said.contains(QString::fromStdString(in_words(d.actor_word(first)))));
}

TEST_CASE("the stand-in is started by a button, and what is cut is said") {
  Bench b("Redshank");
  b.go(Station::sequence);
  auto* how = b.find<QComboBox>("sequencer-how");
  Fold::open_around(how);
  how->setCurrentIndex(1);
  b.press("sequencer-simulate");
  auto* play = b.find<QPushButton>("sequencer-play");
  REQUIRE(eventually([&] { return play->isEnabled(); }));
  auto* device = b.find<QLineEdit>("sequencer-device");
  CHECK(device->text().startsWith("/dev/"));
  device->setText("/no/such/line");
  QTest::keyClick(device, Qt::Key_Return);
  b.settle();
  CHECK_FALSE(play->isEnabled());
  CHECK(b.find<QLabel>("sequencer-state")->text().contains("/no/such/line"));
}

TEST_CASE("below a leg's times stands what its drive computes; which counts is chosen, and drawn") {
  Bench b("Nightjar");
  auto& page = b.go(Station::sequence);
  auto* takes = page.findChild<QLabel*>("takes-front");
  REQUIRE(takes);
  const sequence::LegTimes* t = sequence::times_of(b.document.assessment().times, "front");
  REQUIRE(t);
  REQUIRE(t->up.computed.known());
  CHECK(takes->text().contains(figure(t->up.computed.nominal, 1)));
  CHECK(takes->text().contains(figure(t->up.counted.most(), 1)));
  const auto bar = [&] {
    for (const auto& x : b.document.assessment().line(true).bars)
      if (x.actor == "front") return x;
    FAIL("no bar");
    return sequence::Bar{};
  };
  CHECK(std::isfinite(bar().entered_end));
  const double latest = bar().latest_end;
  auto* counts = page.findChild<QComboBox*>("choice:/gear/legs/front/retraction/times_from");
  REQUIRE(counts);
  counts->setCurrentIndex(1);
  emit counts->activated(1);
  b.settle();
  CHECK(b.document.design().gear.leg("front").retraction.times_from == TimesFrom::entered);
  CHECK(std::isnan(bar().entered_end));
  CHECK(bar().latest_end <= latest);
  b.document.undo();
}

TEST_CASE("steering is added as an actor, found to be left on, and its steps are set by the cure") {
  Bench b("Dunnock");
  auto& page = b.go(Station::sequence);
  auto* add = page.findChild<QPushButton*>("add:/sequence/aids");
  REQUIRE(add);
  Fold::open_around(add);
  add->click();
  b.settle();
  REQUIRE(b.document.design().sequence.aids.size() == 1);
  CHECK(b.document.design().sequence.aids[0].leg == "third");  // the leg that steers
  auto* table = page.findChild<QTableWidget*>("list:/sequence/aids");
  REQUIRE(table);
  table->item(0, 2)->setText("0.4");
  table->item(0, 3)->setText("1.2");
  table->item(0, 4)->setText("0.9");
  b.settle();
  const auto found = [&](const char* key) -> const Finding* {
    for (const Finding& f : b.document.assessment().findings)
      if (f.measure_id == "sequence.aid" && f.subject.key == key) return &f;
    return nullptr;
  };
  REQUIRE(found("aid:aid/up"));
  CHECK(found("aid:aid/up")->verdict == Verdict::fails);
  page.findings()->choose(found("aid:aid/up")->key());
  REQUIRE(eventually([&] { return page.findings()->cure_count() > 0; }));
  QPushButton* cure = nullptr;
  for (auto* button : page.findings()->findChildren<QPushButton*>())
    if (button->text().contains("try", Qt::CaseInsensitive)) cure = cure ? cure : button;
  REQUIRE(cure);
  cure->click();
  b.settle();
  CHECK(found("aid:aid/up")->verdict == Verdict::holds);
  CHECK(found("aid:aid/down")->verdict == Verdict::holds);
  // It is drawn in a row of its own, and its steps are in the tables.
  const auto& bars = b.document.assessment().line(true).bars;
  CHECK(std::any_of(bars.begin(), bars.end(), [](const auto& x) { return x.actor == "aid"; }));
  CHECK(page.board()->handle_position("step:0"));
  b.document.undo();
}
