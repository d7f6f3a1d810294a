// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/shop/sheets.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>

#include "core/force/bent_leg.h"
#include "core/force/materials.h"

namespace kranich::shop {
namespace {

constexpr double mm = 1000;

std::string caution() {
  return "For planning: local rules and licensed persons decide; structure that carries people needs their "
         "check "
         "and a proof test.";
}

//! Makes the sheets of one design: holds what all of them need to say.
class Maker {
 public:
  Maker(const Design& d, const Assessment& a, std::string state) : d_(d), a_(a), state_(std::move(state)) {}

  std::vector<Sheet> all() {
    put("jig", "Jig sheet", jig());
    put("cut-list", "Cut list", cut_list());
    put("hardware", "Hardware list", hardware());
    if (!d_.plies.empty()) put("lay-up", "Lay-up schedule", lay_up());
    for (const LegName name : {LegName::main, LegName::third}) {
      const Leg& leg = d_.gear.leg(name);
      const std::string word = d_.leg_word(name);
      const std::string id = name == LegName::main ? "main" : "third";
      for (size_t i = 1; i < leg.tubes.size(); ++i)
        put("cope:" + id + ":" + leg.tubes[i].name,
            fmt::format("Cope of {} on {}, {}", leg.tubes[i].name, leg.tubes[0].name, word),
            cope(leg, leg.tubes[i], leg.tubes[0]));
      for (const auto& j : leg.joints)
        if (j.kind != JointKind::pin && j.kind != JointKind::post)
          put("plate:" + id + ":" + j.name, fmt::format("{}, {}", j.name, word), plate(j));
      if (leg.retraction.fitted) {
        put("unit:" + id, "Plate of the retract unit, " + word, unit_plate(leg));
        put("well:" + id,
            "Cut-out of the " + (leg.retraction.well.name.empty() ? "well" : leg.retraction.well.name),
            well(leg));
      }
      if (leg.spring.kind == SpringKind::bending) {
        if (leg.spring.bent.form == BentForm::wire) {
          put("bend:" + id, "Bending plan of the wire, " + word, wire(leg));
        } else {
          put("outline:" + id, "Outline laid flat, " + word, outline(leg));
          put("mould:" + id, "Section of the mould, " + word, mould(leg));
        }
      }
    }
    put("steps", "Steps and cautions", steps());
    return std::move(sheets_);
  }

 private:
  using Made = std::variant<Drawing, std::string>;
  void put(const std::string& id, const std::string& title, Made made) {
    if (auto* drawing = std::get_if<Drawing>(&made)) {
      drawing->title = title;
      drawing->state = state_;
    }
    sheets_.push_back({id, title, std::move(made)});
  }
  std::string say(double si, Kind kind) const { return format_quantity(si, kind, d_.units); }
  std::string length(double si) const { return say(si, Kind::length); }
  std::string unit() const { return std::string(display_unit(Kind::length, d_.units).symbol); }
  std::string number(double si) const { return format_number(si, Kind::length, d_.units); }
  std::string angle(double rad) const { return std::isfinite(rad) ? say(rad, Kind::angle) : "–"; }

