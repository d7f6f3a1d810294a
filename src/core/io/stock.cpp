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
                            read_stock(shelf_data::sheets).items, read_stock(shelf_data::plies).items}};
  return stock;
}

}  // namespace kranich
