// SPDX-License-Identifier: GPL-3.0-or-later
//! Rotation, tipping, keep-outs, wheels of the shelf: against forces and moments added up anew, and symmetry.
#include "core/place/rotation.h"

#include <catch2/catch.hpp>
#include <numbers>
#include <random>

#include "core/assess/cures.h"
#include "core/io/csv.h"
#include "core/io/shelves.h"
#include "core/model/consistency.h"
#include "core/place/keepout.h"
#include "core/place/place.h"
#include "core/place/tipping.h"
#include "core/place/wheel_shelf.h"
#include "core/weigh/weigh.h"
#include "demo.h"
#include "said.h"

using namespace kranich;
using place::Rotation;
using place::Vec2;

namespace {

place::GroundRun tourer() {
  return {610,    2.12, 0.96, 2.46, 11, 1.26, 2.1,  0.3,  0.06, 0.88,
          -0.055, 2.05, 0.8,  5.32, 1,  1480, 1.04, 0.03, 1.5,  1.225};
}

//! Nose wheel load at a speed, from the sums of forces and of moments about the CG (not the main contact).
double nose_load(const place::GroundRun& r, double v, double nose_x) {
  const double q = 0.5 * r.density * v * v;
  const double weight = r.mass * standard_gravity;
  const double lift = q * r.wing_area * r.ground_lift;
  const double tail = q * r.tail_area * r.tail_down_lift * r.slipstream;
  const double drag = q * r.wing_area * r.drag;
  const double on_wheels = weight - lift + tail;
  // Friction acts at the ground on both wheels; the inertia through the CG drops out of moments about it.
  const double friction = r.friction * on_wheels;
  const double moment = lift * (r.cg_x - r.centre_x) + q * r.wing_area * r.mean_chord * r.moment +
                        tail * (r.tail_x - r.cg_x) + drag * (r.drag_height - r.cg_height) -
                        r.thrust * (r.thrust_height - r.cg_height) - friction * r.cg_height;
  // Nose-up moment about the CG plus the wheels': N_m aft of the CG pushes the nose down.
  // moment + N_n·(x_cg − x_n) − N_m·(x_m − x_cg) = 0, N_n + N_m = on_wheels.
  return (on_wheels * (r.main_x - r.cg_x) - moment) / (r.main_x - nose_x);
}

}  // namespace

TEST_CASE("at the rotation speed the nose wheel carries nothing, by another sum of moments") {
  const auto run = tourer();
  const auto r = place::rotation(run);
  REQUIRE(r.verdict == Rotation::Verdict::rotates);
  CHECK(nose_load(run, r.speed, 0.7) == Approx(0).margin(1e-6 * run.mass * standard_gravity));
  CHECK(nose_load(run, 0.9 * r.speed, 0.7) > 0);
  CHECK(r.ratio == Approx(r.speed / r.stall_speed));
}

TEST_CASE("the furthest-aft wheel rotates at just that ratio") {
  auto run = tourer();
  const auto x = place::furthest_aft_main(run, 1.05);
  REQUIRE(x);
  run.main_x = *x;
  CHECK(place::rotation(run).ratio == Approx(1.05).epsilon(1e-9));
  CHECK(place::rotation(run).missing_moment == Approx(0).margin(1e-6));
}

TEST_CASE("the slipstream helps the tail; where nothing helps it says which") {
  auto run = tourer();
  const double without = place::rotation(run).speed;
  run.slipstream = 1.3;
  CHECK(place::rotation(run).speed < without);
  run = tourer();
  run.tail_area = 0.1;
  run.moment = -0.4;
  CHECK(place::rotation(run).verdict == Rotation::Verdict::never);
  run = tourer();
  run.main_x = run.cg_x - 0.1;
  run.thrust_height = 0.5;
  CHECK(place::rotation(run).verdict == Rotation::Verdict::at_standstill);
  run = tourer();
  run.thrust = 250;
  CHECK(place::rotation(run).verdict == Rotation::Verdict::not_moving_on);
  run = tourer();
  run.ground_lift = 1.6;
  run.centre_x = run.main_x;
  run.tail_area = 0.6;
  run.thrust = 6000;
  CHECK(place::rotation(run).verdict == Rotation::Verdict::flies_off_first);
}

