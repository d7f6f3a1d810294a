// SPDX-License-Identifier: GPL-3.0-or-later
//! Swing and drive: axes that carry, twists and strokes by virtual work, energy round a cycle, mirrors,
//! locks, falls.
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>
#include <random>

#include "core/drive/fall.h"
#include "core/drive/machines.h"
#include "core/drive/servo.h"
#include "core/drive/servo_tester.h"
#include "core/motion/linkage.h"
#include "core/swing/axis_finder.h"
#include "core/swing/locks.h"
#include "core/swing/pair.h"

using namespace kranich;
using motion::Carried;

namespace {

constexpr double pi = std::numbers::pi;

class Chance {
 public:
  explicit Chance(unsigned seed) : engine_(seed) {}
  double between(double low, double high) {
    return std::uniform_real_distribution<double>(low, high)(engine_);
  }
  Vec3 vec(double size) { return {between(-size, size), between(-size, size), between(-size, size)}; }
  Vec3 direction() {
    for (;;) {
      const Vec3 v = vec(1);
      if (v.norm() > 0.2 && v.norm() < 1) return v.normalized();
    }
  }

 private:
  std::mt19937 engine_;
};

//! A leg that turns about a skewed axis, twists by a rod and is pulled in.
motion::Retracting any_leg(Chance& c) {
  for (;;) {
    motion::Retracting r;
    r.axis = {c.vec(1), c.direction()};
    r.full_turn = c.between(1.2, 2);
    r.line = {r.axis.point + c.vec(0.1), (Vec3(0, 0, -1) + c.vec(0.3)).normalized()};
    const Vec3 collar =
        r.line.point + 0.1 * r.line.direction + 0.08 * r.line.direction.cross(c.direction()).normalized();
    r.twist = motion::TwistRod{r.axis.point + c.vec(0.15), collar};
    r.stroke = {{0, 0}, {r.full_turn / 2, 0.02}, {r.full_turn, 0.05}};
    bool reaches = true;  // with something to spare, so that it is nowhere near its dead centre
    for (int i = 0; i <= 50; ++i) reaches = reaches && std::abs(r.twist_rate(r.full_turn * i / 50)) < 4;
    if (reaches) return r;
  }
}

drive::LegLoad load_of(const motion::Retracting& r, Chance& c) {
  drive::LegLoad l;
  l.moves = r;
  l.masses = {{3, r.axis.point + c.vec(0.4), Carried::leg}, {2, r.axis.point + c.vec(0.6), Carried::wheel}};
  l.load_factor = c.between(1, 2);
  l.pitch = c.between(-0.2, 0.2);
  l.roll = c.between(-0.2, 0.2);
  l.spring = drive::DownSpring{{r.axis.point + c.vec(0.5), r.axis.point + c.vec(0.3)}, 200, 1.4, 1.5, 1.5};
  return l;
}

}  // namespace

TEST_CASE("a wheel carried by the axis that was found lands where it was wanted") {
  Chance c(7);
  for (int i = 0; i < 300; ++i) {
    const swing::WheelPose down{c.vec(2), c.direction()};
    const swing::WheelPose stowed{c.vec(2), c.direction()};
    for (const bool reversed : {false, true}) {
      const auto found = swing::find_axes(down, stowed, reversed);
      REQUIRE(found.family == swing::AxisFamily::one);
      REQUIRE(found.axes.size() == 1);
      const auto& one = found.axes.front();
      CHECK(one.turn > 0);
      CHECK(one.turn <= pi);
      const auto turned = one.axis.turn(one.turn);
      CHECK((turned * down.centre - stowed.centre).norm() < 1e-9);
      CHECK((turned.linear() * down.axle - (reversed ? -1 : 1) * stowed.axle).norm() < 1e-9);
      const Vec3 from_middle = one.axis.point - (down.centre + stowed.centre) / 2;
      CHECK(std::abs(from_middle.dot(one.axis.direction)) < 1e-9);
      // Sensitivity: what it foretells is what a small error does, to first order at most.
      const double off = 1e-6;
      swing::WheelPose moved = stowed;
      moved.centre += off * c.direction();
      const auto again = swing::find_axes(down, moved, reversed).axes.front();
      const double turned_by = (again.axis.direction - one.axis.direction).norm();
      CHECK(std::min(turned_by, (again.axis.direction + one.axis.direction).norm()) <=
            off * one.sensitivity_place * 1.01 + 1e-10);
    }
  }
}

