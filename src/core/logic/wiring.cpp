// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logic/wiring.h"

#include <algorithm>
#include <stdexcept>

namespace kranich::logic {
namespace {

using Words = std::vector<std::string>;

const Condition always = Condition::always();
const Condition never = Condition::never();

class Builder {
 public:
  explicit Builder(const Fitted& fitted) : f_(fitted), m_(w_.machine) {}

  Wiring build() {
    variables();
    sense();
    command();
    move();
    doors();
    show();
    demands();
    return std::move(w_);
  }

 private:
  using Load = Rung::Load;
  struct Motor {
    std::string name;                    //!< "pump", "motor of the nose leg"
    std::vector<const WiredLeg*> moves;  //!< what it moves
    std::string of{};  //!< behind the names of its own parts, where there are several motors
  };

  void variable(const std::string& name, Words values, size_t start = 0) {
    m_.initial[name] = values[start];
    m_.variables.push_back({name, std::move(values)});
  }
  Condition is(const std::string& name, Words values) const {
    const auto v = std::find_if(m_.variables.begin(), m_.variables.end(),
                                [&](const Variable& x) { return x.name == name; });
    if (v == m_.variables.end()) throw std::logic_error("no such variable: " + name);
    return Condition::is(name, std::move(values));
  }
  Condition isnt(const std::string& name, Words values) const { return !is(name, std::move(values)); }
  void event(const std::string& name, bool pilot, const Condition& when,
             std::map<std::string, std::string> set) {
    if (when.is_never()) return;
    m_.events.push_back({name, pilot, when, std::move(set)});
  }
  //! A part that may break in some ways, each at any time that `may` allows; what else happens with it.
  struct Way {
    std::string value, fault;
    Condition may = always;
  };
  void part(const std::string& name, const std::vector<Way>& ways) {
    Words values{"works"};
    Part p{name, {}};
    for (const auto& w : ways) {
      values.push_back(w.value);
      p.faults.push_back(w.fault);
    }
    variable(name, values);
    for (const auto& w : ways) {
      m_.faults.push_back({w.fault, {}, {}});
      const Condition when = is(name, {"works"}) && w.may;
      m_.events.push_back({w.fault, true, when, {{name, w.value}}, w.fault});
    }
    w_.parts.push_back(std::move(p));
  }
  Condition works(const std::string& part) const { return is(part, {"works"}); }

  //! The contact of a switch that closes where `base` holds, unless it sticks.
  Contact contact(const std::string& name, const std::string& label, const Condition& base) const {
    return {name, label, (works(name) && base) || is(name, {"closed"}), true};
  }
  //! A switch of its own with that contact and the two faults of its sort.
  Contact sensor(const std::string& name, const std::string& label, const Condition& base) {
    const bool reed = f_.parts.switches == SwitchSort::reed;
    part(name, {{"closed", name + (reed ? ": its reed stays closed" : ": sticks closed"), base},
                {"open", name + (reed ? ": its magnet is lost" : ": its wire breaks")}});
    return contact(name, label, base);
  }
  Contact breaks(Contact c) const {
    c.closed = !c.closed;
    c.makes = false;
    return c;
  }
  static Condition through(const Series& series) {
    Condition all = always;
    for (const auto& parallel : series) {
      Condition any = never;
      for (const auto& c : parallel) any = any || c.closed;
      all = all && any;
    }
    return all;
  }
  Condition rung(const std::string& load, Load sort, Series series, const std::string& colour = {}) {
    const Condition lit = through(series);
    w_.rungs.push_back({load, sort, colour, std::move(series), lit});
    return lit;
  }

