// SPDX-License-Identifier: GPL-3.0-or-later
//! A number as the builder gave it: value, tolerance, and where it came from.
#pragma once

#include <cmath>
#include <limits>
#include <string>
#include <utility>
#include <vector>

#include "core/base/geometry.h"

namespace kranich {

//! Where a number comes from. A default is visibly a default; a missing one is never taken as zero.
//! Undecided: the part is not chosen yet; the tolerance is half the range it may turn out in. Guessed: worked
//! out from a few answers (start/start.h); with half its likely range, or none where it follows from others.
enum class Origin { missing, by_default, plan, estimated, measured, undecided, guessed };

struct Given {
  double si = std::numeric_limits<double>::quiet_NaN();
  double tolerance = 0;  //!< plus or minus, SI
  Origin origin = Origin::missing;

  Given() = default;
  Given(double value, Origin from = Origin::plan, double plus_minus = 0)
      : si(value), tolerance(plus_minus), origin(from) {}

  bool known() const { return std::isfinite(si); }
  operator double() const { return si; }  // NOLINT: formulas read like the mathematics; missing is NaN
  bool operator==(const Given& o) const {
    return (si == o.si || (!known() && !o.known())) && tolerance == o.tolerance && origin == o.origin;
  }
};

//! A default that the program, not the builder, put in.
inline Given defaulted(double value) { return {value, Origin::by_default}; }

//! Keys of the file that this version does not know, kept for rewriting: name and raw JSON text.
struct Kept {
  std::vector<std::pair<std::string, std::string>> unknown_keys;
  bool operator==(const Kept&) const = default;
};

struct Point : Kept {
  Given x, y, z;  // m
  Vec3 vec() const { return {x.si, y.si, z.si}; }
  bool known() const { return x.known() && y.known() && z.known(); }
  //! As planned, without a tolerance.
  void set(const Vec3& at) {
    x = Given(at.x());
    y = Given(at.y());
    z = Given(at.z());
  }
  bool operator==(const Point&) const = default;
};

}  // namespace kranich
