// SPDX-License-Identifier: GPL-3.0-or-later
//! Drive: what a leg's drive works against over its travel and whether it can; what holds it up and down;
//! whether it comes down without power.
#include <algorithm>
#include <cmath>

#include "core/assess/air_state.h"
#include "core/assess/assess.h"
#include "core/assess/circuit_state.h"
#include "core/assess/collector.h"
#include "core/assess/drive_state.h"
#include "core/assess/strength_state.h"
#include "core/drive/fall.h"
#include "core/model/lacking.h"
#include "core/swing/locks.h"

namespace kranich {

namespace {

//! The worst of both ways, in the air and on jacks: what the drive must give, N·m.
struct Hardest {
  double torque = 0, turn = 0;
  bool retracting = true, flying = true;
};
Hardest hardest(const drive::LegLoad& flying) {
  Hardest h;
  for (const bool in_air : {true, false}) {
    const drive::LegLoad l = in_air ? flying : on_jacks(flying);
    for (const bool up : {true, false}) {
      const auto most = drive::largest_over(l.moves.full_turn,
                                            [&](double t) { return up ? l.to_retract(t) : l.to_extend(t); });
      if (most.value > h.torque) h = {most.value, most.turn, up, in_air};
    }
  }
  return h;
}

Text way_of(const Hardest& h) {
  return h.retracting ? (h.flying ? Text("retracting in the air") : Text("retracting on jacks"))
                      : (h.flying ? Text("extending in the air") : Text("extending on jacks"));
}

//! A leg let go from stowed.
struct Falls {
  using From = drive::FreeFall;
  using Made = drive::Fall;
  static Made make(const From& leg) { return drive::fall(leg); }
};
//! The airspeed up to which it comes to the lock.
struct FallsUpTo {
  using From = drive::FreeFall;
  using Made = double;
  static Made make(const From& leg) { return drive::limit_speed(leg, 0.5, 90); }
};

class DriveJudge {
 public:
  DriveJudge(const Design& d, Assessment& a, const Leg& leg, Collector& collect, std::string_view only)
      : d_(d), a_(a), leg_(leg), r_(leg.retraction.drive), collect_(collect), only_(only) {}

  void all() {
    about();
    const bool said = r_.kind != DriveKind::none || r_.mass.known() || r_.airspeed.known() || r_.falls_free;
    if (said) {
      auto made = drive_load(d_, leg_);
      if (const auto* missing = std::get_if<Text>(&made)) {
        collect_.unknown("drive.torque", *missing);
      } else {
        load_ = std::get<DriveLoad>(std::move(made));
        if (asked({"drive.torque"})) torque();
        switch (r_.kind) {
          case DriveKind::none:
            break;
          case DriveKind::actuator:
          case DriveKind::cylinder:
          case DriveKind::air:
            if (asked({"drive.arm", "drive.force", "drive.stroke", "drive.column", "drive.time",
                       "drive.counted"}))
              pushed();
            break;
          case DriveKind::motor:
            if (asked({"drive.stall", "drive.time", "drive.counted"})) geared();
            break;
          case DriveKind::servo:
            if (asked({"drive.stall", "drive.end_point", "drive.rod", "drive.ball_tilt"})) servo();
            break;
        }
        if (r_.falls_free && asked({"drive.free_fall"})) falls();
      }
    }
    if (asked({"drive.unit_mass", "drive.unit_moment", "drive.unit_flex"})) unit();
    if (asked({"drive.uplock"})) uplock();
    if (asked({"drive.latch"})) latch();
    if (asked({"drive.brace", "drive.over_centre"})) brace();
  }

 private:
  bool asked(std::initializer_list<std::string_view> measures) const {
    return only_.empty() || std::find(measures.begin(), measures.end(), only_) != measures.end();
  }
  void about() { collect_.about(about_leg(d_, leg_), "", GearState::extended); }
  std::string root() const { return leg_root(leg_.id) + "retraction/drive/"; }
  //! Files a margin that the air could still take away as unknown, unless it fails already.
  Finding& judged(const char* id, double value, const Limit& limit) {
    if (!std::isfinite(value))
      return collect_.unknown(id, "loads that the drive works against, and where it works");
    const Text left_out = load_->without_air;
    if (!left_out.empty() && !(limit.lower && value < *limit.lower)) {
      auto& f = collect_.unknown(id, left_out);
      f.value = value;
      f.remark.also("the figure is without the air");
      return f;
    }
    auto& f = collect_.add(id, value, limit);
    if (!left_out.empty()) f.remark = say("left out: {}", left_out);
    return f;
  }

