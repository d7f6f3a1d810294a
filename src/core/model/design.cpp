// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/design.h"

#include <algorithm>
#include <cmath>

namespace kranich {
namespace {

std::string role_word(LegRole role) {
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

std::string Design::leg_word(const Leg& leg) const {
  if (!leg.name.empty()) return leg.name;
  std::string word = role_word(leg.role);
  const auto lines = lines_of(gear, leg.role);
  for (size_t i = 0; lines.size() > 1 && i < lines.size(); ++i)
    if (std::any_of(lines[i].begin(), lines[i].end(),
                    [&](size_t row) { return gear.legs[row].id == leg.id; }))
      word = (i == 0 ? "front " : i + 1 == lines.size() ? "rear " : "middle ") + word;
  if (leg.stands == LegStands::starboard) word = "starboard " + word;
  if (leg.stands == LegStands::port) word = "port " + word;
  return word;
}

std::string Design::part_word(const Leg& leg, const std::string& noun) const {
  std::string word = leg_word(leg);
  if (word.ends_with(" leg")) word.resize(word.size() - 4);
  return noun.empty() ? word : word + " " + noun;
}

std::string Design::legs_word(const Leg& leg) const {
  const std::string word = leg_word(leg);
  return leg.stands == LegStands::both_sides && leg.name.empty() ? word + "s" : word;
}

std::string Design::actor_word(const std::string& id) const {
  for (const auto& door : doors)
    if (door.id == id) return door.name.empty() ? "door " + id : door.name;
  if (const Leg* leg = gear.find(id)) return legs_word(*leg);
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
