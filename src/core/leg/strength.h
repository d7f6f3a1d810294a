// SPDX-License-Identifier: GPL-3.0-or-later
//! Leg: stresses of tubes, pins, bolts and glued blocks. SI. Figures are for planning: structure that carries
//! people is a licensed engineer's or inspector's to decide. Source: handbook, Leg.
#pragma once

#include <vector>

#include "core/base/geometry.h"
#include "core/force/frame.h"

namespace kranich::leg {

//! What one section carries.
struct SectionLoad {
  double axial;                         //!< N, tension positive
  double bending_1, bending_2, torque;  //!< N·m
};
//! Round bar or tube (wall: half the diameter for a bar): σ = |P|/A + √(M₁² + M₂²)·r/I, τ = T·r/J.
struct RoundStress {
  double normal, shear, von_mises;
  double margin(double yield) const { return 1 - von_mises / yield; }
};
RoundStress round_stress(double outer_diameter, double wall, const SectionLoad& load);

//! A straight leg clamped at its top under a force applied beside its foot.
struct FootLoad {
  double length, axial, bending, torque;  //!< at the top; axial compression negative
};
FootLoad load_at_top(const Vec3& top, const Vec3& foot, const Vec3& applied_at, const Vec3& force);

//! Pin through an inner lug between two outer ones (two shear planes; one plane: inner against one outer).
struct PinStress {
  double shear, inner_bearing, outer_bearing;
};
PinStress pin_stress(double load, double diameter, int planes, double inner_thickness,
                     double each_outer_thickness);

struct Bolt {
  double x, y, diameter;
};
//! Loads of a group under an eccentric force by the elastic vector method: in proportion to bolt area and to
//! area times distance from the areas' centre.
std::vector<double> bolt_group(const std::vector<Bolt>& bolts, double force_x, double force_y, double at_x,
                               double at_y);

struct BlockScrews {
  double from_compressed_edge;
  int count;
};
//! A block glued and screwed to a face: drag at a distance from it, a pull at its middle. Glue and screws are
//! not added; it holds if one of them alone does.
struct BlockPull {
  double moment, glue_peak, glue_shear, largest_screw_pull;
};
BlockPull block_pull(double length, double width, double drag, double drag_arm, double pull,
                     const std::vector<BlockScrews>& screws);

}  // namespace kranich::leg
