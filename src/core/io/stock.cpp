// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/stock.h"

#include "core/io/csv.h"
#include "core/io/shelves.h"
#include "shelf_data.h"

namespace kranich {

const Stock& shipped_stock() {
  static const Stock stock{read_wheel_shelf(shelf_data::wheels).wheels,
                           {read_coils(shelf_data::coil_springs).items,
                            read_struts(shelf_data::gas_struts).items, read_cords(shelf_data::cords).items,
                            read_pucks(shelf_data::pucks).items, read_stock(shelf_data::wires).items,
                            read_stock(shelf_data::sheets).items, read_stock(shelf_data::plies).items},
                           read_unit_shelf(shelf_data::retract_units).units,
                           read_box_shelf(shelf_data::sequencers).boxes,
                           read_drive_shelf(shelf_data::drives).drives};
  return stock;
}

Stock stock_of(const Design& d) {
  Stock stock = shipped_stock();
  std::vector<spring::ShelfItem> own;
  for (const auto& c : d.spring_bench.coils) {
    if (c.name.empty() || !c.coil.wire_diameter.known() || !c.coil.mean_diameter.known() ||
        !c.coil.active_turns.known() || !c.coil.total_turns.known() || !c.coil.free_length.known())
      continue;
    auto& item = own.emplace_back();
    item.name = c.name;
    item.coil = c.coil;
    item.coil.shelf_name = c.name;
    item.remark = "at hand";
  }
  stock.springs.coils.insert(stock.springs.coils.begin(), own.begin(), own.end());
  return stock;
}

}  // namespace kranich
