// SPDX-License-Identifier: GPL-3.0-or-later
//! What the core says, for tests that look for a word in it.
#pragma once

#include <ostream>
#include <string_view>

#include "core/base/finding.h"

namespace kranich {

//! In words, the blanks that do not break between number and unit as plain ones.
inline std::string plain(const std::string& words) {
  std::string out;
  for (size_t i = 0; i < words.size(); ++i) {
    const bool blank = words.compare(i, 2, "\u00a0") == 0;
    out += blank ? ' ' : words[i];
    i += blank;
  }
  return out;
}
inline std::string plain(const Text& text, const Tongue& tongue = {}) {
  return plain(in_words(text, tongue));
}
inline bool says(const Text& text, std::string_view words) {
  return plain(text).find(words) != std::string::npos;
}
inline std::ostream& operator<<(std::ostream& out, const Text& text) { return out << in_words(text); }
inline std::ostream& operator<<(std::ostream& out, const Subject& subject) { return out << subject.key; }

}  // namespace kranich
