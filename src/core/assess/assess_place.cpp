// SPDX-License-Identifier: GPL-3.0-or-later
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/assess/assess.h"
#include "core/assess/collector.h"

namespace kranich {
namespace {

using place::RoundWheel;

bool smooth(const Design& d) { return d.purpose.field == Field::tarmac || d.purpose.field == Field::indoor; }
bool is_model(const Design& d) { return d.purpose.build == Build::model; }

//! The static wheels of one loading, side view.
struct Standing {
  RoundWheel main, third;
  double track, pitch;
  Vec3 cg;
};

Standing standing(const Design& d, const LoadingState& l) {
  return {wheel_in_state(d.gear.main, GearState::static_load, &l.rest->wheels[2]),
          wheel_in_state(d.gear.third, GearState::static_load, &l.rest->wheels[0]), 2 * d.gear.main.axle.y,
          l.rest->pitch, l.mass.down.at};
}

//! Nothing, or what keeps the tail-strike limit from being known.
std::optional<double> attitude_needed(const Design& d) {
  if (!d.airframe.lift_off_wing_angle.known() || !d.airframe.wing.incidence.known()) return std::nullopt;
  return d.airframe.lift_off_wing_angle - d.airframe.wing.incidence + radians(1);
}

std::optional<place::TailStrike> strike(const Design& d, const RoundWheel& main) {
  std::vector<place::HighPoint> points;
  for (const auto& p : d.airframe.low_points) {
    if (p.role != PointRole::tail || !p.at.known()) continue;
    points.push_back(
        {place::behind_contact(p.at.vec(), main, 0), place::height_above_ground(p.at.vec(), main, 0)});
  }
  return place::tail_strike(points, main.radius);
}

void tail_strikes(const Design& d, const Standing& s, Collector& collect, const std::string& loading) {
  const auto needed = attitude_needed(d);
  const std::string source = "wing angle at lift-off less incidence, and 1° in hand";
  struct Line {
    const char* id;
    RoundWheel wheel;
    GearState state;
  };
  for (const Line& line :
       {Line{"place.tail_strike_static", s.main, GearState::static_load},
        Line{"place.tail_strike_extended", wheel_in_state(d.gear.main, GearState::extended, nullptr),
             GearState::extended}}) {
    collect.about("", line.state == GearState::extended ? "" : loading, line.state);
    const auto t = strike(d, line.wheel);
    if (!t) {
      collect.unknown(line.id, "a tail point behind the main wheels");
      continue;
    }
    auto& f = collect.add(line.id, t->round_wheels, needed ? at_least(*needed, source) : Limit{});
    f.working = {{"at a fixed contact", t->at_contact, Kind::angle}};
    if (!needed) f.remark = "no limit without the wing's angle at lift-off and its incidence";
  }
}

void tricycle(const Design& d, const LoadingState& l, Collector& collect) {
  const Standing s = standing(d, l);
  const double main_behind = -place::behind_contact(s.cg, s.main, 0);
  const double height = place::height_above_ground(s.cg, s.main, 0);
  const auto tip = place::tip_back(main_behind, height, s.main.radius);
  const auto tail = strike(d, s.main);
  collect.about("", l.name);
  double least = is_model(d) && smooth(d) ? radians(10) : radians(15);
  std::string who = is_model(d) && smooth(d) ? "models on smooth fields: 10–15°"
                                             : "texts: 15°; above 25° rotation becomes hard";
  if (tail && tail->at_contact > least) {
    least = tail->at_contact;
    who = "not less than the tail-strike angle; above 25° rotation becomes hard";
  }
  auto& f = collect.add("place.tip_back", tip.at_contact,
                        within(least, std::max(radians(25), least + radians(5)), who));
  f.working = {{"x_m − x_cg", main_behind, Kind::length},
               {"h", height, Kind::length},
               {"goes over on round wheels at", tip.round_wheels, Kind::angle}};
  f.assumption = "level attitude, static springs, contact fixed in the aircraft";
  tail_strikes(d, s, collect, l.name);

  collect.about("", l.name);
  const double third_x = place::behind_contact({s.third.x, 0, s.third.z}, s.main, s.pitch);
  const double cg_x = place::behind_contact(s.cg, s.main, s.pitch);
  const double h = place::height_above_ground(s.cg, s.main, s.pitch);
  auto& share = collect.add("place.nose_share", place::third_wheel_share(third_x, 0, cg_x),
                            bands(0.05, 0.08, 0.15, 0.20, "texts: 8–15 % good, 5–20 % usable"));
  share.working = {{"x_m − x_cg", -cg_x, Kind::length}, {"wheelbase", -third_x, Kind::length}};
  auto& braking =
      collect.add("place.nose_share_braking", place::nose_share_braking(third_x, 0, cg_x, h, 0.4));
  braking.working = {{"h", h, Kind::length}, {"deceleration", 0.4, Kind::in_g}};
  const auto t = place::turnover({third_x, 0, s.track, cg_x, s.cg.y(), h});
  auto& turn = collect.add(
      "place.turnover", t.angle,
      at_most(smooth(d) ? radians(63) : radians(57),
              smooth(d) ? "texts: 63° on smooth ground" : "texts: 55–57° on rough ground or in crosswind"));
  turn.working = {{"track", s.track, Kind::length},
                  {"d", t.distance, Kind::length},
                  {"h", h, Kind::length},
                  {"tips at, square to the line", t.square_in_g, Kind::in_g},
                  {"straight sideways", t.sideways_in_g, Kind::in_g}};
}

void tailwheel(const Design& d, const LoadingState& l, Collector& collect) {
  const Standing s = standing(d, l);
  collect.about("", l.name);
  const auto f = place::tailwheel_figures({s.main, s.third, s.track}, s.cg);
  if (!f) {
    collect.unknown("place.axle_ahead", "wheels whose circles do not contain each other");
    return;
  }
  const bool gentle = !d.gear.brakes && smooth(d);
  auto& ahead = collect.add("place.axle_ahead", f->axle_ahead_angle,
                            gentle ? within(radians(12), radians(17), "weak brakes, smooth strip: 12–17°")
                                   : within(radians(16), radians(25), "classic texts: 16–25°"));
  ahead.working = {{"x_cg − x_m", place::behind_contact(s.cg, s.main, 0), Kind::length},
                   {"h", place::height_above_ground(s.cg, s.main, 0), Kind::length}};
  ahead.assumption = "level attitude, static springs";
  Limit three = bands(radians(8), radians(10), radians(15), radians(17), "classic texts: 10–15°");
  if (d.airframe.stall_wing_angle.known() && d.airframe.wing.incidence.known())
    three.source += fmt::format("; the wing stalls {:.1f}° nose-up",
                                degrees(d.airframe.stall_wing_angle - d.airframe.wing.incidence));
  collect.add("place.three_point", f->three_point_angle, three);
  auto& over = collect.add("place.nose_over_three_point", f->nose_over_three_point,
                           d.gear.brakes ? at_least(0.5, "wheel brakes on firm ground give about 0.5 g")
                                         : at_least(0.25, "no wheel brakes: half of 0.5 g"));
  over.working = {{"h, three-point", f->cg_height_three_point, Kind::length}};
  Limit level = at_least(0, "a warning below 0.3 g");
  level.hold_lower = 0.3;
  collect.add("place.nose_over_level", f->nose_over_level, level);
  auto& share = collect.add("place.tail_share", f->tail_share,
                            bands(0.05, 0.05, 0.15, 0.20, "classic texts: 5–15 %, to 20 % heavy"));
  share.working = {{"wheelbase, three-point", f->wheelbase, Kind::length}};
  collect.add("place.side_tip", f->tip_sideways, at_least(0.5, "more than 0.5 g is comfortable"));
}

void propellers(const Design& d, const LoadingState& l, Collector& collect) {
  for (const auto& p : d.airframe.propellers) {
    if (!p.hub.known() || !p.diameter.known() || !p.tilt.known()) {
      collect.about(p.name, l.name);
      collect.unknown("place.propeller_static", "hub, diameter and tilt of the propeller");
      continue;
    }
    const place::PropellerDisc disc{p.hub.vec(), p.diameter, p.tilt};
    struct Line {
      const char* id;
      GearState state;
    };
    for (const Line& line : {Line{"place.propeller_static", GearState::static_load},
                             Line{"place.propeller_bottomed", GearState::bottomed},
                             Line{"place.propeller_flat", GearState::flat}}) {
      collect.about(p.name, l.name, line.state);
      const auto main = wheel_in_state(d.gear.main, line.state, &l.rest->wheels[2]);
      // Level: a tailwheel aircraft with its tail up; a nosewheel aircraft as it stands, all legs alike.
      double pitch = 0;
      if (d.is_tricycle()) pitch = pitch_in_state(d, line.state, l);
      Limit limit = at_least(0, "some clearance must be left");
      if (line.state == GearState::static_load) {
        if (is_model(d)) {
          const double part = smooth(d) ? 0.10 : 0.15;
          limit = at_least(part * p.diameter, smooth(d) ? "models: 10 % of the diameter"
                                                        : "models on grass: 15 % of the diameter");
        } else {
          limit = d.is_tricycle() ? at_least(0.18, "certification practice: 180 mm (7 in), nosewheel")
                                  : at_least(0.23, "certification practice: 230 mm (9 in), tailwheel");
        }
      }
      auto& f = collect.add(line.id, place::propeller_clearance(disc, main, pitch), limit);
      f.working = {{"pitch", pitch, Kind::angle}};
      if (line.state == GearState::flat && !d.gear.main.wheel.flat_radius.known())
        f.remark = "needs axle height on a flat tyre";
    }
    if (d.is_tricycle()) {
      collect.about(p.name, l.name, GearState::flat);
      const auto main = wheel_in_state(d.gear.main, GearState::static_load, &l.rest->wheels[2]);
      const auto pitch =
          place::pitch_on(wheel_in_state(d.gear.third, GearState::flat, &l.rest->wheels[0]), main);
      auto& f = collect.add("place.propeller_nose_flat",
                            pitch ? place::propeller_clearance(disc, main, *pitch) : std::nan(""),
                            at_least(0, "some clearance must be left"));
      if (pitch) f.working = {{"pitch", *pitch, Kind::angle}};
    }
  }
}

void low_points(const Design& d, const LoadingState& l, Collector& collect) {
  for (const auto& p : d.airframe.low_points) {
    if (!p.at.known()) {
      collect.about(p.name, l.name);
      collect.unknown("place.low_point", "the place of this point");
      continue;
    }
    if (p.role == PointRole::wing_tip) {
      const double bank = is_model(d) ? radians(8) : radians(5);
      const auto main = wheel_in_state(d.gear.main, GearState::static_load, &l.rest->wheels[2]);
      const double height = place::height_above_ground(p.at.vec(), main, l.rest->pitch);
      collect.about(p.name, l.name);
      auto& f =
          collect.add("place.wing_tip",
                      height * std::cos(bank) - (std::abs(p.at.y) - d.gear.main.axle.y) * std::sin(bank),
                      at_least(0, "it must not touch"));
      f.working = {{"bank", bank, Kind::angle}, {"height at rest", height, Kind::length}};
      continue;
    }
    if (p.role == PointRole::tail) continue;  // its angle is judged by the tail strike
    const auto main = wheel_in_state(d.gear.main, GearState::flat, &l.rest->wheels[2]);
    const double pitch = pitch_in_state(d, GearState::flat, l);
    collect.about(p.name, l.name, GearState::flat);
    auto& f = collect.add("place.low_point", place::height_above_ground(p.at.vec(), main, pitch),
                          at_least(0, "it must not touch, even bottomed and flat"));
    const auto still = wheel_in_state(d.gear.main, GearState::static_load, &l.rest->wheels[2]);
    f.working = {{"static", place::height_above_ground(p.at.vec(), still, l.rest->pitch), Kind::length}};
  }
}

void wheel_size(const Design& d, const Assessment& a, Collector& collect) {
  collect.about("main wheel");
  double heaviest = 0;
  double load = 0;
  for (const auto& l : a.loadings)
    if (l.rest && l.mass.down.mass > heaviest) {
      heaviest = l.mass.down.mass;
      load = l.rest->wheels[2].load;
    }
  if (heaviest == 0) return;
  if (!is_model(d)) {
    const auto usual = place::typical_main_wheel(load);
    auto& f = collect.add("place.wheel_size", d.gear.main.wheel.diameter / usual.diameter);
    f.working = {{"usual diameter", usual.diameter, Kind::length},
                 {"usual width", usual.width, Kind::length}};
    return;
  }
  // Starting points by all-up mass, smooth field: between them diameter goes as a power of the mass.
  constexpr double masses[] = {1, 2.5, 5, 10, 20};
  constexpr double sizes[] = {0.050, 0.065, 0.080, 0.105, 0.135};
  int i = 0;
  while (i < 3 && heaviest > masses[i + 1]) ++i;
  double usual = sizes[i] * std::pow(heaviest / masses[i],
                                     std::log(sizes[i + 1] / sizes[i]) / std::log(masses[i + 1] / masses[i]));
  if (!smooth(d)) usual *= 1.25;
  auto& f = collect.add("place.wheel_size", d.gear.main.wheel.diameter / usual);
  f.working = {{"usual diameter", usual, Kind::length}};
}

}  // namespace

void assess_place(const Design& d, Assessment& a, Collector& collect) {
  const char* headline = d.is_tricycle() ? "place.tip_back" : "place.axle_ahead";
  for (const auto& l : a.loadings) {
    if (!l.flown) continue;
    if (!l.rest) {
      collect.about("", l.name);
      collect.unknown(headline, "the aircraft at rest on its wheels: " + l.no_rest);
      continue;
    }
    if (d.is_tricycle())
      tricycle(d, l, collect);
    else
      tailwheel(d, l, collect);
    propellers(d, l, collect);
    low_points(d, l, collect);
  }
  wheel_size(d, a, collect);
}

}  // namespace kranich
