// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/spring/shelf.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/base/numerics.h"
#include "core/force/bent_leg.h"
#include "core/force/coil.h"
#include "core/force/materials.h"
#include "core/force/suspension.h"

namespace kranich::spring {
namespace {

using force::Suspension;

double rise_at(const Suspension& s, double q) { return s.at(q).axle.z() - s.axle.z(); }
double vertical_force(const Suspension& s, double q) {
  const auto at = s.at(q);
  return at.force / at.axle_1.z();
}

//! Where the leg stands under a load, as a share of its travel.
double sag_under(const Suspension& s, double travel, double load) {
  if (vertical_force(s, 0) >= load) return 0;
  if (vertical_force(s, s.most) <= load) return 1;
  const auto q = find_root([&](double x) { return vertical_force(s, x) - load; }, 0, s.most);
  return q ? rise_at(s, *q) / travel : 1;
}

//! What is left at the stop, and what would break something before. A leg that bends has none: its travel
//! ends where it takes a set.
void judge_stop(const Leg& leg, const Suspension& s, Candidate& c) {
  const Spring& spring = leg.spring;
  switch (spring.kind) {
    case SpringKind::coil: {
      const auto coil = force::coil_at_wheel(spring.coil);
      const double closes =
          s.path == Suspension::Path::hinged ? s.closure(s.most).s : leg.travel * coil->motion_ratio;
      c.margin = coil->figures.margin(std::max(0.0, coil->spring_preload + coil->figures.rate * closes));
      if (spring.coil.free_length < spring.coil.installed_length) {
        c.objection = "too short: it would hang loose";
        c.fits = false;
      } else if (coil->travel_left < closes) {
        c.objection = "solid before the stop";
        c.fits = false;
      } else if (c.margin < 0) {
        c.objection = "overstressed at the stop";
      }
      return;
    }
    case SpringKind::gas_strut:
      if (s.closure(s.most).s > spring.gas_strut.full_stroke) {
        c.objection = "at its end before the leg's stop";
        c.fits = false;
      }
      return;
    case SpringKind::cord: {
      const double installed = (s.anchor_leg - s.anchor_airframe).norm();
      const double stretch = (installed + s.closure(s.most).s) / spring.cord.free_length - 1;
      c.margin = spring.cord.curve.back().stretch - stretch;
      if (c.margin < 0) c.objection = "stretched beyond its curve at the stop";
      return;
    }
    case SpringKind::pucks: {
      const double stack = spring.pucks.count * spring.pucks.thickness;
      const double squeezed = (stack - spring.pucks.assembled_length + s.closure(s.most).s) / stack;
      c.margin = 0.30 - squeezed;
      if (c.margin < 0) c.objection = "squeezed by more than 30 % at the stop";
      return;
    }
    default:
      return;
  }
}

}  // namespace

std::vector<Candidate> rank_offers(const std::vector<Offer>& offers, const std::vector<Material>& own,
                                   const Need& need) {
  std::vector<Candidate> list;
  for (size_t i = 0; i < offers.size(); ++i) {
    Leg leg = offers[i].leg;
    force::settle_travel(leg, own, std::numeric_limits<double>::infinity());
    Candidate c;
    c.index = i;
    const auto path = force::suspension_of(leg, own);
    if (const auto* missing = std::get_if<Text>(&path)) {
      c.objection = say("needs {}", *missing);
      c.fits = false;
      c.score = 100;
      list.push_back(std::move(c));
      continue;
    }
    const auto& s = std::get<Suspension>(path);
    if (s.most <= 0) continue;
    c.preload = vertical_force(s, 0);
    c.rate = s.wheel_rate(0);
    c.sag = sag_under(s, leg.travel, need.static_load);
    c.peak = vertical_force(s, s.most);
    c.energy = s.energy(s.most);
    judge_stop(leg, s, c);
    if (c.objection.empty() && c.sag >= 1 && leg.spring.kind == SpringKind::bending)
      c.objection = "takes a set standing still";
    if (c.objection.empty() && c.sag > need.sag_high)
      c.objection = say("too soft: sags {}", Amount{c.sag, Kind::share});
    if (c.objection.empty() && c.sag < need.sag_low)
      c.objection = say("too stiff: sags {}", Amount{c.sag, Kind::share});
    const double middle = (need.sag_low + need.sag_high) / 2;
    c.score = std::abs(c.sag - middle) + (c.margin < 0 ? 1 - c.margin : 0) + (c.fits ? 0 : 10) +
              (c.objection.empty() ? 0 : 1);
    list.push_back(std::move(c));
  }
  std::stable_sort(list.begin(), list.end(),
                   [](const Candidate& a, const Candidate& b) { return a.score < b.score; });
  return list;
}

namespace {

//! The count (of strands, discs, plies) whose sag comes nearest to the middle of the band. Sag falls as the
//! count grows; it is halved down to.
template <class Fit>
double best_count(double low, double high, double step, const std::vector<Material>& own, const Need& need,
                  Fit&& fit) {
  const double middle = (need.sag_low + need.sag_high) / 2;
  const auto sag = [&](double n) {
    Leg leg = fit(n);
    force::settle_travel(leg, own, std::numeric_limits<double>::infinity());
    const auto path = force::suspension_of(leg, own);
    const auto* s = std::get_if<Suspension>(&path);
    return s && s->most > 0 ? sag_under(*s, leg.travel, need.static_load) : std::nan("");
  };
  double best = low;
  double miss = 1e9;
  double from = low;
  double to = high;
  while (to - from > step) {
    const double n = from + step * std::round((to - from) / 2 / step);
    const double x = sag(n);
    const double off = std::abs(x - middle);
    if (off < miss) {
      miss = off;
      best = n;
    }
    if (!(x <= middle)) {
      if (n == from) break;
      from = n;
    } else {
      if (n == to) break;
      to = n;
    }
  }
  for (const double n : {from, to})
    if (std::abs(sag(n) - middle) < miss) {
      miss = std::abs(sag(n) - middle);
      best = n;
    }
  return best;
}

Amount length_of(double v) { return {v, Kind::length}; }
//! NaN where a measure of the coil is missing.
double solid_length_of(const Coil& c) {
  const auto made = force::coil_at_wheel([&] {
    Coil free = c;
    free.installed_length = free.free_length;
    return free;
  }());
  return made ? made->figures.solid_length : std::numeric_limits<double>::quiet_NaN();
}
Amount distance_of(double v) { return {v, Kind::distance}; }
//! A count that has no decimals but where a builder typed some.
Text count_of(double n) { return shortest(n); }

}  // namespace

std::vector<Offer> offers_for(const Leg& leg, const Shelves& shelves, const std::vector<Material>& own,
                              const Need& need) {
  std::vector<Offer> offers;
  const auto offer = [&](const ShelfItem& item, Text size, Text buy, Leg fitted) {
    offers.push_back({item.name, item.remark, std::move(size), std::move(buy), std::move(fitted)});
  };
  switch (leg.spring.kind) {
    case SpringKind::coil:
      for (const auto& item : shelves.coils) {
        Leg fitted = leg;
        Coil& c = fitted.spring.coil;
        c = item.coil;
        c.installed_length = leg.spring.coil.installed_length;
        c.count = leg.spring.coil.count;
        c.motion_ratio = leg.spring.coil.motion_ratio;
        c.unknown_keys = leg.spring.coil.unknown_keys;
        offer(item,
              say("{} × {} × {}, {} turns, solid at {}", length_of(item.coil.wire_diameter),
                  length_of(item.coil.mean_diameter), length_of(item.coil.free_length),
                  Figure{item.coil.active_turns, 1}, length_of(solid_length_of(item.coil))),
              say("{} × {} for each leg", count_of(c.count.known() ? c.count.si : 1), item.name),
              std::move(fitted));
      }
      break;
    case SpringKind::gas_strut:
      for (const auto& item : shelves.struts) {
        Leg fitted = leg;
        const Given count = leg.spring.gas_strut.count;
        fitted.spring.gas_strut = item.strut;
        fitted.spring.gas_strut.count = count;
        offer(item,
              say("{}, {} stroke", Amount{item.strut.extended_force, Kind::force},
                  length_of(item.strut.full_stroke)),
              say("{} × {} for each leg", count_of(count.known() ? count.si : 1), item.name),
              std::move(fitted));
      }
      break;
    case SpringKind::cord:
      for (const auto& item : shelves.cords) {
        const auto fit = [&](double strands) {
          Leg fitted = leg;
          Cord& c = fitted.spring.cord;
          c.shelf_name = item.name;
          c.curve = item.cord.curve;
          c.strands = Given(strands);
          return fitted;
        };
        const double n = best_count(2, 200, 2, own, need, fit);
        offer(item, say("{} strands", count_of(n)),
              say("{} of {} for each leg, {} turns", distance_of(n * leg.spring.cord.free_length * 1.1),
                  item.name, count_of(n / 2)),
              fit(n));
      }
      break;
    case SpringKind::pucks:
      for (const auto& item : shelves.pucks) {
        const auto fit = [&](double count) {
          Leg fitted = leg;
          Pucks& p = fitted.spring.pucks;
          p = item.pucks;
          p.count = Given(count);
          p.assembled_length = Given(0.97 * count * item.pucks.thickness);
          return fitted;
        };
        // More discs are softer: the search runs on the count turned round.
        const double n = 61 - best_count(1, 60, 1, own, need, [&](double k) { return fit(61 - k); });
        offer(item,
              say("{} discs of {} × {}", count_of(n), length_of(item.pucks.outer_diameter),
                  length_of(item.pucks.thickness)),
              say("{} × {} for each leg, assembled under 3 % of squeeze", count_of(n), item.name), fit(n));
      }
      break;
    case SpringKind::bending: {
      const BentForm form = leg.spring.bent.form;
      const double length = [&] {
        double sum = 0;
        const auto& line = leg.spring.bent.line;
        for (size_t i = 1; i < line.size(); ++i) sum += (line[i].at.vec() - line[i - 1].at.vec()).norm();
        return sum;
      }();
      if (form == BentForm::wire)
        for (const auto& item : shelves.wires)
          for (const bool doubled : {false, true}) {
            // A second loop beside each: the same turns again, half as stiff there.
            if (doubled && leg.spring.bent.loops.empty()) continue;
            Leg fitted = leg;
            fitted.spring.bent.shelf_name = item.name;
            fitted.spring.bent.wire_diameter = Given(item.thickness);
            fitted.spring.bent.material = item.material;
            double wound = 0;
            for (auto& l : fitted.spring.bent.loops) {
              if (doubled) l.turns.si *= 2;
              wound += 3.1416 * l.mean_diameter * l.turns;
            }
            const Text hole =
                leg.spring.bent.mount_bore.known() && leg.spring.bent.mount_bore < item.thickness
                    ? say(", hole drilled out to {}", length_of(item.thickness))
                    : Text();
            if (leg.spring.bent.mount_bore.known() && leg.spring.bent.mount_bore < item.thickness)
              fitted.spring.bent.mount_bore = Given(item.thickness);
            offer(item,
                  doubled ? say("{}, loops doubled", length_of(item.thickness)) : length_of(item.thickness),
                  say("{} of {} for each leg{}", distance_of((length + wound) * 1.2), item.name, hole),
                  std::move(fitted));
          }
      if (form == BentForm::leaf)
        for (const auto& item : shelves.sheets) {
          Leg fitted = leg;
          fitted.spring.bent.shelf_name = item.name;
          fitted.spring.bent.material = item.material;
          for (auto& p : fitted.spring.bent.line) p.thickness = Given(item.thickness);
          offer(item, length_of(item.thickness),
                say("{} of {} for each leg", distance_of(length * 1.1), item.name), std::move(fitted));
        }
      if (form == BentForm::bow)
        for (const auto& item : shelves.plies) {
          const auto fit = [&](double plies) {
            Leg fitted = leg;
            BentLeg& b = fitted.spring.bent;
            b.shelf_name = item.name;
            b.ply_areal_weight = Given(item.thickness);
            b.plies = Given(plies);
            for (auto& p : b.line) p.thickness = Given();  // follows from the plies
            if (!item.material.empty()) b.material = item.material;
            return fitted;
          };
          const double n = best_count(1, 200, 1, own, need, fit);
          const double width = leg.spring.bent.line.empty() ? 0 : leg.spring.bent.line.front().width.si;
          offer(item, say("{} plies", count_of(n)),
                say("{} of {} for each leg", Amount{n * length * width, Kind::area}, item.name), fit(n));
        }
      break;
    }
    default:
      break;
  }
  return offers;
}

}  // namespace kranich::spring
