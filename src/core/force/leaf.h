// SPDX-License-Identifier: GPL-3.0-or-later
//! Legs that bend: leaves of metal, bows of carbon, bent wire with loops – each a chain of beams from its
//! clamp to the axle, solved by the frame; and the soft leaf that yields. SI, starboard leg. Source:
//! handbook, Springs.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/force/frame.h"

namespace kranich::force {

//! What holds a chain's clamped end: how far it gives, m/N along and rad/(N·m) about the aircraft's axes.
struct RootGive {
  Vec3 along{0, 0, 0}, about{0, 0, 0};
  bool rigid() const { return along.isZero() && about.isZero(); }
};

//! A leg as a chain: centre-line points from the clamp, a rectangle (width fore and aft, thickness in the
//! plane of the leg) or a round wire at each.
struct BendingLeg {
  std::vector<Vec3> points;
  std::vector<double> width, thickness;  //!< at each point, of a leaf; empty of a wire
  Vec3 across = Vec3::UnitX();           //!< along its width
  double wire_diameter = 0;
  Elastic material{};
  bool streamlined = false;  //!< a leaf's section; else a rectangle
  RootGive root;
  double across_rate = 0;  //!< of a spring-wire strut to the other leg, N/m at this axle; 0: none
  bool stub = false;       //!< the last piece of a leaf is a stub axle: it carries on without bending
  struct Loop {
    double along;  //!< of its centre from the clamp along the leg, m
    double mean_diameter, turns;
    Vec3 axis = Vec3::UnitX();
  };
  std::vector<Loop> loops;
};

//! A straight leaf of linear taper, canted (rad from the vertical), in `pieces` beams.
BendingLeg straight_leaf(double length, double cant, double root_width, double tip_width,
                         double root_thickness, double tip_thickness, const Elastic& material,
                         int pieces = 200);
//! An arc leaving the root at an angle below the horizontal, ending at another, then straight.
BendingLeg curved_leaf(double radius, double from, double to, double straight, double width, double thickness,
                       const Elastic& material, int pieces = 96);

struct LoopState {
  double rate;     //!< E·d⁴/(64·D·N), N·m/rad
  double wind_up;  //!< rad
  double stress;   //!< inner, K_i·32·M/(π·d³)
};

struct Bent {
  Mat3 flexibility;                  //!< at the axle, free to turn
  double vertical_stiffness;         //!< 1/c_zz: the wheel free to spread
  double held_stiffness;             //!< K_zz: held sideways and fore and aft
  Vec3 moved, turned;                //!< of the axle
  double camber_change, toe_change;  //!< rad; starboard, top outboard and front inboard positive
  double root_moment;                //!< bending moment at the clamp, N·m
  double root_stress;  //!< greatest at the clamp: bending with axial (and torsion to von Mises of a wire)
  double root_normal_stress;          //!< bending with axial alone
  double largest_stress, largest_at;  //!< along the leg: magnitude, and distance from the clamp
  double strain_energy;
  std::vector<double> along, stress;  //!< at each point
  std::vector<Vec3> line;             //!< the centre line under load
  std::vector<LoopState> loops;
};
struct AxleLoad {
  Vec3 force, moment{0, 0, 0};
};
//! Solves a leg under several loads at the axle with one factorisation; a spring-wire strut across to the
//! other leg holds it back in each. Empty where the leg has no length.
std::vector<Bent> bend_each(const BendingLeg& leg, const std::vector<AxleLoad>& loads);
//! Solves a leg by itself, no strut across, under a force at the axle, and a moment there. Nothing where the
//! leg has no length.
std::optional<Bent> bend(const BendingLeg& leg, const Vec3& load, const Vec3& moment = Vec3::Zero());

//! A soft leaf loaded across at its tip, M/M_y = 1.5 − 0.5·(κ_y/κ)² beyond yield, unloading and reloading up
//! to the former peak elastic. Its rectangle may change along it: every section bends by its own moment, so
//! that δ = ∫κ(P·a)·a ds with a the arm to the tip, and the work put in is ∫∫M dκ ds. Where the collapse load
//! is reached within the leaf and not at its clamp, the deflection grows beyond all bounds before it.
class SoftLeaf {
 public:
  //! Width and thickness (m) at a distance from the clamp; linear between.
  struct Section {
    double from_clamp, width, thickness;
  };
  //! As long as its last section is from the clamp; at least two, in order.
  SoftLeaf(const std::vector<Section>& sections, double youngs_modulus, double yield_stress);
  SoftLeaf(double length, double width, double thickness, double youngs_modulus, double yield_stress)
      : SoftLeaf({{0, width, thickness}, {length, width, thickness}}, youngs_modulus, yield_stress) {}
  double rate() const { return rate_; }                    //!< elastic; of a uniform one 3EI/L³
  double yield_load() const { return yield_load_; }        //!< at which an outer fibre yields first
  double yields_at() const { return yields_at_; }          //!< where, from the clamp, m
  double collapse_load() const { return collapse_load_; }  //!< least 1.5·M_y over the arm
  //! Deflection under a load on the first loading; infinite from the collapse load on.
  double deflection(double load) const;
  double set_after(double peak_load) const { return deflection(peak_load) - peak_load / rate_; }
  //! Work from the unloaded leaf, already bent by `former` (its former peak load), up to a peak.
  double work(double peak_load, double former = 0) const;
  //! Above this energy every landing adds to the set: ½·P_c²/k.
  double endless_energy() const { return collapse_load() * collapse_load() / (2 * rate_); }

 private:
  struct Slice {
    double arm, length;       //!< to the tip; its share of the leaf's length, m
    double stiffness, yield;  //!< EI, M_y
  };
  std::vector<Slice> slices_;
  double rate_, yield_load_, yields_at_, collapse_load_;
};

//! A row of landings of one energy, each from where the one before left the leaf.
struct LandingRow {
  std::vector<double> peak_load;  //!< of the leaf itself
  std::vector<double> set;  //!< as it rests after each landing, a wire pulling it back; infinite: folded
  int folds = 0;            //!< which of them folds it, 1 the first; 0 none
  bool endless = false;     //!< every further one adds: above ½·P_c²/k without a wire
};
//! `wire_rate`: of a spring-wire strut in parallel across the leaf, unloaded on the unbent one. It takes its
//! share of the energy, and pulls a leaf set by δ back to δ·k/(k + k_w). A leaf at its collapse load turns at
//! its root like a hinge: without a wire nothing stops it.
LandingRow row_of_landings(const SoftLeaf& leaf, double energy, int landings, double wire_rate = 0);

//! The same leaf with a spring-wire strut in parallel, unloaded on the unbent leg.
struct WithWire {
  double leaf_load, deflection, set_fitted, set_without;
};
WithWire with_wire(const SoftLeaf& leaf, double wire_rate, double peak_load);

//! Carbon bow by the rule of thumb: 55–85 ply-millimetres of root width a kilogram. A seed only.
struct BowSeed {
  double plies_low, plies_high;
};
BowSeed bow_seed(double mass, double root_width);
//! Thickness of one ply: areal weight / (fibre density · fibre volume fraction).
double ply_thickness(double areal_weight, double fibre_fraction, double fibre_density = 1800);

}  // namespace kranich::force
