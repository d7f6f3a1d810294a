// SPDX-License-Identifier: GPL-3.0-or-later
//! What a check says: a measure's value, its limits with who set them, the margin and the verdict.
#pragma once

#include <cmath>
#include <concepts>
#include <limits>
#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "core/base/measure.h"
#include "core/base/say.h"

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
  Text source;                       //!< who says so
  bool set() const { return lower || upper; }
};

enum class GearState { extended, static_load, bottomed, flat };
std::string_view gear_state_word(GearState state);

//! One line of a finding's working: a name, the number put in, and what kind of number it is.
struct Working {
  Text name;
  double si;
  Kind kind;
};

//! What a finding is about where there are several of a kind: how it reads, and what it is known by whatever
//! it is called. Two doors of one name are two subjects.
struct Subject {
  Text words;
  std::string key;  //!< the same in every assessment of a design and its variants
  std::string leg;  //!< id of the leg it is about; empty where it is about none, or several

  Subject() = default;
  //! Known by its words, where they are Kranich's own.
  Subject(Text said) : words(std::move(said)), key(in_words(words)) {}
  template <class Word>
  requires std::convertible_to<Word, Text> Subject(Word&& said) : Subject(Text(std::forward<Word>(said))) {}
  Subject(Text said, std::string known_by, std::string of_leg = {})
      : words(std::move(said)), key(std::move(known_by)), leg(std::move(of_leg)) {}
  bool empty() const { return key.empty(); }
  bool operator==(const Subject& other) const { return key == other.key; }
};

struct Finding {
  std::string measure_id;
  Subject subject;
  std::string loading;  //!< empty where it does not depend on the loading
  GearState state = GearState::static_load;
  double value = std::numeric_limits<double>::quiet_NaN();  //!< SI
  Limit limit;
  double margin = std::numeric_limits<double>::quiet_NaN();  //!< in the measure's unit, negative: outside
  double margin_fraction =
      std::numeric_limits<double>::quiet_NaN();  //!< of the limit (two sides: of the width)
  Verdict verdict = Verdict::unknown;
  Text remark;                   //!< why it is unknown, or what to know about the number
  std::vector<Working> working;  //!< the numbers in the formula
  Text assumption;

  const Measure& info() const { return measure(measure_id); }
  //! Identifies the check in another assessment of a changed design, whatever the loading.
  std::string check() const { return measure_id + "|" + subject.key; }
  //! The same with its loading.
  std::string key() const { return check() + "|" + loading; }
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
