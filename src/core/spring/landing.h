// SPDX-License-Identifier: GPL-3.0-or-later
//! Spring: the design landing by three schools, the first estimate of the stroke. SI. Source: handbook,
//! Springs.
#pragma once

#include <functional>
#include <optional>

namespace kranich::spring {

//! The historical light-aeroplane rule: each formula has its own limits.
struct RuleLanding {
  double wing_loading;  //!< N/m2
  double sink_speed;    //!< 0.510·(W/S)^¼ m/s, 2.1336–3.048
  double drop_height;   //!< 0.0132·(W/S)^½ m, 0.23368–0.47498
};
RuleLanding landing_by_rule(double mass, double wing_area);

//! Sink speed of a free drop, √(2gh), and back.
double sink_speed_of_drop(double height);
double drop_of_sink_speed(double speed);

//! Mass that stands in for wing lift in a free drop: m·[h + (1−K)·d]/(h + d).
double effective_mass(double mass, double drop_height, double travel, double lift_ratio);
//! The reserve drop: 1.44 times the height with lift equal to weight.
struct Reserve {
  double drop_height, sink_speed, effective_mass;
};
Reserve reserve(double mass, double drop_height, double reserve_travel);

//! Froude's law at 1:s: speeds and times over √s, lengths over s, masses over s³, rates over s².
struct Scaled {
  double sink_speed, drop_height, time, mass, rate;
};
Scaled froude(double denominator, double sink_speed, double drop_height, double time, double mass,
              double rate);

struct StrokeInput {
  double mass;         //!< the mass the leg carries, kg
  double sink_speed;   //!< m/s
  double load_factor;  //!< N, ground load over m·g at the peak
  double lift_ratio;   //!< K
  double strut_efficiency, tyre_efficiency;
  double tyre_deflection;  //!< at the peak load, m
};
struct Stroke {
  double strut_travel;    //!< vertical axle travel needed, m; not below 0
  double balance;         //!< the same, below 0 where the tyre alone takes more than there is
  double peak_load;       //!< N·m·g
  double inertia_factor;  //!< n = N + K
};
//! Energy balance ½mV² + mg(1−K)(S_s + S_t) = η_s·N·m·g·S_s + η_t·N·m·g·S_t. Nothing where η_s·N ≤ 1 − K.
std::optional<Stroke> first_estimate(const StrokeInput& in);

//! The load factor at which a travel just suffices: the root of the same balance, the tyre's squash (m) taken
//! from its load (N). Nothing where none up to 60 does.
std::optional<double> load_factor_for_travel(StrokeInput in, const std::function<double(double)>& squash,
                                             double travel);
//! ... with a linear tyre of that rate.
std::optional<double> load_factor_for_travel(StrokeInput in, double tyre_rate, double travel);

}  // namespace kranich::spring
