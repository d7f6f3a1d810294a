// SPDX-License-Identifier: GPL-3.0-or-later
//! A leg's one motion, and what Swing makes of it: axes found, cut-outs, pairs, units, what was built.
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>
#include <random>

#include "core/assess/drive_state.h"
#include "core/assess/loading_state.h"
#include "core/assess/swing_state.h"
#include "core/model/moves.h"
#include "core/motion/retract.h"
#include "core/swing/axis_choices.h"
#include "core/swing/cutout.h"
#include "core/swing/units.h"
#include "cured.h"
#include "demo.h"
#include "findings.h"
#include "said.h"

using namespace kranich;
using motion::Carried;

namespace {

//! A leg of every kind of motion, beside the centre line.
Leg leg_that(LegMotion motion) {
  Leg leg = demo("dunnock").gear.main();
  Retraction& r = leg.retraction;
  r.motion = motion;
  r.axis_yaw = Given(radians(6));
  r.axis_tip = Given(radians(-4));
  const Vec3 pivot = r.pivot.vec();
  const Vec3 foot = motion::foot(leg);
  const Vec3 middle = (pivot + foot) / 2;
  r.twist = Given(radians(80));
  const Vec3 high = pivot + 0.15 * (foot - pivot);
  put(r.rod_airframe, pivot.x() + 0.40, pivot.y() + 0.03, pivot.z() - 0.03);
  put(r.rod_leg, high.x() + 0.02, high.y() + 0.10, high.z());
  if (motion == LegMotion::lifts_and_turns) {
    put(r.king_pin, middle.x(), middle.y(), middle.z());
    // Beside the place at which nothing would turn.
    put(r.rod_leg, middle.x() + 0.08, middle.y() + 0.02, middle.z());
    put(r.rod_airframe, pivot.x() + 0.10, pivot.y() + 0.05, pivot.z());
    r.unit_angle = Given(radians(60));
  }
  if (motion == LegMotion::turns) {
    r.pulled_in.resize(2);
    r.pulled_in[0].turn = Given(radians(40));
    r.pulled_in[0].stroke = Given(0.02);
    r.pulled_in[1].turn = Given(r.unit_angle.si);
    r.pulled_in[1].stroke = Given(0.05);
  }
  return leg;
}
const LegMotion every_motion[]{LegMotion::turns, LegMotion::twists, LegMotion::rod_twists,
                               LegMotion::lifts_and_turns};

}  // namespace

TEST_CASE(
    "every kind of motion: rates are the way's slope, the twin mirrors, what comes back is where it was") {
  for (const LegMotion kind : every_motion) {
    INFO(static_cast<int>(kind));
    const Leg leg = leg_that(kind);
    const auto moves = motion::retracting(leg);
    REQUIRE(moves);
    REQUIRE_FALSE(moves->locks_at());
    const auto twin = motion::mirrored(*moves);
    const Vec3 point = leg.axle.vec() + Vec3(0.05, 0.03, -0.04);
    double most = 0;
    for (int i = 1; i < 40; ++i) {
      const double turn = moves->full_turn * (i + 0.3) / 41;  // not on a corner of the stroke
      for (const Carried what : {Carried::leg, Carried::wheel}) {
        const double h = 1e-6;
        const Vec3 slope =
            (moves->pose(what, turn + h) * point - moves->pose(what, turn - h) * point) / (2 * h);
        const Vec3 v = moves->velocity(what, point, turn);
        CHECK((slope - v).norm() < 1e-7);
        if (what == Carried::wheel) most = std::max(most, v.norm());
        CHECK((mirrored(Vec3(moves->pose(what, turn) * point)) - twin.pose(what, turn) * mirrored(point))
                  .norm() < 1e-12);
        CHECK((mirrored(v) - twin.velocity(what, mirrored(point), turn)).norm() < 1e-12);
      }
    }
    CHECK(moves->reach({{Carried::wheel, point, 0}}) >= most - 1e-9);
    CHECK((moves->pose(Carried::wheel, 0) * point - point).norm() < 1e-12);
    // A force that does not change does no work on the way up and down again.
    const Vec3 pull(3, -2, -9);
    double work = 0;
    double largest = 0;
    constexpr int steps = 4000;
    for (int i = 0; i < steps; ++i) {
      const double turn = moves->full_turn * (i + 0.5) / steps;
      work += moves->torque(Carried::wheel, point, pull, turn) * moves->full_turn / steps;
      largest = std::max(largest, std::abs(work));
    }
    const double rise = pull.dot(moves->pose(Carried::wheel, moves->full_turn) * point - point);
    CHECK(work == Approx(rise).margin(2e-6 * std::max(1.0, largest)));
  }
}

