// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/circuit_cures.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/assess/circuit_state.h"
#include "core/assess/drive_state.h"
#include "core/assess/subjects.h"

namespace kranich {
namespace {

constexpr double drilled_to = 1e-5;  //!< a restrictor, m
//! Conductors and fuses as they are sold.
constexpr double sections[]{0.25e-6, 0.5e-6, 0.75e-6, 1e-6,  1.5e-6, 2.5e-6,
                            4e-6,    6e-6,   10e-6,   16e-6, 25e-6,  35e-6};
constexpr double fuses[]{1, 2, 3, 5, 7.5, 10, 15, 20, 25, 30, 40, 50, 60, 80, 100, 150};

class Circuits {
 public:
  Circuits(const Design& d, const Assessment& a, const Finding& f)
      : d_(d), a_(a), f_(f), h_(d.circuit.hydraulics) {}

  std::vector<KnobRef> all() {
    const std::string& id = f_.measure_id;
    const std::string& key = f_.subject.key;
    const bool up = key.ends_with("/up");
    if (id == "circuit.time" || id == "circuit.ahead" || id == "circuit.trip" || id == "circuit.rated")
      throttled(up);
    if (id == "circuit.trip" || id == "circuit.relief" || id == "circuit.band") pressures();
    if (id == "circuit.counted" || id == "drive.counted") as_computed();
    if (id == "circuit.counted") counted();
    if (id == "drive.counted") driven();
    if (id == "circuit.pauses") {
      split(FlowSplit::geared, "divider_geared", "legs fed through a divider of gears");
      split(FlowSplit::throttling, "divider_throttling", "legs fed through a divider that throttles");
      if (!h_.checks)
        offer("checks", "a check valve in each leg's branch", [](Circuit& c) { c.hydraulics.checks = true; });
    }
    if (id == "circuit.branch" || id == "circuit.cabin" || id == "circuit.twins") plumbing();
    if (id == "circuit.watched") {
      for (const PipeSide side : {PipeSide::up, PipeSide::down})
        if (!watched(side))
          fitting(FittingKind::sensor, side,
                  side == PipeSide::up ? "a pressure sensor on the up side"
                                       : "a pressure sensor on the down side");
      if (!watched(PipeSide::up) && !watched(PipeSide::down))
        offer("both_sensors", "pressure sensors on both sides, switched to one gauge", [](Circuit& c) {
          for (const PipeSide side : {PipeSide::up, PipeSide::down}) add(c, FittingKind::sensor, side);
        });
    }
    if (id == "circuit.dump")
      fitting(FittingKind::dump_valve, PipeSide::up, "a dump valve from both sides to the tank");
    feeds();
    if (id == "circuit.gas_springs") {
      const double mean = (d_.port_leg().retraction.drive.down_spring.extended_force +
                           d_.gear.main().retraction.drive.down_spring.extended_force) /
                          2;
      list_.push_back(one_choice("circuit.gas_springs",
                                 say("gas springs of {} on both", Amount{mean, Kind::force}),
                                 [mean](Design& x) {
                                   for (auto& leg : x.gear.legs)
                                     if (leg.role == LegRole::main)
                                       leg.retraction.drive.down_spring.extended_force = Given(mean);
                                 }));
    }
    return std::move(list_);
  }

 private:
  void offer(const std::string& id, Text words, std::function<void(Circuit&)> put) {
    list_.push_back(
        one_choice("circuit." + id, std::move(words), [put = std::move(put)](Design& x) { put(x.circuit); }));
  }
  void split(FlowSplit kind, const char* id, Text words) {
    if (h_.split != kind) offer(id, std::move(words), [kind](Circuit& c) { c.hydraulics.split = kind; });
  }

