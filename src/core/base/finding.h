// SPDX-License-Identifier: GPL-3.0-or-later
//! What a check says: a measure's value, its limits with who set them, the margin and the verdict.
#pragma once

#include <cmath>
#include <limits>
#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "core/base/measure.h"

namespace kranich {

//! `noted`: a figure with no limit set, reported but not judged.
enum class Verdict { holds, tight, fails, unknown, noted };

std::string_view verdict_word(Verdict verdict);
//! How bad it is for the aircraft: 2 fails, 1 tight, 0 the rest (not known is not bad).
constexpr int severity(Verdict v) { return v == Verdict::fails ? 2 : v == Verdict::tight ? 1 : 0; }

//! Limits of a measure in SI. Outside [lower, upper] it fails. Between them it is tight where it is closer
//! than the tight band; a check that names its own bands gives hold_lower and hold_upper.
struct Limit {
  std::optional<double> lower;
  std::optional<double> upper;
  std::optional<double> hold_lower;  //!< own band: holds only from here
  std::optional<double> hold_upper;  //!< own band: holds only up to here
  std::string source;                //!< who says so
  bool set() const { return lower || upper; }
};

enum class GearState { extended, static_load, bottomed, flat };
std::string_view gear_state_word(GearState state);

//! One line of a finding's working: a name, the number put in, and what kind of number it is.
struct Working {
  std::string name;
  double si;
  Kind kind;
};

struct Finding {
  std::string measure_id;
  std::string subject;  //!< what it is about where there are several: a loading, a leg, a point
  std::string loading;  //!< empty where it does not depend on the loading
  GearState state = GearState::static_load;
  double value = std::numeric_limits<double>::quiet_NaN();  //!< SI
  Limit limit;
  double margin = std::numeric_limits<double>::quiet_NaN();  //!< in the measure's unit, negative: outside
  double margin_fraction =
      std::numeric_limits<double>::quiet_NaN();  //!< of the limit (two sides: of the width)
  Verdict verdict = Verdict::unknown;
  std::string remark;            //!< why it is unknown, or what to know about the number
  std::vector<Working> working;  //!< the numbers in the formula
  std::string assumption;

  const Measure& info() const { return measure(measure_id); }
  //! Identifies the check in another assessment of a changed design.
  std::string key() const { return measure_id + "|" + subject + "|" + loading; }
};

//! How near a limit still counts as tight: a tenth of the limit, of the width where there are two, of the
//! measure's zero scale for a limit of zero; or the effect of the build tolerance where that is larger.
struct Judgement {
  Verdict verdict;
  double margin;
  double margin_fraction;
};
Judgement judge(double value, const Limit& limit, double zero_scale, double tolerance_effect = 0);

}  // namespace kranich
