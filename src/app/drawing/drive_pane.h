// SPDX-License-Identifier: GPL-3.0-or-later
//! Drive: the leg on its way with what moves, helps and holds it; its torques and the drive's force over the
//! turn.
#pragma once

#include "app/drawing/swing_pane.h"

namespace kranich::app {

//! The swing's drawing with actuator, down-spring, hook and brace in it; their ends can be dragged.
class DrivePane : public SwingPane {
 public:
  explicit DrivePane(Document& document) : SwingPane(document) { playback = false; }
  QString name() const override { return QObject::tr("Drive"); }
  void draw(Sheet& sheet) override;
  std::vector<Handle> handles() const override;
};

//! Weight, air, down-spring and what the drive must give, over the turn.
class TorquePane : public DiagramPane {
 public:
  using DiagramPane::DiagramPane;
  QString name() const override { return QObject::tr("Torques"); }
  void draw(Sheet& sheet) override;
  std::string leg = "main";
};

//! Force along the actuator, or at the servo, over the turn against what it can.
class DriveForcePane : public DiagramPane {
 public:
  using DiagramPane::DiagramPane;
  QString name() const override { return QObject::tr("Force"); }
  void draw(Sheet& sheet) override;
  std::string leg = "main";
};

}  // namespace kranich::app
