// SPDX-License-Identifier: GPL-3.0-or-later
//! What a leg's parts are left with, and the jig's figures: part of an Assessment.
#pragma once

#include <string>
#include <variant>

#include "core/assess/assess.h"
#include "core/leg/geometry.h"
#include "core/leg/structure.h"

namespace kranich {

//! A leg's load cases and what its parts are left with.
struct LegStrength {
  std::string leg;  //!< its id
  leg::LoadCases cases;
  leg::Structure structure;
};

//! The jig's figures for a design, or what is missing for them. Lengths in m.
struct JigFigures {
  leg::Jig jig;
  double behind;         //!< of the point that the diagonals run to, behind the axle line
  double overall_width;  //!< over the axle tips
};
std::variant<JigFigures, Text> jig_of(const Design& design);

}  // namespace kranich
