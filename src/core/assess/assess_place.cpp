// SPDX-License-Identifier: GPL-3.0-or-later
//! Place: what each way of standing comes to. Wheels, tyres, keep-outs and scale stand in assess_wheels.cpp.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "core/assess/assess.h"
#include "core/assess/collector.h"
#include "core/assess/loading_state.h"
#include "core/assess/place_rules.h"
#include "core/doors/door.h"
#include "core/model/lacking.h"
#include "core/motion/retract.h"
#include "core/place/ground.h"

namespace kranich {
namespace {

using place::Rotation;

//! Of the two angles that the attitude at lift-off follows from, those that are not known.
Text lift_off_angles(const Design& d) {
  return Lacking("/airframe/")
      .number(d.airframe.lift_off_wing_angle, "lift_off_wing_angle_deg", "the wing's angle at lift-off")
      .number(d.airframe.wing.incidence, "wing/incidence_deg", "the wing's incidence")
      .text();
}

void tail_strikes(const Design& d, const Assessment& a, const PlaceRules& r, const LoadingState& l,
                  const PlaceFigures& still, Collector& collect) {
  const std::string source = "wing angle at lift-off less incidence, and 1° in hand";
  const auto file = [&](const char* id, const std::optional<place::TailStrike>& t) {
    if (!t) {
      collect.unknown(id, "a tail point behind the main wheels");
      return;
    }
    auto& f =
        collect.add(id, t->round_wheels, r.attitude_needed ? at_least(*r.attitude_needed, source) : Limit{});
    f.working = {{"at a fixed contact", t->at_contact, Kind::angle}};
    const auto point = static_cast<size_t>(r.tail_point_index[static_cast<size_t>(t->point)]);
    f.remark = say("{} touches first", d.airframe.low_points[point].name);
    if (!r.attitude_needed) f.remark.also(say("no limit without {}", lift_off_angles(d)));
  };
  collect.about("", l.name);
  file("place.tail_strike_static", still.tail);
  collect.about("", l.name, GearState::extended);
  const Standing up = standing_in(d, a.wheels ? &*a.wheels : nullptr, l, GearState::extended);
  file("place.tail_strike_extended", place_figures(r, up, still.mass).tail);
}

void rotation(const PlaceRules& r, const PlaceFigures& f, const Standing& s, Collector& collect) {
  if (!f.rotation) {
    collect.unknown("place.rotation", r.run_missing);
    return;
  }
  const Rotation& rot = *f.rotation;
  static const std::map<Rotation::Verdict, const char*> never{
      {Rotation::Verdict::never,
       "it never rotates: the tail's moment does not grow beyond what holds the nose down"},
      {Rotation::Verdict::not_moving_on, "it never rotates: it does not reach the speed at which it could"},
      {Rotation::Verdict::flies_off_first, "it never rotates: it flies off its mains before"}};
  if (const auto why = never.find(rot.verdict); why != never.end()) {
    auto& x = collect.fails("place.rotation", r.rotation, why->second);
    x.working = {{"nose-up moment missing at 1.05 V_s", rot.missing_moment, Kind::moment},
                 {"stall speed", rot.stall_speed, Kind::speed}};
  } else {
    auto& x = collect.add("place.rotation", rot.ratio, r.rotation);
    x.working = {{"V_rot", rot.speed, Kind::speed},
                 {"V_s", rot.stall_speed, Kind::speed},
                 {"load left on the mains", rot.main_load, Kind::force},
                 {"moment to spare at 1.05 V_s", -rot.missing_moment, Kind::moment}};
    if (rot.verdict == Rotation::Verdict::at_standstill)
      x.remark = "full thrust lifts the nose at standstill";
    if (r.run_estimated) x.remark.also("estimated: coefficients by default");
    x.assumption = "thrust at that speed, level attitude, static heights, no ground effect";
    if (r.turf_taken) x.assumption.also("the field is not said: the rolling friction of turf is taken");
  }
  if (f.furthest_aft) {
    auto& x = collect.add("place.furthest_aft", *f.furthest_aft - s.main.x);
    x.working = {{"furthest-aft main contact", *f.furthest_aft, Kind::length}};
  }
}

//! Two lines of mains that the elevator does not part from the ground: it flies off as it stands.
void liftoff(const PlaceRules& r, const PlaceFigures& f, Collector& collect) {
  const auto& l = *f.liftoff;
  if (!l.lifts_off) {
    auto& x =
        collect.fails("place.liftoff", r.liftoff,
                      l.lift_coefficient > 0 ? "it never flies off: thrust is used up before"
                                             : "it never flies off: in this attitude the wing does not lift");
    x.working = {{"pitch, legs extended", l.pitch, Kind::angle}, {"C_L", l.lift_coefficient, Kind::factor}};
    return;
  }
  auto& x = collect.add("place.liftoff", l.ratio, r.liftoff);
  x.working = {{"V_lo", l.speed, Kind::speed},
               {"V_s", l.stall_speed, Kind::speed},
               {"pitch, legs extended", l.pitch, Kind::angle},
               {"C_L", l.lift_coefficient, Kind::factor},
               {"run", l.run, Kind::distance},
               {"time", l.time, Kind::time}};
  if (std::isfinite(f.rotation->speed))
    x.working.push_back({"full elevator would lift the front at", f.rotation->speed, Kind::speed});
  if (r.run_estimated) x.remark = "estimated: coefficients by default";
  x.assumption = "all wheels kept down till then, no ground effect";
}

void tricycle(const Design& d, const Assessment& a, const PlaceRules& r, const LoadingState& l,
              const Standing& s, const PlaceFigures& f, Collector& collect) {
  if (r.wings) {
    auto& tip = collect.add("place.tip_back", f.tip.at_contact, tip_back_limit(r, f.tail));
    tip.working = {{"x_m − x_cg", f.main_behind, Kind::length},
                   {"h", f.cg_height_level, Kind::length},
                   {"goes over on round wheels at", f.tip.round_wheels, Kind::angle}};
    tip.assumption = "level attitude, static springs, contact fixed in the aircraft";
    tail_strikes(d, a, r, l, f, collect);
    collect.about("", l.name);
    if (f.liftoff && !f.rotates_first)
      liftoff(r, f, collect);
    else
      rotation(r, f, s, collect);
  }
  auto& share = collect.add(r.share_measure(), f.third_share, r.nose_share);
  share.working = {{"x_m − x_cg", -f.cg_behind_main, Kind::length}, {"wheelbase", f.wheelbase, Kind::length}};
  if (std::isnan(share.value))
    share.remark = "needs a second line of legs, apart from the (rear) mains, and both on one ground";
  if (r.layout == Layout::four_mains) collect.add("place.mains_share", f.mains_share, r.mains_share);
  if (r.two_lines && d.gear.brakes) {
    share.working.push_back({"braking at 0.4 g", f.third_share_braking, Kind::share});
    const double rear_alone = place::rear_brakes_alone(-f.wheelbase, 0, f.cg_behind_main, f.cg_height, 0.6);
    share.working.push_back({"rear brakes alone, at most", rear_alone, Kind::in_g});
    if (rear_alone < 0.25) share.remark = "brakes on the rear mains alone hardly stop it";
  } else if (d.gear.brakes) {
    auto& braking = collect.add("place.nose_share_braking", f.third_share_braking);
    if (std::isnan(braking.value)) braking.remark = "needs the share at rest";
    braking.working = {{"h", f.cg_height, Kind::length}, {"deceleration", r.braking, Kind::in_g}};
  }
  auto& turn = collect.add("place.turnover", f.turnover.angle, r.turnover);
  if (std::isnan(turn.value)) turn.remark = "needs a polygon of wheels on the ground, the CG above it";
  turn.working = {{"track", 2 * s.half_track, Kind::length},
                  {"d", f.turnover.distance, Kind::length},
                  {"h", f.cg_height, Kind::length},
                  {"tips at, square to the line", f.turnover.square_in_g, Kind::in_g},
                  {"straight sideways", f.turnover.sideways_in_g, Kind::in_g}};
}

void tailwheel(const Design& d, const PlaceRules& r, const Standing& s, const PlaceFigures& f,
               Collector& collect) {
  if (!f.tailwheel) {
    collect.unknown("place.axle_ahead", "wheels whose circles do not contain each other");
    return;
  }
  const auto& t = *f.tailwheel;
  auto& ahead = collect.add("place.axle_ahead", t.axle_ahead_angle, r.axle_ahead);
  ahead.working = {{"x_cg − x_m", -f.main_behind, Kind::length}, {"h", f.cg_height_level, Kind::length}};
  ahead.assumption = "level attitude, static springs";
  collect.add("place.three_point", t.three_point_angle, r.three_point);
  auto& over = collect.add("place.nose_over_three_point", t.nose_over_three_point, r.nose_over_three_point);
  over.working = {{"h, three-point", t.cg_height_three_point, Kind::length}};
  collect.add("place.nose_over_level", t.nose_over_level, r.nose_over_level);
  auto& share = collect.add("place.tail_share", t.tail_share, r.tail_share);
  share.working = {{"wheelbase, three-point", t.wheelbase, Kind::length},
                   {"axle-ahead angle it is tied to", t.axle_ahead_angle, Kind::angle}};
  auto& side = collect.add("place.side_tip", t.tip_sideways, r.side_tip);
  side.working = {{"square to the line", t.tip_square, Kind::in_g}};
  if (const auto panels = weigh::wing_panels(d.airframe.wing); !panels.empty()) {
    const Surface& w = d.airframe.wing;
    const double y = d.gear.main().axle.y;
    const double edge = w.root_leading_edge_x + std::min(y, w.span / 2) * std::tan(w.sweep);
    const auto chord = weigh::mean_aerodynamic_chord(w.root_leading_edge_x, panels);
    const double cg = chord.percent(s.cg.x()) / 100;
    auto& rule = collect.add("place.leading_edge", s.main.x - edge);
    rule.working = {{"leading edge there", edge, Kind::length},
                    {"CG on the mean chord", cg, Kind::share},
                    {"axle-ahead angle", t.axle_ahead_angle, Kind::angle}};
    const bool usual = cg >= 0.25 && cg <= 0.30;
    const bool near_edge = std::abs(s.main.x - edge) < 0.08 * chord.mean_chord;
    const bool angle_holds =
        t.axle_ahead_angle >= *r.axle_ahead.lower && t.axle_ahead_angle <= *r.axle_ahead.upper;
    rule.remark = near_edge == angle_holds ? "rule and angle agree"
                  : usual                  ? "rule and angle part: the legs are not of the usual length"
                                           : "rule and angle part: the CG does not sit at 25–30 % chord";
  }
}

//! Says why a height above the ground has no number in a state of the gear.
void tell_no_ground(const Design& d, Finding& f) {
  if (!std::isnan(f.value)) return;
  if (f.state == GearState::flat)
    for (const auto& leg : d.gear.legs)
      if (leg.role != LegRole::outrigger && !leg.wheel.flat_radius.known()) {
        f.remark = say("needs {}", entry(leg_root(leg.id) + "wheel/flat_radius_m",
                                         say("the axle's height on a flat tyre: {}", d.leg_word(leg))));
        return;
      }
  f.remark = "needs wheels that a level ground touches in this state: one lies inside the other's circle";
}

void propellers(const Design& d, const Assessment& a, const PlaceRules& r, const LoadingState& l,
                Collector& collect) {
  const auto* wheels = a.wheels ? &*a.wheels : nullptr;
  for (const auto& p : d.airframe.propellers) {
    if (!p.hub.known() || !p.diameter.known() || !p.tilt.known()) {
      collect.about(about_one(d.airframe.propellers, p), l.name);
      const std::string row =
          "/airframe/propellers/" + std::to_string(&p - d.airframe.propellers.data()) + "/";
      collect.unknown("place.propeller_static",
                      Lacking(row)
                          .place(p.hub, "hub", "the hub of the propeller")
                          .number(p.diameter, "diameter_m", "its diameter")
                          .number(p.tilt, "axis_tilt_nose_down_deg", "the tilt of its axis")
                          .text());
      continue;
    }
    const place::PropellerDisc disc{p.hub.vec(), p.diameter, p.tilt};
    struct Line {
      const char* id;
      GearState state;
    };
    const Standing still = standing_in(d, wheels, l, GearState::static_load);
    for (const Line& line : {Line{"place.propeller_static", GearState::static_load},
                             Line{"place.propeller_bottomed", GearState::bottomed},
                             Line{"place.propeller_flat", GearState::flat}}) {
      collect.about(about_one(d.airframe.propellers, p), l.name, line.state);
      const Standing s = standing_in(d, wheels, l, line.state);
      // Level: a tailwheel aircraft with its tail up; a nosewheel aircraft as it stands, all legs alike.
      const double pitch = r.tricycle ? s.pitch : 0;
      auto& f = collect.add(line.id, place::propeller_clearance(disc, s.main, pitch),
                            line.state == GearState::static_load ? r.propeller_static(p.diameter) : r.left);
      f.working = {{"pitch", pitch, Kind::angle}};
      tell_no_ground(d, f);
    }
    if (r.tricycle) {
      collect.about(about_one(d.airframe.propellers, p), l.name, GearState::flat);
      const auto pitch = place::pitch_on(standing_in(d, wheels, l, GearState::flat).third, still.main);
      auto& f =
          collect.add("place.propeller_nose_flat",
                      pitch ? place::propeller_clearance(disc, still.main, *pitch) : std::nan(""), r.left);
      if (pitch) f.working = {{"pitch", *pitch, Kind::angle}};
      tell_no_ground(d, f);
    }
    if (p.hub.x > still.main.x && r.wings) {
      collect.about(about_one(d.airframe.propellers, p), l.name, GearState::extended);
      if (r.attitude_needed) {
        const Standing up = standing_in(d, wheels, l, GearState::extended);
        auto& f = collect.add("place.propeller_rotation",
                              place::propeller_clearance(disc, up.main, *r.attitude_needed), r.left);
        f.working = {{"pitch at lift-off, 1° in hand", *r.attitude_needed, Kind::angle}};
        tell_no_ground(d, f);
      } else {
        collect.unknown("place.propeller_rotation", lift_off_angles(d));
      }
    }
  }
}

//! Legs that go down together: each by itself, and both of a line.
struct Down {
  std::vector<size_t> wheels;  //!< of placed_legs
  Text words;
};
std::vector<Down> ways_down(const Design& d) {
  std::vector<Down> ways;
  const auto placed = placed_legs(d.gear);
  for (size_t i = 0; i < placed.size(); ++i) {
    const Leg& leg = d.gear.legs[placed[i].row];
    const bool pair = leg.stands == LegStands::both_sides;
    const Text word = d.leg_word(leg);
    ways.push_back({{i}, !pair ? word : placed[i].port ? say("port {}", word) : say("starboard {}", word)});
    if (pair && !placed[i].port) ways.push_back({{i - 1, i}, d.legs_word(leg)});
  }
  return ways;
}

//! Propeller tips and low points with one leg (or both of a line) at its stop on a flat tyre.
void one_down(const Design& d, const Assessment& a, const PlaceRules& r, const LoadingState& l,
              Collector& collect) {
  const Standing still = standing_in(d, &*a.wheels, l, GearState::static_load);
  const Standing flat = standing_in(d, &*a.wheels, l, GearState::flat);
  const auto placed = placed_legs(d.gear);
  struct Plane {
    std::optional<place::Ground> ground;
    Text words;
  };
  std::vector<Plane> planes;
  Lacking lacks;
  for (const auto& way : ways_down(d)) {
    std::vector<place::Disc> wheels;
    bool known = true;
    for (size_t i = 0; i < placed.size(); ++i) {
      const bool down = std::find(way.wheels.begin(), way.wheels.end(), i) != way.wheels.end();
      const StandingWheel& w = (down ? flat : still).wheels[i];
      const Leg& leg = d.gear.legs[placed[i].row];
      if (down && !std::isfinite(w.radius)) {
        known = false;
        if (way.wheels.size() == 1 && !placed[i].port)
          lacks.number(leg.wheel.flat_radius, leg_root(leg.id) + "wheel/flat_radius_m",
                       say("the axle's height on a flat tyre: {}", d.leg_word(leg)));
      }
      // Flat it stands on its rim, in the middle of the tread.
      wheels.push_back(
          {{w.x, std::isfinite(w.contact_y) ? w.contact_y : still.wheels[i].contact_y, w.z}, w.radius});
    }
    if (known) planes.push_back({place::ground_under(wheels, l.mass.down.at), way.words});
  }
  const auto file = [&](const Subject& about, const auto& height) {
    collect.about(about, l.name, GearState::flat);
    if (!lacks.nothing()) {
      collect.unknown("place.one_down", lacks.text());
      return;
    }
    double least = std::numeric_limits<double>::infinity();
    const Plane* worst = nullptr;
    for (const auto& p : planes) {
      if (!p.ground) continue;
      const double h = height(*p.ground);
      if (!(h < least)) continue;
      least = h;
      worst = &p;
    }
    if (!worst) {
      collect.unknown("place.one_down", "three wheels that the CG stands between, one of them down");
      return;
    }
    auto& f = collect.add("place.one_down", least, r.left);
    f.remark = say("{} down", worst->words);
    f.working = {{"pitch then", std::asin(-worst->ground->up.x()), Kind::angle},
                 {"roll then, starboard down", std::atan2(-worst->ground->up.y(), worst->ground->up.z()),
                  Kind::angle}};
  };
  for (const auto& p : d.airframe.propellers)
    if (p.hub.known() && p.diameter.known() && p.tilt.known())
      file(about_one(d.airframe.propellers, p), [&](const place::Ground& g) {
        return place::tip_height({p.hub.vec(), p.diameter, p.tilt}, g);
      });
  for (const auto& p : d.airframe.low_points)
    if (p.at.known() && !(p.role == PointRole::tail && d.flies_on_wings() && d.is_tricycle()))
      file(about_one(d.airframe.low_points, p), [&](const place::Ground& g) {
        // Stored to starboard: its twin on the other side counts as well.
        return std::min(g.height_of(p.at.vec()), g.height_of(mirrored(p.at.vec())));
      });
}

//! Doors that stay open when the gear is down: the free edge's ends, in each state.
void open_doors(const Design& d, const std::vector<stance::WheelOnLeg>* wheels, const LoadingState& l,
                Collector& collect) {
  for (const auto& door : d.doors) {
    const double opening = doors::opening_at(d, door, 0);
    if (!(opening > 0)) continue;  // closed again, or how far it opens is not known
    const auto corners = doors::panel_at(d, door, 0, opening);
    if (!corners) continue;
    collect.about(about_door(d, door.id), l.name, GearState::flat);
    const auto height = [&](GearState state) {
      const Standing s = standing_in(d, wheels, l, state);
      double least = place::height_above_ground(corners->front(), s.main, s.pitch);
      for (const Vec3& corner : *corners)  // where one is not known none is
        least = std::min(least, place::height_above_ground(corner, s.main, s.pitch));
      return least;
    };
    auto& f = collect.add("place.door_ground", height(GearState::flat),
                          at_least(0, "it must not touch, even bottomed and flat"));
    f.working = {{"extended", height(GearState::extended), Kind::length},
                 {"static", height(GearState::static_load), Kind::length},
                 {"bottomed", height(GearState::bottomed), Kind::length}};
    tell_no_ground(d, f);
  }
}

void low_points(const Design& d, const Assessment& a, const LoadingState& l, Collector& collect) {
  const auto* wheels = a.wheels ? &*a.wheels : nullptr;
  const Standing still = standing_in(d, wheels, l, GearState::static_load);
  for (const auto& p : d.airframe.low_points) {
    if (!p.at.known()) {
      collect.about(about_one(d.airframe.low_points, p), l.name);
      const std::string row =
          "/airframe/low_points/" + std::to_string(&p - d.airframe.low_points.data()) + "/";
      collect.unknown("place.low_point", Lacking(row).place(p.at, "at", "the place of this point").text());
      continue;
    }
    if (p.role == PointRole::wing_tip) {
      const double bank = d.is_model() || d.purpose.use == Use::training ? radians(8) : radians(5);
      const double height = place::height_above_ground(p.at.vec(), still.main, still.pitch);
      collect.about(about_one(d.airframe.low_points, p), l.name);
      auto& f =
          collect.add("place.wing_tip",
                      height * std::cos(bank) - (std::abs(p.at.y) - still.narrower_half) * std::sin(bank),
                      at_least(0, "it must not touch"));
      f.working = {{"bank", bank, Kind::angle}, {"height at rest", height, Kind::length}};
      tell_no_ground(d, f);
      continue;
    }
    if (p.role == PointRole::tail && d.flies_on_wings() && d.is_tricycle()) continue;  // judged by its angle
    const Standing flat = standing_in(d, wheels, l, GearState::flat);
    const Standing up = standing_in(d, wheels, l, GearState::extended);
    collect.about(about_one(d.airframe.low_points, p), l.name, GearState::flat);
    // One on a tail wheel is also lower ahead with its tail up, as it runs.
    const double down = place::height_above_ground(p.at.vec(), flat.main, flat.pitch);
    const double level = d.is_tricycle() ? down : place::height_above_ground(p.at.vec(), flat.main, 0);
    auto& f = collect.add("place.low_point", std::isnan(down) ? down : std::min(down, level),
                          at_least(0, "it must not touch, even bottomed and flat"));
    if (level < down) f.remark = "lowest with the tail up";
    f.working = {{"extended", place::height_above_ground(p.at.vec(), up.main, up.pitch), Kind::length},
                 {"static", place::height_above_ground(p.at.vec(), still.main, still.pitch), Kind::length}};
    tell_no_ground(d, f);
  }
}

}  // namespace

void assess_place(const Design& d, Assessment& a, Collector& collect, const Asked& asked) {
  const std::string_view only = asked.measure;
  const auto wanted = [&](std::initializer_list<std::string_view> ids) {
    return only.empty() ||
           std::any_of(ids.begin(), ids.end(), [&](std::string_view id) { return only.starts_with(id); });
  };
  // A cure asks for one measure at a time, and many times.
  const bool propeller = wanted({"place.propeller"});
  const bool low = wanted({"place.low_point", "place.wing_tip", "place.door_ground"});
  const bool down = wanted({"place.one_down"});
  const bool wheels = wanted({"place.wheel", "place.twin", "place.ground", "place.tyre", "place.fork",
                              "place.keep", "place.room", "place.access", "place.scale", "place.leg_ends",
                              "place.axle_stack", "place.reference", "place.former"});
  const bool figures = only.empty() || (!propeller && !low && !down && !wheels);
  const PlaceRules rules = place_rules(d);
  const char* headline = !rules.wings      ? "place.tipping"
                         : d.is_tricycle() ? "place.tip_back"
                                           : "place.axle_ahead";
  for (const auto& l : a.loadings) {
    if (!l.flown) continue;
    collect.about("", l.name);
    if (!l.rest) {
      collect.unknown(headline, say("the aircraft at rest on its wheels: {}", l.no_rest));
      continue;
    }
    if (!d.gear.has(LegRole::main)) {
      collect.unknown(headline, "a main leg: none of these legs is one");
      continue;
    }
    const Standing s = standing_in(d, &*a.wheels, l, GearState::static_load);
    if (propeller) propellers(d, a, rules, l, collect);
    if (low) {
      low_points(d, a, l, collect);
      open_doors(d, a.wheels ? &*a.wheels : nullptr, l, collect);
    }
    if (down) one_down(d, a, rules, l, collect);
    if (!figures) continue;
    collect.about("", l.name);
    const PlaceFigures f = place_figures(rules, s, l.mass.down.mass);
    if (d.is_tricycle())
      tricycle(d, a, rules, l, s, f, collect);
    else
      tailwheel(d, rules, s, f, collect);
    collect.about("", l.name);
    const Support support = support_of(s);
    auto& tip = collect.add("place.tipping", f.tipping_least, rules.wings ? Limit{} : rules.tipping);
    if (std::isnan(tip.value)) tip.remark = "needs three wheels that are not in one line";
    const auto edge = place::nearest_edge(support.polygon, support.cg);
    tip.working = {
        {"towards, from aft by starboard", std::atan2(edge.outward.y(), edge.outward.x()), Kind::angle},
        {"CG inside the edge", edge.distance, Kind::length},
        {"h", f.cg_height, Kind::length}};
    if (f.crosswind) {
      auto& wind = collect.add("place.crosswind", *f.crosswind, rules.crosswind);
      wind.working = {{"S·C_Y", rules.side_force, Kind::area}, {"d", f.turnover.distance, Kind::length}};
      if (std::isnan(wind.value))
        wind.remark =
            "needs a polygon of wheels round the CG, and a side area whose centre lies above the ground";
    }
  }
  if (wheels) assess_wheels(d, a, collect);
}

}  // namespace kranich
