// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/start/start.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "core/assess/place_rules.h"
#include "core/leg/load_cases.h"
#include "core/leg/structure.h"
#include "core/place/rotation.h"
#include "core/weigh/weigh.h"

namespace kranich::start {
namespace {

constexpr double g = standard_gravity;
constexpr double margin_wanted = 0.30;  //!< of legs and axles

class Builder {
 public:
  Builder(const Settled& s, const Sizes& z) : s_(s), z_(z), L(s.length), H(z.body_height), Y(z.body_width) {}

  Design build() {
    about();
    airframe();
    masses();
    gear();
    landing();
    if (!s_.helicopter()) tail_surface();
    main_section();
    third_section();
    if (s_.retractable) stow();
    return std::move(d_);
  }

 private:
  double pick(double full, double model) const { return s_.model ? model : full; }
  //! To the millimetre, of a model to a tenth of one.
  double mm(double v) const { return std::round(v / pick(1e-3, 1e-4)) * pick(1e-3, 1e-4); }
  double kg(double v) const { return std::round(v / pick(0.1, 1e-4)) * pick(0.1, 1e-4); }
  static double digits(double v, int n) {
    if (!(v != 0) || !std::isfinite(v)) return v;
    const double unit = std::pow(10.0, std::floor(std::log10(std::abs(v))) - n + 1);
    return std::round(v / unit) * unit;
  }
  Given guess(double v, double half_range) const {
    return {v, Origin::guessed, digits(half_range * s_.widen, 2)};
  }
  static Given follows(double v) { return {v, Origin::guessed}; }
  Given length(double v, double half_range) const { return guess(mm(v), half_range); }
  Given length(double v) const { return follows(mm(v)); }
  static Given answer(double v) { return {v, Origin::plan}; }
  static Given degrees_of(double v) { return follows(radians(std::round(degrees(v) * 10) / 10)); }

  void about() {
    d_.begun.started = true;
    d_.begun.craft = s_.kind;
    d_.begun.retractable = s_.retractable;
    d_.begun.wing = s_.wing;
    d_.begun.engine = s_.engine;
    if (!s_.model) d_.begun.seats = answer(s_.seats);
    const auto said = [](bool guessed, double v) { return guessed ? Given() : answer(v); };
    d_.begun.mass = said(s_.mass_guessed, s_.mass);
    d_.begun.span = said(s_.span_guessed, s_.span);
    d_.begun.length = said(s_.length_guessed, s_.length);
    d_.about.name = s_.model ? "New model" : "New aircraft";
    d_.purpose.build = s_.model ? Build::model : Build::full_size;
    d_.purpose.lift = s_.helicopter() ? Lift::rotor : Lift::wing;
    d_.purpose.field = s_.field;
    if (std::isfinite(s_.scale)) d_.purpose.scale_denominator = answer(s_.scale);
    d_.purpose.obstacle = guess(digits(z_.obstacle, 2), 0.5 * z_.obstacle);
    d_.purpose.use = s_.model ? Use::display : Use::touring;
    d_.bump.height = follows(digits(0.6 * z_.obstacle, 2));
    d_.bump.length = follows(digits(7.2 * z_.obstacle, 2));
    d_.bump.speed = follows(pick(5, 3));
  }

  Given size(double v, bool guessed, double share) const {
    return guessed ? length(v, share * v) : answer(v);
  }

  double tail_z() const { return std::max(z_.tail_end_z, s_.helicopter() ? 0.15 * H : -0.42 * H); }

