// SPDX-License-Identifier: GPL-3.0-or-later
//! Doors: how far they open as they are driven, what they pass, what holds them.
#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

#include "core/assess/assess.h"
#include "core/assess/collector.h"
#include "core/assess/doors_state.h"
#include "core/base/numerics.h"
#include "core/base/quantity.h"

namespace kranich {
namespace {

const double near_enough = radians(2);
constexpr size_t looks = 96;

double edge_gap(const motion::DoorPanel& panel, double opening) {
  return 2 * panel.width * std::sin(std::abs(opening) / 2);
}

//! A door that its leg does not move, and the leg's way: what both follow from is compared.
struct WayOfLeg {
  Door door;
  Leg leg;
  swing::MovingLeg moving;
  motion::DoorPanel panel;
  bool operator==(const WayOfLeg& o) const { return door == o.door && leg == o.leg; }
  double wanted() const {
    return leg.retraction.well.clearance.known() ? leg.retraction.well.clearance.si : 0;
  }
};

//! Where leg and door are in each other's way.
struct InTheWay {
  using From = WayOfLeg;
  using Made = doors::Region;
  static Made make(const From& w) { return doors::region_of(w.moving, w.panel, w.wanted()); }
};
//! Least distance to the stowed leg over the openings.
struct OverStowed {
  using From = WayOfLeg;
  using Made = drive::Extreme;
  static Made make(const From& w) {
    return doors::least_over_openings(w.moving, w.panel, w.moving.moves.full_turn);
  }
};
//! The least opening from which on the panel clears the leg that is down; NaN: none.
struct ClearsDown {
  using From = WayOfLeg;
  using Made = double;
  static Made make(const From& w) {
    const auto clear = [&](double a) { return doors::clearance(w.moving, w.panel, 0, a) >= w.wanted(); };
    constexpr int steps = 60;
    if (!clear(w.panel.open)) return std::nan("");
    for (int i = steps - 1; i >= 0; --i)
      if (!clear(w.panel.open * i / steps))
        return begins_to_hold(clear, w.panel.open * i / steps, w.panel.open * (i + 1) / steps);
    return 0;
  }
};
//! Openings of a door that the leg moves, over even shares of its travel.
struct Followed {
  struct From {
    std::vector<Door> of;  //!< it, and the one whose crank moves it
    Leg leg;
    doors::LegDoor door;  //!< of these
    bool operator==(const From& o) const { return of == o.of && leg == o.leg; }
  };
  using Made = std::vector<double>;
  static Made make(const From& from) {
    const double full = from.door.leg.moves.full_turn;
    Made openings;
    for (size_t i = 0; i <= looks; ++i)
      openings.push_back(from.door.opening(full * static_cast<double>(i) / static_cast<double>(looks)));
    return openings;
  }
};
//! What holds a door over its openings.
struct Held {
  struct From {
    std::vector<Door> of;
    Leg leg;
    Given density;
    doors::HeldDoor held;  //!< of these
    bool operator==(const From& o) const { return of == o.of && leg == o.leg && density == o.density; }
  };
  using Made = doors::HoldFigures;
  static Made make(const From& from) { return doors::hold_figures(from.held); }
};

class DoorJudge {
 public:
  DoorJudge(const Design& d, const Door& door, const Leg& leg, Collector& collect, Steps& steps)
      : d_(d), door_(door), leg_(leg), collect_(collect), steps_(steps) {}

  DoorState all() {
    collect_.about(about_door(d_, door_.id), "", GearState::extended);
    DoorState s;
    s.door = door_.id;
    s.panel = motion::panel_of(door_);
    if (doors::moved_by_leg(door_))
      follows(s);
    else
      driven(s);
    if (s.panel) gap(s);
    // One that the wheel pushes open must be pulled shut by something.
    if (something_holds() || door_.drive.way == DoorWay::wheel) hold(s);
    return s;
  }

