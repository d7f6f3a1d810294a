// SPDX-License-Identifier: GPL-3.0-or-later
//! Weigh, Place, Spring and Sequence against closed forms, symmetry, and other ways of reaching the same
//! figure.
#include <catch2/catch.hpp>
#include <filesystem>
#include <random>

#include "core/assess/assess.h"
#include "core/base/numerics.h"
#include "core/base/quantity.h"
#include "core/force/coil.h"
#include "core/force/suspension.h"
#include "core/io/project_file.h"
#include "core/model/locate.h"
#include "core/model/moves.h"
#include "core/place/place.h"
#include "core/sequence/sequence.h"
#include "core/spring/landing.h"
#include "core/weigh/weigh.h"
#include "demo.h"
#include "said.h"
#include "timed.h"

using namespace kranich;

namespace {

//! What Froude's law does to a quantity of a kind at 1:s: the power of s it is divided by.
double froude_power(Kind kind) {
  switch (kind) {
    case Kind::length:
    case Kind::distance:
    case Kind::bore:
    case Kind::pressure:
    case Kind::stress:
      return 1;
    case Kind::area:
    case Kind::section_area:
    case Kind::stiffness:
      return 2;
    case Kind::mass:
    case Kind::volume:
    case Kind::force:
      return 3;
    case Kind::moment:
    case Kind::torsion_rate:
    case Kind::energy:
      return 4;
    case Kind::speed:
    case Kind::time:
      return 0.5;
    case Kind::damping:
    case Kind::flow:
      return 2.5;
    case Kind::inertia:
      return 5;
    case Kind::turn_rate:
      return -0.5;
    default:
      return 0;
  }
}

//! The same aircraft, smaller, every quantity by its kind.
void scale(Design& d, double s) {
  for (const auto& g : all_given(d)) {
    Given& given = *locate_given(d, g.path)->given;
    given.si /= std::pow(s, froude_power(g.spec.kind));
    given.tolerance /= std::pow(s, froude_power(g.spec.kind));
  }
}

const Finding* find(const Assessment& a, const Finding& like) {
  for (const auto& f : a.findings)
    if (f.measure_id == like.measure_id && f.subject == like.subject && f.loading == like.loading) return &f;
  return nullptr;
}

}  // namespace

TEST_CASE("scaled by Froude's law, every figure scales as its kind does") {
  for (const std::string name : {"dunnock", "redshank", "wheatear"}) {
    auto full_design = demo(name);
    // A wire does not know of Froude: its coil is taken as the linear spring it is.
    if (Leg& leg = full_design.gear.main(); leg.spring.kind == SpringKind::coil) {
      const auto coil = force::coil_at_wheel(leg.spring.coil);
      leg.spring.kind = SpringKind::linear;
      leg.spring.rate = coil->rate;
      leg.spring.preload = coil->preload;
    }
    // Nor does one that bends, nor what parts are left with: its rate stands in for it.
    if (Leg& leg = full_design.gear.third(); leg.spring.kind == SpringKind::bending) {
      const auto path = force::suspension_of(leg, {});
      leg.spring.rate = std::get<force::Suspension>(path).law.rate;
      leg.spring.preload = 0;
      leg.spring.kind = SpringKind::linear;
    }
    full_design.bump.bush_friction = 0;  // dry friction turns at a speed of its own
    const auto full = assess(full_design);
    auto small_design = full_design;
    const double s = 4;
    scale(small_design, s);
    const auto small = assess(small_design);
    int compared = 0;
    for (const auto& f : full.findings) {
      const std::string id = f.measure_id;
      // Statistics of wheels and the wire's strength are no laws of mechanics; scale is not scaled again.
      if (id == "place.wheel_size" || id.rfind("spring.coil", 0) == 0 || id == "leg.margin" ||
          id == "drive.column" || id == "circuit.voltage" || id == "leg.path" || id == "leg.post_gain" ||
          id.rfind("place.scale", 0) == 0 || id == "spring.sink_speed" || id == "spring.stroke" ||
          id == "spring.load_factor" || !std::isfinite(f.value))
        continue;
      // The rule's sink speed has its own limits: a landing by rule does not scale.
      const bool of_drop = id.rfind("spring.drop", 0) == 0 || id == "spring.rim";
      if (of_drop && full_design.landing.school == School::rule) continue;
      const Finding* o = find(small, f);
      REQUIRE(o);
      INFO(name << " " << f.key());
      ++compared;
      const double expected = f.value / std::pow(s, froude_power(f.info().kind));
      // The speed at which dry friction turns is a property of the surfaces, and integration has its own
      // error.
      // Where a clearance is met is found as well as the clearance, to a micrometre at any size.
      const double within = of_drop || id.rfind("spring.bump", 0) == 0 ? 5e-3
                            : id == "sequence.zone"                    ? 2e-3
                                                                       : 1e-5;
      CHECK(o->value == Approx(expected).epsilon(within).margin(2e-6));
    }
    CHECK(compared > 60);
  }
}

