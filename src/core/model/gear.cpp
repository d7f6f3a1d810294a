// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/gear.h"

#include <algorithm>
#include <stdexcept>

namespace kranich {
namespace {

template <class Legs>
auto find_in(Legs& legs, std::string_view id) -> decltype(&legs[0]) {
  const auto at = std::find_if(legs.begin(), legs.end(), [&](const Leg& l) { return l.id == id; });
  return at == legs.end() ? nullptr : &*at;
}

const Leg& empty_leg() {
  static const Leg none;
  return none;
}

Leg& changeable(Gear& gear, const Leg* leg) {
  if (!leg) throw std::logic_error("there is no such leg");
  return gear.legs[static_cast<size_t>(leg - gear.legs.data())];
}

const Leg* third_of(const Gear& g) {
  const auto at = std::find_if(g.legs.begin(), g.legs.end(), [](const Leg& l) {
    return l.role == LegRole::nose || l.role == LegRole::tail;
  });
  return at == g.legs.end() ? nullptr : &*at;
}

}  // namespace

Vec3 Leg::held_at() const {
  if (retraction.fitted && retraction.pivot.known()) return retraction.pivot.vec();
  if (path != LegPath::straight && hinge.known()) return hinge.vec();
  return top.vec();
}

const Leg* Gear::find(std::string_view id) const { return find_in(legs, id); }
Leg* Gear::find(std::string_view id) { return find_in(legs, id); }

const Leg& Gear::leg(std::string_view id) const {
  const Leg* found = find(id);
  return found ? *found : empty_leg();
}
Leg& Gear::leg(std::string_view id) { return changeable(*this, find(id)); }

const Leg* Gear::first(LegRole role) const {
  const auto at = std::find_if(legs.begin(), legs.end(), [&](const Leg& l) { return l.role == role; });
  return at == legs.end() ? nullptr : &*at;
}

const Leg& Gear::main() const {
  const Leg* leg = first(LegRole::main);
  return leg ? *leg : empty_leg();
}
const Leg& Gear::third() const {
  const Leg* leg = third_of(*this);
  return leg ? *leg : empty_leg();
}
Leg& Gear::main() { return changeable(*this, first(LegRole::main)); }
Leg& Gear::third() { return changeable(*this, third_of(*this)); }

std::vector<PlacedLeg> placed_legs(const Gear& gear) {
  std::vector<PlacedLeg> list;
  for (size_t row = 0; row < gear.legs.size(); ++row) {
    const LegStands stands = gear.legs[row].stands;
    if (stands == LegStands::both_sides || stands == LegStands::port) list.push_back({row, true});
    if (stands != LegStands::port) list.push_back({row, false});
  }
  return list;
}

std::vector<std::vector<size_t>> lines_of(const Gear& gear, LegRole role) {
  std::vector<size_t> rows;
  double near = 1e-3;
  for (size_t row = 0; row < gear.legs.size(); ++row) {
    const Leg& leg = gear.legs[row];
    if (leg.role != role || !leg.axle.x.known()) continue;
    rows.push_back(row);
    if (leg.wheel.diameter.known()) near = std::max(near, leg.wheel.diameter / 4);
  }
  const auto station = [&](size_t row) { return gear.legs[row].axle.x.si; };
  std::stable_sort(rows.begin(), rows.end(), [&](size_t a, size_t b) { return station(a) < station(b); });
  std::vector<std::vector<size_t>> lines;
  double foremost = 0;
  for (const size_t row : rows) {
    if (lines.empty() || station(row) - foremost >= near) {
      lines.emplace_back();
      foremost = station(row);
    }
    lines.back().push_back(row);
  }
  for (auto& line : lines) std::sort(line.begin(), line.end());
  return lines;
}

size_t placed_index(const Gear& gear, size_t row) {
  size_t index = 0;
  for (size_t i = 0; i <= row && i < gear.legs.size(); ++i)
    index += gear.legs[i].stands == LegStands::both_sides ? 2 : 1;
  return index - 1;
}

size_t row_of(const Gear& gear, std::string_view id) {
  const Leg* leg = gear.find(id);
  return leg ? static_cast<size_t>(leg - gear.legs.data()) : gear.legs.size();
}

}  // namespace kranich