  void torque() {
    const drive::LegLoad& l = load_->load;
    const Hardest h = hardest(l);
    auto& f = collect_.add("drive.torque", h.torque);
    f.remark = way_of(h);
    f.working = {
        {"at a turn of", h.turn, Kind::angle},
        {"weight there", l.weight_torque(h.turn), Kind::moment},
        {"air there", h.flying ? l.air_torque(h.turn) : 0, Kind::moment},
        {"down-spring there", l.spring_torque(h.turn), Kind::moment},
        {"to raise it in all",
         drive::work_over(l.moves.full_turn, [&](double t) { return -on_jacks(l).sum(t); }), Kind::energy}};
    f.assumption = load_->taken;
    if (const Text left_out = load_->without_air; !left_out.empty())
      f.remark.also(say("left out: {}", left_out));
  }

  //! Actuator or cylinder between two points.
  void pushed() {
    const auto strut = actuator_of(leg_);
    if (!strut) {
      collect_.unknown("drive.force", Lacking(root())
                                          .place(r_.on_airframe, "on_airframe", "its end on the airframe")
                                          .place(r_.on_leg, "on_leg", "its end on the leg")
                                          .text());
      return;
    }
    const drive::LegLoad& flying = load_->load;
    const double full = flying.moves.full_turn;
    const auto arm = [&](double t) { return drive::arm_of(flying.moves, *strut, t); };
    const auto figures = drive::actuator_figures(flying, *strut);
    const double largest_arm = drive::largest_over(full, [&](double t) { return std::abs(arm(t)); }).value;
    auto& dead = collect_.add("drive.arm", figures.dead_centres.empty() ? figures.least_arm.value : 0,
                              arm_limit(largest_arm));
    dead.working = {{"least at a turn of", figures.least_arm.turn, Kind::angle},
                    {"largest", largest_arm, Kind::length},
                    {"down", arm(0), Kind::length},
                    {"stowed", arm(full), Kind::length}};
    if (!figures.dead_centres.empty())
      dead.remark = say("dead centre at a turn of {}", Amount{figures.dead_centres.front(), Kind::angle});
    stroke(figures);
    travel_time(figures);
    if (!figures.dead_centres.empty()) {
      collect_.unknown("drive.force", "a travel without a dead centre: there it grows beyond all bounds");
      return;
    }
    if (r_.kind == DriveKind::air) {
      by_air(figures);
      return;
    }
    // At every turn, both ways, in the air and on jacks: what it must push or pull against what it can.
    double worst = std::numeric_limits<double>::infinity();
    double push = 0;
    double pull = 0;
    double at = 0;
    Hardest then;
    const auto cylinder = r_.kind == DriveKind::cylinder ? cylinder_of(leg_) : std::nullopt;
    if (r_.kind == DriveKind::actuator ? !r_.force.known() : !cylinder) {
      collect_.unknown("drive.force", r_.kind == DriveKind::actuator
                                          ? entry(root() + "force_N", "the actuator's rated force")
                                          : cylinder_lacks(leg_));
      return;
    }
    const auto [can_push, can_pull] = strut_can(d_, leg_);
    for (const bool in_air : {true, false}) {
      const drive::LegLoad l = in_air ? flying : on_jacks(flying);
      for (const bool up : {true, false}) {
        const auto force = [&](double t) { return drive::moving_force(l, *strut, t, up); };
        const auto spare = [&](double t) {
          const double f = force(t);
          return f == 0 ? 1e9 : (f > 0 ? can_push : can_pull) / std::abs(f) - 1;
        };
        const auto least = drive::least_over(full, spare);
        for (int i = 0; i <= 40; ++i) {
          const double f = force(full * i / 40);
          push = std::max(push, f);
          pull = std::min(pull, f);
        }
        if (least.value < worst) {
          worst = least.value;
          at = least.turn;
          then = {0, least.turn, up, in_air};
        }
      }
    }
    auto& f = judged("drive.force", worst, force_limit());
    f.remark.also(way_of(then));
    f.working = {
        {"worst at a turn of", at, Kind::angle},
        {"arm there", std::abs(arm(at)), Kind::length},
        {"most that it pushes", push, Kind::force},
        {"most that it pulls", pull, Kind::force},
        {"can push", can_push, Kind::force},
        {"can pull", can_pull, Kind::force},
        // Where moving an end by ten millimetres helps most.
        {"an end moved by 10 mm across it gives more, at the worst turn", gain(*strut, at), Kind::share}};
    if (cylinder) column(*cylinder, figures.longest, push);
  }
  //! A cylinder on a bottle: at every turn of the last cycle that is wanted of a filling, both ways, in the
  //! air and on jacks, the pressure there against the pressure it needs.
  void by_air(const drive::ActuatorFigures& figures) {
    const auto made = air_plan(d_, &a_.steps);
    if (const auto* missing = std::get_if<Text>(&made)) {
      collect_.unknown("drive.force", *missing);
      return;
    }
    const AirPlan& plan = std::get<AirPlan>(made);
    const AirInHand h = air_in_hand(plan, leg_.id);
    if (!h.way) {
      collect_.unknown("drive.force", "a load that the air works against: here all goes by itself");
      return;
    }
    auto& f = judged("drive.force", h.spare, force_limit());
    f.remark.also(way_of(Hardest{0, h.turn, h.way->up, h.in_air}));
    if (!(h.way->area_in > 0)) f.remark.also("no air acts this way, and it does not go by itself");
    f.working = {{"worst at a turn of", h.turn, Kind::angle},
                 {"arm there", h.arm, Kind::length},
                 {"pressure needed there", h.needed, Kind::pressure},
                 {"pressure there", h.there, Kind::pressure},
                 {"piston that the air pushes on", h.way->area_in, Kind::section_area},
                 {"in the bottle when that way begins", plan.before_last(h.way->up), Kind::pressure}};
    const Amount cycle{static_cast<double>(plan.wanted), Kind::factor};
    f.assumption = plan.wanted_given
                       ? say("judged in cycle {} from one filling", cycle)
                       : say("judged in cycle {} from one filling, where no number is wanted", cycle);
    double slowest = 0;
    for (const AirLegWay& w : plan.ways)
      if (w.leg == leg_.id) {
        const auto run = air_way_run(d_, plan, w, false, w.hardest_in_air(), a_.steps);
        const auto* followed = std::get_if<circuit::AirRun>(&run);
        slowest = followed ? std::max(slowest, followed->time) : std::nan("");
      }
    time_of(slowest);
    // Against its end it pushes with all there is.
    double push = 0;
    for (const AirLegWay& w : plan.ways)
      if (w.leg == leg_.id && w.up == (figures.length_stowed > figures.length_down))
        push = w.area_in * plan.at_share(w.up, 0, plan.starts);
    drive::HydraulicCylinder c{};
    c.rod = r_.rod;
    column(c, figures.longest, push);
  }
  //! By how much the arm at a turn grows when either end goes 10 mm square to the strut, in the plane of the
  //! swing.
  double gain(const drive::Strut& strut, double turn) const {
    const auto& m = load_->load.moves;
    const double now = std::abs(drive::arm_of(m, strut, turn));
    const Vec3 along = (strut.on_leg - strut.on_airframe).normalized();
    const Vec3 across = m.axis.direction.cross(along).normalized() * 0.010;
    double best = 0;
    for (const double side : {-1.0, 1.0}) {
      drive::Strut moved = strut;
      moved.on_airframe += side * across;
      best = std::max(best, std::abs(drive::arm_of(m, moved, turn)) / now - 1);
      moved = strut;
      moved.on_leg += side * across;
      best = std::max(best, std::abs(drive::arm_of(m, moved, turn)) / now - 1);
    }
    return best;
  }
  void stroke(const drive::ActuatorFigures& figures) {
    const double range = figures.longest - figures.shortest;
    if (!r_.stroke.known()) {
      collect_.unknown("drive.stroke", entry(root() + "stroke_m", "its stroke"));
      return;
    }
    auto& f = collect_.add("drive.stroke", r_.stroke - range, stroke_limit(range));
    f.working = {{"needed", range, Kind::length},
                 {"shortest", figures.shortest, Kind::length},
                 {"longest", figures.longest, Kind::length},
                 {"has", r_.stroke, Kind::length}};
  }
  void column(drive::HydraulicCylinder c, double longest, double push) {
    c.pinned_length = longest;
    if (!(push > 0)) return;
    auto& f = collect_.add("drive.column", c.column_load() / (1.5 * push) - 1, column_limit());
    f.working = {{"gives way at", c.column_load(), Kind::force},
                 {"greatest push", push, Kind::force},
                 {"between its pins, extended", longest, Kind::length}};
  }
  void travel_time(const drive::ActuatorFigures& figures) {
    const double range = figures.longest - figures.shortest;
    const auto cylinder = cylinder_of(leg_);
    double time = std::nan("");
    if (r_.kind == DriveKind::actuator && r_.speed.known()) time = range / r_.speed;
    // Raising fills the side that pushes, or the one beside the rod.
    const bool pushes_up = figures.length_stowed > figures.length_down;
    if (r_.kind == DriveKind::cylinder && cylinder && r_.flow.known())
      time = (cylinder->area() - (pushes_up ? 0 : cylinder->rod_area())) * range / r_.flow;
    time_of(time);
    counted();
  }
  //! What a motor or an actuator takes with the battery at its lowest, against what Sequence counts with.
  void counted() {
    const auto takes = driven_times(d_, leg_, *load_, a_.steps);
    if (!takes) return;
    for (const bool up : {true, false}) {
      const double in_sequence = slowest_in_sequence(d_, a_, leg_, up);
      const double slowest = up ? takes->up_lowest : takes->down_lowest;
      if (std::isnan(in_sequence) || std::isnan(slowest)) continue;
      collect_.about(about_leg_way(d_, leg_, up), "", GearState::extended);
      if (std::isinf(slowest)) {
        collect_.fails("drive.counted", at_least(0, "it must arrive with the battery at its lowest"),
                       takes->lacking.empty() ? Text("its motor stalls with the battery at its lowest")
                                              : Text("its motor stalls"));
        continue;
      }
      if (!takes->lacking.empty() && in_sequence >= slowest) {
        collect_.unknown("drive.counted", takes->lacking);
        continue;
      }
      counted_by_sequence(d_, a_, leg_, up, slowest,
                          takes->lacking.empty() ? "computed, battery lowest" : "computed, battery full",
                          takes->taken, collect_, "drive.counted");
    }
    about();
  }
  void time_of(double time) {
    if (!std::isfinite(time)) return;
    const Limit limit = r_.wanted_time.known() ? at_most(r_.wanted_time, "the time wanted") : Limit{};
    collect_.add("drive.time", time, limit);
  }

