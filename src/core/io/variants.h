// SPDX-License-Identifier: GPL-3.0-or-later
//! Variants: whole states of a design kept in it under a name.
#pragma once

#include <optional>
#include <string>

#include "core/model/design.h"

namespace kranich {

//! Keeps a design as a variant under a name (replacing one of that name), or gives one back.
void keep_variant(Design& design, const std::string& name, const std::string& note);
std::optional<Design> variant(const Design& design, const std::string& name);

}  // namespace kranich
