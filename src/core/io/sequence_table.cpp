// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/io/sequence_table.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <nlohmann/json.hpp>

#include "core/io/csv.h"
#include "core/model/describe_words.h"
#include "core/sequence/boxes.h"

namespace kranich {
namespace {

//! To a thousandth: no sequencer is told a time more closely.
double told(double v) { return std::round(v * 1000) / 1000; }
std::string number(double v) { return fmt::format("{}", told(v)); }

template <class F>
void each(const sequence::Plan& plan, F&& f) {
  for (const bool up : {true, false})
    for (const auto& m : up ? plan.up : plan.down) f(up, m);
}

}  // namespace

std::string sequence_csv(const Design& d, const sequence::Plan& plan) {
  std::string text = csv_line({"selector", "channel", "actor", "name", "moves", "start_s", "duration_s",
                               "latest_end_s", "ends_at", "direction"});
  each(plan, [&](bool up, const sequence::Move& m) {
    text += csv_line({up ? "up" : "down", m.channel, m.actor, in_words(d.actor_word(m.actor)),
                      std::string(sequence::word_of(m.action)), number(m.start), number(m.duration),
                      number(m.latest), number(m.ends_at), m.reversed ? "reversed" : "normal"});
  });
  return text;
}

std::string sequence_json(const Design& d, const sequence::Plan& plan) {
  nlohmann::ordered_json j;
  j["kranich_sequence"] = 1;
  j["project"] = d.about.name;
  for (const bool up : {true, false}) {
    auto& list = j[up ? "up" : "down"] = nlohmann::ordered_json::array();
    for (const auto& m : up ? plan.up : plan.down) {
      nlohmann::ordered_json row;
      if (!m.channel.empty()) row["channel"] = m.channel;
      row["actor"] = m.actor;
      row["name"] = in_words(d.actor_word(m.actor));
      row["moves"] = sequence::word_of(m.action);
      row["start_s"] = told(m.start);
      row["duration_s"] = told(m.duration);
      row["latest_end_s"] = told(m.latest);
      row["ends_at"] = told(m.ends_at);
      row["reversed"] = m.reversed;
      list.push_back(std::move(row));
    }
  }
  return j.dump(2, ' ', false, nlohmann::ordered_json::error_handler_t::replace) + "\n";
}

std::string wiring_csv(const Design& d) {
  std::string text = csv_line({"box", "output", "goes_to", "lead", "remark"});
  for (const SequencerBox& b : d.sequence.boxes) {
    text += csv_line({b.id, "start", b.chained_to.empty() ? "selector" : "box " + b.chained_to, "",
                      fmt::format("{}{}when switched on it {}", b.name, b.name.empty() ? "" : "; ",
                                  at_switch_on_names[static_cast<size_t>(b.at_switch_on)])});
    for (const BoxOutput& o : d.sequence.outputs) {
      if (o.box != b.id) continue;
      const Leg* leg = d.gear.find(o.actor);
      text += csv_line({b.id, o.number.known() ? number(o.number) : "", in_words(d.actor_word(o.actor)),
                        o.reversed ? "with a reverser" : "straight",
                        leg && leg->retraction.unit.other_way ? "this unit runs the other way" : ""});
    }
  }
  for (const auto& actor : sequence::on_no_box(d))
    text += csv_line({"", "", in_words(d.actor_word(actor)), "", "on no box"});
  return text;
}

std::vector<BenchLine> sequencer_lines(const sequence::Plan& plan) {
  const auto actors = sequence::numbered_actors(plan);
  std::vector<BenchLine> lines{{"CLEAR", {}}};
  each(plan, [&](bool up, const sequence::Move& m) {
    const auto actor = std::find(actors.begin(), actors.end(), m.actor) - actors.begin();
    lines.push_back({"STEP",
                     {{"way", up ? 1.0 : 0.0},
                      {"actor", static_cast<double>(actor)},
                      {"start", told(m.start)},
                      {"time", told(m.duration)},
                      {"to", told(m.ends_at)}}});
  });
  return lines;
}

}  // namespace kranich
