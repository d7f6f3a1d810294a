// SPDX-License-Identifier: GPL-3.0-or-later
//! What to measure next: which act of measuring settles most of what only guesses decide. An act makes
//! several numbers known at once (the scales every empty item's mass and station). Source: handbook, Start.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/assess/tolerance.h"

namespace kranich::start {

//! With what a number is measured, quickest first.
enum class Tool {
  ruler,
  calliper,
  angle_finder,
  pressure_gauge,
  stopwatch,
  level,
  plumb_line,
  kitchen_scales,
  spring_balance,
  plan,
  squared_paper,
  scales,
  scales_under_wheel,
  scales_raised,
  small_drop,
  decide
};
//! "plumb line and tape".
const char* words(Tool tool);
//! What a reading of a kind is true to with it, SI; 0 where the tool says nothing of it.
double precision(Tool tool, Kind kind, bool model);

//! One act: which numbers it makes known.
struct Act {
  std::string id;  //!< of its tool and the key that its numbers share
  Text what;       //!< "main axle's station"
  Tool tool;
  Station station;                  //!< where the number is entered
  std::vector<std::string> paths;   //!< of what becomes known
  std::vector<std::string> titles;  //!< of those: "Main leg, Wheel, Wheel diameter"
};

//! Every act by which a guess of the design, or a number not decided yet, becomes known; in the order of the
//! description.
std::vector<Act> acts_of(const Design& design);
//! The act that a number with a half-range belongs to: its tool, what it is called and the key that numbers
//! of one act share.
struct ActKey {
  Tool tool;
  std::string key;
  Text what;
  Station station;
};
ActKey act_for(const Design& design, const std::string& path);

//! How much an act is worth.
struct Worth {
  Act act;
  double score = 0;
  int settles = 0;            //!< verdicts that do not hang on anything else
  std::vector<Text> narrows;  //!< the three that it says most of beside
};
struct NextList {
  std::vector<Worth> acts;  //!< best first; none below a hundredth of all that is open
  int open = 0;             //!< verdicts that hang on guesses
  double weight = 0;        //!< Σ s·ω of those
};
//! Ranks the acts by the run over the tolerances. Score = Σ s·ω·φ over the open verdicts: ω 3 where "fails"
//! and something else lie within reach of the guesses, 1 where only "tight" and "holds"; φ the share that the
//! act settles.
NextList measure_next(const Design& design, const Assessment& assessment, const ToleranceResult& spread);

//! Puts what was measured in the place of a guess: its value, measured, true to what the tool is. How far the
//! guess was off as a share of it, where it lay outside of its half-range; nothing where the guess was right.
//! A leg that goes with its axle follows by changed() (model/consistency.h), as after any other edit.
std::optional<double> take_measured(Design& design, const std::string& path, Tool tool, double si);

//! A scale under a wheel of the empty aircraft, level.
struct EmptyScale {
  Text under;       //!< "port main wheel"
  double x, y;      //!< of the wheel, m
  double expected;  //!< kg, as the ledger has it; NaN where no lever decides it
};
//! One for every wheel, in the order of placed_legs.
std::vector<EmptyScale> empty_scales(const Design& design);
//! Takes over what they read (kg, as many): by weigh::from_scales.
void take_scales(Design& design, const std::vector<double>& readings);

//! The empty aircraft on scales: mass and station of its CG enter the ledger. What the scales show more, and
//! where it must lie, becomes one measured line; where that is no thing that can be in the aircraft, the
//! guessed items are scaled and shifted together. Nothing of their masses and stations is open then.
void take_scales(Design& design, double mass, double x);
//! Mass and station of the empty aircraft as the ledger has it.
struct EmptyMass {
  double mass, x;
};
EmptyMass empty_of(const Design& design);

//! Guesses the rest again: the same construction from the answers kept in the design and from what has become
//! known since, wherever a number is still a guess; a number that is none stays. Nothing where the design was
//! not started from answers.
std::optional<Design> guessed_again(const Design& design);

}  // namespace kranich::start