  void variables() {
    variable("selector", {"down", "up"});
    variable("aircraft", {"on the ground", "in the air"});
    variable("throttle", {"open", "back"});
    variable("breaker", {"in", "out"});
    if (f_.parts.release != ReleaseKind::none) variable("handle", {"stowed", "pulled"});
    for (const auto& l : f_.legs) {
      variable(leg_variable(l), {"locked down", "at the down stop", "on the way", "up"});
      any_door_ = any_door_ || l.door;
    }
    bool shut = false;
    for (const auto& l : f_.legs)
      if (l.door) {
        variable(door_variable(l), {"closed", "on the way", "open"}, l.closes_down ? 0 : 2);
        shut = shut || l.closes_down;
      }
    if (any_door_)
      variable("doors", {"told to open", "told to close on the gear up", "told to close on the gear down"},
               shut ? 2 : 0);
    if (f_.parts.power == LegPower::pump) {
      motors_.push_back({"pump", {}});
      for (const auto& l : f_.legs) motors_.back().moves.push_back(&l);
    } else {
      for (const auto& l : f_.legs) motors_.push_back({"motor of the " + l.word, {&l}});
    }
    for (auto& motor : motors_) {
      if (motors_.size() > 1) motor.of = ", " + motor.moves[0]->word;
      variable(motor.name, {"off", "raises", "lowers"});
      if (f_.parts.time_out.known()) variable("time-out" + motor.of, {"waits", "has cut off"});
    }
    m_.faults.push_back({"the breaker comes out", {}, {}});
    m_.events.push_back({"the breaker comes out",
                         true,
                         is("breaker", {"in"}),
                         {{"breaker", "out"}},
                         "the breaker comes out"});
    part("battery", {{"lost", "the battery is lost"}});
    part("selector's wires", {{"open", "the selector's wire breaks"}});
    for (const auto& l : f_.legs) {
      part("way of the " + l.word, {{"jammed", "the " + l.word + " jams"}});
      part("down-lock of the " + l.word, {{"open", "the down-lock of the " + l.word + " does not catch",
                                           isnt(leg_variable(l), {"locked down"})}});
      if (l.hook)
        part("up-lock of the " + l.word, {{"shut", "the up-lock of the " + l.word + " does not let go"}});
      if (l.door) part("drive of the " + l.door_word, {{"dead", l.door_word + ": stuck where it is"}});
    }
    for (const auto& motor : motors_)
      part("windings of the " + motor.name, {{"dead", "the " + motor.name + " dies"}});
    if (pumped()) part("fluid", {{"lost", "the fluid is lost"}, {"leaking", "a slow leak"}});
    if (f_.parts.release != ReleaseKind::none)
      part(release(), {{"stuck", "the " + release() + " sticks", is("handle", {"stowed"})}});
    if (f_.parts.time_out.known())
      for (const auto& motor : motors_)
        part("time relay" + motor.of, {{"dead", "the time relay" + motor.of + " dies"}});
    battery_ = works("battery");
    power_ = battery_ && is("breaker", {"in"});
  }
  bool pumped() const { return f_.parts.power == LegPower::pump; }
  std::string release() const { return f_.parts.release == ReleaseKind::dump ? "dump valve" : "clutch"; }
  Condition pulled() const {
    return f_.parts.release == ReleaseKind::none ? never : is("handle", {"pulled"}) && works(release());
  }
  Condition in(const WiredLeg& l, Words values) const { return is(leg_variable(l), std::move(values)); }
  Condition stuck(const WiredLeg& l) const { return is("way of the " + l.word, {"jammed"}); }
  Condition door_stuck(const WiredLeg& l) const {
    return l.door ? is("drive of the " + l.door_word, {"dead"}) : never;
  }

