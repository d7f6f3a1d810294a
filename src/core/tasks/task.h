// SPDX-License-Identifier: GPL-3.0-or-later
//! A task of the shop work: one line of the table that ships with Kranich (data/steps.csv), or of the
//! builder's own. Nothing about a single task stands in code. (On the screen it is a step; in the code a Step
//! is a line of the Sequence.)
#pragma once

#include <array>
#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

#include "core/base/quantity.h"
#include "core/tasks/condition.h"

namespace kranich::tasks {

//! In the order of work; `service` and `always` stand beside all others.
inline constexpr std::array<std::string_view, 25> stages{
    "ask",    "weigh",   "survey", "choose", "buy",    "structure", "jig",   "make",  "mount",
    "wheels", "springs", "stand",  "swing",  "drive",  "circuit",   "logic", "doors", "cycle",
    "drop",   "close",   "taxi",   "fly",    "finish", "service",   "always"};
//! A rung of the ladder of tests: what is done on it, at what it ends at once (handbook, the ladder).
struct RungWords {
  const char *title, *stop;
};
inline constexpr int rung_count = 8;
//! Of rung 1 to 8.
const RungWords& rung_words(int rung);

//! "Stand", "Fly": a stage as a heading.
std::string_view stage_title(std::string_view stage);
//! The station at whose page a stage's tasks are shown ("place"); Bench shows them all.
std::string_view station_of_stage(std::string_view stage);

//! What a task is ticked for.
enum class Per {
  once,
  part,
  gear_part,
  joint,
  glued_joint,
  side,
  leg,
  leg_type,
  wheel,
  unit,
  retracting_leg,
  door
};
inline constexpr std::array<std::string_view, 12> per_names{
    "",    "part",     "gear part", "joint", "glued joint",    "side",
    "leg", "leg type", "wheel",     "unit",  "retracting leg", "door"};

//! A hazard's standing words.
struct Hazard {
  std::string_view key;    //!< "pinch"
  std::string_view sign;   //!< one or two letters for a sign
  std::string_view words;  //!< "hands and tools out, …"
};
const std::vector<Hazard>& all_hazards();
const Hazard* find_hazard(std::string_view key);

//! What a reading is: a quantity with a unit, a plain number with a word behind it, or no number at all.
enum class Form { number, text, yes_no, photo };
struct ReadingUnit {
  Form form = Form::text;
  std::optional<Kind> kind;  //!< of a quantity; a plain number has none
  std::string symbol;        //!< as the table and the Book write it: "m", "deg", "N", "number", "°C"
  double to_si = 1;          //!< SI value of one of it
};
//! The unit of that name, or nothing.
std::optional<ReadingUnit> reading_unit(std::string_view symbol);

//! Where a prediction, a number in a text or a reading's second half comes from.
struct Term {
  enum class Sort { number, path, figure, reading };
  Sort sort = Sort::number;
  double times = 1;          //!< of a number: the number itself
  std::string name;          //!< path, id of a measure or figure, or the task of a reading
  int nth = 0;               //!< of a reading: which of that task's, from 1
  std::string reading = {};  //!< and its name, once the table is whole: an entry may lack others
};
struct Predicted {
  enum class Sort { nothing, sum, yes, no, twin, first, last, judged };
  Sort sort = Sort::nothing;
  std::vector<Term> sum;
  std::string measure;  //!< of judged: with its own limits, once the reading is entered
};

//! How far a reading may be from what was predicted. Sizes in the reading's own unit (SI where it is a
//! quantity), full size and model.
struct Allowed {
  enum class Sort { nothing, within, at_most, at_least };
  Sort sort = Sort::nothing;
  //! Of what is predicted (share), or a size; of at_most and at_least a size stands instead of a prediction.
  std::optional<double> share, full, model;
  std::optional<double> size(bool is_model) const { return is_model ? model : full; }
};

struct Reading {
  std::string name;
  ReadingUnit unit;
  Predicted predicted;
  Allowed allowed;
  std::string sets;  //!< path that it fills, "*" for the subject's own; empty: none
};

struct Gate {
  enum class Sort { task, stage, holds };
  Sort sort;
  std::string name;
};

//! What two schools do, where they differ.
struct Choice {
  std::string question;
  std::vector<std::string> sides;
};

struct Task {
  //! What it is called in a few words: what its id says behind the dot. Full size and model have lines of
  //! their own for the same thing, of which an aircraft is shown one.
  std::string name() const;

  std::string id, stage;
  std::string when;  //!< as written
  Condition applies;
  Per per = Per::once;
  std::string text, why;
  std::vector<const Hazard*> hazards;
  std::string helper;  //!< people needed besides oneself; empty: none
  std::vector<Gate> gates;
  std::vector<Reading> readings;
  std::string stop;
  int rung = 0;
  std::vector<std::string> reopens;  //!< words of reopen_words()
  std::vector<std::string> repeats;  //!< words of repeat_words()
  std::optional<Choice> choice;
  std::string needs;
  bool own = false;       //!< the builder's own line
  std::string from_line;  //!< "line 12", for messages
};

//! What may open a ticked task again by a change: words of the column `reopens`.
const std::vector<std::string_view>& reopen_words();
//! What lets a task be done once more: words of the column `repeat`.
const std::vector<std::string_view>& repeat_words();

//! One line of the table as it is written, by column.
using TaskLine = std::map<std::string, std::string, std::less<>>;
//! The columns of the table, in their order.
inline constexpr std::array<std::string_view, 20> task_columns{
    "id",   "stage",     "when",      "per",  "text", "why",  "hazard",  "helpers", "gate",   "reading",
    "unit", "predicted", "tolerance", "sets", "stop", "rung", "reopens", "repeat",  "choice", "needs"};

//! A line understood on its own, or what is wrong with it ("tolerance: …").
std::variant<Task, std::string> read_task(const TaskLine& line);

//! Parts of a text or a condition that a number fills: "{stand.width}", "{/sequence/margin_s}", "{=6 mm}".
//! Reads one between its brackets; nothing where it is neither.
std::optional<Term> read_term(std::string_view text);

//! A table that holds together.
struct TaskTable {
  std::vector<Task> tasks;            //!< in the order of work
  std::vector<std::string> problems;  //!< lines left out, and why; rings of gates

  const Task* find(std::string_view id) const;
};
//! Puts lines in order and checks what one says of others: the shipped table's, then the builder's own, whose
//! ids begin with "my." or replace a shipped one. A line that cannot be understood, or whose gate is unknown
//! or stands behind it, is named and left out; of a ring of gates all stay, without these gates.
TaskTable table_of(const std::vector<std::pair<std::string, TaskLine>>& shipped,
                   const std::vector<std::pair<std::string, TaskLine>>& own);

}  // namespace kranich::tasks