  Made jig() const {
    const auto made = jig_of(d_);
    if (const auto* missing = std::get_if<std::string>(&made)) return *missing;
    const auto& j = std::get<JigFigures>(made);
    const Leg& leg = d_.gear.main;
    Drawing s;
    // As large as goes on a sheet: bar athwart, centre line down.
    const double span = std::max(j.overall_width * 1.2, j.behind * 1.15);
    s.scale = 1;
    for (const double denominator : {5.0, 10.0, 20.0, 50.0, 100.0})
      if (std::max(1.5 * j.overall_width / 1.2, span) / denominator * mm < 118 || denominator == 100.0) {
        s.scale = 1 / denominator;
        break;
      }
    const double k = s.scale * mm;
    const double half = j.jig.bar_length / 2;
    const Vec2 bar_s(k * half, 0);
    const Vec2 bar_p(-k * half, 0);
    const Vec2 point(0, -k * j.behind);
    s.line({0, 18}, point - Vec2(0, 14), Line::centre);
    s.line(bar_p, bar_s, Line::cut);
    for (const double side : {-1.0, 1.0}) {
      s.line({side * k * half, -3}, {side * k * half, 3}, Line::cut);
      s.line({side * k * j.overall_width / 2, -1.5}, {side * k * half, -1.5}, Line::mark);
      s.line({side * k * half, 0}, point, Line::mark);
      s.circles.push_back({{side * k * leg.axle.y, 0}, 1.2, Line::mark});
    }
    s.circles.push_back({point, 1.5, Line::mark});
    s.dimension(bar_p, bar_s, 9, "bar " + length(j.jig.bar_length));
    s.texts.push_back({{2, 2}, 2.2, "centre mark"});
    s.texts.push_back({(bar_s + point) / 2 + Vec2(4, 0), 2.6, length(j.jig.square_diagonal)});
    s.texts.push_back({(bar_p + point) / 2 - Vec2(30, 0), 2.6, length(j.jig.square_diagonal)});
    s.texts.push_back({point + Vec2(4, -1), 2.4, length(j.behind) + " behind the bar"});
    std::vector<std::vector<std::string>> rows{{"What", "Value", "Remark"}};
    rows.push_back(
        {"Fuselage levelled by",
         d_.airframe.level_reference.empty() ? "name it in the project" : d_.airframe.level_reference,
         "strapped so that it cannot creep"});
    rows.push_back({"Reference point above the floor", length(d_.jig.reference_height),
                    "waterline " + number(d_.jig.reference_z)});
    rows.push_back({"Axle's centre line above the floor", length(j.jig.axle_height), "both ends of the bar"});
    rows.push_back({"Bar, end to end", length(j.jig.bar_length),
                    fmt::format("axle tips {} apart, {} sticks out each side", number(j.overall_width),
                                number(d_.jig.axle_out))});
    rows.push_back({"Centre mark from either end", length(half), "under the plumb line of the centre line"});
    rows.push_back({"Wheels from the centre", length(leg.axle.y), "marks on the bar"});
    rows.push_back(
        {"Both diagonals, all in plan", length(j.jig.square_diagonal), "equal: square to the fuselage"});
    if (d_.airframe.wing.root_leading_edge_x.known()) {
      const double behind = d_.airframe.wing.root_leading_edge_x - leg.axle.x;
      s.line({-20, -k * behind}, {20, -k * behind}, Line::bend);
      rows.push_back(
          {"Wing's leading edge, root", length(std::abs(behind)),
           behind < 0 ? "ahead of the bar: marked on the floor" : "behind the bar: marked on the floor"});
    }
    double y = s.table({-91, point.y() - 22}, {60, 34, 88}, rows, 2.4);
    rows = {{"Diagonals differ by", "toe-in starboard", "toe-in port"}};
    for (const double off : {0.001, 0.002, 0.005, 0.010}) {
      const double toe = leg::toe_of_difference(off, j.jig.square_diagonal, j.jig.bar_length, j.behind);
      rows.push_back({length(off), fmt::format("{:+.2f}°", toe * 180 / std::numbers::pi),
                      fmt::format("{:+.2f}°", -toe * 180 / std::numbers::pi)});
    }
    s.table({-91, y - 6}, {60, 34, 34}, rows, 2.4);
    s.notes = {
        "Tack, refit, check from the same marks, then weld; read again after every bolt-up. Match the second "
        "leg to the reference, not to the first leg.",
        caution()};
    return s;
  }

