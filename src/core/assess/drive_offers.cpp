// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/drive_offers.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/assess/anchor_map.h"
#include "core/motion/retract.h"

namespace kranich {
namespace {

//! Room of a drive's body as it is fitted, at both ends of the travel.
double room_of(const Design& d, const Leg& leg, const DriveSold& sold) {
  const Drive& drive = leg.retraction.drive;
  const bool pushes = is_strut(drive.kind);
  const DriveBody body(d, sold);
  if (!pushes || !body.known() || !drive.on_airframe.known() || !drive.on_leg.known())
    return ComparedDrive::unknown_number;
  double least = std::numeric_limits<double>::infinity();
  for (const double share : {0.0, 1.0}) {
    const auto end = motion::swung(leg, share, drive.on_leg.vec());
    if (!end) return ComparedDrive::unknown_number;
    least = std::min(least, body.room(drive.on_airframe.vec(), *end));
  }
  return least;
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
  o.sold = leg.retraction.drive_sold;
  o.sold.name = std::move(name);
  o.drive = leg.retraction.drive;
  return o;
}

void take_drive(Leg& leg, size_t offer) {
  DriveOffer& o = leg.retraction.drive_offers.at(offer);
  const Drive was = leg.retraction.drive;
  leg.retraction.drive = with_machine(was, o.drive);
  o.drive = was;
  std::swap(o.sold, leg.retraction.drive_sold);
  o.rejected.clear();
}

namespace {

//! Findings of Drive that the machine decides; lock, brace and unit stay whichever moves the leg.
bool of_the_machine(std::string_view id) {
  static constexpr std::string_view ids[]{
      "drive.torque",  "drive.arm",       "drive.force",     "drive.stroke", "drive.column",
      "drive.time",    "drive.stall",     "drive.end_point", "drive.rod",    "drive.ball_tilt",
      "drive.binding", "drive.free_fall", "drive.counted"};
  return std::find(std::begin(ids), std::end(ids), id) != std::end(ids);
}

//! What makes pins go into eyes made for others: drilled out, or bushed.
Text pins_into_eyes(const Given& eyes, const Given& pins) {
  if (!eyes.known() || !pins.known() || std::abs(eyes - pins) < 1e-5) return {};
  const Amount from{eyes, Kind::length};
  const Amount to{pins, Kind::length};
  return pins > eyes ? say("eyes drilled out from {} to {}", from, to)
                     : say("bushes of {} outside, {} inside, in the eyes", from, to);
}

}  // namespace

std::vector<ComparedDrive> compare_drives(const Design& d, const Leg& leg, const Assessment& assessment) {
  const Drive& fitted = leg.retraction.drive;
  const auto judge = [&](const DriveOffer& o, int index) {
    Design with = d;
    Leg& its = with.gear.legs[row_of(d.gear, leg.id)];
    its.retraction.drive = with_machine(fitted, o.drive);
    ComparedDrive c{o.sold, o.drive.kind, index, o.rejected};
    c.room = room_of(with, its, o.sold);
    // Drive alone is judged anew: what it stands on does not change with the machine.
    for (const Finding& f : assess(with, {station_bit(Station::drive)}, &assessment).findings) {
      const std::string_view id = f.measure_id;
      if (f.subject.leg != leg.id || !of_the_machine(id)) continue;
      if (id == "drive.force" || id == "drive.stall") c.in_hand = std::fmin(c.in_hand, f.value);
      if (id == "drive.arm") c.arm = f.value;
      if (id == "drive.stroke") c.stroke = f.value;
      if (id == "drive.column" || id == "drive.rod") c.column = f.value;
      if (id == "drive.time") c.time = f.value;
      const Text title = ours(f.info().title);
      if (f.verdict == Verdict::fails)
        c.against.push_back(f.remark.empty() ? title : say("{}: {}", title, f.remark));
      if (f.verdict == Verdict::unknown) c.unknown.push_back(title);
    }
    const Given& voltage = d.circuit.electrics.voltage;
    if (voltage.known() && o.sold.current.known()) c.energy = voltage * o.sold.current * c.time;
    c.fits = pins_into_eyes(leg.retraction.drive_sold.pin, o.sold.pin);
    if (c.room < 0)
      c.against.push_back(say("its body runs {} into the structure", Amount{-c.room, Kind::length}));
    if (fitted.falls_free && o.sold.powerless == Powerless::stays)
      c.against.push_back("it stays where it is without power: this leg must come down");
    if (fitted.falls_free && o.sold.powerless == Powerless::unsaid)
      c.unknown.push_back("what the leg does without power");
    if (o.drive.kind == DriveKind::none) c.unknown.push_back("what kind it is");
    return c;
  };
  const auto& offers = leg.retraction.drive_offers;
  std::vector<ComparedDrive> list{judge({{}, leg.retraction.drive_sold, fitted, {}}, -1)};
  for (size_t i = 0; i < offers.size(); ++i) list.push_back(judge(offers[i], static_cast<int>(i)));
  return list;
}

}  // namespace kranich