TEST_CASE("moving the datum moves nothing but stations") {
  const auto here = assess(demo("redshank"));
  auto d = demo("redshank");
  const double by = 1.5;
  for (auto& i : d.ledger)
    for (Given* g : {&i.at.x, &i.slides_from, &i.slides_to}) g->si += by;
  d.purpose.prototype_main_x.si += by * d.purpose.scale_denominator;
  for (auto& l : d.loadings)
    for (auto& a : l.aboard) a.x.si += by;
  for (auto& p : d.airframe.low_points) p.at.x.si += by;
  for (auto& p : d.airframe.propellers) p.hub.x.si += by;
  for (auto& door : d.doors)
    for (Point* p : points_of(door)) p->x.si += by;
  for (Leg* leg : {&d.gear.main(), &d.gear.third()}) shift_leg(*leg, by, 0, 0);
  d.airframe.wing.root_leading_edge_x.si += by;
  d.airframe.cg_forward_limit.si += by;
  d.airframe.cg_aft_limit.si += by;
  const auto there = assess(d);
  for (const auto& f : here.findings) {
    const Finding* o = find(there, f);
    REQUIRE(o);
    INFO(f.key());
    const bool station = f.measure_id.rfind("weigh.cg_", 0) == 0 && f.info().kind == Kind::length &&
                         f.measure_id != "weigh.cg_waterline" && f.measure_id != "weigh.cg_side";
    if (std::isfinite(f.value)) CHECK(o->value - (station ? by : 0) == Approx(f.value).margin(2e-6));
    CHECK(o->verdict == f.verdict);
  }
}

TEST_CASE("the extremes of a ledger's CG are those of every corner of its errors") {
  std::mt19937 random(5);
  std::uniform_real_distribution<double> u(0.5, 10);
  for (int round = 0; round < 30; ++round) {
    std::vector<weigh::LedgerLine> lines;
    for (int i = 0; i < 8; ++i) {
      const double m = u(random);
      lines.push_back({{m, Vec3(u(random) - 3, 0, 0)}, i % 2 == 0, i % 3 ? 0.3 * m : 0});
    }
    double least = 1e9;
    double most = -1e9;
    for (int corner = 0; corner < 256; ++corner) {
      double mass = 0;
      double moment = 0;
      for (int i = 0; i < 8; ++i) {
        const auto& l = lines[static_cast<size_t>(i)];
        const double m = l.item.mass + (corner >> i & 1 ? l.tolerance : -l.tolerance);
        mass += m;
        moment += m * l.item.at.x();
      }
      least = std::min(least, moment / mass);
      most = std::max(most, moment / mass);
    }
    const auto s = weigh::sum_ledger(lines);
    CHECK(s.cg_x_foremost == Approx(least).margin(1e-12));
    CHECK(s.cg_x_aftmost == Approx(most).margin(1e-12));
  }
}

TEST_CASE("ballast and a moved item both bring the CG where they say") {
  const double b = weigh::ballast(9.25, 0.868, 0.842, 0.115);
  CHECK((9.25 * 0.868 + b * 0.115) / (9.25 + b) == Approx(0.842));
  const double move = weigh::move_of_item(9.25, 0.868, 0.842, 1.18);
  CHECK((9.25 * 0.868 + 1.18 * move) / 9.25 == Approx(0.842));
  CHECK(weigh::ballast(9.25, 0.868, 0.842, 0.9) < 0);  // behind the target none can do it
}

