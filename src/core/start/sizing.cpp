// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/start/sizing.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

#include "core/assess/place_rules.h"
#include "core/place/place.h"
#include "core/spring/landing.h"

namespace kranich::start {
namespace {

constexpr double g = standard_gravity;
constexpr double tail_end_at = 0.96;  //!< of the length

WingSizes lift_of(const Settled& s, double body_height) {
  WingSizes l{};
  l.root_chord = 1.25 * usual_mean_chord(s);
  l.tip_chord = 0.6 * l.root_chord;
  l.sweep = std::atan2(l.root_chord - l.tip_chord, 2 * s.span);
  l.mean_chord = 0.817 * l.root_chord;
  l.mean_y = 0.229 * s.span;
  l.area = 0.8 * s.span * l.root_chord;
  l.aspect = s.span * s.span / l.area;
  const auto at = static_cast<size_t>(s.wing);
  constexpr std::array<double, 3> dihedral{5, 3, 1.5}, z{-0.38, 0, 0.42};
  l.dihedral = radians(dihedral[at]);
  l.root_z = z[at] * body_height;
  l.incidence = radians(s.model ? 1.5 : 2);
  l.greatest = s.model ? 1.15 : s.engine == Engine::ducted ? 1.4 : 1.5;
  const double per_degree = 0.1097 * l.aspect / (l.aspect + 2);
  const double no_lift = s.model ? -1.5 : -3;
  l.slope = per_degree / radians(1);
  l.zero_lift = radians(no_lift);
  l.stall_angle = radians(std::min(l.greatest / per_degree + no_lift, 19.0));
  l.lift_off_angle = radians(std::min(l.greatest / 1.21 / per_degree + no_lift, 15.0));
  l.rotation_pitch = l.lift_off_angle - l.incidence + radians(1);
  return l;
}

//! The rest of the aircraft as it must be for Place to say what it wants.
PlaceRules rules_of(const Settled& s) {
  Design d;
  d.purpose.build = s.model ? Build::model : Build::full_size;
  d.purpose.lift = s.helicopter() ? Lift::rotor : Lift::wing;
  d.purpose.field = s.field;
  d.gear.brakes = !s.model;
  Leg main, third;
  third.role = s.tail_wheel() ? LegRole::tail : LegRole::nose;
  third.stands = LegStands::centre;
  d.gear.legs = {main, third};
  return place_rules(d);
}

//! Sizes while they settle.
class Sizing {
 public:
  Sizing(const Settled& s, const Found& found)
      : s_(s), found_(found), L(s.length), M(s.mass), rules_(rules_of(s)) {}

  Sizes run() {
    begin();
    double moved = 0;
    for (o.passes = 1; o.passes <= 60; ++o.passes) {
      const std::array<double, 5> before{o.x_cg, o.x_main, o.x_third, o.height, o.track};
      balance();
      loads_and_wheels();
      stand_high();
      if (s_.tail_wheel())
        place_tail_wheel();
      else
        place_nose_wheel();
      o.x_main = found_.x_main.value_or(o.x_main);
      o.x_third = found_.x_third.value_or(o.x_third);
      set_track();
      if (o.passes > 12) o.track = (o.track + before[4]) / 2;
      o.track = found_.track.value_or(o.track);
      set_axles();
      const std::array<double, 5> after{o.x_cg, o.x_main, o.x_third, o.height, o.track};
      moved = 0;
      for (size_t i = 0; i < before.size(); ++i) moved = std::max(moved, std::abs(after[i] - before[i]));
      if (o.passes >= 8 && moved < L / 2000) break;
    }
    o.settled_down = moved < L / 2000;
    return std::move(o);
  }

 private:
  bool front() const { return !s_.helicopter() && s_.engine == Engine::front; }
  bool pusher() const { return !s_.helicopter() && s_.engine == Engine::pusher; }
  bool ducted() const { return !s_.helicopter() && s_.engine == Engine::ducted; }
  double pick(double full, double model) const { return s_.model ? model : full; }

