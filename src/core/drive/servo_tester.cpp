// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/drive/servo_tester.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace kranich::drive {
namespace {

//! Of the stall torque: what a servo gives that only rests.
constexpr double resting = 0.03;
//! What a servo draws on its way beyond idling, of what it draws stalled.
constexpr double running = 0.15;

double sense(const TestedUnit& u) { return u.fit.turn < 0 ? -1 : 1; }
double angle_at(const TestedUnit& u, double percent) {
  return u.fit.neutral + sense(u) * percent / 100 * u.full_throw;
}
double percent_at(const TestedUnit& u, double angle) {
  return 100 * sense(u) * std::remainder(angle - u.fit.neutral, 2 * std::numbers::pi) / u.full_throw;
}
//! Of the servo, per cent beyond which the unit's stop holds the unit: below it down, above it stowed.
double stop_at(const TestedUnit& u, bool stowed) {
  const double early = stowed ? u.stowed_early : u.down_early;
  const double way = u.linkage.stowed > u.linkage.down ? 1 : -1;
  if (!(early > 0))
    return stowed ? std::numeric_limits<double>::infinity() : -std::numeric_limits<double>::infinity();
  const double unit = stowed ? u.linkage.stowed - way * early : u.linkage.down + way * early;
  return percent_at(u, servo_at(u.linkage, u.fit, unit));
}

}  // namespace

double end_point(const TestedUnit& u, bool stowed) {
  return (stowed ? 50 : -50) * u.fit.throw_all / u.full_throw;
}

double binds_from(const TestedUnit& u, bool stowed) {
  const double stop = stop_at(u, stowed);
  return std::isfinite(stop) ? stop : std::numeric_limits<double>::quiet_NaN();
}

void ServoTester::go(double percent) {
  if (!std::isfinite(percent)) return;
  goal_ = std::clamp(percent, -furthest_sent, furthest_sent);
  on_ = true;
}

void ServoTester::advance(double seconds) {
  if (!on_ || !(seconds > 0)) return;
  const double most = 100 * unit_.speed / unit_.full_throw * seconds;
  at_ += std::clamp(goal_ - at_, -most, most);
}

TestedServo ServoTester::now() const {
  const TestedUnit& u = unit_;
  const double low = stop_at(u, false);
  const double high = stop_at(u, true);
  TestedServo s{at_, 0, 0, on_ && at_ != goal_, false};
  const double free = std::clamp(at_, low, high);
  const double unit = unit_at(u.linkage, u.fit, angle_at(u, free));
  s.unit = std::clamp((unit - u.linkage.down) / (u.linkage.stowed - u.linkage.down), 0.0, 1.0);
  if (!on_) return s;
  s.current = u.idle_current;
  if (free == at_) {
    if (s.moves) s.current += running * (u.stall_current - u.idle_current);
    return s;
  }
  // Stopped: the rod gives by what the servo goes on, as far as its torque reaches.
  const double beyond = std::abs(at_ - free) / 100 * u.full_throw;
  // Towards down the servo turns the other way round.
  ServoFit fit = u.fit;
  if (at_ < free) fit.turn = -fit.turn;
  const Binding b = binding(u.linkage, fit, angle_at(u, free), beyond, u.stiffness, u.stall_torque,
                            u.stall_current, u.idle_current);
  s.percent = free + (at_ > free ? 1 : -1) * 100 * b.goes_on / u.full_throw;
  s.current = b.current;
  s.binds = b.servo_torque > resting * u.stall_torque;
  s.moves = s.moves && b.servo_torque < 0.999 * u.stall_torque;
  return s;
}

}  // namespace kranich::drive