  void geared() {
    const auto motor = motor_of(leg_);
    if (!motor) {
      collect_.unknown("drive.stall",
                       Lacking(root())
                           .number(r_.stall_torque, "stall_torque_N_m", "the motor's stall torque")
                           .number(r_.no_load_speed, "no_load_speed_rad_per_s", "its no-load speed")
                           .number(r_.sector_radius, "sector_radius_m", "the sector's radius")
                           .number(r_.pinion_radius, "pinion_radius_m", "the pinion's radius")
                           .number(r_.gearbox, "gearbox", "the gearbox")
                           .number(r_.efficiency, "efficiency", "the efficiency of it all")
                           .text());
      return;
    }
    const drive::LegLoad& l = load_->load;
    const Hardest h = hardest(l);
    const drive::MotorRun run = motor_way(*motor, 1, l, load_->inertia, true, a_.steps);
    const double stall = motor->motor.stall_torque / motor->motor_torque(h.torque);
    auto& f =
        judged("drive.stall", stall, at_least_or_tight(1, 2, "practice: no more than half its stall torque"));
    f.remark.also(way_of(h));
    f.working = {{"ratio, to one", motor->ratio(), Kind::factor},
                 {"at the motor", motor->motor_torque(h.torque), Kind::moment},
                 {"current then", motor->motor.current_at(motor->motor_torque(h.torque)), Kind::current},
                 {"at a turn of", h.turn, Kind::angle},
                 {"tooth load", h.torque / motor->sector_radius, Kind::force},
                 {"charge for one way up, A·s", run.charge, Kind::factor}};
    time_of(run.time_from_rest);
    counted();
  }

