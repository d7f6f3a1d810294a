// SPDX-License-Identifier: GPL-3.0-or-later
//! What a builder measures beside the big questions: edges and formers, the axle's stack, tyre pressure, two
//! rests, fits, the load's path, doors over the ground.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/assess/cures.h"
#include "core/assess/loading_state.h"
#include "core/assess/table_sheet.h"
#include "core/io/project_file.h"
#include "core/io/stock.h"
#include "core/model/locate.h"
#include "demo.h"
#include "findings.h"

using namespace kranich;

namespace {

const Cure* offered(const std::vector<Cure>& cures, std::string_view id) {
  for (const auto& c : cures)
    if (c.id() == id) return &c;
  return nullptr;
}

//! A cure of the shelves or of a knob, put in, must do what it says; nothing where it is not offered.
void cured_with(const Design& d, std::string_view measure, std::string_view id) {
  const auto a = assess(d);
  const Finding& f = the_worst(a, measure);
  INFO(measure << " by " << id);
  REQUIRE(f.verdict == Verdict::fails);
  const auto cures = cures_for(d, a, f, {100, &shipped_stock()});
  const Cure* cure = offered(cures, id);
  REQUIRE(cure);
  const Design put = cure->applied(d);
  CHECK(the_worst(assess(put), measure, f.subject).verdict == cure->reached);
  CHECK(cure->reached != Verdict::fails);
  CHECK(read_project(write_project(put)).design);
}

}  // namespace

TEST_CASE("mains are told from an edge, and a nose leg must stand at a former") {
  auto d = demo("dunnock");
  const std::string nose = d.gear.third().id;
  Reference edge;
  edge.name = "leading edge";
  edge.x = Given(1.9);
  Reference former;
  former.name = "F2";
  former.x = Given(d.gear.third().held_at().x() + 0.06);
  former.former = true;
  Reference far = former;
  far.name = "F4";
  far.x = Given(d.gear.third().held_at().x() + 0.9);
  d.airframe.references = {edge, far, former};
  const auto a = assess(d);
  const Finding& from = the_worst(a, "place.reference", "leading edge");
  CHECK(from.value == Approx(d.gear.main().axle.x - 1.9));
  CHECK(from.verdict == Verdict::noted);
  CHECK(the_worst(a, "place.former").value == Approx(0.06));
  CHECK(plain(the_worst(a, "place.former").remark) == "F2");
  cured_with(d, "place.former", nose + ".to_former");
  cured_with(d, "place.former", nose + ".station");
  d.airframe.references.clear();
  CHECK_FALSE(worst(assess(d), "place.former"));
}

TEST_CASE("overall width becomes leg-end spacing, and the stack must be the wheel's offset") {
  auto d = demo("wheatear");
  Leg& main = d.gear.main();
  REQUIRE(main.axle_beyond_wheel.known());
  main.wheel_offset = Given(0.07);
  main.hub_width = Given(0.08);
  main.spacer = Given(0.01);
  main.brake_width = Given(0.02);
  auto a = assess(d);
  CHECK(the_worst(a, "place.leg_ends").value == Approx(2 * (main.axle.y - 0.07)));
  CHECK(the_worst(a, "place.axle_stack").value == Approx(0).margin(1e-12));
  CHECK(the_worst(a, "place.axle_stack").verdict == Verdict::holds);
  main.spacer = Given(0.004);
  CHECK(the_worst(assess(d), "place.axle_stack").value == Approx(-0.006));
  cured_with(d, "place.axle_stack", main.id + ".spacer");
  main.brake_width = Given();
  const auto lacking = assess(d);
  CHECK(the_worst(lacking, "place.axle_stack").verdict == Verdict::unknown);
  CHECK(plain(the_worst(lacking, "place.axle_stack").remark).find("brake") != std::string::npos);
}

