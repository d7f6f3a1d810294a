// SPDX-License-Identifier: GPL-3.0-or-later
//! Parts that could be taken for one place, weighed against each other: how many times what each weighs, what
//! they cost, how far they move the CG. SI. Source: handbook, Weigh.
#pragma once

#include <limits>
#include <string>
#include <vector>

#include "core/model/design.h"

namespace kranich::weigh {

struct PartTotal {
  size_t row;          //!< of Design::parts
  double mass, price;  //!< of all of them; NaN where not known
  //! How far the CG goes aft if these are put in for what lies in the ledger under that name: with the
  //! aircraft's mass m and CG x, what goes out taken out. NaN where station or mass is not known.
  double cg_shift = std::numeric_limits<double>::quiet_NaN();
};
struct PartGroup {
  std::string for_what;
  std::vector<PartTotal> offers;  //!< lightest first, those without a mass behind
  size_t taken = none;            //!< among the offers
  static constexpr size_t none = static_cast<size_t>(-1);
};
//! Groups in the order in which they are listed.
std::vector<PartGroup> part_groups(const Design& design, double mass, double cg_x);

//! Takes an offer: it alone of its group, and into the ledger, in place of the item of the group's name or as
//! a new one. Nothing where its mass is not known.
void take_part(Design& design, size_t row);

}  // namespace kranich::weigh
