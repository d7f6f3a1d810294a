// SPDX-License-Identifier: GPL-3.0-or-later
//! Bench's drawings: the ladder of tests as it is climbed, and the readings of one step in a row.
#pragma once

#include <functional>

#include "app/document/journal.h"
#include "app/drawing/board.h"

namespace kranich::app {

//! Eight rungs from the ground up; on each what has to be done, for each leg. A click leads to it.
class LadderPane : public SpotPane {
 public:
  explicit LadderPane(Document& document) : SpotPane(document, [] {}) {}
  QString name() const override { return QObject::tr("Ladder"); }
  void draw(Sheet& sheet) override;
};

//! One step's reading over landings or days: what was foretold, the tolerance, a drift's line.
class ReadingsPane : public DiagramPane {
 public:
  using DiagramPane::DiagramPane;
  QString name() const override { return QObject::tr("Readings"); }
  void draw(Sheet& sheet) override;
  //! What the row shows, in words.
  QString said() const;
  std::string task, piece;
};

}  // namespace kranich::app
