// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/make_hold.h"

#include <nlopt.h>

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>
#include <limits>
#include <map>
#include <set>

namespace kranich {
namespace {

using Eigen::MatrixXd;
using Eigen::VectorXd;
constexpr double nan = std::numeric_limits<double>::quiet_NaN();

//! The checks of a design made linear: margins g + J·(u − u₀).
struct Model {
  VectorXd at, margin;
  MatrixXd slope;
};

//! The point of a linear model with the least change that meets every check but some, by the least shortfall
//! where they cannot be met.
struct Met {
  VectorXd u;
  double shortfall;
};

//! What NLopt's functions are handed.
struct Problem {
  const Model& model;
  const std::vector<int>& checks;
  const VectorXd& weight;
  double wanted;
};

double effort_and_shortfall(unsigned n, const double* x, double* slope, void* data) {
  const auto& p = *static_cast<Problem*>(data);
  double sum = 0;
  for (unsigned i = 0; i + 1 < n; ++i) {
    sum += p.weight[i] * x[i] * x[i];
    if (slope) slope[i] = 2 * p.weight[i] * x[i];
  }
  const double s = x[n - 1];
  if (slope) slope[n - 1] = 100 + 200 * s;
  return sum + 100 * s + 100 * s * s;
}

//! ≤ 0 where each check has the wanted margin, or is short of it by no more than the last variable.
void all_checks(unsigned m, double* result, unsigned n, const double* x, double* slope, void* data) {
  const auto& p = *static_cast<Problem*>(data);
  const Eigen::Map<const VectorXd> u(x, n - 1);
  for (unsigned k = 0; k < m; ++k) {
    const int j = p.checks[k];
    result[k] = p.wanted - x[n - 1] - p.model.margin[j] - p.model.slope.row(j).dot(u - p.model.at);
    if (!slope) continue;
    for (unsigned i = 0; i + 1 < n; ++i) slope[k * n + i] = -p.model.slope(j, i);
    slope[k * n + n - 1] = -1;
  }
}

//! Solves the linear model within bounds. Reweighted a few times, it moves few numbers instead of all a
//! little.
Met meet(const Model& model, const std::vector<int>& checks, const VectorXd& low, const VectorXd& high,
         double wanted, const VectorXd& dear) {
  const auto n = static_cast<unsigned>(model.at.size());
  VectorXd weight = dear;
  VectorXd x = VectorXd::Zero(n + 1);
  for (unsigned i = 0; i < n; ++i) x[i] = std::clamp(model.at[i], low[i], high[i]);
  double worst = 0;
  for (const int j : checks) worst = std::max(worst, wanted - model.margin[j]);
  x[n] = worst;
  constexpr int rounds = 4;
  for (int round = 0; round < rounds; ++round) {
    Problem problem{model, checks, weight, wanted};
    nlopt_opt opt = nlopt_create(NLOPT_LD_SLSQP, n + 1);
    VectorXd lower(n + 1), upper(n + 1);
    lower << low, 0;
    upper << high, std::max(10.0, 2 * worst);
    nlopt_set_lower_bounds(opt, lower.data());
    nlopt_set_upper_bounds(opt, upper.data());
    nlopt_set_min_objective(opt, effort_and_shortfall, &problem);
    const VectorXd tolerance = VectorXd::Constant(static_cast<long>(checks.size()), 1e-9);
    if (!checks.empty())
      nlopt_add_inequality_mconstraint(opt, static_cast<unsigned>(checks.size()), all_checks, &problem,
                                       tolerance.data());
    nlopt_set_ftol_rel(opt, 1e-8);
    nlopt_set_maxeval(opt, 200);
    VectorXd tried = x.cwiseMax(lower).cwiseMin(upper);
    double value = 0;
    const auto outcome = nlopt_optimize(opt, tried.data(), &value);
    nlopt_destroy(opt);
    if (outcome < 0 && outcome != NLOPT_ROUNDOFF_LIMITED) break;
    if (!tried.allFinite()) break;
    x = tried;
    for (unsigned i = 0; i < n; ++i) weight[i] = dear[i] * 0.02 / (std::abs(x[i]) + 0.02);
  }
  // What it says it lacks is not taken on trust.
  double shortfall = 0;
  const VectorXd u = x.head(n);
  for (const int j : checks)
    shortfall = std::max(shortfall, wanted - model.margin[j] - model.slope.row(j).dot(u - model.at));
  return {u, shortfall};
}

class Holder {
 public:
  Holder(const Design& design, const Assessment& before, const HoldSearch& search)
      : design_(design), before_(before), search_(search) {
    knobs_ = search.may_move ? *search.may_move : knobs_offered(design, before);
    std::erase_if(knobs_, [](const KnobRef& k) { return !k->choices.empty() || !(k->range() > 0); });
    dear_ = VectorXd::Ones(static_cast<long>(knobs_.size()));
    for (size_t i = 0; i < knobs_.size(); ++i) dear_[static_cast<long>(i)] = knobs_[i]->dear;
    for (const Finding* f : worst_of_each(before)) {
      if (f->verdict == Verdict::noted || f->verdict == Verdict::unknown) continue;
      keys_.push_back(f->check());
      if (f->verdict == Verdict::fails) failing_.push_back(*f);
    }
  }

