// SPDX-License-Identifier: GPL-3.0-or-later
//! Choosing a wheel from a shelf by load, field, size and mass. SI. Source: handbook, Place.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/model/design.h"

namespace kranich::place {

struct ShelfWheel {
  std::string name;
  Wheel wheel;
  double mass;           //!< kg
  double greatest_load;  //!< N, the maker's
  std::string remark;
};

struct WheelNeed {
  double load;            //!< static, on one wheel, N
  double usual_diameter;  //!< what practice gives for this load or mass, m
  double scale_diameter;  //!< NaN where no scale decides
  double obstacle;        //!< NaN where not known
  Field field;
  bool model;
};

struct WheelCandidate {
  size_t index;
  double squash;           //!< under the load, m
  double left;             //!< share of the section height
  double ground_pressure;  //!< Pa
  std::string objection;   //!< empty where nothing speaks against it
  double score;            //!< less is better
};

//! Area on which a solid or unmeasured tyre stands when squashed by a closure (m): 2.3·√(width·diameter)·t,
//! m2.
double contact_patch(const Wheel& wheel, double closure);

//! Most a field bears under a wheel of a full-size aircraft; nothing where the ground is firm.
struct FieldPressure {
  double pressure;  //!< Pa
  const char* why;
};
std::optional<FieldPressure> firmest_pressure(Field field);

//! Those without objection first; then by how far the diameter lies from what is wanted, and by mass.
std::vector<WheelCandidate> rank_wheels(const std::vector<ShelfWheel>& shelf, const WheelNeed& need);

//! Puts a wheel of the shelf in, what was fitted about it (fork gap) stays.
void fit_wheel(Wheel& wheel, const ShelfWheel& from);

}  // namespace kranich::place
