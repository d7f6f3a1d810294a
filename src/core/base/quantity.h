// SPDX-License-Identifier: GPL-3.0-or-later
//! Physical quantities at the program's edges: units, what a builder types, what a screen shows.
//! Inside the core every number is SI (m, kg, s, N, Pa, rad); conversion happens here and nowhere else.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

namespace kranich {

inline constexpr double standard_gravity = 9.80665;  //!< m/s2, by definition

//! What a number measures. Decides which units an entry accepts and how a screen shows it.
enum class Kind {
  length,        // m, shown in mm or in
  distance,      // m, shown in m or ft: a ground run, stock to buy
  mass,          // kg
  angle,         // rad; files carry degrees
  force,         // N
  pressure,      // Pa
  stress,        // Pa, shown in MPa or psi
  stiffness,     // N/m
  torsion_rate,  // N m/rad
  damping,       // N s/m
  speed,         // m/s
  time,          // s
  area,          // m2
  section_area,  // m2, shown in mm2: pistons, wires
  volume,        // m3
  share,         // a fraction, shown in per cent
  factor,        // a plain number
  in_g,          // an acceleration as a multiple of g
  energy,        // J
  moment,        // N m
  density,       // kg/m3
  wing_loading,  // N/m2
  areal_weight,  // kg/m2
  warmth,        // a difference of temperature, K
  inertia,       // kg m2
  turn_rate,     // rad/s
  current,       // A
  flow,          // m3/s
  voltage,       // V
  resistance,    // Ω, shown in mΩ
  bore,          // m, shown in mm to a hundredth: holes that are drilled for what flows through them
};

enum class UnitSystem { metric, inch };

struct Unit {
  std::string_view symbol;
  Kind kind;
  double to_si;  //!< SI value of one of this unit
};

//! Every unit that entries accept; the first of a kind is its SI unit.
const std::vector<Unit>& known_units();

//! Finds a unit by symbol within a kind.
const Unit* find_unit(Kind kind, std::string_view symbol);

//! The unit in which a kind is shown, and in which a bare number is read.
const Unit& display_unit(Kind kind, UnitSystem system);

//! What a kind is called in a message: "length", "angle", ...
std::string_view kind_name(Kind kind);

struct ParsedQuantity {
  double si = 0;
  std::string understood;  //!< the entry said back in the display unit, "1051.0 mm"
};

struct ParseError {
  std::string message;  //!< what was wrong, ready to show beside the entry
};

//! Reads what a builder types: `41 3/8"`, `6' 2"`, `7 lb 9 oz`, `183.5 cm`, `14 3/16 + 3/32`, `0.85 kgf`.
//! A bare number is in the kind's display unit; in a sum, terms without a unit take the one unit that the
//! entry names. After feet a bare number is inches. Returns the SI value or the reason for refusal.
std::variant<ParsedQuantity, ParseError> parse_quantity(std::string_view text, Kind kind, UnitSystem system);

//! A quantity with what it may be off by: "1835 ± 3", "41 3/8" +- 1/16", "9.8 kg +/- 2 %".
struct ParsedWithTolerance {
  ParsedQuantity value;
  std::optional<double> tolerance;  //!< SI, ≥ 0; nothing where the entry names none
  std::string understood;           //!< both said back
};
std::variant<ParsedWithTolerance, ParseError> parse_with_tolerance(std::string_view text, Kind kind,
                                                                   UnitSystem system);

//! Number of decimals a screen shows for a kind (trailing zeros are trimmed for lengths and masses).
std::string format_number(double si, Kind kind, UnitSystem system);

//! As format_number, with the unit: "1835 mm", "12.4 %". A value that is not finite reads "unknown".
std::string format_quantity(double si, Kind kind, UnitSystem system);

//! As format_quantity with an explicit sign, for differences.
std::string format_difference(double si, Kind kind, UnitSystem system);

//! Shortest decimal form that reads back to the same double, never locale dependent.
std::string shortest(double value);

inline constexpr double degrees(double rad) { return rad * 57.295779513082320877; }
inline constexpr double radians(double deg) { return deg / 57.295779513082320877; }

}  // namespace kranich
