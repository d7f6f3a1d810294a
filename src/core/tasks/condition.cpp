// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tasks/condition.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <stdexcept>
#include <utility>

#include "core/force/materials.h"
#include "core/model/locate.h"

namespace kranich::tasks {

using enum Truth;

Truth both(Truth a, Truth b) { return a == no || b == no ? no : a == yes && b == yes ? yes : unknown; }
Truth either(Truth a, Truth b) { return a == yes || b == yes ? yes : a == no && b == no ? no : unknown; }
Truth opposite(Truth a) { return a == unknown ? unknown : a == yes ? no : yes; }

namespace {

struct Looked {
  const Design& d;
  const Assessment& assessment;
};
using Says = Truth (*)(const Looked&);

struct Known {
  Word word;
  Says says;
};

constexpr Truth known(bool is) { return is ? yes : no; }

//! Whether any leg is so; unknown without legs.
template <class Is>
Truth any_leg(const Design& d, Is is) {
  if (d.gear.legs.empty()) return unknown;
  Truth all = no;
  for (const Leg& leg : d.gear.legs) all = either(all, is(leg));
  return all;
}
bool bends(const Leg& leg) { return leg.spring.kind == SpringKind::bending; }
Truth bent_as(const Design& d, BentForm form) {
  return any_leg(d, [form](const Leg& l) { return known(bends(l) && l.spring.bent.form == form); });
}
Truth sprung_by(const Design& d, SpringKind kind) {
  return any_leg(d, [kind](const Leg& l) { return known(l.spring.kind == kind); });
}
Truth retracts(const Design& d) {
  return any_leg(d, [](const Leg& l) { return known(l.retraction.fitted); });
}
//! Whether any leg that retracts is so.
template <class Is>
Truth any_swing(const Design& d, Is is) {
  return any_leg(d, [&](const Leg& l) { return l.retraction.fitted ? is(l) : no; });
}
Truth driven_by(const Design& d, DriveKind kind) {
  return any_swing(d, [kind](const Leg& l) {
    return l.retraction.drive.kind == DriveKind::none ? unknown : known(l.retraction.drive.kind == kind);
  });
}
template <class Is>
Truth any_joint(const Design& d, Is is) {
  Truth all = no;
  bool one = false;
  for (const Leg& leg : d.gear.legs)
    for (const Joint& joint : leg.joints) {
      one = true;
      all = either(all, is(joint));
    }
  return one ? all : unknown;
}
Truth joint_into(const Design& d, Stuff stuff) {
  return any_joint(d, [&](const Joint& j) {
    if (j.into.empty()) return unknown;
    const Material* material = force::find_material(d.materials, j.into);
    return material ? known(material->stuff == stuff) : unknown;
  });
}
Truth tubes(const Design& d) {
  return any_leg(d, [](const Leg& l) {
    if (!l.tubes.empty()) return yes;
    // A strut that is one piece has its section entered; a leg of which nothing is said may be of tubes.
    return bends(l) || l.retraction.fitted || l.tube_diameter.known() || l.section_width.known() ? no
                                                                                                 : unknown;
  });
}
bool any_undecided(const Design& d) {
  if (!d.decisions.empty()) return true;
  const auto all = all_given(d);
  return std::any_of(all.begin(), all.end(),
                     [](const NamedGiven& g) { return g.given.origin == Origin::undecided; });
}
Truth steel_tubes(const Design& d) {
  const Truth any = tubes(d);
  if (any != yes) return any;
  Truth all = no;
  for (const Leg& leg : d.gear.legs)
    for (const Tube& tube : leg.tubes) {
      const std::string& of = tube.material.empty() ? leg.material : tube.material;
      all = either(all, of.empty() ? unknown : known(of.find("steel") != std::string::npos));
    }
  return all;
}
Truth takes_set(const Looked& l) {
  Truth all = no;
  for (const Finding& f : l.assessment.findings)
    if (f.measure_id == "spring.set")
      all = either(all, std::isfinite(f.value) ? known(f.value > 0) : unknown);
  return all;
}
Truth prototype(const Design& d) {
  const auto& p = d.purpose;
  if (p.scale_denominator.known() || p.prototype_wheel_diameter.known() || p.prototype_main_x.known() ||
      p.prototype_track.known() || d.landing.prototype_sink_speed.known())
    return yes;
  return unknown;
}
Truth steered_as(const Design& d, std::initializer_list<SteeringKind> kinds) {
  return any_leg(d, [&](const Leg& l) {
    return known(std::find(kinds.begin(), kinds.end(), l.steering.kind) != kinds.end());
  });
}
Truth screwed(const Design& d) {
  return any_joint(d, [&](const Joint& j) {
    if (j.kind != JointKind::fasteners) return no;
    if (j.holds.known()) return yes;
    return known(j.material.find("wood screw") != std::string::npos);
  });
}

const std::vector<Known>& known_words() {
  static const std::vector<Known> list{
      {{"any", "always", ""}, [](const Looked&) { return yes; }},
      {{"full-size", "`/purpose/build` is full size", ""},
       [](const Looked& l) { return known(!l.d.is_model()); }},
      {{"model", "`/purpose/build` is model", ""}, [](const Looked& l) { return known(l.d.is_model()); }},
      {{"wing", "`/purpose/lift` is wing", ""}, [](const Looked& l) { return known(l.d.flies_on_wings()); }},
      {{"scale", "`/purpose/scale_denominator` is known", "copy"},
       [](const Looked& l) { return l.d.purpose.scale_denominator.known() ? yes : unknown; }},
      {{"prototype", "the scale or any number of the original is known", "copy"},
       [](const Looked& l) { return prototype(l.d); }},
      {{"tricycle", "a nose wheel, or lines of mains, carry it", "legs"},
       [](const Looked& l) { return l.d.gear.legs.empty() ? unknown : known(l.d.is_tricycle()); }},
      {{"tailwheel", "a leg has the role tail", "legs"},
       [](const Looked& l) { return l.d.gear.legs.empty() ? unknown : known(!l.d.is_tricycle()); }},
      {{"skid", "a leg is a skid", "legs"},
       [](const Looked& l) { return any_leg(l.d, [](const Leg& leg) { return known(leg.skid); }); }},
      {{"brakes", "`/gear/wheel_brakes`", ""}, [](const Looked& l) { return known(l.d.gear.brakes); }},
      {{"undecided", "a line in `/decisions`, or any number of origin undecided", ""},
       [](const Looked& l) { return known(any_undecided(l.d)); }},
      {{"tubes", "`/gear/legs/*/tubes` is not empty", "tubes"}, [](const Looked& l) { return tubes(l.d); }},
      {{"steel-tubes", "one of the tubes is of a steel", "tubes"},
       [](const Looked& l) { return steel_tubes(l.d); }},
      {{"sprung", "a leg has a spring and travel", "spring"},
       [](const Looked& l) {
         return any_leg(l.d, [](const Leg& leg) {
           if (bends(leg)) return yes;
           return leg.travel.known() ? known(leg.travel > 0) : unknown;
         });
       }},
      {{"coil", "a spring of this kind", "legs"},
       [](const Looked& l) { return sprung_by(l.d, SpringKind::coil); }},
      {{"gas", "a spring of this kind: the strut's own gas, or a bought strut", "legs"},
       [](const Looked& l) {
         return either(sprung_by(l.d, SpringKind::gas), sprung_by(l.d, SpringKind::gas_strut));
       }},
      {{"cord", "a spring of this kind", "legs"},
       [](const Looked& l) { return sprung_by(l.d, SpringKind::cord); }},
      {{"pucks", "a spring of this kind", "legs"},
       [](const Looked& l) { return sprung_by(l.d, SpringKind::pucks); }},
      {{"leaf", "a leaf spring, or a leg that is a metal leaf", "legs"},
       [](const Looked& l) {
         return either(sprung_by(l.d, SpringKind::leaf), bent_as(l.d, BentForm::leaf));
       }},
      {{"metal-leaf", "a leg that is a metal leaf", "legs"},
       [](const Looked& l) { return bent_as(l.d, BentForm::leaf); }},
      {{"carbon-bow", "a leg that is a laid-up bow", "legs"},
       [](const Looked& l) { return bent_as(l.d, BentForm::bow); }},
      {{"bent-wire", "a leg that is a bent wire", "legs"},
       [](const Looked& l) { return bent_as(l.d, BentForm::wire); }},
      {{"takes-set", "measure `spring.set` is above zero", "set"}, takes_set},
      {{"printed", "a leg's material is printed", "material"},
       [](const Looked& l) {
         return any_leg(l.d, [&](const Leg& leg) {
           if (leg.material.empty()) return bends(leg) || !leg.tubes.empty() ? no : unknown;
           const Material* m = force::find_material(l.d.materials, leg.material);
           return m ? known(m->stuff == Stuff::printed) : unknown;
         });
       }},
      {{"pneumatic", "`/gear/legs/*/wheel/tyre` is pneumatic", "legs"},
       [](const Looked& l) {
         return any_leg(l.d,
                        [](const Leg& leg) { return known(!leg.skid && leg.wheel.tyre == Tyre::pneumatic); });
       }},
      {{"fork", "a wheel stands in its leg's line, or a fork gap is entered", "fork"},
       [](const Looked& l) {
         return any_leg(l.d, [](const Leg& leg) {
           if (leg.skid) return no;
           if (leg.wheel.fork_gap.known()) return yes;
           return leg.wheel_offset.known() ? known(std::abs(leg.wheel_offset) < 1e-6) : unknown;
         });
       }},
      {{"glued", "a joint is a glued block or plate", "joints"},
       [](const Looked& l) {
         return any_joint(l.d, [](const Joint& j) {
           return known(j.kind == JointKind::block || j.kind == JointKind::plate);
         });
       }},
      {{"screwed", "fasteners with a pull that each holds, or wood screws", "joints"},
       [](const Looked& l) { return screwed(l.d); }},
      {{"in-timber", "a joint goes into timber", "joints"},
       [](const Looked& l) { return joint_into(l.d, Stuff::timber); }},
      {{"in-foam", "a joint goes into foam", "joints"},
       [](const Looked& l) { return joint_into(l.d, Stuff::foam); }},
      {{"in-laminate", "a joint goes into a laminate", "joints"},
       [](const Looked& l) { return joint_into(l.d, Stuff::laminate); }},
      {{"plies", "`/plies` is not empty", "plies"},
       [](const Looked& l) { return l.d.plies.empty() ? unknown : yes; }},
      {{"retracts", "`retraction/fitted` of any leg", "legs"}, [](const Looked& l) { return retracts(l.d); }},
      {{"fixed", "no leg retracts", "legs"}, [](const Looked& l) { return opposite(retracts(l.d)); }},
      {{"third-retracts", "the nose or tail leg retracts", "legs"},
       [](const Looked& l) {
         return l.d.gear.legs.empty() ? unknown
                                      : known(l.d.gear.has_third() && l.d.gear.third().retraction.fitted);
       }},
      {{"brace", "a leg retracts and both ends of its folding brace are known", "brace"},
       [](const Looked& l) {
         return any_swing(l.d, [](const Leg& leg) {
           return leg.brace_leg.known() && leg.brace_airframe.known() ? yes : unknown;
         });
       }},
      {{"doors", "a leg retracts and `/doors` is not empty", "doors"},
       [](const Looked& l) { return both(retracts(l.d), l.d.doors.empty() ? unknown : yes); }},
      {{"servo", "a leg's drive is a servo", "drive"},
       [](const Looked& l) { return driven_by(l.d, DriveKind::servo); }},
      {{"hydraulic", "a leg's drive is a hydraulic cylinder", "drive"},
       [](const Looked& l) { return driven_by(l.d, DriveKind::cylinder); }},
      {{"air", "a leg's drive is worked by air", "drive"},
       [](const Looked& l) { return driven_by(l.d, DriveKind::air); }},
      {{"assist", "a down-spring is entered", "assist"},
       [](const Looked& l) {
         return any_swing(l.d, [](const Leg& leg) {
           return leg.retraction.drive.down_spring.extended_force.known() ? yes : unknown;
         });
       }},
      {{"steered", "a leg is steered by a rod, by sliding rods", "legs"},
       [](const Looked& l) {
         return steered_as(l.d, {SteeringKind::rod, SteeringKind::sliding_rods});
       }},
      {{"sliding-rods", "a leg is steered by sliding rods", "legs"},
       [](const Looked& l) { return steered_as(l.d, {SteeringKind::sliding_rods}); }},
  };
  return list;
}

}  // namespace

const std::vector<Word>& all_words() {
  static const std::vector<Word> words = [] {
    std::vector<Word> list;
    for (const Known& k : known_words()) list.push_back(k.word);
    return list;
  }();
  return words;
}

const std::vector<Question>& all_questions() {
  static const std::vector<Question> list{
      {"legs", "Which legs does it stand on?", "", "place"},
      {"copy", "Is it a copy of an original? Enter its scale or what is known of it.", "It is no copy",
       "place"},
      {"tubes", "Are the legs made of tubes? Enter them, or the strut's section.", "No leg is of tubes",
       "leg"},
      {"spring", "How far does a leg travel on its spring?", "", "spring"},
      {"set", "Does a leg take a set? Enter what its bending needs.", "", "spring"},
      {"material", "What are the legs made of?", "None is printed", "leg"},
      {"fork", "Does a wheel run in a fork? Enter the wheel's offset from its leg, or the gap.",
       "No wheel runs in a fork", "leg"},
      {"joints", "How is each leg held? Enter its joints and what they go into.",
       "No mounts of wood, foam or glue", "leg"},
      {"plies", "Is cloth laid round the mounts? Enter it ply by ply.", "No cloth is laid", "leg"},
      {"brace", "Does a folding brace hold a leg down? Enter its ends.", "No folding brace", "swing"},
      {"doors", "Are there doors over the wells? Enter them.", "There are no doors", "doors"},
      {"drive", "How are the legs moved?", "", "drive"},
      {"assist", "Does a spring help a leg down? Enter it.", "No spring helps", "drive"},
  };
  return list;
}

const Question& question(std::string_view key) {
  for (const Question& q : all_questions())
    if (q.key == key) return q;
  throw std::logic_error("no such question");
}

Facts::Facts(const Design& design, const Assessment& assessment) {
  const Looked looked{design, assessment};
  const auto without = [&](std::string_view key) {
    return std::any_of(design.without.begin(), design.without.end(),
                       [&](const Without& w) { return w.question == key; });
  };
  for (const Known& k : known_words()) {
    Truth said = k.says(looked);
    if (said == unknown && without(k.word.question)) said = no;
    said_.push_back(said);
  }
}

Truth Facts::of(std::string_view word) const {
  const auto& words = known_words();
  const auto it =
      std::find_if(words.begin(), words.end(), [&](const Known& k) { return k.word.name == word; });
  if (it == words.end()) throw std::logic_error("no such word");
  return said_[static_cast<size_t>(it - words.begin())];
}

//! Reads by recursive descent; what is wrong is the first thing that is.
class Reader {
 public:
  explicit Reader(std::string_view text) {
    std::string word;
    const auto end_word = [&] {
      if (!word.empty()) tokens_.push_back(std::exchange(word, {}));
    };
    for (const char c : text) {
      if (c == '(' || c == ')') {
        end_word();
        tokens_.emplace_back(1, c);
      } else if (c == ' ' || c == '\t') {
        end_word();
      } else {
        word += c;
      }
    }
    end_word();
  }
  std::variant<Condition, std::string> read() {
    if (tokens_.empty()) return "says nothing: \"any\" where it always applies";
    alternatives();
    if (wrong_.empty() && at_ < tokens_.size())
      wrong_ = fmt::format("\"{}\" where nothing may follow", tokens_[at_]);
    if (!wrong_.empty()) return wrong_;
    return made_;
  }