TEST_CASE("a wing cut into panels has the chord of the whole") {
  const auto whole = weigh::mean_aerodynamic_chord(1.7, std::vector<weigh::Panel>{{4.4, 1.5, 1.0, 0.05}});
  const auto halves = weigh::mean_aerodynamic_chord(
      1.7, std::vector<weigh::Panel>{{2.2, 1.5, 1.25, 0.05}, {2.2, 1.25, 1.0, 0.05}});
  CHECK(halves.area == Approx(whole.area));
  CHECK(halves.mean_chord == Approx(whole.mean_chord));
  CHECK(halves.leading_edge_x == Approx(whole.leading_edge_x));
  CHECK(halves.percent(2.1) == Approx(whole.percent(2.1)));
}

TEST_CASE("at the tail-strike angle the point is on the ground, at the three-point angle both wheels are") {
  const place::RoundWheel main{2.46, -0.48, 0.178};
  const Vec3 tail(5.55, 0, 0.14);
  const std::vector<place::HighPoint> points{
      {place::behind_contact(tail, main, 0), place::height_above_ground(tail, main, 0)}};
  const auto strike = place::tail_strike(points, main.radius);
  REQUIRE(strike);
  CHECK(place::height_above_ground(tail, main, strike->round_wheels) == Approx(0).margin(1e-12));
  CHECK_FALSE(place::tail_strike(std::vector<place::HighPoint>{{-1, 0.5}}, 0.2));
  const place::RoundWheel small{4.86, -0.2, 0.07};
  const auto pitch = place::pitch_on(main, small);
  REQUIRE(pitch);
  CHECK(place::height_above_ground({small.x, 0, small.z}, main, *pitch) == Approx(small.radius));
  CHECK_FALSE(place::pitch_on({0, 0, 1}, {0.1, 0, 0.2}));
}

TEST_CASE("turnover is the same for either side, and worse with the CG off the middle") {
  const place::Tripod middle{0.7, 2.46, 2.05, 2.12, 0, 1.0};
  place::Tripod port = middle;
  place::Tripod starboard = middle;
  port.cg_y = -0.1;
  starboard.cg_y = 0.1;
  CHECK(place::turnover(port).angle == Approx(place::turnover(starboard).angle));
  CHECK(place::turnover(port).angle > place::turnover(middle).angle);
  CHECK(place::turnover(middle).sideways_in_g > place::turnover(middle).square_in_g);
}

TEST_CASE("bending legs out keeps their length and finds its way back") {
  const auto cant = place::cant_for_track(0.072, 0.245, 0.36);
  REQUIRE(cant);
  CHECK(place::bend_out(0.072, 0.245, 0.3, *cant).track_after == Approx(0.36));
  CHECK_FALSE(place::cant_for_track(0.072, 0.245, 0.7));
}

TEST_CASE("the first estimate of the stroke balances its energies") {
  const spring::StrokeInput in{190, 2.6, 2.2, 2.0 / 3, 0.7, 0.46, 0.055};
  const auto s = spring::first_estimate(in);
  REQUIRE(s);
  const double g = standard_gravity;
  const double given = 0.5 * in.mass * in.sink_speed * in.sink_speed +
                       in.mass * g * (1 - in.lift_ratio) * (s->strut_travel + in.tyre_deflection);
  const double taken = in.load_factor * in.mass * g *
                       (in.strut_efficiency * s->strut_travel + in.tyre_efficiency * in.tyre_deflection);
  CHECK(given == Approx(taken).epsilon(1e-12));
  spring::StrokeInput weak = in;
  weak.load_factor = 0.4;
  CHECK_FALSE(spring::first_estimate(weak));
  const auto factor = spring::load_factor_for_travel(in, 170000, 0.2);
  REQUIRE(factor);
  spring::StrokeInput again = in;
  again.load_factor = *factor;
  again.tyre_deflection = *factor * in.mass * g / 170000;
  CHECK(spring::first_estimate(again)->strut_travel == Approx(0.2).epsilon(1e-9));
}

