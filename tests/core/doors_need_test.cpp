// SPDX-License-Identifier: GPL-3.0-or-later
//! Doors of a design: however they are moved, what they pass, what holds them, and the cures.
#include <catch2/catch.hpp>
#include <numbers>
#include <random>

#include "core/assess/cures.h"
#include "core/assess/doors_state.h"
#include "core/base/quantity.h"
#include "core/io/project_file.h"
#include "core/io/stock.h"
#include "core/model/consistency.h"
#include "core/motion/retract.h"
#include "demo.h"
#include "said.h"
#include "timed.h"

using namespace kranich;

namespace {

//! The leg that a door covers.
const Leg& leg_of(const Design& d, const DoorState& s) {
  const auto door =
      std::find_if(d.doors.begin(), d.doors.end(), [&](const Door& x) { return x.id == s.door; });
  REQUIRE(door != d.doors.end());
  return *d.gear.find(door->leg);
}

//! Dunnock with its main door alone, moved otherwise.
Design with_door(DoorWay way) {
  Design d = demo("dunnock");
  d.doors.resize(1);
  d.sequence.up.clear();
  d.sequence.down.clear();
  d.doors[0].drive = {};
  d.doors[0].hold = {};
  d.doors[0].mass = d.doors[0].cg_out = Given();
  d.doors[0].drive.way = way;
  return d;
}
const Finding* of(const Assessment& a, std::string_view id, std::string_view subject = "door:main-doors") {
  for (const auto& f : a.findings)
    if (f.measure_id == id && f.subject.key == subject) return &f;
  return nullptr;
}
//! Cures of a finding; each is put in and must do what it says.
std::vector<Cure> cures_that_work(const Design& d, std::string_view id,
                                  std::string_view subject = "door:main-doors") {
  const auto before = assess(d);
  const Finding* f = of(before, id, subject);
  REQUIRE(f);
  REQUIRE(f->verdict == Verdict::fails);
  auto cures = cures_for(d, before, *f, {6, &shipped_stock()});
  for (const auto& c : cures) {
    const Design cured = c.applied(d);
    INFO(id << ": " << plain(c.text));
    const auto after = assess(cured);
    const Finding* now = of(after, id, subject);
    REQUIRE(now);
    CHECK(now->verdict != Verdict::fails);
    CHECK(now->verdict != Verdict::unknown);
    CHECK(read_project(write_project(cured)).design);
  }
  return cures;
}
Vec3 out_from_hinge(const Door& d, double along, double out, double in) {
  const auto panel = *motion::panel_of(d);
  return panel.hinge.point + along * (panel.rear - panel.hinge.point).normalized() + out * panel.across(0) -
         in * panel.hinge.direction.cross(panel.across(0));
}

//! A crank that goes parallel to the door's horn.
void put_crank(Design& d, size_t i = 0) {
  Door& door = d.doors[i];
  DoorDrive& r = door.drive;
  r.way = DoorWay::crank;
  const Vec3 ball = out_from_hinge(door, 0.2, 0.03, 0.03);
  const Vec3 hinge = out_from_hinge(door, 0.2, 0, 0);
  // Square to the horn half way.
  const Vec3 crank = hinge + Vec3(0, 0, 0.12);
  r.door_ball.set(ball);
  r.crank.set(crank);
  r.crank_ball.set(crank + (ball - hinge));
  // Seen from the front a starboard door that lies outboard opens anticlockwise or not: as its hinge turns.
  const auto panel = *motion::panel_of(door);
  const Vec3 forward = (panel.hinge.point - panel.rear).normalized();
  r.throw_open = Given(panel.hinge.direction.dot(forward) > 0 ? door.open_angle.si : -door.open_angle.si);
}

}  // namespace