  Holding run() {
    if (failing_.empty()) return {};
    // The quickest first: what the cures of each failing check do to all others, and one after the other.
    step_by_step();
    std::vector<char> allowed(knobs_.size(), true);
    // A different way does without what moves furthest in the one before; where that leaves none, without
    // what moves next furthest.
    std::vector<size_t> could_go;  // knobs of the last way, the furthest last
    for (size_t i = 0; i < search_.most && keep_on(0.3 + 0.2 * static_cast<double>(i)); ++i) {
      auto way = simplest(allowed);
      while (!way && could_go.size() > 1 && keep_on(share_)) {
        allowed[could_go.back()] = true;
        could_go.pop_back();
        allowed[could_go.back()] = false;
        way = simplest(allowed);
      }
      if (!way) break;
      could_go.clear();
      for (const auto& p : way->parts)
        could_go.push_back(
            static_cast<size_t>(std::find(knobs_.begin(), knobs_.end(), p.knob) - knobs_.begin()));
      std::erase(could_go, knobs_.size());
      if (could_go.empty()) break;
      const auto share = [&](size_t k) {
        const auto p = std::find_if(way->parts.begin(), way->parts.end(),
                                    [&](const auto& q) { return q.knob == knobs_[k]; });
        return std::abs(p->change) / p->knob->range();
      };
      std::sort(could_go.begin(), could_go.end(), [&](size_t x, size_t y) { return share(x) < share(y); });
      allowed[could_go.back()] = false;
    }
    if (called_off_) return {};
    Holding out;
    std::stable_sort(ways_.begin(), ways_.end(), [](const Cure& x, const Cure& y) {
      const auto tight = [](const Cure& c) { return c.worse.size(); };
      return 0.1 * static_cast<double>(tight(x)) + effort_of(x) <
             0.1 * static_cast<double>(tight(y)) + effort_of(y);
    });
    // One that moves all that a better one moves, and more, is no way of its own.
    const auto moves_all = [](const Cure& x, const Cure& of) {
      return std::all_of(of.parts.begin(), of.parts.end(), [&](const auto& p) {
        return std::any_of(x.parts.begin(), x.parts.end(),
                           [&](const auto& q) { return q.knob->id == p.knob->id; });
      });
    };
    for (auto& w : ways_)
      if (out.ways.size() < search_.most &&
          std::none_of(out.ways.begin(), out.ways.end(),
                       [&](const Cure& better) { return moves_all(w, better); }))
        out.ways.push_back(std::move(w));
    if (out.ways.empty()) say_why_not(out);
    out.assessments = assessments_;
    return out;
  }

 private:
  struct Trial {
    VectorXd margin;  //!< of every check, in the order of keys_; NaN where it is not known
    int failing = 0;
    double short_by = 0;  //!< of all that fail or have become unknown
    bool holds = false;
  };

  bool keep_on(double share) {
    share_ = std::max(share_, share);
    called_off_ = called_off_ || (search_.progress && !search_.progress(share_));
    return !called_off_;
  }

