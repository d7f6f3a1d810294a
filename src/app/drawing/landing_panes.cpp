// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawing/landing_panes.h"

#include <algorithm>
#include <cmath>

#include "app/drawing/diagram.h"
#include "app/theme.h"
#include "app/tongue.h"
#include "app/widgets/findings.h"
#include "core/assess/landing_state.h"
#include "core/assess/loading_state.h"
#include "core/assess/standing.h"
#include "core/base/numerics.h"

namespace kranich::app {

QRectF StrokePane::bounds() const {
  const Leg& l = document_.design().gear.leg(leg);
  if (!l.axle.known() || !l.wheel.diameter.known()) return {0, 0, 1, 1};
  const double height = top(l).z() - l.axle.z + l.wheel.diameter;
  return {-0.2 * height, 0, 5.2 * spacing(l) + 0.2 * height, height * 1.05};
}

void StrokePane::draw(Sheet& s) {
  const Design& d = document_.design();
  const Leg& l = d.gear.leg(leg);
  const QString word = text_of(d.leg_word(l), d.units);
  s.title(capitalised(word), QObject::tr("to scale, the ground at rest"));
  if (!l.axle.known() || !l.wheel.diameter.known() || !l.travel.known()) return;
  const auto* loading = document_.loading();
  const size_t wheel = wheel_of(d, leg);
  const double still = loading && loading->rest ? loading->rest->wheels[wheel].leg_closure : 0;
  const double tyre = loading && loading->rest ? loading->rest->wheels[wheel].tyre_closure : 0;
  double landing = std::nan("");
  double bump = std::nan("");
  double landing_tyre = tyre;  // without a computed landing nothing is known of it
  for (const auto& x : document_.assessment().landings) {
    if (x.leg != leg) continue;
    if (x.bump) bump = x.bump->stroke_used;
    if (x.drop) {
      landing = x.drop->stroke_used;
      landing_tyre = std::min(x.drop->tyre_deflection, 0.9 * l.wheel.diameter / 2);
    } else if (x.stroke) {
      landing = x.stroke->strut_travel;
    }
  }
  if (playing) {
    landing = std::max(0.0, playing->stroke);
    landing_tyre = playing->unsprung;
  }
  s.ground(0);
  struct Column {
    QString name;
    double closure, sink;
    Ink ink;
  };
  const double most = l.travel;
  int i = 0;
  for (const Column& c :
       {Column{QObject::tr("extended"), 0, 0, Ink::grey},
        Column{QObject::tr("static"), still, tyre, Ink::normal},
        Column{QObject::tr("over the bump"), bump, tyre, bump > most ? Ink::fails : Ink::grey},
        Column{
            playing ? QObject::tr("landing, %1 s").arg(figure(playing->t, 2)) : QObject::tr("design landing"),
            landing, landing_tyre, landing > most ? Ink::fails : Ink::accent},
        Column{l.spring.kind == SpringKind::bending ? QObject::tr("all of it") : QObject::tr("at the stop"),
               most, landing_tyre, Ink::tight}}) {
    const double x = (0.5 + i++) * spacing(l);
    if (!std::isfinite(c.closure)) continue;
    const auto path = force::suspension_of(l, document_.design().materials);
    const auto* suspension = std::get_if<force::Suspension>(&path);
    if (suspension && suspension->path == force::Suspension::Path::hinged)
      draw_hinged(s, l, *suspension, x, c.closure, c.sink, c.ink);
    else
      draw_straight(s, l, x, c.closure, c.sink, c.ink);
    s.label({x, 0}, c.name, c.ink, Qt::AlignHCenter | Qt::AlignTop, {0, 11}, 8.5, true);
    s.label({x, 0}, document_.say(c.closure, Kind::length), Ink::grey, Qt::AlignHCenter | Qt::AlignTop,
            {0, 25}, 8);
  }
}

void StrokePane::draw_straight(Sheet& s, const Leg& l, double x, double closure, double sink, Ink ink) const {
  const Theme& t = Theme::now();
  const double radius = l.wheel.diameter / 2;
  const double axle = radius - sink;
  const double length = top(l).z() - l.axle.z - closure;
  const double tube = l.tube_diameter.known() ? l.tube_diameter.si : 0.05 * length;
  const double barrel = std::max(0.25 * length, 0.55 * (top(l).z() - l.axle.z));
  s.bar({x, axle}, {x, axle + length}, tube * 0.6, t.grey);
  s.bar({x, axle + length - std::min(barrel, length * 0.9)}, {x, axle + length}, tube,
        ink == Ink::fails ? t.fails : t.ink);
  s.pen(ink_colour(Ink::normal), 1.2);
  s.fill(t.tyre);
  const QPointF centre = s.frame().to_device({x, axle});
  const double r = radius * s.frame().scale();
  s.painter().save();
  s.painter().setClipRect(
      QRectF(centre.x() - r - 2, centre.y() - r - 2, 2 * r + 4, r + 2 + axle * s.frame().scale()));
  s.circle({x, axle}, radius);
  s.painter().restore();
  s.fill(t.rim);
  s.circle({x, axle}, radius * 0.4);
  s.pen(Ink::faint, 0.8, Qt::DashLine);
  s.line({x - 0.35 * spacing(l), axle + length}, {x + 0.35 * spacing(l), axle + length});
}

void StrokePane::draw_hinged(Sheet& s, const Leg& l, const force::Suspension& path, double x, double rise,
                             double sink, Ink ink) const {
  const Theme& t = Theme::now();
  const auto q =
      find_root([&](double a) { return path.at(a).axle.z() - path.axle.z() - rise; }, 0, path.most * 1.4);
  const auto at = path.at(q.value_or(path.most));
  const bool sideways = l.path == LegPath::hinged_fore_and_aft;
  // It stands on the lowest edge of its leaning wheel.
  const double half_width = l.wheel.width.known() ? l.wheel.width / 2 : 0;
  const double lift = l.wheel.diameter / 2 * std::abs(at.wheel.y()) + half_width * std::abs(at.wheel.z()) -
                      sink - at.axle.z();
  const double across = sideways ? path.hinge.y() + 0.5 * (l.axle.y - path.hinge.y()) : path.hinge.x();
  const auto map = [&](const Vec3& p) {
    return QPointF(x + (sideways ? p.y() : p.x()) - across, p.z() + lift);
  };
  const Mat3 turn = turn_about(path.hinge_axis, q.value_or(path.most));
  const auto turned = [&](const Vec3& p) { return Vec3(path.hinge + turn * (p - path.hinge)); };
  const double tube = l.tube_diameter.known() ? l.tube_diameter.si : 0.03;
  s.bar(map(path.hinge), map(at.axle), tube, ink == Ink::fails ? t.fails : t.ink);
  if (path.acts == force::Suspension::Acts::pulled || path.acts == force::Suspension::Acts::pushed) {
    s.pen(Ink::accent, 2.2);
    s.line(map(path.anchor_airframe), map(turned(path.anchor_leg)));
    s.fill(t.accent);
    s.circle(map(path.anchor_airframe), 0.4 * tube);
  }
  const Vec3 side =
      (sideways ? l.wheel.width / 2 : 0.4 * l.wheel.diameter) * (sideways ? at.wheel : Vec3::UnitX());
  const Vec3 up = l.wheel.diameter / 2 * Vec3(0, -at.wheel.z(), at.wheel.y());
  s.pen(ink_colour(Ink::normal), 1.2);
  s.fill(t.tyre);
  s.polyline(QPolygonF({map(at.axle + side + up), map(at.axle - side + up), map(at.axle - side - up),
                        map(at.axle + side - up)}),
             true);
  s.fill(t.ink);
  s.circle(map(path.hinge), 0.5 * tube);
}

Vec3 StrokePane::top(const Leg& l) {
  const Vec3 held = l.held_at();
  return held.allFinite() ? held : l.axle.vec() + Vec3(0, 0, 3 * l.travel);
}

double StrokePane::spacing(const Leg& l) {
  const double height = top(l).z() - l.axle.z;
  // Wide enough for what stands below each.
  return std::max({1.35 * l.wheel.diameter, 0.7 * height, 0.75 * (height + l.wheel.diameter)});
}

const spring::DropResult* LandingTrace::of(const std::string& leg) {
  if (seen_ != document_.revision() || leg != leg_) {
    seen_ = document_.revision();
    leg_ = leg;
    result_.reset();
    for (const auto& l : document_.assessment().landings)
      if (l.leg == leg && l.model && std::isfinite(l.sink_speed)) {
        spring::DropRun run;
        run.trace = 600;
        run.duration = 0.6;  // what comes after is rocking
        result_ = spring::drop(*l.model, l.sink_speed, run);
      }
  }
  return result_ ? &*result_ : nullptr;
}

namespace {

//! What the checks say that this leg's landing lacks.
QString why_no_landing(const Document& document, const std::string& leg) {
  for (const auto& f : document.assessment().findings)
    if (f.info().station == Station::spring && f.subject.leg == leg && f.verdict == Verdict::unknown)
      return text_of(f.remark, document.units());
  return QObject::tr("no landing of this leg: see the findings");
}

}  // namespace

void TimePane::draw(Sheet& s) {
  const QRectF area = s.frame().device();
  s.card(area);
  const auto* drop = trace_.of(leg);
  if (!drop || drop->trace.empty()) {
    s.painter().setPen(Theme::now().grey);
    s.painter().drawText(area, Qt::AlignCenter | Qt::TextWordWrap,
                         !document_.design().gear.leg(leg).carries()
                             ? QObject::tr("it is let down, not dropped")
                             : why_no_landing(document_, leg));
    return;
  }
  const QRectF upper(area.left(), area.top(), area.width(), 0.56 * area.height());
  const auto& unit = display_unit(Kind::force, document_.units());
  Diagram g;
  g.title = QObject::tr("The landing: ground load, and strut load (dashed), over time");
  g.x_title = QObject::tr("s");
  g.y_title = document_.unit(Kind::force);
  g.y_factor = 1 / unit.to_si;
  for (const auto& p : drop->trace) {
    g.curve.push_back({p.t, p.ground});
    g.second.push_back({p.t, p.strut});
  }
  g.marks.push_back({{drop->time_to_peak, drop->peak_ground},
                     QObject::tr("N %1").arg(figure(drop->load_factor, 2)),
                     Ink::accent});
  if (playing) g.marks.push_back({{*playing, 0}, QString(), Ink::accent, true});
  g.fit();
  g.draw(s, upper);
  draw_energy(s, *drop, QRectF(area.left(), upper.bottom(), area.width(), area.height() - upper.height()));
}

void TimePane::draw_energy(Sheet& s, const spring::DropResult& drop, const QRectF& area) const {
  const Theme& t = Theme::now();
  QPainter& p = s.painter();
  const QRectF box = area.adjusted(46, 20, -96, -18);
  double most = 1e-9;
  for (const auto& x : drop.trace)
    most = std::max(
        most, x.kinetic + x.damper_energy + std::max(0.0, x.spring_energy) + x.tyre_energy + x.stop_energy);
  const double end = drop.trace.back().t;
  const auto at = [&](double time, double joule) {
    return QPointF(box.left() + time / end * box.width(), box.bottom() - joule / most * box.height());
  };
  struct Layer {
    QString name;
    double (*of)(const spring::DropPoint&);
    QColor colour;
  };
  const auto shade = [&](QColor c, int alpha) {
    c.setAlpha(alpha);
    return c;
  };
  const std::vector<Layer> layers{
      {QObject::tr("damper"), [](const spring::DropPoint& x) { return x.damper_energy; }, shade(t.ink, 150)},
      {QObject::tr("spring"), [](const spring::DropPoint& x) { return std::max(0.0, x.spring_energy); },
       shade(t.accent, 150)},
      {QObject::tr("stops"), [](const spring::DropPoint& x) { return x.stop_energy; }, shade(t.fails, 150)},
      {QObject::tr("tyre"), [](const spring::DropPoint& x) { return x.tyre_energy; }, shade(t.tight, 150)},
      {QObject::tr("motion"), [](const spring::DropPoint& x) { return x.kinetic; }, shade(t.grey, 80)}};
  std::vector<double> below(drop.trace.size(), 0);
  p.setFont(text_font(7.5));
  double label_y = box.bottom() - 4;
  for (const auto& layer : layers) {
    QPolygonF shape;
    for (size_t i = 0; i < drop.trace.size(); ++i)
      shape << at(drop.trace[i].t, below[i] + layer.of(drop.trace[i]));
    for (size_t i = drop.trace.size(); i-- > 0;) shape << at(drop.trace[i].t, below[i]);
    for (size_t i = 0; i < drop.trace.size(); ++i) below[i] += layer.of(drop.trace[i]);
    p.setPen(Qt::NoPen);
    p.setBrush(layer.colour);
    p.drawPolygon(shape);
    p.drawRect(QRectF(box.right() + 8, label_y - 8, 8, 8));
    p.setPen(t.ink);
    p.drawText(QPointF(box.right() + 20, label_y), layer.name);
    label_y -= 13;
  }
  p.setFont(text_font(8.5, true));
  p.drawText(QPointF(area.left() + 6, area.top() + 13),
             QObject::tr("Where the energy goes, stacked: %1 to be absorbed")
                 .arg(document_.say(drop.energy, Kind::energy)));
}

void ForcePane::draw(Sheet& s) {
  const QRectF area = s.frame().device();
  s.card(area);
  const Leg& l = document_.design().gear.leg(leg);
  const auto law = force::suspension_of(l, document_.design().materials);
  const auto* ok = std::get_if<force::Suspension>(&law);
  if (!ok || ok->most <= 0) {
    s.painter().setPen(Theme::now().grey);
    s.painter().drawText(area, Qt::AlignCenter,
                         ok ? QObject::tr("a rigid leg: the tyre is all there is")
                            : QObject::tr("needs %1").arg(text_of(std::get<Text>(law), document_.units())));
    return;
  }
  Diagram g;
  const auto& length = display_unit(Kind::length, document_.units());
  const auto& force_unit = display_unit(Kind::force, document_.units());
  g.title = QObject::tr("Force at the wheel over the travel; dashed: the landing's loop");
  g.x_title = QObject::tr("closure, %1").arg(document_.unit(Kind::length));
  g.y_title = document_.unit(Kind::force);
  g.x_factor = 1 / length.to_si;
  g.y_factor = 1 / force_unit.to_si;
  // A vertical force at the axle against its rise, whatever path the leg takes.
  const auto at_wheel = [&](double q) {
    const auto at = ok->at(q);
    return QPointF(at.axle.z() - ok->axle.z(), at.force / at.axle_1.z());
  };
  for (int i = 0; i <= 80; ++i) g.curve.push_back(at_wheel(ok->most * i / 80));
  const auto* loading = document_.loading();
  if (loading && loading->rest) {
    const auto& w = loading->rest->wheels[wheel_of(document_.design(), leg)];
    g.marks.push_back({at_wheel(w.coordinate),
                       QObject::tr("static %1").arg(document_.say(w.load, Kind::force)), Ink::accent});
  }
  if (const auto* drop = trace_.of(leg))
    for (const auto& p : drop->trace)
      if (p.stroke >= 0) g.second.push_back({p.stroke, p.strut});
  const Theme& t = Theme::now();
  const QColor colours[]{t.accent, t.tight, t.holds};
  for (size_t i = 0; i < beside.size() && i < 3; ++i) {
    const auto& [name, drop] = beside[i];
    NamedCurve curve{{},
                     QObject::tr("%1: N %2, stroke %3%4")
                         .arg(name)
                         .arg(figure(drop.load_factor, 2))
                         .arg(document_.say(drop.stroke_used, Kind::length),
                              drop.bottoms ? QObject::tr(", bottoms") : QString()),
                     colours[i]};
    for (const auto& p : drop.trace)
      if (p.stroke >= 0 && p.t < 0.4) curve.points.push_back({p.stroke, p.strut});
    g.more.push_back(std::move(curve));
  }
  g.fit();
  for (const auto& x : document_.assessment().landings)
    if (x.leg == leg && !x.drop && x.stroke && x.stroke->strut_travel < 1.3 * l.travel) {
      g.x_high = std::max(g.x_high, x.stroke->strut_travel * 1.05);
      g.marks.push_back(
          {{x.stroke->strut_travel, 0},
           QObject::tr("landing needs %1").arg(document_.say(x.stroke->strut_travel, Kind::length)),
           x.stroke->strut_travel > l.travel ? Ink::fails : Ink::tight,
           true});
    }
  g.draw(s, area);
}

}  // namespace kranich::app
