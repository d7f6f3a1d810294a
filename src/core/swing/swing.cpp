// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/swing/swing.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <queue>

#include "core/base/numerics.h"
#include "core/model/lacking.h"
#include "core/motion/retract.h"
#include "core/place/keepout.h"

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

MovingLeg MovingLeg::longer_by(double length) const {
  MovingLeg m = *this;
  const Vec3 along = length * (leg.to - leg.from).normalized();
  m.wheel.centre += along;
  m.leg.to += along;
  m.stub.from += along;
  m.stub.to += along;
  m.reach += std::abs(length);
  return m;
}

const char* part_word(Part part) {
  switch (part) {
    case Part::wheel:
      return "tyre";
    case Part::leg:
      return "leg";
    case Part::stub:
      return "axle";
  }
  return "leg";
}

std::variant<SwingInput, Text> swing_input(const Leg& leg, const std::vector<KeepOut>& keep_outs) {
  const Retraction& r = leg.retraction;
  Lacking lacks(leg_root(leg.id));
  lacks.place(leg.axle, "axle", "the place of the axle")
      .place(r.pivot, "retraction/pivot", "the place of the pivot")
      .number(r.unit_angle, "retraction/unit_angle_deg", "the unit angle")
      .number(leg.wheel.diameter, "wheel/diameter_m", "the wheel's diameter")
      .number(leg.wheel.width, "wheel/width_m", "the wheel's width")
      .number(leg.wheel_offset, "wheel_offset_m",
              "how far the wheel stands outboard of the leg (0 if it does not)")
      .number(leg.tube_diameter, "tube_diameter_m", "the leg's diameter")
      .number(leg.wheel.shoulder_radius, "wheel/shoulder_radius_m", "the tyre's shoulder")
      .number(r.growth, "retraction/tyre_growth_m", "the tyre's growth")
      .number(r.side_play, "retraction/side_play_m", "the side play")
      .place(r.well.low, "retraction/well/low", "the well's lower corner")
      .place(r.well.high, "retraction/well/high", "the well's upper corner")
      .number(r.well.clearance, "retraction/well/clearance_m", "the clearance wanted");
  if (!lacks.nothing()) return lacks.text();
  SwingInput in;
  MovingLeg& m = in.moving;
  m.axis = *motion::stowing_axis(leg);
  m.full_turn = r.unit_angle;
  const Vec3 axle = motion::axle_direction(leg);
  const Vec3 centre = leg.axle.vec();
  const Vec3 lower_end = motion::foot(leg);
  m.wheel = {centre, axle, leg.wheel.diameter + 2 * r.growth, leg.wheel.width + 2 * r.side_play,
             leg.wheel.shoulder_radius};
  m.leg = {m.axis.point, lower_end, leg.tube_diameter / 2};
  m.stub = {lower_end, centre, leg.tube_diameter / 2 * 0.7};
  const Vec3 d = centre - m.axis.point;
  m.reach = (d - m.axis.direction.dot(d) * m.axis.direction).norm() +
            std::hypot(m.wheel.diameter, m.wheel.width) / 2;
  in.wanted_clearance = r.well.clearance;

  // The structure round the well as five thick boxes: four sides and the roof. Their lower faces are the
  // skin.
  const Vec3 lo = r.well.low.vec();
  const Vec3 hi = r.well.high.vec();
  if (!((hi - lo).minCoeff() > 0)) return "a well whose upper corner lies beyond its lower one in x, y and z";
  const double t = std::max((hi - lo).maxCoeff(), m.wheel.diameter);
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
    const auto solid = place::solid_of(k);
    if (!solid) continue;
    in.obstacles.push_back({k.name, *solid});
    if (leg.stands == LegStands::centre) in.obstacles.push_back({k.name, motion::mirrored(*solid)});
  }
  return in;
}

Clearance clearance_at(const SwingInput& in, double turn) {
  const MovingLeg& m = in.moving;
  const Eigen::Isometry3d pose = m.axis.turn(turn);
  RoundedWheel wheel = m.wheel;
  wheel.centre = pose * m.wheel.centre;
  wheel.axle = pose.linear() * m.wheel.axle;
  const Capsule leg{pose * m.leg.from, pose * m.leg.to, m.leg.radius};
  const Capsule stub{pose * m.stub.from, pose * m.stub.to, m.stub.radius};
  Clearance least{std::numeric_limits<double>::infinity(), turn, Part::wheel, "", Vec3::Zero(), Vec3::Zero()};
  const auto consider = [&](Part part, const motion::Nearest& n, const std::string& name) {
    if (n.distance < least.distance) least = {n.distance, turn, part, name, n.on_part, n.on_obstacle};
  };
  const bool has_stub = (stub.to - stub.from).squaredNorm() > 1e-12;
  const motion::Box round_wheel = motion::bounds(wheel);
  const motion::Box round_leg = motion::bounds(leg);
  const motion::Box round_stub = motion::bounds(stub);
  for (const auto& o : in.obstacles) {
    // What lies farther apart, box to box, than the least so far needs no closer look.
    const auto round = motion::bounds(o.value);
    const auto near = [&](const motion::Box& part) {
      return !round || motion::gap(part, *round) <= std::max(0.0, least.distance);
    };
    if (near(round_wheel)) consider(Part::wheel, nearest(wheel, o.value), o.name);
    if (near(round_leg)) consider(Part::leg, nearest(leg, o.value), o.name);
    if (has_stub && near(round_stub)) consider(Part::stub, nearest(stub, o.value), o.name);
  }
  return least;
}

Clearance least_clearance(const SwingInput& in) {
  const double full = in.moving.full_turn;
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
  const double length = (in.moving.leg.to - in.moving.leg.from).norm();
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
  if (!leg.axle.known() || !r.pivot.known() || !r.unit_angle.known() || !leg.wheel_offset.known())
    return std::nullopt;
  SwingFigures f{};
  const Vec3 axis = motion::stowing_direction(r.direction);
  const Vec3 line = motion::foot(leg) - r.pivot.vec();
  f.length = line.norm();
  f.down_lean = lean_away(axis, line);
  f.stowed_slope = r.unit_angle - quarter - f.down_lean;
  f.unit_down_lean =
      r.mount_tilt.known() ? r.unit_angle - quarter - r.mount_tilt : std::numeric_limits<double>::quiet_NaN();
  f.required_angle = quarter + r.mount_tilt + f.down_lean;
  const auto turn = Axis{r.pivot.vec(), axis}.turn(r.unit_angle);
  const Vec3 stowed = turn * leg.axle.vec();
  const Vec3 axle = turn.linear() * motion::axle_direction(leg);
  f.protrusion = r.well.low.z - lowest_point(stowed, axle, leg.wheel.diameter, leg.wheel.width);
  return f;
}

}  // namespace kranich::swing
