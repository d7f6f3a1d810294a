// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sequence/boxes.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>
#include <set>

namespace kranich::sequence {
namespace {

constexpr double nan = std::numeric_limits<double>::quiet_NaN();

const SequencerBox* find(const Design& d, const std::string& id) {
  for (const SequencerBox& b : d.sequence.boxes)
    if (b.id == id) return &b;
  return nullptr;
}
bool is_door(const Design& d, const std::string& actor) {
  return std::any_of(d.doors.begin(), d.doors.end(), [&](const Door& door) { return door.id == actor; });
}
int number_of(const BoxOutput& o) { return o.number.known() ? static_cast<int>(std::lround(o.number)) : 0; }

//! What it can hold, with those that it is chained to; a ring adds nothing more.
double held(const Design& d, const SequencerBox& box, std::set<std::string>& seen, bool& ring) {
  if (!seen.insert(box.id).second) {
    ring = true;
    return 0;
  }
  const double own = box.longest_hold.known() ? box.longest_hold.si : nan;
  const SequencerBox* before = box.chained_to.empty() ? nullptr : find(d, box.chained_to);
  return before ? own + held(d, *before, seen, ring) : own;
}

//! The longest time that a box must hold in one direction.
void need_of(const Design& d, const std::set<std::string>& actors, const Timeline& line, BoxCheck& check) {
  std::vector<const Bar*> bars;
  for (const Bar& b : line.bars)
    if (actors.count(b.actor)) bars.push_back(&b);
  std::stable_sort(bars.begin(), bars.end(), [](const Bar* a, const Bar* b) { return a->start < b->start; });
  const double margin = d.sequence.margin.known() ? d.sequence.margin.si : 0;
  for (size_t i = 1; i < bars.size(); ++i) {
    const Bar &before = *bars[i - 1], &now = *bars[i];
    double time = now.start - before.start;
    // A door that closes behind a leg: whatever is planned, the slowest leg decides.
    const bool leg_before = before.kind == ActorKind::leg && now.kind == ActorKind::door &&
                            now.action == Action::close && now.leg == before.leg;
    if (leg_before) time = std::max(time, before.latest_end - before.start + margin);
    if (!(time > check.needs)) continue;
    check.needs = time;
    check.from = before.actor;
    check.to = now.actor;
  }
}

//! Starts and actions of an actor, to be compared with another's.
std::vector<std::pair<double, Action>> moves_of(const Timeline& line, const std::string& actor) {
  std::vector<std::pair<double, Action>> list;
  for (const Bar& b : line.bars)
    if (b.actor == actor) list.emplace_back(std::round(b.start * 100) / 100, b.action);
  return list;
}

}  // namespace

std::vector<BoxCheck> check_boxes(const Design& d, const Timeline& up, const Timeline& down) {
  std::vector<BoxCheck> list;
  for (const SequencerBox& box : d.sequence.boxes) {
    BoxCheck check;
    check.box = box.id;
    std::map<int, std::vector<const BoxOutput*>> on;
    std::set<std::string> actors;
    for (const BoxOutput& o : d.sequence.outputs)
      if (o.box == box.id) {
        on[number_of(o)].push_back(&o);
        actors.insert(o.actor);
      }
    check.used = static_cast<int>(on.size());
    std::set<std::string> seen;
    check.holds = held(d, box, seen, check.in_a_ring);
    // A chained box goes on from where the other stands: its own actors follow the other's.
    std::set<std::string> with = actors;
    if (const SequencerBox* before = box.chained_to.empty() ? nullptr : find(d, box.chained_to))
      for (const BoxOutput& o : d.sequence.outputs)
        if (o.box == before->id) with.insert(o.actor);
    need_of(d, with, up, check);
    need_of(d, with, down, check);
    for (const auto& [number, outputs] : on) {
      const BoxOutput* first = outputs.front();
      for (const BoxOutput* o : outputs) {
        if (o == first) continue;
        if (moves_of(up, o->actor) != moves_of(up, first->actor) ||
            moves_of(down, o->actor) != moves_of(down, first->actor))
          check.apart.push_back(o->actor);
        const Leg *leg = d.gear.find(o->actor), *other = d.gear.find(first->actor);
        if (leg && other &&
            (leg->retraction.unit.other_way != o->reversed) !=
                (other->retraction.unit.other_way != first->reversed))
          check.other_way.push_back(o->actor);
      }
    }
    if (box.at_switch_on == AtSwitchOn::runs_once) check.moved.assign(actors.begin(), actors.end());
    // Legs are down then; doors are not where "down" leaves them.
    if (box.at_switch_on == AtSwitchOn::runs_down)
      for (const auto& actor : actors)
        if (is_door(d, actor)) check.moved.push_back(actor);
    list.push_back(std::move(check));
  }
  return list;
}

std::vector<std::string> on_no_box(const Design& d) {
  std::vector<std::string> list;
  if (d.sequence.boxes.empty()) return list;
  for (const auto* steps : {&d.sequence.up, &d.sequence.down})
    for (const Step& s : *steps) {
      const bool on = std::any_of(d.sequence.outputs.begin(), d.sequence.outputs.end(),
                                  [&](const BoxOutput& o) { return o.actor == s.actor && find(d, o.box); });
      if (!on && std::find(list.begin(), list.end(), s.actor) == list.end()) list.push_back(s.actor);
    }
  return list;
}

std::string output_of(const Design& d, const std::string& actor) {
  for (const BoxOutput& o : d.sequence.outputs)
    if (o.actor == actor && find(d, o.box)) return o.box + std::to_string(number_of(o));
  return {};
}

int free_output(const Design& d, const SequencerBox& box) {
  if (!box.outputs.known()) return 0;
  for (int n = 1; n <= static_cast<int>(box.outputs); ++n)
    if (std::none_of(d.sequence.outputs.begin(), d.sequence.outputs.end(),
                     [&](const BoxOutput& o) { return o.box == box.id && number_of(o) == n; }))
      return n;
  return 0;
}

}  // namespace kranich::sequence