  void airframe() {
    Airframe& a = d_.airframe;
    a.level_reference = "reference line of the fuselage";
    body();
    a.cg_forward_limit = length(z_.cg_forward, 0.03 * z_.chord);
    a.cg_aft_limit = length(z_.cg_aft, 0.03 * z_.chord);
    const auto low = [&](const char* name, PointRole role, Given x, double y, Given z) {
      LowPoint p;
      p.name = name;
      p.role = role;
      p.at.x = x;
      p.at.y = length(y);
      p.at.z = z;
      a.low_points.push_back(std::move(p));
    };
    low("belly", PointRole::belly, length(z_.x_cg), 0, length(-0.53 * H, 0.06 * H));
    if (s_.helicopter()) {
      low("tail bumper", PointRole::tail, length(0.97 * L, 0.02 * L), 0, length(0.05 * H, 0.08 * H));
      a.aerodynamics.side_area = guess(digits(0.75 * L * (H + 0.25), 2), 0.15 * L * (H + 0.25));
      // The file's wing of a helicopter has an incidence only, which Stance measures by.
      a.wing.incidence = follows(0);
    } else {
      low("tail end", PointRole::tail, length(0.96 * L, 0.02 * L), 0, length(z_.tail_end_z, 0.08 * H));
      wing();
      fins();
    }
    air();
    if (z_.propeller > 0) {
      Propeller p;
      p.name = "propeller";
      p.hub.x = length(z_.hub_x, 0.02 * L);
      p.hub.y = length(0);
      p.hub.z = length(z_.hub_z, 0.08 * H);
      p.diameter = length(z_.propeller, 0.12 * z_.propeller);
      p.tilt = follows(0);
      a.propellers.push_back(std::move(p));
    }
  }

  void body() {
    struct At {
      double x, top, bottom, width;
    };
    const double end = tail_z() / H;
    const double tail_top = std::max(0.30, end + 0.12);
    const auto bottom = [&](double x) { return -0.48 + (end + 0.48) * (x - 0.45) / (0.96 - 0.45); };
    const std::array<At, 9> sections{{{0.04, 0.22, -0.22, 0.3},
                                      {0.1, 0.36, -0.36, 0.6},
                                      {0.2, 0.46, -0.46, 0.9},
                                      {0.32, 0.5, -0.5, 1},
                                      {0.45, 0.5, -0.48, 1},
                                      {0.6, 0.44, bottom(0.6), 0.72},
                                      {0.8, 0.36, bottom(0.8), 0.36},
                                      {0.96, tail_top, end, 0.1},
                                      {1, tail_top, std::min(end, tail_top - 0.05), 0.04}}};
    Body b;
    b.name = "fuselage";
    b.y = length(0);
    for (const At& at : sections) {
      Section s;
      s.x = length(at.x * L);
      // A low tail end comes up under a top that falls towards it.
      s.top = length(std::max(at.top, at.bottom + 0.05) * H);
      s.bottom = length(at.bottom * H);
      s.half_width = length(at.width * Y / 2);
      b.sections.push_back(std::move(s));
    }
    d_.airframe.bodies.push_back(std::move(b));
  }

  void wing() {
    const WingSizes& l = z_.lift;
    Surface& w = d_.airframe.wing;
    w.root_leading_edge_x = length(z_.wing_x, 0.03 * L);
    w.root_z = length(l.root_z, 0.08 * H);
    w.span = size(s_.span, s_.span_guessed, 0.15);
    w.root_chord = length(l.root_chord, 0.12 * l.root_chord);
    w.tip_chord = length(l.tip_chord, 0.25 * l.tip_chord);
    w.sweep = guess(l.sweep, radians(2));
    w.dihedral = guess(l.dihedral, radians(2));
    w.incidence = guess(l.incidence, radians(1));
    LowPoint tip;
    tip.name = "wing tip";
    tip.role = PointRole::wing_tip;
    tip.at.x = length(z_.wing_x + s_.span / 2 * std::tan(l.sweep) + l.tip_chord / 2);
    tip.at.y = length(s_.span / 2);
    tip.at.z = length(l.root_z + s_.span / 2 * std::tan(l.dihedral), 0.02 * s_.span);
    d_.airframe.low_points.push_back(std::move(tip));
    d_.airframe.lift_off_wing_angle = guess(l.lift_off_angle, radians(1.5));
    d_.airframe.stall_wing_angle = guess(l.stall_angle, radians(2));
  }

