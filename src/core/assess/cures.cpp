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

bool always(const Design&) { return true; }
bool main_retracts(const Design& d) { return d.gear.main.retraction.fitted; }
bool third_retracts(const Design& d) { return d.gear.third.retraction.fitted; }
bool main_gas(const Design& d) { return d.gear.main.spring.kind == SpringKind::gas; }
bool third_gas(const Design& d) { return d.gear.third.spring.kind == SpringKind::gas; }
bool main_coil(const Design& d) { return d.gear.main.spring.kind == SpringKind::coil; }
bool third_coil(const Design& d) { return d.gear.third.spring.kind == SpringKind::coil; }
bool main_linear(const Design& d) { return d.gear.main.spring.kind == SpringKind::linear; }
bool third_linear(const Design& d) { return d.gear.third.spring.kind == SpringKind::linear; }
bool sequenced(const Design& d) { return !d.sequence.up.empty() || !d.sequence.down.empty(); }

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

int severity(Verdict v) { return v == Verdict::fails ? 2 : v == Verdict::tight ? 1 : 0; }

}  // namespace

const std::vector<Knob>& knobs() {
  static const std::vector<Knob> list{
      {"main.station", "Main wheels aft by", "Main wheels forward by", Kind::length, mm, 0.6,
       [](Design& d, double v) { shift_leg(d.gear.main, v, 0, 0); }, always},
      {"third.station", "Nose or tail wheel aft by", "Nose or tail wheel forward by", Kind::length, mm, 0.8,
       [](Design& d, double v) { shift_leg(d.gear.third, v, 0, 0); }, always},
      {"main.side", "Each main wheel outboard by", "Each main wheel inboard by", Kind::length, mm, 0.5,
       [](Design& d, double v) { shift_leg(d.gear.main, 0, v, 0); }, always},
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
    if (starts(id, "place."))
      use = any_of(what, {"station", "length", "side", "shim", "wheel"});
    else if (starts(id, "stance."))
      use = any_of(what, {"station", "length", "shim", "rate", "charge", "coil_length"});
    else if (starts(id, "spring."))
      use = any_of(what, {"rate", "charge", "coil_length", "travel", "wire"});
    else if (starts(id, "swing."))
      use = any_of(what, {"length", "unit_angle", "mount_tilt", "wheel", "station"});
    else if (starts(id, "sequence."))
      use = of_sequence;
    if (use) list.push_back(&k);
  }
  return list;
}

Design Cure::applied(const Design& design) const {
  Design d = design;
  knob->apply(d, change);
  return d;
}

std::vector<Cure> cures_for(const Design& design, const Assessment& before, const Finding& finding) {
  std::vector<Cure> cures;
  if (finding.verdict != Verdict::fails && finding.verdict != Verdict::tight) return cures;
  const bool failing = finding.verdict == Verdict::fails;
  const Station station = finding.info().station;
  const Stations needed{station == Station::swing, station == Station::sequence};
  for (const Knob* knob : knobs_for(finding.measure_id)) {
    if (!knob->fits(design)) continue;
    const auto after = [&](double v) {
      Design d = design;
      knob->apply(d, v);
      return d;
    };
    const auto spare = [&](double v) {
      const Assessment a = assess(after(v), needed);
      const Finding* f = worst_of(a, finding.measure_id, finding.subject);
      return f ? lack(*f, failing) : std::nan("");
    };
    const auto change =
        find_nearest_root(spare, 0, std::max(2 * knob->step, 0.01 * knob->range), -knob->range, knob->range);
    if (!change || std::abs(*change) < 1e-9 * knob->range) continue;
    const double rounded =
        std::copysign(std::ceil(std::abs(*change) / knob->step - 1e-6) * knob->step, *change);
    if (std::abs(rounded) > knob->range || !(spare(rounded) >= -1e-9)) continue;
    Cure cure;
    cure.knob = knob;
    cure.change = rounded;
    const Design changed = after(rounded);
    const Assessment a = assess(changed);
    const Finding* cured = worst_of(a, finding.measure_id, finding.subject);
    if (!cured || severity(cured->verdict) >= severity(finding.verdict)) continue;
    cure.reached = cured->verdict;
    for (const Finding* now : worst_of_each(a)) {
      if (now->measure_id == finding.measure_id && now->subject == finding.subject) continue;
      const Finding* was = worst_of(before, now->measure_id, now->subject);
      const Verdict old = was ? was->verdict : Verdict::noted;
      const Price price{now->measure_id, now->subject, old, now->verdict, now->value};
      if (severity(now->verdict) > severity(old)) cure.worse.push_back(price);
      if (severity(now->verdict) < severity(old)) cure.better.push_back(price);
    }
    std::string words = rounded > 0 ? knob->more : knob->less;
    const auto replace = [&](std::string_view what, std::string_view with) {
      if (const auto at = words.find(what); at != std::string::npos) words.replace(at, what.size(), with);
    };
    replace("Nose or tail", design.is_tricycle() ? "Nose" : "Tail");
    replace("nose or tail", design.is_tricycle() ? "nose" : "tail");
    cure.text = fmt::format("{} {}", words, format_quantity(std::abs(rounded), knob->kind, design.units));
    cures.push_back(std::move(cure));
  }
  const auto cost = [](const Cure& c) {
    int sum = 0;
    for (const auto& p : c.worse) sum += p.after == Verdict::fails ? 10 : 3;
    for (const auto& p : c.better) sum -= p.before == Verdict::fails ? 4 : 1;
    return sum;
  };
  std::stable_sort(cures.begin(), cures.end(), [&](const Cure& x, const Cure& y) {
    if (cost(x) != cost(y)) return cost(x) < cost(y);
    return std::abs(x.change) / x.knob->range < std::abs(y.change) / y.knob->range;
  });
  return cures;
}

}  // namespace kranich
