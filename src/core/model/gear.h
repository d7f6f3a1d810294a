// SPDX-License-Identifier: GPL-3.0-or-later
//! The landing gear: wheels, springs, legs with what holds them, retraction. Part of the Design (design.h).
//! SI, angles in rad, aircraft axes.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/base/quantity.h"
#include "core/model/given.h"

namespace kranich {

//! What a leg is for: main legs carry the aircraft, nose and tail legs steer and steady it, outriggers steady
//! it sideways and must not carry. Roles decide limits, never statics.
enum class LegRole { main, nose, tail, outrigger };
//! Where a leg stands: linked to a mirror twin on the other side, or by itself.
enum class LegStands { both_sides, starboard, port, centre };
enum class SpringKind { linear, coil, gas, leaf, cord, gas_strut, pucks, bending };
enum class CoilPartner { none, inside, in_series };
enum class BentForm { leaf, bow, wire };
enum class LoopAxis { fore_and_aft, athwartships, upright };
enum class LegPath { straight, hinged_fore_and_aft, hinged_athwartships };
enum class Tyre { pneumatic, foam, solid };
enum class CoilEnds { plain, plain_ground, squared, squared_ground };
enum class DriveKind { none, actuator, cylinder, motor, servo, air };
//! Whether it pushes and pulls between two points.
constexpr bool is_strut(DriveKind kind) {
  return kind == DriveKind::actuator || kind == DriveKind::cylinder || kind == DriveKind::air;
}
//! Which ways the air moves the leg; the other way is left to springs, weight and the air outside.
enum class AirActs { both_ways, up_only, down_only };
//! Which way a servo throws that throws one way only, seen onto its output.
enum class ServoThrow { both_ways, anticlockwise, clockwise };
enum class SteeringKind { none, castors, rod, sliding_rods };
enum class SwingDirection { inward, outward, aft, forward };
//! What the wheel does beside turning about the pivot: nothing; twists about the leg in proportion, or by a
//! rod from the airframe; or stays on arms that lift it while a rod turns its carrier about a king-pin.
enum class LegMotion { turns, twists, rod_twists, lifts_and_turns };
enum class LegSection { tube, bar, rectangle, streamlined };
enum class BentSection { flat, streamlined };
enum class Governing { to_axle, to_shoulder };
enum class PrintedHow { upright, lying };
enum class JointKind { pin, fasteners, block, plate, post };
enum class JointFace { under, facing_aft, facing_side };

struct Wheel : Kept {
  std::string shelf_name;
  Tyre tyre = Tyre::pneumatic;
  Given diameter, width, shoulder_radius;
  Given tyre_rate;          //!< N/m, square to the ground; follows from the pressure where not given
  Given pressure;           //!< gauge
  Given greatest_pressure;  //!< that the wheel may have, gauge
  Given flat_radius;        //!< axle above the ground on the rim or core
  Given fork_gap;           //!< least distance of the tyre to fork and leg
  Given fork_inside;        //!< width of the fork inside, or twice from the wheel's middle to a one-sided leg
  //! What takes room in it under way, each to one side: the tyre's growth, its bulge under load, the play of
  //! the wheel's bearings at its rim.
  Given grows_wide, bulge, rim_play;
  std::string why;  //!< of all sizes this one: what the builder decided by
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

//! A bought gas strut, pushed together between its anchors: F₁ extended, x times that at its full stroke.
struct GasStrut : Kept {
  std::string shelf_name;
  Given extended_force, progression, full_stroke;
  Given count = defaulted(1);  //!< side by side
  bool operator==(const GasStrut&) const = default;
};

//! A stack of equal rubber discs or rings with rigid plates between.
struct Pucks : Kept {
  std::string shelf_name;
  Given count, outer_diameter, hole_diameter = defaulted(0), thickness;  //!< of one disc, unloaded
  Given shear_modulus;                                                   //!< G of the rubber, Pa
  Given hardness_factor = defaulted(0.75);                               //!< φ: 0.9 soft to 0.6 hard
  Given assembled_length;  //!< of all the rubber together, leg extended
  bool operator==(const Pucks&) const = default;
};

//! A point of a leg's centre line with its section there.
struct BentPoint : Kept {
  Point at;
  //! Of a leaf or a bow; the width lies fore and aft, of a leg that itself runs fore and aft athwartships.
  Given width, thickness;
  bool operator==(const BentPoint&) const = default;
};

//! A coil loop in a wire leg: a sprung hinge at its centre.
struct WireLoop : Kept {
  Given along;  //!< of its centre from the clamp along the leg
  Given mean_diameter, turns;
  LoopAxis axis = LoopAxis::athwartships;
  bool operator==(const WireLoop&) const = default;
};

//! How the clamped end of a leg that bends gives way: the middle that runs through from leg to leg, and rings
//! of rubber between it and its bolts. All of it open: a rigid clamp.
struct BentMount : Kept {
  bool through = false;  //!< both legs are one piece, its middle free to bend between the two clamps
  Given rings;           //!< at each clamp, above and below together; none where not given
  Given ring_outer, ring_hole, ring_thickness;  //!< of one ring, free
  Given ring_pitch;                             //!< of a clamp's rings fore and aft, outermost to outermost
  Given ring_modulus;                           //!< G of the rubber, Pa
  Given slot;                                   //!< height a ring is pressed into
  Given gap_above, gap_below;                   //!< that the middle may move
  bool operator==(const BentMount&) const = default;
};

//! A pre-bent spring wire from leg to leg, an arch between two drilled posts that pulls the legs back.
struct CrossWire : Kept {
  Given diameter, rise;  //!< of the arch over the line between its posts
  Given along;           //!< of the post from the clamp along the leg
  bool operator==(const CrossWire&) const = default;
};

//! A leg that is itself the spring: leaf, carbon bow or bent wire, from its clamp to the axle.
struct BentLeg : Kept {
  std::string shelf_name;
  BentForm form = BentForm::leaf;
  std::vector<BentPoint> line;  //!< from the clamp; the last point is the axle's end of it
  Given wire_diameter;
  std::vector<WireLoop> loops;
  std::string material;
  Given plies, ply_areal_weight;          //!< of a bow; kg/m² of fibre
  Given fibre_fraction = defaulted(0.5);  //!< by volume
  Given cross_wire_rate;  //!< of a spring-wire strut across the legs, at one axle; else that of cross_wire
  CrossWire cross_wire;
  BentSection section = BentSection::flat;  //!< of a leaf or bow
  BentMount mount;
  Given measured_rate;  //!< vertical, at the wheel, free to spread: what it was found to be
  Given mount_bore;     //!< of a wire leg: the hole that takes its end
  bool operator==(const BentLeg&) const = default;
};

//! Orifice over the stroke.
struct MeteredPoint : Kept {
  Given stroke, orifice;
  bool operator==(const MeteredPoint&) const = default;
};

//! The two tubes of a telescopic leg that is made, not bought: the spring stands in them.
struct Telescope : Kept {
  Given outer_diameter, outer_wall, outer_length;
  Given inner_diameter, inner_wall, inner_length;
  Given plugged;  //!< length at the inner tube's lower end that is not bored: what may be cut off, or tapped
  Given thread, thread_depth;  //!< at that end, of what is screwed into it
  bool operator==(const Telescope&) const = default;
};

struct Spring : Kept {
  SpringKind kind = SpringKind::linear;
  Given rate, preload;  //!< of the linear kind, at the axle along z
  Coil coil;
  CoilPartner partner = CoilPartner::none;
  Coil second;                //!< inside the first, or in series with it
  Given second_starts_after;  //!< closure of the first until the one inside touches
  Gas gas;
  Leaf leaf;
  Cord cord;
  GasStrut gas_strut;
  Pucks pucks;
  BentLeg bent;
  Point anchor_airframe, anchor_leg;  //!< of a spring on a hinged leg, extended
  //! Damping of the axle's vertical motion, N·s/m; oil through an orifice where areas are given; friction, N.
  Given damping_closing, damping_extending;
  Given oil_area, orifice_closing, orifice_extending;
  std::vector<MeteredPoint> metered;  //!< closing, instead of the one orifice
  Given friction = defaulted(0);
  Given efficiency;  //!< absorbed energy over (peak load times travel), of the whole strut
  Telescope telescope;
  bool operator==(const Spring&) const = default;
};

//! The space a wheel is stowed in: a box in aircraft axes, open below.
struct Well : Kept {
  std::string name;
  Point low, high;  //!< corners; y of the starboard side
  Given clearance;  //!< wanted all round
  bool operator==(const Well&) const = default;
};

//! A bought gas spring that helps a leg down.
struct DownSpring : Kept {
  Point on_airframe, on_leg;  //!< its ends, leg down
  Given extended_force, progression, full_stroke, extended_length;
  bool operator==(const DownSpring&) const = default;
};

//! What moves a leg, and what it works against.
struct Drive : Kept {
  DriveKind kind = DriveKind::none;
  Given mass, inertia;  //!< of all that swings: its mass, and about the pivot
  Point cg;             //!< its centre, down
  Given load_factor = defaulted(1);
  Given airspeed;       //!< up to which the gear is moved; on jacks none
  Given turning_area;   //!< drag area that turns away with the leg
  Given constant_area;  //!< and that stays
  Point air_centre;     //!< where the air acts, down
  Given friction_share = defaulted(0.05), friction_constant = defaulted(0);
  DownSpring down_spring;
  Point on_airframe, on_leg;  //!< ends of actuator or cylinder, leg down
  Given force, stroke,
      speed;  //!< of an actuator: what it is rated for, its stroke, how fast it runs under load
  Given bore, rod, supply, back, flow;    //!< of a cylinder; flow of its pump
  AirActs air_acts = AirActs::both_ways;  //!< of a cylinder worked by air
  //! Of a motor, or of a servo at its arm.
  Given stall_torque, no_load_speed, no_load_current, stall_current;
  Given sector_radius, pinion_radius, gearbox, efficiency, rotor_inertia;
  //! Of a servo: its axis from the unit's pivot in the plane of the unit, x towards the nose, y up; the
  //! unit's arm and its angles to x at both ends.
  Given servo_x, servo_y, unit_arm, unit_down, unit_stowed;
  ServoThrow throws = ServoThrow::both_ways;
  Given over_centre = defaulted(radians(4)), full_throw;  //!< servo's turn to one side at 100 %
  Given rod_stiffness;
  Given rod_diameter;  //!< of the push rod
  Given rod_offset;    //!< of the two planes it joins, servo's and unit's
  Given ball_tilt;     //!< that its ends allow
  Given wanted_time;
  bool falls_free = false;  //!< must come down without power
  Given fluid;              //!< what it pushes out then resists with, N·m at a rad a second
  bool operator==(const Drive&) const = default;
};

//! The hook that holds a leg up.
struct Uplock : Kept {
  Point hook;  //!< where it holds the leg, stowed
  Given holds, load_factor = defaulted(3.8), door_force = defaulted(0);
  bool both_ends = false;  //!< the same hook holds the leg down too, by a second pin on it
  Given reach;             //!< longest bracket that a pin may stand out from the leg's line
  bool operator==(const Uplock&) const = default;
};

//! The two links of a folding brace whose ends the leg's brace gives.
struct BraceLinks : Kept {
  Given at_airframe, at_leg;
  Given lock_spring;  //!< moment at the knee, towards its stop
  bool operator==(const BraceLinks&) const = default;
};

//! Where a leg's line bends on its way from the pivot to the axle, down.
struct LegBend : Kept {
  Point at;
  bool operator==(const LegBend&) const = default;
};

//! How far a strut is pulled in at a turn; straight between two, from none at the start.
struct PulledIn : Kept {
  Given turn, stroke;
  bool operator==(const PulledIn&) const = default;
};

//! The stowed wheel as the builder wants it: the axis finder's other end.
struct WantedStowed : Kept {
  Point centre;
  Given axle_up;     //!< the axle's outer end above the level; a wheel that lies flat: 90°
  Given axle_ahead;  //!< and ahead of straight outboard
  bool operator==(const WantedStowed&) const = default;
};

//! A hole in the unit's flange, from the pivot.
struct UnitHole : Kept {
  Given x, y, z;
  bool operator==(const UnitHole&) const = default;
};

//! The retract unit as it is bought.
struct RetractUnit : Kept {
  std::string shelf_name;
  std::string label;       //!< written on it, so that it goes back where it came from
  Given rated_mass;        //!< aircraft it is sold for
  Given rated_moment;      //!< at the pin, the leg down
  Given bore, leg_pin;     //!< its bore, and the leg's pin that goes into it
  Given measured_turn;     //!< extended fully and held against another
  bool other_way = false;  //!< runs the other way on the same signal
  Given flex;              //!< moment that turns it by a radian, down and locked, as a lever says, N·m/rad
  std::vector<UnitHole> holes;
  bool operator==(const RetractUnit&) const = default;
};

//! What becomes of a leg when the power is gone, and whether its drive locks it at both ends by itself.
enum class Powerless { unsaid, stays, falls, is_driven_by_hand };
//! What Sequence takes a leg's times from: the wider of what is entered and what its drive computes, or what
//! is entered alone.
enum class TimesFrom { drive, entered };
enum class LocksItself { unsaid, no, at_both_ends };

//! What a drive is beside its mechanism: as it is sold, with its fittings.
struct DriveSold : Kept {
  std::string name;
  Given mass, price;
  Given length, width, height;  //!< of its body
  Given pin;                    //!< through the eyes at its ends
  Given hours;                  //!< of work to fit it
  Given current;                //!< drawn while it works
  LocksItself locks = LocksItself::unsaid;
  Powerless powerless = Powerless::unsaid;
  bool operator==(const DriveSold&) const = default;
};

//! A drive that could be taken, beside that which is.
struct DriveOffer : Kept {
  DriveSold sold;
  Drive drive;
  std::string rejected;  //!< why it is not taken; empty: still open
  bool operator==(const DriveOffer&) const = default;
};

struct Retraction : Kept {
  bool fitted = false;
  SwingDirection direction = SwingDirection::inward;
  Point pivot;
  //! The axis leaves the direction of a plain swing: turned in plan (its forward end inboard, its outboard
  //! end ahead), and then its forward or outboard end raised.
  Given axis_yaw = defaulted(0), axis_tip = defaulted(0);
  LegMotion motion = LegMotion::turns;
  Given twist;                  //!< over the whole turn, right-handed about the way down the leg
  Point rod_airframe, rod_leg;  //!< balls of the rod that twists the leg or turns the carrier, down
  Point king_pin;               //!< of a carrier on arms: on its king-pin, which stands upright
  std::vector<PulledIn> pulled_in;
  std::vector<LegBend> bends;
  Given far_skin;     //!< waterline of the inside of the skin over the unit, that it may be let in to
  Given floor;        //!< waterline of a floor or plate that the leg passes through a slot
  Given service_set;  //!< how far aft the axle stands after landings, the leg bent back
  Given seat_starboard, seat_port;  //!< measured: the stowed wheel behind the mouth on each side
  WantedStowed wanted;
  RetractUnit unit;
  Point unit_low, unit_high;  //!< the unit's body: its corners from the pivot, least and greatest
  Given unit_angle;           //!< the turn the unit makes
  Given mount_tilt;           //!< slope of the unit's base, wheel end up positive
  Given growth, side_play;    //!< added to the tyre's radius, and to each side
  Given time_up, time_down;
  Given slowest, fastest;  //!< spread of those times as factors
  TimesFrom times_from = TimesFrom::drive;
  Well well;
  Drive drive;
  DriveSold drive_sold;  //!< what is fitted
  std::vector<DriveOffer> drive_offers;
  Uplock uplock;
  BraceLinks brace;
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

//! A fastener's place in its joint's face, from the joint's place: u aft (or to starboard on a face that
//! looks aft), v to starboard (or up on an upright face).
struct Fastener : Kept {
  Given u, v, diameter;
  bool operator==(const Fastener&) const = default;
};

//! A section of a leg that is one strut, where it differs along it: a taper, a step, the mouth of a bore.
//! Between two it runs straight; what is not given is the whole leg's.
struct LegStation : Kept {
  Given along;             //!< from the leg's upper end
  Given width, thickness;  //!< of a round leg the diameter as width
  Given bore;              //!< hole along the leg
  bool operator==(const LegStation&) const = default;
};

//! Where the leg is held, or holds something: what carries its load on into the airframe.
struct Joint : Kept {
  std::string name;
  JointKind kind = JointKind::pin;
  JointFace face = JointFace::under;  //!< the face of the airframe it is fixed to
  std::string carries;                //!< a tube's name; empty: the whole leg
  Point at;
  std::string material;  //!< of pin, fasteners or post; of a block or plate the adhesive
  std::string into;      //!< material it bears on
  Given diameter, planes, inner_thickness, outer_thickness;  //!< of a pin; of the sheets fasteners go through
  Given brace_arm;  //!< of a pin: distance at which brace or drive holds the moment
  std::vector<Fastener> fasteners;
  Given holds;          //!< pull that one screw holds in what it is screwed into
  Given length, width;  //!< of a block or plate, along u and v; of a post: its length and bearing width
  bool straps = false;  //!< metal straps over the edge keep screws from tearing out
  Point to;             //!< of a post: where it ends on the spar; its length and angles follow
  Given thickness;      //!< of a plate
  Given cheeks;         //!< height of the two side cheeks that a plate is glued to; none where not given
  Given box_depth, box_wall;  //!< of the closed box that a plate is the bottom of
  Given bay_rate;             //!< of a post: stiffness at its foot of what carries the load without it, N/m
  bool bought = false;        //!< a factory's mount: not believed before it was pulled at
  Given pulled;               //!< load it was pulled with and held
  bool operator==(const Joint&) const = default;
};

//! Two parts that go into one another: leg pin and unit, axle and hub, wire and socket.
struct Fit : Kept {
  std::string name;
  Given pin, bore;  //!< diameters
  bool operator==(const Fit&) const = default;
};

//! A notch in the edge of the bay that the leg lies in sideways when it is down.
struct Cradle : Kept {
  Given below;             //!< of the pivot, along the leg
  Given width, thickness;  //!< of the edge that bears, along the leg and its own
  Given play;              //!< to each side before the leg meets it
  std::string material;
  bool operator==(const Cradle&) const = default;
};

//! Offsets of a straight bar through one axle's bore where it reaches the other axle: aft and up positive.
struct BarReading : Kept {
  Given aft, up;
  bool operator==(const BarReading&) const = default;
};

//! How a leg is steered. Places with the leg down and the wheel straight.
struct Steering : Kept {
  SteeringKind kind = SteeringKind::none;
  Given angle;                  //!< either way, about the leg's own line
  Given wanted_radius;          //!< of the turn, to the middle between the mains
  Point rod_airframe, rod_leg;  //!< ends of the rod: at servo or pedal, and in the arm on the leg
  Given slide;                  //!< by which a sliding rod may slip through its arm
  Given servo_torque, servo_arm;
  bool lets_go = false;          //!< centred and its command taken away before the leg goes up
  Given bush_play, bush_length;  //!< play on the diameter, distance of the outermost bearings
  Point servo_low, servo_high;   //!< corners of the servo's body
  bool operator==(const Steering&) const = default;
};

//! A leg. One that stands to port, and the twin of one that stands on both sides, is stored as if it stood to
//! starboard and mirrored where it is placed (placed_legs).
struct Leg : Kept {
  std::string id;    //!< stable; what doors, steps, items and readings refer to
  std::string name;  //!< the builder's label; may be empty or doubled
  LegRole role = LegRole::main;
  LegStands stands = LegStands::both_sides;
  bool skid = false;    //!< a skid in the wheel's place
  Given wheel_spacing;  //!< of two wheels on one axle, between their middle planes; one wheel where not given
  Point top;            //!< upper end of a leg that does not retract
  Point axle;           //!< wheel centre, extended and down: the specification, from which leg angles result
  LegPath path = LegPath::straight;
  Point hinge;                                      //!< of a hinged leg: any point of the hinge's line
  Given camber = defaulted(0), toe = defaulted(0);  //!< extended: top outboard, front inboard
  Given wheel_offset;       //!< wheel's middle plane outboard of the leg's line, along the axle
  Given axle_aft;           //!< axle behind the leg's line, level along the wheel: on a side arm, or moved
  Given axle_beyond_wheel;  //!< axle tip outboard of the wheel's middle plane
  Given hub_width, spacer, brake_width;  //!< what is stacked on the axle between leg and wheel's middle: half
                                         //!< the hub, spacer, brake
  Given tube_diameter;
  LegSection section = LegSection::tube;              //!< of a leg that is one strut
  Given tube_wall, section_width, section_thickness;  //!< width fore and aft
  std::vector<LegStation> stations;                   //!< where that changes, from the upper end
  std::string material;
  PrintedHow printed = PrintedHow::upright;  //!< of a printed leg: its layers lie across it, or along it
  Point brace_leg, brace_airframe;           //!< ends of a folding brace that holds a hinged strut when down
  Given axle_diameter, axle_wall;            //!< no wall: solid
  std::string axle_material;
  std::vector<Tube> tubes;
  std::vector<Joint> joints;
  Given travel;     //!< of the axle, along z, to the stop
  Given stop_rate;  //!< of the stop at the end of the travel, at the axle; usual_stop_rate where not given
  Given unsprung_mass;  //!< wheel, axle, lower leg
  //! Heights of one point over the leg at rest: after pressing down and letting go, after lifting and letting
  //! down.
  Given rest_pressed, rest_lifted;
  std::vector<Fit> fits;
  //! The one length that goes to the bench: from where it is held to its axle, or to the shoulder that stands
  //! so far above the axle; and the number that was built to.
  Governing governing = Governing::to_axle;
  Given shoulder, governed;
  Given lean;  //!< wanted when down and loaded, seen from the side, foot aft of upright positive
  Cradle cradle;
  Given landings,
      failures;  //!< counted: ordinary landings made, and after how many of them it was broken or bent
  Spring spring;
  Wheel wheel;
  Retraction retraction;
  Steering steering;

