// SPDX-License-Identifier: GPL-3.0-or-later
//! Logic: every single fault of what commands the retraction, over all states that it can reach.
#include <algorithm>
#include <cmath>
#include <limits>

#include "core/assess/assess.h"
#include "core/assess/collector.h"
#include "core/assess/doors_state.h"
#include "core/assess/leg_times.h"
#include "core/assess/logic_state.h"
#include "core/sequence/sequence.h"

namespace kranich {
namespace {

using logic::Rule;
using logic::WiredLeg;

constexpr std::string_view rule_measures[logic::rule_count]{"logic.door",    "logic.motor", "logic.lamp",
                                                            "logic.horn",    "logic.fall",  "logic.ground",
                                                            "logic.settles", "logic.comes"};

constexpr double end_band = 1e-6;  //!< shares of travel: what counts as the end itself

//! Which of closed, on the way, open a column's openings meet.
void meet(const doors::Region& region, size_t column, double open, std::array<bool, 3>& cells) {
  for (const auto& [from, to] : region.columns[column]) {
    if (from <= end_band * open) cells[0] = true;
    if (to >= (1 - end_band) * open) cells[2] = true;
    if (to > end_band * open && from < (1 - end_band) * open) cells[1] = true;
  }
}

//! Where a leg and one of its doors are in each other's way.
void clashes(const doors::Region& region, double open, WiredLeg& leg) {
  const size_t last = region.columns.size() - 1;
  for (size_t i = 0; i <= last; ++i) meet(region, i, open, leg.clash[i == 0 ? 0 : i == last ? 2 : 1]);
}

bool moves(const std::vector<Step>& steps, const std::string& door, Action action) {
  return std::any_of(steps.begin(), steps.end(),
                     [&](const Step& s) { return s.actor == door && s.action == action; });
}

//! Words by which no two are called the same.
std::string apart(std::string word, const std::vector<std::string>& taken) {
  std::string name = word;
  for (int n = 2; std::find(taken.begin(), taken.end(), name) != taken.end(); ++n)
    name = word + " " + std::to_string(n);
  return name;
}

}  // namespace

std::string_view measure_of(Rule rule) { return rule_measures[static_cast<size_t>(rule)]; }

double longest_run(const Design& d, const sequence::Times& times) {
  double doors = 0;
  const auto most = [](double have, const Given& time, const Given& slowest) {
    const double t = time * (slowest.known() ? slowest.si : 1);
    return std::isnan(have) || std::isnan(t) ? std::numeric_limits<double>::quiet_NaN() : std::max(have, t);
  };
  // A pump moves the doors as well.
  for (const auto& door : d.doors)
    if (!doors::moved_by_leg(door) && d.logic.power == LegPower::pump)
      doors = most(most(doors, door.time_open, door.slowest), door.time_close, door.slowest);
  return sequence::slowest_leg(times) + doors;
}

LogicState logic_of(const Design& d, const Assessment& a) {
  LogicState s;
  s.fitted.parts = d.logic;
  s.fitted.parts.unknown_keys.clear();
  // What only changes words or numbers beside it proves the same.
  if (d.logic.time_out.known()) s.fitted.parts.time_out = Given(1.0);
  s.fitted.parts.plastic_mounts = false;
  s.fitted.parts.throttle_back = Given();
  std::vector<std::string> taken = logic::taken_words();
  const auto word = [&](const Text& text) {
    taken.push_back(apart(in_words(text), taken));
    return taken.back();
  };
  for (const PlacedLeg& placed : placed_legs(d.gear)) {
    const Leg& leg = d.gear.legs[placed.row];
    const Retraction& r = leg.retraction;
    if (!r.fitted) continue;
    WiredLeg w;
    const bool pair = leg.stands == LegStands::both_sides;
    w.key = leg.id + (pair ? placed.port ? "/port" : "/starboard" : "");
    w.word = word(pair ? about_leg_on(d, leg, placed.port).words : d.leg_word(leg));
    w.hook = r.uplock.hook.known();
    if (d.logic.release != ReleaseKind::none) {
      const auto fall = std::find_if(a.findings.begin(), a.findings.end(), [&](const Finding& f) {
        return f.measure_id == "drive.free_fall" && f.subject.leg == leg.id;
      });
      w.falls =
          fall != a.findings.end() && fall->verdict != Verdict::fails && fall->verdict != Verdict::unknown;
      if ((fall == a.findings.end() || fall->verdict == Verdict::unknown) && !(pair && !placed.port))
        s.taken.also(say("whether the {} falls free is not known: it is taken not to", d.leg_word(leg)));
    }
    std::vector<Text> names;
    for (const auto& door : d.doors) {
      if (door.leg != leg.id || doors::moved_by_leg(door)) continue;
      w.door = true;
      names.push_back(d.actor_word(door.id));
      const bool told =
          moves(d.sequence.up, door.id, Action::close) || moves(d.sequence.up, door.id, Action::open) ||
          moves(d.sequence.down, door.id, Action::open) || moves(d.sequence.down, door.id, Action::close);
      w.closes_down = w.closes_down || moves(d.sequence.down, door.id, Action::close);
      w.closes_up = told ? moves(d.sequence.up, door.id, Action::close) : true;
      if (!told)
        s.taken.also(say("{} has no steps: taken to close on the gear up and to stay open below it",
                         d.actor_word(door.id)));
      const auto state =
          std::find_if(a.doors.begin(), a.doors.end(), [&](const DoorState& x) { return x.door == door.id; });
      if (state != a.doors.end() && state->region) {
        clashes(*state->region, state->panel ? state->panel->open : door.open_angle.si, w);
      } else {
        w.clash[1][0] = w.clash[1][1] = true;
        s.taken.also(
            say("{} is not all known: taken to be in the leg's way until it is open", d.actor_word(door.id)));
      }
    }
    if (w.door)
      w.door_word =
          word(pair ? placed.port ? say("port {}", enumerated(names)) : say("starboard {}", enumerated(names))
                    : enumerated(names));
    s.fitted.legs.push_back(std::move(w));
  }
  return s;
}

namespace {

//! The way to a state, told: "with …: select up, then … ."
Text told(const logic::Exploration& run, const logic::Outcome& outcome) {
  std::vector<Text> steps;
  for (const auto& e : outcome.run) steps.push_back(e);
  const Text way = steps.empty() ? Text("as it stands") : enumerated(std::move(steps));
  const Text ends = outcome.by_cycle ? Text("and so on for ever") : Text();
  Text text = run.fault.empty() ? say("with nothing broken: {}", way) : say("when {}: {}", run.fault, way);
  return outcome.by_cycle ? say("{}, {}", text, ends) : text;
}

void judge(const Design& d, Assessment& a, Collector& collect, Rule rule) {
  const auto& proof = *a.logic->proof;
  const bool asked =
      std::find(proof.wiring->rules.begin(), proof.wiring->rules.end(), rule) != proof.wiring->rules.end();
  if (!asked) return;
  const int n = proof.violated(rule);
  if (n == 0 && !proof.complete) {
    collect.unknown(measure_of(rule), say("the rest of its states: more than {} could not all be tried",
                                          counted(proof.states)));
    return;
  }
  auto& f = collect.add(measure_of(rule), n, at_most(0, "no single fault may do it"));
  f.assumption = a.logic->taken;
  const logic::Outcome* outcome = nullptr;
  if (const auto* run = proof.first(rule, &outcome)) {
    f.remark = told(*run, *outcome);
    // Where nothing but pressure holds it up, wiring is no help.
    const bool sinks = std::any_of(outcome->run.begin(), outcome->run.end(),
                                   [](const std::string& e) { return e.ends_with("sinks out of its well"); });
    if (sinks || run->fault == "a slow leak")
      for (const auto& leg : d.gear.legs)
        if (const Point& hook = leg.retraction.uplock.hook; leg.retraction.fitted && !hook.known()) {
          const char* lacks = !hook.x.known() ? "x_m" : !hook.y.known() ? "y_m" : "z_m";
          f.remark.also(
              say("what holds the {} up without pressure: {}", d.leg_word(leg),
                  entry("/gear/legs/" + leg.id + "/retraction/uplock/hook/" + lacks, "an up-lock")));
        }
  }
  f.working = {{"faults tried", static_cast<double>(proof.runs.size() - 1), Kind::factor},
               {"states reached", static_cast<double>(proof.states), Kind::factor}};
}

}  // namespace

void assess_logic(const Design& d, Assessment& a, Collector& collect, const Asked& asked) {
  const bool retracts =
      std::any_of(d.gear.legs.begin(), d.gear.legs.end(), [](const Leg& l) { return l.retraction.fitted; });
  if (!retracts) return;
  collect.about("gear", "", GearState::extended);
  if (d.logic.power == LegPower::none) {
    // A model's servos and units are commanded by its transmitter; and no wiring is asked for before a drive.
    const bool driven = std::any_of(d.gear.legs.begin(), d.gear.legs.end(), [](const Leg& l) {
      return l.retraction.fitted && l.retraction.drive.kind != DriveKind::none;
    });
    if (!d.is_model() && driven)
      collect.unknown("logic.states", entry("/logic/power", "what moves the legs"));
    return;
  }
  const auto made = std::make_shared<LogicState>(logic_of(d, a));
  LogicState& state = *made;
  a.logic = made;
  if (d.logic.switches == SwitchSort::reed)
    collect.add("logic.switches", d.logic.plastic_mounts ? 1 : 0,
                at_most(0, "magnets come off printed and glued mounts"));
  if (d.logic.horn != HornBy::none) {
    if (d.logic.throttle_back.known()) {
      collect.add("logic.threshold", d.logic.throttle_back,
                  bands(0.05, 0.1, 0.35, 0.5, "so that it sounds on an approach and not in the cruise"));
    } else {
      collect.unknown("logic.threshold", entry("/logic/throttle_back", "where the throttle counts as back"));
    }
  }
  if (d.logic.time_out.known()) {
    const double run = longest_run(d, leg_times(d, a));
    if (std::isfinite(run)) {
      auto& f = collect.add("logic.time_out", d.logic.time_out - run,
                            at_least_or_tight(0, 0.2 * run, "it must not cut off a slow leg"));
      f.working = {{"time-out", d.logic.time_out, Kind::time}, {"slowest run", run, Kind::time}};
    } else {
      collect.unknown("logic.time_out", "the travel times of legs and doors, on Sequence");
    }
  }
  state.proof = logic::proved(state.fitted);
  if (!state.proof && asked.take_time) {
    // A trial of one cure wants to know of one rule only.
    const auto* only = std::find(std::begin(rule_measures), std::end(rule_measures), asked.measure);
    state.proof = only != std::end(rule_measures)
                      ? logic::prove_rule(state.fitted, static_cast<Rule>(only - rule_measures))
                      : logic::prove(state.fitted);
  }
  if (!state.proof) {
    for (int i = 0; i < logic::rule_count; ++i)
      collect.unknown(measure_of(static_cast<Rule>(i)), "the proof that is being worked out");
    return;
  }
  for (int i = 0; i < logic::rule_count; ++i) judge(d, a, collect, static_cast<Rule>(i));
  auto& f = collect.add("logic.states", static_cast<double>(state.proof->states));
  f.working = {{"faults tried", static_cast<double>(state.proof->runs.size() - 1), Kind::factor},
               {"most events to a state", static_cast<double>(state.proof->depth), Kind::factor}};
  f.remark =
      "contacts, relays, motors, locks, doors and legs in any order; no times, no voltages, no mechanics "
      "beyond";
}

}  // namespace kranich
