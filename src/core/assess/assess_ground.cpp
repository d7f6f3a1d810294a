// SPDX-License-Identifier: GPL-3.0-or-later
//! Stance and Spring: the findings that follow from the rest on springs and from the design landing.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/assess/assess.h"
#include "core/assess/collector.h"
#include "core/force/coil.h"

namespace kranich {

void assess_stance(const Design& d, Assessment& a, Collector& collect) {
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
  }
}

namespace {

//! Sink speed by the school chosen, or what it lacks.
std::variant<double, std::string> design_sink_speed(const Design& d, double mass) {
  const Landing& landing = d.landing;
  switch (landing.school) {
    case School::rule: {
      const auto panels = weigh::wing_panels(d.airframe.wing);
      if (panels.empty()) return "the wing's span and chords";
      const double area = weigh::mean_aerodynamic_chord(0, panels).area;
      return spring::landing_by_rule(mass, area).sink_speed;
    }
    case School::ladder:
      if (!landing.ladder_height.known()) return "the drop height chosen";
      return spring::sink_speed_of_drop(landing.ladder_height);
    case School::similarity:
      if (!landing.prototype_sink_speed.known() || !d.purpose.scale_denominator.known())
        return "the prototype's sink speed and the scale";
      return spring::froude(d.purpose.scale_denominator, landing.prototype_sink_speed, 0, 0, 0, 0).sink_speed;
  }
  return "the school";
}

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

void leg_findings(const Design& d, Assessment& a, Collector& collect, LegName name) {
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
  LegLanding landing{
      name, std::nan(""), std::nan(""), {}, leg.travel > 0 ? state.leg_closure / leg.travel : 0};

  const auto sink = design_sink_speed(d, heaviest->mass.down.mass);
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
    input.tyre_deflection = input.load_factor * input.mass * standard_gravity / leg.wheel.tyre_rate;
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
      if (const auto factor = spring::load_factor_for_travel(input, leg.wheel.tyre_rate, leg.travel)) {
        auto& n = collect.add("spring.load_factor", *factor);
        n.working = {{"inertia load factor n = N + K", *factor + input.lift_ratio, Kind::factor}};
      }
    }
  }
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

void assess_spring(const Design& d, Assessment& a, Collector& collect) {
  leg_findings(d, a, collect, LegName::main);
  leg_findings(d, a, collect, LegName::third);
}

}  // namespace kranich
