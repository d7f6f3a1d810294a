// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/knobs.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <optional>

#include "core/assess/air_state.h"
#include "core/assess/door_cures.h"
#include "core/model/consistency.h"
#include "core/model/locate.h"
#include "core/model/moves.h"

namespace kranich {
namespace {

constexpr double nan = std::numeric_limits<double>::quiet_NaN();
constexpr double mm = 0.001;
const double deg = radians(1);

//! The nearest of 1, 2, 5, 10 … of its decade that is no larger: a step that a builder can measure out.
double handy(double step) {
  const double decade = std::pow(10, std::floor(std::log10(step)));
  const double of = step / decade * (1 + 1e-9);
  return decade * (of >= 5 ? 5 : of >= 2 ? 2 : 1);
}

//! How long the aircraft is between its wheels, m: what "far" means for a leg. One without two lines of legs
//! counts as long as its legs are wide apart, at least 0.1 m.
double size_of(const Design& d) {
  double size = 0.1;
  for (const auto& a : d.gear.legs)
    for (const auto& b : d.gear.legs) {
      if (a.axle.x.known() && b.axle.x.known()) size = std::max(size, std::abs(a.axle.x - b.axle.x));
      if (a.axle.y.known() && b.axle.y.known()) size = std::max(size, std::abs(a.axle.y.si + b.axle.y.si));
    }
  return size;
}

// --- what does not go by a path: several numbers that move together ---

//! Moves a step and every later one by the same time.
void delay(std::vector<Step>& steps, Action action, double by) {
  double from = std::numeric_limits<double>::infinity();
  for (const auto& s : steps)
    if (s.action == action && s.start.known()) from = std::min(from, s.start.si);
  for (auto& s : steps)
    if (s.start >= from) s.start.si = std::max(0.0, s.start.si + by);
}

//! Moves what slides aboard, the ledger's place and every loading's own.
void slide(Design& d, double by) {
  for (auto& item : d.ledger) {
    if (!item.slides) continue;
    by = in_tray(item, item.at.x + by) - item.at.x;
    item.at.x.si += by;
    for (auto& l : d.loadings)
      for (auto& a : l.aboard)
        if (a.item == item.name) a.x.si += by;
    return;
  }
}

//! What is always there, kg; 0 where nothing is known.
double empty_mass(const Design& d) {
  double mass = 0;
  for (const auto& i : d.ledger)
    if (i.group != Group::load && i.mass.known()) mass += i.mass;
  return mass;
}
//! The stations from the first to the last section of all bodies.
std::pair<double, double> held_between(const Design& d) {
  double from = std::numeric_limits<double>::infinity();
  double to = -from;
  for (const auto& b : d.airframe.bodies)
    for (const auto& s : b.sections)
      if (s.x.known()) {
        from = std::min(from, s.x.si);
        to = std::max(to, s.x.si);
      }
  return {from, to};
}

//! Where ballast can be fixed, foremost and aftmost: a twentieth in from the ends of the body; without one of
//! what the ledger places.
std::optional<std::pair<double, double>> ballast_places(const Design& d) {
  auto [from, to] = held_between(d);
  if (!(to > from))
    for (const auto& i : d.ledger)
      if (i.at.x.known()) {
        from = std::min(from, i.at.x.si);
        to = std::max(to, i.at.x.si);
      }
  if (!(to > from)) return std::nullopt;
  const double in = 0.05 * (to - from);
  return std::pair{from + in, to - in};
}
//! Adds to the ballast that lies there already, or puts a new item into the ledger, at the height of the
//! rest, aboard whenever it flies: what stood on the scales had none.
void add_ballast(Design& d, double x, double mass) {
  if (!(mass > 0)) return;
  for (auto& item : d.ledger)
    if (item.name.starts_with("ballast") && item.at.x.known() && std::abs(item.at.x - x) < 1e-6) {
      item.mass.si += mass;
      return;
    }
  Item item;
  item.name = unused_name(d.ledger, "ballast");
  item.group = Group::load;
  item.mass = Given(mass);
  double weight = 0;
  double height = 0;
  for (const auto& i : d.ledger)
    if (i.mass.known() && i.at.z.known()) {
      weight += i.mass;
      height += i.mass * i.at.z;
    }
  item.at.x = Given(x);
  item.at.y = Given(0.0);
  item.at.z = Given(weight > 0 ? height / weight : 0);
  for (auto& l : d.loadings)
    if (l.flown) {
      Aboard aboard;
      aboard.item = item.name;
      l.aboard.push_back(std::move(aboard));
    }
  d.ledger.push_back(std::move(item));
}

bool something_slides(const Design& d) {
  return std::any_of(d.ledger.begin(), d.ledger.end(), [](const Item& i) { return i.slides; });
}
bool sequenced(const Design& d) { return !d.sequence.up.empty() || !d.sequence.down.empty(); }

// --- which legs have what ---

bool any(const Leg&) { return true; }
bool steadies(const Leg& l) { return l.role != LegRole::main; }
bool beside(const Leg& l) { return l.role == LegRole::main && l.stands != LegStands::centre; }
bool can_be_bent(const Leg& l) { return beside(l) && !l.retraction.fitted && l.top.known(); }
bool has_bends(const Leg& l) { return l.retraction.fitted && !l.retraction.bends.empty(); }
//! The shank pulled out of the unit: everything below the pivot goes along it.
void longer_shank(Leg& l, double by) {
  const Vec3 way = by * (l.retraction.bends.front().at.vec() - l.held_at()).normalized();
  if (!way.allFinite()) return;
  std::vector<Point*> below{&l.axle};
  for (auto& b : l.retraction.bends) below.push_back(&b.at);
  for (Point* p : below) {
    p->x.si += way.x();
    p->y.si += way.y();
    p->z.si += way.z();
  }
}
bool retracts(const Leg& l) { return l.retraction.fitted; }
bool pushed(const Leg& l) { return l.retraction.fitted && is_strut(l.retraction.drive.kind); }
template <SpringKind kind>
bool sprung_by(const Leg& l) {
  return l.spring.kind == kind && (l.travel > 0 || kind == SpringKind::bending);
}
bool flat(const Leg& l) { return l.section == LegSection::rectangle || l.section == LegSection::streamlined; }
bool strut(const Leg& l) { return l.tubes.empty() && l.spring.kind != SpringKind::bending && !flat(l); }
bool beam(const Leg& l) { return l.tubes.empty() && l.spring.kind != SpringKind::bending && flat(l); }
bool has_stop(const Leg& l) { return l.spring.kind != SpringKind::bending; }
bool has_tubes(const Leg& l) { return !l.tubes.empty(); }
bool has_axle(const Leg& l) {
  // In a fork it is held on both sides and not checked.
  return l.axle_diameter.known() && std::abs(l.wheel_offset.known() ? l.wheel_offset.si : 0) > 1e-4;
}
bool is_plate(const Joint& j) { return j.kind == JointKind::block || j.kind == JointKind::plate; }
bool has_joints(const Leg& l) { return !l.joints.empty(); }
bool bears_on_sheet(const Leg& l) {
  return std::any_of(l.joints.begin(), l.joints.end(), [](const Joint& j) {
    return j.kind == JointKind::pin || j.kind == JointKind::fasteners;
  });
}
bool has_plates(const Leg& l) { return std::any_of(l.joints.begin(), l.joints.end(), is_plate); }
bool has_spacer(const Leg& l) { return l.spacer.known(); }
//! The rows of a joint's fasteners along u, each from end to end; a single column counts along v.
std::vector<std::vector<Fastener>> rows_of(const Joint& j) {
  std::vector<std::vector<Fastener>> rows;
  for (const auto& f : j.fasteners) {
    auto row = std::find_if(rows.begin(), rows.end(),
                            [&](const auto& r) { return std::abs(r.front().v - f.v) < 1e-4; });
    if (row == rows.end()) row = rows.insert(rows.end(), std::vector<Fastener>{});
    row->push_back(f);
  }
  if (rows.size() == j.fasteners.size() && rows.size() > 1) {
    rows.resize(1);
    rows[0] = j.fasteners;
  }
  for (auto& r : rows)
    std::sort(r.begin(), r.end(),
              [](const auto& a, const auto& b) { return a.u.si + a.v.si < b.u.si + b.v.si; });
  return rows;
}
//! Spreads more, or fewer, evenly between the ends of each row: no closer than three diameters, no less than
//! two.
void more_in_each_row(Joint& j, int by) {
  if (j.kind != JointKind::fasteners || by == 0) return;
  std::vector<Fastener> spread;
  for (const auto& row : rows_of(j)) {
    const auto count = static_cast<int>(row.size()) + by;
    const Fastener& first = row.front();
    const Fastener& last = row.back();
    const double length = std::hypot(last.u - first.u, last.v - first.v);
    if (row.size() < 2 || count < 2 || length / (count - 1) < 3 * first.diameter) return;
    for (int i = 0; i < count; ++i) {
      const double t = static_cast<double>(i) / (count - 1);
      Fastener f = first;
      f.u.si += t * (last.u - first.u);
      f.v.si += t * (last.v - first.v);
      spread.push_back(f);
    }
  }
  j.fasteners = std::move(spread);
}
//! The most that a row of the leg's fasteners holds now; 0 where there is no row of two.
double longest_row(const Leg& l) {
  size_t most = 0;
  for (const auto& j : l.joints)
    if (j.kind == JointKind::fasteners)
      for (const auto& row : rows_of(j)) most = std::max(most, row.size());
  return most >= 2 ? static_cast<double>(most) : 0;
}
bool has_rows(const Leg& l) { return longest_row(l) > 0; }
bool has_twins(const Leg& l) { return l.wheel_spacing.known(); }
bool has_air(const Leg& l) {
  return l.wheel.tyre == Tyre::pneumatic && l.wheel.pressure.known() && !l.wheel.tyre_rate.known();
}
bool turned_by_rod(const Leg& l) {
  return l.retraction.fitted && l.retraction.rod_airframe.known() && l.retraction.rod_leg.known() &&
         (l.retraction.motion == LegMotion::rod_twists || l.retraction.motion == LegMotion::lifts_and_turns);
}
//! The axle goes aft, the leg's line stays.
void axle_further_aft(Leg& l, double by) {
  l.axle.x.si += by;
  l.axle_aft = Given((l.axle_aft.known() ? l.axle_aft.si : 0) + by);
}
bool steered(const Leg& l) { return l.steering.kind != SteeringKind::none; }
bool rods_slide(const Leg& l) { return l.steering.kind == SteeringKind::sliding_rods; }
bool in_a_fork(const Leg& l) { return l.wheel.fork_gap.known(); }
template <BentForm form>
bool bends_as(const Leg& l) {
  return l.spring.kind == SpringKind::bending && l.spring.bent.form == form;
}
bool on_rings(const Leg& l) {
  return l.spring.kind == SpringKind::bending && l.spring.bent.mount.rings.known();
}
bool on_rings_or_through(const Leg& l) {
  return on_rings(l) || (l.spring.kind == SpringKind::bending && l.spring.bent.mount.through);
}
bool can_be_raked(const Leg& l) {
  return l.spring.kind != SpringKind::bending && l.path == LegPath::straight && l.tubes.empty() &&
         l.held_at().allFinite();
}
//! Turns a leg about where it is held, its foot aft.
void rake_leg(Leg& l, double by) {
  const Vec3 from = l.held_at();
  const Vec3 way = l.axle.vec() - from;
  l.axle.x.si = from.x() + std::cos(by) * way.x() - std::sin(by) * way.z();
  l.axle.z.si = from.z() + std::sin(by) * way.x() + std::cos(by) * way.z();
}
bool has_loops(const Leg& l) { return bends_as<BentForm::wire>(l) && !l.spring.bent.loops.empty(); }
bool oil_damped(const Leg& l) { return l.spring.damping_closing > 0; }

//! What of a leg a knob is named for.
enum class Noun { wheels, wheel, legs, leg, spring, coil, leaf, axle, stem };

Text noun_of(const LegLine& line, Noun noun) {
  const bool several = line.several;
  switch (noun) {
    case Noun::wheels:
      return several ? say("{} wheels", line.word) : say("{} wheel", line.word);
    case Noun::wheel:
      return say("{} wheel", line.word);
    case Noun::legs:
      return several ? say("{} legs", line.word) : say("{} leg", line.word);
    case Noun::leg:
      return say("{} leg", line.word);
    case Noun::spring:
      return several ? say("{} springs", line.word) : say("{} spring", line.word);
    case Noun::coil:
      return several ? say("{} coils", line.word) : say("{} coil", line.word);
    case Noun::leaf:
      return several ? say("{} leaves", line.word) : say("{} leaf", line.word);
    case Noun::axle:
      return several ? say("{} axles", line.word) : say("{} axle", line.word);
    case Noun::stem:
      return line.word;
  }
  return line.word;
}

//! A number that a knob turns, by its path within the leg (* for every entry of a list), and by how much of
//! the knob's own change.
struct Turn {
  const char* path;
  double by = 1;
};

//! How its step and its way follow from what is there.
enum class Scale {
  place,  //!< of the whole leg: from the aircraft's size
  part,   //!< from the part: a two-hundredth of it, at most the step given; at most half as much less, twice
          //!< more
  count,  //!< whole pieces
  angle,  //!< as given
  load,   //!< as part, and from nothing at all: then up to the way given
};

//! A knob of any leg.
struct LegKnob {
  const char* what;
  const char* more;
  const char* less;
  Noun noun;
  Kind kind;
  Scale scale;
  double step, way;  //!< the coarsest step; for places the way as a share of the aircraft's size, else SI
  bool (*fits)(const Leg&);
  std::vector<Turn> turns;
  void (*apply)(Leg&, double) = nullptr;  //!< where several numbers move together
  Vec3 shift{0, 0, 0};  //!< where both are empty: the whole leg goes that way, with what hangs on it
};

const std::vector<LegKnob>& leg_knobs() {
  using N = Noun;
  using S = Scale;
  using K = Kind;
  // A knob is two lines: what it is called, and what it turns.
  // clang-format off
  static const std::vector<LegKnob> list{
      {"station", "{} aft by {}", "{} forward by {}",
       N::wheels, K::length, S::place, mm, 0.4, any, {}, nullptr, {1, 0, 0}},
      {"side", "each {} outboard by {}", "each {} inboard by {}",
       N::wheel, K::length, S::place, mm, 0.3, beside, {}, nullptr, {0, 1, 0}},
      {"bend", "{} bent out by {}", "{} bent in by {}",
       N::legs, K::angle, S::angle, 0.5 * deg, 30 * deg, can_be_bent, {}, bend_leg_out},
      {"length", "{} longer by {}", "{} shorter by {}",
       N::legs, K::length, S::place, mm, 0.25, any, {}, lengthen_leg},
      {"shim", "shim under the {}: {}", "{} let in by {}",
       N::legs, K::length, S::place, mm, 0.15, steadies, {}, nullptr, {0, 0, -1}},
      {"wheel", "{} larger by {}", "{} smaller by {}",
       N::wheels, K::length, S::part, mm, 0, any, {{"wheel/diameter_m"}, {"wheel/flat_radius_m", 0.5}}},
      {"spacing", "{}: the two of an axle further apart by {}", "{}: the two of an axle closer by {}",
       N::wheels, K::length, S::part, mm, 0, has_twins, {{"wheel_spacing_m"}}},
      {"pressure", "{}: pressure up by {}", "{}: pressure down by {}",
       N::wheels, K::pressure, S::part, 5e3, 0, has_air, {{"wheel/pressure_Pa"}}},
      {"fork", "{}: fork or leg further from the tyre by {}", "{}: fork or leg closer to the tyre by {}",
       N::wheels, K::length, S::load, 0.5 * mm, 0.02, in_a_fork, {{"wheel/fork_gap_m"}}},
      {"fork_inside", "fork of the {} wider inside by {}", "fork of the {} narrower inside by {}",
       N::wheels, K::length, S::part, 0.5 * mm, 0, any, {{"wheel/fork_inside_m"}}},
      {"axle_aft", "axle of the {} further behind its line by {}", "axle of the {} less far behind its line by {}",
       N::legs, K::length, S::place, mm, 0.1, steered, {}, axle_further_aft},
      {"servo_x", "steering servo of the {} aft by {}", "steering servo of the {} forward by {}",
       N::legs, K::length, S::place, mm, 0.1, steered, {{"steering/servo_low/x_m"}, {"steering/servo_high/x_m"}}},
      {"servo_z", "steering servo of the {} higher by {}", "steering servo of the {} lower by {}",
       N::legs, K::length, S::place, mm, 0.1, steered, {{"steering/servo_low/z_m"}, {"steering/servo_high/z_m"}}},
      {"unit_stiffness", "unit of the {} stiffer by {}", "unit of the {} less stiff by {}",
       N::legs, K::torsion_rate, S::part, 0, 0, retracts, {{"retraction/unit/flex_N_m_per_rad"}}},
      {"hook_x", "hook of the {} aft by {}", "hook of the {} forward by {}",
       N::legs, K::length, S::place, mm, 0.1, retracts, {{"retraction/uplock/hook/x_m"}}},
      {"hook_y", "hook of the {} outboard by {}", "hook of the {} inboard by {}",
       N::legs, K::length, S::place, mm, 0.1, retracts, {{"retraction/uplock/hook/y_m"}}},
      {"hook_z", "hook of the {} higher by {}", "hook of the {} lower by {}",
       N::legs, K::length, S::place, mm, 0.1, retracts, {{"retraction/uplock/hook/z_m"}}},
      {"spacer", "spacer of the {} thicker by {}", "spacer of the {} thinner by {}",
       N::axle, K::length, S::load, 0.5 * mm, 0.05, has_spacer, {{"spacer_m"}}},
      {"charge", "more charge in the {}, by {}", "less charge in the {}, by {}",
       N::legs, K::pressure, S::part, 5e3, 0, sprung_by<SpringKind::gas>, {{"spring/gas/pressure_absolute_Pa"}}},
      {"rate", "{} stiffer by {}", "{} softer by {}",
       N::spring, K::stiffness, S::part, 0, 0, sprung_by<SpringKind::linear>, {{"spring/rate_N_per_m"}}},
      {"leaf", "{} stiffer by {}", "{} softer by {}",
       N::leaf, K::torsion_rate, S::part, 0, 0, sprung_by<SpringKind::leaf>, {{"spring/leaf/torsion_rate_N_m_per_rad"}}},
      {"strands", "{}: more strands of cord, by {}", "{}: fewer strands of cord, by {}",
       N::legs, K::factor, S::count, 2, 0, sprung_by<SpringKind::cord>, {{"spring/cord/strands"}}},
      {"cord_length", "cord of the {} longer, unstretched, by {}", "cord of the {} shorter, unstretched, by {}",
       N::legs, K::length, S::part, mm, 0, sprung_by<SpringKind::cord>, {{"spring/cord/free_length_m"}}},
      {"pucks", "{}: more discs in the stack, by {}", "{}: fewer discs in the stack, by {}",
       N::legs, K::factor, S::count, 1, 0, sprung_by<SpringKind::pucks>, {}, [](Leg& l, double v) {
         Pucks& p = l.spring.pucks;
         const double before = p.count;
         p.count.si += v;
         p.assembled_length.si *= p.count / before;
       }},
      {"preload", "{} preloaded more by {}", "{} preloaded less by {}",
       N::spring, K::force, S::load, 0, 0, sprung_by<SpringKind::linear>, {{"spring/preload_N"}}},
      {"coil_length", "{} longer when installed by {}", "{} preloaded more by {}",
       N::coil, K::length, S::part, 0.5 * mm, 0, sprung_by<SpringKind::coil>, {{"spring/coil/installed_length_m"}}},
      {"wire", "{} of thicker wire by {}", "{} of thinner wire by {}",
       N::coil, K::length, S::part, 0.1 * mm, 0, sprung_by<SpringKind::coil>, {{"spring/coil/wire_diameter_m"}}},
      {"turns", "{} of more turns by {}", "{} of fewer turns by {}",
       N::coil, K::factor, S::count, 0.5, 0, sprung_by<SpringKind::coil>, {{"spring/coil/active_turns"}, {"spring/coil/total_turns"}}},
      {"travel", "travel of the {} longer by {}", "travel of the {} shorter by {}",
       N::legs, K::length, S::part, mm, 0, has_stop, {{"travel_m"}}},
      {"damping", "{} damped more, closing, by {}", "{} damped less, closing, by {}",
       N::legs, K::damping, S::part, 0, 0, oil_damped, {{"spring/damping_closing_N_s_per_m"}}},
      {"unit_angle", "{} unit angle more by {}", "{} unit angle less by {}",
       N::stem, K::angle, S::angle, 0.1 * deg, 30 * deg, retracts, {{"retraction/unit_angle_deg"}}},
      {"steer_angle", "{} steered further by {}", "{} steered less far by {}",
       N::legs, K::angle, S::angle, 0.5 * deg, 60 * deg, steered, {{"steering/angle_deg"}}},
      {"steer_slide", "{}: steering rod slips further by {}", "{}: steering rod slips less far by {}",
       N::legs, K::length, S::place, 0.5 * mm, 0.1, rods_slide, {{"steering/slide_m"}}},
      {"steer_torque", "{}: steering servo stronger by {}", "{}: steering servo weaker by {}",
       N::legs, K::moment, S::part, 0, 0, steered, {{"steering/servo_torque_N_m"}}},
      {"steer_arm", "{}: arm of the steering servo longer by {}", "{}: arm of the steering servo shorter by {}",
       N::legs, K::length, S::part, 0.1 * mm, 0, steered, {{"steering/servo_arm_m"}}},
      {"steer_rod_x", "{}: steering rod's end on the airframe aft by {}", "{}: steering rod's end on the airframe forward by {}",
       N::legs, K::length, S::place, mm, 0.1, steered, {{"steering/rod_airframe/x_m"}}},
      {"steer_rod_y", "{}: steering rod's end on the airframe to starboard by {}", "{}: steering rod's end on the airframe to port by {}",
       N::legs, K::length, S::place, mm, 0.1, steered, {{"steering/rod_airframe/y_m"}}},
      {"steer_rod_z", "{}: steering rod's end on the airframe higher by {}", "{}: steering rod's end on the airframe lower by {}",
       N::legs, K::length, S::place, mm, 0.1, steered, {{"steering/rod_airframe/z_m"}}},
      {"turn_rod_x", "{}: fixed end of the turning rod aft by {}", "{}: fixed end of the turning rod forward by {}",
       N::legs, K::length, S::place, 0.5 * mm, 0.1, turned_by_rod, {{"retraction/rod_airframe/x_m"}}},
      {"turn_rod_y", "{}: fixed end of the turning rod outboard by {}", "{}: fixed end of the turning rod inboard by {}",
       N::legs, K::length, S::place, 0.5 * mm, 0.1, turned_by_rod, {{"retraction/rod_airframe/y_m"}}},
      {"turn_rod_z", "{}: fixed end of the turning rod higher by {}", "{}: fixed end of the turning rod lower by {}",
       N::legs, K::length, S::place, 0.5 * mm, 0.1, turned_by_rod, {{"retraction/rod_airframe/z_m"}}},
      {"pivot_side", "pivot of the {} outboard by {}", "pivot of the {} inboard by {}",
       N::legs, K::length, S::place, mm, 0.1, retracts, {{"retraction/pivot/y_m"}}},
      {"pivot_up", "pivot of the {} higher by {}", "pivot of the {} lower by {}",
       N::legs, K::length, S::place, mm, 0.1, retracts, {{"retraction/pivot/z_m"}}},
      {"shank", "first bend of the {} further down by {}", "first bend of the {} further up by {}",
       N::legs, K::length, S::place, 0.5 * mm, 0.05, has_bends, {}, longer_shank},
      {"unit_bore", "unit of the {} drilled out by {}", "unit of the {} bushed down by {}",
       N::legs, K::length, S::part, 0.05 * mm, 0, retracts, {{"retraction/unit/bore_m"}}},
      {"rod_diameter", "push rod of the {} thicker by {}", "push rod of the {} thinner by {}",
       N::legs, K::length, S::part, 0.1 * mm, 0, retracts, {{"retraction/drive/rod_diameter_m"}}},
      {"mount_tilt", "{} mount tilted up by {}", "{} mount tilted down by {}",
       N::stem, K::angle, S::angle, 0.1 * deg, 20 * deg, retracts, {{"retraction/mount_tilt_deg"}}},
      {"leg_wall", "wall of the {} thicker by {}", "wall of the {} thinner by {}",
       N::legs, K::length, S::part, 0.1 * mm, 0, strut, {{"tube_wall_m"}}},
      {"leg_diameter", "{} thicker by {}", "{} thinner by {}",
       N::legs, K::length, S::part, 0.5 * mm, 0, strut, {{"tube_diameter_m"}}},
      {"leg_thickness", "{} thicker by {}", "{} thinner by {}",
       N::legs, K::length, S::part, 0.5 * mm, 0, beam, {{"section_thickness_m"}}},
      {"leg_width", "{} wider, fore and aft, by {}", "{} narrower, fore and aft, by {}",
       N::legs, K::length, S::part, mm, 0, beam, {{"section_width_m"}}},
      {"tubes", "every tube of the {} thicker by {}", "every tube of the {} thinner by {}",
       N::legs, K::length, S::part, mm, 0, has_tubes, {{"tubes/*/diameter_m"}}},
      {"tube_walls", "every tube of the {} of thicker wall by {}", "every tube of the {} of thinner wall by {}",
       N::legs, K::length, S::part, 0.1 * mm, 0, has_tubes, {{"tubes/*/wall_m"}}},
      {"axle", "{} thicker by {}", "{} thinner by {}",
       N::axle, K::length, S::part, 0.5 * mm, 0, has_axle, {{"axle_diameter_m"}}},
      {"bent", "wire or leaf of the {} thicker by {}", "wire or leaf of the {} thinner by {}",
       N::legs, K::length, S::part, 0.1 * mm, 0, sprung_by<SpringKind::bending>, {{"spring/bent/wire_diameter_m"}, {"spring/bent/line/*/thickness_m"}}},
      {"bent_width", "leaf of the {} wider by {}", "leaf of the {} narrower by {}",
       N::legs, K::length, S::part, mm, 0, bends_as<BentForm::leaf>, {{"spring/bent/line/*/width_m"}}},
      {"plies", "{} of more plies, by {}", "{} of fewer plies, by {}",
       N::legs, K::factor, S::count, 1, 0, bends_as<BentForm::bow>, {{"spring/bent/plies"}}},
      {"loops", "loops of the {} of more turns, by {}", "loops of the {} of fewer turns, by {}",
       N::legs, K::factor, S::count, 1, 0, has_loops, {{"spring/bent/loops/*/turns"}}},
      {"helper", "spring wire across the {} stiffer by {}", "spring wire across the {} softer by {}",
       N::legs, K::stiffness, S::load, 0, 0, bends_as<BentForm::leaf>, {{"spring/bent/cross_wire_rate_N_per_m"}}},
      {"cross_wire", "spring wire across the {} thicker by {}", "spring wire across the {} thinner by {}",
       N::legs, K::length, S::part, 0.1 * mm, 0, bends_as<BentForm::leaf>, {{"spring/bent/cross_wire/diameter_m"}}},
      {"cross_rise", "arch of the wire across the {} higher by {}", "arch of the wire across the {} lower by {}",
       N::legs, K::length, S::part, mm, 0, bends_as<BentForm::leaf>, {{"spring/bent/cross_wire/rise_m"}}},
      {"slot", "rings of the {} pressed less, slot higher by {}", "rings of the {} pressed more, slot lower by {}",
       N::legs, K::length, S::part, 0.5 * mm, 0, on_rings, {{"spring/bent/mount/slot_m"}}},
      {"gap", "more room about the middle of the {}, by {}", "less room about the middle of the {}, by {}",
       N::legs, K::length, S::load, 0.5 * mm, 0.03, on_rings_or_through, {{"spring/bent/mount/gap_above_m"}, {"spring/bent/mount/gap_below_m"}}},
      {"mount_bore", "hole for the wire of the {} drilled out by {}", "hole for the wire of the {} bushed down by {}",
       N::legs, K::length, S::part, 0.05 * mm, 0, bends_as<BentForm::wire>, {{"spring/bent/mount_bore_m"}}},
      {"outer_tube", "outer tube of the {} longer by {}", "outer tube of the {} shorter by {}",
       N::legs, K::length, S::part, mm, 0, any, {{"spring/telescope/outer_length_m"}}},
      {"inner_tube", "inner tube of the {} longer by {}", "inner tube of the {} shorter by {}",
       N::legs, K::length, S::part, mm, 0, any, {{"spring/telescope/inner_length_m"}}},
      {"inner_bore", "inner tube of the {} bored out by less, wall thicker by {}", "inner tube of the {} bored out, wall thinner by {}",
       N::legs, K::length, S::part, 0.1 * mm, 0, any, {{"spring/telescope/inner_wall_m"}}},
      {"outer_bore", "outer tube of the {} of thicker wall by {}", "outer tube of the {} honed out, wall thinner by {}",
       N::legs, K::length, S::part, 0.05 * mm, 0, any, {{"spring/telescope/outer_wall_m"}}},
      {"plug", "lower end of the {} left solid for longer, by {}", "lower end of the {} bored deeper by {}",
       N::legs, K::length, S::part, mm, 0, any, {{"spring/telescope/plugged_m"}}},
      {"thread", "thread of the {} deeper by {}", "thread of the {} less deep by {}",
       N::legs, K::length, S::part, 0.5 * mm, 0, any, {{"spring/telescope/thread_depth_m"}}},
      {"rake", "wedge under the {}: foot aft by {}", "wedge under the {}: foot forward by {}",
       N::legs, K::angle, S::angle, 0.5 * deg, 20 * deg, can_be_raked, {}, rake_leg},
      {"box_depth", "box over the mount of the {} deeper by {}", "box over the mount of the {} shallower by {}",
       N::legs, K::length, S::part, mm, 0, has_plates, {{"joints/*/box_depth_m"}}},
      {"plate_thickness", "mount plate of the {} thicker by {}", "mount plate of the {} thinner by {}",
       N::legs, K::length, S::part, 0.5 * mm, 0, has_plates, {{"joints/*/thickness_m"}}},
      {"cheeks", "side cheeks of the {} higher by {}", "side cheeks of the {} lower by {}",
       N::legs, K::length, S::part, mm, 0, has_plates, {{"joints/*/cheeks_m"}}},
      {"drive_end_x", "airframe end of the {}' drive aft by {}", "airframe end of the {}' drive forward by {}",
       N::legs, K::length, S::place, mm, 0.1, pushed, {{"retraction/drive/on_airframe/x_m"}}},
      {"drive_end_y", "airframe end of the {}' drive outboard by {}", "airframe end of the {}' drive inboard by {}",
       N::legs, K::length, S::place, mm, 0.1, pushed, {{"retraction/drive/on_airframe/y_m"}}},
      {"drive_end_z", "airframe end of the {}' drive up by {}", "airframe end of the {}' drive down by {}",
       N::legs, K::length, S::place, mm, 0.1, pushed, {{"retraction/drive/on_airframe/z_m"}}},
      {"drive_force", "stronger actuator of the {}, by {}", "weaker actuator of the {}, by {}",
       N::legs, K::force, S::part, 0, 0, retracts, {{"retraction/drive/force_N"}}},
      {"drive_stroke", "actuator of the {} with more stroke, by {}", "actuator of the {} with less stroke, by {}",
       N::legs, K::length, S::part, mm, 0, retracts, {{"retraction/drive/stroke_m"}}},
      {"drive_speed", "actuator of the {} faster by {}", "actuator of the {} slower by {}",
       N::legs, K::speed, S::part, 0, 0, retracts, {{"retraction/drive/speed_m_per_s"}}},
      {"drive_bore", "cylinder of the {} of wider bore by {}", "cylinder of the {} of narrower bore by {}",
       N::legs, K::length, S::part, mm, 0, retracts, {{"retraction/drive/bore_m"}}},
      {"drive_rod", "rod of the {}' cylinder thicker by {}", "rod of the {}' cylinder thinner by {}",
       N::legs, K::length, S::part, mm, 0, retracts, {{"retraction/drive/rod_m"}}},
      {"drive_flow", "pump for the {} gives more, by {}", "pump for the {} gives less, by {}",
       N::legs, K::flow, S::part, 0, 0, retracts, {{"retraction/drive/flow_m3_per_s"}}},
      {"drive_gearbox", "gearbox of the {} slower, by {}", "gearbox of the {} faster, by {}",
       N::legs, K::factor, S::part, 0, 0, retracts, {{"retraction/drive/gearbox"}}},
      {"drive_servo", "servo or motor of the {} stronger, by {}", "servo or motor of the {} weaker, by {}",
       N::legs, K::moment, S::part, 0, 0, retracts, {{"retraction/drive/stall_torque_N_m"}}},
      {"servo_arm", "unit's arm of the {} longer by {}", "unit's arm of the {} shorter by {}",
       N::legs, K::length, S::part, 0.5 * mm, 0, retracts, {{"retraction/drive/unit_arm_m"}}},
      {"down_spring", "down-spring of the {} stronger by {}", "down-spring of the {} weaker by {}",
       N::legs, K::force, S::part, 0, 0, retracts, {{"retraction/drive/down_spring/extended_force_N"}}},
      {"spread", "slower one of the {} slower by {} of the time", "slower one of the {} quicker by {} of the time",
       N::legs, K::factor, S::part, 0.05, 0, retracts, {{"retraction/slowest_factor"}}},
      {"hook", "hook of the {} stronger by {}", "hook of the {} weaker by {}",
       N::legs, K::force, S::part, 0, 0, retracts, {{"retraction/uplock/holds_N"}}},
      {"lock_spring", "lock spring of the {}' brace stronger by {}", "lock spring of the {}' brace weaker by {}",
       N::legs, K::moment, S::part, 0, 0, retracts, {{"retraction/brace/lock_spring_N_m"}}},
      {"brace_link", "brace's link at the {} longer by {}", "brace's link at the {} shorter by {}",
       N::legs, K::length, S::part, 0.1 * mm, 0, retracts, {{"retraction/brace/at_leg_m"}}},
      {"notch_low", "notch for the {} lower by {}", "notch for the {} higher by {}",
       N::legs, K::length, S::part, mm, 0, any, {{"cradle/below_m"}}},
      {"notch_edge", "edge that the {} bear on thicker by {}", "edge that the {} bear on thinner by {}",
       N::legs, K::length, S::part, 0.5 * mm, 0, any, {{"cradle/thickness_m"}}},
      {"fasteners", "pins and bolts of the {} thicker by {}", "pins and bolts of the {} thinner by {}",
       N::legs, K::length, S::part, 0.5 * mm, 0, has_joints, {{"joints/*/diameter_m"}, {"joints/*/fasteners/*/diameter_m"}}},
      {"fastener_count", "{}: more fasteners in each row, by {}", "{}: fewer fasteners in each row, by {}",
       N::legs, K::factor, S::count, 1, 0, has_rows, {}, [](Leg& l, double v) {
         for (auto& j : l.joints) more_in_each_row(j, static_cast<int>(std::lround(v)));
       }},
      {"bearing", "sheet or lugs at the {} thicker by {}", "sheet or lugs at the {} thinner by {}",
       N::legs, K::length, S::part, 0.5 * mm, 0, bears_on_sheet, {{"joints/*/inner_thickness_m"}, {"joints/*/outer_thickness_m"}}},
      {"plate", "plates and blocks of the {} longer by {}", "plates and blocks of the {} shorter by {}",
       N::legs, K::length, S::part, mm, 0, has_plates, {{"joints/*/length_m"}}},
      {"plate_width", "plates and blocks of the {} wider by {}", "plates and blocks of the {} narrower by {}",
       N::legs, K::length, S::part, mm, 0, has_plates, {{"joints/*/width_m"}}},
  };
  // clang-format on
  return list;
}

//! The numbers that a path with stars stands for.
void spread(const Design& d, const std::string& path, double by,
            std::vector<std::pair<std::string, double>>& found) {
  const size_t star = path.find("/*/");
  if (star == std::string::npos) {
    if (const auto g = given_at(d, path); g && g->known()) found.emplace_back(path, by);
    return;
  }
  const size_t count = list_size_at(d, path.substr(0, star)).value_or(0);
  for (size_t i = 0; i < count; ++i)
    spread(d, path.substr(0, star) + "/" + std::to_string(i) + path.substr(star + 2), by, found);
}

using Turned = std::vector<std::pair<std::string, double>>;

//! Keeps a knob within what the description allows of every number it turns.
void hold_to_description(const Design& d, const Turned& turned, Knob& knob) {
  for (const auto& [path, by] : turned) {
    const auto spec = spec_at(d, path);
    const double value = value_at(d, path);
    const double at_least = spec->above_least ? spec->least + 1e-3 * (value - spec->least) : spec->least;
    knob.least = std::max(knob.least, (at_least - value) / by);
    knob.most = std::min(knob.most, (spec->most - value) / by);
  }
}

//! The same for one that moves several numbers together: its ends are drawn in until a file would hold them.
void hold_to_file(const Design& d, Knob& knob) {
  for (double* end : {&knob.least, &knob.most})
    for (int i = 0; i < 12; ++i, *end *= 0.8) {
      Design turned = d;
      knob.apply(turned, *end);
      if (inconsistencies(turned).empty()) break;
    }
}

//! A knob of a line of legs; nothing where it has nothing to turn.
std::optional<Knob> knob_of(const Design& d, const LegKnob& k, const LegLine& line, double size) {
  Knob knob{line.ids[0] + "." + k.what,
            k.more,
            k.less,
            noun_of(line, k.noun),
            k.kind,
            k.step,
            -k.way,
            k.way,
            nan,
            1,
            {}};
  Turned turned;
  for (const auto& id : line.ids)
    for (const Turn& t : k.turns) spread(d, "/gear/legs/" + id + "/" + t.path, t.by, turned);
  double there = std::numeric_limits<double>::infinity();  // the least of what it turns
  for (const auto& [path, by] : turned) there = std::min(there, value_at(d, path) / by);
  if (!k.turns.empty() && turned.empty()) return std::nullopt;
  if (k.scale == Scale::count && k.apply) {
    const Leg& leg = d.gear.legs[line.rows[0]];
    there = has_rows(leg) && knob.what() == "fastener_count" ? longest_row(leg) : leg.spring.pucks.count.si;
  }

  const auto step_for = [&](double of) {
    const double fine = handy(of / 200);
    return k.step > 0 && k.kind == Kind::length ? std::clamp(fine, 0.1 * k.step, k.step) : fine;
  };
  switch (k.scale) {
    case Scale::place:
      knob.step = std::clamp(handy(size / 500), 0.1 * mm, k.step);
      knob.most = std::min(0.6, k.way * size);
      knob.least = -knob.most;
      break;
    case Scale::load:
      if (!(there > 0)) {
        // From nothing: a preload up to what the spring carries at its stop, else the way given.
        const Leg& leg = d.gear.legs[line.rows[0]];
        const double rate = leg.spring.rate.known() ? leg.spring.rate.si : 1000;
        const double travel = leg.travel > 0 ? leg.travel.si : 0.05;
        knob.most = k.way > 0 ? k.way : k.kind == Kind::force ? rate * travel : 1e4;
        knob.step = k.step > 0 ? k.step : handy(knob.most / 500);
        knob.least = 0;
        break;
      }
      [[fallthrough]];
    case Scale::part:
      if (!(there > 0) || !std::isfinite(there)) return std::nullopt;
      knob.there = there;
      knob.step = step_for(there);
      knob.least = -0.7 * there;
      knob.most = 2 * there;
      break;
    case Scale::count:
      if (!(there > 0) || !std::isfinite(there)) return std::nullopt;
      knob.there = there;
      knob.least = -std::floor(0.7 * there / k.step) * k.step;
      knob.most = std::max(2 * k.step, 2 * there);
      break;
    case Scale::angle:
      break;
  }
  hold_to_description(d, turned, knob);
  if (!turned.empty())
    knob.apply = [turned](Design& x, double v) {
      for (const auto& [path, by] : turned)
        if (auto at = locate_given(x, path)) at->given->si += by * v;
    };
  else if (k.apply) {
    knob.apply = [ids = line.ids, change = k.apply](Design& x, double v) {
      for (const auto& id : ids)
        if (Leg* leg = x.gear.find(id)) change(*leg, v);
    };
    hold_to_file(d, knob);
  } else
    knob.apply = [rows = line.rows, way = k.shift](Design& x, double v) {
      shift_legs(x, rows, v * way.x(), v * way.y(), v * way.z());
    };
  if (!(knob.most - knob.least > knob.step)) return std::nullopt;
  return knob;
}

}  // namespace

KnobRef one_choice(std::string id, Text words, std::function<void(Design&)> take) {
  Knob knob;
  knob.id = std::move(id);
  knob.most = 10;  // taking it counts for about a tenth of a number's whole way
  knob.there = nan;
  knob.choices = {std::move(words)};
  knob.apply = [take = std::move(take)](Design& d, double v) {
    if (std::lround(v) == 1) take(d);
  };
  return std::make_shared<Knob>(std::move(knob));
}

Text Knob::named() const {
  return noun.empty() ? sentence(more, {Text("…")}) : sentence(more, {noun, Text("…")});
}

Text Knob::worded(double change) const {
  if (!choices.empty()) {
    const auto i = static_cast<size_t>(std::lround(change));
    return i >= 1 && i <= choices.size() ? choices[i - 1] : Text();
  }
  const char* words = change > 0 ? more : less;
  const Text amount =
      kind == Kind::factor ? Text(shortest(std::abs(change))) : Text(Amount{std::abs(change), kind});
  Text text = noun.empty() ? sentence(words, {amount}) : sentence(words, {noun, amount});
  if (std::abs(change) > 0.5 * there)
    text = say("{} (more than half of what is there: another part)", std::move(text));
  return text;
}

std::vector<KnobRef> knobs(const Design& d) {
  std::vector<KnobRef> list;
  const auto lines = leg_lines(d);
  const double size = size_of(d);
  for (const LegKnob& k : leg_knobs())
    for (const LegLine& line : lines)
      if (k.fits(d.gear.legs[line.rows[0]]))
        if (auto knob = knob_of(d, k, line, size)) list.push_back(std::make_shared<Knob>(std::move(*knob)));
  for (const Leg& leg : d.gear.legs)
    for (size_t i = 0; i < leg.fits.size(); ++i) {
      const Fit& fit = leg.fits[i];
      if (!fit.pin.known() || !fit.bore.known()) continue;
      list.push_back(std::make_shared<Knob>(
          Knob{leg.id + ".fit" + std::to_string(i + 1), "{}: bore drilled or reamed out by {}",
               "{}: bore bushed down by {}", Text(fit.name), Kind::length, 5e-5, -0.7 * fit.bore,
               0.7 * fit.bore, fit.bore.si, 1, [id = leg.id, i](Design& x, double v) {
                 if (Leg* l = x.gear.find(id)) l->fits[i].bore.si += v;
               }}));
    }
  for (KnobRef& k : door_knobs(d)) list.push_back(std::move(k));
  const auto whole = [&](const char* id, const char* more, const char* less, Kind kind, double step,
                         double way, std::function<void(Design&, double)> apply, bool wavers = false) {
    list.push_back(std::make_shared<Knob>(
        Knob{id, more, less, {}, kind, step, -way, way, nan, 1, std::move(apply), wavers}));
  };
  for (size_t i = 0; i < d.airframe.accesses.size(); ++i) {
    // On its way it may pass one thing after another: searched piece by piece.
    const auto goes = [&](const char* id, const char* more, const char* less, Given Access::*way) {
      whole(
          id, more, less, Kind::length, mm, 0.5,
          [i, way](Design& x, double v) { (x.airframe.accesses[i].*way).si += v; }, true);
    };
    goes("access.access_way_x", "it goes out further aft by {}", "it goes out further forward by {}",
         &Access::way_x);
    goes("access.access_way_z", "it goes out higher by {}", "it goes out lower by {}", &Access::way_z);
  }
  if (moved_by_air(d)) {
    // Cycles are whole: searched piece by piece. Never filled beyond nine tenths of what the weakest part is
    // rated for.
    const AirSupply& a = d.circuit.air;
    const auto air = [&](const char* id, const char* more, const char* less, Kind kind,
                         Given AirSupply::*number, double most) {
      const double there = a.*number;
      if (!(there > 0)) return;
      list.push_back(
          std::make_shared<Knob>(Knob{id,
                                      more,
                                      less,
                                      {},
                                      kind,
                                      handy(there / 50),
                                      -0.7 * there,
                                      std::max(0.0, most - there),
                                      there,
                                      1,
                                      [number](Design& x, double v) { (x.circuit.air.*number).si += v; },
                                      true}));
    };
    const double filled = a.rated.known() ? 0.9 * a.rated : 1.25 * a.filled;
    air("air.bottle", "bottle larger by {}", "bottle smaller by {}", Kind::volume, &AirSupply::bottle,
        std::min(0.1, 8 * a.bottle));
    air("air.filled", "bottle filled higher by {}", "bottle filled lower by {}", Kind::pressure,
        &AirSupply::filled, filled);
    air("air.regulated", "regulator set higher by {}", "regulator set lower by {}", Kind::pressure,
        &AirSupply::regulated, a.filled);
  }
  if (d.mixing.working_time.known() && d.mixing.working_time > 0)
    list.push_back(std::make_shared<Knob>(Knob{"leg.working_time",
                                               "a resin that can be worked longer by {}",
                                               "a resin that can be worked less long by {}",
                                               {},
                                               Kind::time,
                                               60,
                                               -0.7 * d.mixing.working_time,
                                               3 * d.mixing.working_time,
                                               d.mixing.working_time.si,
                                               1,
                                               [](Design& x, double v) { x.mixing.working_time.si += v; },
                                               true}));
  if (something_slides(d))
    whole("weigh.slide", "what slides aboard, aft by {}", "what slides aboard, forward by {}", Kind::length,
          std::clamp(handy(size / 500), 0.1 * mm, mm), 0.4, slide);
  if (const auto places = ballast_places(d)) {
    const double most = 0.15 * empty_mass(d);
    const double step = handy(most / 100);
    const auto ballast = [&](const char* id, const char* words, double x) {
      list.push_back(std::make_shared<Knob>(
          Knob{id, words, words, {}, Kind::mass, step, 0, most, nan, 4, [x](Design& c, double v) {
                 add_ballast(c, x, v);
               }}));
    };
    if (most > 2 * step) {
      ballast("weigh.ballast_nose", "ballast of {} in the nose", places->first);
      ballast("weigh.ballast_tail", "ballast of {} in the tail", places->second);
    }
  }
  if (sequenced(d)) {
    const auto later = [&](const char* id, const char* more, const char* less, bool up, Action action) {
      whole(id, more, less, Kind::time, 0.1, 30,
            [up, action](Design& x, double v) { delay(up ? x.sequence.up : x.sequence.down, action, v); });
    };
    later("sequence.legs_later", "legs raised later by {}", "legs raised earlier by {}", true, Action::raise);
    later("sequence.doors_close_later", "doors close later by {}", "doors close earlier by {}", true,
          Action::close);
    later("sequence.legs_lowered_later", "legs lowered later by {}", "legs lowered earlier by {}", false,
          Action::lower);
    later("sequence.doors_close_later_down", "doors close later, going down, by {}",
          "doors close earlier, going down, by {}", false, Action::close);
  }
  return list;
}

namespace {
//! Of several of a kind, "fit2": "fit".
std::string_view kind_of(std::string_view what) {
  while (!what.empty() && what.back() >= '0' && what.back() <= '9') what.remove_suffix(1);
  return what;
}
}  // namespace

std::vector<KnobRef> knobs_for(const Design& d, std::string_view id) {
  using Words = std::vector<std::string_view>;
  static const std::vector<std::pair<std::string_view, Words>> moves{
      {"weigh.", {"slide", "ballast_nose", "ballast_tail"}},
      {"stance.upright", {"station", "length", "slide", "ballast_nose", "ballast_tail"}},
      {"stance.ballast", {"station", "length", "slide", "ballast_nose", "ballast_tail"}},
      {"place.twin_", {"spacing", "wheel", "pressure"}},
      {"place.fork_gap", {"fork"}},
      {"place.fork_under_way", {"fork_inside"}},
      {"place.access", {"access_way_x", "access_way_z"}},
      {"place.tyre_left", {"pressure", "wheel"}},
      {"place.tyre_pressure", {"pressure", "wheel"}},
      {"place.axle_stack", {"spacer"}},
      {"place.former", {"station"}},
      {"stance.leg_lean", {"rake"}},
      {"spring.overlap", {"outer_tube", "inner_tube"}},
      {"spring.slide_play", {"outer_bore"}},
      {"spring.in_bore", {"inner_bore", "wire"}},
      {"spring.space", {"plug", "coil_length", "length"}},
      {"spring.cut_left", {"plug", "thread"}},
      {"spring.thread", {"thread"}},
      {"spring.ring_crush", {"slot"}},
      {"spring.centre_gap", {"gap", "slot", "bent", "plies"}},
      {"spring.cross_wire", {"cross_wire", "cross_rise", "bent"}},
      {"spring.bow_proven", {"plies", "bent_width"}},
      {"leg.governed", {"length"}},
      {"leg.mount_twist", {"box_depth", "plate_thickness", "plate_width"}},
      {"leg.plate_room", {"plate_width", "plate_thickness", "cheeks", "box_depth", "station"}},
      {"leg.mix", {"working_time"}},
      {"leg.cradle", {"notch_low", "notch_edge"}},
      {"leg.fit", {"fit", "mount_bore"}},
      {"leg.edge_distance", {"plate", "plate_width"}},
      {"leg.path",
       {"leg_wall", "leg_diameter", "leg_thickness", "leg_width", "tubes", "tube_walls", "axle", "bent",
        "bent_width", "plies", "fasteners", "fastener_count", "bearing", "plate", "plate_width"}},
      {"place.door_ground", {"door_open", "door_ajar", "door_width", "length"}},
      {"place.ground_pressure", {"pressure", "wheel"}},
      {"place.",
       {"station", "length", "side", "bend", "shim", "wheel", "slide", "ballast_nose", "ballast_tail"}},
      {"stance.",
       {"station", "length", "shim", "rate", "preload", "charge", "coil_length", "wire", "turns", "leaf",
        "strands", "cord_length", "wheel", "bend"}},
      {"spring.", {"rate",  "preload", "charge",      "coil_length", "travel",  "wire",       "turns",
                   "leaf",  "strands", "cord_length", "pucks",       "bent",    "bent_width", "plies",
                   "loops", "helper",  "cross_wire",  "slot",        "damping", "pressure"}},
      {"leg.margin",
       {"leg_wall", "leg_diameter", "leg_thickness", "leg_width", "tubes", "tube_walls", "axle", "bent",
        "bent_width", "plies", "fasteners", "fastener_count", "bearing", "plate", "plate_width", "cheeks"}},
      {"drive.arm", {"drive_end_x", "drive_end_y", "drive_end_z"}},
      {"drive.force",
       {"drive_end_x", "drive_end_y", "drive_end_z", "drive_force", "drive_bore", "bottle", "filled",
        "regulated"}},
      {"circuit.cycles", {"bottle", "filled", "regulated"}},
      {"circuit.air_lasts", {"bottle", "filled", "regulated"}},
      {"circuit.time", {"bottle", "filled", "regulated"}},
      {"drive.stroke", {"drive_stroke", "drive_end_x", "drive_end_y", "drive_end_z"}},
      {"drive.column", {"drive_rod"}},
      {"drive.time", {"drive_speed", "drive_flow", "drive_gearbox"}},
      {"drive.counted", {"drive_speed", "drive_gearbox"}},
      {"drive.stall", {"drive_gearbox", "drive_servo", "servo_arm"}},
      {"drive.free_fall", {"down_spring"}},
      {"drive.uplock", {"hook"}},
      {"drive.latch", {"hook_x", "hook_y", "hook_z"}},
      {"drive.unit_flex", {"unit_stiffness"}},
      {"drive.over_centre", {"brace_link"}},
      {"drive.brace", {"lock_spring", "brace_link"}},
      {"drive.rod", {"rod_diameter", "servo_arm"}},
      {"swing.pair", {"side", "pivot_side", "length", "unit_angle", "wheel"}},
      {"swing.unit_holes", {"station", "pivot_side", "pivot_up"}},
      {"swing.far_skin", {"pivot_up"}},
      {"swing.spring_turn", {"turn_rod_x", "turn_rod_y", "turn_rod_z", "travel"}},
      {"swing.unit_turn", {"unit_angle"}},
      {"swing.unit_pin", {"unit_bore"}},
      {"swing.seat", {}},
      {"swing.",
       {"length", "unit_angle", "mount_tilt", "wheel", "station", "pivot_side", "pivot_up", "shank"}},
      {"steer.turn", {"steer_angle", "station"}},
      {"steer.trail", {"axle_aft"}},
      {"steer.servo_room", {"servo_x", "servo_z"}},
      {"steer.clearance", {"steer_angle", "wheel"}},
      {"steer.slide", {"steer_slide", "steer_rod_x", "steer_rod_z"}},
      {"steer.pull", {"steer_rod_x", "steer_rod_y", "steer_rod_z"}},
      {"steer.fold", {"steer_rod_x", "steer_rod_y", "steer_rod_z"}},
      {"steer.springing", {"steer_rod_x", "steer_rod_y", "steer_rod_z"}},
      {"steer.square", {"steer_rod_x", "steer_rod_y", "steer_rod_z"}},
      {"steer.servo", {"steer_torque", "steer_arm", "pressure"}},
      {"doors.travel",
       {"door_throw", "door_crank_x", "door_crank_y", "door_crank_z", "door_leg_x", "door_leg_y",
        "door_leg_z", "door_ball_x", "door_ball_y", "door_ball_z", "door_stop_x", "door_stop_y",
        "door_stop_z", "door_open"}},
      {"doors.end", {"door_throw", "door_crank_x", "door_crank_y", "door_crank_z"}},
      {"doors.transmission",
       {"door_crank_x", "door_crank_y", "door_crank_z", "door_leg_x", "door_leg_y", "door_leg_z",
        "door_ball_x", "door_ball_y", "door_ball_z", "door_throw"}},
      {"doors.clearance",
       {"door_open", "door_width", "door_leg_x", "door_leg_y", "door_leg_z", "door_ball_x", "door_ball_y",
        "door_ball_z"}},
      {"doors.down", {"door_ajar", "door_width"}},
      {"doors.over", {"unit_angle", "mount_tilt", "pivot_up", "wheel"}},
      {"doors.shut", {"door_tie", "door_leg_x", "door_leg_y", "door_leg_z"}},
      {"doors.closing", {"door_spring", "door_spring_x", "door_spring_y", "door_spring_z"}},
      {"doors.tie", {"door_tie", "door_open", "door_leg_x", "door_leg_y", "door_leg_z"}},
      {"doors.stop", {"door_arm", "door_stop_x", "door_stop_y", "door_stop_z", "door_open"}},
      {"doors.hold",
       {"door_spring", "door_spring_x", "door_spring_y", "door_spring_z", "door_torque", "door_magnet",
        "door_magnet_out", "door_open"}},
      {"doors.servo", {"door_torque", "door_spring", "door_magnet", "door_magnet_out"}},
      {"doors.magnet", {"door_torque", "door_magnet", "door_magnet_out"}},
      {"sequence.apart", {"spread"}},
      {"sequence.", {"legs_later", "doors_close_later", "legs_lowered_later", "doors_close_later_down"}}};
  const auto words =
      std::find_if(moves.begin(), moves.end(), [&](const auto& m) { return id.starts_with(m.first); });
  std::vector<KnobRef> list;
  if (words == moves.end()) return list;
  for (auto& k : knobs(d))
    if (std::find(words->second.begin(), words->second.end(), kind_of(k->what())) != words->second.end())
      list.push_back(std::move(k));
  return list;
}

namespace {

//! Least length of a leg from where it is held: the wheel beside it has to turn, and its travel to be taken
//! up.
double least_length(const Leg& l) {
  const double radius = l.wheel.diameter.known() ? l.wheel.diameter / 2 : 0;
  const bool slides = l.path == LegPath::straight && l.spring.kind != SpringKind::bending;
  return radius + (slides && l.travel > 0 ? l.travel.si : 0);
}

}  // namespace

bool buildable(const Design& before, const Design& after) {
  if (!inconsistencies(after).empty()) return false;
  const auto [from, to] = held_between(before);
  for (const Leg& l : after.gear.legs) {
    const Leg* was = before.gear.find(l.id);
    if (!was) continue;
    const double length = (l.axle.vec() - l.held_at()).norm();
    const double length_was = (was->axle.vec() - was->held_at()).norm();
    if (length < least_length(l) && length < length_was) return false;
    const double x = l.held_at().x();
    const double x_was = was->held_at().x();
    if (x_was >= from && x_was <= to && (x < from || x > to)) return false;
  }
  return true;
}

}  // namespace kranich
