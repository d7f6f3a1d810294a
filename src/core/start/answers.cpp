// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/start/answers.h"

#include <cmath>
#include <limits>
#include <numbers>

namespace kranich::start {
namespace {

constexpr double none = std::numeric_limits<double>::quiet_NaN();

//! Least all-up mass by seats, and what is taken where none is told (kg).
constexpr std::array<double, 5> least_by_seats{60, 150, 350, 600, 750};
constexpr std::array<double, 5> usual_by_seats{150, 300, 600, 900, 1100};

bool within(double value, const Allowed& a) {
  return std::isfinite(value) && value >= a.least * (1 - 1e-12) && value <= a.most * (1 + 1e-12);
}

}  // namespace

double wing_loading(const Settled& s) {
  if (s.helicopter()) return s.model ? 2.0 * std::pow(s.mass, 0.15) : std::pow(s.mass, 0.40);
  return (s.model ? 4.8 * std::cbrt(s.mass) : 2.2 * std::sqrt(s.mass)) *
         (s.engine == Engine::ducted ? 1.35 : 1);
}

double usual_mean_chord(const Settled& s) { return std::sqrt(s.mass / (6.5 * wing_loading(s))); }

Allowed allowed_mass(const Answers& a) {
  if (a.build.value_or(Build::full_size) == Build::model) return {5, 0.3, 25};
  const auto seats = static_cast<size_t>(std::clamp(a.seats.value_or(2), 0, 4));
  return {usual_by_seats[seats], least_by_seats[seats], 2000};
}

namespace {

Settled without_sizes(const Answers& a) {
  Settled s{};
  s.model = a.build.value_or(Build::full_size) == Build::model;
  s.seats = s.model ? 0 : std::clamp(a.seats.value_or(2), 0, 4);
  s.scale = s.model && a.scale ? *a.scale : none;
  s.kind = a.kind.value_or(Craft::nose_wheel);
  s.retractable = a.retractable.value_or(false);
  s.mass = a.mass.value_or(allowed_mass(a).usual);
  s.wing = a.wing.value_or(WingPlace::low);
  s.engine = a.engine.value_or(Engine::front);
  s.field = a.field.value_or(Field::turf);
  s.mass_guessed = !a.mass;
  s.widen = 1;
  return s;
}

Allowed spans(const Settled& s) {
  if (s.helicopter()) {
    const double usual = std::sqrt(4 * s.mass / (std::numbers::pi * wing_loading(s)));
    return {usual, 0.75 * usual, 1.4 * usual};
  }
  const double usual = 6.5 * usual_mean_chord(s);
  return {usual, 0.65 * usual, 1.8 * usual};
}

Allowed lengths(const Settled& s) {
  const double usual = s.helicopter()
                           ? 0.85 * s.span
                           : (s.model ? 5.2 * usual_mean_chord(s) : 1.35 * std::pow(s.mass, 0.23)) *
                                 (s.engine == Engine::ducted ? 1.1 : 1);
  const double least = s.helicopter() ? 0.95 : s.seats >= 3 ? 1.0 : 0.80;
  return {usual, least * usual, 1.5 * usual};
}

}  // namespace

Allowed allowed_span(const Answers& a) { return spans(without_sizes(a)); }

Allowed allowed_length(const Answers& a) {
  Settled s = without_sizes(a);
  s.span = a.span.value_or(spans(s).usual);
  return lengths(s);
}

Settled settled(const Answers& a) {
  Settled s = without_sizes(a);
  const Allowed span = spans(s);
  s.span = a.span.value_or(span.usual);
  s.span_guessed = !a.span;
  const Allowed length = lengths(s);
  s.length = a.length.value_or(length.usual);
  s.length_guessed = !a.length;
  if ((a.span && !within(*a.span, span)) || (a.length && !within(*a.length, length))) s.widen = 2;
  return s;
}

std::vector<Refusal> refusals(const Answers& a) {
  std::vector<Refusal> list;
  const bool model = a.build.value_or(Build::full_size) == Build::model;
  if (a.seats && (*a.seats < 0 || *a.seats > 4)) list.push_back({"seats", say("0 to 4 seats")});
  if (a.scale && !(*a.scale >= 1 && *a.scale <= 100)) list.push_back({"scale", say("1:1 to 1:100")});
  if (a.field == Field::indoor && !model) list.push_back({"field", say("indoors only a model flies")});
  if (a.mass)
    if (const Allowed m = allowed_mass(a); !within(*a.mass, m)) {
      const Amount least{m.least, Kind::mass}, most{m.most, Kind::mass};
      list.push_back(
          {"mass", model ? say("a model weighs {} to {}", least, most)
                         : say("with {} seats {} to {}", std::to_string(a.seats.value_or(2)), least, most)});
      return list;  // what follows hangs on it
    }
  const auto size = [&](const char* question, const std::optional<double>& value, const Allowed& allowed,
                        bool keep) {
    if (!value || within(*value, allowed)) return;
    // Kept all the same, but no further than a number may be.
    if (keep && *value >= 0.3 * allowed.usual && *value <= 3 * allowed.usual) return;
    list.push_back({question,
                    say("at {} {} to {}", Amount{a.mass.value_or(allowed_mass(a).usual), Kind::mass},
                        Amount{allowed.least, Kind::length}, Amount{allowed.most, Kind::length}),
                    *value >= 0.3 * allowed.usual && *value <= 3 * allowed.usual});
  };
  size("span", a.span, allowed_span(a), a.keep_span);
  size("length", a.length, allowed_length(a), a.keep_length);
  return list;
}

}  // namespace kranich::start
