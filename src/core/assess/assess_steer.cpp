// SPDX-License-Identifier: GPL-3.0-or-later
//! Steer: turning on the ground, the steering while the leg folds, what stops it.
#include <algorithm>
#include <cmath>
#include <limits>

#include "core/assess/assess.h"
#include "core/assess/collector.h"
#include "core/assess/loading_state.h"
#include "core/assess/place_rules.h"
#include "core/base/quantity.h"
#include "core/doors/door.h"
#include "core/drive/load.h"
#include "core/model/lacking.h"
#include "core/motion/retract.h"
#include "core/place/keepout.h"
#include "core/place/wheel_shelf.h"
#include "core/steer/steering.h"
#include "core/swing/swing.h"

namespace kranich {
namespace {

class SteerJudge {
 public:
  SteerJudge(const Design& d, const Leg& leg, const Assessment& a, Collector& collect)
      : d_(d), leg_(leg), s_(leg.steering), a_(a), collect_(collect) {}

  void all() {
    collect_.about(about_leg(d_, leg_), "", GearState::static_load);
    if (s_.kind != SteeringKind::none) {
      turn();
      trail();
      clearance();
    }
    servo_room();
    if (s_.kind == SteeringKind::rod || s_.kind == SteeringKind::sliding_rods) {
      square();
      springing();
      if (leg_.retraction.fitted) fold();
      servo();
    }
    play();
  }

 private:
  std::string root() const { return leg_root(leg_.id); }

  void turn() {
    const Leg& main = d_.gear.main();
    Lacking lacks;
    lacks.number(s_.angle, root() + "steering/angle_deg", "how far it turns")
        .place(leg_.axle, root() + "axle", "its axle")
        .place(main.axle, leg_root(main.id) + "axle", "the main axle");
    const auto axis = steer::steering_axis(leg_);
    if (lacks.nothing()) lacks.that(!axis, "the leg's line");
    if (!lacks.nothing()) {
      collect_.unknown("steer.turn", lacks.text());
      return;
    }
    if (!(s_.angle < radians(89))) {  // about one wheel, or on the spot
      auto& f = collect_.add("steer.turn", 0, radius());
      f.remark = "turns on the spot";
      return;
    }
    const steer::Turning t = *steer::turning_of(d_, leg_);
    const auto figures = steer::turn_figures(t);
    auto& f = collect_.add("steer.turn", figures.middle, radius());
    f.working = {{"wheelbase", t.wheelbase, Kind::length},
                 {"on the ground", figures.ground_angle, Kind::angle},
                 {"inner main wheel", figures.inner, Kind::distance},
                 {"outer main wheel", figures.outer, Kind::distance},
                 {"steered wheel", figures.steered, Kind::distance}};
    if (t.span > 0) f.working.push_back({"outer wing tip", figures.tip, Kind::distance});
    if (figures.inner < 0) f.remark = "the inner wheel rolls backward";
    if (s_.wanted_radius.known())
      f.working.push_back({"wanted needs", steer::angle_for(t, s_.wanted_radius), Kind::angle});
  }
  Limit radius() const {
    return s_.wanted_radius.known() ? at_most(s_.wanted_radius, "the turn you want") : Limit{};
  }

  //! Standing in the heaviest loading on it; level where it does not stand.
  void trail() {
    const auto axis = steer::steering_axis(leg_);
    const Wheel& w = leg_.wheel;
    Lacking lacks(root());
    lacks.place(leg_.axle, "axle", "its axle").number(w.diameter, "wheel/diameter_m", "the wheel's diameter");
    if (lacks.nothing()) lacks.that(!axis, "the leg's line");
    if (!lacks.nothing()) {
      if (!leg_.skid) collect_.unknown("steer.trail", lacks.text());
      return;
    }
    const Heaviest load = heaviest_on(d_, a_, leg_);
    const double pitch = load.loading ? load.loading->rest->pitch : 0;
    const double trail = steer::trail(*axis, leg_.axle.vec(), w.diameter / 2, pitch).length;
    const bool castors = s_.kind == SteeringKind::castors;
    auto& f = collect_.add(
        "steer.trail", trail,
        castors
            ? at_least_or_tight(0, 0.1 * w.diameter, "a castor: a tenth of its diameter keeps it straight")
            : at_least_or_tight(-0.1 * w.diameter, 0, "steered: what leads is held by rod and servo alone"));
    f.working = {{"share of the diameter", trail / w.diameter, Kind::share},
                 {"pitch, standing", pitch, Kind::angle}};
    if (leg_.axle_aft.known())
      f.working.push_back({"axle behind the leg's line", leg_.axle_aft, Kind::length});
    if (!load.loading) f.assumption = "taken level: how it stands is not known";
  }

