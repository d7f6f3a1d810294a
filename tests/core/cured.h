// SPDX-License-Identifier: GPL-3.0-or-later
//! Findings by their measure, numbers by their words, and cures that do what they say: for tests of needs.
#pragma once

#include <algorithm>
#include <catch2/catch.hpp>
#include <string>
#include <vector>

#include "core/assess/cures.h"
#include "core/io/project_file.h"
#include "core/io/stock.h"
#include "core/model/consistency.h"

namespace kranich {

//! The first finding of a measure, about a leg where one is named; null if there is none.
inline const Finding* of(const Assessment& a, std::string_view id, std::string_view leg = {}) {
  for (const auto& f : a.findings)
    if (f.measure_id == id && (leg.empty() || f.subject.leg == leg)) return &f;
  return nullptr;
}
//! A number of its working by its words.
inline double said(const Finding& f, const std::string& name) {
  for (const auto& w : f.working)
    if (in_words(w.name) == name) return w.si;
  FAIL("no “" + name + "” in the working of " + f.measure_id);
  return 0;
}
//! Cures are offered, and each one, put in, is a file that opens and gives the verdict that was promised.
inline void cured(const Design& d, const Assessment& before, const Finding& f) {
  const Stock stock = stock_of(d);
  const auto cures = cures_for(d, before, f, {100, &stock});
  INFO(f.key());
  REQUIRE_FALSE(cures.empty());
  for (const auto& c : cures) {
    INFO(in_words(c.text));
    const Design after = c.applied(d);
    CHECK(inconsistencies(after).empty());
    CHECK(read_project(write_project(after)).design);
    const auto then = assess(after);
    bool found = false;
    for (const auto& g : then.findings) {
      if (g.key() != f.key()) continue;
      found = true;
      CHECK(g.verdict == c.reached);
    }
    CHECK(found);
  }
}
inline void cured(const Design& d, const Finding& f) { cured(d, assess(d), f); }
//! The finding of a measure about what has that key; null if there is none.
inline const Finding* about(const Assessment& a, std::string_view id, std::string_view key) {
  for (const auto& f : a.findings)
    if (f.measure_id == id && f.subject.key == key) return &f;
  return nullptr;
}
//! Words of the cures of what does not hold, each tried: it is what it promises, better than before, and can
//! be saved.
inline std::vector<std::string> cured_by(const Design& d, std::string_view id, std::string_view key) {
  const Assessment a = assess(d);
  const Finding* f = about(a, id, key);
  INFO(id << " " << key);
  REQUIRE(f);
  CHECK((f->verdict == Verdict::fails || f->verdict == Verdict::tight));
  const Stock stock = stock_of(d);
  std::vector<std::string> words;
  for (const auto& cure : cures_for(d, a, *f, {100, &stock})) {
    const Design after = cure.applied(d);
    const Assessment b = assess(after);
    INFO(in_words(cure.text));
    REQUIRE(about(b, id, key));
    CHECK(about(b, id, key)->verdict == cure.reached);
    CHECK(severity(cure.reached) < severity(f->verdict));
    CHECK(read_project(write_project(after)).design);
    words.push_back(in_words(cure.text));
  }
  return words;
}
inline bool says(const std::vector<std::string>& words, std::string_view part) {
  for (const auto& w : words) UNSCOPED_INFO(w);
  return std::any_of(words.begin(), words.end(),
                     [&](const std::string& w) { return w.find(part) != std::string::npos; });
}

}  // namespace kranich
