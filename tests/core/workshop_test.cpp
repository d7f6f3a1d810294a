// SPDX-License-Identifier: GPL-3.0-or-later
//! What is done by hand round the aircraft: scales, ballast, trays, the table sheet, wheels, design landings,
//! keep-outs.
#include <catch2/catch.hpp>
#include <random>

#include "core/assess/assess.h"
#include "core/assess/landing_state.h"
#include "core/assess/place_rules.h"
#include "core/assess/table_sheet.h"
#include "core/base/quantity.h"
#include "core/io/variants.h"
#include "core/model/moves.h"
#include "core/place/keepout.h"
#include "core/place/wheel_shelf.h"
#include "core/spring/landing.h"
#include "core/weigh/weigh.h"
#include "demo.h"
#include "findings.h"
#include "said.h"

using namespace kranich;

namespace {

//! Nose and main scales as on a tricycle's hangar floor.
Design weighed() {
  Design d = with_legs();
  const auto put_scale = [&](const std::string& leg, double reading, double tare, double x, double y) {
    ScaleReading s;
    s.leg = leg;
    s.reading = Given(reading);
    s.tare = Given(tare);
    s.x = Given(x);
    s.y = Given(y);
    d.weighing.scales.push_back(s);
  };
  put_scale(d.gear.third().id, 110, 2, 0.76, 0);
  put_scale(d.gear.main().id, 260, 1, 2.45, -1.37);
  put_scale(d.gear.main().id, 255, 1, 2.45, 1.37);
  return d;
}

const TableLine& line(const std::vector<TableLine>& sheet, const Text& what, const std::string& loading) {
  for (const auto& l : sheet)
    if (l.what == what && l.loading == loading) return l;
  FAIL("no line " << what);
  return sheet.front();
}

}  // namespace

TEST_CASE("what stood on the scales: mass and place by the moments, tares taken off") {
  const auto on = weigh::on_scales(weighed());
  REQUIRE(on.mass);
  CHECK(on.missing.empty());
  const double third = 108;
  const double port = 259;
  const double starboard = 254;
  CHECK(on.mass->mass == Approx(third + port + starboard));
  CHECK(on.mass->at.x() == Approx((third * 0.76 + (port + starboard) * 2.45) / 621));
  CHECK(on.mass->at.y() == Approx((starboard - port) * 1.37 / 621));
}

TEST_CASE("scales name the reading that is not there, and whose it is") {
  for (Given ScaleReading::*field :
       {&ScaleReading::reading, &ScaleReading::tare, &ScaleReading::x, &ScaleReading::y}) {
    Design d = weighed();
    d.weighing.scales[0].*field = Given();
    const auto on = weigh::on_scales(d);
    CHECK_FALSE(on.mass);
    CHECK(says(on.missing, "nose wheel"));
  }
  Design none = with_legs();
  CHECK_FALSE(weigh::on_scales(none).mass);
  CHECK_FALSE(weigh::on_scales(none).missing.empty());
}