TEST_CASE("a rod that locks on the way fails, and says at which turn") {
  Design d = demo("dunnock");
  Leg& leg = d.gear.main();
  leg.retraction.motion = LegMotion::rod_twists;
  const Vec3 foot = motion::foot(leg);
  // Down by the wheel, fixed beside it: the leg cannot leave.
  put(leg.retraction.rod_airframe, foot.x() + 0.1, foot.y(), foot.z());
  put(leg.retraction.rod_leg, foot.x() + 0.05, foot.y(), foot.z());
  REQUIRE(motion::locks_at(leg));
  CHECK_FALSE(motion::retracting(leg));  // nothing poses it
  const auto a = assess(d);
  const Finding* f = of(a, "swing.clearance", leg.id);
  REQUIRE(f);
  CHECK(f->verdict == Verdict::fails);
  CHECK(says(f->remark, "locks"));
  for (const auto& l : a.loadings) CHECK_FALSE(l.mass.known());
}

TEST_CASE("an axis turned in plan and tipped comes back as it was entered") {
  std::mt19937 random(41);
  std::uniform_real_distribution<double> angle(-44, 44);  // beyond 45° it is nearer to another plain one
  for (const auto way :
       {SwingDirection::inward, SwingDirection::outward, SwingDirection::aft, SwingDirection::forward})
    for (int i = 0; i < 20; ++i) {
      Retraction r;
      r.direction = way;
      r.axis_yaw = Given(radians(angle(random)));
      r.axis_tip = Given(radians(angle(random)));
      const Vec3 u = motion::stowing_direction(r);
      CHECK(u.norm() == Approx(1));
      const auto entry = motion::entry_of_axis(u);
      CHECK(entry.direction == way);
      CHECK(entry.yaw == Approx(r.axis_yaw.si).margin(1e-12));
      CHECK(entry.tip == Approx(r.axis_tip.si).margin(1e-12));
    }
  Retraction plain;
  plain.direction = SwingDirection::aft;
  plain.axis_tip = Given(radians(5.0));
  // It points to port: its outboard end goes up with the tip.
  CHECK(motion::stowing_direction(plain).z() == Approx(-std::sin(radians(5))));
  plain.direction = SwingDirection::inward;
  CHECK(motion::stowing_direction(plain).z() == Approx(std::sin(radians(5))));
  plain.axis_yaw = Given(radians(5.0));
  CHECK(motion::stowing_direction(plain).y() < 0);  // the forward end inboard
}

TEST_CASE("a wheel carried by an axis that was found lands where it is wanted, to a nanometre") {
  std::mt19937 random(7);
  std::uniform_real_distribution<double> some(-1, 1);
  int found_some = 0;
  for (int i = 0; i < 60; ++i) {
    Leg leg = demo("dunnock").gear.main();
    leg.retraction.pulled_in.clear();
    // A pose that one turn about some axis does reach.
    const Vec3 u = Vec3(-1, 0.4 * some(random), 0.4 * some(random)).normalized();
    const motion::Axis axis{leg.retraction.pivot.vec() + 0.1 * Vec3(some(random), some(random), some(random)),
                            u};
    const auto turn = axis.turn(radians(90 + 20 * some(random)));
    const Vec3 centre = turn * leg.axle.vec();
    const Vec3 axle = turn.linear() * motion::axle_direction(leg);
    put(leg.retraction.wanted.centre, centre.x(), centre.y(), centre.z());
    leg.retraction.wanted.axle_up = Given(std::asin(axle.z()));
    leg.retraction.wanted.axle_ahead = Given(std::atan2(-axle.x(), axle.y()));
    const auto wanted = wanted_pose(leg);
    REQUIRE(wanted);
    CHECK((wanted->axle - axle).norm() < 1e-9);
    const auto choices = swing::axis_choices(leg, *wanted);
    for (const auto& c : choices.list) {
      if (c.sort != swing::AxisSort::exact) {
        // What it says that it misses by is what taking it leaves.
        Leg taken = leg;
        swing::take_axis(taken, c);
        const auto near = swing::swing_figures(taken);
        REQUIRE(near);
        CHECK((near->wheel_stowed - centre).norm() == Approx(c.place_miss).margin(1e-9));
        continue;
      }
      ++found_some;
      Leg taken = leg;
      swing::take_axis(taken, c);
      const auto figures = swing::swing_figures(taken);
      REQUIRE(figures);
      CHECK((figures->wheel_stowed - centre).norm() < 1e-9);
      CHECK(std::abs(figures->axle_stowed.dot(axle)) > 1 - 1e-12);
    }
  }
  CHECK(found_some >= 50);
}

