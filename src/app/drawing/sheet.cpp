// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawing/sheet.h"

#include <QFontMetricsF>
#include <QPainterPath>
#include <cmath>
#include <optional>
#include <tuple>

#include "core/base/quantity.h"

namespace kranich::app {

Frame::Frame(const QRectF& device, const QRectF& world) : device_(device) {
  if (world.width() <= 0 || world.height() <= 0 || device.width() <= 0 || device.height() <= 0) return;
  scale_ = std::min(device.width() / world.width(), device.height() / world.height());
  const QPointF middle = device.center();
  origin_ = {middle.x() - world.center().x() * scale_, middle.y() + world.center().y() * scale_};
}

QColor ink_colour(Ink ink) {
  const Theme& t = Theme::now();
  switch (ink) {
    case Ink::normal:
      return t.ink;
    case Ink::grey:
      return t.grey;
    case Ink::faint:
      return t.faint;
    case Ink::accent:
      return t.accent;
    case Ink::fails:
      return t.fails;
    case Ink::tight:
      return t.tight;
    case Ink::holds:
      return t.holds;
    case Ink::pinned:
      return t.pinned;
  }
  return t.ink;
}

Ink ink_of(Verdict v) {
  switch (v) {
    case Verdict::fails:
      return Ink::fails;
    case Verdict::tight:
      return Ink::tight;
    case Verdict::holds:
      return Ink::holds;
    default:
      return Ink::grey;
  }
}

Sheet::Sheet(QPainter& painter, const Frame& frame, double unit) : p_(painter), frame_(frame), unit_(unit) {
  p_.setRenderHint(QPainter::Antialiasing);
}

void Sheet::pen(const QColor& c, double width, Qt::PenStyle style) {
  QPen pen(c, width * unit_, style, Qt::FlatCap, Qt::RoundJoin);
  p_.setPen(pen);
}
void Sheet::pen(Ink ink, double width, Qt::PenStyle style) { pen(ink_colour(ink), width, style); }
void Sheet::fill(const QColor& c) { p_.setBrush(c); }
void Sheet::no_fill() { p_.setBrush(Qt::NoBrush); }
void Sheet::no_pen() { p_.setPen(Qt::NoPen); }

namespace {

//! The part of a line from a to b within a rectangle (Liang and Barsky), by shares of its way; nothing where
//! none is.
std::optional<std::pair<double, double>> within_rect(const QPointF& a, const QPointF& b, const QRectF& r) {
  double from = 0;
  double to = 1;
  const QPointF way = b - a;
  for (const auto& [along, low, high] : {std::tuple{way.x(), r.left() - a.x(), r.right() - a.x()},
                                         {way.y(), r.top() - a.y(), r.bottom() - a.y()}}) {
    if (along == 0) {
      if (low > 0 || high < 0) return std::nullopt;
      continue;
    }
    from = std::max(from, std::min(low / along, high / along));
    to = std::min(to, std::max(low / along, high / along));
  }
  if (!(from <= to)) return std::nullopt;
  return std::pair{from, to};
}

bool finite(const QPointF& p) { return std::isfinite(p.x()) && std::isfinite(p.y()); }

//! Far beyond any screen or page: what lies there is cut off.
QRectF sight_of(const QPaintDevice* device) {
  const double w = device ? device->width() : 4000;
  const double h = device ? device->height() : 4000;
  return {-w, -h, 3 * w, 3 * h};
}

}  // namespace

void Sheet::clipped_polyline(const QPolygonF& points, const QRectF& r) {
  QPolygonF piece;
  const auto end_piece = [&] {
    if (piece.size() > 1) p_.drawPolyline(piece);
    piece.clear();
  };
  for (qsizetype i = 0; i + 1 < points.size(); ++i) {
    const QPointF& a = points[i];
    const QPointF& b = points[i + 1];
    const auto part = finite(a) && finite(b) ? within_rect(a, b, r) : std::nullopt;
    if (!part) {
      end_piece();
      continue;
    }
    if (piece.isEmpty() || part->first > 0) {
      end_piece();
      piece << a + part->first * (b - a);
    }
    piece << a + part->second * (b - a);
    if (part->second < 1) end_piece();
  }
  end_piece();
}

void Sheet::line(const QPointF& a, const QPointF& b) {
  clipped_polyline({d(a), d(b)}, sight_of(p_.device()));
}

void Sheet::polyline(const QPolygonF& world, bool closed) {
  QPolygonF device;
  for (const auto& w : world) device << d(w);
  if (closed && device.size() > 1)
    p_.drawPolygon(device);
  else if (!closed)
    clipped_polyline(device, sight_of(p_.device()));
}

void Sheet::circle(const QPointF& c, double r) {
  p_.drawEllipse(d(c), r * frame_.scale(), r * frame_.scale());
}

void Sheet::rect(const QRectF& w) {
  p_.drawRect(QRectF(d({w.left(), w.bottom()}), d({w.right(), w.top()})).normalized());
}

void Sheet::bar(const QPointF& a, const QPointF& b, double width, const QColor& c) {
  const double wide = std::max(width * frame_.scale(), 2.5 * unit_);
  if (QLineF(d(a), d(b)).length() < 1e-3) {  // seen from its end; paper knows no line without a length
    p_.save();
    p_.setPen(Qt::NoPen);
    p_.setBrush(c);
    p_.drawEllipse(d(a), wide / 2, wide / 2);
    p_.restore();
    return;
  }
  p_.setPen(QPen(c, wide, Qt::SolidLine, Qt::RoundCap));
  p_.drawLine(d(a), d(b));
}

void Sheet::ground(double height) {
  const QRectF& area = frame_.device();
  const double y = d({0, height}).y();
  if (y < area.top() || y > area.bottom() + 1) return;
  pen(Ink::normal, 1.8);
  p_.drawLine(QPointF(area.left(), y), QPointF(area.right(), y));
  pen(Theme::now().line, 1);
  for (double x = area.left() + 8 * unit_; x < area.right(); x += 9 * unit_)
    p_.drawLine(QPointF(x, y + unit_), QPointF(x - 6 * unit_, y + 7 * unit_));
}

QFont Sheet::font(double points, bool bold) const {
  QFont f = text_font(points, bold);
  if (unit_ != 1) f.setPixelSize(std::max(1, static_cast<int>(std::lround(points * 96.0 / 72.0 * unit_))));
  return f;
}

void Sheet::letters(const QPointF& at, const QString& text, const QColor& colour, Qt::Alignment align,
                    const QFont& f, bool halo) {
  p_.setFont(f);
  const QFontMetricsF m(f, p_.device());
  double x = at.x();
  double y = at.y();
  const double w = m.horizontalAdvance(text);
  if (align & Qt::AlignRight)
    x -= w;
  else if (align & Qt::AlignHCenter)
    x -= w / 2;
  if (align & Qt::AlignVCenter)
    y += (m.ascent() - m.descent()) / 2;
  else if (align & Qt::AlignTop)
    y += m.ascent();
  else
    y -= m.descent();
  if (halo) {
    QColor ground = Theme::now().paper;
    ground.setAlpha(215);
    p_.fillRect(QRectF(x - 2 * unit_, y - m.ascent(), w + 4 * unit_, m.ascent() + m.descent()), ground);
  }
  p_.setPen(colour);
  p_.drawText(QPointF(x, y), text);
}

void Sheet::label(const QPointF& at, const QString& text, Ink ink, Qt::Alignment align, const QPointF& shift,
                  double points, bool bold) {
  letters(d(at) + shift * unit_, text, ink_colour(ink), align, font(points, bold), true);
}

void Sheet::dimension(const QPointF& a, const QPointF& b, const QString& text, double drop, Ink ink) {
  const QPointF p = d(a);
  const QPointF q = d(b);
  const double y = std::max(p.y(), q.y()) + drop * unit_;
  pen(ink, 0.9);
  for (const QPointF& e : {p, q}) p_.drawLine(QPointF(e.x(), y - 6 * unit_), QPointF(e.x(), y + 6 * unit_));
  p_.drawLine(QPointF(p.x(), y), QPointF(q.x(), y));
  letters({(p.x() + q.x()) / 2, y}, text, ink_colour(ink), Qt::AlignHCenter | Qt::AlignVCenter,
          font(8.5, false), true);
}

void Sheet::vertical_dimension(const QPointF& a, const QPointF& b, const QString& text, double aside,
                               Ink ink) {
  const QPointF p = d(a);
  const QPointF q = d(b);
  const double x = p.x() + aside * unit_;
  pen(ink, 0.9);
  for (const QPointF& e : {p, q}) p_.drawLine(QPointF(x - 5 * unit_, e.y()), QPointF(x + 5 * unit_, e.y()));
  p_.drawLine(QPointF(x, p.y()), QPointF(x, q.y()));
  const auto side = aside < 0 ? Qt::AlignRight : Qt::AlignLeft;
  letters({x + (aside < 0 ? -5 : 5) * unit_, (p.y() + q.y()) / 2}, text, ink_colour(ink),
          side | Qt::AlignVCenter, font(8.5, false), true);
}

void Sheet::angle(const QPointF& at, double radius, double from, double to, const QString& text, Ink ink) {
  pen(ink, 1.3);
  no_fill();
  const QPointF c = d(at);
  const double r = radius * unit_;
  p_.drawArc(QRectF(c.x() - r, c.y() - r, 2 * r, 2 * r), static_cast<int>(std::lround(degrees(from) * 16)),
             static_cast<int>(std::lround(degrees(to - from) * 16)));
  if (text.isEmpty()) return;
  const double mid = (from + to) / 2;
  const QPointF at_text = c + (r + 9 * unit_) * QPointF(std::cos(mid), -std::sin(mid));
  const auto side = std::abs(std::cos(mid)) < 0.35 ? Qt::AlignHCenter
                    : std::cos(mid) > 0            ? Qt::AlignLeft
                                                   : Qt::AlignRight;
  letters(at_text, text, ink_colour(ink), side | Qt::AlignVCenter, font(8.5, true), true);
}

void Sheet::cg(const QPointF& at, bool chosen) {
  const QPointF c = d(at);
  const double r = (chosen ? 8.5 : 6) * unit_;
  pen(chosen ? Ink::normal : Ink::grey, 1.4);
  p_.setBrush(Theme::now().paper);
  p_.drawEllipse(c, r, r);
  p_.setBrush(chosen ? Theme::now().ink : Theme::now().grey);
  p_.drawPie(QRectF(c.x() - r, c.y() - r, 2 * r, 2 * r), 0, 90 * 16);
  p_.drawPie(QRectF(c.x() - r, c.y() - r, 2 * r, 2 * r), 180 * 16, 90 * 16);
}

void Sheet::handle(const QPointF& at, double radius, bool active) {
  no_fill();
  pen(Ink::accent, active ? 2.6 : 1.6);
  p_.drawEllipse(d(at), radius * unit_, radius * unit_);
}

void Sheet::note(const QPointF& corner, const QString& heading, const QString& text, Ink ink,
                 const QPointF& points_to) {
  const QFont bold = font(9, true);
  const QFont small = font(8, false);
  const QFontMetricsF mb(bold, p_.device());
  const QFontMetricsF ms(small, p_.device());
  const double w = std::max(mb.horizontalAdvance(heading), ms.horizontalAdvance(text)) + 18 * unit_;
  const double h = mb.height() + (text.isEmpty() ? 0 : ms.height()) + 10 * unit_;
  QRectF box(corner, QSizeF(w, h));
  const QRectF& area = frame_.device();
  if (box.right() > area.right() - 4 * unit_) box.moveRight(area.right() - 4 * unit_);
  if (box.left() < area.left() + 4 * unit_) box.moveLeft(area.left() + 4 * unit_);
  const QPointF target = d(points_to);
  pen(ink, 1);
  const QPointF from(std::clamp(target.x(), box.left() + 8 * unit_, box.right() - 8 * unit_),
                     target.y() > box.center().y() ? box.bottom() : box.top());
  p_.drawLine(from, target);
  p_.setBrush(Theme::now().card);
  p_.drawRoundedRect(box, 3 * unit_, 3 * unit_);
  letters(box.topLeft() + QPointF(9, 5) * unit_, heading, ink_colour(ink), Qt::AlignLeft | Qt::AlignTop, bold,
          false);
  if (!text.isEmpty())
    letters(box.topLeft() + QPointF(9 * unit_, 5 * unit_ + mb.height()), text, ink_colour(Ink::grey),
            Qt::AlignLeft | Qt::AlignTop, small, false);
}

QPolygonF convex_hull(QPolygonF p) {
  std::sort(p.begin(), p.end(), [](const QPointF& a, const QPointF& b) {
    return a.x() < b.x() || (a.x() == b.x() && a.y() < b.y());
  });
  const auto cross = [](const QPointF& o, const QPointF& a, const QPointF& b) {
    return (a.x() - o.x()) * (b.y() - o.y()) - (a.y() - o.y()) * (b.x() - o.x());
  };
  QPolygonF hull;
  for (int pass = 0; pass < 2; ++pass) {
    const auto start = hull.size();
    for (const auto& q : p) {
      while (hull.size() >= start + 2 && cross(hull[hull.size() - 2], hull.back(), q) <= 0) hull.removeLast();
      hull << q;
    }
    hull.removeLast();
    std::reverse(p.begin(), p.end());
  }
  return hull;
}

void Sheet::card(const QRectF& device) {
  pen(Theme::now().line, 1);
  fill(Theme::now().card);
  p_.drawRoundedRect(device, 3, 3);
}

void Sheet::title(const QString& text, const QString& more) {
  const QPointF at = frame_.device().topLeft() + QPointF(-12, -22) * unit_;
  const QFont f = font(9, true);
  letters(at, text, ink_colour(Ink::grey), Qt::AlignLeft | Qt::AlignTop, f, false);
  if (more.isEmpty()) return;
  const QFontMetricsF m(f, p_.device());
  letters(at + QPointF(m.horizontalAdvance(text) + 8 * unit_, 0), more, ink_colour(Ink::grey),
          Qt::AlignLeft | Qt::AlignTop, font(9, false), false);
}

}  // namespace kranich::app
