// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/quantity.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <numbers>

namespace kranich {
namespace {

constexpr double inch = 0.0254;
constexpr double pound = 0.45359237;
constexpr double pound_force = pound * standard_gravity;

struct KindFacts {
  Kind kind;
  std::string_view name;
  std::string_view metric;
  std::string_view imperial;
  int metric_decimals;
  int imperial_decimals;
  bool trims;  //!< trailing zeros are dropped: "2320", "41.375"
};

constexpr std::array kind_facts{
    KindFacts{Kind::length, "length", "mm", "in", 1, 3, true},
    KindFacts{Kind::distance, "distance", "m", "ft", 1, 1, true},
    KindFacts{Kind::mass, "mass", "kg", "lb", 3, 3, true},
    KindFacts{Kind::angle, "angle", "°", "°", 1, 1, false},
    KindFacts{Kind::force, "force", "N", "lbf", 1, 1, true},
    KindFacts{Kind::pressure, "pressure", "kPa", "psi", 1, 1, true},
    KindFacts{Kind::stress, "stress", "MPa", "psi", 0, 0, true},
    KindFacts{Kind::stiffness, "spring rate", "N/mm", "lbf/in", 2, 2, true},
    KindFacts{Kind::torsion_rate, "torsion rate", "N·m/rad", "lbf·ft/rad", 1, 1, true},
    KindFacts{Kind::damping, "damping", "N·s/m", "lbf·s/in", 1, 3, true},
    KindFacts{Kind::speed, "speed", "m/s", "ft/s", 2, 2, true},
    KindFacts{Kind::time, "time", "s", "s", 2, 2, true},
    KindFacts{Kind::area, "area", "m²", "ft²", 4, 3, true},
    KindFacts{Kind::section_area, "area", "mm²", "in²", 1, 3, true},
    KindFacts{Kind::volume, "volume", "cm³", "in³", 2, 2, true},
    KindFacts{Kind::share, "share", "%", "%", 1, 1, false},
    KindFacts{Kind::factor, "number", "", "", 3, 3, true},
    KindFacts{Kind::in_g, "acceleration", "g", "g", 2, 2, false},
    KindFacts{Kind::energy, "energy", "J", "ft·lbf", 1, 1, true},
    KindFacts{Kind::moment, "moment", "N·m", "lbf·ft", 1, 1, true},
    KindFacts{Kind::density, "density", "kg/m³", "lb/ft³", 3, 4, true},
    KindFacts{Kind::wing_loading, "wing loading", "N/m²", "lbf/ft²", 1, 2, true},
    KindFacts{Kind::areal_weight, "weight by area", "g/m²", "oz/yd²", 0, 2, true},
    KindFacts{Kind::warmth, "difference of temperature", "K", "°F", 1, 1, true},
    KindFacts{Kind::inertia, "inertia", "kg·m²", "lb·ft²", 6, 5, true},
    KindFacts{Kind::turn_rate, "turning speed", "1/min", "1/min", 1, 1, true},
    KindFacts{Kind::current, "current", "A", "A", 2, 2, true},
    KindFacts{Kind::flow, "flow", "l/min", "gal/min", 2, 3, true},
    KindFacts{Kind::voltage, "voltage", "V", "V", 2, 2, true},
    KindFacts{Kind::resistance, "resistance", "mΩ", "mΩ", 1, 1, true},
    KindFacts{Kind::bore, "bore", "mm", "in", 2, 4, true},
};

const KindFacts& facts(Kind kind) {
  return *std::find_if(kind_facts.begin(), kind_facts.end(), [&](const auto& f) { return f.kind == kind; });
}

bool is_digit(char c) { return c >= '0' && c <= '9'; }

//! A cursor over the text of one entry.
class Scanner {
 public:
  explicit Scanner(std::string_view text) : rest_(text) {}

  void skip_spaces() {
    while (!rest_.empty()) {
      if (rest_.front() == ' ' || rest_.front() == '\t')
        rest_.remove_prefix(1);
      else if (!take("\u00a0") && !take("\u2009") && !take("\u202f"))
        return;
    }
  }
  bool at_end() {
    skip_spaces();
    return rest_.empty();
  }
  bool take(std::string_view what) {
    if (rest_.substr(0, what.size()) != what) return false;
    rest_.remove_prefix(what.size());
    return true;
  }
  std::string_view rest() const { return rest_; }
  void advance(size_t n) { rest_.remove_prefix(n); }

