// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/weigh/weigh.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/model/lacking.h"
#include "core/model/moves.h"
#include "core/motion/retract.h"

namespace kranich::weigh {

Mass sum(std::span<const Mass> masses) {
  Mass total{0, Vec3::Zero()};
  for (const auto& m : masses) {
    total.mass += m.mass;
    total.at += m.mass * m.at;
  }
  total.at /= total.mass;
  return total;
}

namespace {

//! The extreme of x̄ when every mass may err by its tolerance; `side` −1 for the foremost, +1 for the aftmost.
double extreme_x(std::span<const LedgerLine> lines, double start, int side) {
  double x = start;
  for (int pass = 0; pass < 100; ++pass) {
    double mass = 0;
    double moment = 0;
    for (const auto& l : lines) {
      const bool pulls = side * (l.item.at.x() - x) > 0;
      const double m = l.item.mass + (pulls ? l.tolerance : -l.tolerance);
      mass += m;
      moment += m * l.item.at.x();
    }
    const double next = moment / mass;
    if (next == x) break;
    x = next;
  }
  return x;
}

}  // namespace

LedgerSums sum_ledger(std::span<const LedgerLine> lines) {
  LedgerSums s{};
  std::vector<Mass> masses;
  double squares = 0;
  for (const auto& l : lines) {
    masses.push_back(l.item);
    (l.weighed ? s.weighed_mass : s.estimated_mass) += l.item.mass;
    s.spread_worst += l.tolerance;
    squares += l.tolerance * l.tolerance;
  }
  s.total = sum(masses);
  s.spread_root_sum_square = std::sqrt(squares);
  s.cg_x_foremost = extreme_x(lines, s.total.at.x(), -1);
  s.cg_x_aftmost = extreme_x(lines, s.total.at.x(), +1);
  return s;
}

Mass from_scales(std::span<const WheelReading> wheels) {
  std::vector<Mass> masses;
  for (const auto& w : wheels) masses.push_back({w.reading - w.tare, Vec3(w.x, w.y, 0)});
  return sum(masses);
}

Text scale_word(const Design& d, const ScaleReading& s) {
  if (!s.name.empty()) return s.name;
  const Leg* leg = d.gear.find(s.leg);
  if (!leg) return "a scale without a name";
  return wheel_on_side(d, *leg, s.y);
}

Text wheel_on_side(const Design& d, const Leg& leg, double y) {
  const Text wheel = d.wheel_word(leg);
  if (leg.stands != LegStands::both_sides || !(std::abs(y) > 0)) return wheel;
  return y < 0 ? say("port {}", wheel) : say("starboard {}", wheel);
}

void scale_under_each(Design& d) {
  auto& scales = d.weighing.scales;
  for (const auto& placed : placed_legs(d.gear)) {
    const Leg& leg = d.gear.legs[placed.row];
    const double y = leg.axle.y.known() ? placed.hand() * leg.axle.y : leg.axle.y.si;
    const bool there = std::any_of(scales.begin(), scales.end(), [&](const ScaleReading& s) {
      return s.leg == leg.id && (leg.stands != LegStands::both_sides || !(s.y * placed.hand() < 0));
    });
    if (there) continue;
    ScaleReading& s = scales.emplace_back();
    s.leg = leg.id;
    s.tare = Given(0, Origin::estimated);
    s.x = Given(leg.axle.x.si, Origin::plan);
    s.y = Given(y, Origin::plan);
  }
}

OnScales on_scales(const Design& d) {
  const auto& scales = d.weighing.scales;
  OnScales out;
  if (scales.empty()) {
    out.missing = "what each scale says, level";
    return out;
  }
  Lacking lacks("/weighing/scales/");
  for (size_t i = 0; i < scales.size(); ++i) {
    const ScaleReading& s = scales[i];
    const std::string row = std::to_string(i) + "/";
    const Text word = scale_word(d, s);
    lacks.number(s.reading, row + "reading_kg", say("the reading of “{}”", word))
        .number(s.tare, row + "tare_kg", say("the tare of “{}”", word))
        .number(s.x, row + "x_m", say("the place along the aircraft of “{}”", word))
        .number(s.y, row + "y_m", say("the place across the aircraft of “{}”", word));
  }
  out.missing = lacks.text();
  if (!lacks.nothing()) return out;
  std::vector<WheelReading> wheels;
  double front = std::numeric_limits<double>::infinity();
  double back = -front;
  bool ends = false;  // nose or tail legs among them
  const auto at_an_end = [&](const ScaleReading& s) {
    const Leg* leg = d.gear.find(s.leg);
    return leg && (leg->role == LegRole::nose || leg->role == LegRole::tail);
  };
  for (const auto& s : scales) {
    wheels.push_back({s.reading, s.tare, s.x, s.y});
    front = std::min(front, s.x.si);
    back = std::max(back, s.x.si);
    ends = ends || at_an_end(s);
  }
  out.base = back - front;
  const double in_line = 0.05 * out.base;
  double other_front = std::numeric_limits<double>::infinity();
  double other_back = -other_front;
  for (const auto& s : scales) {
    const bool raised = ends ? at_an_end(s) : s.x - front <= in_line;
    ScaleLine& line = raised ? out.raised : out.others;
    const double net = s.reading - s.tare;
    line.load += net;
    line.tare += s.tare;
    line.x += net * s.x;
    ++line.scales;
    if (raised) continue;
    other_front = std::min(other_front, s.x.si);
    other_back = std::max(other_back, s.x.si);
  }
  for (ScaleLine* line : {&out.raised, &out.others}) line->x /= line->load;
  out.two_lines = out.raised.scales > 0 && out.others.scales > 0 && other_back - other_front <= in_line;
  const Mass mass = from_scales(wheels);
  if (mass.mass > 0)
    out.mass = mass;
  else
    out.missing = "scales that carry something";
  return out;
}

std::optional<Mass> difference(const Mass& wanted, const Mass& have) {
  const double mass = wanted.mass - have.mass;
  if (!(std::abs(mass) > 1e-6)) return std::nullopt;
  return Mass{mass, (wanted.mass * wanted.at - have.mass * have.at) / mass};
}

TiltResult cg_height_by_tilt(const Tilt& t) {
  const auto height = [&](double nose, double port, double starboard, double tilted, double pitch) {
    const double weight = nose + port + starboard;
    const double ahead = t.nose_ahead_of_main * nose / weight;
    return (weight * ahead * std::cos(pitch) -
            tilted * (t.nose_ahead_of_main * std::cos(pitch) - t.nose_above_main * std::sin(pitch))) /
           (weight * std::sin(pitch));
  };
  const double h = height(t.level_nose, t.level_port, t.level_starboard, t.tilted_nose, t.pitch);
  const auto slope = [&](auto at) {  // central difference of the height in one argument
    constexpr double step = 1e-5;
    return (at(step) - at(-step)) / (2 * step);
  };
  const double by_nose = slope([&](double d) {
    return height(t.level_nose + d, t.level_port, t.level_starboard, t.tilted_nose, t.pitch);
  });
  const double by_port = slope([&](double d) {
    return height(t.level_nose, t.level_port + d, t.level_starboard, t.tilted_nose, t.pitch);
  });
  const double by_tilted = slope([&](double d) {
    return height(t.level_nose, t.level_port, t.level_starboard, t.tilted_nose + d, t.pitch);
  });
  const double by_pitch = slope([&](double d) {
    return height(t.level_nose, t.level_port, t.level_starboard, t.tilted_nose, t.pitch + d);
  });
  // Every reading at one end acts alike.
  const double readings =
      t.nose_scales * (by_nose * by_nose + by_tilted * by_tilted) + t.main_scales * by_port * by_port;
  const double error = std::sqrt(readings * t.reading_error * t.reading_error +
                                 by_pitch * by_pitch * t.pitch_error * t.pitch_error);
  const double mass = t.level_nose + t.level_port + t.level_starboard;
  return {mass, t.nose_ahead_of_main * t.level_nose / mass, h, h + t.main_axle_height, error};
}

double ballast(double mass, double cg_x, double target_x, double ballast_x) {
  return mass * (cg_x - target_x) / (target_x - ballast_x);
}

double move_of_item(double mass, double cg_x, double target_x, double item_mass) {
  return mass * (target_x - cg_x) / item_mass;
}

Chord mean_aerodynamic_chord(double root_leading_edge_x, std::span<const Panel> panels) {
  Chord c{0, 0, 0, 0};
  double inner_y = 0;
  double inner_x = root_leading_edge_x;
  for (const auto& p : panels) {
    const double taper = p.outer_chord / p.inner_chord;
    const double area = p.half_span * (p.inner_chord + p.outer_chord) / 2;
    const double chord = 2.0 / 3.0 * p.inner_chord * (1 + taper + taper * taper) / (1 + taper);
    const double y = p.half_span / 3 * (1 + 2 * taper) / (1 + taper);  // b/6 with b twice the panel's span
    c.area += area;
    c.mean_chord += area * chord;
    c.y += area * (inner_y + y);
    c.leading_edge_x += area * (inner_x + y * std::tan(p.sweep));
    inner_y += p.half_span;
    inner_x += p.half_span * std::tan(p.sweep);
  }
  c.mean_chord /= c.area;
  c.y /= c.area;
  c.leading_edge_x /= c.area;
  c.area *= 2;
  return c;
}

std::vector<Panel> wing_panels(const Surface& w) {
  for (const Given* g : {&w.root_leading_edge_x, &w.span, &w.root_chord, &w.tip_chord, &w.sweep})
    if (!g->known()) return {};
  if (w.break_span.known() && w.break_chord.known() && w.break_span < w.span)
    return {{w.break_span / 2, w.root_chord, w.break_chord, w.sweep},
            {(w.span - w.break_span) / 2, w.break_chord, w.tip_chord,
             w.outer_sweep.known() ? w.outer_sweep.si : w.sweep.si}};
  return {{w.span / 2, w.root_chord, w.tip_chord, w.sweep}};
}

namespace {

//! What one item may contribute: nothing, or a mass at a station.
struct Choice {
  double mass, x;
};
struct Chooser {
  std::string name;
  std::vector<Choice> choices;
};

//! What may be aboard and where, over all flown loadings.
std::optional<std::vector<Chooser>> choosers(const Design& d) {
  std::vector<Chooser> list;
  for (const auto& item : d.ledger) {
    Chooser c{item.name, {}};
    std::vector<double> stations;
    std::vector<double> masses;
    bool always = item.group != Group::load;
    if (item.slides && item.slides_from.known() && item.slides_to.known())
      stations = {item.slides_from, item.slides_to};
    else if (item.at.x.known())
      stations = {item.at.x};
    if (item.group != Group::load) {
      if (item.mass.known()) masses = {item.mass};
    } else {
      // What only the bench or the scales have aboard (shop weights) flies with nothing.
      always = true;
      bool flies = false;
      for (const auto& l : d.loadings) {
        if (!l.flown) continue;
        const auto aboard = std::find_if(l.aboard.begin(), l.aboard.end(),
                                         [&](const Aboard& a) { return a.item == item.name; });
        if (aboard == l.aboard.end()) {
          always = false;
          continue;
        }
        flies = true;
        if (aboard->mass.known() || item.mass.known())
          masses.push_back(aboard->mass.known() ? aboard->mass.si : item.mass.si);
        if (aboard->x.known()) stations.push_back(aboard->x);
      }
      if (!flies) continue;
    }
    if (stations.empty() || masses.empty()) return std::nullopt;
    for (const double m : masses)
      for (const double x : stations) c.choices.push_back({m, x});
    if (!always) c.choices.push_back({0, stations[0]});
    list.push_back(std::move(c));
  }
  return list;
}

Extreme extreme_of(const std::vector<Chooser>& list, int side) {
  // x̄ = Σmx/Σm is extreme where every item takes the choice with the greatest side·m·(x − x̄); repeated until
  // it stands (Dinkelbach).
  double x = 0;
  double mass = 0;
  std::vector<const Choice*> taken(list.size(), nullptr);
  for (int pass = 0; pass < 100; ++pass) {
    double moment = 0;
    mass = 0;
    for (size_t i = 0; i < list.size(); ++i) {
      taken[i] = &*std::max_element(
          list[i].choices.begin(), list[i].choices.end(), [&](const Choice& a, const Choice& b) {
            return pass == 0 ? side * a.x < side * b.x
                             : side * a.mass * (a.x - x) < side * b.mass * (b.x - x);
          });
      mass += taken[i]->mass;
      moment += taken[i]->mass * taken[i]->x;
    }
    const double next = moment / mass;
    if (next == x) break;
    x = next;
  }
  std::vector<Text> with;
  for (size_t i = 0; i < list.size(); ++i) {
    if (list[i].choices.size() < 2) continue;
    with.push_back(taken[i]->mass == 0 ? say("no {}", list[i].name)
                                       : say("{} {} at {}", list[i].name, Amount{taken[i]->mass, Kind::mass},
                                             Amount{taken[i]->x, Kind::length}));
  }
  return {x, mass, enumerated(std::move(with))};
}

}  // namespace

void shift_cg(Design& d, const std::string& loading, double dx) {
  for (auto& l : d.loadings) {
    if (l.name != loading) continue;
    const auto sum = sum_loading(d, l);
    if (!sum.known()) return;
    const auto slide = [&](const Item& item, Given& x, double mass) {
      x.si = in_tray(item, x + move_of_item(sum.down.mass, 0, dx, mass));
    };
    for (auto& aboard : l.aboard)
      for (auto& item : d.ledger)
        if (item.name == aboard.item && item.slides)
          return slide(item, aboard.x.known() ? aboard.x : item.at.x,
                       aboard.mass.known() ? aboard.mass : item.mass);
    for (auto& item : d.ledger)
      if (item.slides && item.group != Group::load) return slide(item, item.at.x, item.mass);
  }
}

std::optional<Extremes> cg_extremes(const Design& d) {
  const auto list = choosers(d);
  if (!list || list->empty() ||
      std::none_of(d.loadings.begin(), d.loadings.end(), [](const Loading& l) { return l.flown; }))
    return std::nullopt;
  return Extremes{extreme_of(*list, -1), extreme_of(*list, +1)};
}

LoadingMass sum_loading(const Design& design, const Loading& loading) {
  LoadingMass result;
  Lacking lacks("/");
  std::vector<LedgerLine> lines;
  std::vector<Mass> stowed;
  auto add = [&](const Item& item, double mass, double x) {
    Lacking of_item("/ledger/" + std::to_string(&item - design.ledger.data()) + "/");
    if (!std::isfinite(mass)) of_item.number(item.mass, "mass_kg", say("the mass of “{}”", item.name));
    if (!std::isfinite(x) || !item.at.y.known() || !item.at.z.known())
      of_item.place(item.at, "at", say("the place of “{}”", item.name));
    if (!of_item.nothing()) {
      lacks.that(true, of_item.text());
      return;
    }
    const Mass down{mass, Vec3(x, item.at.y, item.at.z)};
    lines.push_back({down, item.weighed, item.mass.tolerance});
    Mass up = down;
    const Leg* leg = item.moves.empty() ? nullptr : design.gear.find(item.moves);
    if (leg && leg->retraction.fitted) {
      if (!motion::retracting(*leg)) {
        Lacking motion(leg_root(leg->id));
        motion::note_motion(motion, *leg);
        lacks.that(true, say("{} (of the leg that moves “{}”)", motion.text(), item.name));
        return;
      }
      if (leg->stands == LegStands::both_sides && item.at.y.si == 0.0) {
        // One line for both legs: take the starboard half, whose twin mirrors it.
        const Vec3 at(down.at.x(), leg->axle.y, down.at.z());
        up.at = *motion::swung(*leg, 1, at);
        up.at.y() = 0;
      } else {
        const bool port =
            leg->stands == LegStands::port || (leg->stands == LegStands::both_sides && item.at.y.si < 0);
        up.at = *motion::swung(*leg, 1, down.at, port);
      }
    }
    stowed.push_back(up);
  };
  for (const auto& item : design.ledger)
    if (item.group != Group::load) add(item, item.mass, item.at.x);
  for (const auto& aboard : loading.aboard) {
    const auto item = std::find_if(design.ledger.begin(), design.ledger.end(),
                                   [&](const Item& i) { return i.name == aboard.item; });
    if (item == design.ledger.end()) {
      lacks.that(true, say("“{}”, which the loading takes aboard and the ledger does not hold", aboard.item));
      continue;
    }
    add(*item, aboard.mass.known() ? aboard.mass.si : item->mass.si,
        aboard.x.known() ? aboard.x.si : item->at.x.si);
  }
  lacks.that(lines.empty() && lacks.nothing(), "the ledger: it holds no items");
  result.problem = lacks.text();
  if (!result.problem.empty()) return result;
  result.spread = sum_ledger(lines);
  result.down = result.spread.total;
  result.up = sum(stowed);
  return result;
}

}  // namespace kranich::weigh
