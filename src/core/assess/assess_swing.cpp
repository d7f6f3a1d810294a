// SPDX-License-Identifier: GPL-3.0-or-later
//! Swing: what a leg passes on its way into the well, and where it lies there.
#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/assess/assess.h"
#include "core/assess/collector.h"
#include "core/assess/swing_state.h"
#include "core/model/lacking.h"
#include "core/motion/retract.h"
#include "core/place/keepout.h"
#include "core/swing/cutout.h"
#include "core/swing/units.h"

namespace kranich {
namespace {

//! The hole that a leg needs in the floor it passes.
struct HoleInFloor {
  using From = Leg;
  using Made = std::optional<Eigen::Vector2d>;
  static Made make(const Leg& leg) { return swing::hole_in(leg, leg.retraction.floor); }
};

//! Least distances on the way into the well.
struct Passed {
  struct From {
    Leg leg;
    std::vector<KeepOut> passing;
    swing::SwingInput input;  //!< of these two
    bool operator==(const From& o) const { return leg == o.leg && passing == o.passing; }
  };
  struct Made {
    swing::Clearance least;
    std::optional<swing::Clearance> least_set, least_other_way;
  };
  static Made make(const From& from) {
    const Retraction& r = from.leg.retraction;
    Made m{swing::least_clearance(from.input), {}, {}};
    swing::SwingInput other = from.input;
    if (r.service_set.known() && r.service_set.si != 0.0) {
      other.moving = from.input.moving.set_by(Vec3(r.service_set, 0, 0));
      m.least_set = swing::least_clearance(other);
    }
    if (r.bends.empty()) return m;
    // A bent leg put into its unit half a turn about its shank.
    const Vec3 pivot = r.pivot.vec();
    const Vec3 shank = (r.bends.front().at.vec() - pivot).normalized();
    if (!shank.allFinite()) return m;
    other.moving = from.input.moving.displaced(motion::Axis{pivot, shank}.turn(std::numbers::pi));
    m.least_other_way = swing::least_clearance(other);
    return m;
  }
};

//! Wheels that swing, past each other.
struct Pairs {
  struct From {
    Gear gear;
    double near;
    bool operator==(const From&) const = default;
  };
  using Made = std::vector<SwingPair>;
  static Made make(const From& from) {
    Design d;
    d.gear = from.gear;
    return swing_pairs(d, from.near);
  }
};

//! What a leg and its well come to.
class SwingJudge {
 public:
  SwingJudge(const Design& d, const Leg& leg, Collector& collect, Steps& steps)
      : d_(d), leg_(leg), r_(leg.retraction), collect_(collect), steps_(steps) {}

  LegSwing all() {
    LegSwing s{leg_.id, {}, {}, {}, {}, {}, {}, {}};
    collect_.about(about_legs(d_, leg_), "", GearState::extended);
    unit();
    auto input = swing::swing_input(leg_, d_.airframe.keep_outs);
    s.figures = swing::swing_figures(leg_);
    if (s.figures) lies(*s.figures);
    if (r_.floor.known()) {
      s.slot = steps_.get<HoleInFloor>(leg_);
      slot(s);
    }
    if (const auto turn = swing::turn_by_springing(leg_)) {
      if (std::isfinite(*turn))
        collect_.add("swing.spring_turn", *turn,
                     {{},
                      radians(2),
                      {},
                      radians(1),
                      "handbook, Swing: the rod is dead over the suspension's travel"});
      else
        collect_.fails("swing.spring_turn", at_most(radians(2), "the rod goes all the way"),
                       "the rod locks while the leg springs");
    }
    if (const auto* missing = std::get_if<Text>(&input)) {
      s.missing = *missing;
      if (motion::locks_at(leg_))  // whatever else is missing: it does not get there
        collect_.fails("swing.clearance", at_least(0, "it must get there"), *missing);
      else
        collect_.unknown("swing.clearance", *missing);
      return s;
    }
    s.input = std::get<swing::SwingInput>(std::move(input));
    const auto& passed = steps_.get<Passed>({leg_, d_.airframe.keep_outs, *s.input});
    s.least = passed.least;
    s.least_set = passed.least_set;
    s.least_other_way = passed.least_other_way;
    clearance(s);
    other_way_round(s);
    return s;
  }