  std::vector<Cure::Part> parts_of(const VectorXd& u) const {
    std::vector<Cure::Part> parts;
    for (size_t i = 0; i < knobs_.size(); ++i) {
      const double v = u[static_cast<long>(i)] * knobs_[i]->range();
      if (std::abs(v) > 0.01 * knobs_[i]->step) parts.push_back({knobs_[i], v});
    }
    return parts;
  }
  Design applied(const std::vector<Cure::Part>& parts) const {
    Design d = design_;
    for (const auto& p : parts) p.knob->apply(d, p.change);
    return d;
  }

  //! Margins of a design; nothing where it cannot be built.
  std::optional<Trial> tried(const std::vector<Cure::Part>& parts) {
    const Design d = applied(parts);
    if (!buildable(design_, d)) return std::nullopt;
    ++assessments_;
    return judged(assess(d, {}, &before_));
  }
  Trial judged(const Assessment& a) {
    Trial t;
    t.margin = VectorXd::Constant(static_cast<long>(keys_.size()), 1);  // a check that is gone is met
    t.holds = true;
    for (const Finding* f : worst_of_each(a)) {
      const auto key = f->check();
      auto at = std::find(keys_.begin(), keys_.end(), key);
      const bool was_known = at != keys_.end();
      if (f->verdict == Verdict::noted || (f->verdict == Verdict::unknown && !was_known)) continue;
      if (!was_known) {  // it was noted or not there before: it must not fail now
        if (f->verdict != Verdict::fails) continue;
        keys_.push_back(key);
        t.margin.conservativeResize(static_cast<long>(keys_.size()));
        at = keys_.end() - 1;
      }
      const auto j = at - keys_.begin();
      double margin = f->margin_fraction;
      if (f->verdict == Verdict::unknown || !std::isfinite(margin))
        margin = f->verdict == Verdict::holds ? 1 : -1;
      if (f->verdict == Verdict::fails) margin = std::min(margin, -1e-9);
      t.margin[j] = margin;
      if (f->verdict != Verdict::fails && f->verdict != Verdict::unknown) continue;
      ++t.failing;
      t.holds = false;
      t.short_by += std::min(1.0, std::max(1e-3, -margin));
    }
    return t;
  }

  //! The checks about a point, made linear; nothing where the point itself cannot be built.
  std::optional<Model> linear_about(const VectorXd& u, const Trial& here, const std::vector<char>& allowed) {
    Model m{u, here.margin, MatrixXd::Zero(here.margin.size(), u.size())};
    for (long i = 0; i < u.size(); ++i) {
      if (!keep_on(share_)) return std::nullopt;
      if (!allowed[static_cast<size_t>(i)]) continue;
      const Knob& k = *knobs_[static_cast<size_t>(i)];
      const double step = std::max(2 * k.step / k.range(), 0.01);
      // One way, the other where it cannot go there.
      for (const double h : {step, -step}) {
        const double to = u[i] + h;
        if (to * k.range() > k.most || to * k.range() < k.least) continue;
        VectorXd moved = u;
        moved[i] = to;
        const auto there = tried(parts_of(moved));
        if (!there) continue;
        for (long j = 0; j < here.margin.size(); ++j) {
          const double slope = (there->margin[j] - here.margin[j]) / h;
          // Where one side has no number there is no slope.
          const bool known = std::abs(there->margin[j]) != 1 && std::abs(here.margin[j]) != 1;
          m.slope(j, i) = known && std::isfinite(slope) ? slope : 0;
        }
        break;
      }
    }
    return m;
  }

  std::pair<VectorXd, VectorXd> bounds(const VectorXd& about, double reach,
                                       const std::vector<char>& allowed) const {
    const auto n = static_cast<long>(knobs_.size());
    VectorXd low(n), high(n);
    for (long i = 0; i < n; ++i) {
      const Knob& k = *knobs_[static_cast<size_t>(i)];
      low[i] = std::max(k.least / k.range(), about[i] - reach);
      high[i] = std::min(k.most / k.range(), about[i] + reach);
      if (!allowed[static_cast<size_t>(i)]) low[i] = high[i] = 0;
    }
    return {low, high};
  }