  void fins() {
    const auto outline = [&](std::vector<OutlinePoint>& into,
                             std::initializer_list<std::array<double, 2>> at) {
      for (const auto& p : at) {
        OutlinePoint o;
        o.x = length(p[0]);
        o.z = length(p[1]);
        into.push_back(std::move(o));
      }
    };
    const double top = std::max(0.30 * H, tail_z() + 0.12 * H), tall = 0.15 * L;
    outline(d_.airframe.fin, {{0.84 * L, 0.34 * H},
                              {0.885 * L, top + 0.6 * tall},
                              {0.915 * L, top + tall},
                              {0.985 * L, top + tall},
                              {1.0 * L, top + 0.3 * tall},
                              {0.985 * L, tail_z() + 0.02 * H}});
    const bool ahead = s_.engine != Engine::front;
    if (s_.seats > 0 || s_.model) {
      const double from = (ahead ? 0.10 : 0.26) * L, to = (ahead ? 0.36 : 0.50) * L;
      outline(d_.airframe.canopy, {{from, 0.47 * H},
                                   {from + 0.28 * (to - from), 0.72 * H},
                                   {from + 0.5 * (to - from), 0.76 * H},
                                   {from + 0.75 * (to - from), 0.68 * H},
                                   {to, 0.49 * H}});
    }
  }

  void air() {
    Aerodynamics& a = d_.airframe.aerodynamics;
    if (!s_.helicopter()) {
      const WingSizes& l = z_.lift;
      a.greatest_lift = guess(l.greatest, 0.15);
      a.ground_lift = guess(pick(0.40, 0.35), 0.12);
      a.lift_slope = follows(l.slope);
      a.zero_lift_angle = follows(l.zero_lift);
      a.drag = guess(0.06, 0.02);
      a.drag_z = length(l.root_z);
      a.moment = guess(pick(-0.05, -0.03), 0.03);
      a.tail_down_lift = guess(pick(0.8, 0.6), 0.15);
      a.slipstream = guess(s_.engine == Engine::front ? 1.15 : 1, 0.15);
      a.thrust = guess(digits(z_.thrust, 3), 0.25 * z_.thrust);
      a.thrust_z = length(z_.propeller > 0 ? z_.hub_z : 0.05 * H);
      const double stall = std::sqrt(2 * s_.mass * g / (1.225 * l.area * l.greatest));
      a.crosswind_wanted = follows(digits(std::max(pick(0.30, 0.35) * stall, pick(5, 3)), 2));
      const double area = s_.model ? 0.70 * L * 1.1 * H : 0.75 * L * (H + 0.25);
      a.side_area = guess(digits(area, 3), 0.20 * area);
    }
    a.friction = guess(z_.friction, z_.friction_range);
    a.side_z = length(0.10 * H, 0.12 * H);
    a.side_coefficient = guess(1, 0.2);
    if (s_.helicopter()) a.crosswind_wanted = follows(pick(5, 3));
  }