  void servo() {
    const auto linkage = servo_of(leg_);
    if (!linkage) {
      collect_.unknown("drive.end_point",
                       Lacking(root())
                           .number(r_.servo_x, "servo_x_m", "the servo's axis, ahead")
                           .number(r_.servo_y, "servo_y_m", "the servo's axis, above")
                           .number(r_.unit_arm, "unit_arm_m", "the unit's arm")
                           .number(r_.unit_down, "unit_down_deg", "its angle when down")
                           .number(r_.unit_stowed, "unit_stowed_deg", "its angle when stowed")
                           .text());
      return;
    }
    const auto fit = drive::fit_servo(*linkage);
    if (!r_.full_throw.known()) {
      collect_.unknown("drive.end_point",
                       entry(root() + "full_throw_deg", "the servo's turn to one side at 100 %"));
    } else {
      auto& f = collect_.add("drive.end_point", fit.throw_all / 2 / r_.full_throw,
                             at_most(1.4, "what end points can be set to; more throw wants another servo"));
      f.working = {{"servo arm", fit.servo_arm, Kind::length},
                   {"rod", fit.rod, Kind::length},
                   {"throw in all", fit.throw_all, Kind::angle},
                   {"servo arm at neutral, to ahead", fit.neutral, Kind::angle},
                   {"rod to servo arm at neutral", drive::between_arm_and_rod(*linkage, fit, fit.neutral),
                    Kind::angle}};
      f.remark = fit.turn > 0 ? Text("turns counter-clockwise to stow, seen from starboard")
                              : Text(
                                    "turns clockwise to stow, seen from starboard: reverse it where the "
                                    "channel goes the other way");
      if (r_.throws != ServoThrow::both_ways)
        f.remark.also(drive::faces_starboard(fit, r_.throws)
                          ? Text("it throws one way: its output looks to starboard")
                          : Text("it throws one way: its output looks to port"));
      f.assumption = "in line with its rod at both ends: the servo rests there";
    }
    rod(*linkage, fit);
    if (!r_.stall_torque.known()) {
      collect_.unknown("drive.stall", entry(root() + "stall_torque_N_m", "the servo's stall torque"));
      return;
    }
    const drive::LegLoad& l = load_->load;
    const drive::LegLoad still = on_jacks(l);
    const auto most = drive::hardest_at_servo(*linkage, fit, l.moves.full_turn, [&](double t) {
      return std::max({0.0, l.to_retract(t), l.to_extend(t), still.to_retract(t), still.to_extend(t)});
    });
    auto& f = judged("drive.stall", r_.stall_torque / most.torque,
                     at_least_or_tight(1, 2, "practice: half its stall torque"));
    f.working = {{"at the servo", most.torque, Kind::moment}, {"at a turn of", most.turn, Kind::angle}};
    if (r_.rod_stiffness.known() && r_.stall_current.known()) {
      // End points set two degrees too far: it never comes to rest.
      const auto b = drive::binding(*linkage, fit, fit.angle_stowed - std::copysign(radians(30), fit.turn),
                                    radians(2), r_.rod_stiffness, r_.stall_torque, r_.stall_current,
                                    r_.no_load_current.known() ? r_.no_load_current.si : 0);
      f.working.push_back({"binding two degrees short it draws", b.current, Kind::current});
      f.working.push_back({"and its rod carries", b.rod_force, Kind::force});
    }
  }