TEST_CASE("a tyre's pressure lies between a rim on the ground and what the wheel bears") {
  auto d = demo("wheatear");
  Wheel& w = d.gear.main().wheel;
  REQUIRE(w.pressure.known());
  w.greatest_pressure = Given(250e3);
  auto a = assess(d);
  const Finding& f = the_worst(a, "place.tyre_pressure", "main wheel");
  REQUIRE(f.limit.lower);
  CHECK(*f.limit.upper == 250e3);
  CHECK(f.verdict == Verdict::holds);
  // At the least pressure a tenth of the section is left.
  Design soft = d;
  soft.gear.main().wheel.pressure.si = *f.limit.lower;
  CHECK(the_worst(assess(soft), "place.tyre_left", "main wheel").value == Approx(0.1).margin(0.02));
  w.greatest_pressure = Given(180e3);
  cured_with(d, "place.tyre_pressure", "main.pressure");
}

TEST_CASE("two rests tell the friction: half the difference times the rate") {
  auto d = demo("redshank");
  Leg& main = d.gear.main();
  main.rest_lifted = Given(0.250);
  main.rest_pressed = Given(0.2485);
  const auto a = assess(d);
  const Finding& f = the_worst(a, "stance.rest_friction", "main leg");
  REQUIRE(std::isfinite(f.value));
  double rate = 0, friction = 0;
  for (const auto& w : f.working) {
    if (in_words(w.name) == "wheel rate there") rate = w.si;
    if (in_words(w.name) == "friction") friction = w.si;
  }
  CHECK(friction == Approx(rate * 0.0015 / 2));
  CHECK(f.limit.source.empty() == false);
  main.rest_pressed = Given(0.251);  // the wrong way round
  CHECK(the_worst(assess(d), "stance.rest_friction", "main leg").verdict == Verdict::fails);
  main.rest_pressed = Given();
  CHECK(the_worst(assess(d), "stance.rest_friction", "main leg").verdict == Verdict::unknown);
}

TEST_CASE(
    "a meter's reading is corrected by the table's own slope; thrust line and fuselage top are tied in") {
  auto d = demo("dunnock");
  auto a = assess(d);
  const auto sheet = table_sheet(d, a);
  const auto line = std::find_if(sheet.begin(), sheet.end(), [](const TableLine& l) {
    return plain(in_words(l.what)) == "incidence of the level reference";
  });
  REQUIRE(line != sheet.end());
  set_reading(d, *line, false, line->computed_starboard + radians(0.8));
  CHECK(the_worst(assess(d), "stance.table_angle").verdict == Verdict::fails);
  d.stance.table_slope = Given(radians(0.8));
  CHECK(std::abs(the_worst(assess(d), "stance.table_angle").value) < 1e-9);
  int thrust = 0, top = 0;
  for (const auto& l : sheet) {
    thrust += plain(in_words(l.what)).starts_with("thrust line");
    top += plain(in_words(l.what)).starts_with("top of the fuselage");
  }
  CHECK(thrust > 0);
  CHECK(top > 0);
}

TEST_CASE("a nose-wheel aircraft for which nobody has said a stance must not stand nose-down") {
  auto d = demo("dunnock");
  d.stance.target_low = d.stance.target_high = Given();
  CHECK(the_worst(assess(d), "stance.wing_angle").verdict == Verdict::holds);
  d.airframe.wing.incidence = Given(radians(-1.5));
  const auto a = assess(d);
  CHECK(the_worst(a, "stance.wing_angle").verdict == Verdict::fails);
  CHECK_FALSE(cures_for(d, a, the_worst(a, "stance.wing_angle")).empty());
  // A tail-wheel aircraft is not held to it.
  auto tail = demo("wheatear");
  tail.stance.target_low = tail.stance.target_high = Given();
  CHECK(the_worst(assess(tail), "stance.wing_angle").verdict == Verdict::noted);
}

