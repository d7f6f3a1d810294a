// SPDX-License-Identifier: GPL-3.0-or-later
//! A gear's switches, relays, drives and legs as a state machine, and every state that it can reach: nothing
//! is timed, events happen one at a time in any order, the operator's and the machine's own are told apart.
//! Source: handbook, Doors and sequence, Logic.
//!
//! What a proof covers is this model: no mechanics, no voltages, no time beyond it.
#pragma once

#include <cstdint>
#include <functional>
#include <map>
#include <memory>
#include <string>
#include <vector>

#include "core/logic/condition.h"

namespace kranich::logic {

//! A part that is in one of a few states.
struct Variable {
  std::string name;
  std::vector<std::string> values;
};

struct Event {
  std::string name;
  bool by_operator = false;  //!< else by the machine itself
  Condition when{};
  std::map<std::string, std::string> set;
  std::string fault{};  //!< of something that breaks on the way: happens only where this fault is asked for
};

//! A lamp or a horn: "true" where its condition holds, else "false".
struct Output {
  std::string name;
  Condition when;
};

enum class Demand {
  never,    //!< no reachable state is such
  ends,     //!< with the operator doing nothing more, the machine does not stay in such states
  settles,  //!< no reachable cycle of the machine's own events
};
struct Property {
  std::string name;
  Demand demand = Demand::never;
  Condition where{};  //!< may ask for outputs as well as variables
};

//! Something broken: a variable that stays as it is, whatever would set it; events that cannot happen; and
//! the events that are this fault, which may happen at any time that they say.
struct Fault {
  std::string name;
  std::map<std::string, std::string> hold;
  std::vector<std::string> removed;
};

struct Machine {
  std::vector<Variable> variables;
  std::map<std::string, std::string> initial;
  std::vector<Event> events;
  std::vector<Output> outputs;
  std::vector<Property> properties;
  std::vector<Fault> faults;
};

//! What a property came to under a fault.
struct Outcome {
  std::string property;
  bool violated = false;
  std::vector<std::string>
      run;                //!< events from the start to the first violating state; the shortest there is
  bool by_cycle = false;  //!< of `ends` and `settles`: it goes round for ever; else it stands still
};
struct Exploration {
  std::string fault;
  size_t states = 0;  //!< reachable, the initial one included
  size_t depth = 0;   //!< most events that a reachable state needs
  bool complete = true;
  std::vector<Outcome> outcomes;
};

//! Names of variables, values, outputs and events that do not exist, in words; empty where all is well.
std::vector<std::string> faults_in(const Machine& machine);

//! Whether an event is possible in a state and would change it: for a machine that is tried by hand.
bool can_happen(const Event& event, const State& state);

//! Explores a machine with some faults at once. `keep_going` is asked now and then: where it says no, what
//! was found so far is returned, not complete. No more than `most` states: beyond it the answer says so as
//! well. Errors: a machine with faults_in gives nothing but states = 0, not complete.
Exploration explore(const Machine& machine, const std::vector<const Fault*>& faults,
                    const std::function<bool()>& keep_going = {}, size_t most = 4'000'000);

//! The states of a machine with nothing broken, kept: whatever breaks does so in one of them.
class Reached {
 public:
  //! `assumed`: variables that stay as they are in all of it. The machine must outlive this. One with
  //! faults_in reaches nothing and is not complete.
  Reached(const Machine& machine, Fault assumed, const std::function<bool()>& keep_going = {},
          size_t most = 4'000'000);
  ~Reached();
  Reached(Reached&&) noexcept;
  Reached& operator=(Reached&&) noexcept;
  const Exploration& sound() const;
  //! What follows once something has broken, for faults that are events: only the states from there on are
  //! counted and judged; runs are told from the start, the shortest there are.
  Exploration after(const std::vector<const Fault*>& faults, const std::function<bool()>& keep_going = {},
                    size_t most = 4'000'000) const;

 private:
  struct Kept;
  std::unique_ptr<Kept> kept_;
};

}  // namespace kranich::logic
