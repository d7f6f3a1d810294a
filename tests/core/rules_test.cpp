// SPDX-License-Identifier: GPL-3.0-or-later
//! What follows from field, use and size; what each missing input is called; what every finding must carry.
#include <catch2/catch.hpp>
#include <map>
#include <set>

#include "core/assess/assess.h"
#include "core/assess/loading_state.h"
#include "core/assess/place_rules.h"
#include "core/assess/standing.h"
#include "core/assess/tolerance.h"
#include "core/force/suspension.h"
#include "core/io/csv.h"
#include "core/io/shelves.h"
#include "core/model/locate.h"
#include "core/model/moves.h"
#include "demo.h"
#include "findings.h"
#include "said.h"

using namespace kranich;

namespace {

const std::vector<std::string> demos{"dunnock", "redshank", "wheatear"};

//! The remark of the check that lacks an input after it was taken away.
std::string missing_after(const std::string& name, const std::string& path, std::string_view id) {
  auto d = demo(name);
  const auto at = locate_given(d, path);
  INFO(path);
  REQUIRE(at);
  *at->given = Given();
  const auto a = assess(d);
  for (const auto& f : a.findings)
    if (f.measure_id == id && f.verdict == Verdict::unknown) return in_words(f.remark);
  return "";
}

}  // namespace

TEST_CASE("every finding has its measure, a finite value or a reason, and limits that say who set them") {
  for (const auto& name : demos) {
    const auto d = demo(name);
    for (const auto& f : assess(d).findings) {
      INFO(name << " " << f.key());
      CHECK(find_measure(f.measure_id) != nullptr);
      if (!std::isfinite(f.value)) CHECK_FALSE(f.remark.empty());
      if (f.limit.set()) CHECK_FALSE(f.limit.source.empty());
      if (f.limit.lower && f.limit.upper) CHECK(*f.limit.lower < *f.limit.upper);
      for (const auto& w : f.working) CHECK_FALSE(w.name.empty());
      if (f.verdict == Verdict::holds) CHECK(f.margin >= 0);
      if (f.verdict == Verdict::fails && std::isfinite(f.margin)) CHECK(f.margin < 0);
    }
  }
}

TEST_CASE("each check is filed once for each subject and loading") {
  for (const auto& name : demos) {
    std::set<std::string> keys;
    for (const auto& f : assess(demo(name)).findings) {
      INFO(name << " " << f.key());
      CHECK(keys.insert(f.key()).second);
    }
  }
}

TEST_CASE("a station asked for alone says the same as when all are asked") {
  for (const auto& name : demos) {
    const auto d = demo(name);
    const auto all = assess(d);
    for (const Station s : {Station::weigh, Station::place, Station::stance, Station::spring, Station::swing,
                            Station::steer, Station::doors, Station::sequence}) {
      // With the stations that it builds on.
      const Stations which = Stations::only(s);
      const auto alone = assess(d, which);
      size_t expected = 0;
      for (const auto& f : all.findings) expected += which.has(f.info().station);
      CHECK(alone.findings.size() == expected);
      for (const auto& f : alone.findings) {
        CHECK(which.has(f.info().station));
        const auto same = std::find_if(all.findings.begin(), all.findings.end(),
                                       [&](const Finding& o) { return o.key() == f.key(); });
        REQUIRE(same != all.findings.end());
        CHECK((same->value == f.value || (std::isnan(same->value) && std::isnan(f.value))));
      }
    }
  }
}

TEST_CASE("one measure asked for alone says the same too") {
  for (const auto& name : demos) {
    const auto d = demo(name);
    const auto all = assess(d);
    std::set<std::string> ids;
    for (const auto& f : all.findings)
      if (f.info().station == Station::place) ids.insert(f.measure_id);
    for (const auto& id : ids) {
      Stations only = Stations::only(Station::place);
      only.measure = id;
      const auto one = assess(d, only);
      for (const auto& f : all.findings) {
        if (f.measure_id != id) continue;
        INFO(name << " " << f.key());
        const auto same = std::find_if(one.findings.begin(), one.findings.end(),
                                       [&](const Finding& o) { return o.key() == f.key(); });
        REQUIRE(same != one.findings.end());
        CHECK((same->value == f.value || std::isnan(f.value)));
        CHECK(same->verdict == f.verdict);
      }
    }
  }
}