TEST_CASE("any number of scales: two under a twin axle, four at the corners, the raised end told apart") {
  // The nose reading of a tricycle split over two scales is the same weighing.
  Design d = weighed();
  const auto whole = weigh::on_scales(d);
  ScaleReading half = d.weighing.scales[0];
  half.reading = Given(54);
  half.tare = Given(0);
  half.y = Given(0.1);
  d.weighing.scales[0] = half;
  half.y = Given(-0.1);
  d.weighing.scales.push_back(half);
  const auto split = weigh::on_scales(d);
  CHECK(split.mass->mass == Approx(whole.mass->mass));
  CHECK((split.mass->at - whole.mass->at).norm() < 1e-12);
  CHECK(split.raised.scales == 2);
  CHECK(split.raised.load == Approx(whole.raised.load));
  CHECK(split.others.load == Approx(whole.others.load));
  CHECK(split.two_lines);
  // Mains in two lines cannot be tilted about one of them.
  d.weighing.scales[1].x = Given(2.05);
  CHECK_FALSE(weigh::on_scales(d).two_lines);
  // Four corners without nose or tail legs: the front line is the one to raise.
  Design corners = with_legs();
  corners.gear.legs.clear();
  for (const double x : {1.0, 3.0})
    for (const double y : {-1.0, 1.0}) {
      ScaleReading s;
      s.reading = Given(100 + 20 * x + 5 * y);
      s.tare = Given(0);
      s.x = Given(x);
      s.y = Given(y);
      corners.weighing.scales.push_back(s);
    }
  const auto four = weigh::on_scales(corners);
  CHECK(four.mass->mass == Approx(560));
  CHECK(four.raised.x == Approx(1));
  CHECK(four.raised.load == Approx(240));
  CHECK(four.others.x == Approx(3));
  CHECK(four.mass->at.y() == Approx((115 + 155 - 125 - 165 + 20.0) / 560).margin(0.1));
}

TEST_CASE("a scale under each wheel: where they stand, and none twice") {
  Design d = with_legs();
  put(d.gear.main().axle, 2.4, 1.2, -1);
  put(d.gear.third().axle, 0.7, 0, -1);
  weigh::scale_under_each(d);
  REQUIRE(d.weighing.scales.size() == 3);
  double sum = 0;
  for (const auto& s : d.weighing.scales) sum += s.y;
  CHECK(sum == 0);
  CHECK_FALSE(d.weighing.scales[0].reading.known());
  weigh::scale_under_each(d);
  CHECK(d.weighing.scales.size() == 3);
  d.weighing.scales.erase(d.weighing.scales.begin());
  weigh::scale_under_each(d);
  CHECK(d.weighing.scales.size() == 3);
}

TEST_CASE("what makes one mass into another, wherever it must lie") {
  const weigh::Mass have{600, {2.0, 0, 0.1}};
  const weigh::Mass extra{12, {1.1, 0.4, -0.3}};
  const std::vector<weigh::Mass> both{have, extra};
  const auto wanted = weigh::sum(both);
  const auto found = weigh::difference(wanted, have);
  REQUIRE(found);
  CHECK(found->mass == Approx(12));
  CHECK(found->at.isApprox(extra.at, 1e-9));
  const auto back = weigh::difference(have, wanted);
  CHECK(back->mass == Approx(-12));
  CHECK(back->at.isApprox(extra.at, 1e-9));
  CHECK_FALSE(weigh::difference(have, have));
}

TEST_CASE("ballast and a moved item bring the CG where it is wanted") {
  const double ballast = weigh::ballast(9.5, 0.44, 0.42, 0.05);
  CHECK(ballast > 0);
  CHECK((9.5 * 0.44 + ballast * 0.05) / (9.5 + ballast) == Approx(0.42));
  CHECK(weigh::ballast(9.5, 0.44, 0.42, 0.9) < 0);  // none there can do it
  const double move = weigh::move_of_item(9.5, 0.44, 0.42, 1.2);
  CHECK((9.5 * 0.44 + 1.2 * move) / 9.5 == Approx(0.42));
}

TEST_CASE("what slides goes no further than its tray, and takes the CG with it") {
  Item battery;
  battery.at.x = Given(0.2);
  CHECK(in_tray(battery, 5) == 5);  // no tray
  battery.slides_from = Given(0.1);
  battery.slides_to = Given(0.3);
  CHECK(in_tray(battery, 0.25) == 0.25);
  CHECK(in_tray(battery, 0.05) == 0.1);
  CHECK(in_tray(battery, 0.9) == 0.3);
  auto d = demo("redshank");
  const std::string loading = d.loadings.front().name;
  const auto cg = [&] { return weigh::sum_loading(d, d.loadings.front()).down.at.x(); };
  const double before = cg();
  weigh::shift_cg(d, loading, 0.002);
  const double after = cg();
  CHECK(after > before);
  CHECK(after <= before + 0.002 + 1e-9);
  weigh::shift_cg(d, loading, -10);
  const double foremost = cg();
  weigh::shift_cg(d, loading, -10);
  CHECK(cg() == Approx(foremost));
  const auto same = d;
  weigh::shift_cg(d, "no such loading", 0.1);
  CHECK(d == same);
}

