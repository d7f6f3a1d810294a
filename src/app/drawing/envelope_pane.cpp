// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawing/envelope_pane.h"

#include <algorithm>
#include <cmath>

#include "app/theme.h"
#include "core/assess/loading_state.h"

namespace kranich::app {

void EnvelopePane::draw(Sheet& s) {
  const QRectF card = s.frame().device();
  QPainter& p = s.painter();
  const Theme& t = Theme::now();
  s.card(card);
  p.setFont(text_font(8.5, true));
  p.setPen(t.ink);
  p.drawText(card.topLeft() + QPointF(8, 16), QObject::tr("Mass over CG station"));
  const auto& f = document_.design().airframe;
  double x_low = 1e9, x_high = -1e9, m_high = 0, m_low = 1e9;
  for (const auto& l : document_.assessment().loadings) {
    if (!l.mass.known()) continue;
    for (const double x : {l.mass.spread.cg_x_foremost, l.mass.spread.cg_x_aftmost, l.mass.up.at.x()}) {
      x_low = std::min(x_low, x);
      x_high = std::max(x_high, x);
    }
    m_low = std::min(m_low, l.mass.down.mass);
    m_high = std::max(m_high, l.mass.down.mass);
  }
  if (m_high <= 0) return;
  const bool limits = f.cg_forward_limit.known() && f.cg_aft_limit.known();
  if (limits) {
    x_low = std::min(x_low, f.cg_forward_limit.si);
    x_high = std::max(x_high, f.cg_aft_limit.si);
  }
  const double m_top = f.mass_limit.known() ? std::max(m_high, f.mass_limit.si) : m_high;
  const double air = 0.12 * std::max(1e-6, x_high - x_low);
  x_low -= air;
  x_high += air;
  m_low -= 0.15 * (m_top - m_low) + 1e-6;
  const QRectF box = card.adjusted(12, 26, -12, -34);
  const double roof = m_top + 0.12 * (m_top - m_low);
  const auto at = [&](double x, double m) {
    return QPointF(box.left() + (x - x_low) / (x_high - x_low) * box.width(),
                   box.bottom() - (m - m_low) / (roof - m_low) * box.height());
  };
  p.setFont(text_font(7.5));
  if (limits) {
    const QRectF range(at(f.cg_forward_limit, m_top), at(f.cg_aft_limit, m_low));
    QColor wash = t.band;
    wash.setAlpha(90);
    p.fillRect(range, wash);
    s.pen(t.holds, 1.2);
    p.drawLine(range.topLeft(), range.bottomLeft());
    p.drawLine(range.topRight(), range.bottomRight());
    if (f.mass_limit.known()) p.drawLine(range.topLeft(), range.topRight());
    p.setPen(t.grey);
    p.drawText(QRectF(range.left() - 60, box.bottom() + 3, 120, 13), Qt::AlignCenter,
               document_.say(f.cg_forward_limit, Kind::length));
    p.drawText(QRectF(range.right() - 60, box.bottom() + 3, 120, 13), Qt::AlignCenter,
               document_.say(f.cg_aft_limit, Kind::length));
    p.drawText(QRectF(card.left(), box.bottom() + 16, card.width(), 13), Qt::AlignCenter,
               QObject::tr("bar: estimates · ring: gear up · brackets: any mix"));
  }
  // The extremes over every combination: brackets at the foot.
  if (const auto e = weigh::cg_extremes(document_.design())) {
    s.pen(Ink::normal, 1.6);
    for (const auto& [extreme, sign] : {std::pair{&e->foremost, 1.0}, {&e->aftmost, -1.0}}) {
      const double x = std::clamp(at(extreme->x, m_low).x(), box.left(), box.right());
      p.drawPolyline(QPolygonF({QPointF(x + 5 * sign, box.bottom() - 18), QPointF(x, box.bottom() - 18),
                                QPointF(x, box.bottom() - 4), QPointF(x + 5 * sign, box.bottom() - 4)}));
    }
  }
  for (const auto& l : document_.assessment().loadings) {
    if (!l.mass.known()) continue;
    const bool chosen = l.name == document_.loading_name().toStdString();
    const double m = l.mass.down.mass;
    const QPointF here = at(l.mass.down.at.x(), m);
    s.pen(chosen ? Ink::accent : Ink::grey, chosen ? 2.2 : 1.3);
    p.drawLine(at(l.mass.spread.cg_x_foremost, m), at(l.mass.spread.cg_x_aftmost, m));
    const QPointF up = at(l.mass.up.at.x(), m);
    if (std::abs(up.x() - here.x()) > 2) {
      s.no_fill();
      s.pen(chosen ? Ink::accent : Ink::grey, 1.2);
      p.drawEllipse(up, 4, 4);
    }
    s.fill(chosen ? t.accent : l.flown ? t.grey : t.faint);
    s.no_pen();
    p.drawEllipse(here, chosen ? 5 : 3.5, chosen ? 5 : 3.5);
    p.setPen(chosen ? t.ink : t.grey);
    const QString text =
        QStringLiteral("%1, %2").arg(QString::fromStdString(l.name), document_.say(m, Kind::mass));
    p.drawText(
        // Within the card; of one that is too narrow from its left.
        QRectF(std::max(card.left() + 4, std::min(here.x() - 110, card.right() - 224)), here.y() - 19, 220,
               13),
        Qt::AlignCenter, p.fontMetrics().elidedText(text, Qt::ElideRight, 216));
  }
}

}  // namespace kranich::app
