// SPDX-License-Identifier: GPL-3.0-or-later
//! Circuit: cylinders on their pump against their true loads, the plumbing, battery and leads.
#include <algorithm>
#include <cmath>
#include <limits>

#include "core/assess/assess.h"
#include "core/assess/circuit_state.h"
#include "core/assess/collector.h"
#include "core/assess/drive_state.h"
#include "core/sequence/sequence.h"
#include "core/swing/swing.h"

namespace kranich {
namespace {

//! What can be said of one leg or lead: "nose leg, going up".
Subject about_way(const Design& d, const Leg& leg, bool up) {
  const Text legs = d.legs_word(leg);
  return {up ? say("{}, going up", legs) : say("{}, going down", legs), leg.id + (up ? "/up" : "/down"),
          leg.id};
}

class CircuitJudge {
 public:
  CircuitJudge(const Design& d, Assessment& a, Collector& collect, const Asked& asked)
      : d_(d), a_(a), collect_(collect), asked_(asked), h_(d.circuit.hydraulics), e_(d.circuit.electrics) {}

  void all() {
    auto made = std::make_shared<CircuitState>();
    s_ = made.get();
    s_->of = d_.circuit;
    s_->legs = d_.gear.legs;
    if (cylinders_on_pump(d_) > 0 && !(h_ == Hydraulics())) hydraulics();
    plumbing();
    if (!(e_ == Electrics())) electrics();
    gas_struts();
    a_.circuit = std::move(made);
  }

 private:
  bool same_as_near() const {
    return asked_.near && asked_.near->circuit && asked_.near->circuit->of == d_.circuit &&
           asked_.near->circuit->legs == d_.gear.legs && !asked_.near->circuit->ways.empty();
  }

  void hydraulics() {
    if (same_as_near()) {
      s_->ways = asked_.near->circuit->ways;
      for (int i = 0; i < 2; ++i) s_->tee[i] = asked_.near->circuit->tee[i];
      s_->tee_legs = asked_.near->circuit->tee_legs;
    } else if (!compute()) {
      return;
    }
    for (const Leg& leg : d_.gear.legs)
      for (const bool up : {true, false}) way(leg, up);
    for (const bool up : {true, false}) order(up);
    cut_out();
    leak();
  }

  bool compute() {
    const double full = pump_voltage(d_.circuit, false);
    const double low = pump_voltage(d_.circuit, true);
    for (const Leg& leg : d_.gear.legs) {
      if (!leg.retraction.fitted || leg.retraction.drive.kind != DriveKind::cylinder) continue;
      for (const bool up : {true, false})
        for (const bool in_air : {false, true}) {
          auto made = stroke_of(d_, leg, up, in_air);
          if (auto* missing = std::get_if<Text>(&made)) {
            collect_.about(about_way(d_, leg, up), "", GearState::extended);
            collect_.unknown("circuit.time", *missing);
            s_->ways.clear();
            return false;
          }
          CylinderWay w{leg.id, up, in_air, std::get<circuit::Stroke>(std::move(made)), {}, {}};
          w.full = circuit::stroke_figures(w.stroke);
          w.lowest = w.full;
          if (std::isfinite(low) && low != full) {
            circuit::Stroke weak = w.stroke;
            weak.pump.flow *= low / full;
            w.lowest = circuit::stroke_figures(weak);
          }
          s_->ways.push_back(std::move(w));
        }
    }
    for (const bool up : {true, false}) together(up);
    return true;
  }