  Made cut_list() const {
    Drawing s;
    std::vector<std::vector<std::string>> rows{
        {"Part", "No.", "Of", "Section", "Length", "Cut", "Rake", "Cant", "Drill top", "~ axle"}};
    std::map<std::string, double> stock;
    for (const auto& m : members_of(d_)) {
      // Free ends are eaten by the weld, or trimmed at the fit-up.
      const double spare = d_.is_model() ? 0.005 : 0.020;
      const double cut = m.geometry.length + spare;
      const std::string section =
          std::isfinite(m.diameter)
              ? number(m.diameter) + (std::isfinite(m.wall) ? " × " + number(m.wall) : "")
              : "?";
      rows.push_back({m.leg + ", " + m.name, std::to_string(m.count), m.material.empty() ? "?" : m.material,
                      section, number(m.geometry.length), number(cut), angle(m.geometry.rake),
                      angle(m.geometry.cant), angle(m.drill_top), angle(m.drill_axle)});
      stock[(m.material.empty() ? "?" : m.material) + " " + section] += m.count * cut;
    }
    for (const LegName name : {LegName::main, LegName::third}) {
      const Leg& leg = d_.gear.leg(name);
      if (!leg.axle_diameter.known() || !leg.wheel_offset.known() || !leg.axle_beyond_wheel.known()) continue;
      const double axle = std::abs(leg.wheel_offset) + leg.axle_beyond_wheel + 3 * leg.axle_diameter;
      rows.push_back({d_.leg_word(name) + ", axle", name == LegName::main ? "2" : "1", leg.axle_material,
                      number(leg.axle_diameter), number(axle), number(axle + 0.02), "–", "–", "–", "–"});
      stock[leg.axle_material + " " + number(leg.axle_diameter)] +=
          (name == LegName::main ? 2 : 1) * (axle + 0.02);
    }
    if (rows.size() == 1) return "a leg of tubes or of one strut with its upper end and its axle";
    double y = s.table({0, 0}, {34, 7, 40, 17, 17, 15, 13, 13, 15, 15}, rows, 1.9);
    std::vector<std::vector<std::string>> buy{{"To buy", "length, " + unit()}};
    for (const auto& [what, sum] : stock) buy.push_back({what, number(sum)});
    s.table({0, y - 8}, {80, 30}, buy, 2.4);
    s.notes = {fmt::format("Lengths in {}. Cut includes {} to trim at the fit-up. An axle reaches three "
                           "diameters into its leg. Undecided brakes: leave spare axle.",
                           unit(), number(d_.is_model() ? 0.005 : 0.020)),
               "Left and right are handed: mark left, right, front, rear before the first hole.", caution()};
    return s;
  }

  Made hardware() const {
    std::vector<std::vector<std::string>> rows{
        {"Where", "What", "No.", "Diameter", "Grip or length", "Of", "Left of strength"}};
    for (const LegName name : {LegName::main, LegName::third}) {
      const Leg& leg = d_.gear.leg(name);
      const int sides = name == LegName::main ? 2 : 1;
      const std::string word = d_.leg_word(name);
      for (const auto& j : leg.joints) {
        std::string left = "?";
        for (const auto& s : a_.strengths)
          if (s.leg == name)
            for (const auto& p : s.structure.parts)
              if (p.part == j.name && std::isfinite(p.margin)) left = say(p.margin, Kind::share);
        switch (j.kind) {
          case JointKind::pin:
            rows.push_back({word + ", " + j.name, "pin", std::to_string(sides), number(j.diameter),
                            number(j.inner_thickness + 2 * j.outer_thickness), j.material, left});
            break;
          case JointKind::fasteners: {
            std::map<std::string, int> sizes;
            for (const auto& f : j.fasteners) ++sizes[number(f.diameter)];
            for (const auto& [size, count] : sizes)
              rows.push_back({word + ", " + j.name, "fastener", std::to_string(sides * count), size,
                              "sheet " + number(j.inner_thickness), j.material, left});
            break;
          }
          case JointKind::block:
          case JointKind::plate:
            rows.push_back({word + ", " + j.name, j.kind == JointKind::block ? "block" : "plate",
                            std::to_string(sides), number(j.length) + " × " + number(j.width), "–",
                            j.material, left});
            break;
          case JointKind::post:
            rows.push_back({word + ", " + j.name, "post", std::to_string(sides), number(j.diameter),
                            number(j.length), j.material, left});
            break;
        }
      }
    }
    if (rows.size() == 1) return "pins, fasteners, blocks, plates or posts: they are entered in Leg";
    Drawing s;
    s.table({0, 0}, {52, 16, 9, 18, 24, 38, 24}, rows, 2.0);
    s.notes = {
        "Lengths in " + unit() +
            ". Tighten a clamped leaf: load screws loose, locating screws snug, then load screws home.",
        caution()};
    return s;
  }

