// SPDX-License-Identifier: GPL-3.0-or-later
//! The sheets that go to the bench: jig, cut list, hardware, lay-up, plates, copes, outlines, bending plan,
//! well, steps. Each from the design and its assessment, or what is missing for it. Source: handbook, Leg.
#pragma once

#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "core/assess/assess.h"
#include "core/base/say.h"
#include "core/leg/geometry.h"
#include "core/shop/drawing.h"

namespace kranich::shop {

struct Sheet {
  std::string id;  //!< "jig", "cope:rear leg": stable
  std::string title;
  std::variant<Drawing, Text> drawing;  //!< or what is missing for it
  bool ready() const { return std::holds_alternative<Drawing>(drawing); }
};

//! Every sheet that makes sense for this design's legs. `state` says loading and state of the gear on screen.
std::vector<Sheet> shop_sheets(const Design& design, const Assessment& assessment, const std::string& state);

//! A sheet's id as a file's name without its end: small letters, digits, dashes.
std::string file_name(const Sheet& sheet);

//! A member of a leg in its true place: a tube, or the one strut. Lengths m, angles rad.
struct MemberLine {
  std::string leg, name, material;
  double diameter, wall;    //!< NaN where not given
  double width, thickness;  //!< of a rectangle; NaN of what is round
  Vec3 line;                //!< from top to foot
  leg::TubeGeometry geometry;
  double drill_top;   //!< acute angle to the hinge or pivot line; of a fixed leg to the face it is held on
  double drill_axle;  //!< to the axle
  //! Of a round member that turns on a pin: from the pin's hole to the axle's, round the tube as seen from
  //! its upper end, clockwise, to starboard (to port the other way); within ±90°. NaN of any other.
  double clocking;
  int count;  //!< both sides
};
std::vector<MemberLine> members_of(const Design& design);

//! Where a bent wire is bent: along the straight wire (start of the bend), by how much, and turned against
//! the bend before. m and rad.
struct WireBend {
  double start, angle, turned, radius;
};
struct BendingPlan {
  std::vector<WireBend> bends;
  double length;  //!< of the straight wire, without spare
};
//! Inside radius of a bend twice the wire; the neutral line in the middle of the wire.
BendingPlan bending_plan(const std::vector<Vec3>& line, double wire_diameter);

//! A leaf or bow laid flat. Its faces hold the direction of its width (force::width_direction), so that it
//! bends about lines along that only and unrolls without strain: along the strip goes the way square to it.
//! m and rad.
struct FlatPoint {
  double along;  //!< from the clamp
  double aside;  //!< of its middle, aft (or to starboard) of the clamp's: a raked leg's strip is not straight
  double width, thickness;
};
struct FlatBend {
  double along;   //!< of its middle, from the clamp
  double angle;   //!< of the bend; up at the outer end positive
  double radius;  //!< inside
};
struct FlatStrip {
  std::vector<FlatPoint> points;
  std::vector<FlatBend> bends;
  double middle;  //!< of a leaf that runs across under the fuselage, from the centre line to the clamp
};
//! `radii`: inside radius over thickness of each bend; the middle of the thickness keeps its length. 0:
//! corners, as cloth is cut. With a middle the first bend is at the clamp, against the level. Nothing where a
//! place, width or thickness is missing.
std::optional<FlatStrip> flat_strip(const BentLeg& leg, const std::vector<double>& thickness, double radii);

}  // namespace kranich::shop
