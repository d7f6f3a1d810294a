// SPDX-License-Identifier: GPL-3.0-or-later
//! A small diagram in the drawings' own hand: one curve, a band, a marked point. For the screen and for
//! paper; it is no plotting library.
#pragma once

#include <QPointF>
#include <QPolygonF>
#include <QRectF>
#include <QString>
#include <vector>

#include "app/drawing/sheet.h"

namespace kranich::app {

struct Mark {
  QPointF at;
  QString text;
  Ink ink = Ink::accent;
  bool line = false;  //!< a vertical line through it
};

//! A further curve with its name.
struct NamedCurve {
  std::vector<QPointF> points;
  QString name;
  QColor colour;
};

//! A limit's line (in the pane's world, what fails to its left) with short strokes on the side that fails.
void limit_line(Sheet& sheet, const QPolygonF& line, bool faint = false);

//! The pieces of a map (as the device has them) in one tone, without seams between them.
void fill_pieces(QPainter& painter, const std::vector<QPolygonF>& pieces, const QColor& colour);

//! Room of a size in that corner of a box through which the least of these lines run (device units); of equal
//! ones the first of top left, top right, bottom right, bottom left.
QRectF calmest_corner(const QRectF& box, const QSizeF& size, const std::vector<QPolygonF>& lines);

struct Diagram {
  QString title, x_title, y_title;
  std::vector<QPointF> curve;
  std::vector<QPointF> second;   //!< a second curve, dashed
  std::vector<NamedCurve> more;  //!< thin, each with its own dashes and its name in a list
  double x_low = 0, x_high = 1, y_low = 0, y_high = 1;
  double band_low = 0, band_high = 0;  //!< a shaded range of y, if band_high > band_low
  Ink band_ink = Ink::fails;
  std::vector<Mark> marks;
  double x_factor = 1, y_factor = 1;  //!< from the data to the numbers on the axes

  void draw(Sheet& sheet, const QRectF& device) const;
  //! Ranges from the curve, with zero in sight and some air.
  void fit();
};

}  // namespace kranich::app
