// SPDX-License-Identifier: GPL-3.0-or-later
#include <fmt/format.h>

#include <algorithm>

#include "core/base/text.h"
#include "core/shop/maker.h"
#include "core/shop/shop_steps.h"

namespace kranich::shop {
namespace {

bool any_leg(const Design& d, bool (*is)(const Leg&)) {
  return std::any_of(d.gear.legs.begin(), d.gear.legs.end(), is);
}
bool any_joint(const Design& d, bool (*is)(const Joint&)) {
  return std::any_of(d.gear.legs.begin(), d.gear.legs.end(),
                     [&](const Leg& l) { return std::any_of(l.joints.begin(), l.joints.end(), is); });
}

}  // namespace

std::vector<ShopStep> shop_steps(const Design& d) {
  std::vector<ShopStep> list;
  const auto step = [&](const char* key, const char* words) {
    const bool done = std::any_of(d.done.begin(), d.done.end(), [&](const Done& x) { return x.step == key; });
    list.push_back({key, words, done});
  };
  step("level",
       "Level the fuselage by its reference, block and strap it; nobody beneath until it is secured.");
  step("floor", "Mark centre line, reference station and the wing's leading edge on the floor.");
  step("bar",
       "Set the bar on its stand: height, centre mark, both diagonals equal. Write the readings into Leg.");
  if (any_joint(d, [](const Joint& j) { return j.bought; }))
    step("bought",
         "Bought mounts: look for sparse adhesive, hot glue and tiny screws; pull each one, write the load "
         "into its joint, reglue and screw what does not convince.");
  step("tack", "Cut long, fit, clamp or tack. Engine: propeller off or battery out.");
  step("rake", "Check rake and cant on both sides from the same body points, not from the first leg.");
  step("drill",
       "Drill pilots with the parts clamped in their true place; split stacked parts, clear chips and burrs, "
       "reassemble.");
  if (any_joint(d, [](const Joint& j) { return j.kind == JointKind::plate || j.kind == JointKind::block; }))
    step("veneer",
         "Plates and blocks on plywood: bond to cross-grain or core, or bolt through; the outer veneer peels "
         "off its own ply whatever the adhesive.");
  if (!d.plies.empty()) {
    step("steps_faired",
         "Fair abrupt steps in longerons and skins before the cloth: it bridges them, and the load "
         "gathers there.");
    step("corners",
         "Inside corners: a radius of fibre-filled resin where it carries, of bubble-filled where it only "
         "fills, so that plies lie down without voids.");
    step(
        "bond",
        "Bond preparation: coarse abrasion, paint off, dust out; pores of foam filled wet before the cloth.");
    step("skin",
         "Glass the recess first and bond the part into it: sanding later must not cut the ply that carries "
         "the joint.");
    step("cloth", "Lay the plies in the order of the schedule, tick each; resin weighed, in batches.");
  }
  step("axles", "Bar through both axles: offsets into Leg, toe and camber corrected there.");
  step("final",
       "Weld or glue for good only after fit, travel and attitude are proved. Slow epoxy; gloves, mask.");
  if (any_leg(d, [](const Leg& l) {
        return l.spring.kind == SpringKind::bending && l.spring.bent.form != BentForm::wire;
      })) {
    step("load_loose", "Clamped leaf or bow: load screws in, left loose.");
    step("locating", "Then its locating screws snug, until nothing moves.");
    step("load_home",
         "Then the load screws home: to the crush of the rings where there are any, else to a firm clamp.");
    step("no_holes",
         "No hole through it where it bends: clamp there. Where it does not bend, a hole is fine.");
  }
  step("bar_again", "Bar through both axles again after every bolt-up.");
  step("proof",
       "Static load in steps to the wanted multiple of the leg's share; note load, deflection, where it "
       "gives.");
  step("drop",
       "Drop test: remove people and propeller, guard the sides, catch the rebound, start low, inspect after "
       "every drop.");
  step("taxi", "First taxi: gear left down, slowly, brakes checked.");
  return list;
}

void tick(Design& d, const std::string& key, bool done) {
  std::erase_if(d.done, [&](const Done& x) { return x.step == key; });
  if (done) {
    d.done.emplace_back();
    d.done.back().step = key;
  }
}

Maker::Made Maker::steps() const {
  Drawing s;
  double y = 0;
  int i = 0;
  for (const auto& step : shop_steps(d_)) {
    s.rectangle({0, y - 3.2}, {3.2, y}, Line::mark);
    if (step.done) {
      s.line({0.4, y - 1.8}, {1.3, y - 2.8}, Line::cut);
      s.line({1.3, y - 2.8}, {2.9, y - 0.4}, Line::cut);
    }
    for (const auto& line : wrapped(fmt::format("{}. {}", ++i, step.words), 75)) {
      s.write({6, y - 2.8}, 2.6, line);
      y -= 5;
    }
    y -= 3;
  }
  s.notes = {caution()};
  return s;
}

}  // namespace kranich::shop
