// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stance/stance.h"

#include <fmt/format.h>

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/base/numerics.h"
#include "core/base/quantity.h"

namespace kranich::stance {
namespace {

//! Attitude and its derivatives: û, ∂û/∂θ, ∂û/∂φ.
struct Attitude {
  Vec3 up, by_pitch, by_roll;
  double reach, reach_by_pitch, reach_by_roll;  //!< n = √(û_x² + û_z²)
  Attitude(double t, double f)
      : up(up_direction(t, f)),
        by_pitch(-std::cos(t), std::sin(t) * std::sin(f), -std::sin(t) * std::cos(f)),
        by_roll(0, -std::cos(t) * std::cos(f), -std::cos(t) * std::sin(f)) {
    reach = std::hypot(up.x(), up.z());
    reach_by_pitch = (up.x() * by_pitch.x() + up.z() * by_pitch.z()) / reach;
    reach_by_roll = (up.x() * by_roll.x() + up.z() * by_roll.z()) / reach;
  }
};

//! Shares the penetration P between leg and tyre so that F_leg(δ) = F·û_z: one monotone equation in δ.
WheelState share(const WheelOnLeg& w, double penetration, double c) {
  WheelState s;
  if (penetration <= 0) return s;
  s.touches = true;
  const auto tyre_force = [&](double leg) { return w.tyre_rate * (penetration - leg * c); };
  double leg = 0;
  const LegLaw& law = w.leg;
  if (law.kind != LegLaw::Kind::rigid && law.travel > 0 && tyre_force(0) * c > law.force(0)) {
    const double most = std::min(law.travel, penetration / c);
    if (law.kind == LegLaw::Kind::linear) {
      leg = std::clamp((w.tyre_rate * penetration * c - law.preload) / (law.rate + w.tyre_rate * c * c), 0.0,
                       law.travel);
    } else if (tyre_force(law.travel) * c >= law.force(law.travel)) {
      leg = law.travel;
    } else {  // Newton from the tyre's side, kept in its bracket by bisection
      double low = 0;
      double high = most;
      leg = 0.5 * (low + high);
      for (int i = 0; i < 60; ++i) {
        const double miss = law.force(leg) - tyre_force(leg) * c;
        (miss > 0 ? high : low) = leg;
        const double next = leg - miss / (law.slope(leg) + w.tyre_rate * c * c);
        if (std::abs(next - leg) <= 1e-15 * law.travel) break;
        leg = (next > low && next < high) ? next : 0.5 * (low + high);
      }
    }
    s.bottomed = leg >= law.travel;
  }
  s.leg_closure = leg;
  s.load = tyre_force(leg);
  s.tyre_closure = s.load / w.tyre_rate;
  return s;
}

using Vector3 = Eigen::Vector3d;

//! The potential energy's gradient over (heave, pitch, roll), and the wheels' states.
struct Balance {
  Vector3 gradient;
  std::vector<WheelState> wheels;
};

Balance balance(double weight, const Vec3& cg, const std::vector<WheelOnLeg>& wheels, const Vector3& q) {
  const Attitude a(q[1], q[2]);
  Balance b;
  b.gradient = weight * Vector3(1, a.by_pitch.dot(cg), a.by_roll.dot(cg));
  b.wheels.reserve(wheels.size());
  for (const auto& w : wheels) {
    const double penetration = w.radius * a.reach - q[0] - a.up.dot(w.axle);
    const WheelState s = share(w, penetration, a.up.z());
    const Vec3 axle = axle_at_rest(w, s);
    b.gradient -= s.load * Vector3(1, a.by_pitch.dot(axle) - w.radius * a.reach_by_pitch,
                                   a.by_roll.dot(axle) - w.radius * a.reach_by_roll);
    b.wheels.push_back(s);
  }
  return b;
}

//! Stiffness by central differences of the gradient.
Mat3 stiffness(double weight, const Vec3& cg, const std::vector<WheelOnLeg>& wheels, const Vector3& q,
               double size) {
  Mat3 k;
  const Vector3 steps(1e-8 * size, 1e-8, 1e-8);
  for (int i = 0; i < 3; ++i) {
    Vector3 plus = q;
    Vector3 minus = q;
    plus[i] += steps[i];
    minus[i] -= steps[i];
    k.col(i) = (balance(weight, cg, wheels, plus).gradient - balance(weight, cg, wheels, minus).gradient) /
               (2 * steps[i]);
  }
  return k;
}

//! Which way a CG outside the wheels' polygon goes over.
NoRest tips_over(const Vec3& cg, const std::vector<WheelOnLeg>& wheels) {
  double front = 1e9;
  double back = -1e9;
  for (const auto& w : wheels) {
    front = std::min(front, w.axle.x());
    back = std::max(back, w.axle.x());
  }
  using T = NoRest::Towards;
  if (cg.x() > back)
    return {T::tail, fmt::format("the CG lies {:.0f} mm behind the rearmost wheels: it sits down on its tail",
                                 1000 * (cg.x() - back))};
  if (cg.x() < front)
    return {T::nose,
            fmt::format("the CG lies {:.0f} mm ahead of the foremost wheels: it goes over on its nose",
                        1000 * (front - cg.x()))};
  double starboard = 0;
  double port = 0;
  for (const auto& w : wheels) {
    starboard = std::max(starboard, w.axle.y());
    port = std::min(port, w.axle.y());
  }
  const double half =
      cg.y() > 0 ? starboard : -port;  // inside this the polygon may still be too narrow at the CG
  if (std::abs(cg.y()) < 0.3 * half) return {T::unclear, "no stable rest was found on these wheels"};
  if (cg.y() > 0)
    return {T::starboard, "the CG lies outside the wheels to starboard: it falls onto that wing"};
  return {T::port, "the CG lies outside the wheels to port: it falls onto that wing"};
}

}  // namespace

Vec3 axle_at_rest(const WheelOnLeg& w, const WheelState& s) { return w.axle + Vec3(0, 0, s.leg_closure); }

std::variant<Rest, NoRest> solve(double mass, const Vec3& cg, const std::vector<WheelOnLeg>& wheels) {
  const double weight = mass * standard_gravity;
  double size = 0.01;
  for (const auto& w : wheels) size = std::max(size, std::abs(w.axle.x() - cg.x()));

  // Start: pitch of the line under the foremost and rearmost wheels, sunk until the springs would carry the
  // weight.
  const auto by_x = [](const WheelOnLeg& a, const WheelOnLeg& b) { return a.axle.x() < b.axle.x(); };
  const auto [front, back] = std::minmax_element(wheels.begin(), wheels.end(), by_x);
  Vector3 q(0, 0, 0);
  if (back->axle.x() - front->axle.x() > 1e-6)
    q[1] = std::atan2((back->axle.z() - back->radius) - (front->axle.z() - front->radius),
                      back->axle.x() - front->axle.x());
  const Attitude start(q[1], 0);
  double low = -1e9;
  for (const auto& w : wheels) low = std::max(low, w.radius * start.reach - start.up.dot(w.axle));
  q[0] = low;
  const auto force_at = [&](double h) {
    return balance(weight, cg, wheels, Vector3(h, q[1], 0)).gradient[0];
  };
  if (const auto h = find_nearest_root(force_at, low, 0.002 * size, low - 3 * size, low)) q[0] = *h;

  const Vector3 scale(weight, weight * size, weight * size);
  const Vector3 metric(size, 1, 1);  // heave counts in lengths of the aircraft, angles in rad
  const auto norm = [&](const Vector3& g) { return g.cwiseQuotient(scale).norm(); };
  Balance now = balance(weight, cg, wheels, q);
  int iterations = 0;
  for (; iterations < 200 && norm(now.gradient) > 1e-14; ++iterations) {
    // Newton on the energy, made a descent where the stiffness is not positive; contacts and stops are kinks,
    // which the line search steps over.
    const Mat3 raw = stiffness(weight, cg, wheels, q, size);
    const Mat3 scaled = metric.asDiagonal() * (raw + raw.transpose()) * 0.5 * metric.asDiagonal();
    const Eigen::SelfAdjointEigenSolver<Mat3> eigen(scaled);
    const Vector3 curvature = eigen.eigenvalues().cwiseMax(1e-3 * weight * size);
    const Vector3 slope = metric.asDiagonal() * now.gradient;
    const Vector3 along =
        -(eigen.eigenvectors() * (eigen.eigenvectors().transpose() * slope).cwiseQuotient(curvature));
    Vector3 step = metric.asDiagonal() * along;
    if (!step.allFinite()) break;
    const double largest = std::max({std::abs(step[0]) / size, std::abs(step[1]), std::abs(step[2])});
    if (largest > 0.2) step *= 0.2 / largest;
    // Line search by the slope along the step: where a softening spring or a contact makes Newton overshoot,
    // the step is cut to where that slope vanishes, so that the energy falls in every step.
    const double slope_here = now.gradient.dot(step);
    Balance next = balance(weight, cg, wheels, q + step);
    double reached = 1;
    double before = 0;
    double beyond = 1;
    for (int i = 0; i < 40 && std::abs(next.gradient.dot(step)) > 0.3 * std::abs(slope_here); ++i) {
      if (next.gradient.dot(step) > 0)
        beyond = reached;
      else if (reached == 1)
        break;
      else
        before = reached;
      reached = (before + beyond) / 2;
      next = balance(weight, cg, wheels, q + reached * step);
    }
    const bool as_good_as_it_gets =
        norm(now.gradient) < 1e-11 && norm(next.gradient) > 0.5 * norm(now.gradient);
    if (as_good_as_it_gets) break;
    q += reached * step;
    now = std::move(next);
    if (std::abs(q[1]) > 1.2 || std::abs(q[2]) > 1.2) break;
  }
  const bool balanced = norm(now.gradient) < 1e-10;
  if (!balanced) return tips_over(cg, wheels);
  const Mat3 k = stiffness(weight, cg, wheels, q, size);
  const Mat3 symmetric = (k + k.transpose()) / 2;
  if (Eigen::SelfAdjointEigenSolver<Mat3>(symmetric).eigenvalues().minCoeff() <= 0)
    return tips_over(cg, wheels);
  return Rest{q[0],      q[1], q[2], now.wheels, std::abs(now.gradient[0]), now.gradient.tail<2>().norm(),
              iterations};
}

std::optional<double> longer_legs_for_pitch(double mass, const Vec3& cg, std::vector<WheelOnLeg> wheels,
                                            const std::vector<int>& which, double target) {
  double size = 0.01;
  for (const auto& w : wheels) size = std::max(size, std::abs(w.axle.x() - cg.x()));
  const auto base = wheels;
  const auto miss = [&](double longer) {
    for (int i : which)
      wheels[static_cast<size_t>(i)].axle.z() = base[static_cast<size_t>(i)].axle.z() - longer;
    const auto rest = solve(mass, cg, wheels);
    const Rest* r = std::get_if<Rest>(&rest);
    return r ? r->pitch - target : std::numeric_limits<double>::quiet_NaN();
  };
  return find_nearest_root(miss, 0, 0.01 * size, -0.5 * size, 0.5 * size);
}

std::optional<double> rate_for_pitch(double mass, const Vec3& cg, std::vector<WheelOnLeg> wheels,
                                     const std::vector<int>& which, double target) {
  const double base = wheels[static_cast<size_t>(which.front())].leg.rate;
  if (!(base > 0)) return std::nullopt;
  const auto miss = [&](double log_factor) {
    for (int i : which) wheels[static_cast<size_t>(i)].leg.rate = base * std::exp(log_factor);
    const auto rest = solve(mass, cg, wheels);
    const Rest* r = std::get_if<Rest>(&rest);
    return r ? r->pitch - target : std::numeric_limits<double>::quiet_NaN();
  };
  const auto found = find_nearest_root(miss, 0, 0.05, std::log(0.02), std::log(50));
  if (!found) return std::nullopt;
  return base * std::exp(*found);
}

std::variant<std::vector<WheelOnLeg>, std::string> wheels_of(const Design& d) {
  const auto make = [&](const Leg& leg, const char* word) -> std::variant<WheelOnLeg, std::string> {
    if (!leg.axle.known()) return fmt::format("place of the {} axle", word);
    if (!leg.wheel.diameter.known()) return fmt::format("{} wheel's diameter", word);
    if (!leg.wheel.tyre_rate.known()) return fmt::format("{} tyre's rate", word);
    const auto law = force::leg_law(leg);
    if (const auto* missing = std::get_if<std::string>(&law))
      return fmt::format("{} leg: {}", word, *missing);
    return WheelOnLeg{leg.axle.vec(), leg.wheel.diameter / 2, leg.wheel.tyre_rate, std::get<LegLaw>(law)};
  };
  const auto third = make(d.gear.third, d.third_word());
  const auto main = make(d.gear.main, "main");
  for (const auto* part : {&third, &main})
    if (const auto* missing = std::get_if<std::string>(part)) return *missing;
  const auto starboard = std::get<WheelOnLeg>(main);
  auto port = starboard;
  port.axle = mirrored(port.axle);
  return std::vector<WheelOnLeg>{std::get<WheelOnLeg>(third), port, starboard};
}

}  // namespace kranich::stance
