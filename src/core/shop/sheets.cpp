// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/shop/sheets.h"

#include "core/shop/maker.h"

namespace kranich::shop {

std::vector<Sheet> shop_sheets(const Design& design, const Assessment& assessment, const std::string& state) {
  return Maker(design, assessment, state).all();
}

}  // namespace kranich::shop
