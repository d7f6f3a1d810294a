// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/consistency.h"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <cmath>
#include <set>

#include "core/model/describe.h"
#include "core/model/guess.h"
#include "core/model/locate.h"

namespace kranich {
namespace {

//! Holds every member against its description.
class Checker {
 public:
  explicit Checker(std::vector<Fault>& faults, UnitSystem units) : faults_(faults), units_(units) {}

  void given(std::string_view key, const Given& g, const Spec& spec) {
    if (!g.known()) return;
    if (!spec.allows(g.si)) return fault(key, spec.title, *refusal(g.si, spec, units_));
    if (!(g.tolerance >= 0) || g.tolerance > spec.largest_tolerance())
      fault(key, spec.title,
            fmt::format("may be off by 0 to {}, is given as ± {}",
                        format_quantity(spec.largest_tolerance(), spec.kind, units_),
                        format_quantity(g.tolerance, spec.kind, units_)));
  }
  void text(std::string_view key, const std::string& s, std::string_view title) {
    if (s.size() > longest_text) fault(key, title, fmt::format("is longer than {} characters", longest_text));
  }
  void flag(std::string_view, const bool&, std::string_view) {}
  template <class E>
  void choice(std::string_view, E&, Names, std::string_view) {}
  template <class T>
  void object(std::string_view key, T& t, std::string_view) {
    Step step(*this, key);
    describe(*this, t);
  }
  template <class T>
  void list(std::string_view key, const std::vector<T>& items, std::string_view title, size_t most) {
    if (items.size() > most)
      return fault(key, title, fmt::format("may hold {} entries, has {}", most, items.size()));
    Step step(*this, key);
    for (size_t i = 0; i < items.size(); ++i) {
      Step entry(*this, i);
      describe(*this, items[i]);
    }
  }
  void project(std::string_view, const std::string&, std::string_view) {}

 private:
  //! Where in the design the walk is; written out only where there is a fault to tell.
  struct Place {
    std::string_view key;
    size_t index = 0;
  };
  struct Step {
    Checker& checker;
    Step(Checker& c, std::string_view key) : checker(c) { c.path_.push_back({key}); }
    Step(Checker& c, size_t index) : checker(c) { c.path_.push_back({{}, index}); }
    ~Step() { checker.path_.pop_back(); }
    Step(const Step&) = delete;
    Step& operator=(const Step&) = delete;
  };
  void fault(std::string_view key, std::string_view title, std::string what) {
    std::string where;
    for (const auto& p : path_)
      where += p.key.empty() ? fmt::format("/{}", p.index) : fmt::format("/{}", p.key);
    faults_.push_back({fmt::format("{}/{}", where, key), std::move(what), std::string(title)});
  }

