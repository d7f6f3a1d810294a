// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/bench_line.h"

#include <fmt/format.h>

#include <charconv>
#include <cmath>

namespace kranich {
namespace {

unsigned sum_of(std::string_view s) {
  unsigned sum = 0;
  for (const char c : s) sum ^= static_cast<unsigned char>(c);
  return sum;
}

}  // namespace

std::optional<double> BenchLine::field(std::string_view name) const {
  const auto at = fields.find(name);
  return at == fields.end() ? std::nullopt : std::optional(at->second);
}

std::string format_bench_line(const BenchLine& line) {
  std::string s = line.word;
  for (const auto& [name, value] : line.fields) s += fmt::format(" {}={:.6g}", name, value);
  return s + fmt::format("*{:02X}", sum_of(s));
}

std::variant<BenchLine, std::string> parse_bench_line(std::string_view text) {
  while (!text.empty() && (text.back() == '\r' || text.back() == '\n' || text.back() == ' '))
    text.remove_suffix(1);
  if (text.size() > 400) return "the line is longer than 400 characters";
  const auto star = text.rfind('*');
  if (star == std::string_view::npos || text.size() != star + 3) return "the line ends without *XX";
  unsigned given = 0;
  const auto [end, error] = std::from_chars(text.data() + star + 1, text.data() + text.size(), given, 16);
  if (error != std::errc() || end != text.data() + text.size()) return "the check digits are not hexadecimal";
  const std::string_view body = text.substr(0, star);
  if (given != sum_of(body))
    return fmt::format("check digits are {:02X}, the line sums to {:02X}", given, sum_of(body));
  BenchLine line;
  size_t at = 0;
  while (at < body.size()) {
    const auto blank = std::min(body.find(' ', at), body.size());
    const std::string_view part = body.substr(at, blank - at);
    at = blank + 1;
    if (part.empty()) continue;
    if (line.word.empty()) {
      line.word = part;
      continue;
    }
    const auto equals = part.find('=');
    double value = 0;
    if (equals == std::string_view::npos || equals == 0) return fmt::format("“{}” is no name=value", part);
    const std::string_view number = part.substr(equals + 1);
    const auto [stop, wrong] = std::from_chars(number.data(), number.data() + number.size(), value);
    if (wrong != std::errc() || stop != number.data() + number.size() || !std::isfinite(value))
      return fmt::format("“{}” holds no number", part);
    if (!line.fields.emplace(part.substr(0, equals), value).second)
      return fmt::format("“{}” stands twice", part.substr(0, equals));
  }
  if (line.word.empty()) return "the line is empty";
  return line;
}

}  // namespace kranich
