// SPDX-License-Identifier: GPL-3.0-or-later
//! Where the aircraft stands and how its views see it.
#pragma once

#include <QPointF>
#include <array>

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

}  // namespace kranich::app