  void servo_room() {
    if (!s_.servo_low.known() && !s_.servo_high.known()) return;
    collect_.about(about_leg(d_, leg_), "", GearState::extended);
    Lacking lacks(root());
    lacks.place(s_.servo_low, "steering/servo_low", "the servo's least corner")
        .place(s_.servo_high, "steering/servo_high", "its greatest corner");
    if (!lacks.nothing()) {
      collect_.unknown("steer.servo_room", lacks.text());
      return;
    }
    const motion::Box body{s_.servo_low.vec(), s_.servo_high.vec()};
    double least = std::numeric_limits<double>::infinity();
    Text to;
    if (const auto near = place::nearest_keep_out(body, d_.airframe.keep_outs)) {
      least = near->distance;
      to = near->name;
    }
    if (leg_.retraction.fitted) {
      // What swings past it: as another body in the way.
      auto input = swing::swing_input(leg_, {});
      const auto* in = std::get_if<swing::SwingInput>(&input);
      if (!in) {
        collect_.unknown("steer.servo_room", std::get<Text>(input));
        return;
      }
      swing::SwingInput past{in->moving, {{"", body}}, 0};
      const auto swept = swing::least_clearance(past);
      if (swept.distance < least) {
        least = swept.distance;
        to = say("{} at {}", swing::part_word(swept.part), Amount{swept.turn, Kind::angle});
      }
    } else if (const auto wheel = wheel_alone()) {
      const double distance = nearest(*wheel, motion::Obstacle(body)).distance;
      if (distance < least) {
        least = distance;
        to = "the wheel";
      }
    }
    if (!std::isfinite(least)) {
      collect_.unknown("steer.servo_room", "something near it: wheel, leg or structure");
      return;
    }
    const Given& wanted = leg_.retraction.well.clearance;
    collect_
        .add("steer.servo_room", least,
             leg_.retraction.fitted && wanted.known() ? at_least(wanted, "the clearance you want")
                                                      : at_least(0, "it must not touch"))
        .remark = say("to {}", to);
    collect_.about(about_leg(d_, leg_), "", GearState::static_load);
  }

  void clearance() {
    const auto made = wheel_alone();
    const auto axis = steer::steering_axis(leg_);
    if (!made || !axis || !s_.angle.known()) return;
    double least = std::numeric_limits<double>::infinity();
    double at = 0;
    Text into;
    const double reach = (made->centre - axis->point).cross(axis->direction).norm() +
                         std::hypot(made->diameter, made->width) / 2;
    const auto look = [&](auto&& distance, const Text& what) {
      // None of its points moves further than this: what lies further off needs no closer look.
      if (distance(0) - s_.angle * reach >= least) return;
      const double stop = s_.angle;
      const auto [worst, from_stop] =
          drive::least_over(2 * stop, [&](double t) { return distance(t - stop); });
      if (worst >= least) return;
      least = worst;
      at = from_stop - stop;
      into = what;
    };
    const auto turned = [&](double angle) {
      const Eigen::Isometry3d by = axis->turn(angle);
      return motion::RoundedWheel{by * made->centre, by.linear() * made->axle, made->diameter, made->width,
                                  made->shoulder};
    };
    for (const Door& door : d_.doors) {
      if (door.leg != leg_.id || door.drive.way == DoorWay::stop_arm) continue;
      const auto panel = motion::panel_of(door);
      const double opening = doors::opening_at(d_, door, 0);
      if (!panel || !std::isfinite(opening)) continue;
      look([&](double angle) { return panel->clearance(turned(angle), opening); }, d_.actor_word(door.id));
      if (leg_.stands != LegStands::centre) continue;
      const auto twin = motion::mirrored(*panel);
      look([&](double angle) { return twin.clearance(turned(angle), opening); }, d_.actor_word(door.id));
    }
    for (const KeepOut& k : d_.airframe.keep_outs) {
      for (const auto& solid : place::solids_of(k)) {
        look([&](double angle) { return nearest(turned(angle), solid).distance; }, k.name);
        if (leg_.stands == LegStands::centre)
          look([&](double angle) { return nearest(turned(angle), motion::mirrored(solid)).distance; },
               k.name);
      }
    }
    if (!std::isfinite(least)) return;  // nothing near it is known
    const Given& wanted = leg_.retraction.well.clearance;
    auto& f =
        collect_.add("steer.clearance", least,
                     leg_.retraction.fitted && wanted.known() ? at_least(wanted, "the clearance you want")
                                                              : at_least(0, "it must not touch"));
    f.remark = say("to {}, turned by {}", into, Amount{at, Kind::angle});
  }
  std::optional<motion::RoundedWheel> wheel_alone() const {
    const Wheel& w = leg_.wheel;
    if (!w.diameter.known() || !w.width.known() || !leg_.axle.known()) return std::nullopt;
    return motion::RoundedWheel{leg_.axle.vec(), motion::axle_direction(leg_), w.diameter, w.width,
                                w.shoulder_radius.known() ? w.shoulder_radius.si : 0};
  }

