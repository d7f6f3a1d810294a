// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/door_cures.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/assess/doors_state.h"
#include "core/model/locate.h"

namespace kranich {
namespace {

constexpr double millimetre = 1e-3;

//! One number of a door: where it stands, how it reads, how far it goes.
struct DoorKnob {
  const char* what;
  const char* path;
  const char* more;
  const char* less;
  Kind kind;
  //! Step and way; both 0: by the size of what is there, from a third to three times.
  double step, way;
};
const DoorKnob door_numbers[]{
    {"door_open", "open_angle_deg", "{} opens further by {}", "{} opens less far by {}", Kind::angle,
     radians(1), radians(90)},
    {"door_ajar", "ajar_deg", "{} left open further by {}", "{} closed further by {}", Kind::angle,
     radians(0.5), radians(90)},
    {"door_width", "width_m", "{} wider by {}", "{} narrower by {}", Kind::length, 0, 0},
    {"door_throw", "drive/throw_deg", "crank of the {} turns further by {}",
     "crank of the {} turns less by {}", Kind::angle, radians(0.5), radians(60)},
    {"door_crank_x", "drive/crank_ball/x_m", "rod of the {} hung on its crank further aft by {}",
     "rod of the {} hung on its crank further forward by {}", Kind::length, 0.5 * millimetre, 0.1},
    {"door_crank_y", "drive/crank_ball/y_m", "rod of the {} hung on its crank further to starboard by {}",
     "rod of the {} hung on its crank further to port by {}", Kind::length, 0.5 * millimetre, 0.1},
    {"door_crank_z", "drive/crank_ball/z_m", "rod of the {} hung on its crank higher by {}",
     "rod of the {} hung on its crank lower by {}", Kind::length, 0.5 * millimetre, 0.1},
    {"door_leg_x", "drive/leg_ball/x_m", "leg's end of the {} drive further aft by {}",
     "leg's end of the {} drive further forward by {}", Kind::length, 0.5 * millimetre, 0.15},
    {"door_leg_y", "drive/leg_ball/y_m", "leg's end of the {} drive further to starboard by {}",
     "leg's end of the {} drive further to port by {}", Kind::length, 0.5 * millimetre, 0.15},
    {"door_leg_z", "drive/leg_ball/z_m", "leg's end of the {} drive higher by {}",
     "leg's end of the {} drive lower by {}", Kind::length, 0.5 * millimetre, 0.15},
    {"door_ball_x", "drive/door_ball/x_m", "rod's end on the {} further aft by {}",
     "rod's end on the {} further forward by {}", Kind::length, 0.5 * millimetre, 0.1},
    {"door_ball_y", "drive/door_ball/y_m", "rod's end on the {} further to starboard by {}",
     "rod's end on the {} further to port by {}", Kind::length, 0.5 * millimetre, 0.1},
    {"door_ball_z", "drive/door_ball/z_m", "rod's end on the {} higher by {}",
     "rod's end on the {} lower by {}", Kind::length, 0.5 * millimetre, 0.1},
    {"door_tie", "drive/tie_length_m", "wire of the {} longer by {}", "wire of the {} shorter by {}",
     Kind::length, 0, 0},
    {"door_arm", "drive/arm_length_m", "arm of the {} longer by {}", "arm of the {} shorter by {}",
     Kind::length, 0, 0},
    {"door_stop_x", "drive/stop/x_m", "stop of the {} further aft by {}",
     "stop of the {} further forward by {}", Kind::length, 0.5 * millimetre, 0.1},
    {"door_stop_y", "drive/stop/y_m", "stop of the {} further to starboard by {}",
     "stop of the {} further to port by {}", Kind::length, 0.5 * millimetre, 0.1},
    {"door_stop_z", "drive/stop/z_m", "stop of the {} higher by {}", "stop of the {} lower by {}",
     Kind::length, 0.5 * millimetre, 0.1},
    {"door_torque", "drive/torque_N_m", "drive of the {} stronger by {}", "drive of the {} weaker by {}",
     Kind::moment, 0, 0},
    {"door_spring", "hold/spring_force_N", "spring of the {} stronger by {}", "spring of the {} weaker by {}",
     Kind::force, 0, 0},
    {"door_spring_x", "hold/spring_airframe/x_m", "spring's anchor of the {} further aft by {}",
     "spring's anchor of the {} further forward by {}", Kind::length, millimetre, 0.2},
    {"door_spring_y", "hold/spring_airframe/y_m", "spring's anchor of the {} further to starboard by {}",
     "spring's anchor of the {} further to port by {}", Kind::length, millimetre, 0.2},
    {"door_spring_z", "hold/spring_airframe/z_m", "spring's anchor of the {} higher by {}",
     "spring's anchor of the {} lower by {}", Kind::length, millimetre, 0.2},
    {"door_magnet", "hold/magnet_force_N", "magnet of the {} stronger by {}", "magnet of the {} weaker by {}",
     Kind::force, 0, 0},
    {"door_magnet_out", "hold/magnet_out_m", "magnet of the {} further out by {}",
     "magnet of the {} nearer its hinge by {}", Kind::length, 0, 0},
};

//! Used by the way a door is driven.
bool moved_so(const Door& door, std::string_view what) {
  const DoorWay way = door.drive.way;
  const bool crank = way == DoorWay::crank;
  const bool arm = way == DoorWay::stop_arm;
  if (what == "door_throw") return crank && door.drive.with.empty();
  if (what.starts_with("door_crank_")) return crank || arm;
  if (what.starts_with("door_leg_")) return way == DoorWay::leg_rod || way == DoorWay::wire;
  if (what.starts_with("door_ball_")) return crank || arm || way == DoorWay::leg_rod || way == DoorWay::wire;
  if (what == "door_tie") return way == DoorWay::wire;
  if (what == "door_arm" || what.starts_with("door_stop_")) return arm;
  if (what == "door_torque") return way == DoorWay::on_hinge || crank;
  return true;
}

}  // namespace

std::vector<KnobRef> door_knobs(const Design& d) {
  std::vector<KnobRef> list;
  for (size_t i = 0; i < d.doors.size(); ++i) {
    const Door& door = d.doors[i];
    for (const DoorKnob& k : door_numbers) {
      if (!moved_so(door, k.what)) continue;
      const std::string path = "/doors/" + std::to_string(i) + "/" + k.path;
      const auto spec = spec_at(d, path);
      double value = value_at(d, path);
      // Nothing said of standing ajar is closed.
      if (std::string_view(k.what) == "door_ajar" && !std::isfinite(value)) value = 0;
      if (!spec || !std::isfinite(value) || (k.way == 0 && !(value > 0))) continue;
      Knob knob;
      knob.id = door.id + "." + k.what;
      knob.more = k.more;
      knob.less = k.less;
      knob.noun = d.actor_word(door.id);
      knob.kind = k.kind;
      knob.wavers = k.kind == Kind::angle;  // an edge falls and rises, a linkage goes there and back
      knob.there = k.way > 0 ? std::nan("") : value;
      knob.step = k.way > 0
                      ? k.step
                      : std::pow(10, std::floor(std::log10(value) - 2)) * (k.kind == Kind::length ? 1 : 5);
      knob.least = k.way > 0 ? -k.way : -0.7 * value;
      knob.most = k.way > 0 ? k.way : 2 * value;
      const double above = spec->above_least ? spec->least + 1e-3 * (value - spec->least) : spec->least;
      knob.least = std::max(knob.least, above - value);
      knob.most = std::min(knob.most, spec->most - value);
      if (!(knob.most - knob.least > knob.step)) continue;
      knob.apply = [id = door.id, path = std::string(k.path), value](Design& x, double v) {
        for (size_t row = 0; row < x.doors.size(); ++row)
          if (x.doors[row].id == id)
            if (auto at = locate_given(x, "/doors/" + std::to_string(row) + "/" + path)) {
              if (at->given->known())
                at->given->si += v;
              else
                *at->given = Given(value + v);
            }
      };
      list.push_back(std::make_shared<Knob>(std::move(knob)));
    }
  }
  return list;
}

std::vector<KnobRef> door_swaps(const Design& d, const Assessment& before, const Finding& finding) {
  std::vector<KnobRef> list;
  const DoorState* state = nullptr;
  for (const DoorState& s : before.doors)
    if (finding.subject.key == "door:" + s.door) state = &s;
  const auto door = std::find_if(d.doors.begin(), d.doors.end(),
                                 [&](const Door& x) { return state && x.id == state->door; });
  if (door == d.doors.end() || !state->panel) return list;
  const auto offer = [&](const char* what, Text text, std::function<void(Door&)> put) {
    list.push_back(one_choice(state->door + "." + what, std::move(text),
                              [id = state->door, put = std::move(put)](Design& x) {
                                for (Door& other : x.doors)
                                  if (other.id == id) put(other);
                              }));
  };
  const auto at = [](const Vec3& p) {
    const auto length = [](double m) { return Amount{m, Kind::length}; };
    return say("{} / {} / {}", length(p.x()), length(p.y()), length(p.z()));
  };
  const Text word = d.actor_word(state->door);
  if (finding.measure_id == "doors.hold" && state->held && state->held->spring) {
    if (const auto place = doors::spring_place(*state->held)) {
      const auto& panel = *state->panel;
      const Vec3 end = door->hold.spring_door.vec();
      const Vec3 moved = end + (*place - state->held->spring->along) * panel.across(0);
      offer("door_spring_end",
            say("spring's end on the {} to {} from its hinge, at {}", word, Amount{*place, Kind::length},
                at(moved)),
            [moved](Door& x) { x.hold.spring_door.set(moved); });
    }
  }
  if ((finding.measure_id == "doors.travel" || finding.measure_id == "doors.transmission" ||
       finding.measure_id == "doors.end") &&
      state->crank) {
    const auto& [linkage, turn] = *state->crank;
    if (const auto ball = doors::crank_ball_for(linkage, turn, state->panel->open))
      offer(
          "door_crank_ball",
          say("rod of the {} hung on its crank at {}, {} from the crank's axis, a rod of {}", word, at(*ball),
              Amount{(*ball - linkage.crank.point).cross(linkage.crank.direction).norm(), Kind::length},
              Amount{(*ball - linkage.door_ball).norm(), Kind::length}),
          [at_ball = *ball](Door& x) { x.drive.crank_ball.set(at_ball); });
  }
  if (finding.measure_id == "sequence.zone" && state->region && std::isfinite(state->region->frees_at)) {
    const auto& r = *state->region;
    const auto share = [](double v) { return Amount{v, Kind::share}; };
    offer("door_zone",
          say("{}: leg may pass when open by {}, enters at {}, leaves at {}, as drawn", word,
              share(r.frees_at), share(r.enter), share(r.leave)),
          [r](Door& x) {
            x.frees_leg_at = Given(r.frees_at);
            x.zone_enter = Given(r.enter);
            x.zone_leave = Given(r.leave);
          });
  }
  return list;
}

}  // namespace kranich