  //! From the design in hand by linear models to where nothing fails; nothing where it does not get there.
  std::optional<VectorXd> descend(const std::vector<char>& allowed) {
    if (knobs_.empty()) return std::nullopt;
    VectorXd u = VectorXd::Zero(static_cast<long>(knobs_.size()));
    Trial here = judged(before_);
    std::optional<VectorXd> best;
    double reach = 0.5;
    for (int round = 0; round < 8; ++round) {
      const auto model = linear_about(u, here, allowed);
      if (!model) return std::nullopt;
      std::vector<int> checks(static_cast<size_t>(here.margin.size()));
      for (size_t j = 0; j < checks.size(); ++j) checks[j] = static_cast<int>(j);
      bool moved = false;
      for (int shorter = 0; shorter < 4 && !moved; ++shorter) {
        const auto [low, high] = bounds(u, reach, allowed);
        const Met met = meet(*model, checks, low, high, 2e-3, dear_);
        const auto there = tried(parts_of(met.u));
        const bool gains = there && (best ? there->holds && met.u.lpNorm<1>() < 0.98 * best->lpNorm<1>()
                                          : there->short_by < 0.98 * here.short_by || there->holds);
        if (gains) {
          u = met.u;
          here = *there;
          moved = true;
        } else {
          reach *= 0.4;
        }
      }
      note_nearest(u, here);
      if (here.holds) {
        const bool first_time = !best;
        best = u;
        if (!first_time || !moved) break;  // once more about it, for less
        continue;
      }
      if (!moved) break;
    }
    return best;
  }

  //! The same with as few numbers as do it: those that moved furthest, one, then two, then three of them.
  std::optional<Cure> simplest(const std::vector<char>& allowed) {
    const auto all = descend(allowed);
    if (!all) return std::nullopt;
    std::vector<size_t> order;
    for (size_t i = 0; i < knobs_.size(); ++i)
      if (std::abs((*all)[static_cast<long>(i)]) > 1e-9) order.push_back(i);
    std::sort(order.begin(), order.end(), [&](size_t x, size_t y) {
      return std::abs((*all)[static_cast<long>(x)]) * knobs_[x]->dear >
             std::abs((*all)[static_cast<long>(y)]) * knobs_[y]->dear;
    });
    std::vector<char> few(knobs_.size(), false);
    for (size_t n = 0; n < std::min<size_t>(4, order.size()) && n + 1 < order.size(); ++n) {
      few[order[n]] = true;
      if (n == 0 && failing_.size() > 1) continue;
      if (const auto u = descend(few))
        if (auto cure = finish(parts_of(*u))) return cure;
    }
    return finish(parts_of(*all));
  }

  //! Takes back what is not needed, brings each part to the least that does it, in steps that can be built.
  std::optional<Cure> finish(std::vector<Cure::Part> parts) {
    const auto holds = [&](const std::vector<Cure::Part>& p) {
      const auto t = tried(p);
      return t && t->holds;
    };
    const auto by_share = [](const Cure::Part& x, const Cure::Part& y) {
      return std::abs(x.change) / x.knob->range() < std::abs(y.change) / y.knob->range();
    };
    std::sort(parts.begin(), parts.end(), by_share);
    for (size_t i = 0; i < parts.size() && parts.size() > 1 && keep_on(share_);) {
      auto without = parts;
      without.erase(without.begin() + static_cast<long>(i));
      if (holds(without))
        parts = without;
      else
        ++i;
    }
    for (auto& p : parts) p.change = outward(*p.knob, p.change);
    if (!holds(parts)) {
      // Rounding broke something that just held: a step or two on, in any of them.
      bool mended = false;
      for (size_t i = 0; i < parts.size() && !mended; ++i)
        for (const double by : {-1.0, 1.0, 2.0, -2.0}) {
          auto other = parts;
          other[i].change += by * parts[i].knob->step;
          if (!reaches(other[i]) || !holds(other)) continue;
          parts = other;
          mended = true;
          break;
        }
      if (!mended) return std::nullopt;
    }
    std::sort(parts.begin(), parts.end(), [&](const auto& x, const auto& y) { return by_share(y, x); });
    for (size_t i = 0; i < parts.size() && keep_on(share_); ++i) {
      const Knob& k = *parts[i].knob;
      const double sign = parts[i].change < 0 ? -1 : 1;
      long enough = std::lround(std::abs(parts[i].change) / k.step);
      long too_little = 0;
      while (enough - too_little > 1) {
        const long middle = (enough + too_little) / 2;
        auto less = parts;
        less[i].change = sign * static_cast<double>(middle) * k.step;
        if (holds(less))
          enough = middle;
        else
          too_little = middle;
      }
      parts[i].change = sign * static_cast<double>(enough) * k.step;
    }
    return keep(std::move(parts));
  }

