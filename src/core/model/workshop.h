// SPDX-License-Identifier: GPL-3.0-or-later
//! Loads the gear is made for and the workshop: design landing, scatter, bench, load cases, materials, jig.
//! Part of the Design (design.h). SI, angles in rad, aircraft axes.
#pragma once

#include <string>
#include <vector>

#include "core/model/gear.h"

namespace kranich {

enum class School { rule, ladder, similarity };
enum class Stuff { metal, wire, laminate, timber, printed, foam, adhesive };
enum class Paper { a4, letter };

struct Landing : Kept {
  School school = School::rule;
  std::string reason;
  Given lift_ratio;
  Given load_factor;  //!< ground load factor aimed at, N
  Given tyre_efficiency;
  Given ladder_height;
  Given prototype_sink_speed;
  bool operator==(const Landing&) const = default;
};

//! How far landings scatter about the design one: standard deviations, and the temperatures met.
struct Scatter : Kept {
  Given sink_speed = defaulted(0.15), mass = defaulted(0.05);  //!< shares
  Given spring = defaulted(0.10), friction = defaulted(0.30), damping = defaulted(0.15);
  Given colder = defaulted(25), hotter = defaulted(20);  //!< K below and above the day the gas was charged
  Given drops = defaulted(5000);
  bool operator==(const Scatter&) const = default;
};

//! The bump or step a wheel is rolled over.
struct Bump : Kept {
  Given height, length;                  //!< no length: a step
  Given speed = defaulted(5);            //!< of the taxiing aircraft
  Given bush_friction = defaulted(0.3);  //!< of a telescopic leg: friction along it over the drag load
  bool operator==(const Bump&) const = default;
};

//! A leg put on scales: a load and how far it closed, on the way in or on the way out.
struct LoadReading : Kept {
  std::string leg = "main";  //!< its id
  Given load, closure;
  bool unloading = false;
  std::string state;  //!< as the aircraft or rig was then
  std::string broke;  //!< where it gave way, if it did
  bool operator==(const LoadReading&) const = default;
};

//! A drop on the bench, with what was foretold of it then.
struct DropTest : Kept {
  std::string leg = "main";  //!< its id
  std::string day, outcome;
  Given height, mass;
  Given stroke, acceleration;  //!< read: greatest stroke; greatest acceleration, multiples of g
  Given foretold_stroke, foretold_acceleration;
  std::string state;  //!< as the aircraft or rig was then
  bool operator==(const DropTest&) const = default;
};

//! A carbon bow that was flown, to calibrate the rule of thumb by.
struct ProvenBow : Kept {
  std::string name;
  Given mass, plies, root_width;
  bool held = true;
  bool operator==(const ProvenBow&) const = default;
};

//! A coil at hand that no shelf lists.
struct OwnCoil : Kept {
  std::string name;
  Coil coil;
  Given mass, price;
  bool operator==(const OwnCoil&) const = default;
};

//! What was measured of springs on the bench, and what lies beside it.
struct SpringBench : Kept {
  std::vector<LoadReading> readings;
  std::vector<DropTest> drops;
  std::vector<ProvenBow> proven;
  std::vector<OwnCoil> coils;
  bool operator==(const SpringBench&) const = default;
};

//! Shares of the load cases; the historical small-aeroplane rule's where the builder has no others.
struct LoadFactors : Kept {
  std::string rule;  //!< the local rule that decides, in the builder's words
  Given ultimate = defaulted(1.5);
  Given spin_up = defaulted(0.25);
  Given side_up = defaulted(1.33), side_in = defaulted(0.5), side_out = defaulted(0.33);
  Given brake_up = defaulted(1.33), brake_drag = defaulted(0.8);
  Given nose_up = defaulted(2.25), nose_aft = defaulted(0.8), nose_forward = defaulted(0.4),
        nose_side = defaulted(0.7);
  Given model_drag = defaulted(0.5), model_drag_rough = defaulted(0.8), model_side = defaulted(0.3);
  bool operator==(const LoadFactors&) const = default;
};

//! A material of the builder's own; it stands before a typical one of the same name.
struct Material : Kept {
  std::string name;
  Stuff stuff = Stuff::metal;
  Given youngs_modulus, density, yield, ultimate, shear, bearing;
  Given strain;  //!< a laminate's allowable
  Given across;  //!< of a printed part: strength across its layers over that along them
  std::string remark;
  bool operator==(const Material&) const = default;
};

//! The jig on the workshop floor, and what a bar through the axles said.
struct Jig : Kept {
  Given reference_z,
      reference_height;  //!< waterline of a point of the fuselage, and its height above the floor
  Given point_x;         //!< station of the point on the centre line that diagonals run to
  Given axle_out;        //!< what sticks out of the bar's ends: axle beyond the tube, each side
  Given diagonal_starboard, diagonal_port;
  BarReading bar_starboard, bar_port;  //!< through the axle of that side, read at the other
  Paper paper = Paper::a4;
  bool operator==(const Jig&) const = default;
};

//! A part that could be taken, beside others for the same place.
struct PartOffer : Kept {
  std::string for_what, name, remark;
  Given count = defaulted(1), mass, price;  //!< of one
  Given x;                                  //!< station where they sit
  bool taken = false;
  bool operator==(const PartOffer&) const = default;
};

//! The resin as it was tried: how long a mix can be worked, and how long a ply takes to lay.
struct Mixing : Kept {
  Given working_time, ply_time;
  bool operator==(const Mixing&) const = default;
};

//! A ply of a reinforcement: where, what, how many, to be ticked off when it lies.
struct Ply : Kept {
  std::string zone, cloth, direction;
  Given count, overlap, area;
  Given x, y, length, width;  //!< of the zone on the box laid flat: its middle, its size
  Given areal_weight;         //!< of the dry cloth
  Given resin;                //!< by mass of the laid ply
  bool hard_point = false;    //!< extra plies over a bolt or fitting
  bool laid = false;
  bool operator==(const Ply&) const = default;
};

}  // namespace kranich
