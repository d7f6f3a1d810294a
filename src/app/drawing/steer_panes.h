// SPDX-License-Identifier: GPL-3.0-or-later
//! A steered leg in the plane of its swing with its rod, and the turn it makes on the ground.
#pragma once

#include "app/drawing/swing_pane.h"

namespace kranich::app {

class SteerPane : public SwingPane {
 public:
  using SwingPane::SwingPane;
  QString name() const override { return QObject::tr("Steering rod"); }
  QRectF bounds() const override;
  void draw(Sheet& sheet) override;
  std::vector<Handle> handles() const override;
};

//! From above: the wheels where they stand, the steered one turned, the circles that all of them run on.
//! World: metres, forward up, starboard to the right.
class TurnPane : public Pane {
 public:
  TurnPane(Document& document, const SteerPane& of) : Pane(document), of_(of) {}
  QString name() const override { return QObject::tr("Turn"); }
  QRectF bounds() const override;
  QMarginsF margins() const override { return {16, 46, 16, 40}; }
  void draw(Sheet& sheet) override;

 private:
  const SteerPane& of_;
};

}  // namespace kranich::app
