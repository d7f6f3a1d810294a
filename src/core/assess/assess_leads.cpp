// SPDX-License-Identifier: GPL-3.0-or-later
//! Circuit: battery, leads and what they feed.
#include <algorithm>
#include <cmath>
#include <limits>

#include "core/assess/circuit_state.h"
#include "core/model/lacking.h"
#include "core/sequence/sequence.h"
#include "core/swing/swing.h"

namespace kranich {
namespace {

constexpr double heavy = 8;  //!< A, from which a relay is asked for

}  // namespace

std::optional<SlackTaken> slack_taken(const Design& d, const Feed& f) {
  const Leg* leg = d.gear.find(f.actor);
  if (!leg || !leg->retraction.fitted || !f.clip_airframe.known() || !f.clip_leg.known()) return std::nullopt;
  const auto made = swing::moving_leg(*leg);
  const auto* moving = std::get_if<swing::MovingLeg>(&made);
  if (!moving) return std::nullopt;
  const auto& moves = moving->moves;
  const Vec3 from = f.clip_airframe.vec(), to = f.clip_leg.vec();
  const double down = (to - from).norm();
  const auto apart = [&](double turn) {
    return (moves.pose(motion::Carried::leg, turn) * to - from).norm() - down;
  };
  // Smooth over the turn: the best of a fine row, then refined about it.
  constexpr int steps = 90;
  SlackTaken most{0, 0};
  const auto look = [&](double turn) {
    if (const double here = apart(turn); here > most.taken) most = SlackTaken{here, turn};
  };
  for (int i = 0; i <= steps; ++i) look(moves.full_turn * i / steps);
  for (double width = std::abs(moves.full_turn) / steps; width > 1e-9; width /= 2) {
    const double middle = most.turn;
    for (const double turn : {middle - width, middle + width})
      if (turn * moves.full_turn >= 0 && std::abs(turn) <= std::abs(moves.full_turn)) look(turn);
  }
  return most;
}

namespace {

class LeadJudge {
 public:
  LeadJudge(const Design& d, const Assessment& a, CircuitState& state, Collector& collect)
      : d_(d), a_(a), s_(state), collect_(collect), e_(d.circuit.electrics) {}

  void all() {
    for (const auto& f : e_.feeds) feed(f);
    for (const bool up : {true, false}) budget(up);
  }

 private:
  void feed(const Feed& f) {
    collect_.about(about_one(e_.feeds, f), "", GearState::extended);
    if (!f.running.known()) {
      Lacking lacks(root_of(f));
      collect_.unknown("circuit.voltage",
                       lacks.number(f.running, "running_A", "the current it runs with").text());
    } else {
      voltage(f);
      fuse(f);
      if (f.running > heavy || f.heavy_by_relay) {
        auto& x = collect_.add("circuit.relay", f.heavy_by_relay ? 1 : 0,
                               at_least(0.5, "heavy current stays near its motor"));
        if (!f.heavy_by_relay) x.remark = "thin wires from the switches to a relay beside it";
      }
    }
    if (f.extension.known())
      collect_.add("circuit.extension", f.extension, Limit{{}, 1e6, {}, 0.0, "made up in one for flight"});
    if (f.diameter.known() && f.channel.known())
      collect_.add("circuit.channel", f.channel - f.diameter,
                   at_least(0, "as wide as the cable, or it is pinched"));
    slack(f);
    collect_.add("circuit.lost", f.lost == OnSignalLost::goes_up ? 1 : 0,
                 at_most(0.5, "without signal it must not go up"));
    if (const Leg* leg = d_.gear.find(f.actor); leg && leg->retraction.fitted) {
      const bool other = leg->retraction.unit.other_way;
      collect_.add("circuit.reversed", other == f.reversed ? 0 : 1,
                   at_most(0.5, "a unit that runs the other way wants its channel reversed, and only that"));
    }
    route(f);
  }

