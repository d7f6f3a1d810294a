// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/cures.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "core/base/numerics.h"
#include "core/base/text.h"
#include "core/model/consistency.h"
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

bool something_slides(const Design& d) {
  return std::any_of(d.ledger.begin(), d.ledger.end(), [](const Item& i) { return i.slides; });
}
bool sequenced(const Design& d) { return !d.sequence.up.empty() || !d.sequence.down.empty(); }

bool any(const Leg&) { return true; }
bool steadies(const Leg& l) { return l.role != LegRole::main; }
bool beside(const Leg& l) { return l.role == LegRole::main && l.stands != LegStands::centre; }
bool can_be_bent(const Leg& l) { return beside(l) && !l.retraction.fitted && l.top.known(); }
bool retracts(const Leg& l) { return l.retraction.fitted; }
template <SpringKind kind>
bool sprung_by(const Leg& l) {
  return l.spring.kind == kind && (l.travel > 0 || kind == SpringKind::bending);
}
bool strut(const Leg& l) {
  return l.tubes.empty() && l.spring.kind != SpringKind::bending && l.section != LegSection::rectangle;
}
bool has_stop(const Leg& l) { return l.spring.kind != SpringKind::bending; }
bool has_tubes(const Leg& l) { return !l.tubes.empty(); }
bool has_axle(const Leg& l) {
  // In a fork it is held on both sides and not checked.
  return l.axle_diameter.known() && std::abs(l.wheel_offset.known() ? l.wheel_offset.si : 0) > 1e-4;
}
bool is_plate(const Joint& j) { return j.kind == JointKind::block || j.kind == JointKind::plate; }
bool has_joints(const Leg& l) { return !l.joints.empty(); }
bool has_plates(const Leg& l) { return std::any_of(l.joints.begin(), l.joints.end(), is_plate); }

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

//! A knob of any leg. In its words {A} and {a} stand for what the leg is ("Main", "nose"), {wheel}, {leg},
//! {spring}, {coil}, {leaf}, {axle} for one or several of them.
struct LegKnob {
  const char* what;
  const char* more;
  const char* less;
  Kind kind;
  double step, range;
  void (*apply)(Leg&, double);
  bool (*fits)(const Leg&);
  Vec3 way{0, 0, 0};  //!< where `apply` is null: the whole leg goes that way, with what hangs on it
};

