// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/cures.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "core/base/numerics.h"
#include "core/model/moves.h"

namespace kranich {
namespace {

void resize(Wheel& wheel, double by) {
  wheel.diameter.si += by;
  wheel.flat_radius.si += by / 2;
}

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

bool always(const Design&) { return true; }
bool something_slides(const Design& d) {
  return std::any_of(d.ledger.begin(), d.ledger.end(), [](const Item& i) { return i.slides; });
}
bool main_bends(const Design& d) { return !d.gear.main.retraction.fitted && d.gear.main.top.known(); }
bool main_hinged(const Design& d) { return d.gear.main.spring.kind == SpringKind::leaf; }
bool main_cord(const Design& d) { return d.gear.main.spring.kind == SpringKind::cord; }
bool main_retracts(const Design& d) { return d.gear.main.retraction.fitted; }
bool third_retracts(const Design& d) { return d.gear.third.retraction.fitted; }
bool main_gas(const Design& d) { return d.gear.main.spring.kind == SpringKind::gas; }
bool third_gas(const Design& d) { return d.gear.third.spring.kind == SpringKind::gas; }
bool main_coil(const Design& d) { return d.gear.main.spring.kind == SpringKind::coil; }
bool third_coil(const Design& d) { return d.gear.third.spring.kind == SpringKind::coil; }
bool main_linear(const Design& d) { return d.gear.main.spring.kind == SpringKind::linear; }
bool third_linear(const Design& d) { return d.gear.third.spring.kind == SpringKind::linear; }
bool sequenced(const Design& d) { return !d.sequence.up.empty() || !d.sequence.down.empty(); }

template <LegName leg>
bool strut_of(const Design& d) {
  const Leg& l = d.gear.leg(leg);
  return l.tubes.empty() && l.spring.kind != SpringKind::bending && l.section != LegSection::rectangle;
}
template <LegName leg>
bool has_tubes(const Design& d) {
  return !d.gear.leg(leg).tubes.empty();
}
template <LegName leg>
bool bends(const Design& d) {
  return d.gear.leg(leg).spring.kind == SpringKind::bending;
}
template <LegName leg>
bool has_axle(const Design& d) {
  const Leg& l = d.gear.leg(leg);  // in a fork it is held on both sides and not checked
  return l.axle_diameter.known() && std::abs(l.wheel_offset.known() ? l.wheel_offset.si : 0) > 1e-4;
}
bool is_plate(const Joint& j) { return j.kind == JointKind::block || j.kind == JointKind::plate; }
template <LegName leg>
bool has_joints(const Design& d) {
  return !d.gear.leg(leg).joints.empty();
}
template <LegName leg>
bool has_plates(const Design& d) {
  const auto& joints = d.gear.leg(leg).joints;
  return std::any_of(joints.begin(), joints.end(), is_plate);
}

void thicken_tubes(Leg& leg, double by) {
  for (auto& t : leg.tubes) t.diameter.si += by;
}
void thicken_bent(Leg& leg, double by) {
  leg.spring.bent.wire_diameter.si += by;
  for (auto& p : leg.spring.bent.line) p.thickness.si += by;
}
void thicken_joints(Leg& leg, double by) {
  for (auto& j : leg.joints) {
    j.diameter.si += by;
    for (auto& f : j.fasteners) f.diameter.si += by;
  }
}
void lengthen_plates(Leg& leg, double by) {
  for (auto& j : leg.joints)
    if (is_plate(j)) j.length.si += by;
}

constexpr double mm = 0.001;
const double deg = radians(1);

//! Verdict and margin of a check over all loadings (its worst), or of the one loading of a finding that names
//! it.
const Finding* worst_of(const Assessment& a, std::string_view id, const std::string& subject) {
  const Finding* worst = nullptr;
  for (const auto& f : a.findings)
    if (f.measure_id == id && f.subject == subject && (!worst || worse(f, *worst))) worst = &f;
  return worst;
}

//! Signed distance to what a verdict of "fails" or "tight" lacks: for a fail the margin, for a tight one the
//! margin less the band within which it is tight.
double lack(const Finding& f, bool from_fail) {
  if (from_fail || !std::isfinite(f.margin)) return f.margin;
  const Limit& l = f.limit;
  if (l.hold_lower || l.hold_upper) {
    double spare = std::numeric_limits<double>::infinity();
    if (l.hold_lower) spare = std::min(spare, f.value - *l.hold_lower);
    if (l.hold_upper) spare = std::min(spare, *l.hold_upper - f.value);
    return spare;
  }
  const double scale = f.margin_fraction != 0 ? f.margin / f.margin_fraction : 0;
  return f.margin - 0.1 * scale;
}

}  // namespace

const std::vector<Knob>& knobs() {
  static const std::vector<Knob> list{
      {"main.station", "Main wheels aft by", "Main wheels forward by", Kind::length, mm, 0.6,
       [](Design& d, double v) { shift_leg(d.gear.main, v, 0, 0); }, always},
      {"third.station", "Nose or tail wheel aft by", "Nose or tail wheel forward by", Kind::length, mm, 0.8,
       [](Design& d, double v) { shift_leg(d.gear.third, v, 0, 0); }, always},
      {"main.side", "Each main wheel outboard by", "Each main wheel inboard by", Kind::length, mm, 0.5,
       [](Design& d, double v) { shift_leg(d.gear.main, 0, v, 0); }, always},
      {"main.bend", "Main legs bent out by", "Main legs bent in by", Kind::angle, 0.5 * deg, 30 * deg,
       [](Design& d, double v) { bend_leg_out(d.gear.main, v); }, main_bends},
      {"main.length", "Main legs longer by", "Main legs shorter by", Kind::length, mm, 0.3,
       [](Design& d, double v) { lengthen_leg(d.gear.main, v); }, always},
      {"third.length", "Nose or tail leg longer by", "Nose or tail leg shorter by", Kind::length, mm, 0.3,
       [](Design& d, double v) { lengthen_leg(d.gear.third, v); }, always},
      {"third.shim", "Shim under the nose or tail leg", "Nose or tail leg let in by", Kind::length, mm, 0.2,
       [](Design& d, double v) { shift_leg(d.gear.third, 0, 0, -v); }, always},
      {"main.wheel", "Main wheels larger by", "Main wheels smaller by", Kind::length, mm, 0.2,
       [](Design& d, double v) { resize(d.gear.main.wheel, v); }, always},
      {"third.wheel", "Nose or tail wheel larger by", "Nose or tail wheel smaller by", Kind::length, mm, 0.2,
       [](Design& d, double v) { resize(d.gear.third.wheel, v); }, always},
      {"main.charge", "More charge in the mains by", "Less charge in the mains by", Kind::pressure, 5e3, 3e6,
       [](Design& d, double v) { d.gear.main.spring.gas.pressure.si += v; }, main_gas},
      {"third.charge", "More charge in the nose or tail leg by", "Less charge in the nose or tail leg by",
       Kind::pressure, 5e3, 3e6, [](Design& d, double v) { d.gear.third.spring.gas.pressure.si += v; },
       third_gas},
      {"main.rate", "Main springs stiffer by", "Main springs softer by", Kind::stiffness, 10, 1e5,
       [](Design& d, double v) { d.gear.main.spring.rate.si += v; }, main_linear},
      {"third.rate", "Nose or tail spring stiffer by", "Nose or tail spring softer by", Kind::stiffness, 10,
       1e5, [](Design& d, double v) { d.gear.third.spring.rate.si += v; }, third_linear},
      {"main.leaf", "Main leaves stiffer by", "Main leaves softer by", Kind::torsion_rate, 10, 20000,
       [](Design& d, double v) { d.gear.main.spring.leaf.torsion_rate.si += v; }, main_hinged},
      {"main.strands", "More strands of cord:", "Fewer strands of cord:", Kind::factor, 2, 40,
       [](Design& d, double v) { d.gear.main.spring.cord.strands.si += v; }, main_cord},
      {"main.cord_length", "Cord longer, unstretched, by", "Cord shorter, unstretched, by", Kind::length, mm,
       0.1, [](Design& d, double v) { d.gear.main.spring.cord.free_length.si += v; }, main_cord},
      {"main.preload", "Main springs preloaded more by", "Main springs preloaded less by", Kind::force, 1,
       5000, [](Design& d, double v) { d.gear.main.spring.preload.si += v; }, main_linear},
      {"third.preload", "Nose or tail spring preloaded more by", "Nose or tail spring preloaded less by",
       Kind::force, 1, 5000, [](Design& d, double v) { d.gear.third.spring.preload.si += v; }, third_linear},
      {"main.coil_length", "Main coils longer when installed by", "Main coils preloaded more by",
       Kind::length, 0.5 * mm, 0.1,
       [](Design& d, double v) { d.gear.main.spring.coil.installed_length.si += v; }, main_coil},
      {"third.coil_length", "Nose or tail coil longer when installed by",
       "Nose or tail coil preloaded more by", Kind::length, 0.5 * mm, 0.1,
       [](Design& d, double v) { d.gear.third.spring.coil.installed_length.si += v; }, third_coil},
      {"main.wire", "Main coils of thicker wire by", "Main coils of thinner wire by", Kind::length, 0.1 * mm,
       0.01, [](Design& d, double v) { d.gear.main.spring.coil.wire_diameter.si += v; }, main_coil},
      {"main.travel", "Main legs' travel longer by", "Main legs' travel shorter by", Kind::length, mm, 0.3,
       [](Design& d, double v) { d.gear.main.travel.si += v; }, always},
      {"third.travel", "Nose or tail leg's travel longer by", "Nose or tail leg's travel shorter by",
       Kind::length, mm, 0.3, [](Design& d, double v) { d.gear.third.travel.si += v; }, always},
      {"main.unit_angle", "Main unit angle more by", "Main unit angle less by", Kind::angle, 0.1 * deg,
       30 * deg, [](Design& d, double v) { d.gear.main.retraction.unit_angle.si += v; }, main_retracts},
      {"third.unit_angle", "Nose unit angle more by", "Nose unit angle less by", Kind::angle, 0.1 * deg,
       30 * deg, [](Design& d, double v) { d.gear.third.retraction.unit_angle.si += v; }, third_retracts},
      {"main.mount_tilt", "Main mount tilted up by", "Main mount tilted down by", Kind::angle, 0.1 * deg,
       20 * deg, [](Design& d, double v) { d.gear.main.retraction.mount_tilt.si += v; }, main_retracts},
      {"third.mount_tilt", "Nose mount tilted up by", "Nose mount tilted down by", Kind::angle, 0.1 * deg,
       20 * deg, [](Design& d, double v) { d.gear.third.retraction.mount_tilt.si += v; }, third_retracts},
      {"main.leg_wall", "Main legs' wall thicker by", "Main legs' wall thinner by", Kind::length, 0.1 * mm,
       0.02, [](Design& d, double v) { d.gear.main.tube_wall.si += v; }, strut_of<LegName::main>},
      {"third.leg_wall", "Nose or tail leg's wall thicker by", "Nose or tail leg's wall thinner by",
       Kind::length, 0.1 * mm, 0.02, [](Design& d, double v) { d.gear.third.tube_wall.si += v; },
       strut_of<LegName::third>},
      {"main.leg_diameter", "Main legs thicker by", "Main legs thinner by", Kind::length, 0.5 * mm, 0.05,
       [](Design& d, double v) { d.gear.main.tube_diameter.si += v; }, strut_of<LegName::main>},
      {"third.leg_diameter", "Nose or tail leg thicker by", "Nose or tail leg thinner by", Kind::length,
       0.5 * mm, 0.05, [](Design& d, double v) { d.gear.third.tube_diameter.si += v; },
       strut_of<LegName::third>},
      {"main.tubes", "Every tube of the main legs thicker by", "Every tube of the main legs thinner by",
       Kind::length, mm, 0.05, [](Design& d, double v) { thicken_tubes(d.gear.main, v); },
       has_tubes<LegName::main>},
      {"main.axle", "Main axles thicker by", "Main axles thinner by", Kind::length, 0.5 * mm, 0.04,
       [](Design& d, double v) { d.gear.main.axle_diameter.si += v; }, has_axle<LegName::main>},
      {"third.axle", "Nose or tail axle thicker by", "Nose or tail axle thinner by", Kind::length, 0.5 * mm,
       0.04, [](Design& d, double v) { d.gear.third.axle_diameter.si += v; }, has_axle<LegName::third>},
      {"main.bent", "Main legs' wire or leaf thicker by", "Main legs' wire or leaf thinner by", Kind::length,
       0.1 * mm, 0.01, [](Design& d, double v) { thicken_bent(d.gear.main, v); }, bends<LegName::main>},
      {"third.bent", "Nose or tail leg's wire or leaf thicker by",
       "Nose or tail leg's wire or leaf thinner by", Kind::length, 0.1 * mm, 0.01,
       [](Design& d, double v) { thicken_bent(d.gear.third, v); }, bends<LegName::third>},
      {"main.fasteners", "Main legs' pins and bolts thicker by", "Main legs' pins and bolts thinner by",
       Kind::length, 0.5 * mm, 0.02, [](Design& d, double v) { thicken_joints(d.gear.main, v); },
       has_joints<LegName::main>},
      {"third.fasteners", "Nose or tail leg's pins and bolts thicker by",
       "Nose or tail leg's pins and bolts thinner by", Kind::length, 0.5 * mm, 0.02,
       [](Design& d, double v) { thicken_joints(d.gear.third, v); }, has_joints<LegName::third>},
      {"main.plate", "Main legs' plates and blocks longer by", "Main legs' plates and blocks shorter by",
       Kind::length, mm, 0.3, [](Design& d, double v) { lengthen_plates(d.gear.main, v); },
       has_plates<LegName::main>},
      {"third.plate", "Nose or tail leg's plates and blocks longer by",
       "Nose or tail leg's plates and blocks shorter by", Kind::length, mm, 0.3,
       [](Design& d, double v) { lengthen_plates(d.gear.third, v); }, has_plates<LegName::third>},
      {"weigh.slide", "What slides aboard, aft by", "What slides aboard, forward by", Kind::length, mm, 0.4,
       [](Design& d, double v) { slide(d, v); }, something_slides},
      {"sequence.legs_later", "Legs raised later by", "Legs raised earlier by", Kind::time, 0.1, 30,
       [](Design& d, double v) { delay(d.sequence.up, Action::raise, v); }, sequenced},
      {"sequence.doors_close_later", "Doors close later by", "Doors close earlier by", Kind::time, 0.1, 30,
       [](Design& d, double v) { delay(d.sequence.up, Action::close, v); }, sequenced},
      {"sequence.legs_lowered_later", "Legs lowered later by", "Legs lowered earlier by", Kind::time, 0.1, 30,
       [](Design& d, double v) { delay(d.sequence.down, Action::lower, v); }, sequenced},
      {"sequence.doors_close_later_down", "Doors close later, going down, by",
       "Doors close earlier, going down, by", Kind::time, 0.1, 30,
       [](Design& d, double v) { delay(d.sequence.down, Action::close, v); }, sequenced},
  };
  return list;
}

std::vector<const Knob*> knobs_for(std::string_view id) {
  const auto starts = [](std::string_view s, std::string_view with) {
    return s.substr(0, with.size()) == with;
  };
  const auto any_of = [](std::string_view word, std::initializer_list<std::string_view> words) {
    return std::find(words.begin(), words.end(), word) != words.end();
  };
  std::vector<const Knob*> list;
  for (const auto& k : knobs()) {
    const std::string_view knob = k.id;
    const std::string_view what = knob.substr(knob.find('.') + 1);  // "station" of "main.station"
    const bool of_sequence = starts(knob, "sequence.");
    bool use = false;
    if (starts(id, "weigh."))
      use = what == "slide";
    else if (starts(id, "place."))
      use = any_of(what, {"station", "length", "side", "bend", "shim", "wheel", "slide"});
    else if (starts(id, "stance."))
      use = any_of(what, {"station", "length", "shim", "rate", "preload", "charge", "coil_length", "leaf",
                          "strands", "cord_length", "wheel", "bend"});
    else if (starts(id, "spring."))
      use = any_of(what, {"rate", "preload", "charge", "coil_length", "travel", "wire", "leaf", "strands",
                          "cord_length", "bent"});
    else if (starts(id, "leg.margin"))
      use = any_of(what, {"leg_wall", "leg_diameter", "tubes", "axle", "bent", "fasteners", "plate"});
    else if (starts(id, "swing."))
      use = any_of(what, {"length", "unit_angle", "mount_tilt", "wheel", "station"});
    else if (starts(id, "sequence."))
      use = of_sequence;
    if (use) list.push_back(&k);
  }
  return list;
}

std::string Cure::id() const {
  std::string s;
  for (const auto& p : parts) s += (s.empty() ? "" : "+") + p.knob->id;
  return s;
}

void turn(const Knob& knob, Design& d, double change) {
  knob.apply(d, change);
  if (!d.gear.unlinked || knob.id.rfind("main.", 0) != 0) return;
  std::swap(d.gear.main, d.gear.port);
  knob.apply(d, change);
  std::swap(d.gear.main, d.gear.port);
}

Design Cure::applied(const Design& design) const {
  Design d = design;
  for (const auto& p : parts) turn(*p.knob, d, p.change);
  return d;
}

namespace {

//! Solves and prices the cures of one finding.
class Surgeon {
 public:
  Surgeon(const Design& design, const Assessment& before, const Finding& finding)
      : design_(design),
        before_(before),
        finding_(finding),
        failing_(finding.verdict == Verdict::fails),
        needed_(Stations::only(finding.info().station)) {
    needed_.measure = finding.measure_id;
    for (const Knob* k : knobs_for(finding.measure_id))
      if (k->fits(design)) knobs_.push_back(k);
  }