TEST_CASE("the stowed wheel off its wanted place is cured by an axis") {
  Design d = demo("dunnock");
  Leg& leg = d.gear.third();
  const auto now = *swing::swing_figures(leg);
  put(leg.retraction.wanted.centre, now.wheel_stowed.x() + 0.03, now.wheel_stowed.y(), now.wheel_stowed.z());
  auto a = assess(d);
  REQUIRE(of(a, "swing.stowed_miss"));
  CHECK(of(a, "swing.stowed_miss")->verdict == Verdict::unknown);  // how its axle should lie is not said
  leg.retraction.wanted.axle_up = Given(0.0);
  leg.retraction.wanted.axle_ahead = Given(0.0);
  a = assess(d);
  const Finding* f = of(a, "swing.stowed_miss");
  REQUIRE(f->verdict == Verdict::fails);
  CHECK(f->value == Approx(0.03).margin(1e-6));
  cured(d, a, *f);
}

TEST_CASE("sections of wheels and tubes are what closed forms say") {
  const motion::RoundedWheel upright{{1, 2, 0}, Vec3::UnitY(), 0.4, 0.1, 0};
  const auto area = [](const swing::Outline& o) {
    double sum = 0;
    for (size_t i = 0; i < o.size(); ++i) {
      const auto& a = o[i];
      const auto& b = o[(i + 1) % o.size()];
      sum += a.x() * b.y() - a.y() * b.x();
    }
    return std::abs(sum) / 2;
  };
  // Upright: a rectangle as long as the chord, as wide as the wheel.
  CHECK(area(swing::section_at(upright, 0)) == Approx(0.4 * 0.1));
  CHECK(area(swing::section_at(upright, 0.12)) == Approx(2 * std::sqrt(0.04 - 0.0144) * 0.1));
  CHECK(swing::section_at(upright, 0.21).empty());
  // Flat: a circle, within the polygon drawn round it.
  motion::RoundedWheel flat = upright;
  flat.axle = Vec3::UnitZ();
  CHECK(area(swing::section_at(flat, 0.02)) ==
        Approx(0.04 * 48 * std::tan(std::numbers::pi / 48)).epsilon(1e-9));
  CHECK(swing::section_at(flat, 0.06).empty());
  // A tube across the plane: its ellipse.
  const Vec3 lean = Vec3(0.5, 0, -1).normalized();
  const motion::Capsule tube{-lean, lean, 0.05};
  CHECK(area(swing::section_at(tube, 0)) ==
        Approx(std::numbers::pi * 0.05 * 0.05 / std::abs(lean.z())).epsilon(0.01));
  // A wheel leaning: what its turned twin shows across the other plane, by sampling its solid.
  std::mt19937 random(3);
  std::uniform_real_distribution<double> some(-1, 1);
  for (int i = 0; i < 20; ++i) {
    motion::RoundedWheel w{
        {0, 0, 0}, Vec3(some(random), some(random), some(random)).normalized(), 0.4, 0.12, 0.03};
    const double z = 0.1 * some(random);
    const auto section = swing::section_at(w, z);
    constexpr int fine = 160;
    int inside = 0;
    for (int x = 0; x < fine; ++x)
      for (int y = 0; y < fine; ++y) {
        const Vec3 p(0.5 * (x + 0.5) / fine - 0.25, 0.5 * (y + 0.5) / fine - 0.25, z);
        const double along = std::abs(p.dot(w.axle));
        const double out = (p - p.dot(w.axle) * w.axle).norm();
        const double over = std::max(0.0, along - (w.width / 2 - w.shoulder));
        const double beyond = std::max(0.0, out - (w.diameter / 2 - w.shoulder));
        if (std::hypot(over, beyond) <= w.shoulder) ++inside;
      }
    CHECK(area(section) == Approx(inside * 0.25 / fine / fine).epsilon(0.03).margin(4e-4));
  }
}

