// SPDX-License-Identifier: GPL-3.0-or-later
//! Where a leg and its doors are while the gear is raised, and what that lets them touch: closed forms.
#include <catch2/catch.hpp>
#include <functional>
#include <random>

#include "core/assess/assess.h"
#include "core/base/quantity.h"
#include "core/motion/panel.h"
#include "core/motion/retract.h"
#include "core/motion/suspend.h"
#include "core/place/keepout.h"
#include "core/swing/swing.h"
#include "core/weigh/weigh.h"
#include "demo.h"

using namespace kranich;

namespace {

//! A leg that hangs 0.7 m under its pivot, turns by 90° and lies in a well 1.2 m long, 0.4 m wide and 0.5 m
//! high.
Leg plain_leg(SwingDirection way) {
  Leg l;
  l.id = "main";
  put(l.axle, 2, 1, -0.8);
  l.wheel_offset = Given(0);
  l.tube_diameter = Given(0.04);
  l.wheel.diameter = Given(0.3);
  l.wheel.width = Given(0.1);
  l.wheel.shoulder_radius = Given(0.0);
  Retraction& r = l.retraction;
  r.fitted = true;
  r.direction = way;
  put(r.pivot, 2, 1, -0.1);
  r.unit_angle = Given(radians(90));
  r.mount_tilt = Given(0);
  r.growth = r.side_play = Given(0);
  put(r.well.low, 1.9, 0.8, -0.35);
  put(r.well.high, 3.1, 1.2, 0.15);
  r.well.clearance = Given(0.01);
  return l;
}

double least(const Leg& l, const std::vector<KeepOut>& keep_outs = {}) {
  const auto in = swing::swing_input(l, keep_outs);
  REQUIRE(std::holds_alternative<swing::SwingInput>(in));
  return swing::least_clearance(std::get<swing::SwingInput>(in)).distance;
}

}  // namespace

TEST_CASE("a leg turned by a right angle lies where its direction says, and its twin opposite") {
  using Case = std::pair<SwingDirection, Vec3>;
  for (const auto& [way, lies] :
       {Case{SwingDirection::aft, {0.7, 0, 0}}, Case{SwingDirection::forward, {-0.7, 0, 0}},
        Case{SwingDirection::inward, {0, -0.7, 0}}, Case{SwingDirection::outward, {0, 0.7, 0}}}) {
    const Leg l = plain_leg(way);
    const Vec3 pivot = l.retraction.pivot.vec();
    CHECK((*motion::swung(l, 0, l.axle.vec()) - l.axle.vec()).norm() < 1e-15);
    CHECK((*motion::swung(l, 1, l.axle.vec()) - pivot - lies).norm() < 1e-12);
    const Vec3 half = (Vec3(0, 0, -0.7) + lies) / std::sqrt(2.0);
    CHECK((*motion::swung(l, 0.5, l.axle.vec()) - pivot - half).norm() < 1e-12);
    for (const double share : {0.0, 0.3, 1.0}) {
      const Vec3 twin = *motion::swung(l, share, mirrored(l.axle.vec()), true);
      CHECK((twin - mirrored(*motion::swung(l, share, l.axle.vec()))).norm() < 1e-12);
    }
  }
  Leg fixed = plain_leg(SwingDirection::aft);
  fixed.retraction.fitted = false;
  CHECK_FALSE(motion::swung(fixed, 1, fixed.axle.vec()));
  Leg unknown = plain_leg(SwingDirection::aft);
  unknown.retraction.unit_angle = Given();
  CHECK_FALSE(motion::swung(unknown, 1, unknown.axle.vec()));
}

TEST_CASE("an axle with camber and toe points where a bar through it would") {
  Leg l = plain_leg(SwingDirection::aft);
  CHECK((motion::axle_direction(l) - Vec3::UnitY()).norm() < 1e-15);
  l.camber = Given(radians(3));
  CHECK(motion::axle_direction(l).z() == Approx(-std::sin(radians(3))));  // its outer end is low
  l.camber = Given(0);
  l.toe = Given(radians(2));
  CHECK(motion::axle_direction(l).x() == Approx(-std::sin(radians(2))));  // ... or ahead
  l.wheel_offset = Given(0.1);
  CHECK((motion::foot(l) + 0.1 * motion::axle_direction(l) - l.axle.vec()).norm() < 1e-15);
  CHECK(motion::axle_direction(l).norm() == Approx(1));
}

