// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawing/aircraft.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <numbers>

#include "core/assess/standing.h"
#include "core/motion/retract.h"
#include "core/motion/suspend.h"
#include "core/swing/swing.h"

namespace kranich::app {
namespace {

QRectF around(const QPolygonF& points, double margin) {
  QRectF r = points.boundingRect();
  // A QRectF of world coordinates has its "top" at the smallest y: fine for a frame, which only needs
  // extents.
  return r.adjusted(-margin, -margin, margin, margin);
}

//! Outline of a body in the side view: tops forward to back, bottoms back again.
//! A smooth line through points in their order (Catmull and Rom's, centripetal: no loops, no overshoot where
//! they stand close). Two points are a straight line.
QPolygonF smooth_piece(const QPolygonF& through) {
  if (through.size() < 3) return through;
  const auto ghost = [](const QPointF& a, const QPointF& b) { return a + (a - b); };
  QPolygonF line;
  constexpr int steps = 8;
  for (int i = 0; i + 1 < through.size(); ++i) {
    const QPointF p1 = through[i], p2 = through[i + 1];
    const QPointF p0 = i > 0 ? through[i - 1] : ghost(p1, p2);
    const QPointF p3 = i + 2 < through.size() ? through[i + 2] : ghost(p2, p1);
    const auto knot = [](const QPointF& a, const QPointF& b) {
      return std::max(1e-9, std::sqrt(std::hypot(b.x() - a.x(), b.y() - a.y())));
    };
    const double t1 = knot(p0, p1), t2 = t1 + knot(p1, p2), t3 = t2 + knot(p2, p3);
    for (int k = 0; k < steps; ++k) {
      const double t = t1 + (t2 - t1) * k / steps;
      const auto mix = [&](const QPointF& a, const QPointF& b, double from, double to) {
        return a * ((to - t) / (to - from)) + b * ((t - from) / (to - from));
      };
      const QPointF a1 = mix(p0, p1, 0, t1), a2 = mix(p1, p2, t1, t2), a3 = mix(p2, p3, t2, t3);
      const QPointF b1 = mix(a1, a2, 0, t2), b2 = mix(a2, a3, t1, t3);
      line << mix(b1, b2, t1, t2);
    }
  }
  line << through.back();
  return line;
}

//! A line and which of its points are corners.
struct Traced {
  QPolygonF points;
  std::vector<bool> corners;
  void add(const QPointF& p, bool corner) {
    points << p;
    corners.push_back(corner);
  }
};

//! Smooth from corner to corner.
QPolygonF smooth(const Traced& t) {
  QPolygonF line;
  qsizetype from = 0;
  for (qsizetype i = 1; i < t.points.size(); ++i) {
    if (!t.corners[static_cast<size_t>(i)] && i + 1 < t.points.size()) continue;
    QPolygonF piece = smooth_piece(t.points.mid(from, i - from + 1));
    if (!line.isEmpty()) piece.removeFirst();
    line << piece;
    from = i;
  }
  return line.isEmpty() ? t.points : line;
}

//! A body's outline from one chain of points forward and one back: each smooth, its front end rounded.
QPolygonF round_body(const Traced& forward, Traced backward) {
  const QPolygonF& there = forward.points;
  const QPolygonF back = backward.points;
  QPolygonF outline = smooth(forward);
  std::reverse(backward.points.begin(), backward.points.end());
  std::reverse(backward.corners.begin(), backward.corners.end());
  QPolygonF behind = smooth(backward);
  std::reverse(behind.begin(), behind.end());
  outline << behind;
  // An end that is a corner stays one.
  if (there.isEmpty() || back.isEmpty() || forward.corners.front()) return outline;
  // From the last point (lower front end) round to the first (upper front end).
  const QPointF low = behind.back(), high = outline.front(), middle = (low + high) / 2, up = (high - low) / 2;
  const QPointF ahead = QPointF(-up.y(), up.x()) * 0.45;
  const QPointF inward = there.size() > 1 ? there[1] - there[0] : QPointF(1, 0);
  const double sign = QPointF::dotProduct(ahead, inward) > 0 ? -1 : 1;
  for (int k = 1; k < 10; ++k) {
    const double angle = -std::numbers::pi / 2 + std::numbers::pi * k / 10;
    outline << middle + up * std::sin(angle) + sign * ahead * std::cos(angle);
  }
  return outline;
}

}  // namespace

QPolygonF body_outline(const Body& b, const Map& map) {
  Traced top, bottom;
  for (const auto& s : b.sections)
    if (s.x.known() && s.top.known()) top.add(map({s.x, b.y, s.top}), s.corner);
  for (auto s = b.sections.rbegin(); s != b.sections.rend(); ++s)
    if (s->x.known() && s->bottom.known()) bottom.add(map({s->x, b.y, s->bottom}), s->corner);
  return round_body(top, bottom);
}

QPolygonF body_plan(const Body& b, double side, const Map& map) {
  const double y = b.y.known() ? b.y.si : 0;
  Traced right, left;
  for (const auto& s : b.sections)
    if (s.x.known() && s.half_width.known()) right.add(map({s.x, side * y + s.half_width, 0}), s.corner);
  for (auto s = b.sections.rbegin(); s != b.sections.rend(); ++s)
    if (s->x.known() && s->half_width.known()) left.add(map({s->x, side * y - s->half_width, 0}), s->corner);
  return round_body(right, left);
}

QPolygonF closed_outline(const std::vector<OutlinePoint>& points, bool smoothly, const Map& map) {
  Traced outline;
  for (const auto& p : points)
    if (p.x.known() && p.z.known()) outline.add(map({p.x, 0, p.z}), p.corner);
  return smoothly ? smooth(outline) : outline.points;
}

namespace {

QPolygonF body_side(const Pose& pose, const Body& b) {
  return body_outline(b, [&](const Vec3& p) { return pose.side(p); });
}

QPolygonF side_outline(const Pose& pose, const std::vector<OutlinePoint>& points, bool smoothly) {
  return closed_outline(points, smoothly, [&](const Vec3& p) { return pose.side(p); });
}

bool known(const Surface& s) {
  return s.root_leading_edge_x.known() && s.span.known() && s.root_chord.known() && s.tip_chord.known() &&
         s.root_z.known();
}
double or_zero(const Given& g) { return g.known() ? g.si : 0; }

}  // namespace

Vec3 surface_point(const Surface& s, double share, double chord_share) {
  const double y = share * s.span / 2;
  const double chord = s.root_chord + share * (s.tip_chord - s.root_chord);
  return {s.root_leading_edge_x + y * std::tan(or_zero(s.sweep)) + chord_share * chord, y,
          s.root_z + y * std::tan(or_zero(s.dihedral)) -
              (chord_share - 0.25) * chord * std::sin(or_zero(s.incidence))};
}

namespace {

//! A thin wing section at a share of the half span.
QPolygonF section(const Pose& pose, const Surface& s, double share) {
  QPolygonF outline;
  for (const auto& [c, t] : {std::pair{0.0, 0.0},
                             {0.05, 0.045},
                             {0.3, 0.08},
                             {0.7, 0.045},
                             {1.0, 0.0},
                             {0.6, -0.025},
                             {0.2, -0.035},
                             {0.03, -0.02}}) {
    Vec3 p = surface_point(s, share, c);
    p.z() += t * (s.root_chord + share * (s.tip_chord - s.root_chord));
    outline << pose.side(p);
  }
  return outline;
}

struct Palette {
  QColor outline, body, glass, tyre, rim, leg;
};
//! A guessed outline is drawn lighter than one that somebody entered.
Palette palette(Look look, const Design& d) {
  const Theme& t = Theme::now();
  if (look == Look::full && !d.airframe.bodies.empty() && !d.airframe.bodies[0].sections.empty() &&
      d.airframe.bodies[0].sections[0].x.origin == Origin::guessed) {
    const auto half = [&](const QColor& c) {
      return QColor((c.red() + t.paper.red()) / 2, (c.green() + t.paper.green()) / 2,
                    (c.blue() + t.paper.blue()) / 2);
    };
    return {t.grey, half(t.body), half(t.glass), half(t.tyre), t.rim, t.grey};
  }
  if (look == Look::full) return {t.ink, t.body, t.glass, t.tyre, t.rim, t.ink};
  const QColor c = look == Look::ghost ? t.faint : t.pinned;
  return {c, Qt::transparent, Qt::transparent, Qt::transparent, Qt::transparent, c};
}

//! Where the parts of a leg are in the pose's state and gear position, aircraft axes, starboard or third.
struct LegPose {
  Vec3 top, lower, centre, axle;
  std::optional<Vec3> hinge;  //!< of a leg whose fixed strut carries it: where strut and arm meet
};
LegPose leg_pose(const Leg& leg, const Pose::Wheel& wheel, double position) {
  LegPose l;
  l.centre = wheel.axle;
  l.axle = wheel.direction;
  l.lower = motion::foot_under(leg, l.centre, l.axle);
  l.top = motion::strut_above_hinge(leg);
  if (l.top.allFinite())
    l.hinge = leg.hinge.vec();
  else
    l.top = leg.held_at();
  if (!l.top.allFinite()) l.top = l.lower + Vec3(0, 0, 0.3);
  if (position > 0)
    if (const auto moves = motion::retracting(leg)) {
      const double at = position * moves->full_turn;
      const Eigen::Isometry3d leg_turn = moves->pose(motion::Carried::leg, at);
      const Eigen::Isometry3d turn = moves->pose(motion::Carried::wheel, at);
      if (!turn.matrix().allFinite()) return l;
      l.centre = turn * l.centre;
      l.lower = turn * l.lower;
      l.top = leg_turn * l.top;
      if (l.hinge) l.hinge = turn * *l.hinge;
      l.axle = turn.linear() * l.axle;
    }
  return l;
}

//! A wheel's silhouette: it is convex, so the hull of its projected rims.
void draw_wheel(Sheet& s, const Vec3& centre, const Vec3& axle, const Wheel& w, const Palette& c,
                const Map& map) {
  const double radius = w.diameter / 2;
  const double half = or_zero(w.width) / 2;
  const double shoulder = std::min({or_zero(w.shoulder_radius), radius / 2, half});
  const Vec3 across =
      (std::abs(axle.x()) < 0.9 ? axle.cross(Vec3::UnitX()) : axle.cross(Vec3::UnitZ())).normalized();
  const Vec3 other = axle.cross(across);
  const auto rim = [&](double along, double r) {
    QPolygonF ring;
    for (int i = 0; i < 60; ++i) {
      const double a = i * M_PI / 30;
      ring << s.frame().to_device(
          map(centre + along * axle + r * (std::cos(a) * across + std::sin(a) * other)));
    }
    return ring;
  };
  QPolygonF points;
  for (int step = 0; step <= 3; ++step) {  // the rounded shoulder in three steps
    const double a = step * M_PI / 6;
    for (const double side : {1.0, -1.0})
      points << rim(side * (half - shoulder + shoulder * std::sin(a)),
                    radius - shoulder + shoulder * std::cos(a));
  }
  s.pen(c.outline, 1.2);
  s.fill(c.tyre);
  s.painter().drawPolygon(convex_hull(points));
  s.no_pen();
  s.fill(c.rim);
  s.painter().drawPolygon(rim(half, radius * 0.38));
}

//! A rubber cord or a spring between its anchors: a zigzag for what pushes, strands for what pulls.
void draw_spring(Sheet& s, const QPointF& from, const QPointF& to, bool cord, const QColor& colour) {
  const QPointF a = s.frame().to_device(from);
  const QPointF b = s.frame().to_device(to);
  const QPointF along = b - a;
  const double length = std::hypot(along.x(), along.y());
  if (length < 3) return;
  const QPointF across(-along.y() / length, along.x() / length);
  s.pen(colour, cord ? 1.4 : 1.2);
  if (cord) {
    for (const double off : {-2.2, 0.0, 2.2}) s.painter().drawLine(a + off * across, b + off * across);
    return;
  }
  QPolygonF zigzag;
  zigzag << a;
  for (int i = 1; i < 10; ++i) zigzag << a + along * (i / 10.0) + (i % 2 ? 4 : -4) * across;
  zigzag << b;
  s.painter().drawPolyline(zigzag);
}

//! `wheel` of the pose; a port leg is stored as if to starboard and drawn mirrored.
void draw_leg(Sheet& s, const Pose& pose, size_t which, const Palette& c, const Map& view) {
  const Leg& leg = pose.design->gear.legs[pose.placed[which].row];
  if (!leg.axle.known() || !leg.wheel.diameter.known()) return;
  const bool port = pose.placed[which].port;
  const Map map = port ? Map([&](const Vec3& p) { return view(mirrored(p)); }) : view;
  Pose::Wheel wheel = pose.wheels[which];
  if (port) {  // to starboard first
    wheel.axle = mirrored(wheel.axle);
    wheel.direction = Vec3(-wheel.direction.x(), wheel.direction.y(), -wheel.direction.z());
    wheel.turn = turn_about(Vec3::UnitX(), 0);
    const Eigen::AngleAxisd back(pose.wheels[which].turn);
    wheel.turn = turn_about(Vec3(-back.axis().x(), back.axis().y(), -back.axis().z()), back.angle());
  }
  const LegPose l = leg_pose(leg, wheel, pose.position_of(which));
  const double tube = leg.tube_diameter.known() ? leg.tube_diameter.si : 0.03 * leg.wheel.diameter;
  const bool hinged = leg.path != LegPath::straight && leg.hinge.known();
  const auto turned = [&](const Vec3& p) {
    return hinged ? Vec3(leg.hinge.vec() + wheel.turn * (p - leg.hinge.vec())) : p;
  };
  if (leg.tubes.empty()) {
    const Vec3 from = l.hinge.value_or(l.top);
    if (l.hinge) s.bar(map(l.top), map(from), tube, c.leg);
    s.bar(map(from), map(l.lower), tube, c.leg);
  }
  for (const auto& t : leg.tubes)
    if (t.top.known())
      s.bar(map(turned(t.top.vec())), map(t.foot.known() ? turned(t.foot.vec()) : l.lower),
            t.diameter.known() ? t.diameter.si : tube, c.leg);
  const Spring& spring = leg.spring;
  if (hinged && spring.anchor_airframe.known() && spring.anchor_leg.known())
    draw_spring(s, map(spring.anchor_airframe.vec()), map(turned(spring.anchor_leg.vec())),
                spring.kind == SpringKind::cord, c.leg == Theme::now().ink ? Theme::now().accent : c.leg);
  if ((l.centre - l.lower).norm() > 1e-6) s.bar(map(l.lower), map(l.centre), tube * 0.7, c.leg);
  if (leg.wheel_spacing.known()) {  // two on one axle
    const Vec3 half = leg.wheel_spacing / 2 * l.axle;
    s.bar(map(l.centre - half), map(l.centre + half), tube * 0.7, c.leg);
    draw_wheel(s, l.centre - half, l.axle, leg.wheel, c, map);
    draw_wheel(s, l.centre + half, l.axle, leg.wheel, c, map);
  } else {
    draw_wheel(s, l.centre, l.axle, leg.wheel, c, map);
  }
}

//! Legs on the far side of a side view from starboard: those to port.
bool far_side(const Pose& pose, size_t which) { return pose.placed[which].port; }

}  // namespace

QRectF side_bounds(const Pose& pose) {
  QPolygonF points;
  const Design& d = *pose.design;
  for (const auto& b : d.airframe.bodies) points << body_side(pose, b);
  points << side_outline(pose, d.airframe.fin, false) << side_outline(pose, d.airframe.canopy, true);
  for (const auto& p : d.airframe.propellers)
    if (p.hub.known() && p.diameter.known())
      for (double s : {-0.5, 0.5}) points << pose.side(p.hub.vec() + Vec3(0, 0, s * p.diameter));
  points << pose.main_contact();
  if (std::isfinite(pose.third.x)) points << pose.third_contact();
  return around(points, 0.03 * points.boundingRect().width());
}

QRectF front_bounds(const Pose& pose) {
  QPolygonF points;
  const Design& d = *pose.design;
  double half_track = 0;
  for (const auto& leg : d.gear.legs) half_track = std::max(half_track, std::abs(or_zero(leg.axle.y)));
  for (const auto& b : d.airframe.bodies)
    for (const auto& s : b.sections)
      if (s.top.known() && s.half_width.known())
        points << pose.front({s.x, b.y + s.half_width, s.top})
               << pose.front({s.x, -b.y - s.half_width, s.top});
  points << QPointF(-half_track * 1.3, 0) << QPointF(half_track * 1.3, 0);
  for (const auto& o : d.airframe.fin)
    if (o.z.known() && o.x.known()) points << pose.front({o.x, 0, o.z});
  return around(points, 0.05 * points.boundingRect().width());
}

QRectF plan_bounds(const Pose& pose) {
  QPolygonF points;
  const Design& d = *pose.design;
  for (const auto& b : d.airframe.bodies)
    for (const auto& s : b.sections)
      if (s.x.known() && s.half_width.known())
        points << pose.plan({s.x, b.y + s.half_width, 0}) << pose.plan({s.x, -b.y - s.half_width, 0});
  double reach = 0.22 * or_zero(d.airframe.wing.span);
  for (const auto& leg : d.gear.legs) reach = std::max(reach, 1.25 * std::abs(or_zero(leg.axle.y)));
  points << pose.plan({pose.main.x, reach, 0}) << pose.plan({pose.main.x, -reach, 0});
  return around(points, 0.03 * points.boundingRect().width());
}

QPolygonF wing_section(const Pose& pose, double y) {
  return known(pose.design->airframe.wing)
             ? section(pose, pose.design->airframe.wing, 2 * y / pose.design->airframe.wing.span)
             : QPolygonF();
}

void draw_swung_leg(Sheet& s, const Leg& leg, double share, const Map& map, const QColor& leg_colour,
                    const QColor& tyre, const QColor& outline) {
  const auto made = swing::moving_leg(leg);
  const auto* moving = std::get_if<swing::MovingLeg>(&made);
  if (!moving) return;
  const double turn = share * moving->moves.full_turn;
  for (const auto& part : moving->parts)
    if (const auto* c = std::get_if<motion::Capsule>(&part.solid)) {
      const auto at = swing::capsule_at(moving->moves, part, turn);
      s.bar(map(at.from), map(at.to), 2 * c->radius, leg_colour);
    }
  for (const auto& part : moving->parts)
    if (std::holds_alternative<motion::RoundedWheel>(part.solid)) {
      const auto at = swing::wheel_at(moving->moves, part, turn);
      draw_wheel(s, at.centre, at.axle, leg.wheel,
                 {outline, Qt::transparent, Qt::transparent, tyre, tyre.lighter(112), leg_colour}, map);
    }
}

void draw_side(Sheet& s, const Pose& pose, Look look) {
  const Design& d = *pose.design;
  const Palette c = palette(look, d);
  const auto map = [&](const Vec3& p) { return pose.side(p); };
  if (look == Look::full) {
    s.pen(c.outline, 1.3);
    s.fill(c.body);
    s.polyline(side_outline(pose, d.airframe.fin, false), true);
    s.fill(c.glass);
    s.polyline(side_outline(pose, d.airframe.canopy, true), true);
    for (size_t i = 0; i < pose.placed.size(); ++i)
      if (far_side(pose, i))
        draw_leg(s, pose, i,
                 {Theme::now().faint, Theme::now().desk, Qt::transparent, Theme::now().faint,
                  Theme::now().desk, Theme::now().faint},
                 map);
    s.pen(c.outline, 1.3);
    s.fill(c.body);
    for (const auto& b : d.airframe.bodies)
      if (or_zero(b.y) == 0) s.polyline(body_side(pose, b), true);
    for (const auto& surface : {&d.airframe.tailplane, &d.airframe.wing})
      if (known(*surface)) s.polyline(section(pose, *surface, 0.3), true);
    for (const auto& b : d.airframe.bodies)
      if (or_zero(b.y) != 0) s.polyline(body_side(pose, b), true);
  }
  for (size_t i = 0; i < pose.placed.size(); ++i)
    if (!far_side(pose, i)) draw_leg(s, pose, i, c, map);
  if (look == Look::pinned) return;
  for (const auto& p : d.airframe.propellers) {
    if (!p.hub.known() || !p.diameter.known()) continue;
    const Vec3 half(std::sin(or_zero(p.tilt)) * p.diameter / 2, 0,
                    -std::cos(or_zero(p.tilt)) * p.diameter / 2);
    s.pen(look == Look::full ? Theme::now().grey : c.outline, 2.6);
    s.line(pose.side(p.hub.vec() + half), pose.side(p.hub.vec() - half));
    s.fill(Theme::now().grey);
    s.no_pen();
    s.circle(pose.side(p.hub.vec()), 0.012 * p.diameter);
  }
}

void draw_front(Sheet& s, const Pose& pose, Look look) {
  const Design& d = *pose.design;
  const Palette c = palette(look, d);
  const auto map = [&](const Vec3& p) { return pose.front(p); };
  if (look == Look::full) {
    s.pen(c.outline, 1.1);
    s.fill(c.body);
    if (known(d.airframe.wing))
      for (const double side : {1.0, -1.0}) {
        QPolygonF w;
        for (const auto& [share, t] : {std::pair{0.0, 0.05}, {1.0, 0.02}, {1.0, -0.01}, {0.0, -0.07}}) {
          Vec3 p = surface_point(d.airframe.wing, share, 0.25);
          p.z() += t * d.airframe.wing.root_chord;
          p.y() *= side;
          w << pose.front(p);
        }
        s.polyline(w, true);
      }
    QPolygonF fin;
    for (const auto& o : d.airframe.fin)
      if (o.x.known() && o.z.known()) fin << pose.front({o.x, 0, o.z});
    s.pen(c.outline, 1.6);
    if (fin.size() > 1) {
      const auto by_height = [](const QPointF& a, const QPointF& b) { return a.y() < b.y(); };
      const auto ends = std::minmax_element(fin.begin(), fin.end(), by_height);
      s.line(*ends.first, *ends.second);
    }
    s.pen(c.outline, 1.1);
    for (const auto& b : d.airframe.bodies) {
      // The outline from ahead is the hull of all cross-sections: draw them back to front.
      for (auto sec = b.sections.rbegin(); sec != b.sections.rend(); ++sec) {
        if (!sec->x.known() || !sec->top.known() || !sec->bottom.known() || !sec->half_width.known())
          continue;
        for (const double side : or_zero(b.y) == 0 ? std::vector<double>{1} : std::vector<double>{1, -1}) {
          const double y = side * or_zero(b.y);
          const auto at = [&](double across, double z) {
            return s.frame().to_device(pose.front({sec->x, y + across, z}));
          };
          const QLineF width(at(sec->half_width, sec->top), at(-sec->half_width, sec->top));
          const QLineF height(at(0, sec->top), at(0, sec->bottom));
          QRectF box(0, 0, width.length(), height.length());
          box.moveCenter({0, 0});
          const bool widest = std::none_of(b.sections.begin(), b.sections.end(),
                                           [&](const Section& o) { return o.half_width > sec->half_width; });
          s.pen(widest || sec == std::prev(b.sections.rend()) ? c.outline : Theme::now().line,
                widest ? 1.2 : 0.8);
          s.painter().save();
          s.painter().translate(height.center());
          s.painter().rotate(-width.angle());
          s.painter().drawRoundedRect(box, box.width() * 0.42, box.height() * 0.42);
          s.painter().restore();
        }
      }
    }
  }
  for (size_t i = 0; i < pose.placed.size(); ++i) draw_leg(s, pose, i, c, map);
  if (look != Look::full) return;
  s.no_fill();
  for (const auto& p : d.airframe.propellers) {
    if (!p.hub.known() || !p.diameter.known()) continue;
    s.pen(Theme::now().grey, 1, Qt::DashLine);
    s.circle(pose.front(p.hub.vec()), p.diameter / 2);
    if (std::abs(p.hub.y) > 1e-6) s.circle(pose.front(mirrored(p.hub.vec())), p.diameter / 2);
  }
}

void draw_plan(Sheet& s, const Pose& pose, Look look) {
  const Design& d = *pose.design;
  const Palette c = palette(look, d);
  const auto map = [&](const Vec3& p) { return pose.plan(p); };
  if (look == Look::full) {
    s.pen(c.outline, 1.1);
    s.fill(c.body);
    for (const auto& surface : {&d.airframe.wing, &d.airframe.tailplane}) {
      if (!known(*surface)) continue;
      QPolygonF w;
      for (const auto& [share, chord, side] : {std::tuple{0.0, 0.0, 1.0},
                                               {1.0, 0.0, 1.0},
                                               {1.0, 1.0, 1.0},
                                               {0.0, 1.0, 1.0},
                                               {1.0, 1.0, -1.0},
                                               {1.0, 0.0, -1.0}}) {
        Vec3 p = surface_point(*surface, share, chord);
        p.y() *= side;
        w << pose.plan(p);
      }
      s.polyline(w, true);
    }
    for (const auto& b : d.airframe.bodies)
      for (const double side : or_zero(b.y) == 0 ? std::vector<double>{1} : std::vector<double>{1, -1}) {
        s.polyline(body_plan(b, side, [&](const Vec3& p) { return pose.plan(p); }), true);
      }
    for (const auto& p : d.airframe.propellers) {
      if (!p.hub.known() || !p.diameter.known()) continue;
      s.pen(Theme::now().grey, 2);
      for (const double side : {1.0, -1.0})
        s.line(pose.plan({p.hub.x, side * p.hub.y - p.diameter / 2, 0}),
               pose.plan({p.hub.x, side * p.hub.y + p.diameter / 2, 0}));
    }
  }
  for (size_t i = 0; i < pose.placed.size(); ++i) draw_leg(s, pose, i, c, map);
}

}  // namespace kranich::app
