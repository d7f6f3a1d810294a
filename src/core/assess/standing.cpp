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

std::optional<std::vector<stance::WheelOnLeg>> wheels_as_drawn(const Design& d) {
  // Hard enough that nothing gives by more than a hair, soft enough that the solver keeps its figures.
  double weight = 0;
  for (const auto& item : d.ledger)
    if (item.mass.known()) weight += item.mass * standard_gravity;
  const double hard = std::max(weight, 10.0) / 1e-5;
  std::vector<stance::WheelOnLeg> wheels;
  for (const PlacedLeg& placed : placed_legs(d.gear)) {
    const Leg& leg = d.gear.legs[placed.row];
    if (!leg.axle.known() || !leg.wheel.diameter.known()) return std::nullopt;
    const auto known = force::suspension_of(leg, d.materials);
    const auto* suspension = std::get_if<force::Suspension>(&known);
    const auto law = force::tyre_law(leg.wheel);
    const auto* tyre = std::get_if<force::TyreLaw>(&law);
    stance::WheelOnLeg w{suspension ? *suspension : force::straight_leg(leg.axle.vec(), {}),
                         leg.wheel.diameter / 2, tyre ? *tyre : force::TyreLaw{hard},
                         leg.wheel_spacing.known() ? leg.wheel_spacing.si : 0, placed};
    if (placed.port) w.leg = force::mirrored(w.leg);
    wheels.push_back(std::move(w));
  }
  if (wheels.empty()) return std::nullopt;
  return wheels;
}

namespace {

struct Line {
  double x = 0, z = 0, radius = 0;
  place::RoundWheel extended{0, 0, 0};
  double y_least = std::numeric_limits<double>::infinity(), y_most = -y_least;
  double load = 0;
};

//! A line of legs as it stands, the means of its wheels.
Line line_as_it_stands(const Design& d, const std::vector<PlacedLeg>& placed, const std::vector<size_t>& rows,
                       const std::vector<StandingWheel>& wheels, const LoadingState& l) {
  Line line;
  int count = 0;
  for (size_t i = 0; i < placed.size(); ++i) {
    if (std::find(rows.begin(), rows.end(), placed[i].row) == rows.end()) continue;
    const Leg& leg = d.gear.legs[placed[i].row];
    const StandingWheel& w = wheels[i];
    line.x += w.x;
    line.z += w.z;
    line.radius += w.radius;
    line.extended.x += leg.axle.x;
    line.extended.z += leg.axle.z;
    line.extended.radius += leg.wheel.diameter / 2;
    line.y_least = std::min(line.y_least, w.contact_y);
    line.y_most = std::max(line.y_most, w.contact_y);
    if (l.rest) line.load += l.rest->wheels[i].load;
    ++count;
  }
  for (double* sum :
       {&line.x, &line.z, &line.radius, &line.extended.x, &line.extended.z, &line.extended.radius})
    *sum /= count;
  return line;
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
  std::vector<Line> mains;
  std::vector<Line> thirds;
  for (const LegRole role : {LegRole::main, LegRole::nose, LegRole::tail})
    for (const auto& rows : lines_of(d.gear, role))
      (role == LegRole::main ? mains : thirds).push_back(line_as_it_stands(d, placed, rows, s.wheels, l));
  const bool tail = d.gear.has(LegRole::tail);
  if (!mains.empty()) {
    const Line& main = tail ? mains.front() : mains.back();
    s.main = {main.x, main.z, main.radius};
    s.half_track = (main.y_most - main.y_least) / 2;
    s.narrower_half = std::min(std::abs(main.y_most), std::abs(main.y_least));
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
  if (apart && !mains.empty())
    if (const auto pitch = place::pitch_on(apart->extended, (tail ? mains.front() : mains.back()).extended))
      s.pitch_extended = *pitch;
  if (state == GearState::static_load && l.rest)
    s.pitch = l.rest->pitch;
  else if (const auto pitch = place::pitch_on(s.third, s.main))
    s.pitch = *pitch;
  return s;
}

}  // namespace kranich
