// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tasks/progress.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "core/assess/subjects.h"
#include "core/base/measure.h"
#include "core/model/locate.h"

namespace kranich::tasks {
namespace {

constexpr int year = 365;

//! What the ticks of files from before there was a Book stand for.
bool ticked_before(const Design& design, std::string_view task) {
  static const std::multimap<std::string_view, std::string_view> now{{"level", "jig.level"},
                                                                     {"floor", "jig.floor"},
                                                                     {"bar", "jig.bar"},
                                                                     {"bought", "survey.factory-joints"},
                                                                     {"tack", "make.tack"},
                                                                     {"drill", "make.drill"},
                                                                     {"veneer", "survey.veneer"},
                                                                     {"steps_faired", "structure.fair"},
                                                                     {"bond", "structure.sand"},
                                                                     {"skin", "mount.skin-first"},
                                                                     {"cloth", "structure.lay"},
                                                                     {"axles", "mount.bar"},
                                                                     {"final", "mount.for-good"},
                                                                     {"load_home", "mount.tighten"},
                                                                     {"no_holes", "choose.leaf-mount"},
                                                                     {"proof", "springs.proof-full"},
                                                                     {"proof", "springs.proof-model"}};
  return std::any_of(design.done.begin(), design.done.end(), [&](const Done& d) {
    const auto [from, to] = now.equal_range(d.step);
    return d.step == task || std::any_of(from, to, [&](const auto& n) { return n.second == task; });
  });
}

class Worker {
 public:
  Worker(const TaskTable& table, const Look& look, const History& book, std::string_view today)
      : table_(table),
        look_(look),
        book_(book),
        today_(day_number(today)),
        facts_(look.design(), look.assessment()) {}

  Progress work() {
    std::map<const Question*, int> hanging;
    for (const Task& task : table_.tasks) {
      const Truth applies = task.applies.of(facts_);
      if (applies == Truth::unknown) {
        unknown_.insert(task.id);
        for (const auto key : task.applies.asks(facts_)) ++hanging[&question(key)];
      }
      if (applies != Truth::yes) {
        if (applies == Truth::no) made_.not_applying.push_back(&task);
        continue;
      }
      for (Piece& piece : pieces_of(look_.design(), task.per)) add(task, std::move(piece));
    }
    for (const Question& q : all_questions())
      if (const auto it = hanging.find(&q); it != hanging.end()) made_.questions.push_back({&q, it->second});
    stages_finished();
    failures();
    ladder();
    proofs();
    return std::move(made_);
  }

 private:
  void add(const Task& task, Piece piece) {
    Box box{&task, std::move(piece), State::open, {}, nullptr, {}, false};
    gates(box);
    const Entry* kept = nullptr;
    for (const Entry* e : book_.of(task.id, box.piece.key)) {
      if (e->mark == Mark::done || e->mark == Mark::tried || e->mark == Mark::aside) {
        box.last = e;
        kept = nullptr;
      } else if (e->mark == Mark::kept) {
        kept = e;
      }
    }
    if (!box.last && ticked_before(look_.design(), task.id)) {
      box.state = State::done;  // nothing more is known of it
    } else if (!box.last) {
      box.state = is_given(box)       ? State::given
                  : is_standing(task) ? State::standing
                  : box.gates.empty() ? State::open
                                      : State::waits;
      // What only an event asks for stands open from its first on.
      if (box.state == State::standing && event_since(task, box.piece, nullptr))
        box.state = box.gates.empty() ? State::open : State::waits;
    } else {
      since(box, kept);
    }
    made_.boxes.push_back(std::move(box));
  }

  //! State of a box that was ticked.
  void since(Box& box, const Entry* kept) {
    const Entry& last = *box.last;
    box.state = last.mark == Mark::aside                         ? State::aside
                : last.mark == Mark::tried && !box.gates.empty() ? State::tried
                                                                 : State::done;
    if (box.state == State::done &&
        std::any_of(last.readings.begin(), last.readings.end(),
                    [](const Read& r) { return r.compared == Compared::outside; }))
      box.state = State::off;
    if (last.mark == Mark::aside) return;
    if (const EventSort* sort = event_since(*box.task, box.piece, kept ? kept : &last))
      box.changed.push_back(say("since then: {}", ours(sort->words)));
    for (const auto& word : box.task->repeats) by_time(box, word, last);
    const Entry& base = kept ? *kept : last;
    // An entry that came in as a table does not say what it rested on.
    if (!base.seen.empty())
      for (Touched& t : touched(look_, base.seen, rests_on(look_, *box.task, box.piece)))
        box.changed.push_back(std::move(t.words));
    if (!kept) moved_predictions(box);
    if (!box.changed.empty() && !is_always(*box.task)) {
      box.state = State::again;
    } else if (box.state == State::done || box.state == State::off) {
      box.rests_on_open = std::any_of(box.gates.begin(), box.gates.end(),
                                      [](const OpenGate& g) { return g.measure.empty(); });
    }
    if (is_always(*box.task)) {
      box.state = State::standing;
      box.changed.clear();
    }
  }

