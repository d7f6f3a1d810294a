// SPDX-License-Identifier: GPL-3.0-or-later
//! Any number of legs: layouts, tandem with outriggers, left measured apart from right, what hangs on a leg.
#include <catch2/catch.hpp>
#include <random>

#include "core/assess/assess.h"
#include "core/assess/cures.h"
#include "core/assess/landing_state.h"
#include "core/assess/loading_state.h"
#include "core/assess/standing.h"
#include "core/assess/strength_state.h"
#include "core/model/consistency.h"
#include "core/place/tandem.h"
#include "core/spring/first_contact.h"
#include "core/stance/shares.h"
#include "demo.h"
#include "findings.h"
#include "said.h"

using namespace kranich;

TEST_CASE("a tandem is judged by its own limits, and leans on its outriggers") {
  const auto d = demo("nightjar");
  CHECK(d.layout() == Layout::tandem);
  const auto a = assess(d);
  for (const char* id : {"place.nose_share", "place.tail_share", "stance.third_load"})
    for (const auto& f : a.findings) CHECK(f.measure_id != id);
  // The share is the lever's, whatever the springs: two lines.
  const auto* l = a.loading("ready to fly");
  REQUIRE(l->rest);
  const auto along_ground = [&](const Vec3& p) {
    return std::cos(l->rest->pitch) * p.x() + std::sin(l->rest->pitch) * p.z();
  };
  const double front = along_ground(d.gear.leg("front").axle.vec());
  const double rear = along_ground(d.gear.leg("rear").axle.vec());
  const double lever = (rear - along_ground(l->mass.down.at)) / (rear - front);
  for (const auto& f : a.findings)
    if (f.measure_id == "place.front_share" && f.loading == "ready to fly")
      CHECK(f.value == Approx(lever).margin(0.02));
  CHECK(the_worst(a, "stance.upright").value < 1);  // single wheels stiffen nothing
  const auto& lean = the_worst(a, "stance.lean");
  CHECK(lean.verdict == Verdict::fails);
  CHECK(degrees(lean.value) == Approx(degrees(std::abs(l->rest->roll))).epsilon(0.05));
  // Longer outriggers cure it, and say so.
  bool by_length = false;
  for (const auto& c : cures_for(d, a, lean))
    for (const auto& p : c.parts)
      if (p.knob->id == "outrigger.length") {
        by_length = true;
        CHECK(p.change > 0);
        CHECK(says(c.text, "outrigger"));
        CHECK(the_worst(assess(c.applied(d)), "stance.lean").verdict != Verdict::fails);
      }
  CHECK(by_length);
  // It must be lifted off as it stands, and does so too late: its attitude decides.
  const auto& off = the_worst(a, "place.liftoff");
  CHECK(off.verdict == Verdict::fails);
  auto higher = d;
  higher.gear.leg("front").axle.z.si -= 0.02;
  CHECK(the_worst(assess(higher), "place.liftoff").value < off.value);
  // Its outriggers have load cases of their own: what leaning puts on them.
  bool strength = false;
  for (const auto& x : a.strengths)
    if (x.leg == "outrigger") {
      strength = true;
      REQUIRE(x.cases.cases.size() == 3);
      CHECK(x.cases.cases[0].force.z() == Approx(a.outrigger_loads.at("outrigger")));
      CHECK(std::abs(x.cases.cases[1].force.y()) == Approx(0.5 * x.cases.cases[0].force.z()));
    }
  CHECK(strength);
}