  //! The push rod: whether it stays straight, and whether its ends tilt so far.
  void rod(const drive::ServoLinkage& linkage, const drive::ServoFit& fit) {
    if (r_.rod_offset.known() != r_.ball_tilt.known()) {
      collect_.unknown(
          "drive.ball_tilt",
          Lacking(root())
              .number(r_.rod_offset, "rod_offset_m", "how far apart the planes of servo and unit are")
              .number(r_.ball_tilt, "ball_tilt_deg", "the tilt that its ball ends allow")
              .text());
    } else if (r_.rod_offset.known()) {
      auto& f = collect_.add("drive.ball_tilt", std::atan2(r_.rod_offset.si, fit.rod),
                             at_most(r_.ball_tilt, "what its ball ends allow before the housing touches"));
      f.working = {{"planes apart by", r_.rod_offset, Kind::length}, {"rod", fit.rod, Kind::length}};
    }
    if (!r_.rod_diameter.known()) return;
    const drive::LegLoad& l = load_->load;
    const drive::LegLoad still = on_jacks(l);
    const auto pressed = drive::largest_over(l.moves.full_turn, [&](double t) {
      const double unit = linkage.down + t / l.moves.full_turn * (linkage.stowed - linkage.down);
      const double arm = drive::rod_arm(linkage, fit, unit);
      const double most =
          std::max({std::abs(l.to_retract(t)), std::abs(l.to_extend(t)), std::abs(still.to_retract(t))});
      return most / arm;
    });
    const double column = drive::rod_column(r_.rod_diameter, fit.rod);
    auto& f = judged("drive.rod", column / (1.5 * pressed.value) - 1,
                     at_least(0, "one and a half times against bowing out"));
    f.working = {{"bows out at", column, Kind::force},
                 {"most in it", pressed.value, Kind::force},
                 {"at a turn of", pressed.turn, Kind::angle},
                 {"rod", fit.rod, Kind::length}};
    f.assumption = "steel, free to turn at both ends";
  }

