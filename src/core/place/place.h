// SPDX-License-Identifier: GPL-3.0-or-later
//! Place: wheels relative to the CG. Pure formulas on lengths along the ground and heights above it; who
//! prepares those for an attitude and a state is assess/. SI, angles in rad. Source: handbook, Place.
#pragma once

#include <optional>
#include <span>
#include <vector>

#include "core/base/geometry.h"

namespace kranich::place {

//! A round wheel seen from the side: axle place and loaded radius, aircraft axes.
struct RoundWheel {
  double x, z, radius;
};

//! Pitch (nose up) at which the ground plane touches both round wheels: the axles' places turned by θ lie at
//! heights that differ by the radii. Taken within ±45°; nothing where the wheels' circles contain each other.
std::optional<double> pitch_on(const RoundWheel& a, const RoundWheel& b);
//! Height above the ground of a point of the aircraft when it stands on `wheel` at a pitch.
double height_above_ground(const Vec3& point, const RoundWheel& wheel, double pitch);
//! Distance along the ground, aft positive, from the wheel's contact to below a point.
double behind_contact(const Vec3& point, const RoundWheel& wheel, double pitch);

struct TipBack {
  double at_contact;    //!< atan((x_m − x_cg)/h): contact taken as fixed in the aircraft
  double round_wheels;  //!< atan((x_m − x_cg)/(h − R)): the contact stays below the axle
};
TipBack tip_back(double main_behind_cg, double cg_height, double loaded_radius);

struct TailStrike {
  double at_contact;    //!< atan(z/(x − x_m)), level attitude, least over the points
  double round_wheels;  //!< exact: (x − x_m)·sinθ = (z − R)·cosθ + R
  int point;            //!< index of the point that touches first (round wheels)
};
struct HighPoint {
  double behind_main;  //!< m, aft of the main contact, level
  double height;       //!< m above the ground, level
};
//! Least pitch at which a point behind the mains touches the ground. Nothing if no point lies behind them.
std::optional<TailStrike> tail_strike(std::span<const HighPoint> points, double main_radius);

//! Share of the weight on the nose (or tail) wheel: distance of the CG from the mains over the wheelbase.
double third_wheel_share(double third_x, double main_x, double cg_x);
//! The same under braking by the mains at a deceleration in g: [(x_m − x_cg) + (a/g)·h]/(x_m − x_n).
double nose_share_braking(double nose_x, double main_x, double cg_x, double cg_height,
                          double deceleration_in_g);

struct Tripod {
  double third_x, main_x, track;  //!< along the ground; m
  double cg_x, cg_y, cg_height;
};
struct Turnover {
  double angle;          //!< τ = atan(h/d)
  double distance;       //!< d, CG to the tipping line in plan
  double square_in_g;    //!< acceleration square to the tipping line that tips it: d/h
  double sideways_in_g;  //!< straight sideways: d/(h·cos δ)
};
//! Tipping over the line from the third wheel to one main wheel, the worse side. Holds for nose and tail
//! wheel.
Turnover turnover(const Tripod& t);

//! Wind square from the side that lifts the windward main: ½ρV²·S·C_Y·z_s = W·d/cos δ, the worse side.
double crosswind_tip_speed(const Tripod& t, double mass, double side_area, double side_coefficient,
                           double side_height, double air_density);

struct PropellerDisc {
  Vec3 hub;
  double diameter, tilt;  //!< m; rad, axis nose-down positive
};
//! Clearance of the disc's lowest point when the aircraft stands on `wheel` at a pitch.
double propeller_clearance(const PropellerDisc& disc, const RoundWheel& wheel, double pitch);
//! Lowest point of the disc's rim in aircraft axes at a pitch.
Vec3 lowest_of(const PropellerDisc& disc, double pitch);
//! Pitch at which the disc touches the ground, tail rising from `from_pitch`; nothing down to −60°.
std::optional<double> propeller_touch_pitch(const PropellerDisc& disc, const RoundWheel& wheel,
                                            double from_pitch);

//! Aircraft axes: where the CG and wheels of a tailwheel aircraft are, static state.
struct Tailwheel {
  RoundWheel main, tail;
  double track;
};
struct TailwheelFigures {
  double axle_ahead_angle;  //!< α = atan((x_cg − x_m)/h), level
  double three_point_angle;
  double wheelbase;  //!< along the ground, three-point
  double cg_height_three_point;
  double nose_over_level, nose_over_three_point;  //!< a/g
  double tail_share;                              //!< three-point
  double tip_square, tip_sideways;                //!< a/g
};
std::optional<TailwheelFigures> tailwheel_figures(const Tailwheel& gear, const Vec3& cg);

//! Wheel bent out about the bend at constant leg length: half track = y₀ + ℓ·sin c, height = ℓ·cos c.
struct BendOut {
  double track_before, track_after, sinks_by, camber_change;
};
BendOut bend_out(double bend_offset, double length, double cant_before, double cant_after);
//! Pitch that sinking mains bring, nose-up positive, about a wheel that stays as it is; `behind` how far the
//! mains stand behind it (m, negative: ahead of a tail wheel).
double pitch_of_sinking(double sinks_by, double behind);
//! A leg to its contact instead of to its wheel's centre: a thin upright wheel of a radius below its end.
struct LegToContact {
  double length, cant;  //!< m, rad
};
LegToContact contact_of(double length_to_centre, double cant, double radius);
//! The cant that gives a wanted track; nothing where the leg is too short for it.
std::optional<double> cant_for_track(double bend_offset, double length, double track);

struct WheelSize {
  double diameter, width;
};
//! Main wheel of a light aircraft by load (textbook regression, lbf and inches): 1.51·W^0.349, 0.715·W^0.312.
WheelSize typical_main_wheel(double load);

struct TyreState {
  double loaded_radius, deflection, contact_area, rate;
};
//! Pneumatic tyre under a load: p·2.3·√(w·D)·(D/2 − R) = F.
TyreState pneumatic_tyre(double diameter, double width, double load, double gauge_pressure);

}  // namespace kranich::place