  //! The setting that gives the wanted time, the widest that does not trip, the pump slower going down.
  void throttled(bool up) {
    const auto* circuit = a_.circuit.get();
    if (!circuit) return;
    // On jacks and in the air ask for different settings: whichever serves both is found by trying.
    for (const auto& w : circuit->ways)
      if (w.leg == f_.subject.leg && w.up == up) throttled(up, w);
  }
  void throttled(bool up, const CylinderWay& way) {
    const Given& time = up ? h_.wanted_up : h_.wanted_down;
    const Throttle& throttle = up ? h_.up : h_.down;
    const double widest = throttle.widest.known() ? throttle.widest.si : 0.004;
    circuit::Stroke stroke = way.stroke;
    stroke.braked = circuit::Braked::return_side;
    stroke.restrictor.coefficient = throttle.coefficient.known() ? throttle.coefficient.si : 0.62;
    const double cut_out = h_.cut_out.known() ? 0.9 * h_.cut_out : 1e9;
    const double wanted =
        time.known() ? time.si : 1.5 * circuit::stroke_figures(with_bore(stroke, widest)).time;
    if (!std::isfinite(wanted)) return;
    const auto found = circuit::slowed(stroke, std::numbers::pi / 4 * widest * widest, wanted, cut_out);
    const auto bore_of = [](double area) {
      return std::round(std::sqrt(area * 4 / std::numbers::pi) / drilled_to) * drilled_to;
    };
    const std::string with = way.in_air ? "_air" : "_jacks";
    const auto restrictor = [&](const char* id, double bore) {
      offer(id + with,
            up ? say("a restrictor of {} on the return, going up", Amount{bore, Kind::bore})
               : say("a restrictor of {} on the return, going down", Amount{bore, Kind::bore}),
            [up, bore](Circuit& c) {
              Throttle& t = up ? c.hydraulics.up : c.hydraulics.down;
              t.at = ThrottleAt::return_side;
              t.bore = Given(bore);
            });
    };
    if (found.area && !found.trips)
      restrictor(up ? "restrictor_up" : "restrictor_down", bore_of(*found.area));
    if (found.narrowest && (!found.area || found.trips))
      restrictor(up ? "widest_up" : "widest_down", bore_of(*found.narrowest * 1.1));
    if (!up && found.pump_factor && *found.pump_factor >= 0.1) {
      const double factor = std::ceil(*found.pump_factor * 100) / 100;
      offer("pump_slower" + with,
            say("pump at {} of its speed going down, its restrictor open",
                Amount{factor * h_.down_speed, Kind::share}),
            [factor](Circuit& c) {
              c.hydraulics.down_speed = Given(std::max(0.1, factor * c.hydraulics.down_speed));
              c.hydraulics.down.at = ThrottleAt::none;
            });
    }
    // Too slow with nothing in its way: more oil.
    if (time.known() && found.widest_time > time) {
      const double flow = h_.pump_flow * std::ceil(20 * found.widest_time / time) / 20;
      if (flow < 0.01)
        offer("pump_larger" + with, say("a pump of {}", Amount{flow, Kind::flow}), [flow](Circuit& c) {
          c.hydraulics.loaded_flow = Given(c.hydraulics.loaded_flow + flow - c.hydraulics.pump_flow);
          c.hydraulics.pump_flow = Given(flow);
        });
    }
  }
  static circuit::Stroke with_bore(circuit::Stroke s, double bore) {
    s.restrictor.area = std::numbers::pi / 4 * bore * bore;
    return s;
  }

  void pressures() {
    if (f_.measure_id == "circuit.trip" && a_.circuit) {
      double peak = 0;
      for (const auto& w : a_.circuit->ways) peak = std::max(peak, w.full.peak_pressure);
      const double higher = std::ceil(1.15 * peak / 1e5) * 1e5;
      if (h_.cut_out.known() && std::isfinite(peak) && (!h_.rated.known() || higher < h_.rated))
        offer("cut_out", say("pressure switch set to {}", Amount{higher, Kind::pressure}),
              [higher](Circuit& c) {
                c.hydraulics.cut_out = Given(higher);
                if (c.hydraulics.relief.known() && c.hydraulics.relief < 1.1 * higher)
                  c.hydraulics.relief = Given(1.1 * higher);
              });
    }
    if (f_.measure_id == "circuit.relief")
      offer("relief", say("relief valve set to {}", Amount{1.1 * h_.cut_out, Kind::pressure}),
            [](Circuit& c) { c.hydraulics.relief = Given(1.1 * c.hydraulics.cut_out); });
    if (f_.measure_id == "circuit.band")
      offer("cut_in", say("pressure switch closes again at {}", Amount{0.8 * h_.cut_out, Kind::pressure}),
            [](Circuit& c) { c.hydraulics.cut_in = Given(0.8 * c.hydraulics.cut_out); });
  }

