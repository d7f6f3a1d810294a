// SPDX-License-Identifier: GPL-3.0-or-later
#include <catch2/catch.hpp>
#include <set>

#include "core/base/finding.h"

using namespace kranich;

namespace {
Verdict verdict(double value, const Limit& limit, double zero = 0, double tolerance = 0) {
  return judge(value, limit, zero, tolerance).verdict;
}
}  // namespace

TEST_CASE("one-sided limit: tight within a tenth of it") {
  const Limit l{10.0, {}, {}, {}, ""};
  CHECK(verdict(9.99, l) == Verdict::fails);
  CHECK(verdict(10.0, l) == Verdict::tight);
  CHECK(verdict(10.99, l) == Verdict::tight);
  CHECK(verdict(11.01, l) == Verdict::holds);
  CHECK(judge(12, l, 0).margin == Approx(2));
  CHECK(judge(12, l, 0).margin_fraction == Approx(0.2));
}

TEST_CASE("two-sided limit: tight within a tenth of the width") {
  const Limit l{10.0, 20.0, {}, {}, ""};
  CHECK(verdict(10.9, l) == Verdict::tight);
  CHECK(verdict(11.1, l) == Verdict::holds);
  CHECK(verdict(19.1, l) == Verdict::tight);
  CHECK(verdict(20.1, l) == Verdict::fails);
}

TEST_CASE("limit of zero: a tenth of the measure's scale") {
  const Limit l{0.0, {}, {}, {}, ""};
  CHECK(verdict(0.004, l, 0.05) == Verdict::tight);
  CHECK(verdict(0.006, l, 0.05) == Verdict::holds);
}

TEST_CASE("own bands and the build tolerance") {
  const Limit bands{0.05, 0.20, 0.08, 0.15, ""};
  CHECK(verdict(0.04, bands) == Verdict::fails);
  CHECK(verdict(0.06, bands) == Verdict::tight);
  CHECK(verdict(0.10, bands) == Verdict::holds);
  CHECK(verdict(0.16, bands) == Verdict::tight);
  const Limit l{10.0, {}, {}, {}, ""};
  CHECK(verdict(13, l, 0, 2.5) == Verdict::holds);
  CHECK(verdict(13, l, 0, 3.5) == Verdict::tight);
}

TEST_CASE("no number is unknown, no limit is noted") {
  CHECK(verdict(std::nan(""), {0.0, {}, {}, {}, ""}) == Verdict::unknown);
  CHECK(verdict(1, {}) == Verdict::noted);
}

TEST_CASE("the registry is in order: unique ids that start with their station") {
  std::set<std::string_view> ids;
  for (const auto& m : all_measures()) {
    INFO(m.id);
    CHECK(ids.insert(m.id).second);
    CHECK(m.id.substr(0, m.id.find('.')) == station_id(m.station));
    CHECK(!m.meaning.empty());
    CHECK(!m.formula.empty());
    CHECK(!m.source.empty());
  }
  CHECK(find_measure("no.such") == nullptr);
  CHECK_THROWS_AS(measure("no.such"), std::logic_error);
}