TEST_CASE("a cut-out holds every section on the way, grows with its margin, and mirrors") {
  const auto moving = std::get<swing::MovingLeg>(swing::moving_leg(leg_that(LegMotion::twists)));
  const Leg leg = demo("dunnock").gear.main();
  const double z = leg.retraction.well.low.z;
  const auto bare = swing::cut_out(moving, z, 0);
  const auto grown = swing::cut_out(moving, z, 0.01);
  REQUIRE_FALSE(grown.outlines.empty());
  CHECK(grown.length == Approx(bare.length + 0.02).margin(1e-4));
  CHECK(grown.area > bare.area);
  const auto inside = [](const swing::CutOut& c, const Eigen::Vector2d& p) {
    for (const auto& o : c.outlines) {
      bool in = false;
      for (size_t i = 0, j = o.size() - 1; i < o.size(); j = i++)
        if ((o[i].y() > p.y()) != (o[j].y() > p.y()) &&
            p.x() < (o[j].x() - o[i].x()) * (p.y() - o[i].y()) / (o[j].y() - o[i].y()) + o[i].x())
          in = !in;
      if (in) return true;
    }
    return false;
  };
  int points = 0;
  for (int i = 0; i <= 333; ++i) {
    const double turn = moving.moves.full_turn * i / 333;
    for (const auto& part : moving.parts)
      if (std::holds_alternative<motion::RoundedWheel>(part.solid))
        for (const auto& p : swing::section_at(swing::wheel_at(moving.moves, part, turn), z)) {
          ++points;
          CHECK(inside(grown, p));
        }
  }
  CHECK(points > 1000);
  const auto twin = swing::cut_out(swing::mirrored(moving), z, 0.01);
  CHECK(twin.area == Approx(grown.area).epsilon(1e-6));
  CHECK(twin.length == Approx(grown.length).margin(1e-6));
  const auto bay = swing::bay_outline(moving, z, 0.01);
  // Length and width come out the same without the outline.
  Leg with = leg_that(LegMotion::twists);
  with.retraction.well.clearance = Given(0.01);
  const auto quick = swing::hole_in(with, z);
  REQUIRE(quick);
  CHECK(quick->x() == Approx(grown.length).margin(2e-4));
  CHECK(quick->y() == Approx(grown.width).margin(2e-4));
  CHECK(bay.area >= grown.area - 1e-9);  // what passes the mouth is above it a moment later
  CHECK(swing::bay_depth(moving, z) > 0);
}

TEST_CASE("wheels that swing towards each other are judged with one of them stuck anywhere") {
  Design d = demo("dunnock");
  // Brought together until they meet when both are up.
  for (auto& leg : d.gear.legs)
    if (leg.stands == LegStands::both_sides) {
      const auto figures = swing::swing_figures(leg);
      shift_leg(leg, 0, -figures->wheel_stowed.y() + 0.3 * leg.wheel.width, 0);
    }
  auto a = assess(d);
  const Finding* pair = nullptr;
  for (const auto& f : a.findings)
    if (f.measure_id == "swing.pair" && f.key().find("port-main") != std::string::npos) pair = &f;
  REQUIRE(pair);
  CHECK(pair->verdict == Verdict::fails);
  CHECK(pair->value <= said(*pair, "both together") + 1e-9);
  cured(d, a, *pair);
  // Of two wheels on the axle the inner ones meet first.
  const double single = pair->value;
  for (auto& leg : d.gear.legs)
    if (leg.stands == LegStands::both_sides) {
      shift_leg(leg, 0, 0.6 * leg.wheel.diameter, 0);
      leg.wheel_spacing = Given(0.4 * leg.wheel.diameter);
    }
  const auto twins = assess(d);
  const Finding* inner = nullptr;
  for (const auto& f : twins.findings)
    if (f.measure_id == "swing.pair" && f.key().find("port-main") != std::string::npos) inner = &f;
  REQUIRE(inner);
  for (auto& leg : d.gear.legs) leg.wheel_spacing = Given();
  const auto apart = assess(d);
  for (const auto& f : apart.findings)
    if (f.key() == inner->key()) CHECK(inner->value < f.value - 1e-3);
  CHECK(inner->value != Approx(single));
}

