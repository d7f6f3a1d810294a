// SPDX-License-Identifier: GPL-3.0-or-later
//! kranich-cli: the core from the command line, without a display.
//! Exit codes: 0 done, and every check that was made holds or is tight; 1 at least one fails; 2 the file
//! cannot be read or is faulty; 3 the call is wrong; 4 a file cannot be written; 5 none fails, but what some
//! ask for is not known.
#include <fmt/format.h>

#include <CLI/CLI.hpp>
#include <cerrno>
#include <cmath>
#include <cstdio>
#include <cstring>
#include <ctime>
#include <filesystem>
#include <iostream>
#include <nlohmann/json.hpp>
#include <system_error>

#include "cli/start.h"
#include "cli/steps.h"
#include "core/assess/assess.h"
#include "core/assess/cures.h"
#include "core/assess/make_hold.h"
#include "core/base/text.h"
#include "core/io/csv.h"
#include "core/io/project_file.h"
#include "core/io/sequence_table.h"
#include "core/io/stock.h"
#include "core/shop/sheets.h"

namespace {

using namespace kranich;
using Json = nlohmann::ordered_json;

enum Exit {
  done = 0,
  some_check_fails = 1,
  faulty_file = 2,
  wrong_call = 3,
  cannot_write = 4,
  some_check_unknown = 5
};

//! A line for a terminal: names from a file must not steer it.
void put(const std::string& line) { fmt::print("{}\n", printable(line)); }

//! Reads a project; prints its faults to standard error where it has any.
std::optional<Design> open_project(const std::string& path, bool* newer = nullptr,
                                   std::vector<Fault>* strange = nullptr) {
  auto read = load_project(path);
  for (const auto& f : read.faults) std::cerr << printable(path + ": " + f.where + ": " + f.what) << '\n';
  if (read.design && read.newer)
    std::cerr << path << ": written by a newer version of Kranich; what it added is not seen\n";
  if (newer) *newer = read.newer;
  if (strange) *strange = std::move(read.strange);
  return std::move(read.design);
}

Json number(double v) { return std::isfinite(v) ? Json(v) : Json(nullptr); }
Json number(const std::optional<double>& v) { return v ? number(*v) : Json(nullptr); }

std::string si_unit(Kind kind) {
  for (const auto& u : known_units())
    if (u.kind == kind) return std::string(u.symbol);
  return "";
}

Json finding_json(const Finding& f) {
  const Measure& m = f.info();
  Json working = Json::array();
  for (const auto& w : f.working)
    working.push_back({{"name", in_words(w.name)}, {"si", number(w.si)}, {"unit", si_unit(w.kind)}});
  return {{"measure", f.measure_id},
          {"station", station_id(m.station)},
          {"title", m.title},
          {"subject", in_words(f.subject.words)},
          {"loading", f.loading},
          {"state", gear_state_word(f.state)},
          {"value", number(f.value)},
          {"unit", si_unit(m.kind)},
          {"limit",
           {{"lower", number(f.limit.lower)},
            {"upper", number(f.limit.upper)},
            {"hold_lower", number(f.limit.hold_lower)},
            {"hold_upper", number(f.limit.hold_upper)},
            {"source", in_words(f.limit.source)}}},
          {"margin", number(f.margin)},
          {"margin_fraction", number(f.margin_fraction)},
          {"verdict", verdict_word(f.verdict)},
          {"remark", in_words(f.remark)},
          {"formula", m.formula},
          {"working", working},
          {"assumption", in_words(f.assumption)},
          {"missing", paths_in(f.remark)}};
}

Json prices_json(const std::vector<Price>& prices) {
  Json list = Json::array();
  for (const auto& p : prices)
    list.push_back({{"measure", p.measure_id},
                    {"subject", in_words(p.subject.words)},
                    {"verdict_before", verdict_word(p.before)},
                    {"verdict_after", verdict_word(p.after)},
                    {"value_before", number(p.value_before)},
                    {"value_after", number(p.value_after)},
                    {"unit", si_unit(measure(p.measure_id).kind)}});
  return list;
}

std::string limit_text(const Finding& f, UnitSystem units) {
  const Kind kind = f.info().kind;
  std::string s;
  if (f.limit.lower) s += "≥ " + format_quantity(*f.limit.lower, kind, units);
  if (f.limit.upper) s += (s.empty() ? "≤ " : ", ≤ ") + format_quantity(*f.limit.upper, kind, units);
  return s;
}

Json cure_json(const Cure& c, UnitSystem units) {
  Json changes = Json::array();
  for (const auto& p : c.parts)
    changes.push_back({{"knob", p.knob->id}, {"by", p.change}, {"unit", si_unit(p.knob->kind)}});
  return {{"cure", c.id()},
          {"text", capitalised(in_words(c.text, {units}))},
          {"changes", changes},
          {"worse", prices_json(c.worse)},
          {"better", prices_json(c.better)},
          {"less_to_spare", prices_json(c.costs)}};
}

//! What would cure each failing or tight check, the worst of it over the loadings.
Json cures_json(const Design& design, const Assessment& a) {
  Json list = Json::array();
  const Stock stock = stock_of(design);
  for (const Finding* f : worst_of_each(a))
    for (const auto& c : cures_for(design, a, *f, {100, &stock})) {
      Json cure = cure_json(c, design.units);
      cure["measure"] = f->measure_id;
      cure["subject"] = in_words(f->subject.words);
      cure["verdict"] = verdict_word(c.reached);
      list.push_back(std::move(cure));
    }
  return list;
}

//! Make it hold: the least changes after which nothing fails, or what contradicts. Writes the best one's
//! project where a file is named.
int run_hold(const std::string& path, bool json, const std::string& out) {
  const auto design = open_project(path);
  if (!design) return faulty_file;
  const Assessment before = assess(*design);
  HoldSearch search;
  const Stock stock = stock_of(*design);
  search.stock = &stock;
  const Holding h = make_hold(*design, before, search);
  const bool failed = std::any_of(before.findings.begin(), before.findings.end(),
                                  [](const Finding& f) { return f.verdict == Verdict::fails; });
  const auto lacking = std::count_if(before.findings.begin(), before.findings.end(),
                                     [](const Finding& f) { return f.verdict == Verdict::unknown; });
  const Tongue tongue{design->units};
  if (json) {
    Json ways = Json::array();
    for (const auto& w : h.ways) ways.push_back(cure_json(w, design->units));
    Json against = Json::array();
    for (const auto& f : h.against) against.push_back(finding_json(f));
    Json answer{
        {"kranich_hold", 1},  {"project", design->about.name}, {"nothing_fails", !failed},    {"ways", ways},
        {"against", against}, {"contradict", h.contradict},    {"assessments", h.assessments}};
    if (h.nearest) answer["nearest"] = cure_json(*h.nearest, design->units);
    std::cout << answer.dump(1, ' ', false, Json::error_handler_t::replace) << '\n';
  } else if (!failed) {
    put(lacking == 0 ? "nothing fails"
                     : fmt::format("nothing fails that can be judged; {} lack a number", lacking));
  } else {
    for (const auto& w : h.ways) {
      put(fmt::format("- {}", capitalised(in_words(w.text, tongue))));
      for (const auto& p : w.worse)
        put(fmt::format("    {} {}: {}", measure(p.measure_id).title, verdict_word(p.after),
                        format_quantity(p.value_after, measure(p.measure_id).kind, design->units)));
    }
    if (h.ways.empty()) {
      put(h.contradict
              ? "these limits contradict each other within what may move:"
              : "no change was found after which nothing fails; where it came nearest these still do:");
      for (const auto& f : h.against)
        put(fmt::format("- {}{}: {}  {}", f.info().title,
                        f.subject.empty() ? "" : ", " + in_words(f.subject.words, tongue),
                        format_quantity(f.value, f.info().kind, design->units),
                        limit_text(f, design->units)));
      if (h.nearest) put(fmt::format("nearest: {}", in_words(h.nearest->text, tongue)));
    }
  }
  if (!out.empty() && !h.ways.empty())
    if (const auto why = save_project(h.ways.front().applied(*design), out)) {
      std::cerr << out << ": " << *why << '\n';
      return cannot_write;
    }
  if (failed) return h.ways.empty() ? some_check_fails : done;
  return lacking > 0 ? some_check_unknown : done;
}

int run_assess(const std::string& path, bool json, bool csv, bool cures) {
  const auto design = open_project(path);
  if (!design) return faulty_file;
  const Assessment a = assess(*design);
  bool fails = false;
  bool unknown = false;
  for (const auto& f : a.findings) {
    fails = fails || f.verdict == Verdict::fails;
    unknown = unknown || f.verdict == Verdict::unknown;
  }
  if (json) {
    Json findings = Json::array();
    for (const auto& f : a.findings) findings.push_back(finding_json(f));
    Json answer{{"kranich_assessment", 1}, {"project", design->about.name}, {"findings", findings}};
    if (cures) answer["cures"] = cures_json(*design, a);
    std::cout << answer.dump(1, ' ', false, Json::error_handler_t::replace) << '\n';
  } else if (csv) {
    std::cout << findings_to_csv(a);
  } else {
    put(fmt::format("{} – {}", design->about.name, design->about.summary));
    const Stock stock = stock_of(*design);
    for (const Finding* f : worst_of_each(a)) {
      const Tongue tongue{design->units};
      put(fmt::format("{:8} {:34} {:>12}  {:22} {}", verdict_word(f->verdict),
                      std::string(f->info().title) +
                          (f->subject.empty() ? "" : ", " + in_words(f->subject.words, tongue)),
                      format_quantity(f->value, f->info().kind, design->units), limit_text(*f, design->units),
                      f->remark.empty() ? f->loading : in_words(f->remark, tongue)));
      if (!cures || f->verdict == Verdict::holds || f->verdict == Verdict::noted) continue;
      for (const auto& c : cures_for(*design, a, *f, {100, &stock})) {
        std::string price;
        for (const auto& p : c.worse)
          price += fmt::format("; {} {}: {}", measure(p.measure_id).title, verdict_word(p.after),
                               format_quantity(p.value_after, measure(p.measure_id).kind, design->units));
        for (const auto& p : c.better) price += fmt::format("; also cures {}", measure(p.measure_id).title);
        put(fmt::format("           - {}: {}{}", capitalised(in_words(c.text, tongue)),
                        verdict_word(c.reached), price));
      }
    }
  }
  return fails ? some_check_fails : unknown ? some_check_unknown : done;
}

int run_validate(const std::string& path) {
  std::vector<Fault> strange;
  const auto design = open_project(path, nullptr, &strange);
  for (const auto& f : strange) put(path + ": warning: " + f.where + ": " + f.what);
  if (!design) return faulty_file;
  put(fmt::format("{}: a Kranich project, “{}”", path, design->about.name));
  return done;
}

int run_measures() {
  std::string station;
  fmt::print(
      "# Measures\n\nEvery number that Kranich judges or reports. Made from the registry by `kranich-cli "
      "measures`.\n");
  for (const auto& m : all_measures()) {
    if (station != station_title(m.station)) {
      station = station_title(m.station);
      fmt::print(
          "\n## {}\n\n| id | title | quantity | what it means | formula | source "
          "|\n|---|---|---|---|---|---|\n",
          station);
    }
    std::string formula(m.formula);
    for (size_t at = 0; (at = formula.find('|', at)) != std::string::npos; at += 2) formula.insert(at, "\\");
    fmt::print("| `{}` | {} | {} | {} | {} | {} |\n", m.id, m.title, kind_name(m.kind), m.meaning, formula,
               m.source);
  }
  return done;
}

int run_convert(const std::string& path, const std::string& units, const std::string& output) {
  bool newer = false;
  auto design = open_project(path, &newer);
  if (!design) return faulty_file;
  if (newer) {
    std::cerr << path << ": writing it here would lose that; nothing is written\n";
    return faulty_file;
  }
  design->units = units == "inch" ? UnitSystem::inch : UnitSystem::metric;
  const std::string text = write_project(*design);
  if (output.empty() || output == "-") {
    std::cout << text;
    return done;
  }
  if (const auto why = save_project(*design, output)) {
    std::cerr << output << ": " << *why << '\n';
    return cannot_write;
  }
  return done;
}

std::string today() {
  const std::time_t now = std::time(nullptr);
  std::tm day{};
  localtime_r(&now, &day);
  return fmt::format("{:04}-{:02}-{:02}", day.tm_year + 1900, day.tm_mon + 1, day.tm_mday);
}

int run_sheets(const std::string& path, const std::string& folder) {
  const auto design = open_project(path);
  if (!design) return faulty_file;
  std::error_code error;
  std::filesystem::create_directories(folder, error);
  const shop::Stamp stamp{design->about.name, design->about.revision, today()};
  const Assessment a = assess(*design);
  auto sheets = shop::shop_sheets(*design, a, "legs extended");
  for (auto& s : cli::work_sheets(*design, a, path, today())) sheets.push_back(std::move(s));
  for (const auto& sheet : sheets) {
    const auto* drawing = std::get_if<shop::Drawing>(&sheet.drawing);
    if (!drawing) {
      put(fmt::format("{}: needs {}", sheet.title, in_words(std::get<Text>(sheet.drawing), {design->units})));
      continue;
    }
    for (const bool svg : {true, false}) {
      const std::string file = folder + "/" + shop::file_name(sheet) + (svg ? ".svg" : ".dxf");
      const std::string text = svg ? shop::to_svg(*drawing, stamp) : shop::to_dxf(*drawing, stamp);
      if (const auto why = write_file_atomically(file, text)) {
        std::cerr << file << ": " << *why << '\n';
        return cannot_write;
      }
      fmt::print("{}\n", file);
    }
  }
  return done;
}

//! Everything printed must have arrived: a full disk or a closed pipe is an error too.
int end_with(int code) {
  std::cout.flush();
  if (std::cout && std::fflush(stdout) == 0 && !std::ferror(stdout)) return code;
  std::cerr << "kranich-cli: not everything could be written: " << std::strerror(errno) << '\n';
  return cannot_write;
}

int run(int argc, char** argv) {
  CLI::App app{"Kranich without a display: landing gear assessed from the command line."};
  app.footer(
      "Exit codes: 0 nothing fails, 1 a check fails, 2 faulty file, 3 wrong call, 4 cannot write, 5 none "
      "fails but "
      "some cannot be judged.\nThe "
      "figures are for planning; local rules and licensed persons decide.");
  app.require_subcommand(1);
  std::string file, units, output;
  bool json = false, csv = false, cures = false, every = false;
  auto* assess_command = app.add_subcommand("assess", "Run every check over a project");
  assess_command->add_option("FILE", file, "project file (.kranich)")->required();
  assess_command->add_flag("--json", json, "every finding as JSON, SI units");
  assess_command->add_flag("--csv", csv, "every finding as a table");
  assess_command->add_flag("--cures", cures, "with what would cure each failing or tight check");
  auto* hold_command = app.add_subcommand("hold", "The least change after which nothing fails");
  hold_command->add_option("FILE", file, "project file")->required();
  hold_command->add_flag("--json", json, "the ways as JSON, SI units");
  hold_command->add_option("--write", output, "write the project with the best way to this file");
  auto* validate_command = app.add_subcommand("validate", "Check a project file and name every fault");
  validate_command->add_option("FILE", file, "project file")->required();
  auto* measures_command = app.add_subcommand("measures", "List all measures (docs/measures.md)");
  auto* convert_command = app.add_subcommand(
      "convert-units", "Switch a project between metric and inch units; values stay as they are");
  convert_command->add_option("FILE", file, "project file")->required();
  convert_command->add_option("UNITS", units, "metric or inch")
      ->required()
      ->check(CLI::IsMember({"metric", "inch"}));
  convert_command->add_option("-o,--output", output, "where to write (standard output)");
  auto* sheets_command = app.add_subcommand("sheets", "Write every sheet for the bench as SVG and DXF");
  sheets_command->add_option("FILE", file, "project file")->required();
  sheets_command->add_option("FOLDER", output, "folder for the sheets")->required();
  auto* steps_command =
      app.add_subcommand("steps", "The steps of the work that are open, with this design's numbers");
  steps_command->add_option("FILE", file, "project file")->required();
  steps_command->add_flag("--all", every, "done, waiting and standing ones too");
  steps_command->add_flag("--json", json, "as JSON, readings in their own units");
  auto* start_command =
      app.add_subcommand("start", "A whole aircraft from nine answers; what is left open is guessed");
  cli::StartOptions start;
  cli::add_start_options(*start_command, start);
  auto* next_command = app.add_subcommand("next", "What to measure next, by what it would settle");
  next_command->add_option("FILE", file, "project file")->required();
  next_command->add_flag("--json", json, "as JSON, SI units");
  bool wiring = false;
  auto* sequence_command =
      app.add_subcommand("sequence", "The plan of the retraction as a table for a sequencer");
  sequence_command->add_option("FILE", file, "project file")->required();
  auto* as_json = sequence_command->add_flag("--json", json, "as JSON");
  sequence_command->add_flag("--wiring", wiring, "what hangs on which output instead")->excludes(as_json);
  auto* table_command = app.add_subcommand("steps-table", "Print docs/steps.md");
  auto* schema_command = app.add_subcommand("schema", "Print the JSON Schema of the project file");
  auto* fields_command = app.add_subcommand("fields", "Print the tables of docs/file-format.md");
  try {
    app.parse(argc, argv);
  } catch (const CLI::ParseError& e) {
    return app.exit(e) == 0 ? done : wrong_call;
  }
  if (*hold_command) return run_hold(file, json, output);
  if (*assess_command) return run_assess(file, json, csv, cures);
  if (*validate_command) return run_validate(file);
  if (*measures_command) return run_measures();
  if (*convert_command) return run_convert(file, units, output);
  if (*sheets_command) return run_sheets(file, output);
  if (*steps_command) {
    const auto design = open_project(file);
    if (!design) return faulty_file;
    cli::print_steps(*design, file, today(), every, json);
  }
  if (*start_command) {
    const auto design = cli::started(start);
    if (!design) return wrong_call;
    if (start.output.empty() || start.output == "-") {
      std::cout << write_project(*design);
    } else if (const auto why = save_project(*design, start.output)) {
      std::cerr << start.output << ": " << *why << '\n';
      return cannot_write;
    }
  }
  if (*next_command) {
    const auto design = open_project(file);
    if (!design) return faulty_file;
    cli::print_next(*design, json);
  }
  if (*sequence_command) {
    const auto design = open_project(file);
    if (!design) return faulty_file;
    std::vector<Text> problems;
    const auto plan =
        sequence::plan_of(*design, assess(*design, Stations::only(Station::sequence)).times, problems);
    for (const Text& p : problems)
      std::cerr << file << ": left out for want of " << in_words(p, {design->units}) << '\n';
    std::cout << (wiring ? wiring_csv(*design)
                  : json ? sequence_json(*design, plan)
                         : sequence_csv(*design, plan));
  }
  if (*table_command) cli::print_steps_table();
  if (*schema_command) std::cout << project_schema();
  if (*fields_command) std::cout << project_fields_markdown();
  return done;
}

}  // namespace

int main(int argc, char** argv) {
  try {
    return end_with(run(argc, argv));
  } catch (const std::system_error&) {
    return end_with(cannot_write);
  }
}
