// SPDX-License-Identifier: GPL-3.0-or-later
//! Stance: the findings that follow from the rest on springs.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/assess/assess.h"
#include "core/assess/collector.h"
#include "core/assess/standing.h"
#include "core/assess/table_sheet.h"
#include "core/place/tipping.h"

namespace kranich {

namespace {

//! What the aircraft would need to come down on its wheels.
void on_its_tail(const Design& d, const Assessment& a, const LoadingState& l, Collector& collect) {
  const Standing s = standing_in(d, &*a.wheels, l, GearState::extended);
  std::optional<place::OnItsTail> sits;
  const double ballast_x = d.stance.ballast_x.known() ? d.stance.ballast_x.si : d.gear.third.axle.x.si;
  const std::string where = d.stance.ballast_x.known() ? "hung where you said" : "hung over the nose axle";
  for (const auto& p : d.airframe.low_points) {
    if (p.role != PointRole::tail || !p.at.known()) continue;
    const auto tail = place::on_its_tail(l.mass.down.mass, l.mass.down.at, s.third, s.main,
                                         {p.at.x, p.at.z, 0}, {ballast_x, 0, l.mass.down.at.z()});
    // The point that touches first is the one with the least pitch.
    if (tail && !tail->stands && (!sits || tail->pitch < sits->pitch)) sits = tail;
  }
  if (!sits) {
    collect.unknown("stance.ballast_keeps",
                    "a tail point behind the main wheels, and a ballast ahead of them");
    return;
  }
  auto& keeps = collect.add("stance.ballast_keeps", sits->keeps_down);
  keeps.working = {{"ballast at station", ballast_x, Kind::length},
                   {"sits on its tail at a pitch of", sits->pitch, Kind::angle},
                   {"load on the tail", sits->tail_load, Kind::force},
                   {"gap under the nose wheel", sits->nose_gap, Kind::length}};
  keeps.remark = where;
  auto& brings = collect.add("stance.ballast_brings", sits->brings_down);
  brings.remark = where;
}

void wheel_settings(const Design& d, const Assessment& a, const stance::Rest& rest, Collector& collect,
                    const std::string& loading) {
  stance::WheelSetting side[2];
  for (const WheelIndex which : {WheelIndex::port, WheelIndex::starboard}) {
    const auto i = static_cast<size_t>(which);
    const auto& w = (*a.wheels)[i];
    side[i - 1] = stance::wheel_setting(w, rest.wheels[i].coordinate, w.radius - rest.wheels[i].tyre_closure,
                                        which == WheelIndex::port ? -1 : 1);
  }
  collect.about("", loading);
  const double extended = stance::wheel_setting((*a.wheels)[2], 0, (*a.wheels)[2].radius, 1).contact_y -
                          stance::wheel_setting((*a.wheels)[1], 0, (*a.wheels)[1].radius, -1).contact_y;
  auto& track = collect.add("stance.track", side[1].contact_y - side[0].contact_y);
  track.working = {{"extended", extended, Kind::length}};
  for (const int i : {1, 0}) {
    if (i == 0 && !d.gear.unlinked && std::abs(rest.roll) < 1e-9) break;
    collect.about(d.gear.unlinked || std::abs(rest.roll) >= 1e-9 ? (i ? "starboard" : "port") : "", loading);
    collect.add("stance.camber", side[i].camber);
    collect.add("stance.toe", side[i].toe);
  }
}

void table_readings(const Design& d, const Assessment& a, Collector& collect) {
  for (const auto& line : table_sheet(d, a)) {
    if (line.is_angle || !line.is_read()) continue;
    collect.about(line.what, line.loading);
    const double allowed = line.allowed(d.is_model());
    auto& f = collect.add("stance.table", line.off(), within(-allowed, allowed, "what a ruler shows"));
    f.working = {{"computed", line.computed_starboard, Kind::length},
                 {"read", line.read_starboard, Kind::length}};
    if (std::isfinite(line.read_port)) {
      f.working.push_back({"port computed", line.computed_port, Kind::length});
      f.working.push_back({"port read", line.read_port, Kind::length});
    }
    if (!line.build_state.empty()) f.remark = "read as: " + line.build_state;
  }
}

void sides(const Design& d, Collector& collect) {
  if (!d.gear.unlinked || !d.gear.port.axle.known() || !d.gear.main.axle.known()) return;
  collect.about("", "", GearState::extended);
  const Vec3 difference = d.gear.main.axle.vec() - d.gear.port.axle.vec();
  auto& f = collect.add("stance.sides", difference.cwiseAbs().maxCoeff(),
                        at_most(d.is_model() ? 0.001 : 0.003, "practice"));
  f.working = {{"station", difference.x(), Kind::length},
               {"from the centre line", difference.y(), Kind::length},
               {"waterline", difference.z(), Kind::length},
               {"pulls round by, each wheelbase", difference.x() / (2 * d.gear.main.axle.y), Kind::angle}};
}

}  // namespace

void assess_stance(const Design& d, Assessment& a, Collector& collect) {
  sides(d, collect);
  table_readings(d, a, collect);
  for (const auto& l : a.loadings) {
    collect.about("", l.name);
    if (!l.rest) {
      auto& f = collect.unknown("stance.third_load", l.no_rest);
      if (l.mass.known() && a.wheels) {  // it tips: what the third wheel would have to carry is a pull
        const double base = d.gear.third.axle.x - d.gear.main.axle.x;
        const double share = (l.mass.down.at.x() - d.gear.main.axle.x) / base;
        f.value = share * l.mass.down.mass * standard_gravity;
        f.limit = at_least(0, "it must stand on all its wheels");
        const auto j = judge(std::min(f.value, -1e-9), f.limit, f.info().zero_scale);
        f.verdict = j.verdict;
        f.margin = j.margin;
        f.margin_fraction = j.margin_fraction;
        f.remark = l.no_rest;
        if (d.is_tricycle()) {
          collect.about("", l.name);
          on_its_tail(d, a, l, collect);
        }
      }
      continue;
    }
    const auto& rest = *l.rest;
    if (l.name == d.stance.target_loading || d.stance.target_loading.empty()) {
      Limit target;
      if (d.stance.target_low.known()) target.lower = d.stance.target_low;
      if (d.stance.target_high.known()) target.upper = d.stance.target_high;
      target.source = "the stance you want";
      if (d.airframe.wing.incidence.known()) {
        auto& f = collect.add("stance.wing_angle", rest.pitch + d.airframe.wing.incidence, target);
        f.working = {{"pitch", rest.pitch, Kind::angle},
                     {"incidence", d.airframe.wing.incidence, Kind::angle}};
      } else {
        collect.unknown("stance.wing_angle", "the wing's incidence to the level reference");
      }
    }
    collect.add("stance.pitch", rest.pitch);
    collect.add("stance.roll", rest.roll);
    auto& third =
        collect.add("stance.third_load", rest.wheels[0].load, at_least(0, "it must stand on all its wheels"));
    third.working = {{"port main", rest.wheels[1].load, Kind::force},
                     {"starboard main", rest.wheels[2].load, Kind::force}};
    const Vec3 up = up_direction(rest.pitch, rest.roll);
    collect.add("stance.cg_height", rest.heave + up.dot(l.mass.down.at));
    if (l.flown) wheel_settings(d, a, rest, collect, l.name);
  }
}

}  // namespace kranich
