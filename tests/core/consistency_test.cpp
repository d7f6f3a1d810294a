// SPDX-License-Identifier: GPL-3.0-or-later
//! What holds a design together: versions of its file, ids, what follows a change, what a change may not do.
#include "core/model/consistency.h"

#include <catch2/catch.hpp>
#include <random>
#include <set>

#include "core/assess/assess.h"
#include "core/assess/cures.h"
#include "core/assess/settle.h"
#include "core/io/variants.h"
#include "core/model/locate.h"
#include "demo.h"
#include "said.h"

using namespace kranich;

namespace {

//! As the demos were before edges, drives, steering, logic, circuit and what moves doors were entered in
//! them.
Design without_edges(Design d) {
  d.airframe.references.clear();
  for (auto& leg : d.gear.legs) {
    leg.retraction.drive = {};
    leg.retraction.uplock = {};
    leg.retraction.brace = {};
    leg.steering = {};
  }
  if (d.about.name == "Nightjar") {  // it only stood then
    for (auto& leg : d.gear.legs) leg.retraction = {};
    std::erase_if(d.airframe.bodies, [](const Body& b) { return b.name == "tip pods"; });
    d.doors.clear();
    d.sequence = {};
  }
  d.logic = {};
  d.circuit = {};
  d.sequence.order.clear();
  for (auto& door : d.doors) {
    door.drive = {};
    door.hold = {};
    door.thickness = door.mass = door.cg_out = Given();
  }
  return d;
}

Design old_demo(const std::string& name, int version = 1) {
  auto r = load_project(std::filesystem::path(KRANICH_FIXTURES_DIR) / fmt::format("version-{}", version) /
                        (name + ".kranich"));
  REQUIRE(r.design);
  CHECK(r.older);
  CHECK_FALSE(r.newer);
  return *r.design;
}

//! Applies a change as the window does; the design after it.
Design after(const Design& d, const std::function<void(Design&)>& change) {
  auto next = changed(d, change);
  REQUIRE(std::holds_alternative<Design>(next));
  return std::get<Design>(next);
}
std::vector<Fault> refused(const Design& d, const std::function<void(Design&)>& change) {
  auto next = changed(d, change);
  REQUIRE(std::holds_alternative<std::vector<Fault>>(next));
  return std::get<std::vector<Fault>>(next);
}

void opens_again(Design d) {
  settle(d);  // as the window does
  const auto back = read_project(write_project(d));
  for (const auto& f : back.faults) UNSCOPED_INFO(f.where << ": " << f.what);
  REQUIRE(back.design);
  // To the letter: angles go through degrees, which costs the last digit of a radian.
  CHECK(write_project(*back.design) == write_project(d));
}

}  // namespace

TEST_CASE("a project of version 2 means what it meant: its three scales, and its faults by their old names") {
  for (const std::string name : {"dunnock", "redshank", "wheatear", "nightjar"}) {
    INFO(name);
    CHECK(old_demo(name, 2) == without_edges(demo(name)));
  }
  const auto scales = old_demo("dunnock", 2).weighing.scales;
  REQUIRE(scales.size() == 3);
  CHECK(scales[0].leg == "third");
  CHECK(scales[0].y.si == 0);
  CHECK(scales[1].leg == "main");
  CHECK(scales[1].reading.si == 169.4);
  CHECK(scales[1].tare.si == 2.1);
  CHECK(scales[1].y.si == -1.37);
  CHECK(scales[2].y.si == 1.37);
  CHECK(scales[2].x.si == 2.45);
  const auto faulty = read_project(R"({"kranich": 2, "weighing": {"port_kg": -3, "half_track_m": 900}})");
  std::string said;
  for (const auto& f : faulty.faults) said += f.where + " ";
  CHECK(said.find("/weighing/port_kg") != std::string::npos);
  CHECK(said.find("/weighing/half_track_m") != std::string::npos);
  // Nothing weighed stays nothing weighed.
  const auto none = read_project(R"({"kranich": 2, "weighing": {"loading": "x"}})");
  REQUIRE(none.design);
  CHECK(none.design->weighing.scales.empty());
}