  //! What tells of an end, of each leg: one switch, or two in series.
  void sense() {
    const auto signs = [&](SignPlace place, const WiredLeg& l, bool down) {
      std::vector<Contact> list;
      const std::string end = down ? "down" : "up";
      const Condition on_lock = down ? in(l, {"locked down"}) : in(l, {"up"});
      const Condition on_leg = down ? in(l, {"locked down", "at the down stop"}) : in(l, {"up"});
      const bool both = place == SignPlace::both;
      if (place == SignPlace::on_leg || both)
        list.push_back(sensor(end + " switch of the " + l.word + (both ? ", on the leg" : ""),
                              short_word(l) + (both ? " " + end + ", leg" : " " + end), on_leg));
      if (place == SignPlace::on_lock || both)
        list.push_back(sensor(end + " switch of the " + l.word + (both ? ", on the lock" : ""),
                              short_word(l) + (both ? " " + end + ", lock" : " " + end), on_lock));
      return list;
    };
    for (const auto& l : f_.legs) {
      down_.push_back(signs(f_.parts.down_sign, l, true));
      up_.push_back(signs(f_.parts.up_sign, l, false));
    }
  }
  //! For the diagram, where there is little room.
  static std::string short_word(const WiredLeg& l) {
    return l.word.ends_with(" leg") ? l.word.substr(0, l.word.size() - 4) : l.word;
  }
  //! Closed where all of a leg's switches for an end are; never where it has none.
  static Condition sign(const std::vector<Contact>& switches) {
    if (switches.empty()) return never;
    Condition all = always;
    for (const auto& c : switches) all = all && c.closed;
    return all;
  }
  //! A leg that goes no further in a direction, by itself or by its door.
  Condition stopped(const WiredLeg& l, bool up) const {
    Condition c = (up ? in(l, {"up"}) : in(l, {"locked down"})) || stuck(l);
    if (!up) {
      c = c || (in(l, {"at the down stop"}) && is("down-lock of the " + l.word, {"open"}));
      if (l.hook) c = c || (in(l, {"up"}) && is("up-lock of the " + l.word, {"shut"}));
    }
    // Its door has stopped, or is open and its switch does not tell.
    if (l.door)
      c = c || (!may_pass(l) &&
                (door_stuck(l) || (is(door_variable(l), {"open"}) && is("doors", {"told to open"}))));
    return c;
  }
  //! A leg that waits for a door nobody has told to open.
  Condition shut_in(const WiredLeg& l) const {
    return l.door ? !may_pass(l) && isnt("doors", {"told to open"}) : never;
  }
  //! That its door, as far as the wiring knows, lets a leg pass.
  Condition may_pass(const WiredLeg& l) const {
    if (!l.door) return always;
    if (f_.parts.door_order == DoorOrder::timed)
      // By the clock: it is open by then (Sequence sees to the waits), unless something is wrong with it.
      return is(door_variable(l), {"open"}) || door_stuck(l);
    Condition c = through(door_contacts(l));
    if (f_.parts.door_order == DoorOrder::blocked) c = c && is("doors", {"told to open"});
    return c;
  }
  Words door_switches(const WiredLeg& l) const {
    Words names{"open switch of the " + l.door_word};
    if (f_.parts.door_pairs) names.push_back("second open switch of the " + l.door_word);
    return names;
  }
  Series door_contacts(const WiredLeg& l) const {
    Series s;
    for (const auto& name : door_switches(l))
      s.push_back({contact(name, s.empty() ? l.door_word + " open" : "second switch",
                           is(door_variable(l), {"open"}))});
    return s;
  }

  void command() {
    if (any_door_ && f_.parts.door_order != DoorOrder::timed)
      for (const auto& l : f_.legs)
        for (const auto& name : l.door ? door_switches(l) : Words())
          sensor(name, l.door_word + " open", is(door_variable(l), {"open"}));
    const Condition flying = is("aircraft", {"in the air"});
    for (int i = 0; i < static_cast<int>(f_.parts.squat); ++i) {
      const std::string name = i == 0 ? "squat switch" : "second squat switch";
      part(name, {{"closed", name + ": sticks as in the air", flying},
                  {"open", name + ": sticks as on the ground"}});
      squat_.push_back(contact(name, i == 0 ? "in the air" : "in the air, second", flying));
    }
    if (f_.parts.pressure_switch && pumped())
      part("pressure switch",
           {{"closed", "the pressure switch never opens"}, {"open", "the pressure switch stays open"}});
    for (const auto& motor : motors_) {
      const std::string& of = motor.of;
      part("raising relay" + of, {{"welded", "the raising relay" + of + " welds", is(motor.name, {"raises"})},
                                  {"dead", "the raising relay" + of + " does not pull in"}});
      part("lowering relay" + of,
           {{"welded", "the lowering relay" + of + " welds", is(motor.name, {"lowers"})},
            {"dead", "the lowering relay" + of + " does not pull in"}});
      for (const bool up : {true, false}) ways(motor, up);
    }
    pilot();
    if (f_.parts.time_out.known()) cut_off();
    if (f_.parts.breaker_trips) trip();
  }

