// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/variants.h"

#include "core/io/mesh_file.h"
#include "core/io/project_file.h"

namespace kranich {

void keep_variant(Design& d, const std::string& name, const std::string& note) {
  Design alone = d;
  alone.variants.clear();
  std::erase_if(d.variants, [&](const Variant& v) { return v.name == name; });
  Variant v;
  v.name = name;
  v.note = note;
  v.design = write_project(alone);
  d.variants.push_back(std::move(v));
}

std::optional<Design> variant(const Design& d, const std::string& name) {
  for (const auto& v : d.variants)
    if (v.name == name) {
      auto found = read_project(v.design).design;
      // Meshes are not in its text: those that the design has read are the same ones.
      if (found) take_meshes(*found, d);
      return found;
    }
  return std::nullopt;
}

}  // namespace kranich