  //! Prices the solutions found, those of the least effort first.
  std::vector<Cure> priced(size_t most) {
    const auto effort = [](const std::vector<Cure::Part>& parts) {
      double sum = 0;
      for (const auto& p : parts) sum += std::abs(p.change) / p.knob->range;
      return sum;
    };
    std::stable_sort(found_.begin(), found_.end(),
                     [&](const auto& x, const auto& y) { return effort(x) < effort(y); });
    std::vector<Cure> cures;
    for (auto& parts : found_)
      if (cures.size() < most) add(cures, std::move(parts));
    return cures;
  }
  bool found_any() const { return !found_.empty(); }

  void singles() {
    for (const Knob* knob : knobs_) {
      const auto change = find_root_downhill(
          [&](double v) {
            return spare({{knob, v}});
          },
          0, std::max(2 * knob->step, 0.02 * knob->range), -knob->range, knob->range, knob->step / 8);
      if (!change || std::abs(*change) < 1e-9 * knob->range) continue;
      const auto rounded = outward(*knob, *change);
      for (const double v : {rounded, rounded + std::copysign(knob->step, rounded)}) {
        if (std::abs(v) > knob->range || !(spare({{knob, v}}) >= -1e-9)) continue;
        found_.push_back({{knob, v}});
        break;
      }
    }
  }