TEST_CASE("the least clearance of a plain swing is what the drawing board gives") {
  // Stowed the wheel lies on its rim circle: 0.15 m round an axle at (2.7, 1, −0.1). To the roof 0.10 m, to
  // the rear wall 0.25 m, to the side walls 0.15 m, and to the front wall, which it leaves, never less.
  Leg l = plain_leg(SwingDirection::aft);
  const auto in = std::get<swing::SwingInput>(swing::swing_input(l, {}));
  const auto stowed = swing::clearance_at(in, radians(90));
  // The leg's tube hangs 0.02 m round its line from the pivot, 0.1 m behind the front wall: 0.08 m all the
  // way.
  CHECK(stowed.distance == Approx(0.08).margin(1e-7));
  CHECK(stowed.obstacle == "front wall");
  CHECK(stowed.part == swing::Part::leg);
  l.retraction.well.high.z = Given(0.11);
  CHECK(least(l) == Approx(0.06).margin(1e-6));  // the roof over the stowed wheel, 0.15 m above its axle
  l.retraction.well.high.z = Given(0.15);
  SECTION("growth counts on the radius, side play to each side") {
    l.retraction.well.high.z = Given(0.11);
    l.retraction.growth = Given(0.005);
    CHECK(least(l) == Approx(0.055).margin(1e-6));
    l.retraction.well.high.z = Given(0.5);
    l.retraction.well.low.y = Given(0.93);
    l.retraction.side_play = Given(0.004);
    CHECK(least(l) == Approx(0.07 - 0.05 - 0.004).margin(1e-6));
  }
  SECTION("a wheel beside its leg is where its offset says") {
    // The leg's line 0.12 m inboard of the wheel: its tube is 0.06 m from the inboard wall, the tyre is not.
    l.wheel_offset = Given(0.12);
    l.retraction.pivot.y = Given(0.88);
    CHECK(least(l) == Approx(0.06).margin(1e-6));
    l.wheel_offset = Given(-0.12);
    l.retraction.pivot.y = Given(1.12);
    l.retraction.well.low.y = Given(0.7);
    CHECK(least(l) == Approx(0.06).margin(1e-6));  // now from the outboard one
  }
  SECTION("camber tilts the tyre") {
    l.retraction.well.low.y = Given(0.93);
    CHECK(least(l) == Approx(0.02).margin(1e-6));
    l.camber = Given(radians(5));
    const double half_height = 0.15 * std::sin(radians(5)) + 0.05 * std::cos(radians(5));
    CHECK(least(l) == Approx(0.07 - half_height).margin(2e-6));
  }
  SECTION("a duct in the wheel's way is met, wherever it stands") {
    KeepOut duct;
    duct.name = "duct";
    duct.shape = Shape::cylinder;
    put(duct.low, 2.5, 0.5, -0.6);  // across the wheel's path: 0.7 m below the pivot at 45° is (2.49, −0.59)
    put(duct.high, 2.5, 1.5, -0.6);
    duct.radius = Given(0.02);
    const double apart = std::abs(std::hypot(0.5, 0.5) - 0.7);
    const auto with = std::get<swing::SwingInput>(swing::swing_input(l, {duct}));
    const auto c = swing::least_clearance(with);
    CHECK(c.obstacle == "duct");
    CHECK(c.distance < 0);
    // The axle passes 7 mm from the duct's middle: as deep as both radii less that.
    CHECK(c.distance == Approx(-(0.15 + 0.02 - apart)).margin(2e-3));
    duct.radius = Given();
    CHECK(least(l, {duct}) > 0);  // what lacks a measure cannot be met
  }
}

TEST_CASE("a duct on the port side stands in the way of a leg on the centre line too") {
  Leg l = plain_leg(SwingDirection::aft);
  l.stands = LegStands::centre;
  for (Point* p : {&l.axle, &l.retraction.pivot}) p->y = Given(0);
  l.retraction.well.low.y = Given(-0.2);
  l.retraction.well.high.y = Given(0.2);
  KeepOut box;
  box.name = "rib";
  put(box.low, 2.3, 0.06, -0.7);
  put(box.high, 2.6, 0.1, -0.5);
  const double there = least(l, {box});
  CHECK(there == Approx(0.01).margin(1e-6));  // 0.06 less half the tyre's width
  const auto in = std::get<swing::SwingInput>(swing::swing_input(l, {box}));
  const auto ribs =
      std::count_if(in.obstacles.begin(), in.obstacles.end(), [](const auto& o) { return o.name == "rib"; });
  CHECK(ribs == 2);
}

