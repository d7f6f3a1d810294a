// SPDX-License-Identifier: GPL-3.0-or-later
//! The shelves as comma-separated tables: what each holds is said by its first line; every faulty line is
//! named with column, value and what is allowed.
#pragma once

#include <string_view>
#include <vector>

#include "core/io/csv.h"
#include "core/place/wheel_shelf.h"
#include "core/sequence/shelf_box.h"
#include "core/spring/shelf.h"
#include "core/swing/units.h"

namespace kranich {

struct ReadShelf {
  std::vector<spring::ShelfItem> items;
  std::vector<Fault> faults;
};
//! One table of one kind of thing; a faulty line is named with column, value and what is allowed.
ReadShelf read_coils(std::string_view text);
ReadShelf read_struts(std::string_view text);
ReadShelf read_cords(std::string_view text);  //!< load of one strand at stretches of 10 to 100 %
ReadShelf read_pucks(std::string_view text);
ReadShelf read_stock(
    std::string_view text);  //!< wire, sheet, cloth: one thickness (or weight) and a material

//! A shelf of wheels.
struct WheelShelf {
  std::vector<place::ShelfWheel> wheels;
  std::vector<Fault> faults;
};
WheelShelf read_wheel_shelf(std::string_view text);

//! A shelf of retract units; angles in degrees.
struct UnitShelf {
  std::vector<swing::ShelfUnit> units;
  std::vector<Fault> faults;
};
UnitShelf read_unit_shelf(std::string_view text);

//! A shelf of drives: what moves a leg, as it is sold.
struct DriveShelf {
  std::vector<DriveOffer> drives;
  std::vector<Fault> faults;
};
DriveShelf read_drive_shelf(std::string_view text);

//! A shelf of boxes that time a sequence.
struct BoxShelf {
  std::vector<sequence::ShelfBox> boxes;
  std::vector<Fault> faults;
};
BoxShelf read_box_shelf(std::string_view text);

}  // namespace kranich