TEST_CASE("a new entry gets a name that none has") {
  std::vector<Door> doors;
  CHECK(unused_name(doors, "door") == "door");
  doors.resize(2);
  doors[0].name = "door";
  doors[1].name = "door 3";
  CHECK(unused_name(doors, "door") == "door 2");
  doors[1].name = "door 2";
  CHECK(unused_name(doors, "door") == "door 3");
  CHECK(unused_name(doors, "flap") == "flap");
}

TEST_CASE("a line of the table sheet is off by its worse side, and a ruler leaves room") {
  TableLine l{};
  l.both_sides = true;
  l.computed_starboard = l.computed_port = 0.5;
  l.read_starboard = l.read_port = std::nan("");
  CHECK_FALSE(l.is_read());
  CHECK(std::isnan(l.off()));
  l.read_starboard = 0.503;
  CHECK(l.is_read());
  CHECK(l.off() == Approx(0.003));
  l.read_port = 0.489;
  CHECK(l.off() == Approx(-0.011));
  CHECK(l.allowed(false) == Approx(0.005));
  CHECK(l.allowed(true) == Approx(0.005));  // a hundredth of half a metre
  l.computed_starboard = l.computed_port = 0.02;
  CHECK(l.allowed(true) == Approx(0.001));
  l.computed_starboard = 2;
  CHECK(l.allowed(false) == Approx(0.02));
  TableLine angle{};
  angle.is_angle = true;
  CHECK(angle.allowed(false) == Approx(radians(0.5)));
}

TEST_CASE("a reading on the table is filed with its build state and can be taken out") {
  auto d = demo("wheatear");
  const auto sheet = table_sheet(d, assess(d));
  REQUIRE_FALSE(sheet.empty());
  const TableLine first = sheet.front();
  set_reading(d, first, false, first.computed_starboard + 0.004);
  REQUIRE(d.stance.readings.size() == 1);
  CHECK_FALSE(d.stance.readings[0].build_state.empty());
  const auto read = line(table_sheet(d, assess(d)), first.what, first.loading);
  CHECK(read.off() == Approx(0.004));
  set_reading(d, first, false, std::nan(""));
  CHECK_FALSE(line(table_sheet(d, assess(d)), first.what, first.loading).is_read());
}

TEST_CASE("a hard tyre stands on a small patch; soft ground bears little") {
  Wheel w;
  w.width = Given(0.10);
  w.diameter = Given(0.36);
  CHECK(place::contact_patch(w, 0.01) == Approx(2.3 * std::sqrt(0.036) * 0.01));
  CHECK(place::contact_patch(w, 0.02) == Approx(2 * place::contact_patch(w, 0.01)));
  const auto sand = place::firmest_pressure(Field::sand);
  const auto turf = place::firmest_pressure(Field::turf);
  REQUIRE((sand && turf));
  CHECK(sand->pressure < turf->pressure);
  CHECK_FALSE(place::firmest_pressure(Field::tarmac));
}

TEST_CASE("what a wheel of the shelf has to be follows from load, scale and field") {
  const auto d = demo("redshank");
  const auto a = assess(d);
  const auto main = wheel_need(d, a, d.gear.main());
  CHECK(main.model);
  CHECK(main.field == Field::turf);
  CHECK(main.scale_diameter == Approx(0.68 / 5));
  CHECK(main.load > 40);
  CHECK(main.obstacle == Approx(0.015));
  const auto tail = wheel_need(d, a, d.gear.third());
  CHECK(tail.usual_diameter == Approx(0.3 * main.usual_diameter).epsilon(0.2));
  auto smooth = d;
  smooth.purpose.field = Field::tarmac;
  CHECK(wheel_need(smooth, assess(smooth), smooth.gear.main()).usual_diameter ==
        Approx(main.usual_diameter / 1.25));
  const auto full = demo("dunnock");
  const auto nose = wheel_need(full, assess(full), full.gear.third());
  CHECK(std::isnan(nose.scale_diameter));
  CHECK_FALSE(nose.model);
}