 private:
  //! Which way a bent leg goes in, and what the other way would leave.
  void other_way_round(const LegSwing& s) {
    if (!s.least_other_way) return;
    const Vec3 pivot = r_.pivot.vec();
    // Where the knee points: off the straight line from the pivot to the foot.
    const Vec3 knee = r_.bends.front().at.vec();
    const Vec3 line = (motion::foot(leg_) - pivot).normalized();
    const Vec3 off = knee - pivot - (knee - pivot).dot(line) * line;
    const bool fore_and_aft = std::abs(off.x()) >= std::abs(off.y());
    const Text points_to = fore_and_aft ? (off.x() < 0 ? "knee forward" : "knee aft")
                                        : (off.y() < 0 ? "knee inboard" : "knee outboard");
    const Text wheel_on = leg_.wheel_offset < 0   ? "wheel on the inboard side"
                          : leg_.wheel_offset > 0 ? "wheel on the outboard side"
                                                  : "wheel under the leg";
    auto& f = collect_.add("swing.other_way_round", s.least_other_way->distance);
    f.remark = say("right: {}, {}", points_to, wheel_on);
    f.working = {{"right way round", s.least->distance, Kind::length},
                 {"knee off the straight line", off.norm(), Kind::length}};
    f.assumption = "turned half round about its shank; port is the mirror image";
  }

  void slot(const LegSwing& s) {
    if (!s.slot) {
      const auto moving = swing::moving_leg(leg_);
      const auto* missing = std::get_if<Text>(&moving);
      collect_.unknown("swing.slot",
                       missing ? *missing : Text("a floor that the leg passes: this one it does not"));
      return;
    }
    auto& f = collect_.add("swing.slot", s.slot->x());
    f.working = {{"width", s.slot->y(), Kind::length}};
    if (!r_.well.clearance.known()) f.assumption = "no clearance entered: none round it";
  }

  void clearance(const LegSwing& s) {
    const bool by_set = s.least_set && s.least_set->distance < s.least->distance;
    const swing::Clearance& least = by_set ? *s.least_set : *s.least;
    auto& f = collect_.add("swing.clearance", least.distance,
                           at_least(s.input->wanted_clearance, "the clearance you want"));
    f.remark =
        say("{} to {} at {}", swing::part_word(least.part), least.obstacle, Amount{least.turn, Kind::angle});
    f.working = {{"at a turn of", least.turn, Kind::angle},
                 {"pivot to axle", s.figures->length, Kind::length}};
    if (s.least_set) {
      f.working.push_back({"as new", s.least->distance, Kind::length});
      f.working.push_back({"after its set in service", s.least_set->distance, Kind::length});
    }
    f.assumption = by_set ? Text("leg extended, bent back by its set; tyre grown by growth and side play")
                          : Text("leg extended; tyre grown by growth and side play");
  }

  //! Where the wheel lies when it is up.
  void lies(const swing::SwingFigures& figures) {
    if (r_.far_skin.known()) {
      if (const auto body = place::unit_of(leg_)) {
        const double room = r_.far_skin - body->high.z();
        auto& f = collect_.add("swing.far_skin", room, at_least(0, "it may rest on the skin, not in it"));
        if (std::isfinite(figures.protrusion))
          f.working = {{"wheel out of its well now", figures.protrusion, Kind::length},
                       {"with the unit on the skin", figures.protrusion - room, Kind::length}};
      } else {
        Lacking lacks(leg_root(leg_.id) + "retraction/");
        lacks.place(r_.unit_low, "unit_low", "the unit's body, least corner")
            .place(r_.unit_high, "unit_high", "the unit's body, greatest corner");
        if (lacks.nothing()) lacks.place(r_.pivot, "pivot", "the pivot");
        collect_.unknown("swing.far_skin", lacks.text());
      }
    }
    if (r_.well.low.z.known() && std::isfinite(figures.protrusion)) {
      auto& out = collect_.add("swing.protrusion", figures.protrusion,
                               at_most(0, "the wheel stays inside the outline"));
      out.working = {{"slope of the stowed leg", figures.stowed_slope, Kind::angle}};
    }
    if (r_.motion == LegMotion::lifts_and_turns) {
      // Its arms are made to the unit; the carrier stands upright whatever they lean by.
    } else if (r_.mount_tilt.known()) {
      auto& misfit =
          collect_.add("swing.unit_misfit", figures.shank_lean - figures.unit_down_lean,
                       within(radians(-0.5), radians(0.5), "half a degree can be bent or shimmed"));
      misfit.working = {{r_.bends.empty() ? "lean that Place asks for" : "lean of the leg's shank",
                         figures.shank_lean, Kind::angle},
                        {"lean that unit and mount make", figures.unit_down_lean, Kind::angle},
                        {"unit angle needed", figures.required_angle, Kind::angle}};
      if (const auto made = swing::remade_leg(leg_)) {
        misfit.working.push_back(
            {"or the leg made anew: out of the unit straight for", made->from_pivot, Kind::length});
        misfit.working.push_back({"then bent by", made->angle, Kind::angle});
      }
    } else {
      collect_.unknown("swing.unit_misfit",
                       entry(leg_root(leg_.id) + "retraction/mount_tilt_deg", "the mount tilt"));
    }
    collect_.add("swing.stowed_slope", figures.stowed_slope);
    wanted(figures);
    seat(figures);
  }