  //! One direction of one motor: its rung, what pulls its relay in, what stops it.
  void ways(const Motor& motor, bool up) {
    const std::string& of = motor.of;
    const std::string runs = up ? "raises" : "lowers";
    Series series;
    std::vector<std::pair<std::string, Condition>> stops;  // by what, where it opens
    const auto put = [&](std::vector<Contact> parallel, const std::string& by) {
      stops.emplace_back(by, !through({parallel}));
      series.push_back(std::move(parallel));
    };
    put({{"battery", "breaker", power_, true}}, "");
    if (f_.parts.release != ReleaseKind::none)
      put({{"", "handle stowed", is("handle", {"stowed"}), true}}, "the handle's contact stops");
    put({{"selector's wires", up ? "selector: up" : "selector: down",
          is("selector", {up ? "up" : "down"}) && works("selector's wires"), true}},
        "the selector stops");
    if (up)
      for (const auto& c : squat_) put({c}, "the " + c.part + " stops");
    if (f_.parts.time_out.known())
      put({{"time relay" + of, "timed out", is("time-out" + of, {"waits"}), false}}, "");
    std::vector<Contact> ends;
    for (size_t i = 0; i < f_.legs.size(); ++i) {
      const bool its = std::any_of(motor.moves.begin(), motor.moves.end(),
                                   [&](const WiredLeg* l) { return l == &f_.legs[i]; });
      for (const auto& c : up ? up_[i] : down_[i])
        if (its) ends.push_back(breaks(c));
    }
    if (!ends.empty()) put(ends, up ? "the up switches stop" : "the down switches stop");
    if (f_.parts.pressure_switch && pumped()) {
      Condition full = works("fluid") || is("fluid", {"leaking"});
      for (const auto* l : motor.moves) full = full && stopped(*l, up);
      put({contact("pressure switch", "below cut-out", !(full && !pulled()))}, "the pressure switch stops");
    }
    const std::string relay = (up ? "raising relay" : "lowering relay") + of;
    const std::string other = (up ? "lowering relay" : "raising relay") + of;
    const Condition wish = rung(relay, Load::relay, series);
    const Condition kept = is(relay, {"welded"}) && power_;
    const Condition other_welded =
        is(other, {"welded"}) && is(motor.name, {up ? "lowers" : "raises"}) && power_;
    event("the " + motor.name + (up ? " starts to raise" : " starts to lower"), false,
          isnt(motor.name, {runs}) && wish && works(relay) && !other_welded, {{motor.name, runs}});
    for (const auto& [by, when] : stops) {
      if (by.empty()) continue;
      event(by + " the " + motor.name + (up ? ", raising" : ", lowering"), false,
            is(motor.name, {runs}) && when && !kept && power_, {{motor.name, "off"}});
    }
    event("the " + motor.name + " stops for want of power" + (up ? ", raising" : ", lowering"), false,
          is(motor.name, {runs}) && !power_, {{motor.name, "off"}});
    if (f_.parts.time_out.known())
      event("timed out, the " + motor.name + " stops" + (up ? ", raising" : ", lowering"), false,
            is(motor.name, {runs}) && is("time-out" + of, {"has cut off"}) && !kept && power_,
            {{motor.name, "off"}});
  }

  void pilot() {
    std::map<std::string, std::string> up{{"selector", "up"}};
    std::map<std::string, std::string> down{{"selector", "down"}};
    if (f_.parts.time_out.known())
      for (const auto& motor : motors_) up["time-out" + motor.of] = down["time-out" + motor.of] = "waits";
    event("the pilot selects up", true, is("selector", {"down"}), up);
    event("the pilot selects down", true, is("selector", {"up"}), down);
    Condition locked = always;
    for (const auto& l : f_.legs) locked = locked && in(l, {"locked down"});
    for (const auto& motor : motors_) locked = locked && is(motor.name, {"off"});
    event("the aircraft lifts off", true, is("aircraft", {"on the ground"}) && locked,
          {{"aircraft", "in the air"}});
    event("the aircraft touches down", true, is("aircraft", {"in the air"}) && locked,
          {{"aircraft", "on the ground"}});
    event("the pilot closes the throttle", true, is("throttle", {"open"}), {{"throttle", "back"}});
    event("the pilot opens the throttle", true, is("throttle", {"back"}), {{"throttle", "open"}});
    event("the pilot pushes the breaker in", true, is("breaker", {"out"}), {{"breaker", "in"}});
    if (f_.parts.release != ReleaseKind::none)
      event("the pilot pulls the handle", true, is("handle", {"stowed"}), {{"handle", "pulled"}});
  }

