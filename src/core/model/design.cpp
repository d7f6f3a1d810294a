// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/design.h"

#include <algorithm>
#include <cmath>

namespace kranich {
namespace {

//! Stations of the lines that the legs of a role stand in, front first: a line is what stands within half a
//! wheel's radius of its first leg.
std::vector<double> lines_of(const Gear& gear, LegRole role) {
  std::vector<double> stations;
  double near = 1e-3;
  for (const auto& l : gear.legs)
    if (l.role == role && l.axle.x.known()) {
      stations.push_back(l.axle.x);
      if (l.wheel.diameter.known()) near = std::max(near, l.wheel.diameter / 4);
    }
  std::sort(stations.begin(), stations.end());
  stations.erase(
      std::unique(stations.begin(), stations.end(), [near](double a, double b) { return b - a < near; }),
      stations.end());
  return stations;
}

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

const char* Design::third_word() const {
  return gear.has(LegRole::tail) ? "tail" : gear.has(LegRole::nose) ? "nose" : "front";
}

std::string Design::leg_word(const Leg& leg) const {
  if (!leg.name.empty()) return leg.name;
  std::string word = role_word(leg.role);
  const auto lines = lines_of(gear, leg.role);
  if (lines.size() > 1 && leg.axle.x.known()) {
    const auto at = std::min_element(lines.begin(), lines.end(), [&](double a, double b) {
      return std::abs(a - leg.axle.x) < std::abs(b - leg.axle.x);
    });
    word = (at == lines.begin() ? "front " : at + 1 == lines.end() ? "rear " : "middle ") + word;
  }
  if (leg.stands == LegStands::starboard) word = "starboard " + word;
  if (leg.stands == LegStands::port) word = "port " + word;
  return word;
}

std::string Design::wheel_word(const Leg& leg) const {
  std::string word = leg_word(leg);
  if (word.ends_with(" leg")) return word.substr(0, word.size() - 3) + "wheel";
  return word + " wheel";
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