TEST_CASE("each school gives a sink speed or says what it lacks") {
  auto d = demo("redshank");
  const auto speed = [&](School s) {
    const auto v = sink_speed_by(s, d, 9.5);
    return std::holds_alternative<double>(v) ? std::get<double>(v) : -1;
  };
  const auto lacks = [&](School s) {
    const auto v = sink_speed_by(s, d, 9.5);
    return std::holds_alternative<Text>(v) ? std::get<Text>(v) : Text();
  };
  CHECK(speed(School::ladder) == Approx(spring::sink_speed_of_drop(0.25)));
  CHECK(speed(School::similarity) == Approx(2.6 / std::sqrt(5)));
  CHECK(speed(School::rule) == Approx(2.1336));
  d.landing.ladder_height = Given();
  CHECK(says(lacks(School::ladder), "drop height"));
  d.landing.prototype_sink_speed = Given();
  CHECK(says(lacks(School::similarity), "prototype"));
  d.airframe.wing.span = Given();
  CHECK(says(lacks(School::rule), "span"));
}

TEST_CASE("a unit slides until just where a keep-out begins") {
  const place::Box unit{{0, 0, 0}, {0.1, 0.1, 0.1}};
  std::mt19937 random(11);
  std::uniform_real_distribution<double> u(-0.4, 0.4);
  for (int i = 0; i < 200; ++i) {
    const Vec3 low(u(random), u(random), u(random));
    const place::Box other{low, low + Vec3(0.1, 0.15, 0.12)};
    for (const int axis : {0, 1}) {
      const auto at = place::blocked(unit, other, axis);
      const auto moved = [&](double by) {
        place::Box b = unit;
        b.low[axis] += by;
        b.high[axis] += by;
        return b;
      };
      if (!at) {
        for (double by = -0.6; by < 0.6; by += 0.05) CHECK_FALSE(moved(by).overlaps(other));
        continue;
      }
      CHECK(moved((at->from + at->to) / 2).overlaps(other));
      CHECK_FALSE(moved(at->from - 1e-6).overlaps(other));
      CHECK_FALSE(moved(at->to + 1e-6).overlaps(other));
    }
  }
}

TEST_CASE("keep-outs that lack a measure fill nothing and are not taken as zero") {
  KeepOut k;
  CHECK_FALSE(place::box_of(k));
  k.low = {{}, Given(0.0), Given(0.0), Given(0.0)};
  k.high = {{}, Given(0.2), Given(0.1), Given(0.3)};
  REQUIRE(place::box_of(k));
  CHECK(place::box_of(k)->high.isApprox(Vec3(0.2, 0.1, 0.3)));
  k.shape = Shape::cylinder;
  CHECK_FALSE(place::box_of(k));
  k.radius = Given(0.05);
  const auto b = place::box_of(k);
  REQUIRE(b);
  CHECK(b->high.z() >= 0.3 - 1e-9);
  Leg leg;
  CHECK_FALSE(place::unit_of(leg));
}

TEST_CASE("a variant keeps the new stations' inputs too") {
  auto d = demo("redshank");
  d.gear.main().joints[0].brace_arm = Given(0.2, Origin::measured, 0.001);
  d.jig.bar_port.up = Given(0.01, Origin::estimated);
  d.scatter.drops = Given(1234.0);
  d.materials.push_back({});
  d.materials[0].name = "mine";
  d.materials[0].yield = Given(1e8);
  keep_variant(d, "as built", "");
  const auto back = variant(d, "as built");
  REQUIRE(back);
  auto plain = d;
  plain.variants.clear();
  CHECK(*back == plain);
}