  void from_the_answers() {
    const auto seats = static_cast<size_t>(s_.seats);
    if (s_.helicopter()) {
      constexpr std::array<double, 5> width{0.9, 0.9, 1.2, 1.3, 1.3};
      o.body_height = s_.model ? 0.20 * L : std::min(1.25, 0.22 * L);
      o.body_width = s_.model ? 0.15 * L : width[seats];
    } else {
      const std::array<double, 5> height{0.13 * L, 0.90, 1.00, 1.10, 1.10};
      const std::array<double, 5> width{0.11 * L, 0.66, 1.10, 1.15, 1.15};
      o.body_height = s_.model ? 0.14 * L : std::min(height[seats], 0.20 * L);
      o.body_width = s_.model ? 0.11 * L : std::min(width[seats], 0.22 * L);
    }
    H = o.body_height;
    Y = o.body_width;
    if (!s_.helicopter()) o.lift = lift_of(s_, H);
    o.chord = s_.helicopter() ? 0.17 * s_.span : o.lift.mean_chord;
    field();
    if (front() || pusher()) {
      o.propeller = (s_.model ? 0.25 * std::cbrt(M) : 0.31 * std::pow(M, 0.25)) * (pusher() ? 0.9 : 1);
      o.propeller = found_.propeller.value_or(o.propeller);
      o.hub_x = (pusher() ? 0.64 : 0.03) * L;
      o.hub_z = (pusher() ? 0.30 : 0.12) * H;
    }
    o.thrust = (ducted() ? pick(0.32, 0.55) : pick(0.25, 0.45)) * M * g;
    o.load_factor = pick(3.2, 7);
    if (s_.model)
      o.drop = 0.135 * std::pow(M, 0.23);
    else if (s_.helicopter())
      o.drop = 0.25;
    else
      o.drop = spring::drop_of_sink_speed(spring::landing_by_rule(M, o.lift.area).sink_speed);
    what_it_carries();
  }

  void field() {
    struct Ground {
      double full, model, friction, range, pressure;
    };
    const auto ground = [&]() -> Ground {
      switch (s_.field) {
        case Field::tarmac:
          return {0.010, 0.002, 0.03, 0.01, 350e3};
        case Field::indoor:
          return {0.005, 0.001, 0.03, 0.01, 350e3};
        case Field::rough:
          return {0.060, 0.009, 0.10, 0.04, 170e3};
        case Field::sand:
          return {0.040, 0.007, 0.20, 0.06, 128e3};
        case Field::turf:
        case Field::unsaid:
          break;
      }
      return {0.040, 0.007, 0.08, 0.03, 285e3};
    }();
    o.obstacle =
        s_.model ? ground.model * std::pow(M, 0.25) : ground.full * std::min(1.0, std::pow(M / 300, 0.25));
    o.friction = ground.friction;
    o.friction_range = ground.range;
    o.greatest_pressure = ground.pressure;
  }

  //! What is taken aboard; x is an offset from the CG aimed at.
  void what_it_carries() {
    const double c = o.chord;
    const double fuel_z = s_.helicopter() ? 0 : o.lift.root_z;
    if (s_.model) {
      o.loads.push_back({"flight battery", 0.17 * M, 0, -0.10 * H, 0.12 * c, 0.12 * c});
      return;
    }
    constexpr std::array<const char*, 4> names{"pilot", "passenger", "third seat", "fourth seat"};
    for (int i = 0; i < s_.seats; ++i) {
      const double at = s_.seats < 3 ? 0.03 : i < 2 ? -0.06 : 0.14;
      o.loads.push_back({names[static_cast<size_t>(i)], 80, at * c, 0, 0, 0, true});
    }
    if (s_.seats == 0) o.loads.push_back({"payload", 0.20 * M, 0, 0});
    o.loads.push_back({"fuel", (ducted() ? 0.16 : 0.09) * M, -0.02 * c, fuel_z});
    if (s_.seats > 0) o.loads.push_back({"bags", std::min(0.03 * M, 10.0 * s_.seats), 0.20 * c, 0});
  }

