// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/quantity.h"

#include <catch2/catch.hpp>
#include <random>

using namespace kranich;

namespace {
double si(const char* text, Kind kind, UnitSystem system = UnitSystem::metric) {
  INFO(text);
  const auto r = parse_quantity(text, kind, system);
  if (const auto* e = std::get_if<ParseError>(&r)) FAIL(e->message);
  return std::get<ParsedQuantity>(r).si;
}
std::string refused(const char* text, Kind kind, UnitSystem system = UnitSystem::metric) {
  const auto r = parse_quantity(text, kind, system);
  INFO(text);
  REQUIRE(std::holds_alternative<ParseError>(r));
  return std::get<ParseError>(r).message;
}
}  // namespace

TEST_CASE("entries say what a builder says") {
  constexpr double inch = 0.0254;
  CHECK(si("41 3/8\"", Kind::length) == Approx(41.375 * inch).epsilon(1e-14));
  CHECK(si("41.375 in", Kind::length) == Approx(41.375 * inch).epsilon(1e-14));
  CHECK(si("41⅜ in", Kind::length) == Approx(41.375 * inch).epsilon(1e-14));
  CHECK(si("6' 2\"", Kind::length) == Approx(74 * inch).epsilon(1e-14));
  CHECK(si("6' 2", Kind::length) == Approx(74 * inch).epsilon(1e-14));
  CHECK(si("6' 2 1/2\"", Kind::length) == Approx(74.5 * inch).epsilon(1e-14));
  CHECK(si("-6' 2\"", Kind::length) == Approx(-74 * inch).epsilon(1e-14));
  CHECK(si("1835", Kind::length) == Approx(1.835));
  CHECK(si("183.5 cm", Kind::length) == Approx(1.835));
  CHECK(si("183,5 cm", Kind::length) == Approx(1.835));
  CHECK(si("1 7/16", Kind::length, UnitSystem::inch) == Approx(1.4375 * inch));
  CHECK(si("14 3/16 + 3/32", Kind::length, UnitSystem::inch) == Approx((14 + 3 / 16.0 + 3 / 32.0) * inch));
  CHECK(si("14 3/16 + 3/32 in", Kind::length) == Approx((14 + 3 / 16.0 + 3 / 32.0) * inch));
  CHECK(si("1835 - 12.5", Kind::length) == Approx(1.8225));
  CHECK(si("2 m + 35 mm", Kind::length) == Approx(2.035));
  CHECK(si("7 lb 9 oz", Kind::mass) == Approx(0.45359237 * (7 + 9 / 16.0)));
  CHECK(si("0.85 kgf", Kind::force) == Approx(0.85 * 9.80665));
  CHECK(si("17.5 deg", Kind::angle) == Approx(radians(17.5)));
  CHECK(si("17.5", Kind::angle) == Approx(radians(17.5)));
  CHECK(si("32 psi", Kind::pressure) == Approx(220632.2).epsilon(1e-5));
  CHECK(si("12 %", Kind::share) == Approx(0.12));
  CHECK(si("−3", Kind::length) == Approx(-0.003));
}

TEST_CASE("nonsense is refused with the reason") {
  CHECK(refused("", Kind::length).find("expected") != std::string::npos);
  CHECK(refused("abc", Kind::length).find("abc") != std::string::npos);
  CHECK(refused("12 kg", Kind::length).find("not a unit of length") != std::string::npos);
  CHECK(refused("1,835", Kind::length).find("thousand") != std::string::npos);
  CHECK(refused("12 13", Kind::length).find("side by side") != std::string::npos);
  CHECK(refused("12 +", Kind::length).find("after the sign") != std::string::npos);
  CHECK(refused("1 + + 2", Kind::length).find("number was expected") != std::string::npos);
  CHECK(refused("2 m + 3 mm + 4", Kind::length).find("without a unit") != std::string::npos);
  CHECK(refused("1e308", Kind::length).find("large") != std::string::npos);
  CHECK(refused("3/0", Kind::length).size() > 0);
  CHECK(refused("nan", Kind::mass).size() > 0);
  CHECK(refused("12..5", Kind::mass).size() > 0);
}

TEST_CASE("any text is either read or refused, never worse") {
  std::mt19937 random(7);
  const std::string letters = "0123456789 ./'\"+-,ftinkgmlboz%°½eE";
  for (int i = 0; i < 20000; ++i) {
    std::string s;
    for (auto n = random() % 12; n > 0; --n) s += letters[random() % letters.size()];
    const auto r = parse_quantity(s, static_cast<Kind>(random() % 19), UnitSystem::inch);
    if (const auto* q = std::get_if<ParsedQuantity>(&r))
      CHECK(std::isfinite(q->si));
    else
      CHECK(!std::get<ParseError>(r).message.empty());
  }
}

TEST_CASE("a shown number reads back in both systems") {
  for (const auto system : {UnitSystem::metric, UnitSystem::inch})
    for (const double v : {0.0, 1.835, -0.752, 12.5}) {
      const auto shown = format_quantity(v, Kind::length, system);
      CHECK(si(shown.c_str(), Kind::length, system) == Approx(v).margin(6e-5));
    }
  CHECK(format_quantity(1.835, Kind::length, UnitSystem::metric) == "1835\u00a0mm");
  CHECK(format_quantity(41.375 * 0.0254, Kind::length, UnitSystem::inch) == "41.375\u00a0in");
  CHECK(format_quantity(0.018, Kind::speed, UnitSystem::metric) == "0.018\u00a0m/s");
  CHECK(format_quantity(22.0, Kind::speed, UnitSystem::metric) == "22\u00a0m/s");
  CHECK(format_quantity(-0.00001, Kind::length, UnitSystem::metric) == "0\u00a0mm");
  CHECK(format_quantity(std::nan(""), Kind::length, UnitSystem::metric) == "unknown");
  CHECK(format_difference(0.004, Kind::length, UnitSystem::metric) == "+4\u00a0mm");
}

TEST_CASE("every kind has a display unit in both systems, and it is known") {
  for (int k = 0; k < 19; ++k)
    for (const auto system : {UnitSystem::metric, UnitSystem::inch}) {
      const auto& u = display_unit(static_cast<Kind>(k), system);
      CHECK(u.kind == static_cast<Kind>(k));
      CHECK(u.to_si > 0);
    }
}