TEST_CASE("a door on a parallel crank opens as far as the crank turns, and says what its bracket gains") {
  Design d = with_door(DoorWay::crank);
  const auto bare = assess(d);
  REQUIRE(of(bare, "doors.travel"));
  CHECK(of(bare, "doors.travel")->verdict == Verdict::unknown);
  CHECK(plain(of(bare, "doors.travel")->remark).find("the rod's end on the door") != std::string::npos);
  put_crank(d);
  const auto a = assess(d);
  const Finding* f = of(a, "doors.travel");
  REQUIRE(f);
  CHECK(f->value == Approx(d.doors[0].open_angle.si).epsilon(1e-9));
  CHECK(f->verdict == Verdict::holds);
  CHECK(of(a, "doors.transmission")->value < radians(90));
  REQUIRE(of(a, "doors.bracket"));
  // A millimetre more, by hand.
  Design moved = d;
  moved.doors[0].drive.crank.z.si += 1e-3;
  moved.doors[0].drive.crank_ball.z.si += 1e-3;
  const auto further = assess(moved);
  CHECK(of(further, "doors.travel")->value - f->value == Approx(of(a, "doors.bracket")->value).margin(2e-4));

  // A crank that turns too little: its throw, or another hole on it.
  d.doors[0].drive.throw_open.si *= 0.7;
  CHECK(cures_that_work(d, "doors.travel").size() >= 2);
  // One that goes on until it locks.
  d.doors[0].drive.throw_open.si *= 2.4 / 0.7;
  const auto far = assess(d);
  CHECK(of(far, "doors.end")->verdict == Verdict::fails);
}

TEST_CASE("two doors on one crank: the second follows it, and where its rod must hang is found") {
  Design d = with_door(DoorWay::crank);
  put_crank(d);
  Door second = d.doors[0];
  second.id = "outer";
  second.name = "outer door";
  second.open_angle = Given(radians(60));
  second.drive.with = "main-doors";
  second.drive.crank = {};
  second.drive.throw_open = Given();
  d.doors.push_back(second);
  REQUIRE(inconsistencies(d).empty());
  const auto a = assess(d);
  // Same ball, same rod: it opens as far as the first, which is too far for it.
  CHECK(of(a, "doors.travel", "door:outer")->value == Approx(of(a, "doors.travel")->value));
  const auto cures = cures_that_work(d, "doors.travel", "door:outer");
  const auto solved = std::find_if(cures.begin(), cures.end(), [](const Cure& c) {
    return c.parts.size() == 1 && c.parts[0].knob->id == "outer.door_crank_ball";
  });
  REQUIRE(solved != cures.end());
  const Design put = solved->applied(d);
  const auto both = assess(put);
  CHECK(of(both, "doors.travel", "door:outer")->value == Approx(radians(60)).margin(1e-6));
  CHECK(of(both, "doors.transmission", "door:outer")->value >= radians(30));
  CHECK(put.doors[0] == d.doors[0]);

  // It hangs on nothing, on itself, or on one that hangs itself: refused. Its crank's door gone: its own
  // again.
  for (const char* with : {"nobody", "outer"}) {
    Design bad = d;
    bad.doors[1].drive.with = with;
    CHECK_FALSE(inconsistencies(bad).empty());
  }
  Design chain = d;
  chain.doors[0].drive.with = "outer";
  CHECK_FALSE(inconsistencies(chain).empty());
  const auto gone = changed(d, [](Design& x) { x.doors.erase(x.doors.begin()); });
  REQUIRE(std::holds_alternative<Design>(gone));
  CHECK(std::get<Design>(gone).doors[0].drive.with.empty());
}

TEST_CASE("a rod from the leg keeps its length, closes with the leg stowed, and a bad one is cured") {
  Design d = with_door(DoorWay::leg_rod);
  const auto moves = *motion::retracting(d.gear.main());
  Door& door = d.doors[0];
  // From a point on the leg, gear up, to the door.
  const Vec3 on_leg =
      moves.pose(motion::Carried::leg, moves.full_turn) *
      Vec3(d.gear.main().held_at() + 0.25 * (d.gear.main().axle.vec() - d.gear.main().held_at()));
  door.drive.leg_ball.set(on_leg);
  door.drive.door_ball.set(out_from_hinge(door, 0.2, 0.02, 0.03));
  const auto made = doors::leg_door(d, door);
  REQUIRE(std::holds_alternative<doors::LegDoor>(made));
  const auto& l = std::get<doors::LegDoor>(made);
  const double rod = (l.ball_at(moves.full_turn) - l.door_ball).norm();
  CHECK((l.ball_at(moves.full_turn) - on_leg).norm() < 1e-12);
  CHECK(l.opening(moves.full_turn) == Approx(0).margin(1e-9));
  int moved = 0;
  for (int i = 0; i <= 50; ++i) {
    const double turn = moves.full_turn * i / 50;
    const double open = l.opening(turn);
    if (!std::isfinite(open)) continue;
    ++moved;
    CHECK((l.panel.carried(l.door_ball, open) - l.ball_at(turn)).norm() == Approx(rod).epsilon(1e-9));
  }
  CHECK(moved > 10);
  const auto a = assess(d);
  const Finding* f = of(a, "doors.travel");
  REQUIRE(f);
  // Over the whole way: what locks says so, what does not opens as far as it is told to.
  const bool locks = moved < 51;
  CHECK(std::isfinite(f->value) == !locks);
  CHECK(f->verdict == Verdict::fails);
  if (!locks) CHECK(f->value == Approx(l.opening(0)));
  CHECK(doors::opening_at(d, door, 1) == Approx(0).margin(1e-9));
}