  void begin() {
    from_the_answers();
    o.height = 0.6 * H + o.drop / 2 + (front() ? o.propeller / 2 : 0);
    aim_ = s_.helicopter()   ? 0.50
           : s_.tail_wheel() ? (front()    ? 0.29
                                : pusher() ? 0.35
                                           : 0.40)
                             : (front()    ? 0.32
                                : pusher() ? 0.42
                                           : 0.47);
    aim_ *= L;
    o.x_cg = aim_;
    o.x_main = o.x_cg + (s_.tail_wheel() ? -0.05 : 0.05) * L;
    o.x_third = s_.tail_wheel() ? 0.955 * L : 0.1 * L;
    o.z_main = o.z_third = -0.8 * o.height;
    o.three_point = radians(12);
    o.track = 0.2 * s_.span;
    o.main_diameter = 0.06 * L;
    o.third_diameter = 0.02 * L;
    o.main_travel = pick(0.55, 0.28) * o.drop;
    o.third_travel = o.main_travel;
    o.main_squash = pick(0.05, 0.016) * o.main_diameter;
    o.third_squash = 0.02 * o.third_diameter;
    o.main_top_z = 0;
    o.hangs = Hangs::body;
    o.wing_x = o.x_cg - o.lift.mean_y * std::tan(o.lift.sweep) - 0.25 * o.chord;
    o.tail_end_z = 0;
    hang();
    // Places that start within their ranges; balance() moves them.
    fuselage_x_ = 0.46 * L;
    engine_x_ = engine_range()[0];
    equipment_x_ = (front() ? 0.24 : 0.14) * L;
  }

  //! Station usual, foremost, aftmost.
  std::array<double, 3> engine_range() const {
    if (s_.helicopter()) return {o.x_cg + 0.02 * L, o.x_cg - 0.08 * L, o.x_cg + 0.10 * L};
    if (front()) return {0.12 * L, 0.08 * L, 0.20 * L};
    if (pusher()) return {0.57 * L, 0.48 * L, 0.60 * L};
    return {0.58 * L, 0.45 * L, 0.75 * L};
  }

  double mac_leading_edge() const { return o.wing_x + o.lift.mean_y * std::tan(o.lift.sweep); }

  void weigh_items() {
    double aboard = 0;
    for (const auto& l : o.loads) aboard += l.mass;
    const double legs = s_.retractable ? 1.3 : 1;
    struct Share {
      EmptyItem item;
      double share;
    };
    std::vector<Share> shares;
    const auto add = [&](const char* name, double share, double x, double z, Group group,
                         const char* moves = "") {
      shares.push_back({{name, 0, x, z, group, moves}, share});
    };
    add("fuselage", pick(0.25, 0.28), fuselage_x_, 0, Group::airframe);
    if (s_.helicopter())
      add("rotor and gearbox", pick(0.23, 0.27), o.x_cg, 0.75 * H, Group::power);
    else
      add("wing", pick(0.23, 0.27), mac_leading_edge() + 0.42 * o.chord,
          o.lift.root_z + 0.2 * s_.span * std::tan(o.lift.dihedral), Group::airframe);
    add("tail", pick(0.045, 0.05), 0.90 * L, 0.25 * H, Group::airframe);
    const double engine_z = s_.helicopter() ? 0.45 : front() ? 0.10 : pusher() ? 0.25 : 0;
    add(s_.model ? "motor" : "engine", pick(0.25, 0.15), engine_x_, engine_z * H, Group::power);
    if (o.propeller > 0) add("propeller", pick(0.035, 0.02), o.hub_x, o.hub_z, Group::power);
    add("main legs and wheels", pick(0.08, 0.09) * legs, o.x_main, 0.7 * o.z_main, Group::gear, "main");
    if (s_.tail_wheel())
      add("tail leg and wheel", 0.012, o.x_third, o.z_third, Group::gear, "third");
    else
      add("nose leg and wheel", 0.03 * legs, o.x_third, 0.7 * o.z_third, Group::gear, "third");
    add("equipment", pick(0.08, 0.11), equipment_x_, 0.1 * H, Group::equipment);
    double sum = 0;
    for (const auto& x : shares) sum += x.share;
    o.items.clear();
    for (auto& x : shares) {
      x.item.mass = (M - aboard) * x.share / sum;
      o.items.push_back(x.item);
    }
  }

  EmptyItem& item(std::string_view name) {
    return *std::find_if(o.items.begin(), o.items.end(), [&](const EmptyItem& i) { return i.name == name; });
  }

