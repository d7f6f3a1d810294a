// SPDX-License-Identifier: GPL-3.0-or-later
//! Circuit: cylinders on their pump against their true loads, and the plumbing.
#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

#include "core/assess/assess.h"
#include "core/assess/circuit_state.h"
#include "core/assess/collector.h"
#include "core/assess/leg_times.h"

namespace kranich {
namespace {

constexpr double usual_pipe = 0.004;  //!< taken where no bore is entered, m

//! All cylinders on their one pump.
struct OnOnePump {
  struct From {
    std::vector<std::vector<double>> forces;  //!< what the branches' loads follow from
    std::vector<circuit::Branch> branches;
    circuit::Pump pump{};
    FlowSplit split = FlowSplit::tee;
    bool operator==(const From& o) const {
      return forces == o.forces && pump == o.pump && split == o.split &&
             std::equal(branches.begin(), branches.end(), o.branches.begin(), o.branches.end(),
                        [](const circuit::Branch& a, const circuit::Branch& b) {
                          return a.area == b.area && a.length == b.length && a.line == b.line &&
                                 a.check == b.check;
                        });
    }
  };
  using Made = circuit::TeeRun;
  static Made make(const From& from) {
    using circuit::Divider;
    constexpr int steps = 100;  // arrivals to a few thousandths of a second, within a frame
    if (from.split == FlowSplit::tee) return circuit::on_a_tee(from.branches, from.pump, steps);
    return circuit::on_a_divider(from.branches, from.pump,
                                 from.split == FlowSplit::ideal        ? Divider::ideal
                                 : from.split == FlowSplit::throttling ? Divider::throttling
                                                                       : Divider::geared,
                                 steps);
  }
};

}  // namespace

Limit wanted_time_limit(const Given& wanted) {
  if (!wanted.known()) return {};
  return bands(0.7 * wanted, 0.85 * wanted, 1.15 * wanted, 1.3 * wanted, "the time you want, give or take");
}

double slowest_in_sequence(const Design& d, Assessment& a, const Leg& leg, bool up) {
  const auto* takes = sequence::times_of(leg_times(d, a), leg.id);
  if (!takes) return std::nan("");
  const sequence::Travel& t = (up ? takes->up : takes->down).counted;
  return t.nominal * (std::isfinite(t.slowest) ? t.slowest : 1);
}

void counted_by_sequence(const Design& d, Assessment& a, const Leg& leg, bool up, double computed,
                         const char* at_worst, Text taken, Collector& collect, const char* measure) {
  const double counted = slowest_in_sequence(d, a, leg, up);
  if (!std::isfinite(counted) || !std::isfinite(computed)) return;
  auto& f = collect.add(measure, counted - computed,
                        at_least(0, "Sequence counts with a slowest leg that is no slower than this"));
  const Retraction& r = leg.retraction;
  f.working = {{"slowest, as Sequence has it", counted, Kind::time}, {at_worst, computed, Kind::time}};
  if (const Given& entered = up ? r.time_up : r.time_down; entered.known())
    f.working.push_back({"entered", entered, Kind::time});
  f.assumption = std::move(taken);
  const auto* takes = sequence::times_of(a.times, leg.id);
  if (!std::isfinite((up ? takes->up : takes->down).counted.slowest))
    f.assumption.also("Sequence counts with no spread");
}

namespace {

class CircuitJudge {
 public:
  CircuitJudge(const Design& d, Assessment& a, Collector& collect, const Asked& asked)
      : d_(d), a_(a), collect_(collect), asked_(asked), h_(d.circuit.hydraulics) {}

  void all() {
    auto made = std::make_shared<CircuitState>();
    s_ = made.get();
    s_->hydraulics = h_;
    if (cylinders_on_pump(d_) > 0 && !(h_ == Hydraulics())) hydraulics();
    plumbing();
    if (moved_by_air(d_)) assess_air(d_, a_, *s_, collect_);
    if (!(d_.circuit.electrics == Electrics())) assess_leads(d_, a_, *s_, collect_);
    gas_struts();
    a_.circuit = std::move(made);
  }