TEST_CASE("a project of version 1 means what it meant") {
  for (const std::string name : {"dunnock", "redshank", "wheatear"}) {
    INFO(name);
    CHECK(old_demo(name) == without_edges(demo(name)));
  }
  const auto r =
      read_project(R"({"kranich": 1, "gear": {"arrangement": "tailwheel", "tail_skid": true, "unlinked": true,
    "main": {"axle": {"x_m": 1, "y_m": 0.6, "z_m": -0.7}}, "port": {"axle": {"x_m": 1.01, "y_m": 0.61, "z_m": -0.7}}},
    "ledger": [{"name": "wheels", "mass_kg": 4, "moves": "with mains"}, {"name": "frame", "mass_kg": 200, "moves": "no"}],
    "doors": [{"name": "1st door", "leg": "main"}, {"name": "", "leg": "main"}],
    "sequence": {"up": [{"actor": "1st door", "action": "open"}, {"actor": "main legs", "action": "raise"},
                        {"actor": "tail leg", "action": "raise"}]},
    "decisions": [{"name": "tyre", "path": "/gear/third/wheel/diameter_m"}]})");
  REQUIRE(r.design);
  const Gear& g = r.design->gear;
  REQUIRE(g.legs.size() == 3);
  CHECK(g.legs[0].stands == LegStands::starboard);
  CHECK(g.legs[1].id == "port");
  CHECK(g.legs[1].stands == LegStands::port);
  CHECK(r.design->port_leg().axle.x.si == 1.01);
  CHECK(g.third().role == LegRole::tail);
  CHECK(g.third().skid);
  CHECK(r.design->ledger[0].moves == "main");
  CHECK(r.design->ledger[1].moves.empty());
  CHECK(r.design->sequence.up[0].actor == r.design->doors[0].id);
  CHECK(r.design->sequence.up[1].actor == "main");
  CHECK(r.design->sequence.up[2].actor == "third");
  CHECK(r.design->doors[0].id != r.design->doors[1].id);
  CHECK(spec_at(*r.design, r.design->decisions[0].path));
  opens_again(*r.design);
}

TEST_CASE("a fault of an old file is named as the old file has it") {
  struct Case {
    const char* text;
    const char* where;
  };
  for (const auto& c :
       {Case{R"({"kranich": 1, "gear": {"main": 3}})", "/gear/main"},
        Case{R"({"kranich": 1, "gear": {"third": {"travel_m": -1}}})", "/gear/third/travel_m"},
        Case{R"({"kranich": 1, "gear": {"arrangement": "canard"}})", "/gear/arrangement"},
        Case{R"({"kranich": 1, "gear": {"unlinked": "yes"}})", "/gear/unlinked"},
        Case{R"({"kranich": 1, "ledger": [{"name": "a", "moves": "up"}]})", "/ledger/0/moves"},
        Case{R"({"kranich": 2, "gear": {"legs": [{"id": "a"}, {"id": "a"}]}})", "/gear/legs/1/id"},
        Case{R"({"kranich": 2, "gear": {"legs": [{}]}})", "/gear/legs/0/id"},
        Case{R"({"kranich": 2, "gear": {"legs": [{"id": "7"}]}})", "/gear/legs/0/id"},
        Case{R"({"kranich": 2, "doors": [{"id": "d", "leg": "main"}]})", "/doors/0/leg"}}) {
    const auto r = read_project(c.text);
    INFO(c.text);
    REQUIRE_FALSE(r.design);
    REQUIRE_FALSE(r.faults.empty());
    CHECK(r.faults[0].where == c.where);
  }
}

TEST_CASE("nesting without end is told, not walked") {
  const std::string open(50000, '[');
  const std::string close(50000, ']');
  for (const std::string& text : {R"({"kranich": 2, "colour": )" + open + close + "}", open, open + close}) {
    const auto r = read_project(text);
    REQUIRE_FALSE(r.design);
    CHECK(r.faults[0].what.find("nested") != std::string::npos);
  }
  // A bracket within a text is no nesting.
  CHECK(read_project(R"({"kranich": 2, "about": {"notes": ")" + open + R"("}})")
            .faults[0]
            .what.find("20,000") != std::string::npos);
  CHECK(
      read_project(R"({"kranich": 2, "about": {"notes": ")" + std::string(500, '[') + R"( \" ["}})").design);
}

