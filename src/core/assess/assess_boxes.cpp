// SPDX-License-Identifier: GPL-3.0-or-later
//! Sequence: the boxes that time it.
#include <algorithm>
#include <cmath>

#include "core/assess/box_cures.h"
#include "core/assess/collector.h"
#include "core/assess/doors_state.h"
#include "core/model/lacking.h"
#include "core/sequence/boxes.h"

namespace kranich {
namespace {

Subject about_box(const SequencerBox& box) {
  return {box.name.empty() ? say("box {}", Text(box.id)) : say("box {}, {}", Text(box.id), Text(box.name)),
          "box:" + box.id};
}
Text words_of(const Design& d, const std::vector<std::string>& actors) {
  std::vector<Text> words;
  for (const auto& a : actors) words.push_back(d.actor_word(a));
  return enumerated(std::move(words));
}

}  // namespace

void assess_boxes(const Design& d, const Assessment& a, Collector& collect) {
  const auto& boxes = d.sequence.boxes;
  if (boxes.empty()) return;
  const auto checks = sequence::check_boxes(d, a.line(true), a.line(false));
  const auto none = [&](const char* measure, const std::vector<std::string>& actors,
                        const char* source) -> Finding& {
    auto& f = collect.add(measure, static_cast<double>(actors.size()), {{}, 0.0, {}, 0.0, source});
    if (!actors.empty()) f.remark = words_of(d, actors);
    return f;
  };
  for (size_t i = 0; i < boxes.size(); ++i) {
    const SequencerBox& box = boxes[i];
    const sequence::BoxCheck& check = checks[i];
    const std::string path = "/sequence/boxes/" + box.id;
    collect.about(about_box(box));
    if (check.in_a_ring) {
      collect.fails("sequence.box_hold", at_least(0, "a chain has a first box"),
                    "chained in a ring: none of these boxes begins");
    } else if (!std::isfinite(check.holds)) {
      // Its own, or that of one before it in its chain: whichever is not known.
      Lacking lacks("/sequence/boxes/");
      const SequencerBox* b = &box;
      for (size_t links = 0; b && links <= boxes.size(); ++links) {
        lacks.number(b->longest_hold, b->id + "/longest_hold_s",
                     say("the longest time that {} holds", b->name.empty() ? Text(b->id) : Text(b->name)));
        const auto before = std::find_if(boxes.begin(), boxes.end(),
                                         [&](const SequencerBox& o) { return o.id == b->chained_to; });
        b = before == boxes.end() ? nullptr : &*before;
      }
      collect.unknown("sequence.box_hold", lacks.text());
    } else {
      auto& f = collect.add("sequence.box_hold", check.holds - check.needs,
                            at_least(0, "handbook, Doors and sequence: it must outlast the slowest leg"));
      f.working = {{"holds at most", check.holds, Kind::time}, {"must hold", check.needs, Kind::time}};
      if (!check.to.empty())
        f.remark = say("between {} and {}", d.actor_word(check.from), d.actor_word(check.to));
      if (!box.chained_to.empty())
        f.remark.also(say("with box {}, that it is chained to", Text(box.chained_to)));
    }
    if (!box.outputs.known()) {
      collect.unknown("sequence.box_outputs", entry(path + "/outputs", "how many outputs it has"));
    } else {
      auto& f = collect.add("sequence.box_outputs", box.outputs - check.used,
                            at_least_or_tight(0, 0, "what hangs on it needs an output each"));
      f.working = {{"outputs", box.outputs, Kind::factor},
                   {"used", static_cast<double>(check.used), Kind::factor}};
    }
    none("sequence.box_apart", check.apart, "what shares an output starts with it");
    none("sequence.box_sense", check.other_way, "units on one output run the same way, or have a reverser");
    none("sequence.box_start", check.moved,
         "handbook, Doors and sequence: nothing moves when it is switched on");
  }
  collect.about({"the sequence", "sequence"});
  none("sequence.box_left", sequence::on_no_box(d), "every actor hangs on a box, or on none");
}

std::vector<KnobRef> box_swaps(const Design& d, const std::vector<sequence::ShelfBox>& shelf,
                               const Finding& finding) {
  std::vector<KnobRef> list;
  const std::string_view id = finding.measure_id;
  const auto& key = finding.subject.key;
  const auto number = [](int n) { return Given(static_cast<double>(n)); };
  //! Hangs an actor on an output of its own on the first box that has one left.
  const auto on_free_output = [&](const std::string& actor) {
    for (const SequencerBox& box : d.sequence.boxes) {
      const int free = sequence::free_output(d, box);
      if (!free) continue;
      list.push_back(one_choice("box." + actor + ".own",
                                say("{} on output {} of box {}", d.actor_word(actor),
                                    Figure{static_cast<double>(free)}, Text(box.id)),
                                [actor, free, to = box.id, number](Design& x) {
                                  std::erase_if(x.sequence.outputs,
                                                [&](const BoxOutput& o) { return o.actor == actor; });
                                  BoxOutput o;
                                  o.box = to;
                                  o.actor = actor;
                                  o.number = number(free);
                                  x.sequence.outputs.push_back(o);
                                }));
      return;
    }
  };
  if (id == "sequence.box_left") {
    for (const auto& actor : sequence::on_no_box(d)) on_free_output(actor);
    // One after the other where each alone does not do.
    const auto left = sequence::on_no_box(d);
    if (left.size() > 1)
      list.push_back(one_choice("box.all_left", "each on an output of its own", [left, number](Design& x) {
        for (const auto& actor : left)
          for (const SequencerBox& box : x.sequence.boxes)
            if (const int free = sequence::free_output(x, box)) {
              BoxOutput o;
              o.box = box.id;
              o.actor = actor;
              o.number = number(free);
              x.sequence.outputs.push_back(o);
              break;
            }
      }));
    return list;
  }
  const auto box = std::find_if(d.sequence.boxes.begin(), d.sequence.boxes.end(),
                                [&](const SequencerBox& b) { return key == "box:" + b.id; });
  if (box == d.sequence.boxes.end()) return list;
  for (const BoxOutput& o : d.sequence.outputs) {
    if (o.box != box->id) continue;
    if (id == "sequence.box_sense" && d.gear.find(o.actor))
      list.push_back(one_choice("box." + o.actor + ".reverser",
                                say("a reverser in the lead of {}", d.actor_word(o.actor)),
                                [actor = o.actor](Design& x) {
                                  for (BoxOutput& y : x.sequence.outputs)
                                    if (y.actor == actor) y.reversed = !y.reversed;
                                }));
    if (id == "sequence.box_apart" || id == "sequence.box_sense") on_free_output(o.actor);
  }
  if (id == "sequence.box_hold" && box->chained_to.empty())
    for (const SequencerBox& other : d.sequence.boxes)
      if (other.id != box->id && other.chained_to != box->id)
        list.push_back(one_choice("box." + box->id + ".chain_" + other.id,
                                  say("box {} chained to box {}", Text(box->id), Text(other.id)),
                                  [at = box->id, to = other.id](Design& x) {
                                    for (SequencerBox& b : x.sequence.boxes)
                                      if (b.id == at) b.chained_to = to;
                                  }));
  if (id == "sequence.box_hold" || id == "sequence.box_outputs" || id == "sequence.box_start")
    for (const sequence::ShelfBox& s : shelf)
      if (s.name != box->name)
        list.push_back(one_choice("box." + box->id + ".shelf_" + s.name,
                                  say("{} in the place of box {}", Text(s.name), Text(box->id)),
                                  [at = box->id, s](Design& x) {
                                    for (SequencerBox& b : x.sequence.boxes)
                                      if (b.id == at) take(b, s);
                                  }));
  return list;
}

void take(SequencerBox& box, const sequence::ShelfBox& from) {
  box.name = from.name;
  box.outputs = from.outputs;
  box.longest_hold = from.longest_hold;
  box.at_switch_on = from.at_switch_on;
}

}  // namespace kranich
