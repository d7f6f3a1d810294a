// SPDX-License-Identifier: GPL-3.0-or-later
//! What must pass and not rub: forks under way, trays on their way out, mounts and servos beside the
//! structure, housings that are cut, units under the skin; and what bends, lags or is worked out beside it.
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

#include "core/assess/drive_offers.h"
#include "core/assess/drive_state.h"
#include "core/assess/swing_state.h"
#include "core/base/quantity.h"
#include "core/doors/door.h"
#include "core/leg/layup.h"
#include "core/motion/panel.h"
#include "core/motion/retract.h"
#include "core/motion/suspend.h"
#include "core/place/keepout.h"
#include "core/sequence/sequence.h"
#include "core/steer/steering.h"
#include "core/swing/locks.h"
#include "core/swing/swing.h"
#include "core/swing/turn_rod.h"
#include "core/swing/units.h"
#include "cured.h"
#include "demo.h"
#include "findings.h"

using namespace kranich;

namespace {

KeepOut box(const char* name, const Vec3& low, const Vec3& high) {
  KeepOut k;
  k.name = name;
  k.low.set(low);
  k.high.set(high);
  return k;
}

}  // namespace

TEST_CASE("a tyre in its fork: growth, bulge and play are taken off each side, and the spacer is told") {
  Design d = demo("dunnock");
  Leg& nose = d.gear.third();
  Wheel& w = nose.wheel;
  w.fork_inside = Given(w.width + 0.020);
  const auto* f = of(assess(d), "place.fork_under_way");
  REQUIRE(f);
  CHECK(f->verdict == Verdict::unknown);
  for (Given Wheel::*each : {&Wheel::grows_wide, &Wheel::bulge, &Wheel::rim_play}) {
    const auto a = assess(d);
    CHECK(of(a, "place.fork_under_way")->verdict == Verdict::unknown);
    w.*each = Given(0.002);
  }
  auto a = assess(d);
  CHECK(of(a, "place.fork_under_way")->value == Approx(0.010 - 0.006));
  CHECK(of(a, "place.fork_under_way")->verdict == Verdict::holds);
  w.bulge = Given(0.005);
  a = assess(d);
  CHECK(of(a, "place.fork_under_way")->verdict == Verdict::tight);
  w.bulge = Given(0.0085);
  a = assess(d);
  f = of(a, "place.fork_under_way");
  CHECK(f->value == Approx(-0.0025));
  CHECK(f->verdict == Verdict::fails);
  const double spacer = said(*f, "spacer on each side");
  cured(d, a, *f);
  w.fork_inside.si += 2 * spacer;
  CHECK(of(assess(d), "place.fork_under_way")->verdict == Verdict::holds);
}

TEST_CASE("what goes straight out is followed to where it comes nearest, on either side") {
  Design d = demo("dunnock");
  d.airframe.keep_outs = {box("strap", {1.0, 0.1, 0.2}, {1.05, 0.2, 0.3})};
  Access tray;
  tray.name = "battery tray";
  tray.low.set({1.5, -0.05, 0.0});
  tray.high.set({1.7, 0.05, 0.1});
  tray.way_x = Given(-1.2);
  d.airframe.accesses = {tray};
  CHECK(of(assess(d), "place.access")->verdict == Verdict::unknown);
  d.airframe.accesses[0].way_y = Given(0.0);
  d.airframe.accesses[0].way_z = Given(0.0);
  auto a = assess(d);
  // It passes 0.1 m under the strap and 0.05 m inside it.
  CHECK(of(a, "place.access")->value == Approx(std::hypot(0.1, 0.05)).margin(1e-6));
  CHECK(of(a, "place.access")->verdict == Verdict::holds);
  // Mirrored keep-outs count: on the port side it comes as near.
  d.airframe.accesses[0].way_y = Given(-0.2);
  const auto port = *of(assess(d), "place.access");
  d.airframe.accesses[0].way_y = Given(0.2);
  CHECK(of(assess(d), "place.access")->value == Approx(port.value).margin(1e-9));
  // Up through it, it does not pass; a way that goes lower does.
  d.airframe.accesses[0].way_y = Given(0.15);
  d.airframe.accesses[0].way_z = Given(0.25);
  a = assess(d);
  REQUIRE(of(a, "place.access")->verdict == Verdict::fails);
  CHECK(in_words(of(a, "place.access")->remark).find("strap") != std::string::npos);
  cured(d, a, *of(a, "place.access"));
}