TEST_CASE("a wire lets the door open as far as it is long, and says what it lacks") {
  Design d = with_door(DoorWay::wire);
  const Leg& leg = d.gear.main();
  const auto moves = *motion::retracting(leg);
  Door& door = d.doors[0];
  // Tied near the pivot, where the leg takes little of it.
  const Vec3 on_leg = moves.pose(motion::Carried::leg, moves.full_turn) *
                      Vec3(leg.held_at() + 0.05 * (leg.axle.vec() - leg.held_at()));
  door.drive.leg_ball.set(on_leg);
  door.drive.door_ball.set(out_from_hinge(door, 0.2, 0.35, 0));
  const auto panel = *motion::panel_of(door);
  // By hand: the distance of its ends over the leg's turn and the door's opening.
  const auto apart = [&](double turn, double open) {
    const Vec3 end = moves.pose(motion::Carried::leg, turn) *
                     (moves.pose(motion::Carried::leg, moves.full_turn).inverse() * on_leg);
    return (panel.carried(door.drive.door_ball.vec(), open) - end).norm();
  };
  double needed = 0;
  for (int i = 0; i <= 96; ++i) {
    double least = 1e9;
    for (int k = 0; k <= 2000; ++k)
      least = std::min(least, apart(moves.full_turn * i / 96, panel.open * k / 2000));
    needed = std::max(needed, least);
  }
  door.drive.tie_length = Given(needed + 0.02);
  auto a = assess(d);
  REQUIRE(of(a, "doors.tie"));
  CHECK(of(a, "doors.tie")->value == Approx(0.02).margin(1e-6));
  REQUIRE(of(a, "doors.shut"));
  const auto l = std::get<doors::LegDoor>(doors::leg_door(d, door));
  for (int i = 0; i <= 20; ++i) {
    const double turn = moves.full_turn * i / 20;
    const double open = l.opening(turn);
    REQUIRE(std::isfinite(open));
    CHECK(apart(turn, open) <= needed + 0.02 + 1e-9);
    if (open < panel.open - 1e-9) CHECK(apart(turn, open) == Approx(needed + 0.02).epsilon(1e-9));
  }
  CHECK(of(a, "doors.travel")->value == Approx(l.opening(0)));
  // Too short: it holds the leg.
  door.drive.tie_length = Given(needed - 0.01);
  a = assess(d);
  CHECK(of(a, "doors.tie")->verdict == Verdict::fails);
  CHECK(of(a, "doors.tie")->value == Approx(-0.01).margin(1e-6));
  CHECK_FALSE(cures_that_work(d, "doors.tie").empty());
}

TEST_CASE("a door that the wheel pushes lies on it without going through, and closes behind it") {
  Design d = with_door(DoorWay::wheel);
  const auto made = doors::leg_door(d, d.doors[0]);
  REQUIRE(std::holds_alternative<doors::LegDoor>(made));
  const auto& l = std::get<doors::LegDoor>(made);
  const double full = l.leg.moves.full_turn;
  int lying = 0;
  for (int i = 0; i <= 60; ++i) {
    const double turn = full * i / 60;
    const double open = l.opening(turn);
    if (!std::isfinite(open)) continue;
    const double room = doors::clearance(l.leg, l.panel, turn, open);
    CHECK(room > -1e-6);
    if (open > 0) {
      ++lying;
      CHECK(room < 1e-5);
      // Nothing further open is in the way either: it comes from there.
      for (int k = 1; k <= 10; ++k)
        CHECK(doors::clearance(l.leg, l.panel, turn, open + (l.panel.open - open) * k / 10) > -1e-6);
    }
  }
  CHECK(lying > 3);
  const auto a = assess(d);
  REQUIRE(of(a, "doors.travel"));
  REQUIRE(of(a, "doors.shut"));
  CHECK(of(a, "doors.shut")->value == Approx(0).margin(1e-9));
  // A hinge that does not go far enough.
  d.doors[0].open_angle = Given(radians(20));
  const auto stiff = assess(d);
  CHECK(of(stiff, "doors.travel")->verdict == Verdict::fails);
  CHECK_FALSE(cures_that_work(d, "doors.travel").empty());
}