  void masses() {
    for (const auto& i : z_.items) {
      Item item;
      item.name = i.name;
      item.group = i.group;
      item.mass = guess(kg(i.mass), 0.15 * i.mass);
      item.at.x = length(i.x, 0.02 * L);
      item.at.y = length(0);
      item.at.z = length(i.z, 0.10 * H);
      item.moves = i.moves;
      d_.ledger.push_back(std::move(item));
    }
    for (const auto& l : z_.loads) {
      Item item;
      item.name = l.name;
      item.group = Group::load;
      item.mass = guess(kg(l.mass), l.person ? 10 : 0.20 * l.mass);
      item.at.x = length(z_.x_cg + l.x, 0.01 * L);
      item.at.y = length(0);
      item.at.z = length(l.z, 0.06 * H);
      if (l.back > 0) {
        item.slides = true;
        item.slides_from = length(z_.x_cg + l.x - l.front);
        item.slides_to = length(z_.x_cg + l.x + l.back);
      }
      d_.ledger.push_back(std::move(item));
    }
    // The last item takes what rounding left, so that it weighs what was answered.
    double sum = 0;
    for (const auto& i : d_.ledger) sum += i.mass.si;
    d_.ledger.front().mass.si = kg(d_.ledger.front().mass.si + s_.mass - sum);
    const auto loading = [&](const char* name, auto share, double slid = 0) {
      Loading l;
      l.name = name;
      for (const auto& i : d_.ledger) {
        if (i.group != Group::load) continue;
        const double part = share(i.name);
        if (part == 0) continue;
        Aboard aboard;
        aboard.item = i.name;
        if (part < 1) aboard.mass = follows(kg(part * i.mass));
        if (slid != 0 && i.slides) aboard.x = slid < 0 ? i.slides_from : i.slides_to;
        l.aboard.push_back(std::move(aboard));
      }
      d_.loadings.push_back(std::move(l));
    };
    const auto all = [](const std::string&) { return 1.0; };
    if (s_.model) {
      loading("all-up", all);
      loading("battery forward", all, -1);
      loading("battery aft", all, 1);
    } else {
      loading("all-up", all);
      loading(s_.seats > 0 ? "pilot, a quarter of the fuel" : "half the payload, a quarter of the fuel",
              [](const std::string& name) {
                return name == "pilot" ? 1.0 : name == "payload" ? 0.5 : name == "fuel" ? 0.25 : 0.0;
              });
    }
    Loading empty;
    empty.name = "empty, on the scales";
    empty.flown = false;
    d_.loadings.push_back(std::move(empty));
    const double at_rest = (s_.tail_wheel() ? z_.three_point : 0) + (s_.helicopter() ? 0 : z_.lift.incidence);
    d_.stance.target_low = degrees_of(at_rest - radians(2));
    d_.stance.target_high = degrees_of(at_rest + radians(2));
    d_.stance.target_loading = "all-up";
  }

  double gap(double diameter) const { return 1.6 * std::max(pick(0.005, 0.001), 0.02 * diameter); }

  void gear() {
    d_.gear.brakes = !s_.model;
    d_.gear.legs.clear();
    Leg main;
    main.id = "main";
    main.role = LegRole::main;
    main.stands = LegStands::both_sides;
    main.axle.x = length(z_.x_main, 0.02 * L);
    main.axle.y = length(z_.track / 2, 0.04 * z_.track / 2);
    main.axle.z = length(z_.z_main, pick(0.030, 0.05 * H));
    wheel(main, z_.main_diameter, z_.main_width, z_.main_load, z_.main_squash, false);
    const double zeta = pick(0.35, 0.70);
    sprung(main, z_.main_travel, z_.main_rate, zeta, s_.mass / 2, z_.main_unsprung);
    Leg third;
    third.id = "third";
    third.role = s_.tail_wheel() ? LegRole::tail : LegRole::nose;
    third.stands = LegStands::centre;
    third.axle.x = length(z_.x_third, 0.02 * L);
    third.axle.y = length(0);
    third.axle.z = length(z_.z_third, pick(0.030, 0.05 * H));
    wheel(third, z_.third_diameter, z_.third_width, z_.third_load, z_.third_squash, s_.tail_wheel());
    sprung(third, z_.third_travel, z_.third_rate, pick(0.85, 0.80) * zeta, z_.third_load / g,
           z_.third_unsprung);
    if (s_.tail_wheel()) {
      third.top.x = length(z_.x_third - 0.02 * L);
      third.top.z = length(z_.z_third + std::max(0.12 * H, 1.5 * z_.third_travel + 0.7 * z_.third_diameter));
    } else {
      third.top.x = length(z_.x_third);
      const double bottom = bottom_at(z_.x_third);
      third.top.z =
          length(std::max(bottom + 0.15 * H, z_.z_third + 1.7 * z_.third_travel + 0.3 * z_.third_diameter));
    }
    third.top.y = length(0);
    d_.gear.legs.push_back(std::move(main));
    d_.gear.legs.push_back(std::move(third));
  }

  //! Waterline of the fuselage's underside.
  double bottom_at(double x) const {
    const auto& at = d_.airframe.bodies[0].sections;
    for (size_t i = 0; i + 1 < at.size(); ++i)
      if (x <= at[i + 1].x) {
        const double t = std::clamp((x - at[i].x) / (at[i + 1].x - at[i].x), 0.0, 1.0);
        return at[i].bottom + t * (at[i + 1].bottom - at[i].bottom);
      }
    return at.back().bottom;
  }

