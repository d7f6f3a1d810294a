// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawing/work_panes.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "app/document/journal.h"
#include "app/drawing/diagram.h"
#include "app/drawing/step_row.h"
#include "app/theme.h"
#include "app/tongue.h"
#include "app/widgets/findings.h"
#include "core/tasks/rows.h"
#include "core/tasks/words.h"

namespace kranich::app {

void LadderPane::draw(Sheet& s) {
  start(s);
  QPainter& p = s.painter();
  const Theme& t = Theme::now();
  Journal& journal = document_.journal();
  const auto& progress = journal.progress();
  s.card(area_);
  const QRectF inside = area_.adjusted(16, 12, -16, -12);
  const double row = (inside.height() - 34) / 8;
  const double rail = inside.left() + 20, other = rail + 96;
  // What is proved, over the topmost rung.
  p.setFont(text_font(9, true));
  p.setPen(t.ink);
  p.drawText(QRectF(inside.left(), inside.top(), inside.width(), 16), Qt::AlignLeft,
             QObject::tr("Ladder of tests: each rung asks the one below it"));
  double x = inside.left();
  p.setFont(text_font(8.5));
  for (const auto& proof : progress.proofs) {
    const QString legs = sentence_of(proof.words, document_.units());
    const QString said = proof.flight  ? QObject::tr("%1: flight-proved").arg(legs)
                         : proof.bench ? QObject::tr("%1: bench-proved").arg(legs)
                                       : QObject::tr("%1: not proved yet").arg(legs);
    p.setPen(proof.flight || proof.bench ? t.holds : t.grey);
    const double width = p.fontMetrics().horizontalAdvance(said) + 18;
    p.drawText(QRectF(x, inside.top() + 16, width, 16), Qt::AlignLeft, said);
    x += width;
  }
  // A column for each leg where it stands; what is for the aircraft stands in the first.
  const double start_x = other + 182;
  std::vector<tasks::Piece> legs = tasks::pieces_of(document_.design(), tasks::Per::leg);
  const double first = start_x + 112;
  const double column = std::clamp(
      (inside.right() - first) / std::max<double>(1, static_cast<double>(legs.size())), 24.0, 92.0);
  const auto column_of = [&](const tasks::Piece& piece) {
    for (size_t k = 0; k < legs.size(); ++k)
      if (!piece.leg.empty() && legs[k].leg == piece.leg &&
          (legs[k].port == piece.port || piece.key.ends_with(":type") || !piece.has_twin))
        return first + column * static_cast<double>(k);
    return first;
  };
  p.setFont(text_font(7.5));
  p.setPen(t.grey);
  for (size_t k = 0; k < legs.size(); ++k)
    p.drawText(QRectF(first + column * static_cast<double>(k) - 10, inside.top() - 8, column - 2, 44),
               Qt::AlignLeft | Qt::AlignBottom | Qt::TextWordWrap, text_of(legs[k].words, document_.units()));
  p.setPen(QPen(t.ink, 3, Qt::SolidLine, Qt::RoundCap));
  const double top = inside.top() + 38, bottom = inside.bottom();
  p.drawLine(QPointF(rail, top), QPointF(rail, bottom));
  p.drawLine(QPointF(other, top), QPointF(other, bottom));
  for (const auto& rung : progress.ladder) {
    const double y = bottom - row * (rung.number - 0.5);
    bool passed = !rung.boxes.empty(), broken = false, begun = false;
    for (const size_t i : rung.boxes) {
      const auto& b = progress.boxes[i];
      passed = passed && b.passed();
      broken = broken || b.state == tasks::State::off || b.state == tasks::State::again;
      begun = begun || b.last;
    }
    const bool applies = !rung.boxes.empty();
    const QColor colour = !applies ? t.faint : passed ? t.holds : broken ? t.fails : begun ? t.tight : t.ink;
    p.setPen(QPen(colour, applies ? 3 : 1, applies && (passed || begun) ? Qt::SolidLine : Qt::DashLine));
    p.drawLine(QPointF(rail, y), QPointF(other, y));
    p.setFont(text_font(11, true));
    p.setPen(colour);
    p.drawText(QRectF(rail, y - 22, other - rail, 20), Qt::AlignCenter, QString::number(rung.number));
    const auto& words = tasks::rung_words(rung.number);
    p.setFont(text_font(9, true));
    p.setPen(applies ? t.ink : t.grey);
    const double left = other + 16;
    p.drawText(QRectF(left, y - row / 2 + 2, 150, 16), Qt::AlignLeft, QObject::tr(words.title));
    p.setFont(text_font(7.5));
    p.setPen(t.grey);
    const QString below =
        applies ? QObject::tr("stop at: %1").arg(QObject::tr(words.stop)) : QObject::tr("does not apply");
    if (row >= 46)
      p.drawText(QRectF(left, y - row / 2 + 18, 152, row - 18), Qt::AlignLeft | Qt::TextWordWrap, below);
    else
      p.drawText(QRectF(left, y - row / 2 + 17, 152, 13), Qt::AlignLeft | Qt::AlignVCenter,
                 p.fontMetrics().elidedText(below, Qt::ElideRight, 152));
    // What stands on it: one line a step, a box for each leg in its column.
    std::map<const tasks::Task*, std::vector<const tasks::Box*>> by_task;
    std::vector<const tasks::Task*> order;
    for (const size_t i : rung.boxes) {
      const auto& b = progress.boxes[i];
      if (!by_task.count(b.task)) order.push_back(b.task);
      by_task[b.task].push_back(&b);
    }
    const auto most = static_cast<size_t>(std::max(1.0, (row - 2) / 11));
    const size_t shown = order.size() <= most ? order.size() : std::max<size_t>(1, most - 1);
    const size_t lines = shown < order.size() ? shown + 1 : shown;
    const double line = std::min(17.0, (row - 2) / std::max<double>(1, static_cast<double>(lines)));
    double ty = y - line * static_cast<double>(lines) / 2;
    p.setFont(text_font(8));
    for (size_t k = 0; k < shown; ++k, ty += line) {
      p.setPen(t.ink);
      p.drawText(QRectF(start_x, ty, 98, line), Qt::AlignLeft | Qt::AlignVCenter,
                 p.fontMetrics().elidedText(text_of(order[k]->name()), Qt::ElideRight, 96));
      for (const auto* box : by_task[order[k]]) {
        const double bx = column_of(box->piece);
        draw_state(p, {bx, ty + line / 2}, std::min(10.0, line - 3), box->state);
        spot(QStringLiteral("rung:%1|%2").arg(text_of(box->task->id), text_of(box->piece.key)),
             QRectF(bx - 10, ty, 20, line),
             [&journal, id = box->task->id, key = box->piece.key] { journal.choose(id, key); });
      }
    }
    if (shown < order.size()) {
      p.setPen(t.grey);
      p.drawText(QRectF(start_x, ty, 98, line), Qt::AlignLeft | Qt::AlignVCenter,
                 QObject::tr("and %1 more").arg(order.size() - shown));
    }
  }
}

QString ReadingsPane::said() const {
  Journal& journal = document_.journal();
  const auto* of = journal.table().find(task);
  if (!of) return {};
  QStringList words;
  for (size_t i = 0; i < of->readings.size(); ++i) {
    const auto row = tasks::row_of(journal.history(), *of, piece, i);
    const auto& unit = of->readings[i].unit;
    const auto say = [&](double si) { return text_of(tasks::amount_of(si, unit), document_.units()); };
    // A rate is small beside what drifts: two figures of it, in the reading's unit.
    const auto rate = [&](double si) {
      if (!unit.kind) return with_decimal_mark(QString::number(si, 'g', 2));
      const auto& shown = display_unit(*unit.kind, document_.units());
      return QStringLiteral("%1 %2").arg(with_decimal_mark(QString::number(si / shown.to_si, 'g', 2)),
                                         text_of(shown.symbol));
    };
    const QString name = text_of(of->readings[i].name),
                  step = row.by_landings ? QObject::tr("landing") : QObject::tr("day");
    if (row.jump) words << QObject::tr("%1 jumped by %2 since the reading before.").arg(name, say(*row.jump));
    if (row.drift) {
      QString said = QObject::tr("%1 drifts by %2 a %3 (± %4)")
                         .arg(name, rate(row.drift->slope), step, rate(row.drift->error));
      if (std::isfinite(row.drift->out_in))
        said += QObject::tr(", out of tolerance in about %1").arg(std::lround(row.drift->out_in));
      words << said + ".";
    }
    if (row.three_to_a_side)
      words << QObject::tr(
                   "%1: three readings off to the same side. Look at the design, not at the part: its "
                   "numbers may be "
                   "fitted to what was read (Bench of Spring, times in Swing).")
                   .arg(name);
    if (const auto* box = journal.progress().find(task, piece); box && box->piece.has_twin) {
      const auto sides = tasks::difference_row(journal.history(), *of, box->piece, i);
      if (sides.drift)
        words << QObject::tr("Left and right drift apart in %1 by %2 a %3.")
                     .arg(name, rate(sides.drift->slope), step);
    }
  }
  return words.join(' ');
}

void ReadingsPane::draw(Sheet& s) {
  QPainter& p = s.painter();
  const Theme& t = Theme::now();
  const QRectF area = s.frame().device();
  s.card(area);
  Journal& journal = document_.journal();
  const auto* of = journal.table().find(task);
  struct Shown {
    const tasks::Reading* reading;
    tasks::ReadingRow row;
  };
  std::vector<Shown> shown;
  if (of)
    for (size_t i = 0; i < of->readings.size(); ++i)
      if (auto row = tasks::row_of(journal.history(), *of, piece, i); !row.points.empty())
        shown.push_back({&of->readings[i], std::move(row)});
  p.setFont(text_font(9, true));
  p.setPen(t.ink);
  const QRectF inside = area.adjusted(14, 8, -14, -8);
  p.drawText(QRectF(inside.left(), inside.top(), inside.width(), 16), Qt::AlignLeft,
             QObject::tr("Readings of the chosen step"));
  if (shown.empty()) {
    p.setFont(text_font(8.5));
    p.setPen(t.grey);
    p.drawText(
        inside, Qt::AlignCenter | Qt::TextWordWrap,
        of ? QObject::tr("Nothing read yet. Each reading is kept with what the design foretold of it then.")
           : QObject::tr("Choose a step to see its readings in a row."));
    return;
  }
  const QString words = said();
  const double foot = words.isEmpty() ? 0 : 30;
  const size_t count = std::min<size_t>(shown.size(), 3);
  const double width = inside.width() / static_cast<double>(count);
  for (size_t i = 0; i < count; ++i) {
    const auto& [reading, row] = shown[i];
    const QRectF plot(inside.left() + width * static_cast<double>(i) + 62, inside.top() + 36, width - 78,
                      inside.height() - 58 - foot);
    double low = 1e300, high = -1e300;
    for (const auto& x : row.points)
      for (const double v : {x.value, x.foretold, x.lower, x.upper})
        if (std::isfinite(v)) {
          low = std::min(low, v);
          high = std::max(high, v);
        }
    const double air = std::max(1e-9, (high - low) * 0.15 + std::abs(high) * 1e-3);
    low -= air;
    high += air;
    const double from = row.points.front().at, to = std::max(from + 1, row.points.back().at);
    const auto at = [&](double x, double y) {
      return QPointF(plot.left() + (x - from) / (to - from) * plot.width(),
                     plot.bottom() - (y - low) / (high - low) * plot.height());
    };
    const auto say = [&](double si) {
      return text_of(tasks::amount_of(si, shown[i].reading->unit), document_.units());
    };
    // The tolerance as it was at each reading, a band from one to the next.
    p.setPen(Qt::NoPen);
    p.setBrush(t.band);
    for (size_t k = 0; k < row.points.size(); ++k) {
      const auto& x = row.points[k];
      const double lower = std::isfinite(x.lower) ? x.lower : low,
                   upper = std::isfinite(x.upper) ? x.upper : high;
      if (!std::isfinite(x.lower) && !std::isfinite(x.upper)) continue;
      const double next = k + 1 < row.points.size() ? row.points[k + 1].at : to;
      p.drawRect(QRectF(at(x.at, std::min(upper, high)), at(next, std::max(lower, low))));
    }
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.line, 1));
    p.drawRect(plot);
    p.setPen(QPen(t.grey, 1, Qt::DashLine));
    QPolygonF foretold;
    for (const auto& x : row.points)
      if (std::isfinite(x.foretold)) foretold << at(x.at, x.foretold);
    if (foretold.size() == 1) foretold << QPointF(plot.right(), foretold[0].y());
    p.drawPolyline(foretold);
    if (row.drift) {
      const auto& last = row.points.back();
      p.setPen(QPen(t.fails, 1.2));
      p.drawLine(at(from, last.value - row.drift->slope * (last.at - from)), at(to, last.value));
    }
    for (const auto& x : row.points) {
      const bool outside = x.value < x.lower || x.value > x.upper;
      p.setPen(QPen(outside ? t.fails : t.accent, 1.4));
      p.setBrush(outside ? t.fails : t.accent);
      p.drawEllipse(at(x.at, x.value), 3.2, 3.2);
    }
    p.setBrush(Qt::NoBrush);
    p.setFont(text_font(7.5));
    p.setPen(t.ink);
    p.drawText(
        QRectF(plot.left() - 40, plot.top() - 18, plot.width() + 50, 14), Qt::AlignLeft,
        p.fontMetrics().elidedText(
            QObject::tr("%1, last %2").arg(capitalised(text_of(reading->name)), say(row.points.back().value)),
            Qt::ElideRight, static_cast<int>(plot.width() + 48)));
    p.setPen(t.grey);
    p.drawText(QRectF(plot.left() - 66, plot.top() - 6, 62, 12), Qt::AlignRight, say(high));
    p.drawText(QRectF(plot.left() - 66, plot.bottom() - 7, 62, 12), Qt::AlignRight, say(low));
    p.drawText(QRectF(plot.left(), plot.bottom() + 3, plot.width(), 12), Qt::AlignLeft,
               text_of(row.points.front().day));
    p.drawText(QRectF(plot.left(), plot.bottom() + 3, plot.width(), 12), Qt::AlignRight,
               row.by_landings ? QObject::tr("%1 landings").arg(to) : text_of(row.points.back().day));
  }
  if (!words.isEmpty()) {
    p.setFont(text_font(8.5));
    p.setPen(t.fails);
    p.drawText(QRectF(inside.left(), inside.bottom() - foot, inside.width(), foot),
               Qt::AlignLeft | Qt::TextWordWrap, words);
  }
}

}  // namespace kranich::app
