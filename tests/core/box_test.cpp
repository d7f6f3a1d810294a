// SPDX-License-Identifier: GPL-3.0-or-later
//! Over the box of tolerances, over the map, beside other variants; readings and lines from the bench.
#include <catch2/catch.hpp>
#include <random>

#include "core/assess/compare.h"
#include "core/assess/cures.h"
#include "core/assess/loading_state.h"
#include "core/assess/placement_map.h"
#include "core/assess/table_sheet.h"
#include "core/assess/tolerance.h"
#include "core/io/bench_line.h"
#include "core/io/csv.h"
#include "core/io/variants.h"
#include "core/model/locate.h"
#include "core/model/moves.h"
#include "demo.h"
#include "findings.h"
#include "said.h"

using namespace kranich;

TEST_CASE("the map agrees with the checks where the design stands, and after a move where it goes") {
  for (const std::string name : {"dunnock", "redshank", "wheatear"}) {
    const auto d = demo(name);
    const auto a = assess(d);
    for (const MapUp up : {MapUp::cg_height, MapUp::track}) {
      const MapModel model(d, a, a.loadings[0].name, up);
      REQUIRE(model.ok());
      int compared = 0;
      for (const auto& f : model.at(model.here().x(), model.here().y())) {
        const Finding* check = worst(a, f.measure);
        REQUIRE(check);
        INFO(name << " " << f.measure);
        CHECK(f.value == Approx(check->value).epsilon(1e-9));
        CHECK(f.fails == (check->verdict == Verdict::fails));
        ++compared;
      }
      CHECK(compared >= 5);
      // Moved for good, a short way and far: what the map foretold is what the checks then say. Legs and
      // tyres give as the shares move; what is left is the pitch's second order.
      for (const double far : {1.0, -3.0, 6.0}) {
        Design moved = d;
        const double dx = -0.02 * far * (name == "dunnock" ? 1 : 0.5);
        move_on_map(moved, up, dx, 0);
        const auto there = assess(moved);
        for (const auto& f : model.at(model.here().x() + dx, model.here().y())) {
          const Finding* check = worst(there, f.measure);
          INFO(name << " " << f.measure << " moved by " << dx << ": " << f.value << " for " << check->value);
          const bool length = check->info().kind == Kind::length;
          const double off = far > 3 ? 0.065 : far < 0 ? 0.05 : 0.02;
          CHECK(f.value ==
                Approx(check->value).epsilon(off).margin(length ? (far > 3 ? 0.016 : 0.003) : 1e-3));
        }
      }
    }
  }
}

TEST_CASE("on a boundary of the map its measure stands at the limit") {
  const auto d = demo("dunnock");
  const auto a = assess(d);
  const MapModel model(d, a, a.loadings[0].name, MapUp::cg_height);
  const auto map = model.map(model.usual_area());
  REQUIRE(map.boundaries.size() >= 4);
  int points = 0;
  for (const auto& b : map.boundaries) {
    for (const auto& curve : b.curves)
      for (size_t i = 0; i < curve.size(); i += 7)
        for (const auto& f : model.at(curve[i].x(), curve[i].y()))
          if (f.measure == b.measure) {
            const double limit = b.upper ? f.upper : f.lower;
            INFO(b.measure << " at " << curve[i].transpose());
            CHECK(f.value == Approx(limit).epsilon(0.02));
            ++points;
          }
  }
  CHECK(points > 10);
  // The spar and what lies beyond it are out of reach.
  REQUIRE(map.blocked.size() == 2);
  CHECK(map.reach_low == Approx(2.285).margin(1e-6));
  const auto beyond = model.map({1.9, 2.28, 0.7, 1.2, 41, 21});
  CHECK_FALSE(beyond.boundaries.empty());
  for (const auto& b : beyond.boundaries) CHECK(b.out_of_reach);
  for (const auto& b : map.boundaries)
    for (const auto& curve : b.curves)
      for (const auto& p : curve)
        if (p.x() > map.reach_low && p.x() < map.reach_high) CHECK_FALSE(b.out_of_reach);
}

