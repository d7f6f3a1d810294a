// SPDX-License-Identifier: GPL-3.0-or-later
//! What a leg's drive works against, from a design: part of an Assessment.
#pragma once

#include <string>
#include <variant>

#include "core/assess/assess.h"
#include "core/assess/steps.h"
#include "core/base/finding.h"
#include "core/base/say.h"
#include "core/drive/load.h"
#include "core/drive/machines.h"
#include "core/drive/servo.h"
#include "core/drive/servo_tester.h"
#include "core/model/design.h"
#include "core/swing/locks.h"
#include "core/swing/units.h"

namespace kranich {

//! A leg's loads as it is raised, the starboard one of a pair. `taken` says what was not entered but taken
//! from elsewhere.
struct DriveLoad {
  drive::LegLoad load;  //!< with the air at the speed entered
  double inertia;       //!< about the pivot, kg·m²
  Text without_air;     //!< what the air's part lacks; empty: it is in
  Text taken;
};
//! Or what is missing. Mass and CG are, where not entered, those of what the ledger hangs on the leg; the
//! inertia that of these masses as points; the air acts where the axle is.
std::variant<DriveLoad, Text> drive_load(const Design& design, const Leg& leg);
//! The same on jacks: no air.
drive::LegLoad on_jacks(drive::LegLoad load);

//! What an actuator or cylinder must keep, the same for checks and map: its least arm beside its largest, its
//! force in hand, its stroke beyond what the travel asks for, its rod as a column.
Limit arm_limit(double largest_arm);
Limit force_limit();
Limit stroke_limit(double range);
Limit column_limit();

std::optional<drive::Strut> actuator_of(const Leg& leg);
std::optional<drive::ServoLinkage> servo_of(const Leg& leg);
std::optional<drive::GearedMotor> motor_of(const Leg& leg);
//! A leg's servo and unit as a tester would have them, stops where they are drawn; or what is missing.
std::variant<drive::TestedUnit, Text> tested_unit(const Leg& leg);
std::optional<drive::HydraulicCylinder> cylinder_of(const Leg& leg);
//! How long a leg's own motor or actuator takes each way, s, the slower of in the air and on jacks: the
//! battery full, and at its lowest at the far end of the leg's lead. Infinite where the motor stalls. The
//! motor's line shrinks with the voltage, the actuator's speed goes with it.
struct DrivenTimes {
  double up, down, up_lowest, down_lowest;  //!< the last two as the first where the voltages are not known
  double up_quickest, down_quickest;        //!< the battery full, the quicker of in the air and on jacks
  Text taken;                               //!< what is left out of the voltage at its lowest
  Text lacking;  //!< entries without which nothing is known of the battery at its lowest
};
//! Nothing for another kind of drive, or one that lacks a figure.
std::optional<DrivenTimes> driven_times(const Design& design, const Leg& leg, const DriveLoad& load,
                                        Steps& steps);
//! A motor's way up or down against a load, at a share of the voltage that its line was measured at. What
//! would run ahead is held by its worm or screw.
drive::MotorRun motor_way(drive::GearedMotor motor, double voltage, const drive::LegLoad& load,
                          double inertia, bool up, Steps& steps);
//! What a cylinder lacks to be one, on oil or on air: its ends, bore and rod, and on oil its pressures.
Text cylinder_lacks(const Leg& leg);
//! Most that what stands between two points pushes and pulls; NaN where it is not known. A cylinder worked by
//! air: at the end of its way in the last cycle that is wanted of a filling.
struct StrutCan {
  double push, pull;
};
StrutCan strut_can(const Design& design, const Leg& leg);
//! Its down-spring, all of it known but perhaps its force (then 1 N).
std::optional<drive::DownSpring> down_spring_of(const Leg& leg);
//! What an aircraft asks of a retract unit of a leg: its greatest flown mass, and the greatest moment about
//! the pin over the leg's load cases. NaN where it is not known.
swing::UnitNeed unit_need(const Assessment& assessment, const Leg& leg);

//! Its folding brace in the plane of the swing: (y, z) of a sideways one, else (x, z).
std::optional<swing::FoldingBrace> brace_of(const Leg& leg);
swing::Vec2 in_plane_of_swing(const Leg& leg, const Vec3& point);

}  // namespace kranich