  //! It cuts off where nothing moves any more: it is longer than the slowest leg takes, which is judged
  //! beside.
  void cut_off() {
    for (const auto& motor : motors_) {
      Condition idle = never;
      for (const bool up : {true, false}) {
        Condition still = always;
        for (const auto* l : motor.moves) still = still && stopped(*l, up);
        still = still || is("windings of the " + motor.name, {"dead"});
        if (pumped()) still = still || is("fluid", {"lost"});
        idle = idle ||
               (is("selector", {up ? "up" : "down"}) && is(motor.name, {up ? "raises" : "lowers"}) && still);
      }
      event("the time-out cuts off" + motor.of, false,
            works("time relay" + motor.of) && is("time-out" + motor.of, {"waits"}) && idle,
            {{"time-out" + motor.of, "has cut off"}});
    }
  }
  //! Where it runs against the end of its legs' ways.
  void trip() {
    for (const auto& motor : motors_)
      for (const bool up : {true, false}) {
        Condition still = works("windings of the " + motor.name);
        const Condition welded = is((up ? "raising relay" : "lowering relay") + motor.of, {"welded"});
        for (const auto* l : motor.moves) still = still && (stopped(*l, up) || (welded && shut_in(*l)));
        if (pumped()) still = still && isnt("fluid", {"lost"});
        event("the breaker trips, the " + motor.name + " stalled" + (up ? " raising" : " lowering"), false,
              is(motor.name, {up ? "raises" : "lowers"}) && is("breaker", {"in"}) && still,
              {{"breaker", "out"}});
      }
  }

  void move() {
    for (const auto& l : f_.legs) {
      const auto& motor = *std::find_if(motors_.begin(), motors_.end(), [&](const Motor& m) {
        return std::find(m.moves.begin(), m.moves.end(), &l) != m.moves.end();
      });
      const Condition free = works("way of the " + l.word);
      Condition driven = works("windings of the " + motor.name) && free && !pulled();
      if (pumped()) driven = driven && isnt("fluid", {"lost"});
      const Condition passes = may_pass(l);
      const Condition raised = driven && is(motor.name, {"raises"}) && passes;
      const Condition lowered = driven && is(motor.name, {"lowers"}) && passes;
      const Condition let_go = l.hook ? works("up-lock of the " + l.word) : always;
      const std::string v = leg_variable(l);
      const std::string the = "the " + l.word;
      event(the + " leaves down", false, in(l, {"locked down", "at the down stop"}) && raised,
            {{v, "on the way"}});
      event(the + " reaches up", false, in(l, {"on the way"}) && raised, {{v, "up"}});
      event(the + " leaves up", false, in(l, {"up"}) && lowered && let_go, {{v, "on the way"}});
      // It arrives and locks in one: between the two nothing else is told apart.
      const Condition locks = works("down-lock of the " + l.word);
      event(the + " reaches its down stop and locks", false, in(l, {"on the way"}) && lowered && locks,
            {{v, "locked down"}});
      event(the + " reaches its down stop, not locked", false, in(l, {"on the way"}) && lowered && !locks,
            {{v, "at the down stop"}});
      if (!pulled().is_never()) {
        Condition clear = always;
        if (l.door) clear = is(door_variable(l), {"open"}) || door_stuck(l);
        event(the + " falls from up", false, in(l, {"up"}) && pulled() && free && let_go && clear,
              {{v, "on the way"}});
        if (l.falls)
          for (const bool lock : {true, false})
            event(the + (lock ? " falls to its down stop and locks" : " falls to its down stop, not locked"),
                  false, in(l, {"on the way"}) && pulled() && free && (lock ? locks : !locks),
                  {{v, lock ? "locked down" : "at the down stop"}});
      }
      if (pumped() && !l.hook) {
        event(the + " sinks out of its well", false,
              in(l, {"up"}) && is("fluid", {"lost", "leaking"}) && free && is(motor.name, {"off"}),
              {{v, "on the way"}});
      }
    }
  }

