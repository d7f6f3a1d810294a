// SPDX-License-Identifier: GPL-3.0-or-later
//! Files: save and reopen, faulty files, read-only, recovery after a kill, report and figures, dropping a
//! file.
#include <QFile>
#include <QMessageBox>
#include <QMimeData>
#include <QProcess>
#include <QSettings>
#include <QTemporaryDir>
#include <csignal>

#include "app/print/report.h"
#include "bench.h"

using namespace kranich;
using namespace kranich::app;

namespace {
void write(const QString& path, const QByteArray& text) {
  QFile f(path);
  REQUIRE(f.open(QIODevice::WriteOnly));
  f.write(text);
}
}  // namespace

TEST_CASE("saved and reopened, a project is the same", "[window]") {
  QTemporaryDir dir;
  Bench b;
  auto& place = b.go(Station::place);
  b.drag(place, "main", {-9, 0});
  b.type("/gear/legs/third/axle/x_m", "30 in");
  const Design as_saved = b.document.design();
  const auto findings = b.document.assessment().findings.size();
  REQUIRE(b.window->save_to(dir.filePath("mine.kranich")));
  CHECK_FALSE(b.document.modified());
  CHECK(b.window->windowTitle().contains("mine.kranich"));
  b.type("/gear/legs/third/axle/x_m", "700");
  CHECK(b.document.modified());
  CHECK(b.window->windowTitle().contains("*"));
  REQUIRE(b.window->open_file(dir.filePath("mine.kranich")));
  CHECK(b.document.design() == as_saved);
  CHECK(b.document.assessment().findings.size() == findings);
  CHECK(QSettings().value("recent").toStringList().first().endsWith("mine.kranich"));
}

TEST_CASE("a faulty file is named field by field and changes nothing") {
  QTemporaryDir dir;
  Bench b;
  const Design before = b.document.design();
  write(dir.filePath("bad.kranich"), "{\"kranich\": 1, \"gear\": {\"main\": {\"travel_m\": -4}}}");
  CHECK_FALSE(b.window->open_file(dir.filePath("bad.kranich")));
  CHECK(b.window->last_fault().contains("/gear/main/travel_m"));
  CHECK(b.window->last_fault().contains("must be at least 0, is -4"));
  CHECK(b.document.design() == before);
  CHECK_FALSE(b.window->open_file(dir.filePath("none.kranich")));
  for (auto* box : b.window->findChildren<QMessageBox*>()) box->close();
  b.settle();
}

TEST_CASE("a newer file is open for reading only") {
  QTemporaryDir dir;
  Bench b;
  QByteArray text = QByteArray::fromStdString(write_project(b.document.design()));
  text.replace("\"kranich\": 2", "\"kranich\": 3");
  write(dir.filePath("newer.kranich"), text);
  REQUIRE(b.window->open_file(dir.filePath("newer.kranich")));
  CHECK(b.document.read_only());
  const Design before = b.document.design();
  b.go(Station::place);
  b.type("/gear/legs/main/axle/x_m", "2000");
  CHECK(b.document.design() == before);
  CHECK_FALSE(b.window->save_to(dir.filePath("newer.kranich")));
  CHECK(b.find<QLabel>("message")->text().contains("reading only"));
}

TEST_CASE("a file dropped on the window is opened") {
  QTemporaryDir dir;
  Bench b;
  Design d = b.document.design();
  d.about.name = "Dropped";
  REQUIRE_FALSE(save_project(d, dir.filePath("d.kranich").toStdString()));
  QMimeData mime;
  mime.setUrls({QUrl::fromLocalFile(dir.filePath("d.kranich"))});
  QDropEvent drop(QPointF(50, 50), Qt::CopyAction, &mime, Qt::LeftButton, {});
  static_cast<QObject*>(b.window.get())->event(&drop);
  CHECK(b.document.design().about.name == "Dropped");
}

TEST_CASE("a user at work until the process is killed", "[.victim]") {
  Bench b;
  b.go(Station::place);
  b.type("/gear/legs/main/axle/x_m", "2123");
  QTest::qWait(30000);
}