  void falls() {
    const double fluid = r_.fluid.known() ? r_.fluid.si : 0;
    drive::FreeFall leg{load_->load, load_->inertia, fluid};
    // On jacks too: what the stream blows down may hang without it.
    const auto& flying = a_.steps.get<Falls>(leg);
    const auto& still = a_.steps.get<Falls>({on_jacks(load_->load), load_->inertia, fluid});
    const bool in_air = flying.reaches_lock != still.reaches_lock
                            ? !flying.reaches_lock
                            : flying.least_to_spare.value <= still.least_to_spare.value;
    const auto& worse = in_air ? flying : still;
    // Momentum may carry it over a gap: tight, not failed, while it arrives. No gap is larger than all that
    // holds it back.
    const drive::LegLoad& l = load_->load;
    const double all = drive::largest_over(l.moves.full_turn, [&](double t) {
                         return std::abs(l.sum(t)) + std::abs(on_jacks(l).sum(t)) + l.friction.constant;
                       }).value;
    const Limit quasi_static =
        at_least_or_tight(-2 * all, 0, "torque towards the lock at every turn, momentum not counted");
    auto& f = worse.reaches_lock
                  ? judged("drive.free_fall", worse.least_to_spare.value, quasi_static)
                  : collect_.fails("drive.free_fall", at_least(0, "it must come down without power"),
                                   say("stops at a turn of {}", Amount{worse.stops_at, Kind::angle}));
    f.remark.also(in_air ? Text("in the air") : Text("on jacks"));
    f.working = {{"least to spare", worse.least_to_spare.value, Kind::moment},
                 {"at a turn of", worse.least_to_spare.turn, Kind::angle},
                 {"takes", worse.time, Kind::time},
                 {"arrives with", worse.arrival_speed, Kind::turn_rate}};
    if (const double limit = a_.steps.get<FallsUpTo>(leg); std::isfinite(limit))
      f.working.push_back({"falls to the lock up to an airspeed of", limit, Kind::speed});
    if (const auto spring = down_spring_of(leg_)) {
      const auto size = drive::size_spring(load_->load, *spring, 1.3);
      f.working.push_back({"least down-spring between those ends, extended", size.least_force, Kind::force});
      f.working.push_back({"retracting then takes", size.retract_with, Kind::moment});
    }
  }