 private:
  std::vector<Door> those_it_hangs_on() const {
    std::vector<Door> list{door_};
    for (const Door& x : d_.doors)
      if (!door_.drive.with.empty() && x.id == door_.drive.with) list.push_back(x);
    return list;
  }
  Limit clear() const {
    const Given& wanted = leg_.retraction.well.clearance;
    return wanted.known() ? at_least(wanted, "the clearance you want") : at_least(0, "they must not touch");
  }
  Limit as_wanted(double open) const {
    return within(open - near_enough, open + near_enough, "the opening you want, within 2°");
  }
  //! What of the panel's shape is taken where it is not entered.
  Text taken() const {
    Text text = door_.thickness.known() ? Text() : Text("a panel of no thickness");
    if (!door_.closed_tilt.known()) text.also("level when closed");
    return text;
  }
  static Limit squarely() {
    return at_least_or_tight(radians(30), radians(40), "above 30° the rod pushes, 40° are better");
  }

  //! By its own drive, over a crank or on the hinge.
  void driven(DoorState& s) {
    auto made = swing::moving_leg(leg_);
    const auto* moving = std::get_if<swing::MovingLeg>(&made);
    if (s.panel && moving) {
      const WayOfLeg way{door_, leg_, *moving, *s.panel};
      s.region = steps_.get<InTheWay>(way);
      auto& f = collect_.add("doors.clearance", s.region->least_open, clear());
      f.remark = say("at {} of its way up", Amount{s.region->at_turn, Kind::angle});
      f.working = {{"open", s.panel->open, Kind::angle}};
      if (std::isfinite(s.region->frees_at))
        f.working.push_back({"never in the way from", s.region->frees_at * s.panel->open, Kind::angle});
      f.assumption = taken();
      over(s, way);
      down(s, way);
    } else {
      const auto* missing = std::get_if<Text>(&made);
      collect_.unknown("doors.clearance", s.panel ? *missing : doors::panel_lacks(d_, door_));
    }
    if (door_.drive.way == DoorWay::crank) crank(s);
  }

  //! Closing over the stowed leg, it must pass it at every opening.
  void over(DoorState& s, const WayOfLeg& way) {
    s.over = steps_.get<OverStowed>(way);
    const auto [least, at] = *s.over;
    auto& f = collect_.add("doors.over", least, clear());
    f.remark = at < radians(0.1) ? Text("closed") : say("open by {}", Amount{at, Kind::angle});
    f.assumption = taken();
  }

  void down(DoorState& s, const WayOfLeg& way) {
    const double opening = motion::opening_down(d_, door_);
    if (!std::isfinite(opening) || opening >= s.panel->open - 1e-9)
      return;  // open: judged over the whole swing
    auto& f = collect_.add("doors.down", doors::clearance(way.moving, *s.panel, 0, opening), clear());
    f.working = {{"stands open by", opening, Kind::angle}};
    f.assumption = taken();
    s.clears_down = steps_.get<ClearsDown>(way);
    if (const double least = *s.clears_down; least > opening)
      f.working.push_back({"clears it from", least, Kind::angle});
  }