  void wheel(Leg& leg, double diameter, double width, double load, double squash, bool solid) {
    Wheel& w = leg.wheel;
    w.tyre = solid ? Tyre::solid : s_.model ? Tyre::foam : Tyre::pneumatic;
    w.diameter = length(diameter, 0.10 * diameter);
    w.width = length(width, 0.15 * width);
    w.shoulder_radius = length(0.25 * width);
    w.flat_radius = length(0.30 * diameter, 0.08 * 0.30 * diameter);
    w.fork_gap = length(gap(diameter), 0.30 * gap(diameter));
    const double rate = load / squash;
    w.tyre_rate = guess(digits(rate, 4), 0.30 * rate);
    if (!solid && !s_.model) {
      const double p = load / (2.3 * std::sqrt(width * diameter) * squash);
      w.pressure = guess(digits(p, 3), 0.12 * p);
    }
    leg.wheel_offset = follows(0);
    leg.axle_beyond_wheel = length(0.5 * width);
  }

  void sprung(Leg& leg, double travel, double rate, double zeta, double mass, double unsprung) {
    leg.travel = length(travel, 0.15 * travel);
    leg.spring.kind = SpringKind::linear;
    leg.spring.rate = guess(digits(rate, 4), 0.20 * rate);
    leg.spring.preload = follows(0);
    leg.spring.efficiency = follows(0.70);
    const double damping = 2 * zeta * std::sqrt(rate * mass);
    leg.spring.damping_closing = guess(digits(damping, 3), 0.30 * damping);
    leg.spring.damping_extending = follows(digits(2 * damping, 3));
    leg.unsprung_mass = guess(kg(unsprung), 0.30 * unsprung);
  }

  void landing() {
    Landing& l = d_.landing;
    const bool rule = !s_.model && !s_.helicopter();
    l.school = rule ? School::rule : School::ladder;
    l.reason = rule       ? "carries people: the historical light-aeroplane rule"
               : s_.model ? "a model: the drop that its mass usually meets"
                          : "a helicopter: let down from a quarter of a metre";
    l.lift_ratio = follows(2.0 / 3);
    l.load_factor = follows(z_.load_factor);
    l.tyre_efficiency = follows(0.46);
    if (!rule) l.ladder_height = length(z_.drop);
  }

  //! The tail that lifts the nose at 1.02 of the stall speed in every loading, volume 0.50 to 1.
  void tail_surface() {
    const WingSizes& l = z_.lift;
    const double centre = z_.wing_x + l.mean_y * std::tan(l.sweep) + 0.25 * l.mean_chord;
    const double arm = 0.92 * L - centre;
    const auto fit = [&](double volume) {
      const double area = volume * l.area * l.mean_chord / arm;
      Surface& t = d_.airframe.tailplane;
      const double span = std::sqrt(4 * area), mean = area / span;
      const double root = 2 * mean / 1.7, tip = 0.7 * root, sweep = radians(5);
      t.span = length(span, 0.12 * span);
      t.root_chord = length(root, 0.12 * root);
      t.tip_chord = length(tip, 0.12 * tip);
      t.sweep = follows(sweep);
      t.dihedral = follows(0);
      t.incidence = follows(0);
      t.root_z = length(0.15 * H);
      const weigh::Panel panel{span / 2, root, tip, sweep};
      const auto chord = weigh::mean_aerodynamic_chord(0, {&panel, 1});
      t.root_leading_edge_x = length(0.92 * L - chord.leading_edge_x - 0.25 * chord.mean_chord, 0.02 * L);
    };
    fit(0.50);
    if (s_.tail_wheel()) return;
    for (int hundredth = 50; hundredth <= 100; ++hundredth) {
      fit(hundredth / 100.0);
      const PlaceRules rules = place_rules(d_);
      if (!rules.run) return;
      bool lifts = true;
      for (const auto& f : z_.flown) {
        place::GroundRun run = *rules.run;
        run.mass = f.mass;
        run.cg_x = f.x;
        const double up = (1 - f.mass / s_.mass) * (0.33 * z_.main_travel + z_.main_squash);
        const double ground = -z_.height - up;
        run.cg_height = f.z - ground;
        run.main_x = z_.x_main;
        run.drag_height = *rules.drag_z - ground;
        run.thrust_height = *rules.thrust_z - ground;
        const auto r = place::rotation(run);
        if (r.verdict != place::Rotation::Verdict::at_standstill &&
            !(r.verdict == place::Rotation::Verdict::rotates && r.ratio <= 1.02))
          lifts = false;
      }
      if (lifts) return;
    }
  }

