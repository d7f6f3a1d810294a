// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/catalogue.h"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <optional>
#include <string>

namespace kranich {
namespace {

//! What stands between the quotes at the end of a line; nothing where there are none, or an escape is
//! unknown.
std::optional<std::string> quoted(std::string_view line) {
  const auto open = line.find('"');
  const auto close = line.rfind('"');
  if (open == std::string_view::npos || open == close) return std::nullopt;
  std::string text;
  for (size_t i = open + 1; i < close; ++i) {
    if (line[i] != '\\') {
      text += line[i];
      continue;
    }
    if (++i >= close) return std::nullopt;
    switch (line[i]) {
      case 'n':
        text += '\n';
        break;
      case 't':
        text += '\t';
        break;
      case '"':
      case '\\':
        text += line[i];
        break;
      default:
        return std::nullopt;
    }
  }
  return text;
}

//! The marks at which something is put in, sorted: "{}" for each brace, "%1", "%n".
std::vector<std::string> marks_in(std::string_view s) {
  std::vector<std::string> marks;
  for (size_t i = 0; i + 1 < s.size(); ++i) {
    const char next = s[i + 1];
    if (s[i] == '{' && (next == '}' || (std::isdigit(static_cast<unsigned char>(next)) && i + 2 < s.size() &&
                                        s[i + 2] == '}')))
      marks.emplace_back("{}");
    if (s[i] == '%' && (std::isdigit(static_cast<unsigned char>(next)) || next == 'n'))
      marks.emplace_back(s.substr(i, 2));
  }
  std::sort(marks.begin(), marks.end());
  return marks;
}

}  // namespace

CatalogueRead read_catalogue(std::string_view po) {
  CatalogueRead read;
  std::string id;
  std::string text;
  std::string* into = nullptr;
  size_t begun = 0;
  const auto fault = [&](size_t line, std::string what) {
    read.faults.push_back({fmt::format("line {}", line), std::move(what)});
  };
  const auto finish = [&] {
    if (!id.empty() && !text.empty()) {
      if (marks_in(id) != marks_in(text))
        fault(begun, fmt::format("“{}” has other marks than “{}”", text, id));
      else if (!read.catalogue.emplace(id, text).second)
        fault(begun, fmt::format("“{}” stands twice", id));
    }
    id.clear();
    text.clear();
    into = nullptr;
  };
  size_t number = 0;
  while (!po.empty()) {
    const auto end = std::min(po.find('\n'), po.size());
    std::string_view line = po.substr(0, end);
    po.remove_prefix(std::min(end + 1, po.size()));
    ++number;
    if (!line.empty() && line.back() == '\r') line.remove_suffix(1);
    if (line.empty() || line.front() == '#') continue;
    if (line.starts_with("msgid ")) {
      finish();
      begun = number;
      into = &id;
    } else if (line.starts_with("msgstr ")) {
      into = &text;
    } else if (line.front() != '"') {
      fault(number, "neither msgid, msgstr nor more of one");
      continue;
    }
    const auto piece = quoted(line);
    if (!piece || !into)
      fault(number, "a text in quotes was expected");
    else
      *into += *piece;
  }
  finish();
  return read;
}

}  // namespace kranich