  void crank(DoorState& s) {
    auto made = doors::crank_of(d_, door_);
    if (const Text* missing = std::get_if<Text>(&made)) {
      collect_.unknown("doors.travel", *missing);
      return;
    }
    s.crank = std::get<doors::CrankDrive>(std::move(made));
    const auto& [linkage, turn] = *s.crank;
    const double open = s.panel->open;
    const double reached = doors::door_turn(linkage, turn);
    const auto end = doors::end_of(linkage, turn);
    const bool short_of = end.what != doors::Ends::nothing && std::abs(end.crank) < std::abs(turn);
    if (!std::isfinite(reached)) {
      collect_.fails("doors.travel", as_wanted(open),
                     say("the rod locks when the crank has turned by {}", Amount{end.crank, Kind::angle}));
    } else {
      auto& f = collect_.add("doors.travel", reached, as_wanted(open));
      if (reached < 0) f.remark = "this way the crank turns the panel inward";
      f.working = {{"wanted", open, Kind::angle},
                   {"crank turns by", turn, Kind::angle},
                   {"rod", linkage.rod(), Kind::length}};
    }
    const double far = end.what == doors::Ends::nothing ? 2 * std::numbers::pi : std::abs(end.crank);
    const double spare = far - std::abs(turn);
    auto& f = collect_.add("doors.end", spare, at_least_or_tight(0, radians(5), "it must get there"));
    f.remark = end.what == doors::Ends::nothing ? Text("neither locks nor turns back within a full turn")
               : end.what == doors::Ends::locks ? say("locks at {}", Amount{end.crank, Kind::angle})
                                                : say("turns back at {}", Amount{end.crank, Kind::angle});
    if (short_of || !std::isfinite(reached)) return;
    const auto least = doors::least_transmission(linkage, turn);
    auto& t = collect_.add("doors.transmission", least.angle, squarely());
    t.remark = say("at {} of the crank, door open by {}", Amount{least.crank, Kind::angle},
                   Amount{doors::door_turn(linkage, least.crank), Kind::angle});
    // Further from the hinge, square to both axes as far as that goes.
    const Vec3 off = linkage.crank.point - linkage.hinge.point;
    const Vec3 along = off - off.dot(linkage.hinge.direction) * linkage.hinge.direction;
    if (along.norm() > 1e-9) {
      auto& b = collect_.add("doors.bracket", doors::gain_of_bracket(linkage, turn, along) * 1e-3);
      b.working = {{"ten millimetres", 10 * b.value, Kind::angle}};
      b.remark = b.value > 0 ? Text("further from the hinge gains travel")
                             : Text("nearer to the hinge gains travel");
    }
  }

  //! Moved by the leg.
  void follows(DoorState& s) {
    auto made = doors::leg_door(d_, door_);
    if (const Text* missing = std::get_if<Text>(&made)) {
      collect_.unknown("doors.travel", *missing);
      return;
    }
    s.follows = std::get<doors::LegDoor>(std::move(made));
    const auto& l = *s.follows;
    const double full = l.leg.moves.full_turn;
    s.openings = steps_.get<Followed>({those_it_hangs_on(), leg_, l});
    size_t stuck = s.openings.size();
    for (size_t i = s.openings.size(); i-- > 0;)
      if (!std::isfinite(s.openings[i])) {
        stuck = i;
        break;
      }
    const double open = l.panel.open;
    if (stuck < s.openings.size()) {
      cannot(s, full * static_cast<double>(stuck) / static_cast<double>(looks));
      return;
    }
    const double least = *std::min_element(s.openings.begin(), s.openings.end());
    const double down = s.openings.front();
    if (door_.drive.way != DoorWay::wheel) {
      auto& f = collect_.add("doors.travel", down, as_wanted(open));
      f.working = {{"wanted", open, Kind::angle}, {"gear up", s.openings.back(), Kind::angle}};
      if (least < -radians(0.5))
        f.remark = say("on the way the leg draws the panel inward by {}", Amount{-least, Kind::angle});
    }
    pushed(l);
    if (door_.drive.way == DoorWay::wire) wire(l);
    if (door_.drive.way == DoorWay::stop_arm) stop(l);
    if (door_.drive.way == DoorWay::wire || door_.drive.way == DoorWay::wheel) {
      auto& f = collect_.add("doors.shut", edge_gap(l.panel, s.openings.back()),
                             at_most(l.panel.width / 50, "a fiftieth of its width"));
      f.working = {{"open by", s.openings.back(), Kind::angle}};
    }
    if (door_.drive.way == DoorWay::wheel) {
      // From where on it lies on the wheel, and how far it is pushed.
      const auto furthest = std::max_element(s.openings.begin(), s.openings.end());
      auto& f = collect_.add("doors.travel", *furthest, at_most(open, "its hinge goes no further"));
      const auto first = std::find_if(s.openings.begin(), s.openings.end(), [](double x) { return x > 0; });
      if (first != s.openings.end())
        f.working = {{"the leg touches it from",
                      full * static_cast<double>(first - s.openings.begin()) / static_cast<double>(looks),
                      Kind::angle}};
      f.remark =
          say("pushed furthest at {} of the leg's way",
              Amount{full * static_cast<double>(furthest - s.openings.begin()) / static_cast<double>(looks),
                     Kind::angle});
    } else if (door_.drive.way != DoorWay::stop_arm) {
      const auto [worst, at] = drive::least_over(
          full, [&](double t) { return doors::clearance(l.leg, l.panel, t, l.opening(t)); });
      auto& f = collect_.add("doors.clearance", worst, clear());
      f.remark = say("at {} of the leg's way", Amount{at, Kind::angle});
      f.assumption = taken();
    }
  }

