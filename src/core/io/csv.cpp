// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/csv.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <map>
#include <set>

#include "core/assess/assess.h"
#include "core/assess/loading_state.h"
#include "core/base/text.h"
#include "core/io/csv_table.h"
#include "core/model/describe.h"

namespace kranich {
namespace {

std::string cell(const Given& g) { return g.known() ? shortest(g.si) : std::string(); }

}  // namespace

char separator_of(std::string_view text) {
  // Where numbers have a decimal comma, spreadsheets put semicolons or tabs between cells: the heading tells.
  const std::string_view heading = text.substr(0, text.find('\n'));
  const auto count = [&](char c) { return std::count(heading.begin(), heading.end(), c); };
  if (count('\t') > count(',') && count('\t') >= count(';')) return '\t';
  return count(';') > count(',') ? ';' : ',';
}

std::variant<std::vector<CsvRow>, Fault> parse_csv(std::string_view text) {
  if (text.size() > largest_file) return Fault{"file", "is too large"};
  if (text.substr(0, 3) == "\xEF\xBB\xBF") text.remove_prefix(3);
  const char separator = separator_of(text);
  std::vector<CsvRow> rows;
  CsvRow row;
  std::string field;
  bool quoted = false;
  size_t line = 1;
  const auto end_row = [&] {
    row.push_back(std::move(field));
    field.clear();
    if (row.size() > 1 || !row[0].empty()) rows.push_back(std::move(row));
    row.clear();
  };
  for (size_t i = 0; i < text.size(); ++i) {
    const char c = text[i];
    if (c == '\0') return Fault{fmt::format("line {}", line), "holds a zero byte: not a text table"};
    if (c == '\n') ++line;
    if (quoted) {
      if (c == '"' && i + 1 < text.size() && text[i + 1] == '"')
        field += text[++i];
      else if (c == '"')
        quoted = false;
      else
        field += c;
    } else if (c == '"' && field.empty()) {
      quoted = true;
    } else if (c == separator) {
      row.push_back(std::move(field));
      field.clear();
    } else if (c == '\n') {
      end_row();
    } else if (c != '\r') {
      field += c;
    }
  }
  if (quoted) return Fault{fmt::format("line {}", line), "a quotation mark is not closed"};
  if (const auto at = not_utf8(text))
    return Fault{
        fmt::format("line {}", 1 + std::count(text.begin(), text.begin() + static_cast<long>(*at), '\n')),
        "is not UTF-8: save the table in that encoding"};
  if (!field.empty() || !row.empty()) end_row();
  return rows;
}

std::string csv_line(const CsvRow& row) {
  std::string s;
  for (size_t i = 0; i < row.size(); ++i) {
    if (i) s += ',';
    if (row[i].find_first_of(",\"\n\r") == std::string::npos) {
      s += row[i];
      continue;
    }
    s += '"';
    for (const char c : row[i]) {
      if (c == '"') s += '"';
      s += c;
    }
    s += '"';
  }
  return s + "\n";
}

std::string ledger_to_csv(const std::vector<Item>& ledger) {
  std::string s = csv_line({"name", "group", "mass_kg", "mass_tolerance_kg", "x_m", "y_m", "z_m", "weighed",
                            "moves", "slides_from_m", "slides_to_m"});
  for (const auto& i : ledger)
    s += csv_line({i.name, std::string(group_names[static_cast<size_t>(i.group)]), cell(i.mass),
                   i.mass.tolerance == 0 ? "" : shortest(i.mass.tolerance), cell(i.at.x), cell(i.at.y),
                   cell(i.at.z), i.weighed ? "yes" : "no", i.moves.empty() ? "no" : i.moves,
                   i.slides ? cell(i.slides_from) : "", i.slides ? cell(i.slides_to) : ""});
  return s;
}

LedgerFromCsv ledger_from_csv(std::string_view text) {
  LedgerFromCsv result;
  Table table(text, {"name", "group", "mass_kg", "x_m", "y_m", "z_m"}, result.faults);
  if (table.rows.size() > longest_ledger) {
    result.faults.push_back(
        {"file", fmt::format("has {} rows; a ledger may hold {} items", table.rows.size(), longest_ledger)});
    return result;
  }
  std::set<std::string> names;
  for (size_t r = 0; r < table.rows.size(); ++r) {
    Item item;
    item.name = table.text(r, "name");
    if (item.name.empty()) table.fault(r, "name", "must not be empty");
    if (!names.insert(item.name).second)
      table.fault(r, "name", fmt::format("\"{}\" is used twice", item.name));
    item.group = table.choice(r, "group", Names(group_names), Group::airframe);
    item.moves = table.text(r, "moves");  // a leg's id; tables of version 1 have words
    if (item.moves == "with mains") item.moves = "main";
    if (item.moves == "with third leg") item.moves = "third";
    if (item.moves == "no") item.moves.clear();
    item.mass = table.number(r, "mass_kg", spec::mass("Mass"));
    const Given tolerance =
        table.number(r, "mass_tolerance_kg", spec::not_negative("Tolerance", Kind::mass, 20000));
    item.mass.tolerance = tolerance.known() ? tolerance.si : 0;
    item.at.x = table.number(r, "x_m", spec::place("Station"));
    item.at.y = table.number(r, "y_m", spec::place("Side offset"));
    item.at.z = table.number(r, "z_m", spec::place("Waterline"));
    const std::string weighed = table.text(r, "weighed");
    if (weighed != "yes" && weighed != "no" && !weighed.empty())
      table.fault(r, "weighed", "must be yes or no, is \"" + weighed.substr(0, 40) + "\"");
    item.slides_from = table.number(r, "slides_from_m", spec::place("Foremost station of its slide"));
    item.slides_to = table.number(r, "slides_to_m", spec::place("Aftmost station of its slide"));
    item.slides = item.slides_from.known() && item.slides_to.known();
    item.weighed = weighed == "yes";
    item.mass.origin = !item.mass.known() ? Origin::missing
                       : item.weighed     ? Origin::measured
                                          : Origin::estimated;
    result.items.push_back(std::move(item));
  }
  return result;
}

std::string findings_to_csv(const Assessment& a) {
  std::string s = csv_line({"measure", "title", "subject", "loading", "state", "value_si", "unit", "lower_si",
                            "upper_si", "limit_source", "margin_si", "margin_fraction", "verdict", "remark"});
  const auto number = [](double v) { return std::isfinite(v) ? shortest(v) : std::string(); };
  for (const auto& f : a.findings) {
    const Measure& m = f.info();
    const auto si = std::find_if(known_units().begin(), known_units().end(),
                                 [&](const Unit& u) { return u.kind == m.kind; });
    s += csv_line({f.measure_id, std::string(m.title), in_words(f.subject.words), f.loading,
                   std::string(gear_state_word(f.state)), number(f.value), std::string(si->symbol),
                   f.limit.lower ? number(*f.limit.lower) : "", f.limit.upper ? number(*f.limit.upper) : "",
                   in_words(f.limit.source), number(f.margin), number(f.margin_fraction),
                   std::string(verdict_word(f.verdict)), in_words(f.remark)});
  }
  return s;
}

}  // namespace kranich
