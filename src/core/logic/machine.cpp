// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logic/machine.h"

#include <tsl/robin_map.h>

#include <algorithm>
#include <optional>
#include <variant>

namespace kranich::logic {
namespace {

//! A state is a set of bits, one for each value of each variable that can change: a test of any number of
//! variables is then one look at each word.
template <size_t words>
struct Bits {
  std::uint64_t word[words]{};
  std::uint64_t& operator[](size_t i) { return word[i]; }
  std::uint64_t operator[](size_t i) const { return word[i]; }
  // By word: the array's own goes through memcmp, a fifth of all the time.
  bool operator==(const Bits& other) const {
    for (size_t i = 0; i < words; ++i)
      if (word[i] != other.word[i]) return false;
    return true;
  }
};

template <size_t words>
struct Hash {
  size_t operator()(const Bits<words>& b) const {
    // Multiplied by an odd number near 2⁶⁴ divided by the golden ratio, folded: spreads neighbouring bits.
    std::uint64_t seed = 0;
    for (const auto w : b.word) {
      seed = (seed ^ w) * 0x9e3779b97f4a7c15u;
      seed ^= seed >> 32;
    }
    return seed;
  }
};

//! What the names of a machine mean.
class Names {
 public:
  explicit Names(const Machine& machine) : m_(machine) {
    for (size_t i = 0; i < m_.variables.size(); ++i) at_.emplace(m_.variables[i].name, i);
  }
  size_t variable(const std::string& name) const {
    const auto it = at_.find(name);
    return it == at_.end() ? m_.variables.size() : it->second;
  }
  size_t value(size_t variable, const std::string& word) const {
    const auto& values = m_.variables[variable].values;
    return static_cast<size_t>(std::find(values.begin(), values.end(), word) - values.begin());
  }
  const Output* output(const std::string& name) const {
    for (const auto& o : m_.outputs)
      if (o.name == name) return &o;
    return nullptr;
  }

 private:
  const Machine& m_;
  std::map<std::string, size_t> at_;
};

//! Edges of a graph, those of one state after those of the one before.
struct Edges {
  std::vector<std::uint32_t> to, first{0};
};

//! Which states of a graph, of those that are members, lie on a cycle of members (Tarjan, no recursion).
std::vector<bool> on_cycles(const Edges& edges, const std::vector<bool>& member) {
  const size_t n = member.size();
  constexpr std::uint32_t none = 0xffffffff;
  std::vector<std::uint32_t> index(n, none);
  std::vector<std::uint32_t> low(n, 0);
  std::vector<bool> stacked(n, false);
  std::vector<bool> cyclic(n, false);
  std::vector<std::uint32_t> stack;
  std::uint32_t counter = 0;
  struct Frame {
    std::uint32_t at, child;
  };
  std::vector<Frame> frames;
  for (std::uint32_t root = 0; root < n; ++root) {
    if (!member[root] || index[root] != none) continue;
    frames.push_back({root, edges.first[root]});
    while (!frames.empty()) {
      const std::uint32_t at = frames.back().at;
      if (index[at] == none) {
        index[at] = low[at] = counter++;
        stack.push_back(at);
        stacked[at] = true;
      }
      if (frames.back().child < edges.first[at + 1]) {
        const std::uint32_t to = edges.to[frames.back().child++];
        if (!member[to]) continue;
        if (index[to] == none)
          frames.push_back({to, edges.first[to]});
        else if (stacked[to])
          low[at] = std::min(low[at], index[to]);
        continue;
      }
      if (low[at] == index[at]) {
        const bool several = stack.back() != at;
        std::uint32_t last = none;
        do {
          last = stack.back();
          cyclic[last] = several;
          stacked[last] = false;
          stack.pop_back();
        } while (last != at);
      }
      frames.pop_back();
      if (!frames.empty()) low[frames.back().at] = std::min(low[frames.back().at], low[at]);
    }
  }
  return cyclic;
}

//! A machine with some faults, made ready: what cannot change is put in once and for all.
struct Broken {
  const Machine& machine;
  Names names;
  std::vector<size_t> start;        //!< value of each variable
  std::vector<bool> held;           //!< by a fault
  std::vector<const Event*> moves;  //!< that are possible at all
  std::vector<int> first_bit;       //!< of each variable's values; -1: it never changes
  size_t bits = 0;

