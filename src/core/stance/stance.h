// SPDX-License-Identifier: GPL-3.0-or-later
//! Stance: how the aircraft sits at rest on its springs and tyres. SI, rad, aircraft axes.
//!
//! The equations. Heave h (height of the axes' origin above the ground), pitch θ and roll φ place the
//! aircraft; û(θ,φ) is the upward vertical in aircraft axes. A leg closed to its coordinate q holds its axle
//! at r(q) and the wheel's axis along a(q). The wheel, a thin disc of radius R, reaches R·n below its axle,
//! n = √(1 − (û·a)²), so the tyre is squashed by t = R·n − h − û·r(q), square to the ground, and carries
//! F(t) ≥ 0. The leg settles where its force along q balances the tyre's: G(q) = −F·∂t/∂q, within its travel.
//! Rest is where the gradient of the potential energy over (h, θ, φ) vanishes: ΣF = W, and the moments about
//! both axes balance. A rest that is no minimum is a balancing act and is refused. Assumptions: thin wheels,
//! vertical ground forces (wheels rolled in), rigid stops, no friction. Source: handbook, Stance; derivation
//! above.
#pragma once

#include <array>
#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "core/base/geometry.h"
#include "core/base/say.h"
#include "core/force/suspension.h"
#include "core/model/design.h"

namespace kranich::stance {

using force::LegLaw;
using force::Suspension;
using force::TyreLaw;

//! A leg with its wheel, or with two equal ones on its axle: one leg closure, each its own tyre.
struct WheelOnLeg {
  Suspension leg;
  double radius = 0;   //!< free
  TyreLaw tyre;        //!< of one wheel
  double spacing = 0;  //!< of two wheels, between their middle planes; 0: one
  PlacedLeg placed{};  //!< which leg of the design it is
  int tyres() const { return spacing > 0 ? 2 : 1; }
  //! Along the axle from its middle, to starboard.
  double offset(int which) const { return spacing > 0 ? (which == 0 ? -0.5 : 0.5) * spacing : 0; }
};

struct TyreState {
  double load = 0;     //!< N
  double closure = 0;  //!< m, square to the ground
};

struct WheelState {
  double load = 0;          //!< N, vertical, of all its tyres
  double coordinate = 0;    //!< q of the leg
  double leg_closure = 0;   //!< rise of the axle along the aircraft's z, m
  double tyre_closure = 0;  //!< m, square to the ground; of two tyres the mean
  double gap = 0;           //!< from its lowest point to the ground where it does not touch, m
  bool touches = false;
  bool bottomed = false;
  std::array<TyreState, 2> tyre{};  //!< port, then starboard where there are two
};

struct Rest {
  double heave, pitch, roll;
  std::vector<WheelState> wheels;
  double residual_force, residual_moment;  //!< what the balance misses by: N, N·m
  int iterations;
  double energy = 0;     //!< potential, of weight, springs and tyres; J
  int standing() const;  //!< how many legs touch
};

//! Why there is no rest on these wheels.
struct NoRest {
  enum class Towards { tail, nose, port, starboard, unclear } towards;
  Text reason;
};

//! Solves for the rest of a mass (kg) at a CG on wheels: Newton on the energy's gradient with a line search,
//! from the attitude of the rigid gear or from a rest that lies near. Checks the residual and that the rest
//! is stable.
std::variant<Rest, NoRest> solve(double mass, const Vec3& cg, const std::vector<WheelOnLeg>& wheels,
                                 const Rest* near = nullptr);
//! Every stable rest found from the rigid gear's attitudes and leaning either way, of least energy first.
//! Several where an aircraft may lie to either side (a tandem on its outriggers).
std::vector<Rest> stable_rests(double mass, const Vec3& cg, const std::vector<WheelOnLeg>& wheels);

//! What pushes a standing aircraft sideways: a steady turn, a slope, wind.
struct SideLoad {
  double acceleration = 0;  //!< inertia force at the CG over the weight (mass times g), towards starboard
  double slope = 0;         //!< rad, the ground falling to starboard; attitude and heights are square to it
  double wind = 0;          //!< N, along the ground towards starboard
  Vec3 wind_at{0, 0, 0};    //!< the point of the aircraft it acts at, aircraft axes
};
//! The rest under a side load, reached from upright or from the side it leans to. The tyres' side forces act
//! in the ground plane and leave no yawing moment, so that a horizontal force Y at height z adds the rolling
//! moment Y·z.
std::variant<Rest, NoRest> solve_leaning(double mass, const Vec3& cg, const std::vector<WheelOnLeg>& wheels,
                                         const SideLoad& load);

//! The aircraft held at a roll, or at a pitch too: what it takes to hold it there.
struct Held {
  double heave, pitch;
  double cg_height;
  double pitch_moment;    //!< N·m, nose-up, that holds it; 0 where the pitch is left free
  double roll_moment;     //!< N·m, starboard-down, that holds it
  double roll_stiffness;  //!< N·m/rad against a small roll, what is free left free; negative: it falls over
  std::vector<WheelState> wheels;
};
//! Held at roll 0, heave and pitch free. Nothing where the wheels do not carry it.
std::optional<Held> held_upright(double mass, const Vec3& cg, const std::vector<WheelOnLeg>& wheels);
//! Held at a pitch and roll 0, heave free; `lift` (N) upwards at the CG.
std::optional<Held> held_at_pitch(double mass, const Vec3& cg, const std::vector<WheelOnLeg>& wheels,
                                  double pitch, double lift = 0);

//! Axle of a wheel at rest, in aircraft axes.
Vec3 axle_at_rest(const WheelOnLeg& wheel, const WheelState& state);

//! Where a wheel stands and leans, aircraft level: for a leg closed to q.
struct WheelSetting {
  double contact_y;    //!< contact below the wheel's middle plane, R·tan(camber) inboard of its centre
  double camber, toe;  //!< rad; top outboard, front inboard
};
//! `outboard` +1 for a wheel to starboard, −1 to port; `radius` the loaded one.
WheelSetting wheel_setting(const WheelOnLeg& wheel, double coordinate, double radius, double outboard);

//! A single change that brings the pitch to a target, on the full equilibrium. Applied to the wheels whose
//! indices are given: their legs made longer (a shim), or their springs' rates (N/m), preloads (N) or charge
//! pressures (Pa absolute) replaced. Nothing where no change in the range does it.
std::optional<double> longer_legs_for_pitch(double mass, const Vec3& cg, std::vector<WheelOnLeg> wheels,
                                            const std::vector<int>& which, double target_pitch);
//! What of their springs is changed; each wheel's is taken to one value.
enum class SpringChange { rate, preload, pressure };
std::optional<double> spring_for_pitch(double mass, const Vec3& cg, std::vector<WheelOnLeg> wheels,
                                       const std::vector<int>& which, SpringChange change,
                                       double target_pitch);

//! A splayed leaf taken as a stiff leg on a torsion hinge (axis fore and aft), its contact a fixed point of
//! the leg: k·φ = F·ℓ·sin(cant + φ).
struct Splay {
  double turn;  //!< outward, rad
  double track_before, track_after, rise, camber_change;
};
//! Torsion rate (N·m/rad) of such a hinge from the vertical rate at the contact of the unloaded leg:
//! k = k_v·(ℓ·sin cant)².
double hinge_of_vertical_rate(double vertical_rate, double length, double cant);
std::optional<Splay> splay(double hinge_offset, double length, double cant, double torsion_rate, double load);

//! The wheels of a design in the order of placed_legs, or what is missing.
std::variant<std::vector<WheelOnLeg>, Text> wheels_of(const Design& design);

}  // namespace kranich::stance
