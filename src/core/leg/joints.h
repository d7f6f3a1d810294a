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

//! The worst over all load cases. Fasteners' loads of that case are appended. Assumptions: a stiff plate; the
//! shear of a group by the elastic vector method, its pull about the compressed edge; a block's glue and
//! screws are not added, it holds if one of them alone does.
PartMargin check_joint(const Joint& joint, const std::vector<Material>& own,
                       const std::vector<JointLoad>& loads, double ultimate,
                       std::vector<FastenerLoad>& fasteners);

}  // namespace kranich::leg
