// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/print/printed_pages.h"

#include <QFontMetricsF>
#include <algorithm>
#include <utility>

#include "app/theme.h"

namespace kranich::app {

PrintedPages::PrintedPages(QPdfWriter& writer, QString head, QString foot, bool dry)
    : writer_(writer), p_(&writer), head_(std::move(head)), foot_(std::move(foot)), dry_(dry) {
  this->head();
}

QFont PrintedPages::font(double points, bool bold) const {
  QFont f = text_font(points, bold);
  f.setHintingPreference(QFont::PreferNoHinting);  // letters stand where the printer puts them
  return f;
}

QRectF PrintedPages::measured(const QString& s, const QFont& f, double wide) const {
  return QFontMetricsF(f, p_.device()).boundingRect(QRectF(0, 0, wide, 1e5), Qt::TextWordWrap, s);
}

void PrintedPages::head() {
  y = top;
  if (!dry_) {
    p_.setPen(Qt::darkGray);
    p_.setFont(font(7.5, false));
    const QRectF line(left, y, width, 14);
    p_.drawText(line, Qt::AlignLeft | Qt::AlignVCenter, head_);
    p_.drawText(line, Qt::AlignRight | Qt::AlignVCenter, QObject::tr("page %1").arg(page_));
    p_.drawText(QRectF(left, 286 * report_px_per_mm, width, 14), Qt::AlignLeft | Qt::AlignVCenter, foot_);
    p_.setPen(QPen(Qt::black, 0.6));
    p_.drawLine(QPointF(left, y + 17), QPointF(right, y + 17));
  }
  y += 26;
  fresh_ = true;
}

void PrintedPages::next() {
  writer_.newPage();
  ++page_;
  head();
}

void PrintedPages::need(double height) {
  if (!fresh_ && y + height > bottom) next();
}

void PrintedPages::heading(const QString& title, int level, double with) {
  const double points = level == 1 ? 15 : 11;
  if (!fresh_) y += level == 1 ? 18 : 12;
  need(measured(title, font(points, true), width).height() + 12 + with);
  contents_.push_back({title, page_, level});
  text(title, points, true);
  y += 3;
}

void PrintedPages::text(const QString& s, double points, bool bold, const QColor& colour, double indent) {
  const QFont f = font(points, bold);
  const double wide = width - indent;
  for (const QString& paragraph : s.split('\n')) {
    // Longer than a page: by sentences' words, as many as go.
    QString left_over = paragraph;
    while (!left_over.isEmpty()) {
      QString part = left_over;
      while (measured(part, f, wide).height() > bottom - top - 40 && part.contains(' '))
        part = part.left(part.lastIndexOf(' ', part.size() / 2 + 1));
      const double high = measured(part, f, wide).height();
      need(high);
      if (!dry_) {
        p_.setFont(f);
        p_.setPen(colour);
        p_.drawText(QRectF(left + indent, y, wide, high + 2), Qt::TextWordWrap, part);
      }
      y += high + 0.35 * points;
      fresh_ = false;
      left_over = left_over.mid(part.size()).trimmed();
    }
  }
}

void PrintedPages::row(const std::vector<double>& widths, const std::vector<Cell>& cells, double points,
                       bool line_below) {
  constexpr double gap = 6;
  double high = 0;
  for (size_t i = 0; i < cells.size(); ++i)
    high = std::max(high, measured(cells[i].text, font(points, cells[i].bold), widths[i] - gap).height());
  need(high + 4);
  double x = left;
  for (size_t i = 0; i < cells.size(); ++i) {
    if (!dry_) {
      p_.setFont(font(points, cells[i].bold));
      p_.setPen(cells[i].colour);
      p_.drawText(QRectF(x, y, widths[i] - gap, high + 2), Qt::TextWordWrap, cells[i].text);
    }
    x += widths[i];
  }
  y += high + 3;
  if (line_below && !dry_) {
    p_.setPen(QPen(QColor("#d0c9b8"), 0.5));
    p_.drawLine(QPointF(left, y - 1), QPointF(right, y - 1));
  }
  fresh_ = false;
}

QRectF PrintedPages::room(double height) {
  need(height);
  const QRectF at(left, y, width, height);
  y += height + 6;
  fresh_ = false;
  return at;
}

void PrintedPages::list(const std::vector<ContentsLine>& contents) {
  for (const ContentsLine& line : contents) {
    const QFont f = font(line.level == 1 ? 9.5 : 8.5, line.level == 1);
    const double indent = line.level == 1 ? 0 : 16;
    constexpr double number = 34;
    const double high = measured(line.title, f, width - indent - number).height();
    need(high);
    if (!dry_) {
      p_.setFont(f);
      p_.setPen(Qt::black);
      p_.drawText(QRectF(left + indent, y, width - indent - number, high + 2), Qt::TextWordWrap, line.title);
      p_.drawText(QRectF(right - number, y, number, high + 2), Qt::AlignRight | Qt::AlignBottom,
                  QString::number(line.page));
    }
    y += high + (line.level == 1 ? 3 : 1);
    fresh_ = false;
  }
}

}  // namespace kranich::app
