// SPDX-License-Identifier: GPL-3.0-or-later
//! Stance: the findings that follow from the rest on springs.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/assess/assess.h"
#include "core/assess/collector.h"
#include "core/assess/loading_state.h"
#include "core/assess/place_rules.h"
#include "core/assess/standing.h"
#include "core/assess/table_sheet.h"
#include "core/model/moves.h"
#include "core/place/tandem.h"
#include "core/place/tipping.h"

namespace kranich {

namespace {

//! The least mass at a place with which the aircraft stays on its wheels, legs and tyres giving as they do;
//! nothing where not even its own mass there does it.
std::optional<double> ballast_that_keeps(const Design& d, const Assessment& a, const LoadingState& l,
                                         double station) {
  const double mass = l.mass.down.mass;
  const Vec3& cg = l.mass.down.at;
  const size_t third = wheel_of(d, d.gear.third().id);
  const auto stands = [&](double ballast) {
    const Vec3 with = (mass * cg + ballast * Vec3(station, 0, cg.z())) / (mass + ballast);
    const auto rest = stance::solve(mass + ballast, with, *a.wheels);
    const auto* r = std::get_if<stance::Rest>(&rest);
    return r && r->wheels[third].touches;
  };
  double fails = 0;
  double keeps = 0.001 * mass;
  while (!stands(keeps)) {
    fails = keeps;
    keeps *= 2;
    if (keeps > 1.1 * mass) return std::nullopt;
  }
  while (keeps - fails > 1e-4 * mass) {
    const double middle = (fails + keeps) / 2;
    (stands(middle) ? keeps : fails) = middle;
  }
  return keeps;
}

//! What the aircraft would need to come down on its wheels.
void on_its_tail(const Design& d, const Assessment& a, const LoadingState& l, Collector& collect) {
  const Standing s = standing_in(d, &*a.wheels, l, GearState::extended);
  std::optional<place::OnItsTail> sits;
  const double ballast_x = d.stance.ballast_x.known() ? d.stance.ballast_x.si : d.gear.third().axle.x.si;
  const Text where = d.stance.ballast_x.known() ? "hung where you said" : "hung over the nose axle";
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
  const auto giving = ballast_that_keeps(d, a, l, ballast_x);
  if (!giving) {
    collect.unknown("stance.ballast_keeps",
                    say("a place for the ballast further ahead: {} there do not keep it down",
                        Amount{l.mass.down.mass, Kind::mass}));
    return;
  }
  auto& keeps = collect.add("stance.ballast_keeps", *giving);
  keeps.working = {{"ballast at station", ballast_x, Kind::length},
                   {"sits on its tail at a pitch of", sits->pitch, Kind::angle},
                   {"load on the tail", sits->tail_load, Kind::force},
                   {"gap under the nose wheel", sits->nose_gap, Kind::length},
                   {"on legs that do not give", sits->keeps_down, Kind::mass}};
  keeps.remark = where;
  auto& brings = collect.add("stance.ballast_brings", std::max(sits->brings_down, *giving));
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
  const auto lines = lines_of(d.gear, LegRole::main);
  for (const auto& line : lines) {
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
    collect.about(lines.size() > 1 ? about_leg(d, d.gear.legs[line[0]]) : Subject(), loading);
    auto& track = collect.add("stance.track", at_rest.width());
    track.working = {{"extended", extended.width(), Kind::length}};
  }
  const bool one_line = lines.size() == 1;
  for (size_t i = placed.size(); i-- > 0;) {
    const Leg& leg = d.gear.legs[placed[i].row];
    if (leg.role != LegRole::main) continue;
    const bool pair = leg.stands == LegStands::both_sides;
    if (pair && placed[i].port && !leans) continue;  // the starboard one speaks for both
    const auto& w = (*a.wheels)[i];
    const auto setting = stance::wheel_setting(w, rest.wheels[i].coordinate,
                                               w.radius - rest.wheels[i].tyre_closure, placed[i].hand());
    const Subject side = pair && !leans ? Subject() : Subject(w.leg.axle.y() < 0 ? "port" : "starboard");
    collect.about(one_line        ? side
                  : pair && leans ? about_leg_on(d, leg, placed[i].port)
                                  : about_leg(d, leg),
                  loading);
    collect.add("stance.camber", setting.camber);
    collect.add("stance.toe", setting.toe);
  }
}

//! What each leg carries; of nose and tail legs held to standing at all, of outriggers to hardly carrying.
void leg_loads(const Design& d, const stance::Rest& rest, Collector& collect) {
  const auto placed = placed_legs(d.gear);
  const Leg* third = d.gear.has_third() ? &d.gear.third() : nullptr;
  std::vector<Working> loads;
  for (size_t i = 0; i < placed.size(); ++i) {
    const Leg& leg = d.gear.legs[placed[i].row];
    if (&leg == third) continue;
    Text word = d.stem_word(leg);
    if (leg.stands == LegStands::both_sides)
      word = placed[i].port ? say("port {}", std::move(word)) : say("starboard {}", std::move(word));
    loads.push_back({word, rest.wheels[i].load, Kind::force});
  }
  if (!third) return;  // two lines of mains have their share in Place
  auto& f = collect.add("stance.third_load", rest.wheels[wheel_of(d, third->id)].load,
                        at_least(0, "it must stand on all its wheels"));
  f.working = std::move(loads);
}

//! The blow on an outrigger of an aircraft that falls on to it, balanced upright and let go, N; NaN where it
//! stands by itself or the span that its inertia follows from is not known.
double toppling(const Design& d, const stance::WheelOnLeg& w, const stance::Held& upright, double mass,
                bool stands, Collector& collect) {
  if (stands || !d.airframe.wing.span.known()) return std::numeric_limits<double>::quiet_NaN();
  const double radius = 0.12 * d.airframe.wing.span;
  const double tyre = w.tyre.rate * w.tyres();
  const double leg = w.leg.most > 0 ? w.leg.wheel_rate(0) : std::numeric_limits<double>::infinity();
  const double rate = 1 / (1 / leg + 1 / tyre);
  const double gap = std::max(
      0.0, upright.heave + place::lowest_height({w.leg.axle, w.radius}, up_direction(upright.pitch, 0)));
  const auto t =
      place::topple(mass, upright.cg_height, mass * radius * radius, gap, std::abs(w.leg.axle.y()), rate);
  if (!t) return std::numeric_limits<double>::quiet_NaN();
  auto& f = collect.add("stance.topple", t->greatest_load);
  f.working = {{"touches at a roll of", t->roll_at_touch, Kind::angle},
               {"rolls on to", t->greatest_roll, Kind::angle},
               {"at rest on it", t->resting_load, Kind::force},
               {"outrigger's rate", rate, Kind::stiffness},
               {"radius of gyration", radius, Kind::length}};
  f.assumption = "single thin wheels, no damping, the mains' own roll stiffness left out";
  return t->greatest_load;
}

//! Whether it stands on its own wheels sideways, and what its outriggers have to do.
void sideways(const Design& d, Assessment& a, const LoadingState& l, Collector& collect) {
  const bool outriggers = d.gear.has(LegRole::outrigger);
  if (!outriggers && !d.on_two_lines()) return;
  const auto placed = placed_legs(d.gear);
  std::vector<stance::WheelOnLeg> bearing;
  for (size_t i = 0; i < placed.size(); ++i)
    if (d.gear.legs[placed[i].row].role != LegRole::outrigger) bearing.push_back((*a.wheels)[i]);
  const double mass = l.mass.down.mass;
  const double weight = mass * standard_gravity;
  const auto upright = stance::held_upright(mass, l.mass.down.at, bearing);
  collect.about("", l.name);
  if (!upright) {
    collect.unknown("stance.upright", "mains that carry the aircraft");
    return;
  }
  double closures = 0;
  for (const auto& w : upright->wheels) closures += w.load * w.tyre_closure;
  const double high = upright->cg_height + closures / weight;
  const double ratio = 1 + upright->roll_stiffness / (weight * high);
  const bool stands = ratio >= 1.5;
  Limit limit;
  if (!outriggers) {
    limit = at_least(1.5, "below 1.5 it counts as falling over, and there is no outrigger");
    limit.hold_lower = 3;
  }
  auto& f = collect.add("stance.upright", ratio, limit);
  f.working = {{"net roll stiffness", upright->roll_stiffness, Kind::torsion_rate},
               {"h, with the tyres", high, Kind::length}};
  f.remark = ratio <= 1 ? "falls over without its outriggers"
             : stands   ? ""
                        : "counts as lying on its outriggers";
  if (!outriggers) return;
  if (!stands) {
    Limit lean = at_most(radians(5), "own: to 3° well, to 5° bearable");
    lean.hold_upper = radians(3);
    auto& leans = collect.add("stance.lean", std::abs(l.rest->roll), lean);
    leans.remark = l.rest->roll > 0 ? "to starboard" : "to port";
  }
  const Vec3 up = up_direction(upright->pitch, 0);
  for (size_t i = 0; i < placed.size(); ++i) {
    const Leg& leg = d.gear.legs[placed[i].row];
    if (leg.role != LegRole::outrigger) continue;
    const auto& w = (*a.wheels)[i];
    collect.about(
        leg.stands == LegStands::both_sides ? about_leg_on(d, leg, placed[i].port) : about_leg(d, leg),
        l.name);
    if (stands) {
      const double gap = upright->heave + place::lowest_height({w.leg.axle, w.radius}, up);
      collect.add("stance.outrigger_gap", gap, at_least(0, "it must not carry when it stands upright"));
    }
    Limit share = at_most(0.10, "outriggers must not carry");
    share.hold_upper = 0.05;
    collect.add("stance.outrigger_share", l.rest->wheels[i].load / weight, share);
    // What may come on it: towards its own side.
    const double towards = w.leg.axle.y() < 0 ? -1 : 1;
    struct Push {
      const char* name;
      stance::SideLoad load;
    };
    std::vector<Push> pushes{{"on a cross slope of 2 %", {}}, {"turning at 0.2 g", {}}};
    pushes[0].load.slope = towards * std::atan(0.02);
    pushes[1].load.acceleration = towards * 0.2;
    const Aerodynamics& air = d.airframe.aerodynamics;
    if (air.crosswind_wanted.known() && air.side_area.known() && air.side_z.known()) {
      Push wind{"in the wind from the side", {}};
      wind.load.wind = towards * 0.5 * air.density * air.crosswind_wanted * air.crosswind_wanted *
                       air.side_area * air.side_coefficient;
      wind.load.wind_at = Vec3(l.mass.down.at.x(), 0, air.side_z);
      pushes.push_back(wind);
    }
    double greatest = l.rest->wheels[i].load;
    std::vector<Working> working{{"standing", greatest, Kind::force}};
    Text falls;
    for (const auto& p : pushes) {
      const auto rest = stance::solve_leaning(mass, l.mass.down.at, *a.wheels, p.load);
      const auto* r = std::get_if<stance::Rest>(&rest);
      if (!r) {
        falls = p.name;
        continue;
      }
      working.push_back({p.name, r->wheels[i].load, Kind::force});
      greatest = std::max(greatest, r->wheels[i].load);
    }
    auto& load = falls.empty() ? collect.add("stance.outrigger_load", greatest)
                               : collect.fails("stance.outrigger_load", at_least(0, "it must be caught"),
                                               say("it goes over on it {}", falls));
    load.working = std::move(working);
    const double blow = toppling(d, w, *upright, mass, stands, collect);
    if (std::isfinite(blow)) greatest = std::max(greatest, blow);
    auto& most = a.outrigger_loads[leg.id];
    most = std::max(most, greatest);
  }
}

void table_readings(const Design& d, const Assessment& a, Collector& collect) {
  for (const auto& line : table_sheet(d, a)) {
    if (!line.is_read()) continue;
    collect.about(line.what, line.loading);
    const double allowed = line.allowed(d.is_model());
    if (line.is_angle) {
      auto& f = collect.add("stance.table_angle", line.off(),
                            within(-allowed, allowed, "what an incidence meter shows"));
      f.working = {{"computed", line.computed_starboard, Kind::angle},
                   {"read", line.read_starboard, Kind::angle},
                   {"the table's own slope", line.slope, Kind::angle}};
      if (!line.build_state.empty()) f.remark = say("read as: {}", line.build_state);
      continue;
    }
    auto& f = collect.add("stance.table", line.off(), within(-allowed, allowed, "what a ruler shows"));
    f.working = {{"computed", line.computed_starboard, Kind::length},
                 {"read", line.read_starboard, Kind::length}};
    if (std::isfinite(line.read_port)) {
      f.working.push_back({"port computed", line.computed_port, Kind::length});
      f.working.push_back({"port read", line.read_port, Kind::length});
    }
    if (!line.build_state.empty()) f.remark = say("read as: {}", line.build_state);
  }
}

//! How a leg leans when it is down and loaded, seen from the side: its own line, and the attitude it stands
//! in.
void leans(const Design& d, const Assessment& a, Collector& collect) {
  if (!a.wheels) return;
  for (const Leg& leg : d.gear.legs) {
    const Heaviest h = heaviest_on(d, a, leg);
    if (!h.loading || !h.loading->rest) continue;
    const auto& wheel = (*a.wheels)[h.wheel];
    const Vec3 way = wheel.leg.at(h.loading->rest->wheels[h.wheel].coordinate).axle - leg.held_at();
    if (!way.allFinite()) continue;
    const double own = std::atan2(way.x(), -way.z());
    const double lean = own - h.loading->rest->pitch;
    collect.about(about_leg(d, leg), h.loading->name);
    const Limit limit = leg.lean.known() ? within(leg.lean - radians(1), leg.lean + radians(1),
                                                  "own: one degree is seen from the side")
                                         : Limit{};
    auto& f = collect.add("stance.leg_lean", lean, limit);
    f.working = {{"of the leg to the level reference", own, Kind::angle},
                 {"pitch at rest, nose up", h.loading->rest->pitch, Kind::angle}};
    if (leg.lean.known() && std::abs(lean - leg.lean) > radians(1))
      f.remark = say("a wedge of {} under its mount", Amount{std::abs(lean - leg.lean), Kind::angle});
  }
}

void two_rests(const Design& d, const Assessment& a, Collector& collect) {
  for (const Leg& leg : d.gear.legs) {
    if (!leg.rest_pressed.known() && !leg.rest_lifted.known()) continue;
    const auto told = rest_friction(d, a, leg);
    collect.about(about_leg(d, leg), told ? told->loading : "");
    if (!told) {
      collect.unknown("stance.rest_friction", "both heights at rest, and the aircraft at rest on its wheels");
      continue;
    }
    auto& f = collect.add(
        "stance.rest_friction", told->friction / told->load,
        bands(0, 0, 0.10, 0.25, "own: beyond a quarter of its load a leg sticks more than it springs"));
    f.working = {{"heights apart", told->apart, Kind::length},
                 {"wheel rate there", told->rate, Kind::stiffness},
                 {"friction", told->friction, Kind::force},
                 {"load", told->load, Kind::force}};
    if (leg.spring.friction.known())
      f.working.push_back({"friction as given", leg.spring.friction, Kind::force});
    f.remark = told->apart < 0 ? Text("it cannot rest higher after pressing down: heights mixed up?")
                               : Text("taken for the heaviest loading: read it in that");
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

//! As it stands, against the original marked on the picture behind the side view.
void against_original(const Design& d, const Assessment& a, const LoadingState& l, Collector& collect) {
  const Original& o = d.original;
  if (o == Original() || !l.rest || !a.wheels || !d.gear.has(LegRole::main)) return;
  const stance::Rest& rest = *l.rest;
  const Vec3 up = up_direction(rest.pitch, rest.roll);
  const Vec3 aft = Vec3(up.z(), 0, -up.x()).normalized();
  const auto axle_of = [&](const Leg& leg) {
    const size_t i = wheel_of(d, leg.id);
    return axle_in_state(leg, &(*a.wheels)[i], GearState::static_load, &rest.wheels[i]);
  };
  const auto height = [&](const Vec3& p) { return rest.heave + up.dot(p); };
  std::optional<double> propeller;
  for (const auto& p : d.airframe.propellers)
    if (p.hub.known() && !propeller) propeller = height(p.hub.vec());
  const Leg& main = d.gear.main();
  const double main_along = aft.dot(axle_of(main));
  struct Marked {
    const Leg* leg;
    const Given &x, &z, &diameter;
  };
  std::vector<Marked> marked{{&main, o.main_x, o.main_z, o.main_diameter}};
  if (const Leg& third = d.gear.third(); third.id != main.id)
    marked.push_back({&third, o.third_x, o.third_z, o.third_diameter});
  for (const Marked& m : marked) {
    collect.about(about_leg(d, *m.leg), l.name);
    const Vec3 axle = axle_of(*m.leg);
    if (m.diameter.known() && m.leg->wheel.diameter.known())
      collect.add("stance.original_wheel", m.leg->wheel.diameter - m.diameter).working = {
          {"the original's", m.diameter, Kind::length}};
    if (m.x.known() && main.axle.x.known())
      collect.add("stance.original_axle", aft.dot(axle) - main_along - (m.x - main.axle.x)).working = {
          {"the original's station", m.x, Kind::length}};
    if (!m.z.known() || !o.propeller_z.known()) continue;
    if (!propeller) {
      collect.unknown("stance.original_strut", "the propeller's hub");
      continue;
    }
    const double stands = *propeller - height(axle);
    collect.add("stance.original_strut", stands - (o.propeller_z - m.z)).working = {
        {"from the propeller's axis to the axle", stands, Kind::length},
        {"the original's", o.propeller_z - m.z, Kind::length}};
  }
  collect.about("", l.name);
  if (o.propeller_z.known() && propeller)
    collect.add("stance.original_height", *propeller - o.propeller_z).working = {
        {"stands at", *propeller, Kind::length}, {"the original's", o.propeller_z, Kind::length}};
}

}  // namespace

void assess_stance(const Design& d, Assessment& a, Collector& collect, const Asked&) {
  sides(d, collect);
  table_readings(d, a, collect);
  two_rests(d, a, collect);
  leans(d, a, collect);
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
      // What nobody has said is still held to what every nose-wheel aircraft needs.
      if (!target.lower && !target.upper && d.is_tricycle() && d.flies_on_wings()) {
        target =
            at_least(0, "practice: level to 2° nose-up on a nose wheel; nose-down pins it to the ground");
        target.hold_lower = radians(0.5);
      }
      if (d.airframe.wing.incidence.known()) {
        auto& f = collect.add("stance.wing_angle", rest.pitch + d.airframe.wing.incidence, target);
        f.working = {{"pitch", rest.pitch, Kind::angle},
                     {"incidence", d.airframe.wing.incidence, Kind::angle}};
      } else {
        collect.unknown("stance.wing_angle",
                        entry("/airframe/wing/incidence_deg", "the wing's incidence to the level reference"));
      }
    }
    if (l.name == d.stance.target_loading || (d.stance.target_loading.empty() && &l == &a.loadings.front())) {
      against_original(d, a, l, collect);
      collect.about("", l.name);
    }
    collect.add("stance.pitch", rest.pitch);
    collect.add("stance.roll", rest.roll);
    leg_loads(d, rest, collect);
    const Vec3 up = up_direction(rest.pitch, rest.roll);
    collect.add("stance.cg_height", rest.heave + up.dot(l.mass.down.at));
    if (l.flown) sideways(d, a, l, collect);
    if (l.flown) wheel_settings(d, a, rest, collect, l.name);
  }
}

}  // namespace kranich