  void uplock() {
    const Uplock& u = leg_.retraction.uplock;
    if (!u.hook.known()) return;
    about();
    auto made = drive_load(d_, leg_);
    const auto* load = std::get_if<DriveLoad>(&made);
    if (!load || !u.holds.known()) {
      collect_.unknown("drive.uplock", load ? Text(entry(leg_root(leg_.id) + "retraction/uplock/holds_N",
                                                         "what hook and bracket hold"))
                                            : std::get<Text>(made));
      return;
    }
    const auto stowed = load->load.moves.pose(motion::Carried::leg, load->load.moves.full_turn);
    double mass = 0;
    Vec3 moment(0, 0, 0);
    for (const auto& m : load->load.masses) {
      mass += m.mass;
      moment += m.mass * (stowed * m.at);
    }
    const double force = std::abs(swing::hook_force({load->load.moves.axis, mass, u.load_factor,
                                                     moment / mass, u.hook.vec(), Vec3::UnitZ(), 0})) +
                         u.door_force;
    if (!(force > 0) || !std::isfinite(force) || !d_.load_factors.ultimate.known()) {
      collect_.unknown("drive.uplock", d_.load_factors.ultimate.known()
                                           ? Text("a hook that stands beside the pivot, and what hangs on it")
                                           : Text("the ultimate factor"));
      return;
    }
    auto& f = collect_.add("drive.uplock", u.holds / (d_.load_factors.ultimate * force) - 1,
                           at_least(0, "so that the drive never carries the gear"));
    f.working = {
        {"on the hook", force, Kind::force}, {"holds", u.holds, Kind::force}, {"mass", mass, Kind::mass}};
    f.assumption = load->taken;
  }

  //! One hook for both ends: by its own place, and by a second pin on the leg that it takes when that is
  //! down.
  void latch() {
    const Uplock& u = leg_.retraction.uplock;
    if (!u.both_ends) return;
    about();
    const auto pins = swing::latch_pins(leg_);
    if (!pins || !u.reach.known()) {
      Lacking lacks(leg_root(leg_.id) + "retraction/");
      lacks.place(u.hook, "uplock/hook", "where the hook holds the leg, stowed")
          .number(u.reach, "uplock/reach_m", "the longest bracket for a pin on the leg");
      if (lacks.nothing()) lacks.that(!pins, "the leg's motion");
      collect_.unknown("drive.latch", lacks.text());
      return;
    }
    auto& f = collect_.add("drive.latch", std::max(pins->stowed.off, pins->down.off),
                           at_most(u.reach, "the longest bracket that you allow"));
    const auto told = [&](const char* along, const char* off, const swing::LatchPin& p) {
      f.working.push_back({along, p.along, Kind::length});
      f.working.push_back({off, p.off, Kind::length});
    };
    told("pin for up: from the pivot along the leg", "its bracket stands off", pins->stowed);
    told("pin for down: from the pivot along the leg", "its bracket stands off", pins->down);
    f.working.push_back({"pins apart about the pivot", pins->apart, Kind::angle});
  }

  //! What the retract unit is sold for, against what it gets.
  void unit() {
    const RetractUnit& u = leg_.retraction.unit;
    if (!u.rated_mass.known() && !u.rated_moment.known() && !u.flex.known()) return;
    about();
    const auto need = unit_need(a_, leg_);
    if (u.rated_mass.known()) {
      if (!std::isfinite(need.aircraft_mass)) {
        collect_.unknown("drive.unit_mass", "what the aircraft weighs in its loadings");
      } else {
        auto& f = collect_.add("drive.unit_mass", u.rated_mass / need.aircraft_mass - 1,
                               at_least(0, "what the unit is sold for"));
        f.working = {{"sold for up to", u.rated_mass, Kind::mass},
                     {"heaviest loading flown", need.aircraft_mass, Kind::mass}};
      }
    }
    if (u.rated_moment.known()) {
      if (!std::isfinite(need.moment)) {
        collect_.unknown("drive.unit_moment", "every load case of the leg");
      } else {
        auto& f = collect_.add("drive.unit_moment", u.rated_moment / need.moment - 1,
                               at_least(0, "what its pin may carry"));
        f.working = {{"may carry", u.rated_moment, Kind::moment},
                     {"greatest, limit, over the load cases", need.moment, Kind::moment}};
      }
    }
    if (u.flex.known()) {
      if (!std::isfinite(need.moment)) {
        collect_.unknown("drive.unit_flex", "every load case of the leg");
      } else {
        auto& f =
            collect_.add("drive.unit_flex", need.moment / u.flex,
                         at_most(radians(1), "practice: beyond a degree it binds, or its wheel toes out"));
        const double length = (leg_.axle.vec() - leg_.held_at()).norm();
        f.working = {{"greatest moment at the pin, limit", need.moment, Kind::moment},
                     {"the wheel moves by", need.moment / u.flex * length, Kind::length}};
        f.remark = "the unit alone, locked; its mount gives on top of it";
      }
    }
  }