TEST_CASE(
    "a door that the wheel pushes says what it lacks to close again; its weight opens it, its spring shuts "
    "it") {
  Design d = with_door(DoorWay::wheel);
  Door& door = d.doors[0];
  CHECK(of(assess(d), "doors.closing")->verdict == Verdict::unknown);  // nothing said of what shuts it
  door.mass = Given(0.5);
  door.cg_out = Given(0.2);
  door.hold.airspeed = Given(0.0);
  door.hold.hinge_stiffness = Given(0.0);
  door.hold.hinge_friction = Given(0.0);
  auto a = assess(d);
  const Finding* f = of(a, "doors.closing");
  REQUIRE(f);
  // It hangs level when it is closed: there its weight opens it most, and nothing holds it.
  CHECK(f->value == Approx(-1.3 * 0.5 * standard_gravity * 0.2).epsilon(0.01));
  CHECK(f->verdict == Verdict::fails);
  CHECK_FALSE(of(a, "doors.hold"));
  const double alone = f->value;
  // Friction on the way back asks for as much again, and the reserve on it.
  door.hold.hinge_friction = Given(0.1);
  CHECK(of(assess(d), "doors.closing")->value == Approx(alone - 0.13).margin(1e-6));
  door.hold.hinge_friction = Given(0.0);
  // A spring straight above its point on the door pulls with all of its arm.
  const Vec3 on_door = out_from_hinge(door, 0.1, 0.2, 0);
  door.hold.spring_door.set(on_door);
  door.hold.spring_airframe.set(on_door + Vec3(0, 0, 0.2));
  door.hold.spring_length = Given(0.2);
  door.hold.spring_rate = Given(60.0);
  door.hold.spring_force = Given(10.0);
  a = assess(d);
  CHECK(of(a, "doors.closing")->verdict == Verdict::holds);
  CHECK(of(a, "doors.closing")->value <= alone + 10 * 0.2 + 1e-6);
  door.hold.spring_force = Given(5.0);
  CHECK(of(assess(d), "doors.closing")->value == Approx(alone + 5 * 0.2).epsilon(0.01));
  CHECK_FALSE(cures_that_work(d, "doors.closing").empty());
  // A ramp is entered whole, and ends further out than it begins.
  door.drive.ramp_height = Given(0.01);
  CHECK(of(assess(d), "doors.travel")->verdict == Verdict::unknown);
  door.drive.ramp_from = Given(0.1);
  door.drive.ramp_to = Given(0.05);
  CHECK(of(assess(d), "doors.travel")->verdict == Verdict::unknown);
  door.drive.ramp_to = Given(0.2);
  CHECK(of(assess(d), "doors.travel")->verdict != Verdict::unknown);
}

