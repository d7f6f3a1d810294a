// SPDX-License-Identifier: GPL-3.0-or-later
//! How a comma-separated table is read with every fault named: shared by the readers of ledger, shelves and
//! recordings.
#pragma once

#include <fmt/format.h>

#include <charconv>
#include <cmath>
#include <map>
#include <string>
#include <vector>

#include "core/io/csv.h"
#include "core/model/locate.h"

namespace kranich {

//! A table with named columns.
class Table {
 public:
  Table(std::string_view text, std::vector<std::string> required, std::vector<Fault>& faults)
      : faults_(faults) {
    auto parsed = parse_csv(text);
    if (auto* fault = std::get_if<Fault>(&parsed)) {
      faults_.push_back(*fault);
      return;
    }
    rows = std::get<std::vector<CsvRow>>(std::move(parsed));
    if (rows.empty()) {
      faults_.push_back({"line 1", "the table is empty"});
      return;
    }
    decimal_comma_ = separator_of(text.substr(0, 3) == "\xEF\xBB\xBF" ? text.substr(3) : text) != ',';
    for (size_t i = 0; i < rows[0].size(); ++i)
      if (!columns_.emplace(rows[0][i], i).second && !rows[0][i].empty())
        faults_.push_back({"line 1", fmt::format("the column \"{}\" stands twice", rows[0][i])});
    for (const auto& name : required)
      if (!columns_.count(name))
        faults_.push_back({"line 1", fmt::format("the column \"{}\" is missing", name)});
    for (size_t r = 1; r < rows.size(); ++r)
      if (rows[r].size() > rows[0].size())
        faults_.push_back(
            {fmt::format("line {}", r + 1),
             fmt::format("has {} cells where the heading has {}{}", rows[r].size(), rows[0].size(),
                         decimal_comma_ ? "" : ": with decimal commas put semicolons between cells")});
    if (!faults_.empty())
      rows.clear();
    else
      rows.erase(rows.begin());
  }

  std::vector<CsvRow> rows;

  std::string text(size_t row, const std::string& column) const {
    const auto it = columns_.find(column);
    return it == columns_.end() || it->second >= rows[row].size() ? std::string() : rows[row][it->second];
  }
  //! A number within a spec; an empty cell is unknown, anything else that is no number is a fault.
  Given number(size_t row, const std::string& column, const Spec& spec) {
    std::string s = text(row, column);
    if (s.empty()) return {};
    if (decimal_comma_)
      if (const auto comma = s.find(','); comma != std::string::npos && s.find('.') == std::string::npos)
        s[comma] = '.';
    double v = 0;
    const auto [end, error] = std::from_chars(s.data(), s.data() + s.size(), v);
    if (error != std::errc() || end != s.data() + s.size() || !std::isfinite(v)) {
      fault(row, column, fmt::format("must be a number, is \"{}\"", s.substr(0, 40)));
      return {};
    }
    if (const auto why = refusal(v, spec, UnitSystem::metric)) {
      fault(row, column, *why);
      return {};
    }
    return v;
  }
  template <class E>
  E choice(size_t row, const std::string& column, Names names, E otherwise) {
    const std::string s = text(row, column);
    if (s.empty()) return otherwise;
    for (size_t i = 0; i < names.size(); ++i)
      if (s == names[i]) return static_cast<E>(i);
    std::string words;
    for (const auto n : names) words += (words.empty() ? "" : ", ") + std::string(n);
    fault(row, column, fmt::format("must be one of {}, is \"{}\"", words, s.substr(0, 40)));
    return otherwise;
  }
  void fault(size_t row, const std::string& column, std::string what) {
    faults_.push_back({fmt::format("line {}, {}", row + 2, column), std::move(what)});
  }

 private:
  std::map<std::string, size_t> columns_;
  bool decimal_comma_ = false;  //!< cells are parted by semicolons or tabs: numbers may have one
  std::vector<Fault>& faults_;
};

}  // namespace kranich
