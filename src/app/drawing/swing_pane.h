// SPDX-License-Identifier: GPL-3.0-or-later
//! The swing of one leg in its plane: well, poses along the way, the tightest one called out; and the
//! clearance over the turn. Sequence plays back on the same drawing, with its doors.
#pragma once

#include <map>

#include "app/drawing/board.h"
#include "core/swing/cutout.h"
#include "core/swing/swing.h"

namespace kranich::app {

class SwingPane : public Pane {
 public:
  explicit SwingPane(Document& document) : Pane(document) {}
  QString name() const override { return QObject::tr("Swing"); }
  QRectF bounds() const override;
  QMarginsF margins() const override { return {26, 52, 26, 26}; }
  void draw(Sheet& sheet) override;
  std::vector<Handle> handles() const override;

  std::string leg = "main";                    //!< id
  bool playback = false;                       //!< draws doors and one pose only
  double leg_share = 0;                        //!< in playback: where the leg is
  std::map<std::string, double> door_opening;  //!< rad, by its id

  const Leg& the_leg() const { return document_.design().gear.leg(leg); }
  const LegSwing* result() const;
  bool from_behind() const;  //!< the plane of a sideways swing: (y, z); else the side view (x, z)
  QPointF map(const Vec3& p) const { return from_behind() ? QPointF(p.y(), p.z()) : QPointF(p.x(), p.z()); }

 private:
  void draw_well(Sheet& sheet);
  void draw_doors(Sheet& sheet);
  void draw_what_it_must_pass(Sheet& sheet, const swing::MovingLeg& moving);
};

//! The same from above: what the leg cuts out of the skin, what its way covers above it, the well as it was
//! entered. The page has it worked out when nothing
//! is dragged.
class CutOutPane : public Pane {
 public:
  CutOutPane(Document& document, const SwingPane& swing) : Pane(document), swing_(swing) {}
  QString name() const override { return QObject::tr("From above"); }
  QRectF bounds() const override;
  QMarginsF margins() const override { return {16, 46, 16, 62}; }
  void draw(Sheet& sheet) override;
  //! The outlines of a leg, or what is missing for them.
  void show_outlines(const Leg& of, std::variant<swing::LegOutlines, Text> outlines);
  bool is_of(const Leg& leg) const { return of_ == leg; }

 private:
  const SwingPane& swing_;
  Leg of_;
  std::variant<swing::LegOutlines, Text> made_;
};

class ClearancePane : public DiagramPane {
 public:
  ClearancePane(Document& document, const SwingPane& swing) : DiagramPane(document), swing_(swing) {}
  QString name() const override { return QObject::tr("Clearance"); }
  void draw(Sheet& sheet) override;

 private:
  const SwingPane& swing_;
};

}  // namespace kranich::app