TEST_CASE("the fast search for two wheels' least gap finds what branch and bound proves") {
  std::mt19937 random(12);
  std::uniform_real_distribution<double> some(-1, 1);
  const auto one = std::get<swing::MovingLeg>(swing::moving_leg(demo("dunnock").gear.main()));
  int near = 0;
  for (int i = 0; i < 12; ++i) {
    auto other = swing::mirrored(one);
    const Vec3 shift(0.15 * some(random), 0.8 + 0.5 * some(random), 0.05 * some(random));
    other.moves.axis.point += shift;
    other.moves.axis.direction =
        (other.moves.axis.direction + 0.1 * Vec3(0, some(random), some(random))).normalized();
    auto wheel = other.wheel();
    wheel.centre += shift;
    const auto certain = swing::least_of_any(one.moves, one.wheel(), other.moves, wheel);
    const auto fast = swing::nearest_of_any(one.moves, one.wheel(), other.moves, wheel, 0.1);
    if (!fast) {
      CHECK(certain.distance > 0.1);
      continue;
    }
    ++near;
    CHECK(fast->distance >= certain.distance - 1e-5);
    CHECK(fast->distance <= certain.distance + 2e-4);
  }
  CHECK(near > 3);
}

TEST_CASE("what else moves with the leg counts: axle tip, second wheel, bends, the set of service") {
  Design d = demo("dunnock");
  Leg& leg = d.gear.third();
  const double before = of(assess(d), "swing.clearance", leg.id)->value;
  leg.axle_beyond_wheel = Given(0.2);
  auto a = assess(d);
  CHECK(of(a, "swing.clearance", leg.id)->value < before);
  CHECK(says(of(a, "swing.clearance", leg.id)->remark, "axle tip"));
  leg.axle_beyond_wheel = Given();
  leg.retraction.service_set = Given(-0.06);
  a = assess(d);
  CHECK(said(*of(a, "swing.clearance", leg.id), "as new") == Approx(before));
  CHECK(said(*of(a, "swing.clearance", leg.id), "after its set in service") < before);
  CHECK(of(a, "swing.clearance", leg.id)->value < before);
  leg.retraction.service_set = Given();
  // A knee far ahead of the leg's line hits the well's edge; which way it points is said.
  leg.retraction.bends.resize(1);
  const Vec3 middle = (leg.retraction.pivot.vec() + leg.axle.vec()) / 2;
  put(leg.retraction.bends[0].at, middle.x() - 0.25, middle.y(), middle.z());
  a = assess(d);
  CHECK(of(a, "swing.clearance", leg.id)->value < before);
  const Finding* round = of(a, "swing.other_way_round", leg.id);
  REQUIRE(round);
  CHECK(says(round->remark, "knee forward"));
  CHECK(said(*round, "right way round") == Approx(of(a, "swing.clearance", leg.id)->value));
  CHECK(std::abs(round->value - said(*round, "right way round")) > 1e-3);
}

TEST_CASE("a unit is held against the aircraft, and the shelf's next one cures") {
  Design d = demo("redshank");
  Leg& leg = d.gear.main();
  REQUIRE(leg.retraction.fitted);
  const Stock stock = stock_of(d);
  REQUIRE(stock.units.size() > 10);
  // One for a much lighter aircraft.
  swing::fit_unit(leg, stock.units.front());
  leg.retraction.unit_angle = demo("redshank").gear.main().retraction.unit_angle;
  const auto a = assess(d);
  const Finding* mass = of(a, "drive.unit_mass", leg.id);
  REQUIRE(mass);
  CHECK(mass->verdict == Verdict::fails);
  CHECK(mass->value == Approx(said(*mass, "sold for up to") / said(*mass, "heaviest loading flown") - 1));
  CHECK(of(a, "drive.unit_moment", leg.id)->verdict == Verdict::fails);
  cured(d, a, *mass);
  // Ranked: those without objection first, and each objection is true.
  const auto need = unit_need(a, leg);
  const auto ranked = swing::rank_units(stock.units, d, leg, need);
  REQUIRE(ranked.size() == stock.units.size());
  for (size_t i = 1; i < ranked.size(); ++i) CHECK(ranked[i - 1].against.size() <= ranked[i].against.size());
  for (const auto& c : ranked) CHECK((c.mass_in_hand < 0) == (c.unit->rated_mass < need.aircraft_mass));
}

