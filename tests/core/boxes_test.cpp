// SPDX-License-Identifier: GPL-3.0-or-later
//! Boxes that time a sequence: what they must hold, what shares an output, what moves when they are switched
//! on.
#include "core/sequence/boxes.h"

#include <catch2/catch.hpp>

#include "core/assess/cures.h"
#include "core/io/csv.h"
#include "core/io/shelves.h"
#include "core/io/stock.h"
#include "core/model/locate.h"
#include "cured.h"
#include "demo.h"
#include "said.h"

using namespace kranich;

namespace {

//! Redshank's doors and legs on one box that is good enough.
Design boxed() {
  Design d = demo("redshank");
  SequencerBox box;
  box.id = "A";
  box.outputs = Given(8.0);
  box.longest_hold = Given(60.0);
  d.sequence.boxes.push_back(box);
  double number = 0;
  for (const auto& actor : sequence::on_no_box(d)) {
    BoxOutput o;
    o.box = "A";
    o.number = Given(++number);
    o.actor = actor;
    d.sequence.outputs.push_back(o);
  }
  return d;
}
Verdict verdict(const Design& d, const char* id, const char* key = "box:A") {
  const Assessment a = assess(d, Stations::only(Station::sequence));
  const Finding* f = about(a, id, key);
  INFO(id);
  REQUIRE(f);
  return f->verdict;
}

}  // namespace

TEST_CASE("a box must hold as long as the slowest leg takes, chained ones together") {
  Design d = boxed();
  for (const char* id : {"sequence.box_hold", "sequence.box_outputs", "sequence.box_apart",
                         "sequence.box_sense", "sequence.box_start"})
    CHECK(verdict(d, id) == Verdict::holds);
  CHECK(verdict(d, "sequence.box_left", "sequence") == Verdict::holds);
  // By hand: an actor's start to the next one's, and behind a leg its slowest time with the margin.
  const Assessment a = assess(d, Stations::only(Station::sequence));
  const auto check = sequence::check_boxes(d, a.line(true), a.line(false))[0];
  double slowest = 0, planned = 0;
  for (const bool up : {true, false}) {
    auto bars = a.line(up).bars;
    std::stable_sort(bars.begin(), bars.end(),
                     [](const auto& x, const auto& y) { return x.start < y.start; });
    for (size_t i = 1; i < bars.size(); ++i) {
      planned = std::max(planned, bars[i].start - bars[i - 1].start);
      if (bars[i - 1].kind == sequence::ActorKind::leg && bars[i].kind == sequence::ActorKind::door &&
          bars[i].action == Action::close && bars[i].leg == bars[i - 1].leg)
        slowest = std::max(slowest, bars[i - 1].latest_end - bars[i - 1].start +
                                        (d.sequence.margin.known() ? d.sequence.margin.si : 0));
    }
  }
  CHECK(check.needs == Approx(std::max(slowest, planned)));
  CHECK(about(a, "sequence.box_hold", "box:A")->value == Approx(60 - check.needs));
  // One that is too short fails by so much; the shelf and a second box cure it.
  d.sequence.boxes[0].longest_hold = Given(check.needs - 0.5);
  CHECK(verdict(d, "sequence.box_hold") == Verdict::fails);
  SequencerBox second;
  second.id = "B";
  second.outputs = Given(4.0);
  second.longest_hold = Given(5.0);
  d.sequence.boxes.push_back(second);
  const auto cures = cured_by(d, "sequence.box_hold", "box:A");
  CHECK(says(cures, "in the place of box A"));
  CHECK(says(cures, "chained to box B"));
  d.sequence.boxes[0].chained_to = "B";
  CHECK(verdict(d, "sequence.box_hold") == Verdict::holds);
  // In a ring none begins; an unknown hold is no hold.
  d.sequence.boxes[1].chained_to = "A";
  CHECK(verdict(d, "sequence.box_hold") == Verdict::fails);
  d.sequence.boxes[1].chained_to.clear();
  d.sequence.boxes[1].longest_hold = Given();
  CHECK(verdict(d, "sequence.box_hold") == Verdict::unknown);
}

