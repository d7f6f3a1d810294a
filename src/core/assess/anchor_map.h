// SPDX-License-Identifier: GPL-3.0-or-later
//! Where an end of an actuator or cylinder may stand: its least arm, its force in hand, its stroke, its rod
//! as a column and the room of its body as fields over the plane in which that end is drawn. At the end's own
//! place they agree with the checks of Drive. SI, rad, aircraft axes, leg down. Source: handbook, Drive.
#pragma once

#include <Eigen/Geometry>
#include <array>
#include <limits>
#include <optional>
#include <string_view>
#include <variant>
#include <vector>

#include "core/base/field_map.h"
#include "core/base/say.h"
#include "core/drive/load.h"
#include "core/drive/machines.h"
#include "core/model/design.h"
#include "core/motion/shape.h"

namespace kranich {

enum class AnchorEnd { airframe, leg };

//! The body of a drive, a round bar along the line between its ends from the one on the airframe on, against
//! keep-outs of both sides.
class DriveBody {
 public:
  DriveBody(const Design& design, const DriveSold& sold);
  //! Whether its size is known and anything stands about.
  bool known() const { return std::isfinite(length_) && beside_anything(); }
  bool beside_anything() const { return !solids_.empty(); }
  //! Least distance with its ends there.
  double room(const Vec3& on_airframe, const Vec3& on_leg) const;

 private:
  double length_, radius_;
  std::vector<motion::Obstacle> solids_;
};

//! What an end's place comes to; NaN what is not known or does not apply.
struct AnchorFigures {
  static constexpr double unknown = std::numeric_limits<double>::quiet_NaN();
  double arm = unknown;     //!< least over the travel; below zero past a dead centre
  double force = unknown;   //!< share in hand at the worst turn, both ways, in the air and on jacks
  double stroke = unknown;  //!< left over
  double column = unknown;  //!< share in hand of the rod against bowing out
  double room = unknown;    //!< of its body, at both ends of the travel
  double largest_arm = unknown, range = unknown;
};

struct AnchorBoundary {
  std::string_view measure;  //!< of Drive; empty: room
  Text name;
  std::vector<MapCurve> curves;  //!< m from the end's present place, what fails to their left
};
struct AnchorMap {
  MapArea area;  //!< m from the end's present place
  std::vector<AnchorBoundary> boundaries;
  std::vector<MapPolygon> clear;  //!< no limit violated
  std::vector<MapPolygon> easy;   //!< and none tight
  bool in_the_clear = false;
  std::optional<Eigen::Vector2d> nearest;  //!< of the clear, where the end stands outside
  Text not_judged;                         //!< limits that lack a number, by name; empty: all are judged
  //! The way in which ten millimetres gain most force in hand, and how much (share); nothing where force is
  //! not known or there is a dead centre.
  struct Worth {
    Eigen::Vector2d way;
    double gain;
  };
  std::optional<Worth> worth;
};

class AnchorModel {
 public:
  //! `across`: the plane's level direction, unit; its other one is up. Or what is missing.
  static std::variant<AnchorModel, Text> of(const Design& design, const Leg& leg, AnchorEnd end,
                                            const Vec3& across);
  //! With the end moved by so much in the plane.
  AnchorFigures at(const Eigen::Vector2d& moved) const;
  //! Over a square about the present place, as wide as the drive is long.
  AnchorMap map(int nodes = 40) const;
  Vec3 place(const Eigen::Vector2d& moved) const {
    return here_ + moved.x() * across_ + Vec3(0, 0, moved.y());
  }

 private:
  AnchorModel(const Design& design, const DriveSold& sold) : body_(design, sold) {}
  static constexpr size_t turns = 96;
  //! What the drive does to the leg at one turn: where what hangs on it is, and the torque it must give.
  struct Turn {
    Eigen::Isometry3d pose;
    std::array<double, 2> up, down;  //!< in the air, on jacks; towards stowed
  };
  std::vector<Turn> turns_;
  motion::Axis axis_;
  drive::Strut strut_;
  AnchorEnd end_ = AnchorEnd::airframe;
  Vec3 here_, across_;
  double push_ = AnchorFigures::unknown, pull_ = AnchorFigures::unknown, stroke_ = AnchorFigures::unknown;
  std::optional<drive::HydraulicCylinder> cylinder_;
  DriveBody body_;
  std::vector<OwnLimit> own_;  //!< the user's
};

}  // namespace kranich
