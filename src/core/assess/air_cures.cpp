// SPDX-License-Identifier: GPL-3.0-or-later
//! What a builder changes about bottle, regulator, valve and restrictors where air moves the legs.
#include <algorithm>
#include <cmath>

#include "core/assess/air_state.h"
#include "core/assess/circuit_cures.h"
#include "core/base/numerics.h"

namespace kranich {
namespace {

constexpr double drilled_to = 1e-5;    //!< a hole, m
constexpr double pressure_step = 1e4;  //!< as a gauge is read, Pa
double round_up(double v, double step) { return std::ceil(v / step - 1e-9) * step; }
double round_down(double v, double step) { return std::floor(v / step + 1e-9) * step; }

class AirCures {
 public:
  AirCures(const Design& d, const Finding& f) : d_(d), f_(f) {}

  std::vector<KnobRef> all() {
    const std::string& id = f_.measure_id;
    if (!moved_by_air(d_)) return {};
    if (id == "circuit.cycles" || id == "circuit.air_lasts" || id == "drive.force") regulator();
    if (id == "circuit.time") restrictor(f_.subject.key.ends_with("/up"));
    if (id == "circuit.rated" && f_.subject.key == "bottle") {
      const double fill = round_down(0.9 * d_.circuit.air.rated, pressure_step);
      if (fill > 0)
        offer("less", say("bottle filled to {}", Amount{fill, Kind::pressure}),
              [fill](AirSupply& a) { a.filled = Given(fill); });
    }
    return std::move(list_);
  }

 private:
  void offer(const std::string& id, Text words, std::function<void(AirSupply&)> put) {
    list_.push_back(one_choice("circuit.air_" + id, std::move(words),
                               [put = std::move(put)](Design& x) { put(x.circuit.air); }));
  }
  //! What the finding asks of the air, as a number that must not be below nothing.
  double air_to_spare(const Design& x) const {
    const auto made = air_plan(x);
    const auto* plan = std::get_if<AirPlan>(&made);
    if (!plan) return -1;
    if (f_.measure_id == "drive.force")
      return air_in_hand(*plan, f_.subject.leg).spare - f_.limit.lower.value_or(0) - 0.01;
    if (f_.measure_id == "circuit.cycles") return plan->goes(plan->starts, plan->wanted) ? 0 : -1;
    const AirSupply& a = x.circuit.air;
    const double left = a.wait.known() ? plan->filled * std::exp(-1.5 * plan->leaks * a.wait) : plan->filled;
    return plan->goes(left, plan->wanted) ? 0 : -1;
  }
  //! A regulator that lets only as much through as is needed.
  void regulator() {
    const AirSupply& a = d_.circuit.air;
    if (!a.bottle.known() || !a.filled.known()) return;
    // A third over what the hardest leg needs: less than that is taken out of the bottle.
    const auto made = air_plan(d_);
    const auto* plan = std::get_if<AirPlan>(&made);
    if (!plan) return;
    double needs = 0;
    for (const AirLegWay& w : plan->ways)
      for (const bool in_air : {true, false})
        for (size_t i = 0; i <= air_shares; ++i) needs = std::max(needs, w.needs(i, in_air));
    const double regulated = round_up(1.35 * needs, pressure_step);
    if (!std::isfinite(regulated) || !(regulated < (a.regulated.known() ? a.regulated : a.filled))) return;
    Design x = d_;
    x.circuit.air.regulated = Given(regulated);
    if (air_to_spare(x) >= 0)
      offer("regulator",
            a.regulated.known() ? say("regulator set to {}", Amount{regulated, Kind::pressure})
                                : say("a regulator, set to {}", Amount{regulated, Kind::pressure}),
            [regulated](AirSupply& its) { its.regulated = Given(regulated); });
  }
  //! The hole by which air leaves that gives the time wanted, or the valve that does not hold it up.
  void restrictor(bool up) {
    const AirSupply& a = d_.circuit.air;
    const Given& wanted = up ? a.wanted_up : a.wanted_down;
    if (!wanted.known() || !a.valve_bore.known()) return;
    const auto made = air_plan(d_);
    const auto* plan = std::get_if<AirPlan>(&made);
    if (!plan) return;
    const auto time = [&](double restrictor, double valve) {
      Design x = d_;
      (up ? x.circuit.air.up_bore : x.circuit.air.down_bore) = Given(restrictor);
      x.circuit.air.valve_bore = Given(valve);
      double slowest = 0;
      Steps steps;
      for (const AirLegWay& w : plan->ways)
        if (w.leg == f_.subject.leg && w.up == up) {
          const auto run = air_way_run(x, *plan, w, false, w.hardest_in_air(), steps);
          if (const auto* r = std::get_if<circuit::AirRun>(&run)) slowest = std::max(slowest, r->time);
        }
      return slowest;
    };
    const double finest = 0.1 * a.valve_bore;
    if (time(a.valve_bore, a.valve_bore) <= wanted && time(finest, a.valve_bore) > wanted) {
      const double bore = round_up(
          begins_to_hold([&](double b) { return time(b, a.valve_bore) <= wanted; }, finest, a.valve_bore),
          drilled_to);
      offer(up ? "out_up" : "out_down",
            up ? say("a restrictor of {} where air leaves, going up", Amount{bore, Kind::bore})
               : say("a restrictor of {} where air leaves, going down", Amount{bore, Kind::bore}),
            [up, bore](AirSupply& its) { (up ? its.up_bore : its.down_bore) = Given(bore); });
    }
    const double wide = 3 * a.valve_bore;
    if (time(a.valve_bore, a.valve_bore) > wanted && time(wide, wide) <= wanted && wide < 0.05) {
      const double bore = round_up(
          begins_to_hold([&](double b) { return time(b, b) <= wanted; }, a.valve_bore, wide), drilled_to);
      offer("valve", say("a valve of {} bore, no restrictor", Amount{bore, Kind::bore}),
            [up, bore](AirSupply& its) {
              its.valve_bore = Given(bore);
              (up ? its.up_bore : its.down_bore) = Given();
            });
    }
  }

  const Design& d_;
  const Finding& f_;
  std::vector<KnobRef> list_;
};

}  // namespace

std::vector<KnobRef> air_swaps(const Design& d, const Finding& finding) { return AirCures(d, finding).all(); }

}  // namespace kranich
