// SPDX-License-Identifier: GPL-3.0-or-later
//! Runs all stations over a design and collects what they find. Pure: the same design gives the same answer.
#pragma once

#include <map>
#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "core/base/finding.h"
#include "core/leg/geometry.h"
#include "core/leg/structure.h"
#include "core/model/design.h"
#include "core/place/place.h"
#include "core/sequence/sequence.h"
#include "core/spring/bump.h"
#include "core/spring/drop.h"
#include "core/spring/landing.h"
#include "core/stance/stance.h"
#include "core/swing/swing.h"
#include "core/weigh/weigh.h"

namespace kranich {

//! One loading: what it weighs and how it stands.
struct LoadingState {
  std::string name;
  weigh::LoadingMass mass;
  std::optional<stance::Rest> rest;
  std::string no_rest;  //!< why it does not stand, or what is missing
  bool flown = true;
};

//! A leg's design landing.
struct LegLanding {
  std::string leg;  //!< its id
  double sink_speed, mass;
  std::optional<spring::Stroke> stroke;
  std::optional<spring::DropModel>
      model;  //!< what the drop was computed of, at sink_speed: while it stays, so does it
  std::optional<spring::DropResult> drop, reserve;
  std::optional<spring::BumpModel> bump_model;
  std::optional<spring::BumpResult> bump;
  double sag = 0;  //!< share of the travel at rest, heaviest on this leg
};

//! A leg's load cases and what its parts are left with.
struct LegStrength {
  std::string leg;  //!< its id
  leg::LoadCases cases;
  leg::Structure structure;
};

struct LegSwing {
  std::string leg;  //!< its id
  Leg of;           //!< the leg it was computed for, and what it must pass: while they stay, so does the rest
  std::vector<KeepOut> passing;
  std::optional<swing::SwingInput> input;
  std::optional<swing::SwingFigures> figures;
  std::optional<swing::Clearance> least;
  std::string missing;
};

struct Assessment {
  std::vector<LoadingState> loadings;
  std::optional<std::vector<stance::WheelOnLeg>> wheels;  //!< in the order of placed_legs
  std::map<std::string, double>
      outrigger_loads;  //!< greatest on each (N), by its id, over the flown loadings
  std::vector<LegLanding> landings;
  std::vector<LegStrength> strengths;
  std::vector<LegSwing> swings;
  sequence::Timeline up, down;
  std::vector<Finding> findings;

  //! The loading of that name; null where there is none.
  const LoadingState* find(const std::string& name) const;
  //! As find, or the first loading: what the drawings show.
  const LoadingState* loading(const std::string& name) const;
};

//! Which stations to run; a cure needs only the one its measure stands in.
struct Stations {
  bool weigh = true, place = true, stance = true, spring = true, leg = true, swing = true, sequence = true;
  //! Of Place and Spring only what this measure needs; empty: everything.
  std::string_view measure = {};
  static Stations only(Station station);
};

//! `near`: the assessment of a design that differs little; its rests are where the search for the new ones
//! starts. The answer is the same without it.
Assessment assess(const Design& design, Stations which = {}, const Assessment* near = nullptr);

//! What a main leg takes of a landing (N): of one pair of mains half the weight each; of more legs the weight
//! shared as they share it at rest. `wheel` is its place in Rest::wheels. NaN where the aircraft does not
//! stand.
double mains_share(const Design& design, const LoadingState& loading, size_t wheel);

//! Shim under legs (m, longer positive) at which a loading rests at a pitch: legs with all that hangs on them
//! moved, the whole equilibrium solved. Nothing where none within half the aircraft's length does it.
std::optional<double> shim_for_pitch(const Design& design, const std::string& loading,
                                     const std::vector<size_t>& rows, double pitch);

//! The jig's figures for a design, or what is missing for them. Lengths in m.
struct JigFigures {
  leg::Jig jig;
  double behind;         //!< of the point that the diagonals run to, behind the axle line
  double overall_width;  //!< over the axle tips
};
std::variant<JigFigures, std::string> jig_of(const Design& design);

//! A leg as the drop takes it, with a mass (kg) on it, or what is missing. A hinged leg by the vertical force
//! at its axle over its rise.
std::variant<spring::DropModel, std::string> drop_model(const Leg& leg, const stance::WheelOnLeg& wheel,
                                                        double mass, double lift_ratio);
//! A leg as it rolls over the design's bump under a static load (N), or what is missing.
std::variant<spring::BumpModel, std::string> bump_model(const Design& design, const Leg& leg,
                                                        const LegLanding& landing,
                                                        const stance::WheelOnLeg& wheel, double static_load);

//! Sink speed (m/s) that a school gives for a design at a mass (kg), or what the school lacks.
std::variant<double, std::string> sink_speed_by(School school, const Design& design, double mass);

//! The worst finding of each check (measure and subject) over all loadings, worst margins first.
std::vector<const Finding*> worst_of_each(const Assessment& assessment);
//! Order for a list of margins: fails before tight before unknown before holds before noted; then by
//! fraction.
bool worse(const Finding& a, const Finding& b);

}  // namespace kranich
