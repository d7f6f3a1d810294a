// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawing/swing_pane.h"

#include <algorithm>
#include <cmath>

#include "app/drawing/aircraft.h"
#include "app/drawing/diagram.h"
#include "app/drawing/leg_point.h"
#include "app/widgets/findings.h"
#include "core/assess/swing_state.h"
#include "core/doors/door.h"
#include "core/model/moves.h"
#include "core/motion/retract.h"
#include "core/place/keepout.h"
#include "core/swing/swing.h"

namespace kranich::app {
const LegSwing* SwingPane::result() const {
  for (const auto& s : document_.assessment().swings)
    if (s.leg == leg) return &s;
  return nullptr;
}

bool SwingPane::from_behind() const {
  const auto d = the_leg().retraction.direction;
  return d == SwingDirection::inward || d == SwingDirection::outward;
}

QRectF SwingPane::bounds() const {
  const LegSwing* r = result();
  QPolygonF points;
  const Leg& l = the_leg();
  if (r && r->input) {
    const auto& m = r->input->moving;
    const double radius = m.wheel().diameter / 2;
    for (int i = 0; i <= 24; ++i) {
      const QPointF c = map(swing::wheel_at(m.moves, m.parts.front(), m.moves.full_turn * i / 24).centre);
      points << c + QPointF(radius, radius) << c - QPointF(radius, radius);
    }
    points << map(l.retraction.well.low.vec()) << map(l.retraction.well.high.vec());
  } else {
    points << QPointF(-1, -1) << QPointF(1, 1);
  }
  const QRectF box = points.boundingRect();
  const double air = 0.06 * box.width();
  return box.adjusted(-air, -air, air, air);
}

void SwingPane::draw_well(Sheet& s) {
  const Well& w = the_leg().retraction.well;
  if (!w.low.known() || !w.high.known()) return;
  const QPointF lo = map(w.low.vec());
  const QPointF hi = map(w.high.vec());
  const double wall = 0.035 * bounds().width();
  // The structure round the well, hatched, open below.
  const QPolygonF solid({lo + QPointF(-wall, 0), QPointF(lo.x() - wall, hi.y() + wall),
                         hi + QPointF(wall, wall), QPointF(hi.x() + wall, lo.y()), QPointF(hi.x(), lo.y()),
                         hi, QPointF(lo.x(), hi.y()), lo});
  s.pen(Ink::normal, 1.4);
  s.fill(Theme::now().body);
  s.polyline(solid, true);
  s.painter().setBrush(QBrush(Theme::now().line, Qt::BDiagPattern));
  s.polyline(solid, true);
  s.label(QPointF((lo.x() + hi.x()) / 2, hi.y()), QString::fromStdString(w.name), Ink::grey,
          Qt::AlignHCenter | Qt::AlignTop, {0, 4}, 8);
  s.dimension({lo.x(), hi.y()}, {hi.x(), hi.y()}, document_.say(hi.x() - lo.x(), Kind::length),
              -0.6 * wall * s.frame().scale() / s.unit() - 8, Ink::grey);
}

void SwingPane::draw_doors(Sheet& s) {
  for (const auto& d : document_.design().doors) {
    const auto it = door_opening.find(d.id);
    const auto panel = d.leg == leg ? doors::panel_at(document_.design(), d, leg_share,
                                                      it == door_opening.end() ? 0 : it->second)
                                    : std::nullopt;
    if (!panel) continue;
    s.pen(Ink::accent, 2.2);
    QColor wash = Theme::now().accent;
    wash.setAlpha(36);
    s.fill(wash);
    const auto panel_of = [&](bool mirror) {
      const auto m = [&](Vec3 v) { return map(mirror ? mirrored(v) : v); };
      if (from_behind())
        s.line(m((*panel)[0]), m((*panel)[3]));
      else
        s.polyline(QPolygonF({m((*panel)[0]), m((*panel)[1]), m((*panel)[2]), m((*panel)[3])}), true);
    };
    panel_of(false);
    if (the_leg().stands == LegStands::centre && from_behind()) panel_of(true);
    s.label(map(((*panel)[2] + (*panel)[3]) / 2), QString::fromStdString(d.name), Ink::accent,
            Qt::AlignLeft | Qt::AlignTop, {5, 2}, 8);
  }
}

void SwingPane::draw_what_it_must_pass(Sheet& s, const swing::MovingLeg& m) {
  // Only what lies as deep, along the line of sight, as the wheel on its way: a spar ahead of the well is not
  // in it.
  const int depth = from_behind() ? 0 : 1;
  double near = m.wheel().centre[depth];
  double far = near;
  for (int i = 0; i <= 12; ++i) {
    const double at = swing::wheel_at(m.moves, m.parts.front(), m.moves.full_turn * i / 12).centre[depth];
    near = std::min(near, at - m.wheel().diameter / 2);
    far = std::max(far, at + m.wheel().diameter / 2);
  }
  s.painter().save();
  s.painter().setClipRect(s.frame().device());
  for (const auto& k : document_.design().airframe.keep_outs) {
    const auto box = place::box_of(k);
    if (box && (box->high[depth] < near || box->low[depth] > far)) continue;
    draw_keep_out(s, k, false, [this](const Vec3& p) { return map(p); });
    if (!box && k.shape != Shape::plane) continue;
    s.label(map(box ? box->high : k.low.vec()), text_of(k.name), Ink::grey, Qt::AlignLeft | Qt::AlignBottom,
            {3, -2}, 8);
  }
  s.painter().restore();
}

namespace {
using place::Box;
//! The unit's body, or the pivot itself where none is entered.
Box bounds_of_unit(const Leg& l) {
  if (const auto body = place::unit_of(l)) return *body;
  return {l.retraction.pivot.vec(), l.retraction.pivot.vec()};
}
}  // namespace

void SwingPane::draw(Sheet& s) {
  const LegSwing* r = result();
  const Leg& l = the_leg();
  QString who = text_of(document_.design().leg_word(l), document_.units());
  if (l.stands == LegStands::both_sides) who = QObject::tr("starboard %1").arg(who);
  who = capitalised(who);
  const double share = playback ? leg_share : document_.gear_position();
  if (!l.retraction.fitted) {
    s.title(who, QObject::tr("fixed: it does not swing"));
    return;
  }
  const QString turn = QObject::tr("%1 of %2")
                           .arg(document_.say(share * l.retraction.unit_angle, Kind::angle),
                                document_.say(l.retraction.unit_angle, Kind::angle));
  // Side by side with others there is room for the turn alone.
  const QString seen = from_behind() ? QObject::tr("seen from behind") : QObject::tr("seen from port");
  s.title(who, s.frame().device().width() < 300 ? turn : QObject::tr("%1 · %2").arg(seen, turn));
  draw_well(s);
  if (!r || !r->input) {
    s.label(s.frame().to_world(s.frame().device().center()),
            QObject::tr("needs %1").arg(r ? text_of(r->missing, document_.units()) : QString()), Ink::fails);
    return;
  }
  const auto& m = r->input->moving;
  draw_what_it_must_pass(s, m);
  const auto project = [this](const Vec3& p) { return map(p); };
  const Theme& t = Theme::now();
  // The lowest point of the down wheel is the ground it would stand on.
  s.ground(m.wheel().centre.z() - l.wheel.diameter / 2);
  if (const Design* before = document_.before_drag())
    draw_swung_leg(s, before->gear.leg(leg), 1, project, t.faint, Qt::transparent, t.faint);
  QColor pale = t.tyre;
  pale.setAlpha(26);
  QColor pale_leg = t.ink;
  pale_leg.setAlpha(28);
  QColor pale_edge = t.ink;
  pale_edge.setAlpha(50);
  if (!playback)
    for (int i = 0; i <= 6; ++i) draw_swung_leg(s, l, i / 6.0, project, pale_leg, pale, pale_edge);
  // Path of the wheel's centre.
  QPolygonF path;
  for (int i = 0; i <= 60; ++i)
    path << map(swing::wheel_at(m.moves, m.parts.front(), m.moves.full_turn * i / 60).centre);
  s.no_fill();
  s.pen(Ink::grey, 1, Qt::DotLine);
  s.polyline(path);
  if (playback) draw_doors(s);
  // The stowed wheel in the accent, then the present pose in ink.
  QColor stowed = t.accent;
  stowed.setAlpha(70);
  if (!playback) draw_swung_leg(s, l, 1, project, stowed, stowed, t.accent);
  draw_swung_leg(s, l, share, project, t.ink, t.tyre, t.ink);
  if (playback) return;
  const QPointF pivot = map(m.moves.axis.point);
  s.label(pivot, QObject::tr("pivot"), Ink::accent, Qt::AlignLeft | Qt::AlignBottom, {12, -6}, 8.5, true);
  s.label(map(m.wheel().centre), QObject::tr("down, as Place has it"), Ink::grey,
          Qt::AlignLeft | Qt::AlignVCenter,
          {m.wheel().diameter / 2 * s.frame().scale() / s.unit() * (from_behind() ? 0.5 : 1.0) + 10, 0}, 8);
  if (l.retraction.far_skin.known()) {
    const Box body = bounds_of_unit(l);
    const double out = 0.4 * l.wheel.diameter;
    const QPointF from = map({body.low.x() - out, body.low.y() - out, l.retraction.far_skin});
    const QPointF to = map({body.high.x() + out, body.high.y() + out, l.retraction.far_skin});
    s.pen(Ink::normal, 2);
    s.line(from, to);
    s.label(from, QObject::tr("skin over the unit"), Ink::grey, Qt::AlignLeft | Qt::AlignBottom, {0, -3}, 8);
  }
  if (const auto made = swing::remade_leg(l);
      made && share == 0 && l.retraction.motion != LegMotion::lifts_and_turns) {
    // The leg as it must be made for this unit, where that is not as it is.
    const Vec3 next = l.retraction.bends.size() > 1 ? l.retraction.bends[1].at.vec() : motion::foot(l);
    s.pen(Ink::tight, 1.8, Qt::DashLine);
    s.line(pivot, map(made->bend));
    s.line(map(made->bend), map(next));
    s.label(map(made->bend),
            QObject::tr("made anew: bent by %1, %2 from the pivot")
                .arg(document_.say(made->angle, Kind::angle), document_.say(made->from_pivot, Kind::length)),
            Ink::tight, Qt::AlignLeft | Qt::AlignVCenter, {10, 0}, 8);
  }
  if (!r->least) return;
  const bool fails = r->least->distance < r->input->wanted_clearance;
  const Ink ink = fails ? Ink::fails : Ink::holds;
  const QPointF a = map(r->least->on_part);
  const QPointF b = map(r->least->on_obstacle);
  s.no_fill();
  s.pen(ink, 2);
  s.painter().drawEllipse(s.frame().to_device((a + b) / 2), 13 * s.unit(), 13 * s.unit());
  s.line(a, b);
  s.note(s.frame().to_device((a + b) / 2) + s.unit() * QPointF(-70, 40),
         QObject::tr("%1 to %2 %3")
             .arg(text_of(swing::part_word(r->least->part)), QString::fromStdString(r->least->obstacle),
                  document_.say(r->least->distance, Kind::length)),
         QObject::tr("at %1, wants %2")
             .arg(document_.say(r->least->turn, Kind::angle),
                  document_.say(r->input->wanted_clearance, Kind::length)),
         ink, (a + b) / 2);
}

std::vector<Handle> SwingPane::handles() const {
  const Leg& l = the_leg();
  if (playback || !l.retraction.fitted || !l.retraction.pivot.known() || !l.axle.known()) return {};
  const bool behind = from_behind();
  const auto along = [behind](Point& p, double dx, double dy) {
    (behind ? p.y : p.x).si += dx;
    p.z.si += dy;
  };
  const auto its = [id = leg](Design& d) -> Leg& { return d.gear.leg(id); };
  std::vector<Handle> list;
  list.push_back({"pivot", QObject::tr("pivot"), map(l.retraction.pivot.vec()), 12,
                  [=](Design& d, double dx, double dy) { along(its(d).retraction.pivot, dx, dy); }});
  list.push_back({"axle", QObject::tr("axle, along the leg"), map(l.axle.vec()), 13,
                  [=](Design& d, double dx, double dy) {
                    Leg& leg_now = its(d);
                    const Vec3 line = leg_now.axle.vec() - leg_now.retraction.pivot.vec();
                    const Vec3 unit = line.normalized();
                    lengthen_leg(leg_now, dx * (behind ? unit.y() : unit.x()) + dy * unit.z());
                  }});
  const SeenFrom seen = behind ? SeenFrom::behind : SeenFrom::the_side;
  const auto quiet = [&](const char* id, const QString& name, const Vec3& at, auto&& of) {
    list.push_back(leg_point(leg, QString::fromLatin1(id), name, map(at), seen, of, true));
  };
  const Retraction& r = l.retraction;
  // The unit's corners are told from its pivot.
  if (r.unit_low.known())
    quiet("unit-low", QObject::tr("unit's body, lower corner"), r.pivot.vec() + r.unit_low.vec(),
          [](Leg& x) { return &x.retraction.unit_low; });
  if (r.unit_high.known())
    quiet("unit-high", QObject::tr("unit's body, upper corner"), r.pivot.vec() + r.unit_high.vec(),
          [](Leg& x) { return &x.retraction.unit_high; });
  if (r.rod_airframe.known())
    quiet("turn-rod-airframe", QObject::tr("turning rod's ball on the airframe"), r.rod_airframe.vec(),
          [](Leg& x) { return &x.retraction.rod_airframe; });
  if (r.rod_leg.known())
    quiet("turn-rod-leg", QObject::tr("turning rod's ball on leg or carrier"), r.rod_leg.vec(),
          [](Leg& x) { return &x.retraction.rod_leg; });
  for (size_t i = 0; i < r.bends.size(); ++i)
    if (r.bends[i].at.known())
      quiet(("leg-bend:" + std::to_string(i)).c_str(), QObject::tr("bend %1 of the leg's line").arg(i + 1),
            r.bends[i].at.vec(),
            [i](Leg& x) { return i < x.retraction.bends.size() ? &x.retraction.bends[i].at : nullptr; });
  const Well& w = l.retraction.well;
  if (w.low.known() && w.high.known()) {
    list.push_back({"well-low", QObject::tr("well, lower corner"), map(w.low.vec()), 8,
                    [=](Design& d, double dx, double dy) { along(its(d).retraction.well.low, dx, dy); },
                    true});
    list.push_back({"well-high", QObject::tr("well, upper corner"), map(w.high.vec()), 8,
                    [=](Design& d, double dx, double dy) { along(its(d).retraction.well.high, dx, dy); },
                    true});
  }
  return list;
}

void CutOutPane::show_outlines(const Leg& of, std::variant<swing::LegOutlines, Text> outlines) {
  of_ = of;
  made_ = std::move(outlines);
}

namespace {
//! Forward up the sheet, starboard to its right.
QPolygonF on_sheet(const swing::Outline& outline) {
  QPolygonF p;
  for (const auto& v : outline) p << QPointF(v.y(), -v.x());
  return p;
}
}  // namespace

QRectF CutOutPane::bounds() const {
  QRectF box;
  if (const auto* made = std::get_if<swing::LegOutlines>(&made_))
    for (const auto* c : {&made->bay, &made->skin, &made->slot})
      for (const auto& o : c->outlines) box = box.united(on_sheet(o).boundingRect());
  const Well& w = swing_.the_leg().retraction.well;
  if (w.low.known() && w.high.known())
    box = box.united(QRectF(QPointF(w.low.y, -w.high.x), QPointF(w.high.y, -w.low.x)));
  if (box.isEmpty()) return {0, 0, 1, 1};
  const double air = 0.06 * box.width();
  return box.adjusted(-air, -air, air, air);
}

void CutOutPane::draw(Sheet& s) {
  s.title(QObject::tr("Cut-out and bay"), QObject::tr("from above"));
  const auto* outlines = std::get_if<swing::LegOutlines>(&made_);
  if (!outlines) {
    s.label(s.frame().to_world(s.frame().device().center()),
            QObject::tr("needs %1").arg(text_of(std::get<Text>(made_), document_.units())), Ink::grey);
    return;
  }
  const Leg& leg = swing_.the_leg();
  const Well& w = leg.retraction.well;
  const bool old = !(of_ == leg);
  if (w.low.known() && w.high.known()) {
    const QRectF well(QPointF(w.low.y, -w.high.x), QPointF(w.high.y, -w.low.x));
    s.pen(Ink::normal, 1.4);
    s.fill(Theme::now().body);
    s.polyline(QPolygonF(well), true);
  }
  const auto wash = [&](const swing::CutOut& c, const QColor& colour, Ink ink, Qt::PenStyle style) {
    QColor pale = colour;
    pale.setAlpha(old ? 12 : 34);
    for (const auto& o : c.outlines) {
      s.pen(ink, 1.6, style);
      s.fill(pale);
      s.polyline(on_sheet(o), true);
    }
  };
  const Theme& t = Theme::now();
  wash(outlines->bay, t.ink, Ink::grey, Qt::DashLine);
  wash(outlines->skin, t.accent, Ink::accent, Qt::SolidLine);
  wash(outlines->slot, t.tight, Ink::tight, Qt::SolidLine);
  if (leg.retraction.pivot.known())
    s.label({leg.retraction.pivot.y, -leg.retraction.pivot.x}, QObject::tr("pivot"), Ink::grey,
            Qt::AlignLeft | Qt::AlignVCenter, {6, 0}, 8);
  const auto size = [&](const swing::CutOut& c) {
    return QObject::tr("%1 × %2").arg(document_.say(c.length, Kind::length),
                                      document_.say(c.width, Kind::length));
  };
  QStringList lines;
  if (!outlines->skin.outlines.empty()) lines << QObject::tr("cut-out %1").arg(size(outlines->skin));
  if (!outlines->bay.outlines.empty())
    lines << QObject::tr("bay, dashed, %1").arg(size(outlines->bay))
          << QObject::tr("and %1 deep").arg(document_.say(outlines->depth, Kind::length));
  if (!outlines->slot.outlines.empty())
    lines << QObject::tr("slot in the floor %1").arg(size(outlines->slot));
  const QRectF device = s.frame().device();
  for (int i = 0; i < lines.size(); ++i)
    s.label(s.frame().to_world({device.left(), device.bottom() + (8 + 13 * i) * s.unit()}), lines[i],
            i == 0 ? Ink::accent : Ink::grey, Qt::AlignLeft | Qt::AlignTop, {0, 0}, 8);
}

void ClearancePane::draw(Sheet& s) {
  const LegSwing* r = swing_.result();
  if (!r || !r->input || !r->least) return;
  const QRectF area = s.frame().device();
  s.card(area);
  Diagram g;
  const auto& length = display_unit(Kind::length, document_.units());
  g.title = QObject::tr("Least clearance on the way");
  g.y_title = document_.unit(Kind::length);
  g.x_title = QObject::tr("turn, °");
  g.y_factor = 1 / length.to_si;
  const double full = r->input->moving.moves.full_turn;
  for (int i = 0; i <= 60; ++i) {
    const double turn = full * i / 60;
    g.curve.push_back({degrees(turn), swing::clearance_at(*r->input, turn).distance});
  }
  g.marks.push_back({{degrees(r->least->turn), r->least->distance},
                     QStringLiteral("%1 %2").arg(text_of(swing::part_word(r->least->part)),
                                                 document_.say(r->least->distance, Kind::length)),
                     r->least->distance < r->input->wanted_clearance ? Ink::fails : Ink::holds});
  g.fit();
  g.band_low = g.y_low;
  g.band_high = r->input->wanted_clearance;
  g.marks.push_back({{degrees(document_.gear_position() * full), 0}, QString(), Ink::accent, true});
  g.draw(s, area);
}

}  // namespace kranich::app
