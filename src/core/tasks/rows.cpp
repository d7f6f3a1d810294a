// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tasks/rows.h"

#include <algorithm>
#include <boost/math/distributions/students_t.hpp>
#include <cmath>
#include <limits>

namespace kranich::tasks {
namespace {

constexpr double nan = std::numeric_limits<double>::quiet_NaN();

//! Landings made up to a moment; a hard one is one.
double landings_until(const History& book, const std::string& at) {
  double all = 0;
  for (const Entry* e : book.valid()) {
    if (e->at > at || e->mark != Mark::event) continue;
    if (e->event == "landing") all += std::max(1, e->count);
    if (e->event == "hard landing") all += 1;
  }
  return all;
}

void judge(ReadingRow& row) {
  auto& p = row.points;
  if (p.size() >= 2) {
    const RowPoint& last = p.back();
    const double change = last.value - p[p.size() - 2].value;
    const double tolerance = (last.upper - last.lower) / 2;
    if (std::isfinite(tolerance) && tolerance > 0 && std::abs(change) > tolerance) row.jump = change;
  }
  if (p.size() >= 3) {
    const auto side = [](const RowPoint& x) { return x.value > x.upper ? 1 : x.value < x.lower ? -1 : 0; };
    const int last = side(p.back());
    row.three_to_a_side = last != 0 && side(p[p.size() - 2]) == last && side(p[p.size() - 3]) == last;
  }
  if (p.size() < 4) return;
  // y = a + b·x by least squares; the slope's standard error from what is left over, n − 2 degrees of
  // freedom.
  const auto n = static_cast<double>(p.size());
  double mx = 0, my = 0;
  for (const RowPoint& x : p) {
    mx += x.at / n;
    my += x.value / n;
  }
  double sxx = 0, sxy = 0;
  for (const RowPoint& x : p) {
    sxx += (x.at - mx) * (x.at - mx);
    sxy += (x.at - mx) * (x.value - my);
  }
  if (!(sxx > 0)) return;
  const double slope = sxy / sxx;
  double left = 0;
  for (const RowPoint& x : p) left += std::pow(x.value - my - slope * (x.at - mx), 2);
  const double error = std::sqrt(left / (n - 2) / sxx);
  const double t95 = boost::math::quantile(boost::math::students_t(n - 2), 0.975);
  const RowPoint& last = p.back();
  const double tolerance = (last.upper - last.lower) / 2;
  const double way = slope * (last.at - p.front().at);
  if (!(std::abs(slope) > t95 * error) || !std::isfinite(tolerance) || std::abs(way) < tolerance / 2) return;
  const double fitted = my + slope * (last.at - mx);
  const double bound = slope > 0 ? last.upper : last.lower;
  const double out_in = (bound - fitted) / slope;
  row.drift = Drift{slope, error, out_in > 0 ? out_in : nan};
}

const Read* named(const Entry& e, const std::string& name) {
  for (const Read& r : e.readings)
    if (r.name == name && std::isfinite(r.value)) return &r;
  return nullptr;
}

//! Places of entries along the row.
class Along {
 public:
  explicit Along(const History& book) : book_(book) {
    for (const Entry* e : book.valid())
      counted_ =
          counted_ || (e->mark == Mark::event && (e->event == "landing" || e->event == "hard landing"));
  }
  bool by_landings() const { return counted_; }
  double of(const Entry& e) {
    if (counted_) return landings_until(book_, e.at);
    const int day = day_number(e.at).value_or(0);
    if (!begun_) first_ = day;
    begun_ = true;
    return day - first_;
  }

 private:
  const History& book_;
  bool counted_ = false, begun_ = false;
  int first_ = 0;
};

}  // namespace

ReadingRow row_of(const History& book, const Task& task, const std::string& piece, size_t reading) {
  ReadingRow row;
  Along along(book);
  row.by_landings = along.by_landings();
  for (const Entry* e : book.readings(task.id, piece))
    if (const Read* r = named(*e, task.readings[reading].name))
      row.points.push_back({along.of(*e), std::string(e->day()), r->value, r->foretold, r->lower, r->upper});
  judge(row);
  return row;
}

ReadingRow difference_row(const History& book, const Task& task, const Piece& piece, size_t reading) {
  ReadingRow row;
  if (!piece.has_twin) return row;
  Along along(book);
  row.by_landings = along.by_landings();
  const std::string& name = task.readings[reading].name;
  const std::string& left = piece.port ? piece.key : piece.twin;
  double here = nan, there = nan;
  for (const Entry* e : book.valid()) {
    if (e->task != task.id || (e->piece != piece.key && e->piece != piece.twin)) continue;
    if (e->mark != Mark::done && e->mark != Mark::tried) continue;
    const Read* r = named(*e, name);
    if (!r) continue;
    (e->piece == left ? here : there) = r->value;
    if (!std::isfinite(here) || !std::isfinite(there)) continue;
    const double tolerance = (r->upper - r->lower) / 2;
    row.points.push_back({along.of(*e), std::string(e->day()), here - there, 0, -tolerance, tolerance});
    here = there = nan;  // the next pair
  }
  judge(row);
  return row;
}

}  // namespace kranich::tasks
