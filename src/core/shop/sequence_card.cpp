// SPDX-License-Identifier: GPL-3.0-or-later
//! The card of a sequence: who moves when, both ways, and what hangs on which output. For the lid of the box
//! or the wall of the workshop.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/model/describe_words.h"
#include "core/sequence/boxes.h"
#include "core/sequence/plan.h"
#include "core/shop/maker.h"

namespace kranich::shop {
namespace {

constexpr double wide = 182;      //!< mm of paper
constexpr double bars_from = 58;  //!< where the bars begin: before it stands whose they are
constexpr double row = 8;

std::string seconds(double t) { return fmt::format("{:.2f}", t); }

}  // namespace

Maker::Made Maker::sequence_card() const {
  std::vector<Text> problems;
  const auto plan = sequence::plan_of(d_, a_.times, problems);
  if (plan.up.empty() && plan.down.empty())
    return problems.empty() ? Text("steps of the sequence, with their times") : problems.front();
  Drawing s;
  double y = 0;
  const auto name = [&](const std::string& actor) { return in_words(d_.actor_word(actor), {d_.units}); };
  for (const bool up : {true, false}) {
    const auto& moves = up ? plan.up : plan.down;
    if (moves.empty()) continue;
    s.write({0, y - 4}, 4, up ? "Going up" : "Going down");
    double last = 0;
    for (const auto& m : moves) last = std::max(last, m.latest);
    const double span = std::max(1.0, std::ceil(last));
    const auto x_of = [&](double t) { return bars_from + t / span * (wide - bars_from); };
    const double top = y - 9;
    const double foot = top - row * static_cast<double>(moves.size()) - 1;
    // No more figures on the line than can be read.
    const double each = span > 20 ? 5 : span > 10 ? 2 : 1;
    for (double t = 0; t <= span + 1e-9; t += each) {
      s.line({x_of(t), top}, {x_of(t), foot}, Line::dimension);
      s.write({x_of(t), foot - 3.6}, 2.2, fmt::format("{:.0f} s", t), true);
    }
    double at = top;
    for (const auto& m : moves) {
      s.write({0, at - 5}, 2.6, (m.channel.empty() ? "" : m.channel + "  ") + name(m.actor));
      const double low = at - row + 1.6;
      const double high = at - 1.6;
      s.rectangle({x_of(m.start), low}, {x_of(m.start + m.duration), high}, Line::cut);
      s.rectangle({x_of(m.earliest), low}, {x_of(m.latest), high}, Line::mark);
      s.write({x_of(m.start) + 1, at - 5}, 2.2, std::string(sequence::word_of(m.action)));
      at -= row;
    }
    y = foot - 8;
    std::vector<std::vector<std::string>> rows{
        {"Channel", "Who", "Does", "Starts, s", "Takes, s", "There by, s", "Ends at", "Lead"}};
    for (const auto& m : moves)
      rows.push_back({m.channel.empty() ? "–" : m.channel, name(m.actor),
                      std::string(sequence::word_of(m.action)), seconds(m.start), seconds(m.duration),
                      seconds(m.latest), fmt::format("{:.0f} %", 100 * m.ends_at),
                      m.reversed ? "reversed" : "straight"});
    y = s.table({0, y}, {18, 48, 18, 18, 18, 20, 16, 18}, rows, 2.4) - 8;
  }
  if (!d_.sequence.boxes.empty()) {
    std::vector<std::vector<std::string>> rows{
        {"Box", "Bought as", "Started by", "Holds up to, s", "When switched on it"}};
    for (const SequencerBox& b : d_.sequence.boxes)
      rows.push_back({b.id, b.name, b.chained_to.empty() ? "the selector" : "box " + b.chained_to,
                      b.longest_hold.known() ? seconds(b.longest_hold) : "–",
                      std::string(at_switch_on_names[static_cast<size_t>(b.at_switch_on)])});
    y = s.table({0, y}, {14, 56, 30, 28, 44}, rows, 2.4) - 8;
  }
  for (const auto& actor : sequence::on_no_box(d_)) s.notes.push_back(name(actor) + " hangs on no box.");
  for (const auto& p : problems) s.notes.push_back("Left out for want of " + in_words(p, {d_.units}) + ".");
  s.notes.push_back("Bar: as long as it takes; thin box: between the fastest and the slowest.");
  s.notes.push_back(
      "Retracting legs and doors crush: on jacks with a safe stand, hands out, a second person on the "
      "switch, breaker "
      "pulled while working.");
  s.notes.push_back(caution());
  return s;
}

}  // namespace kranich::shop
