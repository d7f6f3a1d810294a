// SPDX-License-Identifier: GPL-3.0-or-later
//! Swing and Sequence: what passes what, and when.
#include <fmt/format.h>

#include <cmath>

#include "core/assess/assess.h"
#include "core/assess/collector.h"
#include "core/assess/swing_state.h"
#include "core/model/lacking.h"
#include "core/sequence/sequence.h"

namespace kranich {

void assess_swing(const Design& d, Assessment& a, Collector& collect, const Asked& asked) {
  const Assessment* near = asked.near;
  for (const Leg& leg : d.gear.legs) {
    if (!leg.retraction.fitted) continue;
    LegSwing s{leg.id, leg, d.airframe.keep_outs, {}, {}, {}, {}};
    collect.about(about_legs(d, leg), "", GearState::extended);
    const LegSwing* known = nullptr;
    if (near)
      for (const auto& k : near->swings)
        if (k.leg == leg.id && k.least && k.of == leg && k.passing == s.passing) known = &k;
    auto input = swing::swing_input(leg, d.airframe.keep_outs);
    if (const auto* missing = std::get_if<Text>(&input)) {
      s.missing = *missing;
      collect.unknown("swing.clearance", *missing);
      a.swings.push_back(std::move(s));
      continue;
    }
    s.input = std::get<swing::SwingInput>(std::move(input));
    s.least = known ? *known->least : swing::least_clearance(*s.input);
    s.figures = swing::swing_figures(leg);
    auto& f = collect.add("swing.clearance", s.least->distance,
                          at_least(s.input->wanted_clearance, "the clearance you want"));
    f.remark = say("{} to {} at {}", swing::part_word(s.least->part), s.least->obstacle,
                   Amount{s.least->turn, Kind::angle});
    f.working = {{"at a turn of", s.least->turn, Kind::angle},
                 {"pivot to axle", s.figures->length, Kind::length}};
    f.assumption = "leg extended; tyre grown by growth and side play";
    auto& out = collect.add("swing.protrusion", s.figures->protrusion,
                            at_most(0, "the wheel stays inside the outline"));
    out.working = {{"slope of the stowed leg", s.figures->stowed_slope, Kind::angle}};
    if (leg.retraction.mount_tilt.known()) {
      auto& misfit = collect.add("swing.unit_misfit", s.figures->down_lean - s.figures->unit_down_lean,
                                 within(radians(-0.5), radians(0.5), "half a degree can be bent or shimmed"));
      misfit.working = {{"lean that Place asks for", s.figures->down_lean, Kind::angle},
                        {"lean that unit and mount make", s.figures->unit_down_lean, Kind::angle},
                        {"unit angle needed", s.figures->required_angle, Kind::angle}};
    } else {
      collect.unknown("swing.unit_misfit",
                      entry(leg_root(leg.id) + "retraction/mount_tilt_deg", "the mount tilt"));
    }
    collect.add("swing.stowed_slope", s.figures->stowed_slope);
    a.swings.push_back(std::move(s));
  }
}

void assess_sequence(const Design& d, Assessment& a, Collector& collect, const Asked&) {
  if (d.sequence.up.empty() && d.sequence.down.empty()) return;
  const Limit in_hand = d.sequence.margin.known() ? at_least(d.sequence.margin, "the time in hand you want")
                                                  : at_least(0, "it must not be late");
  for (const bool up : {true, false}) {
    const Text way = up ? "going up" : "going down";
    std::vector<Text> problems;
    auto& line = a.lines[up ? 0 : 1];
    line = sequence::timeline(d, up ? d.sequence.up : d.sequence.down, problems);
    for (const auto& c : sequence::check_doors(d, up, problems)) {
      collect.about(about_door(d, c.door, up), "", GearState::extended);
      if (c.shut) {
        collect.fails(
            "sequence.leg_wait", in_hand,
            "nothing opens this door before the leg comes: give it a step that opens it, or one less "
            "that closes it");
        continue;
      }
      auto& wait = collect.add("sequence.leg_wait", c.wait_in_hand, in_hand);
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
    collect.about(way, "", GearState::extended);
    for (const auto& p : problems) collect.unknown("sequence.duration", p);
    if (problems.empty() && !line.bars.empty()) collect.add("sequence.duration", line.latest_end);
  }
}

}  // namespace kranich
