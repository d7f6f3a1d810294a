// SPDX-License-Identifier: GPL-3.0-or-later
//! The placement map as a pane: limits as named curves over the mains' station and the CG's height (or the
//! track), what fails washed, the design a handle to drag, its old place beside it, and under the pointer
//! what fails there. Computed by the core's MapModel.
#pragma once

#include "app/drawing/board.h"
#include "core/assess/placement_map.h"

namespace kranich::app {

class MapPane : public DiagramPane {
 public:
  using DiagramPane::DiagramPane;
  QString name() const override { return QObject::tr("Placement map"); }
  QMarginsF margins() const override { return {58, 34, 14, 40}; }
  void draw(Sheet& sheet) override;
  std::vector<Handle> handles() const override;
  bool clicked(const QPointF& world) override;
  bool pointer(const std::optional<QPointF>& world) override;
  MapUp up() const { return up_; }
  void set_up(MapUp up);
  //! What stands under the pointer, as drawn; empty where it is not over the map.
  QString under_pointer() const { return under_pointer_; }

 private:
  void refresh() const;
  QPointF to_world(const Eigen::Vector2d& p) const;  //!< map → pane (px, y up)
  Eigen::Vector2d to_map(const QPointF& p) const;
  void draw_clear(Sheet& s) const;
  void draw_nearest(Sheet& s) const;
  void draw_blocked(Sheet& sheet) const;
  void draw_boundaries(Sheet& sheet) const;
  void draw_axes(Sheet& sheet) const;
  void draw_pointer(Sheet& sheet);

  MapUp up_ = MapUp::cg_height;
  std::optional<QPointF> pointer_;
  QString under_pointer_;
  mutable QSizeF size_{1, 1};
  mutable quint64 seen_ = 0;  //!< revision of the document that the map belongs to
  mutable MapUp seen_up_ = MapUp::cg_height;
  mutable std::optional<MapModel> model_;
  mutable PlacementMap map_;
};

}  // namespace kranich::app
