// SPDX-License-Identifier: GPL-3.0-or-later
//! Currents over a sequence, what the supply gives, what is left at the far end of a lead. SI. Source:
//! handbook, Circuit, Electrics.
#pragma once

#include <limits>
#include <string>
#include <vector>

namespace kranich::circuit {

//! Something that draws for a while: inrush, then running, to its end; jammed, its stall current from then to
//! the time-out, which counts from its start.
struct Consumer {
  std::string name;
  double start, time;
  double running, inrush = 0, inrush_time = 0, stall = 0;
  double jams_after = std::numeric_limits<double>::quiet_NaN();  //!< s after its start; NaN: it does not
  //! Current at a time; the later piece counts where two meet.
  double at(double t, double time_out) const;
};

struct Budget {
  double peak, peak_at;                          //!< A, and when it is first reached, s
  double time_above;                             //!< the supply's limit, s
  double charge;                                 //!< A·s over the sequence
  std::vector<std::pair<double, double>> steps;  //!< time, current from then on
};
//! Exact: every current is constant between two of its times.
Budget budget(const std::vector<Consumer>& consumers, double standing, double supply_limit, double time_out,
              double length);

//! Both conductors of a lead: 2·ℓ·ρ/A, Ω.
inline constexpr double copper = 1.75e-8;  //!< Ω·m, at 20 °C
double lead_resistance(double one_way, double area, double resistivity = copper);
//! Least conductor (m2) whose drop at a current is no more than allowed.
double least_conductor(double one_way, double current, double drop, double resistivity = copper);

}  // namespace kranich::circuit
