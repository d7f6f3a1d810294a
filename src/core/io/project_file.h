// SPDX-License-Identifier: GPL-3.0-or-later
//! The project file, `.kranich`: one JSON text, documented in docs/file-format.md.
#pragma once

#include <filesystem>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/model/consistency.h"
#include "core/model/design.h"

namespace kranich {

inline constexpr int file_version = 4;
inline constexpr std::size_t largest_file = 4u << 20;  //!< bytes; a project is some tens of kilobytes

struct ReadResult {
  std::optional<Design> design;  //!< nothing where there are faults
  std::vector<Fault> faults;
  //! What is kept but never used: keys that this version does not know (with the known one that comes
  //! nearest), limits of measures that do not exist. Fine in a newer file, a slip in one written by hand.
  std::vector<Fault> strange;
  bool newer = false;  //!< written by a later version: to be shown read-only
  bool older = false;  //!< written by an earlier version, brought up to this one
};

//! Reads a project from its text. Collects every fault; refuses duplicate keys, wrong types, numbers out of
//! range and words that are none of the choices. Keys it does not know are kept.
ReadResult read_project(std::string_view text);

//! Writes a project, keys in the order of the description, numbers in their shortest exact form.
std::string write_project(const Design& design);

//! The same from a file; the meshes it names are read with it (mesh_file.h).
ReadResult load_project(const std::filesystem::path& path);

//! Saves atomically: a temporary file beside the target, synced, renamed over it; what stood there before is
//! kept as `name.kranich~`. Returns why it could not be done, or nothing.
std::optional<std::string> save_project(const Design& design, const std::filesystem::path& path);

//! Writes any text atomically, without keeping a copy of what was there.
std::optional<std::string> write_file_atomically(const std::filesystem::path& path, std::string_view text);
//! Whole file as text; nothing if it can't be read. `limit` bytes at most.
std::optional<std::string> read_text_file(const std::filesystem::path& path,
                                          std::size_t limit = largest_file);

//! JSON Schema (draft 7) of the project file, from the same description that the reader follows.
std::string project_schema();
//! The field-by-field tables of docs/file-format.md.
std::string project_fields_markdown();

}  // namespace kranich
