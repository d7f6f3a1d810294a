// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/start.h"

#include <fmt/format.h>

#include <CLI/CLI.hpp>
#include <algorithm>
#include <iostream>
#include <nlohmann/json.hpp>

#include "core/assess/tolerance.h"
#include "core/base/text.h"
#include "core/model/describe_words.h"
#include "core/model/locate.h"
#include "core/start/measure_next.h"
#include "core/start/start.h"

namespace kranich::cli {
namespace {

std::vector<std::string> all_of(Names names) { return {names.begin(), names.end()}; }

template <class E>
std::optional<E> chosen(const std::string& word, Names names) {
  const auto at = std::find(names.begin(), names.end(), word);
  if (at == names.end()) return std::nullopt;
  return static_cast<E>(at - names.begin());
}

}  // namespace

void add_start_options(CLI::App& command, StartOptions& o) {
  command.add_option("--build", o.build, "full-size or model")->check(CLI::IsMember(all_of(build_names)));
  command.add_option("--seats", o.seats, "of a full-size aircraft, 0 to 4");
  command.add_option("--scale", o.scale, "of a model of something, one to");
  command.add_option("--stands-on", o.craft, "nose wheel, tail wheel or helicopter")
      ->check(CLI::IsMember(all_of(craft_names)));
  command.add_option("--gear", o.gear, "fixed or retractable")
      ->check(CLI::IsMember({"fixed", "retractable"}));
  command.add_option("--mass", o.mass, "all-up, kg");
  command.add_option("--span", o.span, "or rotor, m");
  command.add_option("--length", o.length, "spinner to tail end, m");
  command.add_option("--wing", o.wing, "low, mid or high")->check(CLI::IsMember(all_of(wing_place_names)));
  command.add_option("--engine", o.engine, "propeller in front, pusher, ducted or jet")
      ->check(CLI::IsMember(all_of(engine_names)));
  command.add_option("--field", o.field, "tarmac, turf, rough strip, sand or indoor")
      ->check(CLI::IsMember({"tarmac", "turf", "rough strip", "sand", "indoor"}));
  command.add_flag("--keep", o.keep, "keep a span or length outside of what is usual");
  command.add_option("-o,--output", o.output, "where to write (standard output)");
}

std::optional<Design> started(const StartOptions& o) {
  start::Answers a;
  a.build = chosen<Build>(o.build, build_names);
  if (o.seats != -1) a.seats = o.seats;
  a.kind = chosen<Craft>(o.craft, craft_names);
  if (!o.gear.empty()) a.retractable = o.gear == "retractable";
  a.wing = chosen<WingPlace>(o.wing, wing_place_names);
  a.engine = chosen<Engine>(o.engine, engine_names);
  a.field = chosen<Field>(o.field, field_names);
  for (const auto& [from, to] :
       {std::pair{o.scale, &a.scale}, {o.mass, &a.mass}, {o.span, &a.span}, {o.length, &a.length}})
    if (from != 0) *to = from;
  a.keep_span = a.keep_length = o.keep;
  const auto refused = start::refusals(a);
  for (const auto& r : refused)
    std::cerr << "kranich-cli: " << r.question << ": " << in_words(r.why)
              << (r.may_be_kept ? "; --keep keeps it all the same" : "") << '\n';
  if (!refused.empty()) return std::nullopt;
  start::Started made = start::started(a);
  for (const auto& note : made.notes) std::cerr << in_words(note) << '\n';
  return std::move(made.design);
}

void print_next(const Design& d, bool json) {
  const Assessment a = assess(d);
  const start::NextList next = start::measure_next(d, a, over_tolerances(d, a));
  const Tongue tongue{d.units, nullptr};
  auto list = nlohmann::ordered_json::array();
  int number = 0;
  for (const auto& w : next.acts) {
    std::string narrows;
    for (const Text& n : w.narrows) narrows += (narrows.empty() ? "" : "; ") + in_words(n, tongue);
    if (json) {
      list.push_back({{"act", w.act.id},
                      {"what", in_words(w.act.what, tongue)},
                      {"tool", start::words(w.act.tool)},
                      {"station", station_id(w.act.station)},
                      {"score", w.score},
                      {"settles", w.settles},
                      {"narrows", narrows},
                      {"paths", w.act.paths}});
      continue;
    }
    fmt::print("{}\n",
               printable(fmt::format("{:2}. {} – {}. Settles {} of {}{}{}", ++number,
                                     in_words(w.act.what, tongue), start::words(w.act.tool), w.settles,
                                     next.open, narrows.empty() ? "" : ", narrows ", narrows)));
  }
  if (json)
    fmt::print("{}\n", nlohmann::ordered_json{{"open", next.open}, {"acts", list}}.dump(2));
  else if (next.acts.empty())
    fmt::print("nothing that is guessed can change a verdict\n");
}

}  // namespace kranich::cli
