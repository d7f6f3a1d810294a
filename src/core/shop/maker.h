// SPDX-License-Identifier: GPL-3.0-or-later
//! How the sheets are made: the lists and the jig in lists.cpp, what is cut or bent by in templates.cpp.
#pragma once

#include <fmt/format.h>

#include <algorithm>
#include <string>
#include <variant>
#include <vector>

#include "core/base/say.h"
#include "core/shop/sheets.h"

namespace kranich::shop {

inline constexpr double mm = 1000;

inline std::string caution() {
  return "For planning: local rules and licensed persons decide; structure that carries people needs their "
         "check "
         "and a proof test.";
}

//! Makes the sheets of one design: holds what all of them need to say.
class Maker {
 public:
  using Made = std::variant<Drawing, Text>;
  Maker(const Design& d, const Assessment& a, std::string state) : d_(d), a_(a), state_(std::move(state)) {}

  std::vector<Sheet> all() {
    put("jig", "Jig sheet", jig());
    put("cut-list", "Cut list", cut_list());
    put("hardware", "Hardware list", hardware());
    if (!d_.sequence.up.empty() || !d_.sequence.down.empty())
      put("sequence", "Sequence card: who moves when", sequence_card());
    put("threads", "Threads: drill, rod, depth", threads());
    if (!d_.plies.empty()) put("lay-up", "Lay-up schedule", lay_up());
    for (size_t i = 0; i < d_.plies.size(); ++i)
      if (d_.plies[i].length.known() || d_.plies[i].width.known())
        put(fmt::format("cloth:{} {}", i + 1, d_.plies[i].zone),
            fmt::format("Cloth {}, {}", i + 1, d_.plies[i].zone), cloth(i));
    bulkheads();
    for (const auto& m : members_of(d_))
      if (std::isfinite(m.clocking))
        put("clocking:" + m.leg + ":" + m.name, fmt::format("Holes of {}, {}, clocked", m.name, m.leg),
            clocking(m));
    for (const Leg& leg : d_.gear.legs) {
      const std::string word = leg_word(leg);
      const std::string& id = leg.id;
      for (size_t i = 1; i < leg.tubes.size(); ++i)
        put("cope:" + id + ":" + leg.tubes[i].name,
            fmt::format("Cope of {} on {}, {}", leg.tubes[i].name, leg.tubes[0].name, word),
            cope(leg, leg.tubes[i], leg.tubes[0]));
      for (const auto& j : leg.joints)
        if (j.kind != JointKind::pin && j.kind != JointKind::post)
          put("plate:" + id + ":" + j.name, fmt::format("{}, {}", j.name, word), plate(j));
      if (leg.retraction.fitted) {
        put("unit:" + id, "Plate of the retract unit, " + word, unit_plate(leg));
        put("well:" + id,
            "Cut-out of the " + (leg.retraction.well.name.empty() ? "well" : leg.retraction.well.name),
            well(leg));
        if (leg.retraction.floor.known()) put("slot:" + id, "Slot in the floor, " + word, slot(leg));
      }
      if (leg.spring.kind == SpringKind::bending) {
        if (leg.spring.bent.form == BentForm::wire) {
          put("bend:" + id, "Bending plan of the wire, " + word, wire(leg));
        } else {
          put("outline:" + id, "Outline laid flat, " + word, outline(leg));
          if (leg.spring.bent.form == BentForm::bow)  // a leaf is bent, not laid up
            put("mould:" + id, "Section of the mould, " + word, mould(leg));
        }
      }
    }
    hands();
    return std::move(sheets_);
  }

 private:
  //! What a leg that stands on both sides needs twice: said to be identical, or drawn for the other side too.
  void hands();
  //! Names that differ only in what no file's name may hold get a number, so that no sheet writes over
  //! another.
  void put(const std::string& wanted, const std::string& title, Made made) {
    const auto taken = [&](const std::string& id) {
      return std::any_of(sheets_.begin(), sheets_.end(),
                         [name = file_name({id, {}, {}})](const Sheet& s) { return file_name(s) == name; });
    };
    std::string id = wanted;
    for (int i = 2; taken(id); ++i) id = fmt::format("{}-{}", wanted, i);
    if (auto* drawing = std::get_if<Drawing>(&made)) {
      drawing->title = title;
      drawing->state = state_;
    }
    sheets_.push_back({id, title, std::move(made)});
  }
  std::string leg_word(const Leg& leg) const { return in_words(d_.leg_word(leg), {d_.units}); }
  std::string say(double si, Kind kind) const { return format_quantity(si, kind, d_.units); }
  std::string length(double si) const { return say(si, Kind::length); }
  std::string unit() const { return std::string(display_unit(Kind::length, d_.units).symbol); }
  std::string number(double si) const { return format_number(si, Kind::length, d_.units); }
  std::string angle(double rad) const { return std::isfinite(rad) ? say(rad, Kind::angle) : "–"; }

  Made jig() const;

  Made cut_list() const;

  Made hardware() const;
  Made sequence_card() const;
  //! Every former of a body, full size; and one of them, by its oval at that station.
  void bulkheads();
  Made bulkhead(const Reference& former, double half_width, double top, double bottom) const;
  Made cloth(size_t ply) const;
  //! Every coarse thread with its drill, its rod and how deep it holds; those that this design uses marked.
  Made threads() const;

  Made lay_up() const;

  Made cope(const Leg& leg, const Tube& cut, const Tube& main) const;
  //! Wrap and fixture for two holes at an angle round a tube.
  Made clocking(const MemberLine& m) const;

  Made plate(const Joint& j) const;
  //! Tap drills and depths of its fasteners where they are tapped into what it bears on.
  void blind_holes(const Joint& j, Drawing& onto, double below) const;

  Made unit_plate(const Leg& leg) const;

  //! Cut-out and bay in plan, from the leg's own way.
  Made well(const Leg& leg) const;
  //! The slot through a floor.
  Made slot(const Leg& leg) const;

  Made wire(const Leg& leg) const;

  Made outline(const Leg& leg) const;

  Made mould(const Leg& leg) const;

  const Design& d_;
  const Assessment& a_;
  std::string state_;
  std::vector<Sheet> sheets_;
};

}  // namespace kranich::shop
