// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/place_rules.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/assess/collector.h"
#include "core/assess/loading_state.h"
#include "core/model/lacking.h"

namespace kranich {
namespace {

constexpr double none = std::numeric_limits<double>::quiet_NaN();

//! Rolling friction where the builder gives none: 0.03 tarmac and 0.08 short grass are the handbook's; rough
//! and sand are taken higher in the same spirit.
double usual_friction(Field field) {
  switch (field) {
    case Field::tarmac:
    case Field::indoor:
      return 0.03;
    case Field::unsaid:  // told beside what it decides
    case Field::turf:
      return 0.08;
    case Field::rough:
      return 0.10;
    case Field::sand:
      return 0.20;
  }
  return 0.08;
}

void fill_ground_run(const Design& d, PlaceRules& r) {
  const Aerodynamics& a = d.airframe.aerodynamics;
  const Surface& tail = d.airframe.tailplane;
  const auto panels = weigh::wing_panels(d.airframe.wing);
  const auto tail_panels = weigh::wing_panels(tail);
  Lacking lacks("/airframe/");
  note_panels(lacks, d.airframe.wing, "wing/", "wing");
  note_panels(lacks, tail, "tailplane/", "tailplane");
  lacks.number(a.thrust, "aerodynamics/thrust_N", "the thrust at rotation");
  if (!r.thrust_z) lacks.number(a.thrust_z, "aerodynamics/thrust_z_m", "the waterline of the thrust");
  if (!r.drag_z) lacks.number(a.drag_z, "aerodynamics/drag_z_m", "the waterline of the drag");
  lacks.number(a.ground_lift, "aerodynamics/ground_lift_coefficient", "the lift coefficient on the ground")
      .number(a.drag, "aerodynamics/drag_coefficient", "the drag coefficient")
      .number(a.moment, "aerodynamics/moment_coefficient", "the moment coefficient")
      .number(a.tail_down_lift, "aerodynamics/tail_down_lift_coefficient", "the tail's greatest down lift")
      .number(a.slipstream, "aerodynamics/slipstream_factor", "the slipstream's factor at the tail")
      .number(a.greatest_lift, "aerodynamics/greatest_lift_coefficient", "the greatest lift coefficient")
      .number(a.density, "aerodynamics/air_density_kg_per_m3", "the density of the air");
  r.run_missing = lacks.text();
  if (!lacks.nothing()) return;
  const auto chord = weigh::mean_aerodynamic_chord(d.airframe.wing.root_leading_edge_x, panels);
  const auto tail_chord = weigh::mean_aerodynamic_chord(tail.root_leading_edge_x, tail_panels);
  place::GroundRun run{};
  run.wing_area = chord.area;
  run.mean_chord = chord.mean_chord;
  run.centre_x = a.centre_x.known() ? a.centre_x.si : chord.leading_edge_x + 0.25 * chord.mean_chord;
  run.ground_lift = a.ground_lift;
  run.drag = a.drag;
  run.moment = a.moment;
  run.tail_area = tail_chord.area;
  run.tail_x = tail_chord.leading_edge_x + 0.25 * tail_chord.mean_chord;
  run.tail_down_lift = a.tail_down_lift;
  run.slipstream = a.slipstream;
  run.thrust = a.thrust;
  run.friction = a.friction.known() ? a.friction.si : usual_friction(d.purpose.field);
  run.greatest_lift = a.greatest_lift;
  run.density = a.density;
  r.run = run;
  if (r.two_lines && d.airframe.wing.incidence.known()) {
    // Of the wing alone where the whole aircraft's slope is not known: 2π·A/(2 + √(A² + 4)).
    const double aspect = d.airframe.wing.span * d.airframe.wing.span / chord.area;
    const double slope = a.lift_slope.known()
                             ? a.lift_slope.si
                             : 2 * std::numbers::pi * aspect / (2 + std::sqrt(aspect * aspect + 4));
    r.liftoff_input = place::LiftoffInput{
        0,      chord.area, slope,        a.zero_lift_angle, d.airframe.wing.incidence, a.greatest_lift,
        a.drag, a.thrust,   run.friction, a.density};
  }
  r.turf_taken = !a.friction.known() && d.purpose.field == Field::unsaid;
  r.run_estimated = !a.friction.known() || a.tail_down_lift.origin == Origin::by_default ||
                    a.greatest_lift.origin == Origin::by_default ||
                    a.ground_lift.origin == Origin::by_default || a.drag.origin == Origin::by_default ||
                    a.moment.origin == Origin::by_default;
}

}  // namespace

PlaceRules place_rules(const Design& d) {
  PlaceRules r;
  r.tricycle = d.is_tricycle();
  r.layout = d.layout();
  r.two_lines = d.on_two_lines();
  r.wings = d.flies_on_wings();
  const bool model = r.model = d.is_model();
  r.smooth = d.smooth_field();
  const bool gentle_ground = d.smooth_field() && d.purpose.use != Use::training;

  r.tip_back = model && d.smooth_field()
                   ? within(radians(10), radians(25), "models on smooth fields: 10–15°")
                   : within(radians(15), radians(25), "texts: 15°; above 25° rotation becomes hard");
  r.nose_share = r.two_lines ? within(0.40, 0.60, "texts: about equal on both lines of mains")
                 : r.wings   ? bands(0.05, 0.08, 0.15, 0.20, "texts: 8–15 % good, 5–20 % usable")
                             : Limit{};  // what never rotates has no use for it
  r.mains_share = within(0.35, 0.65, "texts: about equal on both lines of mains");
  r.liftoff = bands(1.05, 1.10, 1.25, 1.45, "texts: off at 1.1, climbing at 1.2 times the stall speed");
  // Far behind the CG stands the rear line of two by its nature: only the least counts.
  if (r.two_lines) {
    r.tip_back.upper = radians(89);
    r.tip_back.source = r.model && r.smooth ? "models on smooth fields: at least 10°" : "texts: at least 15°";
    r.tip_back.hold_lower = *r.tip_back.lower + radians(1.5);
  }
  r.turnover = gentle_ground      ? at_most(radians(63), "texts: 63° on smooth ground")
               : d.smooth_field() ? at_most(radians(57), "texts: 55–57°; training sees every crosswind")
                                  : at_most(radians(57), "texts: 55–57° on rough ground or in crosswind");
  r.rotation = at_most(1.15, "texts: up to 1.05 good; above 1.15 it runs on and then pops up");
  r.rotation.hold_upper = 1.05;

  r.axle_ahead = !d.gear.brakes && d.smooth_field()
                     ? within(radians(12), radians(17), "weak brakes, smooth strip: 12–17°")
                     : within(radians(16), radians(25), "classic texts: 16–25°");
  r.three_point = bands(radians(8), radians(10), radians(15), radians(17), "classic texts: 10–15°");
  if (d.airframe.stall_wing_angle.known() && d.airframe.wing.incidence.known())
    r.three_point.source.also(
        say("the wing stalls {} nose-up",
            Amount{d.airframe.stall_wing_angle - d.airframe.wing.incidence, Kind::angle}));
  r.nose_over_three_point = d.gear.brakes ? at_least(0.5, "wheel brakes on firm ground give about 0.5 g")
                                          : at_least(0.25, "no wheel brakes: half of 0.5 g");
  r.nose_over_level = at_least(0, "a warning below 0.3 g");
  r.nose_over_level.hold_lower = 0.3;
  r.tail_share = bands(0.05, 0.05, 0.15, 0.20, "classic texts: 5–15 %, to 20 % heavy");
  r.side_tip = at_least(0.5, "more than 0.5 g is comfortable");

  r.left = at_least(0, "some clearance must be left");
  r.tipping = at_least(std::tan(radians(15)), "15° of slope or its like in acceleration, every way round");

  for (size_t i = 0; i < d.airframe.low_points.size(); ++i) {
    const auto& p = d.airframe.low_points[i];
    if (p.role != PointRole::tail || !p.at.known()) continue;
    r.tail_points.push_back(p.at.vec());
    r.tail_point_index.push_back(static_cast<int>(i));
  }
  for (const auto& p : d.airframe.propellers)
    if (p.hub.known() && p.diameter.known() && p.tilt.known())
      r.propellers.push_back({p.hub.vec(), p.diameter, p.tilt});
  if (d.airframe.lift_off_wing_angle.known() && d.airframe.wing.incidence.known())
    r.attitude_needed = d.airframe.lift_off_wing_angle - d.airframe.wing.incidence + radians(1);

  const Aerodynamics& a = d.airframe.aerodynamics;
  if (a.drag_z.known())
    r.drag_z = a.drag_z;
  else if (d.airframe.wing.root_z.known())
    r.drag_z = d.airframe.wing.root_z;
  if (a.thrust_z.known())
    r.thrust_z = a.thrust_z;
  else if (!r.propellers.empty())
    r.thrust_z = r.propellers[0].hub.z();
  r.density = a.density;
  if (a.side_area.known() && a.side_z.known()) {
    r.side_z = a.side_z;
    r.side_force = a.side_area * a.side_coefficient;
    if (a.crosswind_wanted.known())
      r.crosswind = at_least(a.crosswind_wanted, "the worst wind you would taxi in");
  }
  if (r.tricycle && r.wings) fill_ground_run(d, r);
  return r;
}

Limit PlaceRules::propeller_static(double diameter) const {
  const char* who = model
                        ? (smooth ? "models: 10 % of the diameter" : "models on grass: 15 % of the diameter")
                    : tricycle ? "certification practice: 180 mm (7 in), nosewheel"
                               : "certification practice: 230 mm (9 in), tailwheel";
  return at_least(propeller_wanted(diameter), who);
}

Support support_of(const Standing& s) {
  Support support;
  std::vector<place::Vec2> contacts;
  contacts.reserve(s.wheels.size());
  for (const auto& w : s.wheels)
    contacts.emplace_back(place::behind_contact({w.x, 0, w.z}, s.main, s.pitch), w.contact_y);
  support.polygon = place::support_polygon(std::move(contacts));
  support.cg = {place::behind_contact(s.cg, s.main, s.pitch), s.cg.y()};
  support.height = place::height_above_ground(s.cg, s.main, s.pitch);
  return support;
}

std::optional<Sideways> sideways_of(const Support& support) {
  const auto& p = support.polygon;
  if (p.size() < 3) return std::nullopt;
  Sideways least{std::numeric_limits<double>::infinity(), std::numeric_limits<double>::infinity()};
  for (size_t i = 0; i < p.size(); ++i) {
    const place::Vec2 along = p[(i + 1) % p.size()] - p[i];
    const place::Vec2 outward = place::Vec2(along.y(), -along.x()).normalized();
    if (!(std::abs(outward.y()) > 0.05))
      continue;  // an edge straight across: tip-back and nose-over judge it
    const double distance = outward.dot(p[i] - support.cg);
    least.distance = std::min(least.distance, distance);
    least.straight = std::min(least.straight, distance / std::abs(outward.y()));
  }
  if (!std::isfinite(least.distance)) return std::nullopt;
  return least;
}

PlaceFigures place_figures(const PlaceRules& r, const Standing& s, double mass, bool for_map) {
  PlaceFigures f;
  f.mass = mass;
  f.main_behind = -place::behind_contact(s.cg, s.main, 0);
  f.cg_height_level = place::height_above_ground(s.cg, s.main, 0);
  const double third_x = place::behind_contact({s.third.x, 0, s.third.z}, s.main, s.pitch);
  f.wheelbase = std::abs(third_x);
  f.cg_behind_main = place::behind_contact(s.cg, s.main, s.pitch);
  f.cg_height = place::height_above_ground(s.cg, s.main, s.pitch);
  const Support support = support_of(s);
  const auto sideways = sideways_of(support);
  f.turnover = {none, none, none, none};
  if (sideways)
    f.turnover = {std::atan2(f.cg_height, sideways->distance), sideways->distance,
                  sideways->distance / f.cg_height, sideways->straight / f.cg_height};
  f.mains_share = s.mains_share;
  f.third_share =
      std::isfinite(s.third_share) ? s.third_share : place::third_wheel_share(third_x, 0, f.cg_behind_main);
  if (r.tricycle) {
    f.tip = place::tip_back(f.main_behind, f.cg_height_level, s.main.radius);
    std::vector<place::HighPoint> points;
    points.reserve(r.tail_points.size());
    for (const Vec3& p : r.tail_points)
      points.push_back({place::behind_contact(p, s.main, 0), place::height_above_ground(p, s.main, 0)});
    f.tail = place::tail_strike(points, s.main.radius);
    f.third_share_braking = place::nose_share_braking(third_x, 0, f.cg_behind_main, f.cg_height, r.braking);
    if (r.run) {
      place::GroundRun run = *r.run;
      run.mass = mass;
      run.cg_x = s.cg.x();
      run.cg_height = f.cg_height_level;
      run.main_x = s.main.x;
      run.drag_height = place::height_above_ground({0, 0, *r.drag_z}, {0, s.main.z, s.main.radius}, 0);
      run.thrust_height = place::height_above_ground({0, 0, *r.thrust_z}, {0, s.main.z, s.main.radius}, 0);
      f.rotation = place::rotation(run);
      if (!for_map) f.furthest_aft = place::furthest_aft_main(run, 1.05);
      if (r.liftoff_input && std::isfinite(s.pitch_extended)) {
        place::LiftoffInput in = *r.liftoff_input;
        in.mass = mass;
        f.liftoff = place::liftoff_in_stance(in, s.pitch_extended);
        const double empty =
            place::wheels_empty_speed(mass, run.density, run.wing_area, f.liftoff->lift_coefficient,
                                      run.tail_area, run.tail_down_lift * run.slipstream);
        f.rotates_first = f.rotation->speed < empty && f.rotation->acceleration > 0;
      }
    }
  } else {
    f.tailwheel = place::tailwheel_figures({s.main, s.third, 2 * s.half_track}, s.cg);
  }
  if (r.side_z) {
    const double z = place::height_above_ground({s.cg.x(), 0, *r.side_z}, s.main, s.pitch);
    // ½ρV²·S·C_Y·z_s = W·(way straight sideways to the edge); 0 where the CG lies outside already.
    f.crosswind = sideways ? std::sqrt(2 * mass * standard_gravity * std::max(0.0, sideways->straight) /
                                       (r.density * r.side_force * z))
                           : none;
  }
  f.tipping_least = none;
  if (!for_map || !r.wings) {
    if (support.polygon.size() >= 3)
      f.tipping_least = place::nearest_edge(support.polygon, support.cg).distance / support.height;
  }
  f.propeller = std::numeric_limits<double>::infinity();
  const double pitch = r.tricycle ? s.pitch : 0;
  for (const auto& p : r.propellers) {
    const double wanted = r.propeller_wanted(p.diameter);
    const double clear = place::propeller_clearance(p, s.main, pitch);
    if (clear - wanted < f.propeller - f.propeller_wanted) {
      f.propeller = clear;
      f.propeller_wanted = wanted;
    }
  }
  return f;
}

Bounds tip_back_bounds(const PlaceRules& r, const std::optional<place::TailStrike>& tail) {
  Bounds b{*r.tip_back.lower, *r.tip_back.upper};
  if (tail && tail->at_contact > b.lower)
    b = {tail->at_contact, std::max(b.upper, tail->at_contact + radians(5))};
  return b;
}

Limit tip_back_limit(const PlaceRules& r, const std::optional<place::TailStrike>& tail) {
  Limit limit = r.tip_back;
  const Bounds b = tip_back_bounds(r, tail);
  if (b.lower > *limit.lower)
    limit.source = "not less than the tail-strike angle; above 25° rotation becomes hard";
  limit.lower = b.lower;
  limit.upper = b.upper;
  return limit;
}

double PlaceLine::margin() const {
  double scale = std::isfinite(lower) && std::isfinite(upper) ? upper - lower
                 : std::isfinite(lower)                       ? std::abs(lower)
                                                              : std::abs(upper);
  if (!(scale > 0)) scale = kranich::measure(measure).zero_scale;
  double least = std::numeric_limits<double>::infinity();
  if (std::isfinite(lower)) least = std::min(least, value - lower);
  if (std::isfinite(upper)) least = std::min(least, upper - value);
  return least / scale;
}

std::vector<PlaceLine> place_lines(const PlaceRules& r, const PlaceFigures& f) {
  std::vector<PlaceLine> lines;
  lines.reserve(10);
  const auto line = [&](std::string_view id, double value, const Limit& limit) {
    if (limit.set()) lines.push_back({id, value, limit.lower.value_or(none), limit.upper.value_or(none)});
  };
  if (r.tricycle) {
    if (r.wings) {
      const Bounds b = tip_back_bounds(r, f.tail);
      lines.push_back({"place.tip_back", f.tip.at_contact, b.lower, b.upper});
    }
    line(r.share_measure(), f.third_share, r.nose_share);
    line("place.turnover", f.turnover.angle, r.turnover);
  } else if (f.tailwheel) {
    line("place.axle_ahead", f.tailwheel->axle_ahead_angle, r.axle_ahead);
    line("place.three_point", f.tailwheel->three_point_angle, r.three_point);
    line("place.nose_over_three_point", f.tailwheel->nose_over_three_point, r.nose_over_three_point);
    line("place.tail_share", f.tailwheel->tail_share, r.tail_share);
    line("place.side_tip", f.tailwheel->tip_sideways, r.side_tip);
  }
  if (!r.wings) line("place.tipping", f.tipping_least, r.tipping);
  if (f.crosswind) line("place.crosswind", *f.crosswind, r.crosswind);
  if (std::isfinite(f.propeller))
    lines.push_back({"place.propeller_static", f.propeller, f.propeller_wanted, none});
  return lines;
}

double usual_model_wheel(double mass) {
  constexpr double masses[] = {1, 2.5, 5, 10, 20};
  constexpr double sizes[] = {0.050, 0.065, 0.080, 0.105, 0.135};
  int i = 0;
  while (i < 3 && mass > masses[i + 1]) ++i;
  return sizes[i] *
         std::pow(mass / masses[i], std::log(sizes[i + 1] / sizes[i]) / std::log(masses[i + 1] / masses[i]));
}

Heaviest heaviest_on(const Design& d, const Assessment& a, const Leg& leg) {
  Heaviest h;
  const auto placed = placed_legs(d.gear);
  for (size_t i = placed.size(); i-- > 0;) {  // starboard before port, so that it speaks for equal ones
    if (&d.gear.legs[placed[i].row] != &leg) continue;
    for (const auto& l : a.loadings)
      if (l.rest && l.rest->wheels[i].load > h.load * (1 + 1e-9)) h = {&l, l.rest->wheels[i].load, i};
  }
  return h;
}

place::WheelNeed wheel_need(const Design& d, const Assessment& a, const Leg& leg) {
  place::WheelNeed need{0, none, none, d.purpose.obstacle, d.purpose.field, d.is_model()};
  need.load = heaviest_on(d, a, leg).load;
  if (leg.role != LegRole::main) {
    need.usual_diameter = d.gear.main().wheel.diameter * (leg.role == LegRole::nose ? 0.85 : 0.30);
    return need;
  }
  if (!d.is_model()) {
    if (need.load > 0) need.usual_diameter = place::typical_main_wheel(need.load).diameter;
    return need;
  }
  double mass = 0;
  for (const auto& l : a.loadings)
    if (l.mass.known()) mass = std::max(mass, l.mass.down.mass);
  if (mass > 0) need.usual_diameter = usual_model_wheel(mass) * (d.smooth_field() ? 1 : 1.25);
  need.scale_diameter = d.purpose.prototype_wheel_diameter / d.purpose.scale_denominator;
  return need;
}

}  // namespace kranich
