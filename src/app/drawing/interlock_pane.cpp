// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawing/interlock_pane.h"

#include <algorithm>
#include <cmath>

#include "app/widgets/findings.h"

namespace kranich::app {

QPointF InterlockPane::at(double leg, double open) const {
  return {box_.left() + leg * box_.width(), box_.bottom() - open * box_.height()};
}

void InterlockPane::draw(Sheet& s) {
  const QRectF area = s.frame().device();
  s.card(area);
  const Design& d = document_.design();
  const Door* door = door_of(d, shown_());
  const DoorState* r = state_of(document_.assessment(), shown_());
  QPainter& p = s.painter();
  const double u = s.unit();
  p.setFont(text_font(9, true));
  p.setPen(Theme::now().grey);
  p.drawText(area.topLeft() + u * QPointF(12, 20),
             door ? QObject::tr("Leg against %1").arg(text_of(d.actor_word(door->id), document_.units()))
                  : QObject::tr("Leg against door"));
  if (!door || !r || !r->panel || (!r->region && r->openings.empty())) return;
  box_ = area.adjusted(46 * u, 46 * u, -14 * u, -36 * u);
  const double full_open = r->panel->open;
  draw_frame(s, full_open);
  if (r->region) {
    draw_region(s, *r->region, full_open);
    for (const bool up : {true, false}) draw_way(s, *door, up);
  } else {
    draw_following(s, r->openings, full_open);
  }
  const double share = document_.gear_position();
  const Now here = now ? now() : Now{share, doors::opening_at(d, *door, share) / full_open};
  if (!std::isfinite(here.door)) return;
  p.setPen(Qt::NoPen);
  p.setBrush(Theme::now().ink);
  p.drawEllipse(at(here.leg, here.door), 4 * u, 4 * u);
}

void InterlockPane::draw_frame(Sheet& s, double full_open) {
  QPainter& p = s.painter();
  const double u = s.unit();
  s.pen(Theme::now().ink, 1);
  p.setBrush(Qt::NoBrush);
  p.drawRect(box_);
  p.setFont(text_font(8));
  p.setPen(Theme::now().grey);
  const QRectF below(box_.left(), box_.bottom() + 3 * u, box_.width(), 14 * u);
  p.drawText(below, Qt::AlignLeft, QObject::tr("down"));
  p.drawText(below, Qt::AlignRight, QObject::tr("stowed"));
  // Between the two only where it has room.
  const QFontMetricsF metrics(p.font());
  const QString travel = QObject::tr("leg's travel");
  const double ends =
      metrics.horizontalAdvance(QObject::tr("down")) + metrics.horizontalAdvance(QObject::tr("stowed"));
  if (below.width() > ends + metrics.horizontalAdvance(travel) + 16 * u)
    p.drawText(below, Qt::AlignHCenter, travel);
  const auto beside = [&](double y, const QString& text) {
    p.drawText(QRectF(box_.left() - 42 * u, y, 38 * u, 14 * u), Qt::AlignRight, text);
  };
  beside(box_.top() - 6 * u, document_.say(full_open, Kind::angle));
  beside(box_.bottom() - 8 * u, QObject::tr("shut"));
}

void InterlockPane::draw_region(Sheet& s, const doors::Region& region, double full_open) {
  QPainter& p = s.painter();
  const Theme& t = Theme::now();
  const double u = s.unit();
  QColor wash = t.fails;
  wash.setAlpha(70);
  const auto& columns = region.columns;
  const double step = 1.0 / static_cast<double>(columns.size() - 1);
  p.setPen(Qt::NoPen);
  for (size_t i = 0; i < columns.size(); ++i)
    for (const auto& [from, to] : columns[i]) {
      const double x = static_cast<double>(i) * step;
      const QRectF bar(at(std::max(0.0, x - step / 2), to / full_open),
                       at(std::min(1.0, x + step / 2), from / full_open));
      for (const QBrush& brush : {QBrush(wash), QBrush(t.fails, Qt::BDiagPattern)}) {
        p.setBrush(brush);
        p.drawRect(bar);
      }
    }
  // Named beside it: over the hatching no word is read.
  const auto taken = [](const doors::Intervals& c) { return !c.empty(); };
  const auto first = std::find_if(columns.begin(), columns.end(), taken);
  if (first == columns.end()) return;
  const double x = static_cast<double>(first - columns.begin()) * step;
  const bool left = x > 0.4;
  const double y = (first->back().first + first->back().second) / 2 / full_open;
  p.setPen(t.fails);
  p.setFont(text_font(8, true));
  const QPointF corner = at(x, left ? y : first->back().second / full_open);
  const QRectF room(corner + u * QPointF(left ? -86 : 2, left ? -13 : -30), u * QSizeF(80, 26));
  p.drawText(room, (left ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter,
             QObject::tr("in each\nother's way"));
}

void InterlockPane::draw_way(Sheet& s, const Door& door, bool up) {
  const auto& line = document_.assessment().line(up);
  const auto has = [&](auto&& is) { return std::any_of(line.bars.begin(), line.bars.end(), is); };
  if (!has([&](const auto& b) { return b.actor == door.leg; })) return;
  const bool opens = has([&](const auto& b) { return b.actor == door.id && b.action == Action::open; });
  // Each actor at its own end of its spread.
  const auto path = [&](double sequence::Bar::*leg_end, double sequence::Bar::*door_end) {
    sequence::Timeline spread = line;
    for (auto& b : spread.bars) b.nominal_end = b.*(b.actor == door.leg ? leg_end : door_end);
    QPolygonF way;
    constexpr int steps = 160;
    for (int i = 0; i <= steps; ++i) {
      const double time = line.latest_end * i / steps;
      way << at(sequence::position_at(spread, door.leg, time, up ? 0 : 1),
                sequence::position_at(spread, door.id, time, opens ? 0 : 1));
    }
    return way;
  };
  QPainter& p = s.painter();
  const QColor colour = up ? Theme::now().accent : Theme::now().holds;
  p.setBrush(Qt::NoBrush);
  s.pen(colour, 1, Qt::DotLine);
  p.drawPolyline(path(&sequence::Bar::earliest_end, &sequence::Bar::latest_end));
  p.drawPolyline(path(&sequence::Bar::latest_end, &sequence::Bar::earliest_end));
  s.pen(colour, 2.2, up ? Qt::SolidLine : Qt::DashLine);
  p.drawPolyline(path(&sequence::Bar::nominal_end, &sequence::Bar::nominal_end));
  p.setFont(text_font(8, true));
  p.setPen(colour);
  p.drawText(QPointF(box_.left() + (up ? 0.1 : 0.55) * box_.width(), box_.top() - 4 * s.unit()),
             up ? QObject::tr("going up") : QObject::tr("going down"));
}

void InterlockPane::draw_following(Sheet& s, const std::vector<double>& openings, double full_open) {
  QPolygonF way;
  const auto count = static_cast<double>(openings.size() - 1);
  for (size_t i = 0; i < openings.size(); ++i)
    if (std::isfinite(openings[i])) way << at(static_cast<double>(i) / count, openings[i] / full_open);
  QPainter& p = s.painter();
  s.pen(Ink::accent, 2.2);
  p.setBrush(Qt::NoBrush);
  p.drawPolyline(way);
  p.setPen(Theme::now().accent);
  p.setFont(text_font(8, true));
  p.drawText(QPointF(box_.left(), box_.top() - 4 * s.unit()), QObject::tr("follows its leg"));
}

}  // namespace kranich::app