TEST_CASE("a change of what a leg must pass is seen by the next assessment") {
  Design d = demo("dunnock");
  const auto before = assess(d);
  const auto of = [](const Assessment& a) {
    for (const auto& f : a.findings)
      if (f.measure_id == "swing.clearance" && in_words(f.subject.words) == "main legs") return f.value;
    return std::nan("");
  };
  REQUIRE(std::isfinite(of(before)));
  KeepOut duct;
  duct.name = "duct";
  put(duct.low, 2.4, 1.0, -0.6);
  put(duct.high, 2.5, 1.1, -0.5);
  d.airframe.keep_outs.push_back(duct);
  CHECK(of(assess(d, {}, &before)) < 0);
}

TEST_CASE("a panel lies level when closed, hangs at a right angle, and keeps its width") {
  Door door;
  put(door.hinge_from, 1, 0.5, -0.3);
  put(door.hinge_to, 1.6, 0.5, -0.3);
  door.width = Given(0.2);
  door.closed_towards = Given(1);
  door.open_angle = Given(radians(90));
  const auto panel = motion::panel_of(door);
  REQUIRE(panel);
  CHECK((panel->corners(0)[3] - Vec3(1, 0.7, -0.3)).norm() < 1e-12);
  CHECK((panel->corners(panel->open)[2] - Vec3(1.6, 0.5, -0.5)).norm() < 1e-12);
  door.closed_towards = Given(-1);
  const auto other = *motion::panel_of(door);
  CHECK((other.corners(0)[3] - Vec3(1, 0.3, -0.3)).norm() < 1e-12);
  const auto half = other.corners(other.open / 2);
  CHECK((half[3] - half[0]).norm() == Approx(0.2));
  CHECK(half[3].z() == Approx(-0.3 - 0.2 * std::sin(radians(45))));
  // Across the aircraft: towards 1 lies forward; tilted, its free edge starts higher, and still goes down.
  door.hinge_to = door.hinge_from;
  door.hinge_to.y = Given(0.9);
  door.closed_towards = Given(1);
  door.closed_tilt = Given(radians(20));
  const auto across = *motion::panel_of(door);
  CHECK(
      (across.corners(0)[3] - Vec3(1 - 0.2 * std::cos(radians(20)), 0.5, -0.3 + 0.2 * std::sin(radians(20))))
          .norm() < 1e-12);
  CHECK((across.corners(radians(20))[3] - Vec3(0.8, 0.5, -0.3)).norm() < 1e-12);
  door.width = Given();
  CHECK_FALSE(motion::panel_of(door));
}

TEST_CASE("clearance to a panel is that to the same box turned the other way, and mirrors") {
  std::mt19937 random(4);
  const auto any = [&](double from, double to) { return std::uniform_real_distribution<>(from, to)(random); };
  for (int i = 0; i < 60; ++i) {
    Door door;
    put(door.hinge_from, any(0, 1), any(0.1, 0.6), any(-0.4, 0));
    put(door.hinge_to, any(1, 2), any(0.1, 0.6), any(-0.4, 0));
    door.width = Given(any(0.05, 0.4));
    door.thickness = Given(any(0.001, 0.02));
    door.closed_towards = Given(i % 2 ? 1 : -1);
    door.closed_tilt = Given(any(-0.5, 0.5));
    door.open_angle = Given(radians(100));
    const auto panel = *motion::panel_of(door);
    const double opening = any(0, 1.7);
    const motion::RoundedWheel wheel{Vec3(any(0, 2), any(0, 1), any(-0.8, 0.2)),
                                     Vec3(any(-1, 1), 1, any(-1, 1)).normalized(), 0.2, 0.05, 0.01};
    const double d = panel.clearance(wheel, opening);
    const auto twin = motion::mirrored(panel);
    motion::RoundedWheel other = wheel;
    other.centre = mirrored(wheel.centre);
    other.axle = mirrored(wheel.axle);
    CHECK(twin.clearance(other, opening) == Approx(d).margin(1e-9));
    // Never further than any point of the outer face, nor nearer than that by more than panel and wheel
    // reach.
    double least = 1e9;
    const auto c = panel.corners(opening);
    for (int a = 0; a <= 40; ++a)
      for (int b = 0; b <= 40; ++b) {
        const Vec3 p = c[0] + (c[1] - c[0]) * a / 40 + (c[3] - c[0]) * b / 40;
        const Vec3 r = p - wheel.centre;
        const double along = std::abs(r.dot(wheel.axle));
        const double square = (r - r.dot(wheel.axle) * wheel.axle).norm();
        const double x = square - (0.1 - 0.01), y = along - (0.025 - 0.01);
        least = std::min(least, (x > 0 && y > 0 ? std::hypot(x, y) : std::max(x, y)) - 0.01);
      }
    if (d > 0) {
      CHECK(d <= least + 1e-6);
      CHECK(d >= least - 0.06);
    }
  }
}