  //! Of the all-up loading about the station aimed at: Σm·(x − x_cg).
  double moment() const {
    double sum = 0;
    for (const auto& i : o.items) sum += i.mass * (i.x - o.x_cg);
    for (const auto& l : o.loads) sum += l.mass * l.x;
    return sum;
  }

  //! Puts fuselage, engine and equipment where it balances at x_cg; what is left moves x_cg. Then the wing
  //! stands so that the middle of the flown range lies at a quarter of its chord.
  void balance() {
    o.wing_x += (aim_ - o.x_cg) / 2;
    o.x_cg += (aim_ - o.x_cg) / 2;
    engine_x_ = engine_range()[0];
    equipment_x_ = (front() ? 0.24 : 0.14) * L;
    const auto slide = [&](std::string_view name, double& place, double least, double most) {
      EmptyItem& moved = item(name);
      moved.x = place = std::clamp(moved.x - moment() / moved.mass, least, most);
    };
    const char* engine = s_.model ? "motor" : "engine";
    double with_it = 0;  // what stands relative to the CG: wing and loads
    for (int again = 0; again < 20; ++again) {
      engine_x_ = engine_range()[0];
      weigh_items();
      const auto range = engine_range();
      slide("fuselage", fuselage_x_, 0.38 * L, 0.54 * L);
      slide(engine, engine_x_, range[1], range[2]);
      slide("equipment", equipment_x_, 0.08 * L, 0.60 * L);
      const double left = moment() / M;
      if (std::abs(left) < 1e-7 * L) break;
      with_it = 0;
      for (const auto& l : o.loads) with_it += l.mass;
      with_it += item(s_.helicopter() ? "rotor and gearbox" : "wing").mass;
      const double shift = left / (1 - with_it / M);
      o.x_cg += shift;
      o.wing_x += shift;
      equipment_x_ = (front() ? 0.24 : 0.14) * L;
    }
    fly();
    double low = std::numeric_limits<double>::infinity(), high = -low;
    for (const auto& f : o.flown) {
      low = std::min({low, f.x, f.x_up});
      high = std::max({high, f.x, f.x_up});
    }
    const double middle = (low + high) / 2;
    const double wanted = middle - 0.25 * o.chord - o.lift.mean_y * std::tan(o.lift.sweep);
    o.wing_x += (wanted - o.wing_x) / 2;
    o.cg_forward = middle - 0.10 * o.chord;
    o.cg_aft = middle + 0.10 * o.chord;
  }

  //! How far the gear's masses move aft when it goes up, Σm·Δx.
  double moment_of_stowing() const {
    if (!s_.retractable) return 0;
    double sum = 0;
    for (const auto& i : o.items) {
      if (i.moves == "main" && o.hangs == Hangs::pod) sum += i.mass * (o.main_top_z - i.z);
      if (i.moves == "third" && !s_.tail_wheel())
        sum += i.mass * 0.3 * std::abs(o.z_third) * (o.nose_forward ? -1 : 1);
    }
    return sum;
  }

  void fly() {
    double empty = 0, empty_x = 0, empty_z = 0;
    for (const auto& i : o.items) {
      empty += i.mass;
      empty_x += i.mass * i.x;
      empty_z += i.mass * i.z;
    }
    const double stow = moment_of_stowing();
    o.flown.clear();
    //! With a share of each load, and the battery slid.
    const auto add = [&](auto share, double slid) {
      double mass = empty, x = empty_x, z = empty_z;
      for (const auto& l : o.loads) {
        const double m = l.mass * share(l);
        mass += m;
        x += m * (o.x_cg + l.x + (slid < 0 ? -l.front : slid > 0 ? l.back : 0));
        z += m * l.z;
      }
      o.flown.push_back({mass, x / mass, z / mass, (x + stow) / mass});
    };
    add([](const Load&) { return 1.0; }, 0);
    if (s_.model) {
      add([](const Load&) { return 1.0; }, -1);
      add([](const Load&) { return 1.0; }, 1);
    } else {
      add(
          [](const Load& l) {
            return l.name == "pilot" ? 1.0 : l.name == "payload" ? 0.5 : l.name == "fuel" ? 0.25 : 0.0;
          },
          0);
    }
  }