  void by_time(Box& box, std::string_view word, const Entry& last) {
    const auto then = day_number(last.at);
    if (!then || !today_) return;
    if (word == "yearly" && *today_ - *then >= year)
      box.changed.push_back(
          say("{} days since it was done: each year", counted(static_cast<size_t>(*today_ - *then))));
    if (word == "each session" && *today_ > *then) box.changed.push_back("another day: each session");
  }

  //! A number that it was foretold by has moved by more than the reading may be off.
  void moved_predictions(Box& box) {
    const Task& task = *box.task;
    for (size_t i = 0; i < task.readings.size(); ++i) {
      const Reading& r = task.readings[i];
      if (r.predicted.sort != Predicted::Sort::sum || !r.sets.empty()) continue;
      // What another reading was compared with is no number of the design.
      if (std::any_of(r.predicted.sum.begin(), r.predicted.sum.end(),
                      [](const Term& t) { return t.sort == Term::Sort::reading; }))
        continue;
      for (const Read& read : box.last->readings) {
        if (read.name != r.name || !std::isfinite(read.foretold)) continue;
        const Foretold now = foretold(look_, book_, task, box.piece, i, box.last->readings);
        if (!std::isfinite(now.value)) continue;
        const double slack = std::isfinite(read.upper) && std::isfinite(read.lower)
                                 ? (read.upper - read.lower) / 2
                                 : 0.02 * std::abs(read.foretold);
        if (std::abs(now.value - read.foretold) <= slack + 1e-9) continue;
        const auto amount = [&](double si) -> Text {
          if (r.unit.kind) return Amount{si, *r.unit.kind};
          return Figure{si, 2};
        };
        box.changed.push_back(
            say("{}: {} is foretold now, it was {}", Text(r.name), amount(now.value), amount(read.foretold)));
      }
    }
  }

  //! What has happened since an entry that lets a task be done once more, or touches what it rests on.
  const EventSort* event_since(const Task& task, const Piece& piece, const Entry* last) const {
    for (const Entry* e : book_.valid()) {
      if (last && e->at <= last->at) continue;
      const bool dropped = e->mark == Mark::done && e->task.starts_with("drop.step") && e->task != task.id;
      const EventSort* sort = e->mark == Mark::event ? find_event(e->event)
                              : dropped              ? find_event("drop")
                                                     : nullptr;
      if (!sort) continue;
      const bool mine =
          e->piece.empty() || piece.leg.empty() || e->piece == piece.key || leg_of(e->piece) == piece.leg;
      if (!mine) continue;
      const auto among = [](const std::vector<std::string>& words, std::string_view word) {
        return !word.empty() && std::find(words.begin(), words.end(), word) != words.end();
      };
      if (among(task.repeats, sort->repeats)) return sort;
      if (last && among(task.reopens, sort->reopens)) return sort;
    }
    return nullptr;
  }
  static std::string_view leg_of(std::string_view piece) {
    return piece.substr(0, piece.find_first_of("/:"));
  }

  static bool is_always(const Task& task) { return task.stage == "always"; }
  //! Nothing to be done till something happens.
  static bool is_standing(const Task& task) {
    if (is_always(task)) return true;
    if (task.stage != "service" || task.repeats.empty()) return false;
    return std::none_of(task.repeats.begin(), task.repeats.end(),
                        [](const auto& w) { return w == "yearly"; });
  }

  //! All that it would fill stands in the design, as measured.
  bool is_given(const Box& box) const {
    bool any = false;
    for (const Reading& r : box.task->readings) {
      if (r.unit.form == Form::photo) continue;
      const auto path = r.sets.empty() ? std::nullopt : path_for(look_.design(), box.piece, r.sets);
      const auto given = path ? given_at(look_.design(), *path) : std::nullopt;
      if (!given || !given->known() || given->origin != Origin::measured) return false;
      any = true;
    }
    return any;
  }

  // --- gates ---
  void gates(Box& box) {
    for (const Gate& gate : box.task->gates) {
      if (gate.sort == Gate::Sort::holds)
        holds(box, gate.name);
      else
        boxes_done(box, gate);
    }
    if (box.task->rung > 1) rung_below(box);
  }

