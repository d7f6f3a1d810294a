// SPDX-License-Identifier: GPL-3.0-or-later
//! Stance and Spring: the findings that follow from the rest on springs and from the design landing.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/assess/assess.h"
#include "core/assess/collector.h"
#include "core/assess/standing.h"
#include "core/assess/table_sheet.h"
#include "core/force/coil.h"
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

std::variant<double, std::string> sink_speed_by(School school, const Design& d, double mass) {
  const Landing& landing = d.landing;
  switch (school) {
    case School::rule: {
      const auto panels = weigh::wing_panels(d.airframe.wing);
      if (panels.empty()) return "the wing's span and chords";
      const double area = weigh::mean_aerodynamic_chord(0, panels).area;
      return spring::landing_by_rule(mass, area).sink_speed;
    }
    case School::ladder:
      if (!landing.ladder_height.known())
        return "the drop height chosen (models: 100–150 mm light, 250 mm and more heavy)";
      return spring::sink_speed_of_drop(landing.ladder_height);
    case School::similarity:
      if (!landing.prototype_sink_speed.known() || !d.purpose.scale_denominator.known())
        return "the prototype's sink speed and the scale";
      return spring::froude(d.purpose.scale_denominator, landing.prototype_sink_speed, 0, 0, 0, 0).sink_speed;
  }
  return "the school";
}

