// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/finding.h"

#include <algorithm>

namespace kranich {

std::string_view verdict_word(Verdict verdict) {
  switch (verdict) {
    case Verdict::holds:
      return "holds";
    case Verdict::tight:
      return "tight";
    case Verdict::fails:
      return "fails";
    case Verdict::unknown:
      return "unknown";
    case Verdict::noted:
      return "noted";
  }
  return "unknown";
}

std::string_view gear_state_word(GearState state) {
  switch (state) {
    case GearState::extended:
      return "extended";
    case GearState::static_load:
      return "static";
    case GearState::bottomed:
      return "bottomed";
    case GearState::flat:
      return "flat";
  }
  return "static";
}

Judgement judge(double value, const Limit& limit, double zero_scale, double tolerance_effect) {
  constexpr double nan = std::numeric_limits<double>::quiet_NaN();
  if (!std::isfinite(value)) return {Verdict::unknown, nan, nan};
  if (!limit.set()) return {Verdict::noted, nan, nan};

  const bool two_sided = limit.lower && limit.upper;
  const double width = two_sided ? *limit.upper - *limit.lower : 0;
  double margin = std::numeric_limits<double>::infinity();
  double scale = 0;
  double at_limit = 0;
  auto consider = [&](double distance, double bound) {
    if (distance < margin) {
      margin = distance;
      at_limit = bound;
    }
  };
  if (limit.lower) consider(value - *limit.lower, *limit.lower);
  if (limit.upper) consider(*limit.upper - value, *limit.upper);
  scale = two_sided ? width : std::abs(at_limit) > 0 ? std::abs(at_limit) : zero_scale;
  if (margin < 0 && margin > -1e-9 * scale) margin = 0;  // on the limit but for the arithmetic's last digits
  const double fraction = scale > 0 ? margin / scale : nan;

  if (margin < 0) return {Verdict::fails, margin, fraction};
  if (limit.hold_lower || limit.hold_upper) {
    const bool outside =
        (limit.hold_lower && value < *limit.hold_lower) || (limit.hold_upper && value > *limit.hold_upper);
    return {outside || margin < tolerance_effect ? Verdict::tight : Verdict::holds, margin, fraction};
  }
  const double band = std::max(tolerance_effect, 0.1 * scale);
  return {margin < band ? Verdict::tight : Verdict::holds, margin, fraction};
}

}  // namespace kranich