  void doors() {
    if (!any_door_) return;
    const bool timed = f_.parts.door_order == DoorOrder::timed;
    Condition wants_open = never;
    std::array<Condition, 2> may_close;  // gear up, gear down
    Condition idle = always;
    for (const auto& motor : motors_) idle = idle && is(motor.name, {"off"});
    for (const bool up : {true, false}) {
      const Condition selected = is("selector", {up ? "up" : "down"}) && works("selector's wires");
      Condition there = always;
      bool closes = false;
      for (size_t i = 0; i < f_.legs.size(); ++i) {
        const WiredLeg& l = f_.legs[i];
        closes = closes || (l.door && (up ? l.closes_up : l.closes_down));
        // By the clock: it is there by then, unless something is wrong with it.
        Condition at = timed ? stopped(l, up) : sign(up ? up_[i] : down_[i]);
        if (timed && pumped()) at = at || isnt("fluid", {"works"});
        there = there && at;
      }
      if (timed)
        for (const auto& motor : motors_) there = there || is("windings of the " + motor.name, {"dead"});
      Condition wish = selected && !there;
      if (up)
        for (const auto& c : squat_) wish = wish && c.closed;
      wants_open = wants_open || wish;
      if (closes) may_close[up ? 0 : 1] = selected && there && (timed ? always : idle);
    }
    wants_open = wants_open || pulled();
    event("the doors are told to open", false,
          isnt("doors", {"told to open"}) && wants_open && (power_ || pulled()), {{"doors", "told to open"}});
    for (const size_t i : {0u, 1u}) {
      const std::string told = i == 0 ? "told to close on the gear up" : "told to close on the gear down";
      event("the doors are " + told, false,
            is("doors", {"told to open"}) && may_close[i] && power_ && !pulled(), {{"doors", told}});
    }
    for (const auto& l : f_.legs) {
      if (!l.door) continue;
      const std::string v = door_variable(l);
      const Condition drive = works("drive of the " + l.door_word);
      // The handle lets them fall open.
      const Condition opens = (is("doors", {"told to open"}) && power_) || pulled();
      Condition closes = never;
      if (l.closes_up) closes = closes || is("doors", {"told to close on the gear up"});
      if (l.closes_down) closes = closes || is("doors", {"told to close on the gear down"});
      closes = closes && power_ && !pulled();
      event(l.door_word + ": opening", false, is(v, {"closed"}) && opens && drive, {{v, "on the way"}});
      event(l.door_word + ": open", false, is(v, {"on the way"}) && opens && drive, {{v, "open"}});
      event(l.door_word + ": closing", false, is(v, {"open"}) && closes && drive, {{v, "on the way"}});
      event(l.door_word + ": closed", false, is(v, {"on the way"}) && closes && drive, {{v, "closed"}});
      if (f_.parts.door_order != DoorOrder::timed) {
        Series series = door_contacts(l);
        if (f_.parts.door_order == DoorOrder::blocked)
          series.push_back({{"", "told to close", is("doors", {"told to open"}), false}});
        rung("valve: " + short_word(l), Load::valve, series);
      }
    }
  }

