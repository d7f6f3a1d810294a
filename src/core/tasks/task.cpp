// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tasks/task.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <functional>
#include <set>

#include "core/base/measure.h"
#include "core/base/text.h"
#include "core/tasks/figures.h"

namespace kranich::tasks {
namespace {

std::string trimmed(std::string_view text) {
  const auto first = text.find_first_not_of(" \t");
  if (first == std::string_view::npos) return {};
  return std::string(text.substr(first, text.find_last_not_of(" \t") - first + 1));
}
//! Parted by a sign that stands between blanks or at a cell's end: "a; b", "one side | the other".
std::vector<std::string> parted(std::string_view text, char by) {
  std::vector<std::string> parts;
  if (trimmed(text).empty()) return parts;
  for (size_t from = 0; from <= text.size();) {
    const size_t to = std::min(text.find(by, from), text.size());
    parts.push_back(trimmed(text.substr(from, to - from)));
    from = to + 1;
  }
  return parts;
}
//! Words parted by semicolons.
std::vector<std::string> words_of(std::string_view text) {
  std::vector<std::string> words;
  for (const auto& part : parted(text, ';'))
    if (!part.empty()) words.push_back(part);
  return words;
}
template <class List>
bool has(const List& list, std::string_view word) {
  return std::find(list.begin(), list.end(), word) != list.end();
}
template <class List>
std::string told(const List& list) {
  std::string all;
  for (const auto& one : list)
    if (!std::string_view(one).empty()) all += (all.empty() ? "" : ", ") + std::string(one);
  return all;
}
std::optional<double> plain_number(std::string_view text) {
  double v = 0;
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), v);
  return error == std::errc() && end == text.data() + text.size() && std::isfinite(v) ? std::optional(v)
                                                                                      : std::nullopt;
}

