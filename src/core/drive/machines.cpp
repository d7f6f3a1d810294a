// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/drive/machines.h"

#include <array>
#include <boost/math/quadrature/gauss_kronrod.hpp>
#include <cmath>
#include <limits>
#include <numbers>

#include "core/base/ode.h"
#include "core/drive/load.h"

namespace kranich::drive {

double HydraulicCylinder::area() const { return std::numbers::pi * bore * bore / 4; }
double HydraulicCylinder::rod_area() const { return std::numbers::pi * rod * rod / 4; }
double HydraulicCylinder::push() const { return supply * area() - back * (area() - rod_area()); }
double HydraulicCylinder::pull() const { return supply * (area() - rod_area()) - back * area(); }
double rod_column(double diameter, double length, double modulus) {
  const double inertia = std::numbers::pi * std::pow(diameter, 4) / 64;
  return std::numbers::pi * std::numbers::pi * modulus * inertia / (length * length);
}
double HydraulicCylinder::column_load() const { return rod_column(rod, pinned_length, rod_modulus); }

double least_bore(HydraulicCylinder c, double wanted) {
  if (!(c.supply > c.back)) return std::numeric_limits<double>::quiet_NaN();
  // p·A − p_r·(A − a) = F.
  const double area = (wanted - c.back * c.rod_area()) / (c.supply - c.back);
  return std::max(c.rod, std::sqrt(4 * std::max(0.0, area) / std::numbers::pi));
}

double least_bore_to_pull(HydraulicCylinder c, double wanted) {
  if (!(c.supply > c.back)) return std::numeric_limits<double>::quiet_NaN();
  // p·(A − a) − p_r·A = F.
  const double area = (wanted + c.supply * c.rod_area()) / (c.supply - c.back);
  return std::sqrt(4 * std::max(0.0, area) / std::numbers::pi);
}

MotorRun run_over(const GearedMotor& m, double full, const std::function<double(double)>& resisting,
                  double leg_inertia) {
  MotorRun r{};
  const auto torque = [&](double turn) { return m.motor_torque(resisting(turn)); };
  const Extreme most = largest_over(full, torque);
  r.largest_torque = most.value;
  r.at_turn = most.turn;
  r.stall_margin = m.motor.stall_torque / most.value;
  r.largest_current = m.motor.current_at(most.value);
  r.tooth_load = largest_over(full, resisting).value / m.sector_radius;
  constexpr double never = std::numeric_limits<double>::infinity();
  r.time_steady = r.time_from_rest = r.charge = never;
  if (!(r.stall_margin > 1)) return r;
  r.time_steady = boost::math::quadrature::gauss_kronrod<double, 31>::integrate(
      [&](double turn) { return m.ratio() / m.motor.speed_at(torque(turn)); }, 0.0, full, 8, 1e-11);
  const double inertia = leg_inertia + m.rotor_inertia * m.ratio() * m.ratio() * m.efficiency;
  // Turn, speed, charge over time until the end of the travel.
  using State = std::array<double, 3>;
  const auto step = [&](const State& x, State& dx, double) {
    const double own = m.motor.torque_at(x[1] * m.ratio());
    dx = {x[1], (own * m.ratio() * m.efficiency - resisting(x[0])) / inertia, m.motor.current_at(own)};
  };
  const auto to_go = [full](const State& x) { return std::array{x[0] - full}; };
  Following motion(State{0, 0, 0}, step, to_go, 1e-4, 1e-10, 1e-10);
  const double longest = 100 * r.time_steady + 100;
  int arrives = -1;
  while (arrives < 0 && motion.time() < longest) arrives = motion.step(longest).crossed;
  if (arrives < 0) return r;
  r.time_from_rest = motion.time();
  r.charge = motion.state()[2];
  return r;
}

}  // namespace kranich::drive