TEST_CASE("work is recovered after kill -9") {
  QProcess victim;
  victim.start(QCoreApplication::applicationFilePath(), {"[.victim]"});
  REQUIRE(victim.waitForStarted());
  const auto copy =
      Document::recovery_directory() / ("copy-" + std::to_string(victim.processId()) + ".kranich");
  REQUIRE(QTest::qWaitFor([&] { return std::filesystem::exists(copy); }, 20000));
  CHECK(Document::left_behind().empty());  // its owner still lives
  ::kill(static_cast<pid_t>(victim.processId()), SIGKILL);
  victim.waitForFinished();
  CHECK(victim.exitStatus() == QProcess::CrashExit);
  const auto copies = Document::left_behind();
  REQUIRE(copies.size() == 1);
  Bench b;
  REQUIRE(b.document.recover(copies[0]));
  CHECK(b.value("/gear/legs/main/axle/x_m") == Approx(2.123));
  CHECK(b.document.modified());
  CHECK(Document::left_behind().empty());
}

TEST_CASE("an edit is in the recovery copy within seconds, and a save removes it") {
  QTemporaryDir dir;
  Bench b;
  b.go(Station::place);
  b.type("/gear/legs/main/axle/x_m", "2345");
  const auto copy = Document::recovery_directory() /
                    ("copy-" + std::to_string(QCoreApplication::applicationPid()) + ".kranich");
  REQUIRE(QTest::qWaitFor([&] { return std::filesystem::exists(copy); }, 5000));
  const auto read = load_project(copy);
  REQUIRE(read.design);
  CHECK(read.design->gear.main().axle.x == Approx(2.345));
  REQUIRE(b.window->save_to(dir.filePath("x.kranich")));
  CHECK_FALSE(std::filesystem::exists(copy));
}

TEST_CASE("the report is a PDF of a few pages with its fonts in it; the figures are a table") {
  QTemporaryDir dir;
  Bench b;
  REQUIRE_FALSE(write_report(b.document, dir.filePath("r.pdf")));
  QFile pdf(dir.filePath("r.pdf"));
  REQUIRE(pdf.open(QIODevice::ReadOnly));
  const QByteArray bytes = pdf.readAll();
  CHECK(bytes.startsWith("%PDF"));
  CHECK(bytes.contains("B612"));
  const auto pages = bytes.count("/Type /Page\n");
  CHECK(pages >= 1);
  CHECK(pages <= 3);
  REQUIRE_FALSE(write_figures(b.document, dir.filePath("f.csv")));
  QFile csv(dir.filePath("f.csv"));
  REQUIRE(csv.open(QIODevice::ReadOnly));
  const QByteArray table = csv.readAll();
  CHECK(table.count('\n') == static_cast<int>(b.document.assessment().findings.size()) + 1);
  CHECK(write_report(b.document, "/no/such/place/r.pdf"));
}

TEST_CASE("the program itself starts with a demo, draws every view and ends") {
  QTemporaryDir dir;
  QProcess p;
  p.setProcessEnvironment([] {
    auto e = QProcessEnvironment::systemEnvironment();
    e.insert("QT_QPA_PLATFORM", "offscreen");
    return e;
  }());
  p.start(KRANICH_PROGRAM,
          {"--demo", "Redshank", "--pictures", dir.path(), "--report", dir.filePath("r.pdf")});
  REQUIRE(p.waitForFinished(60000));
  CHECK(p.exitCode() == 0);
  for (const char* name : {"weigh", "place", "stance", "spring", "swing", "sequence"}) {
    const QImage picture(dir.filePath(QString::fromLatin1(name) + ".png"));
    CHECK(picture.size() == QSize(1280, 800));
  }
  CHECK(QFile::exists(dir.filePath("r.pdf")));
  p.start(KRANICH_PROGRAM, {"--demo", "Nobody"});
  REQUIRE(p.waitForFinished(60000));
  CHECK(p.exitCode() == 2);
}
