// SPDX-License-Identifier: GPL-3.0-or-later
//! The aircraft's outline in one view, level, over a picture of it: what is clicked and dragged to trace it.
//! World: side (station, waterline), from ahead (to port, waterline), from above (station, to port), m.
#pragma once

#include <functional>
#include <optional>
#include <vector>

#include "app/drawing/board.h"
#include "core/model/outline.h"

namespace kranich::app {

enum class Seen { side, front, plan };

//! What a click on the board does.
enum class ClickOn { nothing, trace, scale, level };

//! An outline that is traced: an edge of a body, fin or canopy.
struct Trace {
  enum class Of { body, fin, canopy } of = Of::body;
  size_t body = 0;
  BodyEdge edge = BodyEdge::top;
  bool operator==(const Trace&) const = default;
};
//! Those that a view has, with what they are called.
std::vector<std::pair<Trace, QString>> traces_of(const Design& design, Seen seen);

class OutlinePane : public Pane {
 public:
  //! `two`: called when two points have been clicked to scale or level by.
  OutlinePane(Document& document, std::function<void()> two) : Pane(document), two_(std::move(two)) {}
  QString name() const override { return QObject::tr("Outline"); }
  QRectF bounds() const override;
  void draw(Sheet& sheet) override;
  std::vector<Handle> handles() const override;
  bool clicked(const QPointF& world) override;
  bool wheeled(const QPointF& at, double steps) override;

  Seen seen = Seen::side;
  ClickOn click = ClickOn::nothing;
  Trace trace;
  std::vector<QPointF> picks;  //!< clicked so far, to scale or level by
  void show_all() { zoom_.reset(); }
  const Picture& picture() const;
  static Picture Design::*picture_of(Seen seen);

 private:
  QPointF map(const Vec3& p) const;
  //! What lies in the view: outline and picture.
  QRectF all() const;
  void draw_grid(Sheet& sheet);
  std::function<void()> two_;
  std::optional<QRectF> zoom_;
  mutable double scale_ = 1;  //!< device pixels a metre, as last drawn
};

}  // namespace kranich::app
