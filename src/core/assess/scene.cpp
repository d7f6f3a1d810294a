// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/scene.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/assess/subjects.h"
#include "core/assess/swing_state.h"
#include "core/doors/door.h"
#include "core/motion/retract.h"
#include "core/motion/triangles.h"
#include "core/place/keepout.h"
#include "core/swing/swing.h"

namespace kranich {
namespace {

motion::Mesh mesh_at(const swing::MovingLeg& leg, const swing::MovingPart& part, double turn) {
  return std::holds_alternative<motion::RoundedWheel>(part.solid)
             ? motion::mesh_of(swing::wheel_at(leg.moves, part, turn))
             : motion::mesh_of(swing::capsule_at(leg.moves, part, turn));
}

class Builder {
 public:
  Builder(const Design& d, const Assessment& a, double share) : d_(d), a_(a), share_(share) {}

  Scene all() {
    for (const PlacedLeg& placed : placed_legs(d_.gear)) leg(d_.gear.legs[placed.row], placed.port);
    for (const Door& door : d_.doors) panel(door);
    for (const KeepOut& k : d_.airframe.keep_outs) keep_out(k);
    for (const auto& body : d_.airframe.bodies) outline(body.sections);
    return std::move(scene_);
  }

 private:
  void put(Text name, SceneKind kind, motion::Mesh mesh, bool port) {
    ScenePart& part = scene_.parts.emplace_back();
    part.name = std::move(name);
    part.kind = kind;
    part.mesh = port ? motion::mirrored(mesh) : std::move(mesh);
  }
  Text named(const Leg& leg, bool port, const char* part) const {
    const Text of =
        leg.stands == LegStands::both_sides ? about_leg_on(d_, leg, port).words : d_.leg_word(leg);
    return say("{}, {}", of, Text(part));
  }

  void leg(const Leg& leg, bool port) {
    const auto made = swing::moving_leg(leg);
    if (const auto* moving = std::get_if<swing::MovingLeg>(&made); moving && leg.retraction.fitted)
      swung(leg, *moving, port);
    else
      standing(leg, port);
    if (leg.retraction.fitted) well(leg.retraction.well, port);
    if (const auto body = place::unit_of(leg))
      put(named(leg, port, "retract unit"), SceneKind::unit, motion::mesh_of(*body), port);
  }

  void well(const Well& w, bool port) {
    if (!w.low.known() || !w.high.known()) return;
    const auto box = motion::mesh_of(motion::Box{w.low.vec(), w.high.vec()});
    const auto at = [&](size_t i) { return port ? mirrored(box.points[i]) : box.points[i]; };
    for (size_t i = 0; i < 4; ++i) {
      const size_t j = (i + 1) % 4;
      scene_.lines.push_back({at(i), at(j), true});
      scene_.lines.push_back({at(i + 4), at(j + 4), true});
      scene_.lines.push_back({at(i), at(i + 4), true});
    }
  }

  void swung(const Leg& leg, const swing::MovingLeg& moving, bool port) {
    const double turn = share_ * moving.moves.full_turn;
    const LegSwing* swings = nullptr;
    for (const LegSwing& s : a_.swings)
      if (s.leg == leg.id && s.input) swings = &s;
    std::optional<swing::Clearance> nearest;
    if (swings && !swings->input->obstacles.empty()) nearest = swing::clearance_at(*swings->input, turn);
    for (const auto& part : moving.parts) {
      put(named(leg, port, swing::part_word(part.part)),
          part.part == swing::Part::wheel ? SceneKind::wheel : SceneKind::leg, mesh_at(moving, part, turn),
          port);
      if (!nearest || nearest->part != part.part) continue;
      // An eighth of the wheel beyond what is wanted: near on a model as on an aircraft.
      const double wanted = swings->input->wanted_clearance;
      scene_.parts.back().near =
          NearMiss{nearest->distance, wanted, wanted + leg.wheel.diameter / 8, Text(nearest->obstacle)};
      near_.push_back({nearest->obstacle, *scene_.parts.back().near});
      near_.back().second.to = scene_.parts.back().name;
    }
  }

  //! A leg that does not swing, or not as far as is known: as it stands, down.
  void standing(const Leg& leg, bool port) {
    if (!leg.axle.known()) return;
    const Wheel& w = leg.wheel;
    // Drawn only: a shoulder or tube that is not told is drawn as is usual.
    const double shoulder = w.shoulder_radius.known() ? w.shoulder_radius.si : w.width / 4;
    const Vec3 half = (leg.wheel_spacing.known() ? leg.wheel_spacing / 2 : 0.0) * motion::axle_direction(leg);
    if (w.diameter.known() && w.width.known())
      for (const double side : {1.0, -1.0})
        if (side > 0 || half.norm() > 0)
          put(named(leg, port, swing::part_word(swing::Part::wheel)), SceneKind::wheel,
              motion::mesh_of(motion::RoundedWheel{leg.axle.vec() + side * half, motion::axle_direction(leg),
                                                   w.diameter, w.width, shoulder}),
              port);
    const Vec3 top = leg.held_at();
    const Vec3 foot = motion::foot(leg);
    if (!top.allFinite() || !foot.allFinite()) return;
    const double radius = leg.tube_diameter.known() ? leg.tube_diameter / 2
                          : w.width.known()         ? w.width / 8
                                                    : 0.02 * (top - foot).norm();
    put(named(leg, port, swing::part_word(swing::Part::leg)), SceneKind::leg,
        motion::mesh_of(motion::Capsule{top, foot, radius}), port);
  }

