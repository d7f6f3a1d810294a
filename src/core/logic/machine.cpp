// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logic/machine.h"

#include <algorithm>
#include <boost/unordered_map.hpp>
#include <optional>

namespace kranich::logic {
namespace {

//! A state is one number: the values of all variables in a mixed base.
using Code = std::uint64_t;

//! A pattern made fast: for each variable that it names a mask of the values allowed.
struct Test {
  std::vector<std::pair<size_t, std::uint64_t>> allowed;
  bool impossible = false;
};

class Compiled {
 public:
  explicit Compiled(const Machine& machine) : m_(machine) {
    Code base = 1;
    for (const Variable& v : m_.variables) {
      base_.push_back(base);
      base *= v.values.size();
    }
  }

  size_t variable(const std::string& name) const {
    for (size_t i = 0; i < m_.variables.size(); ++i)
      if (m_.variables[i].name == name) return i;
    return m_.variables.size();
  }
  size_t value(size_t variable, const std::string& word) const {
    const auto& values = m_.variables[variable].values;
    return static_cast<size_t>(std::find(values.begin(), values.end(), word) - values.begin());
  }
  size_t of(Code state, size_t variable) const {
    return static_cast<size_t>(state / base_[variable] % m_.variables[variable].values.size());
  }
  Code with(Code state, size_t variable, size_t value) const {
    return state + (value - of(state, variable)) * base_[variable];
  }
  //! The tests of a pattern; one that names outputs is several: any of the output's own.
  std::vector<Test> tests(const Pattern& pattern) const {
    std::vector<Test> list(1);
    for (const auto& [name, words] : pattern) {
      const size_t v = variable(name);
      if (v < m_.variables.size()) {
        std::uint64_t mask = 0;
        for (const auto& w : words) mask |= std::uint64_t{1} << value(v, w);
        for (Test& t : list) narrow(t, v, mask);
        continue;
      }
      const auto output = std::find_if(m_.outputs.begin(), m_.outputs.end(),
                                       [&, &n = name](const Output& o) { return o.name == n; });
      const bool lit = std::find(words.begin(), words.end(), "true") != words.end();
      const bool dark = std::find(words.begin(), words.end(), "false") != words.end();
      if (output == m_.outputs.end() || (lit && dark)) continue;
      std::vector<Test> next;
      for (const Test& t : list) {
        if (lit) {
          for (const Pattern& row : output->when) {
            for (const Test& r : tests(row)) {
              Test both = t;
              for (const auto& [variable_of, mask] : r.allowed) narrow(both, variable_of, mask);
              next.push_back(std::move(both));
            }
          }
        } else {
          // None of its rows: of each, one of the variables that it names is otherwise.
          std::vector<Test> none{t};
          for (const Pattern& row : output->when) {
            std::vector<Test> spread;
            for (const Test& have : none)
              for (const auto& [row_name, row_words] : row) {
                const size_t rv = variable(row_name);
                std::uint64_t mask = 0;
                for (const auto& w : row_words) mask |= std::uint64_t{1} << value(rv, w);
                Test other = have;
                narrow(other, rv, ~mask);
                spread.push_back(std::move(other));
              }
            none = std::move(spread);
          }
          next.insert(next.end(), none.begin(), none.end());
        }
      }
      list = std::move(next);
    }
    return list;
  }
  std::vector<Test> any_of(const std::vector<Pattern>& patterns) const {
    std::vector<Test> list;
    for (const Pattern& p : patterns) {
      auto more = tests(p);
      list.insert(list.end(), more.begin(), more.end());
    }
    return list;
  }
  bool holds(const std::vector<Test>& any, Code state) const {
    return std::any_of(any.begin(), any.end(), [&](const Test& t) {
      return std::all_of(t.allowed.begin(), t.allowed.end(),
                         [&](const auto& a) { return (a.second >> of(state, a.first)) & 1; });
    });
  }
  Code initial() const {
    Code state = 0;
    for (const auto& [name, word] : m_.initial) {
      const size_t v = variable(name);
      state = with(state, v, value(v, word));
    }
    return state;
  }

