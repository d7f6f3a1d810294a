// SPDX-License-Identifier: GPL-3.0-or-later
//! Cylinders, pumps, restrictors, tees and switches, quasi-static: at every place flow and forces balance.
//! SI, pressures above the tank's. Source: handbook, Circuit, Hydraulics.
#pragma once

#include <functional>
#include <limits>
#include <optional>
#include <vector>

namespace kranich::circuit {

//! Q = Q₀ − k·p; the voltage sets Q₀.
struct Pump {
  double flow, loss;
  double at(double pressure) const { return flow - loss * pressure; }
  bool operator==(const Pump&) const = default;
};

//! Q = C_d·A·√(2Δp/ρ).
struct Restrictor {
  double coefficient, area, density;
  double drop(double flow) const;
  double flow(double drop) const;
  bool operator==(const Restrictor&) const = default;
};
enum class Braked { return_side, supply_side };

//! A double-acting cylinder over its stroke, one way. `load` resists the motion where positive, by the share
//! of the stroke gone; it is smooth over each of `pieces` equal shares, and where `straight`, straight there.
struct Stroke {
  double area_in, area_out;  //!< where oil goes in, where it goes out
  double length;
  std::function<double(double)> load;
  Pump pump;
  Restrictor restrictor;
  Braked braked = Braked::return_side;
  double tank = 0;
  int pieces = 8;
  bool straight = false;
};
struct StrokePoint {
  double speed;            //!< 0: it stands, the pump cannot
  double pressure;         //!< at the pump
  double return_pressure;  //!< where the oil goes out
  bool runs_ahead;         //!< the load alone moves it faster than the pump fills: the pump side is empty
};
StrokePoint at_share(const Stroke& stroke, double share);
struct StrokeFigures {
  double time;  //!< +∞ where it stops on the way
  double peak_pressure, peak_return;
  bool runs_ahead;  //!< somewhere
  double stops_at;  //!< share of the stroke, to a millionth; 1: it arrives
};
StrokeFigures stroke_figures(const Stroke& stroke);

//! A wanted time, by the restrictor, and what a pressure switch says to it.
struct Slowed {
  double widest_time, widest_peak;  //!< with the restrictor open as far as it goes
  std::optional<double> area;       //!< that gives the wanted time; nothing: no setting does
  double peak = 0;                  //!< then
  bool trips = false;
  double trips_at = std::numeric_limits<double>::quiet_NaN();  //!< share of the stroke
  std::optional<double> narrowest;                             //!< that does not trip
  double longest_time = 0;                                     //!< with it
  std::optional<double> pump_factor;  //!< pump slower by this, restrictor open: the other way to that time
  double factor_peak = 0;
};
Slowed slowed(const Stroke& stroke, double widest_area, double wanted_time, double cut_out);

//! One of several cylinders on one pump, its return free, a check in its branch.
struct Branch {
  double area, length;
  std::function<double(double)> load;  //!< by the share of the stroke
  Restrictor line;
  bool check = true;  //!< else a heavier leg is pushed back
};
struct BranchRun {
  double starts, arrives;  //!< s; NaN: never
  int pauses = 0;          //!< how often it stood still on the way
};
struct Sample {
  double time, pressure;
  std::vector<double> places;  //!< shares of the strokes
};
struct TeeRun {
  std::vector<BranchRun> branches;
  double peak_pressure;  //!< before the last arrives
  std::vector<Sample> samples;
  double length() const { return samples.empty() ? 0 : samples.back().time; }  //!< s
  //! At any time, straight between samples; before and after as at the ends.
  Sample at(double time) const;
};
//! On a plain tee: the lightest load goes first, the others wait.
//! In so many steps of the fastest stroke, of fourth order between corners.
TeeRun on_a_tee(const std::vector<Branch>& branches, const Pump& pump, int steps = 2000);
enum class Divider { ideal, throttling, geared };
//! Through a divider: equal flows. Ideal and throttling ones need the heaviest branch's pressure at their
//! inlet, geared ones the mean.
TeeRun on_a_divider(const std::vector<Branch>& branches, const Pump& pump, Divider kind = Divider::ideal,
                    int steps = 2000);

//! Pressure trapped behind a check, its leak, and the switch that brings the pump on again.
struct Trapped {
  double volume, bulk_modulus, hose;  //!< m3, Pa, m3/Pa
  double leak_constant = 0, leak_per_pressure = 0;
  double cut_out, cut_in;
  Pump pump;
  double compliance() const { return volume / bulk_modulus + hose; }
  //! So long after the pump stopped, nothing else moving.
  double pressure_after(double time) const;
  double time_to_cut_in() const;  //!< +∞ where nothing leaks
  double pump_time() const;       //!< from cut-in to cut-out; +∞ where the leak is more than it gives
};

}  // namespace kranich::circuit
