// SPDX-License-Identifier: GPL-3.0-or-later
//! Files: save and reopen, faulty files, read-only, recovery after a kill, report and figures, dropping a
//! file.
#include <QFile>
#include <QMessageBox>
#include <QMimeData>
#include <QProcess>
#include <QSettings>
#include <QTemporaryDir>
#include <QTimer>
#include <csignal>

#include "app/print/report.h"
#include "app/tongue.h"
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
  text.replace("\"kranich\": " + QByteArray::number(file_version),
               "\"kranich\": " + QByteArray::number(file_version + 1));
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
  const auto copy = recovery_directory() / ("copy-" + std::to_string(victim.processId()) + "-1.kranich");
  REQUIRE(eventually([&] { return std::filesystem::exists(copy); }));
  CHECK(work_left_behind().empty());  // its owner still lives
  ::kill(static_cast<pid_t>(victim.processId()), SIGKILL);
  victim.waitForFinished();
  CHECK(victim.exitStatus() == QProcess::CrashExit);
  const auto copies = work_left_behind();
  REQUIRE(copies.size() == 1);
  Bench b;
  REQUIRE(b.document.recover(copies[0]).empty());
  CHECK(b.value("/gear/legs/main/axle/x_m") == Approx(2.123));
  CHECK(b.document.modified());
  // There is a copy of its own at once: no moment without one.
  CHECK(load_project(b.document.recovery_file()).design->gear.main().axle.x == Approx(2.123));
  CHECK_FALSE(std::filesystem::exists(copies[0].copy));
  CHECK(work_left_behind().empty());
}

TEST_CASE("a copy is offered by its file, may be put off, and is kept when it cannot be read") {
  QTemporaryDir dir;
  std::filesystem::create_directories(recovery_directory());
  const auto copy =
      recovery_directory() / ("copy-" + std::to_string(getpid()) + "-77.kranich");  // a living number
  Design d;
  d.about.name = "Left behind";
  write_file_atomically(copy, write_project(d));
  write_file_atomically(std::filesystem::path(copy).replace_extension(".from"),
                        dir.filePath("mine.kranich").toStdString() + "\nabc\n");
  REQUIRE(work_left_behind().size() == 1);
  Bench b;
  const auto answer = [&](const QString& word) {
    b.window->offer_work_left_behind();
    b.settle();
    auto* box = b.find<QMessageBox>("left-behind");
    CHECK(box->text().contains("mine.kranich"));
    for (auto* button : box->buttons())
      if (button->text().contains(word)) button->click();
    b.settle();
    QApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
  };
  answer("Not now");
  CHECK(work_left_behind().size() == 1);
  answer("Take it up");
  CHECK(b.document.design().about.name == "Left behind");
  CHECK(b.document.path() == dir.filePath("mine.kranich"));
  CHECK(b.document.modified());
  CHECK(work_left_behind().empty());
  REQUIRE(b.window->save_to(dir.filePath("mine.kranich")));
  // One that no reader takes is put where it can be fetched, and not asked about again.
  write_file_atomically(copy, "{\"kranich\": 2, \"gear\": 7}");
  write_file_atomically(std::filesystem::path(copy).replace_extension(".from"),
                        dir.filePath("mine.kranich").toStdString() + "\n\n");
  answer("Take it up");
  CHECK(b.window->last_fault().contains("/gear"));
  CHECK(work_left_behind().empty());
  bool kept = false;
  for (const auto& entry : std::filesystem::directory_iterator(recovery_directory() / "put-away"))
    kept = kept || entry.path().string().find("-77") != std::string::npos;
  CHECK(kept);
  for (auto* box : b.window->findChildren<QMessageBox*>()) box->close();
}

TEST_CASE("asked to end from outside, unsaved work waits for the next start") {
  QTemporaryDir home;
  QProcess p;
  p.setProcessEnvironment([&] {
    auto e = QProcessEnvironment::systemEnvironment();
    e.insert("QT_QPA_PLATFORM", "offscreen");
    e.insert("XDG_DATA_HOME", home.path());
    e.insert("XDG_CONFIG_HOME", home.path());
    return e;
  }());
  // A file of version 1 that nothing was done to leaves nothing behind.
  p.start(KRANICH_PROGRAM, {"--demo", "Wheatear"});
  REQUIRE(p.waitForStarted());
  // It listens once the kernel lists SIGTERM among the signals it catches.
  const auto listens = [&] {
    QFile status(QStringLiteral("/proc/%1/status").arg(p.processId()));
    if (!status.open(QIODevice::ReadOnly)) return false;
    const QByteArray text = status.readAll();
    const auto at = text.indexOf("SigCgt:");
    return at >= 0 && (text.mid(at + 7, 17).trimmed().toULongLong(nullptr, 16) >> (SIGTERM - 1) & 1) != 0;
  };
  REQUIRE(eventually(listens));
  p.terminate();
  REQUIRE(p.waitForFinished(60000));
  CHECK(p.exitStatus() == QProcess::NormalExit);
  CHECK_FALSE(QFile::exists(home.filePath("kranich/recovery/copy.kranich")));
  // And in this process: what leave_for_next_start does.
  {
    Bench b;
    b.document.edit("rename", [](Design& d) { d.about.name = "Kept"; });
    b.document.leave_for_next_start();
  }
  const auto left = work_left_behind();
  REQUIRE(left.size() == 1);
  CHECK(load_project(left[0].copy).design->about.name == "Kept");
  set_aside(left[0]);
}

