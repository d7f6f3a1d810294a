// SPDX-License-Identifier: GPL-3.0-or-later
//! Templates full size of what the gear stands in: bulkheads at the formers, with what goes through them, and
//! the cloth of a lay-up as it is cut.
#include <fmt/format.h>
#include <math.h>  // pchip of Boost 1.74 asks for isnan without its namespace

#include <algorithm>
#include <boost/math/interpolators/pchip.hpp>
#include <cmath>
#include <numbers>

#include "core/base/field_map.h"
#include "core/motion/triangles.h"
#include "core/place/keepout.h"
#include "core/shop/maker.h"

namespace kranich::shop {
namespace {

//! An edge of a body at a station, smooth through its sections without overshooting; straight between two or
//! three. NaN outside of them.
double edge_at(const std::vector<double>& x, const std::vector<double>& y, double at) {
  if (x.size() < 2 || at < x.front() || at > x.back()) return std::numeric_limits<double>::quiet_NaN();
  if (x.size() < 4) {
    const auto after =
        std::max<size_t>(1, static_cast<size_t>(std::lower_bound(x.begin(), x.end(), at) - x.begin()));
    return y[after - 1] + (y[after] - y[after - 1]) * (at - x[after - 1]) / (x[after] - x[after - 1]);
  }
  auto abscissae = x;
  auto ordinates = y;
  const boost::math::interpolators::pchip<std::vector<double>> curve(std::move(abscissae),
                                                                     std::move(ordinates));
  return curve(at);
}

struct Oval {
  double half_width, top, bottom;
};
//! A body cut across at a station; nothing where it does not reach it.
std::optional<Oval> cut_across(const Body& body, double at) {
  std::vector<double> x, width, top, bottom;
  for (const Section& s : body.sections) {
    if (!s.x.known() || !s.top.known() || !s.bottom.known() || !s.half_width.known()) continue;
    if (!x.empty() && !(s.x > x.back())) continue;
    x.push_back(s.x);
    width.push_back(s.half_width);
    top.push_back(s.top);
    bottom.push_back(s.bottom);
  }
  const Oval o{edge_at(x, width, at), edge_at(x, top, at), edge_at(x, bottom, at)};
  return o.half_width > 0 && o.top > o.bottom ? std::optional(o) : std::nullopt;
}

//! Where a cylinder meets a plane across: an ellipse in (y, z), in so many points; empty where it does not.
std::vector<Vec2> cut_across(const motion::Cylinder& c, double at) {
  constexpr int points = 96;
  std::vector<Vec2> list;
  if (std::abs(c.axis.x()) < 0.2) return list;  // it lies along the bulkhead: no hole
  const Vec3 u = c.axis.unitOrthogonal();
  const Vec3 v = c.axis.cross(u);
  for (int i = 0; i < points; ++i) {
    const double a = 2 * std::numbers::pi * i / points;
    const Vec3 rim = c.centre + c.radius * (std::cos(a) * u + std::sin(a) * v);
    const double along = (at - rim.x()) / c.axis.x();
    if (std::abs(along) > c.half_length) return {};
    const Vec3 p = rim + along * c.axis;
    list.emplace_back(p.y(), p.z());
  }
  return list;
}

//! Where a wedge meets a plane across: the corners there, one after the other; empty where it does not.
std::vector<Vec2> cut_across(const motion::Wedge& w, double at) {
  const Vec3 points[]{w.a, w.b, w.c, w.a + w.along, w.b + w.along, w.c + w.along};
  constexpr int edges[][2]{{0, 1}, {1, 2}, {2, 0}, {3, 4}, {4, 5}, {5, 3}, {0, 3}, {1, 4}, {2, 5}};
  std::vector<Vec2> list;
  for (const auto& [i, j] : edges) {
    const Vec3& p = points[i];
    const Vec3& q = points[j];
    if ((p.x() - at) * (q.x() - at) >= 0) continue;
    const Vec3 m = p + (at - p.x()) / (q.x() - p.x()) * (q - p);
    list.emplace_back(m.y(), m.z());
  }
  if (list.size() < 3) return {};
  Vec2 middle = Vec2::Zero();
  for (const Vec2& p : list) middle += p / static_cast<double>(list.size());
  const auto bearing = [&](const Vec2& p) { return std::atan2(p.y() - middle.y(), p.x() - middle.x()); };
  std::sort(list.begin(), list.end(), [&](const Vec2& p, const Vec2& q) { return bearing(p) < bearing(q); });
  return list;
}

}  // namespace

void Maker::bulkheads() {
  for (const Reference& r : d_.airframe.references) {
    if (!r.former) continue;
    const std::string name = r.name.empty() ? "former" : r.name;
    const std::string title = "Bulkhead at " + name;
    if (!r.x.known()) {
      put("bulkhead:" + name, title, Text("the station of this former"));
      continue;
    }
    bool any = false;
    for (const Body& body : d_.airframe.bodies)
      if (const auto oval = cut_across(body, r.x)) {
        any = true;
        put("bulkhead:" + name + (body.name.empty() ? "" : ":" + body.name), title,
            bulkhead(r, oval->half_width, oval->top, oval->bottom));
      }
    if (!any) put("bulkhead:" + name, title, Text("sections of a body before and behind this former"));
  }
}

Maker::Made Maker::bulkhead(const Reference& r, double half_width, double top, double bottom) const {
  Drawing s;
  const double middle = (top + bottom) / 2;
  const auto at = [&](double y, double z) { return Vec2(mm * y, mm * (z - middle)); };
  Path edge{{}, true, Line::cut};
  constexpr int around = 180;
  for (int i = 0; i < around; ++i) {
    const double a = 2 * std::numbers::pi * i / around;
    edge.points.push_back(at(half_width * std::cos(a), middle + (top - bottom) / 2 * std::sin(a)));
  }
  s.paths.push_back(std::move(edge));
  const double tall = mm * (top - bottom) / 2;
  const double wide = mm * half_width;
  s.line({0, -tall - 12}, {0, tall + 12}, Line::centre);
  s.line({-wide - 12, 0}, {wide + 12, 0}, Line::centre);
  s.write({2, tall + 6}, 2.4, "centre line, seen from behind");
  s.write({wide + 3, 1.5}, 2.4, "waterline " + number(middle));
  s.dimension({-wide, -tall}, {wide, -tall}, -16, length(2 * half_width));
  s.dimension({-wide, -tall}, {-wide, tall}, 12, length(top - bottom));
  std::vector<std::vector<std::string>> rows{{"Goes through it", "Side", "Across", "Up"}};
  // Only what lies in the bulkhead is cut: the oval is convex, each of its sides cuts straight.
  const auto inside = [&](std::vector<Vec2> outline) {
    for (int i = 0; i < around && !outline.empty(); ++i) {
      const double a = 2 * std::numbers::pi * (i + 0.5) / around;
      const Vec2 out(std::cos(a) / half_width, 2 * std::sin(a) / (top - bottom));
      const double reach = std::cos(std::numbers::pi / around);
      outline = cut(outline, [&](const Vec2& q) { return reach - out.dot(Vec2(q.x(), q.y() - middle)); });
    }
    return outline;
  };
  const auto hole = [&](const std::vector<Vec2>& whole, const std::string& name, Line line) {
    const std::vector<Vec2> outline = inside(whole);
    if (outline.empty()) return;
    Vec2 low = outline.front(), high = low;
    for (const Vec2& p : outline) {
      low = low.cwiseMin(p);
      high = high.cwiseMax(p);
    }
    const bool over_the_middle = low.x() < 0 && high.x() > 0;
    for (const double side : {1.0, -1.0}) {
      if (over_the_middle && side < 0) continue;
      Path path{{}, true, line};
      for (const Vec2& p : outline) path.points.push_back(at(side * p.x(), p.y()));
      s.paths.push_back(std::move(path));
      s.write(at(side * (low.x() + high.x()) / 2, (low.y() + high.y()) / 2), 2.2, name, true);
    }
    rows.push_back(
        {name, over_the_middle ? "middle" : "both", length(high.x() - low.x()), length(high.y() - low.y())});
  };
  const auto box = [&](const motion::Box& b, const std::string& name, Line line) {
    if (b.low.x() > r.x || b.high.x() < r.x) return;
    hole({{b.low.y(), b.low.z()}, {b.high.y(), b.low.z()}, {b.high.y(), b.high.z()}, {b.low.y(), b.high.z()}},
         name, line);
  };
  for (const KeepOut& k : d_.airframe.keep_outs) {
    for (const auto& solid : place::solids_of(k)) {
      if (const auto* b = std::get_if<motion::Box>(&solid)) box(*b, k.name, Line::mark);
      if (const auto* c = std::get_if<motion::Cylinder>(&solid))
        hole(cut_across(*c, r.x), k.name, Line::mark);
      if (const auto* w = std::get_if<motion::Wedge>(&solid)) hole(cut_across(*w, r.x), k.name, Line::mark);
      if (const auto* m = std::get_if<motion::SkinAt>(&solid))
        for (auto line : m->skin->cut_across(r.x - m->shift.x())) {
          for (Vec2& p : line) p += Vec2(m->shift.y(), m->shift.z());
          hole(line, k.name, Line::mark);
        }
    }
  }
  for (const Leg& leg : d_.gear.legs) {
    const Well& w = leg.retraction.well;
    if (leg.retraction.fitted && w.low.known() && w.high.known())
      box({w.low.vec(), w.high.vec()}, w.name.empty() ? "well of the " + leg_word(leg) : w.name, Line::cut);
    if (const auto unit = place::unit_of(leg)) box(*unit, "unit of the " + leg_word(leg), Line::bend);
  }
  if (rows.size() > 1) s.table({-wide, -tall - 24}, {60, 20, 26, 26}, rows, 2.4);
  s.notes = {fmt::format("At station {}, full size, to the outside of the skin: take its thickness off.",
                         length(r.x)),
             "An oval as wide and as high as the sections entered make it there: hold it against the real "
             "skin before it "
             "is cut.",
             "Wells are cut out, units stand where the long dashes are; what is marked goes through, with "
             "its own room.",
             caution()};
  return s;
}

Maker::Made Maker::cloth(size_t index) const {
  const Ply& p = d_.plies[index];
  if (!p.length.known() || !p.width.known()) return Text("length and width of this zone");
  Drawing s;
  const double over = p.overlap.known() ? p.overlap.si : 0;
  const Vec2 zone(mm * p.length / 2, mm * p.width / 2);
  const Vec2 cut = zone + Vec2(mm * over, mm * over);
  s.rectangle(-cut, cut, Line::cut);
  if (over > 0) s.rectangle(-zone, zone, Line::mark);
  s.line({-cut.x() - 6, 0}, {cut.x() + 6, 0}, Line::centre);
  s.line({0, -cut.y() - 6}, {0, cut.y() + 6}, Line::centre);
  // The fibres, where the direction says an angle: "0/90", "±45".
  bool drawn = false;
  const auto fibres = [&](double degrees) {
    drawn = true;
    const double a = degrees * std::numbers::pi / 180;
    const Vec2 along(std::cos(a), std::sin(a));
    const double reach = 0.6 * std::min(cut.x(), cut.y());
    for (const double off : {-0.25, 0.0, 0.25}) {
      const Vec2 by = off * reach * Vec2(-along.y(), along.x());
      s.line(by - 0.5 * reach * along, by + 0.5 * reach * along, Line::bend);
    }
  };
  const auto names = [&](const char* angle) { return p.direction.find(angle); };
  if (names("45") != std::string::npos) {
    fibres(45);
    fibres(-45);
  }
  if (names("90") != std::string::npos) fibres(90);
  // A nought of its own, not that of ninety.
  if (names("0") != std::string::npos && (names("90") == std::string::npos || names("0") != names("90") + 1))
    fibres(0);
  s.dimension({-cut.x(), -cut.y()}, {cut.x(), -cut.y()}, -10, length(p.length + 2 * over));
  s.dimension({-cut.x(), -cut.y()}, {-cut.x(), cut.y()}, 10, length(p.width + 2 * over));
  s.write({-cut.x() + 2, cut.y() - 5}, 3,
          fmt::format("{}: {}, {}{}", index + 1, p.cloth.empty() ? "cloth" : p.cloth,
                      p.direction.empty() ? "direction not told" : p.direction,
                      p.count.known() ? fmt::format(", {:.0f} pieces", p.count.si) : std::string()));
  s.notes = {fmt::format("Zone {}.{}{}", p.zone, drawn ? " Long dashes: which way the fibres run." : "",
                         over > 0 ? fmt::format(" Cut {} wider all round than the zone, which is marked.",
                                                length(over))
                                  : std::string()),
             "Cut on the flat, edges held with tape; each later piece a little smaller where an edge would "
             "end in one "
             "line with the one before.",
             caution()};
  return s;
}

}  // namespace kranich::shop
