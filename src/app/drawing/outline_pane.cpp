// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawing/outline_pane.h"

#include <algorithm>
#include <cmath>

#include "app/drawing/aircraft.h"
#include "app/drawing/panes.h"
#include "app/drawing/picture.h"
#include "app/widgets/findings.h"
#include "core/model/moves.h"

namespace kranich::app {
namespace {

//! px within which a click takes the station of a section that is there.
constexpr double snap_px = 7;

bool placed(const Picture& p) { return p.left_x.known() && p.bottom_z.known() && p.width.known(); }

std::vector<OutlinePoint>& points_of(Design& d, Trace::Of of) {
  return of == Trace::Of::fin ? d.airframe.fin : d.airframe.canopy;
}
const std::vector<OutlinePoint>& points_of(const Design& d, Trace::Of of) {
  return of == Trace::Of::fin ? d.airframe.fin : d.airframe.canopy;
}

template <class List>
void erase_at(List& list, size_t i) {
  if (i < list.size()) list.erase(list.begin() + static_cast<std::ptrdiff_t>(i));
}

using Change = std::function<void(Design&)>;
//! What can be done with a point of an outline, by key or from its menu.
std::vector<HandleAct> acts_of(bool corner, Change remove, Change toggle, Change insert) {
  return {{Qt::Key_Delete, QObject::tr("Remove it"), std::move(remove)},
          {Qt::Key_C, corner ? QObject::tr("Smooth here") : QObject::tr("A corner here"), std::move(toggle)},
          {Qt::Key_Insert, QObject::tr("One between this and the next"), std::move(insert)}};
}

//! The corners of a surface's starboard half: root and tip, leading and trailing edge.
struct Planform {
  Vec3 root_front, root_rear, tip_front, tip_rear;
};
std::optional<Planform> planform_of(const Surface& s) {
  if (!s.root_leading_edge_x.known() || !s.root_z.known() || !s.root_chord.known()) return std::nullopt;
  // What is not entered yet adds nothing: no span, a tip as wide as the root.
  Surface whole = s;
  if (!s.span.known()) whole.span = 0.0;
  if (!s.tip_chord.known()) whole.tip_chord = s.root_chord;
  return Planform{surface_point(whole, 0, 0), surface_point(whole, 0, 1), surface_point(whole, 1, 0),
                  surface_point(whole, 1, 1)};
}

}  // namespace

std::vector<std::pair<Trace, QString>> traces_of(const Design& d, Seen seen) {
  std::vector<std::pair<Trace, QString>> list;
  const size_t bodies = std::max<size_t>(1, d.airframe.bodies.size());
  for (size_t i = 0; i < bodies; ++i) {
    QString name = QObject::tr("Fuselage");
    if (i < d.airframe.bodies.size() && !d.airframe.bodies[i].name.empty())
      name = capitalised(text_of(d.airframe.bodies[i].name));
    if (seen == Seen::side) {
      list.push_back({{Trace::Of::body, i, BodyEdge::top}, QObject::tr("%1, upper edge").arg(name)});
      list.push_back({{Trace::Of::body, i, BodyEdge::bottom}, QObject::tr("%1, lower edge").arg(name)});
    }
    if (seen == Seen::plan)
      list.push_back({{Trace::Of::body, i, BodyEdge::half_width}, QObject::tr("%1, side").arg(name)});
  }
  if (seen == Seen::side) {
    list.push_back({{Trace::Of::canopy, 0, BodyEdge::top}, QObject::tr("Canopy")});
    list.push_back({{Trace::Of::fin, 0, BodyEdge::top}, QObject::tr("Fin and rudder")});
  }
  return list;
}

Picture Design::*OutlinePane::picture_of(Seen seen) {
  return seen == Seen::side    ? &Design::side_tracing
         : seen == Seen::front ? &Design::front_tracing
                               : &Design::plan_tracing;
}
const Picture& OutlinePane::picture() const { return document_.design().*picture_of(seen); }

QPointF OutlinePane::map(const Vec3& p) const {
  switch (seen) {
    case Seen::side:
      return {p.x(), p.z()};
    case Seen::front:
      return {-p.y(), p.z()};
    case Seen::plan:
      return {p.x(), -p.y()};
  }
  return {};
}

QRectF OutlinePane::all() const {
  const Design& d = document_.design();
  QPolygonF points;
  const auto add = [&](const Vec3& p) {
    if (p.allFinite()) points << map(p);
  };
  for (const Body& b : d.airframe.bodies)
    for (const Section& s : b.sections)
      for (const Given* z : {&s.top, &s.bottom})
        for (const double side : {-1.0, 1.0})
          if (s.x.known() && z->known())
            add({s.x, (b.y.known() ? b.y.si : 0) + side * (s.half_width.known() ? s.half_width.si : 0), *z});
  for (const auto* list : {&d.airframe.fin, &d.airframe.canopy})
    for (const auto& p : *list)
      if (p.x.known() && p.z.known()) add({p.x, 0, p.z});
  for (const Surface* s : {&d.airframe.wing, &d.airframe.tailplane})
    if (const auto p = planform_of(*s))
      for (const Vec3& corner : {p->root_front, p->root_rear, p->tip_front, p->tip_rear})
        for (const double side : {-1.0, 1.0}) add({corner.x(), side * corner.y(), corner.z()});
  for (const PlacedLeg& leg : placed_legs(d.gear))
    if (const Leg& l = d.gear.legs[leg.row]; l.axle.known()) {
      const double r = l.wheel.diameter.known() ? l.wheel.diameter / 2 : 0;
      for (const double side : {-1.0, 1.0})
        add({l.axle.x + side * r, leg.hand() * l.axle.y, l.axle.z + side * r});
    }
  if (const Picture& p = picture(); !p.file.empty() && p.shown && placed(p)) {
    const QImage image = picture_image(picture_path(document_, p.file));
    const double high = image.isNull() ? 0.5 * p.width : p.width * image.height() / image.width();
    const double turn = p.turned.known() ? p.turned.si : 0;
    for (const auto& [u, v] : {std::pair{0.0, 0.0}, {p.width.si, 0.0}, {p.width.si, high}, {0.0, high}})
      points << QPointF(p.left_x + u * std::cos(turn) - v * std::sin(turn),
                        p.bottom_z + u * std::sin(turn) + v * std::cos(turn));
  }
  // Nothing yet: a sheet as large as such an aircraft.
  if (points.size() < 2) {
    const double size = d.is_model() ? 1.6 : 7;
    return {-0.1 * size, -0.4 * size, 1.2 * size, 0.8 * size};
  }
  QRectF box = points.boundingRect();
  const double air = 0.06 * std::max(box.width(), box.height());
  return box.adjusted(-air, -air, air, air);
}

QRectF OutlinePane::bounds() const { return zoom_ ? *zoom_ : all(); }

bool OutlinePane::wheeled(const QPointF& at, double steps) {
  const QRectF now = bounds();
  const QRectF whole = all();
  const double by = std::pow(0.85, steps);
  QRectF next(at.x() + (now.left() - at.x()) * by, at.y() + (now.top() - at.y()) * by, now.width() * by,
              now.height() * by);
  if (next.width() > whole.width())
    zoom_.reset();
  else if (next.width() > 0.005 * whole.width())
    zoom_ = next;
  return true;
}

//! Lines a round length apart, so that sizes are seen.
void OutlinePane::draw_grid(Sheet& s) {
  const QRectF device = s.frame().device();
  const QPointF low = s.frame().to_world(device.bottomLeft());
  const QPointF high = s.frame().to_world(device.topRight());
  double step = 1e-3;
  for (const double by : {1e-3, 2e-3, 5e-3, 1e-2, 2e-2, 5e-2, 0.1, 0.2, 0.5, 1.0, 2.0, 5.0}) {
    step = by;
    if (by * s.frame().scale() > 38 * s.unit()) break;
  }
  const int first_x = static_cast<int>(std::ceil(low.x() / step));
  const int last_x = static_cast<int>(std::floor(high.x() / step));
  const int first_y = static_cast<int>(std::ceil(low.y() / step));
  const int last_y = static_cast<int>(std::floor(high.y() / step));
  QColor pale = Theme::now().faint;
  pale.setAlpha(70);
  for (int i = first_x; i <= last_x; ++i) {
    s.pen(pale, i == 0 ? 1.6 : 0.7);
    s.line({i * step, low.y()}, {i * step, high.y()});
    if (i % 2 == 0)
      s.label({i * step, low.y()}, document_.say_number(i * step, Kind::length), Ink::faint,
              Qt::AlignHCenter | Qt::AlignBottom, {0, -1}, 7);
  }
  for (int i = first_y; i <= last_y; ++i) {
    s.pen(pale, i == 0 ? 1.6 : 0.7);
    s.line({low.x(), i * step}, {high.x(), i * step});
    if (i % 2 == 0)
      s.label({low.x(), i * step}, document_.say_number(i * step, Kind::length), Ink::faint,
              Qt::AlignLeft | Qt::AlignBottom, {2, -1}, 7);
  }
}

void OutlinePane::draw(Sheet& s) {
  const Design& d = document_.design();
  scale_ = s.frame().scale() / s.unit();
  if (const Picture& p = picture(); !p.file.empty() && p.shown && placed(p))
    draw_image(s, document_, p, {p.left_x, p.bottom_z});
  draw_grid(s);
  const Map view = [this](const Vec3& p) { return map(p); };
  s.no_fill();
  s.pen(Ink::accent, 1.8);
  for (const Body& b : d.airframe.bodies) {
    const double y = b.y.known() ? b.y.si : 0;
    if (seen == Seen::side) s.polyline(body_outline(b, view), true);
    if (seen == Seen::plan)
      for (const double side : y == 0 ? std::vector<double>{1} : std::vector<double>{1, -1})
        s.polyline(body_plan(b, side, view), true);
    if (seen == Seen::front)
      for (const Section& sec : b.sections)
        if (sec.top.known() && sec.bottom.known() && sec.half_width.known())
          for (const double side : y == 0 ? std::vector<double>{1} : std::vector<double>{1, -1}) {
            const QPointF a = s.frame().to_device(map({0, side * y - sec.half_width, sec.top}));
            const QPointF c = s.frame().to_device(map({0, side * y + sec.half_width, sec.bottom}));
            s.painter().drawEllipse(QRectF(a, c).normalized());
          }
  }
  s.pen(Ink::accent, 1.4);
  if (seen == Seen::side) {
    s.polyline(closed_outline(d.airframe.fin, false, view), true);
    s.polyline(closed_outline(d.airframe.canopy, true, view), true);
  }
  for (const Surface* surface : {&d.airframe.wing, &d.airframe.tailplane})
    if (const auto p = planform_of(*surface))
      for (const double side : {1.0, -1.0}) {
        const auto at = [&](const Vec3& v) { return map({v.x(), side * v.y(), v.z()}); };
        s.polyline({at(p->root_front), at(p->tip_front), at(p->tip_rear), at(p->root_rear)}, true);
      }
  s.pen(Ink::normal, 1.6);
  for (const PlacedLeg& leg : placed_legs(d.gear)) {
    const Leg& l = d.gear.legs[leg.row];
    if (!l.axle.known() || !l.wheel.diameter.known()) continue;
    const QPointF at = map({l.axle.x, leg.hand() * l.axle.y, l.axle.z});
    const double wide = l.wheel.width.known() ? l.wheel.width.si : 0.3 * l.wheel.diameter;
    if (seen == Seen::side)
      s.circle(at, l.wheel.diameter / 2);
    else
      s.rect(QRectF(at.x() - (seen == Seen::front ? wide : l.wheel.diameter.si) / 2,
                    at.y() - (seen == Seen::front ? l.wheel.diameter.si : wide) / 2,
                    seen == Seen::front ? wide : l.wheel.diameter.si,
                    seen == Seen::front ? l.wheel.diameter.si : wide));
  }
  for (const Propeller& p : d.airframe.propellers) {
    if (!p.hub.known() || !p.diameter.known()) continue;
    const Vec3 half = seen == Seen::plan ? Vec3(0, p.diameter / 2, 0) : Vec3(0, 0, p.diameter / 2);
    s.pen(Ink::grey, 2);
    if (seen == Seen::front)
      s.circle(map(p.hub.vec()), p.diameter / 2);
    else
      s.line(map(p.hub.vec() + half), map(p.hub.vec() - half));
  }
  for (size_t i = 0; i < picks.size(); ++i) {
    s.pen(Ink::tight, 2);
    const QPointF at = s.frame().to_device(picks[i]);
    s.painter().drawLine(at - QPointF(8, 0), at + QPointF(8, 0));
    s.painter().drawLine(at - QPointF(0, 8), at + QPointF(0, 8));
    if (i == 1) s.line(picks[0], picks[1]);
  }
  s.title(seen == Seen::side    ? QObject::tr("From port, level")
          : seen == Seen::front ? QObject::tr("From ahead, level")
                                : QObject::tr("From above"),
          click == ClickOn::trace   ? QObject::tr("click along the outline")
          : click == ClickOn::scale ? QObject::tr("click two points whose distance you know")
          : click == ClickOn::level ? QObject::tr("click two points that lie level")
                                    : QObject::tr("drag the points; the wheel enlarges"));
}

std::vector<Handle> OutlinePane::handles() const {
  const Design& d = document_.design();
  std::vector<Handle> list;
  const auto add = [&](QString id, QString name, const QPointF& at, double radius, auto move,
                       std::vector<HandleAct> acts = {}) {
    Handle h;
    h.id = std::move(id);
    h.name = std::move(name);
    h.at = at;
    h.radius = radius;
    h.move = move;
    h.acts = std::move(acts);
    list.push_back(std::move(h));
  };
  // The outline that is traced, point by point.
  if (trace.of == Trace::Of::body && trace.body < d.airframe.bodies.size() && seen != Seen::front) {
    const Body& b = d.airframe.bodies[trace.body];
    const double y = b.y.known() ? b.y.si : 0;
    for (size_t i = 0; i < b.sections.size(); ++i) {
      const Section& s = b.sections[i];
      const Given& v = edge_of(s, trace.edge);
      if (!s.x.known() || !v.known()) continue;
      const bool wide = trace.edge == BodyEdge::half_width;
      if (wide != (seen == Seen::plan)) continue;
      const Vec3 at = wide ? Vec3(s.x, y + v, 0) : Vec3(s.x, y, v);
      const auto section = [of = trace.body, i](Design& x) -> Section& {
        return x.airframe.bodies[of].sections[i];
      };
      add(
          QStringLiteral("section:%1").arg(i), QObject::tr("section %1").arg(i + 1), map(at), 7,
          [section, of_body = trace.body, i, edge = trace.edge, wide](Design& x, double dx, double dy) {
            // Sections keep their order.
            const auto& others = x.airframe.bodies[of_body].sections;
            double to = section(x).x + dx;
            constexpr double apart = 1e-3;
            if (i > 0 && others[i - 1].x.known()) to = std::max(to, others[i - 1].x + apart);
            if (i + 1 < others.size() && others[i + 1].x.known()) to = std::min(to, others[i + 1].x - apart);
            section(x).x.si = to;
            Given& moved = edge_of(section(x), edge);
            moved.si = wide ? std::max(0.0, moved.si - dy) : moved.si + dy;
          },
          acts_of(
              s.corner, [of = trace.body, i](Design& x) { erase_at(x.airframe.bodies[of].sections, i); },
              [section](Design& x) { section(x).corner = !section(x).corner; },
              [of = trace.body, i, edge = trace.edge](Design& x) {
                Body& body = x.airframe.bodies[of];
                if (i + 1 >= body.sections.size()) return;
                const Section& before = body.sections[i];
                const Section& behind = body.sections[i + 1];
                if (!edge_of(before, edge).known() || !edge_of(behind, edge).known() || !behind.x.known())
                  return;
                trace_section(body, (before.x + behind.x) / 2, edge,
                              (edge_of(before, edge) + edge_of(behind, edge)) / 2, 0);
              }));
    }
  }
  if (trace.of != Trace::Of::body && seen == Seen::side) {
    const auto& points = points_of(d, trace.of);
    for (size_t i = 0; i < points.size(); ++i) {
      const auto& p = points[i];
      if (!p.x.known() || !p.z.known()) continue;
      const auto its = [of = trace.of, i](Design& x) -> OutlinePoint& { return points_of(x, of)[i]; };
      add(
          QStringLiteral("point:%1").arg(i), QObject::tr("point %1").arg(i + 1), map({p.x, 0, p.z}), 7,
          [its](Design& x, double dx, double dy) {
            its(x).x.si += dx;
            its(x).z.si += dy;
          },
          acts_of(
              p.corner, [of = trace.of, i](Design& x) { erase_at(points_of(x, of), i); },
              [its](Design& x) { its(x).corner = !its(x).corner; },
              [of = trace.of, i](Design& x) {
                auto& all_points = points_of(x, of);
                if (i >= all_points.size()) return;
                const OutlinePoint& next = all_points[(i + 1) % all_points.size()];
                OutlinePoint made;
                made.x = Given((all_points[i].x + next.x) / 2);
                made.z = Given((all_points[i].z + next.z) / 2);
                all_points.insert(all_points.begin() + static_cast<std::ptrdiff_t>(i) + 1, made);
              }));
    }
  }
  // Wing and tailplane by their corners.
  const auto surface = [&](const char* id, const QString& word, Surface Airframe::*which) {
    const auto p = planform_of(d.airframe.*which);
    if (!p) return;
    const auto of = [which](Design& x) -> Surface& { return x.airframe.*which; };
    const QString key = QString::fromLatin1(id);
    if (seen != Seen::front) {
      add(key + "-root-front", QObject::tr("%1, leading edge at the root").arg(word), map(p->root_front), 8,
          [of, up = seen == Seen::side](Design& x, double dx, double dy) {
            of(x).root_leading_edge_x.si += dx;
            if (up) of(x).root_z.si += dy;
          });
      add(key + "-root-rear", QObject::tr("%1, root chord").arg(word), map(p->root_rear), 8,
          [of](Design& x, double dx, double) {
            of(x).root_chord.si = std::max(0.01, of(x).root_chord + dx);
          });
    }
    const Surface& s = d.airframe.*which;
    if (!s.span.known()) return;
    if (seen == Seen::plan) {
      add(key + "-tip-front", QObject::tr("%1, leading edge at the tip: span and sweep").arg(word),
          map(p->tip_front), 8, [of](Design& x, double dx, double dy) {
            Surface& w = of(x);
            const double half = w.span / 2;
            const double out = (w.sweep.known() ? std::tan(w.sweep) : 0) * half + dx;
            const double next = std::max(0.05, half - dy);
            w.span = Given(2 * next);
            w.sweep = Given(std::atan2(out, next));
          });
      if (s.tip_chord.known())
        add(key + "-tip-rear", QObject::tr("%1, tip chord").arg(word), map(p->tip_rear), 8,
            [of](Design& x, double dx, double) {
              of(x).tip_chord.si = std::max(0.01, of(x).tip_chord + dx);
            });
    }
    if (seen == Seen::front)
      add(key + "-tip", QObject::tr("%1, tip: span and dihedral").arg(word), map(p->tip_front), 8,
          [of](Design& x, double dx, double dy) {
            Surface& w = of(x);
            const double half = w.span / 2;
            const double up = (w.dihedral.known() ? std::tan(w.dihedral) : 0) * half + dy;
            const double next = std::max(0.05, half - dx);
            w.span = Given(2 * next);
            w.dihedral = Given(std::atan2(up, next));
          });
  };
  surface("wing", QObject::tr("wing"), &Airframe::wing);
  surface("tailplane", QObject::tr("tailplane"), &Airframe::tailplane);
  // Wheels, propellers, low points.
  const auto way = [view = seen](double dx, double dy) {
    return view == Seen::side ? Vec3(dx, 0, dy) : view == Seen::front ? Vec3(0, -dx, dy) : Vec3(dx, -dy, 0);
  };
  for (const auto& line : lines_of_wheels(d)) {
    const Leg& l = d.gear.leg(line.spokesman);
    if (!l.axle.known()) continue;
    add(text_of(line.spokesman), line.word, map(l.axle.vec()), 12,
        [way, rows = line.rows, beside = line.beside](Design& x, double dx, double dy) {
          const Vec3 m = way(dx, dy);
          shift_legs(x, rows, m.x(), beside ? m.y() : 0, 0);
          for (const size_t row : rows) x.gear.legs[row].axle.z.si += m.z();
        });
  }
  for (size_t i = 0; i < d.airframe.propellers.size(); ++i)
    if (d.airframe.propellers[i].hub.known())
      add(QStringLiteral("propeller:%1").arg(i), text_of(d.airframe.propellers[i].name),
          map(d.airframe.propellers[i].hub.vec()), 9, [way, i](Design& x, double dx, double dy) {
            Point& hub = x.airframe.propellers[i].hub;
            hub.set(hub.vec() + way(dx, dy));
          });
  for (size_t i = 0; i < d.airframe.low_points.size(); ++i)
    if (d.airframe.low_points[i].at.known())
      add(QStringLiteral("low:%1").arg(i), text_of(d.airframe.low_points[i].name),
          map(d.airframe.low_points[i].at.vec()), 7,
          [way, i](Design& x, double dx, double dy) {
            Point& at = x.airframe.low_points[i].at;
            at.set(at.vec() + way(dx, dy));
          },
          {{Qt::Key_Delete, QObject::tr("Remove it"),
            [i](Design& x) { erase_at(x.airframe.low_points, i); }}});
  if (const Picture& p = picture(); !p.file.empty() && p.shown && placed(p))
    add("picture", QObject::tr("picture, moved by its corner"), {p.left_x, p.bottom_z}, 12,
        [view = seen](Design& x, double dx, double dy) {
          Picture& moved = x.*picture_of(view);
          moved.left_x.si += dx;
          moved.bottom_z.si += dy;
        });
  return list;
}

bool OutlinePane::clicked(const QPointF& at) {
  switch (click) {
    case ClickOn::nothing:
      return false;
    case ClickOn::scale:
    case ClickOn::level:
      if (picks.size() >= 2) picks.clear();
      picks.push_back(at);
      if (picks.size() == 2) two_();
      return true;
    case ClickOn::trace:
      break;
  }
  // What a builder would say: to the nearest millimetre, or finer where the drawing shows more.
  const double grain = scale_ > 4000 ? 1e-4 : 1e-3;
  const auto rounded = [&](double v) { return std::round(v / grain) * grain; };
  const double x = rounded(at.x());
  const double up = rounded(at.y());
  if (trace.of != Trace::Of::body) {
    document_.edit(QObject::tr("Trace a point"),
                   [&](Design& d) { trace_point(points_of(d, trace.of), x, up); });
    return true;
  }
  document_.edit(QObject::tr("Trace a section"), [&](Design& d) {
    if (d.airframe.bodies.empty()) {
      d.airframe.bodies.emplace_back();
      d.airframe.bodies[0].name = "fuselage";
      d.airframe.bodies[0].y = 0.0;
    }
    Body& body = d.airframe.bodies[std::min(trace.body, d.airframe.bodies.size() - 1)];
    const double y = body.y.known() ? body.y.si : 0;
    const double value = trace.edge == BodyEdge::half_width ? std::abs(-up - y) : up;
    trace_section(body, x, trace.edge, value, snap_px / scale_);
  });
  return true;
}

}  // namespace kranich::app
