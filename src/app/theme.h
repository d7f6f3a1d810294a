// SPDX-License-Identifier: GPL-3.0-or-later
//! How Kranich looks: paper and ink, one accent; verdicts in colour, shape and word together.
#pragma once

#include <QColor>
#include <QFont>
#include <QPalette>
#include <QString>

#include "core/base/finding.h"

namespace kranich::app {

struct Theme {
  bool dark = false;
  QColor paper, desk, card, line, faint_line;  //!< board, surround, raised cards, rules
  QColor ink, grey, faint;                     //!< text and outlines, secondary, barely there
  QColor body, glass, tyre, rim;               //!< the aircraft
  QColor accent;                               //!< petrol: what can be moved or chosen
  QColor fails, tight, holds, pinned;
  QColor band, band_out;  //!< inside and outside of the limits
  QColor fails_wash;      //!< a pale ground behind what fails

  QColor of(Verdict verdict) const;
  static Theme light();
  static Theme night();
  static const Theme& now();
  static void choose(bool dark);
};

//! Loads the bundled fonts and gives the application its font, palette and style sheet. Once, then at each
//! change.
void load_fonts();
void dress_application();
//! The bundled typeface; figures whose digits stand below each other; and its fixed-width cut for formulas.
QFont text_font(double points, bool bold = false);
QFont figure_font(double points, bool bold = false);
QFont fixed_font(double points, bool bold = false);

//! The mark beside a verdict's colour: a triangle fails, a lozenge is tight, a dot holds, a ring is unknown.
void draw_verdict_mark(class QPainter& painter, const QPointF& centre, double size, Verdict verdict);

}  // namespace kranich::app
