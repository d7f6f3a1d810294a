// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/csv.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <map>

#include "core/model/describe.h"
#include "core/model/locate.h"

namespace kranich {
namespace {

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
    for (size_t i = 0; i < rows[0].size(); ++i) columns_[rows[0][i]] = i;
    for (const auto& name : required)
      if (!columns_.count(name))
        faults_.push_back({"line 1", fmt::format("the column \"{}\" is missing", name)});
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
    const std::string s = text(row, column);
    if (s.empty()) return {};
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
  std::vector<Fault>& faults_;
};

std::string cell(const Given& g) { return g.known() ? shortest(g.si) : std::string(); }

}  // namespace

std::variant<std::vector<CsvRow>, Fault> parse_csv(std::string_view text) {
  if (text.size() > largest_file) return Fault{"file", "is too large"};
  if (text.substr(0, 3) == "\xEF\xBB\xBF") text.remove_prefix(3);
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
    } else if (c == ',') {
      row.push_back(std::move(field));
      field.clear();
    } else if (c == '\n') {
      end_row();
    } else if (c != '\r') {
      field += c;
    }
  }
  if (quoted) return Fault{fmt::format("line {}", line), "a quotation mark is not closed"};
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
                   cell(i.at.z), i.weighed ? "yes" : "no",
                   std::string(moves_names[static_cast<size_t>(i.moves)]),
                   i.slides ? cell(i.slides_from) : "", i.slides ? cell(i.slides_to) : ""});
  return s;
}

LedgerFromCsv ledger_from_csv(std::string_view text) {
  LedgerFromCsv result;
  Table table(text, {"name", "group", "mass_kg", "x_m", "y_m", "z_m"}, result.faults);
  for (size_t r = 0; r < table.rows.size(); ++r) {
    Item item;
    item.name = table.text(r, "name");
    if (item.name.empty()) table.fault(r, "name", "must not be empty");
    for (const auto& other : result.items)
      if (other.name == item.name) table.fault(r, "name", fmt::format("\"{}\" is used twice", item.name));
    item.group = table.choice(r, "group", Names(group_names), Group::airframe);
    item.moves = table.choice(r, "moves", Names(moves_names), Moves::no);
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
    s += csv_line({f.measure_id, std::string(m.title), f.subject, f.loading,
                   std::string(gear_state_word(f.state)), number(f.value), std::string(si->symbol),
                   f.limit.lower ? number(*f.limit.lower) : "", f.limit.upper ? number(*f.limit.upper) : "",
                   f.limit.source, number(f.margin), number(f.margin_fraction),
                   std::string(verdict_word(f.verdict)), f.remark});
  }
  return s;
}

Shelf read_spring_shelf(std::string_view text) {
  Shelf shelf;
  Table table(text,
              {"name", "wire_diameter_m", "mean_diameter_m", "active_turns", "total_turns", "free_length_m",
               "ends", "wire"},
              shelf.faults);
  for (size_t r = 0; r < table.rows.size(); ++r) {
    ShelfSpring s;
    s.name = table.text(r, "name");
    s.coil.shelf_name = s.name;
    s.coil.wire_diameter = table.number(r, "wire_diameter_m", spec::size("Wire diameter", 0.1));
    s.coil.mean_diameter = table.number(r, "mean_diameter_m", spec::size("Mean coil diameter", 1));
    s.coil.active_turns =
        table.number(r, "active_turns", spec::between("Active turns", Kind::factor, 0.5, 100));
    s.coil.total_turns = table.number(r, "total_turns", spec::between("Total turns", Kind::factor, 0.5, 110));
    s.coil.free_length = table.number(r, "free_length_m", spec::size("Free length", 3));
    s.coil.ends = table.choice(r, "ends", Names(coil_end_names), CoilEnds::squared_ground);
    s.coil.wire = table.text(r, "wire");
    s.remark = table.text(r, "remark");
    shelf.springs.push_back(std::move(s));
  }
  return shelf;
}

WheelShelf read_wheel_shelf(std::string_view text) {
  WheelShelf shelf;
  Table table(text, {"name", "tyre", "diameter_m", "width_m", "flat_radius_m", "mass_kg", "greatest_load_N"},
              shelf.faults);
  for (size_t r = 0; r < table.rows.size(); ++r) {
    place::ShelfWheel s;
    s.name = table.text(r, "name");
    Wheel& w = s.wheel;
    w.shelf_name = s.name;
    w.tyre = table.choice(r, "tyre", Names(tyre_names), Tyre::pneumatic);
    w.diameter = table.number(r, "diameter_m", spec::size("Wheel diameter", 3));
    w.width = table.number(r, "width_m", spec::size("Wheel width", 1));
    w.shoulder_radius =
        table.number(r, "shoulder_radius_m", spec::not_negative("Tyre shoulder radius", Kind::length, 0.5));
    w.flat_radius = table.number(r, "flat_radius_m", spec::size("Axle height on a flat tyre", 1.5));
    w.tyre_rate = table.number(r, "tyre_rate_N_per_m", spec::positive("Tyre rate", Kind::stiffness, 1e9));
    w.pressure = table.number(r, "pressure_Pa", spec::positive("Tyre pressure", Kind::pressure, 3e6));
    s.mass = table.number(r, "mass_kg", spec::mass("Mass"));
    s.greatest_load = table.number(r, "greatest_load_N", spec::positive("Greatest load", Kind::force, 1e6));
    s.remark = table.text(r, "remark");
    shelf.wheels.push_back(std::move(s));
  }
  return shelf;
}

}  // namespace kranich