TEST_CASE("the clear region of the map is where no check fails and the unit can be") {
  for (const char* name : {"dunnock", "redshank", "wheatear"}) {
    INFO(name);
    const auto d = demo(name);
    const auto a = assess(d);
    const MapModel model(d, a, a.loadings[0].name, MapUp::cg_height);
    const MapArea area = model.usual_area();
    const auto map = model.map(area);
    const auto in = [](const std::vector<MapPolygon>& pieces, double x, double y) {
      for (const auto& p : pieces) {
        bool inside = true;
        for (size_t i = 0; i < p.size() && inside; ++i) {
          const Eigen::Vector2d u = p[(i + 1) % p.size()] - p[i], v = Eigen::Vector2d(x, y) - p[i];
          inside = u.x() * v.y() - u.y() * v.x() >= 0;
        }
        if (inside) return true;
      }
      return false;
    };
    std::mt19937 random(11);
    std::uniform_real_distribution<double> share(0, 1);
    int clear = 0, beside = 0;
    for (int i = 0; i < 3000; ++i) {
      const double x = area.x_low + share(random) * (area.x_high - area.x_low);
      const double y = area.y_low + share(random) * (area.y_high - area.y_low);
      // As near to a limit as the grid is coarse, either answer will do.
      double least = 1;
      bool fails = false;
      for (const auto& f : model.at(x, y)) {
        const double scale = std::isfinite(f.lower) && std::isfinite(f.upper)
                                 ? f.upper - f.lower
                                 : std::abs(std::isfinite(f.lower) ? f.lower : f.upper);
        for (const double spare : {f.value - f.lower, f.upper - f.value})
          if (std::isfinite(spare)) least = std::min(least, std::abs(spare) / scale);
        fails = fails || f.fails;
      }
      if (least < 0.02) continue;
      bool stopped = x < map.reach_low || x > map.reach_high;
      for (const auto& b : map.blocked) stopped = stopped || (x > b.from && x < b.to);
      CHECK(in(map.clear, x, y) == (!fails && !stopped));
      if (in(map.easy, x, y)) CHECK(in(map.clear, x, y));
      clear += in(map.clear, x, y);
      ++beside;
    }
    CHECK(beside > 1500);
    CHECK(map.in_the_clear == in(map.clear, map.here.x(), map.here.y()));
    if (map.nearest) {
      // On its edge: a hair further on nothing fails, a hair back something does.
      const Eigen::Vector2d way = *map.nearest - map.here;
      CHECK_FALSE(in(map.clear, (map.here + 0.98 * way).x(), (map.here + 0.98 * way).y()));
    }
    // What fails lies to the left of each boundary.
    int sides = 0;
    for (const auto& b : map.boundaries)
      for (const auto& curve : b.curves)
        for (size_t i = 0; i + 1 < curve.size(); i += 5) {
          const Eigen::Vector2d along = curve[i + 1] - curve[i], middle = (curve[i] + curve[i + 1]) / 2;
          const double w = (area.x_high - area.x_low) / 40, h = (area.y_high - area.y_low) / 24;
          const Eigen::Vector2d unit = Eigen::Vector2d(along.x() / w, along.y() / h).normalized();
          const Eigen::Vector2d left(-unit.y() * w * 0.4, unit.x() * h * 0.4);
          const auto spare = [&](const Eigen::Vector2d& p) {
            for (const auto& f : model.at(p.x(), p.y()))
              if (f.measure == b.measure) return b.upper ? f.upper - f.value : f.value - f.lower;
            return std::nan("");
          };
          const double there = spare(middle + left), here = spare(middle - left);
          if (!std::isfinite(there) || !std::isfinite(here)) continue;
          CHECK(there <= here);
          ++sides;
        }
    CHECK(sides > 5);
  }
}