  void cannot(const DoorState& s, double turn) {
    const Amount at{turn, Kind::angle};
    const auto& l = *s.follows;
    const double full = l.leg.moves.full_turn;
    switch (door_.drive.way) {
      case DoorWay::leg_rod:
        collect_.fails("doors.travel", as_wanted(l.panel.open), say("the rod locks with the leg at {}", at));
        return;
      case DoorWay::stop_arm:
        collect_.fails("doors.travel", as_wanted(l.panel.open),
                       "no turn of its arm opens the door so far: the rod locks before");
        return;
      case DoorWay::wire:
        wire(l);
        return;
      case DoorWay::wheel: {
        // How far it would have to go.
        doors::LegDoor free = l;
        free.panel.open = std::numbers::pi;
        double furthest = 0;
        for (size_t i = 0; i <= looks; ++i)
          furthest =
              std::fmax(furthest, free.opening(full * static_cast<double>(i) / static_cast<double>(looks)));
        const Limit limit = at_most(l.panel.open, "its hinge goes no further");
        const Text why = say("the leg needs it open further with the leg at {}", at);
        if (furthest > l.panel.open)
          collect_.add("doors.travel", furthest, limit).remark = why;
        else  // not even half a turn would do
          collect_.fails("doors.travel", limit, why);
        return;
      }
      case DoorWay::on_hinge:
      case DoorWay::crank:
        return;
    }
  }

  void wire(const doors::LegDoor& l) {
    const double full = l.leg.moves.full_turn;
    const auto [least, at] = drive::least_over(full, [&](double t) { return l.wire_to_spare(t); });
    auto& f = collect_.add("doors.tie", least, at_least(0, "it must let the leg go all its way"));
    f.remark = say("shortest with the leg at {}", Amount{at, Kind::angle});
    f.working = {{"gear up, ends apart", (l.door_ball - l.ball_at(full)).norm(), Kind::length},
                 {"gear down, door open, ends apart",
                  (l.panel.carried(l.door_ball, l.panel.open) - l.ball_at(0)).norm(), Kind::length}};
  }

  //! How squarely a rod from leg or arm pushes.
  void pushed(const doors::LegDoor& l) {
    if (l.way != DoorWay::leg_rod && l.way != DoorWay::stop_arm) return;
    const double full = l.leg.moves.full_turn;
    const double met = l.way == DoorWay::stop_arm ? l.stop_meets() : 0;
    const auto [least, after] = drive::least_over(full - met, [&](double t) {
      return l.way == DoorWay::stop_arm
                 ? doors::transmission_angle(l.arm, l.arm_at(met + t).turn)
                 : doors::squareness(l.panel.hinge, l.panel.carried(l.door_ball, l.opening(t)), l.ball_at(t));
    });
    auto& f = collect_.add("doors.transmission", least, squarely());
    f.remark = say("with the leg at {}", Amount{met + after, Kind::angle});
  }

  void stop(const doors::LegDoor& l) {
    const double full = l.leg.moves.full_turn;
    const double met = l.stop_meets();
    if (!std::isfinite(met)) return;
    const auto first = l.arm_at(met);
    const auto last = l.arm_at(full);
    const double furthest =
        drive::largest_over(full - met, [&](double t) { return l.arm_at(met + t).along; }).value;
    auto& f = collect_.add("doors.stop", l.arm_length - furthest,
                           at_least(0, "the stop must not slip off its end"));
    f.remark = say("they meet with the leg at {}, {} from the arm's axis", Amount{met, Kind::angle},
                   Amount{first.along, Kind::length});
    f.working = {{"stowed, from the axis", last.along, Kind::length},
                 {"arm turns by", std::abs(first.turn), Kind::angle}};
  }

