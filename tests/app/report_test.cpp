// SPDX-License-Identifier: GPL-3.0-or-later
//! The report as a book: what stands in it, that its contents lead to the right pages, that nothing is cut.
#include "app/print/report.h"

#include <QCheckBox>
#include <QFile>
#include <QProcess>
#include <QRegularExpression>
#include <QTemporaryDir>
#include <QXmlStreamReader>

#include "app/theme.h"
#include "app/tongue.h"
#include "app/widgets/findings.h"
#include "bench.h"

using namespace kranich;
using namespace kranich::app;

namespace {

//! The text of a PDF page by page, text after text as they were drawn; or line by line across the page.
QStringList read_pages(const QString& pdf, const char* how = "-raw") {
  QProcess p;
  p.start("pdftotext", {how, "-enc", "UTF-8", pdf, "-"});
  REQUIRE(p.waitForFinished(60000));
  REQUIRE(p.exitCode() == 0);
  CHECK(p.readAllStandardError().isEmpty());  // whoever prints it complains as little
  QStringList pages = QString::fromUtf8(p.readAllStandardOutput()).split(QChar(0x0c));
  pages.removeLast();
  return pages;
}
//! Letters alone: lines break where they must.
QString letters(const QString& s) {
  QString without;
  for (const QChar c : s)
    if (!c.isSpace() && c.category() != QChar::Other_Format) without += c;
  return without;
}

struct Word {
  QRectF at;
  QString text;
};
//! Every word with its place, page by page; points.
std::vector<std::vector<Word>> words_of(const QString& pdf) {
  QProcess p;
  p.start("pdftotext", {"-bbox", "-enc", "UTF-8", pdf, "-"});
  REQUIRE(p.waitForFinished(60000));
  std::vector<std::vector<Word>> pages;
  QXmlStreamReader xml(p.readAllStandardOutput());
  while (!xml.atEnd()) {
    if (xml.readNext() != QXmlStreamReader::StartElement) continue;
    if (xml.name() == QLatin1String("page")) pages.emplace_back();
    if (xml.name() != QLatin1String("word")) continue;
    const auto at = [&](const char* key) { return xml.attributes().value(QLatin1String(key)).toDouble(); };
    const QRectF box(QPointF(at("xMin"), at("yMin")), QPointF(at("xMax"), at("yMax")));
    pages.back().push_back({box, xml.readElementText()});
  }
  return pages;
}

}  // namespace

TEST_CASE("the report holds every finding whole, and its contents lead to the right pages") {
  for (const char* demo : {"Dunnock", "Nightjar"}) {
    Bench b(demo);
    INFO(demo);
    QTemporaryDir folder;
    const QString path = folder.filePath("report.pdf");
    std::vector<double> shares;
    REQUIRE_FALSE(write_report(b.document, path, {}, [&](double share) {
      shares.push_back(share);
      return true;
    }));
    CHECK(std::is_sorted(shares.begin(), shares.end()));
    CHECK(shares.back() == Approx(1));
    const QStringList pages = read_pages(path);
    const QString contents = read_pages(path, "-layout")[0];
    const bool model = b.document.design().is_model();
    CHECK(letters(pages[0]).contains(letters(model ? model_caution() : planning_caution())));
    CHECK_FALSE(letters(pages[0]).contains(letters(model ? planning_caution() : model_caution())));
    for (const ReportPart& part : report_parts(b.document)) {
      const QRegularExpression line("^\\s*" + QRegularExpression::escape(part.title) + "\\s+([0-9]+)\\s*$",
                                    QRegularExpression::MultilineOption);
      const auto found = line.match(contents);
      INFO(part.title.toStdString());
      REQUIRE(found.hasMatch());
      const int page = found.captured(1).toInt();
      REQUIRE(page <= pages.size());
      CHECK(letters(pages[page - 1]).contains(letters(QStringLiteral("page %1").arg(page))));
      CHECK(letters(pages[page - 1]).contains(letters(part.title)));
    }
    const QString all = letters(pages.join(' '));
    for (const Finding* f : worst_of_each(b.document.assessment())) {
      const QString title = title_of(*f, b.document.units());
      INFO(title.toStdString());
      CHECK(all.contains(letters(title)));
      if (f->verdict == Verdict::noted || f->verdict == Verdict::unknown) continue;
      CHECK(all.contains(letters(text_of(f->limit.source, b.document.units()))));
      CHECK(all.contains(letters(text_of(f->info().formula))));
      for (const auto& w : f->working)
        CHECK(all.contains(letters(QStringLiteral("%1 = %2").arg(text_of(w.name, b.document.units()),
                                                                 b.document.say(w.si, w.kind)))));
    }
    // Drawings at scales that a ruler knows.
    QRegularExpression scale("1 : ([0-9.]+)");
    int scales = 0;
    for (auto it = scale.globalMatch(pages.join(' ')); it.hasNext();) {
      double part = it.next().captured(1).toDouble();
      while (part >= 10) part /= 10;
      INFO(part);
      static constexpr double known[]{1, 1.25, 1.5, 2, 2.5, 3, 4, 5, 6, 7.5, 8};
      CHECK(std::any_of(std::begin(known), std::end(known), [&](double x) { return x == Approx(part); }));
      ++scales;
    }
    CHECK(scales > 4);
    // On the paper, and below the head.
    for (const auto& page : words_of(path))
      for (const Word& w : page) {
        INFO(w.text.toStdString());
        CHECK(w.at.left() > 30);
        CHECK(w.at.right() < 595 - 30);
        CHECK(w.at.top() > 30);
        CHECK(w.at.bottom() < 842 - 12);
      }
  }
}

