// SPDX-License-Identifier: GPL-3.0-or-later
//! A leg's members as a space frame: its tubes, or its one strut with what holds it (a clamp, a folding
//! brace, a hinge and its spring, a fixed strut above the hinge). SI; starboard leg, aircraft axes.
//!
//! Assumptions: tubes held in place but free to turn at the airframe; one strut clamped at its top, or hinged
//! there and held by its brace; an arm free about its hinge and held by the spring between its anchors. A
//! spring whose upper anchor lies beside the fixed strut hangs on that, else on the airframe; one without
//! anchors (a torsion spring, a plain rate) passes its moment through the hinge. Source: handbook, Leg.
#pragma once

#include <array>
#include <string>
#include <vector>

#include "core/base/say.h"
#include "core/force/frame.h"
#include "core/force/materials.h"
#include "core/leg/strength.h"
#include "core/model/design.h"

namespace kranich::leg {

//! A section of a member: round with a wall, or a rectangle with its width fore and aft and a round hole
//! along it.
struct MemberSection {
  force::BeamSection beam;
  double outer, wall;       //!< round
  double width, thickness;  //!< rectangle
  double bore;              //!< hole along a rectangle, 0 none
  bool round;
  bool streamlined = false;  //!< width and thickness are those of the rectangle round it
  //! von Mises, the largest in the section.
  double stress(const SectionLoad& load) const;
};
MemberSection round_member(double outer, double wall);
//! A hole is taken off area and stiffness at the middle.
MemberSection rectangular_member(double width, double thickness, double bore);
MemberSection streamlined_member(double width, double thickness);

//! One piece of a member.
struct Member {
  std::string part;
  size_t beam;
  std::array<MemberSection, 2> ends;  //!< at the beam's upper and lower end
  force::Allowable allowed;
  double modulus;
  bool is_column;  //!< pin-ended: may buckle
};

struct LegFrame {
  force::Frame frame;
  std::vector<Member> members;
  int wheel = 0, foot = 0;  //!< nodes
  Text missing;             //!< what it lacks; then nothing else counts
};

//! The frame of a leg that does not bend by itself. A wheel beside its line hangs on the axle.
LegFrame frame_of(const Design& design, const Leg& leg);

}  // namespace kranich::leg