 private:
  std::string_view rest_;
};

struct VulgarFraction {
  std::string_view glyph;
  double value;
};
constexpr std::array vulgar_fractions{
    VulgarFraction{"½", 0.5},   VulgarFraction{"¼", 0.25},      VulgarFraction{"¾", 0.75},
    VulgarFraction{"⅛", 0.125}, VulgarFraction{"⅜", 0.375},     VulgarFraction{"⅝", 0.625},
    VulgarFraction{"⅞", 0.875}, VulgarFraction{"⅓", 1.0 / 3.0}, VulgarFraction{"⅔", 2.0 / 3.0},
};

std::optional<double> take_vulgar(Scanner& in) {
  for (const auto& f : vulgar_fractions)
    if (in.take(f.glyph)) return f.value;
  return std::nullopt;
}

//! Length of a run of digits, at most one decimal separator, and an exponent, at the start of the text.
size_t decimal_length(std::string_view s) {
  size_t i = 0;
  bool separator = false;
  while (i < s.size() && (is_digit(s[i]) || (!separator && (s[i] == '.' || s[i] == ',')))) {
    separator = separator || !is_digit(s[i]);
    ++i;
  }
  if (i > 0 && i + 1 < s.size() && (s[i] == 'e' || s[i] == 'E')) {
    size_t j = i + 1;
    if (j < s.size() && (s[j] == '-' || s[j] == '+')) ++j;
    if (j < s.size() && is_digit(s[j])) {
      while (j < s.size() && is_digit(s[j])) ++j;
      i = j;
    }
  }
  return i;
}

size_t digits_length(std::string_view s) {
  size_t i = 0;
  while (i < s.size() && is_digit(s[i])) ++i;
  return i;
}

//! A fraction "3/8" at the start of the text, or nothing (then the scanner stays where it was).
std::optional<double> take_fraction(Scanner& in) {
  const auto s = in.rest();
  const size_t top = digits_length(s);
  if (top == 0 || top >= s.size() || s[top] != '/') return std::nullopt;
  const size_t bottom = digits_length(s.substr(top + 1));
  if (bottom == 0) return std::nullopt;
  double a = 0;
  double b = 0;
  std::from_chars(s.data(), s.data() + top, a);
  std::from_chars(s.data() + top + 1, s.data() + top + 1 + bottom, b);
  if (b == 0) return std::nullopt;
  in.advance(top + 1 + bottom);
  return a / b;
}

std::variant<double, ParseError> take_number(Scanner& in) {
  if (auto v = take_vulgar(in)) return *v;
  if (auto f = take_fraction(in)) return *f;
  const auto s = in.rest();
  const size_t n = decimal_length(s);
  std::string digits(s.substr(0, n));
  if (n == 0 || digits == "." || digits == ",")
    return ParseError{fmt::format("a number was expected at “{}”", s.substr(0, 12))};
  if (const auto comma = digits.find(','); comma != std::string::npos) {
    if (comma > 0 && comma + 4 == digits.size())
      return ParseError{fmt::format(
          "“{}” may mean a thousand or a decimal: write it without the comma, or with a point", digits)};
    digits[comma] = '.';
  }
  double value = 0;
  const auto [end, error] = std::from_chars(digits.data(), digits.data() + digits.size(), value);
  if (error != std::errc() || end != digits.data() + digits.size())
    return ParseError{fmt::format("“{}” is not a number", digits)};
  in.advance(n);
  const bool whole = digits.find_first_of(".eE") == std::string::npos;
  if (whole) {  // "41 3/8", "41-3/8" is left to the sum, "41⅜"
    Scanner ahead = in;
    ahead.skip_spaces();
    if (auto part = take_fraction(ahead)) {
      in = ahead;
      return value + *part;
    }
    if (auto part = take_vulgar(ahead)) {
      in = ahead;
      return value + *part;
    }
  }
  return value;
}

//! The longest unit symbol of the kind at the start of the text.
const Unit* take_unit(Scanner& in, Kind kind) {
  const Unit* best = nullptr;
  for (const auto& u : known_units()) {
    if (u.kind != kind || u.symbol.empty() || in.rest().substr(0, u.symbol.size()) != u.symbol) continue;
    if (!best || u.symbol.size() > best->symbol.size()) best = &u;
  }
  if (best) {  // a symbol must end where the word ends: "mm" is not "m" + "m"
    const auto after = in.rest().substr(best->symbol.size());
    const bool lettered = std::isalpha(static_cast<unsigned char>(best->symbol.back())) != 0;
    if (lettered && !after.empty() && std::isalpha(static_cast<unsigned char>(after.front()))) return nullptr;
    in.advance(best->symbol.size());
  }
  return best;
}

struct Part {
  double number;
  const Unit* unit;  //!< null where none was typed
  double sign;
};

std::string units_of(Kind kind) {
  std::string list;
  for (const auto& u : known_units())
    if (u.kind == kind && !u.symbol.empty()) list += (list.empty() ? "" : ", ") + std::string(u.symbol);
  return list.empty() ? "no unit" : list;
}

}  // namespace

const std::vector<Unit>& known_units() {
  static const std::vector<Unit> units{
      {"m", Kind::length, 1},
      {"cm", Kind::length, 0.01},
      {"mm", Kind::length, 0.001},
      {"in", Kind::length, inch},
      {"inch", Kind::length, inch},
      {"\"", Kind::length, inch},
      {"″", Kind::length, inch},
      {"”", Kind::length, inch},
      {"ft", Kind::length, 12 * inch},
      {"'", Kind::length, 12 * inch},
      {"′", Kind::length, 12 * inch},
      {"’", Kind::length, 12 * inch},
      {"kg", Kind::mass, 1},
      {"g", Kind::mass, 0.001},
      {"t", Kind::mass, 1000},
      {"lb", Kind::mass, pound},
      {"lbs", Kind::mass, pound},
      {"oz", Kind::mass, pound / 16},
      {"rad", Kind::angle, 1},
      {"deg", Kind::angle, std::numbers::pi / 180},
      {"°", Kind::angle, std::numbers::pi / 180},
      {"N", Kind::force, 1},
      {"kN", Kind::force, 1000},
      {"kgf", Kind::force, standard_gravity},
      {"gf", Kind::force, standard_gravity / 1000},
      {"lbf", Kind::force, pound_force},
      {"ozf", Kind::force, pound_force / 16},
      {"Pa", Kind::pressure, 1},
      {"kPa", Kind::pressure, 1e3},
      {"MPa", Kind::pressure, 1e6},
      {"bar", Kind::pressure, 1e5},
      {"psi", Kind::pressure, pound_force / (inch * inch)},
      {"Pa", Kind::stress, 1},
      {"MPa", Kind::stress, 1e6},
      {"N/mm²", Kind::stress, 1e6},
      {"N/mm2", Kind::stress, 1e6},
      {"GPa", Kind::stress, 1e9},
      {"psi", Kind::stress, pound_force / (inch * inch)},
      {"ksi", Kind::stress, 1000 * pound_force / (inch * inch)},
      {"N/m", Kind::stiffness, 1},
      {"N/mm", Kind::stiffness, 1000},
      {"kN/m", Kind::stiffness, 1000},
      {"kgf/mm", Kind::stiffness, standard_gravity * 1000},
      {"lbf/in", Kind::stiffness, pound_force / inch},
      {"lb/in", Kind::stiffness, pound_force / inch},
      {"N·m/rad", Kind::torsion_rate, 1},
      {"Nm/rad", Kind::torsion_rate, 1},
      {"lbf·ft/rad", Kind::torsion_rate, pound_force * 12 * inch},
      {"N·m/°", Kind::torsion_rate, 57.295779513082320877},
      {"N·s/m", Kind::damping, 1},
      {"Ns/m", Kind::damping, 1},
      {"lbf·s/in", Kind::damping, pound_force / inch},
      {"m/s", Kind::speed, 1},
      {"km/h", Kind::speed, 1 / 3.6},
      {"kt", Kind::speed, 1852.0 / 3600},
      {"ft/s", Kind::speed, 12 * inch},
      {"mph", Kind::speed, 1609.344 / 3600},
      {"s", Kind::time, 1},
      {"ms", Kind::time, 0.001},
      {"min", Kind::time, 60},
      {"h", Kind::time, 3600},
      {"m²", Kind::area, 1},
      {"m2", Kind::area, 1},
      {"dm²", Kind::area, 0.01},
      {"dm2", Kind::area, 0.01},
      {"cm²", Kind::area, 1e-4},
      {"cm2", Kind::area, 1e-4},
      {"mm²", Kind::area, 1e-6},
      {"mm2", Kind::area, 1e-6},
      {"ft²", Kind::area, 144 * inch * inch},
      {"ft2", Kind::area, 144 * inch * inch},
      {"in²", Kind::area, inch * inch},
      {"in2", Kind::area, inch * inch},
      {"m²", Kind::section_area, 1},
      {"m2", Kind::section_area, 1},
      {"cm²", Kind::section_area, 1e-4},
      {"cm2", Kind::section_area, 1e-4},
      {"mm²", Kind::section_area, 1e-6},
      {"mm2", Kind::section_area, 1e-6},
      {"in²", Kind::section_area, inch * inch},
      {"in2", Kind::section_area, inch * inch},
      {"m³", Kind::volume, 1},
      {"m3", Kind::volume, 1},
      {"l", Kind::volume, 1e-3},
      {"cm³", Kind::volume, 1e-6},
      {"cm3", Kind::volume, 1e-6},
      {"ml", Kind::volume, 1e-6},
      {"in³", Kind::volume, inch * inch * inch},
      {"in3", Kind::volume, inch * inch * inch},
      {"", Kind::share, 1},
      {"%", Kind::share, 0.01},
      {"", Kind::factor, 1},
      {"g", Kind::in_g, 1},
      {"m/s²", Kind::in_g, 1 / standard_gravity},
      {"m/s2", Kind::in_g, 1 / standard_gravity},
      {"J", Kind::energy, 1},
      {"kJ", Kind::energy, 1000},
      {"ft·lbf", Kind::energy, 12 * inch * pound_force},
      {"ft lbf", Kind::energy, 12 * inch * pound_force},
      {"N·m", Kind::moment, 1},
      {"N m", Kind::moment, 1},
      {"Nm", Kind::moment, 1},
      {"kgf·cm", Kind::moment, standard_gravity / 100},
      {"lbf·ft", Kind::moment, 12 * inch * pound_force},
      {"lbf·in", Kind::moment, inch * pound_force},
      {"kg/m³", Kind::density, 1},
      {"kg/m3", Kind::density, 1},
      {"lb/ft³", Kind::density, pound / (1728 * inch * inch * inch)},
      {"N/m²", Kind::wing_loading, 1},
      {"N/m2", Kind::wing_loading, 1},
      {"kg/m²", Kind::wing_loading, standard_gravity},
      {"g/dm²", Kind::wing_loading, standard_gravity / 10},
      {"lbf/ft²", Kind::wing_loading, pound_force / (144 * inch * inch)},
      {"lb/ft²", Kind::wing_loading, pound_force / (144 * inch * inch)},
      {"oz/ft²", Kind::wing_loading, pound_force / (16 * 144 * inch * inch)},
      {"m", Kind::distance, 1},
      {"ft", Kind::distance, 12 * inch},
      {"kg/m²", Kind::areal_weight, 1},
      {"kg/m2", Kind::areal_weight, 1},
      {"g/m²", Kind::areal_weight, 0.001},
      {"g/m2", Kind::areal_weight, 0.001},
      {"oz/yd²", Kind::areal_weight, pound / 16 / (1296 * inch * inch)},
      {"oz/yd2", Kind::areal_weight, pound / 16 / (1296 * inch * inch)},
      {"K", Kind::warmth, 1},
      {"°C", Kind::warmth, 1},
      {"°F", Kind::warmth, 5.0 / 9},
      {"kg·m²", Kind::inertia, 1},
      {"kg m2", Kind::inertia, 1},
      {"g·cm²", Kind::inertia, 1e-7},
      {"g cm2", Kind::inertia, 1e-7},
      {"lb·ft²", Kind::inertia, pound * 144 * inch * inch},
      {"lb ft2", Kind::inertia, pound * 144 * inch * inch},
      {"rad/s", Kind::turn_rate, 1},
      {"1/min", Kind::turn_rate, 2 * std::numbers::pi / 60},
      {"rpm", Kind::turn_rate, 2 * std::numbers::pi / 60},
      {"°/s", Kind::turn_rate, std::numbers::pi / 180},
      {"A", Kind::current, 1},
      {"mA", Kind::current, 0.001},
      {"m³/s", Kind::flow, 1},
      {"m3/s", Kind::flow, 1},
      {"l/min", Kind::flow, 0.001 / 60},
      {"gal/min", Kind::flow, 231 * inch * inch * inch / 60},
      {"V", Kind::voltage, 1},
      {"Ω", Kind::resistance, 1},
      {"ohm", Kind::resistance, 1},
      {"mΩ", Kind::resistance, 0.001},
      {"mohm", Kind::resistance, 0.001},
      {"m", Kind::bore, 1},
      {"mm", Kind::bore, 0.001},
      {"in", Kind::bore, inch},
      {"\"", Kind::bore, inch},
  };
  return units;
}

const Unit* find_unit(Kind kind, std::string_view symbol) {
  for (const auto& u : known_units())
    if (u.kind == kind && u.symbol == symbol) return &u;
  return nullptr;
}

const Unit& display_unit(Kind kind, UnitSystem system) {
  const auto& f = facts(kind);
  return *find_unit(kind, system == UnitSystem::metric ? f.metric : f.imperial);
}

std::string_view kind_name(Kind kind) { return facts(kind).name; }

std::variant<ParsedQuantity, ParseError> parse_quantity(std::string_view text, Kind kind, UnitSystem system) {
  if (text.size() > 200) return ParseError{"the entry is longer than 200 characters"};
  Scanner in(text);
  std::vector<Part> parts;
  double sign = 1;
  bool need_term = true;
  while (!in.at_end()) {
    if (in.take("-") || in.take("−") || in.take("–")) {
      sign = -1;
      need_term = true;
      in.skip_spaces();
    } else if (in.take("+")) {
      sign = 1;
      need_term = true;
      in.skip_spaces();
    }
    if (in.at_end()) break;
    auto number = take_number(in);
    if (auto* e = std::get_if<ParseError>(&number)) return *e;
    in.skip_spaces();
    Scanner before = in;
    const Unit* unit = take_unit(in, kind);
    const char next = before.rest().empty() ? ' ' : before.rest().front();
    if (!unit &&
        (std::isalpha(static_cast<unsigned char>(next)) || static_cast<unsigned char>(next) >= 0x80) &&
        before.rest().substr(0, 3) != "−" && before.rest().substr(0, 3) != "–")
      return ParseError{
          fmt::format("“{}” is not a unit of {}; use {}", before.rest(), kind_name(kind), units_of(kind))};
    if (!need_term && !parts.empty() && !parts.back().unit)
      return ParseError{"two numbers stand side by side without a sign or a unit"};
    parts.push_back({std::get<double>(number), unit, sign});
    need_term = false;
  }
  if (parts.empty())
    return ParseError{fmt::format("a {} was expected, such as {}", kind_name(kind),
                                  kind == Kind::length ? "1835 or 41 3/8\"" : "12.5")};
  if (need_term) return ParseError{"a number was expected after the sign"};

  const Unit* only = nullptr;  // the one unit named in the entry, if it is the same wherever one stands
  bool several = false;
  for (const auto& p : parts) {
    if (!p.unit) continue;
    several = several || (only && only->to_si != p.unit->to_si);
    only = p.unit;
  }
  const Unit& fallback = only && !several ? *only : display_unit(kind, system);
  double si = 0;
  const Unit* previous = nullptr;
  for (const auto& p : parts) {
    const Unit* unit = p.unit;
    if (!unit && previous && kind == Kind::length && previous->to_si == 12 * inch)
      unit = find_unit(kind, "in");
    if (!unit && several && !(previous && previous->to_si == 12 * inch))
      return ParseError{"a number without a unit stands among several units: say which it has"};
    if (!unit) unit = &fallback;
    si += p.sign * p.number * unit->to_si;
    previous = p.unit;
  }
  if (!std::isfinite(si) || std::abs(si) > 1e15) return ParseError{"the number is too large"};
  return ParsedQuantity{si, format_quantity(si, kind, system)};
}

std::variant<ParsedWithTolerance, ParseError> parse_with_tolerance(std::string_view text, Kind kind,
                                                                   UnitSystem system) {
  size_t at = std::string_view::npos;
  size_t length = 0;
  for (const std::string_view sign : {"±", "+/-", "+-"})
    if (const auto found = text.find(sign); found != std::string_view::npos) {
      at = found;
      length = sign.size();
      break;
    }
  auto value = parse_quantity(text.substr(0, at), kind, system);
  if (const auto* error = std::get_if<ParseError>(&value)) return *error;
  ParsedWithTolerance result{std::get<ParsedQuantity>(std::move(value)), std::nullopt, {}};
  result.understood = result.value.understood;
  if (at == std::string_view::npos) return result;
  std::string_view rest = text.substr(at + length);
  while (!rest.empty() && rest.front() == ' ') rest.remove_prefix(1);
  while (!rest.empty() && rest.back() == ' ') rest.remove_suffix(1);
  double tolerance = 0;
  if (kind != Kind::share && !rest.empty() && rest.back() == '%') {  // of the value
    const auto share = parse_quantity(rest, Kind::share, system);
    if (const auto* error = std::get_if<ParseError>(&share)) return *error;
    tolerance = std::get<ParsedQuantity>(share).si * std::abs(result.value.si);
  } else {
    const auto plus_minus = parse_quantity(rest, kind, system);
    if (const auto* error = std::get_if<ParseError>(&plus_minus))
      return ParseError{"after ±: " + error->message};
    tolerance = std::get<ParsedQuantity>(plus_minus).si;
  }
  if (tolerance < 0) return ParseError{"a tolerance is not negative"};
  result.tolerance = tolerance;
  result.understood += " ± " + format_quantity(tolerance, kind, system);
  return result;
}

std::string format_number(double si, Kind kind, UnitSystem system) {
  if (!std::isfinite(si)) return "unknown";
  const auto& f = facts(kind);
  int decimals = system == UnitSystem::metric ? f.metric_decimals : f.imperial_decimals;
  const double shown = si / display_unit(kind, system).to_si;
  const double size = std::abs(shown);
  if (kind == Kind::mass && size >= 100) decimals = 1;
  if (kind == Kind::force && size < 20) decimals = 2;
  if (kind == Kind::force && size >= 1000) decimals = 0;
  if (kind == Kind::stress && size < 20) decimals = 2;
  if (kind == Kind::speed && size < 0.2) decimals = 3;  // an actuator's
  std::string s = fmt::format("{:.{}f}", shown, decimals);
  if (f.trims && s.find('.') != std::string::npos) {
    s.erase(s.find_last_not_of('0') + 1);
    if (s.back() == '.') s.pop_back();
  }
  if (s.find_first_not_of("-0.") == std::string::npos && s.front() == '-') s.erase(0, 1);
  if (s.front() == '-') s.replace(0, 1, "−");
  return s;
}

std::string format_quantity(double si, Kind kind, UnitSystem system) {
  if (!std::isfinite(si)) return "unknown";
  // A bottle's or a pump's hours are not read in seconds.
  constexpr double hour = 3600;
  if (kind == Kind::time && std::abs(si) >= 2 * hour)
    return format_number(std::round(si / hour * 10) / 10, Kind::time, system) + "\u00a0h";
  const auto symbol = display_unit(kind, system).symbol;
  const bool tight = symbol == "°" || symbol.empty();
  return format_number(si, kind, system) + (tight ? "" : "\u00a0") + std::string(symbol);
}

std::string format_difference(double si, Kind kind, UnitSystem system) {
  const std::string s = format_quantity(si, kind, system);
  return si > 0 && s.find_first_of("123456789") != std::string::npos ? "+" + s : s;
}

std::string shortest(double value) {
  std::array<char, 40> buffer{};
  const auto [end, error] = std::to_chars(buffer.data(), buffer.data() + buffer.size(), value);
  return error == std::errc() ? std::string(buffer.data(), end) : std::string("nan");
}

}  // namespace kranich