TEST_CASE("what two wheel poses leave open is named, and the unit angle picks from it") {
  const Vec3 y = Vec3::UnitY();
  // A plain aft swing: a family, two for each unit angle, each of which carries.
  const swing::WheelPose down{{2, 0.9, -0.9}, y};
  const swing::WheelPose stowed{{2.6, 0.9, -0.3}, y};
  auto found = swing::find_axes(down, stowed, false);
  CHECK(found.family == swing::AxisFamily::by_angle);
  CHECK(found.axes.empty());
  found = swing::find_axes(down, stowed, false, 100 * pi / 180);
  REQUIRE(found.axes.size() == 2);
  for (const auto& one : found.axes) {
    CHECK(one.turn == Approx(100 * pi / 180));
    CHECK((one.axis.turn(one.turn) * down.centre - stowed.centre).norm() < 1e-12);
  }
  // Along its axle nothing turns a wheel.
  found = swing::find_axes(down, {{2.6, 1.0, -0.3}, y}, false);
  CHECK(found.family == swing::AxisFamily::none);
  CHECK(found.along_axle == Approx(0.1));
  // Sideways by a right angle, axle square to the leg: with one sense a fan.
  const swing::WheelPose flat{{2, 0.3, -0.3}, Vec3::UnitZ()};
  const swing::WheelPose standing{{2, 0.9, -0.9}, y};
  int fans = 0;
  for (const bool reversed : {false, true}) {
    const auto sideways = swing::find_axes(standing, flat, reversed);
    fans += sideways.family == swing::AxisFamily::fan;
    REQUIRE_FALSE(sideways.axes.empty());
    const auto& one = sideways.axes.front();
    CHECK((one.axis.turn(one.turn) * standing.centre - flat.centre).norm() < 1e-12);
    CHECK((one.axis.turn(one.turn).linear() * y - (reversed ? -1 : 1) * Vec3::UnitZ()).norm() < 1e-12);
  }
  CHECK(fans == 1);
  CHECK(swing::find_axes(standing, {standing.centre, Vec3::UnitX()}, false).family ==
        swing::AxisFamily::in_place);
}

TEST_CASE("the nearest axis in a plane misses no more than any other direction in it") {
  Chance c(11);
  for (int i = 0; i < 8; ++i) {
    const swing::WheelPose down{c.vec(1), c.direction()};
    const swing::WheelPose stowed{c.vec(1), c.direction()};
    const Vec3 normal = c.direction();
    const auto best = swing::nearest_in_plane(normal, down, stowed, 0.4);
    CHECK(std::abs(best.axis.direction.dot(normal)) < 1e-9);
    // It is what the turn leaves: carry the wheel and measure.
    const auto turned = best.axis.turn(best.turn);
    CHECK((turned * down.centre - stowed.centre).norm() == Approx(best.place_miss).margin(1e-9));
    for (int k = 0; k < 200; ++k) {
      const Vec3 other = normal.cross(c.direction()).normalized();
      CHECK(swing::nearest_along(other, down, stowed, 0.4).combined(0.4) >= best.combined(0.4) - 1e-7);
    }
  }
}

TEST_CASE("velocities of the one kinematic description are those of its poses") {
  Chance c(3);
  for (int i = 0; i < 60; ++i) {
    const auto r = any_leg(c);
    const Vec3 point = r.axis.point + c.vec(0.8);
    for (const double share : {0.1, 0.35, 0.8}) {
      const double turn = share * r.full_turn;
      constexpr double h = 1e-6;
      for (const Carried what : {Carried::leg, Carried::wheel}) {
        const Vec3 by_difference =
            (r.pose(what, turn + h) * point - r.pose(what, turn - h) * point) / (2 * h);
        CHECK((r.velocity(what, point, turn) - by_difference).norm() < 2e-7 * (1 + by_difference.norm()));
      }
    }
    const motion::TwistRod& rod = std::get<motion::TwistRod>(r.twist);
    const double length = (rod.collar - rod.airframe).norm();
    const double turn = 0.7 * r.full_turn;
    const Vec3 collar = r.axis.turn(turn) * r.line.turn(r.twist_at(turn)) * rod.collar;
    CHECK((collar - rod.airframe).norm() == Approx(length).epsilon(1e-12));
    CHECK(r.twist_at(0) == Approx(0).margin(1e-12));
  }
}