TEST_CASE("what is not ticked is left out, with its line of the contents; giving up writes nothing") {
  Bench b("Wheatear");
  QTemporaryDir folder;
  const auto written = [&](const ReportChoice& choice) {
    REQUIRE_FALSE(write_report(b.document, folder.filePath("r.pdf"), choice));
    return read_pages(folder.filePath("r.pdf"));
  };
  const QStringList whole = written({});
  ReportChoice few;
  few.working = false;
  few.without = {"numbers", "leg"};
  const QStringList less = written(few);
  CHECK(less.size() < whole.size());
  CHECK(whole[0].contains("Every number of the design"));
  CHECK_FALSE(less[0].contains("Every number of the design"));
  CHECK(letters(whole.join(' ')).contains("/gear/legs/"));
  CHECK_FALSE(letters(less.join(' ')).contains("/gear/legs/"));
  const Finding* first = worst_of_each(b.document.assessment()).front();
  REQUIRE(first->info().station == Station::place);
  const QString formula = letters(text_of(first->info().formula));
  CHECK(letters(whole.join(' ')).contains(formula));
  CHECK_FALSE(letters(less.join(' ')).contains(formula));
  const QString given_up = folder.filePath("none.pdf");
  CHECK_FALSE(write_report(b.document, given_up, {}, [](double) { return false; }));
  CHECK_FALSE(QFile::exists(given_up));
}

TEST_CASE("before and after: what was changed since it was pinned, and what that did") {
  Bench b("Dunnock");
  b.document.pin();
  b.document.edit("axle", [](Design& d) { d.gear.main().axle.x.si += 0.05; });
  b.proved();
  QTemporaryDir folder;
  ReportChoice only;
  for (const ReportPart& p : report_parts(b.document))
    if (p.id != "compared") only.without.insert(p.id);
  REQUIRE_FALSE(write_report(b.document, folder.filePath("r.pdf"), only));
  const QStringList pages = read_pages(folder.filePath("r.pdf"));
  REQUIRE(pages.size() > 1);
  CHECK(pages[1].contains("pinned"));
  const QString all = letters(pages.join(' '));
  CHECK(all.contains("/gear/legs/main/axle/x_m"));
  CHECK(all.contains("Tip-backangle"));
}

TEST_CASE(
    "the report's dialog offers the parts there are; in German the book is German, light when the window is "
    "dark") {
  Bench b("Redshank");
  for (auto* action : b.window->findChildren<QAction*>())
    if (action->shortcut() == QKeySequence("Ctrl+P")) action->trigger();
  b.settle();
  auto* dialog = b.window->findChild<QDialog*>("report-dialog");
  REQUIRE(dialog);
  for (const ReportPart& p : report_parts(b.document)) {
    auto* box = dialog->findChild<QCheckBox*>("part-" + p.id);
    INFO(p.id.toStdString());
    REQUIRE(box);
    CHECK(box->isChecked());
    CHECK(box->text() == p.title);
  }
  CHECK(dialog->findChild<QCheckBox*>("report-working")->isChecked());
  dialog->close();
  b.window->set_dark(true);
  speak("de");
  QTemporaryDir folder;
  CHECK_FALSE(write_report(b.document, folder.filePath("r.pdf")));
  speak("en");
  CHECK(Theme::now().dark);
  b.window->set_dark(false);
  const QStringList pages = read_pages(folder.filePath("r.pdf"));
  CHECK(pages[0].contains("Inhalt"));
  CHECK(pages[0].contains("Seite 1"));
  CHECK(pages[1].contains(QString::fromUtf8("Prüfungen verfehlt")));
}