TEST_CASE("an arm meets its stop on the way up and shuts the panel that the leg carries") {
  Design d = with_door(DoorWay::stop_arm);
  Door& door = d.doors[0];
  DoorDrive& r = door.drive;
  // The panel rides on the leg; its arm reaches up, stowed, to a stop in the bay.
  put_crank(d);
  door.open_angle = Given(radians(60));
  r.way = DoorWay::stop_arm;
  r.throw_open = Given();
  r.stop.set(r.crank.vec() + Vec3(0, -0.02, 0.06));
  r.arm_length = Given(0.12);
  // A crank that opens the door by 60° in 40° of its own turn, the way the stop leaves it.
  const auto first = std::get<doors::LegDoor>(doors::leg_door(d, door));
  const double sense = first.arm_at(0.99 * first.leg.moves.full_turn).turn < 0 ? -1 : 1;
  const auto ball = doors::crank_ball_for(first.arm, sense * radians(40), radians(60));
  REQUIRE(ball);
  r.crank_ball.set(*ball);
  const auto made = doors::leg_door(d, door);
  REQUIRE(std::holds_alternative<doors::LegDoor>(made));
  const auto& l = std::get<doors::LegDoor>(made);
  const double full = l.leg.moves.full_turn;
  const auto stowed = l.arm_at(full);
  CHECK(stowed.turn == Approx(0).margin(1e-12));
  CHECK(stowed.along == Approx(std::hypot(0.02, 0.06)));
  CHECK(l.opening(full) == Approx(0).margin(1e-9));
  CHECK(l.arm_open == Approx(sense * radians(40)).epsilon(1e-6));
  const double met = l.stop_meets();
  REQUIRE(met > 0);
  CHECK(met < full);
  CHECK(std::abs(l.arm_at(met).turn) == Approx(radians(40)).epsilon(1e-6));
  r.arm_length = Given(l.arm_at(met).along + 0.01);
  const auto long_enough = std::get<doors::LegDoor>(doors::leg_door(d, door));
  double before = l.panel.open;
  for (int i = 0; i <= 20; ++i) {
    const double open = long_enough.opening(met + (full - met) * i / 20);
    CHECK(open <= before + 1e-9);  // it only shuts
    before = open;
  }
  CHECK(before == Approx(0).margin(1e-9));
  CHECK(long_enough.opening(0.5 * met) == Approx(l.panel.open));
  auto a = assess(d);
  REQUIRE(of(a, "doors.travel"));
  CHECK(of(a, "doors.travel")->verdict == Verdict::holds);
  REQUIRE(of(a, "doors.stop"));
  CHECK(of(a, "doors.stop")->verdict != Verdict::fails);
  // Cut short, the stop slips off its end.
  r.arm_length = Given(0.05);
  a = assess(d);
  REQUIRE(of(a, "doors.stop"));
  CHECK(of(a, "doors.stop")->verdict == Verdict::fails);
  CHECK_FALSE(cures_that_work(d, "doors.stop").empty());
  // The panel goes with the leg.
  const auto down = *doors::panel_at(d, door, 0, 0);
  const auto up = *doors::panel_at(d, door, 1, 0);
  CHECK((up[0] - door.hinge_from.vec()).norm() < 1e-9);
  CHECK((down[0] - up[0]).norm() > 0.2);
}

TEST_CASE("what holds a door: moments by hand, the spring's place solved, a magnet instead of a servo") {
  Design d = with_door(DoorWay::on_hinge);
  Door& door = d.doors[0];
  door.mass = Given(2);
  CHECK(of(assess(d), "doors.hold")->verdict == Verdict::unknown);
  door.cg_out = Given(0.2);
  door.hold.airspeed = Given(0);
  door.hold.hinge_stiffness = Given(1.5);
  const auto panel = *motion::panel_of(door);
  // Open past a right angle its weight closes it again; tape adds its own.
  const double closes = 2 * standard_gravity * 0.2 * -std::cos(panel.open) + 1.5 * panel.open;
  auto a = assess(d);
  const Finding* f = of(a, "doors.hold");
  REQUIRE(f);
  CHECK(f->value == Approx(-1.3 * closes).epsilon(1e-9));
  CHECK(f->verdict == Verdict::fails);
  // Its drive's torque holds it.
  door.drive.torque = Given(1.3 * closes + 0.4);
  a = assess(d);
  CHECK(of(a, "doors.hold")->value == Approx(0.4).epsilon(1e-6));
  REQUIRE(of(a, "doors.servo"));
  const double worst = of(a, "doors.servo")->value;
  // On the way: opening it fights the tape, at the start of closing its own weight helps.
  double least = 1e9;
  for (int i = 0; i <= 90; ++i) {
    const double x = panel.open * i / 90;
    const double m = -2 * standard_gravity * 0.2 * std::cos(x) + 1.5 * x;
    least = std::min(least, 1 - std::abs(m) / door.drive.torque);
  }
  CHECK(worst == Approx(least).margin(1e-6));
  // What it needs, whatever drive is in.
  REQUIRE(of(a, "doors.torque"));
  CHECK(of(a, "doors.torque")->value == Approx((1 - least) * door.drive.torque / 0.7).epsilon(1e-6));
  // A magnet holds it without the drive, and must be broken once.
  door.hold.magnet_force = Given(60);
  door.hold.magnet_out = Given(0.3);
  a = assess(d);
  REQUIRE(of(a, "doors.magnet"));
  CHECK(of(a, "doors.magnet")->value == Approx((60 * 0.3 - closes) / door.drive.torque).epsilon(1e-6));
  CHECK(of(a, "doors.magnet")->verdict == Verdict::fails);
  CHECK_FALSE(cures_that_work(d, "doors.magnet").empty());

  // A spring that pulls too near the hinge: where on the door it must pull is solved.
  door.hold.magnet_force = door.hold.magnet_out = Given();
  door.drive.torque = Given();
  door.hold.spring_door.set(out_from_hinge(door, 0.2, 0.01, 0));
  const Vec3 anchor = out_from_hinge(door, 0.2, -0.12, -0.1);
  door.hold.spring_airframe.set(anchor);
  door.hold.spring_force = Given(40);
  door.hold.spring_rate = Given(100);
  door.hold.spring_length = Given(0.05);
  const auto cures = cures_that_work(d, "doors.hold");
  const auto solved = std::find_if(cures.begin(), cures.end(), [](const Cure& c) {
    return c.parts.size() == 1 && c.parts[0].knob->id == "main-doors.door_spring_end";
  });
  REQUIRE(solved != cures.end());
  const auto cured = assess(solved->applied(d));
  CHECK(of(cured, "doors.hold")->value == Approx(0).margin(1e-6));
}

