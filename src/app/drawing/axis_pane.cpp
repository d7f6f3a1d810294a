// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawing/axis_pane.h"

#include <cmath>

#include "app/theme.h"
#include "app/widgets/quantity_edit.h"
#include "core/model/locate.h"

namespace kranich::app {
namespace {

double value_of(const Given& g) { return g.known() ? g.si : 0; }

}  // namespace

bool AxisPane::along() const {
  const SwingDirection way = swing_.the_leg().retraction.direction;
  return way == SwingDirection::inward || way == SwingDirection::outward;
}

//! In plan forward is up and outboard to the right; in elevation forward is to the left (seen from port), or
//! outboard to the right (seen from behind).
std::vector<AxisPane::View> AxisPane::views() const {
  const Retraction& r = swing_.the_leg().retraction;
  const double yaw = value_of(r.axis_yaw);
  const double tip = value_of(r.axis_tip);
  const double half = 0.42 * std::min(area_.width() / 2, area_.height() - 30);
  const double y = area_.height() / 2 - 6;
  return {{"axis-plan",
           {0.25 * area_.width(), y},
           half,
           along() ? QPointF(-std::sin(yaw), std::cos(yaw)) : QPointF(std::cos(yaw), std::sin(yaw))},
          {"axis-tip",
           {0.75 * area_.width(), y},
           half,
           along() ? QPointF(-std::cos(tip), std::sin(tip)) : QPointF(std::cos(tip), std::sin(tip))}};
}

void AxisPane::draw(Sheet& s) {
  area_ = s.frame().device();
  const Leg& l = swing_.the_leg();
  const Retraction& r = l.retraction;
  QPainter& p = s.painter();
  const Theme& t = Theme::now();
  p.setFont(text_font(9, true));
  p.setPen(t.grey);
  p.drawText(area_, Qt::AlignLeft | Qt::AlignTop, QObject::tr("Axis"));
  if (!r.fitted || r.motion == LegMotion::lifts_and_turns) return;
  const QStringList words{QObject::tr("from above"),
                          along() ? QObject::tr("seen from port") : QObject::tr("seen from behind")};
  const double turned[]{value_of(r.axis_yaw), value_of(r.axis_tip)};
  const auto all = views();
  for (size_t i = 0; i < all.size(); ++i) {
    const View& v = all[i];
    const auto at = [&](const QPointF& from_middle) { return s.frame().to_device(v.middle + from_middle); };
    s.pen(Ink::faint, 1, Qt::DashLine);
    const QPointF straight = i == 0 && along() ? QPointF(0, 1) : QPointF(1, 0);
    p.drawLine(at(-1.15 * v.half * straight), at(1.15 * v.half * straight));
    s.pen(Ink::accent, 2);
    p.drawLine(at(-v.half * v.end), at(v.half * v.end));
    p.setBrush(t.accent);
    p.setPen(Qt::NoPen);
    p.drawEllipse(at({0, 0}), 3.5, 3.5);
    p.setBrush(Qt::NoBrush);
    p.setFont(text_font(8));
    p.setPen(t.grey);
    const QRectF below(at({-area_.width() / 4, -v.half - 4}), QSizeF(area_.width() / 2, 14));
    p.drawText(below, Qt::AlignCenter,
               QObject::tr("%1: %2").arg(words[static_cast<int>(i)], document_.say(turned[i], Kind::angle)));
  }
}

std::vector<Handle> AxisPane::handles() const {
  std::vector<Handle> list;
  const Leg& l = swing_.the_leg();
  const Retraction& r = l.retraction;
  if (area_.isEmpty() || !r.fitted || r.motion == LegMotion::lifts_and_turns) return list;
  const bool lies_along = along();
  for (const View& v : views())
    for (const double side : {1.0, -1.0}) {
      const bool plan = v.id == std::string("axis-plan");
      Handle h;
      h.id = QString::fromLatin1(v.id) + (side > 0 ? "" : "-other");
      h.name = plan ? QObject::tr("axis, turned in plan") : QObject::tr("axis, tipped");
      h.at = v.middle + side * v.half * v.end;
      h.radius = 8;
      h.per_metre = v.half * 1000 * M_PI / 1800;  // an arrow key: a tenth of a degree
      h.move = [=, id = swing_.leg, from = v.half * v.end](Design& d, double dx, double dy) {
        Leg* its = d.gear.find(id);
        if (!its) return;
        // Where its forward or outboard end would point, as angles from where it lies unturned.
        const QPointF to = from + side * QPointF(dx, dy);
        double turned = 0;
        if (plan)
          turned = lies_along ? std::atan2(-to.x(), to.y()) : std::atan2(to.y(), to.x());
        else
          turned = std::atan2(to.y(), lies_along ? -to.x() : to.x());
        // As far as its entry allows.
        const auto spec =
            spec_at(d, "/gear/legs/" + id + "/retraction/" + (plan ? "axis_yaw_deg" : "axis_tip_deg"));
        put_entry(plan ? its->retraction.axis_yaw : its->retraction.axis_tip,
                  std::clamp(turned, spec->least, spec->most), std::nullopt);
      };
      list.push_back(std::move(h));
    }
  return list;
}

}  // namespace kranich::app
