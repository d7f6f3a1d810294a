// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawing/steer_panes.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "app/drawing/leg_point.h"
#include "app/widgets/findings.h"
#include "core/assess/loading_state.h"
#include "core/motion/retract.h"
#include "core/steer/steering.h"

namespace kranich::app {

QRectF SteerPane::bounds() const {
  QRectF box = SwingPane::bounds();
  const Leg& l = the_leg();
  if (box.isEmpty() && l.axle.known()) {
    // A leg that does not retract: itself.
    const double size = l.wheel.diameter.known() ? 3 * l.wheel.diameter : 1;
    const QPointF at = map(l.axle.vec());
    box = QRectF(at.x() - size / 2, at.y() - size / 4, size, size);
  }
  for (const Point* p : {&l.steering.rod_airframe, &l.steering.rod_leg})
    if (p->known()) {
      const QPointF at = map(p->vec());
      box = box.united(QRectF(at.x() - 0.01, at.y() - 0.01, 0.02, 0.02));
    }
  return box;
}

void SteerPane::draw(Sheet& s) {
  const Leg& l = the_leg();
  if (l.retraction.fitted) {
    SwingPane::draw(s);
  } else {
    s.title(capitalised(text_of(document_.design().leg_word(l), document_.units())), QObject::tr("fixed"));
    if (l.axle.known() && l.held_at().allFinite()) {
      s.bar(map(l.held_at()), map(motion::foot(l)), l.tube_diameter.known() ? l.tube_diameter.si : 0.01,
            Theme::now().ink);
      if (l.wheel.diameter.known()) {
        s.pen(Ink::normal, 1.4);
        s.fill(Theme::now().tyre);
        s.circle(map(l.axle.vec()), l.wheel.diameter / 2);
      }
    }
  }
  const Steering& steering = l.steering;
  if (steering.servo_low.known() && steering.servo_high.known()) {
    const QRectF body = QRectF(map(steering.servo_low.vec()), map(steering.servo_high.vec())).normalized();
    s.pen(Ink::tight, 1.4);
    s.no_fill();
    s.painter().drawRect(
        QRectF(s.frame().to_device(body.topLeft()), s.frame().to_device(body.bottomRight())).normalized());
    s.label(body.center(), QObject::tr("servo"), Ink::tight, Qt::AlignHCenter | Qt::AlignVCenter, {0, 0}, 8);
  }
  if (const auto axis = steer::steering_axis(l); axis && steering.kind != SteeringKind::none &&
                                                 document_.gear_position() == 0 && l.wheel.diameter.known()) {
    // The line it turns about, on down to the ground, and the contact behind or ahead of it.
    double pitch = 0;
    const LoadingState* loading = document_.loading();
    if (loading && loading->rest) pitch = loading->rest->pitch;
    const auto trail = steer::trail(*axis, l.axle.vec(), l.wheel.diameter / 2, pitch);
    const QPointF ground = map(trail.axis_on_ground);
    const QPointF contact = map(trail.contact);
    s.pen(Ink::normal, 1, Qt::DashDotLine);
    s.line(map(axis->point + 0.6 * (l.held_at() - axis->point)), ground);
    s.pen(Ink::accent, 2.4);
    s.line(ground, contact);
    s.label(contact,
            trail.length < 0 ? QObject::tr("leads by %1").arg(document_.say(-trail.length, Kind::length))
                             : QObject::tr("trail %1").arg(document_.say(trail.length, Kind::length)),
            Ink::accent, Qt::AlignHCenter | Qt::AlignTop, {0, 6}, 8.5, true);
  }
  if (!steering.rod_airframe.known() || !steering.rod_leg.known()) return;
  const auto moves = motion::retracting(l);
  const Vec3 arm = steering.rod_leg.vec();
  const auto moved = [&](double turn) {
    return map(moves ? Vec3(moves->pose(motion::carried_at(l, arm), turn) * arm) : arm);
  };
  const QPointF fixed = map(steering.rod_airframe.vec());
  if (moves) {
    QPolygonF way;
    for (int i = 0; i <= 60; ++i) way << moved(moves->full_turn * i / 60);
    s.no_fill();
    s.pen(Ink::tight, 1, Qt::DotLine);
    s.polyline(way);
    s.pen(Ink::grey, 1, Qt::DashLine);
    s.line(fixed, way.last());
  }
  const QPointF now = moved(moves ? document_.gear_position() * moves->full_turn : 0);
  s.pen(Ink::tight, 2.4);
  s.line(fixed, now);
  if (const auto axis = steer::steering_axis(l); axis && (!moves || document_.gear_position() == 0)) {
    const Vec3 on_axis = axis->point + (arm - axis->point).dot(axis->direction) * axis->direction;
    s.pen(Ink::normal, 3);
    s.line(map(on_axis), now);
  }
  s.pen(Ink::normal, 1.4);
  s.fill(Theme::now().paper);
  for (const QPointF& p : {fixed, now})
    s.painter().drawEllipse(s.frame().to_device(p), 4 * s.unit(), 4 * s.unit());
  s.label((fixed + now) / 2,
          steering.kind == SteeringKind::sliding_rods ? QObject::tr("rod that slides")
                                                      : QObject::tr("steering rod"),
          Ink::tight, Qt::AlignLeft | Qt::AlignBottom, {8, -6}, 8);
}

std::vector<Handle> SteerPane::handles() const {
  const Leg& l = the_leg();
  std::vector<Handle> list;
  const bool behind = from_behind();
  const auto end = [&](const char* id, const QString& name, Point Steering::*which) {
    const Point& p = l.steering.*which;
    if (!p.known()) return;
    list.push_back(leg_point(leg, id, name, map(p.vec()), behind ? SeenFrom::behind : SeenFrom::the_side,
                             [which](Leg& x) { return &(x.steering.*which); }));
  };
  end("steer-airframe", QObject::tr("rod's end at the servo"), &Steering::rod_airframe);
  end("steer-leg", QObject::tr("rod's end on the leg, down"), &Steering::rod_leg);
  return list;
}

QRectF TurnPane::bounds() const {
  const Design& d = document_.design();
  double x_low = 1e9, x_high = -1e9, y = 0.1;
  for (const Leg& leg : d.gear.legs) {
    if (!leg.axle.known()) continue;
    x_low = std::min(x_low, leg.axle.x.si);
    x_high = std::max(x_high, leg.axle.x.si);
    y = std::max(y, std::abs(leg.axle.y.si));
  }
  if (x_high < x_low) return {0, 0, 1, 1};
  const double length = std::max(0.3, x_high - x_low);
  const QRectF wheels(-y - 0.4 * length, -x_high - 0.5 * length, 2 * y + 2.2 * length, 2.0 * length);
  // The whole turn where it is tight; of a wide one the part at the wheels.
  const auto turn = steer::turning_of(d, of_.the_leg());
  if (!turn || of_.the_leg().steering.kind == SteeringKind::none) return wheels;
  const auto figures = steer::turn_figures(*turn);
  const double radius = std::max(figures.outer, figures.steered);
  if (!(radius < 3 * length)) return wheels;
  return wheels.united(QRectF(figures.middle - 1.05 * radius, -d.gear.main().axle.x - 1.05 * radius,
                              2.1 * radius, 2.1 * radius));
}

void TurnPane::draw(Sheet& s) {
  const Design& d = document_.design();
  const Leg& leg = of_.the_leg();
  s.title(QObject::tr("Turn"), QObject::tr("from above"));
  const Leg& main = d.gear.main();
  const auto map = [](double x, double y) { return QPointF(y, -x); };
  const Theme& t = Theme::now();
  const auto wheel = [&](double x, double y, const Wheel& w, double turned, const QColor& colour) {
    const double r = w.diameter.known() ? w.diameter / 2 : 0.05;
    const double half = w.width.known() ? w.width / 2 : 0.2 * r;
    QPolygonF box;
    for (const auto& [along, across] : {std::pair{r, half}, {r, -half}, {-r, -half}, {-r, half}})
      box << map(x - along * std::cos(turned) - across * std::sin(turned),
                 y + along * std::sin(turned) - across * std::cos(turned) + 0);
    s.pen(Ink::normal, 1.2);
    s.fill(colour);
    s.polyline(box, true);
  };
  std::optional<steer::TurnFigures> figures;
  if (const auto turn = steer::turning_of(d, leg); turn && leg.steering.kind != SteeringKind::none)
    figures = steer::turn_figures(*turn);
  // A nose wheel turns to the side of the turn, a tail wheel away from it.
  const bool ahead = leg.axle.x < main.axle.x;
  for (const auto& placed : placed_legs(d.gear)) {
    const Leg& l = d.gear.legs[placed.row];
    if (!l.axle.known()) continue;
    const double y = placed.hand() * l.axle.y;
    const bool steered = l.id == leg.id && figures;
    wheel(l.axle.x, y, l.wheel, steered ? (ahead ? 1 : -1) * figures->ground_angle : 0,
          steered ? t.accent : t.tyre);
  }
  if (!figures) {
    s.label(s.frame().to_world(s.frame().device().center()),
            leg.steering.kind == SteeringKind::none ? QObject::tr("not steered")
                                                    : QObject::tr("needs how far it turns"),
            Ink::grey, Qt::AlignCenter);
    return;
  }
  const QPointF centre = map(main.axle.x, figures->middle);
  s.no_fill();
  const auto circle = [&](double radius, Ink ink, double width, Qt::PenStyle style) {
    // Only the part that is seen: a circle of a hundred metres is all but straight.
    QPolygonF arc;
    for (int i = 0; i <= 720; ++i) {
      const double a = 2 * std::numbers::pi * i / 720;
      arc << s.frame().to_device(centre + radius * QPointF(std::cos(a), std::sin(a)));
    }
    s.pen(ink, width, style);
    s.clipped_polyline(arc, s.frame().device().adjusted(-20, -20, 20, 20));
  };
  circle(std::abs(figures->inner), Ink::grey, 1, Qt::DashLine);
  circle(figures->outer, Ink::grey, 1, Qt::DashLine);
  circle(std::abs(figures->steered), Ink::accent, 1.6, Qt::SolidLine);
  s.pen(Ink::grey, 1, Qt::DotLine);
  s.line(map(main.axle.x, 0), centre);
  s.line(map(leg.axle.x, leg.axle.y), centre);
  s.label(map(main.axle.x, 0), QObject::tr("radius %1").arg(document_.say(figures->middle, Kind::distance)),
          Ink::accent, Qt::AlignLeft | Qt::AlignTop, {8, 6}, 9, true);
  if (figures->inner < 0)
    s.label(centre, QObject::tr("the inner wheel rolls backward"), Ink::tight,
            Qt::AlignLeft | Qt::AlignBottom, {6, -4}, 8);
}

}  // namespace kranich::app
