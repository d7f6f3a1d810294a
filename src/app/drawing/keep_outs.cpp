// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <cmath>

#include "app/drawing/aircraft.h"
#include "app/widgets/findings.h"
#include "core/doors/door.h"
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

void draw_keep_out(Sheet& s, const place::Box& box, bool port, const Map& view) {
  const Theme& t = Theme::now();
  s.pen(t.grey, 1);
  s.painter().setBrush(QBrush(t.grey, Qt::BDiagPattern));
  s.painter().drawPolygon(outline_of(s, box, port, view));
}

void draw_keep_outs(Sheet& s, const Design& d, const Map& view) {
  const Theme& t = Theme::now();
  std::vector<place::Box> solid;
  for (const auto& k : d.airframe.keep_outs) {
    const auto box = place::box_of(k);
    if (!box) continue;
    solid.push_back(*box);
    for (const bool port : {false, true}) draw_keep_out(s, *box, port, view);
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
    const bool runs_in =
        std::any_of(solid.begin(), solid.end(), [&](const place::Box& b) { return b.overlaps(*unit); });
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
