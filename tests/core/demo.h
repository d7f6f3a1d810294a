// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <catch2/catch.hpp>
#include <filesystem>
#include <string>

#include "core/io/project_file.h"

namespace kranich {

//! A demonstration project as it ships.
inline Design demo(const std::string& name) {
  auto r = load_project(std::filesystem::path(KRANICH_DATA_DIR) / "demo" / (name + ".kranich"));
  REQUIRE(r.design);
  return *r.design;
}

}  // namespace kranich