TEST_CASE("left measured apart from right is judged on both sides, like to like") {
  for (const std::string name : {"dunnock", "redshank", "wheatear"}) {
    INFO(name);
    const auto d = demo(name);
    auto apart = d;
    unlink_leg(apart, 0);
    CHECK(apart.unlinked());
    const auto one = assess(d);
    const auto two = assess(apart);
    int compared = 0;
    for (const auto& f : one.findings) {
      if (f.measure_id.rfind("spring.", 0) != 0 && f.measure_id.rfind("leg.margin", 0) != 0 &&
          f.measure_id.rfind("swing.", 0) != 0)
        continue;
      if (f.measure_id == "spring.proof") continue;  // read on one leg, it says nothing of the other
      const std::string words = in_words(f.subject.words);
      const auto at = words.find("main leg");
      if (at == std::string::npos) continue;
      // "main legs" of a pair are each "starboard main leg" and "port main leg".
      std::string rest = words.substr(at + 8);
      if (!rest.empty() && rest[0] == 's') rest = rest.substr(1);
      for (const char* side : {"starboard", "port"}) {
        const std::string subject = std::string(side) + " main leg" + rest;
        INFO(f.measure_id << " " << subject);
        const Finding* same = find(two, f.measure_id, subject);
        REQUIRE(same);
        if (std::isfinite(f.value)) CHECK(same->value == Approx(f.value).epsilon(3e-4).margin(1e-9));
        CHECK(same->verdict == f.verdict);
        ++compared;
      }
    }
    CHECK(compared > 20);
    // A worse port leg fails though the starboard one holds.
    apart.gear.legs[1].travel = Given(0.2 * apart.gear.legs[1].travel);
    const auto worse_port = assess(apart);
    const Finding* port = find(worse_port, "spring.drop_stroke", "port main leg");
    REQUIRE(port);
    CHECK(port->verdict == Verdict::fails);
    link_leg(apart, 0);
    CHECK(apart.gear.legs.size() == d.gear.legs.size());
  }
}

TEST_CASE("every layout can be made of every aircraft, opened again, and taken back") {
  for (const std::string& name : demo_names())
    for (const Layout layout :
         {Layout::tricycle, Layout::tailwheel, Layout::tandem, Layout::quadricycle, Layout::four_mains}) {
      INFO(name << " " << static_cast<int>(layout));
      const auto d = demo(name);
      auto next = changed(d, [&](Design& x) { arrange(x, layout); });
      REQUIRE(std::holds_alternative<Design>(next));
      const auto& made = std::get<Design>(next);
      // A third leg or an outrigger that was not there has no place yet: told as missing, never guessed.
      const auto a = assess(made);
      CHECK(read_project(write_project(made)).design);
      if (made.layout() != layout) CHECK_FALSE(a.wheels);
      for (const auto& f : a.findings)
        if (f.verdict == Verdict::unknown) CHECK_FALSE(f.remark.empty());
    }
}

TEST_CASE("what hangs on a leg goes where the leg goes") {
  const auto d = demo("dunnock");
  auto moved = d;
  shift_mains(moved, 0.1, 0, 0);
  double hung = 0, total = 0;
  for (size_t i = 0; i < d.ledger.size(); ++i) {
    const bool on = d.ledger[i].moves == "main";
    CHECK(moved.ledger[i].at.x.si == Approx(d.ledger[i].at.x.si + (on ? 0.1 : 0)));
    hung += on ? d.ledger[i].mass.si : 0;
  }
  REQUIRE(hung > 0);
  const auto before = assess(d);
  const auto after = assess(moved);
  total = before.loadings[0].mass.down.mass;
  CHECK(after.loadings[0].mass.down.at.x() - before.loadings[0].mass.down.at.x() ==
        Approx(0.1 * hung / total));
}

