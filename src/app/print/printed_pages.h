// SPDX-License-Identifier: GPL-3.0-or-later
//! A4 pages one after another, with a head on each, headings that a table of contents knows, and texts that
//! wrap: nothing is cut. In px of a device of 96 dpi, so that letters have the points they have on the
//! screen.
#pragma once

#include <QPainter>
#include <QPdfWriter>
#include <QString>
#include <vector>

namespace kranich::app {

inline constexpr int report_dpi = 96;
inline constexpr double report_px_per_mm = report_dpi / 25.4;

//! A line of the table of contents.
struct ContentsLine {
  QString title;
  int page;
  int level;  //!< 1: a part; 2: within it
};

class PrintedPages {
 public:
  //! `dry`: only the pages are counted, what is drawn is left out.
  PrintedPages(QPdfWriter& writer, QString head, QString foot, bool dry);

  bool dry() const { return dry_; }
  QPainter& painter() { return p_; }
  int page() const { return page_; }
  double y = 0;
  static constexpr double left = 18 * report_px_per_mm, right = 192 * report_px_per_mm,
                          top = 14 * report_px_per_mm, bottom = 282 * report_px_per_mm;
  static constexpr double width = right - left;

  //! Begins a page.
  void next();
  //! Begins one where less than this is left, unless it has just begun.
  void need(double height);
  void space(double height) { y += height; }
  //! Never alone at the foot of a page: with as much room below it as is told.
  void heading(const QString& title, int level, double with = 60);
  //! A paragraph, over as many pages as it takes.
  void text(const QString& s, double points, bool bold = false, const QColor& colour = Qt::black,
            double indent = 0);
  //! A row of texts side by side, each wrapped in its column; as high as the highest, never over two pages.
  struct Cell {
    QString text;
    bool bold = false;
    QColor colour = Qt::black;
  };
  void row(const std::vector<double>& widths, const std::vector<Cell>& cells, double points,
           bool line_below = true);
  //! Room for a drawing across the page; where it is.
  QRectF room(double height);

  const std::vector<ContentsLine>& contents() const { return contents_; }
  //! The table of contents as it was found when the pages were counted.
  void list(const std::vector<ContentsLine>& contents);

 private:
  void head();
  QFont font(double points, bool bold) const;
  QRectF measured(const QString& s, const QFont& font, double width) const;

  QPdfWriter& writer_;
  QPainter p_;
  QString head_, foot_;
  bool dry_, fresh_ = true;
  int page_ = 1;
  std::vector<ContentsLine> contents_;
};

}  // namespace kranich::app