TEST_CASE("a project without the new parts reads as before, with its defaults marked") {
  const auto r = read_project(R"({"kranich": 1, "about": {"name": "old"}})");
  REQUIRE(r.design);
  CHECK(r.design->load_factors.ultimate.origin == Origin::by_default);
  CHECK(r.design->load_factors.ultimate == Approx(1.5));
  CHECK(r.design->scatter.drops == Approx(5000));
  CHECK_FALSE(r.design->bump.height.known());
  CHECK(r.design->materials.empty());
  CHECK(r.design->gear.main().joints.empty());
}

TEST_CASE("faults in the new parts are named by their path") {
  struct Case {
    const char* text;
    const char* where;
  };
  for (const auto& c :
       {Case{R"({"kranich": 1, "load_factors": {"ultimate": 0.5}})", "/load_factors/ultimate"},
        Case{R"({"kranich": 1, "gear": {"main": {"joints": [{"kind": "string"}]}}})",
             "/gear/main/joints/0/kind"},
        Case{R"({"kranich": 1, "gear": {"main": {"spring": {"bent": {"line": [{"width_m": -1}]}}}}})",
             "/gear/main/spring/bent/line/0/width_m"},
        Case{R"({"kranich": 1, "materials": [{"yield_Pa": "strong"}]})", "/materials/0/yield_Pa"},
        Case{R"({"kranich": 1, "scatter": {"sink_speed": 2}})", "/scatter/sink_speed"},
        Case{R"({"kranich": 1, "jig": {"paper": "A3"}})", "/jig/paper"}}) {
    const auto r = read_project(c.text);
    INFO(c.text);
    REQUIRE_FALSE(r.design);
    REQUIRE_FALSE(r.faults.empty());
    CHECK(r.faults[0].where == c.where);
  }
}

TEST_CASE("the ballast that keeps it down does, hung in its place, and nine tenths of it do not") {
  auto d = demo("dunnock");
  Item engine_out;
  engine_out.name = "tail weight";
  engine_out.mass = Given(60);
  put(engine_out.at, 6.0, 0, 0.2);
  d.ledger.push_back(engine_out);
  const auto a = assess(d);
  int kept = 0;
  for (const auto& f : a.findings) {
    if (f.measure_id != "stance.ballast_keeps" || !std::isfinite(f.value)) continue;
    ++kept;
    for (const double share : {1.001, 0.9}) {
      Design with = d;
      Item ballast;
      ballast.name = "ballast";
      ballast.mass = Given(share * f.value);
      put(ballast.at, f.working[0].si, 0, a.find(f.loading)->mass.down.at.z());
      with.ledger.push_back(ballast);
      const auto after = assess(with);
      INFO(f.loading << " " << share * f.value << " kg");
      CHECK(after.find(f.loading)->rest.has_value() == (share > 1));
    }
    for (const auto& b : a.findings)
      if (b.measure_id == "stance.ballast_brings" && b.loading == f.loading) CHECK(b.value >= f.value);
  }
  CHECK(kept > 0);
}

TEST_CASE("an incidence that is read on the table is judged by half a degree") {
  auto d = demo("dunnock");
  const auto sheet = table_sheet(d, assess(d));
  for (const auto& line : sheet) {
    if (!line.is_angle) continue;
    for (const double off : {0.3, 0.7}) {
      Design read = d;
      set_reading(read, line, false, line.computed_starboard + radians(off));
      const auto a = assess(read);
      const Finding* f = worst(a, "stance.table_angle", in_words(line.what));
      REQUIRE(f);
      CHECK(f->value == Approx(radians(off)));
      CHECK((f->verdict == Verdict::fails) == (off > 0.5));
    }
  }
}