  //! Times entered that alone count: the computed ones beside them.
  void as_computed() {
    const Leg* leg = d_.gear.find(f_.subject.leg);
    if (!leg || leg->retraction.times_from == TimesFrom::drive) return;
    list_.push_back(one_choice(f_.measure_id + ("_by_drive_" + leg->id),
                               "Sequence counts with what the drive takes as well",
                               [id = leg->id](Design& x) {
                                 if (Leg* l = x.gear.find(id)) l->retraction.times_from = TimesFrom::drive;
                               }));
  }
  //! What was computed taken over for Sequence: times with the battery full, the slowest at its lowest.
  void counted() {
    const auto* circuit = a_.circuit.get();
    const Leg* leg = d_.gear.find(f_.subject.leg);
    if (!circuit || !leg) return;
    double time[2]{0, 0};
    double slowest = 1;
    for (const auto& w : circuit->ways) {
      if (w.leg != leg->id) continue;
      time[w.up ? 0 : 1] = std::max(time[w.up ? 0 : 1], w.full.time);
      slowest = std::max(slowest, w.lowest.time / w.full.time);
    }
    count_with(*leg, time[0], time[1], slowest);
  }
  //! The same of a leg with a motor or an actuator of its own.
  void driven() {
    const Leg* leg = d_.gear.find(f_.subject.leg);
    if (!leg) return;
    const auto made = drive_load(d_, *leg);
    const auto* load = std::get_if<DriveLoad>(&made);
    Steps steps(&a_.steps);
    const auto takes = load ? driven_times(d_, *leg, *load, steps) : std::nullopt;
    if (!takes || !takes->lacking.empty()) return;
    count_with(*leg, takes->up, takes->down,
               std::max(takes->up_lowest / takes->up, takes->down_lowest / takes->down));
  }
  //! Times of a leg and its slowest factor, rounded up to what is told.
  void count_with(const Leg& leg, double up, double down, double slowest) {
    if (!std::isfinite(up) || !std::isfinite(down) || !std::isfinite(slowest)) return;
    const auto told = [](double x) { return std::ceil(x * 20 - 1e-9) / 20; };
    up = told(up);
    down = told(down);
    slowest = told(slowest);
    list_.push_back(one_choice(f_.measure_id + ("_" + leg.id),
                               say("Sequence counts with {} up, {} down, slowest {} times as long",
                                   Amount{up, Kind::time}, Amount{down, Kind::time}, Figure{slowest, 2}),
                               [id = leg.id, up, down, slowest](Design& x) {
                                 Leg* l = x.gear.find(id);
                                 if (!l) return;
                                 l->retraction.time_up = Given(up);
                                 l->retraction.time_down = Given(down);
                                 l->retraction.slowest = Given(slowest);
                               }));
  }

  bool watched(PipeSide side) const {
    return std::any_of(h_.fittings.begin(), h_.fittings.end(), [&](const PipeFitting& f) {
      return f.side == side && (f.kind == FittingKind::sensor || f.kind == FittingKind::gauge);
    });
  }
  static void add(Circuit& c, FittingKind kind, PipeSide side) {
    PipeFitting f;
    f.kind = kind;
    f.side = side;
    f.name = kind == FittingKind::dump_valve ? "dump valve"
             : side == PipeSide::up          ? "sensor, up side"
                                             : "sensor, down side";
    c.hydraulics.fittings.push_back(std::move(f));
  }
  void fitting(FittingKind kind, PipeSide side, Text words) {
    offer(side == PipeSide::up ? "fitting_up" : "fitting_down", std::move(words),
          [kind, side](Circuit& c) { add(c, kind, side); });
  }
  void plumbing() {
    for (size_t i = 0; i < h_.fittings.size(); ++i) {
      if (!(about_one(h_.fittings, h_.fittings[i]) == f_.subject)) continue;
      const PipeFitting& f = h_.fittings[i];
      if (f_.measure_id == "circuit.branch")
        offer("hangs_" + std::to_string(i), say("branch of {} turned to hang down", f.name),
              [i](Circuit& c) { c.hydraulics.fittings[i].way = BranchWay::hangs_down; });
      if (f_.measure_id == "circuit.cabin")
        offer("out_of_cabin_" + std::to_string(i),
              f.kind == FittingKind::gauge ? say("{}: an electric gauge, its sensor outside", f.name)
                                           : say("{} moved out of the cockpit", f.name),
              [i](Circuit& c) { c.hydraulics.fittings[i].in_cabin = false; });
    }
    for (size_t i = 0; i < h_.pipes.size(); ++i) {
      if (!(about_one(h_.pipes, h_.pipes[i]) == f_.subject)) continue;
      const Pipe& p = h_.pipes[i];
      if (f_.measure_id == "circuit.cabin")
        offer("pipe_out_" + std::to_string(i), say("{} laid outside the cockpit", p.name),
              [i](Circuit& c) { c.hydraulics.pipes[i].in_cabin = false; });
      if (f_.measure_id == "circuit.twins") {
        double longest = 0;
        for (const auto& q : h_.pipes)
          if (q.leg == p.leg && q.side == p.side && q.length.known())
            longest = std::max(longest, q.length.si);
        offer("twins_" + std::to_string(i), say("pipes of {} to both", Amount{longest, Kind::length}),
              [leg = p.leg, side = p.side, longest](Circuit& c) {
                for (auto& q : c.hydraulics.pipes)
                  if (q.leg == leg && q.side == side) q.length = Given(longest);
              });
      }
    }
  }

