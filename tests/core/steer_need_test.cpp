// SPDX-License-Identifier: GPL-3.0-or-later
//! Steering of a design: turns, rods while the leg folds, servo, bush, brakes; and the cures.
#include <catch2/catch.hpp>
#include <numbers>
#include <random>

#include "core/assess/assess.h"
#include "core/assess/cures.h"
#include "core/assess/loading_state.h"
#include "core/base/quantity.h"
#include "core/io/project_file.h"
#include "core/io/stock.h"
#include "core/motion/panel.h"
#include "core/motion/retract.h"
#include "core/steer/steering.h"
#include "core/steer/turn.h"
#include "demo.h"

using namespace kranich;

namespace {

const Finding* of(const Assessment& a, std::string_view id) {
  for (const auto& f : a.findings)
    if (f.measure_id == id) return &f;
  return nullptr;
}
//! The worst of a check over all loadings.
const Finding* worst(const Assessment& a, std::string_view id) {
  const Finding* w = nullptr;
  for (const auto& f : a.findings)
    if (f.measure_id == id && (!w || worse(f, *w))) w = &f;
  return w;
}
std::vector<Cure> cures_that_work(const Design& d, std::string_view id) {
  const auto before = assess(d);
  const Finding* f = worst(before, id);
  REQUIRE(f);
  REQUIRE(f->verdict == Verdict::fails);
  auto cures = cures_for(d, before, *f, {6, &shipped_stock()});
  for (const auto& c : cures) {
    const Design cured = c.applied(d);
    const auto after = assess(cured);
    // One that is no longer asked has nothing left to fail.
    if (const Finding* now = worst(after, id)) CHECK(now->verdict != Verdict::fails);
    CHECK(read_project(write_project(cured)).design);
  }
  return cures;
}
//! Dunnock's nose leg steered by rods whose end lies so far from its pivot.
Design steered(SteeringKind kind, const Vec3& servo_from_pivot) {
  Design d = demo("dunnock");
  Leg& nose = d.gear.third();
  Steering& s = nose.steering;
  s = {};
  s.kind = kind;
  s.angle = Given(radians(25));
  const Vec3 pivot = nose.retraction.pivot.vec();
  s.rod_airframe.set(pivot + servo_from_pivot);
  // An arm to starboard, a little below the pivot.
  const auto axis = *steer::steering_axis(nose);
  s.rod_leg.set(pivot - 0.1 * axis.direction + Vec3(0, 0.06, 0));
  return d;
}

}  // namespace

TEST_CASE("a turn is that of the steered wheel's angle on the ground, and a wanted one is judged and cured") {
  Design d = steered(SteeringKind::castors, Vec3(0.4, 0.06, 0));
  Leg& nose = d.gear.third();
  nose.steering.angle = Given();
  CHECK(of(assess(d), "steer.turn")->verdict == Verdict::unknown);
  nose.steering.angle = Given(radians(25));
  const auto a = assess(d);
  const Finding* f = of(a, "steer.turn");
  REQUIRE(f);
  const double wheelbase = d.gear.main().axle.x - nose.axle.x;
  const Vec3 line = nose.held_at() - motion::foot(nose);
  const double lean = std::atan2(std::abs(line.x()), line.z());
  CHECK(f->value == Approx(wheelbase / (std::cos(lean) * std::tan(radians(25)))));
  CHECK(f->verdict == Verdict::noted);
  nose.steering.wanted_radius = Given(2.0);
  const auto cures = cures_that_work(d, "steer.turn");
  CHECK(std::any_of(cures.begin(), cures.end(),
                    [](const Cure& c) { return c.parts[0].knob->id == "third.steer_angle"; }));
  // Castoring it has no rod to judge.
  CHECK_FALSE(of(a, "steer.off"));
  CHECK_FALSE(of(a, "steer.scrub"));
}

