// SPDX-License-Identifier: GPL-3.0-or-later
//! The nine questions that a whole aircraft is started from, and what may be answered. SI, angles in rad.
//! Source: handbook, Start.
#pragma once

#include <array>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/say.h"
#include "core/model/design.h"

namespace kranich::start {

//! What was answered. An open question takes what is usual, and the number is then a guess.
struct Answers {
  std::optional<Build> build;
  std::optional<int> seats;     //!< of a full-size aircraft, 0–4
  std::optional<double> scale;  //!< of a model of something, 1:s
  std::optional<Craft> kind;
  std::optional<bool> retractable;
  std::optional<double> mass;     //!< all-up, kg
  std::optional<double> span;     //!< or rotor diameter, m
  std::optional<double> length;   //!< spinner to tail end, m
  std::optional<WingPlace> wing;  //!< not of a helicopter
  std::optional<Engine> engine;   //!< not of a helicopter
  std::optional<Field> field;
  bool keep_span = false, keep_length = false;  //!< outside of what is usual all the same
  bool operator==(const Answers&) const = default;
};

//! Every question answered: what was left open as it is taken.
struct Settled {
  bool model;
  int seats;
  double scale;  //!< NaN: of nothing
  Craft kind;
  bool retractable;
  double mass, span, length;
  WingPlace wing;
  Engine engine;
  Field field;
  bool mass_guessed, span_guessed, length_guessed;
  double widen;  //!< of every half-range: 1, or 2 where a size outside of the usual is kept
  bool helicopter() const { return kind == Craft::helicopter; }
  bool tail_wheel() const { return kind == Craft::tail_wheel; }
};

//! What may be answered to a question about a size.
struct Allowed {
  double usual, least, most;
};

//! Usual mean chord, span (rotor diameter) and length of an aircraft of a mass.
double wing_loading(const Settled& s);  //!< kg/m2, or of a rotor's disc
double usual_mean_chord(const Settled& s);
Allowed allowed_mass(const Answers& a);
Allowed allowed_span(const Answers& a);
Allowed allowed_length(const Answers& a);

//! What was answered, completed by what is usual.
Settled settled(const Answers& a);

//! One thing wrong with an answer: which question, and what is allowed by which answer.
struct Refusal {
  std::string question;  //!< "mass", "span", "length", "seats", "scale", "field"
  Text why;
  bool may_be_kept = false;  //!< all the same, with every half-range twice as wide
};
std::vector<Refusal> refusals(const Answers& a);

}  // namespace kranich::start