  void panel(const Door& door) {
    const auto made = motion::panel_of(door);
    const Leg* leg = d_.gear.find(door.leg);
    if (!made || !leg) return;
    const double opening = doors::opening_at(d_, door, share_);
    if (!std::isfinite(opening)) return;
    const auto mesh = motion::mesh_of(*made, opening);
    put(d_.actor_word(door.id), SceneKind::door, mesh, false);
    if (leg->stands == LegStands::both_sides)
      put(say("{}, port", d_.actor_word(door.id)), SceneKind::door, mesh, true);
  }

  void keep_out(const KeepOut& k) {
    motion::Mesh mesh;
    for (const auto& solid : place::solids_of(k)) {
      if (const auto* b = std::get_if<motion::Box>(&solid)) mesh.add(motion::mesh_of(*b));
      if (const auto* c = std::get_if<motion::Cylinder>(&solid)) mesh.add(motion::mesh_of(*c));
      if (const auto* w = std::get_if<motion::Wedge>(&solid)) mesh.add(motion::mesh_of(*w));
      if (const auto* s = std::get_if<motion::SkinAt>(&solid))
        mesh.add(s->skin->mesh().moved(Eigen::Isometry3d(Eigen::Translation3d(s->shift))));
      if (const auto* h = std::get_if<motion::HalfSpace>(&solid))
        plane(*h, (k.high.vec() - k.low.vec()).norm());
    }
    if (mesh.points.empty()) return;
    double across = 0;
    for (const Vec3& p : mesh.points) across = std::max(across, std::abs(p.y()));
    const bool apart =
        std::all_of(mesh.points.begin(), mesh.points.end(), [](const Vec3& p) { return p.y() > 0; });
    for (const bool port : {false, true}) {
      if (port && !apart) continue;  // one that reaches over the middle is its own twin
      put(Text(k.name.empty() ? "keep-out" : k.name), SceneKind::keep_out, mesh, port);
      auto& near = scene_.parts.back().near;
      for (const auto& [obstacle, miss] : near_)
        if (obstacle == k.name && (!near || miss.distance < near->distance)) near = miss;
    }
  }

  //! A plane has no end: a square of it round its point, and the way to its free side.
  void plane(const motion::HalfSpace& h, double size) {
    const Vec3 u = 2 * size * h.normal.unitOrthogonal();
    const Vec3 v = h.normal.cross(u);
    for (const bool port : {false, true}) {
      const auto at = [&](const Vec3& p) { return port ? mirrored(p) : p; };
      const Vec3 corners[]{h.point + u, h.point + v, h.point - u, h.point - v};
      for (size_t i = 0; i < 4; ++i) scene_.lines.push_back({at(corners[i]), at(corners[(i + 1) % 4]), true});
      scene_.lines.push_back({at(h.point), at(h.point + size * h.normal), true});
    }
  }

  //! Half width across, top and bottom up: an oval at each section, joined along.
  template <class Sections>
  void outline(const Sections& sections) {
    constexpr int around = 24;
    std::vector<Vec3> before;
    for (const auto& s : sections) {
      if (!s.x.known() || !s.top.known() || !s.bottom.known() || !s.half_width.known()) continue;
      std::vector<Vec3> ring;
      for (int i = 0; i < around; ++i) {
        const double a = 2 * std::numbers::pi * i / around;
        ring.emplace_back(s.x, s.half_width * std::cos(a),
                          (s.top + s.bottom) / 2 + (s.top - s.bottom) / 2 * std::sin(a));
      }
      for (size_t i = 0; i < ring.size(); ++i) {
        scene_.lines.push_back({ring[i], ring[(i + 1) % ring.size()], false});
        if (!before.empty() && i % 3 == 0) scene_.lines.push_back({before[i], ring[i], false});
      }
      before = std::move(ring);
    }
  }

  const Design& d_;
  const Assessment& a_;
  double share_;
  std::vector<std::pair<std::string, NearMiss>> near_;  //!< obstacle's name, and which part comes near it
  Scene scene_;
};

}  // namespace

Scene scene_of(const Design& d, const Assessment& a, double share) { return Builder(d, a, share).all(); }

std::vector<motion::Mesh> swept(const Leg& leg, double each) {
  const auto made = swing::moving_leg(leg);
  const auto* moving = std::get_if<swing::MovingLeg>(&made);
  if (!moving || !(each > 0)) return {};
  std::vector<motion::Mesh> list;
  const int steps = std::max(1, static_cast<int>(std::ceil(moving->moves.full_turn / each - 1e-9)));
  for (int i = 0; i <= steps; ++i)
    for (const auto& part : moving->parts)
      list.push_back(mesh_at(*moving, part, moving->moves.full_turn * i / steps));
  return list;
}

}  // namespace kranich
