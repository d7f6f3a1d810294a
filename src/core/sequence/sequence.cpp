// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sequence/sequence.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/doors/door.h"

namespace kranich::sequence {

namespace {
constexpr double not_known = std::numeric_limits<double>::quiet_NaN();

//! NaN where either is.
double greater(double a, double b) { return std::isnan(a) || std::isnan(b) ? not_known : std::max(a, b); }

//! Of one way, as it is entered.
Travel entered_of(const Retraction& r, bool up) {
  return {up ? r.time_up.si : r.time_down.si, r.fastest.si, r.slowest.si};
}
}  // namespace

bool Travel::known() const {
  return std::isfinite(nominal) && std::isfinite(fastest) && std::isfinite(slowest);
}

const LegTimes* times_of(const Times& times, const std::string& leg) {
  const auto at = std::find_if(times.begin(), times.end(), [&](const LegTimes& t) { return t.leg == leg; });
  return at == times.end() ? nullptr : &*at;
}

LegWay way_counted(const Leg& leg, bool up, const Travel& computed) {
  const Retraction& r = leg.retraction;
  LegWay way{entered_of(r, up), entered_of(r, up), computed};
  if (r.times_from == TimesFrom::entered || !std::isfinite(computed.nominal)) return way;
  const Given& time = up ? r.time_up : r.time_down;
  const bool no_more_than_thought =
      time.origin == Origin::guessed || time.origin == Origin::by_default || time.origin == Origin::undecided;
  const bool counts = time.known() && !no_more_than_thought;
  // fmax, fmin: what is not known of one is left to the other.
  const double slow = std::fmax(way.entered.slowest, computed.slowest);
  const double fast = std::fmin(way.entered.fastest, computed.fastest);
  const auto most_of = [&](const Travel& t) {
    return t.nominal * (std::isfinite(t.slowest) ? t.slowest : slow);
  };
  const auto least_of = [&](const Travel& t) {
    return t.nominal * (std::isfinite(t.fastest) ? t.fastest : fast);
  };
  double most = most_of(computed);
  double least = least_of(computed);
  if (counts) {
    most = greater(most, most_of(way.entered));
    least = -greater(-least, -least_of(way.entered));
  }
  const double nominal = counts && time.origin == Origin::measured ? time.si : computed.nominal;
  way.counted = {nominal, least / nominal, most / nominal};
  return way;
}

double slowest_leg(const Times& times) {
  double most = 0;
  for (const LegTimes& t : times)
    for (const LegWay* way : {&t.up, &t.down}) {
      const Travel& c = way->counted;
      most = greater(most, c.nominal * (std::isfinite(c.slowest) ? c.slowest : 1));
    }
  return most;
}

double least_leg_wait(const Guarded& g) {
  double wait = std::max(0.0, g.open.most() * g.frees_leg_at - g.leg.least() * g.zone_enter);
  for (const auto& [leg, door] : g.drawn) wait = std::max(wait, g.open.most() * door - g.leg.least() * leg);
  return wait;
}

double least_close_start(const Guarded& g, double leg_start) {
  double start = g.leg.most() * g.zone_leave - g.close.least() * (1 - g.frees_leg_at);
  for (const auto& [leg, door] : g.drawn)
    start = std::max(start, g.leg.most() * leg - g.close.least() * (1 - door));
  return leg_start + start;
}

double least_close_start_at_rest(const Guarded& g, double leg_start) { return leg_start + g.leg.most(); }

bool conflicts(const Guarded& g, double leg_start, double close_start) {
  return leg_start < least_leg_wait(g) || close_start < least_close_start(g, leg_start);
}

double slowest_leg_at(const Guarded& g, double leg_start, double close_start) {
  return std::clamp((close_start - leg_start) / g.leg.most(), 0.0, 1.0);
}

double lowest_safe_voltage(const Guarded& g, double leg_start, double close_start, double nominal_voltage) {
  const double time_left = close_start - leg_start + g.close.least() * (1 - g.frees_leg_at);
  return nominal_voltage * g.leg.nominal * g.zone_leave / time_left;
}

namespace {

struct Actor {
  ActorKind kind;
  std::string leg;
  Travel forth, back;  //!< opening or raising; closing or lowering
  //! The same by what is entered, where something else counts; else NaN.
  double entered_forth = not_known, entered_back = not_known;
};

std::optional<Actor> find_actor(const Design& d, const Times& times, const std::string& id, Text& problem) {
  for (const auto& door : d.doors) {
    if (door.id != id) continue;
    if (doors::moved_by_leg(door)) {
      problem = say("“{}” is moved by its leg: it needs no step of its own", d.actor_word(id));
      return std::nullopt;
    }
    if (!door.time_open.known() || !door.time_close.known() || !door.slowest.known() ||
        !door.fastest.known()) {
      problem = say("times of the door “{}” or their spread", d.actor_word(id));
      return std::nullopt;
    }
    return Actor{ActorKind::door,
                 door.leg,
                 {door.time_open, door.fastest, door.slowest},
                 {door.time_close, door.fastest, door.slowest}};
  }
  if (const Leg* leg = d.gear.find(id)) {
    const Retraction& r = leg->retraction;
    if (!r.fitted) {
      problem = say("“{}” does not retract", d.actor_word(id));
      return std::nullopt;
    }
    const LegTimes* t = times_of(times, id);
    if (!t || !t->up.counted.known() || !t->down.counted.known()) {
      problem = say("times of the {} or their spread", d.actor_word(id));
      return std::nullopt;
    }
    const auto beside = [](const LegWay& w) {
      return w.counted.nominal == w.entered.nominal ? not_known : w.entered.nominal;
    };
    return Actor{ActorKind::leg, id, t->up.counted, t->down.counted, beside(t->up), beside(t->down)};
  }
  for (const Aid& aid : d.sequence.aids) {
    if (aid.id != id) continue;
    if (!aid.takes.known() || !aid.slowest.known() || !aid.fastest.known()) {
      problem = say("times of “{}” or their spread", d.actor_word(id));
      return std::nullopt;
    }
    const Travel takes{aid.takes, aid.fastest, aid.slowest};
    return Actor{ActorKind::aid, aid.leg, takes, takes};
  }
  problem = say("“{}” is no actor of this aircraft", id);
  return std::nullopt;
}

//! Who does that.
ActorKind does(Action action) {
  switch (action) {
    case Action::open:
    case Action::close:
      return ActorKind::door;
    case Action::raise:
    case Action::lower:
      return ActorKind::leg;
    case Action::hold:
    case Action::let_go:
      break;
  }
  return ActorKind::aid;
}

}  // namespace

const Step* step_of(const std::vector<Step>& steps, const std::string& actor, Action action) {
  const auto at = std::find_if(steps.begin(), steps.end(),
                               [&](const Step& s) { return s.actor == actor && s.action == action; });
  return at == steps.end() ? nullptr : &*at;
}

const Step* last_step(const std::vector<Step>& steps, const std::string& actor) {
  const Step* last = nullptr;
  for (const Step& s : steps)
    if (s.actor == actor && (!last || s.start >= last->start)) last = &s;
  return last;
}

bool is_forth(Action action) {
  return action == Action::open || action == Action::raise || action == Action::let_go;
}

Timeline timeline(const Design& d, const Times& times, const std::vector<Step>& steps,
                  std::vector<Text>& problems) {
  Timeline t{{}, 0, 0};
  for (const auto& s : steps) {
    Text problem;
    const auto actor = find_actor(d, times, s.actor, problem);
    if (!actor || !s.start.known()) {
      problems.push_back(actor ? say("start of the step “{}”", d.actor_word(s.actor)) : problem);
      continue;
    }
    if (does(s.action) != actor->kind) {
      problems.push_back(say(
          "“{}” cannot do that: doors open and close, legs raise and lower, steering, up-locks and brakes "
          "hold and let go",
          d.actor_word(s.actor)));
      continue;
    }
    const bool forth = is_forth(s.action);
    const Travel& travel = forth ? actor->forth : actor->back;
    t.bars.push_back({s.actor, actor->kind, actor->leg, s.action, s.start, s.start + travel.nominal,
                      s.start + travel.least(), s.start + travel.most(),
                      s.start + (forth ? actor->entered_forth : actor->entered_back)});
    t.nominal_end = std::max(t.nominal_end, s.start + travel.nominal);
    t.latest_end = std::max(t.latest_end, s.start + travel.most());
  }
  return t;
}

namespace {

//! Whether a door stands open when the steps of one direction begin: as the other direction's steps left it,
//! or, where they do not move it, as these did the time before. One that nothing moves is shut.
bool stands_open(const std::string& door, const std::vector<Step>& others, const std::vector<Step>& own) {
  for (const auto* steps : {&others, &own})
    if (const Step* last = last_step(*steps, door)) return last->action == Action::open;
  return false;
}

}  // namespace

std::vector<DoorCheck> check_doors(const Design& d, const Times& times, bool up, std::vector<Text>& problems,
                                   const std::vector<DoorZone>& zones) {
  std::vector<DoorCheck> checks;
  const auto& steps = up ? d.sequence.up : d.sequence.down;
  const auto& others = up ? d.sequence.down : d.sequence.up;
  for (const auto& door : d.doors) {
    if (doors::moved_by_leg(door)) continue;
    Text problem;
    const auto actor = find_actor(d, times, door.id, problem);
    const auto leg = find_actor(d, times, door.leg, problem);
    if (!actor || !leg) {
      problems.push_back(problem);
      continue;
    }
    const auto drawn =
        std::find_if(zones.begin(), zones.end(), [&](const DoorZone& z) { return z.door == door.id; });
    const bool entered = door.frees_leg_at.known() && door.zone_enter.known() && door.zone_leave.known();
    if (!entered && drawn == zones.end()) {
      problems.push_back(
          say("where the leg needs the door “{}” open: its panel, or three shares", d.actor_word(door.id)));
      continue;
    }
    double open_start = not_known;
    double close_start = not_known;
    double leg_start = not_known;
    for (const auto& s : steps) {
      if (s.actor == door.id && s.action == Action::open) open_start = s.start;
      if (s.actor == door.id && s.action == Action::close) close_start = s.start;
      if (s.actor == door.leg && s.action == (up ? Action::raise : Action::lower)) leg_start = s.start;
    }
    if (std::isnan(leg_start)) continue;  // this leg does not move in this direction
    Guarded g{actor->forth, up ? leg->forth : leg->back, actor->back, 0, 0, 0};
    if (entered) {
      // Going down the leg meets the zone from its other end.
      g.frees_leg_at = door.frees_leg_at;
      g.zone_enter = up ? door.zone_enter.si : 1 - door.zone_leave;
      g.zone_leave = up ? door.zone_leave.si : 1 - door.zone_enter;
    }
    if (drawn != zones.end())
      for (const auto& [at, opening] : drawn->points) g.drawn.emplace_back(up ? at : 1 - at, opening);
    // A door left open since the other direction need not open first.
    const bool was_open = stands_open(door.id, others, steps);
    DoorCheck c;
    c.door = door.id;
    c.leg_start = leg_start;
    c.close_start = close_start;
    c.shut = !was_open && std::isnan(open_start);
    c.stood_open = was_open;
    c.least_leg_start = was_open ? 0
                        : c.shut ? std::numeric_limits<double>::infinity()
                                 : open_start + least_leg_wait(g);
    c.least_close_start = least_close_start(g, leg_start);
    c.least_close_start_at_rest = least_close_start_at_rest(g, leg_start);
    c.wait_in_hand = leg_start - c.least_leg_start;
    c.close_in_hand = close_start - c.least_close_start_at_rest;
    c.slowest_leg_share = std::isnan(close_start) ? 1 : slowest_leg_at(g, leg_start, close_start);
    c.touches = leg_start < c.least_leg_start || close_start < c.least_close_start;
    checks.push_back(c);
  }
  return checks;
}

double position_at(const Timeline& t, const std::string& actor, double time, double before) {
  double position = before;
  std::vector<const Bar*> bars;
  for (const auto& b : t.bars)
    if (b.actor == actor) bars.push_back(&b);
  std::sort(bars.begin(), bars.end(), [](const Bar* a, const Bar* b) { return a->start < b->start; });
  for (const Bar* b : bars) {
    if (time < b->start) break;
    const double target = is_forth(b->action) ? 1 : 0;
    const double whole = b->nominal_end - b->start;
    const double moved = (time - b->start) / whole;
    position = target > position ? std::min(target, position + moved) : std::max(target, position - moved);
  }
  return position;
}

}  // namespace kranich::sequence
