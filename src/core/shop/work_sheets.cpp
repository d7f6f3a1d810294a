// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/shop/work_sheets.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "core/base/text.h"
#include "core/model/describe_words.h"
#include "core/tasks/register.h"
#include "core/tasks/words.h"

namespace kranich::shop {
namespace {

constexpr double page_width = 188;                  //!< mm that every paper holds
constexpr double large = 3.4, small = 2.7;          //!< letters
constexpr size_t large_line = 60, small_line = 80;  //!< letters that fit a line

//! One drawing whose pages lie below each other as paper is cut (print/templates.h): a pitch apart, each with
//! what the one before it shows again at its foot left blank. A block is never cut.
class Pages {
 public:
  Pages(Paper paper, std::string id, std::string title, std::string state, std::vector<std::string> head,
        Tongue tongue)
      : pitch_(paper == Paper::a4 ? 235 : 217.4),
        id_(std::move(id)),
        title_(std::move(title)),
        tongue_(tongue) {
    drawing_.title = title_;
    drawing_.state = std::move(state);
    drawing_.line({0, 0}, {page_width, 0}, Line::dimension);
    for (const auto& text : head)
      for (const auto& words : wrapped(text, small_line)) drawing_.write({0, y_ -= 4.4}, small, words);
    y_ -= 4;
  }

  //! A piece that stays together: how high it is, and how it is drawn from its top on.
  template <class Draw>
  void block(double height, Draw draw) {
    if (y_ - height < -pitch_ * (page_ + 1) + 2 && !fresh_) {
      ++page_;
      y_ = -pitch_ * page_ - shown_again - 4.4;
      drawing_.write({0, y_}, small,
                     in_words(say("{}, page {}", title_, counted(static_cast<size_t>(page_) + 1)), tongue_));
      y_ -= 3;
    }
    fresh_ = false;
    draw(drawing_, y_);
    y_ -= height;
  }
  Sheet sheet() { return {id_, title_, std::move(drawing_)}; }

 private:
  static constexpr double shown_again = 10;
  double pitch_;
  std::string id_, title_;
  Tongue tongue_;
  Drawing drawing_;
  double y_ = 0;
  int page_ = 0;
  bool fresh_ = true;
};

class Printer {
 public:
  Printer(const tasks::Progress& progress, const tasks::Look& look, const tasks::History& book,
          std::string state, const Tongue& tongue)
      : progress_(progress), look_(look), book_(book), state_(std::move(state)), tongue_(tongue) {
    const Design& d = look.design();
    tongue_.units = d.units;
    head_.push_back(words("The program plans and records, it does not approve."));
    if (!d.is_model())
      head_.back() += " " + words(
                                "Full-size structure and retraction need the engineer's or inspector's eye; "
                                "local rules decide.");
    head_.push_back(words(say("Loading {}, build state {}.",
                              look.loading().empty() ? Text("not set") : Text(look.loading()),
                              ours(build_state_names[static_cast<size_t>(d.purpose.build_state)]))));
  }

  std::vector<Sheet> all() {
    std::vector<const tasks::Box*> today;
    for (const auto* b : tasks::ready(progress_, "")) today.push_back(b);
    check_list("check-list-today", words("Check list, what is open now"), today);
    for (const auto stage : tasks::stages) {
      std::vector<const tasks::Box*> list;
      for (const auto& b : progress_.boxes)
        if (b.task->stage == stage && stage != "always") list.push_back(&b);
      if (stage == "service")
        check_list("service-card", words("Service card"), list);
      else
        check_list("check-list-" + std::string(stage),
                   words(say("Check list, {}", ours(tasks::stage_title(stage)))), list);
    }
    ladder();
    part_list();
    trial_form();
    return std::move(sheets_);
  }

 private:
  std::string words(const Text& text) const { return in_words(text, tongue_); }
  //! Of the table of steps: looked up as any sentence.
  std::string of_table(const std::string& text) const { return words(Text(text.c_str())); }
  std::string filled(const tasks::Box& b, const std::string& text) const {
    return tasks::filled(look_, book_, *b.task, b.piece, text, tongue_);
  }
  void add(Pages& pages) { sheets_.push_back(pages.sheet()); }
  Pages pages_of(const std::string& id, const std::string& title) const {
    return {look_.design().jig.paper, id, title, state_, head_, tongue_};
  }

