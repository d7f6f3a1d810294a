// SPDX-License-Identifier: GPL-3.0-or-later
//! Sequence: steps added and laid out, the plan written, sent to a sequencer, its answer drawn and compared.
#include <QComboBox>
#include <QFile>
#include <QJsonDocument>
#include <QJsonObject>
#include <QProcess>
#include <QTableWidget>
#include <QTemporaryDir>

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
  const std::string first = sequence::plan_of(d, problems).up.front().actor;
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