 private:
  static void narrow(Test& t, size_t variable, std::uint64_t mask) {
    for (auto& [v, allowed] : t.allowed)
      if (v == variable) {
        allowed &= mask;
        return;
      }
    t.allowed.emplace_back(variable, mask);
  }
  const Machine& m_;
  std::vector<Code> base_;
};

struct Move {
  bool by_operator;
  std::vector<Test> when;  //!< any of them; none: always
  std::vector<std::pair<size_t, size_t>> set;
  size_t event;
};

//! Which states of a graph lie on a cycle (Tarjan, without recursion).
std::vector<bool> on_cycles(const std::vector<std::vector<std::uint32_t>>& next) {
  const size_t n = next.size();
  constexpr std::uint32_t none = 0xffffffff;
  std::vector<std::uint32_t> index(n, none);
  std::vector<std::uint32_t> low(n, 0);
  std::vector<bool> stacked(n, false);
  std::vector<bool> cyclic(n, false);
  std::vector<std::uint32_t> stack;
  std::uint32_t counter = 0;
  struct Frame {
    std::uint32_t at;
    size_t child;
  };
  for (std::uint32_t root = 0; root < n; ++root) {
    if (index[root] != none) continue;
    std::vector<Frame> frames{{root, 0}};
    while (!frames.empty()) {
      const std::uint32_t at = frames.back().at;
      if (frames.back().child == 0 && index[at] == none) {
        index[at] = low[at] = counter++;
        stack.push_back(at);
        stacked[at] = true;
      }
      if (frames.back().child < next[at].size()) {
        const std::uint32_t to = next[at][frames.back().child++];
        if (index[to] == none)
          frames.push_back({to, 0});
        else if (stacked[to])
          low[at] = std::min(low[at], index[to]);
        continue;
      }
      if (low[at] == index[at]) {
        std::vector<std::uint32_t> together;
        do {
          together.push_back(stack.back());
          stacked[stack.back()] = false;
          stack.pop_back();
        } while (together.back() != at);
        if (together.size() > 1)
          for (const auto s : together) cyclic[s] = true;
      }
      frames.pop_back();
      if (!frames.empty()) low[frames.back().at] = std::min(low[frames.back().at], low[at]);
    }
  }
  return cyclic;
}

}  // namespace

std::vector<std::string> faults_in(const Machine& m) {
  std::vector<std::string> faults;
  const auto find = [&](const std::string& name) -> const Variable* {
    for (const auto& v : m.variables)
      if (v.name == name) return &v;
    return nullptr;
  };
  const auto has = [](const Variable& v, const std::string& word) {
    return std::find(v.values.begin(), v.values.end(), word) != v.values.end();
  };
  const auto value = [&](const std::string& name, const std::string& word, const std::string& where) {
    const Variable* v = find(name);
    if (!v)
      faults.push_back(where + ": there is no \"" + name + "\"");
    else if (!has(*v, word))
      faults.push_back(where + ": \"" + name + "\" is never \"" + word + "\"");
  };
  const auto pattern = [&](const Pattern& p, const std::string& where, bool outputs) {
    for (const auto& [name, words] : p) {
      const bool lamp = outputs && std::any_of(m.outputs.begin(), m.outputs.end(),
                                               [&, &n = name](const Output& o) { return o.name == n; });
      for (const auto& w : words) {
        if (!lamp)
          value(name, w, where);
        else if (w != "true" && w != "false")
          faults.push_back(where + ": \"" + name + "\" is true or false, not \"" + w + "\"");
      }
    }
  };
  double size = 1;
  for (const auto& v : m.variables) {
    size *= static_cast<double>(v.values.size());
    if (v.values.empty() || v.values.size() > 64)
      faults.push_back("\"" + v.name + "\" must have 1 to 64 values");
    if (!m.initial.count(v.name)) faults.push_back("the start does not say how \"" + v.name + "\" is");
  }
  if (size > 1e18) faults.push_back("too many variables: more than 10^18 states");
  for (const auto& [name, word] : m.initial) value(name, word, "start");
  for (const auto& e : m.events) {
    for (const auto& p : e.when) pattern(p, e.name, false);
    for (const auto& [name, word] : e.set) value(name, word, e.name);
  }
  for (const auto& o : m.outputs)
    for (const auto& p : o.when) pattern(p, o.name, false);
  for (const auto& p : m.properties)
    for (const auto& one : p.pattern) pattern(one, p.name, true);
  for (const auto& f : m.faults) {
    for (const auto& [name, word] : f.hold) value(name, word, f.name);
    for (const auto& gone : f.removed)
      if (std::none_of(m.events.begin(), m.events.end(), [&](const Event& e) { return e.name == gone; }))
        faults.push_back(f.name + ": there is no event \"" + gone + "\"");
  }
  return faults;
}

Exploration explore(const Machine& m, const std::vector<const Fault*>& broken,
                    const std::function<bool()>& keep_going, size_t most) {
  Exploration out;
  for (const Fault* f : broken) out.fault += (out.fault.empty() ? "" : " and ") + f->name;
  if (!faults_in(m).empty()) {
    out.complete = false;
    return out;
  }
  const Compiled c(m);
  std::vector<bool> held(m.variables.size(), false);
  Code start = c.initial();
  for (const Fault* f : broken)
    for (const auto& [name, word] : f->hold) {
      const size_t v = c.variable(name);
      held[v] = true;
      start = c.with(start, v, c.value(v, word));
    }
  std::vector<Move> moves;
  for (size_t i = 0; i < m.events.size(); ++i) {
    const Event& e = m.events[i];
    const bool gone = std::any_of(broken.begin(), broken.end(), [&](const Fault* f) {
      return std::find(f->removed.begin(), f->removed.end(), e.name) != f->removed.end();
    });
    if (gone) continue;
    Move move{e.by_operator, c.any_of(e.when), {}, i};
    for (const auto& [name, word] : e.set) {
      const size_t v = c.variable(name);
      if (!held[v]) move.set.emplace_back(v, c.value(v, word));
    }
    moves.push_back(std::move(move));
  }

  // Breadth first: each state is met by the fewest events.
  struct Met {
    Code code;
    std::uint32_t from, event, depth;
  };
  std::vector<Met> met{{start, 0, 0, 0}};
  boost::unordered_map<Code, std::uint32_t> known{{start, 0}};
  std::vector<std::vector<std::uint32_t>> machine_next(1);
  for (size_t at = 0; at < met.size(); ++at) {
    if (met.size() > most || (keep_going && at % 4096 == 4095 && !keep_going())) {
      out.complete = false;
      break;
    }
    const Met here = met[at];
    for (const Move& move : moves) {
      if (!move.when.empty() && !c.holds(move.when, here.code)) continue;
      Code to = here.code;
      for (const auto& [v, value] : move.set) to = c.with(to, v, value);
      if (to == here.code) continue;
      const auto [it, is_new] = known.emplace(to, static_cast<std::uint32_t>(met.size()));
      if (is_new) {
        met.push_back(
            {to, static_cast<std::uint32_t>(at), static_cast<std::uint32_t>(move.event), here.depth + 1});
        machine_next.emplace_back();
      }
      if (!move.by_operator) machine_next[at].push_back(it->second);
    }
  }
  out.states = met.size();
  for (const Met& s : met) out.depth = std::max<size_t>(out.depth, s.depth);

  const auto run_to = [&](size_t at) {
    std::vector<std::string> run;
    for (size_t i = at; met[i].depth > 0; i = met[i].from) run.push_back(m.events[met[i].event].name);
    std::reverse(run.begin(), run.end());
    return run;
  };
  for (const Property& p : m.properties) {
    Outcome o{p.name, false, {}, false};
    const auto pattern = c.any_of(p.pattern);
    // One without a pattern is about every state.
    const auto matches = [&](size_t i) { return p.pattern.empty() || c.holds(pattern, met[i].code); };
    std::optional<size_t> first;
    if (p.demand == Demand::never) {
      for (size_t i = 0; i < met.size() && !first; ++i)
        if (matches(i)) first = i;
    } else {
      std::vector<std::vector<std::uint32_t>> inside(met.size());
      const bool everywhere = p.demand == Demand::settles;
      for (size_t i = 0; i < met.size(); ++i) {
        if (!everywhere && !matches(i)) continue;
        for (const auto to : machine_next[i])
          if (everywhere || matches(to)) inside[i].push_back(to);
      }
      const auto cyclic = on_cycles(inside);
      for (size_t i = 0; i < met.size() && !first; ++i) {
        const bool stands = !everywhere && matches(i) && machine_next[i].empty();
        if (!cyclic[i] && !stands) continue;
        first = i;
        o.by_cycle = cyclic[i];
      }
    }
    if (first) {
      o.violated = true;
      o.run = run_to(*first);
    }
    out.outcomes.push_back(std::move(o));
  }
  return out;
}

}  // namespace kranich::logic
