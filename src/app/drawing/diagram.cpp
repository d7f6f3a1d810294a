// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawing/diagram.h"

#include <QFontMetricsF>
#include <algorithm>
#include <cmath>
#include <limits>

#include "app/tongue.h"

namespace kranich::app {
namespace {

//! A step of 1, 2 or 5 times a power of ten that divides a range into about `count` parts.
double round_step(double range, int count) {
  const double raw = range / count;
  const double power = std::pow(10, std::floor(std::log10(raw)));
  for (const double m : {1.0, 2.0, 5.0})
    if (raw <= m * power) return m * power;
  return 10 * power;
}

}  // namespace

QRectF calmest_corner(const QRectF& box, const QSizeF& size, const std::vector<QPolygonF>& lines) {
  // Length of a straight piece within a room: what all four sides leave of it.
  const auto within = [](const QPointF& a, const QPointF& b, const QRectF& room) {
    const QPointF d = b - a;
    if (!std::isfinite(a.x() + a.y() + d.x() + d.y())) return 0.0;
    double from = 0, to = 1;
    const auto side = [&](double along, double inside) {  // inside where along·t ≤ inside
      if (along > 0)
        to = std::min(to, inside / along);
      else if (along < 0)
        from = std::max(from, inside / along);
      else if (inside < 0)
        to = -1;
    };
    side(-d.x(), a.x() - room.left());
    side(d.x(), room.right() - a.x());
    side(-d.y(), a.y() - room.top());
    side(d.y(), room.bottom() - a.y());
    return to > from ? (to - from) * std::hypot(d.x(), d.y()) : 0;
  };
  const auto crowd = [&](const QRectF& room) {
    double length = 0;
    for (const QPolygonF& line : lines)
      for (qsizetype i = 0; i + 1 < line.size(); ++i) length += within(line[i], line[i + 1], room);
    return length;
  };
  const double right = box.right() - size.width(), low = box.bottom() - size.height();
  QRectF best;
  double least = std::numeric_limits<double>::infinity();
  for (const QPointF& corner :
       {box.topLeft(), QPointF(right, box.top()), QPointF(right, low), QPointF(box.left(), low)}) {
    const QRectF room(corner, size);
    if (const double here = crowd(room); here < least) {
      least = here;
      best = room;
    }
  }
  return best;
}

void Diagram::fit() {
  if (curve.empty()) return;
  x_low = curve.front().x();
  x_high = curve.back().x();
  y_low = 0;
  y_high = 0;
  const auto see = [&](const QPointF& p) {
    y_low = std::min(y_low, p.y());
    y_high = std::max(y_high, p.y());
    x_high = std::max(x_high, p.x());
  };
  for (const auto& p : curve) see(p);
  for (const auto& p : second) see(p);
  for (const auto& c : more)
    for (const auto& p : c.points) see(p);
  for (const auto& m : marks) see(m.at);
  if (band_high > band_low) y_high = std::max(y_high, band_high);
  const double air = 0.08 * std::max(1e-9, y_high - y_low);
  y_high += air;
  if (y_low < 0) y_low -= air;
}

void Diagram::draw(Sheet& s, const QRectF& area) const {
  if (area.width() < 60 || area.height() < 50) return;
  QPainter& p = s.painter();
  const double u = s.unit();
  const Theme& t = Theme::now();
  QFont small = text_font(7.5);
  if (u != 1) small.setPixelSize(static_cast<int>(10 * u));
  QFont bold = text_font(8.5, true);
  if (u != 1) bold.setPixelSize(static_cast<int>(11.5 * u));
  const QRectF box = area.adjusted(46 * u, 24 * u, -12 * u, -30 * u);
  const auto at = [&](const QPointF& q) {
    return QPointF(box.left() + (q.x() - x_low) / (x_high - x_low) * box.width(),
                   box.bottom() - (q.y() - y_low) / (y_high - y_low) * box.height());
  };
  p.setFont(bold);
  p.setPen(t.ink);
  p.drawText(QPointF(area.left() + 6 * u, area.top() + 14 * u), title);
  p.setFont(small);
  p.setPen(t.grey);
  const QFontMetricsF m(small, p.device());
  p.drawText(QPointF(area.right() - 12 * u - m.horizontalAdvance(y_title), area.top() + 14 * u), y_title);
  p.drawText(QPointF(box.right() - m.horizontalAdvance(x_title), area.bottom() - 3 * u), x_title);
  if (band_high > band_low) {
    QColor wash = ink_colour(band_ink);
    wash.setAlpha(40);
    p.fillRect(QRectF(at({x_low, std::min(band_high, y_high)}), at({x_high, std::max(band_low, y_low)})),
               wash);
  }
  const auto ticks = [&](double low, double high, double factor, int count, auto&& each) {
    const double step = round_step((high - low) * factor, count);
    for (double v = std::ceil(low * factor / step) * step; v <= high * factor + 1e-9 * step; v += step)
      each(v / factor, with_decimal_mark(QString::number(std::abs(v) < 1e-9 * step ? 0 : v, 'g', 6))
                           .replace('-', QChar(0x2212)));
  };
  s.pen(t.faint_line, 0.8);
  ticks(y_low, y_high, y_factor, 5, [&](double v, const QString& text) {
    s.pen(t.faint_line, 0.8);
    p.drawLine(at({x_low, v}), at({x_high, v}));
    p.setPen(t.grey);
    p.drawText(
        QPointF(box.left() - 5 * u - m.horizontalAdvance(text), at({x_low, v}).y() + m.ascent() / 2 - u),
        text);
  });
  ticks(x_low, x_high, x_factor, 6, [&](double v, const QString& text) {
    s.pen(t.line, 0.8);
    p.drawLine(at({v, y_low}), at({v, y_low}) + QPointF(0, 4 * u));
    p.setPen(t.grey);
    p.drawText(QPointF(at({v, y_low}).x() - m.horizontalAdvance(text) / 2, box.bottom() + 4 * u + m.ascent()),
               text);
  });
  s.pen(t.ink, 1);
  p.drawLine(at({x_low, y_low}), at({x_high, y_low}));
  p.drawLine(at({x_low, y_low}), at({x_low, y_high}));
  if (y_low < 0) p.drawLine(at({x_low, 0}), at({x_high, 0}));
  p.save();
  p.setClipRect(box.adjusted(-1, -1, 1, 1));
  s.no_fill();
  QPolygonF line, dashed;
  for (const auto& q : curve) line << at(q);
  for (const auto& q : second) dashed << at(q);
  s.pen(Ink::normal, 1.6);
  s.clipped_polyline(line, box.adjusted(-2, -2, 2, 2));
  s.pen(Ink::grey, 1.3, Qt::DashLine);
  s.clipped_polyline(dashed, box.adjusted(-2, -2, 2, 2));
  std::vector<QPolygonF> lines{line, dashed};
  for (size_t i = 0; i < more.size(); ++i) {
    QPolygonF extra;
    for (const auto& q : more[i].points) extra << at(q);
    QPen pen(more[i].colour, 1.2 * u, Qt::CustomDashLine);
    pen.setDashPattern({2.0 + 3 * static_cast<double>(i), 2.0});
    p.setPen(pen);
    s.clipped_polyline(extra, box.adjusted(-2, -2, 2, 2));
    lines.push_back(std::move(extra));
  }
  p.restore();
  for (const auto& k : marks)
    if (k.line)
      lines.push_back(QPolygonF{QPointF(at(k.at).x(), box.top()), QPointF(at(k.at).x(), box.bottom())});
  double widest = 0;
  for (const auto& c : more) widest = std::max(widest, m.horizontalAdvance(c.name));
  const QRectF list =
      calmest_corner(box.adjusted(0, -2 * u, 0, 0),
                     QSizeF(widest + 43 * u, (12 * static_cast<double>(more.size()) + 2) * u), lines);
  for (size_t i = 0; i < more.size(); ++i) {
    const double y = list.top() + (6 + 12 * static_cast<double>(i)) * u;
    QPen pen(more[i].colour, 1.6 * u, Qt::CustomDashLine);
    pen.setDashPattern({2.0 + 3 * static_cast<double>(i), 2.0});
    p.setPen(pen);
    p.drawLine(QPointF(list.left() + 8 * u, y), QPointF(list.left() + 34 * u, y));
    p.setFont(small);
    p.setPen(t.ink);
    p.drawText(QPointF(list.left() + 39 * u, y + m.ascent() / 2 - u), more[i].name);
  }
  for (const auto& k : marks) {
    const QPointF q = at(k.at);
    if (k.line) {
      s.pen(k.ink, 1.2);
      p.drawLine(QPointF(q.x(), box.top()), QPointF(q.x(), box.bottom()));
    } else {
      s.no_pen();
      s.fill(ink_colour(k.ink));
      p.drawEllipse(q, 4 * u, 4 * u);
    }
    p.setFont(small);
    p.setPen(ink_colour(k.ink));
    const double w = m.horizontalAdvance(k.text);
    const bool left = q.x() + w + 8 * u > box.right();
    p.drawText(k.line ? QPointF(left ? q.x() - w - 5 * u : q.x() + 5 * u, box.top() + m.ascent())
                      : QPointF(left ? q.x() - w - 7 * u : q.x() + 7 * u, q.y() - 4 * u),
               k.text);
  }
}

void limit_line(Sheet& s, const QPolygonF& line, bool faint) {
  s.no_fill();
  s.pen(faint ? Ink::faint : Ink::normal, 1.3, faint ? Qt::DotLine : Qt::SolidLine);
  s.polyline(line);
  QPolygonF device;
  for (const auto& p : line) device << s.frame().to_device(p);
  s.pen(faint ? Ink::faint : Ink::fails, 1);
  double run = 8;
  for (int i = 0; i + 1 < device.size(); ++i) {
    const QLineF piece(device[i], device[i + 1]);
    if (!(piece.length() > 0)) continue;
    const QPointF along = (piece.p2() - piece.p1()) / piece.length();
    const QPointF left(along.y(), -along.x());  // of the world's left, y down on the screen
    for (; run < piece.length(); run += 9) {
      const QPointF at = piece.p1() + along * run;
      s.painter().drawLine(at, at + left * 4.5 + along * 2.5);
    }
    run -= piece.length();
  }
}

void fill_pieces(QPainter& p, const std::vector<QPolygonF>& pieces, const QColor& colour) {
  p.save();
  p.setRenderHint(QPainter::Antialiasing, false);
  p.setPen(QPen(colour, 1));  // closes the seams between the pieces
  p.setBrush(colour);
  for (const auto& piece : pieces) p.drawPolygon(piece);
  p.restore();
}

}  // namespace kranich::app
