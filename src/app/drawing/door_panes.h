// SPDX-License-Identifier: GPL-3.0-or-later
//! A door square to its hinge, with what moves and holds it and the leg that passes it; what holds it over
//! its opening; and where leg and door are in each other's way, with the planned path through it.
#pragma once

#include <functional>
#include <string>

#include "app/drawing/board.h"
#include "core/assess/doors_state.h"

namespace kranich::app {

//! Which door is shown: its id; shared by the panes of a page.
using ShownDoor = std::function<std::string()>;
//! By its id; null where there is none.
const Door* door_of(const Design& design, const std::string& id);
const DoorState* state_of(const Assessment& assessment, const std::string& id);

//! World: metres, to starboard (of a hinge across: aft) and up, as the plane square to the hinge has them.
class DoorPane : public Pane {
 public:
  DoorPane(Document& document, ShownDoor shown) : Pane(document), shown_(std::move(shown)) {}
  QString name() const override { return QObject::tr("Door"); }
  QRectF bounds() const override;
  QMarginsF margins() const override { return {30, 52, 30, 30}; }
  void draw(Sheet& sheet) override;
  std::vector<Handle> handles() const override;

 private:
  struct View;
  const Door* door() const;
  const DoorState* state() const;
  void draw_drive(Sheet& sheet, const View& view, double opening);
  void draw_hold(Sheet& sheet, const View& view, double opening);
  ShownDoor shown_;
};

//! Moments about the hinge over the opening.
class DoorHoldPane : public DiagramPane {
 public:
  DoorHoldPane(Document& document, ShownDoor shown) : DiagramPane(document), shown_(std::move(shown)) {}
  QString name() const override { return QObject::tr("What holds it"); }
  void draw(Sheet& sheet) override;

 private:
  ShownDoor shown_;
};

}  // namespace kranich::app