  void feeds() {
    const Electrics& e = d_.circuit.electrics;
    for (size_t i = 0; i < e.feeds.size(); ++i) {
      const Feed& f = e.feeds[i];
      if (!(about_one(e.feeds, f) == f_.subject)) continue;
      const std::string& id = f_.measure_id;
      const auto change = [&](const char* what, Text words, std::function<void(Feed&)> put) {
        offer(what + ("_" + std::to_string(i)), std::move(words),
              [i, put = std::move(put)](Circuit& c) { put(c.electrics.feeds[i]); });
      };
      if (id == "circuit.voltage") {
        for (const double s : sections) {
          Feed thicker = f;
          thicker.section = Given(s);
          if (!(s > f.section) || voltage_at(e, thicker, f.running) < 1.03 * f.voltage_needed) continue;
          change("conductor", say("{}: conductors of {}", f.name, Amount{s, Kind::section_area}),
                 [s](Feed& x) { x.section = Given(s); });
          break;
        }
        if (f.connectors > 0 && f.connector_resistance.known())
          change("soldered", say("{}: soldered through, no connectors", f.name),
                 [](Feed& x) { x.connectors = Given(0.0); });
      }
      if (id == "circuit.fuse")
        for (const double a : fuses)
          if (a >= 1.25 * f.running && (!f.stall.known() || a < 0.95 * f.stall)) {
            change("fuse", say("{}: a fuse of {}", f.name, Amount{a, Kind::current}),
                   [a](Feed& x) { x.fuse = Given(a); });
            break;
          }
      if (id == "circuit.relay")
        change("relay", say("{}: a relay beside it", f.name), [](Feed& x) { x.heavy_by_relay = true; });
      if (id == "circuit.extension")
        change("in_one", say("{}: made up in one, {} long", f.name, Amount{f.length, Kind::length}),
               [](Feed& x) { x.extension = Given(0.0); });
      if (id == "circuit.channel")
        change("channel", say("{}: channel cut to {}", f.name, Amount{1.1 * f.diameter, Kind::length}),
               [](Feed& x) { x.channel = Given(1.1 * x.diameter); });
      if (id == "circuit.slack") {
        // A tenth more than the swing takes, and never less than a finger's width.
        const auto way = slack_taken(d_, f);
        const double wanted = std::max(1.1 * (way ? way->taken : f.slack_needed.si), 0.005);
        change("slack", say("{}: slack of {}", f.name, Amount{wanted, Kind::length}),
               [wanted](Feed& x) { x.slack = Given(wanted); });
      }
      if (id == "circuit.lost")
        change("lost", say("{}: goes down without signal", f.name),
               [](Feed& x) { x.lost = OnSignalLost::goes_down; });
      if (id == "circuit.reversed")
        change(
            "reversed",
            f.reversed ? say("{}: channel set the plain way", f.name) : say("{}: channel reversed", f.name),
            [](Feed& x) { x.reversed = !x.reversed; });
      if (id == "circuit.route") aside(i, f);
    }
  }

  //! A cable laid aside till it clears: the least of six ways, to the millimetre.
  void aside(size_t feed, const Feed& f) {
    static constexpr struct {
      const char* id;
      const char* words;
      Vec3 (*way)();
    } ways[]{{"route_up", "{} laid higher by {}", [] { return Vec3(0, 0, 1); }},
             {"route_down", "{} laid lower by {}", [] { return Vec3(0, 0, -1); }},
             {"route_fore", "{} laid further forward by {}", [] { return Vec3(-1, 0, 0); }},
             {"route_aft", "{} laid further aft by {}", [] { return Vec3(1, 0, 0); }},
             {"route_starboard", "{} laid further to starboard by {}", [] { return Vec3(0, 1, 0); }},
             {"route_port", "{} laid further to port by {}", [] { return Vec3(0, -1, 0); }}};
    for (const auto& w : ways)
      for (const double by : {0.01, 0.02, 0.04, 0.08, 0.15}) {
        list_.push_back(
            one_choice("circuit." + std::string(w.id) + "_" + std::to_string(feed) + "_" + shortest(by),
                       sentence(w.words, {Text(f.name), Text(Amount{by, Kind::length})}),
                       [feed, move = Vec3(by * w.way())](Design& x) {
                         for (auto& p : x.circuit.electrics.feeds[feed].route) p.at.set(p.at.vec() + move);
                       }));
      }
  }

  const Design& d_;
  const Assessment& a_;
  const Finding& f_;
  const Hydraulics& h_;
  std::vector<KnobRef> list_;
};

}  // namespace

std::vector<KnobRef> circuit_swaps(const Design& d, const Assessment& before, const Finding& finding) {
  return Circuits(d, before, finding).all();
}

}  // namespace kranich