  void wanted(const swing::SwingFigures& figures) {
    const auto want = wanted_pose(leg_);
    const WantedStowed& w = r_.wanted;
    if (!w.centre.x.known() && !w.centre.y.known() && !w.centre.z.known() && !w.axle_up.known() &&
        !w.axle_ahead.known())
      return;
    if (!want) {
      Lacking lacks(leg_root(leg_.id));
      lacks.place(r_.wanted.centre, "retraction/wanted/centre", "where the stowed wheel's centre is wanted")
          .number(r_.wanted.axle_up, "retraction/wanted/axle_up_deg", "how its axle is wanted: 90° lies flat")
          .number(r_.wanted.axle_ahead, "retraction/wanted/axle_ahead_deg", "how far the axle looks ahead");
      collect_.unknown("swing.stowed_miss", lacks.text());
      return;
    }
    Lacking lacks(leg_root(leg_.id));
    lacks.number(leg_.wheel.diameter, "wheel/diameter_m", "the wheel's diameter")
        .number(r_.well.clearance, "retraction/well/clearance_m", "the clearance wanted round it");
    if (!lacks.nothing()) {
      collect_.unknown("swing.stowed_miss", lacks.text());
      return;
    }
    const double miss = (figures.wheel_stowed - want->centre).norm();
    const double off = std::acos(std::clamp(std::abs(figures.axle_stowed.dot(want->axle)), 0.0, 1.0));
    auto& f = collect_.add("swing.stowed_miss", miss + leg_.wheel.diameter / 2 * off,
                           at_most(r_.well.clearance, "the clearance you want round it"));
    f.working = {{"centre off by", miss, Kind::length}, {"axle off by", off, Kind::angle}};
  }

  void seat(const swing::SwingFigures& figures) {
    if (!r_.seat_starboard.known() && !r_.seat_port.known()) return;
    Lacking lacks(leg_root(leg_.id));
    lacks.number(r_.seat_starboard, "retraction/seat_starboard_m", "how deep the starboard wheel sits")
        .number(r_.seat_port, "retraction/seat_port_m", "how deep the port wheel sits")
        .number(r_.well.clearance, "retraction/well/clearance_m", "the clearance wanted");
    if (!lacks.nothing()) {
      collect_.unknown("swing.seat", lacks.text());
      return;
    }
    const double allowed = r_.well.clearance / 2;
    auto& f = collect_.add("swing.seat", r_.seat_starboard - r_.seat_port,
                           within(-allowed, allowed, "half the clearance you want"));
    f.remark = std::abs(f.value) < 1e-6 ? Text()
               : f.value > 0 ? Text("port wheel out by as much: the starboard unit is the lower one")
                             : Text("starboard wheel out by as much: the port unit is the lower one");
    f.working = {{"computed depth", -figures.protrusion, Kind::length},
                 {"starboard, measured", r_.seat_starboard, Kind::length},
                 {"port, measured", r_.seat_port, Kind::length}};
  }

  //! The unit itself.
  void unit() {
    const RetractUnit& u = r_.unit;
    if (u.measured_turn.known()) {
      if (r_.unit_angle.known()) {
        auto& f = collect_.add("swing.unit_turn", u.measured_turn - r_.unit_angle,
                               within(radians(-0.5), radians(0.5), "half a degree can be bent or shimmed"));
        f.remark = u.label.empty() ? Text("it has no label yet: write one on it, it goes back to this leg")
                                   : say("labelled “{}”", u.label);
      } else {
        collect_.unknown("swing.unit_turn",
                         entry(leg_root(leg_.id) + "retraction/unit_angle_deg", "the unit angle"));
      }
    }
    if (u.bore.known() && u.leg_pin.known()) {
      auto& f = collect_.add("swing.unit_pin", u.bore - u.leg_pin,
                             within(-swing::tightest_pin, swing::greatest_pin_play,
                                    "a grub screw takes up a little, never a lot"));
      if (const auto why = swing::pin_misfit(u.bore, u.leg_pin)) f.remark = *why;
    } else if (u.bore.known() != u.leg_pin.known()) {
      Lacking lacks(leg_root(leg_.id));
      lacks.number(u.bore, "retraction/unit/bore_m", "the unit's bore")
          .number(u.leg_pin, "retraction/unit/leg_pin_m", "the leg's pin");
      collect_.unknown("swing.unit_pin", lacks.text());
    }
    holes();
    trimmed();
    // A body that is twisted there is sloped the other way on the other side.
    const bool crooked = d_.airframe.body_twist.known() && d_.airframe.body_twist.si != 0.0;
    plate(crooked ? d_.airframe.body_twist.si : 0,
          crooked ? "starboard, corrected for the body's twist" : "");
    if (!crooked || leg_.stands != LegStands::both_sides) return;
    const Subject its = about_legs(d_, leg_);
    collect_.about({say("{}, port", its.words), its.key + "/port", its.leg}, "", GearState::extended);
    plate(-d_.airframe.body_twist, "port, corrected for the body's twist");
    collect_.about(its, "", GearState::extended);
  }

