// SPDX-License-Identifier: GPL-3.0-or-later
//! Weigh: mass and centre of gravity from a ledger, from scales, from a tilt; ballast; mean aerodynamic
//! chord. SI units, aircraft axes (x aft, y starboard, z up). Source: handbook, Weigh.
#pragma once

#include <optional>
#include <span>
#include <string>
#include <vector>

#include "core/base/geometry.h"
#include "core/base/say.h"
#include "core/model/design.h"

namespace kranich::weigh {

struct Mass {
  double mass;  //!< kg
  Vec3 at;      //!< m
};

//! Sum and centre of masses: m = Σmᵢ, r = Σmᵢrᵢ/m. NaN where there is no mass.
Mass sum(std::span<const Mass> masses);

struct LedgerLine {
  Mass item;
  bool weighed;
  double tolerance;  //!< kg, plus or minus
};

struct LedgerSums {
  Mass total;
  double weighed_mass, estimated_mass;
  double spread_root_sum_square, spread_worst;  //!< kg, of the total
  double cg_x_foremost, cg_x_aftmost;           //!< m, any mix of the errors at their bounds
};

//! Totals of a ledger with its spread. The extremes of x̄ = Σmᵢxᵢ/Σmᵢ over the box of errors lie where every
//! item ahead of x̄ is at one bound and every item behind it at the other; found by repeating that choice
//! until it stands.
LedgerSums sum_ledger(std::span<const LedgerLine> lines);

struct WheelReading {
  double reading, tare;  //!< kg
  double x, y;           //!< of the contact, m
};
//! Mass and CG from scales in the level attitude (z is left at 0): x = ΣRᵢxᵢ/ΣRᵢ.
Mass from_scales(std::span<const WheelReading> wheels);

//! Scales in one line across the aircraft, net.
struct ScaleLine {
  double load = 0, x = 0;  //!< kg, m
  double tare = 0;         //!< kg, of all of them
  int scales = 0;
};
//! What stood on the design's scales, level. Nothing, and what is missing, where a reading, a tare or a place
//! is not given.
struct OnScales {
  std::optional<Mass> mass;
  //! The end that is raised to find the CG's height: nose or tail legs, of a gear without them the front
  //! line; and the wheels that it turns about.
  ScaleLine raised, others;
  bool two_lines = false;  //!< the others stand in one line
  double base = 0;         //!< from the foremost scale to the aftmost, m
  Text missing;
};
OnScales on_scales(const Design& design);
//! Adds a scale for every wheel that has none, without a reading, where the wheel stands in the drawing.
void scale_under_each(Design& design);
//! A wheel of a leg on the side that y says: "nose wheel", "port main wheel"; of a pair whose side is not
//! told the leg's wheel.
Text wheel_on_side(const Design& design, const Leg& leg, double y);
//! What a scale is called: its name, else what stands on it.
Text scale_word(const Design& design, const ScaleReading& scale);
//! The mass, and where it must lie, that makes `have` into `wanted` (all three axes); negative: too much of
//! it. Nothing where the two weigh the same.
std::optional<Mass> difference(const Mass& wanted, const Mass& have);

struct Tilt {
  double level_nose, level_port, level_starboard, tilted_nose;  //!< kg; each the sum of what stands there
  double pitch;                                                 //!< rad, nose up
  double nose_ahead_of_main;                                    //!< m, level (negative for a tailwheel)
  double nose_above_main;                                       //!< m, of the axles, level
  double main_axle_height;                                      //!< m above the ground, level
  double reading_error, pitch_error;                            //!< standard errors, kg and rad
  int nose_scales = 1, main_scales = 2;                         //!< readings that make them up
};
struct TiltResult {
  double mass, cg_ahead_of_main, cg_above_main_axle, cg_above_ground, standard_error;
};
//! Height of the CG by tilting: h′ = [W·a·cosθ − Rₙ·(L·cosθ − u·sinθ)]/(W·sinθ), legs blocked, wheels free to
//! roll. The error adds the readings' and the tilt's as independent (first order).
TiltResult cg_height_by_tilt(const Tilt& tilt);

//! Ballast at a station that brings the CG to a target: m·(x − x_t)/(x_t − x_b). Negative: none there can do
//! it.
double ballast(double mass, double cg_x, double target_x, double ballast_x);
//! Move of an item already aboard, aft positive: m·(x_t − x)/m_item.
double move_of_item(double mass, double cg_x, double target_x, double item_mass);

struct Panel {
  double half_span;                        //!< of this panel, m
  double inner_chord, outer_chord, sweep;  //!< m, m, rad of the leading edge
};
struct Chord {
  double area;        //!< both halves, m2
  double mean_chord;  //!< mean aerodynamic chord, m
  double y, leading_edge_x;
  double percent(double x) const { return 100 * (x - leading_edge_x) / mean_chord; }
};
//! Mean aerodynamic chord of a wing of straight-tapered panels from the centre line outwards: area-weighted
//! means of each panel's c̄ = ⅔·c_r·(1+λ+λ²)/(1+λ), its place and its leading edge.
Chord mean_aerodynamic_chord(double root_leading_edge_x, std::span<const Panel> panels);

//! The panels of the design's wing; empty where a measure of it is missing.
std::vector<Panel> wing_panels(const Surface& wing);

//! One loading of the design added up. `problem` says what is missing.
struct LoadingMass {
  Mass down{};  //!< gear down
  Mass up{};    //!< gear stowed; as down where no item moves
  LedgerSums spread{};
  Text problem;
  bool known() const { return problem.empty(); }
};
//! Adds up a loading. `stow` turns an item of the gear from its place when down to its place when stowed.
LoadingMass sum_loading(const Design& design, const Loading& loading);

//! Moves the CG of a loading aft by `dx` by sliding what slides aboard, as far as its tray goes; nothing
//! happens where nothing slides or the loading cannot be added up.
void shift_cg(Design& design, const std::string& loading, double dx);

//! An extreme of the CG over everything that may be aboard and wherever it may slide.
struct Extreme {
  double x, mass;
  Text with;  //!< what was chosen: "battery 1.46 kg at 115 mm, no bags"
};
struct Extremes {
  Extreme foremost, aftmost;
};
//! Over every combination: an item of the group `load` may be out unless every flown loading has it aboard;
//! its mass is any that a flown loading gives it; one that no flown loading takes counts for nothing; a
//! sliding item stands at either end. Nothing where a mass or place is missing or no loading is flown.
std::optional<Extremes> cg_extremes(const Design& design);

}  // namespace kranich::weigh
