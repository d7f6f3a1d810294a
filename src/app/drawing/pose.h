// SPDX-License-Identifier: GPL-3.0-or-later
//! Where the aircraft stands and how its views see it.
#pragma once

#include <QPointF>
#include <array>
#include <map>
#include <string>
#include <vector>

#include "core/assess/assess.h"
#include "core/place/place.h"

namespace kranich::app {

//! Where the aircraft stands: computed once for all views of a loading, state and gear position.
struct Pose {
  const Design* design = nullptr;
  place::RoundWheel main{}, third{};
  double third_y = 0;
  double pitch = 0;
  double roll = 0;  //!< at rest, starboard down; 0 in the other states
  Vec3 cg{0, 0, 0};
  bool has_cg = false;
  double gear_position = 0;  //!< share of the swing
  //! Where legs stand each by itself, in the order of placed_legs, and their doors (port ones second), rad by
  //! id; empty: all as gear_position says.
  std::vector<double> own_positions;
  std::map<std::string, std::array<double, 2>> own_openings;
  double position_of(size_t which) const {
    return which < own_positions.size() ? own_positions[which] : gear_position;
  }
  //! Each wheel as it stands in the state (down), with the leg's turn about its hinge.
  struct Wheel {
    Vec3 axle{0, 0, 0}, direction{0, 1, 0};
    double radius = 0;
    Mat3 turn = Mat3::Identity();
  };
  std::vector<Wheel> wheels;      //!< in the order of placed_legs
  std::vector<PlacedLeg> placed;  //!< which legs they are
  GearState state = GearState::static_load;
  //! Attitude by which it is drawn; a ghost is drawn by the attitude of the design it is compared with.
  place::RoundWheel stands_on{};
  double drawn_pitch = 0;
  double drawn_roll = 0;

  //! Axle of the leg of an id in its state, down, aircraft axes: of two the starboard one. Unknown where
  //! there is none.
  Vec3 axle_of(const std::string& leg_id) const;
  Vec3 main_axle() const { return axle_of(design->gear.main().id); }
  //! Of the port main leg, the twin of the starboard one where it has no row of its own.
  Vec3 port_axle() const;
  //! Of nose or tail leg; of an aircraft with neither the front line's.
  Vec3 third_axle() const { return {third.x, third_y, third.z}; }
  //! Aircraft axes to the side view's world, and to heights for the front view.
  QPointF side(const Vec3& p) const;
  QPointF front(const Vec3& p) const;
  QPointF plan(const Vec3& p) const;
  //! A move in the side view's world as one in aircraft axes: for handles.
  Vec3 move_from_side(double dx, double dy) const;
  //! A move in the front view's world as one in aircraft axes.
  Vec3 move_from_front(double dx, double dy) const;
  //! Main wheel's contact in the side view.
  QPointF main_contact() const;
  QPointF third_contact() const;
};
Pose pose_of(const Design& design, const LoadingState* loading, GearState state, double gear_position);
//! The same aircraft drawn in another's attitude, so that only what moved differs.
Pose drawn_like(Pose ghost, const Pose& now);

}  // namespace kranich::app