TEST_CASE("near a design or from nothing: the same assessment") {
  for (const auto& name : demos) {
    auto d = demo(name);
    const auto before = assess(d);
    for_mains(d, [](Leg& leg) { shift_leg(leg, -0.013, 0.004, 0); });
    const auto fresh = assess(d);
    const auto near = assess(d, {}, &before);
    REQUIRE(fresh.findings.size() == near.findings.size());
    for (size_t i = 0; i < fresh.findings.size(); ++i) {
      INFO(name << " " << fresh.findings[i].key());
      if (std::isfinite(fresh.findings[i].value))
        CHECK(near.findings[i].value == Approx(fresh.findings[i].value).epsilon(1e-7).margin(1e-7));
      CHECK(near.findings[i].verdict == fresh.findings[i].verdict);
    }
  }
}

TEST_CASE("whichever number changes, what is taken over from before is right") {
  // A step that reads what it does not declare would keep an old result here.
  for (const auto& name : demos) {
    const auto d = demo(name);
    const auto before = assess(d);
    const auto list = all_given(d);
    for (size_t i = name.size() % 5; i < list.size(); i += 5) {
      if (!list[i].given.known()) continue;
      auto x = d;
      Given& g = *locate_given(x, list[i].path)->given;
      g.si = g.si == 0 ? 1e-3 : g.si * 1.01;
      const auto fresh = assess(x);
      const auto near = assess(x, {}, &before);
      INFO(name << " " << list[i].path);
      REQUIRE(fresh.findings.size() == near.findings.size());
      for (size_t k = 0; k < fresh.findings.size(); ++k) {
        const Finding& f = fresh.findings[k];
        const Finding& n = near.findings[k];
        if (n.verdict != f.verdict ||
            (std::isfinite(f.value) && n.value != Approx(f.value).epsilon(1e-6).margin(1e-7)))
          FAIL(f.key() << ": " << n.value << " for " << f.value);
      }
    }
  }
}

namespace {
struct Doubled {
  using From = double;
  using Made = double;
  static inline int calls = 0;
  static Made make(const From& x) {
    ++calls;
    return 2 * x;
  }
};
struct Halved {
  using From = double;
  using Made = double;
  static Made make(const From& x) { return x / 2; }
};
}  // namespace

TEST_CASE("a step is made once for its inputs, here or before") {
  Steps first;
  CHECK(first.get<Doubled>(3) == 6);
  CHECK(first.get<Doubled>(3) == 6);
  CHECK(first.get<Halved>(3) == 1.5);  // the same inputs of another step
  CHECK(Doubled::calls == 1);
  Steps second(&first);
  CHECK(second.find<Doubled>(3) == nullptr);
  CHECK(second.get<Doubled>(3) == 6);
  CHECK(Doubled::calls == 1);
  CHECK(second.shared_with(first) == 1);
  CHECK(second.get<Doubled>(4) == 8);
  CHECK(Doubled::calls == 2);
  second.done();
  // What was not asked for again is gone.
  CHECK(second.get<Halved>(3) == 1.5);
  CHECK(second.size() == 3);
}

TEST_CASE("where nothing has changed nothing that takes time is made again") {
  for (const auto& name : demos) {
    const auto d = demo(name);
    const auto first = assess(d);
    const auto again = assess(d, {}, &first);
    INFO(name);
    REQUIRE(first.steps.size() > 0);
    CHECK(again.steps.size() == first.steps.size());
    CHECK(again.steps.shared_with(first.steps) == first.steps.size());
    // A larger wheel on one leg: what the other one's well and doors make of it stays.
    auto x = d;
    x.gear.third().wheel.diameter.si *= 1.01;
    const size_t shared = assess(x, {}, &first).steps.shared_with(first.steps);
    CHECK(shared > 0);
    CHECK(shared < first.steps.size());
  }
}

