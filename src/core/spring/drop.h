// SPDX-License-Identifier: GPL-3.0-or-later
//! Drop of one leg: sprung and unsprung mass, spring with stops, damper, friction, tyre. SI. Source:
//! handbook, Springs.
//!
//! The equations. z downward from first contact, s = z_s − z_u the stroke, K the lift over the weight:
//!   m_s·z̈_s = m_s·g − K·m·g − F(s, ṡ),   m_u·z̈_u = m_u·g + F − F_tyre(z_u),   m = m_s + m_u,
//! F the spring's law (held at F(0) below s = 0), the stops k_b·(s − S) above the travel and k_e·s below
//! zero, and the damper throughout. It starts on the extension stop, F = −K·m_u·g, so that both fall alike,
//! at ż = V. The tyre only pushes. Integrated by Boost.odeint's dopri5; contact, stops and the stroke's
//! turning points are found on its dense output and the run restarts behind each.
#pragma once

#include <functional>
#include <limits>
#include <optional>
#include <vector>

#include "core/force/leg_law.h"

namespace kranich::spring {

struct Damper {
  double closing = 0, extending = 0;  //!< linear, N·s/m
  //! Oil through an orifice: ½·ρ·A³·ṡ|ṡ|/(C_d·A_o)²; a table over the stroke meters the closing one.
  double oil_area = 0, oil_density = 860, discharge = 0.65;
  double orifice_closing = 0, orifice_extending = 0;
  std::vector<std::pair<double, double>> metered;  //!< (stroke, orifice area), rising strokes
  double friction = 0;                             //!< N, F_f·tanh(ṡ/0.02 m/s)
  bool operator==(const Damper&) const = default;
  double force(double stroke, double speed) const;
};

struct DropModel {
  double sprung_mass = 0, unsprung_mass = 0;  //!< kg
  double lift_ratio = 0;
  force::LegLaw spring;  //!< over the stroke; rigid: no strut at all, one mass on the tyre
  double travel = 0;     //!< S
  double bottom_stop = 3e5, extension_stop = 2e6;  //!< N/m
  Damper damper;
  force::TyreLaw tyre;
  double mass() const { return sprung_mass + unsprung_mass; }
  bool operator==(const DropModel&) const = default;
};

struct DropPoint {
  double t, sprung, unsprung, sprung_speed, unsprung_speed;                //!< s, m, m/s downward
  double stroke, strut, ground;                                            //!< m, N
  double spring_energy, damper_energy, stop_energy, tyre_energy, kinetic;  //!< J
};

//! Shares of the energy when the sprung mass first stops sinking.
struct EnergyShares {
  double spring, damper, friction, stops, tyre, unsprung_motion;
};

struct DropResult {
  double peak_ground, peak_strut;  //!< N
  double load_factor;              //!< N = F_tyre/(m·g)
  double inertia_factor;           //!< n = (F + K·m·g)/(m_s·g)
  double stroke_used, strut_efficiency;
  double stroke_at_peak;  //!< when the ground load is greatest, m
  bool bottoms;
  bool rim;    //!< the tyre's rim or core strikes
  bool ended;  //!< false: the motion could not be followed to its end, and no figure of it counts (all NaN)
  double energy;  //!< ½·m·V² and the work of weight less lift till the sprung mass stops, J
  EnergyShares shares;
  double time_to_peak, tyre_deflection, tyre_efficiency;
  double rebound_speed, hop_height, settling_time;  //!< settling NaN where it does not within the run
  double energy_error;                              //!< of the balance at the end, over the energy
  int steps;
  std::vector<DropPoint> trace;  //!< if asked for
};

struct DropRun {
  double duration = 1.2;  //!< s
  double tolerance = 1e-8;
  int trace = 0;  //!< points over the duration; 0: none
  //! End when the sprung mass has stopped sinking and the leg closes no further: no hop, no settling.
  bool until_stopped = false;
};

//! Drops the leg at a sink speed.
DropResult drop(const DropModel& model, double sink_speed, const DropRun& run = {});

struct Ladder {
  std::vector<double> height;
  std::vector<DropResult> result;
  std::optional<double> first_that_bottoms, first_over_factor;  //!< of the steps
  std::optional<double> first_that_yields;  //!< of the steps: a leg that bends takes a set
  std::optional<double> just_bottoms;       //!< height at which the stop is just met
};
//! Raises the height step by step till it bottoms (and one step on), or to a top.
//! `yields_at`: the stroke at which a leg that bends takes a set; infinite where none does.
Ladder drop_ladder(const DropModel& model, double first, double step, double top, double factor_allowed = 0,
                   double yields_at = std::numeric_limits<double>::infinity());

//! The ladder as it is climbed on the bench: free drops, without lift; a model by 5 cm, an aircraft's leg by
//! 10 cm, to 1.5 m.
struct BenchLadder {
  double step, top;  //!< m
  Ladder ladder;
};
BenchLadder bench_ladder(DropModel model, bool of_a_model, double factor_allowed,
                         double yields_at = std::numeric_limits<double>::infinity());

}  // namespace kranich::spring
