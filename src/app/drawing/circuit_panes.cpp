// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawing/circuit_panes.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "app/drawing/air_panes.h"
#include "app/drawing/diagram.h"
#include "app/widgets/findings.h"

namespace kranich::app {
namespace {

const CircuitState* shown(const Document& document) { return document.assessment().circuit.get(); }

}  // namespace

//! From no pressure to the highest that is known: from the paper's rule to the accent.
QColor lit(double pressure, double highest) {
  const Theme& t = Theme::now();
  const double share = highest > 0 ? std::clamp(pressure / highest, 0.0, 1.0) : 0;
  const QColor& cold = t.faint;
  const QColor& warm = t.accent;
  const auto mix = [&](int a, int b) { return static_cast<int>(a + share * (b - a)); };
  return {mix(cold.red(), warm.red()), mix(cold.green(), warm.green()), mix(cold.blue(), warm.blue())};
}

void line_of_words(QPainter& p, const QRectF& at, const QString& text, const QColor& colour,
                   Qt::Alignment align, double points, bool bold) {
  p.setFont(text_font(points, bold));
  p.setPen(colour);
  p.drawText(at, static_cast<int>(align), p.fontMetrics().elidedText(text, Qt::ElideRight, int(at.width())));
}

const CircuitState::Together* shown_together(const Document& document, const CircuitView& view) {
  const CircuitState* c = shown(document);
  const auto index = view.up ? 0 : 1;
  return c && c->together[index] ? &*c->together[index] : nullptr;
}

void draw_cylinder(QPainter& p, const QRectF& at, double piston, const QColor& above, const QColor& below) {
  const Theme& t = Theme::now();
  p.fillRect(QRectF(at.left(), at.top(), at.width(), piston - at.top()), above);
  p.fillRect(QRectF(at.left(), piston, at.width(), at.bottom() - piston), below);
  p.setPen(QPen(t.ink, 1.6));
  p.setBrush(Qt::NoBrush);
  p.drawRect(at);
  p.setBrush(t.paper);
  p.drawRect(QRectF(at.left(), piston - 4, at.width(), 8));
  p.drawRect(QRectF(at.center().x() - 3, at.top() - 20, 6, piston - 4 - at.top() + 20));
}

double shown_length(const Document& document, const CircuitView& view) {
  if (const auto* together = shown_together(document, view)) return together->run.length();
  const AirState* air = shown_air(document);
  double longest = 0;
  if (air)
    for (const auto& f : air->followed)
      if (f.up == view.up && std::isfinite(f.slow.time)) longest = std::max(longest, f.slow.time);
  return longest;
}

void CircuitPane::draw(Sheet& s) {
  if (shown_air(document_)) return draw_air_circuit(s, document_, view_);
  const QRectF area = s.frame().device();
  QPainter& p = s.painter();
  const Theme& t = Theme::now();
  const CircuitState* c = shown(document_);
  line_of_words(p, {area.left(), area.top(), area.width(), 16},
                view_.dumped ? QObject::tr("Dump valve open: both sides joined to the tank")
                : view_.up   ? QObject::tr("Going up: pump forward")
                             : QObject::tr("Going down: pump backward"),
                t.grey, Qt::AlignLeft, 9, true);
  const auto* together = shown_together(document_, view_);
  if (!together) {
    line_of_words(p, area, QObject::tr("no gear on oil or air is known here"), t.grey, Qt::AlignCenter, 9);
    return;
  }
  const Hydraulics& h = document_.design().circuit.hydraulics;
  CircuitNow now = circuit_at(*c, view_.up, view_.time);
  if (view_.dumped) now.pump = now.back = 0;
  const double highest =
      std::max({h.cut_out.known() ? h.cut_out.si : 0.0, together->run.peak_pressure, now.pump, now.back});
  const double supply_y = area.top() + 54;
  const double return_y = area.top() + 84;
  const QColor up_line = lit(view_.up ? now.pump : now.back, highest);
  const QColor down_line = lit(view_.up ? now.back : now.pump, highest);
  // Pump and tank to the left, legs to the right, a column each.
  const double left = area.left() + 96;
  const QRectF tank(area.left() + 6, area.bottom() - 46, 64, 34);
  const QPointF pump(area.left() + 38, area.top() + 69);
  const size_t n = now.places.size();
  const double column = (area.right() - left - 150) / static_cast<double>(std::max<size_t>(n, 1));
  p.setPen(QPen(up_line, 4));
  p.drawLine(QPointF(pump.x() + 20, supply_y),
             QPointF(left + column * (static_cast<double>(n) - 0.5) - 14, supply_y));
  p.setPen(QPen(down_line, 4));
  p.drawLine(QPointF(pump.x() + 20, return_y),
             QPointF(left + column * (static_cast<double>(n) - 0.5) + 14, return_y));
  line_of_words(p, {left + 14, supply_y - 18, 90, 14}, QObject::tr("up side"), t.grey, Qt::AlignLeft);
  line_of_words(p, {left + 14, return_y + 5, 60, 14}, QObject::tr("down side"), t.grey, Qt::AlignLeft);
  p.setPen(QPen(t.ink, 1.6));
  p.setBrush(t.paper);
  p.drawEllipse(pump, 24, 24);
  const double turn = view_.dumped || now.arrived ? 0 : view_.up ? 1 : -1;
  if (turn != 0) {
    p.setBrush(t.ink);
    p.drawPolygon(QPolygonF{pump + QPointF(8, -turn * 15 - 6), pump + QPointF(20, -turn * 15),
                            pump + QPointF(8, -turn * 15 + 6)});
  }
  line_of_words(p, {pump.x() + 6, pump.y() + 32, 80, 14},
                now.arrived ? QObject::tr("pump, off") : QObject::tr("pump"), t.ink, Qt::AlignLeft);
  p.setPen(QPen(t.ink, 1.4));
  p.setBrush(t.desk);
  p.drawRect(tank);
  line_of_words(p, tank, QObject::tr("tank"), t.ink, Qt::AlignCenter);
  p.setPen(QPen(t.faint, 3));
  p.drawLine(QPointF(pump.x(), pump.y() + 40), QPointF(pump.x(), tank.top()));
  if (view_.dumped) {
    p.setPen(QPen(t.accent, 3, Qt::DashLine));
    p.drawLine(QPointF(left - 26, supply_y), QPointF(left - 26, tank.center().y()));
    p.drawLine(QPointF(left - 26, tank.center().y()), QPointF(tank.right(), tank.center().y()));
    line_of_words(p, {left - 20, tank.center().y() - 22, 120, 14}, QObject::tr("dump valve"), t.accent,
                  Qt::AlignLeft, 8, true);
  }
  // Throttle of this way, drawn where it sits.
  const Throttle& throttle = view_.up ? h.up : h.down;
  if (throttle.at != ThrottleAt::none) {
    const bool on_up = (throttle.at == ThrottleAt::supply_side) == view_.up;
    const QPointF at_line(left - 8, on_up ? supply_y : return_y);
    p.setPen(QPen(t.ink, 1.4));
    p.setBrush(t.paper);
    p.drawPolygon(QPolygonF{at_line + QPointF(-8, -7), at_line + QPointF(8, 7), at_line + QPointF(8, -7),
                            at_line + QPointF(-8, 7)});
    line_of_words(p, {at_line.x() - 10, at_line.y() - 22, 60, 14},
                  throttle.bore.known() ? document_.say(throttle.bore, Kind::bore) : QString(), t.ink,
                  Qt::AlignLeft, 8);
  }
  for (size_t i = 0; i < n; ++i) {
    const double x = left + column * (static_cast<double>(i) + 0.5);
    const double top = return_y + 44;
    const double bottom = std::max(top + 60, area.bottom() - 44);
    const double share = std::clamp(now.places[i], 0.0, 1.0);
    const double piston =
        view_.up ? bottom - 12 - share * (bottom - top - 30) : top + 18 + share * (bottom - top - 30);
    p.setPen(QPen(up_line, 3));
    p.drawLine(QPointF(x - 14, supply_y), QPointF(x - 14, bottom));
    p.setPen(QPen(down_line, 3));
    p.drawLine(QPointF(x + 14, return_y), QPointF(x + 14, top));
    // Going up the oil comes in below the piston, as it is drawn.
    draw_cylinder(p, {x - 14, top, 28, bottom - top}, piston, down_line, up_line);
    line_of_words(p, {x - column / 2, bottom + 4, column, 14}, text_of(together->words[i], document_.units()),
                  t.ink, Qt::AlignHCenter, 8);
    line_of_words(p, {x - column / 2, bottom + 18, column, 14},
                  document_.say(view_.up ? share : 1 - share, Kind::share) + QObject::tr(" up"), t.grey,
                  Qt::AlignHCenter, 8);
  }
  // Gauges: both sides, always in sight.
  const auto gauge = [&](const QPointF& centre, const QString& title, double value) {
    p.setPen(QPen(t.ink, 1.4));
    p.setBrush(t.paper);
    p.drawEllipse(centre, 26, 26);
    const double angle =
        std::numbers::pi * (1.25 - 1.5 * (highest > 0 ? std::clamp(value / highest, 0.0, 1.0) : 0));
    p.setPen(QPen(t.accent, 2.4));
    p.drawLine(centre, centre + QPointF(20 * std::cos(angle), -20 * std::sin(angle)));
    line_of_words(p, {centre.x() - 66, centre.y() + 28, 132, 14}, title, t.grey, Qt::AlignHCenter);
    line_of_words(p, {centre.x() - 66, centre.y() + 42, 132, 14}, document_.say(value, Kind::pressure), t.ink,
                  Qt::AlignHCenter, 8.5, true);
  };
  gauge({area.right() - 66, area.top() + 46}, QObject::tr("up side"), view_.up ? now.pump : now.back);
  gauge({area.right() - 66, area.top() + 140}, QObject::tr("down side"), view_.up ? now.back : now.pump);
  line_of_words(p, {area.right() - 132, area.bottom() - 30, 132, 14},
                QObject::tr("%1 after the start").arg(document_.say(view_.time, Kind::time)), t.grey,
                Qt::AlignHCenter);
}

void CylinderPane::draw(Sheet& s) {
  if (shown_air(document_)) return draw_air_cylinder(s, document_, view_);
  const CircuitState* c = shown(document_);
  Diagram g;
  const Unit& unit = display_unit(Kind::pressure, document_.units());
  const Leg* leg = document_.design().gear.find(view_.leg);
  g.title = QObject::tr("%1, %2: pressure over the stroke")
                .arg(leg ? text_of(document_.design().legs_word(*leg), document_.units()) : QString(),
                     view_.up ? QObject::tr("going up") : QObject::tr("going down"));
  g.x_title = QObject::tr("stroke, %");
  g.y_title = QString::fromUtf8(unit.symbol.data(), static_cast<int>(unit.symbol.size()));
  g.x_factor = 100;
  g.y_factor = 1 / unit.to_si;
  const CylinderWay* way = nullptr;
  if (c)
    for (const auto& w : c->ways)
      if (w.leg == view_.leg && w.up == view_.up && (!way || w.full.peak_pressure > way->full.peak_pressure))
        way = &w;
  if (!way) return;
  for (int i = 0; i <= 100; ++i) {
    const auto point = circuit::at_share(way->stroke, i / 100.0);
    g.curve.push_back({i / 100.0, point.pressure});
    g.second.push_back({i / 100.0, point.return_pressure});
  }
  g.fit();
  for (const auto& q : g.second) g.y_high = std::max(g.y_high, q.y() * 1.08);
  const Hydraulics& h = document_.design().circuit.hydraulics;
  if (h.cut_out.known()) {
    g.y_high = std::max(g.y_high, 1.1 * h.cut_out);
    g.band_low = h.cut_out;
    g.band_high = g.y_high;
    g.marks.push_back({{0.02, h.cut_out}, QObject::tr("cut-out"), Ink::fails});
  }
  if (h.rated.known() && h.rated < 2 * g.y_high) {
    g.y_high = std::max(g.y_high, 1.08 * h.rated);
    g.marks.push_back({{0.5, h.rated}, QObject::tr("rated"), Ink::fails});
    if (g.band_high > g.band_low) g.band_high = g.y_high;
  }
  g.marks.push_back({g.curve[50], QObject::tr("at the pump"), Ink::accent});
  g.marks.push_back({g.second[75], QObject::tr("in the return"), Ink::grey});
  g.draw(s, s.frame().device());
}

void LegsPane::draw(Sheet& s) {
  if (shown_air(document_)) return draw_air_legs(s, document_, view_);
  const auto* together = shown_together(document_, view_);
  if (!together || together->run.samples.size() < 2) return;
  const circuit::TeeRun& run = together->run;
  Diagram g;
  g.title = QObject::tr("Legs over time");
  g.x_title = QObject::tr("time, s");
  g.y_title = QObject::tr("stroke, %");
  g.y_factor = 100;
  g.x_high = run.length();
  g.y_high = 1.05;
  const Theme& t = Theme::now();
  const QColor colours[]{t.accent, t.ink, t.tight, t.grey, t.holds, t.fails};
  for (size_t i = 0; i < run.branches.size(); ++i) {
    NamedCurve curve;
    curve.name = text_of(together->words[i], document_.units());
    curve.colour = colours[i % 6];
    for (const auto& sample : run.samples) curve.points.push_back({sample.time, sample.places[i]});
    g.more.push_back(std::move(curve));
  }
  g.marks.push_back({{std::min(view_.time, g.x_high), 0}, QString(), Ink::accent, true});
  g.draw(s, s.frame().device());
}

void CurrentPane::draw(Sheet& s) {
  const CircuitState* c = shown(document_);
  if (!c || !c->budget[view_.up ? 0 : 1]) return;
  const auto& budget = *c->budget[view_.up ? 0 : 1];
  const Electrics& e = document_.design().circuit.electrics;
  Diagram g;
  g.title = view_.up ? QObject::tr("Currents, going up") : QObject::tr("Currents, going down");
  g.x_title = QObject::tr("time, s");
  g.y_title = "A";
  for (size_t i = 0; i < budget.steps.size(); ++i) {
    if (i > 0) g.curve.push_back({budget.steps[i].first, budget.steps[i - 1].second});
    g.curve.push_back({budget.steps[i].first, budget.steps[i].second});
  }
  g.fit();
  if (e.supply_current.known()) {
    g.y_high = std::max(g.y_high, 1.15 * e.supply_current);
    g.band_low = e.supply_current;
    g.band_high = g.y_high;
  }
  g.marks.push_back({{budget.peak_at, budget.peak}, document_.say(budget.peak, Kind::current), Ink::accent});
  g.draw(s, s.frame().device());
}

}  // namespace kranich::app
