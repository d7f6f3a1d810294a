// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tasks/register.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/model/locate.h"

namespace kranich::tasks {
namespace {

constexpr double nan = std::numeric_limits<double>::quiet_NaN();

//! What the Book says of a part bought: its last price, and that it was.
struct Bought {
  double price = nan, mass = nan;
  bool is = false;
};
Bought bought(const History& history, const std::string& piece, const std::string& name) {
  Bought b;
  for (const Entry* e : history.valid()) {
    const bool registered = e->task == "buy.register" && e->piece == piece;
    const bool named = e->mark == Mark::event && (e->event == "purchase" || e->event == "part") &&
                       !name.empty() && e->what == name;
    if (!registered && !named) continue;
    b.is = b.is || named || (registered && (e->mark == Mark::done || e->mark == Mark::tried));
    if (e->cost != 0) b.price = e->cost;
    for (const Read& r : e->readings) {
      if (r.unit == "money" && std::isfinite(r.value)) b.price = r.value;
      if (r.unit == "kg" && std::isfinite(r.value)) b.mass = r.value;
    }
  }
  return b;
}

//! The decision that any number under a path hangs on.
Text decision_on(const Design& d, const std::string& root) {
  for (const Decision& decision : d.decisions)
    if (!decision.path.empty() && decision.path.starts_with(root))
      return decision.waits_for.empty() ? Text(decision.name)
                                        : say("{}: {}", Text(decision.name), Text(decision.waits_for));
  return {};
}

}  // namespace

std::vector<RegisterRow> part_register(const Design& d, const History& history) {
  std::vector<RegisterRow> rows;
  const auto add = [&](Text what, Text side, const std::string& root,
                       const std::string& shelf) -> RegisterRow& {
    RegisterRow row{std::move(what), std::move(side), nan, nan, {}, nan, nan, {}, decision_on(d, root)};
    const Bought b = bought(history, "", shelf);
    row.price = b.price;
    row.state = b.is                    ? Text("bought")
                : !shelf.empty()        ? say("chosen: {}", Text(shelf))
                : row.waits_for.empty() ? Text("to choose")
                                        : Text("not decided");
    rows.push_back(std::move(row));
    return rows.back();
  };
  for (const PlacedLeg& placed : placed_legs(d.gear)) {
    const Leg& leg = d.gear.legs[placed.row];
    const std::string root = "/gear/legs/" + leg.id + "/";
    const Text side = leg.stands == LegStands::centre ? Text("centre")
                      : placed.port                   ? Text("port")
                                                      : Text("starboard");
    if (!leg.skid) {
      RegisterRow& wheel = add(d.wheel_word(leg), side, root + "wheel/", leg.wheel.shelf_name);
      wheel.size = leg.wheel.diameter;
    }
    if (leg.retraction.fitted) {
      const RetractUnit& unit = leg.retraction.unit;
      RegisterRow& row = add(say("{} unit", d.stem_word(leg)), side, root + "retraction/", unit.shelf_name);
      row.size = unit.leg_pin;
      row.angle = unit.measured_turn.known() ? unit.measured_turn.si : leg.retraction.unit_angle.si;
      row.turns = unit.other_way ? Text("the other way") : Text("as usual");
      if (!unit.label.empty()) row.state = say("{}, marked {}", row.state, Text(unit.label));
    }
    const Spring& s = leg.spring;
    const std::string& shelf = s.kind == SpringKind::coil        ? s.coil.shelf_name
                               : s.kind == SpringKind::cord      ? s.cord.shelf_name
                               : s.kind == SpringKind::gas_strut ? s.gas_strut.shelf_name
                               : s.kind == SpringKind::pucks     ? s.pucks.shelf_name
                                                                 : std::string();
    if (!shelf.empty()) {
      RegisterRow& row = add(say("{} spring", d.stem_word(leg)), side, root + "spring/", shelf);
      if (s.kind == SpringKind::coil) row.size = s.coil.wire_diameter;
    }
  }
  for (const Piece& piece : pieces_of(d, Per::part)) {
    const auto mass = given_at(d, piece.at + "mass_kg");
    const Bought b = bought(history, piece.key, in_words(piece.words));
    RegisterRow row{
        piece.words, {}, nan, nan, {}, mass ? mass->si : nan, b.price, {}, decision_on(d, piece.at)};
    const bool* weighed = flag_at(d, piece.at + "weighed");
    row.state = weighed && *weighed ? Text("weighed")
                : b.is              ? Text("bought, not weighed")
                                    : Text("estimated");
    rows.push_back(std::move(row));
  }
  return rows;
}

}  // namespace kranich::tasks
