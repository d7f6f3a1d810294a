// SPDX-License-Identifier: GPL-3.0-or-later
//! Runs all stations over a design and collects what they find. Pure: the same design gives the same answer.
#pragma once

#include <map>
#include <memory>
#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "core/assess/steps.h"
#include "core/base/finding.h"
#include "core/model/design.h"

namespace kranich {

namespace stance {
struct WheelOnLeg;
}
namespace sequence {
struct Timeline;
struct LegTimes;
}  // namespace sequence
// What the stations make of a design. Their headers say what is in them (loading_state.h, landing_state.h,
// strength_state.h, swing_state.h, doors_state.h, logic_state.h, circuit_state.h): only who looks into a
// result needs to know it.
struct LoadingState;
struct LegLanding;
struct LegStrength;
struct LegSwing;
struct SwingPair;
struct DoorState;
struct LogicState;
struct CircuitState;
struct CylinderWays;

struct Assessment {
  Assessment();
  Assessment(const Assessment&);
  Assessment(Assessment&&) noexcept;
  Assessment& operator=(const Assessment&);
  Assessment& operator=(Assessment&&) noexcept;
  ~Assessment();

  std::vector<LoadingState> loadings;
  std::optional<std::vector<stance::WheelOnLeg>> wheels;  //!< in the order of placed_legs
  std::map<std::string, double>
      outrigger_loads;  //!< greatest on each (N), by its id, over the flown loadings
  std::vector<LegLanding> landings;
  std::vector<LegStrength> strengths;
  std::vector<LegSwing> swings;
  std::vector<SwingPair> pairs;  //!< of wheels that swing past each other
  std::vector<DoorState> doors;
  std::vector<sequence::LegTimes> times;  //!< what each leg takes, once `timed` (leg_times.h)
  bool timed = false;
  std::vector<sequence::Timeline> lines;    //!< of the sequence: up, then down
  std::shared_ptr<const LogicState> logic;  //!< null: nothing of it is told
  std::shared_ptr<const CircuitState> circuit;
  std::shared_ptr<const CylinderWays> ways;  //!< null: not asked for (circuit_state.h)
  std::vector<Finding> findings;
  Steps steps;  //!< what of it took time, with what it was made from

  //! The loading of that name; null where there is none.
  const LoadingState* find(const std::string& name) const;
  const sequence::Timeline& line(bool up) const;
  //! As find, or the first loading: what the drawings show.
  const LoadingState* loading(const std::string& name) const;
};

//! Which stations to run; a cure needs only the one its measure stands in.
struct Stations {
  unsigned bits = ~0u;
  //! Of Place and Spring only what this measure needs; empty: everything.
  std::string_view measure = {};
  //! Whether what takes longer than a drag may (the proof of the logic) is waited for; else it is taken from
  //! what has been worked out before, or its findings are unknown.
  bool take_time = true;
  bool has(Station station) const { return (bits & station_bit(station)) != 0; }
  //! A station with those it builds on.
  static Stations only(Station station);
};

//! `near`: the assessment of a design that differs little: steps whose inputs have not changed are taken over
//! from it, and its rests are where the search for the new ones starts. The answer is the same without it.
Assessment assess(const Design& design, Stations which = {}, const Assessment* near = nullptr);

//! Shim under legs (m, longer positive) at which a loading rests at a pitch: legs with all that hangs on them
//! moved, the whole equilibrium solved. Nothing where none within half the aircraft's length does it.
std::optional<double> shim_for_pitch(const Design& design, const std::string& loading,
                                     const std::vector<size_t>& rows, double pitch);

//! Sink speed (m/s) that a school gives for a design at a mass (kg), or what the school lacks.
std::variant<double, Text> sink_speed_by(School school, const Design& design, double mass);

//! The worst finding of each check (measure and subject) over all loadings, worst margins first.
std::vector<const Finding*> worst_of_each(const Assessment& assessment);
//! Order for a list of margins: fails before tight before unknown before holds before noted; then by
//! fraction.
bool worse(const Finding& a, const Finding& b);

}  // namespace kranich