TEST_CASE("pin and bore, the turn of this very unit, holes and seats are judged as measured") {
  CHECK_FALSE(swing::pin_misfit(0.004, 0.004));
  CHECK(says(*swing::pin_misfit(0.004, 0.005), "drill"));
  CHECK(says(*swing::pin_misfit(0.005, 0.004), "bush"));
  Design d = demo("redshank");
  Leg& leg = d.gear.main();
  Retraction& r = leg.retraction;
  r.unit.bore = Given(0.004);
  CHECK(of(assess(d), "swing.unit_pin")->verdict == Verdict::unknown);
  r.unit.leg_pin = Given(0.005);
  CHECK(of(assess(d), "swing.unit_pin")->verdict == Verdict::fails);
  r.unit.leg_pin = Given(0.004);
  CHECK(of(assess(d), "swing.unit_pin")->verdict == Verdict::holds);
  r.unit.measured_turn = Given(r.unit_angle.si + radians(2));
  CHECK(of(assess(d), "swing.unit_turn")->verdict == Verdict::fails);
  CHECK(of(assess(d), "swing.unit_turn")->value == Approx(radians(2)));
  r.seat_starboard = Given(0.012);
  CHECK(of(assess(d), "swing.seat")->verdict == Verdict::unknown);
  r.seat_port = Given(0.002);
  const Given wanted = r.well.clearance;
  r.well.clearance = Given();  // by what it is judged
  CHECK(of(assess(d), "swing.seat")->verdict == Verdict::unknown);
  r.well.clearance = wanted;
  CHECK(of(assess(d), "swing.seat")->verdict == Verdict::fails);
  CHECK(of(assess(d), "swing.seat")->value == Approx(0.010));
}

TEST_CASE("mounting holes that end up in structure are lost, by number") {
  Design d = demo("dunnock");
  Leg& leg = d.gear.main();
  REQUIRE_FALSE(d.airframe.keep_outs.empty());
  // A hole in the middle of what must not be touched.
  const KeepOut& k = d.airframe.keep_outs.front();
  const Vec3 at = (k.low.vec() + k.high.vec()) / 2 - leg.held_at();
  leg.retraction.unit.holes.resize(2);
  for (auto& h : leg.retraction.unit.holes) h.x = h.y = h.z = Given(2.0);
  CHECK(of(assess(d), "swing.unit_holes")->verdict == Verdict::holds);
  leg.retraction.unit.holes[1].x = Given(at.x());
  leg.retraction.unit.holes[1].y = Given(at.y());
  leg.retraction.unit.holes[1].z = Given(at.z());
  const auto a = assess(d);
  CHECK(of(a, "swing.unit_holes")->verdict == Verdict::fails);
  CHECK(says(of(a, "swing.unit_holes")->remark, "1 of 2"));
}

TEST_CASE("a plate that splays and rakes is let in at its corners by both slopes") {
  Leg leg = demo("redshank").gear.main();
  Retraction& r = leg.retraction;
  r.direction = SwingDirection::aft;
  put(r.unit_low, -0.02, -0.01, -0.01);
  put(r.unit_high, 0.04, 0.02, 0.01);
  r.mount_tilt = Given(radians(5.0));
  r.axis_tip = Given(radians(3.0));
  r.axis_yaw = Given(0.0);
  const auto corners = swing::plate_corners(leg);
  REQUIRE(corners.size() == 4);
  // Wheel end (aft) and outboard end up: the forward inboard corner is the deepest.
  const double deep = 0.06 * std::tan(radians(5)) + 0.03 * std::tan(radians(3));
  for (const auto& c : corners) {
    const double expected = (0.04 - c.x) * std::tan(radians(5)) + (0.02 - c.y) * std::tan(radians(3));
    CHECK(c.depth == Approx(expected).margin(1e-12));
    CHECK(c.depth <= deep + 1e-12);
  }
}