  //! What the swing takes: how much further apart the two clips come on the way than they are down; else as
  //! the builder saw it.
  void slack(const Feed& f) {
    const Limit limit = at_least(0, "the way across to the leg grows as it swings");
    if (const auto way = slack_taken(d_, f)) {
      if (!f.slack.known()) {
        Lacking lacks(root_of(f));
        collect_.unknown("circuit.slack", lacks.number(f.slack, "slack_m", "the slack left in it").text());
        return;
      }
      auto& x = collect_.add("circuit.slack", f.slack - way->taken, limit);
      x.working = {{"the swing takes", way->taken, Kind::length},
                   {"most at a turn of", way->turn, Kind::angle}};
    } else if (f.slack.known() && f.slack_needed.known()) {
      collect_.add("circuit.slack", f.slack - f.slack_needed, limit);
    }
  }

  std::string root_of(const Feed& f) const {
    return "/circuit/electrics/feeds/" + std::to_string(&f - e_.feeds.data()) + "/";
  }

  void voltage(const Feed& f) {
    Lacking lacks(root_of(f));
    lacks.number(f.length, "length_m", "its length")
        .number(f.section, "section_m2", "its conductor")
        .number(f.voltage_needed, "voltage_needed_V", "the voltage it needs")
        .that(!e_.voltage.known() && !e_.lowest_voltage.known(),
              entry("/circuit/electrics/voltage_V", "the battery's voltage"));
    if (!lacks.nothing()) {
      collect_.unknown("circuit.voltage", lacks.text());
      return;
    }
    const double left = voltage_at(e_, f, f.running);
    auto& x = collect_.add("circuit.voltage", left - f.voltage_needed,
                           at_least_or_tight(0, 0.03 * f.voltage_needed, "what it needs at its far end"));
    if (!e_.resistance.known()) x.assumption = "a battery without resistance of its own";
    x.working = {{"at the far end, running", left, Kind::voltage},
                 {"resistance, both ways", lead_resistance_of(f), Kind::resistance}};
    if (f.stall.known())
      x.working.push_back({"at the far end, stalled", voltage_at(e_, f, f.stall), Kind::voltage});
    // The conductor that just does, were it without connectors.
    Feed bare = f;
    bare.length = Given(0.0);
    bare.connectors = Given(0.0);
    if (const double allowed = voltage_at(e_, bare, f.running) - f.voltage_needed; allowed > 0)
      x.working.push_back(
          {"least conductor", circuit::least_conductor(f.length, f.running, allowed), Kind::section_area});
  }

  //! It carries what runs, and opens where it stalls.
  void fuse(const Feed& f) {
    if (!f.fuse.known()) {
      Lacking lacks(root_of(f));
      collect_.unknown("circuit.fuse", lacks.number(f.fuse, "fuse_A", "its fuse or breaker").text());
      return;
    }
    Limit limit = at_least_or_tight(1.1 * f.running, 1.25 * f.running,
                                    "a quarter over what runs, less than what stalls");
    if (f.stall.known()) limit.upper = f.stall;
    auto& x = collect_.add("circuit.fuse", f.fuse, std::move(limit));
    x.working = {{"runs with", f.running, Kind::current}};
    if (f.stall.known()) x.working.push_back({"stalled", f.stall, Kind::current});
  }

  //! A cable past everything that swings.
  void route(const Feed& f) {
    if (f.route.size() < 2 || !f.diameter.known()) return;
    std::vector<motion::Named<motion::Obstacle>> pieces;
    for (size_t i = 0; i + 1 < f.route.size(); ++i) {
      if (!f.route[i].at.known() || !f.route[i + 1].at.known()) continue;
      const Vec3 a = f.route[i].at.vec();
      const Vec3 b = f.route[i + 1].at.vec();
      const double length = (b - a).norm();
      if (length < 1e-6) continue;
      pieces.push_back({f.name, motion::Cylinder{(a + b) / 2, (b - a) / length, f.diameter / 2, length / 2}});
    }
    if (pieces.empty()) return;
    double least = std::numeric_limits<double>::infinity();
    Text past;
    double at = 0;
    for (const PlacedLeg& p : placed_legs(d_.gear)) {
      const Leg& leg = d_.gear.legs[p.row];
      if (!leg.retraction.fitted) continue;
      const auto made = swing::moving_leg(leg);
      const auto* moving = std::get_if<swing::MovingLeg>(&made);
      if (!moving) continue;
      const auto c = swing::least_clearance({p.port ? swing::mirrored(*moving) : *moving, pieces, 0});
      if (c.distance >= least) continue;
      least = c.distance;
      at = c.turn;
      past = leg.stands == LegStands::both_sides ? about_leg_on(d_, leg, p.port).words : d_.leg_word(leg);
    }
    if (!std::isfinite(least)) return;
    auto& x = collect_.add("circuit.route", least, at_least_or_tight(0, 0.01, "clear of all that swings"));
    x.remark = say("to the {} at a turn of {}", past, Amount{at, Kind::angle});
  }

