// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawing/bench_panes.h"

#include <algorithm>
#include <cmath>

#include "app/drawing/diagram.h"
#include "app/theme.h"

namespace kranich::app {

void ScatterPane::draw(Sheet& s) {
  const QRectF area = s.frame().device();
  s.card(area);
  if (!result) {
    s.painter().setPen(Theme::now().grey);
    s.painter().drawText(area, Qt::AlignCenter | Qt::TextWordWrap,
                         QObject::tr("“Try the drops” simulates them"));
    return;
  }
  const double h = area.height() / 2;
  draw_bars(s, {area.left(), area.top(), area.width(), h},
            QObject::tr("Ground load factor N: how many drops"), result->load_factor, Kind::factor,
            factor_allowed, QObject::tr("aimed at"));
  draw_bars(s, {area.left(), area.top() + h, area.width(), h}, QObject::tr("Stroke used"), result->stroke,
            Kind::length, travel, QObject::tr("the stop"));
}

void ScatterPane::draw_bars(Sheet& s, const QRectF& area, const QString& title,
                            const std::vector<double>& sorted, Kind kind, double limit,
                            const QString& limit_text) const {
  const Theme& t = Theme::now();
  // A landing that ends without a number is in no bar.
  std::vector<double> finite;
  for (const double v : sorted)
    if (std::isfinite(v)) finite.push_back(v);
  if (finite.empty() || !(finite.back() > finite.front())) {
    s.painter().setPen(t.grey);
    s.painter().drawText(
        area, Qt::AlignCenter | Qt::TextWordWrap,
        finite.empty()
            ? QObject::tr("%1: none of the landings ends with a number").arg(title)
            : QObject::tr("%1: all drops alike, %2").arg(title, document_.say(finite.front(), kind)));
    return;
  }
  const double low = std::min(finite.front(), limit > 0 ? limit : finite.front());
  const double high = std::fmax(finite.back(), limit) * 1.02;
  constexpr int bins = 48;
  std::vector<int> counts(bins, 0);
  for (const double v : finite)
    ++counts[static_cast<size_t>(std::clamp(static_cast<int>((v - low) / (high - low) * bins), 0, bins - 1))];
  const int most = *std::max_element(counts.begin(), counts.end());
  QPainter& p = s.painter();
  const QRectF box = area.adjusted(24, 26, -16, -34);
  const auto x = [&](double v) { return box.left() + (v - low) / (high - low) * box.width(); };
  p.setFont(text_font(8.5, true));
  p.setPen(t.ink);
  p.drawText(area.topLeft() + QPointF(8, 16), title);
  for (int i = 0; i < bins; ++i) {
    const double from = low + (high - low) * i / bins;
    const double to = low + (high - low) * (i + 1) / bins;
    const bool beyond = limit > 0 && from >= limit;
    QColor c = beyond ? t.fails : t.accent;
    c.setAlpha(150);
    const double bar = box.height() * counts[static_cast<size_t>(i)] / std::max(1, most);
    p.fillRect(QRectF(x(from) + 0.5, box.bottom() - bar, x(to) - x(from) - 1, bar), c);
    if (beyond && bar > 3) {  // not by colour alone
      p.fillRect(QRectF(x(from) + 0.5, box.bottom() - bar, x(to) - x(from) - 1, bar),
                 QBrush(t.fails, Qt::BDiagPattern));
    }
  }
  s.pen(t.ink, 1);
  p.drawLine(box.bottomLeft(), box.bottomRight());
  p.setFont(text_font(8));
  const auto mark = [&](double v, const QString& text, const QColor& colour, double row) {
    p.setPen(QPen(colour, 1.3));
    p.drawLine(QPointF(x(v), box.top()), QPointF(x(v), box.bottom() + 4));
    p.drawText(QRectF(x(v) - 90, box.bottom() + 4 + row, 180, 14), Qt::AlignHCenter | Qt::AlignTop, text);
  };
  using Result = spring::ScatterResult;
  mark(Result::below(finite, 0.5),
       QObject::tr("half below %1").arg(document_.say(Result::below(finite, 0.5), kind)), t.ink, 0);
  mark(Result::below(finite, 0.95),
       QObject::tr("19 of 20 below %1").arg(document_.say(Result::below(finite, 0.95), kind)), t.grey, 13);
  if (limit > 0) {
    p.setPen(QPen(t.fails, 1.6, Qt::DashLine));
    p.drawLine(QPointF(x(limit), box.top() - 4), QPointF(x(limit), box.bottom()));
    p.setPen(t.fails);
    p.drawText(QRectF(x(limit) - 120, box.top() - 14, 116, 12), Qt::AlignRight | Qt::AlignVCenter,
               QStringLiteral("%1 %2").arg(limit_text, document_.say(limit, kind)));
  }
}

void RigPane::draw(Sheet& s) {
  const QRectF area = s.frame().device();
  s.card(area);
  if (recorded.empty()) {
    draw_readings(s, area);
    return;
  }
  const double h = area.height() / 2;
  draw_record(s, {area.left(), area.top(), area.width(), h},
              QObject::tr("Acceleration, recorded; dashed: foretold"), Kind::in_g,
              &spring::RigSample::acceleration, standard_gravity);
  draw_record(s, {area.left(), area.top() + h, area.width(), h}, QObject::tr("Stroke"), Kind::length,
              &spring::RigSample::stroke, display_unit(Kind::length, document_.units()).to_si);
}

void RigPane::draw_record(Sheet& s, const QRectF& area, const QString& title, Kind kind,
                          double spring::RigSample::*of, double unit) const {
  Diagram g;
  g.title = title;
  g.x_title = QObject::tr("s since the release");
  g.y_title = document_.unit(kind);
  g.y_factor = 1 / unit;
  for (const auto& x : recorded) g.curve.push_back({x.t, x.*of});
  for (const auto& x : foretold) g.second.push_back({x.t, x.*of});
  if (!fitted.empty()) {
    g.more.push_back({{}, QObject::tr("with what fits"), Theme::now().accent});
    for (const auto& x : fitted) g.more.back().points.push_back({x.t, x.*of});
  }
  g.fit();
  g.draw(s, area);
}

void RigPane::draw_readings(Sheet& s, const QRectF& area) const {
  const auto& readings = document_.design().spring_bench.readings;
  Diagram g;
  g.title = QObject::tr("On the scales: load against closure; dashed: the line that fits");
  g.x_title = document_.unit(Kind::length);
  g.y_title = document_.unit(Kind::force);
  g.x_factor = 1 / display_unit(Kind::length, document_.units()).to_si;
  g.y_factor = 1 / display_unit(Kind::force, document_.units()).to_si;
  for (const auto& r : readings)
    if (r.leg == leg && r.load.known() && r.closure.known()) {
      g.curve.push_back({r.closure, r.load});
      g.marks.push_back({{r.closure, r.load}, QString(), r.unloading ? Ink::tight : Ink::accent});
    }
  if (g.curve.empty()) {
    s.painter().setPen(Theme::now().grey);
    s.painter().drawText(
        area, Qt::AlignCenter | Qt::TextWordWrap,
        QObject::tr(
            "nothing recorded of this leg yet: type loads and closures below, or drop it on the rig"));
    return;
  }
  const auto fit = spring::fit_readings(readings, leg);
  if (const auto* f = std::get_if<spring::LoadFit>(&fit)) {
    double most = 0;
    for (const auto& q : g.curve) most = std::max(most, q.x());
    g.second = {{0, f->preload}, {most, f->preload + f->rate * most}};
  }
  g.x_low = 0;
  g.fit();
  g.x_low = 0;
  for (const auto& q : g.curve) g.x_high = std::max(g.x_high, q.x() * 1.05);
  g.draw(s, area);
}

}  // namespace kranich::app
