// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/swing/units.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <tuple>

#include "core/motion/retract.h"
#include "core/place/keepout.h"
#include "core/swing/swing.h"

namespace kranich::swing {

std::optional<Text> pin_misfit(double bore, double pin) {
  const double play = bore - pin;
  const auto length = [](double m) { return Amount{m, Kind::length}; };
  if (play < -tightest_pin)
    return say("a pin of {} does not go into {}: drill to {}, or turn the pin down", length(pin),
               length(bore), length(pin));
  if (play > greatest_pin_play)
    return say("a pin of {} rattles in {}: a bush of {} outside and {} inside", length(pin), length(bore),
               length(bore), length(pin));
  return std::nullopt;
}

void fit_unit(Leg& leg, const ShelfUnit& unit) {
  Retraction& r = leg.retraction;
  const Given pin = r.unit.leg_pin;
  r.unit = {};
  r.unit.leg_pin = pin;
  r.unit.bore = unit.pin;
  r.unit.shelf_name = unit.name;
  r.unit.rated_mass = unit.rated_mass;
  r.unit.rated_moment = unit.rated_moment;
  r.unit.other_way = unit.other_way;
  if (unit.angle.known()) r.unit_angle = unit.angle;
  if (unit.time.known()) r.time_up = r.time_down = unit.time;
  if (!unit.fore.known() || !unit.back.known() || !unit.half_width.known() || !unit.above.known() ||
      !unit.below.known())
    return;
  // Where the leg goes, and square to it; aft or outboard are the positive ways.
  const Vec3 axis = motion::stowing_direction(r.direction);
  const Vec3 stowed = axis.cross(Vec3(0, 0, -1));
  const Vec3 across = axis.cwiseAbs() * unit.half_width.si;
  const Vec3 fore = unit.fore.si * stowed;
  const Vec3 back = -unit.back.si * stowed;
  r.unit_low.set(fore.cwiseMin(back) - across - Vec3(0, 0, unit.below));
  r.unit_high.set(fore.cwiseMax(back) + across + Vec3(0, 0, unit.above));
}

std::vector<UnitCandidate> rank_units(const std::vector<ShelfUnit>& shelf, const Design& d, const Leg& leg,
                                      const UnitNeed& need) {
  std::vector<UnitCandidate> list;
  for (const ShelfUnit& unit : shelf) {
    UnitCandidate c{
        &unit,        {},           {},          std::nan(""), std::numeric_limits<double>::infinity(),
        std::nan(""), std::nan(""), std::nan("")};
    Leg tried = leg;
    fit_unit(tried, unit);
    // A unit is screwed to the mount that is there: the leg leans by the difference of the angles.
    const auto figures = swing_figures(tried);
    if (figures && tried.retraction.mount_tilt.known() && unit.angle.known()) {
      c.lean = figures->shank_lean - figures->unit_down_lean;
      if (std::abs(c.lean) > radians(0.5))
        c.against.push_back(say("the leg would stand {} off: another mount tilt, or the leg bent",
                                Amount{c.lean, Kind::angle}));
    } else {
      c.unknown.push_back("how the leg would stand");
    }
    if (const auto body = place::unit_of(tried)) {
      if (const auto near = place::nearest_keep_out(*body, d.airframe.keep_outs)) {
        c.structure = near->distance;
        if (c.structure < 0)
          c.against.push_back(say("{} into {}", Amount{-c.structure, Kind::length}, near->name));
      }
    } else {
      c.unknown.push_back("whether its body goes in");
    }
    const auto in = swing_input(tried, d.airframe.keep_outs);
    if (const auto* ok = std::get_if<SwingInput>(&in)) {
      const Clearance least = least_clearance(*ok);
      c.clearance = least.distance - ok->wanted_clearance;
      if (c.clearance < 0)
        c.against.push_back(say("{} to {}: {} short", part_word(least.part), least.obstacle,
                                Amount{-c.clearance, Kind::length}));
    } else {
      c.unknown.push_back("the clearance of the swing");
    }
    if (unit.rated_mass.known() && std::isfinite(need.aircraft_mass)) {
      c.mass_in_hand = unit.rated_mass / need.aircraft_mass - 1;
      if (c.mass_in_hand < 0)
        c.against.push_back(say("sold for {}, the aircraft has {}", Amount{unit.rated_mass.si, Kind::mass},
                                Amount{need.aircraft_mass, Kind::mass}));
    } else {
      c.unknown.push_back("whether it is meant for that mass");
    }
    if (unit.rated_moment.known() && std::isfinite(need.moment)) {
      c.moment_in_hand = unit.rated_moment / need.moment - 1;
      if (c.moment_in_hand < 0)
        c.against.push_back(say("its pin carries {}, the leg brings {}",
                                Amount{unit.rated_moment.si, Kind::moment},
                                Amount{need.moment, Kind::moment}));
    } else {
      c.unknown.push_back("whether its pin carries the leg's moment");
    }
    const Given& pin = leg.retraction.unit.leg_pin;
    if (unit.pin.known() && pin.known()) {
      if (const auto why = pin_misfit(unit.pin, pin)) c.against.push_back(*why);
    } else {
      c.unknown.push_back("whether the leg's pin goes in");
    }
    list.push_back(std::move(c));
  }
  const auto or_last = [](const Given& g) {
    return g.known() ? g.si : std::numeric_limits<double>::infinity();
  };
  std::stable_sort(list.begin(), list.end(), [&](const UnitCandidate& a, const UnitCandidate& b) {
    const auto key = [&](const UnitCandidate& c) {
      return std::tuple(c.against.size(), c.unknown.size(), or_last(c.unit->price), or_last(c.unit->mass),
                        c.unit->name);
    };
    return key(a) < key(b);
  });
  return list;
}

std::vector<PlateCorner> plate_corners(const Leg& leg, double surface_slope) {
  const Retraction& r = leg.retraction;
  if (!r.unit_low.known() || !r.unit_high.known() || !r.mount_tilt.known()) return {};
  const Vec3 axis = motion::stowing_direction(r);
  const Vec3 plain = motion::stowing_direction(r.direction);
  // Along the axis the plate rises with it; along the way the leg goes it rises with the mount's tilt.
  const Vec3 end = axis * (plain.x() < 0 || plain.y() > 0 ? 1 : -1);
  const Vec3 level = Vec3(end.x(), end.y(), 0).normalized();
  const Vec3 stowed = Vec3(axis.x(), axis.y(), 0).normalized().cross(Vec3(0, 0, -1));
  const double up_axis = end.z() / std::hypot(end.x(), end.y());
  const double up_stowed = std::tan(r.mount_tilt);
  std::vector<PlateCorner> corners;
  double highest = -std::numeric_limits<double>::infinity();
  for (const double x : {r.unit_low.x.si, r.unit_high.x.si})
    for (const double y : {r.unit_low.y.si, r.unit_high.y.si}) {
      const Vec3 p(x, y, 0);
      const double up = up_axis * p.dot(level) + up_stowed * p.dot(stowed) - std::tan(surface_slope) * y;
      corners.push_back({x, y, -up});
      highest = std::max(highest, up);
    }
  for (auto& c : corners) c.depth += highest;
  return corners;
}

}  // namespace kranich::swing