  void holds(Box& box, const std::string& id) {
    const Finding* worst = nullptr;
    for (const Finding* f : look_.findings(id))
      if ((f->verdict == Verdict::fails || f->verdict == Verdict::unknown) && (!worst || worse(*f, *worst)))
        worst = f;
    if (!worst) return;
    const Text title = ours(measure(id).title);
    Text words = worst->verdict == Verdict::unknown
                     ? say("{}: unknown", title)
                     : say("{}: fails, {}", title, Amount{worst->value, measure(id).kind});
    if (!worst->subject.empty()) words = say("{} ({})", words, worst->subject.words);
    box.gates.push_back({std::move(words), {}, id});
  }

  static Text title_of(const Task& task) {
    return say("{}, {}", ours(stage_title(task.stage)), Text(task.name().c_str()));
  }

  //! Boxes of the same leg where both stand on legs; else all.
  static bool same_piece(const Piece& a, const Piece& b) {
    if (a.leg.empty() || b.leg.empty() || a.key.empty() || b.key.empty()) return true;
    if (a.leg != b.leg) return false;
    // Sides count where both are told apart.
    return !(a.has_twin && b.has_twin) || a.port == b.port;
  }

  void boxes_done(Box& box, const Gate& gate) {
    const bool one = gate.sort == Gate::Sort::task;
    if (one && unknown_.count(gate.name)) {
      const Task* task = table_.find(gate.name);
      const auto asks = task ? task->applies.asks(facts_) : std::vector<std::string_view>();
      box.gates.push_back(
          {say("{}: {}", Text(gate.name),
               asks.empty() ? Text("unknown whether it applies") : ours(question(asks[0]).words)),
           gate.name,
           {}});
      return;
    }
    const Box* open = nullptr;
    size_t count = 0;
    for (const Box& b : made_.boxes) {
      const bool named =
          one ? b.task->id == gate.name : b.task->stage == gate.name && b.task->id != box.task->id;
      if (!named || b.passed() || b.state == State::standing || !same_piece(b.piece, box.piece)) continue;
      if (!open) open = &b;
      ++count;
    }
    if (!open) return;
    Text words = one ? say("{}: {}", title_of(*open->task), ours(state_word(open->state)))
                     : say("{}: {} not done", ours(stage_title(gate.name)), counted(count));
    if (one && !open->piece.key.empty()) words = say("{} ({})", words, open->piece.words);
    box.gates.push_back({std::move(words), open->task->id, {}});
  }

  //! Each rung asks the one below it that applies.
  void rung_below(Box& box) {
    for (int rung = box.task->rung - 1; rung >= 1; --rung) {
      bool applies = false;
      const Box* open = nullptr;
      for (const Box& b : made_.boxes) {
        if (b.task->rung != rung || !same_piece(b.piece, box.piece)) continue;
        applies = true;
        // Only the fifth can be set aside, with what stands in for it.
        const bool passed =
            b.state == State::done || b.state == State::given || (b.state == State::aside && rung == 5);
        if (!passed && !open) open = &b;
      }
      if (!applies) continue;
      if (open && std::none_of(box.gates.begin(), box.gates.end(),
                               [&](const OpenGate& g) { return g.task == open->task->id; }))
        box.gates.push_back({say("rung {}: {}, {}", Figure{static_cast<double>(rung)}, title_of(*open->task),
                                 ours(state_word(open->state))),
                             open->task->id,
                             {}});
      return;
    }
  }
  //! What is done at each stage's end opens again when a stage has been finished since.
  void stages_finished() {
    std::map<std::string_view, std::string_view> finished;
    for (const auto stage : stages) {
      if (stage == "service" || stage == "always") continue;
      std::string_view latest;
      bool all = true, any = false;
      for (const Box& b : made_.boxes) {
        if (b.task->stage != stage ||
            std::count(b.task->repeats.begin(), b.task->repeats.end(), "each stage"))
          continue;
        any = true;
        all = all && b.passed();
        if (b.last && b.last->at > latest) latest = b.last->at;
      }
      if (any && all && !latest.empty()) finished[stage] = latest;
    }
    for (Box& b : made_.boxes) {
      if (!b.last || b.state != State::done ||
          !std::count(b.task->repeats.begin(), b.task->repeats.end(), "each stage"))
        continue;
      for (const auto& [stage, at] : finished)
        if (at > b.last->at) {
          b.state = State::again;
          b.changed.push_back(say("a stage is finished: {}", ours(stage_title(stage))));
        }
    }
  }

