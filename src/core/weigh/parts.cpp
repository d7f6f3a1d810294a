// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/weigh/parts.h"

#include <algorithm>
#include <cmath>

namespace kranich::weigh {

std::vector<PartGroup> part_groups(const Design& d, double mass, double cg_x) {
  std::vector<PartGroup> groups;
  for (size_t row = 0; row < d.parts.size(); ++row) {
    const PartOffer& p = d.parts[row];
    auto group =
        std::find_if(groups.begin(), groups.end(), [&](const auto& g) { return g.for_what == p.for_what; });
    if (group == groups.end())
      group = groups.insert(groups.end(), PartGroup{p.for_what, {}, PartGroup::none});
    PartTotal t{row, p.count * p.mass, p.count * p.price};
    const auto fitted =
        std::find_if(d.ledger.begin(), d.ledger.end(), [&](const Item& i) { return i.name == p.for_what; });
    const bool out = fitted != d.ledger.end() && fitted->mass.known() && fitted->at.x.known();
    const double x = p.x.known() ? p.x.si : out ? fitted->at.x.si : std::nan("");
    const double goes = out ? fitted->mass.si : 0;
    const double rest = mass - goes;
    const double moment = mass * cg_x - goes * (out ? fitted->at.x.si : 0) + t.mass * x;
    t.cg_shift = moment / (rest + t.mass) - cg_x;
    group->offers.push_back(t);
  }
  for (auto& g : groups) {
    std::stable_sort(g.offers.begin(), g.offers.end(), [](const PartTotal& a, const PartTotal& b) {
      if (std::isfinite(a.mass) != std::isfinite(b.mass)) return std::isfinite(a.mass);
      return std::isfinite(a.mass) && a.mass < b.mass;
    });
    for (size_t i = 0; i < g.offers.size(); ++i)
      if (d.parts[g.offers[i].row].taken) g.taken = i;
  }
  return groups;
}

void take_part(Design& d, size_t row) {
  const PartOffer part = d.parts.at(row);
  if (!part.mass.known() || !part.count.known()) return;
  for (size_t i = 0; i < d.parts.size(); ++i)
    if (d.parts[i].for_what == part.for_what) d.parts[i].taken = i == row;
  auto item =
      std::find_if(d.ledger.begin(), d.ledger.end(), [&](const Item& i) { return i.name == part.for_what; });
  if (item == d.ledger.end()) {
    d.ledger.emplace_back();
    item = d.ledger.end() - 1;
    item->name = part.for_what;
    item->group = Group::equipment;
    item->at.y = Given(0.0);
  }
  item->mass = Given(part.count * part.mass, Origin::plan);
  item->weighed = false;
  if (part.x.known()) item->at.x = part.x;
}

}  // namespace kranich::weigh
