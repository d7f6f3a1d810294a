// SPDX-License-Identifier: GPL-3.0-or-later
//! Design: everything the builder has said about one aircraft and its gear, and nothing that is computed.
//! A plain value: copyable and comparable; undo is a row of them. Units SI, angles in rad, aircraft axes
//! (x aft of the datum, y to starboard, z up) in the level attitude. A leg is stored for the starboard side
//! and mirrored. How each member is called, limited and written is said once, in describe.h.
#pragma once

#include <string>
#include <vector>

#include "core/base/quantity.h"
#include "core/base/say.h"
#include "core/model/airframe.h"
#include "core/model/gear.h"
#include "core/model/systems.h"
#include "core/model/workshop.h"

namespace kranich {

enum class Build { full_size, model };
enum class Lift { wing, rotor, vertical };
enum class Field { tarmac, turf, rough, sand, indoor, unsaid };
enum class Use { touring, training, aerobatics, racing, display };
enum class BuildState { shell, engine_out, engine_in, flying };
enum class Action { open, close, raise, lower, hold, let_go };
//! What else is switched or moved while legs go up and down.
enum class AidKind { steering, up_lock, brakes };
//! What the legs are together. Checks go by role and polygon, not by this.
enum class Layout { tricycle, tailwheel, tandem, quadricycle, four_mains, none };

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

//! How a door is moved.
enum class DoorWay { on_hinge, crank, leg_rod, stop_arm, wire, wheel };
//! What a door's crank turns about.
enum class CrankAxis { hinge, fore_and_aft, athwart, upright };

//! What moves a door. All places as they are with the gear up and the door closed.
struct DoorDrive : Kept {
  DoorWay way = DoorWay::on_hinge;
  std::string with;  //!< id of the door on whose crank this one's rod hangs; empty: a crank of its own
  CrankAxis axis = CrankAxis::hinge;
  Point crank;       //!< on the crank's axis
  Given throw_open;  //!< by which it turns to open the door: anticlockwise seen from front, right or above
  Point crank_ball, door_ball;  //!< ends of the rod
  Point leg_ball;               //!< of a rod or wire from the leg
  Given tie_length;             //!< of the wire
  Point stop;                   //!< in the bay, that the arm comes up against
  Given arm_length;             //!< of that arm, from the crank's axis
  //! Of a door pushed by the wheel: a ramp on its inside that rises from nothing at `ramp_from` to its height
  //! at `ramp_to`, out from the hinge.
  Given ramp_from, ramp_to, ramp_height;
  Given torque;  //!< of servo or cylinder, stalled, about its own axis
  bool operator==(const DoorDrive&) const = default;
};

//! What would close an open door, and what holds it open.
struct DoorHold : Kept {
  Given airspeed, normal_coefficient;
  Given hinge_stiffness;               //!< of tape or fabric: pushes back towards closed, for each rad
  Given hinge_friction;                //!< moment
  Point spring_door, spring_airframe;  //!< its ends, door closed; a cable's: where it leaves its guide
  Given spring_force, spring_rate, spring_length;  //!< initial, rate, length at the initial force
  Given magnet_force, magnet_out;                  //!< pull-off at the stop, and how far out from the hinge
  bool operator==(const DoorHold&) const = default;
};

struct Door : Kept {
  std::string id;            //!< stable; what steps refer to
  std::string name;          //!< the builder's label; may be empty or doubled
  std::string leg = "main";  //!< id of the leg it covers
  Point hinge_from, hinge_to;
  Given width;           //!< of the panel, square to its hinge
  Given closed_towards;  //!< +1: the closed panel lies to starboard of its hinge, -1: to port
  Given closed_tilt;     //!< by which the closed panel's free edge lies higher than its hinge
  Given thickness;       //!< inward from the hinge's line
  Given mass, cg_out;    //!< its mass, and how far out from the hinge it acts
  Given open_angle;
  Given ajar;  //!< left open when it has closed again on the gear down
  DoorDrive drive;
  DoorHold hold;
  Given time_open, time_close, slowest, fastest;
  Given frees_leg_at;            //!< share of its travel at which the leg may pass
  Given zone_enter, zone_leave;  //!< shares of the leg's travel between which it needs the door open
  bool operator==(const Door&) const = default;
};

struct Step : Kept {
  std::string actor;  //!< id of a door or a leg
  Action action = Action::open;
  Given start;  //!< s after the selector
  bool operator==(const Step&) const = default;
};

//! What a box that times a sequence does when it is switched on.
enum class AtSwitchOn { stays, runs_down, runs_once };

struct SequencerBox : Kept {
  std::string id;    //!< short: "A"
  std::string name;  //!< as it is bought
  Given outputs, longest_hold;
  AtSwitchOn at_switch_on = AtSwitchOn::stays;
  std::string chained_to;  //!< id of the box whose output starts it; empty: the selector does
  bool operator==(const SequencerBox&) const = default;
};

//! What hangs on an output of a box. Two on one output start together.
struct BoxOutput : Kept {
  std::string box;  //!< its id
  Given number;     //!< from 1
  std::string actor;
  bool reversed = false;  //!< a reverser in its own lead
  bool operator==(const BoxOutput&) const = default;
};

//! Steering, an up-lock or brakes as an actor of the sequence. Steering lets go when it is centred and its
//! command taken away, an up-lock when it is open, brakes when they are free; they hold otherwise.
struct Aid : Kept {
  std::string id;
  AidKind kind = AidKind::steering;
  std::string leg;                //!< id of the leg that it is about
  Given takes, slowest, fastest;  //!< from one to the other, s; its spread as factors
  bool operator==(const Aid&) const = default;
};

struct Sequence : Kept {
  std::vector<Step> up, down;
  std::vector<SequencerBox> boxes;
  std::vector<BoxOutput> outputs;
  std::vector<Aid> aids;
  Given margin;       //!< time wanted between one actor and the next
  std::string order;  //!< in which the legs go, and why: by design or by accident
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
  Given ballast_x;                   //!< where ballast is hung to hold an unfinished airframe on its wheels
  Given table_slope = defaulted(0);  //!< of the table itself, nose end up: what the meter shows on it
  std::vector<TableReading> readings;
  bool operator==(const Stance&) const = default;
};

//! A step of the shop work that was ticked off before there was a Book, by its id.
struct Done : Kept {
  std::string step;
  bool operator==(const Done&) const = default;
};

//! A line of the builder's own in the table of steps (tasks/task.h): its columns as they are written there.
struct OwnTask : Kept {
  std::string id = "my.step", stage = "make", when = "any", per;
  std::string text, why, hazard, helpers, gate, reading, unit, predicted, tolerance, sets, stop, rung,
      reopens, repeat, choice, needs;
  bool operator==(const OwnTask&) const = default;
};

//! A question about the design whose answer is that there is none: doors, cloth, an assist spring.
struct Without : Kept {
  std::string question;  //!< its key (tasks/condition.h)
  bool operator==(const Without&) const = default;
};

//! A picture laid behind the side view, to stand the gear against: it stands on the ground, its left edge at
//! a station as the main axle has one, its lower edge so far over the ground (below it: negative), so wide.
struct Picture : Kept {
  std::string file;  //!< PNG or JPEG; as given, or beside the project
  bool shown = true;
  Given left_x, bottom_z, width;
  Given turned;                  //!< about its lower left corner, anticlockwise, to be level
  Given fade = defaulted(0.45);  //!< how much of it is seen
  bool mirrored = false;         //!< the nose on its other side
  bool operator==(const Picture&) const = default;
};

//! The aircraft on that picture, marked on it, at the size at which it is laid under: wheels as they stand
//! there, stations as the main axle has one, heights over the ground.
struct Original : Kept {
  Given main_x, main_z, main_diameter;
  Given third_x, third_z, third_diameter;
  Given propeller_z;  //!< height of the propeller's axis
  bool operator==(const Original&) const = default;
};

//! A part not yet chosen: the numbers it decides are marked undecided and carry a range till then.
struct Decision : Kept {
  std::string name;       //!< "brake", "tyre", "retract unit"
  std::string waits_for;  //!< what has to happen first
  std::string path;       //!< the number it decides
  Given spare;            //!< length or room to leave until then
  bool operator==(const Decision&) const = default;
};

//! What the aircraft was started as (start/start.h); nothing of one that was entered number by number.
enum class Craft { nose_wheel, tail_wheel, helicopter };
enum class WingPlace { low, mid, high };
enum class Engine { front, pusher, ducted };

//! The answers that a design was started from, kept so that the rest can be guessed again once some of it is
//! measured. The purpose and the field stand in Purpose.
struct Begun : Kept {
  bool started = false;
  Craft craft = Craft::nose_wheel;
  bool retractable = false;
  WingPlace wing = WingPlace::low;
  Engine engine = Engine::front;
  Given seats, mass, span, length;
  bool operator==(const Begun&) const = default;
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
  Scatter scatter;
  Bump bump;
  SpringBench spring_bench;
  LoadFactors load_factors;
  std::vector<Material> materials;
  Jig jig;
  std::vector<Ply> plies;
  Mixing mixing;
  std::vector<PartOffer> parts;
  std::vector<Done> done;
  std::vector<OwnTask> own_tasks;
  std::vector<Without> without;
  Picture picture;
  Original original;
  //! Drawings or pictures that the outline is traced on, in aircraft axes: left edge at a station (front: so
  //! far to port), lower edge at a waterline (plan: so far to port).
  Picture side_tracing, front_tracing, plan_tracing;
  std::vector<Door> doors;
  Sequence sequence;
  Logic logic;
  Circuit circuit;
  std::vector<OwnLimit> own_limits;
  Begun begun;
  std::vector<Decision> decisions;
  std::vector<Variant> variants;
  bool operator==(const Design&) const = default;