  void pairs() {
    // What each knob does to the lack, per share of its range.
    struct Effect {
      const Knob* knob;
      double slope;
    };
    std::vector<Effect> effects;
    for (const Knob* k : knobs_) {
      const double h = std::max(2 * k->step, 0.01 * k->range);
      const double slope = (spare({{k, h}}) - spare({{k, -h}})) / (2 * h) * k->range;
      if (std::isfinite(slope) && slope != 0) effects.push_back({k, slope});
    }
    std::sort(effects.begin(), effects.end(),
              [](const Effect& a, const Effect& b) { return std::abs(a.slope) > std::abs(b.slope); });
    if (effects.size() > 6) effects.resize(6);
    for (size_t i = 0; i < effects.size(); ++i)
      for (size_t j = i + 1; j < effects.size(); ++j) {
        const Effect& a = effects[i];
        const Effect& b = effects[j];
        const double length = std::hypot(a.slope, b.slope);
        const auto parts = [&](double t) {
          return std::vector<Cure::Part>{
              {a.knob, std::clamp(t * a.slope / length, -1.0, 1.0) * a.knob->range},
              {b.knob, std::clamp(t * b.slope / length, -1.0, 1.0) * b.knob->range}};
        };
        const double both_at_their_ends =
            std::min(20.0, length / std::min(std::abs(a.slope), std::abs(b.slope)));
        const auto t = find_root_downhill([&](double x) { return spare(parts(x)); }, 0, 0.05, 0,
                                          both_at_their_ends, 0.002);
        if (!t || *t <= 0) continue;
        auto rounded = parts(*t);
        for (auto& p : rounded) p.change = outward(*p.knob, p.change);
        if (std::abs(rounded[0].change) <= a.knob->range && std::abs(rounded[1].change) <= b.knob->range &&
            spare(rounded) >= -1e-9)
          found_.push_back(std::move(rounded));
      }
  }