bool good_id(std::string_view id) {
  const auto dot = id.find('.');
  return dot != std::string_view::npos && dot > 0 && dot + 1 < id.size() && id.size() <= 60 &&
         std::all_of(id.begin(), id.end(), [](char c) {
           return (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9') || c == '.' || c == '-' || c == '_';
         });
}

//! A size with its unit in the unit of a reading: "3 mm" of a length, "0.3" of a plain number.
std::optional<double> size_in(std::string_view text, const ReadingUnit& unit) {
  if (!unit.kind) {
    std::string_view number = text;
    if (!unit.symbol.empty() && number.size() > unit.symbol.size() && number.ends_with(unit.symbol))
      number.remove_suffix(unit.symbol.size());
    return plain_number(trimmed(number));
  }
  const auto read = parse_quantity(text, *unit.kind, UnitSystem::metric);
  if (const auto* q = std::get_if<ParsedQuantity>(&read)) return q->si;
  return std::nullopt;
}

std::variant<Predicted, std::string> read_predicted(const std::string& text) {
  Predicted p;
  if (text.empty() || text == "-") return p;
  using enum Predicted::Sort;
  for (const auto& [word, sort] :
       {std::pair{"yes", yes}, {"no", no}, {"twin", twin}, {"first", first}, {"last", last}})
    if (text == word) {
      p.sort = sort;
      return p;
    }
  p.sort = sum;
  if (text == "zero") {
    p.sum.push_back({Term::Sort::number, 0, {}, 0});
    return p;
  }
  if (text.starts_with("judge:")) {
    p.sort = judged;
    p.measure = text.substr(6);
    if (!find_measure(p.measure)) return fmt::format("\"{}\" is no measure", p.measure);
    return p;
  }
  // Terms parted by plus, each a number or a source with a number before it: "2 * leg.load + 3".
  for (const auto& part : parted(text, '+')) {
    const auto star = part.find('*');
    // A path may hold a star of its own: one that multiplies has a number before it.
    const auto factor =
        star == std::string::npos ? std::nullopt : plain_number(trimmed(part.substr(0, star)));
    const auto term = read_term(factor ? trimmed(part.substr(star + 1)) : part);
    if (!term)
      return fmt::format("\"{}\" is neither a number, a path, a measure, a figure nor a reading", part);
    p.sum.push_back(*term);
    if (factor) p.sum.back().times *= *factor;
  }
  return p;
}

std::variant<Allowed, std::string> read_allowed(const std::string& text, const ReadingUnit& unit) {
  Allowed a;
  if (text.empty() || text == "-") return a;
  std::string rest;
  const auto starts = [&](std::string_view sign, Allowed::Sort sort) {
    if (!text.starts_with(sign)) return false;
    a.sort = sort;
    rest = trimmed(std::string_view(text).substr(sign.size()));
    return true;
  };
  if (!starts("±", Allowed::Sort::within) && !starts("≤", Allowed::Sort::at_most) &&
      !starts("≥", Allowed::Sort::at_least))
    return fmt::format("must begin with ±, ≤ or ≥, is \"{}\"", text);
  if (rest.empty()) {
    // Alone: exactly what is predicted, of ≤ and ≥ the bound itself.
    if (a.sort == Allowed::Sort::within) a.full = a.model = 0;
    return a;
  }
  if (rest.ends_with("%") && unit.symbol != "%") {
    const auto share = plain_number(trimmed(std::string_view(rest).substr(0, rest.size() - 1)));
    if (!share || *share < 0) return fmt::format("\"{}\" is no share", rest);
    if (a.sort != Allowed::Sort::within) return "a share stands with ± only";
    a.share = *share / 100;
    return a;
  }
  const auto sizes = parted(rest, '/');
  // "m/s" holds a stroke of its own.
  const bool two = sizes.size() == 2 && size_in(sizes[0], unit);
  a.full = size_in(two ? sizes[0] : rest, unit);
  a.model = two ? size_in(sizes[1], unit) : a.full;
  if (!a.full || !a.model) return fmt::format("\"{}\" is no {} in {}", rest, "size", unit.symbol);
  if (a.sort == Allowed::Sort::within && (*a.full < 0 || *a.model < 0))
    return fmt::format("\"{}\" is below zero", rest);
  return a;
}

//! What is wrong with the numbers that a text asks for.
std::string wrong_marks(std::string_view text) {
  int inside = 0;
  for (size_t i = 0; i < text.size(); ++i) {
    if (text[i] == '[') ++inside;
    if (text[i] == ']') --inside;
    if (inside < 0 || inside > 1) return "brackets [ ] do not match";
    if (text[i] == '}') return "a bracket } without {";
    if (text[i] != '{') continue;
    const auto end = text.find('}', i);
    if (end == std::string_view::npos) return "a bracket { is not closed";
    const auto mark = text.substr(i + 1, end - i - 1);
    if (mark.starts_with('=')) {
      // A figure of craft: any quantity that Kranich can convert.
      bool good = false;
      for (const Kind kind : {Kind::length, Kind::mass, Kind::force, Kind::time, Kind::angle, Kind::pressure})
        good = good || std::holds_alternative<ParsedQuantity>(
                           parse_quantity(mark.substr(1), kind, UnitSystem::metric));
      if (!good) return fmt::format("\"{}\" is no quantity", mark);
    } else if (const auto term = read_term(mark); !term || term->sort == Term::Sort::reading) {
      return fmt::format("\"{}\" is neither a path, a measure nor a figure", mark);
    }
    i = end;
  }
  return inside ? "brackets [ ] do not match" : "";
}

}  // namespace

const RungWords& rung_words(int rung) {
  static constexpr std::array<RungWords, rung_count> words{{
      {"No power, by hand", "touch, bind, a lock that wants help"},
      {"Slow", "touch, jerk, hum, leak, smell, wrong lamp"},
      {"Full", "a time off by a fifth, heat, door on leg"},
      {"Emergency", "a leg hangs, a lamp lies, a leg starts by itself"},
      {"Drop", "bottomed, set, crack, noise: then rung 1 again"},
      {"Taxi", "shimmy, pull, smell, nod, rub"},
      {"Flight, gear down", "any doubt of lamp, leg or noise"},
      {"Flight, retraction", "lamp or time not as on stands: leave it down, back to 3"},
  }};
  return words.at(static_cast<size_t>(rung - 1));
}

std::string Task::name() const {
  std::string word = id.substr(id.find('.') + 1);
  std::replace(word.begin(), word.end(), '-', ' ');
  for (const std::string_view end : {" full", " model"})
    if (word.ends_with(end)) word.erase(word.size() - end.size());
  return capitalised(word);
}