  Made lay_up() const {
    Drawing s;
    std::vector<std::vector<std::string>> rows{
        {"Done", "Zone", "Cloth", "Direction", "Plies", "Overlap", "Area of one"}};
    double area = 0;
    for (const auto& p : d_.plies) {
      rows.push_back({p.laid ? "[x]" : "[ ]", p.zone, p.cloth, p.direction,
                      p.count.known() ? fmt::format("{:.0f}", p.count.si) : "?",
                      p.overlap.known() ? length(p.overlap) : "–",
                      p.area.known() ? say(p.area, Kind::area) : "?"});
      if (p.area.known() && p.count.known()) area += p.area * p.count;
    }
    const double y = s.table({0, 0}, {11, 40, 48, 24, 12, 20, 24}, rows, 2.2);
    s.texts.push_back({{0, y - 8}, 2.8, "Cloth altogether: " + say(area, Kind::area)});
    s.notes = {
        "Coarse abrasion, paint off, dust out; inside corners with a fillet; cloth must not bridge a step.",
        "Gloves, mask, extraction. Batch the mixes to their working time.", caution()};
    return s;
  }

  Made cope(const Leg& leg, const Tube& cut, const Tube& main) const {
    if (!cut.top.known() || !main.top.known() || !cut.diameter.known() || !main.diameter.known())
      return "attach points and diameters of both tubes";
    const Vec3 foot_cut = cut.foot.known() ? cut.foot.vec() : leg::leg_foot(leg);
    const Vec3 foot_main = main.foot.known() ? main.foot.vec() : leg::leg_foot(leg);
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
      s.texts.push_back({{x + 0.5, top + base - 4}, 2.2, fmt::format("{}°", 90 * i)});
    }
    s.texts.push_back({{2, top + base - 9}, 2.2, "0°: the acute side; wrap round, this edge along the tube"});
    s.dimension({0, top + base}, {width, top + base}, 5, length(c.around()));
    s.notes = {fmt::format("Tube {} on tube {}, axes at {}; deepest less shallowest cut {}.",
                           length(cut.diameter), length(main.diameter), angle(theta), length(*c.depth())),
               "Cut outside of the line, file to it, trial piece first."};
    return s;
  }

  Made plate(const Joint& j) const {
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
    s.texts.push_back(
        {{-half.x() + 2, -half.y() - 8},
         2.4,
         j.face == JointFace::under ? "front to the left, starboard up" : "seen from the leg's side"});
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

  Made unit_plate(const Leg& leg) const {
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
    s.texts.push_back({{1, 1}, 2.2, "pivot"});
    const double hole = d_.is_model() ? 3 : 6;
    for (const double x : {low.x() - edge / 2, high.x() + edge / 2})
      for (const double y : {low.y() - edge / 2, high.y() + edge / 2})
        s.hole({x, y}, hole, fmt::format("pilot {:.0f}", hole / 2));
    s.dimension({low.x() - edge, high.y() + edge}, {high.x() + edge, high.y() + edge}, 8,
                length((high.x() - low.x() + 2 * edge) / mm));
    s.dimension({low.x(), low.y()}, {high.x(), low.y()}, -8, "cut-out " + length((high.x() - low.x()) / mm));
    s.dimension({low.x(), low.y()}, {low.x(), high.y()}, 8, length((high.y() - low.y()) / mm));
    s.texts.push_back({{low.x() - edge + 2, low.y() - edge - 6},
                       2.4,
                       "front to the left, starboard up; port is the mirror image"});
    s.notes = {
        "Holes are pilots at the corners: transfer the unit's own pattern with a self-centring bit while it "
        "stands in the cut-out.",
        "Glue the rails while the unit is bolted to them: the mount then cannot twist and bind it.",
        "Blind holes: engagement, the tap's lead and the point together less than the part is thick; mark "
        "the depth on the drill."};
    return s;
  }

  Made well(const Leg& leg) const {
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
      s.texts.push_back({p + Vec2(2, 2), 2.2, "pivot"});
    }
    s.dimension({low.x(), high.y()}, {high.x(), high.y()}, 8, length(w.high.x - w.low.x));
    s.dimension({low.x(), low.y()}, {low.x(), high.y()}, 8, length(w.high.y - w.low.y));
    s.texts.push_back(
        {{low.x() + 2, low.y() - 7},
         2.4,
         fmt::format(
             "front to the left, starboard up; station {} at the left edge, {} from the centre line below",
             number(w.low.x), number(w.low.y))});
    s.notes = {
        fmt::format(
            "Depth {} from waterline {}. Cut small, swing the real leg by hand, open up where it touches.",
            length(w.high.z - w.low.z), number(w.low.z)),
        "Hot wire and foam: fumes. Resin: gloves, mask, extraction."};
    return s;
  }

