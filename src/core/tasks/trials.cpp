// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tasks/trials.h"

#include <algorithm>
#include <cmath>
#include <iterator>

#include "core/tasks/progress.h"
#include "core/tasks/words.h"

namespace kranich::tasks {
namespace {

constexpr std::string_view each_try = "always.trial";

const Read* reading_of(const Entry& e, std::string_view name) {
  const auto at =
      std::find_if(e.readings.begin(), e.readings.end(), [&](const Read& r) { return r.name == name; });
  return at == e.readings.end() ? nullptr : &*at;
}

Text from_to(const Text& what, const Text& from, const Text& to) {
  if (from.empty() && to.empty()) return what;
  if (from.empty()) return say("{}: now {}", what, to);
  if (to.empty()) return say("{}: was {}", what, from);
  return say("{}: {} → {}", what, from, to);
}

//! A reading with what was foretold of it where it is off.
Text result_of(const Read& r) {
  const Text read = say("{} {}", r.name, said(r));
  if (r.compared != Compared::outside || !std::isfinite(r.foretold)) return read;
  Read foretold = r;
  foretold.value = r.foretold;
  return say("{}, foretold {}", read, said(foretold));
}

Compared verdict_of(const Entry& e) {
  Compared verdict = Compared::unjudged;
  for (const Read& r : e.readings) {
    if (r.compared == Compared::outside) return Compared::outside;
    if (r.compared == Compared::within) verdict = Compared::within;
  }
  return verdict;
}

bool told_by_hand(const Entry& e) { return e.task == each_try || e.event == "change"; }
bool has_readings(const Entry& e) {
  return (e.mark == Mark::done || e.mark == Mark::tried) && !e.readings.empty() && !e.task.empty();
}

//! A line that somebody wrote for a try: what was changed stands in it.
Trial by_hand(const Entry& e) {
  Trial t;
  t.entry = &e;
  t.first = true;
  const auto text = [&](std::string_view name) {
    const Read* r = reading_of(e, name);
    return r ? said(*r) : Text();
  };
  if (e.event == "change") {
    t.what = "A change";
    t.changed.push_back(from_to(Text(e.what), Text(e.from), Text(e.to)));
    if (!e.note.empty()) t.result.push_back(Text(e.note));
    return t;
  }
  t.what = "A try";
  t.changed.push_back(from_to(text("changed"), text("from"), text("to")));
  if (const Text verdict = text("verdict"); !verdict.empty()) t.result.push_back(verdict);
  if (!e.note.empty()) t.result.push_back(Text(e.note));
  return t;
}

}  // namespace

std::vector<Trial> trial_log(const Look& look, const TaskTable& table, const History& history) {
  std::vector<Trial> list;
  const auto& valid = history.valid();
  for (size_t i = 0; i < valid.size(); ++i) {
    const Entry& e = *valid[i];
    if (told_by_hand(e)) {
      list.push_back(by_hand(e));
      continue;
    }
    if (!has_readings(e)) continue;
    const auto row = history.readings(e.task, e.piece);
    if (row.size() < 2) continue;
    Trial t;
    t.entry = &e;
    const Task* task = table.find(e.task);
    t.what = task ? say("{}, {}", ours(stage_title(task->stage)), Text(task->name().c_str())) : Text(e.task);
    if (!e.piece_words.empty()) t.what = say("{} ({})", t.what, e.piece_words);
    const auto at = std::find(row.begin(), row.end(), &e);
    t.first = at == row.begin();
    if (!t.first && at != row.end()) {
      // What the design says otherwise now, and what somebody changed by hand since.
      const Entry& before = **std::prev(at);
      if (!before.seen.empty() && !e.seen.empty())
        for (Touched& c : touched(look, before.seen, e.seen)) t.changed.push_back(std::move(c.words));
      for (size_t k = i; k-- > 0 && valid[k] != &before;)
        if (told_by_hand(*valid[k]))
          for (Text& c : by_hand(*valid[k]).changed) t.changed.push_back(std::move(c));
    }
    for (const Read& r : e.readings) t.result.push_back(result_of(r));
    if (!e.note.empty()) t.result.push_back(Text(e.note));
    t.verdict = verdict_of(e);
    list.push_back(std::move(t));
  }
  std::reverse(list.begin(), list.end());
  return list;
}

}  // namespace kranich::tasks
