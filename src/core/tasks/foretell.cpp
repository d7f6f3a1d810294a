// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tasks/foretell.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <set>

#include "core/assess/loading_state.h"
#include "core/base/measure.h"
#include "core/model/locate.h"
#include "core/tasks/figures.h"

namespace kranich::tasks {
namespace {

constexpr double nan = std::numeric_limits<double>::quiet_NaN();

const Read* reading_of(const Entry& entry, std::string_view name) {
  for (const Read& r : entry.readings)
    if (r.name == name) return &r;
  return nullptr;
}
double value_of(const Entry& entry, std::string_view name) {
  const Read* r = reading_of(entry, name);
  return r ? r->value : nan;
}

bool is_of(const Finding& f, const Piece& piece) {
  if (piece.key.starts_with("door:"))
    return f.subject.key == piece.key || f.subject.key.starts_with(piece.key + "/");
  if (piece.leg.empty()) return true;
  if (f.subject.leg != piece.leg) return false;
  if (f.subject.key.starts_with("port ")) return piece.port;
  if (f.subject.key.starts_with("starboard ")) return !piece.port;
  return true;
}

//! A number with what it may be off by.
struct Told {
  double si;
  std::optional<Kind> kind;  //!< nothing of a plain number
  double spread = 0;         //!< what the number of the design may be off by itself
};

double entered_so_far(const Entered& entered, Kind kind, const Task& task, std::string_view not_after) {
  // The last reading of that kind before the one that is foretold, without a prediction of its own.
  double found = nan;
  for (const Reading& r : task.readings) {
    if (r.name == not_after) break;
    if (r.unit.kind != kind || r.predicted.sort != Predicted::Sort::nothing) continue;
    for (const Read& e : entered)
      if (e.name == r.name) found = e.value;
  }
  return found;
}

Told of_figure(const Look& look, const Task& task, const Piece& piece, const FigureInfo& figure,
               const Entered& entered, std::string_view reading) {
  const auto value = [&](const std::string& leg, bool port) {
    return look.figure(figure, leg, port, entered_so_far(entered, Kind::force, task, reading),
                       entered_so_far(entered, Kind::length, task, reading),
                       entered_so_far(entered, Kind::mass, task, reading));
  };
  if (!figure.of_a_leg || !piece.leg.empty()) return {value(piece.leg, piece.port), figure.kind};
  // Without a leg the one that has it: the mains first.
  for (const Leg& leg : look.design().gear.legs)
    if (const double si = value(leg.id, leg.stands == LegStands::port); std::isfinite(si))
      return {si, figure.kind};
  return {nan, figure.kind};
}

//! What a term names, for a piece and one reading of a task (none: for a text).
Told told(const Look& look, const History& book, const Task& task, const Piece& piece, const Term& term,
          const Entered& entered, std::string_view reading) {
  switch (term.sort) {
    case Term::Sort::number:
      return {term.times, {}};
    case Term::Sort::path: {
      const auto path = path_for(look.design(), piece, term.name);
      if (!path) return {nan, {}};
      const auto spec = spec_at(look.design(), *path);
      const auto given = given_at(look.design(), *path);
      if (!given) return {nan, {}};
      return {term.times * given->si, spec ? std::optional(spec->kind) : std::nullopt,
              std::abs(term.times) * given->tolerance};
    }
    case Term::Sort::figure: {
      if (const FigureInfo* figure = find_figure(term.name)) {
        Told t = of_figure(look, task, piece, *figure, entered, reading);
        t.si *= term.times;
        return t;
      }
      const Finding* f = look.finding(term.name, piece);
      return {f ? term.times * f->value : nan, measure(term.name).kind};
    }
    case Term::Sort::reading: {
      // What is being entered counts before what was entered earlier.
      if (term.name == task.id) {
        for (const Read& e : entered)
          if (e.name == term.reading) return {term.times * e.value, {}};
        return {nan, {}};
      }
      for (const auto& of : {piece.key, std::string()}) {
        const auto list = book.readings(term.name, of);
        for (auto e = list.rbegin(); e != list.rend(); ++e)
          if (const double v = value_of(**e, term.reading); std::isfinite(v)) return {term.times * v, {}};
      }
      return {nan, {}};
    }
  }
  return {nan, {}};
}

}  // namespace

Look::Look(const Design& design, const Assessment& assessment, std::string loading)
    : design_(design), assessment_(assessment), loading_(std::move(loading)) {
  for (const Finding& f : assessment.findings) by_measure_[f.measure_id].push_back(&f);
}

const std::vector<const Finding*>& Look::findings(std::string_view measure) const {
  static const std::vector<const Finding*> none;
  const auto it = by_measure_.find(measure);
  return it == by_measure_.end() ? none : it->second;
}

const Finding* Look::finding(std::string_view measure, const Piece& piece) const {
  const auto& all = findings(measure);
  const Finding* best = nullptr;
  for (const bool own : {true, false}) {
    for (const Finding* f : all) {
      if (own != is_of(*f, piece)) continue;
      // Of a piece that has a leg, another leg's finding is never its own; one that is about no leg is.
      if (!own && !(f->subject.leg.empty() || piece.leg.empty())) continue;
      const bool here = f->loading.empty() || f->loading == loading_;
      const bool best_here = best && (best->loading.empty() || best->loading == loading_);
      if (!best || (here && !best_here) || (here == best_here && worse(*f, *best))) best = f;
    }
    if (best) return best;
  }
  return nullptr;
}

double Look::figure(const FigureInfo& figure, const std::string& leg, bool port, double load, double height,
                    double mass) const {
  // Told by their digits: a number that is not known is equal to none, itself included.
  const auto [at, fresh] = figures_.try_emplace(
      FigureKey{figure.id, leg, port, shortest(load), shortest(height), shortest(mass)}, nan);
  if (fresh) at->second = figure.value({design_, assessment_, leg, port, load, height, mass});
  return at->second;
}

bool Foretold::judged() const { return std::isfinite(lower) || std::isfinite(upper); }

Foretold foretold(const Look& look, const History& book, const Task& task, const Piece& piece, size_t reading,
                  const Entered& entered) {
  const Reading& r = task.readings[reading];
  Foretold f{nan, nan, nan};
  double spread = 0;
  using Sort = Predicted::Sort;
  switch (r.predicted.sort) {
    case Sort::nothing:
    case Sort::yes:
    case Sort::no:
      break;
    case Sort::sum:
      f.value = 0;
      for (const Term& term : r.predicted.sum) {
        const Told t = told(look, book, task, piece, term, entered, r.name);
        f.value += t.si;
        spread += t.spread;
      }
      break;
    case Sort::twin:
      if (piece.has_twin)
        for (const Entry* e : book.readings(task.id, piece.twin)) f.value = value_of(*e, r.name);
      break;
    case Sort::first:
      for (const Entry* e : book.readings(task.id, piece.key))
        if (const double v = value_of(*e, r.name); std::isfinite(v) && !std::isfinite(f.value)) f.value = v;
      break;
    case Sort::last:
      for (const Entry* e : book.readings(task.id, piece.key))
        if (const double v = value_of(*e, r.name); std::isfinite(v)) f.value = v;
      break;
    case Sort::judged:
      // The measure's own limits judge, once the design holds the reading (judged_by).
      return f;
  }
  const auto size = r.allowed.size(look.design().is_model());
  using Bound = Allowed::Sort;
  // A prediction that is a plain number stands in the reading's own unit.
  if (r.predicted.sort == Sort::sum && r.unit.kind && r.predicted.sum.size() == 1 &&
      r.predicted.sum[0].sort == Term::Sort::number)
    f.value *= r.unit.to_si;
  switch (r.allowed.sort) {
    case Bound::nothing:
      break;
    case Bound::within: {
      if (!std::isfinite(f.value)) break;
      // A prediction that is itself uncertain is compared with the larger of the two.
      const double by =
          std::max(spread, r.allowed.share ? *r.allowed.share * std::abs(f.value) : size.value_or(0));
      f.lower = f.value - by;
      f.upper = f.value + by;
      break;
    }
    case Bound::at_most:
      f.upper = size ? *size : f.value;
      break;
    case Bound::at_least:
      f.lower = size ? *size : f.value;
      break;
  }
  return f;
}

Compared compare(const Foretold& f, double value) {
  if (!std::isfinite(value) || !f.judged()) return Compared::unjudged;
  const double rounding = 1e-9 * std::max(1.0, std::abs(value));
  const bool inside = !(value < f.lower - rounding) && !(value > f.upper + rounding);
  return inside ? Compared::within : Compared::outside;
}

Compared compare(const Predicted& predicted, const std::string& text) {
  if (text.empty()) return Compared::unjudged;
  if (predicted.sort == Predicted::Sort::yes) return text == "yes" ? Compared::within : Compared::outside;
  if (predicted.sort == Predicted::Sort::no) return text == "no" ? Compared::within : Compared::outside;
  return Compared::unjudged;
}

Compared judged_by(const Look& look, const Piece& piece, const Predicted& predicted) {
  if (predicted.sort != Predicted::Sort::judged) return Compared::unjudged;
  const Finding* f = look.finding(predicted.measure, piece);
  if (!f || f->verdict == Verdict::unknown || f->verdict == Verdict::noted) return Compared::unjudged;
  return f->verdict == Verdict::fails ? Compared::outside : Compared::within;
}

namespace {

//! One mark of a text in words; nothing where it is unknown.
std::optional<std::string> mark_in_words(const Look& look, const History& book, const Task& task,
                                         const Piece& piece, std::string_view mark, const Tongue& tongue) {
  const auto quantity = [&](double si, Kind kind) {
    return with_decimal(format_quantity(si, kind, tongue.units), tongue.decimal);
  };
  if (mark.starts_with('=')) {
    const auto what = mark.substr(1);
    for (const Kind kind : {Kind::length, Kind::mass, Kind::force, Kind::time, Kind::angle, Kind::pressure})
      if (const auto read = parse_quantity(what, kind, UnitSystem::metric);
          std::holds_alternative<ParsedQuantity>(read))
        return quantity(std::get<ParsedQuantity>(read).si, kind);
    return std::string(what);
  }
  const auto term = read_term(mark);
  if (!term) return std::string(mark);
  if (term->sort == Term::Sort::path) {
    const auto path = path_for(look.design(), piece, term->name);
    if (!path) return {};
    if (const std::string* text = text_at(look.design(), *path))
      return text->empty() ? std::nullopt : std::optional(*text);
    if (const auto choice = choice_at(look.design(), *path))
      return in_words(choice->names[static_cast<size_t>(choice->index)], tongue);
  }
  const Told t = told(look, book, task, piece, *term, {}, {});
  if (!std::isfinite(t.si)) return {};
  return t.kind ? quantity(t.si, *t.kind) : with_decimal(fmt::format("{:.6g}", t.si), tongue.decimal);
}

}  // namespace

std::string filled(const Look& look, const History& book, const Task& task, const Piece& piece,
                   std::string_view written, const Tongue& tongue) {
  const std::string text = in_words(written, tongue);
  std::string out, optional;
  bool in_brackets = false, all_known = true;
  for (size_t i = 0; i < text.size(); ++i) {
    std::string& to = in_brackets ? optional : out;
    switch (text[i]) {
      case '[':
        in_brackets = all_known = true;
        optional.clear();
        break;
      case ']':
        if (all_known) out += optional;
        in_brackets = false;
        break;
      case '{': {
        const auto end = text.find('}', i);
        const auto words =
            mark_in_words(look, book, task, piece, std::string_view(text).substr(i + 1, end - i - 1), tongue);
        if (!words) all_known = false;
        to += words.value_or(in_words(std::string_view("unknown"), tongue));
        i = end;
        break;
      }
      default:
        to += text[i];
    }
  }
  return out;
}

namespace {

//! Where the words of `reopens` lead: paths of the design, of a leg from its own root ("*/wheel").
struct Touches {
  std::string_view word;
  std::vector<std::string_view> paths;
  std::vector<std::string_view> but{};  //!< what below them does not count
};
const std::vector<Touches>& touches() {
  static const std::vector<Touches> list{
      {"field", {"/purpose/field", "/purpose/obstacle_m"}},
      {"landing", {"/landing/", "/load_factors/"}},
      {"stance", {"/stance/wing_angle_low_deg", "/stance/wing_angle_high_deg", "/stance/loading"}},
      {"decision", {"/decisions/"}},
      {"place", {"*/axle/", "*/top/", "*/hinge/", "*/stands", "*/path", "*/retraction/pivot/"}},
      {"wheel", {"*/wheel/", "*/wheel_offset_m", "*/wheel_spacing_m", "*/skid"}},
      {"spring", {"*/spring/", "*/travel_m", "*/stop_rate_N_per_m"}},
      {"leg",
       {"*/tube_diameter_m", "*/section", "*/tube_wall_m", "*/section_width_m", "*/section_thickness_m",
        "*/sections/", "*/material", "*/tubes/", "*/axle_diameter_m", "*/axle_wall_m", "*/axle_material",
        "*/brace_leg/", "*/brace_airframe/"}},
      {"mount", {"*/joints/", "/plies/"}, {"laid", "bought", "pulled_N"}},
      {"unit",
       {"*/retraction/"},
       {"time_up_s", "time_down_s", "slowest_factor", "fastest_factor", "times_from", "drive/",
        "seat_starboard_m", "seat_port_m", "measured_turn_deg", "service_set_m"}},
      {"keep-out", {"/airframe/keep_outs/"}},
      {"drive", {"*/retraction/drive/", "*/retraction/time_up_s", "*/retraction/time_down_s"}},
      {"circuit", {"/circuit/"}},
      {"logic", {"/logic/"}},
      {"sequence", {"/sequence/"}},
      {"door", {"/doors/"}},
      {"steering", {"*/steering/"}},
      {"brakes", {"/gear/wheel_brakes", "*/skid", "*/brake_width_m"}},
  };
  return list;
}

}  // namespace

std::vector<std::pair<std::string, std::string>> rests_on(const Look& look, const Task& task,
                                                          const Piece& piece) {
  std::vector<std::pair<std::string, std::string>> seen;
  const Design& d = look.design();
  const auto put = [&](const Touches& t, const std::string& path) {
    for (const NamedValue& v : all_values(d, path)) {
      const std::string_view below = std::string_view(v.path).substr(std::min(path.size(), v.path.size()));
      if (v.written.empty() || std::any_of(t.but.begin(), t.but.end(), [&](std::string_view b) {
            return below.find(b) != std::string_view::npos;
          }))
        continue;
      seen.emplace_back(v.path, v.written);
    }
  };
  for (const auto& word : task.reopens) {
    if (word == "mass") {
      const LoadingState* loading = look.assessment().loading(look.loading());
      if (!loading || !loading->mass.known()) continue;
      seen.emplace_back("mass", shortest(loading->mass.down.mass));
      seen.emplace_back("cg", shortest(loading->mass.down.at.x()));
      continue;
    }
    for (const Touches& t : touches()) {
      if (t.word != word) continue;
      for (const std::string_view path : t.paths) {
        if (!path.starts_with('*')) {
          // Of doors a door's own; a list's other members stand for themselves.
          if (path == "/doors/" && piece.at.starts_with("/doors/"))
            put(t, piece.at);
          else
            put(t, std::string(path));
          continue;
        }
        for (const Leg& leg : d.gear.legs)
          if (piece.leg.empty() || leg.id == piece.leg) {
            const std::string root = "/gear/legs/" + leg.id;
            put(t, path == "*/joints/" && piece.at.find("/joints/") != std::string::npos
                       ? piece.at
                       : root + std::string(path.substr(1)));
          }
      }
    }
  }
  return seen;
}

std::vector<Touched> touched(const Look& look, const std::vector<std::pair<std::string, std::string>>& before,
                             const std::vector<std::pair<std::string, std::string>>& now) {
  std::vector<Touched> list;
  std::map<std::string_view, std::string_view> was(before.begin(), before.end()), is(now.begin(), now.end());
  std::set<std::string_view> paths;
  for (const auto& [path, value] : was) paths.insert(path);
  for (const auto& [path, value] : is) paths.insert(path);
  const auto number = [](std::string_view text) {
    try {
      return std::stod(std::string(text));
    } catch (const std::exception&) {
      return nan;
    }
  };
  for (const std::string_view path : paths) {
    const std::string from(was.count(path) ? was[path] : ""), to(is.count(path) ? is[path] : "");
    if (from == to) continue;
    if (path == "mass" || path == "cg") {
      const double a = number(from), b = number(to);
      const bool mass = path == "mass";
      const double slack = mass ? 0.01 * std::abs(a) : look.design().is_model() ? 0.001 : 0.003;
      if (std::abs(b - a) <= slack) continue;
      const Kind kind = mass ? Kind::mass : Kind::length;
      list.push_back({std::string(path), say("{}: {}, was {}", mass ? Text("mass") : Text("CG, station"),
                                             Amount{b, kind}, Amount{a, kind})});
      continue;
    }
    const auto values = all_values(look.design(), path);
    const NamedValue* named = nullptr;
    for (const NamedValue& v : values)
      if (v.path == path) named = &v;
    const auto in_words = [&](const std::string& text) -> Text {
      if (text.empty()) return "nothing";
      const double si = number(text);
      if (named && named->kind && std::isfinite(si)) return Amount{si, *named->kind};
      return text;
    };
    // Written with fewer digits by hand is no change.
    if (const double a = number(from), b = number(to); named && named->kind && std::isfinite(a) &&
                                                       std::isfinite(b) &&
                                                       std::abs(a - b) <= 1e-9 * std::max(std::abs(a), 1e-3))
      continue;
    list.push_back({std::string(path), say("{}: {}, was {}", Text(named ? named->title : std::string(path)),
                                           in_words(to), in_words(from))});
  }
  return list;
}

}  // namespace kranich::tasks
