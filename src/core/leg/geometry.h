// SPDX-License-Identifier: GPL-3.0-or-later
//! Leg geometry as a result: true lengths, rake and cant, drill angles, copes, the jig. SI, rad; aircraft
//! axes, starboard. Source: handbook, Leg.
#pragma once

#include <optional>
#include <vector>

#include "core/base/geometry.h"

namespace kranich::leg {

struct TubeGeometry {
  double length;
  double rake;  //!< side view, positive where the foot is ahead of the top
  double cant;  //!< front view, positive where the foot is outboard
};
TubeGeometry tube_geometry(const Vec3& top, const Vec3& foot);
//! Acute angle between a tube's axis and a pin's; 90° is square.
double drill_angle(const Vec3& tube, const Vec3& pin);
double angle_between(const Vec3& a, const Vec3& b);

//! Cut of a tube that meets another: along the cut tube from its axis point nearest the main axis,
//! t(φ) = [√(R² − (e + r·sin φ)²) + r·cos φ·cos θ]/sin θ, φ = 0 on the acute side, 90° on the side of
//! positive e.
struct Cope {
  double cut_radius, main_radius, angle, offset;
  //! Nothing where the cut tube passes beside the main one there.
  std::optional<double> at(double phi) const;
  double around() const;  //!< width of the template round the tube
  //! Deepest less shallowest; nothing where there is no full cope.
  std::optional<double> depth() const;
};

struct Jig {
  double bar_length, axle_height, square_diagonal;
};
Jig jig(double axle_waterline, double reference_waterline, double reference_height, double overall_width,
        double axle_sticks_out, double point_behind);
//! Toe-in of the starboard wheel from the two diagonals; the port one has the opposite sign.
double toe_from_diagonals(double starboard, double port, double bar_length, double point_behind);
//! Toe-in and camber of a wheel (rad) from a straight bar through its axle's bore, read at the other axle:
//! `aft` and `up` of it there, `apart` the two axles. NaN where a reading is.
struct BarSetting {
  double toe, camber;
};
BarSetting setting_from_bar(double aft, double up, double apart);
//! Toe that a difference of the diagonals comes to.
double toe_of_difference(double difference, double square_diagonal, double bar_length, double point_behind);

}  // namespace kranich::leg