 private:
  void hydraulics() {
    const bool complete = ways();
    for (const bool up : {true, false})
      if (complete) s_->together[up ? 0 : 1] = on_one_pump(up);
    for (const Leg& leg : d_.gear.legs)
      for (const bool up : {true, false}) way(leg, up);
    for (const bool up : {true, false}) order(up);
    cut_out();
    leak();
  }
  //! Every cylinder's ways. False where something of one is missing.
  bool ways() {
    const CylinderWays& made = cylinder_ways(d_, a_);
    s_->ways = made.ways;
    for (const auto& lacks : made.lacking) {
      collect_.about(about_leg_way(d_, d_.gear.leg(lacks.leg), lacks.up), "", GearState::extended);
      collect_.unknown("circuit.time", lacks.what);
    }
    return made.lacking.empty();
  }
  //! What is taken of the voltage where it is not entered.
  Text taken() const {
    const Electrics& e = d_.circuit.electrics;
    Text text = e.voltage.known() ? Text() : Text("the pump on the voltage it was measured at");
    if (!e.voltage.known() || !e.lowest_voltage.known()) text.also("the battery as full at its lowest");
    return text;
  }

  //! All legs on the one pump, in the air, their returns free: who goes first, who waits.
  std::optional<CircuitState::Together> on_one_pump(bool up) {
    CircuitState::Together t;
    OnOnePump::From from;
    for (const PlacedLeg& p : placed_legs(d_.gear)) {
      const Leg& leg = d_.gear.legs[p.row];
      for (const auto& w : s_->ways) {
        if (w.leg != leg.id || w.up != up || !w.in_air) continue;
        circuit::Branch b;
        b.area = w.stroke.area_in;
        b.length = w.stroke.length;
        b.load = w.stroke.load;
        b.line = pipe_of(leg, up);
        b.check = h_.checks;
        from.branches.push_back(std::move(b));
        from.forces.push_back(w.forces);
        t.legs.push_back(leg.id);
        t.words.push_back(leg.stands == LegStands::both_sides ? about_leg_on(d_, leg, p.port).words
                                                              : d_.leg_word(leg));
      }
    }
    auto made = pump_of(h_, d_.circuit.electrics.voltage, !up);
    const auto* pump = std::get_if<circuit::Pump>(&made);
    if (from.branches.size() < 2 || !pump) return std::nullopt;
    from.pump = *pump;
    from.split = h_.split;
    t.run = a_.steps.get<OnOnePump>(std::move(from));
    return t;
  }
  //! A leg's pipe as a restrictor: a sharp-edged hole as wide as it.
  circuit::Restrictor pipe_of(const Leg& leg, bool up) const {
    double bore = usual_pipe;
    for (const auto& p : h_.pipes)
      if (p.leg == leg.id && (p.side == PipeSide::up) == up && p.bore.known()) bore = p.bore;
    return {0.62, std::numbers::pi / 4 * bore * bore, h_.density};
  }
  bool every_pipe_known(bool up) const {
    return std::all_of(s_->ways.begin(), s_->ways.end(), [&](const CylinderWay& w) {
      return w.up != up || std::any_of(h_.pipes.begin(), h_.pipes.end(), [&](const Pipe& p) {
               return p.leg == w.leg && (p.side == PipeSide::up) == up && p.bore.known();
             });
    });
  }

  template <class F>
  const CylinderWay* worst_of(const Leg& leg, bool up, F&& value) const {
    const CylinderWay* worst = nullptr;
    for (const auto& w : s_->ways)
      if (w.leg == leg.id && w.up == up && (!worst || value(w) > value(*worst))) worst = &w;
    return worst;
  }
  static Text where(const CylinderWay& w) { return w.in_air ? Text("in the air") : Text("on jacks"); }