std::string_view stage_title(std::string_view stage) {
  static const std::map<std::string_view, std::string_view> titles{
      {"ask", "Ask first"},     {"weigh", "Weigh"},     {"survey", "Survey"},
      {"choose", "Choose"},     {"buy", "Buy"},         {"structure", "Structure"},
      {"jig", "Jig"},           {"make", "Make"},       {"mount", "Mount"},
      {"wheels", "Wheels"},     {"springs", "Springs"}, {"stand", "Stand it up"},
      {"swing", "Swing it"},    {"drive", "Drive it"},  {"circuit", "Circuit"},
      {"logic", "Logic"},       {"doors", "Doors"},     {"cycle", "Cycle it"},
      {"drop", "Drop it"},      {"close", "Close it"},  {"taxi", "Taxi"},
      {"fly", "Fly"},           {"finish", "Finish"},   {"service", "Service"},
      {"always", "At any time"}};
  const auto it = titles.find(stage);
  return it == titles.end() ? stage : it->second;
}

std::string_view station_of_stage(std::string_view stage) {
  static const std::map<std::string_view, std::string_view> stations{
      {"ask", "place"},   {"weigh", "weigh"},    {"survey", "place"},    {"choose", "leg"},
      {"buy", "leg"},     {"structure", "leg"},  {"jig", "leg"},         {"make", "leg"},
      {"mount", "leg"},   {"wheels", "steer"},   {"springs", "spring"},  {"stand", "stance"},
      {"swing", "swing"}, {"drive", "drive"},    {"circuit", "circuit"}, {"logic", "logic"},
      {"doors", "doors"}, {"cycle", "sequence"}, {"drop", "spring"},     {"close", "leg"},
      {"taxi", "steer"}};
  const auto it = stations.find(stage);
  return it == stations.end() ? "bench" : it->second;
}

const std::vector<Hazard>& all_hazards() {
  static const std::vector<Hazard> list{
      {"stands", "ST", "On stands: nobody beneath until it is secured; gear that moves shifts the load."},
      {"pinch", "PI",
       "Pinch: hands and tools out, a second person on the switch, the breaker pulled while working."},
      {"spring", "SP",
       "Springs: restrain both ends, stand out of line, pull the strut last; never drill or heat one."},
      {"pressure", "PR", "Pressure: relieve both sides, gauges at zero; fluid goes through skin."},
      {"drop", "DR",
       "Drops: people and propeller away, sides guarded, rebound caught, start low, look after each."},
      {"propeller", "PP", "Propeller: off, or the drive battery out."},
      {"resin", "RE", "Resin: gloves, air; large mixes heat up."},
      {"dust", "DU", "Dust: mask and extraction; carbon conducts."},
      {"hot", "HO", "Heat: coatings, fuel and fumes away; heat treatment only of a known alloy."},
      {"tools", "TO", "Tools: clamp, slow, eyes covered."},
      {"wire", "WI", "Wire: hold the free end, eyes covered."},
      {"tyre", "TY", "Tyre: air out before bolts are touched; within the wheel maker's limit."},
      {"roll", "RO", "ROLL ONLY until the final retainer is in."},
      {"battery", "BA", "Battery: fuse at the source, current limit, never alone."},
      {"unproven", "UN", "Unproved: one new thing at a time, a clear field."},
      {"false", "FA", "False green: green only from the lock; test the lamps."},
  };
  return list;
}

const Hazard* find_hazard(std::string_view key) {
  for (const Hazard& h : all_hazards())
    if (h.key == key) return &h;
  return nullptr;
}

std::optional<ReadingUnit> reading_unit(std::string_view symbol) {
  static const std::map<std::string_view, ReadingUnit> units{
      {"text", {Form::text, {}, "text", 1}},
      {"yes/no", {Form::yes_no, {}, "yes/no", 1}},
      {"photo", {Form::photo, {}, "photo", 1}},
      {"number", {Form::number, {}, "number", 1}},
      {"money", {Form::number, {}, "money", 1}},
      {"h", {Form::number, {}, "h", 1}},
      {"%", {Form::number, {}, "%", 1}},
      {"°C", {Form::number, {}, "°C", 1}},
      {"share", {Form::number, Kind::share, "share", 1}},
      {"m", {Form::number, Kind::length, "m", 1}},
      {"kg", {Form::number, Kind::mass, "kg", 1}},
      {"deg", {Form::number, Kind::angle, "deg", radians(1)}},
      {"N", {Form::number, Kind::force, "N", 1}},
      {"Pa", {Form::number, Kind::pressure, "Pa", 1}},
      {"s", {Form::number, Kind::time, "s", 1}},
      {"m/s", {Form::number, Kind::speed, "m/s", 1}},
      {"N m", {Form::number, Kind::moment, "N m", 1}},
      {"g", {Form::number, Kind::in_g, "g", 1}},
      {"A", {Form::number, Kind::current, "A", 1}},
      {"V", {Form::number, Kind::voltage, "V", 1}}};
  const auto it = units.find(symbol);
  return it == units.end() ? std::nullopt : std::optional(it->second);
}