TEST_CASE("the region where leg and door are in each other's way holds every place that a dense look finds") {
  for (const char* name : {"dunnock", "redshank"}) {
    const Design d = demo(name);
    const auto a = assess(d);
    for (const DoorState& s : a.doors) {
      REQUIRE(s.region);
      const auto moving = std::get<swing::MovingLeg>(swing::moving_leg(leg_of(d, s)));
      const auto& r = *s.region;
      const auto columns = static_cast<int>(r.columns.size()) - 1;
      int inside = 0, outside = 0;
      for (int i = 0; i <= columns; i += 3)
        for (int k = 0; k <= 60; ++k) {
          const double turn = moving.moves.full_turn * i / columns;
          const double open = s.panel->open * k / 60;
          const double room = doors::clearance(moving, *s.panel, turn, open);
          const auto& c = r.columns[static_cast<size_t>(i)];
          const bool in = std::any_of(c.begin(), c.end(),
                                      [&](const auto& x) { return open >= x.first && open <= x.second; });
          (in ? inside : outside) += 1;
          if (in) CHECK(room <= r.wanted + 1e-6);
          if (!in) CHECK(room >= r.wanted - 1e-4);
        }
      CHECK(inside > 0);
      CHECK(outside > 0);
    }
  }
}

TEST_CASE("an overlap counts where nothing is rounded and no clearance is wanted") {
  Design d = demo("redshank");
  Leg& main = d.gear.main();
  main.retraction.well.clearance = Given();
  main.wheel.shoulder_radius = Given(0.0);
  const auto a = assess(d);
  for (const DoorState& s : a.doors) {
    REQUIRE(s.region);
    CHECK(s.region->wanted == 0);
    CHECK(s.region->enter < s.region->leave);
  }
  // And a closed panel that lies in the stowed wheel is as deep in it as it is.
  const auto& s = a.doors.front();
  const auto moving = std::get<swing::MovingLeg>(swing::moving_leg(leg_of(d, s)));
  auto panel = *s.panel;
  panel.hinge.point.z() += 0.05;
  panel.rear.z() += 0.05;
  const auto least = doors::least_over_openings(moving, panel, moving.moves.full_turn);
  CHECK(least.value < -0.001);
  CHECK(least.value ==
        Approx(doors::clearance(moving, panel, moving.moves.full_turn, least.turn)).margin(1e-9));
}

