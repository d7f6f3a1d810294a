// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawing/drive_pane.h"

#include <algorithm>
#include <cmath>

#include "app/drawing/diagram.h"
#include "app/drawing/leg_point.h"
#include "app/widgets/findings.h"
#include "core/assess/drive_state.h"
#include "core/motion/retract.h"

namespace kranich::app {
namespace {

//! What is dragged: on the airframe as it is; on the leg where it stands down.
struct End {
  const char* id;
  QString name;
  Point* (*of)(Leg&);
};
std::vector<End> ends() {
  return {
      {"drive-airframe", QObject::tr("drive's end on the airframe"),
       [](Leg& l) { return &l.retraction.drive.on_airframe; }},
      {"drive-leg", QObject::tr("drive's end on the leg"), [](Leg& l) { return &l.retraction.drive.on_leg; }},
      {"down-spring-airframe", QObject::tr("down-spring's end on the airframe"),
       [](Leg& l) { return &l.retraction.drive.down_spring.on_airframe; }},
      {"down-spring-leg", QObject::tr("down-spring's end on the leg"),
       [](Leg& l) { return &l.retraction.drive.down_spring.on_leg; }},
      {"hook", QObject::tr("up-lock's hook"), [](Leg& l) { return &l.retraction.uplock.hook; }},
      {"brace-airframe", QObject::tr("brace's end on the airframe"),
       [](Leg& l) { return &l.brace_airframe; }},
      {"brace-leg", QObject::tr("brace's end on the leg"), [](Leg& l) { return &l.brace_leg; }}};
}

}  // namespace

const AnchorMap* DrivePane::anchor_map() const {
  if (!shown_end) return nullptr;
  if (seen_ != document_.revision() || seen_leg_ != leg || seen_end_ != shown_end) {
    seen_ = document_.revision();
    seen_leg_ = leg;
    seen_end_ = shown_end;
    model_.reset();
    needs_ = {};
    auto made = AnchorModel::of(document_.design(), the_leg(), *shown_end,
                                from_behind() ? Vec3(Vec3::UnitY()) : Vec3(Vec3::UnitX()));
    if (auto* missing = std::get_if<Text>(&made)) {
      needs_ = std::move(*missing);
    } else {
      model_ = std::get<AnchorModel>(std::move(made));
      map_ = model_->map();
    }
  }
  return model_ ? &map_ : nullptr;
}

QString DrivePane::map_needs() const {
  return shown_end && !anchor_map() ? text_of(needs_, document_.units()) : QString();
}

//! Where the end may stand: clear in two tones, every limit a line with its name, the nearest clear place,
//! and which way ten millimetres are worth most.
void DrivePane::draw_map(Sheet& s) {
  const AnchorMap* m = anchor_map();
  // The leg's end is given with the leg down: elsewhere its map would lie beside it.
  if (!m || (*shown_end == AnchorEnd::leg && document_.gear_position() > 1e-6)) return;
  const auto at = [&](const Eigen::Vector2d& moved) { return map(model_->place(moved)); };
  const Theme& t = Theme::now();
  // On a sheet of its own, so that the two tones do not mix, laid over the drawing thinly.
  const QRectF whole = s.frame().device();
  const double fine = s.painter().device()->devicePixelRatioF();
  QImage layer((whole.size() * fine).toSize(), QImage::Format_ARGB32_Premultiplied);
  layer.setDevicePixelRatio(fine);
  layer.fill(Qt::transparent);
  QPainter tones(&layer);
  tones.translate(-whole.topLeft());
  const auto fill = [&](const std::vector<MapPolygon>& pieces, const QColor& colour) {
    std::vector<QPolygonF> list;
    for (const auto& piece : pieces)
      for (list.emplace_back(); const auto& p : piece) list.back() << s.frame().to_device(at(p));
    fill_pieces(tones, list, colour);
  };
  fill(m->clear, t.tight);
  fill(m->easy, t.holds);
  tones.end();
  s.painter().setOpacity(0.26);
  s.painter().drawImage(whole.topLeft(), layer);
  s.painter().setOpacity(1);
  QPolygonF frame;
  for (const auto& [x, y] : {std::pair{m->area.x_low, m->area.y_low},
                             {m->area.x_high, m->area.y_low},
                             {m->area.x_high, m->area.y_high},
                             {m->area.x_low, m->area.y_high}})
    frame << at({x, y});
  s.no_fill();
  s.pen(Ink::faint, 1, Qt::DotLine);
  frame << frame.front();
  s.polyline(frame);
  std::vector<QRectF> taken;
  const QPointF here = s.frame().to_device(at({0, 0}));
  taken.push_back(QRectF(here - QPointF(20, 14), QSizeF(40, 28)));
  // Where the drive's own name and the mass's stand.
  const Drive& r = the_leg().retraction.drive;
  const QPointF middle = s.frame().to_device((map(r.on_airframe.vec()) + map(r.on_leg.vec())) / 2);
  taken.push_back(QRectF(middle + QPointF(4, -22), QSizeF(140, 20)));
  if (const auto cg = mass_at(0))
    taken.push_back(QRectF(s.frame().to_device(map(cg->second)), QSizeF(70, 22)));
  const QFontMetricsF metrics(text_font(8), s.painter().device());
  for (const auto& b : m->boundaries) {
    const QString name = text_of(b.name, document_.units());
    std::vector<QPointF> points;
    for (const auto& curve : b.curves) {
      QPolygonF line;
      for (const auto& p : curve) line << at(p);
      limit_line(s, line);
      for (const auto& p : line) points.push_back(s.frame().to_device(p));
    }
    const QSizeF size(metrics.horizontalAdvance(name) + 6, 13);
    for (const double share : {0.1, 0.9, 0.3, 0.7, 0.5, 0.02, 0.98}) {
      if (points.empty()) break;
      const QPointF p = points[static_cast<size_t>(share * static_cast<double>(points.size() - 1))];
      const QRectF spot(p + QPointF(6, -size.height() / 2), size);
      if (std::any_of(taken.begin(), taken.end(), [&](const QRectF& q) { return q.intersects(spot); }))
        continue;
      taken.push_back(spot);
      s.label(s.frame().to_world(spot.center()), name, Ink::normal, Qt::AlignHCenter | Qt::AlignVCenter, {},
              8);
      break;
    }
  }
  // The clear by its name, in the first piece from above that has room for it.
  bool named = false;
  for (const bool easy : {true, false}) {
    const QString name = easy ? QObject::tr("clear") : QObject::tr("clear, but tight");
    const double width = metrics.horizontalAdvance(name) + 8;
    const auto& pieces = easy ? m->easy : m->clear;
    for (auto piece = pieces.rbegin(); piece != pieces.rend() && !named; ++piece) {
      QPolygonF polygon;
      for (const auto& p : *piece) polygon << s.frame().to_device(at(p));
      const QRectF spot(polygon.boundingRect().center() - QPointF(width / 2, -4), QSizeF(width, 14));
      if (polygon.boundingRect().width() < width ||
          std::any_of(taken.begin(), taken.end(), [&](const QRectF& q) { return q.intersects(spot); }))
        continue;
      taken.push_back(spot);
      s.label(s.frame().to_world(spot.center()), name, easy ? Ink::holds : Ink::tight,
              Qt::AlignHCenter | Qt::AlignVCenter, {}, 8, true);
      named = true;
    }
  }
  if (m->clear.empty()) {
    s.label(at({0, m->area.y_high}), QObject::tr("no place here meets every limit"), Ink::fails,
            Qt::AlignHCenter | Qt::AlignBottom, {0, -4}, 8, true);
  } else if (m->nearest) {
    const QPointF to = at(*m->nearest);
    s.pen(Ink::holds, 1.6, Qt::DashLine);
    s.line(at({0, 0}), to);
    s.painter().drawEllipse(s.frame().to_device(to), 5, 5);
    s.label(to, QObject::tr("clear from here: %1").arg(document_.say(m->nearest->norm(), Kind::length)),
            Ink::holds, Qt::AlignLeft | Qt::AlignVCenter, {10, 0}, 8, true);
  }
  if (!m->worth) return;
  // An arrow as long as can be seen; its words say what ten millimetres give.
  const QPointF there = s.frame().to_device(at(m->worth->way)) - here;
  const QPointF way = there / std::hypot(there.x(), there.y());
  const QPointF tip = here + 34 * way, side(-way.y(), way.x());
  s.pen(Ink::accent, 2);
  s.painter().drawLine(here + 9 * way, tip);
  s.painter().drawLine(tip, tip - 8 * way + 5 * side);
  s.painter().drawLine(tip, tip - 8 * way - 5 * side);
  s.label(s.frame().to_world(tip),
          QObject::tr("%1 of force for %2")
              .arg((m->worth->gain < 0 ? "−" : "+") + document_.say(std::abs(m->worth->gain), Kind::share),
                   document_.say(0.010, Kind::length)),
          Ink::accent, (way.x() < 0 ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter,
          {way.x() < 0 ? -6.0 : 6.0, way.y() * 8}, 8, true);
}

std::optional<std::pair<double, Vec3>> DrivePane::mass_at(double turn) const {
  const auto made = drive_load(document_.design(), the_leg());
  const auto* load = std::get_if<DriveLoad>(&made);
  if (!load) return std::nullopt;
  double mass = 0;
  Vec3 at(0, 0, 0);
  for (const auto& m : load->load.masses) {
    mass += m.mass;
    at += m.mass * (load->load.moves.pose(m.carried, turn) * m.at);
  }
  return std::pair{mass, Vec3(at / mass)};
}

void DrivePane::draw(Sheet& s) {
  SwingPane::draw(s);
  draw_map(s);
  const Leg& l = the_leg();
  const auto moves = motion::retracting(l);
  if (!moves) return;
  const double turn = document_.gear_position() * l.retraction.unit_angle;
  const auto moved = [&](const Vec3& p) { return map(moves->pose(motion::Carried::leg, turn) * p); };
  const Drive& r = l.retraction.drive;
  const auto strut = [&](const Point& fixed, const Point& moving, Ink ink, double thick,
                         const QString& name) {
    if (!fixed.known() || !moving.known()) return;
    const QPointF a = map(fixed.vec());
    const QPointF b = moved(moving.vec());
    s.pen(ink, thick);
    s.line(a, b);
    s.pen(ink, 1.4);
    s.fill(Theme::now().paper);
    for (const QPointF& p : {a, b})
      s.painter().drawEllipse(s.frame().to_device(p), 4 * s.unit(), 4 * s.unit());
    s.label(
        (a + b) / 2,
        QObject::tr("%1 %2").arg(name, document_.say(std::hypot(a.x() - b.x(), a.y() - b.y()), Kind::length)),
        ink, Qt::AlignLeft | Qt::AlignBottom, {8, -6}, 8);
  };
  strut(r.on_airframe, r.on_leg, Ink::accent, 4,
        r.kind == DriveKind::actuator ? QObject::tr("actuator") : QObject::tr("cylinder"));
  strut(r.down_spring.on_airframe, r.down_spring.on_leg, Ink::holds, 2.4, QObject::tr("down-spring"));
  if (const auto linkage = servo_of(l); linkage && r.kind == DriveKind::servo && !from_behind()) {
    // In the plane of the unit, its x towards the nose.
    const auto fit = drive::fit_servo(*linkage);
    const QPointF pivot = map(l.retraction.pivot.vec());
    const auto at = [&](const Eigen::Vector2d& p) { return pivot + QPointF(-p.x(), p.y()); };
    const double unit = linkage->down + document_.gear_position() * (linkage->stowed - linkage->down);
    const Eigen::Vector2d ball = drive::servo_ball(*linkage, fit, drive::servo_at(*linkage, fit, unit));
    const Eigen::Vector2d pin = drive::unit_pin(*linkage, unit);
    s.pen(Ink::accent, 2.6);
    s.line(at({0, 0}), at(pin));
    s.line(at(linkage->servo), at(ball));
    s.pen(Ink::accent, 1.4);
    s.line(at(pin), at(ball));
    s.fill(Theme::now().paper);
    for (const auto& p : {Eigen::Vector2d(0, 0), pin, ball, linkage->servo})
      s.painter().drawEllipse(s.frame().to_device(at(p)), 3.5 * s.unit(), 3.5 * s.unit());
    // Its body as wide as a servo is to its arm, and which way the arm goes to stow the leg, as seen here.
    // This view is from port: what is counter-clockwise from starboard is clockwise here.
    const bool anticlockwise = fit.turn < 0;
    const bool face_here = r.throws == ServoThrow::both_ways || !drive::faces_starboard(fit, r.throws);
    const double arm = fit.servo_arm;
    s.pen(Ink::accent, 1.4, face_here ? Qt::SolidLine : Qt::DashLine);
    s.no_fill();
    const QPointF low = s.frame().to_device(at(linkage->servo) + QPointF(-0.6 * arm, -2.2 * arm));
    const QPointF high = s.frame().to_device(at(linkage->servo) + QPointF(0.6 * arm, 0.6 * arm));
    s.painter().drawRect(QRectF(low, high).normalized());
    const QString way = anticlockwise ? QObject::tr("anticlockwise") : QObject::tr("clockwise");
    s.label(at(linkage->servo) - QPointF(0, 2.2 * arm),
            r.throws == ServoThrow::both_ways ? QObject::tr("servo: stows %1 as seen here").arg(way)
            : face_here ? QObject::tr("servo: stows %1 as seen here, its output face towards you").arg(way)
                        : QObject::tr("servo: stows %1 as seen here, its output face away from you").arg(way),
            Ink::accent, Qt::AlignHCenter | Qt::AlignTop, {0, 4}, 8);
  }
  if (const auto cg = mass_at(turn)) {
    s.cg(map(cg->second), false);
    s.label(map(cg->second), document_.say(cg->first, Kind::mass), Ink::grey, Qt::AlignLeft | Qt::AlignTop,
            {8, 4}, 8);
  }
  if (const Uplock& u = l.retraction.uplock; u.hook.known()) {
    const QPointF p = s.frame().to_device(map(u.hook.vec()));
    s.pen(Ink::normal, 2.2);
    s.painter().drawArc(QRectF(p - QPointF(6, 6), QSizeF(12, 12)), 180 * 16, 220 * 16);
    s.label(map(u.hook.vec()), QObject::tr("up-lock"), Ink::grey, Qt::AlignLeft | Qt::AlignVCenter, {10, 0},
            8);
  }
  if (const auto brace = brace_of(l); brace && turn < 1e-6) {
    // Its knee, a little past straight, to the side on which the stop is drawn.
    const auto flat = [](const swing::Vec2& p) { return QPointF(p.x(), p.y()); };
    const QPointF a = flat(brace->anchor);
    const QPointF b = flat(brace->pin);
    const double off = swing::brace_figures(*brace).offset;
    if (!std::isfinite(off)) return;
    const QPointF knee = flat(swing::knee_of(*brace));
    s.pen(Ink::grey, 3);
    s.line(a, knee);
    s.line(knee, b);
    s.label(knee, QObject::tr("knee %1 past straight").arg(document_.say(off, Kind::length)), Ink::grey,
            Qt::AlignLeft | Qt::AlignBottom, {6, -4}, 8);
  }
}

std::vector<Handle> DrivePane::handles() const {
  std::vector<Handle> list;
  const Leg& l = the_leg();
  const auto axis = motion::stowing_axis(l);
  if (!axis || document_.gear_position() > 1e-6) return list;  // the ends are given with the leg down
  Leg as_it_is = l;                                            // only looked at
  for (const End& end : ends())
    if (const Point* p = end.of(as_it_is); p->known())
      list.push_back(leg_point(leg, QString::fromLatin1(end.id), end.name, map(p->vec()),
                               from_behind() ? SeenFrom::behind : SeenFrom::the_side, end.of));
  return list;
}

void TorquePane::draw(Sheet& s) {
  Diagram g;
  g.title = QObject::tr("Torques; bold: the drive, up; dashed: down");
  const Leg* l = document_.design().gear.find(leg);
  if (!l || !l->retraction.fitted) return;
  const auto made = drive_load(document_.design(), *l);
  const auto* load = std::get_if<DriveLoad>(&made);
  if (!load) {
    g.title = QObject::tr("Torques need %1").arg(text_of(std::get<Text>(made), document_.units()));
    g.draw(s, s.frame().device());
    return;
  }
  const auto& unit = display_unit(Kind::moment, document_.units());
  g.x_title = QObject::tr("turn, °");
  g.y_title = text_of(unit.symbol);
  g.x_factor = 180 / M_PI;
  g.y_factor = 1 / unit.to_si;
  const Theme& t = Theme::now();
  NamedCurve weight{{}, QObject::tr("weight"), t.grey};
  NamedCurve air{{}, QObject::tr("air"), t.accent};
  NamedCurve spring{{}, QObject::tr("down-spring"), t.holds};
  constexpr int steps = 60;
  const auto& legs = load->load;
  for (int i = 0; i <= steps; ++i) {
    const double turn = legs.moves.full_turn * i / steps;
    weight.points.push_back({turn, legs.weight_torque(turn)});
    air.points.push_back({turn, legs.air_torque(turn)});
    spring.points.push_back({turn, legs.spring_torque(turn)});
    g.curve.push_back({turn, legs.to_retract(turn)});
    g.second.push_back({turn, -legs.to_extend(turn)});
  }
  g.more.push_back(weight);
  if (legs.stream.speed > 0) g.more.push_back(air);
  if (legs.spring) g.more.push_back(spring);
  g.fit();
  for (const auto* c : {&weight, &air, &spring})
    for (const auto& p : c->points) {
      g.y_low = std::min(g.y_low, p.y());
      g.y_high = std::max(g.y_high, p.y());
    }
  for (const auto& p : g.second) {
    g.y_low = std::min(g.y_low, p.y());
    g.y_high = std::max(g.y_high, p.y());
  }
  const double now = document_.gear_position() * legs.moves.full_turn;
  if (now > 0)  // where the gear is on its way
    g.marks.push_back(
        {{now, legs.to_retract(now)}, document_.say(legs.to_retract(now), Kind::moment), Ink::accent, true});
  g.draw(s, s.frame().device());
}

void DriveForcePane::draw(Sheet& s) {
  const Leg* l = document_.design().gear.find(leg);
  if (!l || !l->retraction.fitted) return;
  Diagram g;
  const auto made = drive_load(document_.design(), *l);
  const auto* load = std::get_if<DriveLoad>(&made);
  const auto strut = actuator_of(*l);
  const Drive& r = l->retraction.drive;
  const bool pushes = is_strut(r.kind);
  if (load && r.kind == DriveKind::servo && servo_of(*l)) {
    const auto linkage = *servo_of(*l);
    const auto fit = drive::fit_servo(linkage);
    g.title = QObject::tr("Unit's way over the servo's throw; it rests at both ends");
    g.x_title = QObject::tr("throw, %");
    g.y_title = QStringLiteral("%");
    g.x_factor = g.y_factor = 100;
    for (int i = 0; i <= 80; ++i) {
      const double unit = drive::unit_at(linkage, fit, fit.arm_at(i / 80.0));
      if (std::isfinite(unit))
        g.curve.push_back({i / 80.0, (unit - linkage.down) / (linkage.stowed - linkage.down)});
    }
    if (!g.curve.empty()) g.fit();
    g.draw(s, s.frame().device());
    return;
  }
  if (!load || !strut || !pushes) {
    g.title = pushes ? QObject::tr("Force needs the drive's two ends and its loads")
                     : QObject::tr("Force over the turn: of an actuator or a cylinder");
    g.draw(s, s.frame().device());
    return;
  }
  const auto& unit = display_unit(Kind::force, document_.units());
  g.title = QObject::tr("Force, pushing positive; shaded: what it can");
  g.x_title = QObject::tr("turn, °");
  g.y_title = text_of(unit.symbol);
  g.x_factor = 180 / M_PI;
  g.y_factor = 1 / unit.to_si;
  constexpr int steps = 90;
  for (int i = 0; i <= steps; ++i) {
    const double turn = load->load.moves.full_turn * i / steps;
    const double arm = drive::arm_of(load->load.moves, *strut, turn);
    if (std::abs(arm) < 1e-3) continue;  // at a dead centre it goes beyond all bounds
    g.curve.push_back({turn, drive::moving_force(load->load, *strut, turn, true)});
    g.second.push_back({turn, drive::moving_force(load->load, *strut, turn, false)});
  }
  if (g.curve.empty()) return;
  g.fit();
  for (const auto& p : g.second) {
    g.y_low = std::min(g.y_low, p.y());
    g.y_high = std::max(g.y_high, p.y());
  }
  const auto [push, pull] = strut_can(document_.design(), *l);
  if (std::isfinite(push) && std::isfinite(pull)) {
    g.band_low = -pull;
    g.band_high = push;
    g.band_ink = Ink::holds;
    g.y_low = std::min(g.y_low, -1.1 * pull);
    g.y_high = std::max(g.y_high, 1.1 * push);
  }
  const double now = document_.gear_position() * load->load.moves.full_turn;
  const double arm = drive::arm_of(load->load.moves, *strut, now);
  if (now > 0 && std::abs(arm) > 1e-3)
    g.marks.push_back(
        {{now, drive::moving_force(load->load, *strut, now, true)},
         QObject::tr("%1, arm %2")
             .arg(document_.say(drive::moving_force(load->load, *strut, now, true), Kind::force),
                  document_.say(std::abs(arm), Kind::length)),
         Ink::accent,
         true});
  g.draw(s, s.frame().device());
}

}  // namespace kranich::app
