// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/drawing/pose.h"

#include <cmath>
#include <limits>

#include "core/assess/standing.h"

namespace kranich::app {

QPointF Pose::side(const Vec3& p) const {
  return {p.x() * std::cos(drawn_pitch) + p.z() * std::sin(drawn_pitch), front(p).y()};
}
QPointF Pose::front(const Vec3& p) const {
  const double height = place::height_above_ground(p, stands_on, drawn_pitch);
  return {-p.y() * std::cos(drawn_roll) - height * std::sin(drawn_roll),
          height * std::cos(drawn_roll) - p.y() * std::sin(drawn_roll)};
}
QPointF Pose::plan(const Vec3& p) const { return {p.x(), -p.y()}; }
Vec3 Pose::move_from_side(double dx, double dy) const {
  return {dx * std::cos(drawn_pitch) - dy * std::sin(drawn_pitch), 0,
          dx * std::sin(drawn_pitch) + dy * std::cos(drawn_pitch)};
}
Vec3 Pose::move_from_front(double dx, double dy) const {
  return {0, -dx * std::cos(drawn_roll) - dy * std::sin(drawn_roll),
          dy * std::cos(drawn_roll) - dx * std::sin(drawn_roll)};
}
QPointF Pose::main_contact() const {
  return side({main.x, main_axle().y(), main.z}) - QPointF(0, main.radius);
}
QPointF Pose::third_contact() const { return side(third_axle()) - QPointF(0, third.radius); }

Vec3 Pose::axle_of(const std::string& id) const {
  const size_t row = row_of(design->gear, id);
  for (size_t i = placed.size(); i-- > 0;)
    if (placed[i].row == row) return wheels[i].axle;
  return Vec3::Constant(std::numeric_limits<double>::quiet_NaN());
}

Vec3 Pose::port_axle() const {
  const std::string& id = design->port_leg().id;
  const size_t row = row_of(design->gear, id);
  for (size_t i = 0; i < placed.size(); ++i)
    if (placed[i].row == row && placed[i].port) return wheels[i].axle;
  return axle_of(id);
}

Pose drawn_like(Pose ghost, const Pose& now) {
  ghost.stands_on = now.stands_on;
  ghost.drawn_pitch = now.drawn_pitch;
  ghost.drawn_roll = now.drawn_roll;
  return ghost;
}

Pose pose_of(const Design& d, const LoadingState* loading, GearState state, double gear_position) {
  Pose p;
  p.design = &d;
  p.state = gear_position > 0 ? GearState::extended : state;
  p.gear_position = gear_position;
  const auto wheels = stance::wheels_of(d);
  const LoadingState nothing{"", {}, {}, {}, true};
  const auto* on_legs = std::get_if<std::vector<stance::WheelOnLeg>>(&wheels);
  const Standing s = standing_in(d, on_legs, loading ? *loading : nothing, p.state);
  p.main = s.main;
  p.third = s.third;
  p.placed = placed_legs(d.gear);
  p.wheels.resize(p.placed.size());
  for (size_t i = 0; i < p.placed.size(); ++i) {
    const Leg& leg = d.gear.legs[p.placed[i].row];
    const stance::WheelState* at_rest = loading && loading->rest ? &loading->rest->wheels[i] : nullptr;
    Pose::Wheel& w = p.wheels[i];
    w.radius = radius_in_state(leg, p.state, at_rest);
    if (on_legs) {
      const auto& on = (*on_legs)[i];
      const double q = coordinate_in_state(on, p.state, at_rest);
      const auto at = on.leg.at(q);
      w.axle = at.axle;
      w.direction = at.wheel;
      if (on.leg.path == force::Suspension::Path::hinged) w.turn = turn_about(on.leg.hinge_axis, q);
    } else {
      w.axle = axle_in_state(leg, nullptr, p.state, at_rest);
      if (p.placed[i].port) w.axle = mirrored(w.axle);
    }
  }
  if (d.gear.has_third()) p.third_y = p.axle_of(d.gear.third().id).y();
  if (!std::isfinite(p.main.x) || !std::isfinite(p.main.z) || !std::isfinite(p.main.radius))
    p.main = {0, 0, 0};
  if (loading) {
    p.pitch = s.pitch;
    if (loading->mass.known()) {
      p.cg = loading->mass.down.at + gear_position * (loading->mass.up.at - loading->mass.down.at);
      p.has_cg = true;
    }
  } else if (const auto pitch = place::pitch_on(p.third, p.main)) {
    p.pitch = *pitch;
  }
  if (!std::isfinite(p.pitch)) p.pitch = 0;
  p.stands_on = p.main;
  p.drawn_pitch = p.pitch;
  if (p.state == GearState::static_load && loading && loading->rest && std::isfinite(loading->rest->roll))
    p.roll = p.drawn_roll = loading->rest->roll;
  return p;
}

}  // namespace kranich::app
