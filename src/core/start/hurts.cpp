// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/start/hurts.h"

#include "core/model/locate.h"

namespace kranich::start {

std::span<const Hurt> hurts() {
  static const std::vector<Hurt> all{
      {"tips",
       "It tips over",
       Station::place,
       {"place.turnover", "place.side_tip", "place.tipping", "place.crosswind", "place.tip_back"}},
      {"rotate",
       "It will not rotate",
       Station::place,
       {"place.rotation", "place.furthest_aft", "place.tip_back", "place.nose_share"}},
      {"noses",
       "It noses over",
       Station::place,
       {"place.nose_over_three_point", "place.nose_over_level", "place.axle_ahead", "place.tail_share",
        "place.nose_share_braking"}},
      {"well",
       "The wheel does not fit the well",
       Station::swing,
       {"swing.clearance", "swing.protrusion", "swing.unit_misfit", "place.keep_out"}},
      {"bends",
       "The leg bends or takes a set",
       Station::leg,
       {"leg.margin", "spring.bend_margin", "spring.set", "leg.failures"}},
      {"bounces",
       "It bounces",
       Station::spring,
       {"spring.hop", "spring.drop_stroke", "spring.drop_factor", "spring.bump_factor"}},
      {"force",
       "The unit has no force left",
       Station::drive,
       {"drive.force", "drive.stall", "drive.torque", "drive.time", "drive.arm"}},
      {"door",
       "A door closes on the leg",
       Station::sequence,
       {"sequence.leg_wait", "sequence.door_wait", "doors.clearance", "doors.over"}},
      {"late",
       "One leg goes late",
       Station::sequence,
       {"sequence.leg_wait", "sequence.box_hold", "drive.time"}},
      {"nose-low",
       "It stands nose-low",
       Station::stance,
       {"stance.wing_angle", "stance.pitch", "stance.third_load", "spring.sag"}},
  };
  return all;
}

std::vector<std::string> deciding(const Hurt& hurt, const Design& d) {
  std::vector<std::string> paths;
  const std::string main = "/gear/legs/" + d.gear.main().id;
  const std::string third = "/gear/legs/" + d.gear.third().id;
  const auto add = [&](std::initializer_list<std::string> more) { paths.insert(paths.end(), more); };
  if (hurt.id == "tips") {
    add({main + "/axle/y_m", main + "/axle/x_m", third + "/axle/x_m", main + "/axle/z_m"});
    add({"/airframe/aerodynamics/crosswind_wanted_m_per_s", "/airframe/aerodynamics/side_area_m2"});
  } else if (hurt.id == "rotate") {
    add({main + "/axle/x_m", "/airframe/aerodynamics/thrust_N",
         "/airframe/aerodynamics/tail_down_lift_coefficient", "/airframe/tailplane/span_m",
         "/airframe/tailplane/root_chord_m", "/airframe/cg_forward_limit_m"});
  } else if (hurt.id == "noses") {
    add({main + "/axle/x_m", main + "/axle/z_m", third + "/axle/x_m", "/airframe/cg_forward_limit_m"});
  } else if (hurt.id == "well") {
    const std::string r = main + "/retraction";
    add({main + "/wheel/diameter_m", main + "/wheel/width_m", r + "/pivot/x_m", r + "/pivot/y_m",
         r + "/pivot/z_m", r + "/unit_angle_deg", r + "/well/low/z_m", r + "/well/high/z_m"});
  } else if (hurt.id == "bends") {
    add({main + "/tube_diameter_m", main + "/tube_wall_m", main + "/travel_m", main + "/spring/rate_N_per_m",
         "/landing/ground_load_factor"});
  } else if (hurt.id == "bounces") {
    add({main + "/spring/damping_extending_N_s_per_m", main + "/spring/damping_closing_N_s_per_m",
         main + "/spring/rate_N_per_m", main + "/travel_m", main + "/wheel/tyre_rate_N_per_m"});
  } else if (hurt.id == "force") {
    const std::string r = main + "/retraction/drive";
    add({r + "/force_N", r + "/stall_torque_N_m", r + "/mass_kg", r + "/airspeed_m_per_s",
         r + "/turning_area_m2", r + "/on_airframe/x_m", r + "/on_leg/x_m"});
  } else if (hurt.id == "door") {
    for (size_t i = 0; i < std::min<size_t>(d.doors.size(), 2); ++i) {
      const std::string door = "/doors/" + d.doors[i].id;
      add({door + "/time_open_s", door + "/time_close_s", door + "/open_angle_deg", door + "/frees_leg_at"});
    }
    add({main + "/retraction/time_up_s", main + "/retraction/time_down_s", "/sequence/margin_s"});
  } else if (hurt.id == "late") {
    add({main + "/retraction/time_up_s", main + "/retraction/time_down_s",
         main + "/retraction/slowest_factor", third + "/retraction/time_up_s",
         third + "/retraction/time_down_s", "/sequence/margin_s"});
  } else if (hurt.id == "nose-low") {
    add({third + "/axle/z_m", main + "/axle/z_m", third + "/spring/rate_N_per_m", third + "/spring/preload_N",
         main + "/spring/rate_N_per_m", "/airframe/wing/incidence_deg", "/stance/wing_angle_low_deg",
         "/stance/wing_angle_high_deg"});
  }
  std::erase_if(paths, [&](const std::string& p) { return !given_at(d, p); });
  return paths;
}

}  // namespace kranich::start