TEST_CASE("a rod that slides needs the slip by which its ends come together, and must not be pulled") {
  std::mt19937 random(3);
  const auto any = [&](double from, double to) { return std::uniform_real_distribution<>(from, to)(random); };
  int closed = 0, pulled = 0;
  for (int i = 0; i < 30; ++i) {
    Design d = steered(SteeringKind::sliding_rods, Vec3(any(-0.6, 0.6), 0.06, any(-0.3, 0.3)));
    const Leg& nose = d.gear.third();
    const auto moves = *motion::retracting(nose);
    const Vec3 arm = nose.steering.rod_leg.vec();
    const auto made = std::get<steer::FoldingRod>(steer::folding_rod(nose));
    const auto length = [&](double turn) {
      return (moves.pose(motion::carried_at(nose, arm), turn) * arm - nose.steering.rod_airframe.vec())
          .norm();
    };
    double least = 1e9, most = 0;
    for (int k = 0; k <= 4000; ++k) {
      least = std::min(least, length(moves.full_turn * k / 4000));
      most = std::max(most, length(moves.full_turn * k / 4000));
    }
    const auto figures = steer::fold_figures(made);
    CHECK(figures.closes == Approx(length(0) - least).margin(1e-6));
    CHECK(figures.opens == Approx(most - length(0)).margin(1e-6));
    closed += figures.closes > 0.01;
    pulled += figures.opens > 0.01;
    const auto a = assess(d);
    REQUIRE(of(a, "steer.pull"));
    CHECK(of(a, "steer.pull")->value == Approx(figures.opens));
    CHECK(of(a, "steer.slide")->verdict == Verdict::unknown);
    d.gear.third().steering.slide = Given(figures.closes + 0.004);
    CHECK(of(assess(d), "steer.slide")->value == Approx(0.004).margin(1e-9));
  }
  CHECK(closed > 5);
  CHECK(pulled > 5);
  Design d = steered(SteeringKind::sliding_rods, Vec3(0.5, 0.06, 0.05));
  d.gear.third().steering.slide = Given(0.005);
  if (of(assess(d), "steer.slide")->verdict == Verdict::fails)
    CHECK_FALSE(cures_that_work(d, "steer.slide").empty());
}

TEST_CASE(
    "a rod that does not let go turns the wheel as it folds: its length stays, its end on the pivot line is "
    "idle") {
  // With its end on the axis of the fold nothing turns.
  Design d = steered(SteeringKind::rod, Vec3(0, 0.4, 0));
  auto a = assess(d);
  REQUIRE(of(a, "steer.fold"));
  CHECK(of(a, "steer.fold")->value == Approx(0).margin(1e-6));
  d = steered(SteeringKind::rod, Vec3(0.3, 0.06, 0.02));
  const auto rod = std::get<steer::FoldingRod>(steer::folding_rod(d.gear.third()));
  int moved = 0;
  for (int i = 0; i <= 60; ++i) {
    const double turn = rod.moves.full_turn * i / 60;
    const double wheel = rod.wheel_turn(turn);
    if (!std::isfinite(wheel)) continue;
    ++moved;
    const Vec3 end = rod.moves.pose(rod.carried, turn) * (rod.axis.turn(wheel) * rod.arm);
    CHECK((end - rod.airframe).norm() == Approx(rod.length(0)).epsilon(1e-9));
  }
  CHECK(moved > 3);
  const auto cures = cures_that_work(d, "steer.fold");
  CHECK(std::any_of(cures.begin(), cures.end(),
                    [](const Cure& c) { return c.parts[0].knob->id == "third.steer_slides"; }));
  // Nobody takes the command away: cured by saying so.
  CHECK_FALSE(cures_that_work(d, "steer.off").empty());
}

