// SPDX-License-Identifier: GPL-3.0-or-later
//! Place, what does not hang on one loading: wheels and tyres against field and rim, keep-outs, scale.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/assess/assess.h"
#include "core/assess/collector.h"
#include "core/assess/loading_state.h"
#include "core/assess/place_rules.h"
#include "core/force/leg_law.h"
#include "core/model/lacking.h"
#include "core/place/keepout.h"

namespace kranich {
namespace {

Limit pressure_limit(Field field) {
  const auto most = place::firmest_pressure(field);
  return most ? at_most(most->pressure, most->why) : Limit{};
}

void wheel_size(const Design& d, const Assessment& a, Collector& collect) {
  const Heaviest h = heaviest_on(d, a, d.gear.main());
  if (!h.loading) return;
  collect.about("main wheel");
  if (!d.is_model()) {
    const auto usual = place::typical_main_wheel(h.load);
    auto& f = collect.add("place.wheel_size", d.gear.main().wheel.diameter / usual.diameter);
    f.working = {{"usual diameter", usual.diameter, Kind::length},
                 {"usual width", usual.width, Kind::length}};
    return;
  }
  const double usual = wheel_need(d, a, d.gear.main()).usual_diameter;
  auto& f = collect.add("place.wheel_size", d.gear.main().wheel.diameter / usual);
  f.working = {{"usual diameter", usual, Kind::length}};
  if (!d.smooth_field()) f.remark = "20–30 % more than on a smooth field: 25 % taken";
}

void tyre(const Design& d, const Assessment& a, const Leg& leg, Collector& collect) {
  const Wheel& w = leg.wheel;
  const Heaviest h = heaviest_on(d, a, leg);
  if (!h.loading || !w.diameter.known()) return;
  if (const auto law = force::tyre_law(w); std::holds_alternative<Text>(law)) {
    if (leg.carries()) {
      collect.about(about_wheel(d, leg), h.loading->name);
      collect.unknown("place.ground_pressure",
                      entry(leg_root(leg.id) + "wheel/tyre_rate_N_per_m", std::get<Text>(law)));
    }
    return;
  }
  const auto& rest = h.loading->rest->wheels[h.wheel];
  // Of two wheels on an axle the one that carries more.
  const stance::TyreState& state = rest.tyre[0].load > rest.tyre[1].load ? rest.tyre[0] : rest.tyre[1];
  collect.about(about_wheel(d, leg), h.loading->name);
  // A tail wheel or an outrigger is small and hard by trade: its pressure is shown, not judged.
  const bool judged = leg.carries();
  if (judged && !d.is_model() && d.purpose.field == Field::unsaid) {
    collect.unknown("place.ground_pressure", entry("/purpose/field", "the field that it is flown from"));
  } else if (w.tyre == Tyre::pneumatic && w.pressure.known()) {
    collect.add("place.ground_pressure", w.pressure, judged ? pressure_limit(d.purpose.field) : Limit{});
  } else if (w.width.known()) {
    const double patch = place::contact_patch(w, state.closure);
    auto& f = collect.add("place.ground_pressure", state.load / patch,
                          d.is_model() || !judged ? Limit{} : pressure_limit(d.purpose.field));
    f.working = {{"load", state.load, Kind::force}, {"patch", patch, Kind::section_area}};
    if (d.is_model()) f.remark = "for a model the bumps decide, not the pressure";
  }
  if (w.flat_radius.known()) {
    const double section = w.diameter / 2 - w.flat_radius;
    auto& f = collect.add("place.tyre_left", 1 - state.closure / section,
                          at_least(0.1, "textbook: a tenth of the section height stays above the rim"));
    f.working = {{"squash", state.closure, Kind::length},
                 {"section height", section, Kind::length},
                 {"load", state.load, Kind::force}};
  }
  if (w.fork_gap.known()) {
    const double least = std::max(d.is_model() ? 0.001 : 0.005, 0.02 * w.diameter);
    collect.add(
        "place.fork_gap", w.fork_gap,
        at_least(least, d.is_model() ? "1 mm or 2 % of the diameter" : "5 mm or 2 % of the diameter"));
  }
}

//! Two wheels on one axle: apart enough, and what one of them does when the other is flat.
void twins(const Design& d, const Assessment& a, const Leg& leg, Collector& collect) {
  if (!leg.wheel_spacing.known()) return;
  const Wheel& w = leg.wheel;
  const Heaviest h = heaviest_on(d, a, leg);
  collect.about(about_wheel(d, leg), h.loading ? h.loading->name : "");
  if (!w.diameter.known() || !w.width.known()) {
    collect.unknown("place.twin_gap", "the wheels' diameter and width");
  } else {
    const double grows = std::max(d.is_model() ? 0.001 : 0.005, 0.02 * w.diameter);
    auto& f = collect.add("place.twin_gap", leg.wheel_spacing - w.width - 2 * grows,
                          at_least(0, "the tyres must not touch when they have grown"));
    f.working = {{"apart, middle to middle", leg.wheel_spacing, Kind::length},
                 {"width", w.width, Kind::length},
                 {"each grows by", grows, Kind::length}};
  }
  if (w.tyre != Tyre::pneumatic) return;  // foam and solid tyres do not go flat
  const auto law = force::tyre_law(w);
  if (!h.loading || !w.flat_radius.known() || !std::holds_alternative<force::TyreLaw>(law)) {
    collect.unknown("place.twin_flat",
                    !h.loading ? Text("the aircraft at rest on its wheels")
                    : !w.flat_radius.known()
                        ? entry(leg_root(leg.id) + "wheel/flat_radius_m", "the axle's height on a flat tyre")
                        : std::get<Text>(law));
    return;
  }
  const auto& tyre = std::get<force::TyreLaw>(law);
  const double load = h.loading->rest->wheels[h.wheel].load;
  const double squash = tyre.squash(load);
  auto& f = collect.add("place.twin_flat", w.diameter / 2 - squash - w.flat_radius,
                        at_least(0, "below it the rim runs on the ground and shares the load"));
  f.working = {{"load on the leg", load, Kind::force},
               {"squash, all on one", squash, Kind::length},
               {"axle sinks by", squash - tyre.squash(load / 2), Kind::length},
               {"moment on the leg", load * leg.wheel_spacing / 2, Kind::moment}};
  f.assumption = "standing; a landing on one flat tyre is harder: 60 % of it on either wheel is the old rule";
}

void obstacle(const Design& d, Collector& collect) {
  if (!d.purpose.obstacle.known()) return;
  for (const Leg& leg : d.gear.legs) {
    if (!leg.wheel.diameter.known() || leg.skid) continue;
    collect.about(about_wheel(d, leg));
    auto& f = collect.add(
        "place.wheel_obstacle", d.purpose.obstacle / (leg.wheel.diameter / 2),
        leg.carries() ? at_most(1.0 / 3, "taller than a third of the radius stops the wheel") : Limit{});
    f.working = {{"bump", d.purpose.obstacle, Kind::length}};
  }
}

//! What a keep-out lacks to be a solid.
Text keep_out_lacks(const KeepOut& k, const std::string& root) {
  Lacking lacks(root);
  const auto along = [&](const Point& p, const char* corner, Text name) {
    const bool fore = k.runs == RunsAlong::fore_and_aft;
    const bool athwart = k.runs == RunsAlong::athwartships;
    lacks.number(fore      ? p.x
                 : athwart ? p.y
                           : p.z,
                 std::string(corner) + (fore      ? "/x_m"
                                        : athwart ? "/y_m"
                                                  : "/z_m"),
                 std::move(name));
  };
  switch (k.shape) {
    case Shape::box:
      lacks.place(k.low, "low", "one corner").place(k.high, "high", "the corner across from it");
      break;
    case Shape::cylinder:
      lacks.place(k.low, "low", "one end of its centre line")
          .place(k.high, "high", "the other end")
          .number(k.radius, "radius_m", "its radius");
      break;
    case Shape::plane:
      lacks.place(k.low, "low", "a point of it").place(k.high, "high", "a point straight before it");
      break;
    case Shape::prism:
      along(k.low, "low", "from where it runs");
      along(k.high, "high", "to where it runs");
      lacks.that(k.outline.size() < 3 || lacks.nothing(),
                 "an outline of three corners or more that does not cross itself");
      break;
    case Shape::mesh:
      lacks.place(k.low, "low", "where its origin lies");
      lacks.that(k.file.empty(), "its file");
      lacks.that(!k.skin.fault.empty(), say("its file: {}", k.skin.fault));
      break;
  }
  return lacks.nothing() ? Text("two places that differ") : lacks.text();
}

void keep_outs(const Design& d, Collector& collect) {
  if (d.airframe.keep_outs.empty()) return;
  for (size_t i = 0; i < d.airframe.keep_outs.size(); ++i) {
    const KeepOut& k = d.airframe.keep_outs[i];
    if (!place::solids_of(k).empty()) continue;
    // What is not known must not pass for room.
    collect.about(about_one(d.airframe.keep_outs, k), "", GearState::extended);
    collect.unknown("place.keep_out", keep_out_lacks(k, "/airframe/keep_outs/" + std::to_string(i) + "/"));
  }
  for (const Leg& leg : d.gear.legs) {
    const auto unit = place::unit_of(leg);
    if (!unit) continue;
    collect.about(about_unit(d, leg), "", GearState::extended);
    if (const auto near = place::nearest_keep_out(*unit, d.airframe.keep_outs)) {
      auto& f =
          collect.add("place.keep_out", near->distance, at_least(0, "it must not run into the structure"));
      f.remark = near->name;
    }
    const auto ahead = place::furthest(*unit, d.airframe.keep_outs, 0, -1);
    if (std::isfinite(ahead.shift)) {
      auto& f = collect.add("place.room_forward", -ahead.shift);
      f.remark = say("stopped by {}", ahead.stopped_by);
      f.working = {{"a unit shallower by", ahead.shallower, Kind::length}};
      if (std::isfinite(ahead.gain))
        f.working.push_back({"would go further by", ahead.gain, Kind::length});
      else
        f.remark.also("a shallower unit would pass it");
    }
  }
}

//! Between too soft for its load and the most that the wheel may have.
void working_pressure(const Design& d, const Assessment& a, const Leg& leg, Collector& collect) {
  const Wheel& w = leg.wheel;
  if (w.tyre != Tyre::pneumatic || !w.pressure.known() || !w.diameter.known() || !w.width.known()) return;
  const Heaviest h = heaviest_on(d, a, leg);
  if (!h.loading || (!w.flat_radius.known() && !w.greatest_pressure.known())) return;
  const double load = h.load / (leg.wheel_spacing.known() ? 2 : 1);
  Limit limit;
  double least = std::numeric_limits<double>::quiet_NaN();
  if (w.flat_radius.known() && load > 0) {
    const double squash = 0.9 * (w.diameter / 2 - w.flat_radius);
    least = load / place::contact_patch(w, squash);
    limit.lower = least;
  }
  if (w.greatest_pressure.known()) limit.upper = w.greatest_pressure;
  limit.source = w.greatest_pressure.known() ? "a tenth of the section above the rim; the wheel's maker"
                                             : "a tenth of the section above the rim";
  collect.about(about_wheel(d, leg), h.loading->name);
  auto& f = collect.add("place.tyre_pressure", w.pressure, limit);
  f.working = {{"load", load, Kind::force}, {"least that keeps the rim up", least, Kind::pressure}};
  if (!w.greatest_pressure.known()) f.remark = "the wheel's greatest pressure is not given";
}

//! What stands on the axle between leg and wheel, and how far apart that leaves the legs' ends.
void axle_stack(const Design& d, const Leg& leg, Collector& collect) {
  if (leg.skid || !leg.axle.y.known() || leg.stands == LegStands::centre) return;
  if (leg.wheel_offset.known() && leg.role == LegRole::main) {
    collect.about(about_leg(d, leg), "", GearState::extended);
    const double tips = leg.axle_beyond_wheel.known() ? 2 * (leg.axle.y + leg.axle_beyond_wheel)
                                                      : std::numeric_limits<double>::quiet_NaN();
    auto& f = collect.add("place.leg_ends", 2 * (leg.axle.y - leg.wheel_offset));
    f.working = {{"overall, over the axle tips", tips, Kind::length},
                 {"tip beyond the wheel's middle, each", leg.axle_beyond_wheel, Kind::length},
                 {"wheel's middle from the leg, each", leg.wheel_offset, Kind::length}};
  }
  if (!leg.hub_width.known() && !leg.spacer.known() && !leg.brake_width.known()) return;
  collect.about(about_leg(d, leg), "", GearState::extended);
  Lacking lacks(leg_root(leg.id));
  lacks.number(leg.hub_width, "hub_width_m", "the hub's width")
      .number(leg.spacer, "spacer_m", "the spacers' width, 0 where there is none")
      .number(leg.brake_width, "brake_width_m", "the brake's width, 0 where there is none")
      .number(leg.wheel_offset, "wheel_offset_m", "how far the wheel stands from the leg");
  if (!lacks.nothing()) {
    collect.unknown("place.axle_stack", lacks.text());
    return;
  }
  const double stack = leg.hub_width / 2 + leg.spacer + leg.brake_width;
  auto& f = collect.add("place.axle_stack", stack - std::abs(leg.wheel_offset),
                        bands(-0.002, -0.0005, 0.0005, 0.002, "what a washer takes up"));
  f.working = {{"half the hub", leg.hub_width / 2, Kind::length},
               {"spacers", leg.spacer, Kind::length},
               {"brake", leg.brake_width, Kind::length},
               {"wheel from the leg", leg.wheel_offset, Kind::length}};
}

//! A tyre between the cheeks of its fork, grown, bulging and with its bearings' play.
void fork(const Design& d, const Leg& leg, Collector& collect) {
  const Wheel& w = leg.wheel;
  if (!w.fork_inside.known()) return;
  collect.about(about_wheel(d, leg), "", GearState::extended);
  Lacking lacks(leg_root(leg.id) + "wheel/");
  lacks.number(w.width, "width_m", "the wheel's width")
      .number(w.grows_wide, "grows_wide_m", "by how much the tyre grows to each side")
      .number(w.bulge, "bulge_m", "by how much it bulges under load")
      .number(w.rim_play, "rim_play_m", "the play of its bearings at the rim");
  if (!lacks.nothing()) {
    collect.unknown("place.fork_under_way", lacks.text());
    return;
  }
  const double still = (w.fork_inside - w.width) / 2;
  const double left = still - w.grows_wide - w.bulge - w.rim_play;
  const double wear = d.is_model() ? 0.0005 : 0.003;
  auto& f =
      collect.add("place.fork_under_way", left, at_least_or_tight(0, wear, "it must not rub under any load"));
  f.working = {
      {"each side, at rest and new", still, Kind::length},
      {"fork as wide inside as", w.width + 2 * (w.grows_wide + w.bulge + w.rim_play + wear), Kind::length}};
  if (left < wear) f.working.push_back({"spacer on each side", wear - left, Kind::length});
}

//! What goes in and out past everything else.
void accesses(const Design& d, Collector& collect) {
  const auto& list = d.airframe.accesses;
  for (size_t i = 0; i < list.size(); ++i) {
    const Access& a = list[i];
    collect.about(about_one(list, a), "", GearState::extended);
    Lacking lacks("/airframe/accesses/" + std::to_string(i) + "/");
    lacks.place(a.low, "low", "its least corner")
        .place(a.high, "high", "its greatest corner")
        .number(a.way_x, "way_x_m", "how far aft it goes to be out, forward negative, 0 if not")
        .number(a.way_y, "way_y_m", "how far to starboard")
        .number(a.way_z, "way_z_m", "how far up");
    if (!lacks.nothing()) {
      collect.unknown("place.access", lacks.text());
      continue;
    }
    const auto out =
        place::way_out({a.low.vec(), a.high.vec()}, {a.way_x, a.way_y, a.way_z}, d.airframe.keep_outs);
    if (!out) {
      collect.unknown("place.access",
                      entry("/airframe/keep_outs", "what is in its way: spar, servo, straps"));
      continue;
    }
    auto& f = collect.add("place.access", out->distance,
                          a.clearance.known() ? at_least(a.clearance, "the room you want round it")
                                              : at_least(0, "it must pass"));
    f.remark = say("past {}, when {} of its way is done", out->name, Amount{out->share, Kind::share});
  }
}

//! Mains by the edges that a builder measures from, and legs that must go where a former is.
void references(const Design& d, Collector& collect) {
  const auto& list = d.airframe.references;
  for (const auto& r : list) {
    if (!r.x.known() || !d.gear.has(LegRole::main) || !d.gear.main().axle.x.known()) continue;
    collect.about(about_one(list, r), "", GearState::extended);
    auto& f = collect.add("place.reference", d.gear.main().axle.x - r.x);
    for (const Leg& leg : d.gear.legs)
      if (&leg != &d.gear.main() && leg.axle.x.known())
        f.working.push_back({say("{} axle", d.stem_word(leg)), leg.axle.x - r.x, Kind::length});
  }
  if (std::none_of(list.begin(), list.end(), [](const Reference& r) { return r.former && r.x.known(); }))
    return;
  for (const Leg& leg : d.gear.legs) {
    if (leg.role != LegRole::nose && leg.role != LegRole::tail) continue;
    const double x = leg.held_at().x();
    if (!std::isfinite(x)) continue;
    const Reference* nearest = nullptr;
    for (const auto& r : list)
      if (r.former && r.x.known() && (!nearest || std::abs(r.x - x) < std::abs(nearest->x - x))) nearest = &r;
    collect.about(about_leg(d, leg), "", GearState::extended);
    Limit limit = at_most(d.is_model() ? 0.005 : 0.02, "it has to be fixed to the former");
    limit.hold_upper = *limit.upper / 2;
    auto& f = collect.add("place.former", std::abs(nearest->x - x), limit);
    f.remark = nearest->name;
    f.working = {{"leg held at", x, Kind::length}, {"former at", nearest->x, Kind::length}};
  }
}

void scale(const Design& d, Collector& collect) {
  const Purpose& p = d.purpose;
  if (!d.is_model() || !p.scale_denominator.known()) return;
  collect.about("", "");
  const double s = p.scale_denominator;
  if (p.prototype_wheel_diameter.known() && d.gear.main().wheel.diameter.known()) {
    auto& f =
        collect.add("place.scale_wheel", d.gear.main().wheel.diameter / (p.prototype_wheel_diameter / s));
    f.working = {{"scale diameter", p.prototype_wheel_diameter / s, Kind::length}};
  }
  if (p.prototype_main_x.known() && d.gear.main().axle.x.known()) {
    auto& f = collect.add("place.scale_station", d.gear.main().axle.x - p.prototype_main_x / s);
    f.working = {{"scale station", p.prototype_main_x / s, Kind::length}};
  }
  if (p.prototype_track.known() && d.gear.main().axle.y.known()) {
    auto& f = collect.add("place.scale_track", 2 * d.gear.main().axle.y - p.prototype_track / s);
    f.working = {{"scale track", p.prototype_track / s, Kind::length}};
  }
}

}  // namespace

void assess_wheels(const Design& d, Assessment& a, Collector& collect) {
  wheel_size(d, a, collect);
  for (const Leg& leg : d.gear.legs)
    if (!leg.skid) {
      tyre(d, a, leg, collect);
      working_pressure(d, a, leg, collect);
      axle_stack(d, leg, collect);
      fork(d, leg, collect);
      twins(d, a, leg, collect);
    }
  obstacle(d, collect);
  keep_outs(d, collect);
  accesses(d, collect);
  references(d, collect);
  scale(d, collect);
}

}  // namespace kranich