  double main_radius() const { return o.main_diameter / 2 - o.main_squash; }
  double third_radius() const { return o.third_diameter / 2 - o.third_squash; }
  double main_drop() const { return 0.67 * o.main_travel + main_radius() - 0.30 * o.main_diameter; }
  double third_drop() const { return 0.67 * o.third_travel + third_radius() - 0.30 * o.third_diameter; }
  //! Height of the CG in a loading, level.
  double height_of(const Flown& f) const {
    return o.height + f.z + (1 - f.mass / M) * (0.33 * o.main_travel + o.main_squash);
  }

  //! A tail wheel aircraft on all its wheels, along the ground.
  struct ThreePoint {
    double share, nose_over, half_track_for;  //!< for 0.60 g sideways
  };
  ThreePoint three_point(const Flown& f, double pitch, double x_main) const {
    const double axle_z =
        -o.height + main_radius() - (1 - f.mass / M) * (0.33 * o.main_travel + o.main_squash);
    const double sin = std::sin(pitch), cos = std::cos(pitch);
    const double behind = (f.x - x_main) * cos + (f.z - axle_z) * sin;
    const double up = main_radius() + (f.z - axle_z) * cos - (f.x - x_main) * sin;
    const double along = o.x_third - x_main;
    const double third_up =
        (third_radius() - main_radius() + along * sin) / cos;  // of its axle over the mains'
    const double base = along * cos + third_up * sin;
    const double share = behind / base;
    return {share, behind / up, 0.60 * up / (1 - share)};
  }

  void loads_and_wheels() {
    double main = 0, third = 0.03 * M * g;
    for (const auto& f : o.flown) {
      const double share = s_.tail_wheel() ? three_point(f, o.three_point, o.x_main).share
                                           : (o.x_main - f.x) / (o.x_main - o.x_third);
      main = std::max(main, (1 - share) * f.mass * g / 2);
      third = std::max(third, share * f.mass * g);
    }
    o.main_load = main;
    o.third_load = third;
    // Full size by load and by the pressure that the field bears, models by mass.
    const double shape = s_.retractable ? pick(0.32, 0.25) : pick(0.375, 0.30);
    const double squash = pick(0.25, 0.08) * 0.2;  // of the diameter
    const auto by_pressure = [&](double load) {
      return std::sqrt(load / (o.greatest_pressure * 2.3 * std::sqrt(shape) * squash));
    };
    double d =
        s_.model ? usual_model_wheel(M) * (s_.field == Field::tarmac || s_.field == Field::indoor ? 1 : 1.25)
                 : std::max(place::typical_main_wheel(main).diameter, by_pressure(main));
    o.main_diameter = found_.main_diameter.value_or(std::max(d, 6.9 * o.obstacle));
    if (s_.tail_wheel()) {
      o.third_diameter = found_.third_diameter.value_or(0.33 * o.main_diameter);
      o.third_squash = 0.02 * o.third_diameter;
    } else {
      d = 0.85 * o.main_diameter;
      if (!s_.model) d = std::max(d, by_pressure(third));
      o.third_diameter = found_.third_diameter.value_or(std::max(d, 6.9 * o.obstacle));
      o.third_squash = squash * o.third_diameter;
    }
    o.main_width = shape * o.main_diameter;
    o.third_width = shape * o.third_diameter;
    o.main_squash = squash * o.main_diameter;
    const double travel = pick(0.55, 0.28) * o.drop;
    o.main_travel = travel * std::min(1.25, M * g / 2 / main);
    o.third_travel = travel * (s_.tail_wheel() ? 0.4 : 1);
    o.main_rate = main / (0.33 * o.main_travel);
    o.third_rate = third / (0.33 * o.third_travel);
    o.main_unsprung = pick(0.016, 0.018) * M;
    o.third_unsprung = s_.tail_wheel() ? 0.004 * M : pick(0.06, 0.05) * third / g;
  }

  double wing_depth(double y) const {
    return 0.15 * (o.lift.root_chord - (o.lift.root_chord - o.lift.tip_chord) * y / (s_.span / 2));
  }

