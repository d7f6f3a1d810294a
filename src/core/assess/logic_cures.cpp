// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/logic_cures.h"

#include <cmath>

#include "core/assess/logic_state.h"
#include "core/sequence/sequence.h"

namespace kranich {
namespace {

struct Change {
  const char* id;
  Text words;
  std::function<void(Logic&)> put;
};

//! What is not yet there of all that logic can be given, in the order in which it is thought of.
class Changes {
 public:
  Changes(const Design& d, const Assessment& a) : d_(d), a_(a), l_(d.logic) {}

  std::vector<Change> for_rule(std::string_view id) {
    if (id == "logic.door") {
      ordered();
      add(!l_.door_pairs && l_.door_order != DoorOrder::timed, "door_pairs",
          "two open switches on each door, in series", [](Logic& l) { l.door_pairs = true; });
      doubled(true);
      doubled(false);
    } else if (id == "logic.motor") {
      time_out();
      add(!l_.breaker_trips, "breaker_trips", "a breaker that trips when the motor stalls",
          [](Logic& l) { l.breaker_trips = true; });
      ends();
    } else if (id == "logic.lamp") {
      lamps();
      doubled(true);
    } else if (id == "logic.horn") {
      horn();
      apart();
      doubled(true);
    } else if (id == "logic.fall") {
      release();
    } else if (id == "logic.ground") {
      add(l_.squat != SquatKind::two, "squat_two", "two squat switches in series",
          [](Logic& l) { l.squat = SquatKind::two; });
      add(l_.squat == SquatKind::none, "squat_one", "a squat switch on a main leg",
          [](Logic& l) { l.squat = SquatKind::one; });
    } else if (id == "logic.settles" || id == "logic.comes") {
      ordered();
      time_out();
      ends();
    } else if (id == "logic.switches") {
      add(true, "micro", "microswitches on brackets, set by feel",
          [](Logic& l) { l.switches = SwitchSort::microswitch; });
      add(true, "metal", "magnets and contacts screwed to metal", [](Logic& l) { l.plastic_mounts = false; });
    } else if (id == "logic.time_out") {
      time_out();
    }
    return std::move(list_);
  }

 private:
  void add(bool wanted, const char* id, Text words, std::function<void(Logic&)> put) {
    if (wanted) list_.push_back({id, std::move(words), std::move(put)});
  }
  void ordered() {
    add(l_.door_order != DoorOrder::blocked, "door_order",
        "doors and legs by contacts, no start while a door closes",
        [](Logic& l) { l.door_order = DoorOrder::blocked; });
    add(l_.up_sign == SignPlace::none || l_.down_sign == SignPlace::none, "ends_told",
        "switches for down and up on every lock", [](Logic& l) {
          if (l.up_sign == SignPlace::none) l.up_sign = SignPlace::on_lock;
          if (l.down_sign == SignPlace::none) l.down_sign = SignPlace::on_lock;
        });
  }
  void ends() {
    add(l_.up_sign == SignPlace::none, "up_switch", "switches that tell of up",
        [](Logic& l) { l.up_sign = SignPlace::on_leg; });
    add(l_.down_sign == SignPlace::none, "down_switch", "switches on the down-locks",
        [](Logic& l) { l.down_sign = SignPlace::on_lock; });
    add(l_.power == LegPower::pump && !l_.pressure_switch, "pressure_switch",
        "a pressure switch that stops the pump", [](Logic& l) { l.pressure_switch = true; });
  }
  void doubled(bool down) {
    const SignPlace now = down ? l_.down_sign : l_.up_sign;
    const auto put = [down](SignPlace place) {
      return [down, place](Logic& l) { (down ? l.down_sign : l.up_sign) = place; };
    };
    if (now == SignPlace::none || now == SignPlace::on_leg)
      add(true, down ? "down_on_lock" : "up_on_lock",
          down ? "down told by a switch on the lock's link, set to trip past centre"
               : "up told by a switch on the up-lock",
          put(SignPlace::on_lock));
    if (now != SignPlace::both)
      add(true, down ? "down_both" : "up_both",
          down ? "down told by two switches in series, one on the leg, one on the lock"
               : "up told by two switches in series, one on the leg, one on the lock",
          put(SignPlace::both));
  }
  void time_out() {
    const double run = longest_run(d_, a_.times);
    if (!std::isfinite(run)) return;
    // Half as long again as the slowest run, to the next half second.
    const double wanted = std::ceil(1.5 * run * 2) / 2;
    add(!l_.time_out.known() || l_.time_out < run, "time_out",
        say("a time-out of {}", Amount{wanted, Kind::time}),
        [wanted](Logic& l) { l.time_out = Given(wanted); });
  }
  void lamps() {
    add(l_.lamps == LampSchool::none, "lamps", "a green lamp for each leg, dark when up",
        [](Logic& l) { l.lamps = LampSchool::greens_dark_up; });
    add(l_.lamps == LampSchool::red_until_locked, "greens",
        "a green lamp for each leg, so that no power is not taken for locked",
        [](Logic& l) { l.lamps = LampSchool::greens_dark_up; });
  }
  void horn() {
    add(l_.horn != HornBy::throttle_or_speed, "horn_two", "a horn by throttle or speed, two switches",
        [](Logic& l) { l.horn = HornBy::throttle_or_speed; });
    add(l_.horn == HornBy::none, "horn", "a horn by the throttle",
        [](Logic& l) { l.horn = HornBy::throttle; });
  }
  void apart() {
    add(!l_.signals_apart, "signals_apart", "lamps and horn on a breaker of their own",
        [](Logic& l) { l.signals_apart = true; });
  }
  void release() {
    add(l_.release == ReleaseKind::none && l_.power == LegPower::pump, "dump",
        "a dump valve that joins both sides to the tank", [](Logic& l) { l.release = ReleaseKind::dump; });
    add(l_.release == ReleaseKind::none && l_.power == LegPower::motors, "clutch",
        "a clutch that lets the legs fall", [](Logic& l) { l.release = ReleaseKind::clutch; });
  }

  const Design& d_;
  const Assessment& a_;
  const Logic& l_;
  std::vector<Change> list_;
};

}  // namespace

std::vector<KnobRef> logic_swaps(const Design& d, const Assessment& before, const Finding& finding) {
  const auto changes = Changes(d, before).for_rule(finding.measure_id);
  std::vector<KnobRef> list;
  for (const auto& c : changes)
    list.push_back(
        one_choice(std::string("logic.") + c.id, c.words, [put = c.put](Design& x) { put(x.logic); }));
  // Together, as far as they do not undo one another.
  std::vector<const Change*> together;
  std::string id = "logic.";
  std::vector<Text> words;
  for (const auto& c : changes) {
    const std::string_view what = c.id;
    if (what == "squat_one" || what == "horn" || what == "down_on_lock" || what == "up_on_lock" ||
        what == "metal")
      continue;
    together.push_back(&c);
    id += (together.size() > 1 ? "+" : "") + std::string(c.id);
    words.push_back(c.words);
    if (together.size() < 2) continue;
    list.push_back(one_choice(id, enumerated(words), [puts = [&] {
                                std::vector<std::function<void(Logic&)>> all;
                                for (const auto* t : together) all.push_back(t->put);
                                return all;
                              }()](Design& x) {
      for (const auto& put : puts) put(x.logic);
    }));
  }
  return list;
}

}  // namespace kranich