TEST_CASE("energy round a closed cycle without friction is nothing, and up is what the weight gained") {
  Chance c(5);
  for (int i = 0; i < 20; ++i) {
    const auto r = any_leg(c);
    auto l = load_of(r, c);
    // Gravity by its potential: what the torque does over the travel.
    l.spring.reset();
    double gained = 0;
    for (const auto& m : l.masses) {
      const Vec3 moved = r.pose(m.carried, r.full_turn) * m.at - m.at;
      gained -= m.mass * l.load_factor * drive::gravity(l.pitch, l.roll).dot(moved);
    }
    // The stroke's rate jumps where its table bends: the two halves by themselves.
    const double first = drive::work_over(r.full_turn / 2, [&](double t) { return l.weight_torque(t); });
    const double second =
        drive::work_over(r.full_turn / 2, [&](double t) { return l.weight_torque(r.full_turn / 2 + t); });
    CHECK(-(first + second) == Approx(gained).epsilon(1e-8).margin(1e-8));
  }
}

TEST_CASE("mirrored legs mirror, whatever they do on the way") {
  Chance c(9);
  for (int i = 0; i < 40; ++i) {
    const auto r = any_leg(c);
    const auto twin = motion::mirrored(r);
    const Vec3 point = r.axis.point + c.vec(0.7);
    const double turn = c.between(0, r.full_turn);
    for (const Carried what : {Carried::leg, Carried::wheel}) {
      CHECK((twin.pose(what, turn) * kranich::mirrored(point) - kranich::mirrored(r.pose(what, turn) * point))
                .norm() < 1e-12);
      CHECK((twin.velocity(what, kranich::mirrored(point), turn) -
             kranich::mirrored(r.velocity(what, point, turn)))
                .norm() < 1e-11);
    }
  }
}

TEST_CASE("lift-and-turn: its rod keeps its length, equal arms and steering arm do not turn it at all") {
  motion::LiftAndTurn l;
  l.arms = {Vec3(1, 0.2, 0), Vec3::UnitX()};
  l.arm = Vec3(0, 0.2, -0.22);
  l.king_pin = Vec3::UnitZ();
  l.steering_arm = Vec3(0.06, -0.02, 0.01);
  l.rod_fixed = Vec3(1.02, 0.08, 0.05);
  l.full_turn = 1.7;
  for (const double share : {0.0, 0.2, 0.5, 0.9}) {
    const double turn = share * l.full_turn;
    const Vec3 ball = l.carriage(turn).pose * (l.king_pin_at(0) + l.steering_arm);
    CHECK((ball - l.rod_fixed).norm() == Approx(l.rod_length()).epsilon(1e-12));
    constexpr double h = 1e-6;
    CHECK(l.carrier_rate(turn) ==
          Approx((l.carrier_turn(turn + h) - l.carrier_turn(turn - h)) / (2 * h)).epsilon(1e-5).margin(1e-7));
  }
  l.rod_fixed = l.arms.point + l.steering_arm;  // as long as the arms, parallel to them
  for (const double share : {0.3, 1.0}) CHECK(l.carrier_turn(share * l.full_turn) == Approx(0).margin(1e-9));
}

TEST_CASE("two wheels: any combination is no further apart than every pair tried") {
  Chance c(21);
  for (int i = 0; i < 3; ++i) {
    motion::Retracting r;
    r.axis = {{2.2, 0.82, -0.15}, Vec3(-1, c.between(-0.1, 0.1), c.between(-0.1, 0.1)).normalized()};
    r.full_turn = 1.65;
    r.line = {r.axis.point, Vec3(0, 0, -1)};
    const motion::RoundedWheel wheel{{2.2, 0.86, -0.7}, Vec3::UnitY(), 0.36, 0.12, 0.03};
    const auto other = mirrored(r);
    const auto there = swing::mirrored(wheel);
    const auto least = swing::least_of_any(r, wheel, other, there);
    CHECK(least.distance <= swing::least_together(r, wheel, other, there).distance + 1e-6);
    for (int k = 0; k < 150; ++k) {
      const double a = c.between(0, r.full_turn);
      const double b = c.between(0, r.full_turn);
      CHECK(swing::between(swing::wheel_at(r, wheel, a), swing::wheel_at(other, there, b)) >=
            least.distance - 5e-6);
    }
  }
}

