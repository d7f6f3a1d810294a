// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/subjects.h"

namespace kranich {
namespace {

Subject of(const Leg& leg, Text words, const char* what) {
  return {std::move(words), what + (":" + leg.id), leg.id};
}

}  // namespace

Subject about_leg(const Design& d, const Leg& leg) { return of(leg, d.leg_word(leg), "leg"); }

Subject about_leg_on(const Design& d, const Leg& leg, bool port) {
  const Text word = d.leg_word(leg);
  return port ? of(leg, say("port {}", word), "port leg")
              : of(leg, say("starboard {}", word), "starboard leg");
}

Subject about_legs(const Design& d, const Leg& leg) { return of(leg, d.legs_word(leg), "legs"); }
Subject about_leg_way(const Design& d, const Leg& leg, bool up) {
  const Text legs = d.legs_word(leg);
  return {up ? say("{}, going up", legs) : say("{}, going down", legs), leg.id + (up ? "/up" : "/down"),
          leg.id};
}
Subject about_wheel(const Design& d, const Leg& leg) { return of(leg, d.wheel_word(leg), "wheel"); }
Subject about_unit(const Design& d, const Leg& leg) {
  return of(leg, say("{} unit", d.stem_word(leg)), "unit");
}

Subject about_member(const Design& d, const Leg& leg, const std::string& part) {
  return {say("{}, {}", d.leg_word(leg), part), "leg:" + leg.id + "/" + part, leg.id};
}

Subject about_door(const Design& d, const std::string& id) { return {d.actor_word(id), "door:" + id}; }
Subject about_door(const Design& d, const std::string& id, bool up) {
  const Text door = d.actor_word(id);
  return {up ? say("{}, going up", door) : say("{}, going down", door),
          "door:" + id + (up ? "/up" : "/down")};
}

}  // namespace kranich
