// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/moves.h"

#include <algorithm>
#include <cmath>

namespace kranich {

std::vector<size_t> line_of(const Design& d, size_t row) {
  if (row >= d.gear.legs.size()) return {};
  for (auto& line : lines_of(d.gear, d.gear.legs[row].role))
    if (std::find(line.begin(), line.end(), row) != line.end()) return line;
  return {row};
}

std::vector<LegLine> leg_lines(const Design& d) {
  std::vector<LegLine> lines;
  std::vector<bool> taken(d.gear.legs.size(), false);
  for (size_t row = 0; row < d.gear.legs.size(); ++row) {
    if (taken[row]) continue;
    LegLine line{line_of(d, row), {}, {}, false};
    for (const size_t r : line.rows) {
      taken[r] = true;
      line.ids.push_back(d.gear.legs[r].id);
    }
    Leg spokesman = d.gear.legs[row];
    line.several = line.rows.size() > 1 || spokesman.stands == LegStands::both_sides;
    if (line.rows.size() > 1) {
      spokesman.name.clear();
      spokesman.stands = LegStands::both_sides;
    }
    line.word = d.stem_word(spokesman);
    lines.push_back(std::move(line));
  }
  return lines;
}

void shift_legs(Design& d, const std::vector<size_t>& rows, double dx, double dy, double dz) {
  for (const size_t row : rows) {
    Leg& leg = d.gear.legs[row];
    shift_leg(leg, dx, dy, dz);
    for (auto& item : d.ledger) {
      if (item.moves.empty() || item.moves != leg.id) continue;
      item.at.x.si += dx;
      item.at.z.si += dz;
      // An item on the centre line stands for both legs of a pair: it does not go sideways.
      if (item.at.y.si != 0) item.at.y.si += item.at.y.si > 0 ? dy : -dy;
    }
  }
}

void shift_mains(Design& d, double dx, double dy, double dz) {
  std::vector<size_t> rows;
  for (size_t i = 0; i < d.gear.legs.size(); ++i)
    if (d.gear.legs[i].role == LegRole::main) rows.push_back(i);
  shift_legs(d, rows, dx, dy, dz);
}

std::string unused_id(const Design& d, const std::string& word) {
  for (int n = 1;; ++n) {
    const std::string id = n == 1 ? word : word + "-" + std::to_string(n);
    const bool door = std::any_of(d.doors.begin(), d.doors.end(), [&](const Door& x) { return x.id == id; });
    const bool aid =
        std::any_of(d.sequence.aids.begin(), d.sequence.aids.end(), [&](const Aid& x) { return x.id == id; });
    if (!door && !aid && !d.gear.find(id)) return id;
  }
}

size_t add_leg(Design& d, LegRole role, LegStands stands) {
  static const char* words[]{"main", "nose", "tail", "outrigger"};
  const Leg* model = nullptr;
  for (const auto& l : d.gear.legs)
    if (l.role == role) model = &l;
  Leg leg = model ? *model : role == LegRole::main ? Leg() : d.gear.main();
  leg.id = unused_id(d, words[static_cast<int>(role)]);
  leg.name.clear();
  leg.role = role;
  leg.stands = stands;
  if (role != LegRole::main && !model) {
    // A leg of another role is another part: what a main leg is made of does not speak for it.
    leg.tubes.clear();
    leg.joints.clear();
    leg.retraction = {};
  }
  const double beside = leg.wheel.diameter.known() ? leg.wheel.diameter.si : 0.1;
  shift_leg(leg, beside, 0, 0);
  if (stands == LegStands::centre) shift_leg(leg, 0, leg.axle.y.known() ? -leg.axle.y.si : 0, 0);
  d.gear.legs.push_back(std::move(leg));
  return d.gear.legs.size() - 1;
}

void unlink_leg(Design& d, size_t row) {
  if (d.gear.legs[row].stands != LegStands::both_sides) return;
  Leg port = d.gear.legs[row];
  d.gear.legs[row].stands = LegStands::starboard;
  port.id = unused_id(d, "port-" + port.id);
  port.stands = LegStands::port;
  d.gear.legs.insert(d.gear.legs.begin() + static_cast<std::ptrdiff_t>(row) + 1, std::move(port));
}

void link_leg(Design& d, size_t row) {
  const auto rows = line_of(d, row);
  for (const size_t other : rows) {
    if (d.gear.legs[other].stands != LegStands::port || d.gear.legs[row].stands != LegStands::starboard)
      continue;
    d.gear.legs[row].stands = LegStands::both_sides;
    d.gear.legs.erase(d.gear.legs.begin() + static_cast<std::ptrdiff_t>(other));
    return;
  }
}

void arrange(Design& d, Layout layout) {
  if (layout == d.layout() || layout == Layout::none) return;
  auto& legs = d.gear.legs;
  if (!d.gear.has(LegRole::main)) {
    Leg main;
    main.id = unused_id(d, "main");
    legs.push_back(std::move(main));
  }
  const auto third_as = [&](LegRole role) {
    if (d.gear.has_third()) {
      d.gear.third().role = role;
      d.gear.third().stands = LegStands::centre;
      return;
    }
    Leg& leg = legs[add_leg(d, role, LegStands::centre)];
    // Unknown rather than guessed: the builder says where it stands.
    leg.axle = {};
    leg.top = {};
  };
  const auto only_one_line = [&] {
    const std::string kept = d.gear.main().id;
    const auto line = line_of(d, row_of(d.gear, kept));
    std::vector<std::string> stay;
    for (const size_t row : line) stay.push_back(legs[row].id);
    std::erase_if(legs, [&](const Leg& l) {
      return (l.role == LegRole::main && std::find(stay.begin(), stay.end(), l.id) == stay.end()) ||
             l.role == LegRole::outrigger;
    });
    for_mains(d, [](Leg& l) {
      if (l.stands == LegStands::centre) l.stands = LegStands::both_sides;
    });
  };
  const auto two_lines = [&](LegStands stands) {
    for_mains(d, [&](Leg& l) { l.stands = stands; });
    if (std::count_if(legs.begin(), legs.end(), [](const Leg& l) { return l.role == LegRole::main; }) < 2)
      add_leg(d, LegRole::main, stands);
    for_mains(d, [&](Leg& l) {
      if (stands == LegStands::centre && l.axle.y.known()) shift_leg(l, 0, -l.axle.y.si, 0);
    });
  };
  const auto no_third = [&] {
    std::erase_if(legs, [](const Leg& l) { return l.role == LegRole::nose || l.role == LegRole::tail; });
  };
  switch (layout) {
    case Layout::tricycle:
    case Layout::tailwheel:
      only_one_line();
      third_as(layout == Layout::tricycle ? LegRole::nose : LegRole::tail);
      break;
    case Layout::tandem:
      no_third();
      two_lines(LegStands::centre);
      if (!d.gear.has(LegRole::outrigger)) {
        Leg& leg = legs[add_leg(d, LegRole::outrigger, LegStands::both_sides)];
        leg.axle = {};
        leg.top = {};
      }
      break;
    case Layout::quadricycle:
      no_third();
      std::erase_if(legs, [](const Leg& l) { return l.role == LegRole::outrigger; });
      two_lines(LegStands::both_sides);
      break;
    case Layout::four_mains:
      std::erase_if(legs, [](const Leg& l) { return l.role == LegRole::outrigger; });
      two_lines(LegStands::both_sides);
      third_as(LegRole::nose);
      break;
    case Layout::none:
      break;
  }
}

}  // namespace kranich
