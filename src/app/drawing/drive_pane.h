// SPDX-License-Identifier: GPL-3.0-or-later
//! Drive: the leg on its way with what moves, helps and holds it; its torques and the drive's force over the
//! turn.
#pragma once

#include <optional>

#include "app/drawing/swing_pane.h"
#include "core/assess/anchor_map.h"

namespace kranich::app {

//! The swing's drawing with actuator, down-spring, hook and brace in it; their ends can be dragged.
class DrivePane : public SwingPane {
 public:
  explicit DrivePane(Document& document) : SwingPane(document) { playback = false; }
  QString name() const override { return QObject::tr("Drive"); }
  void draw(Sheet& sheet) override;
  std::vector<Handle> handles() const override;
  //! Which end's map is laid under the drawing: where it may stand.
  std::optional<AnchorEnd> shown_end;
  //! What is missing for it; empty where it is shown or not asked for.
  QString map_needs() const;
  //! The map as it is shown, anew for each change of the design; null: none.
  const AnchorMap* anchor_map() const;

 private:
  void draw_map(Sheet& sheet);
  //! What swings at a turn: kg, and where; nothing where something of it is unknown.
  std::optional<std::pair<double, Vec3>> mass_at(double turn) const;
  mutable std::optional<AnchorModel> model_;
  mutable AnchorMap map_;
  mutable Text needs_;
  mutable quint64 seen_ = 0;
  mutable std::string seen_leg_;
  mutable std::optional<AnchorEnd> seen_end_;
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
