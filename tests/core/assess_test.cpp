// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/assess.h"

#include <catch2/catch.hpp>
#include <filesystem>

#include "core/assess/cures.h"
#include "core/assess/loading_state.h"
#include "core/io/project_file.h"
#include "core/io/stock.h"
#include "core/model/locate.h"
#include "core/motion/retract.h"
#include "core/sequence/sequence.h"
#include "core/spring/shelf.h"
#include "demo.h"
#include "findings.h"
#include "said.h"
#include "timed.h"

using namespace kranich;

namespace {

std::vector<std::string> failing(const Assessment& a) {
  std::vector<std::string> ids;
  for (const Finding* f : worst_of_each(a))
    if (f->verdict == Verdict::fails) ids.push_back(f->measure_id);
  return ids;
}

}  // namespace

TEST_CASE("the demos have the defects they are made with, and no others") {
  CHECK(failing(assess(demo("dunnock"))) == std::vector<std::string>{"logic.door", "logic.lamp", "logic.horn",
                                                                     "swing.clearance", "place.nose_share",
                                                                     "place.rotation"});
  CHECK(failing(assess(demo("redshank"))) ==
        std::vector<std::string>{"sequence.door_wait", "place.axle_ahead"});
  CHECK(failing(assess(demo("wheatear"))) ==
        std::vector<std::string>{"place.axle_ahead", "place.nose_over_three_point"});
  CHECK(failing(assess(demo("pintail"))) ==
        std::vector<std::string>{"circuit.time", "circuit.time", "circuit.time", "circuit.air_lasts",
                                 "drive.force", "swing.clearance", "drive.force", "circuit.cycles",
                                 "drive.force"});
  for (const std::string name : {"dunnock", "redshank", "wheatear", "pintail"})
    for (const auto& f : assess(demo(name)).findings) {
      INFO(name << " " << f.key() << " " << f.remark);
      CHECK(f.verdict != Verdict::unknown);
      CHECK((!f.limit.set() || !f.limit.source.empty()));
    }
}

TEST_CASE("the same design gives the same answer") {
  const auto d = demo("redshank");
  const auto a = assess(d);
  const auto b = assess(d);
  REQUIRE(a.findings.size() == b.findings.size());
  for (size_t i = 0; i < a.findings.size(); ++i)
    CHECK((a.findings[i].value == b.findings[i].value || std::isnan(a.findings[i].value)));
}

TEST_CASE("shares of the wheels agree between Place's formula and Stance's loads") {
  for (const std::string name : {"dunnock", "redshank"}) {
    const auto a = assess(demo(name));
    for (const auto& l : a.loadings) {
      if (!l.rest || !l.flown) continue;
      const double share = l.rest->wheels[2].load / (l.mass.down.mass * standard_gravity);
      for (const auto& f : a.findings)
        if (f.loading == l.name && (f.measure_id == "place.nose_share" || f.measure_id == "place.tail_share"))
          CHECK(f.value == Approx(share).margin(2e-4));
    }
  }
}

TEST_CASE("every cure cures, and says truly what it costs") {
  for (const std::string name : {"dunnock", "redshank", "wheatear"}) {
    const auto d = demo(name);
    const auto before = assess(d);
    for (const Finding* f : worst_of_each(before)) {
      if (f->verdict != Verdict::fails) continue;
      // What is wired otherwise stands beside what is exchanged.
      const bool wired = f->measure_id.rfind("logic.", 0) == 0;
      const auto cures = cures_for(d, before, *f, {100, wired ? &shipped_stock() : nullptr, {}});
      INFO(name << " " << f->key());
      REQUIRE_FALSE(cures.empty());
      for (const auto& c : cures) {
        INFO(c.text);
        const auto after = assess(c.applied(d));
        CHECK(the_worst(after, f->measure_id, f->subject).verdict == c.reached);
        CHECK(c.reached != Verdict::fails);
        for (const auto& p : c.worse) CHECK(the_worst(after, p.measure_id, p.subject).verdict == p.after);
      }
      // The least change: a step less does not do it.
      const auto& c = cures.front();
      Design less = d;
      c.parts[0].knob->apply(less,
                             c.parts[0].change - std::copysign(c.parts[0].knob->step, c.parts[0].change));
      CHECK(the_worst(assess(less), f->measure_id, f->subject).verdict == Verdict::fails);
    }
  }
}

TEST_CASE("Dunnock is cured by the tutorial's moves: wired otherwise, then two") {
  auto d = demo("dunnock");
  for (int round = 0; round < 4; ++round) {
    const auto a = assess(d);
    const auto ids = failing(a);
    if (ids.empty()) break;
    d = cures_for(d, a, the_worst(a, ids.front())).front().applied(d);
  }
  CHECK(failing(assess(d)).empty());
}

TEST_CASE("a missing input is named, never taken as zero") {
  auto d = demo("dunnock");
  locate_given(d, "/gear/legs/main/wheel/tyre_rate_N_per_m")->given->si = std::nan("");
  const auto a = assess(d);
  const auto& f = the_worst(a, "stance.third_load");
  CHECK(f.verdict == Verdict::unknown);
  CHECK(says(f.remark, "the tyre's rate"));
  d = demo("dunnock");
  d.ledger[0].mass = {};
  CHECK(says(the_worst(assess(d), "weigh.cg_station").remark, "airframe structure"));
  d = demo("dunnock");
  d.gear.third().retraction.well.high.x = {};
  CHECK(says(the_worst(assess(d), "swing.clearance", "nose leg").remark, "well"));
}

