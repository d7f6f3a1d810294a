// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawing/bump_pane.h"

#include <algorithm>
#include <cmath>

#include "app/drawing/diagram.h"
#include "app/theme.h"
#include "app/tongue.h"
#include "core/assess/landing_state.h"
#include "core/spring/road.h"

namespace kranich::app {

const BumpTrace::Pair* BumpTrace::of(const std::string& leg) {
  if (seen_ != document_.revision() || leg != leg_) {
    seen_ = document_.revision();
    leg_ = leg;
    pair_.reset();
    for (const auto& l : document_.assessment().landings)
      if (l.leg == leg && l.bump_model)
        pair_ = Pair{*l.bump_model, spring::roll_over(*l.bump_model, 300),
                     spring::roll_over(spring::counterpart(*l.bump_model), 300)};
  }
  return pair_ ? &*pair_ : nullptr;
}

QRectF BumpPane::bounds() const {
  const Design& d = document_.design();
  const Leg& l = d.gear.leg(leg);
  const double r = l.wheel.diameter.known() ? l.wheel.diameter / 2 : 0.2;
  const double half = (d.bump.length.known() ? d.bump.length / 2 : 0) + 3.2 * r;
  const double height =
      2 * r + (d.bump.height.known() ? d.bump.height.si : 0) + 1.2 * (l.travel.known() ? l.travel.si : r);
  return {-half, -0.15 * r, 2 * half, height};
}

void BumpPane::draw(Sheet& s) {
  const Design& d = document_.design();
  s.title(QObject::tr("Rolling over it"), QObject::tr("to scale, the aircraft goes to the right"));
  const auto* pair = trace_.of(leg);
  if (!pair) {
    s.painter().setPen(Theme::now().grey);
    s.painter().drawText(s.frame().device(), Qt::AlignCenter | Qt::TextWordWrap,
                         d.bump.height.known()
                             ? QObject::tr("the leg lacks something for it: see the findings")
                             : QObject::tr("give the height of the bump or step"));
    return;
  }
  const auto& o = pair->model.obstacle;
  const QRectF world = bounds();
  QPolygonF ground;
  for (int i = 0; i <= 240; ++i) {
    const double x = world.left() + world.width() * i / 240;
    ground << QPointF(x, spring::road_height(o, x));
  }
  QPolygonF solid = ground;
  solid << QPointF(world.right(), world.top()) << QPointF(world.left(), world.top());
  s.no_pen();
  s.fill(Theme::now().body);
  s.polyline(solid, true);
  s.pen(Ink::normal, 1.8);
  s.no_fill();
  s.polyline(ground);
  s.vertical_dimension({0, 0}, {0, o.height}, document_.say(o.height, Kind::length), -14, Ink::grey);
  const auto& trace = pair->own.trace;
  if (trace.empty()) return;
  const auto at_place = [&](double along) {
    return *std::min_element(trace.begin(), trace.end(), [&](const auto& a, const auto& b) {
      return std::abs(a.along - along) < std::abs(b.along - along);
    });
  };
  const double r = pair->model.radius;
  for (const double share : {-2.2, -0.9, 0.9, 2.2})
    draw_wheel(s, *pair, at_place(share * (r + std::max(0.0, o.length) / 4)), true);
  const auto worst = *std::max_element(trace.begin(), trace.end(), [](const auto& a, const auto& b) {
    return std::hypot(a.vertical, a.aft) < std::hypot(b.vertical, b.aft);
  });
  const auto now = playing ? *std::min_element(trace.begin(), trace.end(),
                                               [&](const auto& a, const auto& b) {
                                                 return std::abs(a.t - *playing) < std::abs(b.t - *playing);
                                               })
                           : worst;
  draw_wheel(s, *pair, now, false);
  if (!playing)
    s.note(s.frame().device().topLeft() + QPointF(8, 8),
           QObject::tr("worst here: up %1, aft %2")
               .arg(document_.say(worst.vertical, Kind::force), document_.say(worst.aft, Kind::force)),
           QObject::tr("%1 times the static load; stroke %2")
               .arg(figure(pair->own.load_factor, 2))
               .arg(document_.say(pair->own.stroke_used, Kind::length)),
           Ink::accent, {now.along, pair->model.radius + spring::road_height(o, now.along)});
}

void BumpPane::draw_wheel(Sheet& s, const BumpTrace::Pair& pair, const spring::BumpPoint& at,
                          bool faint) const {
  const Theme& t = Theme::now();
  const double r = pair.model.radius;
  // The axle above the level road: sprung mass and stroke together move it.
  const double rest = r - pair.model.drop.tyre.squash(pair.model.drop.mass() * standard_gravity);
  const double axle = rest + at.sprung + (at.stroke - pair.own.stroke_at_rest);
  const QPointF c(at.along, axle);
  QColor tyre = t.tyre;
  tyre.setAlpha(faint ? 26 : 170);
  s.pen(faint ? t.faint : t.ink, 1.2);
  s.fill(tyre);
  s.circle(c, r);
  const double top = rest + at.sprung + pair.model.drop.travel * 1.6 + 0.6 * r;
  const double aft = pair.model.leg.path == force::Suspension::Path::straight ? 0 : 1;
  // A trailing link's hinge runs ahead of its axle; the picture runs to the right.
  const Vec3 arm = pair.model.leg.hinge - pair.model.leg.axle;
  const QPointF hinge =
      aft > 0 && std::abs(arm.x()) > 1e-3
          ? QPointF(at.along - arm.x(), rest + at.sprung - pair.own.stroke_at_rest + arm.z())
          : QPointF(at.along, top);
  s.bar(c, hinge, 0.12 * r, faint ? t.faint : t.ink);
  if (faint) return;
  s.fill(t.rim);
  s.pen(Ink::normal, 1);
  s.circle(c, 0.3 * r);
}

std::vector<Handle> BumpPane::handles() const {
  const Bump& b = document_.design().bump;
  if (!b.height.known()) return {};
  std::vector<Handle> list{
      {"bump-height", QObject::tr("height of the bump"), QPointF(0, b.height), 9,
       [](Design& d, double, double dz) { d.bump.height.si = std::max(0.001, d.bump.height + dz); }}};
  if (b.length.known())
    list.push_back(
        {"bump-length", QObject::tr("end of the bump"), QPointF(b.length / 2, 0), 9,
         [](Design& d, double dx, double) { d.bump.length.si = std::max(0.002, d.bump.length + 2 * dx); }});
  return list;
}

void BumpLoadsPane::draw(Sheet& s) {
  const QRectF area = s.frame().device();
  s.card(area);
  const auto* pair = trace_.of(leg);
  if (!pair) return;
  const bool straight = pair->model.leg.path == force::Suspension::Path::straight;
  const auto& force_unit = display_unit(Kind::force, document_.units());
  const auto& length = display_unit(Kind::length, document_.units());
  const auto plot = [&](const QString& title, double spring::BumpPoint::*of, const Unit& unit,
                        const QRectF& where) {
    Diagram g;
    g.title = title;
    g.x_title = QObject::tr("s");
    g.y_title = QString::fromUtf8(unit.symbol.data(), static_cast<int>(unit.symbol.size()));
    g.y_factor = 1 / unit.to_si;
    for (const auto& p : pair->own.trace) g.curve.push_back({p.t, p.*of});
    for (const auto& p : pair->other.trace) g.second.push_back({p.t, p.*of});
    if (playing) g.marks.push_back({{*playing, 0}, QString(), Ink::accent, true});
    g.fit();
    g.draw(s, where);
  };
  const double h = area.height() / 3;
  const QString other =
      straight ? QObject::tr("dashed: as a trailing link") : QObject::tr("dashed: as a telescopic leg");
  plot(QObject::tr("Up; %1").arg(other), &spring::BumpPoint::vertical, force_unit,
       {area.left(), area.top(), area.width(), h});
  plot(QObject::tr("Aft"), &spring::BumpPoint::aft, force_unit,
       {area.left(), area.top() + h, area.width(), h});
  plot(QObject::tr("Stroke"), &spring::BumpPoint::stroke, length,
       {area.left(), area.top() + 2 * h, area.width(), h});
}

}  // namespace kranich::app