TEST_CASE(
    "a mount plate, its cheeks and its box stand clear of motor, fan and servo, whichever face it is on") {
  Joint j;
  j.kind = JointKind::plate;
  j.at.set({1, 0.5, 0.1});
  j.length = Given(0.2);
  j.width = Given(0.1);
  j.thickness = Given(0.004);
  CHECK_FALSE(place::plate_of(Joint{}));
  auto body = *place::plate_of(j);
  CHECK((body.high - body.low - Vec3(0.2, 0.1, 0.004)).norm() < 1e-12);
  j.cheeks = Given(0.05);
  CHECK(place::plate_of(j)->high.z() == Approx(0.15));
  j.face = JointFace::facing_aft;
  CHECK((place::plate_of(j)->high - place::plate_of(j)->low - Vec3(0.05, 0.2, 0.1)).norm() < 1e-12);
  j.face = JointFace::facing_side;
  CHECK((place::plate_of(j)->high - place::plate_of(j)->low - Vec3(0.2, 0.05, 0.1)).norm() < 1e-12);
  // In a design: judged against what is near, and cured.
  Design d = demo("dunnock");
  j.face = JointFace::under;
  j.name = "floor";
  d.gear.third().joints.push_back(j);
  d.airframe.keep_outs.push_back(box("fan", {0.9, 0.4, 0.16}, {1.3, 0.6, 0.3}));
  auto a = assess(d);
  const auto* f = about(a, "leg.plate_room", "member:" + d.gear.third().id + ":floor");
  if (!f) f = of(a, "leg.plate_room", d.gear.third().id);
  REQUIRE(f);
  CHECK(f->value == Approx(0.01));
  CHECK(f->verdict == Verdict::holds);
  d.gear.third().joints.back().cheeks = Given(0.08);
  a = assess(d);
  f = of(a, "leg.plate_room", d.gear.third().id);
  CHECK(f->verdict == Verdict::fails);
  CHECK(f->value == Approx(-0.02));
  cured(d, a, *f);
}

TEST_CASE("plies that one mix reaches for, in two thirds of its working time") {
  Mixing m;
  m.working_time = Given(1800.0);
  m.ply_time = Given(300.0);
  CHECK(leg::plies_of_a_mix(m) == 4);
  m.ply_time = Given(299.0);
  CHECK(leg::plies_of_a_mix(m) == 4);
  m.ply_time = Given(1201.0);
  CHECK(leg::plies_of_a_mix(m) == 0);
  Ply p;
  p.count = Given(9.0);
  CHECK(leg::mixes_for(p, 4) == 3);
  p.count = Given(8.0);
  CHECK(leg::mixes_for(p, 4) == 2);
  Design d = demo("dunnock");
  d.plies = {p};
  d.plies[0].zone = "mount";
  CHECK_FALSE(of(assess(d), "leg.mix"));
  d.mixing.working_time = Given(1800.0);
  CHECK(of(assess(d), "leg.mix")->verdict == Verdict::unknown);
  d.mixing.ply_time = Given(300.0);
  auto a = assess(d);
  CHECK(of(a, "leg.mix")->value == 4);
  CHECK(in_words(of(a, "leg.mix")->remark).starts_with("2 mixes"));
  d.mixing.ply_time = Given(1500.0);
  a = assess(d);
  REQUIRE(of(a, "leg.mix")->verdict == Verdict::fails);
  cured(d, a, *of(a, "leg.mix"));
}

TEST_CASE("trail is where the wheel's line meets the ground, as it stands") {
  const motion::Axis upright{{1, 0, -0.5}, {0, 0, 1}};
  CHECK(steer::trail(upright, {1, 0, -0.5}, 0.1, 0).length == Approx(0).margin(1e-12));
  CHECK(steer::trail(upright, {1.03, 0, -0.5}, 0.1, 0).length == Approx(0.03));
  // Raked, foot ahead: R·tan ε behind; nose up it leans as much further.
  const double rake = radians(10);
  const motion::Axis raked{{1, 0, -0.5}, {std::sin(rake), 0, std::cos(rake)}};
  CHECK(steer::trail(raked, {1, 0, -0.5}, 0.1, 0).length == Approx(0.1 * std::tan(rake)));
  CHECK(steer::trail(raked, {1, 0, -0.5}, 0.1, radians(5)).length ==
        Approx(0.1 * std::tan(rake + radians(5))));
  CHECK(steer::trail(upright, {1, 0, -0.5}, 0.1, radians(-5)).length == Approx(-0.1 * std::tan(radians(5))));
  // A castor that leads is cured by setting its axle back; the leg's line stays where it is.
  Design d = demo("dunnock");
  Leg& nose = d.gear.third();
  nose.steering = {};
  nose.steering.kind = SteeringKind::castors;
  nose.steering.angle = Given(radians(60));
  const Vec3 line = motion::foot(nose);
  nose.axle.x.si -= 0.08;
  nose.axle_aft = Given(-0.08);
  CHECK((motion::foot(nose) - line).norm() < 1e-9);
  const auto a = assess(d);
  const auto* f = of(a, "steer.trail");
  REQUIRE(f);
  REQUIRE(f->verdict == Verdict::fails);
  CHECK(f->value < 0);
  cured(d, a, *f);
}