const std::vector<std::string_view>& reopen_words() {
  static const std::vector<std::string_view> words{
      "field", "landing",  "stance", "decision", "mass",  "place",   "wheel", "spring",
      "leg",   "mount",    "unit",   "keep-out", "drive", "circuit", "logic", "sequence",
      "door",  "steering", "brakes", "moved",    "part",  "battery", "repair"};
  return words;
}
const std::vector<std::string_view>& repeat_words() {
  static const std::vector<std::string_view> words{
      "each part",       "each stage",   "each session", "each bolt-up", "each lay-up",
      "each opening",    "each cover",   "each try",     "each repair",  "each failure",
      "each flight day", "hard landing", "drop",         "yearly"};
  return words;
}

std::optional<Term> read_term(std::string_view text) {
  const std::string name = trimmed(text);
  if (const auto number = plain_number(name)) return Term{Term::Sort::number, *number, {}, 0};
  if (name.starts_with('/')) return Term{Term::Sort::path, 1, name, 0};
  if (const auto hash = name.find('#'); hash != std::string::npos) {
    const auto nth = plain_number(std::string_view(name).substr(hash + 1));
    if (!nth || *nth < 1 || *nth > 40 || *nth != std::floor(*nth) || !good_id(name.substr(0, hash)))
      return {};
    return Term{Term::Sort::reading, 1, name.substr(0, hash), static_cast<int>(*nth)};
  }
  if (find_measure(name) || find_figure(name)) return Term{Term::Sort::figure, 1, name, 0};
  return {};
}

