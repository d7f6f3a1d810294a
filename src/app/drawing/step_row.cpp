// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawing/step_row.h"

#include "app/theme.h"

namespace kranich::app {

QColor state_colour(tasks::State state) {
  const Theme& t = Theme::now();
  switch (state) {
    case tasks::State::done:
    case tasks::State::given:
      return t.holds;
    case tasks::State::off:
    case tasks::State::again:
      return t.fails;
    case tasks::State::tried:
      return t.tight;
    case tasks::State::open:
      return t.accent;
    case tasks::State::waits:
    case tasks::State::aside:
    case tasks::State::standing:
      return t.grey;
  }
  return t.grey;
}

void draw_state(QPainter& p, const QPointF& c, double size, tasks::State state) {
  const double r = size / 2;
  const QColor colour = state_colour(state);
  p.save();
  p.setPen(QPen(colour, 1.4));
  p.setBrush(Qt::NoBrush);
  const QRectF box(c.x() - r, c.y() - r, 2 * r, 2 * r);
  const auto tick = [&] {
    p.drawPolyline(QPolygonF{QPointF(c.x() - 0.55 * r, c.y()), QPointF(c.x() - 0.1 * r, c.y() + 0.5 * r),
                             QPointF(c.x() + 0.7 * r, c.y() - 0.6 * r)});
  };
  switch (state) {
    case tasks::State::open:
      p.drawRect(box);
      break;
    case tasks::State::waits:
      p.setPen(QPen(colour, 1.1, Qt::DotLine));
      p.drawRect(box);
      break;
    case tasks::State::done:
    case tasks::State::given:
      p.drawRect(box);
      tick();
      break;
    case tasks::State::off:
      p.drawRect(box);
      tick();
      p.drawLine(QPointF(c.x() + r + 2, c.y() - r), QPointF(c.x() + r + 2, c.y() + 0.3 * r));
      p.drawPoint(QPointF(c.x() + r + 2, c.y() + r));
      break;
    case tasks::State::again:
      p.drawArc(box, 40 * 16, 290 * 16);
      p.drawLine(QPointF(c.x() + r * 0.75, c.y() - r * 0.7), QPointF(c.x() + r * 0.75, c.y() - r * 0.05));
      p.drawLine(QPointF(c.x() + r * 0.75, c.y() - r * 0.7), QPointF(c.x() + r * 0.15, c.y() - r * 0.6));
      break;
    case tasks::State::tried:
      p.drawRect(box);
      p.drawLine(box.bottomLeft(), box.topRight());
      break;
    case tasks::State::aside:
      p.drawRect(box);
      p.drawLine(QPointF(c.x() - 0.6 * r, c.y()), QPointF(c.x() + 0.6 * r, c.y()));
      break;
    case tasks::State::standing:
      p.drawEllipse(c, r * 0.8, r * 0.8);
      break;
  }
  p.restore();
}

void draw_step_lines(QPainter& p, const QRectF& area, double points, const QString& piece,
                     const QString& text, const QColor& ink) {
  double x = 0;
  if (!piece.isEmpty()) {
    p.setFont(text_font(points, true));
    p.setPen(Theme::now().ink);
    const QFontMetrics bold = p.fontMetrics();
    const QString fits = bold.elidedText(piece, Qt::ElideRight, static_cast<int>(area.width() * 0.55));
    p.drawText(QPointF(area.left(), area.top() + bold.ascent()), fits);
    x = bold.horizontalAdvance(fits) + 7;
  }
  p.setFont(text_font(points));
  p.setPen(ink);
  const QFontMetrics m = p.fontMetrics();
  QString first;
  for (const QString& word : text.split(' ')) {
    const QString more = first.isEmpty() ? word : first + ' ' + word;
    if (m.horizontalAdvance(more) > area.width() - x) break;
    first = more;
  }
  p.drawText(QPointF(area.left() + x, area.top() + m.ascent()), first);
  p.drawText(QPointF(area.left(), area.top() + m.lineSpacing() + m.ascent()),
             m.elidedText(text.mid(first.size()).trimmed(), Qt::ElideRight, static_cast<int>(area.width())));
}

}  // namespace kranich::app
