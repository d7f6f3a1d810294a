// SPDX-License-Identifier: GPL-3.0-or-later
//! Limits of quantities, and the words of choices. Part of the one description of a Design: describe.h says
//! how.
#pragma once

#include <algorithm>
#include <array>
#include <cmath>
#include <concepts>
#include <limits>
#include <span>
#include <string_view>
#include <type_traits>

#include "core/base/quantity.h"

namespace kranich {

struct Spec {
  std::string_view title;
  Kind kind = Kind::length;
  double least = -std::numeric_limits<double>::infinity();  //!< SI (angles in rad)
  double most = std::numeric_limits<double>::infinity();
  bool above_least = false;  //!< least itself is not allowed

  //! Whether a value (SI) lies within, the last digits of a conversion aside.
  bool allows(double si) const { return std::isfinite(si) && !too_low(si) && !too_high(si); }
  bool too_low(double si) const {
    return above_least ? si <= least : si < least * (least < 0 ? 1 + 1e-12 : 1 - 1e-12);
  }
  bool too_high(double si) const { return si > most * (most < 0 ? 1 - 1e-12 : 1 + 1e-12); }
  //! No tolerance is wider than what is allowed of the value itself.
  double largest_tolerance() const { return std::max(std::abs(least), std::abs(most)); }
};

inline constexpr size_t longest_ledger = 2000;  //!< items
inline constexpr size_t longest_text = 20000;   //!< bytes of one text in a file

using Names = std::span<const std::string_view>;

//! A structure as it is described: to be written (T), or only looked at (const T).
template <class T, class Described>
concept Of = std::same_as<std::remove_const_t<T>, Described>;

inline constexpr std::array<std::string_view, 2> build_names{"full-size", "model"};
inline constexpr std::array<std::string_view, 3> lift_names{"wing", "rotor", "vertical take-off"};
inline constexpr std::array<std::string_view, 5> use_names{"touring", "training", "aerobatics", "racing",
                                                           "display"};
inline constexpr std::array<std::string_view, 4> build_state_names{"bare shell", "engine out", "engine in",
                                                                   "ready to fly"};
inline constexpr std::array<std::string_view, 3> path_names{"straight", "hinged fore and aft",
                                                            "hinged athwartships"};
inline constexpr std::array<std::string_view, 3> tyre_names{"pneumatic", "foam", "solid"};
inline constexpr std::array<std::string_view, 5> shape_names{"box", "cylinder", "plane", "prism", "mesh"};
inline constexpr std::array<std::string_view, 4> mesh_unit_names{"millimetres", "centimetres", "metres",
                                                                 "inches"};
inline constexpr std::array<std::string_view, 8> mesh_axes_names{
    "x aft, z up", "x forward, z up", "x starboard, z up", "x port, z up",
    "x aft, y up", "x forward, y up", "x starboard, y up", "x port, y up"};
inline constexpr std::array<std::string_view, 3> runs_names{"athwartships", "fore and aft", "upright"};
inline constexpr std::array<std::string_view, 6> field_names{"tarmac", "turf",   "rough strip",
                                                             "sand",   "indoor", "not said yet"};
inline constexpr std::array<std::string_view, 4> leg_role_names{"main", "nose", "tail", "outrigger"};
inline constexpr std::array<std::string_view, 4> leg_stands_names{"both sides", "starboard", "port",
                                                                  "centre line"};
inline constexpr std::array<std::string_view, 5> group_names{"airframe", "gear", "power", "equipment",
                                                             "load"};
inline constexpr std::array<std::string_view, 8> spring_names{
    "linear", "coil", "gas", "leaf", "cord", "gas strut", "rubber pucks", "leg that bends"};
inline constexpr std::array<std::string_view, 3> partner_names{"none", "inside the first",
                                                               "in series with the first"};
inline constexpr std::array<std::string_view, 3> bent_names{"metal leaf", "carbon bow", "bent wire"};
inline constexpr std::array<std::string_view, 3> loop_axis_names{"fore and aft", "athwartships", "upright"};
inline constexpr std::array<std::string_view, 7> stuff_names{"metal",   "spring wire", "laminate", "timber",
                                                             "printed", "foam",        "adhesive"};
inline constexpr std::array<std::string_view, 4> section_names{"tube", "solid bar", "rectangle",
                                                               "streamlined"};
inline constexpr std::array<std::string_view, 2> bent_section_names{"flat", "streamlined"};
inline constexpr std::array<std::string_view, 2> governing_names{"where it is held to axle",
                                                                 "where it is held to shoulder"};
inline constexpr std::array<std::string_view, 2> printed_names{"across the leg", "along the leg"};
inline constexpr std::array<std::string_view, 5> joint_names{"pin", "bolts, rivets or screws", "glued block",
                                                             "plate", "post to the spar"};
inline constexpr std::array<std::string_view, 3> face_names{"under a plate", "on a face that looks aft",
                                                            "on a face that looks sideways"};
inline constexpr std::array<std::string_view, 2> paper_names{"A4", "Letter"};
inline constexpr std::array<std::string_view, 4> coil_end_names{"plain", "plain and ground",
                                                                "squared, not ground", "squared and ground"};
inline constexpr std::array<std::string_view, 3> school_names{"rule", "drop ladder", "similarity"};
inline constexpr std::array<std::string_view, 6> drive_names{
    "not decided",         "electric actuator", "hydraulic cylinder", "geared motor on a sector",
    "servo with push rod", "air cylinder"};
inline constexpr std::array<std::string_view, 3> air_acts_names{"up and down", "up only", "down only"};
inline constexpr std::array<std::string_view, 4> leg_motion_names{
    "turns with the leg", "twists in proportion", "is twisted by a rod", "is lifted and turned"};
inline constexpr std::array<std::string_view, 3> throw_names{"both ways", "anticlockwise only",
                                                             "clockwise only"};
inline constexpr std::array<std::string_view, 2> times_from_names{"the wider of both", "entered alone"};
inline constexpr std::array<std::string_view, 4> powerless_names{
    "not said", "stays where it is", "falls down and locks", "is cranked by hand"};
inline constexpr std::array<std::string_view, 3> locks_names{"not said", "no", "at both ends"};
inline constexpr std::array<std::string_view, 4> direction_names{"inward", "outward", "aft", "forward"};
inline constexpr std::array<std::string_view, 6> door_way_names{
    "on its hinge",           "by crank and rod", "by a rod from the leg", "by an arm against a stop",
    "by a wire from the leg", "by the wheel"};
inline constexpr std::array<std::string_view, 4> crank_axis_names{"along the hinge", "fore and aft",
                                                                  "athwartships", "upright"};
inline constexpr std::array<std::string_view, 4> steering_names{"not steered", "castors", "by a rod",
                                                                "by rods that slide"};
inline constexpr std::array<std::string_view, 3> leg_power_names{"not decided", "one pump for all",
                                                                 "a motor for each leg"};
inline constexpr std::array<std::string_view, 4> sign_names{"none", "on the leg", "on the lock",
                                                            "on each, in series"};
inline constexpr std::array<std::string_view, 2> switch_names{"microswitches", "magnets with reed contacts"};
inline constexpr std::array<std::string_view, 3> squat_names{"none", "one", "two in series"};
inline constexpr std::array<std::string_view, 3> release_names{"nothing", "a dump valve", "a clutch"};
inline constexpr std::array<std::string_view, 3> horn_names{"none", "throttle back",
                                                            "throttle back or slow, two switches"};
inline constexpr std::array<std::string_view, 3> door_order_names{
    "by time", "by contacts", "by contacts, no start while the door closes"};
inline constexpr std::array<std::string_view, 5> lamp_names{
    "none", "a green each, dark when up", "a green each, blue when up", "one green, all down",
    "red until all are locked down"};
inline constexpr std::array<std::string_view, 3> throttle_names{"nowhere", "on the return", "on the supply"};
inline constexpr std::array<std::string_view, 4> split_names{
    "a plain tee", "a divider, ideal", "a divider that throttles", "a divider of gears"};
inline constexpr std::array<std::string_view, 2> pipe_side_names{"up", "down"};
inline constexpr std::array<std::string_view, 6> fitting_names{"tee",        "pressure sensor", "gauge",
                                                               "restrictor", "dump valve",      "filler"};
inline constexpr std::array<std::string_view, 3> branch_names{"hangs down", "lies level", "points up"};
inline constexpr std::array<std::string_view, 3> signal_lost_names{"stays as it is", "goes down", "goes up"};
inline constexpr std::array<std::string_view, 4> role_names{"tail", "belly", "wing tip", "other"};
inline constexpr std::array<std::string_view, 3> at_switch_on_names{"stays as it is", "runs everything down",
                                                                    "runs one cycle"};
inline constexpr std::array<std::string_view, 6> action_names{"open",  "close", "raise",
                                                              "lower", "hold",  "let go"};
inline constexpr std::array<std::string_view, 3> aid_names{"steering", "up-lock", "brakes"};
inline constexpr std::array<std::string_view, 2> unit_names{"metric", "inch"};
inline constexpr std::array<std::string_view, 7> origin_names{"missing",  "default",   "plan",   "estimated",
                                                              "measured", "undecided", "guessed"};

inline constexpr std::array<std::string_view, 3> craft_names{"nose wheel", "tail wheel", "helicopter"};
inline constexpr std::array<std::string_view, 3> wing_place_names{"low", "mid", "high"};
inline constexpr std::array<std::string_view, 3> engine_names{"propeller in front", "pusher",
                                                              "ducted or jet"};

namespace spec {
inline Spec length(std::string_view title, double least, double most, bool above = false) {
  return {title, Kind::length, least, most, above};
}
inline Spec place(std::string_view title) { return {title, Kind::length, -60, 60}; }
inline Spec size(std::string_view title, double most = 60) { return {title, Kind::length, 0, most, true}; }
inline Spec mass(std::string_view title) { return {title, Kind::mass, 0, 20000, true}; }
inline Spec angle(std::string_view title, double least_deg, double most_deg) {
  return {title, Kind::angle, radians(least_deg), radians(most_deg)};
}
inline Spec positive(std::string_view title, Kind kind, double most) { return {title, kind, 0, most, true}; }
inline Spec not_negative(std::string_view title, Kind kind, double most) { return {title, kind, 0, most}; }
inline Spec between(std::string_view title, Kind kind, double least, double most) {
  return {title, kind, least, most};
}
}  // namespace spec

}  // namespace kranich
