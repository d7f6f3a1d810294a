// SPDX-License-Identifier: GPL-3.0-or-later
//! The lines that bench devices send and Kranich reads: docs/bench-protocol.md. One line a reading, ASCII:
//! a word, then name=value fields parted by blanks, then an asterisk and two hex digits, the exclusive-or of
//! all bytes before the asterisk. Example: `SCALES third=102.31 port=169.42 starboard=170.48 steady=1*5D`.
#pragma once

#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <variant>

namespace kranich {

struct BenchLine {
  std::string word;
  std::map<std::string, double, std::less<>> fields;
  std::optional<double> field(std::string_view name) const;
};

std::string format_bench_line(const BenchLine& line);  //!< without the line's end
//! The line, or what is wrong with it ("check digits are 5D, the line sums to 5C").
std::variant<BenchLine, std::string> parse_bench_line(std::string_view text);

}  // namespace kranich
