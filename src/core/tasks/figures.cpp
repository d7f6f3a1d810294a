// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tasks/figures.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

#include "core/assess/landing_state.h"
#include "core/assess/loading_state.h"
#include "core/assess/standing.h"
#include "core/assess/strength_state.h"
#include "core/assess/swing_state.h"
#include "core/base/numerics.h"
#include "core/leg/geometry.h"
#include "core/leg/layup.h"
#include "core/place/ground.h"
#include "core/sequence/sequence.h"
#include "core/stance/stance.h"
#include "core/swing/swing.h"

namespace kranich::tasks {
namespace {

constexpr double nan = std::numeric_limits<double>::quiet_NaN();

const Leg* leg_of(const FigureAt& at) {
  const Leg* leg = at.leg.empty() ? at.design.gear.first(LegRole::main) : at.design.gear.find(at.leg);
  return leg;
}

//! Place of the leg on its side among placed_legs; nothing where it stands on none.
std::optional<size_t> place_of(const FigureAt& at) {
  const Leg* leg = leg_of(at);
  if (!leg) return {};
  const auto placed = placed_legs(at.design.gear);
  std::optional<size_t> found;
  for (size_t i = 0; i < placed.size(); ++i) {
    if (&at.design.gear.legs[placed[i].row] != leg) continue;
    if (!found || placed[i].port == at.port) found = i;
  }
  return found;
}

const stance::WheelOnLeg* on_leg(const FigureAt& at) {
  const auto place = place_of(at);
  return place && at.assessment.wheels && *place < at.assessment.wheels->size()
             ? &(*at.assessment.wheels)[*place]
             : nullptr;
}

double load_at_rest(const FigureAt& at) {
  const auto place = place_of(at);
  if (!place) return nan;
  double most = nan;
  for (const LoadingState& loading : at.assessment.loadings)
    if (loading.flown && loading.rest) most = std::fmax(most, loading.rest->wheels[*place].load);
  return most;
}

//! Rise of the axle under a vertical load at it, from extended: the force along the leg's own coordinate
//! balances the load's, F·∂z/∂q.
double closure_under_load(const FigureAt& at) {
  const auto* wheel = on_leg(at);
  if (!wheel || wheel->leg.law.kind == force::LegLaw::Kind::rigid) return nan;
  const double load = std::isfinite(at.load) ? at.load : load_at_rest(at);
  if (!std::isfinite(load)) return nan;
  const auto& leg = wheel->leg;
  const auto left = [&](double q) {
    const auto p = leg.at(q);
    return load * p.axle_1.z() - p.force;
  };
  const double most = leg.most;
  if (!(most > 0)) return nan;
  const double q = left(0) <= 0 ? 0 : left(most) >= 0 ? most : find_root(left, 0, most).value_or(nan);
  return leg.at(q).axle.z() - leg.at(0).axle.z();
}

std::optional<leg::TubeGeometry> strut(const FigureAt& at) {
  const Leg* l = leg_of(at);
  if (!l || !l->axle.known()) return {};
  if (!l->tubes.empty()) {
    const Tube& tube = l->tubes[std::min(at.tube, l->tubes.size() - 1)];
    if (!tube.top.known()) return {};
    return leg::tube_geometry(tube.top.vec(), tube.foot.known() ? tube.foot.vec() : l->axle.vec());
  }
  const Vec3 held = l->held_at();
  return held.allFinite() ? std::optional(leg::tube_geometry(held, l->axle.vec())) : std::nullopt;
}
double length(const FigureAt& at) {
  const Leg* l = leg_of(at);
  if (!l || !l->axle.known()) return nan;
  const Vec3 held = l->held_at();
  if (held.allFinite()) return (l->axle.vec() - held).norm();
  const auto one = strut(at);
  return one ? one->length : nan;
}
double rake(const FigureAt& at) {
  const auto one = strut(at);
  return one ? one->rake : nan;
}
double cant(const FigureAt& at) {
  const auto one = strut(at);
  return one ? one->cant : nan;
}

template <double leg::Jig::*member>
double of_jig(const FigureAt& at) {
  const auto jig = jig_of(at.design);
  const auto* figures = std::get_if<JigFigures>(&jig);
  return figures ? figures->jig.*member : nan;
}

double over_axle_tips(const FigureAt& at) {
  double most = nan;
  for (const Leg& leg : at.design.gear.legs) {
    const double beyond = leg.axle_beyond_wheel.known() ? leg.axle_beyond_wheel.si
                          : leg.wheel.width.known()     ? leg.wheel.width / 2
                                                        : nan;
    most = std::fmax(most, 2 * (std::abs(leg.axle.y) + beyond));
  }
  return most;
}

//! Greatest height above the ground of what sticks up, at rest in the loading that stands highest.
double highest_point(const FigureAt& at) {
  const Airframe& a = at.design.airframe;
  std::vector<Vec3> points;
  for (const Body& body : a.bodies)
    for (const Section& s : body.sections) points.emplace_back(s.x, body.y, s.top);
  for (const OutlinePoint& p : a.fin) points.emplace_back(p.x, 0, p.z);
  for (const OutlinePoint& p : a.canopy) points.emplace_back(p.x, 0, p.z);
  for (const Propeller& p : a.propellers)
    points.emplace_back(p.hub.x, p.hub.y,
                        p.hub.z + p.diameter / 2 * std::cos(p.tilt.known() ? p.tilt.si : 0));
  if (a.wing.span.known())
    for (const double side : {-1.0, 1.0})
      points.emplace_back(
          a.wing.root_leading_edge_x + a.wing.root_chord / 2, side * a.wing.span / 2,
          a.wing.root_z + a.wing.span / 2 * std::tan(a.wing.dihedral.known() ? a.wing.dihedral.si : 0));
  double most = nan;
  for (const LoadingState& loading : at.assessment.loadings) {
    if (!loading.rest) continue;
    const Vec3 up = up_direction(loading.rest->pitch, loading.rest->roll);
    for (const Vec3& p : points) most = std::fmax(most, loading.rest->heave + up.dot(p));
  }
  return most;
}

double assembly_force(const FigureAt& at) {
  const auto* wheel = on_leg(at);
  if (!wheel) return nan;
  const SpringKind kind = leg_of(at)->spring.kind;
  if (kind != SpringKind::pucks && kind != SpringKind::cord && kind != SpringKind::coil) return nan;
  return wheel->leg.law.force(0);
}
double assembled_length(const FigureAt& at) {
  const Leg* l = leg_of(at);
  if (!l) return nan;
  if (l->spring.kind == SpringKind::pucks) return l->spring.pucks.assembled_length;
  if (l->spring.kind != SpringKind::cord) return nan;
  return (l->spring.anchor_leg.vec() - l->spring.anchor_airframe.vec()).norm();
}
double rubber_count(const FigureAt& at) {
  const Leg* l = leg_of(at);
  if (!l) return nan;
  return l->spring.kind == SpringKind::pucks  ? l->spring.pucks.count.si
         : l->spring.kind == SpringKind::cord ? l->spring.cord.strands.si
                                              : nan;
}
double charge_gauge(const FigureAt& at) {
  const Leg* l = leg_of(at);
  return l && l->spring.kind == SpringKind::gas ? l->spring.gas.pressure - l->spring.gas.ambient : nan;
}

double ply_count(const FigureAt& at) {
  double all = 0;
  for (const Ply& ply : at.design.plies) all += ply.count;
  return at.design.plies.empty() ? nan : all;
}
double ply_area(const FigureAt& at) {
  const auto all = leg::total_of(at.design.plies);
  return all.left_out.empty() && !at.design.plies.empty() ? all.area : nan;
}

//! The longest leg that still swings into its well with the wanted clearance.
double leg_room(const FigureAt& at) {
  const Leg* l = leg_of(at);
  if (!l) return nan;
  for (const LegSwing& swing : at.assessment.swings)
    if (swing.leg == l->id && swing.input) return swing::length_budget(*swing.input).fits;
  return nan;
}

double slowest_leg(const FigureAt& at) { return sequence::slowest_leg(at.assessment.times); }

//! The leg dropped freely, without lift, from the height and with the mass that were read.
struct Dropped {
  double stroke = nan, acceleration = nan;
};
Dropped dropped(const FigureAt& at) {
  const Leg* l = leg_of(at);
  const auto* wheel = on_leg(at);
  if (!l || !wheel) return {};
  double mass = at.mass;
  for (const LegLanding& landing : at.assessment.landings)
    if (landing.leg == l->id && !std::isfinite(mass)) mass = landing.mass;
  const double height = std::isfinite(at.height) ? at.height : at.design.landing.ladder_height.si;
  if (!(mass > 0) || !(height > 0)) return {};
  const auto model = drop_model(*l, *wheel, mass, 0);
  const auto* known = std::get_if<spring::DropModel>(&model);
  if (!known) return {};
  spring::DropRun run;
  run.until_stopped = true;
  const auto result = spring::drop(*known, std::sqrt(2 * standard_gravity * height), run);
  return {result.stroke_used, result.inertia_factor - 1};
}
double drop_stroke(const FigureAt& at) { return dropped(at).stroke; }
double drop_acceleration(const FigureAt& at) { return dropped(at).acceleration; }

constexpr std::string_view here = "geometry of the design";

constexpr std::array figures{
    FigureInfo{"leg.load", "Load on the leg", Kind::force,
               "Vertical load at rest, of the heaviest flown loading.", "equilibrium of Stance", true,
               load_at_rest},
    FigureInfo{"leg.closure", "Closes under a load", Kind::length,
               "How far the axle rises from extended under the load that was read; at rest where none was.",
               "spring's law and the leg's geometry, virtual work", true, closure_under_load},
    FigureInfo{"leg.length", "Length of the leg", Kind::length,
               "From where it is held (pivot, hinge or upper end) to the axle, extended.", here, true,
               length},
    FigureInfo{"leg.rake", "Rake", Kind::angle,
               "Slope of the strut (of tubes the first) in the side view, foot ahead positive.", here, true,
               rake},
    FigureInfo{"leg.cant", "Cant", Kind::angle,
               "Slope of the strut (of tubes the first) in the front view, foot outboard positive.", here,
               true, cant},
    FigureInfo{"jig.bar", "Bar for the axle", Kind::length, "Length of the straight bar of the jig.",
               "handbook, Leg", false, of_jig<&leg::Jig::bar_length>},
    FigureInfo{"jig.axle_height", "Axle above the floor", Kind::length,
               "Height of the bar's middle line in the jig.", "handbook, Leg", false,
               of_jig<&leg::Jig::axle_height>},
    FigureInfo{"jig.diagonal", "Diagonal, square", Kind::length,
               "From each end of the bar to the point behind when the bar stands square.", "handbook, Leg",
               false, of_jig<&leg::Jig::square_diagonal>},
    FigureInfo{"stand.width", "Width on its gear", Kind::length,
               "Over the axle tips; where they are not entered, over the tyres.", here, false,
               over_axle_tips},
    FigureInfo{"stand.height", "Height on its gear", Kind::length,
               "Highest point above the ground at rest, in the loading in which it stands highest.",
               "equilibrium of Stance and the outline", false, highest_point},
    FigureInfo{"spring.assembly_force", "Force to assemble", Kind::force,
               "What the spring pushes or pulls with when it is put in, the leg extended.", "spring's law",
               true, assembly_force},
    FigureInfo{"spring.assembled_length", "Assembled length", Kind::length,
               "All the rubber together, or one strand between its anchors, the leg extended.", here, true,
               assembled_length},
    FigureInfo{"spring.rubber_count", "Discs or strands", Kind::factor, "How many discs or strands of cord.",
               "the design", true, rubber_count},
    FigureInfo{"spring.charge_gauge", "Charge on the gauge", Kind::pressure,
               "Pressure of the charge, leg extended, less that of the air around.", "the design", true,
               charge_gauge},
    FigureInfo{"plies.count", "Plies in all", Kind::factor, "All plies of the reinforcement.", "the design",
               false, ply_count},
    FigureInfo{"plies.area", "Cloth in all", Kind::area, "Area of all plies of the reinforcement.",
               "the design", false, ply_area},
    FigureInfo{
        "swing.leg_room", "Leg that the well takes", Kind::length,
        "From the pivot to the axle of the longest leg that still swings into its well with the clearance "
        "wanted.",
        "handbook, Swing", true, leg_room},
    FigureInfo{"sequence.slowest", "Slowest leg", Kind::time, "Time of the slowest leg, with its spread.",
               "what Sequence counts with", false, slowest_leg},
    FigureInfo{"drop.stroke", "Stroke of a drop", Kind::length,
               "Greatest stroke of a free drop from the height and with the mass that were read.",
               "handbook, Springs", true, drop_stroke},
    FigureInfo{"drop.acceleration", "Peak of a drop", Kind::in_g,
               "Greatest acceleration of the sprung mass in that drop, none at rest.", "handbook, Springs",
               true, drop_acceleration},
};

}  // namespace

std::span<const FigureInfo> all_figures() { return figures; }

const FigureInfo* find_figure(std::string_view id) {
  const auto it =
      std::find_if(figures.begin(), figures.end(), [&](const FigureInfo& f) { return f.id == id; });
  return it == figures.end() ? nullptr : &*it;
}

}  // namespace kranich::tasks