TEST_CASE("what turns a wheel at rest, the servo over both arms, and a rod that enters askew") {
  Design d = steered(SteeringKind::rod, Vec3(0.5, 0.06, -0.1));
  Steering& s = d.gear.third().steering;
  d.gear.third().wheel.pressure = Given(2.5e5);
  const auto axis = *steer::steering_axis(d.gear.third());
  const double arm = (s.rod_leg.vec() - axis.point).cross(axis.direction).norm();
  auto a = assess(d);
  const Finding* scrub = of(a, "steer.scrub");
  REQUIRE(scrub);
  double load = 0;
  const size_t at = placed_index(d.gear, row_of(d.gear, "third"));
  for (const auto& l : a.loadings)
    if (l.flown && l.rest) load = std::max(load, l.rest->wheels[at].load);
  const double patch = load / d.gear.third().wheel.pressure;
  CHECK(scrub->value == Approx(2.0 / 3 * 0.8 * load * std::sqrt(patch / std::numbers::pi)));
  s.servo_arm = Given(0.03);
  s.servo_torque = Given(scrub->value * 0.03 / arm / 1.2);
  CHECK(of(assess(d), "steer.servo")->value == Approx(-0.2));
  CHECK(cures_that_work(d, "steer.servo").size() >= 2);
  // Askew: the rod from ahead of the arm's own line.
  CHECK(of(assess(d), "steer.square")->value ==
        Approx(steer::off_square(axis, s.rod_leg.vec(), s.rod_airframe.vec())));
  s.rod_airframe.set(s.rod_leg.vec() + Vec3(0.02, 0.3, 0));
  CHECK(of(assess(d), "steer.square")->verdict == Verdict::fails);
  CHECK_FALSE(cures_that_work(d, "steer.square").empty());
  s.bush_length = Given(0.12);
  CHECK(of(assess(d), "steer.play")->verdict == Verdict::unknown);
  s.bush_play = Given(0.0006);
  CHECK(of(assess(d), "steer.play")->value == Approx(0.005));
}

TEST_CASE("a steered wheel must pass the doors that stand beside it") {
  Design d = steered(SteeringKind::castors, Vec3(0.4, 0.06, 0));
  Leg& nose = d.gear.third();
  // A door that hangs beside the wheel.
  Door& door = d.doors[1];
  const Vec3 wheel = nose.axle.vec();
  for (auto [p, x] : {std::pair{&door.hinge_from, -0.3}, std::pair{&door.hinge_to, 0.3}})
    p->set(wheel + Vec3(x, nose.wheel.width / 2 + 0.03, 0.25));
  door.width = Given(0.3);
  nose.steering.angle = Given(radians(2));
  CHECK(of(assess(d), "steer.clearance")->value > 0.015);
  nose.steering.angle = Given(radians(40));
  const auto a = assess(d);
  CHECK(of(a, "steer.clearance")->verdict == Verdict::fails);
  CHECK_FALSE(cures_that_work(d, "steer.clearance").empty());
  // Against a dense look.
  const auto axis = *steer::steering_axis(nose);
  const auto panel = *motion::panel_of(door);
  double least = 1e9;
  for (int i = -400; i <= 400; ++i) {
    const auto by = axis.turn(radians(40) * i / 400);
    const motion::RoundedWheel w{by * wheel, by.linear() * motion::axle_direction(nose), nose.wheel.diameter,
                                 nose.wheel.width, nose.wheel.shoulder_radius};
    least =
        std::min({least, panel.clearance(w, panel.open), motion::mirrored(panel).clearance(w, panel.open)});
  }
  CHECK(of(a, "steer.clearance")->value == Approx(least).margin(2e-4));
}

TEST_CASE(
    "brakes: moments about the third wheel, a tail dragger's nose-over, and the skid that was the brake") {
  // Against the balance written out: loads of both axles in the braked run.
  for (const bool tail : {false, true})
    for (const double height : {0.3, 0.8}) {
      const steer::Braking b{2.0, 0.3, height, tail, 0.5};
      const double slows = steer::deceleration(b);
      const double mains = tail ? (2.0 - 0.3 + slows * height) / 2.0 : (2.0 - 0.3 - slows * height) / 2.0;
      if (!tail)
        CHECK(slows == Approx(0.5 * mains));
      else
        CHECK(slows <= std::min(0.5 * std::min(1.0, mains), 0.3 / height) + 1e-12);
    }
  Design d = demo("wheatear");
  REQUIRE(d.gear.has(LegRole::tail));
  d.gear.third().skid = false;
  d.gear.brakes = false;
  const auto a = assess(d);
  const Finding* f = worst(a, "steer.brakes");
  REQUIRE(f);
  CHECK(f->verdict == Verdict::fails);
  CHECK_FALSE(cures_that_work(d, "steer.brakes").empty());
  d.gear.third().skid = true;
  CHECK(worst(assess(d), "steer.brakes")->value > 0);
}
