// SPDX-License-Identifier: GPL-3.0-or-later
//! What a joint is left with: pin in its lugs, bolts or rivets or screws, a glued block, a plate on a soft
//! face, a post to the spar. SI. Source: handbook, Leg.
#pragma once

#include <cmath>
#include <vector>

#include "core/base/say.h"
#include "core/leg/structure.h"

namespace kranich::leg {

//! What a leg puts on a joint in one load case, limit: aircraft axes, N and N·m about the joint's place.
struct JointLoad {
  std::string in_case;
  Vec3 force, moment;
};

//! It holds both legs of a pair: the middle of a bow, a box at the spar.
inline bool on_centre_line(const Joint& joint) {
  constexpr double near = 1e-4;
  return joint.at.y.known() && std::abs(joint.at.y) < near;
}

//! A post's ends: as long as from its place to where it ends on the spar, leaning as much.
struct PostLine {
  double length;      //!< m; as entered where its other end is not
  double lean;        //!< from upright, rad
  double rake, cant;  //!< of its upper end: aft, outboard
};
PostLine post_line(const Joint& post);

//! Stiffness of a post along itself, N/m.
double post_rate(const Joint& post, double youngs_modulus);

//! Share of what presses up that a post carries past the joint beside it: all of it, or by stiffness where
//! that of the bay without it is known.
double share_of_post(const Joint& post, const std::vector<Material>& own);

//! Twist of a plate held at both ends of its longer side under a torque in its middle, rad; as a closed box
//! where it is one. T·L/(4·G·J): a bare plate J = w·t³/3, a box 2·(w·h)²·t/(w + h) (Bredt). NaN where a
//! number is missing.
double mount_twist(const Joint& plate, double torque, double shear_modulus);

//! The worst over all load cases. Fasteners' loads of that case are appended. Assumptions: a stiff plate; the
//! shear of a group by the elastic vector method, its pull about the compressed edge; a block's glue and
//! screws are not added, it holds if one of them alone does.
PartMargin check_joint(const Joint& joint, const std::vector<Material>& own,
                       const std::vector<JointLoad>& loads, double ultimate,
                       std::vector<FastenerLoad>& fasteners);

}  // namespace kranich::leg
