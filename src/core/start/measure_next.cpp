// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/start/measure_next.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <limits>
#include <map>

#include "core/model/guess.h"
#include "core/model/locate.h"
#include "core/model/moves.h"
#include "core/start/start.h"
#include "core/weigh/weigh.h"

namespace kranich::start {
namespace {

//! How long an act takes beside the others: the order of Tool is the order of quickness.
int slowness(Tool tool) { return static_cast<int>(tool); }

double station_weight(Station s) {
  switch (s) {
    case Station::weigh:
    case Station::place:
      return 1.5;
    case Station::stance:
      return 1.2;
    case Station::spring:
    case Station::leg:
      return 1;
    case Station::sequence:
    case Station::logic:
    case Station::circuit:
      return 0.6;
    default:
      return 0.8;
  }
}

bool ends(std::string_view s, std::string_view with) { return s.ends_with(with); }

//! "/gear/legs/0/axle/x_m": the row, and what is behind it.
struct OfList {
  size_t row;
  std::string_view rest;
};
std::optional<OfList> under(std::string_view path, std::string_view list) {
  if (!path.starts_with(list)) return std::nullopt;
  path.remove_prefix(list.size());
  size_t row = 0;
  const auto [end, error] = std::from_chars(path.data(), path.data() + path.size(), row);
  if (error != std::errc()) return std::nullopt;
  return OfList{row, path.substr(static_cast<size_t>(end - path.data()))};
}

ActKey of_leg(const Design& d, const Leg& leg, std::string_view rest, const std::string& path) {
  const std::string root = "/gear/legs/" + leg.id;
  const Text stem = d.leg_word(leg), wheel = d.wheel_word(leg);
  const auto key = [&](Tool tool, const char* group, Text what, Station station) {
    return ActKey{tool, root + group, std::move(what), station};
  };
  if (rest == "/axle/x_m")
    return key(Tool::plumb_line, "/axle/x", say("the {}'s axle station", stem), Station::place);
  if (rest == "/axle/z_m")
    return key(Tool::level, "/axle/z", say("the {}'s axle height, extended", stem), Station::place);
  if (rest == "/axle/y_m") return key(Tool::ruler, "/axle/y", "the track", Station::place);
  if (ends(rest, "/pressure_Pa"))
    return key(Tool::pressure_gauge, "/pressure", say("the {}'s pressure", wheel), Station::place);
  if (ends(rest, "/tyre_rate_N_per_m") || rest == "/spring/rate_N_per_m")
    return key(Tool::scales_under_wheel, "/rates", say("rates of the {} and its tyre", stem),
               Station::spring);
  if (rest.starts_with("/spring/damping"))
    return key(Tool::small_drop, "/damping", say("damping of the {}", stem), Station::spring);
  if (rest == "/unsprung_mass_kg")
    return key(Tool::kitchen_scales, "/unsprung", say("what goes up with the wheel of the {}", stem),
               Station::spring);
  if (rest.starts_with("/wheel/"))
    return key(Tool::ruler, "/wheel", say("the {}: diameter, width, rim, gap", wheel), Station::place);
  if (rest == "/travel_m") return key(Tool::ruler, "/travel", say("travel of the {}", stem), Station::spring);
  if (rest == "/tube_diameter_m" || rest.starts_with("/axle_diameter"))
    return key(Tool::calliper, "/section", say("section of the {}", stem), Station::leg);
  if (ends(rest, "/unit_angle_deg") || ends(rest, "/mount_tilt_deg"))
    return key(Tool::angle_finder, "/unit", say("turn of the {}'s unit, tilt of its mount", stem),
               Station::swing);
  if (ends(rest, "/pivot/z_m"))
    return key(Tool::level, "/pivot/z", say("height of the {}'s pivot", stem), Station::swing);
  if (ends(rest, "/time_up_s") || ends(rest, "/time_down_s"))
    return key(Tool::stopwatch, "/times", say("times of the {}, up and down", stem), Station::sequence);
  return {Tool::ruler, path, say("{}: {}", stem, std::string(rest)), Station::leg};
}

}  // namespace

const char* words(Tool tool) {
  switch (tool) {
    case Tool::ruler:
      return "ruler or tape";
    case Tool::calliper:
      return "calliper";
    case Tool::angle_finder:
      return "angle finder";
    case Tool::pressure_gauge:
      return "pressure gauge";
    case Tool::stopwatch:
      return "stopwatch";
    case Tool::level:
      return "level and ruler";
    case Tool::plumb_line:
      return "plumb line and tape";
    case Tool::kitchen_scales:
      return "kitchen scales";
    case Tool::spring_balance:
      return "spring balance";
    case Tool::plan:
      return "the plan or its designer";
    case Tool::squared_paper:
      return "squared paper";
    case Tool::scales:
      return "scales under every wheel, level";
    case Tool::scales_under_wheel:
      return "scales under the wheel, and a ruler";
    case Tool::scales_raised:
      return "scales, the nose raised";
    case Tool::small_drop:
      return "a small drop";
    case Tool::decide:
      return "to be decided";
  }
  return "";
}

double precision(Tool tool, Kind kind, bool model) {
  if (kind == Kind::mass) return model ? 0.005 : 0.2;
  if (kind == Kind::angle) return radians(tool == Tool::level ? 0.1 : 0.2);
  if (kind == Kind::pressure) return 10e3;
  if (kind == Kind::length) {
    if (tool == Tool::calliper) return 0.05e-3;
    if (tool == Tool::plumb_line || tool == Tool::level) return model ? 1e-3 : 2e-3;
    return model ? 0.5e-3 : 1e-3;
  }
  return 0;
}

ActKey act_for(const Design& d, const std::string& path) {
  const std::string_view p = path;
  constexpr std::string_view legs = "/gear/legs/";
  if (p.starts_with(legs)) {
    const std::string_view behind = p.substr(legs.size());
    const size_t stroke = std::min(behind.find('/'), behind.size());
    if (const Leg* leg = d.gear.find(behind.substr(0, stroke)))
      return of_leg(d, *leg, behind.substr(stroke), path);
  }
  if (const auto item = under(p, "/ledger/"); item && item->row < d.ledger.size()) {
    const Item& i = d.ledger[item->row];
    if (i.group == Group::load) {
      if (item->rest == "/mass_kg")
        return {Tool::kitchen_scales, "/ledger/load/mass", "what is taken aboard", Station::weigh};
      return {Tool::plumb_line, "/ledger/load" + std::string(item->rest),
              ends(item->rest, "z_m") ? Text("heights of what is taken aboard")
                                      : Text("stations of what is taken aboard"),
              Station::weigh};
    }
    if (ends(item->rest, "/z_m"))
      return {Tool::scales_raised, "/ledger/z", "height of the empty CG", Station::weigh};
    return {Tool::scales, "/ledger/level", "empty mass and CG", Station::weigh};
  }
  if (const auto point = under(p, "/airframe/low_points/");
      point && point->row < d.airframe.low_points.size()) {
    const LowPoint& l = d.airframe.low_points[point->row];
    const bool high = ends(point->rest, "/z_m");
    return {high ? Tool::level : Tool::plumb_line,
            "/airframe/low_points/" + std::to_string(point->row) + (high ? "/z" : "/x"),
            high ? say("height of the {}", l.name) : say("station of the {}", l.name), Station::place};
  }
  if (under(p, "/airframe/propellers/")) {
    if (ends(p, "/diameter_m"))
      return {Tool::ruler, "/propeller/d", "the propeller's diameter", Station::place};
    if (ends(p, "/x_m"))
      return {Tool::plumb_line, "/propeller/x", "the propeller hub's station", Station::place};
    return {Tool::level, "/propeller/z", "the propeller hub's height", Station::place};
  }
  if (p.starts_with("/airframe/wing/") || p.starts_with("/airframe/tailplane/")) {
    const bool wing = p.starts_with("/airframe/wing/");
    const std::string root = wing ? "/wing" : "/tail";
    if (ends(p, "leading_edge_x_m"))
      return {Tool::plumb_line, root + "/x",
              wing ? Text("the wing's leading edge, station") : Text("the tailplane's leading edge, station"),
              Station::place};
    if (ends(p, "root_z_m"))
      return {Tool::level, root + "/z",
              wing ? Text("height of the wing's root") : Text("height of the tailplane"), Station::place};
    if (ends(p, "_deg"))
      return {Tool::angle_finder, root + "/angles",
              wing ? Text("the wing's angles") : Text("the tailplane's angles"), Station::stance};
    return {Tool::ruler, root + "/sizes",
            wing ? Text("the wing's span and chords") : Text("the tailplane's size"), Station::place};
  }
  if (ends(p, "/thrust_N"))
    return {Tool::spring_balance, "/thrust", "thrust, the aircraft held", Station::place};
  if (ends(p, "/rolling_friction"))
    return {Tool::spring_balance, "/friction", "pull that keeps it rolling on your field", Station::place};
  if (ends(p, "/side_area_m2") || ends(p, "/side_z_m"))
    return {Tool::squared_paper, "/side", "side area and its centre", Station::place};
  if (ends(p, "/obstacle_m"))
    return {Tool::ruler, "/obstacle", "tallest bump or grass of the field", Station::place};
  if (under(p, "/airframe/keep_outs/"))
    return {Tool::plan, "/keep_outs", "where the spars run", Station::place};
  if (ends(p, "cg_forward_limit_m") || ends(p, "cg_aft_limit_m"))
    return {Tool::plan, "/cg_limits", "how far the CG may go", Station::weigh};
  if (ends(p, "wing_angle_deg"))
    return {Tool::plan, "/wing_angles", "wing angles at lift-off and at the stall", Station::place};
  if (p.starts_with("/airframe/aerodynamics/"))
    return {Tool::plan, "/coefficients", "coefficients of wing and tail", Station::place};
  if (ends(p, "_deg")) return {Tool::angle_finder, path, {}, Station::place};
  return {ends(p, "_m") ? Tool::ruler : Tool::plan, path, {}, Station::place};
}

std::vector<Act> acts_of(const Design& d) {
  std::vector<Act> acts;
  std::map<std::string, size_t> known;
  for (const NamedGiven& g : all_given(d)) {
    const bool open = g.given.origin == Origin::undecided;
    if (!open && !(g.given.origin == Origin::guessed && g.given.tolerance > 0)) continue;
    ActKey key = act_for(d, g.path);
    if (open) key = {Tool::decide, g.path, g.title(), key.station};
    if (key.what.empty()) key.what = Text(g.title());
    std::string id = std::to_string(static_cast<int>(key.tool)) + ":" + key.key;
    const auto [at, fresh] = known.try_emplace(id, acts.size());
    if (fresh) acts.push_back({std::move(id), std::move(key.what), key.tool, key.station, {}, {}});
    acts[at->second].paths.push_back(g.path);
    acts[at->second].titles.push_back(g.title());
  }
  return acts;
}

namespace {

//! "Nose wheel's share", "Axial margin, main leg".
Text titled(const Finding& f) {
  const Text title = ours(f.info().title);
  return f.subject.words.empty() ? title : say("{}, {}", title, f.subject.words);
}

//! How open a verdict is within [low, high]: 3 where it may fail or not, 1 where it may be tight or hold.
int openness(double low, double high, const Finding& f) {
  bool fails = false, tight = false, holds = false;
  const auto at = [&](double v) {
    switch (judge(v, f.limit, f.info().zero_scale).verdict) {
      case Verdict::fails:
        fails = true;
        break;
      case Verdict::tight:
        tight = true;
        break;
      default:
        holds = true;
    }
  };
  constexpr int steps = 24;
  for (int i = 0; i <= steps; ++i) at(low + (high - low) * i / steps);
  if (fails && (tight || holds)) return 3;
  return tight && holds ? 1 : 0;
}

}  // namespace

NextList measure_next(const Design& d, const Assessment& a, const ToleranceResult& spread) {
  NextList list;
  std::vector<Act> acts = acts_of(d);
  std::map<std::string, size_t> act_of;
  for (size_t i = 0; i < acts.size(); ++i)
    for (const auto& path : acts[i].paths) act_of[path] = i;
  std::vector<Worth> worth(acts.size());
  std::vector<std::vector<std::pair<double, Text>>> narrows(acts.size());
  for (const Finding* f : worst_of_each(a)) {
    if (!f->limit.set() || !std::isfinite(f->value)) continue;
    const Spread* s = spread.of(*f);
    if (!s) continue;
    double low = f->value, high = f->value, squares = 0;
    struct Part {
      double down = 0, up = 0, squares = 0;
    };
    std::map<size_t, Part> parts;
    for (const Effect& e : s->effects) {
      low += e.down;
      high += e.up;
      const double square = e.most() * e.most();
      squares += square;
      const auto act = act_of.find(spread.paths[e.input]);
      if (act == act_of.end()) continue;
      Part& part = parts[act->second];
      part.down += e.down;
      part.up += e.up;
      part.squares += square;
    }
    const int omega = openness(low, high, *f);
    if (omega == 0 || parts.empty()) continue;
    const double weight = station_weight(f->info().station) * omega;
    ++list.open;
    list.weight += weight;
    for (const auto& [act, part] : parts) {
      const int without = openness(low - part.down, high - part.up, *f);
      const double share = std::max(1 - static_cast<double>(without) / omega, part.squares / squares);
      worth[act].score += weight * share;
      if (without == 0)
        ++worth[act].settles;
      else
        narrows[act].emplace_back(weight * share, titled(*f));
    }
  }
  for (size_t i = 0; i < acts.size(); ++i) {
    if (worth[i].score < 0.01 * list.weight || worth[i].score <= 0) continue;
    std::stable_sort(narrows[i].begin(), narrows[i].end(),
                     [](const auto& x, const auto& y) { return x.first > y.first; });
    for (size_t k = 0; k < std::min<size_t>(3, narrows[i].size()); ++k)
      worth[i].narrows.push_back(narrows[i][k].second);
    worth[i].act = std::move(acts[i]);
    list.acts.push_back(std::move(worth[i]));
  }
  std::stable_sort(list.acts.begin(), list.acts.end(),
                   [](const Worth& x, const Worth& y) { return x.score > y.score; });
  // Within a twentieth the quicker tool first: each takes the quickest of those that are worth nearly as much
  // as the best of what is left.
  for (size_t i = 0; i + 1 < list.acts.size(); ++i) {
    size_t best = i;
    for (size_t k = i + 1; k < list.acts.size() && list.acts[k].score >= 0.95 * list.acts[i].score; ++k)
      if (slowness(list.acts[k].act.tool) < slowness(list.acts[best].act.tool)) best = k;
    std::rotate(list.acts.begin() + static_cast<long>(i), list.acts.begin() + static_cast<long>(best),
                list.acts.begin() + static_cast<long>(best) + 1);
  }
  return list;
}

std::optional<double> take_measured(Design& d, const std::string& path, Tool tool, double si) {
  const auto at = locate_given(d, path);
  if (!at) return std::nullopt;
  const Given guess = *at->given;
  *at->given = Given(si, Origin::measured, precision(tool, at->spec.kind, d.is_model()));
  const bool right = guess.origin != Origin::guessed || !guess.known() || guess.tolerance == 0 ||
                     std::abs(si - guess.si) <= guess.tolerance;
  if (right) return std::nullopt;
  return guess.si != 0 ? (si - guess.si) / std::abs(guess.si) : 1.0;
}

EmptyMass empty_of(const Design& d) {
  double mass = 0, moment = 0;
  for (const Item& i : d.ledger) {
    if (i.group == Group::load) continue;
    mass += i.mass;
    moment += i.mass * i.at.x;
  }
  return {mass, moment / mass};
}

std::vector<EmptyScale> empty_scales(const Design& d) {
  const EmptyMass empty = empty_of(d);
  const Leg &main = d.gear.main(), &third = d.gear.third();
  const double share = (empty.x - main.axle.x) / (third.axle.x - main.axle.x);
  std::vector<EmptyScale> scales;
  for (const PlacedLeg& p : placed_legs(d.gear)) {
    const Leg& leg = d.gear.legs[p.row];
    const double y = p.hand() * leg.axle.y;
    const double part = leg.id == main.id ? (1 - share) / 2 : leg.id == third.id ? share : std::nan("");
    scales.push_back({weigh::wheel_on_side(d, leg, y), leg.axle.x, y, part * empty.mass});
  }
  return scales;
}

void take_scales(Design& d, const std::vector<double>& readings) {
  const auto scales = empty_scales(d);
  std::vector<weigh::WheelReading> wheels;
  for (size_t i = 0; i < std::min(scales.size(), readings.size()); ++i)
    wheels.push_back({readings[i], 0, scales[i].x, scales[i].y});
  const weigh::Mass on_them = weigh::from_scales(wheels);
  if (on_them.mass > 0) take_scales(d, on_them.mass, on_them.at.x());
}

void take_scales(Design& d, double mass, double x) {
  const EmptyMass guess = empty_of(d);
  const double more = mass - guess.mass;
  const double at = (mass * x - guess.mass * guess.x) / more;
  double front = std::numeric_limits<double>::infinity(), back = -front;
  for (const Body& b : d.airframe.bodies)
    for (const Section& s : b.sections) {
      front = std::min(front, s.x.si);
      back = std::max(back, s.x.si);
    }
  const auto settle = [](Given& g) {
    if (g.origin == Origin::guessed) g.tolerance = 0;
  };
  for (Item& i : d.ledger)
    if (i.group != Group::load) {
      settle(i.mass);
      settle(i.at.x);
    }
  if (more > 0 && at >= front && at <= back) {
    Item found;
    found.name = unused_name(d.ledger, "found on the scales");
    found.group = Group::equipment;
    found.mass = Given(more, Origin::measured, precision(Tool::scales, Kind::mass, d.is_model()));
    found.weighed = true;
    found.at.x = Given(at, Origin::measured);
    found.at.y = Given(0, Origin::measured);
    double z = 0;
    for (const Item& i : d.ledger)
      if (i.group != Group::load) z += i.mass * i.at.z / guess.mass;
    found.at.z = Given(z, Origin::guessed);
    d.ledger.push_back(std::move(found));
    return;
  }
  // Lighter, or a weight that would hang outside: the guesses themselves were off.
  double known = 0, known_moment = 0, open = 0, open_moment = 0;
  for (const Item& i : d.ledger) {
    if (i.group == Group::load) continue;
    const bool guessed = i.mass.origin == Origin::guessed;
    (guessed ? open : known) += i.mass;
    (guessed ? open_moment : known_moment) += i.mass * i.at.x;
  }
  if (!(open > 0) || !(mass - known > 0)) return;
  const double scale = (mass - known) / open;
  const double shift = (mass * x - known_moment) / (mass - known) - open_moment / open;
  for (Item& i : d.ledger)
    if (i.group != Group::load && i.mass.origin == Origin::guessed) {
      i.mass.si *= scale;
      i.at.x.si += shift;
    }
}

std::optional<Design> guessed_again(const Design& now) {
  const Begun& b = now.begun;
  if (!b.started) return std::nullopt;
  Answers a;
  a.build = now.purpose.build;
  if (b.seats.known()) a.seats = static_cast<int>(b.seats);
  if (now.purpose.scale_denominator.known()) a.scale = now.purpose.scale_denominator;
  a.kind = b.craft;
  a.retractable = b.retractable;
  a.wing = b.wing;
  a.engine = b.engine;
  a.field = now.purpose.field == Field::unsaid ? Field::turf : now.purpose.field;
  if (b.mass.known()) a.mass = b.mass;
  if (b.span.known()) a.span = b.span;
  if (b.length.known()) a.length = b.length;
  // What was measured since stands before what was answered.
  const auto measured = [](const Given& g) { return g.known() && g.origin != Origin::guessed; };
  if (measured(now.airframe.wing.span)) a.span = now.airframe.wing.span;
  double all_up = 0;
  bool weighed = false;
  for (const Item& i : now.ledger) {
    all_up += i.mass;
    weighed = weighed || measured(i.mass);
  }
  const Allowed allowed = allowed_mass(a);
  if (weighed) a.mass = std::clamp(all_up, allowed.least, allowed.most);
  a.keep_span = a.keep_length = true;
  if (!refusals(a).empty()) return std::nullopt;
  Found found;
  const Leg &main = now.gear.main(), &third = now.gear.third();
  const auto put = [&](std::optional<double>& into, const Given& g, double factor = 1) {
    if (measured(g)) into = factor * g.si;
  };
  put(found.x_main, main.axle.x);
  put(found.track, main.axle.y, 2);
  put(found.x_third, third.axle.x);
  put(found.main_diameter, main.wheel.diameter);
  put(found.third_diameter, third.wheel.diameter);
  if (!now.airframe.propellers.empty()) put(found.propeller, now.airframe.propellers[0].diameter);
  Design fresh = started(a, found).design;
  // The sizes take a measured axle over to the millimetre: what follows it stands by it exactly.
  for (size_t row = 0; row < fresh.gear.legs.size(); ++row) {
    const Leg* leg = now.gear.find(fresh.gear.legs[row].id);
    if (!leg) continue;
    Leg& guess = fresh.gear.legs[row];
    const double dx = measured(leg->axle.x) ? leg->axle.x - guess.axle.x : 0;
    const double dy = measured(leg->axle.y) ? leg->axle.y - guess.axle.y : 0;
    carry_guessed_leg(fresh, row, dx, dy);
  }
  Design again = now;
  for (const NamedGiven& g : all_given(now)) {
    if (g.given.origin != Origin::guessed || (weighed && g.path.starts_with("/ledger/"))) continue;
    const auto to = locate_given(again, g.path);
    const auto from = locate_given(fresh, g.path);
    if (!to || !from || !from->given->known()) continue;
    // A half-range that has been settled stays so.
    const double settled_range = g.given.tolerance == 0 ? 0 : from->given->tolerance;
    *to->given = *from->given;
    to->given->tolerance = settled_range;
  }
  return again;
}

}  // namespace kranich::start