  //! All legs on the one pump, their returns free: who goes first, who waits.
  void together(bool up) {
    std::vector<circuit::Branch> branches;
    s_->tee_legs.clear();
    for (const PlacedLeg& p : placed_legs(d_.gear)) {
      const Leg& leg = d_.gear.legs[p.row];
      for (const auto& w : s_->ways) {
        if (w.leg != leg.id || w.up != up || !w.in_air) continue;
        circuit::Branch b;
        b.area = w.stroke.area_in;
        b.length = w.stroke.length;
        // The tee sees what stands behind the piston in the return as well, at its share of the flow.
        b.load = w.stroke.load;
        b.line = pipe_of(leg, up);
        b.check = h_.checks;
        branches.push_back(std::move(b));
        s_->tee_legs.push_back(in_words(
            leg.stands == LegStands::both_sides ? about_leg_on(d_, leg, p.port).words : d_.leg_word(leg)));
      }
    }
    auto pump = pump_of(h_, pump_voltage(d_.circuit, false), !up);
    const auto* found = std::get_if<circuit::Pump>(&pump);
    if (branches.size() < 2 || !found) return;
    using circuit::Divider;
    constexpr int steps = 100;  // arrivals to a few thousandths of a second, within a frame
    s_->tee[up ? 0 : 1] =
        h_.split == FlowSplit::tee
            ? circuit::on_a_tee(branches, *found, steps)
            : circuit::on_a_divider(branches, *found,
                                    h_.split == FlowSplit::ideal        ? Divider::ideal
                                    : h_.split == FlowSplit::throttling ? Divider::throttling
                                                                        : Divider::geared,
                                    steps);
  }
  //! A leg's pipe as a restrictor: its narrowest hole.
  circuit::Restrictor pipe_of(const Leg& leg, bool up) const {
    double bore = 0.004;
    for (const auto& p : h_.pipes)
      if (p.leg == leg.id && (p.side == PipeSide::up) == up && p.bore.known()) bore = p.bore;
    return {0.62, M_PI / 4 * bore * bore, h_.density};
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
    const auto* slow = worst_of(leg, up, [](const CylinderWay& w) { return w.full.time; });
    if (!slow) return;
    collect_.about(about_way(d_, leg, up), "", GearState::extended);
    const Throttle& throttle = up ? h_.up : h_.down;
    const Given& wanted = up ? h_.wanted_up : h_.wanted_down;
    if (slow->full.stops_at < 1) {
      collect_.fails("circuit.time", at_most(wanted.known() ? wanted.si : 60, "it must arrive"),
                     say("{}: it stops at {} of its stroke, the pump is too weak", where(*slow),
                         Amount{slow->full.stops_at, Kind::share}));
    } else {
      auto& f = collect_.add("circuit.time", slow->full.time,
                             wanted.known() ? bands(0.7 * wanted, 0.85 * wanted, 1.15 * wanted, 1.3 * wanted,
                                                    "the time you want, give or take")
                                            : Limit{});
      f.remark = where(*slow);
      f.working = {{"stroke", slow->stroke.length, Kind::length},
                   {"piston, oil goes in", slow->stroke.area_in, Kind::section_area},
                   {"oil goes out", slow->stroke.area_out, Kind::section_area},
                   {"its share of the pump", slow->stroke.pump.flow, Kind::flow},
                   {"battery lowest", slow->lowest.time, Kind::time}};
    }
    typed(leg, up);

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

  //! What Sequence counts with, against what the oil gives at the battery's lowest.
  void typed(const Leg& leg, bool up) {
    const auto* slow = worst_of(leg, up, [](const CylinderWay& w) { return w.lowest.time; });
    const Retraction& r = leg.retraction;
    const Given& time = up ? r.time_up : r.time_down;
    if (!time.known() || !std::isfinite(slow->lowest.time)) return;
    const double counted = time * (r.slowest.known() ? r.slowest.si : 1);
    auto& f = collect_.add("circuit.counted", counted - slow->lowest.time,
                           at_least(0, "Sequence counts with a slowest leg that is no slower than this"));
    f.working = {{"slowest, as Sequence has it", counted, Kind::time},
                 {"computed, battery lowest", slow->lowest.time, Kind::time}};
  }

  void order(bool up) {
    const auto& run = s_->tee[up ? 0 : 1];
    if (!run) return;
    collect_.about(up ? Subject(Text("legs together, going up"), "together/up")
                      : Subject(Text("legs together, going down"), "together/down"),
                   "", GearState::extended);
    int pauses = 0;
    bool all_there = true;
    double first = std::numeric_limits<double>::infinity();
    double last = 0;
    std::vector<std::pair<double, std::string>> arrivals;
    for (size_t i = 0; i < run->branches.size(); ++i) {
      const auto& b = run->branches[i];
      pauses += b.pauses;
      all_there = all_there && std::isfinite(b.arrives);
      if (std::isfinite(b.arrives)) {
        first = std::min(first, b.arrives);
        last = std::max(last, b.arrives);
        arrivals.emplace_back(b.arrives, s_->tee_legs[i]);
      }
    }
    std::sort(arrivals.begin(), arrivals.end());
    if (!all_there) {
      collect_.fails("circuit.pauses", at_most(0.5, "no leg may stand on the way"),
                     "a leg never arrives: the others take the oil");
      return;
    }
    auto& f = collect_.add("circuit.pauses", pauses, at_most(0.5, "no leg may stand on the way"));
    std::vector<Text> words;
    for (const auto& [t, leg] : arrivals) words.push_back(say("{} after {}", leg, Amount{t, Kind::time}));
    f.remark = say("they arrive: {}", enumerated(std::move(words)));
    f.working = {{"between first and last", last - first, Kind::time},
                 {"highest pressure", run->peak_pressure, Kind::pressure}};
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
    if (auto pump = pump_of(h_, pump_voltage(d_.circuit, false), false);
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

  void electrics() {
    for (const auto& f : e_.feeds) feed(f);
    for (const bool up : {true, false}) budget(up);
  }

  void feed(const Feed& f) {
    collect_.about(about_one(e_.feeds, f), "", GearState::extended);
    const std::string base = "/circuit/electrics/feeds/" + std::to_string(&f - e_.feeds.data()) + "/";
    if (!f.running.known()) {
      collect_.unknown("circuit.voltage", entry(base + "running_A", "the current it runs with"));
    } else {
      const double left = voltage_at(e_, f, f.running);
      if (!std::isfinite(left) || !f.voltage_needed.known()) {
        std::vector<Text> lacks;
        if (!f.length.known()) lacks.push_back(entry(base + "length_m", "its length"));
        if (!f.section.known()) lacks.push_back(entry(base + "section_m2", "its conductor"));
        if (!f.voltage_needed.known())
          lacks.push_back(entry(base + "voltage_needed_V", "the voltage it needs"));
        if (!e_.voltage.known() && !e_.lowest_voltage.known())
          lacks.push_back(entry("/circuit/electrics/voltage_V", "the battery's voltage"));
        collect_.unknown("circuit.voltage", enumerated(std::move(lacks)));
      } else {
        auto& x = collect_.add("circuit.voltage", left - f.voltage_needed,
                               at_least_or_tight(0, 0.03 * f.voltage_needed, "what it needs at its far end"));
        x.working = {{"at the far end, running", left, Kind::voltage},
                     {"resistance, both ways", lead_resistance_of(f), Kind::resistance}};
        if (f.stall.known())
          x.working.push_back({"at the far end, stalled", voltage_at(e_, f, f.stall), Kind::voltage});
        const double supply = e_.lowest_voltage.known() ? e_.lowest_voltage.si : e_.voltage.si;
        const double allowed =
            supply - f.voltage_needed - (e_.resistance.known() ? e_.resistance * f.running : 0);
        if (allowed > 0)
          x.working.push_back({"least conductor", circuit::least_conductor(f.length, f.running, allowed),
                               Kind::section_area});
      }
      // It carries what runs, and opens where it stalls.
      if (f.fuse.known()) {
        const double upper = f.stall.si;
        auto& x = collect_.add("circuit.fuse", f.fuse,
                               Limit{1.1 * f.running,
                                     std::isfinite(upper) ? std::optional<double>(upper) : std::nullopt,
                                     1.25 * f.running,
                                     {},
                                     "a quarter over what runs, less than what stalls"});
        x.working = {{"runs with", f.running, Kind::current}};
        if (f.stall.known()) x.working.push_back({"stalled", f.stall, Kind::current});
      } else {
        collect_.unknown("circuit.fuse", entry(base + "fuse_A", "its fuse or breaker"));
      }
      if (f.running > 8 || f.heavy_by_relay) {
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
    if (f.slack.known() && f.slack_needed.known())
      collect_.add("circuit.slack", f.slack - f.slack_needed,
                   at_least(0, "the way across to the leg grows as it swings"));
    collect_.add("circuit.lost", f.lost == OnSignalLost::goes_up ? 1 : 0,
                 at_most(0.5, "without signal it must not go up"));
    if (const Leg* leg = d_.gear.find(f.actor); leg && leg->retraction.fitted) {
      const bool other = leg->retraction.unit.other_way;
      collect_.add("circuit.reversed", other == f.reversed ? 0 : 1,
                   at_most(0.5, "a unit that runs the other way wants its channel reversed, and only that"));
    }
    route(f);
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
    auto& list = s_->consumers[up ? 0 : 1];
    double first = std::numeric_limits<double>::infinity();
    double last = 0;
    for (const auto& bar : line.bars)
      if (!bar.is_door) {
        first = std::min(first, bar.start);
        last = std::max(last, bar.latest_end);
      }
    for (const auto& f : e_.feeds) {
      if (!f.running.known()) continue;
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
    if (!e_.supply_current.known()) {
      collect_.unknown("circuit.current",
                       entry("/circuit/electrics/supply_current_A", "what the supply gives"));
      return;
    }
    const double standing = e_.standing.known() ? e_.standing.si : 0;
    const double time_out = d_.logic.time_out.known() ? d_.logic.time_out.si : 1e9;
    const double length = line.latest_end + 1;
    const auto whole = circuit::budget(list, standing, e_.supply_current, time_out, length);
    s_->budget[up ? 0 : 1] = whole;
    auto jammed = list;
    const auto heaviest = std::max_element(jammed.begin(), jammed.end(),
                                           [](const auto& a, const auto& b) { return a.stall < b.stall; });
    heaviest->jams_after = heaviest->time / 2;
    const auto stuck = circuit::budget(jammed, standing, e_.supply_current, time_out, length + 60);
    auto& f = collect_.add(
        "circuit.current", e_.supply_current - whole.peak,
        at_least_or_tight(0, 0.1 * e_.supply_current, "what battery, regulator or main fuse gives"));
    f.working = {{"peak", whole.peak, Kind::current},
                 {"at", whole.peak_at, Kind::time},
                 {"with one jammed", stuck.peak, Kind::current},
                 {"charge of one way, A·s", whole.charge, Kind::factor}};
    auto& x = collect_.add(
        "circuit.jammed", e_.supply_current - stuck.peak,
        Limit{-e_.supply_current.si, {}, 0.0, {}, "the main fuse must not go because one leg jams"});
    x.working = {{"peak with one jammed", stuck.peak, Kind::current}};
    x.remark =
        heaviest->stall > 0 ? say("{} jammed half way", heaviest->name) : Text("no stall current is entered");
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
  const Electrics& e_;
  CircuitState* s_ = nullptr;
};

}  // namespace

void assess_circuit(const Design& d, Assessment& a, Collector& collect, const Asked& asked) {
  CircuitJudge(d, a, collect, asked).all();
}

}  // namespace kranich
