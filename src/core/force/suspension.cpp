// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/force/suspension.h"

#include <cmath>
#include <optional>

#include "core/force/bent_leg.h"
#include "core/model/lacking.h"
#include "core/motion/retract.h"
#include "core/motion/suspend.h"

namespace kranich::force {

namespace {

//! Turns vectors about one axis by one angle (Rodrigues), its sine and cosine taken once.
struct Turner {
  Vec3 axis;
  double s, c;
  Turner(const Vec3& u, double angle) : axis(u), s(std::sin(angle)), c(std::cos(angle)) {}
  Vec3 operator()(const Vec3& v) const { return c * v + s * axis.cross(v) + (1 - c) * axis.dot(v) * axis; }
};

Suspension::Closure closure_of(const Suspension& l, double q, const Turner& turn) {
  if (l.path != Suspension::Path::hinged || l.acts == Suspension::Acts::at_hinge) return {q, 1, 0};
  const bool axle = l.acts == Suspension::Acts::at_axle;
  const Vec3 arm = turn((axle ? l.axle : l.anchor_leg) - l.hinge);
  const Vec3 along = l.hinge_axis.cross(arm);
  const Vec3 bend = l.hinge_axis.cross(along);
  if (axle) return {l.hinge.z() + arm.z() - l.axle.z(), along.z(), bend.z()};
  const Vec3 line = l.hinge + arm - l.anchor_airframe;
  const double length = line.norm();
  const double length_1 = line.dot(along) / length;
  const double length_2 = (along.squaredNorm() + line.dot(bend) - length_1 * length_1) / length;
  const double before = (l.anchor_leg - l.anchor_airframe).norm();
  const double sign = l.acts == Suspension::Acts::pulled ? 1 : -1;
  return {sign * (length - before), sign * length_1, sign * length_2};
}

}  // namespace

Suspension::Closure Suspension::closure(double q) const {
  return closure_of(*this, q, Turner(hinge_axis, q));
}

Suspension::At Suspension::at(double q) const {
  At a{};
  if (path == Path::straight) {
    const auto [f, f_1] = law.both(q);
    a.force = f;
    a.slope = f_1;
    a.axle = axle + Vec3(0, 0, q);
    a.axle_1 = Vec3::UnitZ();
    a.axle_2 = Vec3::Zero();
    a.wheel = wheel_axis;
    a.wheel_1 = a.wheel_2 = Vec3::Zero();
    return a;
  }
  if (path == Path::bending) {
    const auto [f, f_1] = law.both(q);
    a.force = f;
    a.slope = f_1;
    a.axle = axle + q * moved_per_rise;
    a.axle_1 = moved_per_rise;
    a.axle_2 = Vec3::Zero();
    const double rate = turned_per_rise.norm();
    a.wheel = rate > 0 ? Turner(turned_per_rise / rate, rate * q)(wheel_axis) : wheel_axis;
    a.wheel_1 = turned_per_rise.cross(a.wheel);
    a.wheel_2 = turned_per_rise.cross(a.wheel_1);
    return a;
  }
  const Turner turn(hinge_axis, q);
  const Closure c = closure_of(*this, q, turn);
  const auto [f, f_1] = law.both(c.s);
  a.force = f * c.s_1;
  a.slope = f_1 * c.s_1 * c.s_1 + f * c.s_2;
  const Vec3 arm = turn(axle - hinge);
  a.axle = hinge + arm;
  a.axle_1 = hinge_axis.cross(arm);
  a.axle_2 = hinge_axis.cross(a.axle_1);
  a.wheel = turn(wheel_axis);
  a.wheel_1 = hinge_axis.cross(a.wheel);
  a.wheel_2 = hinge_axis.cross(a.wheel_1);
  return a;
}

double Suspension::energy(double q) const { return law.energy(closure(q).s); }

double Suspension::wheel_rate(double q) const {
  // F_z = G/z′ with z the axle's height: dF_z/dz = (G′·z′ − G·z″)/z′³.
  const At a = at(q);
  const double z1 = a.axle_1.z();
  return (a.slope * z1 - a.force * a.axle_2.z()) / (z1 * z1 * z1);
}

Suspension straight_leg(const Vec3& axle, const LegLaw& law) {
  Suspension s;
  s.axle = axle;
  s.law = law;
  s.most = law.kind == LegLaw::Kind::rigid ? 0 : law.travel;
  return s;
}

Suspension mirrored(Suspension s) {
  for (Vec3* v : {&s.axle, &s.hinge, &s.anchor_airframe, &s.anchor_leg}) *v = kranich::mirrored(*v);
  // Directions of turning mirror the other way round.
  s.hinge_axis = Vec3(-s.hinge_axis.x(), s.hinge_axis.y(), -s.hinge_axis.z());
  s.wheel_axis = Vec3(-s.wheel_axis.x(), s.wheel_axis.y(), -s.wheel_axis.z());
  s.moved_per_rise = kranich::mirrored(s.moved_per_rise);
  s.turned_per_rise = Vec3(-s.turned_per_rise.x(), s.turned_per_rise.y(), -s.turned_per_rise.z());
  return s;
}

std::variant<Suspension, Text> suspension_of(const Leg& leg, const std::vector<Material>& own) {
  const bool between_anchors = leg.path != LegPath::straight && leg.spring.kind != SpringKind::linear &&
                               leg.spring.kind != SpringKind::leaf &&
                               leg.spring.kind != SpringKind::bending && leg.travel > 0;
  Lacking lacks(leg_root(leg.id));
  lacks.place(leg.axle, "axle", "the place of the axle");
  if (leg.spring.kind == SpringKind::bending) {
    const auto chain = bending_leg_of(leg, own);
    const auto* missing = std::get_if<Text>(&chain);
    lacks.that(missing, missing ? *missing : Text())
        .that(!missing && !leg.travel.known(),
              "the strength of the leg's material: its travel follows from it");
  } else {
    Text missing = lacking_of_spring(leg);
    lacks.that(!missing.empty(), missing);
  }
  if (leg.path != LegPath::straight) lacks.place(leg.hinge, "hinge", "the place of the hinge");
  if (between_anchors)
    lacks.place(leg.spring.anchor_airframe, "spring/anchor_airframe", "the spring's anchor on the airframe")
        .place(leg.spring.anchor_leg, "spring/anchor_leg", "the spring's anchor on the leg");
  if (!lacks.nothing()) return lacks.text();
  Suspension s;
  s.axle = leg.axle.vec();
  if (!between_anchors) {
    auto law = leg_law(leg);
    if (const auto* missing = std::get_if<Text>(&law)) return *missing;
    s = straight_leg(leg.axle.vec(), std::get<LegLaw>(law));
  }
  s.wheel_axis = motion::axle_direction(leg);
  if (leg.spring.kind == SpringKind::bending) {
    const auto chain = bending_leg_of(leg, own);
    if (const auto* missing = std::get_if<Text>(&chain)) return *missing;
    const auto stiffness = stiffness_at_wheel(std::get<BendingLeg>(chain));
    if (!stiffness) return std::string("a leg that the load can bend");
    s.path = Suspension::Path::bending;
    s.law.kind = LegLaw::Kind::linear;
    s.law.rate = stiffness->vertical_rate;
    s.moved_per_rise = stiffness->moved_per_rise;
    s.turned_per_rise = stiffness->turned_per_rise;
    s.most = leg.travel;
    return s;
  }
  const bool needs_hinge = leg.spring.kind == SpringKind::leaf || leg.spring.kind == SpringKind::cord;
  if (leg.path == LegPath::straight) {
    if (needs_hinge && s.most > 0)
      return std::string("a hinge: a leaf or a cord needs a leg that is hinged, not straight");
    return s;
  }
  const auto axis = motion::hinge_axis(leg);
  if (!axis)
    return std::string(leg.path == LegPath::hinged_fore_and_aft
                           ? "an axle that lies outboard of its hinge line"
                           : "an axle that lies ahead of or behind its hinge line");
  s.path = Suspension::Path::hinged;
  s.hinge = axis->point;
  s.hinge_axis = axis->direction;
  s.most = 0;
  if (leg.travel > 0) {
    const auto most = motion::turn_to_rise(*axis, s.axle, leg.travel);
    // Near the top of its circle the axle hardly rises any more: nothing that a leg is built to.
    const double reach = axis->direction.cross(s.axle - s.hinge).norm();
    if (!most || s.axle.z() - s.hinge.z() + leg.travel > reach * std::sin(radians(75)))
      return std::string("a travel that the hinged leg can make");
    s.most = *most;
  }
  switch (leg.spring.kind) {
    case SpringKind::linear:
      s.acts = Suspension::Acts::at_axle;
      return s;
    case SpringKind::leaf:
      s.acts = Suspension::Acts::at_hinge;
      return s;
    case SpringKind::coil:
    case SpringKind::gas:
    case SpringKind::cord:
    case SpringKind::gas_strut:
    case SpringKind::pucks:
    case SpringKind::bending:
      break;
  }
  s.anchor_airframe = leg.spring.anchor_airframe.vec();
  s.anchor_leg = leg.spring.anchor_leg.vec();
  // How far the spring closes follows from the anchors, and so does its ratio to the axle's rise.
  s.acts = leg.spring.kind == SpringKind::cord ? Suspension::Acts::pulled : Suspension::Acts::pushed;
  auto between = leg_law(leg, s.closure(s.most).s);
  if (const auto* missing = std::get_if<Text>(&between)) return *missing;
  s.law = std::get<LegLaw>(std::move(between));
  const double installed = (s.anchor_leg - s.anchor_airframe).norm();
  if (leg.spring.kind == SpringKind::cord) {
    s.acts = Suspension::Acts::pulled;
    const double stretch = installed - leg.spring.cord.free_length;
    if (stretch < 0) return "a cord no longer than the way between its anchors";
    for (auto& [closure, force] : s.law.curve) closure -= stretch;
    if (s.closure(s.most).s_1 <= 0 || s.closure(0).s_1 <= 0)
      return "anchors between which the cord is stretched all the way up";
  } else {
    s.acts = Suspension::Acts::pushed;
    if (s.closure(s.most).s_1 <= 0 || s.closure(0).s_1 <= 0)
      return "anchors between which the spring is pushed together all the way up";
    if (s.law.kind == LegLaw::Kind::gas && s.law.piston_area * s.closure(s.most).s >= 0.98 * s.law.volume)
      return "a gas volume that lasts to the end of the travel";
  }
  return s;
}

}  // namespace kranich::force
