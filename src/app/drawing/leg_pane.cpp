// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawing/leg_pane.h"

#include <algorithm>
#include <cmath>

#include "app/drawing/aircraft.h"
#include "app/drawing/leg_point.h"
#include "app/widgets/findings.h"
#include "core/assess/strength_state.h"
#include "core/assess/subjects.h"
#include "core/leg/structure.h"
#include "core/motion/retract.h"
#include "core/motion/suspend.h"

namespace kranich::app {
namespace {

void arrow(Sheet& s, const QPointF& from, const QPointF& to, Ink ink) {
  const QPointF a = s.frame().to_device(from);
  const QPointF b = s.frame().to_device(to);
  const QPointF along = b - a;
  const double length = std::hypot(along.x(), along.y());
  if (length < 4) return;
  const QPointF u = along / length;
  const QPointF v(-u.y(), u.x());
  s.pen(ink, 2.2);
  s.painter().drawLine(a, b - 8 * s.unit() * u);
  s.no_pen();
  s.fill(ink_colour(ink));
  s.painter().drawPolygon(
      QPolygonF({b, b - s.unit() * (11 * u + 4.5 * v), b - s.unit() * (11 * u - 4.5 * v)}));
}

}  // namespace

const LegStrength* LegPane::strength() const {
  for (const auto& s : document_.assessment().strengths)
    if (s.leg == leg) return &s;
  return nullptr;
}

Verdict LegPane::verdict_of(const std::string& part) const {
  const Design& d = document_.design();
  const Subject subject = about_member(d, d.gear.leg(leg), part);
  for (const auto& f : document_.assessment().findings)
    if (f.measure_id == "leg.margin" && f.subject == subject) return f.verdict;
  return Verdict::unknown;
}

std::optional<size_t> LegPane::shown_case() const {
  const LegStrength* s = strength();
  if (!s || s->cases.cases.empty()) return std::nullopt;
  std::string wanted = load_case;
  if (wanted.empty() && !s->structure.parts.empty()) wanted = s->structure.parts.front().in_case;
  for (size_t i = 0; i < s->cases.cases.size(); ++i)
    if (s->cases.cases[i].name == wanted) return i;
  return 0;
}

QRectF LegPane::bounds() const {
  const Leg& l = document_.design().gear.leg(leg);
  if (!l.axle.known() || !l.wheel.diameter.known()) return {0, 0, 1, 1};
  QPolygonF points;
  const double r = l.wheel.diameter / 2;
  points << map(l.axle.vec()) + QPointF(r, r) << map(l.axle.vec()) - QPointF(r, r) << map(l.held_at());
  if (const Vec3 above = motion::strut_above_hinge(l); above.allFinite()) points << map(above);
  for (const auto& t : l.tubes)
    if (t.top.known()) points << map(t.top.vec());
  for (const auto& j : l.joints)
    for (const Point* p : {&j.at, &j.to})
      if (p->known()) points << map(p->vec());
  for (const Point* p : {&l.brace_airframe, &l.brace_leg, &l.spring.anchor_airframe})
    if (p->known()) points << map(p->vec());
  if (l.spring.kind == SpringKind::bending)
    for (const auto& p : l.spring.bent.line)
      if (p.at.known()) points << map(p.at.vec());
  const QRectF box = points.boundingRect();
  const double air = 0.10 * std::max(box.width(), box.height());
  return box.adjusted(-air, -0.2 * air, air, air);
}

void LegPane::draw(Sheet& s) {
  const Design& d = document_.design();
  const Leg& l = d.gear.leg(leg);
  QString who = text_of(d.leg_word(l), d.units);
  if (l.stands == LegStands::both_sides) who = QObject::tr("starboard %1").arg(who);
  who = capitalised(who);
  const LegStrength* r = strength();
  const auto which = shown_case();
  s.title(view_ == View::ahead ? QObject::tr("%1 from ahead").arg(who)
                               : QObject::tr("from port, nose to the left"),
          view_ == View::ahead && r && which ? text_of(r->cases.cases[*which].name) : QString());
  if (!l.axle.known() || !l.wheel.diameter.known()) {
    s.label(s.frame().to_world(s.frame().device().center()),
            QObject::tr("needs the axle's place and the wheel"), Ink::fails);
    return;
  }
  s.ground(l.axle.z - l.wheel.diameter / 2);
  draw_wheel(s, l);
  if (!r) return;
  if (which) draw_stress(s, *r, *which);
  if (which) draw_deflection(s, *r, *which);
  draw_members(s, *r);
  draw_mount(s, l);
  draw_made_of(s, l);
  draw_joints(s, l, *r);
  if (which) draw_load(s, l, *r, *which);
  call_out_worst(s, *r);
}

void LegPane::draw_wheel(Sheet& s, const Leg& l) const {
  const Theme& t = Theme::now();
  s.pen(Ink::normal, 1.2);
  QColor pale = t.tyre;
  pale.setAlpha(150);
  s.fill(pale);
  const QPointF c = map(l.axle.vec());
  if (view_ == View::starboard) {
    s.circle(c, l.wheel.diameter / 2);
    s.fill(t.rim);
    s.circle(c, 0.19 * l.wheel.diameter);
    return;
  }
  const double half = l.wheel.width.known() ? l.wheel.width / 2 : 0.15 * l.wheel.diameter;
  const double lean = l.camber.known() ? l.camber.si : 0;
  const QPointF across(std::cos(lean) * half, -std::sin(lean) * half);
  const QPointF up(std::sin(lean) * l.wheel.diameter / 2, std::cos(lean) * l.wheel.diameter / 2);
  s.polyline(QPolygonF({c + across + up, c - across + up, c - across - up, c + across - up}), true);
}

void LegPane::draw_members(Sheet& s, const LegStrength& r) const {
  const Leg& l = document_.design().gear.leg(leg);
  const auto ink_of_part = [&](const std::string& part) { return ink_of(verdict_of(part)); };
  if (r.structure.bars.empty()) {  // the figures lack something: still the line of the leg
    const Vec3 above = motion::strut_above_hinge(l);
    const Vec3 from = above.allFinite() ? l.hinge.vec() : l.held_at();
    const double thick = l.tube_diameter.known() ? l.tube_diameter.si : 0.02;
    if (above.allFinite()) s.bar(map(above), map(from), thick, Theme::now().grey);
    s.bar(map(from), map(motion::foot(l)), thick, Theme::now().grey);
  }
  for (const auto& b : r.structure.bars) {
    s.bar(map(b.from), map(b.to), b.diameter, Theme::now().ink);
    const Ink ink = ink_of_part(b.part);
    if (ink == Ink::holds) continue;
    s.pen(ink, 1.6);
    s.line(map(b.from), map(b.to));
  }
  if ((l.axle.vec() - motion::foot(l)).norm() > 1e-4)
    s.bar(map(motion::foot(l)), map(l.axle.vec()), l.axle_diameter.known() ? l.axle_diameter.si : 0.01,
          ink_of_part("axle") == Ink::fails ? Theme::now().fails : Theme::now().ink);
  if (l.brace_leg.known() && l.brace_airframe.known()) {
    s.pen(Ink::grey, 2.4);
    s.line(map(l.brace_leg.vec()), map(l.brace_airframe.vec()));
    s.label(map((l.brace_leg.vec() + l.brace_airframe.vec()) / 2), QObject::tr("brace"), Ink::grey,
            Qt::AlignHCenter | Qt::AlignBottom, {0, -4}, 8);
  }
  if (l.path != LegPath::straight && l.spring.anchor_leg.known() && l.spring.anchor_airframe.known()) {
    s.pen(Ink::accent, 2, Qt::DashLine);
    s.line(map(l.spring.anchor_leg.vec()), map(l.spring.anchor_airframe.vec()));
  }
  // What does not hold has its mark where it gives way, not its colour alone.
  for (const auto& p : r.structure.parts) {
    const Verdict verdict = verdict_of(p.part);
    const bool joint =
        std::any_of(l.joints.begin(), l.joints.end(), [&](const Joint& j) { return j.name == p.part; });
    if (!joint && severity(verdict) > 0)
      draw_verdict_mark(s.painter(), s.frame().to_device(map(p.at)), 13 * s.unit(), verdict);
  }
  // What each tube is called, beside its middle.
  std::string last;
  for (const auto& b : r.structure.bars) {
    if (b.part == last || l.tubes.empty() || view_ == View::ahead) continue;
    last = b.part;
    s.label(map(0.55 * b.from + 0.45 * b.to), text_of(b.part), Ink::grey, Qt::AlignRight | Qt::AlignVCenter,
            {-14, 0}, 8);
  }
}

namespace {
const QColor hollow(0, 0, 0, 0);
}

//! What carries the load on into the airframe: posts to the spar, plates with their cheeks or box, the notch
//! in the bay's edge.
void LegPane::draw_mount(Sheet& s, const Leg& l) const {
  const Theme& t = Theme::now();
  s.fill(hollow);
  for (const auto& j : l.joints) {
    if (!j.at.known()) continue;
    const Vec3 at = j.at.vec();
    if (j.kind == JointKind::post && j.diameter.known()) {
      const Vec3 end = j.to.known() ? j.to.vec() : Vec3(at + Vec3(0, 0, j.length.known() ? j.length.si : 0));
      s.bar(map(at), map(end), j.diameter, t.grey);
      s.pen(Ink::grey, 1);
      s.fill(hollow);
      s.circle(map(end), 0.7 * j.diameter);  // cupped for the spar
    }
    if (j.kind != JointKind::plate || !j.length.known() || !j.width.known()) continue;
    const double half = (view_ == View::ahead ? j.width.si : j.length.si) / 2;
    const Vec3 along = view_ == View::ahead ? Vec3(0, half, 0) : Vec3(half, 0, 0);
    const double thick = j.thickness.known() ? j.thickness.si : 0.003;
    s.bar(map(at - along), map(at + along), thick, t.grey);
    const Vec3 up(0, 0, j.box_depth.known() ? j.box_depth.si : 0);
    if (j.box_depth.known()) {
      s.fill(hollow);
      s.pen(Ink::grey, 1.2);
      s.polyline(QPolygonF({map(at - along), map(at - along + up), map(at + along + up), map(at + along)}),
                 false);
    }
    if (j.cheeks.known()) {
      const Vec3 high(0, 0, j.cheeks);
      s.fill(hollow);
      s.pen(Ink::grey, 2);
      if (view_ == View::ahead) {
        s.line(map(at - along), map(at - along + high));
        s.line(map(at + along), map(at + along + high));
      } else {
        s.pen(Ink::grey, 1, Qt::DashLine);
        s.polyline(
            QPolygonF({map(at - along), map(at - along + high), map(at + along + high), map(at + along)}),
            true);
      }
    }
  }
  const Cradle& c = l.cradle;
  if (!c.below.known() || view_ != View::ahead || !l.held_at().allFinite()) return;
  const Vec3 way = (l.axle.vec() - l.held_at()).normalized();
  const Vec3 aside = Vec3(0, -way.z(), way.y()).normalized();
  const double thick = l.tube_diameter.known()   ? l.tube_diameter / 2
                       : l.section_width.known() ? l.section_width / 2
                                                 : 0.005;
  const double gap = thick + (c.play.known() ? c.play.si : 0);
  const double width = c.width.known() ? c.width.si : 0.01;
  for (const double side : {-1.0, 1.0}) {
    const Vec3 at = l.held_at() + c.below * way + side * (gap + 0.6 * thick) * aside;
    s.bar(map(at - width / 2 * way), map(at + width / 2 * way), 1.2 * thick, t.grey);
  }
  s.label(map(l.held_at() + c.below * way), QObject::tr("notch"), Ink::grey, Qt::AlignLeft | Qt::AlignVCenter,
          {16, 0}, 8);
}

//! Tubes of a strut, rings under a bow's middle, the wire across to the other leg.
void LegPane::draw_made_of(Sheet& s, const Leg& l) const {
  s.fill(hollow);
  const Telescope& t = l.spring.telescope;
  if (t.outer_length.known() && t.outer_diameter.known() && l.held_at().allFinite()) {
    const Vec3 way = (l.axle.vec() - l.held_at()).normalized();
    const Vec3 aside = view_ == View::ahead ? Vec3(0, -way.z(), way.y()) : Vec3(-way.z(), 0, way.x());
    const auto tube = [&](double from, double to, double diameter, Qt::PenStyle style) {
      s.pen(Ink::accent, 1, style);
      const Vec3 a = l.held_at() + from * way;
      const Vec3 b = l.held_at() + to * way;
      const Vec3 half = diameter / 2 * aside;
      s.polyline(QPolygonF({map(a - half), map(b - half), map(b + half), map(a + half)}), true);
    };
    const double whole = (l.axle.vec() - l.held_at()).norm();
    tube(0, t.outer_length, t.outer_diameter, Qt::SolidLine);
    if (t.inner_length.known() && t.inner_diameter.known())
      tube(whole - t.inner_length, whole, t.inner_diameter, Qt::DashLine);
    if (t.plugged.known() && t.inner_diameter.known())
      tube(whole - t.plugged, whole, t.inner_diameter, Qt::SolidLine);
  }
  if (l.spring.kind != SpringKind::bending || l.spring.bent.line.empty() || !l.spring.bent.line[0].at.known())
    return;
  const BentLeg& b = l.spring.bent;
  const Vec3 clamp = b.line[0].at.vec();
  if (b.mount.rings.known() && b.mount.ring_outer.known() && b.mount.slot.known()) {
    const double thick = b.line[0].thickness.known() ? b.line[0].thickness.si : 0.005;
    const double half = b.mount.ring_outer / 2;
    const bool ahead = view_ == View::ahead;
    const double pitch = !ahead && b.mount.ring_pitch.known() ? b.mount.ring_pitch / 2 : 0;
    s.pen(Ink::accent, 1.2);
    for (const double over : {-1.0, 1.0})
      for (const double place : pitch > 0 ? std::vector<double>{-pitch, pitch} : std::vector<double>{0}) {
        const Vec3 at = clamp + Vec3(place, 0, over * (thick / 2 + b.mount.slot / 2));
        const Vec3 x = ahead ? Vec3(0, half, 0) : Vec3(half, 0, 0);
        const Vec3 z(0, 0, b.mount.slot / 2);
        s.polyline(QPolygonF({map(at - x - z), map(at + x - z), map(at + x + z), map(at - x + z)}), true);
      }
    s.label(map(clamp), QObject::tr("rings"), Ink::accent, Qt::AlignRight | Qt::AlignBottom, {-8, -8}, 8);
  }
  if (b.mount.through && view_ == View::ahead) {
    s.pen(Ink::normal, 2.4);
    s.line(map(clamp), map({clamp.x(), 0, clamp.z()}));
  }
  if (view_ != View::ahead || !b.cross_wire.diameter.known() || !b.cross_wire.rise.known() ||
      !b.cross_wire.along.known())
    return;
  double before = 0;
  for (size_t i = 1; i < b.line.size(); ++i) {
    const Vec3 from = b.line[i - 1].at.vec();
    const Vec3 to = b.line[i].at.vec();
    const double piece = (to - from).norm();
    if (b.cross_wire.along > before + piece) {
      before += piece;
      continue;
    }
    const Vec3 post = from + (b.cross_wire.along - before) / piece * (to - from);
    QPolygonF arch;
    for (int k = 0; k <= 20; ++k) {  // its half as far as the centre line
      const double y = post.y() * (1 - k / 20.0);
      const double u = y / post.y();
      arch << map({post.x(), y, post.z() + b.cross_wire.rise * (1 - u * u)});
    }
    s.pen(Ink::accent, 1.6);
    s.polyline(arch, false);
    s.label(arch[10], QObject::tr("spring wire across"), Ink::accent, Qt::AlignHCenter | Qt::AlignBottom,
            {0, -4}, 8);
    return;
  }
}

void LegPane::draw_joints(Sheet& s, const Leg& l, const LegStrength& r) const {
  // Names stand inward of their marks, and below each other where they would meet.
  std::vector<const Joint*> joints;
  for (const auto& j : l.joints)
    if (j.at.known()) joints.push_back(&j);
  const auto device = [&](const Joint* j) { return s.frame().to_device(map(j->at.vec())); };
  std::sort(joints.begin(), joints.end(),
            [&](const Joint* a, const Joint* b) { return device(a).y() < device(b).y(); });
  double free_from = -1e9;
  for (const Joint* j : joints) {
    double margin = std::nan("");
    for (const auto& p : r.structure.parts)
      if (p.part == j->name) margin = p.margin;
    const Verdict verdict = verdict_of(j->name);
    const QPointF at = device(j);
    draw_verdict_mark(s.painter(), at, 12 * s.unit(), verdict);
    const double y = std::max(at.y(), free_from);
    free_from = y + 14 * s.unit();
    const bool right = at.x() > s.frame().device().center().x() + 20 * s.unit();
    s.label(map(j->at.vec()),
            std::isfinite(margin)
                ? QObject::tr("%1 %2").arg(text_of(j->name), document_.say(margin, Kind::share))
                : text_of(j->name),
            ink_of(verdict), (right ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter,
            {right ? -18.0 : 18.0, (y - at.y()) / s.unit()}, 8);
  }
}

//! The stress along the leg as a wash beside it, as wide as it is high, its greatest told.
void LegPane::draw_stress(Sheet& s, const LegStrength& r, size_t which) const {
  const auto& all = r.structure;
  if (which >= all.stress.size() || all.stress[which].size() != all.bars.size() || all.bars.empty()) return;
  const auto& stress = all.stress[which];
  double most = 0;
  for (const auto& bar : stress) most = std::max({most, bar[0], bar[1]});
  if (!(most > 0)) return;
  QColor wash = Theme::now().accent;
  wash.setAlpha(46);
  const double widest = 34 * s.unit();
  for (size_t i = 0; i < all.bars.size(); ++i) {
    const QPointF a = s.frame().to_device(map(all.bars[i].from));
    const QPointF b = s.frame().to_device(map(all.bars[i].to));
    const double length = std::hypot(b.x() - a.x(), b.y() - a.y());
    if (length < 1) continue;
    const QPointF aside = QPointF(a.y() - b.y(), b.x() - a.x()) / length * (widest / most);
    s.no_pen();
    s.fill(wash);
    s.painter().drawPolygon(QPolygonF({a, b, b + stress[i][1] * aside, a + stress[i][0] * aside}));
    if (view_ != View::ahead) continue;
    for (const size_t end : {0u, 1u}) {
      if (stress[i][end] < most) continue;
      const QPointF at = (end == 0 ? a : b) + most * aside;
      s.painter().setFont(text_font(8));
      s.painter().setPen(ink_colour(Ink::accent));
      s.painter().drawText(at + QPointF(aside.x() < 0 ? -62 : 6, 4) * s.unit(),
                           document_.say(most, Kind::stress));
    }
  }
}

void LegPane::draw_deflection(Sheet& s, const LegStrength& r, size_t which) const {
  if (which >= r.structure.moved.size()) return;
  // Enlarged so that it can be seen, by a round number that is told.
  double most = 0;
  for (size_t i = 0; i < r.structure.bars.size() && i < r.structure.moved[which].size(); ++i) {
    most = std::max(most, (r.structure.moved[which][i].first - r.structure.bars[i].from).norm());
    most = std::max(most, (r.structure.moved[which][i].second - r.structure.bars[i].to).norm());
  }
  if (!(most > 0)) return;
  const double wanted = 0.07 * bounds().height() / most;
  double enlarged = std::pow(10, std::floor(std::log10(wanted)));
  for (const double k : {5.0, 2.0})
    if (k * enlarged <= wanted) {
      enlarged *= k;
      break;
    }
  enlarged = std::max(1.0, enlarged);
  s.pen(Ink::accent, 1.3, Qt::DashLine);
  for (size_t i = 0; i < r.structure.bars.size() && i < r.structure.moved[which].size(); ++i) {
    const auto& b = r.structure.bars[i];
    const auto& [from, to] = r.structure.moved[which][i];
    s.line(map(b.from + enlarged * (from - b.from)), map(b.to + enlarged * (to - b.to)));
  }
  if (which < r.structure.wheel_moved.size() && view_ == View::ahead) {
    const Vec3& w = r.structure.wheel_moved[which];
    s.painter().setFont(text_font(8));
    const QString text = QObject::tr("dashed: how it gives, × %1; the wheel moves %2")
                             .arg(enlarged)
                             .arg(document_.say(w.norm(), Kind::length));
    s.painter().setPen(ink_colour(Ink::accent));
    s.painter().drawText(s.frame().device().bottomLeft() + QPointF(-64, 84), text);
  }
}

void LegPane::draw_load(Sheet& s, const Leg& l, const LegStrength& r, size_t which) const {
  const auto& c = r.cases.cases[which];
  Vec3 at = l.axle.vec();
  if (c.at_ground) at.z() -= l.wheel.diameter / 2;
  double largest = 0;
  for (const auto& other : r.cases.cases) largest = std::max(largest, other.force.norm());
  if (!(largest > 0)) return;
  const double per_newton = 0.32 * bounds().height() / largest;
  const auto part = [&](const Vec3& f, Qt::Alignment align, const QPointF& shift) {
    const QPointF flat = map(f);
    if (std::hypot(flat.x(), flat.y()) < 0.02 * largest) return;
    const QPointF tip = map(at);
    arrow(s, tip - per_newton * flat, tip, Ink::accent);
    s.label(tip - per_newton * flat, document_.say(std::hypot(flat.x(), flat.y()), Kind::force), Ink::accent,
            align, shift, 9, true);
  };
  part(Vec3(0, 0, c.force.z()), Qt::AlignLeft | Qt::AlignVCenter, {7, -8});
  const double along = view_ == View::ahead ? c.force.y() : c.force.x();
  part(Vec3(c.force.x(), c.force.y(), 0), (along > 0 ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter,
       {along > 0 ? -6.0 : 6.0, 0});
}

void LegPane::call_out_worst(Sheet& s, const LegStrength& r) const {
  if (r.structure.parts.empty() || view_ != View::starboard) return;
  const auto& p = r.structure.parts.front();
  if (!std::isfinite(p.margin)) return;
  const QRectF area = s.frame().device();
  s.note(QPointF(area.left() - 70, area.bottom() + 46),
         QObject::tr("%1: %2 left").arg(text_of(p.part), document_.say(p.margin, Kind::share)),
         QObject::tr("%1 · %2").arg(text_of(p.decides, document_.units()), text_of(p.in_case)),
         ink_of(verdict_of(p.part)), map(p.at));
}

std::vector<Handle> LegPane::handles() const {
  std::vector<Handle> list;
  const Leg& l = document_.design().gear.leg(leg);
  const bool ahead = view_ == View::ahead;
  const QString suffix = ahead ? QStringLiteral("-ahead") : QString();
  const auto add = [&](const QString& id, const QString& name, const Point& p, auto&& find) {
    if (!p.known()) return;
    list.push_back(leg_point(leg, id + suffix, name, map(p.vec()),
                             ahead ? SeenFrom::behind : SeenFrom::the_side, find, true));
  };
  for (size_t i = 0; i < l.tubes.size(); ++i)
    add(QStringLiteral("tube-top:%1").arg(i), QObject::tr("upper end of %1").arg(text_of(l.tubes[i].name)),
        l.tubes[i].top, [i](Leg& x) { return i < x.tubes.size() ? &x.tubes[i].top : nullptr; });
  add(QStringLiteral("brace-leg"), QObject::tr("brace's end on the leg"), l.brace_leg,
      [](Leg& x) { return &x.brace_leg; });
  add(QStringLiteral("brace-airframe"), QObject::tr("brace's end on the airframe"), l.brace_airframe,
      [](Leg& x) { return &x.brace_airframe; });
  if (l.path != LegPath::straight) {
    add(QStringLiteral("anchor-leg"), QObject::tr("spring's anchor on the leg"), l.spring.anchor_leg,
        [](Leg& x) { return &x.spring.anchor_leg; });
    add(QStringLiteral("anchor-airframe"), QObject::tr("spring's anchor on the airframe"),
        l.spring.anchor_airframe, [](Leg& x) { return &x.spring.anchor_airframe; });
  }
  if (l.spring.kind == SpringKind::bending)
    for (size_t i = 0; i < l.spring.bent.line.size(); ++i)
      add(QStringLiteral("bent:%1").arg(i), QObject::tr("point %1 of the leg's line").arg(i + 1),
          l.spring.bent.line[i].at,
          [i](Leg& x) { return i < x.spring.bent.line.size() ? &x.spring.bent.line[i].at : nullptr; });
  return list;
}

}  // namespace kranich::app
