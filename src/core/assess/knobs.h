// SPDX-License-Identifier: GPL-3.0-or-later
//! What a builder can change by one number: each line of legs, each part of a leg, what slides aboard, the
//! steps of the sequence. A knob knows how far it may be turned: within what the description allows, no part
//! to nothing, no leg further than the aircraft is long.
#pragma once

#include <functional>
#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/say.h"
#include "core/model/design.h"

namespace kranich {

struct Knob {
  std::string id;  //!< "main.station": leg's id, and what it moves
  const char* more =
      "";  //!< how an increase reads: "{} aft by {}", or without a noun "doors close later by {}"
  const char* less = "";
  Text noun;  //!< "main wheels"; empty where the words have none
  Kind kind = Kind::factor;
  double step = 1;             //!< what the answer is rounded outward to, SI
  double least = 0, most = 0;  //!< how far it may be turned, SI, least <= 0 < most
  //! What it changes as it stands, SI: of more than half of this a builder is told. NaN for places and times.
  double there = 0;
  double dear = 1;  //!< what its whole range costs against that of another: dead weight is taken last
  std::function<void(Design&, double)> apply;
  //! What it does may rise and fall on the way: it is searched piece by piece.
  bool wavers = false;
  //! What may be taken instead, by name: the change is the number of one of them, from 1. Empty of a number.
  std::vector<Text> choices{};

  std::string_view what() const { return std::string_view(id).substr(id.find('.') + 1); }
  double range() const { return most > -least ? most : -least; }
  Text worded(double change) const;
  //! What it is, without an amount: "main wheels aft by …".
  Text named() const;
};
using KnobRef = std::shared_ptr<const Knob>;
//! A knob that is one thing to take or leave: what was worked out, or fitted instead.
KnobRef one_choice(std::string id, Text words, std::function<void(Design&)> take);

//! Every knob that a design has, in the order in which they are tried.
std::vector<KnobRef> knobs(const Design& design);
//! Those that can move a measure at all.
std::vector<KnobRef> knobs_for(const Design& design, std::string_view measure_id);

//! Whether a changed design can be built as the one before could: a file would take it, no leg is shorter
//! than its wheel and travel, none has left the body or wing that held it.
bool buildable(const Design& before, const Design& after);

}  // namespace kranich