  //! A way is kept only as what its own assessment says.
  std::optional<Cure> keep(std::vector<Cure::Part> parts) {
    if (parts.empty()) return std::nullopt;
    const Design d = applied(parts);
    if (!buildable(design_, d)) return std::nullopt;
    ++assessments_;
    const Assessment after = assess(d, {}, &before_);
    if (!judged(after).holds) return std::nullopt;
    Cure cure;
    cure.parts = std::move(parts);
    weigh_up(cure, before_, after, nullptr);
    if (ways_.empty() && search_.first) search_.first(cure);
    ways_.push_back(cure);
    return cure;
  }

  //! The cures of each failing check, and from the first of each on to what still fails then.
  void step_by_step() {
    std::vector<std::pair<std::vector<Cure::Part>, size_t>> open;  // parts so far, steps taken
    const auto look = [&](const Assessment& a, const Design& d, const std::vector<Cure::Part>& so_far) {
      const Finding* worst = nullptr;
      for (const Finding* f : worst_of_each(a))
        if (f->verdict == Verdict::fails && (!worst || worse(*f, *worst))) worst = f;
      std::vector<Cure> cures;
      if (worst)
        for (auto& c : cures_for(d, a, *worst, {12, search_.stock, [&](double) { return keep_on(share_); }}))
          if (may_move(c)) cures.push_back(std::move(c));
      // Parts of one knob add up; a part once exchanged stays.
      std::vector<std::vector<Cure::Part>> next;
      for (const auto& c : cures) {
        auto parts = so_far;
        for (const auto& p : c.parts) add(parts, p);
        next.push_back(std::move(parts));
      }
      return next;
    };
    // Every cure of every failing check by itself.
    for (const Finding& f : failing_) {
      if (!keep_on(share_)) return;
      for (const auto& c :
           cures_for(design_, before_, f, {20, search_.stock, [&](double) { return keep_on(share_); }})) {
        if (!may_move(c)) continue;
        const bool breaks = std::any_of(c.worse.begin(), c.worse.end(),
                                        [](const Price& p) { return p.after != Verdict::tight; });
        size_t cured = 1;
        for (const auto& p : c.better) cured += p.before == Verdict::fails;
        if (!breaks && cured >= failing_.size()) keep(c.parts);
      }
    }
    share_ = std::max(share_, 0.1);
    // One after the other, two to choose from at the first step.
    auto starts = look(before_, design_, {});
    size_t taken = 1;
    // What is only wired otherwise leaves numbers as they are: it is done before the ways part.
    while (!starts.empty() && starts.front().back().knob->id.starts_with("logic.") && keep_on(share_)) {
      auto wired = starts.front();
      const Design d = applied(wired);
      ++assessments_;
      const Assessment a = assess(d, {}, &before_);
      if (judged(a).holds) break;
      auto next = look(a, d, wired);
      if (next.empty()) break;
      starts = std::move(next);
      ++taken;
    }
    for (auto& first : starts) {
      if (open.size() >= 2) break;
      open.push_back({std::move(first), taken});
    }
    for (auto& [parts, steps] : open) {
      while (steps < std::min<size_t>(failing_.size() + 3, 8) && keep_on(share_)) {
        const Design d = applied(parts);
        ++assessments_;
        const Assessment a = assess(d, {}, &before_);
        const Trial t = judged(a);
        if (t.holds) {
          finish(parts);
          break;
        }
        auto next = look(a, d, parts);
        if (next.empty()) break;
        parts = std::move(next.front());
        ++steps;
      }
    }
  }

