// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawing/air_panes.h"

#include <algorithm>
#include <cmath>

#include "app/drawing/diagram.h"
#include "app/tongue.h"
#include "app/widgets/findings.h"

namespace kranich::app {

const AirState* shown_air(const Document& document) {
  const CircuitState* c = document.assessment().circuit.get();
  return c && c->air && c->ways.empty() ? &*c->air : nullptr;
}

const AirState::Followed* followed_way(const AirState& air, const std::string& leg, bool up) {
  for (const auto& f : air.followed)
    if (f.leg == leg && f.up == up) return &f;
  return nullptr;
}

namespace {

//! A pressure as its unit's number alone.
QString in_unit(const Document& document, double pressure) {
  return figure(pressure / display_unit(Kind::pressure, document.units()).to_si, 0);
}

//! Stroke by stroke: what is left in the bottle as bars, what the hardest leg needs of it as a line in each.
void stairs(Sheet& s, const Document& document, const AirState& air, const QRectF& area) {
  QPainter& p = s.painter();
  const Theme& t = Theme::now();
  line_of_words(p, {area.left(), area.top(), area.width(), 16}, QObject::tr("Left in the bottle, way by way"),
                t.grey, Qt::AlignLeft, 9, true);
  const auto& plan = air.plan;
  // As many as are wanted and two cycles more, or to the first that does not go.
  const size_t shown =
      std::min(plan.strokes.size(), static_cast<size_t>(2 * std::max(plan.wanted, plan.cycles) + 4));
  const double top = area.top() + 34;
  const double base = area.bottom() - 40;
  const double highest = 1.08 * std::max({plan.filled, 1.0});
  const double wide = (area.width() - 14) / static_cast<double>(std::max<size_t>(shown, 4));
  const auto y_of = [&](double pressure) {
    return base - (base - top) * std::clamp(pressure / highest, 0.0, 1.0);
  };
  for (size_t i = 0; i < shown; ++i) {
    const AirStroke& stroke = plan.strokes[i];
    const double x = area.left() + 6 + wide * static_cast<double>(i);
    const bool goes = stroke.spare >= 0;
    const QRectF bar(x + 2, y_of(stroke.after), wide - 4, base - y_of(stroke.after));
    QColor tone = goes ? t.accent : t.fails;
    tone.setAlpha(goes ? 90 : 60);
    p.fillRect(bar, tone);
    p.setPen(QPen(goes ? t.accent : t.fails, 1.4));
    p.drawLine(bar.topLeft(), bar.topRight());
    if (wide > 34 || i % 2 == 0)
      line_of_words(p, {x - 8, bar.top() - 15, wide + 16, 14}, in_unit(document, stroke.after), t.ink,
                    Qt::AlignHCenter, 7.5);
    // The bar must reach over what that way needs at its hardest place.
    if (stroke.needs > 0) {
      p.setPen(QPen(t.ink, 2));
      const double y = y_of(std::min(stroke.needs, highest));
      p.drawLine(QPointF(x + 1, y), QPointF(x + wide - 1, y));
    }
    line_of_words(p, {x - 4, base + 3, wide + 8, 14},
                  stroke.up   ? QObject::tr("up")
                  : wide > 30 ? QObject::tr("down")
                              : QObject::tr("dn"),
                  goes ? t.grey : t.fails, Qt::AlignHCenter, 7.5, !goes);
    if (stroke.up)
      line_of_words(p, {x - 4, base + 16, 2 * wide, 14}, QString::number(i / 2 + 1), t.grey, Qt::AlignLeft,
                    7.5);
    if (static_cast<int>(i) == 2 * plan.wanted) {
      p.setPen(QPen(t.grey, 1, Qt::DashLine));
      p.drawLine(QPointF(x, top), QPointF(x, base + 14));
    }
  }
  p.setPen(QPen(t.ink, 1.2));
  p.drawLine(QPointF(area.left() + 4, base), QPointF(area.right() - 4, base));
  const Unit& unit = display_unit(Kind::pressure, document.units());
  line_of_words(p, {area.left(), area.bottom() - 12, area.width(), 14},
                QObject::tr("%1 · black: what is needed · dashed: as much as is wanted")
                    .arg(QString::fromUtf8(unit.symbol.data(), static_cast<int>(unit.symbol.size()))),
                t.grey, Qt::AlignLeft, 7.5);
}

//! In the cylinder of a leg at a time of the way shown: where air goes in, where it goes out, over the
//! outside.
struct Now {
  double share = 0, in = 0, out = 0;
  bool known = false;
};
Now now_in(const AirState& air, const std::string& leg, const CircuitView& view) {
  const auto* f = followed_way(air, leg, view.up);
  if (!f) return {};
  const auto sample = f->slow.at(view.time);
  const double outside = air.plan.bottle.ambient;
  const auto over = [&](double v) { return std::isfinite(v) ? v - outside : 0; };
  return {sample.share, over(sample.in), over(sample.out), true};
}

}  // namespace

void draw_air_circuit(Sheet& s, const Document& document, const CircuitView& view) {
  const AirState& air = *shown_air(document);
  const QRectF whole = s.frame().device();
  const double part = 0.56 * whole.width();
  const QRectF area(whole.left(), whole.top(), part, whole.height());
  stairs(s, document, air,
         {whole.left() + part + 24, whole.top(), whole.width() - part - 24, whole.height()});
  QPainter& p = s.painter();
  const Theme& t = Theme::now();
  line_of_words(p, {area.left(), area.top(), area.width(), 16},
                view.up ? QObject::tr("Going up, in the last cycle wanted")
                        : QObject::tr("Going down, in the last cycle wanted"),
                t.grey, Qt::AlignLeft, 9, true);
  const AirPlan& plan = air.plan;
  const AirSupply& supply = document.design().circuit.air;
  const double before = plan.before_last(view.up);
  // The bottle falls as the legs go: by the mean of their shares.
  double mean = 0, legs = 0;
  for (const AirLegWay& w : plan.ways)
    if (w.up == view.up) {
      mean += now_in(air, w.leg, view).share;
      ++legs;
    }
  mean = legs > 0 ? mean / legs : 0;
  const double bottle = before + mean * (plan.after(view.up, before) - before);
  const double highest = std::max(plan.filled, 1.0);
  const double supply_y = area.top() + 60;
  const double out_y = area.top() + 90;
  const QRectF body(area.left() + 6, area.top() + 44, 52, std::max(70.0, area.height() - 100));
  p.setPen(QPen(t.ink, 1.8));
  p.setBrush(lit(bottle, highest));
  p.drawRoundedRect(body, 22, 22);
  const double level = std::clamp(bottle / highest, 0.0, 1.0);
  line_of_words(p, {body.left() - 6, body.bottom() + 4, 130, 14},
                QObject::tr("bottle, %1").arg(document.say(supply.bottle, Kind::volume)), t.ink,
                Qt::AlignLeft);
  line_of_words(p, {body.left() - 6, body.bottom() + 18, 130, 14}, document.say(bottle, Kind::pressure),
                t.ink, Qt::AlignLeft, 8.5, true);
  p.setPen(QPen(t.ink, 1, Qt::DotLine));
  const double mark = body.bottom() - 14 - level * (body.height() - 28);
  p.drawLine(QPointF(body.left() + 4, mark), QPointF(body.right() - 4, mark));

  const double left = area.left() + 150;
  size_t n = 0;
  for (const AirLegWay& w : plan.ways) n += w.up == view.up;
  const double column = (area.right() - left) / static_cast<double>(std::max<size_t>(n, 1));
  const double last = left + column * (static_cast<double>(n) - 0.5);
  const double gives = std::min(bottle, supply.regulated.known() ? supply.regulated.si : bottle);
  p.setPen(QPen(lit(bottle, highest), 4));
  p.drawLine(QPointF(body.right(), supply_y), QPointF(left - 66, supply_y));
  p.setPen(QPen(lit(gives, highest), 4));
  p.drawLine(QPointF(left - 66, supply_y), QPointF(last - 14, supply_y));
  if (supply.regulated.known()) {
    const QPointF at(left - 66, supply_y);
    p.setPen(QPen(t.ink, 1.4));
    p.setBrush(t.paper);
    p.drawEllipse(at, 9, 9);
    p.drawLine(at + QPointF(0, -9), at + QPointF(0, -18));
    line_of_words(p, {at.x() - 40, at.y() - 34, 110, 14},
                  QObject::tr("regulator, %1").arg(document.say(supply.regulated, Kind::pressure)), t.ink,
                  Qt::AlignLeft, 8);
  }
  // The valve: in from the bottle, out to the open.
  const QRectF valve(left - 40, supply_y - 10, 26, out_y - supply_y + 20);
  p.setPen(QPen(t.ink, 1.4));
  p.setBrush(t.paper);
  p.drawRect(valve);
  line_of_words(p, {valve.left() - 10, valve.bottom() + 3, 110, 14}, QObject::tr("valve"), t.ink,
                Qt::AlignLeft, 8);
  double highest_out = 0;
  for (const AirLegWay& w : plan.ways)
    if (w.up == view.up) highest_out = std::max(highest_out, now_in(air, w.leg, view).out);
  p.setPen(QPen(lit(highest_out, highest), 4));
  p.drawLine(QPointF(valve.right(), out_y), QPointF(last + 14, out_y));
  // Out of the valve into the open: an arrow, and the restrictor that holds it back.
  p.setPen(QPen(t.ink, 1.6));
  const QPointF open(valve.left(), out_y);
  p.drawLine(open, open + QPointF(-20, 0));
  p.drawLine(open + QPointF(-20, 0), open + QPointF(-14, -4));
  p.drawLine(open + QPointF(-20, 0), open + QPointF(-14, 4));
  const Given& restrictor = view.up ? supply.up_bore : supply.down_bore;
  if (restrictor.known()) {
    const QPointF at(valve.right() + 20, out_y);
    p.setPen(QPen(t.ink, 1.4));
    p.setBrush(t.paper);
    p.drawPolygon(
        QPolygonF{at + QPointF(-8, -7), at + QPointF(8, 7), at + QPointF(8, -7), at + QPointF(-8, 7)});
    line_of_words(p, {at.x() - 12, at.y() + 8, 80, 14}, document.say(restrictor, Kind::bore), t.ink,
                  Qt::AlignLeft, 8);
  }
  size_t i = 0;
  for (const AirLegWay& w : plan.ways) {
    if (w.up != view.up) continue;
    const Now now = now_in(air, w.leg, view);
    const double x = left + column * (static_cast<double>(i++) + 0.5);
    const double top = out_y + 40;
    const double bottom = std::max(top + 60, area.bottom() - 44);
    const double piston =
        view.up ? bottom - 12 - now.share * (bottom - top - 30) : top + 18 + now.share * (bottom - top - 30);
    const QColor in = lit(now.in, highest);
    const QColor out = lit(now.out, highest);
    const QColor below = view.up ? in : out;
    const QColor above = view.up ? out : in;
    p.setPen(QPen(view.up ? in : out, 3));
    p.drawLine(QPointF(x - 14, view.up ? supply_y : out_y), QPointF(x - 14, bottom));
    p.setPen(QPen(view.up ? out : in, 3));
    p.drawLine(QPointF(x + 14, view.up ? out_y : supply_y), QPointF(x + 14, top));
    draw_cylinder(p, {x - 14, top, 28, bottom - top}, piston, above, below);
    const Leg& leg = document.design().gear.leg(w.leg);
    line_of_words(p, {x - column / 2, bottom + 4, column, 14},
                  text_of(document.design().legs_word(leg), document.units()), t.ink, Qt::AlignHCenter, 8);
    if (now.known) {
      const auto below_it = [&](double y, const QString& which, double pressure) {
        line_of_words(p, {x - column / 2, y, column, 13},
                      QObject::tr("%1 %2").arg(which, document.say(pressure, Kind::pressure)), t.grey,
                      Qt::AlignHCenter, 7.5);
      };
      below_it(bottom + 18, QObject::tr("in"), now.in);
      below_it(bottom + 31, QObject::tr("out"), now.out);
    } else {
      line_of_words(p, {x - column / 2, bottom + 18, column, 14}, QObject::tr("needs the valve's bore"),
                    t.grey, Qt::AlignHCenter, 8);
    }
  }
}

void draw_air_cylinder(Sheet& s, const Document& document, const CircuitView& view) {
  const AirState& air = *shown_air(document);
  const auto* f = followed_way(air, view.leg, view.up);
  Diagram g;
  const Unit& unit = display_unit(Kind::pressure, document.units());
  const Leg* leg = document.design().gear.find(view.leg);
  g.title = QObject::tr("%1, %2: pressure over the travel")
                .arg(leg ? text_of(document.design().legs_word(*leg), document.units()) : QString(),
                     view.up ? QObject::tr("going up") : QObject::tr("going down"));
  g.x_title = QObject::tr("travel, %");
  g.y_title = QString::fromUtf8(unit.symbol.data(), static_cast<int>(unit.symbol.size()));
  g.x_factor = 100;
  g.y_factor = 1 / unit.to_si;
  const double outside = air.plan.bottle.ambient;
  if (f)
    for (const auto& sample : f->slow.samples) {
      if (std::isfinite(sample.in)) g.curve.push_back({sample.share, sample.in - outside});
      if (std::isfinite(sample.out)) g.second.push_back({sample.share, sample.out - outside});
    }
  // What it needs at each place, the harder of in the air and on jacks.
  NamedCurve needs;
  needs.name = QObject::tr("needed");
  needs.colour = Theme::now().tight;
  double most = 0;
  for (const AirLegWay& w : air.plan.ways)
    if (w.leg == view.leg && w.up == view.up && w.area_in > 0)
      for (size_t i = 0; i <= air_shares; ++i) {
        needs.points.push_back({static_cast<double>(i) / air_shares,
                                std::max(0.0, std::max(w.needs(i, false), w.needs(i, true)))});
        most = std::max(most, needs.points.back().y());
      }
  if (!needs.points.empty()) g.more.push_back(std::move(needs));
  for (const auto* curve : {&g.curve, &g.second})
    for (const QPointF& q : *curve) most = std::max(most, q.y());
  g.y_high = most > 0 ? 1.15 * most : 1;
  // Named where the leg is on its way, not where it waits.
  const auto named = [&](const std::vector<QPointF>& curve, double share, const QString& name, Ink ink) {
    const auto on =
        std::find_if(curve.begin(), curve.end(), [&](const QPointF& q) { return q.x() >= share; });
    if (on != curve.end()) g.marks.push_back({*on, name, ink});
  };
  named(g.curve, 0.35, QObject::tr("goes in"), Ink::accent);
  named(g.second, 0.65, QObject::tr("leaves"), Ink::grey);
  g.draw(s, s.frame().device());
}

void draw_air_legs(Sheet& s, const Document& document, const CircuitView& view) {
  const AirState& air = *shown_air(document);
  Diagram g;
  g.title = QObject::tr("Legs over time");
  g.x_title = QObject::tr("time, s");
  g.y_title = QObject::tr("travel, %");
  g.y_factor = 100;
  g.y_high = 1.05;
  g.x_high = 0;
  const Theme& t = Theme::now();
  const QColor colours[]{t.accent, t.ink, t.tight, t.grey, t.holds, t.fails};
  size_t i = 0;
  for (const auto& f : air.followed) {
    if (f.up != view.up) continue;
    const QString name =
        text_of(document.design().leg_word(document.design().gear.leg(f.leg)), document.units());
    for (const bool full : {false, true}) {
      if (full && f.leg != view.leg) continue;  // one beside the others is enough
      NamedCurve curve;
      curve.name = full ? QObject::tr("%1, full").arg(name) : name;
      curve.colour = colours[i++ % 6];
      for (const auto& sample : (full ? f.fast : f.slow).samples) {
        curve.points.push_back({sample.time, sample.share});
        if (std::isfinite(full ? f.fast.time : f.slow.time)) g.x_high = std::max(g.x_high, sample.time);
      }
      g.more.push_back(std::move(curve));
    }
  }
  if (g.more.empty()) return;
  // One that never arrives is shown as long as the others take, or ten seconds of it.
  if (g.x_high == 0) g.x_high = 10;
  for (auto& curve : g.more)
    curve.points.erase(std::remove_if(curve.points.begin(), curve.points.end(),
                                      [&](const QPointF& q) { return q.x() > g.x_high; }),
                       curve.points.end());
  g.marks.push_back({{std::min(view.time, g.x_high), 0}, QString(), Ink::accent, true});
  g.draw(s, s.frame().device());
}

}  // namespace kranich::app