TEST_CASE("what refers to a thing that is renamed or gone follows it") {
  const auto d = demo("dunnock");
  const auto aboard = [](const Design& x, const std::string& name) {
    int n = 0;
    for (const auto& l : x.loadings)
      for (const auto& a : l.aboard) n += a.item == name;
    return n;
  };
  size_t load = 0;
  while (d.ledger[load].group != Group::load || aboard(d, d.ledger[load].name) == 0) ++load;
  const std::string name = d.ledger[load].name;
  const auto renamed = after(d, [&](Design& x) { x.ledger[load].name = "somebody else"; });
  CHECK(aboard(renamed, "somebody else") == aboard(d, name));
  CHECK(aboard(renamed, name) == 0);
  // An item that is no load any more is aboard always: no loading names it.
  const auto fixed = after(d, [&](Design& x) { x.ledger[load].group = Group::airframe; });
  CHECK(aboard(fixed, name) == 0);
  opens_again(fixed);
  const auto gone = after(d, [&](Design& x) { x.ledger.erase(x.ledger.begin() + static_cast<long>(load)); });
  CHECK(aboard(gone, name) == 0);
  opens_again(gone);
  // A door may be called what one likes; steps hold on to it.
  const auto called = after(d, [](Design& x) { x.doors[0].name = x.doors[1].name = ""; });
  CHECK(called.sequence == d.sequence);
  opens_again(called);
  const auto without = after(d, [](Design& x) { x.doors.erase(x.doors.begin()); });
  for (const auto& s : without.sequence.up) CHECK(s.actor != d.doors[0].id);
  CHECK(without.sequence.up.size() + 2 == d.sequence.up.size());
  // A nose leg turned tail leg keeps its doors and steps; one taken away takes them with it.
  const auto tail = after(d, [](Design& x) { x.gear.third().role = LegRole::tail; });
  CHECK(tail.sequence == d.sequence);
  CHECK(in_words(tail.actor_word("third")) == "tail leg");
  const auto legless =
      after(d, [](Design& x) { std::erase_if(x.gear.legs, [](const Leg& l) { return l.id == "third"; }); });
  for (const auto& door : legless.doors) CHECK(door.leg != "third");
  for (const auto& item : legless.ledger) CHECK(item.moves != "third");
  opens_again(legless);
}

TEST_CASE("a change that could not be opened again is refused, by its name") {
  const auto d = demo("dunnock");
  struct Case {
    const char* what;
    std::function<void(Design&)> change;
    const char* says;
  };
  const std::vector<Case> cases{
      {"tolerance", [](Design& x) { x.gear.main().axle.x = Given(2.45, Origin::measured, 70); }, "off by"},
      {"empty loading", [](Design& x) { x.loadings[0].name = ""; }, "empty"},
      {"doubled loading", [](Design& x) { x.loadings[1].name = x.loadings[0].name; }, "twice"},
      {"negative scales", [](Design& x) { x.weighing.scales.at(0).reading = -0.02; }, "kg"},
      {"too many variants",
       [](Design& x) {
         for (int i = 0; i < 21; ++i) keep_variant(x, "v" + std::to_string(i), "");
       },
       "20 entries"},
      {"too many doors",
       [](Design& x) {
         while (x.doors.size() < 25) {
           x.doors.push_back(x.doors[0]);
           x.doors.back().id = unused_id(x, "door");
         }
       },
       "24 entries"},
      {"too many loops", [](Design& x) { x.gear.main().spring.bent.loops.resize(9); }, "8 entries"},
      {"bent far", [](Design& x) { x.gear.main().camber = radians(40); }, "30"},
      {"a long ledger",
       [](Design& x) {
         for (int i = 0; i < 2001; ++i) {
           x.ledger.emplace_back();
           x.ledger.back().name = "part " + std::to_string(i);
         }
       },
       "2000 entries"}};
  for (const auto& c : cases) {
    INFO(c.what);
    const auto faults = refused(d, c.change);
    REQUIRE_FALSE(faults.empty());
    INFO(faults[0].where << " " << faults[0].what);
    CHECK(faults[0].what.find(c.says) != std::string::npos);
    CHECK_FALSE(faults[0].title.empty());
  }
}

