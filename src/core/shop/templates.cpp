// SPDX-License-Identifier: GPL-3.0-or-later
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>

#include "core/force/bent_leg.h"
#include "core/force/materials.h"
#include "core/leg/thread.h"
#include "core/motion/retract.h"
#include "core/shop/maker.h"
#include "core/swing/cutout.h"

namespace kranich::shop {
Maker::Made Maker::cope(const Leg& leg, const Tube& cut, const Tube& main) const {
  if (!cut.top.known() || !main.top.known() || !cut.diameter.known() || !main.diameter.known())
    return "attach points and diameters of both tubes";
  const Vec3 foot_cut = cut.foot.known() ? cut.foot.vec() : motion::foot(leg);
  const Vec3 foot_main = main.foot.known() ? main.foot.vec() : motion::foot(leg);
  const double theta = leg::drill_angle(cut.top.vec() - foot_cut, main.top.vec() - foot_main);
  const leg::Cope c{cut.diameter / 2, main.diameter / 2, theta, 0};
  if (!c.depth())
    return kranich::say("a tube “{}” no thicker than “{}” on which it sits", cut.name, main.name);
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

void Maker::blind_holes(const Joint& j, Drawing& s, double below) const {
  const Material* into = force::find_material(d_.materials, j.into);
  if (!into || into->stuff == Stuff::timber || into->stuff == Stuff::foam) return;  // screws, not threads
  std::vector<std::vector<std::string>> rows{
      {"Tapped in " + j.into, "tap drill", "full thread", "drill to the point", "the part"}};
  std::vector<double> done;
  for (const auto& f : j.fasteners) {
    if (!f.diameter.known() || std::find(done.begin(), done.end(), f.diameter.si) != done.end()) continue;
    done.push_back(f.diameter);
    const auto thread = leg::coarse_thread(f.diameter);
    if (!thread) continue;
    const auto hole = leg::blind_hole(*thread, leg::engagement_in(*into));
    const double part = j.inner_thickness;
    rows.push_back({thread->name, length(thread->tap_drill()), length(hole.thread), length(hole.depth),
                    !std::isfinite(part)      ? "how thick?"
                    : hole.depth < 0.9 * part ? length(part) + " thick: blind"
                                              : length(part) + " thick: through, or an insert"});
  }
  if (rows.size() > 1) s.table({-91, below}, {30, 24, 26, 36, 40}, rows, 2.2);
}

void Maker::hands() {
  std::vector<Sheet> all;
  for (Sheet& sheet : sheets_) {
    const auto colon = sheet.id.find(':');
    const std::string kind = sheet.id.substr(0, colon);
    const std::string rest = colon == std::string::npos ? std::string() : sheet.id.substr(colon + 1);
    const Leg* leg = d_.gear.find(rest.substr(0, rest.find(':')));
    auto* drawing = std::get_if<Drawing>(&sheet.drawing);
    // The bending plan's drawing is a list, the mould a section: they say their other hand themselves.
    const bool cut_out =
        kind == "plate" || kind == "unit" || kind == "well" || kind == "slot" || kind == "outline";
    if (!drawing || !leg || !cut_out || leg->stands != LegStands::both_sides) {
      all.push_back(std::move(sheet));
      continue;
    }
    if (same_both_hands(*drawing)) {
      drawing->notes.push_back("Left and right are identical: make two of this one.");
      all.push_back(std::move(sheet));
      continue;
    }
    Drawing other = mirrored(*drawing);
    drawing->notes.push_back(
        "Starboard. The port one is its mirror image and has a sheet of its own: mark both L and R, FRONT "
        "and OUTSIDE.");
    other.notes.push_back("Port, mirrored from the starboard one: mark both L and R, FRONT and OUTSIDE.");
    const std::string title = sheet.title;
    drawing->title = sheet.title = title + ", starboard";
    other.title = title + ", port";
    const std::string id = sheet.id + ":port";
    all.push_back(std::move(sheet));
    all.push_back({id, other.title, std::move(other)});
  }
  sheets_ = std::move(all);
}

Maker::Made Maker::clocking(const MemberLine& m) const {
  Drawing s;
  const double d = m.diameter * mm, around = std::numbers::pi * d;
  // The wrap: the pin's line at both ends and in the middle (its two mouths), the axle's beside it.
  const double high = 46;
  s.rectangle({0, 0}, {around, high}, Line::cut);
  const double aside = m.clocking / 2 * d;
  for (const double mouth : {0.25, 0.75}) {
    const double pin = mouth * around;
    s.line({pin, high - 22}, {pin, high}, Line::centre);
    s.line({pin + aside, 0}, {pin + aside, 22}, Line::mark);
    if (m.count == 2) s.line({pin - aside, 0}, {pin - aside, 12}, Line::dimension);
  }
  s.write({0, high + 2}, 2.4,
          "wrap round the tube, this edge towards its upper end; long marks: the pin's hole");
  s.write({0, -4}, 2.4,
          m.count == 2 ? "lower marks: the axle's hole, starboard leg; thin ones: port leg"
                       : "lower marks: the axle's hole");
  // The fixture: the tube in a vee, seen from its upper end, a rod through the first hole laid against a
  // block.
  const double r = d / 2, y = -30 - r;
  const Vec2 c{std::max(around / 2, 2.2 * r + 30), y};
  s.circles.push_back({c, r, Line::cut});
  s.line({c.x() - 2.2 * r, c.y() + 2.2 * r - std::sqrt(2.0) * r}, {c.x(), c.y() - std::sqrt(2.0) * r},
         Line::mark);
  s.line({c.x(), c.y() - std::sqrt(2.0) * r}, {c.x() + 2.2 * r, c.y() + 2.2 * r - std::sqrt(2.0) * r},
         Line::mark);
  // The drill comes from above through the axle's hole; the pin's lies clocked from it.
  s.line({c.x(), c.y() - r - 6}, {c.x(), c.y() + r + 14}, Line::centre);
  const double a = std::numbers::pi / 2 + m.clocking;  // back from the drill to the pin
  // Its lettered end to the right, where nothing else stands.
  const Vec2 way = std::cos(a) < 0 ? Vec2(-std::cos(a), -std::sin(a)) : Vec2(std::cos(a), std::sin(a));
  s.line(c - (r + 24) * way, c + (r + 24) * way, Line::bend);
  s.write({c.x() + 2, c.y() + r + 11}, 2.4, "drill: the axle's hole");
  s.write(c + (r + 26) * way, 2.4, "rod through the pin's hole");
  s.write({c.x() - 2.2 * r, c.y() - 2.4 * r - 8}, 3,
          fmt::format("{} clockwise from the pin's hole to the axle's, seen from the upper end",
                      angle(m.clocking)));
  s.notes = {
      caution(),
      fmt::format(
          "{}, {}: tube {} {}. Drill the pin's hole first; lay the tube in the vee, a straight rod through "
          "that hole, set the rod with an angle finder, clamp, drill.{}",
          m.leg, m.name, number(m.diameter), unit(),
          m.count == 2 ? " The port leg is clocked the other way." : "")};
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
  blind_holes(j, s, -half.y() - 14);
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

namespace {

//! Outlines in plan, 1:1.
void draw_outlines(Drawing& s, const swing::CutOut& cut, Line line) {
  for (const auto& o : cut.outlines) {
    Path path{{}, true, line};
    for (const auto& p : o) path.points.push_back(mm * p);
    s.paths.push_back(std::move(path));
  }
}

void mark_pivot(Drawing& s, const Leg& leg) {
  const Vec2 p(mm * leg.retraction.pivot.x, mm * leg.retraction.pivot.y);
  s.line(p - Vec2(12, 0), p + Vec2(12, 0), Line::centre);
  s.line(p - Vec2(0, 12), p + Vec2(0, 12), Line::centre);
  s.write(p + Vec2(2, 2), 2.2, "pivot");
}

}  // namespace

Maker::Made Maker::well(const Leg& leg) const {
  const Well& w = leg.retraction.well;
  if (!w.low.known() || !w.high.known()) return "the well's corners";
  const auto made = swing::outlines_of(leg);
  if (const Text* missing = std::get_if<Text>(&made))
    return kranich::say("the leg's way into it: {}", *missing);
  const auto& outlines = std::get<swing::LegOutlines>(made);
  const swing::CutOut& skin = outlines.skin;
  const swing::CutOut& bay = outlines.bay;
  Drawing s;
  draw_outlines(s, skin, Line::cut);
  draw_outlines(s, bay, Line::mark);
  const Vec2 low(mm * w.low.x, mm * w.low.y);
  const Vec2 high(mm * w.high.x, mm * w.high.y);
  s.rectangle(low, high, Line::centre);
  mark_pivot(s, leg);
  s.dimension({low.x(), high.y()}, {high.x(), high.y()}, 8, length(w.high.x - w.low.x));
  s.dimension({low.x(), low.y()}, {low.x(), high.y()}, 8, length(w.high.y - w.low.y));
  s.write({low.x() + 2, low.y() - 7}, 2.4,
          fmt::format(
              "front to the left, starboard up; station {} at the left edge, {} from the centre line below",
              number(w.low.x), number(w.low.y)));
  s.notes = {
      skin.outlines.empty()
          ? std::string("Nothing of the leg passes the mouth: no cut-out.")
          : fmt::format(
                "Cut: the hole in the skin at waterline {}, {} by {}, what the leg sweeps grown by {}.",
                number(w.low.z), length(skin.length), length(skin.width), length(outlines.margin)),
      fmt::format(
          "Marked: what the leg covers above it, {} by {}, {} deep. Chain-dotted: the well as entered, {} "
          "deep.",
          length(bay.length), length(bay.width), length(outlines.depth), length(w.high.z - w.low.z)),
      "Cut small, swing the real leg by hand, open up where it touches.",
      "Hot wire and foam: fumes. Resin: gloves, mask, extraction."};
  return s;
}

Maker::Made Maker::slot(const Leg& leg) const {
  const Retraction& r = leg.retraction;
  if (!r.floor.known()) return "the waterline of a floor that the leg passes";
  const auto made = swing::outlines_of(leg);
  if (const Text* missing = std::get_if<Text>(&made))
    return kranich::say("the leg's way through it: {}", *missing);
  const auto& outlines = std::get<swing::LegOutlines>(made);
  const swing::CutOut& cut = outlines.slot;
  if (cut.outlines.empty()) return "a floor that the leg passes: this one it does not";
  Drawing s;
  draw_outlines(s, cut, Line::cut);
  mark_pivot(s, leg);
  Vec2 low = mm * cut.outlines.front().front();
  Vec2 high = low;
  for (const auto& o : cut.outlines)
    for (const auto& v : o) {
      low = low.cwiseMin(mm * v);
      high = high.cwiseMax(mm * v);
    }
  s.dimension({low.x(), high.y()}, {high.x(), high.y()}, 8, length(cut.length));
  s.dimension({low.x(), low.y()}, {low.x(), high.y()}, 8, length(cut.width));
  s.write({low.x(), low.y() - 7}, 2.4, "front to the left, starboard up");
  s.notes = {fmt::format("Slot in the floor at waterline {}: cut once. {} all round what the leg sweeps.",
                         number(r.floor), length(outlines.margin)),
             caution()};
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
  // A close-wound loop leads the wire on by its own thickness a turn: the drawing has the axle where it
  // belongs.
  double aside = 0, last = 0;
  for (const auto& l : b.loops) {
    aside += l.turns * b.wire_diameter;
    last = std::max(last, l.along.si);
  }
  if (aside > 0 && plan.length > last)
    s.notes.push_back(
        fmt::format("The loops lead the wire aside by {}: bend it back by {} just below the last one and "
                    "parallel again at the axle, or the axle stands out of line by as much.",
                    length(aside), angle(std::atan2(aside, plan.length - last))));
  return s;
}

std::optional<FlatStrip> flat_strip(const BentLeg& leg, const std::vector<double>& thickness, double radii) {
  const auto& line = leg.line;
  if (line.size() < 2 || thickness.size() < line.size()) return std::nullopt;
  for (const auto& p : line)
    if (!p.at.known() || !p.width.known()) return std::nullopt;
  FlatStrip strip;
  const bool tail = force::width_direction(leg).y() != 0;  // it runs fore and aft
  strip.middle = tail ? 0 : std::abs(line.front().at.y);
  const auto aside = [&](size_t i) {
    return tail ? line[i].at.y - line[0].at.y : line[i].at.x - line[0].at.x;
  };
  const auto section = [&](size_t i) {
    return Vec2(tail ? line[i].at.x : line[i].at.y, line[i].at.z);
  };  // outboard, up
  double along = 0;
  Vec2 before(1, 0);  // level, as the middle lies
  for (size_t i = 0; i < line.size(); ++i) {
    double saved = 0;  // what the arc is shorter than the corner it rounds
    if (i + 1 < line.size()) {
      const Vec2 way = (section(i + 1) - section(i)).normalized();
      const bool bends = i > 0 || strip.middle > 0;
      const double angle = std::atan2(before.x() * way.y() - before.y() * way.x(), before.dot(way));
      before = way;
      if (bends && std::abs(angle) > 1e-6) {
        const double inside = radii * thickness[i];
        const double middle = radii > 0 ? inside + thickness[i] / 2 : 0;
        saved = 2 * middle * std::tan(std::abs(angle) / 2) - middle * std::abs(angle);
        strip.bends.push_back({along - saved / 2, angle, inside});
      }
    }
    // The corner itself lies in the middle of its bend.
    strip.points.push_back({along - saved / 2, aside(i), line[i].width, thickness[i]});
    if (i + 1 < line.size()) along += (section(i + 1) - section(i)).norm() - saved;
  }
  return strip;
}

Maker::Made Maker::outline(const Leg& leg) const {
  const auto chain = force::bending_leg_of(leg, d_.materials);
  if (const auto* missing = std::get_if<Text>(&chain)) return *missing;
  const BentLeg& b = leg.spring.bent;
  const bool metal = b.form == BentForm::leaf;
  constexpr double usual_radius = 3;  // over the thickness
  const auto flat = flat_strip(b, force::thickness_at_points(leg.spring.bent), metal ? usual_radius : 0);
  if (!flat) return "place, width and thickness of every point of the leg";
  const bool both = leg.stands == LegStands::both_sides && flat->middle > 0;
  Drawing s;
  // One side, or both with the middle between them: x of the sheet along the strip, y forward.
  const double start = both ? mm * flat->middle : 0;
  const auto at = [&](const FlatPoint& p, double side, double edge) {
    return Vec2(side * (start + mm * p.along), -mm * p.aside + edge * mm * p.width / 2);
  };
  Path edge{{}, true, Line::cut};
  std::vector<double> sides{1};
  if (both) sides.push_back(-1);
  const auto& points = flat->points;
  for (const auto& p : points) edge.points.push_back(at(p, 1, 1));
  for (size_t i = points.size(); i-- > 0;) edge.points.push_back(at(points[i], 1, -1));
  if (both) {
    for (const auto& p : points) edge.points.push_back(at(p, -1, -1));
    for (size_t i = points.size(); i-- > 0;) edge.points.push_back(at(points[i], -1, 1));
    s.line({0, -mm * points[0].width / 2 - 5}, {0, mm * points[0].width / 2 + 5}, Line::centre);
    s.write({2, mm * points[0].width / 2 + 6}, 2.2, "centre line");
  }
  s.paths.push_back(edge);
  const double end = mm * points.back().along;
  double lowest = 0;
  for (const auto& p : edge.points) lowest = std::min(lowest, p.y());
  for (const double side : sides) {
    Path middle{{}, false, Line::centre};
    for (const auto& p : points) middle.points.push_back(at(p, side, 0));
    s.paths.push_back(middle);
    for (const auto& bend : flat->bends) {
      const auto next = std::find_if(points.begin(), points.end(),
                                     [&](const FlatPoint& p) { return p.along >= bend.along - 1e-9; });
      s.line(at(*next, side, 1), at(*next, side, -1), Line::bend);
    }
    for (const auto& p : points) s.write(at(p, side, 1) + Vec2(0, 3), 2.2, length(p.width));
  }
  s.dimension({start, lowest}, {start + end, lowest}, -8, length(points.back().along));
  if (both) s.dimension({-start, lowest}, {start, lowest}, -8, length(2 * flat->middle));
  const bool tail = force::width_direction(b).y() != 0;
  if (std::abs(points.back().aside) > 5e-4)
    s.write(at(points.back(), 1, 0) + Vec2(3, 0), 2.4,
            fmt::format(
                "{} {} of the clamp", length(std::abs(points.back().aside)),
                points.back().aside > 0 ? (tail ? "to starboard" : "aft") : (tail ? "to port" : "ahead")));
  s.write({start + 2, lowest - 14}, 2.4,
          tail ? "port edge up; seen from above, laid flat" : "front edge up; seen from above, laid flat");
  if (metal && !flat->bends.empty()) {
    std::vector<std::vector<std::string>> rows{
        {"Bend", "from the clamp", "by", "inside radius", "outer end goes"}};
    int i = 0;
    for (const auto& bend : flat->bends)
      rows.push_back({std::to_string(++i), length(bend.along), angle(std::abs(bend.angle)),
                      length(bend.radius), bend.angle > 0 ? "up" : "down"});
    s.table({both ? -start : 0, lowest - 20}, {14, 30, 20, 30, 30}, rows, 2.4);
  }
  if (b.form == BentForm::bow) {
    s.notes = {fmt::format("{:.0f} plies at the clamp. To taper, fold the cloth: the fibres stay whole and "
                           "the tip grows thicker. Add a ply rather than sand: sanding cuts fibres.",
                           b.plies.known() ? b.plies.si : 0.0),
               "If the middle is the spring do not drill it: clamp it between plates, better in rubber "
               "rings. Gloves, mask, extraction."};
  } else {
    s.notes = {
        fmt::format("Inside radius {:g} times the thickness, the middle of the thickness keeps its length: "
                    "the alloy's sheet may want more. A trial strip first.",
                    usual_radius),
        "Holes are fine where the leaf does not bend, fatal where it does. Deburr and polish the edges; "
        "anneal hard alloys before bending."};
  }
  s.notes.push_back(caution());
  return s;
}

Maker::Made Maker::mould(const Leg& leg) const {
  const auto chain = force::bending_leg_of(leg, d_.materials);
  if (const auto* missing = std::get_if<Text>(&chain)) return *missing;
  const auto thickness = force::thickness_at_points(leg.spring.bent);
  const auto& line = leg.spring.bent.line;  // without the stub axle, which is put in later
  const auto flat = flat_strip(leg.spring.bent, thickness, 0);
  if (!flat) return "place, width and thickness of every point of the leg";
  Drawing s;
  // Seen along the width: the section that is true in thickness whatever the rake.
  const bool tail = force::width_direction(leg.spring.bent).y() != 0;
  const auto out = [&](const Vec3& v) { return tail ? v.x() : v.y(); };
  const auto aside = [&](const Vec3& v) { return tail ? v.y() : v.x(); };
  Path upper{{}, true, Line::cut};
  std::vector<Vec2> lower, face;
  for (size_t i = 0; i < line.size(); ++i) {
    const Vec3 before = line[i > 0 ? i - 1 : 0].at.vec();
    const Vec3 after = line[std::min(i + 1, line.size() - 1)].at.vec();
    const Vec2 tangent = Vec2(out(after) - out(before), after.z() - before.z()).normalized();
    const Vec2 normal(-tangent.y(), tangent.x());
    const Vec3 from = line[i].at.vec() - line[0].at.vec();
    const Vec2 middle(mm * out(from), mm * from.z());
    upper.points.push_back(middle + mm * thickness[i] / 2 * normal);
    lower.push_back(middle - mm * thickness[i] / 2 * normal);
    face.push_back(lower.back());
  }
  upper.points.insert(upper.points.end(), lower.rbegin(), lower.rend());
  s.paths.push_back(upper);
  s.paths.push_back({face, false, Line::mark});
  s.line({-10, 0}, {10, 0}, Line::centre);
  s.write({-10, 5}, 2.4, fmt::format("clamp, {} thick", length(thickness.front())));
  const Vec2 last = face.back();
  double deepest = 0, widest = 0;
  for (const auto& p : face) {
    deepest = std::min(deepest, p.y());
    widest = std::max(widest, p.x());
  }
  s.write(last + Vec2(4, 0), 2.4, fmt::format("{} thick", length(thickness.back())));
  s.dimension({0, deepest}, {last.x(), deepest}, -10, length((last.x()) / mm));
  s.dimension({widest, 0}, {widest, last.y()}, -14, length(-last.y() / mm));
  // The side view of the block: how far the mould's face runs aft on the way down.
  const double right = widest + 70;
  Path block{{}, true, Line::mark};
  std::vector<Vec2> back;
  for (size_t i = 0; i < line.size(); ++i) {
    const double x = mm * aside(line[i].at.vec() - line[0].at.vec());
    const double z = mm * (line[i].at.z - line[0].at.z);
    block.points.emplace_back(right + x + mm * line[i].width / 2, z);
    back.emplace_back(right + x - mm * line[i].width / 2, z);
  }
  block.points.insert(block.points.end(), back.rbegin(), back.rend());
  s.paths.push_back(block);
  s.write({right - mm * line[0].width / 2, 5}, 2.4,
          tail ? "from behind: port to the left" : "from the side: front to the left");
  const double rake = aside(line.back().at.vec() - line.front().at.vec());
  s.write({right - mm * line[0].width / 2, deepest - 6}, 2.4,
          std::abs(rake) < 5e-4
              ? std::string("straight below the clamp")
              : fmt::format("lower end {} {}", length(std::abs(rake)),
                            rake > 0 ? (tail ? "to starboard" : "aft") : (tail ? "to port" : "ahead")));
  // The saw's guide: a block whose upper face leans as the leg does.
  const double drop = std::abs(line.back().at.z - line.front().at.z);
  const double lean = std::atan2(std::abs(rake), drop);
  if (std::abs(rake) >= 5e-4) {
    constexpr double tall = 60, deep = 40;
    const double left = right + 70, low = -tall - 10;
    const double over = tall * std::tan(lean);
    Path guide{{{left, low}, {left + deep + over, low}, {left + deep, low + tall}, {left, low + tall}},
               true,
               Line::cut};
    s.paths.push_back(guide);
    s.dimension({left, low}, {left + deep + over, low}, -8, length((deep + over) / mm));
    s.dimension({left, low + tall}, {left + deep, low + tall}, 6, length(deep / mm));
    s.dimension({left, low}, {left, low + tall}, 8, length(tall / mm));
    s.write({left, low + tall + 14}, 2.4, fmt::format("guide block, leans {}", angle(lean)));
  }
  s.notes = {
      "Section along the width, starboard leg, port its mirror image: the marked lower edge is the mould's "
      "face. "
      "Release "
      "layer without wrinkles, dry before the lay-up.",
      "Draw the line on both faces of the block with the template; cut along the guide block, clamped to the "
      "fence with "
      "its leaning face to the work.",
      "Key the halves against sliding, mark front and rear on both, leave room for clamps, relieve one edge "
      "for "
      "surplus resin. The stub axle is bonded in afterwards."};
  return s;
}

}  // namespace kranich::shop
