// SPDX-License-Identifier: GPL-3.0-or-later
//! How the stations' checks hand in their findings: limits of the user's own are put in and verdicts passed
//! in one place.
#pragma once

#include <string>
#include <utility>
#include <vector>

#include "core/assess/subjects.h"
#include "core/base/finding.h"
#include "core/model/design.h"

namespace kranich {

class Collector {
 public:
  Collector(const Design& design, std::vector<Finding>& findings) : design_(design), findings_(findings) {}

  //! Judges a value and files it. A value that is not finite becomes "unknown".
  Finding& add(std::string_view measure_id, double value, Limit limit = {}, double tolerance_effect = 0);
  //! Files a check that fails beyond what a number tells, and says why.
  Finding& fails(std::string_view measure_id, Limit limit, Text why);
  //! Files a check that lacks an input, and names it.
  Finding& unknown(std::string_view measure_id, Text what_is_missing);

  //! What the findings filed from now on are about.
  void about(Subject subject, std::string loading = "", GearState state = GearState::static_load) {
    subject_ = std::move(subject);
    loading_ = std::move(loading);
    state_ = state;
  }

 private:
  const Design& design_;
  std::vector<Finding>& findings_;
  Subject subject_;
  std::string loading_;
  GearState state_ = GearState::static_load;
};

//! A limit with what the user has set for that measure in its place.
Limit with_own(const std::vector<OwnLimit>& limits, std::string_view measure_id, Limit limit);

inline Limit at_least(double lower, Text source) { return {lower, {}, {}, {}, std::move(source)}; }
inline Limit at_most(double upper, Text source) { return {{}, upper, {}, {}, std::move(source)}; }
inline Limit within(double lower, double upper, Text source) {
  return {lower, upper, {}, {}, std::move(source)};
}
//! Fails below `lower`, holds from `hold_lower` on, tight between.
inline Limit at_least_or_tight(double lower, double hold_lower, Text source) {
  return {lower, {}, hold_lower, {}, std::move(source)};
}
//! Own bands: fails outside [lower, upper], holds inside [hold_lower, hold_upper], tight between.
inline Limit bands(double lower, double hold_lower, double hold_upper, double upper, Text source) {
  return {lower, upper, hold_lower, hold_upper, std::move(source)};
}

struct Assessment;

//! What is asked of a station.
struct Asked {
  //! Only what this measure needs; empty: everything.
  std::string_view measure = {};
  bool take_time = true;  //!< as of Stations
};

#define KRANICH_STATION(id, title, uses) \
  void assess_##id(const Design&, Assessment&, Collector&, const Asked&);
KRANICH_STATIONS(KRANICH_STATION)
#undef KRANICH_STATION
//! The part of Place that is about tyres and what they stand on.
void assess_wheels(const Design&, Assessment&, Collector&);

}  // namespace kranich
