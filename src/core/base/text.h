// SPDX-License-Identifier: GPL-3.0-or-later
//! Texts from files on their way to places where not every character may stand.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace kranich {

//! A UTF-8 text without control characters, marks that turn the writing direction over, and what is no
//! character: fit for a terminal, an SVG or a DXF. Line ends and tabs become blanks; broken UTF-8 becomes
//! question marks.
std::string printable(std::string_view text);

//! With its first letter large (of ASCII; others stay as they are).
std::string capitalised(std::string text);

//! Where a text stops being UTF-8; nothing where it is.
std::optional<size_t> not_utf8(std::string_view text);

//! The first characters of a UTF-8 text, three dots in the place of the rest where it is longer.
std::string shortened(std::string_view text, size_t most_bytes);

//! Characters of a UTF-8 text.
size_t letters_in(std::string_view text);

//! A text in lines of at most so many characters, broken between words; a longer word stands alone.
std::vector<std::string> wrapped(std::string_view text, size_t most_letters);

}  // namespace kranich
