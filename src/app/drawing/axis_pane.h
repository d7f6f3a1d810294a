// SPDX-License-Identifier: GPL-3.0-or-later
//! The axis of a leg's swing in two views: turned in plan, tipped in elevation. Both its ends are dragged.
#pragma once

#include "app/drawing/swing_pane.h"

namespace kranich::app {

class AxisPane : public DiagramPane {
 public:
  AxisPane(Document& document, const SwingPane& swing) : DiagramPane(document), swing_(swing) {}
  QString name() const override { return QObject::tr("Axis"); }
  void draw(Sheet& sheet) override;
  std::vector<Handle> handles() const override;

 private:
  //! A view: the middle and the length of the half axis on the sheet, px; how the axis stands in it.
  struct View {
    const char* id;
    QPointF middle;
    double half;
    QPointF end;  //!< where its forward or outboard end points, of length one
  };
  std::vector<View> views() const;
  bool along() const;  //!< fore and aft, else athwartships
  const SwingPane& swing_;
  mutable QRectF area_;
};

}  // namespace kranich::app