TEST_CASE("no mix of the tolerances gets outside the spread by more than the second order") {
  const auto d = demo("wheatear");
  const auto a = assess(d);
  const auto box = over_tolerances(d, a);
  REQUIRE(box.inputs > 5);
  std::vector<NamedGiven> inputs;
  for (const auto& g : all_given(d))
    if (g.given.known() && g.given.tolerance > 0) inputs.push_back(g);
  std::mt19937 random(2);
  std::uniform_real_distribution<double> u(-1, 1);
  for (int i = 0; i < 40; ++i) {
    Design somewhere = d;
    for (const auto& g : inputs) locate_given(somewhere, g.path)->given->si += u(random) * g.given.tolerance;
    const auto there = assess(somewhere);
    for (const auto& s : box.spreads) {
      const Finding* f = worst(there, s.measure_id, s.subject);
      if (!f || !std::isfinite(f->value)) continue;
      INFO(s.key());
      const double room = 0.05 * (s.high - s.low) + 1e-9;
      CHECK(f->value >= s.low - room);
      CHECK(f->value <= s.high + room);
      if (f->verdict == Verdict::fails) CHECK(s.over_box == Verdict::fails);
    }
  }
}

TEST_CASE("the input that matters most comes first; a verdict that hangs on an undecided one says so") {
  const auto d = demo("dunnock");
  const auto a = assess(d);
  const auto box = over_tolerances(d, a);
  const auto* share = box.of(*worst(a, "place.nose_share"));
  REQUIRE(share);
  REQUIRE(share->influences.size() > 1);
  CHECK(share->influences[0].effect >= share->influences[1].effect);
  CHECK(share->high > worst(a, "place.nose_share")->value);
  const auto* pressure = box.of(*worst(a, "place.ground_pressure", "main wheel"));
  REQUIRE(pressure);
  REQUIRE_FALSE(pressure->hangs_on.empty());
  CHECK(pressure->over_box == Verdict::fails);
  const auto waiting = waiting_for_decisions(d, box);
  REQUIRE(waiting.size() == 2);
  for (const auto& w : waiting) CHECK_FALSE(w.waits_for.empty());
  CHECK(waiting[0].spare == 0.015);
}

TEST_CASE("the work over the tolerances can be called off and tells how far it is") {
  const auto d = demo("dunnock");
  const auto a = assess(d);
  double last = -1;
  const auto box = over_tolerances(d, a, [&](double share) {
    CHECK(share >= last);
    last = share;
    return share < 0.3;
  });
  CHECK(box.cancelled);
  CHECK(box.spreads.empty());
  CHECK(last >= 0.3);
}

TEST_CASE("where nothing single cures it, a pair that does is found and priced") {
  auto d = demo("dunnock");
  d.gear.main().axle.x.si += 0.45;  // far too far aft: every single knob runs out of range
  d.gear.main().retraction.pivot.x.si += 0.45;
  OwnLimit own;
  own.measure = "place.nose_share";
  own.upper = Given(0.13);
  d.own_limits.push_back(own);
  const auto a = assess(d);
  const Finding* f = worst(a, "place.nose_share");
  REQUIRE(f->verdict == Verdict::fails);
  const auto cures = cures_for(d, a, *f);
  REQUIRE_FALSE(cures.empty());
  for (const auto& c : cures) {
    INFO(c.text);
    const auto after = assess(c.applied(d));
    CHECK(worst(after, "place.nose_share")->verdict != Verdict::fails);
    CHECK(c.parts.size() == 2);
    CHECK(says(c.text, ", and "));
  }
}

TEST_CASE("a cure names what it leaves less room for") {
  const auto d = demo("wheatear");
  const auto a = assess(d);
  const auto cures = cures_for(d, a, *worst(a, "place.axle_ahead"));
  REQUIRE_FALSE(cures.empty());
  CHECK(cures.front().id() == "main.station");
  bool priced = false;
  for (const auto& c : cures)
    for (const auto& p : c.costs) {
      priced = true;
      const Finding* before = worst(a, p.measure_id, p.subject);
      CHECK(before->value == Approx(p.value_before));
    }
  CHECK(priced);
}