TEST_CASE("the tipping rose of three wheels is the turnover's own figures, of a square the same all round") {
  const std::vector<Vec2> tripod{{0, 0}, {1.7, 1.0}, {1.7, -1.0}};
  const auto polygon = place::support_polygon(tripod);
  REQUIRE(polygon.size() == 3);
  const Vec2 cg(1.3, 0);
  const auto t = place::turnover({0, 1.7, 2.0, 1.3, 0, 0.9});
  CHECK(place::tipping_in_g(polygon, cg, 0.9, {0, 1}) == Approx(t.sideways_in_g));
  CHECK(place::nearest_edge(polygon, cg).distance == Approx(std::min(t.distance, 0.4)));
  CHECK(place::tipping_in_g(polygon, cg, 0.9, {1, 0}) == Approx(0.4 / 0.9));  // backwards over the mains
  const auto square = place::support_polygon({{0, 0}, {1, 0}, {1, 1}, {0, 1}, {0.5, 0.5}});
  REQUIRE(square.size() == 4);
  const auto rose = place::tipping_rose(square, {0.5, 0.5}, 1, 8);
  CHECK(rose[0] == Approx(0.5));
  CHECK(rose[2] == Approx(0.5));
  CHECK(rose[1] == Approx(0.5 * std::numbers::sqrt2));
  CHECK(place::tipping_in_g(square, {1.2, 0.5}, 1, {1, 0}) == Approx(-0.2));  // outside already
  // Every direction: pushed by just that acceleration, the resultant meets the edge.
  for (int i = 0; i < 36; ++i) {
    const double a = i * std::numbers::pi / 18;
    const Vec2 way(std::cos(a), std::sin(a));
    const double g = place::tipping_in_g(polygon, cg, 0.9, way);
    CHECK(place::nearest_edge(polygon, cg + g * 0.9 * way).distance == Approx(0).margin(1e-9));
  }
}

TEST_CASE("a corner outside which the CG lies names the way to it") {
  const auto polygon = place::support_polygon({{0.7, 0}, {2.4, 1}, {2.4, -1}});
  const auto edge = place::nearest_edge(polygon, {0.4, 0});
  CHECK(edge.outward.x() == Approx(-1));
  CHECK(edge.distance == Approx(-0.3));
}

TEST_CASE("a unit goes as far as its keep-outs let it, and a shallower one further") {
  std::vector<KeepOut> list(2);
  list[0].name = "spar";
  list[0].low = {};
  for (auto [p, x, y, z] : {std::tuple{&list[0].low, 1.0, 0.0, -0.2},
                            {&list[0].high, 1.1, 2.0, 0.1},
                            std::tuple{&list[1].low, 0.4, 0.0, -0.5},
                            {&list[1].high, 0.5, 2.0, 0.5}}) {
    p->x = x;
    p->y = y;
    p->z = z;
  }
  list[1].name = "bulkhead";
  const place::Box unit{{1.4, 0.5, -0.3}, {1.6, 0.7, -0.12}};
  auto f = place::furthest(unit, list, 0, -1);
  CHECK(f.shift == Approx(-0.3));
  CHECK(f.stopped_by == "spar");
  CHECK(f.shallower == Approx(0.08));  // its top down below the spar's underside
  CHECK(f.gain == Approx(0.6));        // on to the bulkhead
  f = place::furthest(unit, list, 0, 1);
  CHECK(std::isinf(f.shift));
  const place::Box inside{{1.05, 0.5, -0.1}, {1.2, 0.7, 0}};
  CHECK(place::furthest(inside, list, 0, -1).shift == 0);
  CHECK(inside.overlaps(*place::box_of(list[0])));
  // A cylinder along y takes the room of its radius in x and z.
  KeepOut duct;
  duct.shape = Shape::cylinder;
  duct.low.x = duct.high.x = 2;
  duct.low.z = duct.high.z = 0;
  duct.low.y = -1;
  duct.high.y = 1;
  CHECK_FALSE(place::box_of(duct));  // its radius is missing
  duct.radius = 0.1;
  const auto box = place::box_of(duct);
  REQUIRE(box);
  CHECK(box->low.isApprox(Vec3(1.9, -1, -0.1), 1e-9));
}

TEST_CASE("an aircraft that sits on its tail is told what brings it down, and that does") {
  const place::RoundWheel nose{0.4, -0.2, 0.04};
  const place::RoundWheel main{0.9, -0.19, 0.05};
  const auto r = place::on_its_tail(7, {0.95, 0, 0.02}, nose, main, {1.6, 0.02, 0}, {0.1, 0, 0});
  REQUIRE(r);
  CHECK_FALSE(r->stands);
  CHECK(r->brings_down > r->keeps_down);
  const auto with = [&](double kg) {
    const weigh::Mass parts[]{{7, {0.95, 0, 0.02}}, {kg, {0.1, 0, 0}}};
    const auto m = weigh::sum(parts);
    return place::on_its_tail(m.mass, m.at, nose, main, {1.6, 0.02, 0}, {0.1, 0, 0});
  };
  CHECK(with(1.001 * r->keeps_down)->stands);
  CHECK_FALSE(with(0.999 * r->keeps_down)->stands);
  CHECK(std::abs(place::behind_contact(Vec3(0.95, 0, 0.02), main, r->pitch)) > 0);
}

