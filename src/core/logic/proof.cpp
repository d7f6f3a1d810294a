// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logic/proof.h"

#include <algorithm>
#include <atomic>
#include <list>
#include <mutex>
#include <thread>

namespace kranich::logic {
namespace {

//! Proofs of this process, the latest first.
struct Kept {
  std::mutex mutex;
  std::list<std::pair<Fitted, std::shared_ptr<const Proof>>> list;
};
Kept& kept() {
  static Kept k;
  return k;
}
constexpr size_t most_kept = 64;
//! Of one fault: beyond it the answer is that not all could be tried.
constexpr size_t most_states = 1'500'000;

//! The throttle moves nothing but the horn, which is asked for only where it is back: so it is back all
//! along.
Fault throttle_back() { return {"", {{"throttle", "back"}}, {}}; }
//! Tried by hand it has to be closed first: for the horn, and for what sticks only where it is back.
void close_throttle(const Wiring& w, Exploration& run) {
  const auto about_throttle = [](const std::string& e) {
    return e.rfind("throttle switch", 0) == 0 || e.rfind("speed switch", 0) == 0;
  };
  for (size_t i = 0; i < run.outcomes.size(); ++i) {
    auto& way = run.outcomes[i].run;
    if (run.outcomes[i].violated &&
        (w.rules[i] == Rule::horn || std::any_of(way.begin(), way.end(), about_throttle))) {
      // At its front. (GCC 12 sees an overrun in an insert of a text that long, where there is none.)
      way.emplace_back("the pilot closes the throttle");
      std::rotate(way.rbegin(), way.rbegin() + 1, way.rend());
    }
  }
}

void add(Proof& proof, Exploration run) {
  proof.states += run.states;
  proof.depth = std::max(proof.depth, run.depth);
  proof.complete = proof.complete && run.complete;
  proof.runs.push_back(std::move(run));
}

//! On as many threads as there are; what has not been begun when it is called off is missing.
void explore_each(Proof& proof, const Reached& reached, const std::vector<std::vector<const Fault*>>& faults,
                  const Progress& progress, const std::function<void(const Exploration&)>& look = {}) {
  std::vector<Exploration> runs(faults.size());
  std::atomic<size_t> next{0};
  std::atomic<size_t> done{0};
  std::atomic<bool> go_on{!progress || progress(0)};
  std::mutex telling;
  const auto work = [&] {
    for (size_t i = next++; i < faults.size() && go_on; i = next++) {
      runs[i] = reached.after(
          faults[i], [&] { return go_on.load(); }, most_states);
      const double share = static_cast<double>(++done) / static_cast<double>(faults.size());
      const std::lock_guard lock(telling);
      if (look) look(runs[i]);
      if (progress && !progress(share)) go_on = false;
    }
  };
  std::vector<std::thread> threads;
  for (unsigned i = 1; i < std::max(1u, std::thread::hardware_concurrency()); ++i) threads.emplace_back(work);
  work();
  for (auto& t : threads) t.join();
  for (auto& run : runs) {
    if (run.states > 0 || !run.outcomes.empty())
      add(proof, std::move(run));
    else
      proof.complete = false;
  }
}

}  // namespace

int Proof::violated(Rule rule) const {
  int n = 0;
  for (const auto& run : runs)
    for (size_t i = 0; i < run.outcomes.size(); ++i)
      n += wiring->rules[i] == rule && run.outcomes[i].violated;
  return n;
}

const Exploration* Proof::first(Rule rule, const Outcome** outcome) const {
  const Exploration* best = nullptr;
  for (const auto& run : runs)
    for (size_t i = 0; i < run.outcomes.size(); ++i) {
      const Outcome& o = run.outcomes[i];
      if (wiring->rules[i] != rule || !o.violated) continue;
      // Without a fault it is worst; else the shortest way there.
      if (best && (best->fault.empty() || (!run.fault.empty() && (*outcome)->run.size() <= o.run.size())))
        continue;
      best = &run;
      *outcome = &o;
    }
  return best;
}

std::shared_ptr<const Proof> proved(const Fitted& fitted) {
  Kept& k = kept();
  const std::lock_guard lock(k.mutex);
  for (auto it = k.list.begin(); it != k.list.end(); ++it) {
    if (!(it->first == fitted)) continue;
    k.list.splice(k.list.begin(), k.list, it);
    return k.list.front().second;
  }
  return nullptr;
}

namespace {

//! With a rule it ends at the first fault that violates it.
std::shared_ptr<const Proof> prove_all(const Fitted& fitted, const Progress& progress, const Rule* only) {
  if (auto known = proved(fitted)) return known;
  auto proof = std::make_shared<Proof>();
  proof->wiring = std::make_shared<const Wiring>(wire(fitted));
  const Machine& m = proof->wiring->machine;
  std::atomic<bool> called_off{false};
  std::atomic<bool> found{false};
  const auto goes_on = [&](double share) {
    if (progress && !progress(share)) called_off = true;
    return !called_off && !found;
  };
  const auto violates = [&](const Exploration& run) {
    for (size_t i = 0; only && i < run.outcomes.size(); ++i)
      if (proof->wiring->rules[i] == *only && run.outcomes[i].violated) found = true;
  };
  const Reached reached(
      m, throttle_back(), [&] { return goes_on(0); }, most_states);
  add(*proof, reached.sound());
  violates(reached.sound());
  std::vector<std::vector<const Fault*>> each;
  for (const Fault& f : m.faults) each.push_back({&f});
  explore_each(*proof, reached, each, goes_on, violates);
  for (auto& run : proof->runs) close_throttle(*proof->wiring, run);
  if (called_off || found) return proof;
  Kept& k = kept();
  const std::lock_guard lock(k.mutex);
  k.list.emplace_front(fitted, proof);
  if (k.list.size() > most_kept) k.list.pop_back();
  return proof;
}

}  // namespace

std::shared_ptr<const Proof> prove(const Fitted& fitted, const Progress& progress) {
  return prove_all(fitted, progress, nullptr);
}

std::shared_ptr<const Proof> prove_rule(const Fitted& fitted, Rule rule) {
  return prove_all(fitted, {}, &rule);
}

Proof prove_pairs(const Fitted& fitted, const Progress& progress) {
  Proof proof;
  proof.wiring = std::make_shared<const Wiring>(wire(fitted));
  const Machine& m = proof.wiring->machine;
  const auto part_of = [&](const Fault& f) {
    for (size_t i = 0; i < proof.wiring->parts.size(); ++i) {
      const auto& faults = proof.wiring->parts[i].faults;
      if (std::find(faults.begin(), faults.end(), f.name) != faults.end()) return i;
    }
    return proof.wiring->parts.size();
  };
  std::vector<std::vector<const Fault*>> pairs;
  for (size_t i = 0; i < m.faults.size(); ++i)
    for (size_t j = i + 1; j < m.faults.size(); ++j)
      if (part_of(m.faults[i]) != part_of(m.faults[j])) pairs.push_back({&m.faults[i], &m.faults[j]});
  const Reached reached(
      m, throttle_back(), [&] { return !progress || progress(0); }, most_states);
  explore_each(proof, reached, pairs, progress);
  for (auto& run : proof.runs) close_throttle(*proof.wiring, run);
  return proof;
}

}  // namespace kranich::logic
