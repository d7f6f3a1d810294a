// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/doors/door.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

#include "core/base/numerics.h"
#include "core/base/quantity.h"
#include "core/model/lacking.h"
#include "core/motion/retract.h"

namespace kranich::doors {
namespace {

constexpr double nan = std::numeric_limits<double>::quiet_NaN();

std::string root_of(const Design& d, const Door& door) {
  const auto is = [&](const Door& x) { return x.id == door.id; };
  const auto row = std::find_if(d.doors.begin(), d.doors.end(), is) - d.doors.begin();
  return "/doors/" + std::to_string(row) + "/";
}

void note_panel(Lacking& lacks, const Door& door) {
  lacks.place(door.hinge_from, "hinge_from", "the hinge's front end")
      .place(door.hinge_to, "hinge_to", "the hinge's rear end")
      .number(door.width, "width_m", "the panel's width")
      .number(door.closed_towards, "closed_towards", "the side on which it lies closed")
      .number(door.open_angle, "open_angle_deg", "how far it opens");
  lacks.that(lacks.nothing() && !motion::panel_of(door), "a hinge that does not stand upright");
}

Vec3 crank_direction(CrankAxis axis, const motion::DoorPanel& panel) {
  switch (axis) {
    case CrankAxis::hinge:  // seen from its front end
      return (panel.hinge.point - panel.rear).normalized();
    case CrankAxis::fore_and_aft:
      return -Vec3::UnitX();
    case CrankAxis::athwart:
      return Vec3::UnitY();
    case CrankAxis::upright:
      return Vec3::UnitZ();
  }
  return Vec3::UnitZ();
}

//! All that a leg carries, where it is at a turn.
std::vector<motion::BoundSolid> parts_at(const swing::MovingLeg& leg, double turn) {
  std::vector<motion::BoundSolid> list;
  list.reserve(leg.parts.size());
  for (const auto& part : leg.parts)
    if (std::holds_alternative<motion::RoundedWheel>(part.solid))
      list.emplace_back(swing::wheel_at(leg.moves, part, turn));
    else
      list.emplace_back(swing::capsule_at(leg.moves, part, turn));
  return list;
}

constexpr int looks = 360;  //!< on the leg's way

}  // namespace

Text panel_lacks(const Design& d, const Door& door) {
  Lacking lacks(root_of(d, door));
  note_panel(lacks, door);
  return lacks.text();
}

Text torque_lacks(const Design& d, const Door& door) {
  Lacking lacks(root_of(d, door));
  lacks.number(door.drive.torque, "drive/torque_N_m", "the torque of its drive");
  return lacks.text();
}

bool moved_by_leg(const Door& door) {
  return door.drive.way != DoorWay::on_hinge && door.drive.way != DoorWay::crank;
}

std::variant<CrankDrive, Text> crank_of(const Design& d, const Door& door) {
  const Door* of = &door;
  for (const Door& x : d.doors)
    if (!door.drive.with.empty() && x.id == door.drive.with) of = &x;
  Lacking lacks(root_of(d, door));
  note_panel(lacks, door);
  lacks.place(door.drive.crank_ball, "drive/crank_ball", "the rod's end on the crank")
      .place(door.drive.door_ball, "drive/door_ball", "the rod's end on the door");
  Lacking crank(root_of(d, *of));
  crank.place(of->drive.crank, "drive/crank", "the crank's axis")
      .number(of->drive.throw_open, "drive/throw_deg", "the crank's turn");
  if (!crank.nothing()) lacks.that(true, crank.text());
  const auto hinge = motion::panel_of(*of);
  if (of->drive.axis == CrankAxis::hinge && of != &door)
    lacks.that(!hinge, "the hinge of the door whose crank it is");
  if (!lacks.nothing()) return lacks.text();
  const auto panel = motion::panel_of(door);
  return CrankDrive{{{of->drive.crank.vec(), crank_direction(of->drive.axis, hinge ? *hinge : *panel)},
                     panel->hinge,
                     door.drive.crank_ball.vec(),
                     door.drive.door_ball.vec()},
                    of->drive.throw_open};
}

std::variant<LegDoor, Text> leg_door(const Design& d, const Door& door) {
  const Leg* leg = d.gear.find(door.leg);
  Lacking lacks(root_of(d, door));
  note_panel(lacks, door);
  const DoorDrive& drive = door.drive;
  const DoorWay way = drive.way;
  if (way == DoorWay::leg_rod || way == DoorWay::wire)
    lacks.place(drive.leg_ball, "drive/leg_ball", "its end on the leg")
        .place(drive.door_ball, "drive/door_ball", "its end on the door");
  if (way == DoorWay::wire) lacks.number(drive.tie_length, "drive/tie_length_m", "the wire's length");
  if (way == DoorWay::stop_arm)
    lacks.place(drive.crank, "drive/crank", "the arm's axis")
        .place(drive.crank_ball, "drive/crank_ball", "the rod's end on the arm")
        .place(drive.door_ball, "drive/door_ball", "the rod's end on the door")
        .place(drive.stop, "drive/stop", "the stop")
        .number(drive.arm_length, "drive/arm_length_m", "the arm's length");
  if (way == DoorWay::wheel &&
      (drive.ramp_from.known() || drive.ramp_to.known() || drive.ramp_height.known()))
    lacks.number(drive.ramp_from, "drive/ramp_from_m", "where its ramp begins")
        .number(drive.ramp_to, "drive/ramp_to_m", "where its ramp ends")
        .number(drive.ramp_height, "drive/ramp_height_m", "how high its ramp is")
        .that(drive.ramp_from.known() && drive.ramp_to.known() && !(drive.ramp_to > drive.ramp_from),
              "a ramp that ends further out than it begins");
  auto made = swing::moving_leg(leg ? *leg : Leg{});
  if (const Text* missing = std::get_if<Text>(&made)) lacks.that(true, *missing);
  if (!lacks.nothing()) return lacks.text();
  const auto panel = motion::panel_of(door);
  LegDoor l{way, *panel, std::get<swing::MovingLeg>(std::move(made))};
  const auto& moves = l.leg.moves;
  if (way == DoorWay::leg_rod || way == DoorWay::wire) {
    l.door_ball = drive.door_ball.vec();
    // Entered with the gear up: where it stands down depends on the part that carries it.
    const Vec3 on_leg = moves.pose(motion::Carried::leg, moves.full_turn).inverse() * drive.leg_ball.vec();
    l.carried = motion::carried_at(*leg, on_leg);
    l.leg_ball = moves.pose(l.carried, moves.full_turn).inverse() * drive.leg_ball.vec();
    if (way == DoorWay::wire) l.tie = drive.tie_length;
  }
  if (way == DoorWay::stop_arm) {
    l.arm = {{drive.crank.vec(), crank_direction(drive.axis, *panel)},
             panel->hinge,
             drive.crank_ball.vec(),
             drive.door_ball.vec()};
    l.stop = drive.stop.vec();
    l.arm_length = drive.arm_length;
    // The arm's turn that opens the door: away from the stop, the way the stop leaves it.
    const double way_off = l.arm_at(moves.full_turn * 0.999).turn < 0 ? -1 : 1;
    l.arm_open = nan;
    constexpr int steps = 720;
    for (int i = 1; i <= steps; ++i) {
      const auto opened = [&](double turn) { return door_turn(l.arm, way_off * turn) >= panel->open; };
      const double turn = std::numbers::pi * i / steps;
      if (!std::isfinite(door_turn(l.arm, way_off * turn))) break;
      if (!opened(turn)) continue;
      l.arm_open = way_off * begins_to_hold(opened, std::numbers::pi * (i - 1) / steps, turn);
      break;
    }
  }
  return l;
}

LegDoor::Arm LegDoor::arm_at(double turn) const {
  // Seen from the leg as it lies stowed, the stop moves.
  const auto& moves = leg.moves;
  const Eigen::Isometry3d to_stowed =
      moves.pose(motion::Carried::leg, moves.full_turn) * moves.pose(motion::Carried::leg, turn).inverse();
  const Vec3 u = arm.crank.direction;
  const auto flat = [&](const Vec3& p) {
    const Vec3 r = p - arm.crank.point;
    return Vec3(r - r.dot(u) * u);
  };
  const Vec3 rest = flat(stop);
  const Vec3 now = flat(to_stowed * stop);
  return {std::atan2(u.dot(rest.cross(now)), rest.dot(now)), now.norm()};
}

double LegDoor::wire_to_spare(double turn) const {
  const Vec3 ball = ball_at(turn);
  return tie - drive::least_over(panel.open, [&](double angle) {
                 return (panel.carried(door_ball, angle) - ball).norm();
               }).value;
}

double LegDoor::stop_meets() const {
  if (!std::isfinite(arm_open)) return nan;
  const double full = leg.moves.full_turn;
  const double sense = arm_open < 0 ? -1 : 1;
  // From stowed backwards, as long as the stop holds the arm nearer than its rest.
  const auto free = [&](double turn) {
    const double along = sense * arm_at(turn).turn;
    return along >= std::abs(arm_open) || along < -1e-9;
  };
  for (int i = looks - 1; i >= 0; --i)
    if (free(full * i / looks))
      return begins_to_hold([&](double t) { return !free(t); }, full * i / looks, full * (i + 1) / looks);
  return 0;
}

double LegDoor::opening(double turn) const {
  const double full = leg.moves.full_turn;
  switch (way) {
    case DoorWay::leg_rod:
      return motion::HeldRod(panel.hinge, door_ball, ball_at(full)).turn(ball_at(turn));
    case DoorWay::wire: {
      // It opens by itself as far as the wire lets it.
      const Vec3 ball = ball_at(turn);
      const auto held = [&](double angle) { return (panel.carried(door_ball, angle) - ball).norm() > tie; };
      constexpr int steps = 180;
      if (!held(panel.open)) return panel.open;
      for (int i = steps - 1; i >= 0; --i)
        if (!held(panel.open * i / steps))
          return begins_to_hold([&](double angle) { return !held(angle); }, panel.open * (i + 1) / steps,
                                panel.open * i / steps);
      return nan;
    }
    case DoorWay::stop_arm: {
      if (!std::isfinite(arm_open)) return nan;
      const Arm a = arm_at(turn);
      const double sense = arm_open < 0 ? -1 : 1;
      const double along = sense * a.turn;
      if (turn < full && (along >= std::abs(arm_open) || along < -1e-9 || a.along > arm_length))
        return panel.open;
      return door_turn(arm, a.turn);
    }
    case DoorWay::wheel: {
      // It closes by its spring until it lies on the leg.
      const auto parts = parts_at(leg, turn);
      const auto room = [&](double angle) { return panel.apart_from(parts, angle); };
      double angle = panel.open;
      double here = room(angle);
      if (here < 0) return nan;
      while (angle > 0) {
        const double next = std::max(0.0, angle - std::max(here / panel.width, panel.open / 400));
        const double there = room(next);
        if (there < 0) {
          const double edge = find_root(room, next, angle, 1e-6 / panel.width).value_or(angle);
          return room(edge) < 0 ? std::min(angle, edge + 2e-6 / panel.width) : edge;
        }
        angle = next;
        here = there;
      }
      return 0;
    }
    case DoorWay::on_hinge:
    case DoorWay::crank:
      break;
  }
  return nan;
}

double opening_at(const Design& d, const Door& door, double share) {
  if (moved_by_leg(door)) {
    const auto made = leg_door(d, door);
    if (const auto* l = std::get_if<LegDoor>(&made)) return l->opening(share * l->leg.moves.full_turn);
    return nan;
  }
  if (share <= 0) return motion::opening_down(d, door);
  return share >= 1 ? 0 : door.open_angle.si;
}

std::optional<std::array<Vec3, 4>> panel_at(const Design& d, const Door& door, double share, double opening) {
  const auto panel = motion::panel_of(door);
  if (!panel || !std::isfinite(opening)) return std::nullopt;
  auto corners = panel->corners(opening);
  if (door.drive.way != DoorWay::stop_arm) return corners;
  const Leg* leg = d.gear.find(door.leg);
  const auto moves = leg ? motion::retracting(*leg) : std::nullopt;
  if (!moves) return std::nullopt;
  const Eigen::Isometry3d from_stowed = moves->pose(motion::Carried::leg, share * moves->full_turn) *
                                        moves->pose(motion::Carried::leg, moves->full_turn).inverse();
  for (Vec3& c : corners) c = from_stowed * c;
  return corners;
}

double clearance(const swing::MovingLeg& leg, const motion::DoorPanel& panel, double turn, double opening) {
  return panel.clearance(parts_at(leg, turn), opening);
}

drive::Extreme least_over_openings(const swing::MovingLeg& leg, const motion::DoorPanel& panel, double turn) {
  const auto parts = parts_at(leg, turn);
  const auto least = drive::least_over(panel.open, [&](double a) { return panel.apart_from(parts, a); });
  // Where they overlap how deep it is costs more, and is asked then only.
  if (least.value >= 0) return least;
  return drive::least_over(panel.open, [&](double a) { return panel.clearance(parts, a); });
}

Region region_of(const swing::MovingLeg& leg, const motion::DoorPanel& panel, double wanted) {
  constexpr int columns = 36;
  const double full = leg.moves.full_turn;
  Region r;
  r.wanted = wanted;
  r.enter = r.leave = nan;
  r.least_open = std::numeric_limits<double>::infinity();
  double most = -1;  // furthest opening in the way
  for (int i = 0; i <= columns; ++i) {
    const double turn = full * i / columns;
    const auto parts = parts_at(leg, turn);
    const auto spare = [&](double opening) { return panel.apart_from(parts, opening) - wanted; };
    // On the way a rough answer does, as long as it is on the safe side.
    const auto roughly = [&](double opening) { return panel.apart_from(parts, opening, wanted) - wanted; };
    Intervals list;
    double at = 0;
    double here = roughly(0);
    double from = here < 0 ? 0 : nan;
    while (at < panel.open) {
      const double next =
          std::min(panel.open, at + std::max(std::max(0.0, here) / panel.width, panel.open / 64));
      const double there = next < panel.open ? roughly(next) : spare(next);
      if ((here < 0) != (there < 0)) {
        // To a micrometre at the free edge: no better than the clearance is known.
        const double edge = find_root(spare, at, next, 1e-6 / panel.width).value_or(next);
        if (there < 0)
          from = edge;
        else
          list.emplace_back(from, edge);
      }
      at = next;
      here = there;
    }
    if (here < 0) list.emplace_back(from, panel.open);
    if (const double c = here + wanted; c < r.least_open) {
      r.least_open = c;
      r.at_turn = turn;
    }
    if (!list.empty()) most = std::max(most, list.back().second);
    r.columns.push_back(std::move(list));
  }
  const auto open_there = [&](double turn) { return panel.apart_from(parts_at(leg, turn), panel.open); };
  const double step = full / columns;
  const auto fine =
      find_minimum(open_there, std::max(0.0, r.at_turn - step), std::min(full, r.at_turn + step));
  if (fine.value < r.least_open) r.at_turn = fine.at;
  r.least_open = clearance(leg, panel, r.at_turn, panel.open);
  const auto taken = [](const Intervals& c) { return !c.empty(); };
  const auto first = std::find_if(r.columns.begin(), r.columns.end(), taken);
  const auto last = std::find_if(r.columns.rbegin(), r.columns.rend(), taken);
  if (first != r.columns.end()) {
    // Between two columns the boundary may lie anywhere: on the safe side.
    const auto share = [&](auto index) { return std::clamp(static_cast<double>(index) / columns, 0.0, 1.0); };
    r.enter = share((first - r.columns.begin()) - 1);
    r.leave = share(r.columns.rend() - last);
  }
  r.frees_at = most < 0 ? 0 : most >= panel.open ? nan : most / panel.open;
  return r;
}

std::variant<HeldDoor, Text> held_of(const Design& d, const Door& door) {
  Lacking lacks(root_of(d, door));
  note_panel(lacks, door);
  const DoorHold& h = door.hold;
  lacks.number(door.mass, "mass_kg", "the panel's mass")
      .number(door.cg_out, "cg_out_m", "its CG")
      .number(h.airspeed, "hold/airspeed_m_per_s", "the airspeed with it open")
      .number(h.hinge_stiffness, "hold/hinge_stiffness_N_m_per_rad", "the hinge's stiffness (none: 0)");
  const Given& density = d.airframe.aerodynamics.density;
  if (h.airspeed > 0) {
    lacks.number(h.normal_coefficient, "hold/normal_coefficient", "its normal force coefficient");
    lacks.that(!density.known(), entry("/airframe/aerodynamics/air_density_kg_per_m3", "the air's density"));
  }
  const bool spring = h.spring_force.known() || h.spring_rate.known() || h.spring_length.known() ||
                      h.spring_door.known() || h.spring_airframe.known();
  if (spring)
    lacks.place(h.spring_door, "hold/spring_door", "the spring's end on the door")
        .place(h.spring_airframe, "hold/spring_airframe", "its anchor")
        .number(h.spring_force, "hold/spring_force_N", "its initial force")
        .number(h.spring_rate, "hold/spring_rate_N_per_m", "its rate")
        .number(h.spring_length, "hold/spring_length_m", "its length at that force");
  if (h.magnet_force > 0) lacks.number(h.magnet_out, "hold/magnet_out_m", "where the magnet pulls");
  if (!lacks.nothing()) return lacks.text();
  const auto panel = motion::panel_of(door);
  HeldDoor held;
  held.closed = panel->tilt;
  held.counter_clockwise = false;  // down, in the plane's axes out and up
  held.open = panel->open;
  held.mass = door.mass * -panel->down.z();  // what of its weight acts in that plane
  held.cg_along = door.cg_out;
  held.area = panel->width * (panel->rear - panel->hinge.point).norm();
  held.chord = panel->width;
  held.normal_coefficient = h.airspeed > 0 ? h.normal_coefficient.si : 0;
  held.density = h.airspeed > 0 ? density.si : 0;
  held.speed = h.airspeed;
  held.hinge_stiffness = h.hinge_stiffness;
  if (spring) {
    const Eigen::Vector2d end = panel->in_plane(h.spring_door.vec());
    const Eigen::Vector2d along(std::cos(held.closed), std::sin(held.closed));
    const Eigen::Vector2d opens(along.y(), -along.x());
    held.spring = HoldSpring{end.dot(along), end.dot(opens), panel->in_plane(h.spring_airframe.vec()),
                             h.spring_force, h.spring_rate,  h.spring_length};
  }
  if (door.drive.torque.known() && !moved_by_leg(door)) held.servo_torque = door.drive.torque;
  if (door.drive.way == DoorWay::crank) {
    const auto crank = crank_of(d, door);
    if (const auto* c = std::get_if<CrankDrive>(&crank)) {
      // By the crank's turns from closed on as long as the door goes on opening, straight between.
      std::vector<std::pair<double, double>> ratios;  // door's angle, crank's torque for one at the hinge
      const double sense = door_turn(c->linkage, 1e-3 * c->throw_open) < 0 ? -1 : 1;
      constexpr int steps = 240;
      for (int i = 0; i <= steps; ++i) {
        const double turn = c->throw_open * i / steps;
        const double angle = sense * door_turn(c->linkage, turn);
        const double rate = std::abs(door_rate(c->linkage, turn));
        if (!(ratios.empty() || angle > ratios.back().first)) break;
        ratios.emplace_back(angle, std::isfinite(rate) && rate > 0 ? 1 / rate : 0.0);
      }
      held.servo_ratio = [ratios = std::move(ratios)](double angle) {
        const auto next = std::lower_bound(ratios.begin(), ratios.end(), angle,
                                           [](const auto& r, double a) { return r.first < a; });
        if (next == ratios.begin()) return next == ratios.end() ? 0.0 : next->second;
        if (next == ratios.end()) return ratios.back().second;
        const auto before = next - 1;
        const double t = (angle - before->first) / (next->first - before->first);
        return before->second + t * (next->second - before->second);
      };
    }
  }
  if (h.magnet_force.known()) {
    held.magnet_force = h.magnet_force;
    held.magnet_along = h.magnet_out.known() ? h.magnet_out.si : 0;
  }
  return held;
}

std::optional<Vec3> crank_ball_for(const DoorLinkage& l, double throw_open, double open) {
  const Vec3 u = l.crank.direction;
  const Vec3 arm = l.crank_ball - l.crank.point;
  const Vec3 along = arm.dot(u) * u;
  const Vec3 flat = arm - along;
  const double radius = flat.norm();
  if (!(radius > 0)) return std::nullopt;
  std::optional<Vec3> best;
  double best_score = -1;
  constexpr int clockings = 72;
  for (int i = 0; i < clockings; ++i) {
    const Vec3 way = Eigen::AngleAxisd(2 * std::numbers::pi * i / clockings, u) * flat / radius;
    const auto with = [&](double r) {
      DoorLinkage made = l;
      made.crank_ball = l.crank.point + along + r * way;
      return made;
    };
    const auto off = [&](double r) { return door_turn(with(r), throw_open) - open; };
    const auto r = find_nearest_root(off, radius, 0.05 * radius, 0.3 * radius, 3 * radius);
    if (!r) continue;
    const DoorLinkage made = with(*r);
    // Nothing on the way locks or turns back, and the door goes the right way from the start.
    const LinkageEnd end = end_of(made, throw_open);
    if (end.what != Ends::nothing && std::abs(end.crank) < std::abs(throw_open) * 1.02) continue;
    if (!(door_turn(made, 0.01 * throw_open) > 0)) continue;
    // Squarely pushed, and near to the arm that is there.
    const double angle = least_transmission(made, throw_open).angle;
    if (angle < radians(30)) continue;
    const double score = angle - 0.2 * std::abs(std::log(*r / radius));
    if (score <= best_score) continue;
    best_score = score;
    best = made.crank_ball;
  }
  return best;
}

}  // namespace kranich::doors
