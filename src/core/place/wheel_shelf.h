// SPDX-License-Identifier: GPL-3.0-or-later
//! Choosing a wheel from a shelf by load, field, size and mass. SI. Source: handbook, Place.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/base/say.h"
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
  Text objection;          //!< empty where nothing speaks against it
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

//! What exchanging wheels did to the ledger.
struct WheelMass {
  double change = 0;  //!< kg, of the aircraft
  bool unsaid =
      false;  //!< it hangs on a leg whose items may hold a wheel of unknown mass: the ledger is as it was
};
//! Puts a wheel of the shelf on each of some legs and its mass into design and ledger. The item that an
//! earlier exchange made gets the new mass; else, where the mass of the wheel taken off is known (`off`, kg;
//! NaN otherwise), what hangs on the leg changes by the difference; else, on a leg that nothing hangs on yet,
//! an item of its own is made at the axle, one on each side. The unsprung mass goes with it where both masses
//! are known.
WheelMass exchange_wheels(Design& design, const std::vector<size_t>& legs, const ShelfWheel& on, double off);

}  // namespace kranich::place