  //! Main leg: where its upper end is, and which section leaves enough.
  void main_section() {
    Leg& leg = d_.gear.legs[0];
    size_section(leg, z_.main_load, [&](double d) {
      const double out = s_.retractable ? 0 : 0.5 * leg.wheel.width + 0.5 * d + gap(leg.wheel.diameter);
      leg.wheel_offset = length(out);
      leg.top.y = length(z_.hangs == Hangs::body ? std::min(0.45 * Y, z_.track / 2) : z_.track / 2 - out);
    });
  }

  void third_section() {
    Leg& leg = d_.gear.legs[1];
    size_section(leg, z_.third_load, [](double) {});
  }

  void top_of_main() {
    Leg& leg = d_.gear.legs[0];
    double x = z_.x_main, z = z_.main_top_z;
    // A leg on the wing cannot stand on its nose.
    if (z_.hangs == Hangs::wing && s_.tail_wheel())
      x = std::max(x, z_.wing_x + z_.track / 2 * std::tan(z_.lift.sweep) + 0.12 * z_.lift.root_chord);
    leg.top.x = length(x);
    leg.top.z = length(z);
  }

  //! Raises the diameter by a fiftieth until the leg's own cases, with the load factor aimed at, leave
  //! enough; then the axle's likewise.
  template <class F>
  void size_section(Leg& leg, double load, F&& place) {
    const bool main = leg.role == LegRole::main;
    if (main) top_of_main();
    leg.axle_diameter = length(pick(0.015, 0.003));  // until its own turn comes
    leg.section = s_.model ? LegSection::bar : LegSection::tube;
    leg.material = s_.model ? "spring steel strip" : "chrome-molybdenum steel";
    leg.axle_material = s_.model ? "spring steel strip" : "chrome-molybdenum steel";
    leg::CaseInput in{};
    in.model = s_.model;
    in.main = main;
    in.tricycle = leg.role == LegRole::nose;
    in.rough_field = !d_.smooth_field();
    in.brakes = d_.gear.brakes;
    in.weight = s_.mass * g;
    in.share = load;
    in.ground_factor = z_.load_factor;
    in.inertia_factor = z_.load_factor + 2.0 / 3;
    in.tail_down_pitch = s_.tail_wheel()   ? z_.three_point
                         : s_.helicopter() ? radians(10)
                                           : std::max(0.0, z_.lift.rotation_pitch);
    in.factors = d_.load_factors;
    if (leg.role == LegRole::nose) {
      const auto& f = z_.flown[0];
      in.share_braking = (z_.x_main - f.x + 0.4 * (z_.height + f.z)) / (z_.x_main - z_.x_third) * f.mass * g;
    }
    const auto cases = leg::load_cases(in).cases;
    const auto least = [&](bool axle) {
      double margin = std::numeric_limits<double>::infinity();
      for (const auto& p : leg::check_structure(d_, leg, cases).parts)
        if ((p.part == "axle") == axle && std::isfinite(p.margin)) margin = std::min(margin, p.margin);
      return margin;
    };
    double d = pick(0.030, 0.003) * std::sqrt(std::max(load, 1.0) / pick(2500, 20));
    const auto put = [&] {
      place(d);
      leg.tube_diameter = length(d, 0.12 * d);
      if (!s_.model) leg.tube_wall = follows(std::max(0.0005, std::round(d / 12 * 2e4) / 2e4));
    };
    for (int i = 0; i < 300; ++i, d *= 1.02) {
      put();
      if (least(false) >= margin_wanted) break;
    }
    double axle = 0.25 * d;
    for (int i = 0; i < 300; ++i, axle *= 1.02) {
      leg.axle_diameter = length(axle);
      if (least(true) >= margin_wanted) break;
    }
  }