TEST_CASE("what hangs on a box: too many, on none, two on one output, one that runs the other way") {
  Design d = boxed();
  d.sequence.boxes[0].outputs = Given(2.0);
  CHECK(verdict(d, "sequence.box_outputs") == Verdict::fails);
  CHECK(says(cured_by(d, "sequence.box_outputs", "box:A"), "in the place of box A"));
  d = boxed();
  const std::string lost = d.sequence.outputs.back().actor;
  d.sequence.outputs.pop_back();
  CHECK(verdict(d, "sequence.box_left", "sequence") == Verdict::fails);
  CHECK(says(cured_by(d, "sequence.box_left", "sequence"), "on output"));
  // A door on a leg's output starts otherwise.
  d = boxed();
  d.sequence.outputs[1].number = d.sequence.outputs[0].number;
  CHECK(verdict(d, "sequence.box_apart") == Verdict::fails);
  CHECK(says(cured_by(d, "sequence.box_apart", "box:A"), "on output"));
  // Two legs on one output, one unit of the other sense: a reverser in its lead.
  d = demo("dunnock");
  d.sequence.boxes.resize(1);
  d.sequence.boxes[0].id = "A";
  d.sequence.boxes[0].outputs = Given(6.0);
  d.sequence.boxes[0].longest_hold = Given(60.0);
  double start = 0;
  for (auto* steps : {&d.sequence.up, &d.sequence.down})
    for (Step& s : *steps)
      if (d.gear.find(s.actor)) s.start = Given(start);
  for (const Leg& leg : d.gear.legs) {
    BoxOutput o;
    o.box = "A";
    o.number = Given(1.0);
    o.actor = leg.id;
    d.sequence.outputs.push_back(o);
  }
  CHECK(verdict(d, "sequence.box_sense") == Verdict::holds);
  d.gear.third().retraction.unit.other_way = true;
  CHECK(verdict(d, "sequence.box_sense") == Verdict::fails);
  CHECK(says(cured_by(d, "sequence.box_sense", "box:A"), "a reverser in the lead"));
}

TEST_CASE("nothing moves when a box is switched on") {
  Design d = boxed();
  d.sequence.boxes[0].at_switch_on = AtSwitchOn::runs_once;
  CHECK(verdict(d, "sequence.box_start") == Verdict::fails);
  d.sequence.boxes[0].at_switch_on = AtSwitchOn::runs_down;  // its doors
  CHECK(verdict(d, "sequence.box_start") == Verdict::fails);
  CHECK(says(cured_by(d, "sequence.box_start", "box:A"), "in the place of box A"));
  d.doors.clear();
  std::erase_if(d.sequence.outputs, [&](const BoxOutput& o) { return !d.gear.find(o.actor); });
  for (auto* steps : {&d.sequence.up, &d.sequence.down})
    std::erase_if(*steps, [&](const Step& s) { return !d.gear.find(s.actor); });
  CHECK(verdict(d, "sequence.box_start") == Verdict::holds);
}

TEST_CASE("boxes are kept, named anew and taken away with what hangs on them") {
  Design d = boxed();
  const auto back = read_project(write_project(d));
  REQUIRE(back.design);
  CHECK(*back.design == d);
  const auto after = [&](const std::function<void(Design&)>& change) { return changed(d, change); };
  auto named = after([](Design& x) { x.sequence.boxes[0].id = "nose box"; });
  REQUIRE(std::holds_alternative<Design>(named));
  for (const auto& o : std::get<Design>(named).sequence.outputs) CHECK(o.box == "nose box");
  auto gone = after([](Design& x) { x.sequence.boxes.clear(); });
  CHECK(std::get<Design>(gone).sequence.outputs.empty());
  auto no_door = after([](Design& x) { x.doors.erase(x.doors.begin()); });
  CHECK(std::get<Design>(no_door).sequence.outputs.size() < d.sequence.outputs.size());
  auto twice = after([](Design& x) { x.sequence.boxes.push_back(x.sequence.boxes[0]); });
  CHECK(std::holds_alternative<std::vector<Fault>>(twice));
  // The shelf that ships is whole; a faulty line is named.
  CHECK(shipped_stock().boxes.size() >= 6);
  CHECK(read_box_shelf("name,outputs,longest_hold_s,at_switch_on\nx,0,3,stays as it is\n").faults.size() ==
        1);
  CHECK(read_box_shelf("name,outputs,longest_hold_s,at_switch_on\nx,2,3,explodes\n").faults.size() == 1);
}
