// SPDX-License-Identifier: GPL-3.0-or-later
//! Shares of a weight on any number of springs: the closed form of Stance for small angles, to be read and
//! checked by hand. SI, rad. Source: handbook, Many legs.
//!
//! Closure of spring i: δᵢ = a + θ·xᵢ + φ·yᵢ − uᵢ, load Fᵢ = kᵢ·δᵢ ≥ 0 (contacts only push). The CG's ground
//! point moves aft by H_θ·θ and to starboard by H_φ·φ as it tilts. Balance: Σ Fᵢ·(1, xᵢ, yᵢ) = W·(1, x +
//! H_θ·θ, y + H_φ·φ).
#pragma once

#include <optional>
#include <vector>

namespace kranich::stance {

struct FootSpring {
  double x, y;    //!< m
  double rate;    //!< N/m, leg and tyre in series
  double height;  //!< u, of the unloaded foot above a common plane, m
};
struct Shares {
  double sink, pitch, roll;  //!< m, rad; of the plane through the unloaded feet's reference
  std::vector<double> load;  //!< N
};
//! Nothing where no set of pushing contacts is stable.
std::optional<Shares> shares(double mass, double cg_x, double cg_y, const std::vector<FootSpring>& feet,
                             double pitch_travel_height = 0, double roll_travel_height = 0);

}  // namespace kranich::stance
