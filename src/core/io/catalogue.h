// SPDX-License-Identifier: GPL-3.0-or-later
//! Catalogues of what Kranich says in another language, as the .po files that translators' programs read and
//! write: msgid the English sentence as it stands in the source, msgstr the other one.
#pragma once

#include <string_view>
#include <vector>

#include "core/base/say.h"
#include "core/model/consistency.h"

namespace kranich {

struct CatalogueRead {
  Catalogue catalogue;  //!< those sentences that are translated, and without fault
  //! Lines that cannot be read, sentences told twice, and such as have not the marks ({}, %1) of the English.
  std::vector<Fault> faults;
};
CatalogueRead read_catalogue(std::string_view po);

}  // namespace kranich
