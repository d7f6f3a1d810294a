// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/leg/load_cases.h"

#include <fmt/format.h>

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
    const std::string level = fmt::format("N {:.2f} of the share up, {:.2f}·n {:.2f} of it along",
                                          in.ground_factor, f.spin_up.si, in.inertia_factor);
    out.cases.push_back({"level landing, spin-up", {aft * drag, 0, up}, false, level, true});
    meets_alike(out);
    out.cases.push_back({"level landing, spring-back", {-drag, 0, up}, false, level, true});
    meets_alike(out);
    out.cases.push_back(
        {"one wheel", {aft * drag, 0, up}, false, level + "; the airframe carries it one-sided", true});
    if (std::isfinite(in.tail_down_pitch)) {
      const double a = in.tail_down_pitch;  // the ground's vertical in aircraft axes
      out.cases.push_back({"tail-down landing", up * Vec3(-std::sin(a), 0, std::cos(a)), false,
                           fmt::format("N {:.2f} of the share, aircraft {:.1f}° nose-up", in.ground_factor,
                                       a * 180 / std::numbers::pi),
                           true});
      meets_alike(out);
    } else {
      out.missing.emplace_back("tail-down landing: the attitude at which the tail meets the ground");
    }
  } else {
    out.missing.emplace_back("landings: the load factor of the design landing");
  }
  const double up = f.side_up * in.weight / 2;
  const std::string side =
      fmt::format("{:.2f} of the weight shared by the mains; of the weight ", f.side_up.si);
  out.cases.push_back({"side load inboard",
                       {0, inboard * f.side_in * in.weight, up},
                       true,
                       side + fmt::format("{:.2f} inboard", f.side_in.si)});
  out.cases.push_back({"side load outboard",
                       {0, -inboard * f.side_out * in.weight, up},
                       true,
                       side + fmt::format("{:.2f} outboard", f.side_out.si)});
  meets_each_other(out);
  if (in.brakes) {
    const double braked = f.brake_up * in.weight / 2;
    out.cases.push_back({"braked roll",
                         {aft * f.brake_drag * braked, 0, braked},
                         true,
                         fmt::format("{:.2f} of the weight shared, {:.2f} of it aft at the ground",
                                     f.brake_up.si, f.brake_drag.si)});
    meets_alike(out);
  }
}

void full_size_nose(const CaseInput& in, LoadCases& out) {
  const LoadFactors& f = in.factors;
  const double up = f.nose_up * in.share;
  const std::string from = fmt::format("{:.2f} of the static load, of which ", f.nose_up.si);
  out.cases.push_back({"nose wheel, aft",
                       {aft * f.nose_aft * up, 0, up},
                       false,
                       from + fmt::format("{:.2f} aft", f.nose_aft.si)});
  out.cases.push_back({"nose wheel, forward",
                       {-f.nose_forward * up, 0, up},
                       false,
                       from + fmt::format("{:.2f} forward", f.nose_forward.si)});
  if (in.brakes && std::isfinite(in.share_braking)) {
    // Its wheel rolls: the mains' brakes press it down, nothing holds it back.
    const double braked = f.brake_up * in.share_braking;
    out.cases.push_back({"nose wheel, mains braked",
                         {0, 0, braked},
                         false,
                         fmt::format("{:.2f} of what the braking mains put on it", f.brake_up.si)});
  }
  out.cases.push_back({"nose wheel, sideways",
                       {0, f.nose_side * up, up},
                       false,
                       from + fmt::format("{:.2f} to a side", f.nose_side.si)});
}

void full_size_tail(const CaseInput& in, LoadCases& out) {
  if (std::isfinite(in.ground_factor)) {
    const double r = in.ground_factor * in.share;
    out.cases.push_back({"tail wheel, obstruction", r * Vec3(1, 0, 1) / std::numbers::sqrt2, false,
                         fmt::format("N {:.2f} of the static load, up and aft at 45°", in.ground_factor),
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
  const std::string from = fmt::format("the greatest load that leaning puts on it, {:.0f} N", up);
  out.cases.push_back({"leaning on it", {0, 0, up}, true, from});
  for (const double side : {inboard, -inboard})
    out.cases.push_back(
        {side == inboard ? "leaning on it, side load inboard" : "leaning on it, side load outboard",
         {0, 0.5 * side * up, up},
         true,
         from + ", half of it sideways"});
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
  const std::string from = fmt::format("the drop's N {:.2f} of the share up, of it ", in.ground_factor);
  out.cases.push_back(
      {"landing, drag aft", {aft * drag, 0, up}, false, from + fmt::format("{:.2f} aft", drag / up), true});
  meets_alike(out);
  out.cases.push_back({"landing, spring-back",
                       {-0.5 * drag, 0, up},
                       false,
                       from + fmt::format("{:.2f} forward", 0.5 * drag / up),
                       true});
  meets_alike(out);
  out.cases.push_back({"landing, side inboard",
                       {0, inboard * side, up},
                       true,
                       from + fmt::format("{:.2f} inboard", f.model_side.si),
                       true});
  out.cases.push_back({"landing, side outboard",
                       {0, -inboard * side, up},
                       true,
                       from + fmt::format("{:.2f} outboard", f.model_side.si),
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
