// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/swing/swing.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <numbers>
#include <queue>

#include "core/base/numerics.h"
#include "core/model/lacking.h"
#include "core/motion/linkage.h"
#include "core/motion/retract.h"
#include "core/motion/suspend.h"
#include "core/place/keepout.h"
#include "core/swing/pair.h"

namespace kranich::swing {
namespace {

constexpr double quarter = std::numbers::pi / 2;

//! Lean of a downward direction away from the stowed side, in the plane of swing (λ).
double lean_away(const Vec3& axis, const Vec3& leg) {
  const Vec3 towards = axis.cross(Vec3(0, 0, -1));  // where a vertical leg starts to go
  return std::atan2(-leg.dot(towards), -leg.z());
}

}  // namespace

Vec3 leg_direction(double rake, double cant) {
  return Vec3(-std::tan(rake), std::tan(cant), -1).normalized();
}

PlanarPoses planar_poses(const PlanarSwing& s) {
  PlanarPoses p;
  p.axis = motion::stowing_direction(s.direction);
  p.down_lean = s.unit_angle - quarter - s.base_slope;
  const Vec3 down = turn_about(p.axis, -p.down_lean) * Vec3(0, 0, -1);
  const Vec3 axle = s.axle_direction_down.normalized();
  p.wheel_down = s.pivot + s.leg_length * down + s.wheel_offset * axle;
  const Axis axis{s.pivot, p.axis};
  p.wheel_stowed = axis.turn(s.unit_angle) * p.wheel_down;
  p.axle_stowed = turn_about(p.axis, s.unit_angle) * axle;
  return p;
}

double highest_point(const Vec3& centre, const Vec3& a, double diameter, double width) {
  return centre.z() + diameter / 2 * std::sqrt(std::max(0.0, 1 - a.z() * a.z())) +
         width / 2 * std::abs(a.z());
}

double lowest_point(const Vec3& centre, const Vec3& a, double diameter, double width) {
  return 2 * centre.z() - highest_point(centre, a, diameter, width);
}

UnitAngle required_unit_angle(const Vec3& down, const Vec3& stowed) {
  const Vec3 l0 = down.normalized();
  const Vec3 l1 = stowed.normalized();
  const Vec3 cross = l0.cross(l1);
  return {std::atan2(cross.norm(), l0.dot(l1)), cross.normalized(), std::asin(l1.z())};
}

TurnAbout best_turn_about(const Vec3& axis, const Vec3& down, const Vec3& stowed) {
  const Vec3 u = axis.normalized();
  const Vec3 l0 = down.normalized();
  const Vec3 l1 = stowed.normalized();
  const double turn = std::atan2(u.dot(l0.cross(l1)), l0.dot(l1) - u.dot(l0) * u.dot(l1));
  const Vec3 reached = turn_about(u, turn) * l0;
  return {turn, std::atan2(reached.cross(l1).norm(), reached.dot(l1))};
}

double turn_of_lowest(const Axis& axis, const Vec3& point, double full) {
  // z(ψ) = const + A·cos ψ + B·sin ψ with A, B the z parts of the radius and of axis × radius.
  const Vec3 u = axis.direction;
  const Vec3 d = point - axis.point;
  const Vec3 radius = d - u.dot(d) * u;
  const double a = radius.z();
  const double b = u.cross(radius).z();
  const double at = std::atan2(-b, -a);  // where the wave is lowest
  if (at >= 0 && at <= full) return at;
  const double stowed = a * std::cos(full) + b * std::sin(full);
  return stowed < a ? full : 0;
}

namespace {

MovingLeg with_foot_moved(MovingLeg m, const Vec3& way) {
  for (MovingPart& p : m.parts) {
    if (auto* wheel = std::get_if<RoundedWheel>(&p.solid)) {
      wheel->centre += way;
    } else {
      Capsule& c = std::get<Capsule>(p.solid);
      if (p.from_lengthens) c.from += way;
      if (p.to_lengthens) c.to += way;
    }
  }
  m.foot += way;
  m.find_reach();
  return m;
}

}  // namespace

MovingLeg MovingLeg::longer_by(double length) const { return with_foot_moved(*this, length * along); }
MovingLeg MovingLeg::set_by(const Vec3& way) const { return with_foot_moved(*this, way); }

void MovingLeg::find_reach() {
  std::vector<motion::Bound> bounds;
  for (const MovingPart& p : parts) {
    if (const auto* wheel = std::get_if<RoundedWheel>(&p.solid)) {
      bounds.push_back({p.from, wheel->centre, std::hypot(wheel->diameter, wheel->width) / 2});
    } else {
      const Capsule& c = std::get<Capsule>(p.solid);
      bounds.push_back({p.from, c.from, c.radius});
      bounds.push_back({p.to, c.to, c.radius});
    }
  }
  reach = moves.reach(bounds);
}

namespace {

//! The same with every point and way of it changed.
MovingLeg changed(MovingLeg m, const std::function<Vec3(const Vec3&)>& point,
                  const std::function<Vec3(const Vec3&)>& way) {
  for (MovingPart& p : m.parts) {
    if (auto* wheel = std::get_if<RoundedWheel>(&p.solid)) {
      wheel->centre = point(wheel->centre);
      wheel->axle = way(wheel->axle);
    } else {
      Capsule& c = std::get<Capsule>(p.solid);
      c.from = point(c.from);
      c.to = point(c.to);
    }
  }
  m.foot = point(m.foot);
  m.along = way(m.along);
  return m;
}

}  // namespace

MovingLeg MovingLeg::displaced(const Eigen::Isometry3d& by) const {
  MovingLeg m = changed(
      *this, [&](const Vec3& p) { return Vec3(by * p); },
      [&](const Vec3& v) { return Vec3(by.linear() * v); });
  m.find_reach();
  return m;
}

MovingLeg mirrored(const MovingLeg& leg) {
  const auto other = [](const Vec3& v) { return kranich::mirrored(v); };
  MovingLeg m = changed(leg, other, other);
  m.moves = motion::mirrored(leg.moves);
  return m;
}

RoundedWheel wheel_at(const motion::Retracting& moves, const MovingPart& part, double turn) {
  return wheel_at(moves, std::get<RoundedWheel>(part.solid), turn);
}

Capsule capsule_at(const motion::Retracting& moves, const MovingPart& part, double turn) {
  const Capsule& c = std::get<Capsule>(part.solid);
  const Eigen::Isometry3d from = moves.pose(part.from, turn);
  if (part.to == part.from) return {from * c.from, from * c.to, c.radius};
  return {from * c.from, moves.pose(part.to, turn) * c.to, c.radius};
}

const char* part_word(Part part) {
  switch (part) {
    case Part::wheel:
      return "tyre";
    case Part::leg:
      return "leg";
    case Part::stub:
      return "axle";
    case Part::tip:
      return "axle tip";
  }
  return "leg";
}

std::variant<MovingLeg, Text> moving_leg(const Leg& leg) {
  const Retraction& r = leg.retraction;
  Lacking lacks(leg_root(leg.id));
  lacks.place(leg.axle, "axle", "the place of the axle");
  motion::note_motion(lacks, leg);
  lacks.number(leg.wheel.diameter, "wheel/diameter_m", "the wheel's diameter")
      .number(leg.wheel.width, "wheel/width_m", "the wheel's width")
      .number(leg.wheel_offset, "wheel_offset_m",
              "how far the wheel stands outboard of the leg (0 if it does not)")
      .number(leg.tube_diameter, "tube_diameter_m", "the leg's diameter")
      .number(leg.wheel.shoulder_radius, "wheel/shoulder_radius_m", "the tyre's shoulder")
      .number(r.growth, "retraction/tyre_growth_m", "the tyre's growth")
      .number(r.side_play, "retraction/side_play_m", "the side play");
  for (size_t i = 0; i < r.bends.size(); ++i)
    lacks.place(r.bends[i].at, "retraction/bends/" + std::to_string(i) + "/at", "where the leg bends");
  if (!lacks.nothing()) return lacks.text();
  const auto moves = motion::retracting(leg);
  if (!moves) return Text("a leg that retracts");
  using motion::Carried;
  MovingLeg m{*moves, {}, motion::foot(leg), {}, 0};
  const Vec3 axle = motion::axle_direction(leg);
  const Vec3 centre = leg.axle.vec();
  const double half = leg.wheel_spacing.known() ? leg.wheel_spacing.si / 2 : 0;
  const auto wheel = [&](const Vec3& at) {
    m.parts.push_back({Part::wheel,
                       RoundedWheel{at, axle, leg.wheel.diameter + 2 * r.growth,
                                    leg.wheel.width + 2 * r.side_play, leg.wheel.shoulder_radius},
                       Carried::wheel, Carried::wheel});
  };
  wheel(centre + half * axle);
  if (half > 0) wheel(centre - half * axle);
  // The leg's line, piece by piece: from the pivot over its bends, or over the king-pin, to the foot.
  std::vector<Vec3> line{m.moves.axis.point};
  if (m.moves.lift) line.push_back(m.moves.lift->king_pin_at(0));
  for (const LegBend& b : r.bends) line.push_back(b.at.vec());
  line.push_back(m.foot);
  const double radius = leg.tube_diameter / 2;
  for (size_t i = 1; i < line.size(); ++i) {
    const bool last = i + 1 == line.size();
    // The first piece lies on the line that the rest twists about: arms and shank only turn.
    const Carried from = i == 1 ? Carried::leg : Carried::wheel;
    const Carried to = i == 1 && m.moves.lift ? Carried::leg : Carried::wheel;
    m.parts.push_back({Part::leg, Capsule{line[i - 1], line[i], radius}, from, to, false, last});
  }
  m.along = (m.foot - line[line.size() - 2]).normalized();
  if (!m.along.allFinite()) m.along = Vec3(0, 0, -1);
  const double stub = 0.7 * radius;
  if ((m.foot - centre).norm() > 1e-6 || half > 0)
    m.parts.push_back({Part::stub,
                       Capsule{half > 0 ? Vec3(centre - half * axle) : m.foot,
                               half > 0 ? Vec3(centre + half * axle) : centre, stub},
                       Carried::wheel, Carried::wheel});
  if (leg.axle_beyond_wheel > 0) {
    const double tip = leg.axle_diameter.known() ? leg.axle_diameter.si / 2 : stub;
    const Vec3 outer = centre + half * axle;
    // Its rounded end reaches as far as the axle does.
    const Vec3 end = outer + std::max(0.0, leg.axle_beyond_wheel - tip) * axle;
    m.parts.push_back({Part::tip, Capsule{outer, end, tip}, Carried::wheel, Carried::wheel});
  }
  m.find_reach();
  return m;
}

std::variant<SwingInput, Text> swing_input(const Leg& leg, const std::vector<KeepOut>& keep_outs) {
  const Retraction& r = leg.retraction;
  Lacking lacks(leg_root(leg.id));
  lacks.place(r.well.low, "retraction/well/low", "the well's lower corner")
      .place(r.well.high, "retraction/well/high", "the well's upper corner")
      .number(r.well.clearance, "retraction/well/clearance_m", "the clearance wanted");
  auto moving = moving_leg(leg);
  if (const Text* missing = std::get_if<Text>(&moving)) {
    if (lacks.nothing()) return *missing;
    return enumerated({*missing, lacks.text()});
  }
  if (!lacks.nothing()) return lacks.text();
  SwingInput in;
  in.moving = std::get<MovingLeg>(std::move(moving));
  in.wanted_clearance = r.well.clearance;

  // The structure round the well as five thick boxes: four sides and the roof. Their lower faces are the
  // skin.
  const Vec3 lo = r.well.low.vec();
  const Vec3 hi = r.well.high.vec();
  if (!((hi - lo).minCoeff() > 0)) return "a well whose upper corner lies beyond its lower one in x, y and z";
  const double t = std::max((hi - lo).maxCoeff(), in.moving.wheel().diameter);
  const double top = hi.z() + t;
  in.obstacles = {
      {"front wall", motion::Box{{lo.x() - t, lo.y() - t, lo.z()}, {lo.x(), hi.y() + t, top}}},
      {"rear wall", motion::Box{{hi.x(), lo.y() - t, lo.z()}, {hi.x() + t, hi.y() + t, top}}},
      {"inboard wall", motion::Box{{lo.x(), lo.y() - t, lo.z()}, {hi.x(), lo.y(), top}}},
      {"outboard wall", motion::Box{{lo.x(), hi.y(), lo.z()}, {hi.x(), hi.y() + t, top}}},
      {"roof", motion::Box{{lo.x(), lo.y(), hi.z()}, {hi.x(), hi.y(), top}}},
  };
  if (lo.y() < 0 && hi.y() > 0) {  // a well on the centre line has no inboard side
    in.obstacles[2].name = "port wall";
    in.obstacles[3].name = "starboard wall";
  }
  // What stands on one side stands on the other too; a leg on the centre line passes both.
  for (const auto& k : keep_outs) {
    for (const auto& solid : place::solids_of(k)) {
      in.obstacles.push_back({k.name, solid});
      if (leg.stands == LegStands::centre) in.obstacles.push_back({k.name, motion::mirrored(solid)});
    }
  }
  return in;
}

Clearance clearance_at(const SwingInput& in, double turn) {
  Clearance least{std::numeric_limits<double>::infinity(), turn, Part::wheel, "", Vec3::Zero(), Vec3::Zero()};
  const auto against = [&](Part part, const auto& solid) {
    const motion::Box round_part = motion::bounds(solid);
    for (const auto& o : in.obstacles) {
      // What lies farther apart, box to box, than the least so far needs no closer look.
      const auto round = motion::bounds(o.value);
      if (round && motion::gap(round_part, *round) > std::max(0.0, least.distance)) continue;
      const motion::Nearest n = nearest(solid, o.value);
      if (n.distance < least.distance) least = {n.distance, turn, part, o.name, n.on_part, n.on_obstacle};
    }
  };
  for (const MovingPart& p : in.moving.parts) {
    if (std::holds_alternative<RoundedWheel>(p.solid))
      against(p.part, wheel_at(in.moving.moves, p, turn));
    else
      against(p.part, capsule_at(in.moving.moves, p, turn));
  }
  return least;
}

Clearance least_clearance(const SwingInput& in) {
  const double full = in.moving.moves.full_turn;
  const double reach = in.moving.reach;
  struct Interval {
    double from, to, at_from, at_to, bound;
    bool operator<(const Interval& o) const { return bound > o.bound; }  // least bound first
  };
  Clearance best = clearance_at(in, 0);
  const auto look = [&](double turn) {
    const Clearance c = clearance_at(in, turn);
    if (c.distance < best.distance) best = c;
    return c.distance;
  };
  const double first = best.distance;
  std::priority_queue<Interval> open;
  const auto add = [&](double a, double b, double fa, double fb) {
    open.push({a, b, fa, fb, (fa + fb - reach * (b - a)) / 2});
  };
  constexpr int coarse = 6;
  double previous = first;
  for (int i = 1; i <= coarse; ++i) {
    const double v = look(full * i / coarse);
    add(full * (i - 1) / coarse, full * i / coarse, previous, v);
    previous = v;
  }
  const double accuracy = 2e-3 * reach;
  int looks = 0;
  while (!open.empty() && open.top().bound < best.distance - accuracy && looks < 400) {
    const Interval i = open.top();
    open.pop();
    const double middle = (i.from + i.to) / 2;
    const double v = look(middle);
    ++looks;
    add(i.from, middle, i.at_from, v);
    add(middle, i.to, v, i.at_to);
  }
  const double step = 0.02;
  const double low = std::max(0.0, best.turn - step);
  const double high = std::min(full, best.turn + step);
  const auto refined = find_minimum([&](double t) { return clearance_at(in, t).distance; }, low, high);
  const Clearance c = clearance_at(in, refined.at);
  return c.distance < best.distance ? c : best;
}

LengthBudget length_budget(const SwingInput& in) {
  const double length = in.moving.length();
  SwingInput trial = in;
  const auto spare = [&](double longer) {
    trial.moving = in.moving.longer_by(longer);
    return least_clearance(trial).distance - in.wanted_clearance;
  };
  const auto change = find_nearest_root(spare, 0, 0.004 * length, -0.3 * length, 0.3 * length);
  return {length, change ? length + *change : std::numeric_limits<double>::quiet_NaN()};
}

std::optional<SwingFigures> swing_figures(const Leg& leg) {
  const Retraction& r = leg.retraction;
  const auto moves = motion::retracting(leg);
  if (!leg.axle.known() || !leg.wheel_offset.known() || !moves) return std::nullopt;
  SwingFigures f{};
  const Vec3 line = motion::foot(leg) - r.pivot.vec();
  f.length = line.norm();
  f.down_lean = lean_away(moves->axis.direction, line);
  f.shank_lean = lean_away(moves->axis.direction, moves->line.direction);
  const double full = moves->full_turn;
  const Vec3 stowed_line = turn_about(moves->axis.direction, full) * line.normalized();
  f.stowed_slope = std::asin(std::clamp(stowed_line.z(), -1.0, 1.0));
  f.unit_down_lean =
      r.mount_tilt.known() ? r.unit_angle - quarter - r.mount_tilt : std::numeric_limits<double>::quiet_NaN();
  f.required_angle = quarter + r.mount_tilt + f.shank_lean;
  const Eigen::Isometry3d turn = moves->pose(motion::Carried::wheel, full);
  f.wheel_stowed = turn * leg.axle.vec();
  f.axle_stowed = turn.linear() * motion::axle_direction(leg);
  f.protrusion =
      r.well.low.z - lowest_point(f.wheel_stowed, f.axle_stowed, leg.wheel.diameter, leg.wheel.width);
  return f;
}

std::optional<RemadeLeg> remade_leg(const Leg& leg) {
  const auto f = swing_figures(leg);
  const auto moves = motion::retracting(leg);
  if (!f || !moves || !leg.retraction.mount_tilt.known()) return std::nullopt;
  const double off = f->shank_lean - f->unit_down_lean;
  if (std::abs(off) < radians(0.1)) return std::nullopt;
  const Retraction& r = leg.retraction;
  const Vec3 pivot = r.pivot.vec();
  const Vec3 foot = motion::foot(leg);
  const Vec3& axis = moves->axis.direction;
  // Leaning away is a turn against the way it stows.
  const Vec3 shank = turn_about(axis, off) * moves->line.direction;
  const bool bent = !r.bends.empty() && r.bends.front().at.known();
  RemadeLeg made{};
  made.from_pivot = bent ? (r.bends.front().at.vec() - pivot).norm() : 0.2 * (foot - pivot).norm();
  made.bend = pivot + made.from_pivot * shank;
  const Vec3 next = r.bends.size() > 1 && r.bends[1].at.known() ? r.bends[1].at.vec() : foot;
  const Vec3 rest = next - made.bend;
  made.angle = std::acos(std::clamp(shank.dot(rest.normalized()), -1.0, 1.0));
  const double now =
      bent ? made.from_pivot + (next - r.bends.front().at.vec()).norm() : (foot - pivot).norm();
  made.longer = made.from_pivot + rest.norm() - now;
  return made;
}

std::optional<double> turn_by_springing(const Leg& leg) {
  if (!leg.retraction.fitted || !(leg.travel > 0) || !leg.axle.known()) return {};
  const auto made = moving_leg(leg);
  const auto* moving = std::get_if<MovingLeg>(&made);
  if (!moving) return {};
  const motion::Retracting& moves = moving->moves;
  const bool by_rod = moves.lift || std::holds_alternative<motion::TwistRod>(moves.twist);
  if (!by_rod) return {};
  const auto hinge = motion::hinge_axis(leg);
  const bool on_pivot = hinge &&
                        (hinge->point - moves.axis.point).cross(moves.axis.direction).norm() < 1e-3 &&
                        hinge->direction.cross(moves.axis.direction).norm() < 0.02;
  if (hinge && !on_pivot) return {};
  if (!hinge && moves.lift) return {};  // the carrier itself does not spring
  constexpr int steps = 64;
  double most = 0;
  const auto see = [&](double turn) { most = std::isnan(turn) ? turn : std::max(most, std::abs(turn)); };
  if (!hinge) {
    // The ball rises along the leg with it: seen from there the rod's fixed end goes down.
    const auto& rod = std::get<motion::TwistRod>(moves.twist);
    const motion::HeldRod held(moves.line, rod.collar, rod.airframe);
    for (int i = 1; i <= steps && std::isfinite(most); ++i) {
      const Vec3 seen = rod.airframe + leg.travel * i / steps * moves.line.direction;
      see(held.turn(seen));
    }
    return most;
  }
  const Vec3 axle = leg.axle.vec();
  for (int i = 1; i <= 16 * steps && std::isfinite(most); ++i) {
    const double turn = moves.full_turn * i / (16 * steps);
    if ((moves.pose(motion::Carried::wheel, turn) * axle).z() - axle.z() > leg.travel) break;
    see(moves.lift ? moves.lift->carrier_turn(turn) : moves.twist_at(turn));
  }
  return most;
}

}  // namespace kranich::swing