  void way(const Leg& leg, bool up) {
    // Both in the air and on jacks, or none: what is missing of one has been said.
    if (std::count_if(s_->ways.begin(), s_->ways.end(),
                      [&](const CylinderWay& w) { return w.leg == leg.id && w.up == up; }) < 2)
      return;
    const auto* slow = worst_of(leg, up, [](const CylinderWay& w) { return w.full.time; });
    collect_.about(about_leg_way(d_, leg, up), "", GearState::extended);
    const Throttle& throttle = up ? h_.up : h_.down;
    const Given& wanted = up ? h_.wanted_up : h_.wanted_down;
    if (slow->full.stops_at < 1) {
      collect_.fails("circuit.time", at_most(wanted.known() ? wanted.si : 60, "it must arrive"),
                     say("{}: it stops at {} of its stroke, the pump is too weak", where(*slow),
                         Amount{slow->full.stops_at, Kind::share}));
    } else {
      auto& f = collect_.add("circuit.time", slow->full.time, wanted_time_limit(wanted));
      f.remark = where(*slow);
      f.working = {{"stroke", slow->stroke.length, Kind::length},
                   {"piston, oil goes in", slow->stroke.area_in, Kind::section_area},
                   {"oil goes out", slow->stroke.area_out, Kind::section_area},
                   {"its share of the pump", slow->stroke.pump.flow, Kind::flow},
                   {"battery lowest", slow->lowest.time, Kind::time}};
      f.assumption = taken();
    }
    const auto* slowest = worst_of(leg, up, [](const CylinderWay& w) { return w.lowest.time; });
    counted_by_sequence(d_, a_, leg, up, slowest->lowest.time, "computed, battery lowest", taken(), collect_);

    const auto* peak = worst_of(leg, up, [](const CylinderWay& w) { return w.full.peak_pressure; });
    if (h_.cut_out.known()) {
      auto& f = collect_.add("circuit.trip", h_.cut_out - peak->full.peak_pressure,
                             at_least_or_tight(0, 0.1 * h_.cut_out, "the switch must not open on the way"));
      f.working = {{"cut-out", h_.cut_out, Kind::pressure},
                   {"peak", peak->full.peak_pressure, Kind::pressure}};
      f.remark = where(*peak);
    } else if (h_.up.at != ThrottleAt::none || d_.logic.pressure_switch) {
      collect_.unknown("circuit.trip",
                       entry("/circuit/hydraulics/cut_out_Pa", "where the pressure switch opens"));
    }
    const auto* back = worst_of(leg, up, [](const CylinderWay& w) { return w.full.peak_return; });
    const double highest = std::max(back->full.peak_return, peak->full.peak_pressure);
    if (h_.rated.known()) {
      auto& f = collect_.add("circuit.rated", h_.rated - highest,
                             at_least_or_tight(0, 0.1 * h_.rated, "what the weakest part is rated for"));
      f.working = {{"at the pump", peak->full.peak_pressure, Kind::pressure},
                   {"in the return", back->full.peak_return, Kind::pressure},
                   {"rated", h_.rated, Kind::pressure}};
      if (back->full.peak_return > peak->full.peak_pressure)
        f.remark = "the return's pressure is the higher: the smaller side carries the load";
    } else {
      collect_.unknown("circuit.rated",
                       entry("/circuit/hydraulics/rated_Pa", "what the weakest part is rated for"));
    }
    bool ahead = false;
    const CylinderWay* by = slow;
    for (const auto& w : s_->ways)
      if (w.leg == leg.id && w.up == up && w.full.runs_ahead) {
        ahead = true;
        by = &w;
      }
    auto& f =
        collect_.add("circuit.ahead", ahead ? 1 : 0, at_most(0.5, "the leg must not drop ahead of its oil"));
    if (ahead)
      f.remark = throttle.at == ThrottleAt::supply_side
                     ? say("{}: throttled on the supply nothing holds it back", where(*by))
                     : say("{}: its load takes it faster than the pump fills", where(*by));
  }

