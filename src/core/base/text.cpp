// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/text.h"

#include <algorithm>

namespace kranich {
namespace {

//! Length of a UTF-8 character by its first byte; 0 where none begins so.
size_t length_of(unsigned char c) {
  return c < 0x80 ? 1 : c >= 0xC2 && c < 0xE0 ? 2 : c >= 0xE0 && c < 0xF0 ? 3 : c >= 0xF0 && c < 0xF5 ? 4 : 0;
}

//! Length of the character that stands whole at a place; 0 where none does.
size_t whole_at(std::string_view text, size_t at) {
  const size_t length = length_of(static_cast<unsigned char>(text[at]));
  if (at + length > text.size()) return 0;
  for (size_t k = 1; k < length; ++k)
    if ((static_cast<unsigned char>(text[at + k]) & 0xC0) != 0x80) return 0;
  return length;
}

bool stands_nowhere(char32_t c) {
  return c < 0x20 || (c >= 0x7F && c < 0xA0) || (c >= 0x202A && c <= 0x202E) ||
         (c >= 0x2066 && c <= 0x2069) || (c >= 0xD800 && c < 0xE000) || (c & 0xFFFE) == 0xFFFE;
}

}  // namespace

std::string printable(std::string_view text) {
  std::string out;
  out.reserve(text.size());
  for (size_t i = 0; i < text.size();) {
    const size_t length = whole_at(text, i);
    if (length == 0) {
      out += '?';
      ++i;
      continue;
    }
    const auto first = static_cast<unsigned char>(text[i]);
    char32_t c = length == 1 ? first : first & (0xFFu >> (length + 1));
    for (size_t k = 1; k < length; ++k) c = (c << 6) | (static_cast<unsigned char>(text[i + k]) & 0x3F);
    if (c == '\n' || c == '\t' || c == '\r')
      out += ' ';
    else if (!stands_nowhere(c))
      out += text.substr(i, length);
    i += length;
  }
  return out;
}

std::optional<size_t> not_utf8(std::string_view text) {
  for (size_t i = 0; i < text.size();) {
    const size_t length = whole_at(text, i);
    if (length == 0) return i;
    i += length;
  }
  return std::nullopt;
}

std::string capitalised(std::string text) {
  if (!text.empty() && text[0] >= 'a' && text[0] <= 'z') text[0] = static_cast<char>(text[0] - 'a' + 'A');
  return text;
}

std::string shortened(std::string_view text, size_t most) {
  if (text.size() <= most) return std::string(text);
  size_t end = most > 3 ? most - 3 : 0;
  while (end > 0 && (static_cast<unsigned char>(text[end]) & 0xC0) == 0x80) --end;
  return std::string(text.substr(0, end)) + "...";
}

size_t letters_in(std::string_view text) {
  return static_cast<size_t>(std::count_if(
      text.begin(), text.end(), [](char c) { return (static_cast<unsigned char>(c) & 0xC0) != 0x80; }));
}

std::vector<std::string> wrapped(std::string_view text, size_t most) {
  std::vector<std::string> lines(1);
  for (size_t from = 0; from < text.size();) {
    const size_t to = std::min(text.find(' ', from), text.size());
    const std::string_view word = text.substr(from, to - from);
    if (!lines.back().empty() && letters_in(lines.back()) + 1 + letters_in(word) > most) lines.emplace_back();
    if (!lines.back().empty()) lines.back() += ' ';
    lines.back() += word;
    from = to + 1;
  }
  return lines;
}

}  // namespace kranich