  void square() {
    const auto axis = steer::steering_axis(leg_);
    Lacking lacks(root());
    lacks.place(s_.rod_airframe, "steering/rod_airframe", "the rod's end at the servo")
        .place(s_.rod_leg, "steering/rod_leg", "the rod's end on the leg");
    if (lacks.nothing()) lacks.that(!axis, "the leg's line");
    if (!lacks.nothing()) {
      collect_.unknown("steer.square", lacks.text());
      return;
    }
    auto& f = collect_.add(
        "steer.square", steer::off_square(*axis, s_.rod_leg.vec(), s_.rod_airframe.vec()),
        Limit{{}, radians(40), {}, radians(20), "within 20° it enters straight, beyond 40° it jams"});
    f.working = {{"arm on the leg", arm(*axis), Kind::length}};
  }
  //! Linkage and springing must agree: what the leg's travel does to the wheel with the rod held.
  void springing() {
    const auto turn = steer::turn_by_springing(leg_);
    if (!turn) return;
    const Limit limit{{}, radians(3), {}, radians(1), "a degree is not felt, three are steered against"};
    if (std::isfinite(*turn))
      collect_.add("steer.springing", *turn, limit).working = {
          {"over a travel of", leg_.travel, Kind::length}};
    else
      collect_.fails("steer.springing", limit, "the rod locks while the leg springs");
  }
  double arm(const motion::Axis& axis) const {
    return (s_.rod_leg.vec() - axis.point).cross(axis.direction).norm();
  }

  //! Whether Sequence has a step that takes the command away; when, is judged there.
  bool switched_off_in_sequence() const {
    const auto& aids = d_.sequence.aids;
    return std::any_of(d_.sequence.up.begin(), d_.sequence.up.end(), [&](const Step& s) {
      return s.action == Action::let_go && std::any_of(aids.begin(), aids.end(), [&](const Aid& a) {
               return a.id == s.actor && a.kind == AidKind::steering && a.leg == leg_.id;
             });
    });
  }
  void fold() {
    // The command against the fold, whatever the rod does.
    if (s_.lets_go || switched_off_in_sequence())
      collect_.add("steer.off", 1, at_least(0.5, "it goes up straight and idle"));
    else
      collect_.add("steer.off", 0, at_least(0.5, "it goes up straight and idle")).remark =
          "nobody takes the steering's command away: the servo works against the fold, and the wheel may "
          "enter turned";
    const auto made = steer::folding_rod(leg_);
    const char* which = s_.kind == SteeringKind::rod ? "steer.fold" : "steer.slide";
    if (const Text* missing = std::get_if<Text>(&made)) {
      collect_.unknown(which, *missing);
      return;
    }
    const auto& rod = std::get<steer::FoldingRod>(made);
    const auto figures = steer::fold_figures(rod);
    if (s_.kind == SteeringKind::rod) {
      Limit limit = at_most(radians(5), "so little that it still enters straight");
      if (!std::isfinite(figures.turns)) {
        collect_.fails("steer.fold", limit,
                       say("the rod locks with the leg at {}: it must slide, or let go",
                           Amount{figures.locks_at, Kind::angle}));
        return;
      }
      auto& f = collect_.add("steer.fold", figures.turns, limit);
      f.working = {{"rod", rod.length(0), Kind::length}};
      return;
    }
    collect_.add("steer.fold", 0, at_most(radians(5), "so little that it still enters straight")).remark =
        "it slides, and leaves the wheel alone";
    auto& pull = collect_.add("steer.pull", figures.opens,
                              at_most(std::max(5e-4, 0.002 * rod.length(0)), "what play and bending take"));
    pull.working = {{"rod, down", rod.length(0), Kind::length}};
    if (!s_.slide.known()) {
      Lacking lacks(root());
      lacks.number(s_.slide, "steering/slide_m", "how far it may slip");
      auto& f = collect_.unknown("steer.slide", lacks.text());
      f.working = {{"ends come together by", figures.closes, Kind::length}};
      return;
    }
    auto& f = collect_.add("steer.slide", s_.slide - figures.closes,
                           at_least(0, "it must not come up against its end"));
    f.working = {{"ends come together by", figures.closes, Kind::length},
                 {"rod, down", rod.length(0), Kind::length}};
  }