 private:
  using Sort = Condition::Sort;
  bool next(std::string_view word) {
    if (at_ >= tokens_.size() || tokens_[at_] != word) return false;
    ++at_;
    return true;
  }
  size_t put(Sort sort, size_t a, size_t b = 0) {
    made_.nodes_.push_back({sort, a, b});
    return made_.nodes_.size() - 1;
  }
  size_t alternatives() {
    size_t left = conjunction();
    while (wrong_.empty() && next("or")) left = put(Sort::either, left, conjunction());
    return left;
  }
  size_t conjunction() {
    size_t left = factor();
    while (wrong_.empty() && next("and")) left = put(Sort::both, left, factor());
    return left;
  }
  size_t factor() {
    if (++depth_ > 40 && wrong_.empty()) wrong_ = "too many brackets within each other";
    size_t made = 0;
    if (!wrong_.empty()) {
    } else if (next("not")) {
      made = put(Sort::no, factor());
    } else if (next("(")) {
      made = alternatives();
      if (wrong_.empty() && !next(")")) wrong_ = "a bracket is not closed";
    } else {
      made = word();
    }
    --depth_;
    return made;
  }
  size_t word() {
    if (at_ >= tokens_.size()) {
      wrong_ = "a word is missing at its end";
      return 0;
    }
    const auto& words = known_words();
    const auto it =
        std::find_if(words.begin(), words.end(), [&](const Known& k) { return k.word.name == tokens_[at_]; });
    if (it == words.end()) {
      std::string all;
      for (const Known& k : words) all += (all.empty() ? "" : ", ") + std::string(k.word.name);
      wrong_ = fmt::format("the word \"{}\" is none of: {}", tokens_[at_].substr(0, 40), all);
      return 0;
    }
    ++at_;
    return put(Sort::word, static_cast<size_t>(it - words.begin()));
  }

