// SPDX-License-Identifier: GPL-3.0-or-later
//! Aircraft put together by chance, of every layout, spring, leg and joint, full size and model, some of it
//! unknown, some of it at the very ends of what the file allows: what must hold for all of them.
//! KRANICH_RANDOM_DESIGNS says how many, KRANICH_RANDOM_FIRST which comes first, KRANICH_RANDOM_KEEP a folder
//! that they are written to.
#include <catch2/catch.hpp>
#include <cstdlib>
#include <filesystem>
#include <random>

#include "core/assess/assess.h"
#include "core/assess/cures.h"
#include "core/assess/landing_state.h"
#include "core/assess/loading_state.h"
#include "core/assess/settle.h"
#include "core/assess/strength_state.h"
#include "core/force/materials.h"
#include "core/io/stock.h"
#include "core/model/consistency.h"
#include "core/model/locate.h"
#include "core/shop/sheets.h"
#include "demo.h"
#include "said.h"

using namespace kranich;

namespace {

//! Collects the paths of every choice and flag, with how many ways each goes.
class Choices {
 public:
  explicit Choices(std::vector<std::string>& found, std::string path = {})
      : found_(found), path_(std::move(path)) {}
  void given(std::string_view, Given&, const Spec&) {}
  void text(std::string_view, std::string&, std::string_view) {}
  void flag(std::string_view, bool&, std::string_view) {}
  void project(std::string_view, std::string&, std::string_view) {}
  template <class E>
  void choice(std::string_view key, E&, Names, std::string_view) {
    found_.push_back(path_ + "/" + std::string(key));
  }
  template <class T>
  void object(std::string_view key, T& t, std::string_view) {
    Choices inner(found_, path_ + "/" + std::string(key));
    describe(inner, t);
  }
  template <class T>
  void list(std::string_view key, std::vector<T>& items, std::string_view, size_t) {
    for (size_t i = 0; i < items.size(); ++i) {
      Choices inner(found_, path_ + "/" + std::string(key) + "/" + std::to_string(i));
      describe(inner, items[i]);
    }
  }

 private:
  std::vector<std::string>& found_;
  std::string path_;
};

class Chance {
 public:
  explicit Chance(unsigned seed) : random_(seed) {}
  bool one_in(unsigned n) { return random_() % n == 0; }
  size_t below(size_t n) { return random_() % n; }
  double between(double a, double b) { return std::uniform_real_distribution<double>(a, b)(random_); }
  //! About a value, mostly within a half of it.
  double about(double v) { return v * std::exp(between(-0.4, 0.4)); }
  Given g(double v) { return Given(about(v)); }