const std::vector<LegKnob>& leg_knobs() {
  static const std::vector<LegKnob> list{
      {"station",
       "{A} {wheel} aft by",
       "{A} {wheel} forward by",
       Kind::length,
       mm,
       0.6,
       nullptr,
       any,
       {1, 0, 0}},
      {"side",
       "Each {a} wheel outboard by",
       "Each {a} wheel inboard by",
       Kind::length,
       mm,
       0.5,
       nullptr,
       beside,
       {0, 1, 0}},
      {"bend", "{A} {leg} bent out by", "{A} {leg} bent in by", Kind::angle, 0.5 * deg, 30 * deg,
       bend_leg_out, can_be_bent},
      {"length", "{A} {leg} longer by", "{A} {leg} shorter by", Kind::length, mm, 0.3, lengthen_leg, any},
      {"shim",
       "Shim under the {a} {leg}",
       "{A} {leg} let in by",
       Kind::length,
       mm,
       0.2,
       nullptr,
       steadies,
       {0, 0, -1}},
      {"wheel", "{A} {wheel} larger by", "{A} {wheel} smaller by", Kind::length, mm, 0.2,
       [](Leg& l, double v) { resize(l.wheel, v); }, any},
      {"spacing", "Two {wheel}s of the {a} axle further apart by", "Two {wheel}s of the {a} axle closer by",
       Kind::length, mm, 0.3, [](Leg& l, double v) { l.wheel_spacing.si += v; },
       [](const Leg& l) { return l.wheel_spacing.known(); }},
      {"pressure", "{A} {wheel}: pressure up by", "{A} {wheel}: pressure down by", Kind::pressure, 5e3, 5e5,
       [](Leg& l, double v) { l.wheel.pressure.si += v; },
       [](const Leg& l) {
         return l.wheel_spacing.known() && l.wheel.tyre == Tyre::pneumatic && l.wheel.pressure.known() &&
                !l.wheel.tyre_rate.known();
       }},
      {"charge", "More charge in the {a} {leg} by", "Less charge in the {a} {leg} by", Kind::pressure, 5e3,
       3e6, [](Leg& l, double v) { l.spring.gas.pressure.si += v; }, sprung_by<SpringKind::gas>},
      {"rate", "{A} {spring} stiffer by", "{A} {spring} softer by", Kind::stiffness, 10, 1e5,
       [](Leg& l, double v) { l.spring.rate.si += v; }, sprung_by<SpringKind::linear>},
      {"leaf", "{A} {leaf} stiffer by", "{A} {leaf} softer by", Kind::torsion_rate, 10, 20000,
       [](Leg& l, double v) { l.spring.leaf.torsion_rate.si += v; }, sprung_by<SpringKind::leaf>},
      {"strands",
       "More strands of cord on the {a} {leg}:", "Fewer strands of cord on the {a} {leg}:", Kind::factor, 2,
       40, [](Leg& l, double v) { l.spring.cord.strands.si += v; }, sprung_by<SpringKind::cord>},
      {"cord_length", "Cord of the {a} {leg} longer, unstretched, by",
       "Cord of the {a} {leg} shorter, unstretched, by", Kind::length, mm, 0.1,
       [](Leg& l, double v) { l.spring.cord.free_length.si += v; }, sprung_by<SpringKind::cord>},
      {"preload", "{A} {spring} preloaded more by", "{A} {spring} preloaded less by", Kind::force, 1, 5000,
       [](Leg& l, double v) { l.spring.preload.si += v; }, sprung_by<SpringKind::linear>},
      {"coil_length", "{A} {coil} longer when installed by", "{A} {coil} preloaded more by", Kind::length,
       0.5 * mm, 0.1, [](Leg& l, double v) { l.spring.coil.installed_length.si += v; },
       sprung_by<SpringKind::coil>},
      {"wire", "{A} {coil} of thicker wire by", "{A} {coil} of thinner wire by", Kind::length, 0.1 * mm, 0.01,
       [](Leg& l, double v) { l.spring.coil.wire_diameter.si += v; }, sprung_by<SpringKind::coil>},
      {"travel", "Travel of the {a} {leg} longer by", "Travel of the {a} {leg} shorter by", Kind::length, mm,
       0.3, [](Leg& l, double v) { l.travel.si += v; }, has_stop},
      {"unit_angle", "{A} unit angle more by", "{A} unit angle less by", Kind::angle, 0.1 * deg, 30 * deg,
       [](Leg& l, double v) { l.retraction.unit_angle.si += v; }, retracts},
      {"mount_tilt", "{A} mount tilted up by", "{A} mount tilted down by", Kind::angle, 0.1 * deg, 20 * deg,
       [](Leg& l, double v) { l.retraction.mount_tilt.si += v; }, retracts},
      {"leg_wall", "Wall of the {a} {leg} thicker by", "Wall of the {a} {leg} thinner by", Kind::length,
       0.1 * mm, 0.02, [](Leg& l, double v) { l.tube_wall.si += v; }, strut},
      {"leg_diameter", "{A} {leg} thicker by", "{A} {leg} thinner by", Kind::length, 0.5 * mm, 0.05,
       [](Leg& l, double v) { l.tube_diameter.si += v; }, strut},
      {"tubes", "Every tube of the {a} {leg} thicker by", "Every tube of the {a} {leg} thinner by",
       Kind::length, mm, 0.05, thicken_tubes, has_tubes},
      {"axle", "{A} {axle} thicker by", "{A} {axle} thinner by", Kind::length, 0.5 * mm, 0.04,
       [](Leg& l, double v) { l.axle_diameter.si += v; }, has_axle},
      {"bent", "Wire or leaf of the {a} {leg} thicker by", "Wire or leaf of the {a} {leg} thinner by",
       Kind::length, 0.1 * mm, 0.01, thicken_bent, sprung_by<SpringKind::bending>},
      {"fasteners", "Pins and bolts of the {a} {leg} thicker by",
       "Pins and bolts of the {a} {leg} thinner by", Kind::length, 0.5 * mm, 0.02, thicken_joints,
       has_joints},
      {"plate", "Plates and blocks of the {a} {leg} longer by",
       "Plates and blocks of the {a} {leg} shorter by", Kind::length, mm, 0.3, lengthen_plates, has_plates},
  };
  return list;
}