std::variant<Task, std::string> read_task(const TaskLine& line) {
  const auto cell = [&](std::string_view column) {
    const auto it = line.find(column);
    return it == line.end() ? std::string() : trimmed(it->second);
  };
  const auto wrong = [](std::string_view column, const std::string& what) {
    return fmt::format("{}: {}", column, what);
  };
  Task t;
  t.id = cell("id");
  if (!good_id(t.id))
    return wrong("id", fmt::format("must be two words with a dot between, small letters, is \"{}\"",
                                   shortened(t.id, 60)));
  t.stage = cell("stage");
  if (!has(stages, t.stage))
    return wrong("stage", fmt::format("\"{}\" is none of: {}", shortened(t.stage, 40), told(stages)));
  t.when = cell("when");
  const auto condition = Condition::read(t.when);
  if (const auto* why = std::get_if<std::string>(&condition)) return wrong("when", *why);
  t.applies = std::get<Condition>(condition);
  const std::string per = cell("per");
  const auto per_at = std::find(per_names.begin(), per_names.end(), per);
  if (per_at == per_names.end())
    return wrong("per", fmt::format("\"{}\" is none of: {}", shortened(per, 40), told(per_names)));
  t.per = static_cast<Per>(per_at - per_names.begin());
  t.text = cell("text");
  t.why = cell("why");
  t.stop = cell("stop");
  t.needs = cell("needs");
  t.helper = cell("helpers");
  if (t.text.empty()) return wrong("text", "says nothing");
  if (letters_in(t.text) > 240)
    return wrong("text", fmt::format("at most 240 characters, has {}", letters_in(t.text)));
  if (letters_in(t.why) > 60)
    return wrong("why", fmt::format("at most 60 characters, has {}", letters_in(t.why)));
  for (const auto& [column, words] : {std::pair{"text", &t.text}, {"why", &t.why}, {"stop", &t.stop}})
    if (const auto why = wrong_marks(*words); !why.empty()) return wrong(column, why);
  for (const auto& key : words_of(cell("hazard"))) {
    const Hazard* hazard = find_hazard(key);
    if (!hazard) {
      std::vector<std::string_view> keys;
      for (const Hazard& h : all_hazards()) keys.push_back(h.key);
      return wrong("hazard", fmt::format("\"{}\" is none of: {}", shortened(key, 40), told(keys)));
    }
    t.hazards.push_back(hazard);
  }
  for (const auto& gate : words_of(cell("gate"))) {
    if (gate.starts_with("stage:")) {
      if (!has(stages, gate.substr(6)))
        return wrong("gate", fmt::format("\"{}\" is no stage", gate.substr(6)));
      t.gates.push_back({Gate::Sort::stage, gate.substr(6)});
    } else if (gate.starts_with("holds:")) {
      if (!find_measure(gate.substr(6)))
        return wrong("gate", fmt::format("\"{}\" is no measure", gate.substr(6)));
      t.gates.push_back({Gate::Sort::holds, gate.substr(6)});
    } else {
      t.gates.push_back({Gate::Sort::task, gate});
    }
  }
  const auto names = parted(cell("reading"), ';');
  const auto column_of = [&](std::string_view column, std::vector<std::string>& parts) -> std::string {
    parts = parted(cell(column), ';');
    if (parts.size() > names.size())
      return wrong(column,
                   fmt::format("has {} parts where there are {} readings", parts.size(), names.size()));
    parts.resize(names.size(), "-");
    return {};
  };
  std::vector<std::string> units, predicted, tolerance, sets;
  for (const auto& [column, parts] :
       {std::pair{"unit", &units}, {"predicted", &predicted}, {"tolerance", &tolerance}, {"sets", &sets}})
    if (const auto why = column_of(column, *parts); !why.empty()) return why;
  for (size_t i = 0; i < names.size(); ++i) {
    Reading r;
    r.name = names[i];
    if (r.name.empty()) return wrong("reading", "a name is missing");
    const auto unit = reading_unit(units[i]);
    if (!unit) return wrong("unit", fmt::format("\"{}\" is no unit of a reading", shortened(units[i], 20)));
    r.unit = *unit;
    const auto foretold = read_predicted(predicted[i]);
    if (const auto* why = std::get_if<std::string>(&foretold)) return wrong("predicted", *why);
    r.predicted = std::get<Predicted>(foretold);
    const auto allowed = read_allowed(tolerance[i], r.unit);
    if (const auto* why = std::get_if<std::string>(&allowed)) return wrong("tolerance", *why);
    r.allowed = std::get<Allowed>(allowed);
    if (sets[i] != "-") {
      if (!sets[i].starts_with('/')) return wrong("sets", fmt::format("\"{}\" is no path", sets[i]));
      r.sets = sets[i];
    }
    t.readings.push_back(std::move(r));
  }
  if (const auto rung = cell("rung"); !rung.empty()) {
    const auto number = plain_number(rung);
    if (!number || *number < 1 || *number > 8 || *number != std::floor(*number))
      return wrong("rung", fmt::format("must be 1 to 8, is \"{}\"", rung));
    t.rung = static_cast<int>(*number);
  }
  t.reopens = words_of(cell("reopens"));
  for (const auto& word : t.reopens)
    if (!has(reopen_words(), word))
      return wrong("reopens",
                   fmt::format("\"{}\" is none of: {}", shortened(word, 40), told(reopen_words())));
  t.repeats = words_of(cell("repeat"));
  for (const auto& word : t.repeats)
    if (!has(repeat_words(), word))
      return wrong("repeat", fmt::format("\"{}\" is none of: {}", shortened(word, 40), told(repeat_words())));
  if (const auto choice = cell("choice"); !choice.empty()) {
    const auto colon = choice.find(':');
    Choice c;
    if (colon != std::string::npos) {
      c.question = trimmed(std::string_view(choice).substr(0, colon));
      c.sides = parted(std::string_view(choice).substr(colon + 1), '|');
    }
    if (c.question.empty() || c.sides.size() < 2)
      return wrong("choice", "must read \"question: one side | the other\"");
    t.choice = std::move(c);
  }
  return t;
}

const Task* TaskTable::find(std::string_view id) const {
  const auto it = std::find_if(tasks.begin(), tasks.end(), [&](const Task& t) { return t.id == id; });
  return it == tasks.end() ? nullptr : &*it;
}