TEST_CASE("what goes into what: too big is drilled, too small a pin is bushed") {
  auto d = demo("redshank");
  Fit fit;
  fit.name = "leg pin in the unit";
  fit.pin = Given(0.005);
  fit.bore = Given(0.0051);
  d.gear.main().fits = {fit};
  CHECK(the_worst(assess(d), "leg.fit").verdict == Verdict::holds);
  d.gear.main().fits[0].bore = Given(0.006);
  CHECK(plain(the_worst(assess(d), "leg.fit").remark).find("bush 0.5 mm thick") != std::string::npos);
  cured_with(d, "leg.fit", "main.fit1");
  d.gear.main().fits[0].bore = Given(0.004);
  cured_with(d, "leg.fit", "main.fit1");
  d.gear.main().fits[0].bore = Given();
  CHECK(the_worst(assess(d), "leg.fit").verdict == Verdict::unknown);
}

TEST_CASE("the path of the load is as strong as its weakest link, and a link that is missing is named") {
  auto d = demo("dunnock");
  const auto a = assess(d);
  const Finding& path = the_worst(a, "leg.path", "main leg");
  double least = 1e9;
  for (const auto& f : a.findings)
    if (f.measure_id == "leg.margin" && f.subject.leg == "main") least = std::min(least, f.value);
  CHECK(path.value == Approx(least));
  CHECK(path.verdict == Verdict::noted);
  Joint block;
  block.name = "root block";
  block.kind = JointKind::block;
  block.at = d.gear.main().top;
  block.material = "epoxy, slow";
  block.length = block.width = Given(0.3);
  Design glued = d;
  glued.gear.main().joints.push_back(block);
  const auto by_glue = assess(glued);
  CHECK(the_worst(by_glue, "leg.path", "main leg").verdict == Verdict::tight);
  CHECK(plain(the_worst(by_glue, "leg.path", "main leg").remark).find("glue alone") != std::string::npos);
  d.gear.main().joints.clear();
  const auto open = assess(d);
  CHECK(the_worst(open, "leg.path", "main leg").verdict == Verdict::noted);
  CHECK(plain(the_worst(open, "leg.path", "main leg").remark).find("nothing entered") != std::string::npos);
}

TEST_CASE("a mount that ends in foam is carried on by a post up to the spar") {
  auto d = demo("redshank");
  KeepOut spar;
  spar.name = "main spar";
  const Vec3 at(0.40, 0.30, 0.0);
  spar.low.x = Given(at.x() - 0.02);
  spar.high.x = Given(at.x() + 0.02);
  spar.low.y = Given(0.0);
  spar.high.y = Given(0.6);
  spar.low.z = Given(at.z() + 0.055);
  spar.high.z = Given(at.z() + 0.08);
  d.airframe.keep_outs.push_back(spar);
  Joint plate;
  plate.name = "mount plate";
  plate.kind = JointKind::plate;
  plate.at.x = Given(at.x());
  plate.at.y = Given(at.y());
  plate.at.z = Given(at.z());
  plate.material = "epoxy, slow";
  plate.into = "foam, 30 g/l";
  plate.length = plate.width = Given(0.08);
  d.gear.main().joints.push_back(plate);
  const auto a = assess(d);
  const Finding& path = the_worst(a, "leg.path", "main leg");
  CHECK(plain(path.remark).find("ends in foam") != std::string::npos);
  const Finding& margin = the_worst(a, "leg.margin", "main leg, mount plate");
  REQUIRE(margin.verdict == Verdict::fails);
  const auto list = swaps_for(d, a, shipped_stock(), margin);
  const auto knob =
      std::find_if(list.begin(), list.end(), [](const auto& k) { return k->what() == "post_to_spar"; });
  REQUIRE(knob != list.end());

  CHECK(plain((*knob)->choices[0]).find("55 mm long") != std::string::npos);
  Design with = d;
  (*knob)->apply(with, 2);
  CHECK(read_project(write_project(with)).design);
  const auto b = assess(with);
  CHECK(the_worst(b, "leg.margin", "main leg, mount plate").value > margin.value);
  CHECK(plain(the_worst(b, "leg.path", "main leg").remark).find("ends in foam") == std::string::npos);
}