TEST_CASE("field, use and size set the limits") {
  auto d = demo("dunnock");
  d.purpose.field = Field::tarmac;
  CHECK(degrees(*place_rules(d).turnover.upper) == Approx(63));
  d.purpose.use = Use::training;
  CHECK(degrees(*place_rules(d).turnover.upper) == Approx(57));
  d.purpose.field = Field::turf;
  CHECK(degrees(*place_rules(d).turnover.upper) == Approx(57));
  CHECK(degrees(*place_rules(d).tip_back.lower) == Approx(15));
  CHECK(*place_rules(d).propeller_static(1.6).lower == Approx(0.18));
  d.purpose.build = Build::model;
  CHECK(*place_rules(d).propeller_static(0.4).lower == Approx(0.06));
  d.purpose.field = Field::indoor;
  CHECK(degrees(*place_rules(d).tip_back.lower) == Approx(10));
  CHECK(*place_rules(d).propeller_static(0.4).lower == Approx(0.04));
  auto w = demo("wheatear");
  CHECK(*place_rules(w).propeller_static(1.5).lower == Approx(0.23));
  CHECK(*place_rules(w).nose_over_three_point.lower == Approx(0.5));
  w.gear.brakes = false;
  CHECK(*place_rules(w).nose_over_three_point.lower == Approx(0.25));
  w.purpose.field = Field::tarmac;
  CHECK(degrees(*place_rules(w).axle_ahead.lower) == Approx(12));
}

TEST_CASE("the field decides the ground pressure that holds, and its bumps the wheel") {
  auto d = demo("dunnock");
  const auto limit = [&] { return worst(assess(d), "place.ground_pressure", "nose wheel")->limit; };
  CHECK(*limit().upper == Approx(350e3));
  d.purpose.field = Field::rough;
  CHECK(*limit().upper == Approx(200e3));
  d.purpose.field = Field::sand;
  CHECK(*limit().upper == Approx(150e3));
  d.purpose.field = Field::tarmac;
  CHECK_FALSE(limit().set());
  d.purpose.obstacle = 0.07;
  CHECK(worst(assess(d), "place.wheel_obstacle", "nose wheel")->verdict == Verdict::fails);
  d.purpose.obstacle = Given();
  CHECK(worst(assess(d), "place.wheel_obstacle") == nullptr);
}

TEST_CASE("what is missing is named by every check that needs it") {
  CHECK(missing_after("dunnock", "/airframe/aerodynamics/thrust_N", "place.rotation").find("thrust") !=
        std::string::npos);
  CHECK(missing_after("dunnock", "/airframe/tailplane/span_m", "place.rotation").find("tailplane") !=
        std::string::npos);
  CHECK(missing_after("dunnock", "/airframe/wing/span_m", "place.rotation").find("wing") !=
        std::string::npos);
  CHECK(missing_after("dunnock", "/airframe/wing/incidence_deg", "stance.wing_angle").find("incidence") !=
        std::string::npos);
  CHECK(missing_after("dunnock", "/weighing/tilt_pitch_deg", "weigh.tilt_height").find("pitch") !=
        std::string::npos);
  CHECK(missing_after("dunnock", "/gear/legs/main/unsprung_mass_kg", "spring.drop_factor").find("unsprung") !=
        std::string::npos);
  CHECK(missing_after("dunnock", "/gear/legs/main/spring/orifice_closing_m2", "spring.drop_factor")
            .find("orifice") != std::string::npos);
  CHECK(missing_after("redshank", "/gear/legs/main/spring/damping_closing_N_s_per_m", "spring.drop_factor")
            .find("damping") != std::string::npos);
  CHECK(missing_after("wheatear", "/gear/legs/main/hinge/z_m", "stance.third_load").find("hinge") !=
        std::string::npos);
  CHECK(missing_after("wheatear", "/gear/legs/main/spring/anchor_leg/y_m", "stance.third_load")
            .find("anchor") != std::string::npos);
  CHECK(
      missing_after("wheatear", "/gear/legs/main/spring/cord/strands", "stance.third_load").find("strands") !=
      std::string::npos);
}

TEST_CASE("a small tilt is told not to be trusted, and one of nothing is refused") {
  auto d = demo("dunnock");
  d.weighing.tilt_pitch = radians(3);
  CHECK(says(worst(assess(d), "weigh.tilt_height")->remark, "do not trust"));
  d.weighing.tilt_pitch = 0.0;
  CHECK(worst(assess(d), "weigh.tilt_height")->verdict == Verdict::unknown);
}

