// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawing/door_panes.h"

#include <algorithm>
#include <cmath>

#include "app/drawing/aircraft.h"
#include "app/drawing/diagram.h"
#include "app/widgets/findings.h"
#include "core/base/numerics.h"
#include "core/motion/retract.h"

namespace kranich::app {

const Door* door_of(const Design& d, const std::string& id) {
  for (const Door& x : d.doors)
    if (x.id == id) return &x;
  return nullptr;
}
const DoorState* state_of(const Assessment& a, const std::string& id) {
  for (const DoorState& s : a.doors)
    if (s.door == id) return &s;
  return nullptr;
}

namespace {
QString word_of(Document& document, const std::string& id) {
  return capitalised(text_of(document.design().actor_word(id), document.units()));
}
}  // namespace

//! The plane square to a hinge: `e` to starboard or aft, `up` upward.
struct DoorPane::View {
  motion::DoorPanel panel;
  Vec3 e, up;

  explicit View(const motion::DoorPanel& p) : panel(p), e(p.out), up(-p.down) {
    if (e.x() + e.y() < 0) e = -e;
  }
  QPointF map(const Vec3& p) const { return {p.dot(e), p.dot(up)}; }
  //! What is fixed to the door.
  QPointF on_door(const Vec3& closed, double opening) const { return map(panel.carried(closed, opening)); }
  Vec3 way(double dx, double dy) const { return dx * e + dy * up; }
  //! A move of something drawn on the open door, as it is closed.
  Vec3 way_closed(double dx, double dy, double opening) const {
    return panel.hinge.turn(-opening).linear() * way(dx, dy);
  }
  QPolygonF solid(double opening) const {
    const Vec3 across = panel.across(opening);
    const Vec3 inward = -panel.hinge.direction.cross(across) * panel.thickness;
    const Vec3 from = panel.hinge.point;
    const Vec3 edge = from + panel.width * across;
    QPolygonF outline{map(from), map(edge), map(edge + inward)};
    if (panel.ramp_height > 0) {
      const Vec3 on = from + inward;
      const Vec3 high = -panel.hinge.direction.cross(across) * panel.ramp_height;
      outline << map(on + panel.ramp_to * across) << map(on + panel.ramp_to * across + high)
              << map(on + panel.ramp_from * across);
    }
    outline << map(from + inward);
    return outline;
  }
};

const Door* DoorPane::door() const { return door_of(document_.design(), shown_()); }
const DoorState* DoorPane::state() const { return state_of(document_.assessment(), shown_()); }

QRectF DoorPane::bounds() const {
  const DoorState* s = state();
  const Door* d = door();
  if (!s || !s->panel || !d) return {0, 0, 1, 1};
  const View view(*s->panel);
  QPolygonF all;
  for (int i = 0; i <= 8; ++i) all << view.solid(view.panel.open * i / 8);
  for (const Point* p : {&d->drive.crank, &d->drive.crank_ball, &d->drive.stop, &d->drive.leg_ball,
                         &d->hold.spring_airframe, &d->hold.spring_door})
    if (p->known()) all << view.map(p->vec());
  QRectF box = all.boundingRect();
  // The door must be seen: of a long leg beside a narrow one only what is near.
  const double size = std::max(box.width(), box.height());
  const QRectF near = box.adjusted(-size, -size, size, size);
  const double around = 0.12 * size;
  if (const Leg* leg = document_.design().gear.find(d->leg)) {
    const auto made = swing::moving_leg(*leg);
    if (const auto* m = std::get_if<swing::MovingLeg>(&made))
      for (int i = 0; i <= 6; ++i) {
        const auto w = swing::wheel_at(m->moves, m->parts.front(), m->moves.full_turn * i / 6);
        const QPointF c = view.map(w.centre);
        const double r = w.diameter / 2;
        box = box.united(QRectF(c.x() - r, c.y() - r, 2 * r, 2 * r));
      }
  }
  return box.intersected(near).adjusted(-around, -around / 2, around, around);
}

void DoorPane::draw(Sheet& s) {
  const Door* d = door();
  if (!d) {
    s.title(QObject::tr("No door yet"), QObject::tr("add one at the right"));
    const QStringList lines{
        QObject::tr("A door is a panel on a hinge that lies in any direction."),
        QObject::tr("It is moved on its hinge, by a crank and a rod (two on one crank as well),"),
        QObject::tr("by a rod, a wire or an arm from the leg, or pushed open by the wheel."),
        QObject::tr("Drawn here: its way, the leg that passes it, what holds it open in the stream;"),
        QObject::tr("judged: how far it opens, what it touches, ground, torque, and when the leg may pass.")};
    for (int i = 0; i < lines.size(); ++i)
      s.label(s.frame().to_world(s.frame().device().topLeft() + s.unit() * QPointF(0, 30 + 18 * i)), lines[i],
              Ink::normal, Qt::AlignLeft | Qt::AlignVCenter, {}, 9.5);
    return;
  }
  const DoorState* r = state();
  if (!r || !r->panel) {
    s.title(word_of(document_, d->id));
    s.label(s.frame().to_world(s.frame().device().center()),
            QObject::tr("needs the panel: its hinge's ends, width, side and opening"), Ink::fails);
    return;
  }
  const View view(*r->panel);
  const Theme& t = Theme::now();
  const double share = document_.gear_position();
  double opening = doors::opening_at(document_.design(), *d, share);
  if (!std::isfinite(opening)) opening = 0;
  s.title(word_of(document_, d->id),
          QObject::tr("along its hinge, %1 · open %2 of %3")
              .arg(std::abs(view.e.y()) > std::abs(view.e.x()) ? QObject::tr("seen from behind")
                                                               : QObject::tr("seen from the side"),
                   document_.say(opening, Kind::angle), document_.say(view.panel.open, Kind::angle)));
  const auto project = [&](const Vec3& p) { return view.map(p); };
  const Leg* leg = document_.design().gear.find(d->leg);
  const auto made = leg ? swing::moving_leg(*leg) : std::variant<swing::MovingLeg, Text>(Text());
  const auto* moving = std::get_if<swing::MovingLeg>(&made);
  if (moving && std::abs(view.up.z()) > 0.99) s.ground(moving->wheel().centre.z() - leg->wheel.diameter / 2);
  // The skin that it closes.
  const QPointF hinge = view.map(view.panel.hinge.point);
  const QPointF edge = view.on_door(view.panel.hinge.point + view.panel.width * view.panel.across(0), 0);
  s.pen(Ink::grey, 1, Qt::DashDotLine);
  s.line(hinge - 0.5 * (edge - hinge), hinge);
  s.line(edge, edge + 0.5 * (edge - hinge));
  // The leg on its way.
  if (moving) {
    QColor pale = t.tyre, pale_leg = t.ink;
    pale.setAlpha(24);
    pale_leg.setAlpha(26);
    for (int i = 0; i <= 6; ++i) draw_swung_leg(s, *leg, i / 6.0, project, pale_leg, pale, pale_leg);
    draw_swung_leg(s, *leg, share, project, t.ink, t.tyre, t.ink);
  }
  // Way of the free edge, closed and open ghosts.
  QPolygonF arc;
  for (int i = 0; i <= 40; ++i) arc << view.solid(view.panel.open * i / 40)[1];
  s.no_fill();
  s.pen(Ink::grey, 1, Qt::DotLine);
  s.polyline(arc);
  for (const double ghost : {0.0, view.panel.open}) {
    s.pen(Ink::accent, 1, Qt::DashLine);
    s.polyline(view.solid(ghost), true);
  }
  draw_hold(s, view, opening);
  draw_drive(s, view, opening);
  QColor wash = t.accent;
  wash.setAlpha(70);
  s.pen(Ink::accent, 2.4);
  s.fill(wash);
  s.polyline(view.solid(opening), true);
  s.fill(t.paper);
  s.pen(Ink::normal, 1.6);
  s.painter().drawEllipse(s.frame().to_device(hinge), 4.5 * s.unit(), 4.5 * s.unit());
  s.label(hinge, QObject::tr("hinge"), Ink::accent, Qt::AlignLeft | Qt::AlignBottom, {8, -6}, 8, true);
  s.label(arc.last(), QObject::tr("open %1").arg(document_.say(view.panel.open, Kind::angle)), Ink::grey,
          Qt::AlignHCenter | Qt::AlignTop, {0, 8}, 8);
  if (r->region && moving) {
    const bool fails = r->region->least_open < r->region->wanted;
    s.label(s.frame().to_world(s.frame().device().bottomLeft() + s.unit() * QPointF(0, 16)),
            QObject::tr("leg to the open door: %1, at %2 of its way")
                .arg(document_.say(r->region->least_open, Kind::length),
                     document_.say(r->region->at_turn, Kind::angle)),
            fails ? Ink::fails : Ink::holds, Qt::AlignLeft | Qt::AlignVCenter, {}, 8);
  }
}

void DoorPane::draw_drive(Sheet& s, const View& view, double opening) {
  const Door& d = *door();
  const DoorState& r = *state();
  const auto ball = [&](const QPointF& p, double size = 3.5) {
    s.pen(Ink::normal, 1.4);
    s.fill(Theme::now().paper);
    s.painter().drawEllipse(s.frame().to_device(p), size * s.unit(), size * s.unit());
  };
  const auto rod = [&](const QPointF& a, const QPointF& b, const QString& name) {
    s.pen(Ink::holds, 2);
    s.line(a, b);
    s.label((a + b) / 2, name, Ink::holds, Qt::AlignLeft | Qt::AlignBottom, {6, -4}, 8);
  };
  const auto crank = [&](const doors::DoorLinkage& l, double turn, const QString& name) {
    const QPointF axis = view.map(l.crank.point);
    const QPointF at = view.map(l.crank.turn(turn) * l.crank_ball);
    const QPointF on_door = view.on_door(l.door_ball, opening);
    s.pen(Ink::normal, 3);
    s.line(axis, at);
    rod(at, on_door, QObject::tr("rod %1").arg(document_.say(l.rod(), Kind::length)));
    for (const QPointF& p : {axis, at, on_door}) ball(p);
    s.label(axis, name, Ink::normal, Qt::AlignRight | Qt::AlignBottom, {-6, -4}, 8);
  };
  switch (d.drive.way) {
    case DoorWay::crank:
      if (r.crank) {
        const auto& [linkage, turn] = *r.crank;
        const double reached = doors::door_turn(linkage, turn);
        double at = turn;
        if (std::isfinite(reached) && opening < reached)
          at = find_root([&](double x) { return doors::door_turn(linkage, x) - opening; }, 0, turn)
                   .value_or(0);
        crank(linkage, opening > 0 ? at : 0, QObject::tr("crank, %1").arg(document_.say(at, Kind::angle)));
      }
      return;
    case DoorWay::leg_rod:
    case DoorWay::wire:
      if (r.follows) {
        const QPointF a =
            view.map(r.follows->ball_at(document_.gear_position() * r.follows->leg.moves.full_turn));
        const QPointF b = view.on_door(r.follows->door_ball, opening);
        rod(a, b, d.drive.way == DoorWay::wire ? QObject::tr("wire") : QObject::tr("rod"));
        ball(a);
        ball(b);
      }
      return;
    case DoorWay::stop_arm:
      if (r.follows) {
        // Drawn stowed, as the door's own numbers are: the panel rides on the leg.
        const auto& l = *r.follows;
        const double turn = document_.gear_position() * l.leg.moves.full_turn;
        const double met = l.stop_meets();
        const double arm = turn >= met ? l.arm_at(turn).turn : l.arm_open;
        crank(l.arm, std::isfinite(arm) ? arm : 0, QObject::tr("arm"));
        s.pen(Ink::tight, 2);
        const Vec3 along = (l.stop - l.arm.crank.point).normalized() * l.arm_length;
        s.line(view.map(l.arm.crank.point),
               view.map(l.arm.crank.turn(std::isfinite(arm) ? arm : 0) * Vec3(l.arm.crank.point + along)));
        ball(view.map(l.stop), 5);
        s.label(view.map(l.stop), QObject::tr("stop"), Ink::tight, Qt::AlignLeft | Qt::AlignBottom, {7, -5},
                8);
      }
      return;
    case DoorWay::on_hinge:
    case DoorWay::wheel:
      return;
  }
}

void DoorPane::draw_hold(Sheet& s, const View& view, double opening) {
  const Door& d = *door();
  const DoorHold& h = d.hold;
  if (h.spring_door.known() && h.spring_airframe.known()) {
    const QPointF a = view.map(h.spring_airframe.vec());
    const QPointF b = view.on_door(h.spring_door.vec(), opening);
    s.pen(Ink::tight, 2, Qt::DashLine);
    s.line(a, b);
    s.pen(Ink::normal, 1.4);
    s.fill(Theme::now().paper);
    for (const QPointF& p : {a, b})
      s.painter().drawEllipse(s.frame().to_device(p), 3.5 * s.unit(), 3.5 * s.unit());
    // Its arm about the hinge.
    const QPointF hinge = view.map(view.panel.hinge.point);
    const QPointF way = b - a;
    const double length = std::hypot(way.x(), way.y());
    if (length > 0) {
      const double arm = std::abs((hinge.x() - a.x()) * way.y() - (hinge.y() - a.y()) * way.x()) / length;
      s.label((a + b) / 2, QObject::tr("spring, arm %1").arg(document_.say(arm, Kind::length)), Ink::tight,
              Qt::AlignLeft | Qt::AlignTop, {6, 4}, 8);
    }
  }
  if (h.magnet_force > 0 && h.magnet_out.known()) {
    const QPointF at = view.map(view.panel.hinge.point + h.magnet_out * view.panel.across(view.panel.open));
    s.pen(Ink::normal, 1.4);
    s.fill(Theme::now().grey);
    const QPointF p = s.frame().to_device(at);
    s.painter().drawRect(QRectF(p - s.unit() * QPointF(5, 5), s.unit() * QSizeF(10, 10)));
    s.label(at, QObject::tr("magnet"), Ink::grey, Qt::AlignRight | Qt::AlignVCenter, {-9, 0}, 8);
  }
}

std::vector<Handle> DoorPane::handles() const {
  const Door* d = door();
  const DoorState* r = state();
  std::vector<Handle> list;
  if (!d || !r || !r->panel) return list;
  const View view(*r->panel);
  double opening = doors::opening_at(document_.design(), *d, document_.gear_position());
  if (!std::isfinite(opening)) opening = 0;
  const auto its = [id = d->id](Design& x) -> Door* {
    for (Door& y : x.doors)
      if (y.id == id) return &y;
    return nullptr;
  };
  const auto shift = [](Point& p, const Vec3& by) {
    p.x.si += by.x();
    p.y.si += by.y();
    p.z.si += by.z();
  };
  list.push_back({"door-hinge", QObject::tr("hinge"), view.map(view.panel.hinge.point), 11,
                  [=](Design& x, double dx, double dy) {
                    if (Door* door = its(x))
                      for (Point* p : {&door->hinge_from, &door->hinge_to}) shift(*p, view.way(dx, dy));
                  }});
  const QPointF hinge = view.map(view.panel.hinge.point);
  const QPointF edge = view.solid(view.panel.open)[1];
  list.push_back({"door-open", QObject::tr("opening"), edge, 11, [=](Design& x, double dx, double dy) {
                    Door* door = its(x);
                    if (!door) return;
                    const QPointF from = edge - hinge;
                    const QPointF to = from + QPointF(dx, dy);
                    const double turn = std::atan2(from.x() * to.y() - from.y() * to.x(),
                                                   from.x() * to.x() + from.y() * to.y());
                    // Opening turns clockwise where the panel lies to the right.
                    const double sense = view.panel.out.dot(view.e) > 0 ? -1 : 1;
                    door->open_angle.si =
                        std::clamp(door->open_angle + sense * turn, radians(5), radians(200));
                  }});
  list.push_back({"door-width", QObject::tr("free edge: width of the panel"), view.solid(0)[1], 8,
                  [=](Design& x, double dx, double dy) {
                    if (Door* door = its(x))
                      door->width.si =
                          std::max(1e-3, door->width + view.way(dx, dy).dot(view.panel.across(0)));
                  }});
  const auto fixed = [&](const char* id, const QString& name, const Point& p, auto of) {
    if (!p.known()) return;
    list.push_back({id, name, view.map(p.vec()), 9, [=](Design& x, double dx, double dy) {
                      if (Door* door = its(x)) shift(of(*door), view.way(dx, dy));
                    }});
  };
  const auto carried = [&](const char* id, const QString& name, const Point& p, auto of) {
    if (!p.known()) return;
    list.push_back({id, name, view.on_door(p.vec(), opening), 9, [=](Design& x, double dx, double dy) {
                      if (Door* door = its(x)) shift(of(*door), view.way_closed(dx, dy, opening));
                    }});
  };
  const DoorWay way = d->drive.way;
  const bool cranked = way == DoorWay::crank || way == DoorWay::stop_arm;
  if (cranked && d->drive.with.empty())
    fixed("door-crank", QObject::tr("crank's axis"), d->drive.crank,
          [](Door& x) -> Point& { return x.drive.crank; });
  if (cranked)
    fixed("door-crank-ball", QObject::tr("rod's end on the crank, closed"), d->drive.crank_ball,
          [](Door& x) -> Point& { return x.drive.crank_ball; });
  if (way != DoorWay::on_hinge && way != DoorWay::wheel)
    carried("door-ball", QObject::tr("rod's end on the door"), d->drive.door_ball,
            [](Door& x) -> Point& { return x.drive.door_ball; });
  if (way == DoorWay::leg_rod || way == DoorWay::wire)
    fixed("door-leg-ball", QObject::tr("its end on the leg, gear up"), d->drive.leg_ball,
          [](Door& x) -> Point& { return x.drive.leg_ball; });
  if (way == DoorWay::stop_arm)
    fixed("door-stop", QObject::tr("stop"), d->drive.stop, [](Door& x) -> Point& { return x.drive.stop; });
  fixed("door-spring-anchor", QObject::tr("spring's anchor"), d->hold.spring_airframe,
        [](Door& x) -> Point& { return x.hold.spring_airframe; });
  carried("door-spring", QObject::tr("spring's end on the door"), d->hold.spring_door,
          [](Door& x) -> Point& { return x.hold.spring_door; });
  return list;
}

void DoorHoldPane::draw(Sheet& s) {
  const QRectF area = s.frame().device();
  s.card(area);
  const DoorState* r = state_of(document_.assessment(), shown_());
  Diagram g;
  g.title = QObject::tr("Moment about the hinge");
  g.y_title = document_.unit(Kind::moment);
  g.x_title = QObject::tr("open by, °");
  g.y_factor = 1 / display_unit(Kind::moment, document_.units()).to_si;
  if (!r || !r->held) {
    s.label(s.frame().to_world(area.center()),
            QObject::tr("what would close it and what holds it: enter its mass, the airspeed, spring, drive"),
            Ink::grey, Qt::AlignCenter, {}, 8.5);
    return;
  }
  const doors::HeldDoor& h = *r->held;
  NamedCurve spring{{}, QObject::tr("of that the spring"), Theme::now().tight};
  constexpr int steps = 90;
  for (int i = 0; i <= steps; ++i) {
    // A magnet holds at the end alone: drawn up to just before it.
    const double a = h.open * i / steps * (1 - 1e-6);
    const double x = degrees(a);
    g.curve.push_back({x, h.holding(a)});
    g.second.push_back({x, doors::reserve * std::max(0.0, h.closing(a))});
    if (h.spring) spring.points.push_back({x, h.spring_torque(a)});
  }
  g.fit();
  for (const auto& p : g.second) {
    g.y_low = std::min(g.y_low, p.y());
    g.y_high = std::max(g.y_high, 1.08 * p.y());
  }
  if (h.spring) g.more.push_back(spring);
  const double open = degrees(h.open);
  const bool fails = !r->figures->held_open;
  g.marks.push_back({{open, h.holding(h.open)},
                     QObject::tr("holds, open: %1").arg(document_.say(h.holding(h.open), Kind::moment)),
                     fails ? Ink::fails : Ink::holds});
  g.y_high = std::max(g.y_high, 1.08 * h.holding(h.open));
  const double needs = doors::reserve * std::max(0.0, h.closing(h.open));
  g.marks.push_back(
      {{open, needs}, QObject::tr("1.3 × closes: %1").arg(document_.say(needs, Kind::moment)), Ink::grey});
  g.draw(s, area);
}

}  // namespace kranich::app
