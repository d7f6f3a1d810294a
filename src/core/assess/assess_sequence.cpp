// SPDX-License-Identifier: GPL-3.0-or-later
//! Sequence: what passes what, and when.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/assess/assess.h"
#include "core/assess/box_cures.h"
#include "core/assess/collector.h"
#include "core/assess/doors_state.h"
#include "core/assess/leg_times.h"
#include "core/model/lacking.h"
#include "core/sequence/aids.h"
#include "core/sequence/sequence.h"

namespace kranich {

namespace {

//! What is entered of a door's zone, against what the geometry gives.
void zone(const Design& d, const Assessment& a, Collector& collect) {
  for (const DoorState& s : a.doors) {
    const auto is = [&](const Door& x) { return x.id == s.door; };
    const auto door = std::find_if(d.doors.begin(), d.doors.end(), is);
    if (!s.region || !(s.region->enter >= 0) || !std::isfinite(s.region->frees_at)) continue;
    double least = std::numeric_limits<double>::infinity();
    const auto against = [&](const Given& entered, double safer) {
      if (entered.known()) least = std::min(least, safer);
    };
    against(door->frees_leg_at, door->frees_leg_at - s.region->frees_at);
    against(door->zone_enter, s.region->enter - door->zone_enter);
    against(door->zone_leave, door->zone_leave - s.region->leave);
    if (!std::isfinite(least)) continue;
    collect.about(about_door(d, s.door), "", GearState::extended);
    auto& f = collect.add("sequence.zone", least);
    if (least < 0) f.remark = "the drawing asks for more: it counts as well";
    f.working = {{"drawn: leg may pass when open by", s.region->frees_at, Kind::share},
                 {"drawn: leg enters at", s.region->enter, Kind::share},
                 {"drawn: leg leaves at", s.region->leave, Kind::share}};
  }
}

//! Steering, up-locks and brakes against the legs they are about.
void aids(const Design& d, Assessment& a, bool up, const Limit& in_hand, Collector& collect) {
  const auto about = [&](const Aid& aid) {
    const Text word = d.actor_word(aid.id);
    collect.about({up ? say("{}, going up", word) : say("{}, going down", word),
                   "aid:" + aid.id + (up ? "/up" : "/down"), aid.leg},
                  "", GearState::extended);
  };
  const auto checks = sequence::check_aids(d, a.times, up);
  for (size_t i = 0; i < d.sequence.aids.size(); ++i) {
    const Aid& aid = d.sequence.aids[i];
    about(aid);
    Lacking lacks("/sequence/aids/" + std::to_string(i) + "/");
    lacks.number(aid.takes, "takes_s", "how long it takes")
        .number(aid.slowest, "slowest_factor", "how much longer at its slowest")
        .number(aid.fastest, "fastest_factor", "how much shorter at its fastest");
    if (!lacks.nothing()) {
      collect.unknown("sequence.aid", lacks.text());
      continue;
    }
    for (const auto& c : checks) {
      if (c.aid != aid.id) continue;
      if (!c.nobody.empty())
        collect.fails("sequence.aid", in_hand, c.nobody);
      else
        collect.add("sequence.aid", c.in_hand, in_hand).working = {
            {"done, or begun, at", c.done, Kind::time}, {"its leg asks for it at", c.due, Kind::time}};
    }
  }
}

//! How far apart the two legs of a pair may be, by the spread that is entered: started together, one at its
//! fastest, one at its slowest. What their drive's figures spread by (battery, load) is the same for both.
void pairs_apart(const Design& d, const Assessment& a, bool up, Collector& collect) {
  const auto& bars = a.lines[up ? 0 : 1].bars;
  for (const Leg& leg : d.gear.legs) {
    if (leg.stands != LegStands::both_sides || !leg.retraction.fitted) continue;
    const auto& steps = up ? d.sequence.up : d.sequence.down;
    if (std::none_of(steps.begin(), steps.end(), [&](const Step& s) { return s.actor == leg.id; })) continue;
    const Subject its = about_leg(d, leg);
    collect.about({up ? say("{}, going up", its.words) : say("{}, going down", its.words),
                   its.key + (up ? "/up" : "/down"), its.leg},
                  "", GearState::extended);
    const Given &slowest = leg.retraction.slowest, &fastest = leg.retraction.fastest;
    Lacking lacks(leg_root(leg.id) + "retraction/");
    lacks.number(slowest, "slowest_factor", "how much longer the slowest takes")
        .number(fastest, "fastest_factor", "how much shorter the fastest");
    if (!lacks.nothing()) {
      collect.unknown("sequence.apart", lacks.text());
      continue;
    }
    const auto bar = std::find_if(bars.begin(), bars.end(), [&](const sequence::Bar& b) {
      return b.kind == sequence::ActorKind::leg && b.actor == leg.id;
    });
    if (bar == bars.end()) continue;  // its time is missing: said of the whole cycle
    const double takes = bar->nominal_end - bar->start;
    const double apart = takes * (slowest - fastest);
    Limit limit = at_most(0.5 * takes, "practice: further apart it looks broken, and rolls the aircraft");
    limit.hold_upper = 0.2 * takes;
    auto& f = collect.add("sequence.apart", apart, limit);
    f.working = {{"first at rest at", bar->start + takes * fastest, Kind::time},
                 {"last at rest at", bar->start + takes * slowest, Kind::time},
                 {"the slow one has then still to go", 1 - fastest / slowest, Kind::share}};
  }
}

}  // namespace

void assess_sequence(const Design& d, Assessment& a, Collector& collect, const Asked&) {
  if (d.sequence.up.empty() && d.sequence.down.empty()) return;
  const Limit in_hand = d.sequence.margin.known() ? at_least(d.sequence.margin, "the time in hand you want")
                                                  : at_least(0, "it must not be late");
  const auto zones = zones_of(a);
  const auto& times = leg_times(d, a);
  zone(d, a, collect);
  for (const bool up : {true, false}) {
    const Text way = up ? "going up" : "going down";
    std::vector<Text> problems;
    auto& line = a.lines[up ? 0 : 1];
    line = sequence::timeline(d, times, up ? d.sequence.up : d.sequence.down, problems);
    for (const auto& c : sequence::check_doors(d, times, up, problems, zones)) {
      collect.about(about_door(d, c.door, up), "", GearState::extended);
      if (c.shut) {
        collect.fails(
            "sequence.leg_wait", in_hand,
            "nothing opens this door before the leg comes: give it a step that opens it, or one less "
            "that closes it");
        continue;
      }
      auto& wait = collect.add("sequence.leg_wait", c.wait_in_hand, c.stood_open ? Limit{} : in_hand);
      if (c.stood_open) wait.remark = "the door stands open already";
      wait.working = {{"leg starts at", c.leg_start, Kind::time},
                      {"may reach the door from", c.least_leg_start, Kind::time}};
      if (std::isnan(c.close_start)) continue;
      auto& close = collect.add("sequence.door_wait", c.close_in_hand, in_hand);
      close.working = {{"door starts to close at", c.close_start, Kind::time},
                       {"slowest leg at rest at", c.least_close_start_at_rest, Kind::time},
                       {"slowest leg has then done", c.slowest_leg_share, Kind::share}};
      if (c.touches)
        close.remark = "the door closes on a leg that still moves through it";
      else if (c.close_in_hand < 0)
        close.remark = say("the slowest leg is still moving, {} done, but past the door",
                           Amount{c.slowest_leg_share, Kind::share});
    }
    aids(d, a, up, in_hand, collect);
    pairs_apart(d, a, up, collect);
    collect.about(way, "", GearState::extended);
    for (const auto& p : problems) collect.unknown("sequence.duration", p);
    if (problems.empty() && !line.bars.empty()) collect.add("sequence.duration", line.latest_end);
  }
  assess_boxes(d, a, collect);
}

}  // namespace kranich
