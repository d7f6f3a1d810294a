// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <catch2/catch.hpp>
#include <filesystem>
#include <string>
#include <vector>

#include "core/io/project_file.h"
#include "core/model/moves.h"

namespace kranich {

//! A demonstration project as it ships.
inline Design demo(const std::string& name) {
  auto r = load_project(std::filesystem::path(KRANICH_DATA_DIR) / "demo" / (name + ".kranich"));
  REQUIRE(r.design);
  return *r.design;
}

//! All of them by name.
inline const std::vector<std::string>& demo_names() {
  static const std::vector<std::string> names{"dunnock", "redshank", "wheatear", "nightjar", "pintail"};
  return names;
}

inline void put(Point& p, double x, double y, double z) {
  p.x = Given(x);
  p.y = Given(y);
  p.z = Given(z);
}

//! A project begun anew: a main leg and a nose leg of which nothing is known.
inline Design with_legs() {
  Design d;
  arrange(d, Layout::tricycle);
  return d;
}

}  // namespace kranich
