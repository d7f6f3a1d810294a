// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/book_file.h"

#include <fcntl.h>
#include <fmt/format.h>
#include <sys/stat.h>
#include <unistd.h>

#include <algorithm>
#include <cmath>
#include <cstring>
#include <nlohmann/json.hpp>
#include <set>

#include "core/base/text.h"
#include "core/io/csv_table.h"
#include "shelf_data.h"

namespace kranich {

using nlohmann::ordered_json;
using tasks::Compared;
using tasks::Entry;
using tasks::Mark;
using tasks::Read;

namespace {

constexpr double nan = std::numeric_limits<double>::quiet_NaN();
constexpr std::array<std::string_view, 3> compared_names{"", "within", "outside"};

double to_si(const std::string& unit) {
  const auto of = tasks::reading_unit(unit);
  return of ? of->to_si : 1;
}
//! In the reading's own unit, without the digits that a conversion adds.
double in_unit(double si, const std::string& unit) {
  return std::stod(fmt::format("{:.12g}", si / to_si(unit)));
}

template <class E, size_t n>
E named(const std::array<std::string_view, n>& names, std::string_view word, E otherwise) {
  const auto it = std::find(names.begin(), names.end(), word);
  return it == names.end() ? otherwise : static_cast<E>(it - names.begin());
}

void put(ordered_json& to, const char* key, const std::string& text) {
  if (!text.empty()) to[key] = text;
}
void put(ordered_json& to, const char* key, double si, const std::string& unit) {
  if (std::isfinite(si)) to[key] = in_unit(si, unit);
}

std::string text_in(const ordered_json& from, const char* key) {
  const auto it = from.find(key);
  return it != from.end() && it->is_string() ? it->get<std::string>() : std::string();
}
double number_in(const ordered_json& from, const char* key, double otherwise) {
  const auto it = from.find(key);
  return it != from.end() && it->is_number() ? it->get<double>() : otherwise;
}

//! An entry from its line; throws what is wrong with it.
Entry entry_of(const ordered_json& line) {
  if (!line.is_object()) throw std::string("must be an object in braces");
  Entry e;
  e.id = text_in(line, "id");
  e.at = text_in(line, "at");
  if (e.id.empty()) throw std::string("has no \"id\"");
  if (!tasks::day_number(e.at))
    throw fmt::format("\"at\" must be a day and time, is \"{}\"", shortened(e.at, 30));
  const std::string mark = text_in(line, "mark");
  const auto at = std::find(tasks::mark_names.begin(), tasks::mark_names.end(), mark);
  if (at == tasks::mark_names.end())
    throw fmt::format("\"mark\" must be one of done, tried, aside, kept, note, event, struck, is \"{}\"",
                      shortened(mark, 30));
  e.mark = static_cast<Mark>(at - tasks::mark_names.begin());
  e.who = text_in(line, "who");
  e.task = text_in(line, "step");
  e.piece = text_in(line, "for");
  e.piece_words = text_in(line, "called");
  e.choice = text_in(line, "choice");
  e.reason = text_in(line, "reason");
  e.note = text_in(line, "note");
  e.build_state = text_in(line, "build_state");
  e.loading = text_in(line, "loading");
  e.revision = text_in(line, "revision");
  e.hours = number_in(line, "hours", 0);
  e.cost = number_in(line, "cost", 0);
  e.source = text_in(line, "source");
  e.event = text_in(line, "event");
  e.what = text_in(line, "what");
  e.from = text_in(line, "from");
  e.to = text_in(line, "to");
  e.strikes = text_in(line, "strikes");
  const double count = number_in(line, "count", 0);
  e.count = count > 0 && count < 1e6 ? static_cast<int>(count) : 0;
  if (const auto list = line.find("pictures"); list != line.end() && list->is_array())
    for (const auto& p : *list)
      if (p.is_string()) e.pictures.push_back(p.get<std::string>());
  if (const auto list = line.find("readings"); list != line.end() && list->is_array())
    for (const auto& one : *list) {
      if (!one.is_object()) throw std::string("a reading must be an object in braces");
      Read r;
      r.name = text_in(one, "name");
      r.unit = text_in(one, "unit");
      const double si = to_si(r.unit);
      r.value = number_in(one, "value", nan) * si;
      r.text = text_in(one, "text");
      r.foretold = number_in(one, "foretold", nan) * si;
      r.lower = number_in(one, "lower", nan) * si;
      r.upper = number_in(one, "upper", nan) * si;
      r.compared = named(compared_names, text_in(one, "verdict"), Compared::unjudged);
      e.readings.push_back(std::move(r));
    }
  if (const auto seen = line.find("seen"); seen != line.end() && seen->is_object())
    for (const auto& [path, value] : seen->items())
      if (value.is_string()) e.seen.emplace_back(path, value.get<std::string>());
  return e;
}

}  // namespace

std::filesystem::path book_beside(const std::filesystem::path& project) {
  auto file = project;
  file.replace_extension(".book.jsonl");
  return file;
}

ReadBook read_book(std::string_view text) {
  ReadBook result;
  std::set<std::string> ids;
  size_t number = 0;
  while (!text.empty()) {
    ++number;
    const auto end = text.find('\n');
    const auto line = text.substr(0, end);
    text = end == std::string_view::npos ? std::string_view() : text.substr(end + 1);
    if (line.find_first_not_of(" \t\r") == std::string_view::npos) continue;
    const auto fault = [&](std::string what) {
      result.faults.push_back({fmt::format("line {}", number), std::move(what)});
    };
    const auto parsed = ordered_json::parse(line, nullptr, false);
    if (parsed.is_discarded()) {
      fault(end == std::string_view::npos ? "was cut short: it is left out"
                                          : "cannot be read: it is left out");
      continue;
    }
    try {
      Entry entry = entry_of(parsed);
      if (ids.insert(entry.id).second) result.book.entries.push_back(std::move(entry));
    } catch (const std::string& what) {
      fault(what + ": it is left out");
    }
  }
  return result;
}

std::string book_line(const Entry& e) {
  ordered_json line;
  line["id"] = e.id;
  line["at"] = e.at;
  put(line, "who", e.who);
  line["mark"] = tasks::mark_names[static_cast<size_t>(e.mark)];
  put(line, "step", e.task);
  put(line, "for", e.piece);
  put(line, "called", e.piece_words);
  if (!e.readings.empty()) {
    auto list = ordered_json::array();
    for (const Read& r : e.readings) {
      ordered_json one;
      one["name"] = r.name;
      put(one, "unit", r.unit);
      put(one, "value", r.value, r.unit);
      put(one, "text", r.text);
      put(one, "foretold", r.foretold, r.unit);
      put(one, "lower", r.lower, r.unit);
      put(one, "upper", r.upper, r.unit);
      put(one, "verdict", std::string(compared_names[static_cast<size_t>(r.compared)]));
      list.push_back(std::move(one));
    }
    line["readings"] = std::move(list);
  }
  put(line, "choice", e.choice);
  put(line, "reason", e.reason);
  put(line, "note", e.note);
  put(line, "event", e.event);
  put(line, "what", e.what);
  put(line, "from", e.from);
  put(line, "to", e.to);
  if (e.count) line["count"] = e.count;
  if (e.hours != 0) line["hours"] = e.hours;
  if (e.cost != 0) line["cost"] = e.cost;
  put(line, "source", e.source);
  if (!e.pictures.empty()) line["pictures"] = e.pictures;
  put(line, "build_state", e.build_state);
  put(line, "loading", e.loading);
  put(line, "revision", e.revision);
  put(line, "strikes", e.strikes);
  if (!e.seen.empty()) {
    ordered_json seen;
    for (const auto& [path, value] : e.seen) seen[path] = value;
    line["seen"] = std::move(seen);
  }
  // What is no UTF-8 is replaced, not thrown at the builder.
  return line.dump(-1, ' ', false, ordered_json::error_handler_t::replace) + "\n";
}

std::optional<std::string> append_to_book(const std::filesystem::path& file, const Entry& entry) {
  const int fd = ::open(file.c_str(), O_RDWR | O_CREAT | O_APPEND | O_CLOEXEC, 0644);
  if (fd < 0) return fmt::format("{}: {}", file.string(), std::strerror(errno));
  struct stat info {};
  char last = '\n';
  const bool cut = ::fstat(fd, &info) == 0 && info.st_size > 0 &&
                   ::pread(fd, &last, 1, info.st_size - 1) == 1 && last != '\n';
  const std::string text = (cut ? "\n" : "") + book_line(entry);
  size_t done = 0;
  std::optional<std::string> why;
  while (done < text.size() && !why) {
    const ssize_t n = ::write(fd, text.data() + done, text.size() - done);
    if (n < 0 && errno != EINTR) why = fmt::format("{}: {}", file.string(), std::strerror(errno));
    if (n > 0) done += static_cast<size_t>(n);
  }
  if (!why && ::fsync(fd) != 0 && errno != EINVAL)
    why = fmt::format("{}: {}", file.string(), std::strerror(errno));
  ::close(fd);
  return why;
}

namespace {

const CsvRow& csv_heading() {
  static const CsvRow heading{"at",       "who",         "mark",    "step",     "for",     "called",
                              "reading",  "unit",        "value",   "foretold", "lower",   "upper",
                              "verdict",  "choice",      "reason",  "note",     "event",   "what",
                              "from",     "to",          "count",   "hours",    "cost",    "source",
                              "pictures", "build_state", "loading", "revision", "strikes", "id"};
  return heading;
}
std::string written(double si, const std::string& unit) {
  return std::isfinite(si) ? shortest(in_unit(si, unit)) : std::string();
}

}  // namespace

std::string book_to_csv(const tasks::Book& book) {
  std::string out = csv_line(csv_heading());
  for (const Entry& e : book.entries) {
    std::string pictures;
    for (const auto& p : e.pictures) pictures += (pictures.empty() ? "" : " | ") + p;
    std::vector<Read> rows = e.readings;
    if (rows.empty()) rows.emplace_back();
    for (size_t i = 0; i < rows.size(); ++i) {
      const Read& r = rows[i];
      // What belongs to the entry stands in its first row; the id ties the others to it.
      const auto once = [&](std::string text) { return i ? std::string() : std::move(text); };
      out += csv_line({e.at,
                       once(e.who),
                       std::string(tasks::mark_names[static_cast<size_t>(e.mark)]),
                       e.task,
                       e.piece,
                       once(e.piece_words),
                       r.name,
                       r.unit,
                       std::isfinite(r.value) ? written(r.value, r.unit) : r.text,
                       written(r.foretold, r.unit),
                       written(r.lower, r.unit),
                       written(r.upper, r.unit),
                       std::string(compared_names[static_cast<size_t>(r.compared)]),
                       once(e.choice),
                       once(e.reason),
                       once(e.note),
                       once(e.event),
                       once(e.what),
                       once(e.from),
                       once(e.to),
                       once(e.count ? std::to_string(e.count) : ""),
                       once(e.hours != 0 ? shortest(e.hours) : ""),
                       once(e.cost != 0 ? shortest(e.cost) : ""),
                       once(e.source),
                       once(pictures),
                       once(e.build_state),
                       once(e.loading),
                       once(e.revision),
                       once(e.strikes),
                       e.id});
    }
  }
  return out;
}

BookFromCsv book_from_csv(std::string_view text) {
  BookFromCsv result;
  Table table(text, {"at", "mark", "id"}, result.faults);
  const Spec any{"number", Kind::factor, -1e12, 1e12};
  for (size_t row = 0; row < table.rows.size(); ++row) {
    const auto cell = [&](const char* column) { return table.text(row, column); };
    const std::string id = cell("id");
    if (id.empty()) {
      table.fault(row, "id", "is missing");
      continue;
    }
    if (result.entries.empty() || result.entries.back().id != id) {
      Entry e;
      e.id = id;
      e.at = cell("at");
      if (!tasks::day_number(e.at)) {
        table.fault(row, "at", fmt::format("must be a day and time, is \"{}\"", shortened(e.at, 30)));
        continue;
      }
      const std::string mark = cell("mark");
      const auto at = std::find(tasks::mark_names.begin(), tasks::mark_names.end(), mark);
      if (at == tasks::mark_names.end()) {
        table.fault(row, "mark",
                    fmt::format("must be one of done, tried, aside, kept, note, event, struck, is \"{}\"",
                                shortened(mark, 30)));
        continue;
      }
      e.mark = static_cast<Mark>(at - tasks::mark_names.begin());
      e.who = cell("who");
      e.task = cell("step");
      e.piece = cell("for");
      e.piece_words = cell("called");
      e.choice = cell("choice");
      e.reason = cell("reason");
      e.note = cell("note");
      e.event = cell("event");
      e.what = cell("what");
      e.from = cell("from");
      e.to = cell("to");
      const Given count = table.number(row, "count", any), hours = table.number(row, "hours", any),
                  cost = table.number(row, "cost", any);
      e.count = count.known() && count > 0 && count < 1e6 ? static_cast<int>(count) : 0;
      e.hours = hours.known() ? hours.si : 0;
      e.cost = cost.known() ? cost.si : 0;
      e.source = cell("source");
      std::string pictures = cell("pictures");
      while (!pictures.empty()) {
        const auto end = pictures.find(" | ");
        e.pictures.push_back(pictures.substr(0, end));
        pictures = end == std::string::npos ? std::string() : pictures.substr(end + 3);
      }
      e.build_state = cell("build_state");
      e.loading = cell("loading");
      e.revision = cell("revision");
      e.strikes = cell("strikes");
      result.entries.push_back(std::move(e));
    }
    if (cell("reading").empty()) continue;
    Read r;
    r.name = cell("reading");
    r.unit = cell("unit");
    const auto unit = tasks::reading_unit(r.unit);
    if (!unit) {
      table.fault(row, "unit", fmt::format("\"{}\" is no unit of a reading", shortened(r.unit, 20)));
      continue;
    }
    const auto si = [&](const char* column) {
      const Given given = table.number(row, column, any);
      return given.known() ? given * unit->to_si : nan;
    };
    if (unit->form == tasks::Form::number)
      r.value = si("value");
    else
      r.text = cell("value");
    r.foretold = si("foretold");
    r.lower = si("lower");
    r.upper = si("upper");
    r.compared = named(compared_names, cell("verdict"), Compared::unjudged);
    result.entries.back().readings.push_back(std::move(r));
  }
  return result;
}

std::vector<std::pair<std::string, tasks::TaskLine>> task_lines(std::string_view csv,
                                                                std::vector<Fault>& faults) {
  std::vector<std::pair<std::string, tasks::TaskLine>> lines;
  Table table(csv, {"id", "stage", "when", "text"}, faults);
  for (size_t row = 0; row < table.rows.size(); ++row) {
    tasks::TaskLine line;
    for (const auto column : tasks::task_columns)
      line[std::string(column)] = table.text(row, std::string(column));
    lines.emplace_back(fmt::format("line {}", row + 2), std::move(line));
  }
  return lines;
}

std::vector<std::pair<std::string, tasks::TaskLine>> shipped_task_lines() {
  std::vector<Fault> faults;
  return task_lines(shelf_data::steps, faults);
}

tasks::TaskTable task_table(const Design& design, std::string_view own_file) {
  std::vector<Fault> faults;
  auto own = own_file.empty() ? std::vector<std::pair<std::string, tasks::TaskLine>>()
                              : task_lines(own_file, faults);
  for (auto& [where, line] : own) where = "steps.csv, " + where;
  for (size_t i = 0; i < design.own_tasks.size(); ++i) {
    const OwnTask& t = design.own_tasks[i];
    tasks::TaskLine line{{"id", t.id},
                         {"stage", t.stage},
                         {"when", t.when},
                         {"per", t.per},
                         {"text", t.text},
                         {"why", t.why},
                         {"hazard", t.hazard},
                         {"helpers", t.helpers},
                         {"gate", t.gate},
                         {"reading", t.reading},
                         {"unit", t.unit},
                         {"predicted", t.predicted},
                         {"tolerance", t.tolerance},
                         {"sets", t.sets},
                         {"stop", t.stop},
                         {"rung", t.rung},
                         {"reopens", t.reopens},
                         {"repeat", t.repeat},
                         {"choice", t.choice},
                         {"needs", t.needs}};
    own.emplace_back(fmt::format("step {} of your own", i + 1), std::move(line));
  }
  tasks::TaskTable table = tasks::table_of(shipped_task_lines(), own);
  for (const Fault& f : faults) table.problems.push_back(fmt::format("steps.csv, {}: {}", f.where, f.what));
  return table;
}

}  // namespace kranich