TEST_CASE("springs: energies are integrals, order does not matter") {
  const auto a = force::in_series(6000, 0.02, 15000, 0.025, 0.034);
  const auto b = force::in_series(15000, 0.025, 6000, 0.02, 0.034);
  CHECK(a.force == Approx(b.force));
  CHECK(a.energy == Approx(b.energy));
  double work = 0;
  for (int i = 0; i < 3400; ++i)
    work += force::in_series(6000, 0.02, 15000, 0.025, (i + 0.5) * 1e-5).force * 1e-5;
  CHECK(a.energy == Approx(work).epsilon(1e-6));
  const force::BoughtGasSpring bought{180, 1.45, 0.08};
  work = 0;
  for (int i = 0; i < 8000; ++i) work += bought.force((i + 0.5) * 1e-5) * 1e-5;
  CHECK(bought.energy(0.08) == Approx(work).epsilon(1e-7));
  CHECK(force::BoughtGasSpring{180, 1, 0.08}.energy(0.05) == Approx(9));
}

TEST_CASE("roots are found where they are, and not where there is none") {
  CHECK(*find_root([](double x) { return x * x - 2; }, 0, 2) == Approx(std::sqrt(2.0)).epsilon(1e-14));
  CHECK(*find_root([](double x) { return 2 - x * x; }, 2, 0) == Approx(std::sqrt(2.0)).epsilon(1e-14));
  CHECK_FALSE(find_root([](double x) { return x * x + 1; }, -1, 1));
  CHECK(*find_nearest_root([](double x) { return (x - 0.4) * (x + 3); }, 0, 0.05, -5, 5) == Approx(0.4));
  CHECK(*find_nearest_root([](double x) { return (x - 4) * (x + 0.3); }, 0, 0.05, -5, 5) == Approx(-0.3));
  CHECK_FALSE(find_nearest_root([](double) { return 1.0; }, 0, 0.05, -5, 5));
  CHECK(find_minimum([](double x) { return (x - 0.3) * (x - 0.3); }, 0, 1).at == Approx(0.3).margin(1e-6));
}

TEST_CASE("what only the bench has aboard is no part of the CG's extremes") {
  Design d = demo("dunnock");
  const auto before = weigh::cg_extremes(d);
  REQUIRE(before);
  Item shop;
  shop.name = "shop weight";
  shop.group = Group::load;
  shop.mass = Given(80);
  shop.at = {{}, Given(6.0), Given(0.0), Given(0.0)};
  d.ledger.push_back(shop);
  Loading bench;
  bench.name = "on the bench";
  bench.flown = false;
  bench.aboard.push_back({{}, "shop weight", {}, {}});
  d.loadings.push_back(bench);
  CHECK(weigh::cg_extremes(d)->aftmost.x == before->aftmost.x);
  // Flown once, it counts; and with the mass that it is flown with.
  d.loadings.front().aboard.push_back({{}, "shop weight", Given(5), {}});
  const auto with = weigh::cg_extremes(d)->aftmost;
  CHECK(with.x > before->aftmost.x);
  CHECK(says(with.with, "shop weight 5 kg"));
}

TEST_CASE("a low point ahead of a tail wheel's mains is lowest with the tail up") {
  Design d = demo("wheatear");
  d.airframe.low_points.clear();
  LowPoint ahead;
  ahead.name = "sump";
  ahead.at = {{}, Given(d.gear.main().axle.x - 0.6), Given(0.0), Given(-0.3)};
  d.airframe.low_points.push_back(ahead);
  const auto a = assess(d);
  const double ground = d.gear.main().axle.z + d.gear.main().travel - d.gear.main().wheel.flat_radius;
  int told = 0;
  for (const auto& f : a.findings)
    if (f.measure_id == "place.low_point") {
      CHECK(f.value == Approx(-0.3 - ground).margin(0.02));  // level, bottomed and flat
      CHECK(f.remark == "lowest with the tail up");
      ++told;
    }
  CHECK(told > 0);
}