  void plate(double surface_slope, Text remark) {
    const auto corners = swing::plate_corners(leg_, surface_slope);
    if (corners.empty()) return;
    const auto deepest =
        std::max_element(corners.begin(), corners.end(), [](auto& a, auto& b) { return a.depth < b.depth; });
    auto& f = collect_.add("swing.plate_depth", deepest->depth);
    f.remark = std::move(remark);
    const double middle_x = (r_.unit_low.x + r_.unit_high.x) / 2;
    const double middle_y = (r_.unit_low.y + r_.unit_high.y) / 2;
    for (const auto& c : corners)
      f.working.push_back({c.x < middle_x   ? (c.y < middle_y ? "forward, inboard" : "forward, outboard")
                           : c.y < middle_y ? "aft, inboard"
                                            : "aft, outboard",
                           c.depth, Kind::length});
  }

  //! What must go of the housing where it runs into the structure: the block that the two share.
  void trimmed() {
    const auto body = place::unit_of(leg_);
    if (!body) return;
    for (const KeepOut& k : d_.airframe.keep_outs) {
      const auto box = place::box_of(k);
      if (!box || !box->overlaps(*body)) continue;
      const Vec3 low = body->low.cwiseMax(box->low);
      const Vec3 size = body->high.cwiseMin(box->high) - low;
      const Subject its = about_legs(d_, leg_);
      collect_.about({say("{}, {}", its.words, k.name), its.key + "/" + k.name, its.leg}, "",
                     GearState::extended);
      auto& f = collect_.add("swing.unit_trim", size.minCoeff());
      collect_.about(its, "", GearState::extended);
      const Vec3 middle = low + size / 2 - (body->low + body->high) / 2;
      f.remark =
          say("into {}: cut or bevel it {}, {}", k.name, middle.x() < 0 ? Text("forward") : Text("aft"),
              middle.z() < 0 ? Text("below") : Text("above"));
      f.working = {{"fore and aft", size.x(), Kind::length},
                   {"across", size.y(), Kind::length},
                   {"up and down", size.z(), Kind::length}};
      double lost = 0;
      for (const UnitHole& h : r_.unit.holes) {
        if (!h.x.known() || !h.y.known() || !h.z.known()) continue;
        const Vec3 at = leg_.held_at() + Vec3(h.x, h.y, h.z);
        if ((at.array() >= low.array()).all() && (at.array() <= (low + size).array()).all()) ++lost;
      }
      if (!r_.unit.holes.empty()) f.working.push_back({"mounting holes that go with it", lost, Kind::factor});
    }
  }

  void holes() {
    const RetractUnit& u = r_.unit;
    if (u.holes.empty() || !leg_.held_at().allFinite()) return;
    double least = std::numeric_limits<double>::infinity();
    size_t lost = 0;
    size_t at = 0;
    std::string into;
    for (size_t i = 0; i < u.holes.size(); ++i) {
      const UnitHole& h = u.holes[i];
      if (!h.x.known() || !h.y.known() || !h.z.known()) {
        collect_.unknown("swing.unit_holes",
                         say("the place of mounting hole {}", Figure{static_cast<double>(i + 1), 0}));
        return;
      }
      const Vec3 p = leg_.held_at() + Vec3(h.x, h.y, h.z);
      const auto near = place::nearest_keep_out({p, p}, d_.airframe.keep_outs);
      if (!near) continue;
      if (near->distance < 0) ++lost;
      if (near->distance < least) {
        least = near->distance;
        at = i;
        into = near->name;
      }
    }
    if (!std::isfinite(least)) return;  // nothing near it
    auto& f = collect_.add("swing.unit_holes", least, at_least(0, "what is cut off holds no screw"));
    f.remark = lost > 0
                   ? say("{} of {} lost, hole {} the deepest in {}: redrill, or move the unit",
                         Figure{static_cast<double>(lost), 0}, Figure{static_cast<double>(u.holes.size()), 0},
                         Figure{static_cast<double>(at + 1), 0}, into)
                   : say("hole {} to {}", Figure{static_cast<double>(at + 1), 0}, into);
  }

