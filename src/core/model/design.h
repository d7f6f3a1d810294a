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
enum class Lift { wing, rotor, vertical };
enum class Field { tarmac, turf, rough, sand, indoor };
enum class Use { touring, training, aerobatics, racing, display };
enum class BuildState { shell, engine_out, engine_in, flying };
enum class Arrangement { tricycle, tailwheel };
enum class Group { airframe, gear, power, equipment, load };
enum class Moves { no, with_mains, with_third };
enum class SpringKind { linear, coil, gas, leaf, cord };
enum class LegPath { straight, hinged_fore_and_aft, hinged_athwartships };
enum class Tyre { pneumatic, foam, solid };
enum class Shape { box, cylinder };
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
  Lift lift = Lift::wing;   //!< rotor and vertical take-off never rotate: those checks fall away
  Given scale_denominator;  //!< of a scale model, 5 for 1:5
  //! The full-size aircraft of a scale model, as measured or from its plan, from the same datum.
  Given prototype_wheel_diameter, prototype_main_x, prototype_track;
  Field field = Field::turf;
  Given obstacle;  //!< tallest bump, rut or grass of the field
  Use use = Use::touring;
  BuildState build_state = BuildState::flying;  //!< in which readings are taken from now on
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
  //! A second panel: from this span outwards the chord runs from break_chord to the tip, swept by
  //! outer_sweep.
  Given break_span, break_chord, outer_sweep;
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

//! What the air does on the ground run, for the rotation speed and the wind from the side. Where the builder
//! has no figure the stated defaults stand, visibly.
struct Aerodynamics : Kept {
  Given greatest_lift = defaulted(1.3);  //!< C_Lmax
  Given ground_lift = defaulted(0.3);    //!< C_Lg in the ground attitude
  Given drag = defaulted(0.06);          //!< C_D in the ground attitude
  Given drag_z;                          //!< waterline at which it acts; the wing's where not given
  Given moment = defaulted(-0.05);       //!< C_m0, nose-up positive
  Given centre_x;  //!< aerodynamic centre; the quarter of the mean chord where not given
  Given tail_down_lift = defaulted(0.8);  //!< C_Lt
  Given slipstream = defaulted(1);        //!< factor on q at the tail
  Given thrust;                           //!< at the speed of rotation
  Given thrust_z;                         //!< the propeller hub's where not given
  Given friction;                         //!< μ; by the field where not given
  Given density = defaulted(1.225);
  Given side_area, side_z;                  //!< area seen from the side, and the waterline of its centre
  Given side_coefficient = defaulted(1.0);  //!< C_Y
  Given crosswind_wanted;                   //!< worst wind the builder would taxi in
  bool operator==(const Aerodynamics&) const = default;
};

//! Something in the airframe that gear must not run into: spar, duct, rib.
struct KeepOut : Kept {
  std::string name;
  Shape shape = Shape::box;
  Point low, high;  //!< corners of a box; ends of a cylinder's centre line. Starboard side; mirrored to port
  Given radius;     //!< of a cylinder
  bool operator==(const KeepOut&) const = default;
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
  Given target_empty_mass;  //!< what it was designed to weigh empty
  std::vector<KeepOut> keep_outs;
  Aerodynamics aerodynamics;
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
  bool slides = false;           //!< may be moved fore and aft to trim: a battery on its tray
  Given slides_from, slides_to;  //!< stations of its two ends
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
  //! With the nose raised (legs blocked, wheels free to roll): the third wheel's reading and the pitch.
  Given tilted_third, tilt_pitch;
  Given third_above_main;                           //!< of the axles, level
  Given main_axle_z, main_axle_height;              //!< waterline, and above the ground, level
  Given reading_error = defaulted(0.2);             //!< standard error of each reading
  Given pitch_error = defaulted(0.1 * radians(1));  //!< and of the tilt
  bool operator==(const Weighing&) const = default;
};

