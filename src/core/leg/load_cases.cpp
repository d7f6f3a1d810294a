// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/leg/load_cases.h"

#include <cmath>
#include <numbers>

namespace kranich::leg {
namespace {

constexpr double aft = 1;
constexpr double inboard = -1;

//! Both legs of a pair land and brake alike.
void meets_alike(LoadCases& out) { out.cases.back().twin = out.cases.back().name; }
//! A side load pushes one leg inboard and the other outboard.
void meets_each_other(LoadCases& out) {
  LoadCase& last = out.cases.back();
  LoadCase& before = out.cases[out.cases.size() - 2];
  last.twin = before.name;
  before.twin = last.name;
}

//! Full size, a main leg.
void full_size_main(const CaseInput& in, LoadCases& out) {
  const LoadFactors& f = in.factors;
  if (std::isfinite(in.ground_factor)) {
    const double up = in.ground_factor * in.share;
    const double drag = f.spin_up * in.inertia_factor * in.share;
    const Text level = say("N {} of the share up, {}·n {} of it along", Figure{in.ground_factor, 2},
                           Figure{f.spin_up, 2}, Figure{in.inertia_factor, 2});
    out.cases.push_back({"level landing, spin-up", {aft * drag, 0, up}, false, level, true});
    meets_alike(out);
    out.cases.push_back({"level landing, spring-back", {-drag, 0, up}, false, level, true});
    meets_alike(out);
    out.cases.push_back(
        {"one wheel", {aft * drag, 0, up}, false, say("{}; the airframe carries it one-sided", level), true});
    if (std::isfinite(in.tail_down_pitch)) {
      const double a = in.tail_down_pitch;  // the ground's vertical in aircraft axes
      out.cases.push_back(
          {"tail-down landing", up * Vec3(-std::sin(a), 0, std::cos(a)), false,
           say("N {} of the share, aircraft {} nose-up", Figure{in.ground_factor, 2}, Amount{a, Kind::angle}),
           true});
      meets_alike(out);
    } else {
      out.missing.emplace_back("tail-down landing: the attitude at which the tail meets the ground");
    }
  } else {
    out.missing.emplace_back("landings: the load factor of the design landing");
  }
  const double up = f.side_up * in.weight / 2;
  out.cases.push_back({"side load inboard",
                       {0, inboard * f.side_in * in.weight, up},
                       true,
                       say("{} of the weight shared by the mains; of the weight {} inboard",
                           Figure{f.side_up, 2}, Figure{f.side_in, 2})});
  out.cases.push_back({"side load outboard",
                       {0, -inboard * f.side_out * in.weight, up},
                       true,
                       say("{} of the weight shared by the mains; of the weight {} outboard",
                           Figure{f.side_up, 2}, Figure{f.side_out, 2})});
  meets_each_other(out);
  if (in.brakes) {
    const double braked = f.brake_up * in.weight / 2;
    out.cases.push_back({"braked roll",
                         {aft * f.brake_drag * braked, 0, braked},
                         true,
                         say("{} of the weight shared, {} of it aft at the ground", Figure{f.brake_up, 2},
                             Figure{f.brake_drag, 2})});
    meets_alike(out);
  }
}

void full_size_nose(const CaseInput& in, LoadCases& out) {
  const LoadFactors& f = in.factors;
  const double up = f.nose_up * in.share;
  const auto from = [&](const Text& part) {
    return say("{} of the static load, of which {}", Figure{f.nose_up, 2}, part);
  };
  out.cases.push_back(
      {"nose wheel, aft", {aft * f.nose_aft * up, 0, up}, false, from(say("{} aft", Figure{f.nose_aft, 2}))});
  out.cases.push_back({"nose wheel, forward",
                       {-f.nose_forward * up, 0, up},
                       false,
                       from(say("{} forward", Figure{f.nose_forward, 2}))});
  if (in.brakes && std::isfinite(in.share_braking)) {
    // Its wheel rolls: the mains' brakes press it down, nothing holds it back.
    const double braked = f.brake_up * in.share_braking;
    out.cases.push_back({"nose wheel, mains braked",
                         {0, 0, braked},
                         false,
                         say("{} of what the braking mains put on it", Figure{f.brake_up, 2})});
  }
  out.cases.push_back({"nose wheel, sideways",
                       {0, f.nose_side * up, up},
                       false,
                       from(say("{} to a side", Figure{f.nose_side, 2}))});
}

void full_size_tail(const CaseInput& in, LoadCases& out) {
  if (std::isfinite(in.ground_factor)) {
    const double r = in.ground_factor * in.share;
    out.cases.push_back({"tail wheel, obstruction", r * Vec3(1, 0, 1) / std::numbers::sqrt2, false,
                         say("N {} of the static load, up and aft at 45°", Figure{in.ground_factor, 2}),
                         true});
  } else {
    out.missing.emplace_back("obstruction: the load factor of the design landing");
  }
  out.cases.push_back(
      {"tail wheel, side", {0, in.share, in.share}, false, "static load with an equal side load"});
}

void outrigger(const CaseInput& in, LoadCases& out) {
  if (!(in.outrigger_load > 0)) {
    out.missing.emplace_back("leaning on it: no loading puts anything on this outrigger");
    return;
  }
  const double up = in.outrigger_load;
  const Text from = say("the greatest load that leaning puts on it, {}", Amount{up, Kind::force});
  out.cases.push_back({"leaning on it", {0, 0, up}, true, from});
  for (const double side : {inboard, -inboard})
    out.cases.push_back(
        {side == inboard ? "leaning on it, side load inboard" : "leaning on it, side load outboard",
         {0, 0.5 * side * up, up},
         true,
         say("{}, half of it sideways", from)});
}

void model_leg(const CaseInput& in, LoadCases& out) {
  if (!std::isfinite(in.ground_factor)) {
    out.missing.emplace_back("landings: the drop of this leg");
    return;
  }
  const LoadFactors& f = in.factors;
  const double up = in.ground_factor * in.share;
  const double drag = (in.rough_field ? f.model_drag_rough : f.model_drag) * up;
  const double side = f.model_side * up;
  const auto from = [&](const Text& part) {
    return say("the drop's N {} of the share up, of it {}", Figure{in.ground_factor, 2}, part);
  };
  out.cases.push_back(
      {"landing, drag aft", {aft * drag, 0, up}, false, from(say("{} aft", Figure{drag / up, 2})), true});
  meets_alike(out);
  out.cases.push_back({"landing, spring-back",
                       {-0.5 * drag, 0, up},
                       false,
                       from(say("{} forward", Figure{0.5 * drag / up, 2})),
                       true});
  meets_alike(out);
  out.cases.push_back({"landing, side inboard",
                       {0, inboard * side, up},
                       true,
                       from(say("{} inboard", Figure{f.model_side, 2})),
                       true});
  out.cases.push_back({"landing, side outboard",
                       {0, -inboard * side, up},
                       true,
                       from(say("{} outboard", Figure{f.model_side, 2})),
                       true});
  meets_each_other(out);
}

}  // namespace

LoadCases load_cases(const CaseInput& in) {
  LoadCases out;
  if (in.outrigger)
    outrigger(in, out);
  else if (in.model)
    model_leg(in, out);
  else if (in.main)
    full_size_main(in, out);
  else if (in.tricycle)
    full_size_nose(in, out);
  else
    full_size_tail(in, out);
  return out;
}

}  // namespace kranich::leg