  void check_list(const std::string& id, const std::string& title,
                  const std::vector<const tasks::Box*>& boxes) {
    if (boxes.empty()) return;
    Pages pages = pages_of(id, title);
    int number = 0;
    std::set<const tasks::Hazard*> hazards;
    for (const auto* box : boxes) hazards.insert(box->task->hazards.begin(), box->task->hazards.end());
    if (!hazards.empty()) {
      std::vector<std::string> said;
      for (const auto& h : tasks::all_hazards())
        if (hazards.count(&h))
          for (const auto& text : wrapped(fmt::format("{}  {}", h.sign, words(ours(h.words))), small_line))
            said.push_back(text);
      pages.block(4.4 * static_cast<double>(said.size()) + 3, [&](Drawing& d, double y) {
        for (const auto& text : said) d.write({0, y -= 4.4}, small, text);
      });
    }
    for (const auto* box : boxes) one(pages, *box, ++number);
    add(pages);
  }

  void one(Pages& pages, const tasks::Box& b, int number) {
    const tasks::Task& t = *b.task;
    std::string text = fmt::format("{}. ", number);
    if (!b.piece.words.empty()) text += capitalised(words(b.piece.words)) + ": ";
    text += filled(b, t.text);
    const auto lines = wrapped(text, large_line);
    std::vector<std::string> aside;
    std::string note = filled(b, t.why);
    if (!t.helper.empty()) note += (note.empty() ? "" : " · ") + words(say("{} more to help", t.helper));
    for (const auto* h : t.hazards) note += fmt::format("{}{}", note.empty() ? "" : "  ", h->sign);
    if (b.state != tasks::State::open && b.state != tasks::State::standing)
      note += fmt::format("{}{}", note.empty() ? "" : " · ", words(ours(tasks::state_word(b.state))));
    for (const auto& g : b.gates) note += (note.empty() ? "" : " · ") + words(say("before: {}", g.words));
    if (!note.empty()) aside = wrapped(note, small_line - 4);
    if (t.choice) {
      std::string sides = of_table(t.choice->question) + ": ";
      for (const auto& s : t.choice->sides) sides += "[ ] " + of_table(s) + "   ";
      for (const auto& l : wrapped(sides, small_line - 4)) aside.push_back(l);
    }
    const auto stop = t.stop.empty() ? std::vector<std::string>()
                                     : wrapped(words(say("Stop at: {}", filled(b, t.stop))), small_line - 8);
    const double readings = 6.5 * static_cast<double>(t.readings.size());
    const double height = 5.2 * static_cast<double>(lines.size()) + 4.2 * static_cast<double>(aside.size()) +
                          (stop.empty() ? 0 : 4.2 * static_cast<double>(stop.size()) + 3) + readings + 4;
    pages.block(height, [&](Drawing& d, double y) {
      d.rectangle({0, y - 4.6}, {4.4, y - 0.2}, Line::mark);
      if (b.passed()) {
        d.line({0.7, y - 2.4}, {1.8, y - 3.8}, Line::cut);
        d.line({1.8, y - 3.8}, {3.9, y - 0.9}, Line::cut);
      } else if (b.state == tasks::State::tried) {
        d.line({0.4, y - 4.2}, {4, y - 0.6}, Line::cut);
      }
      for (const auto& l : lines) d.write({7, (y -= 5.2) + 1.3}, large, l);
      for (const auto& l : aside) d.write({7, (y -= 4.2) + 1}, small, l);
      if (!stop.empty()) {
        const double top = y - 0.4;
        for (const auto& l : stop) d.write({9, (y -= 4.2) + 0.4}, small, l);
        y -= 1.6;
        d.rectangle({7, y + 0.4}, {page_width, top}, Line::cut);
        y -= 1.4;
      }
      for (size_t i = 0; i < t.readings.size(); ++i) {
        const auto& r = t.readings[i];
        y -= 6.5;
        const auto should = words(tasks::should_read(r, tasks::foretold(look_, book_, t, b.piece, i, {})));
        d.write({7, y + 1.6}, small, shortened(of_table(r.name), 30));
        d.write({78, y + 1.6}, small, should.empty() ? "" : words(say("should be {}", should)));
        d.line({142, y + 0.8}, {page_width, y + 0.8}, Line::mark);
        if (!b.last) continue;
        for (const tasks::Read& read : b.last->readings)
          if (read.name == r.name) d.write({144, y + 1.6}, small, shortened(words(tasks::said(read)), 18));
      }
    });
  }

