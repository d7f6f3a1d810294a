// SPDX-License-Identifier: GPL-3.0-or-later
#include <QPainterPath>
#include <algorithm>
#include <cmath>
#include <limits>

#include "app/drawing/aircraft.h"
#include "app/widgets/findings.h"
#include "core/doors/door.h"
#include "core/motion/triangles.h"
#include "core/place/keepout.h"

namespace kranich::app {

namespace {

QPolygonF outline_of(const Sheet& s, const place::Box& box, bool port, const Map& view) {
  QPolygonF corners;
  for (const double x : {box.low.x(), box.high.x()})
    for (const double y : {box.low.y(), box.high.y()})
      for (const double z : {box.low.z(), box.high.z()})
        corners << s.frame().to_device(view(port ? mirrored(Vec3(x, y, z)) : Vec3(x, y, z)));
  return convex_hull(corners);
}

}  // namespace

namespace {

//! A plane seen along itself: its line right across, strokes on the side that is filled.
void draw_plane(Sheet& s, const motion::HalfSpace& h, double size, const Map& view) {
  const auto device = [&](const Vec3& p) { return s.frame().to_device(view(p)); };
  const QPointF at = device(h.point);
  const Vec3 u = h.normal.unitOrthogonal();
  const QPointF one = device(h.point + size * u) - at;
  const QPointF other = device(h.point + size * h.normal.cross(u)) - at;
  const QPointF free = device(h.point + size * h.normal) - at;
  const double across = std::abs(one.x() * other.y() - one.y() * other.x());
  const QPointF& along = std::hypot(one.x(), one.y()) > std::hypot(other.x(), other.y()) ? one : other;
  const double length = std::hypot(along.x(), along.y());
  if (length < 1e-6 || across > 0.02 * length * length) return;  // seen from before it or askew it covers all
  const QPointF way = along / length;
  QPointF into(-way.y(), way.x());
  if (into.x() * free.x() + into.y() * free.y() > 0) into = -into;
  const double reach = 2 * std::max(s.frame().device().width(), s.frame().device().height());
  QPainter& p = s.painter();
  p.save();
  p.setClipRect(s.frame().device());
  s.pen(Theme::now().grey, 1.4);
  p.drawLine(at - reach * way, at + reach * way);
  s.pen(Theme::now().grey, 1);
  for (double x = -reach; x < reach; x += 9) p.drawLine(at + x * way, at + (x - 5) * way + 6 * into);
  p.restore();
}

//! A mesh: the edges at which it turns away from the eye, and hatching where that is not too much to draw.
void draw_skin(Sheet& s, const motion::SkinAt& skin, const Map& view) {
  const auto device = [&](const Vec3& p) {
    const Vec3 there = p + skin.shift;
    return s.frame().to_device(view(skin.port ? mirrored(there) : there));
  };
  // Along which axis it is looked at: the one that is seen shortest.
  int axis = 0;
  double shortest = std::numeric_limits<double>::infinity();
  for (int i = 0; i < 3; ++i) {
    const QPointF seen = view(Vec3::Unit(i)) - view(Vec3::Zero());
    if (const double l = std::hypot(seen.x(), seen.y()); l < shortest) {
      shortest = l;
      axis = i;
    }
  }
  const motion::Mesh& mesh = skin.skin->mesh();
  constexpr size_t most_hatched = 4000;
  if (mesh.faces.size() <= most_hatched) {
    QPainterPath path;
    path.setFillRule(Qt::WindingFill);
    for (const auto& f : mesh.faces) {
      const Vec3 &a = mesh.points[static_cast<size_t>(f[0])], &b = mesh.points[static_cast<size_t>(f[1])],
                 &c = mesh.points[static_cast<size_t>(f[2])];
      if ((b - a).cross(c - a)[axis] <= 0) continue;
      path.addPolygon(QPolygonF{device(a), device(b), device(c), device(a)});
    }
    s.painter().setPen(Qt::NoPen);
    s.painter().setBrush(QBrush(Theme::now().grey, Qt::BDiagPattern));
    s.painter().drawPath(path);
  }
  s.pen(Theme::now().grey, 1);
  QVector<QLineF> lines;
  for (const auto& [a, b] : skin.skin->outline(axis)) lines.append(QLineF(device(a), device(b)));
  s.painter().drawLines(lines);
}

}  // namespace

void draw_keep_out(Sheet& s, const KeepOut& k, bool port, const Map& view) {
  const Theme& t = Theme::now();
  QPainterPath path;
  for (const auto& solid : place::solids_of(k)) {
    const auto side = port ? motion::mirrored(solid) : solid;
    if (const auto* plane = std::get_if<motion::HalfSpace>(&side)) {
      draw_plane(s, *plane, (k.high.vec() - k.low.vec()).norm(), view);
      continue;
    }
    if (const auto* skin = std::get_if<motion::SkinAt>(&side)) {
      draw_skin(s, *skin, view);
      continue;
    }
    QPolygonF hull;
    if (const auto* w = std::get_if<motion::Wedge>(&side)) {
      for (const Vec3& p : {w->a, w->b, w->c})
        for (const Vec3& q : {p, Vec3(p + w->along)}) hull << s.frame().to_device(view(q));
      hull = convex_hull(hull);
    } else {
      hull = outline_of(s, *place::box_of(k), port, view);
    }
    QPainterPath one;
    one.addPolygon(hull);
    one.closeSubpath();
    path = path.united(one);
  }
  if (path.isEmpty()) return;
  s.pen(t.grey, 1);
  s.painter().setBrush(QBrush(t.grey, Qt::BDiagPattern));
  s.painter().drawPath(path);
}

void draw_keep_outs(Sheet& s, const Design& d, const Map& view) {
  const Theme& t = Theme::now();
  for (const auto& k : d.airframe.keep_outs) {
    for (const bool port : {false, true}) draw_keep_out(s, k, port, view);
  }
  for (const Access& a : d.airframe.accesses) {
    // Where it sits, where it is out, and the way between.
    if (!a.low.known() || !a.high.known()) continue;
    const place::Box body{a.low.vec(), a.high.vec()};
    s.no_fill();
    s.pen(Ink::accent, 1.2);
    s.painter().drawPolygon(outline_of(s, body, false, view));
    if (!a.way_x.known() || !a.way_y.known() || !a.way_z.known()) continue;
    const Vec3 way(a.way_x, a.way_y, a.way_z);
    s.pen(Ink::accent, 1, Qt::DashLine);
    s.painter().drawPolygon(outline_of(s, {body.low + way, body.high + way}, false, view));
    const Vec3 middle = (body.low + body.high) / 2;
    s.line(view(middle), view(middle + way));
    s.label(view(middle + way), text_of(a.name), Ink::accent, Qt::AlignLeft | Qt::AlignBottom, {6, -4}, 7.5);
  }
  for (const PlacedLeg& placed : placed_legs(d.gear)) {
    const auto unit = place::unit_of(d.gear.legs[placed.row]);
    if (!unit) continue;
    const auto near = place::nearest_keep_out(*unit, d.airframe.keep_outs);
    const bool runs_in = near && near->distance < 0;
    s.pen(runs_in ? t.fails : t.accent, runs_in ? 2 : 1.2);
    QColor wash = runs_in ? t.fails : t.accent;
    wash.setAlpha(40);
    s.fill(wash);
    s.painter().drawPolygon(outline_of(s, *unit, placed.port, view));
  }
}

void draw_doors(Sheet& s, const Pose& pose, const Map& view) {
  const Design& d = *pose.design;
  QColor wash = Theme::now().accent;
  wash.setAlpha(40);
  for (const Door& door : d.doors) {
    const Leg* leg = d.gear.find(door.leg);
    if (!leg) continue;
    s.pen(Ink::accent, 1.1);
    s.fill(wash);
    for (const bool port : {false, true}) {
      // Of a leg on one side there is no twin.
      if (leg->stands == (port ? LegStands::starboard : LegStands::port)) continue;
      double share = pose.gear_position;
      for (size_t i = 0; i < pose.placed.size(); ++i)
        if (&d.gear.legs[pose.placed[i].row] == leg &&
            (pose.placed[i].port == port || leg->stands != LegStands::both_sides))
          share = pose.position_of(i);
      const auto own = pose.own_openings.find(door.id);
      const double opening =
          own != pose.own_openings.end() ? own->second[port ? 1 : 0] : doors::opening_at(d, door, share);
      const auto corners = doors::panel_at(d, door, share, std::isfinite(opening) ? opening : 0);
      if (!corners) continue;
      QPolygonF panel;
      for (const Vec3& c : *corners) panel << view(port ? mirrored(c) : c);
      s.polyline(panel, true);
    }
  }
}

}  // namespace kranich::app
