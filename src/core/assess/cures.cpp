// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/cures.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <optional>

#include "core/assess/stock.h"
#include "core/base/numerics.h"

namespace kranich {
namespace {

//! Verdict and margin of a check over all loadings (its worst), or of the one loading of a finding that names
//! it.
const Finding* worst_of(const Assessment& a, std::string_view id, const Subject& subject) {
  const Finding* worst = nullptr;
  for (const auto& f : a.findings)
    if (f.measure_id == id && f.subject == subject && (!worst || worse(f, *worst))) worst = &f;
  return worst;
}

//! How much worse a builder is off with a verdict: not to know is worse than to be tight.
int badness(Verdict v) {
  return v == Verdict::fails ? 3 : v == Verdict::unknown ? 2 : v == Verdict::tight ? 1 : 0;
}

//! The end of its band that a finding lies beyond, where it has two: below or above. Nothing where it lies
//! within both.
enum class Beyond { neither, below, above };
Beyond beyond(const Finding& f, bool from_fail) {
  const Limit& l = f.limit;
  const auto& low = !from_fail && l.hold_lower ? l.hold_lower : l.lower;
  const auto& high = !from_fail && l.hold_upper ? l.hold_upper : l.upper;
  if (!low || !high) return Beyond::neither;
  return f.value < *low ? Beyond::below : f.value > *high ? Beyond::above : Beyond::neither;
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

void weigh_up(Cure& cure, const Assessment& before, const Assessment& after, const Finding* cured) {
  struct Cost {
    double shrinks;
    Price price;
  };
  std::vector<Cost> costs;
  for (const Finding* now : worst_of_each(after)) {
    if (cured && now->measure_id == cured->measure_id && now->subject == cured->subject) continue;
    const Finding* was = worst_of(before, now->measure_id, now->subject);
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
  cure.text = {};
  for (const auto& p : cure.parts) {
    Text part = p.knob->worded(p.change);
    cure.text =
        cure.text.empty() ? std::move(part) : say("{}, and {}", std::move(cure.text), std::move(part));
  }
}

bool reaches(const Cure::Part& p) { return p.change >= p.knob->least && p.change <= p.knob->most; }

double outward(const Knob& knob, double change) {
  return std::copysign(std::ceil(std::abs(change) / knob.step - 1e-6) * knob.step, change);
}

namespace {

//! Solves and prices the cures of one finding.
class Surgeon {
 public:
  Surgeon(const Design& design, const Assessment& before, const Finding& finding, const CureSearch& search)
      : design_(design),
        before_(before),
        finding_(finding),
        progress_(search.progress),
        failing_(finding.verdict == Verdict::fails),
        needed_(Stations::only(finding.info().station)) {
    needed_.measure = finding.measure_id;
    // Of Drive only the unit's ratings ask what the leg gets.
    if (finding.info().station == Station::drive && !finding.measure_id.starts_with("drive.unit_"))
      needed_.bits = station_bit(Station::drive);
    // What is unfinished on purpose is held on the bench, not built differently.
    if (!on_the_bench(design, finding)) knobs_ = knobs_for(design, finding.measure_id);
    // What is wired or set otherwise comes off no shelf.
    const std::string& id = finding.measure_id;
    if (search.stock)
      swaps_ = swaps_for(design, before, *search.stock, finding);
    else if (id.starts_with("logic.") || id.starts_with("circuit."))
      swaps_ = swaps_for(design, before, Stock(), finding);
  }

  //! Prices the solutions found, those of the least effort first.
  std::vector<Cure> priced(size_t most) {
    const auto effort = [](const std::vector<Cure::Part>& parts) {
      double sum = 0;
      for (const auto& p : parts) sum += p.knob->dear * std::abs(p.change) / p.knob->range();
      return sum;
    };
    std::stable_sort(found_.begin(), found_.end(),
                     [&](const auto& x, const auto& y) { return effort(x) < effort(y); });
    std::vector<Cure> cures;
    for (auto& parts : found_)
      if (cures.size() < most && keep_on(0.9)) add(cures, std::move(parts));
    return called_off_ ? std::vector<Cure>{} : cures;
  }
  void forget() { found_.clear(); }

  //! The nearest of what may be exchanged that does it.
  void exchanges() {
    for (const KnobRef& knob : swaps_)
      for (size_t i = 1; i <= knob->choices.size() && keep_on(0.45); ++i) {
        const auto v = static_cast<double>(i);
        if (!(spare({{knob, v}}) >= -1e-9)) continue;
        found_.push_back({{knob, v}});
        break;
      }
  }

  void singles() {
    for (size_t i = 0; i < knobs_.size(); ++i) {
      if (!keep_on(0.5 * static_cast<double>(i) / static_cast<double>(knobs_.size()))) return;
      const KnobRef& knob = knobs_[i];
      auto change = find_root_downhill(
          [&](double v) {
            return towards({{knob, v}});
          },
          0, std::max(2 * knob->step, 0.02 * knob->range()), knob->least, knob->most, knob->step / 8);
      if (!change && knob->wavers) change = first_that_does(knob);
      if (!change || std::abs(*change) < 1e-9 * knob->range()) continue;
      const auto rounded = outward(*knob, *change);
      const double nearest = std::round(*change / knob->step) * knob->step;
      for (const double v : {rounded, rounded + std::copysign(knob->step, rounded), nearest}) {
        if (v == 0) continue;
        if (v > knob->most || v < knob->least || !(spare({{knob, v}}) >= -1e-9)) continue;
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
      const double h = std::max(2 * k->step, 0.01 * k->range());
      const double up = std::min(h, k->most);
      const double down = std::max(-h, k->least);
      const double slope = (spare({{k, up}}) - spare({{k, down}})) / (up - down) * k->range();
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
          return std::vector<Cure::Part>{{a.knob, within_reach(*a.knob, t * a.slope / length)},
                                         {b.knob, within_reach(*b.knob, t * b.slope / length)}};
        };
        const double both_at_their_ends =
            std::min(20.0, length / std::min(std::abs(a.slope), std::abs(b.slope)));
        const auto t = find_root_downhill([&](double x) { return spare(parts(x)); }, 0, 0.05, 0,
                                          both_at_their_ends, 0.002);
        if (!t || *t <= 0) continue;
        auto rounded = parts(*t);
        for (auto& p : rounded) p.change = outward(*p.knob, p.change);
        if (std::all_of(rounded.begin(), rounded.end(), [](const Cure::Part& p) { return reaches(p); }) &&
            spare(rounded) >= -1e-9)
          found_.push_back(std::move(rounded));
      }
  }

 private:
  bool keep_on(double share) {
    share_ = std::max(share_, share);
    called_off_ = called_off_ || (progress_ && !progress_(share));
    return !called_off_;
  }
  //! The least turn of a knob, either way, that does it.
  std::optional<double> first_that_does(const KnobRef& knob) {
    constexpr int pieces = 40;
    const auto does = [&](double v) { return spare({{knob, v}}) >= 0; };
    for (int i = 1; i <= pieces; ++i)
      for (const double end : {knob->most, knob->least}) {
        if (end == 0 || !keep_on(share_) || !does(end * i / pieces)) continue;
        double from = end * (i - 1) / pieces;
        double to = end * i / pieces;
        while (std::abs(to - from) > knob->step / 8) {
          const double middle = (from + to) / 2;
          (does(middle) ? to : from) = middle;
        }
        return to;
      }
    return std::nullopt;
  }
  double spare(const std::vector<Cure::Part>& parts) {
    const auto f = tried(parts);
    return f ? lack(*f, failing_) : std::nan("");
  }
  //! As spare; of a band with two ends the way to the end that it lies beyond now, so that no trial jumps
  //! across a narrow one unseen.
  double towards(const std::vector<Cure::Part>& parts) {
    const auto f = tried(parts);
    if (!f || !std::isfinite(f->margin)) return std::nan("");
    const Limit& l = f->limit;
    switch (beyond(finding_, failing_)) {
      case Beyond::below:
        return f->value - (!failing_ && l.hold_lower ? *l.hold_lower : *l.lower);
      case Beyond::above:
        return (!failing_ && l.hold_upper ? *l.hold_upper : *l.upper) - f->value;
      case Beyond::neither:
        break;
    }
    return lack(*f, failing_);
  }
  //! The finding in question after a change; nothing where it cannot be built or was called off.
  std::optional<Finding> tried(const std::vector<Cure::Part>& parts) {
    // Asked at every trial: whoever called it off does not want to wait for the rest of a search.
    if (!keep_on(share_)) return std::nullopt;
    Design d = design_;
    for (const auto& p : parts) p.knob->apply(d, p.change);
    if (!buildable(design_, d)) return std::nullopt;
    const Assessment a = assess(d, needed_, &before_);
    const Finding* f = worst_of(a, finding_.measure_id, finding_.subject);
    if (!f) return std::nullopt;
    return *f;
  }
  static double within_reach(const Knob& knob, double share) {
    return std::clamp(share * knob.range(), knob.least, knob.most);
  }

  void add(std::vector<Cure>& cures, std::vector<Cure::Part> parts) const {
    Cure cure;
    cure.parts = std::move(parts);
    const Assessment a = assess(cure.applied(design_), {}, &before_);
    const Finding* cured = worst_of(a, finding_.measure_id, finding_.subject);
    if (!cured || cured->verdict == Verdict::unknown || badness(cured->verdict) >= badness(finding_.verdict))
      return;
    cure.reached = cured->verdict;
    weigh_up(cure, before_, a, &finding_);
    cures.push_back(std::move(cure));
  }

  const Design& design_;
  const Assessment& before_;
  const Finding& finding_;
  const Progress& progress_;
  bool called_off_ = false;
  double share_ = 0;
  bool failing_;
  Stations needed_;
  std::vector<KnobRef> knobs_, swaps_;
  std::vector<std::vector<Cure::Part>> found_;
};

}  // namespace

int cost_of(const Cure& c) {
  int sum = 0;
  for (const auto& p : c.worse) sum += p.after == Verdict::fails ? 10 : 3;
  for (const auto& p : c.better) sum -= p.before == Verdict::fails ? 4 : 1;
  return sum;
}

double effort_of(const Cure& cure) {
  double sum = 0;
  for (const auto& p : cure.parts) sum += p.knob->dear * std::abs(p.change) / p.knob->range() + 0.05;
  return sum;
}

std::vector<Cure> cures_for(const Design& design, const Assessment& before, const Finding& finding,
                            const CureSearch& search) {
  if (finding.verdict != Verdict::fails && finding.verdict != Verdict::tight) return {};
  Surgeon surgeon(design, before, finding, search);
  surgeon.singles();
  surgeon.exchanges();
  auto cures = surgeon.priced(search.most);
  const auto cheapest = [&] {
    int least = std::numeric_limits<int>::max();
    for (const auto& c : cures) least = std::min(least, cost_of(c));
    return least;
  };
  // In a drag pairs wait.
  if (finding.verdict == Verdict::fails && (cures.empty() || (cheapest() >= 10 && search.most > 10))) {
    surgeon.forget();
    surgeon.pairs();
    const int least = cheapest();
    for (auto& c : surgeon.priced(search.most))
      if (cost_of(c) < least) cures.push_back(std::move(c));
  }
  if (search.progress && !search.progress(1)) return {};
  std::stable_sort(cures.begin(), cures.end(), [&](const Cure& x, const Cure& y) {
    if (cost_of(x) != cost_of(y)) return cost_of(x) < cost_of(y);
    return effort_of(x) < effort_of(y);
  });
  return cures;
}

}  // namespace kranich