TEST_CASE("variants are whole designs in the file, compared figure by figure") {
  auto d = demo("wheatear");
  keep_variant(d, "as drawn", "from the plan");
  for_mains(d, [](Leg& leg) { shift_leg(leg, -0.04, 0, 0); });
  keep_variant(d, "axle forward", "");
  const auto back = read_project(write_project(d));
  for (const auto& f : back.faults) FAIL(f.where << " " << f.what);
  REQUIRE(back.design);
  CHECK(*back.design == d);
  const auto first = variant(*back.design, "as drawn");
  REQUIRE(first);
  CHECK(first->gear.main().axle.x.si == 1.24);
  CHECK(first->variants.empty());
  const auto now = assess(d);
  const auto before = assess(*first);
  const auto rows = compare({&now, &before});
  REQUIRE(rows.size() > 20);
  CHECK(rows.front().difference >= rows.back().difference);
  const auto changes = changed_inputs(*first, d);
  bool axle = false;
  for (const auto& c : changes) axle = axle || (c.path == "/gear/legs/main/axle/x_m" && c.after < c.before);
  CHECK(axle);
  keep_variant(d, "as drawn", "again");
  CHECK(d.variants.size() == 2);
  // A faulty variant is a fault of the file, named by its place.
  auto text = write_project(d);
  const auto at = text.rfind("\"wheel_brakes\": true");
  const auto r = read_project(text.replace(at, 20, "\"wheel_brakes\": 7   "));
  REQUIRE_FALSE(r.faults.empty());
  CHECK(r.faults[0].where.find("/variants/") == 0);
}

TEST_CASE("the table sheet gives heights by the rest, and what was read beside them") {
  auto d = demo("dunnock");
  const auto a = assess(d);
  const auto lines = table_sheet(d, a);
  const auto* l = a.loading("two aboard, full fuel");
  REQUIRE(l->rest);
  bool found = false;
  for (const auto& line : lines)
    if (line.loading == l->name && in_words(line.what) == "main axles") {
      found = true;
      CHECK(line.both_sides);
      // An axle stands at its loaded radius, the wheel's lean aside.
      CHECK(line.computed_starboard == Approx(0.19 - l->rest->wheels[1].tyre_closure).margin(2e-5));
      set_reading(d, line, false, line.computed_starboard + 0.012);
      set_reading(d, line, true, line.computed_port);
    }
  REQUIRE(found);
  const auto again = assess(d);
  const Finding* f = worst(again, "stance.table", "main axles");
  REQUIRE(f);
  CHECK(f->value == Approx(0.012));
  CHECK(f->verdict == Verdict::fails);
  CHECK(says(f->remark, "ready to fly"));
  for (const auto& line : table_sheet(d, again))
    if (in_words(line.what) == "main axles" && line.loading == l->name) {
      set_reading(d, line, false, std::nan(""));
      set_reading(d, line, true, std::nan(""));
    }
  CHECK(d.stance.readings.empty());
}

TEST_CASE("lines from the bench are read back, and damaged ones refused with the reason") {
  const BenchLine line{"SCALES", {{"third", 102.31}, {"port", 169.42}, {"steady", 1}}};
  const auto text = format_bench_line(line);
  const auto back = parse_bench_line(text + "\r\n");
  REQUIRE(std::holds_alternative<BenchLine>(back));
  CHECK(std::get<BenchLine>(back).fields == line.fields);
  CHECK_FALSE(std::get<BenchLine>(back).field("starboard"));
  for (size_t i = 0; i < text.size(); ++i) {
    auto bad = text;
    bad[i] = bad[i] == '5' ? '6' : '5';
    CHECK(std::holds_alternative<std::string>(parse_bench_line(bad)));
  }
  for (const char* bad : {"", "*", "SCALES third=*XX", "SCALES third=1"})
    CHECK(std::holds_alternative<std::string>(parse_bench_line(bad)));
}