TEST_CASE("a folding brace: straight links have nothing past straight, its unlocking is its energy") {
  swing::FoldingBrace b;
  b.pivot = {0, 0};
  b.pin = {0.04, -0.32};
  b.anchor = {0.46, -0.02};
  const double span = (b.pin - b.anchor).norm();
  b.at_anchor = 0.25;
  b.at_leg = span - 0.25;
  CHECK(swing::brace_figures(b).past_straight == Approx(0).margin(1e-6));
  b.at_leg += 0.0005;
  b.spring_moment = 3;
  const auto figures = swing::brace_figures(b);
  CHECK(figures.past_straight > 0);
  // Moments about the pivot balance.
  const Eigen::Vector2d load(1500, 0);
  const Eigen::Vector2d wheel(-0.03, -0.78);
  const auto under = swing::brace_under(b, wheel, load);
  const double moment = wheel.x() * load.y() - wheel.y() * load.x();
  CHECK(std::abs(under.force) * figures.arm == Approx(std::abs(moment)));
  CHECK(under.held == Approx(under.force * figures.offset + 3));
  // Without load the spring alone is to be overcome: its moment at the knee, opened by both links' turning.
  const double alone = swing::force_to_unlock(b, wheel, {0, 0});
  CHECK(alone == Approx(3 / b.at_anchor * (1 + b.at_anchor / b.at_leg * std::cos(figures.past_straight)))
                     .epsilon(0.03));  // the leg goes along a little
  // In passing straight the pins part by what the links are longer.
  CHECK(swing::way_past_straight(b, b.pin) ==
        Approx((b.at_anchor + b.at_leg - span) / figures.arm * (b.pin - b.pivot).norm()).epsilon(0.01));
}

TEST_CASE("an actuator's arm is its length's slope, its work the load's; a hook holds the leg's moment") {
  Chance c(13);
  for (int i = 0; i < 30; ++i) {
    const auto r = any_leg(c);
    auto l = load_of(r, c);
    const drive::Strut s{r.axis.point + c.vec(0.6), r.axis.point + c.vec(0.4)};
    const double turn = 0.4 * r.full_turn;
    constexpr double h = 1e-6;
    CHECK(drive::arm_of(r, s, turn) ==
          Approx((drive::length_of(r, s, turn + h) - drive::length_of(r, s, turn - h)) / (2 * h))
              .epsilon(1e-6)
              .margin(1e-7));
    CHECK(drive::actuator_force(l, s, turn) * drive::arm_of(r, s, turn) == Approx(-l.sum(turn)));
    const auto f = drive::actuator_figures(l, s);
    for (const double dead : f.dead_centres) CHECK(std::abs(drive::arm_of(r, s, dead)) < 1e-9);
    CHECK(f.dead_centres.empty() == std::isfinite(f.highest_push.value));
  }
  swing::Uplock lock{{Vec3::Zero(), Vec3::UnitX()}, 10, 3, {0, 0.5, 0}, {0, 0.8, 0}, Vec3::UnitZ()};
  CHECK(swing::hook_force(lock) == Approx(10 * 3 * 9.80665 * 0.5 / 0.8));
}

TEST_CASE("a geared motor: time by its line, with inertia more, and a stall never gets there") {
  drive::GearedMotor m{{1.9, 420, 1.4, 68}, 0.12, 0.016, 48, 0.55};
  const auto easy = drive::run_over(
      m, 1.6, [](double) { return 0.0; }, 0);
  CHECK(easy.time_steady == Approx(1.6 * 360 / 420));
  const auto loaded = drive::run_over(
      m, 1.6, [](double) { return 50.0; }, 3);
  CHECK(loaded.time_steady == Approx(1.6 * 360 / (420 * (1 - 50.0 / (360 * 0.55) / 1.9))));
  CHECK(loaded.time_from_rest > loaded.time_steady);
  CHECK(loaded.tooth_load == Approx(50 / 0.12));
  const auto stalled = drive::run_over(
      m, 1.6, [](double) { return 600.0; }, 3);
  CHECK(stalled.stall_margin < 1);
  CHECK(std::isinf(stalled.time_steady));
  const drive::HydraulicCylinder c{0.03, 0.012, 7e6, 3e5, 0.5};
  CHECK(drive::least_bore(c, c.push()) == Approx(0.03));
  CHECK(drive::least_bore_to_pull(c, c.pull()) == Approx(0.03));
}