  //! `before`: the same machine with fewer faults, whose bits stay where they are.
  Broken(const Machine& m, const std::vector<const Fault*>& faults, const Broken* before = nullptr)
      : machine(m), names(m), start(m.variables.size()), held(m.variables.size(), false) {
    for (const auto& [name, word] : m.initial) {
      const size_t v = names.variable(name);
      start[v] = names.value(v, word);
    }
    for (const Fault* f : faults)
      for (const auto& [name, word] : f->hold) {
        const size_t v = names.variable(name);
        held[v] = true;
        start[v] = names.value(v, word);
      }
    std::vector<bool> changes(m.variables.size(), false);
    for (const Event& e : m.events) {
      const bool gone = std::any_of(faults.begin(), faults.end(), [&](const Fault* f) {
        return std::find(f->removed.begin(), f->removed.end(), e.name) != f->removed.end();
      });
      const bool asked = e.fault.empty() || std::any_of(faults.begin(), faults.end(),
                                                        [&](const Fault* f) { return f->name == e.fault; });
      if (gone || !asked) continue;
      moves.push_back(&e);
      for (const auto& [name, word] : e.set) {
        const size_t v = names.variable(name);
        if (!held[v] && names.value(v, word) != start[v]) changes[v] = true;
      }
    }
    first_bit.assign(m.variables.size(), -1);
    if (before) {
      first_bit = before->first_bit;
      bits = before->bits;
    }
    for (size_t v = 0; v < changes.size(); ++v) {
      if (!changes[v] || first_bit[v] >= 0) continue;
      first_bit[v] = static_cast<int>(bits);
      bits += m.variables[v].values.size();
    }
  }
};

//! A state as it was met first; breadth first, so by the fewest events.
template <size_t words>
struct Met {
  Bits<words> state;
  std::uint32_t from;
  const Event* event;
  std::uint32_t depth;
  bool broke = false;  //!< `from` is a state of the machine with nothing broken yet
};

//! What was reached before anything broke.
template <size_t words>
struct Before {
  const std::vector<Met<words>>& met;
  std::vector<std::string> run_to(size_t at) const {
    std::vector<std::string> run;
    for (size_t i = at; met[i].depth > 0; i = met[i].from) run.push_back(met[i].event->name);
    std::reverse(run.begin(), run.end());
    return run;
  }
};

template <size_t words>
class Explorer {
 public:
  using Set = Bits<words>;
  static constexpr size_t bits = 64 * words;

  explicit Explorer(const Broken& broken) : b_(broken) {
    for (size_t v = 0; v < b_.start.size(); ++v)
      if (b_.first_bit[v] >= 0) raise(start_, v, b_.start[v]);
    for (const Event* e : b_.moves) {
      Move move{e, test(e->when.node(), false), {}, {}};
      if (move.when.never) continue;
      for (const auto& [name, word] : e->set) {
        const size_t v = b_.names.variable(name);
        if (b_.first_bit[v] < 0 || b_.held[v]) continue;
        for (size_t i = 0; i < b_.machine.variables[v].values.size(); ++i) raise(move.clear, v, i);
        raise(move.set, v, b_.names.value(v, word));
      }
      moves_.push_back(std::move(move));
    }
  }

  const std::vector<Met<words>>& met() const { return met_; }

  void run(const std::function<bool()>& keep_going, size_t most, Exploration& out) {
    meet({start_, 0, nullptr, 0});
    search(keep_going, most, out, {}, 0);
    judge(out, nullptr);
  }

  //! From all that can break in what was reached before.
  void run_after(const Before<words>& before, const Broken& sound, const std::function<bool()>& keep_going,
                 size_t most, Exploration& out) {
    // What the states before did not have to tell: everything there still works.
    Set works{};
    for (size_t v = 0; v < b_.start.size(); ++v)
      if (b_.first_bit[v] >= 0 && sound.first_bit[v] < 0) raise(works, v, b_.start[v]);
    std::vector<Met<words>> breaks;
    for (size_t i = 0; i < before.met.size(); ++i) {
      Set state = before.met[i].state;
      for (size_t w = 0; w < words; ++w) state[w] |= works[w];
      for (const Move& move : moves_) {
        if (move.event->fault.empty() || !holds(move.when, state)) continue;
        const Set to = moved(state, move);
        if (to == state) continue;
        breaks.push_back({to, static_cast<std::uint32_t>(i), move.event, before.met[i].depth + 1, true});
      }
    }
    search(keep_going, most, out, breaks, before.met.size());
    judge(out, &before);
  }

 private:
  //! A condition made fast: none of some bits, and of each group any.
  struct Test {
    Set none{};
    std::vector<std::vector<Test>> groups{};
    bool never = false;
    bool always() const { return !never && groups.empty() && none == Set{}; }
  };
  struct Move {
    const Event* event;
    Test when;
    Set clear, set;
  };

