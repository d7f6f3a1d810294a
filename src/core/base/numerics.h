// SPDX-License-Identifier: GPL-3.0-or-later
//! Root finding and minimisation on one variable, with the answer checked by the caller's own function.
#pragma once

#include <functional>
#include <optional>

namespace kranich {

using Function = std::function<double(double)>;

//! Root of f between two places where its sign differs (Boost.Math's TOMS 748). Nothing where it does not
//! change sign or f is not finite at an end. `within`: how near to the root is near enough (0: to the last
//! digits).
std::optional<double> find_root(const Function& f, double from, double to, double within = 0);

//! The root nearest to `start` in [low, high]: steps outward from `start` on both sides, doubling from
//! `step`, until the sign changes, then refines. Nothing if the sign never changes within the bounds.
std::optional<double> find_nearest_root(const Function& f, double start, double step, double low,
                                        double high);

//! As find_nearest_root for a function that falls or rises through its root without turning back first: one
//! step tells which way, and only that way is searched.
std::optional<double> find_root_downhill(const Function& f, double start, double step, double low,
                                         double high, double within);

//! Where a condition that does not hold at one end begins to hold on the way to the other, where it does: by
//! halving, to the last digits. The place told is on the side where it holds.
template <class Condition>
double begins_to_hold(Condition&& holds, double from, double to) {
  for (int i = 0; i < 60; ++i) {
    const double middle = (from + to) / 2;
    (holds(middle) ? to : from) = middle;
  }
  return to;
}

struct Minimum {
  double at;
  double value;
};

//! Local minimum in a bracket by Brent's method (Boost.Math), to about 1e-8 of the bracket.
Minimum find_minimum(const Function& f, double from, double to);

}  // namespace kranich