TEST_CASE("screws near a plate's edge: a larger plate, or straps") {
  auto d = demo("redshank");
  Joint plate;
  plate.name = "mount plate";
  plate.kind = JointKind::plate;
  plate.at.x = Given(0.4);
  plate.at.y = Given(0.1);
  plate.at.z = Given(0.0);
  plate.material = "epoxy, slow";
  plate.into = "birch plywood";
  plate.length = Given(0.060);
  plate.width = Given(0.050);
  for (const double u : {-0.023, 0.023})
    for (const double v : {-0.018, 0.018}) {
      Fastener f;
      f.u = Given(u);
      f.v = Given(v);
      f.diameter = Given(0.003);
      plate.fasteners.push_back(f);
    }
  d.gear.main().joints.push_back(plate);
  CHECK(the_worst(assess(d), "leg.edge_distance").value == Approx(0.007 / 0.003));
  cured_with(d, "leg.edge_distance", "main.straps");
  d.gear.main().joints.back().width = Given(0.040);
  CHECK(the_worst(assess(d), "leg.edge_distance").value == Approx(0.002 / 0.003));
}

TEST_CASE("which screws work and which only locate is told of each") {
  const auto a = assess(demo("dunnock"));
  const Finding& f = the_worst(a, "leg.margin", "main leg, spar bolts");
  int told = 0;
  for (const auto& w : f.working) {
    const auto words = in_words(w.name);
    told += words.find("works") != std::string::npos || words.find("locates") != std::string::npos;
    CHECK(std::isfinite(w.si));
  }
  const auto d = demo("dunnock");
  for (const auto& j : d.gear.main().joints)
    if (j.name == "spar bolts") CHECK(told == static_cast<int>(j.fasteners.size()));
  CHECK(told > 0);
}

TEST_CASE(
    "a door that stays open is held off the ground in every state, one that closes again is not asked") {
  auto d = demo("redshank");
  const auto a = assess(d);
  const Finding& f = the_worst(a, "place.door_ground");
  const double before = f.value;
  const std::string id = f.subject.key.substr(5);
  for (auto& door : d.doors)
    if (door.id == id) door.width.si += 0.02;
  const auto wider = assess(d);
  CHECK(the_worst(wider, "place.door_ground", f.subject).value < before - 0.01);
  for (auto& door : d.doors)
    if (door.id == id) door.width.si += 0.15;
  CHECK(the_worst(assess(d), "place.door_ground", f.subject).verdict == Verdict::fails);
  Step close;
  close.actor = id;
  close.action = Action::close;
  close.start = Given(20.0);
  d.sequence.down.push_back(close);
  CHECK_FALSE(worst(assess(d), "place.door_ground", f.subject));
}

TEST_CASE("the lever of a hinged leg over its travel, and the wire's loops lead the axle aside") {
  const auto a = assess(demo("wheatear"));
  const Finding& lever = the_worst(a, "spring.lever_ratio");
  REQUIRE(lever.working.size() == 6);
  // By small steps of the spring itself: closure gained over rise gained.
  const auto& w = (*a.wheels)[1];
  const double q = a.loadings[0].rest->wheels[1].coordinate;
  const double h = 1e-6;
  const double by_steps = (w.leg.closure(q + h).s - w.leg.closure(q - h).s) /
                          (w.leg.at(q + h).axle.z() - w.leg.at(q - h).axle.z());
  CHECK(lever.value == Approx(by_steps).epsilon(0.02));
  const auto d = demo("redshank");
  const auto b = assess(d);
  const Finding& loop = the_worst(b, "spring.loop_offset");
  double turns = 0;
  const auto& bent = d.gear.third().spring.bent;
  for (const auto& l : bent.loops) turns += l.turns;
  CHECK(loop.value == Approx(turns * bent.wire_diameter));
}