std::string worded_for(const LegLine& line, std::string text) {
  const auto put = [&](std::string_view mark, const std::string& with) {
    for (size_t at = 0; (at = text.find(mark)) != std::string::npos;) text.replace(at, mark.size(), with);
  };
  put("{A}", capitalised(line.word));
  put("{a}", line.word);
  put("{leaf}", line.several ? "leaves" : "leaf");
  for (const char* noun : {"wheel", "leg", "spring", "coil", "axle"})
    put(fmt::format("{{{}}}", noun), std::string(noun) + (line.several ? "s" : ""));
  return text;
}

//! Verdict and margin of a check over all loadings (its worst), or of the one loading of a finding that names
//! it.
const Finding* worst_of(const Assessment& a, std::string_view id, const std::string& subject) {
  const Finding* worst = nullptr;
  for (const auto& f : a.findings)
    if (f.measure_id == id && f.subject == subject && (!worst || worse(f, *worst))) worst = &f;
  return worst;
}

//! How much worse a builder is off with a verdict: not to know is worse than to be tight.
int badness(Verdict v) {
  return v == Verdict::fails ? 3 : v == Verdict::unknown ? 2 : v == Verdict::tight ? 1 : 0;
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

std::vector<KnobRef> knobs(const Design& d) {
  std::vector<KnobRef> list;
  const auto lines = leg_lines(d);
  for (const LegKnob& k : leg_knobs())
    for (const LegLine& line : lines) {
      if (!k.fits(d.gear.legs[line.rows[0]])) continue;
      std::function<void(Design&, double)> apply;
      if (k.apply) {
        apply = [ids = line.ids, change = k.apply](Design& x, double v) {
          for (const auto& id : ids)
            if (Leg* leg = x.gear.find(id)) change(*leg, v);
        };
      } else {
        apply = [rows = line.rows, way = k.way](Design& x, double v) {
          shift_legs(x, rows, v * way.x(), v * way.y(), v * way.z());
        };
      }
      list.push_back(
          std::make_shared<Knob>(Knob{line.ids[0] + "." + k.what, worded_for(line, k.more),
                                      worded_for(line, k.less), k.kind, k.step, k.range, std::move(apply)}));
    }
  const auto whole = [&](const char* id, const char* more, const char* less, Kind kind, double step,
                         double range, std::function<void(Design&, double)> apply) {
    list.push_back(std::make_shared<Knob>(Knob{id, more, less, kind, step, range, std::move(apply)}));
  };
  if (something_slides(d))
    whole("weigh.slide", "What slides aboard, aft by", "What slides aboard, forward by", Kind::length, mm,
          0.4, slide);
  if (sequenced(d)) {
    const auto later = [&](const char* id, const char* more, const char* less, bool up, Action action) {
      whole(id, more, less, Kind::time, 0.1, 30,
            [up, action](Design& x, double v) { delay(up ? x.sequence.up : x.sequence.down, action, v); });
    };
    later("sequence.legs_later", "Legs raised later by", "Legs raised earlier by", true, Action::raise);
    later("sequence.doors_close_later", "Doors close later by", "Doors close earlier by", true,
          Action::close);
    later("sequence.legs_lowered_later", "Legs lowered later by", "Legs lowered earlier by", false,
          Action::lower);
    later("sequence.doors_close_later_down", "Doors close later, going down, by",
          "Doors close earlier, going down, by", false, Action::close);
  }
  return list;
}

std::vector<KnobRef> knobs_for(const Design& d, std::string_view id) {
  using Words = std::vector<std::string_view>;
  static const std::vector<std::pair<std::string_view, Words>> moves{
      {"weigh.", {"slide"}},
      {"place.twin_", {"spacing", "wheel", "pressure"}},
      {"place.", {"station", "length", "side", "bend", "shim", "wheel", "slide"}},
      {"stance.",
       {"station", "length", "shim", "rate", "preload", "charge", "coil_length", "leaf", "strands",
        "cord_length", "wheel", "bend"}},
      {"spring.",
       {"rate", "preload", "charge", "coil_length", "travel", "wire", "leaf", "strands", "cord_length",
        "bent"}},
      {"leg.margin", {"leg_wall", "leg_diameter", "tubes", "axle", "bent", "fasteners", "plate"}},
      {"swing.", {"length", "unit_angle", "mount_tilt", "wheel", "station"}},
      {"sequence.", {"legs_later", "doors_close_later", "legs_lowered_later", "doors_close_later_down"}}};
  const auto words =
      std::find_if(moves.begin(), moves.end(), [&](const auto& m) { return id.starts_with(m.first); });
  std::vector<KnobRef> list;
  if (words == moves.end()) return list;
  for (auto& k : knobs(d))
    if (std::find(words->second.begin(), words->second.end(), k->what()) != words->second.end())
      list.push_back(std::move(k));
  return list;
}

std::string Cure::id() const {
  std::string s;
  for (const auto& p : parts) s += (s.empty() ? "" : "+") + p.knob->id;
  return s;
}

Design Cure::applied(const Design& design) const {
  Design d = design;
  for (const auto& p : parts) p.knob->apply(d, p.change);
  return d;
}

namespace {

//! Solves and prices the cures of one finding.
class Surgeon {
 public:
  Surgeon(const Design& design, const Assessment& before, const Finding& finding, const Progress& progress)
      : design_(design),
        before_(before),
        finding_(finding),
        progress_(progress),
        failing_(finding.verdict == Verdict::fails),
        needed_(Stations::only(finding.info().station)) {
    needed_.measure = finding.measure_id;
    knobs_ = knobs_for(design, finding.measure_id);
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
      if (cures.size() < most && keep_on(0.9)) add(cures, std::move(parts));
    return called_off_ ? std::vector<Cure>{} : cures;
  }
  bool found_any() const { return !found_.empty(); }

  void singles() {
    for (size_t i = 0; i < knobs_.size(); ++i) {
      if (!keep_on(0.5 * static_cast<double>(i) / static_cast<double>(knobs_.size()))) return;
      const KnobRef& knob = knobs_[i];
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
      KnobRef knob;
      double slope;
    };
    std::vector<Effect> effects;
    for (const KnobRef& k : knobs_) {
      const double h = std::max(2 * k->step, 0.01 * k->range);
      const double slope = (spare({{k, h}}) - spare({{k, -h}})) / (2 * h) * k->range;
      if (std::isfinite(slope) && slope != 0) effects.push_back({k, slope});
    }
    std::sort(effects.begin(), effects.end(),
              [](const Effect& a, const Effect& b) { return std::abs(a.slope) > std::abs(b.slope); });
    if (effects.size() > 6) effects.resize(6);
    for (size_t i = 0; i < effects.size(); ++i)
      for (size_t j = i + 1; j < effects.size(); ++j) {
        if (!keep_on(0.5 + 0.06 * static_cast<double>(i))) return;
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
  bool keep_on(double share) {
    share_ = share;
    called_off_ = called_off_ || (progress_ && !progress_(share));
    return !called_off_;
  }
  double spare(const std::vector<Cure::Part>& parts) {
    // Asked at every trial: whoever called it off does not want to wait for the rest of a search.
    if (!keep_on(share_)) return std::nan("");
    Design d = design_;
    for (const auto& p : parts) p.knob->apply(d, p.change);
    // What could not be saved cannot be built: a wire thinner than nothing, a wheel on a hub larger than
    // itself.
    if (!inconsistencies(d).empty()) return std::nan("");
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
    if (!cured || cured->verdict == Verdict::unknown || badness(cured->verdict) >= badness(finding_.verdict))
      return;
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
      if (badness(now->verdict) > badness(old))
        cure.worse.push_back(price);
      else if (now->verdict == Verdict::unknown)
        continue;  // it fails no more, and nobody knows whether it holds
      else if (badness(now->verdict) < badness(old))
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
    return fmt::format("{} {}", p.change > 0 ? p.knob->more : p.knob->less,
                       format_quantity(std::abs(p.change), p.knob->kind, design_.units));
  }

  const Design& design_;
  const Assessment& before_;
  const Finding& finding_;
  const Progress& progress_;
  bool called_off_ = false;
  double share_ = 0;
  bool failing_;
  Stations needed_;
  std::vector<KnobRef> knobs_;
  std::vector<std::vector<Cure::Part>> found_;
};

}  // namespace

std::vector<Cure> cures_for(const Design& design, const Assessment& before, const Finding& finding,
                            size_t most, const Progress& progress) {
  if (finding.verdict != Verdict::fails && finding.verdict != Verdict::tight) return {};
  Surgeon surgeon(design, before, finding, progress);
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