TEST_CASE("an edit is in the recovery copy within seconds, and a save removes it") {
  QTemporaryDir dir;
  Bench b;
  b.go(Station::place);
  b.type("/gear/legs/main/axle/x_m", "2345");
  REQUIRE(eventually([&] { return std::filesystem::exists(b.document.recovery_file()); }));
  const auto copy = b.document.recovery_file();
  const auto read = load_project(copy);
  REQUIRE(read.design);
  CHECK(read.design->gear.main().axle.x == Approx(2.345));
  REQUIRE(b.window->save_to(dir.filePath("x.kranich")));
  CHECK_FALSE(std::filesystem::exists(copy));
}

TEST_CASE("a file that somebody else changed is not overwritten unasked; links and modes stay") {
  QTemporaryDir dir;
  Bench b;
  const QString file = dir.filePath("mine.kranich");
  const QString link = dir.filePath("link.kranich");
  REQUIRE(b.window->save_to(file));
  QFile::setPermissions(file, QFile::ReadOwner | QFile::WriteOwner | QFile::ReadGroup | QFile::WriteGroup);
  REQUIRE(QFile::link(file, link));
  REQUIRE(b.window->open_file(link));
  b.document.edit("rename", [](Design& d) { d.about.name = "Mine"; });
  REQUIRE(b.window->save_to(link));
  CHECK(QFileInfo(link).isSymLink());
  CHECK(QFileInfo(file).permission(QFile::WriteGroup));
  CHECK(load_project(file.toStdString()).design->about.name == "Mine");
  write(file, QByteArray::fromStdString(write_project(Design())));
  CHECK(b.document.changed_outside());
  const auto answer = [&](const QString& word) {
    QTimer::singleShot(0, [word] {
      for (auto* w : QApplication::topLevelWidgets())
        if (auto* box = qobject_cast<QMessageBox*>(w); box && box->objectName() == "changed-outside")
          for (auto* button : box->buttons())
            if (button->text().contains(word)) button->click();
    });
  };
  answer("Cancel");
  CHECK_FALSE(b.window->save_to(link));
  CHECK(load_project(file.toStdString()).design->about.name == "Untitled");
  answer("Save over");
  CHECK(b.window->save_to(link));
  CHECK(load_project(file.toStdString()).design->about.name == "Mine");
  CHECK_FALSE(b.document.changed_outside());
}

TEST_CASE("a save that fails says why in full, and a change that cannot stand leaves things as they were") {
  Bench b;
  CHECK_FALSE(b.window->save_to("/no/such/place/at/all/mine.kranich"));
  b.settle();
  auto* box = b.find<QMessageBox>("not-saved");
  CHECK(box->text().contains("/no/such/place/at/all/mine.kranich"));
  box->close();
  b.settle();
  const Design before = b.document.design();
  QString said;
  QObject::connect(&b.document, &Document::refused, [&](const QString& why) { said = why; });
  b.document.edit("doubled", [](Design& d) { d.loadings[1].name = d.loadings[0].name; });
  CHECK(b.document.design() == before);
  CHECK(said.contains("twice"));
  // A handle dragged too far stays where it last could.
  b.document.begin_drag("far");
  b.document.drag([](Design& d) { d.gear.main().axle.x.si += 1; });
  const Design good = b.document.design();
  b.document.drag([](Design& d) { d.gear.main().axle.x.si += 100; });
  CHECK(b.document.design() == good);
  // Light and dark in mid-drag end it: undo works.
  b.window->set_dark(true);
  b.settle();
  CHECK_FALSE(b.document.before_drag());
  b.document.undo();
  CHECK(b.document.design() == before);
  b.window->set_dark(false);
}

