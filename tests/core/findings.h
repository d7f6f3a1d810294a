// SPDX-License-Identifier: GPL-3.0-or-later
//! Looking a finding up in an assessment. What is returned lives as long as the assessment does.
#pragma once

#include <catch2/catch.hpp>
#include <string_view>

#include "core/assess/assess.h"
#include "core/leg/structure.h"
#include "said.h"

namespace kranich {

//! The first finding of a check about a subject; null where there is none.
inline const Finding* find(const Assessment& a, std::string_view id, std::string_view subject) {
  for (const auto& f : a.findings)
    if (f.measure_id == id && in_words(f.subject.words) == subject) return &f;
  return nullptr;
}

inline const Finding* find(const Assessment& a, std::string_view id,
                           const std::same_as<Subject> auto& subject) {
  for (const auto& f : a.findings)
    if (f.measure_id == id && f.subject == subject) return &f;
  return nullptr;
}
inline const Finding* worst(const Assessment& a, std::string_view id,
                            const std::same_as<Subject> auto& subject) {
  for (const Finding* f : worst_of_each(a))
    if (f->measure_id == id && f->subject == subject) return f;
  return nullptr;
}

//! The worst of a check, of one subject where one is named; null where there is none.
inline const Finding* worst(const Assessment& a, std::string_view id, std::string_view subject = {}) {
  for (const Finding* f : worst_of_each(a))
    if (f->measure_id == id && (subject.empty() || in_words(f->subject.words) == subject)) return f;
  return nullptr;
}

//! As worst, where there must be one.
inline const Finding& the_worst(const Assessment& a, std::string_view id, std::string_view subject = {}) {
  const Finding* f = worst(a, id, subject);
  INFO("no finding " << id);
  REQUIRE(f);
  return *f;
}

inline const Finding& the_worst(const Assessment& a, std::string_view id,
                                const std::same_as<Subject> auto& subject) {
  const Finding* f = worst(a, id, subject);
  INFO("no finding " << id);
  REQUIRE(f);
  return *f;
}

//! What a part of a leg is left with, where there must be one of the name.
inline const leg::PartMargin& part(const leg::Structure& s, std::string_view name) {
  for (const auto& p : s.parts)
    if (p.part == name) return p;
  FAIL("no part " << name);
  return s.parts.front();
}

}  // namespace kranich