  void servo() {
    const Heaviest load = heaviest_on(d_, a_, leg_);
    const auto axis = steer::steering_axis(leg_);
    const Wheel& w = leg_.wheel;
    if (!load.loading || !w.width.known()) return;  // it does not stand: said elsewhere
    const double patch = w.tyre == Tyre::pneumatic && w.pressure.known()
                             ? load.load / w.pressure
                             : place::contact_patch(w, load.loading->rest->wheels[load.wheel].tyre_closure);
    constexpr double rubber = 0.8;
    const double moment = steer::scrub_moment(load.load, patch, rubber);
    if (!std::isfinite(moment)) return;
    collect_.about(about_leg(d_, leg_), load.loading->name);
    auto& m = collect_.add("steer.scrub", moment);
    m.working = {{"load", load.load, Kind::force}, {"patch", patch, Kind::section_area}};
    if (!s_.servo_torque.known() && !s_.servo_arm.known()) return;  // steered by foot
    Lacking lacks(root());
    lacks.number(s_.servo_torque, "steering/servo_torque_N_m", "the servo's torque")
        .number(s_.servo_arm, "steering/servo_arm_m", "the servo's arm")
        .place(s_.rod_leg, "steering/rod_leg", "the rod's end on the leg");
    if (lacks.nothing()) lacks.that(!axis, "the leg's line");
    if (!lacks.nothing()) {
      collect_.unknown("steer.servo", lacks.text());
      return;
    }
    auto& f = collect_.add("steer.servo", 1 - moment * s_.servo_arm / arm(*axis) / s_.servo_torque,
                           at_least_or_tight(0, 0.3, "some 30 % in hand, standing on tarmac"));
    f.working = {{"to turn the wheel", moment, Kind::moment}, {"arm on the leg", arm(*axis), Kind::length}};
    collect_.about(about_leg(d_, leg_));
  }

  void play() {
    if (!s_.bush_play.known() && !s_.bush_length.known()) return;
    Lacking lacks(root());
    lacks.number(s_.bush_play, "steering/bush_play_m", "the play of its bush")
        .number(s_.bush_length, "steering/bush_length_m", "how far apart its bearings are");
    if (!lacks.nothing()) {
      collect_.unknown("steer.play", lacks.text());
      return;
    }
    auto& f = collect_.add("steer.play", s_.bush_play / s_.bush_length);
    const double below =
        leg_.held_at().z() - leg_.axle.z + (leg_.wheel.diameter.known() ? leg_.wheel.diameter / 2 : 0);
    if (std::isfinite(below)) f.working = {{"at the ground", f.value * below, Kind::length}};
    f.remark = s_.bush_play > 0 ? Text("snug enough to stay, loose enough to turn: try it by hand")
                                : Text("without play it does not turn when it is warm or dirty");
  }

  const Design& d_;
  const Leg& leg_;
  const Steering& s_;
  const Assessment& a_;
  Collector& collect_;
};

//! What stops it: braked mains, or the skid that was the brake.
void brakes(const Design& d, const Assessment& a, Collector& collect) {
  if (!d.flies_on_wings() || !d.gear.has_third() || !d.gear.has(LegRole::main)) return;
  const Leg& main = d.gear.main();
  const Leg& third = d.gear.third();
  if (!main.axle.known() || !third.axle.known()) return;
  const bool tail = third.role == LegRole::tail;
  if (d.is_model() && !d.gear.brakes && !tail) return;  // a model on three wheels rolls out
  const double wheelbase = std::abs(third.axle.x - main.axle.x);
  for (const LoadingState& l : a.loadings) {
    if (!l.flown || !l.mass.known() || !l.rest) continue;
    const Vec3 cg = l.mass.down.at;
    const double ground = main.axle.z - main.wheel.diameter / 2;
    const steer::Braking b{wheelbase, std::abs(cg.x() - main.axle.x), cg.z() - ground, tail, 0.5};
    if (!(b.height > 0) || !(b.cg < wheelbase)) continue;
    collect.about(Subject("brakes"), l.name);
    const double slows = d.gear.brakes        ? steer::deceleration(b)
                         : tail && third.skid ? steer::skid_deceleration(b)
                                              : 0;
    // A model rolls out on grass by itself: what it can do is told, not judged.
    auto& f =
        collect.add("steer.brakes", slows,
                    d.is_model() ? Limit{} : at_least(0.05, "something must stop it on a slope or in wind"));
    f.working = {{"CG from the mains", b.cg, Kind::length}, {"CG above the ground", b.height, Kind::length}};
    if (!d.gear.brakes && tail)
      f.remark = third.skid ? Text("by the skid alone")
                            : Text("the skid was the brake: a wheel in its place asks for brakes");
  }
}

}  // namespace

void assess_steer(const Design& d, Assessment& a, Collector& collect, const Asked&) {
  for (const Leg& leg : d.gear.legs) SteerJudge(d, leg, a, collect).all();
  brakes(d, a, collect);
}

}  // namespace kranich
