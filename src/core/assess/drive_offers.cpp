// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/drive_offers.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/assess/circuit_state.h"
#include "core/assess/collector.h"
#include "core/assess/doors_state.h"
#include "core/assess/landing_state.h"
#include "core/assess/loading_state.h"
#include "core/assess/logic_state.h"
#include "core/assess/strength_state.h"
#include "core/assess/swing_state.h"
#include "core/motion/retract.h"
#include "core/place/keepout.h"

namespace kranich {
namespace {

constexpr double not_known = std::numeric_limits<double>::quiet_NaN();

double or_nan(const Given& g) { return g.known() ? g.si : not_known; }

//! The body of an actuator or cylinder, a round bar along the line between its ends from the one on the
//! airframe on, against keep-outs of both sides, at both ends of the travel.
double room_of(const Design& d, const Leg& leg, const DriveOffer& o) {
  const Drive& drive = o.drive;
  const bool pushes = drive.kind == DriveKind::actuator || drive.kind == DriveKind::cylinder;
  const double across = std::max(or_nan(o.width), or_nan(o.height));
  if (!pushes || !std::isfinite(across) || !o.length.known() || !drive.on_airframe.known() ||
      !drive.on_leg.known())
    return not_known;
  double least = std::numeric_limits<double>::infinity();
  for (const double share : {0.0, 1.0}) {
    const auto end = motion::swung(leg, share, drive.on_leg.vec());
    if (!end) return not_known;
    const Vec3 from = drive.on_airframe.vec();
    const Vec3 along = (*end - from).normalized();
    const motion::Capsule body{from, from + o.length * along, across / 2};
    for (const KeepOut& k : d.airframe.keep_outs)
      if (const auto solid = place::solid_of(k))
        for (const auto& side : {*solid, motion::mirrored(*solid)})
          least = std::min(least, nearest(body, side).distance);
  }
  return std::isfinite(least) ? least : not_known;
}

}  // namespace

Drive with_machine(const Drive& load, const Drive& machine) {
  Drive d = machine;
  d.mass = load.mass;
  d.inertia = load.inertia;
  d.cg = load.cg;
  d.load_factor = load.load_factor;
  d.airspeed = load.airspeed;
  d.turning_area = load.turning_area;
  d.constant_area = load.constant_area;
  d.air_centre = load.air_centre;
  d.friction_share = load.friction_share;
  d.friction_constant = load.friction_constant;
  d.down_spring = load.down_spring;
  d.wanted_time = load.wanted_time;
  d.falls_free = load.falls_free;
  d.fluid = load.fluid;
  return d;
}

DriveOffer offer_of(const Leg& leg, std::string name) {
  DriveOffer o;
  o.name = std::move(name);
  o.drive = leg.retraction.drive;
  if (leg.retraction.drive.falls_free) o.powerless = Powerless::falls;
  return o;
}

void take_drive(Leg& leg, size_t offer) {
  DriveOffer& o = leg.retraction.drive_offers.at(offer);
  const Drive was = leg.retraction.drive;
  leg.retraction.drive = with_machine(was, o.drive);
  o.drive = was;
  std::swap(o.name, leg.retraction.drive_name);
  if (o.name.empty()) o.name = "as it was";
  o.mass = o.price = o.length = o.width = o.height = o.current = Given();
  o.locks = false;
  o.powerless = was.falls_free ? Powerless::falls : Powerless::stays;
  o.rejected.clear();
}

std::vector<ComparedDrive> compare_drives(const Design& d, const Leg& leg, const Assessment& assessment) {
  std::vector<ComparedDrive> list;
  const Drive& fitted = leg.retraction.drive;
  const auto judge = [&](const DriveOffer& o, int index) {
    Design with = d;
    const size_t row = row_of(d.gear, leg.id);
    Leg& its = with.gear.legs[row];
    its.retraction.drive = with_machine(fitted, o.drive);
    // Drive alone is judged anew: what it stands on does not change with the machine.
    Assessment tried = assessment;
    tried.findings.clear();
    Collector collect(with, tried.findings);
    assess_drive(with, tried, collect, {});
    ComparedDrive c{o.name,
                    index,
                    o.drive.kind,
                    not_known,
                    not_known,
                    not_known,
                    not_known,
                    not_known,
                    not_known,
                    or_nan(o.current),
                    or_nan(o.mass),
                    or_nan(o.price),
                    room_of(with, its, o),
                    o.locks,
                    o.powerless,
                    {},
                    {},
                    o.rejected};
    for (const Finding& f : tried.findings) {
      if (f.subject.leg != leg.id) continue;
      const std::string_view id = f.measure_id;
      const bool machine = id != "drive.uplock" && id != "drive.brace" && id != "drive.over_centre" &&
                           id != "drive.latch" && !id.starts_with("drive.unit_");
      if (!machine) continue;  // lock, brace and unit stay
      if (id == "drive.force" || id == "drive.stall") c.in_hand = std::fmin(c.in_hand, f.value);
      if (id == "drive.arm") c.arm = f.value;
      if (id == "drive.stroke") c.stroke = f.value;
      if (id == "drive.column" || id == "drive.rod") c.column = f.value;
      if (id == "drive.time") c.time = f.value;
      const Text title(std::string(f.info().title));
      if (f.verdict == Verdict::fails)
        c.against.push_back(f.remark.empty() ? title : say("{}: {}", title, f.remark));
      if (f.verdict == Verdict::unknown) c.unknown.push_back(title);
    }
    const Given& voltage = d.circuit.electrics.voltage;
    if (voltage.known()) c.energy = voltage * c.current * c.time;
    if (c.room < 0)
      c.against.push_back(say("its body runs {} into the structure", Amount{-c.room, Kind::length}));
    if (fitted.falls_free && o.powerless == Powerless::stays)
      c.against.push_back("it stays where it is without power: this leg must come down");
    if (o.drive.kind == DriveKind::none) c.unknown.push_back("what kind it is");
    list.push_back(std::move(c));
  };
  judge(offer_of(leg, leg.retraction.drive_name), -1);
  for (size_t i = 0; i < leg.retraction.drive_offers.size(); ++i)
    judge(leg.retraction.drive_offers[i], static_cast<int>(i));
  return list;
}

}  // namespace kranich
