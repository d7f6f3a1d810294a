// SPDX-License-Identifier: GPL-3.0-or-later
//! What the bench says of a spring: rate, preload and friction from loads against closure; how much stiffer
//! and more damped a leg is than foretold from a recorded drop. SI.
#pragma once

#include <optional>
#include <span>
#include <string>
#include <variant>
#include <vector>

#include "core/base/say.h"
#include "core/model/workshop.h"
#include "core/spring/drop.h"

namespace kranich::spring {

//! F = preload + rate·s ± friction (in and out), by least squares.
struct LoadFit {
  double rate, preload, friction;  //!< N/m, N, N; friction NaN where nothing was read on the way out
  double rate_error;               //!< its standard error, N/m; NaN from two readings only
  double off;                      //!< root mean square of what is left over, N
  int readings;
};
//! Or what is missing.
std::variant<LoadFit, Text> fit_readings(std::span<const LoadReading> readings, const std::string& leg);

//! Longer than any drop rocks (s): what runs on beyond it is no recording of one.
inline constexpr double longest_recording = 20;

//! A moment of a recorded drop: seconds since the release, acceleration of the sprung mass (up, 0 at rest),
//! stroke.
struct RigSample {
  double t, acceleration, stroke;
};

//! Where the recording and a model of the leg meet: the model's spring forces times `spring`, its damping
//! times `damping` fit the samples best (Gauss–Newton). Errors are standard errors.
struct DropFit {
  double spring = 1, damping = 1;
  double spring_error = 0, damping_error = 0;
  double off_before, off_after;                //!< root mean square of acceleration differences, m/s²
  double stroke_off_before, stroke_off_after;  //!< of strokes, m
};
std::variant<DropFit, Text> fit_drop(const DropModel& model, double height,
                                     std::span<const RigSample> samples);

//! What a rig would record of a model dropped from a height, without noise.
std::vector<RigSample> rig_record(const DropModel& model, double height, double rate, double duration);

//! Puts a fit into a leg: what makes its spring's force and its damping, as measured. Empty, or why the
//! spring stays as it is: its force follows from stock and shape only (a leg that bends), or what makes it is
//! unknown. Turns of a coil that do not bear are uncertain by one; what they cannot explain is put on its
//! wire, so that never more turns bear than there are.
std::string take_over(Leg& leg, const DropFit& fit);
//! Puts a line through readings into a leg, likewise; a linear spring takes preload and friction too.
//! `rate_now`: the leg's own, N/m at the axle.
std::string take_over(Leg& leg, const LoadFit& fit, double rate_now);

//! A model with its spring's forces and its damping multiplied.
DropModel scaled(DropModel model, double spring, double damping);

}  // namespace kranich::spring
