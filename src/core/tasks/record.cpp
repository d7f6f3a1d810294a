// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tasks/record.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/assess/subjects.h"
#include "core/assess/table_sheet.h"
#include "core/force/materials.h"
#include "core/model/locate.h"
#include "core/model/moves.h"

namespace kranich::tasks {
namespace {

constexpr double nan = std::numeric_limits<double>::quiet_NaN();

const Read* read_of(const Entry& entry, std::string_view name) {
  for (const Read& r : entry.readings)
    if (r.name == name) return &r;
  return nullptr;
}

Given measured(double si) { return {si, Origin::measured}; }

//! A word of a choice that a builder typed: the choice that it is or begins.
std::optional<int> choice_named(const LocatedChoice& choice, std::string text) {
  std::transform(text.begin(), text.end(), text.begin(),
                 [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
  for (size_t i = 0; i < choice.names.size(); ++i)
    if (!text.empty() && (choice.names[i] == text || text.find(choice.names[i]) != std::string::npos))
      return static_cast<int>(i);
  return {};
}

class Filler {
 public:
  Filler(Design& design, const Task& task, const Piece& piece, const Entry& entry)
      : d_(design), task_(task), piece_(piece), entry_(entry) {}

  std::vector<Text> fill() {
    for (const Reading& r : task_.readings) {
      if (r.sets.empty()) continue;
      if (r.sets == "/spring_bench/readings")
        loads();
      else if (r.sets == "/spring_bench/drops")
        dropped();
      else if (const Read* read = read_of(entry_, r.name))
        one(r, *read);
    }
    return std::move(told_);
  }

 private:
  //! Each load with the closure that follows it.
  void loads() {
    if (piece_.leg.empty() && !d_.gear.first(LegRole::main)) return;
    const std::string leg = piece_.leg.empty() ? d_.gear.first(LegRole::main)->id : piece_.leg;
    double load = nan;
    for (const Reading& r : task_.readings) {
      const Read* read = read_of(entry_, r.name);
      if (!read || !std::isfinite(read->value)) continue;
      if (r.unit.kind == Kind::force) load = read->value;
      if (r.unit.kind != Kind::length || !std::isfinite(load)) continue;
      LoadReading reading;
      reading.leg = leg;
      reading.load = measured(load);
      reading.closure = measured(read->value);
      reading.state = entry_.build_state;
      if (const std::string& spring = shelf_name(leg); !spring.empty()) reading.state += ", " + spring;
      d_.spring_bench.readings.push_back(std::move(reading));
      load = nan;
    }
  }
  //! Which spring it was that was read.
  const std::string& shelf_name(const std::string& id) const {
    static const std::string none;
    const Leg* leg = d_.gear.find(id);
    if (!leg) return none;
    const Spring& s = leg->spring;
    switch (s.kind) {
      case SpringKind::coil:
        return s.coil.shelf_name;
      case SpringKind::cord:
        return s.cord.shelf_name;
      case SpringKind::gas_strut:
        return s.gas_strut.shelf_name;
      case SpringKind::pucks:
        return s.pucks.shelf_name;
      default:
        return none;
    }
  }
  void dropped() {
    DropTest drop;
    drop.leg = piece_.leg;
    drop.day = std::string(entry_.day());
    drop.state = entry_.build_state;
    int lengths = 0;
    for (const Reading& r : task_.readings) {
      const Read* read = read_of(entry_, r.name);
      if (!read) continue;
      const Given value = std::isfinite(read->value) ? measured(read->value) : Given();
      const Given foretold = std::isfinite(read->foretold) ? Given(read->foretold) : Given();
      if (r.unit.kind == Kind::length && lengths++ == 0) {
        drop.height = value;
      } else if (r.unit.kind == Kind::length) {
        drop.stroke = value;
        drop.foretold_stroke = foretold;
      } else if (r.unit.kind == Kind::mass) {
        drop.mass = value;
      } else if (r.unit.kind == Kind::in_g) {
        drop.acceleration = value;
        drop.foretold_acceleration = foretold;
      } else if (r.unit.form == Form::text) {
        drop.outcome = read->text;
      }
    }
    d_.spring_bench.drops.push_back(std::move(drop));
  }

  void one(const Reading& r, const Read& read) {
    if (r.sets == "/weighing/scales") return scales(read);
    if (r.sets.starts_with("/stance/readings/")) {
      if (std::isfinite(read.value)) table_reading(read, r.sets.substr(17));
      return;
    }
    if (r.sets == "/plies/*/laid") {
      // The count is right: all of them lie.
      if (read.compared == Compared::within)
        for (Ply& ply : d_.plies) ply.laid = true;
      return;
    }
    const auto path = path_for(d_, piece_, r.sets);
    if (!path) {
      told_.push_back(say("{}: nothing in the design to put it into", Text(r.name)));
      return;
    }
    if (auto at = locate_given(d_, *path)) {
      if (!std::isfinite(read.value)) return;
      if (apart(*path, read)) return;
      if (const auto why = refusal(read.value, at->spec, d_.units)) {
        told_.push_back(say("{}: {}", Text(r.name), Text(*why)));
        return;
      }
      *at->given = Given(read.value, Origin::measured, at->given->tolerance);
      // A part that was weighed says so.
      if (piece_.at.starts_with("/ledger/") && path->ends_with("/mass_kg"))
        if (bool* weighed = locate_flag(d_, piece_.at + "weighed")) *weighed = true;
    } else if (std::string* text = locate_text(d_, *path)) {
      if (read.text.empty()) return;
      if (path->ends_with("/material") && !force::find_material(d_.materials, read.text)) {
        told_.push_back(say(
            "{}: \"{}\" is none of the materials, so the design keeps what it has; enter it under Materials",
            Text(r.name), Text(read.text)));
        return;
      }
      *text = read.text;
    } else if (const auto choice = choice_at(d_, *path)) {
      if (read.text.empty()) return;
      if (const auto index = choice_named(*choice, read.text))
        set_choice(d_, *path, *index);
      else
        told_.push_back(
            say("{}: \"{}\" is none of the words that the design knows", Text(r.name), Text(read.text)));
    } else {
      told_.push_back(say("{}: nothing in the design to put it into", Text(r.name)));
    }
  }

  //! A reading of the port side that does not agree with what both sides share is not theirs.
  bool apart(const std::string& path, const Read& read) {
    if (!piece_.port || piece_.leg.empty() || path.find("/gear/legs/") != 0 ||
        read.compared != Compared::outside)
      return false;
    const Leg* leg = d_.gear.find(piece_.leg);
    if (!leg || leg->stands != LegStands::both_sides) return false;
    told_.push_back(
        say("{} reads otherwise to port: left and right are one leg of the design. Take them apart (Legs), "
            "then it is kept for the port side alone.",
            Text(read.name)));
    return true;
  }

  void scales(const Read& read) {
    if (!std::isfinite(read.value)) return;
    const Leg* leg = d_.gear.find(piece_.leg);
    if (!leg) return;
    auto& scales = d_.weighing.scales;
    const double side = leg->stands == LegStands::centre ? 0 : piece_.port ? -1 : 1;
    const auto same = std::find_if(scales.begin(), scales.end(), [&](const ScaleReading& s) {
      if (s.leg != leg->id) return false;
      return side == 0 || !s.y.known() || (s.y > 0) == (side > 0);
    });
    ScaleReading& at = same != scales.end() ? *same : scales.emplace_back();
    if (same == scales.end() || at.leg.empty()) {
      at.leg = leg->id;
      at.name = in_words(piece_.words);
      at.tare = defaulted(0);  // nothing was said of chocks or blocks under the wheel
      at.x = leg->axle.x;
      at.y = Given(side * leg->axle.y);
    }
    at.reading = measured(read.value);
  }

  //! A line of the table sheet; of an angle what the meter shows on the table as it slopes.
  void table_reading(const Read& read, const std::string& what) {
    TableLine line;
    line.what = what;
    line.loading = entry_.loading;
    line.is_angle = read.unit == "deg";
    const double slope = line.is_angle && d_.stance.table_slope.known() ? d_.stance.table_slope.si : 0;
    set_reading(d_, line, piece_.port, read.value + slope);
  }

  Design& d_;
  const Task& task_;
  const Piece& piece_;
  const Entry& entry_;
  std::vector<Text> told_;
};

}  // namespace

void compare_readings(const Look& look, const History& book, const Task& task, const Piece& piece,
                      Entry& entry) {
  for (size_t i = 0; i < task.readings.size(); ++i)
    for (Read& read : entry.readings) {
      if (read.name != task.readings[i].name) continue;
      const Reading& r = task.readings[i];
      read.unit = r.unit.symbol;
      if (r.unit.form == Form::number) {
        const Foretold f = foretold(look, book, task, piece, i, entry.readings);
        read.foretold = f.value;
        read.lower = f.lower;
        read.upper = f.upper;
        read.compared = compare(f, read.value);
      } else {
        read.compared = compare(r.predicted, read.text);
      }
    }
}

bool fills(const Task& task) {
  return std::any_of(task.readings.begin(), task.readings.end(),
                     [](const Reading& r) { return !r.sets.empty(); });
}

std::vector<Text> fill_design(Design& design, const Task& task, const Piece& piece, const Entry& entry) {
  return Filler(design, task, piece, entry).fill();
}

void finish_entry(const Look& look, const Task& task, const Piece& piece, Entry& entry) {
  for (const Reading& r : task.readings)
    for (Read& read : entry.readings)
      if (read.name == r.name && r.predicted.sort == Predicted::Sort::judged)
        read.compared = judged_by(look, piece, r.predicted);
  entry.seen = rests_on(look, task, piece);
}

std::vector<std::string> still_wanted(const Task& task, const Entry& entry) {
  std::vector<std::string> names;
  for (const Reading& r : task.readings) {
    const bool judged =
        r.predicted.sort != Predicted::Sort::nothing || r.allowed.sort != Allowed::Sort::nothing;
    if (judged && r.predicted.sort != Predicted::Sort::twin && r.unit.form != Form::photo &&
        !read_of(entry, r.name))
      names.push_back(r.name);
  }
  return names;
}

std::vector<Text> odd(const Entry& entry, std::string_view today) {
  std::vector<Text> list;
  const auto day = day_number(entry.at), now = day_number(today);
  if (day && now && *day > *now)
    list.push_back(say("its day, {}, is still to come", Text(std::string(entry.day()))));
  for (const Read& r : entry.readings)
    if (std::isfinite(r.foretold) && std::isfinite(r.value) && r.foretold != 0) {
      const double times = std::abs(r.value / r.foretold);
      if (times > 10 || times < 0.1)
        list.push_back(say("{} is {} times what was foretold: the unit?", Text(r.name),
                           Figure{times, times < 1 ? 2 : 0}));
    }
  return list;
}

}  // namespace kranich::tasks