  void brace() {
    const BraceLinks& b = leg_.retraction.brace;
    if (!b.at_airframe.known() && !b.at_leg.known()) return;
    about();
    if (!brace_of(leg_)) {
      Lacking lacks(leg_root(leg_.id));
      lacks.number(b.at_airframe, "retraction/brace/at_airframe_m", "the link at the airframe")
          .number(b.at_leg, "retraction/brace/at_leg_m", "the link at the leg")
          .place(leg_.brace_leg, "brace_leg", "the brace's end on the leg")
          .place(leg_.brace_airframe, "brace_airframe", "its end on the airframe")
          .that(!leg_.held_at().allFinite(), "where the leg is held");
      collect_.unknown("drive.brace", lacks.text());
      return;
    }
    const swing::FoldingBrace brace = *brace_of(leg_);
    const auto flat = [&](const Vec3& v) { return in_plane_of_swing(leg_, v); };
    const auto figures = swing::brace_figures(brace);
    if (!std::isfinite(figures.past_straight)) {
      collect_.fails("drive.over_centre", at_least(0, "links that reach"),
                     "the links do not span its two ends");
      return;
    }
    auto& over =
        collect_.add("drive.over_centre", figures.past_straight,
                     bands(0, radians(2), radians(4), radians(8), "practice: 2 to 4 degrees past straight"));
    over.working = {{"knee off the line by", figures.offset, Kind::length},
                    {"the leg goes, passing straight", swing::way_past_straight(brace, flat(leg_.axle.vec())),
                     Kind::length}};
    const LegStrength* strength = nullptr;
    for (const auto& s : a_.strengths)
      if (s.leg == leg_.id) strength = &s;
    if (!strength || strength->cases.cases.empty()) {
      collect_.unknown("drive.brace", "the leg's load cases");
      return;
    }
    double held = std::numeric_limits<double>::infinity();
    double force = 0;
    Text in_case;
    for (const auto& c : strength->cases.cases) {
      Vec3 at = leg_.axle.vec();
      if (c.at_ground) at.z() -= leg_.wheel.diameter / 2;
      const auto u = swing::brace_under(brace, flat(at), flat(c.force));
      if (u.held >= held) continue;
      held = u.held;
      force = u.force;
      in_case = c.name;
    }
    auto& f = collect_.add("drive.brace", held, at_least(0, "a knee that lifts off its stop folds"));
    f.remark = in_case;
    if (!b.lock_spring.known()) f.assumption = "no lock spring entered: none reckoned with";
    f.working = {{"force in the brace, pressed positive", force, Kind::force},
                 {"lock spring at the knee", brace.spring_moment, Kind::moment},
                 {"to unlock, at the knee", swing::force_to_unlock(brace, flat(leg_.axle.vec()), {0, 0}),
                  Kind::force}};
  }

  const Design& d_;
  Assessment& a_;
  const Leg& leg_;
  const Drive& r_;
  Collector& collect_;
  std::string_view only_;
  std::optional<DriveLoad> load_;
};

}  // namespace

void assess_drive(const Design& d, Assessment& a, Collector& collect, const Asked& asked) {
  for (const Leg& leg : d.gear.legs)
    if (leg.retraction.fitted) DriveJudge(d, a, leg, collect, asked.measure).all();
}

}  // namespace kranich
