// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawing/panes.h"

#include <QFontMetricsF>
#include <algorithm>
#include <cmath>

#include "app/drawing/picture.h"
#include "app/widgets/findings.h"
#include "core/assess/loading_state.h"
#include "core/model/moves.h"
#include "core/place/place.h"

namespace kranich::app {

const Finding* finding_for(const Document& doc, std::string_view id, const std::string& loading) {
  const Finding* any = nullptr;
  for (const auto& f : doc.assessment().findings)
    if (f.measure_id == id && (f.loading == loading || f.loading.empty())) {
      if (!any || worse(f, *any)) any = &f;
    }
  return any;
}

std::vector<WheelLine> lines_of_wheels(const Design& d) {
  std::vector<WheelLine> list;
  for (const auto& line : leg_lines(d)) {
    const Leg& leg = d.gear.legs[line.rows[0]];
    if (!leg.axle.known()) continue;
    const QString word = text_of(line.word, d.units);
    list.push_back({line.rows, leg.id,
                    line.several ? QObject::tr("%1 wheels").arg(word) : QObject::tr("%1 wheel").arg(word),
                    leg.role == LegRole::main, leg.stands != LegStands::centre});
  }
  return list;
}

std::vector<WheelLine> beside_lines(const Design& d) {
  auto list = lines_of_wheels(d);
  std::erase_if(list, [](const WheelLine& line) { return !line.beside; });
  return list;
}

Pose pose_now(const Document& doc) {
  return pose_of(doc.design(), doc.loading(), doc.state(), doc.gear_position());
}

void draw_others(Sheet& s, const Document& doc, const Pose& now, void (*draw)(Sheet&, const Pose&, Look)) {
  const auto other = [&](const Design& d, const Assessment& a, Look look) {
    const auto* l = a.loading(doc.loading_name().toStdString());
    draw(s, drawn_like(pose_of(d, l, doc.state(), doc.gear_position()), now), look);
  };
  for (const auto& v : doc.laid_over()) other(v.design, v.assessment, Look::pinned);
  if (doc.pinned()) other(*doc.pinned(), *doc.pinned_assessment(), Look::pinned);
  if (doc.before_drag()) other(*doc.before_drag(), *doc.assessment_before_drag(), Look::ghost);
}

QRectF SidePane::bounds() const { return side_bounds(pose_now(document_)); }

void SidePane::draw(Sheet& s) {
  const Pose pose = pose_now(document_);
  const LoadingState* l = document_.loading();
  s.ground(0);
  if (overlay_ != Overlay::weigh) draw_picture(s, document_, pose);
  draw_side(s, pose);
  if (overlay_ == Overlay::place) draw_doors(s, pose, [&](const Vec3& p) { return pose.side(p); });
  if (overlay_ == Overlay::place && pose.gear_position == 0)
    draw_keep_outs(s, document_.design(), [&](const Vec3& p) { return pose.side(p); });
  draw_others(s, document_, pose, draw_side);
  s.title(QObject::tr("Side"), QObject::tr("%1 · %2 · pitch %3")
                                   .arg(document_.loading_name(), text_of(gear_state_word(pose.state)),
                                        document_.say(pose.pitch, Kind::angle)));
  if (l && !l->no_rest.empty()) {
    s.note(
        s.frame().device().topLeft() + s.unit() * QPointF(120, 40),
        document_.assessment().wheels ? QObject::tr("It does not stand") : QObject::tr("How it stands needs"),
        text_of(l->no_rest, document_.units()), Ink::fails, pose.side(pose.cg));
  }
  switch (overlay_) {
    case Overlay::weigh:
      draw_weigh(s, pose);
      break;
    case Overlay::place:
      draw_place(s, pose);
      break;
    case Overlay::stance:
      draw_stance(s, pose);
      draw_original(s, pose);
      break;
  }
}

void SidePane::draw_place(Sheet& s, const Pose& pose) {
  const Design& d = *pose.design;
  const auto name = document_.loading_name().toStdString();
  const QPointF contact = pose.main_contact();
  // Every loading's CG, the chosen one large.
  for (const auto& l : document_.assessment().loadings)
    if (l.mass.known() && l.flown && l.name != name) s.cg(pose.side(l.mass.down.at), false);
  if (!pose.has_cg) return;
  const QPointF cg = pose.side(pose.cg);
  const char* id = d.is_tricycle() ? "place.tip_back" : "place.axle_ahead";
  if (const Finding* f = finding_for(document_, id, name); f && std::isfinite(f->value)) {
    const Ink ink = ink_of(f->verdict);
    s.pen(Ink::grey, 1, Qt::DashLine);
    if (d.is_tricycle()) {
      const double top = cg.y() * 1.28;
      s.line(contact, {contact.x(), top});
      s.pen(ink, 1.8);
      const QPointF along = cg - contact;
      s.line(contact, contact + along * 1.18);
      const double to = std::atan2(along.y(), along.x());
      s.angle(contact, s.frame().scale() / s.unit() * cg.y() * 0.72, M_PI / 2, to, {}, ink);
    } else {
      s.line({cg.x(), 0}, cg);
      s.pen(ink, 1.8);
      s.line(cg, contact);
      const double from = std::atan2(contact.y() - cg.y(), contact.x() - cg.x());
      s.angle(cg, s.frame().scale() / s.unit() * cg.y() * 0.5, from, -M_PI / 2, {}, ink);
    }
    const QPointF corner =
        s.frame().to_device(QPointF(std::max(cg.x(), contact.x()), cg.y() * (d.is_tricycle() ? 1.0 : 0.62))) +
        s.unit() * QPointF(26, d.is_tricycle() ? -16 : -2);
    s.note(corner, text_of(f->info().title) + " " + value_text(*f, document_.units()),
           QObject::tr("wants %1").arg(limit_text(*f, document_.units())), ink,
           d.is_tricycle() ? contact + (cg - contact) * 0.72 : cg + (contact - cg) * 0.5);
  }
  s.cg(cg, true);
  // The tail.
  if (const Finding* f = finding_for(document_, "place.tail_strike_static", name);
      f && d.is_tricycle() && std::isfinite(f->value)) {
    const LowPoint* low = nullptr;
    for (const auto& p : d.airframe.low_points)
      if (p.role == PointRole::tail && p.at.known()) {
        const auto angle = [&](const LowPoint& q) {
          const QPointF w = pose.side(q.at.vec()) - contact;
          return w.x() > 0 ? std::atan2(w.y(), w.x()) : 10.0;
        };
        if (!low || angle(p) < angle(*low)) low = &p;
      }
    if (low) {
      const QPointF at = pose.side(low->at.vec());
      s.pen(ink_of(f->verdict), 1.1, Qt::DashLine);
      s.line(contact, at);
      const double reach = (at.x() - contact.x()) * s.frame().scale() / s.unit() * 0.55;
      s.angle(contact, reach, 0, std::atan2(at.y(), at.x() - contact.x()),
              QObject::tr("tail clears to %1").arg(value_text(*f, document_.units())), ink_of(f->verdict));
    }
  }
  // How far aft the mains may stand and still rotate.
  if (const Finding* f = finding_for(document_, "place.furthest_aft", name); f && std::isfinite(f->value)) {
    const QPointF at = contact + QPointF(f->value, 0);
    const Finding* ratio = finding_for(document_, "place.rotation", name);
    const Ink ink = ratio ? ink_of(ratio->verdict) : Ink::grey;
    s.pen(ink, 1.4, Qt::DashDotLine);
    s.line(at, at + QPointF(0, 0.5 * cg.y()));
    s.label(at + QPointF(0, 0.5 * cg.y()), QObject::tr("rotates in time up to here"), ink,
            Qt::AlignRight | Qt::AlignVCenter, {-5, 0}, 7.5);
  }
  // Loads and wheelbase.
  const QPointF third = pose.third_contact();
  s.dimension({std::min(third.x(), contact.x()), 0}, {std::max(third.x(), contact.x()), 0},
              QObject::tr("wheelbase %1").arg(document_.say(std::abs(contact.x() - third.x()), Kind::length)),
              40, Ink::grey);
  // Every wheel from the CG, which is what is marked on the airframe.
  const auto from_the_cg = [&](double x) {
    return QObject::tr("%1 %2 the CG")
        .arg(document_.say(std::abs(x - pose.cg.x()), Kind::length),
             x >= pose.cg.x() ? QObject::tr("behind") : QObject::tr("ahead of"));
  };
  const char* share = d.on_two_lines()  ? "place.front_share"
                      : d.is_tricycle() ? "place.nose_share"
                                        : "place.tail_share";
  const QString of_main =
      QObject::tr("main axle %1, %2")
          .arg(document_.say(d.gear.main().axle.x, Kind::length), from_the_cg(d.gear.main().axle.x));
  QString of_third;
  const Finding* f = finding_for(document_, share, name);
  if (f && std::isfinite(f->value))
    of_third = QObject::tr("%1 %2, %3")
                   .arg(in_tongue(d.third_word()), value_text(*f, document_.units()),
                        from_the_cg(d.gear.third().axle.x));
  // Side by side below their wheels; of a short wheelbase each keeps to its side of the middle.
  const QFontMetricsF letters(text_font(8.5, true));
  const double apart = s.frame().scale() * std::abs(third.x() - contact.x());
  const bool crowded =
      !of_third.isEmpty() &&
      (letters.horizontalAdvance(of_main) + letters.horizontalAdvance(of_third)) / 2 + 12 > apart;
  QPointF middle((third.x() + contact.x()) / 2, 0);
  if (crowded) {
    // Both stay on the board.
    const bool third_left = third.x() < contact.x();
    const double left = letters.horizontalAdvance(third_left ? of_third : of_main) + 14;
    const double right = letters.horizontalAdvance(third_left ? of_main : of_third) + 14;
    const QRectF board = s.frame().device();
    double x = s.frame().to_device(middle).x();
    x = std::max(std::min(x, board.right() + 20 - right), board.left() - 20 + left);
    middle.setX(s.frame().to_world({x, 0}).x());
  }
  const auto below = [&](const QPointF& contact_at, const QString& text, Ink ink) {
    const bool left = contact_at.x() < (third.x() + contact.x()) / 2;
    s.label(crowded ? middle : QPointF(contact_at.x(), 0), text, ink,
            (crowded ? (left ? Qt::AlignRight : Qt::AlignLeft) : Qt::AlignHCenter) | Qt::AlignTop,
            {crowded ? (left ? -6.0 : 6.0) : 0.0, 11}, 8.5, true);
  };
  if (!of_third.isEmpty()) below(third, of_third, ink_of(f->verdict));
  below(contact, of_main, Ink::accent);
  // The others from the CG likewise.
  for (const auto& line : lines_of_wheels(d)) {
    const Leg& leg = d.gear.leg(line.spokesman);
    if (line.spokesman == d.gear.main().id || line.spokesman == d.gear.third().id) continue;
    for (size_t i = 0; i < pose.placed.size(); ++i) {
      if (d.gear.legs[pose.placed[i].row].id != line.spokesman || pose.placed[i].port) continue;
      s.label({pose.side(pose.wheels[i].axle).x(), 0}, from_the_cg(leg.axle.x), Ink::grey,
              Qt::AlignHCenter | Qt::AlignTop, {0, 25}, 8);
    }
  }
  // Edges and formers to measure from, along the ground.
  for (const auto& r : d.airframe.references) {
    if (!r.x.known() || !d.gear.main().axle.z.known()) continue;
    const QPointF at = pose.side(Vec3(r.x, 0, d.gear.main().axle.z.si));
    s.pen(Ink::grey, r.former ? 1.4 : 0.9, r.former ? Qt::SolidLine : Qt::DashLine);
    // A tick on the ground and one below the dimensions, clear of what is written between.
    const double point = s.unit() / s.frame().scale();
    s.line({at.x(), 9 * point}, {at.x(), 0});
    s.line({at.x(), -49 * point}, {at.x(), -56 * point});
    s.label({at.x(), 0}, text_of(r.name), Ink::grey, Qt::AlignHCenter | Qt::AlignTop, {0, 56}, 7.5);
  }
  // Propeller clearance.
  for (const auto& p : d.airframe.propellers) {
    if (!p.hub.known() || !p.diameter.known() || !p.tilt.known()) continue;
    const QPointF tip = pose.side(place::lowest_of({p.hub.vec(), p.diameter, p.tilt}, pose.drawn_pitch));
    s.vertical_dimension(tip, {tip.x(), 0}, document_.say(tip.y(), Kind::length), -14, Ink::grey);
  }
}

void SidePane::draw_stance(Sheet& s, const Pose& pose) {
  const Design& d = *pose.design;
  const LoadingState* l = document_.loading();
  if (pose.has_cg) s.cg(pose.side(pose.cg), true);
  // The reference line against the ground.
  const QRectF box = side_bounds(pose);
  const Vec3 nose(d.airframe.bodies.empty() || d.airframe.bodies[0].sections.empty()
                      ? 0
                      : d.airframe.bodies[0].sections.front().x.si,
                  0, 0);
  const QPointF a = pose.side(nose);
  const QPointF b = pose.side(nose + Vec3(box.width() * 0.9, 0, 0));
  s.pen(Ink::accent, 1, Qt::DashDotLine);
  s.line(a, b);
  s.label(b, QObject::tr("level reference, %1").arg(QString::fromStdString(d.airframe.level_reference)),
          Ink::accent, Qt::AlignRight | Qt::AlignBottom, {0, -3}, 8);
  const QPolygonF wing = wing_section(pose, 0.15 * d.airframe.wing.span);
  if (!wing.isEmpty() && d.airframe.wing.incidence.known())
    s.label(wing.boundingRect().center(),
            QObject::tr("wing %1").arg(document_.say(pose.pitch + d.airframe.wing.incidence, Kind::angle)),
            Ink::normal, Qt::AlignHCenter | Qt::AlignVCenter, {0, 0}, 8.5, true);
  if (!l || !l->rest) return;
  // Loads as arrows up from the ground, their length by share of the weight.
  const double weight = l->mass.down.mass * standard_gravity;
  const double whole = 0.55 * box.height();
  const auto arrow = [&](const QPointF& foot, double load, const QString& text, double below) {
    const QPointF tip = foot + QPointF(0, whole * load / weight);
    s.pen(Ink::accent, 2.4);
    s.line(foot, tip);
    const QPointF t = s.frame().to_device(tip);
    s.fill(Theme::now().accent);
    s.painter().drawPolygon(QPolygonF({t + QPointF(0, -5), t + QPointF(4, 4), t + QPointF(-4, 4)}));
    s.label(foot, text, Ink::accent, Qt::AlignHCenter | Qt::AlignTop, {0, below}, 8.5, true);
  };
  // Lines of wheels near each other get their words one below the other.
  std::vector<std::pair<double, int>> taken;
  const auto row_at = [&](double x) {
    int row = 0;
    while (std::any_of(taken.begin(), taken.end(), [&](const auto& t) {
      return t.second == row && std::abs(t.first - x) < 130 * s.unit();
    }))
      ++row;
    taken.emplace_back(x, row);
    return row;
  };
  const auto& w = l->rest->wheels;
  for (const auto& line : lines_of_wheels(d)) {
    double load = 0;
    double least = std::numeric_limits<double>::infinity();
    double most = 0;
    QStringList each;
    int legs = 0;
    size_t speaks = 0;
    for (size_t i = 0; i < pose.placed.size(); ++i)
      if (std::find(line.rows.begin(), line.rows.end(), pose.placed[i].row) != line.rows.end()) {
        load += w[i].load;
        least = std::min(least, w[i].load);
        most = std::max(most, w[i].load);
        each << QObject::tr(pose.placed[i].port ? "port %1" : "starboard %1")
                    .arg(document_.say(w[i].load, Kind::force));
        ++legs;
        if (d.gear.legs[pose.placed[i].row].id == line.spokesman) speaks = i;
      }
    const QPointF foot = pose.side(pose.wheels[speaks].axle) - QPointF(0, pose.wheels[speaks].radius);
    const double below = 11 + 30 * row_at(s.frame().to_device(foot).x());
    const bool alike = most - least < 0.02 * weight / static_cast<double>(pose.placed.size());
    arrow(foot, load,
          legs < 2 ? document_.say(load, Kind::force)
          : alike  ? QObject::tr("%1 × %2").arg(legs).arg(document_.say(load / legs, Kind::force))
                   : each.join(QStringLiteral(", ")),
          below);
    // How the leg itself leans, beside its middle.
    for (const auto& f : document_.assessment().findings)
      if (f.measure_id == "stance.leg_lean" && f.subject.leg == d.gear.legs[pose.placed[speaks].row].id &&
          std::isfinite(f.value))
        s.label(foot,
                QObject::tr(f.value >= 0 ? "leans %1, foot aft" : "leans %1, foot forward")
                    .arg(document_.say(std::abs(f.value), Kind::angle)),
                ink_of(f.verdict), Qt::AlignHCenter | Qt::AlignTop, {0, below + 28}, 8);
    s.label(foot,
            w[speaks].touches ? QObject::tr("leg %1, tyre %2")
                                    .arg(document_.say(w[speaks].leg_closure, Kind::length),
                                         document_.say(w[speaks].tyre_closure, Kind::length))
                              : QObject::tr("clear by %1").arg(document_.say(w[speaks].gap, Kind::length)),
            Ink::grey, Qt::AlignHCenter | Qt::AlignTop, {0, below + 15}, 8);
  }
  // Heights one can check with a ruler.
  for (const auto& p : d.airframe.propellers)
    if (p.hub.known() && p.diameter.known() && p.tilt.known()) {
      const QPointF tip = pose.side(place::lowest_of({p.hub.vec(), p.diameter, p.tilt}, pose.drawn_pitch));
      s.vertical_dimension(tip, {tip.x(), 0}, document_.say(tip.y(), Kind::length), -14, Ink::grey);
    }
  if (!d.airframe.bodies.empty() && !d.airframe.bodies[0].sections.empty()) {
    const auto& last = d.airframe.bodies[0].sections.back();
    const QPointF tail = pose.side({last.x, 0, last.bottom});
    s.vertical_dimension(tail, {tail.x(), 0}, document_.say(tail.y(), Kind::length), 10, Ink::grey);
  }
}

namespace {

//! A mark of the original in the side view's world: a wheel, or with no radius the height of an axis.
struct OriginalMark {
  const char* id;
  std::string leg;  //!< whose wheel it is held against; empty: the aircraft
  QPointF at;
  double radius, reach;
  Given Original::*x;  //!< null: it has a height alone
  Given Original::*z;
  Given Original::*diameter;
};
std::vector<OriginalMark> original_marks(const Design& d, const Pose& pose) {
  std::vector<OriginalMark> list;
  const Original& o = d.original;
  if (!d.gear.has(LegRole::main)) return list;
  const Given& axle = d.gear.main().axle.x;
  const double from = pose.main_contact().x() - (axle.known() ? axle.si : 0);
  const auto wheel = [&](const char* id, const std::string& leg, Given Original::*x, Given Original::*z,
                         Given Original::*diameter) {
    if ((o.*x).known() && (o.*z).known() && (o.*diameter).known())
      list.push_back({id, leg, {from + (o.*x), o.*z}, (o.*diameter) / 2, 0, x, z, diameter});
  };
  wheel("original-main", d.gear.main().id, &Original::main_x, &Original::main_z, &Original::main_diameter);
  wheel("original-third", d.gear.third().id, &Original::third_x, &Original::third_z,
        &Original::third_diameter);
  if (o.propeller_z.known() && !d.airframe.propellers.empty() && d.airframe.propellers[0].hub.known()) {
    const auto& p = d.airframe.propellers[0];
    list.push_back({"original-propeller",
                    {},
                    {pose.side(p.hub.vec()).x(), o.propeller_z},
                    0,
                    p.diameter.known() ? 0.1 * p.diameter : 0.05,
                    nullptr,
                    &Original::propeller_z,
                    nullptr});
  }
  return list;
}

}  // namespace

//! The original's wheels and propeller axis as they were marked on the picture, with what differs.
void SidePane::draw_original(Sheet& s, const Pose& pose) {
  const Design& d = *pose.design;
  const auto told = [&](const std::string& leg) {
    QStringList list;
    for (const auto& f : document_.assessment().findings) {
      if (f.info().station != Station::stance || !std::isfinite(f.value) || f.subject.leg != leg) continue;
      const QString by = document_.say(std::abs(f.value), Kind::length);
      if (f.measure_id == "stance.original_wheel")
        list << QObject::tr(f.value < 0 ? "wheel %1 smaller" : "wheel %1 larger").arg(by);
      if (f.measure_id == "stance.original_axle")
        list << QObject::tr(f.value < 0 ? "%1 ahead" : "%1 aft").arg(by);
      if (f.measure_id == "stance.original_strut")
        list << QObject::tr(f.value < 0 ? "leg %1 shorter" : "leg %1 longer").arg(by);
      if (f.measure_id == "stance.original_height")
        list << QObject::tr(f.value < 0 ? "%1 lower than the original" : "%1 higher than the original")
                    .arg(by);
    }
    return list.join(", ");
  };
  s.no_fill();
  for (const auto& mark : original_marks(d, pose)) {
    s.pen(Ink::tight, 1.6, Qt::DashLine);
    if (mark.radius > 0)
      s.circle(mark.at, mark.radius);
    else
      s.line(mark.at - QPointF(mark.reach, 0), mark.at + QPointF(mark.reach, 0));
    const QString words = told(mark.leg);
    if (!words.isEmpty())
      s.label(mark.at + QPointF(0, mark.radius), words, Ink::tight, Qt::AlignHCenter | Qt::AlignBottom,
              {0, -4}, 8);
  }
}

void SidePane::draw_weigh(Sheet& s, const Pose& pose) {
  const Design& d = *pose.design;
  const LoadingState* chosen = document_.loading();
  double heaviest = 0;
  for (const auto& i : d.ledger) heaviest = std::max(heaviest, i.mass.known() ? i.mass.si : 0.0);
  const auto aboard_of = [&](const Item& item) -> const Aboard* {
    for (const auto& l : d.loadings)
      if (chosen && l.name == chosen->name)
        for (const auto& a : l.aboard)
          if (a.item == item.name) return &a;
    return nullptr;
  };
  // A label stands where it covers neither another one, nor the CG and its figure; else it is left to the
  // tool tip.
  std::vector<QRectF> taken;
  const QFontMetricsF metrics(text_font(7.5), s.painter().device());
  if (pose.has_cg) {
    const QPointF c = s.frame().to_device(pose.side(pose.cg));
    taken.push_back(QRectF(c + QPointF(-95, -32), c + QPointF(95, 12)));
  }
  for (const auto& i : d.ledger) {
    if (!i.mass.known() || !i.at.known()) continue;
    const Aboard* aboard = i.group == Group::load ? aboard_of(i) : nullptr;
    const bool out = i.group == Group::load && !aboard;
    const double mass = aboard && aboard->mass.known() ? aboard->mass.si : i.mass.si;
    Vec3 at = i.at.vec();
    if (aboard && aboard->x.known()) at.x() = aboard->x;
    const QPointF w = pose.side(at);
    const double r = 3 + 13 * std::sqrt(mass / heaviest);
    QColor c = out ? Theme::now().faint : i.group == Group::load ? Theme::now().accent : Theme::now().grey;
    s.pen(c, 1.2, i.weighed ? Qt::SolidLine : Qt::DashLine);
    c.setAlpha(out ? 30 : 90);
    s.fill(c);
    s.painter().drawEllipse(s.frame().to_device(w), r, r);
    if (out || mass < 0.02 * heaviest) continue;
    const QString text =
        QStringLiteral("%1 %2").arg(QString::fromStdString(i.name), document_.say(mass, Kind::mass));
    const double width = metrics.horizontalAdvance(text) + 4;
    const QPointF dev = s.frame().to_device(w);
    struct Try {
      QPointF shift;
      Qt::Alignment align;
      QPointF corner;
    };
    for (const Try& t : {Try{{r + 3, 0}, Qt::AlignLeft | Qt::AlignVCenter, {r + 3, -7}},
                         Try{{-r - 3, 0}, Qt::AlignRight | Qt::AlignVCenter, {-r - 3 - width, -7}},
                         Try{{0, -r - 3}, Qt::AlignHCenter | Qt::AlignBottom, {-width / 2, -r - 17}},
                         Try{{0, r + 3}, Qt::AlignHCenter | Qt::AlignTop, {-width / 2, r + 3}}}) {
      const QRectF box(dev + t.corner, QSizeF(width, 14));
      if (!s.frame().device().adjusted(-40, 0, 34, 0).contains(box) ||
          std::any_of(taken.begin(), taken.end(), [&](const QRectF& q) { return q.intersects(box); }))
        continue;
      taken.push_back(box);
      s.label(w, text, Ink::grey, t.align, t.shift, 7.5);
      break;
    }
  }
  // The range of the CG on the ground line, and each loading's place in it.
  const auto& f = d.airframe;
  if (f.cg_forward_limit.known() && f.cg_aft_limit.known()) {
    const QPointF a = s.frame().to_device(QPointF(pose.side({f.cg_forward_limit, 0, pose.cg.z()}).x(), 0));
    const QPointF b = s.frame().to_device(QPointF(pose.side({f.cg_aft_limit, 0, pose.cg.z()}).x(), 0));
    s.painter().fillRect(QRectF(a + QPointF(0, 12), b + QPointF(0, 20)), Theme::now().band);
    s.label({pose.side({f.cg_forward_limit, 0, pose.cg.z()}).x(), 0},
            QObject::tr("CG from %1").arg(document_.say(f.cg_forward_limit, Kind::length)), Ink::grey,
            Qt::AlignRight | Qt::AlignVCenter, {-6, 16}, 8);
    s.label({pose.side({f.cg_aft_limit, 0, pose.cg.z()}).x(), 0},
            QObject::tr("to %1").arg(document_.say(f.cg_aft_limit, Kind::length)), Ink::grey,
            Qt::AlignLeft | Qt::AlignVCenter, {6, 16}, 8);
  }
  for (const auto& l : document_.assessment().loadings) {
    if (!l.mass.known()) continue;
    const bool is_chosen = chosen && l.name == chosen->name;
    const QPointF foot = s.frame().to_device({pose.side(l.mass.down.at).x(), 0});
    s.pen(is_chosen ? Ink::normal : Ink::grey, is_chosen ? 2.4 : 1.2);
    s.painter().drawLine(foot + QPointF(0, 10), foot + QPointF(0, 22));
    if (!is_chosen) s.cg(pose.side(l.mass.down.at), false);
  }
  if (pose.has_cg) {
    s.cg(pose.side(pose.cg), true);
    s.label(
        pose.side(pose.cg),
        QObject::tr("CG %1, %2")
            .arg(document_.say(pose.cg.x(), Kind::length), document_.say(chosen->mass.down.mass, Kind::mass)),
        Ink::normal, Qt::AlignHCenter | Qt::AlignBottom, {0, -14}, 9, true);
  }
}

namespace {

//! The handles of the original: its wheels' middles and rims, the height of its propeller's axis.
std::vector<Handle> original_handles(const Design& d, const Pose& pose) {
  std::vector<Handle> list;
  for (const auto& mark : original_marks(d, pose)) {
    const QString id = QString::fromLatin1(mark.id);
    Handle middle;
    middle.id = id;
    middle.name =
        mark.radius > 0 ? QObject::tr("original's wheel") : QObject::tr("original's propeller axis");
    middle.at = mark.at;
    middle.radius = 8;
    middle.move = [x = mark.x, z = mark.z](Design& design, double dx, double dy) {
      if (x) (design.original.*x).si += dx;
      Given& height = design.original.*z;
      height.si = std::max(0.0, height.si + dy);
    };
    list.push_back(std::move(middle));
    if (!(mark.radius > 0)) continue;
    Handle rim;
    rim.id = id + "-rim";
    rim.name = QObject::tr("original's wheel, its size");
    rim.at = mark.at + QPointF(mark.radius, 0);
    rim.radius = 6;
    rim.move = [of = mark.diameter](Design& design, double dx, double) {
      Given& diameter = design.original.*of;
      diameter.si = std::max(0.001, diameter.si + 2 * dx);
    };
    list.push_back(std::move(rim));
  }
  return list;
}

}  // namespace

std::vector<Handle> SidePane::handles() const {
  const Design& d = document_.design();
  const Pose pose = pose_now(document_);
  std::vector<Handle> list;
  if (document_.gear_position() > 0) return list;
  const auto to_air = [pose](double dx, double dy) { return pose.move_from_side(dx, dy); };
  if (overlay_ == Overlay::weigh) {
    for (size_t i = 0; i < d.ledger.size(); ++i)
      if (d.ledger[i].at.known())
        list.push_back({QStringLiteral("item:%1").arg(i), QString::fromStdString(d.ledger[i].name),
                        pose.side(d.ledger[i].at.vec()), 9,
                        [i, to_air](Design& x, double dx, double dy) {
                          const Vec3 m = to_air(dx, dy);
                          x.ledger[i].at.x.si += m.x();
                          x.ledger[i].at.z.si += m.z();
                        },
                        true});
    return list;
  }
  if (overlay_ == Overlay::stance)
    for (Handle& h : original_handles(d, pose)) list.push_back(std::move(h));
  for (const auto& line : lines_of_wheels(d))
    list.push_back({text_of(line.spokesman), line.word, pose.side(pose.axle_of(line.spokesman)),
                    line.main ? 15.0 : 13.0, [to_air, rows = line.rows](Design& x, double dx, double dy) {
                      const Vec3 m = to_air(dx, dy);
                      shift_legs(x, rows, m.x(), 0, 0);
                      for (const size_t row : rows) x.gear.legs[row].axle.z.si += m.z();
                    }});
  if (overlay_ == Overlay::place && pose.has_cg)
    list.push_back({"cg", QObject::tr("CG, by sliding what slides"), pose.side(pose.cg), 12,
                    [to_air, name = document_.loading_name().toStdString()](Design& x, double dx, double dy) {
                      weigh::shift_cg(x, name, to_air(dx, dy).x());
                    }});
  for (size_t i = 0; overlay_ == Overlay::place && i < d.airframe.low_points.size(); ++i)
    if (d.airframe.low_points[i].at.known() && d.airframe.low_points[i].role != PointRole::wing_tip)
      list.push_back({QStringLiteral("point:%1").arg(i),
                      QString::fromStdString(d.airframe.low_points[i].name),
                      pose.side(d.airframe.low_points[i].at.vec()), 8,
                      [i, to_air](Design& x, double dx, double dy) {
                        const Vec3 m = to_air(dx, dy);
                        x.airframe.low_points[i].at.x.si += m.x();
                        x.airframe.low_points[i].at.z.si += m.z();
                      },
                      true});
  for (size_t i = 0; overlay_ == Overlay::place && i < d.airframe.propellers.size(); ++i)
    if (d.airframe.propellers[i].hub.known())
      list.push_back(
          {QStringLiteral("propeller:%1").arg(i), QString::fromStdString(d.airframe.propellers[i].name),
           pose.side(d.airframe.propellers[i].hub.vec()), 10, [i, to_air](Design& x, double dx, double dy) {
             const Vec3 m = to_air(dx, dy);
             x.airframe.propellers[i].hub.x.si += m.x();
             x.airframe.propellers[i].hub.z.si += m.z();
           }});
  return list;
}

}  // namespace kranich::app
