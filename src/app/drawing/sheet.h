// SPDX-License-Identifier: GPL-3.0-or-later
//! The drawing toolkit: one set of pens, signs and letters for every scale drawing, on the screen and on
//! paper. World coordinates are metres with the second one up; `Frame` carries them to the device.
#pragma once

#include <QPainter>
#include <QPointF>
#include <QPolygonF>
#include <QRectF>
#include <QString>

#include "app/theme.h"

namespace kranich::app {

//! Window on a world: which part of it is shown where.
class Frame {
 public:
  Frame() = default;
  //! Shows all of `world` (m, y up) inside `device`, as large as goes, centred.
  Frame(const QRectF& device, const QRectF& world);
  QPointF to_device(const QPointF& world) const {
    return {origin_.x() + world.x() * scale_, origin_.y() - world.y() * scale_};
  }
  QPointF to_world(const QPointF& device) const {
    return {(device.x() - origin_.x()) / scale_, (origin_.y() - device.y()) / scale_};
  }
  double scale() const { return scale_; }  //!< device units per metre
  const QRectF& device() const { return device_; }
  bool valid() const { return scale_ > 0; }

 private:
  QRectF device_;
  QPointF origin_;
  double scale_ = 0;
};

//! What a drawn letter or line stands for.
enum class Ink { normal, grey, faint, accent, fails, tight, holds, pinned };
QColor ink_colour(Ink ink);
Ink ink_of(Verdict verdict);

//! Convex hull, anticlockwise (monotone chain).
QPolygonF convex_hull(QPolygonF points);

//! A painter with a frame. `unit` is the device size of one screen pixel: 1 on screen, more on paper.
class Sheet {
 public:
  Sheet(QPainter& painter, const Frame& frame, double unit = 1);
  QPainter& painter() { return p_; }
  const Frame& frame() const { return frame_; }
  double unit() const { return unit_; }

  void pen(Ink ink, double width = 1.2, Qt::PenStyle style = Qt::SolidLine);
  void pen(const QColor& colour, double width = 1.2, Qt::PenStyle style = Qt::SolidLine);
  void fill(const QColor& colour);
  void no_fill();
  void no_pen();

  void line(const QPointF& a, const QPointF& b);
  void polyline(const QPolygonF& world, bool closed = false);
  //! An open line in device coordinates, cut to a rectangle first: dashes are not counted out over what
  //! nobody sees, and what is not finite breaks the line.
  void clipped_polyline(const QPolygonF& device, const QRectF& within);
  void circle(const QPointF& centre, double radius);
  void rect(const QRectF& world);
  //! A bar of a world width between two points: a leg in elevation.
  void bar(const QPointF& a, const QPointF& b, double width, const QColor& colour);

  //! The ground line at a height, hatched below.
  void ground(double height);
  //! Text near a world point, moved by device pixels; alignment tells which side of the point it stands on.
  void label(const QPointF& at, const QString& text, Ink ink = Ink::normal,
             Qt::Alignment align = Qt::AlignLeft | Qt::AlignVCenter, const QPointF& shift = {},
             double points = 8.5, bool bold = false);
  //! A horizontal dimension between two world points, its line `drop` device pixels below the lower of them.
  void dimension(const QPointF& a, const QPointF& b, const QString& text, double drop, Ink ink = Ink::normal);
  void vertical_dimension(const QPointF& a, const QPointF& b, const QString& text, double aside,
                          Ink ink = Ink::normal);
  //! Arc about a point between two world directions (rad, anticlockwise from +x), with a text at its middle.
  void angle(const QPointF& at, double radius_px, double from, double to, const QString& text, Ink ink);
  //! The sign of a centre of gravity.
  void cg(const QPointF& at, bool chosen);
  //! A ring round something that can be dragged.
  void handle(const QPointF& at, double radius_px, bool active);
  //! A framed note with a title, its pointer to a world point. `corner` in device coordinates.
  void note(const QPointF& corner, const QString& title, const QString& text, Ink ink,
            const QPointF& points_to);
  //! The framed ground of a diagram, device coordinates.
  void card(const QRectF& device);
  void title(const QString& text, const QString& more = {});

 private:
  QPointF d(const QPointF& world) const { return frame_.to_device(world); }
  void letters(const QPointF& device, const QString& text, const QColor& colour, Qt::Alignment align,
               const QFont& font, bool halo);
  QFont font(double points, bool bold) const;
  QPainter& p_;
  const Frame& frame_;
  double unit_;
};

}  // namespace kranich::app
