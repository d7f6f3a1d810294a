// SPDX-License-Identifier: GPL-3.0-or-later
//! Sheets for the bench: looked at, written, and measured on the page.
#include <sys/resource.h>

#include <QComboBox>
#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QImage>
#include <QLabel>
#include <QListWidget>
#include <QProcess>
#include <QTemporaryDir>
#include <csignal>

#include "app/print/report.h"
#include "app/print/templates.h"
#include "bench.h"

using namespace kranich;
using namespace kranich::app;

namespace {

shop::Sheet sheet(const std::vector<shop::Sheet>& all, const std::string& id) {
  for (const auto& s : all)
    if (s.id == id) return s;
  FAIL("no sheet " << id);
  return all.front();
}

//! A page of a PDF as a grey picture of so many dots an inch.
QImage page_of(const QString& pdf, int page, int dpi) {
  QTemporaryDir folder;
  QProcess p;
  p.start("pdftoppm", {"-r", QString::number(dpi), "-f", QString::number(page), "-l", QString::number(page),
                       "-gray", "-png", pdf, folder.filePath("page")});
  REQUIRE(p.waitForFinished(60000));
  REQUIRE(p.exitCode() == 0);
  const auto files = QDir(folder.path()).entryList({"*.png"});
  REQUIRE(files.size() == 1);
  return QImage(folder.filePath(files.first())).convertToFormat(QImage::Format_Grayscale8);
}
int pages_of(const QString& pdf) {
  QProcess p;
  p.start("pdfinfo", {pdf});
  REQUIRE(p.waitForFinished(30000));
  for (const auto& line : QString::fromUtf8(p.readAllStandardOutput()).split('\n'))
    if (line.startsWith("Pages:")) return line.mid(6).trimmed().toInt();
  return 0;
}

//! Longest dark run of a row of a picture, dots.
int longest_run(const QImage& image, int y) {
  int best = 0;
  int run = 0;
  for (int x = 0; x < image.width(); ++x) {
    run = qGray(image.pixel(x, y)) < 140 ? run + 1 : 0;
    best = std::max(best, run);
  }
  return best;
}

}  // namespace

TEST_CASE("the dialog lists the sheets, shows each, and says what one lacks") {
  Bench b("Dunnock");
  b.go(Station::leg);
  QTest::mouseClick(b.find<QPushButton>("open-sheets"), Qt::LeftButton);
  b.settle();
  auto* list = b.find<QListWidget>("sheets");
  const auto sheets = sheets_of(b.document);
  REQUIRE(list->count() == static_cast<int>(sheets.size()));
  auto* view = b.find<QWidget>("sheet-view");
  QImage last;
  int ready = 0;
  for (int i = 0; i < list->count(); ++i) {
    list->setCurrentRow(i);
    b.settle();
    const QImage now = view->grab().toImage();
    CHECK(now != last);
    last = now;
    const bool can = sheets[static_cast<size_t>(i)].ready();
    CHECK(b.find<QPushButton>("sheet-pdf")->isEnabled() == can);
    ready += can;
  }
  CHECK(ready > 7);
  // The list follows the design.
  b.document.edit("no plies", [](Design& d) { d.plies.clear(); });
  b.settle();
  CHECK(list->count() == static_cast<int>(sheets_of(b.document).size()));
}

TEST_CASE("a hundred millimetres on the sheet are a hundred millimetres on the page") {
  Bench b("Redshank");
  QTemporaryDir folder;
  constexpr int dpi = 300;
  for (const Paper paper : {Paper::a4, Paper::letter}) {
    b.document.edit("paper", [&](Design& d) { d.jig.paper = paper; });
    const QString pdf = folder.filePath("plate.pdf");
    REQUIRE_FALSE(write_sheet(b.document, sheet(sheets_of(b.document), "plate:main:unit bolts"), pdf));
    const QImage page = page_of(pdf, 1, dpi);
    // The paper's own size.
    CHECK(page.width() == Approx((paper == Paper::a4 ? 210 : 215.9) / 25.4 * dpi).margin(2));
    CHECK(page.height() == Approx((paper == Paper::a4 ? 297 : 279.4) / 25.4 * dpi).margin(2));
    // The check scale is the longest line in the foot: 100 mm, and below it 4 in.
    int hundred = 0;
    int four_inch = 0;
    for (int y = page.height() * 8 / 10; y < page.height(); ++y) {
      const int run = longest_run(page, y);
      if (std::abs(run - 101.6 / 25.4 * dpi) < 6) four_inch = std::max(four_inch, run);
      if (std::abs(run - 100 / 25.4 * dpi) < 6) hundred = std::max(hundred, run);
    }
    CHECK(hundred / static_cast<double>(dpi) * 25.4 == Approx(100).margin(0.3));
    CHECK(four_inch / static_cast<double>(dpi) == Approx(4).margin(0.012));
    // The plate itself: 70 mm from edge to edge, in every row between its corners.
    int rows = 0;
    for (int y = 0; y < page.height() / 2; ++y) {
      std::vector<int> strokes;  // middles of the dark places of a row
      for (int x = 0, from = -1; x < page.width(); ++x) {
        const bool dark = qGray(page.pixel(x, y)) < 140;
        if (dark && from < 0) from = x;
        if (!dark && from >= 0) {
          if (x - from < 8) strokes.push_back((from + x - 1) / 2);
          from = -1;
        }
      }
      bool plate = false;
      for (const int left : strokes)
        for (const int right : strokes) plate = plate || std::abs(right - left - 70 / 25.4 * dpi) < 2;
      rows += plate;
    }
    CHECK(rows > 0.8 * 45 / 25.4 * dpi);  // it is 45 mm high
  }
}