TEST_CASE("the wheel shelf ranks by what is wanted and says what speaks against a wheel") {
  const auto text = read_text_file(std::filesystem::path(KRANICH_DATA_DIR) / "shelf" / "wheels.csv");
  REQUIRE(text);
  const auto shelf = read_wheel_shelf(*text);
  for (const auto& f : shelf.faults) FAIL(f.where << " " << f.what);
  REQUIRE(shelf.wheels.size() > 10);
  const auto ranked = place::rank_wheels(shelf.wheels, {2500, 0.40, std::nan(""), 0.03, Field::turf, false});
  REQUIRE(ranked.size() > 4);
  CHECK(ranked.front().objection.empty());
  CHECK(shelf.wheels[ranked.front().index].wheel.diameter == Approx(0.4).margin(0.03));
  bool objected = false;
  for (const auto& c : place::rank_wheels(shelf.wheels, {2500, 0.40, std::nan(""), 0.03, Field::sand, false}))
    objected = objected || says(c.objection, "too hard");
  CHECK(objected);
  Wheel fitted;
  fitted.fork_gap = 0.009;
  place::fit_wheel(fitted, shelf.wheels[ranked.front().index]);
  CHECK(fitted.fork_gap.si == 0.009);
  CHECK(fitted.shelf_name == shelf.wheels[ranked.front().index].name);
  CHECK_FALSE(read_wheel_shelf("name,tyre\nx,foam\n").faults.empty());
}

TEST_CASE("a wheel from the shelf brings its mass, and takes the old one's with it") {
  Design d = with_legs();
  put(d.gear.main().axle, 2.4, 1.2, -1);
  put(d.gear.third().axle, 0.7, 0, -1);
  d.gear.main().unsprung_mass = Given(9.0);
  place::ShelfWheel big{"big", {}, 4.5, 3000, ""};
  place::ShelfWheel small{"small", {}, 3.0, 2000, ""};
  // Nothing hangs on the leg yet: an item on each side, at the axle.
  auto mass = place::exchange_wheels(d, {0}, big, std::nan(""));
  CHECK(mass.change == Approx(9.0));
  CHECK_FALSE(mass.unsaid);
  REQUIRE(d.ledger.size() == 2);
  CHECK(d.ledger[0].at.y.si == -1.2);
  CHECK(d.ledger[1].at.y.si == 1.2);
  CHECK(d.ledger[0].moves == d.gear.main().id);
  CHECK(d.gear.main().wheel.shelf_name == "big");
  CHECK(d.gear.main().unsprung_mass.si == 9.0);  // what the old one weighed is not known
  CHECK(relation_faults(d).empty());
  // The next exchange changes those same items, and the unsprung mass by the difference.
  mass = place::exchange_wheels(d, {0}, small, 4.5);
  CHECK(mass.change == Approx(-3.0));
  REQUIRE(d.ledger.size() == 2);
  CHECK(d.ledger[0].mass.si == 3.0);
  CHECK(d.gear.main().unsprung_mass.si == Approx(7.5));

  // A leg weighed with its wheel changes by the difference; one of unknown wheel stays and is told.
  d.ledger.clear();
  for (const double y : {-1.0, 1.0}) {
    Item leg;
    leg.name = y < 0 ? "port leg" : "starboard leg";
    leg.mass = Given(16.4);
    leg.moves = d.gear.main().id;
    put(leg.at, 2.4, y, -0.5);
    d.ledger.push_back(leg);
  }
  mass = place::exchange_wheels(d, {0}, big, 3.0);
  CHECK(d.ledger[0].mass.si == Approx(17.9));
  CHECK(d.ledger[1].mass.si == Approx(17.9));
  CHECK(mass.change == Approx(3.0));
  mass = place::exchange_wheels(d, {0}, small, std::nan(""));
  CHECK(mass.unsaid);
  CHECK(d.ledger[0].mass.si == Approx(17.9));
  // Two on an axle weigh twice as much.
  d.ledger.clear();
  d.gear.third().wheel_spacing = Given(0.2);
  mass = place::exchange_wheels(d, {1}, small, std::nan(""));
  CHECK(mass.change == Approx(6.0));
  CHECK(d.ledger.front().mass.si == Approx(6.0));
}
