// SPDX-License-Identifier: GPL-3.0-or-later
//! Main sizes of a guessed aircraft: what follows from the answers alone, and what has to settle against
//! itself (CG, height, wheels, track). SI, angles in rad; stations from the nose tip, waterlines from the
//! fuselage's reference line. Source: handbook, Start; the numbers in brackets there stand full size | model.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/start/answers.h"

namespace kranich::start {

enum class Hangs { wing, pod, body };

struct WingSizes {
  double root_chord, tip_chord, sweep, mean_chord, mean_y, area, aspect;  //!< c̄ at its span station
  double dihedral, root_z, incidence;
  double greatest, slope, zero_lift;   //!< C_Lmax, per rad, rad
  double stall_angle, lift_off_angle;  //!< of the wing to the air
  double rotation_pitch;               //!< θ_n: nose up at lift-off, with 1° in hand
};

//! What one thing weighs and where; x of loads is an offset from the CG aimed at.
struct Load {
  std::string name;
  double mass, x, z;
  double front = 0, back = 0;  //!< a tray reaches so far about x
  bool person = false;
};
struct EmptyItem {
  std::string name;
  double mass, x, z;
  Group group;
  std::string moves;  //!< with that leg
};

//! A loading as it is stood and flown in.
struct Flown {
  double mass;
  double x, z;  //!< gear down
  double x_up;  //!< gear up
};

struct Sizes {
  // From the answers alone.
  double body_height, body_width;  //!< H, Y
  double chord;                    //!< c̄; of a helicopter 0.17 of the rotor
  WingSizes lift{};
  double obstacle, friction, friction_range, greatest_pressure;
  double propeller, hub_x, hub_z, thrust;  //!< no propeller: diameter 0
  double drop;                             //!< H_d
  double load_factor;                      //!< N aimed at
  std::vector<Load> loads;
  // Settled.
  std::vector<EmptyItem> items;
  std::vector<Flown> flown;   //!< all-up first
  double x_cg;                //!< of the all-up loading, as aimed at
  double wing_x;              //!< root leading edge
  double cg_forward, cg_aft;  //!< limits
  double height;              //!< h₀ of the reference line, level and static
  double x_main, x_third, track;
  double three_point;            //!< θ₃ of a tail wheel
  double z_main, z_third;        //!< axles, extended
  double tail_end_z;             //!< waterline at 0.96 of the length
  double main_load, third_load;  //!< F: greatest static load of a wheel, N
  double main_diameter, third_diameter, main_width, third_width;
  double main_squash, third_squash;  //!< under F
  double main_travel, third_travel, main_rate, third_rate;
  double main_unsprung, third_unsprung;
  Hangs hangs;
  bool outward;  //!< legs in the wing swing outward
  bool nose_forward;
  double main_top_z;
  double main_length;  //!< from the pivot or top to the extended axle, square
  int passes;
  bool settled_down;  //!< moved by less than a two-thousandth of the length at last
};

//! Clearance wanted about a stowed wheel and what a tyre grows by.
double wheel_clearance(bool model);
double wheel_growth(bool model, double diameter);

//! What has been measured since, in the place of what the sizing would find.
struct Found {
  std::optional<double> x_main, x_third, track, main_diameter, third_diameter, propeller;
};

Sizes sizes(const Settled& s, const Found& found = {});

}  // namespace kranich::start
