// SPDX-License-Identifier: GPL-3.0-or-later
//! The airframe, its masses and its weighing. Part of the Design (design.h). SI, angles in rad, aircraft
//! axes.
#pragma once

#include <memory>
#include <string>
#include <vector>

#include "core/base/quantity.h"
#include "core/model/given.h"

namespace kranich {

namespace motion {
class Triangles;
}

enum class Group { airframe, gear, power, equipment, load };
enum class Shape { box, cylinder, plane, prism, mesh };
//! Which way a prism runs.
enum class RunsAlong { athwartships, fore_and_aft, upright };
//! What the numbers of a mesh file count.
enum class MeshUnit { millimetres, centimetres, metres, inches };
//! Where the axes of a mesh file point; the third follows, right-handed.
enum class MeshAxes {
  x_aft_z_up,
  x_forward_z_up,
  x_starboard_z_up,
  x_port_z_up,
  x_aft_y_up,
  x_forward_y_up,
  x_starboard_y_up,
  x_port_y_up
};
enum class PointRole { tail, belly, wing_tip, other };

//! One cross-section of a body: where, its top and bottom waterlines, its half width.
struct Section : Kept {
  Given x, top, bottom, half_width;
  bool corner = false;  //!< its outline has a corner here, else it runs on smoothly
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

//! An edge or frame of the structure that places are told by; a former also holds a leg.
struct Reference : Kept {
  std::string name;
  Given x;
  bool former = false;
  bool operator==(const Reference&) const = default;
};

struct OutlinePoint : Kept {
  Given x, z;
  bool corner = false;
  bool operator==(const OutlinePoint&) const = default;
};

//! What the air does on the ground run, for the rotation speed and the wind from the side. Where the builder
//! has no figure the stated defaults stand, visibly.
struct Aerodynamics : Kept {
  Given greatest_lift = defaulted(1.3);  //!< C_Lmax
  Given ground_lift = defaulted(0.3);    //!< C_Lg in the ground attitude
  Given lift_slope;  //!< C_Lα of the whole aircraft, per rad; the wing's by its aspect where not given
  Given zero_lift_angle = defaulted(-3 * radians(1));  //!< of the wing to the air, for no lift
  Given drag = defaulted(0.06);                        //!< C_D in the ground attitude
  Given drag_z;                     //!< waterline at which it acts; the wing's where not given
  Given moment = defaulted(-0.05);  //!< C_m0, nose-up positive
  Given centre_x;                   //!< aerodynamic centre; the quarter of the mean chord where not given
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
//! A corner of a prism's outline; along the way it runs it may lie anywhere.
struct OutlineCorner : Kept {
  Point at;
  bool operator==(const OutlineCorner&) const = default;
};

//! What a mesh file held when it was read (io/mesh_file.h): not part of the project's text. In the aircraft's
//! directions, from the file's origin.
struct Skin {
  std::shared_ptr<const motion::Triangles> triangles;  //!< null: none, or `fault` says why
  std::string fault;
  std::string state;  //!< of the file then
  bool operator==(const Skin&) const = default;
};

struct KeepOut : Kept {
  std::string name;
  Shape shape = Shape::box;
  //! Corners of a box; ends of a cylinder's centre line; a point of a plane, and one on its free side
  //! straight before it; places between which a prism runs; `low` where the origin of a mesh lies. Starboard
  //! side; mirrored to port.
  Point low, high;
  Given radius;                              //!< of a cylinder
  RunsAlong runs = RunsAlong::athwartships;  //!< of a prism
  std::vector<OutlineCorner> outline;        //!< of a prism, one after the other
  std::string file;                          //!< of a mesh, relative to the project's
  MeshUnit unit = MeshUnit::millimetres;
  MeshAxes axes = MeshAxes::x_aft_z_up;
  Skin skin;
  bool operator==(const KeepOut&) const = default;
};

//! What must go in and out past everything else with the aircraft built: a tray, a battery, a hand with a
//! spanner. A box where it sits, and the straight way it goes.
struct Access : Kept {
  std::string name;
  Point low, high;            //!< its corners where it sits
  Given way_x, way_y, way_z;  //!< by which it goes to be out
  Given clearance;            //!< wanted all round on the way
  bool operator==(const Access&) const = default;
};

struct Airframe : Kept {
  std::string level_reference;  //!< what is horizontal in the level attitude
  std::vector<Body> bodies;
  Surface wing, tailplane;
  std::vector<OutlinePoint> fin, canopy;
  std::vector<Propeller> propellers;
  std::vector<LowPoint> low_points;
  std::vector<Reference> references;
  Given cg_forward_limit, cg_aft_limit;  //!< stations the designer allows
  Given mass_limit;
  Given target_empty_mass;  //!< what it was designed to weigh empty
  std::vector<KeepOut> keep_outs;
  std::vector<Access> accesses;
  Given body_twist;  //!< of the body where the gear is held against the wing's axes: its starboard side up
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
  std::string moves;             //!< id of the leg it hangs on and goes with; empty: it stays
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
//! What one scale said, level, and where what stood on it touched it.
struct ScaleReading : Kept {
  std::string name;     //!< the builder's label; what stands on it where empty
  std::string leg;      //!< id of the leg that stood on it; empty: a jacking point, or not told
  Given reading, tare;  // kg
  Given x, y;           //!< of the contact when weighed: the gear may have moved since; y starboard
  bool operator==(const ScaleReading&) const = default;
};

struct Weighing : Kept {
  std::string build_state;           //!< what was aboard and fitted
  std::string loading;               //!< the loading of the ledger to compare with
  std::vector<ScaleReading> scales;  //!< one under each wheel, or under each leg
  //! With the nose raised (legs blocked, wheels free to roll): what the scales of the nose, tail or front
  //! legs say together, gross, and the pitch.
  Given tilted_third, tilt_pitch;
  Given third_above_main;                           //!< of the axles, level
  Given main_axle_z, main_axle_height;              //!< waterline, and above the ground, level
  Given reading_error = defaulted(0.2);             //!< standard error of each reading
  Given pitch_error = defaulted(0.1 * radians(1));  //!< and of the tilt
  bool operator==(const Weighing&) const = default;
};

}  // namespace kranich