TEST_CASE("the closed form of shares agrees with the equilibrium at small angles") {
  std::mt19937 random(21);
  std::uniform_real_distribution<double> u(-1, 1);
  for (int i = 0; i < 40; ++i) {
    const double mass = 1000;
    const Vec3 cg(2 + 0.1 * u(random), 0.02 * u(random), 0.3);
    std::vector<stance::WheelOnLeg> wheels;
    std::vector<stance::FootSpring> feet;
    for (const double x : {1.0, 3.0})
      for (const double y : {-0.9, 0.9}) {
        stance::WheelOnLeg w;
        force::LegLaw law;
        law.kind = force::LegLaw::Kind::linear;
        law.rate = 60000 * (1 + 0.2 * u(random));
        law.travel = 0.3;
        const double z = -0.6 + 0.003 * u(random);
        w.leg = force::straight_leg({x, y, z}, law);
        w.radius = 0.2;
        w.tyre.rate = 200000;
        wheels.push_back(w);
        feet.push_back({x, y, 1 / (1 / law.rate + 1 / w.tyre.rate), z});
      }
    const auto rest = std::get<stance::Rest>(stance::solve(mass, cg, wheels));
    double closures = 0;
    for (const auto& w : rest.wheels) closures += w.load * w.tyre_closure;
    const double h = rest.heave + up_direction(rest.pitch, rest.roll).dot(cg);
    const auto s = stance::shares(mass, cg.x(), cg.y(), feet, h - 0.2 + closures / (mass * standard_gravity),
                                  h + closures / (mass * standard_gravity));
    REQUIRE(s);
    for (size_t k = 0; k < 4; ++k)
      CHECK(s->load[k] == Approx(rest.wheels[k].load).epsilon(3e-3).margin(2e-4 * mass * standard_gravity));
    CHECK(s->pitch == Approx(rest.pitch).margin(2e-5 + 0.01 * std::abs(rest.pitch)));
    CHECK(s->roll == Approx(rest.roll).margin(2e-5 + 0.01 * std::abs(rest.roll)));
  }
}

TEST_CASE("two wheels on an axle share, and stiffen it against rolling by their spacing") {
  force::LegLaw rigid;
  std::vector<stance::WheelOnLeg> wheels(2);
  for (size_t i = 0; i < 2; ++i) {
    wheels[i].leg = force::straight_leg({i == 0 ? 1.0 : 4.0, 0, -0.6}, rigid);
    wheels[i].radius = 0.2;
    wheels[i].tyre.rate = 200000;
    wheels[i].spacing = 0.5;
  }
  const double mass = 800;
  const Vec3 cg(2.5, 0, 0.1);
  const auto upright = stance::held_upright(mass, cg, wheels);
  REQUIRE(upright);
  for (const auto& w : upright->wheels) {
    CHECK(w.tyre[0].load == Approx(w.tyre[1].load));
    CHECK(w.load == Approx(mass * standard_gravity / 2));
  }
  // K = Σ k·s²/2 less the weight on its high CG, the tyres' squash added to its height.
  const double squash = upright->wheels[0].tyre_closure;
  const double wanted = 2 * 200000 * 0.5 * 0.5 / 2 - mass * standard_gravity * (upright->cg_height + squash);
  CHECK(upright->roll_stiffness == Approx(wanted).epsilon(1e-3));
  // A CG off the line: the tyres differ by the moment over the spacing.
  const auto rest = std::get<stance::Rest>(stance::solve(mass, cg + Vec3(0, 0.02, 0), wheels));
  double port = 0, starboard = 0;
  for (const auto& w : rest.wheels) {
    port += w.tyre[0].load;
    starboard += w.tyre[1].load;
  }
  CHECK(starboard > port);
  CHECK(port + starboard == Approx(mass * standard_gravity));
}

