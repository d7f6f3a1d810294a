// SPDX-License-Identifier: GPL-3.0-or-later
//! Comma-separated tables in and out: the mass ledger, the spring shelf, the findings. UTF-8, comma, quotes
//! doubled, decimal point, first line names the columns with their units. Read are also tables whose cells
//! are parted by semicolons or tabs; numbers may then have a decimal comma.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

#include "core/assess/assess.h"
#include "core/io/project_file.h"
#include "core/place/wheel_shelf.h"
#include "core/sequence/boxes.h"
#include "core/swing/units.h"

namespace kranich {

using CsvRow = std::vector<std::string>;
//! What parts the cells of a table, from its heading: comma, semicolon or tab.
char separator_of(std::string_view text);
//! Splits a table; a fault names the line.
std::variant<std::vector<CsvRow>, Fault> parse_csv(std::string_view text);
std::string csv_line(const CsvRow& row);

std::string ledger_to_csv(const std::vector<Item>& ledger);
//! Reads a ledger; every faulty line is named with column, value and what is allowed.
struct LedgerFromCsv {
  std::vector<Item> items;
  std::vector<Fault> faults;
};
LedgerFromCsv ledger_from_csv(std::string_view text);

std::string findings_to_csv(const Assessment& assessment);

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