TEST_CASE("the solid of a keep-out, and the same one on the other side") {
  KeepOut k;
  k.shape = Shape::cylinder;
  put(k.low, 1, 0.2, 0);
  put(k.high, 3, 0.2, 0);
  k.radius = Given(0.1);
  const auto solids = place::solids_of(k);
  REQUIRE(solids.size() == 1);
  const motion::Obstacle& solid = solids.front();
  const motion::Capsule probe{{2, 0.5, 0}, {2, 0.6, 0}, 0.05};
  CHECK(motion::nearest(probe, solid).distance == Approx(0.15).margin(1e-9));
  CHECK(motion::nearest(probe, motion::mirrored(solid)).distance == Approx(0.55).margin(1e-9));
  const motion::Obstacle box = motion::Box{{0, 0.1, 0}, {1, 0.3, 1}};
  const auto other = std::get<motion::Box>(motion::mirrored(box));
  CHECK((other.low - Vec3(0, -0.3, 0)).norm() + (other.high - Vec3(1, -0.1, 1)).norm() < 1e-15);
}

TEST_CASE("the figures of a swing: lean, slope, misfit of the unit, what stands out") {
  Leg l = plain_leg(SwingDirection::aft);
  auto f = *swing::swing_figures(l);
  CHECK(f.length == Approx(0.7));
  CHECK(f.down_lean == Approx(0).margin(1e-12));
  CHECK(f.stowed_slope == Approx(0).margin(1e-12));
  CHECK(f.required_angle == Approx(radians(90)));
  CHECK(f.protrusion == Approx(-0.35 + 0.1 + 0.15));  // well mouth −0.35, tyre's lowest −0.25
  l.retraction.unit_angle = Given(radians(97));
  l.retraction.mount_tilt = Given(radians(4));
  f = *swing::swing_figures(l);
  CHECK(f.stowed_slope == Approx(radians(7)));
  CHECK(f.unit_down_lean == Approx(radians(3)));   // ψ − 90° − σ
  CHECK(f.required_angle == Approx(radians(94)));  // 90° + σ + λ
  // A leg that hangs 0.1 m further forward than its pivot leans away from its stowed side.
  l.axle.x = Given(1.9);
  f = *swing::swing_figures(l);
  CHECK(f.down_lean == Approx(std::atan2(0.1, 0.7)));
  CHECK(f.length == Approx(std::hypot(0.1, 0.7)));
}

TEST_CASE("boxes round solids hold them, and lie no farther apart than they do") {
  std::mt19937 random(3);
  std::uniform_real_distribution<double> u(-1, 1);
  const auto vec = [&] { return Vec3(u(random), u(random), u(random)); };
  for (int i = 0; i < 200; ++i) {
    const motion::RoundedWheel wheel{vec(), vec().normalized(), 0.5, 0.2, 0.02 * (i % 3)};
    const motion::Capsule capsule{vec(), vec(), 0.05};
    const motion::Obstacle cylinder = motion::Cylinder{3 * vec(), vec().normalized(), 0.3, 0.4};
    const auto round = motion::bounds(cylinder);
    REQUIRE(round);
    const double to_wheel = motion::nearest(wheel, cylinder).distance;
    const double to_capsule = motion::nearest(capsule, cylinder).distance;
    CHECK(motion::gap(motion::bounds(wheel), *round) <= std::max(0.0, to_wheel) + 1e-7);
    CHECK(motion::gap(motion::bounds(capsule), *round) <= std::max(0.0, to_capsule) + 1e-7);
  }
  // A wheel upright along y takes its width there and its diameter across.
  const auto box = motion::bounds(motion::RoundedWheel{{0, 0, 0}, Vec3::UnitY(), 0.5, 0.2, 0.03});
  CHECK((box.high - Vec3(0.25, 0.1, 0.25)).norm() < 1e-12);
  CHECK_FALSE(motion::bounds(motion::Obstacle(motion::HalfSpace{{0, 0, 0}, Vec3::UnitZ()})));
}

