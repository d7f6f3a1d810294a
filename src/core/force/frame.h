// SPDX-License-Identifier: GPL-3.0-or-later
//! One solver for all that bends: a space frame of straight beam elements (Euler–Bernoulli with axial force
//! and torsion), small deflections. SI. Axes as the aircraft's: x aft, y to starboard, z up. Source: textbook
//! direct stiffness; a sprung joint at an element's end is condensed exactly.
#pragma once

#include <array>
#include <optional>
#include <vector>

#include "core/base/geometry.h"

namespace kranich::force {

//! Stiffness of a material.
struct Elastic {
  double youngs_modulus, shear_modulus;  //!< Pa
};

//! A section's figures. `first` bends about the element's own first axis, `second` about its second one.
struct BeamSection {
  double area, first, second, torsion;  //!< m2, m4, m4, m4
};
BeamSection round_section(double diameter);
BeamSection tube_section(double outer_diameter, double wall);
//! Rectangle: `thickness` in the plane that first bends, `width` across it.
BeamSection leaf_section(double width, double thickness);

//! A streamlined section, the front two fifths half an ellipse, the rest a parabola: `thickness` in the plane
//! that first bends, `chord` across it. A = 0.714·c·t, I = 0.510·c·t³/12 and 0.474·t·c³/12, exact; torsion
//! A⁴/(40·I_p), de Saint-Venant's.
BeamSection streamlined_section(double chord, double thickness);
//! Section moduli of it over those of the rectangle round it: bent across its thickness, and along its chord.
inline constexpr double streamlined_modulus = 0.510, streamlined_edge_modulus = 0.4318;
inline constexpr double streamlined_area = 0.714;

struct Beam {
  int from, to;
  BeamSection section;
  Elastic material;
  //! The direction about which `first` bends; its part square to the beam counts. A round section needs none.
  Vec3 first_axis = Vec3::UnitX();
  //! A sprung joint at the start: free about the axis but for the rate (N·m/rad), stiff otherwise.
  struct Joint {
    Vec3 axis;
    double rate;
  };
  std::optional<Joint> joint;
};

struct NodeLoad {
  int node;
  Vec3 force, moment{0, 0, 0};
};

//! Inner forces at a beam's two ends: tension positive, moments about its own axes.
struct BeamEnds {
  double tension;
  std::array<double, 2> torque, about_first, about_second;  //!< at from, at to; magnitudes keep their sign
};

struct FrameResult {
  std::vector<Vec3> moved, turned;  //!< of each node
  std::vector<BeamEnds> beams;
  double strain_energy;  //!< ½·Σ load·deflection
};

struct Frame {
  std::vector<Vec3> nodes;
  std::vector<Beam> beams;
  std::vector<int> clamped;  //!< nodes held in all six directions
  std::vector<int> pinned;   //!< nodes held in place, free to turn

  using Loads = std::vector<NodeLoad>;
  //! Nothing where it is a mechanism.
  std::optional<FrameResult> solve(const Loads& loads) const;
  //! Several load cases with one factorisation.
  std::optional<std::vector<FrameResult>> solve_each(const std::vector<Loads>& cases) const;
  //! Deflection of a node per unit force, x, y, z, the node free to turn.
  std::optional<Mat3> flexibility(int node) const;
};

}  // namespace kranich::force