namespace {

void coil_findings(const Leg& leg, Collector& collect) {
  const auto coil = force::coil_at_wheel(leg.spring.coil);
  if (!coil) {
    collect.unknown("spring.coil_margin", "a measure of the coil spring");
    return;
  }
  const double at_stop = coil->spring_force(leg.travel);
  auto& margin = collect.add("spring.coil_margin", coil->figures.margin(at_stop),
                             at_least(0, "torsional limit of the wire"));
  margin.working = {{"force at the stop", at_stop, Kind::force},
                    {"shear stress", coil->figures.shear_stress(at_stop), Kind::stress},
                    {"shear limit", coil->figures.shear_limit, Kind::stress},
                    {"coil rate", coil->figures.rate, Kind::stiffness}};
  margin.assumption = "typical wire: confirm with your supplier";
  auto& solid = collect.add("spring.coil_solid", coil->travel_left - leg.travel * coil->motion_ratio,
                            at_least(0, "a solid spring before full travel breaks something else"));
  solid.working = {{"solid length", coil->figures.solid_length, Kind::length},
                   {"left from installed", coil->travel_left, Kind::length}};
  collect.add("spring.coil_index", coil->figures.index, within(4, 16, "spring makers' practice"));
}

//! The leg as the drop takes it, or what is missing. A hinged leg by the vertical force at its axle over its
//! rise.
std::variant<spring::DropModel, std::string> drop_model(const Leg& leg, const stance::WheelOnLeg& wheel,
                                                        double mass, double lift_ratio) {
  const Spring& s = leg.spring;
  spring::DropModel m;
  m.tyre = wheel.tyre;
  m.lift_ratio = lift_ratio;
  if (wheel.leg.most <= 0) {
    m.sprung_mass = mass;
    return m;  // a rigid leg: the tyre is all there is
  }
  if (!leg.unsprung_mass.known()) return "the unsprung mass: wheel, axle and lower leg";
  if (leg.unsprung_mass >= mass) return "an unsprung mass below the mass on the leg";
  m.unsprung_mass = leg.unsprung_mass;
  m.sprung_mass = mass - leg.unsprung_mass;
  m.travel = leg.travel;
  if (wheel.leg.path == force::Suspension::Path::straight) {
    m.spring = wheel.leg.law;
  } else {
    m.spring.kind = force::LegLaw::Kind::curve;
    m.spring.travel = leg.travel;
    for (int i = 0; i <= 40; ++i) {
      const auto at = wheel.leg.at(wheel.leg.most * i / 40);
      m.spring.curve.emplace_back(at.axle.z() - wheel.leg.axle.z(), at.force / at.axle_1.z());
    }
  }
  if (s.oil_area.known()) {
    if (!s.orifice_closing.known() || !s.orifice_extending.known()) return "both orifices of the damper";
    m.damper.oil_area = s.oil_area;
    m.damper.orifice_closing = s.orifice_closing;
    m.damper.orifice_extending = s.orifice_extending;
  } else if (s.damping_closing.known() && s.damping_extending.known()) {
    m.damper.closing = s.damping_closing;
    m.damper.extending = s.damping_extending;
  } else {
    return "the damping, closing and extending (0 if there is none)";
  }
  m.damper.friction = s.friction.known() ? s.friction.si : 0;
  // Stops much stiffer than the spring where it ends.
  const double slope = m.spring.slope(m.travel);
  m.bottom_stop = 20 * slope;
  m.extension_stop = 40 * slope;
  return m;
}

void drop_findings(const Design& d, const Leg& leg, bool main, Assessment& a, LegLanding& landing,
                   Collector& collect, const Assessment* near) {
  if (!main && !d.is_tricycle()) return;  // a tail wheel is let down, not dropped
  const auto model = drop_model(leg, (*a.wheels)[main ? 2 : 0], landing.mass, d.landing.lift_ratio);
  if (const auto* missing = std::get_if<std::string>(&model)) {
    collect.unknown("spring.drop_factor", *missing);
    return;
  }
  landing.model = std::get<spring::DropModel>(model);
  const LegLanding* known = nullptr;
  if (near)
    for (const auto& l : near->landings)
      if (l.leg == landing.leg && l.drop && l.sink_speed == landing.sink_speed && l.model == landing.model)
        known = &l;
  if (known) {
    landing.drop = known->drop;
    landing.reserve = known->reserve;
  } else {
    spring::DropRun run;
    run.tolerance = 1e-4;  // N to a few parts in 100,000
    run.until_stopped = true;
    landing.drop = spring::drop(*landing.model, landing.sink_speed, run);
    spring::DropModel full_lift = *landing.model;
    full_lift.lift_ratio = 1;
    landing.reserve = spring::drop(full_lift, 1.2 * landing.sink_speed, run);
  }
  const auto& drop = *landing.drop;
  auto& factor = collect.add("spring.drop_factor", drop.load_factor,
                             at_most(d.landing.load_factor, "what was aimed at"));
  factor.working = {{"peak ground load", drop.peak_ground, Kind::force},
                    {"inertia load factor n", drop.inertia_factor, Kind::factor},
                    {"sink speed", landing.sink_speed, Kind::speed},
                    {"energy", drop.energy, Kind::energy},
                    {"into the spring", drop.shares.spring, Kind::share},
                    {"into the damper", drop.shares.damper, Kind::share},
                    {"into the tyre", drop.shares.tyre, Kind::share}};
  factor.assumption = "stops 20 times as stiff as the spring's end; vertical motion";
  if (landing.model->spring.kind != force::LegLaw::Kind::rigid && !leg.spring.friction.known())
    factor.assumption += "; no friction of the strut, since none is given";
  auto& stroke = collect.add("spring.drop_stroke", drop.stroke_used, at_most(leg.travel, "the leg's travel"));
  stroke.working = {{"strut efficiency", drop.strut_efficiency, Kind::share},
                    {"peak strut load", drop.peak_strut, Kind::force}};
  if (drop.bottoms) stroke.remark = "it bottoms";
  Limit all = at_most(leg.travel, "the rule's reserve: all of the travel, no more");
  all.hold_upper = leg.travel;
  collect.add("spring.drop_reserve", landing.reserve->stroke_used, all).working = {
      {"sink speed", 1.2 * landing.sink_speed, Kind::speed},
      {"load factor then", landing.reserve->load_factor, Kind::factor}};
}

void leg_findings(const Design& d, Assessment& a, Collector& collect, LegName name, const Assessment* near) {
  const bool main = name == LegName::main;
  const Leg& leg = main ? d.gear.main : d.gear.third;
  const std::string subject = main ? "main leg" : fmt::format("{} leg", d.third_word());
  // The loading that puts most on this leg.
  const LoadingState* heaviest = nullptr;
  const auto load_of = [&](const LoadingState& l) {
    return main ? l.mass.down.mass : l.rest->wheels[0].load;
  };
  for (const auto& l : a.loadings)
    if (l.rest && (!heaviest || load_of(l) > load_of(*heaviest))) heaviest = &l;
  collect.about(subject, heaviest ? heaviest->name : "");
  if (!heaviest) {
    collect.unknown("spring.stroke", "the aircraft at rest on its wheels");
    return;
  }
  const auto& state = heaviest->rest->wheels[main ? 2 : 0];
  LegLanding landing{};
  landing.leg = name;
  landing.sink_speed = landing.mass = std::nan("");
  landing.sag = leg.travel > 0 ? state.leg_closure / leg.travel : 0;

  const auto sink = sink_speed_by(d.landing.school, d, heaviest->mass.down.mass);
  const Landing& in = d.landing;
  if (const auto* missing = std::get_if<std::string>(&sink)) {
    collect.unknown("spring.stroke", *missing);
  } else if (!in.lift_ratio.known() || !in.load_factor.known() || !in.tyre_efficiency.known() ||
             !leg.spring.efficiency.known()) {
    collect.unknown("spring.stroke", "lift ratio, load factor and efficiencies of the design landing");
  } else {
    landing.sink_speed = std::get<double>(sink);
    collect.add("spring.sink_speed", landing.sink_speed);
    landing.mass = main ? heaviest->mass.down.mass / 2 : state.load / standard_gravity;
    spring::StrokeInput input{landing.mass,
                              landing.sink_speed,
                              in.load_factor,
                              in.lift_ratio,
                              leg.spring.efficiency,
                              in.tyre_efficiency,
                              0};
    const auto& tyre = (*a.wheels)[main ? 2 : 0].tyre;
    input.tyre_deflection = input.load_factor * input.mass * standard_gravity / tyre.rate;
    landing.stroke = spring::first_estimate(input);
    if (!landing.stroke) {
      auto& f = collect.unknown("spring.stroke", "a load factor above (1 − K)/η");
      f.remark = "no stroke is enough: the strut takes up less than the weight that is left";
    } else {
      auto& f = collect.add("spring.stroke", landing.stroke->strut_travel,
                            main || d.is_tricycle() ? at_most(leg.travel, "the leg's travel") : Limit{});
      if (!main && !d.is_tricycle()) f.remark = "a tail wheel is let down, not dropped: shown, not judged";
      f.working = {{"mass on the leg", landing.mass, Kind::mass},
                   {"sink speed", landing.sink_speed, Kind::speed},
                   {"load factor N", input.load_factor, Kind::factor},
                   {"lift ratio K", input.lift_ratio, Kind::factor},
                   {"strut efficiency", input.strut_efficiency, Kind::factor},
                   {"tyre deflection", input.tyre_deflection, Kind::length},
                   {"peak ground load", landing.stroke->peak_load, Kind::force}};
      f.assumption = "first estimate by energy; the drop decides";
      if (const auto factor = spring::load_factor_for_travel(input, tyre.rate, leg.travel)) {
        auto& n = collect.add("spring.load_factor", *factor);
        n.working = {{"inertia load factor n = N + K", *factor + input.lift_ratio, Kind::factor}};
      }
    }
  }
  if (std::isfinite(landing.mass)) drop_findings(d, leg, main, a, landing, collect, near);
  a.landings.push_back(landing);

  if (leg.travel > 0) {
    const bool gas = leg.spring.kind == SpringKind::gas;
    auto& sag = collect.add("spring.sag", landing.sag,
                            gas ? bands(0.40, 0.55, 0.75, 0.85, "gas oleos sit at about two thirds")
                                : bands(0.10, 0.25, 0.40, 0.50, "practice: 25–40 % of the travel"));
    sag.working = {{"closure at rest", state.leg_closure, Kind::length},
                   {"travel", leg.travel, Kind::length},
                   {"wheel load", state.load, Kind::force}};
  }
  if (leg.spring.kind == SpringKind::coil) coil_findings(leg, collect);
  if (leg.spring.kind == SpringKind::gas)
    collect.add("spring.gas_used", leg.spring.gas.piston_area * leg.travel / leg.spring.gas.volume,
                at_most(0.95, "the gas must not be used up before the stop"));
}

}  // namespace

void assess_spring(const Design& d, Assessment& a, Collector& collect, const Assessment* near) {
  leg_findings(d, a, collect, LegName::main, near);
  leg_findings(d, a, collect, LegName::third, near);
}

}  // namespace kranich