  std::vector<std::string> tokens_;
  size_t at_ = 0;
  int depth_ = 0;
  Condition made_;
  std::string wrong_;
};

std::variant<Condition, std::string> Condition::read(std::string_view text) { return Reader(text).read(); }

Truth Condition::of(const Facts& facts) const { return of(facts, nodes_.size() - 1); }

Truth Condition::of(const Facts& facts, size_t at) const {
  const Node& n = nodes_[at];
  switch (n.sort) {
    case Sort::word:
      return facts.of(n.a);
    case Sort::no:
      return opposite(of(facts, n.a));
    case Sort::both:
      return tasks::both(of(facts, n.a), of(facts, n.b));
    case Sort::either:
      return tasks::either(of(facts, n.a), of(facts, n.b));
  }
  return unknown;
}

std::vector<std::string_view> Condition::asks(const Facts& facts) const {
  std::vector<std::string_view> keys;
  if (of(facts) != unknown) return keys;
  for (const Node& n : nodes_)
    if (n.sort == Sort::word && facts.of(n.a) == unknown) {
      const std::string_view key = known_words()[n.a].word.question;
      if (!key.empty() && std::find(keys.begin(), keys.end(), key) == keys.end()) keys.push_back(key);
    }
  return keys;
}

}  // namespace kranich::tasks