TEST_CASE("every cure that is offered can be saved and opened again") {
  for (const std::string name : {"dunnock", "redshank", "wheatear"}) {
    auto d = demo(name);
    d.gear.main().wheel.diameter = Given(0.6 * d.gear.main().wheel.diameter);
    const auto a = assess(d);
    for (const Finding* f : worst_of_each(a))
      for (const auto& c : cures_for(d, a, *f)) {
        INFO(name << " " << f->key() << " " << c.text);
        opens_again(c.applied(d));
      }
  }
}

TEST_CASE("whatever is changed at random, what stands can be opened again", "[random]") {
  std::mt19937 random(4);
  for (const std::string name : {"dunnock", "redshank", "wheatear"}) {
    Design d = demo(name);
    std::uniform_real_distribution<double> u(-1, 1);
    int stood = 0;
    for (int i = 0; i < 400; ++i) {
      const auto all = all_given(d);
      const auto& at = all[random() % all.size()];
      const double value =
          random() % 3 == 0 ? 1e3 * u(random) : at.given.si * (1 + u(random)) + 0.01 * u(random);
      const double tolerance = random() % 4 == 0 ? std::abs(u(random)) : 0;
      auto next = changed(
          d, [&](Design& x) { *locate_given(x, at.path)->given = Given(value, Origin::plan, tolerance); });
      if (!std::holds_alternative<Design>(next)) continue;
      d = std::get<Design>(next);
      ++stood;
    }
    CHECK(stood > 50);
    opens_again(d);
  }
}

TEST_CASE("a list is reached by its path: its length, one more up to what it may hold, one less") {
  Design d = demo("dunnock");
  CHECK(list_size_at(d, "/ledger") == d.ledger.size());
  CHECK(list_size_at(d, "/gear/legs/main/joints") == d.gear.main().joints.size());
  CHECK_FALSE(list_size_at(d, "/gear/legs/main/axle"));
  CHECK_FALSE(list_size_at(d, "/gear/legs/nobody/joints"));
  const size_t before = d.gear.main().tubes.size();
  CHECK(add_to_list(d, "/gear/legs/main/tubes"));
  REQUIRE(d.gear.main().tubes.size() == before + 1);
  d.gear.main().tubes.back().name = "last";
  while (add_to_list(d, "/gear/legs/main/tubes")) {
  }
  CHECK(d.gear.main().tubes.size() == 12);  // as many as its description allows
  CHECK(remove_from_list(d, "/gear/legs/main/tubes", before));
  CHECK(d.gear.main().tubes.size() == 11);
  for (const auto& t : d.gear.main().tubes) CHECK(t.name != "last");
  CHECK_FALSE(remove_from_list(d, "/gear/legs/main/tubes", 11));
  CHECK_FALSE(remove_from_list(d, "/nowhere", 0));
  CHECK_FALSE(add_to_list(d, "/units"));
}

TEST_CASE("every station has a title, an id and measures of its own, and runs with those it builds on") {
  std::set<std::string_view> ids;
  for (int i = 0; i < station_count; ++i) {
    const auto s = static_cast<Station>(i);
    CHECK_FALSE(station_title(s).empty());
    CHECK(ids.insert(station_id(s)).second);
    CHECK(Stations::only(s).has(s));
    const auto of_it = [&](const Measure& m) {
      return m.station == s && m.id.starts_with(std::string(station_id(s)) + ".");
    };
    // Bench shows what the Book holds and judges nothing of the design.
    CHECK(std::any_of(all_measures().begin(), all_measures().end(), of_it) == (s != Station::bench));
  }
  CHECK(Stations::only(Station::leg).has(Station::spring));
  CHECK(Stations::only(Station::leg).has(Station::stance));
  CHECK_FALSE(Stations::only(Station::place).has(Station::spring));
}
