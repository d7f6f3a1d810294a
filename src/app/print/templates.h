// SPDX-License-Identifier: GPL-3.0-or-later
//! Shop sheets on paper: full size, tiled over A4 or Letter, each page with its overlap marks, its place in
//! the whole and a check scale; and the same sheet on the screen.
#pragma once

#include <QPainter>
#include <QString>
#include <QStringList>
#include <optional>

#include "app/document/document.h"
#include "core/shop/sheets.h"

namespace kranich::app {

//! How a drawing falls onto pages of a paper size.
struct Tiling {
  Paper paper;
  int columns, rows;
  double width, height;                                          //!< of the drawn part of a page, mm
  static constexpr double margin = 10, overlap = 10, foot = 32;  //!< mm; the foot carries scale and stamp
  static constexpr int most_pages = 400, many_pages = 40;        //!< refused above; asked about above
  int pages() const { return rows * columns; }
};
Tiling tiling_of(const shop::Drawing& drawing, Paper paper);

//! Writes a sheet as PDF at its true size; why not, where it cannot be written.
std::optional<QString> write_template(const shop::Drawing& drawing, const shop::Stamp& stamp, Paper paper,
                                      const QString& path);

//! Draws a sheet with a painter whose unit is a millimetre of paper, its lower left corner at the origin, y
//! down.
void draw_shop(QPainter& painter, const shop::Drawing& drawing, double thinnest);

//! Every shop sheet of the design in hand.
std::vector<shop::Sheet> sheets_of(Document& document);
//! Writes a sheet; the name's end says whether as PDF, SVG or DXF. Why not, where it cannot be written.
std::optional<QString> write_sheet(const Document& document, const shop::Sheet& sheet, const QString& path);
//! What writing all sheets into a folder would come to: how many pages, and which files there would be
//! replaced.
struct SheetsAhead {
  int pages = 0;
  QStringList there;
};
SheetsAhead sheets_ahead(Document& document, const QString& folder);
//! Every sheet that lacks nothing, in all three formats, into a folder.
std::optional<QString> write_shop_sheets(Document& document, const QString& folder);

}  // namespace kranich::app
