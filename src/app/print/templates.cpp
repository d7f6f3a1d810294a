// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/print/templates.h"

#include <QDate>
#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QPageLayout>
#include <QPageSize>
#include <QPainterPath>
#include <cmath>

#include "app/document/journal.h"
#include "app/print/pdf.h"
#include "app/tongue.h"
#include "app/widgets/findings.h"
#include "core/io/project_file.h"
#include "core/shop/work_sheets.h"

namespace kranich::app {
namespace {

constexpr int dots_an_inch = 1200;

QSizeF paper_size(Paper paper) { return paper == Paper::a4 ? QSizeF(210, 297) : QSizeF(215.9, 279.4); }

//! Draws text with capitals of a height in millimetres: a font of 100 units scaled, so that no rounding of
//! sizes comes in.
void put(QPainter& p, const QPointF& at, double high, const QString& text, bool centred = false,
         bool bold = false) {
  QFont f(QStringLiteral("B612"));
  f.setPixelSize(100);
  f.setBold(bold);
  f.setHintingPreference(QFont::PreferNoHinting);
  const double k = 1.4 * high / 100;
  p.save();
  p.translate(at);
  p.scale(k, k);
  p.setFont(f);
  const QPointF from(centred ? -QFontMetricsF(f, p.device()).horizontalAdvance(text) / 2 : 0, 0);
  // A white rim keeps letters readable where a line runs beneath.
  QPainterPath outline;
  outline.addText(from, f, text);
  p.strokePath(outline, QPen(Qt::white, 36, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
  p.drawText(from, text);
  p.restore();
}

QPen pen_of(shop::Line line, double thinnest) {
  static const double widths[shop::line_kinds] = {0.35, 0.25, 0.18, 0.18, 0.13};
  QPen pen(Qt::black, std::max(thinnest, widths[static_cast<int>(line)]), Qt::SolidLine, Qt::FlatCap);
  if (line == shop::Line::bend) pen.setDashPattern({10, 4});
  if (line == shop::Line::centre) pen.setDashPattern({24, 5, 4, 5});
  if (line == shop::Line::dimension) pen.setColor(QColor("#444444"));
  return pen;
}

}  // namespace

void draw_shop(QPainter& p, const shop::Drawing& d, double thinnest) {
  p.setBrush(Qt::NoBrush);
  for (const auto& path : d.paths) {
    p.setPen(pen_of(path.line, thinnest));
    QPolygonF line;
    for (const auto& q : path.points) line << QPointF(q.x(), -q.y());
    path.closed ? p.drawPolygon(line) : p.drawPolyline(line);
  }
  for (const auto& c : d.circles) {
    p.setPen(pen_of(c.line, thinnest));
    p.drawEllipse(QPointF(c.centre.x(), -c.centre.y()), c.radius, c.radius);
  }
  p.setPen(Qt::black);
  for (const auto& t : d.texts)
    put(p, {t.at.x(), -t.at.y()}, t.height, QString::fromStdString(t.text), t.centred);
}

Tiling tiling_of(const shop::Drawing& drawing, Paper paper) {
  const QSizeF page = paper_size(paper);
  const shop::Drawing d = on_pages_of(drawing, page.width() - 2 * Tiling::margin);
  Tiling t{paper, 1, 1, page.width() - 2 * Tiling::margin, page.height() - 2 * Tiling::margin - Tiling::foot};
  const auto size = d.bounds().size();
  const auto pages = [](double whole, double part) {
    return whole <= part ? 1 : 1 + static_cast<int>(std::ceil((whole - part) / (part - Tiling::overlap)));
  };
  t.columns = pages(size.x(), t.width);
  t.rows = pages(size.y(), t.height);
  return t;
}

namespace {

//! What every page says: whose it is, where in the whole, and a scale to check the printer by.
void foot(QPainter& p, const shop::Drawing& d, const shop::Stamp& stamp, const Tiling& t, int row,
          int column) {
  const QSizeF page = paper_size(t.paper);
  const double y = page.height() - Tiling::margin - Tiling::foot + 5;
  p.setPen(QPen(Qt::black, 0.25));
  const double x0 = Tiling::margin;
  p.drawLine(QPointF(x0, y), QPointF(x0 + 100, y));
  for (int i = 0; i <= 10; ++i)
    p.drawLine(QPointF(x0 + 10 * i, y - (i % 5 == 0 ? 2.5 : 1.5)), QPointF(x0 + 10 * i, y));
  p.drawLine(QPointF(x0, y + 3), QPointF(x0 + 101.6, y + 3));
  for (int i = 0; i <= 4; ++i) p.drawLine(QPointF(x0 + 25.4 * i, y + 3), QPointF(x0 + 25.4 * i, y + 5));
  p.setPen(Qt::black);
  put(p, {x0 + 104, y + 0.5}, 2, QObject::tr("100 mm: measure it. Print at 100 %, not fitted to the page"));
  put(p, {x0 + 104, y + 5}, 2, QObject::tr("4 in"));
  put(p, {x0, y + 10.5}, 2.6,
      QObject::tr("%1 – %2").arg(
          QString::fromStdString(d.title),
          d.scale == 1 ? QObject::tr("full size") : QObject::tr("1:%1").arg(std::lround(1 / d.scale))),
      false, true);
  put(p, {x0, y + 14.5}, 2,
      QObject::tr("%1, change %2 · %3 · %4 · page %5%6, %7 rows of %8")
          .arg(QString::fromStdString(stamp.project), QString::fromStdString(stamp.revision),
               QString::fromStdString(stamp.date), QString::fromStdString(d.state))
          .arg(QChar('A' + row % 26))
          .arg(column + 1)
          .arg(t.rows)
          .arg(t.columns));
  // Notes, wrapped to the page.
  QFont small(QStringLiteral("B612"));
  small.setPixelSize(100);
  QStringList notes;
  for (const auto& n : d.notes) notes << QString::fromStdString(n);
  const QString all = notes.join("  ·  ");
  // Capitals of a millimetre and a half, smaller where they would not all have their place.
  double k = 0.021;
  const auto space = [&] {
    return QRectF(0, 0, (page.width() - 2 * Tiling::margin) / k, (Tiling::foot - 17) / k);
  };
  while (k > 0.009 && QFontMetricsF(small, p.device()).boundingRect(space(), Qt::TextWordWrap, all).height() >
                          space().height())
    k *= 0.95;
  p.save();
  p.translate(x0, y + 16.5);
  p.scale(k, k);
  p.setFont(small);
  p.drawText(space(), Qt::TextWordWrap, all);
  p.restore();
}

//! Where the next page is laid on: a line along the overlap and crosses at its ends.
void overlap_marks(QPainter& p, const QRectF& area, const Tiling& t, int row, int column) {
  p.setPen(QPen(Qt::black, 0.13, Qt::DotLine));
  const auto cross = [&](const QPointF& at) {
    p.drawLine(at - QPointF(2.5, 0), at + QPointF(2.5, 0));
    p.drawLine(at - QPointF(0, 2.5), at + QPointF(0, 2.5));
  };
  const double o = Tiling::overlap;
  if (column + 1 < t.columns)
    p.drawLine(QPointF(area.right() - o, area.top()), QPointF(area.right() - o, area.bottom()));
  if (column > 0) p.drawLine(QPointF(area.left() + o, area.top()), QPointF(area.left() + o, area.bottom()));
  if (row + 1 < t.rows)
    p.drawLine(QPointF(area.left(), area.bottom() - o), QPointF(area.right(), area.bottom() - o));
  if (row > 0) p.drawLine(QPointF(area.left(), area.top() + o), QPointF(area.right(), area.top() + o));
  p.setPen(QPen(Qt::black, 0.2));
  for (const double x : {area.left() + o / 2, area.right() - o / 2})
    for (const double y : {area.top() + o / 2, area.bottom() - o / 2})
      if ((x < area.center().x() ? column > 0 : column + 1 < t.columns) ||
          (y < area.center().y() ? row > 0 : row + 1 < t.rows))
        cross({x, y});
}

}  // namespace

std::optional<QString> write_template(const shop::Drawing& drawing, const shop::Stamp& stamp, Paper paper,
                                      const QString& path) {
  const shop::Drawing d = on_pages_of(drawing, paper_size(paper).width() - 2 * Tiling::margin);
  const Tiling t = tiling_of(drawing, paper);
  if (t.pages() > Tiling::most_pages)
    return QObject::tr("“%1” would take %2 pages, %3 at most are written: is one of its sizes mistyped?")
        .arg(text_of(d.title))
        .arg(t.pages())
        .arg(Tiling::most_pages);
  return write_pdf(path, [&](QPdfWriter& writer) {
    writer.setPageLayout(QPageLayout(QPageSize(paper == Paper::a4 ? QPageSize::A4 : QPageSize::Letter),
                                     QPageLayout::Portrait, QMarginsF(), QPageLayout::Millimeter));
    writer.setResolution(dots_an_inch);
    writer.setTitle(QString::fromStdString(stamp.project + " – " + d.title));
    QPainter p(&writer);
    const auto box = d.bounds();
    for (int row = 0; row < t.rows; ++row)
      for (int column = 0; column < t.columns; ++column) {
        if (row + column > 0) writer.newPage();
        p.resetTransform();
        p.scale(dots_an_inch / 25.4, dots_an_inch / 25.4);
        const QRectF area(Tiling::margin, Tiling::margin, t.width, t.height);
        p.save();
        p.setClipRect(area);
        // The drawing's upper left corner on the first page's.
        p.translate(area.left() - box.low.x() - column * (t.width - Tiling::overlap),
                    area.top() + box.high.y() - row * (t.height - Tiling::overlap));
        draw_shop(p, d, 0);
        p.restore();
        overlap_marks(p, area, t, row, column);
        foot(p, d, stamp, t, row, column);
      }
    return true;
  });
}

std::vector<shop::Sheet> sheets_of(Document& document) {
  const std::string state =
      QObject::tr("loading “%1”, legs extended").arg(document.loading_name()).toStdString();
  auto sheets = shop::shop_sheets(document.design(), document.assessment(), state);
  Journal& journal = document.journal();
  for (auto& s : shop::work_sheets(journal.progress(), journal.look(), journal.history(), state,
                                   tongue(document.units())))
    sheets.push_back(std::move(s));
  return sheets;
}

std::optional<QString> write_sheet(const Document& document, const shop::Sheet& sheet, const QString& path) {
  const auto* drawing = std::get_if<shop::Drawing>(&sheet.drawing);
  if (!drawing)
    return QObject::tr("%1 needs %2")
        .arg(text_of(sheet.title), text_of(std::get<Text>(sheet.drawing), document.units()));
  const About& about = document.design().about;
  const shop::Stamp stamp{about.name, about.revision,
                          QDate::currentDate().toString(Qt::ISODate).toStdString()};
  const QString format = path.section('.', -1).toLower();
  if (format == "pdf") return write_template(*drawing, stamp, document.design().jig.paper, path);
  if (format != "svg" && format != "dxf")
    return QObject::tr("%1: the name must end in .pdf, .svg or .dxf").arg(path);
  const std::string text = format == "svg" ? shop::to_svg(*drawing, stamp) : shop::to_dxf(*drawing, stamp);
  if (const auto why = write_file_atomically(path.toStdString(), text))
    return QObject::tr("%1: %2").arg(path, text_of(*why));
  return std::nullopt;
}

namespace {

QString path_in(const QString& folder, const shop::Sheet& s, const char* format) {
  return QStringLiteral("%1/%2.%3")
      .arg(folder, QString::fromStdString(shop::file_name(s)), QString::fromLatin1(format));
}
constexpr const char* sheet_formats[] = {"pdf", "svg", "dxf"};

}  // namespace

SheetsAhead sheets_ahead(Document& document, const QString& folder) {
  SheetsAhead ahead;
  for (const auto& s : sheets_of(document)) {
    if (!s.ready()) continue;
    ahead.pages += tiling_of(std::get<shop::Drawing>(s.drawing), document.design().jig.paper).pages();
    for (const char* format : sheet_formats)
      if (const QString path = path_in(folder, s, format); QFile::exists(path))
        ahead.there << QFileInfo(path).fileName();
  }
  return ahead;
}

std::optional<QString> write_shop_sheets(Document& document, const QString& folder) {
  QDir().mkpath(folder);
  for (const auto& s : sheets_of(document)) {
    if (!s.ready()) continue;
    for (const char* format : sheet_formats)
      if (const auto why = write_sheet(document, s, path_in(folder, s, format))) return why;
  }
  return std::nullopt;
}

}  // namespace kranich::app
