// SPDX-License-Identifier: GPL-3.0-or-later
//! Steps by which a project of an older version becomes one of the present version, before it is read.
#pragma once

#include <nlohmann/json.hpp>
#include <string>
#include <utility>
#include <vector>

#include "core/model/consistency.h"

namespace kranich {

//! What an upgrade did to a project's text.
struct Upgrade {
  int from;  //!< the version it was written as
  //! Where a fault of the new text stands in the old one: prefixes of paths, new and old.
  std::vector<std::pair<std::string, std::string>> old_paths;
  //! A path of the new text as the file's author knows it.
  std::string as_written(const std::string& path) const;
};

//! Brings the root object from `version` to file_version, step by step. What cannot be understood is left as
//! it stands, for the reader to name, or named in `faults`.
Upgrade upgrade_project(nlohmann::ordered_json& root, int version, std::vector<Fault>& faults);

}  // namespace kranich