  Made wire(const Leg& leg) const {
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
      s.texts.push_back({path.points.front() + Vec2(0, 4), 2.6, name});
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

  Made outline(const Leg& leg) const {
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
      s.texts.push_back({{along, mm * line[i].width / 2 + 3}, 2.2, length(line[i].width)});
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

  Made mould(const Leg& leg) const {
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
    s.texts.push_back({{-10, 5}, 2.4, fmt::format("clamp, {} thick", length(b.thickness.front()))});
    s.notes = {
        "Section from ahead, starboard leg: the lower edge is the mould's face. Release layer without "
        "wrinkles, dry before the lay-up.",
        "Key the halves against sliding, mark front and rear, leave room for clamps, relieve one edge for "
        "surplus resin."};
    return s;
  }

  Made steps() const {
    Drawing s;
    const std::vector<std::string> list{
        "Level the fuselage by its reference, block and strap it; nobody beneath until it is secured.",
        "Mark centre line, reference station and the wing's leading edge on the floor.",
        "Set the bar on its stand: height, centre mark, both diagonals equal. Write the readings into Leg.",
        "Cut long, fit, clamp or tack. Engine: propeller off or battery out.",
        "Check rake and cant on both sides from the same body points, not from the first leg.",
        "Drill pilots with the parts clamped in their true place; split stacked parts, clear chips and "
        "burrs, reassemble.",
        "Bar through both axles: offsets into Leg, toe and camber corrected there.",
        "Weld or glue for good only after fit, travel and attitude are proved. Slow epoxy; gloves, mask.",
        "Bar through both axles again after every bolt-up.",
        "Static load in steps to the wanted multiple of the leg's share; note load, deflection, where it "
        "gives.",
        "Drop test: remove people and propeller, guard the sides, catch the rebound, start low, inspect "
        "after every drop.",
        "First taxi: gear left down, slowly, brakes checked."};
    double y = 0;
    int i = 0;
    for (const auto& t : list) {
      s.rectangle({0, y - 3.2}, {3.2, y}, Line::mark);
      std::string line = fmt::format("{}.", ++i);
      const auto put_line = [&] {
        s.texts.push_back({{6, y - 2.8}, 2.6, line});
        y -= 5;
        line.clear();
      };
      for (size_t from = 0; from < t.size();) {  // word by word, into lines
        const size_t to = std::min(t.find(' ', from), t.size());
        if (line.size() + to - from > 74) put_line();
        line += " " + t.substr(from, to - from);
        from = to + 1;
      }
      put_line();
      y -= 3;
    }
    s.notes = {caution()};
    return s;
  }

  const Design& d_;
  const Assessment& a_;
  std::string state_;
  std::vector<Sheet> sheets_;
};

}  // namespace

std::vector<Sheet> shop_sheets(const Design& design, const Assessment& assessment, const std::string& state) {
  return Maker(design, assessment, state).all();
}

}  // namespace kranich::shop
