// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/swing/pair.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <queue>

#include "core/base/numerics.h"

namespace kranich::swing {

using motion::Carried;
using motion::Retracting;
using motion::RoundedWheel;

double between(const RoundedWheel& a, const RoundedWheel& b) {
  // The other's core as an obstacle, its shoulder taken off after.
  const double shoulder = std::min({b.shoulder, b.diameter / 2, b.width / 2});
  return motion::nearest(
             a, motion::Cylinder{b.centre, b.axle, b.diameter / 2 - shoulder, b.width / 2 - shoulder})
             .distance -
         shoulder;
}

RoundedWheel wheel_at(const Retracting& moves, const RoundedWheel& down, double turn) {
  const auto pose = moves.pose(Carried::wheel, turn);
  RoundedWheel there = down;
  there.centre = pose * down.centre;
  there.axle = pose.linear() * down.axle;
  return there;
}

RoundedWheel mirrored(const RoundedWheel& wheel) {
  RoundedWheel other = wheel;
  other.centre = kranich::mirrored(wheel.centre);
  other.axle = kranich::mirrored(wheel.axle);
  return other;
}

PairGap least_together(const Retracting& first, const RoundedWheel& wheel, const Retracting& second,
                       const RoundedWheel& other, double lag) {
  const auto gap = [&](double turn) {
    const double behind = std::clamp(turn - lag, 0.0, second.full_turn);
    return between(wheel_at(first, wheel, turn), wheel_at(second, other, behind));
  };
  constexpr int steps = 180;
  const double step = first.full_turn / steps;
  PairGap least{std::numeric_limits<double>::infinity(), 0, 0};
  const auto look = [&](double turn) {
    const double d = gap(turn);
    if (d < least.distance) least = {d, turn, std::clamp(turn - lag, 0.0, second.full_turn)};
  };
  std::vector<double> at;
  for (int i = 0; i <= steps; ++i) at.push_back(gap(i * step));
  for (size_t i = 0; i < at.size(); ++i) {
    look(static_cast<double>(i) * step);
    if (i == 0 || i + 1 == at.size() || at[i] > at[i - 1] || at[i] > at[i + 1]) continue;
    const double middle = static_cast<double>(i) * step;
    look(find_minimum(gap, middle - step, middle + step).at);
  }
  return least;
}

PairGap least_of_any(const Retracting& first, const RoundedWheel& wheel, const Retracting& second,
                     const RoundedWheel& other) {
  const auto gap = [&](double a, double b) {
    return between(wheel_at(first, wheel, a), wheel_at(second, other, b));
  };
  const auto speed = [](const Retracting& r, const RoundedWheel& w) {
    return r.reach({{Carried::wheel, w.centre, std::hypot(w.diameter, w.width) / 2}});
  };
  const double fast = speed(first, wheel);
  const double fast_other = speed(second, other);
  // Branch and bound: a cell whose middle is further off than it can reach is left out with certainty.
  struct Cell {
    double bound, a, b, half_a, half_b, distance;
    bool operator<(const Cell& c) const { return bound > c.bound; }
  };
  const auto cell = [&](double a, double b, double half_a, double half_b) {
    const double d = gap(a, b);
    return Cell{d - fast * half_a - fast_other * half_b, a, b, half_a, half_b, d};
  };
  std::priority_queue<Cell> open;
  open.push(cell(first.full_turn / 2, second.full_turn / 2, first.full_turn / 2, second.full_turn / 2));
  PairGap least{std::numeric_limits<double>::infinity(), 0, 0};
  for (const double a : {0.0, first.full_turn})
    for (const double b : {0.0, second.full_turn})
      if (const double d = gap(a, b); d < least.distance) least = {d, a, b};
  constexpr double fine = 2e-6;
  for (int round = 0; round < 60000 && !open.empty(); ++round) {
    const Cell c = open.top();
    open.pop();
    if (c.bound > least.distance - fine) break;
    if (c.distance < least.distance) {
      // From here straight down: a few turns of coordinate descent give a good bound early.
      double a = c.a;
      double b = c.b;
      for (int i = 0; i < 3; ++i) {
        a = find_minimum([&](double x) { return gap(x, b); }, std::max(0.0, a - 2 * c.half_a),
                         std::min(first.full_turn, a + 2 * c.half_a))
                .at;
        b = find_minimum([&](double x) { return gap(a, x); }, std::max(0.0, b - 2 * c.half_b),
                         std::min(second.full_turn, b + 2 * c.half_b))
                .at;
      }
      const double d = gap(a, b);
      least = d < c.distance ? PairGap{d, a, b} : PairGap{c.distance, c.a, c.b};
    }
    const bool along_first = fast * c.half_a >= fast_other * c.half_b;
    for (const double side : {-1.0, 1.0})
      open.push(along_first ? cell(c.a + side * c.half_a / 2, c.b, c.half_a / 2, c.half_b)
                            : cell(c.a, c.b + side * c.half_b / 2, c.half_a, c.half_b / 2));
  }
  return least;
}

std::optional<PairGap> nearest_of_any(const Retracting& first, const RoundedWheel& wheel,
                                      const Retracting& second, const RoundedWheel& other, double within) {
  constexpr size_t steps = 32;
  struct Row {
    double turn;
    RoundedWheel wheel;
  };
  const auto rows = [](const Retracting& moves, const RoundedWheel& down) {
    std::vector<Row> list;
    for (size_t i = 0; i <= steps; ++i) {
      const double turn = moves.full_turn * static_cast<double>(i) / steps;
      list.push_back({turn, wheel_at(moves, down, turn)});
    }
    return list;
  };
  const auto a = rows(first, wheel);
  const auto b = rows(second, other);
  const double size =
      std::hypot(wheel.diameter, wheel.width) / 2 + std::hypot(other.diameter, other.width) / 2;
  // Least they can be apart, by their centres.
  struct Cell {
    double bound;
    size_t i, j;
  };
  std::vector<Cell> cells;
  cells.reserve(a.size() * b.size());
  double nearest = std::numeric_limits<double>::infinity();
  for (size_t i = 0; i < a.size(); ++i)
    for (size_t j = 0; j < b.size(); ++j) {
      const double bound = (a[i].wheel.centre - b[j].wheel.centre).norm() - size;
      nearest = std::min(nearest, bound);
      cells.push_back({bound, i, j});
    }
  const auto fast = [](const Retracting& moves, const RoundedWheel& w) {
    return moves.reach({{Carried::wheel, w.centre, 0}}) * moves.full_turn / steps / 2;
  };
  if (nearest - fast(first, wheel) - fast(second, other) > within) return std::nullopt;
  std::sort(cells.begin(), cells.end(), [](const Cell& x, const Cell& y) { return x.bound < y.bound; });
  PairGap least{std::numeric_limits<double>::infinity(), 0, 0};
  for (const Cell& c : cells) {
    if (c.bound > least.distance) break;
    const double d = between(a[c.i].wheel, b[c.j].wheel);
    if (d < least.distance) least = {d, a[c.i].turn, b[c.j].turn};
  }
  // Down the valley, one turn and the other, in ever smaller steps.
  double step_a = first.full_turn / steps;
  double step_b = second.full_turn / steps;
  while (step_a > 1e-6 * first.full_turn) {
    bool better = false;
    for (const auto& [x, y] :
         {std::pair{1, 0}, {-1, 0}, {0, 1}, {0, -1}, {1, 1}, {-1, -1}, {1, -1}, {-1, 1}}) {
      const double turn = std::clamp(least.turn + x * step_a, 0.0, first.full_turn);
      const double turn_other = std::clamp(least.other_turn + y * step_b, 0.0, second.full_turn);
      const double d = between(wheel_at(first, wheel, turn), wheel_at(second, other, turn_other));
      if (d < least.distance) {
        least = {d, turn, turn_other};
        better = true;
      }
    }
    if (better) continue;
    step_a /= 3;
    step_b /= 3;
  }
  return least;
}

}  // namespace kranich::swing
