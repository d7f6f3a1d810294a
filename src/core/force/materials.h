// SPDX-License-Identifier: GPL-3.0-or-later
//! Materials of legs, fasteners and what they are fixed to: a table of typical values that the builder's own
//! entries stand before. SI. Typical values are for planning: confirm with your supplier.
#pragma once

#include <string_view>
#include <vector>

#include "core/force/frame.h"
#include "core/model/workshop.h"

namespace kranich::force {

//! The table that ships, every value of origin default.
const std::vector<Material>& typical_materials();

//! The material of a name: the builder's own first, then the typical ones; null where neither knows it.
const Material* find_material(const std::vector<Material>& own, std::string_view name);

//! Every name that can be put in an entry, the builder's own first.
std::vector<std::string> material_names(const std::vector<Material>& own);

//! What a part of a material may be stressed to, Pa.
struct Allowable {
  double yield;     //!< at the limit load: no lasting set
  double ultimate;  //!< at the ultimate load: no break
  double shear;     //!< at the ultimate load
  double bearing;   //!< at the ultimate load, on a hole's side
};
//! Spring wire follows its diameter, S_ut = A/d^m, elastic in bending to three quarters of it; a printed part
//! is derated by `across` where the load pulls its layers apart; a laminate by its strain times its modulus.
//! NaN where the table has no value. `size`: wire diameter (m), NaN otherwise.
Allowable allowable_of(const Material& material, double size, bool across_layers);

//! Stiffness for the frame; the shear modulus of an isotropic material with ν 0.3, of a laminate or wood
//! E/16.
Elastic stiffness_of(const Material& material);

}  // namespace kranich::force
