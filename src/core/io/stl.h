// SPDX-License-Identifier: GPL-3.0-or-later
//! Meshes as STL, the open format that drawing programs and printers read: binary, millimetres, x aft,
//! y starboard, z up.
#pragma once

#include <string>
#include <vector>

#include "core/motion/mesh.h"

namespace kranich {

//! Solids one after the other in one file; where they overlap they are not joined.
std::string stl_of(const std::vector<motion::Mesh>& solids);

}  // namespace kranich
