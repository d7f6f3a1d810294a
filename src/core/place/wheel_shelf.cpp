// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/place/wheel_shelf.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/force/leg_law.h"

namespace kranich::place {

double contact_patch(const Wheel& w, double closure) {
  return force::patch_per_squash(w.width, w.diameter) * closure;
}

std::optional<FieldPressure> firmest_pressure(Field field) {
  switch (field) {
    case Field::tarmac:
    case Field::indoor:
      return std::nullopt;
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
    const auto object = [&](const std::string& why) {
      c.objection += (c.objection.empty() ? "" : "; ") + why;
    };
    if (need.load > s.greatest_load) object(fmt::format("made for {:.0f} N", s.greatest_load));
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

}  // namespace kranich::place
