// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tasks/book.h"

#include <algorithm>
#include <charconv>
#include <chrono>
#include <cmath>
#include <set>

namespace kranich::tasks {

const std::vector<EventSort>& all_events() {
  static const std::vector<EventSort> list{
      {"landing", "Landings", "each flight day", ""},
      {"hard landing", "A hard landing", "hard landing", ""},
      {"failure", "Something broke, bent or tore", "each failure", "repair"},
      {"repair", "A repair", "each repair", "repair"},
      {"part", "A part exchanged", "each part", "part"},
      {"battery", "Another supply or battery", "", "battery"},
      {"moved", "Supports changed, or the aircraft moved", "", "moved"},
      {"bolt-up", "A leg taken off and bolted on again", "each bolt-up", ""},
      {"lay-up", "A lay-up begun", "each lay-up", ""},
      {"opening", "A line opened", "each opening", ""},
      {"cover", "Something about to be covered", "each cover", ""},
      {"drop", "A drop", "drop", ""},
      {"purchase", "Something bought", "", ""},
      {"change", "A change", "", ""},
  };
  return list;
}

const EventSort* find_event(std::string_view name) {
  for (const EventSort& e : all_events())
    if (e.name == name) return &e;
  return nullptr;
}

History::History(const Book& book) {
  std::set<std::string_view> struck;
  for (const Entry& e : book.entries)
    if (e.mark == Mark::struck) struck.insert(e.strikes);
  for (const Entry& e : book.entries)
    if (e.mark != Mark::struck && !struck.count(e.id)) valid_.push_back(&e);
  // Two books laid together by hand may stand in any order.
  std::stable_sort(valid_.begin(), valid_.end(),
                   [](const Entry* a, const Entry* b) { return a->at < b->at; });
  for (const Entry* e : valid_)
    if (!e->task.empty()) by_box_[{e->task, e->piece}].push_back(e);
}

const std::vector<const Entry*>& History::of(std::string_view task, std::string_view piece) const {
  static const std::vector<const Entry*> none;
  const auto it = by_box_.find({task, piece});
  return it == by_box_.end() ? none : it->second;
}

std::vector<const Entry*> History::readings(std::string_view task, std::string_view piece) const {
  std::vector<const Entry*> list;
  for (const Entry* e : of(task, piece))
    if (e->mark == Mark::done || e->mark == Mark::tried) list.push_back(e);
  return list;
}

namespace {
double in(const Entry& e, double own, std::string_view unit) {
  if (own != 0) return own;
  double all = 0;
  for (const Read& r : e.readings)
    if (r.unit == unit && std::isfinite(r.value)) all += r.value;
  return all;
}
}  // namespace

double hours_of(const Entry& e) { return in(e, e.hours, "h"); }
double cost_of(const Entry& e) { return in(e, e.cost, "money"); }

std::optional<int> day_number(std::string_view date) {
  int year = 0;
  unsigned month = 0, day = 0;
  const auto read = [&](size_t from, size_t length, auto& into) {
    const auto text = date.substr(from, length);
    const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), into);
    return error == std::errc() && end == text.data() + text.size();
  };
  if (date.size() < 10 || date[4] != '-' || date[7] != '-' || !read(0, 4, year) || !read(5, 2, month) ||
      !read(8, 2, day))
    return {};
  const std::chrono::year_month_day ymd{std::chrono::year(year), std::chrono::month(month),
                                        std::chrono::day(day)};
  if (!ymd.ok()) return {};
  return static_cast<int>(std::chrono::sys_days(ymd).time_since_epoch().count());
}

}  // namespace kranich::tasks