  static Set moved(const Set& state, const Move& move) {
    Set to;
    for (size_t w = 0; w < words; ++w) to[w] = (state[w] & ~move.clear[w]) | move.set[w];
    return to;
  }
  std::uint32_t meet(Met<words> m) {
    const auto [it, is_new] = known_.emplace(m.state, static_cast<std::uint32_t>(met_.size()));
    if (is_new) met_.push_back(std::move(m));
    return it.value();
  }

  //! Breadth first from what is met already and from `starts`, which are in the order of their depth.
  void search(const std::function<bool()>& keep_going, size_t most, Exploration& out,
              const std::vector<Met<words>>& starts, size_t guess) {
    known_.reserve(guess);
    met_.reserve(guess);
    size_t next = 0;
    for (size_t at = 0;; ++at) {
      // None deeper by more than one than what is looked at, so that the list stays in order.
      const auto limit = at < met_.size()       ? met_[at].depth + 1
                         : next < starts.size() ? starts[next].depth
                                                : 0;
      for (; next < starts.size() && starts[next].depth <= limit; ++next) meet(starts[next]);
      if (at >= met_.size()) {
        if (next >= starts.size()) break;
        --at;  // all of these were known
        continue;
      }
      if (met_.size() > most || (keep_going && at % 4096 == 4095 && !keep_going())) {
        out.complete = false;
        break;
      }
      const Met<words> here = met_[at];
      for (const Move& move : moves_) {
        if (!holds(move.when, here.state)) continue;
        const Set to = moved(here.state, move);
        if (to == here.state) continue;
        const auto there = meet({to, static_cast<std::uint32_t>(at), move.event, here.depth + 1});
        if (!move.event->by_operator) own_.to.push_back(there);
      }
      own_.first.push_back(static_cast<std::uint32_t>(own_.to.size()));
    }
    // Of a search called off, what has not been looked at leads nowhere yet.
    own_.first.resize(met_.size() + 1, static_cast<std::uint32_t>(own_.to.size()));
    out.states = met_.size();
    out.depth = met_.empty() ? 0 : met_.back().depth;
  }

  void raise(Set& set, size_t variable, size_t value) const {
    const size_t bit = static_cast<size_t>(b_.first_bit[variable]) + value;
    set[bit / 64] |= std::uint64_t{1} << (bit % 64);
  }
  //! What cannot change is put in; a variable that nobody knows is an output.
  Test test(const Condition::Node& n, bool negated) const {
    using Sort = Condition::Node::Sort;
    switch (n.sort) {
      case Sort::always:
        return Test{{}, {}, negated};
      case Sort::opposite:
        return test(*n.a, !negated);
      case Sort::value:
        return value(n, negated);
      case Sort::both:
      case Sort::either:
        return (n.sort == Sort::both) != negated ? both(test(*n.a, negated), test(*n.b, negated))
                                                 : either(test(*n.a, negated), test(*n.b, negated));
    }
    return {};
  }
  Test value(const Condition::Node& n, bool negated) const {
    const size_t v = b_.names.variable(n.variable);
    const auto asked = [&](const std::string& word) {
      return (std::find(n.values.begin(), n.values.end(), word) != n.values.end()) != negated;
    };
    if (v >= b_.start.size()) {
      const Output* o = b_.names.output(n.variable);
      if (asked("true") && asked("false")) return {};
      if (!o || (!asked("true") && !asked("false"))) return Test{{}, {}, true};
      return test(o->when.node(), asked("false"));
    }
    const auto& values = b_.machine.variables[v].values;
    if (b_.first_bit[v] < 0) return Test{{}, {}, !asked(values[b_.start[v]])};
    Test t;
    bool any = false;
    for (size_t i = 0; i < values.size(); ++i) {
      any = any || asked(values[i]);
      if (!asked(values[i])) raise(t.none, v, i);
    }
    t.never = !any;
    return t;
  }
  static Test both(Test a, Test b) {
    if (a.never) return a;
    if (b.never) return b;
    for (size_t w = 0; w < words; ++w) a.none[w] |= b.none[w];
    for (auto& g : b.groups) a.groups.push_back(std::move(g));
    return a;
  }
  static Test either(Test a, Test b) {
    if (a.never || b.always()) return b;
    if (b.never || a.always()) return a;
    Test t;
    t.groups.resize(1);
    const auto put = [&](Test x) {
      // One group of its own and nothing beside: its members stand for it.
      if (x.none == Set{} && x.groups.size() == 1)
        for (auto& m : x.groups[0]) t.groups[0].push_back(std::move(m));
      else
        t.groups[0].push_back(std::move(x));
    };
    put(std::move(a));
    put(std::move(b));
    return t;
  }
  static bool holds(const Test& t, const Set& state) {
    if (t.never) return false;
    for (size_t w = 0; w < words; ++w)
      if (state[w] & t.none[w]) return false;
    for (const auto& group : t.groups)
      if (std::none_of(group.begin(), group.end(), [&](const Test& x) { return holds(x, state); }))
        return false;
    return true;
  }

