// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tasks/piece.h"

#include <algorithm>
#include <map>

#include "core/assess/subjects.h"

namespace kranich::tasks {
namespace {

std::string leg_path(const std::string& id) { return "/gear/legs/" + id + "/"; }

//! Every leg as often as it stands, each on its side.
std::vector<Piece> standing(const Design& d, const std::string& what,
                            Text (*words)(const Design&, const Leg&, Text side), bool (*fits)(const Leg&)) {
  std::vector<Piece> list;
  for (const PlacedLeg& p : placed_legs(d.gear)) {
    const Leg& leg = d.gear.legs[p.row];
    if (!fits(leg)) continue;
    Piece piece;
    piece.leg = leg.id;
    piece.port = p.port;
    const bool centre = leg.stands == LegStands::centre;
    // The other side's leg may be a row of its own.
    std::string other = leg.id;
    if (leg.stands == LegStands::port || leg.stands == LegStands::starboard) {
      other.clear();
      for (const Leg& l : d.gear.legs)
        if (l.role == leg.role && l.stands == (p.port ? LegStands::starboard : LegStands::port) && fits(l)) {
          other = l.id;
          break;
        }
    }
    piece.key = leg.id + (centre ? "" : p.port ? "/port" : "/starboard");
    if (!what.empty()) piece.key += ":" + what;
    if (!centre && !other.empty()) {
      piece.has_twin = true;
      piece.twin = other + (p.port ? "/starboard" : "/port") + (what.empty() ? "" : ":" + what);
    }
    const bool told = leg.stands == LegStands::both_sides;
    piece.words = words(d, leg, !told ? Text() : p.port ? Text("port") : Text("starboard"));
    list.push_back(std::move(piece));
  }
  return list;
}

Text with_side(Text side, Text what) { return side.empty() ? what : say("{} {}", side, what); }
bool any(const Leg&) { return true; }
bool retracts(const Leg& leg) { return leg.retraction.fitted; }
bool rolls(const Leg& leg) { return !leg.skid; }

}  // namespace

Piece whole() { return {}; }

std::vector<Piece> pieces_of(const Design& d, Per per) {
  std::vector<Piece> list;
  switch (per) {
    case Per::once:
      return {whole()};
    case Per::part:
    case Per::gear_part: {
      std::map<std::string, int> seen;
      for (size_t i = 0; i < d.ledger.size(); ++i) {
        const Item& item = d.ledger[i];
        if (item.group == Group::load) continue;
        const int nth = ++seen[item.name];
        if (per == Per::gear_part && item.group != Group::gear) continue;
        Piece piece;
        piece.key = "part:" + item.name + (nth > 1 ? "#" + std::to_string(nth) : "");
        piece.words = item.name.empty() ? Text("a part without a name") : Text(item.name);
        piece.leg = item.moves;
        piece.at = "/ledger/" + std::to_string(i) + "/";
        list.push_back(std::move(piece));
      }
      return list;
    }
    case Per::joint:
    case Per::glued_joint:
      for (const Leg& leg : d.gear.legs) {
        std::map<std::string, int> seen;
        for (size_t i = 0; i < leg.joints.size(); ++i) {
          const Joint& joint = leg.joints[i];
          const int nth = ++seen[joint.name];
          if (per == Per::glued_joint && joint.kind != JointKind::block && joint.kind != JointKind::plate)
            continue;
          Piece piece;
          piece.key = leg.id + "/joint:" + joint.name + (nth > 1 ? "#" + std::to_string(nth) : "");
          piece.words = say("{}, {}", d.leg_word(leg), joint.name.empty() ? Text("joint") : Text(joint.name));
          piece.leg = leg.id;
          piece.at = leg_path(leg.id) + "joints/" + std::to_string(i) + "/";
          list.push_back(std::move(piece));
        }
      }
      return list;
    case Per::side: {
      const Leg* main = d.gear.first(LegRole::main);
      for (const bool port : {true, false}) {
        Piece piece;
        piece.key = port ? "port" : "starboard";
        piece.words = port ? Text("port side") : Text("starboard side");
        piece.has_twin = true;
        piece.twin = port ? "starboard" : "port";
        piece.port = port;
        if (main) piece.leg = port ? d.port_leg().id : main->id;
        list.push_back(std::move(piece));
      }
      return list;
    }
    case Per::leg_type:
      for (const Leg& leg : d.gear.legs) {
        // A port leg of its own is of the same type as its twin.
        if (leg.stands == LegStands::port &&
            std::any_of(d.gear.legs.begin(), d.gear.legs.end(),
                        [&](const Leg& l) { return l.role == leg.role && l.stands == LegStands::starboard; }))
          continue;
        Piece piece;
        piece.key = leg.id + ":type";
        piece.words = d.legs_word(leg);
        piece.leg = leg.id;
        list.push_back(std::move(piece));
      }
      return list;
    case Per::leg:
      return standing(
          d, "", [](const Design& x, const Leg& l, Text side) { return with_side(side, x.leg_word(l)); },
          any);
    case Per::retracting_leg:
      return standing(
          d, "", [](const Design& x, const Leg& l, Text side) { return with_side(side, x.leg_word(l)); },
          retracts);
    case Per::wheel:
      return standing(
          d, "wheel",
          [](const Design& x, const Leg& l, Text side) { return with_side(side, x.wheel_word(l)); }, rolls);
    case Per::unit:
      return standing(
          d, "unit",
          [](const Design& x, const Leg& l, Text side) {
            return with_side(side, say("{} unit", x.stem_word(l)));
          },
          retracts);
    case Per::door:
      for (const Door& door : d.doors) {
        Piece piece;
        piece.key = "door:" + door.id;
        piece.words = d.actor_word(door.id);
        piece.leg = door.leg;
        piece.at = "/doors/" + door.id + "/";
        list.push_back(std::move(piece));
      }
      return list;
  }
  return list;
}

std::optional<std::string> path_for(const Design& d, const Piece& piece, const std::string& path) {
  const auto after = [&](std::string_view start) -> std::optional<std::string> {
    if (!path.starts_with(start)) return {};
    return path.substr(start.size());
  };
  if (piece.at.starts_with("/gear/"))
    for (const std::string_view joints : {"/gear/*/joints/*/", "/gear/legs/*/joints/*/"})
      if (const auto rest = after(joints)) return piece.at + *rest;
  for (const auto& [list, own] : {std::pair{"/ledger/*/", "/ledger/"}, {"/doors/*/", "/doors/"}})
    if (const auto rest = after(list))
      return piece.at.starts_with(own) ? std::optional(piece.at + *rest) : std::nullopt;
  for (const std::string_view legs : {"/gear/legs/*/", "/gear/*/"})
    if (const auto rest = after(legs)) {
      if (piece.leg.empty() || rest->find('*') != std::string::npos) return {};
      return leg_path(piece.leg) + *rest;
    }
  if (const auto rest = after("/gear/main/")) {
    const Leg* main = d.gear.first(LegRole::main);
    if (!main) return {};
    return leg_path(piece.port ? d.port_leg().id : main->id) + *rest;
  }
  if (path.find('*') != std::string::npos) return {};
  return path;
}

}  // namespace kranich::tasks