 private:
  double spare(const std::vector<Cure::Part>& parts) const {
    Design d = design_;
    for (const auto& p : parts) turn(*p.knob, d, p.change);
    const Assessment a = assess(d, needed_, &before_);
    const Finding* f = worst_of(a, finding_.measure_id, finding_.subject);
    return f ? lack(*f, failing_) : std::nan("");
  }
  static double outward(const Knob& knob, double change) {
    return std::copysign(std::ceil(std::abs(change) / knob.step - 1e-6) * knob.step, change);
  }

  void add(std::vector<Cure>& cures, std::vector<Cure::Part> parts) const {
    Cure cure;
    cure.parts = std::move(parts);
    const Assessment a = assess(cure.applied(design_), {}, &before_);
    const Finding* cured = worst_of(a, finding_.measure_id, finding_.subject);
    if (!cured || severity(cured->verdict) >= severity(finding_.verdict)) return;
    cure.reached = cured->verdict;
    struct Cost {
      double shrinks;
      Price price;
    };
    std::vector<Cost> costs;
    for (const Finding* now : worst_of_each(a)) {
      if (now->measure_id == finding_.measure_id && now->subject == finding_.subject) continue;
      const Finding* was = worst_of(before_, now->measure_id, now->subject);
      const Verdict old = was ? was->verdict : Verdict::noted;
      const Price price{now->measure_id, now->subject, old, now->verdict, was ? was->value : std::nan(""),
                        now->value};
      if (severity(now->verdict) > severity(old))
        cure.worse.push_back(price);
      else if (severity(now->verdict) < severity(old))
        cure.better.push_back(price);
      else if (was && was->margin_fraction - now->margin_fraction > 0.02)
        costs.push_back({was->margin_fraction - now->margin_fraction, price});
    }
    std::stable_sort(costs.begin(), costs.end(),
                     [](const Cost& x, const Cost& y) { return x.shrinks > y.shrinks; });
    for (size_t i = 0; i < std::min<size_t>(3, costs.size()); ++i) cure.costs.push_back(costs[i].price);
    for (const auto& p : cure.parts) cure.text += (cure.text.empty() ? "" : ", and ") + worded(p);
    cures.push_back(std::move(cure));
  }