  void judge(Exploration& out, const Before<words>* before) {
    // Cycles among all of them first: where there is none, there is none within any pattern.
    const std::vector<bool> everywhere(met_.size(), true);
    const bool asked = std::any_of(b_.machine.properties.begin(), b_.machine.properties.end(),
                                   [](const Property& p) { return p.demand != Demand::never; });
    std::vector<bool> cyclic;
    if (asked) cyclic = on_cycles(own_, everywhere);
    const bool cycles = std::find(cyclic.begin(), cyclic.end(), true) != cyclic.end();
    for (const Property& p : b_.machine.properties) {
      Outcome o{p.name, false, {}, false};
      if (const auto first = violating(p, cyclic, cycles, o.by_cycle)) {
        o.violated = true;
        size_t i = *first;
        for (; met_[i].depth > 0 && !met_[i].broke; i = met_[i].from) o.run.push_back(met_[i].event->name);
        if (met_[i].broke) o.run.push_back(met_[i].event->name);
        std::reverse(o.run.begin(), o.run.end());
        if (before && met_[i].broke) {
          auto way = before->run_to(met_[i].from);
          o.run.insert(o.run.begin(), way.begin(), way.end());
        }
      }
      out.outcomes.push_back(std::move(o));
    }
  }

  //! The first state that violates a property, by the order in which they were met.
  std::optional<size_t> violating(const Property& p, const std::vector<bool>& cyclic, bool cycles,
                                  bool& by_cycle) const {
    if (p.demand == Demand::settles) {
      by_cycle = cycles;
      return cycles ? std::optional<size_t>(
                          static_cast<size_t>(std::find(cyclic.begin(), cyclic.end(), true) - cyclic.begin()))
                    : std::nullopt;
    }
    const Test where = test(p.where.node(), false);
    const auto matches = [&](size_t i) { return holds(where, met_[i].state); };
    if (p.demand == Demand::never) {
      for (size_t i = 0; i < met_.size(); ++i)
        if (matches(i)) return i;
      return std::nullopt;
    }
    std::vector<bool> within;
    if (cycles) {
      within.resize(met_.size());
      for (size_t i = 0; i < met_.size(); ++i) within[i] = matches(i);
      within = on_cycles(own_, within);
    }
    for (size_t i = 0; i < met_.size(); ++i) {
      const bool stands = own_.first[i] == own_.first[i + 1] && matches(i);
      if (!stands && !(cycles && within[i])) continue;
      by_cycle = cycles && within[i];
      return i;
    }
    return std::nullopt;
  }