  void order(bool up) {
    const auto& together = s_->together[up ? 0 : 1];
    if (!together) return;
    const circuit::TeeRun& run = together->run;
    collect_.about(up ? Subject(Text("legs together, going up"), "together/up")
                      : Subject(Text("legs together, going down"), "together/down"),
                   "", GearState::extended);
    int pauses = 0;
    bool all_there = true;
    double first = std::numeric_limits<double>::infinity();
    double last = 0;
    std::vector<std::pair<double, Text>> arrivals;
    for (size_t i = 0; i < run.branches.size(); ++i) {
      const auto& b = run.branches[i];
      pauses += b.pauses;
      all_there = all_there && std::isfinite(b.arrives);
      if (std::isfinite(b.arrives)) {
        first = std::min(first, b.arrives);
        last = std::max(last, b.arrives);
        arrivals.emplace_back(b.arrives, together->words[i]);
      }
    }
    std::stable_sort(arrivals.begin(), arrivals.end(),
                     [](const auto& x, const auto& y) { return x.first < y.first; });
    if (!all_there) {
      collect_.fails("circuit.pauses", at_most(0.5, "no leg may stand on the way"),
                     "a leg never arrives: the others take the oil");
      return;
    }
    auto& f = collect_.add("circuit.pauses", pauses, at_most(0.5, "no leg may stand on the way"));
    std::vector<Text> words;
    for (const auto& [t, leg] : arrivals) words.push_back(say("{} after {}", leg, Amount{t, Kind::time}));
    f.remark = say("they arrive: {}", enumerated(std::move(words)));
    if (!every_pipe_known(up))
      f.assumption = say("pipes of {} where no bore is entered", Amount{usual_pipe, Kind::bore});
    f.working = {{"between first and last", last - first, Kind::time},
                 {"highest pressure", run.peak_pressure, Kind::pressure}};
  }

  void cut_out() {
    collect_.about(Subject(Text("pump"), "pump"), "", GearState::extended);
    if (h_.relief.known() && h_.cut_out.known())
      collect_.add("circuit.relief", h_.relief - h_.cut_out,
                   at_least_or_tight(0, 0.05 * h_.cut_out, "the relief must not open before the switch"));
    if (h_.cut_in.known() && h_.cut_out.known())
      collect_.add("circuit.band", h_.cut_out - h_.cut_in,
                   at_least(0, "it closes again below where it opens"));
  }

  void leak() {
    if (!h_.trapped_volume.known() || !h_.cut_out.known() || !h_.cut_in.known()) return;
    circuit::Trapped t{};
    t.volume = h_.trapped_volume;
    t.bulk_modulus = h_.bulk_modulus;
    t.cut_out = h_.cut_out;
    t.cut_in = h_.cut_in;
    if (auto pump = pump_of(h_, d_.circuit.electrics.voltage, false);
        std::holds_alternative<circuit::Pump>(pump))
      t.pump = std::get<circuit::Pump>(pump);
    collect_.about(Subject(Text("gear held up"), "held"), "", GearState::extended);
    const Limit seldom = at_least_or_tight(300, 1800, "a pump that keeps coming on is a leak to be found");
    if (h_.test_fall.known() && h_.test_time.known()) {
      // A leak k·p: what fell on the bench from the cut-out.
      const double left = t.cut_out - h_.test_fall;
      if (left > 0 && h_.test_fall > 0)
        t.leak_per_pressure = t.compliance() / h_.test_time * std::log(t.cut_out / left);
      auto& f = collect_.add("circuit.interval", h_.test_fall > 0 ? t.time_to_cut_in() : 86400, seldom);
      f.working = {{"leak at the cut-out", t.leak_per_pressure * t.cut_out, Kind::flow},
                   {"pump then runs", t.pump_time(), Kind::time}};
      if (h_.cycles_apart.known())
        f.working.push_back({"came on in the cruise every", h_.cycles_apart, Kind::time});
    } else if (h_.cycles_apart.known()) {
      t.leak_per_pressure = t.compliance() / h_.cycles_apart * std::log(t.cut_out / t.cut_in);
      auto& f = collect_.add("circuit.interval", h_.cycles_apart, seldom);
      f.working = {{"leak at the cut-out", t.leak_per_pressure * t.cut_out, Kind::flow}};
      f.remark =
          "with the gear up the up side leaks: cylinder seals, the dump valve, a fitting; wipe dry, look "
          "again";
    }
  }