  //! What the legs are together; follows from their roles and places.
  Layout layout() const;
  //! Whether two lines of mains carry it, without nose or tail leg.
  bool on_two_lines() const;
  //! Whether it stands on a nose wheel, or on lines of mains (no tail wheel).
  bool is_tricycle() const { return !gear.has(LegRole::tail); }
  //! "nose", "tail", or of an aircraft with neither "front": what stands apart from the (rear) mains.
  const char* third_word() const;
  //! What a leg is called: its name, or "main leg", "port main leg", "front main leg", "nose leg",
  //! "outrigger".
  Text leg_word(const Leg& leg) const;
  //! The same for a noun to stand behind it: "nose", "front main".
  Text stem_word(const Leg& leg) const;
  //! "nose wheel", "outrigger wheel".
  Text wheel_word(const Leg& leg) const;
  //! Its legs together, as actors: "main legs", "nose leg".
  Text legs_word(const Leg& leg) const;
  //! What an actor of a sequence is called: a door's name, or legs_word; its id where there is no such actor.
  Text actor_word(const std::string& id) const;
  bool is_model() const { return purpose.build == Build::model; }
  bool smooth_field() const { return purpose.field == Field::tarmac || purpose.field == Field::indoor; }
  bool flies_on_wings() const { return purpose.lift == Lift::wing; }
  //! The port main leg: its own where there is one, else the twin of the starboard one (both stored as if to
  //! starboard).
  const Leg& port_leg() const;
  //! Whether left and right main legs are rows of their own.
  bool unlinked() const;
};

}  // namespace kranich