TEST_CASE("in every state the wheels stand where leg and tyre have them") {
  for (const auto& name : demos) {
    const auto d = demo(name);
    const auto a = assess(d);
    const auto& l = a.loadings.front();
    REQUIRE(l.rest);
    const auto in = [&](GearState s) { return standing_in(d, &*a.wheels, l, s); };
    CHECK(in(GearState::extended).main.z == Approx(d.gear.main().axle.z.si));
    CHECK(in(GearState::bottomed).main.z == Approx(d.gear.main().axle.z + d.gear.main().travel));
    CHECK(in(GearState::flat).main.radius == Approx(d.gear.main().wheel.flat_radius.si));
    const auto still = in(GearState::static_load);
    CHECK(still.main.z > in(GearState::extended).main.z);
    CHECK(still.main.z < in(GearState::bottomed).main.z);
    CHECK(still.main.radius < d.gear.main().wheel.diameter / 2);
    // The CG's height by the wheels and by the rest itself.
    const double by_rest = l.rest->heave + up_direction(l.rest->pitch, l.rest->roll).dot(l.mass.down.at);
    CHECK(place::height_above_ground(l.mass.down.at, still.main, still.pitch) ==
          Approx(by_rest).margin(3e-4));
  }
}

TEST_CASE("without tolerances there is no box, and nothing waits where all is decided") {
  auto d = demo("redshank");
  for (const auto& g : all_given(d)) locate_given(d, g.path)->given->tolerance = 0;
  const auto box = over_tolerances(d, assess(d));
  CHECK(box.inputs == 0);
  CHECK(box.spreads.empty());
  CHECK(waiting_for_decisions(d, box).empty());
}

TEST_CASE("wider tolerances widen every spread") {
  auto d = demo("dunnock");
  const auto narrow = over_tolerances(d, assess(d));
  for (const auto& g : all_given(d)) locate_given(d, g.path)->given->tolerance *= 1.5;
  const auto wide = over_tolerances(d, assess(d));
  std::map<std::string, double> before;
  for (const auto& s : narrow.spreads) before[s.key()] = s.high - s.low;
  for (const auto& s : wide.spreads) {
    INFO(s.key());
    CHECK(s.high - s.low >= before[s.key()] * 0.99 - 1e-12);
  }
}

TEST_CASE("bending a leg out and back again leaves it as it was") {
  auto leg = demo("wheatear").gear.main();
  const Leg before = leg;
  bend_leg_out(leg, 0.1);
  CHECK(leg.axle.y > before.axle.y);
  bend_leg_out(leg, -0.1);
  CHECK(leg.axle.y == Approx(before.axle.y.si).epsilon(1e-12));
  CHECK(leg.axle.z == Approx(before.axle.z.si).epsilon(1e-12));
  CHECK(leg.camber == Approx(before.camber.si).margin(1e-12));
}

TEST_CASE("shifting a hinged leg shifts all of it: it rests as before") {
  auto d = demo("wheatear");
  for (auto& i : d.ledger) i.at.x.si += 0.2;
  for (Leg* leg : {&d.gear.main(), &d.gear.third()}) shift_leg(*leg, 0.2, 0, 0);
  const auto a = assess(demo("wheatear"));
  const auto b = assess(d);
  CHECK(b.loadings[0].rest->pitch == Approx(a.loadings[0].rest->pitch).margin(1e-9));
  CHECK(b.loadings[0].rest->wheels[1].load == Approx(a.loadings[0].rest->wheels[1].load).epsilon(1e-9));
}

TEST_CASE("every number of every demo is reached by its path and reads back") {
  for (const auto& name : demos) {
    const auto d = demo(name);
    const auto list = all_given(d);
    CHECK(list.size() > 200);
    for (const auto& g : list) {
      INFO(name << " " << g.path);
      const double v = value_at(d, g.path);
      CHECK((v == g.given.si || (std::isnan(v) && std::isnan(g.given.si))));
      CHECK_FALSE(g.title().empty());
    }
  }
}

TEST_CASE("a wheel shelf names the faults of its table by line and column") {
  const auto shelf = read_wheel_shelf(
      "name,tyre,diameter_m,width_m,flat_radius_m,mass_kg,greatest_load_N\n"
      "a,foam,0.1,0.03,0.03,0.1,100\n"
      "b,rubber,-1,0.03,0.03,0.1,100\n");
  REQUIRE(shelf.faults.size() == 2);
  CHECK(shelf.faults[0].where.find("line 3") != std::string::npos);
  CHECK(shelf.faults[0].what.find("one of") != std::string::npos);
}

