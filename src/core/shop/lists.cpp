// SPDX-License-Identifier: GPL-3.0-or-later
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>

#include "core/assess/strength_state.h"
#include "core/base/text.h"
#include "core/force/suspension.h"
#include "core/leg/joints.h"
#include "core/leg/layup.h"
#include "core/leg/thread.h"
#include "core/shop/maker.h"

namespace kranich::shop {

Maker::Made Maker::jig() const {
  const auto made = jig_of(d_);
  if (const auto* missing = std::get_if<Text>(&made)) return *missing;
  const auto& j = std::get<JigFigures>(made);
  const Leg& leg = d_.gear.main();
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
  s.write({2, 2}, 2.2, "centre mark");
  s.write((bar_s + point) / 2 + Vec2(4, 0), 2.6, length(j.jig.square_diagonal));
  s.write((bar_p + point) / 2 - Vec2(30, 0), 2.6, length(j.jig.square_diagonal));
  s.write(point + Vec2(4, -1), 2.4, length(j.behind) + " behind the bar");
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
  rows = {{"Starboard diagonal longer by", "toe-in starboard", "toe-in port"}};
  // Steps that the unit writes without rounding.
  const bool inches = d_.units == UnitSystem::inch;
  for (const double step : {1.0, 2.0, 5.0, 10.0}) {
    const double off = step * (inches ? 0.0254 / 20 : 0.001);
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

Maker::Made Maker::cut_list() const {
  Drawing s;
  std::vector<std::vector<std::string>> rows{
      {"Part", "No.", "Of", "Section", "Length", "Cut", "Rake", "Cant", "Drill top", "~ axle", "Clocked"}};
  std::map<std::string, double> stock;
  for (const auto& m : members_of(d_)) {
    // Free ends are eaten by the weld, or trimmed at the fit-up.
    const double spare = d_.is_model() ? 0.005 : 0.020;
    const double cut = m.geometry.length + spare;
    const std::string section =
        std::isfinite(m.width) && std::isfinite(m.thickness) ? number(m.width) + " × " + number(m.thickness)
        : std::isfinite(m.diameter)
            ? number(m.diameter) + (std::isfinite(m.wall) ? " × " + number(m.wall) : "")
            : "?";
    rows.push_back({m.leg + ", " + m.name, std::to_string(m.count), m.material.empty() ? "?" : m.material,
                    section, number(m.geometry.length), number(cut), angle(m.geometry.rake),
                    angle(m.geometry.cant), angle(m.drill_top), angle(m.drill_axle), angle(m.clocking)});
    stock[(m.material.empty() ? "?" : m.material) + " " + section] += m.count * cut;
  }
  for (const Leg& leg : d_.gear.legs) {
    if (!leg.axle_diameter.known() || !leg.wheel_offset.known() || !leg.axle_beyond_wheel.known()) continue;
    const double axle = std::abs(leg.wheel_offset) + leg.axle_beyond_wheel + 3 * leg.axle_diameter;
    rows.push_back({leg_word(leg) + ", axle", leg.stands == LegStands::both_sides ? "2" : "1",
                    leg.axle_material, number(leg.axle_diameter), number(axle), number(axle + 0.02), "–", "–",
                    "–", "–", "–"});
    stock[leg.axle_material + " " + number(leg.axle_diameter)] +=
        (leg.stands == LegStands::both_sides ? 2 : 1) * (axle + 0.02);
  }
  for (const Leg& leg : d_.gear.legs)
    for (const Joint& j : leg.joints) {
      if (j.kind != JointKind::post || !j.diameter.known()) continue;
      const leg::PostLine line = leg::post_line(j);
      if (!std::isfinite(line.length)) continue;
      // Cupped to the spar at its upper end, bevelled at the lower one.
      const double cut = line.length + j.diameter / 2;
      rows.push_back({leg_word(leg) + ", " + j.name, leg.stands == LegStands::both_sides ? "2" : "1",
                      j.material, number(j.diameter), number(line.length), number(cut), angle(line.rake),
                      angle(line.cant), "cupped", "bevel " + angle(line.lean), "–"});
      stock[j.material + " " + number(j.diameter)] += (leg.stands == LegStands::both_sides ? 2 : 1) * cut;
    }
  if (rows.size() == 1) return "a leg of tubes or of one strut with its upper end and its axle";
  double y = s.table({0, 0}, {30, 7, 37, 16, 16, 15, 12, 12, 14, 14, 14}, rows, 1.9);
  std::vector<std::vector<std::string>> buy{{"To buy", "length, " + unit()}};
  for (const auto& [what, sum] : stock) buy.push_back({what, number(sum)});
  s.table({0, y - 8}, {80, 30}, buy, 2.4);
  s.notes = {
      fmt::format("Lengths in {}. Cut includes {} to trim at the fit-up. An axle reaches three "
                  "diameters into its leg. Undecided brakes: leave spare axle.",
                  unit(), number(d_.is_model() ? 0.005 : 0.020)),
      "Left and right are handed: mark left, right, front, rear before the first hole. Drill top: to the "
      "hinge or pivot line; of a leg without one to the face it is held on (90° is square to it).",
      caution()};
  return s;
}

Maker::Made Maker::threads() const {
  // What this design screws together: fasteners, thread of a made strut.
  std::vector<double> used;
  for (const Leg& leg : d_.gear.legs) {
    for (const Joint& j : leg.joints)
      for (const Fastener& f : j.fasteners)
        if (f.diameter.known()) used.push_back(f.diameter);
    if (leg.spring.telescope.thread.known()) used.push_back(leg.spring.telescope.thread);
  }
  Drawing s;
  const bool inch = d_.units == UnitSystem::inch;
  const auto holes = [&](const leg::Thread& t, double diameters) {
    const auto hole = leg::blind_hole(t, diameters);
    return number(hole.thread) + " / " + number(hole.depth);
  };
  std::vector<std::vector<std::string>> rows{{"", "Thread", "Pitch", "Tap drill", "Rod before the die",
                                              "in steel", "in light metal", "in wood, prints"}};
  for (const auto& t : leg::coarse_threads()) {
    // Of the other world's threads only those that are used.
    const bool here = std::any_of(used.begin(), used.end(), [&](double d) {
      const auto of_it = leg::coarse_thread(d);
      return of_it && of_it->name == t.name;
    });
    if (!here && (t.name[0] == 'M') == inch) continue;
    rows.push_back({here ? "used" : "", t.name, number(t.pitch), number(t.tap_drill()), number(t.rod()),
                    holes(t, 1), holes(t, 1.5), holes(t, 2)});
  }
  s.table({0, 0}, {12, 18, 16, 20, 32, 26, 28, 30}, rows, 2.7);
  s.notes = {"Lengths in " + unit() +
                 ". Depths: full thread / to the point's tip in a hole that does not go through "
                 "(three pitches of the tap's lead, the drill's point).",
             "A quarter turn on, half a turn back; oil in steel, paraffin in aluminium, dry in wood and "
             "prints; clear "
             "the chips before they pack. Chamfer rod and hole first; start the die square."};
  return s;
}

Maker::Made Maker::hardware() const {
  std::vector<std::vector<std::string>> rows{
      {"Where", "What", "No.", "Diameter", "Grip or length", "Of", "Left of strength"}};
  for (const Leg& leg : d_.gear.legs) {
    const std::string word = leg_word(leg);
    for (const auto& j : leg.joints) {
      const int sides = leg.stands == LegStands::both_sides && !leg::on_centre_line(j) ? 2 : 1;
      std::string left = "?";
      for (const auto& s : a_.strengths)
        if (s.leg == leg.id)
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
                          std::to_string(sides), number(j.length) + " × " + number(j.width), "–", j.material,
                          left});
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
  std::string to_fit;
  for (const Leg& leg : d_.gear.legs) {
    const SpringKind kind = leg.spring.kind;
    if (kind != SpringKind::coil && kind != SpringKind::cord && kind != SpringKind::pucks &&
        kind != SpringKind::gas_strut)
      continue;
    const auto path = force::suspension_of(leg, d_.materials);
    const auto* suspension = std::get_if<force::Suspension>(&path);
    if (suspension && suspension->most > 0 && suspension->law.force(0) > 0)
      to_fit += fmt::format("{}{} {}", to_fit.empty() ? "" : ", ", leg_word(leg),
                            say(suspension->law.force(0), Kind::force));
  }
  if (!to_fit.empty())
    s.notes.push_back("Force to fit each spring, the leg extended: " + to_fit +
                      ". Clamp it; it flies when it slips.");
  s.notes.insert(
      s.notes.end(),
      {"Lengths in " + unit() +
           ". Tighten a clamped leaf: load screws loose, locating screws snug, then load screws home.",
       caution()});
  return s;
}

namespace {
//! The zones on the box laid flat, those with a place and a size: `scale` paper mm a metre, from a corner
//! downward. Returns the y below.
double zones(Drawing& s, const std::vector<Ply>& plies, const Vec2& corner, double wide) {
  double left = 1e9;
  double right = -1e9;
  double low = 1e9;
  double high = -1e9;
  const auto placed = [](const Ply& p) {
    return p.x.known() && p.y.known() && p.length.known() && p.width.known();
  };
  for (const auto& p : plies) {
    if (!placed(p)) continue;
    const double over = p.overlap.known() ? p.overlap.si : 0;
    left = std::min(left, p.x - p.length / 2 - over);
    right = std::max(right, p.x + p.length / 2 + over);
    low = std::min(low, p.y - p.width / 2 - over);
    high = std::max(high, p.y + p.width / 2 + over);
  }
  if (!(right > left)) return corner.y();
  const double scale = std::min(wide / (right - left), 90 / (high - low));
  const auto at = [&](double x, double y) {
    return Vec2(corner.x() + scale * (x - left), corner.y() - scale * (high - y));
  };
  for (size_t i = 0; i < plies.size(); ++i) {
    const Ply& p = plies[i];
    if (!placed(p)) continue;
    const double x = p.length / 2;
    const double y = p.width / 2;
    const double over = p.overlap.known() ? p.overlap.si : 0;
    if (over > 0)
      s.rectangle(at(p.x - x - over, p.y - y - over), at(p.x + x + over, p.y + y + over), Line::mark);
    s.rectangle(at(p.x - x, p.y - y), at(p.x + x, p.y + y), p.hard_point ? Line::bend : Line::cut);
    // Numbers as in the list, one beside the other where zones lie on each other.
    s.write(at(p.x - x, p.y + y) + Vec2(1.5 + 6.0 * static_cast<double>(i % 5), -4.5), 3,
            std::to_string(i + 1));
  }
  return at(left, low).y();
}
}  // namespace

Maker::Made Maker::lay_up() const {
  Drawing s;
  std::vector<std::vector<std::string>> rows{
      {"No.", "Done", "Zone", "Cloth", "Direction", "Plies", "Overlap", "Cut of one", "Cloth", "Resin"}};
  std::map<std::string, double> cloths;
  const auto known = [&](double v, Kind kind) { return std::isfinite(v) ? say(v, kind) : std::string("?"); };
  for (size_t i = 0; i < d_.plies.size(); ++i) {
    const Ply& p = d_.plies[i];
    const leg::PlyTotal total = leg::total_of(p);
    rows.push_back({std::to_string(i + 1), p.laid ? "[x]" : "[ ]",
                    p.zone + (p.hard_point ? ", hard point" : ""), p.cloth, p.direction,
                    p.count.known() ? fmt::format("{:.0f}", p.count.si) : "?",
                    p.overlap.known() ? length(p.overlap) : "–", known(total.cut, Kind::area),
                    known(total.cloth, Kind::mass), known(total.resin, Kind::mass)});
    if (std::isfinite(total.area)) cloths[p.cloth.empty() ? "cloth without a name" : p.cloth] += total.area;
  }
  double y = zones(s, d_.plies, {0, 0}, 150);
  y = s.table({0, y - (y < 0 ? 6 : 0)}, {8, 9, 36, 40, 20, 10, 16, 20, 16, 16}, rows, 2);
  std::vector<std::vector<std::string>> buy{{"To buy, offcuts not counted", "amount"}};
  for (const auto& [cloth, area] : cloths) buy.push_back({cloth, say(area, Kind::area)});
  const leg::LayUpTotal all = leg::total_of(d_.plies);
  if (all.resin > 0) {
    buy.push_back({"resin with hardener, in the plies", say(all.resin, Kind::mass)});
    buy.push_back({fmt::format("in batches of {} at most", say(leg::largest_batch, Kind::mass)),
                   std::to_string(all.batches)});
    buy.push_back({"it weighs, laid up", say(all.cloth + all.resin, Kind::mass)});
  }
  if (d_.mixing.working_time.known() && d_.mixing.ply_time.known()) {
    const int of_a_mix = leg::plies_of_a_mix(d_.mixing);
    buy.push_back({"plies laid from one mix, in two thirds of its working time", std::to_string(of_a_mix)});
    for (size_t i = 0; i < d_.plies.size() && of_a_mix > 0; ++i)
      if (d_.plies[i].count.known())
        buy.push_back({fmt::format("{} {}: {}", i + 1, d_.plies[i].zone,
                                   say(d_.plies[i].count * d_.mixing.ply_time, Kind::time)),
                       fmt::format("{} mixes", leg::mixes_for(d_.plies[i], of_a_mix))});
  }
  for (const auto& zone : all.left_out)
    buy.push_back({fmt::format("not counted: {}", zone), "area, cloth's weight or resin missing"});
  s.table({0, y - 8}, {75, 30}, buy, 2.4);
  s.notes = {
      "Coarse abrasion, paint off, dust out; inside corners with a fillet; cloth must not bridge a step.",
      "Zones full line, their overlap thin, hard points dashed. Mix in batches to the working time, by mass. "
      "Gloves, mask, extraction.",
      caution()};
  return s;
}

}  // namespace kranich::shop