TEST_CASE("a well on the centre line has a port and a starboard wall, one beside it in- and outboard") {
  const auto names = [](const Leg& l) {
    const auto in = swing::swing_input(l, {});
    std::vector<std::string> list;
    for (const auto& o : std::get<swing::SwingInput>(in).obstacles) list.push_back(o.name);
    return list;
  };
  Leg l = plain_leg(SwingDirection::aft);
  CHECK(names(l) ==
        std::vector<std::string>{"front wall", "rear wall", "inboard wall", "outboard wall", "roof"});
  l.stands = LegStands::centre;
  for (Point* p : {&l.axle, &l.retraction.pivot}) p->y = Given(0);
  l.retraction.well.low.y = Given(-0.2);
  l.retraction.well.high.y = Given(0.2);
  CHECK(names(l) ==
        std::vector<std::string>{"front wall", "rear wall", "port wall", "starboard wall", "roof"});
  l.retraction.well.low.y = Given(0.05);  // beside the centre line after all
  CHECK(names(l)[2] == "inboard wall");
}

TEST_CASE("a swing asks for each number it needs") {
  using Number = std::pair<std::function<Given&(Leg&)>, const char*>;
  for (const auto& [number, path] :
       {Number{[](Leg& l) -> Given& { return l.axle.x; }, "axle/x_m"},
        Number{[](Leg& l) -> Given& { return l.retraction.pivot.z; }, "retraction/pivot/z_m"},
        Number{[](Leg& l) -> Given& { return l.retraction.unit_angle; }, "retraction/unit_angle_deg"},
        Number{[](Leg& l) -> Given& { return l.wheel.diameter; }, "wheel/diameter_m"},
        Number{[](Leg& l) -> Given& { return l.wheel.width; }, "wheel/width_m"},
        Number{[](Leg& l) -> Given& { return l.wheel.shoulder_radius; }, "wheel/shoulder_radius_m"},
        Number{[](Leg& l) -> Given& { return l.wheel_offset; }, "wheel_offset_m"},
        Number{[](Leg& l) -> Given& { return l.tube_diameter; }, "tube_diameter_m"},
        Number{[](Leg& l) -> Given& { return l.retraction.growth; }, "retraction/tyre_growth_m"},
        Number{[](Leg& l) -> Given& { return l.retraction.side_play; }, "retraction/side_play_m"},
        Number{[](Leg& l) -> Given& { return l.retraction.well.low.y; }, "retraction/well/low/y_m"},
        Number{[](Leg& l) -> Given& { return l.retraction.well.high.z; }, "retraction/well/high/z_m"},
        Number{[](Leg& l) -> Given& { return l.retraction.well.clearance; },
               "retraction/well/clearance_m"}}) {
    Leg l = plain_leg(SwingDirection::aft);
    number(l) = Given();
    INFO(path);
    const auto in = swing::swing_input(l, {});
    REQUIRE(std::holds_alternative<Text>(in));
    CHECK(paths_in(std::get<Text>(in)) == std::vector<std::string>{std::string("/gear/legs/main/") + path});
  }
}

TEST_CASE("only a hinged leg of one strut hangs its hinge on a strut, and no circle rises above its top") {
  Leg l;
  put(l.top, 2, 1, 0);
  put(l.hinge, 2, 1, -0.5);
  put(l.axle, 2.3, 1, -0.5);
  l.path = LegPath::hinged_athwartships;
  CHECK(motion::strut_above_hinge(l).allFinite());
  Leg straight = l;
  straight.path = LegPath::straight;
  CHECK_FALSE(motion::strut_above_hinge(straight).allFinite());
  Leg of_tubes = l;
  of_tubes.tubes.resize(2);
  CHECK_FALSE(motion::strut_above_hinge(of_tubes).allFinite());
  Leg unknown = l;
  unknown.hinge.x = Given();
  CHECK_FALSE(motion::strut_above_hinge(unknown).allFinite());
  const auto axis = motion::hinge_axis(l);
  REQUIRE(axis);
  CHECK(*motion::turn_to_rise(*axis, l.axle.vec(), 0.15) == Approx(std::asin(0.5)));
  CHECK_FALSE(motion::turn_to_rise(*axis, l.axle.vec(), 0.31));
  CHECK_FALSE(motion::turn_to_rise(*axis, l.axle.vec(), -0.31));
}