TEST_CASE("linkage and springing agree where the rod lies square to the travel") {
  Design d = demo("dunnock");
  Leg& nose = d.gear.third();
  nose.steering = {};
  nose.steering.kind = SteeringKind::rod;
  nose.steering.angle = Given(radians(25));
  const auto axis = *steer::steering_axis(nose);
  const Vec3 arm = axis.point + 0.4 * axis.direction + Vec3(0, 0.06, 0);
  nose.steering.rod_leg.set(arm);
  nose.travel = Given(0.03);
  // Square to arm and travel, a rod of length L gives s²/(2·L) of itself; slanting it gives s·sin.
  const Vec3 along = axis.direction.cross(Vec3::UnitY()).normalized();
  nose.steering.rod_airframe.set(arm + 0.5 * along);
  const double s = nose.travel;
  const double shortens = 0.5 - std::sqrt(0.25 - s * s);
  REQUIRE_FALSE(motion::hinge_axis(nose));  // it slides along the line it is steered about
  CHECK(*steer::turn_by_springing(nose) == Approx(shortens / 0.06).epsilon(0.05));
  const double square = *steer::turn_by_springing(nose);
  nose.steering.rod_airframe.set(arm + 0.5 * along + 0.09 * axis.direction);
  CHECK(*steer::turn_by_springing(nose) > 2 * square);
  const auto a = assess(d);
  const auto* f = of(a, "steer.springing", nose.id);
  REQUIRE(f);
  REQUIRE(f->verdict == Verdict::fails);
  cured(d, a, *f);
  // Rods that slide leave it alone.
  nose.steering.kind = SteeringKind::sliding_rods;
  CHECK_FALSE(steer::turn_by_springing(nose));
}

TEST_CASE("the steering servo stands clear of structure and of the leg on its way up") {
  Design d = demo("dunnock");
  Leg& nose = d.gear.third();
  nose.steering.servo_low.set(nose.axle.vec() + Vec3(-0.02, -0.02, -0.02));
  CHECK(of(assess(d), "steer.servo_room")->verdict == Verdict::unknown);
  nose.steering.servo_high.set(nose.axle.vec() + Vec3(0.02, 0.02, 0.02));
  auto a = assess(d);
  CHECK(of(a, "steer.servo_room")->verdict == Verdict::fails);  // inside the wheel
  nose.steering.servo_low.set(nose.held_at() + Vec3(-0.9, -0.02, 0.3));
  nose.steering.servo_high.set(nose.held_at() + Vec3(-0.86, 0.02, 0.34));
  a = assess(d);
  CHECK(of(a, "steer.servo_room")->verdict == Verdict::holds);
  // What stands to starboard has a twin to port: a servo there runs into that.
  const Vec3 servo = nose.held_at() + Vec3(-0.88, -0.3, 0.32);
  nose.steering.servo_low.set(servo - Vec3(0.02, 0.02, 0.02));
  nose.steering.servo_high.set(servo + Vec3(0.02, 0.02, 0.02));
  const Vec3 twin(servo.x(), -servo.y(), servo.z());
  d.airframe.keep_outs.push_back(box("rib", twin - Vec3(0.01, 0.01, 0.01), twin + Vec3(0.01, 0.01, 0.01)));
  CHECK(of(assess(d), "steer.servo_room")->verdict == Verdict::fails);
  d.airframe.keep_outs.pop_back();
  // Along the way of the wheel that comes up, a little into it: found though both ends are clear.
  const auto moves = *motion::retracting(nose);
  const Vec3 half_way = moves.pose(motion::Carried::wheel, moves.full_turn / 2) * nose.axle.vec();
  nose.steering.servo_low.set(half_way - Vec3(0.01, 0.01, 0.01));
  nose.steering.servo_high.set(half_way + Vec3(0.01, 0.01, 0.01));
  CHECK(of(assess(d), "steer.servo_room")->verdict == Verdict::fails);
}

