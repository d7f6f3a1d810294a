// SPDX-License-Identifier: GPL-3.0-or-later
//! Stance: the findings that follow from the rest on springs.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/assess/assess.h"
#include "core/assess/collector.h"
#include "core/assess/standing.h"
#include "core/assess/table_sheet.h"
#include "core/model/moves.h"
#include "core/place/tipping.h"

namespace kranich {

namespace {

//! What the aircraft would need to come down on its wheels.
void on_its_tail(const Design& d, const Assessment& a, const LoadingState& l, Collector& collect) {
  const Standing s = standing_in(d, &*a.wheels, l, GearState::extended);
  std::optional<place::OnItsTail> sits;
  const double ballast_x = d.stance.ballast_x.known() ? d.stance.ballast_x.si : d.gear.third().axle.x.si;
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
  const auto placed = placed_legs(d.gear);
  const bool leans = std::abs(rest.roll) >= 1e-9;
  struct Track {
    double least = std::numeric_limits<double>::infinity(), most = -least;
    void reach(double y) {
      least = std::min(least, y);
      most = std::max(most, y);
    }
    double width() const { return most - least; }
  };
  // Each line of mains has a track of its own.
  std::vector<size_t> done;
  for (size_t row = 0; row < d.gear.legs.size(); ++row) {
    const Leg& leg = d.gear.legs[row];
    if (leg.role != LegRole::main || std::find(done.begin(), done.end(), row) != done.end()) continue;
    const auto line = line_of(d, row);
    done.insert(done.end(), line.begin(), line.end());
    Track at_rest, extended;
    for (size_t i = 0; i < placed.size(); ++i) {
      if (std::find(line.begin(), line.end(), placed[i].row) == line.end()) continue;
      const auto& w = (*a.wheels)[i];
      const double outboard = w.leg.axle.y() < 0 ? -1 : 1;
      at_rest.reach(stance::wheel_setting(w, rest.wheels[i].coordinate,
                                          w.radius - rest.wheels[i].tyre_closure, outboard)
                        .contact_y);
      extended.reach(stance::wheel_setting(w, 0, w.radius, outboard).contact_y);
    }
    if (!(extended.width() > 0)) continue;  // on the centre line
    const bool several = line.size() < static_cast<size_t>(std::count_if(
                                           d.gear.legs.begin(), d.gear.legs.end(),
                                           [](const Leg& l) { return l.role == LegRole::main; }));
    collect.about(several ? d.leg_word(leg) : "", loading);
    auto& track = collect.add("stance.track", at_rest.width());
    track.working = {{"extended", extended.width(), Kind::length}};
  }
  const bool one_line = done.size() == line_of(d, row_of(d.gear, d.gear.main().id)).size();
  for (size_t i = placed.size(); i-- > 0;) {
    const Leg& leg = d.gear.legs[placed[i].row];
    if (leg.role != LegRole::main) continue;
    const bool pair = leg.stands == LegStands::both_sides;
    if (pair && placed[i].port && !leans) continue;  // the starboard one speaks for both
    const auto& w = (*a.wheels)[i];
    const auto setting = stance::wheel_setting(w, rest.wheels[i].coordinate,
                                               w.radius - rest.wheels[i].tyre_closure, placed[i].hand());
    std::string side = pair && !leans ? "" : w.leg.axle.y() < 0 ? "port" : "starboard";
    if (!one_line) side = pair && leans ? side + " " + d.leg_word(leg) : d.leg_word(leg);
    collect.about(side, loading);
    collect.add("stance.camber", setting.camber);
    collect.add("stance.toe", setting.toe);
  }
}

//! What each leg carries; of nose and tail legs held to standing at all, of outriggers to hardly carrying.
void leg_loads(const Design& d, const stance::Rest& rest, const LoadingState& l, Collector& collect) {
  const auto placed = placed_legs(d.gear);
  const Leg* third = d.gear.has_third() ? &d.gear.third() : nullptr;
  std::vector<Working> loads;
  for (size_t i = 0; i < placed.size(); ++i) {
    const Leg& leg = d.gear.legs[placed[i].row];
    if (&leg == third) continue;
    std::string word = d.leg_word(leg);
    if (leg.stands == LegStands::both_sides) word = (placed[i].port ? "port " : "starboard ") + word;
    if (word.ends_with(" leg")) word.resize(word.size() - 4);
    loads.push_back({word, rest.wheels[i].load, Kind::force});
  }
  const double load = third ? rest.wheels[wheel_of(d, third->id)].load : std::nan("");
  if (third) {
    auto& f = collect.add("stance.third_load", load, at_least(0, "it must stand on all its wheels"));
    f.working = std::move(loads);
    return;
  }
  const Standing s = standing_in(d, nullptr, l, GearState::static_load);
  auto& f = collect.add("stance.third_load", s.third_share * l.mass.down.mass * standard_gravity,
                        at_least(0, "it must stand on all its wheels"));
  f.working = std::move(loads);
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
  if (!d.unlinked() || !d.port_leg().axle.known() || !d.gear.main().axle.known()) return;
  collect.about("", "", GearState::extended);
  const Vec3 difference = d.gear.main().axle.vec() - d.port_leg().axle.vec();
  auto& f = collect.add("stance.sides", difference.cwiseAbs().maxCoeff(),
                        at_most(d.is_model() ? 0.001 : 0.003, "practice"));
  f.working = {{"station", difference.x(), Kind::length},
               {"from the centre line", difference.y(), Kind::length},
               {"waterline", difference.z(), Kind::length},
               {"pulls round by, each wheelbase", difference.x() / (2 * d.gear.main().axle.y), Kind::angle}};
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
        const Standing up = standing_in(d, &*a.wheels, l, GearState::extended);
        const double share = (l.mass.down.at.x() - up.main.x) / (up.third.x - up.main.x);
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
    leg_loads(d, rest, l, collect);
    const Vec3 up = up_direction(rest.pitch, rest.roll);
    collect.add("stance.cg_height", rest.heave + up.dot(l.mass.down.at));
    if (l.flown) wheel_settings(d, a, rest, collect, l.name);
  }
}

}  // namespace kranich