  void ladder() {
    Pages pages = pages_of("ladder", words("Ladder of tests"));
    for (const auto& rung : progress_.ladder) {
      std::vector<std::string> lines;
      std::map<std::string, std::string> by_task;
      std::vector<std::string> order;
      for (const size_t i : rung.boxes) {
        const auto& b = progress_.boxes[i];
        const std::string name = of_table(b.task->name());
        if (!by_task.count(name)) order.push_back(name);
        by_task[name] += fmt::format("[{}] {}   ",
                                     b.passed()                       ? "x"
                                     : b.state == tasks::State::tried ? "/"
                                                                      : " ",
                                     words(b.piece.words.empty() ? Text("all") : b.piece.words));
      }
      for (const auto& name : order)
        for (const auto& l : wrapped(name + ": " + by_task[name], small_line - 8)) lines.push_back(l);
      if (rung.boxes.empty())
        lines.push_back(words("does not apply to this gear: passed over"));
      else
        for (const auto& l :
             wrapped(words(say("Stop at: {}", ours(tasks::rung_words(rung.number).stop))), small_line - 8))
          lines.push_back(l);
      pages.block(4.4 * static_cast<double>(lines.size()) + 9, [&](Drawing& d, double y) {
        d.write({0, y - 5}, large,
                words(say("Rung {}: {}", counted(static_cast<size_t>(rung.number)),
                          ours(tasks::rung_words(rung.number).title))));
        y -= 6;
        for (const auto& l : lines) d.write({8, y -= 4.4}, small, l);
        d.line({0, y - 2}, {page_width, y - 2}, Line::dimension);
      });
    }
    add(pages);
  }

  void part_list() {
    const auto rows = tasks::part_register(look_.design(), book_);
    if (rows.empty()) return;
    Pages pages = pages_of("register", words("Part register"));
    const double at[]{0, 58, 78, 100, 118, 140, 158};
    const auto row = [&](const std::vector<std::string>& cells, bool heading) {
      pages.block(6, [&](Drawing& d, double y) {
        const size_t most[]{28, 9, 10, 8, 10, 8, 14};
        for (size_t i = 0; i < cells.size(); ++i)
          d.write({at[i], y - 4}, small - 0.3, shortened(cells[i], most[i]));
        if (heading) d.line({0, y - 5.4}, {page_width, y - 5.4}, Line::mark);
      });
    };
    row({words("What"), words("Side"), words("Size"), words("Angle"), words("Mass"), words("Price"),
         words("State")},
        true);
    const auto amount = [&](double si, Kind kind) {
      return std::isfinite(si) ? words(Amount{si, kind}) : std::string();
    };
    for (const auto& r : rows)
      row({capitalised(words(r.what)), words(r.side), amount(r.size, Kind::length),
           amount(r.angle, Kind::angle), amount(r.mass, Kind::mass),
           std::isfinite(r.price) ? fmt::format("{:.2f}", r.price) : "", words(r.state)},
          false);
    add(pages);
  }

  //! Blank lines for tries, to be filled in with dirty hands and copied into the Book.
  void trial_form() {
    Pages pages = pages_of("trial-form", words("Trial form"));
    const double at[]{0, 22, 62, 92, 122};
    pages.block(9, [&](Drawing& d, double y) {
      const Text headings[]{"Day", "Changed", "From", "To", "What it did"};
      for (int i = 0; i < 5; ++i) d.write({at[i], y - 5}, small, words(headings[i]));
      d.line({0, y - 7}, {page_width, y - 7}, Line::mark);
    });
    for (int i = 0; i < 18; ++i)
      pages.block(11, [&](Drawing& d, double y) {
        for (const double x : at)
          if (x > 0) d.line({x - 2, y}, {x - 2, y - 11}, Line::dimension);
        d.line({0, y - 11}, {page_width, y - 11}, Line::dimension);
      });
    add(pages);
  }

  const tasks::Progress& progress_;
  const tasks::Look& look_;
  const tasks::History& book_;
  std::string state_;
  Tongue tongue_;
  std::vector<std::string> head_;
  std::vector<Sheet> sheets_;
};

}  // namespace

std::vector<Sheet> work_sheets(const tasks::Progress& progress, const tasks::Look& look,
                               const tasks::History& book, const std::string& state, const Tongue& tongue) {
  return Printer(progress, look, book, state, tongue).all();
}

}  // namespace kranich::shop