TEST_CASE("the report is a PDF with its fonts in it; the figures are a table") {
  QTemporaryDir dir;
  Bench b;
  REQUIRE_FALSE(write_report(b.document, dir.filePath("r.pdf")));
  QFile pdf(dir.filePath("r.pdf"));
  REQUIRE(pdf.open(QIODevice::ReadOnly));
  const QByteArray bytes = pdf.readAll();
  CHECK(bytes.startsWith("%PDF"));
  CHECK(bytes.contains("B612"));
  const auto pages = bytes.count("/Type /Page\n");
  CHECK(pages > 10);
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
  REQUIRE(p.waitForFinished(300000));
  CHECK(p.exitCode() == 0);
  for (const char* name : {"weigh", "place", "stance", "spring", "swing", "steer", "doors", "sequence"}) {
    const QImage picture(dir.filePath(QString::fromLatin1(name) + ".png"));
    CHECK(picture.size() == QSize(1280, 800));
  }
  CHECK(QFile::exists(dir.filePath("r.pdf")));
  p.start(KRANICH_PROGRAM, {"--demo", "Nobody"});
  REQUIRE(p.waitForFinished(60000));
  CHECK(p.exitCode() == 2);
}

TEST_CASE("a file that another window has open is said, and opened to look at or as a copy, by choice") {
  QTemporaryDir dir;
  const QString file = dir.filePath("mine.kranich");
  Bench b;
  REQUIRE_FALSE(b.document.save(file));
  QProcess other;
  other.setProcessEnvironment([] {
    auto e = QProcessEnvironment::systemEnvironment();
    e.insert("QT_QPA_PLATFORM", "offscreen");
    return e;
  }());
  struct Ends {
    QProcess& process;
    ~Ends() {
      process.kill();
      process.waitForFinished(60000);
    }
  } ends{other};
  other.start(KRANICH_PROGRAM, {file});
  REQUIRE(other.waitForStarted());
  REQUIRE(eventually([&] { return OpenMark::open_elsewhere(file) == other.processId(); }));
  const auto answer = [&](const char* button) {
    // The question runs its own loop: answered as soon as it stands.
    QTimer::singleShot(0, b.window.get(), [&b, button] {
      auto* box = b.window->findChild<QMessageBox*>("open-elsewhere");
      if (!box) return;
      if (auto* choice = box->findChild<QPushButton*>(QString::fromLatin1(button)))
        choice->click();
      else
        box->reject();
    });
    return b.window->open_file(file);
  };
  CHECK_FALSE(answer("neither"));
  CHECK(answer("open-read-only"));
  CHECK(b.document.read_only());
  const Design before = b.document.design();
  b.document.edit("Rename", [](Design& d) { d.about.name = "Other"; });
  CHECK(b.document.design() == before);
  CHECK(b.document.save(file));
  // Under a name of its own it goes on.
  CHECK_FALSE(b.document.save(dir.filePath("another.kranich")));
  CHECK_FALSE(b.document.read_only());
  b.document.edit("Rename", [](Design& d) { d.about.name = "Other"; });
  CHECK(b.document.design().about.name == "Other");
  CHECK_FALSE(b.document.save(dir.filePath("another.kranich")));
  CHECK(answer("open-copy"));
  CHECK_FALSE(b.document.read_only());
  CHECK(b.document.path().isEmpty());
  b.document.edit("Rename", [](Design& d) { d.about.name = "Other"; });
  CHECK(b.document.design().about.name == "Other");
  // Gone, nobody asks.
  other.kill();
  REQUIRE(other.waitForFinished(60000));
  CHECK_FALSE(OpenMark::open_elsewhere(file));
  CHECK(b.window->open_file(file));
  CHECK(b.document.path() == file);
}

TEST_CASE(
    "what is asked before changes are lost: our own sign, our own words on every button, in German too") {
  for (const bool german : {false, true}) {
    if (german) speak("de");
    Bench b;
    b.document.edit("rename", [](Design& d) { d.about.name = "Mine"; });
    bool seen = false;
    const auto look = [&](const char* press) {
      QTimer::singleShot(0, [&seen, press, german] {
        for (auto* w : QApplication::topLevelWidgets()) {
          auto* box = qobject_cast<QMessageBox*>(w);
          if (!box || box->objectName() != "unsaved") continue;
          seen = true;
          CHECK(box->icon() == QMessageBox::NoIcon);
          CHECK_FALSE(box->iconPixmap().isNull());
          CHECK(box->standardButtons() == QMessageBox::NoButton);
          CHECK(box->buttons().size() == 3);
          for (auto* button : box->buttons()) CHECK(button->icon().isNull());
          CHECK(box->findChild<QPushButton*>("stays")->text() == (german ? "Abbrechen" : "Cancel"));
          box->findChild<QPushButton*>(press)->click();
        }
      });
    };
    look("stays");
    CHECK_FALSE(b.window->close());
    CHECK(seen);
    CHECK(b.document.modified());
    seen = false;
    look("unsaved-drop");
    CHECK(b.window->close());
    CHECK(seen);
    if (german) speak("en");
  }
}