TEST_CASE("the tip of a wing dips over the side whose wheel stands nearer") {
  Design d = demo("dunnock");
  LowPoint tip;
  tip.name = "tip";
  tip.role = PointRole::wing_tip;
  tip.at = {{}, Given(2.4), Given(4.5), Given(0.2)};
  d.airframe.low_points = {tip};
  const auto tip_of = [](const Design& x) {
    const auto a = assess(x);
    for (const auto& f : a.findings)
      if (f.measure_id == "place.wing_tip") return f.value;
    return std::nan("");
  };
  const double alike = tip_of(d);
  unlink_leg(d, row_of(d.gear, d.gear.main().id));
  CHECK(tip_of(d) == Approx(alike));
  for (auto& leg : d.gear.legs)
    if (leg.stands == LegStands::port) leg.axle.y.si -= 0.2;
  CHECK(tip_of(d) < alike - 0.2 * std::sin(radians(4)));
}

TEST_CASE("a well goes with its leg") {
  Design d = demo("dunnock");
  const auto value = [](const Design& x) {
    const auto a = assess(x);
    for (const auto& f : a.findings)
      if (f.measure_id == "swing.clearance" && in_words(f.subject.words) == "main legs") return f.value;
    return std::nan("");
  };
  d.airframe.keep_outs.clear();
  const double before = value(d);
  shift_mains(d, 0.05, 0, 0);
  CHECK(value(d) == Approx(before).margin(1e-6));
}

TEST_CASE("a timeline knows where everything is at any time") {
  const auto d = demo("dunnock");
  std::vector<Text> problems;
  const auto t = sequence::timeline(d, timed(d), d.sequence.up, problems);
  CHECK(problems.empty());
  CHECK(t.bars.size() == d.sequence.up.size());
  CHECK(sequence::position_at(t, "main-doors", -1, 0) == 0);
  CHECK(sequence::position_at(t, "main-doors", 0.8, 0) == Approx(0.5));
  CHECK(sequence::position_at(t, "main-doors", 5, 0) == 1);
  CHECK(sequence::position_at(t, "main-doors", 30, 0) == 0);
  CHECK(sequence::position_at(t, "main", 30, 0) == 1);
  std::vector<Step> wrong(2);
  wrong[0].actor = "bomb doors";
  wrong[0].start = 0.0;
  wrong[1].actor = "main-doors";
  wrong[1].action = Action::raise;
  wrong[1].start = 0.0;
  sequence::timeline(d, timed(d), wrong, problems);
  REQUIRE(problems.size() == 2);
  CHECK(says(problems[0], "no actor of this aircraft"));
  CHECK(says(problems[1], "cannot do that"));
}

TEST_CASE("the field is asked for before what hangs on it is judged") {
  Design d = demo("dunnock");
  d.purpose.field = Field::unsaid;
  d.airframe.aerodynamics.friction = {};
  const Assessment a = assess(d);
  bool asked = false, said = false;
  for (const auto& f : a.findings) {
    if (f.measure_id == "place.ground_pressure" && f.subject.leg == "main") {
      CHECK(f.verdict == Verdict::unknown);
      const auto paths = paths_in(f.remark);
      asked = asked || std::find(paths.begin(), paths.end(), "/purpose/field") != paths.end();
    }
    if (f.measure_id == "place.rotation") {
      CHECK(in_words(f.assumption).find("the field is not said") != std::string::npos);
      said = true;
    }
  }
  CHECK(asked);
  CHECK(said);
  d.purpose.field = Field::turf;
  for (const auto& f : assess(d).findings)
    if (f.measure_id == "place.ground_pressure" && f.subject.leg == "main")
      CHECK(f.verdict != Verdict::unknown);
  // It is kept, and a file that says nothing means what it meant.
  d.purpose.field = Field::unsaid;
  CHECK(read_project(write_project(d)).design->purpose.field == Field::unsaid);
  CHECK(read_project("{\"kranich\": 3}").design->purpose.field == Field::turf);
}