TEST_CASE("usual wheels of models pass through the starting points of practice") {
  CHECK(usual_model_wheel(1) == Approx(0.050));
  CHECK(usual_model_wheel(2.5) == Approx(0.065));
  CHECK(usual_model_wheel(10) == Approx(0.105));
  CHECK(usual_model_wheel(20) == Approx(0.135));
  for (double m = 1; m < 20; m += 0.7) CHECK(usual_model_wheel(m + 0.7) > usual_model_wheel(m));
}

TEST_CASE("what a check says it lacks is a number of the design that is not known, and all of it is said") {
  for (const std::string& name : demo_names()) {
    const auto d = demo(name);
    size_t led = 0;
    for (const auto& g : all_given(d)) {
      if (!g.given.known() || g.path.starts_with("/own_limits")) continue;
      Design without = d;
      *locate_given(without, g.path)->given = Given();
      for (const auto& f : assess(without).findings)
        for (const auto& path : paths_in(f.remark)) {
          INFO(name << " without " << g.path << ": " << f.key() << " " << in_words(f.remark));
          ++led;
          REQUIRE(spec_at(without, path));
          CHECK(std::isnan(value_at(without, path)));
        }
    }
    CHECK(led > 100);
  }
  // All at once, not the first alone.
  auto d = demo("dunnock");
  d.airframe.aerodynamics.thrust = Given();
  d.airframe.wing.tip_chord = Given();
  d.airframe.tailplane.span = Given();
  const Finding* f = nullptr;
  const auto a = assess(d);
  for (const auto& x : a.findings)
    if (x.measure_id == "place.rotation") f = &x;
  REQUIRE(f);
  CHECK(paths_in(f->remark) == std::vector<std::string>{"/airframe/wing/tip_chord_m",
                                                        "/airframe/tailplane/span_m",
                                                        "/airframe/aerodynamics/thrust_N"});
}

TEST_CASE(
    "Place judges by places and masses where springs and tyres are not known, says so, and trusts no "
    "clearance") {
  for (const std::string name : {"dunnock", "redshank", "wheatear"}) {
    const auto d = demo(name);
    Design without = d;
    for (auto& leg : without.gear.legs) {
      leg.wheel.tyre_rate = leg.wheel.pressure = Given();
      if (leg.spring.kind != SpringKind::bending) leg.travel = Given();
    }
    const auto known = assess(d);
    const auto a = assess(without);
    CHECK_FALSE(a.wheels);
    for (const auto& l : a.loadings) CHECK_FALSE(l.rest);
    int judged = 0;
    int clearances = 0;
    for (const auto& f : a.findings) {
      INFO(name << " " << f.key() << " " << in_words(f.remark));
      const Station station = f.info().station;
      const bool springs =
          station == Station::stance || station == Station::spring || f.measure_id == "leg.margin";
      if (springs) CHECK((f.verdict == Verdict::unknown || f.measure_id == "stance.sides"));
      if (station != Station::place || f.loading.empty()) continue;
      if (f.measure_id == "place.ground_pressure") {
        CHECK(f.verdict == Verdict::unknown);
        continue;
      }
      CHECK(says(f.assumption, "as drawn"));
      const bool clearance = f.measure_id.starts_with("place.propeller") ||
                             f.measure_id == "place.low_point" || f.measure_id == "place.wing_tip" ||
                             f.measure_id == "place.one_down";
      if (clearance) {
        ++clearances;
        CHECK((f.verdict == Verdict::unknown || f.verdict == Verdict::fails));
        CHECK_FALSE(f.remark.empty());
      }
      if (f.measure_id == "place.tip_back" || f.measure_id == "place.axle_ahead") {
        ++judged;
        REQUIRE(std::isfinite(f.value));
        // As drawn, legs extended: the angle between the CG and the contact.
        const auto* with_springs = find(known, f.measure_id, f.subject);
        CHECK(f.value == Approx(with_springs->value).margin(radians(6)));
        CHECK(f.value == Approx(std::atan(std::abs(f.working[0].si) / f.working[1].si)));
      }
    }
    CHECK(judged > 0);
    CHECK(clearances > 3);
  }
  auto d = demo("dunnock");
  d.gear.main().axle.x = Given();  // without its place nothing stands, as drawn or not
  CHECK(the_worst(assess(d), "place.tip_back").verdict == Verdict::unknown);
}