TEST_CASE("what is larger than the paper is tiled, with room to lay the pages together") {
  Bench b("Dunnock");
  const auto well = sheet(sheets_of(b.document), "well:third");
  REQUIRE(well.ready());
  const auto& drawing = std::get<shop::Drawing>(well.drawing);
  const Tiling t = tiling_of(drawing, Paper::a4);
  CHECK(t.columns * t.rows > 3);
  // Every page but the last adds its size less the overlap; nothing of the drawing is lost.
  CHECK(t.width + (t.columns - 1) * (t.width - Tiling::overlap) >= drawing.bounds().size().x());
  CHECK(t.width + (t.columns - 2) * (t.width - Tiling::overlap) < drawing.bounds().size().x());
  CHECK(t.height + (t.rows - 1) * (t.height - Tiling::overlap) >= drawing.bounds().size().y());
  const Tiling letter = tiling_of(drawing, Paper::letter);
  CHECK(letter.width > t.width);
  CHECK(letter.height < t.height);
  QTemporaryDir folder;
  REQUIRE_FALSE(write_sheet(b.document, well, folder.filePath("well.pdf")));
  CHECK(pages_of(folder.filePath("well.pdf")) == t.columns * t.rows);
}

TEST_CASE("every sheet is written in its three formats, and each carries its stamp") {
  Bench b("Wheatear");
  QTemporaryDir folder;
  REQUIRE_FALSE(write_shop_sheets(b.document, folder.path()));
  int ready = 0;
  for (const auto& s : sheets_of(b.document)) {
    if (!s.ready()) continue;
    ++ready;
    for (const char* format : {"pdf", "svg", "dxf"}) {
      QFile file(folder.filePath(QString::fromStdString(shop::file_name(s)) + "." + format));
      INFO(file.fileName().toStdString());
      REQUIRE(file.open(QIODevice::ReadOnly));
      const QByteArray text = file.readAll();
      CHECK(text.size() > 300);
      if (QByteArray(format) != "pdf") {
        CHECK(text.contains("Wheatear"));
        CHECK(text.contains("change 7"));
        CHECK(text.contains(QDate::currentDate().toString(Qt::ISODate).toUtf8()));
        CHECK(text.contains("legs extended"));
      }
    }
  }
  CHECK(ready >= 5);
  CHECK(QDir(folder.path()).entryList(QDir::Files).size() == 3 * ready);
}

TEST_CASE("a name without a format and a folder that cannot be written are refused by name") {
  Bench b("Wheatear");
  const auto all = sheets_of(b.document);
  const auto odd = write_sheet(b.document, all.front(), "/tmp/sheet.txt");
  REQUIRE(odd);
  CHECK(odd->contains(".pdf, .svg or .dxf"));
  for (const char* path : {"/no/such/folder/jig.pdf", "/no/such/folder/jig.svg"}) {
    const auto why = write_sheet(b.document, all.front(), path);
    REQUIRE(why);
    CHECK(why->contains("/no/such/folder"));
  }
  b.document.edit("no jig", [](Design& d) { d.jig.point_x = Given(); });
  const auto lacks = write_sheet(b.document, sheet(sheets_of(b.document), "jig"), "/tmp/jig.pdf");
  REQUIRE(lacks);
  CHECK(lacks->contains("needs"));
}

TEST_CASE("a disk that is full is told, and what was there stays") {
  Bench b("Wheatear");
  QTemporaryDir folder;
  const QString report = folder.filePath("report.pdf");
  const QString sheet_path = folder.filePath("jig.pdf");
  REQUIRE_FALSE(write_report(b.document, report));
  const auto size = QFileInfo(report).size();
  CHECK(size > 10000);
  // Files may grow no further than this, as on a disk without room.
  rlimit before{};
  getrlimit(RLIMIT_FSIZE, &before);
  std::signal(SIGXFSZ, SIG_IGN);
  rlimit full = before;
  full.rlim_cur = 2000;
  setrlimit(RLIMIT_FSIZE, &full);
  const auto why = write_report(b.document, report);
  const auto why_sheet = write_sheet(b.document, sheet(sheets_of(b.document), "jig"), sheet_path);
  setrlimit(RLIMIT_FSIZE, &before);
  std::signal(SIGXFSZ, SIG_DFL);
  REQUIRE(why);
  CHECK(why->contains("report.pdf"));
  CHECK(QFileInfo(report).size() == size);
  CHECK(why_sheet);
  CHECK_FALSE(QFile::exists(sheet_path));
  CHECK(QDir(folder.path()).entryList(QDir::Files).size() == 1);  // no half-written one either
}

TEST_CASE("before a folder is filled it is known what would be replaced; absurd sheets are refused") {
  Bench b("Wheatear");
  QTemporaryDir folder;
  const SheetsAhead empty = sheets_ahead(b.document, folder.path());
  CHECK(empty.there.isEmpty());
  CHECK(empty.pages >= 4);
  REQUIRE_FALSE(write_shop_sheets(b.document, folder.path()));
  const SheetsAhead again = sheets_ahead(b.document, folder.path());
  CHECK(again.there.size() == QDir(folder.path()).entryList(QDir::Files).size());
  CHECK(again.there.contains("jig.pdf"));
  // A well fifty times too large.
  Bench d("Dunnock");
  d.document.edit("absurd", [](Design& x) {
    x.gear.main().retraction.well.low.x = Given(-20);
    x.gear.main().retraction.well.high.x = Given(40);
    x.gear.main().retraction.well.high.y = Given(40);
  });
  const auto all = sheets_of(d.document);
  const auto absurd = write_sheet(d.document, sheet(all, "well:main"), folder.filePath("well.pdf"));
  REQUIRE(absurd);
  CHECK(absurd->contains("pages"));
  CHECK_FALSE(QFile::exists(folder.filePath("well.pdf")));
}
