// SPDX-License-Identifier: GPL-3.0-or-later
//! Meshes that other drawing programs wrote: STL, as text or binary, and OBJ, read by what they hold and not
//! by their name. Neither says its unit nor which way is up: a keep-out does.
#pragma once

#include <filesystem>
#include <string>
#include <string_view>
#include <variant>

#include "core/model/design.h"
#include "core/motion/mesh.h"

namespace kranich {

inline constexpr std::size_t largest_mesh_file = 64u << 20;  //!< bytes
inline constexpr std::size_t most_triangles = 100'000;

//! The triangles of a file, corners at one place joined, in the numbers that stand there; or what is wrong
//! with it, with the line or the triangle. Polygons of OBJ are cut into triangles from their first corner;
//! its textures, normals and groups are passed over.
std::variant<motion::Mesh, std::string> read_mesh(std::string_view bytes);

//! Reads what the keep-outs that are meshes name, relative to a folder, into `KeepOut::skin`; one that cannot
//! be read keeps what is wrong with it there. What a design before has read of the same file is taken over
//! where the file has not changed since.
void load_meshes(Design& design, const std::filesystem::path& folder, const Design* before = nullptr);
//! Takes what another design has read of the same files, without a look at them.
void take_meshes(Design& design, const Design& from);

}  // namespace kranich