  //! What all of them draw together over the sequence; and with the heaviest jammed till the time-out.
  void budget(bool up) {
    const auto& line = a_.line(up);
    std::vector<circuit::Consumer> list;
    double first = std::numeric_limits<double>::infinity();
    double last = 0;
    for (const auto& bar : line.bars)
      if (bar.kind == sequence::ActorKind::leg) {
        first = std::min(first, bar.start);
        last = std::max(last, bar.latest_end);
      }
    for (const auto& f : e_.feeds) {
      circuit::Consumer c{f.name, 0, 0, f.running};
      c.inrush = f.inrush.known() ? f.inrush.si : f.running.si;
      c.inrush_time = f.inrush.known() && f.inrush_time.known() ? f.inrush_time.si : 0;
      c.stall = f.stall.known() ? f.stall.si : 0;
      if (f.actor.empty()) {  // the pump, while any leg moves
        if (!(last > first)) continue;
        c.start = first;
        c.time = last - first;
        list.push_back(c);
        continue;
      }
      for (const auto& bar : line.bars)
        if (bar.actor == f.actor) {
          c.start = bar.start;
          c.time = bar.latest_end - bar.start;
          list.push_back(c);
        }
    }
    if (list.empty()) return;
    collect_.about(up ? Subject(Text("supply, going up"), "supply/up")
                      : Subject(Text("supply, going down"), "supply/down"),
                   "", GearState::extended);
    Lacking lacks("/circuit/electrics/");
    lacks.number(e_.supply_current, "supply_current_A", "what the supply gives");
    for (size_t i = 0; i < e_.feeds.size(); ++i)
      lacks.number(e_.feeds[i].running, "feeds/" + std::to_string(i) + "/running_A",
                   say("what {} runs with", e_.feeds[i].name));
    if (!lacks.nothing()) {
      collect_.unknown("circuit.current", lacks.text());
      return;
    }
    const double standing = e_.standing.known() ? e_.standing.si : 0;
    // Without a time-out it stays stalled.
    const double time_out =
        d_.logic.time_out.known() ? d_.logic.time_out.si : std::numeric_limits<double>::infinity();
    const double length = line.latest_end + 1;
    const auto whole = circuit::budget(list, standing, e_.supply_current, time_out, length);
    s_.budget[up ? 0 : 1] = whole;
    auto& f = collect_.add(
        "circuit.current", e_.supply_current - whole.peak,
        at_least_or_tight(0, 0.1 * e_.supply_current, "what battery, regulator or main fuse gives"));
    f.working = {{"peak", whole.peak, Kind::current},
                 {"at", whole.peak_at, Kind::time},
                 {"charge of one way, A·s", whole.charge, Kind::factor}};
    if (!e_.standing.known()) f.assumption = "nothing drawn all the time";

    const auto heaviest = std::max_element(list.begin(), list.end(),
                                           [](const auto& a, const auto& b) { return a.stall < b.stall; });
    if (!(heaviest->stall > 0)) {
      collect_.unknown("circuit.jammed", "what one of them draws stalled");
      return;
    }
    heaviest->jams_after = heaviest->time / 2;
    const auto stuck = circuit::budget(list, standing, e_.supply_current, time_out, length + 60);
    auto& x = collect_.add(
        "circuit.jammed", e_.supply_current - stuck.peak,
        Limit{-e_.supply_current.si, {}, 0.0, {}, "the main fuse must not go because one leg jams"});
    x.working = {{"peak with one jammed", stuck.peak, Kind::current}};
    x.remark = say("{} jammed half way", heaviest->name);
    if (!d_.logic.time_out.known()) x.assumption = "no time-out: it stays stalled";
  }

  const Design& d_;
  const Assessment& a_;
  CircuitState& s_;
  Collector& collect_;
  const Electrics& e_;
};

}  // namespace

void assess_leads(const Design& d, const Assessment& before, CircuitState& state, Collector& collect) {
  LeadJudge(d, before, state, collect).all();
}

}  // namespace kranich