  const Broken& b_;
  Set start_{};
  std::vector<Move> moves_;
  std::vector<Met<words>> met_;
  tsl::robin_map<Set, std::uint32_t, Hash<words>> known_;
  Edges own_;  //!< by the machine's own events
};

//! As many words as a number of bits needs, of a few sizes.
using AnyExplorer = std::variant<Explorer<1>, Explorer<2>, Explorer<8>, Explorer<20>>;
AnyExplorer explorer_for(const Broken& broken, size_t bits) {
  if (bits <= 64) return AnyExplorer(std::in_place_index<0>, broken);
  if (bits <= 128) return AnyExplorer(std::in_place_index<1>, broken);
  if (bits <= 512) return AnyExplorer(std::in_place_index<2>, broken);
  return AnyExplorer(std::in_place_index<3>, broken);
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
  const auto names = [&](const Condition& c, const std::string& where, bool outputs) {
    c.each_value([&](const Condition::Node& n) {
      const bool lamp = outputs && std::any_of(m.outputs.begin(), m.outputs.end(),
                                               [&](const Output& o) { return o.name == n.variable; });
      for (const auto& w : n.values) {
        if (!lamp)
          value(n.variable, w, where);
        else if (w != "true" && w != "false")
          faults.push_back(where + ": \"" + n.variable + "\" is true or false, not \"" + w + "\"");
      }
    });
  };
  double size = 1;
  for (const auto& v : m.variables) {
    size *= static_cast<double>(v.values.size());
    if (find(v.name) != &v) faults.push_back("\"" + v.name + "\" stands for two variables");
    if (v.values.empty() || v.values.size() > 64)
      faults.push_back("\"" + v.name + "\" must have 1 to 64 values");
    if (!m.initial.count(v.name)) faults.push_back("the start does not say how \"" + v.name + "\" is");
  }
  if (size > 1e30) faults.push_back("too many variables: more than 10^30 states");
  for (const auto& [name, word] : m.initial) value(name, word, "start");
  for (const auto& e : m.events) {
    names(e.when, e.name, false);
    for (const auto& [name, word] : e.set) value(name, word, e.name);
    if (!e.fault.empty() &&
        std::none_of(m.faults.begin(), m.faults.end(), [&](const Fault& f) { return f.name == e.fault; }))
      faults.push_back(e.name + ": there is no fault \"" + e.fault + "\"");
  }
  for (const auto& o : m.outputs) names(o.when, o.name, false);
  for (const auto& p : m.properties) names(p.where, p.name, true);
  for (const auto& f : m.faults) {
    for (const auto& [name, word] : f.hold) value(name, word, f.name);
    for (const auto& gone : f.removed)
      if (std::none_of(m.events.begin(), m.events.end(), [&](const Event& e) { return e.name == gone; }))
        faults.push_back(f.name + ": there is no event \"" + gone + "\"");
  }
  return faults;
}

bool can_happen(const Event& event, const State& state) {
  if (!event.when.holds(state)) return false;
  return std::any_of(event.set.begin(), event.set.end(), [&](const auto& set) {
    const auto it = state.find(set.first);
    return it != state.end() && it->second != set.second;
  });
}

Exploration explore(const Machine& m, const std::vector<const Fault*>& faults,
                    const std::function<bool()>& keep_going, size_t most) {
  Exploration out;
  for (const Fault* f : faults) out.fault += (out.fault.empty() ? "" : " and ") + f->name;
  if (!faults_in(m).empty()) {
    out.complete = false;
    return out;
  }
  const Broken broken(m, faults);
  auto any = explorer_for(broken, broken.bits);
  std::visit([&](auto& explorer) { explorer.run(keep_going, most, out); }, any);
  return out;
}

namespace {
//! In place of a machine with faults in it.
const Machine& nothing() {
  static const Machine none;
  return none;
}
}  // namespace

struct Reached::Kept {
  const Machine& machine;
  Fault assumed;
  Broken sound;
  AnyExplorer explorer;
  Exploration out{};

  //! Bits are left for the parts that may break beside: a pair of them, or a few.
  Kept(const Machine& m, Fault f)
      : machine(m),
        assumed(std::move(f)),
        sound(m, {&assumed}),
        explorer(explorer_for(sound, sound.bits + 16)) {}
};

Reached::Reached(const Machine& m, Fault assumed, const std::function<bool()>& keep_going, size_t most) {
  const bool faulty = !faults_in(m).empty();
  kept_ = std::make_unique<Kept>(faulty ? nothing() : m, faulty ? Fault{} : std::move(assumed));
  Kept& k = *kept_;
  if (faulty)
    k.out.complete = false;
  else
    std::visit([&](auto& explorer) { explorer.run(keep_going, most, k.out); }, k.explorer);
}
Reached::~Reached() = default;
Reached::Reached(Reached&&) noexcept = default;
Reached& Reached::operator=(Reached&&) noexcept = default;

const Exploration& Reached::sound() const { return kept_->out; }

Exploration Reached::after(const std::vector<const Fault*>& faults, const std::function<bool()>& keep_going,
                           size_t most) const {
  const Kept& k = *kept_;
  Exploration out;
  for (const Fault* f : faults) out.fault += (out.fault.empty() ? "" : " and ") + f->name;
  out.complete = k.out.complete;
  std::vector<const Fault*> all{&k.assumed};
  all.insert(all.end(), faults.begin(), faults.end());
  const Broken broken(k.machine, all, &k.sound);
  std::visit(
      [&](const auto& before) {
        using Same = std::decay_t<decltype(before)>;
        if (broken.bits > Same::bits) {
          out.complete = false;  // more parts at once than bits were left for
          return;
        }
        Same after(broken);
        after.run_after({before.met()}, k.sound, keep_going, most, out);
      },
      k.explorer);
  return out;
}

}  // namespace kranich::logic
