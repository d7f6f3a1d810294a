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

#include "core/io/project_file.h"
#include "core/model/design.h"

namespace kranich {

struct Assessment;

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

}  // namespace kranich
