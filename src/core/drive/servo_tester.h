// SPDX-License-Identifier: GPL-3.0-or-later
//! A servo on a tester with the unit that it moves by its rod: what kranich-bench plays, and what the window
//! foretells. Per cent of a servo's turn to one side, positive towards stowed; SI, rad. Source: handbook,
//! Drive.
#pragma once

#include "core/drive/servo.h"

namespace kranich::drive {

inline constexpr double furthest_sent = 150;  //!< per cent, either way

struct TestedUnit {
  ServoLinkage linkage;
  ServoFit fit;
  double full_throw;                        //!< servo's turn to one side at 100 %
  double down_early = 0, stowed_early = 0;  //!< unit's arm: its stops come so much before the ends as drawn
  double stiffness = 20e3;                  //!< of rod and mount
  double stall_torque = 1, stall_current = 1, idle_current = 0;
  double speed = 3;  //!< of the servo's arm
};

//! Both ends as the linkage wants them.
double end_point(const TestedUnit& unit, bool stowed);
//! The furthest that the servo may be sent towards an end before the unit's stop holds it; NaN where its stop
//! does not come before.
double binds_from(const TestedUnit& unit, bool stowed);

//! Where it is, and what it draws.
struct TestedServo {
  double percent;  //!< where the servo's arm is
  double unit;     //!< share of the unit's way, 0 down
  double current;
  bool moves, binds;  //!< binds: it rests against a stop and pushes on
};

class ServoTester {
 public:
  //! Begins in the middle of the throw, at rest.
  explicit ServoTester(const TestedUnit& unit) : unit_(unit) {}
  void go(double percent);  //!< to there; at most `furthest_sent` either way
  void off() { on_ = false; }
  void advance(double seconds);
  TestedServo now() const;
  double goal() const { return goal_; }

 private:
  TestedUnit unit_;
  double goal_ = 0, at_ = 0;  //!< per cent, as if nothing stopped it
  bool on_ = false;
};

}  // namespace kranich::drive
