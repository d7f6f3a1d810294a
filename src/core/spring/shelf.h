// SPDX-License-Identifier: GPL-3.0-or-later
//! Choosing a spring from a shelf for a leg: each offer is the leg with it fitted, tried as the leg is, then
//! ranked. Coils, gas struts, cords, wire, sheet and cloth go the same way. SI.
#pragma once

#include <string>
#include <vector>

#include "core/base/say.h"
#include "core/model/workshop.h"

namespace kranich::spring {

//! The leg with one thing of the shelf fitted.
struct Offer {
  std::string name, remark;
  Text size;
  Text buy;  //!< what to buy for the aircraft, in words
  Leg leg;
};

struct Need {
  double static_load;  //!< on the wheel, N
  double sag_low = 0.25, sag_high = 0.40;
};

struct Candidate {
  size_t index;                  //!< among the offers
  bool fits = true;              //!< goes in, and lasts to the stop
  double preload = 0, rate = 0;  //!< at the wheel along z, extended, N and N/m
  double sag = 0;                //!< share of the travel
  double margin =
      std::numeric_limits<double>::quiet_NaN();  //!< strength left at the stop; NaN where it has none
  double energy = 0;                             //!< at the wheel over the travel, J
  double peak = 0;                               //!< wheel force at the stop, N
  Text objection;                                //!< what speaks against it, empty where nothing does
  double score = 0;                              //!< less is better
};

//! Tries every offer; those without objection first, then by how far the sag lies from the middle of the
//! band.
std::vector<Candidate> rank_offers(const std::vector<Offer>& offers, const std::vector<Material>& own,
                                   const Need& need);

//! An item of a shelf as it is read: what a spring of it is made from.
struct ShelfItem {
  std::string name, remark;
  Coil coil;             //!< SpringKind::coil
  GasStrut strut;        //!< SpringKind::gas_strut
  Cord cord;             //!< SpringKind::cord: strands and free length left open
  Pucks pucks;           //!< SpringKind::pucks: count and assembled length left open
  double thickness = 0;  //!< of sheet, wire diameter or m² weight of a ply
  std::string material;
};
struct Shelves {
  std::vector<ShelfItem> coils, struts, cords, pucks, wires, sheets, plies;
};

//! The offers for a leg as it is now, by its kind of spring: a coil with this leg's installed length, a cord
//! with the strands that come nearest to the middle of the sag, a wire in place of the one there, sheet of
//! another thickness, a bow with as many plies as it needs.
std::vector<Offer> offers_for(const Leg& leg, const Shelves& shelves, const std::vector<Material>& own,
                              const Need& need);

}  // namespace kranich::spring