 private:
  std::mt19937 random_;
};

void put(Point& p, const Vec3& v) { kranich::put(p, v.x(), v.y(), v.z()); }

//! What beside its main numbers a leg is made of: tubes, rings, wires, notches, boxes. Each as likely left
//! out.
template <class Name>
void furnish_parts(Leg& leg, Chance& c, double load, double height, double wheel, Name&& material) {
  Spring& s = leg.spring;
  BentMount& m = s.bent.mount;
  m.through = c.one_in(3);
  if (c.one_in(3)) {
    m.rings = Given(2.0 + static_cast<double>(c.below(6)));
    m.ring_outer = c.g(0.08 * wheel);
    m.ring_hole = c.g(0.02 * wheel);
    m.ring_thickness = c.g(0.03 * wheel);
    m.slot = c.g(0.026 * wheel);
    m.ring_pitch = c.g(0.2 * wheel);
    m.ring_modulus = c.g(0.8e6);
    if (c.one_in(2)) m.gap_below = c.g(0.02 * wheel);
  }
  if (c.one_in(3)) {
    s.bent.cross_wire.diameter = c.g(0.02 * wheel);
    s.bent.cross_wire.rise = c.g(0.2 * wheel);
    s.bent.cross_wire.along = c.g(0.5 * height);
  }
  if (c.one_in(3)) s.bent.section = BentSection::streamlined;
  if (c.one_in(5)) s.bent.measured_rate = c.g(load / (0.1 * height));
  if (c.one_in(3)) s.bent.mount_bore = c.g(s.bent.wire_diameter);
  if (c.one_in(3)) {
    Telescope& t = s.telescope;
    t.outer_diameter = c.g(0.12 * wheel);
    t.outer_wall = c.g(0.01 * wheel);
    t.outer_length = c.g(0.6 * height);
    t.inner_diameter = c.g(0.1 * wheel);
    t.inner_wall = c.g(0.01 * wheel);
    t.inner_length = c.g(0.6 * height);
    t.plugged = c.g(0.1 * height);
    t.thread = c.g(0.03 * wheel);
    t.thread_depth = c.g(0.05 * wheel);
  }
  if (c.one_in(4)) leg.section = LegSection::streamlined;
  if (c.one_in(3)) {
    leg.cradle.below = c.g(0.2 * height);
    leg.cradle.width = c.g(0.1 * wheel);
    leg.cradle.thickness = c.g(0.02 * wheel);
    leg.cradle.material = material();
  }
  if (c.one_in(3)) leg.lean = Given(radians(c.between(-10, 10)));
  if (c.one_in(3)) leg.governed = c.g(height);
  Drive& r = leg.retraction.drive;
  if (c.one_in(2)) {
    const Vec3 pivot =
        leg.retraction.pivot.known() ? leg.retraction.pivot.vec() : leg.axle.vec() + Vec3(0, 0, height);
    const auto near = [&](double size) {
      return Vec3(pivot + size * Vec3(c.between(-1, 1), c.between(-1, 1), c.between(-1, 1)));
    };
    r.kind = static_cast<DriveKind>(c.below(5));
    if (c.one_in(2)) r.mass = c.g(load / 400);
    if (c.one_in(2)) put(r.cg, near(0.6 * height));
    if (c.one_in(2)) r.airspeed = c.g(30);
    if (c.one_in(2)) r.turning_area = c.g(0.3 * wheel * wheel);
    put(r.on_airframe, near(0.6 * height));
    put(r.on_leg, near(0.4 * height));
    r.force = c.g(0.3 * load);
    r.stroke = c.g(0.4 * height);
    r.bore = c.g(0.1 * wheel);
    r.rod = c.g(0.05 * wheel);
    r.supply = c.g(5e6);
    r.back = c.g(2e5);
    r.stall_torque = c.g(0.01 * load * height);
    r.no_load_speed = c.g(300);
    r.stall_current = c.g(20);
    r.sector_radius = c.g(0.2 * height);
    r.pinion_radius = c.g(0.03 * height);
    r.gearbox = c.g(40);
    r.efficiency = Given(0.5);
    r.servo_x = c.g(0.3 * height);
    r.servo_y = Given(c.between(-0.05, 0.05) * height);
    r.unit_arm = c.g(0.06 * height);
    const double from = std::round(c.between(30, 70));
    r.unit_down = Given(radians(from));
    r.unit_stowed = Given(radians(from + std::round(c.between(60, 100))));
    r.full_throw = Given(radians(std::round(c.between(40, 90))));
    r.rod_stiffness = c.g(2e4);
    r.falls_free = c.one_in(2);
    if (c.one_in(2)) {
      DownSpring& down = r.down_spring;
      put(down.on_airframe, near(0.5 * height));
      put(down.on_leg, near(0.3 * height));
      down.extended_force = c.g(0.1 * load);
      down.progression = Given(1.4);
      down.full_stroke = c.g(height);
      down.extended_length = c.g(height);
    }
    if (c.one_in(2)) {
      put(leg.retraction.uplock.hook, near(0.8 * height));
      leg.retraction.uplock.holds = c.g(load);
      leg.retraction.brace.at_airframe = c.g(0.4 * height);
      leg.retraction.brace.at_leg = c.g(0.4 * height);
    }
  }
  if (c.one_in(2)) {
    Retraction& swings = leg.retraction;
    const Vec3 pivot = swings.pivot.known() ? swings.pivot.vec() : leg.axle.vec() + Vec3(0, 0, height);
    const auto beside = [&](const Vec3& p, double size) {
      return Vec3(p + size * Vec3(c.between(-1, 1), c.between(-1, 1), c.between(-1, 1)));
    };
    const auto angle = [&](double most) { return Given(radians(std::round(c.between(-most, most)))); };
    const Vec3 middle = (pivot + leg.axle.vec()) / 2;
    swings.axis_yaw = angle(20);
    swings.axis_tip = angle(20);
    if (c.one_in(2)) swings.twist = angle(100);
    if (c.one_in(2)) put(swings.rod_airframe, beside(pivot, 0.3 * height));
    if (c.one_in(2)) put(swings.rod_leg, beside(middle, 0.3 * height));
    if (c.one_in(2)) put(swings.king_pin, beside(middle, 0.1 * height));
    if (c.one_in(3)) {
      swings.pulled_in.resize(2);
      for (auto& p : swings.pulled_in) {
        p.turn = Given(radians(std::round(c.between(1, 90))));
        p.stroke = c.g(0.05 * height);
      }
    }
    if (c.one_in(3)) {
      swings.bends.resize(1 + c.below(2));
      for (auto& b : swings.bends) put(b.at, beside(middle, 0.1 * height));
    }
    if (c.one_in(3)) swings.service_set = Given(c.between(-0.05, 0.05) * height);
    if (c.one_in(3)) swings.floor = Given(middle.z());
    if (c.one_in(2)) {
      put(swings.wanted.centre, beside(pivot, height));
      swings.wanted.axle_up = angle(90);
      swings.wanted.axle_ahead = angle(170);
    }
    RetractUnit& unit = swings.unit;
    if (c.one_in(2)) unit.rated_mass = c.g(load / 20);
    if (c.one_in(2)) unit.rated_moment = c.g(load * height);
    if (c.one_in(2)) unit.bore = c.g(0.05 * wheel);
    if (c.one_in(2)) unit.leg_pin = c.g(0.05 * wheel);
    if (c.one_in(3)) unit.measured_turn = Given(radians(std::round(c.between(80, 100))));
    if (c.one_in(3)) {
      unit.holes.resize(3);
      for (auto& h : unit.holes) h.x = h.y = h.z = Given(c.between(-0.2, 0.2) * wheel);
    }
    if (c.one_in(3)) swings.seat_starboard = c.g(0.02 * wheel);
    if (c.one_in(3)) swings.seat_port = c.g(0.02 * wheel);
    r.rod_diameter = c.g(0.02 * wheel);
    r.rod_offset = c.g(0.05 * wheel);
    r.ball_tilt = Given(radians(12.0));
  }
  for (auto& j : leg.joints) {
    j.bought = c.one_in(4);
    if (c.one_in(2)) j.pulled = c.g(load);
    if (c.one_in(3)) j.thickness = c.g(0.02 * wheel);
    if (c.one_in(3)) j.cheeks = c.g(0.1 * wheel);
    if (c.one_in(3)) {
      j.box_depth = c.g(0.1 * wheel);
      j.box_wall = c.g(0.005 * wheel);
    }
    if (c.one_in(3)) {
      put(j.to, j.at.vec() + Vec3(c.between(-0.1, 0.1), 0, c.between(0.05, 0.3)) * wheel);
      if (c.one_in(2)) j.bay_rate = c.g(load / (0.01 * wheel));
    }
  }
}

//! Steering of every kind, rods anywhere near.
void steer_leg(Leg& leg, Chance& c) {
  const double size = leg.wheel.diameter.known() ? leg.wheel.diameter.si : 0.3;
  const Vec3 top = leg.held_at().allFinite() ? leg.held_at() : leg.axle.vec() + Vec3(0, 0, 2 * size);
  const auto beside = [&](double by) {
    return Vec3(top + by * Vec3(c.between(-1, 1), c.between(-1, 1), c.between(-1, 1)));
  };
  Steering& s = leg.steering;
  s.kind = static_cast<SteeringKind>(c.below(4));
  if (!c.one_in(6)) s.angle = Given(radians(std::round(c.between(5, 100))));
  if (c.one_in(3)) s.wanted_radius = c.g(10 * size);
  if (!c.one_in(6)) put(s.rod_airframe, beside(size));
  if (!c.one_in(6)) put(s.rod_leg, beside(0.3 * size));
  if (c.one_in(2)) s.slide = c.g(0.2 * size);
  if (c.one_in(2)) s.servo_torque = c.g(5 * size);
  if (c.one_in(2)) s.servo_arm = c.g(0.1 * size);
  s.lets_go = c.one_in(2);
  if (c.one_in(2)) s.bush_play = c.g(0.002 * size);
  if (c.one_in(2)) s.bush_length = c.g(0.4 * size);
}

//! Doors about a leg, moved in every way, of some of which something is left out.
void hang_doors(Design& d, const Leg& leg, Chance& c) {
  const double size = leg.wheel.diameter.known() ? leg.wheel.diameter.si : 0.3;
  const Vec3 top =
      leg.retraction.pivot.known() ? leg.retraction.pivot.vec() : leg.axle.vec() + Vec3(0, 0, 2 * size);
  const auto beside = [&](const Vec3& p, double by) {
    return Vec3(p + by * Vec3(c.between(-1, 1), c.between(-1, 1), c.between(-1, 1)));
  };
  for (size_t n = 1 + c.below(2); n > 0; --n) {
    Door door;
    door.id = "door" + std::to_string(d.doors.size() + 1);
    door.name = door.id;
    door.leg = leg.id;
    const Vec3 hinge = beside(top - Vec3(0, 0, 0.3 * size), 0.5 * size);
    put(door.hinge_from, hinge);
    put(door.hinge_to, hinge + Vec3(c.between(0.5, 2), c.between(-0.3, 0.3), c.between(-0.2, 0.2)) * size);
    door.width = c.g(0.5 * size);
    door.closed_towards = Given(c.one_in(2) ? 1 : -1);
    door.open_angle = Given(radians(std::round(c.between(20, 170))));
    if (c.one_in(3)) door.closed_tilt = Given(radians(std::round(c.between(-30, 30))));
    if (c.one_in(2)) door.thickness = c.g(0.02 * size);
    if (c.one_in(3)) door.ajar = Given(radians(std::round(c.between(1, 40))));
    DoorDrive& r = door.drive;
    r.way = static_cast<DoorWay>(c.below(6));
    r.axis = static_cast<CrankAxis>(c.below(4));
    const Vec3 ball = beside(hinge, 0.15 * size);
    if (!c.one_in(8)) put(r.crank, beside(hinge, 0.5 * size));
    if (!c.one_in(8))
      put(r.crank_ball, r.crank.vec() + 0.2 * size * Vec3(0, c.between(-1, 1), c.between(-1, 1)));
    if (!r.crank.known()) r.crank_ball = {};
    if (!c.one_in(8)) put(r.door_ball, ball);
    if (!c.one_in(8)) put(r.leg_ball, beside(top, 0.5 * size));
    put(r.stop, beside(hinge, 0.5 * size));
    r.throw_open = Given(radians(std::round(c.between(-150, 150))));
    r.tie_length = c.g(0.8 * size);
    r.arm_length = c.g(0.4 * size);
    if (c.one_in(2)) r.torque = c.g(20 * size);
    if (r.way == DoorWay::crank && !d.doors.empty() && d.doors.back().drive.with.empty() && c.one_in(2))
      r.with = d.doors.back().id;
    if (c.one_in(2)) {
      DoorHold& h = door.hold;
      door.mass = c.g(2 * size);
      door.cg_out = c.g(0.25 * size);
      h.airspeed = Given(c.one_in(3) ? 0.0 : std::round(c.between(5, 60)));
      if (!c.one_in(5)) h.normal_coefficient = c.g(1.2);
      h.hinge_stiffness = Given(c.between(0, 0.2) * size);
      if (c.one_in(2)) h.hinge_friction = Given(c.between(0, 0.1) * size);
      if (c.one_in(2)) {
        put(h.spring_door, hinge + 0.2 * size * Vec3(0, c.between(-1, 1), c.between(-1, 1)));
        put(h.spring_airframe, beside(hinge, 0.6 * size));
        h.spring_force = c.g(20 * size);
        h.spring_rate = c.g(200);
        h.spring_length = c.g(0.3 * size);
      }
      if (c.one_in(3)) h.magnet_force = c.g(50 * size);
      if (c.one_in(3)) h.magnet_out = c.g(0.4 * size);
    }
    d.doors.push_back(door);
  }
}

//! Gives a leg what every kind of spring, section and joint asks for, in its aircraft's size.
void furnish(Leg& leg, Chance& c, double mass, const std::vector<std::string>& materials) {
  const auto material = [&] { return materials[c.below(materials.size())]; };
  const double wheel = leg.wheel.diameter.known() ? leg.wheel.diameter.si : 0.3;
  const double load = mass * standard_gravity / 2;
  const Vec3 axle = leg.axle.vec();
  const double height = c.about(1.6 * wheel);
  const Vec3 top = axle + Vec3(c.between(-0.4, 0.4), axle.y() == 0 ? 0 : c.between(-0.9, 0.2), 1) * height;
  if (!leg.top.known() || c.one_in(2)) put(leg.top, top);
  put(leg.hinge, top + Vec3(c.between(-0.3, 0.3), 0, c.between(-0.8, 0.1)) * wheel);
  const double travel = c.about(0.25 * wheel);
  leg.travel = c.one_in(8) ? Given(0.0) : Given(travel);
  if (!leg.unsprung_mass.known()) leg.unsprung_mass = c.g(0.04 * mass);
  Spring& s = leg.spring;
  s.kind = static_cast<SpringKind>(c.below(8));
  leg.path = c.one_in(2) ? LegPath::straight : static_cast<LegPath>(c.below(3));
  s.rate = c.g(load / (0.4 * travel));
  s.preload = c.g(0.2 * load);
  const auto coil = [&](Coil& k) {
    k.wire_diameter = c.g(0.03 * wheel);
    k.mean_diameter = c.g(0.2 * wheel);
    k.active_turns = c.g(8);
    k.total_turns = Given(k.active_turns + 2);
    k.free_length = Given(c.about(2 * travel) + k.total_turns * k.wire_diameter);
    k.installed_length = Given(k.free_length * c.between(0.8, 1.05));
    k.ends = static_cast<CoilEnds>(c.below(4));
    k.count = Given(1.0 + static_cast<double>(c.below(2)));
  };
  coil(s.coil);
  coil(s.second);
  s.partner = static_cast<CoilPartner>(c.one_in(2) ? 0 : c.below(3));
  s.second_starts_after = c.g(0.3 * travel);
  s.gas.piston_area = c.g(load / 1.5e6);
  s.gas.pressure = c.g(8e5);
  s.gas.volume = c.g(s.gas.piston_area * travel * 1.5);
  s.leaf.torsion_rate = c.g(load * wheel * 3);
  s.cord.strands = Given(2.0 + 2 * static_cast<double>(c.below(8)));
  s.cord.free_length = c.g(0.5 * wheel);
  s.cord.curve.clear();
  for (const double stretch : {0.0, 0.25, 0.5, 1.0}) {
    CordPoint p;
    p.stretch = Given(stretch);
    p.load = Given(stretch * load / 6);
    s.cord.curve.push_back(p);
  }
  s.gas_strut.extended_force = c.g(0.7 * load);
  s.gas_strut.progression = c.g(1.4);
  s.gas_strut.full_stroke = c.g(1.2 * travel);
  s.pucks.count = Given(2.0 + static_cast<double>(c.below(6)));
  s.pucks.outer_diameter = c.g(0.2 * wheel);
  s.pucks.hole_diameter = Given(s.pucks.outer_diameter * c.between(0, 0.5));
  s.pucks.thickness = c.g(0.08 * wheel);
  s.pucks.shear_modulus = c.g(6e5);
  s.pucks.assembled_length = Given(s.pucks.count * s.pucks.thickness * c.between(0.85, 1));
  put(s.anchor_airframe, top + Vec3(c.between(-0.5, 0.5), 0, 0.2) * wheel);
  put(s.anchor_leg, axle + Vec3(c.between(-0.5, 0.5), 0, 0.4) * wheel);
  s.bent.form = static_cast<BentForm>(c.below(3));
  s.bent.material = material();
  s.bent.wire_diameter = c.g(0.04 * wheel);
  s.bent.line.clear();
  for (const double along : {0.0, 0.3, 0.7, 1.0}) {
    BentPoint p;
    put(p.at, top + along * (axle - top) + Vec3(0, 0, along * (1 - along) * c.between(-0.3, 0.3) * height));
    p.width = c.g(0.15 * wheel);
    p.thickness = c.g(0.04 * wheel);
    s.bent.line.push_back(p);
  }
  s.bent.loops.clear();
  if (c.one_in(2)) {
    WireLoop loop;
    loop.along = Given(0.3 * height);
    loop.mean_diameter = c.g(0.1 * wheel);
    loop.turns = Given(1.0 + static_cast<double>(c.below(3)));
    loop.axis = static_cast<LoopAxis>(c.below(3));
    s.bent.loops.push_back(loop);
  }
  s.bent.plies = c.g(12);
  s.bent.ply_areal_weight = c.g(0.3);
  if (c.one_in(4)) s.bent.cross_wire_rate = c.g(load / travel);
  s.damping_closing = c.g(load);
  s.damping_extending = c.g(2 * load);
  if (c.one_in(4)) {
    s.oil_area = s.gas.piston_area;
    s.orifice_closing = c.g(s.oil_area / 60);
    s.orifice_extending = c.g(s.oil_area / 150);
  }
  leg.tube_diameter = c.g(0.1 * wheel);
  leg.tube_wall = c.g(0.01 * wheel);
  leg.section = static_cast<LegSection>(c.below(3));
  leg.section_width = c.g(0.12 * wheel);
  leg.section_thickness = c.g(0.05 * wheel);
  leg.material = material();
  leg.axle_diameter = c.g(0.06 * wheel);
  leg.axle_material = material();
  leg.wheel_offset = Given(c.between(-0.3, 0.3) * wheel);
  leg.tubes.clear();
  if (c.one_in(3))
    for (size_t n = 1 + c.below(3); n > 0; --n) {
      Tube t;
      t.name = "tube " + std::to_string(n);
      put(t.top,
          top + Vec3(c.between(-1, 1), axle.y() == 0 ? c.between(-0.6, 0.6) : c.between(-1, 0.2), 0) * wheel);
      t.diameter = c.g(0.07 * wheel);
      t.wall = c.g(0.005 * wheel);
      t.material = material();
      leg.tubes.push_back(t);
    }
  leg.joints.clear();
  for (size_t n = c.below(4); n > 0; --n) {
    Joint j;
    j.name = "joint " + std::to_string(n);
    j.kind = static_cast<JointKind>(c.below(5));
    j.face = static_cast<JointFace>(c.below(3));
    if (!leg.tubes.empty() && c.one_in(2)) j.carries = leg.tubes[c.below(leg.tubes.size())].name;
    put(j.at, top);
    j.material = material();
    j.into = material();
    j.diameter = c.g(0.04 * wheel);
    j.planes = Given(1.0 + static_cast<double>(c.below(2)));
    j.inner_thickness = c.g(0.02 * wheel);
    j.outer_thickness = c.g(0.01 * wheel);
    if (c.one_in(2)) j.brace_arm = c.g(0.4 * height);
    for (size_t k = c.below(5); k > 0; --k) {
      Fastener f;
      f.u = Given(c.between(-0.2, 0.2) * wheel);
      f.v = Given(c.between(-0.2, 0.2) * wheel);
      f.diameter = c.g(0.02 * wheel);
      j.fasteners.push_back(f);
    }
    j.holds = c.g(0.3 * load);
    j.length = c.g(0.5 * wheel);
    j.width = c.g(0.2 * wheel);
    leg.joints.push_back(j);
  }
  Wheel& w = leg.wheel;
  w.tyre = static_cast<Tyre>(c.below(3));
  if (!w.width.known()) w.width = c.g(0.3 * wheel);
  if (c.one_in(3)) w.tyre_rate = c.g(load / (0.08 * wheel));
  if (c.one_in(4)) leg.wheel_spacing = Given(1.5 * w.width);
  if (c.one_in(3)) leg.camber = Given(radians(c.between(-6, 6)));
  if (c.one_in(3)) leg.toe = Given(radians(c.between(-3, 3)));
  furnish_parts(leg, c, load, height, wheel, material);
}

Design random_design(unsigned seed) {
  const std::vector<std::string>& names = demo_names();
  static const std::vector<std::string> materials = [] {
    std::vector<std::string> list;
    for (const auto& n : force::material_names({})) list.push_back(n);
    return list;
  }();
  Chance c(seed);
  Design d = demo(names[c.below(names.size())]);
  if (c.one_in(2)) arrange(d, static_cast<Layout>(c.below(5)));
  if (c.one_in(4)) unlink_leg(d, c.below(d.gear.legs.size()));
  double mass = 0;
  for (const auto& item : d.ledger)
    if (item.mass.known()) mass += item.mass;
  const Vec3 main = d.gear.main().axle.vec();
  for (auto& leg : d.gear.legs) {
    if (!leg.axle.known()) {
      const double y = leg.stands == LegStands::centre ? 0 : c.between(0.5, 3) * std::abs(main.z());
      put(leg.axle, main + Vec3(c.between(-3, 3) * std::abs(main.z()), y - main.y(), c.between(-0.1, 0.1)));
    }
    leg.axle.x.si += c.between(-0.1, 0.1) * std::abs(main.z());
    if (!leg.wheel.diameter.known()) leg.wheel.diameter = c.g(0.4 * std::abs(main.z()));
    if (c.one_in(2)) furnish(leg, c, mass, materials);
    if (c.one_in(5)) leg.skid = true;
  }
  for (const Leg& leg : d.gear.legs)
    if (leg.retraction.fitted && c.one_in(2)) hang_doors(d, leg, c);
  for (Leg& leg : d.gear.legs)
    if (c.one_in(3)) steer_leg(leg, c);
  // Anything described may be another number, unknown, or at the end of what is allowed; any choice another.
  const auto given = all_given(d);
  for (size_t n = c.below(20); n > 0; --n) {
    const auto& which = given[c.below(given.size())];
    const auto at = locate_given(d, which.path);
    if (!at) continue;
    Given& g = *at->given;
    const size_t how = c.below(10);
    if (how < 2)
      g = Given();
    else if (how == 2)
      g = Given(at->spec.least);
    else if (how == 3)
      g = Given(at->spec.most);
    else if (g.known())
      g.si *= how < 8 ? std::exp(c.between(-1, 1)) : -1;
    if (g.known() && (at->spec.too_low(g.si) || at->spec.too_high(g.si))) g = which.given;
  }
  std::vector<std::string> choices;
  Choices collect(choices);
  describe(collect, d);
  for (size_t n = c.below(6); n > 0; --n) {
    const auto& path = choices[c.below(choices.size())];
    if (const auto at = choice_at(d, path)) set_choice(d, path, static_cast<int>(c.below(at->names.size())));
  }
  return d;
}

Design mirror_image(Design d) {
  for (auto& item : d.ledger) item.at.y.si = -item.at.y.si;
  for (auto& leg : d.gear.legs) {
    if (leg.stands == LegStands::starboard)
      leg.stands = LegStands::port;
    else if (leg.stands == LegStands::port)
      leg.stands = LegStands::starboard;
    else if (leg.stands == LegStands::centre) {  // stored as it stands: its own mirror image is another
      for (Point* at : points_of(leg)) at->y.si = -at->y.si;
      for (Given* turned : {&leg.camber, &leg.toe, &leg.wheel_offset}) turned->si = -turned->si;
    }
  }
  return d;
}

//! The first line in which two texts differ, as one has it and as the other.
std::string first_difference(const std::string& one, const std::string& other) {
  const size_t same = static_cast<size_t>(
      std::mismatch(one.begin(), one.begin() + static_cast<long>(std::min(one.size(), other.size())),
                    other.begin())
          .first -
      one.begin());
  if (same == one.size() && same == other.size()) return {};
  const size_t from = one.rfind('\n', same) + 1;
  return one.substr(from, 100) + " / " + other.substr(from, 100);
}

int number(const char* name, int otherwise) {
  const char* set = std::getenv(name);
  return set ? std::atoi(set) : otherwise;
}

}  // namespace

