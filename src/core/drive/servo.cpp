// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/drive/servo.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

#include "core/base/numerics.h"

namespace kranich::drive {
namespace {

constexpr double pi = std::numbers::pi;

Eigen::Vector2d polar(double length, double angle) {
  return length * Eigen::Vector2d(std::cos(angle), std::sin(angle));
}
double angle_of(const Eigen::Vector2d& v) { return std::atan2(v.y(), v.x()); }

}  // namespace

Eigen::Vector2d unit_pin(const ServoLinkage& l, double angle) { return l.pivot + polar(l.unit_arm, angle); }

Eigen::Vector2d servo_ball(const ServoLinkage& l, const ServoFit& f, double angle) {
  return l.servo + polar(f.servo_arm, angle);
}

double servo_at(const ServoLinkage& l, const ServoFit& f, double unit_angle) {
  const bool rises = l.stowed > l.down;
  double low = 0;
  double high = 1;
  for (int i = 0; i < 50; ++i) {
    const double middle = (low + high) / 2;
    const double there = unit_at(l, f, f.angle_down + middle * f.turn);
    ((there < unit_angle) == rises ? low : high) = middle;
  }
  return f.angle_down + low * f.turn;
}

double ServoFit::arm_at(double share) const {
  return neutral + (share - 0.5) * std::copysign(throw_all, turn);
}

ServoFit fit_servo(const ServoLinkage& l) {
  const Eigen::Vector2d to_down = unit_pin(l, l.down) - l.servo;
  const Eigen::Vector2d to_stowed = unit_pin(l, l.stowed) - l.servo;
  ServoFit f{};
  f.servo_arm = std::abs(to_stowed.norm() - to_down.norm()) / 2;
  f.rod = (to_stowed.norm() + to_down.norm()) / 2;
  // At the far end the arm points at the pin, at the near end away from it.
  const bool far_is_stowed = to_stowed.norm() > to_down.norm();
  f.angle_down = angle_of(to_down) + (far_is_stowed ? pi : 0);
  f.angle_stowed = angle_of(to_stowed) + (far_is_stowed ? 0 : pi);
  f.turn = std::remainder(f.angle_stowed - f.angle_down, 2 * pi);
  if (l.longer_way) f.turn -= std::copysign(2 * pi, f.turn);
  f.throw_all = std::abs(f.turn) + 2 * l.over_centre;
  f.neutral = std::remainder(f.angle_down + f.turn / 2, 2 * pi);
  return f;
}

bool faces_starboard(const ServoFit& fit, ServoThrow throws) {
  return throws == ServoThrow::both_ways || (throws == ServoThrow::anticlockwise) == (fit.turn > 0);
}

double unit_at(const ServoLinkage& l, const ServoFit& f, double servo_angle) {
  // The unit's pin lies on the rod's circle about the servo arm's ball.
  const Eigen::Vector2d ball = l.servo + polar(f.servo_arm, servo_angle);
  const Eigen::Vector2d to = ball - l.pivot;
  const double c =
      (to.squaredNorm() + l.unit_arm * l.unit_arm - f.rod * f.rod) / (2 * to.norm() * l.unit_arm);
  if (!(std::abs(c) <= 1)) return std::numeric_limits<double>::quiet_NaN();
  const double half = std::acos(c);
  const double middle = (l.down + l.stowed) / 2;
  double best = std::numeric_limits<double>::quiet_NaN();
  for (const double side : {-1.0, 1.0}) {
    // The one that lies on the unit's own way.
    const double angle = middle + std::remainder(angle_of(to) + side * half - middle, 2 * pi);
    if (std::isnan(best) || std::abs(angle - middle) < std::abs(best - middle)) best = angle;
  }
  return best;
}

double rod_arm(const ServoLinkage& l, const ServoFit& f, double unit_angle) {
  const Eigen::Vector2d pin = unit_pin(l, unit_angle);
  const Eigen::Vector2d along = (pin - servo_ball(l, f, servo_at(l, f, unit_angle))).normalized();
  const Eigen::Vector2d arm = pin - l.pivot;
  return std::abs(arm.x() * along.y() - arm.y() * along.x());
}

double between_arm_and_rod(const ServoLinkage& l, const ServoFit& f, double servo_angle) {
  const Eigen::Vector2d arm = polar(f.servo_arm, servo_angle);
  const Eigen::Vector2d rod = unit_pin(l, unit_at(l, f, servo_angle)) - l.servo - arm;
  return std::acos(std::min(1.0, std::abs(arm.dot(rod)) / (arm.norm() * rod.norm())));
}

AtServo hardest_at_servo(const ServoLinkage& l, const ServoFit& f, double full_turn,
                         const std::function<double(double)>& at_leg) {
  const double unit_per_leg = (l.stowed - l.down) / full_turn;
  AtServo most{0, 0};
  constexpr int steps = 60;  // at the dead centres themselves it asks nothing
  for (int i = 1; i < steps; ++i) {
    const double at = f.angle_down + f.turn * i / steps;
    constexpr double h = 1e-4;
    const double rate = (unit_at(l, f, at + h) - unit_at(l, f, at - h)) / (2 * h);
    const double turn = (unit_at(l, f, at) - l.down) / unit_per_leg;
    const double torque = at_leg(turn) * std::abs(rate / unit_per_leg);
    if (torque > most.torque) most = {torque, turn};
  }
  return most;
}

Binding binding(const ServoLinkage& l, const ServoFit& f, double stop_at, double goes_on, double stiffness,
                double stall_torque, double stall_current, double idle_current) {
  // The unit stands; the ball goes on about the servo, and the way between the two differs from the rod.
  const Eigen::Vector2d pin = unit_pin(l, unit_at(l, f, stop_at));
  const double sense = f.turn < 0 ? -1 : 1;
  const auto at = [&](double on) {
    const double angle = stop_at + sense * on;
    const Eigen::Vector2d way = pin - l.servo - polar(f.servo_arm, angle);
    const double sprung = f.rod - way.norm();
    const Eigen::Vector2d goes = sense * polar(f.servo_arm, angle + pi / 2);
    const double rate = way.normalized().dot(goes);  // −d|way|/d(on)
    return std::pair{stiffness * std::abs(sprung), stiffness * sprung * rate};
  };
  // Towards the dead centre its torque rises and falls again: the first place at which it is too much holds
  // it.
  double on = goes_on;
  constexpr int steps = 60;
  const auto too_much = [&](double by) { return std::abs(at(by).second) > stall_torque; };
  for (int i = 1; i <= steps; ++i) {
    if (!too_much(goes_on * i / steps)) continue;
    on = begins_to_hold(too_much, goes_on * (i - 1) / steps, goes_on * i / steps);
    break;
  }
  const auto [force, torque] = at(on);
  const double share = std::abs(torque) / stall_torque;
  return {force, std::abs(torque), idle_current + (stall_current - idle_current) * share, on};
}

}  // namespace kranich::drive
