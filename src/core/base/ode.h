// SPDX-License-Identifier: GPL-3.0-or-later
//! Motion in time, the one way of following it: y' = f(y, t) with the crossings in it found (landing, free
//! fall, motor), or in steps of one length (bump, cylinders on one pump). Boost.odeint does the stepping; an
//! f is a callable (y, y', t) that fills y'. Nothing here knows units: the caller's are kept.
#pragma once

#include <algorithm>
#include <array>
#include <boost/numeric/odeint.hpp>
#include <cmath>
#include <utility>

namespace kranich {

//! Follows y' = f(y, t) by dopri5 with dense output. `Watch` is a callable of y that gives an array of
//! values, each of which crosses zero where f has a kink or where something is to be known. The first
//! crossing within a step, found by halving to the last digits, ends that step just behind it; the next
//! begins there anew. A value that is exactly zero where a step begins, as at the start, is not taken as
//! crossing in that step.
template <class State, class Slope, class Watch>
class Following {
 public:
  //! `first_step` is where the step's length begins; the error of a step stays below
  //! `absolute` + `relative`·|y|.
  Following(const State& start, Slope slope, Watch watch, double first_step, double absolute, double relative)
      : slope_(std::move(slope)),
        watch_(std::move(watch)),
        stepper_(boost::numeric::odeint::make_dense_output(
            absolute, relative, boost::numeric::odeint::runge_kutta_dopri5<State>())),
        state_(start),
        before_(watch_(start)),
        begin_(first_step) {
    stepper_.initialize(start, 0, first_step);
  }

  struct Step {
    double from, to;
    int crossed;  //!< which of the watched values ends the step; −1: none
  };
  //! One step on, no further than `until`.
  Step step(double until) {
    if (crossed_ >= 0) stepper_.initialize(state_, time_, begin_);
    const auto [from, reached] = stepper_.do_step(slope_);
    const double to = std::min(reached, until);
    const auto after = watch_(at(to));
    crossed_ = -1;
    time_ = to;
    for (std::size_t i = 0; i < after.size(); ++i) {
      const auto as_before = [&](double t) { return (watch_(at(t))[i] < 0) == (before_[i] < 0); };
      if (before_[i] == 0 || (before_[i] < 0) == (after[i] < 0)) continue;
      double low = from;
      double high = time_;
      if (as_before(high)) continue;  // it comes after an earlier one
      for (int k = 0; k < 60 && high - low > 1e-13 * (1 + high); ++k) {
        const double middle = (low + high) / 2;
        (as_before(middle) ? low : high) = middle;
      }
      time_ = high;
      crossed_ = static_cast<int>(i);
    }
    state_ = at(time_);
    before_ = crossed_ < 0 ? after : watch_(state_);
    if (crossed_ >= 0) {
      // The watched value has the sign it goes on with, however little is left of it.
      const auto i = static_cast<std::size_t>(crossed_);
      before_[i] = after[i] < 0 ? -1e-300 : 1e-300;
      begin_ = std::max(1e-7, 0.1 * (reached - from));
    }
    return {from, time_, crossed_};
  }
  //! The state at any time within the last step.
  State at(double time) const {
    State y;
    stepper_.calc_state(time, y);
    return y;
  }
  const State& state() const { return state_; }
  double time() const { return time_; }
  bool finite() const {
    return std::all_of(state_.begin(), state_.end(), [](double v) { return std::isfinite(v); });
  }

 private:
  using Stepper = decltype(boost::numeric::odeint::make_dense_output(
      0.0, 0.0, boost::numeric::odeint::runge_kutta_dopri5<State>()));
  Slope slope_;
  Watch watch_;
  Stepper stepper_;
  State state_;
  decltype(std::declval<Watch>()(std::declval<State>())) before_;
  double begin_;
  double time_ = 0;
  int crossed_ = -1;
};

//! The state one step of length h on, by Runge and Kutta's fourth-order rule. Steps of one length keep near
//! designs near: what is rounded off stays rounded off the same way.
template <class State, class Slope>
State stepped(Slope&& slope, const State& from, double time, double h) {
  boost::numeric::odeint::runge_kutta4<State> rule;
  State to = from;
  rule.do_step(std::forward<Slope>(slope), to, time, h);
  return to;
}

}  // namespace kranich
