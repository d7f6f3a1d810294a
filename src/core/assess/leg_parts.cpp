// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/assess/parts.h"
#include "core/force/bent_leg.h"
#include "core/force/materials.h"
#include "core/leg/joints.h"
#include "core/leg/layup.h"
#include "core/model/lacking.h"
#include "core/place/keepout.h"

namespace kranich {
namespace {

constexpr double nan = std::numeric_limits<double>::quiet_NaN();

void governing(const Design& d, const Leg& leg, Collector& collect) {
  collect.about(about_leg(d, leg), "", GearState::extended);
  const double length = governing_length(leg);
  if (!std::isfinite(length)) {
    if (leg.governing == Governing::to_shoulder && !leg.shoulder.known())
      collect.unknown("leg.governing",
                      entry(leg_root(leg.id) + "shoulder_m", "how far the shoulder stands above the axle"));
    return;
  }
  auto& f = collect.add("leg.governing", length);
  f.remark = leg.governing == Governing::to_axle
                 ? "from where it is held to its axle: the number for the bench"
                 : "from where it is held to its shoulder: the number for the bench";
  if (!leg.governed.known()) return;
  const double off = std::max(0.0005, 0.001 * length);
  auto& built = collect.add("leg.governed", leg.governed - length,
                            within(-off, off, "own: half a millimetre, or one in a thousand"));
  built.working = {{"built to", leg.governed, Kind::length}, {"now wanted", length, Kind::length}};
  if (std::abs(built.value) > off)
    built.remark =
        built.value > 0
            ? say("shorten it by {}, or move what it hangs on", Amount{built.value, Kind::length})
            : say("too short by {}: a shim under it, or a new leg", Amount{-built.value, Kind::length});
}

void air_on_it(const Design& d, const Leg& leg, Collector& collect) {
  const double area = drag_area(leg, d.materials);
  if (!std::isfinite(area)) return;
  collect.about(about_leg(d, leg), "", GearState::extended);
  auto& f = collect.add("leg.drag_area", area);
  const double legs = leg.stands == LegStands::both_sides ? 2 : 1;
  const auto drag_at = [&](double speed) {
    return legs * 0.5 * d.airframe.aerodynamics.density * speed * speed * area;
  };
  f.working = {{d.is_model() ? "drag of all of the line at 15 m/s" : "drag of all of the line at 30 m/s",
                drag_at(d.is_model() ? 15 : 30), Kind::force},
               {d.is_model() ? "drag of all of the line at 30 m/s" : "drag of all of the line at 60 m/s",
                drag_at(d.is_model() ? 30 : 60), Kind::force}};
  f.assumption = "retracted, it has none; wheel and axle not counted";
  const bool streamlined =
      leg.section == LegSection::streamlined || leg.spring.bent.section == BentSection::streamlined;
  f.remark = streamlined ? "a shaped mould takes about three times the hours of a flat one"
                         : "a streamlined section has a tenth of it, and takes about three times the hours";
}

void counted_landings(const Design& d, const Leg& leg, Collector& collect) {
  if (!leg.failures.known()) return;
  collect.about(about_leg(d, leg), "");
  auto& f = collect.add("leg.failures", leg.failures,
                        at_most(1, "practice: once may be the pilot, twice is the leg"));
  f.working = {{"ordinary landings made", leg.landings, Kind::factor}};
  if (leg.landings > 0 && leg.failures > 0)
    f.working.push_back({"one in", leg.landings / leg.failures, Kind::factor});
  if (f.value > 1)
    f.remark = "under-strength, whatever its margins say: the loads are higher than those entered";
}

//! How far a plate gives way, twisted by the worst case about its longer side.
void twist(const Design& d, const Leg& leg, const leg::Structure& s, Collector& collect) {
  for (const auto& j : leg.joints) {
    if (j.kind != JointKind::plate || !j.thickness.known() || !j.length.known() || !j.width.known()) continue;
    collect.about(about_member(d, leg, j.name), "", GearState::extended);
    const auto part =
        std::find_if(s.parts.begin(), s.parts.end(), [&](const auto& p) { return p.part == j.name; });
    const Material* material = force::find_material(d.materials, plate_material);
    if (part == s.parts.end() || (j.box_depth.known() && !j.box_wall.known())) {
      collect.unknown("leg.mount_twist",
                      j.box_depth.known() ? Text("the wall of the box over it") : Text("a load case"));
      continue;
    }
    const double modulus = force::stiffness_of(*material).shear_modulus;
    auto& f =
        collect.add("leg.mount_twist", leg::mount_twist(j, part->twist, modulus),
                    at_most(radians(1), "practice: beyond a degree a unit binds, or its wheel toes out"));
    Joint bare = j;
    bare.box_depth = Given();
    f.working = {{"torque about its longer side, limit", part->twist, Kind::moment},
                 {"as a bare plate", leg::mount_twist(bare, part->twist, modulus), Kind::angle}};
    f.assumption = say("of {}, held at both ends of its longer side", std::string(plate_material));
  }
}

void pull_tests(const Design& d, const Leg& leg, const leg::Structure& s, Collector& collect) {
  for (const auto& j : leg.joints) {
    if (!j.bought) continue;
    collect.about(about_member(d, leg, j.name), "", GearState::extended);
    const auto part =
        std::find_if(s.parts.begin(), s.parts.end(), [&](const auto& p) { return p.part == j.name; });
    if (!j.pulled.known() || part == s.parts.end()) {
      collect.unknown("leg.pull_test", "the load it was pulled at with, and held");
      continue;
    }
    // What presses up does not pull it off: it is tried with the drag case's roll as a pull at least.
    const double width = j.length.known() && j.width.known() ? std::min(j.length.si, j.width.si) : nan;
    const double roll = std::isfinite(width) ? part->twist / width : 0;
    const double needed = d.load_factors.ultimate * (part->pull + roll);
    auto& f = collect.add("leg.pull_test", needed > 0 ? j.pulled / needed - 1 : nan,
                          at_least(0, "a bought mount is believed to what it was pulled at with"));
    f.working = {{"pulled at with", j.pulled, Kind::force}, {"needed, ultimate", needed, Kind::force}};
    f.remark = "look at its glue and screws first: sparse adhesive, hot glue, tiny screws";
  }
}

void notch(const Design& d, const Leg& leg, const std::vector<leg::LoadCase>& cases, Collector& collect) {
  const Cradle& c = leg.cradle;
  if (!c.below.known()) return;
  collect.about(about_leg(d, leg), "");
  const Material* edge = force::find_material(d.materials, c.material);
  if (!c.width.known() || !c.thickness.known() || !edge) {
    Lacking lacks(leg_root(leg.id) + "cradle/");
    lacks.number(c.width, "width_m", "how much of the edge bears")
        .number(c.thickness, "thickness_m", "the edge's thickness")
        .that(!edge, entry(leg_root(leg.id) + "cradle/material", "what the edge is of"));
    collect.unknown("leg.cradle", lacks.text());
    return;
  }
  double moment = 0;
  double side = 0;
  std::string in_case;
  for (const auto& one : cases) {
    Vec3 at = leg.axle.vec();
    if (one.at_ground) at.z() -= leg.wheel.diameter / 2;
    const double about = std::abs(((at - leg.held_at()).cross(one.force)).x());
    if (about <= moment) continue;
    moment = about;
    side = std::abs(one.force.y());
    in_case = one.name;
  }
  const double reaction = moment / c.below;
  const double stress = reaction / (c.width * c.thickness);
  const auto allowed = force::allowable_of(*edge, 0, false);
  const double strength = std::isfinite(allowed.bearing) ? allowed.bearing : allowed.ultimate;
  auto& f = collect.add("leg.cradle", strength / (d.load_factors.ultimate * stress) - 1,
                        at_least(0, "the edge must not crush"));
  f.working = {{"side load, limit", side, Kind::force},
               {"moment at the pivot without it", moment, Kind::moment},
               {"the notch takes", reaction, Kind::force},
               {"bearing on the edge", stress, Kind::stress}};
  f.remark = in_case;
  if (!std::isfinite(f.value))
    f.remark = std::isfinite(strength) ? Text("needs a load case that pushes it aside")
                                       : say("needs the bearing strength of “{}”", c.material);
  if (c.play.known() && c.play > 0) {
    const double way = std::hypot(leg.axle.y - leg.held_at().y(), leg.axle.z - leg.held_at().z());
    f.working.push_back({"the wheel goes aside before it bears by", c.play * way / c.below, Kind::length});
  }
  f.assumption = "the pivot holds no moment sideways: all of it goes into the notch";
}

//! What the joints beside a post have more for it, and what it weighs.
void worth_of_posts(const Design& d, const Leg& leg, const std::vector<leg::LoadCase>& cases,
                    const leg::Structure& with, Collector& collect) {
  const auto is_post = [](const Joint& j) { return j.kind == JointKind::post; };
  if (std::none_of(leg.joints.begin(), leg.joints.end(), is_post)) return;
  Leg bare = leg;
  std::erase_if(bare.joints, is_post);
  if (bare.joints.empty()) return;
  const leg::Structure without = leg::check_structure(d, bare, cases);
  // The joint that has most of it.
  const leg::PartMargin* before = nullptr;
  const leg::PartMargin* after = nullptr;
  for (const auto& p : without.parts)
    for (const auto& q : with.parts) {
      const bool joint = std::any_of(bare.joints.begin(), bare.joints.end(),
                                     [&](const Joint& x) { return x.name == p.part; });
      if (!joint || p.part != q.part || !std::isfinite(p.margin) || !std::isfinite(q.margin)) continue;
      if (before && q.margin - p.margin <= after->margin - before->margin) continue;
      before = &p;
      after = &q;
    }
  if (!before) return;
  double mass = 0;
  double share = 1;
  for (const auto& j : leg.joints) {
    const Material* material = is_post(j) ? force::find_material(d.materials, j.material) : nullptr;
    if (!material || !material->density.known() || !j.diameter.known()) continue;
    mass += material->density * std::numbers::pi * j.diameter * j.diameter / 4 * leg::post_line(j).length;
    share = leg::share_of_post(j, d.materials);
  }
  collect.about(about_leg(d, leg), "", GearState::extended);
  auto& f = collect.add("leg.post_gain", after->margin - before->margin);
  f.working = {{say("{} without it", before->part), before->margin, Kind::share},
               {say("{} with it", before->part), after->margin, Kind::share},
               {"it weighs, on each leg", mass, Kind::mass},
               {"it takes of what presses up", share, Kind::share}};
}

//! Plates and blocks, with what stands on them, against what the builder keeps clear.
void plates(const Design& d, const Leg& leg, Collector& collect) {
  if (d.airframe.keep_outs.empty()) return;
  for (const auto& j : leg.joints) {
    const auto body = place::plate_of(j);
    if (!body) continue;
    const auto near = place::nearest_keep_out(*body, d.airframe.keep_outs);
    if (!near) continue;
    collect.about(about_member(d, leg, j.name), "", GearState::extended);
    collect
        .add("leg.plate_room", near->distance,
             at_least(-1e-4, "it may lie against what it is fixed to, never run into it"))
        .remark = near->name;
  }
}

}  // namespace

void lay_up_time(const Design& d, Collector& collect) {
  const Mixing& m = d.mixing;
  if (d.plies.empty() || (!m.working_time.known() && !m.ply_time.known())) return;
  collect.about("lay-up", "", GearState::extended);
  Lacking lacks("/mixing/");
  lacks.number(m.working_time, "working_time_s", "how long a mix can be worked")
      .number(m.ply_time, "ply_time_s", "how long a ply takes to lay");
  if (!lacks.nothing()) {
    collect.unknown("leg.mix", lacks.text());
    return;
  }
  const int plies = leg::plies_of_a_mix(m);
  auto& f =
      collect.add("leg.mix", plies, at_least(1, "a ply laid after two thirds of that time does not wet out"));
  int mixes = 0;
  for (const auto& p : d.plies) {
    if (!p.count.known() || plies < 1) continue;
    const int of_zone = leg::mixes_for(p, plies);
    mixes += of_zone;
    f.working.push_back({say("{}: takes", p.zone), p.count * m.ply_time, Kind::time});
  }
  if (plies < 1)
    f.remark = "a slower hardener, a cooler room, or the cloth cut and wetted on film beforehand";
  else
    f.remark = say("{} mixes in all, each for {} plies at most", Figure{static_cast<double>(mixes), 0},
                   Figure{static_cast<double>(plies), 0});
}

double governing_length(const Leg& leg) {
  const double whole = (leg.axle.vec() - leg.held_at()).norm();
  if (leg.governing == Governing::to_axle) return whole;
  return leg.shoulder.known() ? whole - leg.shoulder : nan;
}

double drag_area(const Leg& leg, const std::vector<Material>& own) {
  constexpr double round = 1.1, streamlined = 0.10, edge_on = 1.0;
  double area = 0;
  const auto piece = [&](const Vec3& from, const Vec3& to, double thickness, double coefficient) {
    const Vec3 way = to - from;  // seen from the front
    area += coefficient * thickness * std::hypot(way.y(), way.z());
  };
  if (leg.spring.kind == SpringKind::bending) {
    const auto chain = force::bending_leg_of(leg, own);
    const auto* b = std::get_if<force::BendingLeg>(&chain);
    if (!b) return nan;
    for (size_t i = 0; i + 1 < b->points.size(); ++i) {
      const bool wire = b->wire_diameter > 0;
      piece(b->points[i], b->points[i + 1],
            wire ? b->wire_diameter : (b->thickness[i] + b->thickness[i + 1]) / 2,
            wire             ? round
            : b->streamlined ? streamlined
                             : edge_on);
    }
    return area;
  }
  if (!leg.tubes.empty()) {
    for (const auto& t : leg.tubes)
      piece(t.top.vec(), t.foot.known() ? t.foot.vec() : leg.axle.vec(), t.diameter, round);
    return area;
  }
  const bool flat = leg.section == LegSection::rectangle;
  const bool faired = leg.section == LegSection::streamlined;
  piece(leg.held_at(), leg.axle.vec(), flat || faired ? leg.section_thickness.si : leg.tube_diameter.si,
        faired ? streamlined
        : flat ? edge_on
               : round);
  return area;
}

void leg_parts(const Design& d, const Leg& leg, Collector& collect) {
  governing(d, leg, collect);
  air_on_it(d, leg, collect);
  counted_landings(d, leg, collect);
  plates(d, leg, collect);
}

void loaded_parts(const Design& d, const Leg& leg, const std::vector<leg::LoadCase>& cases,
                  const leg::Structure& s, Collector& collect) {
  twist(d, leg, s, collect);
  pull_tests(d, leg, s, collect);
  notch(d, leg, cases, collect);
  worth_of_posts(d, leg, cases, s, collect);
}

}  // namespace kranich
