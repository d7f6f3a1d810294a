// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/shop/measuring_sheet.h"

#include <fmt/format.h>

#include "core/base/text.h"
#include "core/model/locate.h"

namespace kranich::shop {
namespace {

constexpr double page_width = 188, letters = 2.7;

//! The aircraft's side and where its numbers are taken from, small: datum, axles, hub, tail end.
double sketch(Drawing& s, const Design& d, double top) {
  double length = 0, high = 0, low = 0;
  for (const Body& b : d.airframe.bodies)
    for (const Section& at : b.sections)
      if (at.x.known() && at.top.known() && at.bottom.known()) {
        length = std::max(length, at.x.si);
        high = std::max(high, at.top.si);
        low = std::min(low, at.bottom.si);
      }
  for (const Leg& leg : d.gear.legs)
    if (leg.axle.z.known() && leg.wheel.diameter.known())
      low = std::min(low, leg.axle.z - leg.wheel.diameter / 2);
  if (!(length > 0)) return top;
  const double scale = std::min(150 / length, 42 / (high - low));
  const Vec2 origin(15, top - 4 - high * scale);
  const auto at = [&](double x, double z) { return Vec2(origin.x() + x * scale, origin.y() + z * scale); };
  for (const Body& b : d.airframe.bodies) {
    Path outline;
    for (const Section& section : b.sections) outline.points.push_back(at(section.x, section.top));
    for (auto it = b.sections.rbegin(); it != b.sections.rend(); ++it)
      outline.points.push_back(at(it->x, it->bottom));
    outline.closed = true;
    outline.line = Line::mark;
    if (std::all_of(outline.points.begin(), outline.points.end(),
                    [](const Vec2& p) { return p.allFinite(); }))
      s.paths.push_back(std::move(outline));
  }
  for (const Leg& leg : d.gear.legs)
    if (leg.axle.known() && leg.wheel.diameter.known())
      s.circles.push_back({at(leg.axle.x, leg.axle.z), leg.wheel.diameter / 2 * scale, Line::mark});
  s.line(at(0, high), at(0, low), Line::centre);
  s.write(at(0, low) + Vec2(1.5, 1), letters, "stations from here");
  s.line(at(0, 0), at(length, 0), Line::centre);
  s.write(at(length, 0) + Vec2(1, 0.8), letters, "waterline 0");
  return origin.y() + low * scale - 7;
}

}  // namespace

Drawing measuring_sheet(const Design& d, const start::NextList& list) {
  Drawing s;
  s.title = "What to measure next";
  s.state = "gear down, aircraft level";
  const Tongue tongue{d.units, nullptr};
  s.line({0, 0}, {page_width, 0}, Line::dimension);
  double y = sketch(s, d, 0);
  std::vector<std::vector<std::string>> rows{{"", "What", "With", "Guessed", "Measured"}};
  int number = 0;
  for (const auto& w : list.acts) {
    ++number;
    bool first = true;
    if (w.act.tool == start::Tool::scales) {
      const start::EmptyMass empty = start::empty_of(d);
      rows.push_back({std::to_string(number), "empty mass", start::words(w.act.tool),
                      format_quantity(empty.mass, Kind::mass, d.units), "________________"});
      rows.push_back(
          {"", "its CG, station", "", format_quantity(empty.x, Kind::length, d.units), "________________"});
      continue;
    }
    for (size_t i = 0; i < w.act.paths.size(); ++i) {
      const std::string& path = w.act.paths[i];
      const auto given = given_at(d, path);
      const auto spec = spec_at(d, path);
      if (!given || !spec) continue;
      std::string what = in_words(w.act.what, tongue);
      if (w.act.paths.size() > 1) what = (first ? what + ": " : std::string()) + w.act.titles[i];
      rows.push_back({first ? std::to_string(number) : "", shortened(what, 62),
                      first ? start::words(w.act.tool) : "",
                      format_quantity(given->si, spec->kind, d.units) + " ± " +
                          format_number(given->tolerance, spec->kind, d.units),
                      "________________"});
      first = false;
    }
  }
  s.table({0, y}, {8, 78, 38, 34, 30}, rows, letters);
  s.notes = {
      "Measure in this order: each line settles more than the next. Type it in the same order under "
      "“Measure next”.",
      "The program plans and records, it does not approve."};
  return s;
}

}  // namespace kranich::shop