  //! What the main legs hang on, and how high.
  void hang() {
    Hangs on = Hangs::body;
    if (s_.retractable)
      on = !s_.helicopter() && !s_.tail_wheel() && s_.wing != WingPlace::high ? Hangs::wing : Hangs::pod;
    else if (!s_.helicopter() && s_.wing == WingPlace::low)
      on = Hangs::wing;
    if (s_.retractable && on == Hangs::wing) {
      const double mouth = std::max(pick(0.0025, 0.0015), 0.02 * o.main_width);
      const double well = o.main_width + 2 * wheel_growth(s_.model, o.main_diameter) + mouth +
                          1.6 * wheel_clearance(s_.model);
      if (o.passes >= 3 && well > 0.9 * wing_depth(o.track / 2)) no_room_ = true;
      if (no_room_) on = Hangs::pod;
    }
    o.hangs = on;
    if (on == Hangs::wing)
      o.main_top_z = o.lift.root_z + o.track / 2 * std::tan(o.lift.dihedral);
    else if (on == Hangs::pod)
      o.main_top_z = s_.helicopter() ? 0 : std::min(o.lift.root_z + o.main_diameter / 2, 0.10 * H);
    else
      o.main_top_z = -0.40 * H;
    // Swings back under the nose where a propeller is in the way, or where it would stick out ahead.
    const double reach = std::abs(o.z_third) + o.third_diameter / 2;
    o.nose_forward = !front() && o.x_third - reach > 0.04 * L;
  }

  void stand_high() {
    hang();
    const double R = main_radius(), S = o.main_travel;
    const double b = s_.span, t = o.track;
    double h = 0.53 * H + main_drop() + (s_.model ? 0.10 * H + 0.005 : 0.10);
    const double spare = pick(0.020, 0.008);
    const bool smooth = s_.field == Field::tarmac || s_.field == Field::indoor;
    if (o.propeller > 0) {
      const double blade = o.propeller / 2 - o.hub_z;
      h = std::max(h, blade + (s_.model ? 1.2 * (smooth ? 0.10 : 0.15) * o.propeller
                                        : 1.15 * (s_.tail_wheel() ? 0.230 : 0.180)));
      const double base = o.x_main - o.x_third;
      const double ahead = (o.x_main - o.hub_x) / base;
      h = std::max(h, blade + main_drop() + spare +
                          (s_.tail_wheel() ? 0 : std::max(0.0, (third_drop() - main_drop()) * ahead)));
      if (front() && !s_.tail_wheel()) h = std::max(h, blade + third_drop() * ahead + spare);
      if (pusher()) {
        const double pitch =
            s_.tail_wheel() ? std::max(o.lift.rotation_pitch, radians(12)) : o.lift.rotation_pitch;
        h = std::max(h, blade + (o.hub_x - o.x_main) * std::tan(pitch) + spare);
      }
    }
    if (!s_.tail_wheel() && !s_.helicopter())
      h = std::max(h, std::tan(strike()) * (tail_end_at * L - o.x_main) - 0.35 * H);
    double leg = 1.6 * S;
    if (s_.retractable && o.hangs == Hangs::wing) leg = std::max(leg, 0.75 * o.main_diameter + 0.3 * S);
    if (s_.retractable && o.hangs == Hangs::pod) leg = std::max(leg, 1.1 * o.main_diameter + 0.6 * S);
    h = std::max(h, -o.main_top_z + leg + R - 0.33 * S);
    h = std::max(h, clear_with_one_down() + spare);
    if (!s_.helicopter() && s_.wing == WingPlace::low)
      h = std::max(h, (b - t) / 2 * std::tan(radians(pick(5, 8))) - o.lift.root_z -
                          b / 2 * std::tan(o.lift.dihedral) + pick(0.050, 0.010));
    // What hangs on itself both ways (height and track by a wing tip) may swing to and fro: damped then.
    o.height = o.passes > 12 ? (h + o.height) / 2 : h;
  }

