// SPDX-License-Identifier: GPL-3.0-or-later
//! What may be taken instead of what is fitted: the shelves, ours and the builder's own.
#pragma once

#include <vector>

#include "core/model/design.h"
#include "core/place/wheel_shelf.h"
#include "core/sequence/shelf_box.h"
#include "core/spring/shelf.h"
#include "core/swing/units.h"

namespace kranich {

//! What lies on the shelves.
struct Stock {
  std::vector<place::ShelfWheel> wheels;
  spring::Shelves springs;
  std::vector<swing::ShelfUnit> units;
  std::vector<sequence::ShelfBox> boxes;
  std::vector<DriveOffer> drives;
};

}  // namespace kranich