TEST_CASE("random designs: no crash, no verdict without a number, saved and opened, mirrored, cured",
          "[random]") {
  const int count = number("KRANICH_RANDOM_DESIGNS", 300);
  const int first = number("KRANICH_RANDOM_FIRST", 1);
  int stood = 0, landed = 0, strong = 0, cured = 0, tried = 0;
  for (int i = first; i < first + count; ++i) {
    Design d = random_design(static_cast<unsigned>(i));
    settle(d);
    if (!inconsistencies(d).empty()) continue;
    if (const char* keep = std::getenv("KRANICH_RANDOM_KEEP"))
      save_project(d, std::filesystem::path(keep) / (std::to_string(i) + ".kranich"));
    INFO("KRANICH_RANDOM_FIRST=" << i << ", from " << d.about.name);
    ++tried;

    const auto text = write_project(d);
    const auto back = read_project(text);
    for (const auto& f : back.faults) UNSCOPED_INFO(f.where << ": " << f.what);
    REQUIRE(back.design);
    CHECK(first_difference(text, write_project(*back.design)) == "");

    const auto a = assess(d);
    for (const auto& f : a.findings) {
      INFO(f.key());
      if (f.verdict == Verdict::holds || f.verdict == Verdict::tight || f.verdict == Verdict::noted)
        CHECK_FALSE(std::isnan(f.value));
      if (f.verdict == Verdict::unknown || (f.verdict == Verdict::fails && !std::isfinite(f.value)))
        CHECK_FALSE(f.remark.empty());
    }
    for (const auto& l : a.landings) landed += l.drop.has_value() && l.drop->ended;
    strong += !a.strengths.empty();
    // The same answer with a neighbour's to start from.
    const auto again = assess(d, {}, &a);
    REQUIRE(again.findings.size() == a.findings.size());
    for (size_t k = 0; k < a.findings.size(); ++k) {
      INFO(a.findings[k].key());
      CHECK(again.findings[k].verdict == a.findings[k].verdict);
    }

    const auto b = assess(mirror_image(d));
    REQUIRE(b.loadings.size() == a.loadings.size());
    for (size_t k = 0; k < a.loadings.size(); ++k) {
      INFO(a.loadings[k].name);
      REQUIRE(a.loadings[k].rest.has_value() == b.loadings[k].rest.has_value());
      if (!a.loadings[k].rest) continue;
      ++stood;
      CHECK(b.loadings[k].rest->pitch == Approx(a.loadings[k].rest->pitch).margin(1e-7));
      CHECK(std::abs(b.loadings[k].rest->roll) == Approx(std::abs(a.loadings[k].rest->roll)).margin(1e-7));
    }

    if (i % 8 != 4) continue;
    for (const auto& s : shop::shop_sheets(d, a, "legs extended"))
      if (!s.ready()) CHECK_FALSE(std::get<Text>(s.drawing).empty());
    const Finding* worst = nullptr;
    for (const Finding* f : worst_of_each(a))
      if (!worst && f->verdict == Verdict::fails && std::isfinite(f->value)) worst = f;
    if (!worst) continue;
    for (const auto& cure : cures_for(d, a, *worst, {3, &shipped_stock()})) {
      INFO(cure.text);
      ++cured;
      CHECK(read_project(write_project(cure.applied(d))).design);
      CHECK((cure.reached == Verdict::holds || cure.reached == Verdict::tight));
    }
  }
  CHECK(tried > count / 2);
  CHECK(stood > count / 3);
  CHECK(landed > count / 3);
  CHECK(strong > count / 4);
  CHECK(cured > count / 40);
}
