// SPDX-License-Identifier: GPL-3.0-or-later
//! The aircraft to scale, seen from the side, from ahead and from above, in its loading and state.
//! World coordinates of the views (m): side (along the ground aft, from below the datum; height above
//! ground); front (to starboard on the left as one stands before it, height above ground); plan (station aft,
//! starboard down).
#pragma once

#include <QPolygonF>
#include <QRectF>
#include <array>
#include <functional>

#include "app/drawing/sheet.h"
#include "core/assess/assess.h"

namespace kranich::app {

//! Where the aircraft stands: computed once for all views of a loading, state and gear position.
struct Pose {
  const Design* design = nullptr;
  place::RoundWheel main{}, third{};
  double pitch = 0;
  Vec3 cg{0, 0, 0};
  bool has_cg = false;
  double gear_position = 0;  //!< share of the swing
  //! Each wheel as it stands in the state (down), with the leg's turn about its hinge.
  struct Wheel {
    Vec3 axle{0, 0, 0}, direction{0, 1, 0};
    double radius = 0;
    Mat3 turn = Mat3::Identity();
  };
  std::array<Wheel, 3> wheels;  //!< third, port, starboard
  GearState state = GearState::static_load;
  //! Attitude by which it is drawn; a ghost is drawn by the attitude of the design it is compared with.
  place::RoundWheel stands_on{};
  double drawn_pitch = 0;

  Vec3 main_axle() const { return wheels[2].axle; }  //!< starboard, aircraft axes, in its state, down
  Vec3 port_axle() const { return wheels[1].axle; }
  Vec3 third_axle() const { return wheels[0].axle; }
  //! Aircraft axes to the side view's world, and to heights for the front view.
  QPointF side(const Vec3& p) const;
  QPointF front(const Vec3& p) const;
  QPointF plan(const Vec3& p) const;
  //! A move in the side view's world as one in aircraft axes: for handles.
  Vec3 move_from_side(double dx, double dy) const;
  //! Main wheel's contact in the side view.
  QPointF main_contact() const;
  QPointF third_contact() const;
};
Pose pose_of(const Design& design, const LoadingState* loading, GearState state, double gear_position);
//! The same aircraft drawn in another's attitude, so that only what moved differs.
Pose drawn_like(Pose ghost, const Pose& now);

enum class Look { full, ghost, pinned };

QRectF side_bounds(const Pose& pose);
QRectF front_bounds(const Pose& pose);
QRectF plan_bounds(const Pose& pose);

void draw_side(Sheet& sheet, const Pose& pose, Look look = Look::full);
void draw_front(Sheet& sheet, const Pose& pose, Look look = Look::full);
void draw_plan(Sheet& sheet, const Pose& pose, Look look = Look::full);

//! Any view of aircraft axes as a flat world.
using Map = std::function<QPointF(const Vec3&)>;
//! A leg (starboard or third) extended, at a share of its swing, in a colour: the poses of a swing.
void draw_swung_leg(Sheet& sheet, const Leg& leg, double share, const Map& map, const QColor& leg_colour,
                    const QColor& tyre_colour, const QColor& outline);

//! Keep-outs of the airframe and the bodies of the retract units, both sides, in any view; those that overlap
//! stand out.
void draw_keep_outs(Sheet& sheet, const Design& design, const Map& map);

//! Leading edge and chord of the wing's mean chord line in the side view: for angles drawn at the wing.
QPolygonF wing_section(const Pose& pose, double y);

}  // namespace kranich::app