  std::string worded(const Cure::Part& p) const {
    std::string words = p.change > 0 ? p.knob->more : p.knob->less;
    const auto replace = [&](std::string_view what, std::string_view with) {
      if (const auto at = words.find(what); at != std::string::npos) words.replace(at, what.size(), with);
    };
    replace("Nose or tail", design_.is_tricycle() ? "Nose" : "Tail");
    replace("nose or tail", design_.is_tricycle() ? "nose" : "tail");
    return fmt::format("{} {}", words, format_quantity(std::abs(p.change), p.knob->kind, design_.units));
  }

  const Design& design_;
  const Assessment& before_;
  const Finding& finding_;
  bool failing_;
  Stations needed_;
  std::vector<const Knob*> knobs_;
  std::vector<std::vector<Cure::Part>> found_;
};

}  // namespace

std::vector<Cure> cures_for(const Design& design, const Assessment& before, const Finding& finding,
                            size_t most) {
  if (finding.verdict != Verdict::fails && finding.verdict != Verdict::tight) return {};
  Surgeon surgeon(design, before, finding);
  surgeon.singles();
  if (!surgeon.found_any() && finding.verdict == Verdict::fails) surgeon.pairs();
  auto cures = surgeon.priced(most);
  const auto cost = [](const Cure& c) {
    int sum = 0;
    for (const auto& p : c.worse) sum += p.after == Verdict::fails ? 10 : 3;
    for (const auto& p : c.better) sum -= p.before == Verdict::fails ? 4 : 1;
    return sum;
  };
  const auto effort = [](const Cure& c) {
    double sum = 0;
    for (const auto& p : c.parts) sum += std::abs(p.change) / p.knob->range;
    return sum;
  };
  std::stable_sort(cures.begin(), cures.end(), [&](const Cure& x, const Cure& y) {
    if (cost(x) != cost(y)) return cost(x) < cost(y);
    return effort(x) < effort(y);
  });
  return cures;
}

}  // namespace kranich
