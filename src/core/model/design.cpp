// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/design.h"

#include <algorithm>
#include <cmath>

namespace kranich {
namespace {

const char* role_word(LegRole role) {
  switch (role) {
    case LegRole::main:
      return "main leg";
    case LegRole::nose:
      return "nose leg";
    case LegRole::tail:
      return "tail leg";
    case LegRole::outrigger:
      return "outrigger";
  }
  return "leg";
}
//! As role_word, for a noun to stand behind it.
const char* role_stem(LegRole role) {
  switch (role) {
    case LegRole::main:
      return "main";
    case LegRole::nose:
      return "nose";
    case LegRole::tail:
      return "tail";
    case LegRole::outrigger:
      return "outrigger";
  }
  return "";
}

//! Which of the legs of its role it is, said before the word for it.
Text told_apart(const Gear& gear, const Leg& leg, Text word) {
  const auto lines = lines_of(gear, leg.role);
  for (size_t i = 0; lines.size() > 1 && i < lines.size(); ++i)
    if (std::any_of(lines[i].begin(), lines[i].end(),
                    [&](size_t row) { return gear.legs[row].id == leg.id; }))
      word = i == 0                  ? say("front {}", std::move(word))
             : i + 1 == lines.size() ? say("rear {}", std::move(word))
                                     : say("middle {}", std::move(word));
  if (leg.stands == LegStands::starboard) return say("starboard {}", std::move(word));
  if (leg.stands == LegStands::port) return say("port {}", std::move(word));
  return word;
}

}  // namespace

Layout Design::layout() const {
  if (!gear.has(LegRole::main)) return Layout::none;
  const bool lines = lines_of(gear, LegRole::main).size() > 1;
  if (gear.has(LegRole::nose)) return lines ? Layout::four_mains : Layout::tricycle;
  if (gear.has(LegRole::tail)) return lines ? Layout::four_mains : Layout::tailwheel;
  if (!lines) return Layout::none;
  const bool on_the_centre_line = std::all_of(gear.legs.begin(), gear.legs.end(), [](const Leg& l) {
    return l.role != LegRole::main || l.stands == LegStands::centre;
  });
  return on_the_centre_line ? Layout::tandem : Layout::quadricycle;
}

bool Design::on_two_lines() const {
  const Layout l = layout();
  return l == Layout::tandem || l == Layout::quadricycle;
}

const char* Design::third_word() const {
  return gear.has(LegRole::tail) ? "tail" : gear.has(LegRole::nose) ? "nose" : "front";
}

Text Design::leg_word(const Leg& leg) const {
  return leg.name.empty() ? told_apart(gear, leg, role_word(leg.role)) : Text(leg.name);
}

Text Design::stem_word(const Leg& leg) const {
  if (leg.name.empty()) return told_apart(gear, leg, role_stem(leg.role));
  return leg.name.ends_with(" leg") ? leg.name.substr(0, leg.name.size() - 4) : leg.name;
}

Text Design::wheel_word(const Leg& leg) const { return say("{} wheel", stem_word(leg)); }

Text Design::legs_word(const Leg& leg) const {
  return leg.stands == LegStands::both_sides && leg.name.empty() ? say("{}s", leg_word(leg)) : leg_word(leg);
}

Text Design::actor_word(const std::string& id) const {
  for (const auto& door : doors)
    if (door.id == id) return door.name.empty() ? say("door {}", id) : Text(door.name);
  if (const Leg* leg = gear.find(id)) return legs_word(*leg);
  for (const Aid& aid : sequence.aids) {
    if (aid.id != id) continue;
    const Leg* leg = gear.find(aid.leg);
    const Text whose = leg ? legs_word(*leg) : Text(aid.leg);
    return aid.kind == AidKind::steering  ? say("steering, {}", whose)
           : aid.kind == AidKind::up_lock ? say("up-lock, {}", whose)
                                          : say("brakes, {}", whose);
  }
  return id;
}

const Leg& Design::port_leg() const {
  for (const auto& l : gear.legs)
    if (l.role == LegRole::main && l.stands == LegStands::port) return l;
  return gear.main();
}

bool Design::unlinked() const {
  return port_leg().stands == LegStands::port && gear.main().stands == LegStands::starboard;
}

}  // namespace kranich
