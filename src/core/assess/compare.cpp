// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/assess/compare.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "core/model/locate.h"

namespace kranich {

std::vector<CompareRow> compare(const std::vector<const Assessment*>& assessments) {
  std::map<std::pair<std::string, std::string>, CompareRow> rows;
  for (size_t i = 0; i < assessments.size(); ++i)
    for (const Finding* f : worst_of_each(*assessments[i])) {
      auto& row = rows[{f->measure_id, f->subject.key}];
      row.measure_id = f->measure_id;
      row.subject = f->subject;
      row.findings.resize(assessments.size());
      row.findings[i] = *f;
    }
  std::vector<CompareRow> list;
  for (auto& [key, row] : rows) {
    double low = std::numeric_limits<double>::infinity();
    double high = -low;
    double scale = 0;
    bool in_all = true;
    for (const auto& f : row.findings) {
      if (!f || !std::isfinite(f->value)) {
        in_all = false;
        continue;
      }
      low = std::min(low, f->value);
      high = std::max(high, f->value);
      scale = std::max(
          {scale, std::abs(f->value),
           std::abs(f->margin_fraction != 0 && std::isfinite(f->margin) ? f->margin / f->margin_fraction
                                                                        : 0)});
    }
    row.difference = high > low && scale > 0 ? (high - low) / scale : in_all ? 0 : 1e-6;
    list.push_back(std::move(row));
  }
  std::stable_sort(list.begin(), list.end(),
                   [](const CompareRow& a, const CompareRow& b) { return a.difference > b.difference; });
  return list;
}

std::vector<Changed> changed_inputs(const Design& before, const Design& after) {
  std::map<std::string, NamedGiven> was;
  for (auto& g : all_given(before)) was.emplace(g.path, g);
  std::vector<Changed> list;
  for (const auto& g : all_given(after)) {
    const auto old = was.find(g.path);
    const double value = old == was.end() ? std::nan("") : old->second.given.si;
    const bool same = value == g.given.si || (std::isnan(value) && std::isnan(g.given.si));
    if (!same) list.push_back({g.path, g.title(), value, g.given.si, g.spec.kind});
  }
  return list;
}

}  // namespace kranich