namespace {

size_t stage_rank(std::string_view stage) {
  return static_cast<size_t>(std::find(stages.begin(), stages.end(), stage) - stages.begin());
}

//! Tasks that can be reached from themselves through their gates.
std::set<std::string> in_rings(const std::vector<Task>& tasks) {
  std::map<std::string, const Task*> by_id;
  for (const Task& t : tasks) by_id.emplace(t.id, &t);
  std::set<std::string> rings;
  for (const Task& start : tasks) {
    std::set<std::string> seen;
    const std::function<bool(const Task&)> leads_back = [&](const Task& t) {
      for (const Gate& g : t.gates) {
        if (g.sort != Gate::Sort::task) continue;
        if (g.name == start.id) return true;
        const auto next = by_id.find(g.name);
        if (next != by_id.end() && seen.insert(g.name).second && leads_back(*next->second)) return true;
      }
      return false;
    };
    if (leads_back(start)) rings.insert(start.id);
  }
  return rings;
}

}  // namespace

TaskTable table_of(const std::vector<std::pair<std::string, TaskLine>>& shipped,
                   const std::vector<std::pair<std::string, TaskLine>>& own) {
  TaskTable table;
  const auto problem = [&](const Task& t, const std::string& what) {
    table.problems.push_back(fmt::format("{}, {}: {}", t.from_line, t.id, what));
  };
  for (const auto* lines : {&shipped, &own})
    for (const auto& [where, line] : *lines) {
      auto read = read_task(line);
      if (const auto* why = std::get_if<std::string>(&read)) {
        table.problems.push_back(fmt::format("{}, {}", where, *why));
        continue;
      }
      Task task = std::get<Task>(std::move(read));
      task.from_line = where;
      task.own = lines == &own;
      const auto same = std::find_if(table.tasks.begin(), table.tasks.end(),
                                     [&](const Task& t) { return t.id == task.id; });
      if (same != table.tasks.end()) {
        if (task.own && !same->own) {
          *same = std::move(task);
        } else {
          problem(task, "there is a line of this id already");
        }
        continue;
      }
      if (task.own && !task.id.starts_with("my.")) {
        problem(task,
                "an id of your own begins with \"my.\", or is one of the table's and replaces its line");
        continue;
      }
      // A line of one's own stands behind the one named first in its gate where that is of its stage, else at
      // its stage's end.
      auto at = std::find_if(table.tasks.rbegin(), table.tasks.rend(), [&](const Task& t) {
                  return stage_rank(t.stage) <= stage_rank(task.stage);
                }).base();
      if (task.own && !task.gates.empty()) {
        const auto behind = std::find_if(table.tasks.begin(), table.tasks.end(), [&](const Task& t) {
          return t.id == task.gates[0].name && t.stage == task.stage;
        });
        if (behind != table.tasks.end()) at = behind + 1;
      }
      table.tasks.insert(at, std::move(task));
    }
  const auto rings = in_rings(table.tasks);
  if (!rings.empty()) {
    table.problems.push_back(fmt::format("gates in a ring, not asked for: {}",
                                         told(std::vector<std::string>(rings.begin(), rings.end()))));
    for (Task& t : table.tasks)
      if (rings.count(t.id))
        std::erase_if(t.gates,
                      [&](const Gate& g) { return g.sort == Gate::Sort::task && rings.count(g.name); });
  }
  // What is left out may be the gate of another: until nothing more goes.
  for (bool again = true; again;) {
    again = false;
    std::set<std::string> before, all;
    for (const Task& t : table.tasks) all.insert(t.id);
    for (auto t = table.tasks.begin(); t != table.tasks.end();) {
      std::string what;
      for (const Gate& g : t->gates)
        if (g.sort == Gate::Sort::task && !before.count(g.name))
          what = fmt::format("the gate \"{}\" {}", g.name,
                             all.count(g.name) ? "stands behind it" : "is no step");
      // What a reading is compared with must be a reading of a task that there is.
      for (Reading& r : t->readings)
        for (Term& term : r.predicted.sum) {
          if (term.sort != Term::Sort::reading) continue;
          const Task* of = table.find(term.name);
          if (!of)
            what = fmt::format("predicted: \"{}\" is no step", term.name);
          else if (term.nth > static_cast<int>(of->readings.size()))
            what = fmt::format("predicted: \"{}\" has no reading {}", term.name, term.nth);
          else
            term.reading = of->readings[static_cast<size_t>(term.nth - 1)].name;
        }
      if (what.empty()) {
        before.insert(t->id);
        ++t;
      } else {
        problem(*t, what);
        t = table.tasks.erase(t);
        again = true;
      }
    }
  }
  return table;
}

}  // namespace kranich::tasks
