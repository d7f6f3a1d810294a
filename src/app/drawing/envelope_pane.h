// SPDX-License-Identifier: GPL-3.0-or-later
//! Weigh's picture of every loading against the designer's range.
#pragma once

#include "app/drawing/board.h"

namespace kranich::app {

//! Mass over CG station: the designer's range as a box, every loading with gear down, its shift to gear up,
//! its spread.
class EnvelopePane : public DiagramPane {
 public:
  using DiagramPane::DiagramPane;
  QString name() const override { return QObject::tr("CG range"); }
  QMarginsF margins() const override { return {4, 12, 12, 10}; }
  void draw(Sheet& s) override;
};

}  // namespace kranich::app
