// SPDX-License-Identifier: GPL-3.0-or-later
//! How a door is moved by a crank and a rod, in any directions of crank axis and hinge: its angle, how well
//! the rod pushes, where it locks or turns back; and linkages made for matched positions. SI, rad, turns
//! right-handed about the directions given, from closed. Source: handbook, Doors.
#pragma once

#include <optional>
#include <vector>

#include "core/motion/linkage.h"

namespace kranich::doors {

struct DoorLinkage {
  motion::Axis crank, hinge;
  Vec3 crank_ball, door_ball;  //!< closed
  double rod() const { return (crank_ball - door_ball).norm(); }
};

//! Door's turn at a crank's turn, on the branch that starts closed; NaN where the linkage has locked.
double door_turn(const DoorLinkage& linkage, double crank);
//! dφ/dθ there; infinite where it locks.
double door_rate(const DoorLinkage& linkage, double crank);
//! How squarely the rod meets the way of the door's ball: asin|l·t|, 0 … π/2; 0: it cannot move the door.
double transmission_angle(const DoorLinkage& linkage, double crank);

//! The same of any rod's end that pushes a ball on a hinged door.
double squareness(const motion::Axis& hinge, const Vec3& door_ball, const Vec3& other_end);

struct LeastTransmission {
  double angle, crank;
};
//! The least between closed and a crank's turn.
LeastTransmission least_transmission(const DoorLinkage& linkage, double open);

//! What ends the door's way when the crank goes on.
enum class Ends { nothing, locks, turns_back };
struct LinkageEnd {
  Ends what = Ends::nothing;
  double crank = 0;  //!< turn at which it does
};
//! The first of them from closed on, in the sense of `towards`, within a full turn.
LinkageEnd end_of(const DoorLinkage& linkage, double towards);

//! Travel of the door gained for each metre that the crank's axis is moved along a direction, rod and arms as
//! they are and the door closed at the same place: a bracket put too far back.
double gain_of_bracket(const DoorLinkage& linkage, double open, const Vec3& along);

//! A plane four-bar: crank pivot at the origin, door pivot at (distance, 0); arms a and b from there by their
//! angles, a rod between their ends. Negative arms point the other way.
struct FourBar {
  double crank_arm, door_arm, rod;
};
//! The linkage that passes three matched pairs of angles: (d/a)·cos φ − (d/b)·cos θ + K = cos(θ − φ) is
//! linear in its three ratios. Nothing where they do not fix one, or no rod has that length.
std::optional<FourBar> through_three(double distance, const std::vector<double>& crank,
                                     const std::vector<double>& door);
//! The same for two pairs and the crank's arm given.
std::optional<FourBar> through_two(double distance, const std::vector<double>& crank,
                                   const std::vector<double>& door, double crank_arm);
//! Largest misfit of a four-bar's rod over matched pairs, m.
double misfit(const FourBar& bar, double distance, const std::vector<double>& crank,
              const std::vector<double>& door);
//! Whether the crank, turned from the first of its angles to the last, carries the door through all of them
//! in order without a change of branch.
bool keeps_branch(const FourBar& bar, double distance, const std::vector<double>& crank,
                  const std::vector<double>& door);

}  // namespace kranich::doors