  const Design& d_;
  const Leg& leg_;
  const Retraction& r_;
  Collector& collect_;
  Steps& steps_;
};

}  // namespace

std::optional<swing::WheelPose> wanted_pose(const Leg& leg) {
  const WantedStowed& w = leg.retraction.wanted;
  if (!w.centre.known() || !w.axle_up.known() || !w.axle_ahead.known()) return std::nullopt;
  return swing::WheelPose{w.centre.vec(),
                          {-std::cos(w.axle_up) * std::sin(w.axle_ahead),
                           std::cos(w.axle_up) * std::cos(w.axle_ahead), std::sin(w.axle_up)}};
}

std::vector<SwingPair> swing_pairs(const Design& d, double near) {
  struct Placed {
    Text word;
    std::string key;
    swing::MovingLeg moving;
    double wanted;  //!< clearance
  };
  const auto wheels_of = [](const swing::MovingLeg& leg) {
    std::vector<motion::RoundedWheel> list;
    for (const auto& p : leg.parts)
      if (const auto* wheel = std::get_if<motion::RoundedWheel>(&p.solid)) list.push_back(*wheel);
    return list;
  };
  std::vector<Placed> placed;
  for (const PlacedLeg& p : placed_legs(d.gear)) {
    const Leg& leg = d.gear.legs[p.row];
    if (!leg.retraction.fitted) continue;
    const auto moving = swing::moving_leg(leg);
    const auto* ok = std::get_if<swing::MovingLeg>(&moving);
    if (!ok) continue;
    const Text word = leg.stands == LegStands::both_sides
                          ? p.port ? say("port {}", d.leg_word(leg)) : say("starboard {}", d.leg_word(leg))
                          : d.leg_word(leg);
    placed.push_back({word, (p.port ? "port-" : "") + leg.id, p.port ? swing::mirrored(*ok) : *ok,
                      leg.retraction.well.clearance});
  }
  std::vector<SwingPair> list;
  for (size_t i = 0; i < placed.size(); ++i)
    for (size_t j = i + 1; j < placed.size(); ++j) {
      const auto& a = placed[i].moving;
      const auto& b = placed[j].moving;
      std::optional<SwingPair> pair;
      for (const auto& one : wheels_of(a))
        for (const auto& other : wheels_of(b)) {
          const auto any = swing::nearest_of_any(a.moves, one, b.moves, other, near);
          if (!any || any->distance > near || (pair && any->distance >= pair->any.distance)) continue;
          pair = SwingPair{placed[i].word,
                           placed[j].word,
                           placed[i].key + " " + placed[j].key,
                           std::fmax(placed[i].wanted, placed[j].wanted),
                           swing::least_together(a.moves, one, b.moves, other),
                           *any};
        }
      if (pair) list.push_back(std::move(*pair));
    }
  return list;
}

void assess_swing(const Design& d, Assessment& a, Collector& collect, const Asked& asked) {
  bool any = false;
  double near = 0;
  for (const Leg& leg : d.gear.legs) {
    if (!leg.retraction.fitted) continue;
    any = true;
    a.swings.push_back(SwingJudge(d, leg, collect, a.steps).all());
    if (leg.wheel.diameter.known()) near = std::max(near, leg.wheel.diameter.si);
  }
  if (!any || (!asked.measure.empty() && asked.measure != "swing.pair")) return;
  a.pairs = a.steps.get<Pairs>({d.gear, near});
  for (const SwingPair& p : a.pairs) {
    collect.about({say("{} and {}", p.first, p.second), p.key}, "", GearState::extended);
    auto& f = collect.add("swing.pair", p.any.distance,
                          std::isfinite(p.wanted) ? at_least(p.wanted, "the clearance you want")
                                                  : at_least(0, "they must not touch"));
    f.remark = say("at {} of the one, {} of the other", Amount{p.any.turn, Kind::angle},
                   Amount{p.any.other_turn, Kind::angle});
    f.working = {{"both together", p.together.distance, Kind::length}};
    f.assumption = "tyre to tyre, grown; either may stick anywhere";
  }
}

}  // namespace kranich