TEST_CASE("two wheels on an axle: room between them, and one that carries all when the other is flat") {
  Design d = demo("dunnock");
  Leg& leg = d.gear.main();
  leg.wheel.tyre = Tyre::pneumatic;
  leg.wheel.tyre_rate = Given(120e3);
  leg.wheel.flat_radius = Given(0.11);
  leg.wheel_spacing = Given(leg.wheel.width + 0.05);
  const auto found = [&](const char* id) {
    const auto a = assess(d);
    for (const auto& f : a.findings)
      if (f.measure_id == id && in_words(f.subject.words) == in_words(d.wheel_word(d.gear.main()))) return f;
    FAIL("no " << id);
    return a.findings.front();
  };
  const double grows = std::max(0.005, 0.02 * leg.wheel.diameter);
  CHECK(found("place.twin_gap").value == Approx(0.05 - 2 * grows));
  CHECK(found("place.twin_gap").verdict == Verdict::holds);
  const auto flat = found("place.twin_flat");
  const auto named = [&](const Finding& f, const char* what) {
    for (const auto& w : f.working)
      if (w.name == what) return w.si;
    FAIL("no " << what);
    return 0.0;
  };
  const double load = named(flat, "load on the leg");
  CHECK(load > 500);
  CHECK(named(flat, "moment on the leg") == Approx(load * leg.wheel_spacing / 2));
  CHECK(flat.value == Approx(leg.wheel.diameter / 2 - named(flat, "squash, all on one") - 0.11));
  // A softer tyre brings the rim down; the figure is then told as one that fails.
  leg.wheel.tyre_rate = Given(20e3);
  CHECK(found("place.twin_flat").value < flat.value);
  leg.wheel.flat_radius = Given();
  CHECK(found("place.twin_flat").verdict == Verdict::unknown);
  CHECK(says(found("place.twin_flat").remark, "flat tyre"));
  leg.wheel_spacing = Given(leg.wheel.width + 0.002);
  CHECK(found("place.twin_gap").verdict == Verdict::fails);
  bool apart = false;
  const auto before = assess(d);
  for (const auto& c : cures_for(d, before, found("place.twin_gap"))) {
    if (c.parts.size() != 1) continue;
    const auto cured = assess(c.applied(d));
    if (c.parts[0].knob->id.find("spacing") == std::string::npos) continue;
    apart = true;
    for (const auto& f : cured.findings)
      if (f.measure_id == "place.twin_gap") CHECK(f.verdict != Verdict::fails);
  }
  CHECK(apart);
  // A single wheel has neither.
  leg.wheel_spacing = Given();
  for (const auto& f : assess(d).findings) CHECK(f.measure_id.find("place.twin_") != 0);
}

TEST_CASE(
    "of a tandem's lines the one that touches first stops more than it carries, where it lies near the CG") {
  Design d = demo("nightjar");
  const auto mass_on = [](const Design& of, const char* leg) {
    const auto a = assess(of);
    for (const auto& l : a.landings)
      if (l.leg == leg) return l.mass;
    return std::nan("");
  };
  const auto a = assess(d);
  const LoadingState* heaviest = nullptr;
  for (const auto& l : a.loadings)
    if (l.rest && (!heaviest || l.mass.down.mass > heaviest->mass.down.mass)) heaviest = &l;
  REQUIRE(heaviest);
  double front = 1e9, back = -1e9;
  for (const auto& s : d.airframe.bodies.front().sections) {
    front = std::min(front, s.x.si);
    back = std::max(back, s.x.si);
  }
  const double gyration = 0.18 * (back - front);
  for (const char* id : {"front", "rear"}) {
    CAPTURE(id);
    const double x = d.gear.leg(id).axle.x - heaviest->mass.down.at.x();
    const double alone = heaviest->mass.down.mass / (1 + x * x / (gyration * gyration));
    const auto& rest = *heaviest->rest;
    const double at_rest = mains_share(d, *heaviest, wheel_of(d, id)) / standard_gravity;
    CHECK(rest.wheels.size() > 2);
    CHECK(mass_on(d, id) == Approx(std::max(alone, at_rest)));
    // The classical impact's own function says the same of the two lines.
    std::vector<spring::TouchingLeg> legs;
    for (const char* other : {"front", "rear"}) {
      const Leg& leg = d.gear.leg(other);
      legs.push_back(
          {leg.axle.vec() - Vec3(0, 0, other == std::string(id) ? 0.2 : 0), leg.wheel.diameter / 2});
    }
    const double inertia = heaviest->mass.down.mass * gyration * gyration;
    const auto touch =
        spring::first_contact(legs, heaviest->mass.down.mass, heaviest->mass.down.at, 1e9, inertia, 0, 0, 1);
    CHECK(touch.effective_mass == Approx(alone).epsilon(1e-9));
  }
  // Without a drawn fuselage nothing is known of it: the share at rest stands.
  d.airframe.bodies.clear();
  CHECK(mass_on(d, "front") ==
        Approx(mains_share(d, *heaviest, wheel_of(d, "front")) / standard_gravity).epsilon(1e-6));
  // A single pair of mains takes half the weight each, as ever.
  const auto dunnock = demo("dunnock");
  CHECK(mass_on(dunnock, "main") == Approx(639.6 / 2).epsilon(0.01));
}