  bool may_move(const Cure& c) const {
    return !search_.may_move || std::all_of(c.parts.begin(), c.parts.end(), [&](const Cure::Part& p) {
      return !p.knob->choices.empty() || std::any_of(search_.may_move->begin(), search_.may_move->end(),
                                                     [&](const KnobRef& k) { return k->id == p.knob->id; });
    });
  }
  static void add(std::vector<Cure::Part>& parts, const Cure::Part& more) {
    for (auto& p : parts)
      if (p.knob->id == more.knob->id) {
        p.change = p.knob->choices.empty() ? p.change + more.change : more.change;
        if (!p.knob->choices.empty()) p.knob = more.knob;
        return;
      }
    parts.push_back(more);
  }

  void note_nearest(const VectorXd& u, const Trial& t) {
    if (t.short_by >= nearest_short_) return;
    nearest_short_ = t.short_by;
    nearest_ = u;
  }

  //! The limits that cannot be met together: about the nearest point, as few as do not go together there.
  void say_why_not(Holding& out) {
    VectorXd u = nearest_.size() ? nearest_ : VectorXd::Zero(static_cast<long>(knobs_.size()));
    auto parts = parts_of(u);
    for (auto& p : parts) p.change = std::clamp(outward(*p.knob, p.change), p.knob->least, p.knob->most);
    ++assessments_;
    const Assessment there = assess(applied(parts), {}, &before_);
    std::map<std::string, const Finding*> found;
    for (const Finding* f : worst_of_each(there)) found[f->check()] = f;
    if (!parts.empty() && nearest_short_ < judged(before_).short_by) {
      Cure nearest;
      nearest.parts = parts;
      weigh_up(nearest, before_, there, nullptr);
      out.nearest = std::move(nearest);
    }
    const std::vector<char> all(knobs_.size(), true);
    const Trial here = judged(there);
    if (const auto model = linear_about(u, here, all)) {
      const auto [low, high] = bounds(u, 10, all);
      std::vector<int> checks;
      for (long j = 0; j < here.margin.size(); ++j)
        if (here.margin[j] < 0 || model->slope.row(j).cwiseAbs().maxCoeff() > 1e-6)
          checks.push_back(static_cast<int>(j));
      const auto together = [&](const std::vector<int>& c) {
        return meet(*model, c, low, high, 0, dear_).shortfall < 1e-4;
      };
      if (!together(checks)) {
        for (size_t k = 0; k < checks.size() && keep_on(0.95);) {
          auto without = checks;
          without.erase(without.begin() + static_cast<long>(k));
          if (together(without))
            ++k;
          else
            checks = without;
        }
        out.contradict = true;
        for (const int j : checks)
          if (const auto f = found.find(keys_[static_cast<size_t>(j)]); f != found.end())
            out.against.push_back(*f->second);
      }
    }
    if (out.against.empty()) {
      out.contradict = false;
      for (const auto& [key, f] : found)
        if (f->verdict == Verdict::fails) out.against.push_back(*f);
    }
  }

  const Design& design_;
  const Assessment& before_;
  const HoldSearch& search_;
  std::vector<KnobRef> knobs_;
  VectorXd dear_;
  std::vector<std::string> keys_;  //!< of every check with a limit
  std::vector<Finding> failing_;
  std::vector<Cure> ways_;
  VectorXd nearest_;
  double nearest_short_ = std::numeric_limits<double>::infinity();
  bool called_off_ = false;
  double share_ = 0;
  int assessments_ = 0;
};

}  // namespace

std::vector<KnobRef> knobs_offered(const Design& design, const Assessment& before) {
  std::vector<KnobRef> offered;
  std::set<std::string> seen;
  for (const Finding* f : worst_of_each(before))
    if (f->verdict == Verdict::fails)
      for (auto& k : knobs_for(design, f->measure_id))
        if (seen.insert(k->id).second) offered.push_back(std::move(k));
  return offered;
}

Holding make_hold(const Design& design, const Assessment& before, const HoldSearch& search) {
  return Holder(design, before, search).run();
}

}  // namespace kranich