  Condition signal_power() const { return f_.parts.signals_apart ? battery_ : power_; }
  Contact signal_contact() const {
    return {"battery", f_.parts.signals_apart ? "signals' breaker" : "breaker", signal_power(), true};
  }
  Condition lamp(const std::string& name, const std::string& colour, Series series) {
    series.insert(series.begin(), {signal_contact()});
    const Condition lit = rung(name, Load::lamp, std::move(series), colour);
    m_.outputs.push_back({name, lit});
    return lit;
  }
  Condition unlocked(const WiredLeg& l) const { return isnt(leg_variable(l), {"locked down"}); }
  Condition any_unlocked() const {
    Condition any = never;
    for (const auto& l : f_.legs) any = any || unlocked(l);
    return any;
  }
  void show() {
    const auto all = [](const std::vector<std::vector<Contact>>& of) {
      Series s;
      for (const auto& leg : of)
        for (const auto& c : leg) s.push_back({c});
      return s;
    };
    const auto any_not = [&](const std::vector<std::vector<Contact>>& of) {
      std::vector<Contact> p;
      for (const auto& leg : of)
        for (const auto& c : leg) p.push_back(breaks(c));
      return p;
    };
    const bool have_down = f_.parts.down_sign != SignPlace::none;
    const bool have_up = f_.parts.up_sign != SignPlace::none;
    const LampSchool school = f_.parts.lamps;
    lies_ = any_unlocked();  // without lamps nothing tells
    if (school != LampSchool::none && have_down) {
      if (school == LampSchool::one_green) {
        lies_ = lies_ && lamp("green: all down", "green", all(down_));
      } else if (school == LampSchool::red_until_locked) {
        lies_ = lies_ && battery_ && !lamp("red: not locked down", "red", {any_not(down_)});
      } else {
        lies_ = never;
        for (size_t i = 0; i < f_.legs.size(); ++i)
          lies_ = lies_ || (unlocked(f_.legs[i]) &&
                            lamp("green: " + short_word(f_.legs[i]), "green", all({down_[i]})));
      }
      if (have_up) {
        lamp("amber: on the way", "amber", {any_not(down_), any_not(up_)});
        if (school == LampSchool::greens_blue_up) lamp("blue: all up", "blue", all(up_));
      }
    }
    horn_ = never;
    if (f_.parts.horn != HornBy::none && have_down) {
      std::vector<Contact> wants{sensor("throttle switch", "throttle back", is("throttle", {"back"}))};
      if (f_.parts.horn == HornBy::throttle_or_speed)
        wants.push_back(sensor("speed switch", "slow", is("throttle", {"back"})));
      horn_ = rung("horn", Load::horn, {{signal_contact()}, wants, any_not(down_)});
    }
    m_.outputs.push_back({"horn", horn_});
  }

  void demand(Rule rule, const std::string& name, Demand demand, Condition pattern) {
    if (pattern.is_never()) return;  // there is nothing that could come to it
    m_.properties.push_back({name, demand, std::move(pattern)});
    w_.rules.push_back(rule);
  }
  void demands() {
    Condition against = never;
    const std::array<Words, 3> leg_at{Words{"locked down", "at the down stop"}, {"on the way"}, {"up"}};
    const std::array<const char*, 3> door_at{"closed", "on the way", "open"};
    for (const auto& l : f_.legs)
      for (size_t i = 0; i < 3 && l.door; ++i)
        for (size_t j = 0; j < 3; ++j)
          if (l.clash[i][j]) against = against || (in(l, leg_at[i]) && is(door_variable(l), {door_at[j]}));
    if (f_.parts.release != ReleaseKind::none) against = against && is("handle", {"stowed"});
    demand(Rule::door, "no leg against its door", Demand::never, against);

    Condition running = never;
    const Condition up_or_between = any_unlocked();
    for (const auto& motor : motors_)
      running = running || (is(motor.name, {"raises", "lowers"}) && works("windings of the " + motor.name));
    // With the handle pulled the pilot has the gear in hand, and its breaker.
    if (f_.parts.release != ReleaseKind::none) running = running && is("handle", {"stowed"});
    demand(Rule::motor, "no motor runs for ever", Demand::ends, running);

    demand(Rule::lamp, "no lamp says locked down when it is not", Demand::never, lies_);
    demand(Rule::horn, "the horn sounds, throttle back, not locked down", Demand::never,
           is("throttle", {"back"}) && up_or_between && battery_ && !horn_);

    Condition hangs = never;
    for (const auto& l : f_.legs) {
      Condition c = unlocked(l) && works("way of the " + l.word) && works("down-lock of the " + l.word);
      if (l.hook) c = c && works("up-lock of the " + l.word);
      hangs = hangs || c;
    }
    Condition asked = is("selector", {"down"});
    // A release that sticks is not asked: the drive then still lowers it.
    asked = asked && (f_.parts.release != ReleaseKind::none ? pulled() : is("breaker", {"in"}));
    demand(Rule::fall, "it comes down without power", Demand::ends, hangs && asked);

    demand(Rule::ground, "no leg unlocks on the ground", Demand::never,
           is("aircraft", {"on the ground"}) && up_or_between);
    demand(Rule::settles, "it comes to rest by itself", Demand::settles, always);
    Condition sound = is("selector", {"down"}) && power_ && up_or_between;
    for (const auto& p : w_.parts)
      if (f_.parts.release == ReleaseKind::none || p.name != release()) sound = sound && works(p.name);
    if (f_.parts.release != ReleaseKind::none) sound = sound && is("handle", {"stowed"});
    demand(Rule::comes, "selected down it comes down", Demand::ends, sound);
  }