TEST_CASE("one hook at both ends: the pins lie as far from the axis and the unit's turn apart") {
  Design d = demo("dunnock");
  Leg& nose = d.gear.third();
  Uplock& u = nose.retraction.uplock;
  u.both_ends = true;
  u.hook.set(nose.retraction.pivot.vec() + Vec3(0.12, 0, -0.10));
  CHECK(of(assess(d), "drive.latch")->verdict == Verdict::unknown);
  u.reach = Given(0.30);
  const auto pins = swing::latch_pins(nose);
  REQUIRE(pins);
  CHECK(pins->apart == Approx(nose.retraction.unit_angle.si).margin(1e-9));
  CHECK(std::hypot(pins->stowed.along, pins->stowed.off) ==
        Approx(std::hypot(pins->down.along, pins->down.off)));
  auto a = assess(d);
  CHECK(of(a, "drive.latch")->value == Approx(std::max(pins->stowed.off, pins->down.off)));
  CHECK(of(a, "drive.latch")->verdict == Verdict::holds);
  // Beyond the leg's foot there is no leg to carry a bracket: it reaches back to the foot.
  const Vec3 hook = u.hook.vec();
  const Vec3 leg_line = motion::foot(nose) - nose.held_at();
  u.hook.set(motion::foot(nose) + 0.2 * leg_line.normalized());
  CHECK(swing::latch_pins(nose)->down.off == Approx(0.2));
  CHECK(swing::latch_pins(nose)->down.along == Approx(leg_line.norm() + 0.2));
  u.hook.set(hook);
  u.reach = Given(0.9 * of(a, "drive.latch")->value);
  a = assess(d);
  REQUIRE(of(a, "drive.latch")->verdict == Verdict::fails);
  cured(d, a, *of(a, "drive.latch"));
}

TEST_CASE("a unit that gives, its housing that is cut, and the skin it is let in to") {
  Design d = demo("redshank");
  Leg& main = d.gear.main();
  REQUIRE(main.retraction.fitted);
  main.retraction.unit_low.set({-0.02, -0.02, -0.01});
  main.retraction.unit_high.set({0.05, 0.02, 0.012});
  main.retraction.unit.flex = Given(1e5);
  auto a = assess(d);
  const auto* flex = of(a, "drive.unit_flex", main.id);
  REQUIRE(flex);
  const double moment = said(*flex, "greatest moment at the pin, limit");
  CHECK(flex->value == Approx(moment / 1e5));
  main.retraction.unit.flex = Given(moment / radians(1.5));
  a = assess(d);
  flex = of(a, "drive.unit_flex", main.id);
  CHECK(degrees(flex->value) == Approx(1.5));
  REQUIRE(flex->verdict == Verdict::fails);
  cured(d, a, *flex);

  const auto body = *place::unit_of(main);
  main.retraction.far_skin = Given(body.high.z() + 0.004);
  a = assess(d);
  const auto* skin = of(a, "swing.far_skin", main.id);
  REQUIRE(skin);
  CHECK(skin->value == Approx(0.004));
  CHECK(skin->verdict == Verdict::holds);
  const auto* out = of(a, "swing.protrusion", main.id);
  REQUIRE(out);
  CHECK(said(*skin, "with the unit on the skin") == Approx(out->value - 0.004));
  Design in = d;
  in.gear.main().retraction.pivot.z.si += 0.004;
  in.gear.main().axle.z.si += 0.004;
  CHECK(of(assess(in), "swing.protrusion", main.id)->value == Approx(out->value - 0.004).margin(1e-9));
  main.retraction.far_skin = Given(body.high.z() - 0.002);
  a = assess(d);
  REQUIRE(of(a, "swing.far_skin", main.id)->verdict == Verdict::fails);
  cured(d, a, *of(a, "swing.far_skin", main.id));

  // A spar that takes its top forward edge.
  CHECK_FALSE(of(a, "swing.unit_trim"));
  d.airframe.keep_outs.push_back(box("rear spar",
                                     body.low - Vec3(0.1, 0.1, -(body.high.z() - body.low.z()) + 0.003),
                                     Vec3(body.low.x() + 0.005, body.high.y() + 0.1, body.high.z() + 0.05)));
  UnitHole hole;
  const Vec3 at = body.low + Vec3(0.002, 0.002, body.high.z() - body.low.z() - 0.001) - main.held_at();
  hole.x = Given(at.x());
  hole.y = Given(at.y());
  hole.z = Given(at.z());
  main.retraction.unit.holes.push_back(hole);
  a = assess(d);
  const auto* trim = of(a, "swing.unit_trim", main.id);
  REQUIRE(trim);
  CHECK(trim->value == Approx(0.003));
  CHECK(said(*trim, "fore and aft") == Approx(0.005));
  CHECK(said(*trim, "mounting holes that go with it") == 1);
  CHECK(in_words(trim->remark).find("forward, above") != std::string::npos);
}