namespace {

//! A servo beside a unit of an arm of 15 mm, over centre at both ends.
drive::ServoLinkage some_linkage(Chance& c) {
  drive::ServoLinkage l;
  l.servo = {c.between(0.05, 0.12), c.between(-0.03, 0.03)};
  l.pivot = {0, 0};
  l.unit_arm = 0.015;
  l.down = c.between(0.6, 1.2);
  l.stowed = l.down + c.between(1.2, 1.7);
  l.over_centre = 0.05;
  return l;
}

}  // namespace

TEST_CASE("a servo is in line with its rod at both ends of the unit's travel, whichever way it lies") {
  Chance c(17);
  for (int i = 0; i < 60; ++i) {
    const drive::ServoLinkage l = some_linkage(c);
    const auto f = drive::fit_servo(l);
    if (f.servo_arm < 0.003) continue;
    CHECK(drive::between_arm_and_rod(l, f, f.angle_down) < 1e-5);
    CHECK(drive::between_arm_and_rod(l, f, f.angle_stowed) < 1e-5);
    CHECK(drive::unit_at(l, f, f.angle_down) == Approx(l.down).epsilon(1e-7));
    CHECK(drive::unit_at(l, f, f.angle_stowed) == Approx(l.stowed).epsilon(1e-7));
    CHECK(f.arm_at(0) == Approx(f.neutral - std::copysign(f.throw_all / 2, f.turn)));
    // What a steady torque asks is its work: no less than the mean over the servo's way, nothing at its ends.
    const auto most = drive::hardest_at_servo(l, f, 1.5, [](double) { return 2.0; });
    CHECK(most.torque > 2.0 * 1.5 / std::abs(f.turn));
    CHECK(most.turn > 0);
    CHECK(most.turn < 1.5);
    // On the way the unit never turns back.
    double before = l.down;
    for (int k = 1; k < 20; ++k) {
      const double now = drive::unit_at(l, f, f.angle_down + f.turn * k / 20);
      CHECK(now > before);
      before = now;
    }
  }
}

TEST_CASE("a servo on the tester rests at the ends of its linkage, and binds where the unit stops before") {
  Chance c(23);
  int tried = 0;
  for (int i = 0; i < 60; ++i) {
    const drive::ServoLinkage l = some_linkage(c);
    drive::TestedUnit u{l, drive::fit_servo(l), radians(80)};
    if (u.fit.servo_arm < 0.003) continue;
    ++tried;
    u.stall_torque = 2;
    u.stall_current = 3;
    u.idle_current = 0.1;
    u.speed = 4;
    u.stiffness = 4e4;
    for (const bool stowed : {false, true}) {
      const double end = drive::end_point(u, stowed);
      CHECK(std::abs(end) == Approx(100 * u.fit.throw_all / 2 / radians(80)));
      CHECK((end > 0) == stowed);
      drive::ServoTester drawn(u);
      drawn.go(end);
      // In the time that its speed gives it, and not before.
      const double time = u.fit.throw_all / 2 / u.speed;
      drawn.advance(0.98 * time);
      CHECK(drawn.now().moves);
      CHECK(drawn.now().current > u.idle_current);
      for (int k = 0; k < 10; ++k) drawn.advance(0.01 * time);
      CHECK_FALSE(drawn.now().moves);
      CHECK_FALSE(drawn.now().binds);
      CHECK(drawn.now().percent == Approx(end));
      CHECK(drawn.now().current == u.idle_current);
      // Over its centre by a little the unit comes back by less.
      CHECK(drawn.now().unit == Approx(stowed ? 1 : 0).margin(0.01));
      CHECK(std::isnan(drive::binds_from(u, stowed)));

      // A soft rod gives: over its centre the servo rests, and only the unit tells.
      drive::TestedUnit early = u;
      (stowed ? early.stowed_early : early.down_early) = radians(6);
      const double stop = drive::binds_from(early, stowed);
      CHECK(std::abs(stop) < std::abs(end));
      const double there = u.fit.neutral + (u.fit.turn < 0 ? -1 : 1) * stop / 100 * radians(80);
      CHECK(drive::unit_at(l, u.fit, there) ==
            Approx(stowed ? l.stowed - radians(6) : l.down + radians(6)).margin(1e-9));
      drive::ServoTester stopped(early);
      stopped.go(end);
      stopped.advance(10);
      CHECK_FALSE(stopped.now().moves);
      CHECK(stopped.now().percent == Approx(end));
      CHECK(stopped.now().unit ==
            Approx(stowed ? 1 - radians(6) / (l.stowed - l.down) : radians(6) / (l.stowed - l.down)));
      // A stiff one holds it before.
      early.stiffness = 8e6;
      stopped = drive::ServoTester(early);
      stopped.go(end);
      stopped.advance(10);
      const auto bound = stopped.now();
      CHECK(bound.binds);
      CHECK_FALSE(bound.moves);
      CHECK(bound.unit ==
            Approx(stowed ? 1 - radians(6) / (l.stowed - l.down) : radians(6) / (l.stowed - l.down)));
      CHECK(bound.current == Approx(3).epsilon(0.02));
      CHECK(std::abs(bound.percent) <= std::abs(end) + 1e-9);
      CHECK(std::abs(bound.percent) >= std::abs(stop) - 1e-9);
      // Just before the stop it rests; the other end does not mind.
      stopped.go(stop * 0.999);
      stopped.advance(10);
      CHECK_FALSE(stopped.now().binds);
      CHECK(stopped.now().current == 0.1);
      stopped.go(-end);
      stopped.advance(10);
      CHECK_FALSE(stopped.now().binds);
      // Limp it draws nothing and stays.
      stopped.off();
      stopped.go(std::nan(""));
      stopped.advance(1);
      CHECK(stopped.now().current == 0);
      CHECK(stopped.now().percent == Approx(-end));
    }
  }
  CHECK(tried > 40);
  drive::ServoLinkage l{{0.08, 0}, {0, 0}, 0.015, 0.9, 2.3};
  drive::ServoTester far(drive::TestedUnit{l, drive::fit_servo(l), radians(60)});
  far.go(900);
  CHECK(far.goal() == 150);
}

