// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/table_sheet.h"

#include <algorithm>
#include <cmath>

#include "core/assess/loading_state.h"
#include "core/assess/place_rules.h"
#include "core/assess/standing.h"
#include "core/model/describe.h"

namespace kranich {
namespace {

constexpr double none = std::numeric_limits<double>::quiet_NaN();

const TableReading* reading_of(const Design& d, const std::string& what, const std::string& loading) {
  for (const auto& r : d.stance.readings)
    if (r.what == what && r.loading == loading) return &r;
  return nullptr;
}

//! The lines of one loading.
class Sheet {
 public:
  Sheet(const Design& d, const LoadingState& l, std::vector<TableLine>& lines)
      : d_(d), l_(l), lines_(lines) {}

  void height(const Text& what, const Vec3& starboard, bool both) {
    if (!starboard.allFinite()) return;
    add(what, height_of(starboard), both ? height_of(kranich::mirrored(starboard)) : none, both, false);
  }
  void height(const Text& what, const Vec3& starboard, const Vec3& port) {
    if (!starboard.allFinite() || !port.allFinite()) return;
    add(what, height_of(starboard), height_of(port), true, false);
  }
  void angle(const Text& what, double rad) { add(what, rad, none, false, true); }

 private:
  double height_of(const Vec3& p) const {
    return l_.rest->heave + up_direction(l_.rest->pitch, l_.rest->roll).dot(p);
  }
  void add(const Text& what, double starboard, double port, bool both, bool is_angle) {
    TableLine line{what, l_.name, is_angle, both, starboard, port, none, none, 0, ""};
    if (is_angle && d_.stance.table_slope.known()) line.slope = d_.stance.table_slope;
    if (const auto* r = reading_of(d_, in_words(what), l_.name)) {
      line.read_starboard = is_angle ? r->angle.si : r->starboard.si;
      line.read_port = r->port.si;
      line.build_state = r->build_state;
    }
    lines_.push_back(std::move(line));
  }
  const Design& d_;
  const LoadingState& l_;
  std::vector<TableLine>& lines_;
};

}  // namespace

bool TableLine::is_read() const { return std::isfinite(read_starboard) || std::isfinite(read_port); }

double TableLine::off() const {
  const double starboard = read_starboard - slope - computed_starboard;
  const double port = read_port - computed_port;
  return std::isfinite(port) && !(std::abs(port) < std::abs(starboard)) ? port : starboard;
}

double TableLine::allowed(bool model) const {
  return is_angle ? radians(0.5) : std::max(model ? 0.001 : 0.005, 0.01 * std::abs(computed_starboard));
}

std::vector<TableLine> table_sheet(const Design& d, const Assessment& a) {
  std::vector<TableLine> lines;
  for (const auto& l : a.loadings) {
    if (!l.rest || !a.wheels) continue;
    Sheet sheet(d, l, lines);
    const auto axle = [&](size_t i) { return stance::axle_at_rest((*a.wheels)[i], l.rest->wheels[i]); };
    sheet.angle("incidence of the level reference", l.rest->pitch);
    if (d.airframe.wing.incidence.known())
      sheet.angle("incidence of the wing", l.rest->pitch + d.airframe.wing.incidence);
    for (const auto& p : d.airframe.propellers)
      if (p.tilt.known()) sheet.angle(say("thrust line, {}", p.name), l.rest->pitch - p.tilt);
    if (!d.airframe.bodies.empty() && d.airframe.bodies[0].sections.size() > 1) {
      const auto& first = d.airframe.bodies[0].sections.front();
      const auto& last = d.airframe.bodies[0].sections.back();
      if (last.x > first.x)
        sheet.angle("top of the fuselage, end to end",
                    l.rest->pitch + std::atan2(first.top - last.top, last.x - first.x));
    }
    const auto placed = placed_legs(d.gear);
    for (size_t i = 0; i < placed.size(); ++i) {
      const Leg& leg = d.gear.legs[placed[i].row];
      const Text word = d.stem_word(leg);
      // Left and right in one line: two of a pair, or a starboard leg and the port one measured apart.
      if (leg.stands == LegStands::both_sides) {
        if (placed[i].port) continue;
        sheet.height(say("{} axles", word), axle(i), axle(i - 1));
      } else if (d.unlinked() && &leg == &d.gear.main()) {
        sheet.height("main axles", axle(i), axle(placed_index(d.gear, row_of(d.gear, d.port_leg().id))));
      } else if (!d.unlinked() || &leg != &d.port_leg()) {
        sheet.height(say("{} axle", word), axle(i), false);
      }
    }
    for (const auto& p : d.airframe.propellers)
      if (p.hub.known() && p.diameter.known() && p.tilt.known())
        sheet.height(say("{}, lowest tip", p.name),
                     place::lowest_of({p.hub.vec(), p.diameter, p.tilt}, l.rest->pitch), p.hub.y.si != 0);
    for (const auto& p : d.airframe.low_points)
      if (p.at.known()) sheet.height(Text(p.name), p.at.vec(), p.at.y.si != 0);
    if (!d.airframe.bodies.empty() && d.airframe.bodies[0].sections.size() > 1) {
      const auto& first = d.airframe.bodies[0].sections.front();
      const auto& last = d.airframe.bodies[0].sections.back();
      sheet.height("underside, front end", {first.x, 0, first.bottom}, false);
      sheet.height("underside, rear end", {last.x, 0, last.bottom}, false);
    }
  }
  return lines;
}

std::optional<RestFriction> rest_friction(const Design& d, const Assessment& a, const Leg& leg) {
  const Heaviest h = heaviest_on(d, a, leg);
  if (!leg.rest_pressed.known() || !leg.rest_lifted.known() || !h.loading || !(h.load > 0))
    return std::nullopt;
  const double rate = (*a.wheels)[h.wheel].leg.wheel_rate(h.loading->rest->wheels[h.wheel].coordinate);
  const double apart = leg.rest_lifted - leg.rest_pressed;
  return RestFriction{rate * apart / 2, h.load, apart, rate, h.loading->name};
}

void set_reading(Design& d, const TableLine& line, bool port, double si) {
  auto& list = d.stance.readings;
  auto at = std::find_if(list.begin(), list.end(), [&](const TableReading& r) {
    return r.what == in_words(line.what) && r.loading == line.loading;
  });
  if (at == list.end()) {
    if (!std::isfinite(si)) return;
    TableReading r;
    r.what = in_words(line.what);
    r.loading = line.loading;
    at = list.insert(list.end(), r);
  }
  Given& g = line.is_angle ? at->angle : port ? at->port : at->starboard;
  g = std::isfinite(si) ? Given(si, Origin::measured) : Given();
  at->build_state = std::string(build_state_names[static_cast<size_t>(d.purpose.build_state)]);
  if (!at->starboard.known() && !at->port.known() && !at->angle.known()) list.erase(at);
}

}  // namespace kranich