TEST_CASE("a rod that turns the wheel must be dead while the leg springs: by hand, cured, and for arms") {
  Design d = demo("dunnock");
  Leg& leg = d.gear.main();
  leg.path = LegPath::straight;
  leg.wheel_offset = leg.toe = leg.camber = Given(0);
  put(leg.axle, 1.9, 0.6, -0.9);
  put(leg.retraction.pivot, 1.9, 0.6, -0.1);
  leg.retraction.axis_yaw = leg.retraction.axis_tip = Given(0);
  leg.retraction.motion = LegMotion::rod_twists;
  constexpr double c = 0.03, l = 0.30;
  // Close under the pivot, and a short swing: so it reaches all the way.
  leg.retraction.unit_angle = Given(radians(12));
  put(leg.retraction.rod_leg, 1.9 + c, 0.6, -0.13);
  put(leg.retraction.rod_airframe, 1.9 + c, 0.6 + l, -0.13);
  leg.travel = Given(0.06);
  // The ball slides up by s beside a rod of length l on a collar c: 2c²(1 − cos χ) − 2lc·sin χ + s² = 0.
  const auto by_hand = [&](double s) {
    double low = 0, high = 1;
    for (int i = 0; i < 100; ++i) {
      const double x = (low + high) / 2;
      (2 * c * c * (1 - std::cos(x)) - 2 * l * c * std::sin(x) + s * s > 0 ? low : high) = x;
    }
    return low;
  };
  REQUIRE(swing::turn_by_springing(leg));
  CHECK(*swing::turn_by_springing(leg) == Approx(by_hand(0.06)).epsilon(1e-6));
  CHECK(degrees(by_hand(0.06)) > 10);  // it would steer badly
  // Short of its travel less; without travel, without a rod, there is nothing to say.
  leg.travel = Given(0.01);
  CHECK(*swing::turn_by_springing(leg) == Approx(by_hand(0.01)).epsilon(1e-6));
  leg.travel = Given(0);
  CHECK_FALSE(swing::turn_by_springing(leg));
  leg.travel = Given(0.04);
  leg.retraction.motion = LegMotion::turns;
  CHECK_FALSE(swing::turn_by_springing(leg));
  leg.retraction.motion = LegMotion::rod_twists;
  const auto a = assess(d);
  const Finding* f = of(a, "swing.spring_turn", leg.id);
  REQUIRE(f);
  CHECK(f->verdict == Verdict::fails);
  cured(d, a, *f);
  // Arms and a rod that run parallel, equally long: the carrier keeps its heading, sprung or stowed.
  Leg lifted = leg_that(LegMotion::lifts_and_turns);
  lifted.retraction.axis_yaw = lifted.retraction.axis_tip = Given(0);
  lifted.path = LegPath::hinged_fore_and_aft;  // inward: its pivot runs fore and aft
  lifted.hinge = lifted.retraction.pivot;
  lifted.travel = Given(0.04);
  const Vec3 pivot = lifted.retraction.pivot.vec();
  // Inboard of the pivot already, so that the rod never comes square to its arm.
  const Vec3 pin = pivot + Vec3(0, -0.15, -0.3);
  put(lifted.retraction.king_pin, pin.x(), pin.y(), pin.z());
  put(lifted.retraction.rod_airframe, pivot.x() + 0.05, pivot.y(), pivot.z());
  put(lifted.retraction.rod_leg, pin.x() + 0.05, pin.y(), pin.z());
  REQUIRE(swing::turn_by_springing(lifted));
  CHECK(*swing::turn_by_springing(lifted) == Approx(0).margin(1e-9));
  put(lifted.retraction.rod_airframe, pivot.x() + 0.08, pivot.y() + 0.03, pivot.z());
  CHECK(*swing::turn_by_springing(lifted) > radians(0.5));
  // Hinged anywhere else the springing leaves the rod alone.
  lifted.hinge.z = Given(lifted.hinge.z - 0.2);
  CHECK_FALSE(swing::turn_by_springing(lifted));
}