TEST_CASE("shares of a weight: each spring closes by the plane it stands under") {
  const std::vector<stance::FootSpring> feet{
      {0.2, -0.5, 9000, 0}, {0.3, 0.6, 8000, 0.004}, {1.9, -0.9, 20000, 0}, {2.0, 1.0, 21000, 0.002}};
  const auto s = stance::shares(420, 1.3, 0.03, feet);
  REQUIRE(s);
  double sum = 0;
  for (size_t i = 0; i < feet.size(); ++i) {
    sum += s->load[i];
    CHECK(s->load[i] ==
          Approx(feet[i].rate * (s->sink + s->pitch * feet[i].x + s->roll * feet[i].y - feet[i].height)));
  }
  CHECK(sum == Approx(420 * standard_gravity));
}

TEST_CASE(
    "a tandem let go from balance strikes its outrigger harder than it lies on it, and that goes to its "
    "strength") {
  const auto d = demo("nightjar");
  const auto a = assess(d);
  const Finding& f = the_worst(a, "stance.topple", "port outrigger");
  const auto told = [](const Finding& of, std::string_view name) {
    for (const auto& w : of.working)
      if (in_words(w.name) == name) return w.si;
    return std::nan("");
  };
  // The blow over the load at rest, in closed form.
  const double mass = a.find(f.loading)->mass.down.mass;
  const double y = std::abs((*a.wheels)[wheel_of(d, "outrigger")].leg.axle.y());
  const double high = the_worst(a, "stance.cg_height").value;
  const double c = mass * standard_gravity * high / (told(f, "outrigger's rate") * y * y);
  CHECK(f.value / told(f, "at rest on it") == Approx((1 + std::sqrt(c)) / std::sqrt(c)).epsilon(0.05));
  const Leg& leg = *d.gear.first(LegRole::outrigger);
  CHECK(a.outrigger_loads.at(leg.id) >= f.value);
  // A softer leg lets it roll further.
  Design soft = d;
  for (auto& l : soft.gear.legs)
    if (l.role == LegRole::outrigger) l.spring.rate.si *= 0.8;
  const auto b = assess(soft);
  CHECK(told(the_worst(b, "stance.topple", "port outrigger"), "rolls on to") > told(f, "rolls on to"));
  soft.airframe.wing.span = Given();
  CHECK_FALSE(worst(assess(soft), "stance.topple"));
}

TEST_CASE("rolled, the lower of two wheels on an axle is the one that touches") {
  // Two wheels 0.4 m apart, and a single one that hangs 50 mm lower than their axle.
  const std::vector<spring::TouchingLeg> legs{{Vec3(0, 0, 0), 0.2, 0.4}, {Vec3(1, 0, -0.05), 0.2, 0}};
  const auto at = [&](double roll) {
    return spring::first_contact(legs, 500, Vec3(0.4, 0, 0.3), 300, 600, 0, roll, 1);
  };
  CHECK(at(0).leg == 1);
  CHECK(at(0).height[0] == Approx(0.05));
  for (const double roll : {0.3, -0.3}) {
    const auto f = at(roll);
    CHECK(f.leg == 0);
    // Both hang by the same turn about the fore-and-aft axis: by hand.
    CHECK(f.height[1] == Approx(0.2 * std::sin(0.3) - 0.05 * std::cos(0.3)).epsilon(1e-6));
    CHECK(f.strikes[0] == Approx(0).margin(1e-12));
    CHECK(f.strikes[1] > 0);
  }
  // To either side alike.
  CHECK(at(0.3).effective_mass == Approx(at(-0.3).effective_mass));
}
