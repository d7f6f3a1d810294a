// SPDX-License-Identifier: GPL-3.0-or-later
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>

#include "core/force/bent_leg.h"
#include "core/motion/retract.h"
#include "core/shop/maker.h"

namespace kranich::shop {

Maker::Made Maker::cope(const Leg& leg, const Tube& cut, const Tube& main) const {
  if (!cut.top.known() || !main.top.known() || !cut.diameter.known() || !main.diameter.known())
    return "attach points and diameters of both tubes";
  const Vec3 foot_cut = cut.foot.known() ? cut.foot.vec() : motion::foot(leg);
  const Vec3 foot_main = main.foot.known() ? main.foot.vec() : motion::foot(leg);
  const double theta = leg::drill_angle(cut.top.vec() - foot_cut, main.top.vec() - foot_main);
  const leg::Cope c{cut.diameter / 2, main.diameter / 2, theta, 0};
  if (!c.depth())
    return fmt::format("a tube “{}” no thicker than “{}” on which it sits", cut.name, main.name);
  Drawing s;
  Path curve;
  double low = 1e9;
  for (int i = 0; i <= 180; ++i) low = std::min(low, *c.at(2 * std::numbers::pi * i / 180));
  const double base = 30;  // paper beyond the deepest cut, to hold the template by
  for (int i = 0; i <= 180; ++i) {
    const double phi = 2 * std::numbers::pi * i / 180;
    curve.points.emplace_back(mm * c.around() * i / 180, mm * (*c.at(phi) - low));
  }
  s.paths.push_back(curve);
  const double width = mm * c.around();
  const double top = mm * *c.depth();
  s.line({0, curve.points.front().y()}, {0, top + base}, Line::cut);
  s.line({width, curve.points.back().y()}, {width, top + base}, Line::cut);
  s.line({0, top + base}, {width, top + base}, Line::cut);
  for (int i = 0; i <= 4; ++i) {
    const double x = width * i / 4;
    s.line({x, curve.points[static_cast<size_t>(45 * i)].y()}, {x, top + base}, Line::centre);
    s.write({x + 0.5, top + base - 4}, 2.2, fmt::format("{}°", 90 * i));
  }
  s.write({2, top + base - 9}, 2.2, "0°: the acute side; wrap round, this edge along the tube");
  s.dimension({0, top + base}, {width, top + base}, 5, length(c.around()));
  s.notes = {fmt::format("Tube {} on tube {}, axes at {}; deepest less shallowest cut {}.",
                         length(cut.diameter), length(main.diameter), angle(theta), length(*c.depth())),
             "Cut outside of the line, file to it, trial piece first."};
  return s;
}

Maker::Made Maker::plate(const Joint& j) const {
  if (!j.length.known() || !j.width.known()) return "the plate's length and width";
  Drawing s;
  const Vec2 half(mm * j.length / 2, mm * j.width / 2);
  s.rectangle(-half, half, Line::cut);
  s.line({-half.x() - 5, 0}, {half.x() + 5, 0}, Line::centre);
  s.line({0, -half.y() - 5}, {0, half.y() + 5}, Line::centre);
  int i = 0;
  for (const auto& f : j.fasteners)
    if (f.u.known() && f.v.known() && f.diameter.known())
      s.hole({mm * f.u, mm * f.v}, mm * f.diameter, fmt::format("{}: {}", ++i, length(f.diameter)));
  s.dimension({-half.x(), half.y()}, {half.x(), half.y()}, 8, length(j.length));
  s.dimension({-half.x(), -half.y()}, {-half.x(), half.y()}, 8, length(j.width));
  s.write({-half.x() + 2, -half.y() - 8}, 2.4,
          j.face == JointFace::under ? "front to the left, starboard up" : "seen from the leg's side");
  if (j.kind == JointKind::fasteners)
    s.notes = {
        "Step holes up from a pilot; bolts: ream to size. Edge distance at least two diameters; straps or "
        "large washers on composite plates.",
        "Rails and plates are glued while the unit is bolted to them, so that they cannot twist it into "
        "binding."};
  else
    s.notes = {
        "Scrape the veneer through to the cross grain, or bolt through: a surface ply peels off its own "
        "core."};
  s.notes.push_back(caution());
  return s;
}

Maker::Made Maker::unit_plate(const Leg& leg) const {
  const Retraction& r = leg.retraction;
  if (!r.unit_low.known() || !r.unit_high.known())
    return "the unit's body: its least and greatest corner from the pivot";
  Drawing s;
  const Vec2 low(mm * r.unit_low.x, mm * r.unit_low.y);
  const Vec2 high(mm * r.unit_high.x, mm * r.unit_high.y);
  const double edge = d_.is_model() ? 12 : 40;
  s.rectangle(low - Vec2(edge, edge), high + Vec2(edge, edge), Line::cut);
  s.rectangle(low, high, Line::cut);
  s.line({0, low.y() - edge - 5}, {0, high.y() + edge + 5}, Line::centre);
  s.line({low.x() - edge - 5, 0}, {high.x() + edge + 5, 0}, Line::centre);
  s.write({1, 1}, 2.2, "pivot");
  const double hole = d_.is_model() ? 3 : 6;
  for (const double x : {low.x() - edge / 2, high.x() + edge / 2})
    for (const double y : {low.y() - edge / 2, high.y() + edge / 2})
      s.hole({x, y}, hole, fmt::format("pilot {:.0f}", hole / 2));
  s.dimension({low.x() - edge, high.y() + edge}, {high.x() + edge, high.y() + edge}, 8,
              length((high.x() - low.x() + 2 * edge) / mm));
  s.dimension({low.x(), low.y()}, {high.x(), low.y()}, -8, "cut-out " + length((high.x() - low.x()) / mm));
  s.dimension({low.x(), low.y()}, {low.x(), high.y()}, 8, length((high.y() - low.y()) / mm));
  s.write({low.x() - edge + 2, low.y() - edge - 6}, 2.4,
          "front to the left, starboard up; port is the mirror image");
  s.notes = {
      "Holes are pilots at the corners: transfer the unit's own pattern with a self-centring bit while it "
      "stands in the cut-out.",
      "Glue the rails while the unit is bolted to them: the mount then cannot twist and bind it.",
      "Blind holes: engagement, the tap's lead and the point together less than the part is thick; mark "
      "the depth on the drill."};
  return s;
}

Maker::Made Maker::well(const Leg& leg) const {
  const Well& w = leg.retraction.well;
  if (!w.low.known() || !w.high.known()) return "the well's corners";
  Drawing s;
  const double corner = mm * (leg.wheel.shoulder_radius.known() ? leg.wheel.shoulder_radius.si : 0);
  const Vec2 low(mm * w.low.x, mm * w.low.y);
  const Vec2 high(mm * w.high.x, mm * w.high.y);
  const double r = std::min({corner, (high.x() - low.x()) / 2, (high.y() - low.y()) / 2});
  Path edge{{}, true, Line::cut};
  const Vec2 centres[]{
      high - Vec2(r, r), {low.x() + r, high.y() - r}, low + Vec2(r, r), {high.x() - r, low.y() + r}};
  for (int q = 0; q < 4; ++q)
    for (int i = 0; i <= 8; ++i) {
      const double a = std::numbers::pi / 2 * (q + i / 8.0);
      edge.points.push_back(centres[q] + r * Vec2(std::cos(a), std::sin(a)));
    }
  s.paths.push_back(edge);
  if (leg.retraction.pivot.known()) {
    const Vec2 p(mm * leg.retraction.pivot.x, mm * leg.retraction.pivot.y);
    s.line(p - Vec2(12, 0), p + Vec2(12, 0), Line::centre);
    s.line(p - Vec2(0, 12), p + Vec2(0, 12), Line::centre);
    s.write(p + Vec2(2, 2), 2.2, "pivot");
  }
  s.dimension({low.x(), high.y()}, {high.x(), high.y()}, 8, length(w.high.x - w.low.x));
  s.dimension({low.x(), low.y()}, {low.x(), high.y()}, 8, length(w.high.y - w.low.y));
  s.write({low.x() + 2, low.y() - 7}, 2.4,
          fmt::format(
              "front to the left, starboard up; station {} at the left edge, {} from the centre line below",
              number(w.low.x), number(w.low.y)));
  s.notes = {
      fmt::format(
          "Depth {} from waterline {}. Cut small, swing the real leg by hand, open up where it touches.",
          length(w.high.z - w.low.z), number(w.low.z)),
      "Hot wire and foam: fumes. Resin: gloves, mask, extraction."};
  return s;
}

Maker::Made Maker::wire(const Leg& leg) const {
  const BentLeg& b = leg.spring.bent;
  if (!b.wire_diameter.known() || b.line.size() < 2) return "the wire's diameter and its line";
  std::vector<Vec3> line;
  for (const auto& p : b.line) {
    if (!p.at.known()) return "the place of every point of the wire";
    line.push_back(p.at.vec());
  }
  const auto plan = bending_plan(line, b.wire_diameter);
  Drawing s;
  const auto draw = [&](double dx, double dy, auto&& flat, const char* name) {
    Path path{{}, false, Line::cut};
    for (const auto& p : line) path.points.push_back(Vec2(dx, dy) + mm * flat(Vec3(p - line.front())));
    s.paths.push_back(path);
    s.write(path.points.front() + Vec2(0, 4), 2.6, name);
  };
  double reach = 0;
  for (const auto& p : line) reach = std::max(reach, mm * std::abs(p.y() - line.front().y()));
  draw(
      0, 0, [](const Vec3& p) { return Vec2(p.y(), p.z()); }, "from ahead");
  draw(
      reach + 60, 0, [](const Vec3& p) { return Vec2(p.x(), p.z()); }, "from starboard");
  double depth = 0;
  for (const auto& p : line) depth = std::min(depth, mm * (p.z() - line.front().z()));
  std::vector<std::vector<std::string>> rows{{"Bend", "starts at", "by", "turned against the last"}};
  int i = 0;
  for (const auto& w : plan.bends)
    rows.push_back({std::to_string(++i), length(w.start), angle(w.angle), i == 1 ? "–" : angle(w.turned)});
  double y = s.table({0, depth - 14}, {16, 34, 26, 54}, rows, 2.4);
  if (!b.loops.empty()) {
    rows = {{"Loop", "centre at", "mean diameter", "turns"}};
    for (const auto& l : b.loops)
      rows.push_back({std::to_string(&l - b.loops.data() + 1), length(l.along), length(l.mean_diameter),
                      fmt::format("{:g}", l.turns.si)});
    s.table({0, y - 6}, {16, 34, 34, 46}, rows, 2.4);
  }
  double wound = 0;
  for (const auto& l : b.loops) wound += std::numbers::pi * l.mean_diameter * l.turns;
  s.notes = {
      fmt::format("Wire {}, straight length {} and {} for the loops; cut long, trim after. Inside radius "
                  "of a bend {}.",
                  length(b.wire_diameter), length(plan.length), length(wound), length(2 * b.wire_diameter)),
      "Spring wire under load flies when cut: eyes. Check against this drawing; the other leg is the "
      "mirror image."};
  return s;
}

Maker::Made Maker::outline(const Leg& leg) const {
  const auto chain = force::bending_leg_of(leg, d_.materials);
  if (const auto* missing = std::get_if<std::string>(&chain)) return *missing;
  Drawing s;
  Path edge{{}, true, Line::cut};
  std::vector<Vec2> back;
  double along = 0;
  const auto& line = leg.spring.bent.line;
  for (size_t i = 0; i < line.size(); ++i) {
    if (i > 0) along += mm * (line[i].at.vec() - line[i - 1].at.vec()).norm();
    edge.points.emplace_back(along, mm * line[i].width / 2);
    back.emplace_back(along, -mm * line[i].width / 2);
    if (i > 0 && i + 1 < line.size())
      s.line({along, -mm * line[i].width / 2}, {along, mm * line[i].width / 2}, Line::bend);
    s.write({along, mm * line[i].width / 2 + 3}, 2.2, length(line[i].width));
  }
  edge.points.insert(edge.points.end(), back.rbegin(), back.rend());
  s.paths.push_back(edge);
  s.line({-5, 0}, {along + 5, 0}, Line::centre);
  s.dimension({0, -mm * line.front().width / 2}, {along, -mm * line.front().width / 2}, -8,
              length(along / mm));
  const BentLeg& b = leg.spring.bent;
  if (b.form == BentForm::bow) {
    s.notes = {fmt::format("{:.0f} plies at the clamp. To taper, fold the cloth: the fibres stay whole and "
                           "the tip grows thicker. Add a ply rather than sand: sanding cuts fibres.",
                           b.plies.known() ? b.plies.si : 0.0),
               "If the middle is the spring do not drill it: clamp it between plates, better in rubber "
               "rings. Gloves, mask, extraction."};
  } else {
    s.notes = {
        "Holes are fine where the leaf does not bend, fatal where it does. Deburr and polish the edges; "
        "anneal hard alloys before bending."};
  }
  s.notes.push_back(caution());
  return s;
}

Maker::Made Maker::mould(const Leg& leg) const {
  const auto chain = force::bending_leg_of(leg, d_.materials);
  if (const auto* missing = std::get_if<std::string>(&chain)) return *missing;
  const auto& b = std::get<force::BendingLeg>(chain);
  Drawing s;
  Path upper{{}, true, Line::cut};
  std::vector<Vec2> lower;
  const size_t n = leg.spring.bent.line.size() > 1 ? std::min(b.points.size(), b.width.size()) : 0;
  for (size_t i = 0; i < n; ++i) {
    const Vec3 tangent = (b.points[std::min(i + 1, n - 1)] - b.points[i > 0 ? i - 1 : 0]).normalized();
    const Vec2 normal(-tangent.z(), tangent.y());
    const Vec3 from = b.points[i] - b.points.front();
    const Vec2 middle(mm * from.y(), mm * from.z());
    upper.points.push_back(middle + mm * b.thickness[i] / 2 * normal);
    lower.push_back(middle - mm * b.thickness[i] / 2 * normal);
  }
  upper.points.insert(upper.points.end(), lower.rbegin(), lower.rend());
  s.paths.push_back(upper);
  s.line({-10, 0}, {10, 0}, Line::centre);
  s.write({-10, 5}, 2.4, fmt::format("clamp, {} thick", length(b.thickness.front())));
  s.notes = {
      "Section from ahead, starboard leg: the lower edge is the mould's face. Release layer without "
      "wrinkles, dry before the lay-up.",
      "Key the halves against sliding, mark front and rear, leave room for clamps, relieve one edge for "
      "surplus resin."};
  return s;
}

}  // namespace kranich::shop
