// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tasks/words.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/tasks/record.h"

namespace kranich::tasks {

Text amount_of(double si, const ReadingUnit& unit) {
  if (unit.kind) return Amount{si, *unit.kind};
  const bool bare = unit.symbol == "number" || unit.symbol == "money";
  return fmt::format("{:.6g}{}{}", si, bare ? "" : " ", bare ? "" : unit.symbol);
}

Text said(const Read& read) {
  if (!std::isfinite(read.value)) return read.text;
  const auto unit = reading_unit(read.unit);
  return unit ? amount_of(read.value, *unit) : Text(fmt::format("{:.6g}", read.value));
}

Text should_read(const Reading& reading, const Foretold& f) {
  using Sort = Predicted::Sort;
  if (reading.predicted.sort == Sort::yes) return "yes";
  if (reading.predicted.sort == Sort::no) return "no";
  const bool low = std::isfinite(f.lower), high = std::isfinite(f.upper);
  if (low && high && f.upper > f.lower)
    return say("{} ± {}", amount_of(f.value, reading.unit), amount_of((f.upper - f.lower) / 2, reading.unit));
  if (high && !low) return say("at most {}", amount_of(f.upper, reading.unit));
  if (low && !high) return say("at least {}", amount_of(f.lower, reading.unit));
  if (std::isfinite(f.value)) return amount_of(f.value, reading.unit);
  if (reading.predicted.sort == Sort::judged) return "judged when entered";
  return {};
}

std::variant<Read, std::string> understood(const Reading& reading, std::string_view typed, UnitSystem units) {
  Read read;
  read.name = reading.name;
  read.unit = reading.unit.symbol;
  switch (reading.unit.form) {
    case Form::number: {
      const auto parsed = parse_quantity(typed, reading.unit.kind.value_or(Kind::factor), units);
      if (const auto* wrong = std::get_if<ParseError>(&parsed)) return wrong->message;
      read.value = std::get<ParsedQuantity>(parsed).si;
      return read;
    }
    case Form::yes_no: {
      std::string word(typed);
      std::transform(word.begin(), word.end(), word.begin(),
                     [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
      for (const std::string_view answer : {"yes", "no"})
        if (!word.empty() && answer.starts_with(word)) {
          read.text = answer;
          return read;
        }
      return fmt::format("must be yes or no, is \"{}\"", shortened(typed, 40));
    }
    case Form::text:
    case Form::photo:
      read.text = typed;
      return read;
  }
  return read;
}

std::variant<double, std::string> understood_number(std::string_view what, std::string_view typed, double low,
                                                    double high, bool whole) {
  const auto parsed = parse_quantity(typed, Kind::factor, UnitSystem::metric);
  if (const auto* number = std::get_if<ParsedQuantity>(&parsed))
    if (number->si >= low && number->si <= high && (!whole || number->si == std::floor(number->si)))
      return number->si;
  return fmt::format("{} must be a {} from {} to {}, is \"{}\"", what, whole ? "whole number" : "number", low,
                     high, shortened(typed, 40));
}

Text heading_of(const Entry& e) {
  std::string head(mark_names[static_cast<size_t>(e.mark)]);
  if (!e.task.empty()) head = e.task + " · " + head;
  if (const auto* sort = find_event(e.event)) head = sort->words;
  return e.what.empty() ? head : head + ": " + e.what;
}

std::vector<Text> told(const Entry& e) {
  std::vector<Text> all;
  for (const Read& r : e.readings)
    all.push_back(r.compared == Compared::outside ? say("{} {} (outside)", Text(r.name), said(r))
                                                  : say("{} {}", Text(r.name), said(r)));
  if (e.event == "failure") {
    if (!e.from.empty()) all.emplace_back("in: " + e.from);
  } else if (!e.from.empty() || !e.to.empty()) {
    all.emplace_back(e.from + " → " + e.to);
  }
  if (e.count) all.emplace_back(e.count == 1 ? "1 landing" : fmt::format("{} landings", e.count));
  for (const std::string* words : {&e.choice, &e.reason, &e.note, &e.source})
    if (!words->empty()) all.emplace_back(*words);
  const auto reads = [&](std::string_view unit) {
    return std::any_of(e.readings.begin(), e.readings.end(), [&](const Read& r) { return r.unit == unit; });
  };
  if (e.hours != 0 && !reads("h")) all.emplace_back(fmt::format("{:g} h", e.hours));
  if (e.cost != 0 && !reads("money")) all.emplace_back(fmt::format("cost {:g}", e.cost));
  return all;
}

Text lacks(const Box& box, const Entry& entry) {
  switch (entry.mark) {
    case Mark::aside:
      return entry.reason.empty() ? Text("set aside with a reason") : Text();
    case Mark::kept:
      return entry.reason.empty() ? Text("it does not matter, because …: say why") : Text();
    case Mark::done:
    case Mark::tried:
      break;
    case Mark::note:
    case Mark::event:
    case Mark::struck:
      return {};
  }
  if (!box.gates.empty() && entry.reason.empty())
    return "what is before it is not done: it counts as tried, and wants a reason";
  if (box.task->choice && entry.choice.empty())
    return say("which of the two: {}", Text(box.task->choice->question));
  if (const auto wanted = still_wanted(*box.task, entry); !wanted.empty())
    return say("{} is wanted: it is what proves the step", Text(wanted[0]));
  return {};
}

}  // namespace kranich::tasks