TEST_CASE("a leg that falls free keeps its energy; friction and fluid take from it") {
  drive::FreeFall f;
  f.load.moves.axis = {Vec3::Zero(), Vec3(0, -1, 0)};
  f.load.moves.full_turn = 1.6;
  f.load.moves.line = {Vec3::Zero(), Vec3(0, 0, -1)};
  f.load.masses = {{9, {0.05, 0, -0.45}}};
  f.inertia = 2.1;
  const auto free = drive::fall(f);
  REQUIRE(free.reaches_lock);
  const Vec3 stowed = f.load.moves.pose(Carried::leg, 1.6) * f.load.masses[0].at;
  const double lost = 9 * 9.80665 * (stowed.z() - f.load.masses[0].at.z());
  CHECK(0.5 * f.inertia * free.arrival_speed * free.arrival_speed == Approx(lost).epsilon(1e-6));
  f.fluid = 10;
  const auto damped = drive::fall(f);
  CHECK(damped.arrival_speed < free.arrival_speed);
  CHECK(damped.time > free.time);
  f.load.friction.constant = 1e3;
  CHECK_FALSE(drive::fall(f).reaches_lock);
  CHECK(drive::fall(f).stops_at == Approx(1.6));
}

TEST_CASE("the airspeed up to which a leg falls to its lock is where following it says so") {
  int found = 0;
  for (const double sense : {1.0, -1.0})
    for (const double fluid : {0.0, 4.0})
      for (const double share : {0.0, 0.15}) {
        drive::FreeFall f;
        f.load.moves.axis = {Vec3::Zero(), Vec3(0, -1, 0)};
        f.load.moves.full_turn = 1.6;
        f.load.moves.line = {Vec3::Zero(), Vec3(0, 0, -1)};
        f.load.masses = {{9, {0.05, 0, -0.45}}};
        f.load.air = {Vec3(0, 0, -1), Vec3(0, 0, -0.45), 0.05, 0.02, Carried::leg};
        f.load.stream.direction = sense * Vec3::UnitX();
        f.load.friction = {share, 0.5};
        f.inertia = 2.1;
        f.fluid = fluid;
        const double limit = drive::limit_speed(f, 0.5, 90);
        if (!std::isfinite(limit)) continue;
        ++found;
        INFO(sense << " " << fluid << " " << share << " " << limit);
        const auto reaches = [&](double speed) {
          f.load.stream.speed = speed;
          return drive::fall(f).reaches_lock;
        };
        CHECK(reaches(0.9995 * limit));
        CHECK_FALSE(reaches(1.0005 * limit));
      }
  // Against the stream it ceases somewhere, with it it never does.
  CHECK(found == 4);
}
