// SPDX-License-Identifier: GPL-3.0-or-later
//! Where a leg and a door are in each other's way, with the planned ways through it and their spread; of a
//! door that the leg moves, how it follows.
#pragma once

#include "app/drawing/door_panes.h"

namespace kranich::app {

//! The leg's travel across, the door's opening up.
class InterlockPane : public DiagramPane {
 public:
  InterlockPane(Document& document, ShownDoor shown) : DiagramPane(document), shown_(std::move(shown)) {}
  QString name() const override { return QObject::tr("Leg against door"); }
  void draw(Sheet& sheet) override;
  //! In playback: the leg's and the door's shares now. Else as the gear stands.
  struct Now {
    double leg, door;
  };
  std::function<Now()> now;

 private:
  //! From shares of both travels to the device.
  QPointF at(double leg, double open) const;
  void draw_frame(Sheet& sheet, double full_open);
  void draw_region(Sheet& sheet, const doors::Region& region, double full_open);
  void draw_way(Sheet& sheet, const Door& door, bool up);
  void draw_following(Sheet& sheet, const std::vector<double>& openings, double full_open);
  ShownDoor shown_;
  QRectF box_;
};

}  // namespace kranich::app