  void stow() {
    stow_leg(d_.gear.legs[0]);
    if (!s_.tail_wheel()) stow_leg(d_.gear.legs[1]);
    if (!s_.helicopter()) spars();
  }

  void stow_leg(Leg& leg) {
    const bool main = leg.role == LegRole::main;
    const double S = leg.travel, D = leg.wheel.diameter, w = leg.wheel.width, d = leg.tube_diameter;
    const double clearance = wheel_clearance(s_.model), c = 1.6 * clearance;
    const double growth = wheel_growth(s_.model, D), play = pick(0.004, 0.0005);
    const double R = D / 2 + growth, half = w / 2 + play;
    const double axle = leg.axle.z;
    Retraction& r = leg.retraction;
    r.fitted = true;
    double pivot = 0;
    if (main && z_.hangs == Hangs::wing) {
      r.direction = z_.outward ? SwingDirection::outward : SwingDirection::inward;
      pivot = z_.main_top_z;
    } else if (main) {
      r.direction = SwingDirection::aft;
      const double least = std::max(1.6 * S, 1.1 * D + 0.6 * S);
      pivot = axle + std::clamp(z_.main_top_z - axle, least, 1.4 * least);
    } else {
      r.direction = z_.nose_forward ? SwingDirection::forward : SwingDirection::aft;
      pivot = std::max(-0.36 * H + D / 2 + growth + c, axle + 0.9 * D + 0.6 * S);
    }
    r.pivot.x = length(leg.axle.x);
    r.pivot.y = length(leg.axle.y);
    r.pivot.z = length(pivot, 0.01 * H);
    leg.top = r.pivot;
    leg.top.z = length(pivot);
    r.unit_angle = guess(radians(90), radians(0.2));
    r.mount_tilt = guess(0, radians(0.2));
    r.growth = length(growth);
    r.side_play = length(play);
    r.time_up = guess(pick(6, 2.5), pick(2, 1));
    r.time_down = guess(pick(5, 2.5), pick(2, 1));
    r.slowest = follows(1.3);
    r.fastest = follows(0.85);
    const double body = std::max(d, pick(0.030, 0.006));
    const auto corner = [&](Point& p, double x, double y, double z) {
      p.x = length(x);
      p.y = length(y);
      p.z = length(z);
    };
    corner(r.unit_low, -1.2 * body, -body, -0.6 * body);
    corner(r.unit_high, 1.2 * body, body, 0.9 * body);
    // The well: along the swing from behind the pivot to past the wheel, across and deep as the wheel lies.
    const double reach = r.pivot.z - axle;
    const double behind = d / 2 + c;
    const double ahead = reach + R + half * half / (2 * (reach + R)) + c;
    const bool flat = r.direction == SwingDirection::inward || r.direction == SwingDirection::outward;
    const double across = flat ? R + c : half + c;
    const double mouth = r.pivot.z - (flat ? half + std::max(pick(0.0025, 0.0015), 0.02 * w)
                                           : D / 2 + growth + std::max(pick(0.0025, 0.0015), 0.01 * D));
    const double roof = r.pivot.z + (flat ? half : R) + c;
    const double x = r.pivot.x, y = r.pivot.y;
    Vec3 low(0, 0, mouth), high(0, 0, roof);
    if (flat) {
      low.x() = x - across;
      high.x() = x + across;
      const double sign = r.direction == SwingDirection::inward ? -1 : 1;
      low.y() = y + std::min(sign * ahead, -sign * behind);
      high.y() = y + std::max(sign * ahead, -sign * behind);
    } else {
      const double sign = r.direction == SwingDirection::forward ? -1 : 1;
      low.x() = x + std::min(sign * ahead, -sign * behind);
      high.x() = x + std::max(sign * ahead, -sign * behind);
      low.y() = y - across;
      high.y() = y + across;
    }
    r.well.name = main ? (z_.hangs == Hangs::wing ? "wing well" : "pod well") : "nose well";
    corner(r.well.low, low.x(), low.y(), low.z());
    corner(r.well.high, high.x(), high.y(), high.z());
    r.well.clearance = follows(clearance);
    if (main && z_.hangs == Hangs::pod) pod(low, high);
  }

