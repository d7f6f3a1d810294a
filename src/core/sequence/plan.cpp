// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sequence/plan.h"

#include <algorithm>
#include <cmath>
#include <iterator>
#include <map>

#include "core/doors/door.h"
#include "core/sequence/aids.h"
#include "core/sequence/boxes.h"

namespace kranich::sequence {
namespace {

constexpr double told_to = 0.05;  //!< starts are set no closer, s

//! Where a movement leaves its actor.
double end_of(const Design& d, const Bar& bar, bool up) {
  if (is_forth(bar.action)) return 1;
  if (bar.kind != ActorKind::door || up) return 0;
  // A door that closes below the leg may be meant to stay ajar.
  for (const Door& door : d.doors)
    if (door.id == bar.actor && door.ajar.known() && door.open_angle > 0) return door.ajar / door.open_angle;
  return 0;
}

std::vector<Move> moves_of(const Design& d, const Times& times, bool up, std::vector<Text>& problems) {
  std::vector<Move> list;
  for (const Bar& b : timeline(d, times, up ? d.sequence.up : d.sequence.down, problems).bars) {
    const auto output = std::find_if(d.sequence.outputs.begin(), d.sequence.outputs.end(),
                                     [&](const BoxOutput& o) { return o.actor == b.actor; });
    list.push_back({output_of(d, b.actor), output != d.sequence.outputs.end() && output->reversed, b.actor,
                    b.action, b.start, b.nominal_end - b.start, b.earliest_end, b.latest_end,
                    end_of(d, b, up)});
  }
  std::stable_sort(list.begin(), list.end(), [](const Move& a, const Move& b) { return a.start < b.start; });
  return list;
}

void put(std::vector<Step>& steps, const std::string& actor, Action action, double start) {
  Step s;
  s.actor = actor;
  s.action = action;
  s.start = Given(start);
  steps.push_back(std::move(s));
}

}  // namespace

double next_told(double start) { return std::ceil(std::max(0.0, start) / told_to - 1e-6) * told_to; }

double wait_with_margin(const Design& design) {
  // Short of that it would be tight, and a hair more so that rounding does not decide.
  return std::max(0.1, design.sequence.margin.known() ? 1.1 * design.sequence.margin : 0.0) + 1e-6;
}

Plan plan_of(const Design& design, const Times& times, std::vector<Text>& problems) {
  return {moves_of(design, times, true, problems), moves_of(design, times, false, problems)};
}

std::string_view word_of(Action action) {
  static constexpr std::string_view words[]{"opens", "closes", "raises", "lowers", "holds", "lets go"};
  return words[static_cast<size_t>(action)];
}

Sequence laid_out(const Design& design, const Times& times, const std::vector<DoorZone>& zones,
                  std::vector<Text>& problems) {
  const double margin = wait_with_margin(design);
  Design d = design;
  const auto closes_below = [&](const Door& door) {
    return step_of(design.sequence.down, door.id, Action::close) != nullptr;
  };
  const auto own = [](const Door& door) { return !doors::moved_by_leg(door); };
  for (const bool up : {true, false}) {
    auto& steps = up ? d.sequence.up : d.sequence.down;
    steps.clear();
    for (const Leg& leg : d.gear.legs)
      if (leg.retraction.fitted) put(steps, leg.id, up ? Action::raise : Action::lower, 0);
    for (const Door& door : d.doors) {
      const Leg* leg = d.gear.find(door.leg);
      if (!own(door) || !leg || !leg->retraction.fitted) continue;
      // Going up only what was shut below the leg has to open first.
      if (!up || closes_below(door)) put(steps, door.id, Action::open, 0);
      if (up || closes_below(door)) put(steps, door.id, Action::close, 0);
    }
  }
  for (const bool up : {true, false}) {
    auto& steps = up ? d.sequence.up : d.sequence.down;
    const auto start_of = [&](const std::string& actor, Action action) -> Given* {
      for (Step& s : steps)
        if (s.actor == actor && s.action == action) return &s.start;
      return nullptr;
    };
    const Action moves = up ? Action::raise : Action::lower;
    // Doors first, then the legs that wait for them, then the doors that wait for those.
    for (const bool legs : {true, false}) {
      std::vector<Text> missing;
      for (const DoorCheck& c : check_doors(d, times, up, missing, zones)) {
        const auto door =
            std::find_if(d.doors.begin(), d.doors.end(), [&](const Door& x) { return x.id == c.door; });
        if (Given* start = start_of(door->leg, moves); legs && start) {
          const bool waits = step_of(steps, c.door, Action::open) != nullptr;
          if (waits) start->si = std::max(start->si, next_told(c.least_leg_start + margin));
        }
        if (Given* start = start_of(c.door, Action::close); !legs && start)
          start->si = next_told(c.least_close_start_at_rest + margin);
      }
      if (legs && up) problems.insert(problems.end(), missing.begin(), missing.end());
    }
    // A door that could not be judged, and the leg it guards, are as they were.
    std::vector<Text> told_already;
    const auto judged = check_doors(d, times, up, told_already, zones);
    const auto& before = up ? design.sequence.up : design.sequence.down;
    for (const Door& door : d.doors) {
      const Leg* leg = d.gear.find(door.leg);
      if (!own(door) || !leg || !leg->retraction.fitted ||
          std::any_of(judged.begin(), judged.end(), [&](const DoorCheck& c) { return c.door == door.id; }))
        continue;
      const auto theirs = [&](const Step& s) { return s.actor == door.id || s.actor == door.leg; };
      std::erase_if(steps, theirs);
      std::copy_if(before.begin(), before.end(), std::back_inserter(steps), theirs);
    }
    std::stable_sort(steps.begin(), steps.end(),
                     [](const Step& a, const Step& b) { return a.start < b.start; });
  }
  for (const Aid& aid : design.sequence.aids) {
    // A driven up-lock is known by the step that closes it.
    const Step* closes = step_of(design.sequence.up, aid.id, Action::hold);
    if (closes && aid.kind == AidKind::up_lock) d.sequence.up.push_back(*closes);
    d.sequence = aid_in_time(d, times, aid.id);
  }
  return d.sequence;
}

std::vector<std::string> numbered_actors(const Plan& plan) {
  std::vector<std::string> list;
  for (const auto* moves : {&plan.up, &plan.down})
    for (const Move& m : *moves)
      if (std::find(list.begin(), list.end(), m.actor) == list.end()) list.push_back(m.actor);
  return list;
}

std::vector<Text> against_plan(const Design& d, const Plan& plan, bool up,
                               const std::vector<Answer>& answers) {
  constexpr double near = 0.05;
  const auto actors = numbered_actors(plan);
  const auto found = moves_in(answers);
  std::vector<Text> list;
  std::map<std::string, size_t> seen;  // how many movements of each have been paired
  for (const auto& m : up ? plan.up : plan.down) {
    const auto number = static_cast<int>(std::find(actors.begin(), actors.end(), m.actor) - actors.begin());
    size_t skip = seen[m.actor]++;
    const AnsweredMove* answered = nullptr;
    for (const auto& f : found)
      if (f.actor == number && skip-- == 0) {
        answered = &f;
        break;
      }
    const Text name = say("{}, {}", d.actor_word(m.actor), ours(word_of(m.action)));
    const auto time = [](double t) { return Amount{t, Kind::time}; };
    if (!answered)
      list.push_back(say("{}: did not move", name));
    else if (!std::isfinite(answered->ends) || std::abs(answered->to - m.ends_at) > 0.01)
      list.push_back(say("{}: did not get there", name));
    else if (answered->ends > m.latest + near)
      list.push_back(
          say("{}: there after {}, planned by {} at the latest", name, time(answered->ends), time(m.latest)));
    else if (answered->ends < m.earliest - near)
      list.push_back(
          say("{}: there after {}, planned from {} on", name, time(answered->ends), time(m.earliest)));
  }
  return list;
}

}  // namespace kranich::sequence