  std::vector<Fault>& faults_;
  UnitSystem units_;
  std::vector<Place> path_;
};

//! The one entry of two lists of equal length whose name differs; nothing where none or several do.
template <class T>
std::optional<size_t> renamed(const std::vector<T>& before, const std::vector<T>& after) {
  if (before.size() != after.size()) return std::nullopt;
  std::optional<size_t> at;
  for (size_t i = 0; i < after.size(); ++i) {
    if (before[i].name == after[i].name) continue;
    if (at) return std::nullopt;
    at = i;
  }
  return at;
}

//! Every material that a leg names.
template <class F>
void for_materials(Leg& leg, F&& each) {
  each(leg.material);
  each(leg.axle_material);
  each(leg.spring.bent.material);
  for (auto& t : leg.tubes) each(t.material);
  for (auto& j : leg.joints) {
    each(j.material);
    each(j.into);
  }
}

}  // namespace

std::vector<Fault> relation_faults(const Design& d) {
  std::vector<Fault> faults;
  auto names_unique = [&](const auto& list, const char* path, const char* what) {
    std::set<std::string_view> seen;
    for (size_t i = 0; i < list.size(); ++i) {
      if (list[i].name.empty())
        faults.push_back({fmt::format("{}/{}/name", path, i), "must not be empty", what});
      else if (!seen.insert(list[i].name).second)
        faults.push_back(
            {fmt::format("{}/{}/name", path, i), fmt::format("\"{}\" is used twice", list[i].name), what});
    }
  };
  names_unique(d.ledger, "/ledger", "Item");
  names_unique(d.loadings, "/loadings", "Loading");
  names_unique(d.variants, "/variants", "Variant");
  // Legs, doors and aids are the actors of sequences: one set of ids.
  std::set<std::string_view> ids;
  const auto ids_unique = [&](const auto& list, const char* path, const char* what) {
    for (size_t i = 0; i < list.size(); ++i) {
      if (list[i].id.empty())
        faults.push_back({fmt::format("{}/{}/id", path, i), "must not be empty", what});
      else if (list[i].id.find('/') != std::string::npos ||
               std::isdigit(static_cast<unsigned char>(list[i].id[0])))
        faults.push_back(
            {fmt::format("{}/{}/id", path, i), "must not begin with a figure or hold a stroke", what});
      else if (!ids.insert(list[i].id).second)
        faults.push_back(
            {fmt::format("{}/{}/id", path, i), fmt::format("\"{}\" is used twice", list[i].id), what});
    }
  };
  ids_unique(d.gear.legs, "/gear/legs", "Leg");
  ids_unique(d.doors, "/doors", "Door");
  ids_unique(d.sequence.aids, "/sequence/aids", "Steering, up-lock or brakes");
  std::set<std::string_view> boxes;
  for (size_t i = 0; i < d.sequence.boxes.size(); ++i)
    if (const std::string& id = d.sequence.boxes[i].id; id.empty() || !boxes.insert(id).second)
      faults.push_back({fmt::format("/sequence/boxes/{}/id", i),
                        id.empty() ? "must not be empty" : fmt::format("\"{}\" is used twice", id), "Box"});
  const auto must_be_leg = [&](const std::string& id, std::string where, const char* what) {
    if (!d.gear.find(id))
      faults.push_back({std::move(where), fmt::format("\"{}\" is no leg's id", id), what});
  };
  for (size_t i = 0; i < d.sequence.aids.size(); ++i)
    must_be_leg(d.sequence.aids[i].leg, fmt::format("/sequence/aids/{}/leg", i), "Of the leg");
  for (size_t i = 0; i < d.doors.size(); ++i) {
    must_be_leg(d.doors[i].leg, fmt::format("/doors/{}/leg", i), "Door");
    const std::string& with = d.doors[i].drive.with;
    if (with.empty()) continue;
    const auto its =
        std::find_if(d.doors.begin(), d.doors.end(), [&](const Door& x) { return x.id == with; });
    const std::string where = fmt::format("/doors/{}/drive/with", i);
    if (its == d.doors.end() || with == d.doors[i].id)
      faults.push_back(
          {where, fmt::format("\"{}\" is no other door's id", with), "On the crank of the door"});
    else if (!its->drive.with.empty())
      faults.push_back({where, fmt::format("\"{}\" hangs on another door's crank itself", with),
                        "On the crank of the door"});
  }
  for (size_t i = 0; i < d.ledger.size(); ++i)
    if (!d.ledger[i].moves.empty())
      must_be_leg(d.ledger[i].moves, fmt::format("/ledger/{}/moves", i), "Hangs on");
  for (size_t i = 0; i < d.weighing.scales.size(); ++i)
    if (!d.weighing.scales[i].leg.empty())
      must_be_leg(d.weighing.scales[i].leg, fmt::format("/weighing/scales/{}/leg", i), "Stands on it");
  std::set<std::string_view> loads;
  for (const auto& item : d.ledger)
    if (item.group == Group::load) loads.insert(item.name);
  for (size_t i = 0; i < d.loadings.size(); ++i)
    for (size_t j = 0; j < d.loadings[i].aboard.size(); ++j) {
      const auto& name = d.loadings[i].aboard[j].item;
      if (!loads.count(name))
        faults.push_back({fmt::format("/loadings/{}/aboard/{}/item", i, j),
                          fmt::format("\"{}\" is no item of the ledger's group \"load\"", name), "Aboard"});
    }
  return faults;
}

std::vector<Fault> inconsistencies(const Design& design) {
  std::vector<Fault> faults;
  Checker checker(faults, design.units);
  describe(checker, design);
  auto relations = relation_faults(design);
  faults.insert(faults.end(), relations.begin(), relations.end());
  return faults;
}

void follow(const Design& before, Design& after) {
  carry_guesses(before, after);
  if (const auto i = renamed(before.ledger, after.ledger); i && !after.ledger[*i].name.empty())
    for (auto& l : after.loadings)
      for (auto& a : l.aboard)
        if (a.item == before.ledger[*i].name) a.item = after.ledger[*i].name;
  if (!(before.ledger == after.ledger))
    for (auto& l : after.loadings)
      std::erase_if(l.aboard, [&](const Aboard& a) {
        const auto is = [&](const Item& item) { return item.name == a.item; };
        const auto now = std::find_if(after.ledger.begin(), after.ledger.end(), is);
        const auto was = std::find_if(before.ledger.begin(), before.ledger.end(), is);
        const bool was_load = was != before.ledger.end() && was->group == Group::load;
        return was_load && (now == after.ledger.end() || now->group != Group::load);
      });
  if (const auto i = renamed(before.loadings, after.loadings)) {
    const auto& old = before.loadings[*i].name;
    const auto& now = after.loadings[*i].name;
    if (after.weighing.loading == old) after.weighing.loading = now;
    if (after.stance.target_loading == old) after.stance.target_loading = now;
    for (auto& r : after.stance.readings)
      if (r.loading == old) r.loading = now;
  }
  // What is gone takes with it what only it had: a leg its doors, their steps, its readings.
  const auto gone = [](const auto& old, const auto& now) {
    std::set<std::string> ids;
    for (const auto& x : old)
      if (std::none_of(now.begin(), now.end(), [&](const auto& y) { return y.id == x.id; })) ids.insert(x.id);
    return ids;
  };
  const auto legs_gone = gone(before.gear.legs, after.gear.legs);
  std::erase_if(after.doors, [&](const Door& d) { return legs_gone.count(d.leg) > 0; });
  for (auto& item : after.ledger)
    if (legs_gone.count(item.moves)) item.moves.clear();
  for (auto& scale : after.weighing.scales)
    if (legs_gone.count(scale.leg)) scale.leg.clear();
  std::erase_if(after.spring_bench.readings, [&](const auto& r) { return legs_gone.count(r.leg) > 0; });
  std::erase_if(after.spring_bench.drops, [&](const auto& r) { return legs_gone.count(r.leg) > 0; });
  std::erase_if(after.sequence.aids, [&](const Aid& a) { return legs_gone.count(a.leg) > 0; });
  auto actors_gone = gone(before.doors, after.doors);
  for (auto& door : after.doors)
    if (actors_gone.count(door.drive.with)) door.drive.with.clear();
  actors_gone.insert(legs_gone.begin(), legs_gone.end());
  actors_gone.merge(gone(before.sequence.aids, after.sequence.aids));
  for (auto* steps : {&after.sequence.up, &after.sequence.down})
    std::erase_if(*steps, [&](const Step& s) { return actors_gone.count(s.actor) > 0; });
  // What hangs on a box goes with it; a box that gets another id keeps what hangs on it.
  std::erase_if(after.sequence.outputs, [&](const BoxOutput& o) { return actors_gone.count(o.actor) > 0; });
  const auto& boxes_before = before.sequence.boxes;
  auto& boxes = after.sequence.boxes;
  if (boxes.size() == boxes_before.size()) {
    for (size_t i = 0; i < boxes.size(); ++i) {
      if (boxes[i].id == boxes_before[i].id) continue;
      for (BoxOutput& o : after.sequence.outputs)
        if (o.box == boxes_before[i].id) o.box = boxes[i].id;
      for (SequencerBox& b : boxes)
        if (b.chained_to == boxes_before[i].id) b.chained_to = boxes[i].id;
    }
  } else {
    const auto boxes_gone = gone(boxes_before, boxes);
    std::erase_if(after.sequence.outputs, [&](const BoxOutput& o) { return boxes_gone.count(o.box) > 0; });
    for (SequencerBox& b : boxes)
      if (boxes_gone.count(b.chained_to)) b.chained_to.clear();
  }
  for (auto& leg : after.gear.legs) {
    const Leg* was = before.gear.find(leg.id);
    if (!was) continue;
    if (const auto i = renamed(was->tubes, leg.tubes); i && !was->tubes[*i].name.empty())
      for (auto& j : leg.joints)
        if (j.carries == was->tubes[*i].name) j.carries = leg.tubes[*i].name;
  }
  if (const auto i = renamed(before.materials, after.materials); i && !before.materials[*i].name.empty())
    for (auto& leg : after.gear.legs)
      for_materials(leg, [&](std::string& name) {
        if (name == before.materials[*i].name) name = after.materials[*i].name;
      });
}

std::variant<Design, std::vector<Fault>> changed(const Design& before,
                                                 const std::function<void(Design&)>& change) {
  Design after = before;
  change(after);
  follow(before, after);
  auto faults = inconsistencies(after);
  if (!faults.empty()) return faults;
  return after;
}

}  // namespace kranich
