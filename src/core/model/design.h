// SPDX-License-Identifier: GPL-3.0-or-later
//! Design: everything the builder has said about one aircraft and its gear, and nothing that is computed.
//! A plain value: copyable and comparable; undo is a row of them. Units SI, angles in rad, aircraft axes
//! (x aft of the datum, y to starboard, z up) in the level attitude. A leg is stored for the starboard side
//! and mirrored. How each member is called, limited and written is said once, in describe.h.
#pragma once

#include <string>
#include <vector>

#include "core/base/quantity.h"
#include "core/model/given.h"

namespace kranich {

enum class Build { full_size, model };
enum class Field { tarmac, turf, rough, sand, indoor };
enum class Arrangement { tricycle, tailwheel };
enum class Group { airframe, gear, power, equipment, load };
enum class Moves { no, with_mains, with_third };
enum class SpringKind { linear, coil, gas };
enum class CoilEnds { plain, plain_ground, squared, squared_ground };
enum class School { rule, ladder, similarity };
enum class SwingDirection { inward, outward, aft, forward };
enum class PointRole { tail, belly, wing_tip, other };
enum class LegName { main, third };
enum class Action { open, close, raise, lower };

struct About : Kept {
  std::string name = "Untitled";
  std::string summary;
  std::string owner;
  std::string revision = "1";
  std::string notes;
  bool operator==(const About&) const = default;
};

struct Purpose : Kept {
  Build build = Build::full_size;
  Given scale_denominator;  //!< of a scale model, 5 for 1:5
  Field field = Field::turf;
  bool operator==(const Purpose&) const = default;
};

//! One cross-section of a body: where, its top and bottom waterlines, its half width.
struct Section : Kept {
  Given x, top, bottom, half_width;
  bool operator==(const Section&) const = default;
};

//! Fuselage or nacelle, from front to back.
struct Body : Kept {
  std::string name;
  Given y;  //!< offset of its middle plane; a body off the centre line has a mirror twin
  std::vector<Section> sections;
  bool operator==(const Body&) const = default;
};

//! A straight-tapered surface: wing or tailplane, both halves.
struct Surface : Kept {
  Given root_leading_edge_x, root_z, span, root_chord, tip_chord, sweep, dihedral, incidence;
  bool operator==(const Surface&) const = default;
};

struct Propeller : Kept {
  std::string name;
  Point hub;
  Given diameter, tilt;  //!< tilt of its axis, nose-down positive
  bool operator==(const Propeller&) const = default;
};

//! A point that may touch the ground.
struct LowPoint : Kept {
  std::string name;
  PointRole role = PointRole::other;
  Point at;
  bool operator==(const LowPoint&) const = default;
};

struct OutlinePoint : Kept {
  Given x, z;
  bool operator==(const OutlinePoint&) const = default;
};

struct Airframe : Kept {
  std::string level_reference;  //!< what is horizontal in the level attitude
  std::vector<Body> bodies;
  Surface wing, tailplane;
  std::vector<OutlinePoint> fin, canopy;
  std::vector<Propeller> propellers;
  std::vector<LowPoint> low_points;
  Given cg_forward_limit, cg_aft_limit;  //!< stations the designer allows
  Given mass_limit;
  Given lift_off_wing_angle;  //!< wing angle to the air at lift-off
  Given stall_wing_angle;     //!< wing angle to the air at the stall, for the three-point attitude
  bool operator==(const Airframe&) const = default;
};

struct Item : Kept {
  std::string name;
  Group group = Group::airframe;
  Given mass;
  Point at;
  bool weighed = false;
  Moves moves = Moves::no;
  bool slides = false;  //!< may be moved fore and aft to trim: a battery on its tray
  bool operator==(const Item&) const = default;
};

//! An item of the group `load` that a loading takes aboard.
struct Aboard : Kept {
  std::string item;
  Given mass;  //!< instead of the ledger's, where given
  Given x;     //!< instead of the ledger's station, where given (a battery slid forward)
  bool operator==(const Aboard&) const = default;
};

struct Loading : Kept {
  std::string name;
  bool flown = true;  //!< false: stands like this on the bench or the scales only, and is not held to the
                      //!< flying limits
  std::vector<Aboard> aboard;
  bool operator==(const Loading&) const = default;
};

//! Readings of scales under the wheels, level attitude.
struct Weighing : Kept {
  std::string build_state;  //!< what was aboard and fitted
  std::string loading;      //!< the loading of the ledger to compare with
  Given third, third_tare, port, port_tare, starboard, starboard_tare;  // kg
  Given third_x, main_x, half_track;  //!< where the wheels stood when weighed: the gear may have moved since
  bool operator==(const Weighing&) const = default;
};

struct Wheel : Kept {
  Given diameter, width, shoulder_radius;
  Given tyre_rate;    //!< N/m, square to the ground
  Given flat_radius;  //!< axle above the ground on the rim or core
  bool operator==(const Wheel&) const = default;
};

struct Coil : Kept {
  std::string shelf_name;
  Given wire_diameter, mean_diameter, active_turns, total_turns, free_length;
  Given installed_length;  //!< leg extended
  CoilEnds ends = CoilEnds::squared_ground;
  std::string wire = "music wire";
  Given count = defaulted(1);         //!< springs side by side in one leg
  Given motion_ratio = defaulted(1);  //!< spring closure over axle rise
  bool operator==(const Coil&) const = default;
};

struct Gas : Kept {
  Given piston_area, volume, pressure;  //!< leg extended, pressure absolute
  Given exponent = defaulted(1.1);
  Given ambient = defaulted(101325);
  bool operator==(const Gas&) const = default;
};

struct Spring : Kept {
  SpringKind kind = SpringKind::linear;
  Given rate, preload;  //!< of the linear kind, at the axle along z
  Coil coil;
  Gas gas;
  Given efficiency;  //!< absorbed energy over (peak load times travel), of the whole strut
  bool operator==(const Spring&) const = default;
};

//! The space a wheel is stowed in: a box in aircraft axes, open below.
struct Well : Kept {
  std::string name;
  Point low, high;  //!< corners; y of the starboard side
  Given clearance;  //!< wanted all round
  bool operator==(const Well&) const = default;
};

struct Retraction : Kept {
  bool fitted = false;
  SwingDirection direction = SwingDirection::inward;
  Point pivot;
  Given unit_angle;         //!< the turn the unit makes
  Given mount_tilt;         //!< slope of the unit's base, wheel end up positive
  Given growth, side_play;  //!< added to the tyre's radius, and to each side
  Given time_up, time_down;
  Given slowest, fastest;  //!< spread of those times as factors
  Well well;
  bool operator==(const Retraction&) const = default;
};

//! A leg of the starboard side, or the third one on the centre line (nose or tail).
struct Leg : Kept {
  Point top;           //!< upper end of a leg that does not retract
  Point axle;          //!< wheel centre, extended and down: the specification, from which leg angles result
  Given wheel_offset;  //!< wheel's middle plane outboard of the leg's line, along the axle
  Given axle_beyond_wheel;  //!< axle tip outboard of the wheel's middle plane
  Given tube_diameter;
  Given travel;  //!< of the axle, along z, to the stop
  Spring spring;
  Wheel wheel;
  Retraction retraction;
  bool operator==(const Leg&) const = default;
};

struct Gear : Kept {
  Arrangement arrangement = Arrangement::tricycle;
  bool brakes = true;
  Leg main, third;
  bool operator==(const Gear&) const = default;
};

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

struct Door : Kept {
  std::string name;
  LegName leg = LegName::main;
  Point hinge_from, hinge_to;
  Given width;           //!< of the panel, square to its hinge
  Given closed_towards;  //!< +1: the closed panel lies to starboard of its hinge, -1: to port
  Given open_angle;
  Given time_open, time_close, slowest, fastest;
  Given frees_leg_at;            //!< share of its travel at which the leg may pass
  Given zone_enter, zone_leave;  //!< shares of the leg's travel between which it needs the door open
  bool operator==(const Door&) const = default;
};

struct Step : Kept {
  std::string actor;  //!< a door's name, "main legs" or "nose leg"/"tail leg"
  Action action = Action::open;
  Given start;  //!< s after the selector
  bool operator==(const Step&) const = default;
};

struct Sequence : Kept {
  std::vector<Step> up, down;
  Given margin;  //!< time wanted between one actor and the next
  bool operator==(const Sequence&) const = default;
};

//! A limit of the user's own for one measure, with the reason.
struct OwnLimit : Kept {
  std::string measure;
  std::string reason;
  Given lower, upper;  //!< SI; angles in rad
  bool operator==(const OwnLimit&) const = default;
};

struct Stance : Kept {
  Given target_low, target_high;  //!< wing angle to the ground at rest that is wanted
  std::string target_loading;
  bool operator==(const Stance&) const = default;
};

struct Design : Kept {
  About about;
  Purpose purpose;
  UnitSystem units = UnitSystem::metric;
  Airframe airframe;
  std::vector<Item> ledger;
  std::vector<Loading> loadings;
  Weighing weighing;
  Gear gear;
  Stance stance;
  Landing landing;
  std::vector<Door> doors;
  Sequence sequence;
  std::vector<OwnLimit> own_limits;
  bool operator==(const Design&) const = default;

  bool is_tricycle() const { return gear.arrangement == Arrangement::tricycle; }
  //! "nose" or "tail": what the third leg is called.
  const char* third_word() const { return is_tricycle() ? "nose" : "tail"; }
};

}  // namespace kranich
