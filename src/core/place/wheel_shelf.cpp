// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/place/wheel_shelf.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/force/leg_law.h"
#include "core/weigh/weigh.h"

namespace kranich::place {

double contact_patch(const Wheel& w, double closure) {
  return force::patch_per_squash(w.width, w.diameter) * closure;
}

std::optional<FieldPressure> firmest_pressure(Field field) {
  switch (field) {
    case Field::tarmac:
    case Field::indoor:
      return std::nullopt;
    case Field::unsaid:  // the commonest; what is judged by it says so
    case Field::turf:
      return FieldPressure{350e3, "firm turf: below 350 kPa; soft turf 200 kPa"};
    case Field::rough:
      return FieldPressure{200e3, "soft turf: below 200 kPa"};
    case Field::sand:
      return FieldPressure{150e3, "sand: below 150 kPa"};
  }
  return std::nullopt;
}

std::vector<WheelCandidate> rank_wheels(const std::vector<ShelfWheel>& shelf, const WheelNeed& need) {
  double heaviest = 0;
  for (const auto& w : shelf) heaviest = std::max(heaviest, w.mass);
  std::vector<WheelCandidate> list;
  for (size_t i = 0; i < shelf.size(); ++i) {
    const ShelfWheel& s = shelf[i];
    const auto tyre = force::tyre_law(s.wheel);
    const auto* law = std::get_if<force::TyreLaw>(&tyre);
    if (!law) continue;
    const double wanted = std::isfinite(need.scale_diameter) ? need.scale_diameter : need.usual_diameter;
    const double off = std::abs(std::log(s.wheel.diameter / wanted));
    if (off > std::log(2.5)) continue;  // no wheel of that world at all
    WheelCandidate c{i, law->squash(need.load), 0, 0, {}, 0};
    const double section = s.wheel.diameter / 2 - s.wheel.flat_radius;
    c.left = 1 - c.squash / section;
    c.ground_pressure = s.wheel.tyre == Tyre::pneumatic && s.wheel.pressure.known()
                            ? s.wheel.pressure.si
                            : need.load / contact_patch(s.wheel, c.squash);
    const auto object = [&](Text why) { c.objection.also(std::move(why)); };
    if (need.load > s.greatest_load) object(say("made for {}", Amount{s.greatest_load, Kind::force}));
    if (c.left < 0.1) object("squashed down to the rim");
    if (!need.model) {
      const auto most = firmest_pressure(need.field);
      if (most && c.ground_pressure > most->pressure) object("too hard for this field");
    }
    if (std::isfinite(need.obstacle) && need.obstacle > s.wheel.diameter / 6)
      object("the field's bumps stop it");
    c.score = off + 0.2 * s.mass / heaviest;
    list.push_back(std::move(c));
  }
  std::stable_sort(list.begin(), list.end(), [](const WheelCandidate& a, const WheelCandidate& b) {
    if (a.objection.empty() != b.objection.empty()) return a.objection.empty();
    return a.score < b.score;
  });
  return list;
}

void fit_wheel(Wheel& wheel, const ShelfWheel& from) {
  const Given gap = wheel.fork_gap;
  auto kept = wheel.unknown_keys;
  wheel = from.wheel;
  wheel.shelf_name = from.name;
  wheel.fork_gap = gap;
  wheel.unknown_keys = std::move(kept);
}

WheelMass exchange_wheels(Design& d, const std::vector<size_t>& legs, const ShelfWheel& on, double off) {
  WheelMass result;
  for (const size_t row : legs) {
    Leg& leg = d.gear.legs[row];
    const int on_axle = leg.wheel_spacing.known() ? 2 : 1;
    const double more = on_axle * (on.mass - off);  // of one side
    fit_wheel(leg.wheel, on);
    if (leg.unsprung_mass.known() && std::isfinite(more) && leg.unsprung_mass + more > 0)
      leg.unsprung_mass.si += more;
    const bool pair = leg.stands == LegStands::both_sides;
    for (const double side : pair ? std::vector<double>{-1, 1} : std::vector<double>{0}) {
      const std::string own = in_words(weigh::wheel_on_side(d, leg, side));  // of an item of its own
      const auto hangs = [&](const Item& i) {
        return i.moves == leg.id && i.mass.known() && (!pair || !i.at.y.known() || side * i.at.y >= 0);
      };
      auto item = std::find_if(d.ledger.begin(), d.ledger.end(),
                               [&](const Item& i) { return i.moves == leg.id && i.name == own; });
      if (item != d.ledger.end()) {
        const double was = item->mass.known() ? item->mass.si : 0;
        item->mass = Given(on_axle * on.mass, Origin::plan);
        result.change += item->mass - was;
        continue;
      }
      // The heaviest that hangs there is the leg with its wheel; one on the centre line stands for both
      // sides.
      item = d.ledger.end();
      for (auto i = d.ledger.begin(); i != d.ledger.end(); ++i)
        if (hangs(*i) && (item == d.ledger.end() || i->mass > item->mass)) item = i;
      if (item != d.ledger.end()) {
        if (!std::isfinite(more) || !(item->mass + more > 0)) {
          result.unsaid = true;
          continue;
        }
        item->mass.si += more;
        result.change += more;
        continue;
      }
      Item fresh;
      fresh.name = own;
      fresh.group = Group::gear;
      fresh.mass = Given(on_axle * on.mass, Origin::plan);
      fresh.at = leg.axle;
      if (side < 0 && fresh.at.y.known()) fresh.at.y.si = -fresh.at.y.si;
      fresh.moves = leg.id;
      if (std::any_of(d.ledger.begin(), d.ledger.end(), [&](const Item& i) { return i.name == own; })) {
        result.unsaid = true;  // the name is taken by something that hangs elsewhere
        continue;
      }
      result.change += fresh.mass;
      d.ledger.push_back(std::move(fresh));
    }
  }
  return result;
}

}  // namespace kranich::place
