// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/csv.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <map>
#include <set>

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

DriveShelf read_drive_shelf(std::string_view text) {
  DriveShelf shelf;
  Table table(text, {"name", "kind"}, shelf.faults);
  for (size_t r = 0; r < table.rows.size(); ++r) {
    DriveOffer o;
    o.sold.name = table.text(r, "name");
    Drive& d = o.drive;
    d.kind = table.choice(r, "kind", Names(drive_names), DriveKind::none);
    if (d.kind == DriveKind::none) table.fault(r, "kind", "must say what it is");
    const auto number = [&](const char* column, const Spec& spec) { return table.number(r, column, spec); };
    d.force = number("force_N", spec::positive("Rated force", Kind::force, 1e6));
    d.stroke = number("stroke_m", spec::size("Stroke", 3));
    d.speed = number("speed_m_per_s", spec::positive("Speed under load", Kind::speed, 5));
    d.bore = number("bore_m", spec::size("Bore", 0.3));
    d.rod = number("rod_m", spec::size("Rod", 0.2));
    d.stall_torque = number("stall_torque_N_m", spec::positive("Stall torque", Kind::moment, 1e5));
    d.no_load_speed =
        number("no_load_speed_rad_per_s", spec::positive("No-load speed", Kind::turn_rate, 1e5));
    d.no_load_current = number("no_load_current_A", spec::positive("No-load current", Kind::current, 1e3));
    d.stall_current = number("stall_current_A", spec::positive("Stall current", Kind::current, 1e4));
    d.gearbox = number("gearbox", spec::positive("Gearbox", Kind::factor, 1e5));
    d.efficiency = number("efficiency", spec::between("Efficiency", Kind::share, 0.05, 1));
    d.rotor_inertia = number("rotor_inertia_kg_m2", spec::positive("Rotor's inertia", Kind::inertia, 10));
    const Given turn = table.number(r, "full_throw_deg", spec::between("Full throw", Kind::factor, 10, 180));
    if (turn.known()) d.full_throw = radians(turn);
    o.sold.mass = number("mass_kg", spec::mass("Mass"));
    o.sold.price = number("price", spec::not_negative("Price", Kind::factor, 1e6));
    o.sold.length = number("length_m", spec::size("Body, long", 3));
    o.sold.width = number("width_m", spec::size("Body, wide", 2));
    o.sold.height = number("height_m", spec::size("Body, high", 2));
    o.sold.current = number("current_A", spec::positive("Current", Kind::current, 1e3));
    o.sold.locks = table.choice(r, "locks", Names(locks_names), LocksItself::unsaid);
    o.sold.powerless = table.choice(r, "powerless", Names(powerless_names), Powerless::unsaid);
    shelf.drives.push_back(std::move(o));
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

UnitShelf read_unit_shelf(std::string_view text) {
  UnitShelf shelf;
  Table table(text, {"name", "angle_deg"}, shelf.faults);
  for (size_t r = 0; r < table.rows.size(); ++r) {
    swing::ShelfUnit u;
    u.name = table.text(r, "name");
    u.angle = table.number(r, "angle_deg", {"Unit angle", Kind::factor, 10, 180});
    if (u.angle.known()) u.angle.si = radians(u.angle.si);
    u.fore = table.number(r, "fore_m", spec::size("Body ahead of the pivot", 1));
    u.back = table.number(r, "back_m", spec::size("Body behind the pivot", 1));
    u.half_width = table.number(r, "half_width_m", spec::size("Half width", 0.5));
    u.above = table.number(r, "above_m", spec::size("Body above the pivot", 0.5));
    u.below = table.number(r, "below_m", spec::size("Body below the pivot", 0.5));
    u.pin = table.number(r, "pin_m", spec::size("Bore for the leg's pin", 0.2));
    u.rated_mass = table.number(r, "rated_mass_kg", spec::mass("Sold for aircraft of up to"));
    u.rated_moment =
        table.number(r, "rated_moment_N_m", spec::positive("Moment its pin may carry", Kind::moment, 1e5));
    u.time = table.number(r, "time_s", spec::positive("Time", Kind::time, 600));
    u.mass = table.number(r, "mass_kg", spec::mass("Mass"));
    u.price = table.number(r, "price", spec::not_negative("Price", Kind::factor, 1e6));
    u.drive = table.text(r, "drive");
    u.other_way = table.text(r, "other_way") == "yes";
    u.remark = table.text(r, "remark");
    shelf.units.push_back(std::move(u));
  }
  return shelf;
}

BoxShelf read_box_shelf(std::string_view text) {
  BoxShelf shelf;
  Table table(text, {"name", "outputs", "longest_hold_s"}, shelf.faults);
  for (size_t r = 0; r < table.rows.size(); ++r) {
    sequence::ShelfBox b;
    b.name = table.text(r, "name");
    b.outputs = table.number(r, "outputs", spec::between("Outputs", Kind::factor, 1, 24));
    b.longest_hold = table.number(r, "longest_hold_s", spec::positive("Holds at most", Kind::time, 3600));
    b.at_switch_on = table.choice(r, "at_switch_on", Names(at_switch_on_names), AtSwitchOn::stays);
    b.mass = table.number(r, "mass_kg", spec::mass("Mass"));
    b.price = table.number(r, "price", spec::not_negative("Price", Kind::factor, 1e6));
    b.remark = table.text(r, "remark");
    shelf.boxes.push_back(std::move(b));
  }
  return shelf;
}

}  // namespace kranich
