// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/steps.h"

#include <fmt/format.h>

#include <cmath>
#include <iostream>
#include <nlohmann/json.hpp>

#include "core/assess/loading_state.h"
#include "core/base/text.h"
#include "core/io/book_file.h"
#include "core/shop/work_sheets.h"
#include "core/tasks/figures.h"
#include "core/tasks/progress.h"

namespace kranich::cli {
namespace {

//! A line for a terminal: names from a file must not steer it.
void put(const std::string& line) { fmt::print("{}\n", printable(line)); }

}  // namespace

void print_steps(const Design& design, const std::string& path, const std::string& today, bool every,
                 bool json) {
  const Assessment a = assess(design);
  const auto read = read_book(read_text_file(book_beside(path), size_t{64} << 20).value_or(""));
  for (const Fault& f : read.faults)
    std::cerr << book_beside(path).string() << ", " << f.where << ": " << f.what << '\n';
  const tasks::TaskTable table = task_table(design);
  for (const auto& problem : table.problems) std::cerr << problem << '\n';
  const tasks::History history(read.book);
  const std::string loading = a.loadings.empty() ? std::string() : a.loadings.front().name;
  const tasks::Look look(design, a, loading);
  const tasks::Progress progress = tasks::progress_of(table, look, history, today);
  const Tongue tongue{design.units, nullptr};
  auto list = nlohmann::ordered_json::array();
  std::string stage;
  for (const tasks::Box& b : progress.boxes) {
    const bool open = b.gates.empty() && !b.passed() && b.state != tasks::State::standing;
    if (!every && !open) continue;
    const std::string text = tasks::filled(look, history, *b.task, b.piece, b.task->text, {design.units});
    if (json) {
      nlohmann::ordered_json one{{"id", b.task->id},
                                 {"stage", b.task->stage},
                                 {"for", b.piece.key},
                                 {"state", tasks::state_word(b.state)},
                                 {"text", text}};
      auto gates = nlohmann::ordered_json::array();
      for (const auto& g : b.gates) gates.push_back(in_words(g.words, tongue));
      one["before"] = gates;
      auto readings = nlohmann::ordered_json::array();
      for (size_t i = 0; i < b.task->readings.size(); ++i) {
        const auto& r = b.task->readings[i];
        const auto f = tasks::foretold(look, history, *b.task, b.piece, i, {});
        nlohmann::ordered_json reading{{"name", r.name}, {"unit", r.unit.symbol}};
        for (const auto& [key, value] :
             {std::pair{"foretold", f.value}, {"lower", f.lower}, {"upper", f.upper}})
          if (std::isfinite(value)) reading[key] = value / r.unit.to_si;
        readings.push_back(reading);
      }
      one["readings"] = readings;
      list.push_back(std::move(one));
      continue;
    }
    if (b.task->stage != stage) {
      stage = b.task->stage;
      put("");
      put(std::string(tasks::stage_title(stage)));
    }
    put(fmt::format("  [{}] {}{}", tasks::state_word(b.state),
                    b.piece.words.empty() ? std::string() : in_words(b.piece.words, tongue) + ": ", text));
    for (const auto& g : b.gates) put("        before: " + in_words(g.words, tongue));
  }
  if (json) {
    nlohmann::ordered_json whole{{"steps", list}};
    auto questions = nlohmann::ordered_json::array();
    for (const auto& q : progress.questions)
      questions.push_back({{"key", q.question->key}, {"question", q.question->words}, {"steps", q.tasks}});
    whole["questions"] = questions;
    fmt::print("{}\n", whole.dump(1));
    return;
  }
  for (const auto& q : progress.questions)
    put(fmt::format("? {} ({} steps hang on it)", q.question->words, q.tasks));
}

std::vector<shop::Sheet> work_sheets(const Design& design, const Assessment& assessment,
                                     const std::string& path, const std::string& today) {
  const auto read = read_book(read_text_file(book_beside(path), size_t{64} << 20).value_or(""));
  const tasks::History history(read.book);
  const tasks::TaskTable table = task_table(design);
  const tasks::Look look(design, assessment,
                         assessment.loadings.empty() ? std::string() : assessment.loadings.front().name);
  return shop::work_sheets(tasks::progress_of(table, look, history, today), look, history, "legs extended");
}

void print_steps_table() {
  fmt::print("{}\n",
             "# Steps of the work\n\nMade by `kranich-cli steps-table`; the table is data/steps.csv, how it "
             "is read stands in "
             "src/core/tasks/task.h.\n\n## Words of the column `when`\n\n| word | true when | unknown asks "
             "|\n|---|---|---|");
  for (const auto& w : tasks::all_words())
    put(fmt::format("| {} | {} | {} |", w.name, w.meaning,
                    w.question.empty() ? "–" : tasks::question(w.question).words));
  fmt::print("{}\n",
             "\n## Figures\n\nWhat texts and predictions may name beside the measures.\n\n| id | what | "
             "meaning | source |\n|---|---|---|---|");
  for (const auto& f : tasks::all_figures())
    put(fmt::format("| `{}` | {} | {} | {} |", f.id, f.title, f.meaning, f.source));
  fmt::print(
      "{}\n",
      "\n## The table\n\n| id | when | for each | what | readings | needs |\n|---|---|---|---|---|---|");
  for (const auto& [where, line] : shipped_task_lines()) {
    const auto cell = [&line = line](const char* column) {
      std::string text = line.find(column)->second;
      for (size_t at = 0; (at = text.find('|', at)) != std::string::npos; at += 2) text.replace(at, 1, "\\|");
      return text;
    };
    put(fmt::format("| `{}` | {} | {} | {} | {} | {} |", cell("id"), cell("when"), cell("per"), cell("text"),
                    cell("reading"), cell("needs")));
  }
}

}  // namespace kranich::cli
