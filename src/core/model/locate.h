// SPDX-License-Identifier: GPL-3.0-or-later
//! Finds a member of a Design by its path in the file, "/gear/main/axle/x_m": how an entry on the screen, a
//! handle in a drawing or a cure reaches the one number it changes.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/model/describe.h"

namespace kranich {

struct LocatedGiven {
  Given* given;
  Spec spec;
};
struct LocatedChoice {
  int index;  //!< the present choice
  std::vector<std::string_view> names;
};

//! A quantity by path; nothing where the path names none.
std::optional<LocatedGiven> locate_given(Design& design, std::string_view path);
//! The quantity at a path, to be read.
std::optional<Given> given_at(const Design& design, std::string_view path);
//! The text, the flag at a path, to be read; null where the path names none.
const std::string* text_at(const Design& design, std::string_view path);
const bool* flag_at(const Design& design, std::string_view path);
//! The value (SI) at a path; NaN where it is unknown or there is none.
double value_at(const Design& design, std::string_view path);
//! The description of the quantity at a path.
std::optional<Spec> spec_at(const Design& design, std::string_view path);

//! A quantity of a design by its path, with how it reads ("Main leg, starboard, Axle, extended, Station").
struct NamedGiven {
  std::string path;
  std::string title_before;  //!< the groups it stands in, each with ", " behind it
  Given given;
  Spec spec;
  std::string title() const { return title_before + std::string(spec.title); }
};
//! Every quantity of a design, in the order of the description.
std::vector<NamedGiven> all_given(const Design& design);

//! A value of any sort by its path: as it is written (a number in SI, shortest; empty where unknown), how it
//! reads, and of a quantity its kind.
struct NamedValue {
  std::string path, title, written;
  std::optional<Kind> kind;
};
//! Every value of a design whose path begins so ("" for all of them).
std::vector<NamedValue> all_values(const Design& design, std::string_view within = {});

//! How many entries the list at a path has; nothing where the path names none.
std::optional<size_t> list_size_at(const Design& design, std::string_view path);
//! Appends a fresh entry to a list; false where there is none or it is full.
bool add_to_list(Design& design, std::string_view path);
//! Takes one out; false where there is none.
bool remove_from_list(Design& design, std::string_view path, size_t index);

std::string* locate_text(Design& design, std::string_view path);
bool* locate_flag(Design& design, std::string_view path);
std::optional<LocatedChoice> choice_at(const Design& design, std::string_view path);
//! Sets a choice by index; false where there is none or the index is out of range.
bool set_choice(Design& design, std::string_view path, int index);

//! Why a value is not allowed by a spec ("must be above 0 mm, is −1 mm"), or nothing where it is.
std::optional<std::string> refusal(double si, const Spec& spec, UnitSystem system);

}  // namespace kranich