  //! A fairing about a well that no wing has room for.
  void pod(const Vec3& low, const Vec3& high) {
    const double skin = pick(0.010, 0.003);
    const double middle = (low.z() + high.z()) / 2, half = (high.z() - low.z()) / 2 + skin;
    const double wide = (high.y() - low.y()) / 2 + skin, long_ = high.x() - low.x();
    struct At {
      double x, high, width;
    };
    const std::array<At, 6> at{{{low.x() - 0.30 * long_, 0.08, 0.1},
                                {low.x() - 0.14 * long_, 0.75, 0.75},
                                {low.x(), 1, 1},
                                {high.x(), 1, 1},
                                {high.x() + 0.25 * long_, 0.6, 0.6},
                                {high.x() + 0.60 * long_, 0.06, 0.08}}};
    Body b;
    b.name = "gear pods";
    b.y = length((low.y() + high.y()) / 2);
    for (const At& a : at) {
      Section s;
      s.x = length(a.x);
      s.top = length(middle + half * a.high);
      s.bottom = length(middle - half * a.high);
      s.half_width = length(wide * a.width);
      b.sections.push_back(std::move(s));
    }
    d_.airframe.bodies.push_back(std::move(b));
  }

  //! Spars at 27 and 65 % of the chord, moved clear of a well in the wing by a hundredth of it.
  void spars() {
    if (z_.hangs != Hangs::wing) return;
    const WingSizes& l = z_.lift;
    const Well& well = d_.gear.legs[0].retraction.well;
    const double y = (well.low.y + well.high.y) / 2;
    const double chord = l.root_chord - (l.root_chord - l.tip_chord) * y / (s_.span / 2);
    const double edge = z_.wing_x + y * std::tan(l.sweep);
    const double depth = 0.15 * chord / 2 * 0.85, thick = 0.02 * chord;
    const double z = l.root_z + y * std::tan(l.dihedral);
    const auto spar = [&](const char* name, double at, bool ahead) {
      double front = edge + at * chord - thick / 2;
      const double clear = 0.01 * chord + 1.6 * wheel_clearance(s_.model);
      if (ahead)
        front = std::min(front, well.low.x - clear - thick);
      else
        front = std::max(front, well.high.x + clear);
      KeepOut k;
      k.name = name;
      k.shape = Shape::box;
      k.low.x = ahead ? length(front) : length(front, 0.03 * chord);
      k.high.x = ahead ? length(front + thick, 0.03 * chord) : length(front + thick);
      k.low.y = length(Y / 2);
      k.high.y = length(0.48 * s_.span);
      k.low.z = length(z - depth);
      k.high.z = length(z + depth);
      d_.airframe.keep_outs.push_back(std::move(k));
    };
    spar("main spar", 0.27, true);
    spar("rear spar", 0.65, false);
  }

  Settled s_;
  const Sizes& z_;
  double L, H, Y;
  Design d_;
};

}  // namespace

Started started(const Answers& answers, const Found& found) {
  if (!refusals(answers).empty()) throw std::invalid_argument("answers outside of what is allowed");
  const Settled s = settled(answers);
  const Sizes z = sizes(s, found);
  Started result{Builder(s, z).build(), {}, z.settled_down};
  const auto left_open = [&](bool open, const char* what, double value, Kind kind) {
    if (open) result.notes.push_back(say("{} taken as usual: {}", what, Amount{value, kind}));
  };
  left_open(s.mass_guessed, "all-up mass", s.mass, Kind::mass);
  left_open(s.span_guessed, s.helicopter() ? "rotor" : "span", s.span, Kind::length);
  left_open(s.length_guessed, "length", s.length, Kind::length);
  if (s.widen > 1)
    result.notes.push_back("a size outside of what is usual was kept: every guess is twice as wide");
  return result;
}

}  // namespace kranich::start