  //! Three failures of the same part in ordinary landings: the leg is too weak, not the pilot. What it was
  //! proved by is open again.
  void failures() {
    std::map<std::pair<std::string, std::string>, std::vector<const Entry*>> of;
    for (const Entry* e : book_.valid()) {
      if (e->mark != Mark::event || e->event != "failure" || e->what.empty() || e->from != ordinary_landing)
        continue;
      std::string part = e->what;  // "Trunnion" and "trunnion" are one part
      std::transform(part.begin(), part.end(), part.begin(),
                     [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
      of[{std::string(leg_of(e->piece)), part}].push_back(e);
    }
    for (const auto& [key, entries] : of) {
      if (entries.size() < 3) continue;
      made_.remarks.push_back(
          say("{} broke {} times in ordinary landings: the leg is too weak, not the pilot. What it was "
              "proved by is open again.",
              Text(key.second), counted(entries.size())));
      for (Box& b : made_.boxes) {
        const auto& words = b.task->reopens;
        const bool proved_by = std::count(words.begin(), words.end(), "landing") > 0;
        if (!proved_by || !b.last || b.last->at >= entries.back()->at) continue;
        if (!key.first.empty() && !b.piece.leg.empty() && b.piece.leg != key.first) continue;
        b.state = State::again;
        b.changed.push_back(say("{} broke {} times", Text(key.second), counted(entries.size())));
      }
    }
  }

  void ladder() {
    for (int rung = 1; rung <= rung_count; ++rung) {
      Rung r{rung, {}};
      for (size_t i = 0; i < made_.boxes.size(); ++i)
        if (made_.boxes[i].task->rung == rung) r.boxes.push_back(i);
      made_.ladder.push_back(std::move(r));
    }
    // A change that opens a rung opens those above it.
    for (Box& b : made_.boxes) {
      if (b.task->rung < 2 || (b.state != State::done && b.state != State::off)) continue;
      for (const Box& below : made_.boxes)
        if (below.task->rung > 0 && below.task->rung < b.task->rung && below.state == State::again &&
            same_piece(below.piece, b.piece)) {
          b.state = State::again;
          b.changed.push_back(say("rung {} is open again", Figure{static_cast<double>(below.task->rung)}));
          break;
        }
    }
  }

  void proofs() {
    for (const Leg& leg : look_.design().gear.legs) {
      Proof p{leg.id, look_.design().legs_word(leg)};
      const int last = leg.retraction.fitted ? 8 : 7;
      const auto proved = [&](int from, int to) {
        bool any = false;
        for (const Box& b : made_.boxes) {
          if (b.task->rung < from || b.task->rung > to) continue;
          if (!b.piece.leg.empty() && b.piece.leg != leg.id) continue;
          any = true;
          const bool stood_in = b.task->rung == 5 && b.state == State::aside;
          if (b.state != State::done && b.state != State::given && !stood_in) return false;
        }
        return any;
      };
      p.bench = proved(1, 5);
      p.flight = p.bench && proved(last, last);
      made_.proofs.push_back(std::move(p));
    }
  }

  const TaskTable& table_;
  const Look& look_;
  const History& book_;
  std::optional<int> today_;
  Facts facts_;
  std::set<std::string> unknown_;
  Progress made_;
};

}  // namespace

std::string_view state_word(State state) {
  switch (state) {
    case State::open:
      return "open";
    case State::waits:
      return "waits";
    case State::done:
      return "done";
    case State::off:
      return "done, off";
    case State::again:
      return "open again";
    case State::tried:
      return "tried";
    case State::aside:
      return "set aside";
    case State::given:
      return "given";
    case State::standing:
      return "when it happens";
  }
  return "";
}

const Box* Progress::find(std::string_view task, std::string_view piece) const {
  for (const Box& b : boxes)
    if (b.task->id == task && b.piece.key == piece) return &b;
  return nullptr;
}

Progress progress_of(const TaskTable& table, const Look& look, const History& book, std::string_view today) {
  return Worker(table, look, book, today).work();
}

std::vector<const Box*> ready(const Progress& progress, std::string_view station) {
  std::vector<const Box*> list;
  for (const Box& b : progress.boxes)
    if ((b.state == State::open || b.state == State::again || b.state == State::off) && b.gates.empty() &&
        (station.empty() || station_of_stage(b.task->stage) == station))
      list.push_back(&b);
  return list;
}

int waiting(const Progress& progress, std::string_view station) {
  return static_cast<int>(std::count_if(progress.boxes.begin(), progress.boxes.end(), [&](const Box& b) {
    return (b.state == State::waits || (b.state == State::again && !b.gates.empty())) &&
           (station.empty() || station_of_stage(b.task->stage) == station);
  }));
}

}  // namespace kranich::tasks
