// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/standing.h"

#include <algorithm>
#include <cmath>

namespace kranich {

size_t wheel_of(const Design& d, const std::string& id) { return placed_index(d.gear, row_of(d.gear, id)); }

double coordinate_in_state(const stance::WheelOnLeg& wheel, GearState state,
                           const stance::WheelState* at_rest) {
  switch (state) {
    case GearState::extended:
      return 0;
    case GearState::static_load:
      return at_rest ? at_rest->coordinate : 0;
    case GearState::bottomed:
    case GearState::flat:
      return wheel.leg.most;
  }
  return 0;
}

double radius_in_state(const Leg& leg, GearState state, const stance::WheelState* at_rest) {
  if (state == GearState::flat) return leg.wheel.flat_radius;
  const double free = leg.wheel.diameter / 2;
  return state == GearState::extended || !at_rest ? free : free - at_rest->tyre_closure;
}

Vec3 axle_in_state(const Leg& leg, const stance::WheelOnLeg* on_leg, GearState state,
                   const stance::WheelState* at_rest) {
  if (on_leg && on_leg->leg.path != force::Suspension::Path::straight)
    return on_leg->leg.at(coordinate_in_state(*on_leg, state, at_rest)).axle;
  double closure = 0;
  if (state == GearState::static_load && at_rest) closure = at_rest->leg_closure;
  if (state == GearState::bottomed || state == GearState::flat) closure = leg.travel;
  return leg.axle.vec() + Vec3(0, 0, closure);
}

namespace {

struct Line {
  double x = 0, z = 0, radius = 0;
  double y_least = 0, y_most = 0;
  double load = 0;
  int count = 0;
};

//! The lines across the aircraft that the legs of some roles stand in, front first; extended axles' stations
//! tell them apart by a quarter of a wheel's diameter.
std::vector<Line> lines_of(const std::vector<StandingWheel>& wheels, const LoadingState& l, bool mains) {
  std::vector<size_t> order;
  for (size_t i = 0; i < wheels.size(); ++i) {
    const LegRole role = wheels[i].role;
    if (mains ? role == LegRole::main : role == LegRole::nose || role == LegRole::tail) order.push_back(i);
  }
  std::stable_sort(order.begin(), order.end(), [&](size_t a, size_t b) { return wheels[a].x < wheels[b].x; });
  std::vector<Line> lines;
  double last = -1e9;
  for (const size_t i : order) {
    const StandingWheel& w = wheels[i];
    if (lines.empty() || w.x - last > std::max(1e-3, 0.5 * w.radius)) {
      lines.emplace_back();
      lines.back().y_least = lines.back().y_most = w.contact_y;
    }
    last = w.x;
    Line& line = lines.back();
    line.x += w.x;
    line.z += w.z;
    line.radius += w.radius;
    line.y_least = std::min(line.y_least, w.contact_y);
    line.y_most = std::max(line.y_most, w.contact_y);
    if (l.rest) line.load += l.rest->wheels[i].load;
    ++line.count;
  }
  for (Line& line : lines) {
    line.x /= line.count;
    line.z /= line.count;
    line.radius /= line.count;
  }
  return lines;
}

}  // namespace

Standing standing_in(const Design& d, const std::vector<stance::WheelOnLeg>* wheels, const LoadingState& l,
                     GearState state) {
  constexpr double none = std::numeric_limits<double>::quiet_NaN();
  Standing s{{none, none, none}, {none, none, none}, none, none, l.mass.down.at, {}, none};
  const auto placed = placed_legs(d.gear);
  for (size_t i = 0; i < placed.size(); ++i) {
    const Leg& leg = d.gear.legs[placed[i].row];
    const stance::WheelOnLeg* on_leg = wheels ? &(*wheels)[i] : nullptr;
    const stance::WheelState* at_rest = l.rest ? &l.rest->wheels[i] : nullptr;
    Vec3 axle = axle_in_state(leg, on_leg, state, at_rest);
    const bool mirrored_already = on_leg && on_leg->leg.path != force::Suspension::Path::straight;
    if (placed[i].port && !mirrored_already) axle = kranich::mirrored(axle);
    const double radius = radius_in_state(leg, state, at_rest);
    StandingWheel w{axle.x(), axle.z(), radius, axle.y(), leg.role};
    if (on_leg && leg.stands != LegStands::centre && std::isfinite(radius))
      w.contact_y = stance::wheel_setting(*on_leg, coordinate_in_state(*on_leg, state, at_rest), radius,
                                          axle.y() < 0 ? -1 : 1)
                        .contact_y;
    s.wheels.push_back(w);
  }
  const auto mains = lines_of(s.wheels, l, true);
  const auto thirds = lines_of(s.wheels, l, false);
  const bool tail = d.gear.has(LegRole::tail);
  if (!mains.empty()) {
    const Line& main = tail ? mains.front() : mains.back();
    s.main = {main.x, main.z, main.radius};
    s.half_track = (main.y_most - main.y_least) / 2;
  }
  const Line* apart = !thirds.empty()    ? (tail ? &thirds.back() : &thirds.front())
                      : mains.size() > 1 ? &mains.front()
                                         : nullptr;
  if (apart) s.third = {apart->x, apart->z, apart->radius};
  const bool more_lines = mains.size() + thirds.size() > 2 || d.gear.has(LegRole::outrigger);
  if (apart && more_lines && state == GearState::static_load && l.rest && l.mass.down.mass > 0)
    s.third_share = apart->load / (l.mass.down.mass * standard_gravity);
  if (mains.size() > 1 && state == GearState::static_load && l.rest) {
    double all = 0;
    for (const Line& line : mains) all += line.load;
    if (all > 0) s.mains_share = mains.front().load / all;
  }
  const auto extended = [&](const Line* line, bool main) -> place::RoundWheel {
    if (!line) return {none, none, none};
    // The same legs with nothing on them: those of the line, by their stations now.
    place::RoundWheel mean{0, 0, 0};
    int count = 0;
    for (size_t i = 0; i < placed.size(); ++i) {
      const Leg& leg = d.gear.legs[placed[i].row];
      const bool of_it =
          main == (leg.role == LegRole::main) && std::abs(s.wheels[i].x - line->x) < 0.5 * s.wheels[i].radius;
      if (!of_it) continue;
      mean.x += leg.axle.x;
      mean.z += leg.axle.z;
      mean.radius += leg.wheel.diameter / 2;
      ++count;
    }
    return {mean.x / count, mean.z / count, mean.radius / count};
  };
  if (apart && !mains.empty())
    if (const auto pitch = place::pitch_on(extended(apart, thirds.empty()),
                                           extended(tail ? &mains.front() : &mains.back(), true)))
      s.pitch_extended = *pitch;
  if (state == GearState::static_load && l.rest)
    s.pitch = l.rest->pitch;
  else if (const auto pitch = place::pitch_on(s.third, s.main))
    s.pitch = *pitch;
  return s;
}

}  // namespace kranich