struct Wheel : Kept {
  std::string shelf_name;
  Tyre tyre = Tyre::pneumatic;
  Given diameter, width, shoulder_radius;
  Given tyre_rate;    //!< N/m, square to the ground; follows from the pressure where not given
  Given pressure;     //!< gauge
  Given flat_radius;  //!< axle above the ground on the rim or core
  Given fork_gap;     //!< least distance of the tyre to fork and leg
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

//! A leaf that splays, taken as a rigid leg on a torsion hinge.
struct Leaf : Kept {
  Given torsion_rate;  //!< N·m/rad at the hinge
  bool operator==(const Leaf&) const = default;
};

//! A point of a cord's load–extension curve.
struct CordPoint : Kept {
  Given stretch;  //!< of its free length
  Given load;     //!< of one strand, N
  bool operator==(const CordPoint&) const = default;
};

//! Rubber cord wrapped between an anchor on the airframe and one on the leg; it pulls, it never pushes.
struct Cord : Kept {
  std::string shelf_name;
  Given strands;      //!< each wrap gives two
  Given free_length;  //!< of one strand, unstretched, between its anchors
  std::vector<CordPoint> curve;
  bool operator==(const Cord&) const = default;
};

struct Spring : Kept {
  SpringKind kind = SpringKind::linear;
  Given rate, preload;  //!< of the linear kind, at the axle along z
  Coil coil;
  Gas gas;
  Leaf leaf;
  Cord cord;
  Point anchor_airframe, anchor_leg;  //!< of a spring on a hinged leg, extended
  //! Damping of the axle's vertical motion, N·s/m; oil through an orifice where areas are given; friction, N.
  Given damping_closing, damping_extending;
  Given oil_area, orifice_closing, orifice_extending;
  Given friction = defaulted(0);
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
  Point unit_low, unit_high;  //!< the unit's body: its corners from the pivot, least and greatest
  Given unit_angle;           //!< the turn the unit makes
  Given mount_tilt;           //!< slope of the unit's base, wheel end up positive
  Given growth, side_play;    //!< added to the tyre's radius, and to each side
  Given time_up, time_down;
  Given slowest, fastest;  //!< spread of those times as factors
  Well well;
  bool operator==(const Retraction&) const = default;
};

//! A tube from an attach point on the airframe to the leg's axle end: a leg of one tube, a V, a tripod.
struct Tube : Kept {
  std::string name;
  Point top;   //!< attach point on the airframe
  Point foot;  //!< end at the axle; the leg's own lower end where not given
  Given diameter, wall;
  std::string material;
  bool operator==(const Tube&) const = default;
};

//! A leg of the starboard side, or the third one on the centre line (nose or tail).
struct Leg : Kept {
  Point top;   //!< upper end of a leg that does not retract
  Point axle;  //!< wheel centre, extended and down: the specification, from which leg angles result
  LegPath path = LegPath::straight;
  Point hinge;                                      //!< of a hinged leg: any point of the hinge's line
  Given camber = defaulted(0), toe = defaulted(0);  //!< extended: top outboard, front inboard
  Given wheel_offset;       //!< wheel's middle plane outboard of the leg's line, along the axle
  Given axle_beyond_wheel;  //!< axle tip outboard of the wheel's middle plane
  Given tube_diameter;
  std::vector<Tube> tubes;
  Given travel;         //!< of the axle, along z, to the stop
  Given unsprung_mass;  //!< wheel, axle, lower leg
  Spring spring;
  Wheel wheel;
  Retraction retraction;
  bool operator==(const Leg&) const = default;
};

struct Gear : Kept {
  Arrangement arrangement = Arrangement::tricycle;
  bool brakes = true;
  bool skid = false;      //!< a tail skid in the wheel's place
  bool unlinked = false;  //!< the port main leg is not the mirror image of the starboard one
  Leg main, third;
  Leg port;  //!< when unlinked; stored as if it stood to starboard
  const Leg& leg(LegName name) const { return name == LegName::main ? main : third; }
  Leg& leg(LegName name) { return name == LegName::main ? main : third; }
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

//! A height or angle read on the table, beside the one computed.
struct TableReading : Kept {
  std::string what;  //!< the sheet's name of the line
  std::string loading;
  std::string build_state;  //!< in which it was taken
  Given starboard, port;    //!< heights; on the centre line starboard only
  Given angle;              //!< instead, of a line that is an angle
  bool operator==(const TableReading&) const = default;
};

struct Stance : Kept {
  Given target_low, target_high;  //!< wing angle to the ground at rest that is wanted
  std::string target_loading;
  Given ballast_x;  //!< where ballast is hung to hold an unfinished airframe on its wheels
  std::vector<TableReading> readings;
  bool operator==(const Stance&) const = default;
};

//! A part not yet chosen: the numbers it decides are marked undecided and carry a range till then.
struct Decision : Kept {
  std::string name;       //!< "brake", "tyre", "retract unit"
  std::string waits_for;  //!< what has to happen first
  std::string path;       //!< the number it decides
  Given spare;            //!< length or room to leave until then
  bool operator==(const Decision&) const = default;
};

//! Another state of this design under a name: "plan", "wide track", "small wheels".
struct Variant : Kept {
  std::string name, note;
  std::string design;  //!< a project's text without variants
  bool operator==(const Variant&) const = default;
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
  std::vector<Decision> decisions;
  std::vector<Variant> variants;
  bool operator==(const Design&) const = default;

  bool is_tricycle() const { return gear.arrangement == Arrangement::tricycle; }
  //! "nose" or "tail": what the third leg is called.
  const char* third_word() const { return is_tricycle() ? "nose" : "tail"; }
  bool is_model() const { return purpose.build == Build::model; }
  bool smooth_field() const { return purpose.field == Field::tarmac || purpose.field == Field::indoor; }
  bool flies_on_wings() const { return purpose.lift == Lift::wing; }
  //! The port main leg: its own when unlinked, else the starboard one (both stored as if to starboard).
  const Leg& port_leg() const { return gear.unlinked ? gear.port : gear.main; }
};

}  // namespace kranich
