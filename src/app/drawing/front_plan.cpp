// SPDX-License-Identifier: GPL-3.0-or-later
//! The aircraft from ahead and from above.
#include <algorithm>
#include <cmath>

#include "app/drawing/panes.h"
#include "app/widgets/findings.h"
#include "core/model/moves.h"

namespace kranich::app {

QRectF FrontPane::bounds() const { return front_bounds(pose_now(document_)); }

void FrontPane::draw(Sheet& s) {
  const Pose pose = pose_now(document_);
  s.ground(0);
  draw_front(s, pose);
  if (pose.gear_position == 0)
    draw_keep_outs(s, document_.design(), [&](const Vec3& p) { return pose.front(p); });
  draw_others(s, document_, pose, draw_front);
  s.title(QObject::tr("Front"), document_.design().gear.unlinked ? QObject::tr("port as measured on its own")
                                                                 : QObject::tr("starboard = port"));
  if (document_.design().gear.main.axle.known() && pose.gear_position == 0) {
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
  if (!document_.design().gear.main.axle.known() || document_.gear_position() > 0) return {};
  std::vector<Handle> list{
      {"track", QObject::tr("starboard main wheel, sideways"), pose.front(pose.main_axle()), 13,
       [](Design& x, double dx, double) { for_mains(x, [&](Leg& leg) { shift_leg(leg, 0, -dx, 0); }); }}};
  // A leg that is bent out keeps its length: the wheel goes out and up about the leg's top.
  const Leg& main = document_.design().gear.main;
  if (!main.retraction.fitted && main.top.known()) {
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
  const QPointF port = pose.plan(pose.port_axle());
  s.no_fill();
  s.pen(Ink::accent, 1.1, Qt::DashLine);
  s.polyline(QPolygonF({third, starboard, port}), true);
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
  if (f && std::isfinite(f->value)) {
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
  if (d.gear.main.axle.known())
    list.push_back({"plan-main", QObject::tr("starboard main wheel in plan"), pose.plan(pose.main_axle()), 13,
                    [](Design& x, double dx, double dy) {
                      for_mains(x, [&](Leg& leg) { shift_leg(leg, dx, -dy, 0); });
                    }});
  if (d.gear.third.axle.known())
    list.push_back({"plan-third", QObject::tr("%1 wheel in plan").arg(QString::fromLatin1(d.third_word())),
                    pose.plan(pose.third_axle()), 11,
                    [](Design& x, double dx, double) { shift_leg(x.gear.third, dx, 0, 0); }});
  return list;
}

}  // namespace kranich::app