  //! Height that keeps propeller and wing tips off the ground while one main leg, or both, stand at their
  //! stops on flat tyres and the rest as it was. The ground tilts about the wheels that stay: a wheel's drop
  //! counts at a point by its share in the triangle of the contacts there.
  double clear_with_one_down() const {
    const double pitch = s_.tail_wheel() ? o.three_point : 0, R = main_radius();
    double lightest = M;
    for (const auto& f : o.flown) lightest = std::min(lightest, f.mass);
    //! Of a loading in which it stands higher by `lift`.
    const auto in_loading = [&](double lift, double x, double y, double radius, double z) {
      const double drop = main_drop() + lift;
      const double along = (x - o.x_third) / (o.x_main - o.x_third);  // 1 abeam the mains
      const double one = drop * (along / 2 + y / o.track), both = drop * along;
      const double sinks = std::max({one, both, 0.0}) + radius / 2 * (drop / o.track) * (drop / o.track);
      return (sinks + (x - o.x_main) * std::sin(pitch) - R) / std::cos(pitch) + R - z + radius - lift;
    };
    const auto wanted = [&](double x, double y, double radius, double z) {
      const double lift = (1 - lightest / M) * (0.33 * o.main_travel + o.main_squash);
      return std::max(in_loading(0, x, y, radius, z), in_loading(lift, x, y, radius, z));
    };
    double h = 0;
    if (o.propeller > 0) h = wanted(o.hub_x, 0, o.propeller / 2, o.hub_z);
    if (!s_.helicopter()) {
      const double x = o.wing_x + s_.span / 2 * std::tan(o.lift.sweep) + o.lift.tip_chord / 2;
      h = std::max(h, wanted(x, s_.span / 2, 0, o.lift.root_z + s_.span / 2 * std::tan(o.lift.dihedral)));
    }
    return h;
  }

  //! φ: the angle at the main contact at which the tail end shall touch.
  double strike() const { return 1.12 * o.lift.rotation_pitch + radians(1); }

  void place_nose_wheel() {
    double lo = *rules_.tip_back.lower, hi = *rules_.tip_back.upper, beta;
    if (s_.helicopter()) {
      o.tail_end_z = 0.15 * H;
      beta = radians(17);
    } else {
      o.tail_end_z =
          std::clamp(std::tan(strike()) * (tail_end_at * L - o.x_main) - o.height, -0.80 * H, 0.35 * H);
      const Flown* lightest = &o.flown[0];
      for (const auto& f : o.flown)
        if (f.mass < lightest->mass) lightest = &f;
      const double lifted = height_of(*lightest) - lightest->z;
      const double touches = std::atan2(lifted + o.tail_end_z, tail_end_at * L - o.x_main);
      if (touches > lo) {
        lo = touches;
        hi = std::max(hi, touches + radians(5));
      }
      beta = lo + 0.15 * (hi - lo);
    }
    const double stop = (o.propeller > 0 && front() ? o.hub_x : 0.04 * L) + o.third_diameter / 2 + 0.02 * L;
    for (;;) {
      double x_main = -std::numeric_limits<double>::infinity(), fore = -x_main, aft = x_main;
      for (const auto& f : o.flown) {
        x_main = std::max(x_main, f.x + height_of(f) * std::tan(beta));
        fore = std::min(fore, f.x);
        aft = std::max(aft, f.x);
      }
      const double base =
          front() ? (x_main - fore) / 0.14 : std::min((x_main - fore) / 0.12, (x_main - aft) / 0.09);
      o.x_main = x_main;
      const double wanted = x_main - base;
      o.x_third = std::max(wanted, stop);
      if (front()) aim_ = std::clamp(o.x_cg + stop - wanted, 0.30 * L, 0.39 * L);
      const double share = (x_main - fore) / (x_main - o.x_third);
      if (s_.helicopter() || share <= 0.19 || beta - radians(0.05) < lo + 0.05 * (hi - lo)) break;
      beta -= radians(0.05);
    }
    // Track by the worst loading's turnover angle, 0.82 of its limit.
    const double tau = 0.82 * *rules_.turnover.upper;
    double track = 0;
    for (const auto& f : o.flown) {
      const double sine = std::min(0.85, height_of(f) / std::tan(tau) / (f.x - o.x_third));
      track = std::max(track, 2 * (o.x_main - o.x_third) * std::tan(std::asin(sine)));
    }
    o.track = track;
  }

