// SPDX-License-Identifier: GPL-3.0-or-later
//! The table sheet: what a ruler and an incidence meter should read round the aircraft standing on its
//! wheels, for each loading, and beside it what was read.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/assess/assess.h"

namespace kranich {

struct TableLine {
  Text what;
  std::string loading;
  bool is_angle = false;
  bool both_sides = false;
  double computed_starboard, computed_port;  //!< m above the table, or rad; NaN where there is none
  double read_starboard, read_port;          //!< NaN where nothing was read
  double slope = 0;                          //!< of the table, in an angle's reading, rad
  std::string build_state;                   //!< of the reading
  bool is_read() const;
  //! Read less computed, of the side that is further off; NaN where nothing was read.
  double off() const;
  //! What a ruler (1 mm on a model, else 5 mm, or 1 % of the height) or an incidence meter (0.5°) leaves
  //! open.
  double allowed(bool model) const;
};

//! Every line of every loading that stands. Heights above the ground in the static state.
std::vector<TableLine> table_sheet(const Design& design, const Assessment& assessment);

//! What two heights at rest tell of a leg's friction: pressed down and let go, lifted and let down, it sticks
//! anywhere between its spring's load plus and minus the friction. For the heaviest loading.
struct RestFriction {
  double friction;     //!< k·Δh/2, N; negative where the heights are mixed up
  double load;         //!< on the leg then, N
  double apart, rate;  //!< Δh, m; at the wheel there, N/m
  std::string loading;
};
//! Nothing where a height is missing or the aircraft does not stand on that leg.
std::optional<RestFriction> rest_friction(const Design& design, const Assessment& assessment, const Leg& leg);

//! Files a reading (NaN takes it out) under what, loading and the project's present build state.
void set_reading(Design& design, const TableLine& line, bool port, double si);

}  // namespace kranich