  void gap(const DoorState& s) {
    const bool lies = s.follows && door_.drive.way == DoorWay::wheel && !s.openings.empty();
    const double opening = lies ? s.openings.front() : door_.ajar.known() ? door_.ajar.si : 0;
    if (!(opening > 0) || (!lies && motion::opening_down(d_, door_) != opening)) return;
    auto& f = collect_.add("doors.gap", edge_gap(*s.panel, opening));
    f.working = {{"open by", opening, Kind::angle}};
  }

  bool something_holds() const {
    return !(door_.hold == DoorHold{}) || door_.mass.known() || door_.cg_out.known() ||
           door_.drive.torque.known();
  }

  void hold(DoorState& s) {
    auto made = doors::held_of(d_, door_);
    const bool pushed_by_wheel = door_.drive.way == DoorWay::wheel;
    if (const Text* missing = std::get_if<Text>(&made)) {
      collect_.unknown(pushed_by_wheel ? "doors.closing" : "doors.hold", *missing);
      return;
    }
    s.held = std::get<doors::HeldDoor>(std::move(made));
    const doors::HeldDoor& h = *s.held;
    s.figures = steps_.get<Held>({those_it_hangs_on(), leg_, d_.airframe.aerodynamics.density, h});
    const auto& figures = *s.figures;
    if (!doors::moved_by_leg(door_) || door_.drive.way == DoorWay::wire) {
      const double closes = h.closing(h.open);
      auto& f = collect_.add("doors.hold", h.holding(h.open) - doors::reserve * std::max(0.0, closes),
                             at_least(0, "30 % in hand"));
      f.working = {{"would close it, open", closes, Kind::moment},
                   {"holds it, open", h.holding(h.open), Kind::moment}};
      if (h.spring) {
        f.working.push_back({"of that the spring", h.spring_torque(h.open), Kind::moment});
        f.working.push_back({"spring at its most", figures.largest_spring_torque, Kind::moment});
        f.working.push_back({"open by", figures.at, Kind::angle});
      }
      if (!figures.arm_lost.empty())
        f.remark =
            say("the spring's line passes the hinge with the door at {}: beyond it pulls the other way",
                Amount{figures.arm_lost.front(), Kind::angle});
    }
    if (!doors::moved_by_leg(door_)) servo(h);
    if (pushed_by_wheel && !s.openings.empty()) closes_again(s, h);
  }

  //! A door that the wheel pushes open must follow it back: in the air and, without its help, on jacks.
  void closes_again(const DoorState& s, const doors::HeldDoor& h) {
    double furthest = 0;
    for (const double opening : s.openings)
      if (std::isfinite(opening)) furthest = std::max(furthest, opening);
    const double friction = door_.hold.hinge_friction.known() ? door_.hold.hinge_friction.si : 0;
    double least = std::numeric_limits<double>::infinity();
    double at = 0;
    double spring = 0;
    bool flying = false;
    constexpr int steps = 90;
    for (const bool in_the_air : {false, true}) {
      doors::HeldDoor door = h;
      if (!in_the_air) door.speed = 0;
      for (int i = 0; i <= steps; ++i) {
        const double angle = furthest * i / steps;
        const double pulls = std::max(0.0, -door.spring_torque(angle));
        // What opens it (its weight, friction on the way back) must be held with the reserve.
        const double rest = door.closing(angle) - friction;
        const double net = pulls + (rest < 0 ? doors::reserve * rest : rest);
        if (net >= least) continue;
        least = net;
        at = angle;
        spring = pulls;
        flying = in_the_air;
      }
    }
    auto& f = collect_.add("doors.closing", least, at_least(0, "30 % in hand"));
    f.remark = flying ? say("in the air, open by {}", Amount{at, Kind::angle})
                      : say("on jacks, open by {}", Amount{at, Kind::angle});
    f.working = {{"its spring pulls it shut with", spring, Kind::moment},
                 {"the spring needs there, at least", spring - std::min(0.0, least), Kind::moment}};
    if (!door_.hold.hinge_friction.known()) f.assumption = "a hinge without friction";
  }