  const Fitted& f_;
  Wiring w_;
  Machine& m_;
  std::vector<Motor> motors_;
  std::vector<std::vector<Contact>> down_, up_;
  std::vector<Contact> squat_;
  Condition battery_, power_;
  Condition horn_, lies_;  //!< sounds; a lamp says locked down of a leg that is not
  bool any_door_ = false;
};

}  // namespace

Wiring wire(const Fitted& fitted) { return Builder(fitted).build(); }

std::vector<StateRow> state_table(const Wiring& w, const Fitted& f) {
  std::vector<StateRow> rows;
  const auto row = [&](const std::string& situation, bool broken, const State& state) {
    for (const char* selector : {"down", "up"}) {
      State now = state;
      now["selector"] = selector;
      StateRow r{selector, situation, broken, {}};
      for (const Rung& rung : w.rungs) r.lit.push_back(rung.lit.holds(now));
      rows.push_back(std::move(r));
    }
  };
  State base = w.machine.initial;
  base["aircraft"] = "in the air";
  base["throttle"] = "back";
  const auto legs_at = [&](const std::string& place) {
    State s = base;
    for (const auto& l : f.legs) {
      s[leg_variable(l)] = place;
      if (l.door && place == "on the way") s[door_variable(l)] = "open";
    }
    if (s.count("doors") && place == "on the way") s["doors"] = "told to open";
    return s;
  };
  row("all locked down", false, legs_at("locked down"));
  row("all on the way", false, legs_at("on the way"));
  row("all up", false, legs_at("up"));
  for (const auto& l : f.legs) {
    for (const char* others : {"locked down", "up"}) {
      if (f.legs.size() == 1) break;
      State s = legs_at(others);
      s[leg_variable(l)] = "on the way";
      row("the " + l.word + " on the way, the others " + others, false, s);
    }
  }
  for (const auto& l : f.legs) {
    State s = legs_at("locked down");
    s[leg_variable(l)] = "at the down stop";
    row("the " + l.word + " down, not locked", true, s);
  }
  for (const Part& part : w.parts)
    for (const bool down : {true, false}) {
      if (part.name.rfind(down ? "down switch of" : "up switch of", 0) != 0) continue;
      const auto faulty = [&](State s, const char* how, const std::string& words) {
        s[part.name] = how;
        row(words, true, s);
      };
      faulty(legs_at("on the way"), "closed", part.name + " stuck closed, all on the way");
      faulty(legs_at(down ? "locked down" : "up"), "open",
             part.name + (down ? " broken, all locked down" : " broken, all up"));
    }
  return rows;
}

std::vector<std::string> taken_words() {
  static constexpr const char* words[]{"selector", "aircraft", "throttle",   "breaker",     "handle",
                                       "doors",    "pump",     "battery",    "fluid",       "horn",
                                       "time-out", "clutch",   "dump valve", "squat switch"};
  return {std::begin(words), std::end(words)};
}

std::string leg_variable(const WiredLeg& leg) { return leg.word; }
std::string door_variable(const WiredLeg& leg) { return leg.door_word; }
double leg_place(const std::string& value) {
  return value == "up" ? 1 : value == "on the way" ? 0.5 : value == "at the down stop" ? 0.04 : 0;
}
double door_place(const std::string& value) { return value == "open" ? 1 : value == "on the way" ? 0.5 : 0; }

}  // namespace kranich::logic