TEST_CASE("a leg made anew stands in the unit as that goes, with its wheel where it was") {
  Design d = demo("redshank");
  Leg& main = d.gear.main();
  main.retraction.mount_tilt.si += radians(6);
  auto a = assess(d);
  const auto* f = of(a, "swing.unit_misfit", main.id);
  REQUIRE(f);
  REQUIRE(f->verdict == Verdict::fails);
  const auto made = swing::remade_leg(main);
  REQUIRE(made);
  CHECK(said(*f, "then bent by") == Approx(made->angle));
  CHECK(made->longer > 0);
  Leg bent = main;
  LegBend bend;
  bend.at.set(made->bend);
  bent.retraction.bends.assign(1, bend);
  const auto figures = swing::swing_figures(bent);
  REQUIRE(figures);
  CHECK(figures->shank_lean == Approx(figures->unit_down_lean).margin(1e-9));
  CHECK(bent.axle.vec() == main.axle.vec());
  CHECK_FALSE(swing::remade_leg(bent));
  cured(d, a, *f);
}

TEST_CASE("a body that is twisted wants its mounts packed the other way on the other side") {
  Design d = demo("redshank");
  Leg& main = d.gear.main();
  main.retraction.unit_low.set({-0.02, -0.02, -0.01});
  main.retraction.unit_high.set({0.05, 0.02, 0.012});
  const auto plain = swing::plate_corners(main);
  const auto tilted = swing::plate_corners(main, radians(2));
  // Between inboard and outboard the depths differ by the surface's slope.
  const auto difference = [](const std::vector<swing::PlateCorner>& c) { return c[1].depth - c[0].depth; };
  CHECK(difference(tilted) - difference(plain) ==
        Approx(std::tan(radians(2)) * (plain[1].y - plain[0].y)).margin(1e-9));
  d.airframe.body_twist = Given(radians(2));
  int told = 0;
  const auto a = assess(d);
  for (const auto& f : a.findings)
    if (f.measure_id == "swing.plate_depth" && f.subject.leg == main.id) ++told;
  CHECK(told == 2);
}

TEST_CASE("two legs of a pair are apart by the spread of their times") {
  Design d = demo("dunnock");
  Leg& main = d.gear.main();
  main.retraction.slowest = Given(1.1);
  main.retraction.fastest = Given(0.95);
  auto a = assess(d);
  const auto* f = of(a, "sequence.apart", main.id);
  REQUIRE(f);
  // Of the time that is planned with: here the pump's.
  const auto& bars = a.line(true).bars;
  const auto bar = std::find_if(bars.begin(), bars.end(), [&](const auto& b) { return b.actor == main.id; });
  REQUIRE(bar != bars.end());
  CHECK(bar->nominal_end - bar->start == Approx(sequence::times_of(a.times, main.id)->up.computed.nominal));
  CHECK(f->value == Approx(0.15 * (bar->nominal_end - bar->start)));
  CHECK(f->verdict == Verdict::holds);
  main.retraction.slowest = Given(1.6);
  a = assess(d);
  f = of(a, "sequence.apart", main.id);
  REQUIRE(f->verdict == Verdict::fails);
  cured(d, a, *f);
  main.retraction.slowest = Given();
  CHECK(of(assess(d), "sequence.apart", main.id)->verdict == Verdict::unknown);
}