TEST_CASE(
    "waits from the drawn region: no mix of the spreads brings leg and door together, a bit less does") {
  Design d = demo("redshank");
  for (Door& door : d.doors) door.frees_leg_at = door.zone_enter = door.zone_leave = Given();
  const auto a = assess(d);
  const auto zones = zones_of(a);
  std::vector<Text> problems;
  const auto checks = sequence::check_doors(d, timed(d), true, problems, zones);
  REQUIRE(problems.empty());
  REQUIRE(checks.size() == d.doors.size());
  CHECK_FALSE(of(a, "sequence.zone", "door:outer-doors"));
  for (size_t n = 0; n < checks.size(); ++n) {
    const auto& c = checks[n];
    const DoorState& s = a.doors[n];
    const auto moving = std::get<swing::MovingLeg>(swing::moving_leg(leg_of(d, s)));
    const Door& door = d.doors[n];
    const Retraction& r = leg_of(d, s).retraction;
    const auto meet = [&](double leg_start, double door_factor, double leg_factor, double close_start) {
      double least = 1e9;
      for (int i = 0; i <= 800; ++i) {
        const double t = 14.0 * i / 800;
        const double leg = std::clamp((t - leg_start) / (r.time_up * leg_factor), 0.0, 1.0);
        const double opened = std::clamp(t / (door.time_open * door_factor), 0.0, 1.0);
        const double closed = std::clamp((t - close_start) / (door.time_close * door_factor), 0.0, 1.0);
        const double share = std::max(0.0, std::min(opened, 1 - closed));
        // At rest below stowed nothing is asked of it: the closed door over the leg is another check.
        least = std::min(
            least, doors::clearance(moving, *s.panel, leg * moving.moves.full_turn, share * s.panel->open));
      }
      return least;
    };
    const double wanted = s.region->wanted;
    for (const double door_factor : {door.fastest.si, door.slowest.si})
      for (const double leg_factor : {r.fastest.si, r.slowest.si})
        CHECK(meet(c.least_leg_start, door_factor, leg_factor, c.least_leg_start + 12) >= wanted - 1e-4);
    // A start well before that, slow door and quick leg: in the way.
    if (c.least_leg_start > 0.3)
      CHECK(meet(c.least_leg_start - 0.3, door.slowest, r.fastest, c.least_leg_start + 12) < wanted);
    for (const double door_factor : {door.fastest.si, door.slowest.si})
      for (const double leg_factor : {r.fastest.si, r.slowest.si})
        CHECK(meet(2.0, door_factor, leg_factor, c.least_close_start + 2.0 - c.leg_start) >= wanted - 1e-4);
  }
}

TEST_CASE("a door closed again on the leg that is down must clear it: left ajar by as much as it needs") {
  Design d = demo("dunnock");
  // The nose leg hangs between its doors: shut again they would cut it.
  d.sequence.down.push_back({});
  d.sequence.down.back().actor = "nose-doors";
  d.sequence.down.back().action = Action::close;
  d.sequence.down.back().start = Given(14);
  const auto before = assess(d);
  const Finding* f = of(before, "doors.down", "door:nose-doors");
  REQUIRE(f);
  REQUIRE(f->verdict == Verdict::fails);
  CHECK_FALSE(of(before, "doors.gap", "door:nose-doors"));
  const auto cures = cures_that_work(d, "doors.down", "door:nose-doors");
  const auto ajar = std::find_if(cures.begin(), cures.end(),
                                 [](const Cure& c) { return c.parts[0].knob->id == "nose-doors.door_ajar"; });
  REQUIRE(ajar != cures.end());
  const Design put = ajar->applied(d);
  const auto after = assess(put);
  const Finding* gap = of(after, "doors.gap", "door:nose-doors");
  REQUIRE(gap);
  CHECK(gap->value == Approx(2 * d.doors[1].width * std::sin(put.doors[1].ajar / 2)));
  // It hangs as low as it is open, and Place knows.
  CHECK(of(after, "place.door_ground", "door:nose-doors"));
  CHECK_FALSE(of(before, "place.door_ground", "door:nose-doors"));
}

TEST_CASE("an open door that meets the ground is cured by opening it further, or less far") {
  Design d = demo("dunnock");
  d.doors[1].width = Given(0.6);
  const auto cures = cures_that_work(d, "place.door_ground", "door:nose-doors");
  CHECK(std::any_of(cures.begin(), cures.end(), [](const Cure& c) {
    return c.parts[0].knob->id == "nose-doors.door_open" || c.parts[0].knob->id == "nose-doors.door_width";
  }));
}

TEST_CASE("doors keep what was known of them only while nothing of them changes") {
  const Design d = demo("dunnock");
  const auto a = assess(d);
  std::mt19937 random(2);
  for (int i = 0; i < 12; ++i) {
    Design other = d;
    Door& door = other.doors[i % 2];
    if (i % 3 == 0) door.hinge_from.z.si += 0.004;
    if (i % 3 == 1) other.gear.main().axle.x.si += 0.01;
    if (i % 3 == 2) door.open_angle.si -= 0.05;
    const auto fresh = assess(other);
    const auto near = assess(other, {}, &a);
    REQUIRE(fresh.findings.size() == near.findings.size());
    for (size_t k = 0; k < fresh.findings.size(); ++k) {
      if (std::string_view(fresh.findings[k].measure_id).substr(0, 6) != "doors.") continue;
      CHECK(fresh.findings[k].value == Approx(near.findings[k].value).margin(1e-9));
    }
  }
}
