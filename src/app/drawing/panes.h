// SPDX-License-Identifier: GPL-3.0-or-later
//! The panes that several stations share: the aircraft from the side, from ahead and from above.
#pragma once

#include "app/drawing/aircraft.h"
#include "app/drawing/board.h"

namespace kranich::app {

//! What a pane draws over the aircraft.
enum class Overlay { weigh, place, stance };

class SidePane : public Pane {
 public:
  SidePane(Document& document, Overlay overlay) : Pane(document), overlay_(overlay) {}
  QString name() const override { return QObject::tr("Side"); }
  QRectF bounds() const override;
  QMarginsF margins() const override { return {66, 34, 66, 52}; }
  void draw(Sheet& sheet) override;
  std::vector<Handle> handles() const override;

 private:
  void draw_place(Sheet& sheet, const Pose& pose);
  void draw_stance(Sheet& sheet, const Pose& pose);
  void draw_weigh(Sheet& sheet, const Pose& pose);
  void draw_original(Sheet& sheet, const Pose& pose);
  Overlay overlay_;
};

class FrontPane : public Pane {
 public:
  using Pane::Pane;
  QString name() const override { return QObject::tr("Front"); }
  QRectF bounds() const override;
  QMarginsF margins() const override { return {30, 30, 30, 44}; }
  void draw(Sheet& sheet) override;
  std::vector<Handle> handles() const override;
};

class PlanPane : public Pane {
 public:
  using Pane::Pane;
  QString name() const override { return QObject::tr("Plan"); }
  QRectF bounds() const override;
  QMarginsF margins() const override { return {24, 26, 24, 20}; }
  void draw(Sheet& sheet) override;
  std::vector<Handle> handles() const override;
};

//! The wheels that are dragged together, as handles name them.
struct WheelLine {
  std::vector<size_t> rows;
  std::string spokesman;  //!< id of the leg at whose (starboard) wheel the handle sits
  QString word;           //!< "main wheels"
  bool main, beside;      //!< of main legs; on both sides of the centre line
};
std::vector<WheelLine> lines_of_wheels(const Design& design);
//! Those of them that stand beside the centre line and can be moved outward.
std::vector<WheelLine> beside_lines(const Design& design);

Pose pose_now(const Document& document);
//! Draws the old place while something is dragged, and the pinned gear where there is one.
void draw_others(Sheet& sheet, const Document& document, const Pose& now,
                 void (*draw)(Sheet&, const Pose&, Look));

//! The worst finding of a measure in a loading, or of one that hangs on no loading; null if there is none.
const Finding* finding_for(const Document& document, std::string_view id, const std::string& loading);

}  // namespace kranich::app
