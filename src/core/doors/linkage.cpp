// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/doors/linkage.h"

#include <Eigen/LU>
#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

#include "core/base/numerics.h"

namespace kranich::doors {
namespace {

constexpr double full = 2 * std::numbers::pi;

motion::HeldRod rod_of(const DoorLinkage& l) { return {l.hinge, l.door_ball, l.crank_ball}; }

}  // namespace

double door_turn(const DoorLinkage& l, double crank) {
  return rod_of(l).turn(l.crank.turn(crank) * l.crank_ball);
}

double door_rate(const DoorLinkage& l, double crank) {
  const Vec3 ball = l.crank.turn(crank) * l.crank_ball;
  const Vec3 moves = l.crank.direction.cross(ball - l.crank.point);
  const Vec3 door = l.hinge.turn(rod_of(l).place(ball)) * l.door_ball;
  return motion::rod_turn_rate(l.hinge, door, ball, Vec3::Zero(), moves);
}

double squareness(const motion::Axis& hinge, const Vec3& door, const Vec3& other) {
  const Vec3 way = hinge.direction.cross(door - hinge.point).normalized();
  return std::asin(std::min(1.0, std::abs((door - other).normalized().dot(way))));
}

double transmission_angle(const DoorLinkage& l, double crank) {
  const Vec3 ball = l.crank.turn(crank) * l.crank_ball;
  return squareness(l.hinge, l.hinge.turn(rod_of(l).place(ball)) * l.door_ball, ball);
}

LeastTransmission least_transmission(const DoorLinkage& l, double open) {
  const auto at = [&](double crank) {
    const double angle = transmission_angle(l, crank);
    return std::isfinite(angle) ? angle : 0.0;  // locked: it cannot be moved at all
  };
  constexpr int steps = 200;
  LeastTransmission least{std::numeric_limits<double>::infinity(), 0};
  const double step = open / steps;
  const auto look = [&](double crank) {
    if (const double a = at(crank); a < least.angle) least = {a, crank};
  };
  for (int i = 0; i <= steps; ++i) look(i * step);
  const double from = std::clamp(least.crank - std::abs(step), std::min(0.0, open), std::max(0.0, open));
  const double to = std::clamp(least.crank + std::abs(step), std::min(0.0, open), std::max(0.0, open));
  if (from < to) look(find_minimum(at, from, to).at);
  return least;
}

LinkageEnd end_of(const DoorLinkage& l, double towards) {
  const double sense = towards < 0 ? -1 : 1;
  constexpr int steps = 1440;
  const double step = full / steps;
  const motion::HeldRod rod = rod_of(l);
  const auto locked = [&](double turn) { return !rod.reaches(l.crank.turn(sense * turn) * l.crank_ball); };
  // In line: the rod is square to the way of the crank's ball.
  const auto pushes = [&](double turn) {
    const Vec3 ball = l.crank.turn(sense * turn) * l.crank_ball;
    const Vec3 door = l.hinge.turn(rod.place(ball)) * l.door_ball;
    return (door - ball).dot(l.crank.direction.cross(ball - l.crank.point));
  };
  double before = pushes(0);
  for (int i = 1; i <= steps; ++i) {
    const double low = (i - 1) * step;
    double high = i * step;
    const bool now_locked = locked(high);
    const double now = now_locked ? before : pushes(high);
    const bool back = !now_locked && before * now < 0;
    if (!now_locked && !back) {
      if (now != 0) before = now;
      continue;
    }
    const auto over = [&](double turn) { return now_locked ? locked(turn) : pushes(turn) * before < 0; };
    high = begins_to_hold(over, low, high);
    return {now_locked ? Ends::locks : Ends::turns_back, sense * high};
  }
  return {};
}

double gain_of_bracket(const DoorLinkage& l, double open, const Vec3& along) {
  const auto travel = [&](double by) {
    DoorLinkage moved = l;
    const Vec3 shift = by * along.normalized();
    moved.crank.point += shift;
    moved.crank_ball += shift;
    return std::abs(door_turn(moved, open));
  };
  const double h = 1e-5 * (l.crank_ball - l.crank.point).norm();
  return (travel(h) - travel(-h)) / (2 * h);
}

namespace {

std::optional<FourBar> of_ratios(double d, double over_a, double over_b, double k) {
  if (!std::isfinite(over_a) || !std::isfinite(over_b) || over_a == 0 || over_b == 0) return std::nullopt;
  FourBar bar{d / over_a, d / over_b, 0};
  const double square = bar.crank_arm * bar.crank_arm + bar.door_arm * bar.door_arm + d * d -
                        2 * bar.crank_arm * bar.door_arm * k;
  if (!(square > 0)) return std::nullopt;
  bar.rod = std::sqrt(square);
  return bar;
}

}  // namespace

std::optional<FourBar> through_three(double d, const std::vector<double>& crank,
                                     const std::vector<double>& door) {
  if (crank.size() != 3 || door.size() != 3) return std::nullopt;
  Eigen::Matrix3d m;
  Vec3 right;
  for (int i = 0; i < 3; ++i) {
    const auto at = static_cast<size_t>(i);
    m.row(i) << std::cos(door[at]), -std::cos(crank[at]), 1;
    right[i] = std::cos(crank[at] - door[at]);
  }
  if (std::abs(m.determinant()) < 1e-12) return std::nullopt;
  const Vec3 x = m.inverse() * right;
  return of_ratios(d, x[0], x[1], x[2]);
}

std::optional<FourBar> through_two(double d, const std::vector<double>& crank,
                                   const std::vector<double>& door, double crank_arm) {
  if (crank.size() != 2 || door.size() != 2 || crank_arm == 0) return std::nullopt;
  Eigen::Matrix2d m;
  Eigen::Vector2d right;
  for (int i = 0; i < 2; ++i) {
    const auto at = static_cast<size_t>(i);
    m.row(i) << -std::cos(crank[at]), 1;
    right[i] = std::cos(crank[at] - door[at]) - d / crank_arm * std::cos(door[at]);
  }
  if (std::abs(m.determinant()) < 1e-12) return std::nullopt;
  const Eigen::Vector2d x = m.inverse() * right;
  return of_ratios(d, d / crank_arm, x[0], x[1]);
}

double misfit(const FourBar& bar, double d, const std::vector<double>& crank,
              const std::vector<double>& door) {
  double most = 0;
  for (size_t i = 0; i < crank.size() && i < door.size(); ++i) {
    const double x = d + bar.door_arm * std::cos(door[i]) - bar.crank_arm * std::cos(crank[i]);
    const double y = bar.door_arm * std::sin(door[i]) - bar.crank_arm * std::sin(crank[i]);
    most = std::max(most, std::abs(std::hypot(x, y) - bar.rod));
  }
  return most;
}

bool keeps_branch(const FourBar& bar, double d, const std::vector<double>& crank,
                  const std::vector<double>& door) {
  if (crank.empty() || crank.size() != door.size()) return false;
  const auto end = [](double arm, double angle) {
    return Vec3(arm * std::cos(angle), arm * std::sin(angle), 0);
  };
  const Vec3 pivot(d, 0, 0);
  const DoorLinkage l{{Vec3::Zero(), Vec3::UnitZ()},
                      {pivot, Vec3::UnitZ()},
                      end(bar.crank_arm, crank.front()),
                      pivot + end(bar.door_arm, door.front())};
  for (size_t i = 0; i < crank.size(); ++i) {
    const double off = door_turn(l, crank[i] - crank.front()) - (door[i] - door.front());
    if (!(std::abs(std::remainder(off, full)) < 1e-6)) return false;
  }
  // And nothing locks on the way.
  constexpr int steps = 200;
  for (int i = 0; i <= steps; ++i)
    if (!std::isfinite(door_turn(l, (crank.back() - crank.front()) * i / steps))) return false;
  return true;
}

}  // namespace kranich::doors