  void place_tail_wheel() {
    o.x_third = 0.955 * L;
    double theta =
        std::clamp(o.lift.stall_angle - o.lift.incidence - radians(1.5), radians(10.8), radians(13.5));
    const double lo = *rules_.axle_ahead.lower, hi = *rules_.axle_ahead.upper;
    double alpha = lo + 0.16 * (hi - lo);
    const double step = radians(0.05);
    const double limit = *rules_.nose_over_three_point.lower;
    const auto stand = [&](double a) {
      double x = std::numeric_limits<double>::infinity();
      for (const auto& f : o.flown) x = std::min(x, f.x - height_of(f) * std::tan(a));
      return x;
    };
    struct Worst {
      double share = 0, nose_over = std::numeric_limits<double>::infinity(), aftmost = 0;
    };
    const auto look = [&] {
      Worst w;
      o.x_main = stand(alpha);
      for (const auto& f : o.flown) {
        const auto t = three_point(f, theta, o.x_main);
        w.share = std::max(w.share, t.share);
        w.nose_over = std::min(w.nose_over, t.nose_over);
        w.aftmost = std::max(w.aftmost, std::atan2(f.x - o.x_main, height_of(f)));
      }
      return w;
    };
    Worst w = look();
    while (w.share > 0.145 && theta - step >= radians(10.8) && w.nose_over > 1.12 * limit) {
      theta -= step;
      w = look();
    }
    while (w.nose_over < 1.12 * limit && w.aftmost < hi - 0.08 * (hi - lo)) {
      alpha += step;
      w = look();
    }
    while (w.share > 0.195 && theta - step >= radians(10.2) && w.nose_over > 1.02 * limit) {
      theta -= step;
      w = look();
    }
    while (w.share > 0.195 && alpha - step >= lo + 0.02 * (hi - lo) && w.nose_over > 1.02 * limit) {
      alpha -= step;
      w = look();
    }
    o.three_point = theta;
    double track = 0;
    for (const auto& f : o.flown) track = std::max(track, 2 * three_point(f, theta, o.x_main).half_track_for);
    o.track = track;
  }

  void set_track() {
    double t = std::max(o.track, o.hangs == Hangs::body ? Y + o.main_diameter / 2 : Y + 2 * o.main_width);
    o.outward = false;
    if (s_.retractable && o.hangs == Hangs::wing) {
      const double stowed =
          2 * (o.main_top_z - o.z_main + o.main_diameter / 2 + wheel_growth(s_.model, o.main_diameter) +
               1.6 * wheel_clearance(s_.model) + 0.01 * Y);
      if (stowed < 0.40 * s_.span && !outward_)
        t = std::max(t, stowed);
      else if (o.passes >= 3)
        outward_ = true;
      o.outward = outward_;
    }
    o.track = std::min(t, (s_.helicopter() ? 0.75 : 0.5) * s_.span);
  }

  //! Extended axles: in the all-up loading it stands level, or on three points, with each leg's own closure.
  void set_axles() {
    const Flown& f = o.flown[0];
    const double share = s_.tail_wheel() ? three_point(f, o.three_point, o.x_main).share
                                         : (o.x_main - f.x) / (o.x_main - o.x_third);
    const double main = (1 - share) * f.mass * g / 2, third = share * f.mass * g;
    const double main_r = o.main_diameter / 2 - o.main_squash * main / o.main_load;
    const double third_r = o.third_diameter / 2 - o.third_squash * third / o.third_load;
    const double main_static = -o.height + main_r;
    o.z_main = main_static - main / o.main_rate;
    double third_static = -o.height + third_r;
    if (s_.tail_wheel())
      third_static = main_static + (third_r - main_r + (o.x_third - o.x_main) * std::sin(o.three_point)) /
                                       std::cos(o.three_point);
    o.z_third = third_static - third / o.third_rate;
    o.main_length = o.main_top_z - o.z_main;
    if (s_.tail_wheel()) o.tail_end_z = std::max(o.z_third + o.third_travel + 0.008 * L, -0.42 * H);
  }

  Settled s_;
  Found found_;
  double L, M, H = 0, Y = 0;
  PlaceRules rules_;
  double aim_ = 0, fuselage_x_ = 0, engine_x_ = 0, equipment_x_ = 0;
  bool no_room_ = false, outward_ = false;
  Sizes o{};
};

}  // namespace

double wheel_clearance(bool model) { return model ? 0.0015 : 0.006; }
double wheel_growth(bool model, double diameter) { return std::max(model ? 0.0005 : 0.003, 0.01 * diameter); }

Sizes sizes(const Settled& s, const Found& found) { return Sizing(s, found).run(); }

}  // namespace kranich::start
