// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stance/stance.h"

#include <fmt/format.h>

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/base/numerics.h"
#include "core/base/quantity.h"
#include "core/place/tipping.h"

namespace kranich::stance {
namespace {

using Vector3 = Eigen::Vector3d;

//! The vertical û over pitch and roll, with its first and second derivatives.
struct Vertical {
  Vec3 up, by_pitch, by_roll, pitch_pitch, pitch_roll, roll_roll;
  Vertical(double t, double f) {
    const double st = std::sin(t), ct = std::cos(t), sf = std::sin(f), cf = std::cos(f);
    up = {-st, -ct * sf, ct * cf};
    by_pitch = {-ct, st * sf, -st * cf};
    by_roll = {0, -ct * cf, -ct * sf};
    pitch_pitch = {st, ct * sf, -ct * cf};
    pitch_roll = {0, st * cf, st * sf};
    roll_roll = {0, ct * sf, -ct * cf};
  }
};

//! Tyre squash t = R·n − h − û·r(q) along q alone: what the leg's own search needs.
struct Along {
  double t, by_q, by_qq;
};
Along squash_along(const WheelOnLeg& w, const Vertical& v, double heave, const Suspension::At& at) {
  const double s = v.up.dot(at.wheel);
  const double n2 = 1 - s * s;
  const double n = std::sqrt(n2);
  Along k{w.radius * n - heave - v.up.dot(at.axle), -v.up.dot(at.axle_1), -v.up.dot(at.axle_2)};
  if (w.leg.path != Suspension::Path::straight) {
    const double s_q = v.up.dot(at.wheel_1);
    k.by_q -= w.radius * s * s_q / n;
    k.by_qq -= w.radius * ((s_q * s_q + s * v.up.dot(at.wheel_2)) / n + s * s * s_q * s_q / (n2 * n));
  }
  return k;
}

//! The same over (h, θ, φ) and q.
struct Squash {
  double by_q, by_qq;
  Vector3 by_x;  //!< over h, θ, φ
  Vector3 by_xq;
  Mat3 by_xx;
};

Squash squash(const WheelOnLeg& w, const Vertical& v, const Suspension::At& at) {
  const double s = v.up.dot(at.wheel);
  const double n = std::sqrt(1 - s * s);
  const double s_t = v.by_pitch.dot(at.wheel);
  const double s_f = v.by_roll.dot(at.wheel);
  const double s_q = v.up.dot(at.wheel_1);
  // n = √(1 − s²): first and second derivatives from those of s.
  const auto first = [&](double s_i) { return -s * s_i / n; };
  const auto second = [&](double s_i, double s_j, double s_ij) {
    return -(s_i * s_j + s * s_ij) / n - s * s * s_i * s_j / (n * n * n);
  };
  const double R = w.radius;
  Squash k{};
  k.by_q = R * first(s_q) - v.up.dot(at.axle_1);
  k.by_qq = R * second(s_q, s_q, v.up.dot(at.wheel_2)) - v.up.dot(at.axle_2);
  k.by_x = {-1, R * first(s_t) - v.by_pitch.dot(at.axle), R * first(s_f) - v.by_roll.dot(at.axle)};
  k.by_xq = {0, R * second(s_t, s_q, v.by_pitch.dot(at.wheel_1)) - v.by_pitch.dot(at.axle_1),
             R * second(s_f, s_q, v.by_roll.dot(at.wheel_1)) - v.by_roll.dot(at.axle_1)};
  k.by_xx.setZero();
  k.by_xx(1, 1) = R * second(s_t, s_t, v.pitch_pitch.dot(at.wheel)) - v.pitch_pitch.dot(at.axle);
  k.by_xx(2, 2) = R * second(s_f, s_f, v.roll_roll.dot(at.wheel)) - v.roll_roll.dot(at.axle);
  k.by_xx(1, 2) = k.by_xx(2, 1) =
      R * second(s_t, s_f, v.pitch_roll.dot(at.wheel)) - v.pitch_roll.dot(at.axle);
  return k;
}

//! One wheel settled between leg and tyre: its state, and its part of the gradient and stiffness.
struct Settled {
  WheelState state;
  Vector3 gradient = Vector3::Zero();
  Mat3 stiffness = Mat3::Zero();
};

//! A leg at its two ends, which no attitude changes.
struct Ends {
  Suspension::At extended, at_stop;
};

Settled settle(const WheelOnLeg& w, const Ends& ends, const Vertical& v, double heave, double start) {
  Settled out;
  WheelState& s = out.state;
  auto at = ends.extended;
  Along k = squash_along(w, v, heave, at);
  if (k.t <= 0) return out;
  s.touches = true;
  const double most = w.leg.most;
  double q = 0;
  bool moves = false;  // the leg is somewhere within its travel
  // Force along q still to be taken up: G + F·∂t/∂q rises with q.
  const auto excess = [&] { return at.force + w.tyre.force(k.t) * k.by_q; };
  if (most > 0 && excess() < 0) {
    const auto go = [&](double to) {
      q = to;
      at = w.leg.at(q);
      k = squash_along(w, v, heave, at);
    };
    q = most;
    at = ends.at_stop;
    k = squash_along(w, v, heave, at);
    if (excess() <= 0) {
      s.bottomed = true;
    } else {
      moves = true;
      double low = 0;
      double high = most;
      go(start > 0 && start < most ? start : 0.5 * most);
      for (int i = 0; i < 80; ++i) {
        const double miss = excess();
        (miss > 0 ? high : low) = q;
        const double slope = at.slope + w.tyre.slope(k.t) * k.by_q * k.by_q + w.tyre.force(k.t) * k.by_qq;
        double next = slope > 0 && k.t > 0 ? q - miss / slope : 0.5 * (low + high);
        if (!(next > low && next < high)) next = 0.5 * (low + high);
        if (std::abs(next - q) <= 1e-14 * most || high - low <= 1e-15 * most) break;
        go(next);
      }
    }
  }
  s.coordinate = q;
  s.leg_closure = at.axle.z() - w.leg.axle.z();
  s.tyre_closure = std::max(0.0, k.t);
  s.load = w.tyre.force(s.tyre_closure);
  const double rate = w.tyre.slope(s.tyre_closure);
  const Squash over = squash(w, v, at);
  out.gradient = s.load * over.by_x;
  out.stiffness = rate * over.by_x * over.by_x.transpose() + s.load * over.by_xx;
  if (moves) {
    const Vector3 across = rate * over.by_q * over.by_x + s.load * over.by_xq;
    const double along = at.slope + rate * over.by_q * over.by_q + s.load * over.by_qq;
    if (along > 0) out.stiffness -= across * across.transpose() / along;
  }
  return out;
}

struct Balance {
  Vector3 gradient;
  Mat3 stiffness;
};

//! The potential energy's gradient and stiffness over (heave, pitch, roll); the wheels' states are the start
//! of the legs' own search and come back renewed.
Balance balance(double weight, const Vec3& cg, const std::vector<WheelOnLeg>& wheels,
                const std::vector<Ends>& ends, const Vector3& x, std::vector<WheelState>& states) {
  const Vertical v(x[1], x[2]);
  Balance b;
  b.gradient = weight * Vector3(1, v.by_pitch.dot(cg), v.by_roll.dot(cg));
  b.stiffness.setZero();
  b.stiffness(1, 1) = weight * v.pitch_pitch.dot(cg);
  b.stiffness(2, 2) = weight * v.roll_roll.dot(cg);
  b.stiffness(1, 2) = b.stiffness(2, 1) = weight * v.pitch_roll.dot(cg);
  for (size_t i = 0; i < wheels.size(); ++i) {
    const Settled s = settle(wheels[i], ends[i], v, x[0], states[i].coordinate);
    b.gradient += s.gradient;
    b.stiffness += s.stiffness;
    states[i] = s.state;
  }
  return b;
}

//! Which way a CG outside the wheels' polygon goes over.
NoRest tips_over(const Vec3& cg, const std::vector<WheelOnLeg>& wheels) {
  using T = NoRest::Towards;
  std::vector<place::Vec2> contacts;
  for (const auto& w : wheels) contacts.emplace_back(w.leg.axle.x(), w.leg.axle.y());
  const auto polygon = place::support_polygon(contacts);
  if (polygon.size() < 3) return {T::unclear, "the wheels stand in one line"};
  const auto edge = place::nearest_edge(polygon, {cg.x(), cg.y()});
  const double by = -1000 * edge.distance;
  if (by < 0)
    return {T::unclear,
            "the CG stands inside the wheels, but so high or on such soft legs that it falls over"};
  if (std::abs(edge.outward.x()) >= std::abs(edge.outward.y())) {
    if (edge.outward.x() > 0)
      return {T::tail,
              fmt::format("the CG lies {:.0f} mm behind the rearmost wheels: it sits down on its tail", by)};
    return {T::nose,
            fmt::format("the CG lies {:.0f} mm ahead of the foremost wheels: it goes over on its nose", by)};
  }
  const bool starboard = edge.outward.y() > 0;
  return {starboard ? T::starboard : T::port,
          fmt::format("the CG lies {:.0f} mm outside the wheels to {}: it falls onto that wing", by,
                      starboard ? "starboard" : "port")};
}

//! Pitch of the line under the foremost and rearmost wheels, and the heave at which the lowest one just
//! bears.
Vector3 rigid_start(const std::vector<WheelOnLeg>& wheels, double weight) {
  const auto by_x = [](const WheelOnLeg& a, const WheelOnLeg& b) { return a.leg.axle.x() < b.leg.axle.x(); };
  const auto [front, back] = std::minmax_element(wheels.begin(), wheels.end(), by_x);
  Vector3 x(0, 0, 0);
  const double base = back->leg.axle.x() - front->leg.axle.x();
  if (base > 1e-6)
    x[1] = std::atan2((back->leg.axle.z() - back->radius) - (front->leg.axle.z() - front->radius), base);
  const Vertical v(x[1], 0);
  const double reach = std::hypot(v.up.x(), v.up.z());
  double low = -1e9;
  double rates = 0;
  for (const auto& w : wheels) {
    low = std::max(low, w.radius * reach - v.up.dot(w.leg.axle));
    rates += w.tyre.rate;
  }
  x[0] = low - weight / rates;
  return x;
}

}  // namespace

Vec3 axle_at_rest(const WheelOnLeg& w, const WheelState& s) { return w.leg.at(s.coordinate).axle; }

WheelSetting wheel_setting(const WheelOnLeg& w, double q, double radius, double outboard) {
  const auto at = w.leg.at(q);
  // The axle's direction outboard: camber tips its outer end down, toe-in swings it ahead.
  const Vec3 out = at.wheel.y() * outboard > 0 ? at.wheel : Vec3(-at.wheel);
  const double camber = std::asin(std::clamp(-out.z(), -1.0, 1.0));
  const double toe = std::atan2(-out.x(), std::abs(out.y()));
  return {at.axle.y() - outboard * radius * std::tan(camber), camber, toe};
}

std::variant<Rest, NoRest> solve(double mass, const Vec3& cg, const std::vector<WheelOnLeg>& wheels,
                                 const Rest* near) {
  const double weight = mass * standard_gravity;
  double size = 0.01;
  for (const auto& w : wheels) size = std::max(size, std::abs(w.leg.axle.x() - cg.x()));

  std::vector<Ends> ends;
  ends.reserve(wheels.size());
  for (const auto& w : wheels) ends.push_back({w.leg.at(0), w.leg.at(w.leg.most)});
  std::vector<WheelState> states(wheels.size());
  Vector3 x = rigid_start(wheels, weight);
  if (near && near->wheels.size() == wheels.size()) {
    x = {near->heave, near->pitch, near->roll};
    states = near->wheels;
  }
  const Vector3 scale(weight, weight * size, weight * size);
  const Vector3 metric(size, 1, 1);  // heave counts in lengths of the aircraft, angles in rad
  const auto norm = [&](const Vector3& g) { return g.cwiseQuotient(scale).norm(); };
  Balance now = balance(weight, cg, wheels, ends, x, states);
  std::vector<WheelState> tried = states;
  int iterations = 0;
  for (; iterations < 200 && norm(now.gradient) > 1e-12; ++iterations) {
    // Newton on the energy, made a descent where the stiffness is not positive; contacts and stops are kinks,
    // which the line search steps over.
    const Mat3 scaled = metric.asDiagonal() * now.stiffness * metric.asDiagonal();
    const Vector3 slope = metric.asDiagonal() * now.gradient;
    Vector3 along;
    const double floor = 1e-3 * weight * size;
    const Eigen::LLT<Mat3> factor(scaled - floor * Mat3::Identity());
    if (factor.info() == Eigen::Success) {
      along = -scaled.llt().solve(slope);
    } else {
      const Eigen::SelfAdjointEigenSolver<Mat3> eigen(scaled);
      const Vector3 curvature = eigen.eigenvalues().cwiseMax(floor);
      along = -(eigen.eigenvectors() * (eigen.eigenvectors().transpose() * slope).cwiseQuotient(curvature));
    }
    Vector3 step = metric.asDiagonal() * along;
    if (!step.allFinite()) break;
    const double largest = std::max({std::abs(step[0]) / size, std::abs(step[1]), std::abs(step[2])});
    if (largest > 0.2) step *= 0.2 / largest;
    // Line search by the slope along the step: where a softening spring or a contact makes Newton overshoot,
    // the step is cut to where that slope vanishes, so that the energy falls in every step.
    const double slope_here = now.gradient.dot(step);
    tried = states;
    Balance next = balance(weight, cg, wheels, ends, x + step, tried);
    double reached = 1;
    double before = 0;
    double beyond = 1;
    for (int i = 0; i < 40 && !(std::abs(next.gradient.dot(step)) <= 0.3 * std::abs(slope_here)); ++i) {
      if (!(next.gradient.dot(step) <= 0))  // beyond the lowest place, or a tyre past its rim
        beyond = reached;
      else if (reached == 1)
        break;
      else
        before = reached;
      reached = (before + beyond) / 2;
      next = balance(weight, cg, wheels, ends, x + reached * step, tried);
    }
    const bool as_good_as_it_gets =
        norm(now.gradient) < 1e-11 && norm(next.gradient) > 0.5 * norm(now.gradient);
    if (as_good_as_it_gets) break;
    x += reached * step;
    now = next;
    std::swap(states, tried);
    if (std::abs(x[1]) > 1.2 || std::abs(x[2]) > 1.2) break;
  }
  const bool balanced = norm(now.gradient) < 1e-10;
  if (!balanced && near) return solve(mass, cg, wheels);
  if (!balanced) return tips_over(cg, wheels);
  if (Eigen::SelfAdjointEigenSolver<Mat3>(now.stiffness, Eigen::EigenvaluesOnly).eigenvalues().minCoeff() <=
      0)
    return tips_over(cg, wheels);
  return Rest{
      x[0],      x[1], x[2], std::move(states), std::abs(now.gradient[0]), now.gradient.tail<2>().norm(),
      iterations};
}

std::optional<double> longer_legs_for_pitch(double mass, const Vec3& cg, std::vector<WheelOnLeg> wheels,
                                            const std::vector<int>& which, double target) {
  double size = 0.01;
  for (const auto& w : wheels) size = std::max(size, std::abs(w.leg.axle.x() - cg.x()));
  const auto base = wheels;
  const auto miss = [&](double longer) {
    for (int i : which) {
      auto& leg = wheels[static_cast<size_t>(i)].leg;
      leg = base[static_cast<size_t>(i)].leg;
      for (Vec3* p : {&leg.axle, &leg.hinge, &leg.anchor_airframe, &leg.anchor_leg}) p->z() -= longer;
    }
    const auto rest = solve(mass, cg, wheels);
    const Rest* r = std::get_if<Rest>(&rest);
    return r ? r->pitch - target : std::numeric_limits<double>::quiet_NaN();
  };
  return find_nearest_root(miss, 0, 0.01 * size, -0.5 * size, 0.5 * size);
}

std::optional<double> rate_for_pitch(double mass, const Vec3& cg, std::vector<WheelOnLeg> wheels,
                                     const std::vector<int>& which, double target) {
  const double base = wheels[static_cast<size_t>(which.front())].leg.law.rate;
  if (!(base > 0)) return std::nullopt;
  const auto miss = [&](double log_factor) {
    for (int i : which) wheels[static_cast<size_t>(i)].leg.law.rate = base * std::exp(log_factor);
    const auto rest = solve(mass, cg, wheels);
    const Rest* r = std::get_if<Rest>(&rest);
    return r ? r->pitch - target : std::numeric_limits<double>::quiet_NaN();
  };
  const auto found = find_nearest_root(miss, 0, 0.05, std::log(0.02), std::log(50));
  if (!found) return std::nullopt;
  return base * std::exp(*found);
}

std::optional<Splay> splay(double offset, double length, double cant, double rate, double load) {
  const auto turn =
      find_nearest_root([&](double phi) { return rate * phi - load * length * std::sin(cant + phi); }, 0,
                        0.01, 0, std::numbers::pi / 2 - cant);
  if (!turn) return std::nullopt;
  const double after = cant + *turn;
  return Splay{*turn, 2 * (offset + length * std::sin(cant)), 2 * (offset + length * std::sin(after)),
               length * (std::cos(cant) - std::cos(after)), -*turn};
}

std::variant<std::vector<WheelOnLeg>, std::string> wheels_of(const Design& d) {
  const auto make = [&](const Leg& leg, const char* word) -> std::variant<WheelOnLeg, std::string> {
    if (!leg.axle.known()) return fmt::format("place of the {} axle", word);
    if (!leg.wheel.diameter.known()) return fmt::format("{} wheel's diameter", word);
    const auto tyre = force::tyre_law(leg.wheel);
    if (const auto* missing = std::get_if<std::string>(&tyre))
      return fmt::format("{} wheel: {}", word, *missing);
    auto leg_and_path = force::suspension_of(leg, d.materials);
    if (const auto* missing = std::get_if<std::string>(&leg_and_path))
      return fmt::format("{} leg: {}", word, *missing);
    return WheelOnLeg{std::get<Suspension>(std::move(leg_and_path)), leg.wheel.diameter / 2,
                      std::get<TyreLaw>(tyre)};
  };
  const auto third = make(d.gear.third, d.third_word());
  const auto main = make(d.gear.main, d.gear.unlinked ? "starboard main" : "main");
  const auto port = d.gear.unlinked ? make(d.gear.port, "port main") : main;
  for (const auto* part : {&third, &main, &port})
    if (const auto* missing = std::get_if<std::string>(part)) return *missing;
  auto twin = std::get<WheelOnLeg>(port);
  twin.leg = force::mirrored(twin.leg);
  return std::vector<WheelOnLeg>{std::get<WheelOnLeg>(third), std::move(twin), std::get<WheelOnLeg>(main)};
}

}  // namespace kranich::stance