TEST_CASE("a ramp on a pushed door is met before the panel") {
  Door door;
  door.leg = "main";
  door.hinge_from.set({0, 0, 0});
  door.hinge_to.set({0.2, 0, 0});
  door.width = Given(0.1);
  door.closed_towards = Given(1.0);
  door.open_angle = Given(radians(90));
  door.drive.way = DoorWay::wheel;
  auto panel = *motion::panel_of(door);
  const motion::RoundedWheel wheel{{0.1, 0.07, 0.05}, {1, 0, 0}, 0.06, 0.02, 0};
  CHECK(panel.clearance(wheel, 0) == Approx(0.02).margin(1e-5));
  door.drive.ramp_from = Given(0.03);
  door.drive.ramp_to = Given(0.09);
  door.drive.ramp_height = Given(0.012);
  panel = *motion::panel_of(door);
  const double over = panel.clearance(wheel, 0);
  CHECK(over < 0.02 - 0.006);
  CHECK(over > 0.02 - 0.012 - 1e-4);
  CHECK(panel.clearance({motion::BoundSolid(wheel)}, 0) == Approx(over));
  // Any other way of moving it has none.
  door.drive.way = DoorWay::wire;
  CHECK(motion::panel_of(door)->clearance(wheel, 0) == Approx(0.02).margin(1e-5));
}

TEST_CASE("drives side by side: each is judged in the leg, and fitting one loses nothing") {
  Design d = demo("redshank");
  const std::string id = d.gear.main().id;
  d.gear.main().retraction.drive_sold.name = "FM-A test";
  auto a = assess(d);
  auto rows = compare_drives(d, d.gear.main(), a);
  REQUIRE(rows.size() == 1);
  CHECK(rows[0].offer == -1);
  // A copy is judged as what it was copied from; a stronger one has more in hand.
  auto& offers = d.gear.main().retraction.drive_offers;
  offers.push_back(offer_of(d.gear.main(), "copy"));
  offers.push_back(offer_of(d.gear.main(), "half"));
  auto& half = offers.back().drive;
  half.force.si *= 0.5;
  half.stall_torque.si *= 0.5;
  offers.back().rejected = "too weak";
  a = assess(d);
  rows = compare_drives(d, d.gear.main(), a);
  REQUIRE(rows.size() == 3);
  const auto same = [](double x, double y) { return x == y || (std::isnan(x) && std::isnan(y)); };
  CHECK(same(rows[0].in_hand, rows[1].in_hand));
  CHECK(same(rows[0].time, rows[1].time));
  CHECK(rows[0].against.size() == rows[1].against.size());
  REQUIRE(std::isfinite(rows[0].in_hand));
  CHECK(rows[2].in_hand < rows[0].in_hand);
  CHECK(rows[2].rejected == "too weak");
  // A leg that must fall free refuses what stays where it is; of what nobody said it asks.
  d.gear.main().retraction.drive.falls_free = true;
  rows = compare_drives(d, d.gear.main(), assess(d));
  const auto tells = [](const std::vector<Text>& list, std::string_view part) {
    return std::any_of(list.begin(), list.end(),
                       [&](const Text& t) { return in_words(t).find(part) != std::string::npos; });
  };
  CHECK(tells(rows[1].unknown, "without power"));
  offers[0].sold.powerless = Powerless::stays;
  rows = compare_drives(d, d.gear.main(), assess(d));
  CHECK(tells(rows[1].against, "must come down"));
  d.gear.main().retraction.drive.falls_free = false;
  // Taken and taken back: as it was.
  d.gear.main().retraction.drive_sold.price = Given(40.0);
  offers[1].sold.mass = Given(0.3);
  offers[1].sold.price = Given(25.0);
  const Drive was = d.gear.main().retraction.drive;
  take_drive(d.gear.main(), 1);
  CHECK(d.gear.main().retraction.drive_sold.price.si == 25);
  CHECK(d.gear.main().retraction.drive_sold.mass.si == 0.3);
  CHECK(d.gear.main().retraction.drive_offers[1].sold.price.si == 40);
  CHECK(d.gear.main().retraction.drive_sold.name == "half");
  CHECK(d.gear.main().retraction.drive_offers[1].sold.name == "FM-A test");
  CHECK(read_project(write_project(d)).design);
  take_drive(d.gear.main(), 1);
  CHECK(d.gear.main().retraction.drive == was);
  CHECK(d.gear.main().retraction.drive_sold.name == "FM-A test");
  CHECK(shipped_stock().drives.size() >= 12);
}

