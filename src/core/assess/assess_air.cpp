// SPDX-License-Identifier: GPL-3.0-or-later
//! Circuit: cylinders on a bottle of air; how many cycles a filling gives, how long a way takes at its end
//! and at its beginning, how long it lasts unused.
#include <algorithm>
#include <cmath>
#include <limits>

#include "core/assess/air_state.h"
#include "core/assess/circuit_state.h"
#include "core/assess/collector.h"
#include "core/base/numerics.h"
#include "core/model/lacking.h"

namespace kranich {
namespace {

class AirJudge {
 public:
  AirJudge(const Design& d, Assessment& a, CircuitState& s, Collector& collect)
      : d_(d), a_(a), s_(s), collect_(collect), air_(d.circuit.air) {}

  void all() {
    auto made = air_plan(d_, &a_.steps);
    if (auto* missing = std::get_if<Text>(&made)) {
      about_bottle();
      collect_.unknown("circuit.cycles", std::move(*missing));
      return;
    }
    s_.air.emplace();
    s_.air->plan = std::get<AirPlan>(std::move(made));
    cycles();
    lasts();
    rated();
    for (const AirLegWay& w : plan().ways) way(w);
  }

 private:
  const AirPlan& plan() const { return s_.air->plan; }
  void about_bottle() { collect_.about(Subject(Text("air bottle"), "bottle"), "", GearState::extended); }
  Text taken() const {
    Text text;
    text.also(say("the cylinders' ends hold {} of their stroke", Amount{air_in_ends, Kind::share}));
    if (air_.tubes.empty()) text.also("no air in tubes, for none are entered");
    if (!plan().wanted_given) text.also("two cycles from a filling, for no number is wanted");
    if (!air_.wait.known()) text.also("flown as soon as it is filled");
    return text;
  }

  void cycles() {
    about_bottle();
    const AirPlan& p = plan();
    // More than any filling is asked for is as good as less of it: the search stays within the ratings.
    const double most = std::max(2 * p.filled, air_.rated.known() ? air_.rated.si : 0);
    s_.air->least_filling = p.goes(most, p.wanted)
                                ? begins_to_hold([&](double fill) { return p.goes(fill, p.wanted); }, 0, most)
                                : std::nan("");
    const Text left_out = p.without_air();
    if (!left_out.empty() && p.cycles >= p.wanted) {
      auto& f = collect_.unknown("circuit.cycles", left_out);
      f.value = p.cycles;
      f.remark.also("the figure is without the air");
      return;
    }
    auto& f = collect_.add(
        "circuit.cycles", p.cycles,
        p.wanted_given ? at_least(p.wanted, "the cycles you want from a filling")
                       : at_least_or_tight(
                             1, 2, "practice: it comes down again, and once more after a landing given up"));
    const AirStroke& first = p.strokes.front();
    f.working = {{"filled to", p.filled, Kind::pressure},
                 {"after the wait", p.starts, Kind::pressure},
                 {"after the first way up", first.after, Kind::pressure},
                 {"least filling for the cycles wanted", s_.air->least_filling, Kind::pressure}};
    f.assumption = taken();
    const AirStroke& last = p.strokes.back();
    if (last.spare < 0)
      f.remark = last.up ? say("then the {} no longer goes up: {} in the bottle", leg_words(last.leg),
                               Amount{last.before, Kind::pressure})
                         : say("then the {} no longer goes down: {} in the bottle", leg_words(last.leg),
                               Amount{last.before, Kind::pressure});
    else
      f.remark = "and more: counting ends here";
  }
  Text leg_words(const std::string& id) const { return d_.leg_word(d_.gear.leg(id)); }

