// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sequence/aids.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/sequence/plan.h"

namespace kranich::sequence {
namespace {

constexpr double no_time = std::numeric_limits<double>::quiet_NaN();

//! What is asked of an aid one way, against the bars of its leg.
struct Demand {
  Action action = Action::let_go;
  bool before = true;  //!< done before a moment of the leg; else begun after it
  double moment = 0;
  const char* nobody = "";
};

//! Start and ends of a leg's movement in one direction; nothing where it does not move.
struct LegMoves {
  double starts, quickest, slowest;
};
std::optional<LegMoves> moves_of_leg(const Timeline& line, const std::string& leg) {
  std::optional<LegMoves> m;
  for (const Bar& b : line.bars) {
    if (b.kind != ActorKind::leg || b.actor != leg) continue;
    if (!m) m = LegMoves{b.start, b.earliest_end, b.latest_end};
    m->starts = std::min(m->starts, b.start);
    m->quickest = std::min(m->quickest, b.earliest_end);
    m->slowest = std::max(m->slowest, b.latest_end);
  }
  return m;
}

bool times_known(const Aid& aid) { return aid.takes.known() && aid.slowest.known() && aid.fastest.known(); }

//! Whether it holds when the steps of one direction begin: as the other direction left it, or as these did
//! the time before; without any, steering holds, what else there is does not.
bool stands_holding(const Aid& aid, const std::vector<Step>& others, const std::vector<Step>& own) {
  for (const auto* steps : {&others, &own})
    if (const Step* last = last_step(*steps, aid.id)) return last->action == Action::hold;
  return aid.kind == AidKind::steering;
}

std::vector<Demand> asked_of(const Design& d, const Aid& aid, bool up, const LegMoves& leg) {
  const auto& own = up ? d.sequence.up : d.sequence.down;
  const bool holding = stands_holding(aid, up ? d.sequence.down : d.sequence.up, own);
  switch (aid.kind) {
    case AidKind::steering:
      if (up)
        return {{Action::let_go, true, leg.starts, "nobody takes its command away before the leg goes up"}};
      return {{Action::hold, false, leg.slowest, "nobody gives it back when the leg is down"}};
    case AidKind::up_lock: {
      if (!up) return {{Action::let_go, true, leg.starts, "nobody opens it before the leg comes down"}};
      std::vector<Demand> list;
      if (holding) list.push_back({Action::let_go, true, leg.quickest, "it is shut when the leg arrives"});
      if (step_of(own, aid.id, Action::hold)) list.push_back({Action::hold, false, leg.slowest, ""});
      return list;
    }
    case AidKind::brakes:
      if (up) return {{Action::hold, true, leg.quickest, "nobody stops the wheels before they are in"}};
      if (holding)
        return {{Action::let_go, true, leg.quickest, "nobody frees them: it lands with braked wheels"}};
      return {};
  }
  return {};
}

}  // namespace

std::vector<AidCheck> check_aids(const Design& d, const Times& times, bool up) {
  std::vector<Text> told_by_others;
  const Timeline line = timeline(d, times, up ? d.sequence.up : d.sequence.down, told_by_others);
  std::vector<AidCheck> list;
  for (const Aid& aid : d.sequence.aids) {
    const auto leg = moves_of_leg(line, aid.leg);
    if (!leg || !times_known(aid)) continue;
    // What nobody does comes before all, then the least in hand.
    std::optional<AidCheck> worst;
    for (const Demand& demand : asked_of(d, aid, up, *leg)) {
      AidCheck c{aid.id, no_time, no_time, demand.moment, {}};
      for (const Bar& b : line.bars) {
        if (b.actor != aid.id || b.action != demand.action) continue;
        const double done = demand.before ? b.latest_end : b.start;
        const double in_hand = demand.before ? demand.moment - done : done - demand.moment;
        // Of several the one that does it best.
        if (!(c.in_hand >= in_hand)) {
          c.in_hand = in_hand;
          c.done = done;
        }
      }
      if (std::isnan(c.in_hand)) c.nobody = demand.nobody;
      const bool worse = !worst || (worst->nobody.empty() && !(c.in_hand >= worst->in_hand));
      if (worse) worst = std::move(c);
    }
    if (worst) list.push_back(std::move(*worst));
  }
  return list;
}

Sequence aid_in_time(const Design& design, const Times& times, const std::string& id) {
  Design d = design;
  const auto aid = std::find_if(design.sequence.aids.begin(), design.sequence.aids.end(),
                                [&](const Aid& a) { return a.id == id; });
  if (aid == design.sequence.aids.end() || !times_known(*aid)) return design.sequence;
  const double margin = wait_with_margin(design);
  const double takes = aid->takes * aid->slowest;
  // An up-lock that closes by itself has no step of its own for that.
  const bool driven = step_of(design.sequence.up, id, Action::hold) != nullptr;
  for (const bool up : {true, false}) {
    auto& steps = up ? d.sequence.up : d.sequence.down;
    std::vector<Text> told_by_others;
    const auto leg = moves_of_leg(timeline(d, times, steps, told_by_others), aid->leg);
    if (!leg) continue;
    std::erase_if(steps, [&](const Step& s) { return s.actor == id; });
    const auto put = [&](Action action, double start) {
      Step s;
      s.actor = id;
      s.action = action;
      s.start = Given(start);
      steps.push_back(std::move(s));
    };
    // At once; what it must be done before waits for it.
    const auto first = [&](Action action, double moment) {
      if (const double late = next_told(takes + margin - moment); late > 0)
        for (Step& s : steps)
          if (s.start.known()) s.start.si += late;
      put(action, 0);
    };
    switch (aid->kind) {
      case AidKind::steering:
        if (up)
          first(Action::let_go, leg->starts);
        else
          put(Action::hold, next_told(leg->slowest + margin));
        break;
      case AidKind::up_lock:
        if (!up)
          first(Action::let_go, leg->starts);
        else if (driven)
          put(Action::hold, next_told(leg->slowest + margin));
        break;
      case AidKind::brakes:
        first(up ? Action::hold : Action::let_go, leg->quickest);
        break;
    }
    std::stable_sort(steps.begin(), steps.end(),
                     [](const Step& a, const Step& b) { return a.start < b.start; });
  }
  return d.sequence;
}

}  // namespace kranich::sequence