TEST_CASE("a rod is found that turns a lifted wheel by what is wanted, beginning where it may") {
  Leg leg = demo("dunnock").gear.main();
  Retraction& r = leg.retraction;
  r.motion = LegMotion::lifts_and_turns;
  r.axis_yaw = Given(0.0);
  r.axis_tip = Given(0.0);
  const Vec3 pivot = r.pivot.vec();
  const Vec3 middle = (pivot + motion::foot(leg)) / 2;
  r.king_pin.set(middle);
  r.rod_leg.set(middle + Vec3(0.08, 0.02, 0));
  r.rod_airframe = Point();
  r.unit_angle = Given(radians(80));
  size_t found = 0;
  for (const double turn : {90.0, -90.0, 60.0}) {
    const swing::TurnWanted wanted{radians(turn), radians(25)};
    const auto rods = swing::rods_for_turn(leg, wanted);
    found += rods.size();
    double last = 0;
    for (const auto& rod : rods) {
      CHECK(rod.too_early >= last);  // the one that turns least too early first
      last = rod.too_early;
      Leg with = leg;
      swing::take_rod(with, rod);
      const auto moves = motion::retracting(with);
      REQUIRE(moves);
      REQUIRE(moves->lift);
      CHECK(moves->lift->carrier_turn(wanted.not_before) == Approx(0).margin(1e-7));
      CHECK(degrees(moves->lift->carrier_turn(r.unit_angle)) == Approx(turn));
      CHECK(moves->lift->rod_length() == Approx(rod.length));
      // The ball stays on its arm and the rod keeps its length all the way.
      for (int i = 0; i <= 20; ++i) {
        const Vec3 ball = moves->pose(motion::Carried::wheel, r.unit_angle * i / 20) * rod.on_carrier;
        CHECK((ball - rod.on_airframe).norm() == Approx(rod.length));
      }
    }
  }
  CHECK(found > 0);
  CHECK(swing::rods_for_turn(leg, {radians(90), 0}).empty());
  r.motion = LegMotion::turns;
  CHECK(swing::rods_for_turn(leg, {radians(90), radians(25)}).empty());
}

TEST_CASE("a cylinder whose rod fills its bore has no force, and says so") {
  Design d = demo("dunnock");
  Drive& drive = d.gear.main().retraction.drive;
  REQUIRE(drive.kind == DriveKind::cylinder);
  drive.bore = drive.rod;
  const auto a = assess(d);
  const auto* f = of(a, "drive.force", d.gear.main().id);
  REQUIRE(f);
  CHECK(f->verdict == Verdict::unknown);
  CHECK(in_words(f->remark).find("bore larger than the rod") != std::string::npos);
}

TEST_CASE("a servo that throws one way shows the face from which that way stows the leg") {
  Design d = demo("redshank");
  Drive& drive = d.gear.main().retraction.drive;
  REQUIRE(drive.kind == DriveKind::servo);
  const auto linkage = servo_of(d.gear.main());
  REQUIRE(linkage);
  const auto fit = drive::fit_servo(*linkage);
  CHECK(drive::faces_starboard(fit, ServoThrow::both_ways));
  const ServoThrow with = fit.turn > 0 ? ServoThrow::anticlockwise : ServoThrow::clockwise;
  const ServoThrow against = fit.turn > 0 ? ServoThrow::clockwise : ServoThrow::anticlockwise;
  CHECK(drive::faces_starboard(fit, with));
  CHECK_FALSE(drive::faces_starboard(fit, against));
  // The arm, followed from down on, goes the way that the fit says: x ahead, y up, from starboard.
  const auto ball = [&](double share) {
    const double unit = linkage->down + share * (linkage->stowed - linkage->down);
    return Eigen::Vector2d(drive::servo_ball(*linkage, fit, drive::servo_at(*linkage, fit, unit)) -
                           linkage->servo);
  };
  const Eigen::Vector2d from = ball(0.2);
  const Eigen::Vector2d to = ball(0.4);
  CHECK((from.x() * to.y() - from.y() * to.x() > 0) == (fit.turn > 0));
  drive.throws = against;
  const auto a = assess(d);
  const auto* f = of(a, "drive.end_point", d.gear.main().id);
  REQUIRE(f);
  CHECK(in_words(f->remark).find("looks to port") != std::string::npos);
  drive.throws = with;
  CHECK(in_words(of(assess(d), "drive.end_point", d.gear.main().id)->remark).find("looks to starboard") !=
        std::string::npos);
}
