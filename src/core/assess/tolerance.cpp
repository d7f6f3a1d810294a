// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/tolerance.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "core/model/guess.h"
#include "core/model/locate.h"

namespace kranich {
namespace {

using Key = std::pair<std::string, std::string>;

//! The worst finding of each check, by measure and subject.
std::map<Key, const Finding*> worst_by_key(const Assessment& a) {
  std::map<Key, const Finding*> worst;
  for (const Finding* f : worst_of_each(a)) worst[{f->measure_id, f->subject.key}] = f;
  return worst;
}

struct Ends {
  double down, up;  //!< change of the value at the input's two ends
  Verdict at_down, at_up;
};

//! What is wired does not change by a millimetre: it is proved for the design as it stands.
Stations all_but_logic() {
  Stations all;
  all.bits &= ~station_bit(Station::logic);
  return all;
}

Design with(const Design& d, const std::vector<NamedGiven>& inputs, const std::vector<int>& signs) {
  Design changed = d;
  for (size_t i = 0; i < inputs.size(); ++i)
    if (signs[i] != 0) {
      auto at = locate_given(changed, inputs[i].path);
      // No further than what is allowed of the number.
      const double was = at->given->si;
      at->given->si = std::clamp(was + signs[i] * inputs[i].given.tolerance, at->spec.least, at->spec.most);
      if (at->given->origin == Origin::guessed) carry_from(changed, inputs[i].path, at->given->si - was);
    }
  return changed;
}

}  // namespace

const Spread* ToleranceResult::of(const Finding& f) const {
  for (const auto& s : spreads)
    if (s.measure_id == f.measure_id && s.subject == f.subject) return &s;
  return nullptr;
}

ToleranceResult over_tolerances(const Design& d, const Assessment& a, const Progress& progress) {
  ToleranceResult result;
  std::vector<NamedGiven> inputs;
  for (auto& g : all_given(d))
    if (g.given.known() && g.given.tolerance > 0 && g.path.rfind("/own_limits", 0) != 0)
      inputs.push_back(std::move(g));
  result.inputs = static_cast<int>(inputs.size());
  for (const auto& i : inputs) result.paths.push_back(i.path);
  if (inputs.empty()) return result;
  const auto now = worst_by_key(a);
  std::vector<std::map<Key, Ends>> effects(inputs.size());
  const auto keep_on = [&](double share) {
    if (!progress || progress(share)) return true;
    result.cancelled = true;
    return false;
  };
  for (size_t i = 0; i < inputs.size(); ++i) {
    if (!keep_on(0.8 * static_cast<double>(i) / static_cast<double>(inputs.size()))) return result;
    for (const int sign : {-1, 1}) {
      std::vector<int> signs(inputs.size(), 0);
      signs[i] = sign;
      const Assessment there = assess(with(d, inputs, signs), all_but_logic(), &a);
      for (const auto& [key, f] : worst_by_key(there)) {
        const auto was = now.find(key);
        if (was == now.end() || !std::isfinite(f->value) || !std::isfinite(was->second->value)) continue;
        auto& ends = effects[i].try_emplace(key, Ends{0, 0, Verdict::noted, Verdict::noted}).first->second;
        (sign < 0 ? ends.down : ends.up) = f->value - was->second->value;
        (sign < 0 ? ends.at_down : ends.at_up) = f->verdict;
      }
    }
  }
  // Loadings may change places as the worst one: a check's own figures are followed, not one loading's.
  std::map<std::vector<int>, Assessment> corners;  // a corner serves every check that is worst there
  int left = 40;
  for (const auto& [key, f] : now) {
    if (!std::isfinite(f->value)) continue;
    Spread s{f->measure_id, f->subject, f->loading, f->value, f->value, f->verdict, {}, {}, {}};
    std::vector<int> lower(inputs.size(), 0);
    std::vector<int> raise(inputs.size(), 0);
    for (size_t i = 0; i < inputs.size(); ++i) {
      const auto e = effects[i].find(key);
      if (e == effects[i].end()) continue;
      const Ends& ends = e->second;
      const double down = std::min({0.0, ends.down, ends.up});
      const double up = std::max({0.0, ends.down, ends.up});
      s.low += down;
      s.high += up;
      if (down < 0) lower[i] = ends.down < ends.up ? -1 : 1;
      if (up > 0) raise[i] = ends.down > ends.up ? -1 : 1;
      if (down < 0 || up > 0) s.effects.push_back({i, down, up});
      const double effect = std::max(-down, up);
      if (effect > 1e-12 * (1 + std::abs(f->value)))
        s.influences.push_back(
            {inputs[i].path, inputs[i].title(), effect, inputs[i].given.origin == Origin::undecided});
      if (inputs[i].given.origin == Origin::undecided &&
          (severity(ends.at_down) != severity(f->verdict) || severity(ends.at_up) != severity(f->verdict)))
        s.hangs_on.push_back(inputs[i].title());
    }
    std::sort(s.influences.begin(), s.influences.end(),
              [](const Influence& x, const Influence& y) { return x.effect > y.effect; });
    if (s.influences.size() > 4) s.influences.resize(4);
    for (const auto& [signs, value] : {std::pair{lower, s.low}, std::pair{raise, s.high}}) {
      if (!f->limit.set() || value == f->value) continue;
      const auto linear = judge(value, f->limit, f->info().zero_scale);
      if (severity(linear.verdict) <= severity(s.over_box)) continue;
      auto at = corners.find(signs);
      if (at == corners.end()) {
        if (--left < 0) {  // told by the sum alone
          s.over_box = linear.verdict;
          continue;
        }
        if (!keep_on(0.8 + 0.005 * (40 - left))) return result;
        at = corners.emplace(signs, assess(with(d, inputs, signs), all_but_logic(), &a)).first;
      }
      const auto there = worst_by_key(at->second);
      const auto corner = there.find(key);
      if (corner != there.end() && severity(corner->second->verdict) > severity(s.over_box))
        s.over_box = corner->second->verdict;
    }
    // Closer to its limit than the build's own spread is tight, whatever a tenth of the limit says.
    if (s.over_box == Verdict::holds && std::isfinite(f->margin) && f->margin < s.effect())
      s.over_box = Verdict::tight;
    result.spreads.push_back(std::move(s));
  }
  result.corners = static_cast<int>(corners.size());
  return result;
}

std::vector<Waiting> waiting_for_decisions(const Design& d, const ToleranceResult& result) {
  std::vector<Waiting> list;
  for (const auto& g : all_given(d)) {
    if (g.given.origin != Origin::undecided) continue;
    Waiting w{g.path, g.title(), "", "", g.given.si, g.given.tolerance, std::nan(""), {}};
    for (const auto& decision : d.decisions)
      if (decision.path == g.path) {
        w.name = decision.name;
        w.waits_for = decision.waits_for;
        w.spare = decision.spare;
      }
    for (const auto& s : result.spreads)
      for (const auto& i : s.influences)
        if (i.path == g.path) {
          w.findings.emplace_back(measure(s.measure_id).title);
          break;
        }
    list.push_back(std::move(w));
  }
  return list;
}

}  // namespace kranich