  //! From filling to where the wanted cycles no longer go.
  void lasts() {
    const AirPlan& p = plan();
    s_.air->lasts = std::nan("");
    if (!air_.test_fall.known() || !air_.test_time.known()) {
      if (air_.wait > 0)
        collect_.unknown("circuit.air_lasts",
                         Lacking("/circuit/air/")
                             .number(air_.test_fall, "test_fall_Pa", "pressure lost on the bench")
                             .number(air_.test_time, "test_time_s", "in what time")
                             .text());
      return;
    }
    const double least = s_.air->least_filling;
    double& lasts = s_.air->lasts;
    if (!(least < p.filled))
      lasts = 0;
    else if (p.leaks > 0)
      lasts = std::log(p.filled / least) / p.leaks;
    else
      lasts = std::numeric_limits<double>::infinity();
    // Nothing lost is told as the longest that a wait may be.
    const double told = std::min(lasts, 1e7);
    auto& f = collect_.add("circuit.air_lasts", told,
                           air_.wait.known() ? at_least_or_tight(air_.wait, 1.5 * air_.wait,
                                                                 "the wait between filling and flying")
                                             : Limit{});
    f.working = {{"lost on the bench", air_.test_fall, Kind::pressure},
                 {"in a time of", air_.test_time, Kind::time},
                 {"least that still gives the cycles", least, Kind::pressure}};
    if (std::isinf(lasts)) f.remark = "nothing was lost on the bench";
  }

  void rated() {
    if (!air_.rated.known()) {
      collect_.unknown("circuit.rated", entry("/circuit/air/rated_Pa", "what the weakest part is rated for"));
      return;
    }
    auto& f = collect_.add("circuit.rated", air_.rated - plan().filled,
                           at_least_or_tight(0, 0.1 * air_.rated, "what the weakest part is rated for"));
    f.working = {{"filled to", plan().filled, Kind::pressure}, {"rated", air_.rated, Kind::pressure}};
  }

  void way(const AirLegWay& w) {
    const Leg& leg = d_.gear.leg(w.leg);
    collect_.about(about_leg_way(d_, leg, w.up), "", GearState::extended);
    if (!w.without_air.empty()) {
      collect_.unknown("circuit.time", w.without_air);
      return;
    }
    AirState::Followed t;
    t.leg = w.leg;
    t.up = w.up;
    t.slow_in_air = w.hardest_in_air();
    t.fast_in_air = !t.slow_in_air;
    for (const bool full : {false, true}) {
      auto made = air_way_run(d_, plan(), w, full, full ? t.fast_in_air : t.slow_in_air, a_.steps);
      if (auto* missing = std::get_if<Text>(&made)) {
        collect_.unknown("circuit.time", std::move(*missing));
        return;
      }
      (full ? t.fast : t.slow) = std::get<circuit::AirRun>(std::move(made));
    }
    const Given& wanted = w.up ? air_.wanted_up : air_.wanted_down;
    const Text where = t.slow_in_air ? Text("in the air") : Text("on jacks");
    if (t.slow.stops_at < 1) {
      collect_.fails("circuit.time", at_most(wanted.known() ? wanted.si : 15, "it must arrive"),
                     say("{}: it stops at {} of its travel in the last cycle wanted", where,
                         Amount{t.slow.stops_at, Kind::share}));
    } else {
      auto& f = collect_.add("circuit.time", t.slow.time, wanted_time_limit(wanted));
      f.remark = say("{}, in the last cycle wanted", where);
      f.working = {{"before it moves", t.slow.starts, Kind::time},
                   {"arrives with", t.slow.arrival_speed, Kind::turn_rate},
                   {"from a full bottle", t.fast.time, Kind::time},
                   {"and then arrives with", t.fast.arrival_speed, Kind::turn_rate}};
      f.assumption = taken();
      if (t.slow.least_pressure < plan().bottle.ambient)
        f.remark.also(
            "the leg falls faster than the air comes in: a restrictor where air leaves holds it back");
    }
    counted_by_sequence(d_, a_, leg, w.up, t.slow.time, "computed, in the last cycle wanted", taken(),
                        collect_);
    s_.air->followed.push_back(std::move(t));
  }

  const Design& d_;
  Assessment& a_;
  CircuitState& s_;
  Collector& collect_;
  const AirSupply& air_;
};

}  // namespace

void assess_air(const Design& d, Assessment& a, CircuitState& s, Collector& collect) {
  AirJudge(d, a, s, collect).all();
}

}  // namespace kranich
