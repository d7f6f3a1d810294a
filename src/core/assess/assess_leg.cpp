// SPDX-License-Identifier: GPL-3.0-or-later
//! Leg: load cases from the design's own loads, what every part is left with, jig and alignment.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/assess/assess.h"
#include "core/assess/collector.h"
#include "core/assess/landing_state.h"
#include "core/assess/loading_state.h"
#include "core/assess/parts.h"
#include "core/assess/place_rules.h"
#include "core/assess/standing.h"
#include "core/assess/strength_state.h"
#include "core/base/numerics.h"
#include "core/force/materials.h"
#include "core/leg/alignment.h"
#include "core/leg/geometry.h"
#include "core/model/lacking.h"

namespace kranich {
namespace {

constexpr double nan = std::numeric_limits<double>::quiet_NaN();

//! Nose-up attitude of the tail-down landing: where the tail meets the ground with the legs extended, or the
//! stall's where that comes first; of a tailwheel aircraft the one it stands in.
double tail_down_pitch(const Design& d, const Assessment& a, const LoadingState& l) {
  if (!d.is_tricycle()) return l.rest ? l.rest->pitch : nan;
  const Standing s = standing_in(d, a.wheels ? &*a.wheels : nullptr, l, GearState::extended);
  std::vector<place::HighPoint> points;
  for (const auto& p : d.airframe.low_points)
    if (p.role == PointRole::tail && p.at.known())
      points.push_back({p.at.x - s.main.x, p.at.z - s.main.z + s.main.radius});
  double pitch = nan;
  if (const auto strike = place::tail_strike(points, s.main.radius)) pitch = strike->round_wheels;
  if (d.airframe.stall_wing_angle.known() && d.airframe.wing.incidence.known())
    pitch = std::fmin(pitch, d.airframe.stall_wing_angle - d.airframe.wing.incidence);
  return pitch;
}

leg::CaseInput case_input(const Design& d, const Assessment& a, const Leg& of, const Heaviest& heaviest) {
  const bool main = of.role == LegRole::main;
  leg::CaseInput in{};
  in.model = d.is_model();
  in.main = main;
  in.tricycle = of.role == LegRole::nose;
  in.outrigger = of.role == LegRole::outrigger;
  if (const auto load = a.outrigger_loads.find(of.id); load != a.outrigger_loads.end())
    in.outrigger_load = load->second;
  in.rough_field = !d.smooth_field();
  in.brakes = d.gear.brakes;
  in.weight = heaviest.loading->mass.down.mass * standard_gravity;
  in.share = main ? mains_share(d, *heaviest.loading, heaviest.wheel) : heaviest.load;
  in.ground_factor = in.inertia_factor = nan;
  in.factors = d.load_factors;
  for (const auto& l : a.landings) {
    // A tail wheel is let down, not dropped: it takes the mains' load factor.
    if (l.leg != (of.carries() ? of.id : d.gear.main().id) || !l.drop) continue;
    // Over the share at rest: a leg that touches first is dropped with more than that.
    const double dropped =
        of.carries() && l.leg == of.id && in.share > 0 ? l.mass * standard_gravity / in.share : 1;
    in.ground_factor = l.drop->load_factor * dropped;
    in.inertia_factor = l.drop->load_factor + (d.landing.lift_ratio.known() ? d.landing.lift_ratio.si : 0);
  }
  in.tail_down_pitch = tail_down_pitch(d, a, *heaviest.loading);
  if (of.role == LegRole::nose) {
    const Standing s = standing_in(d, &*a.wheels, *heaviest.loading, GearState::static_load);
    const PlaceFigures figures = place_figures(place_rules(d), s, heaviest.loading->mass.down.mass, true);
    if (std::isfinite(figures.third_share_braking))
      in.share_braking = figures.third_share_braking * in.weight;
  }
  return in;
}

//! How far the axle has risen when a load case occurs: at the landing's peak, or where the spring carries
//! that load.
double rise_in(const leg::LoadCase& c, const Leg& leg, const stance::WheelOnLeg& wheel, const Assessment& a) {
  if (!(leg.travel > 0) || wheel.leg.path == force::Suspension::Path::bending) return 0;
  if (c.landing)
    for (const auto& l : a.landings)
      if (l.leg == leg.id && l.drop && std::isfinite(l.drop->stroke_at_peak))
        return std::clamp(l.drop->stroke_at_peak, 0.0, leg.travel.si);
  const auto vertical = [&](double q) {
    const auto at = wheel.leg.at(q);
    return at.force / at.axle_1.z();
  };
  if (vertical(0) >= c.force.z()) return 0;
  const double most = wheel.leg.most;
  const double q = vertical(most) <= c.force.z()
                       ? most
                       : find_root([&](double x) { return vertical(x) - c.force.z(); }, 0, most).value_or(0);
  return wheel.leg.at(q).axle.z() - wheel.leg.axle.z();
}

void parts(const Design& d, const LegStrength& s, const Leg& leg, Collector& collect) {
  const Limit limit = at_least(0, "limit load without set, ultimate load without a break");
  for (const auto& p : s.structure.parts) {
    collect.about(about_member(d, leg, p.part), "", GearState::extended);
    if (!p.missing.empty()) {
      collect.unknown("leg.margin", p.missing);
      continue;
    }
    // A case that cannot be worked out may be the one that breaks it: what holds in the others holds nothing.
    Text left_out;
    for (const auto& missing : s.cases.missing) left_out.also(missing);
    if (!std::isfinite(p.margin) || (p.margin >= 0 && !left_out.empty())) {
      collect.unknown("leg.margin", !s.structure.mechanism.empty() ? s.structure.mechanism
                                    : left_out.empty()             ? Text("a load that this part carries")
                                                                   : left_out);
      continue;
    }
    auto& f = collect.add("leg.margin", p.margin, limit);
    f.remark = say("{}, {}", p.decides, p.in_case.c_str()).also(p.remark);
    if (!left_out.empty()) f.remark.also(say("left out: {}", left_out));
    f.working = p.working;
    for (const auto& c : s.cases.cases)
      if (c.name == p.in_case) f.assumption = c.working;
    f.assumption.also(
        say("ultimate {} times limit; typical strengths: confirm with your supplier; arms as the "
            "leg is closed then",
            Figure{d.load_factors.ultimate, 2}));
    if (!d.is_model())
      f.assumption.also(d.load_factors.rule.empty() ? Text("the local rule decides: name it")
                                                    : say("decided by {}", d.load_factors.rule));
  }
}

//! From the tyre to the airframe, link by link. Each link's own strength is judged by itself; here an end in
//! foam or in glue alone is flagged, and what is not entered is named.
void load_path(const Design& d, const LegStrength& s, const Leg& leg, Collector& collect) {
  if (s.structure.parts.empty()) return;
  const leg::PartMargin* weakest = nullptr;
  std::vector<Working> links;
  Text open, soft;
  for (const auto& p : s.structure.parts) {
    if (!p.missing.empty() || !std::isfinite(p.margin)) {
      open.also(say("{} is not worked out", p.part));
      continue;
    }
    if (!weakest || p.margin < weakest->margin) weakest = &p;
    links.push_back({Text(p.part), p.margin, Kind::share});
  }
  if (!weakest) return;
  if (leg.joints.empty()) open.also("nothing entered that holds it to the airframe");
  for (const auto& j : leg.joints) {
    const Material* into = force::find_material(d.materials, j.into);
    const bool relieved = std::any_of(leg.joints.begin(), leg.joints.end(),
                                      [](const Joint& x) { return x.kind == JointKind::post; });
    if (into && into->stuff == Stuff::foam && !relieved)
      soft.also(say("{} ends in foam: a post on to the spar would carry it on", j.name));
    if (j.kind == JointKind::block && j.fasteners.empty())
      soft.also(say("{} ends in glue alone: screws or a cheek beside it", j.name));
  }
  collect.about(about_leg(d, leg), "", GearState::extended);
  Limit limit;
  if (!soft.empty()) {
    limit = at_least(0, "practice: no link of foam, thin skin or glue alone");
    limit.hold_lower = 100;  // however strong it works out to be
  }
  auto& f = collect.add("leg.path", weakest->margin, limit);
  f.remark = say("weakest: {}, {}", weakest->part, weakest->decides);
  for (const Text* t : {&soft, &open})
    if (!t->empty()) f.remark.also(*t);
  f.working = std::move(links);
}

//! How near screws sit to the edge of the plate or block that they hold: wood and laminates split there.
void edges(const Design& d, const Leg& leg, Collector& collect) {
  for (const auto& j : leg.joints) {
    if (j.kind != JointKind::plate && j.kind != JointKind::block) continue;
    if (!j.length.known() || !j.width.known()) continue;
    double least = std::numeric_limits<double>::infinity();
    double nearest = nan;
    for (const auto& f : j.fasteners) {
      if (!f.u.known() || !f.v.known() || !f.diameter.known()) continue;
      const double edge = std::min(j.length / 2 - std::abs(f.u), j.width / 2 - std::abs(f.v));
      if (edge / f.diameter >= least) continue;
      least = edge / f.diameter;
      nearest = edge;
    }
    if (!std::isfinite(least)) continue;
    collect.about(about_member(d, leg, j.name), "", GearState::extended);
    auto& f =
        collect.add("leg.edge_distance", least,
                    j.straps ? at_least(2, "practice: twice the diameter under a metal strap")
                             : at_least(3, "practice: three diameters where wood or a laminate may split"));
    f.working = {{"to the edge", nearest, Kind::length}};
    if (!j.straps) f.remark = "metal straps over the edge let two diameters do";
  }
}

//! What goes into what: together, and without rattling.
void fits(const Design& d, const Leg& leg, Collector& collect) {
  for (const auto& fit : leg.fits) {
    collect.about(about_member(d, leg, fit.name), "", GearState::extended);
    if (!fit.pin.known() || !fit.bore.known()) {
      collect.unknown("leg.fit", "both diameters");
      continue;
    }
    judge_fit(fit.pin, fit.bore, "pin", "bore", collect);
  }
}

void alignment(const Design& d, Collector& collect) {
  const Jig& j = d.jig;
  const double fine = radians(0.5);
  if (j.diagonal_starboard.known() || j.diagonal_port.known()) {
    collect.about("", "", GearState::extended);
    const auto jig = jig_of(d);
    if (const auto* missing = std::get_if<Text>(&jig)) {
      collect.unknown("leg.square", *missing);
    } else if (!j.diagonal_starboard.known() || !j.diagonal_port.known()) {
      collect.unknown("leg.square", "both diagonals");
    } else {
      const auto& fig = std::get<JigFigures>(jig);
      const double toe =
          leg::toe_from_diagonals(j.diagonal_starboard, j.diagonal_port, fig.jig.bar_length, fig.behind);
      auto& f = collect.add("leg.square", toe, within(-fine, fine, "practice: half a degree is felt"));
      f.working = {{"starboard diagonal", j.diagonal_starboard, Kind::length},
                   {"port diagonal", j.diagonal_port, Kind::length},
                   {"bar", fig.jig.bar_length, Kind::length},
                   {"point behind the bar", fig.behind, Kind::length}};
      const double end = std::abs(leg::end_of_bar_by(toe, fig.jig.bar_length));
      if (end > 0.0005)  // in shop words, turned about its middle
        f.remark =
            toe > 0 ? say("port end forward by {}, starboard end aft by as much", Amount{end, Kind::length})
                    : say("starboard end forward by {}, port end aft by as much", Amount{end, Kind::length});
      if (std::isnan(toe)) f.remark = "needs diagonals of one triangle: these two and the bar do not close";
    }
  }
  for (const bool starboard : {true, false}) {
    const BarReading& r = starboard ? j.bar_starboard : j.bar_port;
    if (!r.aft.known() && !r.up.known()) continue;
    collect.about(starboard ? "starboard" : "port", "", GearState::extended);
    if (!d.gear.main().axle.y.known()) {
      collect.unknown("leg.bar_toe", "the main axle's side offset");
      continue;
    }
    const auto s = leg::setting_from_bar(r.aft, r.up, d.gear.main().axle.y + d.port_leg().axle.y);
    const Leg& leg = starboard ? d.gear.main() : d.port_leg();
    const auto file = [&](const char* id, double read, const Given& wanted) {
      if (!std::isfinite(read)) return;
      const double aim = wanted.known() ? wanted.si : 0;
      auto& f = collect.add(id, read - aim,
                            within(-fine, fine, "half a degree either way of what the design asks for"));
      f.working = {{"read", read, Kind::angle},
                   {"wanted", aim, Kind::angle},
                   {"bar aft of the other axle", r.aft, Kind::length},
                   {"bar above the other axle", r.up, Kind::length}};
    };
    file("leg.bar_toe", s.toe, leg.toe);
    file("leg.bar_camber", s.camber, leg.camber);
  }
}

}  // namespace

std::variant<JigFigures, Text> jig_of(const Design& d) {
  const Leg& main = d.gear.main();
  const Jig& j = d.jig;
  Lacking lacks("/");
  lacks.place(main.axle, leg_root(main.id).substr(1) + "axle", "the place of the main axle")
      .number(main.axle_beyond_wheel, leg_root(main.id).substr(1) + "axle_beyond_wheel_m",
              "how far the axle's tip lies outboard of the wheel")
      .number(j.axle_out, "jig/axle_out_m", "how far the axle sticks out of the jig's bar on each side")
      .number(j.reference_z, "jig/reference_z_m", "the reference point's waterline")
      .number(j.reference_height, "jig/reference_height_m", "the reference point's height above the floor")
      .number(j.point_x, "jig/point_x_m", "the station of the point that the diagonals run to");
  if (!lacks.nothing()) return lacks.text();
  const double behind = j.point_x - main.axle.x;
  if (!(behind > 0)) return "a point for the diagonals that lies behind the main axle";
  const double overall = 2 * (main.axle.y + main.axle_beyond_wheel);
  const double bar = overall - 2 * j.axle_out;
  if (!(bar > 0)) return "an axle that sticks out of the bar by less than half the overall width";
  return JigFigures{leg::jig(main.axle.z, j.reference_z, j.reference_height, overall, j.axle_out, behind),
                    behind, overall};
}

void judge_fit(double pin, double bore, Text pin_word, Text bore_word, Collector& collect) {
  const double play = bore - pin;
  const double most = std::max(0.0003, 0.02 * pin);
  auto& f =
      collect.add("leg.fit", play, bands(0, 0, most / 2, most, "practice: it goes in and does not rattle"));
  f.working = {{std::move(pin_word), pin, Kind::length}, {std::move(bore_word), bore, Kind::length}};
  if (play < 0)
    f.remark = say("does not go together: drill or ream to {}", Amount{pin, Kind::length});
  else if (play > most)
    f.remark = say("wants a bush {} thick", Amount{play / 2, Kind::length});
}

void assess_leg(const Design& d, Assessment& a, Collector& collect, const Asked&) {
  alignment(d, collect);
  lay_up_time(d, collect);
  for (const Leg& l : d.gear.legs) {
    edges(d, l, collect);
    fits(d, l, collect);
    leg_parts(d, l, collect);
  }
  for (const Leg& l : d.gear.legs) {
    Heaviest heaviest = heaviest_on(d, a, l);
    if (!heaviest.loading && l.role == LegRole::outrigger)  // it may hang clear in all of them
      for (const auto& loading : a.loadings)
        if (loading.rest && loading.flown && !heaviest.loading) heaviest.loading = &loading;
    if (!heaviest.loading || !l.axle.known() || !l.wheel.diameter.known()) {
      collect.about(about_leg(d, l));
      collect.unknown("leg.margin", "the aircraft at rest on its wheels");
      continue;
    }
    LegStrength s{l.id, leg::load_cases(case_input(d, a, l, heaviest)), {}};
    for (auto& c : s.cases.cases) c.rise = rise_in(c, l, (*a.wheels)[wheel_of(d, l.id)], a);
    s.structure = leg::check_structure(d, l, s.cases.cases);
    parts(d, s, l, collect);
    load_path(d, s, l, collect);
    loaded_parts(d, l, s.cases.cases, s.structure, collect);
    a.strengths.push_back(std::move(s));
  }
}

}  // namespace kranich