  void plumbing() {
    int watched = 0;
    bool dump = false;
    for (const auto& f : h_.fittings) {
      collect_.about(about_one(h_.fittings, f), "", GearState::extended);
      dump = dump || f.kind == FittingKind::dump_valve;
      const bool sensor = f.kind == FittingKind::sensor || f.kind == FittingKind::gauge;
      if (sensor) watched |= f.side == PipeSide::up ? 1 : 2;
      const bool branch = sensor || f.kind == FittingKind::tee;
      if (branch) {
        auto& x = collect_.add("circuit.branch",
                               f.way == BranchWay::hangs_down ? 0
                               : f.way == BranchWay::level    ? 1
                                                              : 2,
                               Limit{{}, 1.5, {}, 0.5, "air rises: what hangs down bleeds itself"});
        if (f.way == BranchWay::points_up) x.remark = "a branch that points up keeps its bubble";
      }
      auto& x = collect_.add("circuit.cabin", f.in_cabin ? 1 : 0, at_most(0.5, "no fluid in the cockpit"));
      if (f.in_cabin && f.kind == FittingKind::gauge) x.remark = "an electric gauge brings no fluid in";
    }
    for (const auto& p : h_.pipes) {
      collect_.about(about_one(h_.pipes, p), "", GearState::extended);
      collect_.add("circuit.cabin", p.in_cabin ? 1 : 0, at_most(0.5, "no fluid in the cockpit"));
      for (const auto& q : h_.pipes) {
        if (&q <= &p || q.leg.empty() || q.leg != p.leg || q.side != p.side || !p.length.known() ||
            !q.length.known())
          continue;
        auto& f = collect_.add("circuit.twins", std::abs(p.length - q.length) / std::max(p.length, q.length),
                               Limit{{}, 0.3, {}, 0.1, "twins want pipes of one length"});
        f.remark = say("beside {}", q.name);
      }
    }
    if (h_.fittings.empty()) return;
    collect_.about(Subject(Text("plumbing"), "plumbing"), "", GearState::extended);
    collect_.add("circuit.watched",
                 watched == 3 ? 2
                 : watched    ? 1
                              : 0,
                 at_least(1.5, "the extended side and the stowed side are both to be seen"));
    if (d_.logic.release == ReleaseKind::dump) {
      auto& f = collect_.add("circuit.dump", dump ? 1 : 0, at_least(0.5, "Logic counts on it"));
      if (!dump) f.remark = "it joins both sides to the tank: test that all legs fall and lock unaided";
    }
    // From the lowest up: what is below is bled first.
    std::vector<std::pair<double, Text>> heights;
    for (const auto& f : h_.fittings)
      if (f.height.known()) heights.emplace_back(f.height.si, Text(f.name));
    if (heights.size() < 2) return;
    std::stable_sort(heights.begin(), heights.end(),
                     [](const auto& a, const auto& b) { return a.first < b.first; });
    std::vector<Text> names;
    for (auto& [z, name] : heights) names.push_back(std::move(name));
    collect_.add("circuit.bleeding", static_cast<double>(heights.size())).remark =
        say("bled from the lowest up: {}", enumerated(std::move(names)));
  }

  //! Unequal gas springs look like plumbing trouble.
  void gas_struts() {
    if (!d_.unlinked()) return;
    const auto force = [](const Leg& l) { return l.retraction.drive.down_spring.extended_force; };
    const Leg& port = d_.port_leg();
    const Leg& starboard = d_.gear.main();
    if (&port == &starboard || !force(port).known() || !force(starboard).known()) return;
    collect_.about(about_legs(d_, starboard), "", GearState::extended);
    const double more = std::max(force(port).si, force(starboard).si);
    auto& f = collect_.add("circuit.gas_springs", std::abs(force(port) - force(starboard)) / more,
                           Limit{{}, 0.1, {}, 0.05, "of equal force for each leg"});
    f.working = {{"port", force(port), Kind::force}, {"starboard", force(starboard), Kind::force}};
  }

  const Design& d_;
  Assessment& a_;
  Collector& collect_;
  const Asked& asked_;
  const Hydraulics& h_;
  CircuitState* s_ = nullptr;
};

}  // namespace

void assess_circuit(const Design& d, Assessment& a, Collector& collect, const Asked& asked) {
  CircuitJudge(d, a, collect, asked).all();
}

}  // namespace kranich
