// SPDX-License-Identifier: GPL-3.0-or-later
//! The spring shelves as comma-separated tables: what each holds is said by its first line.
#pragma once

#include <string_view>
#include <vector>

#include "core/io/csv.h"
#include "core/spring/shelf.h"

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

}  // namespace kranich
