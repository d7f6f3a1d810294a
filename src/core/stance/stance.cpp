// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stance/stance.h"

#include <fmt/format.h>

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/base/numerics.h"
#include "core/base/quantity.h"
#include "core/model/lacking.h"
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
Along squash_along(const WheelOnLeg& w, const Vertical& v, double heave, const Suspension::At& at,
                   double offset) {
  const double s = v.up.dot(at.wheel);
  const double n2 = 1 - s * s;
  const double n = std::sqrt(n2);
  // The wheel's middle lies `offset` along the axle, and turns with it.
  Along k{w.radius * n - heave - v.up.dot(at.axle) - offset * s, -v.up.dot(at.axle_1), -v.up.dot(at.axle_2)};
  if (w.leg.path != Suspension::Path::straight) {
    const double s_q = v.up.dot(at.wheel_1);
    const double s_qq = v.up.dot(at.wheel_2);
    k.by_q -= w.radius * s * s_q / n + offset * s_q;
    k.by_qq -= w.radius * ((s_q * s_q + s * s_qq) / n + s * s * s_q * s_q / (n2 * n)) + offset * s_qq;
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

Squash squash(const WheelOnLeg& w, const Vertical& v, const Suspension::At& at, double offset) {
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
  const Vec3 r = at.axle + offset * at.wheel;
  const Vec3 r_1 = at.axle_1 + offset * at.wheel_1;
  const Vec3 r_2 = at.axle_2 + offset * at.wheel_2;
  k.by_q = R * first(s_q) - v.up.dot(r_1);
  k.by_qq = R * second(s_q, s_q, v.up.dot(at.wheel_2)) - v.up.dot(r_2);
  k.by_x = {-1, R * first(s_t) - v.by_pitch.dot(r), R * first(s_f) - v.by_roll.dot(r)};
  k.by_xq = {0, R * second(s_t, s_q, v.by_pitch.dot(at.wheel_1)) - v.by_pitch.dot(r_1),
             R * second(s_f, s_q, v.by_roll.dot(at.wheel_1)) - v.by_roll.dot(r_1)};
  k.by_xx.setZero();
  k.by_xx(1, 1) = R * second(s_t, s_t, v.pitch_pitch.dot(at.wheel)) - v.pitch_pitch.dot(r);
  k.by_xx(2, 2) = R * second(s_f, s_f, v.roll_roll.dot(at.wheel)) - v.roll_roll.dot(r);
  k.by_xx(1, 2) = k.by_xx(2, 1) = R * second(s_t, s_f, v.pitch_roll.dot(at.wheel)) - v.pitch_roll.dot(r);
  return k;
}

//! One wheel settled between leg and tyre: its state, and its part of the gradient and stiffness.
struct Settled {
  WheelState state;
  Vector3 gradient = Vector3::Zero();
  Mat3 stiffness = Mat3::Zero();
  double energy = 0;  //!< in leg and tyres
};

//! A leg at its two ends, which no attitude changes.
struct Ends {
  Suspension::At extended, at_stop;
};

Settled settle(const WheelOnLeg& w, const Ends& ends, const Vertical& v, double heave, double start) {
  Settled out;
  WheelState& s = out.state;
  auto at = ends.extended;
  const int tyres = w.tyres();
  std::array<Along, 2> k{};
  const auto look = [&] {
    for (int i = 0; i < tyres; ++i) k[static_cast<size_t>(i)] = squash_along(w, v, heave, at, w.offset(i));
  };
  look();
  const double deepest = tyres == 2 ? std::max(k[0].t, k[1].t) : k[0].t;
  s.gap = std::max(0.0, -deepest);
  if (deepest <= 0) return out;
  s.touches = true;
  const double most = w.leg.most;
  double q = 0;
  bool moves = false;  // the leg is somewhere within its travel
  // Force along q still to be taken up: G + Σ F·∂t/∂q rises with q.
  const auto excess = [&] {
    double sum = at.force;
    for (int i = 0; i < tyres; ++i) {
      const Along& a = k[static_cast<size_t>(i)];
      sum += w.tyre.force(a.t) * a.by_q;
    }
    return sum;
  };
  if (most > 0 && excess() < 0) {
    const auto go = [&](double to) {
      q = to;
      at = w.leg.at(q);
      look();
    };
    q = most;
    at = ends.at_stop;
    look();
    if (excess() <= 0) {
      s.bottomed = true;
    } else {
      moves = true;
      double low = 0;
      double high = most;
      go(start > 0 && start < most ? start : 0.5 * most);
      for (int n = 0; n < 80; ++n) {
        const double miss = excess();
        (miss > 0 ? high : low) = q;
        double slope = at.slope;
        bool presses = false;
        for (int i = 0; i < tyres; ++i) {
          const Along& a = k[static_cast<size_t>(i)];
          if (a.t <= 0) continue;
          presses = true;
          slope += w.tyre.slope(a.t) * a.by_q * a.by_q + w.tyre.force(a.t) * a.by_qq;
        }
        double next = slope > 0 && presses ? q - miss / slope : 0.5 * (low + high);
        if (!(next > low && next < high)) next = 0.5 * (low + high);
        if (std::abs(next - q) <= 1e-14 * most || high - low <= 1e-15 * most) break;
        go(next);
      }
    }
  }
  s.coordinate = q;
  s.leg_closure = at.axle.z() - w.leg.axle.z();
  out.energy = q > 0 ? w.leg.energy(q) : 0;
  Vector3 across = Vector3::Zero();
  double along = at.slope;
  for (int i = 0; i < tyres; ++i) {
    TyreState& tyre = s.tyre[static_cast<size_t>(i)];
    tyre.closure = std::max(0.0, k[static_cast<size_t>(i)].t);
    tyre.load = w.tyre.force(tyre.closure);
    s.tyre_closure += tyre.closure / tyres;
    s.load += tyre.load;
    out.energy += w.tyre.energy(tyre.closure);
    if (tyre.closure <= 0) continue;
    const double rate = w.tyre.slope(tyre.closure);
    const Squash over = squash(w, v, at, w.offset(i));
    out.gradient += tyre.load * over.by_x;
    out.stiffness += rate * over.by_x * over.by_x.transpose() + tyre.load * over.by_xx;
    across += rate * over.by_q * over.by_x + tyre.load * over.by_xq;
    along += rate * over.by_q * over.by_q + tyre.load * over.by_qq;
  }
  if (moves && along > 0) out.stiffness -= across * across.transpose() / along;
  return out;
}

struct Balance {
  Vector3 gradient;
  Mat3 stiffness;
  double energy;
};

//! The potential energy's gradient and stiffness over (heave, pitch, roll); the wheels' states are the start
//! of the legs' own search and come back renewed.
Balance balance(double weight, const Vec3& cg, const std::vector<WheelOnLeg>& wheels,
                const std::vector<Ends>& ends, const Vector3& x, std::vector<WheelState>& states,
                double roll_moment = 0) {
  const Vertical v(x[1], x[2]);
  Balance b;
  b.energy = weight * (x[0] + v.up.dot(cg)) - roll_moment * x[2];
  b.gradient = weight * Vector3(1, v.by_pitch.dot(cg), v.by_roll.dot(cg)) - Vector3(0, 0, roll_moment);
  b.stiffness.setZero();
  b.stiffness(1, 1) = weight * v.pitch_pitch.dot(cg);
  b.stiffness(2, 2) = weight * v.roll_roll.dot(cg);
  b.stiffness(1, 2) = b.stiffness(2, 1) = weight * v.pitch_roll.dot(cg);
  for (size_t i = 0; i < wheels.size(); ++i) {
    const Settled s = settle(wheels[i], ends[i], v, x[0], states[i].coordinate);
    b.gradient += s.gradient;
    b.stiffness += s.stiffness;
    b.energy += s.energy;
    states[i] = s.state;
  }
  return b;
}

//! How far the CG lies beyond the contacts of the rear (or front) end along the ground, that end's legs at
//! their stops and the other's extended, m; negative: inside.
double cg_beyond_sunk_end(const Vec3& cg, const std::vector<WheelOnLeg>& wheels, bool rear) {
  struct End {
    Vec3 contact{0, 0, 0};
    int count = 0;
  };
  End sunk, other;
  for (const auto& w : wheels) {
    const bool here = (w.leg.axle.x() > cg.x()) == rear;
    End& end = here ? sunk : other;
    end.contact += w.leg.at(here ? w.leg.most : 0).axle - Vec3(0, 0, w.radius);
    ++end.count;
  }
  if (sunk.count == 0 || other.count == 0) return -1;
  sunk.contact /= sunk.count;
  other.contact /= other.count;
  const Vec3 line = sunk.contact - other.contact;
  const Vec3 outward = Vec3(line.x(), 0, line.z()).normalized();
  return outward.dot(cg - sunk.contact);
}

//! Which way a CG outside the wheels' polygon goes over.
NoRest tips_over(const Vec3& cg, const std::vector<WheelOnLeg>& wheels) {
  using T = NoRest::Towards;
  std::vector<place::Vec2> contacts;
  for (const auto& w : wheels)
    for (int i = 0; i < w.tyres(); ++i) contacts.emplace_back(w.leg.axle.x(), w.leg.axle.y() + w.offset(i));
  const auto polygon = place::support_polygon(contacts);
  if (polygon.size() < 3) return {T::unclear, "the wheels stand in one line"};
  const auto edge = place::nearest_edge(polygon, {cg.x(), cg.y()});
  const double by = -edge.distance;
  if (by < 0) {
    // Inside as long as the legs stand out: at one end they may go down to their stops, and the CG goes
    // beyond.
    for (const bool rear : {true, false})
      if (const double beyond = cg_beyond_sunk_end(cg, wheels, rear); beyond > 0)
        return {
            rear ? T::tail : T::nose,
            rear ? say("the rear legs sink to their stops, and the CG then lies {} behind their wheels: it "
                       "sits down on its tail",
                       Amount{beyond, Kind::length})
                 : say("the front legs sink to their stops, and the CG then lies {} ahead of their "
                       "wheels: it goes over on its nose",
                       Amount{beyond, Kind::length})};
    return {T::unclear,
            "the CG stands inside the wheels, but so high or on such soft legs that it falls over sideways"};
  }
  if (std::abs(edge.outward.x()) >= std::abs(edge.outward.y())) {
    if (edge.outward.x() > 0)
      return {T::tail, say("the CG lies {} behind the rearmost wheels: it sits down on its tail",
                           Amount{by, Kind::length})};
    return {T::nose, say("the CG lies {} ahead of the foremost wheels: it goes over on its nose",
                         Amount{by, Kind::length})};
  }
  const bool starboard = edge.outward.y() > 0;
  return {starboard ? T::starboard : T::port,
          starboard ? say("the CG lies {} outside the wheels to starboard: it falls onto that wing",
                          Amount{by, Kind::length})
                    : say("the CG lies {} outside the wheels to port: it falls onto that wing",
                          Amount{by, Kind::length})};
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
    rates += w.tyres() * w.tyre.rate;
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

namespace {

//! What is solved for: all three, or some of them held where they are.
struct Search {
  bool hold_pitch = false, hold_roll = false;
  double weight = 0;       //!< N, what the wheels carry in all
  double roll_moment = 0;  //!< N·m, starboard-down, from outside
};

//! Where a search ended: in balance, stable or not.
struct Found {
  Rest rest;
  Mat3 stiffness;
  bool stable;
};

//! A balance from a start: heave, pitch, roll and the legs' coordinates. Nothing where the search does not
//! end in one.
std::optional<Found> search(const Search& how, const Vec3& cg, const std::vector<WheelOnLeg>& wheels,
                            Vector3 x, std::vector<WheelState> states) {
  const double weight = how.weight;
  double size = 0.01;
  for (const auto& w : wheels) size = std::max(size, std::abs(w.leg.axle.x() - cg.x()));

  std::vector<Ends> ends;
  ends.reserve(wheels.size());
  for (const auto& w : wheels) ends.push_back({w.leg.at(0), w.leg.at(w.leg.most)});
  const Vector3 scale(weight, weight * size, weight * size);
  const Vector3 metric(size, 1, 1);  // heave counts in lengths of the aircraft, angles in rad
  const auto norm = [&](const Vector3& g) { return g.cwiseQuotient(scale).norm(); };
  // What is held takes no part: no slope along it, and a stiffness that keeps it where it is.
  const auto look = [&](const Vector3& at, std::vector<WheelState>& wheel_states) {
    Balance b = balance(weight, cg, wheels, ends, at, wheel_states, how.roll_moment);
    for (const auto& [held, k] : {std::pair{how.hold_pitch, 1}, {how.hold_roll, 2}}) {
      if (!held) continue;
      b.gradient[k] = 0;
      b.stiffness.row(k).setZero();
      b.stiffness.col(k).setZero();
      b.stiffness(k, k) = weight * size;
    }
    return b;
  };
  Balance now = look(x, states);
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
    Balance next = look(x + step, tried);
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
      next = look(x + reached * step, tried);
    }
    const bool as_good_as_it_gets =
        norm(now.gradient) < 1e-11 && norm(next.gradient) > 0.5 * norm(now.gradient);
    if (as_good_as_it_gets) break;
    x += reached * step;
    now = next;
    std::swap(states, tried);
    if (std::abs(x[1]) > 1.2 || std::abs(x[2]) > 1.2) break;
  }
  if (!(norm(now.gradient) < 1e-10)) return std::nullopt;
  const bool stable =
      Eigen::SelfAdjointEigenSolver<Mat3>(now.stiffness, Eigen::EigenvaluesOnly).eigenvalues().minCoeff() > 0;
  return Found{{x[0], x[1], x[2], std::move(states), std::abs(now.gradient[0]), now.gradient.tail<2>().norm(),
                iterations, now.energy},
               now.stiffness,
               stable};
}

//! A stable rest from a start.
std::optional<Rest> rest_from(double mass, const Vec3& cg, const std::vector<WheelOnLeg>& wheels,
                              const Vector3& x, std::vector<WheelState> states, double weight_share = 1,
                              double roll_moment = 0) {
  Search how;
  how.weight = mass * standard_gravity * weight_share;
  how.roll_moment = roll_moment;
  auto found = search(how, cg, wheels, x, std::move(states));
  if (!found || !found->stable) return std::nullopt;
  return std::move(found->rest);
}

//! Held at roll 0, and where `pitch` is given at that pitch.
std::optional<Held> held(double weight, const Vec3& cg, const std::vector<WheelOnLeg>& wheels,
                         const std::optional<double>& pitch) {
  Search how;
  how.weight = weight;
  how.hold_roll = true;
  how.hold_pitch = pitch.has_value();
  Vector3 x = rigid_start(wheels, weight);
  if (pitch) {
    // The lowest wheel just bears.
    x[1] = *pitch;
    const Vertical v(x[1], 0);
    double low = -1e9;
    for (const auto& w : wheels)
      low = std::max(low, w.radius * std::hypot(v.up.x(), v.up.z()) - v.up.dot(w.leg.axle));
    x[0] = low - 1e-4 * std::abs(low);
  }
  auto found = search(how, cg, wheels, x, std::vector<WheelState>(wheels.size()));
  if (!found) return std::nullopt;
  std::vector<Ends> ends;
  for (const auto& w : wheels) ends.push_back({w.leg.at(0), w.leg.at(w.leg.most)});
  const Vector3 at(found->rest.heave, found->rest.pitch, found->rest.roll);
  std::vector<WheelState> states = found->rest.wheels;
  const Balance b = balance(weight, cg, wheels, ends, at, states);
  Held h{};
  h.heave = at[0];
  h.pitch = at[1];
  h.cg_height = at[0] + Vertical(at[1], at[2]).up.dot(cg);
  h.pitch_moment = pitch ? b.gradient[1] : 0;
  h.roll_moment = b.gradient[2];
  // What is free gives way: the roll's own stiffness less what heave (and pitch) take of it.
  const int free = pitch ? 1 : 2;
  const Eigen::VectorXd across = b.stiffness.col(2).head(free);
  h.roll_stiffness =
      b.stiffness(2, 2) - across.dot(b.stiffness.topLeftCorner(free, free).ldlt().solve(across));
  h.wheels = std::move(states);
  return h;
}

//! Roll at which the wheels furthest out to a side would bear with those nearest the centre line.
double lean_to(const std::vector<WheelOnLeg>& wheels, double side) {
  double lean = 0.03;
  double low = 1e9;
  double out = 0;
  for (const auto& w : wheels) low = std::min(low, w.leg.axle.z() - w.radius);
  for (const auto& w : wheels)
    if (side * w.leg.axle.y() > out) {
      out = side * w.leg.axle.y();
      lean = std::atan2(w.leg.axle.z() - w.radius - low, out);
    }
  return side * std::clamp(lean, 0.01, 0.5);
}

}  // namespace

int Rest::standing() const {
  return static_cast<int>(
      std::count_if(wheels.begin(), wheels.end(), [](const WheelState& w) { return w.touches; }));
}

std::variant<Rest, NoRest> solve(double mass, const Vec3& cg, const std::vector<WheelOnLeg>& wheels,
                                 const Rest* near) {
  if (near && near->wheels.size() == wheels.size())
    if (auto rest = rest_from(mass, cg, wheels, {near->heave, near->pitch, near->roll}, near->wheels))
      return std::move(*rest);
  const Vector3 start = rigid_start(wheels, mass * standard_gravity);
  if (auto rest = rest_from(mass, cg, wheels, start, std::vector<WheelState>(wheels.size()))) {
    // On wheels to both sides there is no other way to stand; on one line of them it may lie to either side.
    bool port = false;
    bool starboard = false;
    for (size_t i = 0; i < wheels.size(); ++i) {
      port = port || (rest->wheels[i].touches && wheels[i].leg.axle.y() < -1e-6);
      starboard = starboard || (rest->wheels[i].touches && wheels[i].leg.axle.y() > 1e-6);
    }
    if (port && starboard) return std::move(*rest);
  }
  auto rests = stable_rests(mass, cg, wheels);
  if (rests.empty()) return tips_over(cg, wheels);
  return std::move(rests.front());
}

std::variant<Rest, NoRest> solve_leaning(double mass, const Vec3& cg, const std::vector<WheelOnLeg>& wheels,
                                         const SideLoad& load) {
  const double along = mass * standard_gravity * (load.acceleration + std::sin(load.slope));
  const double share = std::cos(load.slope);
  const Vector3 level = rigid_start(wheels, mass * standard_gravity * share);
  const double towards = along + load.wind >= 0 ? 1 : -1;
  for (const double roll : {0.0, lean_to(wheels, towards)}) {
    Vector3 x = level;
    x[2] = roll;
    std::vector<WheelState> states(wheels.size());
    // The moment goes with the heights, which go with the rest: solved with it held, until it stays.
    double moment = 0;
    for (int i = 0; i < 60; ++i) {
      const Vertical v(x[1], x[2]);
      const double next =
          std::cos(x[1]) * (along * (x[0] + v.up.dot(cg)) + load.wind * (x[0] + v.up.dot(load.wind_at)));
      auto rest = rest_from(mass, cg, wheels, x, states, share, next);
      if (!rest) break;
      x = {rest->heave, rest->pitch, rest->roll};
      states = rest->wheels;
      if (i > 0 && std::abs(next - moment) <= 1e-12 * mass * standard_gravity) return std::move(*rest);
      moment = next;
    }
  }
  return tips_over(cg, wheels);
}

std::optional<Held> held_upright(double mass, const Vec3& cg, const std::vector<WheelOnLeg>& wheels) {
  return held(mass * standard_gravity, cg, wheels, std::nullopt);
}

std::optional<Held> held_at_pitch(double mass, const Vec3& cg, const std::vector<WheelOnLeg>& wheels,
                                  double pitch, double lift) {
  return held(mass * standard_gravity - lift, cg, wheels, pitch);
}

std::vector<Rest> stable_rests(double mass, const Vec3& cg, const std::vector<WheelOnLeg>& wheels) {
  std::vector<Rest> rests;
  const Vector3 level = rigid_start(wheels, mass * standard_gravity);
  for (const double roll : {0.0, lean_to(wheels, +1), lean_to(wheels, -1)}) {
    Vector3 start = level;
    start[2] = roll;
    auto rest = rest_from(mass, cg, wheels, start, std::vector<WheelState>(wheels.size()));
    if (!rest) continue;
    const bool known = std::any_of(rests.begin(), rests.end(), [&](const Rest& r) {
      return std::abs(r.roll - rest->roll) < 1e-6 && std::abs(r.pitch - rest->pitch) < 1e-6;
    });
    if (!known) rests.push_back(std::move(*rest));
  }
  std::stable_sort(rests.begin(), rests.end(), [](const Rest& a, const Rest& b) {
    return a.energy < b.energy - 1e-12 * std::abs(b.energy);
  });
  return rests;
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

std::optional<double> spring_for_pitch(double mass, const Vec3& cg, std::vector<WheelOnLeg> wheels,
                                       const std::vector<int>& which, SpringChange change, double target) {
  const auto value = [&](int i) -> double& {
    LegLaw& law = wheels[static_cast<size_t>(i)].leg.law;
    return change == SpringChange::rate      ? law.rate
           : change == SpringChange::preload ? law.preload
                                             : law.pressure;
  };
  const auto miss_at = [&](double to) {
    for (int i : which) value(i) = to;
    const auto rest = solve(mass, cg, wheels);
    const Rest* r = std::get_if<Rest>(&rest);
    return r ? r->pitch - target : std::numeric_limits<double>::quiet_NaN();
  };
  const double base = value(which.front());
  if (change == SpringChange::preload) {  // from none to twice the weight: one leg carries no more
    const double weight = mass * standard_gravity;
    return find_nearest_root(miss_at, base, 0.005 * weight, 0, 2 * weight);
  }
  if (!(base > 0)) return std::nullopt;
  const auto miss = [&](double log_factor) { return miss_at(base * std::exp(log_factor)); };
  const auto found = find_nearest_root(miss, 0, 0.05, std::log(0.02), std::log(50));
  if (!found) return std::nullopt;
  return base * std::exp(*found);
}

double hinge_of_vertical_rate(double vertical_rate, double length, double cant) {
  const double arm = length * std::sin(cant);
  return vertical_rate * arm * arm;
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

std::variant<std::vector<WheelOnLeg>, Text> wheels_of(const Design& d) {
  if (d.gear.legs.empty()) return "legs";
  std::vector<WheelOnLeg> wheels;
  Lacking lacks;
  std::optional<size_t> lacking;  // the row that was told last
  for (const PlacedLeg& placed : placed_legs(d.gear)) {
    const Leg& leg = d.gear.legs[placed.row];
    if (!wheels.empty() && wheels.back().placed.row == placed.row) {
      WheelOnLeg twin = wheels.back();  // port stands before starboard
      twin.leg = force::mirrored(twin.leg);
      twin.placed = placed;
      wheels.push_back(std::move(twin));
      continue;
    }
    if (placed.row == lacking) continue;  // of a pair once is enough
    const Text wheel = d.wheel_word(leg);
    const std::string root = leg_root(leg.id);
    const auto tyre = force::tyre_law(leg.wheel);
    const auto* no_tyre = std::get_if<Text>(&tyre);
    Lacking of_wheel(root);
    of_wheel.number(leg.wheel.diameter, "wheel/diameter_m", "the diameter")
        .that(no_tyre, no_tyre ? entry(root + "wheel/tyre_rate_N_per_m", *no_tyre) : Text());
    auto suspension = force::suspension_of(leg, d.materials);
    const auto* no_spring = std::get_if<Text>(&suspension);
    lacks.that(!of_wheel.nothing(), say("{}: {}", wheel, of_wheel.text()))
        .that(no_spring, no_spring ? say("{}: {}", d.leg_word(leg), *no_spring) : Text());
    if (!of_wheel.nothing() || no_spring) {
      lacking = placed.row;
      continue;
    }
    WheelOnLeg w{std::get<Suspension>(std::move(suspension)), leg.wheel.diameter / 2, std::get<TyreLaw>(tyre),
                 leg.wheel_spacing.known() ? leg.wheel_spacing.si : 0, placed};
    if (placed.port) w.leg = force::mirrored(w.leg);
    wheels.push_back(std::move(w));
  }
  if (!lacks.nothing()) return lacks.text();
  return wheels;
}

}  // namespace kranich::stance