  //! What its drive must bring about its own axis, and whether it does.
  void servo(const doors::HeldDoor& h) {
    const double friction = door_.hold.hinge_friction.known() ? door_.hold.hinge_friction.si : 0;
    double most = 0;
    double at = 0;
    bool closing_it = false;
    constexpr int steps = 90;
    for (int i = 0; i <= steps; ++i) {
      const double angle = h.open * i / steps;
      const double ratio = h.servo_ratio ? h.servo_ratio(angle) : 1;
      const double magnet = i == steps ? h.magnet_force * h.magnet_along : 0;
      for (const bool in_the_air : {true, false}) {
        doors::HeldDoor door = h;
        if (!in_the_air) door.speed = 0;
        const double closes = door.closing(angle) - door.spring_torque(angle);
        for (const bool shut : {false, true}) {
          const double moment = std::max(0.0, shut ? friction + magnet - closes : friction + closes);
          const double torque = moment > 0 ? moment / ratio : 0;
          if (torque <= most) continue;
          most = torque;
          at = angle;
          closing_it = shut;
        }
      }
    }
    const Amount there{at, Kind::angle};
    const Text when =
        closing_it ? say("closing, with the door at {}", there) : say("opening, with the door at {}", there);
    const auto told = [&](Finding& f) {
      f.remark = when;
      if (!door_.hold.hinge_friction.known()) f.assumption = "a hinge without friction";
    };
    if (std::isfinite(most)) told(collect_.add("doors.torque", most / 0.7));
    if (!(h.servo_torque > 0)) {
      if (h.magnet_force > 0) collect_.unknown("doors.magnet", doors::torque_lacks(d_, door_));
      return;
    }
    const Limit in_hand = at_least_or_tight(0, 0.3, "some 30 % in hand");
    if (std::isfinite(most))
      told(collect_.add("doors.servo", 1 - most / h.servo_torque, in_hand));
    else
      collect_.fails("doors.servo", in_hand,
                     say("{} the crank stands at its dead centre, or does not get there", when));
    const double at_hinge = h.servo_torque * (h.servo_ratio ? h.servo_ratio(h.open) : 1);
    if (!(h.magnet_force > 0) || !(at_hinge > 0)) return;
    const double closes = h.closing(h.open) - h.spring_torque(h.open);
    const double steady = std::max(0.0, closes);
    const double peak = std::max(0.0, h.magnet_force * h.magnet_along + friction - closes);
    auto& m = collect_.add("doors.magnet", peak / at_hinge, at_most(0.7, "some 30 % below stall"));
    m.working = {{"peak at the hinge", peak, Kind::moment},
                 {"held all the time without it", steady, Kind::moment},
                 {"that of the stalled torque", steady / at_hinge, Kind::share}};
  }

  const Design& d_;
  const Door& door_;
  const Leg& leg_;
  Collector& collect_;
  Steps& steps_;
};

}  // namespace

std::vector<sequence::DoorZone> zones_of(const Assessment& a) {
  std::vector<sequence::DoorZone> list;
  for (const DoorState& s : a.doors) {
    if (!s.region) continue;
    sequence::DoorZone zone{s.door, {}};
    const auto columns = static_cast<double>(s.region->columns.size() - 1);
    for (size_t i = 0; i < s.region->columns.size(); ++i) {
      if (s.region->columns[i].empty()) continue;
      const double opening = s.region->columns[i].back().second / s.panel->open;
      // Between two columns the region may go on to the next: on the safe side.
      for (const double by : {-1.0, 0.0, 1.0})
        zone.points.emplace_back(std::clamp((static_cast<double>(i) + by) / columns, 0.0, 1.0), opening);
    }
    list.push_back(std::move(zone));
  }
  return list;
}

void assess_doors(const Design& d, Assessment& a, Collector& collect, const Asked&) {
  for (const Door& door : d.doors) {
    const Leg* leg = d.gear.find(door.leg);
    if (!leg) continue;
    a.doors.push_back(DoorJudge(d, door, *leg, collect, a.steps).all());
  }
}

}  // namespace kranich
