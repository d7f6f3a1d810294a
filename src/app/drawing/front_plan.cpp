// SPDX-License-Identifier: GPL-3.0-or-later
//! The aircraft from ahead and from above.
#include <algorithm>
#include <cmath>

#include "app/drawing/panes.h"
#include "app/widgets/findings.h"
#include "core/assess/loading_state.h"
#include "core/assess/standing.h"
#include "core/model/moves.h"
#include "core/place/tipping.h"

namespace kranich::app {

QRectF FrontPane::bounds() const { return front_bounds(pose_now(document_)); }

void FrontPane::draw(Sheet& s) {
  const Pose pose = pose_now(document_);
  s.ground(0);
  draw_front(s, pose);
  draw_doors(s, pose, [&](const Vec3& p) { return pose.front(p); });
  if (pose.gear_position == 0)
    draw_keep_outs(s, document_.design(), [&](const Vec3& p) { return pose.front(p); });
  draw_others(s, document_, pose, draw_front);
  const QString sides = document_.design().unlinked() ? QObject::tr("port as measured on its own")
                                                      : QObject::tr("starboard = port");
  const bool leans = std::abs(pose.roll) > radians(0.2);
  s.title(QObject::tr("Front"), leans
                                    ? QObject::tr("leans %1 to %2")
                                          .arg(document_.say(std::abs(pose.roll), Kind::angle),
                                               pose.roll > 0 ? QObject::tr("starboard") : QObject::tr("port"))
                                    : sides);
  if (document_.design().gear.main().axle.known() && pose.gear_position == 0 &&
      document_.design().gear.main().stands != LegStands::centre) {
    const double starboard = pose.main_axle().y();
    const double port = pose.port_axle().y();
    s.dimension({-starboard, 0}, {-port, 0},
                QObject::tr("wheels %1 apart").arg(document_.say(starboard - port, Kind::length)), 26,
                Ink::normal);
  }
  if (pose.has_cg) s.cg(pose.front(pose.cg), true);
}

std::vector<Handle> FrontPane::handles() const {
  const Pose pose = pose_now(document_);
  if (document_.gear_position() > 0) return {};
  std::vector<Handle> list;
  for (const auto& line : beside_lines(document_.design()))
    list.push_back({line.spokesman == document_.design().gear.main().id ? QStringLiteral("track")
                                                                        : "track:" + text_of(line.spokesman),
                    QObject::tr("starboard %1, sideways").arg(line.word),
                    pose.front(pose.axle_of(line.spokesman)), 13,
                    [rows = line.rows, pose](Design& x, double dx, double dy) {
                      shift_legs(x, rows, 0, pose.move_from_front(dx, dy).y(), 0);
                    }});
  // A leg that is bent out keeps its length: the wheel goes out and up about the leg's top.
  const Leg& main = document_.design().gear.main();
  if (!main.retraction.fitted && main.top.known() && main.stands != LegStands::centre) {
    const double drop = main.top.z - main.axle.z;
    const Vec3 middle = (main.top.vec() + pose.main_axle()) / 2;
    list.push_back({"bend", QObject::tr("main legs, bent out at constant length"), pose.front(middle), 9,
                    [drop](Design& x, double dx, double) {
                      for_mains(x, [&](Leg& leg) { bend_leg_out(leg, -2 * dx / drop); });
                    },
                    true});
  }
  return list;
}

QRectF PlanPane::bounds() const { return plan_bounds(pose_now(document_)); }

void PlanPane::draw(Sheet& s) {
  const Design& d = document_.design();
  const Pose pose = pose_now(document_);
  draw_plan(s, pose);
  draw_doors(s, pose, [&](const Vec3& p) { return pose.plan(p); });
  draw_keep_outs(s, document_.design(), [&](const Vec3& p) { return pose.plan(p); });
  draw_others(s, document_, pose, draw_plan);
  const Finding* over = finding_for(document_, d.is_tricycle() ? "place.turnover" : "place.side_tip",
                                    document_.loading_name().toStdString());
  s.title(QObject::tr("Plan"),
          over && std::isfinite(over->value)
              ? QStringLiteral("%1 %2, %3")
                    .arg(d.is_tricycle() ? QObject::tr("turnover") : QObject::tr("tips sideways at"),
                         value_text(*over, document_.units()), text_of(verdict_word(over->verdict)))
              : QString());
  if (pose.gear_position > 0) return;
  const QPointF third = pose.plan(pose.third_axle());
  const QPointF starboard = pose.plan(pose.main_axle());
  s.no_fill();
  s.pen(Ink::accent, 1.1, Qt::DashLine);
  if (const LoadingState* l = document_.loading()) {
    // What it stands on, and may be caught by: the polygon round all wheels.
    std::vector<place::Vec2> contacts;
    for (const auto& w :
         standing_in(d, document_.assessment().wheels ? &*document_.assessment().wheels : nullptr, *l,
                     pose.state)
             .wheels)
      if (std::isfinite(w.x) && std::isfinite(w.contact_y)) contacts.emplace_back(w.x, w.contact_y);
    QPolygonF polygon;
    for (const auto& p : place::support_polygon(contacts)) polygon << pose.plan({p.x(), p.y(), 0});
    s.polyline(polygon, true);
  }
  if (!pose.has_cg) return;
  const QPointF cg = pose.plan(pose.cg);
  // The tipping rose: an acceleration of a/g throws the CG out by a/g times its height. The circle is the
  // largest that stays on the wheels.
  if (const Finding* tip = finding_for(document_, "place.tipping", document_.loading_name().toStdString());
      tip && std::isfinite(tip->value) && tip->value > 0) {
    double height = 0;
    for (const auto& w : tip->working)
      if (w.name == "h") height = w.si;
    s.no_fill();
    s.pen(Ink::grey, 1, Qt::DotLine);
    s.circle(cg, tip->value * height);
    s.label(cg + QPointF(0, -tip->value * height),
            QObject::tr("%1 tips it").arg(value_text(*tip, document_.units())), Ink::grey,
            Qt::AlignHCenter | Qt::AlignTop, {0, 2}, 7.5);
  }
  const Finding* f = finding_for(document_, d.is_tricycle() ? "place.turnover" : "place.side_tip",
                                 document_.loading_name().toStdString());
  if (f && std::isfinite(f->value) && d.layout() != Layout::tandem) {
    const QPointF along = starboard - third;
    const double length2 = along.x() * along.x() + along.y() * along.y();
    const QPointF to_cg = cg - third;
    const QPointF foot = third + along * ((to_cg.x() * along.x() + to_cg.y() * along.y()) / length2);
    s.pen(ink_of(f->verdict), 1.8);
    s.line(cg, foot);
  }
  s.cg(cg, true);
}

std::vector<Handle> PlanPane::handles() const {
  const Pose pose = pose_now(document_);
  const Design& d = document_.design();
  if (document_.gear_position() > 0) return {};
  std::vector<Handle> list;
  for (const auto& line : lines_of_wheels(d))
    list.push_back({"plan-" + text_of(line.spokesman), QObject::tr("%1 in plan").arg(line.word),
                    pose.plan(pose.axle_of(line.spokesman)), line.main ? 13.0 : 11.0,
                    [rows = line.rows, beside = line.beside](Design& x, double dx, double dy) {
                      shift_legs(x, rows, dx, beside ? -dy : 0, 0);
                    }});
  return list;
}

}  // namespace kranich::app