TEST_CASE("a wing without its sweep has no mean chord, a low point without its place is said to be unknown") {
  auto d = demo("dunnock");
  d.airframe.wing.sweep = {};
  CHECK(weigh::wing_panels(d.airframe.wing).empty());
  d.airframe.low_points[2].at.z = {};
  const auto a = assess(d);
  const auto& f = the_worst(a, "place.low_point", d.airframe.low_points[2].name);
  CHECK(f.verdict == Verdict::unknown);
}

TEST_CASE("an empty design is all unknown and nothing breaks") {
  const auto a = assess(Design{});
  for (const auto& f : a.findings) CHECK(f.verdict == Verdict::unknown);
}

TEST_CASE("a CG behind the mains is a finding, not an error") {
  auto d = demo("dunnock");
  for (auto& i : d.ledger)
    if (i.name == "battery") {
      i.mass = 60;
      i.at.x = 6;
    }
  d.ledger[3].mass = 5;  // the engine out
  const auto a = assess(d);
  const auto& f = the_worst(a, "stance.third_load");
  CHECK(f.verdict == Verdict::fails);
  CHECK(says(f.remark, "sits down on its tail"));
}

TEST_CASE("a limit of one's own replaces the book's") {
  auto d = demo("dunnock");
  OwnLimit own;
  own.measure = "place.nose_share";
  own.upper = 0.30;
  own.reason = "strong nose leg";
  d.own_limits.push_back(own);
  const auto a = assess(d);
  const auto& f = the_worst(a, "place.nose_share");
  CHECK(f.verdict != Verdict::fails);
  CHECK(says(f.limit.source, "strong nose leg"));
}

TEST_CASE("stowing the legs moves the CG as the moved masses say") {
  const auto d = demo("dunnock");
  for (const auto& l : assess(d).loadings) {
    double moment = 0;
    for (const auto& i : d.ledger) {
      if (i.moves.empty()) continue;
      const Leg& leg = d.gear.leg(i.moves);
      moment += i.mass * (motion::swung(leg, 1, i.at.vec(), i.at.y < 0.0)->x() - i.at.x);
    }
    CHECK(l.mass.up.at.x() - l.mass.down.at.x() == Approx(moment / l.mass.down.mass).margin(1e-12));
    CHECK(l.mass.up.at.y() == Approx(l.mass.down.at.y()).margin(1e-12));
  }
}

TEST_CASE("the shelf ranks what fits first") {
  const auto d = demo("redshank");
  spring::Shelves shelves;
  for (const double wire : {0.0018, 0.0014, 0.0018}) {
    spring::ShelfItem item;
    item.coil = d.gear.main().spring.coil;
    item.coil.wire_diameter = wire;
    item.name = std::to_string(shelves.coils.size());
    if (shelves.coils.empty()) item.coil.free_length = 0.100;
    shelves.coils.push_back(item);
  }
  const spring::Need need{41};
  const auto offers = spring::offers_for(d.gear.main(), shelves, {}, need);
  const auto list = spring::rank_offers(offers, {}, need);
  REQUIRE(list.size() == 3);
  CHECK(list[0].index == 2);
  CHECK(list[0].objection.empty());
  CHECK(says(list[2].objection, "loose"));
  CHECK(list[0].energy == Approx((list[0].preload + list[0].peak) / 2 * d.gear.main().travel));
}

TEST_CASE("a leg that starts with the slowest door never meets it") {
  const auto d = demo("redshank");
  std::vector<Text> problems;
  for (const bool up : {true, false})
    for (const auto& c : sequence::check_doors(d, timed(d), up, problems, {})) {
      // By hand: every corner of the spreads, positions at constant speed, in fine steps.
      const auto& door =
          *std::find_if(d.doors.begin(), d.doors.end(), [&](const Door& x) { return x.id == c.door; });
      const auto& r = d.gear.main().retraction;
      bool meet = false;
      for (const double fo : {door.fastest.si, door.slowest.si})
        for (const double fl : {r.fastest.si, r.slowest.si})
          for (const double fc : {door.fastest.si, door.slowest.si})
            for (double t = 0; t < 14; t += 0.002) {
              double open = std::min(1.0, t / (door.time_open * fo));
              if (!std::isnan(c.close_start) && t > c.close_start)
                open = std::max(0.0, 1 - (t - c.close_start) / (door.time_close * fc));
              const double done =
                  std::clamp((t - c.leg_start) / ((up ? r.time_up : r.time_down) * fl), 0.0, 1.0);
              const double leg = up ? done : 1 - done;
              meet = meet || (open < door.frees_leg_at - 1e-3 && leg > door.zone_enter + 1e-3 &&
                              leg < door.zone_leave - 1e-3);
            }
      INFO(c.door << (up ? " up" : " down"));
      CHECK(meet == c.touches);
    }
  CHECK(problems.empty());
}

TEST_CASE("cures that are called off come to nothing, soon") {
  const auto d = demo("dunnock");
  const auto a = assess(d);
  const Finding* f = &the_worst(a, "swing.clearance");
  int asked = 0;
  double last = 0;
  const auto all = cures_for(d, a, *f, {100, nullptr, [&](double share) {
                                          ++asked;
                                          CHECK(share >= last);
                                          last = share;
                                          return true;
                                        }});
  REQUIRE_FALSE(all.empty());
  REQUIRE(asked > 20);
  int since = 0;
  CHECK(cures_for(d, a, *f, {100, nullptr, [&](double) { return ++since < asked / 2; }}).empty());
  CHECK(since <
        asked / 2 + 30);  // a search may ask once more for each of its trials, and each is refused at once
}