TEST_CASE("extremes of the CG are those of every combination, tried one by one") {
  auto d = demo("redshank");
  const auto e = weigh::cg_extremes(d);
  REQUIRE(e);
  double low = 1e9;
  double high = -1e9;
  for (const double slide : {0.115, 0.155, 0.195})
    for (const bool mail : {false, true}) {
      Loading l;
      l.name = "x";
      Aboard battery;
      battery.item = "flight battery";
      battery.x = slide;
      l.aboard.push_back(battery);
      if (mail) {
        Aboard m;
        m.item = "mail ballast";
        l.aboard.push_back(m);
      }
      const double x = weigh::sum_loading(d, l).down.at.x();
      low = std::min(low, x);
      high = std::max(high, x);
    }
  CHECK(e->foremost.x == Approx(low).epsilon(1e-12));
  CHECK(e->aftmost.x == Approx(high).epsilon(1e-12));
  CHECK(says(e->aftmost.with, "195 mm"));
}

TEST_CASE("rotorcraft get the checks that apply, and only those") {
  auto d = demo("dunnock");
  d.purpose.lift = Lift::rotor;
  const auto a = assess(d);
  for (const char* gone :
       {"place.tip_back", "place.rotation", "place.tail_strike_static", "place.furthest_aft"})
    CHECK(worst(a, gone) == nullptr);
  const Finding* tips = worst(a, "place.tipping");
  REQUIRE(tips);
  CHECK(tips->limit.set());
  CHECK(worst(a, "place.turnover"));
}

TEST_CASE("a wing of two panels has the area-weighted chord of both") {
  Surface w = demo("dunnock").airframe.wing;
  const auto one = weigh::mean_aerodynamic_chord(w.root_leading_edge_x, weigh::wing_panels(w));
  w.break_span = w.span / 2;
  w.break_chord = (w.root_chord + w.tip_chord) / 2;  // on the straight taper: nothing changes
  const auto two = weigh::mean_aerodynamic_chord(w.root_leading_edge_x, weigh::wing_panels(w));
  CHECK(weigh::wing_panels(w).size() == 2);
  CHECK(two.area == Approx(one.area));
  CHECK(two.mean_chord == Approx(one.mean_chord));
  CHECK(two.leading_edge_x == Approx(one.leading_edge_x));
}

TEST_CASE("a ledger's slides go out to a table and come back") {
  const auto d = demo("redshank");
  const auto back = ledger_from_csv(ledger_to_csv(d.ledger));
  REQUIRE(back.faults.empty());
  for (size_t i = 0; i < d.ledger.size(); ++i) {
    CHECK(back.items[i].slides == d.ledger[i].slides);
    CHECK(back.items[i].slides_from.known() == d.ledger[i].slides_from.known());
  }
}

TEST_CASE("tolerances are typed behind the number") {
  const auto read = [](const char* text, Kind kind = Kind::length) {
    return parse_with_tolerance(text, kind, UnitSystem::metric);
  };
  const auto plain = std::get<ParsedWithTolerance>(read("1835"));
  CHECK_FALSE(plain.tolerance);
  const auto with = std::get<ParsedWithTolerance>(read("1835 ± 3"));
  CHECK(with.value.si == Approx(1.835));
  CHECK(*with.tolerance == Approx(0.003));
  CHECK(with.understood.find("±") != std::string::npos);
  CHECK(*std::get<ParsedWithTolerance>(read("41 3/8\" +- 1/16\"")).tolerance == Approx(0.0254 / 16));
  CHECK(*std::get<ParsedWithTolerance>(read("9.8 kg +/- 2 %", Kind::mass)).tolerance == Approx(0.196));
  CHECK(std::get<ParseError>(read("1835 ± x")).message.find("±") != std::string::npos);
  CHECK(std::holds_alternative<ParseError>(read("1835 ± -2")));
}