  //! Where the airframe holds it: the pivot of one that retracts, the hinge of one that is hinged, else its
  //! top; not finite where that is unknown.
  Vec3 held_at() const;
  //! Mains and nose legs carry it, are dropped onto and judged so; a tail leg or an outrigger is let down and
  //! only steadies it.
  bool carries() const { return role == LegRole::main || role == LegRole::nose; }
  bool operator==(const Leg&) const = default;
};

struct Gear : Kept {
  bool brakes = true;
  std::vector<Leg> legs;

  const Leg* find(std::string_view id) const;
  Leg* find(std::string_view id);
  //! The leg of an id; an empty one, all of it unknown, where none bears it.
  const Leg& leg(std::string_view id) const;
  //! As above, to be changed. Throws std::logic_error where there is none.
  Leg& leg(std::string_view id);
  //! The first leg of a role; null where there is none.
  const Leg* first(LegRole role) const;
  bool has(LegRole role) const { return first(role) != nullptr; }
  //! The leg that speaks for the mains: the first of that role. An empty one, all of it unknown, where there
  //! is none.
  const Leg& main() const;
  //! The first nose or tail leg; an empty one where there is none.
  const Leg& third() const;
  //! As above, to be changed. Throws std::logic_error where there is none: ask first.
  Leg& main();
  Leg& third();
  bool has_third() const { return has(LegRole::nose) || has(LegRole::tail); }
  bool operator==(const Gear&) const = default;
};

//! A leg where it stands: a row of Gear::legs, as it is stored or mirrored to port.
struct PlacedLeg {
  size_t row;
  bool port;
  //! +1 for a leg as stored, −1 for one mirrored to port.
  double hand() const { return port ? -1 : 1; }
};
//! Every leg of the aircraft, in the order of the rows; of one that stands on both sides port, then
//! starboard.
std::vector<PlacedLeg> placed_legs(const Gear& gear);
//! The lines across the aircraft that the legs of a role stand in, as rows, front first. A leg stands in line
//! with the foremost one of its line where their extended axles are less than half a wheel's radius apart;
//! one whose axle is unknown stands in none.
std::vector<std::vector<size_t>> lines_of(const Gear& gear, LegRole role);
//! Place among placed_legs of the leg that speaks for a row: the starboard one of two.
size_t placed_index(const Gear& gear, size_t row);
//! The row of an id; as many as there are legs where none bears it.
size_t row_of(const Gear& gear, std::string_view id);

}  // namespace kranich
